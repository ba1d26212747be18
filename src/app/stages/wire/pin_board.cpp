#include "app/stages/wire/pin_board.h"

#include "app/drawing/mat.h"
#include "core/edits/wire_edits.h"
#include "core/links/link_report.h"
#include "core/pins/signal.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

namespace waxis::wire {

namespace {
constexpr double kTop = 44, kHousing = 132, kMargin = 24, kPin = 5;

QColor coreColor(const WireCore &core) {
    const std::string name = core.colour.empty() ? std::string(customaryColour(signalOf(core.fromPin))) : core.colour;
    // Wire colours as they are sold; black must show on the dark mat.
    if (name == "black") return QColor("#9FB8B0");
    if (name == "red") return QColor("#E0614F");
    if (name == "yellow") return QColor("#E5C84B");
    if (name == "white") return QColor("#F2F2EC");
    if (name == "blue") return QColor("#6FB4DE");
    if (name == "green") return QColor("#7CC08A");
    if (name == "orange") return QColor("#E59A4B");
    return QColor("#B9B4A8");
}
} // namespace

PinBoard::PinBoard(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("pin-board");
    setAccessibleName(tr("Cable pin by pin"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    connect(&document_, &app::Document::changed, this, [this] { update(); });
    connect(&theme_, &theme::Theme::changed, this, [this] { update(); });
}

void PinBoard::show(const WireEnd &left, const WireEnd &right) {
    left_ = left;
    right_ = right;
    chosenCore_ = -1;
    chosenWire_.clear();
    update();
}

double PinBoard::rowHeight() const {
    const Port *a = portOf(document_.build(), left_), *b = portOf(document_.build(), right_);
    const double rows = double(std::max({std::size_t(1), a ? a->pins.size() : 0, b ? b->pins.size() : 0}));
    constexpr double kFoot = 48;
    return std::clamp((height() - kTop - kFoot) / rows, 22.0, 44.0);
}

QPointF PinBoard::pinPixel(bool onLeft, int pin) const {
    const double x = onLeft ? kMargin + kHousing : width() - kMargin - kHousing;
    return {x, kTop + rowHeight() * (pin + 0.5)};
}

std::vector<PinBoard::Joined> PinBoard::joined() const {
    std::vector<Joined> list;
    const Port *a = portOf(document_.build(), left_), *b = portOf(document_.build(), right_);
    if (!a || !b) return list;
    for (const auto &wire : document_.build().wires) {
        const bool forward = wire.from == left_ && wire.to == right_, back = wire.from == right_ && wire.to == left_;
        if (!forward && !back) continue;
        for (std::size_t c = 0; c < wire.cores.size(); ++c) {
            const auto &core = wire.cores[c];
            list.push_back({&wire, int(c), pinIndex(*a, forward ? core.fromPin : core.toPin),
                            pinIndex(*b, forward ? core.toPin : core.fromPin), forward});
        }
    }
    return list;
}

PinBoard::Pick PinBoard::pickAt(const QPointF &at) const {
    const Build &build = document_.build();
    for (const bool onLeft : {true, false}) {
        const Port *port = portOf(build, onLeft ? left_ : right_);
        if (!port) continue;
        for (std::size_t p = 0; p < port->pins.size(); ++p) {
            const QPointF pin = pinPixel(onLeft, int(p));
            const QRectF row(onLeft ? pin.x() - kHousing : pin.x() - 10, pin.y() - rowHeight() / 2, kHousing + 10,
                             rowHeight());
            if (row.contains(at)) return {onLeft, int(p)};
        }
    }
    return {};
}

void PinBoard::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    const Build &build = document_.build();
    drawing::paintMat(painter, QRectF(rect()), 1.0, c);
    const Port *left = portOf(build, left_), *right = portOf(build, right_);
    if (!left || !right) {
        painter.setPen(c.softChalk);
        painter.setFont(theme_.text(13));
        painter.drawText(rect(), Qt::AlignCenter, tr("Choose a wire, or two ports above, to see them pin by pin."));
        return;
    }
    const auto list = joined();
    paintHousing(painter, *left, true, list);
    paintHousing(painter, *right, false, list);
    for (const auto &j : list)
        if (j.leftPin >= 0 && j.rightPin >= 0) paintCore(painter, j);
    if (from_.pin >= 0) {
        painter.setPen(QPen(c.chalk, 2, Qt::DashLine));
        painter.drawLine(pinPixel(from_.onLeft, from_.pin), now_);
    }
    paintFoot(painter, *left, *right, list);
}

void PinBoard::paintHousing(QPainter &painter, const Port &port, bool onLeft, const std::vector<Joined> &list) const {
    const auto &c = theme_.colors();
    const Build &build = document_.build();
    const WireEnd &end = onLeft ? left_ : right_;
    const double x = onLeft ? kMargin : width() - kMargin - kHousing;
    const std::vector<std::string> used = usedPins(build, end);
    painter.setPen(c.chalk);
    painter.setFont(theme_.text(13, true));
    const QFontMetrics metrics(painter.font());
    painter.drawText(
        QRectF(x - (onLeft ? 0 : 80), 8, kHousing + 80, 18),
        (onLeft ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter,
        metrics.elidedText(QString::fromStdString(displayName(build, end.part)), Qt::ElideRight, int(kHousing) + 78));
    painter.setFont(theme_.text(11));
    painter.setPen(c.softChalk);
    painter.drawText(QRectF(x, 24, kHousing, 16), (onLeft ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter,
                     port.kind == PortKind::pads ? tr("%1, pads").arg(QString::fromStdString(port.id))
                                                 : tr("%1, plug").arg(QString::fromStdString(port.id)));
    const QRectF housing(x, kTop, kHousing, rowHeight() * double(port.pins.size()));
    painter.setPen(QPen(c.softChalk, 1));
    painter.setBrush(c.matBar);
    painter.drawRoundedRect(housing, 3, 3);
    for (std::size_t p = 0; p < port.pins.size(); ++p) {
        const QPointF pin = pinPixel(onLeft, int(p));
        const std::string name = pinName(port, p);
        const bool here = std::any_of(list.begin(), list.end(),
                                      [&](const Joined &j) { return (onLeft ? j.leftPin : j.rightPin) == int(p); });
        const bool elsewhere = !here && std::find(used.begin(), used.end(), name) != used.end();
        const QRectF row(housing.left() + 8, pin.y() - rowHeight() / 2, kHousing - 16, rowHeight());
        painter.setFont(theme_.numbers(11));
        painter.setPen(c.softChalk);
        painter.drawText(row, (onLeft ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter, QString::number(p + 1));
        painter.setFont(theme_.text(13, here));
        painter.setPen(elsewhere ? c.softChalk : c.chalk);
        painter.drawText(row.adjusted(18, 0, -18, 0), (onLeft ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
                         QString::fromStdString(name) + (elsewhere ? tr(" · used") : QString()));
        painter.setPen(QPen(c.chalk, 1.2));
        painter.setBrush(here ? c.chalk : elsewhere ? c.softChalk : c.mat);
        painter.drawEllipse(pin, kPin, kPin);
    }
}

void PinBoard::paintCore(QPainter &painter, const Joined &j) const {
    const QPointF a = pinPixel(true, j.leftPin), b = pinPixel(false, j.rightPin);
    const double bow = (b.x() - a.x()) * 0.45;
    QPainterPath path(a + QPointF(kPin, 0));
    path.cubicTo(a + QPointF(bow, 0), b - QPointF(bow, 0), b - QPointF(kPin, 0));
    const WireCore &core = j.wire->cores[std::size_t(j.core)];
    const bool chosen = j.wire->id == chosenWire_ && j.core == chosenCore_;
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(coreColor(core), chosen ? 4.5 : 2.6));
    painter.drawPath(path);
    for (const auto &fault : document_.analysis().derived.links->faults) {
        if (fault.wires.empty() || fault.wires[0] != j.wire->id || fault.core != j.core) continue;
        theme::drawSeverityMark(painter, (a + b) / 2, 7, Severity::stop, theme::severityOnMat(Severity::stop));
    }
}

void PinBoard::paintFoot(QPainter &painter, const Port &left, const Port &right,
                         const std::vector<Joined> &list) const {
    const auto &c = theme_.colors();
    QStringList moves;
    for (const auto &j : list)
        if (j.leftPin >= 0 && j.rightPin >= 0 && j.leftPin != j.rightPin)
            moves << tr("%1 to %2").arg(j.leftPin + 1).arg(j.rightPin + 1);
    painter.setFont(theme_.text(12));
    painter.setPen(c.softChalk);
    const double foot = kTop + rowHeight() * double(std::max(left.pins.size(), right.pins.size())) + 10;
    const bool housings = left.kind != PortKind::pads && right.kind != PortKind::pads;
    QString line = list.empty() ? tr("Not joined yet: drag from a pin to a pin.")
                   : housings && !moves.isEmpty()
                       ? tr("A straight cable has other ends: move pin %1.").arg(moves.join(", "))
                       : tr("Drag a pin to another to join or move it; a core that is chosen goes with Delete.");
    painter.drawText(QRectF(kMargin, foot, width() - 2 * kMargin, 34), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                     line);
}

void PinBoard::mousePressEvent(QMouseEvent *event) {
    if (event->button() != Qt::LeftButton) return;
    from_ = pickAt(event->position());
    now_ = event->position();
    chosenCore_ = -1;
    if (from_.pin >= 0) return;
    for (const auto &j : joined()) { // near the line between its pins
        if (j.leftPin < 0 || j.rightPin < 0) continue;
        const QPointF a = pinPixel(true, j.leftPin), b = pinPixel(false, j.rightPin);
        const double t = std::clamp((now_.x() - a.x()) / (b.x() - a.x()), 0.0, 1.0);
        const double ease = t * t * (3 - 2 * t);
        if (std::abs(a.y() + ease * (b.y() - a.y()) - now_.y()) > 7) continue;
        chosenWire_ = j.wire->id;
        chosenCore_ = j.core;
        document_.select(QString::fromStdString(j.wire->id));
    }
    update();
}

void PinBoard::mouseMoveEvent(QMouseEvent *event) {
    now_ = event->position();
    setCursor(pickAt(now_).pin >= 0 ? Qt::CrossCursor : Qt::ArrowCursor);
    if (from_.pin >= 0) update();
}

void PinBoard::join(const Pick &from, const Pick &to) {
    const Build &build = document_.build();
    const auto name = [&](const Pick &pick) {
        return pinName(*portOf(build, pick.onLeft ? left_ : right_), std::size_t(pick.pin));
    };
    if (from.onLeft == to.onLeft) {
        // To another pin of the same housing: the core there moves.
        for (const auto &j : joined())
            if ((from.onLeft ? j.leftPin : j.rightPin) == from.pin) {
                document_.edit(tr("Move pin %1 to %2").arg(from.pin + 1).arg(to.pin + 1),
                               movePin(build, j.wire->id, j.core, j.forward == from.onLeft, name(to)));
                return;
            }
        return;
    }
    const Pick &l = from.onLeft ? from : to, &r = from.onLeft ? to : from;
    // A core that starts at this pin is led to the other one; else a new one is laid.
    for (const auto &j : joined())
        if ((from.onLeft ? j.leftPin : j.rightPin) == from.pin) {
            document_.edit(
                tr("Lead %1 to %2").arg(QString::fromStdString(name(from)), QString::fromStdString(name(to))),
                movePin(build, j.wire->id, j.core, j.forward != from.onLeft, name(to)));
            return;
        }
    document_.edit(tr("Join %1 with %2").arg(QString::fromStdString(name(l)), QString::fromStdString(name(r))),
                   connectPins(build, left_, name(l), right_, name(r)));
}

void PinBoard::mouseReleaseEvent(QMouseEvent *event) {
    const Pick from = from_, to = pickAt(event->position());
    from_ = {};
    if (from.pin >= 0 && to.pin >= 0 && (from.onLeft != to.onLeft || from.pin != to.pin)) join(from, to);
    update();
}

void PinBoard::keyPressEvent(QKeyEvent *event) {
    if ((event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace) && chosenCore_ >= 0) {
        document_.edit(tr("Take a core out"), removeCore(document_.build(), chosenWire_, chosenCore_));
        chosenCore_ = -1;
        return;
    }
    if (event->key() == Qt::Key_Escape) {
        from_ = {};
        update();
        return;
    }
    QWidget::keyPressEvent(event);
}

} // namespace waxis::wire
