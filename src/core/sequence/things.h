// What is put in as one, what it rests on, and along which ways it may leave.
#pragma once

#include "core/build/build.h"
#include "core/scene/scene.h"

#include <string>
#include <vector>

namespace waxis {

/// A thing that is put in as one: a part, or a member of the frame.
struct Thing {
    int owner = 0; ///< in Scene::owners
    std::string id;
    bool fastener = false;    ///< goes in after all that it holds
    bool turned = false;      ///< a screw: a driver turns it in
    bool held = false;        ///< a nut: a spanner or a socket holds it
    bool atTheEnd = false;    ///< propellers, and what goes onto them: after everything else that may wait
    std::vector<int> restsOn; ///< things that are there before it: of fasteners all they go through, else its carrier
    std::vector<Vec3> ways;   ///< unit vectors along which it may leave, the likeliest first; frame axes
};

/// All that is aboard in a load case, discs left out, by their owners in the scene.
std::vector<Thing> thingsOf(const Build &build, const Scene &scene, int loadCase);

/// What all else goes onto: the lowest plate of the rigid frame; null: there is none.
const Plate *basePlate(const Frame &frame);

} // namespace waxis
