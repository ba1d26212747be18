// RAD: antennas one by one: what stands near them, what they lose behind the craft, whether their plugs mate.
#include "core/coverage/coverage.h"
#include "core/findings/input.h"
#include "core/pins/signal.h"
#include "core/radio/connector.h"
#include "core/radio/polarisation.h"
#include "core/radio/radio_report.h"
#include "core/rules/gather.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/survey/at_hand.h"
#include "core/wiring/routing.h"

#include <algorithm>
#include <array>
#include <fmt/format.h>

namespace waxis {

namespace {

const AntennaUse &antennaOf(const RadioReport &report, int radio, int antenna) {
    return report.radios[std::size_t(radio)].antennas[std::size_t(antenna)];
}

/// A radio with several bands uses an antenna more than once: only its first use speaks of the antenna itself.
bool spokenOf(const RadioReport &report, int radio, const std::string &antenna) {
    for (int r = 0; r < radio; ++r)
        for (const auto &use : report.radios[std::size_t(r)].antennas)
            if (use.part == antenna) return true;
    return false;
}

} // namespace

static void judgeNearConductor(const Build &, const Practice &practice, const Derived &derived,
                               std::vector<Finding> &out) {
    const std::size_t first = out.size();
    for (const auto &around : derived.radio->surroundings) {
        const AntennaUse &use = antennaOf(derived.radio, around.radio, around.antenna);
        if (around.conductor.empty() || spokenOf(derived.radio, around.radio, use.part)) continue;
        Finding f;
        f.rule = RuleId::radConductor;
        f.subjects = {use.part, around.conductor};
        f.measured = around.conductor_mm;
        // On a small craft a quarter of a long wave is nowhere to be had: what builders keep is judged.
        const double share_mm = practice[Limit::antennaConductor] / 100 * around.lambda_mm;
        f.limit = std::min(share_mm, practice[Limit::antennaClear]);
        f.practiceLimit = share_mm <= practice[Limit::antennaClear] ? Limit::antennaConductor : Limit::antennaClear;
        f.unit = "mm";
        f.margin = *f.measured - *f.limit;
        f.severity = f.margin < 0 ? Severity::note : Severity::pass;
        // Within a sixteenth of a wavelength it is detuned whatever else.
        if (around.conductor_mm < around.lambda_mm / 16) f.severity = Severity::watch;
        f.from_mm = around.nearestOnElement_mm;
        f.inputs = {{"wavelength", around.lambda_mm, "mm"}, {"share of it", share_mm, "mm"}};
        out.push_back(std::move(f));
    }
    gatherAlike(out, first, practice[Limit::antennaClear]); // those of one receiver are mounted alike
}

static FindingText wordNearConductor(const Build &build, const Finding &f) {
    const std::vector<std::string> words{
        displayName(build, f.subjects[0]),
        nameWithin(build, f.subjects[1]),
        wholeNumber(*f.measured),
        wholeNumber(*f.limit),
        wholeNumber(inputOf(f, "share of it")),
        f.subjects.size() > 2 ? " So near one as well: " + listNames(build, std::span(f.subjects).subspan(2)) + "."
                              : std::string()};
    return {
        {"{0} is {2} mm from {1}, which conducts", words},
        {*f.practiceLimit == Limit::antennaClear
             ? "Builders keep {3} mm; a quarter of its wave would be {4} mm. Nearer, the conductor bends its pattern "
               "and "
               "detunes it: move it out, on a tube or mount.{5}"
             : "{3} mm are wanted (a share of its wavelength): nearer, the conductor bends its pattern and detunes it. "
               "Move it out, on a tube or mount.{5}",
         words}};
}

static void judgeNearEdge(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &around : derived.radio->surroundings) {
        const AntennaUse &use = antennaOf(derived.radio, around.radio, around.antenna);
        if (!around.edge_deg || spokenOf(derived.radio, around.radio, use.part)) continue;
        Finding f;
        f.rule = RuleId::radEdge;
        f.subjects = {use.part, around.edge};
        f.measured = *around.edge_deg;
        f.limit = practice[Limit::edgeAngle];
        f.practiceLimit = Limit::edgeAngle;
        f.unit = "deg";
        f.margin = *f.measured - *f.limit;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        f.from_mm = use.centre_mm;
        if (f.margin < 0) {
            Fix fix;
            fix.part = use.part;
            fix.change = PartTurn{Vec3::UnitZ(), 90};
            f.fixes.push_back(std::move(fix));
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordNearEdge(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1]),
                                         wholeNumber(*f.measured), wholeNumber(*f.limit)};
    return {{"{0} lies along a carbon edge of {1}", words},
            {"{2}° between them, within a quarter wave; an edge along the element takes its signal up. Turn it by more "
             "than {3}°, best across.",
             words}};
}

