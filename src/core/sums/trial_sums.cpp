// Quick sums of trials: few tries compared, and what a satellite receiver says.
#include "core/nmea/fixes.h"
#include "core/statistics/ranks.h"
#include "core/sums/read.h"

#include <algorithm>

namespace waxis::sums {

namespace {

constexpr std::size_t kMostTries = 200; // all differences of two samples are looked at

SumInput tries(const char *key, const char *title, const char *example) {
    return {key, title, "", SumInputKind::numbers, {}, example};
}

std::optional<SumError> needsTries(const SumObject &in, std::initializer_list<const char *> keys) {
    for (const char *key : keys) {
        const std::size_t count = numbers(*findKey(in, key)).size();
        if (count == 0) return SumError{key, "at least one number expected"};
        if (count > kMostTries) return SumError{key, "200 numbers at most"};
    }
    return std::nullopt;
}

std::optional<SumError> needsConfidence(const SumObject &in) {
    const double confidence = number(in, "confidence");
    if (confidence > 0 && confidence < 1) return std::nullopt;
    return SumError{"confidence", "between 0 and 1 expected, as 0.95"};
}

Sum rankTestSum() {
    Sum sum;
    sum.name = "rank-test";
    sum.title = "Few tries against few tries";
    sum.formula = "U = pairs a > b, ties half; p = share of all arrangements of the mid-ranks at least as far off";
    sum.source = "Mann and Whitney 1947; by counting up to 40 values together, beyond the normal form";
    sum.inputs = {tries("a", "tries of the new", "[214, 262, 301, 188, 355]"),
                  tries("b", "tries of the old", "[96, 118, 131, 88, 142]")};
    sum.outputs = {{"U", "U of the new", ""},
                   {"p_two_sided", "chance alone, two-sided", ""},
                   {"p_least", "the least that so many tries can show", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsTries(in, {"a", "b"})) return Failure{*error};
        const RankTest test = rankTest(numbers(*findKey(in, "a")), numbers(*findKey(in, "b")));
        return SumObject{{"U", test.u}, {"p_two_sided", test.chance}, {"p_least", test.smallest}};
    };
    return sum;
}

Sum shiftEstimateSum() {
    Sum sum;
    sum.name = "shift-estimate";
    sum.title = "By how much tries differ";
    sum.formula = "median of all a - b; from the k-th smallest to the k-th largest difference by the exact spread of U";
    sum.source = "Hodges and Lehmann 1963; Moses' interval (Hollander and Wolfe)";
    sum.inputs = {tries("a", "tries of the new", "[214, 262, 301, 188, 355]"),
                  tries("b", "tries of the old", "[96, 118, 131, 88, 142]"),
                  {"confidence", "confidence", "", SumInputKind::number, SumValue(0.95), "0.9"}};
    sum.outputs = {{"shift", "shift", ""},
                   {"low", "at least", ""},
                   {"high", "at most", ""},
                   {"coverage", "confidence that is reached", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsTries(in, {"a", "b"})) return Failure{*error};
        if (auto error = needsConfidence(in)) return Failure{*error};
        const ShiftEstimate e =
            shiftEstimate(numbers(*findKey(in, "a")), numbers(*findKey(in, "b")), number(in, "confidence"));
        return SumObject{{"shift", e.shift}, {"low", e.low}, {"high", e.high}, {"coverage", e.coverage}};
    };
    return sum;
}

Sum medianIntervalSum() {
    Sum sum;
    sum.name = "median-interval";
    sum.title = "Median with its interval";
    sum.formula = "x(k) to x(n + 1 - k) with the largest k for which 1 - 2 P(Bin(n, 1/2) < k) reaches the confidence";
    sum.source = "order statistics, binomial";
    sum.inputs = {tries("values", "values", "[214, 262, 301, 188, 355]"),
                  {"confidence", "confidence", "", SumInputKind::number, SumValue(0.95), "0.9"}};
    sum.outputs = {{"median", "median", ""},
                   {"low", "at least", ""},
                   {"high", "at most", ""},
                   {"coverage", "confidence that is reached", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsTries(in, {"values"})) return Failure{*error};
        if (auto error = needsConfidence(in)) return Failure{*error};
        const MedianInterval m = medianInterval(numbers(*findKey(in, "values")), number(in, "confidence"));
        return SumObject{{"median", m.median}, {"low", m.low}, {"high", m.high}, {"coverage", m.coverage}};
    };
    return sum;
}

void addPlace(SumObject &out, const std::optional<GeoPlace> &place) {
    if (!place) return;
    out.emplace_back("lat_deg", place->latitude_deg);
    out.emplace_back("lon_deg", place->longitude_deg);
}

void addNumber(SumObject &out, const char *key, const std::optional<double> &value) {
    if (value) out.emplace_back(key, *value);
}

/// What the sentence says; a type that is not read here says nothing.
std::optional<NmeaError> addMeaning(SumObject &out, const NmeaSentence &sentence) {
    if (sentence.type == "GGA") {
        const auto fix = ggaFrom(sentence);
        if (!fix) return fix.error();
        addPlace(out, fix->place);
        addNumber(out, "alt_msl_m", fix->altitude_m);
        addNumber(out, "geoid_sep_m", fix->geoidSeparation_m);
        if (fix->satellites) out.emplace_back("sats", double(*fix->satellites));
    } else if (sentence.type == "RMC") {
        const auto fix = rmcFrom(sentence);
        if (!fix) return fix.error();
        addPlace(out, fix->place);
        addNumber(out, "speed_ms", fix->speed_ms);
        addNumber(out, "course_deg", fix->course_deg);
    } else if (sentence.type == "GSA") {
        const auto use = gsaFrom(sentence);
        if (!use) return use.error();
        out.emplace_back("fix", double(use->fix));
        out.emplace_back("sats", double(use->satellites.size()));
        addNumber(out, "hdop", use->hdop);
    } else if (sentence.type == "GSV") {
        const auto part = gsvFrom(sentence);
        if (!part) return part.error();
        out.emplace_back("in_view", double(part->inView));
        SumList ratios;
        for (const auto &satellite : part->satellites) ratios.push_back(satellite.ratio_dBHz.value_or(0));
        out.emplace_back("ratios_dBHz", std::move(ratios));
    }
    return std::nullopt;
}

Sum nmeaSum() {
    Sum sum;
    sum.name = "nmea";
    sum.title = "A sentence of a satellite receiver";
    sum.formula = "checksum = XOR of all characters between $ and *; angles as ddmm.mmmm";
    sum.source = "NMEA 0183 (from memory)";
    sum.inputs = {{"body", "what stands between $ and *", "", SumInputKind::text, SumValue(""),
                   "GPGGA,091746.20,4721.8125,N,00832.4470,E,1,11,0.8,431.7,M,48.2,M,,"},
                  {"sentence", "or the sentence as it came", "", SumInputKind::text, SumValue(""), ""}};
    sum.outputs = {{"valid", "can be read, and its checksum is right", ""},
                   {"sentence", "sentence", ""},
                   {"checksum", "checksum", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const std::string body = std::get<std::string>(findKey(in, "body")->held);
        std::string whole = std::get<std::string>(findKey(in, "sentence")->held);
        if (body.empty() == whole.empty()) return Failure{SumError{"body", "either the body or the sentence expected"}};
        if (whole.empty()) whole = "$" + body + "*" + nmeaChecksum(body);
        const std::string between = whole.substr(1, whole.find('*') - 1);
        SumObject out{{"valid", true}, {"sentence", whole}, {"checksum", nmeaChecksum(between)}};
        const auto sentence = parseNmea(whole);
        const auto error = sentence ? addMeaning(out, *sentence) : std::optional(sentence.error());
        if (error) {
            out[0].second = SumValue(false);
            out.emplace_back("reason", error->text());
        }
        return out;
    };
    return sum;
}

} // namespace

std::vector<Sum> trialSums() { return {rankTestSum(), shiftEstimateSum(), medianIntervalSum(), nmeaSum()}; }

} // namespace waxis::sums
