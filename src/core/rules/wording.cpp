#include "core/rules/wording.h"

#include "core/build/frame_screws.h"
#include "core/kit/kit.h"
#include "core/radio/antennas.h"
#include "core/radio/decibel.h"
#include "core/rules/rule.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

/// A pass says what was looked at, what was found and how much is left: rules word their faults alone.
static FindingText wordPass(const Build &build, const Finding &f) {
    const Rule &rule = ruleOf(f.rule);
    constexpr std::size_t kNamed = 2;
    std::string names;
    for (std::size_t i = 0; i < std::min(kNamed, f.subjects.size()); ++i)
        names += (names.empty() ? "" : ", ") +
                 (names.empty() ? displayName(build, f.subjects[i]) : nameWithin(build, f.subjects[i]));
    if (f.subjects.size() > kNamed) names += fmt::format(" and {} more", f.subjects.size() - kNamed);
    if (names.empty() && !f.loadCase.empty()) names = displayName(build, f.loadCase);
    FindingText text;
    text.headline = names.empty() ? Sentence{"{0}: in order", {std::string(rule.title)}}
                                  : Sentence{"{0}: {1}", {std::string(rule.title), names}};
    const auto with = [&](double value) {
        const std::string number = fmt::format("{:.4g}", std::abs(value) < 1e-9 ? 0.0 : value);
        return f.unit.empty() ? number : number + (f.unit == "deg" ? "°" : " " + std::string(f.unit));
    };
    if (f.measured && f.limit)
        text.detail = {"{0} found, {1} is the limit: {2} to spare.",
                       {with(*f.measured), with(*f.limit), with(f.margin)}};
    else if (f.measured)
        text.detail = {"{0} found.", {with(*f.measured)}};
    else
        text.detail = {"Nothing is in the way of it.", {}};
    return text;
}

FindingText wordFinding(const Build &build, const Finding &finding) {
    return finding.severity == Severity::pass ? wordPass(build, finding) : ruleOf(finding.rule).word(build, finding);
}

std::string oneDecimal(double value) {
    constexpr double kHair = 1e-7; // sums of hundredths land beside the half
    const double rounded = std::round(value * 10 + std::copysign(kHair, value)) / 10;
    return fmt::format("{:.1f}", rounded == 0 ? 0.0 : rounded);
}

/// Nothing has no sign.
static std::string unsignedNought(std::string number) {
    if (number.starts_with('-') && number.find_first_of("123456789") == std::string::npos) number.erase(0, 1);
    return number;
}

std::string wholeNumber(double value) { return unsignedNought(fmt::format("{:.0f}", value)); }

std::string motorName(const Build &build, const std::string &mount) {
    std::string name = displayName(build, mount); // it is called by its disc
    constexpr std::string_view kDisc = " propeller disc";
    if (name.size() > kDisc.size() && name.ends_with(kDisc)) name.resize(name.size() - kDisc.size());
    return withinSentence(name) + " motor";
}

std::string withinSentence(std::string name) {
    // "GPS with compass" and "M3 screw" keep their capitals.
    const bool acronym = name.size() > 1 && !std::islower(static_cast<unsigned char>(name[1])) && name[1] != ' ';
    if (!name.empty() && !acronym) name[0] = char(std::tolower(static_cast<unsigned char>(name[0])));
    return name;
}

std::string nameWithin(const Build &build, const std::string &id) {
    const std::string name = displayName(build, id);
    for (const auto &[typeId, type] : *build.types)
        if (!type.maker.empty() && name.starts_with(type.maker)) return name;
    return withinSentence(name);
}

std::string shiftInWords(const Vec3 &shift_mm) {
    constexpr std::array<std::array<const char *, 2>, 3> kWords{
        {{"forward", "aft"}, {"left", "right"}, {"up", "down"}}};
    std::string text;
    for (int axis = 0; axis < 3; ++axis) {
        if (std::abs(shift_mm[axis]) < 0.05) continue;
        if (!text.empty()) text += ", ";
        text += fmt::format("{} mm {}", oneDecimal(std::abs(shift_mm[axis])), kWords[axis][shift_mm[axis] < 0]);
    }
    return text.empty() ? "a hair" : text;
}

Sentence wordFixBriefly(const Build &build, const Finding &finding, const Fix &fix) {
    if (finding.rule == RuleId::fitPropZone && fix.as<PartShift>() && fix.then.empty())
        return {"Move it {0}", {shiftInWords(fix.shift_mm())}};
    return wordFix(build, fix);
}

