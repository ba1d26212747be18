#include "app/stages/stack/gap_card.h"

#include "core/rules/stack_air.h"
#include "core/rules/wording.h"
#include "core/stack/report.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

namespace waxis::stackbench {

namespace {

const StackGap *gapNow(const StackFocus &focus) {
    const StackReport *report = focus.report();
    return report && focus.gap() >= 0 ? &report->gaps[std::size_t(focus.gap())] : nullptr;
}

std::vector<FieldPiece> piecesOf(const StackFocus &focus, const std::string &id) {
    const StackReport *report = focus.report();
    const Build &build = focus.document().build();
    const Pose X_BaseFrame = report->chain.X_FrameBase.inverse();
    if (const Part *part = findPart(build, id))
        return fieldOf(build, *part, X_BaseFrame, focus.document().analysis().practice);
    for (const auto &plate : build.frame->plates)
        if (plate.id == id) return {fieldOf(plate, *build.frame, X_BaseFrame)};
    return {};
}

QColor colorOf(const Build &build, const std::string &id) {
    Family family = Family::structure;
    if (const Part *part = findPart(build, id))
        if (const PartType *type = typeOf(build, *part)) family = familyOf(type->kind);
    return theme::familyColor(family);
}

} // namespace

GapPlan::GapPlan(StackFocus &focus, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), focus_(focus), theme_(theme) {
    setMinimumHeight(128);
    setAccessibleName(tr("Plan of the closest place"));
}

void GapPlan::paintEvent(QPaintEvent *) {
    const StackGap *gap = gapNow(focus_);
    if (!gap) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    const auto lower = piecesOf(focus_, gap->below), upper = piecesOf(focus_, gap->above);
    // The boards, not the plates, give the scale.
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    auto take = [&](const std::vector<FieldPiece> &pieces) {
        for (const auto &piece : pieces)
            if (piece.what != "plate")
                for (const auto &p : piece.footprint.outline) {
                    x0 = std::min(x0, p.x());
                    x1 = std::max(x1, p.x());
                    y0 = std::min(y0, p.y());
                    y1 = std::max(y1, p.y());
                }
    };
    take(lower);
    take(upper);
    if (!(x1 > x0)) return;
    const double scale = std::min((width() - 12) / (x1 - x0), (height() - 12) / (y1 - y0));
    auto pixel = [&](const Vec2 &p) {
        return QPointF(width() / 2.0 + (p.x() - (x0 + x1) / 2) * scale,
                       height() / 2.0 - (p.y() - (y0 + y1) / 2) * scale);
    };
    auto polygon = [&](const Ring &ring) {
        QPolygonF out;
        for (const auto &p : ring) out << pixel(p);
        return out;
    };
    painter.setClipRect(rect());
    const QColor fill = colorOf(focus_.document().build(), gap->below);
    const QColor ink = theme::palette(theme::Mode::light).ink;
    for (const auto &piece : lower) {
        QColor shade = piece.board || piece.what == "plate" ? fill : fill.darker(125);
        if (piece.to_mm < gap->lower.to_mm - 1e-9 && !piece.board && piece.what != "plate") shade = fill.darker(112);
        painter.setPen(QPen(ink, 0.8));
        painter.setBrush(shade);
        painter.drawPolygon(polygon(piece.footprint.outline));
    }
    QPen dashed(c.chalk, 1, Qt::DashLine);
    for (const auto &piece : upper) {
        if (piece.what == "plate") continue;
        painter.setBrush(Qt::NoBrush);
        painter.setPen(piece.board ? QPen(c.chalk, 1.2, Qt::DashLine) : QPen(ink, 1, Qt::DashLine));
        painter.drawPolygon(polygon(piece.footprint.outline));
    }
    const Severity severity = airSeverity(gap->air_mm(), focus_.document().analysis().practice);
    const QColor mark = severity == Severity::pass ? c.thrustAxis : theme::severityOnMat(severity);
    QColor veil = mark;
    veil.setAlphaF(0.55f);
    painter.setBrush(veil);
    painter.setPen(QPen(mark, 1.6));
    const QPolygonF where = polygon(gap->where);
    painter.drawPolygon(where);
    painter.setBrush(Qt::NoBrush);
    const double r = std::max(9.0, std::hypot(where.boundingRect().width(), where.boundingRect().height()) / 2 + 4);
    painter.setPen(QPen(ink, 3));
    painter.drawEllipse(where.boundingRect().center(), r, r);
    painter.setPen(QPen(mark, 1.6));
    painter.drawEllipse(where.boundingRect().center(), r, r);
}

GapCard::GapCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent)
    : theme::Card(theme, tr("Closest"), parent), focus_(focus) {
    plan_ = new GapPlan(focus, theme);
    body().addWidget(plan_);
    words_ = addNote();
    auto *line = new QHBoxLayout;
    line->setSpacing(4);
    auto button = [&](const QString &text, const QString &name, int way) {
        auto *tool = new QToolButton;
        tool->setText(text);
        tool->setAccessibleName(name);
        tool->setToolTip(name);
        connect(tool, &QToolButton::clicked, this, [this, way] { step(way); });
        line->addWidget(tool);
        return tool;
    };
    before_ = button(QStringLiteral("‹"), tr("Gap before"), -1);
    next_ = button(QStringLiteral("›"), tr("Next gap"), 1);
    line->addStretch(1);
    body().addLayout(line);
    connect(&focus_, &StackFocus::changed, this, &GapCard::refresh);
    refresh();
}

void GapCard::step(int way) {
    const StackReport *report = focus_.report();
    if (!report || report->gaps.empty()) return;
    const int count = int(report->gaps.size());
    focus_.chooseGap((focus_.gap() + way + count) % count);
}

void GapCard::refresh() {
    const StackGap *gap = gapNow(focus_);
    setVisible(gap != nullptr);
    if (!gap) return;
    const Build &build = focus_.document().build();
    const auto name = [&](const std::string &id) {
        return QString::fromStdString(withinSentence(displayName(build, id)));
    };
    setTitle(tr("Closest between %1 and %2").arg(name(gap->below), name(gap->above)));
    QString text = gap->gap_mm < 0 ? tr("%1 below meets %2 above by %3 mm")
                                         .arg(QString::fromStdString(gap->lower.what),
                                              QString::fromStdString(gap->upper.what), number(-gap->gap_mm))
                                   : tr("%1 below, %2 above: %3 mm apart")
                                         .arg(QString::fromStdString(gap->lower.what),
                                              QString::fromStdString(gap->upper.what), number(gap->gap_mm));
    if (gap->wires_mm > 0) text += tr(", less %1 mm of wires").arg(number(gap->wires_mm));
    if (gap->sheets_mm > 0) text += tr(", less %1 mm of sheet").arg(number(gap->sheets_mm, 2));
    text += tr(". Dashed: the upper one.");
    words_->setText(text);
    const StackReport *report = focus_.report();
    before_->setVisible(report->gaps.size() > 1);
    next_->setVisible(report->gaps.size() > 1);
    plan_->update();
}

} // namespace waxis::stackbench
