// PWR-1 to PWR-4 and PWR-10: whether rails can carry what hangs on them.
#include "core/findings/input.h"
#include "core/links/link_report.h"
#include "core/pins/nets.h"
#include "core/power/power_report.h"
#include "core/rules/electrical.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace waxis {

namespace {

/// "5V regulator in the controller" for people: the part and its output.
std::string railName(const Build &build, const std::string &part, const std::string &output) {
    const PartType *type = typeOfId(build, part);
    std::string name = displayName(build, part);
    if (output == "USB") name += ", USB";
    if (type && type->electrical && type->electrical->outputs.size() > 1)
        for (const auto &o : type->electrical->outputs)
            if (o.id == output) name += fmt::format(", {:g} V", o.voltage_V);
    return name;
}

/// Rails that would take a load: the right voltage, and room for it.
std::vector<Fix> otherRails(const Build &build, const Practice &practice, const Derived &derived,
                            const std::string &load, const std::string &except) {
    std::vector<Fix> fixes;
    const PartType *type = typeOfId(build, load);
    if (!type || !type->electrical) return fixes;
    const auto &e = *type->electrical;
    const double peak = e.peak_A.value.value_or(e.typical_A.value.value_or(0));
    for (const auto &rail : derived.power->rails) {
        if (rail.id() == except || rail.part == load || rail.nominal_V <= 0) continue;
        if ((e.supplyMin_V && rail.least_V < *e.supplyMin_V) || (e.supplyMax_V && rail.most_V > *e.supplyMax_V))
            continue;
        if (!e.supplyMin_V || !e.supplyMax_V) continue;
        if (rail.limit_A && rail.peak_A + peak > *rail.limit_A * practice[Limit::railWatch] / 100) continue;
        const RailTap tap = tapOf(build, derived.power, rail);
        if (tap.part.empty() || tap.part == load) continue;
        Fix fix;
        fix.change = WireChange{WireChange::Kind::supply, load, 0, 0, false, tap.part, tap.supply, Vec3::Zero()};
        if (applyFix(build, fix)) fixes.push_back(fix);
        if (fixes.size() >= 3) break;
    }
    return fixes;
}

/// What takes a load off the rail: another rail for it; a camera that only charges there is left out.
std::vector<Fix> unloading(const Build &build, const Practice &practice, const Derived &derived, const RailLoad &load,
                           const Rail &rail) {
    const PartType *type = typeOfId(build, load.part);
    if (!type || type->kind != PartKind::payloadCamera)
        return otherRails(build, practice, derived, load.part, rail.id());
    std::vector<Fix> fixes;
    for (const int w : load.wires) {
        const Wire &wire = build.wires[std::size_t(w)];
        if (wire.from.part != load.part && wire.to.part != load.part) continue;
        Fix fix;
        fix.change = WireChange{WireChange::Kind::leaveOut, wire.id, 0, 0, false, {}, {}, Vec3::Zero()};
        fixes.push_back(std::move(fix));
    }
    return fixes;
}

/// One load elsewhere where that is enough, then as many as it takes, the heaviest first.
std::vector<Fix> unloadRail(const Build &build, const Practice &practice, const Derived &derived, const Rail &rail,
                            const std::vector<const RailLoad *> &heaviestFirst) {
    constexpr std::size_t kMost = 3;
    std::vector<Fix> fixes;
    Fix chain;
    double left_A = rail.peak_A;
    for (const auto *load : heaviestFirst) {
        auto ways = unloading(build, practice, derived, *load, rail);
        if (ways.empty()) continue;
        const double rest_A = left_A - load->peak_A;
        if (left_A > *rail.limit_A * practice[Limit::railStop] / 100) {
            if (left_A == rail.peak_A)
                chain = ways.front();
            else
                chain.then.push_back(ways.front());
            left_A = rest_A;
        }
        for (auto &way : ways)
            if (fixes.size() < kMost) fixes.push_back(std::move(way));
    }
    if (!chain.then.empty()) fixes.insert(fixes.begin(), std::move(chain));
    return fixes;
}

} // namespace

/// Regulators that feed one joined rail carry the same loads: the one nearer to its limit speaks.
static bool speaksForJoined(std::vector<Finding> &out, std::size_t first, Finding &f) {
    const auto joined = std::find_if(out.begin() + std::ptrdiff_t(first), out.end(), [&](const Finding &g) {
        return std::equal(g.subjects.begin() + 1, g.subjects.end(), f.subjects.begin() + 1, f.subjects.end());
    });
    if (joined == out.end()) return false;
    if (f.severity < joined->severity || (f.severity == joined->severity && f.margin < joined->margin))
        *joined = std::move(f);
    return true;
}

