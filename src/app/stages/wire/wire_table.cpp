#include "app/stages/wire/wire_table.h"

#include "app/drawing/wires.h"
#include "core/edits/wire_edits.h"
#include "core/power/power_report.h"
#include "core/remedies/gauge_advice.h"
#include "core/rules/rule.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QPainter>
#include <algorithm>

namespace waxis::wire {

namespace {

enum Column { cWire, cEnds, cGauge, cRoute, cSlack, cCut, cSupplied, cDrop, cVerdict, cCount };

/// The least of each column; the name takes what its words need.
constexpr std::array<int, cCount> kWidths_px{0, 90, 70, 50, 46, 44, 66, 70, 92};

QString whole(double value) { return QString::number(value, 'f', 0); }

/// A short piece of the wire in its colour on the drawing.
QPixmap swatch(const QColor &color, double ratio) {
    return theme::kept("wire " + color.name(QColor::HexArgb), 12, ratio,
                       [&](QPainter &painter) { painter.fillRect(QRectF(0, 4.5, 12, 3), color); });
}

QPixmap mark(Severity severity, double ratio) {
    return theme::kept(QStringLiteral("mark %1").arg(int(severity)), 14, ratio, [&](QPainter &painter) {
        if (severity != Severity::pass)
            theme::drawSeverityMark(painter, QPointF(7, 7), 5, severity, theme::severityOnMat(severity));
    });
}

} // namespace

WireTable::WireTable(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : MatTable(theme,
               {tr("wire"), tr("from → to"), tr("gauge"), tr("route"), tr("slack"), tr("cut"), tr("supplied"),
                tr("drop"), tr("verdict")},
               parent),
      document_(document) {
    setObjectName("wire-table");
    setAccessibleName(tr("Wires"));
    setEmptyText(tr("No wires yet: drag from the ring of one port to that of another."));
    horizontalHeaderItem(cRoute)->setToolTip(tr("mm along the route"));
    horizontalHeaderItem(cSlack)->setToolTip(tr("mm for ends, soldering once more, swaying and opening"));
    horizontalHeaderItem(cCut)->setToolTip(tr("mm to cut"));
    horizontalHeaderItem(cSupplied)->setToolTip(tr("mm that came with a part, or ready made"));
    horizontalHeaderItem(cDrop)->setToolTip(tr("voltage lost there and back at typical current"));
    verticalHeader()->setDefaultSectionSize(24);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto *header = horizontalHeader();
    header->setSectionResizeMode(QHeaderView::Fixed);
    header->setSectionResizeMode(cWire, QHeaderView::Interactive); // as wide as its names, see shareWidth
    header->setSectionResizeMode(cEnds, QHeaderView::Stretch);
    for (int c = cGauge; c < cCount; ++c) header->resizeSection(c, kWidths_px[std::size_t(c)]);
    header->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    connect(this, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (filling_ || row < 0 || std::size_t(row) >= document_.build().wires.size()) return;
        document_.select(QString::fromStdString(document_.build().wires[std::size_t(row)].id));
    });
    connect(&document_, &app::Document::changed, this, &WireTable::refresh);
    connect(&document_, &app::Document::judged, this, &WireTable::refresh);
    connect(&document_, &app::Document::selectionChanged, this, &WireTable::refresh);
    connect(&theme, &theme::Theme::changed, this, &WireTable::refresh);
    refresh();
}

QString WireTable::verdictText(const WireReport &report) {
    switch (report.verdict) {
    case LeadVerdict::unknown: return tr("not known");
    case LeadVerdict::cut: return tr("cut");
    case LeadVerdict::asItIs: return report.spare_mm > 20 ? tr("%1 spare").arg(whole(report.spare_mm)) : tr("as it is");
    case LeadVerdict::trim: return tr("trim %1").arg(whole(*report.supplied_mm - report.cut_mm));
    case LeadVerdict::shortBy: return tr("%1 short").arg(whole(-report.spare_mm));
    case LeadVerdict::readyMade: return tr("ready made");
    case LeadVerdict::none: return tr("none reaches");
    }
    return {};
}

Severity WireTable::worstAbout(const Analysis &analysis, const std::string &wire) {
    Severity worst = Severity::pass;
    for (const auto &finding : analysis.findings) {
        if (finding.accepted() || ruleOf(finding.rule).stage != Stage::wire) continue;
        if (std::find(finding.subjects.begin(), finding.subjects.end(), wire) == finding.subjects.end()) continue;
        if (finding.severity < worst) worst = finding.severity;
    }
    return worst;
}

void WireTable::refresh() {
    if (!isVisible()) return;
    filling_ = true;
    const Build &build = document_.build();
    const Derived &derived = document_.analysis().derived;
    setRowCount(int(build.wires.size()));
    int chosen = -1;
    for (int row = 0; row < rowCount(); ++row) {
        const Wire &wire = build.wires[std::size_t(row)];
        const WireReport &report = derived.wiring->wires[std::size_t(row)];
        const WireCurrent &current = derived.power->wires[std::size_t(row)];
        auto put = [&](int column, const QString &text, bool number) {
            QTableWidgetItem *at = item(row, column);
            if (!at) setItem(row, column, at = new QTableWidgetItem);
            at->setText(text);
            at->setFont(number ? MatTable::theme().numbers(12) : MatTable::theme().text(12, column == cWire));
            at->setForeground(column == cEnds ? MatTable::theme().colors().softChalk
                                              : MatTable::theme().colors().chalk);
        };
        put(cWire, QString::fromStdString(wire.name), false);
        item(row, cWire)->setData(Qt::DecorationRole, swatch(drawing::wireColor(report.role), devicePixelRatioF()));
        put(cEnds,
            tr("%1 → %2, %3")
                .arg(QString::fromStdString(displayName(build, wire.from.part)),
                     QString::fromStdString(displayName(build, wire.to.part)), QString::fromStdString(wire.to.port)),
            false);
        for (const int c : {cWire, cEnds})
            item(row, c)->setToolTip(item(row, cWire)->text() + "\n" + item(row, cEnds)->text());
        put(cGauge,
            wire.lay == WireLay::coax   ? tr("coax")
            : wire.lay == WireLay::flat ? tr("flat %1").arg(wire.cores.size())
                                        : tr("%1 × %2").arg(wire.cores.size()).arg(report.gauge_AWG),
            true);
        put(cRoute, whole(report.route_mm), true);
        put(cSlack, whole(report.ends_mm + report.resolder_mm + report.slack_mm), true);
        put(cCut,
            report.verdict == LeadVerdict::cut || report.verdict == LeadVerdict::trim ? whole(report.cut_mm) : tr("–"),
            true);
        put(cSupplied, report.supplied_mm ? whole(*report.supplied_mm) : tr("–"), true);
        const double drop_V = dropOf(report, current).drop_V;
        put(cDrop, drop_V > 0.0005 ? tr("%1 mV").arg(drop_V * 1e3, 0, 'f', drop_V < 0.01 ? 1 : 0) : tr("–"), true);
        const bool isLed = !derived.routes[std::size_t(row)].makeshift;
        put(cVerdict, isLed ? verdictText(report) : tr("being led"), false);
        const Severity worst = worstAbout(document_.analysis(), wire.id);
        item(row, cVerdict)->setData(Qt::DecorationRole, mark(worst, devicePixelRatioF()));
        if (worst == Severity::stop) item(row, cVerdict)->setForeground(theme::severityOnMat(worst));
        if (QString::fromStdString(wire.id) == document_.selected()) chosen = row;
    }
    if (chosen >= 0 && chosen != currentRow())
        setCurrentCell(chosen, 0);
    else if (chosen < 0)
        setCurrentItem(nullptr);
    filling_ = false;
    shareWidth();
}

void WireTable::shareWidth() {
    // A wire's name is whole; the ends give way first, then what is rarely looked at.
    constexpr int kMostName_px = 420;
    const int name = std::clamp(sizeHintForColumn(cWire) + 6, 90, kMostName_px);
    int wanted = name;
    for (int c = cEnds; c < cCount; ++c) wanted += kWidths_px[std::size_t(c)];
    for (const int c : {cEnds, cDrop, cSlack}) {
        const bool hidden = wanted > viewport()->width();
        if (hidden) wanted -= kWidths_px[std::size_t(c)];
        setColumnHidden(c, hidden);
    }
    auto *header = horizontalHeader();
    const int stretched = isColumnHidden(cEnds) ? cVerdict : cEnds;
    header->resizeSection(cWire, name);
    for (const int c : {cEnds, cVerdict})
        header->setSectionResizeMode(c, c == stretched ? QHeaderView::Stretch : QHeaderView::Fixed);
    if (stretched == cEnds) header->resizeSection(cVerdict, kWidths_px[cVerdict]);
}

void WireTable::resizeEvent(QResizeEvent *event) {
    MatTable::resizeEvent(event);
    shareWidth();
}

void WireTable::showEvent(QShowEvent *event) {
    QTableWidget::showEvent(event);
    refresh();
}

void WireTable::keyPressEvent(QKeyEvent *event) {
    const int row = currentRow();
    if ((event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace) && row >= 0) {
        const Wire wire = document_.build().wires[std::size_t(row)];
        document_.edit(tr("Take %1 out").arg(QString::fromStdString(wire.name)),
                       removeWire(document_.build(), wire.id));
        return;
    }
    MatTable::keyPressEvent(event);
}

} // namespace waxis::wire
