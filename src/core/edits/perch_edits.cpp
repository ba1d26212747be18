#include "core/edits/perch_edits.h"

#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/catalog/kind_words.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "core/edits/stack_edits.h"
#include "core/placing/offers.h"
#include "core/placing/usual_hold.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

/// A camera's two cheeks come out of the library with it.
const PartType *cheekIn(const TypeTable &types) {
    for (const auto &[id, type] : types)
        if (type.kind == PartKind::mount && type.name.find("cheek") != std::string::npos) return &type;
    return nullptr;
}

/// Cheeks either side of a camera, standing on the deck that carries the cage, the camera between them.
EditResult hangInCheeks(const Build &build, const std::string &id, const Perch &perch, const TypeTable &types) {
    const PartType *cheek = cheekIn(types);
    const Part *camera = findPart(build, id);
    const PartType *own = camera ? typeOf(build, *camera) : nullptr;
    if (!own) return refuse("There is no such camera in this build.");
    if (!cheek) return refuse("A cage needs two camera cheeks, and the library has none.");
    const Frame &frame = *build.frame;
    const auto site =
        std::find_if(frame.sites.begin(), frame.sites.end(), [&](const Site &s) { return s.id == perch.site; });
    const Plate *deck = nullptr, *roof = nullptr;
    for (const auto &plate : frame.plates) {
        if (site != frame.sites.end() && plate.id == site->on) deck = &plate;
        const double z = perch.X_FramePart.position_mm.z();
        if (plate.z_mm > z && contains({plate.outline_mm, {}}, perch.X_FramePart.position_mm.head<2>()) &&
            (!roof || plate.z_mm < roof->z_mm))
            roof = &plate;
    }
    if (!deck) return refuse("The cage stands on no plate.");
    const Aabb box = boxAt(*cheek, Quat::Identity());
    double half = 0;
    for (const auto &solid : own->solids) {
        if (solid.role == SolidRole::soft || solid.role == SolidRole::lens) continue;
        const Aabb body = boundsOf(solid.shape, solid.X_PartSolid);
        half = std::max({half, body.max_mm.y(), -body.min_mm.y()});
    }
    const double floor = deck->z_mm + deck->thickness_mm, height = box.size_mm().z();
    const bool both = roof && std::abs(roof->z_mm - floor - height) < 1.0; // clamped between the decks
    Pose seat = perch.X_FramePart;
    seat.position_mm.z() = floor + height / 2;
    Build next = build;
    std::vector<std::string> cheeks;
    for (const double side : {1.0, -1.0}) {
        const double aside = half + (side > 0 ? -box.min_mm.y() : box.max_mm.y());
        const Vec3 at =
            seat.position_mm + Vec3(-box.size_mm().x() * 0.2, side * aside, -(box.max_mm.z() + box.min_mm.z()) / 2);
        auto added = addPart(next, *cheek, side > 0 ? "cheek-l" : "cheek-r", {at, Quat::Identity()});
        if (!added) return added;
        next = std::move(*added);
        next.parts.back().name = side > 0 ? "Left camera cheek" : "Right camera cheek";
        cheeks.push_back(next.parts.back().id);
        Fastening hold{FasteningMethod::screws, {id, deck->id}, false, {}};
        if (both) hold.onto.push_back(roof->id);
        hold.pieces = both ? 2 : 1;
        auto held = fastenPart(next, cheeks.back(), hold);
        if (!held) return held;
        next = std::move(*held);
    }
    auto moved = movePart(next, id, seat);
    if (!moved) return moved;
    return fastenPart(*moved, id, {FasteningMethod::screws, cheeks, false, 4});
}

/// Boards on one pattern stand over one another: those that lie there become a stack, this one goes on top.
EditResult joinColumn(const Build &build, const std::string &id, const std::string &on, const std::string &name) {
    Build next = build;
    std::string stack;
    for (const auto &known : build.stacks)
        if (known.on == on) stack = known.id;
    if (stack.empty()) {
        auto gathered = gatherStack(build, on, name, &stack);
        if (!gathered) return gathered;
        next = std::move(*gathered);
    }
    const Part *part = findPart(next, id);
    if (part && stackPlaceOf(next, *part)) return next; // gathered with the others
    const Stack &column = *findStack(next, stack);
    int at = int(column.layers.size());
    if (!column.headsOutside && column.end == ScrewEnd::nut && at > 0 && column.layers.back().role == LayerRole::nut)
        --at; // inside the nuts that end it
    return addBoard(next, stack, at, id);
}

/// Another board lies there already, screwed or in a stack.
bool isOccupied(const Build &build, const std::string &part, const std::string &site) {
    if (std::any_of(build.stacks.begin(), build.stacks.end(), [&](const Stack &s) { return s.on == site; }))
        return true;
    return std::any_of(build.parts.begin(), build.parts.end(), [&](const Part &other) {
        const PartType *type = typeOf(build, other);
        return other.id != part && other.placement.site == site && type && type->mounting && !type->carries &&
               other.fastening.method == FasteningMethod::screws;
    });
}

/// Boards on an adapter plate: two of them make a stack of the plate's own pattern.
bool carrierIsOccupied(const Build &build, const std::string &part, const std::string &carrier) {
    return std::any_of(build.parts.begin(), build.parts.end(),
                       [&](const Part &other) {
                           const auto &onto = other.fastening.onto;
                           return other.id != part && std::find(onto.begin(), onto.end(), carrier) != onto.end() &&
                                  other.fastening.method == FasteningMethod::screws;
                       }) ||
           std::any_of(build.stacks.begin(), build.stacks.end(), [&](const Stack &s) { return s.on == carrier; });
}

