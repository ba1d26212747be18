#include "app/stages/wire/joints_page.h"

#include "app/widgets/mat_table.h"
#include "core/wiring/pad_joints.h"

#include <QHeaderView>
#include <QLabel>
#include <QVBoxLayout>
#include <array>
#include <set>

namespace waxis::wire {

JointsPage::JointsPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("joints-page");
    table_ = new theme::MatTable(theme, {tr("part"), tr("port"), tr("pin"), tr("wires"), tr("AWG"), tr("copper"),
                                         tr("wants"), tr("has"), tr("heat")});
    table_->setObjectName("joints-table");
    table_->setAccessibleName(tr("Joints"));
    table_->setEmptyText(tr("No wires yet: join two ports on the Routes page."));
    table_->setTips({{},
                     {},
                     {},
                     {},
                     {},
                     tr("mm² of all cores together"),
                     tr("mm: bare strands side by side on a pad, as a bundle in a hole"),
                     tr("mm: the pad's width, or the hole in it, as the part states it"),
                     tr("how much the joint wants: light up to 0.25 mm² of copper, middle up to 1, heavy beyond")});
    auto *header = table_->horizontalHeader();
    header->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    // In the smallest window names of parts and wires still have a hundred pixels each.
    const std::array<int, 9> widths{0, 70, 56, 0, 62, 60, 54, 46, 64};
    for (int c = 0; c < int(widths.size()); ++c) {
        header->setSectionResizeMode(c, widths[std::size_t(c)] == 0 ? QHeaderView::Stretch : QHeaderView::Interactive);
        if (widths[std::size_t(c)] > 0) header->resizeSection(c, widths[std::size_t(c)]);
    }
    sum_ = new QLabel;
    sum_->setObjectName("joints-sum");
    sum_->setWordWrap(true);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(12, 8, 12, 10);
    column->addWidget(table_, 1);
    column->addWidget(sum_);
    connect(table_, &QTableWidget::cellClicked, this, [this](int row, int) {
        if (const auto *part = table_->item(row, 0)) document_.select(part->data(Qt::UserRole).toString());
    });
    connect(&document_, &app::Document::changed, this, &JointsPage::refresh);
    theme_.dress(*this, theme::Ground::matBar);
}

void JointsPage::refresh() {
    if (!isVisible()) return;
    const Build &build = document_.build();
    const auto joints = padJoints(build);
    std::array<int, 3> heats{};
    int crimps = 0;
    table_->setRowCount(int(joints.size()));
    const theme::Refill refill(*table_);
    for (int row = 0; row < table_->rowCount(); ++row) {
        const PadJoints &joint = joints[std::size_t(row)];
        QStringList wires;
        std::set<int> gauges;
        for (const auto &core : joint.cores) {
            wires << QString::fromStdString(displayName(build, build.wires[std::size_t(core.wire)].id));
            gauges.insert(core.gauge_AWG);
        }
        QStringList awg;
        for (const int gauge : gauges) awg << QString::number(gauge);
        if (joint.isSoldered())
            ++heats[std::size_t(joint.heat())];
        else
            ++crimps;
        const auto heat = heatWord(joint.heat());
        const QStringList texts{QString::fromStdString(displayName(build, joint.part)),
                                QString::fromStdString(joint.port),
                                QString::fromStdString(joint.pin),
                                wires.join(QStringLiteral(", ")),
                                awg.join(QStringLiteral(", ")),
                                QString::number(joint.copper_mm2, 'f', 2),
                                QString::number(joint.wants_mm, 'f', 1),
                                joint.has_mm ? QString::number(*joint.has_mm, 'f', 1) : tr("–"),
                                joint.isSoldered() ? QString::fromUtf8(heat.data(), qsizetype(heat.size()))
                                                   : tr("crimped")};
        for (int c = 0; c < int(texts.size()); ++c) {
            QTableWidgetItem *item = table_->item(row, c);
            if (!item) table_->setItem(row, c, item = new QTableWidgetItem);
            item->setText(texts[c]);
            item->setToolTip(texts[c]);
            if (c == 0) item->setData(Qt::UserRole, QString::fromStdString(joint.part));
            if (c >= 4 && c <= 7) item->setFont(theme_.numbers(12));
        }
    }
    sum_->setText(joints.empty()
                      ? QString()
                      : tr("Soldered: %1 light, %2 middle, %3 heavy; crimped: %4.  Solder with air moving past "
                           "you and no pack connected; fumes and hot tips hurt.")
                            .arg(heats[0])
                            .arg(heats[1])
                            .arg(heats[2])
                            .arg(crimps));
}

void JointsPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    refresh();
}

} // namespace waxis::wire
