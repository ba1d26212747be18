// The frame by hand, whatever made it: posts, hole patterns, slots, places, plates, the camera cage, hanging motors.
// Plates are drilled and slotted with what is added, and healed where something goes.
#pragma once

#include "core/edits/part_edits.h"

namespace waxis {

/// What a person can add to a frame.
enum class FrameThing {
    screw, ///< of the frame itself, through whatever lies there
    post,
    bobbin,
    stopper, ///< beside bobbins, 2 mm short of the soft plate above
    foot,
    pattern,
    strapPlace,
    facePlace,
    mast,
    slot,
    passThrough,
    plate,
    cameraCage
};

struct FrameWish {
    FrameThing thing = FrameThing::post;
    Vec2 at_mm = Vec2::Zero();
    std::string plate;               ///< that carries it; posts and bobbins: on which they stand
    HolePattern pattern;             ///< hole patterns
    Vec2 size_mm = Vec2(8, 16);      ///< slots and pass-throughs: along x and y
    std::optional<double> height_mm; ///< posts, bobbins, feet; none: up to the next plate above, else 25
    HoleEdge edge = HoleEdge::bare;  ///< pass-throughs
};

/// Adds it; the new id is put into `id`. Posts stand on the plate and drill it and the plate above; a strap place cuts
/// two slots beside it; a plate is a copy of `plate` so much above it (`height_mm`). Errors: no such plate, no material
/// there, a hole or slot over the edge or into another one: said with the distance that is missing.
EditResult addToFrame(const Build &build, const FrameWish &wish, std::string *id = nullptr);

/// Moves a post, site or pass-through in plan, its holes with it, and what hangs on it.
EditResult moveOnFrame(const Build &build, const std::string &id, const Vec2 &to_mm);

/// Takes a post, site or pass-through out and closes its holes; parts that sat there stay where they are, held by
/// nothing.
EditResult removeFromFrame(const Build &build, const std::string &id);

/// What an arm is across, of what, where and how it folds, what it weighs. Errors: walls that meet, a joint beyond the
/// tip, no such arm.
EditResult setArm(const Build &build, const Arm &arm);
EditResult setStandoff(const Build &build, const Standoff &standoff);
/// How far a soft plate sinks on its bobbins, as measured; unknown: nobody has. Errors: no such plate, a rigid one.
EditResult setPlateSag(const Build &build, const std::string &plate, const Measured &sag_mm);
/// Diameter and height of its propeller, spin, number, holes. Errors: no such mount, no diameter, flex below nothing.
EditResult setMotorMount(const Build &build, const MotorMount &mount);
EditResult setSite(const Build &build, const Site &site);
EditResult setPassThrough(const Build &build, const PassThrough &pass);

/// Whether a motor hangs under its arm (or plate): the mount goes to the other face, the blades below it, and what sits
/// on the mount is turned over with it.
EditResult hangMotor(const Build &build, const std::string &mount, bool hanging);

} // namespace waxis
