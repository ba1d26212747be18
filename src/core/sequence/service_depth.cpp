#include "core/sequence/service_depth.h"

#include "core/pins/signal.h"

#include <algorithm>
#include <map>
#include <set>

namespace waxis {

namespace {

class TakingOff {
public:
    TakingOff(const Build &build, BlockingGraph &graph)
        : build_(build), graph_(graph), things_(graph.things()), ridersOf_(things_.size()), groups_(things_.size()) {
        for (std::size_t t = 0; t < things_.size(); ++t) {
            for (const int below : things_[t].restsOn) ridersOf_[std::size_t(below)].push_back(int(t));
            const Part *part = findPart(build, things_[t].id);
            const PartType *type = part ? typeOf(build, *part) : nullptr;
            // A nut holds what it lies on to a screw: it is taken off, it does not come along; packs go first.
            staysBehind_.push_back(type && (type->kind == PartKind::battery ||
                                            (type->fastener && type->fastener->form == FastenerForm::nut)));
        }
    }

    std::optional<ServiceWay> of(int thing) {
        std::vector<int> visiting;
        looks_ = 0;
        const auto heads = toTakeOff(thing, visiting);
        if (!heads) return std::nullopt;
        ServiceWay way;
        way.part = things_[std::size_t(thing)].id;
        std::set<int> left = *heads, gone;
        std::set<std::string> undone;
        while (!left.empty()) {
            // What another one took along is off already.
            std::erase_if(left, [&](int head) { return gone.contains(head); });
            if (left.empty()) break;
            const auto next = nextFree(left, gone, thing);
            if (!next) return std::nullopt;
            TakenOff off;
            off.way = next->second;
            off.fastener = things_[std::size_t(next->first)].fastener;
            for (const int member : groupOf(next->first))
                if (!gone.contains(member)) {
                    off.things.push_back(things_[std::size_t(member)].id);
                    gone.insert(member);
                }
            undo(off, undone);
            left.erase(next->first);
            if (!off.fastener && next->first != thing) ++way.depth;
            way.off.push_back(std::move(off));
        }
        return way;
    }

private:
    /// The thing with what rests on it and comes along; packs and nuts are taken off first, and what holds it to others
    /// is undone.
    const std::vector<int> &groupOf(int thing) {
        auto &members = groups_[std::size_t(thing)];
        if (!members.empty()) return members;
        members = {thing};
        for (std::size_t k = 0; k < members.size(); ++k)
            for (const int rider : ridersOf_[std::size_t(members[k])]) {
                if (staysBehind_[std::size_t(rider)] ||
                    std::find(members.begin(), members.end(), rider) != members.end())
                    continue;
                const auto &below = things_[std::size_t(rider)].restsOn;
                const bool whole = std::all_of(below.begin(), below.end(), [&](int b) {
                    return std::find(members.begin(), members.end(), b) != members.end();
                });
                if (whole) members.push_back(rider);
            }
        return members;
    }
    /// A way out, together with a way to hold the tools: the first few of them, which ask for least.
    std::size_t optionsOf(int thing) {
        constexpr std::size_t kTools = 3;
        const std::size_t tools = groupOf(thing).size() == 1 ? graph_.beforeTheTools(thing).size() : 0;
        return things_[std::size_t(thing)].ways.size() * std::clamp<std::size_t>(tools, 1, kTools);
    }
    const Vec3 &wayOf(int thing, std::size_t option) const {
        const auto &ways = things_[std::size_t(thing)].ways;
        return ways[option % ways.size()];
    }
    /// What has to go before the thing and its group can move along one of its ways.
    const std::vector<int> &first(int thing, std::size_t option) {
        auto [at, isNew] = firsts_.try_emplace({thing, option});
        if (!isNew) return at->second;
        const auto &group = groupOf(thing);
        const Vec3 &direction = wayOf(thing, option);
        std::set<int> all;
        for (const int member : group) {
            all.insert(ridersOf_[std::size_t(member)].begin(), ridersOf_[std::size_t(member)].end());
            const auto &in = graph_.inTheWay(member, direction);
            all.insert(in.begin(), in.end());
        }
        if (const auto &tools = graph_.beforeTheTools(thing); group.size() == 1 && !tools.empty()) {
            const auto &in = tools[option / things_[std::size_t(thing)].ways.size()];
            all.insert(in.begin(), in.end());
        }
        for (const int member : group) all.erase(member);
        return at->second = {all.begin(), all.end()};
    }
    std::optional<std::set<int>> toTakeOff(int thing, std::vector<int> &visiting) {
        constexpr std::size_t kDeepest = 6;
        constexpr int kMostLooks = 4000; // beyond nothing simple frees it
        if (++looks_ > kMostLooks) return std::nullopt;
        if (const auto known = known_.find(thing); known != known_.end() && visiting.empty()) return known->second;
        if (thing == graph_.base() || visiting.size() > kDeepest ||
            std::find(visiting.begin(), visiting.end(), thing) != visiting.end())
            return std::nullopt;
        visiting.push_back(thing);
        std::optional<std::set<int>> best;
        for (std::size_t way = 0; way < optionsOf(thing); ++way) {
            std::set<int> all{thing};
            bool possible = true;
            for (const int other : std::vector<int>(first(thing, way))) {
                if (all.contains(other)) continue;
                // What another one takes along need not be taken off by itself.
                const bool along = std::any_of(all.begin(), all.end(), [&](int head) {
                    const auto &members = groupOf(head);
                    return head != thing && std::find(members.begin(), members.end(), other) != members.end();
                });
                if (along) continue;
                const auto more = (best && all.size() >= best->size()) ? std::nullopt : toTakeOff(other, visiting);
                if (!more) {
                    possible = false;
                    break;
                }
                all.insert(more->begin(), more->end());
            }
            if (possible && (!best || all.size() < best->size())) best = std::move(all);
            if (best && best->size() == 1) break;
        }
        visiting.pop_back();
        if (visiting.empty()) known_[thing] = best;
        return best;
    }
    /// The part itself last, though it might be free before.
    std::optional<std::pair<int, Vec3>> nextFree(const std::set<int> &left, const std::set<int> &gone, int last) {
        for (const int head : left) {
            if (head == last && left.size() > 1) continue;
            for (std::size_t way = 0; way < optionsOf(head); ++way) {
                const auto &before = first(head, way);
                if (std::all_of(before.begin(), before.end(), [&](int other) { return gone.contains(other); }))
                    return std::pair(head, wayOf(head, way));
            }
        }
        return std::nullopt;
    }
    /// What joins it to what stays; once undone a wire hangs on one side and is no matter any more.
    void undo(TakenOff &off, std::set<std::string> &undone) const {
        auto has = [&](const std::string &id) {
            return std::find(off.things.begin(), off.things.end(), id) != off.things.end();
        };
        for (const auto &wire : build_.wires) {
            if (has(wire.from.part) == has(wire.to.part)) continue;
            if (graph_.find(wire.from.part) < 0 || graph_.find(wire.to.part) < 0 || !undone.insert(wire.id).second)
                continue;
            const Port *from = portOf(build_, wire.from), *to = portOf(build_, wire.to);
            const bool atFrom = from && from->kind != PortKind::pads && !(to && to->kind != PortKind::pads);
            const WireEnd &end = atFrom ? wire.from : wire.to;
            off.undo.push_back({wire.id, end.part, end.port});
        }
    }

