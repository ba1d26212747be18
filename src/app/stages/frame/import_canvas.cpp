#include "app/stages/frame/import_canvas.h"

#include <QContextMenuEvent>
#include <QFontMetricsF>
#include <QKeyEvent>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

namespace waxis::frame {

namespace {

/// A pick as Tab knows it: plate, kind and which one.
QString keyOf(const Pick &pick) {
    return pick.kind == Pick::Kind::none
               ? QString()
               : QStringLiteral("%1/%2/%3").arg(pick.plate).arg(int(pick.kind)).arg(pick.index);
}

QRectF boxOf(const Ring &ring) {
    Vec2 low = ring.front(), high = ring.front();
    for (const auto &p : ring) {
        low = low.cwiseMin(p);
        high = high.cwiseMax(p);
    }
    return {low.x(), low.y(), high.x() - low.x(), high.y() - low.y()};
}

QRectF boxOf(const Vec2 &centre, double diameter) {
    return {centre.x() - diameter / 2, centre.y() - diameter / 2, diameter, diameter};
}

} // namespace

ImportCanvas::ImportCanvas(const theme::Theme &theme, QWidget *parent) : MatCanvas(theme, parent) {
    setAccessibleName(tr("Drawing as recognised"));
}

void ImportCanvas::show(const Recognition &found, const DrawingChoices &choices, const Pick &picked) {
    const bool other = found.plates.size() != found_.plates.size();
    found_ = found;
    choices_ = choices;
    picked_ = picked;
    shifts_ = plateShifts(found_, choices_);
    if (other) fit();
    update();
}

void ImportCanvas::setLaid(bool laid) {
    if (laid == laid_) return;
    laid_ = laid;
    held_.reset();
    fit();
    update();
}

QRectF ImportCanvas::content() const {
    Vec2 low = Vec2::Constant(1e300), high = Vec2::Constant(-1e300);
    for (std::size_t i = 0; i < found_.plates.size(); ++i)
        for (const auto &corner : found_.plates[i].outline_mm) {
            const Vec2 p = corner + shiftOf(i);
            low = low.cwiseMin(p);
            high = high.cwiseMax(p);
        }
    return low.x() < high.x() ? QRectF(low.x(), low.y(), high.x() - low.x(), high.y() - low.y()) : QRectF();
}

void ImportCanvas::paintContent(QPainter &painter) {
    const auto &c = theme().colors();
    if (found_.plates.empty()) {
        painter.setPen(c.softChalk);
        painter.setFont(theme().text(15));
        painter.drawText(rect().adjusted(40, 0, -40, 0), Qt::AlignCenter | Qt::TextWordWrap,
                         tr("No closed outline was found. Beside it stands what was left out, and why."));
        return;
    }
    std::vector<QRectF> tags; // names of patterns do not lie on one another
    for (std::size_t i = 0; i < found_.plates.size(); ++i) {
        const bool ignored = i < choices_.plates.size() && choices_.plates[i].role == PlateRole::ignore;
        paintPlate(painter, i, ignored);
        if (ignored) continue;
        paintPatterns(painter, i, tags);
        paintSlots(painter, i);
    }
    paintNose(painter);
    paintFaults(painter);
    painter.setPen(c.softChalk);
    painter.setFont(theme().text(11));
    painter.drawText(
        QRectF(10, height() - 24, width() - 20, 18), Qt::AlignLeft | Qt::AlignVCenter,
        laid_
            ? tr("as they lie in the frame; drag a plate that lies wrong, it catches at common holes; Q and E turn it")
            : tr("as drawn; squares: stack, rings: motor, outlined: slots; click one to correct it"));
}

QPolygonF ImportCanvas::pixelsOf(std::size_t plate, const Ring &ring) const {
    QPolygonF polygon;
    for (const auto &p : ring) polygon << pixelsOf(Vec2(p + shiftOf(plate)));
    return polygon;
}

void ImportCanvas::paintPlate(QPainter &painter, std::size_t i, bool ignored) {
    const auto &c = theme().colors();
    const FoundPlate &plate = found_.plates[i];
    const bool chosen = picked_.kind != Pick::Kind::none && picked_.plate == i;
    QPainterPath path;
    path.addPolygon(pixelsOf(i, plate.outline_mm));
    path.closeSubpath();
    for (const auto &slot : plate.cutouts) {
        path.addPolygon(pixelsOf(i, slot.ring));
        path.closeSubpath();
    }
    for (const auto &hole : plate.holes)
        path.addEllipse(pixelsOf(Vec2(hole.centre_mm + shiftOf(i))), hole.diameter_mm / 2 * pixelsPerMm(),
                        hole.diameter_mm / 2 * pixelsPerMm());
    QColor fill = theme::familyColor(Family::structure);
    fill.setAlphaF(ignored ? 0.06f : chosen ? 0.5f : 0.28f);
    painter.setBrush(fill);
    painter.setPen(QPen(ignored ? c.matFaint : c.softChalk, 1, ignored ? Qt::DotLine : Qt::SolidLine));
    painter.drawPath(path);
}

void ImportCanvas::paintPatterns(QPainter &painter, std::size_t i, std::vector<QRectF> &tags) {
    const auto &c = theme().colors();
    const FoundPlate &plate = found_.plates[i];
    const double scale = pixelsPerMm();
    const auto at_px = [&](const Vec2 &p) { return pixelsOf(Vec2(p + shiftOf(i))); };
    painter.setFont(theme().numbers(11));
    for (std::size_t k = 0; k < plate.patterns.size(); ++k) {
        const FoundPattern &p = plate.patterns[k];
        if (p.use == PatternUse::other) continue;
        const bool hot = picked_ == Pick{Pick::Kind::pattern, i, k};
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(hot ? c.thrustAxis : c.chalk, hot ? 3 : 1.6));
        const double half = p.measured_mm / 2 * scale;
        if (p.use == PatternUse::motor) {
            painter.drawEllipse(at_px(p.centre_mm), half, half);
        } else {
            QPolygonF square;
            for (int corner = 0; corner < 4; ++corner) {
                const double angle = (p.angle_deg + 45 + 90 * corner) * M_PI / 180;
                square << at_px(p.centre_mm +
                                Vec2(std::cos(angle), std::sin(angle)) * (p.measured_mm / std::sqrt(2.0)));
            }
            painter.drawPolygon(square);
        }
        const QString text =
            p.use == PatternUse::motor ? tr("motor %1").arg(p.pattern.size_mm) : tr("stack %1").arg(p.pattern.size_mm);
        QPointF at = at_px(p.centre_mm) + QPointF(0, half + 13);
        const QSizeF size(QFontMetricsF(painter.font()).horizontalAdvance(text) + 8, 17);
        auto box = [&] { return QRectF(at - QPointF(size.width() / 2, size.height() / 2), size); };
        auto isTaken = [&] {
            return std::any_of(tags.begin(), tags.end(), [&](const QRectF &r) { return r.intersects(box()); });
        };
        for (int tries = 0; tries < 12 && isTaken(); ++tries) at.ry() += 18;
        tags.push_back(box());
        drawing::paintTag(painter, at, text, hot ? c.thrustAxis : c.chalk, c);
    }
}

