// RAD-4 to RAD-6: what senders and clocks make beside their own channel.
#include "core/findings/input.h"
#include "core/radio/best_pair.h"
#include "core/radio/radio_report.h"
#include "core/rules/radio_pairs.h"
#include "core/rules/rule.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <optional>

namespace waxis {

static std::string name(const Build &build, const std::string &id) { return nameWithin(build, id); }

/// Of channels that keep a product of two senders out of the listener's band, the nearest two of each sender.
static std::vector<Fix> otherChannels(const Build &build, const RadioReport &report, const MixProduct &mix) {
    std::vector<Fix> fixes;
    const auto &radios = report.radios;
    const RadioUse &listener = radios[std::size_t(mix.listener)];
    for (const bool first : {true, false}) {
        const RadioUse &use = radios[std::size_t(first ? mix.first : mix.second)],
                       &other = radios[std::size_t(first ? mix.second : mix.first)];
        const Part *part = findPart(build, use.part);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (!type || use.hops) continue;
        const double mine = first ? mix.p : mix.q, its = first ? mix.q : mix.p;
        std::vector<double> free_MHz;
        for (const auto &channel : type->radio[std::size_t(use.band)].channels) {
            if (std::abs(channel.centre_MHz - use.centre_MHz) < 0.01) continue;
            const double middle = std::abs(mine * channel.centre_MHz + its * (other.low_MHz + other.high_MHz) / 2);
            const double half =
                std::abs(mine) * use.bandwidth_MHz / 2 + std::abs(its) * (other.high_MHz - other.low_MHz) / 2;
            if (middle + half < listener.low_MHz || middle - half > listener.high_MHz)
                free_MHz.push_back(channel.centre_MHz);
        }
        std::stable_sort(free_MHz.begin(), free_MHz.end(), [&](double a, double b) {
            return std::abs(a - use.centre_MHz) < std::abs(b - use.centre_MHz);
        });
        for (std::size_t i = 0; i < free_MHz.size() && i < 2; ++i) {
            Fix fix;
            fix.part = use.part;
            fix.change = RadioSetting{use.part, use.band, free_MHz[i], settingOf(build, use.part, use.band).power_dBm};
            fixes.push_back(std::move(fix));
        }
    }
    return fixes;
}

static void judgeMixing(const Build &build, const Practice &practice, const Derived &derived,
                        std::vector<Finding> &out) {
    const auto &radios = derived.radio->radios;
    std::optional<Finding> faint; // of those that are too weak as assumed the strongest, and how many there are
    double faints = 0;
    for (const auto &mix : derived.radio->mixes) {
        const RadioUse &a = radios[std::size_t(mix.first)], &b = radios[std::size_t(mix.second)],
                       &listener = radios[std::size_t(mix.listener)];
        Finding f;
        f.rule = RuleId::radMixing;
        f.variant = fmt::format("{}{}{}{}{}", mix.p, a.id(), mix.q < 0 ? "-" : "+", b.id(),
                                listener.band > 0 ? fmt::format(", band {}", listener.band) : "");
        f.subjects = {a.part, b.part, listener.part};
        judgeRise(f, practice, mix.rise_dB);
        // What filters nobody states are assumed to take off is a guess: no more than watched.
        if (!mix.stated && f.severity == Severity::stop) f.severity = Severity::watch;
        // Too weak to be heard as assumed, but there: a channel that avoids it costs nothing. Hopeless ones are not.
        constexpr double kWorthAWord_dB = 20;
        if (f.severity == Severity::pass && mix.level_dBm > floorOf(listener) - kWorthAWord_dB)
            f.severity = Severity::note;
        f.inputs = {{"first sender", a.centre_MHz, "MHz"},     {"second sender", b.centre_MHz, "MHz"},
                    {"product from", mix.low_MHz, "MHz"},      {"to", mix.high_MHz, "MHz"},
                    {"arrives", mix.level_dBm, "dBm"},         {"intercept", mix.intercept_dBm, "dBm"},
                    {"filter takes off", mix.filter_dB, "dB"}, {"filters stated", mix.stated ? 1.0 : 0.0, ""},
                    {"times the first", double(mix.p), ""},    {"times the second", double(mix.q), ""}};
        if (f.severity == Severity::stop || f.severity == Severity::watch) {
            f.fixes = otherChannels(build, derived.radio, mix);
            for (const RadioUse *sender : {&a, &b})
                for (auto &fix : cureOfPair(derived, *sender, listener))
                    if (f.fixes.size() < 6) f.fixes.push_back(std::move(fix));
        }
        if (f.severity != Severity::note) {
            out.push_back(std::move(f));
            continue;
        }
        ++faints;
        if (!faint || f.margin < faint->margin) faint = std::move(f);
    }
    if (!faint) return;
    faint->inputs.push_back({"products as weak", faints, ""});
    out.push_back(std::move(*faint));
}

static FindingText wordMixing(const Build &build, const Finding &f) {
    const bool third = inputOf(f, "times the first") == 2;
    const std::string first = (third ? "2 × " : "") + megahertz(inputOf(f, "first sender"));
    const std::vector<std::string> words{displayName(build, f.subjects[0]),
                                         name(build, f.subjects[1]),
                                         name(build, f.subjects[2]),
                                         first,
                                         megahertz(inputOf(f, "second sender")),
                                         inputOf(f, "times the second") < 0 ? "−" : "+",
                                         megahertz(inputOf(f, "product from")),
                                         megahertz(inputOf(f, "to")),
                                         oneDecimal(*f.measured),
                                         wholeNumber(maybeInput(f, "products as weak").value_or(1) - 1)};
    const Sentence detail{
        f.severity == Severity::note && maybeInput(f, "products as weak").value_or(1) > 1
            ? "{3} {5} {4} MHz can land at {6} to {7} MHz; weak as assumed. Another channel avoids it. Fainter ones "
              "beside it: {9}."
        : f.severity == Severity::note
            ? "{3} {5} {4} MHz can land at {6} to {7} MHz; weak as assumed. Another channel avoids it."
        : inputOf(f, "filters stated") > 0
            ? "{3} {5} {4} MHz lands at {6} to {7} MHz and raises the noise by {8} dB. Choose another channel, or set "
              "the two farther apart."
            : "{3} {5} {4} MHz lands at {6} to {7} MHz and raises the noise by some {8} dB; what the filters of the "
              "two "
              "take off is assumed. Choose another channel, or set the two farther apart.",
        words};
    return {{f.severity == Severity::note ? "{0} and {1} may mix onto {2}" : "{0} and {1} mix onto {2}", words},
            detail};
}

static void judgeHarmonics(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    const auto &radios = derived.radio->radios;
    for (const auto &h : derived.radio->harmonics) {
        const RadioUse &sender = radios[std::size_t(h.sender)], &listener = radios[std::size_t(h.listener)];
        Finding f;
        f.rule = RuleId::radHarmonic;
        f.variant = fmt::format("{} of {}{}", h.order, sender.id(),
                                listener.band > 0 ? fmt::format(", band {}", listener.band) : "");
        f.subjects = {sender.part, listener.part};
        judgeRise(f, practice, h.rise_dB);
        if (f.severity == Severity::pass) f.severity = Severity::note;
        f.inputs = {{"order", double(h.order), ""},
                    {"from", h.low_MHz, "MHz"},
                    {"to", h.high_MHz, "MHz"},
                    {"suppressed by", sender.suppression_dB, "dB"},
                    {"arrives", h.level_dBm, "dBm"}};
        if (f.severity != Severity::note) f.fixes = cureOfPair(derived, sender, listener);
        out.push_back(std::move(f));
    }
}

static FindingText wordHarmonics(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]), name(build, f.subjects[1]),
                                         wholeNumber(inputOf(f, "order")),  megahertz(inputOf(f, "from")),
                                         megahertz(inputOf(f, "to")),       oneDecimal(*f.measured)};
    return {
        {"Harmonic {2} of {0} falls on {1}", words},
        {"At {3} to {4} MHz; it raises the noise by {5} dB. Another channel, more distance or a filter helps.", words}};
}

