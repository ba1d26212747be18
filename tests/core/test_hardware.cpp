// Hardware: sizes and masses against the ISO tables, which screw, motor screws, male ends, kit and mass.
// Source of the numbers: ISO 4762, 7380-1, 10642, 4032, 7040, 10511, 7089, 888, 68-1 from memory, as tabulated in the
// design's reference values (section D); masses there are computed from them for density 7.85, 4.43, 2.81 and 1.14
// g/cm3.
#include "core/analysis/analysis.h"
#include "core/derived/all_up.h"
#include "core/edits/stack_change.h"
#include "core/fasteners/screw.h"
#include "core/kit/bill.h"
#include "core/kit/kit.h"
#include "core/practice/practice.h"
#include "core/remedies/stack_changes.h"
#include "core/rules/wording.h"
#include "core/stack/motor_screws.h"
#include "core/stack/report.h"
#include "support/stacks.h"

#include <QtTest>
#include <array>

using namespace waxis;
using namespace waxis::test;

namespace {

bool near(double a, double b, double within = 1e-9) { return std::abs(a - b) <= within; }

StackReport reportOf(const Build &build) { return *reportOn(build, build.stacks[0], practiceOf(build.practice)); }

double allUp_g(const Build &build) {
    Analyser analyser;
    return allUp(analyser.update(build).derived).mass_g;
}

Finding theFinding(const Build &build, RuleId rule) {
    Analyser analyser;
    for (const auto &f : analyser.update(build).findings)
        if (f.rule == rule) return f;
    Finding none;
    none.severity = Severity::pass;
    return none;
}

} // namespace

