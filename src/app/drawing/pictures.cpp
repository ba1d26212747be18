#include "app/drawing/pictures.h"

#include "app/drawing/wires.h"
#include "core/access/corridor.h"
#include "core/attitude/mounting_angles.h"
#include "core/base/units.h"
#include "core/build/folding.h"
#include "core/geometry/section.h"
#include "core/radio/decibel.h"
#include "core/radio/radio_report.h"
#include "core/rules/wording.h"
#include "core/scene/body_table.h"
#include "core/scene/scene.h"
#include "core/stance/stance.h"
#include "core/survey/at_hand.h"
#include "core/survey/reach.h"
#include "core/survey/views.h"

#include <algorithm>
#include <cmath>

namespace waxis::drawing {

namespace {

QString number(double value) { return QString::fromStdString(oneDecimal(value)); }

QString tr(const char *text) { return QCoreApplication::translate("Pictures", text); }

QColor veil(QColor color, float alpha) {
    color.setAlphaF(alpha);
    return color;
}

/// Collects the pictures of one drawing.
class Painter {
public:
    Painter(View view, const app::Document &document, const Overlays &overlays, const theme::Theme &theme)
        : view_(view), document_(document), overlays_(overlays), colors_(theme.colors()), build_(document.build()),
          analysis_(document.analysis()) {}

    std::vector<Picture> all() {
        if (document_.foldedShare() > 0) { // stands elsewhere than the numbers say: only the way it folds
            sweeps();
            return std::move(out_);
        }
        cameras();
        skies();
        corridors();
        slides();
        sweeps();
        ground();
        lamps();
        arrows();
        antennas();
        freeingMoves();
        return std::move(out_);
    }

private:
    /// Chosen or lit up.
    bool concerns(const std::string &id) const {
        const QString name = QString::fromStdString(id);
        if (!overlays_.chosen) return false;
        return document_.selection().contains(name) || document_.highlighted().contains(name);
    }
    bool aboard(const std::string &id) const {
        const Part *part = findPart(build_, id);
        return part && document_.isAboardNow(*part);
    }
    Picture &add(QPainterPath path, const QColor &line, const QColor &fill = {}, Qt::PenStyle style = Qt::SolidLine) {
        out_.push_back({std::move(path), line, fill, style, 1.2, {}, {}});
        return out_.back();
    }
    void line(const Vec3 &a, const Vec3 &b, const QColor &color, Qt::PenStyle style = Qt::SolidLine) {
        QPainterPath path(project(view_, a));
        path.lineTo(project(view_, b));
        add(path, color, {}, style);
    }

    /// Elements of chosen antennas and radios, and the line between two that are looked at together.
    void antennas() {
        const RadioReport &report = *analysis_.derived.radio;
        const QColor color = theme::familyColor(Family::radio).lighter(125);
        const auto concerned = [&](const RadioUse &radio) {
            return aboard(radio.part) &&
                   (concerns(radio.part) || std::any_of(radio.antennas.begin(), radio.antennas.end(),
                                                        [&](const AntennaUse &use) { return concerns(use.part); }));
        };
        for (const auto &radio : report.radios) {
            if (!aboard(radio.part)) continue;
            for (const auto &use : radio.antennas) {
                if (!concerns(use.part) && !concerns(radio.part)) continue;
                const double lambda_mm = wavelength_mm(std::max(1.0, radio.centre_MHz));
                if (isStraightElement(use.antenna.kind)) {
                    const Vec3 half = use.axis * lambda_mm * (use.antenna.kind == AntennaKind::monopole ? 0.125 : 0.25);
                    line(use.centre_mm - half, use.centre_mm + half, color);
                    out_.back().width_px = 2.4;
                } else { // where it looks
                    constexpr double kArrow_mm = 22, kHead_mm = 5;
                    add(arrowPath(project(view_, use.centre_mm), project(view_, use.centre_mm + kArrow_mm * use.axis),
                                  kHead_mm),
                        color);
                }
                QPainterPath dot;
                dot.addEllipse(project(view_, use.centre_mm), 2, 2);
                add(dot, QColor(), color);
            }
        }
        for (std::size_t r = 0; r < report.rows.size(); ++r)
            for (std::size_t c = 0; c < report.columns.size(); ++c) {
                const RadioCell &cell = report.cell(r, c);
                if (!cell.coupling || report.rows[r].radio < 0 || report.columns[c].radio < 0) continue;
                const RadioUse &from = report.radios[std::size_t(report.rows[r].radio)],
                               &to = report.radios[std::size_t(report.columns[c].radio)];
                if (!concerned(from) || !concerned(to) || to.band > 0) continue;
                const Vec3 a = from.antennas[std::size_t(cell.fromAntenna)].centre_mm,
                           b = to.antennas[std::size_t(cell.toAntenna)].centre_mm;
                line(a, b, color, Qt::DashLine);
                out_.back().tag = tr("%1 mm").arg((a - b).norm(), 0, 'f', 0);
                out_.back().tagAt = project(view_, (a + b) / 2);
            }
    }

