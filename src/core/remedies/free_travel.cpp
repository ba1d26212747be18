#include "core/remedies/free_travel.h"

#include "core/build/frame_shapes.h"
#include "core/edits/group_edits.h"
#include "core/scene/scene.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <set>

namespace waxis {

std::vector<std::size_t> strapsRound(const Build &build, const Scene &scene, std::size_t part) {
    std::vector<std::size_t> straps;
    const auto has = [](const std::vector<std::string> &list, const std::string &id) {
        return std::find(list.begin(), list.end(), id) != list.end();
    };
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        const PartType *type = typeOf(build, build.parts[i]);
        if (type && type->kind == PartKind::strap && scene.owners[i].cases & scene.owners[part].cases &&
            (has(build.parts[part].fastening.onto, build.parts[i].id) ||
             has(build.parts[i].fastening.onto, build.parts[part].id)))
            straps.push_back(i);
    }
    return straps;
}

namespace {

/// What may stop the part: pairs of one of its bodies and one of something else.
struct Obstacles {
    std::vector<std::pair<std::size_t, std::size_t>> pairs;
};

Obstacles obstaclesOf(const Scene &scene, std::size_t part, const Vec3 &direction, double least, double most) {
    Obstacles out;
    const auto &bodies = scene.world->bodies();
    const CaseMask cases = scene.owners[part].cases;
    const auto &related = scene.owners[part].related;
    for (std::size_t a = 0; a < bodies.size(); ++a) {
        if (scene.traits[a].owner != int(part) || scene.traits[a].soft) continue;
        Aabb swept = boundsOf(bodies[a].shape, bodies[a].X_FrameBody);
        for (double end : {least, most}) {
            Body moved = bodies[a];
            moved.X_FrameBody.position_mm += end * direction;
            swept.include(boundsOf(moved.shape, moved.X_FrameBody));
        }
        for (std::size_t b = 0; b < bodies.size(); ++b) {
            const int other = scene.traits[b].owner;
            const BodyOwner &owner = scene.owners[std::size_t(other)];
            if (other == int(part) || scene.traits[b].soft || owner.flexible || owner.holds ||
                owner.kind == OwnerKind::disc || !(owner.cases & cases) ||
                std::find(related.begin(), related.end(), other) != related.end() ||
                boxGap(swept, boundsOf(bodies[b].shape, bodies[b].X_FrameBody)) > 0)
                continue;
            if (measureGap(bodies[a], bodies[b]).distance_mm <= 0) continue; // overlaps already: judged elsewhere
            out.pairs.emplace_back(a, b);
        }
    }
    return out;
}

} // namespace

FreeTravel freeTravel(const Build &build, const Scene &scene, std::size_t part, const Vec3 &direction, double least_mm,
                      double most_mm) {
    constexpr double kStep_mm = 1, kFine_mm = 0.05;
    constexpr double kFarthest_mm = 2000; // no craft is longer: a range of kilometres must not take minutes
    least_mm = std::max(least_mm, -kFarthest_mm);
    most_mm = std::min(most_mm, kFarthest_mm);
    const auto &bodies = scene.world->bodies();
    const Obstacles obstacles = obstaclesOf(scene, part, direction, least_mm, most_mm);
    auto meets = [&](double travel) -> std::string {
        for (const auto &[a, b] : obstacles.pairs) {
            Body moved = bodies[a];
            moved.X_FrameBody.position_mm += travel * direction;
            if (boxGap(boundsOf(moved.shape, moved.X_FrameBody), boundsOf(bodies[b].shape, bodies[b].X_FrameBody)) > 0)
                continue;
            if (measureGap(moved, bodies[b]).distance_mm <= 0)
                return scene.owners[std::size_t(scene.traits[b].owner)].id;
        }
        return {};
    };
    auto run = [&](double limit) {
        TravelEnd end{limit, StopKind::range, {}};
        const double sign = limit < 0 ? -1 : 1;
        double clear = 0;
        for (double at = kStep_mm;; at += kStep_mm) {
            const double step = std::min(at, std::abs(limit));
            if (std::string by = meets(sign * step); !by.empty()) {
                double struck = step;
                while (struck - clear > kFine_mm) {
                    const double middle = (clear + struck) / 2;
                    const std::string there = meets(sign * middle);
                    (there.empty() ? clear : struck) = middle;
                    if (!there.empty()) by = there;
                }
                end = {sign * clear, StopKind::body, std::move(by)};
                break;
            }
            clear = step;
            if (step >= std::abs(limit)) break;
        }
        return end;
    };
    FreeTravel travel{run(std::min(least_mm, 0.0)), run(std::max(most_mm, 0.0))};
    // Straps stay where they are: the pack's ends may come no nearer to one than what holds it.
    const Aabb box = partBounds(build, build.parts[part]);
    double low = 1e300, high = -1e300; // extent along the direction
    for (int corner = 0; corner < 8; ++corner) {
        const Vec3 p(corner & 1 ? box.max_mm.x() : box.min_mm.x(), corner & 2 ? box.max_mm.y() : box.min_mm.y(),
                     corner & 4 ? box.max_mm.z() : box.min_mm.z());
        low = std::min(low, p.dot(direction));
        high = std::max(high, p.dot(direction));
    }
    for (std::size_t strap : strapsRound(build, scene, part)) {
        const double at = framePose(build, build.parts[strap]).position_mm.dot(direction);
        const double fore = at - low - kStrapHold_mm, aft = at - high + kStrapHold_mm; // travel until it slips off
        if (fore < 0 || aft > 0) continue;                                             // it does not hold now
        if (fore < travel.most.travel_mm) travel.most = {fore, StopKind::strap, build.parts[strap].id};
        if (aft > travel.least.travel_mm) travel.least = {aft, StopKind::strap, build.parts[strap].id};
    }
    return travel;
}

} // namespace waxis
