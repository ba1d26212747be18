#include "core/magnetics/current_paths.h"

#include "core/catalog/material.h"
#include "core/clearance/clearance_world.h"
#include "core/geometry/segment.h"
#include "core/magnetics/biot_savart.h"
#include "core/magnetics/compass_place.h"
#include "core/pins/signal.h"
#include "core/power/power_report.h"
#include "core/scene/scene.h"
#include "core/wiring/route_field.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

constexpr double kOpenEnd_mm = 10; // untwisted at either end (common practice, no source)

/// A pair as two lines, half the spacing to either side, weakened towards its middle where it is twisted.
Vec3 pairFieldPerAmpere(const CurrentPath &path, const Vec3 &point, bool onEdge) {
    const auto &points = path.points_mm;
    const double relief =
        path.pitch_mm > 0 ? twistRelief(path.spacing_mm, path.pitch_mm, polylineDistance(point, points)) : 1;
    const double length = path.pitch_mm > 0 ? lengthOf(points) : 0;
    Vec3 field = Vec3::Zero();
    double at = 0;
    for (std::size_t i = 1; i < points.size(); ++i) {
        const Vec3 along = points[i] - points[i - 1];
        const double piece = along.norm();
        if (piece < 1e-9) continue;
        // Side by side, lying flat: square to the run and level where there is such a direction.
        Vec3 aside = along.cross(Vec3::UnitZ());
        if (aside.norm() < 1e-3 * piece) aside = along.cross(Vec3::UnitX());
        if (onEdge) aside = along.cross(aside);
        aside *= path.spacing_mm / 2 / aside.norm();
        const auto two = [&](const Vec3 &a, const Vec3 &b) {
            return Vec3(segmentField_uT(a + aside, b + aside, point, 1) +
                        segmentField_uT(b - aside, a - aside, point, 1));
        };
        if (path.pitch_mm <= 0) {
            field += two(points[i - 1], points[i]);
        } else {
            const double open1 = std::clamp(kOpenEnd_mm - at, 0.0, piece);
            const double open2 = std::clamp(at + piece - (length - kOpenEnd_mm), 0.0, piece - open1);
            const Vec3 unit = along / piece, a = points[i - 1] + open1 * unit, b = points[i] - open2 * unit;
            field += two(points[i - 1], a) + relief * two(a, b) + two(b, points[i]);
        }
        at += piece;
    }
    return field;
}

} // namespace

FieldSources fieldSources(const Build &build, const std::vector<LoadCase> &loadCases,
                          const std::vector<WireRoute> &routes, const WiringReport &wiring, const PowerReport &power) {
    FieldSources sources;
    for (std::size_t w = 0; w < build.wires.size() && w < power.wires.size(); ++w) {
        const Wire &wire = build.wires[w];
        const WireCurrent &current = power.wires[w];
        if (!current.known || current.way == 0 || w >= routes.size() || routes[w].points_mm.size() < 2) continue;
        bool supply = false, ground = false;
        for (const auto &core : wire.cores) {
            const SignalKind kind = signalAt(build, wire.from, core.fromPin).kind;
            supply |= kind == SignalKind::supply;
            ground |= kind == SignalKind::ground;
        }
        if (!supply && !ground) continue;
        CurrentPath path;
        path.wire = wire.id;
        path.points_mm = routes[w].points_mm;
        const double sign = supply ? current.way : -current.way;
        path.hover_A = sign * current.typical_A;
        path.full_A = sign * current.peak_A;
        path.pair = supply && ground;
        path.spacing_mm = std::max(0.5, w < wiring.wires.size() ? wiring.wires[w].outer_mm : 0.5);
        if (wire.lay == WireLay::twisted)
            path.pitch_mm = wire.twistPitch_mm > 0 ? wire.twistPitch_mm : kTwistPitch * path.spacing_mm;
        const Part *from = findPart(build, wire.from.part), *to = findPart(build, wire.to.part);
        if (!from || !to) continue;
        path.cases = casesSwitchedOn(*from, loadCases) & casesSwitchedOn(*to, loadCases);
        sources.paths.push_back(std::move(path));
    }
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || !type->magnetics || type->magnetics->dipole_mAm2.isZero(0)) continue;
        const Pose pose = framePose(build, part);
        Vec3 middle = Vec3::Zero();
        if (!type->solids.empty()) middle = type->solids[0].X_PartSolid.position_mm;
        sources.magnets.push_back(
            {part.id, pose * middle, pose.rotation * type->magnetics->dipole_mAm2, casesAboard(part, loadCases)});
    }
    return sources;
}

