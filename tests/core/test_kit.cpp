// Counting, weighing, and the rules about the box.
#include "core/analysis/analysis.h"
#include "core/balance/mass_rows.h"
#include "core/edits/kit_edits.h"
#include "core/edits/part_edits.h"
#include "core/kit/kit.h"
#include "core/layout/layout.h"
#include "core/practice/practice.h"
#include "core/remedies/weigh_advice.h"
#include "core/rules/rule.h"
#include "support/builds.h"

using namespace waxis;

namespace {

const KitLine &lineOf(const std::vector<KitLine> &lines, const std::string &item) {
    for (const auto &line : lines)
        if (line.item == item) return line;
    qFatal("no line %s", item.c_str());
}

std::vector<Finding> of(RuleId rule, const Build &build) {
    Analyser analyser;
    std::vector<Finding> found;
    for (const auto &finding : analyser.update(build).findings)
        if (finding.rule == rule) found.push_back(finding);
    return found;
}

Build twoBoxes() {
    Build build = test::bareQuad();
    test::addBox(build, "heavy", {40, 30, 20}, {60, 0, 0}, 200);
    test::addBox(build, "light", {10, 10, 10}, {-60, 0, 0}, 200);
    return build;
}

} // namespace

class TestKit : public QObject {
    Q_OBJECT

private slots:
    void linesCountWhatIsPlacedAndWhatTheFrameIsMadeOf() {
        const Build build = test::stakewalker();
        const auto lines = kitLines(build, practiceOf({}));
        QCOMPARE(lineOf(lines, "motor-2807").needed, 4);
        QCOMPARE(lineOf(lines, "prop-7").spare(), 2);
        QCOMPARE(lineOf(lines, "spacer-m2-5").missing(), 1);
        QCOMPARE(lineOf(lines, "standoff-M3-25-5").needed, 8);
        QCOMPARE(lineOf(lines, "plate-main").kind, KitKind::plate);
        int pieces = 0;
        std::set<std::string> members;
        for (const auto &line : lines) {
            if (line.kind == KitKind::hardware) { // screws and tape go by the parts that they hold
                QVERIFY(line.needed > 0 && !line.members.empty() && !line.name.empty());
                continue;
            }
            pieces += line.needed;
            QCOMPARE(int(line.members.size()), line.needed);
            for (const auto &id : line.members) QVERIFY2(members.insert(id).second, id.c_str());
            QVERIFY(!line.name.empty());
        }
        const Frame &frame = *build.frame;
        QCOMPARE(pieces, int(build.parts.size() + frame.plates.size() + frame.arms.size() + frame.standoffs.size()));
    }
    void totalsAddUp() {
        Build build = twoBoxes();
        build = *countKit(build, "heavy-type", 3);
        build = *weighKit(build, "heavy-type", measuredValue(195));
        build = *countKit(build, "light-type", 0);
        const auto totals = kitTotals(kitLines(build, practiceOf({})));
        QCOMPARE(totals.piecesNeeded, 2);
        QCOMPARE(totals.piecesInHand, 1);
        QCOMPARE(totals.piecesMissing, 1);
        QCOMPARE(totals.piecesSpare, 2);
        QCOMPARE(totals.weighed_g, 195.0);
        QCOMPARE(totals.unweighed_g, 200.0);
    }
    void aWeightFromTheKitTakesTheCataloguesPlaceAndThePartsOwnBeatsBoth() {
        Build build = twoBoxes();
        auto massOf = [](const Build &b) {
            Analyser analyser;
            return analyser.update(b).derived.massRows[0].element.mass_g;
        };
        QCOMPARE(massOf(build), 200.0);
        build = *weighKit(build, "heavy-type", measuredValue(195, 1));
        QCOMPARE(massOf(build), 195.0);
        QCOMPARE(massOf(*weighPart(build, "heavy", measuredValue(190))), 190.0);
        build = *weighKit(build, "heavy-type", {});
        QCOMPARE(massOf(build), 200.0);
        QVERIFY(build.kit.empty()); // an entry that says nothing is no entry
    }
    void framePiecesAreWeighedToo() {
        Build build;
        build.frame = *generateFrame(LayoutKind::quadX, {});
        const auto weighed = weighKit(build, "plate-top", measuredValue(9.9, 0.1));
        QVERIFY(bool(weighed));
        Analyser analyser;
        for (const auto &row : analyser.update(*weighed).derived.massRows)
            if (row.id == "plate-top") {
                QCOMPARE(row.element.mass_g, 9.9);
                QCOMPARE(row.source, Source::measured);
            }
        const std::string arm = kitItemOf(build.frame->arms[0]);
        QCOMPARE(lineOf(kitLines(build, practiceOf({})), arm).needed, 4);
        QVERIFY(bool(weighKit(build, arm, measuredValue(11))));
    }
    void editsRefuseWhatCannotBe() {
        const Build build = twoBoxes();
        QVERIFY(!countKit(build, "nothing", 1));
        QVERIFY(!countKit(build, "heavy-type", -1));
        QVERIFY(!weighKit(build, "heavy-type", measuredValue(-1)));
        QVERIFY(!measureKit(build, "heavy-type", Vec3(1, 0, 1)));
        QVERIFY(bool(measureKit(build, "heavy-type", Vec3(1, 2, 3))));
        PartType clash = test::typeIn(const_cast<TypeTable &>(*build.types), "heavy");
        clash.name = "another";
        QVERIFY(!addToKit(build, clash, 1));
    }
    void theNextToWeighIsTheLargestShareOfTheDoubt() {
        // Two masses of 200 g on a lever of 60 mm, doubts of 5 % and 20 %: dc/dm = 60 / m, sigma = m_i * tolerance / 2.
        Build build = twoBoxes();
        build.types.edit([](TypeTable &types) { types.at("light-type").mass_g.source = Source::estimated; });
        Analyser analyser;
        const WeighAdvice advice =
            weighAdvice(analyser.update(build).derived.massRows, analyser.update(build).derived.balance, 0);
        QCOMPARE(advice.next.size(), std::size_t(2));
        QCOMPARE(advice.next[0].id, std::string("light"));
        const double heavy = 60.0 / 400 * 5, light = 60.0 / 400 * 20; // mm, one sigma
        QVERIFY(std::abs(advice.sigma_mm - std::hypot(heavy, light)) < 1e-9);
        QVERIFY(std::abs(advice.next[0].share - light * light / (heavy * heavy + light * light)) < 1e-9);
        QVERIFY(std::abs(advice.unweighedShare - 1) < 1e-9);
        QCOMPARE(advice.unweighed_g, 400.0);
        // Weighing it takes its share away.
        const auto weighed = weighKit(build, "light-type", measuredValue(200, 0.2));
        const WeighAdvice after =
            weighAdvice(analyser.update(*weighed).derived.massRows, analyser.update(*weighed).derived.balance, 0);
        QCOMPARE(after.next[0].id, std::string("heavy"));
        QVERIFY(std::abs(after.sigma_mm - std::hypot(heavy, 60.0 / 400 * 0.1)) < 1e-9);
        QVERIFY(weighAdvice(analyser.current().derived.massRows, analyser.current().derived.balance, 7).next.empty());
    }
    void sharesAgreeWithRandomDraws() {
        Build build = twoBoxes();
        test::addBox(build, "third", {10, 10, 10}, {10, 80, 0}, 50);
        Analyser analyser;
        const auto &derived = analyser.update(build).derived;
        const WeighAdvice advice = weighAdvice(derived.massRows, derived.balance, 0);
        std::mt19937 random(42);
        std::normal_distribution<double> normal;
        auto variance = [&](const std::string &only) { // of the CG in plan, with all doubts or with one of them
            Vec2 sum = Vec2::Zero();
            double squares = 0;
            constexpr int kDraws = 40000;
            for (int i = 0; i < kDraws; ++i) {
                Vec2 moment = Vec2::Zero();
                double mass = 0;
                for (const auto &row : derived.massRows) {
                    const double doubt = only.empty() || row.id == only ? row.tolerance_g / 2 * normal(random) : 0;
                    mass += row.element.mass_g + doubt;
                    moment += (row.element.mass_g + doubt) * row.element.centroid_mm.head<2>();
                }
                const Vec2 cg = moment / mass;
                sum += cg;
                squares += cg.squaredNorm();
            }
            return squares / kDraws - (sum / kDraws).squaredNorm();
        };
        const double all = variance("");
        QVERIFY(std::abs(std::sqrt(all) - advice.sigma_mm) < 0.02 * advice.sigma_mm); // 40,000 draws: about 0.5 %
        for (const auto &next : advice.next)
            QVERIFY2(std::abs(variance(next.id) / all - next.share) < 0.02, next.id.c_str());
    }
    void missingAndUncountedKindsAreFindings() {
        Build build = twoBoxes();
        auto found = of(RuleId::kitCounts, build);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].severity, Severity::unknown);
        build = *countKit(build, "heavy-type", 1);
        build = *countKit(build, "light-type", 0);
        found = of(RuleId::kitCounts, build);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].severity, Severity::watch);
        QCOMPARE(wordFinding(build, found[0]).headline.text(), std::string("light: 0 in hand, 1 needed"));
        QVERIFY(of(RuleId::kitCounts, *countKit(build, "light-type", 1)).empty());
        QVERIFY(of(RuleId::kitCounts, test::bareQuad()).empty()); // nothing is placed, nothing is needed
    }
    void doubtOfTheBalanceIsJudged() {
        Build build = twoBoxes(); // 2 sigma = 2 * 60 / 400 * sqrt(2) * 5 = 2.12 mm
        const auto found = of(RuleId::kitUnweighed, build);
        QCOMPARE(found.size(), std::size_t(1));
        QVERIFY(std::abs(*found[0].measured - 2 * 60.0 / 400 * 5 * std::sqrt(2.0)) < 1e-9);
        build = *weighKit(build, "heavy-type", measuredValue(200, 0.2));
        build = *weighKit(build, "light-type", measuredValue(200, 0.2));
        QVERIFY(of(RuleId::kitUnweighed, build).empty());
    }
    void tightFitsAskForTheRealSize() {
        Build build = test::bareQuad();
        test::addBox(build, "near", {10, 10, 10}, {100 - 63.5 - 5 - 5.4, 100, 20},
                     10); // 0.4 mm more than the 5 mm wanted
        auto found = of(RuleId::kitSize, build);
        QCOMPARE(found.size(), std::size_t(1));
        QVERIFY(std::abs(*found[0].measured - 0.4) < 1e-6);
        QVERIFY(of(RuleId::kitSize, *measureKit(build, "near-type", Vec3(10, 10, 10))).empty());
        build.parts[0].placement.pose.position_mm.x() -= 1;
        QVERIFY(of(RuleId::kitSize, build).empty());
    }
    void marksAreAskedForOnceTheBoxIsOpen() {
        Build build = twoBoxes();
        build.types.edit([](TypeTable &types) { types.at("heavy-type").arrow = Vec3::UnitX(); });
        QVERIFY(of(RuleId::kitMarks, build).empty());
        build = *countKit(build, "light-type", 1);
        QCOMPARE(of(RuleId::kitMarks, build).size(), std::size_t(1));
        QVERIFY(of(RuleId::kitMarks, *confirmArrow(build, "heavy-type", true)).empty());
    }
    void holesThatDoNotLineUpAreFoundAndAnAdapterCarriesThem() {
        Build build;
        build.frame = *generateFrame(LayoutKind::quadX, {});
        test::addBox(build, "board", {36, 36, 2}, {0, 0, 5}, 8).placement.site = "site-stack";
        build.types.edit([](TypeTable &types) {
            types.at("board-type").mounting = HolePattern{PatternShape::square, 20, 0, 2.2, 4};
        });
        auto found = of(RuleId::fitMounting, build);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].severity, Severity::stop);
        QVERIFY(wordFinding(build, found[0]).detail.text().find("adapter plate from 30.5 mm square to 20 mm square") !=
                std::string::npos);
        test::addBox(build, "adapter", {36, 36, 1.5}, {0, 0, 2}, 3).placement.site = "site-stack";
        build.types.edit([](TypeTable &types) {
            types.at("adapter-type").mounting = HolePattern{PatternShape::square, 30.5, 0, 3.2, 4};
            types.at("adapter-type").carries = HolePattern{PatternShape::square, 20, 0, 2.2, 4};
        });
        QVERIFY(wordFinding(build, of(RuleId::fitMounting, build)[0]).detail.text().find("adapter would carry it") ==
                0);
        build.parts[0].fastening = {FasteningMethod::screws, {"adapter"}, false, {}};
        QVERIFY(of(RuleId::fitMounting, build).empty());
        // Holes line up but no screw, or only one whose head pulls through.
        build.types.edit([](TypeTable &types) {
            types.at("board-type").mounting = HolePattern{PatternShape::square, 30.5, 0, 1.2, 4};
        });
        QCOMPARE(of(RuleId::fitMounting, build)[0].variant, std::string("hole"));
        build.types.edit([](TypeTable &types) {
            types.at("board-type").mounting = HolePattern{PatternShape::square, 30.5, 0, 1.7, 4};
        });
        QCOMPARE(of(RuleId::fitMounting, build)[0].variant, std::string("head"));
        build.types.edit([](TypeTable &types) {
            types.at("board-type").mounting = HolePattern{PatternShape::square, 30.5, 0, 4.0, 4};
        });
        QVERIFY(of(RuleId::fitMounting, build).empty());
    }
    void motorNumbersTurnsAndHandsAreJudged() {
        Build build;
        build.frame = *generateFrame(LayoutKind::quadX, {});
        QVERIFY(of(RuleId::lnkNumbering, build).empty() && of(RuleId::lnkSpin, build).empty());
        auto change = [&](auto &&edit) {
            Build other = build;
            other.frame.edit(edit);
            return other;
        };
        QCOMPARE(of(RuleId::lnkNumbering, change([](Frame &f) { f.numbering.clear(); }))[0].severity,
                 Severity::unknown);
        const Build swapped = change([](Frame &f) { std::swap(f.motorMounts[0].number, f.motorMounts[1].number); });
        QCOMPARE(of(RuleId::lnkNumbering, swapped).size(), std::size_t(1)); // one for the craft
        QCOMPARE(of(RuleId::lnkNumbering, swapped)[0].subjects.size(), std::size_t(2));
        const Build twice = change([](Frame &f) {
            f.motorMounts[0].number = f.motorMounts[1].number;
            f.numbering = "own";
        });
        QCOMPARE(of(RuleId::lnkNumbering, twice)[0].severity, Severity::stop);
        const Build turned = change([](Frame &f) { f.motorMounts[0].spin = opposite(f.motorMounts[0].spin); });
        const auto spins = of(RuleId::lnkSpin, turned);
        QCOMPARE(spins.size(), std::size_t(3)); // the balance, and both neighbours
        QCOMPARE(spins[0].severity, Severity::stop);
        // Three motors: the odd one needs a servo.
        Build tri;
        tri.frame = *generateFrame(LayoutKind::triY, {});
        QCOMPARE(of(RuleId::lnkSpin, tri).at(0).variant, std::string("servo"));
        test::addBox(tri, "tail", {20, 10, 20}, {-60, 0, 40}, 17, PartKind::servo);
        QVERIFY(of(RuleId::lnkSpin, tri).empty());
        // Hands of propellers and nuts.
        const MotorMount &mount = build.frame->motorMounts[0];
        test::addBox(build, "prop", {10, 10, 5}, {0, 0, 20}, 5, PartKind::propeller).placement.site = mount.id;
        test::addBox(build, "nut", {6, 6, 4}, {0, 0, 26}, 1, PartKind::fastener).placement.site = mount.id;
        QCOMPARE(of(RuleId::lnkHand, build).at(0).variant, std::string("unstated"));
        build.parts[0].turns = mount.spin;
        build.parts[1].turns = mount.spin;
        QVERIFY(of(RuleId::lnkHand, build).empty());
        build.parts[0].turns = build.parts[1].turns = opposite(mount.spin);
        const auto hands = of(RuleId::lnkHand, build);
        QCOMPARE(hands.size(), std::size_t(2));
        for (const auto &finding : hands) {
            QCOMPARE(finding.severity, Severity::stop);
            QVERIFY(wordFinding(build, finding).detail.text().find('{') == std::string::npos);
        }
    }
};

QTEST_APPLESS_MAIN(TestKit)
#include "test_kit.moc"
