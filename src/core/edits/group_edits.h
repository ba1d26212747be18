// Edits of several parts together: align, distribute, mirror, copy round the arms.
#pragma once

#include "core/edits/part_edits.h"

namespace waxis {

enum class AlignTo { low, middle, high }; ///< along x: aft, middle, forward; y: right, left; z: bottom, top

/// Lines the parts' bounds up along an axis (0 x, 1 y, 2 z) with those of the first one. Pinned parts stay.
EditResult alignParts(const Build &build, const std::vector<std::string> &parts, int axis, AlignTo to);

/// Spreads the parts so that their middles stand at even steps between the two outermost. Needs three.
EditResult distributeParts(const Build &build, const std::vector<std::string> &parts, int axis);

/// Puts the parts on the other side of the centre line, each turned as it would look in a mirror that can only turn: a
/// board keeps its upper side up. What sat on a site leaves it unless a site stands there.
EditResult mirrorParts(const Build &build, const std::vector<std::string> &parts);

/// Adds copies on the other side; parts on the centre line have none. The new ids are appended to `added`.
EditResult mirrorCopies(const Build &build, const std::vector<std::string> &parts, std::vector<std::string> *added);

/// Adds copies of a part fastened onto an arm (or seated on its motor mount) to all other arms, at the same distance
/// from the arm's root, height and side.
EditResult copyToOtherArms(const Build &build, const std::string &part, std::vector<std::string> *added);

/// Turns the part upside down about the frame's x. What stands or hangs keeps its lowest point where it was, so that a
/// pack on its plate stays on the plate; in a stack the layers give the height.
EditResult overturnPart(const Build &build, const std::string &part);

EditResult shiftParts(const Build &build, const std::vector<std::string> &parts, const Vec3 &shift_mm);
EditResult removeParts(const Build &build, const std::vector<std::string> &parts);

/// How a part is fastened, and onto what. All ids must exist.
EditResult fastenPart(const Build &build, const std::string &part, const Fastening &fastening);

/// Moves a plate with its standoffs' and sites' heights left alone: everything that is fastened onto it or sits on its
/// sites goes along.
EditResult shiftPlate(const Build &build, const std::string &plate, const Vec3 &shift_mm);

} // namespace waxis
