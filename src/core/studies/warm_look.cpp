#include "core/studies/warm_look.h"

#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/derived/all_up.h"
#include "core/heat/heat_rise.h"
#include "core/power/power_report.h"
#include "core/rays/ray_world.h"
#include "core/scene/scene.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

/// What it draws from the rails that feed it, less what leaves by the antenna; of regulators what they lose.
double heatOf_W(const Build &build, const Derived &derived, const Part &part, const PartType &type) {
    double own = 0;
    for (const auto &rail : derived.power->rails) {
        if (rail.part == part.id) own += rail.heat_W;
        if (type.kind == PartKind::regulator) continue;
        for (const auto &load : rail.loads)
            if (load.part == part.id && load.known && type.electrical) {
                const double volts = (rail.nominal_V > 0 ? rail.nominal_V : rail.most_V) - load.drop_V;
                own += volts * type.electrical->typical_A.value.value_or(0);
            }
    }
    double radiated = 0;
    for (std::size_t b = 0; b < type.radio.size(); ++b) {
        if (!type.radio[b].power_dBm) continue;
        double power = *type.radio[b].power_dBm;
        for (const auto &setting : build.radioSettings)
            if (setting.part == part.id && setting.band == int(b) && setting.power_dBm) power = *setting.power_dBm;
        radiated += std::pow(10.0, power / 10) * 1e-3;
    }
    return std::max(0.0, own - std::min(radiated, own / 2));
}

/// Of the boxes round its firm solids, less the largest face, on which it sits.
double ownArea_cm2(const PartType &type) {
    Aabb bounds;
    for (const auto &solid : type.solids)
        if (solid.role != SolidRole::soft) bounds.include(boundsOf(solid.shape, solid.X_PartSolid));
    if (bounds.empty()) return 0;
    const Vec3 s = bounds.size_mm();
    const double all = 2 * (s.x() * s.y() + s.y() * s.z() + s.z() * s.x());
    return (all - s.x() * s.y() * s.z() / s.minCoeff()) / 100;
}

/// What can stand in the way of air to a part in a load case.
RayWorld airWorld(const Scene &scene, int own, const std::vector<std::string> &sinks, std::size_t loadCase) {
    return RayWorld(scene.world->bodies(), [&scene, own, sinks, loadCase](int body) {
        const BodyTraits &traits = scene.traits[std::size_t(body)];
        const BodyOwner &owner = scene.owners[std::size_t(traits.owner)];
        return traits.owner != own && owner.kind != OwnerKind::disc && !owner.flexible && !traits.soft &&
               (owner.cases >> loadCase & 1) && std::find(sinks.begin(), sinks.end(), owner.id) == sinks.end();
    });
}

/// The wash blows along a rotor's axis through its disc, a little narrower than it: whether a place lies in it.
bool washReaches(const Build &build, const RayWorld &air, const Vec3 &place) {
    constexpr double kNarrowed = 0.85; // of the radius, one diameter below (momentum theory: 0.71 in the end)
    for (const auto &mount : build.frame->motorMounts) {
        const Vec3 away = propCentre_mm(mount) - place;
        const double over = away.dot(mount.axis), aside = (away - over * mount.axis).norm();
        if (over <= 0 || aside > kNarrowed * mount.propDiameter_mm / 2) continue;
        if (air.sees(place, place + over * mount.axis)) return true;
    }
    return false;
}

} // namespace

std::optional<WarmLook> warmLook(const Build &build, const Analysis &analysis, const std::string &id,
                                 std::size_t loadCase) {
    const Derived &derived = analysis.derived;
    const Part *part = findPart(build, id);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (!type || loadCase >= derived.loadCases.size()) return std::nullopt;
    const bool warms = type->hot || type->kind == PartKind::videoTransmitter ||
                       type->kind == PartKind::digitalVideoUnit || type->kind == PartKind::regulator;
    if (!warms || type->kind == PartKind::motor) return std::nullopt;
    WarmLook look;
    look.flies = derived.loadCases[loadCase].flies();
    look.heat_W = heatOf_W(build, derived, *part, *type);
    constexpr double kOfNote_W = 0.5;
    const auto grams = gramsOf(derived, id);
    look.area_cm2 = type->coolingArea_cm2.value_or(ownArea_cm2(*type));
    if (look.heat_W < kOfNote_W || !grams || !(look.area_cm2 > 0)) return std::nullopt;
    look.mass_g = *grams;
    for (const auto &other : build.parts) {
        const PartType *sink = typeOf(build, other);
        const auto &onto = other.fastening.onto;
        if (!sink || !sink->coolingArea_cm2 || other.id == id ||
            std::find(onto.begin(), onto.end(), id) == onto.end() || !isAboard(other, derived.loadCases[loadCase]))
            continue;
        look.sinks.push_back(other.id);
        look.area_cm2 += *sink->coolingArea_cm2;
        look.mass_g += gramsOf(derived, other.id).value_or(0);
    }
    const int own = int(part - build.parts.data());
    const RayWorld air = airWorld(derived.scene, own, look.sinks, loadCase);
    Aabb box = partBounds(build, *part);
    for (const auto &sink : look.sinks) box.include(partBounds(build, *findPart(build, sink)));
    constexpr int kAcross = 5;
    constexpr double kOver_mm = 0.5;
    int reached = 0;
    for (int i = 0; i < kAcross; ++i)
        for (int k = 0; k < kAcross; ++k) {
            const Vec3 s((i + 0.5) / kAcross, (k + 0.5) / kAcross, 1);
            reached += washReaches(build, air, box.min_mm + s.cwiseProduct(box.size_mm()) + Vec3(0, 0, kOver_mm));
        }
    look.inWash = double(reached) / (kAcross * kAcross);
    constexpr double kRoom_mm = 60;
    const auto directions = evenDirections(200, false);
    int free = 0;
    const Vec3 middle = (box.min_mm + box.max_mm) / 2;
    for (const Vec3 &d : directions) {
        const auto hit = air.first(middle, d);
        free += hit.body < 0 || hit.distance_mm > kRoom_mm;
    }
    look.open = double(free) / double(directions.size());
    constexpr CoolingBand kClosedIn{4, 8}; // from memory
    constexpr double kBoard_J_gK = 0.9;
    const auto rise = [&](const CoolingBand &band) {
        const auto at = [&](double h) {
            return heatRise(look.heat_W, look.area_cm2, h, look.mass_g, kBoard_J_gK, WarmLook::kRise_K);
        };
        return RiseBand{at(band.most).steady_K, at(band.least).steady_K};
    };
    look.still = rise(kStillAir);
    look.wash = rise(kInTheWash);
    look.closed = rise(kClosedIn);
    look.uncooled_s =
        heatRise(look.heat_W, look.area_cm2, kStillAir.least, look.mass_g, kBoard_J_gK, WarmLook::kRise_K).uncooled_s;
    return look;
}

} // namespace waxis
