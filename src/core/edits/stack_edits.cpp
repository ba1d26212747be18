#include "core/edits/stack_edits.h"

#include "core/base/units.h"
#include "core/build/chain.h"
#include "core/catalog/fastener_types.h"
#include "core/edits/part_edits.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

Stack *stackIn(Build &build, const std::string &id) {
    const auto at = std::find_if(build.stacks.begin(), build.stacks.end(), [&](const Stack &s) { return s.id == id; });
    return at == build.stacks.end() ? nullptr : &*at;
}

Part *partIn(Build &build, const std::string &id) {
    const auto at = std::find_if(build.parts.begin(), build.parts.end(), [&](const Part &p) { return p.id == id; });
    return at == build.parts.end() ? nullptr : &*at;
}

template <class Change>
EditResult changeStack(const Build &build, const std::string &id, Change &&change) {
    Build next = build;
    Stack *stack = stackIn(next, id);
    if (!stack) return refuse(fmt::format("There is no stack \"{}\" in this build.", id));
    if (auto wrong = change(next, *stack); !wrong.empty()) return refuse(std::move(wrong));
    return next;
}

std::string noLayer(const Stack &stack, int layer) {
    return fmt::format("{} has no layer {}.", stack.name.empty() ? stack.id : stack.name, layer + 1);
}

bool isLayer(const Stack &stack, int layer) { return layer >= 0 && layer < int(stack.layers.size()); }

/// What is wrong with embedding the type; empty when it is in the build now.
std::string embed(Build &build, const PartType &type) {
    const auto present = build.types->find(type.id);
    if (present == build.types->end())
        build.types.edit([&](TypeTable &table) { table.emplace(type.id, type); });
    else if (!(present->second == type) && !(present->second.fastener && type.fastener))
        return fmt::format("The build already has another part type called \"{}\".", type.id);
    return {};
}

/// Members stand in the axes of the base; on a site they name it.
void seatMember(const Build &build, const Stack &stack, Part &part, const Vec2 &at, const Quat &turn) {
    const bool onSite = sitePose(*build.frame, stack.on).has_value();
    part.placement.site = onSite ? stack.on : std::string();
    part.placement.pose = {Vec3(at.x(), at.y(), 0), turn};
    part.fastening.method = FasteningMethod::stack;
    part.fastening.pieces.reset();
}

std::vector<std::string> addPieces(Build &build, const Stack &stack, const PartType &type, const std::string &word) {
    std::vector<std::string> ids;
    const HolePattern *pattern = patternOf(build, stack);
    if (!pattern) return ids;
    int number = 0;
    for (const auto &hole : holeCentres(*pattern)) {
        Part part;
        part.id = freshId(build, type.id);
        part.type = type.id;
        part.name = fmt::format("{} {}", word, ++number);
        part.pinned = true;
        seatMember(build, stack, part, hole, Quat::Identity());
        ids.push_back(part.id);
        build.parts.push_back(std::move(part));
    }
    return ids;
}

void dropParts(Build &build, std::vector<std::string> ids) {
    for (const auto &id : ids)
        if (auto next = removePart(build, id)) build = std::move(*next);
}

std::string capital(std::string text) {
    if (!text.empty()) text[0] = char(std::toupper(static_cast<unsigned char>(text[0])));
    return text;
}

std::string pieceWord(const PartType &type) {
    if (type.kind == PartKind::damper) return "Damper";
    if (!type.fastener) return type.name;
    return capital(fmt::format("{} {}", type.fastener->thread, formWord(type.fastener->form)));
}

int place(const Stack &stack, int at) { return std::clamp(at, 0, int(stack.layers.size())); }

} // namespace

std::optional<LayerRole> roleOf(const PartType &type) {
    if (type.kind == PartKind::damper) return LayerRole::damper;
    if (type.carries && type.mounting) return LayerRole::adapter;
    if (type.kind == PartKind::fastener) {
        if (!type.fastener) return std::nullopt;
        switch (type.fastener->form) {
        case FastenerForm::screw: return std::nullopt;
        case FastenerForm::nut:
        case FastenerForm::lockNut:
        case FastenerForm::thinLockNut:
        case FastenerForm::pressNut: return LayerRole::nut;
        case FastenerForm::washer: return LayerRole::washer;
        case FastenerForm::shim: return LayerRole::shim;
        case FastenerForm::spacer:
        case FastenerForm::standoff: return LayerRole::spacer;
        }
    }
    if (type.kind == PartKind::motor || !type.mounting) return std::nullopt;
    return LayerRole::board;
}

