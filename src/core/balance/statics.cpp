#include "core/balance/statics.h"

#include "core/base/units.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <numeric>

namespace waxis {

namespace {

Failure<StaticsError> refuse(std::string reason) { return Failure{StaticsError{std::move(reason)}}; }

bool inLine(const std::vector<Vec2> &points) {
    // Twice the area of the largest triangle on the first point, against the spread of the points.
    double area = 0, spread = 0;
    for (const auto &p : points)
        for (const auto &q : points) {
            const Vec2 a = p - points.front(), b = q - points.front();
            area = std::max(area, std::abs(a.x() * b.y() - a.y() * b.x()));
            spread = std::max(spread, (p - q).squaredNorm());
        }
    return !(area > 1e-9 * spread);
}

} // namespace

Result<ScaleCg, StaticsError> cgFromScales(const std::vector<Vec2> &points, const std::vector<double> &readings) {
    if (points.size() != readings.size()) return refuse("every scale needs a place and a reading");
    if (points.size() < 3) return refuse("three scales are needed");
    if (std::any_of(readings.begin(), readings.end(), [](double r) { return !(r >= 0); }))
        return refuse("a scale under a standing frame reads no less than zero");
    if (inLine(points)) return refuse("the scales stand in one line: the frame would tip over");
    ScaleCg result;
    result.mass_g = std::accumulate(readings.begin(), readings.end(), 0.0);
    if (!(result.mass_g > 0)) return refuse("nothing stands on the scales");
    for (std::size_t i = 0; i < points.size(); ++i) result.cg_mm += points[i] * readings[i] / result.mass_g;
    return result;
}

Result<double, StaticsError> cgFromTwoSupports(double span_mm, double first_g, double second_g) {
    if (!(span_mm > 0)) return refuse("the supports must stand apart");
    if (!(first_g >= 0 && second_g >= 0 && first_g + second_g > 0)) return refuse("both readings must be weights");
    return span_mm * second_g / (first_g + second_g);
}

Result<double, StaticsError> cgHeightFromTilt(double span_mm, double weight_g, double level_g, double tilted_g,
                                              double theta_deg) {
    if (!(span_mm > 0)) return refuse("the supports must stand apart");
    if (!(weight_g > 0)) return refuse("the frame must weigh something");
    if (!(theta_deg > 0 && theta_deg < 90)) return refuse("the tilt must lie between 0 and 90 degrees");
    return span_mm * (level_g - tilted_g) / (weight_g * std::tan(radiansFromDegrees(theta_deg)));
}

namespace {

/// A T = w with rows lift, roll, pitch and perhaps yaw; T = A^T (A A^T)^-1 w.
Result<std::vector<double>, StaticsError> leastNorm(const std::vector<Thruster> &motors, const Vec3 &cg, double mass_kg,
                                                    double gravity, const std::vector<double> *yaw) {
    if (motors.size() < 3) return refuse("three motors are needed to balance force, roll and pitch");
    std::vector<Vec2> places;
    for (const auto &motor : motors) places.emplace_back(motor.at_mm.head<2>());
    if (inLine(places)) return refuse("the motors stand in one line: roll or pitch cannot be balanced");
    if (!(mass_kg > 0) || !(gravity > 0)) return refuse("mass and gravity must be more than zero");
    const auto n = Eigen::Index(motors.size()), rows = Eigen::Index(yaw ? 4 : 3);
    Eigen::MatrixXd a(rows, n);
    const double scale = (places.front() - cg.head<2>()).norm() + 1.0; // keeps the rows of like size
    double most = 0;
    if (yaw)
        for (double k : *yaw) most = std::max(most, std::abs(k));
    for (Eigen::Index i = 0; i < n; ++i) {
        const Thruster &motor = motors[std::size_t(i)];
        const Vec3 moment = ((motor.at_mm - cg) / scale).cross(motor.axis);
        a(0, i) = motor.axis.z();
        a(1, i) = moment.x();
        a(2, i) = -moment.y();
        if (yaw) a(3, i) = most > 0 ? (*yaw)[std::size_t(i)] / most : 0;
    }
    Eigen::VectorXd w = Eigen::VectorXd::Zero(rows);
    w(0) = mass_kg * gravity;
    const Eigen::MatrixXd normal = a * a.transpose();
    const Eigen::FullPivLU<Eigen::MatrixXd> solver(normal);
    const Eigen::VectorXd t = a.transpose() * solver.solve(w);
    if (!((a * t - w).norm() <= 1e-9 * w.norm()))
        return refuse("no thrusts balance force, roll, pitch and yaw together");
    return std::vector<double>(t.data(), t.data() + n);
}

} // namespace

namespace {

std::vector<Thruster> upright(const std::vector<Vec2> &motors) {
    std::vector<Thruster> all;
    for (const auto &at : motors) all.push_back({{at.x(), at.y(), 0}, Vec3::UnitZ()});
    return all;
}

} // namespace

Result<std::vector<double>, StaticsError> thrustSplit(const std::vector<Vec2> &motors, const Vec2 &cg, double mass_kg,
                                                      double gravity) {
    return leastNorm(upright(motors), {cg.x(), cg.y(), 0}, mass_kg, gravity, nullptr);
}

Result<std::vector<double>, StaticsError> tiltedSplit(const std::vector<Thruster> &motors, const Vec3 &cg,
                                                      double mass_kg, double gravity, const std::vector<double> *yaw) {
    if (yaw && yaw->size() != motors.size()) return refuse("every motor needs a torque");
    if (yaw && motors.size() < 4) return refuse("four motors are needed to balance yaw as well");
    return leastNorm(motors, cg, mass_kg, gravity, yaw);
}

Result<std::vector<double>, StaticsError> yawBalancedSplit(const std::vector<Vec2> &motors, const Vec2 &cg,
                                                           double mass_kg, double gravity,
                                                           const std::vector<double> &yaw) {
    if (yaw.size() != motors.size()) return refuse("every motor needs a torque");
    if (motors.size() < 4) return refuse("four motors are needed to balance yaw as well");
    return leastNorm(upright(motors), {cg.x(), cg.y(), 0}, mass_kg, gravity, &yaw);
}

Vec2 acrossLine(const BalanceLine &line) {
    const double angle = radiansFromDegrees(line.direction_deg);
    return {-std::sin(angle), std::cos(angle)};
}

Result<Vec2, StaticsError> cgFromLines(const BalanceLine &first, const BalanceLine &second) {
    const Vec2 a = acrossLine(first), b = acrossLine(second);
    const double sine = a.x() * b.y() - a.y() * b.x();
    if (!(std::abs(sine) >= std::sin(radiansFromDegrees(1))))
        return refuse("the two lines are nearly parallel: balance it once along and once across");
    const double p = a.dot(first.through_mm), q = b.dot(second.through_mm);
    return Vec2((p * b.y() - q * a.y()) / sine, (a.x() * q - b.x() * p) / sine);
}

} // namespace waxis