    void cameras() {
        for (const auto &part : build_.parts) {
            const PartType *type = typeOf(build_, part);
            if (!type || !type->camera || !aboard(part.id) || !(overlays_.camera || concerns(part.id))) continue;
            const CameraPose pose = cameraPose(*type, framePose(build_, part));
            constexpr double kReach_mm = 110;
            const double h = radiansFromDegrees(std::min(170.0, type->camera->horizontalView_deg)) / 2;
            const double v = radiansFromDegrees(std::min(170.0, type->camera->verticalView_deg)) / 2;
            std::vector<Vec3> points{pose.lens_mm};
            constexpr int kArc = 8; // an arc, not a spike
            for (int i = -kArc; i <= kArc; ++i)
                for (int j = -kArc; j <= kArc; ++j) {
                    const double turn = view_ == View::side ? 0 : h * i / kArc;
                    const double tip = view_ == View::plan ? 0 : v * j / kArc;
                    const Vec3 d(std::cos(tip) * std::cos(turn), std::cos(tip) * std::sin(turn), std::sin(tip));
                    points.push_back(pose.lens_mm + kReach_mm * (pose.R_FrameCamera * d));
                }
            const QColor color = theme::familyColor(Family::imaging);
            add(shadowOf(view_, points), veil(color, 0.8f), veil(color, 0.13f));
            line(pose.lens_mm, pose.lens_mm + kReach_mm * pose.R_FrameCamera.col(0), veil(color, 0.8f),
                 Qt::DashDotLine);
            for (const auto &camera : camerasSeen(analysis_.derived))
                if (camera.part == part.id && !camera.loadCase.empty()) {
                    out_.back().tag = tr("%1 % hidden").arg(number(100 * (camera.now.hidden + camera.now.propellers)));
                    out_.back().tagAt = project(view_, pose.lens_mm + 70 * pose.R_FrameCamera.col(0));
                }
        }
    }

    void skies() {
        for (const auto &sky : skiesSeen(analysis_.derived)) {
            if (!(overlays_.sky || concerns(sky.part)) || !aboard(sky.part) || sky.level.owner.empty()) continue;
            const Part *part = findPart(build_, sky.part);
            const Vec3 at = antennaPlace(*typeOf(build_, *part), framePose(build_, *part)).position_mm;
            constexpr double kRadius_mm = 34;
            const QColor color = theme::familyColor(Family::sensing);
            QPainterPath path;
            if (view_ == View::plan) { // a rose: how much is open in each direction
                constexpr int kSectors = 48;
                // Which sector each direction falls in stays the same; only who stands there changes.
                static const std::vector<int> sectorOf = [] {
                    std::vector<int> sectors;
                    for (const Vec3 &d : skyDirections())
                        sectors.push_back(int(std::floor((std::atan2(d.y(), d.x()) / (2 * kPi) + 0.5) * kSectors)) %
                                          kSectors);
                    return sectors;
                }();
                std::array<double, kSectors> open{}, whole{};
                const auto &directions = skyDirections();
                for (std::size_t i = 0; i < directions.size(); ++i) {
                    const double weight = directions[i].z();
                    whole[std::size_t(sectorOf[i])] += weight;
                    if (sky.level.owner[i] < 0) open[std::size_t(sectorOf[i])] += weight;
                }
                QPolygonF rose;
                for (int i = 0; i < kSectors; ++i)
                    for (double side : {0.0, 1.0}) {
                        const double angle = ((i + side) / kSectors - 0.5) * 2 * kPi;
                        const double r =
                            kRadius_mm * (whole[std::size_t(i)] > 0 ? open[std::size_t(i)] / whole[std::size_t(i)] : 1);
                        rose << project(view_, at + r * Vec3(std::cos(angle), std::sin(angle), 0));
                    }
                path.addPolygon(rose);
                path.closeSubpath();
                QPainterPath ring;
                ring.addEllipse(project(view_, at), kRadius_mm, kRadius_mm);
                add(ring, veil(color, 0.7f), {}, Qt::DotLine);
            } else { // a fan above the mask
                const double mask = analysis_.practice[Limit::skyMask];
                const Vec3 across = view_ == View::side ? Vec3::UnitX() : Vec3::UnitY();
                const QPointF centre = project(view_, at);
                path.moveTo(centre);
                for (double e = mask; e <= 180 - mask + 0.5; e += 4) {
                    const double angle = radiansFromDegrees(e);
                    path.lineTo(
                        project(view_, at + kRadius_mm * (std::cos(angle) * across + std::sin(angle) * Vec3::UnitZ())));
                }
                path.closeSubpath();
            }
            auto &picture = add(path, veil(color, 0.9f), veil(color, 0.16f));
            picture.tag = tr("sky %1 % hidden").arg(number(100 * sky.level.hidden));
            picture.tagAt = project(view_, at) + QPointF(0, view_ == View::plan ? kRadius_mm + 4 : -kRadius_mm - 4);
        }
    }

