// How the plates of a drawing lie on one another in the frame: shifted and turned onto the main plate.
#pragma once

#include "core/recognise/recognise.h"

namespace waxis {

bool isChosen(const DrawingChoices &choices, std::size_t plate);
/// The main plate, else the largest that is chosen; the number of plates when none is.
std::size_t basePlate(const Recognition &found, const DrawingChoices &choices);
/// Where a plate is held to the others, in the drawing: its stack pattern, else the middle of its motors, else its own
/// middle.
Vec2 anchorOf(const FoundPlate &plate);

/// How far each found plate goes to lie as in the frame, in the drawing's axes, mm; nought for the main plate. What was
/// drawn beside it is laid on by the holes that both have, else by their anchors.
std::vector<Vec2> plateShifts(const Recognition &found, const DrawingChoices &choices);
/// The shift near a wanted one (within `reach_mm`) that lays a hole of the plate on one like it of the main plate; the
/// wanted one where there is none.
Vec2 snapShift(const Recognition &found, const DrawingChoices &choices, std::size_t plate, const Vec2 &wanted_mm,
               double reach_mm);

/// A plate as if it had been drawn turned by `angle_deg`, anticlockwise about its own middle.
FoundPlate turnedPlate(FoundPlate plate, double angle_deg);
/// Turns a plate of a recognition to `to_deg` from how it was drawn, with its faults; the choice remembers it.
void turnPlate(Recognition &found, DrawingChoices &choices, std::size_t plate, double to_deg);
/// Cutters nest plates as they fit the sheet: what was drawn beside the main plate, and has more holes in common with
/// it after a quarter, half or three quarters of a turn, is turned so. Equal counts leave it as drawn.
void turnByHoles(Recognition &found, DrawingChoices &choices);

} // namespace waxis
