// A convex body carried along a way covers what its farthest points cover: support(d) of it is the body's own and the
// whole way where that leads towards d. The distance of two convex shapes needs no more.
#include "core/clearance/sweep.h"

#include "core/clearance/narrow.h"

namespace waxis {

using clearance::Convex;

struct Sweeps::Impl {
    std::vector<Body> bodies;
    std::vector<clearance::SharedPieces> pieces;
    std::vector<Aabb> bounds;               ///< in the frame's axes
    std::vector<std::vector<Aabb>> ofPiece; ///< in the frame's axes; empty for a convex body
};

namespace {

Aabb swept(Aabb box, const Vec3 &way_mm) {
    Aabb end = box;
    end.min_mm += way_mm;
    end.max_mm += way_mm;
    box.include(end);
    return box;
}

} // namespace

Sweeps::Sweeps(const std::vector<Body> &bodies) : impl_(std::make_unique<Impl>()) {
    impl_->bodies = bodies;
    for (const auto &body : impl_->bodies) {
        impl_->pieces.push_back(clearance::piecesOf(body.shape));
        impl_->bounds.push_back(waxis::boundsOf(body.shape, body.X_FrameBody));
        std::vector<Aabb> own;
        for (const auto &wedge : impl_->pieces.back()->wedges) own.push_back(waxis::boundsOf(wedge, body.X_FrameBody));
        impl_->ofPiece.push_back(std::move(own));
    }
}

Sweeps::~Sweeps() = default;
Sweeps::Sweeps(Sweeps &&) noexcept = default;
Sweeps &Sweeps::operator=(Sweeps &&) noexcept = default;

const Aabb &Sweeps::boundsOf(int body) const { return impl_->bounds[std::size_t(body)]; }

/// One convex piece on its way against all pieces of a body.
static bool pieceMeets(const Convex &mover, const Aabb &way, const Body &other, const clearance::Pieces &pieces,
                       const std::vector<Aabb> &bounds) {
    if (pieces.wedges.empty())
        return !(clearance::convexDistance(mover, Convex(other.shape, other.X_FrameBody), 0.0).distance_mm > 0);
    for (std::size_t i = 0; i < pieces.wedges.size(); ++i)
        if (boxGap(way, bounds[i]) <= 0 &&
            !(clearance::convexDistance(mover, Convex(pieces.wedges[i], other.X_FrameBody), 0.0).distance_mm > 0))
            return true;
    return false;
}

bool Sweeps::meets(int mover, const Vec3 &way_mm, int other) const {
    const auto m = std::size_t(mover), o = std::size_t(other);
    if (boxGap(swept(impl_->bounds[m], way_mm), impl_->bounds[o]) > 0) return false;
    const Body &body = impl_->bodies[m];
    const auto &own = impl_->pieces[m]->wedges;
    if (own.empty())
        return pieceMeets(Convex(body.shape, body.X_FrameBody).shrunk(kSnug_mm, kMostSnug).swept(way_mm),
                          swept(impl_->bounds[m], way_mm), impl_->bodies[o], *impl_->pieces[o], impl_->ofPiece[o]);
    for (std::size_t i = 0; i < own.size(); ++i) {
        const Aabb way = swept(impl_->ofPiece[m][i], way_mm);
        if (boxGap(way, impl_->bounds[o]) > 0) continue;
        if (pieceMeets(Convex(own[i], body.X_FrameBody).shrunk(kSnug_mm, kMostSnug).swept(way_mm), way,
                       impl_->bodies[o], *impl_->pieces[o], impl_->ofPiece[o]))
            return true;
    }
    return false;
}

bool Sweeps::meets(const Body &mover, const Vec3 &way_mm, int other) const {
    const auto o = std::size_t(other);
    const Aabb way = swept(waxis::boundsOf(mover.shape, mover.X_FrameBody), way_mm);
    return boxGap(way, impl_->bounds[o]) <= 0 && pieceMeets(Convex(mover.shape, mover.X_FrameBody).swept(way_mm), way,
                                                            impl_->bodies[o], *impl_->pieces[o], impl_->ofPiece[o]);
}

} // namespace waxis
