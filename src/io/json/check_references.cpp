#include "core/base/text_match.h"
#include "core/build/chain.h"
#include "core/build/log.h"
#include "core/log/entry_text.h"
#include "core/practice/practice.h"
#include "core/practice/retired.h"
#include "io/json/read_model.h"

#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace waxis::io {

namespace {

[[noreturn]] void refuse(std::string where, std::string expected, std::string found, const std::string &near = {}) {
    throw Unreadable{{std::move(where), std::move(expected), std::move(found),
                      near.empty() ? "" : fmt::format("did you mean \"{}\"?", near)}};
}

/// Gathers ids of one name space and refuses the second use of one.
class IdRegister {
public:
    template <class List>
    void take(const List &list, const std::string &pointer) {
        for (std::size_t i = 0; i < list.size(); ++i)
            if (!ids_.insert(list[i].id).second)
                refuse(fmt::format("{}/{}/id", pointer, i), "an id of its own in the whole build",
                       fmt::format("\"{}\" again", list[i].id));
    }
    void mustKnow(const std::string &id, const std::string &where, const char *what) const {
        if (ids_.contains(id)) return;
        refuse(where, what, fmt::format("\"{}\", which is not in the build", id),
               nearestWord(id, {ids_.begin(), ids_.end()}));
    }

private:
    std::set<std::string> ids_;
};

using Ids = std::set<std::string>;

template <class List>
Ids idsOf(const List &list) {
    Ids ids;
    for (const auto &thing : list) ids.insert(thing.id);
    return ids;
}

void mustBeOneOf(const std::string &id, const Ids &ids, const std::string &where, const char *what) {
    if (!ids.contains(id)) refuse(where, what, fmt::format("\"{}\"", id), nearestWord(id, {ids.begin(), ids.end()}));
}

void checkStacks(const Build &build, const Ids &parts) {
    std::set<std::string> placed, bases;
    auto members = idsOf(build.frame->plates);
    for (const auto &arm : build.frame->arms) members.insert(arm.id);
    for (std::size_t i = 0; i < build.stacks.size(); ++i) {
        const Stack &stack = build.stacks[i];
        const auto at = [&](const std::string &key) { return fmt::format("/stacks/{}/{}", i, key); };
        if (!patternOf(build, stack))
            refuse(at("on"), "the id of a site with a hole pattern, or of a part that carries a second one",
                   fmt::format("\"{}\"", stack.on));
        if (!bases.insert(stack.on).second)
            refuse(at("on"), "one stack on each place", fmt::format("\"{}\" again", stack.on));
        if (!stack.through.empty()) mustBeOneOf(stack.through, members, at("through"), "the id of a plate or arm");
        if (!chainOf(build, stack))
            refuse(at("on"), "a part that does not stand on this stack", fmt::format("\"{}\"", stack.on));
        auto take = [&](const std::string &id, const std::string &where) {
            mustBeOneOf(id, parts, where, "the id of a part");
            if (!placed.insert(id).second) refuse(where, "each part in one layer", fmt::format("\"{}\" again", id));
            const Part &part = *findPart(build, id);
            if (part.fastening.method != FasteningMethod::stack)
                refuse(where, "a part that is fastened by \"stack\"", fmt::format("\"{}\", which is not", id));
            const std::string site = sitePose(*build.frame, stack.on) ? stack.on : std::string();
            if (part.placement.site != site)
                refuse(where, site.empty() ? "a part without a site" : fmt::format("a part on the site \"{}\"", site),
                       fmt::format("\"{}\" on \"{}\"", id, part.placement.site));
        };
        for (std::size_t k = 0; k < stack.screws.size(); ++k) take(stack.screws[k], at(fmt::format("screws/{}", k)));
        for (std::size_t l = 0; l < stack.layers.size(); ++l)
            for (std::size_t k = 0; k < stack.layers[l].parts.size(); ++k)
                take(stack.layers[l].parts[k], at(fmt::format("layers/{}/parts/{}", l, k)));
    }
}

/// Ends and stops must be there; a port or pin that its part does not have is a finding, not a broken file.
void checkWires(const Build &build, const Ids &parts, const Ids &types, const IdRegister &all) {
    for (std::size_t i = 0; i < build.wires.size(); ++i) {
        const Wire &wire = build.wires[i];
        const auto at = [&](const std::string &key) { return fmt::format("/wires/{}/{}", i, key); };
        mustBeOneOf(wire.from.part, parts, at("from/part"), "the id of a part");
        mustBeOneOf(wire.to.part, parts, at("to/part"), "the id of a part");
        for (std::size_t k = 0; k < wire.inserts.size(); ++k) {
            const WireInsert &insert = wire.inserts[k];
            mustBeOneOf(insert.type, types, at(fmt::format("inserts/{}/type", k)), "the id of a type in /types");
            if (insert.core >= int(wire.cores.size()))
                refuse(at(fmt::format("inserts/{}/core", k)),
                       fmt::format("the number of one of the wire's {} cores, from 0, or -1", wire.cores.size()),
                       fmt::format("{}", insert.core));
        }
        for (std::size_t k = 0; k < wire.stops.size(); ++k)
            if (!wire.stops[k].at.empty())
                all.mustKnow(wire.stops[k].at, at(fmt::format("stops/{}/at", k)),
                             "the id of a pass-through, arm or tie");
    }
}

/// Settings and ground stations name a band of a radio that is aboard.
void checkRadio(const Build &build, const Ids &parts) {
    const auto checkBand = [&](const std::string &part, int band, const std::string &where) {
        mustBeOneOf(part, parts, where + "/part", "the id of a part");
        const PartType *type = typeOf(build, *findPart(build, part));
        const int bands = type ? int(type->radio.size()) : 0;
        if (band >= bands)
            refuse(where + "/band", fmt::format("the number of one of the part's {} radio bands, from 0", bands),
                   fmt::format("{}", band));
    };
    std::set<std::pair<std::string, int>> set;
    for (std::size_t i = 0; i < build.radioSettings.size(); ++i) {
        const auto &setting = build.radioSettings[i];
        const auto where = fmt::format("/radioSettings/{}", i);
        checkBand(setting.part, setting.band, where);
        if (!set.insert({setting.part, setting.band}).second)
            refuse(where, "one setting for each band", fmt::format("\"{}\" again", setting.part));
    }
    for (std::size_t i = 0; i < build.groundStations.size(); ++i)
        checkBand(build.groundStations[i].part, build.groundStations[i].band, fmt::format("/groundStations/{}", i));
    for (std::size_t i = 0; i < build.trials.size(); ++i)
        mustBeOneOf(build.trials[i].part, parts, fmt::format("/trials/{}/part", i), "the id of a part");
}

/// A screw of the frame goes through and into members of the frame.
void checkFrameScrews(const Build &build) {
    const Frame &frame = *build.frame;
    Ids posts = idsOf(frame.standoffs), members = posts;
    members.merge(idsOf(frame.plates));
    members.merge(idsOf(frame.arms));
    Ids clamped = members;
    clamped.merge(idsOf(build.parts));
    for (std::size_t i = 0; i < frame.screws.size(); ++i) {
        const FrameScrew &screw = frame.screws[i];
        if (std::none_of(screw.through.begin(), screw.through.end(),
                         [&](const auto &id) { return members.contains(id); }))
            mustBeOneOf(screw.through.front(), members, fmt::format("/frame/screws/{}/through/0", i),
                        "the id of a plate, arm or post");
        const auto at = [&](const std::string &key) { return fmt::format("/frame/screws/{}/{}", i, key); };
        for (std::size_t k = 0; k < screw.through.size(); ++k)
            mustBeOneOf(screw.through[k], clamped, at(fmt::format("through/{}", k)),
                        "the id of a plate, arm, post or part");
        if (!screw.into.empty()) mustBeOneOf(screw.into, posts, at("into"), "the id of a post");
    }
}

void checkWeights(const Build &build) {
    const auto cases = idsOf(effectiveLoadCases(build));
    const auto check = [&](const auto &list, const char *key) {
        for (std::size_t i = 0; i < list.size(); ++i)
            if (!list[i].loadCase.empty())
                mustBeOneOf(list[i].loadCase, cases, fmt::format("/{}/{}/loadCase", key, i), "the id of a load case");
    };
    check(build.weighings, "weighings");
    check(build.weightLimits, "weightLimits");
}

/// Entries and tries belong to something, and say what their quantity asks for. What they are of may be gone by now.
void checkLog(const Log &log) {
    const Ids sessions = idsOf(log.sessions);
    for (std::size_t i = 0; i < log.entries.size(); ++i) {
        const std::string where = fmt::format("/log/entries/{}", i);
        mustBeOneOf(log.entries[i].session, sessions, where + "/session", "the id of a session");
        if (const auto fault = faultOf(log.entries[i]); !fault.empty())
            refuse(where, "an entry as its quantity asks for", fault);
    }
    for (std::size_t i = 0; i < log.trials.size(); ++i) {
        const Ids setups = idsOf(log.trials[i].setups);
        for (std::size_t k = 0; k < log.trials[i].tries.size(); ++k) {
            const Try &one = log.trials[i].tries[k];
            const std::string where = fmt::format("/log/trials/{}/tries/{}", i, k);
            mustBeOneOf(one.setup, setups, where + "/setup", "the id of one of the trial's ways");
            if (!one.session.empty()) mustBeOneOf(one.session, sessions, where + "/session", "the id of a session");
            if (!one.value && !(one.watched_s > 0)) refuse(where, "a value, or how long it was watched", "neither");
        }
    }
}

} // namespace

