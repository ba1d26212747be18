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
    // Packings of equal circles in a circle. A ring of n: 1 + 1/sin(pi/n); from six on one more fits in its middle, so
    // that 7, 8 and 9 have the rings of 6, 7 and 8. Others in closed form: 13, 18 and 19; the rest as printed in the
    // usual tables, from memory.
    static const std::array<double, 21> kRatio = [] {
        std::array<double, 21> ratio{0, 1, 2};
        const auto ring = [](int n) { return 1 + 1 / std::sin(kPi / n); };
        for (const int n : {3, 4, 5}) ratio[std::size_t(n)] = ring(n);
        ratio[6] = ratio[7] = 3;
        for (const int n : {8, 9}) ratio[std::size_t(n)] = ring(n - 1);
        ratio[10] = 3.8130256314;
        ratio[11] = 3.9238044002;
        ratio[12] = 4.0296019301;
        ratio[13] = 2 + std::sqrt(5.0);
        ratio[14] = 4.3284285548;
        ratio[15] = 4.5213569645;
        ratio[16] = 4.6154255948;
        ratio[17] = 4.7920337483;
        ratio[18] = ratio[19] = 1 + std::sqrt(2.0) + std::sqrt(6.0);
        ratio[20] = 5.1223207369;
        return ratio;
    }();
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
