#include "core/edits/part_edits.h"

#include "core/sight/camera_pose.h"

#include "core/base/units.h"
#include "core/build/chain.h"
#include "core/build/frame_screws.h"
#include "core/edits/radio_edits.h"
#include "core/practice/practice.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

template <class Change>
EditResult changePart(const Build &build, const std::string &id, Change &&change) {
    Build next = build;
    const auto at = std::find_if(next.parts.begin(), next.parts.end(), [&](const Part &p) { return p.id == id; });
    if (at == next.parts.end()) return refuse(fmt::format("There is no part \"{}\" in this build.", id));
    change(*at);
    return next;
}

bool finite(const Pose &pose) { return pose.position_mm.allFinite() && pose.rotation.coeffs().allFinite(); }

} // namespace

void leaveStacks(Build &build, const std::string &part) {
    for (auto &stack : build.stacks) {
        std::erase(stack.screws, part);
        std::erase_if(stack.layers,
                      [&](StackLayer &layer) { return std::erase(layer.parts, part) > 0 && layer.parts.empty(); });
    }
}

EditResult movePart(const Build &build, const std::string &part, const Pose &X_FramePart) {
    if (!finite(X_FramePart)) return refuse("The position is not a finite number.");
    auto moved = changePart(build, part, [&](Part &p) {
        p.placement.site.clear();
        p.placement.pose = {X_FramePart.position_mm, canonical(X_FramePart.rotation)};
    });
    if (moved) leaveStacks(*moved, part);
    return moved;
}

EditResult seatPart(const Build &build, const std::string &part, const std::string &site, const Pose &X_SitePart) {
    if (!sitePose(*build.frame, site)) return refuse(fmt::format("There is no mounting site \"{}\".", site));
    if (!finite(X_SitePart)) return refuse("The position is not a finite number.");
    const Part *before = findPart(build, part);
    const auto place = before ? stackPlaceOf(build, *before) : std::nullopt;
    const bool leaves = place && place->stack->on != site;
    auto seated = changePart(build, part, [&](Part &p) {
        const double height = p.placement.pose.position_mm.z();
        p.placement.site = site;
        p.placement.pose = {X_SitePart.position_mm, canonical(X_SitePart.rotation)};
        if (place && !leaves) p.placement.pose.position_mm.z() = height; // the layers give it
    });
    if (seated && leaves) leaveStacks(*seated, part);
    return seated;
}

EditResult placePart(const Build &build, const std::string &part, const Pose &X_FramePart) {
    if (!finite(X_FramePart)) return refuse("The position is not a finite number.");
    return changePart(build, part, [&](Part &p) {
        const double height = p.placement.pose.position_mm.z();
        const Pose inAxes = placementAxes(build, p).inverse() * X_FramePart;
        p.placement.pose = {inAxes.position_mm, canonical(inAxes.rotation)};
        if (stackPlaceOf(build, p)) p.placement.pose.position_mm.z() = height; // the layers give it
    });
}

EditResult shiftPart(const Build &build, const std::string &part, const Vec3 &shift_mm, bool keepSite) {
    const Part *found = findPart(build, part);
    if (!found) return refuse(fmt::format("There is no part \"{}\" in this build.", part));
    if (shift_mm.isZero(0)) return build; // not even the rounding of a pose taken apart and put together
    Pose X_FramePart = framePose(build, *found);
    X_FramePart.position_mm += shift_mm;
    return keepSite ? placePart(build, part, X_FramePart) : movePart(build, part, X_FramePart);
}

EditResult turnPart(const Build &build, const std::string &part, const Vec3 &axis, double angle_deg) {
    const Part *found = findPart(build, part);
    if (!found) return refuse(fmt::format("There is no part \"{}\" in this build.", part));
    Pose X_FramePart = framePose(build, *found);
    const Quat turn(Eigen::AngleAxisd(radiansFromDegrees(angle_deg), axis.normalized()));
    X_FramePart.rotation = turn * X_FramePart.rotation;
    return placePart(build, part, X_FramePart);
}

EditResult weighPart(const Build &build, const std::string &part, const Measured &mass_g) {
    if (mass_g.known() && !(*mass_g.value >= 0)) return refuse("A mass cannot be less than nothing.");
    return changePart(build, part, [&](Part &p) { p.mass_g = mass_g; });
}

