// What must agree with one another in every build: kit, bill, masses, screws, findings.
#include "core/analysis/analysis.h"
#include "core/balance/mass_rows.h"
#include "core/clearance/clearance_world.h"
#include "core/derived/all_up.h"
#include "core/edits/group_edits.h"
#include "core/edits/kit_edits.h"
#include "core/edits/part_edits.h"
#include "core/kit/bill.h"
#include "core/kit/holding.h"
#include "core/kit/kit.h"
#include "core/practice/practice.h"
#include "core/stack/motor_screws.h"
#include "support/builds.h"
#include "support/stacks.h"

#include <map>

using namespace waxis;
using namespace waxis::test;

namespace {

Build demo(const char *name) {
    auto loaded = loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + name + ".waxis");
    if (!loaded) qFatal("%s", loaded.error().text().c_str());
    return loaded->build;
}

/// By item: pieces of what holds parts and of placed hardware; a set counts what it holds.
using Pieces = std::map<std::string, int>;

bool isHardware(const PartType &type) {
    return type.kind == PartKind::fastener || type.kind == PartKind::damper || type.kind == PartKind::strap;
}

Pieces inKit(const Build &build, const Derived &derived) {
    Pieces pieces;
    for (const auto &line : derived.kit) {
        const auto type = build.types->find(line.item);
        const bool placed = type != build.types->end();
        if (placed ? !isHardware(type->second) : line.kind != KitKind::hardware) continue;
        if (line.needed > 0)
            pieces[line.item] += line.needed * (placed && type->second.fastener ? type->second.fastener->pieces : 1);
    }
    return pieces;
}

Pieces inBill(const Build &build, const Practice &practice) {
    Pieces pieces;
    for (const auto &row : hardwareBill(build, practice).rows) pieces[row.item] += row.pieces;
    return pieces;
}

/// Grams of rows of one kind.
double grams(const Derived &derived, MassKind kind) {
    double sum = 0;
    for (const auto &row : derived.massRows)
        if (row.kind == kind) sum += row.element.mass_g;
    return sum;
}

/// What the pieces that are not drawn weigh, as weighed in the box or as reckoned.
double heldGrams(const Build &build, const Practice &practice) {
    double sum = 0;
    for (const auto &part : build.parts)
        for (const auto &piece : holdingOf(build, part, practice).pieces) {
            const KitEntry *inBox = findKitEntry(build, piece.item);
            sum += piece.pieces * (inBox && inBox->mass_g.known() ? *inBox->mass_g.value : piece.piece_g);
        }
    for (const auto &[member, row, piece, at_mm] : frameHardware(build, practice)) {
        const KitEntry *inBox = findKitEntry(build, piece.item);
        sum += inBox && inBox->mass_g.known() ? *inBox->mass_g.value : piece.piece_g;
    }
    return sum;
}

std::set<std::string> idsOf(const Build &build) {
    std::set<std::string> ids;
    const Frame &frame = *build.frame;
    const auto add = [&](const auto &list) {
        for (const auto &thing : list) ids.insert(thing.id);
    };
    add(build.parts), add(build.wires), add(build.stacks), add(build.ties), add(build.allowances);
    add(build.groundStations), add(build.weightLimits), add(build.weighings), add(frame.passThroughs);
    add(frame.plates), add(frame.arms), add(frame.standoffs), add(frame.screws), add(frame.sites),
        add(frame.motorMounts);
    return ids;
}

/// Every promise of this page for one build; the first that is broken, in words.
QString brokenIn(const Build &build, const std::optional<Practice> &practice = {}) {
    Analyser analyser;
    const Analysis &analysis = analyser.update(build, practice);
    const Derived &derived = analysis.derived;
    const Pieces kit = inKit(build, derived), bill = inBill(build, analysis.practice);
    for (const auto &[item, pieces] : bill)
        if (!kit.contains(item) || kit.at(item) != pieces)
            return QString("bill: %1 x %2, kit: %3")
                .arg(pieces)
                .arg(item.c_str())
                .arg(kit.contains(item) ? kit.at(item) : 0);
    if (kit.size() != bill.size()) return "the kit has hardware that the bill has not";
    if (std::abs(grams(derived, MassKind::fastening) - heldGrams(build, analysis.practice)) > 1e-9)
        return "mass rows and pieces differ";
    for (const auto &screws : derived.motorScrews) {
        const Holding holding = holdingOf(build, *findPart(build, screws.motor), analysis.practice);
        if (screws.placed.empty() != holding.drawn.empty())
            return QString("%1: drawn or not drawn").arg(screws.motor.c_str());
        if (!holding.drawn.empty() || findPart(build, screws.motor)->fastening.pieces == std::optional(0)) continue;
        if (!screws.best_mm != holding.pieces.empty() || holding.pieces.empty() == holding.unknown.empty())
            return QString("%1: known or not known").arg(screws.motor.c_str());
        if (screws.best_mm &&
            holding.pieces[0].item !=
                made({FastenerForm::screw, std::string(screws.thread->name), *screws.best_mm}, "steel").id)
            return QString("%1: %2 is ordered").arg(screws.motor.c_str(), holding.pieces[0].item.c_str());
    }
    for (std::size_t i = 0; i < allUpCount(derived); ++i) {
        double sum = 0;
        for (const auto &row : derived.massRows)
            if (row.cases >> i & 1) sum += row.element.mass_g;
        if (std::abs(allUp(derived, i).mass_g - sum) > 1e-9) return "rows and balance differ";
    }
    return {};
}

} // namespace

