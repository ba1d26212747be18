// What else there is to a wire: sleeve, splices, the plugs at its ends, and what sits in its cores.
#pragma once

#include "app/document/document.h"

#include <QWidget>
#include <functional>

class QCheckBox;
class QComboBox;
class QLineEdit;
class QListWidget;
class QToolButton;

namespace waxis::app {

class WireExtras : public QWidget {
    Q_OBJECT

public:
    using Change = std::function<void(const QString &name, const std::function<void(Wire &)> &how)>;
    /// `change` edits the chosen wire.
    WireExtras(Document &document, Change change, QWidget *parent = nullptr);
    void show(const Wire &wire);

private:
    struct End {
        QLineEdit *family = nullptr, *ways = nullptr, *size = nullptr;
        QCheckBox *turned = nullptr;
    };
    void makeNumbers();
    void makeEnd(End &end, const QString &label, const char *name, std::optional<WirePlug> Wire::*plug);
    void makeInserts();
    void fillMenu(const Wire &wire);
    void insert(const QString &type);
    int chosen() const;
    QLineEdit *typed(const QString &label, const char *name, std::function<bool(Wire &, const QString &)> put);

    Document &document_;
    Change change_;
    QCheckBox *sleeved_ = nullptr, *taped_ = nullptr;
    QLineEdit *splices_ = nullptr, *pitch_ = nullptr, *readyMade_ = nullptr, *at_ = nullptr;
    End from_, to_;
    QListWidget *inserts_ = nullptr;
    QToolButton *add_ = nullptr, *remove_ = nullptr, *turn_ = nullptr;
    QComboBox *core_ = nullptr;
    bool filling_ = false;
};

} // namespace waxis::app
