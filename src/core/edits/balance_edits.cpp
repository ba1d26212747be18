#include "core/edits/balance_edits.h"

#include "core/base/by_id.h"
#include "core/build/frame_shapes.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

bool allFinite(const std::vector<double> &values) {
    return std::all_of(values.begin(), values.end(), [](double v) { return std::isfinite(v); });
}

} // namespace

EditResult slidePart(const Build &build, const std::string &id, double travel) {
    const Part *part = findPart(build, id);
    if (!part) return refuse(fmt::format("There is no part \"{}\" in this build.", id));
    if (part->pinned) return refuse(fmt::format("{} is pinned.", displayName(build, id)));
    if (!part->slide) return refuse(fmt::format("{} has no line along which it may slide.", displayName(build, id)));
    constexpr double kRound_mm = 1e-6;
    if (!(travel >= part->slide->min_mm - kRound_mm && travel <= part->slide->max_mm + kRound_mm))
        return refuse(fmt::format("{} may slide from {:.1f} to {:.1f} mm, not {:.1f}.", displayName(build, id),
                                  part->slide->min_mm, part->slide->max_mm, travel));
    EditResult moved = shiftPart(build, id, part->slide->direction * travel);
    if (!moved) return moved;
    SlideRange &range = *byId(moved->parts, id)->slide;
    range.min_mm = std::min(0.0, range.min_mm - travel);
    range.max_mm = std::max(0.0, range.max_mm - travel);
    return moved;
}

EditResult setSlide(const Build &build, const std::string &id, const std::optional<SlideRange> &slide) {
    Build next = build;
    Part *part = byId(next.parts, id);
    if (!part) return refuse(fmt::format("There is no part \"{}\" in this build.", id));
    part->slide = slide;
    if (!slide) return next;
    if (!(slide->direction.norm() > 1e-9) || !slide->direction.allFinite()) return refuse("A line needs a direction.");
    if (!(slide->min_mm <= 0 && slide->max_mm >= 0) || !std::isfinite(slide->min_mm) || !std::isfinite(slide->max_mm))
        return refuse("The range must hold the place where it is: from 0 or less to 0 or more.");
    part->slide->direction.normalize();
    return next;
}

EditResult swapPack(const Build &build, const std::string &id, const PartType &type) {
    const Part *part = findPart(build, id);
    if (!part) return refuse(fmt::format("There is no part \"{}\" in this build.", id));
    if (type.kind != PartKind::battery) return refuse(fmt::format("{} is no battery.", type.name));
    const Aabb before = partBounds(build, *part);
    Build with = build;
    if (!with.types->contains(type.id)) with.types.edit([&](TypeTable &types) { types[type.id] = type; });
    EditResult changed = changeType(with, id, type.id);
    if (!changed) return changed;
    Part *swapped = byId(changed->parts, id);
    if (part->name == typeOf(build, *part)->name) swapped->name = type.name;
    if (part->fastening.method == FasteningMethod::stack) return changed; // its height is the layers'
    // It lies on what it is fastened onto, or hangs from it.
    bool hangs = false;
    for (const auto &plate : build.frame->plates)
        if (std::find(part->fastening.onto.begin(), part->fastening.onto.end(), plate.id) != part->fastening.onto.end())
            hangs = plate.z_mm + plate.thickness_mm / 2 > (before.min_mm.z() + before.max_mm.z()) / 2;
    const Aabb after = partBounds(*changed, *swapped);
    const double up = hangs ? before.max_mm.z() - after.max_mm.z() : before.min_mm.z() - after.min_mm.z();
    return shiftPart(*changed, id, Vec3(0, 0, up));
}

EditResult swapPropellers(const Build &build, const PartType &type) {
    if (type.kind != PartKind::propeller) return refuse(fmt::format("{} is no propeller.", type.name));
    if (type.turns) return refuse(fmt::format("{} is made for one direction only.", type.name));
    Build next = build;
    if (!next.types->contains(type.id)) next.types.edit([&](TypeTable &types) { types[type.id] = type; });
    bool any = false;
    Frame frame = *next.frame;
    for (const auto &part : build.parts) {
        const PartType *now = typeOf(build, part);
        MotorMount *mount = byId(frame.motorMounts, part.placement.site);
        if (!now || now->kind != PartKind::propeller || !mount) continue;
        any = true;
        EditResult changed = changeType(next, part.id, type.id);
        if (!changed) return changed;
        next = std::move(*changed);
        Part *swapped = byId(next.parts, part.id);
        if (part.name == now->name) swapped->name = type.name;
        if (!swapped->turns) swapped->turns = mount->spin;
        if (type.propDiameter_mm) mount->propDiameter_mm = *type.propDiameter_mm;
    }
    if (!any) return refuse("No propeller is fitted yet.");
    next.frame = std::move(frame);
    return next;
}

EditResult leaveOut(const Build &build, const std::string &loadCase, const std::string &part) {
    Build next = build;
    LoadCase *found = byId(next.loadCases, loadCase);
    if (!found) return refuse(fmt::format("There is no load case \"{}\".", loadCase));
    if (std::erase(found->aboard, part) == 0)
        return refuse(fmt::format("{} does not fly in {} by choice.", displayName(build, part), found->name));
    return next;
}

