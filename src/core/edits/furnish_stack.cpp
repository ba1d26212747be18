#include "core/edits/furnish_stack.h"

#include "core/build/chain.h"
#include "core/catalog/fastener_types.h"
#include "core/edits/hung_on.h"
#include "core/edits/stack_edits.h"
#include "core/stack/report.h"
#include "core/stack/stock.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

bool isBoard(const StackLayer &layer) { return layer.role == LayerRole::board || layer.role == LayerRole::adapter; }

/// A board that lies on the board or plate under it without anything between.
int bareBoard(const Stack &stack) {
    const int frame = frameLayer(stack);
    for (int i = frame + 1; i < int(stack.layers.size()); ++i) {
        const StackLayer &below = stack.layers[std::size_t(i - 1)];
        if (stack.layers[std::size_t(i)].role == LayerRole::board && (isBoard(below) || below.role == LayerRole::frame))
            return i;
    }
    return -1;
}

const ThreadSize *threadFor(const Build &build, const Stack &stack) {
    double hole = 1e9;
    if (const HolePattern *pattern = patternOf(build, stack)) hole = pattern->holeDiameter_mm;
    for (const auto &layer : stack.layers)
        if (const PartType *type = layerType(build, layer); isBoard(layer) && type && type->mounting)
            hole = std::min(hole, type->mounting->holeDiameter_mm);
    const ThreadSize *best = nullptr;
    for (const auto &thread : threadSizes())
        if (thread.nominal_mm <= hole + 1e-9) best = &thread;
    return best;
}

/// How much air is missing round a board and what lies under it, mm; nothing when all is well.
double short_mm(const Build &build, const std::string &stack, const std::string &board, const Practice &practice) {
    const Stack *column = findStack(build, stack);
    const auto report = column ? reportOn(build, *column, practice) : std::nullopt;
    if (!report) return 0;
    double most = 0;
    for (const auto &gap : report->gaps)
        if (gap.above == board) most = std::max(most, practice[Limit::stackAir] - gap.air_mm());
    for (const auto &bare : report->bare)
        if (bare.board == board && !bare.hardware && !bare.sheet)
            most = std::max(most, practice[Limit::bareGap] - bare.air_mm);
    return most;
}

EditResult liftBoard(const Build &build, const std::string &id, int at, const ThreadSize &thread,
                     const Practice &practice) {
    const Stack &stack = *findStack(build, id);
    const std::string board = stack.layers[std::size_t(at)].parts.front();
    const bool onFrame = stack.layers[std::size_t(at - 1)].role == LayerRole::frame;
    const bool soft = onFrame && practice.follows("controller", "soft");
    EditResult best = refuse("Nothing from stock lifts the board.");
    double least = 1e300;
    auto tryWith = [&](const Result<PartType, TypeError> &type, bool damper) {
        if (!type || least <= 0) return;
        auto lifted = addHardware(build, id, at, *type);
        if (!lifted) return;
        constexpr double kUsualSqueeze = 0.15;
        if (damper) {
            auto squeezed = setLayer(*lifted, id, at, {}, kUsualSqueeze, std::nullopt);
            if (squeezed) lifted = std::move(squeezed);
        }
        const double missing = short_mm(*lifted, id, board, practice);
        if (missing >= least) return;
        least = missing;
        best = std::move(lifted);
    };
    const std::string name(thread.name);
    if (soft)
        for (const double height : kDamperHeights_mm) tryWith(damperType(name, height), true);
    for (const double height : kSpacerHeights_mm)
        tryWith(fastenerType({FastenerForm::spacer, name, height}, "nylon"), false);
    return best;
}

/// The lowest plate close under the carrier that is drilled for the same screws: heads in the slit between two plates
/// would stand in the arms. Empty: none, or the builder chose already.
std::string drilledBelow(const Build &build, const Stack &stack) {
    if (!stack.through.empty() || !stack.screws.empty() || stack.headsOutside) return {};
    const HolePattern *pattern = patternOf(build, stack);
    const auto seat = sitePose(*build.frame, stack.on);
    if (!pattern || !seat || (seat->rotation * Vec3::UnitZ()).z() < 0.99) return {};
    constexpr double kClose_mm = 15, kSame_mm = 0.2;
    const std::string carrier = carrierOf(build, stack);
    std::string lowest;
    double z = seat->position_mm.z();
    for (const auto &plate : build.frame->plates) {
        const bool beneath = plate.id != carrier && plate.z_mm < z && seat->position_mm.z() - plate.z_mm < kClose_mm;
        const auto centres = holeCentres(*pattern);
        const bool drilled = std::all_of(centres.begin(), centres.end(), [&](const Vec2 &c) {
            const Vec2 at = (*seat * Vec3(c.x(), c.y(), 0)).head<2>();
            return std::any_of(plate.holes.begin(), plate.holes.end(),
                               [&](const RoundHole &h) { return (h.centre_mm - at).norm() < kSame_mm; });
        });
        if (!beneath || !drilled) continue;
        lowest = plate.id;
        z = plate.z_mm;
    }
    return lowest;
}

bool wantsNut(const Stack &stack) {
    return stack.hold == StackHold::screws && stack.end == ScrewEnd::nut &&
           std::none_of(stack.layers.begin(), stack.layers.end(),
                        [](const StackLayer &layer) { return layer.role == LayerRole::nut; });
}

} // namespace

bool lacksHardware(const Build &build, const std::string &id) {
    const Stack *stack = findStack(build, id);
    if (!stack || std::none_of(stack->layers.begin(), stack->layers.end(), isBoard)) return false;
    return bareBoard(*stack) >= 0 || wantsNut(*stack) || (stack->hold == StackHold::screws && stack->screws.empty());
}

EditResult furnishStack(const Build &build, const std::string &id, const Practice &practice) {
    const Stack *stack = findStack(build, id);
    if (!stack) return refuse(fmt::format("There is no stack \"{}\".", id));
    if (std::none_of(stack->layers.begin(), stack->layers.end(), isBoard))
        return refuse("There is no board in this stack yet: lay one in first.");
    const ThreadSize *thread = threadFor(build, *stack);
    if (!thread) return refuse("No screw passes the holes of this stack.");
    Build next = build;
    if (const std::string below = drilledBelow(build, *stack); !below.empty()) {
        const StackBase base{stack->name, below, stack->headsOutside, stack->end, stack->threadDepth_mm};
        if (auto through = setStackBase(build, id, base)) next = std::move(*through);
    }
    for (int at = bareBoard(*findStack(next, id)); at >= 0; at = bareBoard(*findStack(next, id))) {
        auto lifted = liftBoard(next, id, at, *thread, practice);
        if (!lifted) return lifted;
        next = std::move(*lifted);
    }
    if (const Stack &now = *findStack(next, id); wantsNut(now)) {
        const auto nut = fastenerType({FastenerForm::nut, std::string(thread->name)}, "nylon");
        if (!nut) return refuse(nut.error().message);
        auto ended = addHardware(next, id, now.headsOutside ? 0 : int(now.layers.size()), *nut);
        if (!ended) return ended;
        next = std::move(*ended);
    }
    const Stack &now = *findStack(next, id);
    if (now.hold != StackHold::screws || !now.screws.empty()) return next;
    const auto report = reportOn(next, now, practice);
    if (!report || !report->screw.choice.best_mm)
        return refuse("No screw from stock holds this stack: change its layers, or choose one by hand.");
    return chooseScrew(next, id, {FastenerForm::screw, std::string(thread->name), *report->screw.choice.best_mm},
                       "steel");
}

} // namespace waxis
