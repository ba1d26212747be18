// Arms that fold: the build as it is carried.
#pragma once

#include "core/build/build.h"

namespace waxis {

/// One folding arm and what goes with its outer part.
struct FoldingArm {
    std::string arm;
    Vec3 joint_mm = Vec3::Zero();                  ///< on the arm's top centre line; under it for arms that fold down
    Vec3 axis = Vec3::UnitZ();                     ///< of the joint
    double angle_deg = 0;                          ///< when folded, right-handed about the axis
    std::vector<std::string> mounts, sites, parts; ///< ids of what the outer part carries
};

/// Arms with a joint inside their length. Parts are carried when they sit on a carried mount or site, or are fastened,
/// directly or through others, first of all onto the arm and lie beyond its joint.
std::vector<FoldingArm> foldingArms(const Build &build);

/// Turn of the arm's outer part about its joint at a fraction of the way: 0 unfolded, 1 folded.
Pose foldMotion(const FoldingArm &arm, double fraction);

/// The id of the arm piece that stays when an arm is drawn folded.
std::string innerPieceId(const std::string &arm);

/// The build with its arms that far folded: a folding arm becomes two pieces (the outer one keeps its id), and what
/// hangs on it stands where it then is. Fraction 0 gives the build itself.
Build foldedBuild(const Build &build, double fraction);

/// The least angle through which the arm would have to turn to lie along the body, aft: what is taken when none is
/// stated.
double usualFoldAngle_deg(const Arm &arm);

} // namespace waxis
