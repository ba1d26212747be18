// PWR-5 to PWR-9: packs, what stands at them, and how long they last.
#include "core/findings/input.h"
#include "core/power/power_report.h"
#include "core/rules/electrical.h"
#include "core/rules/gather.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <array>
#include <map>
#include <set>

namespace waxis {

static void judgeCapacitor(const Build &build, const Practice &practice, const Derived &derived,
                           std::vector<Finding> &out) {
    double full_V = 0;
    for (const auto &rail : derived.power->rails)
        if (rail.output == "BAT") full_V = std::max(full_V, rail.most_V);
    bool anyCap = false, anyEsc = false;
    std::vector<Finding> far;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type) continue;
        anyEsc |= type->kind == PartKind::esc || type->kind == PartKind::fourInOneEsc;
        if (type->kind != PartKind::capacitor || full_V <= 0) continue;
        anyCap = true;
        Finding f;
        f.rule = RuleId::pwrCapacitor;
        f.subjects = {part.id};
        const Pose X_FramePart = framePose(build, part);
        f.from_mm = X_FramePart.position_mm;
        const auto rated = type->electrical ? type->electrical->rated_V : std::nullopt;
        f.inputs = {{"full pack", full_V, "V"}, {"rated", rated.value_or(0), "V"}};
        if (rated) {
            f.variant = "rating";
            f.unit = "V";
            f.measured = *rated;
            f.limit = full_V * practice[Limit::capacitorRating];
            f.practiceLimit = Limit::capacitorRating;
            f.margin = *f.measured - *f.limit + 1e-6;
            f.severity = *rated < full_V ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        } else {
            f.variant = "unrated";
            f.severity = Severity::unknown;
        }
        out.push_back(f);
        // Its leads: what they end at, how long, and which way round.
        const Wire *lead = nullptr;
        std::size_t index = 0;
        for (std::size_t w = 0; w < build.wires.size(); ++w)
            if (build.wires[w].from.part == part.id || build.wires[w].to.part == part.id) {
                lead = &build.wires[w];
                index = w;
            }
        Finding g;
        g.rule = RuleId::pwrCapacitor;
        g.subjects = {part.id};
        g.from_mm = f.from_mm;
        if (!lead) {
            g.variant = "loose";
            g.severity = Severity::watch;
            out.push_back(std::move(g));
            continue;
        }
        for (const auto &core : lead->cores) {
            const Signal a = signalAt(build, lead->from, core.fromPin), b = signalAt(build, lead->to, core.toPin);
            if ((a.kind == SignalKind::supply && b.kind == SignalKind::ground) ||
                (a.kind == SignalKind::ground && b.kind == SignalKind::supply)) {
                Finding reversed = g;
                reversed.variant = "reversed";
                reversed.severity = Severity::stop;
                reversed.subjects.push_back(lead->id);
                out.push_back(std::move(reversed));
                break;
            }
        }
        g.variant = "far";
        g.unit = "mm";
        g.subjects.push_back(lead->id);
        g.measured = derived.wiring->wires[index].route_mm;
        g.limit = practice[Limit::capacitorNear];
        g.practiceLimit = Limit::capacitorNear;
        g.margin = *g.limit - *g.measured;
        g.severity = g.margin < 0 ? Severity::watch : Severity::pass;
        far.push_back(std::move(g));
    }
    gatherAlike(far, 0, practice[Limit::capacitorNear]);
    out.insert(out.end(), std::make_move_iterator(far.begin()), std::make_move_iterator(far.end()));
    if (anyCap || !anyEsc || full_V <= 0) return;
    Finding f;
    f.rule = RuleId::pwrCapacitor;
    f.variant = "missing";
    f.severity = Severity::note;
    f.inputs = {{"full pack", full_V, "V"}};
    out.push_back(std::move(f));
}