static void judgeDiversity(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &pair : derived.radio->diversity) {
        const AntennaUse &a = antennaOf(derived.radio, pair.radio, pair.first),
                         &b = antennaOf(derived.radio, pair.radio, pair.second);
        Finding f;
        f.rule = RuleId::radDiversity;
        f.subjects = {a.part, b.part};
        f.measured = pair.angle_deg;
        f.limit = practice[Limit::diversityLeast];
        f.practiceLimit = Limit::diversityLeast;
        f.unit = "deg";
        f.margin = *f.measured - *f.limit;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        f.from_mm = a.centre_mm;
        f.to_mm = b.centre_mm;
        if (f.margin < 0) {
            // About the axis square to both where there is one.
            const Vec3 normal = a.axis.cross(b.axis);
            const Vec3 axis = normal.norm() > 0.1 ? Vec3(normal.normalized()) : Vec3(b.axis.unitOrthogonal());
            Fix fix;
            fix.part = b.part;
            fix.change = PartTurn{axis, a.axis.dot(b.axis) < 0 ? -(90 - pair.angle_deg) : 90 - pair.angle_deg};
            f.fixes.push_back(std::move(fix));
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordDiversity(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1]),
                                         wholeNumber(*f.measured), wholeNumber(*f.limit)};
    return {{"{0} and {1} stand nearly the same way", words},
            {"{2}° apart; {3} to 90° let one hear where the other does not. Turn one.", words}};
}

static void judgeLinkHand(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    for (const auto &range : derived.radio->ranges) {
        if (!range.down && derived.radio->radios[std::size_t(range.radio)].sends()) continue;
        Finding f;
        f.rule = RuleId::radHand;
        f.subjects = {derived.radio->radios[std::size_t(range.radio)].antennas.front().part, range.ground};
        f.severity = range.sameHand ? Severity::pass : Severity::watch;
        f.measured = range.polarisation_dB;
        f.limit = 3.1;
        f.unit = "dB";
        f.margin = *f.limit - *f.measured;
        f.inputs = {{"most that crossed polarisation keeps apart", practice[Limit::crossPolar], "dB"}};
        for (const auto &station : build.groundStations)
            if (station.id == range.ground && !range.sameHand) {
                Fix fix;
                fix.part = station.id;
                fix.change = GroundHand{otherHand(station.polarisation)};
                f.fixes.push_back(std::move(fix));
            }
        out.push_back(std::move(f));
    }
}

static FindingText wordLinkHand(const Build &build, const Finding &f) {
    return {{"{0} and {1} turn opposite ways", {displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1])}},
            {"Right-hand and left-hand circular waves hardly hear each other: {0} dB are lost. Both ends take the same "
             "hand.",
             {wholeNumber(*f.measured)}}};
}

static void judgeCoverage(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    for (const auto &coverage : coveragesSeen(derived)) {
        if (coverage.antennas.empty()) continue;
        // What the best of the radio's antennas loses.
        const AntennaCoverage *least = &coverage.antennas.front();
        for (const auto &antenna : coverage.antennas)
            if (antenna.lost < least->lost) least = &antenna;
        if (!findPart(build, least->part)) continue;
        Finding f;
        f.rule = RuleId::radCoverage;
        f.variant = coverage.radio;
        f.subjects = {least->part};
        for (const auto &by : least->by)
            if (f.subjects.size() < 4) f.subjects.push_back(by.id);
        f.loadCase = coverage.loadCase;
        f.measured = 100 * least->lost;
        f.limit = practice[Limit::coverageLost];
        f.practiceLimit = Limit::coverageLost;
        f.unit = "%";
        f.margin = *f.limit - *f.measured;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = {{"nine tenths of all directions have", coverage.tenth_dBi, "dBi"},
                    {"two antennas gain", coverage.diversity_dB, "dB"},
                    {"weakest direction, x", coverage.worstDirection.x(), ""},
                    {"weakest direction, y", coverage.worstDirection.y(), ""},
                    {"weakest direction, z", coverage.worstDirection.z(), ""}};
        out.push_back(std::move(f));
    }
}