static void judgeRailLoad(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    const std::size_t first = out.size();
    for (const auto &rail : derived.power->rails) {
        if (rail.output == "BAT" || !rail.limit_A || rail.loads.empty() || !(*rail.limit_A > 0)) continue;
        Finding f;
        f.rule = RuleId::pwrRail;
        f.variant = rail.output;
        f.subjects = {rail.part};
        std::vector<const RailLoad *> heavy; // of those that draw in the case in which it is most
        const int worst = rail.peak_A >= rail.typical_A ? rail.worstPeakCase : rail.worstCase;
        for (const auto &load : rail.loads)
            if (worst < 0 || load.cases == 0 || (load.cases >> worst & 1)) heavy.push_back(&load);
        if (worst >= 0 && build.loadCases.size() > 1) f.loadCase = build.loadCases[std::size_t(worst)].id;
        std::stable_sort(heavy.begin(), heavy.end(), [](auto *a, auto *b) { return a->peak_A > b->peak_A; });
        for (const auto *load : heavy) f.subjects.push_back(load->part);
        const double share = std::max(rail.typical_A, rail.peak_A) / *rail.limit_A * 100;
        f.unit = "%";
        f.measured = share;
        const double stop = practice[Limit::railStop], watch = practice[Limit::railWatch];
        const bool steady = rail.typical_A / *rail.limit_A * 100 > stop;
        // Ports of computers and chargers bear a peak; what is over them all the time they switch off.
        const bool over = rail.output == "USB" ? steady : share > stop;
        f.severity = over ? Severity::stop : share > watch ? Severity::watch : Severity::pass;
        f.practiceLimit = f.severity == Severity::stop ? Limit::railStop : Limit::railWatch;
        f.limit = practice[*f.practiceLimit];
        f.margin = *f.limit - share;
        f.inputs = {{"typical", rail.typical_A, "A"},
                    {"peak", rail.peak_A, "A"},
                    {"limit", *rail.limit_A, "A"},
                    {"typical over the limit", steady ? 1.0 : 0.0, ""}};
        if (f.severity != Severity::pass) f.fixes = unloadRail(build, practice, derived, rail, heavy);
        if (!speaksForJoined(out, first, f)) out.push_back(std::move(f));
    }
}

static FindingText wordRailLoad(const Build &build, const Finding &f) {
    const std::string loads = listNamesFirst(build, std::span(f.subjects).subspan(1));
    const std::vector<std::string> words{railName(build, f.subjects[0], f.variant), wholeNumber(*f.measured),
                                         displayName(build, f.loadCase)};
    const Sentence headline =
        f.loadCase.empty() ? Sentence{"{0} carries {1} %", words} : Sentence{"{0} carries {1} % in {2}", words};
    if (f.variant == "USB")
        return {headline,
                {"{1} of {2} A at peak, {3} A typical: a computer's port may switch off. Take a charger's, or leave "
                 "off what "
                 "the work does not need.",
                 {loads, brief(inputOf(f, "peak")), brief(inputOf(f, "limit")), brief(inputOf(f, "typical"))}}};
    return {headline,
            {"{0}: {1} of {2} A at peak, {3} A typical. It overheats and resets: move a load to another rail.",
             {loads, brief(inputOf(f, "peak")), brief(inputOf(f, "limit")), brief(inputOf(f, "typical"))}}};
}

