#include "core/clearance/clearance_world.h"

#include "core/clearance/narrow.h"

#include <algorithm>
#include <fcl/broadphase/broadphase_dynamic_AABB_tree.h>
#include <fcl/geometry/shape/sphere.h>

namespace waxis {

using namespace clearance;

namespace {

class Collidable : public fcl::CollisionObjectd {
public:
    Collidable(const Aabb &bounds, int bodyIndex, double reach_mm)
        : fcl::CollisionObjectd(std::make_shared<fcl::Sphered>(1.0)), index(bodyIndex) {
        place(bounds, reach_mm);
    }
    /// The tree looks at the box only: the geometry behind it is a stand-in.
    void place(const Aabb &bounds, double reach_mm) {
        aabb.min_ = bounds.min_mm.array() - reach_mm;
        aabb.max_ = bounds.max_mm.array() + reach_mm;
    }
    int index;
};

/// The shortest move of `a` along an axis after which the boxes only touch; they meet.
Vec3 outOfBox(const Aabb &a, const Aabb &b) {
    Vec3 best = Vec3::Constant(1e300);
    double least = 1e300;
    for (int axis = 0; axis < 3; ++axis)
        for (const double way : {b.max_mm[axis] - a.min_mm[axis], b.min_mm[axis] - a.max_mm[axis]}) {
            if (std::abs(way) >= least) continue;
            least = std::abs(way);
            best = Vec3::Zero();
            best[axis] = way;
        }
    return best;
}

} // namespace

struct ClearanceWorld::Impl {
    std::vector<Body> bodies;
    std::vector<Aabb> bounds;
    std::vector<SharedPieces> pieces;
    std::vector<std::unique_ptr<Collidable>> objects;
    fcl::DynamicAABBTreeCollisionManagerd tree;
    std::vector<BodyGap> gaps;
    Interest interest;

    void consider(int first, int second) {
        const int a = std::min(first, second), b = std::max(first, second);
        if (bodies[a].owner == bodies[b].owner) return;
        const PairInterest wanted = interest(a, b);
        if (!wanted.look || boxGap(bounds[a], bounds[b]) > wanted.within_mm) return;
        BodyGap gap = distanceBetween(bodies[a], *pieces[a], bodies[b], *pieces[b], wanted.within_mm);
        if (gap.distance_mm > wanted.within_mm) return;
        gap.a = a;
        gap.b = b;
        if (wanted.overlap && gap.distance_mm <= 0) {
            gap.freeingMove_mm = outOfBox(bounds[a], bounds[b]);
            // What hardly stands in one another's boxes stands no deeper in one another: most that touch are that.
            constexpr double kTouching_mm = 1e-6;
            if (gap.freeingMove_mm.norm() > kTouching_mm)
                gap.freeingMove_mm = shortestWayOut(bodies[a], *pieces[a], bodies[b], *pieces[b]);
            gap.depth_mm = gap.freeingMove_mm.norm();
        }
        gaps.push_back(gap);
    }

    /// After these bodies changed.
    void remeasure(const std::vector<int> &changed);

