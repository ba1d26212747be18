// What the Balance stage computes: shares, slides, ballast, grams to lose, packs; and its rules.
#include "core/analysis/analysis.h"
#include "core/balance/ballast.h"
#include "core/balance/case_balance.h"
#include "core/balance/mass_rows.h"
#include "core/balance/statics.h"
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/edits/balance_edits.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "core/rules/rule.h"
#include "core/studies/balance_study.h"
#include "core/studies/packs.h"
#include "core/sums/sum.h"
#include "io/csv/csv.h"
#include "io/csv/mass_csv.h"
#include "support/balances.h"
#include "support/weighings.h"

using namespace waxis;
using test::balancedQuad;
using test::find;
using test::indexOf;

namespace {

double offsetAt(const Build &build, std::size_t loadCase, const std::string &part, double travel) {
    Analyser analyser;
    const auto moved = shiftPart(build, part, findPart(build, part)->slide->direction * travel);
    return analyser.update(*moved).derived.balance[loadCase].offset_mm->head<2>().norm();
}

} // namespace

class TestBalanceBench : public QObject {
    Q_OBJECT

private slots:
    void hoverThrustsCarryTheWeight() {
        const Build build = test::stakewalker();
        Analyser analyser;
        const CaseBalance &balance = analyser.update(build).derived.balance[0];
        double sum = 0;
        for (double thrust : balance.hover.thrusts_N) sum += thrust;
        QVERIFY(std::abs(sum - newtonsFromGrams(balance.mass.mass_g)) < 1e-6);
        QVERIFY(balance.hover.thrusts_N.size() == 4);
    }
    // --- how the motors share it
    void yawIsHeldByThrustWhereItCanBe() {
        // Four on a square, alternating: the only freedom that force, roll and pitch leave is (1, -1, 1, -1), and that
        // is yaw itself. With one large propeller its torque must be cancelled: checked by putting the thrusts back in.
        const std::vector<Vec2> motors{{100, 100}, {100, -100}, {-100, 100}, {-100, -100}};
        const std::vector<double> yaw{2, -1, -1, 1};
        const auto t = yawBalancedSplit(motors, {5, -3}, 1.0, kStandardGravity_m_s2, yaw);
        QVERIFY(bool(t));
        double sum = 0, torque = 0, x = 0, y = 0;
        for (std::size_t i = 0; i < 4; ++i) {
            sum += (*t)[i];
            torque += yaw[i] * (*t)[i];
            x += (*t)[i] * (motors[i].x() - 5);
            y += (*t)[i] * (motors[i].y() + 3);
        }
        QVERIFY(std::abs(sum - kStandardGravity_m_s2) < 1e-9 && std::abs(torque) < 1e-9);
        QVERIFY(std::abs(x) < 1e-7 && std::abs(y) < 1e-7);
        // Three motors have no freedom left: refused, not approximated.
        QVERIFY(!yawBalancedSplit({{100, 0}, {-50, 80}, {-50, -80}}, {0, 0}, 1, 9.81, {1, -1, 1}));
    }
    void yawOfAllOneWayCannotBeBalanced() {
        const std::vector<Vec2> square{{1, 1}, {1, -1}, {-1, 1}, {-1, -1}};
        QVERIFY(!yawBalancedSplit(square, {0, 0}, 1, 9.81, {1, 1, 1, 1}));
    }
    void hoverSharesKnowTheMotors() {
        Build build = balancedQuad();
        Analyser analyser;
        const CaseBalance &balance = analyser.update(build).derived.balance[0];
        const HoverShare &hover = balance.hover;
        QCOMPARE(hover.thrusts_N.size(), std::size_t(4));
        QCOMPARE(hover.most_N[0].value(), newtonsFromGrams(800));
        QVERIFY(build.frame->motorMounts[std::size_t(hover.mostLoaded)].position_mm.x() > 0); // the camera is in front
        const double used = hover.thrusts_N[std::size_t(hover.tightest)] / newtonsFromGrams(800);
        QVERIFY(std::abs(hover.tightestShare - used) < 1e-12);
        QVERIFY(std::abs(hover.yawLeft) < 1e-9); // alternating, alike
        // One motor without figures: nobody knows the tightest.
        build.types.edit([](TypeTable &types) { test::typeIn(types, "motor-2").maxThrust_gf = {}; });
        QCOMPARE(analyser.update(build).derived.balance[0].hover.tightest, -1);
        const auto entered = setMotorThrust(build, 650);
        QVERIFY(bool(entered));
        const CaseBalance &again = analyser.update(*entered).derived.balance[0];
        QVERIFY(std::abs(*again.thrustToWeight - 4 * 650 / again.mass.mass_g) < 1e-9);
        QVERIFY(!setMotorThrust(build, -3) && !setMotorThrust(Build{}, 500));
    }
    // --- sliding
    void slideMeetsBruteForce() {
        // The solver against a full analysis of every millimetre: none is better than the solved place, within what one
        // step moves the balance. The demo's leads are led again at each step, which moves a few tenths of a gram.
        for (const auto &[file, part] : std::vector<std::pair<const char *, const char *>>{
                 {"sedge-tri", "pack"}, {"owlbox-mini", "pack-big"}, {"stakewalker", "pack-small"}}) {
            const auto loaded = loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + file + ".waxis");
            QVERIFY(bool(loaded));
            const Build &build = loaded->build;
            Analyser analyser;
            const Analysis &analysis = analyser.update(build);
            const std::size_t index = indexOf(build, part);
            std::size_t loadCase = 0;
            while (!isAboard(build.parts[index], analysis.derived.loadCases[loadCase])) ++loadCase;
            const SlideRange range = *build.parts[index].slide;
            const auto free =
                freeTravel(build, analysis.derived.scene, index, range.direction, range.min_mm, range.max_mm);
            const auto solved = solveSlide(build, analysis.derived.massRows, analysis.derived.balance[loadCase], index,
                                           range.direction, free);
            QVERIFY2(solved.has_value(), file);
            QVERIFY(solved->travel_mm >= free.least.travel_mm - 1e-9 &&
                    solved->travel_mm <= free.most.travel_mm + 1e-9);
            double best = 1e9, where = 0;
            for (double t = std::ceil(free.least.travel_mm); t <= free.most.travel_mm; t += 1)
                if (const double left = offsetAt(build, loadCase, part, t); left < best) {
                    best = left;
                    where = t;
                }
            const double found = offsetAt(build, loadCase, part, solved->travel_mm);
            const QString said = QStringLiteral("%1: solved %2 leaves %3, brute force %4 leaves %5")
                                     .arg(file)
                                     .arg(solved->travel_mm)
                                     .arg(found)
                                     .arg(where)
                                     .arg(best);
            QVERIFY2(found <= best + 0.06, qPrintable(said)); // leads: 0.06 mm
            QVERIFY2(std::abs(found - solved->after_mm.norm()) < 0.1, qPrintable(said));
            QVERIFY2(std::abs(solved->travel_mm - where) < 1.3, qPrintable(said));
        }
    }
    void bodiesAndStrapsEndTheTravel() {
        Build build = balancedQuad();
        test::addBox(build, "wall", {10, 60, 30}, {-70, 0, 30}, 5); // its face is 25 mm behind the pack's
        Part &strap = test::addBox(build, "strap", {16, 40, 2}, {10, 0, 46}, 3, PartKind::strap);
        strap.fastening.onto = {"pack"};
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        const FreeTravel free = freeTravel(build, derived.scene, indexOf(build, "pack"), Vec3::UnitX(), -40, 40);
        // Behind: the pack reaches from -40 to 30, the wall to -65: 25 mm, or the strap at 10, which must stay 5 mm
        // inside the fore end at 30: 15 mm aft.
        QCOMPARE(int(free.least.kind), int(StopKind::strap));
        QVERIFY(std::abs(free.least.travel_mm + 15) < 1e-9);
        QCOMPARE(free.least.by, std::string("strap"));
        // In front: the camera's face is at 60, 30 mm away.
        QCOMPARE(int(free.most.kind), int(StopKind::body));
        QVERIFY(free.most.travel_mm <= 30 && free.most.travel_mm > 29.9);
        build.parts.pop_back(); // without the strap the wall stops it
        const Derived &bare = analyser.update(build).derived;
        const FreeTravel again = freeTravel(build, bare.scene, indexOf(build, "pack"), Vec3::UnitX(), -40, 40);
        QCOMPARE(again.least.by, std::string("wall"));
        QVERIFY(again.least.travel_mm >= -25 && again.least.travel_mm < -24.9);
        const FreeTravel aside = freeTravel(build, bare.scene, indexOf(build, "pack"), Vec3::UnitY(), -12, 7);
        QVERIFY(!aside.blocked());
        QCOMPARE(aside.most.travel_mm, 7.0);
    }
    void slidingKeepsWhatIsLeftOfTheRange() {
        const Build build = balancedQuad();
        const auto moved = slidePart(build, "pack", -12.5);
        QVERIFY(bool(moved));
        const Part &pack = *findPart(*moved, "pack");
        QCOMPARE(framePose(*moved, pack).position_mm.x(), -17.5);
        QCOMPARE(pack.slide->min_mm, -27.5);
        QCOMPARE(pack.slide->max_mm, 52.5);
        QVERIFY(!slidePart(build, "pack", -41) && !slidePart(build, "camera", 1) && !slidePart(build, "nobody", 1));
        QVERIFY(!setSlide(build, "pack", SlideRange{Vec3::UnitX(), 2, 5}));
        QVERIFY(!setSlide(build, "pack", SlideRange{Vec3::Zero(), -2, 5}));
        QCOMPARE(findPart(*setSlide(build, "pack", SlideRange{Vec3(0, 3, 0), -2, 5}), "pack")->slide->direction,
                 Vec3(Vec3::UnitY()));
    }
    void theFixOfTheRuleIsTheSlide() {
        const Build build = balancedQuad(80);
        Analyser analyser;
        const Finding *off = find(analyser.update(build), RuleId::balOffset, "fore-aft");
        QVERIFY(off && off->severity == Severity::watch && !off->fixes.empty());
        const auto mended = applyFix(build, off->fixes.front());
        QVERIFY(bool(mended));
        QVERIFY(std::abs((*analyser.update(*mended).derived.balance[0].offset_mm).x()) < 0.01);
    }
    void compromiseMakesTheWorstLeast() {
        std::mt19937 random(77);
        std::uniform_real_distribution<double> offset(-12, 12), share(0.1, 0.5);
        for (int run = 0; run < 200; ++run) {
            std::vector<SlideCase> cases;
            for (int i = 0; i < 2 + run % 3; ++i)
                cases.push_back({{offset(random), offset(random) / 4}, share(random)});
            const double best = compromiseTravel_mm(cases, {1, 0}, -30, 25);
            const auto worst = [&](double t) {
                double norm = 0;
                for (const auto &c : cases) norm = std::max(norm, (c.offset_mm + Vec2(t * c.share, 0)).norm());
                return norm;
            };
            for (double t = -30; t <= 25; t += 0.25) QVERIFY2(worst(best) <= worst(t) + 1e-6, "seed 77");
        }
    }
    void compromiseOfTwoCasesLiesBetween() {
        const Build build = balancedQuad(60);
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        const std::size_t pack = indexOf(build, "pack");
        const auto free = freeTravel(build, derived.scene, pack, Vec3::UnitX(), -40, 25);
        const Compromise both = compromiseFor(build, derived.massRows, derived.balance, pack, Vec3::UnitX(), free);
        QCOMPARE(both.cases.size(), std::size_t(2));
        QVERIFY(both.cases[0].after_mm.x() > 0 && both.cases[1].after_mm.x() < 0);
        QVERIFY(std::abs(both.cases[0].after_mm.norm() - both.cases[1].after_mm.norm()) < 1e-5);
    }
    // --- ballast
    void leastBallastMeetsBruteForce() {
        const std::vector<BallastSpot> spots{{{-60, 0}, "a"}, {{-40, 20}, "b"}, {{50, 10}, "c"}};
        for (const auto &[offset, within] :
             std::vector<std::pair<Vec2, double>>{{{7, 0.5}, 5}, {{7, 0.5}, 2}, {{-9, 1}, 5}, {{3, 0}, 5}}) {
            const auto found = leastBallast(spots, 900, offset, within);
            double least = 1e9;
            for (const auto &spot : spots)
                for (double b = 0; b < 400; b += 0.05)
                    if (((900 * offset + b * spot.at_mm) / (900 + b)).norm() <= within) {
                        least = std::min(least, b);
                        break;
                    }
            QVERIFY(bool(found));
            QVERIFY2(std::abs(found->mass_g - least) < 0.051, qPrintable(QString::number(found->mass_g)));
            QVERIFY(found->after_mm.norm() <= within + 1e-9);
        }
        QVERIFY(!ballastAt_g(900, {7, 0}, {60, 0}, 5)); // the wrong side
        QVERIFY(!leastBallast({}, 900, {7, 0}, 5));
    }
    void spotsLieOnPlatesAndArms() {
        const Build build = test::stakewalker();
        const auto spots = ballastSpots(*build.frame, Vec3(0, 0, 30));
        QVERIFY(spots.size() > 100);
        for (const auto &spot : spots)
            for (const auto &mount : build.frame->motorMounts)
                QVERIFY((mount.position_mm.head<2>() - spot.at_mm).norm() > 10);
    }
    // --- where the grams are
    void rowsAddUpToTheCraft() {
        for (const char *demo : {"stakewalker", "kilnlamp", "sedge-tri", "owlbox-mini"}) {
            const auto loaded = loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + demo + ".waxis");
            QVERIFY(bool(loaded));
            QVERIFY2(loaded->build.loadCases.size() >= 3, demo);
            Analyser analyser;
            const Derived &derived = analyser.update(loaded->build).derived;
            for (std::size_t c = 0; c < derived.balance.size(); ++c) {
                const CaseBalance &balance = derived.balance[c];
                const Breakdown b = breakdownOf(loaded->build, derived.massRows, c, balance, derived.thrustCentre_mm);
                double grams = 0, rows = 0, doubt = 0;
                for (const auto &g : b.groups) grams += g.mass_g;
                for (const auto &r : b.rows) rows += r.mass_g;
                for (const auto &r : b.rows) doubt += r.doubtShare;
                QVERIFY2(std::abs(grams - balance.mass.mass_g) < 1e-6 && std::abs(rows - grams) < 1e-6, demo);
                const Vec2 moment = balance.offset_mm->head<2>() * balance.mass.mass_g;
                QVERIFY2((b.moment_gmm - moment).norm() < 1e-6 * balance.mass.mass_g, demo);
                QVERIFY2((b.inertia_gmm2 - balance.mass.inertia_gmm2.diagonal()).norm() <
                             1e-9 * balance.mass.inertia_gmm2.norm(),
                         demo);
                QVERIFY2(std::abs(doubt - 1) < 1e-6, demo);
            }
        }
    }
    void armsFoldForCarrying() {
        const auto loaded = loadBuild(WEIGHTAXIS_TEST_DATA "/demos/kilnlamp.waxis");
        Analyser analyser;
        const Derived &derived = analyser.update(loaded->build).derived;
        const auto &cases = derived.balance;
        const auto folded = std::find_if(cases.begin(), cases.end(), [](const auto &c) { return c.loadCase.folded; });
        QVERIFY(folded != cases.end());
        QVERIFY((*folded->foldedCg_mm - *folded->mass.cg_mm).norm() < 1e-12);
        // The arms go down: what flies hangs higher than what is carried.
        QVERIFY(cases[0].foldedCg_mm->z() < cases[0].mass.cg_mm->z() - 10);
        const Build straight = test::stakewalker();
        QVERIFY(!analyser.update(straight).derived.balance[0].foldedCg_mm);
    }
    void savingsWeighWhatTheySay() {
        const Build build = test::stakewalker();
        Analyser analyser;
        const Analysis &before = analyser.update(build);
        const double was = before.derived.balance[0].mass.mass_g;
        const auto savings = gramSavings(build, before.practice, before.derived, 0);
        QVERIFY(savings.size() > 5);
        int tried = 0;
        for (const auto &saving : savings) {
            QVERIFY(!wordSaving(build, saving).text().empty());
            if (!saving.canApply()) {
                QVERIFY(!applySaving(build, saving, "survey"));
                continue;
            }
            const auto applied = applySaving(build, saving, "survey");
            QVERIFY2(bool(applied), saving.subject.c_str());
            Analyser fresh;
            const double now = fresh.update(*applied).derived.balance[0].mass.mass_g;
            // A part that stays at home takes its leads along.
            const double room = saving.kind == SavingKind::leaveOut ? 3 : 0.2;
            QVERIFY2(std::abs(was - now - saving.saves_g) < room,
                     qPrintable(QStringLiteral("%1: said %2, was %3")
                                    .arg(wordSaving(build, saving).text().c_str())
                                    .arg(saving.saves_g)
                                    .arg(was - now)));
            ++tried;
        }
        QVERIFY(tried > 3);
    }
    void packsAreTriedWhereTheOldOneLies() {
        const Build build = test::stakewalker();
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        const auto options = comparePacks(build, analysis.practice, "pack", 0, {});
        QCOMPARE(options.size(), std::size_t(2));
        QVERIFY(!options[0].fitted && options[1].fitted); // lightest first
        QVERIFY(std::abs(options[1].total_g - analysis.derived.balance[0].mass.mass_g) < 1e-9);
        QVERIFY(options[0].least_min && *options[0].least_min < *options[1].least_min);
        // The smaller pack lies on the same plate: its underside stays.
        const auto swapped = swapPack(build, "pack", build.types->at(options[0].type));
        QVERIFY(bool(swapped));
        QVERIFY(std::abs(partBounds(build, *findPart(build, "pack")).min_mm.z() -
                         partBounds(*swapped, *findPart(*swapped, "pack")).min_mm.z()) < 1e-9);
        Analyser fresh;
        QVERIFY(std::abs(fresh.update(*swapped).derived.balance[0].mass.mass_g - options[0].total_g) < 1e-6);
        QVERIFY(!swapPack(build, "pack", build.types->at(findPart(build, "fc")->type)));
        QVERIFY(comparePacks(build, analysis.practice, "fc", 0, {}).empty());
    }
    void theMassTableAddsUp() {
        const Build build = test::stakewalker();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        const CsvTable table = parseCsv(writeMassTable(build, derived));
        QVERIFY(table.problems.empty());
        QCOMPARE(table.rows.size(), derived.massRows.size() + 1);
        QCOMPARE(table.header.size(), std::size_t(11 + 3));
        for (std::size_t c = 0; c < 3; ++c) {
            double sum = 0;
            for (std::size_t r = 0; r + 1 < table.rows.size(); ++r)
                if (double grams = 0; readNumber(table.rows[r][11 + c], grams)) sum += grams;
            double said = 0;
            QVERIFY(readNumber(table.rows.back()[11 + c], said));
            QVERIFY(std::abs(sum - said) < 0.5); // each row is rounded to 0.01 g
        }
    }
    // --- rules
    void limitsAreJudgedWithTheirDoubt() {
        Build build = balancedQuad();
        Analyser analyser;
        const double mass = analyser.update(build).derived.balance[0].mass.mass_g;
        const double doubt = analyser.current().derived.balance[0].tolerance_g;
        const auto severity = [&](double most) {
            build.weightLimits = {{"limit", "Mine", most, "with"}};
            return find(analyser.update(build), RuleId::balWeight)->severity;
        };
        QCOMPARE(severity(mass - 1), Severity::watch);
        QCOMPARE(severity(mass + doubt / 2), Severity::note);
        QCOMPARE(severity(mass + doubt * 2), Severity::pass);
        build.types.edit([](TypeTable &types) { test::typeIn(types, "camera").mass_g = {}; });
        QCOMPARE(severity(mass + doubt * 2), Severity::unknown);
        QCOMPARE(severity(mass - 60), Severity::watch); // over even without it
    }
    void thrustInHandIsJudged() {
        Build build = balancedQuad();
        build.practice.profile = "range";
        Analyser analyser;
        QCOMPARE(find(analyser.update(build), RuleId::balThrust)->severity, Severity::pass);
        const auto with = [&](double thrust) { return *setMotorThrust(build, thrust); };
        const double mass = analyser.current().derived.balance[0].mass.mass_g;
        QCOMPARE(find(analyser.update(with(mass / 4 * 1.7)), RuleId::balThrust)->severity, Severity::watch);
        QCOMPARE(find(analyser.update(with(mass / 4 * 1.1)), RuleId::balThrust)->severity, Severity::stop);
        const Build unknown = *setMotorThrust(build, std::nullopt);
        QCOMPARE(find(analyser.update(unknown), RuleId::balThrust)->severity, Severity::unknown);
    }
    void unevenLoadsAndTorquesAreJudged() {
        Build build = balancedQuad();
        Analyser analyser;
        QCOMPARE(find(analyser.update(build), RuleId::balLoad)->severity, Severity::pass);
        QCOMPARE(find(analyser.current(), RuleId::balYaw)->severity, Severity::pass);
        Build nose = *shiftPart(build, "pack", Vec3(40, 0, 0));
        QCOMPARE(find(analyser.update(nose), RuleId::balLoad)->severity, Severity::watch);
        Build far = *shiftPart(build, "pack", Vec3(400, 0, 0));
        QCOMPARE(find(analyser.update(far), RuleId::balLoad)->severity, Severity::stop); // outside the motors
        Build uneven = build;                                                            // larger propellers one way
        uneven.frame.edit([](Frame &frame) {
            for (auto &mount : frame.motorMounts)
                if (mount.spin == Spin::clockwise) mount.propDiameter_mm = 152;
        });
        const Finding *yaw = find(analyser.update(uneven), RuleId::balYaw);
        QCOMPARE(yaw->severity, Severity::note);
        QCOMPARE(yaw->variant, std::string("left")); // clockwise propellers push the nose to the left
        QVERIFY(std::abs(*yaw->measured - 100 * (152 - 127) / (152.0 + 127)) < 0.5);
        test::addBox(uneven, "servo", {20, 10, 20}, {-100, 0, 0}, 1, PartKind::servo);
        QCOMPARE(find(analyser.update(uneven), RuleId::balYaw)->severity, Severity::pass);
        build.frame.edit([](Frame &frame) {
            for (auto &mount : frame.motorMounts) mount.spin = Spin::clockwise;
        });
        QVERIFY(!find(analyser.update(build), RuleId::balYaw)); // LNK-2 speaks
    }
    void aDoubtfulBalanceIsNoted() {
        Build build = balancedQuad(5);
        build.parts[indexOf(build, "pack")].placement.tolerance_mm = 30;
        Analyser analyser;
        const Finding *sure = find(analyser.update(build), RuleId::balSure);
        QVERIFY(sure && sure->severity == Severity::note && *sure->measured < 90);
        build.parts[indexOf(build, "pack")].placement.tolerance_mm = 0.2;
        QCOMPARE(find(analyser.update(build), RuleId::balSure)->severity, Severity::pass);
    }
    void theRingGoesWithTheSizeWhereThatIsTheSchool() {
        Build build = balancedQuad();
        build.practice.schools["balance"] = "by-size";
        Analyser analyser;
        const double diagonal = 200 * std::sqrt(2.0);
        QVERIFY(std::abs(analyser.update(build).derived.cgTolerance_mm - diagonal / 100) < 1e-9);
        QCOMPARE(*find(analyser.current(), RuleId::balOffset)->practiceLimit, Limit::cgShare);
    }
    void theCornerOfTheSquareIsOutsideTheRing() {
        Build build = test::bareQuad();
        test::addBox(build, "load", {10, 10, 10}, {4, 4, 0}, 100);
        Analyser analyser;
        const Finding *plan = find(analyser.update(build), RuleId::balOffset, "plan");
        QVERIFY(plan && plan->severity == Severity::watch);
        QVERIFY(std::abs(*plan->measured - std::sqrt(32.0)) < 1e-9);
        QCOMPARE(find(analyser.current(), RuleId::balOffset, "fore-aft")->severity, Severity::pass);
    }
    void quickSumsMendABalanceToo() {
        const auto value = [](const char *name, SumObject inputs, const char *key) {
            const SumResult result = calculate(*findSum(name), inputs);
            return result ? std::get<double>(findKey(*result, key)->held) : std::nan("");
        };
        const auto list = [](std::vector<double> v) { return SumValue(SumList(v.begin(), v.end())); };
        // By hand: 6.7 mm of 1073 g are 7189 g mm; a part of 352 g takes them away over 20.42 mm.
        QVERIFY(std::abs(value("slide-to-balance", {{"offset_mm", 6.7}, {"all_up_g", 1073.0}, {"part_g", 352.0}},
                               "travel_mm") +
                         20.4236) < 1e-3);
        // 7189 g mm over 98 mm: 73.36 g bring it to nothing.
        QVERIFY(std::abs(value("ballast",
                               {{"all_up_g", 1073.0}, {"offset_mm", list({6.7, 0})}, {"place_mm", list({-98, 0})}},
                               "ballast_g") -
                         73.3582) < 1e-3);
        QVERIFY(std::isnan(value("ballast",
                                 {{"all_up_g", 1073.0}, {"offset_mm", list({6.7, 0})}, {"place_mm", list({98, 0})}},
                                 "ballast_g")));
        QCOMPARE(value("cg-two-lines", {{"through1_mm", list({8, 40})}, {"through2_mm", list({-30, -2})}}, "x_mm"),
                 8.0);
        // Rayleigh: 1 - exp(-25 / 8)
        QVERIFY(
            std::abs(value("balance-chance",
                           {{"offset_mm", list({0, 0})}, {"sigma_x_mm", 2.0}, {"sigma_y_mm", 2.0}, {"ring_mm", 5.0}},
                           "chance") -
                     (1 - std::exp(-25.0 / 8))) < 1e-5);
        QVERIFY(
            std::isnan(value("cg-two-lines", {{"through1_mm", list({8})}, {"through2_mm", list({-30, -2})}}, "x_mm")));
    }
    void everyFindingHasItsWords() {
        // Each rule of the stage in each of its colours, so that no sentence is left with a hole in it.
        Build build = balancedQuad(80);
        build.weightLimits = {{"limit", "Mine", 300, {}}};
        build.weighings = {
            test::weighed("w", "Scale", "with", WeighingMethod::total, measuredValue(900, 1), {}, {}, 1, {}, 1),
            test::weighed("x", "Scale", "with", WeighingMethod::total, {}, {}, {}, 1, {}, 1)};
        build.frame.edit([](Frame &frame) { frame.motorMounts[0].propDiameter_mm = 180; });
        Analyser analyser;
        for (const Build &variant : {build, *setMotorThrust(build, 90), *setMotorThrust(build, std::nullopt),
                                     *shiftPart(build, "pack", Vec3(300, 0, 0))})
            for (const auto &f : analyser.update(variant).findings) {
                const FindingText text = wordFinding(variant, f);
                for (const auto &sentence : {text.headline.text(), text.detail.text()}) {
                    QVERIFY2(!sentence.empty() && sentence.find('{') == std::string::npos, sentence.c_str());
                    QVERIFY2(sentence.find("  ") == std::string::npos, sentence.c_str());
                }
            }
    }
    void aStudyKnowsWhatTheSlideBrings() {
        const Build build = test::stakewalker();
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        DrawSettings few;
        few.draws = 2000;
        const BalanceStudy study = studyBalance(build, analysis, few);
        QCOMPARE(study.cases.size(), analysis.derived.balance.size());
        QVERIFY(!study.cases[0].slides.empty() && study.cases[0].slides.front().part == "pack");
        for (const auto &move : study.cases[0].others) {
            QVERIFY(!move.stated);
            QVERIFY(move.after_mm.norm() <= move.before_mm.norm() + 1e-9);
        }
        QCOMPARE(study.compromises.size(), std::size_t(1)); // the small pack flies in one case only
        QVERIFY(study.cases[0].toRing && study.cases[0].toCentre);
        QVERIFY(study.cases[0].toRing->mass_g < study.cases[0].toCentre->mass_g);
        const std::atomic<bool> stop = true;
        QVERIFY(studyBalance(build, analysis, few, &stop).cases.empty());
    }
};

QTEST_GUILESS_MAIN(TestBalanceBench)
#include "test_balance_bench.moc"
