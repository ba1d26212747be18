#include "app/stages/radio/compass_page.h"

#include "app/widgets/typed_number.h"

#include "app/theme/metrics.h"
#include "core/edits/radio_edits.h"
#include "core/magnetics/current_paths.h"
#include "core/radio/radio_report.h"
#include "core/rules/wording.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::radio {

CompassPage::CompassPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("compass-page");
    map_ = new CompassMap(document_, theme_);
    part_ = new QComboBox;
    part_->setObjectName("field-part");
    part_->setAccessibleName(tr("Which part of the field"));
    part_->addItems({tr("currents, full throttle"), tr("currents, hover"), tr("magnets")});
    auto *height = new app::QuantitySpin(Measure::length);
    connect(height, &app::QuantitySpin::refused, &document_, &app::Document::refused);
    height_ = height;
    height_->setObjectName("field-height");
    height_->setAccessibleName(tr("Height of the map"));
    height_->setRange(-500, 1000);
    height_->setDecimals(0);
    height_->setSingleStep(5);
    height_->setSuffix(tr(" mm"));
    height_->setToolTip(tr("Height above the frame's datum at which the field is shown"));
    keep_ = new QToolButton;
    keep_->setObjectName("keep-place");
    keep_->setText(tr("Keep to compare"));
    keep_->setToolTip(tr("Puts it into GPS places, beside where the module is"));
    clear_ = new QToolButton;
    clear_->setText(tr("Take away"));
    facts_ = new QLabel;
    facts_->setObjectName("compass-facts");
    facts_->setTextFormat(Qt::RichText);
    facts_->setWordWrap(true);
    facts_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    legend_ = new QLabel;
    legend_->setTextFormat(Qt::RichText);
    legend_->setWordWrap(true);

    auto *side = new QWidget;
    side->setObjectName("compass-side");
    side->setFixedWidth(250);
    auto *column = new QVBoxLayout(side);
    column->setContentsMargins(10, 8, 10, 8);
    column->setSpacing(6);
    auto *row = new QHBoxLayout;
    row->addWidget(new QLabel(tr("at a height of")));
    row->addWidget(height_, 1);
    column->addWidget(part_);
    column->addLayout(row);
    column->addWidget(legend_);
    auto *scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidget(facts_);
    column->addWidget(scroll, 1);
    auto *buttons = new QHBoxLayout;
    buttons->addWidget(keep_);
    buttons->addWidget(clear_);
    buttons->addStretch(1);
    column->addLayout(buttons);
    auto *all = new QHBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    all->addWidget(map_, 1);
    all->addWidget(side);

    connect(part_, &QComboBox::activated, this, [this](int index) {
        map_->setPart(FieldPart(index));
        refresh();
    });
    connect(height_, &QDoubleSpinBox::valueChanged, map_, &CompassMap::setHeight);
    connect(keep_, &QToolButton::clicked, this, &CompassPage::keepPlace);
    connect(clear_, &QToolButton::clicked, this, [this] { map_->setGhost(std::nullopt); });
    connect(map_, &CompassMap::ghostChanged, this, &CompassPage::refresh);
    connect(&document_, &app::Document::changed, this, &CompassPage::refresh);
    connect(&document_, &app::Document::loadCaseChanged, this, &CompassPage::refresh);
    scroll->setObjectName("side-scroll");
    theme_.dress(*side, theme::Ground::panel);
    connect(&theme_, &theme::Theme::changed, this, &CompassPage::refresh);
    refresh();
}

QString CompassPage::facts() const { return facts_->text(); }

