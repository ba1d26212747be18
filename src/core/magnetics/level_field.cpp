#include "core/magnetics/level_field.h"

#include "core/base/units.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace waxis {

void LevelField::add(const LieField &field, double factor) {
    if (field.loose)
        loose_.push_back({factor * field.flat_uT, factor * field.onEdge_uT, true});
    else
        fixed_uT_ += factor * field.flat_uT;
}

double LevelField::worst_uT(double lean_deg) const {
    constexpr int kDirections = 36; // of half a turn: the other half is the same with both signs
    const double up = std::sin(radiansFromDegrees(std::clamp(lean_deg, 0.0, 90.0)));
    double worst = 0;
    for (int k = 0; k < kDirections; ++k)
        for (const double sign : {-1.0, 1.0}) {
            const double angle = std::numbers::pi * k / kDirections;
            const Vec3 way(std::cos(angle), std::sin(angle), sign * up);
            double sum = std::abs(way.dot(fixed_uT_));
            for (const auto &field : loose_) sum += std::hypot(way.dot(field.flat_uT), way.dot(field.onEdge_uT));
            worst = std::max(worst, sum);
        }
    return worst;
}

} // namespace waxis
