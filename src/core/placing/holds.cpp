#include "core/placing/holds.h"

#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"

#include <algorithm>

namespace waxis {

namespace {

std::vector<Body> bodiesOf(const Build &build, const std::string &id) {
    std::vector<Body> bodies;
    if (const Part *part = findPart(build, id)) {
        const Pose pose = framePose(build, *part);
        for (const auto &solid : placedSolids(build, *part))
            bodies.push_back({0, solid.shape, pose * solid.X_PartSolid, 0});
        return bodies;
    }
    for (const auto &plate : build.frame->plates)
        if (plate.id == id) bodies.push_back({1, plateShape(plate), platePose(plate), 0});
    for (const auto &arm : build.frame->arms)
        if (arm.id == id) bodies.push_back({1, armShape(arm), armPose(arm), 0});
    for (const auto &post : build.frame->standoffs)
        if (post.id == id) bodies.push_back({1, standoffShape(post), standoffPose(post), 0});
    return bodies;
}

} // namespace

bool touchesItsHolder(const Build &build, const Part &part, double reach_mm) {
    if (stackPlaceOf(build, part)) return true;
    if (part.fastening.method == FasteningMethod::none) return false;
    std::vector<std::string> holders = part.fastening.onto;
    for (const auto &site : build.frame->sites)
        if (site.id == part.placement.site && !site.on.empty()) holders.push_back(site.on);
    const auto own = bodiesOf(build, part.id);
    return std::any_of(holders.begin(), holders.end(), [&](const std::string &id) {
        for (const auto &other : bodiesOf(build, id))
            for (const auto &body : own) {
                if (boxGap(boundsOf(body.shape, body.X_FrameBody), boundsOf(other.shape, other.X_FrameBody)) > reach_mm)
                    continue;
                if (measureGap(body, other).distance_mm <= reach_mm) return true;
            }
        return false;
    });
}

} // namespace waxis
