// Where the layers of a stack stand: the one chain of poses that drawings, clearances, masses and checks share.
#pragma once

#include "core/build/build.h"

namespace waxis {

/// A layer along its stack's z, mm over the base face. What only lies in a gap (wires, sheets) has from = to.
struct LayerSpan {
    double from_mm = 0, to_mm = 0;
};

struct StackChain {
    Pose X_FrameBase; ///< base face: z outwards
    std::vector<LayerSpan> spans;
    double bottom_mm = 0, top_mm = 0; ///< of the clamped column
    double frame_mm = 0;              ///< thickness of the frame layer
};

/// None when what the stack stands on is not there, or stands on itself.
std::optional<StackChain> chainOf(const Build &build, const Stack &stack);

/// Which stack a part belongs to and where in it: `layer` is -1 for its screws.
struct StackPlace {
    const Stack *stack = nullptr;
    int layer = -1, index = 0;
};
/// None for parts that are not fastened by a stack (FasteningMethod::stack) or stand in no layer.
std::optional<StackPlace> stackPlaceOf(const Build &build, const Part &part);

/// Pose that the chain gives a part, and how much its solids are drawn out or squeezed along their own z.
struct StackSeat {
    Pose X_FramePart;
    double stretch = 1;
    double kept = 1; ///< share of the piece that is left after cutting
};
std::optional<StackSeat> stackSeatOf(const Build &build, const Part &part);

/// The seats of all parts at once, by their index; none for parts that lie in no stack. Equal to stackSeatOf of each,
/// but every chain is walked once.
using StackSeats = std::vector<std::optional<StackSeat>>;
StackSeats stackSeats(const Build &build);

/// framePose and placedSolids for a seat that is known already.
Pose framePoseAt(const Build &build, const Part &part, const std::optional<StackSeat> &seat);
std::vector<Solid> solidsAt(const PartType &type, const std::optional<StackSeat> &seat);

/// The solids of a part as they stand in the build: dampers squeezed, cut; everything else as its type has them.
std::vector<Solid> placedSolids(const Build &build, const Part &part);

/// The part's type as it stands in the build: itself, or `own` filled with placedSolids where a stack changes it.
const PartType &placedType(const Build &build, const Part &part, const PartType &type, PartType &own);

/// What of a type is clamped between its neighbours, along its own z: the board; a fastener's or damper's first solid;
/// an adapter's plate; of a closed unit what stands at its mounting holes.
LayerSpan clampedSpan(const PartType &type);

/// Height that the layer takes in the column, mm: measured or natural height, cut, squeezed; 0 for what only lies
/// there. The frame's layer has none of its own.
double layerHeight_mm(const Build &build, const StackLayer &layer);
/// The same before the screws squeeze it.
double freeHeight_mm(const Build &build, const StackLayer &layer);

/// The type of what lies in a layer; null for layers without parts.
const PartType *layerType(const Build &build, const StackLayer &layer);

bool liesOnly(LayerRole role);   ///< wires, sheets
bool isHardware(LayerRole role); ///< one piece per hole
/// Whether a sheet carries what lies on it: no hardware and no air between its neighbours on both sides, a board stuck
/// flat on its insulation. It then has its height in the column.
bool sheetCarries(const Stack &stack, int layer);

const Stack *findStack(const Build &build, const std::string &id);
/// Index of the frame's layer; -1 when there is none (loaders and edits refuse that).
int frameLayer(const Stack &stack);
/// The hole pattern that the stack stands on; null when its base has none.
const HolePattern *patternOf(const Build &build, const Stack &stack);
/// The plate or arm under the base face, and the one on whose far face the column ends. Empty for stacks on a part.
std::string carrierOf(const Build &build, const Stack &stack);
std::string throughOf(const Build &build, const Stack &stack);

} // namespace waxis
