// The chosen screw of the frame: head, thread, length, what it turns into, from which side.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <functional>

class QCheckBox;
class QComboBox;
class QFormLayout;

namespace waxis::app {

class ScrewRows : public QObject {
    Q_OBJECT

public:
    ScrewRows(Document &document, QFormLayout &form, QObject *parent);
    /// What it clamps, how long it is, which key; empty when no screw of the frame is chosen.
    QString refresh();

private:
    const FrameScrew *screw() const;
    /// Changes the chosen screw, and all that are like it where that is wished.
    void apply(const QString &what, const std::function<void(FrameScrew &)> &change);
    QComboBox *choice(const QString &label, const char *name, const QString &spoken,
                      std::function<void(FrameScrew &, const QVariant &)> put);
    void fillLengths(const FrameScrew &screw);

    Document &document_;
    QFormLayout &form_;
    QComboBox *length_ = nullptr, *head_ = nullptr, *thread_ = nullptr, *end_ = nullptr, *side_ = nullptr,
              *shared_ = nullptr;
    QCheckBox *alike_ = nullptr;
};

} // namespace waxis::app
