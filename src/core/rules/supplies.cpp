// PWR-11 to PWR-13: what lives in which load case, what sits in the cores of wires, and loads at the balance plug.
#include "core/edits/wire_edits.h"
#include "core/findings/input.h"
#include "core/links/link_report.h"
#include "core/pins/nets.h"
#include "core/power/power_report.h"
#include "core/rules/electrical.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/wiring/gauge.h"

#include <algorithm>
#include <array>
#include <fmt/format.h>
#include <set>

namespace waxis {

/// In flight nothing that is aboard may be dark; on the bench it is worth knowing what lives. What is fed in no case at
/// all is told once, by PWR-10.
static void judgeDark(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    if (build.wires.empty()) return;
    const auto &power = *derived.power;
    const std::set<std::string> never(power.unfed.begin(), power.unfed.end());
    for (std::size_t c = 0; c < power.supplies.size() && c < derived.loadCases.size(); ++c) {
        const LoadCase &now = derived.loadCases[c];
        const CaseSupply &supply = power.supplies[c];
        // Without any source there is nothing to tell: in the bag, or before a pack is chosen.
        if (now.kind == LoadCaseKind::carried || supply.alive.empty()) continue;
        Finding f;
        f.rule = RuleId::pwrDark;
        f.loadCase = now.id;
        f.unit = "parts";
        f.limit = 0;
        for (const auto &id : supply.dark)
            if (!never.contains(id)) f.subjects.push_back(id);
        const auto dark = f.subjects.size();
        f.measured = double(dark);
        f.inputs = {{"dark", double(dark), "parts"}, {"alive", double(supply.alive.size()), "parts"}};
        f.subjects.insert(f.subjects.end(), supply.alive.begin(), supply.alive.end());
        f.variant = now.flies() ? "flight" : "bench";
        f.severity = dark == 0 ? Severity::pass : now.flies() ? Severity::stop : Severity::note;
        if (f.severity == Severity::stop) f.margin = -double(dark);
        out.push_back(std::move(f));
    }
}

static FindingText wordDark(const Build &build, const Finding &f) {
    const auto dark = std::size_t(inputOf(f, "dark"));
    const std::vector<std::string> words{displayName(build, f.loadCase),
                                         listNames(build, std::span(f.subjects).first(dark)),
                                         listNames(build, std::span(f.subjects).subspan(dark))};
    if (f.variant == "flight")
        return {
            {"{0}: no supply for {1}", words},
            {"What feeds it elsewhere is not aboard or not fed itself. Give it a source of its own, or leave it out "
             "of this case.",
             words}};
    return {{"{0}: dark are {1}", words}, {"Alive are {2}.", words}};
}

namespace {

/// One thing in one core, with what goes through it.
struct InsertAt {
    const Wire &wire;
    std::size_t index;
    const WireInsert &insert;
    const PartType &type;
    SignalKind kind; ///< of the core, at its start
    const WireCurrent *current;
};

std::string insertName(const PartType &type) { return type.name.empty() ? type.id : type.name; }

Finding insertFinding(const InsertAt &at, const char *variant, Severity severity) {
    Finding f;
    f.rule = RuleId::pwrInline;
    f.variant = fmt::format("{}-{}", variant, at.index);
    f.subjects = {at.wire.id};
    f.severity = severity;
    if (severity == Severity::stop || severity == Severity::watch) f.margin = -1;
    return f;
}

Fix changeOfInsert(const InsertAt &at, WireChange::Kind kind) {
    WireChange change;
    change.kind = kind;
    change.wire = at.wire.id;
    change.core = int(at.index);
    return {std::string(), change};
}

/// A capacitor hands on what changes: a picture, a sound. Nothing else gets through, a supply least of all.
void judgeSeriesCapacitor(const InsertAt &at, std::vector<Finding> &out) {
    const bool changes = isVideo(at.kind) || at.kind == SignalKind::audioIn || at.kind == SignalKind::audioOut;
    Finding f = insertFinding(at, "blocks", changes ? Severity::pass : Severity::stop);
    if (!changes) f.fixes.push_back(changeOfInsert(at, WireChange::Kind::dropInsert));
    out.push_back(std::move(f));
}

void judgeDiode(const InsertAt &at, std::vector<Finding> &out) {
    if (!carriesPower(at.kind)) {
        out.push_back(insertFinding(at, "one-way", Severity::watch));
        return;
    }
    const int way = at.current && at.current->known ? at.current->way : 0;
    if (way == 0) return;
    // In the return the current runs against that of the supply.
    const int flows = at.kind == SignalKind::ground ? -way : way;
    const bool against = (flows > 0) == at.insert.turned;
    Finding f = insertFinding(at, "turned", against ? Severity::stop : Severity::pass);
    if (against) f.fixes.push_back(changeOfInsert(at, WireChange::Kind::turnInsert));
    out.push_back(std::move(f));
}

/// What a resistor, or a diode, takes off a supply and turns into heat.
void judgeLoss(const Build &build, const PowerReport &power, const InsertAt &at, std::vector<Finding> &out) {
    const auto &e = *at.type.electrical;
    if (!carriesPower(at.kind) || !at.current || !at.current->known) return;
    const double amperes = at.current->typical_A, peak_A = at.current->peak_A;
    const double lost_V = e.forward_V.value_or(0) + e.resistance_Ohm.value_or(0) * amperes;
    const double heat_W = e.forward_V.value_or(0) * amperes + e.resistance_Ohm.value_or(0) * amperes * amperes;
    if (e.rated_W) {
        Finding f = insertFinding(at, "heat", heat_W > *e.rated_W ? Severity::stop : Severity::pass);
        f.measured = heat_W;
        f.limit = *e.rated_W;
        f.unit = "W";
        f.margin = *f.limit - heat_W;
        out.push_back(std::move(f));
    }
    // Of all that is fed through this wire, who gets too little.
    for (const auto &rail : power.rails)
        for (const auto &load : rail.loads) {
            const auto w = int(&at.wire - build.wires.data());
            if (!load.least_V || std::find(load.wires.begin(), load.wires.end(), w) == load.wires.end()) continue;
            const double peakLost_V = e.forward_V.value_or(0) + e.resistance_Ohm.value_or(0) * peak_A;
            const double left_V = rail.least_V - peakLost_V;
            Finding f = insertFinding(at, "drop", left_V < *load.least_V - 1e-9 ? Severity::watch : Severity::pass);
            f.subjects.push_back(load.part);
            f.measured = left_V;
            f.limit = *load.least_V;
            f.unit = "V";
            f.margin = left_V - *load.least_V;
            f.inputs = {{"lost", lost_V, "V"}, {"lost at peak", peakLost_V, "V"}};
            out.push_back(std::move(f));
        }
}

/// Fuses, switches, sensors, diodes and ferrites: how much they carry.
void judgeRating(const InsertAt &at, std::vector<Finding> &out) {
    const auto &rated_A = at.type.electrical->continuous_A;
    if (!rated_A || !at.current || !at.current->known) return;
    const double typical = at.current->typical_A, peak = at.current->peak_A;
    const Severity severity = typical > *rated_A ? Severity::stop : peak > *rated_A ? Severity::watch : Severity::pass;
    Finding f = insertFinding(at, "rating", severity);
    f.measured = severity == Severity::stop ? typical : peak;
    f.limit = *rated_A;
    f.unit = "A";
    f.margin = *f.limit - *f.measured;
    out.push_back(std::move(f));
}

/// By what its type states.
void judgeInsert(const Build &build, const PowerReport &power, const InsertAt &at, std::vector<Finding> &out) {
    if (!at.type.electrical) {
        out.push_back(insertFinding(at, "unstated", Severity::unknown));
        return;
    }
    const auto &e = *at.type.electrical;
    if (e.capacitance_uF) judgeSeriesCapacitor(at, out);
    if (e.forward_V) judgeDiode(at, out);
    if (e.forward_V || e.resistance_Ohm) judgeLoss(build, power, at, out);
    judgeRating(at, out);
}

} // namespace

static void judgeInline(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (std::size_t w = 0; w < build.wires.size(); ++w) {
        const Wire &wire = build.wires[w];
        for (std::size_t i = 0; i < wire.inserts.size(); ++i) {
            const WireInsert &insert = wire.inserts[i];
            const auto type = build.types->find(insert.type);
            if (type == build.types->end()) continue; // loaders refuse such files
            const std::size_t core = std::size_t(std::max(0, insert.core));
            if (core >= wire.cores.size()) continue;
            const SignalKind kind = signalAt(build, wire.from, wire.cores[core].fromPin).kind;
            const bool power = carriesPower(kind) && w < derived.power->wires.size();
            judgeInsert(build, *derived.power,
                        {wire, i, insert, type->second, kind, power ? &derived.power->wires[w] : nullptr}, out);
        }
    }
}

static FindingText wordInline(const Build &build, const Finding &f) {
    const Wire *wire = findWire(build, f.subjects[0]);
    const auto dash = f.variant.rfind('-');
    const std::string what = f.variant.substr(0, dash);
    const auto index = std::size_t(std::stoul(f.variant.substr(dash + 1)));
    std::string name = "Something", core;
    if (wire && index < wire->inserts.size()) {
        const WireInsert &insert = wire->inserts[index];
        if (const auto type = build.types->find(insert.type); type != build.types->end())
            name = insertName(type->second);
        if (insert.core >= 0 && std::size_t(insert.core) < wire->cores.size())
            core = wire->cores[std::size_t(insert.core)].fromPin;
    }
    std::vector<std::string> words{name, nameWithin(build, f.subjects[0]), core};
    if (what == "unstated")
        return {{"What {0} in {1} does is not stated", words},
                {"Enter its rating, resistance or capacitance in the Kit stage.", {}}};
    if (what == "blocks")
        return {
            {"{0} in {1} blocks {2}", words},
            {"A capacitor in series hands on a picture or a sound; direct current and slow signals end at it.", {}}};
    if (what == "one-way")
        return {{"{0} in {1} lets {2} through one way only", words},
                {"A signal line is driven both up and down: take the diode out, or know why it is there.", {}}};
    if (what == "turned")
        return {{"{0} in {1} is the wrong way round", words},
                {"Nothing gets through: the ring looks to the load.", {}}};
    words.push_back(f.measured ? brief(*f.measured) : std::string());
    words.push_back(f.limit ? brief(*f.limit) : std::string());
    if (what == "heat")
        return {{"{0} in {1} turns {3} W into heat and bears {4} W", words},
                {"It chars: take one for more watts, or a regulator instead.", {}}};
    if (what == "drop") {
        words.push_back(nameWithin(build, f.subjects[1]));
        words.push_back(brief(inputOf(f, "lost at peak")));
        return {{"{0} in {1} leaves {3} V for {5}, which wants {4} V", words},
                {"It takes {6} V off at peak: take one that loses less, or feed it without.", words}};
    }
    if (f.severity == Severity::stop)
        return {{"{0} in {1} is good for {4} A and carries {3} A all the time", words},
                {"A fuse blows, a switch or sensor overheats: take one for more current.", {}}};
    return {{"{0} in {1} is good for {4} A; {3} A pass at peak", words},
            {"A slow fuse bears that for seconds, a quick one does not. Take one for more current, or keep the peak "
             "short.",
             {}}};
}

static void judgeBalanceTap(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    // The cells between which each part hangs.
    struct Tap {
        std::string load, pack;
        int low = 1000, high = -1;
        std::string wire;
    };
    std::vector<Tap> taps;
    for (const auto &fault : derived.links->faults) {
        if (fault.fault != LinkFault::balanceTap || fault.core < 0) continue;
        const Wire *wire = findWire(build, fault.wires[0]);
        if (!wire) continue;
        const WireCore &core = wire->cores[std::size_t(fault.core)];
        const bool from = signalAt(build, wire->from, core.fromPin).kind == SignalKind::cell;
        const WireEnd &cells = from ? wire->from : wire->to, &load = from ? wire->to : wire->from;
        const int cell = signalAt(build, cells, from ? core.fromPin : core.toPin).number;
        auto at = std::find_if(taps.begin(), taps.end(),
                               [&](const Tap &t) { return t.load == load.part && t.pack == cells.part; });
        if (at == taps.end()) {
            taps.push_back({load.part, cells.part, 1000, -1, wire->id});
            at = taps.end() - 1;
        }
        at->low = std::min(at->low, cell);
        at->high = std::max(at->high, cell);
    }
    for (const auto &tap : taps) {
        const PartType *pack = typeOfId(build, tap.pack);
        const int cells = pack && pack->electrical ? pack->electrical->cells.value_or(0) : 0;
        Finding f;
        f.rule = RuleId::pwrBalanceTap;
        f.severity = Severity::watch;
        f.variant = tap.low > 0 || tap.high < cells ? "some" : "all";
        f.subjects = {tap.load, tap.pack, tap.wire};
        f.margin = -1;
        f.inputs = {{"lowest", double(tap.low), ""}, {"highest", double(tap.high), ""}, {"cells", double(cells), ""}};
        out.push_back(std::move(f));
    }
}

static FindingText wordBalanceTap(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1]),
                                         wholeNumber(inputOf(f, "lowest")), wholeNumber(inputOf(f, "highest")),
                                         wholeNumber(inputOf(f, "cells"))};
    const std::string live = "It stays live when the main plug is off, on contacts made for a charger's milliamperes. ";
    if (f.variant == "some")
        return {{"{0} is fed at the balance plug of {1}, from tap {2} to {3} of {4}", words},
                {live + "It drains those cells and not the others, so the pack goes out of balance. Tap at the main "
                        "plug, or through a regulator.",
                 {}}};
    return {{"{0} is fed at the balance plug of {1}", words},
            {live + "With a second pack beside it, it drains this one alone. Tap at the main plug.", {}}};
}

std::span<const Rule> suppliesRules() {
    static const std::array<Rule, 3> rules{{
        {RuleId::pwrDark,
         "Alive and dark, case by case",
         "What is aboard and has no supply does nothing; on the bench it is worth knowing what lives without the pack.",
         "connections and load cases; a computer's socket as USB 2.0, from memory",
         Stage::wire,
         {},
         needs(Need::power),
         judgeDark,
         wordDark},
        {RuleId::pwrInline,
         "In the core of a wire",
         "A fuse, diode, resistor or capacitor changes what gets through.",
         "Ohm's law; the parts' own ratings",
         Stage::wire,
         {},
         needs(Need::power),
         judgeInline,
         wordInline},
        {RuleId::pwrBalanceTap,
         "Fed at the balance plug",
         "The balance plug measures cells: a load on it drains some of them and stays live.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::links),
         judgeBalanceTap,
         wordBalanceTap},
    }};
    return rules;
}

} // namespace waxis