/// Channels and ground stations of bands that are gone go with them; a channel outside its band falls back.
static void dropLostRadios(Build &build) {
    std::erase_if(build.radioSettings, [&](const RadioSetting &s) { return !bandOf(build, s.part, s.band); });
    std::erase_if(build.groundStations, [&](const GroundStation &s) { return !bandOf(build, s.part, s.band); });
    for (auto &setting : build.radioSettings) {
        const RadioBand &band = *bandOf(build, setting.part, setting.band);
        if (setting.centre_MHz && (*setting.centre_MHz < band.low_MHz || *setting.centre_MHz > band.high_MHz))
            setting.centre_MHz.reset();
    }
}

EditResult changeType(const Build &build, const std::string &part, const std::string &type) {
    if (!build.types->contains(type)) return refuse(fmt::format("The build has no part type \"{}\".", type));
    auto changed = changePart(build, part, [&](Part &p) {
        p.type = type;
        p.mass_g = {}; // what was weighed was the other model
    });
    if (changed) dropLostRadios(*changed);
    // Pieces of hardware in a stack are alike: with one of them all of its layer change.
    const Part *found = findPart(build, part);
    const auto place = found ? stackPlaceOf(build, *found) : std::nullopt;
    if (!changed || !place) return changed;
    const std::vector<std::string> &pieces =
        place->layer < 0 ? place->stack->screws : place->stack->layers[std::size_t(place->layer)].parts;
    for (auto &other : changed->parts)
        if (other.id != part && std::find(pieces.begin(), pieces.end(), other.id) != pieces.end()) {
            other.type = type;
            other.mass_g = {};
        }
    return changed;
}

EditResult renamePart(const Build &build, const std::string &part, const std::string &name) {
    if (name.empty()) return refuse("A part needs a name.");
    return changePart(build, part, [&](Part &p) { p.name = name; });
}

EditResult pinPart(const Build &build, const std::string &part, bool pinned) {
    return changePart(build, part, [&](Part &p) { p.pinned = pinned; });
}

EditResult removePart(const Build &build, const std::string &part) {
    Build next = build;
    if (std::erase_if(next.parts, [&](const Part &p) { return p.id == part; }) == 0)
        return refuse(fmt::format("There is no part \"{}\" in this build.", part));
    leaveStacks(next, part);
    std::erase_if(next.wires, [&](const Wire &w) { return w.from.part == part || w.to.part == part; });
    std::erase_if(next.radioSettings, [&](const RadioSetting &s) { return s.part == part; });
    std::erase_if(next.groundStations, [&](const GroundStation &s) { return s.part == part; });
    std::erase_if(next.trials, [&](const TrialPlace &t) { return t.part == part; });
    // What stood on an adapter that goes stays where it is, on nothing.
    for (const auto &stack : build.stacks)
        if (stack.on == part) {
            for (auto &member : next.parts)
                if (const auto place = stackPlaceOf(build, member); place && place->stack == &stack) {
                    member.placement.pose = framePose(build, *findPart(build, member.id));
                    member.fastening.method = FasteningMethod::none;
                }
            std::erase_if(next.stacks, [&](const Stack &s) { return s.id == stack.id; });
        }
    for (auto &other : next.parts) std::erase(other.fastening.onto, part);
    tidyScrews(next);
    for (auto &loadCase : next.loadCases) {
        std::erase(loadCase.aboard, part);
        std::erase(loadCase.off, part);
        if (loadCase.battery == part) loadCase.battery.clear();
        if (loadCase.usb == part) loadCase.usb.clear();
    }
    return next;
}

EditResult addPart(const Build &build, const PartType &type, const std::string &idBase, const Pose &X_FramePart) {
    if (!finite(X_FramePart)) return refuse("The position is not a finite number.");
    Build next = build;
    const auto present = next.types->find(type.id);
    if (present == next.types->end())
        next.types.edit([&](TypeTable &table) { table.emplace(type.id, type); });
    else if (!(present->second == type))
        return refuse(fmt::format("The build already has another part type called \"{}\".", type.id));
    Part part;
    part.id = freshId(build, idBase);
    part.type = type.id;
    part.name = type.name;
    part.placement.pose = X_FramePart;
    next.parts.push_back(std::move(part));
    return next;
}

