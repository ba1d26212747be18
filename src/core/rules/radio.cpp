// RAD: who disturbs whom. Distances that builders keep stand beside what is computed.
#include "core/findings/input.h"
#include "core/radio/antennas.h"
#include "core/radio/decibel.h"
#include "core/radio/polarisation.h"
#include "core/radio/radio_report.h"
#include "core/rules/cell_verdict.h"
#include "core/rules/gather.h"
#include "core/rules/name_list.h"
#include "core/rules/radio_pairs.h"
#include "core/rules/rule.h"

#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

std::string name(const Build &build, const std::string &id) { return nameWithin(build, id); }

/// Calls `use(cell, sender, listener)` for every sender against every listening radio that has something to say.
template <class Use>
void eachCell(const RadioReport &report, Use &&use) {
    for (std::size_t r = 0; r < report.rows.size(); ++r)
        for (std::size_t c = 0; c < report.columns.size(); ++c) {
            const RadioCell &cell = report.cell(r, c);
            if (report.rows[r].radio < 0 || report.columns[c].radio < 0 || !cell.counts) continue;
            use(cell, report.radios[std::size_t(report.rows[r].radio)],
                report.radios[std::size_t(report.columns[c].radio)]);
        }
}

Finding cellFinding(RuleId rule, const RadioCell &cell, const RadioUse &sender, const RadioUse &listener) {
    Finding f;
    f.rule = rule;
    f.subjects = {sender.part, listener.part};
    if (listener.band > 0) f.variant = fmt::format("band {}", listener.band);
    f.from_mm = sender.antennas[std::size_t(cell.fromAntenna)].centre_mm;
    f.to_mm = listener.antennas[std::size_t(cell.toAntenna)].centre_mm;
    return f;
}

/// The lines of the sum as inputs of a finding.
std::vector<FindingInput> couplingInputs(const RadioCell &cell) {
    const Coupling &c = *cell.coupling;
    return {{"distance", c.distance_mm, "mm"},
            {"frequency", c.f_MHz, "MHz"},
            {"wavelength", c.lambda_mm, "mm"},
            {"free-space form", c.far_dB, "dB"},
            {"near-field form", c.near_dB, "dB"},
            {"near-field form used", c.nearUsed ? 1.0 : 0.0, ""},
            {"polarisation", c.polarisation_dB, "dB"},
            {"shadow", c.shadow_dB, "dB"},
            {"cables and connectors", c.cable_dB, "dB"},
            {"out of band", c.offBand_dB, "dB"},
            {"coupling", c.total_dB, "dB"},
            {"arrives", cell.arrives_dBm, "dBm"},
            {"rejected by the listener", cell.rejection_dB, "dB"},
            {"spilled into its band", cell.spilled_dBm, "dBm"},
            {"all together", cell.sum_dBm, "dBm"},
            {"noise floor", cell.floor_dBm, "dBm"}};
}

/// The noise floor that a sender itself raises; harmonics and mixing products have rules of their own.
double directRise_dB(const RadioCell &cell) {
    const double direct_dBm = dBmFrom(milliwatts(cell.heard_dBm) + milliwatts(cell.spilled_dBm));
    return 10 * std::log10(1 + powerRatio(direct_dBm - cell.floor_dBm));
}

/// Whether more than the distance speaks against a pair.
bool isHeard(const RadioCell &cell, const Practice &practice) {
    return cell.coupling && (directRise_dB(cell) > practice[Limit::desenseWatch] ||
                             cell.blockingMargin_dB < practice[Limit::blockingReserve]);
}

} // namespace

