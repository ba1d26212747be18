// Checks with expected values: against sums done by hand.
#include "core/analysis/analysis.h"
#include "core/balance/case_balance.h"
#include "core/edits/assembly_edits.h"
#include "core/instructions/check_words.h"
#include "core/instructions/settings.h"
#include "core/sequence/checks.h"
#include "support/builds.h"
#include "support/wires.h"

using namespace waxis;
using namespace waxis::test;

namespace {

const Check *find(const std::vector<Check> &checks, const std::string &id) {
    for (const auto &check : checks)
        if (check.id == id) return &check;
    return nullptr;
}

const Check *findRail(const std::vector<Check> &checks) {
    for (const auto &check : checks)
        if (check.kind == CheckKind::regulator) return &check;
    return nullptr;
}

/// A pack, its plug, a regulator of 5 V with a lamp on it, a capacitor.
Build powered(double lamp_A = 0.4, double capacitor_uF = 1000) {
    Build build = bareQuad();
    addBoard(build, "pack", {0, 0, 60}, {portAt("lead", {5, 0, 0}, Vec3::UnitX(), {"BAT", "GND"}, PortKind::plug)},
             PartKind::battery, pack(4, 1500, 60));
    addBoard(build, "plug", {30, 0, 60},
             {portAt("pack", {-5, 0, 0}, -Vec3::UnitX(), {"BAT", "GND"}, PortKind::plug),
              portAt("craft", {5, 0, 0}, Vec3::UnitX(), {"BAT", "GND"})},
             PartKind::powerPlug);
    addBoard(build, "reg", {0, 30, 10},
             {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), {"BAT", "GND"}),
              portAt("out", {5, 0, 0}, Vec3::UnitX(), {"5V", "GND"})},
             PartKind::regulator, regulator(5, 3, {}));
    addBoard(build, "lamp", {40, 30, 10}, {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND"})}, PartKind::lamp,
             takes(4.5, 5.5, lamp_A, lamp_A));
    Electrical capacitor;
    capacitor.capacitance_uF = capacitor_uF;
    capacitor.rated_V = 35;
    addBoard(build, "cap", {0, -30, 10}, {portAt("leads", {5, 0, 0}, Vec3::UnitX(), {"+", "-"})}, PartKind::capacitor,
             capacitor);
    build.wires = {wireBetween("w-pack", {"pack", "lead"}, {"plug", "pack"}, {{"BAT", "BAT"}, {"GND", "GND"}}),
                   wireBetween("w-reg", {"plug", "craft"}, {"reg", "in"}, {{"BAT", "BAT"}, {"GND", "GND"}}),
                   wireBetween("w-lamp", {"reg", "out"}, {"lamp", "in"}, {{"5V", "5V"}, {"GND", "GND"}}),
                   wireBetween("w-cap", {"cap", "leads"}, {"plug", "craft"}, {{"+", "BAT"}, {"-", "GND"}})};
    return build;
}

struct Checked {
    Build build;
    Analyser analyser;
    std::vector<Check> checks;
    explicit Checked(Build of) : build(std::move(of)) {
        const Analysis &analysis = analyser.update(build);
        checks = checksOf(build, analysis.practice, analysis.derived, 0);
    }
};

} // namespace

