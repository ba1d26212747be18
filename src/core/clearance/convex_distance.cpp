// v: the point of the simplex nearest to the origin of the Minkowski difference A - B; w: its farthest point along -v.
// |v| is never less than the distance, v.w/|v| never more: their difference bounds the error.
#include "core/clearance/convex_distance.h"

#include <array>
#include <cmath>

namespace waxis::clearance {

namespace {

struct Vertex {
    Vec3 w = Vec3::Zero(), onA = Vec3::Zero(), onB = Vec3::Zero(); ///< w = onA - onB
};

/// Points of a simplex and how much of each makes up its nearest point to the origin.
struct Simplex {
    std::array<Vertex, 4> vertex;
    std::array<double, 4> share{};
    int size = 0;

    Vec3 nearest() const {
        Vec3 sum = Vec3::Zero();
        for (int i = 0; i < size; ++i) sum += share[i] * vertex[i].w;
        return sum;
    }
};

/// Shares of the projection of the origin on the flat through the vertices named by `mask`; false where the flat is
/// degenerate or the projection lies outside the face: a smaller face then holds the nearest point.
bool projectOnFace(const Simplex &simplex, unsigned mask, Simplex &face) {
    face.size = 0;
    for (int i = 0; i < simplex.size; ++i)
        if (mask >> i & 1) face.vertex[face.size++] = simplex.vertex[i];
    if (face.size == 1) {
        face.share[0] = 1;
        return true;
    }
    const Vec3 &base = face.vertex[0].w;
    std::array<Vec3, 3> edge{Vec3::Zero(), Vec3::Zero(), Vec3::Zero()};
    for (int i = 1; i < face.size; ++i) edge[i - 1] = face.vertex[i].w - base;
    constexpr double kFlat = 1e-12; // relative to the product of the edges' lengths
    if (face.size == 2) {
        const double length2 = edge[0].squaredNorm();
        if (!(length2 > 0)) return false;
        face.share[1] = -base.dot(edge[0]) / length2;
    } else if (face.size == 3) {
        const Vec3 normal = edge[0].cross(edge[1]);
        const double area2 = normal.squaredNorm();
        if (!(area2 > kFlat * edge[0].squaredNorm() * edge[1].squaredNorm())) return false;
        face.share[1] = (-base).cross(edge[1]).dot(normal) / area2;
        face.share[2] = edge[0].cross(-base).dot(normal) / area2;
    } else {
        const Vec3 across = edge[1].cross(edge[2]);
        const double volume = edge[0].dot(across);
        if (!(std::abs(volume) > kFlat * edge[0].norm() * edge[1].norm() * edge[2].norm())) return false;
        face.share[1] = -base.dot(across) / volume;
        face.share[2] = edge[0].dot((-base).cross(edge[2])) / volume;
        face.share[3] = edge[0].dot(edge[1].cross(-base)) / volume;
    }
    face.share[0] = 1;
    for (int i = 1; i < face.size; ++i) face.share[0] -= face.share[i];
    for (int i = 0; i < face.size; ++i)
        if (!(face.share[i] >= 0)) return false;
    return true;
}

/// The face nearest to the origin among those that hold the last vertex; the others were searched before it came.
bool reduce(Simplex &simplex, double &nearest2) {
    bool better = false;
    Simplex best, face;
    const unsigned last = 1u << (simplex.size - 1);
    for (unsigned others = 0; others < last; ++others) {
        if (!projectOnFace(simplex, others | last, face)) continue;
        const double d2 = face.size == 4 ? 0.0 : face.nearest().squaredNorm();
        if (d2 >= nearest2) continue;
        nearest2 = d2;
        best = face;
        better = true;
    }
    if (better) simplex = best;
    return better;
}

} // namespace

Convex::Convex(const Shape &shape, const Pose &X_FrameShape)
    : shape_(shape), R_FrameShape_(X_FrameShape.rotation.toRotationMatrix()), p_Frame_(X_FrameShape.position_mm) {
    if (const auto *sphere = std::get_if<Sphere>(&shape)) rind_mm_ = sphere->diameter_mm / 2;
}

Vec3 Convex::support(const Vec3 &direction) const {
    if (rind_mm_ > 0) return p_Frame_;
    return R_FrameShape_ * supportPoint(shape_, R_FrameShape_.transpose() * direction) + p_Frame_;
}

ConvexGap convexDistance(const Convex &a, const Convex &b) {
    constexpr double kTolerance_mm = 1e-9;
    constexpr double kTouching_mm = 1e-9;
    constexpr int kMostRounds = 100;
    auto farthest = [&](const Vec3 &direction) {
        const Vec3 onA = a.support(direction), onB = b.support(-direction);
        return Vertex{onA - onB, onA, onB};
    };
    const Vec3 between = b.origin() - a.origin();
    Simplex simplex;
    simplex.vertex[0] = farthest(between.squaredNorm() > 0 ? between : Vec3(Vec3::UnitX()));
    simplex.share[0] = 1;
    simplex.size = 1;
    Vec3 v = simplex.vertex[0].w;
    double nearest2 = v.squaredNorm();
    for (int round = 0; round < kMostRounds && nearest2 > kTouching_mm * kTouching_mm; ++round) {
        const Vertex next = farthest(-v);
        const double length = std::sqrt(nearest2);
        if (length - v.dot(next.w) / length <= kTolerance_mm) break;
        simplex.vertex[simplex.size++] = next;
        if (!reduce(simplex, nearest2)) { // rounding: nothing nearer can be told apart
            --simplex.size;
            break;
        }
        if (simplex.size == 4) break; // the origin lies inside: they overlap
        v = simplex.nearest();
        nearest2 = v.squaredNorm();
    }
    ConvexGap gap;
    for (int i = 0; i < simplex.size; ++i) {
        gap.onA_mm += simplex.share[i] * simplex.vertex[i].onA;
        gap.onB_mm += simplex.share[i] * simplex.vertex[i].onB;
    }
    const double core = simplex.size == 4 ? 0.0 : std::sqrt(nearest2);
    if (!(core > a.rind_mm() + b.rind_mm() + kTouching_mm)) return gap;
    const Vec3 along = (gap.onB_mm - gap.onA_mm) / core;
    gap.distance_mm = core - a.rind_mm() - b.rind_mm();
    gap.onA_mm += a.rind_mm() * along;
    gap.onB_mm -= b.rind_mm() * along;
    return gap;
}

} // namespace waxis::clearance
