// Conversion factors: international yard and pound agreement of 1959 (inch 25.4 mm, pound 453.59237 g); American wire
// gauge by ASTM B258 (d = 0.127 mm x 92^((36 - n) / 39)).
#include "core/base/quantity.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <numbers>
#include <span>

namespace waxis {

namespace {

struct Unit {
    std::string_view name;
    double factor; ///< to the measure's own unit; 0: a law of its own
};

struct MeasureWords {
    std::string_view unit, what, wanted;
    std::span<const Unit> units;
};

constexpr double kInch = 25.4, kOunce = 28.349523125, kPound = 453.59237, kNewton = 101.97162129779283;

constexpr std::array kLength{Unit{"mm", 1},     Unit{"cm", 10},         Unit{"m", 1000},
                             Unit{"in", kInch}, Unit{"inch", kInch},    Unit{"\"", kInch},
                             Unit{"″", kInch},  Unit{"ft", 12 * kInch}, Unit{"mil", kInch / 1000},
                             Unit{"um", 0.001}, Unit{"µm", 0.001},      Unit{"μm", 0.001}};
constexpr std::array kMass{Unit{"g", 1},       Unit{"mg", 0.001},  Unit{"kg", 1000},
                           Unit{"oz", kOunce}, Unit{"lb", kPound}, Unit{"lbs", kPound}};
constexpr std::array kAngle{Unit{"°", 1}, Unit{"deg", 1}, Unit{"degrees", 1}, Unit{"rad", 180 / std::numbers::pi}};
constexpr std::array kCurrent{Unit{"A", 1}, Unit{"mA", 0.001}};
constexpr std::array kVoltage{Unit{"V", 1}, Unit{"mV", 0.001}};
constexpr std::array kLevel{Unit{"dBm", 1}, Unit{"mW", 0}, Unit{"W", 0}};
constexpr std::array kPower{Unit{"mW", 1}, Unit{"W", 1000}, Unit{"dBm", 0}};
constexpr std::array kFrequency{Unit{"MHz", 1}, Unit{"GHz", 1000}, Unit{"kHz", 0.001}, Unit{"Hz", 1e-6}};
constexpr std::array kDistance{Unit{"m", 1}, Unit{"mm", 0.001}, Unit{"cm", 0.01}, Unit{"km", 1000},
                               Unit{"ft", 12 * kInch / 1000}};
constexpr std::array kGauge{Unit{"AWG", 1}, Unit{"mm2", 0}, Unit{"mm²", 0}};
constexpr std::array kMinutes{Unit{"min", 1}, Unit{"s", 1.0 / 60}, Unit{"h", 60}};
constexpr std::array kSeconds{Unit{"s", 1}, Unit{"ms", 0.001}, Unit{"min", 60}, Unit{"h", 3600}};
constexpr std::array kPercent{Unit{"%", 1}};
constexpr std::array kThrust{Unit{"g", 1}, Unit{"gf", 1}, Unit{"N", kNewton}, Unit{"kg", 1000}, Unit{"kgf", 1000}};
constexpr std::array kCapacity{Unit{"mAh", 1}, Unit{"Ah", 1000}};
constexpr std::array kDecibel{Unit{"dB", 1}, Unit{"dBi", 1}};
constexpr std::array kHeat{Unit{"°C", 1}, Unit{"C", 1}, Unit{"degC", 1}, Unit{"°", 1}, Unit{"F", 0}, Unit{"°F", 0}};
constexpr std::array kField{Unit{"uT", 1},     Unit{"µT", 1},    Unit{"μT", 1},
                            Unit{"nT", 0.001}, Unit{"mT", 1000}, Unit{"G", 100}};

MeasureWords wordsOf(Measure measure) {
    switch (measure) {
    case Measure::number: return {"", "number", "a number is wanted", {}};
    case Measure::length: return {"mm", "length", "millimetres are wanted, or cm, m, in, mil", kLength};
    case Measure::mass: return {"g", "weight", "grams are wanted, or mg, kg, oz, lb", kMass};
    case Measure::angle: return {"°", "angle", "degrees are wanted, or rad", kAngle};
    case Measure::current: return {"A", "current", "amperes are wanted, or mA", kCurrent};
    case Measure::voltage: return {"V", "voltage", "volts are wanted, or mV", kVoltage};
    case Measure::level: return {"dBm", "power", "dBm are wanted, or mW, W", kLevel};
    case Measure::power: return {"mW", "power", "milliwatts are wanted, or W, dBm", kPower};
    case Measure::frequency: return {"MHz", "frequency", "MHz are wanted, or kHz, GHz", kFrequency};
    case Measure::distance: return {"m", "distance", "metres are wanted, or cm, km, ft", kDistance};
    case Measure::gauge: return {"AWG", "wire gauge", "an AWG number is wanted, or mm2", kGauge};
    case Measure::minutes: return {"min", "time", "minutes are wanted, or s, h", kMinutes};
    case Measure::seconds: return {"s", "time", "seconds are wanted, or ms, min", kSeconds};
    case Measure::percent: return {"%", "share", "per cent are wanted", kPercent};
    case Measure::thrust: return {"g", "thrust", "grams of thrust are wanted, or N, kg", kThrust};
    case Measure::capacity: return {"mAh", "capacity", "mAh are wanted, or Ah", kCapacity};
    case Measure::decibel: return {"dB", "ratio", "dB are wanted", kDecibel};
    case Measure::heat: return {"°C", "temperature", "degrees Celsius are wanted, or F", kHeat};
    case Measure::field: return {"µT", "field", "microtesla are wanted, or nT, mT, G", kField};
    }
    return {};
}

void replaceAll(std::string &text, std::string_view what, std::string_view by) {
    for (std::size_t at = text.find(what); at != std::string::npos; at = text.find(what, at + by.size()))
        text.replace(at, what.size(), by);
}

std::string trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(" \t\n");
    if (first == std::string_view::npos) return {};
    return std::string(text.substr(first, text.find_last_not_of(" \t\n") - first + 1));
}

bool sameWord(std::string_view typed, std::string_view unit) {
    return typed.size() == unit.size() && std::equal(typed.begin(), typed.end(), unit.begin(), [](char a, char b) {
               return std::tolower(static_cast<unsigned char>(a)) == std::tolower(static_cast<unsigned char>(b));
           });
}

/// As written first, so that mW is not MW; then whatever the case, so that "MM" and "Mhz" pass.
const Unit *unitNamed(std::span<const Unit> units, std::string_view typed) {
    for (const auto &unit : units)
        if (unit.name == typed) return &unit;
    for (const auto &unit : units)
        if (sameWord(typed, unit.name)) return &unit;
    return nullptr;
}

std::optional<double> byLaw(double value, std::string_view unit, Measure measure) {
    if (measure == Measure::level) { // power to level
        const double mW = unit == "W" ? value * 1000 : value;
        return mW > 0 ? std::optional(10 * std::log10(mW)) : std::nullopt;
    }
    if (measure == Measure::power) return std::pow(10, value / 10);
    if (measure == Measure::heat) return (value - 32) / 1.8; // Fahrenheit
    if (measure == Measure::gauge) {                         // area of copper to the nearest gauge
        if (!(value > 0)) return std::nullopt;
        const double diameter = std::sqrt(4 * value / std::numbers::pi);
        return std::round(36 - 39 * std::log(diameter / 0.127) / std::log(92.0));
    }
    return std::nullopt;
}

/// "2:10" or "1:02:10", seconds with their decimals.
std::optional<double> clockTime_s(std::string_view typed) {
    if (typed.find(':') == std::string_view::npos) return std::nullopt;
    double total = 0;
    for (int pieces = 0; pieces < 3; ++pieces) {
        const auto colon = typed.find(':');
        const std::string_view piece = typed.substr(0, colon);
        double value = 0;
        const auto [rest, error] = std::from_chars(piece.data(), piece.data() + piece.size(), value);
        const bool isFirst = pieces == 0;
        if (error != std::errc() || rest != piece.data() + piece.size() || !(value >= 0) || (!isFirst && value >= 60))
            return std::nullopt;
        total = total * 60 + value;
        if (colon == std::string_view::npos) return isFirst ? std::nullopt : std::optional(total);
        typed.remove_prefix(colon + 1);
    }
    return std::nullopt;
}

} // namespace

