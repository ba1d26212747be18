// NAV-3 to NAV-5: what currents, magnets and iron do to a compass.
#include "core/findings/input.h"
#include "core/radio/radio_report.h"
#include "core/rules/rule.h"
#include "core/survey/at_hand.h"
#include "core/survey/helps.h"

#include <array>
#include <fmt/format.h>

namespace waxis {

namespace {

void judgeHeading(Finding &f, const Practice &practice, double error_deg, double disturbance_uT) {
    f.measured = error_deg;
    f.unit = "deg";
    const bool stops = error_deg > practice[Limit::headingStop], watched = error_deg > practice[Limit::headingWatch],
               noted = error_deg > practice[Limit::headingNote];
    f.severity = stops ? Severity::stop : watched ? Severity::watch : noted ? Severity::note : Severity::pass;
    f.practiceLimit = stops ? Limit::headingStop : watched ? Limit::headingWatch : Limit::headingNote;
    f.limit = practice[*f.practiceLimit];
    // Beyond any angle the field says how far it is off.
    const double beyond = std::max(1.0, disturbance_uT / practice[Limit::earthField]);
    f.margin = *f.limit - error_deg * (error_deg >= 180 ? beyond : 1);
}

/// Without a use for it the compass may be disturbed as it likes.
bool compassCounts(const Practice &practice) { return practice.follows("compass", "used"); }

std::string fieldWord(double value_uT) {
    return value_uT < 1000 ? oneDecimal(value_uT) + " µT" : oneDecimal(value_uT / 1000) + " mT";
}

std::string degrees(double value) { return value >= 180 ? "any angle" : oneDecimal(value) + "°"; }

/// What a survey found that would help, as long as it holds.
std::vector<Fix> helpFor(const Derived &derived, const std::string &compass, const std::string &magnet) {
    for (const auto &help : compassHelpFound(derived))
        if (help.compass == compass && help.magnet == magnet) return help.fixes;
    return {};
}

} // namespace

static void judgeThrottle(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    if (!compassCounts(practice)) return;
    for (const auto &compass : derived.radio->compasses) {
        Finding f;
        f.rule = RuleId::navThrottle;
        f.loadCase = compass.loadCase;
        f.subjects = {compass.part};
        for (const auto &share : compass.by)
            if (f.subjects.size() < 4 && findWire(build, share.id) && share.full_uT > 0.05)
                f.subjects.push_back(share.id);
        judgeHeading(f, practice, compass.full_deg, compass.field.full_uT);
        // Full throttle lasts seconds; what hovering does stays.
        if (f.severity == Severity::stop && compass.hover_deg <= practice[Limit::headingWatch])
            f.severity = Severity::watch;
        f.from_mm = compass.position_mm;
        f.inputs = {{"error at full current", compass.full_deg, "deg"},
                    {"error in hover", compass.hover_deg, "deg"},
                    {"field at full current, level", compass.field.full_uT, "uT"},
                    {"field in hover, level", compass.field.hover_uT, "uT"},
                    {"earth's field, level", practice[Limit::earthField], "uT"}};
        if (derived.radio->sources.paths.empty()) {
            f.severity = build.wires.empty() ? Severity::unknown : Severity::pass;
            f.variant = "no wires";
        }
        if (f.severity == Severity::stop || f.severity == Severity::watch) f.fixes = helpFor(derived, compass.part, {});
        out.push_back(std::move(f));
    }
}

static FindingText wordThrottle(const Build &build, const Finding &f) {
    if (f.severity == Severity::unknown)
        return {{"What currents do to {0} is not known", {nameWithin(build, f.subjects[0])}},
                {"No wires are drawn. Draw the power wires in Wire.", {}}};
    std::string who;
    for (std::size_t i = 1; i < f.subjects.size(); ++i) who += (i > 1 ? ", " : "") + nameWithin(build, f.subjects[i]);
    const std::vector<std::string> words{nameWithin(build, f.subjects[0]), degrees(inputOf(f, "error at full current")),
                                         degrees(inputOf(f, "error in hover")), who.empty() ? "wires" : who,
                                         fieldWord(inputOf(f, "field at full current, level"))};
    return {{inputOf(f, "error at full current") >= 180 ? "Currents overwhelm the compass of {0}"
                                                        : "Currents turn the compass of {0} by up to {1}",
             words},
            {"In hover {2}; at full current {4}, most by {3}, loose pairs in their worst lie; copper within boards and "
             "pack "
             "is not in it. Twist there and back together, lead them elsewhere, or raise the compass.",
             words}};
}

static void judgeMagnets(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    if (!compassCounts(practice)) return;
    for (const auto &compass : derived.radio->compasses)
        for (std::size_t r = 0; r < derived.radio->rows.size(); ++r) {
            const Disturber &row = derived.radio->rows[r];
            if (row.kind != DisturberKind::magnet) continue;
            for (std::size_t c = 0; c < derived.radio->columns.size(); ++c) {
                const RadioCell &cell = derived.radio->cell(r, c);
                if (!cell.counts || derived.radio->columns[c].compass < 0 ||
                    &derived.radio->compasses[std::size_t(derived.radio->columns[c].compass)] != &compass)
                    continue;
                Finding f;
                f.rule = RuleId::navMagnet;
                f.subjects = {row.id, compass.part};
                judgeHeading(f, practice, cell.heading_deg, cell.field_uT);
                f.from_mm = compass.position_mm;
                f.inputs = {{"distance", cell.distance_mm, "mm"},
                            {"field, level", cell.field_uT, "uT"},
                            {"earth's field, level", practice[Limit::earthField], "uT"}};
                if (f.severity != Severity::pass) {
                    f.fixes = helpFor(derived, compass.part, row.id);
                    if (f.fixes.size() > 2) f.fixes.resize(2);
                }
                out.push_back(std::move(f));
            }
        }
}

static FindingText wordMagnets(const Build &build, const Finding &f) {
    const std::vector<std::string> words{nameWithin(build, f.subjects[0]), nameWithin(build, f.subjects[1]),
                                         degrees(*f.measured), oneDecimal(inputOf(f, "distance")),
                                         fieldWord(inputOf(f, "field, level"))};
    if (*f.measured >= 180)
        return {
            {"The magnet of {0} overwhelms the compass of {1}", words},
            {"{3} mm apart, {4}: more than the earth's field, so the heading may be anything. No calibration helps; "
             "move it away.",
             words}};
    return {{"The magnet of {0} turns the compass of {1} by {2}", words},
            {"{3} mm apart, {4}. A calibration takes a steady part away while it is small; the distance does it "
             "better.",
             words}};
}

static void judgeIron(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    if (!compassCounts(practice)) return;
    for (const auto &compass : derived.radio->compasses) {
        if (compass.iron.empty()) continue;
        Finding f;
        f.rule = RuleId::navIron;
        f.subjects = {compass.part};
        for (const auto &iron : compass.iron)
            if (iron.distance_mm < practice[Limit::ferrousGap] || f.subjects.size() == 1)
                if (f.subjects.size() < 5) f.subjects.push_back(iron.part);
        f.measured = compass.iron.front().distance_mm;
        f.limit = practice[Limit::ferrousGap];
        f.practiceLimit = Limit::ferrousGap;
        f.unit = "mm";
        f.margin = *f.measured - *f.limit;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        f.from_mm = compass.position_mm;
        out.push_back(std::move(f));
    }
}

static FindingText wordIron(const Build &build, const Finding &f) {
    std::string who;
    for (std::size_t i = 1; i < f.subjects.size(); ++i)
        who += (i > 1 ? ", " : "") + (i > 1 ? nameWithin(build, f.subjects[i]) : displayName(build, f.subjects[i]));
    return {
        {"Steel {1} mm from the compass of {0}", {nameWithin(build, f.subjects[0]), wholeNumber(*f.measured)}},
        {"{0}. Steel bends the earth's field; {1} mm are wanted. Take screws of titanium, aluminium or nylon there.",
         {who, wholeNumber(*f.limit)}}};
}

std::span<const Rule> navCompassRules() {
    static const std::array<Rule, 3> rules{{
        {RuleId::navThrottle,
         "Currents at the compass",
         "The field of the pack's leads comes and goes with the throttle: no calibration takes it away.",
         "Biot and Savart (Griffiths; Jackson) over the routed wires, loose pairs in their worst lie, the vertical "
         "part "
         "times the sine of the lean in cruise; heading error by vector addition",
         Stage::radio,
         {Limit::headingNote, Limit::headingWatch, Limit::headingStop, Limit::earthField, Limit::cruisePitch},
         needs(Need::radio, Need::survey),
         judgeThrottle,
         wordThrottle},
        {RuleId::navMagnet,
         "Magnets at the compass",
         "A buzzer or speaker holds a magnet that is stronger than the earth's field at some centimetres.",
         "field of a dipole (Griffiths); moments as stated",
         Stage::radio,
         {Limit::headingNote, Limit::headingWatch, Limit::headingStop, Limit::earthField},
         needs(Need::radio, Need::survey),
         judgeMagnets,
         wordMagnets},
        {RuleId::navIron,
         "Steel at the compass",
         "Steel takes the earth's field up and lets it out elsewhere, other for every heading.",
         kTrade,
         Stage::radio,
         {Limit::ferrousGap},
         needs(Need::radio),
         judgeIron,
         wordIron},
    }};
    return rules;
}

} // namespace waxis
