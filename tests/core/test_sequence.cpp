// In which order a craft goes together: puzzles whose answers are known, and the demos put together once more.
#include "core/analysis/analysis.h"
#include "core/instructions/step_words.h"
#include "core/sequence/blocking.h"
#include "core/sequence/plan.h"
#include "support/puzzles.h"

#include <QElapsedTimer>

using namespace waxis;
using namespace waxis::test;

namespace {

/// A tray 40 mm wide with walls 20 mm high, open at the top.
std::vector<Solid> tray() {
    return {wall({40, 40, 2}, {0, 0, 1}), wall({2, 40, 20}, {-19, 0, 10}), wall({2, 40, 20}, {19, 0, 10}),
            wall({40, 2, 20}, {0, -19, 10}), wall({40, 2, 20}, {0, 19, 10})};
}

struct Puzzle {
    Build build = bareQuad(500);
    PutTogether solve() {
        Analyser analyser;
        scene = analyser.update(build).derived.scene;
        graph = std::make_unique<BlockingGraph>(build, scene, practiceOf({}), 0);
        return putTogether(*graph);
    }
    int place(const PutTogether &together, const std::string &id) const {
        for (std::size_t i = 0; i < together.order.size(); ++i)
            for (const int thing : together.order[i].things)
                if (graph->things()[std::size_t(thing)].id == id) return int(i);
        return -1;
    }
    const PutIn &step(const PutTogether &together, const std::string &id) const {
        return together.order[std::size_t(place(together, id))];
    }
    Scene scene;
    std::unique_ptr<BlockingGraph> graph;
};

} // namespace

