// Handwork beside fitting and joining, case by case as it goes wrong at the bench: nuts before what covers them, leads
// before plates close, insulation, dry fits, loose screws, straps.
#include "core/instructions/step_words.h"
#include "core/rules/rule.h"
#include "core/rules/sequence_cures.h"
#include "core/studies/cures.h"
#include "core/wiring/routing.h"
#include "support/puzzles.h"
#include "support/stacks.h"

#include <QTest>

using namespace waxis;
using namespace waxis::test;

namespace {

/// The lines of a step, one under the other.
std::string linesOf(const Planned &planned, const std::string &operation) {
    Analyser analyser;
    const Analysis &analysis = analyser.update(planned.build);
    std::string all;
    for (const auto &line : wordTakes(planned.build, analysis.derived, planned.step(operation)))
        all += line.text() + "\n";
    return all;
}

/// A plate from z = -2 to 0 with a hole 10 mm square, a board on it and one under it, and a lead through the hole.
Build withALeadThrough() {
    Build build = plateForStacks(0);
    build.frame.edit([](Frame &frame) { frame.passThroughs.push_back({"hole", "low", square(10), HoleEdge::bare}); });
    const auto pads = portAt("pads", {-10, 0, 1}, -Vec3::UnitX(), {"5V", "GND"});
    addBoardOn(build, "top", {22, 0, 0}, "low", {pads}, FasteningMethod::screws);
    addBoardOn(build, "under", {22, 0, -8}, "low", {pads}, FasteningMethod::screws);
    build.wires = {wireBetween("w", {"top", "pads"}, {"under", "pads"}, {{"5V", "5V"}, {"GND", "GND"}})};
    build.wires[0].stops = {{"hole", {}}};
    return build;
}

/// Speed controller with the pack's pads, a plug that feeds it.
Build withATrain(Vec3 padsFace) {
    Build build = onABase();
    addBoardOn(build, "esc", {0, 0, 8}, "base",
               {portAt("battery", {0, 0, padsFace.z() > 0 ? 2.0 : 0.0}, padsFace, {"BAT", "GND"})});
    addBoardOn(build, "xt", {60, 0, 8}, "base", {portAt("out", {0, 0, 2}, Vec3::UnitZ(), {"BAT", "GND"})});
    build.types.edit([](TypeTable &types) {
        typeIn(types, "esc").kind = PartKind::fourInOneEsc;
        typeIn(types, "xt").kind = PartKind::powerPlug;
    });
    build.wires = {wireBetween("main", {"esc", "battery"}, {"xt", "out"}, {{"BAT", "BAT"}, {"GND", "GND"}})};
    return build;
}

void addNut(Build &build, Vec3 at_mm) {
    addShape(build, "nut", {wall({4, 4, 1.6}, {0, 0, 0.8})}, at_mm, {"base"});
    build.types.edit([](TypeTable &types) {
        typeIn(types, "nut").kind = PartKind::fastener;
        typeIn(types, "nut").fastener = FastenerData{FastenerForm::nut, "M2", 0, HeadStyle::cap};
    });
}

} // namespace

