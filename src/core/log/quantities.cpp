#include "core/log/quantities.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

constexpr double kMostMass_g = 100000, kMostLength_mm = 100000, kMostCurrent_A = 2000, kMostVoltage_V = 200;

constexpr std::array kMass{ValueKind{"", Measure::mass, 0, kMostMass_g}};
constexpr std::array kLength{ValueKind{"", Measure::length, 0, kMostLength_mm}};
constexpr std::array kOffset{ValueKind{"forward", Measure::length, -1000, 1000},
                             ValueKind{"left", Measure::length, -1000, 1000}};
constexpr std::array kSize{ValueKind{"", Measure::length, 0, kMostLength_mm},
                           ValueKind{"", Measure::length, 0, kMostLength_mm},
                           ValueKind{"", Measure::length, 0, kMostLength_mm}};
constexpr std::array kCurrent{ValueKind{"", Measure::current, 0, kMostCurrent_A}};
constexpr std::array kVoltage{ValueKind{"", Measure::voltage, 0, kMostVoltage_V}};
constexpr std::array kShare{ValueKind{"", Measure::percent, 0, 100}};
constexpr std::array kFlight{ValueKind{"", Measure::minutes, 0, 1000},
                             ValueKind{"put back", Measure::capacity, 0, 1000000}};
constexpr std::array kTemperature{ValueKind{"", Measure::heat, -60, 400},
                                  ValueKind{"after", Measure::minutes, 0, 1000}};
constexpr std::array kSatellites{ValueKind{"", Measure::number, 0, 200},
                                 ValueKind{"after", Measure::seconds, 0, 86400}};
constexpr std::array kLifted{ValueKind{"", Measure::angle, -360, 360}};
constexpr std::array kTurned{
    ValueKind{"north", Measure::angle, -360, 360}, ValueKind{"east", Measure::angle, -360, 360},
    ValueKind{"south", Measure::angle, -360, 360}, ValueKind{"west", Measure::angle, -360, 360}};
constexpr std::array kRange{ValueKind{"", Measure::distance, 0, 1000000},
                            ValueKind{"signal", Measure::level, -200, 60}};
constexpr std::array kField{ValueKind{"", Measure::field, 0, 100}};
constexpr std::array kStrength{ValueKind{"", Measure::number, 0, 3}};
constexpr std::array kPieces{ValueKind{"", Measure::number, 0, 100000}};

using enum EntrySubject;

constexpr std::array kBook{
    QuantityInfo{Quantity::partWeight, "weight", "Part weighed", "weight gps 12.4 g", part, 1, kMass, 0.2, 0.0},
    QuantityInfo{Quantity::craftWeight, "craft", "Craft weighed", "craft 1.18 kg", none, 1, kMass, 1, 0.0},
    QuantityInfo{Quantity::craftBalance, "balance", "Craft balanced", "balance -3 mm 1 mm", none, 1, kOffset, 2, 0.0},
    QuantityInfo{Quantity::size, "size", "Size measured", "size gps 25 x 25 x 8 mm", part, 1, kSize, 0.2, 0.0},
    QuantityInfo{Quantity::leadCut, "cut", "Lead cut to", "cut gps-lead 412 mm", wire, 1, kLength, 2, 0.0},
    QuantityInfo{Quantity::leadTrimmed, "trimmed", "Lead trimmed by", "trimmed gps-lead 30 mm", wire, 1, kLength, 2,
                 0.0},
    QuantityInfo{Quantity::leadShort, "short", "Lead was short by", "short gps-lead 8 mm", wire, 1, kLength, 2, 0.0},
    QuantityInfo{Quantity::idleCurrent, "idle", "Idle current", "idle 350 mA", none, 1, kCurrent, 0.02, 0.05},
    QuantityInfo{Quantity::hoverCurrent, "hover", "Hover current", "hover 12.5 A", none, 1, kCurrent, 0.2, 0.06},
    QuantityInfo{Quantity::hoverThrottle, "throttle", "Hover throttle", "throttle 31 %", none, 1, kShare, 2, 0.0},
    QuantityInfo{Quantity::restVoltage, "rest", "Voltage at rest", "rest 16.6 V", none, 1, kVoltage, 0.05, 0.0},
    QuantityInfo{Quantity::hoverVoltage, "load", "Voltage in hover", "load 15.4 V", none, 1, kVoltage, 0.1, 0.0},
    QuantityInfo{Quantity::flight, "flight", "Flight", "flight 9:40 1850 mAh", none, 1, kFlight, 0.1, 0.0},
    QuantityInfo{Quantity::temperature, "temperature", "Temperature", "temperature vtx 71 C 3 min", part, 1,
                 kTemperature, 3, 0.0},
    QuantityInfo{Quantity::satellites, "satellites", "Satellites in use", "satellites 11 2:10", none, 1, kSatellites, 1,
                 0.0},
    QuantityInfo{Quantity::headingLifted, "lifted", "Heading walks, nose lifted", "lifted 6 deg", none, 1, kLifted, 2,
                 0.0},
    QuantityInfo{Quantity::headingTurned, "turned", "Heading off in four quarters", "turned 2 -4 1 5", none, 4, kTurned,
                 2, 0.0},
    QuantityInfo{Quantity::rangeWalk, "range", "Range walk", "range 140 m -92 dBm", none, 1, kRange, 5, 0.05},
    QuantityInfo{Quantity::sag, "sag", "Sag of what stands soft", "sag gps 0.6 mm", part, 1, kLength, 0.2, 0.0},
    QuantityInfo{Quantity::fieldOfPlace, "field", "Earth's field, horizontal", "field 19.4 uT", none, 1, kField, 0.5,
                 0.0},
    QuantityInfo{Quantity::seen, "seen", "Seen", "seen jello 2 above half throttle", something, 0, kStrength, 0, 0.0},
    QuantityInfo{Quantity::fault, "fault", "Fault", "fault vtx no picture after a bump", something, 0, {}, 0, 0.0},
    QuantityInfo{Quantity::setting,
                 "setting",
                 "Entered in the controller",
                 "setting motor-order reversed",
                 something,
                 0,
                 {},
                 0,
                 0.0},
    QuantityInfo{
        Quantity::motorReversed, "reversed", "Motor reversed", "reversed m2 wires A and C", part, 0, {}, 0, 0.0},
    QuantityInfo{Quantity::takenOut, "out", "Taken out", "out rx to dry", part, 0, kMass, 0.2, 0.0},
    QuantityInfo{Quantity::putIn, "in", "Put in", "in rx after drying", part, 0, kMass, 0.2, 0.0},
    QuantityInfo{Quantity::spareUsed, "spare", "Spare used", "spare prop-a 2", part, 0, kPieces, 0, 0.0},
    QuantityInfo{Quantity::damage, "damage", "Damage", "damage arm-fl cracked at the root", something, 0, {}, 0, 0.0},
    QuantityInfo{Quantity::openEnd, "open", "Still to do", "open telemetry stays silent", something, 0, {}, 0, 0.0}};

