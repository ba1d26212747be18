#include "core/layout/drilling.h"

#include "core/base/units.h"
#include "core/build/frame_shapes.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

constexpr double kLand_mm = 1.5;

} // namespace

Vec2 along(double bearing_deg, double length_mm) {
    const double angle = radiansFromDegrees(bearing_deg);
    return {length_mm * std::cos(angle), -length_mm * std::sin(angle)};
}

Ring rectangle(double x0, double x1, double y0, double y1) { return {{x1, y0}, {x1, y1}, {x0, y1}, {x0, y0}}; }

bool drill(Plate &plate, const Vec2 &centre, double diameter) {
    for (const auto &hole : plate.holes)
        if ((hole.centre_mm - centre).norm() < (hole.diameter_mm + diameter) / 2 + kLand_mm) return false;
    for (int i = 0; i < 8; ++i)
        if (!contains({plate.outline_mm, plate.cutouts_mm}, centre + along(i * 45.0, diameter / 2 + kLand_mm)))
            return false;
    plate.holes.push_back({centre, diameter});
    return true;
}

bool cut(Plate &plate, double x0, double x1, double y0, double y1) {
    auto away = [&](const Vec2 &p) { // of a point from the cut-out
        return Vec2(std::max({x0 - p.x(), p.x() - x1, 0.0}), std::max({y0 - p.y(), p.y() - y1, 0.0})).norm();
    };
    for (const auto &hole : plate.holes)
        if (away(hole.centre_mm) < hole.diameter_mm / 2 + kLand_mm) return false;
    for (const auto &other : plate.cutouts_mm)
        for (const auto &p : other)
            if (away(p) < kLand_mm) return false;
    const Ring grown = rectangle(x0 - kLand_mm, x1 + kLand_mm, y0 - kLand_mm, y1 + kLand_mm);
    for (const auto &p : grown)
        if (!contains({plate.outline_mm, {}}, p)) return false;
    plate.cutouts_mm.push_back(rectangle(x0, x1, y0, y1));
    return true;
}

bool headFits(const Plate &plate, const Vec2 &centre) {
    constexpr double kHeads_mm = 7; // a lock nut beside a cap head of M3
    Plate probe = plate;
    return std::all_of(plate.holes.begin(), plate.holes.end(),
                       [&](const RoundHole &hole) { return (hole.centre_mm - centre).norm() >= kHeads_mm; }) &&
           drill(probe, centre, 3.2);
}

} // namespace waxis
