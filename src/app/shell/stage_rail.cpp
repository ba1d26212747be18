#include "app/shell/stage_rail.h"

#include "app/stages/stage_texts.h"
#include "app/theme/metrics.h"
#include "core/rules/rule.h"

#include <QButtonGroup>
#include <QPainter>
#include <QVBoxLayout>

namespace waxis::app {

StageButton::StageButton(Stage stage, const theme::Theme &theme, QWidget *parent)
    : QAbstractButton(parent), stage_(stage), theme_(theme) {
    setCheckable(true);
    const auto &text = stageTexts()[std::size_t(stage)];
    setText(text.name);
    setAccessibleName(text.name);
    setObjectName("stage-" + text.id);
    setToolTip(text.name);
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Expanding);
}

QSize StageButton::sizeHint() const { return {theme::kRailWidth, 66}; }

void StageButton::setCounts(const FindingCounts &counts) {
    if (counts == counts_) return;
    counts_ = counts;
    setAccessibleDescription(
        tr("%1 stop, %2 watch, %3 unknown").arg(counts.stop).arg(counts.watch).arg(counts.unknown));
    update();
}

void StageButton::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    const QRect cell = rect().adjusted(6, 2, -6, -2);
    if (isChecked()) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(c.mat);
        painter.drawRoundedRect(cell, theme::kCorner, theme::kCorner);
    } else if (hasFocus() || underMouse()) {
        painter.setPen(c.rule);
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(cell, theme::kCorner, theme::kCorner);
    }
    const QColor ink = isChecked() ? c.chalk : c.ink;
    // In a low window icon, name and marks move together; nothing stands in the next cell.
    constexpr int kRoomy_px = 62;
    const bool low = cell.height() < kRoomy_px;
    const int icon_px = low ? 18 : 24, iconTop = low ? cell.top() + 2 : int(cell.center().y()) - 26;
    const int nameTop = low ? iconTop + icon_px : int(cell.center().y());
    const int markAt = low ? nameTop + 21 : int(cell.center().y()) + 24;
    painter.drawPixmap(width() / 2 - icon_px / 2, iconTop,
                       theme_.icon(stageTexts()[std::size_t(stage_)].id, ink, icon_px, devicePixelRatioF()));
    painter.setPen(ink);
    painter.setFont(theme_.text(12, isChecked()));
    painter.drawText(QRect(0, nameTop, width(), 16), Qt::AlignCenter, text());
    painter.setFont(theme_.numbers(9));
    painter.drawText(QRect(cell.right() - 20, cell.top() + 2, 18, 12), Qt::AlignRight,
                     QStringLiteral("F%1").arg(int(stage_) + 1));
    painter.setOpacity(1.0);
    // The gravest two severities that are there.
    const std::pair<Severity, int> all[] = {{Severity::stop, counts_.stop},
                                            {Severity::watch, counts_.watch},
                                            {Severity::note, counts_.note},
                                            {Severity::unknown, counts_.unknown}};
    std::vector<std::pair<Severity, int>> shown;
    for (const auto &entry : all)
        if (entry.second > 0 && shown.size() < 2) shown.push_back(entry);
    const int step = 28;
    int x = width() / 2 - int(shown.size()) * step / 2;
    painter.setFont(theme_.numbers(10));
    for (const auto &[severity, count] : shown) {
        const QColor color = isChecked() ? theme::severityOnMat(severity) : c.severity(severity);
        theme::drawSeverityMark(painter, QPointF(x + 7, markAt), 4, severity, color);
        painter.setPen(isChecked() ? c.chalk : c.ink);
        painter.drawText(QRect(x + 13, markAt - 7, 16, 14), Qt::AlignLeft | Qt::AlignVCenter, QString::number(count));
        x += step;
    }
}

StageRail::StageRail(Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document) {
    setFixedWidth(theme::kRailWidth);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 4, 0, 4);
    layout->setSpacing(0);
    auto *group = new QButtonGroup(this);
    for (int i = 0; i < kStageCount; ++i) {
        auto *button = new StageButton(Stage(i), theme);
        buttons_.push_back(button);
        group->addButton(button);
        layout->addWidget(button);
        connect(button, &QAbstractButton::clicked, this, [this, i] { emit stageChosen(Stage(i)); });
    }
    connect(&document_, &Document::changed, this, &StageRail::recount);
    connect(&document_, &Document::judged, this, &StageRail::recount);
    recount();
}

void StageRail::setStage(Stage stage) { buttons_[std::size_t(stage)]->setChecked(true); }

void StageRail::recount() {
    for (int i = 0; i < kStageCount; ++i) {
        std::vector<Finding> own;
        for (const auto &finding : document_.analysis().findings)
            if (ruleOf(finding.rule).stage == Stage(i)) own.push_back(finding);
        buttons_[std::size_t(i)]->setCounts(countFindings(own));
    }
}

} // namespace waxis::app