LieField pathFieldPerAmpere_uT(const CurrentPath &path, const Vec3 &point_mm) {
    if (!path.pair) return {polylineField_uT(path.points_mm, point_mm, 1), Vec3::Zero(), false};
    return {pairFieldPerAmpere(path, point_mm, false), pairFieldPerAmpere(path, point_mm, true), true};
}

FieldAt fieldAt(const FieldSources &sources, const Vec3 &point_mm, std::size_t loadCase, double lean_deg) {
    FieldAt sum;
    LevelField hover, full;
    const CaseMask bit = CaseMask(1) << loadCase;
    for (const auto &path : sources.paths) {
        if (!(path.cases & bit)) continue;
        const LieField field = pathFieldPerAmpere_uT(path, point_mm);
        hover.add(field, path.hover_A);
        full.add(field, path.full_A);
    }
    sum.hover_uT = hover.worst_uT(lean_deg);
    sum.full_uT = full.worst_uT(lean_deg);
    for (const auto &magnet : sources.magnets)
        if (magnet.cases & bit) sum.constant_uT += dipoleField_uT(magnet.moment_mAm2, point_mm - magnet.position_mm);
    return sum;
}

/// Whether a body is of steel or the like: by what it is made of, or because its part says so.
static bool isFerrous(const Build &build, const BodyOwner &owner, const BodyTraits &traits) {
    const Frame &frame = *build.frame;
    switch (owner.kind) {
    case OwnerKind::part: {
        const Part *part = findPart(build, owner.id);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (!type) return false;
        if (type->magnetics && type->magnetics->ferrous) return true;
        const auto solid = std::size_t(traits.solid);
        return solid < type->solids.size() && isMagnetic(type->solids[solid].material);
    }
    case OwnerKind::screw: return true; // the frame's own are counted as steel
    case OwnerKind::plate:
        return std::any_of(frame.plates.begin(), frame.plates.end(),
                           [&](const Plate &p) { return p.id == owner.id && isMagnetic(p.material); });
    case OwnerKind::arm:
        return std::any_of(frame.arms.begin(), frame.arms.end(),
                           [&](const Arm &a) { return a.id == owner.id && isMagnetic(a.material); });
    case OwnerKind::standoff:
        return std::any_of(frame.standoffs.begin(), frame.standoffs.end(),
                           [&](const Standoff &s) { return s.id == owner.id && isMagnetic(s.material); });
    case OwnerKind::disc: break;
    }
    return false;
}

/// The nearest solid of each thing of steel within twice the practice's distance, nearest first.
static std::vector<CompassReport::Iron> ironNear(const Build &build, const Practice &practice, const Scene &scene,
                                                 const std::string &compass, const Vec3 &position_mm, CaseMask aboard) {
    std::vector<CompassReport::Iron> iron;
    if (!scene.world) return iron;
    const double reach_mm = 2 * practice[Limit::ferrousGap];
    for (std::size_t b = 0; b < scene.world->bodies().size(); ++b) {
        const BodyOwner &owner = scene.owners[std::size_t(scene.traits[b].owner)];
        if (owner.id == compass || !(owner.cases & aboard) || !isFerrous(build, owner, scene.traits[b])) continue;
        const Body &body = scene.world->bodies()[b];
        const double distance = pointDistance(body.shape, body.X_FrameBody.inverse() * position_mm);
        if (distance > reach_mm) continue;
        const auto at =
            std::find_if(iron.begin(), iron.end(), [&](const CompassReport::Iron &i) { return i.part == owner.id; });
        if (at == iron.end())
            iron.push_back({owner.id, distance});
        else
            at->distance_mm = std::min(at->distance_mm, distance);
    }
    std::stable_sort(iron.begin(), iron.end(),
                     [](const auto &a, const auto &b) { return a.distance_mm < b.distance_mm; });
    return iron;
}

