#include "core/access/service.h"

#include "core/scene/scene.h"

#include <algorithm>
#include <array>

namespace waxis {

namespace {

constexpr double kTravel_mm = 80; ///< clear of its neighbours after that

const std::array<Vec3, 6> &directions() {
    static const std::array<Vec3, 6> all{Vec3(0, 0, 1), Vec3(1, 0, 0),  Vec3(-1, 0, 0),
                                         Vec3(0, 1, 0), Vec3(0, -1, 0), Vec3(0, 0, -1)};
    return all;
}

} // namespace

ServicePlan::ServicePlan(const Build &build, const Scene &scene, int loadCase)
    : build_(build), scene_(scene), loadCase_(loadCase), sweeps_(scene.world->bodies()), bodiesOf_(scene.owners.size()),
      fixed_(scene.owners.size(), false) {
    const auto &bodies = scene.world->bodies();
    for (std::size_t i = 0; i < bodies.size(); ++i) bodiesOf_[std::size_t(scene.traits[i].owner)].push_back(int(i));
    for (const auto &gap : scene.world->gaps())
        if (gap.depth_mm > 0) {
            const int a = scene.traits[std::size_t(gap.a)].owner, b = scene.traits[std::size_t(gap.b)].owner;
            overlapping_.insert({a, b});
            overlapping_.insert({b, a});
        }
    double lowest = 1e300;
    for (const auto &plate : build.frame->plates)
        if (!plate.isolated) lowest = std::min(lowest, plate.z_mm);
    for (std::size_t o = 0; o < scene.owners.size(); ++o) {
        const BodyOwner &owner = scene.owners[o];
        fixed_[o] = owner.kind == OwnerKind::arm || owner.kind == OwnerKind::disc;
        if (owner.kind != OwnerKind::plate) continue;
        for (const auto &plate : build.frame->plates)
            if (plate.id == owner.id && plate.z_mm <= lowest) fixed_[o] = true;
    }
}

const std::vector<int> &ServicePlan::assemblyOf(int owner) {
    const auto known = assemblies_.find(owner);
    if (known != assemblies_.end()) return known->second;
    std::vector<int> members{owner};
    for (std::size_t k = 0; k < members.size(); ++k) {
        const std::string &carrier = scene_.owners[std::size_t(members[k])].id;
        for (std::size_t i = 0; i < build_.parts.size(); ++i) {
            const Part &part = build_.parts[i];
            const BodyOwner &other = scene_.owners[i];
            if (other.battery || other.holds) continue; // packs go first; screws and straps are undone
            const auto &onto = part.fastening.onto;
            // What it is fastened to first is what carries it.
            const bool carried = !onto.empty() && onto.front() == carrier;
            if (carried && std::find(members.begin(), members.end(), int(i)) == members.end())
                members.push_back(int(i));
        }
    }
    return assemblies_.emplace(owner, std::move(members)).first->second;
}

std::vector<int> ServicePlan::inTheWay(int owner, const Vec3 &direction) {
    const auto &assembly = assemblyOf(owner);
    const auto &bodies = scene_.world->bodies();
    std::vector<int> way;
    for (int member : assembly)
        for (int b : bodiesOf_[std::size_t(member)]) {
            if (scene_.traits[std::size_t(b)].soft) continue;
            const Vec3 way_mm = kTravel_mm * direction;
            Aabb swept = sweeps_.boundsOf(b);
            swept.include(Aabb{swept.min_mm + way_mm, swept.max_mm + way_mm});
            for (std::size_t i = 0; i < bodies.size(); ++i) {
                const BodyTraits &traits = scene_.traits[i];
                const BodyOwner &other = scene_.owners[std::size_t(traits.owner)];
                if (traits.soft || other.flexible || other.holds || other.kind == OwnerKind::disc ||
                    !(other.cases >> loadCase_ & 1) || boxGap(swept, sweeps_.boundsOf(int(i))) > 0)
                    continue;
                if (std::find(assembly.begin(), assembly.end(), traits.owner) != assembly.end()) continue;
                if (std::find(way.begin(), way.end(), traits.owner) != way.end()) continue;
                if (overlapping_.contains({member, traits.owner})) continue;
                if (sweeps_.meets(b, way_mm, int(i))) way.push_back(traits.owner);
            }
        }
    return way;
}

std::optional<ServicePlan::Set> ServicePlan::toTakeOff(int owner, int self, const Set &anyway,
                                                       std::vector<int> &visiting) {
    constexpr std::size_t kDeepest = 6;
    if (fixed_[std::size_t(owner)] || owner == self || visiting.size() > kDeepest ||
        std::find(visiting.begin(), visiting.end(), owner) != visiting.end())
        return std::nullopt;
    // Packs that ride on it go first, whatever else is in the way.
    Set ridden;
    for (int member : assemblyOf(owner))
        for (std::size_t i = 0; i < build_.parts.size(); ++i)
            if (scene_.owners[i].battery && (scene_.owners[i].cases >> loadCase_ & 1) && int(i) != owner &&
                !build_.parts[i].fastening.onto.empty() &&
                build_.parts[i].fastening.onto.front() == scene_.owners[std::size_t(member)].id)
                ridden.insert(int(i));
    if (std::find(assemblyOf(owner).begin(), assemblyOf(owner).end(), self) != assemblyOf(owner).end() && owner != self)
        return std::nullopt; // it would take the port along
    visiting.push_back(owner);
    std::optional<Set> best;
    for (std::size_t d = 0; d < directions().size(); ++d) {
        auto [way, isNew] = ways_.try_emplace({owner, int(d)});
        if (isNew) way->second = inTheWay(owner, directions()[d]);
        Set all = ridden;
        all.insert(owner);
        bool possible = true;
        for (int blocker : std::vector<int>(way->second)) {
            if (all.contains(blocker) || anyway.contains(blocker)) continue;
            if (best && all.size() >= best->size()) {
                possible = false;
                break;
            }
            const auto more = toTakeOff(blocker, self, anyway, visiting);
            if (!more) {
                possible = false;
                break;
            }
            all.insert(more->begin(), more->end());
        }
        if (possible && (!best || all.size() < best->size())) best = all;
        if (best && best->size() == 1 + ridden.size()) break; // it cannot be fewer
    }
    visiting.pop_back();
    return best;
}

std::optional<std::vector<int>> ServicePlan::orderOf(const Set &all) {
    std::vector<int> order;
    Set left = all;
    while (!left.empty()) {
        const auto next = std::find_if(left.begin(), left.end(), [&](int owner) {
            for (std::size_t d = 0; d < directions().size(); ++d) {
                auto [way, isNew] = ways_.try_emplace({owner, int(d)});
                if (isNew) way->second = inTheWay(owner, directions()[d]);
                if (std::none_of(way->second.begin(), way->second.end(),
                                 [&](int b) { return left.contains(b) || !all.contains(b); }))
                    return true;
            }
            return false;
        });
        if (next == left.end()) return std::nullopt;
        order.push_back(*next);
        left.erase(next);
    }
    return order;
}

std::optional<std::vector<int>> ServicePlan::toFree(const std::vector<int> &blockers, int self) {
    auto collect = [&](const Set &anyway) -> std::optional<Set> {
        Set all;
        for (int blocker : blockers) {
            if (all.contains(blocker)) continue;
            std::vector<int> visiting;
            const auto more = toTakeOff(blocker, self, anyway, visiting);
            if (!more) return std::nullopt;
            all.insert(more->begin(), more->end());
        }
        return all;
    };
    // What stands before the port comes off anyway, so none of it holds the rest back; unless they wait for each other.
    const Set anyway(blockers.begin(), blockers.end());
    if (const auto all = collect(anyway))
        if (auto order = orderOf(*all)) return order;
    const auto all = collect({});
    if (!all) return std::nullopt;
    if (auto order = orderOf(*all)) return order;
    return std::vector<int>(all->begin(), all->end());
}

} // namespace waxis
