// Everything that is worked out about one stack: where its layers stand, what is between them, which screw, does it
// close.
#pragma once

#include "core/build/chain.h"
#include "core/stack/closing.h"
#include "core/stack/harness.h"
#include "core/stack/height_field.h"
#include "core/stack/screw_choice.h"

namespace waxis {

struct LayerReport {
    double free_mm = 0, tolerance_mm = 0;     ///< +- two sigma, of the height as clamped
    double standsUp_mm = 0, hangsDown_mm = 0; ///< boards: beyond the clamped board, away from the frame and towards it
    bool held = true;                         ///< lies between the heads and what the screws turn into
};

/// Between two things that face each other: boards, or a board and a plate.
struct StackGap {
    std::string below, above;           ///< ids of parts or plates, outwards
    double gap_mm = 0;                  ///< where they are closest
    double wires_mm = 0, sheets_mm = 0; ///< lying between
    FieldPiece lower, upper;
    Ring where;           ///< base axes
    bool toPlate = false; ///< one of them is a plate of the frame
    double air_mm() const { return gap_mm - wires_mm - sheets_mm; }
};

/// Bare metal of a board over a conducting plate, or by conducting hardware.
struct BareReport {
    std::string board, other;
    double air_mm = 0;
    bool sheet = false; ///< an insulating sheet lies between
    bool hardware = false;
    std::string what; ///< the bare piece
    Vec3 at_mm = Vec3::Zero();
};

struct DamperReport {
    int layer = 0;
    double free_mm = 0, clamped_mm = 0, squeeze = 0;
};

/// A male end in its thread: bottoms out before it clamps when `shim_mm` is more than nothing.
struct StudReport {
    int layer = 0;
    double stud_mm = 0, clamped_mm = 0, depth_mm = 0;
    double engagement_mm = 0, least_mm = 0;
    double shim_mm = 0; ///< thickness of shims that it needs
};

struct HiddenPlug {
    std::string board, port, under; ///< `under`: what it faces
};

struct ScrewReport {
    bool wanted = true; ///< held by screws
    ScrewTask task;
    std::optional<FastenerData> placed; ///< what the screws are now, cut as the stack says
    std::string material = "steel";     ///< of what is placed
    std::optional<ScrewOption> now;
    ScrewChoice choice;
    double tolerance_mm = 0; ///< of the grip, root of the sum of squares
    bool endMissing = false; ///< no nut, no threaded spacer at the far end
    double piece_g = 0;      ///< of one placed screw; 0: none
};

struct StackReport {
    std::string stack;
    StackChain chain;
    std::vector<LayerReport> layers;
    std::vector<StackGap> gaps; ///< neighbours first to last; others only where they are closer than the air wanted
    std::vector<BareReport> bare;
    std::vector<DamperReport> dampers;
    std::vector<StudReport> studs;
    std::vector<HiddenPlug> hidden;
    std::vector<Harness> harnesses;
    ScrewReport screw;
    // Under the plate above, where something of the stack comes closest to it.
    std::string plateAbove;   ///< empty: nothing above
    double plateAbove_mm = 0; ///< its near face over the base
    StackGap closest;
    std::string closestOwner;
    std::vector<Contribution> contributions;
    ClosingSums closing;
};

/// What a male end that bottoms out would have to be cut to, half a millimetre steps; 0: nothing of use would be left.
double cutStudTo_mm(const StudReport &stud);

/// None when the stack's base is missing.
std::optional<StackReport> reportOn(const Build &build, const Stack &stack, const Practice &practice);

/// Of one stack; null for a stack without a report.
const StackReport *reportOf(const std::vector<StackReport> &reports, const std::string &stack);

/// Every stack that stands, in the build's order.
std::vector<StackReport> stackReports(const Build &build, const Practice &practice);

/// Tolerance of a layer's height, mm +- two sigma: as stated, else the practice's for what it is; dampers less by what
/// the screws take.
double layerTolerance_mm(const Build &build, const StackLayer &layer, const Practice &practice);

} // namespace waxis