void CompassPage::refresh() {
    const Build &build = document_.build();
    const Practice &practice = document_.analysis().practice;
    const auto &c = theme_.colors();
    {
        const QSignalBlocker quiet(height_);
        height_->setValue(map_->height_mm());
    }
    const auto swatch = [&](Severity severity, const QString &text) {
        return QStringLiteral("<span style='color:%1'>■</span> %2<br>").arg(c.severity(severity).name(), text);
    };
    legend_->setText(swatch(Severity::note, tr("turns the heading by %1° and more").arg(practice[Limit::headingNote])) +
                     swatch(Severity::watch, tr("%1° and more").arg(practice[Limit::headingWatch])) +
                     swatch(Severity::stop, tr("%1° and more").arg(practice[Limit::headingStop])) +
                     tr("against %1 µT of earth's field").arg(practice[Limit::earthField]));
    legend_->setFont(theme_.text(theme::kSmallPixels));
    QString text;
    const auto degrees = [](double value) { return value >= 180 ? tr("any") : tr("%1°").arg(value, 0, 'f', 1); };
    const auto tell = [&](const QString &title, const CompassReport &report) {
        text += QStringLiteral("<p><b>%1</b><br>").arg(title);
        text += tr("full throttle %1, hover %2, magnets %3")
                    .arg(degrees(report.full_deg), degrees(report.hover_deg), degrees(report.constant_deg));
        text += QStringLiteral("<br><span style='color:%1'>").arg(c.muted.name());
        int told = 0;
        for (const auto &share : report.by) {
            const double full = share.full_uT, steady = share.constant_uT.head<2>().norm();
            if (told >= 5 || full + steady < 0.05) break;
            ++told;
            const double level = std::max(full, steady);
            text +=
                QStringLiteral("%1: %2<br>")
                    .arg(QString::fromStdString(displayName(build, share.id)),
                         level < 1000 ? tr("%1 µT").arg(level, 0, 'f', 1) : tr("%1 mT").arg(level / 1000, 0, 'f', 1));
        }
        if (!report.iron.empty())
            text += tr("steel: %1, %2 mm<br>")
                        .arg(QString::fromStdString(withinSentence(displayName(build, report.iron.front().part))))
                        .arg(report.iron.front().distance_mm, 0, 'f', 0);
        text += QStringLiteral("</span></p>");
    };
    if (const auto ghost = map_->ghostReport())
        tell(tr("Here: %1, %2, %3 mm")
                 .arg(ghost->position_mm.x(), 0, 'f', 0)
                 .arg(ghost->position_mm.y(), 0, 'f', 0)
                 .arg(ghost->position_mm.z(), 0, 'f', 0),
             *ghost);
    else
        text +=
            tr("<p>Click on the craft: a compass that is only thought of tells what it would feel there. Arrow keys "
               "move it.</p>");
    for (const auto &compass : document_.analysis().derived.radio->compasses)
        tell(QString::fromStdString(displayName(build, compass.part)), compass);
    text +=
        QStringLiteral("<p style='color:%1'>%2</p>")
            .arg(c.muted.name(), tr("Biot and Savart over the routed wires, there and back as they run; twisted pairs "
                                    "by their pitch. Not "
                                    "in it: copper within boards and packs, iron, phase currents, which average out."));
    facts_->setText(text);
    facts_->setFont(theme_.text(12));
    keep_->setEnabled(map_->ghost().has_value() && !document_.analysis().derived.radio->compasses.empty());
    clear_->setEnabled(map_->ghost().has_value());
}

void CompassPage::keepPlace() {
    const auto &compasses = document_.analysis().derived.radio->compasses;
    if (!map_->ghost() || compasses.empty()) return;
    // The one that is chosen, else the first.
    std::string part = compasses.front().part;
    Vec3 now = compasses.front().position_mm;
    for (const auto &compass : compasses)
        if (compass.part == document_.selected().toStdString()) {
            part = compass.part;
            now = compass.position_mm;
        }
    const Part *found = findPart(document_.build(), part);
    if (!found) return;
    Pose pose = framePose(document_.build(), *found);
    pose.position_mm += *map_->ghost() - now;
    if (document_.edit(
            tr("A place to compare for %1").arg(QString::fromStdString(displayName(document_.build(), part))),
            addTrial(document_.build(), part, pose)))
        map_->setGhost(std::nullopt);
}

} // namespace waxis::radio
