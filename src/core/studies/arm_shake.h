// Whether an arm may sing with its propeller: a quick look, not a verdict.
#pragma once

#include "core/studies/rotor_turns.h"

#include <optional>
#include <string>

namespace waxis {

/// First bending of an arm with what stands at its end, over the band of stiffness that its material has, and how often
/// its propeller turns in hover, over the band of thrust coefficients that propellers have.
struct ArmShake {
    double free_mm = 0, tip_g = 0; ///< from where plates hold it to the motor's axis; what stands on the mount
    FrequencyBand up, inPlane;
    std::optional<RotorTurns> rotor; ///< none where nothing hovers
    /// A band of bending overlaps that of the turns, or of the passing blades: it may sing.
    bool meetsTurns() const;
    bool meetsBlades() const;
};

/// None without such an arm, motor or stiffness of its material. Stiffness from memory: carbon laminate 40 to 70 GPa
/// along the plate, glass 15 to 25, aluminium 65 to 75, printed plastic 1.5 to 4. What sits on the arm between is left
/// out.
std::optional<ArmShake> armShake(const Build &build, const Analysis &analysis, const std::string &arm,
                                 std::size_t loadCase);

} // namespace waxis