class TestHardware : public QObject {
    Q_OBJECT

private slots:
    void headsAndNutsAreThoseOfTheTables() {
        struct Row {
            const char *thread;
            double cap_dk, cap_k, nut, nutFlats, washer;
        };
        for (const Row &row :
             {Row{"M1.6", 3, 1.6, 1.3, 3.2, 0.3}, Row{"M2", 3.8, 2, 1.6, 4, 0.3}, Row{"M2.5", 4.5, 2.5, 2, 5, 0.5},
              Row{"M3", 5.5, 3, 2.4, 5.5, 0.5}, Row{"M4", 7, 4, 3.2, 7, 0.8}}) {
            const ThreadSize &thread = *findThread(row.thread);
            QCOMPARE(headOf(thread, HeadStyle::cap)->diameter_mm, row.cap_dk);
            QCOMPARE(headOf(thread, HeadStyle::cap)->height_mm, row.cap_k);
            QCOMPARE(*nutHeight_mm(thread, FastenerForm::nut), row.nut);
            QCOMPARE(thread.nutFlats_mm, row.nutFlats);
            QCOMPARE(made({FastenerForm::washer, row.thread}, "steel").fastener->length_mm, row.washer);
        }
        const ThreadSize &m3 = *findThread("M3"), &m4 = *findThread("M4");
        QCOMPARE(headOf(m3, HeadStyle::button)->diameter_mm, 5.7);
        QCOMPARE(headOf(m3, HeadStyle::button)->height_mm, 1.65);
        QCOMPARE(headOf(m4, HeadStyle::button)->diameter_mm, 7.6);
        QCOMPARE(headOf(m4, HeadStyle::button)->height_mm, 2.2);
        QCOMPARE(headOf(m3, HeadStyle::countersunk)->diameter_mm, 6.72);
        QCOMPARE(headOf(m3, HeadStyle::countersunk)->height_mm, 1.86);
        QCOMPARE(headOf(m4, HeadStyle::countersunk)->diameter_mm, 8.96);
        QCOMPARE(headOf(m4, HeadStyle::countersunk)->height_mm, 2.48);
        QVERIFY(!headOf(*findThread("M1.6"), HeadStyle::button));
        QVERIFY(!headOf(*findThread("M2"), HeadStyle::button)->fromStandard);
        QCOMPARE(*nutHeight_mm(m3, FastenerForm::lockNut), 4.5);
        QCOMPARE(*nutHeight_mm(m4, FastenerForm::lockNut), 6.0);
        QCOMPARE(*nutHeight_mm(m3, FastenerForm::thinLockNut), 3.9);
        QCOMPARE(*nutHeight_mm(m4, FastenerForm::thinLockNut), 5.0);
        QVERIFY(!nutHeight_mm(*findThread("M1.6"), FastenerForm::lockNut));
    }
    void screwMassesAreThoseOfTheTable() {
        struct Row {
            const char *thread;
            double length, steel, titanium, aluminium, nylon;
        };
        for (const Row &row :
             {Row{"M3", 6, 0.775, 0.437, 0.277, 0.112}, Row{"M3", 8, 0.865, 0.488, 0.310, 0.126},
              Row{"M3", 10, 0.955, 0.539, 0.342, 0.139}, Row{"M3", 12, 1.045, 0.590, 0.374, 0.152},
              Row{"M3", 16, 1.225, 0.691, 0.439, 0.178}, Row{"M3", 20, 1.405, 0.793, 0.503, 0.204},
              Row{"M3", 30, 1.856, 1.047, 0.664, 0.270}, Row{"M2", 8, 0.316, 0.178, 0.113, 0.046},
              Row{"M2.5", 10, 0.590, 0.333, 0.211, 0.086}, Row{"M4", 12, 2.037, 1.150, 0.729, 0.296}}) {
            const FastenerData screw{FastenerForm::screw, row.thread, row.length};
            for (const auto &[material, mass] : {std::pair{"steel", row.steel},
                                                 {"titanium", row.titanium},
                                                 {"aluminium-7075", row.aluminium},
                                                 {"nylon", row.nylon}}) {
                const PartType type = made(screw, material);
                QVERIFY2(near(*type.mass_g.value, mass, 0.0006), material); // the table has three decimals
                QVERIFY(near(*type.mass_g.tolerance, *type.mass_g.value / 10));
            }
        }
        // Other heads are lower: lighter than the cylinder of a cap screw.
        const double cap = *made({FastenerForm::screw, "M3", 10}, "steel").mass_g.value;
        const double button = *made({FastenerForm::screw, "M3", 10, HeadStyle::button}, "steel").mass_g.value;
        const double sunk = *made({FastenerForm::screw, "M3", 10, HeadStyle::countersunk}, "steel").mass_g.value;
        QVERIFY(button < cap && sunk < cap);
    }
    void madeTypesWeighWhatTheirSolidsSay() {
        for (const FastenerData &data :
             {FastenerData{FastenerForm::nut, "M3"}, FastenerData{FastenerForm::lockNut, "M4"},
              FastenerData{FastenerForm::washer, "M3"}, FastenerData{FastenerForm::spacer, "M3", 8},
              FastenerData{FastenerForm::shim, "M2", 0.5}}) {
            const PartType type = made(data, "steel");
            double solids = 0;
            for (const auto &solid : type.solids) solids += shapeProperties(solid.shape).volume_mm3 * 7.85e-3;
            QVERIFY2(std::abs(*type.mass_g.value / solids - 1) < 0.12,
                     type.name.c_str()); // bores are drawn at the outer diameter
            QVERIFY(near(clampedSpan(type).to_mm, type.fastener->length_mm) && near(clampedSpan(type).from_mm, 0));
        }
        // Hexagon of 5.5 mm over flats, sqrt(3)/2 s2, less the mean thread of ISO 68-1, 2.4 mm high.
        const double nut = (std::sqrt(3.0) / 2 * 5.5 * 5.5 - meanThreadArea_mm2(3, 0.5)) * 2.4 * 7.85e-3;
        QVERIFY(near(*made({FastenerForm::nut, "M3"}, "steel").mass_g.value, nut));
        QVERIFY(!fastenerType({FastenerForm::screw, "M3", 0}, "steel") &&
                !fastenerType({FastenerForm::shim, "M3", 9}, "steel"));
        QVERIFY(!damperType("M9", 4) && !damperType("M3", 0));
    }
    void throughScrewsAgreeWithTheTable() {
        // Design reference D: grips, washers, nut and pitch; needed, chosen, protruding.
        struct Row {
            double grip, washers, nut, needs, choose, out;
            const char *thread;
        };
        for (const Row &row : {Row{5.0, 0.5, 4, 10.0, 10, 0.5, "M3"}, Row{2.0, 0, 2.4, 4.9, 5, 0.6, "M3"},
                               Row{8.1, 0.5, 4, 13.1, 14, 1.4, "M3"}, Row{3.6, 0.3, 1.6, 5.9, 6, 0.5, "M2"}}) {
            ScrewTask task;
            task.thread = findThread(row.thread);
            task.grip_mm = row.grip + row.washers;
            task.nut_mm = row.nut;
            const ScrewChoice choice = chooseLength(task, practiceOf({}));
            QVERIFY(near(choice.least_mm, row.needs));
            QCOMPARE(*choice.best_mm, row.choose);
            QVERIFY(near(judgeScrew(task, row.choose, practiceOf({})).beyond_mm, row.out));
        }
    }
    void longerAndShorterScrewsSayWhyTheyFail() {
        Layers layers(plateForStacks(14));
        layers.spacer(5).board(boardType("fc")).nut();
        const StackReport report = reportOf(layers.build());
        // grip 2 + 5 + 1.6, nut 2.4, half a millimetre out: 11.5; room over the nut 14 - 5 - 1.6 - 2.4 = 5.0.
        QVERIFY(near(report.screw.task.grip_mm, 8.6) && near(report.screw.choice.least_mm, 11.5));
        QVERIFY(near(*report.screw.task.room_mm, 5.0) && report.screw.task.meets == "high");
        auto verdict = [&](double length) { return judgeScrew(report.screw.task, length, practiceOf({})).verdict; };
        QCOMPARE(verdict(10), ScrewVerdict::short_);
        QCOMPARE(verdict(12), ScrewVerdict::good);
        QCOMPARE(verdict(14), ScrewVerdict::good);  // 3.0 past: just what the practice allows
        QCOMPARE(verdict(16), ScrewVerdict::long_); // 5.0: touches, does not press
        QCOMPARE(verdict(18), ScrewVerdict::strikes);
        QCOMPARE(*report.screw.choice.best_mm, 12.0);
        const Finding shorty = theFinding(
            *chooseScrew(layers.build(), layers.id(), {FastenerForm::screw, "M3", 10}, "steel"), RuleId::stkScrew);
        QCOMPARE(shorty.severity, Severity::stop);
        QVERIFY(near(shorty.margin, -1.5));
        QCOMPARE(shorty.fixes.at(0).as<StackChange>()->value, 12.0);
        const Finding longer = theFinding(
            *chooseScrew(layers.build(), layers.id(), {FastenerForm::screw, "M3", 18}, "steel"), RuleId::stkScrew);
        QCOMPARE(longer.severity, Severity::stop);
        QCOMPARE(longer.variant, std::string("strikes"));
        // A hole in the plate above lets it out.
        Build holed = *chooseScrew(layers.build(), layers.id(), {FastenerForm::screw, "M3", 18}, "steel");
        holed.frame.edit([](Frame &frame) {
            for (const auto &c : holeCentres(*frame.sites[0].pattern)) frame.plates[1].holes.push_back({c, 4.0});
        });
        QCOMPARE(theFinding(holed, RuleId::stkScrew).severity, Severity::watch);
    }
    void boardsBeyondTheNutsAreHeldByNothing() {
        Layers layers(plateForStacks());
        layers.spacer(5).board(boardType("esc")).nut().spacer(5).board(boardType("fc")).screw(12);
        const Finding loose = theFinding(layers.build(), RuleId::stkScrew);
        QCOMPARE(loose.variant, std::string("loose"));
        QCOMPARE(loose.severity, Severity::stop);
        QCOMPARE(loose.subjects[0], layers.stack().layers[5].parts[0]);
        Layers none(plateForStacks());
        none.spacer(5).board(boardType("esc")).screw(12);
        const Finding missing = theFinding(none.build(), RuleId::stkScrew);
        QCOMPARE(missing.variant, std::string("no-nut"));
        QVERIFY(theFinding(*applyFix(none.build(), missing.fixes.at(0)), RuleId::stkScrew).severity == Severity::pass);
    }
    void headsOutsideTurnIntoTheFrame() {
        Layers layers(plateForStacks());
        layers.spacer(5).board(boardType("fc")).base({"Stack", "", true, ScrewEnd::frame, {}});
        // Tapped carbon counts as plastic: two diameters, but the plate is 2 mm thick and open below.
        const StackReport open = reportOf(layers.build());
        QVERIFY(near(open.screw.task.grip_mm, 6.6) && near(open.screw.choice.least_mm, 6.6 + 6));
        // A blind press nut of 4 mm in steel: engagement 3, 12 mm would bottom out.
        Build blind = layers.build();
        blind.frame.edit([](Frame &frame) { frame.plates[0].material = "steel"; });
        blind = *setStackBase(blind, layers.id(), {"Stack", "", true, ScrewEnd::frame, measuredValue(4)});
        const StackReport report = reportOf(blind);
        QVERIFY(near(report.screw.choice.least_mm, 9.6) && near(*report.screw.choice.most_mm, 10.6));
        QCOMPARE(*report.screw.choice.best_mm, 10.0);
        const Build longer = *chooseScrew(blind, layers.id(), {FastenerForm::screw, "M3", 12}, "steel");
        const Finding f = theFinding(longer, RuleId::stkScrew);
        QCOMPARE(f.variant, std::string("bottoms"));
        QVERIFY(near(f.margin, -1.4));
        // Shims of that thickness make up the difference.
        const Fix &shim = f.fixes.back();
        QCOMPARE(shim.as<StackChange>()->kind, StackChangeKind::shim);
        QVERIFY(near(shim.as<StackChange>()->value, 1.4));
        QCOMPARE(theFinding(*applyFix(longer, shim), RuleId::stkScrew).severity, Severity::pass);
        // The screws stand head up.
        const Part &screw = *findPart(longer, longer.stacks[0].screws[0]);
        const Pose pose = framePose(longer, screw);
        QVERIFY(near(pose.position_mm.z(), 6.6) && near((pose * Vec3(0, 0, 12)).z(), -5.4));
    }
    void pressNutsAreNutsUnderTheFrame() {
        Layers layers(plateForStacks());
        layers.spacer(5).board(boardType("fc")).base({"Stack", "", true, ScrewEnd::nut, {}});
        const Build pressed =
            *addHardware(layers.build(), layers.id(), 0, made({FastenerForm::pressNut, "M3"}, "steel"));
        const StackReport report = reportOf(pressed);
        // Board 1.6, spacer 5, plate 2; the nut 2.4 below it, half a millimetre out.
        QVERIFY(near(report.screw.task.grip_mm, 8.6) && near(report.screw.choice.least_mm, 11.5));
        QVERIFY(!report.screw.endMissing);
        QCOMPARE(*report.screw.choice.best_mm, 12.0);
        QVERIFY(near(report.chain.bottom_mm, -4.4));
    }
    void maleEndsThatBottomOutNeedShims() {
        // Standoff with a 6 mm male end through a 1.6 mm board into one whose thread is 3.5 mm deep: 0.9 mm too long.
        Layers layers(plateForStacks());
        FastenerData lower{FastenerForm::standoff, "M3", 8}, upper{FastenerForm::standoff, "M3", 10};
        lower.bore_mm = 3.5;
        upper.stud_mm = 6;
        layers.hardware(lower).board(boardType("fc")).hardware(upper);
        const StackReport report = reportOf(layers.build());
        QCOMPARE(report.studs.size(), std::size_t(1));
        QVERIFY(near(report.studs[0].shim_mm, 6 - 1.6 - 3.5));
        const Finding f = theFinding(layers.build(), RuleId::stkDamper);
        QCOMPARE(f.variant, std::string("bottoms"));
        QVERIFY(near(f.fixes.at(0).as<StackChange>()->value, 0.9));
        const Build shimmed = *applyFix(layers.build(), f.fixes[0]);
        QVERIFY(reportOf(shimmed).studs[0].shim_mm < 1e-9);
        QVERIFY(theFinding(shimmed, RuleId::stkDamper).severity != Severity::stop);
    }
    void motorScrewsThroughAFiveMillimetreArm() {
        // Common practice, no source: 6 mm is too short through a 5 mm arm, 8 mm right, 10 mm reaches the windings.
        auto verdict = [](double length) {
            return motorScrewsOf(withMotor(5, length), practiceOf({})).at(0).now->verdict;
        };
        QCOMPARE(verdict(6), MotorScrewVerdict::short_);
        QCOMPARE(verdict(8), MotorScrewVerdict::good);
        QCOMPARE(verdict(10), MotorScrewVerdict::deep);
        QCOMPARE(*motorScrewsOf(withMotor(5, 6), practiceOf({})).at(0).best_mm, 8.0);
        const Build shortOnes = withMotor(5, 6);
        const Finding f = theFinding(shortOnes, RuleId::stkMotorScrew);
        QCOMPARE(f.severity, Severity::stop);
        const Build mended = *applyFix(shortOnes, f.fixes.at(0));
        QCOMPARE(theFinding(mended, RuleId::stkMotorScrew).severity, Severity::pass);
        QCOMPARE(motorScrewsOf(mended, practiceOf({})).at(0).placed_mm, std::optional(8.0));
        QCOMPARE(theFinding(withMotor(5, 8, std::nullopt), RuleId::stkMotorScrew).severity, Severity::unknown);
        QCOMPARE(theFinding(withMotor(25, 8), RuleId::stkMotorScrew).variant, std::string("grip")); // a tube
        QCOMPARE(theFinding(withMotor(5, 0, 2.5), RuleId::stkMotorScrew).variant, std::string("none"));
    }
    void undrawnMotorScrewsAreChosenAndWeighed() {
        const Build build = withMotor(5, 0);
        const HardwareBill bill = hardwareBill(build, practiceOf({}));
        QCOMPARE(bill.rows.size(), std::size_t(1));
        QCOMPARE(bill.rows[0].item, std::string("screw-m3x8"));
        QCOMPARE(bill.rows[0].pieces, 4);
        QVERIFY(near(bill.total_g, 4 * 0.865, 0.003));
    }
    void chosenScrewsGoToKitMassAndBill() {
        Layers layers(plateForStacks());
        layers.spacer(5).board(boardType("fc")).nut().screw(10);
        const Build longer = *chooseScrew(layers.build(), layers.id(), {FastenerForm::screw, "M3", 12}, "steel");
        QVERIFY(near(allUp_g(longer) - allUp_g(layers.build()), 4 * (1.045 - 0.955), 0.003)); // D.mass
        const Build light = *chooseScrew(layers.build(), layers.id(), {FastenerForm::screw, "M3", 12}, "titanium");
        QVERIFY(near(allUp_g(light) - allUp_g(longer), 4 * (0.590 - 1.045), 0.003));
        int needed = 0;
        for (const auto &line : kitLines(longer, practiceOf({})))
            if (line.item == "screw-m3x12") needed = line.needed;
        QCOMPARE(needed, 4);
        const HardwareBill bill = hardwareBill(light, practiceOf({}));
        QVERIFY(near(bill.byMaterial_g.at("titanium"), 4 * 0.590, 0.003));
        QVERIFY(near(bill.byMaterial_g.at("steel"), 4 * *made({FastenerForm::nut, "M3"}, "steel").mass_g.value));
        double sum = 0;
        for (const auto &[material, grams] : bill.byMaterial_g) sum += grams;
        QVERIFY(near(sum, bill.total_g));
    }
    void tiesInsteadOfScrews() {
        Layers layers(plateForStacks());
        layers.spacer(5).board(boardType("fc")).nut().screw(12);
        const Build tied = *holdStack(layers.build(), layers.id(), StackHold::ties);
        QVERIFY(tied.stacks[0].screws.empty());
        QCOMPARE(tied.stacks[0].layers.size(), std::size_t(3)); // the nuts are gone
        const HardwareBill bill = hardwareBill(tied, practiceOf({}));
        const auto tie =
            std::find_if(bill.rows.begin(), bill.rows.end(), [](const BillRow &r) { return r.item == "tie-2.5"; });
        QVERIFY(tie != bill.rows.end() && tie->pieces == 2);
        QVERIFY(allUp_g(tied) < allUp_g(layers.build()));
        QVERIFY(theFinding(tied, RuleId::stkScrew).severity == Severity::pass);
    }
    void whatIfListsMendsCheapestFirst() {
        auto loaded = loadBuild(WEIGHTAXIS_TEST_DATA "/demos/owlbox-mini.waxis");
        QVERIFY(bool(loaded));
        const Build &owlbox = loaded->build;
        const Practice practice = practiceOf(owlbox.practice);
        const auto list = suggestFor(owlbox, owlbox.stacks[0], practice);
        QVERIFY(!list.empty() && list[0].solves);
        bool past = false;
        for (std::size_t i = 0; i < list.size(); ++i) {
            QVERIFY(!(past && list[i].solves)); // what is enough comes first
            past |= !list[i].solves;
            if (i > 0 && list[i].solves) QVERIFY(list[i].effort >= list[i - 1].effort);
            Build next = owlbox;
            for (const auto &change : list[i].changes) {
                auto result = applyChange(next, change);
                QVERIFY2(bool(result), result ? "" : result.error().message.c_str());
                next = *result;
            }
            QVERIFY(!suggestionInWords(owlbox, list[i]).empty());
            Analyser analyser;
            bool stop = false;
            for (const auto &f : analyser.update(next).findings) {
                const bool stacks =
                    f.rule == RuleId::stkHeight || f.rule == RuleId::stkGap || f.rule == RuleId::stkScrew;
                stop |= stacks && f.severity == Severity::stop;
            }
            QCOMPARE(stop, !list[i].solves);
        }
        QVERIFY(suggestFor(*applyChange(owlbox, {"stack-main", StackChangeKind::standoffs, -1, 28}), owlbox.stacks[0],
                           practice)
                    .size() > 0);
        // Nothing amiss: nothing to suggest.
        Layers layers(plateForStacks());
        layers.spacer(5).board(boardType("fc")).nut().screw(12);
        QVERIFY(suggestFor(layers.build(), layers.stack(), practiceOf({})).empty());
    }
    void everyOfferedFixCanBeApplied() {
        for (const char *demo : {"stakewalker", "owlbox-mini", "kilnlamp", "sedge-tri"}) {
            const auto loaded = loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + demo + ".waxis");
            Analyser analyser;
            for (const auto &f : analyser.update(loaded->build).findings)
                for (const auto &fix : f.fixes) {
                    if (!fix.as<StackChange>()) continue;
                    const auto next = applyFix(loaded->build, fix);
                    QVERIFY2(bool(next), next ? "" : next.error().message.c_str());
                    QVERIFY(!wordFix(loaded->build, fix).text().empty());
                    Analyser after; // the fixed finding is gone or better
                    for (const auto &g : after.update(*next).findings)
                        if (g.key() == f.key()) QVERIFY2(g.margin > f.margin - 1e-9, f.key().c_str());
                }
        }
    }
};

QTEST_APPLESS_MAIN(TestHardware)
#include "test_hardware.moc"