static FindingText wordCapacitor(const Build &build, const Finding &f) {
    const std::string name = f.subjects.empty() ? std::string() : displayName(build, f.subjects[0]);
    if (f.variant == "missing")
        return {
            {"No capacitor at the speed controllers", {}},
            {"Switching spikes of a {0} V pack reach camera and receiver: one of 470 to 1000 µF at the battery pads, "
             "the right way round, insulated and tied down.",
             {brief(inputOf(f, "full pack"))}}};
    if (f.variant == "loose")
        return {{"{0} is not connected", {name}},
                {"Solder it to the speed controllers' battery pads, plus to plus.", {}}};
    if (f.variant == "reversed")
        return {{"{0} is the wrong way round", {name}},
                {"It bursts: plus to plus. Check the stripe before soldering.", {}}};
    if (f.variant == "unrated")
        return {{"{0} does not state its rated voltage", {name}},
                {"Read it off its sleeve and enter it in the Kit stage.", {}}};
    if (f.variant == "far")
        return {{"{0} sits {1} mm of lead from the pads", {name, wholeNumber(*f.measured)}},
                {f.subjects.size() > 2
                     ? "Beyond {0} mm the lead's own inductance keeps it from helping: bring it nearer, and so {1}."
                     : "Beyond {0} mm the lead's own inductance keeps it from helping: bring it nearer.",
                 {wholeNumber(*f.limit),
                  listNames(build, std::span(f.subjects).subspan(std::min<std::size_t>(2, f.subjects.size())))}}};
    if (f.severity == Severity::stop)
        return {{"{0} is rated {1} V and the full pack has {2} V",
                 {name, brief(*f.measured), brief(inputOf(f, "full pack"))}},
                {"It bursts: at least {0} V.", {brief(*f.limit)}}};
    return {{"{0} is rated {1} V; {2} V are wanted for this pack", {name, brief(*f.measured), brief(*f.limit)}},
            {"Spikes go beyond the pack's {0} V: take the next higher rating.", {brief(inputOf(f, "full pack"))}}};
}

static void judgePackCurrent(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    auto judge = [&](const std::string &part, const char *variant, double typical, double peak, double limit) {
        if (!(typical > 0)) return;
        Finding f;
        f.rule = RuleId::pwrPack;
        f.variant = variant;
        f.subjects = {part};
        f.unit = "A";
        f.measured = peak;
        f.limit = limit;
        f.margin = limit - peak;
        f.inputs = {
            {"hover", typical, "A"}, {"all motors at full thrust", peak, "A"}, {"continuous limit", limit, "A"}};
        // Full thrust lasts seconds: over the continuous limit it is watched, hover over it never works.
        f.severity = typical > limit ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        out.push_back(std::move(f));
    };
    for (const auto &rail : derived.power->rails)
        if (rail.output == "BAT" && rail.limit_A) judge(rail.part, "pack", rail.typical_A, rail.peak_A, *rail.limit_A);
    for (const auto &passage : derived.power->passages)
        if (passage.limit_A) judge(passage.part, "through", passage.typical_A, passage.peak_A, *passage.limit_A);
    const std::size_t first = out.size();
    for (const auto &motor : derived.power->motors) {
        const PartType *esc = motor.esc.empty() ? nullptr : typeOfId(build, motor.esc);
        if (!esc || !esc->electrical || !esc->electrical->continuous_A || !(motor.full_A > 0)) continue;
        Finding f;
        f.rule = RuleId::pwrPack;
        f.variant = "esc";
        f.subjects = {motor.esc, motor.motor};
        f.unit = "A";
        f.measured = motor.full_A;
        f.limit = *esc->electrical->continuous_A;
        f.margin = *f.limit - motor.full_A;
        f.inputs = {
            {"hover", motor.hover_A, "A"}, {"full thrust", motor.full_A, "A"}, {"continuous limit", *f.limit, "A"}};
        f.severity = motor.hover_A > *f.limit ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        out.push_back(std::move(f));
    }
    gatherAlike(out, first, kAlike_A);
}

