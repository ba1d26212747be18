// What the frame's own screws go through, and which ones a frame usually takes.
#pragma once

#include "core/build/frame.h"
#include "core/geometry/solid.h"

#include <map>

namespace waxis {

struct Build;

/// Thickness of the parts that share a screw of the frame (a bracket under its head or nut), mm, by part.
using Brackets = std::map<std::string, double>;
/// Those that some screw of the frame goes through: the part's board, else what stands round the holes of its pattern,
/// else its thinnest firm solid.
Brackets bracketsOf(const Build &build);

/// From `low` to `high` mm of a plate, arm or post at a place in plan; none where it does not stand there or is not of
/// this frame.
struct Upright {
    double low_mm = 0, high_mm = 0;
};
std::optional<Upright> uprightOf(const Frame &frame, const std::string &member, const Vec2 &at_mm);

/// What a screw finds on its way, as the frame stands now.
struct ScrewColumn {
    double headFace_mm = 0; ///< height of the face under the head
    double up = 1;          ///< +1: the screw points upwards, -1: downwards
    double grip_mm = 0;     ///< from under the head to the far face of what it goes through
    double air_mm = 0;      ///< the widest gap between two of these, the thread included
    std::string afterAir;   ///< what stands beyond that gap
    double thread_mm = 0;   ///< height of the post whose thread it enters; 0: a nut
    std::string missed;     ///< what the axis does not go through; empty: all there
    std::string narrow;     ///< whose hole the screw does not pass; empty: none
    double hole_mm = 0;     ///< that hole; 0: there is none
    Vec3 end_mm() const { return {at_mm.x(), at_mm.y(), headFace_mm + up * grip_mm}; }
    Vec2 at_mm = Vec2::Zero();
};
/// Brackets named before the first member of the frame lie under the head, others under the nut.
ScrewColumn columnOf(const Frame &frame, const FrameScrew &screw, const Brackets &brackets = {});

/// Head and nut as bodies; of sizes that are not made, the cap head or plain nut. No second one for a screw in a
/// thread.
std::vector<std::pair<Shape, Pose>> bodiesOf(const Frame &frame, const FrameScrew &screw,
                                             const Brackets &brackets = {});

/// Whether a screw passes a post instead of turning into it: its bore clears the thread.
bool isPlain(const Standoff &post);

/// The screws that hold a frame together and are not in it yet, ids free among its members: two or what the holes allow
/// through each arm between its plates, one into each end of each post that has a plate there, one into each foot.
/// Where a post stands over an arm's hole, one long screw for both. Bobbins have studs and nuts of their own. Only
/// where plates have a hole that is no hole of a place for parts.
std::vector<FrameScrew> missingScrews(const Frame &frame);

/// Screws forget members and parts that are gone; those that hold nothing of the frame any more, or whose thread is
/// gone, go too.
void tidyScrews(Build &build);

} // namespace waxis
