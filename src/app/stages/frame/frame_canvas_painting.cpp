#include "app/stages/frame/frame_canvas.h"

#include "core/build/frame_shapes.h"
#include "core/layout/frame_report.h"
#include "core/layout/hand_edits.h"

#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <set>

namespace waxis::frame {

namespace {

/// Two blades and, behind each, the fading trail of where they were. Seen from above.
void paintSweep(QPainter &painter, const QPointF &hub, double radius, bool clockwise, double blade_deg,
                const QColor &chalk) {
    const double behind = clockwise ? 1 : -1; // screen angles run counter-clockwise
    auto ray = [&](double angle_deg, double from, double to) {
        const double a = angle_deg * M_PI / 180;
        const QPointF way(std::cos(a), -std::sin(a));
        painter.drawLine(hub + way * radius * from, hub + way * radius * to);
    };
    constexpr int kTrail = 6;
    for (const double blade : {blade_deg, blade_deg + 180}) {
        for (int i = kTrail; i >= 1; --i) {
            QColor ink = chalk;
            ink.setAlphaF(float(0.42 * (1 - double(i) / (kTrail + 1))));
            painter.setPen(QPen(ink, 1.3, Qt::SolidLine, Qt::RoundCap));
            ray(blade + behind * i * 5, 0.5 + 0.05 * i, 0.95);
        }
        painter.setPen(QPen(chalk, 2.4, Qt::SolidLine, Qt::RoundCap));
        ray(blade, 0.1, 0.95);
    }
}

} // namespace

void FrameCanvas::paintPlates(QPainter &painter) {
    const Frame &frame = *document_.build().frame;
    const auto &c = theme().colors();
    auto polygonOf = [&](const Ring &ring) {
        QPolygonF polygon;
        for (const auto &p : ring) polygon << toPixels(p.x(), p.y());
        return polygon;
    };
    QColor armFill = theme::familyColor(Family::structure).darker(125),
           plateFill = theme::familyColor(Family::structure);
    armFill.setAlphaF(0.85f);
    plateFill.setAlphaF(0.28f);
    painter.setPen(QPen(c.softChalk, 1));
    for (const auto &standoff : frame.standoffs)
        if (standoff.role == StandoffRole::foot) {
            painter.setBrush(Qt::NoBrush);
            painter.drawEllipse(pixels(standoff.base_mm), standoff.diameter_mm / 2 * pixelsPerMm(),
                                standoff.diameter_mm / 2 * pixelsPerMm());
        }
    for (const auto &arm : frame.arms) {
        const Vec2 d = (arm.tip_mm - arm.root_mm).head<2>().normalized(),
                   n(-d.y() * arm.width_mm / 2, d.x() * arm.width_mm / 2);
        const Vec2 root = arm.root_mm.head<2>(), tip = arm.tip_mm.head<2>();
        painter.setBrush(armFill);
        painter.drawPolygon(polygonOf({root - n, tip - n, tip + n, root + n}));
        if (arm.foldJoint_mm) {
            const Vec2 joint = root + d * *arm.foldJoint_mm;
            painter.setBrush(c.mat);
            painter.drawEllipse(toPixels(joint.x(), joint.y()), 4, 4);
        }
    }
    auto plates = frame.plates;
    std::stable_sort(plates.begin(), plates.end(), [this](const Plate &a, const Plate &b) {
        return isMirrored() ? a.z_mm > b.z_mm : a.z_mm < b.z_mm; // the nearest to the eye last
    });
    for (const auto &plate : plates) {
        QPainterPath path;
        path.addPolygon(polygonOf(plate.outline_mm));
        path.closeSubpath();
        for (const auto &ring : plate.cutouts_mm) {
            path.addPolygon(polygonOf(ring));
            path.closeSubpath();
        }
        for (const auto &hole : plate.holes) {
            const double r = hole.diameter_mm / 2 * pixelsPerMm();
            path.addEllipse(toPixels(hole.centre_mm.x(), hole.centre_mm.y()), r, r);
        }
        const bool chosen = document_.selected() == QString::fromStdString(plate.id);
        const bool lit = document_.highlighted().contains(QString::fromStdString(plate.id));
        QColor fill = plateFill;
        if (chosen) fill.setAlphaF(0.6f);
        painter.setBrush(fill);
        painter.setPen(chosen || lit ? QPen(lit ? c.thrustAxis : c.chalk, 2, lit ? Qt::DashLine : Qt::SolidLine)
                                     : QPen(c.softChalk, 1));
        painter.drawPath(path);
    }
    painter.setPen(QPen(c.matBar, 1));
    painter.setBrush(theme::familyColor(Family::structure));
    for (const auto &standoff : frame.standoffs) {
        if (standoff.role == StandoffRole::foot) continue;
        const double r = standoff.diameter_mm / 2 * pixelsPerMm();
        painter.drawEllipse(pixels(standoff.base_mm), r, r);
    }
    paintScrews(painter);
}

/// Heads as they are seen: towards the eye filled, away from it as the ring of the thread.
void FrameCanvas::paintScrews(QPainter &painter) {
    const auto &c = theme().colors();
    const Frame &frame = *document_.build().frame;
    for (const auto &screw : frame.screws) {
        const ThreadSize *thread = findThread(screw.thread);
        if (!thread) continue;
        const auto head = headOf(*thread, screw.head);
        const bool towards = screw.fromAbove != isMirrored();
        const double r = (towards && head ? head->diameter_mm : thread->nominal_mm) / 2 * pixelsPerMm();
        painter.setPen(QPen(c.matBar, 1));
        painter.setBrush(towards ? QBrush(c.chalk) : QBrush(Qt::NoBrush));
        painter.drawEllipse(toPixels(screw.at_mm.x(), screw.at_mm.y()), r, r);
    }
}

void FrameCanvas::paintThings(QPainter &painter) {
    const auto &c = theme().colors();
    const Frame &frame = *document_.build().frame;
    const QString chosen = document_.selected();
    for (const auto &thing : things()) {
        const QPointF at = toPixels(thing.at_mm.x(), thing.at_mm.y());
        const bool hot = chosen == QString::fromStdString(thing.id) || (heldThing_ && heldThing_->id == thing.id);
        const bool post = std::any_of(frame.standoffs.begin(), frame.standoffs.end(),
                                      [&](const Standoff &s) { return s.id == thing.id; });
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(hot ? c.thrustAxis : c.softChalk, hot ? 2 : 1));
        const bool screw = std::any_of(frame.screws.begin(), frame.screws.end(),
                                       [&](const FrameScrew &s) { return s.id == thing.id; });
        if (post || screw) { // drawn already: a ring where it is chosen
            if (hot) {
                const double r = thing.reach_mm * pixelsPerMm() + 3;
                painter.drawEllipse(at, r, r);
            }
            continue;
        }
        constexpr double kHalf_px = 5;
        for (const double side : {-1.0, 1.0}) { // the corners of a small frame: a place to put something
            painter.drawPolyline(QPolygonF{at + QPointF(side * kHalf_px, -2), at + QPointF(side * kHalf_px, -kHalf_px),
                                           at + QPointF(side * 2, -kHalf_px)});
            painter.drawPolyline(QPolygonF{at + QPointF(side * kHalf_px, 2), at + QPointF(side * kHalf_px, kHalf_px),
                                           at + QPointF(side * 2, kHalf_px)});
        }
    }
    if (!heldThing_) return;
    painter.setFont(theme().numbers(12));
    for (const auto &thing : things())
        if (thing.id == heldThing_->id) {
            const QString text =
                refusal_.isEmpty()
                    ? tr("%1 mm fore, %2 mm left").arg(thing.at_mm.x(), 0, 'f', 1).arg(thing.at_mm.y(), 0, 'f', 1)
                    : refusal_;
            const double half = QFontMetricsF(painter.font()).horizontalAdvance(text) / 2 + 8;
            QPointF at = toPixels(thing.at_mm.x(), thing.at_mm.y()) + QPointF(0, -26);
            at.setX(std::clamp(at.x(), half, std::max(half, width() - half)));
            drawing::paintTag(painter, at, text, refusal_.isEmpty() ? c.chalk : theme::severityOnMat(Severity::stop),
                              c);
        }
}

