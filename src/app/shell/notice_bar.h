// One line across the top of the bench for what must be said without a box in the way.
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
    NoticeBar(const theme::Theme &theme, QWidget *parent = nullptr);
    /// Stays until it is answered or closed; `seconds` > 0: until then.
    void say(const QString &text, Severity severity, std::vector<NoticeChoice> choices = {}, int seconds = 0);
    QString text() const;

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    const theme::Theme &theme_;
    QLabel *label_;
    QHBoxLayout *buttons_;
    Severity severity_ = Severity::note;
    int turn_ = 0;
};

} // namespace waxis::app
