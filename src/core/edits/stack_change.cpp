#include "core/edits/stack_change.h"

#include "core/build/chain.h"
#include "core/catalog/fastener_types.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "core/edits/stack_edits.h"
#include "core/practice/practice.h"
#include "core/stack/motor_screws.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

const PartType *typeInLayer(const Build &build, const Stack &stack, int layer) {
    const bool inside = layer >= 0 && layer < int(stack.layers.size());
    return inside ? layerType(build, stack.layers[std::size_t(layer)]) : nullptr;
}

std::string layerWords(const Build &build, const Stack &stack, int layer) {
    const PartType *type = typeInLayer(build, stack, layer);
    if (!type) return fmt::format("layer {}", layer + 1);
    if (!isHardware(stack.layers[std::size_t(layer)].role))
        return displayName(build, stack.layers[std::size_t(layer)].parts.front());
    std::vector<int> same;
    for (int i = 0; i < int(stack.layers.size()); ++i)
        if (stack.layers[std::size_t(i)].role == stack.layers[std::size_t(layer)].role) same.push_back(i);
    const auto at = std::find(same.begin(), same.end(), layer) - same.begin();
    const char *word = stack.layers[std::size_t(layer)].role == LayerRole::damper ? "dampers" : "spacers";
    if (same.size() < 2) return fmt::format("the {}", word);
    if (same.size() == 2) return fmt::format("the {} {}", at == 0 ? "lower" : "upper", word);
    constexpr std::array<const char *, 5> kWords{"lowest", "second", "third", "fourth", "fifth"};
    return fmt::format("the {} {}", kWords[std::size_t(std::min<std::ptrdiff_t>(at, 4))], word);
}

EditResult changeFastener(const Build &build, const Stack &stack, const StackChange &change, const FastenerData &data,
                          const std::string &material) {
    const auto type = fastenerType(data, material);
    if (!type) return refuse(type.error().message);
    return changeHardware(build, stack.id, change.layer, *type);
}

/// The board's type with lower plugs, under a name of its own.
EditResult lowerPlugs(const Build &build, const Stack &stack, const StackChange &change) {
    const PartType *type = typeInLayer(build, stack, change.layer);
    if (!type) return refuse("There is no board in that layer.");
    PartType low = *type;
    low.id = fmt::format("{}-low{:g}", type->id, change.value);
    low.name = fmt::format("{}, plugs {:g} mm lower", type->name, change.value);
    bool any = false;
    for (auto &solid : low.solids) {
        auto *box = std::get_if<Box>(&solid.shape);
        if (solid.role != SolidRole::connector || !box || box->fullSize_mm.z() <= change.value + 0.5) continue;
        box->fullSize_mm.z() -= change.value;
        solid.X_PartSolid.position_mm.z() -= (solid.X_PartSolid.position_mm.z() >= 0 ? 0.5 : -0.5) * change.value;
        any = true;
    }
    if (!any) return refuse("It has no plugs that could be lower.");
    const std::string part = stack.layers[std::size_t(change.layer)].parts.front();
    auto with = build.types->contains(low.id) ? EditResult(build) : putType(build, low, {});
    return with ? changeType(*with, part, low.id) : with;
}

/// Standoffs of another height under the plate: it and all above it go up or down.
EditResult otherStandoffs(const Build &build, const Stack &stack, const StackChange &change) {
    const auto chain = chainOf(build, stack);
    if (!chain) return refuse("The stack's base is missing.");
    const double face = chain->X_FrameBase.position_mm.z();
    const Frame &frame = *build.frame;
    double top = 1e300, height = 0;
    constexpr double kSame_mm = 0.11;
    for (const auto &standoff : frame.standoffs)
        if (standoff.role == StandoffRole::standoff && std::abs(standoff.base_mm.z() - face) < kSame_mm &&
            standoff.base_mm.z() + standoff.height_mm < top) {
            top = standoff.base_mm.z() + standoff.height_mm;
            height = standoff.height_mm;
        }
    if (!(height > 0)) return refuse("No standoffs stand on the plate that carries this stack.");
    const double up = change.value - height;
    Build next = build;
    std::vector<std::string> raised;
    for (const auto &plate : frame.plates)
        if (plate.z_mm >= top - kSame_mm) raised.push_back(plate.id);
    next.frame.edit([&](Frame &f) {
        for (auto &standoff : f.standoffs) {
            if (standoff.role != StandoffRole::standoff) continue;
            if (std::abs(standoff.base_mm.z() - face) < kSame_mm &&
                std::abs(standoff.base_mm.z() + standoff.height_mm - top) < kSame_mm)
                standoff.height_mm += up;
            else if (standoff.base_mm.z() >= top - kSame_mm)
                standoff.base_mm.z() += up;
        }
    });
    for (const auto &plate : raised) {
        auto moved = shiftPlate(next, plate, Vec3(0, 0, up));
        if (!moved) return moved;
        next = std::move(*moved);
    }
    return next;
}

