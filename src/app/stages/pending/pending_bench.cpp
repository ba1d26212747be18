#include "app/stages/pending/pending_bench.h"

#include <QCoreApplication>
#include <QPainter>

namespace waxis::app {

const std::vector<StageText> &stageTexts() {
    auto say = [](const char *text) { return QCoreApplication::translate("Stages", text); };
    static const std::vector<StageText> texts{
        {"kit", say("Kit"), {}},
        {"frame", say("Frame"), {}},
        {"place", say("Place"), {}},
        {"stack", say("Stack"), {}},
        {"wire", say("Wire"), {}},
        {"radio", say("Radio"), {}},
        {"balance", say("Balance"), {}},
        {"build", say("Build"), {}},
        {"log", say("Log"), say("Measurements and trials are not built yet.")},
    };
    return texts;
}

bool isBuilt(Stage stage) { return stageTexts()[std::size_t(stage)].coming.isEmpty(); }

PendingBench::PendingBench(Stage stage, const theme::Theme &theme, QWidget *parent)
    : Bench(parent), stage_(stage), theme_(theme) {
    setAccessibleName(stageTexts()[std::size_t(stage)].name);
    setAccessibleDescription(stageTexts()[std::size_t(stage)].coming);
    connect(&theme_, &theme::Theme::changed, this, qOverload<>(&QWidget::update));
}

void PendingBench::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    const auto &c = theme_.colors();
    painter.fillRect(rect(), c.mat);
    const auto &text = stageTexts()[std::size_t(stage_)];
    const QPixmap icon = theme_.icon(text.id, c.softChalk, 48, devicePixelRatioF());
    const QPoint middle = rect().center();
    painter.drawPixmap(middle.x() - 24, middle.y() - 84, icon);
    painter.setPen(c.chalk);
    painter.setFont(theme_.text(20, true));
    painter.drawText(QRect(0, middle.y() - 24, width(), 30), Qt::AlignCenter, text.name);
    painter.setPen(c.softChalk);
    painter.setFont(theme_.text(13));
    painter.drawText(QRect(24, middle.y() + 10, width() - 48, 60), Qt::AlignHCenter | Qt::TextWordWrap, text.coming);
}

} // namespace waxis::app
