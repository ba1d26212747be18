#include "app/stages/kit/part_canvas.h"

#include "core/geometry/hole_pattern.h"

#include <QPainterPath>
#include <algorithm>

namespace waxis::kit {

using drawing::View;

namespace {

bool isDrawable(const Shape &shape) {
    const Aabb bounds = boundsOf(shape, Pose{});
    return bounds.min_mm.allFinite() && bounds.max_mm.allFinite() && bounds.size_mm().maxCoeff() < 1e5 &&
           (!std::holds_alternative<Prism>(shape) || std::get<Prism>(shape).polygon.outline.size() >= 3);
}

Aabb boundsOfType(const PartType &type) {
    Aabb bounds;
    for (const auto &solid : type.solids)
        if (isDrawable(solid.shape)) bounds.include(boundsOf(solid.shape, solid.X_PartSolid));
    for (const auto &port : type.ports)
        if (port.position_mm.allFinite()) bounds.include(port.position_mm);
    if (bounds.empty()) {
        bounds.include(Vec3(-10, -10, -5));
        bounds.include(Vec3(10, 10, 5));
    }
    return bounds;
}

} // namespace

PartCanvas::PartCanvas(const theme::Theme &theme, QWidget *parent) : MatCanvas(theme, parent) {
    setAccessibleName(tr("Drawing of the part, plan above and side below"));
}

void PartCanvas::show(const PartType &type, int chosenBody, int chosenPort) {
    const Vec3 before = boundsOfType(type_).size_mm(), now = boundsOfType(type).size_mm();
    type_ = type;
    body_ = chosenBody;
    port_ = chosenPort;
    if ((before - now).norm() > 0.01) fit();
    update();
}

double PartCanvas::planLift() const {
    const Aabb bounds = boundsOfType(type_);
    return bounds.max_mm.z() - bounds.min_mm.y() + 0.12 * (bounds.size_mm().maxCoeff() + 10);
}

QRectF PartCanvas::content() const {
    const Aabb bounds = boundsOfType(type_);
    const double low = bounds.min_mm.z(), high = bounds.max_mm.y() + planLift();
    // Room for the ports' names on both sides.
    const double wide = std::max(bounds.size_mm().x(), 1.0), beside = 0.16 * wide;
    return {bounds.min_mm.x() - beside, low, wide + 2 * beside, std::max(high - low, 1.0)};
}

void PartCanvas::paintView(QPainter &painter, View view, double lift_mm) {
    paintSolids(painter, view, lift_mm);
    if (view == View::plan) paintHoles(painter, lift_mm);
    paintPorts(painter, view, lift_mm);
    if (type_.centreOfMass_mm) {
        painter.setPen(QPen(theme().colors().chalk, 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(pixelsOf(view, lift_mm, *type_.centreOfMass_mm), 5, 5);
    }
}

QPointF PartCanvas::pixelsOf(View view, double lift_mm, const Vec3 &p) const {
    return toPixels(0, lift_mm) + drawing::project(view, p) * pixelsPerMm();
}

void PartCanvas::paintSolids(QPainter &painter, View view, double lift_mm) const {
    const auto &c = theme().colors();
    const double scale = pixelsPerMm();
    const QPointF origin = toPixels(0, lift_mm);
    QTransform place;
    place.translate(origin.x(), origin.y());
    place.scale(scale, scale);
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < type_.solids.size(); ++i)
        if (isDrawable(type_.solids[i].shape)) order.push_back(i);
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        const auto &sa = type_.solids[a], &sb = type_.solids[b];
        return drawing::nearness(view, sa.shape, sa.X_PartSolid) < drawing::nearness(view, sb.shape, sb.X_PartSolid);
    });
    const QColor fill = theme::familyColor(familyOf(type_.kind)), ink = theme::palette(theme::Mode::light).ink;
    for (std::size_t i : order) {
        const Solid &solid = type_.solids[i];
        QColor color = fill;
        switch (solid.role) {
        case SolidRole::body:
        case SolidRole::board: break;
        case SolidRole::component: color = fill.darker(112); break;
        case SolidRole::connector: color = fill.darker(135); break;
        case SolidRole::shield: color = fill.lighter(112); break;
        case SolidRole::lens: color = theme::lensColor(); break;
        case SolidRole::soft: color.setAlphaF(0.35f); break;
        }
        const bool lit = int(i) == body_;
        painter.setBrush(color);
        painter.setPen(QPen(lit ? c.thrustAxis : ink, lit ? 3 : 1));
        painter.drawPath(place.map(drawing::outline(view, solid.shape, solid.X_PartSolid)));
    }
}

