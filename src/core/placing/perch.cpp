#include "core/placing/perch.h"

#include "core/build/frame_shapes.h"
#include "core/build/group_edits.h"
#include "core/catalog/kind_words.h"
#include "core/placing/offers.h"
#include "core/placing/usual_hold.h"
#include "core/stack/edits.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

/// Which place wins while a part is dragged.
int dragRank(PerchKind kind) {
    switch (kind) {
    case PerchKind::motorMount:
    case PerchKind::shaft:
    case PerchKind::tube:
    case PerchKind::cage:
    case PerchKind::pattern: return 0;
    case PerchKind::adapter:
    case PerchKind::socket: return 1;
    case PerchKind::part:
    case PerchKind::face:
    case PerchKind::strap:
    case PerchKind::mast: return 2;
    case PerchKind::armTop:
    case PerchKind::armUnder:
    case PerchKind::armSide:
    case PerchKind::armInside: return 3;
    case PerchKind::standoff:
    case PerchKind::bobbin: return 4;
    case PerchKind::plate:
    case PerchKind::plateUnder: return 5;
    }
    return 5;
}

/// How well a place suits a kind of part when somebody asks where it could go (common practice, no source).
int suits(const Perch &perch, const PartType &type) {
    const bool armPart = type.kind == PartKind::esc || type.kind == PartKind::lamp;
    int rank = 0;
    switch (perch.kind) {
    case PerchKind::armTop: rank = armPart ? 0 : 5; break;
    case PerchKind::armUnder: rank = armPart ? 2 : 6; break;
    case PerchKind::face: rank = type.kind == PartKind::gps ? 0 : 3; break;
    case PerchKind::plate: rank = 2; break;
    case PerchKind::plateUnder: rank = 4; break;
    case PerchKind::part: rank = type.kind == PartKind::gps || type.kind == PartKind::payloadCamera ? 0 : 4; break;
    default: rank = dragRank(perch.kind); break;
    }
    return rank + (perch.linesUp ? 0 : 3);
}

void offerHeld(const Asked &asked, const TypeTable &adapters) {
    offerMounts(asked);
    offerShafts(asked);
    if (asked.type.kind == PartKind::motor || asked.type.kind == PartKind::propeller) return; // nowhere else
    offerSites(asked, adapters);
    offerTubes(asked);
    offerSockets(asked);
    offerCarriers(asked);
    // Boards sit on hole patterns; packs and other big things are not tied to arms and posts.
    constexpr double kSmall_mm = 60;
    const bool small = boxAt(asked.type, Quat::Identity()).size_mm().maxCoeff() < kSmall_mm;
    if (!asked.type.mounting && asked.type.kind != PartKind::battery && small && !isPropellerNut(asked.type)) {
        offerArms(asked);
        if (!asked.everywhere) offerStandoffs(asked);
    }
    // Tubes and whips of any length, and masts, go onto a post by the keyboard too.
    const bool upright = asked.type.kind == PartKind::tube || isWhip(asked.type);
    if (upright && !small && !asked.everywhere) offerStandoffs(asked);
    if ((upright || carriesParts(asked.type)) && asked.everywhere) offerStandoffs(asked);
}

std::vector<Perch> perchesOf(const Build &build, const Part &part, const PartType &type, const TypeTable &adapters) {
    std::vector<Perch> all;
    const Asked asked{build, part, type, Pose{}, {true, true, true}, true, [&](Perch perch, const Vec3 &) {
                          perch.rank = suits(perch, type);
                          all.push_back(std::move(perch));
                      }};
    offerHeld(asked, adapters);
    offerPlates(asked);
    // Places that something else fills come last; what is screwed into a column stands on what is there.
    std::vector<Aabb> boxes;
    for (const auto &other : build.parts) boxes.push_back(partBounds(build, other));
    for (auto &perch : all) {
        if (perch.kind != PerchKind::face && perch.kind != PerchKind::strap && perch.kind != PerchKind::mast &&
            perch.kind != PerchKind::armTop && perch.kind != PerchKind::armUnder && perch.kind != PerchKind::socket)
            continue;
        Aabb own = boxAt(type, perch.X_FramePart.rotation);
        own.min_mm += perch.X_FramePart.position_mm;
        own.max_mm += perch.X_FramePart.position_mm;
        constexpr int kFilled = 7;
        for (std::size_t i = 0; i < boxes.size(); ++i)
            if (build.parts[i].id != part.id && build.parts[i].id != perch.on && boxesMeet(own, boxes[i])) {
                perch.rank += kFilled;
                break;
            }
        if (perch.kind == PerchKind::socket && perch.rank < kFilled)
            for (const auto &plate : build.frame->plates)
                if (boxesMeet(own, boundsOf(plateShape(plate), platePose(plate)))) {
                    perch.rank += kFilled;
                    break;
                }
    }
    std::stable_sort(all.begin(), all.end(), [](const Perch &a, const Perch &b) { return a.rank < b.rank; });
    return all;
}

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

