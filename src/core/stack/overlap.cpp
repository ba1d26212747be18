// Boost.Geometry's intersection of polygons; in a file of its own because its headers are slow to compile.
#include "core/stack/height_field.h"

#ifndef __clang__
#pragma GCC diagnostic ignored "-Wmaybe-uninitialized" // in Boost's rescaling, seen at -O3
#endif
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/polygon.hpp>

namespace waxis {

namespace bg = boost::geometry;

namespace {

using Point = bg::model::d2::point_xy<double>;
using Shape2d = bg::model::polygon<Point>;

Shape2d shapeOf(const Polygon &polygon) {
    Shape2d shape;
    auto put = [](const Ring &ring, auto &target) {
        for (const auto &p : ring) target.emplace_back(p.x(), p.y());
        if (!ring.empty()) target.emplace_back(ring.front().x(), ring.front().y());
    };
    put(polygon.outline, shape.outer());
    for (const auto &hole : polygon.holes) put(hole, shape.inners().emplace_back());
    bg::correct(shape);
    return shape;
}

} // namespace

Ring overlapOf(const Polygon &a, const Polygon &b) {
    std::vector<Shape2d> common;
    bg::intersection(shapeOf(a), shapeOf(b), common);
    constexpr double kNothing_mm2 = 1e-4;
    const Shape2d *largest = nullptr;
    double most = kNothing_mm2;
    for (const auto &piece : common)
        if (const double area = bg::area(piece); area > most) {
            most = area;
            largest = &piece;
        }
    Ring ring;
    if (largest)
        for (std::size_t i = 0; i + 1 < largest->outer().size(); ++i)
            ring.emplace_back(largest->outer()[i].x(), largest->outer()[i].y());
    return ring;
}

} // namespace waxis