EditResult addStack(const Build &build, const std::string &on, const std::string &name, std::string *id) {
    Build next = build;
    Stack stack;
    stack.id = freshId(build, "stack");
    stack.name = name;
    stack.on = on;
    stack.layers.push_back({LayerRole::frame, {}, {}, 0, {}});
    if (!patternOf(build, stack))
        return refuse(fmt::format("\"{}\" has no hole pattern that a stack could stand on.", on));
    if (std::any_of(build.stacks.begin(), build.stacks.end(), [&](const Stack &s) { return s.on == on; }))
        return refuse(fmt::format("A stack stands on {} already.", displayName(build, on)));
    if (id) *id = stack.id;
    next.stacks.push_back(std::move(stack));
    return next;
}

EditResult gatherStack(const Build &build, const std::string &site, const std::string &name, std::string *id) {
    std::string made;
    auto empty = addStack(build, site, name, &made);
    if (!empty) return empty;
    Build next = std::move(*empty);
    Stack &stack = *stackIn(next, made);
    struct Piece {
        std::string part;
        LayerRole role;
        double from_mm, to_mm;
    };
    std::vector<Piece> pieces;
    std::vector<std::string> members;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || part.placement.site != site || stackPlaceOf(build, part)) continue;
        if (part.fastening.method != FasteningMethod::stack && part.fastening.method != FasteningMethod::screws)
            continue;
        if (type->fastener && type->fastener->form == FastenerForm::screw) {
            stack.screws.push_back(part.id);
            members.push_back(part.id);
            continue;
        }
        const auto role = roleOf(*type);
        if (!role) continue;
        const LayerSpan span = clampedSpan(*type);
        const Pose &pose = part.placement.pose;
        const bool upright = (pose.rotation * Vec3::UnitZ()).z() >= 0;
        const double z = pose.position_mm.z();
        pieces.push_back(
            {part.id, *role, upright ? z + span.from_mm : z - span.to_mm, upright ? z + span.to_mm : z - span.from_mm});
        members.push_back(part.id);
    }
    if (pieces.empty() && stack.screws.empty()) return refuse("Nothing stands on that pattern yet.");
    std::stable_sort(pieces.begin(), pieces.end(),
                     [](const Piece &a, const Piece &b) { return a.from_mm < b.from_mm; });
    constexpr double kSame_mm = 0.05;
    double top = 0;
    for (const auto &piece : pieces) {
        if (isHardware(piece.role) && !stack.layers.empty()) {
            StackLayer &last = stack.layers.back();
            const Part *first = last.parts.empty() ? nullptr : findPart(build, last.parts.front());
            const Part *own = findPart(build, piece.part);
            if (last.role == piece.role && first && first->type == own->type &&
                std::abs(piece.to_mm - top) < kSame_mm) {
                last.parts.push_back(piece.part);
                continue;
            }
        }
        if (piece.from_mm - top > kSame_mm)
            stack.layers.push_back({LayerRole::gap, {}, measuredValue(piece.from_mm - top), 0, {}});
        stack.layers.push_back({piece.role, {piece.part}, {}, 0, {}});
        top = piece.to_mm;
    }
    for (const auto &member : members) {
        Part &part = *partIn(next, member);
        part.fastening.method = FasteningMethod::stack;
        part.fastening.pieces.reset();
    }
    if (id) *id = made;
    return next;
}

