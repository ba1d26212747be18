// One change of a stack as data: what a finding offers and what the what-if list tries.
#pragma once

#include "core/base/sentence.h"
#include "core/edits/part_edits.h"
#include "core/fasteners/fastener.h"

namespace waxis {

enum class StackChangeKind {
    screw,     ///< screws of another length
    spacer,    ///< another spacer height in a layer
    cutDamper, ///< a damper cut down
    squeeze,   ///< a damper squeezed by another share
    damper,    ///< a damper of another free height
    sheet,     ///< an insulating sheet laid on the layer below `layer`
    shim,      ///< shims put under `layer`
    nut,       ///< nuts added at the outer end
    lowNut,    ///< plain nuts instead of locking ones
    plugs,     ///< lower plugs: `value_mm` off what stands up (as a part with a lower plug would)
    standoffs, ///< the frame's standoffs under the plate above, longer
    turn,      ///< a board turned about the column
    ties,      ///< two ties instead of screws and nuts
    cutScrew,  ///< the ends of the screws cut off by so much in all
    cutStud,   ///< the male ends of a layer's standoffs cut to so much
    motorScrew ///< a motor's screws of another length; `stack` is the motor's id
};

struct StackChange {
    std::string stack; ///< id
    StackChangeKind kind = StackChangeKind::screw;
    int layer = -1;
    double value = 0; ///< mm, share or degrees
    HeadStyle head = HeadStyle::cap;
    std::string material = "steel";
    std::string thread = "M3";
    bool operator==(const StackChange &) const = default;
};

EditResult applyChange(const Build &build, const StackChange &change);

/// In words: "Use M3 x 30", "Cut the dampers to 2 mm".
Sentence wordChange(const Build &build, const StackChange &change);

} // namespace waxis
