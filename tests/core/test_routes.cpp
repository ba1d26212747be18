// Routes: lengths against hand-computed polylines, an exhaustive search, and properties on random fields.
#include "core/analysis/analysis.h"
#include "core/analysis/led_wires.h"
#include "core/clearance/clearance_world.h"
#include "core/edits/part_edits.h"
#include "core/edits/wire_edits.h"
#include "core/practice/practice.h"
#include "core/wiring/route_search.h"
#include "core/wiring/routing.h"
#include "io/report_json/analysis_json.h"
#include "support/wires.h"

#include <QtTest>
#include <queue>
#include <random>

using namespace waxis;
using namespace waxis::test;

namespace {

constexpr double kClearance_mm = 1.75;

Aabb room(double reach_mm) {
    Aabb box;
    box.include(Vec3::Constant(-reach_mm));
    box.include(Vec3::Constant(reach_mm));
    return box;
}

RouteObstacle boxAt(const Vec3 &size, const Vec3 &at) { return {Box{size}, {at, Quat::Identity()}}; }

std::vector<RouteObstacle> randomField(std::mt19937 &random, int count, double reach_mm) {
    std::uniform_real_distribution<double> place(-reach_mm, reach_mm), size(6, 30), turn(0, 3);
    std::vector<RouteObstacle> field;
    for (int i = 0; i < count; ++i) {
        const Pose pose{Vec3(place(random), place(random), place(random)),
                        Quat(Eigen::AngleAxisd(turn(random), Vec3(1, turn(random), 0.5).normalized()))};
        if (i % 3 == 0)
            field.push_back({Cylinder{size(random), size(random)}, pose});
        else
            field.push_back({Box{Vec3(size(random), size(random), size(random))}, pose});
    }
    return field;
}

/// Dijkstra over every lattice point in a box, with the 26 neighbours: slow, simple, and another way to the same thing.
double exhaustive(const RouteField &field, const Vec3 &from, const Vec3 &to, double clearance_mm, double margin_mm) {
    using Cell = RouteField::Cell;
    const Cell low = field.nearestCell(from.cwiseMin(to) - Vec3::Constant(margin_mm)),
               high = field.nearestCell(from.cwiseMax(to) + Vec3::Constant(margin_mm)),
               size = high - low + Cell::Ones();
    auto index = [&](const Cell &c) { return (std::size_t(c.z()) * size.y() + c.y()) * size.x() + c.x(); };
    auto isFree = [&](const Cell &c) {
        const Vec3 p = field.position(c);
        const double near = std::min((p - from).norm(), (p - to).norm());
        return field.tenths(c) >= std::min(clearance_mm * 10, 5 * (near - 3.0));
    };
    std::vector<double> way(std::size_t(size.prod()), 1e300);
    std::priority_queue<std::pair<double, std::size_t>, std::vector<std::pair<double, std::size_t>>, std::greater<>>
        open;
    const Cell start = field.nearestCell(from) - low, end = field.nearestCell(to) - low;
    way[index(start)] = 0;
    open.push({0, index(start)});
    while (!open.empty()) {
        const auto [length, at] = open.top();
        open.pop();
        if (length > way[at]) continue;
        const Cell c(int(at % std::size_t(size.x())), int(at / std::size_t(size.x()) % std::size_t(size.y())),
                     int(at / std::size_t(size.x()) / std::size_t(size.y())));
        if (c == end) return length;
        for (int x = -1; x <= 1; ++x)
            for (int y = -1; y <= 1; ++y)
                for (int z = -1; z <= 1; ++z) {
                    const Cell n = c + Cell(x, y, z);
                    if ((x || y || z) && (n.array() >= 0).all() && (n.array() < size.array()).all() &&
                        isFree(n + low)) {
                        const double next = length + RouteField::kPitch_mm * Vec3(x, y, z).norm();
                        if (next < way[index(n)] - 1e-9) {
                            way[index(n)] = next;
                            open.push({next, index(n)});
                        }
                    }
                }
    }
    return 1e300;
}

} // namespace