/// What changes of a radio's setting: the channel, or the power.
static Sentence wordRadioSetting(const Build &build, const RadioSetting &wanted) {
    const RadioSetting now = settingOf(build, wanted.part, wanted.band);
    const std::string name = displayName(build, wanted.part);
    if (wanted.centre_MHz && wanted.centre_MHz != now.centre_MHz)
        return {"Set {0} to {1} MHz", {name, fmt::format("{:g}", *wanted.centre_MHz)}};
    if (wanted.power_dBm && wanted.power_dBm != now.power_dBm)
        return {"Send with {1} mW from {0}", {name, fmt::format("{:.0f}", milliwatts(*wanted.power_dBm))}};
    return {"Set {0} as before", {name}};
}

/// The way of a turn, as somebody sees it who looks down on the craft or at what stands up from the part.
static std::string turnInWords(const PartTurn &turn) {
    const Vec3 way = turn.axis * turn.angle_deg;
    if (std::abs(turn.axis.z()) > 0.5) return way.z() > 0 ? "counter-clockwise from above" : "clockwise from above";
    if (std::abs(turn.axis.y()) > 0.5) return way.y() > 0 ? "forward" : "aft";
    return way.x() > 0 ? "to the right" : "to the left";
}

/// A part, a piece of the frame or a kind of things in the kit.
static std::string logName(const Build &build, const std::string &subject) {
    const std::string name = kitItemName(build, subject);
    return name.empty() ? nameWithin(build, subject) : withinSentence(name);
}

static std::string shortNumber(double value) {
    return value == std::round(value) || std::abs(value) >= 100 ? wholeNumber(value) : oneDecimal(value);
}

/// One kind of change, each in its own words.
struct WordChange {
    const Build &build;
    const std::string &part;
    Sentence operator()(const PartShift &shift) const {
        return {"Move {0} {1}", {displayName(build, part), shiftInWords(shift.by_mm)}};
    }
    Sentence operator()(const PartTurn &turn) const {
        return {"Turn {0} by {1}° {2}",
                {displayName(build, part), wholeNumber(std::abs(turn.angle_deg)), turnInWords(turn)}};
    }
    Sentence operator()(const CameraTilt &tilt) const {
        return {"Tilt {0} to {1}°", {displayName(build, part), oneDecimal(tilt.to_deg)}};
    }
    Sentence operator()(const OntoSite &seat) const {
        return {"Seat {0} on {1}", {displayName(build, part), nameWithin(build, seat.site)}};
    }
    Sentence operator()(const Perch &perch) const {
        return {"Put {0} {1} {2}",
                {displayName(build, part), std::string(perchWord(perch.kind)), nameWithin(build, perch.on)}};
    }
    Sentence operator()(const StackChange &change) const { return wordChange(build, change); }
    Sentence operator()(const WireChange &change) const { return wordWireChange(build, change); }
    Sentence operator()(const RadioSetting &wanted) const { return wordRadioSetting(build, wanted); }
    Sentence operator()(const MissingFrameScrews &) const {
        return {"Draw the {0} screws that the frame lacks", {std::to_string(missingScrews(*build.frame).size())}};
    }
    Sentence operator()(const MountPropeller &propeller) const {
        return {"Draw the {0} for propellers of {1} mm", {nameWithin(build, part), wholeNumber(propeller.diameter_mm)}};
    }
    Sentence operator()(const PostHeight &height) const {
        return {"Use {1} mm for {0}", {nameWithin(build, part), oneDecimal(height.to_mm)}};
    }
    Sentence operator()(const SwitchOff &quiet) const {
        if (quiet.cases.empty()) return {"Add a load case on the ground with {0} off", {nameWithin(build, part)}};
        if (quiet.cases.size() > 1)
            return {"Switch {0} off in {1} load cases", {nameWithin(build, part), std::to_string(quiet.cases.size())}};
        return {"Switch {0} off in {1}", {nameWithin(build, part), displayName(build, quiet.cases.front())}};
    }
    Sentence operator()(const Feedback &feedback) const {
        const auto number = [&] { return feedback.values.empty() ? std::string() : shortNumber(feedback.values[0]); };
        switch (feedback.kind) {
        case FeedbackKind::partWeight:
        case FeedbackKind::kindWeight: return {"Take {1} g for {0}", {logName(build, feedback.subject), number()}};
        case FeedbackKind::kindSize: return {"Take the measured size for {0}", {logName(build, feedback.subject)}};
        case FeedbackKind::craftWeight: return {"Take {0} g as a weighing of the craft", {number()}};
        case FeedbackKind::sag: return {"Take {1} mm of sag for {0}", {nameWithin(build, feedback.subject), number()}};
        case FeedbackKind::limit:
            if (feedback.limit == Limit::wireOwnSlack) return {"Allow {0} mm more for each lead", {number()}};
            if (feedback.limit == Limit::figureOfMerit) return {"Take {0} % as figure of merit", {number()}};
            if (feedback.limit == Limit::driveEfficiency)
                return {"Take {0} % as efficiency of motors and controllers", {number()}};
            if (feedback.limit == Limit::earthField) return {"Take {0} µT as the earth's field", {number()}};
            return {"Take {0} for the limit", {number()}};
        case FeedbackKind::place: return {"Move {0} to where it did better", {nameWithin(build, feedback.subject)}};
        }
        return {"Take it over", {}};
    }
    Sentence operator()(const ShieldUnder &shield) const {
        return {"Lay a copper shield under {0}, {1} mm beyond it",
                {nameWithin(build, part), wholeNumber(shield.beyond_mm)}};
    }
    Sentence operator()(const FrameScrewChange &change) const {
        const FrameScrew &to = change.to;
        FastenerData data{FastenerForm::screw, to.thread, to.length_mm.value_or(0), to.head};
        for (const auto &now : build.frame->screws)
            if (now.id == to.id && now.fromAbove != to.fromAbove)
                return {to.fromAbove ? "Put {0} in from above" : "Put {0} in from below", {nameWithin(build, to.id)}};
        if (to.length_mm) return {"Use {1} for {0}", {nameWithin(build, to.id), fastenerName(data, "steel")}};
        return {"Use a {1} head for {0}", {nameWithin(build, to.id), std::string(headWord(to.head))}};
    }
    Sentence operator()(const GroundHand &hand) const {
        const auto word = [&] {
            switch (hand.polarisation) {
            case Polarisation::rightCircular: return "a right-hand antenna";
            case Polarisation::leftCircular: return "a left-hand antenna";
            case Polarisation::linear: return "a straight antenna";
            }
            return "";
        };
        return {"Give {0} {1}", {nameWithin(build, part), word()}};
    }
};