static void judgeSeparation(const Build &, const Practice &practice, const Derived &derived,
                            std::vector<Finding> &out) {
    if (derived.radio->radiosLeftOut > 0) {
        Finding f;
        f.rule = RuleId::radSeparation;
        f.severity = Severity::watch;
        f.variant = "many";
        f.subjects = {derived.radio->radios.back().part};
        f.measured = double(kMostRadios + derived.radio->radiosLeftOut);
        f.limit = double(kMostRadios);
        f.unit = "bands";
        f.margin = -1;
        out.push_back(std::move(f));
    }
    const RadioReport &report = *derived.radio;
    for (std::size_t r = 0; r < report.rows.size(); ++r)
        for (std::size_t c = 0; c < report.columns.size(); ++c) {
            const RadioCell &cell = report.cell(r, c);
            if (!cell.counts || !cell.practice_mm) continue;
            const RadioUse &listener = report.radios[std::size_t(report.columns[c].radio)];
            Finding f;
            f.rule = RuleId::radSeparation;
            const bool sends = report.rows[r].radio >= 0;
            f.variant = sends ? "sender" : "noise";
            if (listener.band > 0) continue; // one antenna, one distance
            const std::string disturber =
                sends ? report.radios[std::size_t(report.rows[r].radio)].part : report.rows[r].id;
            f.subjects = {disturber, listener.part};
            f.measured = cell.distance_mm;
            f.limit = *cell.practice_mm;
            f.practiceLimit = cell.practiceLimit;
            f.unit = "mm";
            f.margin = cell.distance_mm - *cell.practice_mm;
            f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
            f.to_mm = listener.antennas[std::size_t(cell.toAntenna)].centre_mm;
            if (sends) {
                const RadioUse &sender = report.radios[std::size_t(report.rows[r].radio)];
                f.from_mm = sender.antennas[std::size_t(cell.fromAntenna)].centre_mm;
                f.inputs = {
                    {"rise of the noise floor, computed", cell.rise_dB, "dB"},
                    {"share for long waves", sender.centre_MHz < 3000 ? practice[Limit::longWaveGap] : 100.0, "%"}};
                if (f.severity != Severity::pass) f.fixes = cureOfPair(derived, sender, listener);
                // What is heard already is told by what it does (RAD-2, RAD-3), with this distance beside it.
                if (f.severity != Severity::pass && isHeard(cell, practice)) continue;
            }
            out.push_back(std::move(f));
        }
}

static FindingText wordSeparation(const Build &build, const Finding &f) {
    if (f.variant == "many")
        return {
            {"{0} radio bands are too many to judge each pair", {fmt::format("{:.0f}", *f.measured)}},
            {"The first {0} are judged; take what is not aboard out of the build.", {fmt::format("{:.0f}", *f.limit)}}};
    const std::vector<std::string> words{
        displayName(build, f.subjects[0]), name(build, f.subjects[1]), wholeNumber(*f.measured), wholeNumber(*f.limit),
        f.inputs.empty() ? "" : oneDecimal(inputOf(f, "rise of the noise floor, computed"))};
    if (f.variant == "noise")
        return {{"{0} is {2} mm from the antenna of {1}", words},
                {"Builders keep {3} mm: its clocks and switching are noise there.", words}};
    return {{"{0} sends {2} mm from the antenna of {1}", words},
            {"Builders keep {3} mm between these antennas; computed, the noise floor rises by {4} dB.", words}};
}

static void judgeNoiseRise(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t first = out.size();
    eachCell(derived.radio, [&](const RadioCell &cell, const RadioUse &sender, const RadioUse &listener) {
        Finding f = cellFinding(RuleId::radNoise, cell, sender, listener);
        if (cell.inBand) f.variant += f.variant.empty() ? "in band" : ", in band";
        judgeRise(f, practice, directRise_dB(cell));
        f.inputs = couplingInputs(cell);
        if (cell.practice_mm) f.inputs.push_back({"builders keep", *cell.practice_mm, "mm"});
        if (f.severity != Severity::pass) f.fixes = cureOfPair(derived, sender, listener);
        out.push_back(std::move(f));
    });
    keepGravest(out, first);
}