    void corridors() {
        for (const auto &access : accessSeen(analysis_.derived)) {
            if (!aboard(access.part)) continue;
            const bool blocked = !access.blockers.empty();
            if (!(concerns(access.part) || (overlays_.room && (blocked || access.hand)))) continue;
            const Part *part = findPart(build_, access.part);
            const PartType *type = typeOf(build_, *part);
            const auto port = std::find_if(type->ports.begin(), type->ports.end(),
                                           [&](const Port &p) { return p.id == access.port; });
            if (port == type->ports.end()) continue;
            // Where the part is now: the survey may be a step behind.
            const Corridor corridor = corridorOf(*port, framePose(build_, *part), access.hand, analysis_.practice);
            const QColor color =
                blocked ? theme::severityOnMat(access.hand ? Severity::watch : Severity::note) : colors_.softChalk;
            auto &picture = add(outline(view_, corridor.body.shape, corridor.body.X_FrameBody), color,
                                veil(color, blocked ? 0.22f : 0.08f), blocked ? Qt::SolidLine : Qt::DotLine);
            if (concerns(access.part) || (overlays_.room && access.hand)) {
                picture.tag = QString::fromStdString(access.port);
                picture.tagAt = picture.path.boundingRect().center();
            }
        }
    }

    void slides() {
        for (const auto &slide : slidesSeen(analysis_.derived)) {
            const Part *part = findPart(build_, slide.part);
            if (!part || !part->slide || !aboard(slide.part) || !(overlays_.room || concerns(slide.part))) continue;
            const Vec3 d = part->slide->direction;
            if (std::abs(d.dot(towardsViewer(view_))) > 0.9) continue;
            const Pose pose = framePose(build_, *part);
            const Vec3 a = pose.position_mm + slide.free_min_mm * d, b = pose.position_mm + slide.free_max_mm * d;
            const QColor color = theme::familyColor(Family::load);
            const QPointF from = project(view_, a), to = project(view_, b);
            constexpr double kHead_mm = 3;
            QPainterPath path = arrowPath(from, to, kHead_mm);
            path.addPath(arrowPath(to, from, kHead_mm));
            auto &picture = add(path, color);
            picture.width_px = 1.8;
            picture.tag = tr("slides %1 to %2 mm").arg(number(slide.free_min_mm), number(slide.free_max_mm));
            picture.tagAt = (from + to) / 2 + QPointF(0, 6);
        }
    }

    void sweeps() {
        for (const auto &arm : foldingArms(build_)) {
            const bool lit = concerns(arm.arm) || std::any_of(arm.parts.begin(), arm.parts.end(),
                                                              [&](const auto &id) { return concerns(id); });
            if (!(overlays_.room || lit)) continue;
            const auto at = std::find_if(build_.frame->arms.begin(), build_.frame->arms.end(),
                                         [&](const Arm &a) { return a.id == arm.arm; });
            QPainterPath path(project(view_, at->tip_mm));
            constexpr int kSteps = 24;
            for (int i = 1; i <= kSteps; ++i)
                path.lineTo(project(view_, foldMotion(arm, double(i) / kSteps) * at->tip_mm));
            add(path, colors_.chalk, {}, Qt::DashLine);
            QPainterPath joint;
            joint.addEllipse(project(view_, arm.joint_mm), 2.5, 2.5);
            add(joint, colors_.chalk, veil(colors_.chalk, 0.4f));
        }
    }

