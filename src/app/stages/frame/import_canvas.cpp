#include "app/stages/frame/import_canvas.h"

#include <QPainterPath>
#include <cmath>

namespace waxis::frame {

ImportCanvas::ImportCanvas(const theme::Theme &theme, QWidget *parent) : MatCanvas(theme, parent) {
    setAccessibleName(tr("Drawing as recognised"));
}

void ImportCanvas::show(const Recognition &found, const DrawingChoices &choices, const Pick &picked) {
    const bool other = found.plates.size() != found_.plates.size();
    found_ = found;
    choices_ = choices;
    picked_ = picked;
    if (other) fit();
    update();
}

QRectF ImportCanvas::content() const {
    Vec2 low = Vec2::Constant(1e300), high = Vec2::Constant(-1e300);
    for (const auto &plate : found_.plates)
        for (const auto &p : plate.outline_mm) {
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
    auto polygonOf = [&](const Ring &ring) {
        QPolygonF polygon;
        for (const auto &p : ring) polygon << pixelsOf(p);
        return polygon;
    };
    const double scale = pixelsPerMm();
    std::vector<QRectF> tags; // names of patterns do not lie on one another
    for (std::size_t i = 0; i < found_.plates.size(); ++i) {
        const FoundPlate &plate = found_.plates[i];
        const bool ignored = i < choices_.plates.size() && choices_.plates[i].role == PlateRole::ignore;
        const bool chosen = picked_.kind != Pick::Kind::none && picked_.plate == i;
        QPainterPath path;
        path.addPolygon(polygonOf(plate.outline_mm));
        path.closeSubpath();
        for (const auto &slot : plate.cutouts) {
            path.addPolygon(polygonOf(slot.ring));
            path.closeSubpath();
        }
        for (const auto &hole : plate.holes)
            path.addEllipse(pixelsOf(hole.centre_mm), hole.diameter_mm / 2 * scale, hole.diameter_mm / 2 * scale);
        QColor fill = theme::familyColor(Family::structure);
        fill.setAlphaF(ignored ? 0.06f : chosen ? 0.5f : 0.28f);
        painter.setBrush(fill);
        painter.setPen(QPen(ignored ? c.matFaint : c.softChalk, 1, ignored ? Qt::DotLine : Qt::SolidLine));
        painter.drawPath(path);
        if (ignored) continue;
        // Each use has its own line besides its name: squares for stacks, rings for motors, strokes along slots.
        painter.setFont(theme().numbers(11));
        for (std::size_t k = 0; k < plate.patterns.size(); ++k) {
            const FoundPattern &p = plate.patterns[k];
            if (p.use == PatternUse::other) continue;
            const bool hot = picked_ == Pick{Pick::Kind::pattern, i, k};
            painter.setBrush(Qt::NoBrush);
            painter.setPen(QPen(hot ? c.thrustAxis : c.chalk, hot ? 3 : 1.6));
            const double half = p.measured_mm / 2 * scale;
            if (p.use == PatternUse::motor) {
                painter.drawEllipse(pixelsOf(p.centre_mm), half, half);
            } else {
                QPolygonF square;
                for (int corner = 0; corner < 4; ++corner) {
                    const double angle = (p.angle_deg + 45 + 90 * corner) * M_PI / 180;
                    square << pixelsOf(p.centre_mm +
                                       Vec2(std::cos(angle), std::sin(angle)) * (p.measured_mm / std::sqrt(2.0)));
                }
                painter.drawPolygon(square);
            }
            const QString text = p.use == PatternUse::motor ? tr("motor %1").arg(p.pattern.size_mm)
                                                            : tr("stack %1").arg(p.pattern.size_mm);
            QPointF at = pixelsOf(p.centre_mm) + QPointF(0, half + 13);
            const QSizeF size(QFontMetricsF(painter.font()).horizontalAdvance(text) + 8, 17);
            auto box = [&] { return QRectF(at - QPointF(size.width() / 2, size.height() / 2), size); };
            auto isTaken = [&] {
                return std::any_of(tags.begin(), tags.end(), [&](const QRectF &r) { return r.intersects(box()); });
            };
            for (int tries = 0; tries < 12 && isTaken(); ++tries) at.ry() += 18;
            tags.push_back(box());
            drawing::paintTag(painter, at, text, hot ? c.thrustAxis : c.chalk, c);
        }
        for (std::size_t k = 0; k < plate.cutouts.size(); ++k) {
            const FoundSlot &slot = plate.cutouts[k];
            const bool hot = picked_ == Pick{Pick::Kind::slot, i, k};
            QColor ink = slot.use == SlotUse::strap         ? theme::familyColor(Family::load)
                         : slot.use == SlotUse::passThrough ? theme::familyColor(Family::sensing)
                         : slot.use == SlotUse::tie         ? theme::familyColor(Family::control)
                                                            : c.softChalk;
            painter.setBrush(Qt::NoBrush);
            painter.setPen(QPen(hot ? c.thrustAxis : ink, hot ? 3 : 2));
            painter.drawPolygon(polygonOf(slot.ring));
        }
        for (std::size_t k = 0; k < plate.holes.size(); ++k)
            if (picked_ == Pick{Pick::Kind::hole, i, k}) {
                painter.setBrush(Qt::NoBrush);
                painter.setPen(QPen(c.thrustAxis, 3));
                const double r = plate.holes[k].diameter_mm / 2 * scale + 2;
                painter.drawEllipse(pixelsOf(plate.holes[k].centre_mm), r, r);
            }
    }
    painter.setPen(c.softChalk);
    painter.setFont(theme().text(11));
    painter.drawText(QRectF(10, height() - 24, width() - 20, 18), Qt::AlignLeft | Qt::AlignVCenter,
                     tr("as drawn; squares: stack, rings: motor, outlined: slots; click one to correct it"));
}

Pick ImportCanvas::pickAt(const Vec2 &p) const {
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
    return pick.kind != Pick::Kind::none;
}

} // namespace waxis::frame
