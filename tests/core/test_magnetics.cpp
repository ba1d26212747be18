// Fields of currents and magnets against closed forms, and what they do to a compass.
#include "core/analysis/analysis.h"
#include "core/base/units.h"
#include "core/magnetics/biot_savart.h"
#include "core/magnetics/current_paths.h"
#include "core/radio/radio_report.h"
#include "support/wires.h"

using namespace waxis;
using namespace waxis::test;

namespace {

/// A pack, a controller that draws 20 A, and a compass beside the lead.
Build wiredBuild(WireLay lay = WireLay::loose) {
    Build build = bareQuad();
    addBoard(build, "pack", {-60, 0, 40}, {portAt("lead", {5, 0, 0}, Vec3::UnitX(), {"BAT", "GND"})}, PartKind::battery,
             pack(4, 1500, 100));
    addBoard(build, "fc", {60, 0, 40}, {portAt("power", {-5, 0, 0}, -Vec3::UnitX(), {"BAT", "GND"})},
             PartKind::flightController, takes(10, 26, 20, 40));
    Wire wire = wireBetween("main", {"pack", "lead"}, {"fc", "power"}, {{"BAT", "BAT"}, {"GND", "GND"}});
    wire.lay = lay;
    wire.gauge_AWG = 14;
    build.wires = {wire};
    addBox(build, "gps", {10, 10, 4}, {0, 40, 40}, 5, PartKind::gps);
    build.types.edit([](TypeTable &types) {
        typeIn(types, "gps").magnetics = Magnetics{Vec3::Zero(), false};
        typeIn(types, "gps").magnetics->compass_mm = Vec3::Zero();
    });
    build.practice.schools["compass"] = "used";
    return build;
}

} // namespace