EditResult addBallast(const Build &build, const Vec3 &position, double mass_g) {
    if (!(mass_g > 0) || !std::isfinite(mass_g) || !position.allFinite())
        return refuse("Ballast weighs something and hangs somewhere.");
    Build next = build;
    next.allowances.push_back({freshId(build, "ballast"), "Ballast", {mass_g, 0.2, Source::estimated}, position});
    return next;
}

EditResult addWeighing(const Build &build, WeighingMethod method, const std::string &loadCase) {
    const auto cases = effectiveLoadCases(build);
    const auto at = std::find_if(cases.begin(), cases.end(), [&](const LoadCase &c) { return c.id == loadCase; });
    if (at == cases.end()) return refuse(fmt::format("There is no load case \"{}\".", loadCase));
    Build next = build;
    Weighing weighing;
    weighing.method = method;
    weighing.loadCase = loadCase;
    const Vec2 centre = thrustCentre_mm(*build.frame).head<2>();
    switch (method) {
    case WeighingMethod::total:
        weighing.id = freshId(build, "weighed");
        weighing.name = "On the scale: " + at->name;
        break;
    case WeighingMethod::scales:
        weighing.id = freshId(build, "scales");
        weighing.name = "Three scales: " + at->name;
        weighing.points_mm = {centre + Vec2(60, 60), centre + Vec2(60, -60), centre + Vec2(-80, 0)};
        weighing.readings_g = {0, 0, 0};
        break;
    case WeighingMethod::lines:
        weighing.id = freshId(build, "balanced");
        weighing.name = "Balanced: " + at->name;
        weighing.lines = {{centre, 90}, {centre, 0}};
        break;
    }
    next.weighings.push_back(std::move(weighing));
    return next;
}

EditResult editWeighing(const Build &build, const Weighing &changed) {
    Build next = build;
    Weighing *weighing = byId(next.weighings, changed.id);
    if (!weighing) return refuse(fmt::format("There is no weighing \"{}\".", changed.id));
    if (changed.points_mm.size() != changed.readings_g.size()) return refuse("Every scale has a place and a reading.");
    std::vector<double> numbers = changed.readings_g;
    for (const auto &p : changed.points_mm) numbers.insert(numbers.end(), {p.x(), p.y()});
    for (const auto &l : changed.lines)
        numbers.insert(numbers.end(), {l.through_mm.x(), l.through_mm.y(), l.direction_deg});
    numbers.insert(numbers.end(), {changed.total_g.value.value_or(0), changed.total_g.tolerance.value_or(0),
                                   changed.scaleTolerance_g, changed.lineTolerance_mm});
    if (!allFinite(numbers)) return refuse("A weighing needs numbers.");
    if (changed.total_g.value.value_or(0) < 0 ||
        std::any_of(changed.readings_g.begin(), changed.readings_g.end(), [](double r) { return r < 0; }))
        return refuse("A scale under a standing craft reads no less than nothing.");
    if (changed.scaleTolerance_g < 0 || changed.lineTolerance_mm < 0 || changed.total_g.tolerance.value_or(0) < 0)
        return refuse("A doubt cannot be less than nothing.");
    *weighing = changed;
    return next;
}

EditResult removeWeighing(const Build &build, const std::string &id) {
    Build next = build;
    if (std::erase_if(next.weighings, [&](const Weighing &w) { return w.id == id; }) == 0)
        return refuse(fmt::format("There is no weighing \"{}\".", id));
    return next;
}

EditResult addWeightLimit(const Build &build, const std::string &name, double most_g) {
    if (!(most_g > 0) || !std::isfinite(most_g)) return refuse("A weight limit must be more than nothing.");
    Build next = build;
    next.weightLimits.push_back({freshId(build, "limit"), name, most_g, {}});
    return next;
}

EditResult editWeightLimit(const Build &build, const WeightLimit &changed) {
    Build next = build;
    WeightLimit *limit = byId(next.weightLimits, changed.id);
    if (!limit) return refuse(fmt::format("There is no weight limit \"{}\".", changed.id));
    if (!(changed.most_g > 0) || !std::isfinite(changed.most_g))
        return refuse("A weight limit must be more than nothing.");
    *limit = changed;
    return next;
}

EditResult removeWeightLimit(const Build &build, const std::string &id) {
    Build next = build;
    if (std::erase_if(next.weightLimits, [&](const WeightLimit &l) { return l.id == id; }) == 0)
        return refuse(fmt::format("There is no weight limit \"{}\".", id));
    return next;
}

EditResult setMotorThrust(const Build &build, std::optional<double> thrust_gf) {
    if (thrust_gf && !(*thrust_gf > 0 && std::isfinite(*thrust_gf)))
        return Failure{EditError{"a motor's thrust must be more than zero"}};
    Build next = build;
    bool any = false;
    next.types.edit([&](TypeTable &types) {
        for (const auto &part : build.parts) {
            const auto type = types.find(part.type);
            if (type == types.end() || type->second.kind != PartKind::motor) continue;
            type->second.maxThrust_gf = thrust_gf ? measuredValue(*thrust_gf) : Measured{};
            any = true;
        }
    });
    if (!any) return Failure{EditError{"there is no motor in the build"}};
    return next;
}

} // namespace waxis
