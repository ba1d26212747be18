#include "core/attitude/mounting_angles.h"

#include "core/base/units.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace waxis {

const std::array<RollPitchYaw, 24> &quarterTurns() {
    static const std::array<RollPitchYaw, 24> all = [] {
        std::array<RollPitchYaw, 24> turns;
        std::size_t n = 0;
        for (double roll : {0.0, 180.0, 90.0, -90.0})
            for (double yaw : {0.0, 90.0, 180.0, -90.0}) turns[n++] = {roll, 0, yaw};
        for (double pitch : {90.0, -90.0})
            for (double yaw : {0.0, 90.0, 180.0, -90.0}) turns[n++] = {0, pitch, yaw};
        return turns;
    }();
    return all;
}

RollPitchYaw forwardRightDown(const RollPitchYaw &up) {
    auto negated = [](double angle) { return angle == 0 ? 0.0 : angle == 180 ? 180.0 : -angle; };
    return {up.roll_deg, negated(up.pitch_deg), negated(up.yaw_deg)};
}

MountingAngles mountingAngles(const Vec3 &arrow, const Quat &R_FramePart) {
    // The module's own axes: x along its arrow, z out of its top.
    Vec3 x = arrow - arrow.z() * Vec3::UnitZ();
    if (x.squaredNorm() < 1e-12) x = Vec3::UnitX();
    x.normalize();
    Mat3 own;
    own << x, Vec3::UnitZ().cross(x), Vec3::UnitZ();
    const Quat turn = canonical(R_FramePart * Quat(own));
    MountingAngles angles;
    angles.up = rollPitchYawFrom(turn);
    angles.down = forwardRightDown(angles.up);
    angles.gimbalLocked = isGimbalLocked(turn);
    double least = 1e300;
    for (const auto &quarter : quarterTurns()) {
        const double off = degreesFromRadians(turn.angularDistance(quaternionFrom(quarter)));
        if (off < least - 1e-6) {
            least = off;
            angles.nearest = quarter;
        }
    }
    angles.offNearest_deg = least < 1e-4 ? 0 : least; // arccos near 1 is good to that
    const Mat3 r = turn.toRotationMatrix();
    angles.topTilt_deg = degreesFromRadians(std::acos(std::clamp(r(2, 2), -1.0, 1.0)));
    if (std::hypot(r(0, 0), r(1, 0)) > 1e-6) angles.headingOff_deg = degreesFromRadians(std::atan2(r(1, 0), r(0, 0)));
    angles.inWords = turnInWords(quaternionFrom(angles.nearest));
    return angles;
}

Quat compassRotation(const PartType &type, const Quat &R_FramePart) {
    if (!type.magnetics) return R_FramePart;
    const Quat turn(Eigen::AngleAxisd(radiansFromDegrees(type.magnetics->compassTurn_deg), Vec3::UnitZ()));
    const Quat back(Eigen::AngleAxisd(type.magnetics->compassOnItsBack ? std::numbers::pi : 0.0, Vec3::UnitX()));
    return (R_FramePart * turn * back).normalized();
}

RollPitchYaw otherTriple(const RollPitchYaw &angles) {
    const auto wrapped = [](double deg) { return deg - 360 * std::ceil((deg - 180) / 360); };
    return {wrapped(angles.roll_deg + 180), wrapped(180 - angles.pitch_deg), wrapped(angles.yaw_deg + 180)};
}

} // namespace waxis
