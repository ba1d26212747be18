// dc, p: distance of centres, pitch; D: bundle diameter; t: turn; r: radius of the path's middle.
#include "core/wiring/bundle.h"

#include "core/base/units.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace waxis {

double twistFactor(double centres_mm, double pitch_mm) {
    if (!(pitch_mm > 0)) return 1;
    return std::hypot(1.0, kPi * centres_mm / pitch_mm);
}

double bundleDiameters(int wires) {
    // Packings of equal circles in a circle; closed forms where there are any (2 to 7, 9), the rest as printed in the
    // usual tables, from memory.
    constexpr std::array<double, 21> kRatio{
        0,     1,     2,     2.1547005384, 2.4142135624, 2.7013016167, 3,     3,     3.304, 3.6131259298, 3.813,
        3.924, 4.030, 4.236, 4.328,        4.521,        4.615,        4.792, 4.863, 4.863, 5.122};
    if (wires <= 0) return 0;
    if (wires < int(kRatio.size())) return kRatio[std::size_t(wires)];
    constexpr double kShare = 0.78;
    return std::sqrt(wires / kShare);
}

double bundleDiameter_mm(std::span<const double> outer_mm) {
    if (outer_mm.empty()) return 0;
    double squares = 0, first = 0, second = 0;
    for (const double d : outer_mm) {
        squares += d * d;
        if (d > first) {
            second = first;
            first = d;
        } else
            second = std::max(second, d);
    }
    const double mean = std::sqrt(squares / double(outer_mm.size()));
    return std::max(first + second, bundleDiameters(int(outer_mm.size())) * mean);
}

double fillLimit(std::size_t wires) { return wires <= 1 ? 0.53 : wires == 2 ? 0.31 : 0.40; }

double fillOf(std::span<const double> outer_mm, double hole_mm) {
    double squares = 0;
    for (const double d : outer_mm) squares += d * d;
    return squares / (hole_mm * hole_mm);
}

double bendArc_mm(double insideRadius_mm, double outer_mm, double angle_deg) {
    return (insideRadius_mm + outer_mm / 2) * radiansFromDegrees(angle_deg);
}

double cornerChange_mm(double radius_mm, double turn_deg) {
    const double turn = radiansFromDegrees(std::clamp(turn_deg, 0.0, 170.0));
    return radius_mm * (turn - 2 * std::tan(turn / 2));
}

} // namespace waxis
