// Where wires are soldered or crimped: what comes together on one pad, hole or contact.
#pragma once

#include "core/build/build.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

/// How much heat a joint wants, by its copper (common practice, no source).
enum class SolderHeat {
    light,  ///< up to 0.25 mm2 (AWG 24): a fine tip, a second or two
    middle, ///< up to 1 mm2 (AWG 17)
    heavy   ///< more: a broad tip and a strong iron; the board takes heat away
};

/// One core that ends at a joint.
struct JointCore {
    int wire = 0, core = 0; ///< indices in Build::wires and its cores
    int gauge_AWG = 28;
};

struct PadJoints {
    std::string part, port, pin;
    PortKind kind = PortKind::pads;
    PadJoint way = PadJoint::unstated;
    std::vector<JointCore> cores; ///< in file order
    double copper_mm2 = 0;
    double wants_mm = 0;          ///< side by side on a pad, as a bundle in a hole: bare strands
    std::optional<double> has_mm; ///< as the part states it
    bool isSoldered() const { return kind == PortKind::pads; }
    SolderHeat heat() const;
};

/// By part and port in file order; coax ends are no joints. What comes together at one pin on wires that are never
/// aboard together counts all the same: the wires are there.
std::vector<PadJoints> padJoints(const Build &build);

/// "light", "middle", "heavy".
std::string_view heatWord(SolderHeat heat);

} // namespace waxis
