// Where a camera looks, and how it is tilted.
#pragma once

#include "core/build/build.h"

namespace waxis {

/// Where a camera stands and which way is up in its picture, at a tilt upwards from the level frame. The camera turns
/// about the y axis through its own origin: the screws in its sides.
struct CameraPose {
    Vec3 lens_mm = Vec3::Zero();
    Mat3 R_FrameCamera = Mat3::Identity(); ///< columns: along the lens axis, left, up
};
/// The tilt that the part has as it stands, degrees upwards.
double tiltOf(const PartType &type, const Pose &X_FramePart);
/// The part's pose turned to another tilt.
Pose tilted(const PartType &type, const Pose &X_FramePart, double tilt_deg);
CameraPose cameraPose(const PartType &type, const Pose &X_FramePart);

} // namespace waxis
