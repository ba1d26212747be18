// Inside the clearance module: one pair at a time, with the FCL geometry made once per body.
#pragma once

#include "core/clearance/clearance_world.h"

#include <fcl/narrowphase/collision_object.h>
#include <fcl/narrowphase/distance.h>

namespace waxis::clearance {

using FclGeometry = std::shared_ptr<fcl::CollisionGeometryd>;

FclGeometry fclGeometry(const Shape &shape);
fcl::Transform3d fclTransform(const Pose &pose);

/// measureGap without depth and freeing move.
BodyGap distanceBetween(const Body &a, const FclGeometry &geometryA, const Body &b, const FclGeometry &geometryB);
bool overlaps(const Body &a, const FclGeometry &geometryA, const Body &b, const FclGeometry &geometryB);
Vec3 shortestWayOut(const Body &a, const FclGeometry &geometryA, const Body &b, const FclGeometry &geometryB);

} // namespace waxis::clearance
