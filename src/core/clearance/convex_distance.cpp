// v: the point of the simplex nearest to the origin of the Minkowski difference A - B; w: its farthest point along -v.
// |v| is never less than the distance, v.w/|v| never more: their difference bounds the error.
#include "core/clearance/convex_distance.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace waxis::clearance {

namespace {

struct Vertex {
    Vec3 w = Vec3::Zero(), onA = Vec3::Zero(), onB = Vec3::Zero(); ///< w = onA - onB
};

struct Simplex {
    std::array<Vertex, 4> vertex;
    int size = 0;
};

/// Some of a simplex's vertices, and how much of each makes up the face's nearest point to the origin.
struct Face {
    std::array<int, 4> index{};
    std::array<double, 4> share{};
    int size = 0;
    Vec3 nearest = Vec3::Zero();
};

/// The projection of the origin on the flat through the vertices named by `mask`; false where the flat is degenerate or
/// the projection lies outside the face: a smaller face then holds the nearest point.
bool projectOnFace(const Simplex &simplex, unsigned mask, Face &face) {
    face.size = 0;
    for (int i = 0; i < simplex.size; ++i)
        if (mask >> i & 1) face.index[face.size++] = i;
    const Vec3 &base = simplex.vertex[face.index[0]].w;
    auto edge = [&](int i) { return Vec3(simplex.vertex[face.index[i]].w - base); };
    constexpr double kFlat = 1e-12; // relative to the product of the edges' lengths
    double others = 0;
    if (face.size == 2) {
        const Vec3 e = edge(1);
        const double length2 = e.squaredNorm();
        if (!(length2 > 0)) return false;
        face.share[1] = -base.dot(e) / length2;
        others = face.share[1];
    } else if (face.size == 3) {
        const Vec3 e = edge(1), f = edge(2), normal = e.cross(f);
        const double area2 = normal.squaredNorm();
        if (!(area2 > kFlat * e.squaredNorm() * f.squaredNorm())) return false;
        face.share[1] = f.cross(base).dot(normal) / area2;
        face.share[2] = base.cross(e).dot(normal) / area2;
        others = face.share[1] + face.share[2];
    } else if (face.size == 4) {
        const Vec3 e = edge(1), f = edge(2), g = edge(3), across = f.cross(g);
        const double volume = e.dot(across);
        if (!(std::abs(volume) > kFlat * e.norm() * f.norm() * g.norm())) return false;
        face.share[1] = -base.dot(across) / volume;
        face.share[2] = e.dot(g.cross(base)) / volume;
        face.share[3] = e.dot(base.cross(f)) / volume;
        others = face.share[1] + face.share[2] + face.share[3];
    }
    face.share[0] = 1 - others;
    for (int i = 0; i < face.size; ++i)
        if (!(face.share[i] >= 0)) return false;
    face.nearest = Vec3::Zero();
    if (face.size < 4) // a tetrahedron that the origin lies in has it for its nearest point
        for (int i = 0; i < face.size; ++i) face.nearest += face.share[i] * simplex.vertex[face.index[i]].w;
    return true;
}

/// The face nearest to the origin among those that hold the last vertex (the others were searched before it came), when
/// it is nearer than `nearest2`.
bool reduce(const Simplex &simplex, double nearest2, Face &best) {
    bool better = false;
    Face face;
    const unsigned last = 1u << (simplex.size - 1);
    for (unsigned others = 0; others < last; ++others) {
        if (!projectOnFace(simplex, others | last, face)) continue;
        const double d2 = face.nearest.squaredNorm();
        if (d2 >= nearest2) continue;
        nearest2 = d2;
        best = face;
        better = true;
    }
    return better;
}

} // namespace

Convex::Convex(const Shape &shape, const Pose &X_FrameShape)
    : shape_(shape), R_FrameShape_(X_FrameShape.rotation.toRotationMatrix()), p_Frame_(X_FrameShape.position_mm) {
    if (const auto *sphere = std::get_if<Sphere>(&shape)) rind_mm_ = sphere->diameter_mm / 2;
}