static void judgeClocks(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &hit : derived.radio->clocks) {
        const RadioUse &listener = derived.radio->radios[std::size_t(hit.listener)];
        Finding f;
        f.rule = RuleId::radClock;
        f.variant = fmt::format("{}{}", hit.clock, listener.band > 0 ? fmt::format(", band {}", listener.band) : "");
        f.subjects = {hit.part, listener.part};
        f.measured = hit.distance_mm;
        f.limit = practice[Limit::digitalGnssGap];
        f.practiceLimit = Limit::digitalGnssGap;
        f.unit = "mm";
        f.margin = *f.measured - *f.limit;
        f.severity = f.margin < 0 ? Severity::note : Severity::pass;
        f.inputs = {{"multiple", double(hit.order), ""}, {"lands at", hit.frequency_MHz, "MHz"}};
        out.push_back(std::move(f));
    }
}

static FindingText wordClocks(const Build &build, const Finding &f) {
    const std::vector<std::string> words{
        displayName(build, f.subjects[0]), name(build, f.subjects[1]), wholeNumber(inputOf(f, "multiple")),
        megahertz(inputOf(f, "lands at")), wholeNumber(*f.measured),   wholeNumber(*f.limit)};
    return {{"A clock of {0} has a multiple in the band of {1}", words},
            {"{2} times the clock is {3} MHz, {4} mm from the antenna. How strong it is nobody states: keep {5} mm, "
             "shield it.",
             words}};
}

std::span<const Rule> radioProductsRules() {
    static const std::array<Rule, 3> rules{{
        {RuleId::radMixing,
         "Two senders mix",
         "Two strong senders make sums and differences in each other's output stage, and some fall on GPS.",
         "interval arithmetic; intercept points of order p + q; filters and intercepts as stated, else common "
         "practice, "
         "no source",
         Stage::radio,
         {Limit::mixIntercept, Limit::mixFilter, Limit::desenseWatch, Limit::desenseStop},
         needs(Need::radio, Need::survey),
         judgeMixing,
         wordMixing},
        {RuleId::radHarmonic,
         "Harmonics",
         "A sender is also heard at two, three, up to seven times its frequency.",
         "interval arithmetic; suppression as stated, else common practice, no source",
         Stage::radio,
         {Limit::desenseWatch, Limit::desenseStop},
         needs(Need::radio, Need::survey),
         judgeHarmonics,
         wordHarmonics},
        {RuleId::radClock,
         "Clocks",
         "Camera and converter clocks have hundreds of multiples, and a receiver beside them hears the one in its "
         "band.",
         kTrade,
         Stage::radio,
         {Limit::digitalGnssGap},
         needs(Need::radio),
         judgeClocks,
         wordClocks},
    }};
    return rules;
}

} // namespace waxis