EditResult putType(const Build &build, const PartType &type, const std::string &replaces) {
    if (type.id != replaces && build.types->contains(type.id))
        return refuse(fmt::format("The build already has a part type called \"{}\".", type.id));
    if (!replaces.empty() && !build.types->contains(replaces))
        return refuse(fmt::format("The build has no part type \"{}\".", replaces));
    Build next = build;
    next.types.edit([&](TypeTable &types) {
        types.erase(replaces);
        types.insert_or_assign(type.id, type);
    });
    for (auto &part : next.parts)
        if (!replaces.empty() && part.type == replaces) part.type = type.id;
    for (auto &entry : next.kit)
        if (!replaces.empty() && entry.item == replaces) entry.item = type.id;
    for (auto &wire : next.wires)
        for (auto &insert : wire.inserts)
            if (!replaces.empty() && insert.type == replaces) insert.type = type.id;
    dropLostRadios(next);
    return next;
}

EditResult acceptFinding(const Build &build, const std::string &findingKey, const std::string &reason) {
    if (reason.find_first_not_of(" \t\n") == std::string::npos) return refuse("Say why it is acceptable.");
    Build next = build;
    std::erase_if(next.acceptances, [&](const Acceptance &a) { return a.finding == findingKey; });
    next.acceptances.push_back({findingKey, reason});
    return next;
}

EditResult withdrawAcceptance(const Build &build, const std::string &findingKey) {
    Build next = build;
    if (std::erase_if(next.acceptances, [&](const Acceptance &a) { return a.finding == findingKey; }) == 0)
        return refuse("That finding was not accepted.");
    return next;
}

EditResult setLimit(const Build &build, const std::string &limit, std::optional<double> value,
                    const std::string &note) {
    const auto &table = limitTable();
    const auto at = std::find_if(table.begin(), table.end(), [&](const LimitDefinition &d) { return d.id == limit; });
    if (at == table.end()) return refuse(fmt::format("There is no limit \"{}\".", limit));
    constexpr double kMost = 100000; // as the file format has it
    if (value && !(*value >= 0 && *value <= kMost))
        return refuse(fmt::format("{}: a number from 0 to {:g} {}.", at->title, kMost, at->unit));
    Build next = build;
    next.practice.limits.erase(limit);
    next.practice.notes.erase(limit);
    if (value) next.practice.limits[limit] = *value;
    if (value && !note.empty()) next.practice.notes[limit] = note;
    return next;
}

EditResult setSchool(const Build &build, const std::string &id, const std::string &option, const std::string &note) {
    const School *school = findSchool(id);
    if (!school) return refuse(fmt::format("There is no school \"{}\".", id));
    if (!option.empty() && !findOption(*school, option))
        return refuse(fmt::format("{} knows no \"{}\".", school->title, option));
    Build next = build;
    next.practice.schools.erase(id);
    next.practice.notes.erase(id);
    if (!option.empty()) next.practice.schools[id] = option;
    if (!option.empty() && !note.empty()) next.practice.notes[id] = note;
    return next;
}

EditResult setPractice(const Build &build, const PracticeSettings &settings) {
    if (!isProfile(settings.profile))
        return refuse(fmt::format("There is no practice profile \"{}\".", settings.profile));
    Build next = build;
    next.practice = settings;
    return next;
}

EditResult chooseProfile(const Build &build, const std::string &profile) {
    if (!isProfile(profile)) return refuse(fmt::format("There is no practice profile \"{}\".", profile));
    Build next = build;
    next.practice.profile = profile;
    return next;
}

EditResult tiltCamera(const Build &build, const std::string &id, double tilt_deg) {
    const Part *part = findPart(build, id);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (!type || !type->camera) return Failure{EditError{fmt::format("\"{}\" is not a camera of this build.", id)}};
    if (!(tilt_deg >= type->camera->tiltMin_deg - 1e-6 && tilt_deg <= type->camera->tiltMax_deg + 1e-6))
        return Failure{EditError{fmt::format("{} tilts from {:g} to {:g} degrees.", displayName(build, id),
                                             type->camera->tiltMin_deg, type->camera->tiltMax_deg)}};
    return placePart(build, id, tilted(*type, framePose(build, *part), tilt_deg));
}

} // namespace waxis
