#include "core/stack/harness.h"

#include "core/base/units.h"
#include "core/build/chain.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace waxis {

namespace {

constexpr double kStraight_mm = 3.0; // a flat cable leaves its plug straight (common practice, no source)

struct Opening {
    Vec3 at_mm, out, row; ///< frame axes; `row` runs along the pins
};

Opening openingOf(const Pose &X_FramePart, const Port &port) {
    const Vec3 row = Vec3::UnitZ().cross(port.direction);
    return {X_FramePart * port.position_mm, X_FramePart.rotation * port.direction, X_FramePart.rotation * row};
}

bool joins(const Port &a, const Port &b) {
    auto plugs = [](const Port &p) {
        return (p.kind == PortKind::plug || p.kind == PortKind::socket) && p.pins.size() >= 4;
    };
    if (!plugs(a) || !plugs(b)) return false;
    std::set<std::string> names;
    for (const auto &pin : a.pins) names.insert(pin.signal);
    int common = 0;
    for (const auto &pin : b.pins) common += names.contains(pin.signal);
    return common >= 4;
}

bool crosses(const Vec2 &a, const Vec2 &b, const Vec2 &half) {
    // Clipped to the open rectangle: anything left means that the straight way crosses it.
    double from = 0, to = 1;
    const Vec2 d = b - a;
    for (int axis = 0; axis < 2; ++axis) {
        const double low = -half[axis] + 1e-9, high = half[axis] - 1e-9;
        if (std::abs(d[axis]) < 1e-12) {
            if (a[axis] <= low || a[axis] >= high) return false;
            continue;
        }
        double t0 = (low - a[axis]) / d[axis], t1 = (high - a[axis]) / d[axis];
        if (t0 > t1) std::swap(t0, t1);
        from = std::max(from, t0);
        to = std::min(to, t1);
    }
    return to - from > 1e-9;
}

double lengthBetween(const Pose &X_BaseFrame, const Opening &a, const Opening &b, const Vec2 &half_mm) {
    auto inBase = [&](const Opening &o) { return X_BaseFrame * Vec3(o.at_mm + o.out * kStraight_mm); };
    const Vec3 p = inBase(a), q = inBase(b);
    const Vec2 room = half_mm + Vec2::Constant(1.0);
    auto outside = [&](Vec2 v) { // a port that sits inside the other board's edge comes out on its own side
        for (int axis = 0; axis < 2; ++axis)
            if (std::abs(v[axis]) < room[axis] && std::abs(v[1 - axis]) < room[1 - axis] &&
                std::abs(v[axis]) / room[axis] >= std::abs(v[1 - axis]) / room[1 - axis])
                v[axis] = std::copysign(room[axis], v[axis]);
        return v;
    };
    const Vec2 pa = outside(p.head<2>()), qb = outside(q.head<2>());
    const double plan = wayRound_mm(pa, qb, room) + (pa - p.head<2>()).norm() + (qb - q.head<2>()).norm();
    return 2 * kStraight_mm + std::hypot(plan, p.z() - q.z());
}

double planAngle_deg(const Vec3 &a, const Vec3 &b) {
    const double cosine = a.head<2>().normalized().dot(b.head<2>().normalized());
    return degreesFromRadians(std::acos(std::clamp(cosine, -1.0, 1.0)));
}

} // namespace

double wayRound_mm(const Vec2 &a, const Vec2 &b, const Vec2 &half) {
    if (!crosses(a, b, half)) return (b - a).norm();
    const std::array<Vec2, 4> corners{Vec2(half.x(), half.y()), Vec2(-half.x(), half.y()), Vec2(-half.x(), -half.y()),
                                      Vec2(half.x(), -half.y())};
    double best = 1e300;
    // Along the corners, one way round or the other; at most all four.
    for (int first = 0; first < 4; ++first)
        for (int step : {1, 3}) {
            double length = (corners[std::size_t(first)] - a).norm();
            if (crosses(a, corners[std::size_t(first)], half)) continue;
            int at = first;
            for (int used = 0; used < 4; ++used) {
                const Vec2 &corner = corners[std::size_t(at)];
                if (!crosses(corner, b, half)) {
                    best = std::min(best, length + (b - corner).norm());
                    break;
                }
                const int next = (at + step) % 4;
                length += (corners[std::size_t(next)] - corner).norm();
                at = next;
            }
        }
    return best;
}

std::vector<Harness> harnessesOf(const Build &build, const Stack &stack) {
    std::vector<Harness> found;
    const auto chain = chainOf(build, stack);
    if (!chain) return found;
    const Pose X_BaseFrame = chain->X_FrameBase.inverse();
    std::vector<const Part *> boards;
    for (const auto &layer : stack.layers)
        if (layer.role == LayerRole::board)
            if (const Part *part = findPart(build, layer.parts.front()); part && typeOf(build, *part))
                boards.push_back(part);
    for (std::size_t i = 0; i < boards.size(); ++i)
        for (std::size_t j = i + 1; j < boards.size(); ++j) {
            const PartType &typeA = *typeOf(build, *boards[i]), &typeB = *typeOf(build, *boards[j]);
            const Pose poseA = framePose(build, *boards[i]), poseB = framePose(build, *boards[j]);
            Vec2 half = Vec2::Zero();
            for (const auto *type : {&typeA, &typeB})
                for (const auto &solid : type->solids)
                    if (solid.role == SolidRole::board) {
                        const Aabb box = boundsOf(solid.shape, solid.X_PartSolid);
                        half = half.cwiseMax(box.max_mm.head<2>()).cwiseMax(-box.min_mm.head<2>());
                    }
            std::optional<Harness> nearest;
            for (const auto &a : typeA.ports)
                for (const auto &b : typeB.ports) {
                    if (!joins(a, b)) continue;
                    const Opening at = openingOf(poseA, a), to = openingOf(poseB, b);
                    Harness h{boards[i]->id, a.id, boards[j]->id, b.id};
                    h.a_mm = at.at_mm;
                    h.b_mm = to.at_mm;
                    h.turn_deg = planAngle_deg(at.out, to.out);
                    h.length_mm = lengthBetween(X_BaseFrame, at, to, half);
                    h.samePins = std::equal(a.pins.begin(), a.pins.end(), b.pins.begin(), b.pins.end());
                    h.bestTurn_deg = 0;
                    h.bestLength_mm = h.length_mm;
                    double bestAngle = h.turn_deg;
                    const Vec3 axis = chain->X_FrameBase.rotation * Vec3::UnitZ();
                    for (double turn : {90.0, 180.0, -90.0}) {
                        const Quat about(Eigen::AngleAxisd(radiansFromDegrees(turn), axis));
                        const Vec3 pivot = poseB.position_mm;
                        const Opening turned{pivot + about * (to.at_mm - pivot), about * to.out, about * to.row};
                        const double angle = planAngle_deg(at.out, turned.out);
                        if (angle > bestAngle - 1) continue;
                        bestAngle = angle;
                        h.bestTurn_deg = turn;
                        h.bestLength_mm = lengthBetween(X_BaseFrame, at, turned, half);
                    }
                    // Turned so that the ports open alike, do the pin rows still run against each other?
                    const double back = radiansFromDegrees(h.bestTurn_deg);
                    const Vec3 row = Quat(Eigen::AngleAxisd(back, axis)) * to.row;
                    h.halfTwist = at.row.dot(row) < -0.5;
                    if (!nearest || h.length_mm < nearest->length_mm) nearest = h;
                }
            if (nearest) found.push_back(*nearest);
        }
    return found;
}

} // namespace waxis
