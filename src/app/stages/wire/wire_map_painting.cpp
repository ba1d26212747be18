#include "app/stages/wire/wire_map.h"

#include "app/drawing/mark_clusters.h"
#include "app/drawing/mat.h"
#include "core/edits/wire_edits.h"
#include "core/links/link_report.h"
#include "core/rules/rule.h"
#include "core/rules/wording.h"

#include <QPainter>
#include <algorithm>

namespace waxis::wire {

void WireMap::drawBackground(QPainter *painter, const QRectF &rect) {
    drawing::paintMat(*painter, rect, pixelsPerMm(), theme_.colors());
}

void WireMap::drawForeground(QPainter *painter, const QRectF &) {
    painter->save();
    painter->resetTransform();
    painter->setRenderHint(QPainter::Antialiasing);
    paintPorts(*painter);
    paintGrips(*painter);
    paintPlaces(*painter);
    if (mode_ == Mode::joining && joinFrom_) paintNewWire(*painter);
    painter->restore();
}

void WireMap::paintPorts(QPainter &painter) const {
    const auto &c = theme_.colors();
    const std::string chosen = document_.selected().toStdString();
    const bool joining = mode_ == Mode::joining && joinFrom_;
    std::vector<QRectF> named;
    painter.setFont(theme_.text(10));
    for (const auto &dot : ports()) {
        const bool own = dot.end.part == chosen;
        if (pixelsPerMm() <= 1.2 && !joining && !own) continue;
        const bool takes = joining && std::find(takers_.begin(), takers_.end(), dot.end) != takers_.end();
        painter.setPen(QPen(takes ? c.thrustAxis : c.chalk, takes ? 2 : 1));
        painter.setBrush(dot.used ? QBrush(c.softChalk) : QBrush(c.mat));
        const double r = takes ? 4.5 : own ? 3.4 : 2.6;
        painter.drawEllipse(pixel(dot.at_mm), r, r);
        if (!takes && !(own && !joining)) continue;
        const QString name =
            joining ? QString::fromStdString(displayName(document_.build(), dot.end.part) + ": " + dot.end.port)
                    : QString::fromStdString(dot.end.port);
        const double wide = QFontMetricsF(painter.font()).horizontalAdvance(name) + 8;
        for (const QPointF &off :
             {QPointF(8 + wide / 2, 0), QPointF(-8 - wide / 2, 0), QPointF(0, -14), QPointF(0, 14)}) {
            const QRectF box(pixel(dot.at_mm) + off - QPointF(wide / 2, 8), QSizeF(wide, 16));
            if (std::any_of(named.begin(), named.end(), [&](const QRectF &n) { return n.intersects(box); })) continue;
            named.push_back(box);
            drawing::paintTag(painter, box.center(), name, takes ? c.thrustAxis : c.chalk, c);
            break;
        }
    }
}

void WireMap::paintGrips(QPainter &painter) const {
    const auto &c = theme_.colors();
    for (const auto &grip : grips()) {
        const QPointF at = pixel(grip.at_mm);
        painter.setPen(QPen(c.mat, 1));
        switch (grip.kind) {
        case Grip::Kind::stop:
            painter.setBrush(c.chalk);
            painter.drawRect(QRectF(at - QPointF(4, 4), QSizeF(8, 8)));
            break;
        case Grip::Kind::bend:
            painter.setBrush(Qt::white);
            painter.drawEllipse(at, 3, 3);
            break;
        case Grip::Kind::tie:
            painter.setPen(QPen(c.chalk, 1.4));
            painter.setBrush(Qt::NoBrush);
            painter.drawRoundedRect(QRectF(at - QPointF(3, 6), QSizeF(6, 12)), 2, 2);
            break;
        }
    }
}

void WireMap::paintPlaces(QPainter &painter) const {
    const auto &c = theme_.colors();
    std::vector<std::pair<QPointF, Severity>> unlit;
    for (const auto &finding : document_.analysis().findings) {
        if (!finding.from_mm || finding.accepted() || ruleOf(finding.rule).stage != Stage::wire) continue;
        if (finding.rule == RuleId::wirLength || finding.rule == RuleId::wirGauge ||
            finding.severity == Severity::note || finding.severity == Severity::unknown)
            continue;
        const bool lit = std::any_of(finding.subjects.begin(), finding.subjects.end(), [&](const std::string &subject) {
            const QString id = QString::fromStdString(subject);
            return document_.highlighted().contains(id) || document_.selection().contains(id);
        });
        const QColor color = theme::severityOnMat(finding.severity);
        const QPointF at = pixel(*finding.from_mm);
        // A mark where nothing is chosen; the chosen wire's places are ringed and said.
        if (!lit) unlit.emplace_back(at, finding.severity);
        if (lit) {
            painter.setPen(QPen(color, 2.4));
            painter.setBrush(Qt::NoBrush);
            painter.drawEllipse(at, 12, 12);
            const FindingText text = wordFinding(document_.build(), finding);
            drawing::paintTag(painter, at + QPointF(16, -10), QString::fromStdString(text.headline.text()), color, c);
        }
    }
    for (const auto &cluster : drawing::clusterMarks(unlit, 2 * drawing::kMark_px))
        drawing::paintMarkCluster(painter, cluster, theme_);
}

void WireMap::paintNewWire(QPainter &painter) const {
    const auto &c = theme_.colors();
    painter.setPen(QPen(c.chalk, 2, Qt::DashLine));
    painter.drawLine(pixel(joinFrom_->at_mm), now_);
    const auto over = portAt(now_);
    if (over && over->end.part != joinFrom_->end.part) {
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(pixel(over->at_mm), 8, 8);
        const auto cores = proposeCores(document_.build(), joinFrom_->end, over->end);
        QStringList words;
        for (const auto &core : cores)
            words << (core.fromPin == core.toPin ? QString::fromStdString(core.fromPin)
                                                 : QString::fromStdString(core.fromPin + "–" + core.toPin));
        drawing::paintTag(painter, now_ + QPointF(14, 14),
                          cores.empty() ? tr("nothing here that fits and is free") : words.join("  "), c.chalk, c);
    }
}

} // namespace waxis::wire
