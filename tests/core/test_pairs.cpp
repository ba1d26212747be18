// Which pairs of bodies matter, for what, and that the world of clearances finds just those.
#include "core/analysis/analysis.h"
#include "core/clearance/clearance_world.h"
#include "core/edits/part_edits.h"
#include "core/practice/practice.h"
#include "core/scene/body_table.h"
#include "core/scene/scene.h"
#include "support/builds.h"

using namespace waxis;

namespace {

/// A build with one of everything that can meet: two parts on a soft site, a plate, an arm, a standoff, motors.
Build sample() {
    Build build = test::bareQuad();
    build.frame.edit([](Frame &frame) {
        frame.plates.push_back({"main",
                                "Main plate",
                                {{-60, -25}, {60, -25}, {60, 25}, {-60, 25}},
                                {},
                                {},
                                -2,
                                2,
                                "carbon",
                                false,
                                {},
                                {}});
        frame.arms.push_back(
            {"arm", {20, 20, 0}, {100, 100, 0}, 12, 5, ArmSection::bar, 0, "carbon", {}, {}, false, {}, {}});
        frame.standoffs.push_back({"post", StandoffRole::standoff, {40, 10, 0}, 25, 5, 3, "M3", "aluminium", {}});
        Site site;
        site.id = "soft-site";
        site.on = "main";
        site.isolated = true;
        frame.sites.push_back(site);
    });
    test::addBox(build, "fc", {30, 30, 6}, {0, 0, 10}, 8).placement.site = "soft-site";
    test::addBox(build, "esc", {30, 30, 6}, {0, 0, 20}, 12);
    test::addBox(build, "motor", {20, 20, 20}, {0, 0, 10}, 30, PartKind::motor).placement.site = "m1";
    test::addBox(build, "whip", {1, 1, 60}, {-40, 0, 30}, 1, PartKind::antenna);
    build.types.edit([](TypeTable &types) { test::typeIn(types, "whip").flexible = true; });
    return build;
}

class Table {
public:
    explicit Table(const Build &build)
        : practice_(practiceOf(build.practice)), table_(bodyTableOf(build, effectiveLoadCases(build), practice_)) {}
    /// What the first bodies of two owners ask of each other.
    PairDemands between(const std::string &a, const std::string &b) const {
        return demandsOf(table_.owners, traitsOf(a), traitsOf(b));
    }
    PairInterest interest(const std::string &a, const std::string &b) const {
        return interestIn(between(a, b), practice_);
    }
    const BodyTable &table() const { return table_; }

private:
    const BodyTraits &traitsOf(const std::string &id) const {
        for (const auto &traits : table_.traits)
            if (table_.owners[traits.owner].id == id) return traits;
        qFatal("no body of %s", id.c_str());
    }
    Practice practice_;
    BodyTable table_;
};

} // namespace

