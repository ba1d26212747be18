// Plates and drill templates out, at 1:1 in millimetres.
#pragma once

#include "core/build/frame.h"

#include <string>

namespace waxis {

enum class PlateSheet {
    outlines,     ///< what a cutter needs: outlines, holes, cut-outs
    drillTemplate ///< the same with a cross through each hole, its diameter, and a ruler to check the print by
};

/// Frame's plates as DXF (R12, closed polylines with round holes as circles, $INSUNITS = mm), one layer per plate,
/// named by its id, in the frame's axes: x to the nose, y to the left. Arms follow on a layer each, with their motor's
/// holes.
std::string platesAsDxf(const Frame &frame, PlateSheet sheet = PlateSheet::outlines);

/// The same as SVG in millimetres, the plates side by side, the nose to the right.
std::string platesAsSvg(const Frame &frame, PlateSheet sheet = PlateSheet::outlines);

/// What is cut for the frame: its plates, then its arms with a pad round each motor, its screw holes and room for its
/// shaft. (The model weighs arms as plain bars.)
std::vector<Plate> cutPlates(const Frame &frame);

} // namespace waxis
