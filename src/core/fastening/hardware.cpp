#include "core/fastening/hardware.h"

#include "core/base/units.h"
#include "core/catalog/fastener_types.h"
#include "core/fasteners/screw.h"
#include "core/geometry/hole_pattern.h"
#include "core/stack/chain.h"
#include "core/stack/motor_screws.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

/// A placed screw, strap, damper or pad that is fastened to the part stands for its fastening.
bool isDrawn(const Build &build, const Part &part) {
    return std::any_of(build.parts.begin(), build.parts.end(), [&](const Part &other) {
        if (&other == &part) return false;
        const PartType *type = typeOf(build, other);
        if (!type || !(holdsOthers(type->kind) || type->kind == PartKind::damper || type->kind == PartKind::pad))
            return false;
        const auto &onto = other.fastening.onto;
        const auto &own = part.fastening.onto;
        return std::find(onto.begin(), onto.end(), part.id) != onto.end() ||
               std::find(own.begin(), own.end(), other.id) != own.end();
    });
}

/// Thickness of what a screw goes through beneath the part: its plate or arm, mm; 0 when it sits on other parts.
double beneath_mm(const Build &build, const Part &part) {
    const Frame &frame = *build.frame;
    std::vector<std::string> carriers = part.fastening.onto;
    for (const auto &site : frame.sites)
        if (site.id == part.placement.site) carriers.push_back(site.on);
    double most = 0;
    for (const auto &id : carriers) {
        for (const auto &plate : frame.plates)
            if (plate.id == id) most = std::max(most, plate.thickness_mm);
        for (const auto &arm : frame.arms)
            if (arm.id == id) most = std::max(most, arm.thickness_mm);
    }
    return most;
}

double boardThickness_mm(const PartType &type) {
    for (const auto &solid : type.solids)
        if (solid.role == SolidRole::board) {
            if (const auto *box = std::get_if<Box>(&solid.shape)) return box->fullSize_mm.minCoeff();
            if (const auto *prism = std::get_if<Prism>(&solid.shape)) return prism->thickness_mm;
        }
    return 1.6;
}

/// Area under the part, mm2, from the box round its firm solids.
double footprint_mm2(const PartType &type) {
    Aabb bounds;
    for (const auto &solid : type.solids)
        if (solid.role != SolidRole::soft) bounds.include(boundsOf(solid.shape, solid.X_PartSolid));
    return bounds.empty() ? 0 : bounds.size_mm().x() * bounds.size_mm().y();
}

Hardware screwsOf(const ThreadSize &thread, double length_mm, int pieces, std::string basis) {
    Hardware out;
    // The same words as a placed screw of that size, so that the kit counts them together.
    const auto type = fastenerType({FastenerForm::screw, std::string(thread.name), length_mm}, "steel");
    out.item = type ? type->id : fmt::format("screw-{}-{:g}", thread.name, length_mm);
    out.name = type ? type->name : out.item;
    out.pieces = pieces;
    out.piece_g = capScrewVolume_mm3(thread, length_mm) * gramsPerCubicMillimetre(7.85); // steel
    out.tolerance_g = out.piece_g * 0.15;
    out.basis = std::move(basis);
    return out;
}

Hardware screws(const Build &build, const Part &part, const PartType &type) {
    if (!type.mounting && !part.fastening.pieces) return {};
    if (const auto motor = motorScrewsFor(build, part, practiceOf(build.practice)); motor && motor->best_mm)
        return screwsOf(
            *motor->thread, *motor->best_mm, part.fastening.pieces.value_or(motor->pieces),
            fmt::format("{:.1f} mm arm, {:.1f} mm engaged", motor->grip_mm, *motor->best_mm - motor->grip_mm));
    const ThreadSize *thread = findThread("M3");
    if (type.mounting)
        for (const auto &size : threadSizes())
            if (size.nominal_mm <= type.mounting->holeDiameter_mm + 1e-9) thread = &size;
    const double needed = beneath_mm(build, part) + boardThickness_mm(type) + thread->nominal_mm;
    const double l = stockLength_mm(needed).value_or(kStockLengths_mm.back());
    return screwsOf(*thread, l,
                    part.fastening.pieces.value_or(type.mounting ? int(holeCentres(*type.mounting).size()) : 0),
                    fmt::format("{:.1f} mm beneath, {:.1f} mm board, one diameter of thread", beneath_mm(build, part),
                                boardThickness_mm(type)));
}

/// Ties or a strap round a whole stack hang on its outermost board.
std::optional<FasteningMethod> roundTheStack(const Build &build, const Part &part) {
    const auto place = stackPlaceOf(build, part);
    if (!place || place->layer < 0 || place->stack->hold == StackHold::screws) return std::nullopt;
    for (std::size_t i = std::size_t(place->layer) + 1; i < place->stack->layers.size(); ++i)
        if (place->stack->layers[i].role == LayerRole::board) return std::nullopt;
    if (place->stack->layers[std::size_t(place->layer)].role != LayerRole::board) return std::nullopt;
    return place->stack->hold == StackHold::ties ? FasteningMethod::ties : FasteningMethod::strap;
}

} // namespace

std::vector<Hardware> hardwareFor(const Build &build, const Part &part) {
    const PartType *type = typeOf(build, part);
    if (!type || part.fastening.pieces == std::optional(0)) return {};
    const auto round = roundTheStack(build, part);
    const FasteningMethod method = round.value_or(part.fastening.method);
    if (method == FasteningMethod::none || method == FasteningMethod::stack || method == FasteningMethod::pressed ||
        method == FasteningMethod::soldered || method == FasteningMethod::glue || holdsOthers(type->kind))
        return {};
    if (!round && isDrawn(build, part)) return {};
    Hardware out;
    const int pieces = part.fastening.pieces.value_or(0);
    switch (method) {
    case FasteningMethod::screws: out = screws(build, part, *type); break;
    case FasteningMethod::tape:
        out = {"tape-foam", "Double-sided foam tape, strip", pieces ? pieces : 1, 0,
               0,           "footprint, 1 mm foam with glue"};
        out.piece_g = footprint_mm2(*type) * 0.9 * gramsPerCubicMillimetre(0.65);
        out.tolerance_g = out.piece_g * 0.3;
        break;
    case FasteningMethod::hookAndLoop:
        out = {"hook-loop", "Hook-and-loop, pair of strips", pieces ? pieces : 1, 0, 0, "footprint, 0.07 g/cm2"};
        out.piece_g = footprint_mm2(*type) / 100 * 0.07;
        out.tolerance_g = out.piece_g * 0.3;
        break;
    case FasteningMethod::ties:
        out = {"tie-2.5", "Cable tie, 2.5 mm", pieces ? pieces : 2, 0.25, 0.1, "cut off flush"};
        break;
    case FasteningMethod::strap:
        out = {"strap-200", "Battery strap, 200 mm", pieces ? pieces : 1, 6.0, 1.0, "common size"};
        break;
    case FasteningMethod::none:
    case FasteningMethod::stack:
    case FasteningMethod::pressed:
    case FasteningMethod::soldered:
    case FasteningMethod::glue: break;
    }
    if (out.pieces <= 0) return {};
    return {out};
}

} // namespace waxis