static void judgeSupplyRange(const Build &build, const Practice &practice, const Derived &derived,
                             std::vector<Finding> &out) {
    for (const auto &rail : derived.power->rails)
        for (const auto &load : rail.loads) {
            const PartType *type = typeOfId(build, load.part);
            // Through a USB socket of its own a board lives at five volts, whatever its supply pads want.
            if (!type || !type->electrical || load.part == rail.part) continue;
            Finding f;
            f.rule = RuleId::pwrRange;
            f.subjects = {load.part, rail.part};
            f.unit = "V";
            f.inputs = {{"rail, empty", rail.least_V, "V"},
                        {"rail, full", rail.most_V, "V"},
                        {"takes at least", load.least_V.value_or(0), "V"},
                        {"takes at most", load.most_V.value_or(0), "V"}};
            if (!load.least_V && !load.most_V) {
                f.severity = Severity::unknown;
                f.variant = "unstated";
                out.push_back(std::move(f));
                continue;
            }
            if (load.most_V && rail.most_V > *load.most_V + 1e-9) {
                f.variant = "high";
                f.severity = Severity::stop;
                f.measured = rail.most_V;
                f.limit = *load.most_V;
                f.margin = *f.limit - *f.measured;
            } else if (load.least_V && rail.least_V < *load.least_V - 1e-9) {
                f.variant = rail.most_V < *load.least_V ? "low" : "sags";
                f.severity = f.variant == "low" ? Severity::stop : Severity::watch;
                f.measured = rail.least_V;
                f.limit = *load.least_V;
                f.margin = *f.measured - *f.limit;
            } else {
                f.severity = Severity::pass;
                f.measured = rail.most_V;
                f.limit = load.most_V.value_or(rail.most_V);
                f.margin = *f.limit - *f.measured;
            }
            if (f.severity != Severity::pass) f.fixes = otherRails(build, practice, derived, load.part, rail.id());
            out.push_back(std::move(f));
        }
}

static FindingText wordSupplyRange(const Build &build, const Finding &f) {
    const std::string part = displayName(build, f.subjects[0]), from = nameWithin(build, f.subjects[1]);
    if (f.variant == "unstated")
        return {{"{0} does not say what voltage it takes", {part}},
                {"Enter its supply range in the Kit stage; until then nobody knows whether {0} suits it.", {from}}};
    if (f.variant == "high")
        return {{"{0} takes at most {1} V and gets {2} V from {3}", {part, brief(*f.limit), brief(*f.measured), from}},
                {"It burns at once: feed it from a rail of its voltage.", {}}};
    if (f.variant == "low")
        return {{"{0} wants {1} V and gets {2} V from {3}", {part, brief(*f.limit), brief(*f.measured), from}},
                {"It does not start: feed it from a rail of its voltage.", {}}};
    return {{"{0} wants {1} V; {2} sags to {3} V when empty", {part, brief(*f.limit), from, brief(*f.measured)}},
            {"It switches off before the pack is down: feed it from a regulator, or land sooner.", {}}};
}

static void judgeRegulatorHeat(const Build &build, const Practice &practice, const Derived &derived,
                               std::vector<Finding> &out) {
    for (const auto &rail : derived.power->rails) {
        if (rail.output == "BAT" || rail.loads.empty() || !(rail.heat_W > 0)) continue;
        const PartType *type = typeOfId(build, rail.part);
        const auto output = std::find_if(type->electrical->outputs.begin(), type->electrical->outputs.end(),
                                         [&](const PowerOutput &o) { return o.id == rail.output; });
        const bool linear = output != type->electrical->outputs.end() && !output->efficiency;
        Finding f;
        f.rule = RuleId::pwrHeat;
        f.variant = rail.output;
        f.subjects = {rail.part};
        f.unit = "W";
        f.measured = rail.heat_W;
        // A switching regulator is made to lose some of what it passes on.
        f.limit = practice[Limit::regulatorHeat] * (linear ? 1 : 2);
        f.practiceLimit = Limit::regulatorHeat;
        f.margin = *f.limit - rail.heat_W;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = {
            {"current", rail.typical_A, "A"}, {"output", rail.nominal_V, "V"}, {"linear", linear ? 1.0 : 0.0, ""}};
        out.push_back(std::move(f));
    }
}

static FindingText wordRegulatorHeat(const Build &build, const Finding &f) {
    const std::string name = railName(build, f.subjects[0], f.variant);
    if (inputOf(f, "linear") > 0)
        return {
            {"{0} turns {1} W into heat", {name, oneDecimal(*f.measured)}},
            {"It drops the whole voltage as heat; {0} W is what it bears without a sink. Take a switching regulator.",
             {oneDecimal(*f.limit)}}};
    return {{"{0} loses {1} W as heat", {name, oneDecimal(*f.measured)}},
            {"Give it air, or share the load between two.", {}}};
}

