// Changing the frame under a build: what was made by the generator is made anew, what a person changed or added stays,
// and what hangs on a member that moved goes with it.
#pragma once

#include "core/edits/part_edits.h"
#include "core/layout/layout.h"

namespace waxis {

/// Whether the frame's layout and parameters are the generator's, so that it can be edited by them.
bool isGenerated(const Frame &frame);

/// The frame with other parameters (or another layout). Members that differ from what the old parameters gave were
/// changed by hand and stay as they are; members that the generator does not know stay; what was removed stays away.
/// A frame that no generator made is replaced. Mounting sites keep their ids, so that what sits on them follows.
EditResult relayout(const Build &build, LayoutKind kind, const LayoutValues &values);

/// One parameter of a generated frame.
EditResult setLayoutValue(const Build &build, const std::string &parameter, double value);

/// Moves one motor in plan with the arm's tip below it, whatever made the frame; the arm's root stays.
EditResult moveMotor(const Build &build, const std::string &mount, const Vec2 &position_mm);

/// Makes every arm longer by so much along its own direction, motors and all that hangs on it included.
EditResult extendArms(const Build &build, double by_mm);

/// Puts another frame under the build: parts on sites and mounts that are no longer there keep their place in space.
EditResult replaceFrame(const Build &build, const Frame &frame);

/// Changes one plate: outline, holes, height, thickness, material. The outline must be sound.
EditResult setPlate(const Build &build, const Plate &plate);
EditResult removePlate(const Build &build, const std::string &plate);

} // namespace waxis