static FindingText wordPackCurrent(const Build &build, const Finding &f) {
    const std::string name = displayName(build, f.subjects[0]);
    const std::string peak = wholeNumber(*f.measured), limit = wholeNumber(*f.limit);
    if (f.severity == Severity::stop)
        return {{"{0} carries {1} A in hover and is good for {2} A", {name, wholeNumber(inputOf(f, "hover")), limit}},
                {f.subjects.size() > 2 ? "It overheats within minutes, and so with {0}: take more current."
                                       : "It overheats within minutes: take one for more current.",
                 {f.subjects.size() > 2 ? listNames(build, std::span(f.subjects).subspan(2)) : std::string()}}};
    // The others behind the first motor are motors of the same controller, or controllers of their own.
    const PartType *third = f.subjects.size() > 2 ? typeOfId(build, f.subjects[2]) : nullptr;
    const bool drivesSeveral = third && third->kind == PartKind::motor;
    if (f.variant == "esc")
        return {
            {"{0} gives {1} A for {2}, which takes {3} A at full thrust",
             {name, limit, nameWithin(build, f.subjects[1]), peak}},
            {f.subjects.size() == 2 ? "Fit a smaller propeller, limit the output, or take a larger speed controller."
             : drivesSeveral
                 ? "So it does for {0}. Fit smaller propellers, limit the output, or take a larger speed controller."
                 : "So do {0}. Fit smaller propellers, limit the output, or take larger speed controllers.",
             {listNames(build, std::span(f.subjects).subspan(2))}}};
    return {{"{0} is good for {1} A; full thrust takes {2} A", {name, limit, peak}},
            {"Hover takes {0} A. Keep full thrust short, or take one for more current.",
             {wholeNumber(inputOf(f, "hover"))}}};
}

static void judgeLiveContacts(const Build &build, const Practice &, const Derived &, std::vector<Finding> &out) {
    // The side that stays live when unplugged is the pack's: its contacts must be the shielded ones.
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->kind != PartKind::battery) continue;
        for (const auto &port : type->ports) {
            if (port.kind != PortKind::plug && port.kind != PortKind::socket) continue;
            const bool power = std::any_of(port.pins.begin(), port.pins.end(),
                                           [](const Pin &p) { return signalOf(p.signal).kind == SignalKind::supply; });
            if (!power) continue;
            for (const auto &wire : build.wires) {
                const bool mine = wire.from == WireEnd{part.id, port.id} || wire.to == WireEnd{part.id, port.id};
                if (!mine) continue;
                const WireEnd &far = wire.from.part == part.id ? wire.to : wire.from;
                const Port *mate = portOf(build, far);
                const PartType *craft = typeOfId(build, far.part);
                if (!mate || !craft) continue;
                Finding f;
                f.rule = RuleId::pwrContacts;
                f.subjects = {part.id, far.part};
                // The pack's lead plugs into the craft's plug: that one may show bare pins, the pack's lead not.
                const SuppliedLead *lead = nullptr;
                for (const auto &l : type->leads)
                    if (l.port == port.id) lead = &l;
                const bool bare = lead && lead->plug.empty();
                const bool soldered = mate->kind == PortKind::pads, exposed = port.contacts == Contacts::exposed;
                f.variant = bare ? "bare" : soldered ? "soldered" : exposed ? "exposed" : "mates";
                f.severity = bare || (exposed && !soldered) ? Severity::stop
                             : soldered                     ? Severity::watch
                                                            : Severity::pass;
                out.push_back(std::move(f));
            }
        }
    }
}

static FindingText wordLiveContacts(const Build &build, const Finding &f) {
    const std::string pack = displayName(build, f.subjects[0]);
    if (f.variant == "bare")
        return {
            {"{0} has bare wires on the live side", {pack}},
            {"They touch sooner or later: the live side gets the shielded (female) contacts, one wire at a time.", {}}};
    if (f.variant == "exposed")
        return {
            {"{0} shows its pins on the live side", {pack}},
            {"Anything metal across them is a short circuit: the half with covered contacts belongs on the pack, the "
             "pins on {0}.",
             {nameWithin(build, f.subjects[1])}}};
    return {{"{0} is soldered to {1}", {pack, nameWithin(build, f.subjects[1])}},
            {"It cannot be taken off to charge, and every wire is live while you work: put a plug between.", {}}};
}

