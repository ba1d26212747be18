// LOG-1 to LOG-8: what was measured and is not as planned, what a trial told, what is still to do.
#include "core/build/log.h"
#include "core/base/by_id.h"
#include "core/findings/input.h"
#include "core/kit/kit.h"
#include "core/log/fingerprint.h"
#include "core/log/quantities.h"
#include "core/measured/log_report.h"
#include "core/rules/rule.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <iterator>

namespace waxis {

namespace {

void pass(RuleId rule, std::vector<Finding> &out, std::vector<std::string> subjects = {}) {
    Finding f;
    f.rule = rule;
    f.severity = Severity::pass;
    f.subjects = std::move(subjects);
    out.push_back(std::move(f));
}

void offer(Finding &f, const std::vector<Feedback> &feedback, const std::string &part = {}) {
    if (feedback.empty()) return;
    Fix fix{part, feedback.front()};
    for (std::size_t i = 1; i < feedback.size(); ++i) fix.then.push_back(Fix{part, feedback[i]});
    f.fixes.push_back(std::move(fix));
}

/// The row as a finding: measured against planned in its own unit.
Finding findingOf(RuleId rule, const PlannedMeasured &row, const Practice &practice) {
    Finding f;
    f.rule = rule;
    if (!row.subject.empty()) f.subjects = {row.subject};
    f.loadCase = row.loadCase;
    f.unit = row.unit;
    f.practiceLimit = Limit::measuredApart;
    if (row.planned) f.limit = *row.planned;
    f.measured = row.measured;
    f.margin = practice[Limit::measuredApart] - std::abs(row.sigmas);
    f.inputs = {{"measured", row.measured, row.unit},
                {"doubt", 2 * row.measuredSigma, row.unit},
                {"planned", row.planned.value_or(0), row.unit},
                {"plan's doubt", 2 * row.plannedSigma, row.unit},
                {"apart", std::abs(row.sigmas), "standard deviations"},
                {"measured times", double(row.entries), ""}};
    f.severity = row.agreement == Agreement::apart ? Severity::watch : Severity::pass;
    return f;
}

std::string inWords(double value) {
    const double size = std::abs(value);
    return fmt::format("{:.{}f}", value, size >= 100 ? 0 : size >= 10 ? 1 : size >= 1 ? 2 : 3);
}

std::string subjectName(const Build &build, const Finding &f) {
    if (f.subjects.empty()) return "The craft";
    const std::string kind = kitItemName(build, f.subjects.front());
    return kind.empty() ? displayName(build, f.subjects.front()) : kind;
}

Sentence doubts(const Finding &f) {
    return {"Planned {0} ± {1} {4}, measured {2} ± {3} {4}: {5} standard deviations apart.",
            {inWords(inputOf(f, "planned")), inWords(inputOf(f, "plan's doubt")), inWords(inputOf(f, "measured")),
             inWords(inputOf(f, "doubt")), std::string(f.unit), oneDecimal(inputOf(f, "apart"))}};
}

} // namespace

static void judgeLogWeight(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &row : derived.log->rows) {
        if (row.quantity != Quantity::partWeight && row.quantity != Quantity::craftWeight) continue;
        if (!row.planned) continue;
        Finding f = findingOf(RuleId::logWeight, row, practice);
        f.variant = row.quantity == Quantity::craftWeight ? "craft" : "";
        if (f.severity == Severity::watch) offer(f, row.feedback);
        out.push_back(std::move(f));
    }
}

static FindingText wordLogWeight(const Build &build, const Finding &f) {
    const double more = inputOf(f, "measured") - inputOf(f, "planned");
    return {{more > 0 ? "{0} weighs {1} g more than planned" : "{0} weighs {1} g less than planned",
             {subjectName(build, f), inWords(std::abs(more))}},
            doubts(f)};
}

