#include "app/drawing/part_item.h"

#include "app/theme/metrics.h"

#include <QFontMetricsF>
#include <QPainter>
#include <QStyleOptionGraphicsItem>
#include <algorithm>

namespace waxis::drawing {

namespace {
constexpr int kLabelPixels = 11;
constexpr double kNearnessScale = 1.0; // z-value per mm towards the viewer
} // namespace

QString shortLabel(const Part &part, const PartType &type) {
    switch (type.kind) {
    case PartKind::flightController: return QStringLiteral("FC");
    case PartKind::fourInOneEsc:
    case PartKind::esc: return QStringLiteral("ESC");
    case PartKind::videoTransmitter: return QStringLiteral("VTX");
    case PartKind::receiver: return QStringLiteral("RX");
    case PartKind::gps: return QStringLiteral("GPS");
    case PartKind::flightCamera: return QStringLiteral("cam");
    case PartKind::capacitor: return QStringLiteral("cap");
    case PartKind::powerPlug: return QStringLiteral("plug");
    case PartKind::battery: return QStringLiteral("pack");
    case PartKind::payloadCamera: return QStringLiteral("camera");
    case PartKind::buzzer: return QStringLiteral("buzz");
    case PartKind::digitalVideoUnit:
    case PartKind::gimbal:
    case PartKind::regulator:
    case PartKind::distributionBoard:
    case PartKind::currentSensor:
    case PartKind::powerBank:
    case PartKind::overlayBoard:
    case PartKind::recorder:
    case PartKind::packAlarm:
    case PartKind::servo: return QString::fromStdString(part.name);
    case PartKind::antenna:
    case PartKind::motor:
    case PartKind::lamp:
    case PartKind::propeller:
    case PartKind::mount:
    case PartKind::damper:
    case PartKind::pad:
    case PartKind::fastener:
    case PartKind::strap:
    case PartKind::tube:
    case PartKind::landingFoot:
    case PartKind::inlinePart:
    case PartKind::powerSwitch:
    case PartKind::microphone:
    case PartKind::fan:
    case PartKind::heatSink:
    case PartKind::guard:
    case PartKind::other: return {};
    }
    return {};
}

void PartItem::show(const Build &build, const Part &part, const PartType &type) {
    const Pose pose = framePose(build, part);
    if (id_.isEmpty() || !(turn_.coeffs() == pose.rotation.coeffs()) || !(type == type_)) {
        prepareGeometryChange();
        id_ = QString::fromStdString(part.id);
        family_ = familyOf(type.kind);
        turn_ = pose.rotation;
        type_ = type;
        rebuild({Vec3::Zero(), pose.rotation}, type);
    }
    const QString label = shortLabel(part, type);
    if (label != label_ || pinned_ != part.pinned) {
        label_ = label;
        pinned_ = part.pinned;
        update();
    }
    setPos(project(view_, pose.position_mm));
    double near = pose.position_mm.dot(towardsViewer(view_));
    if (!pieces_.empty()) near += pieces_.back().nearness;
    setZValue(near * kNearnessScale);
}

void PartItem::rebuild(const Pose &turn, const PartType &type) {
    pieces_.clear();
    features_.clear();
    ports_.clear();
    silhouette_ = {};
    for (const auto &solid : type.solids) {
        const Pose pose = turn * solid.X_PartSolid;
        pieces_.push_back(
            {outline(view_, solid.shape, pose), nearness(view_, solid.shape, pose), solid.role, solid.bare});
    }
    std::stable_sort(pieces_.begin(), pieces_.end(),
                     [](const Piece &a, const Piece &b) { return a.nearness < b.nearness; });
    silhouette_.setFillRule(Qt::WindingFill);
    for (const auto &piece : pieces_) silhouette_.addPath(piece.path);
    body_ = silhouette_.boundingRect();
    covers_ = family_ != Family::load && std::any_of(type.solids.begin(), type.solids.end(),
                                                     [](const Solid &s) { return s.role != SolidRole::soft; });

    const Vec3 up = turn.rotation * Vec3::UnitZ();
    const bool faceOn = std::abs(up.dot(towardsViewer(view_))) > 0.999;
    if (type.mounting && faceOn) {
        QPainterPath holes;
        for (const auto &c : holeCentres(*type.mounting))
            holes.addEllipse(project(view_, turn * Vec3(c.x(), c.y(), 0)), type.mounting->holeDiameter_mm / 2,
                             type.mounting->holeDiameter_mm / 2);
        features_.push_back(holes);
    }
    if (type.arrow && faceOn) {
        const QPointF d = project(view_, turn.rotation * *type.arrow);
        const QPointF across(-d.y(), d.x());
        const double size = std::min(body_.width(), body_.height()) * 0.11;
        QPainterPath arrow;
        const QPointF tip = d * std::min(body_.width(), body_.height()) * 0.42;
        arrow.addPolygon(
            QPolygonF{tip, tip - d * size * 1.6 + across * size, tip - d * size * 1.6 - across * size, tip});
        features_.push_back(arrow);
    }
    for (const auto &port : type.ports)
        if (port.kind != PortKind::lens) ports_.push_back(project(view_, turn * port.position_mm));
}

void PartItem::setMarks(bool selected, bool highlighted, bool aboard) {
    if (selected == selected_ && highlighted == highlighted_ && aboard == aboard_) return;
    selected_ = selected;
    highlighted_ = highlighted;
    aboard_ = aboard;
    setVisible(aboard_);
    update();
}

void PartItem::showLabelAt(const std::optional<QPointF> &middle) {
    const auto own = middle ? std::optional(*middle - pos()) : std::nullopt;
    const bool same = own.has_value() == labelAt_.has_value() && (!own || (*own - *labelAt_).manhattanLength() < 1e-3);
    if (same) return;
    labelAt_ = own;
    update();
}

QSizeF PartItem::labelSize_mm(double pixelsPerMm) const {
    return QFontMetricsF(theme_.text(kLabelPixels, true)).size(0, label_) / pixelsPerMm;
}

QRectF PartItem::shownLabel(double pixelsPerMm) const {
    if (!labelAt_) return {};
    QRectF rect(QPointF(), labelSize_mm(pixelsPerMm));
    rect.moveCenter(pos() + *labelAt_);
    return rect;
}

std::vector<QRectF> PartItem::labelPlaces(double pixelsPerMm) const {
    if (label_.isEmpty()) return {};
    const QSizeF size = labelSize_mm(pixelsPerMm);
    if (size.width() > body_.width() || size.height() > body_.height()) return {};
    std::vector<QRectF> places;
    for (double down : {0.0, -1.2, 1.2, -2.6, 2.6})
        for (double across : {0.0, -0.8, 0.8, -1.6, 1.6}) {
            QRectF rect(QPointF(), size);
            rect.moveCenter(body_.center() + QPointF(across * size.width(), down * size.height()));
            if (body_.contains(rect)) places.push_back(rect.translated(pos()));
        }
    return places;
}

QRectF PartItem::boundingRect() const { return body_.adjusted(-4, -4, 4, 4); }

void PartItem::paint(QPainter *painter, const QStyleOptionGraphicsItem *, QWidget *) {
    const QColor fill = theme::familyColor(family_);
    const double scale = painter->worldTransform().m11();
    QPen line(theme::palette(theme::Mode::light).ink, 1.0);
    line.setCosmetic(true);
    // Packs and payload cover the middle of the craft: what lies beneath stays readable.
    painter->setOpacity(family_ == Family::load ? 0.6 : 1.0);
    for (const auto &piece : pieces_) {
        QColor color = fill;
        switch (piece.role) {
        case SolidRole::body:
        case SolidRole::board: break;
        case SolidRole::component: color = fill.darker(112); break;
        case SolidRole::connector: color = fill.darker(135); break;
        case SolidRole::shield: color = fill.lighter(112); break;
        case SolidRole::lens: color = theme::lensColor(); break;
        case SolidRole::soft: color.setAlphaF(0.35f); break;
        }
        painter->setPen(line);
        painter->setBrush(color);
        painter->drawPath(piece.path);
    }
    const QColor ink = theme::palette(theme::Mode::light).ink;
    painter->setPen(line);
    painter->setBrush(ink);
    if (scale > 1.2)
        for (const auto &feature : features_) painter->drawPath(feature);
    if (scale > 1.6) {
        painter->setPen(Qt::NoPen);
        painter->setBrush(QColor(ink.red(), ink.green(), ink.blue(), 150));
        const double half = 2.0 / scale;
        for (const auto &port : ports_) painter->drawRect(QRectF(port.x() - half, port.y() - half, 2 * half, 2 * half));
    }
    painter->setOpacity(1.0);
    if (labelAt_) {
        painter->save();
        const QPointF at = painter->worldTransform().map(*labelAt_);
        painter->resetTransform();
        painter->setFont(theme_.text(kLabelPixels, true));
        painter->setPen(ink);
        const QRectF box(at - QPointF(100, 10), QSizeF(200, 20));
        painter->drawText(box, Qt::AlignCenter, label_);
        painter->restore();
    }
    if (selected_ || highlighted_) {
        QPen frame(selected_ ? theme_.colors().chalk : theme_.colors().thrustAxis, selected_ ? 2.0 : 2.0);
        frame.setCosmetic(true);
        if (!selected_) frame.setStyle(Qt::DashLine);
        painter->setPen(frame);
        painter->setBrush(Qt::NoBrush);
        const double room = 3.0 / scale;
        painter->drawRoundedRect(body_.adjusted(-room, -room, room, room), room, room);
        if (selected_ && pinned_) {
            painter->setBrush(theme_.colors().chalk);
            painter->drawEllipse(body_.topRight() + QPointF(room, -room), 4 / scale, 4 / scale);
        }
    }
}

} // namespace waxis::drawing