void FrameCanvas::paintMotors(QPainter &painter) {
    const Frame &frame = *document_.build().frame;
    const auto &c = theme().colors();
    painter.setFont(theme().numbers(13, true));
    for (const auto &mount : frame.motorMounts) {
        const QPointF at = pixels(mount.position_mm);
        const double prop = mount.propDiameter_mm / 2 * pixelsPerMm();
        QColor veil = c.softChalk;
        veil.setAlphaF(0.08f);
        painter.setBrush(veil);
        painter.setPen(QPen(c.softChalk, 1, Qt::DashLine));
        painter.drawEllipse(at, prop, prop);
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(c.chalk, 1));
        if (mount.pattern.size_mm > 0)
            for (const auto &hole : holeCentres(mount.pattern)) {
                const double r = std::max(mount.pattern.holeDiameter_mm / 2 * pixelsPerMm(), 1.0);
                painter.drawEllipse(toPixels(mount.position_mm.x() + hole.x(), mount.position_mm.y() + hole.y()), r, r);
            }
    }
    // The turn is the sweep of two blades, its number beside; a coaxial partner's stands across.
    std::vector<QPointF> used;
    for (const auto &mount : frame.motorMounts) {
        const QPointF at = pixels(mount.position_mm);
        const auto same =
            std::count_if(used.begin(), used.end(), [&](const QPointF &p) { return (p - at).manhattanLength() < 3; });
        used.push_back(at);
        const double radius = mount.propDiameter_mm / 2 * pixelsPerMm();
        const bool hot = (held_ && held_->mount == mount.id) || (hovered_ && hovered_->mount == mount.id);
        // The turn as the eye sees it; a motor on the far side is fainter.
        QColor ink = c.chalk;
        if (hangs(mount) != isMirrored()) ink.setAlphaF(0.45f);
        paintSweep(painter, at, radius, (mount.spin == Spin::clockwise) != isMirrored(), same ? 115 : 25, ink);
        painter.setPen(QPen(c.chalk, hot ? 2 : 1.2));
        painter.setBrush(hot ? c.thrustAxis : c.matBar);
        painter.drawEllipse(at, hot ? 6.5 : 5, hot ? 6.5 : 5);
        // Away from the craft, so that it stands in no arm.
        const QPointF middle = toPixels(0, 0);
        QPointF away = at - middle;
        const double length = std::hypot(away.x(), away.y());
        away = length > 1 ? away / length : QPointF(0, -1);
        if (same) away = QPointF(-away.y(), away.x());
        const QPointF place = at + away * std::clamp(radius * 0.45, 18.0, 60.0);
        painter.setPen(c.chalk);
        painter.drawText(QRectF(place.x() - 20, place.y() - 11, 40, 22), Qt::AlignCenter,
                         mount.number > 0 ? QString::number(mount.number) : QStringLiteral("–"));
    }
    if (isMirrored()) {
        painter.setFont(theme().text(12));
        drawing::paintTag(painter, QPointF(width() / 2.0, 16), tr("seen from below: the craft's left is down"), c.chalk,
                          c);
    }
    const Vec3 thrust = document_.analysis().derived.thrustCentre_mm;
    if (!frame.motorMounts.empty()) {
        const QPointF at = pixels(thrust);
        painter.setPen(QPen(c.thrustAxis, 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(at, 7, 7);
        painter.drawLine(at - QPointF(12, 0), at + QPointF(12, 0));
        painter.drawLine(at - QPointF(0, 12), at + QPointF(0, 12));
    }
}

void FrameCanvas::paintGaps(QPainter &painter) {
    const auto &c = theme().colors();
    const auto &practice = document_.analysis().practice;
    const FrameReport report = frameReport(*document_.build().frame);
    painter.setFont(theme().numbers(11));
    std::vector<QRectF> taken;
    for (const auto &mount : document_.build().frame->motorMounts) // the numbers keep their place
        taken.push_back(QRectF(pixels(mount.position_mm) - QPointF(34, 34), QSizeF(68, 68)));
    std::set<std::pair<std::string, std::string>> drawn;
    std::vector<std::pair<QPointF, QPointF>> lines; // those of coaxial pairs lie on one another
    auto gap = [&](const Vec3 &from, const Vec3 &to, double value, double limit) {
        const QPointF a = pixels(from), b = pixels(to);
        const auto same = [&](const auto &line) {
            return (line.first - a).manhattanLength() + (line.second - b).manhattanLength() < 2 ||
                   (line.first - b).manhattanLength() + (line.second - a).manhattanLength() < 2;
        };
        if (std::any_of(lines.begin(), lines.end(), same)) return;
        lines.emplace_back(a, b);
        const QColor ink = value < 0       ? theme::severityOnMat(Severity::stop)
                           : value < limit ? theme::severityOnMat(Severity::watch)
                                           : c.chalk;
        painter.setPen(QPen(ink, 2));
        painter.drawLine(a, b);
        const QPointF along = b - a;
        const double length = std::hypot(along.x(), along.y());
        const QPointF side = length > 1 ? QPointF(-along.y(), along.x()) / length : QPointF(0, -1);
        painter.drawLine(a - side * 4, a + side * 4);
        painter.drawLine(b - side * 4, b + side * 4);
        const QString text = QString::number(value, 'f', 1);
        const QSizeF size(QFontMetricsF(painter.font()).horizontalAdvance(text) + 10, 17);
        for (double away : {14.0, -14.0, 26.0, -26.0, 40.0, -40.0}) {
            const QPointF at =
                (a + b) / 2 + side * (away + (away > 0 ? 1 : -1) * std::abs(side.x()) * size.width() / 2.6);
            const QRectF box(at - QPointF(size.width() / 2, size.height() / 2), size);
            if (!rect().contains(box.toAlignedRect()) ||
                std::any_of(taken.begin(), taken.end(), [&](const QRectF &r) { return r.intersects(box); }))
                continue;
            taken.push_back(box);
            drawing::paintTag(painter, at, text, ink, c);
            return;
        }
    };
    for (const auto &motor : report.motors) {
        if (motor.tipGap_mm) {
            const auto key = std::minmax(motor.mount, motor.tipNeighbour);
            if (drawn.insert({key.first, key.second}).second && *motor.tipGap_mm < motor.propDiameter_mm)
                gap(motor.tipFrom_mm, motor.tipTo_mm, *motor.tipGap_mm, practice[Limit::tipGap]);
        }
        if (motor.frameGap_mm && *motor.frameGap_mm < motor.propDiameter_mm / 2)
            gap(motor.frameFrom_mm, motor.frameTo_mm, *motor.frameGap_mm, practice[Limit::propRigidGap]);
    }
    painter.setPen(c.softChalk);
    painter.setFont(theme().text(11));
    painter.drawText(QRectF(10, height() - 24, width() - 20, 18), Qt::AlignLeft | Qt::AlignVCenter,
                     report.diagonal_mm > 0
                         ? tr("motors %1 mm apart at most; gaps in mm; nose →").arg(report.diagonal_mm, 0, 'f', 1)
                         : tr("no motors yet; nose →"));
}

void FrameCanvas::paintContent(QPainter &painter) {
    const auto &c = theme().colors();
    if (content().isEmpty()) {
        painter.setPen(c.softChalk);
        painter.setFont(theme().text(15));
        painter.drawText(rect().adjusted(40, 0, -40, 0), Qt::AlignCenter | Qt::TextWordWrap,
                         tr("No frame yet. Choose a layout beside, or read the drawing that it is cut from."));
        return;
    }
    paintPlates(painter);
    paintMotors(painter);
    paintGaps(painter);
    paintThings(painter);
    for (const auto &handle : handles_) {
        const bool hot = (held_ && held_->kind == handle.kind && held_->mount == handle.mount) ||
                         (hovered_ && hovered_->kind == handle.kind && hovered_->mount == handle.mount);
        const QPointF at = toPixels(handle.position_mm.x(), handle.position_mm.y());
        painter.setPen(QPen(c.chalk, hot ? 2 : 1.3));
        painter.setBrush(hot ? c.thrustAxis : c.matBar);
        const double r = hot ? 6 : 5;
        if (handle.kind == HandleKind::motor) continue; // its number is the handle
        painter.drawRect(QRectF(at.x() - r, at.y() - r, 2 * r, 2 * r));
    }
    const auto &shown = held_ ? held_ : hovered_;
    if (!shown) return;
    painter.setFont(theme().numbers(12));
    const auto now = std::find_if(handles_.begin(), handles_.end(), [&](const FrameHandle &h) {
        return h.kind == shown->kind && h.mount == shown->mount;
    });
    if (now == handles_.end()) return;
    QPointF at = toPixels(now->position_mm.x(), now->position_mm.y()) + QPointF(0, -46);
    const QString text = QString::fromStdString(handleInWords(*document_.build().frame, *now));
    const double half = QFontMetricsF(painter.font()).horizontalAdvance(text) / 2 + 8;
    at.setX(std::clamp(at.x(), half, std::max(half, width() - half)));
    if (at.y() < 12) at.ry() += 92;
    drawing::paintTag(painter, at, text, c.chalk, c);
}

} // namespace waxis::frame
