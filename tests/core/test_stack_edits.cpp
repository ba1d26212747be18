// Stacks while they are edited: gathered, left, changed together, kept in step.
#include "core/analysis/analysis.h"
#include "core/build/chain.h"
#include "core/clearance/clearance_world.h"
#include "core/derived/all_up.h"
#include "core/edits/clip.h"
#include "core/edits/group_edits.h"
#include "core/edits/hung_on.h"
#include "core/edits/part_edits.h"
#include "core/kit/kit.h"
#include "core/practice/practice.h"
#include "core/stack/report.h"
#include "io/report_json/analysis_json.h"
#include "support/findings.h"
#include "support/stacks.h"

#include <random>

using namespace waxis;
using namespace waxis::test;

namespace {

bool near(double a, double b, double within = 1e-9) { return std::abs(a - b) <= within; }

} // namespace

class TestStackEdits : public QObject {
    Q_OBJECT

private slots:
    void whatStandsOnAPatternIsGatheredByHeight() {
        Layers layers(plateForStacks());
        layers.damper(4, 0).board(boardType("esc")).spacer(6).board(boardType("fc")).nut().screw(25);
        // Taken apart by hand into placed parts, as older files have them.
        Build loose = layers.build();
        for (auto &part : loose.parts) {
            const Pose pose = framePose(layers.build(), *findPart(layers.build(), part.id));
            part.placement.pose = pose;
            part.fastening.method = FasteningMethod::screws;
        }
        loose.stacks.clear();
        std::string id;
        const auto again = gatherStack(loose, "site", "Again", &id);
        QVERIFY2(bool(again), again ? "" : again.error().message.c_str());
        const Stack &made = *findStack(*again, id);
        QCOMPARE(made.layers.size(), layers.stack().layers.size());
        for (std::size_t i = 0; i < made.layers.size(); ++i)
            QCOMPARE(made.layers[i].role, layers.stack().layers[i].role);
        QCOMPARE(made.screws.size(), std::size_t(4));
        for (const auto &part : again->parts)
            QVERIFY((framePose(*again, part).position_mm -
                     framePose(layers.build(), *findPart(layers.build(), part.id)).position_mm)
                        .norm() < 1e-9);
        QVERIFY(!gatherStack(plateForStacks(), "site", "Nothing"));
    }
    void aStackOnAnAdapterComesAlongWhenBothAreCopied() {
        Layers layers(plateForStacks());
        layers.spacer(8).board(adapterType());
        const std::string adapter = layers.stack().layers[2].parts[0];
        std::string upper;
        PartType unit = boardType("unit");
        unit.mounting->size_mm = 20;
        const Build full = *addBoard(*addStack(layers.build(), adapter, "Upper", &upper), upper, 1, unit);
        const std::string board = full.parts.back().id;
        std::vector<std::string> added;
        const auto pasted = pasteClip(full, *clipOf(full, {adapter, board}), {0, 50, 0}, &added);
        QVERIFY2(bool(pasted), pasted ? "" : pasted.error().message.c_str());
        QCOMPARE(pasted->stacks.size(), full.stacks.size() + 1);
        QCOMPARE(QString::fromStdString(pasted->stacks.back().on), QString::fromStdString(added[0])); // on the copy
        const double over = framePose(full, *findPart(full, board)).position_mm.z() -
                            framePose(full, *findPart(full, adapter)).position_mm.z();
        QVERIFY(near(framePose(*pasted, *findPart(*pasted, added[1])).position_mm.z() -
                         framePose(*pasted, *findPart(*pasted, added[0])).position_mm.z(),
                     over));
    }
    void movingAwayLeavesTheStack() {
        Layers layers(plateForStacks());
        layers.spacer(5).board(boardType("fc")).nut();
        const std::string fc = layers.stack().layers[2].parts[0];
        const Build away = *movePart(layers.build(), fc, Pose{Vec3(100, 0, 3), Quat::Identity()});
        QCOMPARE(away.stacks[0].layers.size(), std::size_t(3));
        QVERIFY(near(framePose(away, *findPart(away, fc)).position_mm.x(), 100));
        const Build aside = *shiftPart(layers.build(), fc, Vec3(2, 0, 9)); // aside it goes, its height is the layers'
        QVERIFY(near(framePose(aside, *findPart(aside, fc)).position_mm.x(), 2));
        QVERIFY(near(framePose(aside, *findPart(aside, fc)).position_mm.z(), 5));
        QVERIFY(*shiftPart(layers.build(), fc, Vec3(0, 0, 4)) == layers.build()); // nothing to undo
        const Build taped = *fastenPart(layers.build(), fc, {FasteningMethod::tape, {"low"}, false, {}});
        QCOMPARE(taped.stacks[0].layers.size(), std::size_t(3));
        QVERIFY(near(framePose(taped, *findPart(taped, fc)).position_mm.z(), 5));
        const Build out = *removeLayer(layers.build(), layers.id(), 2);
        QVERIFY(findPart(out, fc) && near(framePose(out, *findPart(out, fc)).position_mm.z(), 5));
        const Build gone = *removeLayer(layers.build(), layers.id(), 1);
        QCOMPARE(gone.parts.size(), layers.build().parts.size() - 4);
        const Build apart = *removeStack(layers.build(), layers.id());
        QVERIFY(apart.stacks.empty() && apart.parts.size() == 1);
        QVERIFY(near(framePose(apart, apart.parts[0]).position_mm.z(), 5));
    }
    void hardwareOfALayerChangesTogether() {
        Layers layers(plateForStacks());
        layers.spacer(5).board(boardType("fc")).nut().screw(12);
        const Build with = *putType(layers.build(), made({FastenerForm::spacer, "M3", 8}), {});
        const Build higher = *changeType(with, layers.stack().layers[1].parts[2], "spacer-m3-8");
        for (const auto &id : layers.stack().layers[1].parts)
            QCOMPARE(findPart(higher, id)->type, std::string("spacer-m3-8"));
        QVERIFY(near(chainOf(higher, higher.stacks[0])->spans[2].from_mm, 8));
        QCOMPARE(findPart(higher, layers.stack().screws[0])->type, std::string("screw-m3x12"));
    }
    void editsRefuseWhatMakesNoSense() {
        Layers layers(plateForStacks());
        layers.spacer(5).board(boardType("fc"));
        const Build &b = layers.build();
        const std::string &id = layers.id(), fc = layers.stack().layers[2].parts[0];
        QVERIFY(!moveLayer(b, "nothing", 0, 1) && !moveLayer(b, id, 9, 1) && !moveLayer(b, id, -1, 1));
        QVERIFY(!removeLayer(b, id, 0));  // the frame
        QVERIFY(!addBoard(b, id, 1, fc)); // lies there already
        QVERIFY(!addBoard(b, id, 1, std::string("nobody")));
        QVERIFY(!addFiller(b, id, 1, LayerRole::gap, -1) && !addFiller(b, id, 1, LayerRole::nut, 1));
        QVERIFY(!setLayer(b, id, 2, {}, 0.2, {})); // boards are not squeezed
        QVERIFY(!setLayer(b, id, 1, {}, 0, 2.0));  // spacers are not cut
        QVERIFY(!setLayer(b, id, 1, measuredValue(-3), 0, {}) && !setLayer(b, id, 0, measuredValue(3), 0, {}));
        QVERIFY(!flipBoard(b, id, 1) && !turnBoard(b, id, 2, std::nan("")));
        QVERIFY(!chooseScrew(b, id, {FastenerForm::screw, "M7", 20}, "steel"));
        QVERIFY(!chooseScrew(b, id, {FastenerForm::screw, "M1.6", 20, HeadStyle::button}, "steel")); // not made
        QVERIFY(!chooseScrew(b, id, {FastenerForm::screw, "M3", 20}, "unobtainium"));
        QVERIFY(!setStackBase(b, id, {"x", "no-plate", false, ScrewEnd::nut, {}}));
        QVERIFY(!setStackBase(b, id, {"x", "", false, ScrewEnd::frame, {}}));
        QVERIFY(!addHangingStack(b, "nowhere") && !addStack(b, "fc", "no pattern"));
    }
    void theIncrementalAnalysisKeepsInStep() {
        Analyser kept;
        Build build = stakewalker();
        kept.update(build);
        auto same = [&] {
            Analyser fresh;
            fresh.update(build);
            QCOMPARE(QByteArray(io::analysisText(build, kept.update(build)).c_str()),
                     QByteArray(io::analysisText(build, fresh.current()).c_str()));
        };
        build = *shiftPart(build, "esc", Vec3(1, 0.5, 0));
        same();
        build = *moveLayer(build, "stack-main", 3, 1);
        same();
        build = *flipBoard(build, "stack-main", 3);
        same();
        build = *weighPart(build, "fc", measuredValue(9));
        same();
        build = *holdStack(build, "stack-video", StackHold::ties);
        same();
    }
    void screwsAndMaleEndsAreCut() {
        // Frame 2 + spacer 5 + board 1.6 is 8.6 of grip; a plain nut of 2.4 and a pitch: 11.5 at least. One of 20 is
        // far too long.
        Layers layers(plateForStacks(0));
        layers.spacer(5).board(boardType("fc")).nut().screw(20);
        const auto found = findingsOf(layers.build(), RuleId::stkScrew);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].variant, std::string("long"));
        const auto cutOf = [](const Finding &f) {
            for (const auto &fix : f.fixes)
                if (const auto *change = fix.as<StackChange>(); change && change->kind == StackChangeKind::cutScrew)
                    return std::optional<Fix>(fix);
            return std::optional<Fix>();
        };
        const auto fix = cutOf(found[0]);
        QVERIFY(fix.has_value());
        const auto cut = applyFix(layers.build(), *fix);
        QVERIFY(cut);
        QVERIFY(findingsOf(*cut, RuleId::stkScrew).empty());
        const Stack &stack = cut->stacks[0];
        QVERIFY(stack.cut_mm > 0);
        // The body and the weight are those of what is left; new screws are whole.
        const Part &screw = *findPart(*cut, stack.screws[0]);
        const auto solids = placedSolids(*cut, screw);
        double top = -1e9;
        for (const auto &solid : solids) top = std::max(top, boundsOf(solid.shape, solid.X_PartSolid).max_mm.z());
        QVERIFY(near(top, 20 - stack.cut_mm, 1e-6));
        Analyser analyser;
        const double whole = *gramsOf(analyser.update(layers.build()).derived, screw.id);
        const double left = *gramsOf(analyser.update(*cut).derived, screw.id);
        QVERIFY(left < whole && left > whole * (20 - stack.cut_mm) / 20);
        QCOMPARE(chooseScrew(*cut, stack.id, {FastenerForm::screw, "M3", 14}, "steel")->stacks[0].cut_mm, 0.0);
        StackBase base{"Stack", {}, false, ScrewEnd::nut, {}, -1, {}};
        QVERIFY(!setStackBase(*cut, stack.id, base));
        // A male end of 8 mm through a board of 1.6 into 5 mm of thread: 1.4 too long. Shims, or cut to 6.5, which
        // leaves 4.9 in aluminium; 4.5 are wanted.
        Layers studs(plateForStacks(0));
        studs.hardware({FastenerForm::standoff, "M3", 8, HeadStyle::cap, 0, 5}, "aluminium").board(boardType("esc"));
        studs.hardware({FastenerForm::standoff, "M3", 5, HeadStyle::cap, 8, 0}, "aluminium");
        const auto bottoms = findingsOf(studs.build(), RuleId::stkDamper);
        QCOMPARE(bottoms.size(), std::size_t(1));
        QCOMPARE(bottoms[0].variant, std::string("bottoms"));
        QVERIFY(near(*bottoms[0].measured, 1.4));
        QCOMPARE(bottoms[0].fixes.size(), std::size_t(2));
        QCOMPARE(bottoms[0].fixes[0].as<StackChange>()->kind, StackChangeKind::shim);
        QCOMPARE(bottoms[0].fixes[1].as<StackChange>()->kind, StackChangeKind::cutStud);
        QCOMPARE(bottoms[0].fixes[1].as<StackChange>()->value, 6.5);
        for (const auto &cure : bottoms[0].fixes) {
            const auto cured = applyFix(studs.build(), cure);
            QVERIFY(cured);
            QVERIFY(findingsOf(*cured, RuleId::stkDamper).empty());
        }
    }
};

QTEST_APPLESS_MAIN(TestStackEdits)
#include "test_stack_edits.moc"