std::string_view unitOf(Measure measure) { return wordsOf(measure).unit; }

std::optional<double> readQuantity(std::string_view text, Measure measure) {
    std::string typed = trimmed(text);
    replaceAll(typed, "−", "-");
    replaceAll(typed, ",", ".");
    replaceAll(typed, "\u00a0", " ");
    replaceAll(typed, "\u202f", " ");
    if (typed.starts_with('+')) typed.erase(0, 1);
    if (const auto clock = clockTime_s(typed); clock && measure == Measure::minutes) return *clock / 60;
    if (const auto clock = clockTime_s(typed); clock && measure == Measure::seconds) return *clock;
    double value = 0;
    const char *const end = typed.data() + typed.size();
    const auto [rest, error] = std::from_chars(typed.data(), end, value);
    if (error != std::errc() || !std::isfinite(value)) return std::nullopt;
    const std::string unit = trimmed(std::string_view(rest, std::size_t(end - rest)));
    if (unit.empty()) return value;
    const Unit *known = unitNamed(wordsOf(measure).units, unit);
    if (!known) return std::nullopt;
    const auto result = known->factor != 0 ? std::optional(value * known->factor) : byLaw(value, known->name, measure);
    return result && std::isfinite(*result) ? result : std::nullopt;
}

std::string wrongQuantity(std::string_view text, Measure measure) {
    const MeasureWords words = wordsOf(measure);
    return "\"" + std::string(text) + "\" is no " + std::string(words.what) + ": " + std::string(words.wanted) + ".";
}

} // namespace waxis
