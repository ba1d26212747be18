// The wheel scrolls: it changes a choice or a number only where the keys would.
#pragma once

#include <QObject>

namespace waxis::app {

/// For the whole application, as long as it lives: over a drop-down or spin box without the keyboard's focus the wheel
/// goes to what scrolls behind it, so that nobody changes a wire's gauge on the way down the inspector.
class CalmWheel : public QObject {
    Q_OBJECT

public:
    explicit CalmWheel(QObject *parent);

protected:
    bool eventFilter(QObject *receiver, QEvent *event) override;
};

} // namespace waxis::app