class TestPairs : public QObject {
    Q_OBJECT

private slots:
    void everyThingHasItsBodiesInOrder() {
        const Build build = sample();
        const Table table(build);
        std::vector<std::string> owners;
        for (const auto &owner : table.table().owners) owners.push_back(owner.id);
        QCOMPARE(owners, (std::vector<std::string>{"fc", "esc", "motor", "whip", "main", "arm", "post", "m1", "m2",
                                                   "m3", "m4"}));
        QCOMPARE(table.table().bodies.size(), table.table().traits.size());
        for (std::size_t i = 0; i < table.table().bodies.size(); ++i)
            QCOMPARE(table.table().bodies[i].owner, table.table().traits[i].owner);
    }
    void partsMustNotStandInEachOtherOrInTheFrame() {
        const Table table(sample());
        QVERIFY(table.between("esc", "whip").overlap);
        QVERIFY(table.between("esc", "main").overlap);
        QVERIFY(table.between("esc", "arm").overlap);
        QVERIFY(table.between("esc", "post").overlap);
    }
    void theFrameIsJudgedAgainstItself() {
        const Table table(sample());
        const PairDemands joint = table.between("main", "arm");
        QVERIFY(joint.held && joint.overlap && !joint.sway && !joint.heat && !joint.bare && !joint.propeller);
        const PairDemands post = table.between("main", "post"); // where they meet is a rule of its own
        QVERIFY(post.held && !post.overlap);
        QVERIFY(table.between("arm", "post").overlap);
        QVERIFY(!table.between("m1", "m2").any()); // tips have a rule of their own
    }
    void softMountedThingsSwayAgainstTheRest() {
        const Table table(sample());
        QVERIFY(table.between("fc", "esc").sway);
        QVERIFY(table.between("fc", "post").sway);
        QVERIFY(!table.between("esc", "post").sway);
        QVERIFY(!table.between("fc", "main").sway); // it is mounted on that
        QCOMPARE(table.interest("fc", "esc").within_mm, 3.0 + kLookAhead_mm);
    }
    void propellersAskTheirOwnMarginOfEachKind() {
        const Table table(sample());
        QCOMPARE(table.between("esc", "m1").propeller.value(), Limit::propRigidGap);
        QCOMPARE(table.between("whip", "m1").propeller.value(), Limit::propFlexibleGap);
        QVERIFY(!table.between("motor", "m1").any());
        QVERIFY(table.between("motor", "m2").propeller.has_value());
        QVERIFY(!table.between("esc", "m1").overlap); // no touching rule beside the zone's own
    }
    void demandsDoNotDependOnTheOrder() {
        const Table table(sample());
        const auto &owners = table.table().owners;
        for (const auto &a : owners)
            for (const auto &b : owners) {
                if (a.id == b.id) continue;
                const PairDemands one = table.between(a.id, b.id), other = table.between(b.id, a.id);
                QCOMPARE(one.overlap, other.overlap);
                QCOMPARE(one.sway, other.sway);
                QCOMPARE(one.heat, other.heat);
                QCOMPARE(one.bare, other.bare);
                QVERIFY(one.propeller == other.propeller);
            }
    }
    void noPairOfInterestIsMissedByTheBroadPhase() {
        // Every pair measured one by one against what the world keeps, in a build that is thrown together at random.
        std::mt19937 random(77);
        std::uniform_real_distribution<double> place(-40, 40), angle(-180, 180);
        Build build = sample();
        for (int i = 0; i < 40; ++i) {
            const auto id = "r" + std::to_string(i);
            test::addBox(build, id, {5.0 + i % 9, 6, 4.0 + i % 5}, {place(random), place(random), place(random) / 2}, 2)
                .placement.pose.rotation = quaternionFrom({angle(random), angle(random) / 2.1, angle(random)});
            build.types.edit([&](TypeTable &types) {
                test::typeIn(types, id).hot = i % 4 == 0;
                test::typeIn(types, id).solids[0].bare = i % 3 == 0;
                test::typeIn(types, id).solids[0].material = i % 5 == 0 ? "petg" : i % 5 == 1 ? "carbon" : "";
            });
        }
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        const Practice practice = practiceOf(build.practice);
        std::set<std::pair<int, int>> kept;
        for (const auto &gap : derived.scene.world->gaps()) kept.emplace(gap.a, gap.b);
        const int count = int(derived.scene.traits.size());
        int expected = 0;
        for (int a = 0; a < count; ++a)
            for (int b = a + 1; b < count; ++b) {
                if (derived.scene.traits[a].owner == derived.scene.traits[b].owner) continue;
                const auto interest = interestIn(
                    demandsOf(derived.scene.owners, derived.scene.traits[a], derived.scene.traits[b]), practice);
                const bool wanted =
                    interest.look && derived.scene.world->measure(a, b).distance_mm <= interest.within_mm;
                QVERIFY2(wanted == kept.contains({a, b}), "seed 77");
                expected += wanted;
            }
        QCOMPARE(int(kept.size()), expected);
        QVERIFY(expected > 40);
    }
    void movingAPartOfManySolidsMovesThemAll() {
        Build build = test::bareQuad();
        test::addBox(build, "tee", {10, 10, 10}, {0, 0, 0}, 5);
        build.types.edit([](TypeTable &types) {
            test::typeIn(types, "tee").solids = {test::solidBox({40, 4, 4}), test::solidBox({4, 4, 40}, {0, 0, -22})};
        });
        test::addBox(build, "wall", {4, 100, 100}, {40, 0, 0}, 5);
        Analyser analyser;
        analyser.update(build);
        const Build moved = *shiftPart(build, "tee", {20, 0, 0});
        const Derived &derived = analyser.update(moved).derived;
        QVERIFY(std::abs(derived.scene.world->measure(0, 2).distance_mm - 0) < 1e-9); // 20 + 20 reaches into 38
        QVERIFY(std::abs(derived.scene.world->measure(1, 2).distance_mm - 16) < 1e-9);
        QCOMPARE(derived.scene.world->gaps().size(), std::size_t(1));
        QVERIFY(std::abs(derived.scene.world->gaps()[0].depth_mm - 2) < 1e-9);
    }
};

QTEST_APPLESS_MAIN(TestPairs)
#include "test_pairs.moc"
