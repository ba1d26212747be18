#include "core/sight/camera_pose.h"

#include "core/base/units.h"

#include <algorithm>
#include <cmath>

namespace waxis {

double tiltOf(const PartType &type, const Pose &X_FramePart) {
    const Vec3 axis = X_FramePart.rotation * (type.camera ? type.camera->axis : Vec3(Vec3::UnitX()));
    return degreesFromRadians(std::asin(std::clamp(axis.z() / axis.norm(), -1.0, 1.0)));
}

Pose tilted(const PartType &type, const Pose &X_FramePart, double tilt_deg) {
    // Positive turns about y lower the nose.
    const double down = tiltOf(type, X_FramePart) - tilt_deg;
    Pose pose = X_FramePart;
    pose.rotation = canonical(pose.rotation * Quat(Eigen::AngleAxisd(radiansFromDegrees(down), Vec3::UnitY())));
    return pose;
}

CameraPose cameraPose(const PartType &type, const Pose &X_FramePart) {
    const Camera camera = type.camera.value_or(Camera{});
    CameraPose pose;
    pose.lens_mm = X_FramePart * camera.lens_mm;
    const Vec3 ahead = camera.axis.normalized();
    // The picture's up is the part's, as far as it is square to the lens axis.
    Vec3 up = Vec3::UnitZ() - ahead.z() * ahead;
    if (up.squaredNorm() < 1e-9) up = Vec3::UnitX() - ahead.x() * ahead;
    up.normalize();
    Mat3 own;
    own << ahead, up.cross(ahead), up;
    pose.R_FrameCamera = X_FramePart.rotation.toRotationMatrix() * own;
    return pose;
}

} // namespace waxis