    const Build &build_;
    BlockingGraph &graph_;
    const std::vector<Thing> &things_;
    std::vector<std::vector<int>> ridersOf_;
    std::vector<bool> staysBehind_;
    std::vector<std::vector<int>> groups_;                           ///< by thing; empty: not asked yet
    std::map<std::pair<int, std::size_t>, std::vector<int>> firsts_; ///< by thing and number of its way
    std::map<int, std::optional<std::set<int>>> known_;
    int looks_ = 0;
};

} // namespace

std::optional<ServiceWay> serviceOf(const Build &build, BlockingGraph &graph, const std::string &part) {
    const int thing = graph.find(part);
    return thing < 0 ? std::nullopt : TakingOff(build, graph).of(thing);
}

std::optional<ServiceWay> serviceOf(const Build &build, const Practice &practice, const Derived &derived, int loadCase,
                                    const std::string &part) {
    if (!derived.scene.world) return std::nullopt;
    BlockingGraph graph(build, derived.scene, practice, loadCase);
    return serviceOf(build, graph, part);
}

void addServiceRemarks(const Build &build, const Practice &practice, BlockingGraph &graph,
                       std::vector<PlanRemark> &remarks) {
    TakingOff taking(build, graph);
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        const int thing = graph.find(part.id);
        if (!type || thing < 0) continue;
        switch (type->kind) {
        case PartKind::propeller:
        case PartKind::antenna:
        case PartKind::battery:
        case PartKind::flightCamera:
        case PartKind::payloadCamera: break;
        default: continue;
        }
        const auto way = taking.of(thing);
        if (!way || way->depth <= practice[Limit::serviceDepth]) continue;
        PlanRemark remark;
        remark.kind = RemarkKind::service;
        remark.subjects = {part.id};
        for (const auto &off : way->off)
            if (!off.fastener && off.things.front() != part.id) remark.subjects.push_back(off.things.front());
        remark.value = way->depth;
        remarks.push_back(std::move(remark));
    }
}

} // namespace waxis