static void judgeLogBalance(const Build &, const Practice &practice, const Derived &derived,
                            std::vector<Finding> &out) {
    const PlannedMeasured *forward = nullptr;
    for (const auto &row : derived.log->rows) {
        if (row.quantity != Quantity::craftBalance) continue;
        const bool isForward = row.which == "forward";
        if (isForward) forward = &row;
        const bool pairs = !isForward && forward && forward->loadCase == row.loadCase;
        // Along and across are one place where both were found.
        if (isForward && std::any_of(derived.log->rows.begin(), derived.log->rows.end(), [&](const auto &other) {
                return other.quantity == Quantity::craftBalance && other.which == "left" &&
                       other.loadCase == row.loadCase;
            }))
            continue;
        const double along = pairs       ? forward->measured
                             : isForward ? row.measured
                                         : 0,
                     across = isForward ? 0 : row.measured;
        const double off = std::hypot(along, across);
        Finding f;
        f.rule = RuleId::logBalance;
        f.loadCase = row.loadCase;
        f.unit = "mm";
        f.measured = off;
        f.limit = derived.cgTolerance_mm;
        f.practiceLimit = Limit::cgOffset;
        f.margin = derived.cgTolerance_mm - off;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = {{"measured forward", along, "mm"},
                    {"measured left", across, "mm"},
                    {"planned forward",
                     pairs       ? forward->planned.value_or(0)
                     : isForward ? row.planned.value_or(0)
                                 : 0,
                     "mm"},
                    {"planned left", isForward ? 0 : row.planned.value_or(0), "mm"},
                    {"doubt", 2 * row.measuredSigma, "mm"}};
        (void)practice;
        out.push_back(std::move(f));
    }
}

static FindingText wordLogBalance(const Build &, const Finding &f) {
    const double along = inputOf(f, "measured forward"), across = inputOf(f, "measured left");
    const Vec3 off(along, across, 0);
    const double other = std::hypot(along - inputOf(f, "planned forward"), across - inputOf(f, "planned left"));
    return {
        {"Balanced, the craft is {0} mm off its thrust centre", {oneDecimal(*f.measured)}},
        {"Found {0}; the ring is {1} mm. The plan lies {2} mm from what was found: slide the pack, or weigh what was "
         "only looked up.",
         {shiftInWords(off), oneDecimal(*f.limit), oneDecimal(other)}}};
}

static void judgeLogLeads(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    const LeadHabit &habit = derived.log->leads;
    if (habit.wires.empty()) return;
    Finding f;
    f.rule = RuleId::logLeads;
    f.subjects = habit.wires;
    f.unit = "mm";
    f.measured = habit.median_mm;
    f.limit = practice[Limit::wireOwnSlack];
    f.practiceLimit = Limit::trialChance;
    f.margin = habit.chance - practice[Limit::trialChance] / 100;
    f.inputs = {{"leads", double(habit.wires.size()), ""},
                {"longer", double(habit.longer), ""},
                {"shorter", double(habit.shorter), ""},
                {"median", habit.median_mm, "mm"},
                {"least", habit.low_mm, "mm"},
                {"most", habit.high_mm, "mm"},
                {"chance", 100 * habit.chance, "%"}};
    f.severity = derived.log->slack ? Severity::watch : Severity::pass;
    if (derived.log->slack) offer(f, {*derived.log->slack});
    out.push_back(std::move(f));
}

static FindingText wordLogLeads(const Build &, const Finding &f) {
    const double median = inputOf(f, "median");
    const bool isLonger = median > 0;
    return {{isLonger ? "You cut leads {0} mm longer than planned" : "You cut leads {0} mm shorter than planned",
             {wholeNumber(std::abs(median))}},
            {"{0} of {1} leads; half of what you cut lies between {2} and {3} mm. By chance alone they would lie so in "
             "{4} % "
             "of cases.",
             {wholeNumber(inputOf(f, isLonger ? "longer" : "shorter")), wholeNumber(inputOf(f, "leads")),
              wholeNumber(inputOf(f, "least")), wholeNumber(inputOf(f, "most")), oneDecimal(inputOf(f, "chance"))}}};
}

