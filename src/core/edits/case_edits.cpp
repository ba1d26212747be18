#include "core/edits/case_edits.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

bool isBlank(const std::string &text) { return text.find_first_not_of(" \t\r\n") == std::string::npos; }

constexpr std::size_t kLongestName = 1000, kLongestNote = 10000; // as the file format has it

std::string faultOfName(const std::string &name, const char *what) {
    if (isBlank(name)) return fmt::format("{} needs a name.", what);
    if (name.size() > kLongestName) return fmt::format("A name has at most {} letters.", kLongestName);
    return {};
}

template <class Change>
EditResult changeCase(const Build &build, const std::string &id, Change &&change) {
    Build next = build;
    for (auto &loadCase : next.loadCases)
        if (loadCase.id == id) {
            change(loadCase);
            return next;
        }
    return refuse(fmt::format("There is no load case \"{}\".", id));
}

Part *partIn(Build &build, const std::string &id) {
    const auto at = std::find_if(build.parts.begin(), build.parts.end(), [&](const Part &p) { return p.id == id; });
    return at == build.parts.end() ? nullptr : &*at;
}

void put(std::vector<std::string> &ids, const std::string &id, bool in) {
    std::erase(ids, id);
    if (in) ids.push_back(id);
}

} // namespace

EditResult renameBuild(const Build &build, const std::string &name) {
    if (auto fault = faultOfName(name, "A build"); !fault.empty()) return refuse(fault);
    Build next = build;
    next.name = name;
    return next;
}

EditResult noteBuild(const Build &build, const std::string &note) {
    if (note.size() > kLongestNote) return refuse(fmt::format("A note has at most {} letters.", kLongestNote));
    Build next = build;
    next.note = note;
    return next;
}

EditResult notePart(const Build &build, const std::string &id, const std::string &note) {
    if (note.size() > kLongestNote) return refuse(fmt::format("A note has at most {} letters.", kLongestNote));
    Build next = build;
    Part *part = partIn(next, id);
    if (!part) return refuse(fmt::format("There is no part \"{}\" in this build.", id));
    part->note = note;
    return next;
}

EditResult addLoadCase(const Build &build, const std::string &name, std::string *id) {
    if (auto fault = faultOfName(name, "A load case"); !fault.empty()) return refuse(fault);
    Build next = build;
    LoadCase fresh = effectiveLoadCases(build).back();
    fresh.id = freshId(build, "case");
    fresh.name = name;
    fresh.kind = LoadCaseKind::flight;
    fresh.folded = false;
    if (id) *id = fresh.id;
    next.loadCases.push_back(std::move(fresh));
    return next;
}

EditResult renameLoadCase(const Build &build, const std::string &id, const std::string &name) {
    if (auto fault = faultOfName(name, "A load case"); !fault.empty()) return refuse(fault);
    return changeCase(build, id, [&](LoadCase &c) { c.name = name; });
}

EditResult setLoadCaseKind(const Build &build, const std::string &id, LoadCaseKind kind) {
    return changeCase(build, id, [&](LoadCase &c) { c.kind = kind; });
}

bool takesUsb(const Build &build, const std::string &id) {
    const Part *part = findPart(build, id);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    return type && type->kind != PartKind::powerBank &&
           std::any_of(type->ports.begin(), type->ports.end(),
                       [](const Port &port) { return port.kind == PortKind::usb && !port.pins.empty(); });
}

EditResult setLoadCaseUsb(const Build &build, const std::string &id, const std::string &part) {
    if (!part.empty() && !takesUsb(build, part))
        return refuse(fmt::format("{} has no USB socket.", displayName(build, part)));
    return changeCase(build, id, [&](LoadCase &c) { c.usb = part; });
}

bool canBeOff(const Build &build, const std::string &id) {
    const Part *part = findPart(build, id);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (!type || type->kind == PartKind::battery || type->kind == PartKind::powerBank) return false;
    const auto &electrical = type->electrical;
    return !type->radio.empty() || (electrical && (electrical->typical_A.known() || electrical->peak_A.known()));
}