static void judgeVideoTap(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    std::set<std::string> seen; // packs that take turns feed it alike
    for (const auto &rail : derived.power->rails)
        for (const auto &load : rail.loads) {
            const PartType *type = typeOfId(build, load.part);
            if (!type || (type->kind != PartKind::videoTransmitter && type->kind != PartKind::digitalVideoUnit))
                continue;
            if (!seen.insert(load.part).second) continue;
            Finding f;
            f.rule = RuleId::pwrTap;
            f.subjects = {load.part, rail.part};
            f.severity = Severity::pass;
            const bool pack = rail.output == "BAT";
            bool shared = false; // a pack that turns motors as well
            for (const auto &other : rail.loads)
                for (const auto &motor : derived.power->motors) shared |= other.part == motor.esc;
            if (practice.follows("video-power", "own-pack") && (!pack || shared)) {
                f.variant = "own-pack";
                f.severity = Severity::note;
            } else if (practice.follows("video-power", "rail") && pack) {
                f.variant = "rail";
                f.severity = Severity::watch;
            } else if (practice.follows("video-power", "plug") && pack && shared) {
                // Behind the speed controllers' pads the copper is shared with them.
                const bool behind = std::any_of(load.wires.begin(), load.wires.end(), [&](int w) {
                    for (const WireEnd *end : {&build.wires[std::size_t(w)].from, &build.wires[std::size_t(w)].to}) {
                        const PartType *passed = typeOfId(build, end->part);
                        if (passed && (passed->kind == PartKind::esc || passed->kind == PartKind::fourInOneEsc))
                            return true;
                    }
                    return false;
                });
                if (behind) {
                    f.variant = "plug";
                    f.severity = Severity::note;
                }
            }
            out.push_back(std::move(f));
        }
}

static FindingText wordVideoTap(const Build &build, const Finding &f) {
    const std::string unit = displayName(build, f.subjects[0]);
    if (f.variant == "own-pack")
        return {{"{0} shares its supply with the motors", {unit}},
                {"Your practice gives video a pack of its own; join ground and signal then, never the supplies.", {}}};
    if (f.variant == "rail")
        return {{"{0} runs straight from the pack", {unit}},
                {"Your practice is a filtered rail: a regulator keeps the motors' spikes out of the picture.", {}}};
    return {{"{0} is tapped behind the speed controllers", {unit}},
            {"Your practice taps at the battery plug, where motor noise is least.", {}}};
}

/// One finding for all packs, each by the case in which it is empty first: the one that lasts least speaks, then the
/// one that lasts longest.
static void judgeEndurance(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    const auto &hover = derived.power->hover;
    std::map<std::string, std::vector<std::size_t>> casesOf;
    for (std::size_t i = 0; i < hover.size(); ++i)
        if (const auto &pack = hover[i].pack; !pack.empty()) casesOf[pack].push_back(i);
    std::vector<std::size_t> shortest;
    const auto lastsLess = [&](std::size_t a, std::size_t b) { return hover[a].least_min < hover[b].least_min; };
    for (const auto &[pack, cases] : casesOf)
        shortest.push_back(*std::min_element(cases.begin(), cases.end(), lastsLess));
    if (shortest.empty()) return;
    std::stable_sort(shortest.begin(), shortest.end(), lastsLess);
    const HoverReport &least = hover[shortest.front()], &most = hover[shortest.back()];
    Finding f;
    f.rule = RuleId::pwrEndurance;
    f.severity = Severity::note;
    f.loadCase = derived.loadCases[shortest.front()].id;
    f.unit = "min";
    for (const auto i : shortest) f.subjects.push_back(hover[i].pack);
    f.inputs = {{"at least", least.least_min, "min"},
                {"at most", least.most_min, "min"},
                {"hover", least.current_A, "A"},
                {"power", least.power_W, "W"},
                {"alarm per cell", least.alarm_V, "V"},
                {"turn back at", least.turnBack_mAh, "mAh"},
                {"reserve", practice[Limit::packReserve], "%"},
                {"cases", double(casesOf.at(least.pack).size()), ""}};
    if (shortest.size() > 1)
        f.inputs.insert(f.inputs.end(), {{"the longest, at least", most.least_min, "min"},
                                         {"the longest, at most", most.most_min, "min"},
                                         {"the longest, hover", most.current_A, "A"},
                                         {"the longest, turn back at", most.turnBack_mAh, "mAh"}});
    out.push_back(std::move(f));
}

