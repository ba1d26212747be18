// Stacks: where layers stand, what is between them, does it close. Closed forms by hand.
#include "core/analysis/analysis.h"
#include "core/build/chain.h"
#include "core/clearance/clearance_world.h"
#include "core/derived/all_up.h"
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

StackReport reportOf(const Layers &layers) {
    return *reportOn(layers.build(), layers.stack(), practiceOf(layers.build().practice));
}

const StackGap &gapBetween(const StackReport &report, const std::string &below, const std::string &above) {
    for (const auto &gap : report.gaps)
        if (gap.below == below && gap.above == above) return gap;
    qFatal("no gap between %s and %s", below.c_str(), above.c_str());
}

PartType withPlugBelow() {
    PartType board = boardType("fc");
    Port plug;
    plug.id = "camera";
    plug.kind = PortKind::socket;
    plug.position_mm = {0, 0, -1};
    board.ports = {plug};
    return board;
}

} // namespace

class TestStack : public QObject {
    Q_OBJECT

private slots:
    void heightsAreTheSumOfTheLayersExactly() {
        const unsigned seed = 20261126;
        std::mt19937 random(seed);
        std::uniform_int_distribution<int> count(1, 9), kind(0, 4);
        std::uniform_real_distribution<double> height(0.5, 12), squeeze(0, 0.5);
        for (int round = 0; round < 60; ++round) {
            Layers layers(plateForStacks());
            std::vector<double> heights;
            for (int i = count(random); i > 0; --i) {
                const double h = height(random);
                switch (kind(random)) {
                case 0:
                    layers.board(boardType("b" + std::to_string(i), h));
                    heights.push_back(freeHeight_mm(layers.build(), layers.stack().layers.back()));
                    QVERIFY2(near(heights.back(), h, 1e-12), qPrintable(QString("seed %1").arg(seed)));
                    break;
                case 1: {
                    const double s = squeeze(random);
                    layers.damper(h, s);
                    heights.push_back(h * (1 - s));
                    break;
                }
                case 2:
                    layers.spacer(h);
                    heights.push_back(h);
                    break;
                case 3:
                    layers.filler(LayerRole::gap, h);
                    heights.push_back(h);
                    break;
                default: layers.filler(LayerRole::wires, h); heights.push_back(0); // lies between, carries nothing
                }
            }
            double z = 0;
            const auto chain = chainOf(layers.build(), layers.stack());
            for (std::size_t i = 0; i < heights.size(); ++i) {
                QCOMPARE(chain->spans[i + 1].from_mm, z);
                z += heights[i];
                QCOMPARE(chain->spans[i + 1].to_mm, z);
                for (const auto &id : layers.stack().layers[i + 1].parts) // what is drawn stands there, to the last bit
                    QCOMPARE(framePose(layers.build(), *findPart(layers.build(), id)).position_mm.z(), z - heights[i]);
            }
            QCOMPARE(chain->top_mm, z);
        }
    }
    void theElevationShowsTheSameHeights() {
        Layers layers(plateForStacks());
        layers.damper(4, 0.25).board(boardType("esc")).spacer(6).board(boardType("fc")).nut();
        Analyser analyser;
        const Derived &derived = analyser.update(layers.build()).derived;
        const StackReport &report = derived.stacks->at(0);
        for (std::size_t i = 1; i < report.chain.spans.size(); ++i)
            for (const auto &id : layers.stack().layers[i].parts) {
                Aabb box;
                for (std::size_t b = 0; b < derived.scene.traits.size(); ++b)
                    if (derived.scene.owners[std::size_t(derived.scene.traits[b].owner)].id == id)
                        box.include(boundsOf(derived.scene.world->bodies()[b].shape,
                                             derived.scene.world->bodies()[b].X_FrameBody));
                QVERIFY(near(box.min_mm.z(), report.chain.spans[i].from_mm)); // dampers squeezed too
                QVERIFY(near(box.max_mm.z(), report.chain.spans[i].to_mm));
            }
    }
    void aBoardTurnedOverStandsOnItsOtherFace() {
        Layers layers(plateForStacks());
        const auto plug = pieceOf(SolidRole::connector, {5, 10, 3}, {10, 0, 3.1});
        layers.spacer(6).board(boardType("fc", 1.6, {plug}));
        const std::string fc = layers.stack().layers[2].parts[0];
        QVERIFY(near(reportOf(layers).layers[2].standsUp_mm, 3));
        const auto over = flipBoard(layers.build(), layers.id(), 2);
        QVERIFY(bool(over));
        const StackReport report = *reportOn(*over, over->stacks[0], practiceOf({}));
        QVERIFY(near(report.layers[2].hangsDown_mm, 3) && near(report.layers[2].standsUp_mm, 0));
        QVERIFY(near(report.chain.spans[2].from_mm, 6) && near(report.chain.spans[2].to_mm, 7.6));
        const Pose pose = framePose(*over, *findPart(*over, fc));
        QVERIFY(near((pose * Vec3(0, 0, 1.6)).z(), 6));        // what was its top lies on the spacers
        QVERIFY(near((pose.rotation * Vec3::UnitX()).x(), 1)); // and its arrow keeps its way
        QVERIFY(*flipBoard(*over, layers.id(), 2) == layers.build());
    }
    void aHangingStackGrowsDownwards() {
        std::string id;
        const Build build = *addHangingStack(plateForStacks(), "site", &id);
        const Build one = *addHardware(build, id, 1, made({FastenerForm::spacer, "M3", 5}));
        const Build two = *addBoard(one, id, 2, boardType("fc"));
        const Pose pose = framePose(two, two.parts.back());
        QVERIFY(near((pose * Vec3(0, 0, 0)).z(), -7)); // plate's underside at -2, five of spacer
        QVERIFY(near((pose * Vec3(0, 0, 1.6)).z(), -8.6));
        QVERIFY(near(chainOf(two, two.stacks[0])->frame_mm, 2));
    }
    void aStackOnAnAdapterStandsWhereTheAdapterDoes() {
        Layers layers(plateForStacks());
        layers.spacer(8).board(adapterType());
        const std::string adapter = layers.stack().layers[2].parts[0];
        std::string upper;
        const Build on = *addStack(layers.build(), adapter, "Upper", &upper);
        PartType unit = boardType("unit");
        unit.mounting->size_mm = 20;
        const Build full = *addBoard(*addHardware(on, upper, 1, made({FastenerForm::spacer, "M2", 3})), upper, 2, unit);
        QVERIFY(near(framePose(full, full.parts.back()).position_mm.z(), 8 + 1.5 + 3));
        const Build higher = *changeHardware(full, layers.id(), 1, made({FastenerForm::spacer, "M3", 10}));
        QVERIFY(near(framePose(higher, higher.parts.back()).position_mm.z(), 10 + 1.5 + 3));
        const Build turned = *turnBoard(full, layers.id(), 2, 90); // what stands on the adapter turns with it
        QVERIFY(near((framePose(turned, turned.parts.back()).rotation * Vec3::UnitX()).y(), 1));
        // Nothing comes to stand on itself, not even by way of another adapter.
        PartType second = adapterType();
        second.id = "second";
        second.mounting->size_mm = 20;
        std::string top;
        const Build both = *addBoard(*addStack(layers.build(), adapter, "Upper", &upper), upper, 1, second);
        const std::string upperPlate = both.parts.back().id;
        const Build ring = *addStack(both, upperPlate, "Top", &top);
        const Build loose = *removeLayer(ring, layers.id(), 2); // the lower adapter lies free
        QVERIFY(!addBoard(loose, top, 1, adapter));
        QVERIFY(bool(addBoard(loose, layers.id(), 2, adapter)));
        // An adapter that goes leaves the unit where it stood, in no stack.
        const Build without = *removePart(full, adapter);
        QCOMPARE(without.stacks.size(), std::size_t(1));
        QVERIFY(near(framePose(without, without.parts.back()).position_mm.z(), 12.5));
        QVERIFY(!addStack(layers.build(), "site", "again"));
    }
    void aTallPartMayStandBesideALowPlug() {
        // Capacitor 4.2 up at the left front; plug 2.0 down, first beside it, then over it.
        const auto capacitor = pieceOf(SolidRole::component, {8, 8, 4.2}, {8, 8, 1.6 + 2.1});
        auto plugAt = [](double x) { return pieceOf(SolidRole::connector, {6, 6, 2}, {x, 8, -1}); };
        Layers beside(plateForStacks());
        beside.spacer(5).board(boardType("esc", 1.6, {capacitor})).spacer(5).board(boardType("fc", 1.6, {plugAt(-8)}));
        const std::string esc = beside.stack().layers[2].parts[0], fc = beside.stack().layers[4].parts[0];
        const StackReport free = reportOf(beside);
        QVERIFY(near(gapBetween(free, esc, fc).gap_mm, 5 - 4.2)); // capacitor to the board above it
        Layers over(plateForStacks());
        over.spacer(5).board(boardType("esc", 1.6, {capacitor})).spacer(5).board(boardType("fc", 1.6, {plugAt(8)}));
        const StackGap met = gapBetween(reportOf(over), esc, fc);
        QVERIFY(near(met.gap_mm, 5 - 4.2 - 2)); // -1.2
        QCOMPARE(met.lower.what, std::string("component"));
        QCOMPARE(met.upper.what, std::string("plug"));
        for (const auto &p : met.where) { // exactly where both are: 6 mm across
            QVERIFY(p.x() > 5 - 1e-9 && p.x() < 11 + 1e-9 && p.y() > 5 - 1e-9 && p.y() < 11 + 1e-9);
        }
        const auto found = findingsOf(over.build(), RuleId::stkGap);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].severity, Severity::stop);
        QVERIFY(near(*found[0].measured, -1.2));
        // The spacer that it offers leaves 1 mm: 7.2 wanted, 8 is sold.
        QCOMPARE(found[0].fixes.at(0).as<StackChange>()->value, 8.0);
        QVERIFY(findingsOf(*applyFix(over.build(), found[0].fixes[0]), RuleId::stkGap).empty());
    }
    void airIsJudgedInThreeSteps() {
        for (const auto &[spacer, severity] : {std::pair{3.0, Severity::pass},
                                               {1.9, Severity::pass},
                                               {0.9, Severity::note},
                                               {0.5, Severity::note},
                                               {0.4, Severity::watch}}) {
            Layers layers(plateForStacks());
            layers.spacer(5).board(boardType("esc"));
            // Measured lower than any spacer that is sold.
            layers.spacer(3).board(boardType("fc"));
            const Build build = *setLayer(layers.build(), layers.id(), 3, measuredValue(spacer), 0, {});
            const auto found = findingsOf(build, RuleId::stkGap);
            QCOMPARE(found.size(), std::size_t(severity == Severity::pass ? 0 : 1));
            if (!found.empty()) QCOMPARE(found[0].severity, severity);
        }
    }
    void wiresAndSheetsTakeRoomButCarryNothing() {
        Layers layers(plateForStacks());
        layers.spacer(5).board(boardType("esc")).spacer(4).filler(LayerRole::wires, 3.5).board(boardType("fc"));
        const std::string esc = layers.stack().layers[2].parts[0], fc = layers.stack().layers[5].parts[0];
        const StackReport report = reportOf(layers);
        const StackGap &gap = gapBetween(report, esc, fc);
        QVERIFY(near(gap.gap_mm, 4) && near(gap.wires_mm, 3.5) && near(gap.air_mm(), 0.5));
        QVERIFY(near(report.chain.top_mm, 5 + 1.6 + 4 + 1.6));
        const auto found = findingsOf(layers.build(), RuleId::stkGap);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].variant, std::string("wires"));
    }
    void roomUnderThePlateAboveIsWhatIsLeft() {
        const auto plug = pieceOf(SolidRole::connector, {5, 10, 4.4}, {0, 0, 1.6 + 2.2});
        Layers layers(plateForStacks(20));
        layers.damper(4, 0.15).board(boardType("esc")).spacer(6).board(boardType("fc", 1.6, {plug}));
        const double left = 20 - (3.4 + 1.6 + 6 + 1.6 + 4.4);
        const StackReport report = reportOf(layers);
        QCOMPARE(report.plateAbove, std::string("high"));
        QVERIFY(near(report.closing.nominal_mm, left) && near(report.closest.gap_mm, left));
        // Worst case and root of squares by hand: standoff 0.1, damper 0.3 x 0.85, boards 0.16 twice, spacer 0.1, plug
        // 0.1.
        const double worst = 0.1 + 0.255 + 2 * 0.16 + 0.1 + 0.1;
        const double likely = std::sqrt(0.01 + 0.255 * 0.255 + 2 * 0.0256 + 0.01 + 0.01);
        QVERIFY(near(report.closing.worst_mm, left - worst) && near(report.closing.likely_mm, likely));
        QCOMPARE(report.contributions[std::size_t(report.closing.dominant)].layer, 1); // the damper
        // A hole in the plate lets the plug through: then the board's edge counts.
        Build holed = layers.build();
        holed.frame.edit([](Frame &frame) { frame.plates[1].cutouts_mm = {square(14)}; });
        QVERIFY(near(reportOn(holed, holed.stacks[0], practiceOf({}))->closest.gap_mm, left + 4.4));
    }
    void probabilityAgreesWithDraws() {
        // Independent normal errors: the closed form against 400,000 draws; three standard errors of a share.
        std::mt19937 random(7);
        std::uniform_real_distribution<double> size(0.5, 6), tolerance(0.02, 0.4);
        for (int round = 0; round < 12; ++round) {
            std::vector<Contribution> chain{{"room", -1, 0, 1, 0.1}};
            double sum = 0;
            for (int i = 0; i < 5; ++i) {
                chain.push_back({"layer", i, size(random), -1, tolerance(random)});
                sum += chain.back().nominal_mm;
            }
            chain[0].nominal_mm = sum + std::uniform_real_distribution<double>(-0.5, 0.6)(random);
            const ClosingSums sums = closingSums(chain);
            constexpr int kDraws = 400000;
            const double drawn = closingByDraws(chain, kDraws, 100 + unsigned(round));
            const double p = sums.probability, error = std::sqrt(std::max(p * (1 - p), 1e-6) / kDraws);
            QVERIFY2(std::abs(drawn - p) < 3.5 * error, qPrintable(QString("%1 against %2").arg(drawn).arg(p)));
            QVERIFY(sums.worst_mm < sums.nominal_mm - sums.likely_mm && sums.best_mm > sums.nominal_mm);
        }
        QCOMPARE(closingSums(std::vector<Contribution>{{"a", -1, 1, 1, 0}}).probability, 1.0);
        QCOMPARE(closingSums(std::vector<Contribution>{{"a", -1, -1, 1, 0}}).probability, 0.0);
        // Two standard deviations to the edge: 97.725 % (standard normal table).
        QVERIFY(near(closingSums(std::vector<Contribution>{{"a", -1, 0.3, 1, 0.3}}).probability, 0.977249868, 1e-8));
    }
    void aMeasuredLayerBeatsTheCatalogue() {
        Layers layers(plateForStacks(12));
        layers.spacer(8).board(boardType("fc"));
        const Build exact = *setLayer(layers.build(), layers.id(), 1, measuredValue(7.8, 0.02), 0, {});
        const StackReport report = *reportOn(exact, exact.stacks[0], practiceOf({}));
        QVERIFY(near(report.closest.gap_mm, 12 - 7.8 - 1.6));
        QVERIFY(near(report.layers[1].tolerance_mm, 0.02));
        Aabb box;
        const Part &spacer = *findPart(exact, exact.stacks[0].layers[1].parts[0]);
        for (const auto &solid : placedSolids(exact, spacer))
            box.include(boundsOf(solid.shape, framePose(exact, spacer) * solid.X_PartSolid));
        QVERIFY(near(box.max_mm.z(), 7.8));
    }
    void cutDampersWeighAndReachLess() {
        Layers layers(plateForStacks());
        layers.damper(4, 0.2).board(boardType("fc"));
        const Build cut = *setLayer(layers.build(), layers.id(), 1, {}, 0.2, 2.0);
        QVERIFY(near(chainOf(cut, cut.stacks[0])->spans[1].to_mm, 1.6));
        Analyser whole, half;
        auto massOf = [](const Analysis &analysis, const std::string &id) {
            return gramsOf(analysis.derived, id).value_or(-1);
        };
        const std::string damper = layers.stack().layers[1].parts[0];
        QVERIFY(near(massOf(half.update(cut), damper), massOf(whole.update(layers.build()), damper) / 2));
    }
    void dampersAreToBeSqueezedWithinReason() {
        for (const auto &[squeeze, variant] : {std::pair{0.05, "loose"}, {0.1, ""}, {0.3, ""}, {0.4, "hard"}}) {
            Layers layers(plateForStacks());
            layers.damper(4, squeeze).board(boardType("fc"));
            const auto found = findingsOf(layers.build(), RuleId::stkDamper);
            QCOMPARE(found.empty(), std::string(variant).empty());
            if (found.empty()) continue;
            QCOMPARE(found[0].variant, std::string(variant));
            QVERIFY(findingsOf(*applyFix(layers.build(), found[0].fixes.at(0)), RuleId::stkDamper).empty());
        }
    }
    void aSheetCarriesWhatIsStuckFlatOnIt() {
        // 1 mm of foam tape on the plate, the board on it; what hangs 0.4 mm from it sinks into the foam.
        const auto flat = [](double hangs) {
            Layers layers(plateForStacks());
            layers.filler(LayerRole::sheet, 1)
                .board(boardType("fc", 1.6, {pieceOf(SolidRole::component, {5, 5, hangs}, {0, 0, -hangs / 2})}));
            return layers;
        };
        const Layers layers = flat(0.4);
        QVERIFY(sheetCarries(layers.stack(), 1));
        const auto chain = chainOf(layers.build(), layers.stack());
        QVERIFY(near(chain->spans[1].to_mm, 1) && near(chain->spans[2].from_mm, 1) && near(chain->top_mm, 2.6));
        QVERIFY(near(
            framePose(layers.build(), *findPart(layers.build(), layers.stack().layers[2].parts[0])).position_mm.z(),
            1));
        for (const auto rule : {RuleId::fitOverlap, RuleId::stkInsulation})
            QVERIFY(findingsOf(layers.build(), rule).empty());
        for (const auto &f : findingsOf(layers.build(), RuleId::stkGap)) QVERIFY(f.severity != Severity::stop);
        // What hangs deeper than it is thick reaches the plate.
        const auto deep = findingsOf(flat(1.2).build(), RuleId::stkGap);
        QVERIFY(std::any_of(deep.begin(), deep.end(), [](const Finding &f) { return f.severity == Severity::stop; }));
        // On spacers it only lies there.
        Layers spaced(plateForStacks());
        spaced.filler(LayerRole::sheet, 1).spacer(5).board(boardType("fc"));
        QVERIFY(!sheetCarries(spaced.stack(), 1));
        QVERIFY(near(chainOf(spaced.build(), spaced.stack())->top_mm, 6.6));
    }
    void solderedThingsKeepOffTheCarbon() {
        const auto joints = pieceOf(SolidRole::component, {20, 20, 1.4}, {0, 0, -0.7}, "copper", true);
        auto underside = [&](double spacer, bool sheet) {
            Layers layers(plateForStacks());
            if (sheet) layers.filler(LayerRole::sheet, 0.2);
            layers.spacer(spacer).board(boardType("esc", 1.6, {joints}));
            return findingsOf(layers.build(), RuleId::stkInsulation);
        };
        QVERIFY(underside(4, false).empty()); // 2.6 mm of air
        const auto close = underside(3, false);
        QCOMPARE(close.size(), std::size_t(1));
        QCOMPARE(close[0].severity, Severity::watch);
        QVERIFY(near(*close[0].measured, 1.6));
        QVERIFY(underside(3, true).empty()); // an insulating sheet lies between
        // A board right on the plate.
        Layers flat(plateForStacks());
        flat.board(boardType("esc"));
        const auto touching = findingsOf(flat.build(), RuleId::stkInsulation);
        QCOMPARE(touching.size(), std::size_t(1));
        QCOMPARE(touching[0].severity, Severity::stop);
        // On glass laminate it may.
        Build glass = flat.build();
        glass.frame.edit([](Frame &frame) { frame.plates[0].material = "glass-laminate"; });
        QVERIFY(findingsOf(glass, RuleId::stkInsulation).empty());
    }
    void metalHardwareKeepsOffBareMetal() {
        // A bare pad whose edge is 0.6 mm from the nut's corner circle: nut M3, 5.5 across flats, hole at 15.25.
        auto padTo = [](double edge) {
            return pieceOf(SolidRole::component, {4, 4, 0.4}, {edge - 2, 15.25, 1.8}, "copper", true);
        };
        const double flat = 15.25 - 5.5 / std::sqrt(3.0); // a corner points along x
        for (const double gap : {0.6, 1.4}) {
            Layers layers(plateForStacks());
            layers.spacer(5).board(boardType("fc", 1.6, {padTo(flat - gap)})).nut();
            const auto found = findingsOf(layers.build(), RuleId::stkInsulation);
            QCOMPARE(found.size(), std::size_t(gap < 1 ? 1 : 0));
            if (!found.empty()) QVERIFY(near(*found[0].measured, gap, 1e-3));
            Layers nylon(plateForStacks());
            nylon.spacer(5)
                .board(boardType("fc", 1.6, {padTo(flat - gap)}))
                .hardware({FastenerForm::nut, "M3"}, "nylon");
            QVERIFY(findingsOf(nylon.build(), RuleId::stkInsulation).empty());
        }
    }
    void wireEndsStandOutUnderSolderedPads() {
        PartType board = boardType("fc");
        Port pads;
        pads.id = "uart1";
        pads.position_mm = {18, 0, 1.6};
        for (const char *name : {"5V", "GND", "TX", "RX"}) pads.pins.push_back({name, {}, false});
        board.ports = {pads};
        Layers layers(plateForStacks());
        layers.spacer(5).board(board);
        const StackReport report = reportOf(layers);
        QVERIFY(near(report.layers[2].hangsDown_mm, 2));
        QVERIFY(near(report.bare.at(0).air_mm, 3));
        Build cut = layers.build();
        cut.practice.limits["wire-ends"] = 1;
        QVERIFY(near(reportOn(cut, cut.stacks[0], practiceOf(cut.practice))->bare.at(0).air_mm, 4));
    }
    void hiddenPlugsAreMatedFirst() {
        Layers layers(plateForStacks());
        layers.spacer(6).board(withPlugBelow());
        QCOMPARE(findingsOf(layers.build(), RuleId::stkOrder).size(), std::size_t(1));
        QVERIFY(findingsOf(*flipBoard(layers.build(), layers.id(), 2), RuleId::stkOrder).empty());
    }
    void plugsOfABoardUnderThePlateAreHiddenOnItsUpperFace() {
        const Layers layers(plateForStacks());
        Build hanging = *addBoard(layers.build(), layers.id(), 0, withPlugBelow());
        hanging = *addHardware(hanging, layers.id(), 1, made({FastenerForm::spacer, "M3", 6}, "nylon"));
        QVERIFY(findingsOf(hanging, RuleId::stkOrder).empty()); // it looks down, away from the plate
        const auto turned = findingsOf(*flipBoard(hanging, layers.id(), 0), RuleId::stkOrder);
        QCOMPARE(turned.size(), std::size_t(1));
        QCOMPARE(turned[0].subjects.back(), carrierOf(hanging, hanging.stacks[0]));
    }
    void flatCablesGoRoundTheBoards() {
        // From the middle of one side of a 40 x 30 rectangle to the middle of the opposite one: along two corners.
        QVERIFY(near(wayRound_mm({20, 0}, {-20, 0}, {20, 15}), 15 + 40 + 15));
        QVERIFY(near(wayRound_mm({20, 0}, {0, 15}, {20, 15}), 15 + 20));
        QVERIFY(near(wayRound_mm({20, -5}, {20, 5}, {20, 15}), 10)); // along the side
        QVERIFY(near(wayRound_mm({30, 0}, {30, 9}, {20, 15}), 9));
        auto withPlug = [](const std::string &id, double side) {
            PartType board = boardType(id);
            Port plug;
            plug.id = "link";
            plug.kind = PortKind::socket;
            plug.position_mm = {18 * side, 0, 3};
            plug.direction = {side, 0, 0};
            for (const char *name : {"BAT", "GND", "M1", "M2", "M3", "M4"}) plug.pins.push_back({name, {}, false});
            board.ports = {plug};
            return board;
        };
        Layers alike(plateForStacks());
        alike.spacer(5).board(withPlug("esc", 1)).spacer(6).board(withPlug("fc", 1));
        const Harness straight = reportOf(alike).harnesses.at(0);
        QVERIFY(near(straight.turn_deg, 0) && !straight.halfTwist && straight.samePins);
        QVERIFY(near(straight.length_mm, 3 + 7.6 + 3)); // straight out, up, straight in
        Layers apart(plateForStacks());
        apart.spacer(5).board(withPlug("esc", 1)).spacer(6).board(withPlug("fc", -1));
        const Harness round = reportOf(apart).harnesses.at(0);
        QVERIFY(near(round.turn_deg, 180, 1e-6) && near(std::abs(round.bestTurn_deg), 180));
        QVERIFY(near(round.bestLength_mm, 13.6, 1e-6));
        // Out 3 mm at either end, round two corners of the 36 mm board with 1 mm of air, and 7.6 mm up on the way.
        QVERIFY(near(round.length_mm, 6 + std::hypot(2 * std::hypot(2, 19) + 38, 7.6), 1e-6));
        const auto found = findingsOf(apart.build(), RuleId::stkHarness);
        QCOMPARE(found.size(), std::size_t(1));
        const Build turned = *applyFix(apart.build(), found[0].fixes.at(0));
        QVERIFY(findingsOf(turned, RuleId::stkHarness).empty());
        // Upside down and turned so that the plugs meet again: the pin rows run against each other.
        const Build over = *turnBoard(*flipBoard(alike.build(), alike.id(), 4), alike.id(), 4, 0);
        QVERIFY(reportOn(over, over.stacks[0], practiceOf({}))->harnesses.at(0).halfTwist);
    }
};

QTEST_APPLESS_MAIN(TestStack)
#include "test_stack.moc"