/// Lifts, at each source but the one that gives most, every core that hands its supply on.
static std::vector<Fix> keepOne(const Build &build, const std::vector<const Rail *> &joined) {
    const Rail *kept = *std::max_element(
        joined.begin(), joined.end(), [](auto *a, auto *b) { return a->limit_A.value_or(0) < b->limit_A.value_or(0); });
    Fix all;
    bool any = false;
    // From the last core of a wire to its first: what is lifted moves the numbers of those behind it.
    for (std::size_t w = build.wires.size(); w-- > 0;)
        for (std::size_t c = build.wires[w].cores.size(); c-- > 0;) {
            const Wire &wire = build.wires[w];
            const bool lifts = std::any_of(joined.begin(), joined.end(), [&](const Rail *rail) {
                if (rail == kept || rail->part == kept->part) return false;
                const bool from = wire.from.part == rail->part;
                if (!from && wire.to.part != rail->part) return false;
                const PartType *type = typeOfId(build, rail->part);
                const Signal own =
                    signalAt(build, from ? wire.from : wire.to, from ? wire.cores[c].fromPin : wire.cores[c].toPin);
                const PowerOutput *output = type ? outputOf(*type, supplyName(own)) : nullptr;
                return output && output->id == rail->output;
            });
            if (!lifts) continue;
            WireChange lift;
            lift.kind = WireChange::Kind::liftCore;
            lift.wire = wire.id;
            lift.core = int(c);
            if (any)
                all.then.emplace_back(std::string(), lift);
            else
                all.change = lift;
            any = true;
        }
    if (!any) return {};
    return {std::move(all)};
}

static void judgeJoinedSupplies(const Build &build, const Practice &practice, const Derived &derived,
                                std::vector<Finding> &out) {
    const auto &nets = derived.power->nets;
    // Sources by net; packs that are never aboard together may share one.
    std::map<int, std::vector<const Rail *>> byNet;
    for (const auto &rail : derived.power->rails)
        for (std::size_t n = 0; n < nets.nodes.size(); ++n) {
            const PartType *type = typeOf(build, build.parts[std::size_t(nets.nodes[n].part)]);
            if (build.parts[std::size_t(nets.nodes[n].part)].id != rail.part || nets.nodes[n].supply == "GND") continue;
            const PowerOutput *output = outputOf(*type, nets.nodes[n].supply);
            if (rail.output == "BAT" ? nets.nodes[n].supply == "BAT" : output && output->id == rail.output)
                byNet[nets.net[n]].push_back(&rail);
        }
    for (const auto &[net, rails] : byNet) {
        // Of all that share this copper, those that give at the same time as another.
        std::vector<const Rail *> joined;
        for (const Rail *rail : rails)
            if (std::any_of(rails.begin(), rails.end(),
                            [&](const Rail *other) { return other != rail && (other->cases & rail->cases); }))
                joined.push_back(rail);
        if (joined.size() < 2) continue;
        Finding f;
        f.rule = RuleId::pwrJoined;
        const auto [least, most] = std::minmax_element(joined.begin(), joined.end(),
                                                       [](auto *a, auto *b) { return a->nominal_V < b->nominal_V; });
        const bool unlike = (*most)->nominal_V - (*least)->nominal_V > 0.2;
        const bool packs = std::any_of(joined.begin(), joined.end(), [](auto *r) { return r->output == "BAT"; });
        f.variant = unlike ? "unlike" : packs ? "packs" : "like";
        f.severity = unlike || packs                             ? Severity::stop
                     : practice.follows("regulators", "several") ? Severity::pass
                                                                 : Severity::watch;
        for (const Rail *rail : joined) f.subjects.push_back(rail->part);
        f.measured = double(joined.size());
        f.limit = 1;
        f.unit = "sources";
        f.margin = f.severity == Severity::pass ? 0 : 1.0 - double(joined.size());
        f.inputs = {{"least", (*least)->nominal_V, "V"}, {"most", (*most)->nominal_V, "V"}};
        if (f.severity != Severity::pass && !packs) f.fixes = keepOne(build, joined);
        out.push_back(std::move(f));
    }
}

static FindingText wordJoinedSupplies(const Build &build, const Finding &f) {
    const std::string who = listNamesFirst(build, f.subjects);
    const Sentence headline{"{0} feed one rail", {who}};
    if (f.variant == "packs")
        return {headline,
                {"One pack charges the other as fast as the wires let it: join grounds, never the supplies.", {}}};
    if (f.variant == "unlike")
        return {headline,
                {"{0} and {1} V on one piece of copper: the higher one burns what is made for the lower. Keep one, and "
                 "lift the supply leads of the others; grounds stay joined.",
                 {brief(inputOf(f, "least")), brief(inputOf(f, "most"))}}};
    return {
        headline,
        {"The stronger pushes back into the weaker: keep one, and lift the supply leads of the others. Grounds stay "
         "joined. Who means it chooses so under Regulators in the practice.",
         {}}};
}

