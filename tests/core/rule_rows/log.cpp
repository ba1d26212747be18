// Rows for the log: entries and tries as they are kept, against values that are planned by hand.
#include "core/build/log.h"
#include "core/balance/mass_rows.h"
#include "core/log/fingerprint.h"
#include "core/rule_rows/setting.h"
#include "core/wiring/wire_report.h"

namespace waxis::test {

namespace {

Entry entry(Quantity quantity, std::vector<std::string> subjects, std::vector<double> values, double tolerance = 0) {
    static int made = 0;
    Entry one;
    one.id = "e" + std::to_string(++made);
    one.session = "s1";
    one.quantity = quantity;
    one.subjects = std::move(subjects);
    one.values = std::move(values);
    one.tolerance = tolerance;
    return one;
}

void log(Setting &s, std::vector<Entry> entries) {
    s.build.log.edit([&](Log &log) {
        Session session;
        session.id = "s1";
        session.at = "2026-05-14T10:20:00+02:00";
        log.sessions = {session};
        log.entries = std::move(entries);
    });
}

/// Part "a" is planned with 12 g, one standard deviation 0.5 g.
void planned(Setting &s) {
    MassRow row;
    row.id = "a";
    row.known = true;
    row.element.mass_g = 12;
    row.tolerance_g = 1;
    s.massRows = {row};
}

/// So many leads planned with 400 mm, each cut longer by so much.
void cut(Setting &s, int count, double longer_mm) {
    std::vector<Entry> entries;
    for (int i = 0; i < count; ++i) {
        const std::string id = s.wire("x", "y").id;
        s.wiringReport.wires.back().wire = id;
        s.wiringReport.wires.back().verdict = LeadVerdict::cut;
        s.wiringReport.wires.back().cut_mm = 400;
        entries.push_back(entry(Quantity::leadCut, {id}, {400 + longer_mm}));
    }
    log(s, entries);
}

/// Part "a" tried where it is and at `there`, so many times each; there it is quicker by far.
void tried(Setting &s, int times, const Vec3 &there) {
    Trial trial;
    trial.id = "t1";
    trial.question = "Where is it quicker?";
    trial.part = "a";
    trial.setups.resize(2);
    trial.setups[0].id = "here";
    trial.setups[0].name = "Here";
    trial.setups[1].id = "there";
    trial.setups[1].name = "There";
    trial.setups[1].stood = StoodAt{{there, Quat::Identity()}};
    for (int i = 0; i < times; ++i)
        for (const char *setup : {"here", "there"}) {
            Try one;
            one.id = std::string(setup) + std::to_string(i);
            one.setup = setup;
            one.value = (one.setup == "here" ? 200 : 100) + i;
            trial.tries.push_back(one);
        }
    s.build.log.edit([&](Log &log) { log.trials = {trial}; });
}

void soft(Setting &s, double found_mm) {
    s.build.parts[0].fastening.sag_mm = catalogueValue(1, 0.2);
    log(s, {entry(Quantity::sag, {"a"}, {found_mm})});
}

void flown(Setting &s, const std::string &fingerprint) {
    log(s, {entry(Quantity::flight, {}, {9.5}), entry(Quantity::hoverCurrent, {}, {12})});
    s.build.log.edit([&](Log &log) { log.sessions[0].fingerprint = fingerprint; });
}

} // namespace

std::vector<Row> logRows() {
    using enum Severity;
    using enum RuleId;
    const double apart = limitOf(Limit::measuredApart), chance = limitOf(Limit::trialChance) / 100;
    const auto weighed = [=](double sigmas) {
        return [=](Setting &s) {
            planned(s);
            log(s, {entry(Quantity::partWeight, {"a"}, {12 + 0.5 * sigmas})});
        };
    };
    const auto balanced = [](double x, double y) {
        return [=](Setting &s) { log(s, {entry(Quantity::craftBalance, {}, {x, y})}); };
    };
    const auto twice = [](double second) {
        return [=](Setting &s) {
            log(s, {entry(Quantity::partWeight, {"a"}, {12}, 0.2), entry(Quantity::partWeight, {"a"}, {second}, 0.2)});
        };
    };
    const auto open = [](bool blocks, const char *cure) {
        return [=](Setting &s) {
            Entry one = entry(Quantity::openEnd, {"a"}, {});
            one.text = "telemetry silent";
            one.blocks = blocks;
            one.cure = cure;
            log(s, {one});
        };
    };
    std::vector<Row> rows{
        {"LOG-1 just apart", logWeight, weighed(apart + 0.2), watch, -0.2, "a weighs 1.60 g more than planned"},
        {"LOG-1 at the doubt's edge", logWeight, weighed(apart - 0.2), pass, 0.2},
        {"LOG-1 lighter", logWeight, weighed(-apart - 1), watch, -1, "a weighs 2.00 g less than planned"},
        {"LOG-1 nothing planned",
         logWeight,
         [](Setting &s) { log(s, {entry(Quantity::partWeight, {"a"}, {12})}); },
         {}},
        {"LOG-1 set aside",
         logWeight,
         [](Setting &s) {
             planned(s);
             Entry one = entry(Quantity::partWeight, {"a"}, {20});
             one.setAside = true;
             log(s, {one});
         },
         {}},
        {"LOG-2 outside the ring", logBalance, balanced(-2.5, 0), watch, -0.5, "2.5 mm off its thrust centre"},
        {"LOG-2 within it", logBalance, balanced(1.8, 0), pass, 0.2},
        {"LOG-2 both ways count", logBalance, balanced(3, 4), watch, -3, "5.0 mm off its thrust centre"},
        {"LOG-3 six of six", logLeads, [](Setting &s) { cut(s, 6, 14); }, watch, 2.0 / 64 - chance,
         "You cut leads 14 mm longer than planned"},
        {"LOG-3 five of five may be chance", logLeads, [](Setting &s) { cut(s, 5, 14); }, pass, 2.0 / 32 - chance},
        {"LOG-3 less than a ruler shows", logLeads, [](Setting &s) { cut(s, 8, 2); }, pass, 2.0 / 256 - chance},
        {"LOG-4 two readings", logReadings, twice(12.5), note, apart - 0.5 / std::hypot(0.1, 0.1),
         "a was measured twice and reads 12.0 and 12.5 g"},
        {"LOG-4 within both doubts", logReadings, twice(12.4), {}},
        {"LOG-5 decided otherwise", logTrial,
         [](Setting &s) {
             tried(s, 5, {40, 0, 30});
         },
         watch, 3 - 50, "A trial says that a does better elsewhere"},
        {"LOG-5 it stands there", logTrial,
         [](Setting &s) {
             tried(s, 5, {1, 0, 0});
         },
         pass, 2},
        {"LOG-5 three each tell nothing",
         logTrial,
         [](Setting &s) {
             tried(s, 3, {40, 0, 30});
         },
         {}},
        {"LOG-6 another state", logState, [](Setting &s) { flown(s, "0000"); }, note, -1,
         "is not the one that is drawn"},
        {"LOG-6 the same", logState, [](Setting &s) { flown(s, fingerprintOf(s.build)); }, pass, 0},
        {"LOG-6 nobody knows", logState, [](Setting &s) { flown(s, ""); }, {}},
        {"LOG-7 softer than planned", logApart, [=](Setting &s) { soft(s, 1 + 0.1 * (apart + 0.1)); }, note, -0.1,
         "Sag of what stands soft of a: 1.31 mm measured, more than the 1.00 planned", "sag"},
        {"LOG-7 as planned", logApart, [=](Setting &s) { soft(s, 1 + 0.1 * (apart - 0.1)); }, pass, 0.1},
        {"LOG-7 flown, not measured", logApart, [](Setting &s) { log(s, {entry(Quantity::flight, {}, {9.5})}); },
         unknown, 0, "its current in hover is not measured yet"},
        {"LOG-8 still to do", logOpen, open(false, ""), note, 0, "Still to do (a): telemetry silent"},
        {"LOG-8 not to be flown", logOpen, open(true, ""), watch, -1, "telemetry silent"},
        {"LOG-8 mended", logOpen, open(true, "pin was swapped"), pass, 0},
    };
    return rows;
}

} // namespace waxis::test
