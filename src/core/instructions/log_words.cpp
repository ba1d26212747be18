#include "core/instructions/log_words.h"

#include "core/base/by_id.h"
#include "core/kit/kit.h"
#include "core/log/quantities.h"

#include <cctype>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

std::string nameOf(const Trial &trial, const std::string &setup) {
    const TrialSetup *found = byId(trial.setups, setup);
    return found ? found->name : setup;
}

std::string withUnit(const Trial &trial, double value) {
    const std::string unit(unitOf(trial));
    return threeDigits(value) + (unit.empty() ? "" : unit == "°" ? unit : " " + unit);
}

/// What the better one does better.
const char *betterPattern(const Trial &trial, bool atLeast) {
    switch (trial.quantity) {
    case TrialQuantity::secondsToSatellites:
    case TrialQuantity::secondsToFix:
        return atLeast
                   ? "{0} is quicker than {1} by at least {2} ({3} to {4}), {5} against {6} tries; chance alone would "
                     "do that once in {7}."
                   : "{0} is quicker than {1} by {2} ({3} to {4}), {5} against {6} tries; chance alone would do that "
                     "once in {7}.";
    case TrialQuantity::dilution:
    case TrialQuantity::headingError:
    case TrialQuantity::temperature:
        return "{0} stays below {1} by {2} ({3} to {4}), {5} against {6} tries; chance alone would do that once in "
               "{7}.";
    case TrialQuantity::satellitesUsed:
    case TrialQuantity::carrierToNoise:
    case TrialQuantity::rangeReached:
    case TrialQuantity::other: break;
    }
    return moreIsBetter(trial)
               ? "{0} has more than {1} by {2} ({3} to {4}), {5} against {6} tries; chance alone would do that once in "
                 "{7}."
               : "{0} has less than {1} by {2} ({3} to {4}), {5} against {6} tries; chance alone would do that once in "
                 "{7}.";
}

std::string lowerFirst(std::string text) {
    if (!text.empty()) text[0] = char(std::tolower(static_cast<unsigned char>(text[0])));
    return text;
}

std::string once(double chance) {
    const double in = 1 / std::max(chance, 1e-9);
    return in >= 1e6 ? "a million" : fmt::format("{:.0f}", in);
}

} // namespace

std::string threeDigits(double value) {
    const double size = std::abs(value);
    std::string text = fmt::format("{:.{}f}", value, size >= 100 ? 0 : size >= 10 ? 1 : size >= 1 ? 2 : 3);
    if (text.find('.') != std::string::npos) {
        while (text.back() == '0') text.pop_back();
        if (text.back() == '.') text.pop_back();
    }
    return text == "-0" ? "0" : text;
}

std::string_view trialQuantityTitle(TrialQuantity quantity) {
    switch (quantity) {
    case TrialQuantity::secondsToSatellites: return "Seconds to so many satellites";
    case TrialQuantity::secondsToFix: return "Seconds to the first place";
    case TrialQuantity::satellitesUsed: return "Satellites in use at the end";
    case TrialQuantity::carrierToNoise: return "Carrier to noise, mean of the four best";
    case TrialQuantity::dilution: return "Dilution of the place, horizontal";
    case TrialQuantity::headingError: return "Heading error";
    case TrialQuantity::rangeReached: return "Range that was reached";
    case TrialQuantity::temperature: return "Temperature";
    case TrialQuantity::other: return "Something else";
    }
    return "";
}

Sentence trialMeasure(const Trial &trial) {
    if (trial.quantity == TrialQuantity::secondsToSatellites)
        return {"Seconds to {0} satellites", {std::to_string(trial.satellites)}};
    if (trial.quantity == TrialQuantity::other)
        return {trial.moreIsBetter ? "{0}, more is better" : "{0}, less is better",
                {trial.unit.empty() ? "Number" : trial.unit}};
    return {std::string(trialQuantityTitle(trial.quantity)), {}};
}

Sentence wordComparison(const Trial &trial, const TrialComparison &pair) {
    const std::string better = nameOf(trial, pair.better), other = nameOf(trial, pair.other);
    const std::string tries = std::to_string(pair.betterTries), others = std::to_string(pair.otherTries);
    switch (pair.telling) {
    case Telling::tooFew:
        if (std::min(pair.betterTries, pair.otherTries) < 3)
            return {"{0} against {1} cannot be told yet: {2} and {3} tries; three each are the least.",
                    {better, other, tries, others}};
        return {"{0} against {1} cannot be told yet: even if all {2} tries beat all {3}, chance alone would do that "
                "once in "
                "{4}.",
                {better, other, tries, others, once(pair.test.smallest)}};
    case Telling::notYet:
        if (pair.moreEach)
            return {"No difference can be told yet between {0} and {1}: about {2} more tries each would tell {3}.",
                    {better, other, std::to_string(*pair.moreEach), withUnit(trial, pair.shift.shift)}};
        return {"{0} and {1} hardly differ ({2}): not even 50 tries each would tell it.",
                {better, other, withUnit(trial, pair.shift.shift)}};
    case Telling::told: break;
    }
    return {betterPattern(trial, pair.isShiftAtLeast),
            {better, other, withUnit(trial, pair.shift.shift), threeDigits(pair.shift.low),
             threeDigits(pair.shift.high), tries, others, once(pair.test.chance)}};
}

std::string trialValue(const Trial &trial, const TryValue &value) {
    const bool isTime =
        trial.quantity == TrialQuantity::secondsToSatellites || trial.quantity == TrialQuantity::secondsToFix;
    constexpr double kMinute_s = 60;
    std::string text = withUnit(trial, value.value);
    if (isTime && value.value >= kMinute_s) {
        const auto whole = int(std::lround(value.value));
        text = fmt::format("{}:{:02d}", whole / 60, whole % 60);
    }
    return value.reached ? text : fmt::format("not within {}", text);
}

Sentence wordRow(const Build &build, const PlannedMeasured &row) {
    std::string what(quantityInfo(row.quantity).title);
    if (!row.which.empty()) what += ", " + std::string(row.which);
    if (!row.subject.empty()) {
        const std::string kind = kitItemName(build, row.subject);
        return {"{1}: {0}", {lowerFirst(what), kind.empty() ? displayName(build, row.subject) : kind}};
    }
    const auto cases = effectiveLoadCases(build);
    const LoadCase *loadCase = byId(cases, row.loadCase);
    if (!loadCase || cases.size() < 2) return {"{0}", {what}};
    return {"{0}: {1}", {what, loadCase->name}};
}

} // namespace waxis