/// A propeller says how large its disc is and where; it is put on in the hand that its motor wants.
void takeBlades(Build &build, const std::string &id, const Perch &perch) {
    const Part *part = findPart(build, id);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (!type || type->kind != PartKind::propeller) return;
    const auto axes = sitePose(*build.frame, perch.site);
    const Aabb hub = boxAt(*type, Quat::Identity());
    const Vec3 middle = axes->inverse() * (framePose(build, *part) * Vec3(0, 0, (hub.min_mm.z() + hub.max_mm.z()) / 2));
    std::optional<Spin> spin;
    build.frame.edit([&](Frame &frame) {
        for (auto &mount : frame.motorMounts)
            if (mount.id == perch.site) {
                mount.propPlane_mm = std::round(middle.z() * 1000) / 1000;
                if (type->propDiameter_mm) mount.propDiameter_mm = *type->propDiameter_mm;
                spin = mount.spin;
            }
    });
    if (spin && !type->turns)
        for (auto &own : build.parts)
            if (own.id == id) own.turns = spin;
}

} // namespace

EditResult perchPart(const Build &build, const std::string &id, const Perch &perch, const TypeTable &adapters) {
    Build next = build;
    Fastening fastening = perch.fastening;
    const Part *part = findPart(build, id);
    if (!part) return refuse("There is no part \"" + id + "\" in this build.");
    if (perch.kind == PerchKind::cage) return hangInCheeks(build, id, perch, adapters);
    const bool wasHere = !perch.site.empty() && part->placement.site == perch.site;
    if (!perch.adapter.empty()) {
        const auto type = adapters.find(perch.adapter);
        const auto seat = sitePose(*build.frame, perch.site);
        if (type == adapters.end() || !seat) return refuse("The adapter plate is not in the library.");
        auto added = addPart(next, type->second, perch.adapter, *seat);
        if (!added) return added;
        const std::string plate = added->parts.back().id;
        auto seated = seatPart(*added, plate, perch.site, Pose{});
        if (!seated) return seated;
        auto held = fastenPart(*seated, plate, perch.fastening);
        if (!held) return held;
        next = std::move(*held);
        fastening.onto = {plate};
    }
    const bool second = perch.kind == PerchKind::adapter && perch.adapter.empty() && !fastening.onto.empty() &&
                        carrierIsOccupied(build, id, fastening.onto.front());
    if (second && !wasHere) {
        const std::string plate = fastening.onto.front();
        std::string stack;
        for (const auto &known : next.stacks)
            if (known.on == plate) stack = known.id;
        if (stack.empty()) {
            auto made = addStack(next, plate, displayName(next, plate), &stack);
            if (!made) return made;
            next = std::move(*made);
            for (const auto &other : build.parts) { // what lay on the plate by itself
                const auto &onto = other.fastening.onto;
                if (other.id == id || std::find(onto.begin(), onto.end(), plate) == onto.end()) continue;
                auto laid = addBoard(next, stack, int(findStack(next, stack)->layers.size()), other.id);
                if (!laid) return laid;
                next = std::move(*laid);
            }
        }
        return addBoard(next, stack, int(findStack(next, stack)->layers.size()), id);
    }
    const auto seat = sitePose(*next.frame, perch.site);
    auto placed = seat ? seatPart(next, id, perch.site, seat->inverse() * perch.X_FramePart)
                       : movePart(next, id, perch.X_FramePart);
    if (!placed) return placed;
    // A part that stays on its site keeps how it was fastened there: the stack's screws, its own ties.
    if (wasHere) return placed;
    auto held = fastenPart(*placed, id, fastening);
    if (!held) return held;
    if (perch.kind == PerchKind::shaft) takeBlades(*held, id, perch);
    if (perch.kind == PerchKind::pattern && isOccupied(build, id, perch.site))
        return joinColumn(*held, id, perch.site, displayName(build, perch.site));
    return held;
}

EditResult addPerched(const Build &build, const PartType &type, const std::vector<Perch> &places,
                      const TypeTable &adapters, std::vector<std::string> *added) {
    Build next = build;
    for (const auto &place : places) {
        auto put = addPart(next, type, type.id, place.X_FramePart);
        if (!put) return put;
        Part &part = put->parts.back();
        const std::string id = part.id;
        const bool onMount = place.kind == PerchKind::motorMount || place.kind == PerchKind::shaft;
        if (onMount || place.kind == PerchKind::armTop || place.kind == PerchKind::armUnder) {
            // "Front right arm" -> "Front right motor".
            std::string quarter = displayName(build, onMount ? place.site : place.on);
            for (const std::string_view tail : {" propeller disc", " arm"})
                if (quarter.ends_with(tail)) quarter.resize(quarter.size() - tail.size());
            const bool nut = isPropellerNut(type);
            part.name = fmt::format("{} {}", quarter, nut ? "propeller nut" : kindName(type.kind));
        }
        auto seated = perchPart(*put, id, place, adapters);
        if (!seated) return seated;
        next = std::move(*seated);
        if (added) added->push_back(id);
    }
    return next;
}

} // namespace waxis