static FindingText wordCoverage(const Build &build, const Finding &f) {
    std::string who;
    for (std::size_t i = 1; i < f.subjects.size(); ++i) who += (i > 1 ? ", " : "") + nameWithin(build, f.subjects[i]);
    const std::vector<std::string> words{
        displayName(build, f.subjects[0]), wholeNumber(*f.measured), wholeNumber(*f.limit), who,
        directionInWords(Vec3(inputOf(f, "weakest direction, x"), inputOf(f, "weakest direction, y"),
                              inputOf(f, "weakest direction, z")))};
    return {{"{0} is hidden in {1} % of all directions", words},
            {"By {3}; weakest {4}. {2} % is usual: bring it up or out, or add a second one on the other side.", words}};
}

/// Antennas of one kind on one unit go onto it, or do not, all alike.
static bool joinAntenna(const Build &build, std::vector<Finding> &out, std::size_t first, const Finding &f) {
    const auto connectors = [&](const Finding &g) {
        const Part *antenna = findPart(build, g.subjects[0]);
        const PartType *type = antenna ? typeOf(build, *antenna) : nullptr;
        const Port *port = portOf(build, {g.subjects[1], g.variant});
        return std::pair{type && type->antenna ? type->antenna->connector : std::string(),
                         port ? port->connector : std::string()};
    };
    const auto same = std::find_if(out.begin() + std::ptrdiff_t(first), out.end(), [&](const Finding &g) {
        return g.severity == f.severity && g.subjects[1] == f.subjects[1] && connectors(g) == connectors(f);
    });
    if (f.severity == Severity::pass || same == out.end()) return false;
    same->subjects.push_back(f.subjects[0]);
    return true;
}

static void judgeConnector(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t first = out.size();
    for (const auto &radio : derived.radio->radios)
        for (const auto &use : radio.antennas) {
            if (use.port.empty() || radio.band > 0) continue;
            const Port *port = portOf(build, {radio.part, use.port});
            if (!port) continue;
            const Mating verdict = mating(coaxConnectorOf(use.antenna.connector), coaxConnectorOf(port->connector));
            if (use.antenna.connector == "soldered") continue; // its lead ends in whatever was crimped on
            Finding f;
            f.rule = RuleId::radConnector;
            f.subjects = {use.part, radio.part};
            f.variant = use.port;
            f.from_mm = framePose(build, *findPart(build, radio.part)) * port->position_mm;
            switch (verdict) {
            case Mating::mates: f.severity = Severity::pass; break;
            case Mating::unknown: f.severity = Severity::unknown; break;
            default: f.severity = Severity::stop; f.margin = -1;
            }
            if (!joinAntenna(build, out, first, f)) out.push_back(std::move(f));
        }
}

