#include "core/fasteners/screw.h"
#include "core/sums/read.h"

#include <cmath>
#include <fmt/format.h>
#include <limits>
#include <numeric>

namespace waxis::sums {

namespace {

/// An output that may be missing: not a number becomes null in JSON and "none" in words.
double orNone(const std::optional<double> &value) { return value.value_or(std::numeric_limits<double>::quiet_NaN()); }

SumError notNegative(const char *key) { return {key, "must not be negative"}; }

Sum throughSum() {
    Sum sum;
    sum.name = "screw-through";
    sum.title = "Screw through a stack into a nut: length and protrusion";
    sum.formula =
        "L_min = grip + washers + nut height + 1 pitch; the next stock length; protrusion = L - grip - washers - nut";
    sum.source = "common practice, no source; stock lengths of ISO 888 from memory";
    sum.inputs = {{"grip_mm", "all that is clamped, each layer", "mm", SumInputKind::numbers, {}, "[3, 2]"},
                  {"washers_mm", "washers together", "mm", SumInputKind::number, SumValue(0.0), "0.5"},
                  {"nut_mm", "nut height", "mm", SumInputKind::number, {}, "2.4"},
                  {"pitch_mm", "pitch of the thread", "mm", SumInputKind::number, {}, "0.5"}};
    sum.outputs = {{"L_min_mm", "least length", "mm"},
                   {"L_mm", "stock length; none: longer than 50 mm", "mm"},
                   {"protrusion_mm", "beyond the nut", "mm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto layers = numbers(*findKey(in, "grip_mm"));
        for (const double layer : layers)
            if (layer < 0) return Failure{notNegative("grip_mm")};
        for (const char *key : {"washers_mm", "nut_mm", "pitch_mm"})
            if (number(in, key) < 0) return Failure{notNegative(key)};
        const ThroughScrew screw = throughScrew(std::accumulate(layers.begin(), layers.end(), 0.0),
                                                number(in, "washers_mm"), number(in, "nut_mm"), number(in, "pitch_mm"));
        return SumObject{{"L_min_mm", screw.least_mm},
                         {"L_mm", orNone(screw.length_mm)},
                         {"protrusion_mm", orNone(screw.protrusion_mm)}};
    };
    return sum;
}

Sum blindSum() {
    Sum sum;
    sum.name = "screw-blind";
    sum.title = "Screw into a blind thread: long enough to hold, short enough not to bottom out";
    sum.formula = "k d <= L - grip <= usable depth; the shortest stock length that fits";
    sum.source = "common practice, no source: engagement 1.0 d in steel, 1.5 to 2.0 d in aluminium, 2.0 d in plastic";
    SumList stock;
    for (const double length : kStockLengths_mm) stock.emplace_back(length);
    sum.inputs = {
        {"grip_mm", "what is clamped", "mm", SumInputKind::number, {}, "5"},
        {"d_mm", "thread diameter", "mm", SumInputKind::number, {}, "3"},
        {"k", "engagement in diameters", "", SumInputKind::number, SumValue(1.5), "1.5"},
        {"usable_depth_mm", "depth that the screw may reach", "mm", SumInputKind::number, {}, "6"},
        {"stock_mm", "lengths to choose from", "mm", SumInputKind::numbers, SumValue(stock), "[6, 8, 10, 12]"}};
    sum.outputs = {{"L_min_mm", "least length", "mm"},
                   {"L_max_mm", "greatest length", "mm"},
                   {"L_mm", "stock length; none fits", "mm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        for (const char *key : {"grip_mm", "d_mm", "k", "usable_depth_mm"})
            if (number(in, key) < 0) return Failure{notNegative(key)};
        const auto lengths = numbers(*findKey(in, "stock_mm"));
        const BlindScrew screw = blindScrew(number(in, "grip_mm"), number(in, "d_mm"), number(in, "k"),
                                            number(in, "usable_depth_mm"), lengths);
        return SumObject{{"L_min_mm", screw.least_mm}, {"L_max_mm", screw.most_mm}, {"L_mm", orNone(screw.length_mm)}};
    };
    return sum;
}

Sum massSum() {
    Sum sum;
    sum.name = "screw-mass";
    sum.title = "Mass of a cap screw in steel, titanium, aluminium and nylon";
    sum.formula = "m = rho (A L + pi/4 dk2 k - (sqrt 3)/2 s2 t); A: mean area of the basic thread profile over a pitch";
    sum.source = "geometry; ISO 68-1, ISO 4762 greatest head, from memory; real ones are up to a tenth lighter";
    sum.inputs = {
        {"size", "thread size: M1.6, M2, M2.5, M3 or M4", "", SumInputKind::text, {}, "M3"},
        {"length_mm", "length under the head", "mm", SumInputKind::number, {}, "8"},
        {"pitch_mm", "pitch; 0: the table's", "mm", SumInputKind::number, SumValue(0.0), "0.5"},
        {"dk_mm", "head diameter; 0: the table's", "mm", SumInputKind::number, SumValue(0.0), "5.5"},
        {"k_mm", "head height; 0: the table's", "mm", SumInputKind::number, SumValue(0.0), "3"},
        {"s_mm", "socket across flats; 0: the table's", "mm", SumInputKind::number, SumValue(0.0), "2.5"},
        {"socket_depth_mm", "socket depth; 0: the table's", "mm", SumInputKind::number, SumValue(0.0), "1.3"}};
    sum.outputs = {{"steel_g", "steel, 7.85 g/cm3", "g"},
                   {"titanium_g", "titanium, 4.43 g/cm3", "g"},
                   {"aluminium_g", "aluminium, 2.81 g/cm3", "g"},
                   {"nylon_g", "nylon, 1.14 g/cm3", "g"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto &size = std::get<std::string>(findKey(in, "size")->held);
        const ThreadSize *thread = findThread(size);
        if (!thread) return Failure{SumError{"size", fmt::format("\"{}\" is not one of M1.6, M2, M2.5, M3, M4", size)}};
        auto given = [&](const char *key, double table) { return number(in, key) > 0 ? number(in, key) : table; };
        for (const char *key : {"length_mm", "pitch_mm", "dk_mm", "k_mm", "s_mm", "socket_depth_mm"})
            if (number(in, key) < 0) return Failure{notNegative(key)};
        const double volume =
            capScrewVolume_mm3(thread->nominal_mm, given("pitch_mm", thread->pitch_mm), number(in, "length_mm"),
                               given("dk_mm", thread->capHead_mm), given("k_mm", thread->nominal_mm),
                               given("s_mm", thread->capKey_mm), given("socket_depth_mm", socketDepth_mm(*thread)));
        if (!(volume > 0)) return Failure{SumError{"", "the socket is larger than the screw"}};
        auto grams = [&](double density) { return volume * density / 1000; };
        return SumObject{{"steel_g", grams(7.85)},
                         {"titanium_g", grams(4.43)},
                         {"aluminium_g", grams(2.81)},
                         {"nylon_g", grams(1.14)}};
    };
    return sum;
}

} // namespace

std::vector<Sum> screwSums() { return {throughSum(), blindSum(), massSum()}; }

} // namespace waxis::sums