/// Sets of screws of another length for all motors that have the same ones through as much.
EditResult otherMotorScrews(const Build &build, const StackChange &change) {
    const auto all = motorScrewsOf(build, practiceOf({})); // which are alike, and drawn, is so in any practice
    const auto named = std::find_if(all.begin(), all.end(), [&](const auto &s) { return s.motor == change.stack; });
    if (named == all.end() || named->placed.empty()) return refuse("No motor screws are drawn there.");
    const std::string oldType = findPart(build, named->placed)->type;
    const PartType &motor = *typeOf(build, *findPart(build, named->motor));
    const auto single =
        fastenerType({FastenerForm::screw, std::string(named->thread->name), change.value}, change.material);
    if (!single) return refuse(single.error().message);
    PartType set = *single;
    set.solids.clear();
    const auto holes = holeCentres(*motor.mounting);
    for (const auto &hole : holes)
        for (Solid solid : single->solids) {
            solid.X_PartSolid.position_mm += Vec3(hole.x(), hole.y(), -named->grip_mm);
            set.solids.push_back(solid);
        }
    set.fastener->pieces = int(holes.size());
    const double mass = *single->mass_g.value * double(holes.size());
    set.mass_g = catalogueValue(mass, mass * 0.1);
    set.id = fmt::format("{}-set{}-{:g}-g{:g}", single->id, holes.size(), motor.mounting->size_mm, named->grip_mm);
    set.name = fmt::format("Motor screws {} x {:g}, set of {}", named->thread->name, change.value, holes.size());
    auto next = build.types->contains(set.id) ? EditResult(build) : putType(build, set, {});
    for (const auto &screws : all) {
        if (!next) return next;
        const Part *placed = findPart(build, screws.placed);
        if (placed && placed->type == oldType && screws.grip_mm == named->grip_mm)
            next = changeType(*next, screws.placed, set.id);
    }
    return next;
}

std::string threadOf(const Build &build, const Stack &stack, int layer, const StackChange &change) {
    const PartType *type = typeInLayer(build, stack, layer);
    if (type && type->fastener) return type->fastener->thread;
    for (const auto &id : stack.screws)
        if (const Part *part = findPart(build, id))
            if (const PartType *screw = typeOf(build, *part); screw && screw->fastener) return screw->fastener->thread;
    return change.thread;
}

} // namespace

