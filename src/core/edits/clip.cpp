#include "core/edits/clip.h"

#include "core/build/chain.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <set>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

bool all(const std::vector<std::string> &ids, const std::set<std::string> &known) {
    return std::all_of(ids.begin(), ids.end(), [&](const std::string &id) { return known.contains(id); });
}

/// A stack travels when all of its boards and hardware do.
bool liesWithin(const Build &build, const Stack &stack, const std::set<std::string> &chosen) {
    if (findPart(build, stack.on) && !chosen.contains(stack.on)) return false;
    return all(stack.screws, chosen) && std::all_of(stack.layers.begin(), stack.layers.end(),
                                                    [&](const StackLayer &l) { return all(l.parts, chosen); });
}

/// The next mount, in the frame's order, on which no part of this kind stands.
std::string freeMount(const Build &build, const PartType &type) {
    for (const auto &mount : build.frame->motorMounts) {
        const bool taken = std::any_of(build.parts.begin(), build.parts.end(), [&](const Part &p) {
            const PartType *other = typeOf(build, p);
            return p.placement.site == mount.id && other && other->kind == type.kind;
        });
        if (!taken) return mount.id;
    }
    return {};
}

bool isMount(const Frame &frame, const std::string &id) {
    return std::any_of(frame.motorMounts.begin(), frame.motorMounts.end(),
                       [&](const MotorMount &m) { return m.id == id; });
}

/// The arm whose tip is nearest to a mount, for what is fastened onto the arm beside it.
std::string armAt(const Frame &frame, const std::string &mount) {
    const auto at = sitePose(frame, mount);
    std::string best;
    double least = 1e300;
    for (const auto &arm : frame.arms) {
        const double off = at ? (arm.tip_mm - at->position_mm).head<2>().norm() : 0;
        if (off < least) {
            least = off;
            best = arm.id;
        }
    }
    return best;
}

} // namespace

EditResult clipOf(const Build &build, const std::vector<std::string> &parts) {
    if (parts.empty()) return refuse("Choose the parts to copy.");
    const std::set<std::string> chosen(parts.begin(), parts.end());
    Build clip;
    clip.name = build.name;
    clip.frame = build.frame;
    std::set<std::string> stacked;
    for (const auto &stack : build.stacks)
        if (liesWithin(build, stack, chosen)) {
            clip.stacks.push_back(stack);
            for (const auto &layer : stack.layers) stacked.insert(layer.parts.begin(), layer.parts.end());
            stacked.insert(stack.screws.begin(), stack.screws.end());
        }
    TypeTable types;
    for (const auto &part : build.parts) {
        if (!chosen.contains(part.id)) continue;
        const PartType *type = typeOf(build, part);
        if (!type) return refuse(fmt::format("{} has no type.", part.name));
        types.emplace(type->id, *type);
        Part copy = part;
        // Of a stack that stays behind a board comes alone, and is held by nothing.
        if (!stacked.contains(part.id)) {
            copy.placement.pose = framePose(build, part);
            if (copy.fastening.method == FasteningMethod::stack) copy.fastening.method = FasteningMethod::none;
        }
        std::erase_if(copy.fastening.onto,
                      [&](const std::string &id) { return findPart(build, id) && !chosen.contains(id); });
        clip.parts.push_back(std::move(copy));
    }
    if (clip.parts.size() != chosen.size()) return refuse("Some of the chosen parts are not in this build.");
    clip.types = std::move(types);
    for (const auto &wire : build.wires)
        if (chosen.contains(wire.from.part) && chosen.contains(wire.to.part)) clip.wires.push_back(wire);
    return clip;
}

