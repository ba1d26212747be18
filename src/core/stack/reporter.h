// Looks at one stack and writes its report; the sections of a report share what is gathered once.
#pragma once

#include "core/build/frame_shapes.h"
#include "core/stack/report.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

/// One thing in the column, by height: a board, the frame, a plate above.
struct StackLevel {
    std::string id;
    int layer = -1;
    bool plate = false;
    std::vector<FieldPiece> pieces;
    double from_mm = 0; ///< of the board or plate itself, to put them in order
};

class StackReporter {
public:
    StackReporter(const Build &build, const Stack &stack, const Practice &practice, StackReport &out)
        : build_(build), stack_(stack), practice_(practice), out_(out), X_BaseFrame_(out.chain.X_FrameBase.inverse()),
          seats_(stackSeats(build)) {}

    void run();

private:
    const Build &build_;
    const Stack &stack_;
    const Practice &practice_;
    StackReport &out_;
    Pose X_BaseFrame_;
    StackSeats seats_;
    std::vector<StackLevel> levels_;   ///< boards and the frame, inwards to outwards
    std::vector<StackLevel> plates_;   ///< plates beyond the frame layer, nearest first
    std::vector<StackLevel> frame_;    ///< all plates and arms
    std::vector<FieldPiece> hardware_; ///< everything at the holes
    std::vector<std::string> hardwareOf_;
    const StackLayer &layer(int i) const { return stack_.layers[std::size_t(i)]; }
    const LayerSpan &span(int i) const { return out_.chain.spans[std::size_t(i)]; }
    int count() const { return int(stack_.layers.size()); }

    const std::optional<StackSeat> &seatOf(const Part &part) const;
    std::vector<FieldPiece> piecesOf(const Part &part, bool board) const;
    /// Plates and arms of the frame; arms only where they reach under the holes.
    void gatherFrame();
    void gatherLevels();
    void describeLayers();
    /// Height of what only lies between two layers, by role.
    double lying_mm(int from, int to, LayerRole role) const;
    /// Between two layers there are sheets alone, and these carry.
    bool stuckFlat(int from, int to) const;
    StackGap gapOf(const StackLevel &lower, const StackLevel &upper, const FieldGap &gap) const;
    void findGaps();
    bool isNext(const StackGap &gap) const;
    /// No layer of any height between the two.
    bool touches(int a, int b) const { return std::abs(span(b).from_mm - span(a).to_mm) < 1e-6; }

    const ThreadSize *threadThatPasses() const;
    std::string materialOfFrame() const;
    void chooseTheScrew();
    bool isThreaded(int i) const;
    void markHeld(int end);
    /// What stands over the holes beyond the end of the thread.
    void findRoom(int end);
    void findBare();
    void findDampersAndStuds();
    void findHidden();
    int layerOfPart(const std::string &id) const { // -1: a screw
        for (int i = 0; i < count(); ++i)
            if (std::find(layer(i).parts.begin(), layer(i).parts.end(), id) != layer(i).parts.end()) return i;
        return -1;
    }

    void findClosing();
    void chainOfTolerances(const StackLevel &plate, int reached, double top_mm);
    std::string layerName(int i) const;
};

} // namespace waxis