/// Whether a part is fed at a balance plug.
static bool isTapped(const Build &build, const LinkReport &links, const std::string &part) {
    return std::any_of(links.faults.begin(), links.faults.end(), [&](const LinkFinding &fault) {
        const Wire *wire = fault.fault == LinkFault::balanceTap ? findWire(build, fault.wires[0]) : nullptr;
        return wire && (wire->from.part == part || wire->to.part == part);
    });
}

static void judgeUnfed(const Build &build, const Practice &practice, const Derived &derived,
                       std::vector<Finding> &out) {
    if (build.wires.empty()) return; // wiring has not begun
    for (const auto &id : derived.power->unfed) {
        const PartType *type = typeOfId(build, id);
        if (isTapped(build, *derived.links, id)) continue; // PWR-13 says what that means
        Finding f;
        f.rule = RuleId::pwrUnfed;
        // Nothing flies with one of these dark; others may still wait for their wires.
        const bool needed = type && (type->kind == PartKind::flightController || type->kind == PartKind::esc ||
                                     type->kind == PartKind::fourInOneEsc);
        f.severity = needed ? Severity::stop : Severity::unknown;
        if (needed) f.margin = -1;
        f.subjects = {id};
        f.fixes = otherRails(build, practice, derived, id, {});
        out.push_back(std::move(f));
    }
    for (const auto &rail : derived.power->rails)
        for (const auto &load : rail.loads)
            if (!load.returns) {
                Finding f;
                f.rule = RuleId::pwrUnfed;
                f.severity = Severity::stop;
                f.variant = "return";
                f.subjects = {load.part, rail.part};
                f.margin = -1;
                out.push_back(std::move(f));
            } else if (!load.known) {
                Finding f;
                f.rule = RuleId::pwrUnfed;
                f.severity = Severity::unknown;
                f.variant = "current";
                f.subjects = {load.part};
                out.push_back(std::move(f));
            }
}

static FindingText wordUnfed(const Build &build, const Finding &f) {
    const std::string name = displayName(build, f.subjects[0]);
    if (f.variant == "return")
        return {{"{0} has a plus from {1} and no minus", {name, nameWithin(build, f.subjects[1])}},
                {"Nothing flows, or it finds its way back through signal wires: join the grounds of the two.", {}}};
    if (f.variant == "current")
        return {{"What {0} draws is not known", {withinSentence(name)}},
                {"Enter its typical and peak current in the Kit stage: its rail counts too little.", {}}};
    return {{"{0} has no supply yet", {name}}, {"Join it to a rail of its voltage.", {}}};
}

std::span<const Rule> powerRules() {
    static const std::array<Rule, 5> rules{{
        {RuleId::pwrRail,
         "Rail overloaded",
         "A regulator that is asked for more than it gives overheats, and everything on it resets.",
         kTrade,
         Stage::wire,
         {Limit::railWatch, Limit::railStop},
         needs(Need::power),
         judgeRailLoad,
         wordRailLoad},
        {RuleId::pwrRange,
         "Wrong voltage",
         "A 5 V device on the battery burns; one that gets too little switches off in flight.",
         "the parts' own ratings; cell voltages: common practice, no source",
         Stage::wire,
         {},
         needs(Need::power),
         judgeSupplyRange,
         wordSupplyRange},
        {RuleId::pwrHeat,
         "Heat of regulators",
         "A linear regulator turns the whole difference into heat, a switching one some of it.",
         "(Vin - Vout) I, or the losses of the stated efficiency",
         Stage::wire,
         {Limit::regulatorHeat},
         needs(Need::power),
         judgeRegulatorHeat,
         wordRegulatorHeat},
        {RuleId::pwrJoined,
         "Two supplies on one rail",
         "Two regulators never agree: the stronger one feeds the weaker one backwards.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::power),
         judgeJoinedSupplies,
         wordJoinedSupplies},
        {RuleId::pwrUnfed,
         "No supply, or none stated",
         "A part that nobody feeds does nothing; one whose current is not known makes its rail look empty.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::power, Need::links),
         judgeUnfed,
         wordUnfed},
    }};
    return rules;
}

} // namespace waxis