class TestMagnetics : public QObject {
    Q_OBJECT

private slots:
    void aLongSegmentIsALongWire() {
        const Vec3 field = segmentField_uT({-1e5, 0, 0}, {1e5, 0, 0}, {0, 30, 0}, 12);
        QVERIFY(std::abs(field.norm() - longWireField_uT(12, 30)) < 1e-6 * field.norm());
        QVERIFY(field.z() > 0); // right hand: current forward, point left of it, field up
    }
    void aPolygonIsALoop() {
        std::vector<Vec3> ring;
        constexpr int kSides = 720;
        for (int i = 0; i <= kSides; ++i) {
            const double a = 2 * kPi * i / kSides;
            ring.emplace_back(20 * std::cos(a), 20 * std::sin(a), 0);
        }
        for (const Vec3 &p : {Vec3(0, 0, 0), Vec3(0, 0, 50), Vec3(60, 0, 30), Vec3(10, 0, 5)}) {
            const Vec3 found = polylineField_uT(ring, p, 25);
            const RingField expected = loopField_uT(20, std::abs(p.x()), p.z(), 25);
            QVERIFY(std::abs(found.z() - expected.axial_uT) < 1e-3 * std::abs(expected.axial_uT) + 1e-3);
            QVERIFY(std::abs(found.x() - expected.radial_uT) < 1e-3 * std::abs(expected.axial_uT) + 1e-3);
        }
    }
    void aRectangleOfSegmentsIsARectangle() {
        const std::vector<Vec3> ring{{15, 30, 0}, {-15, 30, 0}, {-15, -30, 0}, {15, -30, 0}, {15, 30, 0}};
        for (const double z : {0.0, 20.0, 80.0})
            QVERIFY(std::abs(polylineField_uT(ring, {0, 0, z}, 25).z() - rectangleField_uT(30, 60, z, 25)) < 1e-9);
    }
    void fieldsHaveNoSourcesAndCurlOnlyRoundCurrents() {
        // Divergence vanishes everywhere (Maxwell): central differences over a segment and a dipole.
        const auto divergence = [](auto &&field, const Vec3 &p) {
            constexpr double h = 0.01;
            double sum = 0;
            for (int i = 0; i < 3; ++i) {
                Vec3 step = Vec3::Zero();
                step[i] = h;
                sum += (field(p + step)[i] - field(p - step)[i]) / (2 * h);
            }
            return sum;
        };
        const auto segment = [](const Vec3 &p) { return segmentField_uT({-40, 10, 0}, {60, 20, 15}, p, 22); };
        const auto magnet = [](const Vec3 &p) { return dipoleField_uT({5, -3, 20}, p); };
        for (const Vec3 &p : {Vec3(10, 50, 30), Vec3(-20, -30, 25), Vec3(70, 5, 60)}) {
            QVERIFY(std::abs(divergence(segment, p)) < 1e-4);
            QVERIFY(std::abs(divergence(magnet, p)) < 1e-4);
        }
    }
    void twistingWeakensMoreTheTighterItIs() {
        double last = 1;
        for (const double pitch : {100.0, 60.0, 40.0, 20.0}) {
            const double relief = twistRelief(5, pitch, 50);
            QVERIFY(relief < last);
            last = relief;
        }
        // Nearer than the pitch it hardly helps (Moser and Spencer 1968, from memory).
        QVERIFY(twistRelief(5, 100, 20) > 0.5);
        QCOMPARE(twistRelief(5, 0, 50), 1.0);
    }
    void theWorstHeadingIsTheWorst() {
        for (const double disturbance : {0.5, 2.0, 7.0, 15.0}) {
            double worst = 0;
            for (int i = 0; i < 3600; ++i) {
                const double a = 2 * kPi * i / 3600;
                worst = std::max(worst,
                                 std::abs(headingError_deg(20, disturbance * std::sin(a), disturbance * std::cos(a))));
            }
            QVERIFY(std::abs(worst - worstHeadingError_deg(20, disturbance)) < 0.01);
        }
        QCOMPARE(worstHeadingError_deg(20, 20), 180.0);
        QCOMPARE(worstHeadingError_deg(20, 500), 180.0);
    }
    void currentFlowsFromThePackAndBack() {
        Build build = wiredBuild();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        QCOMPARE(derived.radio->sources.paths.size(), std::size_t(1));
        const CurrentPath &path = derived.radio->sources.paths[0];
        QVERIFY(path.pair);
        QVERIFY(std::abs(path.hover_A - 20) < 0.5);
        QVERIFY(std::abs(path.full_A - 40) < 0.5);
        // Drawn from the load's side the current runs against the wire.
        std::swap(build.wires[0].from, build.wires[0].to);
        const CurrentPath &back = analyser.update(build).derived.radio->sources.paths.at(0);
        QVERIFY(std::abs(back.hover_A + 20) < 0.5);
        // The field is the same.
        QVERIFY(analyser.current().derived.radio->compasses.size() == 1);
    }
    void aPairIsWeakerThanItsWires() {
        Build build = wiredBuild();
        Analyser analyser;
        const double pair = analyser.update(build).derived.radio->compasses.at(0).field.full_uT;
        QVERIFY(pair > 0.1);
        // The return led far away: the supply alone, as a single line.
        Wire back = build.wires[0];
        back.id = "back";
        back.cores.erase(back.cores.begin());
        back.stops = {{std::string(), Vec3(-55, -900, 40)}, {std::string(), Vec3(55, -900, 40)}};
        build.wires[0].cores.pop_back();
        build.wires.push_back(back);
        const CompassReport &alone = analyser.update(build).derived.radio->compasses.at(0);
        // A straight line of 110 mm, 40 mm away at its middle.
        const double closed = segmentField_uT({-55, 0, 40}, {55, 0, 40}, {0, 40, 40}, 40).norm();
        QVERIFY2(closed > 5 * pair, qPrintable(QString("%1 %2").arg(closed).arg(pair)));
        // Beside the wire its field stands upright: what counts is what leaning makes level of it.
        const double level = closed * std::sin(radiansFromDegrees(practiceOf({})[Limit::cruisePitch]));
        QVERIFY2(std::abs(alone.field.full_uT - level) < 0.15 * level,
                 qPrintable(QString("%1 %2").arg(alone.field.full_uT).arg(level)));
    }
    void theWorstLieOfAPairIsFound() {
        // Against brute force: the pair turned about its run by 2 degrees at a time, the craft leaned every way.
        CurrentPath path;
        path.pair = true;
        path.spacing_mm = 4.5;
        path.cases = 1;
        path.hover_A = 0;
        path.full_A = 92;
        struct Spot {
            Vec3 from, to, point;
        };
        const std::vector<Spot> spots{{{-200, 0, 0}, {200, 0, 0}, {0, 0, 33}},    // straight above
                                      {{-200, 0, 0}, {200, 0, 0}, {0, 25, 33}},   // aside of that
                                      {{-60, 10, 0}, {80, -20, 5}, {10, 15, 20}}, // askew
                                      {{0, 0, -60}, {0, 0, 60}, {18, 5, 4}},      // upright
                                      {{-200, 0, 0}, {200, 0, 0}, {0, 15.4, 0}}}; // beside
        for (const auto &spot : spots) {
            path.points_mm = {spot.from, spot.to};
            const Vec3 along = (spot.to - spot.from).normalized();
            const Vec3 side = along.unitOrthogonal(), other = along.cross(side);
            const auto worst = [&](double lean_deg) {
                double most = 0;
                for (int lie = 0; lie < 180; lie += 2) {
                    const double a = radiansFromDegrees(lie);
                    const Vec3 half = 2.25 * (std::cos(a) * side + std::sin(a) * other);
                    const Vec3 field = segmentField_uT(spot.from + half, spot.to + half, spot.point, 92) +
                                       segmentField_uT(spot.to - half, spot.from - half, spot.point, 92);
                    for (int way = 0; way < 360; way += 5) {
                        const double w = radiansFromDegrees(way);
                        const Eigen::AngleAxisd leaned(radiansFromDegrees(lean_deg), Vec3(std::cos(w), std::sin(w), 0));
                        most = std::max(most, (leaned * field).head<2>().norm());
                    }
                }
                return most;
            };
            const FieldSources sources{{path}, {}};
            const double level = fieldAt(sources, spot.point, 0, 0).full_uT,
                         leaned = fieldAt(sources, spot.point, 0, 30).full_uT;
            QVERIFY2(std::abs(level / worst(0) - 1) < 0.03, qPrintable(QString("%1 %2").arg(level).arg(worst(0))));
            // cos(lean) is left at 1 for what lies across the lean: never less, at most a seventh more.
            QVERIFY2(leaned > 0.97 * worst(30) && leaned < 1.16 * worst(30),
                     qPrintable(QString("%1 %2").arg(leaned).arg(worst(30))));
        }
        // The place straight above a flat pair is no refuge: farther away to the side it is better.
        path.points_mm = {{-200, 0, 0}, {200, 0, 0}};
        const FieldSources sources{{path}, {}};
        QVERIFY(fieldAt(sources, {0, 0, 33}, 0, 0).full_uT > fieldAt(sources, {0, 25, 33}, 0, 0).full_uT);
    }
    void steelIsKnownByWhatItIsMadeOf() {
        Build build = wiredBuild();
        addBox(build, "screw", {3, 3, 16}, {0, 60, 40}, 1, PartKind::fastener);
        Analyser analyser;
        QVERIFY(analyser.update(build).derived.radio->compasses.at(0).iron.empty());
        build.types.edit([](TypeTable &types) { typeIn(types, "screw").solids[0].material = "steel"; });
        const auto &iron = analyser.update(build).derived.radio->compasses.at(0).iron;
        QCOMPARE(iron.size(), std::size_t(1));
        QVERIFY(std::abs(iron[0].distance_mm - 18.5) < 1e-6);
        build.types.edit([](TypeTable &types) { typeIn(types, "screw").solids[0].material = "titanium"; });
        QVERIFY(analyser.update(build).derived.radio->compasses.at(0).iron.empty());
    }
    void twistedLeadsDisturbLess() {
        Analyser analyser;
        Build loose = wiredBuild(), twisted = wiredBuild(WireLay::twisted);
        const double flat = analyser.update(loose).derived.radio->compasses.at(0).field.full_uT;
        const double turned = analyser.update(twisted).derived.radio->compasses.at(0).field.full_uT;
        QVERIFY(turned < flat / 2);
        QVERIFY(turned > 0); // its open ends remain
    }
    void magnetsAndCurrentsAreToldApart() {
        Build build = wiredBuild();
        addBox(build, "buzzer", {9, 9, 5}, {0, 75, 40}, 2, PartKind::buzzer);
        build.types.edit([](TypeTable &types) { typeIn(types, "buzzer").magnetics = Magnetics{Vec3(0, 20, 0), true}; });
        Analyser analyser;
        const Analysis &analysis = analyseFully(analyser, build);
        const CompassReport &compass = analysis.derived.radio->compasses.at(0);
        // On the axis of 0.02 A m2 at 35 mm: mu0 m/(2 pi r^3).
        QVERIFY(std::abs(compass.field.constant_uT.norm() - 93.29) < 0.1);
        QCOMPARE(compass.constant_deg, 180.0); // more than the earth's 20 microtesla
        QVERIFY(compass.full_deg < 60);
        QCOMPARE(compass.iron.size(), std::size_t(1));
        QVERIFY(std::abs(compass.iron[0].distance_mm - 30.5) < 1e-6);
        int magnets = 0;
        for (const auto &f : analysis.findings) {
            magnets += f.rule == RuleId::navMagnet && f.severity == Severity::stop;
            if (f.rule == RuleId::navMagnet) QVERIFY(!f.fixes.empty());
            if (f.rule == RuleId::navMagnet)
                for (const auto &fix : f.fixes) {
                    const auto moved = applyFix(build, fix);
                    QVERIFY(bool(moved));
                    Analyser again;
                    QVERIFY(again.update(*moved).derived.radio->compasses.at(0).constant_deg <=
                            analysis.practice[Limit::headingNote] + 1e-6);
                }
        }
        QCOMPARE(magnets, 1);
        // Where the compass is not used nobody complains.
        build.practice.schools["compass"] = "unused";
        for (const auto &f : analyser.update(build).findings)
            QVERIFY(f.rule != RuleId::navMagnet && f.rule != RuleId::navThrottle && f.rule != RuleId::navIron);
    }
    void theMapSaysWhatThePointSays() {
        const Build build = stakewalker();
        Analyser analyser;
        const auto &sources = analyser.update(build).derived.radio->sources;
        const FieldMap map = fieldMap(sources, 0, {-100, -60}, {100, 60}, 60, 20, 30);
        QCOMPARE(map.columns, 11);
        QCOMPARE(map.rows, 7);
        const FieldAt there = fieldAt(sources, {-60, 20, 60}, 0, 30);
        const std::size_t at = std::size_t(4 * map.columns + 2);
        QVERIFY(std::abs(map.full_uT[at] - there.full_uT) < 1e-3);
        QVERIFY(std::abs(map.constant_uT[at] - there.constant_uT.head<2>().norm()) < 1e-3);
    }
    void onlyWhatIsAboardDisturbs() {
        Build build = wiredBuild();
        addBox(build, "speaker", {9, 9, 5}, {0, 70, 40}, 2);
        build.types.edit([](TypeTable &types) {
            typeIn(types, "speaker").magnetics = Magnetics{Vec3(0, 20, 0), false};
        });
        build.parts.back().optional = true;
        LoadCase bare;
        bare.id = "bare";
        bare.name = "bare";
        build.loadCases = {bare};
        Analyser analyser;
        QVERIFY(analyser.update(build).derived.radio->compasses.at(0).field.constant_uT.norm() < 1e-9);
        build.loadCases[0].aboard = {"speaker"};
        QVERIFY(analyser.update(build).derived.radio->compasses.at(0).field.constant_uT.norm() > 50);
    }
};

QTEST_APPLESS_MAIN(TestMagnetics)
#include "test_magnetics.moc"