EditResult addHangingStack(const Build &build, const std::string &id, std::string *made) {
    const auto &sites = build.frame->sites;
    const auto site = std::find_if(sites.begin(), sites.end(), [&](const Site &s) { return s.id == id; });
    if (site == sites.end() || !site->pattern) return refuse(fmt::format("\"{}\" has no hole pattern.", id));
    const auto &plates = build.frame->plates;
    const auto plate = std::find_if(plates.begin(), plates.end(), [&](const Plate &p) { return p.id == site->on; });
    if (plate == plates.end()) return refuse("That pattern is on no plate that something could hang under.");
    Site under = *site;
    under.id = freshId(build, site->id + "-under");
    under.name = "Under " + (site->name.empty() ? site->id : site->name);
    under.X_FrameSite.position_mm.z() = plate->z_mm;
    under.X_FrameSite.rotation = canonical(site->X_FrameSite.rotation * Quat(0, 1, 0, 0));
    Build next = build;
    next.frame.edit([&](Frame &frame) { frame.sites.push_back(under); });
    return addStack(next, under.id, under.name, made);
}

EditResult removeStack(const Build &build, const std::string &id) {
    const Stack *stack = findStack(build, id);
    if (!stack) return refuse(fmt::format("There is no stack \"{}\" in this build.", id));
    Build next = build;
    std::vector<std::string> hardware = stack->screws;
    for (const auto &layer : stack->layers)
        for (const auto &partId : layer.parts) {
            if (isHardware(layer.role)) {
                hardware.push_back(partId);
                continue;
            }
            Part &part = *partIn(next, partId);
            const Pose X_FramePart = framePose(build, *findPart(build, partId));
            const auto site = sitePose(*build.frame, part.placement.site);
            part.placement.pose = site ? site->inverse() * X_FramePart : X_FramePart;
            part.fastening.method = FasteningMethod::screws;
        }
    std::erase_if(next.stacks, [&](const Stack &s) { return s.id == id; });
    dropParts(next, hardware);
    return next;
}

EditResult moveLayer(const Build &build, const std::string &id, int from, int to) {
    return changeStack(build, id, [&](Build &, Stack &stack) -> std::string {
        if (!isLayer(stack, from)) return noLayer(stack, from);
        to = std::clamp(to, 0, int(stack.layers.size()) - 1);
        StackLayer layer = std::move(stack.layers[std::size_t(from)]);
        stack.layers.erase(stack.layers.begin() + from);
        stack.layers.insert(stack.layers.begin() + to, std::move(layer));
        return {};
    });
}

EditResult removeLayer(const Build &build, const std::string &id, int index) {
    return changeStack(build, id, [&](Build &next, Stack &stack) -> std::string {
        if (!isLayer(stack, index)) return noLayer(stack, index);
        const StackLayer layer = stack.layers[std::size_t(index)];
        if (layer.role == LayerRole::frame) return "The frame cannot be taken out of its own stack.";
        if (isHardware(layer.role)) {
            dropParts(next, layer.parts);
            return {};
        }
        for (const auto &partId : layer.parts) {
            Part &part = *partIn(next, partId);
            const Pose X_FramePart = framePose(build, *findPart(build, partId));
            const auto site = sitePose(*build.frame, part.placement.site);
            part.placement.pose = site ? site->inverse() * X_FramePart : X_FramePart;
            part.fastening.method = FasteningMethod::none;
        }
        stack.layers.erase(stack.layers.begin() + index);
        return {};
    });
}

EditResult addHardware(const Build &build, const std::string &id, int at, const PartType &type) {
    return changeStack(build, id, [&](Build &next, Stack &stack) -> std::string {
        const auto role = roleOf(type);
        if (!role || !isHardware(*role)) return fmt::format("{} is no layer of a stack.", type.name);
        if (auto wrong = embed(next, type); !wrong.empty()) return wrong;
        StackLayer layer{*role, addPieces(next, stack, type, pieceWord(type)), {}, 0, {}};
        if (layer.parts.empty()) return "This stack has no hole pattern.";
        constexpr double kUsualSqueeze = 0.15; // middle of 10 to 30 %, on the careful side (common practice, no source)
        if (*role == LayerRole::damper) layer.squeeze = kUsualSqueeze;
        stack.layers.insert(stack.layers.begin() + place(stack, at), std::move(layer));
        return {};
    });
}

