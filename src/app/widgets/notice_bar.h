// One line over the foot of the bench for what must be said without a box in the way. It lies on the bench and never
// moves it: zoom and pan stay as they are.
#pragma once

#include "app/theme/theme.h"

#include <QWidget>
#include <functional>

class QHBoxLayout;
class QLabel;

namespace waxis::app {

struct NoticeChoice {
    QString text;
    std::function<void()> run;
};

class NoticeBar : public QWidget {
    Q_OBJECT

public:
    NoticeBar(const theme::Theme &theme, QWidget *over);
    /// Stays until it is answered or closed; `seconds` > 0: until then.
    void say(const QString &text, Severity severity, std::vector<NoticeChoice> choices = {}, int seconds = 0);
    QString text() const;

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;
    void paintEvent(QPaintEvent *event) override;

private:
    void place();

    const theme::Theme &theme_;
    QLabel *label_;
    QHBoxLayout *buttons_;
    Severity severity_ = Severity::note;
    int turn_ = 0;
};

} // namespace waxis::app
