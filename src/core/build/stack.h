// A column of boards and hardware on a hole pattern: which layers, in which order. Where they stand follows from that
// (core/build/chain).
#pragma once

#include "core/base/measured.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

enum class LayerRole {
    frame, ///< the plates (and arms) between the base face and the far face of `Stack::through`; exactly one per stack
    board,
    adapter,
    damper,
    spacer,
    nut,
    washer,
    shim,
    gap,   ///< air that nothing fills: what follows stands free on the thread
    wires, ///< a layer of wires passing between two boards: takes room, carries nothing
    sheet  ///< an insulating sheet on what lies under it: takes room, carries nothing
};

struct StackLayer {
    LayerRole role = LayerRole::board;
    /// Boards and adapters: one part; dampers, spacers, nuts, washers, shims: one per hole; others: none.
    std::vector<std::string> parts;
    /// As measured in hand, free; unknown: that of the parts' solids. Gaps, wires and sheets have their height here.
    Measured height_mm;
    double squeeze = 0;             ///< dampers: share of the free height that the screws take away, 0 to 0.9
    std::optional<double> cutTo_mm; ///< dampers: free height after cutting
    bool operator==(const StackLayer &) const = default;
};

enum class StackHold { screws, ties, strap };

/// What the far end of the screws turns into.
enum class ScrewEnd {
    nut,    ///< the outermost layer of nuts
    spacer, ///< the outermost layer of threaded standoffs
    frame   ///< a thread in the frame itself: tapped, or a press nut; heads outside only
};

struct Stack {
    std::string id;
    std::string name;
    std::string on; ///< a site of the frame, or a part whose type carries a second pattern (adapter plate)
    /// Plate or arm on whose far face the column ends under the base; empty: what carries the site.
    std::string through;
    std::vector<StackLayer> layers; ///< along the base's z, from under the frame outwards
    StackHold hold = StackHold::screws;
    std::vector<std::string> screws; ///< placed parts, one per hole; empty: not chosen
    bool headsOutside = false;       ///< heads on the outer end; else under the frame
    ScrewEnd end = ScrewEnd::nut;
    Measured threadDepth_mm; ///< depth of the thread at the end; unknown: the end's own height
    double cut_mm = 0;       ///< taken off the ends of the screws
    Measured sag_mm;         ///< with dampers: how far the boards sink on them under their weight

    // Copied in a hundred files; the code of it is made in one.
    Stack();
    Stack(const Stack &);
    Stack(Stack &&) noexcept;
    Stack &operator=(const Stack &);
    Stack &operator=(Stack &&) noexcept;
    ~Stack();
    bool operator==(const Stack &) const;
};

} // namespace waxis
