#include "core/balance/ring_chance.h"

#include "core/base/units.h"

#include <Eigen/Eigenvalues>
#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

constexpr double kChiSquared95 = 5.991464547; // two degrees of freedom: -2 ln 0.05

double normalUpTo(double x) { return 0.5 * std::erfc(-x / std::sqrt(2.0)); }

} // namespace

double chanceInRing(const Vec2 &mean, const Mat2 &covariance, double radius) {
    if (!(radius > 0) || !mean.allFinite() || !covariance.allFinite()) return 0;
    const Eigen::SelfAdjointEigenSolver<Mat2> solver(covariance);
    const double wide = std::sqrt(std::max(solver.eigenvalues()[1], 0.0));
    const double narrow = std::sqrt(std::max(solver.eigenvalues()[0], 0.0));
    const Vec2 m(mean.dot(solver.eigenvectors().col(1)), mean.dot(solver.eigenvectors().col(0)));
    constexpr double kSure_mm = 1e-9;
    if (!(wide > kSure_mm)) return mean.norm() <= radius ? 1 : 0;
    auto inside = [&](double x) { // of the other axis, within the ring at x
        const double half = std::sqrt(std::max(radius * radius - x * x, 0.0));
        if (!(narrow > kSure_mm)) return std::abs(m.y()) <= half ? 1.0 : 0.0;
        return normalUpTo((half - m.y()) / narrow) - normalUpTo((-half - m.y()) / narrow);
    };
    const double from = std::max(-radius, m.x() - 8 * wide), to = std::min(radius, m.x() + 8 * wide);
    if (!(to > from)) return 0;
    if (!(narrow > kSure_mm)) { // on a line: the chord at m.y()
        if (std::abs(m.y()) > radius) return 0;
        const double half = std::sqrt(radius * radius - m.y() * m.y());
        return normalUpTo((half - m.x()) / wide) - normalUpTo((-half - m.x()) / wide);
    }
    // x = middle + half * sin(u) takes the edge out of the square root.
    constexpr int kSteps = 400;
    const double middle = (from + to) / 2, half = (to - from) / 2;
    auto f = [&](double u) {
        const double x = middle + half * std::sin(u);
        const double z = (x - m.x()) / wide;
        return std::exp(-z * z / 2) / (wide * std::sqrt(2 * kPi)) * inside(x) * half * std::cos(u);
    };
    const double step = kPi / kSteps;
    double sum = 0;
    for (int i = 0; i <= kSteps; ++i) {
        const double weight = i == 0 || i == kSteps ? 1 : i % 2 ? 4 : 2;
        sum += weight * f(-kPi / 2 + i * step);
    }
    return std::clamp(sum * step / 3, 0.0, 1.0);
}

DoubtEllipse ellipse95(const Mat2 &covariance) {
    const Eigen::SelfAdjointEigenSolver<Mat2> solver(covariance);
    const Vec2 along = solver.eigenvectors().col(1);
    double turn = degreesFromRadians(std::atan2(along.y(), along.x()));
    if (turn > 90) turn -= 180;
    if (turn <= -90) turn += 180;
    return {std::sqrt(kChiSquared95 * std::max(solver.eigenvalues()[1], 0.0)),
            std::sqrt(kChiSquared95 * std::max(solver.eigenvalues()[0], 0.0)), turn};
}

} // namespace waxis
