// What may open an order that does not go: candidates, each tried as a whole before it is offered.
#pragma once

#include "core/findings/fix.h"

#include <string>
#include <vector>

namespace waxis {

/// The frame's screw put in from the other face of what it holds; nothing for what is no such screw.
std::vector<Fix> fromTheOtherFace(const Build &build, const std::string &screw);
/// The part turned by quarters about its own upright: its ports come out elsewhere. Nothing for what has to face some
/// way: antennas, cameras, GPS, lamps.
std::vector<Fix> turnedOnItsPlace(const Build &build, const std::string &part);
/// The part upside down on the other face of the plate that carries it; nothing for what rests on no plate, or is a
/// layer of a stack.
std::vector<Fix> onTheOtherSide(const Build &build, const std::string &part);
/// Each of these that is a post, shorter by 5 mm, where more than that is left.
std::vector<Fix> shorterPosts(const Build &build, const std::vector<std::string> &things);
/// The first part moved in the plane away from the second's middle by so much.
std::vector<Fix> movedAwayFrom(const Build &build, const std::string &part, const std::string &from, double by_mm);

} // namespace waxis