class TestRoutes : public QObject {
    Q_OBJECT

private slots:
    void mountsAreGoneRoundOrThroughTheirOpenings_data() {
        QTest::addColumn<double>("hole"); // side of a square opening; 0: none
        QTest::addColumn<bool>("through");
        QTest::newRow("closed") << 0.0 << false;
        QTest::newRow("too narrow") << 2.0 << false;
        QTest::newRow("wide enough") << 14.0 << true;
    }
    void mountsAreGoneRoundOrThroughTheirOpenings() {
        // An upright mount of 120 x 120 that carries an antenna, between two boards 80 mm apart.
        QFETCH(double, hole);
        QFETCH(bool, through);
        Build build = bareQuad();
        for (const auto &[id, x] : {std::pair{"a", -40.0}, {"b", 40.0}}) addBox(build, id, {10, 10, 4}, {x, 0, 0}, 2);
        addBox(build, "mount", {4, 120, 120}, {0, 0, 0}, 5, PartKind::mount);
        addBox(build, "antenna", {4, 4, 40}, {0, 0, 82}, 3, PartKind::antenna).fastening = {
            FasteningMethod::glue, {"mount"}, false, {}};
        build.types.edit([&](TypeTable &types) {
            for (const auto &[id, side] : {std::pair{"a", 1.0}, {"b", -1.0}}) {
                Port port;
                port.id = "p";
                port.position_mm = {5 * side, 0, 0};
                port.direction = {side, 0, 0};
                port.pins = {{"TX", {}, false}};
                typeIn(types, id).ports = {port};
            }
            if (!(hole > 0)) return;
            const double h = hole / 2;
            Polygon plate{{{-60, -60}, {60, -60}, {60, 60}, {-60, 60}}, {{{-h, -h}, {h, -h}, {h, h}, {-h, h}}}};
            Mat3 turn; // its polygon stands upright across the craft
            turn << Vec3::UnitY(), Vec3::UnitZ(), Vec3::UnitX();
            Solid solid;
            solid.shape = Prism{plate, 4};
            solid.X_PartSolid = {Vec3(-2, 0, 0), Quat(turn)};
            typeIn(types, "mount").solids = {solid};
        });
        Wire wire;
        wire.id = "w";
        wire.from = {"a", "p"};
        wire.to = {"b", "p"};
        wire.cores = {{"TX", "TX", 28, {}}};
        build.wires = {wire};
        Analyser analyser;
        const auto &route = analyser.update(build).derived.routes[0];
        QVERIFY(route.found);
        QCOMPARE(route.length_mm < 90, through); // 70 straight on; 130 and more round its edge
        if (!through) QVERIFY2(route.length_mm > 120, std::to_string(route.length_mm).c_str());
    }
    void aLeadRunsInTheTubeThatCarriesItsAntenna() {
        // An antenna on top of a tube 60 mm high; its lead goes down in it, another's wire does not go through it.
        Build build = bareQuad();
        addBox(build, "rx", {10, 10, 4}, {60, 0, -10}, 2, PartKind::receiver);
        addBox(build, "tube", {6, 6, 60}, {0, 0, 30}, 2, PartKind::tube);
        addBox(build, "whip", {2, 2, 40}, {0, 0, 80}, 2, PartKind::antenna).fastening = {
            FasteningMethod::glue, {"tube"}, false, {}};
        build.types.edit([](TypeTable &types) {
            Port port;
            port.id = "p";
            port.kind = PortKind::coax;
            port.position_mm = {0, 0, -20};
            port.direction = -Vec3::UnitZ();
            typeIn(types, "whip").ports = {port};
            port.position_mm = {-5, 0, 0};
            port.direction = -Vec3::UnitX();
            typeIn(types, "rx").ports = {port};
        });
        Wire wire;
        wire.id = "w";
        wire.from = {"whip", "p"};
        wire.to = {"rx", "p"};
        wire.lay = WireLay::coax;
        build.wires = {wire};
        Analyser analyser;
        const auto &route = analyser.update(build).derived.routes[0];
        QVERIFY(route.found);
        // From its foot at 60 straight down to below the tube, then to the receiver.
        QVERIFY((route.points_mm[1] - Vec3(0, 0, 60)).normalized().isApprox(-Vec3::UnitZ(), 1e-6));
        QVERIFY(route.points_mm[1].z() < 0);
        QVERIFY(route.length_mm > 110 && route.length_mm < 140);
    }
    void pointDistancesAreExact() {
        // By hand: face, edge and corner of a box 10 x 20 x 30; a cylinder 10 across and 20 long; a sphere; a plate
        // with a hole.
        const Box box{Vec3(10, 20, 30)};
        QCOMPARE(pointDistance(box, Vec3(8, 0, 0)), 3.0);
        QCOMPARE(pointDistance(box, Vec3(8, 14, 0)), 5.0);
        QCOMPARE(pointDistance(box, Vec3(6, 12, 17)), 3.0);
        QCOMPARE(pointDistance(box, Vec3(1, 2, 3)), 0.0);
        QCOMPARE(pointDistance(Cylinder{10, 20}, Vec3(8, 0, 14)), 5.0);
        QCOMPARE(pointDistance(Sphere{10}, Vec3(0, 0, 9)), 4.0);
        const Prism plate{{{{-20, -20}, {20, -20}, {20, 20}, {-20, 20}}, {{{-5, -5}, {5, -5}, {5, 5}, {-5, 5}}}}, 2};
        QCOMPARE(pointDistance(plate, Vec3(0, 0, 1)), 5.0); // in the hole
        QCOMPARE(pointDistance(plate, Vec3(10, 10, 1)), 0.0);
        QCOMPARE(pointDistance(plate, Vec3(23, 0, 6)), 5.0);
        QCOMPARE(pointDistance(plate, Vec3(10, 0, -3)), 3.0);
    }
    void freeWaysAreStraight() {
        const RouteField field({}, room(100));
        const RouteLeg leg = findLeg(field, {-80, 3, 7}, {70, 50, -20}, kClearance_mm);
        QVERIFY(leg.found);
        QCOMPARE(leg.points_mm.size(), std::size_t(2));
        QVERIFY(std::abs(leg.length_mm - Vec3(150, 47, -27).norm()) < 1e-9);
    }
    void theLatticeIsBoundedHoweverFarThingsLie_data() {
        QTest::addColumn<double>("reach_mm");
        for (const double reach : {500.0, 5000.0, 20000.0, 100000.0})
            QTest::newRow(qPrintable(QString("%1 m").arg(reach / 1000))) << reach;
    }
    void theLatticeIsBoundedHoweverFarThingsLie() {
        QFETCH(double, reach_mm);
        const std::vector<RouteObstacle> wall{boxAt({2, 60, 60}, {0, 0, 0})};
        const RouteField field(wall, room(reach_mm));
        QVERIFY(field.size().cast<double>().prod() <= RouteField::kMostPoints);
        // Near the middle it leads round as ever; far away straight.
        const RouteLeg near = findLeg(field, {-40, 0, 0}, {40, 0, 0}, kClearance_mm);
        QVERIFY(near.found && near.length_mm > 80 && near.length_mm < 120);
        const RouteLeg far = findLeg(field, {200, 0, 0}, {reach_mm, reach_mm, reach_mm}, kClearance_mm);
        QCOMPARE(far.points_mm.size(), std::size_t(2));
    }
    void aWallIsGoneRoundAtItsEdge() {
        // A wall 4 mm thick and 60 mm high from y = -100 to y = 20, the ends 50 mm before and behind it at y = 0. By
        // hand: over its end at y = 20 + clearance, two straight legs, sqrt(48^2 + 21.75^2) twice and 4 mm past its
        // thickness.
        const std::vector<RouteObstacle> wall{boxAt({4, 120, 60}, {0, -40, 0})};
        const RouteField field(wall, room(110));
        const RouteLeg leg = findLeg(field, {-50, 0, 0}, {50, 0, 0}, kClearance_mm);
        const double hand = 2 * std::hypot(48.0, 21.75) + 4;
        QVERIFY(leg.found);
        QVERIFY2(leg.length_mm > hand - 0.5, qPrintable(QString::number(leg.length_mm)));
        QVERIFY2(leg.length_mm < hand * kStretch + RouteField::kPitch_mm, qPrintable(QString::number(leg.length_mm)));
        for (const Vec3 &p : leg.points_mm)
            QVERIFY(pointDistance(wall[0].shape, wall[0].X_FrameShape.inverse() * p) > 0.5);
    }
    void aSlotInAPlateIsFound() {
        const Polygon outline{{{-90, -90}, {90, -90}, {90, 90}, {-90, 90}}, {{{30, -5}, {40, -5}, {40, 5}, {30, 5}}}};
        const std::vector<RouteObstacle> plate{{Prism{outline, 2}, {Vec3(0, 0, -1), Quat::Identity()}}};
        const RouteField field(plate, room(100));
        const Vec3 slot(35, 0, 0);
        const RouteLeg leg = findLeg(field, {-20, 0, 30}, {-20, 0, -30}, kClearance_mm, std::span(&slot, 1));
        QVERIFY(leg.found);
        // By hand: to the slot's nearer edge and back, about 2 sqrt(52^2 + 30^2); round the plate it would be over 180.
        QVERIFY2(leg.length_mm < 2 * std::hypot(56.0, 30.0) * kStretch + 5, qPrintable(QString::number(leg.length_mm)));
        QVERIFY(leg.length_mm > 2 * std::hypot(50.0, 30.0));
        // Nothing leads into a closed box.
        std::vector<RouteObstacle> closed;
        for (int axis = 0; axis < 3; ++axis)
            for (int side : {-1, 1}) {
                Vec3 size = Vec3::Constant(44), at = Vec3::Zero();
                size[axis] = 4;
                at[axis] = 20 * side;
                closed.push_back(boxAt(size, at));
            }
        const RouteField sealed(closed, room(60));
        const RouteLeg none = findLeg(sealed, {0, 0, 0}, {50, 0, 0}, kClearance_mm);
        QVERIFY(!none.found);
        QCOMPARE(none.points_mm.size(), std::size_t(2));
    }
    void neverShorterThanStraightNorLongerThanExhaustive() {
        const unsigned seed = 26;
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> place(-45, 45);
        int routed = 0;
        for (int round = 0; round < 30; ++round) {
            const RouteField field(randomField(random, 14, 45), room(50));
            const Vec3 from(place(random), place(random), place(random)),
                to(place(random), place(random), place(random));
            const RouteLeg leg = findLeg(field, from, to, kClearance_mm);
            if (!leg.found) continue;
            ++routed;
            QVERIFY2(leg.length_mm >= (to - from).norm() - 1e-9,
                     qPrintable(QString("seed %1 round %2").arg(seed).arg(round)));
            double along = 0;
            for (std::size_t i = 0; i + 1 < leg.points_mm.size(); ++i)
                along += (leg.points_mm[i + 1] - leg.points_mm[i]).norm();
            QVERIFY(std::abs(along - leg.length_mm) < 1e-6);
            // The exhaustive search has fewer directions and starts on lattice points up to 2.2 mm off the ends.
            const double slow = exhaustive(field, from, to, kClearance_mm, 50);
            if (slow > 1e299) continue;
            QVERIFY2(leg.length_mm <= slow * kStretch + 2 * 2.2 + 2 * RouteField::kPitch_mm,
                     qPrintable(
                         QString("seed %1 round %2: %3 against %4").arg(seed).arg(round).arg(leg.length_mm).arg(slow)));
        }
        QVERIFY(routed > 15);
    }
    void anotherObstacleNeverShortens() {
        const unsigned seed = 126;
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> place(-60, 60);
        int compared = 0;
        for (int round = 0; round < 12; ++round) {
            const Vec3 from(place(random), place(random), place(random)),
                to(place(random), place(random), place(random));
            auto obstacles = randomField(random, 24, 60);
            double last = 0;
            for (std::size_t count = 0; count <= obstacles.size(); count += 3) {
                const RouteField field(std::span(obstacles.data(), count), room(70));
                const RouteLeg leg = findLeg(field, from, to, kClearance_mm);
                if (!leg.found) break;
                QVERIFY2(leg.length_mm >= last - 1e-9, qPrintable(QString("seed %1 round %2 with %3: %4 after %5")
                                                                      .arg(seed)
                                                                      .arg(round)
                                                                      .arg(count)
                                                                      .arg(leg.length_mm)
                                                                      .arg(last)));
                last = leg.length_mm;
                ++compared;
            }
        }
        QVERIFY(compared > 40);
    }
    void fieldsThatFollowEqualFreshOnes() {
        const unsigned seed = 7;
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> shift(-15, 15);
        auto obstacles = randomField(random, 20, 50);
        RouteField kept(obstacles, room(60));
        for (int round = 0; round < 8; ++round) {
            auto &moved = obstacles[std::size_t(round) % obstacles.size()];
            std::vector<Aabb> touched{boundsOf(moved.shape, moved.X_FrameShape)};
            moved.X_FrameShape.position_mm += Vec3(shift(random), shift(random), shift(random));
            touched.push_back(boundsOf(moved.shape, moved.X_FrameShape));
            kept.update(obstacles, touched);
            const RouteField fresh(obstacles, room(60));
            for (int x = -20; x <= 20; ++x)
                for (int y = -20; y <= 20; ++y)
                    for (int z = -20; z <= 20; ++z) QCOMPARE(kept.tenths({x, y, z}), fresh.tenths({x, y, z}));
        }
    }
    void onlyWhatMustIsLedAgain() {
        Build build = stakewalker();
        Analyser analyser;
        analyser.update(build);
        RouteKeeper keeper;
        auto lead = [&](const Build &b) {
            Analyser fresh;
            const Derived &derived = fresh.update(b).derived;
            return keeper.update(b, practiceOf(b.practice), derived.scene.world->bodies(), derived.scene.owners,
                                 derived.scene.traits);
        };
        lead(build);
        QCOMPARE(keeper.led(), int(build.wires.size()));
        lead(build);
        QCOMPARE(keeper.led(), 0);
        // A lamp out on an arm concerns its own wire and the motor's that passes it; not the GPS.
        const auto moved = shiftPart(build, "lamp-1", Vec3(0, 0, 3));
        QVERIFY(bool(moved));
        lead(*moved);
        QVERIFY2(keeper.led() >= 1 && keeper.led() <= 4, qPrintable(QString::number(keeper.led())));
    }
    void incrementalRoutesEqualFreshOnes() {
        Build build = stakewalker();
        const unsigned seed = 88;
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> shift(-6, 6);
        Analyser kept;
        kept.update(build);
        const std::vector<const char *> parts{"rx", "buzzer", "cap", "gps", "plug", "vtx", "lamp-2"};
        for (int round = 0; round < 10; ++round) {
            const auto next =
                shiftPart(build, parts[std::size_t(round) % parts.size()], Vec3(shift(random), shift(random), 0));
            QVERIFY(bool(next));
            build = *next;
            Analyser fresh;
            const auto &a = kept.update(build).derived.routes;
            const auto &b = fresh.update(build).derived.routes;
            for (std::size_t w = 0; w < a.size(); ++w) {
                QCOMPARE(a[w].found, b[w].found);
                QVERIFY2(a[w].points_mm == b[w].points_mm,
                         qPrintable(QString("seed %1 round %2 %3")
                                        .arg(seed)
                                        .arg(round)
                                        .arg(QString::fromStdString(build.wires[w].id))));
            }
        }
    }
    void whatWasLedInAHurryIsSettledAfterwards() {
        const auto loaded = loadBuild(WEIGHTAXIS_TEST_DATA "/demos/kilnlamp.waxis");
        QVERIFY(bool(loaded));
        Analyser dragged, fresh;
        dragged.update(loaded->build);
        dragged.setHurry(true);
        Build build = loaded->build;
        for (int step = 0; step < 3; ++step) {
            build = *shiftPart(build, "gps", Vec3(2, -1, 0));
            dragged.update(build);
        }
        dragged.setHurry(false);
        const auto &a = dragged.update(build).derived.routes;
        const auto &b = fresh.update(build).derived.routes;
        for (std::size_t w = 0; w < a.size(); ++w)
            QVERIFY2(a[w].points_mm == b[w].points_mm, build.wires[w].id.c_str());
    }
    void whatExceedsTheBudgetIsLedByAnother_data() {
        QTest::addColumn<int>("budget");
        QTest::newRow("nothing") << 0;
        QTest::newRow("a few wires") << 3000;
        QTest::newRow("all but the last") << 40'000;
    }
    void whatExceedsTheBudgetIsLedByAnother() {
        QFETCH(int, budget);
        const auto loaded = loadBuild(WEIGHTAXIS_TEST_DATA "/demos/kilnlamp.waxis");
        QVERIFY(bool(loaded));
        Build build = loaded->build;
        Analyser window;
        window.setRouteBudget(std::size_t(budget));
        const Derived &derived = window.update(build).derived;
        QVERIFY(derived.wiresPutOff > 0);
        for (const auto &finding : window.current().findings) // what is not led yet is no "no way was found"
            QVERIFY(finding.rule != RuleId::wirRoute || finding.variant != "blocked");
        // Another edit meanwhile does not search them again, and what comes in for another build is not taken.
        Analyser behind;
        behind.update(build);
        const auto early = behind.ledWires();
        build = *shiftPart(build, "gps", Vec3(1, 0, 0));
        QVERIFY(window.update(build).derived.wiresPutOff > 0);
        window.setLedWires(early);
        QVERIFY(window.update(build).derived.wiresPutOff > 0);
        behind.update(build);
        window.setLedWires(behind.ledWires());
        window.update(build);
        QCOMPARE(derived.wiresPutOff, 0);
        Analyser fresh;
        const auto &b = fresh.update(build).derived.routes;
        for (std::size_t w = 0; w < b.size(); ++w) {
            QVERIFY2(derived.routes[w].points_mm == b[w].points_mm, build.wires[w].id.c_str());
            QVERIFY(!derived.routes[w].makeshift);
        }
        const auto keys = [](const Analyser &analyser) {
            std::vector<std::string> all;
            for (const auto &finding : analyser.current().findings) all.push_back(finding.key());
            return all;
        };
        QVERIFY(keys(window) == keys(fresh));
        // Called off, an analyser leads no more.
        std::atomic<bool> stop = true;
        Analyser stopped;
        stopped.setRouteStop(&stop);
        QVERIFY(stopped.update(build).derived.wiresPutOff > 0);
    }
    void pinnedPointsAreOnTheWay() {
        Build build = stakewalker();
        const Vec3 point(-60, 40, 25);
        const auto pinned = setStops(build, "w-gps", {{std::string(), point}});
        QVERIFY(bool(pinned));
        Analyser analyser;
        const Derived &derived = analyser.update(*pinned).derived;
        for (std::size_t w = 0; w < pinned->wires.size(); ++w) {
            if (pinned->wires[w].id != "w-gps") continue;
            const auto &points = derived.routes[w].points_mm;
            QVERIFY(
                std::any_of(points.begin(), points.end(), [&](const Vec3 &p) { return (p - point).norm() < 1e-9; }));
        }
    }
    void motorWiresRunAlongTheirArm() {
        const Build build = stakewalker();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        for (std::size_t w = 0; w < build.wires.size(); ++w) {
            if (build.wires[w].id != "w-motor-4") continue;
            // Half of the way between motor and stack it lies within the arm's own width and a wire of its axis.
            const Arm *arm = nullptr;
            for (const auto &a : build.frame->arms)
                if (a.tip_mm.x() > 0 && a.tip_mm.y() > 0) arm = &a;
            QVERIFY(arm);
            const Vec3 along = (arm->tip_mm - arm->root_mm).normalized();
            const Vec3 middle = pointAlong(derived.routes[w].points_mm, derived.routes[w].length_mm * 0.4);
            const Vec3 off = (middle - arm->root_mm) - (middle - arm->root_mm).dot(along) * along;
            QVERIFY2(off.norm() < arm->width_mm / 2 + 5, qPrintable(QString::number(off.norm())));
        }
    }
    void bundlesBendTogether() {
        const Build build = stakewalker();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        std::vector<Vec3> gps, compass;
        for (std::size_t w = 0; w < build.wires.size(); ++w) {
            if (build.wires[w].id == "w-gps") gps = derived.routes[w].points_mm;
            if (build.wires[w].id == "w-compass") compass = derived.routes[w].points_mm;
        }
        QVERIFY(gps.size() > 3 && compass.size() > 3);
        int shared = 0;
        for (const Vec3 &p : gps)
            shared += std::any_of(compass.begin(), compass.end(), [&](const Vec3 &q) { return (p - q).norm() < 1e-9; });
        QVERIFY(shared >= 3); // the common socket and at least one bend
    }
};

QTEST_APPLESS_MAIN(TestRoutes)
#include "test_routes.moc"