static void judgeLogReadings(const Build &build, const Practice &practice, const Derived &derived,
                             std::vector<Finding> &out) {
    for (const auto &pair : derived.log->inconsistent) {
        const Entry *first = byId(build.log->entries, pair.first), *second = byId(build.log->entries, pair.second);
        if (!first || !second) continue;
        Finding f;
        f.rule = RuleId::logReadings;
        f.severity = Severity::note;
        f.variant = pair.first + " " + pair.second;
        f.subjects = first->subjects;
        f.unit = unitOf(quantityInfo(first->quantity).values[0].measure);
        f.measured = std::abs(first->values[0] - second->values[0]);
        f.practiceLimit = Limit::measuredApart;
        f.margin = practice[Limit::measuredApart] - pair.sigmas;
        f.inputs = {{"first", first->values[0], f.unit},
                    {"second", second->values[0], f.unit},
                    {"apart", pair.sigmas, "standard deviations"}};
        out.push_back(std::move(f));
    }
}

static FindingText wordLogReadings(const Build &build, const Finding &f) {
    return {{"{0} was measured twice and reads {1} and {2} {3}",
             {subjectName(build, f), inWords(inputOf(f, "first")), inWords(inputOf(f, "second")), std::string(f.unit)}},
            {"That is {0} standard deviations apart: measure once more, and set the odd one aside.",
             {oneDecimal(inputOf(f, "apart"))}}};
}

static void judgeLogTrial(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    const Log &log = *build.log;
    for (std::size_t t = 0; t < derived.log->trials.size() && t < log.trials.size(); ++t) {
        const TrialReport &report = derived.log->trials[t];
        const Trial &trial = log.trials[t];
        const Part *part = findPart(build, trial.part);
        const TrialSetup *winner = byId(trial.setups, report.winner);
        if (!winner || !winner->stood || !part) continue;
        const Pose now = framePose(build, *part);
        const double off_mm = (now.position_mm - winner->stood->X_FramePart.position_mm).norm();
        const double turn_deg =
            now.rotation.angularDistance(winner->stood->X_FramePart.rotation) * 180 / 3.14159265358979323846;
        constexpr double kThere_mm = 3, kThere_deg = 5;
        const bool there = off_mm <= kThere_mm && turn_deg <= kThere_deg;
        // Against the way that the craft has now; else the one that lost by most.
        const TrialComparison *pair = nullptr;
        for (const auto &one : report.pairs)
            if (one.better == report.winner && (!pair || one.shift.shift > pair->shift.shift)) pair = &one;
        Finding f;
        f.rule = RuleId::logTrial;
        f.severity = there ? Severity::pass : Severity::watch;
        f.variant = trial.id;
        f.subjects = {trial.part};
        f.unit = "mm";
        f.measured = off_mm;
        f.limit = kThere_mm;
        f.practiceLimit = Limit::trialChance;
        f.margin = kThere_mm - off_mm;
        if (pair)
            f.inputs = {{"by", pair->shift.shift, unitOf(trial)},  {"least", pair->shift.low, unitOf(trial)},
                        {"most", pair->shift.high, unitOf(trial)}, {"tries", double(pair->betterTries), ""},
                        {"against", double(pair->otherTries), ""}, {"chance", 100 * pair->test.chance, "%"}};
        if (!there)
            offer(f,
                  {Feedback{FeedbackKind::place,
                            trial.part,
                            {},
                            {},
                            {},
                            fmt::format("trial: {}", trial.question),
                            winner->stood->X_FramePart}},
                  trial.part);
        (void)practice;
        out.push_back(std::move(f));
    }
}

static FindingText wordLogTrial(const Build &build, const Finding &f) {
    const Trial *trial = byId(build.log->trials, f.variant);
    std::string unit = trial ? std::string(unitOf(*trial)) : std::string();
    if (!unit.empty()) unit = " " + unit;
    FindingText text;
    text.headline = {"A trial says that {0} does better elsewhere", {nameWithin(build, f.subjects.front())}};
    text.detail = {
        "\"{0}\": better by {1}{2} ({3} to {4}), {5} against {6} tries; chance alone would do that in {7} % of "
        "cases. It stands {8} mm from there.",
        {trial ? trial->question : f.variant, inWords(maybeInput(f, "by").value_or(0)), unit,
         inWords(maybeInput(f, "least").value_or(0)), inWords(maybeInput(f, "most").value_or(0)),
         wholeNumber(maybeInput(f, "tries").value_or(0)), wholeNumber(maybeInput(f, "against").value_or(0)),
         oneDecimal(maybeInput(f, "chance").value_or(0)), wholeNumber(*f.measured)}};
    return text;
}

