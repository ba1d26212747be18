// Power and links: rails by hand, hover against momentum theory, pins that belong together.
#include "core/analysis/analysis.h"
#include "core/balance/case_balance.h"
#include "core/edits/part_edits.h"
#include "core/edits/wire_edits.h"
#include "core/links/link_report.h"
#include "core/pins/signal.h"
#include "core/power/hover.h"
#include "core/power/power_report.h"
#include "core/rules/wording.h"
#include "support/findings.h"
#include "support/wires.h"

#include <QtTest>

using namespace waxis;
using namespace waxis::test;

namespace {

bool near(double a, double b, double within = 1e-9) { return std::abs(a - b) <= within; }

/// A 4S pack, a 5 V regulator of 2 A and 90 %, and two loads on it.
Build chain() {
    Build build = bareQuad();
    addBoard(build, "pack", {0, 0, 40}, {portAt("lead", {5, 0, 0}, Vec3::UnitX(), {"BAT", "GND"})}, PartKind::battery,
             pack(4, 2000, 60));
    addBoard(build, "reg", {40, 0, 0},
             {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), {"BAT", "GND"}),
              portAt("out", {5, 0, 0}, Vec3::UnitX(), {"5V", "GND"})},
             PartKind::regulator, regulator(5, 2, 0.9));
    addBoard(build, "cam", {80, 0, 0}, {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND", "VIDEO"})},
             PartKind::flightCamera, takes(4.5, 6, 0.3, 0.5));
    addBoard(build, "lamp", {80, 30, 0}, {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND"})}, PartKind::lamp,
             takes(4.5, 5.5, 0.6, 1.0));
    const std::vector<std::pair<std::string, std::string>> bat{{"BAT", "BAT"}, {"GND", "GND"}},
        five{{"5V", "5V"}, {"GND", "GND"}};
    build.wires = {wireBetween("w1", {"pack", "lead"}, {"reg", "in"}, bat),
                   wireBetween("w2", {"reg", "out"}, {"cam", "in"}, five),
                   wireBetween("w3", {"reg", "out"}, {"lamp", "in"}, five)};
    return build;
}

const Rail *railOf(const PowerReport &power, const std::string &id) {
    for (const auto &rail : power.rails)
        if (rail.id() == id) return &rail;
    return nullptr;
}

PowerReport powerOf(const Build &build) {
    Analyser analyser;
    return analyser.update(build).derived.power;
}

Build linked(std::vector<std::pair<std::string, std::string>> pins) {
    Build build = bareQuad();
    addBoard(build, "fc", {0, 0, 0},
             {portAt("uart1", {5, 0, 0}, Vec3::UnitX(), {"5V", "GND", "TX", "RX"}),
              portAt("uart2", {0, 5, 0}, Vec3::UnitY(), {"5V", "GND", "TX", "RX"}),
              portAt("i2c", {0, -5, 0}, -Vec3::UnitY(), {"GND", "SDA", "SCL"}),
              portAt("video", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND", "CAM", "VTX"})},
             PartKind::flightController);
    addBoard(build, "gps", {60, 0, 0},
             {portAt("serial", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND", "TX", "RX", "SDA", "SCL"})}, PartKind::gps);
    build.wires = {wireBetween("w", {"gps", "serial"}, {"fc", "uart1"}, std::move(pins))};
    return build;
}

} // namespace

class TestPower : public QObject {
    Q_OBJECT

private slots:
    void railsCountWhatIsAboard() {
        // Two lamps of 1.5 A that take turns on a regulator of 2 A and 91 % from 12 V: 75 %, not 150; it loses
        // 1.5 * 5 * (1/0.91 - 1) = 0.74 W. By hand.
        Build build = chain();
        build.types.edit([](TypeTable &types) {
            typeIn(types, "cam").electrical = takes(4.5, 6, 1.5, 1.5);
            typeIn(types, "lamp").electrical = takes(4.5, 6, 1.5, 1.5);
            typeIn(types, "reg").electrical = regulator(5, 2, 0.91);
        });
        const auto together = findingsOf(build, RuleId::pwrRail);
        QCOMPARE(together.size(), std::size_t(1));
        QVERIFY(near(*together[0].measured, 150));
        QVERIFY(together[0].loadCase.empty());
        for (auto &part : build.parts) part.optional = part.id == "cam" || part.id == "lamp";
        build.loadCases = {{"day", "Day", {"cam"}, "pack", false, LoadCaseKind::flight},
                           {"night", "Night", {"lamp"}, "pack", false, LoadCaseKind::flight}};
        QVERIFY(findingsOf(build, RuleId::pwrRail).empty());
        const PowerReport power = powerOf(build);
        const Rail *five = railOf(power, "reg:out");
        QVERIFY(near(five->typical_A, 1.5) && near(five->peak_A, 1.5));
        QVERIFY(near(five->heat_W, 1.5 * 5 * (1 / 0.91 - 1)));
        QCOMPARE(five->loads.size(), std::size_t(2));
        // At the pack: 1.5 A * 5 V / (0.91 * 14.8 V), and the same in both cases.
        const Rail *pack = railOf(power, "pack:BAT");
        QVERIFY(near(pack->typical_A, 1.5 * 5 / (0.91 * pack->nominal_V)));
        QVERIFY(near(pack->typicalByCase_A[0], pack->typicalByCase_A[1]));
        QVERIFY(near(power.wires[0].typical_A, pack->typical_A)); // the common lead carries one of them
        // One of them stronger at night: that case is named, and only what draws in it.
        build.types.edit([](TypeTable &types) { typeIn(types, "lamp").electrical = takes(4.5, 6, 2.5, 2.5); });
        const auto night = findingsOf(build, RuleId::pwrRail);
        QCOMPARE(night.size(), std::size_t(1));
        QVERIFY(near(*night[0].measured, 125));
        QCOMPARE(night[0].loadCase, std::string("night"));
        QCOMPARE(night[0].subjects, (std::vector<std::string>{"reg", "lamp"}));
        // In the bag it is switched off; the two together on the bench are the worst again.
        build.loadCases.push_back({"bag", "Bag", {"cam", "lamp"}, "pack", false, LoadCaseKind::carried});
        QVERIFY(near(*findingsOf(build, RuleId::pwrRail)[0].measured, 125));
        build.loadCases.back().kind = LoadCaseKind::bench;
        QVERIFY(near(*findingsOf(build, RuleId::pwrRail)[0].measured, 200));
    }
    void aPlusWithoutAMinusIsFound() {
        Build build = chain();
        QVERIFY(findingsOf(build, RuleId::pwrUnfed).empty());
        build.wires[1].cores.pop_back(); // the camera's ground
        const auto found = findingsOf(build, RuleId::pwrUnfed);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].variant, std::string("return"));
        QCOMPARE(found[0].severity, Severity::stop);
        QCOMPARE(found[0].subjects, (std::vector<std::string>{"cam", "reg"}));
        QVERIFY(near(railOf(powerOf(build), "reg:out")->typical_A, 0.6)); // the lamp alone draws
        // Its ground may come another way.
        build.wires.push_back(wireBetween("g", {"lamp", "in"}, {"cam", "in"}, {{"GND", "GND"}}));
        QVERIFY(findingsOf(build, RuleId::pwrUnfed).empty());
        QVERIFY(near(railOf(powerOf(build), "reg:out")->typical_A, 0.9));
    }
    void namesOfPinsAreUnderstood() {
        QVERIFY(signalOf("GND").kind == SignalKind::ground);
        QVERIFY(signalOf("GND#2").kind == SignalKind::ground);
        QCOMPARE(*signalOf("3V3").supply_V, 3.3);
        QCOMPARE(*signalOf("12V").supply_V, 12.0);
        QVERIFY(!signalOf("BAT").supply_V);
        QCOMPARE(signalOf("M3").number, 3);
        QVERIFY(signalOf("CH8").kind == SignalKind::channel);
        QVERIFY(signalOf("C").kind == SignalKind::phase);
        QVERIFY(signalOf("C3").kind == SignalKind::cell);
        for (const char *odd : {"", "V", "5VX", "M", "MX", "CH", "12V34", "unheard of", "#", "-5V"})
            (void)signalOf(odd);
        QVERIFY(signalOf("5VX").kind == SignalKind::other);
        Port port = portAt("p", Vec3::Zero(), Vec3::UnitX(), {"GND", "5V", "GND"});
        QCOMPARE(pinIndex(port, "GND#2"), 2);
        QCOMPARE(pinIndex(port, "GND#3"), -1);
        QCOMPARE(pinIndex(port, "GND#x"), -1);
        QCOMPARE(QString::fromStdString(pinName(port, 2)), QString("GND#2"));
    }
    void railsAddUpTheirLoads() {
        const PowerReport power = powerOf(chain());
        const Rail *five = railOf(power, "reg:out"), *bat = railOf(power, "pack:BAT");
        QVERIFY(five && bat);
        QVERIFY(near(five->typical_A, 0.9) && near(five->peak_A, 1.5));
        // Seen from the pack at 14.8 V: I V / (V_in eta).
        QVERIFY(near(bat->typical_A, 0.9 * 5 / (14.8 * 0.9)));
        // At the peak from an empty pack of 13.2 V: a switching regulator draws more then.
        QVERIFY(near(bat->peak_A, 1.5 * 5 / (13.2 * 0.9)));
        QVERIFY(near(five->heat_W, 0.9 * 5 * (1 / 0.9 - 1)));
        QVERIFY(near(bat->most_V, 16.8) && near(bat->least_V, 13.2));
        QCOMPARE(QString::fromStdString(five->feeds), QString("pack:BAT"));
        QVERIFY(power.unfed.empty());
        QVERIFY(findingsOf(chain(), RuleId::pwrRail).empty()); // 75 %
    }
    void overloadedRailsStop() {
        Build build = chain();
        build.types.edit([](TypeTable &types) { typeIn(types, "lamp").electrical->peak_A = catalogueValue(1.2); });
        auto found = findingsOf(build, RuleId::pwrRail);
        QVERIFY(found.size() == 1 && found[0].severity == Severity::watch); // 85 %
        QVERIFY(near(*found[0].measured, 85));
        build.types.edit([](TypeTable &types) { typeIn(types, "lamp").electrical->peak_A = catalogueValue(1.6); });
        found = findingsOf(build, RuleId::pwrRail);
        QVERIFY(found.size() == 1 && found[0].severity == Severity::stop); // 105 %
    }
    void wrongVoltagesStop() {
        Build build = chain();
        const auto burnt = moveSupply(build, "lamp", "pack", "BAT");
        QVERIFY(bool(burnt));
        const auto found = findingsOf(*burnt, RuleId::pwrRange);
        QCOMPARE(found.size(), std::size_t(1));
        QVERIFY(found[0].severity == Severity::stop);
        QVERIFY(near(*found[0].measured, 16.8) && near(*found[0].limit, 5.5));
        // What is offered takes it back to a rail of its voltage.
        QVERIFY(!found[0].fixes.empty());
        const auto mended = applyFix(*burnt, found[0].fixes[0]);
        QVERIFY(bool(mended));
        QVERIFY(findingsOf(*mended, RuleId::pwrRange).empty());
        QVERIFY(near(railOf(powerOf(*mended), "reg:out")->typical_A, 0.9));
    }
    void linearRegulatorsDropTheWholeVoltage() {
        Build build = chain();
        build.types.edit([](TypeTable &types) { typeIn(types, "reg").electrical = regulator(5, 2, {}); });
        const PowerReport power = powerOf(build);
        QVERIFY(near(railOf(power, "pack:BAT")->typical_A, 0.9)); // the same current goes in
        QVERIFY(near(railOf(power, "reg:out")->heat_W, (16.8 - 5) * 0.9));
        QCOMPARE(findingsOf(build, RuleId::pwrHeat).size(), std::size_t(1));
    }
    void joinedSuppliesAreFound() {
        Build build = chain();
        addBoard(build, "reg2", {40, 40, 0},
                 {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), {"BAT", "GND"}),
                  portAt("out", {5, 0, 0}, Vec3::UnitX(), {"5V", "GND"})},
                 PartKind::regulator, regulator(5, 1, 0.9));
        build.wires.push_back(wireBetween("w4", {"reg2", "out"}, {"cam", "in"}, {{"5V", "5V"}, {"GND", "GND"}}));
        const auto found = findingsOf(build, RuleId::pwrJoined);
        QVERIFY(found.size() == 1 && found[0].severity == Severity::watch);
        // Lifting the second supply lead cures it, ground may stay.
        const auto lifted = removeCore(build, "w4", 0);
        QVERIFY(bool(lifted));
        QVERIFY(findingsOf(*lifted, RuleId::pwrJoined).empty());
    }
    void aPackOfItsOwnForVideoSharesGroundOnly() {
        Build build = chain();
        addBoard(build, "video-pack", {0, 60, 40}, {portAt("lead", {5, 0, 0}, Vec3::UnitX(), {"BAT", "GND"})},
                 PartKind::battery, pack(3, 850, 20));
        addBoard(build, "vtx", {60, 60, 0}, {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), {"BAT", "GND", "VIDEO"})},
                 PartKind::videoTransmitter, takes(7, 26, 0.5, 0.8));
        build.wires.push_back(
            wireBetween("vp", {"video-pack", "lead"}, {"vtx", "in"}, {{"BAT", "BAT"}, {"GND", "GND"}}));
        build.wires.push_back(wireBetween("video", {"cam", "in"}, {"vtx", "in"}, {{"VIDEO", "VIDEO"}}));
        QCOMPARE(findingsOf(build, RuleId::lnkGround).size(), std::size_t(1)); // signal joined, ground not
        build.wires.back().cores.push_back({"GND", "GND", {}, {}});
        QVERIFY(findingsOf(build, RuleId::lnkGround).empty());
        QVERIFY(findingsOf(build, RuleId::pwrJoined).empty());
        const PowerReport power = powerOf(build);
        QVERIFY(near(railOf(power, "video-pack:BAT")->typical_A, 0.5));
        QVERIFY(near(railOf(power, "pack:BAT")->typical_A, 0.9 * 5 / (14.8 * 0.9))); // as before
        // Supplies joined as well: two packs push into each other.
        build.wires.push_back(wireBetween("wrong", {"pack", "lead"}, {"vtx", "in"}, {{"BAT", "BAT"}}));
        const auto joined = findingsOf(build, RuleId::pwrJoined);
        QVERIFY(joined.size() == 1 && joined[0].severity == Severity::stop);
    }
    void hoverFollowsMomentumTheory() {
        const Build build = stakewalker();
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        const Practice &practice = analysis.practice;
        const auto &balance = analysis.derived.balance->at(0);
        const double rho = standardAir(practice[Limit::flyingHeight]).density_kg_m3;
        double motors_W = 0;
        for (std::size_t m = 0; m < balance.hover.thrusts_N.size(); ++m) {
            // P = T^1.5 / sqrt(2 rho A) / FM / eta, written out once more.
            const double area = 3.14159265358979 / 4 * std::pow(build.frame->motorMounts[m].propDiameter_mm * 1e-3, 2);
            motors_W += std::pow(balance.hover.thrusts_N[m], 1.5) / std::sqrt(2 * rho * area) /
                        (practice[Limit::figureOfMerit] / 100) / (practice[Limit::driveEfficiency] / 100);
        }
        const HoverReport &hover = analysis.derived.power->hover.at(0);
        const double aside_W = hover.power_W - motors_W;
        QVERIFY2(aside_W > 5 && aside_W < 40, qPrintable(QString::number(aside_W))); // video, cameras, lamps
        QVERIFY(near(hover.current_A, hover.power_W / 22.2, 1e-9));
        QVERIFY(hover.least_min < 2.2 * 0.8 / hover.current_A * 60 &&
                hover.most_min > 2.2 * 0.8 / hover.current_A * 60);
        // Air again at sea level against ISO 2533.
        QVERIFY(near(standardAir(0).density_kg_m3, 1.225, 1e-4));
    }
    void packsThatTakeTurnsCountOnce() {
        const PowerReport power = powerOf(stakewalker());
        double main_A = 0, lead_A = 0;
        const Build build = stakewalker();
        for (std::size_t w = 0; w < build.wires.size(); ++w) {
            if (build.wires[w].id == "w-main") main_A = power.wires[w].typical_A;
            if (build.wires[w].id == "w-pack") lead_A = power.wires[w].typical_A;
        }
        QVERIFY(main_A > 5);
        QVERIFY2(near(main_A, lead_A, 1e-9), qPrintable(QString("%1 %2").arg(main_A).arg(lead_A)));
    }
    void capacitorsAreJudged() {
        Build build = stakewalker();
        auto kinds = [](const std::vector<Finding> &list) {
            std::set<std::string> variants;
            for (const auto &f : list) variants.insert(f.variant);
            return variants;
        };
        Build reversed = build;
        for (auto &wire : reversed.wires)
            if (wire.id == "w-cap") wire.cores = {{"+", "GND", {}, {}}, {"-", "BAT", {}, {}}};
        QVERIFY(kinds(findingsOf(reversed, RuleId::pwrCapacitor)).contains("reversed"));
        Build loose = build;
        std::erase_if(loose.wires, [](const Wire &w) { return w.id == "w-cap"; });
        QVERIFY(kinds(findingsOf(loose, RuleId::pwrCapacitor)).contains("loose"));
        const auto none = removePart(build, "cap");
        QVERIFY(kinds(findingsOf(*none, RuleId::pwrCapacitor)).contains("missing"));
    }
    void transmitGoesToReceive() {
        QVERIFY(findingsOf(linked({{"GND", "GND"}, {"TX", "RX"}, {"RX", "TX"}}), RuleId::lnkCross).empty());
        const Build wrong = linked({{"GND", "GND"}, {"TX", "TX"}, {"RX", "RX"}});
        const auto found = findingsOf(wrong, RuleId::lnkCross);
        QCOMPARE(found.size(), std::size_t(1)); // of one wire, told once
        QCOMPARE(wordFinding(wrong, found[0]).headline.text(), std::string("w joins TX with TX and RX with RX"));
        QVERIFY(found[0].severity == Severity::stop && !found[0].fixes.empty());
        const auto mended = applyFix(wrong, found[0].fixes[0]); // the two change places
        QVERIFY(bool(mended));
        QVERIFY(findingsOf(*mended, RuleId::lnkCross).empty());
        QCOMPARE(findingsOf(linked({{"5V", "GND"}}), RuleId::lnkCross).size(), std::size_t(1));
    }
    void proposalsJoinWhatBelongsTogether() {
        Build build = linked({});
        build.wires.clear();
        const auto cores = proposeCores(build, {"gps", "serial"}, {"fc", "uart1"});
        QCOMPARE(cores.size(), std::size_t(4));
        for (const auto &core : cores) {
            if (core.fromPin == "TX") QCOMPARE(QString::fromStdString(core.toPin), QString("RX"));
            if (core.fromPin == "5V") QCOMPARE(QString::fromStdString(core.toPin), QString("5V"));
        }
        const auto first = connectPorts(build, {"gps", "serial"}, {"fc", "uart1"});
        QVERIFY(bool(first));
        // The next device is offered the port that is still free.
        Build two = *first;
        addBoard(two, "rx", {0, 60, 0}, {portAt("serial", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND", "TX", "RX"})},
                 PartKind::receiver);
        const auto port = proposePort(two, {"rx", "serial"}, "fc");
        QVERIFY(port.has_value());
        QCOMPARE(QString::fromStdString(port->port), QString("uart2"));
        // What is left of the GPS goes to the bus.
        const auto bus = proposePort(*first, {"gps", "serial"}, "fc");
        QVERIFY(bus.has_value());
        QCOMPARE(QString::fromStdString(bus->port), QString("i2c"));
        QVERIFY(!connectPorts(build, {"gps", "serial"}, {"nobody", "x"}));
        QVERIFY(!connectPorts(build, {"gps", "nothing"}, {"fc", "uart1"}));
        QVERIFY(!connectPorts(build, {"gps", "serial"}, {"gps", "serial"}));
    }
    void groundsMustBeShared() {
        QCOMPARE(findingsOf(linked({{"TX", "RX"}, {"RX", "TX"}}), RuleId::lnkGround).size(), std::size_t(1));
        QVERIFY(findingsOf(linked({{"GND", "GND"}, {"TX", "RX"}, {"RX", "TX"}}), RuleId::lnkGround).empty());
    }
    void levelsAndInversionAreCompared() {
        Build build = linked({{"GND", "GND"}, {"TX", "RX"}, {"RX", "TX"}});
        build.types.edit([](TypeTable &types) {
            for (auto &pin : typeIn(types, "gps").ports[0].pins)
                if (pin.signal == "TX") pin.level_V = 5.0;
            for (auto &pin : typeIn(types, "fc").ports[0].pins)
                if (pin.signal == "RX") pin.level_V = 3.3;
        });
        auto found = findingsOf(build, RuleId::lnkLevel);
        QVERIFY(found.size() == 1 && found[0].severity == Severity::watch);
        build.types.edit([](TypeTable &types) {
            for (auto &pin : typeIn(types, "gps").ports[0].pins) {
                pin.level_V.reset();
                pin.inverted = pin.signal == "TX";
            }
        });
        found = findingsOf(build, RuleId::lnkLevel);
        QVERIFY(found.size() == 1 && found[0].severity == Severity::stop);
    }
    void pinsAreUsedOnceAndThere() {
        Build build = linked({{"GND", "GND"}, {"TX", "RX"}, {"RX", "TX"}});
        addBoard(build, "rx", {0, 60, 0}, {portAt("serial", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND", "TX", "RX"})},
                 PartKind::receiver);
        build.wires.push_back(wireBetween("w2", {"rx", "serial"}, {"fc", "uart1"}, {{"GND", "GND"}, {"TX", "RX"}}));
        const auto found = findingsOf(build, RuleId::lnkOnce);
        QCOMPARE(found.size(), std::size_t(1));
        QVERIFY(!found[0].fixes.empty());
        const auto mended = applyFix(build, found[0].fixes[0]);
        QVERIFY(bool(mended));
        QVERIFY(findingsOf(*mended, RuleId::lnkOnce).empty());
        build.wires.push_back(wireBetween("w3", {"rx", "serial"}, {"fc", "uart2"}, {{"TX", "DATA"}}));
        QCOMPARE(findingsOf(build, RuleId::lnkPins).size(), std::size_t(1));
    }
    void busesNeedBothWires() {
        Build build = linked({{"GND", "GND"}, {"TX", "RX"}, {"RX", "TX"}});
        build.practice.profile = "range"; // the compass is used
        QCOMPARE(findingsOf(build, RuleId::lnkBus).size(), std::size_t(1));
        build.wires.push_back(wireBetween("bus", {"gps", "serial"}, {"fc", "i2c"}, {{"SDA", "SDA"}}));
        auto found = findingsOf(build, RuleId::lnkBus);
        QVERIFY(found.size() == 1 && found[0].severity == Severity::stop);
        build.wires.back().cores.push_back({"SCL", "SCL", {}, {}});
        QVERIFY(findingsOf(build, RuleId::lnkBus).empty());
    }
    void motorOutputsAreFollowed() {
        const auto loaded = loadBuild(WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis");
        QVERIFY(findingsOf(loaded->build, RuleId::lnkMotors).empty());
        Build swapped = loaded->build;
        for (auto &wire : swapped.wires) {
            if (wire.id == "w-motor-1") wire.to.port = "m2";
            if (wire.id == "w-motor-2") wire.to.port = "m1";
        }
        const auto crossed = findingsOf(swapped, RuleId::lnkMotors); // one for the craft
        QCOMPARE(crossed.size(), std::size_t(1));
        QCOMPARE(crossed[0].subjects.size(), std::size_t(2));
        Build cut = loaded->build;
        std::erase_if(cut.wires, [](const Wire &w) { return w.id == "w-esc"; });
        QCOMPARE(findingsOf(cut, RuleId::lnkMotors).size(), std::size_t(4));
    }
    void conversionsSayWhatIsFree() {
        const Build build = stakewalker();
        const auto library = loadLibrary(WEIGHTAXIS_TEST_DATA "/parts/common.json");
        QVERIFY(bool(library));
        QVERIFY(library->types.contains("dvu-30"));
        const PortNeeds needs = needsOf(build, library->types.at("dvu-30"));
        QCOMPARE(needs.serial, 1);
        QCOMPARE(needs.freeSerial.size(), std::size_t(2)); // two of four are used
        QVERIFY(std::find(needs.supplies.begin(), needs.supplies.end(), "fc/9v") != needs.supplies.end());
        QVERIFY(std::find(needs.supplies.begin(), needs.supplies.end(), "fc/5v") == needs.supplies.end());
    }
    void editsThatCannotBeAreRefused() {
        const Build build = chain();
        QVERIFY(!removeWire(build, "nothing"));
        QVERIFY(!removeCore(build, "w1", 9));
        QVERIFY(!setGauge(build, "w1", 99));
        QVERIFY(!movePin(build, "w1", 0, true, "nothing"));
        QVERIFY(!moveSupply(build, "lamp", "lamp", "5V"));
        QVERIFY(!moveSupply(build, "lamp", "reg", "12V"));
        QVERIFY(!connectPins(build, {"pack", "lead"}, "BAT", {"reg", "in"}, "BAT")); // they are joined already
        QVERIFY(!addTie(build, Vec3(0, 0, std::nan(""))));
        QVERIFY(!setHoleEdge(build, "nothing", HoleEdge::grommet));
        Build gone = *removePart(build, "reg");
        QVERIFY(gone.wires.empty()); // what ended there goes with it
    }
    void rotorsOverOneAnotherTakeMore() {
        // Leishman, Principles of Helicopter Aerodynamics, chapter 2 (from memory): 1.28 by momentum theory at most,
        // about 1.2 measured.
        Frame frame = *bareQuad().frame;
        for (const auto &share : coaxialShares(frame.motorMounts)) QCOMPARE(share.usual, 1.0);
        const auto upper = frame.motorMounts;
        for (MotorMount mount : upper) {
            mount.id += "-low";
            mount.propPlane_mm = -20;
            frame.motorMounts.push_back(mount);
        }
        for (const auto &share : coaxialShares(frame.motorMounts)) {
            QVERIFY(share.least >= 1.2 && share.most <= 1.28);
            QVERIFY(std::abs(share.usual - (share.least + share.most) / 2) < 1e-12); // the range lies about it
        }
        // Side by side, a tenth of the propeller apart, they are two again.
        frame.motorMounts = {upper[0], upper[0]};
        frame.motorMounts[1].position_mm.x() += 0.1 * upper[0].propDiameter_mm;
        QCOMPARE(coaxialShares(frame.motorMounts)[0].usual, 1.0);
    }
};

QTEST_APPLESS_MAIN(TestPower)
#include "test_power.moc"
