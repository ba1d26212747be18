#include "core/placing/perch.h"

#include "core/build/frame_shapes.h"
#include "core/catalog/kind_words.h"
#include "core/placing/offers.h"
#include "core/placing/usual_hold.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

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