static FindingText wordNoiseRise(const Build &build, const Finding &f) {
    const double left = 100 * std::pow(10.0, -*f.measured / 20);
    const std::vector<std::string> words{displayName(build, f.subjects[0]),
                                         name(build, f.subjects[1]),
                                         oneDecimal(*f.measured),
                                         wholeNumber(*f.limit),
                                         wholeNumber(left),
                                         wholeNumber(inputOf(f, "distance")),
                                         wholeNumber(maybeInput(f, "builders keep").value_or(0))};
    if (f.variant.find("in band") != std::string::npos)
        return {{"{0} sends in the band of {1}: {2} dB of noise", words},
                {"{5} mm apart; {4} % of the range is left. Choose another channel or band.", words}};
    return {{"{0} raises the noise of {1} by {2} dB", words},
            {maybeInput(f, "builders keep") ? "{5} mm apart, builders keep {6}; {4} % of the range is left, {3} dB is "
                                              "watched. Move them apart, turn one, send with less."
                                            : "{5} mm apart; {4} % of the range is left, {3} dB is watched. Move them "
                                              "apart, turn one, send with less.",
             words}};
}

static void judgeBlocking(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t first = out.size();
    eachCell(derived.radio, [&](const RadioCell &cell, const RadioUse &sender, const RadioUse &listener) {
        Finding f = cellFinding(RuleId::radBlocking, cell, sender, listener);
        f.measured = cell.arrives_dBm;
        f.limit = cell.arrives_dBm + cell.blockingMargin_dB - practice[Limit::blockingReserve];
        f.practiceLimit = Limit::blockingReserve;
        f.unit = "dBm";
        f.margin = *f.limit - *f.measured;
        f.severity = cell.blockingMargin_dB < 0 ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = couplingInputs(cell);
        f.inputs.push_back({"reserve", practice[Limit::blockingReserve], "dB"});
        if (f.severity != Severity::pass) f.fixes = cureOfPair(derived, sender, listener);
        out.push_back(std::move(f));
    });
    keepGravest(out, first);
}

static FindingText wordBlocking(const Build &build, const Finding &f) {
    const double over = *f.measured - *f.limit;
    const std::vector<std::string> words{
        displayName(build, f.subjects[0]), name(build, f.subjects[1]),         oneDecimal(over),
        wholeNumber(*f.measured),          wholeNumber(inputOf(f, "reserve")), wholeNumber(inputOf(f, "distance"))};
    if (f.severity == Severity::stop)
        return {{"{0} overloads {1}", words},
                {"{3} dBm arrive over {5} mm, {2} dB more than leaves a reserve of {4} dB: it hears nothing else. Move "
                 "them apart or send with less.",
                 words}};
    return {{"{0} comes close to overloading {1}", words},
            {"{3} dBm arrive over {5} mm, {2} dB too much for a reserve of {4} dB.", words}};
}

/// The other hand for the station, and more power as far as the type goes.
static std::vector<Fix> reachFarther(const Build &build, const RadioReport &report, const RangeReport &range) {
    std::vector<Fix> fixes;
    const RadioUse &use = report.radios[std::size_t(range.radio)];
    for (const auto &station : build.groundStations) {
        if (station.id != range.ground || range.sameHand) continue;
        Fix fix;
        fix.part = station.id;
        fix.change = GroundHand{otherHand(station.polarisation)};
        fixes.push_back(std::move(fix));
    }
    const Part *part = findPart(build, use.part);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (range.down && type && use.power_dBm && type->radio[std::size_t(use.band)].power_dBm > *use.power_dBm) {
        Fix fix;
        fix.part = use.part;
        fix.change = RadioSetting{use.part, use.band, settingOf(build, use.part, use.band).centre_MHz,
                                  type->radio[std::size_t(use.band)].power_dBm};
        fixes.push_back(std::move(fix));
    }
    return fixes;
}