EditResult setSwitchedOff(const Build &build, const std::string &part, const std::string &id, bool off) {
    if (!findPart(build, part)) return refuse(fmt::format("There is no part \"{}\" in this build.", part));
    if (off && !canBeOff(build, part))
        return refuse(fmt::format("{} has nothing to switch off.", displayName(build, part)));
    return changeCase(build, id, [&](LoadCase &c) { put(c.off, part, off); });
}

EditResult addQuietCase(const Build &build, const std::string &part) {
    if (!canBeOff(build, part)) return refuse(fmt::format("{} has nothing to switch off.", displayName(build, part)));
    Build next = build;
    if (next.loadCases.empty()) {
        next.loadCases = effectiveLoadCases(build);
        next.loadCases.front().id = freshId(build, "case");
    }
    const auto flight =
        std::find_if(next.loadCases.begin(), next.loadCases.end(), [](const LoadCase &c) { return c.flies(); });
    LoadCase quiet = flight == next.loadCases.end() ? next.loadCases.front() : *flight;
    quiet.id = freshId(next, "case");
    quiet.name = fmt::format("On the ground, {} off", displayName(build, part));
    quiet.kind = LoadCaseKind::bench;
    quiet.folded = false;
    put(quiet.off, part, true);
    next.loadCases.push_back(std::move(quiet));
    return next;
}

EditResult setLoadCaseFolded(const Build &build, const std::string &id, bool folded) {
    return changeCase(build, id, [&](LoadCase &c) { c.folded = folded; });
}

EditResult setLoadCasePack(const Build &build, const std::string &id, const std::string &pack) {
    const Part *part = findPart(build, pack);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (!pack.empty() && (!type || type->kind != PartKind::battery))
        return refuse(fmt::format("{} is no pack.", displayName(build, pack)));
    return changeCase(build, id, [&](LoadCase &c) {
        std::erase(c.aboard, c.battery);
        std::erase(c.aboard, pack);
        c.battery = pack;
    });
}

EditResult removeLoadCase(const Build &build, const std::string &id) {
    Build next = build;
    if (std::erase_if(next.loadCases, [&](const LoadCase &c) { return c.id == id; }) == 0)
        return refuse(fmt::format("There is no load case \"{}\".", id));
    for (auto &weighing : next.weighings)
        if (weighing.loadCase == id) weighing.loadCase.clear();
    for (auto &limit : next.weightLimits)
        if (limit.loadCase == id) limit.loadCase.clear();
    return next;
}

EditResult setAboard(const Build &build, const std::string &id, const std::string &loadCase, bool aboard) {
    Build next = build;
    Part *part = partIn(next, id);
    if (!part) return refuse(fmt::format("There is no part \"{}\" in this build.", id));
    const bool known =
        std::any_of(next.loadCases.begin(), next.loadCases.end(), [&](const LoadCase &c) { return c.id == loadCase; });
    if (!known) return refuse(fmt::format("There is no load case \"{}\".", loadCase));
    for (auto &c : next.loadCases) {
        if (c.id == loadCase) {
            put(c.aboard, id, aboard);
            if (!aboard && c.battery == id) c.battery.clear();
        } else if (!part->optional) {
            put(c.aboard, id, true);
        }
    }
    part->optional = true;
    return next;
}

EditResult makeOptional(const Build &build, const std::string &id, bool optional) {
    Build next = build;
    Part *part = partIn(next, id);
    if (!part) return refuse(fmt::format("There is no part \"{}\" in this build.", id));
    if (part->optional == optional) return next;
    part->optional = optional;
    if (optional && next.loadCases.empty()) {
        LoadCase all = effectiveLoadCases(build).front();
        all.id = freshId(build, "case");
        next.loadCases.push_back(std::move(all));
    }
    for (auto &c : next.loadCases)
        if (c.battery != id) put(c.aboard, id, optional);
    return next;
}

} // namespace waxis
