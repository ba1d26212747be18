// Every change of a stack, as functions Build -> Build.
#pragma once

#include "core/build/chain.h"
#include "core/edits/part_edits.h"

namespace waxis {

/// A stack of nothing but the frame on a site (with a pattern) or an adapter plate; its id is put into `id`.
EditResult addStack(const Build &build, const std::string &on, const std::string &name, std::string *id = nullptr);

/// A stack made of what stands on a site already: boards that are screwed or stacked there and hardware at the holes,
/// ordered by height, air between them as gaps; placed screws become its screws. Error: nothing stands there.
EditResult gatherStack(const Build &build, const std::string &site, const std::string &name, std::string *id = nullptr);

/// A stack under the plate that carries an upright site: a site turned over is made for it on the plate's underside.
EditResult addHangingStack(const Build &build, const std::string &site, std::string *id = nullptr);

/// Takes the stack apart: boards stay on their site at the height they had, hardware is removed.
EditResult removeStack(const Build &build, const std::string &stack);

/// Puts the layer `from` in the place of `to`; those between move up. The frame's layer too: what is under it hangs
/// there.
EditResult moveLayer(const Build &build, const std::string &stack, int from, int to);

/// Takes a layer out. Hardware goes; a board stays in the build, where it stands, fastened to nothing.
EditResult removeLayer(const Build &build, const std::string &stack, int layer);

/// One piece of a fastener or damper type at each hole. The type comes into the build.
EditResult addHardware(const Build &build, const std::string &stack, int at, const PartType &type);
/// A part of the build that stands in no stack.
EditResult addBoard(const Build &build, const std::string &stack, int at, const std::string &part);
/// A new part of a type.
EditResult addBoard(const Build &build, const std::string &stack, int at, const PartType &type);
/// Air, wires or a sheet, mm high.
EditResult addFiller(const Build &build, const std::string &stack, int at, LayerRole role, double height_mm);

/// Other pieces in a layer of hardware.
EditResult changeHardware(const Build &build, const std::string &stack, int layer, const PartType &type);

/// Measured height (unknown: as the parts have it; fillers need one), squeeze and cut of a layer.
EditResult setLayer(const Build &build, const std::string &stack, int layer, const Measured &height_mm, double squeeze,
                    std::optional<double> cutTo_mm);

/// Turns the board's other face up, about its own x, so that its arrow keeps its direction in plan.
EditResult flipBoard(const Build &build, const std::string &stack, int layer);
/// Turns the board about the column, degrees to the left.
EditResult turnBoard(const Build &build, const std::string &stack, int layer, double angle_deg);

/// Screws of a size and material at all holes.
EditResult chooseScrew(const Build &build, const std::string &stack, const FastenerData &screw,
                       const std::string &material);
/// Ties or a strap round the column instead of screws: screws, nuts and washers go.
EditResult holdStack(const Build &build, const std::string &stack, StackHold hold);

struct StackBase {
    std::string name, through;
    bool headsOutside = false;
    ScrewEnd end = ScrewEnd::nut;
    Measured threadDepth_mm;
    double cut_mm = 0;    ///< off the ends of the screws
    Measured sag_mm = {}; ///< on its dampers
};
EditResult setStackBase(const Build &build, const std::string &stack, const StackBase &base);

/// The role that a part's kind plays in a column; none for what has no place there.
std::optional<LayerRole> roleOf(const PartType &type);

} // namespace waxis