static void judgeRangeMargin(const Build &build, const Practice &practice, const Derived &derived,
                             std::vector<Finding> &out) {
    for (const auto &range : derived.radio->ranges) {
        Finding f;
        f.rule = RuleId::radLink;
        f.variant = range.down ? "down" : "up";
        f.subjects = {derived.radio->radios[std::size_t(range.radio)].part, range.ground};
        f.measured = range.margin_dB;
        f.limit = practice[Limit::linkMargin];
        f.practiceLimit = Limit::linkMargin;
        f.unit = "dB";
        f.margin = *f.measured - *f.limit;
        f.severity = range.margin_dB < 0 ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = {{"distance", range.distance_m, "m"},
                    {"sends with", range.power_dBm, "dBm"},
                    {"free space", range.freeSpace_dB, "dB"},
                    {"arrives", range.arrives_dBm, "dBm"},
                    {"needs", range.sensitivity_dBm, "dBm"},
                    {"range as a ceiling", range.ceiling_m, "m"},
                    {"with the margin", range.kept_m, "m"},
                    {"Fresnel radius", range.fresnel_m, "m"},
                    {"line over the ground", range.clearance_m, "m"},
                    {"overhead", range.overhead_dB, "dB"},
                    {"lost to polarisation", range.polarisation_dB, "dB"},
                    {"crossed hands", range.sameHand ? 0.0 : 1.0, ""}};
        if (f.severity != Severity::pass) f.fixes = reachFarther(build, derived.radio, range);
        out.push_back(std::move(f));
        if (range.clearance_m < 0.6 * range.fresnel_m) {
            Finding low;
            low.rule = RuleId::radLink;
            low.variant = range.down ? "fresnel down" : "fresnel up";
            low.subjects = {derived.radio->radios[std::size_t(range.radio)].part, range.ground};
            low.measured = range.clearance_m;
            low.limit = 0.6 * range.fresnel_m; // 60 % of the first zone free counts as free space (ITU-R P.530)
            low.unit = "m";
            low.margin = *low.measured - *low.limit;
            low.severity = Severity::note;
            low.inputs = {{"distance", range.distance_m, "m"}};
            if (range.down) out.push_back(std::move(low));
        }
    }
}

static FindingText wordRangeMargin(const Build &build, const Finding &f) {
    if (f.variant.rfind("fresnel", 0) == 0) {
        const std::vector<std::string> words{displayName(build, f.subjects[0]), oneDecimal(*f.measured),
                                             oneDecimal(*f.limit), wholeNumber(inputOf(f, "distance"))};
        return {{"{0}: the ground reaches into the path", words},
                {"Halfway to {3} m the line is {1} m over flat ground; {2} m keep the first Fresnel zone free enough. "
                 "Fly higher or raise the antenna.",
                 words}};
    }
    const std::vector<std::string> words{displayName(build, f.subjects[0]),
                                         wholeNumber(*f.measured),
                                         wholeNumber(*f.limit),
                                         wholeNumber(inputOf(f, "distance")),
                                         wholeNumber(inputOf(f, "range as a ceiling")),
                                         wholeNumber(inputOf(f, "with the margin")),
                                         wholeNumber(inputOf(f, "lost to polarisation")),
                                         wholeNumber(inputOf(f, "overhead"))};
    std::string detail;
    const double missing_dB = -f.margin;
    if (inputOf(f, "crossed hands") > 0 && inputOf(f, "lost to polarisation") > missing_dB / 2)
        detail += "{6} dB of it are crossed hands (RAD-10): the same hand at both ends comes first. ";
    detail += "{2} dB are wanted: that holds to {5} m; {4} m is the ceiling in free space. ";
    if (inputOf(f, "overhead") < *f.limit) detail += "Straight above the station {7} dB are left. ";
    detail += "Trees, bodies and the craft's own shadow are not in it.";
    return {{f.variant == "up" ? "{0} hears the ground with {1} dB to spare at {3} m"
                               : "{0} reaches the ground with {1} dB to spare at {3} m",
             words},
            {detail, words}};
}

static void judgeLocalLaw(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    Finding f;
    f.rule = RuleId::radLaw;
    f.severity = Severity::note;
    for (const auto &radio : derived.radio->radios) {
        if (!radio.sends()) continue;
        f.subjects.push_back(radio.part);
        f.inputs.insert(f.inputs.end(), {{"power", milliwatts(*radio.power_dBm), "mW"},
                                         {"from", radio.low_MHz, "MHz"},
                                         {"to", radio.high_MHz, "MHz"}});
    }
    if (!f.subjects.empty()) out.push_back(std::move(f));
    (void)build;
}

