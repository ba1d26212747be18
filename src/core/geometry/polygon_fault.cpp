// Boost.Geometry's validity check (OGC Simple Features rules); in a file of its own because its headers are slow to
// compile.
#include "core/geometry/polygon.h"

#include <boost/geometry.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/polygon.hpp>

namespace waxis {

namespace bg = boost::geometry;

std::string faultOf(const Polygon &polygon) {
    using Point = bg::model::d2::point_xy<double>;
    bg::model::polygon<Point> checked;
    auto put = [](const Ring &ring, auto &target) {
        for (const auto &p : ring) target.emplace_back(p.x(), p.y());
        if (!ring.empty()) target.emplace_back(ring.front().x(), ring.front().y());
    };
    if (polygon.outline.size() < 3) return "fewer than three corners";
    put(polygon.outline, checked.outer());
    for (const auto &hole : polygon.holes) put(hole, checked.inners().emplace_back());
    bg::correct(checked); // direction of travel does not matter
    try {
        std::string reason;
        return bg::is_valid(checked, reason) ? std::string() : reason;
    } catch (const std::exception &error) { // coordinates beyond what its fixed-point check can hold
        return std::string("coordinates that are out of range (") + error.what() + ")";
    }
}

} // namespace waxis
