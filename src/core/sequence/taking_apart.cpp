#include "core/sequence/taking_apart.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>
#include <tuple>

namespace waxis {

namespace {

class TakingApart {
public:
    explicit TakingApart(BlockingGraph &graph)
        : graph_(graph), things_(graph.things()), there_(things_.size(), true), ridersOf_(things_.size()) {
        for (std::size_t t = 0; t < things_.size(); ++t)
            for (const int below : things_[t].restsOn) ridersOf_[std::size_t(below)].push_back(int(t));
    }

    PutTogether run() {
        for (left_ = things_.size(); left_ > 0;) {
            auto next = left_ == 1 ? last() : freeThing();
            if (!next) next = freeGroup();
            if (!next) next = freeThing(false);
            if (!next) next = leastBlocked();
            take(*next);
        }
        std::reverse(result_.order.begin(), result_.order.end());
        return std::move(result_);
    }

private:
    std::vector<int> blockers(int thing, const Vec3 &way, const std::vector<int> &with = {}) {
        std::vector<int> in;
        for (const int other : graph_.inTheWay(thing, way))
            if (there_[std::size_t(other)] && std::find(with.begin(), with.end(), other) == with.end())
                in.push_back(other);
        return in;
    }
    bool carriesNothing(int thing) const {
        return std::none_of(ridersOf_[std::size_t(thing)].begin(), ridersOf_[std::size_t(thing)].end(),
                            [&](int rider) { return there_[std::size_t(rider)]; });
    }
    PutIn last() const {
        PutIn base;
        for (std::size_t t = 0; t < things_.size(); ++t)
            if (there_[t]) base.things.push_back(int(t));
        base.first = true;
        return base;
    }
    /// How little it costs to go on with this one.
    auto costOf(const PutIn &put) const {
        const Thing &thing = things_[std::size_t(put.things.front())];
        const bool sideways = std::abs(put.from.z()) < 0.5; // hands come from above, or the craft is turned over
        if (result_.order.empty()) return std::tuple{!thing.atTheEnd, sideways, true, true, true, -put.things.front()};
        const PutIn &before = result_.order.back();
        const Thing &other = things_[std::size_t(before.things.front())];
        return std::tuple{!thing.atTheEnd,
                          sideways,
                          put.from.dot(before.from) < 0.9,
                          thing.fastener != other.fastener,
                          thing.restsOn != other.restsOn,
                          -put.things.front()};
    }
    std::vector<int> stillThere(const std::vector<int> &all) const {
        std::vector<int> there;
        for (const int other : all)
            if (there_[std::size_t(other)]) there.push_back(other);
        return there;
    }
    /// What is still there of what stands before its tools.
    std::vector<int> beforeTools(int thing) {
        const auto *way = graph_.fewestBeforeTools(thing, there_);
        return way ? stillThere(*way) : std::vector<int>();
    }
    std::optional<PutIn> freeThing(bool withDriver = true) {
        std::optional<PutIn> best;
        for (std::size_t t = 0; t < things_.size(); ++t) {
            if (!there_[t] || int(t) == graph_.base() || !carriesNothing(int(t))) continue;
            for (const Vec3 &way : things_[t].ways) {
                if (!blockers(int(t), way).empty()) continue;
                const auto undriven = beforeTools(int(t));
                if (withDriver && !undriven.empty()) continue;
                PutIn put{{int(t)}, way, false, {}, undriven};
                if (!best || costOf(put) < costOf(*best)) best = std::move(put);
            }
        }
        return best;
    }
    /// All that rests on a thing, and what rests on that.
    std::vector<int> assemblyOn(int thing) const {
        std::vector<int> members{thing};
        for (std::size_t k = 0; k < members.size(); ++k)
            for (const int rider : ridersOf_[std::size_t(members[k])])
                if (there_[std::size_t(rider)] && std::find(members.begin(), members.end(), rider) == members.end())
                    members.push_back(rider);
        return members;
    }
    /// A screw through what stays behind leaves along its axis, whatever comes with it.
    bool screwsAllow(const std::vector<int> &members, const Vec3 &way) {
        constexpr double kAlong = 0.999;
        return std::all_of(members.begin(), members.end(), [&](int member) {
            const Thing &thing = things_[std::size_t(member)];
            if (!(thing.turned || thing.held) || thing.ways.empty()) return true;
            const bool within = std::all_of(thing.restsOn.begin(), thing.restsOn.end(), [&](int below) {
                return !there_[std::size_t(below)] || std::find(members.begin(), members.end(), below) != members.end();
            });
            // It is turned in when the group is there: its driver needs room beside that, too.
            return within ||
                   (beforeTools(member).empty() && std::any_of(thing.ways.begin(), thing.ways.end(),
                                                               [&](const Vec3 &own) { return own.dot(way) > kAlong; }));
        });
    }
    std::optional<PutIn> freeGroup() {
        std::optional<PutIn> best;
        for (std::size_t t = 0; t < things_.size(); ++t) {
            if (!there_[t] || int(t) == graph_.base()) continue;
            const auto members = assemblyOn(int(t));
            if (members.size() < 2 || members.size() == left_ || (best && members.size() >= best->things.size()))
                continue;
            for (const Vec3 &way : things_[t].ways)
                if (screwsAllow(members, way) && std::all_of(members.begin(), members.end(), [&](int member) {
                        return blockers(member, way, members).empty();
                    })) {
                    best = PutIn{members, way, false, {}, {}};
                    break;
                }
        }
        return best;
    }
    PutIn leastBlocked() {
        PutIn best;
        std::size_t fewest = std::numeric_limits<std::size_t>::max();
        for (std::size_t t = 0; t < things_.size(); ++t) {
            if (!there_[t] || int(t) == graph_.base()) continue;
            std::vector<int> riders;
            for (const int rider : ridersOf_[t])
                if (there_[std::size_t(rider)]) riders.push_back(rider);
            for (const Vec3 &way : things_[t].ways) {
                auto in = blockers(int(t), way);
                in.insert(in.end(), riders.begin(), riders.end());
                if (in.size() >= fewest) continue;
                fewest = in.size();
                best = {{int(t)}, way, false, std::move(in), {}};
            }
        }
        return best;
    }
    void before(int first, int second, BeforeReason reason) {
        if (first != second && known_.emplace(first, second).second) result_.edges.push_back({first, second, reason});
    }
    void take(const PutIn &put) {
        for (const int thing : put.things) {
            for (const int rider : ridersOf_[std::size_t(thing)]) before(thing, rider, BeforeReason::rests);
            if (put.first) continue;
            // What was in its way has left: in the order of putting in it comes after.
            for (const int other : graph_.inTheWay(thing, put.from))
                if (!there_[std::size_t(other)]) before(thing, other, BeforeReason::inTheWay);
            if (const auto *way = graph_.fewestBeforeTools(thing, there_))
                for (const int other : *way)
                    if (!there_[std::size_t(other)]) before(thing, other, BeforeReason::tool);
        }
        for (const int thing : put.things) {
            there_[std::size_t(thing)] = false;
            --left_;
        }
        result_.order.push_back(put);
    }

    BlockingGraph &graph_;
    const std::vector<Thing> &things_;
    std::vector<bool> there_;
    std::vector<std::vector<int>> ridersOf_;
    std::size_t left_ = 0;
    std::set<std::pair<int, int>> known_; ///< ends of the edges
    PutTogether result_;
};

} // namespace

PutTogether putTogether(BlockingGraph &graph) { return TakingApart(graph).run(); }

} // namespace waxis