bool boxesMeet(const Aabb &a, const Aabb &b) {
    constexpr double kTouch_mm = 0.05;
    return ((a.min_mm.array() < b.max_mm.array() - kTouch_mm) && (b.min_mm.array() < a.max_mm.array() - kTouch_mm))
        .all();
}

Aabb boxAt(const PartType &type, const Quat &turn) {
    Aabb box;
    for (const auto &solid : type.solids)
        if (solid.role != SolidRole::soft)
            box.include(boundsOf(solid.shape, Pose{Vec3::Zero(), turn} * solid.X_PartSolid));
    if (box.empty()) box.include(Vec3::Zero());
    return box;
}

std::optional<Perch> nearestPerch(const Build &build, const Part &part, const Pose &wanted,
                                  const std::array<bool, 3> &shown, double reach_mm, const TypeTable &adapters,
                                  std::optional<double> level_mm) {
    const PartType *type = typeOf(build, part);
    if (!type) return std::nullopt;
    std::optional<Perch> best;
    int bestRank = 0;
    const Asked asked{build, part, *type, wanted, shown, false, [&](Perch perch, const Vec3 &off) {
                          constexpr double kLevel_mm = 4;
                          if (level_mm && std::abs(perch.X_FramePart.position_mm.z() - *level_mm) > kLevel_mm) return;
                          double squared = 0;
                          for (int axis = 0; axis < 3; ++axis)
                              if (shown[std::size_t(axis)]) squared += off[axis] * off[axis];
                          perch.away_mm = std::sqrt(squared);
                          const int rank = dragRank(perch.kind);
                          constexpr double kStrong_mm = 14; // half a motor: dropped anywhere on the mount
                          const bool strong = perch.kind == PerchKind::motorMount || perch.kind == PerchKind::shaft;
                          if (perch.away_mm > (strong ? std::max(kStrong_mm, reach_mm) : reach_mm)) return;
                          if (best && (rank > bestRank || (rank == bestRank && perch.away_mm >= best->away_mm))) return;
                          perch.rank = rank;
                          bestRank = rank;
                          best = std::move(perch);
                      }};
    offerHeld(asked, adapters);
    return best;
}

std::vector<Perch> perchesFor(const Build &build, const Part &part, const TypeTable &adapters) {
    const PartType *type = typeOf(build, part);
    return type ? perchesOf(build, part, *type, adapters) : std::vector<Perch>{};
}

std::vector<Perch> perchesFor(const Build &build, const PartType &type, const TypeTable &adapters) {
    Part part;
    part.type = type.id;
    return perchesOf(build, part, type, adapters);
}

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

std::vector<Perch> alikeTo(const Perch &perch, const std::vector<Perch> &all) {
    const bool many = perch.kind == PerchKind::motorMount || perch.kind == PerchKind::shaft ||
                      perch.kind == PerchKind::armTop || perch.kind == PerchKind::armUnder;
    if (!many) return {perch};
    std::vector<Perch> alike;
    for (const auto &other : all)
        if (other.kind == perch.kind) alike.push_back(other);
    return alike;
}

std::string_view perchWord(PerchKind kind) {
    switch (kind) {
    case PerchKind::pattern: return "screwed to";
    case PerchKind::adapter: return "with an adapter plate on";
    case PerchKind::face: return "on";
    case PerchKind::strap: return "strapped to";
    case PerchKind::mast: return "on top of";
    case PerchKind::armTop: return "on";
    case PerchKind::armUnder: return "under";
    case PerchKind::armSide: return "beside";
    case PerchKind::armInside: return "inside";
    case PerchKind::standoff: return "tied to";
    case PerchKind::bobbin: return "tied to";
    case PerchKind::motorMount: return "screwed to";
    case PerchKind::shaft: return "on";
    case PerchKind::tube: return "in";
    case PerchKind::socket: return "screwed onto";
    case PerchKind::part: return "on top of";
    case PerchKind::cage: return "between two cheeks in";
    case PerchKind::plate: return "on";
    case PerchKind::plateUnder: return "under";
    }
    return "on";
}

} // namespace waxis
