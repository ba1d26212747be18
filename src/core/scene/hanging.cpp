#include "core/scene/hanging.h"

#include "core/build/chain.h"
#include "core/build/near_frame.h"
#include "core/clearance/clearance_world.h"

#include <algorithm>
#include <cstdint>
#include <unordered_map>
#include <unordered_set>

namespace waxis {

namespace {

/// Who touches whom, and what hangs together with the arms. Read off the gaps that are kept anyway.
class Holding {
public:
    Holding(const Practice &practice, const Scene &scene) : scene_(scene) {
        constexpr double kHair_mm = 1e-6; // sums of hundredths land beside the limit
        const double reach = practice[Limit::heldGap] + kHair_mm;
        for (std::size_t i = 0; i < scene.owners.size(); ++i)
            if (scene.owners[i].kind != OwnerKind::disc) byId_.emplace(scene.owners[i].id, int(i));
        for (const auto &gap : scene.world->gaps()) {
            const int a = scene.traits[std::size_t(gap.a)].owner, b = scene.traits[std::size_t(gap.b)].owner;
            if (gap.distance_mm > reach || isDisc(a) || isDisc(b)) continue;
            touching_.insert(pairOf(a, b));
        }
        anchored_.assign(scene.owners.size(), false);
        anchorFrame();
    }

    int find(const std::string &id) const {
        const auto at = byId_.find(id);
        return at == byId_.end() ? -1 : at->second;
    }
    bool anchored(int owner) const { return anchored_[std::size_t(owner)]; }
    void anchor(int owner) { anchored_[std::size_t(owner)] = true; }
    bool touches(int a, int b) const { return touching_.contains(pairOf(a, b)); }

    /// The distance however far it is; measured anew.
    double gap_mm(int a, int b) const {
        double least = 1e300;
        for (std::size_t i = 0; i < scene_.traits.size(); ++i)
            for (std::size_t j = 0; scene_.traits[i].owner == a && j < scene_.traits.size(); ++j)
                if (scene_.traits[j].owner == b)
                    least = std::min(least, scene_.world->measure(int(i), int(j)).distance_mm);
        return least;
    }

    /// What the frame is made of, without what nothing joins to the arms.
    std::vector<int> looseMembers() const {
        std::vector<int> loose;
        for (const int member : members())
            if (!anchored(member)) loose.push_back(member);
        return loose;
    }

private:
    static std::uint64_t pairOf(int a, int b) {
        return std::uint64_t(std::uint32_t(std::min(a, b))) << 32 | std::uint32_t(std::max(a, b));
    }
    bool isDisc(int owner) const { return scene_.owners[std::size_t(owner)].kind == OwnerKind::disc; }
    std::vector<int> members() const {
        std::vector<int> all;
        for (std::size_t i = 0; i < scene_.owners.size(); ++i)
            if (const OwnerKind kind = scene_.owners[i].kind;
                kind == OwnerKind::plate || kind == OwnerKind::arm || kind == OwnerKind::standoff)
                all.push_back(int(i));
        return all;
    }
    /// Spreads from the arms (without arms, the first plate) over all that touches.
    void anchorFrame() {
        const auto all = members();
        const auto first = [&](OwnerKind kind) {
            return std::find_if(all.begin(), all.end(),
                                [&](int m) { return scene_.owners[std::size_t(m)].kind == kind; });
        };
        auto root = first(OwnerKind::arm);
        if (root == all.end()) root = first(OwnerKind::plate);
        if (root == all.end()) root = all.begin();
        if (root == all.end()) return;
        std::vector<int> edge{*root};
        anchor(*root);
        while (!edge.empty()) {
            const int from = edge.back();
            edge.pop_back();
            for (const int to : all) {
                if (anchored(to) || !touches(from, to)) continue;
                anchor(to);
                edge.push_back(to);
            }
        }
    }

    const Scene &scene_;
    std::unordered_map<std::string, int> byId_;
    std::unordered_set<std::uint64_t> touching_;
    std::vector<bool> anchored_;
};

/// Ids of what should hold the part: what it is fastened onto, and what carries its site.
std::vector<std::string> holdersOf(const Build &build, const Part &part) {
    std::vector<std::string> holders = part.fastening.onto;
    for (const auto &site : build.frame->sites)
        if (site.id == part.placement.site && !site.on.empty() &&
            std::find(holders.begin(), holders.end(), site.on) == holders.end())
            holders.push_back(site.on);
    return holders;
}

struct Held {
    bool byStack = false;
    std::vector<int> named, touching; ///< owners
};

} // namespace

HangingReport whatHangs(const Build &build, const Practice &practice, const Scene &scene) {
    HangingReport report;
    const Frame &frame = *build.frame;
    if (!scene.world || (frame.plates.empty() && frame.arms.empty() && frame.standoffs.empty())) return report;
    Holding holding(practice, scene);
    report.looseMembers = holding.looseMembers();
    std::vector<Held> held(build.parts.size());
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        const Part &part = build.parts[i];
        held[i].byStack = scene.owners[i].stack >= 0;
        if (held[i].byStack) {
            holding.anchor(int(i));
            continue;
        }
        if (part.fastening.method == FasteningMethod::none) continue;
        for (const auto &id : holdersOf(build, part)) {
            const int other = holding.find(id);
            if (other < 0) continue;
            held[i].named.push_back(other);
            if (holding.touches(int(i), other)) held[i].touching.push_back(other);
        }
    }
    // A part hangs on what it touches as soon as that hangs on the frame; holding goes both ways.
    for (bool more = true; more;) {
        more = false;
        for (std::size_t i = 0; i < build.parts.size(); ++i)
            for (const int other : held[i].touching) {
                if (holding.anchored(int(i)) == holding.anchored(other)) continue;
                holding.anchor(int(i));
                holding.anchor(other);
                more = true;
            }
    }
    std::vector<bool> said(scene.owners.size(), false); // their own finding tells why
    const Aabb craft = frameBounds(frame);
    const auto say = [&](std::size_t i, Hanging hanging) {
        hanging.part = i;
        said[i] = true;
        report.parts.push_back(hanging);
    };
    const StackSeats seats = stackSeats(build);
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        // By its middle: a pack of its own length over the edge is no farther than it was.
        const Vec3 at = framePoseAt(build, build.parts[i], seats[i]).position_mm;
        const double away_mm = boxGap(craft, Aabb{at, at});
        if (away_mm > kFarFromFrame_mm) say(i, {0, HangingKind::far, -1, away_mm, at});
    }
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        if (said[i] || held[i].byStack || holding.anchored(int(i)) || !held[i].touching.empty()) continue;
        if (held[i].named.empty()) {
            say(i, {0, HangingKind::nothing, -1, 0, Vec3::Zero()});
            continue;
        }
        int nearest = held[i].named.front();
        for (const int other : held[i].named)
            if (holding.gap_mm(int(i), other) < holding.gap_mm(int(i), nearest)) nearest = other;
        say(i, {0, HangingKind::apart, nearest, holding.gap_mm(int(i), nearest), Vec3::Zero()});
    }
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        if (said[i] || held[i].byStack || holding.anchored(int(i)) || held[i].touching.empty()) continue;
        if (std::any_of(held[i].touching.begin(), held[i].touching.end(), [&](int o) { return said[std::size_t(o)]; }))
            continue;
        say(i, {0, HangingKind::island, held[i].touching.front(), 0, Vec3::Zero()});
    }
    return report;
}

} // namespace waxis
