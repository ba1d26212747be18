#include "core/studies/rotor_turns.h"

#include "core/build/on_mount.h"
#include "core/derived/all_up.h"
#include "core/power/hover.h"
#include "core/vibration/vibration.h"

#include <algorithm>

namespace waxis {

std::optional<RotorTurns> rotorTurns(const Build &build, const Analysis &analysis, std::size_t mount,
                                     std::size_t loadCase) {
    constexpr double kLeastThrust = 0.08, kMostThrust = 0.14;
    if (mount >= build.frame->motorMounts.size()) return {};
    const MotorMount &on = build.frame->motorMounts[mount];
    const auto thrust_N = hoverThrust_N(analysis.derived, loadCase, mount);
    RotorTurns rotor;
    double diameter = on.propDiameter_mm;
    if (const PartType *type = typeOn(build, on.id, PartKind::propeller)) {
        rotor.blades = type->propBlades.value_or(rotor.blades);
        diameter = type->propDiameter_mm.value_or(diameter);
    }
    if (!thrust_N || !(*thrust_N > 0) || !(diameter > 0)) return {};
    const double air = standardAir(analysis.practice[Limit::flyingHeight]).density_kg_m3;
    rotor.turns = {rotorTurns_Hz(*thrust_N, diameter, kMostThrust, air),
                   rotorTurns_Hz(*thrust_N, diameter, kLeastThrust, air)};
    rotor.pass = {rotor.turns.least_Hz * rotor.blades, rotor.turns.most_Hz * rotor.blades};
    return rotor;
}

std::optional<RotorTurns> rotorTurns(const Build &build, const Analysis &analysis, std::size_t loadCase) {
    std::optional<RotorTurns> all;
    for (std::size_t i = 0; i < build.frame->motorMounts.size(); ++i) {
        const auto one = rotorTurns(build, analysis, i, loadCase);
        if (!one) continue;
        if (!all) {
            all = one;
            continue;
        }
        for (auto band : {&RotorTurns::turns, &RotorTurns::pass}) {
            ((*all).*band).least_Hz = std::min(((*all).*band).least_Hz, ((*one).*band).least_Hz);
            ((*all).*band).most_Hz = std::max(((*all).*band).most_Hz, ((*one).*band).most_Hz);
        }
    }
    return all;
}

} // namespace waxis