static FindingText wordLocalLaw(const Build &build, const Finding &f) {
    // Of each sender three: what it sends with, and between which frequencies.
    std::string assumed;
    for (std::size_t i = 0; i < f.subjects.size(); ++i) {
        const double power_mW = f.inputs[3 * i].value;
        if (i) assumed += "; ";
        if (f.subjects.size() > 1) assumed += nameWithin(build, f.subjects[i]) + " ";
        assumed += fmt::format("{} mW between {} and {} MHz",
                               power_mW < 10 ? fmt::format("{:.2g}", power_mW) : wholeNumber(power_mW),
                               megahertz(f.inputs[3 * i + 1].value), megahertz(f.inputs[3 * i + 2].value));
    }
    std::vector<std::string> senders = f.subjects; // a unit with two radios is named once
    senders.erase(std::unique(senders.begin(), senders.end()), senders.end());
    return {{"Local law decides on band and power of {0}", {listNames(build, senders)}},
            {"Assumed: {0}. Ask the local authority; some bands want an amateur radio licence.", {assumed}}};
}

Severity cellSeverity(const RadioCell &cell, bool compass, const Practice &practice) {
    if (!cell.counts) return Severity::pass;
    if (compass)
        return cell.heading_deg > practice[Limit::headingStop]    ? Severity::stop
               : cell.heading_deg > practice[Limit::headingWatch] ? Severity::watch
               : cell.heading_deg > practice[Limit::headingNote]  ? Severity::note
                                                                  : Severity::pass;
    if (cell.coupling) {
        if (cell.blockingMargin_dB < 0 || cell.rise_dB > practice[Limit::desenseStop]) return Severity::stop;
        if (cell.blockingMargin_dB < practice[Limit::blockingReserve] || cell.rise_dB > practice[Limit::desenseWatch])
            return Severity::watch;
    }
    return cell.practice_mm && cell.distance_mm < *cell.practice_mm ? Severity::watch : Severity::pass;
}

std::span<const Rule> radioRules() {
    static const std::array<Rule, 5> rules{{
        {RuleId::radSeparation,
         "Distance of antennas",
         "Rules of thumb hold where nobody computes: builders keep these distances, and what is computed stands beside "
         "them.",
         kTrade,
         Stage::radio,
         {Limit::senderReceiverGap, Limit::senderGnssGap, Limit::digitalGnssGap, Limit::escAntennaGap,
          Limit::longWaveGap},
         needs(Need::radio, Need::survey),
         judgeSeparation,
         wordSeparation},
        {RuleId::radNoise,
         "Noise floor raised",
         "What a sender puts into a receiver, in its band or beside it, drowns the far station first: range is lost "
         "without a sign.",
         "Friis 1946, ITU-R P.525; induced-EMF method (Balanis) between straight elements; ITU-R P.526 for edges; "
         "receivers by their stated figures",
         Stage::radio,
         {Limit::desenseWatch, Limit::desenseStop, Limit::rejectionSlope, Limit::sentNoise, Limit::offBandAntenna,
          Limit::crossPolar},
         needs(Need::radio, Need::survey),
         judgeNoiseRise,
         wordNoiseRise},
        {RuleId::radBlocking,
         "Receiver overloaded",
         "A receiver whose first stage is driven too hard hears nothing, whatever the channel.",
         "as RAD-2; blocking levels as stated, else common practice, no source",
         Stage::radio,
         {Limit::blockingReserve, Limit::rejectionSlope},
         needs(Need::radio, Need::survey),
         judgeBlocking,
         wordBlocking},
        {RuleId::radLink,
         "Margin of the link",
         "Free space is the ceiling: bodies, trees and turning the craft take ten decibels and more.",
         "Friis 1946, ITU-R P.525; Fresnel zone ITU-R P.530, from memory",
         Stage::radio,
         {Limit::linkMargin, Limit::crossPolar},
         needs(Need::radio),
         judgeRangeMargin,
         wordRangeMargin},
        {RuleId::radLaw,
         "Band, power and licence",
         "What may be sent where is for local law to say, not for this program.",
         "none: local law",
         Stage::radio,
         {},
         needs(Need::radio),
         judgeLocalLaw,
         wordLocalLaw},
    }};
    return rules;
}

} // namespace waxis