Vec3 Convex::support(const Vec3 &direction) const {
    const Vec3 carried = way_mm_.dot(direction) > 0 ? way_mm_ : Vec3(Vec3::Zero());
    if (rind_mm_ > 0) return p_Frame_ + carried;
    // The farthest point of a shape drawn out along its axes is that of the shape along the direction drawn out alike.
    const Vec3 own = R_FrameShape_.transpose() * direction;
    const Vec3 point = middle_ + scale_.cwiseProduct(supportPoint(shape_, scale_.cwiseProduct(own)) - middle_);
    return R_FrameShape_ * point + p_Frame_ + carried;
}

Convex Convex::shrunk(double by_mm, double mostShare) const {
    Convex less = *this;
    const Aabb box = boundsOf(shape_, Pose{});
    const Vec3 size = box.size_mm();
    less.middle_ = (box.min_mm + box.max_mm) / 2;
    for (int axis = 0; axis < 3; ++axis)
        less.scale_[axis] = size[axis] > 0 ? 1 - std::min(by_mm / size[axis], mostShare) : 1;
    if (rind_mm_ > 0) less.rind_mm_ = rind_mm_ * less.scale_.x();
    return less;
}

Convex Convex::swept(const Vec3 &way_mm) const {
    Convex carried = *this;
    carried.way_mm_ = way_mm;
    return carried;
}

ConvexGap coreDistance(const Convex &a, const Convex &b, double within_mm) {
    constexpr double kTolerance_mm = 1e-6;
    constexpr double kTouching_mm = 1e-9;
    constexpr int kMostRounds = 100;
    auto farthest = [&](const Vec3 &direction) {
        const Vec3 onA = a.support(direction), onB = b.support(-direction);
        return Vertex{onA - onB, onA, onB};
    };
    const Vec3 between = b.origin() - a.origin();
    Simplex simplex;
    simplex.vertex[0] = farthest(between.squaredNorm() > 0 ? between : Vec3(Vec3::UnitX()));
    simplex.size = 1;
    Face face;
    face.size = 1;
    face.share[0] = 1;
    face.nearest = simplex.vertex[0].w;
    double nearest2 = face.nearest.squaredNorm();
    for (int round = 0; round < kMostRounds && nearest2 > kTouching_mm * kTouching_mm; ++round) {
        const Vertex next = farthest(-face.nearest);
        const double length = std::sqrt(nearest2), atLeast = face.nearest.dot(next.w) / length;
        if (atLeast > within_mm) return {std::numeric_limits<double>::infinity(), {}, {}};
        if (length - atLeast <= kTolerance_mm) break;
        simplex.vertex[simplex.size++] = next;
        Face nearer;
        if (!reduce(simplex, nearest2, nearer)) break; // rounding: nothing nearer can be told apart
        Simplex kept;
        kept.size = nearer.size;
        for (int i = 0; i < nearer.size; ++i) {
            kept.vertex[i] = simplex.vertex[nearer.index[i]];
            nearer.index[i] = i;
        }
        simplex = kept;
        face = nearer;
        nearest2 = face.nearest.squaredNorm();
        if (face.size == 4) break; // the origin lies inside: they overlap
    }
    ConvexGap gap{0, Vec3::Zero(), Vec3::Zero()};
    for (int i = 0; i < face.size; ++i) {
        gap.onA_mm += face.share[i] * simplex.vertex[face.index[i]].onA;
        gap.onB_mm += face.share[i] * simplex.vertex[face.index[i]].onB;
    }
    const double core = std::sqrt(nearest2);
    if (core > kTouching_mm)
        gap.distance_mm = core;
    else
        gap.onB_mm = gap.onA_mm;
    return gap;
}

ConvexGap convexDistance(const Convex &a, const Convex &b, double within_mm) {
    const double rinds = a.rind_mm() + b.rind_mm();
    ConvexGap gap = coreDistance(a, b, within_mm + rinds);
    if (!(gap.distance_mm > 0) || std::isinf(gap.distance_mm) || rinds == 0) return gap;
    constexpr double kTouching_mm = 1e-9;
    const double core = gap.distance_mm;
    const Vec3 along = (gap.onB_mm - gap.onA_mm) / core;
    if (core > rinds + kTouching_mm) {
        gap.distance_mm = core - rinds;
        gap.onA_mm += a.rind_mm() * along;
        gap.onB_mm -= b.rind_mm() * along;
        return gap;
    }
    gap.distance_mm = 0;
    gap.onA_mm = gap.onB_mm = gap.onA_mm + core * a.rind_mm() / rinds * along;
    return gap;
}

} // namespace waxis::clearance