class TestHandwork : public QObject {
    Q_OBJECT

private slots:
    void aNutIsHeldBeforeABoardCoversIt() {
        Build build = onABase();
        addNut(build, {0, 0, 4});
        addShape(build, "board", {wall({20, 20, 2}, {0, 0, 1})}, {0, 0, 12}, {"base"});
        const Planned planned(build);
        QVERIFY(planned.at("fit:nut") < planned.at("fit:board"));
    }
    void aNutWantsASocketOrASpanner_data() {
        QTest::addColumn<double>("edge_mm"); // of a shelf above it, from its axis
        QTest::addColumn<bool>("walled");    // no spanner from the side
        QTest::addColumn<bool>("minds");     // whether the shelf has to come later
        // The nut is 4 mm wide, its socket 7.
        QTest::newRow("the shelf reaches into the socket's way") << 3.4 << true << true;
        QTest::newRow("just beside it") << 3.6 << true << false;
        QTest::newRow("a spanner gets there from the side") << 3.4 << false << false;
    }
    void aNutWantsASocketOrASpanner() {
        QFETCH(double, edge_mm);
        QFETCH(bool, walled);
        QFETCH(bool, minds);
        // The ring is there before the nut, since what the nut rests on stands on it.
        Build build = onABase();
        std::vector<Solid> ring;
        for (const double side : {-1.0, 1.0}) {
            ring.push_back(wall({2, 14, 8}, {side * 6, 0, 4}));
            ring.push_back(wall({14, 2, 8}, {0, side * 6, 4}));
        }
        if (walled) addShape(build, "ring", ring, {0, 0, 4}, {"base"});
        addShape(build, "post", {wall({4, 4, 2}, {0, 0, 1})}, {30, 0, 4}, {walled ? "ring" : "base"});
        addNut(build, {0, 0, 4});
        build.parts.back().fastening.onto = {"base", "post"};
        addShape(build, "shelf", {wall({20, 20, 2}, {10, 0, 1})}, {edge_mm, 0, 20}, {"base"});
        const Planned planned(build);
        bool said = false;
        for (const auto &before : planned.plan.reasons)
            said |= before.reason == BeforeReason::tool && before.thing == "nut" && before.other == "shelf";
        QCOMPARE(said, minds);
        if (minds) QVERIFY(isInThisOrder(planned, {"fit:nut", "fit:shelf"}));
        QVERIFY(planned.remarks(RemarkKind::undriven).empty());
        // And where the shelf has to be there before it, no tool gets to it: only where neither way is free.
        addShape(build, "peg", {wall({4, 4, 2}, {0, 0, 1})}, {-30, 0, 4}, {"shelf"});
        for (auto &part : build.parts)
            if (part.id == "nut") part.fastening.onto = {"base", "post", "peg"};
        const auto remarks = Planned(build).remarks(RemarkKind::undriven);
        QCOMPARE(remarks.size(), std::size_t(minds));
        if (!minds) return;
        QCOMPARE(remarks[0].subjects.front(), std::string("nut"));
        Analyser analyser;
        int findings = 0;
        for (const auto &finding : analyseFully(analyser, build).findings) {
            if (finding.rule != RuleId::seqDriver) continue;
            ++findings;
            QVERIFY(wordFinding(build, finding).headline.text().starts_with("No spanner or socket reaches nut"));
        }
        QCOMPARE(findings, 1);
    }
    void aLeadGoesThroughItsHoleBeforeItsFarEndIsJoined() {
        const Planned planned(withALeadThrough());
        const int led = planned.at("lead:w");
        QVERIFY(led > 0);
        QVERIFY(planned.at("fit:low") < led);
        QVERIFY(led < planned.at("solder:top.pads") && led < planned.at("solder:under.pads"));
        QVERIFY(planned.at("prepare:leads") < led);
        QCOMPARE(wordStep(planned.build, planned.step("lead:w")).text(), std::string("Lead through low plate: w"));
    }
    void whatIsStuckBringsItsLeadAlong() {
        // Soldered in the hand, stuck, its lead through the hole, then the board over it.
        Build build = withALeadThrough();
        build.parts[0].fastening.method = FasteningMethod::tape;
        addShape(build, "roof", {wall({60, 60, 2}, {0, 0, 1})}, {0, 0, 20}, {"top"});
        const Planned planned(build);
        QVERIFY(isInThisOrder(planned, {"dry:top", "solder:top.pads", "lead:w", "fit:roof"}));
        // The far joint is 7 mm from the tape: first that, with the part still hanging from its lead.
        QVERIFY(isInThisOrder(planned, {"lead:w", "solder:under.pads", "fit:top", "fit:roof"}));
        QVERIFY(planned.remarks(RemarkKind::heat).empty());
        build.parts[1].placement.pose.position_mm.x() = -22; // 44 mm: stuck first, and led away from there
        QVERIFY(isInThisOrder(Planned(build), {"solder:top.pads", "fit:top", "lead:w", "solder:under.pads"}));
    }
    void leadsBetweenTwoPlatesComeBeforeTheseClose() {
        Build build = withALeadThrough();
        addShape(build, "lid", {wall({60, 60, 2}, {0, 0, 1})}, {0, 0, 25}, {"low"});
        const Planned planned(build);
        QVERIFY(planned.at("lead:w") < planned.at("fit:lid"));
        bool fingers = false;
        for (const auto &before : planned.plan.reasons)
            fingers |= before.reason == BeforeReason::tool && before.thing == "w" && before.other == "lid";
        // Or what the iron wants is the stronger one of the same pair.
        QVERIFY(fingers || planned.at("solder:top.pads") < planned.at("fit:lid"));
        build.parts.back().placement.pose.position_mm.z() = 60; // fingers get in under it
        bool still = false;
        const Planned high(build);
        for (const auto &before : high.plan.reasons)
            still |= before.reason == BeforeReason::tool && before.thing == "w" && before.other == "lid";
        QVERIFY(!still);
    }
    void rimsAreInBeforeTheirPlate() {
        Build build = withALeadThrough();
        QCOMPARE(Planned(build).at("slip:hole"), -1);
        build.frame.edit([](Frame &frame) { frame.passThroughs[0].edge = HoleEdge::grommet; });
        const Planned planned(build);
        QVERIFY(planned.at("slip:hole") >= 0);
        QVERIFY(planned.at("slip:hole") < planned.at("fit:low") && planned.at("fit:low") < planned.at("lead:w"));
        QCOMPARE(wordStep(build, planned.step("slip:hole")).text(),
                 std::string("Press the rims into the holes of low plate"));
    }
    void sleevesAndShrinkComeBeforeBothEnds() {
        Build build = withALeadThrough();
        build.wires[0].sleeved = true;
        const Planned sleeved(build);
        const int slipped = sleeved.at("slip:w");
        QVERIFY(sleeved.at("prepare:leads") < slipped && slipped < sleeved.at("lead:w"));
        QVERIFY(slipped < sleeved.at("solder:top.pads"));
        QCOMPARE(sleeved.at("splice:w"), -1);
    }
    void aSpliceIsMadeOutsideAndPulledThrough() {
        Build build = withALeadThrough();
        build.wires[0].splices = 1;
        const Planned planned(build);
        const std::vector<std::string> wanted{"slip:w", "splice:w", "lead:w", "solder:top.pads"};
        QVERIFY(isInThisOrder(planned, wanted));
        QVERIFY(wordCaution(build, planned.step("splice:w")).text().starts_with("Hot tip"));
    }
    void theMainLeadIsInsulatedBeforeItsBoardIsSeated() {
        // Pads face the base 4 mm under them: soldered, looked at and covered in the hand, then seated.
        const Planned down(withATrain(-Vec3::UnitZ()));
        QVERIFY(down.step("solder:esc.battery").inHand);
        QVERIFY(down.at("solder:esc.battery") < down.at("insulate:esc.battery"));
        QVERIFY(down.at("insulate:esc.battery") < down.at("fit:esc"));
        QVERIFY(down.at("insulate:esc.battery") < down.at("check:train"));
        // Pads up: seated first, covered before the next board comes over it.
        Build build = withATrain(Vec3::UnitZ());
        addShape(build, "fc", {wall({20, 20, 2}, {0, 0, 1})}, {0, 0, 16}, {"esc"});
        const Planned up(build);
        QVERIFY(up.at("fit:esc") < up.at("solder:esc.battery"));
        QVERIFY(up.at("solder:esc.battery") < up.at("insulate:esc.battery"));
        QVERIFY(up.at("insulate:esc.battery") < up.at("fit:fc"));
        build.types.edit([](TypeTable &types) { typeIn(types, "xt").kind = PartKind::buzzer; });
        QCOMPARE(Planned(build).at("insulate:esc.battery"), -1); // no pack behind it
    }
    void fartherJointsComeBeforeNearerOnes() {
        // Three ports of one board: in the middle, half way, at the edge.
        Build build = onABase();
        addBoardOn(build, "board", {0, 0, 4}, "base",
                   {portAt("edge", {9, 0, 2}, Vec3::UnitZ(), {"5V"}),
                    portAt("middle", {0, 0, 2}, Vec3::UnitZ(), {"5V"}),
                    portAt("half", {5, 0, 2}, Vec3::UnitZ(), {"5V"})});
        addBoardOn(build, "other", {60, 60, 4}, "base",
                   {portAt("a", {-5, 0, 2}, Vec3::UnitZ(), {"5V"}), portAt("b", {0, 0, 2}, Vec3::UnitZ(), {"5V"}),
                    portAt("c", {5, 0, 2}, Vec3::UnitZ(), {"5V"})});
        build.wires = {wireBetween("e", {"board", "edge"}, {"other", "a"}, {{"5V", "5V"}}),
                       wireBetween("m", {"board", "middle"}, {"other", "b"}, {{"5V", "5V"}}),
                       wireBetween("h", {"board", "half"}, {"other", "c"}, {{"5V", "5V"}})};
        const Planned planned(build);
        std::vector<std::string> order;
        for (const auto &step : planned.plan.steps)
            for (const auto &does : step.does)
                if (does.step.starts_with("solder:board.")) order.push_back(does.step);
        QCOMPARE(order, (std::vector<std::string>{"solder:board.middle", "solder:board.half", "solder:board.edge"}));
    }
    void heavyPadsAndSharedOnesAreSaid() {
        Build build = withATrain(Vec3::UnitZ());
        build.wires[0].gauge_AWG = 12; // 3.3 mm2
        const Planned planned(build);
        QVERIFY(linesOf(planned, "solder:esc.battery").find("Broad tip and more heat: BAT and GND") !=
                std::string::npos);
        Build thin = build;
        thin.wires[0].gauge_AWG = 26;
        QVERIFY(linesOf(Planned(thin), "solder:esc.battery").find("more heat") == std::string::npos);
        Wire second = build.wires[0];
        second.id = second.name = "second";
        build.wires.push_back(second);
        QVERIFY(linesOf(Planned(build), "solder:esc.battery")
                    .find("Twisted and tinned together first: BAT (2 wires) and GND (2 wires)") != std::string::npos);
    }
    void theBracketIsTriedWithWhatIsStuckBesideIt() {
        Build build = onABase();
        addBoardOn(build, "controller", {0, 0, 4}, "base", {}, FasteningMethod::tape);
        addBoardOn(build, "bracket", {21.9, 0, 4}, "base", {}, FasteningMethod::screws); // 1.9 mm beside
        const Planned close(build);
        QCOMPARE(close.step("dry:controller").beside, std::vector<std::string>{"bracket"});
        QCOMPARE(wordStep(build, close.step("dry:controller")).text(),
                 std::string("Try dry, stick nothing down yet: controller on base, with bracket beside"));
        build.parts.back().placement.pose.position_mm.x() = 22.1; // 2.1
        QVERIFY(Planned(build).step("dry:controller").beside.empty());
    }
    void schoolsDecideWhereIsSolderedAndWhenTwisted() {
        Layers layers(plateForStacks(0));
        layers.spacer(5).board(boardType("esc"));
        Build build = layers.build();
        addBoardOn(build, "lamp", {60, 0, 4}, "low", {portAt("in", {0, 0, 2}, Vec3::UnitZ(), {"5V", "GND"})});
        build.types.edit([](TypeTable &types) {
            types.at("esc").ports = {portAt("out", {10, 0, 1.6}, Vec3::UnitZ(), {"5V", "GND"})};
        });
        build.wires = {wireBetween("w", {"esc", "out"}, {"lamp", "in"}, {{"5V", "5V"}, {"GND", "GND"}})};
        build.wires[0].lay = WireLay::twisted;
        QVERIFY(!Planned(build).step("solder:esc.out").inHand);
        QVERIFY(linesOf(Planned(build), "prepare:leads").find(", twisted") != std::string::npos);
        QVERIFY(linesOf(Planned(build), "solder:esc.out").find("Twist when") == std::string::npos);
        build.practice.schools["board-soldering"] = "outside";
        build.practice.schools["twisting"] = "after";
        const Planned outside(build);
        QVERIFY(isInThisOrder(outside, {"solder:esc.out", "fit:esc"}));
        QVERIFY(linesOf(outside, "prepare:leads").find(", twisted") == std::string::npos);
        QVERIFY(linesOf(outside, "solder:esc.out").find("Twist when this end is joined: w") != std::string::npos);
    }
    void whatIsStuckIsTriedDryFirst() {
        Build build = onABase();
        addBoardOn(build, "taped", {0, 0, 4}, "base", {}, FasteningMethod::tape);
        addBoardOn(build, "glued", {30, 0, 4}, "base", {}, FasteningMethod::glue);
        addBoardOn(build, "screwed", {-30, 0, 4}, "base", {}, FasteningMethod::screws);
        const Planned planned(build);
        for (const char *id : {"taped", "glued"}) {
            const int dry = planned.at(std::string("dry:") + id);
            QVERIFY2(dry > 0 && dry < planned.at(std::string("fit:") + id), id);
        }
        QCOMPARE(planned.at("dry:screwed"), -1);
        QVERIFY(planned.remarks(RemarkKind::dryFit).empty());
        // In a box that is shut on all sides it was never tried: said, taped or glued, and not when it is screwed.
        for (const auto method : {FasteningMethod::tape, FasteningMethod::glue, FasteningMethod::screws}) {
            Build shut = onABase();
            std::vector<Solid> box{wall({30, 30, 1}, {0, 0, 0.5}), wall({30, 30, 1}, {0, 0, 19.5})};
            for (const double side : {-14.5, 14.5}) {
                box.push_back(wall({1, 30, 20}, {side, 0, 10}));
                box.push_back(wall({30, 1, 20}, {0, side, 10}));
            }
            addBoardOn(shut, "inside", {0, 0, 8}, "base", {}, method);
            addShape(shut, "box", box, {0, 0, 4}, {"base"});
            QCOMPARE(Planned(shut).remarks(RemarkKind::dryFit).size(), std::size_t(method != FasteningMethod::screws));
        }
    }
    void oneScrewStaysDryAndNylonIsGentle() {
        const Planned metal(withMotor(4, 8));
        QVERIFY(linesOf(metal, "fit:set").find("one stays dry") == std::string::npos); // one set, one piece drawn
        Build build = onABase();
        for (int i = 0; i < 4; ++i) addScrew(build, "s" + std::to_string(i), {10.0 * i - 15, 0, 4}, {"base"});
        for (auto &part : build.parts)
            if (part.id.starts_with("s")) part.type = "s0-type";
        QVERIFY(linesOf(Planned(build), "fit:s0").find("one stays dry") != std::string::npos);
        build.types.edit([](TypeTable &types) {
            for (auto &solid : typeIn(types, "s0").solids) solid.material = "nylon";
        });
        const std::string gentle = linesOf(Planned(build), "fit:s0");
        QVERIFY(gentle.find("no thread lock") != std::string::npos &&
                gentle.find("one stays dry") == std::string::npos);
    }
    void shimsAreChosenWhenTheGapIsMeasured() {
        Layers layers(plateForStacks(0));
        layers.spacer(5)
            .board(boardType("esc"))
            .hardware({FastenerForm::shim, "M3", 0.5}, "steel")
            .board(boardType("fc"));
        const Planned planned(layers.build());
        const auto &shims = layers.stack().layers[std::size_t(layers.size() - 2)].parts;
        const std::string measure = "measure:" + layers.id() + "." + std::to_string(layers.size() - 2);
        QVERIFY(planned.at(measure) > 0);
        QVERIFY(planned.at("fit:esc") < planned.at(measure) &&
                planned.at(measure) < planned.at("fit:" + shims.front()));
    }
    void aSheetIsLaidInBeforeTheNextBoard() {
        Layers layers(plateForStacks(0));
        layers.spacer(5).board(boardType("esc")).filler(LayerRole::sheet, 0.4).spacer(5).board(boardType("fc"));
        const Planned planned(layers.build());
        const std::string sheet = "insulate:" + layers.id() + "." + std::to_string(layers.size() - 3);
        QVERIFY(planned.at("fit:esc") < planned.at(sheet));
        QVERIFY(planned.at(sheet) < planned.at("fit:fc"));
    }
    void metalIsCutInTheHandAndNylonWhenItIsIn() {
        Layers layers(plateForStacks(0));
        layers.spacer(5).board(boardType("esc")).nut().screw(16);
        Build build = layers.build();
        QCOMPARE(Planned(build).at("trim:" + layers.id()), -1);
        build.stacks.front().cut_mm = 2;
        const std::string screw = layers.stack().screws.front();
        const Planned metal(build);
        QVERIFY(metal.step("trim:" + layers.id()).inHand);
        QVERIFY(metal.at("trim:" + layers.id()) < metal.at("fit:" + screw));
        QVERIFY(wordCaution(build, metal.step("trim:" + layers.id())).text().find("glasses") != std::string::npos);
        build.types.edit([&](TypeTable &types) {
            for (auto &solid : types.at(findPart(build, screw)->type).solids) solid.material = "nylon";
        });
        const Planned nylon(build);
        QVERIFY(!nylon.step("trim:" + layers.id()).inHand);
        QVERIFY(nylon.at("fit:esc") < nylon.at("trim:" + layers.id()));
        QVERIFY(nylon.at("fit:" + screw) < nylon.at("trim:" + layers.id()));
    }
    void screwsLeftLooseAreCalledUpAgain() {
        // Posts held from below and from above: the lower screws stay loose until the upper plate has its own.
        const Planned planned(stakewalker());
        int locks = 0;
        for (std::size_t i = 0; i < planned.plan.steps.size(); ++i) {
            const Step &step = planned.plan.steps[i];
            if (step.kind != OperationKind::lock) continue;
            ++locks;
            QVERIFY(step.things.size() >= 2);
            for (const auto &screw : step.things) {
                const Step &fit = planned.step("fit:" + screw);
                QVERIFY2(planned.at("fit:" + screw) < int(i), screw.c_str());
                if (!fit.asOne) QVERIFY2(fit.loose, screw.c_str());
                QVERIFY(fit.asOne || linesOf(planned, "fit:" + screw).find("calls them up again") != std::string::npos);
            }
            QVERIFY(int(i) < planned.at("check:end"));
            QVERIFY(wordStep(planned.build, step).text().find("crosswise") != std::string::npos);
        }
        QVERIFY(locks > 0);
        // With screws from one side alone nothing is left loose.
        Build build = stakewalker();
        build.frame.edit([](Frame &frame) {
            std::erase_if(frame.screws, [](const FrameScrew &screw) { return !screw.fromAbove; });
        });
        for (const auto &step : Planned(build).plan.steps) QVERIFY(step.kind != OperationKind::lock);
    }
    void aStrapGoesRoundBeforeWhatHangsUnderIt() {
        Build build = onABase();
        addBoardOn(build, "pack", {0, 0, 4}, "base", {}, FasteningMethod::strap);
        addShape(build, "under", {wall({10, 10, 3}, {0, 0, -1.5})}, {0, 0, -1}, {"base"});
        const Planned planned(build);
        QVERIFY(planned.at("loop:pack") > 0);
        QVERIFY(planned.at("loop:pack") < planned.at("fit:under") && planned.at("loop:pack") < planned.at("fit:pack"));
        build.parts.back().placement.pose.position_mm.x() = 30; // beside the strap
        bool ordered = false;
        const Planned beside(build);
        for (const auto &before : beside.plan.reasons) ordered |= before.other == "under" && before.thing == "pack";
        QVERIFY(!ordered);
    }
    void balanceIsFoundBeforeTheControllerIsStuck() {
        Build build = onABase();
        addBoardOn(build, "fc", {0, 0, 4}, "base", {}, FasteningMethod::tape);
        addBoardOn(build, "pack", {30, 0, 4}, "base", {}, FasteningMethod::screws);
        build.types.edit([](TypeTable &types) { typeIn(types, "fc").kind = PartKind::flightController; });
        const Planned planned(build);
        QVERIFY(planned.at("fit:pack") < planned.at("balance:fc") && planned.at("balance:fc") < planned.at("fit:fc"));
        QVERIFY(linesOf(planned, "balance:fc").find("folded") == std::string::npos);
        build.parts[1].fastening.method = FasteningMethod::screws; // it could still be moved
        QCOMPARE(Planned(build).at("balance:fc"), -1);
    }
    void motorLeadsAreTiedWhenTheyTurnTheRightWay() {
        Build build = withMotor(4, 8);
        build.types.edit([](TypeTable &types) {
            types.at("motor").ports = {portAt("phases", {0, 0, 2}, -Vec3::UnitX(), {"A", "B", "C"})};
        });
        addBoardOn(build, "esc", {0, 0, 0}, "arm", {portAt("m1", {0, 0, 2}, Vec3::UnitZ(), {"A", "B", "C"})});
        build.types.edit([](TypeTable &types) { typeIn(types, "esc").kind = PartKind::esc; });
        build.wires = {wireBetween("p", {"motor", "phases"}, {"esc", "m1"}, {{"A", "A"}, {"B", "B"}, {"C", "C"}})};
        build.ties = {{"t1", {50, 50, 2}}};
        build.wires[0].stops = {{"t1", {}}};
        const Planned planned(build);
        QVERIFY(planned.at("tie:motors") >= 0);
        QVERIFY(planned.at("check:end") < planned.at("tie:motors"));
        QVERIFY(planned.at("tie:motors") < planned.at("check:flight"));
    }
    void aCuredOrderIsQuiet_data() {
        QTest::addColumn<QString>("which");
        for (const char *which : {"covered", "heat", "stuck"}) QTest::newRow(which) << which;
    }
    /// Each cure that is offered for an order that does not go is tried: one of them at least opens it.
    void aCuredOrderIsQuiet() {
        QFETCH(QString, which);
        Build build = onABase();
        RemarkKind kind = RemarkKind::covered;
        RuleId rule = RuleId::seqCovered;
        if (which == "covered") { // its socket faces a wall of what it sits on, 2 mm away
            build.types.edit([](TypeTable &types) {
                typeIn(types, "base").solids.push_back(wall({2, 80, 20}, {-14, 0, 14}));
            });
            addBoardOn(build, "board", {0, 0, 12}, "base",
                       {portAt("p", {-10, 0, 1}, -Vec3::UnitX(), {}, PortKind::coax)});
            addBoardOn(build, "far", {60, 0, 4}, "base", {portAt("x", {10, 0, 1}, Vec3::UnitX(), {}, PortKind::coax)});
            build.wires = {wireBetween("w", {"board", "p"}, {"far", "x"}, {})};
        } else if (which == "heat") { // taped down under a cap that carries the board: it cannot wait
            kind = RemarkKind::heat;
            rule = RuleId::seqHeat;
            const auto pads = portAt("pads", {0, 0, 2}, Vec3::UnitZ(), {"5V", "GND"});
            addBoardOn(build, "taped", {0, 0, 4}, "base", {}, FasteningMethod::tape);
            std::vector<Solid> cap{wall({28, 28, 1}, {0, 0, 5.5})};
            for (const double side : {-13.5, 13.5}) {
                cap.push_back(wall({1, 28, 6}, {side, 0, 3}));
                cap.push_back(wall({28, 1, 6}, {0, side, 3}));
            }
            addShape(build, "cap", cap, {0, 0, 4}, {"base"});
            addBoardOn(build, "board", {0, 0, 11}, "cap", {pads});
            addBoardOn(build, "lamp", {90, 60, 4}, "base", {pads});
            build.wires = {wireBetween("w", {"board", "pads"}, {"lamp", "pads"}, {{"5V", "5V"}, {"GND", "GND"}})};
        } else { // in a shell that is shut on all sides; under the plate it is free
            kind = RemarkKind::stuck;
            rule = RuleId::seqStuck;
            build = plateForStacks(0);
            std::vector<Solid> shell{wall({30, 30, 1}, {0, 0, 0.5}), wall({30, 30, 1}, {0, 0, 19.5})};
            for (const double side : {-14.5, 14.5}) {
                shell.push_back(wall({1, 30, 20}, {side, 0, 10}));
                shell.push_back(wall({30, 1, 20}, {0, side, 10}));
            }
            addShape(build, "shell", shell, {0, 0, 0}, {"low"});
            addShape(build, "inside", {wall({10, 10, 6}, {0, 0, 3})}, {0, 0, 3}, {"low"});
        }
        QCOMPARE(Planned(build).remarks(kind).size(), std::size_t(1));
        Analyser analyser;
        const Analysis &analysis = analyseFully(analyser, build);
        int open = 0, offered = 0;
        for (const auto &finding : analysis.findings) {
            if (finding.rule != rule || finding.severity == Severity::pass) continue;
            for (const auto &fix : finding.fixes) {
                ++offered;
                const auto cured = applyFix(build, fix);
                open += cured && Planned(*cured).remarks(kind).empty();
            }
        }
        QVERIFY2(offered > 0 && open > 0, qPrintable(QString("%1 of %2").arg(open).arg(offered)));
        // Of them the window offers those alone that open it.
        CureTester tester(build);
        for (const auto &finding : analysis.findings) {
            if (finding.rule != rule || finding.severity == Severity::pass) continue;
            const auto cures = tester.curesOf(finding);
            QVERIFY(!cures.empty() && int(cures.size()) <= open);
            for (const auto &cure : cures) QVERIFY(Planned(cure.after).remarks(kind).empty());
        }
    }
    void antennasAreNotTurnedForTheirPlugs() {
        Build build = onABase();
        addBoardOn(build, "board", {0, 0, 4}, "base", {});
        QCOMPARE(turnedOnItsPlace(build, "board").size(), std::size_t(3));
        build.types.edit([](TypeTable &types) { typeIn(types, "board").kind = PartKind::antenna; });
        QVERIFY(turnedOnItsPlace(build, "board").empty() && onTheOtherSide(build, "board").empty());
    }
    void postsInTheWayAreOfferedShorter() {
        Build build = plateForStacks(25);
        const auto fixes = shorterPosts(build, {"so", "low", "nobody"});
        QCOMPARE(fixes.size(), std::size_t(1));
        QCOMPARE(fixes[0].as<PostHeight>()->to_mm, 20.0);
        build.frame.edit([](Frame &frame) { frame.standoffs[0].height_mm = 9.9; });
        QVERIFY(shorterPosts(build, {"so"}).empty());
        QVERIFY(onTheOtherSide(build, "nobody").empty() && turnedOnItsPlace(build, "nobody").empty());
        QVERIFY(fromTheOtherFace(build, "so").empty() && movedAwayFrom(build, "so", "low", 3).empty());
    }
    void antennasAreOnBeforeTheirSenderHasPower() {
        Build build = onABase();
        addBoardOn(build, "fc", {0, 0, 4}, "base", {portAt("out", {0, 0, 2}, Vec3::UnitZ(), {"9V", "GND"})});
        addBoardOn(build, "vtx", {-25, 0, 4}, "base",
                   {portAt("in", {0, 0, 2}, Vec3::UnitZ(), {"9V", "GND"}, PortKind::socket),
                    portAt("rf", {-10, 0, 1}, -Vec3::UnitX(), {}, PortKind::coax)});
        addBoardOn(build, "aerial", {60, 0, 4}, "base", {portAt("rf", {10, 0, 1}, Vec3::UnitX(), {}, PortKind::coax)});
        build.types.edit([](TypeTable &types) {
            typeIn(types, "vtx").kind = PartKind::videoTransmitter;
            typeIn(types, "aerial").kind = PartKind::antenna;
        });
        build.wires = {wireBetween("feed", {"fc", "out"}, {"vtx", "in"}, {{"9V", "9V"}, {"GND", "GND"}}),
                       wireBetween("pigtail", {"vtx", "rf"}, {"aerial", "rf"}, {})};
        const Planned planned(build);
        for (const char *snap : {"snap:pigtail.vtx.rf", "snap:pigtail.aerial.rf"})
            QVERIFY2(isInThisOrder(planned, {snap, "plug:feed.vtx.in"}), snap);
        build.types.edit([](TypeTable &types) { typeIn(types, "vtx").kind = PartKind::recorder; }); // sends nothing
        bool ordered = false;
        const Planned quiet(build);
        for (const auto &before : quiet.plan.reasons)
            ordered |= before.reason == BeforeReason::process && before.other == "vtx" && before.thing != "check:train";
        QVERIFY(!ordered);
    }
};

QTEST_APPLESS_MAIN(TestHandwork)
#include "test_handwork.moc"
