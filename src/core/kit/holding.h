// What holds a part: the one answer that kit list, bill, masses, screw rules, savings and the inspector read.
#pragma once

#include "core/build/build.h"
#include "core/practice/practice.h"

#include <string_view>

namespace waxis {

/// Screws, tape, ties and straps that are not drawn as parts of their own.
struct Hardware {
    std::string item; ///< as in the kit: "screw-m3x8", "tape-foam", "tie-2.5", "strap-200", "hook-loop"
    std::string name; ///< "M3 screw, 8 mm"
    std::string material;
    int pieces = 0;
    double piece_g = 0;     ///< of one piece; for tape and hook-and-loop of one strip
    double tolerance_g = 0; ///< of one piece, +- 2 sigma
    std::string basis;      ///< how the figure came about
};

struct Holding {
    FasteningMethod method = FasteningMethod::none; ///< of a tied or strapped stack's outermost board: the stack's
    std::vector<std::string> drawn;                 ///< ids of the placed parts that stand for it
    std::vector<Hardware> pieces;                   ///< what it takes beside them; empty where it is drawn
    std::string unknown;                            ///< why its pieces cannot be said; empty: they can, or none are due
};

/// Drawn: screws by a placed screw that is fastened to the part (a nut that turns onto it holds something else), a
/// damper or pad; the other methods also by a strap. Pressed, soldered, glued: nothing.
/// Screws: as many as the part's pattern has holes, steel. Motors: the length of core/stack/motor_screws. Others: the
/// thread that passes the pattern's holes, the shortest preferred length through the part's board and the plate or
/// arm beneath with one diameter of thread to spare. Unknown where what they go through is not known, where no length
/// will do, or without a pattern.
/// Tape and hook-and-loop: the part's footprint, foam 1 mm thick. Ties: two; straps: one, of the shortest length on
/// sale that goes round (core/kit/strap_girth).
Holding holdingOf(const Build &build, const Part &part, const Practice &practice);

/// Screws and nuts of the frame itself, and the two nuts of each bobbin: one piece each, with what it belongs to.
struct FramePiece {
    std::string member; ///< id of the frame's screw, or of the bobbin
    std::string row;    ///< id of the mass row that it is counted in
    Hardware piece;
    Vec3 at_mm = Vec3::Zero();
};
std::vector<FramePiece> frameHardware(const Build &build, const Practice &practice);

/// What a kit item of that kind is called; empty: no part in any build could take such a piece.
std::string hardwareName(std::string_view item);

} // namespace waxis