void ImportCanvas::paintSlots(QPainter &painter, std::size_t i) {
    const auto &c = theme().colors();
    const FoundPlate &plate = found_.plates[i];
    for (std::size_t k = 0; k < plate.cutouts.size(); ++k) {
        const FoundSlot &slot = plate.cutouts[k];
        const bool hot = picked_ == Pick{Pick::Kind::slot, i, k};
        QColor ink = slot.use == SlotUse::strap         ? theme::familyColor(Family::load)
                     : slot.use == SlotUse::passThrough ? theme::familyColor(Family::sensing)
                     : slot.use == SlotUse::tie         ? theme::familyColor(Family::control)
                                                        : c.softChalk;
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(hot ? c.thrustAxis : ink, hot ? 3 : 2));
        painter.drawPolygon(pixelsOf(i, slot.ring));
    }
    for (std::size_t k = 0; k < plate.holes.size(); ++k)
        if (picked_ == Pick{Pick::Kind::hole, i, k}) {
            painter.setBrush(Qt::NoBrush);
            painter.setPen(QPen(c.thrustAxis, 3));
            const double r = plate.holes[k].diameter_mm / 2 * pixelsPerMm() + 2;
            painter.drawEllipse(pixelsOf(Vec2(plate.holes[k].centre_mm + shiftOf(i))), r, r);
        }
}

