// How the chosen part is held, onto what, and what that takes: rows of the inspector.
#pragma once

#include "app/document/document.h"

#include <QComboBox>

class QFormLayout;
class QLabel;
class QSpinBox;

namespace waxis::app {

class FasteningRows : public QObject {
    Q_OBJECT

public:
    FasteningRows(Document &document, QFormLayout &form, QObject *parent);
    void refresh();

private:
    /// Things near enough to be fastened to are looked up when the list opens.
    class OntoBox : public QComboBox {
    public:
        explicit OntoBox(Document &document) : document_(document) {}
        void showPopup() override;

    private:
        Document &document_;
    };
    void apply(const Fastening &fastening);

    Document &document_;
    std::string shownPart_; ///< what the rows show: they are not filled anew while a part is only moved
    Fastening shown_;
    QComboBox *method_ = nullptr;
    QSpinBox *pieces_ = nullptr;
    OntoBox *onto_ = nullptr;
    QLabel *takes_ = nullptr;
};

} // namespace waxis::app