CompassReport compassAt(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                        const Scene &scene, const FieldSources &sources, const std::string &part,
                        const Vec3 &position_mm) {
    CompassReport report;
    report.part = part;
    report.position_mm = position_mm;
    const double earth_uT = practice[Limit::earthField];
    const Part *own = findPart(build, part);
    const CaseMask aboard = own ? casesAboard(*own, loadCases) : ~CaseMask(0);
    const auto level = [](const Vec3 &field) { return field.head<2>().norm(); };
    const double lean_deg = practice[Limit::cruisePitch];
    double worst = -1;
    std::size_t worstCase = 0;
    for (std::size_t c = 0; c < loadCases.size() && c < kMostLoadCases; ++c) {
        if (!(aboard >> c & 1) || !loadCases[c].flies()) continue;
        const FieldAt field = fieldAt(sources, position_mm, c, lean_deg);
        const double sum = field.full_uT + level(field.constant_uT);
        if (sum <= worst) continue;
        worst = sum;
        worstCase = c;
        report.field = field;
        report.loadCase = loadCases[c].id;
    }
    report.constant_deg = worstHeadingError_deg(earth_uT, level(report.field.constant_uT));
    report.hover_deg = worstHeadingError_deg(earth_uT, report.field.hover_uT);
    report.full_deg = worstHeadingError_deg(earth_uT, report.field.full_uT);
    const CaseMask bit = CaseMask(1) << worstCase;
    for (const auto &path : sources.paths) {
        if (!(path.cases & bit)) continue;
        LevelField alone;
        alone.add(pathFieldPerAmpere_uT(path, position_mm), 1);
        const double perAmpere_uT = alone.worst_uT(lean_deg);
        report.by.push_back(
            {path.wire, Vec3::Zero(), std::abs(path.hover_A) * perAmpere_uT, std::abs(path.full_A) * perAmpere_uT});
    }
    for (const auto &magnet : sources.magnets)
        if (magnet.cases & bit)
            report.by.push_back(
                {magnet.part, dipoleField_uT(magnet.moment_mAm2, position_mm - magnet.position_mm), 0, 0});
    std::stable_sort(report.by.begin(), report.by.end(),
                     [](const FieldShare &a, const FieldShare &b) { return a.level() > b.level(); });
    report.iron = ironNear(build, practice, scene, part, position_mm, aboard);
    return report;
}

std::vector<CompassReport> compassReports(const Build &build, const Practice &practice,
                                          const std::vector<LoadCase> &loadCases, const Scene &scene,
                                          const FieldSources &sources) {
    std::vector<CompassReport> reports;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        const auto place = type ? compassPlace(*type) : std::nullopt;
        if (place)
            reports.push_back(
                compassAt(build, practice, loadCases, scene, sources, part.id, framePose(build, part) * *place));
    }
    return reports;
}

FieldMap fieldMap(const FieldSources &sources, std::size_t loadCase, const Vec2 &low_mm, const Vec2 &high_mm,
                  double z_mm, double step_mm, double lean_deg) {
    FieldMap map;
    map.corner_mm = low_mm;
    map.step_mm = step_mm;
    map.z_mm = z_mm;
    map.columns = std::max(1, int(std::ceil((high_mm.x() - low_mm.x()) / step_mm)) + 1);
    map.rows = std::max(1, int(std::ceil((high_mm.y() - low_mm.y()) / step_mm)) + 1);
    for (int r = 0; r < map.rows; ++r)
        for (int c = 0; c < map.columns; ++c) {
            const Vec3 point(low_mm.x() + c * step_mm, low_mm.y() + r * step_mm, z_mm);
            const FieldAt field = fieldAt(sources, point, loadCase, lean_deg);
            map.constant_uT.push_back(float(field.constant_uT.head<2>().norm()));
            map.hover_uT.push_back(float(field.hover_uT));
            map.full_uT.push_back(float(field.full_uT));
        }
    return map;
}

} // namespace waxis
