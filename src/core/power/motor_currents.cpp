// Hover and full-thrust current: P = T^1.5 / sqrt(2 rho A) / FM / eta, I = P / V.
#include "core/base/units.h"
#include "core/power/circuit.h"
#include "core/power/hover.h"

#include <algorithm>
#include <cmath>

namespace waxis {

double Circuit::electric_W(double thrust_N, double diameter_mm, double merit) const {
    if (!(thrust_N > 0) || !(diameter_mm > 0)) return 0;
    const double density = standardAir(practice_[Limit::flyingHeight]).density_kg_m3;
    return rotorPower(thrust_N, diameter_mm, density, merit).shaft_W / (practice_[Limit::driveEfficiency] / 100);
}

void Circuit::findMotors(double nominal_V) {
    const auto coaxial = coaxialShares(build_.frame->motorMounts);
    const CaseBalance *hovering = nullptr;
    for (const auto &b : balance_)
        if (!hovering && !b.hover.thrusts_N.empty() && b.loadCase.flies() && !b.loadCase.battery.empty()) hovering = &b;
    const auto &mounts = build_.frame->motorMounts;
    for (std::size_t m = 0; m < mounts.size(); ++m)
        for (std::size_t i = 0; i < build_.parts.size(); ++i) {
            if (build_.parts[i].placement.site != mounts[m].id || !types_[i] || types_[i]->kind != PartKind::motor)
                continue;
            MotorCurrent motor{mounts[m].id, build_.parts[i].id, {}, 0, 0};
            for (std::size_t w = 0; w < build_.wires.size(); ++w) {
                const Wire &wire = build_.wires[w];
                if (roles_[w] != WireRole::phase) continue;
                if (wire.from.part == motor.motor) motor.esc = wire.to.part;
                if (wire.to.part == motor.motor) motor.esc = wire.from.part;
            }
            const double diameter = mounts[m].propDiameter_mm;
            if (hovering)
                motor.hover_A =
                    coaxial[m].usual * electric_W(hovering->hover.thrusts_N[m], diameter, merit()) / nominal_V;
            if (types_[i]->electrical && types_[i]->electrical->peak_A.known())
                motor.full_A = *types_[i]->electrical->peak_A.value;
            else if (types_[i]->maxThrust_gf.known())
                motor.full_A =
                    electric_W(newtonsFromGrams(*types_[i]->maxThrust_gf.value), diameter, merit()) / nominal_V;
            if (const auto esc = partIndex_.find(motor.esc); esc != partIndex_.end())
                motorsOfEsc_[esc->second].push_back(report_.motors.size());
            report_.motors.push_back(motor);
        }
}

void Circuit::tellPhases() {
    // Six-step commutation: each phase conducts two thirds of the time, so its effective current is sqrt(2/3) of the
    // supply's.
    const double kPhase = std::sqrt(2.0 / 3.0);
    for (std::size_t w = 0; w < build_.wires.size(); ++w)
        for (const auto &motor : report_.motors)
            if (roles_[w] == WireRole::phase &&
                (build_.wires[w].from.part == motor.motor || build_.wires[w].to.part == motor.motor))
                report_.wires[w] = {kPhase * motor.hover_A, kPhase * motor.full_A, true, 0};
}

/// Hover is not worked out for a craft of which a motor is missing, or all of them, or whose controllers have a plus
/// and no minus.
bool Circuit::motorsComplete() const {
    for (const auto &rail : report_.rails)
        for (const auto &load : rail.loads)
            if (!load.returns && motorsOfEsc_.contains(partIndex_.at(load.part))) return false;
    return report_.motors.size() >= build_.frame->motorMounts.size();
}

void Circuit::workHover() {
    const auto coaxial = coaxialShares(build_.frame->motorMounts);
    for (std::size_t at = 0; at < balance_.size(); ++at) {
        const CaseBalance &b = balance_[at];
        HoverReport &hover = report_.hover.emplace_back();
        const Part *pack = findPart(build_, b.loadCase.battery);
        const PartType *type = pack ? typeOf(build_, *pack) : nullptr;
        const bool able = type && type->electrical && type->electrical->cells && type->electrical->capacity_mAh &&
                          !b.hover.thrusts_N.empty() && b.loadCase.flies() && motorsComplete() &&
                          *std::min_element(b.hover.thrusts_N.begin(), b.hover.thrusts_N.end()) >= 0;
        if (!able) continue;
        hover.pack = pack->id;
        const CellVolts volts = cellVolts(*type->electrical);
        const double nominal_V = *type->electrical->cells * volts.nominal_V;
        auto power = [&](double figure, double CoaxialShare::*which) {
            double sum = 0;
            for (std::size_t m = 0; m < b.hover.thrusts_N.size(); ++m)
                sum += coaxial[m].*which * electric_W(std::max(0.0, b.hover.thrusts_N[m]),
                                                      build_.frame->motorMounts[m].propDiameter_mm, figure);
            return sum;
        };
        double aside_A = 0, full_A = 0; // everything but the motors
        for (const auto &rail : report_.rails)
            if (rail.part == pack->id && rail.output == "BAT" && at < rail.typicalByCase_A.size()) {
                aside_A = rail.typicalByCase_A[at];
                for (const auto &motor : report_.motors)
                    if (!motor.esc.empty()) aside_A -= motor.hover_A;
            }
        aside_A = std::max(0.0, aside_A);
        for (const auto &motor : report_.motors) full_A += motor.full_A;
        hover.power_W = power(merit(), &CoaxialShare::usual) + aside_A * nominal_V;
        hover.current_A = hover.power_W / nominal_V;
        if (full_A > 0) hover.full_A = full_A + aside_A;
        const double usable_Ah = *type->electrical->capacity_mAh * 1e-3 * (1 - practice_[Limit::packReserve] / 100);
        constexpr double kSpread = 0.1;
        auto minutes = [&](double figure, double CoaxialShare::*which) {
            return usable_Ah / (power(figure, which) / nominal_V + aside_A) * 60;
        };
        hover.least_min = minutes(std::max(0.2, merit() - kSpread), &CoaxialShare::most);
        hover.most_min = minutes(std::min(1.0, merit() + kSpread), &CoaxialShare::least);
        hover.alarm_V = volts.land_V;
        hover.turnBack_mAh = usable_Ah * 1e3 / 2;
    }
}

} // namespace waxis
