// What hands do and in which order: joints, tools, heat, gates, own steps; the order kept, minimal and good to work by.
#include "core/analysis/analysis.h"
#include "core/edits/assembly_edits.h"
#include "core/instructions/step_words.h"
#include "core/sequence/operations.h"
#include "core/sequence/order_keeper.h"
#include "core/sequence/plan.h"
#include "core/sequence/service_depth.h"
#include "core/sequence/sweep_memory.h"
#include "support/puzzles.h"

#include <QElapsedTimer>
#include <random>

using namespace waxis;
using namespace waxis::test;

class TestOperations : public QObject {
    Q_OBJECT

private slots:
    void edgesThatFollowFromOthersAreNone() {
        OrderKeeper keeper(4);
        auto add = [&](std::size_t a, std::size_t b) { return keeper.add({a, b, BeforeReason::rests, "", ""}); };
        QVERIFY(add(0, 1) && add(1, 2) && add(0, 2) && add(2, 3) && add(0, 3));
        QVERIFY(!add(3, 0)); // a circle
        QVERIFY(!add(2, 2));
        QCOMPARE(keeper.edges().size(), std::size_t(3));
        keeper.drop(1, 2);
        QCOMPARE(keeper.edges().size(), std::size_t(3)); // now 0 before 2 says something
        QVERIFY(keeper.isBefore(0, 3) && !keeper.isBefore(1, 3));
    }
    void ofOnePairThePlainestReasonStays() {
        OrderKeeper keeper(2);
        QVERIFY(keeper.add({0, 1, BeforeReason::process, "", ""}));
        QVERIFY(keeper.add({0, 1, BeforeReason::rests, "", ""}));
        QVERIFY(keeper.add({0, 1, BeforeReason::heat, "", ""}));
        QCOMPARE(keeper.edges()[0].reason, BeforeReason::rests);
    }
    void aShelfOverAScrewComesAfterItsDriver() {
        // The shelf stands beside the screw's way out and in its driver's: 1.5 mm from the axis' own head.
        Build build = onABase();
        addScrew(build, "screw", {0, 0, 4}, {"base"});
        addShape(build, "shelf", {wall({20, 20, 2}, {12.4, 0, 40}), wall({4, 20, 40}, {20, 0, 20})}, {0, 0, 4},
                 {"base"});
        const Planned planned(build);
        QVERIFY(planned.at("fit:screw") < planned.at("fit:shelf"));
        const auto why = wordWhyHere(build, planned.plan, std::size_t(planned.at("fit:screw")));
        QVERIFY(!why.empty());
        QCOMPARE(why[0].text(), std::string("before shelf, where driver, iron or fingers go"));
        QVERIFY(planned.remarks(RemarkKind::undriven).empty());
    }
    void aWallBesideTheHeadLeavesNoRoomForADriver() {
        Build build = bareQuad(500);
        addShape(build, "base", {wall({80, 80, 4}, {0, 0, 2}), wall({4, 80, 60}, {4.4, 0, 34})}, {0, 0, 0});
        addScrew(build, "screw", {0, 0, 4}, {"base"});
        const Planned close(build);
        QVERIFY(close.remarks(RemarkKind::undriven).empty()); // what it holds itself is left out
        addShape(build, "wall", {wall({4, 80, 60}, {0, 0, 30})}, {-4.6, 0, 4}, {"base"});
        addShape(build, "floor", {wall({80, 80, 1}, {0, 0, 0})}, {0, 0, 0}, {"wall"});
        build.parts[1].fastening.onto = {"base", "wall"}; // goes through both: the wall is there before it
        const Planned held(build);
        QVERIFY(held.remarks(RemarkKind::undriven).empty());
        // Something else that has to be there before: what stands on the wall's side and carries the screw.
        build.parts[1].fastening.onto = {"base", "post"};
        addShape(build, "post", {wall({6, 6, 2}, {0, 0, 0})}, {0, 0, 1}, {"wall"});
        const Planned undriven(build);
        const auto remarks = undriven.remarks(RemarkKind::undriven);
        QCOMPARE(remarks.size(), std::size_t(1));
        QCOMPARE(remarks[0].subjects, (std::vector<std::string>{"screw", "wall"}));
    }
    void boltsComeBeforeTheBellyPlate() {
        // Head down, under the base; a plate below shuts their way and their driver's.
        Build build = onABase();
        addShape(build, "bolt", {wall({2, 2, 8}, {0, 0, 4}), wall({3.8, 3.8, 2}, {0, 0, -1})}, {0, 0, 0}, {"base"});
        build.types.edit([](TypeTable &types) {
            typeIn(types, "bolt").kind = PartKind::fastener;
            typeIn(types, "bolt").fastener = FastenerData{FastenerForm::screw, "M2", 8, HeadStyle::cap};
        });
        addShape(build, "belly", {wall({80, 80, 2}, {0, 0, -1})}, {0, 0, -20}, {"base"});
        const Planned planned(build);
        QVERIFY(planned.at("fit:bolt") < planned.at("fit:belly"));
        QCOMPARE(planned.step("fit:bolt").side, -1);
        bool taped = false;
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        for (const auto &line : wordTakes(build, analysis.derived, planned.step("fit:bolt")))
            taped |= line.text().starts_with("Tape over the heads");
        QVERIFY(taped);
        build.parts.back().fastening.onto = {"bolt"}; // held by the bolt's own end: still after it
        QVERIFY(Planned(build).at("fit:bolt") < Planned(build).at("fit:belly"));
    }
    void aRingOfThingsThatHoldEachOtherIsOpened() {
        // Each is fastened onto the next: "onto" only says what may touch.
        Build build = bareQuad(500);
        addShape(build, "base", {wall({200, 200, 4}, {0, 0, 2})}, {0, 0, 0});
        addShape(build, "a", {wall({40, 6, 6}, {0, 0, 3})}, {0, 0, 10}, {"b", "base"});
        addShape(build, "b", {wall({40, 6, 6}, {0, 0, 3})}, {0, 20, 10}, {"c", "base"});
        addShape(build, "c", {wall({40, 6, 6}, {0, 0, 3})}, {0, 40, 10}, {"a", "base"});
        const Planned planned(build);
        // The one that would close the ring rests on what else it touches.
        QCOMPARE(planned.step("fit:c").onto, std::vector<std::string>{"base"});
        QVERIFY(planned.at("fit:c") < planned.at("fit:b") && planned.at("fit:b") < planned.at("fit:a"));
        QVERIFY(planned.remarks(RemarkKind::stuck).empty());
    }
    void whatIsUnderAnotherBoardIsPluggedBefore() {
        Build build = onABase();
        addBoardOn(build, "low", {0, 0, 4}, "base", {portAt("up", {0, 0, 2}, Vec3::UnitZ(), {"TX"}, PortKind::socket)});
        addBoardOn(build, "far", {30, 0, 4}, "base",
                   {portAt("x", {10, 0, 1}, Vec3::UnitX(), {"RX"}, PortKind::socket)});
        addShape(build, "high", {wall({20, 20, 2}, {0, 0, 1})}, {0, 0, 10}, {"low"});
        build.wires = {wireBetween("w", {"low", "up"}, {"far", "x"}, {{"TX", "RX"}})};
        const Planned planned(build);
        QVERIFY(planned.at("fit:low") < planned.at("plug:w.low.up"));
        QVERIFY(planned.at("plug:w.low.up") < planned.at("fit:high"));
        QVERIFY(!planned.step("plug:w.low.up").inHand);
        build.parts.pop_back(); // the twin without the upper board: nothing has to come after
        QVERIFY(Planned(build).at("plug:w.low.up") >= 0);
    }
    void whatFacesDownIsPluggedInTheHand() {
        // Upside down over the base: its connector lies between the two.
        Build build = onABase();
        addBoardOn(build, "far", {30, 0, 4}, "base",
                   {portAt("x", {10, 0, 1}, Vec3::UnitX(), {"RX"}, PortKind::socket)});
        addBoardOn(build, "inverted", {0, 0, 8}, "base",
                   {portAt("down", {0, 0, 0}, -Vec3::UnitZ(), {}, PortKind::coax)});
        build.wires = {wireBetween("lead", {"inverted", "down"}, {"far", "x"}, {})};
        const Planned planned(build);
        QVERIFY(planned.step("snap:lead.inverted.down").inHand);
        QVERIFY(planned.at("snap:lead.inverted.down") < planned.at("fit:inverted"));
        QCOMPARE(planned.remarks(RemarkKind::covered).size(), std::size_t(1));
        findPart(build, "far");
        build.parts.back().placement.pose.position_mm.z() = 60; // with room under it: on the bench
        QVERIFY(!Planned(build).step("snap:lead.inverted.down").inHand);
    }
    void ironGoesBeforeThePlateAndBeforeTheTape() {
        Build build = onABase();
        const auto pads = portAt("pads", {0, 0, 2}, Vec3::UnitZ(), {"5V", "GND"});
        addBoardOn(build, "board", {0, 0, 4}, "base", {pads});
        addBoardOn(build, "lamp", {60, 60, 4}, "base", {pads});
        addBoardOn(build, "taped", {22, 0, 4}, "base", {}, FasteningMethod::tape);
        addBoardOn(build, "far", {-30, 0, 4}, "base", {}, FasteningMethod::tape); // its edge is 20 mm away
        addShape(build, "roof", {wall({80, 80, 2}, {0, 0, 1})}, {0, 0, 30}, {"base"});
        build.wires = {wireBetween("w", {"board", "pads"}, {"lamp", "pads"}, {{"5V", "5V"}, {"GND", "GND"}})};
        const Planned planned(build);
        const int joint = planned.at("solder:board.pads");
        QVERIFY(planned.at("fit:board") < joint && joint < planned.at("fit:roof"));
        QVERIFY(joint < planned.at("fit:taped"));
        QVERIFY(joint < planned.at("fit:far"));
        QVERIFY(planned.remarks(RemarkKind::heat).empty());
        bool heat = false;
        for (const auto &line : wordWhyHere(build, planned.plan, std::size_t(joint)))
            heat |= line.text().find("which heat harms") != std::string::npos;
        QVERIFY(heat);
        build.parts[4].placement.pose.position_mm.x() = -41; // 31 mm: free to come first
        const Planned apart(build);
        bool tied = false;
        for (const auto &before : apart.plan.reasons)
            tied |= before.reason == BeforeReason::heat && before.other == "far";
        QVERIFY(!tied);
        // The board itself stands on what is taped: heat has no choice, and it is said.
        build.parts[1].fastening.onto = {"taped"};
        build.parts[1].placement.pose.position_mm = {22, 0, 6};
        const auto remarks = Planned(build).remarks(RemarkKind::heat);
        QCOMPARE(remarks.size(), std::size_t(1));
        QCOMPARE(remarks[0].subjects, (std::vector<std::string>{"board", "taped"}));
    }
    void whatIsStuckDownIsSolderedInTheHand() {
        Build build = onABase();
        const auto pads = portAt("pads", {0, 0, 2}, Vec3::UnitZ(), {"5V", "GND"});
        addBoardOn(build, "receiver", {0, 0, 4}, "base", {pads}, FasteningMethod::tape);
        addBoardOn(build, "other", {30, 30, 4}, "base", {pads}, FasteningMethod::screws);
        build.wires = {wireBetween("w", {"receiver", "pads"}, {"other", "pads"}, {{"5V", "5V"}, {"GND", "GND"}})};
        const Planned planned(build);
        QVERIFY(planned.step("solder:receiver.pads").inHand);
        QVERIFY(planned.at("solder:receiver.pads") < planned.at("fit:receiver"));
        QVERIFY(!planned.step("solder:other.pads").inHand);
    }
    void powerTrainFirstThenTheRestThenPropellers() {
        for (const char *demo : {"stakewalker", "owlbox-mini", "sedge-tri", "kilnlamp"}) {
            const Planned planned(loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + demo + ".waxis")->build);
            const int train = planned.at("check:train"), end = planned.at("check:end"),
                      flight = planned.at("check:flight");
            QVERIFY2(0 < train && train < end && end < flight, demo);
            // The last that is made as it is built; after it only what other load cases want changed.
            for (std::size_t i = std::size_t(flight) + 1; i < planned.plan.steps.size(); ++i)
                QVERIFY2(planned.plan.steps[i].kind == OperationKind::change ||
                             planned.plan.steps[i].gate == Gate::flight,
                         demo);
            // The controller is powered alone before the receiver hangs on it.
            const int rails = planned.at("check:rails.fc"), receiver = planned.at("solder:fc.uart1");
            if (demo == std::string("stakewalker") || demo == std::string("owlbox-mini"))
                QVERIFY2(train < rails && rails < receiver && receiver < end, demo);
            for (const auto &part : planned.build.parts) {
                const PartType *type = typeOf(planned.build, part);
                const int at = planned.at("fit:" + part.id);
                if (type->kind == PartKind::propeller && at >= 0) QVERIFY2(at > end, part.id.c_str());
            }
            // Every edge holds, and no step is in two places.
            for (const auto &before : planned.plan.reasons) QVERIFY2(before.first < before.second, demo);
            std::set<std::string> ids;
            for (const auto &step : planned.plan.steps)
                for (const auto &does : step.does) QVERIFY2(ids.insert(does.step).second, does.step.c_str());
            QVERIFY2(planned.plan.turns <= 6, demo);
            qInfo("%s: %d steps, %.0f min, turned over %d times", demo, int(planned.plan.steps.size()),
                  planned.plan.minutes, planned.plan.turns);
        }
    }
    void aTickIsGoodForWhatWasDone() {
        Build build = onABase();
        addBoardOn(build, "board", {0, 0, 4}, "base", {});
        Planned planned(build);
        const auto ticked = [&](const Build &now) {
            const Planned again(now);
            return stateOf(now, again.step("fit:board"));
        };
        QCOMPARE(ticked(build), StepState::open);
        std::vector<StepTick> ticks = planned.step("fit:board").does;
        for (auto &tick : ticks) tick.at = "2026-11-30T20:00:00";
        Build done = *tickSteps(build, ticks);
        QCOMPARE(ticked(done), StepState::done);
        Build moved = done; // a place elsewhere is no other step
        findPart(moved, "board");
        moved.parts[1].placement.pose.position_mm.x() += 5;
        QCOMPARE(ticked(moved), StepState::done);
        Build other = done; // another part is
        addBox(other, "spare", {20, 20, 2}, {0, 0, 90}, 4);
        other.parts[1].type = "spare-type";
        QCOMPARE(ticked(other), StepState::again);
        QCOMPARE(ticked(*untickSteps(done, {"fit:board"})), StepState::open);
        QVERIFY(!untickSteps(build, {"fit:board"}));
        QVERIFY(!tickSteps(build, {{"", "", ""}}));
    }
    void anOrderAgainstAReasonWantsANote() {
        Build build = onABase();
        addBoardOn(build, "a", {-20, 0, 4}, "base", {});
        addBoardOn(build, "b", {20, 0, 4}, "base", {});
        addShape(build, "lid", {wall({80, 80, 2}, {0, 0, 1})}, {0, 0, 20}, {"base"});
        const Planned plain(build);
        const std::string first = plain.at("fit:a") < plain.at("fit:b") ? "a" : "b", second = first == "a" ? "b" : "a";
        // No reason speaks against it.
        const Planned turned(*wantOrder(build, {{"fit:" + second, "fit:" + first, ""}}));
        QVERIFY(turned.at("fit:" + second) < turned.at("fit:" + first));
        QVERIFY(turned.remarks(RemarkKind::byHand).empty());
        const auto wanted = wordWhyHere(build, turned.plan, std::size_t(turned.at("fit:" + second)));
        QVERIFY(std::any_of(wanted.begin(), wanted.end(), [&](const Sentence &line) {
            return line.text() == "before " + first + ", as you want it";
        }));
        QVERIFY(wordWhyNotBefore(build, plain.plan, std::size_t(plain.at("fit:" + second)),
                                 std::size_t(plain.at("fit:" + first)))
                    .pattern.empty());
        // The lid before what it covers: refused, and with a note done and said.
        const auto why =
            wordWhyNotBefore(build, plain.plan, std::size_t(plain.at("fit:lid")), std::size_t(plain.at("fit:a")));
        QCOMPARE(why.text(), std::string("lid would stand in the way of a"));
        const Planned refused(*wantOrder(build, {{"fit:lid", "fit:a", ""}}));
        QVERIFY(refused.at("fit:a") < refused.at("fit:lid"));
        const Planned forced(*wantOrder(build, {{"fit:lid", "fit:a", "it slides in from the side"}}));
        QVERIFY(forced.at("fit:lid") < forced.at("fit:a"));
        QCOMPARE(forced.remarks(RemarkKind::byHand).size(), std::size_t(1));
        QVERIFY(!wantOrder(build, {{"fit:a", "fit:a", ""}}));
        QVERIFY(!dropOwnOrder(build));
        QVERIFY(bool(dropOwnOrder(forced.build)));
    }
    void ownStepsStandWhereTheyAreWanted() {
        Build build = onABase();
        addBoardOn(build, "board", {0, 0, 4}, "base", {});
        build = *addOwnStep(build, "Engrave the board", "fit:board");
        const Planned planned(build);
        QCOMPARE(planned.at("own"), planned.at("fit:board") + 1);
        QCOMPARE(wordStep(build, planned.step("own")).text(), std::string("Engrave the board"));
        QVERIFY(!addOwnStep(build, "  ", ""));
        build = *changeOwnStep(build, "own", "Engrave it");
        QCOMPARE(build.ownSteps[0].text, std::string("Engrave it"));
        build = *removeOwnStep(build, "own");
        QVERIFY(build.ownSteps.empty() && !removeOwnStep(build, "own"));
    }
    /// Every edge but those of what rests on what says something that the others do not: without it the two could be
    /// done the other way round.
    void edgesOfTheDemosAreMinimal() {
        for (const char *demo : {"stakewalker", "owlbox-mini", "sedge-tri", "kilnlamp"}) {
            const Build build = loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + demo + ".waxis")->build;
            Analyser analyser;
            const Analysis &analysis = analyser.update(build);
            BlockingGraph graph(build, analysis.derived.scene, analysis.practice, 0);
            const PutTogether together = putTogether(graph);
            const OperationGraph all = operationsOf(build, analysis.practice, analysis.derived, graph, together, 0);
            int said = 0;
            for (const auto &edge : all.order) {
                if (edge.reason == BeforeReason::rests) continue;
                OrderKeeper without(all.operations.size());
                for (const auto &other : all.order)
                    if (&other != &edge) QVERIFY(without.add(other));
                QVERIFY2(!without.isBefore(edge.first, edge.second), all.operations[edge.first].id.c_str());
                ++said;
            }
            QVERIFY2(said > 50, demo);
        }
    }
    void anEditElsewhereLeavesTheOrder() {
        const Planned before(stakewalker());
        Build build = before.build;
        const auto at =
            std::find_if(build.parts.begin(), build.parts.end(), [](const Part &p) { return p.id == "gps"; });
        at->placement.pose.position_mm.x() += 1;
        const Planned after(build);
        std::vector<std::string> a, b;
        for (const auto &step : before.plan.steps) a.push_back(step.id);
        for (const auto &step : after.plan.steps) b.push_back(step.id);
        QCOMPARE(a, b);
    }
    void aMoveSweepsOnlyWhatHasToDoWithIt() {
        Build build = stakewalker();
        Analyser analyser;
        SweepMemory memory;
        const auto planned = [&](SweepMemory *with) {
            const Analysis &analysis = analyser.update(build);
            return planAssembly(build, analysis.practice, analysis.derived, 0, with);
        };
        planned(&memory);
        const std::size_t all = memory.asked();
        planned(&memory);
        QCOMPARE(memory.asked(), all); // nothing changed
        for (const char *part : {"gps", "buzzer", "pack", "fc"}) {
            const std::size_t before = memory.asked();
            for (auto &moved : build.parts)
                if (moved.id == part) moved.placement.pose.position_mm.x() += 0.7;
            const AssemblyPlan with = planned(&memory), without = planned(nullptr);
            QVERIFY2(memory.asked() - before < all / 4, part);
            QCOMPARE(with.steps.size(), without.steps.size());
            for (std::size_t i = 0; i < with.steps.size(); ++i) {
                QCOMPARE(with.steps[i].id, without.steps[i].id);
                QVERIFY(with.steps[i].does == without.steps[i].does);
            }
            QCOMPARE(with.reasons.size(), without.reasons.size());
        }
    }
    void whatComesOffForAPart() {
        Build build = onABase();
        addBoardOn(build, "board", {0, 0, 4}, "base",
                   {portAt("p", {10, 0, 1}, Vec3::UnitX(), {"TX"}, PortKind::socket)});
        addShape(build, "lid", {wall({80, 80, 2}, {0, 0, 1})}, {0, 0, 20}, {"base"});
        addBoardOn(build, "rider", {0, 0, 22}, "lid",
                   {portAt("p", {10, 0, 1}, Vec3::UnitX(), {"RX"}, PortKind::socket)});
        build.wires = {wireBetween("w", {"board", "p"}, {"rider", "p"}, {{"TX", "RX"}})};
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        const auto way = serviceOf(build, analysis.practice, analysis.derived, 0, "board");
        QVERIFY(way.has_value());
        // Out sideways, under the lid: nothing has to come off.
        QCOMPARE(way->off.size(), std::size_t(1));
        QCOMPARE(way->depth, 0);
        QCOMPARE(way->off[0].undo.size(), std::size_t(1));
        // Walls round it: the lid first, with what rides on it.
        build.types.edit([](TypeTable &types) {
            auto &solids = typeIn(types, "base").solids;
            for (const double side : {-1.0, 1.0}) {
                solids.push_back(wall({2, 80, 16}, {side * 39, 0, 12}));
                solids.push_back(wall({80, 2, 16}, {0, side * 39, 12}));
            }
        });
        Analyser fresh;
        const Analysis &walled = fresh.update(build);
        const auto deep = serviceOf(build, walled.practice, walled.derived, 0, "board");
        QVERIFY(deep.has_value());
        QCOMPARE(deep->depth, 1);
        QCOMPARE(deep->off.front().things, (std::vector<std::string>{"lid", "rider"}));
        QCOMPARE(deep->off.front().undo.size(), std::size_t(1)); // the lead between the two
        QVERIFY(deep->off.back().undo.empty());                  // it hangs on one of them already
        QCOMPARE(deep->off.back().things.front(), std::string("board"));
        QVERIFY(!serviceOf(build, walled.practice, walled.derived, 0, "nobody"));
    }
    void everyPartOfTheDemosComesOffPastNothing() {
        for (const char *demo : {"stakewalker", "owlbox-mini"}) {
            const Build build = loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + demo + ".waxis")->build;
            Analyser analyser;
            const Analysis &analysis = analyser.update(build);
            BlockingGraph graph(build, analysis.derived.scene, analysis.practice, 0);
            int ways = 0;
            for (const auto &part : build.parts) {
                if (graph.find(part.id) < 0) continue;
                const auto way = serviceOf(build, graph, part.id);
                if (!way) continue;
                ++ways;
                std::set<int> gone;
                for (const auto &off : way->off) {
                    QVERIFY2(!off.things.empty(), part.id.c_str());
                    std::set<int> group;
                    for (const auto &id : off.things) group.insert(graph.find(id));
                    for (const int member : group)
                        for (const int other : graph.inTheWay(member, off.way))
                            QVERIFY2(gone.contains(other) || group.contains(other), part.id.c_str());
                    gone.insert(group.begin(), group.end());
                }
                QVERIFY2(gone.contains(graph.find(part.id)), part.id.c_str());
            }
            QVERIFY2(ways > 20, demo);
        }
    }
    /// Boxes that stand clear of each other and rest on lower ones can always be put in, from above if from nowhere
    /// else: none may be stuck. Put in one by one along its way each meets nothing that is there; taken out the other
    /// way round each meets nothing of what is left.
    void randomCraftsGoTogetherAndComeApart() {
        std::mt19937 random(20261130);
        auto number = [&](double low, double high) {
            return std::uniform_real_distribution<double>(low, high)(random);
        };
        std::size_t pairs = 0, asked = 0;
        for (int round = 0; round < 200; ++round) {
            Build build = onABase();
            std::vector<Aabb> boxes{{Vec3(-40, -40, 0), Vec3(40, 40, 4)}};
            std::vector<std::string> ids{"base"};
            while (boxes.size() < 13) {
                const Vec3 size(number(4, 30), number(4, 30), number(2, 12));
                const Vec3 at(number(-30, 30), number(-30, 30), number(4, 50));
                const Aabb box{at - Vec3(size.x() / 2, size.y() / 2, 0),
                               at + Vec3(size.x() / 2, size.y() / 2, size.z())};
                constexpr double kApart_mm = 0.2;
                if (std::any_of(boxes.begin(), boxes.end(),
                                [&](const Aabb &other) { return boxGap(box, other) < kApart_mm; }))
                    continue;
                std::vector<std::string> lower;
                for (std::size_t k = 0; k < boxes.size(); ++k)
                    if (boxes[k].max_mm.z() <= box.min_mm.z()) lower.push_back(ids[k]);
                const std::string id = "t" + std::to_string(boxes.size());
                addShape(build, id, {wall(size, {0, 0, size.z() / 2})}, at, {lower[random() % lower.size()]});
                boxes.push_back(box);
                ids.push_back(id);
            }
            Analyser analyser;
            const Analysis &analysis = analyser.update(build);
            const AssemblyPlan plan = planAssembly(build, analysis.practice, analysis.derived, 0);
            BlockingGraph graph(build, analysis.derived.scene, analysis.practice, 0);
            std::vector<bool> there(graph.things().size(), false);
            std::vector<std::pair<std::vector<int>, Vec3>> order;
            for (const auto &step : plan.steps) {
                if (step.kind != OperationKind::fit) continue;
                QVERIFY2(step.stuckBehind.empty(), step.id.c_str());
                std::vector<int> group;
                for (const auto &id : step.things) group.push_back(graph.find(id));
                for (const int thing : group) {
                    // Those of one step that is no assembly go in one after the other, and none is in another's way.
                    if (!step.base)
                        for (const int other : graph.inTheWay(thing, step.from)) {
                            QVERIFY(!there[std::size_t(other)]);
                            ++pairs;
                        }
                    if (!step.asOne) {
                        there[std::size_t(thing)] = true;
                        order.push_back({{thing}, step.from});
                    }
                }
                for (const int thing : group) there[std::size_t(thing)] = true;
                if (step.asOne) order.push_back({group, step.from});
            }
            QCOMPARE(std::count(there.begin(), there.end(), true), std::ptrdiff_t(there.size()));
            for (auto put = order.rbegin(); put + 1 != order.rend(); ++put) { // the base stays
                for (const int thing : put->first) there[std::size_t(thing)] = false;
                for (const int thing : put->first)
                    for (const int other : graph.inTheWay(thing, put->second)) {
                        QVERIFY(!there[std::size_t(other)]);
                        ++asked;
                    }
            }
        }
        QVERIFY(pairs > 200 && asked == pairs); // there was something to be in the way
    }
};

QTEST_APPLESS_MAIN(TestOperations)
#include "test_operations.moc"
