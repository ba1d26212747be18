// Share hidden = sum over hidden directions of w / sum over all of w, above the mask; w = sin(elevation).
#include "core/sky/sky_view.h"

#include "core/base/units.h"
#include "core/scene/scene.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

/// Extent in the thinnest direction of the shape's own axes.
double thickness_mm(const Shape &shape) {
    if (const auto *box = std::get_if<Box>(&shape)) return box->fullSize_mm.minCoeff();
    if (const auto *cylinder = std::get_if<Cylinder>(&shape))
        return std::min(cylinder->diameter_mm, cylinder->length_mm);
    if (const auto *sphere = std::get_if<Sphere>(&shape)) return sphere->diameter_mm;
    if (const auto *prism = std::get_if<Prism>(&shape)) return prism->thickness_mm;
    return boundsOf(shape, {}).size_mm().minCoeff();
}

} // namespace

const std::vector<Vec3> &skyDirections() {
    static const std::vector<Vec3> directions = evenDirections(kSkyRays, true);
    return directions;
}

bool hidesSky(const Scene &scene, int body, const Build &build, double thick_mm) {
    const BodyTraits &traits = scene.traits[std::size_t(body)];
    const BodyOwner &owner = scene.owners[std::size_t(traits.owner)];
    if (owner.kind == OwnerKind::disc) return false;
    if (traits.conductive) return true;
    if (owner.kind == OwnerKind::part) {
        const Part *part = findPart(build, owner.id);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (type && std::size_t(traits.solid) < type->solids.size()) {
            const SolidRole role = type->solids[std::size_t(traits.solid)].role;
            if (role == SolidRole::board || role == SolidRole::component || role == SolidRole::shield) return true;
            if (type->kind == PartKind::battery) return true; // foil pouches
        }
    }
    return thickness_mm(scene.world->bodies()[std::size_t(body)].shape) > thick_mm;
}

RayWorld skyWorld(const Build &build, const Scene &scene, int loadCase, int self, double thick_mm) {
    return RayWorld(scene.world->bodies(), [&](int body) {
        const int owner = scene.traits[std::size_t(body)].owner;
        return owner != self && (scene.owners[std::size_t(owner)].cases >> loadCase & 1) &&
               hidesSky(scene, body, build, thick_mm);
    });
}

SkyView skyView(const RayWorld &world, const Scene &scene, const Vec3 &place_mm, const Vec3 &axis, double mask_deg,
                double pitch_deg) {
    // The craft is turned nose down by the pitch: a direction of the sky comes at it turned the other way.
    const Quat craftFromSky(Eigen::AngleAxisd(-radiansFromDegrees(pitch_deg), Vec3::UnitY()));
    const auto &sky = skyDirections();
    SkyView view;
    view.owner.assign(sky.size(), -1);
    const double lowest = std::sin(radiansFromDegrees(mask_deg));
    double all = 0, allPlain = 0, hidden = 0, hiddenPlain = 0;
    std::vector<double> by(scene.owners.size(), 0.0);
    for (std::size_t i = 0; i < sky.size(); ++i) {
        const double sine = sky[i].z();
        const int body = world.first(place_mm, craftFromSky * sky[i]).body;
        if (body >= 0) view.owner[i] = scene.traits[std::size_t(body)].owner;
        if (sine < lowest) continue;
        all += sine;
        allPlain += 1;
        if (body < 0) continue;
        hidden += sine;
        hiddenPlain += 1;
        by[std::size_t(view.owner[i])] += sine;
    }
    if (all > 0) {
        view.hidden = hidden / all;
        view.hiddenPlain = hiddenPlain / allPlain;
        for (std::size_t o = 0; o < by.size(); ++o)
            if (by[o] > 0) view.by.push_back({scene.owners[o].id, by[o] / all});
    }
    std::stable_sort(view.by.begin(), view.by.end(), [](const auto &a, const auto &b) { return a.share > b.share; });
    const Vec3 leaning = craftFromSky.conjugate() * axis.normalized();
    view.axisToZenith_deg = degreesFromRadians(std::acos(std::clamp(leaning.z(), -1.0, 1.0)));
    return view;
}

AntennaPlace antennaPlace(const PartType &type, const Pose &X_FramePart) {
    if (type.antenna) return {X_FramePart * type.antenna->phaseCentre_mm, X_FramePart.rotation * type.antenna->axis};
    Aabb bounds;
    for (const auto &solid : type.solids)
        if (solid.role != SolidRole::soft) bounds.include(boundsOf(solid.shape, solid.X_PartSolid));
    if (bounds.empty()) return {X_FramePart.position_mm, X_FramePart.rotation * Vec3::UnitZ()};
    const Vec3 middle = (bounds.min_mm + bounds.max_mm) / 2;
    return {X_FramePart * Vec3(middle.x(), middle.y(), bounds.max_mm.z()), X_FramePart.rotation * Vec3::UnitZ()};
}

} // namespace waxis