static FindingText wordConnector(const Build &build, const Finding &f) {
    const Part *antenna = findPart(build, f.subjects[0]);
    const PartType *type = antenna ? typeOf(build, *antenna) : nullptr;
    const Port *port = portOf(build, {f.subjects[1], f.variant});
    const std::string there = type && type->antenna ? type->antenna->connector : "", here = port ? port->connector : "";
    std::vector<std::string> antennas{f.subjects[0]};
    antennas.insert(antennas.end(), f.subjects.begin() + 2, f.subjects.end());
    const bool several = antennas.size() > 1;
    const std::vector<std::string> words{listNamesFirst(build, antennas), nameWithin(build, f.subjects[1]),
                                         there.empty() ? "not stated" : there, here.empty() ? "not stated" : here};
    if (f.severity == Severity::unknown)
        return {{several ? "Whether {0} go onto {1} is not known" : "Whether {0} goes onto {1} is not known", words},
                {"Connector of the antenna: {2}; of the board: {3}. Enter both in Kit.", words}};
    if (mating(coaxConnectorOf(there), coaxConnectorOf(here)) == Mating::otherPolarity)
        return {
            {several ? "{0} screw onto {1} and make no contact" : "{0} screws onto {1} and makes no contact", words},
            {"{2} on {3}: one has pins where the other has none either. Sending so burns the output stage. Take the "
             "other antenna or an adapter.",
             words}};
    return {{several ? "{0} do not go onto {1}" : "{0} does not go onto {1}", words},
            {"{2} on {3}. Take another antenna or an adapter.", words}};
}

static void judgeAntennaBand(const Build &, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &radio : derived.radio->radios)
        for (const auto &use : radio.antennas) {
            Finding f;
            f.rule = RuleId::radBand;
            f.variant = radio.id();
            f.subjects = {use.part, radio.part};
            f.measured = radio.centre_MHz;
            const double below = use.antenna.low_MHz - radio.low_MHz, above = radio.high_MHz - use.antenna.high_MHz;
            f.margin = -std::max({0.0, below, above});
            f.unit = "MHz";
            // A percent outside is nothing; a tenth is another antenna.
            const double share = -f.margin / radio.centre_MHz;
            f.severity = share > 0.1 ? Severity::stop : share > 0.02 ? Severity::watch : Severity::pass;
            f.inputs = {{"antenna from", use.antenna.low_MHz, "MHz"}, {"to", use.antenna.high_MHz, "MHz"}};
            out.push_back(std::move(f));
        }
}

static FindingText wordAntennaBand(const Build &build, const Finding &f) {
    return {
        {"{0} is not made for the band of {1}", {displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1])}},
        {"{0} MHz on an antenna for {1} to {2} MHz: little gets out, and what does not goes back into the sender. "
         "Take one for the band.",
         {wholeNumber(*f.measured), wholeNumber(inputOf(f, "antenna from")), wholeNumber(inputOf(f, "to"))}}};
}

static void judgePigtail(const Build &build, const Practice &practice, const Derived &derived,
                         std::vector<Finding> &out) {
    for (const auto &radio : derived.radio->radios)
        for (const auto &use : radio.antennas) {
            if (radio.band > 0 || use.wire.empty() || use.antenna.pigtail_mm <= 0) continue;
            const Part *part = findPart(build, use.part);
            const PartType *type = part ? typeOf(build, *part) : nullptr;
            if (!type || !type->leads.empty()) continue; // a lead of its own is judged as a wire
            for (std::size_t w = 0; w < build.wires.size() && w < derived.routes.size(); ++w) {
                if (build.wires[w].id != use.wire || derived.routes[w].points_mm.empty()) continue;
                const CoaxKind *coax = findCoax(use.coax);
                const double bend = practice[Limit::bendCoax] * (coax ? coax->outer_mm : usualCoax().outer_mm);
                Finding f;
                f.rule = RuleId::radPigtail;
                f.subjects = {use.part, radio.part};
                f.variant = use.port;
                f.measured = derived.routes[w].length_mm + bend; // one bend of its own at the plug
                f.limit = use.antenna.pigtail_mm;
                f.unit = "mm";
                f.margin = *f.limit - *f.measured;
                f.severity = f.margin < 0 ? Severity::stop : Severity::pass;
                f.inputs = {{"route", derived.routes[w].length_mm, "mm"}, {"bend at the plug", bend, "mm"}};
                out.push_back(std::move(f));
            }
        }
}

static FindingText wordPigtail(const Build &build, const Finding &f) {
    return {{"The pigtail of {0} is {2} mm short of {1}",
             {nameWithin(build, f.subjects[0]), nameWithin(build, f.subjects[1]), wholeNumber(-f.margin)}},
            {"{0} mm with one bend, {1} mm long. Move the antenna nearer or take one with a longer pigtail.",
             {wholeNumber(*f.measured), wholeNumber(*f.limit)}}};
}

