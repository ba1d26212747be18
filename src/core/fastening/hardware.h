// Screws, tape, ties and straps that hold parts and are not drawn as parts of their own.
#pragma once

#include "core/build/build.h"

namespace waxis {

struct Hardware {
    std::string item; ///< as in the kit: "screw-m3x8", "tape-foam", "tie-2.5", "strap-200", "hook-loop"
    std::string name; ///< "M3 screw, 8 mm"
    int pieces = 0;
    double piece_g = 0;     ///< of one piece; for tape and hook-and-loop of one strip
    double tolerance_g = 0; ///< of one piece, +- 2 sigma
    std::string basis;      ///< how the figure came about
};

/// What a part's fastening takes. Nothing where the fastening is drawn (a screw, strap, damper or pad that is fastened
/// to the part), pressed, soldered, glued in a trace, or unknown. Screws: as many as the part's pattern has holes, the
/// thread that passes its holes, the shortest preferred length through the part's board and the plate or arm beneath
/// with one diameter of thread to spare; steel. Tape and hook-and-loop: the part's footprint, foam 1 mm thick. Ties:
/// two; straps: one.
std::vector<Hardware> hardwareFor(const Build &build, const Part &part);

} // namespace waxis
