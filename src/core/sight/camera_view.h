// What stands in a camera's picture.
#pragma once

#include "core/build/build.h"
#include "core/sight/camera_pose.h"
#include "core/sky/sky_view.h"

namespace waxis {

/// Directions of a picture, row by row from its top left corner. Wide lenses are taken as equidistant (the angle off
/// the axis grows evenly towards the edge), so that a share of the picture is a share of its pixels.
struct Picture {
    int columns = 0, rows = 0;
    std::vector<Vec3> directions; ///< in the camera's axes: x along the lens axis, y left, z up
};
Picture pictureOf(double horizontalView_deg, double verticalView_deg, int columns);

struct CameraView {
    double tilt_deg = 0;
    double hidden = 0;           ///< share of the picture, without propellers
    double propellers = 0;       ///< share of the picture in which a propeller turns
    std::vector<HiddenShare> by; ///< largest first; propellers' discs by the motor mount's id
    std::vector<int> owner;      ///< per pixel; -1 free
};

/// The blades' plane, thin, as the camera sees it; flexing room is not drawn in the picture.
/// Indices beyond the world's bodies are discs, by motor mount.
struct CameraWorld {
    RayWorld rays;
    std::vector<int> ownerOf; ///< of each body handed to the rays
};
CameraWorld cameraWorld(const Build &build, const Scene &scene, int loadCase, int self);

CameraView cameraView(const CameraWorld &world, const Scene &scene, const Picture &picture, const CameraPose &pose);

/// How far the lens stands out of what protects it when the craft drops on its nose: over all planes that meet the
/// craft from ahead, between 60 degrees from above and from below, how much sooner the lens touches than frame and
/// brackets do. Negative: it is covered. None without any frame.
std::optional<double> lensOvershoot_mm(const Build &build, const Scene &scene, int self, const Vec3 &lens_mm);

} // namespace waxis
