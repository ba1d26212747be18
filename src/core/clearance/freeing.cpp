// Moving A by t along the unit vector d frees it from B once min(A.d) + t >= max(B.d); the depth is the least such
// t over all d. For two boxes the least is attained on one of 15 axes (separating axis theorem, Gottschalk).
#include "core/clearance/narrow.h"

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

/// Walks the direction downhill on the unit sphere with shrinking steps.
WayOut refined(const Body &a, const Body &b, WayOut best) {
    for (double step = 0.3; step > 1e-3; step /= 2) {
        for (bool better = true; better;) {
            better = false;
            const Vec3 u = best.direction.unitOrthogonal(), v = best.direction.cross(u);
            for (int k = 0; k < 8; ++k) {
                const double angle = k * kPi / 4;
                const Vec3 d = (best.direction + step * (std::cos(angle) * u + std::sin(angle) * v)).normalized();
                const double t = travel(a, b, d);
                if (t < best.travel_mm - 1e-9) {
                    best = {d, t};
                    better = true;
                    break;
                }
            }
        }
    }
    return best;
}

WayOut convexWayOut(const Body &a, const Body &b) {
    auto axes = separatingAxes(a, b);
    if (std::holds_alternative<Box>(a.shape) && std::holds_alternative<Box>(b.shape)) return bestOf(a, b, axes);
    const Vec3 between = a.X_FrameBody.position_mm - b.X_FrameBody.position_mm;
    axes.push_back(between);
    for (const Body *body : {&a, &b}) { // straight out from a cylinder's side
        const Vec3 z = body->X_FrameBody.rotation * Vec3::UnitZ();
        axes.push_back(between - between.dot(z) * z);
    }
    return refined(a, b, bestOf(a, b, axes));
}

WayOut wayOutOfPlate(const Body &plate, const Body &a, const Pieces &ga, const Body &b, const Pieces &gb) {
    const Quat turn = plate.X_FrameBody.rotation;
    const auto &prism = std::get<Prism>(plate.shape);
    const bool plateMoves = &plate == &a;
    const Body &other = plateMoves ? b : a;
    WayOut best = bestOf(a, b, {turn * Vec3::UnitZ()});
    // The other body's deepest point: while it is still in the material after a move aside, nothing is free.
    const Vec3 inwards = plateMoves ? best.direction : Vec3(-best.direction);
    const Vec3 deepest =
        plate.X_FrameBody.inverse() *
        (other.X_FrameBody * supportPoint(other.shape, other.X_FrameBody.rotation.conjugate() * inwards));
    const bool inSlab = deepest.z() > 0 && deepest.z() < prism.thickness_mm;
    Body moved = a;
    for (int i = 0; i < 16; ++i) {
        const double angle = i * kPi / 8;
        const Vec2 aside(std::cos(angle), std::sin(angle));
        const Vec2 shifted = deepest.head<2>() + (plateMoves ? -best.travel_mm : best.travel_mm) * aside;
        if (inSlab && contains(prism.polygon, shifted)) continue;
        const Vec3 d = turn * Vec3(aside.x(), aside.y(), 0);
        auto stillIn = [&](double t) {
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
    const bool plateA = std::holds_alternative<Prism>(a.shape), plateB = std::holds_alternative<Prism>(b.shape);
    const WayOut way = plateB   ? wayOutOfPlate(b, a, ga, b, gb)
                       : plateA ? wayOutOfPlate(a, a, ga, b, gb)
                                : convexWayOut(a, b);
    return way.travel_mm > 0 ? Vec3(way.direction * way.travel_mm) : Vec3(Vec3::Zero());
}

} // namespace waxis::clearance