class TestInvariants : public QObject {
    Q_OBJECT

private slots:
    void demosAgreeWithThemselves_data() {
        QTest::addColumn<QString>("name");
        for (const char *name : {"stakewalker", "kilnlamp", "owlbox-mini", "sedge-tri"}) QTest::newRow(name) << name;
    }
    void demosAgreeWithThemselves() {
        QFETCH(QString, name);
        const Build build = demo(qPrintable(name));
        QCOMPARE(brokenIn(build), QString());
        for (const char *profile : {"sprint", "range", "lift", "pocket"})
            QCOMPARE(brokenIn(build, practiceOfProfile(profile)), QString());
    }
    void randomBuildsAgreeWithThemselves() {
        std::mt19937 random(1812);
        const std::vector<Build> demos{demo("stakewalker"), demo("kilnlamp"), demo("owlbox-mini"), demo("sedge-tri")};
        constexpr std::array kMethods{FasteningMethod::screws, FasteningMethod::tape,  FasteningMethod::hookAndLoop,
                                      FasteningMethod::ties,   FasteningMethod::strap, FasteningMethod::none};
        for (int n = 0; n < 200; ++n) {
            Build build = demos[random() % demos.size()];
            build.wires.clear(); // leading them has nothing to do with it, and takes long
            build.ties.clear();
            for (int change = 0; change < 6 && !build.parts.empty(); ++change) {
                const Part part = build.parts[random() % build.parts.size()];
                EditResult next = build;
                switch (random() % 5) {
                case 0: next = removePart(build, part.id); break;
                case 1:
                    next = shiftPart(build, part.id, {double(random() % 80) - 40, double(random() % 80) - 40, 0});
                    break;
                case 2: {
                    Fastening fastening = part.fastening;
                    fastening.method = kMethods[random() % kMethods.size()];
                    if (random() % 3 == 0) fastening.pieces = int(random() % 5);
                    next = fastenPart(build, part.id, fastening);
                    break;
                }
                case 3:
                    next = weighKit(build, random() % 2 ? part.type : "screw-m3x8",
                                    measuredValue(double(random() % 50) / 10));
                    break;
                default:
                    if (!part.fastening.onto.empty() && !build.frame->plates.empty()) {
                        Fastening fastening = part.fastening;
                        fastening.onto = {build.frame->plates[random() % build.frame->plates.size()].id};
                        next = fastenPart(build, part.id, fastening);
                    }
                }
                if (next) build = *next;
            }
            QVERIFY2(brokenIn(build).isEmpty(), qPrintable(QString("build %1: ").arg(n) + brokenIn(build)));
        }
    }
    void findingsNameWhatIsThere_data() { demosAgreeWithThemselves_data(); }
    void findingsNameWhatIsThere() {
        QFETCH(QString, name);
        const Build build = demo(qPrintable(name));
        Analyser analyser;
        const auto known = idsOf(build);
        for (const auto &finding : analyser.update(build).findings)
            for (const auto &subject : finding.subjects) {
                // Kit items, radios ("part" or "part:band") and discs of motor mounts have names made of ids.
                const std::string id = subject.substr(0, subject.find_first_of(":/@"));
                QVERIFY2(known.contains(id) || !kitItemName(build, subject).empty() || build.types->contains(id) ||
                             std::any_of(build.loadCases.begin(), build.loadCases.end(),
                                         [&](const LoadCase &c) { return c.name == subject || c.id == subject; }),
                         (finding.key() + " names " + subject).c_str());
            }
    }