constexpr std::array kSeen{SeenWord{"jello", "waves in the picture"},
                           SeenWord{"lines", "lines in the picture"},
                           SeenWord{"dropout", "picture or control lost for a moment"},
                           SeenWord{"reset", "something started anew"},
                           SeenWord{"wobble", "slow oscillation"},
                           SeenWord{"twitch", "quick twitches"},
                           SeenWord{"drift", "does not hold its place"},
                           SeenWord{"circling", "circles round its place"},
                           SeenWord{"yaw", "turns by itself"},
                           SeenWord{"hot", "hot to the finger"},
                           SeenWord{"noise", "a noise"},
                           SeenWord{"smell", "smell or smoke"}};

/// Digits as a bench writes them: three that matter, none behind whole ones.
std::string inDigits(double value) {
    const double size = std::abs(value);
    const int places = size >= 1000 || size == 0 ? 0 : size >= 100 ? 1 : size >= 10 ? 2 : 3;
    std::string text = fmt::format("{:.{}f}", value, places);
    if (text.find('.') != std::string::npos) {
        while (text.back() == '0') text.pop_back();
        if (text.back() == '.') text.pop_back();
    }
    return text == "-0" ? "0" : text;
}

} // namespace

std::span<const QuantityInfo> quantityBook() { return kBook; }

const QuantityInfo &quantityInfo(Quantity quantity) {
    return *std::find_if(kBook.begin(), kBook.end(), [&](const auto &info) { return info.quantity == quantity; });
}

std::span<const SeenWord> seenWords() { return kSeen; }

double doubtOf(const Entry &entry) {
    if (entry.tolerance) return *entry.tolerance;
    const QuantityInfo &info = quantityInfo(entry.quantity);
    return std::max(info.doubt, entry.values.empty() ? 0 : info.doubtShare * std::abs(entry.values.front()));
}

std::string valuesInWords(const Entry &entry) {
    const QuantityInfo &info = quantityInfo(entry.quantity);
    std::string words;
    const bool isSize = entry.quantity == Quantity::size;
    for (std::size_t i = 0; i < entry.values.size() && i < info.values.size(); ++i) {
        const ValueKind &kind = info.values[i];
        if (i > 0) words += isSize ? " x " : ", ";
        if (!kind.name.empty() && kind.name != "put back") words += std::string(kind.name) + " ";
        words += inDigits(entry.values[i]);
        const std::string_view unit = unitOf(kind.measure);
        if (!unit.empty() && !(isSize && i + 1 < entry.values.size()))
            words += (unit == "%" || unit == "°" ? "" : " ") + std::string(unit);
        if (kind.name == "put back") words += " put back";
    }
    return words;
}

} // namespace waxis
