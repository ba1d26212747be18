#include "core/edits/clip.h"

#include "core/build/chain.h"
#include "core/build/on_mount.h"

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
    for (const auto &mount : build.frame->motorMounts)
        if (!typeOn(build, mount.id, type.kind)) return mount.id;
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
    for (const auto &wire : build.wires)
        if (chosen.contains(wire.from.part) && chosen.contains(wire.to.part)) {
            clip.wires.push_back(wire);
            for (const auto &insert : wire.inserts)
                if (const auto type = build.types->find(insert.type); type != build.types->end()) types.insert(*type);
        }
    clip.types = std::move(types);
    return clip;
}

namespace {

/// Puts a clip into a build, its parts under ids of their own.
class Pasting {
public:
    Pasting(const Build &build, const Build &clip) : build_(build), clip_(clip), next_(build) {}

    EditResult paste(const Vec3 &shift_mm, std::vector<std::string> *added) {
        addTypes();
        chooseStacks();
        for (const auto &part : clip_.parts) {
            const auto type = typeId_.find(part.type);
            if (type == typeId_.end()) return refuse(fmt::format("{} comes without its type.", part.name));
            next_.parts.push_back(copyOf(part, type->second, shift_mm));
            if (added) added->push_back(next_.parts.back().id);
        }
        fastenCopies();
        addStacks();
        addWires();
        return std::move(next_);
    }

private:
    void addTypes() {
        next_.types.edit([&](TypeTable &table) {
            for (const auto &[id, type] : *clip_.types) {
                PartType copy = type;
                const auto isTaken = [&] { // by another type than this one
                    const auto there = table.find(copy.id);
                    return there != table.end() && !(there->second == copy);
                };
                for (int n = 2; isTaken(); ++n) copy.id = fmt::format("{}-{}", id, n);
                typeId_[id] = copy.id;
                table.emplace(copy.id, copy);
            }
        });
    }

    /// A stack comes along with the adapter that it stands on, or where its pattern is there and free.
    void chooseStacks() {
        for (const auto &stack : clip_.stacks) {
            const bool taken = std::any_of(build_.stacks.begin(), build_.stacks.end(),
                                           [&](const Stack &s) { return s.on == stack.on; });
            if (!findPart(clip_, stack.on) && (!sitePose(*build_.frame, stack.on) || taken)) continue;
            stacks_.insert(stack.id);
            for (const auto &layer : stack.layers) stacked_.insert(layer.parts.begin(), layer.parts.end());
            stacked_.insert(stack.screws.begin(), stack.screws.end());
        }
    }

    Part copyOf(const Part &part, const std::string &type, const Vec3 &shift_mm) {
        Part copy = part;
        copy.id = freshId(next_, part.id);
        copy.type = type;
        copy.mass_g = {}; // weighed was the other one
        copy.pinned = false;
        partId_[part.id] = copy.id;
        if (!stacked_.contains(part.id)) stand(copy, part, shift_mm);
        return copy;
    }

    /// On a free mount where it sat on one; else beside where it was.
    void stand(Part &copy, const Part &part, const Vec3 &shift_mm) {
        Pose X_FramePart = part.placement.pose;
        const std::string seat = part.placement.site;
        copy.placement.site.clear();
        if (copy.fastening.method == FasteningMethod::stack) copy.fastening.method = FasteningMethod::none;
        if (isMount(*clip_.frame, seat)) {
            auto &mount = mountOf_[seat];
            if (mount.empty()) mount = freeMount(next_, next_.types->at(copy.type));
            const auto from = sitePose(*clip_.frame, seat);
            if (!mount.empty() && from) {
                copy.placement.site = mount;
                copy.placement.pose = from->inverse() * X_FramePart;
                const std::string was = armAt(*clip_.frame, seat), is = armAt(*next_.frame, mount);
                std::replace(copy.fastening.onto.begin(), copy.fastening.onto.end(), was, is);
            }
        }
        if (!copy.placement.site.empty()) return;
        X_FramePart.position_mm += shift_mm;
        copy.placement.pose = X_FramePart;
    }

    std::string renamed(const std::string &id) const {
        const auto at = partId_.find(id);
        return at == partId_.end() ? id : at->second;
    }

    void fastenCopies() {
        const auto known = allIds(next_);
        const std::set<std::string> ids(known.begin(), known.end());
        for (std::size_t i = next_.parts.size() - clip_.parts.size(); i < next_.parts.size(); ++i) {
            std::vector<std::string> onto;
            for (const auto &id : next_.parts[i].fastening.onto) {
                const bool among = partId_.contains(id);
                // What stays behind in the other copy's hands is not held by it too.
                if (!among && (!ids.contains(id) || findPart(build_, id))) continue;
                onto.push_back(renamed(id));
            }
            next_.parts[i].fastening.onto = std::move(onto);
        }
    }

    void addStacks() {
        for (const auto &stack : clip_.stacks) {
            if (!stacks_.contains(stack.id)) continue;
            Stack copy = stack;
            copy.id = freshId(next_, stack.id);
            copy.on = renamed(stack.on);
            for (auto &layer : copy.layers)
                for (auto &id : layer.parts) id = renamed(id);
            for (auto &id : copy.screws) id = renamed(id);
            next_.stacks.push_back(std::move(copy));
        }
    }

    void addWires() {
        for (const auto &wire : clip_.wires) {
            Wire copy = wire;
            copy.id = freshId(next_, wire.id);
            copy.from.part = renamed(wire.from.part);
            copy.to.part = renamed(wire.to.part);
            // Led by places of the other one it would run all over the craft.
            copy.stops.clear();
            copy.bundle.clear();
            for (auto &insert : copy.inserts)
                if (const auto here = typeId_.find(insert.type); here != typeId_.end()) insert.type = here->second;
            next_.wires.push_back(std::move(copy));
        }
    }

    const Build &build_, &clip_;
    Build next_;
    std::map<std::string, std::string> typeId_, partId_; ///< of the clip, here
    std::map<std::string, std::string> mountOf_;         ///< copies of one mount go to one mount
    std::set<std::string> stacks_, stacked_;             ///< that come along, and what is in them
};

} // namespace

EditResult pasteClip(const Build &build, const Build &clip, const Vec3 &shift_mm, std::vector<std::string> *added) {
    if (clip.parts.empty()) return refuse("There is nothing to paste.");
    if (!shift_mm.allFinite()) return refuse("The shift is not a finite number.");
    return Pasting(build, clip).paste(shift_mm, added);
}

} // namespace waxis