EditResult applyChange(const Build &build, const StackChange &change) {
    if (change.kind == StackChangeKind::motorScrew) return otherMotorScrews(build, change);
    const Stack *stack = findStack(build, change.stack);
    if (!stack) return refuse(fmt::format("There is no stack \"{}\" in this build.", change.stack));
    const bool inside = change.layer >= 0 && change.layer < int(stack->layers.size());
    const StackLayer layer = inside ? stack->layers[std::size_t(change.layer)] : StackLayer{};
    switch (change.kind) {
    case StackChangeKind::screw:
        return chooseScrew(build, stack->id, {FastenerForm::screw, change.thread, change.value, change.head},
                           change.material);
    case StackChangeKind::spacer: {
        const PartType *type = typeInLayer(build, *stack, change.layer);
        FastenerData data =
            type && type->fastener ? *type->fastener : FastenerData{FastenerForm::spacer, change.thread};
        data.length_mm = change.value;
        return changeFastener(build, *stack, change, data, type ? materialOf(*type) : "nylon");
    }
    case StackChangeKind::cutDamper:
        return setLayer(build, stack->id, change.layer, layer.height_mm, layer.squeeze, change.value);
    case StackChangeKind::squeeze:
        return setLayer(build, stack->id, change.layer, layer.height_mm, change.value, layer.cutTo_mm);
    case StackChangeKind::damper: {
        const auto type = damperType(threadOf(build, *stack, -1, change), change.value);
        if (!type) return refuse(type.error().message);
        return changeHardware(build, stack->id, change.layer, *type);
    }
    case StackChangeKind::sheet: return addFiller(build, stack->id, change.layer, LayerRole::sheet, change.value);
    case StackChangeKind::shim: {
        const auto type =
            fastenerType({FastenerForm::shim, threadOf(build, *stack, change.layer, change), change.value}, "steel");
        if (!type) return refuse(type.error().message);
        return addHardware(build, stack->id, change.layer, *type);
    }
    case StackChangeKind::nut: {
        const auto type = fastenerType({FastenerForm::nut, threadOf(build, *stack, -1, change)}, change.material);
        if (!type) return refuse(type.error().message);
        return addHardware(build, stack->id, stack->headsOutside ? 0 : int(stack->layers.size()), *type);
    }
    case StackChangeKind::lowNut: {
        const PartType *type = typeInLayer(build, *stack, change.layer);
        return changeFastener(build, *stack, change, {FastenerForm::nut, threadOf(build, *stack, change.layer, change)},
                              type ? materialOf(*type) : "steel");
    }
    case StackChangeKind::plugs: return lowerPlugs(build, *stack, change);
    case StackChangeKind::standoffs: return otherStandoffs(build, *stack, change);
    case StackChangeKind::turn: return turnBoard(build, stack->id, change.layer, change.value);
    case StackChangeKind::ties: return holdStack(build, stack->id, StackHold::ties);
    case StackChangeKind::cutScrew: {
        StackBase base{stack->name.empty() ? stack->id : stack->name,
                       stack->through,
                       stack->headsOutside,
                       stack->end,
                       stack->threadDepth_mm,
                       change.value,
                       stack->sag_mm};
        return setStackBase(build, stack->id, base);
    }
    case StackChangeKind::cutStud: {
        const PartType *type = typeInLayer(build, *stack, change.layer);
        if (!type || !type->fastener || !(type->fastener->stud_mm > change.value))
            return refuse("There is no male end in that layer that is longer.");
        FastenerData data = *type->fastener;
        data.stud_mm = change.value;
        return changeFastener(build, *stack, change, data, materialOf(*type));
    }
    case StackChangeKind::motorScrew: break;
    }
    return refuse("Nothing to do.");
}

Sentence wordChange(const Build &build, const StackChange &change) {
    const Stack none;
    const Stack *found = findStack(build, change.stack);
    const Stack &stack = found ? *found : none;
    const std::string layer = layerWords(build, stack, change.layer), mm = fmt::format("{:g}", change.value);
    switch (change.kind) {
    case StackChangeKind::screw: {
        std::string size = fmt::format("{} x {:g}", change.thread, change.value);
        if (change.head != HeadStyle::cap) size += fmt::format(" {}", headWord(change.head));
        if (change.material != "steel") size += fmt::format(" {}", change.material);
        return {"Use {0}", {size}};
    }
    case StackChangeKind::damper:
    case StackChangeKind::spacer: return {"Use {0} mm for {1}", {mm, layer}};
    case StackChangeKind::cutDamper: return {"Cut {1} to {0} mm", {mm, layer}};
    case StackChangeKind::squeeze: return {"Squeeze {1} by {0} %", {fmt::format("{:.0f}", change.value * 100), layer}};
    case StackChangeKind::sheet: return {"Lay an insulating sheet on the plate", {}};
    case StackChangeKind::shim: return {"Add {0} mm shims", {mm}};
    case StackChangeKind::nut: return {"Add {0} nuts", {change.thread}};
    case StackChangeKind::lowNut: return {"Use plain nuts", {}};
    case StackChangeKind::plugs: return {"Use plugs {0} mm lower on {1}", {mm, layer}};
    case StackChangeKind::standoffs: return {"Use {0} mm standoffs", {mm}};
    case StackChangeKind::turn:
        if (std::abs(change.value) > 135) return {"Turn {0} round", {layer}};
        return change.value > 0 ? Sentence{"Turn {0} left 90°", {layer}} : Sentence{"Turn {0} right 90°", {layer}};
    case StackChangeKind::ties: return {"Hold it with two ties instead of screws", {}};
    case StackChangeKind::cutScrew: return {"Cut {0} mm off the screws", {fmt::format("{:g}", change.value)}};
    case StackChangeKind::cutStud: {
        const PartType *type = typeInLayer(build, stack, change.layer);
        const double now = type && type->fastener ? type->fastener->stud_mm : change.value;
        return {"Cut {0} mm off the male ends", {fmt::format("{:g}", now - change.value)}};
    }
    case StackChangeKind::motorScrew: return {"Use {0}", {fmt::format("{} x {:g}", change.thread, change.value)}};
    }
    return {};
}

} // namespace waxis
