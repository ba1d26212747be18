#include "core/studies/soft_shake.h"

#include "core/base/by_id.h"
#include "core/build/chain.h"
#include "core/vibration/vibration.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

/// What gives way under a thing, and how far it sinks.
struct SoftOn {
    std::string id;
    Measured sag_mm;
};

std::optional<SoftOn> softUnder(const Build &build, const Analysis &analysis, const std::string &id) {
    if (const Plate *plate = byId(build.frame->plates, id))
        return plate->isolated ? std::optional(SoftOn{plate->id, plate->sag_mm}) : std::nullopt;
    const Part *part = findPart(build, id);
    if (!part) return std::nullopt;
    if (const auto place = stackPlaceOf(build, *part)) {
        const auto &layers = place->stack->layers;
        if (std::any_of(layers.begin(), layers.end(), [](const auto &l) { return l.role == LayerRole::damper; }))
            return SoftOn{place->stack->id, place->stack->sag_mm};
        return softUnder(build, analysis, carrierOf(build, *place->stack));
    }
    const bool foam = part->fastening.method == FasteningMethod::tape;
    if (part->fastening.sag_mm.known() || (foam && build.types->at(part->type).kind == PartKind::flightController))
        return SoftOn{part->id, part->fastening.sag_mm};
    if (const Site *site = byId(build.frame->sites, part->placement.site))
        if (const auto soft = softUnder(build, analysis, site->on)) return soft;
    for (const auto &holder : part->fastening.onto)
        if (byId(build.frame->plates, holder))
            if (const auto soft = softUnder(build, analysis, holder)) return soft;
    return std::nullopt;
}

} // namespace

std::optional<SoftShake> softShake(const Build &build, const Analysis &analysis, const std::string &id,
                                   std::size_t loadCase) {
    const auto soft = softUnder(build, analysis, id);
    if (!soft) return std::nullopt;
    SoftShake shake;
    shake.on = soft->id;
    shake.rotor = rotorTurns(build, analysis, loadCase);
    if (!soft->sag_mm.known() || !(*soft->sag_mm.value > 0)) return shake;
    shake.sag_mm = *soft->sag_mm.value;
    // A sag that was read off a rule is good to a tenth of a millimetre at best.
    constexpr double kRead_mm = 0.1, kDamping = 0.1;
    const double doubt = std::min(soft->sag_mm.tolerance.value_or(kRead_mm), shake.sag_mm / 2);
    const auto ownAt = [](double sag) { return softMount(sag, kDamping, 1).own_Hz; };
    shake.own = {ownAt(shake.sag_mm + doubt), ownAt(shake.sag_mm - doubt)};
    if (!shake.rotor) return shake;
    shake.leastThrough = 1e300;
    for (const double sag : {shake.sag_mm - doubt, shake.sag_mm, shake.sag_mm + doubt})
        for (const double excitation : {shake.rotor->turns.least_Hz, shake.rotor->turns.most_Hz}) {
            const double through = softMount(sag, kDamping, excitation).transmissibility;
            shake.leastThrough = std::min(shake.leastThrough, through);
            shake.mostThrough = std::max(shake.mostThrough, through);
        }
    // In resonance between the ends of the bands, the most is at the peak.
    if (shake.own.meets(shake.rotor->turns))
        shake.mostThrough =
            std::max(shake.mostThrough, softMount(shake.sag_mm, kDamping, ownAt(shake.sag_mm)).transmissibility);
    return shake;
}

} // namespace waxis
