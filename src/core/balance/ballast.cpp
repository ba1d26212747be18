// M all-up mass, o its offset, b ballast at r, w wanted: |M o + b r|^2 = w^2 (M + b)^2, a quadratic in b. Statics.
#include "core/balance/ballast.h"

#include <algorithm>
#include <cmath>

namespace waxis {

std::optional<double> ballastAt_g(double mass, const Vec2 &offset, const Vec2 &spot, double within) {
    if (offset.norm() <= within) return 0.0;
    const double a = spot.squaredNorm() - within * within;
    const double b = 2 * mass * (offset.dot(spot) - within * within);
    const double c = mass * mass * (offset.squaredNorm() - within * within);
    if (std::abs(a) < 1e-12) return b < 0 ? std::optional(-c / b) : std::nullopt;
    const double root = b * b - 4 * a * c;
    if (root < 0) return std::nullopt;
    // The smaller positive root; written so that nothing cancels.
    const double q = -0.5 * (b + std::copysign(std::sqrt(root), b));
    std::optional<double> least;
    for (double x : {q / a, q != 0 ? c / q : -1.0})
        if (x > 0 && std::isfinite(x) && (!least || x < *least)) least = x;
    return least;
}

std::vector<BallastSpot> ballastSpots(const Frame &frame, const Vec3 &thrustCentre) {
    constexpr double kStep_mm = 2, kMotor_mm = 15;
    std::vector<BallastSpot> spots;
    const Vec2 centre = thrustCentre.head<2>();
    auto along = [&](const Vec2 &from, const Vec2 &to, const std::string &on) {
        const int steps = std::max(1, int(std::ceil((to - from).norm() / kStep_mm)));
        for (int i = 0; i <= steps; ++i) {
            const Vec2 at = from + (to - from) * i / steps;
            const bool underMotor = std::any_of(frame.motorMounts.begin(), frame.motorMounts.end(), [&](const auto &m) {
                return (m.position_mm.template head<2>() - at).norm() < kMotor_mm;
            });
            if (!underMotor) spots.push_back({at - centre, on});
        }
    };
    for (const auto &plate : frame.plates)
        for (std::size_t i = 0; i < plate.outline_mm.size(); ++i)
            along(plate.outline_mm[i], plate.outline_mm[(i + 1) % plate.outline_mm.size()], plate.id);
    for (const auto &arm : frame.arms) {
        const Vec2 root = arm.root_mm.head<2>(), tip = arm.tip_mm.head<2>();
        const double length = (tip - root).norm();
        if (length > kMotor_mm) along(root, tip - (tip - root) / length * kMotor_mm, arm.id);
    }
    return spots;
}

std::optional<Ballast> leastBallast(const std::vector<BallastSpot> &spots, double mass, const Vec2 &offset,
                                    double within) {
    std::optional<Ballast> best;
    for (const auto &spot : spots)
        if (const auto grams = ballastAt_g(mass, offset, spot.at_mm, within); grams && (!best || *grams < best->mass_g))
            best = Ballast{*grams, spot, (mass * offset + *grams * spot.at_mm) / (mass + *grams)};
    return best;
}

} // namespace waxis
