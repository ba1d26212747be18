// The frame's own screws: how long each has to be, and whether what is chosen holds.
#pragma once

#include "core/build/frame_screws.h"
#include "core/stack/screw_choice.h"

namespace waxis {

struct FrameScrewReport {
    std::string screw;
    ScrewColumn column;
    ScrewTask task;    ///< without a thread where that size is not in the tables
    std::string meets; ///< the screw that comes into the same post from the other end; empty: none
    ScrewChoice choice;
    std::optional<double> length_mm; ///< as stated, else the best that is sold
    std::optional<ScrewOption> now;  ///< of that length
};

/// All of them, in the frame's order. Into a post: the engagement that its material asks for (practice), and no deeper
/// than the post is high; where two meet in one post, each leaves the other what it needs: half, or what a stated
/// length of the other leaves. Through: a nut and one pitch (practice).
/// What parts that share a screw add to its grip is counted.
std::vector<FrameScrewReport> frameScrewReports(const Frame &frame, const Practice &practice,
                                                const Brackets &brackets = {});

/// One screw and the nut that it turns into, as the kit, the bill and the masses count them; empty where no length is
/// known.
std::vector<FastenerData> piecesOf(const FrameScrew &screw, const FrameScrewReport &report);

} // namespace waxis
