#include "core/sequence/blocking.h"

#include "core/base/units.h"
#include "core/build/chain.h"
#include "core/build/frame_screws.h"

#include <algorithm>

namespace waxis {

namespace {

/// As what the memory knows a tool.
constexpr int kRoundTool = -1, kSocket = -2, kJaws = -3;

} // namespace

BlockingGraph::BlockingGraph(const Build &build, const Scene &scene, const Practice &practice, int loadCase,
                             SweepMemory *memory)
    : scene_(scene), memory_(memory), driverAcross_mm_(practice[Limit::driverAcross]),
      driverLength_mm_(practice[Limit::driverLength]), sweeps_(scene.world->bodies()),
      things_(thingsOf(build, scene, loadCase)), bodiesOf_(things_.size()), heads_(things_.size()),
      nuts_(things_.size()), bounds_(things_.size()), standing_(things_.size()), known_(things_.size()),
      tools_(things_.size()) {
    std::vector<int> thingOf(scene.owners.size(), -1);
    for (std::size_t t = 0; t < things_.size(); ++t) {
        thingOf[std::size_t(things_[t].owner)] = int(t);
        byId_.emplace(things_[t].id, int(t));
    }
    Aabb craft;
    for (std::size_t b = 0; b < scene.traits.size(); ++b)
        if (const int t = thingOf[std::size_t(scene.traits[b].owner)]; t >= 0) {
            bodiesOf_[std::size_t(t)].push_back(int(b));
            bounds_[std::size_t(t)].include(sweeps_.boundsOf(int(b)));
            craft.include(sweeps_.boundsOf(int(b)));
        }
    findHeads(build);
    constexpr double kRound_mm = 50; // a small move elsewhere asks no other question
    clear_mm_ = craft.empty() ? 0 : std::ceil(craft.size_mm().norm() / kRound_mm) * kRound_mm;
    if (memory_) recall();
    if (const Plate *base = basePlate(*build.frame)) base_ = find(base->id);
}

void BlockingGraph::recall() {
    const auto &bodies = scene_.world->bodies();
    for (std::size_t t = 0; t < things_.size(); ++t) {
        std::vector<Body> own;
        std::string firm;
        for (const int body : bodiesOf_[t]) {
            own.push_back(bodies[std::size_t(body)]);
            firm += holdsBack(body) ? '1' : '0';
        }
        if (heads_[t]) own.push_back(*heads_[t]);
        states_.push_back(memory_->stateOf(things_[t].id, std::move(own), firm));
    }
}

bool BlockingGraph::swept(int thing, const Vec3 &way_mm, int other) const {
    const auto ask = [&] {
        const auto &theirs = bodiesOf_[std::size_t(other)];
        return std::any_of(theirs.begin(), theirs.end(),
                           [&](int body) { return holdsBack(body) && meets(thing, way_mm, body); });
    };
    if (!memory_) return ask();
    SweepMemory::Question question{states_[std::size_t(thing)], states_[std::size_t(other)], {}};
    std::copy_n(way_mm.data(), 3, question.how.begin());
    return memory_->meets(question, ask);
}

int BlockingGraph::find(const std::string &id) const {
    const auto at = byId_.find(id);
    return at == byId_.end() ? -1 : at->second;
}

bool BlockingGraph::holdsBack(int body) const {
    const BodyTraits &traits = scene_.traits[std::size_t(body)];
    return !traits.soft && !scene_.owners[std::size_t(traits.owner)].flexible;
}

bool BlockingGraph::meets(int thing, const Vec3 &way_mm, int body) const {
    if (const auto &head = heads_[std::size_t(thing)]) return sweeps_.meets(*head, way_mm, body);
    const auto &own = bodiesOf_[std::size_t(thing)];
    return std::any_of(own.begin(), own.end(), [&](int mine) { return sweeps_.meets(mine, way_mm, body); });
}

/// A countersunk head has no body of its own; every head is a disc just outside of the face that it lies on.
void BlockingGraph::findHeads(const Build &build) {
    constexpr double kDisc_mm = 0.5, kOff_mm = 0.05, kUpright = 0.999;
    for (std::size_t t = 0; t < things_.size(); ++t)
        if (const Part *part = things_[t].held ? findPart(build, things_[t].id) : nullptr;
            part && std::abs((framePose(build, *part).rotation * Vec3::UnitZ()).z()) > kUpright)
            nuts_[t] = bounds_[t];
    const Brackets brackets = bracketsOf(build);
    for (const auto &screw : build.frame->screws) {
        const int thing = find(screw.id);
        const ThreadSize *thread = findThread(screw.thread);
        if (thing < 0 || !thread) continue;
        const ScrewColumn column = columnOf(*build.frame, screw, brackets);
        const double across_mm = headOf(*thread, screw.head).value_or(HeadSize{thread->capHead_mm, 0}).diameter_mm;
        Body head;
        head.shape = Cylinder{across_mm, kDisc_mm};
        head.X_FrameBody.position_mm = {screw.at_mm.x(), screw.at_mm.y(),
                                        column.headFace_mm - column.up * (kOff_mm + kDisc_mm / 2)};
        bounds_[std::size_t(thing)].include(boundsOf(head.shape, head.X_FrameBody));
        heads_[std::size_t(thing)] = std::move(head);
        if (const auto bodies = bodiesOf(*build.frame, screw, brackets);
            screw.into.empty() && screw.nut != FastenerForm::pressNut && !bodies.empty()) {
            things_[std::size_t(thing)].held = true;
            nuts_[std::size_t(thing)] = boundsOf(bodies.back().first, bodies.back().second);
        }
    }
}

const std::vector<bool> &BlockingGraph::standingIn(int thing) {
    auto &standing = standing_[std::size_t(thing)];
    if (!standing.empty()) return standing;
    standing.assign(things_.size(), false);
    for (std::size_t other = 0; other < things_.size(); ++other) {
        if (int(other) == thing || boxGap(bounds_[std::size_t(thing)], bounds_[other]) > 0) continue;
        standing[other] = swept(thing, Vec3::Zero(), int(other));
    }
    return standing;
}

const std::vector<int> &BlockingGraph::inTheWay(int thing, const Vec3 &direction) {
    auto &known = known_[std::size_t(thing)];
    constexpr double kSame = 1e-9;
    for (const auto &[way, blockers] : known)
        if ((way - direction).squaredNorm() < kSame) return blockers;
    const auto &standing = standingIn(thing);
    const Vec3 way_mm = clear_mm_ * direction;
    Aabb swept = bounds_[std::size_t(thing)];
    swept.include(Aabb{swept.min_mm + way_mm, swept.max_mm + way_mm});
    std::vector<int> blockers;
    for (std::size_t other = 0; other < things_.size(); ++other) {
        if (int(other) == thing || standing[other] || boxGap(swept, bounds_[other]) > 0) continue;
        if (this->swept(thing, way_mm, int(other))) blockers.push_back(int(other));
    }
    known.emplace_back(direction, std::move(blockers));
    return known.back().second;
}

std::vector<int> BlockingGraph::meetsTool(int kind, const Body &tip, const Vec3 &way_mm, double across_mm,
                                          int but) const {
    Aabb swept = boundsOf(tip.shape, tip.X_FrameBody);
    swept.include(Aabb{swept.min_mm + way_mm, swept.max_mm + way_mm});
    SweepMemory::Question question{kind, 0, {}};
    std::copy_n(tip.X_FrameBody.position_mm.data(), 3, question.how.begin());
    std::copy_n(way_mm.data(), 3, question.how.begin() + 3);
    question.how[6] = across_mm;
    std::vector<int> blockers;
    for (std::size_t other = 0; other < things_.size(); ++other) {
        if (int(other) == but || boxGap(swept, bounds_[other]) > 0) continue;
        const auto ask = [&] {
            return std::any_of(bodiesOf_[other].begin(), bodiesOf_[other].end(),
                               [&](int theirs) { return holdsBack(theirs) && sweeps_.meets(tip, way_mm, theirs); });
        };
        question.other = memory_ ? states_[other] : 0;
        if (memory_ ? memory_->meets(question, ask) : ask()) blockers.push_back(int(other));
    }
    return blockers;
}

std::vector<int> BlockingGraph::beforeTool(const Vec3 &at_mm, const Vec3 &way_mm, double across_mm, int but) const {
    Body tip;
    tip.shape = Sphere{across_mm};
    tip.X_FrameBody.position_mm = at_mm;
    return meetsTool(kRoundTool, tip, way_mm, across_mm, but);
}

std::vector<int> BlockingGraph::within(const Body &box, int but) const {
    const Aabb bounds = boundsOf(box.shape, box.X_FrameBody);
    std::vector<int> found;
    for (std::size_t other = 0; other < things_.size(); ++other) {
        if (int(other) == but || boxGap(bounds, bounds_[other]) > 0) continue;
        if (std::any_of(bodiesOf_[other].begin(), bodiesOf_[other].end(),
                        [&](int theirs) { return holdsBack(theirs) && sweeps_.meets(box, Vec3::Zero(), theirs); }))
            found.push_back(int(other));
    }
    return found;
}

double BlockingGraph::distanceTo(int thing, const Vec3 &at_mm) const {
    const Aabb &box = bounds_[std::size_t(thing)];
    if (box.empty()) return 1e300;
    return (at_mm - at_mm.cwiseMax(box.min_mm).cwiseMin(box.max_mm)).norm();
}

std::vector<int> BlockingGraph::beforeDriver(int thing) const {
    const Thing &screw = things_[std::size_t(thing)];
    // Off the outermost end of the head, so that what the head lies on is not before it.
    const Vec3 out = screw.ways.front();
    const Aabb &box = bounds_[std::size_t(thing)];
    const Vec3 middle = (box.min_mm + box.max_mm) / 2;
    const double reach_mm = (out.cwiseAbs().dot(box.size_mm()) + driverAcross_mm_) / 2;
    constexpr double kOff_mm = 0.3;
    const Vec3 tip = middle + out * (reach_mm + kOff_mm);
    auto before = beforeTool(tip, out * driverLength_mm_, driverAcross_mm_, thing);
    // What it holds itself lies round its head: counterbores and pockets are no obstacle.
    std::erase_if(before, [&](int other) {
        return std::find(screw.restsOn.begin(), screw.restsOn.end(), other) != screw.restsOn.end();
    });
    return before;
}

std::vector<std::vector<int>> BlockingGraph::beforeSpanners(int thing, const Aabb &nut) {
    // Common practice, no source: a socket's wall, a spanner's length, its jaws beside the nut.
    constexpr double kWall_mm = 1.5, kLong_mm = 60, kOff_mm = 0.3, kThinner = 0.8, kJaw = 1.6;
    const Vec3 middle = (nut.min_mm + nut.max_mm) / 2, size = nut.size_mm();
    const double across_mm = std::min(size.x(), size.y());
    const auto &standing = standingIn(thing);
    const auto &restsOn = things_[std::size_t(thing)].restsOn;
    // The screw that it turns onto passes it, whether or not it is drawn with a hole.
    const auto isItsScrew = [&](int other) {
        const Aabb &box = bounds_[std::size_t(other)];
        const Vec3 off = (box.min_mm + box.max_mm) / 2 - middle;
        return things_[std::size_t(other)].turned && off.head<2>().norm() < across_mm / 4;
    };
    std::vector<std::vector<int>> ways;
    const auto add = [&](int kind, const Body &tip, const Vec3 &way_mm, bool pastItsSeat) {
        constexpr double kApart = 1000; // two sizes in one number
        auto before = meetsTool(kind, tip, way_mm, across_mm + kApart * size.z(), thing);
        std::erase_if(before, [&](int other) {
            return standing[std::size_t(other)] || isItsScrew(other) ||
                   (pastItsSeat && std::find(restsOn.begin(), restsOn.end(), other) != restsOn.end());
        });
        ways.push_back(std::move(before));
    };
    for (const double side : {1.0, -1.0}) {
        Body socket;
        socket.shape = Cylinder{across_mm + 2 * kWall_mm, 1};
        socket.X_FrameBody.position_mm = middle + Vec3(0, 0, side * (size.z() / 2 + 0.5 + kOff_mm));
        add(kSocket, socket, Vec3(0, 0, side * kLong_mm), false);
    }
    for (int k = 0; k < 8; ++k) {
        const double angle = k * kPi / 4;
        const Vec3 out(std::cos(angle), std::sin(angle), 0);
        Body jaws;
        jaws.shape = Box{Vec3(1, kJaw * across_mm, kThinner * size.z())};
        jaws.X_FrameBody = {middle, Quat(Eigen::AngleAxisd(angle, Vec3::UnitZ()))};
        add(kJaws, jaws, out * kLong_mm, true);
    }
    return ways;
}

const std::vector<std::vector<int>> &BlockingGraph::beforeTheTools(int thing) {
    auto &known = tools_[std::size_t(thing)];
    if (known) return *known;
    known.emplace();
    const Thing &it = things_[std::size_t(thing)];
    const auto &nut = nuts_[std::size_t(thing)];
    if (it.turned && !it.ways.empty()) known->push_back(beforeDriver(thing));
    if (!nut) return *known;
    auto ways = beforeSpanners(thing, *nut);
    if (!known->empty())
        for (auto &way : ways) {
            way.insert(way.end(), known->front().begin(), known->front().end());
            std::sort(way.begin(), way.end());
            way.erase(std::unique(way.begin(), way.end()), way.end());
        }
    // One that asks for no more than another is enough.
    std::stable_sort(ways.begin(), ways.end(), [](const auto &a, const auto &b) { return a.size() < b.size(); });
    if (ways.front().empty()) ways.resize(1);
    *known = std::move(ways);
    return *known;
}

const std::vector<int> *BlockingGraph::fewestBeforeTools(int thing, const std::vector<bool> &counts) {
    const auto &ways = beforeTheTools(thing);
    const auto counted = [&](const std::vector<int> &way) {
        return std::count_if(way.begin(), way.end(), [&](int other) { return bool(counts[std::size_t(other)]); });
    };
    const auto best = std::min_element(ways.begin(), ways.end(),
                                       [&](const auto &a, const auto &b) { return counted(a) < counted(b); });
    return best == ways.end() ? nullptr : &*best;
}

} // namespace waxis