    // What was wrong before what holds a part had one answer.

    void aPropellerNutLeavesTheMotorItsScrews() {
        const Build build = demo("sedge-tri");
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        int needed = 0;
        for (const auto &line : derived.kit)
            if (line.item == "screw-m3x10") needed = line.needed;
        QCOMPARE(needed, 12);
        int rows = 0;
        for (const auto &row : derived.massRows)
            rows += row.kind == MassKind::fastening && row.id.starts_with("motor") && row.element.mass_g > 1;
        QCOMPARE(rows, 3);
    }
    void aKitWeightOfOnePieceIsOfOnePiece() {
        const Build build = *weighKit(demo("owlbox-mini"), "screw-m2x6", measuredValue(0.3));
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        double inRows = 0;
        for (const auto &row : analysis.derived.massRows)
            if (row.kind == MassKind::fastening && row.id.starts_with("motor")) inRows += row.element.mass_g;
        for (const auto &row : hardwareBill(build, analysis.practice).rows)
            if (row.item == "screw-m2x6") {
                QCOMPARE(row.pieces, 16);
                QVERIFY(std::abs(row.piece_g * row.pieces - 16 * 0.3) < 1e-9);
            }
        QVERIFY(std::abs(inRows - 16 * 0.3) < 1e-9);
    }
    void thePracticeInForceChoosesTheScrews() {
        // A profile from the command line that wants half a millimetre of thread and two in reserve.
        Practice tight = practiceOf({});
        tight.limits[std::size_t(Limit::motorReserve)] = 2;
        tight.limits[std::size_t(Limit::motorEngagementM2)] = 0.5;
        const Build build = demo("owlbox-mini");
        Analyser analyser;
        const Derived &derived = analyser.update(build, tight).derived;
        QVERIFY(derived.motorScrews[0].best_mm && *derived.motorScrews[0].best_mm < 6);
        for (const auto &line : derived.kit) QVERIFY(line.item != "screw-m2x6" || line.needed == 0);
        QCOMPARE(brokenIn(build, tight), QString());
    }
    void screwsThroughWhatIsNotKnownAreNotOrdered() {
        const Build build = demo("kilnlamp");
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        for (const auto &line : analysis.derived.kit) QVERIFY(line.item != "screw-m3x30");
        for (const auto &part : build.parts)
            if (typeOf(build, part)->kind == PartKind::motor)
                QVERIFY(!holdingOf(build, part, analysis.practice).unknown.empty());
    }
    void aMotorThatMovesTakesOtherScrews() {
        // Nothing names its arm: what it stands on is what is near.
        Build build = withMotor(5, 0);
        for (auto &part : build.parts)
            if (typeOf(build, part)->kind == PartKind::motor) part.fastening.onto.clear();
        const std::string motor = [&] {
            for (const auto &part : build.parts)
                if (typeOf(build, part)->kind == PartKind::motor) return part.id;
            return std::string();
        }();
        Analyser analyser;
        QVERIFY(analyser.update(build).derived.motorScrews->at(0).gripKnown);
        const Derived &away = analyser.update(*shiftPart(build, motor, {60, 60, 0})).derived;
        QVERIFY(!away.motorScrews->at(0).gripKnown);
        QVERIFY(std::none_of(away.massRows.begin(), away.massRows.end(),
                             [](const MassRow &row) { return row.kind == MassKind::fastening; }));
        const Derived &back = analyser.update(build).derived;
        QVERIFY(std::any_of(back.massRows.begin(), back.massRows.end(),
                            [](const MassRow &row) { return row.kind == MassKind::fastening; }));
    }
    void aCopiedAnalysisKeepsItsWorld() {
        const Build build = stakewalker();
        Analysis copy;
        std::vector<Vec3> before;
        {
            Analyser analyser;
            copy = analyser.update(build);
            for (const auto &body : copy.derived.scene.world->bodies()) before.push_back(body.X_FrameBody.position_mm);
            analyser.update(*shiftPart(build, "gps", {7, 0, 0}));
            analyser.update(*shiftPart(build, "gps", {9, 0, 0}));
        }
        const auto &bodies = copy.derived.scene.world->bodies();
        QCOMPARE(bodies.size(), before.size());
        for (std::size_t i = 0; i < bodies.size(); ++i) QVERIFY(bodies[i].X_FrameBody.position_mm == before[i]);
    }
};

QTEST_GUILESS_MAIN(TestInvariants)
#include "test_invariants.moc"