static Sentence wordOneFix(const Build &build, const Fix &fix) {
    return std::visit(WordChange{build, fix.part}, fix.change);
}

Sentence wordFix(const Build &build, const Fix &fix) {
    Sentence words = wordOneFix(build, fix);
    if (fix.then.empty()) return words;
    const auto areAll = [&](WireChange::Kind kind) {
        const auto is = [kind](const Fix &f) {
            const auto *wire = f.as<WireChange>();
            return wire && wire->kind == kind;
        };
        return is(fix) && std::all_of(fix.then.begin(), fix.then.end(), is);
    };
    const std::string count = std::to_string(1 + fix.then.size());
    if (areAll(WireChange::Kind::tie)) return {"Tie it down in {0} places", {count}};
    if (areAll(WireChange::Kind::sleeve)) return {"Sleeve the {0} wires", {count}};
    if (const auto *wire = fix.as<WireChange>();
        wire && areAll(WireChange::Kind::gauge) && std::all_of(fix.then.begin(), fix.then.end(), [&](const Fix &f) {
            return f.as<WireChange>()->gauge_AWG == wire->gauge_AWG;
        }))
        return {"Use AWG {1} for the {0} wires", {count, std::to_string(wire->gauge_AWG)}};
    if (areAll(WireChange::Kind::tapeEdges)) return {"Tape the edges under the {0} wires", {count}};
    std::string all = words.text();
    const auto twists = [](const Fix &f) {
        const auto *wire = f.as<WireChange>();
        return wire && wire->kind == WireChange::Kind::twist;
    };
    for (std::size_t i = 0; i < fix.then.size(); ++i) {
        const Fix &now = fix.then[i], &before = i == 0 ? fix : fix.then[i - 1];
        std::string more = wordFix(build, now).text();
        if (twists(now) && twists(before)) more = displayName(build, now.as<WireChange>()->wire); // the verb once
        more[0] = char(std::tolower(static_cast<unsigned char>(more[0])));
        all += (i + 1 < fix.then.size() ? ", " : " and ") + more;
    }
    return {"{0}", {all}};
}

} // namespace waxis