EditResult addBoard(const Build &build, const std::string &id, int at, const std::string &partId) {
    return changeStack(build, id, [&](Build &next, Stack &stack) -> std::string {
        Part *part = partIn(next, partId);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (!type) return fmt::format("There is no part \"{}\" in this build.", partId);
        const auto role = roleOf(*type);
        if (!role || isHardware(*role)) return fmt::format("{} has no mounting holes for a stack.", part->name);
        if (const auto where = stackPlaceOf(build, *part))
            return fmt::format("{} lies in {} already.", part->name, displayName(build, where->stack->id));
        if (stack.on == partId) return "A plate cannot stand on itself.";
        seatMember(next, stack, *part, Vec2::Zero(), part->placement.pose.rotation);
        stack.layers.insert(stack.layers.begin() + place(stack, at), {*role, {partId}, {}, 0, {}});
        // An adapter must not come to lie in a stack that stands on it, not even by way of others.
        return chainOf(next, stack) ? std::string() : std::string("A plate cannot stand on itself.");
    });
}

EditResult addBoard(const Build &build, const std::string &id, int at, const PartType &type) {
    auto added = addPart(build, type, type.id, Pose{});
    if (!added) return added;
    return addBoard(*added, id, at, added->parts.back().id);
}

EditResult addFiller(const Build &build, const std::string &id, int at, LayerRole role, double height_mm) {
    return changeStack(build, id, [&](Build &, Stack &stack) -> std::string {
        if (role != LayerRole::gap && !liesOnly(role)) return "Only air, wires and sheets are made of nothing.";
        if (!(height_mm > 0 && height_mm <= 100)) return "A layer is more than 0 and at most 100 mm high.";
        stack.layers.insert(stack.layers.begin() + place(stack, at),
                            {role, {}, {height_mm, std::nullopt, Source::estimated}, 0, {}});
        return {};
    });
}

EditResult changeHardware(const Build &build, const std::string &id, int index, const PartType &type) {
    return changeStack(build, id, [&](Build &next, Stack &stack) -> std::string {
        if (!isLayer(stack, index)) return noLayer(stack, index);
        StackLayer &layer = stack.layers[std::size_t(index)];
        const auto role = roleOf(type);
        if (!isHardware(layer.role) || !role || !isHardware(*role))
            return fmt::format("{} cannot take that layer's place.", type.name);
        if (auto wrong = embed(next, type); !wrong.empty()) return wrong;
        layer.role = *role;
        layer.height_mm = {};
        layer.cutTo_mm.reset();
        if (*role != LayerRole::damper) layer.squeeze = 0;
        for (const auto &partId : layer.parts) {
            Part &part = *partIn(next, partId);
            part.type = type.id;
            part.mass_g = {};
        }
        return {};
    });
}

EditResult setLayer(const Build &build, const std::string &id, int index, const Measured &height_mm, double squeeze,
                    std::optional<double> cutTo_mm) {
    return changeStack(build, id, [&](Build &, Stack &stack) -> std::string {
        if (!isLayer(stack, index)) return noLayer(stack, index);
        StackLayer &layer = stack.layers[std::size_t(index)];
        const bool filler = layer.role == LayerRole::gap || liesOnly(layer.role);
        if (layer.role == LayerRole::frame) return "The frame's thickness is that of its plates.";
        if (filler && !height_mm.known()) return "This layer has no height of its own: type one.";
        if (height_mm.known() && !(*height_mm.value > 0 && *height_mm.value <= 100))
            return "A layer is more than 0 and at most 100 mm high.";
        if (height_mm.tolerance && !(*height_mm.tolerance >= 0 && *height_mm.tolerance <= 10))
            return "A tolerance is 0 to 10 mm.";
        if (!(squeeze >= 0 && squeeze <= 0.9)) return "Dampers are squeezed by 0 to 90 %.";
        if (squeeze > 0 && layer.role != LayerRole::damper) return "Only dampers are squeezed.";
        if (cutTo_mm && layer.role != LayerRole::damper) return "Only dampers are cut.";
        if (cutTo_mm && !(*cutTo_mm >= 0.5 && *cutTo_mm <= 30)) return "A damper is cut to 0.5 mm or more.";
        layer.height_mm = height_mm;
        layer.squeeze = squeeze;
        layer.cutTo_mm = cutTo_mm;
        return {};
    });
}

