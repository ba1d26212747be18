#include "core/geometry/hole_pattern.h"

#include "core/base/units.h"

#include <cmath>

namespace waxis {

std::vector<Vec2> holeCentres(const HolePattern &pattern) {
    const double a = pattern.size_mm / 2;
    switch (pattern.shape) {
    case PatternShape::square: return {{a, a}, {-a, a}, {-a, -a}, {a, -a}};
    case PatternShape::rectangle: {
        const double b = pattern.width_mm / 2;
        return {{a, b}, {-a, b}, {-a, -b}, {a, -b}};
    }
    case PatternShape::circle: {
        std::vector<Vec2> centres;
        for (int i = 0; i < pattern.holes; ++i) {
            const double angle = kPi / 4 + 2 * kPi * i / pattern.holes;
            centres.emplace_back(a * std::cos(angle), a * std::sin(angle));
        }
        return centres;
    }
    }
    return {};
}

bool linesUp(const HolePattern &a, const HolePattern &b) {
    constexpr double kDrilling_mm = 0.1;
    return a.shape == b.shape && std::abs(a.size_mm - b.size_mm) <= kDrilling_mm &&
           (a.shape != PatternShape::rectangle || std::abs(a.width_mm - b.width_mm) <= kDrilling_mm) &&
           (a.shape != PatternShape::circle || a.holes == b.holes);
}

} // namespace waxis
