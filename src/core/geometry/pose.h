// Where a thing is and how it is turned.
// Body axes everywhere: x forward (nose), y left, z up; lengths in mm, angles in degrees.
#pragma once

#include <Eigen/Geometry>
#include <string>

namespace waxis {

using Vec2 = Eigen::Vector2d;
using Vec3 = Eigen::Vector3d;
using Mat3 = Eigen::Matrix3d;
using Quat = Eigen::Quaterniond;

/// Position of a child's own origin and its turn, both in the parent's axes.
struct Pose {
    Vec3 position_mm = Vec3::Zero();
    Quat rotation = Quat::Identity();

    Vec3 operator*(const Vec3 &p_Child) const { return rotation * p_Child + position_mm; }
    Pose operator*(const Pose &X_ChildGrandchild) const {
        return {(*this) * X_ChildGrandchild.position_mm, rotation * X_ChildGrandchild.rotation};
    }
    Pose inverse() const;
    bool operator==(const Pose &other) const {
        return position_mm == other.position_mm && rotation.coeffs() == other.rotation.coeffs();
    }
};

/// Roll about x, pitch about y, yaw about z in degrees, applied intrinsically z-y'-x'' (R = Rz(yaw) Ry(pitch)
/// Rx(roll)). With z up a positive pitch is nose down and a positive yaw a left turn.
struct RollPitchYaw {
    double roll_deg = 0, pitch_deg = 0, yaw_deg = 0;
    bool operator==(const RollPitchYaw &) const = default;
};

/// Unit quaternion of the angles, in canonical form (see canonical()).
Quat quaternionFrom(const RollPitchYaw &angles);

/// Angles of a rotation; pitch in [-90, 90], the others in (-180, 180]. At pitch = +-90 only the sum or difference
/// of roll and yaw is defined: roll is then 0 and all of it goes to yaw. Source: Diebel 2006; ISO 8855 has the
/// same axes.
RollPitchYaw rollPitchYawFrom(const Quat &rotation);

/// True where rollPitchYawFrom has to choose (pitch within 1e-5 degrees of +-90).
bool isGimbalLocked(const Quat &rotation);

/// q and -q are the same rotation: returns the one with w > 0 or, for w = 0, with the first non-zero of x, y, z
/// positive.
Quat canonical(const Quat &rotation);

/// The turn in words, as a builder says it: "nose up 20°, turned left 90°"; "level, arrow forward" for none.
std::string turnInWords(const Quat &rotation);

} // namespace waxis
