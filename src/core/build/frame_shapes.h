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
/// A hollow arm with holes in its walls: lengths of its section with the wall open there, each hole a square of the
/// same area. Empty for an arm without holes, which armShape says alone.
std::vector<std::pair<Shape, Pose>> armWalls(const Arm &arm);
/// Its holes as discs in the wall's outer face, for drawing.
std::vector<std::pair<Shape, Pose>> armMouths(const Arm &arm);
/// What its holes take away of an arm's walls, mm3.
double armHoles_mm3(const Arm &arm);
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

/// Room above and below the blades' middle for their thickness and flex, as given for propellers of one diameter, mm.
struct BladeRoom {
    double up_mm = 0, down_mm = 0, for_mm = 0;
};
/// The same for one mount: as it states, else in proportion to its propeller (a tip bends by a share of the blade's
/// length), from two fifths to three times as much.
BladeRoom bladeRoomOf(const MotorMount &mount, const BladeRoom &usual);

/// The propeller's zone: the disc with that room.
Shape discShape(const MotorMount &mount, const BladeRoom &usual);
Pose discPose(const MotorMount &mount, const BladeRoom &usual);

/// Middle of the propeller in the frame's axes.
inline Vec3 propCentre_mm(const MotorMount &mount) { return mount.position_mm + mount.axis * mount.propPlane_mm; }

/// Whether a motor hangs under its arm: its blades lie below its foot.
inline bool hangs(const MotorMount &mount) { return mount.propPlane_mm * mount.axis.z() < 0; }
/// Which way the motor turns for somebody who looks at the end of its shaft, as a nut on it does.
inline Spin spinAtShaft(const MotorMount &mount) { return hangs(mount) ? opposite(mount.spin) : mount.spin; }

/// Centroid of the motor axes in plan and mean height of the propellers; zero without motors.
Vec3 thrustCentre_mm(const Frame &frame);

/// The part's box in the frame's axes over its firm solids; its own origin without any.
Aabb partBounds(const Build &build, const Part &part);

} // namespace waxis
