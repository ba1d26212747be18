// The solids that frame members stand for; drawings, masses and clearances all use these.
#pragma once

#include "core/build/build.h"
#include "core/geometry/solid.h"

namespace waxis {

/// A solid arm as a box, a hollow one as its section with the hole in it; its top centre line runs from root to tip.
Shape armShape(const Arm &arm);
Pose armPose(const Arm &arm);
/// In the middle of the arm: x along it outwards, y across, z up.
Pose armAxes(const Arm &arm);
/// Length, width, thickness.
Vec3 armSize_mm(const Arm &arm);
/// What its folding joint adds to an arm that is computed from its size, g; 0 where it does not fold.
inline double jointMass_g(const Arm &arm) { return arm.foldJoint_mm ? arm.hinge_g.value_or(0) : 0; }
/// What a wall makes of an arm: whether there is room in it.
inline bool isHollow(const Arm &arm) { return arm.section != ArmSection::bar && arm.wall_mm > 0; }

Shape standoffShape(const Standoff &standoff);
Pose standoffPose(const Standoff &standoff);

/// Outline with cut-outs and round holes; circles become polygons of the same area.
Polygon platePolygon(const Plate &plate);
Shape plateShape(const Plate &plate);
inline Pose platePose(const Plate &plate) { return {Vec3(0, 0, plate.z_mm), Quat::Identity()}; }

/// The propeller's zone: the disc with the room that blade thickness and flex need above and below, mm.
Shape discShape(const MotorMount &mount, double flexUp_mm, double flexDown_mm);
Pose discPose(const MotorMount &mount, double flexUp_mm, double flexDown_mm);

/// Middle of the propeller in the frame's axes.
inline Vec3 propCentre_mm(const MotorMount &mount) { return mount.position_mm + mount.axis * mount.propPlane_mm; }

/// Centroid of the motor axes in plan and mean height of the propellers; zero without motors.
Vec3 thrustCentre_mm(const Frame &frame);

/// The part's box in the frame's axes over its firm solids; its own origin without any.
Aabb partBounds(const Build &build, const Part &part);

} // namespace waxis