class TestChecks : public QObject {
    Q_OBJECT

private slots:
    void theCapacitorChirpsForRTimesC() {
        // 50 ohm x 1000 uF = 0.05 s; two of them 0.1 s.
        const Checked one(powered());
        QVERIFY(std::abs(find(one.checks, "short")->numbers.at(0) - 0.05) < 1e-12);
        const Checked other(powered(0.4, 470));
        QVERIFY(std::abs(find(other.checks, "short")->numbers.at(0) - 0.0235) < 1e-12);
    }
    void idleIsWhatThePartsStateAndALinearRegulatorPassesItOn() {
        // A linear regulator draws from the pack what it gives: 0.4 A. Half of it to half as much again and 0.1 A.
        const Checked c(powered());
        const Check *idle = find(c.checks, "idle");
        QVERIFY(idle);
        QVERIFY(std::abs(idle->numbers.at(0) - 0.4) < 1e-6);
        QVERIFY(std::abs(*idle->low - 0.2) < 1e-6);
        QVERIFY(std::abs(*idle->high - 0.7) < 1e-6);
        QCOMPARE(QString::fromUtf8(idle->unit.data()), QString("A"));
        // Switching: P = 5 V x 0.4 A = 2 W at 80 % from 14.8 V: 0.169 A.
        Build switching = powered();
        switching.types.edit([](TypeTable &types) { typeIn(types, "reg").electrical = regulator(5, 3, 0.8); });
        const Checked s(switching);
        QVERIFY(std::abs(find(s.checks, "idle")->numbers.at(0) - 2 / 0.8 / 14.8) < 5e-3);
    }
    void theLimiterLetsHalfAsMuchAgainPass() {
        // Of 0.5, 1, 2, 3, 5, 10 A the smallest of 1.5 x the current.
        QCOMPARE(limiter_A({0.0, 0.0, true}), 0.5);
        QCOMPARE(limiter_A({0.33, 0.4, true}), 0.5);
        QCOMPARE(limiter_A({0.34, 0.4, true}), 1.0);
        QCOMPARE(limiter_A({2.0, 2.0, true}), 3.0);
        QCOMPARE(limiter_A({9.0, 9.0, true}), 10.0); // no larger one is usual
        const Checked c(powered(0.4));
        QCOMPARE(find(c.checks, "limiter")->numbers.at(0), 1.0);
    }
    void railsAreMeasuredBeforeTheirLoads() {
        const Checked c(powered());
        const Check *rail = findRail(c.checks);
        QVERIFY(rail && rail->gate == Gate::train);
        QVERIFY(std::abs(*rail->low - 4.75) < 1e-9 && std::abs(*rail->high - 5.25) < 1e-9);
    }
    void verdictsAreByWhatIsExpected() {
        const Checked c(powered());
        const Check &rail = *findRail(c.checks);
        const auto verdict = [&](const char *found, std::optional<bool> good = {}) {
            const CheckResult result{rail.id, found, good, ""};
            return verdictOf(rail, &result);
        };
        QCOMPARE(verdictOf(rail, nullptr), CheckVerdict::open);
        QCOMPARE(verdict("5.02"), CheckVerdict::good);
        QCOMPARE(verdict("5.02 V"), CheckVerdict::good);
        QCOMPARE(verdict("5,02"), CheckVerdict::good);
        QCOMPARE(verdict("4.75"), CheckVerdict::good);
        QCOMPARE(verdict("4.74"), CheckVerdict::bad);
        QCOMPARE(verdict("5.26"), CheckVerdict::bad);
        QCOMPARE(verdict("about five"), CheckVerdict::unread);
        QCOMPARE(verdict("nan"), CheckVerdict::unread);
        QCOMPARE(verdict("9", true), CheckVerdict::good); // the builder says so
        QCOMPARE(verdict("", false), CheckVerdict::bad);
        const Check &carbon = *find(c.checks, "carbon");
        const CheckResult typed{carbon.id, "none found", {}, ""};
        QCOMPARE(verdictOf(carbon, &typed), CheckVerdict::open); // neither yes nor no
    }
    void resultsAreKeptOnePerCheck() {
        Build build = powered();
        build = *recordCheck(build, "idle", "0.41", {}, "2026-11-30T20:00:00");
        build = *recordCheck(build, "idle", "0.42", {}, "2026-11-30T20:01:00");
        QCOMPARE(build.checkResults.size(), std::size_t(1));
        QCOMPARE(build.checkResults[0].found, std::string("0.42"));
        build = *recordCheck(build, "idle", " ", {}, "");
        QVERIFY(build.checkResults.empty());
        QVERIFY(!recordCheck(build, "", "1", {}, ""));
    }
    void everyDemoHasTheGatesThatItNeeds() {
        for (const char *demo : {"stakewalker", "owlbox-mini", "sedge-tri", "kilnlamp"}) {
            const Checked c(loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + demo + ".waxis")->build);
            for (const char *id : {"bridges", "polarity", "short", "carbon", "limiter", "idle", "tones"})
                QVERIFY2(find(c.checks, id), id);
            const auto count = [&](CheckKind kind) {
                return std::count_if(c.checks.begin(), c.checks.end(), [&](const Check &x) { return x.kind == kind; });
            };
            QCOMPARE(std::size_t(count(CheckKind::motor)), c.build.frame->motorMounts.size());
            QVERIFY(count(CheckKind::bound) == 1 && count(CheckKind::level) == 1 && count(CheckKind::weight) >= 1);
            for (const auto &check : c.checks) {
                const CheckText text = wordCheck(c.build, check);
                for (const auto &sentence : {text.title.text(), text.how.text(), text.expected.text()})
                    QVERIFY2(!sentence.empty() && sentence.find('{') == std::string::npos, sentence.c_str());
                QVERIFY(!check.low || !check.high || *check.low <= *check.high);
            }
        }
    }
    void theScaleIsExpectedToReadThePlan() {
        const Checked c(stakewalker());
        const auto &balance = (*c.analyser.current().derived.balance)[0];
        const Check *weight = find(c.checks, "weight:" + balance.loadCase.id);
        QVERIFY(weight);
        QVERIFY(std::abs((*weight->low + *weight->high) / 2 - balance.mass.mass_g) < 1e-6);
    }
    void theSkyThatIsOpenIsToldToo() {
        // A GPS alone sees all of it; under a wide plate 2 mm above its antenna next to nothing.
        Build build = bareQuad(500);
        addBoard(build, "gps", {0, 0, 10}, {}, PartKind::gps);
        const auto open = [](const Build &of) { return find(Checked(of).checks, "satellites:gps")->numbers.front(); };
        QVERIFY(open(build) > 0.99);
        Build covered = build;
        addBox(covered, "roof", {200, 200, 3}, {0, 0, 18}, 20);
        covered.types.edit([](TypeTable &types) { typeIn(types, "roof").solids[0].material = "carbon"; });
        QVERIFY(open(covered) < 0.1);
        const std::string how = wordCheck(build, *find(Checked(build).checks, "satellites:gps")).how.text();
        QVERIFY2(how.find("100 % of the sky open") != std::string::npos, how.c_str());
    }
    void theControllerIsToldBeforePropellersAreOn() {
        const Checked c(stakewalker());
        const Check *settings = find(c.checks, "settings");
        QVERIFY(settings && settings->gate == Gate::end && !settings->low);
        QVERIFY(!find(Checked(powered()).checks, "settings")); // no controller
    }
    void settingsNameEveryPortMotorAndSender() {
        Analyser analyser;
        const Build build = stakewalker();
        const Analysis &analysis = analyser.update(build);
        std::map<std::string, int> rows;
        for (const auto &row : settingsToEnter(build, analysis.derived, 0)) {
            ++rows[row.topic.text()];
            QVERIFY2(row.value.text().find('{') == std::string::npos, row.value.text().c_str());
            QVERIFY(!row.what.text().empty() && !row.value.text().empty());
        }
        QCOMPARE(rows["Motors"], 4);
        QCOMPARE(rows["Board"], 2); // both conventions
        QCOMPARE(rows["Compass"], 2);
        QVERIFY(rows["Serial ports"] >= 2 && rows["Alarms"] >= 2 && rows["Radio"] >= 4);
    }
};

QTEST_APPLESS_MAIN(TestChecks)
#include "test_checks.moc"