static bool tellsOfFlight(const Log &log, const Session &session) {
    return std::any_of(log.entries.begin(), log.entries.end(), [&](const Entry &entry) {
        const Quantity q = entry.quantity;
        return entry.session == session.id && (q == Quantity::flight || q == Quantity::hoverCurrent ||
                                               q == Quantity::hoverThrottle || q == Quantity::rangeWalk);
    });
}

static void judgeLogState(const Build &build, const Practice &, const Derived &, std::vector<Finding> &out) {
    const Log &log = *build.log;
    const Session *flown = nullptr;
    for (const auto &session : log.sessions)
        if (!session.fingerprint.empty() && tellsOfFlight(log, session)) flown = &session;
    if (!flown) return;
    const bool same = flown->fingerprint == fingerprintOf(build);
    if (same) return pass(RuleId::logState, out);
    Finding f;
    f.rule = RuleId::logState;
    f.severity = Severity::note;
    f.variant = flown->id;
    f.margin = -1;
    out.push_back(std::move(f));
}

static FindingText wordLogState(const Build &build, const Finding &f) {
    const Session *session = byId(build.log->sessions, f.variant);
    std::string when = session ? session->at.substr(0, 10) : std::string();
    if (session && !session->state.empty()) when += ", " + session->state;
    return {{"The craft that last flew ({0}) is not the one that is drawn", {when}},
            {"What was measured in flight then tells of another state: compare the two in Log under Changes.", {}}};
}

static void judgeLogApart(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    bool current = false, flight = false;
    for (const auto &row : derived.log->rows) {
        current |= row.quantity == Quantity::hoverCurrent;
        flight |= row.quantity == Quantity::flight;
        switch (row.quantity) {
        case Quantity::size:
        case Quantity::idleCurrent:
        case Quantity::hoverCurrent:
        case Quantity::hoverThrottle:
        case Quantity::flight:
        case Quantity::sag:
        case Quantity::fieldOfPlace:
        case Quantity::headingLifted:
        case Quantity::headingTurned: break;
        default: continue;
        }
        if (!row.planned) continue;
        Finding f = findingOf(RuleId::logApart, row, practice);
        f.variant = std::string(quantityInfo(row.quantity).key);
        if (!row.which.empty()) f.variant += " " + std::string(row.which);
        if (f.severity == Severity::watch) {
            f.severity = Severity::note;
            offer(f, row.feedback);
        }
        out.push_back(std::move(f));
    }
    if (flight && !current && !build.log->sessions.empty()) {
        Finding f;
        f.rule = RuleId::logApart;
        f.severity = Severity::unknown;
        f.variant = "hover unknown";
        out.push_back(std::move(f));
    }
}

static FindingText wordLogApart(const Build &build, const Finding &f) {
    if (f.variant == "hover unknown")
        return {{"It has flown, and its current in hover is not measured yet", {}},
                {"Minutes and currents rest on a guessed figure of merit: enter \"hover 12.5 A\" in Log.", {}}};
    const auto space = f.variant.find(' ');
    const std::string key = f.variant.substr(0, space);
    std::string title = key;
    for (const auto &info : quantityBook())
        if (info.key == key) title = info.title;
    if (space != std::string::npos) title += " (" + f.variant.substr(space + 1) + ")";
    const bool more = inputOf(f, "measured") > inputOf(f, "planned");
    const std::string of = f.subjects.empty() ? std::string() : " of " + nameWithin(build, f.subjects.front());
    return {{more ? "{0}{1}: {2} {3} measured, more than the {4} planned"
                  : "{0}{1}: {2} {3} measured, less than the {4} planned",
             {title, of, inWords(inputOf(f, "measured")), std::string(f.unit), inWords(inputOf(f, "planned"))}},
            doubts(f)};
}