static void judgeNoAntenna(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &radio : derived.radio->radios) {
        Finding f;
        f.rule = RuleId::radAntenna;
        f.variant = radio.id();
        f.subjects = {radio.part};
        if (!radio.antennas.empty()) {
            f.severity = Severity::pass;
            out.push_back(std::move(f));
            continue;
        }
        const PartType *type = typeOf(build, *findPart(build, radio.part));
        const bool hasPort = type && std::any_of(type->ports.begin(), type->ports.end(),
                                                 [](const Port &p) { return p.kind == PortKind::coax; });
        f.severity = !hasPort ? Severity::unknown : radio.sends() ? Severity::stop : Severity::watch;
        f.margin = -1;
        if (!hasPort) f.variant += " unstated";
        out.push_back(std::move(f));
    }
}

static FindingText wordNoAntenna(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0])};
    if (f.severity == Severity::unknown)
        return {{"Nothing is known of the antenna of {0}", {withinSentence(words[0])}},
                {"It has no antenna port and states none on its board. Enter one in Kit.", words}};
    if (f.severity == Severity::watch)
        return {{"{0} has no antenna", words}, {"Lead a coax from its antenna port to one.", words}};
    return {
        {"{0} would send without an antenna", words},
        {"The power comes back and burns its output stage: never switch it on without. Lead a coax from its antenna "
         "port.",
         words}};
}

std::span<const Rule> radioAntennasRules() {
    static const std::array<Rule, 9> rules{{
        {RuleId::radConductor,
         "Antenna near a conductor",
         "A conductor within a quarter wave becomes part of the antenna.",
         kTrade,
         Stage::radio,
         {Limit::antennaConductor, Limit::antennaClear},
         needs(Need::radio),
         judgeNearConductor,
         wordNearConductor},
        {RuleId::radEdge,
         "Antenna along a carbon edge",
         "An edge along the element carries its wave away.",
         kTrade,
         Stage::radio,
         {Limit::edgeAngle},
         needs(Need::radio),
         judgeNearEdge,
         wordNearEdge},
        {RuleId::radDiversity,
         "Two receiver antennas across each other",
         "Each has a null along its element; across each other they never share it.",
         kTrade,
         Stage::radio,
         {Limit::diversityLeast},
         needs(Need::radio),
         judgeDiversity,
         wordDiversity},
        {RuleId::radHand,
         "Hands of polarisation",
         "A right-hand wave passes a left-hand antenna almost unheard.",
         "polarisation mismatch of ellipses, standard antenna texts",
         Stage::radio,
         {Limit::crossPolar},
         needs(Need::radio),
         judgeLinkHand,
         wordLinkHand},
        {RuleId::radCoverage,
         "Hidden behind the craft",
         "Carbon, boards and the pack stand between antenna and ground whenever the craft turns that way.",
         "directions of an even spiral against the same solids that are measured; loss: common practice, no source",
         Stage::radio,
         {Limit::coverageLost, Limit::skyThick},
         needs(Need::survey),
         judgeCoverage,
         wordCoverage},
        {RuleId::radConnector,
         "Connectors that do not mate",
         "Reverse polarity screws on and makes no contact.",
         kTrade,
         Stage::radio,
         {},
         needs(Need::places, Need::radio),
         judgeConnector,
         wordConnector},
        {RuleId::radBand,
         "Antenna for another band",
         "An antenna out of its band sends little and heats the sender.",
         kTrade,
         Stage::radio,
         {},
         needs(Need::radio),
         judgeAntennaBand,
         wordAntennaBand},
        {RuleId::radPigtail,
         "Pigtail too short",
         "A coax pulled straight off its plug breaks there.",
         kTrade,
         Stage::radio,
         {Limit::bendCoax},
         needs(Need::routes, Need::radio),
         judgePigtail,
         wordPigtail},
        {RuleId::radAntenna,
         "Sending without an antenna",
         "Power that cannot leave comes back into the output stage.",
         kTrade,
         Stage::radio,
         {},
         needs(Need::radio),
         judgeNoAntenna,
         wordNoAntenna},
    }};
    return rules;
}

} // namespace waxis