    void ground() {
        if (!overlays_.room) return;
        const Stance stance = stanceOf(build_);
        if (stance.feet.empty()) return;
        const auto hull = stance.hull();
        if (view_ == View::plan) {
            QPolygonF polygon;
            for (const auto &p : hull) polygon << project(view_, {p.x(), p.y(), stance.z_mm});
            QPainterPath path;
            path.addPolygon(polygon);
            path.closeSubpath();
            add(path, colors_.chalk, {}, Qt::DashDotLine);
            return;
        }
        double low = 1e300, high = -1e300;
        const int axis = view_ == View::side ? 0 : 1;
        for (const auto &p : hull) {
            low = std::min(low, p[axis]);
            high = std::max(high, p[axis]);
        }
        auto point = [&](double across, double z) {
            return view_ == View::side ? Vec3(across, 0, z) : Vec3(0, across, z);
        };
        constexpr double kBeyond_mm = 80;
        line(point(low - kBeyond_mm, stance.z_mm), point(high + kBeyond_mm, stance.z_mm), colors_.chalk);
        const auto *mass = document_.mass();
        if (!mass || !mass->cg_mm) return;
        const Vec3 cg = *mass->cg_mm;
        for (double foot : {low, high}) // over which it would tip
            line(point(foot, stance.z_mm), cg, veil(colors_.plumb, 0.7f), Qt::DashLine);
        if (const auto tip = tipOver(stance, cg)) {
            out_.back().tag = tr("tips over on %1°").arg(number(tip->angle_deg));
            out_.back().tagAt = project(view_, (point(high, stance.z_mm) * 3 + cg) / 4);
        }
    }

    void lamps() {
        if (view_ != View::plan || !analysis_.derived.survey) return;
        for (const auto &lamp : lampsSeen(analysis_.derived)) {
            if (!concerns(lamp.part) || !aboard(lamp.part) || !(lamp.view.darkSector_deg > 0)) continue;
            const Part *part = findPart(build_, lamp.part);
            const PartType *type = typeOf(build_, *part);
            Vec3 at = framePose(build_, *part).position_mm;
            for (const auto &port : type->ports)
                if (port.id == lamp.port) at = framePose(build_, *part) * port.position_mm;
            constexpr double kReach_mm = 60;
            QPainterPath path(project(view_, at));
            for (int i = -12; i <= 12; ++i) {
                const double angle = radiansFromDegrees(lamp.view.darkest_deg + lamp.view.darkSector_deg * i / 24);
                path.lineTo(project(view_, at + kReach_mm * Vec3(std::cos(angle), std::sin(angle), 0)));
            }
            path.closeSubpath();
            auto &picture = add(path, colors_.softChalk, QColor(0, 0, 0, 90), Qt::DotLine);
            picture.tag = tr("lamp not seen from here");
            picture.tagAt = project(view_, at + 42 * Vec3(std::cos(radiansFromDegrees(lamp.view.darkest_deg)),
                                                          std::sin(radiansFromDegrees(lamp.view.darkest_deg)), 0));
        }
    }

    void arrows() {
        for (const auto &part : build_.parts) {
            const PartType *type = typeOf(build_, part);
            if (!type || !type->arrow || !aboard(part.id)) continue;
            const bool tells = type->kind == PartKind::flightController || type->kind == PartKind::gps;
            if (!(overlays_.arrows && tells) && !(concerns(part.id) && tells)) continue;
            const Pose pose = framePose(build_, part);
            const Vec3 to = pose.position_mm + 22 * (pose.rotation * *type->arrow);
            const QPointF from = project(view_, pose.position_mm), tip = project(view_, to);
            if (QLineF(from, tip).length() < 6) continue; // it points at the eye
            auto &picture = add(arrowPath(from, tip, 5), colors_.chalk);
            picture.width_px = 2.2;
            if (!overlays_.arrows || view_ != View::plan) continue;
            const MountingAngles angles = mountingAngles(*type->arrow, pose.rotation);
            picture.tag =
                tr("roll %1°, pitch %2°, yaw %3°")
                    .arg(number(angles.down.roll_deg), number(angles.down.pitch_deg), number(angles.down.yaw_deg));
            picture.tagAt = tip + QPointF(0, -6);
        }
    }

