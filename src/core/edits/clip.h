// Copying parts within a build and from one to another: with how they are held and the wires between them.
#pragma once

#include "core/edits/part_edits.h"

namespace waxis {

/// The parts as a build of their own: their types, the wires that run between them, the stacks that lie wholly among
/// them, the frame that they stood on, and where they stood in its axes. Placement keeps the site's id as a wish.
/// Error: no such part, or none at all.
EditResult clipOf(const Build &build, const std::vector<std::string> &parts);

/// Puts what a clip holds into a build, `shift_mm` away from where it stood. New ids; fastenings and wires among the
/// copies lead to the copies, those to the frame stay where the frame has such a thing. A copy of a part on a motor
/// mount goes to the next free mount; one on another site stands free when that is not moved at all. The new ids are
/// appended to `added`. A type of the same id with other content comes in under an id of its own.
EditResult pasteClip(const Build &build, const Build &clip, const Vec3 &shift_mm, std::vector<std::string> *added);

} // namespace waxis
