// R = Rz(yaw) Ry(pitch) Rx(roll): R31 = -sin(pitch), R21/R11 = tan(yaw), R32/R33 = tan(roll)   (Diebel 2006)
#include "core/geometry/pose.h"

#include "core/base/units.h"

#include <cmath>
#include <fmt/format.h>
#include <vector>

namespace waxis {

namespace {
// Closer than this to a right angle, R11 and R33 are rounding noise: cos(90 - 1e-5 deg) = 1.7e-7.
constexpr double kLockCosine = 1.75e-7;

double tidyDegrees(double angle_rad) {
    const double angle_deg = degreesFromRadians(angle_rad);
    return angle_deg <= -180.0 ? angle_deg + 360.0 : angle_deg;
}
} // namespace

Pose Pose::inverse() const {
    const Quat back = rotation.conjugate();
    return {-(back * position_mm), back};
}

Quat canonical(const Quat &rotation) {
    Quat q = rotation.normalized();
    constexpr double kZero = 1e-12;
    for (double leading : {q.w(), q.x(), q.y(), q.z()}) {
        if (std::abs(leading) <= kZero) continue;
        if (leading < 0) q.coeffs() = -q.coeffs();
        break;
    }
    for (int i = 0; i < 4; ++i)
        if (std::abs(q.coeffs()[i]) <= kZero) q.coeffs()[i] = 0.0;
    return q;
}

Quat quaternionFrom(const RollPitchYaw &angles) {
    const Eigen::AngleAxisd roll(radiansFromDegrees(angles.roll_deg), Vec3::UnitX());
    const Eigen::AngleAxisd pitch(radiansFromDegrees(angles.pitch_deg), Vec3::UnitY());
    const Eigen::AngleAxisd yaw(radiansFromDegrees(angles.yaw_deg), Vec3::UnitZ());
    return canonical(Quat(yaw * pitch * roll));
}

bool isGimbalLocked(const Quat &rotation) {
    const Mat3 r = rotation.toRotationMatrix();
    return std::hypot(r(0, 0), r(1, 0)) <= kLockCosine;
}

RollPitchYaw rollPitchYawFrom(const Quat &rotation) {
    const Mat3 r = rotation.toRotationMatrix();
    // atan2 keeps full precision near +-90 degrees, where asin(-R31) would lose half of the digits.
    const double pitch = std::atan2(-r(2, 0), std::hypot(r(0, 0), r(1, 0)));
    if (isGimbalLocked(rotation)) return {0.0, tidyDegrees(pitch), tidyDegrees(std::atan2(-r(0, 1), r(1, 1)))};
    return {tidyDegrees(std::atan2(r(2, 1), r(2, 2))), tidyDegrees(pitch), tidyDegrees(std::atan2(r(1, 0), r(0, 0)))};
}

std::string turnInWords(const Quat &rotation) {
    const auto angles = rollPitchYawFrom(rotation);
    auto shown = [](double angle_deg) { return std::round(angle_deg * 10.0) / 10.0; };
    const double roll = shown(angles.roll_deg), pitch = shown(angles.pitch_deg), yaw = shown(angles.yaw_deg);
    std::vector<std::string> words;
    if (std::abs(yaw) == 180.0)
        words.emplace_back("turned aft");
    else if (yaw != 0.0)
        words.push_back(fmt::format("turned {} {:g}°", yaw > 0 ? "left" : "right", std::abs(yaw)));
    if (pitch != 0.0) words.push_back(fmt::format("nose {} {:g}°", pitch > 0 ? "down" : "up", std::abs(pitch)));
    if (std::abs(roll) == 180.0)
        words.emplace_back("upside down");
    else if (roll != 0.0)
        words.push_back(fmt::format("{} side down {:g}°", roll > 0 ? "right" : "left", std::abs(roll)));
    if (words.empty()) return "level, facing forward";
    std::string text = words.front();
    for (std::size_t i = 1; i < words.size(); ++i) text += ", " + words[i];
    return text;
}

} // namespace waxis
