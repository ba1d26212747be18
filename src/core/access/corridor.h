// The room that a plug, a card or a finger needs before a port.
#pragma once

#include "core/clearance/clearance_world.h"
#include "core/practice/practice.h"
#include "core/scene/scene.h"

namespace waxis {

struct Corridor {
    Body body;                       ///< a box, one end on the port; owner -1
    Vec3 fullSize_mm = Vec3::Zero(); ///< along the port's direction, across, in height
    bool stated = false;             ///< by the part type; else the usual size for that kind of port
};

/// Room of plug body and first bend, mm: as the type states, else by the kind of port (common practice, no source).
/// Zero for ports that nothing goes into.
Vec3 plugRoom_mm(const Port &port);

/// Where a plug goes. `withHand`: a person must reach it, so that plugs and cards need room for finger and thumb beside
/// them, USB the length of a plug with its cable bent, and a button that of a pin.
Corridor corridorOf(const Port &port, const Pose &X_FramePart, bool withHand, const Practice &practice);

/// Owners with firm bodies inside the corridor that are aboard in the load case, each once. The port's own part, soft
/// and flexible things, discs and what `holdsOthers` do not count. Bodies may reach in by `slack_mm`.
std::vector<int> blockersOf(const Corridor &corridor, const Scene &scene, int self, int loadCase, double slack_mm);

} // namespace waxis
