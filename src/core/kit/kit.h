// What is in the box: needed against in hand, weighed, measured, marks read.
#pragma once

#include "core/build/build.h"
#include "core/catalog/part_type.h"
#include "core/practice/practice.h"

namespace waxis {

enum class KitKind { part, plate, arm, standoff, hardware };

/// One line of the tray list: a part type, or like pieces of the frame.
struct KitLine {
    std::string item; ///< part type id, plate id, "standoff-M3-25-5", "arm-13x5-118"
    std::string name;
    KitKind kind = KitKind::part;
    Family family = Family::structure;
    int needed = 0; ///< placed in the build, all load cases together
    std::optional<int> inHand;
    bool checked = false;
    Measured catalogueMass_g, weighedMass_g; ///< of one piece
    std::optional<Vec3> catalogueSize_mm, measuredSize_mm;
    bool hasArrow = false, arrowConfirmed = false;
    bool hasPins = false, pinsConfirmed = false; ///< plugs with three or more named pins
    std::string note;
    std::vector<std::string> members; ///< ids of the parts or frame pieces that it stands for

    int missing() const { return inHand && *inHand < needed ? needed - *inHand : 0; }
    int spare() const { return inHand && *inHand > needed ? *inHand - needed : 0; }
};

/// Lines of everything that the build needs or that lies in the box, parts by family and name, then the frame, then
/// what holds parts and is not drawn (core/kit/holding).
std::vector<KitLine> kitLines(const Build &build, const Practice &practice);

/// What such a line is called: a part type, a piece of the frame, a screw, tape, tie or strap; empty: there can be
/// none.
std::string kitItemName(const Build &build, const std::string &item);

struct KitTotals {
    int kinds = 0, kindsCounted = 0, kindsChecked = 0;
    int piecesNeeded = 0, piecesInHand = 0, piecesMissing = 0, piecesSpare = 0; ///< in hand: of what is needed
    double weighed_g = 0, unweighed_g = 0; ///< of the pieces needed; known masses only
    int massUnknown = 0;                   ///< kinds needed without any mass
};
KitTotals kitTotals(const std::vector<KitLine> &lines);

/// The kit item of a frame piece.
std::string kitItemOf(const Standoff &standoff);
std::string kitItemOf(const Arm &arm);

/// Overall size of a type's firm solids, mm along its own axes; none without solids.
std::optional<Vec3> overallSize_mm(const PartType &type);

} // namespace waxis