class TestSequence : public QObject {
    Q_OBJECT

private slots:
    void whatLiesInATrayGoesInBeforeItsLid() {
        Puzzle p;
        addShape(p.build, "lid", {wall({40, 40, 2}, {0, 0, 1})}, {0, 0, 20}, {"tray"});
        addShape(p.build, "cube", {wall({10, 10, 10}, {0, 0, 5})}, {0, 0, 2}, {"tray"});
        addShape(p.build, "tray", tray(), {0, 0, 0});
        const PutTogether together = p.solve();
        QCOMPARE(int(together.order.size()), 3);
        QCOMPARE(p.place(together, "tray"), 0);
        QCOMPARE(p.place(together, "cube"), 1);
        QCOMPARE(p.place(together, "lid"), 2);
        QVERIFY(p.step(together, "cube").from.isApprox(Vec3(0, 0, 1)));
        QVERIFY(p.step(together, "tray").first);
        const auto inTheWay = std::find_if(together.edges.begin(), together.edges.end(),
                                           [&](const Before &b) { return b.reason == BeforeReason::inTheWay; });
        QVERIFY(inTheWay != together.edges.end());
        QCOMPARE(p.graph->things()[std::size_t(inTheWay->first)].id, std::string("cube"));
        QCOMPARE(p.graph->things()[std::size_t(inTheWay->second)].id, std::string("lid"));
    }
    void aKeyGoesInWhereItsSlotIsOpen() {
        // Walls on five sides; forwards it is open, and the cap shuts that.
        Puzzle p;
        addShape(p.build, "lock",
                 {wall({30, 12, 2}, {0, 0, -4}), wall({30, 12, 2}, {0, 0, 4}), wall({30, 2, 6}, {0, -5, 0}),
                  wall({30, 2, 6}, {0, 5, 0}), wall({2, 12, 10}, {-14, 0, 0})},
                 {0, 0, 0});
        addShape(p.build, "key", {wall({20, 6, 4}, {0, 0, 0})}, {2, 0, 0}, {"lock"});
        addShape(p.build, "cap", {wall({2, 12, 10}, {0, 0, 0})}, {16, 0, 0}, {"lock"});
        const PutTogether together = p.solve();
        QVERIFY(p.place(together, "key") < p.place(together, "cap"));
        QVERIFY(p.step(together, "key").from.isApprox(Vec3(1, 0, 0)));
        for (const auto &put : together.order) QVERIFY(put.stuckBehind.empty());
    }
    void aScrewGoesInBeforeWhatCoversItsHead() {
        Puzzle p;
        addShape(p.build, "base", {wall({40, 40, 4}, {0, 0, 2})}, {0, 0, 0});
        addShape(p.build, "board", {wall({30, 30, 2}, {0, 0, 1})}, {0, 0, 4}, {"base"});
        Part &screw = addShape(p.build, "screw", {wall({3, 3, 8}, {0, 0, -4}), wall({6, 6, 3}, {0, 0, 1.5})}, {0, 0, 6},
                               {"board", "base"});
        (void)screw;
        p.build.types.edit([](TypeTable &types) {
            typeIn(types, "screw").kind = PartKind::fastener;
            typeIn(types, "screw").fastener = FastenerData{FastenerForm::screw, "M3", 8, HeadStyle::cap};
        });
        addShape(p.build, "cover", {wall({40, 40, 2}, {0, 0, 1})}, {0, 0, 12}, {"base"});
        const PutTogether together = p.solve();
        QVERIFY(p.place(together, "board") < p.place(together, "screw"));
        QVERIFY(p.place(together, "screw") < p.place(together, "cover"));
        QVERIFY(p.step(together, "screw").from.isApprox(Vec3(0, 0, 1)));
    }
    void whatIsShutInIsNamedWithWhoShutsItIn() {
        Puzzle p;
        auto shut = tray();
        shut.push_back(wall({40, 40, 2}, {0, 0, 19}));
        addShape(p.build, "shell", shut, {0, 0, 0});
        addShape(p.build, "nut", {wall({10, 10, 10}, {0, 0, 5})}, {0, 0, 3}, {"shell"});
        const PutTogether together = p.solve();
        const PutIn &stuck = p.step(together, "nut");
        QCOMPARE(stuck.stuckBehind.size(), std::size_t(1));
        QCOMPARE(p.graph->things()[std::size_t(stuck.stuckBehind[0])].id, std::string("shell"));
    }
    void whatGoesTogetherIsBuiltApart() {
        // A hook over a rail: carrier and rider come out of the slot only as one.
        Puzzle p;
        addShape(p.build, "housing",
                 {wall({60, 20, 2}, {0, 0, -6}), wall({60, 20, 2}, {0, 0, 14}), wall({2, 20, 22}, {-29, 0, 4}),
                  wall({60, 2, 22}, {0, -10, 4}), wall({60, 2, 22}, {0, 10, 4})},
                 {0, 0, 0});
        addShape(p.build, "sled", {wall({30, 10, 4}, {0, 0, 0}), wall({2, 10, 8}, {14, 0, 4})}, {0, 0, 0}, {"housing"});
        addShape(p.build, "load", {wall({20, 8, 6}, {0, 0, 3})}, {0, 0, 2.5}, {"sled"});
        const PutTogether together = p.solve();
        const PutIn &sled = p.step(together, "sled");
        QCOMPARE(sled.things.size(), std::size_t(2));
        QCOMPARE(p.place(together, "load"), p.place(together, "sled"));
        QVERIFY(sled.from.isApprox(Vec3(1, 0, 0)));
        QVERIFY(sled.stuckBehind.empty());
    }
    void likeThingsAreOneStepAndSayWhy() {
        Puzzle p;
        p.build.loadCases = {{"fly", "Fly", {}, {}}};
        addShape(p.build, "base", {wall({60, 60, 4}, {0, 0, 2})}, {0, 0, 0});
        for (const double x : {-20.0, 20.0})
            addShape(p.build, x < 0 ? "post-1" : "post-2", {wall({4, 4, 10}, {0, 0, 5})}, {x, 0, 4}, {"base"});
        for (auto &part : p.build.parts)
            if (part.id == "post-2") part.type = "post-1-type";
        addShape(p.build, "lid", {wall({60, 60, 2}, {0, 0, 1})}, {0, 0, 14}, {"base"});
        Analyser analyser;
        const Derived &derived = analyser.update(p.build).derived;
        const AssemblyPlan plan = planAssembly(p.build, practiceOf({}), derived, 0);
        QCOMPARE(plan.loadCase, std::string("fly"));
        QCOMPARE(plan.steps.size(), std::size_t(6)); // and three gates of checks
        for (std::size_t i = 3; i < 6; ++i) QCOMPARE(plan.steps[i].kind, OperationKind::check);
        QCOMPARE(wordStep(p.build, plan.steps[0]).text(), std::string("Begin with base"));
        QCOMPARE(plan.steps[1].things.size(), std::size_t(2));
        QCOMPARE(wordStep(p.build, plan.steps[1]).text(), std::string("post-1 and post-2 onto base, from above"));
        const auto why = wordWhyHere(p.build, plan, 1);
        QCOMPARE(why.size(), std::size_t(1));
        QCOMPARE(why[0].text(), std::string("before lid, which would stand in its way"));
        QCOMPARE(wordStep(p.build, plan.steps[2]).text(), std::string("lid onto base, from above"));
        QCOMPARE(plan.steps[2].id, std::string("fit:lid"));
    }
    void propellersComeLast() {
        for (const char *demo : {"stakewalker", "owlbox-mini", "sedge-tri", "kilnlamp"}) {
            const Build build = loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + demo + ".waxis")->build;
            Analyser analyser;
            const Derived &derived = analyser.update(build).derived;
            const AssemblyPlan plan = planAssembly(build, practiceOf(build.practice), derived, 0);
            std::size_t first = plan.steps.size();
            const auto belongs = [&](const std::string &id) {
                const Part *part = findPart(build, id);
                if (!part) return false;
                for (const auto &held : part->fastening.onto)
                    if (const Part *on = findPart(build, held); on && typeOf(build, *on)->kind == PartKind::propeller)
                        return true;
                return typeOf(build, *part)->kind == PartKind::propeller;
            };
            for (std::size_t i = 0; i < plan.steps.size(); ++i) {
                const bool fits = plan.steps[i].kind == OperationKind::fit;
                if (fits && belongs(plan.steps[i].things.front())) first = std::min(first, i);
                // What flies only in a later load case goes on after the first flight.
                if (i > first && fits && !plan.steps[i].hasFlown)
                    QVERIFY2(belongs(plan.steps[i].things.front()), plan.steps[i].id.c_str());
                if (plan.steps[i].gate == Gate::end) QVERIFY2(first == plan.steps.size(), demo); // none is on yet
            }
            QVERIFY2(first < plan.steps.size(), demo);
        }
    }
    void theDemosGoTogetherOnceMore_data() {
        QTest::addColumn<QString>("demo");
        for (const char *demo : {"stakewalker", "owlbox-mini", "sedge-tri", "kilnlamp"}) QTest::newRow(demo) << demo;
    }
    void theDemosGoTogetherOnceMore() {
        QFETCH(QString, demo);
        Puzzle p;
        p.build = loadBuild((WEIGHTAXIS_TEST_DATA "/demos/" + demo + ".waxis").toStdString())->build;
        QElapsedTimer clock;
        clock.start();
        const PutTogether together = p.solve();
        const auto &things = p.graph->things();
        qInfo("%s: %d things, %d steps, %d ms", qPrintable(demo), int(things.size()), int(together.order.size()),
              int(clock.elapsed()));
        // Put in one by one along their ways: nothing that is there already is met.
        std::vector<bool> there(things.size(), false);
        std::size_t placed = 0;
        int stuck = 0;
        for (const auto &put : together.order) {
            for (const int thing : put.things) {
                QVERIFY(!there[std::size_t(thing)]);
                if (!put.first && put.stuckBehind.empty())
                    for (const int other : p.graph->inTheWay(thing, put.from))
                        QVERIFY2(!there[std::size_t(other)],
                                 qPrintable(QString::fromStdString(things[std::size_t(thing)].id + " past " +
                                                                   things[std::size_t(other)].id)));
            }
            for (const int thing : put.things) there[std::size_t(thing)] = true;
            placed += put.things.size();
            if (!put.stuckBehind.empty()) {
                ++stuck;
                std::string who;
                for (const int other : put.stuckBehind) who += " " + things[std::size_t(other)].id;
                qInfo("stuck: %s behind%s", things[std::size_t(put.things[0])].id.c_str(), who.c_str());
            }
        }
        QCOMPARE(placed, things.size());
        for (const auto &before : together.edges) {
            int first = -1, second = -1;
            for (std::size_t i = 0; i < together.order.size(); ++i)
                for (const int thing : together.order[i].things) {
                    if (thing == before.first) first = int(i);
                    if (thing == before.second) second = int(i);
                }
            QVERIFY(first <= second || stuck > 0);
        }
    }
};

QTEST_APPLESS_MAIN(TestSequence)
#include "test_sequence.moc"
