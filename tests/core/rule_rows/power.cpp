// Rows for rails, regulators and packs.
#include "core/power/power_report.h"
#include "core/rule_rows/setting.h"

namespace waxis::test {

namespace {

/// "b" feeds "a" from its 5 V output, so much of what it is good for.
void loaded(Setting &s, double typical_percent, double peak_percent) {
    Rail &rail = s.rail("b", "5V", "a");
    rail.limit_A = 2;
    rail.typical_A = 2 * typical_percent / 100;
    rail.peak_A = 2 * peak_percent / 100;
}

void supplied(Setting &s, double least_V, double most_V, std::optional<double> takesLeast_V,
              std::optional<double> takesMost_V) {
    s.type("a", [](PartType &type) { type.electrical.emplace(); });
    Rail &rail = s.rail("b", "5V", "a");
    rail.least_V = least_V;
    rail.most_V = most_V;
    rail.loads[0].least_V = takesLeast_V;
    rail.loads[0].most_V = takesMost_V;
}

void warm(Setting &s, double heat_W, std::optional<double> efficiency) {
    s.type("b", [&](PartType &type) {
        PowerOutput output;
        output.id = "5V";
        output.efficiency = efficiency;
        type.electrical.emplace();
        type.electrical->outputs = {output};
    });
    s.rail("b", "5V", "a").heat_W = heat_W;
}

void pack(Setting &s, double hover_A, double full_A) {
    Rail &rail = s.rail("b", "BAT", "a");
    rail.limit_A = 50;
    rail.typical_A = hover_A;
    rail.peak_A = full_A;
}

void plug(Setting &s, double hover_A, double full_A) { s.powerReport.passages = {{"a", hover_A, full_A, 60.0}}; }

void controller(Setting &s, double hover_A, double full_A) {
    s.type("b", [](PartType &type) {
        type.electrical.emplace();
        type.electrical->continuous_A = 30;
    });
    s.powerReport.motors = {{"m1", "a", "b", hover_A, full_A}};
}

/// "a" and "b" feed one piece of copper of that name, aboard in these load cases.
void joined(Setting &s, const char *supply, double other_V, CaseMask own, CaseMask other, int otherNet = 0) {
    const bool packs = std::string(supply) == "BAT";
    for (const char *part : {"a", "b"}) {
        const double volts = *part == 'a' ? 5 : other_V;
        s.type(part, [&](PartType &type) {
            type.electrical.emplace();
            type.electrical->outputs = {{"out", volts, 1, 0.9}};
        });
        Rail &rail = s.rail(part, packs ? "BAT" : "out", part);
        rail.nominal_V = volts;
        rail.cases = *part == 'a' ? own : other;
    }
    s.powerReport.nets.nodes = {{0, supply}, {1, packs ? supply : other_V == 5 ? "5V" : "9V"}};
    s.powerReport.nets.net = {0, otherNet};
}

} // namespace

std::vector<Row> powerRows() {
    using enum Severity;
    using enum RuleId;
    const double watched = limitOf(Limit::railWatch), stops = limitOf(Limit::railStop),
                 heat = limitOf(Limit::regulatorHeat);
    return {
        {"PWR-1 at the limit", pwrRail, [=](Setting &s) { loaded(s, 10, watched); }, pass, 0},
        {"PWR-1 watched", pwrRail, [=](Setting &s) { loaded(s, 10, watched + 0.1); }, watch, -0.1, "carries"},
        {"PWR-1 nearly over", pwrRail, [=](Setting &s) { loaded(s, 10, stops); }, watch, watched - stops, "carries"},
        {"PWR-1 over", pwrRail, [=](Setting &s) { loaded(s, 10, stops + 0.1); }, stop, -0.1, "carries"},
        {"PWR-1 a USB port bears a peak", pwrRail,
         [=](Setting &s) {
             loaded(s, 10, 2 * stops);
             s.powerReport.rails.back().output = "USB";
         },
         watch, watched - 2 * stops, "USB carries"},
        {"PWR-1 a USB port all the time", pwrRail,
         [=](Setting &s) {
             loaded(s, stops + 0.1, stops + 0.1);
             s.powerReport.rails.back().output = "USB";
         },
         stop, -0.1, "USB carries"},
        {"PWR-1 no limit stated", pwrRail, [](Setting &s) { s.rail("b", "5V", "a").peak_A = 99; }, {}},
        {"PWR-2 just enough", pwrRange, [](Setting &s) { supplied(s, 5, 5, 5, 5); }, pass, 0},
        {"PWR-2 too much", pwrRange, [](Setting &s) { supplied(s, 5, 5.1, 4, 5); }, stop, -0.1, "takes at most 5 V",
         "high"},
        {"PWR-2 sags", pwrRange, [](Setting &s) { supplied(s, 4.9, 6, 5, 9); }, watch, -0.1, "sags to", "sags"},
        {"PWR-2 never enough", pwrRange, [](Setting &s) { supplied(s, 4.8, 4.9, 5, 9); }, stop, -0.2, "wants 5 V",
         "low"},
        {"PWR-2 from its own USB socket",
         pwrRange,
         [](Setting &s) {
             supplied(s, 4.8, 4.9, 5, 9);
             Rail &rail = s.powerReport.rails.back();
             rail.part = rail.loads[0].part;
         },
         {}},
        {"PWR-2 not stated", pwrRange, [](Setting &s) { supplied(s, 5, 5, {}, {}); }, unknown, 0,
         "does not say what voltage it takes", "unstated"},
        {"PWR-3 linear, at the limit", pwrHeat, [=](Setting &s) { warm(s, heat, {}); }, pass, 0},
        {"PWR-3 linear, over it", pwrHeat, [=](Setting &s) { warm(s, heat + 0.1, {}); }, watch, -0.1, "into heat"},
        {"PWR-3 switching bears twice", pwrHeat, [=](Setting &s) { warm(s, 2 * heat, 0.9); }, pass, 0},
        {"PWR-3 switching, over it", pwrHeat, [=](Setting &s) { warm(s, 2 * heat + 0.1, 0.9); }, watch, -0.1, "loses"},
        {"PWR-6 pack bears it", pwrPack, [](Setting &s) { pack(s, 20, 50); }, pass, 0, {}, "pack"},
        {"PWR-6 pack at full thrust", pwrPack, [](Setting &s) { pack(s, 20, 51); }, watch, -1, "full thrust takes 51 A",
         "pack"},
        {"PWR-6 pack in hover", pwrPack, [](Setting &s) { pack(s, 50.1, 60); }, stop, -10, "in hover", "pack"},
        {"PWR-6 nothing drawn", pwrPack, [](Setting &s) { pack(s, 0, 99); }, {}},
        {"PWR-6 plug bears it", pwrPack, [](Setting &s) { plug(s, 20, 60); }, pass, 0, {}, "through"},
        {"PWR-6 plug at full thrust", pwrPack, [](Setting &s) { plug(s, 20, 61); }, watch, -1, "is good for 60 A",
         "through"},
        {"PWR-6 controller bears it", pwrPack, [](Setting &s) { controller(s, 5, 30); }, pass, 0, {}, "esc"},
        {"PWR-6 controller at full thrust", pwrPack, [](Setting &s) { controller(s, 5, 31); }, watch, -1, "A for",
         "esc"},
        {"PWR-6 controller in hover", pwrPack, [](Setting &s) { controller(s, 31, 40); }, stop, -10, "in hover", "esc"},
        {"PWR-4 two of the same", pwrJoined, [](Setting &s) { joined(s, "5V", 5, 1, 1); }, watch, -1,
         "a and b feed one rail", "like"},
        {"PWR-4 two that are meant", pwrJoined,
         [](Setting &s) {
             joined(s, "5V", 5, 1, 1);
             s.follow("regulators", "several");
         },
         pass, 0},
        {"PWR-4 two unlike", pwrJoined, [](Setting &s) { joined(s, "5V", 9, 1, 1); }, stop, -1, "a and b feed one rail",
         "unlike"},
        {"PWR-4 two packs", pwrJoined, [](Setting &s) { joined(s, "BAT", 5, 1, 1); }, stop, -1, "a and b feed one rail",
         "packs"},
        {"PWR-4 never together", pwrJoined, [](Setting &s) { joined(s, "BAT", 5, 1, 2); }, {}},
        {"PWR-4 not joined", pwrJoined, [](Setting &s) { joined(s, "5V", 5, 1, 1, 1); }, {}},
    };
}

} // namespace waxis::test