void ImportCanvas::paintNose(QPainter &painter) {
    // An arrow beyond the drawing, on the side to which the nose points.
    const QRectF box = content();
    const QPointF middle = toPixels(box.center().x(), box.center().y());
    const double half = pixelsPerMm() / 2;
    QPointF way(1, 0);
    double reach = box.width() * half;
    switch (choices_.nose) {
    case NoseSide::right: break;
    case NoseSide::left: way = {-1, 0}; break;
    case NoseSide::up:
        way = {0, -1};
        reach = box.height() * half;
        break;
    case NoseSide::down:
        way = {0, 1};
        reach = box.height() * half;
        break;
    }
    constexpr double kLength_px = 18, kAside_px = 6;
    const QPointF tip = middle + way * (reach + kLength_px), tail = tip - way * kLength_px;
    const QPointF aside = QPointF(-way.y(), way.x()) * kAside_px;
    const QColor ink = theme().colors().thrustAxis;
    painter.setPen(QPen(ink, 2, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    painter.setBrush(Qt::NoBrush);
    painter.drawLine(tail, tip);
    painter.drawPolyline(QPolygonF{tip - way * 8 + aside, tip, tip - way * 8 - aside});
    painter.setFont(theme().text(11));
    const QFontMetricsF metrics(painter.font());
    const QString word = tr("nose");
    QRectF label(tail - QPointF(metrics.horizontalAdvance(word) / 2, metrics.height() + 6),
                 QSizeF(metrics.horizontalAdvance(word) + 2, metrics.height()));
    if (way.x() == 0) label.moveTopLeft(tail + QPointF(8, -metrics.height() / 2));
    label.moveLeft(std::clamp(label.left(), 2.0, std::max(2.0, width() - label.width() - 2)));
    painter.drawText(label, Qt::AlignCenter, word);
}

void ImportCanvas::paintFaults(QPainter &painter) {
    const auto &c = theme().colors();
    const QColor ink = theme::severityOnMat(Severity::stop);
    painter.setFont(theme().text(11));
    double y = 14;
    constexpr std::size_t kSaid = 4;
    for (std::size_t i = 0; i < found_.faults.size(); ++i) {
        const DrawnFault &fault = found_.faults[i];
        const QPointF at = pixelsOf(fault.at_mm + shiftOf(fault.plate));
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(ink, 2));
        painter.drawEllipse(at, 9, 9);
        theme::drawSeverityMark(painter, at + QPointF(11, -11), 5, Severity::stop, ink);
        if (i >= kSaid) continue;
        const QString text = QString::fromStdString(fault.text);
        const double wide = QFontMetricsF(painter.font()).horizontalAdvance(text) + 10;
        drawing::paintTag(painter, QPointF(12 + wide / 2, y), text, ink, c);
        painter.setPen(QPen(ink, 1, Qt::DotLine));
        painter.drawLine(QPointF(12 + wide, y), at);
        y += 22;
    }
}

Pick ImportCanvas::pickAt(const Vec2 &at) const {
    Pick best;
    double smallest = 1e300; // the smallest thing under the pointer
    auto offer = [&](Pick::Kind kind, std::size_t plate, std::size_t index, double size) {
        if (size >= smallest) return;
        smallest = size;
        best = {kind, plate, index};
    };
    const double reach = 4 / pixelsPerMm();
    for (std::size_t i = 0; i < found_.plates.size(); ++i) {
        const FoundPlate &plate = found_.plates[i];
        const Vec2 p = at - shiftOf(i); // in the plate as drawn
        for (std::size_t k = 0; k < plate.holes.size(); ++k)
            if ((p - plate.holes[k].centre_mm).norm() <= plate.holes[k].diameter_mm / 2 + reach)
                offer(Pick::Kind::hole, i, k, plate.holes[k].diameter_mm);
        for (std::size_t k = 0; k < plate.cutouts.size(); ++k)
            if (contains({plate.cutouts[k].ring, {}}, p)) offer(Pick::Kind::slot, i, k, plate.cutouts[k].length_mm);
        for (std::size_t k = 0; k < plate.patterns.size(); ++k)
            if ((p - plate.patterns[k].centre_mm).norm() <= plate.patterns[k].measured_mm / 2)
                offer(Pick::Kind::pattern, i, k, plate.patterns[k].measured_mm);
        if (contains({plate.outline_mm, {}}, p)) offer(Pick::Kind::plate, i, 0, 1000 + std::sqrt(plate.area_mm2));
    }
    return best;
}

bool ImportCanvas::press(const QPointF &at, Qt::KeyboardModifiers) {
    const QPointF mm = toMm(at);
    const Pick pick = pickAt({mm.x(), mm.y()});
    emit picked(pick);
    if (pick.kind == Pick::Kind::none) return false;
    if (laid_) held_ = Held{pick.plate, Vec2(mm.x(), mm.y()), shiftOf(pick.plate)};
    return true;
}

void ImportCanvas::drag(const QPointF &at, Qt::KeyboardModifiers modifiers) {
    if (!held_) return;
    const QPointF mm = toMm(at);
    const Vec2 wanted = held_->start + Vec2(mm.x(), mm.y()) - held_->grip;
    constexpr double kCatch_px = 10;
    const bool freely = modifiers & Qt::ControlModifier;
    emit moved(held_->plate,
               freely ? wanted : snapShift(found_, choices_, held_->plate, wanted, kCatch_px / pixelsPerMm()));
}

QRectF ImportCanvas::chosenBox() const {
    if (picked_.kind == Pick::Kind::none || picked_.plate >= found_.plates.size()) return {};
    const FoundPlate &plate = found_.plates[picked_.plate];
    QRectF box;
    switch (picked_.kind) {
    case Pick::Kind::none: break;
    case Pick::Kind::plate: box = boxOf(plate.outline_mm); break;
    case Pick::Kind::hole:
        box = boxOf(plate.holes[picked_.index].centre_mm, plate.holes[picked_.index].diameter_mm);
        break;
    case Pick::Kind::slot: box = boxOf(plate.cutouts[picked_.index].ring); break;
    case Pick::Kind::pattern:
        box = boxOf(plate.patterns[picked_.index].centre_mm, plate.patterns[picked_.index].measured_mm);
        break;
    }
    const Vec2 shift = shiftOf(picked_.plate);
    return box.translated(shift.x(), shift.y());
}

QStringList ImportCanvas::walkable() const {
    QStringList keys;
    for (std::size_t i = 0; i < found_.plates.size(); ++i) {
        const FoundPlate &plate = found_.plates[i];
        keys << keyOf({Pick::Kind::plate, i, 0});
        for (std::size_t k = 0; k < plate.patterns.size(); ++k) keys << keyOf({Pick::Kind::pattern, i, k});
        for (std::size_t k = 0; k < plate.cutouts.size(); ++k) keys << keyOf({Pick::Kind::slot, i, k});
        for (std::size_t k = 0; k < plate.holes.size(); ++k)
            if (plate.holes[k].pattern < 0) keys << keyOf({Pick::Kind::hole, i, k}); // the others go by their pattern
    }
    return keys;
}

QString ImportCanvas::walkedAt() const { return keyOf(picked_); }

void ImportCanvas::walkedTo(const QString &key) {
    const QStringList parts = key.split(QLatin1Char('/'));
    emit picked({Pick::Kind(parts.value(1).toInt()), parts.value(0).toULongLong(), parts.value(2).toULongLong()});
}

void ImportCanvas::keyPressEvent(QKeyEvent *event) {
    const bool plain = !(event->modifiers() & (Qt::ControlModifier | Qt::AltModifier));
    const bool turns = event->key() == Qt::Key_Q || event->key() == Qt::Key_E;
    if (!plain || !turns || picked_.kind == Pick::Kind::none) return MatCanvas::keyPressEvent(event);
    const double step_deg = event->modifiers() & Qt::ShiftModifier ? 1 : 90;
    emit turned(picked_.plate, event->key() == Qt::Key_Q ? step_deg : -step_deg);
}

void ImportCanvas::contextMenuEvent(QContextMenuEvent *event) {
    if (event->reason() == QContextMenuEvent::Mouse) {
        const QPointF mm = toMm(event->pos());
        emit picked(pickAt({mm.x(), mm.y()}));
    }
    emit contextWanted(event->globalPos());
    event->accept();
}

void ImportCanvas::cancel() {
    if (held_) emit moved(held_->plate, held_->start);
    held_.reset();
}

} // namespace waxis::frame
