// Bench statics: centre of gravity from scales and supports, and how hover thrust divides among the motors.
#pragma once

#include "core/base/result.h"
#include "core/build/weighing.h"
#include "core/geometry/pose.h"

#include <array>
#include <string>
#include <vector>

namespace waxis {

struct StaticsError {
    std::string reason;
};

struct ScaleCg {
    double mass_g = 0;
    Vec2 cg_mm = Vec2::Zero();
};

/// Level frame on three scales (or more): x = sum Fi xi / sum Fi, y likewise. Readings in g, points in mm.
/// Fails for fewer than three points, points in line, negative readings or no weight at all. Source: statics.
Result<ScaleCg, StaticsError> cgFromScales(const std::vector<Vec2> &points_mm, const std::vector<double> &readings_g);

/// Distance of the CG from the first support, mm: x = L F2 / (F1 + F2). Readings in g.
Result<double, StaticsError> cgFromTwoSupports(double span_mm, double first_g, double second_g);

/// Height of the CG over the line of supports, mm: z = L (F_level - F_tilted) / (W tan theta); the far support is
/// raised by theta, F is the reading at the raised support. 0 < theta < 90 degrees.
Result<double, StaticsError> cgHeightFromTilt(double span_mm, double weight_g, double level_g, double tilted_g,
                                              double theta_deg);

/// Least-norm thrusts in N: minimise |T|^2 subject to sum T = m g, sum T (x - xcg) = 0, sum T (y - ycg) = 0; yaw
/// ignored. Motors in the plane of x and y, mm. Fails for fewer than three motors or motors in line. A negative
/// thrust in the result means that no hover is possible with propellers that only push up.
Result<std::vector<double>, StaticsError> thrustSplit(const std::vector<Vec2> &motors_mm, const Vec2 &cg_mm,
                                                      double mass_kg, double gravity_m_s2);

/// A motor that pushes along a unit vector, mm in the frame's axes.
struct Thruster {
    Vec3 at_mm = Vec3::Zero();
    Vec3 axis = Vec3::UnitZ();
};

/// The same for motors that lean: the vertical parts carry the weight, the moments of whole thrusts about the CG
/// balance; forces to the side are left over. With `yaw` as in yawBalancedSplit. Thrusts along each axis, N.
Result<std::vector<double>, StaticsError> tiltedSplit(const std::vector<Thruster> &motors, const Vec3 &cg_mm,
                                                      double mass_kg, double gravity_m_s2,
                                                      const std::vector<double> *yaw = nullptr);

/// The same with a fourth condition, sum k T = 0: `yaw` are the signed torques per thrust of the motors, any unit.
/// Fails where the four conditions contradict each other, as with three motors, or leave no choice that balances.
Result<std::vector<double>, StaticsError> yawBalancedSplit(const std::vector<Vec2> &motors_mm, const Vec2 &cg_mm,
                                                           double mass_kg, double gravity_m_s2,
                                                           const std::vector<double> &yaw);

/// Where two balance lines cross, mm. Fails for lines less than 1 degree apart. Source: plane geometry.
Result<Vec2, StaticsError> cgFromLines(const BalanceLine &first, const BalanceLine &second);
/// Unit vector across the line, in plan: the line says n . cg = n . through.
Vec2 acrossLine(const BalanceLine &line);

} // namespace waxis