static void judgeLogOpen(const Build &build, const Practice &, const Derived &, std::vector<Finding> &out) {
    const std::size_t before = out.size();
    for (const auto &entry : build.log->entries) {
        const bool kind = entry.quantity == Quantity::openEnd || entry.quantity == Quantity::fault ||
                          entry.quantity == Quantity::damage;
        if (!kind || !entry.cure.empty() || entry.setAside) continue;
        Finding f;
        f.rule = RuleId::logOpen;
        f.severity = entry.blocks ? Severity::watch : Severity::note;
        f.variant = entry.id;
        f.subjects = entry.subjects;
        f.margin = entry.blocks ? -1 : 0;
        out.push_back(std::move(f));
    }
    if (out.size() == before && !build.log->entries.empty()) pass(RuleId::logOpen, out);
}

static FindingText wordLogOpen(const Build &build, const Finding &f) {
    const Entry *entry = byId(build.log->entries, f.variant);
    const std::string what = entry ? std::string(quantityInfo(entry->quantity).title) : std::string();
    const std::string said = entry && !entry->text.empty() ? entry->text : std::string("no words");
    const std::string of = f.subjects.empty() ? std::string() : " (" + displayName(build, f.subjects.front()) + ")";
    return {{"{0}{1}: {2}", {what, of, said}},
            {entry && entry->blocks ? "Not to be flown before it is mended. Enter in Log what mended it."
                                    : "Enter in Log what mended it; it stays here until then.",
             {}}};
}

std::span<const Rule> logRules() {
    static const std::array<Rule, 8> rules{{
        {RuleId::logWeight,
         "Weighed otherwise than planned",
         "A weight that is off by more than both doubts was looked up wrong, weighed wrong, or belongs to another "
         "thing.",
         "difference over the root of both variances (law of propagation of uncertainty)",
         Stage::log,
         {Limit::measuredApart},
         needs(Need::log),
         judgeLogWeight,
         wordLogWeight},
        {RuleId::logBalance,
         "Balanced off the centre",
         "What the rod or the scales say of the finished craft counts more than the sum of its parts.",
         kTrade,
         Stage::log,
         {Limit::cgOffset},
         needs(Need::log, Need::balance),
         judgeLogBalance,
         wordLogBalance},
        {RuleId::logLeads,
         "Leads cut otherwise by habit",
         "Who always cuts a bit more needs that bit in the plan: the cut list, the grams and the loops then agree.",
         "sign test (binomial), order-statistic interval of the median; from five leads on",
         Stage::log,
         {Limit::trialChance},
         needs(Need::log),
         judgeLogLeads,
         wordLogLeads},
        {RuleId::logReadings,
         "Two readings of one thing",
         "Two readings of one thing that differ by more than the instrument's doubt: one of them is wrong.",
         "difference over the root of both variances (law of propagation of uncertainty)",
         Stage::log,
         {Limit::measuredApart},
         needs(Need::log),
         judgeLogReadings,
         wordLogReadings},
        {RuleId::logTrial,
         "A trial was decided otherwise",
         "What was tried several times and was better beyond chance is where the part ought to be.",
         "Mann and Whitney 1947; Hodges and Lehmann 1963",
         Stage::log,
         {Limit::trialChance},
         needs(Need::log, Need::places),
         judgeLogTrial,
         wordLogTrial},
        {RuleId::logState,
         "Flown in another state",
         "Currents, minutes and what was seen belong to the craft as it was then.",
         kTrade,
         Stage::log,
         {},
         needs(Need::log, Need::places),
         judgeLogState,
         wordLogState},
        {RuleId::logApart,
         "Measured otherwise than planned",
         "Where a measured number lies outside the plan's doubt, one of the plan's assumptions is not that of this "
         "craft.",
         "difference over the root of both variances (law of propagation of uncertainty)",
         Stage::log,
         {Limit::measuredApart},
         needs(Need::log),
         judgeLogApart,
         wordLogApart},
        {RuleId::logOpen,
         "Still to be mended",
         "What was seen and not mended is forgotten until it happens in the air.",
         kTrade,
         Stage::log,
         {},
         needs(Need::log),
         judgeLogOpen,
         wordLogOpen},
    }};
    return rules;
}

} // namespace waxis
