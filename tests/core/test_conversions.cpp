// Flights one after the other while a craft grows, changes between load cases, and what comes off before it is built
// otherwise.
#include "core/edits/assembly_edits.h"
#include "core/instructions/step_words.h"
#include "core/sequence/checks.h"
#include "core/sequence/flights.h"
#include "support/puzzles.h"

#include <QTest>

using namespace waxis;
using namespace waxis::test;

namespace {

LoadCase flight(const std::string &id, std::vector<std::string> aboard) {
    LoadCase loadCase;
    loadCase.id = loadCase.name = id;
    loadCase.aboard = std::move(aboard);
    return loadCase;
}

} // namespace

class TestConversions : public QObject {
    Q_OBJECT

private slots:
    void theBareCraftFliesBeforeItsPayload() {
        Build build = onABase();
        addBoardOn(build, "gimbal", {0, 0, 4}, "base", {});
        addBoardOn(build, "camera", {30, 0, 4}, "base", {});
        build.parts[1].optional = build.parts[2].optional = true;
        build.loadCases = {flight("all", {"gimbal", "camera"}), flight("bare", {}), flight("gimbalOnly", {"gimbal"})};
        const Planned planned(build);
        const std::vector<std::string> wanted{
            "check:end", "check:flight.bare", "fit:gimbal", "check:flight.gimbalOnly", "fit:camera", "check:flight"};
        QVERIFY(isInThisOrder(planned, wanted));
        QVERIFY(planned.step("fit:camera").hasFlown && !planned.step("check:end").hasFlown);
        QVERIFY(wordCaution(build, planned.step("fit:camera")).text().find("propellers off") != std::string::npos);
        QCOMPARE(wordStep(build, planned.step("check:flight.bare")).text(),
                 std::string("Weigh, balance and hover: bare"));
    }
    void payloadThatHasToGoInEarlierIsTakenOffForTheBareFlight() {
        // The lid covers the camera's joint: no flight without it on the way.
        Build build = onABase();
        const auto pads = portAt("pads", {0, 0, 2}, Vec3::UnitZ(), {"5V", "GND"});
        addBoardOn(build, "camera", {0, 0, 4}, "base", {pads}, FasteningMethod::screws);
        addBoardOn(build, "fc", {30, 0, 4}, "base", {pads}, FasteningMethod::screws);
        addShape(build, "lid", {wall({80, 80, 2}, {0, 0, 1})}, {0, 0, 30}, {"base"});
        build.parts[1].optional = true;
        build.wires = {wireBetween("w", {"camera", "pads"}, {"fc", "pads"}, {{"5V", "5V"}, {"GND", "GND"}})};
        build.loadCases = {flight("all", {"camera"}), flight("bare", {})};
        const Planned planned(build);
        QVERIFY(isInThisOrder(planned, {"fit:camera", "solder:camera.pads", "fit:lid", "check:end", "check:flight",
                                        "change:bare", "check:flight.bare"}));
        QCOMPARE(planned.step("change:bare").off, std::vector<std::string>{"camera"});
        // With the lid gone it is fitted when the bare craft has flown; its wire lies ready.
        build.parts.pop_back();
        const Planned open(build);
        QVERIFY(isInThisOrder(open, {"solder:fc.pads", "check:end", "check:flight.bare", "fit:camera",
                                     "solder:camera.pads", "check:flight"}));
    }
    void whatFliesWithSomethingElseIsAChange() {
        Build build = onABase();
        addBoardOn(build, "small", {0, 0, 4}, "base", {});
        addBoardOn(build, "large", {30, 0, 4}, "base", {});
        addBoardOn(build, "extra", {-30, 0, 4}, "base", {});
        for (std::size_t i = 1; i < 4; ++i) build.parts[i].optional = true;
        build.loadCases = {flight("far", {"large", "extra"}), flight("near", {"small"})};
        const Planned planned(build);
        QCOMPARE(planned.plan.loadCase, std::string("far"));
        QVERIFY(planned.at("check:flight") < planned.at("change:near"));
        QCOMPARE(planned.at("check:flight.near"), planned.at("change:near") + 1);
        const Step &change = planned.step("change:near");
        QCOMPARE(change.things, std::vector<std::string>{"small"});
        QCOMPARE(change.off, (std::vector<std::string>{"large", "extra"}));
        QCOMPARE(wordStep(build, change).text(), std::string("For near: large and extra off, small on"));
        // Carried or on the bench nothing is flown.
        build.loadCases[1].kind = LoadCaseKind::carried;
        QCOMPARE(Planned(build).at("change:near"), -1);
    }
    void flightsAreToldOnce() {
        Build build = onABase();
        addBoardOn(build, "camera", {0, 0, 4}, "base", {});
        build.parts[1].optional = true;
        std::vector<LoadCase> cases{flight("a", {"camera"}), flight("b", {"camera"}), flight("c", {}), flight("d", {})};
        const Flights flights = flightsOf(build, cases, 0);
        QCOMPARE(flights.onTheWay, (std::vector<int>{2, 0}));
        QVERIFY(flights.changed.empty());
        cases[0].kind = LoadCaseKind::bench;
        QCOMPARE(flightsOf(build, cases, 0).onTheWay, (std::vector<int>{2, 1}));
    }
    void whatWasBuiltOtherwiseComesOffFirst() {
        Build build = onABase();
        const auto pads = portAt("pads", {0, 0, 2}, Vec3::UnitZ(), {"5V", "GND"});
        addBoardOn(build, "receiver", {0, 0, 4}, "base", {pads}, FasteningMethod::screws);
        addBoardOn(build, "other", {30, 0, 4}, "base", {pads}, FasteningMethod::screws);
        addShape(build, "lid", {wall({80, 80, 2}, {0, 0, 1})}, {0, 0, 30}, {"base"});
        build.wires = {wireBetween("w", {"receiver", "pads"}, {"other", "pads"}, {{"5V", "5V"}, {"GND", "GND"}})};
        std::vector<StepTick> done;
        for (const auto &step : Planned(build).plan.steps)
            for (const auto &does : step.does)
                if (step.kind != OperationKind::check)
                    done.push_back({does.step, "2026-11-30T20:00:00", does.contents});
        build = *tickSteps(build, done);
        for (const auto &step : Planned(build).plan.steps) QVERIFY(step.kind != OperationKind::takeDown);
        // Another receiver: it comes off, its joint first.
        Build other = build;
        addBox(other, "spare", {20, 20, 2}, {0, 0, 90}, 4);
        other.types.edit([&](TypeTable &types) { typeIn(types, "spare").ports = {pads}; });
        other.parts[1].type = "spare-type";
        other.parts.pop_back();
        const Planned converted(other);
        QCOMPARE(converted.at("off:fit:receiver"), 0);
        QCOMPARE(converted.step("off:fit:receiver").off,
                 (std::vector<std::string>{"solder:receiver.pads", "fit:receiver"})); // undone first
        QCOMPARE(wordStep(other, converted.step("off:fit:receiver")).text(),
                 std::string("Take down first: the joints at receiver and receiver"));
        QVERIFY(wordCaution(other, converted.step("off:fit:receiver")).text().find("Wick") != std::string::npos);
        // With that done its step is open again, and nothing is left to take down.
        const Planned after(*untickSteps(other, converted.step("off:fit:receiver").off));
        for (const auto &step : after.plan.steps) QVERIFY(step.kind != OperationKind::takeDown);
        QCOMPARE(stateOf(after.build, after.step("fit:receiver")), StepState::open);
        // A part and its wire that are gone.
        Build less = build;
        less.wires.clear();
        less.parts.erase(less.parts.begin() + 1);
        const Planned gone(less);
        const std::string words = wordStep(less, gone.plan.steps[0]).text();
        QVERIFY2(words.find("receiver") != std::string::npos && words.find("the joints at other") != std::string::npos,
                 words.c_str());
        // An older version did not say what apart from how: it is only looked at again.
        for (auto &tick : other.stepsDone) tick.contents = tick.contents.substr(0, 16);
        for (const auto &step : Planned(other).plan.steps) QVERIFY(step.kind != OperationKind::takeDown);
        // Only how it goes in is another: nothing comes off.
        Build moved = build;
        moved.parts[1].fastening.onto = {"base", "other"};
        for (const auto &step : Planned(moved).plan.steps) QVERIFY(step.kind != OperationKind::takeDown);
    }
    void payloadIsTriedBeforeItFlies() {
        Build build = onABase();
        addBoardOn(build, "gps", {0, 0, 4}, "base", {});
        build.types.edit([](TypeTable &types) { typeIn(types, "gps").kind = PartKind::gps; });
        build.parts[1].optional = true;
        build.loadCases = {flight("all", {"gps"}), flight("bare", {})};
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        for (const auto &check : checksOf(build, analysis.practice, analysis.derived, 0))
            if (check.id == "satellites:gps") {
                QCOMPARE(check.gate, Gate::flight);
                QCOMPARE(check.loadCase, std::string("all"));
            }
        build.loadCases.pop_back();
        Analyser fresh;
        const Analysis &alone = fresh.update(build);
        for (const auto &check : checksOf(build, alone.practice, alone.derived, 0))
            if (check.id == "satellites:gps") QCOMPARE(check.gate, Gate::end);
    }
};

QTEST_APPLESS_MAIN(TestConversions)
#include "test_conversions.moc"
