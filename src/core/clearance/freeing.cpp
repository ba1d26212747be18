// Moving A by t along the unit vector d frees it from B once min(A.d) + t >= max(B.d); the depth is the least such
// t over all d. For two boxes the least is attained on one of 15 axes (separating axis theorem, Gottschalk); other
// convex pairs ask the expanding polytope. What has holes or looks inwards may get free sooner, into its own hollows.
#include "core/clearance/narrow.h"
#include "core/clearance/penetration.h"

#include "core/base/units.h"

#include <algorithm>
#include <cmath>

namespace waxis::clearance {

namespace {

/// How far A has to go along d before a plane across d parts the two hulls.
double travel(const Body &a, const Body &b, const Vec3 &d) {
    const Vec3 lowA = a.X_FrameBody * supportPoint(a.shape, a.X_FrameBody.rotation.conjugate() * -d);
    const Vec3 highB = b.X_FrameBody * supportPoint(b.shape, b.X_FrameBody.rotation.conjugate() * d);
    return (highB - lowA).dot(d);
}

struct WayOut {
    Vec3 direction = Vec3::UnitZ();
    double travel_mm = 1e300;
};

WayOut bestOf(const Body &a, const Body &b, const std::vector<Vec3> &directions) {
    WayOut best;
    for (const auto &axis : directions) {
        if (axis.squaredNorm() < 1e-12) continue;
        for (const Vec3 &d : {Vec3(axis.normalized()), Vec3(-axis.normalized())}) {
            // A direction has to win clearly, so that ties fall the same way on every machine.
            const double t = travel(a, b, d);
            if (t < best.travel_mm - 1e-9) best = {d, t};
        }
    }
    return best;
}

std::vector<Vec3> separatingAxes(const Body &a, const Body &b) {
    const Mat3 ra = a.X_FrameBody.rotation.toRotationMatrix(), rb = b.X_FrameBody.rotation.toRotationMatrix();
    std::vector<Vec3> axes;
    for (int i : {2, 0, 1}) axes.push_back(ra.col(i));
    for (int i : {2, 0, 1}) axes.push_back(rb.col(i));
    for (int i = 0; i < 3; ++i)
        for (int j = 0; j < 3; ++j) axes.push_back(Vec3(ra.col(i)).cross(Vec3(rb.col(j))));
    return axes;
}

WayOut convexWayOut(const Body &a, const Body &b) {
    const WayOut straight = bestOf(a, b, separatingAxes(a, b));
    if (std::holds_alternative<Box>(a.shape) && std::holds_alternative<Box>(b.shape)) return straight;
    // What is as short along an axis of either body is said along that axis.
    constexpr double kAsShort_mm = 2e-4;
    const auto move = partingMove(Convex(a.shape, a.X_FrameBody), Convex(b.shape, b.X_FrameBody));
    if (!move || !(move->norm() > 0) || straight.travel_mm <= move->norm() + kAsShort_mm) return straight;
    return {move->normalized(), move->norm()};
}

/// Whether a prism is convex as it stands: no holes, and no corner that looks inwards.
bool isConvex(const Prism &prism) {
    const Ring &ring = prism.polygon.outline;
    if (!prism.polygon.holes.empty() || ring.size() < 3) return false;
    int left = 0, right = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 e = ring[(i + 1) % ring.size()] - ring[i],
                   f = ring[(i + 2) % ring.size()] - ring[(i + 1) % ring.size()];
        const double turn = e.x() * f.y() - e.y() * f.x();
        left += turn > 1e-12;
        right += turn < -1e-12;
    }
    return left == 0 || right == 0;
}

bool isConvex(const Shape &shape) {
    const auto *prism = std::get_if<Prism>(&shape);
    return prism ? isConvex(*prism) : !std::holds_alternative<Mesh>(shape);
}

/// Ways out of the pairs of convex pieces that overlap: what frees the nearest of them often frees all.
std::vector<Vec3> waysOutOfPieces(const Body &a, const Pieces &ga, const Body &b, const Pieces &gb) {
    constexpr std::size_t kMost = 24;
    const Pose X_BA = b.X_FrameBody.inverse() * a.X_FrameBody;
    const std::size_t countA = std::max<std::size_t>(1, ga.wedges.size()),
                      countB = std::max<std::size_t>(1, gb.wedges.size());
    std::vector<Vec3> ways;
    for (std::size_t i = 0; i < countA; ++i) {
        const Shape &wedgeA = ga.wedges.empty() ? a.shape : ga.wedges[i];
        const Aabb boundsA = boundsOf(wedgeA, X_BA);
        for (std::size_t j = 0; j < countB && ways.size() < kMost; ++j) {
            if (!gb.wedges.empty() && boxGap(gb.bounds[j], boundsA) > 0) continue;
            const Shape &wedgeB = gb.wedges.empty() ? b.shape : gb.wedges[j];
            const auto move = partingMove(Convex(wedgeA, a.X_FrameBody), Convex(wedgeB, b.X_FrameBody));
            if (move && move->norm() > 1e-9) ways.push_back(move->normalized());
        }
    }
    return ways;
}

/// The best of the plates' faces, sixteen ways along each plate, and the ways out of their pieces.
WayOut wayOutOfPlates(const Body &a, const Pieces &ga, const Body &b, const Pieces &gb) {
    std::vector<Vec3> across, along;
    for (const Body *body : {&a, &b})
        if (std::holds_alternative<Prism>(body->shape)) {
            across.push_back(body->X_FrameBody.rotation * Vec3::UnitZ());
            for (int i = 0; i < 16; ++i)
                along.push_back(body->X_FrameBody.rotation * Vec3(std::cos(i * kPi / 8), std::sin(i * kPi / 8), 0));
        }
    WayOut best = bestOf(a, b, across);
    // The hulls part as well; they are the bodies themselves where nothing looks inwards.
    if (const auto move = partingMove(Convex(a.shape, a.X_FrameBody), Convex(b.shape, b.X_FrameBody));
        move && move->norm() > 0 && move->norm() < best.travel_mm - 1e-9)
        best = {move->normalized(), move->norm()};
    const auto pieces = waysOutOfPieces(a, ga, b, gb);
    along.insert(along.end(), pieces.begin(), pieces.end());
    Body moved = a;
    for (const Vec3 &d : along) {
        const auto stillIn = [&](double t) {
            moved.X_FrameBody.position_mm = a.X_FrameBody.position_mm + t * d;
            return overlaps(moved, ga, b, gb);
        };
        if (stillIn(best.travel_mm)) continue;
        double in = 0, out = best.travel_mm;
        while (out - in > 1e-3) ((stillIn((in + out) / 2)) ? in : out) = (in + out) / 2;
        if (out < best.travel_mm - 1e-3) best = {d, out};
    }
    return best;
}

} // namespace

Vec3 shortestWayOut(const Body &a, const Pieces &ga, const Body &b, const Pieces &gb) {
    const bool plates = std::holds_alternative<Prism>(a.shape) || std::holds_alternative<Prism>(b.shape);
    const bool convex = isConvex(a.shape) && isConvex(b.shape);
    const WayOut way = plates && !convex ? wayOutOfPlates(a, ga, b, gb) : convexWayOut(a, b);
    return way.travel_mm > 0 ? Vec3(way.direction * way.travel_mm) : Vec3(Vec3::Zero());
}

} // namespace waxis::clearance