namespace {

EditResult turnLayer(const Build &build, const std::string &id, int index, const Quat &turn, bool own) {
    return changeStack(build, id, [&](Build &next, Stack &stack) -> std::string {
        if (!isLayer(stack, index)) return noLayer(stack, index);
        const StackLayer &layer = stack.layers[std::size_t(index)];
        if (layer.role != LayerRole::board && layer.role != LayerRole::adapter)
            return "Only boards are turned; hardware looks the same.";
        Pose &pose = partIn(next, layer.parts.front())->placement.pose;
        pose.rotation = canonical(own ? pose.rotation * turn : turn * pose.rotation);
        return {};
    });
}

} // namespace

EditResult flipBoard(const Build &build, const std::string &id, int index) {
    return turnLayer(build, id, index, Quat(0, 1, 0, 0), true);
}

EditResult turnBoard(const Build &build, const std::string &id, int index, double angle_deg) {
    if (!std::isfinite(angle_deg)) return refuse("The angle is not a finite number.");
    return turnLayer(build, id, index, Quat(Eigen::AngleAxisd(radiansFromDegrees(angle_deg), Vec3::UnitZ())), false);
}

EditResult chooseScrew(const Build &build, const std::string &id, const FastenerData &screw,
                       const std::string &material) {
    FastenerData data = screw;
    data.form = FastenerForm::screw;
    const auto type = fastenerType(data, material);
    if (!type) return refuse(type.error().message);
    return changeStack(build, id, [&](Build &next, Stack &stack) -> std::string {
        if (auto wrong = embed(next, *type); !wrong.empty()) return wrong;
        stack.hold = StackHold::screws;
        stack.cut_mm = 0; // new ones are whole
        const HolePattern *pattern = patternOf(next, stack);
        if (!pattern) return "This stack has no hole pattern.";
        if (stack.screws.size() != holeCentres(*pattern).size()) {
            const auto old = stack.screws;
            const auto fresh = addPieces(next, stack, *type, (stack.name.empty() ? stack.id : stack.name) + " screw");
            dropParts(next, old);
            stackIn(next, id)->screws = fresh;
            return {};
        }
        for (const auto &partId : stack.screws) {
            Part &part = *partIn(next, partId);
            if (part.type == type->id) continue;
            part.type = type->id;
            part.mass_g = {};
        }
        return {};
    });
}

EditResult holdStack(const Build &build, const std::string &id, StackHold hold) {
    return changeStack(build, id, [&](Build &next, Stack &stack) -> std::string {
        stack.hold = hold;
        if (hold == StackHold::screws) return {};
        std::vector<std::string> gone = stack.screws;
        for (const auto &layer : stack.layers)
            if (layer.role == LayerRole::nut || layer.role == LayerRole::washer)
                gone.insert(gone.end(), layer.parts.begin(), layer.parts.end());
        dropParts(next, gone);
        return {};
    });
}

EditResult setStackBase(const Build &build, const std::string &id, const StackBase &base) {
    return changeStack(build, id, [&](Build &next, Stack &stack) -> std::string {
        const auto &frame = *next.frame;
        auto named = [&](const auto &list) {
            return std::any_of(list.begin(), list.end(), [&](const auto &thing) { return thing.id == base.through; });
        };
        if (!base.through.empty() && !named(frame.plates) && !named(frame.arms))
            return fmt::format("There is no plate or arm \"{}\" in this frame.", base.through);
        if (base.name.empty()) return "A stack needs a name.";
        if (base.threadDepth_mm.known() && !(*base.threadDepth_mm.value > 0 && *base.threadDepth_mm.value <= 100))
            return "A thread is more than 0 and at most 100 mm deep.";
        if (base.end == ScrewEnd::frame && !base.headsOutside)
            return "Screws that end in the frame have their heads outside.";
        stack.name = base.name;
        stack.through = base.through;
        stack.headsOutside = base.headsOutside;
        stack.end = base.end;
        stack.threadDepth_mm = base.threadDepth_mm;
        if (!(base.cut_mm >= 0 && base.cut_mm <= 50)) return "0 to 50 mm can be cut off a screw.";
        if (base.sag_mm.known() && !(*base.sag_mm.value > 0 && *base.sag_mm.value <= 20))
            return "Boards sink by more than 0 and at most 20 mm on their dampers.";
        stack.cut_mm = base.cut_mm;
        stack.sag_mm = base.sag_mm;
        return {};
    });
}

} // namespace waxis