void PartCanvas::paintHoles(QPainter &painter, double lift_mm) const {
    const QColor ink = theme::palette(theme::Mode::light).ink;
    const double scale = pixelsPerMm();
    const auto at = [&](const Vec3 &p) { return pixelsOf(View::plan, lift_mm, p); };
    auto holes = [&](const std::optional<HolePattern> &pattern, Qt::PenStyle style) {
        if (!pattern || !(pattern->size_mm > 0 && pattern->size_mm < 1e4)) return;
        painter.setBrush(style == Qt::SolidLine ? QBrush(theme().colors().mat) : QBrush(Qt::NoBrush));
        painter.setPen(QPen(ink, 1, style));
        for (const auto &hole : holeCentres(*pattern))
            painter.drawEllipse(at({hole.x(), hole.y(), 0}), pattern->holeDiameter_mm / 2 * scale,
                                pattern->holeDiameter_mm / 2 * scale);
    };
    holes(type_.mounting, Qt::SolidLine);
    holes(type_.carries, Qt::DashLine);
    if (type_.arrow) {
        const QPointF d = drawing::project(View::plan, *type_.arrow), n(-d.y(), d.x());
        const QPointF tip = at(Vec3::Zero()) + d * 26;
        painter.setBrush(ink);
        painter.setPen(Qt::NoPen);
        painter.drawPolygon(QPolygonF{tip, tip - d * 16 + n * 8, tip - d * 16 - n * 8});
    }
}

void PartCanvas::paintPorts(QPainter &painter, View view, double lift_mm) const {
    const auto &c = theme().colors();
    painter.setFont(theme().text(11));
    std::vector<QRectF> taken;
    for (std::size_t i = 0; i < type_.ports.size(); ++i) {
        const Port &port = type_.ports[i];
        if (!port.position_mm.allFinite() || !port.direction.allFinite()) continue;
        const bool lit = int(i) == port_;
        const QPointF p = pixelsOf(view, lift_mm, port.position_mm), d = drawing::project(view, port.direction);
        painter.setPen(QPen(lit ? c.thrustAxis : c.chalk, lit ? 3 : 1.5));
        painter.setBrush(lit ? c.thrustAxis : c.chalk);
        painter.drawLine(p, p + d * 14);
        painter.drawRect(QRectF(p - QPointF(3, 3), QSizeF(6, 6)));
        const QString name = QString::fromStdString(port.id);
        const QSizeF size(QFontMetricsF(painter.font()).horizontalAdvance(name) + 10, 18);
        QPointF label = p + d * 16 +
                        QPointF(d.x() > 0.5    ? size.width() / 2
                                : d.x() < -0.5 ? -size.width() / 2
                                               : 0,
                                d.y() > 0.5    ? 9
                                : d.y() < -0.5 ? -9
                                               : 0);
        const QRectF box(label - QPointF(size.width() / 2, size.height() / 2), size);
        if (!lit && std::any_of(taken.begin(), taken.end(), [&](const QRectF &r) { return r.intersects(box); }))
            continue;
        taken.push_back(box);
        drawing::paintTag(painter, label, name, lit ? c.thrustAxis : c.chalk, c);
    }
}

QRectF PartCanvas::chosenBox() const {
    Aabb box;
    if (body_ >= 0 && std::size_t(body_) < type_.solids.size() && isDrawable(type_.solids[std::size_t(body_)].shape))
        box.include(boundsOf(type_.solids[std::size_t(body_)].shape, type_.solids[std::size_t(body_)].X_PartSolid));
    if (port_ >= 0 && std::size_t(port_) < type_.ports.size()) box.include(type_.ports[std::size_t(port_)].position_mm);
    if (box.empty() || !box.min_mm.allFinite()) return {};
    return {box.min_mm.x(), box.min_mm.y() + planLift(), std::max(box.size_mm().x(), 1.0),
            std::max(box.size_mm().y(), 1.0)};
}

QStringList PartCanvas::walkable() const {
    QStringList keys;
    for (std::size_t i = 0; i < type_.solids.size(); ++i) keys << QStringLiteral("body/%1").arg(i);
    for (std::size_t i = 0; i < type_.ports.size(); ++i) keys << QStringLiteral("port/%1").arg(i);
    return keys;
}

QString PartCanvas::walkedAt() const {
    return port_ >= 0   ? QStringLiteral("port/%1").arg(port_)
           : body_ >= 0 ? QStringLiteral("body/%1").arg(body_)
                        : QString();
}

void PartCanvas::walkedTo(const QString &key) {
    const int index = key.section('/', 1).toInt();
    body_ = key.startsWith("body") ? index : -1;
    port_ = key.startsWith("port") ? index : -1;
    update();
    emit walked(body_, port_);
}

void PartCanvas::paintContent(QPainter &painter) {
    const auto &c = theme().colors();
    paintView(painter, View::side, 0);
    paintView(painter, View::plan, planLift());
    const Vec3 size = boundsOfType(type_).size_mm();
    painter.setPen(c.softChalk);
    painter.setFont(theme().text(11));
    painter.drawText(QRectF(10, 8, width() - 20, 16), Qt::AlignLeft, tr("plan, nose →"));
    painter.drawText(QRectF(10, height() - 24, width() - 20, 18), Qt::AlignLeft | Qt::AlignVCenter,
                     tr("side; over all %1 × %2 × %3 mm")
                         .arg(size.x(), 0, 'f', 1)
                         .arg(size.y(), 0, 'f', 1)
                         .arg(size.z(), 0, 'f', 1));
}

} // namespace waxis::kit