static FindingText wordEndurance(const Build &build, const Finding &f) {
    const bool one = f.subjects.size() == 1;
    auto input = [&](const char *name) { return maybeInput(f, name).value_or(0); };
    const std::vector<std::string> minutes{oneDecimal(input("at least")),
                                           oneDecimal(input("at most")),
                                           nameWithin(build, f.subjects.front()),
                                           oneDecimal(input("the longest, at least")),
                                           oneDecimal(input("the longest, at most")),
                                           nameWithin(build, f.subjects.back())};
    const std::vector<std::string> words{brief(input("hover")),
                                         wholeNumber(input("reserve")),
                                         fmt::format("{:.2f}", input("alarm per cell")),
                                         wholeNumber(input("turn back at")),
                                         displayName(build, f.loadCase),
                                         brief(input("the longest, hover")),
                                         wholeNumber(input("the longest, turn back at"))};
    if (!one)
        return {
            {"{0} to {1} minutes of hover on {2}, {3} to {4} on {5}", minutes},
            {"{0} and {5} A in hover, {1} % kept. Set the alarms to {2} V a cell under load, and to {3} and {6} mAh "
             "used to turn back.",
             words}};
    return {{"{0} to {1} minutes of hover on {2}", minutes},
            {input("cases") > 1
                 ? "Of {4}, the shortest: {0} A in hover, {1} % kept. Set the alarms to {2} V a cell under "
                   "load and {3} mAh used to turn back."
                 : "{0} A in hover, {1} % kept. Set the alarms to {2} V a cell under load and {3} mAh used "
                   "to turn back.",
             words}};
}

std::span<const Rule> packsRules() {
    static const std::array<Rule, 5> rules{{
        {RuleId::pwrCapacitor,
         "Capacitor at the pads",
         "It takes the spikes that switching makes; far away, too small in voltage or reversed it is useless or worse.",
         kTrade,
         Stage::wire,
         {Limit::capacitorNear, Limit::capacitorRating},
         needs(Need::places, Need::wiring, Need::power),
         judgeCapacitor,
         wordCapacitor},
        {RuleId::pwrPack,
         "Current of pack, plug and speed controllers",
         "What is beyond the continuous limit heats, and heat adds up.",
         "momentum theory (Leishman) for motors without stated current; the parts' own ratings",
         Stage::wire,
         {Limit::figureOfMerit, Limit::driveEfficiency, Limit::flyingHeight},
         needs(Need::power),
         judgePackCurrent,
         wordPackCurrent},
        {RuleId::pwrContacts,
         "Live contacts",
         "The side that stays live when unplugged must not be touchable.",
         kTrade,
         Stage::wire,
         {},
         {},
         judgeLiveContacts,
         wordLiveContacts},
        {RuleId::pwrTap,
         "Where video takes its supply",
         "Motor noise on the supply shows in the picture; the schools differ on where to tap.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::power),
         judgeVideoTap,
         wordVideoTap},
        {RuleId::pwrEndurance,
         "How long it hovers",
         "An honest range, and the two alarms that follow from it.",
         "momentum theory (Leishman), ISO 2533",
         Stage::wire,
         {Limit::packReserve, Limit::figureOfMerit, Limit::driveEfficiency, Limit::flyingHeight},
         needs(Need::power),
         judgeEndurance,
         wordEndurance},
    }};
    return rules;
}

} // namespace waxis
