// The polytope lies in the difference A - B and grows towards its boundary where that is nearest to the origin. A
// face's plane is never farther out than the boundary behind it, the farthest point along its normal never nearer: when
// the two meet, the boundary is found. A tetrahedron to begin with may leave the origin outside: its face then has a
// negative distance, is the nearest of all and grows first.
#include "core/clearance/penetration.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>
#include <vector>

namespace waxis::clearance {

namespace {

struct Facet {
    std::array<int, 3> corner{};
    Vec3 normal = Vec3::Zero(); ///< outwards
    double distance_mm = 0;     ///< of its plane from the origin
};

class Polytope {
public:
    Polytope(const Convex &a, const Convex &b) : a_(a), b_(b) {}

    Vec3 farthest(const Vec3 &direction) const { return a_.support(direction) - b_.support(-direction); }

    /// False: the difference has no volume.
    bool begin() {
        constexpr double kFlat_mm = 1e-9;
        const Vec3 first = farthest(Vec3::UnitX()), second = farthest(-Vec3::UnitX());
        corners_ = {first, second};
        const Vec3 along = (first - second).normalized();
        if (!((first - second).norm() > kFlat_mm)) return false;
        const Vec3 aside = along.unitOrthogonal();
        Vec3 third = farthest(aside);
        const auto off = [&](const Vec3 &p) { return (p - first - (p - first).dot(along) * along).norm(); };
        for (const Vec3 &d : {Vec3(-aside), Vec3(along.cross(aside)), Vec3(-along.cross(aside))})
            if (const Vec3 p = farthest(d); off(p) > off(third) + kFlat_mm) third = p;
        if (!(off(third) > kFlat_mm)) return false;
        corners_.push_back(third);
        const Vec3 normal = (second - first).cross(third - first).normalized();
        const Vec3 above = farthest(normal), below = farthest(-normal);
        const double up = (above - first).dot(normal), down = (first - below).dot(normal);
        if (!(std::max(up, down) > kFlat_mm)) return false;
        corners_.push_back(up >= down ? above : below);
        if (up >= down) std::swap(corners_[0], corners_[1]); // so that all faces look outwards
        for (const auto &face : {std::array{0, 1, 2}, std::array{0, 3, 1}, std::array{1, 3, 2}, std::array{2, 3, 0}})
            if (!add(face)) return false;
        return true;
    }

    const Facet &nearest() const {
        return *std::min_element(facets_.begin(), facets_.end(),
                                 [](const Facet &f, const Facet &g) { return f.distance_mm < g.distance_mm; });
    }

    /// Takes the point into the hull; false: rounding leaves nothing to grow.
    bool grow(const Vec3 &point) {
        constexpr double kSeen_mm = 1e-9;
        std::vector<std::pair<int, int>> rim; // edges of one facet that is seen and one that is not
        std::vector<Facet> kept;
        for (const auto &facet : facets_) {
            if (facet.normal.dot(point) - facet.distance_mm <= kSeen_mm) {
                kept.push_back(facet);
                continue;
            }
            for (int i = 0; i < 3; ++i) {
                const std::pair edge(facet.corner[i], facet.corner[(i + 1) % 3]);
                const auto back = std::find(rim.begin(), rim.end(), std::pair(edge.second, edge.first));
                if (back == rim.end())
                    rim.push_back(edge);
                else
                    rim.erase(back);
            }
        }
        if (kept.size() == facets_.size()) return false;
        facets_ = std::move(kept);
        corners_.push_back(point);
        const int last = int(corners_.size()) - 1;
        return std::all_of(rim.begin(), rim.end(), [&](const auto &edge) {
            return add({edge.first, edge.second, last});
        });
    }

private:
    bool add(const std::array<int, 3> &corner) {
        const Vec3 &p = corners_[std::size_t(corner[0])], &q = corners_[std::size_t(corner[1])],
                   &r = corners_[std::size_t(corner[2])];
        const Vec3 across = (q - p).cross(r - p);
        const double length = across.norm();
        if (!(length > 1e-14)) return false;
        facets_.push_back({corner, across / length, (across / length).dot(p)});
        return true;
    }

    const Convex &a_, &b_;
    std::vector<Vec3> corners_;
    std::vector<Facet> facets_;
};

/// Of the cores alone, without their rinds: the outward normal of the nearest boundary, and how far it is.
std::optional<std::pair<Vec3, double>> nearestBoundary(const Convex &a, const Convex &b) {
    constexpr double kTolerance_mm = 1e-4;
    constexpr int kMostRounds = 400;
    Polytope polytope(a, b);
    if (!polytope.begin()) return {};
    std::pair<Vec3, double> best{Vec3::UnitZ(), 1e300};
    for (int round = 0; round < kMostRounds; ++round) {
        const Facet nearest = polytope.nearest();
        const Vec3 point = polytope.farthest(nearest.normal);
        // Whatever the polytope looks like, a plane that far out parts them: no answer is ever too short.
        if (const double out = nearest.normal.dot(point); out < best.second) best = {nearest.normal, out};
        if (best.second - nearest.distance_mm <= kTolerance_mm || !polytope.grow(point)) break;
    }
    return best;
}

} // namespace

std::optional<Vec3> partingMove(const Convex &a, const Convex &b) {
    const double rinds = a.rind_mm() + b.rind_mm();
    const ConvexGap cores = coreDistance(a, b);
    if (cores.distance_mm > 0) {
        if (!(cores.distance_mm < rinds)) return {};
        return Vec3((cores.onA_mm - cores.onB_mm) / cores.distance_mm * (rinds - cores.distance_mm));
    }
    if (a.rind_mm() > 0 && b.rind_mm() > 0) return Vec3(Vec3::UnitZ() * rinds); // two balls about one middle
    const auto boundary = nearestBoundary(a, b);
    if (!boundary) return {};
    return Vec3(-boundary->first * (boundary->second + rinds));
}

} // namespace waxis::clearance
