// FIT-13: is everything held by something that it touches.
#include "core/build/near_frame.h"
#include "core/rules/families.h"
#include "core/stack/chain.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <unordered_map>
#include <unordered_set>

namespace waxis {

namespace {

/// Who touches whom, and what hangs together with the arms. Read off the gaps that are kept anyway.
class Holding {
public:
    Holding(const Practice &practice, const Derived &derived) : derived_(derived) {
        constexpr double kHair_mm = 1e-6; // sums of hundredths land beside the limit
        const double reach = practice[Limit::heldGap] + kHair_mm;
        for (std::size_t i = 0; i < derived.owners.size(); ++i)
            if (derived.owners[i].kind != OwnerKind::disc) byId_.emplace(derived.owners[i].id, int(i));
        for (const auto &gap : derived.world->gaps()) {
            const int a = derived.traits[std::size_t(gap.a)].owner, b = derived.traits[std::size_t(gap.b)].owner;
            if (gap.distance_mm > reach || isDisc(a) || isDisc(b)) continue;
            touching_.insert(pairOf(a, b));
        }
        anchored_.assign(derived.owners.size(), false);
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
        for (std::size_t i = 0; i < derived_.traits.size(); ++i)
            for (std::size_t j = 0; derived_.traits[i].owner == a && j < derived_.traits.size(); ++j)
                if (derived_.traits[j].owner == b)
                    least = std::min(least, derived_.world->measure(int(i), int(j)).distance_mm);
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
    bool isDisc(int owner) const { return derived_.owners[std::size_t(owner)].kind == OwnerKind::disc; }
    std::vector<int> members() const {
        std::vector<int> all;
        for (std::size_t i = 0; i < derived_.owners.size(); ++i)
            if (const OwnerKind kind = derived_.owners[i].kind;
                kind == OwnerKind::plate || kind == OwnerKind::arm || kind == OwnerKind::standoff)
                all.push_back(int(i));
        return all;
    }
    /// Spreads from the arms (without arms, the first plate) over all that touches.
    void anchorFrame() {
        const auto all = members();
        const auto first = [&](OwnerKind kind) {
            return std::find_if(all.begin(), all.end(),
                                [&](int m) { return derived_.owners[std::size_t(m)].kind == kind; });
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

    const Derived &derived_;
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

void offerPlaces(const Build &build, const Part &part, Finding &finding) {
    constexpr std::size_t kMost = 3;
    if (part.pinned) return;
    for (auto &perch : perchesFor(build, part, *build.types)) {
        if (finding.fixes.size() >= kMost) break;
        Fix fix;
        fix.part = part.id;
        fix.perch = std::move(perch);
        finding.fixes.push_back(std::move(fix));
    }
}

} // namespace

void judgeHeld(const Build &build, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    // Without a frame there is nothing yet that could hold anything.
    const Frame &frame = *build.frame;
    if (!derived.world || (frame.plates.empty() && frame.arms.empty() && frame.standoffs.empty())) return;
    Holding holding(practice, derived);
    for (const int member : holding.looseMembers()) {
        Finding f;
        f.rule = RuleId::fitHeld;
        f.severity = Severity::stop;
        f.variant = "frame";
        f.subjects = {derived.owners[std::size_t(member)].id};
        f.margin = -1;
        out.push_back(std::move(f));
    }
    std::vector<Held> held(build.parts.size());
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        const Part &part = build.parts[i];
        held[i].byStack = stackPlaceOf(build, part).has_value();
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
    std::vector<bool> said(derived.owners.size(), false); // their own finding tells why
    const Aabb craft = frameBounds(frame);
    std::size_t offered = 0;
    auto find = [&](std::size_t i, const char *variant) -> Finding & {
        Finding f;
        f.rule = RuleId::fitHeld;
        f.severity = Severity::stop;
        f.variant = variant;
        f.subjects = {build.parts[i].id};
        f.unit = "mm";
        f.margin = -1;
        constexpr std::size_t kTried = 4; // looking for places takes time; the rest get theirs when these are held
        if (offered++ < kTried) offerPlaces(build, build.parts[i], f);
        said[i] = true;
        out.push_back(std::move(f));
        return out.back();
    };
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        // By its middle: a pack of its own length over the edge is no farther than it was.
        const Vec3 at = framePose(build, build.parts[i]).position_mm;
        const double away_mm = boxGap(craft, Aabb{at, at});
        if (away_mm <= kFarFromFrame_mm) continue;
        Finding &f = find(i, "far");
        constexpr double kMetre_mm = 1000;
        f.unit = "m";
        f.measured = away_mm / kMetre_mm;
        f.limit = kFarFromFrame_mm / kMetre_mm;
        f.margin = *f.limit - *f.measured;
        f.to_mm = at;
    }
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        if (said[i] || held[i].byStack || holding.anchored(int(i)) || !held[i].touching.empty()) continue;
        if (held[i].named.empty()) {
            find(i, "nothing");
            continue;
        }
        Finding &f = find(i, "apart");
        int nearest = held[i].named.front();
        for (const int other : held[i].named)
            if (holding.gap_mm(int(i), other) < holding.gap_mm(int(i), nearest)) nearest = other;
        f.subjects.push_back(derived.owners[std::size_t(nearest)].id);
        f.measured = holding.gap_mm(int(i), nearest);
        f.limit = practice[Limit::heldGap];
        f.practiceLimit = Limit::heldGap;
        f.margin = *f.limit - *f.measured;
        f.inputs = {{"gap", *f.measured, "mm"}, {"still counts as touching", *f.limit, "mm"}};
    }
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        if (said[i] || held[i].byStack || holding.anchored(int(i)) || held[i].touching.empty()) continue;
        if (std::any_of(held[i].touching.begin(), held[i].touching.end(), [&](int o) { return said[std::size_t(o)]; }))
            continue;
        find(i, "island").subjects.push_back(derived.owners[std::size_t(held[i].touching.front())].id);
    }
}

FindingText wordHeld(const Build &build, const Finding &f) {
    const std::string name = displayName(build, f.subjects[0]);
    if (f.variant == "frame")
        return {{"{0} hangs in the air: nothing joins it to the arms", {name}},
                {"Posts, bobbins or arms must reach it; add standoffs or move it onto them in Frame.", {}}};
    std::string where;
    if (!f.fixes.empty() && f.fixes.front().perch)
        where =
            std::string(perchWord(f.fixes.front().perch->kind)) + " " + nameWithin(build, f.fixes.front().perch->on);
    if (f.variant == "far")
        return {{"{0} lies {1} m away from the frame", {name, oneDecimal(*f.measured)}},
                {"Wires are led there straight, and little else is judged. Move it back, or take it out.", {}}};
    if (f.variant == "nothing") {
        if (where.empty())
            return {{"Nothing holds {0}", {name}}, {"Say in the inspector how it is held, and by what.", {}}};
        return {{"Nothing holds {0}", {name}}, {"It could sit {0}; or say in the inspector how it is held.", {where}}};
    }
    const std::string other = nameWithin(build, f.subjects[1]);
    if (f.variant == "island")
        return {{"{0} hangs on {1}, and nothing holds that", {name, other}},
                {"One of them must be fastened to the frame.", {}}};
    const std::string away = oneDecimal(*f.measured);
    if (where.empty())
        return {{"{0} does not touch {1}, which should hold it: {2} mm apart", {name, other, away}},
                {"Move it there, or name what really holds it.", {}}};
    return {{"{0} does not touch {1}, which should hold it: {2} mm apart", {name, other, away}},
            {"It could sit {0}; or move it there, or name what really holds it.", {where}}};
}

} // namespace waxis