    void freeingMoves() {
        for (const auto &finding : analysis_.findings) {
            if (finding.accepted() || finding.fixes.empty() || finding.rule == RuleId::balOffset) continue;
            const Fix &fix = finding.fixes.front();
            const bool lit = std::all_of(finding.subjects.begin(), finding.subjects.end(), [&](const auto &id) {
                return document_.highlighted().contains(QString::fromStdString(id));
            });
            const bool chosen = overlays_.chosen && document_.selection().contains(QString::fromStdString(fix.part));
            const Part *part = findPart(build_, fix.part);
            if (!part || !(lit || chosen) || fix.shift_mm().norm() < 0.05) continue;
            const Vec3 shift = fix.shift_mm();
            const QPointF across = project(view_, shift);
            if (std::hypot(across.x(), across.y()) < 0.05) continue; // along the line of sight
            const Pose pose = framePose(build_, *part);
            QPainterPath ghost;
            for (const auto &solid : typeOf(build_, *part)->solids)
                ghost.addPath(outline(view_, solid.shape, pose * solid.X_PartSolid));
            ghost.setFillRule(Qt::WindingFill);
            add(ghost.simplified().translated(across), colors_.thrustAxis, {}, Qt::DashLine);
            // Short moves get an arrow that can be seen, standing off the part.
            constexpr double kShortest_mm = 8;
            const QPointF along = across / std::hypot(across.x(), across.y());
            const QPointF from = ghost.boundingRect().center();
            auto &arrow =
                add(arrowPath(from, from + along * std::max(kShortest_mm, std::hypot(across.x(), across.y())), 3.5),
                    colors_.thrustAxis);
            arrow.width_px = 2;
            arrow.tag = tr("%1 mm frees it").arg(number(shift.norm()));
            arrow.tagAt = from + along * 14 + QPointF(0, 7);
        }
    }

    View view_;
    const app::Document &document_;
    const Overlays &overlays_;
    const theme::Palette &colors_;
    const Build &build_;
    const Analysis &analysis_;
    std::vector<Picture> out_;
};

} // namespace

QPainterPath arrowPath(const QPointF &from, const QPointF &to, double head) {
    QPainterPath path(from);
    path.lineTo(to);
    const double length = QLineF(from, to).length();
    if (length < 1e-9) return path;
    const QPointF d = (to - from) / length, n(-d.y(), d.x());
    path.moveTo(to - d * head + n * head * 0.5);
    path.lineTo(to);
    path.lineTo(to - d * head - n * head * 0.5);
    return path;
}

std::vector<Picture> picturesOf(View view, const app::Document &document, const Overlays &overlays,
                                const theme::Theme &theme, const QSet<QString> &hidden) {
    auto pictures = Painter(view, document, overlays, theme).all();
    if (overlays.wires && document.foldedShare() == 0) {
        const auto wires = wirePictures(view, document, hidden);
        pictures.insert(pictures.begin(), wires.begin(), wires.end());
    }
    return pictures;
}

std::vector<Picture> sectionPictures(View view, double at_mm, const app::Document &document) {
    std::vector<Picture> out;
    if (view == View::plan) return out;
    const Vec3 normal = towardsViewer(view);
    const CutPlane plane{normal.cwiseAbs() * at_mm, view == View::side ? Vec3::UnitX() : Vec3::UnitY(), Vec3::UnitZ()};
    const Build &build = document.drawnBuild();
    const auto &analysis = document.analysis();
    const BodyTable table = bodyTableOf(build, analysis.derived.loadCases, analysis.practice);
    const QColor ink = theme::palette(theme::Mode::light).ink;
    for (std::size_t i = 0; i < table.bodies.size(); ++i) {
        const BodyOwner &owner = table.owners[std::size_t(table.traits[i].owner)];
        if (owner.kind == OwnerKind::disc || !(owner.cases >> document.loadCase() & 1)) continue;
        const auto rings = sectionOf(table.bodies[i].shape, table.bodies[i].X_FrameBody, plane);
        if (rings.empty()) continue;
        QPainterPath path; // odd-even: holes stay open
        for (const auto &ring : rings) {
            QPolygonF polygon;
            for (const auto &p : ring) polygon << QPointF(p.x(), -p.y());
            path.addPolygon(polygon);
            path.closeSubpath();
        }
        Family family = Family::structure;
        if (owner.kind == OwnerKind::part)
            if (const Part *part = findPart(build, owner.id))
                if (const PartType *type = typeOf(build, *part)) family = familyOf(type->kind);
        out.push_back({path, ink, theme::familyColor(family).darker(118), Qt::SolidLine, 1.6, {}, {}});
    }
    return out;
}

} // namespace waxis::drawing