    void sortGaps() {
        std::sort(gaps.begin(), gaps.end(),
                  [](const BodyGap &x, const BodyGap &y) { return x.a != y.a ? x.a < y.a : x.b < y.b; });
    }
};

ClearanceWorld::ClearanceWorld() : impl_(std::make_unique<Impl>()) {}
ClearanceWorld::~ClearanceWorld() = default;
ClearanceWorld::ClearanceWorld(ClearanceWorld &&) noexcept = default;
ClearanceWorld &ClearanceWorld::operator=(ClearanceWorld &&) noexcept = default;

const std::vector<Body> &ClearanceWorld::bodies() const { return impl_->bodies; }
const std::vector<BodyGap> &ClearanceWorld::gaps() const { return impl_->gaps; }

void ClearanceWorld::reset(std::vector<Body> bodies, Interest interest) {
    // Shapes that did not change keep their FCL geometry: building a plate's mesh takes longer than measuring
    // against it.
    std::vector<SharedPieces> kept(bodies.size());
    for (std::size_t i = 0; i < bodies.size() && i < impl_->bodies.size(); ++i)
        if (impl_->bodies[i].shape == bodies[i].shape) kept[i] = impl_->pieces[i];
    auto next = std::make_unique<Impl>();
    next->bodies = std::move(bodies);
    next->interest = std::move(interest);
    next->pieces = std::move(kept);
    std::vector<fcl::CollisionObjectd *> all;
    for (std::size_t i = 0; i < next->bodies.size(); ++i) {
        const Body &body = next->bodies[i];
        if (!next->pieces[i]) next->pieces[i] = piecesOf(body.shape);
        next->bounds.push_back(boundsOf(body.shape, body.X_FrameBody));
        next->objects.push_back(std::make_unique<Collidable>(next->bounds[i], int(i), body.reach_mm));
        all.push_back(next->objects.back().get());
    }
    impl_ = std::move(next);
    if (all.empty()) return;
    impl_->tree.registerObjects(all);
    impl_->tree.setup();
    impl_->tree.collide(impl_.get(), [](fcl::CollisionObjectd *x, fcl::CollisionObjectd *y, void *self) {
        static_cast<Impl *>(self)->consider(static_cast<Collidable *>(x)->index, static_cast<Collidable *>(y)->index);
        return false;
    });
    impl_->sortGaps();
}

void ClearanceWorld::Impl::remeasure(const std::vector<int> &changed) {
    std::vector<bool> anew(bodies.size(), false);
    for (const int i : changed) anew[std::size_t(i)] = true;
    std::erase_if(gaps, [&](const BodyGap &gap) { return anew[std::size_t(gap.a)] || anew[std::size_t(gap.b)]; });
    for (const int i : changed) {
        bounds[std::size_t(i)] = boundsOf(bodies[std::size_t(i)].shape, bodies[std::size_t(i)].X_FrameBody);
        objects[std::size_t(i)]->place(bounds[std::size_t(i)], bodies[std::size_t(i)].reach_mm);
        tree.update(objects[std::size_t(i)].get());
    }
    struct Query {
        Impl *world;
        const Collidable *self;
        const std::vector<bool> *anew;
    };
    for (const int i : changed) {
        Query query{this, objects[std::size_t(i)].get(), &anew};
        tree.collide(
            objects[std::size_t(i)].get(), &query, [](fcl::CollisionObjectd *x, fcl::CollisionObjectd *y, void *data) {
                auto *q = static_cast<Query *>(data);
                auto *other = static_cast<Collidable *>(x == q->self ? y : x);
                // Of two that changed the second one asks.
                if (other != q->self && !((*q->anew)[std::size_t(other->index)] && other->index > q->self->index))
                    q->world->consider(q->self->index, other->index);
                return false;
            });
    }
    sortGaps();
}

void ClearanceWorld::renew(std::vector<Body> bodies, Interest interest, const std::vector<bool> &anew) {
    auto &w = *impl_;
    w.interest = std::move(interest);
    std::vector<int> changed;
    for (std::size_t i = 0; i < bodies.size(); ++i) {
        const bool sameShape = bodies[i].shape == w.bodies[i].shape;
        if (sameShape && bodies[i].X_FrameBody == w.bodies[i].X_FrameBody && !anew[std::size_t(bodies[i].owner)] &&
            bodies[i].reach_mm == w.bodies[i].reach_mm) // the very same, or it has changed
            continue;
        if (!sameShape) w.pieces[i] = piecesOf(bodies[i].shape);
        w.bodies[i] = std::move(bodies[i]);
        changed.push_back(int(i));
    }
    if (!changed.empty()) w.remeasure(changed);
}

void ClearanceWorld::move(int owner, const std::vector<Pose> &X_FrameBody) {
    auto &w = *impl_;
    std::vector<int> moved;
    for (std::size_t i = 0; i < w.bodies.size(); ++i)
        if (w.bodies[i].owner == owner) moved.push_back(int(i));
    if (moved.size() > X_FrameBody.size()) moved.resize(X_FrameBody.size());
    for (std::size_t k = 0; k < moved.size(); ++k) w.bodies[std::size_t(moved[k])].X_FrameBody = X_FrameBody[k];
    w.remeasure(moved);
}

const Aabb &ClearanceWorld::boundsOfBody(int body) const { return impl_->bounds[std::size_t(body)]; }

BodyGap ClearanceWorld::measure(int a, int b) const {
    BodyGap gap = distanceBetween(impl_->bodies[a], *impl_->pieces[a], impl_->bodies[b], *impl_->pieces[b]);
    gap.a = a;
    gap.b = b;
    return gap;
}

bool ClearanceWorld::wouldTouch(int a, const Vec3 &shift_mm, int b) const {
    Aabb room = impl_->bounds[std::size_t(a)];
    room.min_mm += shift_mm;
    room.max_mm += shift_mm;
    if (boxGap(room, impl_->bounds[std::size_t(b)]) > 0) return false;
    Body moved = impl_->bodies[std::size_t(a)];
    moved.X_FrameBody.position_mm += shift_mm;
    constexpr double kTouch_mm = 1e-6;
    return distanceBetween(moved, *impl_->pieces[std::size_t(a)], impl_->bodies[std::size_t(b)],
                           *impl_->pieces[std::size_t(b)], kTouch_mm)
               .distance_mm <= 0;
}

std::vector<BodyGap> ClearanceWorld::nearest(int owner, double reach_mm, std::size_t most,
                                             const std::function<bool(int)> &allowed) const {
    struct Candidate {
        int own, other;
        double boxGap_mm;
    };
    std::vector<Candidate> candidates;
    const int count = int(impl_->bodies.size());
    for (int i = 0; i < count; ++i) {
        if (impl_->bodies[i].owner != owner) continue;
        for (int j = 0; j < count; ++j)
            if (impl_->bodies[j].owner != owner && allowed(j))
                if (const double gap = boxGap(impl_->bounds[i], impl_->bounds[j]); gap <= reach_mm)
                    candidates.push_back({i, j, gap});
    }
    std::sort(candidates.begin(), candidates.end(),
              [](const Candidate &x, const Candidate &y) { return x.boxGap_mm < y.boxGap_mm; });
    std::vector<BodyGap> best; // nearest per owner, sorted
    for (const auto &candidate : candidates) {
        // Boxes only grow apart from here on: nothing nearer can follow.
        if (best.size() >= most && candidate.boxGap_mm > best[most - 1].distance_mm) break;
        BodyGap gap = measure(candidate.own, candidate.other);
        if (gap.distance_mm > reach_mm) continue;
        const int other = impl_->bodies[candidate.other].owner;
        const auto same =
            std::find_if(best.begin(), best.end(), [&](const BodyGap &g) { return impl_->bodies[g.b].owner == other; });
        if (same == best.end())
            best.push_back(gap);
        else if (gap.distance_mm < same->distance_mm)
            *same = gap;
        std::sort(best.begin(), best.end(),
                  [](const BodyGap &x, const BodyGap &y) { return x.distance_mm < y.distance_mm; });
    }
    if (best.size() > most) best.resize(most);
    return best;
}

BodyGap measureGap(const Body &a, const Body &b) {
    const auto ga = piecesOf(a.shape), gb = piecesOf(b.shape);
    BodyGap gap = distanceBetween(a, *ga, b, *gb);
    if (gap.distance_mm <= 0) {
        gap.freeingMove_mm = shortestWayOut(a, *ga, b, *gb);
        gap.depth_mm = gap.freeingMove_mm.norm();
    }
    return gap;
}

Vec3 freeingMove(const Body &a, const Body &b) { return measureGap(a, b).freeingMove_mm; }

} // namespace waxis
