// The frame's own screws by hand.
#pragma once

#include "core/build/edit_result.h"
#include "core/build/frame.h"

namespace waxis {

/// All that the frame lacks (core/build/frame_screws.h). Errors: it lacks none.
EditResult addMissingScrews(const Build &build);

/// One screw at a place in plan, from below, through whatever lies there one on the other, into a post or a nut. The
/// new id is put into `id`. Errors: nothing lies there.
EditResult addFrameScrew(const Build &build, const Vec2 &at_mm, std::string *id = nullptr);

/// Its place, length, head, nut, thread, side. What it goes through is looked up anew where place or side change.
/// Errors: no such screw, an unknown thread, a head that is not made in that size, nothing to hold there.
EditResult setFrameScrew(const Build &build, const FrameScrew &screw);

/// A part's bracket is held by a screw of the frame, under its head, instead of by one of its own. Errors: no such
/// screw or part.
EditResult shareFrameScrew(const Build &build, const std::string &screw, const std::string &part, bool shares);
/// Ids of parts held by screws that have a hole on this screw's axis (or stand over it where their holes are not
/// known), and of those that share it already.
std::vector<std::string> mayShare(const Build &build, const FrameScrew &screw);

/// The same for all screws that are like it: thread, head, nut, side, length and the kinds of what they go through.
std::vector<std::string> likeScrews(const Frame &frame, const FrameScrew &screw);

} // namespace waxis