EditResult pasteClip(const Build &build, const Build &clip, const Vec3 &shift_mm, std::vector<std::string> *added) {
    if (clip.parts.empty()) return refuse("There is nothing to paste.");
    if (!shift_mm.allFinite()) return refuse("The shift is not a finite number.");
    Build next = build;
    std::map<std::string, std::string> typeId, partId, stackId;
    next.types.edit([&](TypeTable &table) {
        for (const auto &[id, type] : *clip.types) {
            PartType copy = type;
            const auto isTaken = [&] { // by another type than this one
                const auto there = table.find(copy.id);
                return there != table.end() && !(there->second == copy);
            };
            for (int n = 2; isTaken(); ++n) copy.id = fmt::format("{}-{}", id, n);
            typeId[id] = copy.id;
            table.emplace(copy.id, copy);
        }
    });
    std::set<std::string> stacked;
    for (const auto &stack : clip.stacks) {
        // Its pattern must be free here.
        const bool stands = sitePose(*build.frame, stack.on) || partId.contains(stack.on);
        const bool taken =
            std::any_of(build.stacks.begin(), build.stacks.end(), [&](const Stack &s) { return s.on == stack.on; });
        if (!stands || taken) continue;
        stackId[stack.id] = {};
        for (const auto &layer : stack.layers) stacked.insert(layer.parts.begin(), layer.parts.end());
        stacked.insert(stack.screws.begin(), stack.screws.end());
    }
    std::map<std::string, std::string> mountOf; // copies of one mount go to one mount
    for (const auto &part : clip.parts) {
        const auto type = typeId.find(part.type);
        if (type == typeId.end()) return refuse(fmt::format("{} comes without its type.", part.name));
        Part copy = part;
        copy.id = freshId(next, part.id);
        copy.type = type->second;
        copy.mass_g = {}; // weighed was the other one
        copy.pinned = false;
        partId[part.id] = copy.id;
        const PartType &own = next.types->at(copy.type);
        if (!stacked.contains(part.id)) {
            Pose X_FramePart = part.placement.pose;
            const std::string seat = part.placement.site;
            copy.placement.site.clear();
            if (copy.fastening.method == FasteningMethod::stack) copy.fastening.method = FasteningMethod::none;
            if (isMount(*clip.frame, seat)) {
                auto &mount = mountOf[seat];
                if (mount.empty()) mount = freeMount(next, own);
                const auto from = sitePose(*clip.frame, seat);
                if (!mount.empty() && from) {
                    copy.placement.site = mount;
                    copy.placement.pose = from->inverse() * X_FramePart;
                    const std::string was = armAt(*clip.frame, seat), is = armAt(*next.frame, mount);
                    std::replace(copy.fastening.onto.begin(), copy.fastening.onto.end(), was, is);
                }
            }
            if (copy.placement.site.empty()) {
                X_FramePart.position_mm += shift_mm;
                copy.placement.pose = X_FramePart;
            }
        }
        next.parts.push_back(std::move(copy));
        if (added) added->push_back(next.parts.back().id);
    }
    const auto renamed = [&](std::string id) {
        const auto at = partId.find(id);
        return at == partId.end() ? id : at->second;
    };
    const std::size_t first = next.parts.size() - clip.parts.size();
    const auto known = allIds(next);
    const std::set<std::string> ids(known.begin(), known.end());
    for (std::size_t i = first; i < next.parts.size(); ++i) {
        std::vector<std::string> onto;
        for (const auto &id : next.parts[i].fastening.onto) {
            const bool among = partId.contains(id);
            // What stays behind in the other copy's hands is not held by it too.
            if (!among && (!ids.contains(id) || findPart(build, id))) continue;
            onto.push_back(renamed(id));
        }
        next.parts[i].fastening.onto = std::move(onto);
    }
    for (const auto &stack : clip.stacks) {
        if (!stackId.contains(stack.id)) continue;
        Stack copy = stack;
        copy.id = freshId(next, stack.id);
        copy.on = renamed(stack.on);
        for (auto &layer : copy.layers)
            for (auto &id : layer.parts) id = renamed(id);
        for (auto &id : copy.screws) id = renamed(id);
        next.stacks.push_back(std::move(copy));
    }
    for (const auto &wire : clip.wires) {
        Wire copy = wire;
        copy.id = freshId(next, wire.id);
        copy.from.part = renamed(wire.from.part);
        copy.to.part = renamed(wire.to.part);
        // Led by places of the other one it would run all over the craft.
        copy.stops.clear();
        copy.bundle.clear();
        next.wires.push_back(std::move(copy));
    }
    return next;
}

} // namespace waxis