void checkReferences(const Build &build) {
    const Frame &frame = *build.frame;
    IdRegister all;
    all.take(frame.motorMounts, "/frame/motorMounts");
    all.take(frame.arms, "/frame/arms");
    all.take(frame.plates, "/frame/plates");
    all.take(frame.standoffs, "/frame/standoffs");
    all.take(frame.screws, "/frame/screws");
    all.take(frame.sites, "/frame/sites");
    all.take(frame.passThroughs, "/frame/passThroughs");
    all.take(build.parts, "/parts");
    all.take(build.stacks, "/stacks");
    all.take(build.wires, "/wires");
    all.take(build.ties, "/ties");
    all.take(build.groundStations, "/groundStations");
    all.take(build.trials, "/trials");
    all.take(build.allowances, "/allowances");
    all.take(build.loadCases, "/loadCases");
    all.take(build.weighings, "/weighings");
    all.take(build.weightLimits, "/weightLimits");
    all.take(build.ownSteps, "/ownSteps");
    const Log &log = *build.log;
    all.take(log.sessions, "/log/sessions");
    all.take(log.entries, "/log/entries");
    all.take(log.trials, "/log/trials");
    for (std::size_t i = 0; i < log.trials.size(); ++i) {
        all.take(log.trials[i].setups, fmt::format("/log/trials/{}/setups", i));
        all.take(log.trials[i].tries, fmt::format("/log/trials/{}/tries", i));
    }
    all.take(log.snapshots, "/log/states");
    checkLog(log);

    const auto plates = idsOf(frame.plates), parts = idsOf(build.parts);
    auto seats = idsOf(frame.sites);
    for (const auto &mount : frame.motorMounts) seats.insert(mount.id);
    for (std::size_t i = 0; i < frame.sites.size(); ++i)
        if (!frame.sites[i].on.empty())
            all.mustKnow(frame.sites[i].on, fmt::format("/frame/sites/{}/on", i), "the id of what carries the site");
    for (std::size_t i = 0; i < frame.passThroughs.size(); ++i)
        mustBeOneOf(frame.passThroughs[i].plate, plates, fmt::format("/frame/passThroughs/{}/plate", i),
                    "the id of a plate");

    checkFrameScrews(build);
    Ids typeIds;
    for (const auto &[id, type] : *build.types) typeIds.insert(id);
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        const Part &part = build.parts[i];
        const auto at = [&](const char *key) { return fmt::format("/parts/{}/{}", i, key); };
        mustBeOneOf(part.type, typeIds, at("type"), "the id of a type in /types");
        if (!part.placement.site.empty())
            mustBeOneOf(part.placement.site, seats, at("site"), "the id of a site or motor mount");
        for (std::size_t k = 0; k < part.fastening.onto.size(); ++k)
            all.mustKnow(part.fastening.onto[k], at(fmt::format("fastening/onto/{}", k).c_str()),
                         "the id of what it is fastened to");
    }
    checkStacks(build, parts);
    checkWires(build, parts, typeIds, all);
    checkRadio(build, parts);
    checkWeights(build);
    std::set<std::string> items;
    for (std::size_t i = 0; i < build.kit.size(); ++i)
        if (!items.insert(build.kit[i].item).second)
            refuse(fmt::format("/kit/{}/item", i), "each item once", fmt::format("\"{}\" again", build.kit[i].item));
    for (std::size_t i = 0; i < build.loadCases.size(); ++i) {
        const LoadCase &loadCase = build.loadCases[i];
        for (std::size_t k = 0; k < loadCase.aboard.size(); ++k)
            mustBeOneOf(loadCase.aboard[k], parts, fmt::format("/loadCases/{}/aboard/{}", i, k), "the id of a part");
        if (!loadCase.battery.empty())
            mustBeOneOf(loadCase.battery, parts, fmt::format("/loadCases/{}/battery", i), "the id of a part");
        for (std::size_t k = 0; k < loadCase.off.size(); ++k)
            mustBeOneOf(loadCase.off[k], parts, fmt::format("/loadCases/{}/switchedOff/{}", i, k), "the id of a part");
        if (!loadCase.usb.empty())
            mustBeOneOf(loadCase.usb, parts, fmt::format("/loadCases/{}/usb", i), "the id of a part");
    }
}

void checkPractice(const PracticeSettings &practice, const std::string &pointer) {
    Ids limits, known;
    for (const auto &definition : limitTable()) limits.emplace(definition.id);
    for (const auto id : retiredLimits()) limits.emplace(id);
    for (const auto &school : schools()) known.emplace(school.id);
    for (const auto &[id, value] : practice.limits)
        mustBeOneOf(id, limits, pointer + "/limits/" + id, "the name of a limit (see docs/rules.md)");
    for (const auto &[id, option] : practice.schools) {
        mustBeOneOf(id, known, pointer + "/schools/" + id, "the name of a school (see docs/rules.md)");
        Ids options;
        for (const auto &o : findSchool(id)->options) options.emplace(o.id);
        mustBeOneOf(option, options, pointer + "/schools/" + id, "one of the school's options (see docs/rules.md)");
    }
}

} // namespace waxis::io
