// Who is fed in which case, by how much, through what: rails against a circuit solved by its nodes.
#include "core/analysis/analysis.h"
#include "core/edits/case_edits.h"
#include "core/edits/insert_edits.h"
#include "core/kit/kit.h"
#include "core/links/link_report.h"
#include "core/power/power_report.h"
#include "core/wiring/cut_list.h"
#include "core/wiring/gauge.h"
#include "core/wiring/pad_joints.h"
#include "core/wiring/wire_report.h"
#include "support/findings.h"
#include "support/wires.h"

#include <Eigen/Dense>
#include <QtTest>

using namespace waxis;
using namespace waxis::test;

namespace {

using Pins = std::vector<std::pair<std::string, std::string>>;
const Pins kBat{{"BAT", "BAT"}, {"GND", "GND"}}, kFive{{"5V", "5V"}, {"GND", "GND"}};

bool near(double a, double b, double within = 1e-9) { return std::abs(a - b) <= within; }

/// A 4S pack on a board that hands it on to two loads of 2 and 1 A.
Build forked() {
    Build build = bareQuad();
    addBoard(build, "pack", {0, 0, 40}, {portAt("lead", {5, 0, 0}, Vec3::UnitX(), {"BAT", "GND"})}, PartKind::battery,
             pack(4, 2000, 60));
    addBoard(build, "board", {60, 0, 20},
             {portAt("battery", {-5, 0, 0}, -Vec3::UnitX(), {"BAT", "GND"}),
              portAt("out1", {5, 0, 0}, Vec3::UnitX(), {"BAT", "GND"}),
              portAt("out2", {0, 5, 0}, Vec3::UnitY(), {"BAT", "GND"})},
             PartKind::distributionBoard);
    addBoard(build, "big", {140, 0, 0}, {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), {"BAT", "GND"})}, PartKind::lamp,
             takes(6, 20, 2, 2));
    addBoard(build, "small", {60, 90, 0}, {portAt("in", {0, -5, 0}, -Vec3::UnitY(), {"BAT", "GND"})}, PartKind::lamp,
             takes(6, 20, 1, 1));
    build.wires = {wireBetween("w0", {"pack", "lead"}, {"board", "battery"}, kBat),
                   wireBetween("w1", {"board", "out1"}, {"big", "in"}, kBat),
                   wireBetween("w2", {"board", "out2"}, {"small", "in"}, kBat)};
    for (auto &wire : build.wires) wire.gauge_AWG = 24;
    return build;
}

/// A controller with a regulator of its own, a GPS on its 5 V, and a sender of 9 to 26 V at the pack.
Build craft() {
    Build build = bareQuad();
    addBoard(build, "pack", {0, 0, 40}, {portAt("lead", {5, 0, 0}, Vec3::UnitX(), {"BAT", "GND"})}, PartKind::battery,
             pack(4, 2000, 60));
    Electrical own = takes(7, 26, 0.1, 0.2);
    own.outputs.push_back({"5v", 5, 2, 0.9});
    Port usb = portAt("usb", {0, 5, 0}, Vec3::UnitY(), {"5V", "D-", "D+", "GND"}, PortKind::usb);
    addBoard(build, "fc", {60, 0, 0},
             {portAt("power", {-5, 0, 0}, -Vec3::UnitX(), {"BAT", "GND"}),
              portAt("uart", {5, 0, 0}, Vec3::UnitX(), {"5V", "GND", "TX", "RX"}), usb},
             PartKind::flightController, own);
    addBoard(build, "gps", {120, 0, 0}, {portAt("serial", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND", "TX", "RX"})},
             PartKind::gps, takes(4, 6, 0.05, 0.08));
    addBoard(build, "vtx", {60, 60, 0}, {portAt("in", {0, -5, 0}, -Vec3::UnitY(), {"BAT", "GND", "VIDEO"})},
             PartKind::videoTransmitter, takes(7, 26, 0.5, 0.8));
    build.wires = {wireBetween("w0", {"pack", "lead"}, {"fc", "power"}, kBat),
                   wireBetween("w1", {"fc", "uart"}, {"gps", "serial"},
                               {{"5V", "5V"}, {"GND", "GND"}, {"TX", "RX"}, {"RX", "TX"}}),
                   wireBetween("w2", {"pack", "lead"}, {"vtx", "in"}, kBat)};
    return build;
}

const Rail *railOf(const PowerReport &power, const std::string &id) {
    for (const auto &rail : power.rails)
        if (rail.id() == id) return &rail;
    return nullptr;
}

const RailLoad *loadOf(const Rail &rail, const std::string &part) {
    for (const auto &load : rail.loads)
        if (load.part == part) return &load;
    return nullptr;
}

PowerReport powerOf(const Build &build) {
    Analyser analyser;
    return analyser.update(build).derived.power;
}

PartType inLine(const char *id, const Electrical &electrical, double mass_g = 1) {
    PartType type;
    type.id = type.name = id;
    type.kind = PartKind::inlinePart;
    type.mass_g = catalogueValue(mass_g);
    type.electrical = electrical;
    Solid solid;
    solid.shape = Box{Vec3(5, 3, 3)};
    type.solids = {solid};
    return type;
}

} // namespace

class TestSupplies : public QObject {
    Q_OBJECT

private slots:
    void dropsAreThoseOfTheNodes() {
        // Kirchhoff's current law at the six nodes there and back, solved by Eigen's LU: conductances by ASTM B258 and
        // IEC 60028 over the cut lengths. The pack's minus is the reference.
        const Build build = forked();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        std::vector<double> ohm;
        for (const auto &wire : derived.wiring->wires)
            ohm.push_back(awgResistance_mohm_m(24) * 1e-3 * wire.cut_mm * 1e-3);
        // 0 board plus, 1 big plus, 2 small plus, 3 board minus, 4 big minus, 5 small minus
        Eigen::MatrixXd g = Eigen::MatrixXd::Zero(6, 6);
        Eigen::VectorXd into = Eigen::VectorXd::Zero(6);
        const double pack_V = railOf(*derived.power, "pack:BAT")->nominal_V;
        const auto between = [&](int a, int b, double r) {
            g(a, a) += 1 / r;
            g(b, b) += 1 / r;
            g(a, b) -= 1 / r;
            g(b, a) -= 1 / r;
        };
        g(0, 0) += 1 / ohm[0];
        into(0) += pack_V / ohm[0];
        g(3, 3) += 1 / ohm[0];
        between(0, 1, ohm[1]);
        between(3, 4, ohm[1]);
        between(0, 2, ohm[2]);
        between(3, 5, ohm[2]);
        into(1) -= 2, into(4) += 2, into(2) -= 1, into(5) += 1;
        const Eigen::VectorXd volts = g.partialPivLu().solve(into);
        const Rail &rail = *railOf(*derived.power, "pack:BAT");
        QVERIFY(near(rail.typical_A, 3));
        QVERIFY(near(loadOf(rail, "big")->drop_V, pack_V - (volts(1) - volts(4)), 1e-9));
        QVERIFY(near(loadOf(rail, "small")->drop_V, pack_V - (volts(2) - volts(5)), 1e-9));
        QVERIFY(near(derived.power->wires[0].typical_A, (pack_V - volts(0)) / ohm[0], 1e-9));
        QVERIFY(near(derived.power->wires[1].typical_A, (volts(0) - volts(1)) / ohm[1], 1e-9));
    }
    void switchingInputsDrawMoreFromLess() {
        Build build = forked();
        build.types.edit([](TypeTable &types) {
            auto &e = *typeIn(types, "big").electrical;
            e.draw = Draw::constantPower;
            e.drawnAt_V = 10;
        });
        const PowerReport power = powerOf(build);
        const RailLoad &big = *loadOf(*railOf(power, "pack:BAT"), "big");
        QVERIFY(near(big.typical_A, 2 * 10 / 14.8));                              // 20 W at 4 x 3.7 V
        QVERIFY(near(big.peak_A, 2 * 10 / 13.2));                                 // and at 4 x 3.3 V
        QVERIFY(near(loadOf(*railOf(power, "pack:BAT"), "small")->typical_A, 1)); // linear: as stated
    }
    void stepUpRegulatorsTakeMoreThanTheyGive() {
        Build build = forked();
        build.types.edit([](TypeTable &types) {
            typeIn(types, "pack").electrical = pack(1, 2000, 60);
            auto &board = typeIn(types, "board");
            board.kind = PartKind::regulator;
            board.electrical = regulator(12, 4, 0.8);
            board.electrical->supplyMin_V = 3;
            for (auto &port : board.ports)
                if (port.id != "battery") port.pins[0].signal = "12V";
        });
        for (std::size_t w = 1; w < 3; ++w) build.wires[w].cores[0] = {"12V", "BAT", {}, {}};
        const PowerReport power = powerOf(build);
        QVERIFY(near(railOf(power, "board:out")->typical_A, 3));
        QVERIFY(near(railOf(power, "pack:BAT")->typical_A, 3 * 12 / (3.7 * 0.8)));
        QVERIFY(findingsOf(build, RuleId::pwrRange).empty());
    }
    void aPodOnItsOwnPackIsDarkWhenThePackIsAway() {
        Build build = craft();
        addBoard(build, "pod", {0, 80, 40}, {portAt("lead", {5, 0, 0}, Vec3::UnitX(), {"BAT", "GND"})},
                 PartKind::battery, pack(3, 800, 20));
        build.wires[2].from = {"pod", "lead"};
        for (auto &part : build.parts) part.optional = part.id == "pod";
        build.loadCases = {{"with", "With the pod's pack", {"pod"}, "pack", false, LoadCaseKind::flight},
                           {"without", "Without it", {}, "pack", false, LoadCaseKind::flight}};
        const auto found = findingsOf(build, RuleId::pwrDark);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].loadCase, std::string("without"));
        QCOMPARE(found[0].severity, Severity::stop);
        QCOMPARE(found[0].subjects[0], std::string("vtx"));
        // The sender at the craft's own pack again: nothing is dark.
        build.wires[2].from = {"pack", "lead"};
        QVERIFY(findingsOf(build, RuleId::pwrDark).empty());
    }
    void whatIsSwitchedOffDrawsNothingAndIsNotDark() {
        Build build = craft();
        build.loadCases = {{"fly", "Fly", {}, "pack", false, LoadCaseKind::flight},
                           {"wait", "Wait for satellites", {}, "pack", false, LoadCaseKind::bench},
                           {"bag", "In the bag", {}, "pack", false, LoadCaseKind::carried}};
        build.loadCases[1].off = {"vtx"};
        const PowerReport power = powerOf(build);
        const auto &byCase = railOf(power, "pack:BAT")->typicalByCase_A;
        QVERIFY(near(byCase[0] - byCase[1], 0.5)); // what the sender takes
        QVERIFY(near(byCase[2], 0));               // in the bag all is off
        QVERIFY(power.supplies[1].dark.empty());
        QCOMPARE(power.supplies[1].alive, (std::vector<std::string>{"fc", "gps"}));
        QVERIFY(findingsOf(build, RuleId::pwrDark).empty());
    }
    void onUsbTheGpsSearchesWithTheSenderDark() {
        Build build = craft();
        build.loadCases = {{"fly", "Fly", {}, "pack", false, LoadCaseKind::flight},
                           {"desk", "Desk", {}, "", false, LoadCaseKind::bench}};
        QVERIFY(findingsOf(build, RuleId::pwrDark).empty()); // the pack is plugged in
        const auto plugged = setLoadCaseUsb(build, "desk", "fc");
        QVERIFY(bool(plugged));
        QVERIFY(!setLoadCaseUsb(build, "desk", "gps")); // it has no such socket
        const PowerReport power = powerOf(*plugged);
        QCOMPARE(power.supplies[1].dark, (std::vector<std::string>{"vtx"}));
        QCOMPARE(power.supplies[1].alive, (std::vector<std::string>{"fc", "gps"}));
        QVERIFY(power.supplies[0].dark.empty());
        // From the computer come the controller's own 0.1 A and what its 5 V gives; from the pack nothing.
        const Rail *usb = railOf(power, "fc:USB");
        QVERIFY(usb && near(usb->typicalByCase_A[1], 0.15) && near(usb->typicalByCase_A[0], 0));
        QVERIFY(near(railOf(power, "pack:BAT")->typicalByCase_A[1], 0));
        const auto found = findingsOf(*plugged, RuleId::pwrDark);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].severity, Severity::note);
        QCOMPARE(found[0].variant, std::string("bench"));
        // A lamp of 0.6 A on the controller's 5 V is more than a computer gives.
        Build loaded = *plugged;
        addBoard(loaded, "lamp", {120, 60, 0}, {portAt("in", {0, -5, 0}, -Vec3::UnitY(), {"5V", "GND"})},
                 PartKind::lamp, takes(4.5, 5.5, 0.6, 0.6));
        loaded.wires.push_back(wireBetween("w3", {"fc", "uart"}, {"lamp", "in"}, kFive));
        const auto over = findingsOf(loaded, RuleId::pwrRail);
        QVERIFY(std::any_of(over.begin(), over.end(), [](const Finding &f) {
            return f.variant == "USB" && f.loadCase == "desk" && f.severity == Severity::stop;
        }));
    }
    void aPowerBankFeedsTheSocket() {
        Build build = craft();
        Electrical bank;
        bank.outputs.push_back({"usb", 5, 2, 0.9});
        Port socket = portAt("usb", {5, 0, 0}, Vec3::UnitX(), {"5V", "D-", "D+", "GND"}, PortKind::usb);
        addBoard(build, "bank", {60, -80, 0}, {socket}, PartKind::powerBank, bank);
        build.wires[0].from = {"bank", "usb"}; // no pack is wired any more but to the sender
        build.wires[0].to = {"fc", "usb"};
        build.wires[0].cores = {{"5V", "5V", {}, {}}, {"GND", "GND", {}, {}}};
        for (auto &part : build.parts) part.optional = part.id == "pack";
        build.loadCases = {{"field", "Field", {}, "", false, LoadCaseKind::bench}};
        const PowerReport power = powerOf(build);
        QCOMPARE(power.supplies[0].alive, (std::vector<std::string>{"fc", "gps"}));
        QCOMPARE(power.supplies[0].dark, (std::vector<std::string>{"vtx"}));
        QVERIFY(near(railOf(power, "bank:usb")->typical_A, 0.1 + 0.05 * 5 / (5 * 0.9)));
    }
    void whatHandsItsSupplyOnIsAPassage() {
        // A switch with a rating and the pack on two ports counts, whatever it is called.
        Build build = forked();
        build.types.edit([](TypeTable &types) {
            auto &board = typeIn(types, "board");
            board.kind = PartKind::powerSwitch;
            board.electrical = Electrical{};
            board.electrical->continuous_A = 2.5;
        });
        const PowerReport power = powerOf(build);
        QCOMPARE(power.passages.size(), std::size_t(1));
        QVERIFY(near(power.passages[0].typical_A, 3) && near(*power.passages[0].limit_A, 2.5));
        QVERIFY(power.unfed.empty()); // it draws nothing itself
    }
    void manySourcesOfOneRailAreOneFinding() {
        Build build = craft();
        for (int k = 0; k < 4; ++k) {
            const std::string id = "esc" + std::to_string(k);
            Electrical e = takes(7, 26, 0.02, 0.02);
            e.outputs.push_back({"5v", 5, 1, 0.9});
            addBoard(build, id, {0, -60.0 - 20 * k, 0},
                     {portAt("battery", {-5, 0, 0}, -Vec3::UnitX(), {"BAT", "GND"}),
                      portAt("signal", {5, 0, 0}, Vec3::UnitX(), {"GND", "5V", "SIG"})},
                     PartKind::esc, e);
            build.wires.push_back(wireBetween("b" + id, {"pack", "lead"}, {id, "battery"}, kBat));
            build.wires.push_back(wireBetween("s" + id, {id, "signal"}, {"fc", "uart"}, kFive));
        }
        const auto found = findingsOf(build, RuleId::pwrJoined);
        QCOMPARE(found.size(), std::size_t(1)); // of five sources ten pairs
        QCOMPARE(found[0].subjects.size(), std::size_t(5));
        QCOMPARE(found[0].severity, Severity::watch);
        QCOMPARE(found[0].fixes.size(), std::size_t(1));
        const auto kept = applyFix(build, found[0].fixes[0]);
        QVERIFY(bool(kept));
        QVERIFY(findingsOf(*kept, RuleId::pwrJoined).empty());
        QVERIFY(findingsOf(*kept, RuleId::lnkGround).empty());                   // grounds stay
        QCOMPARE(railOf(powerOf(*kept), "fc:5v")->loads.size(), std::size_t(1)); // the strongest was kept
        build.practice.schools["regulators"] = "several";
        QVERIFY(findingsOf(build, RuleId::pwrJoined).empty());
    }
    void whatSitsInAWireIsWeighedCountedAndListed() {
        Build build = forked();
        Electrical fuse;
        fuse.continuous_A = 2.5;
        const auto with = addInsert(build, "w0", inLine("fuse", fuse, 1.5), 0);
        QVERIFY(bool(with));
        QVERIFY(with->types->contains("fuse"));
        Analyser before, after;
        const double bare_g = before.update(build).derived.wiring->wires[0].mass_g;
        const Derived &derived = after.update(*with).derived;
        QVERIFY(near(derived.wiring->wires[0].mass_g - bare_g, 1.5, 1e-9));
        const auto &kit = *derived.kit;
        const auto line = std::find_if(kit.begin(), kit.end(), [](const KitLine &l) { return l.item == "fuse"; });
        QVERIFY(line != kit.end() && line->needed == 1 && line->members == std::vector<std::string>{"w0"});
        const CutList list = cutList(*with, practiceOf({}), *derived.wiring);
        QVERIFY2(list.rows[0].inLine.starts_with("fuse at "), list.rows[0].inLine.c_str());
        QVERIFY(list.rows[1].inLine.empty());
        // 3 A all the time through 2.5 A: it blows; behind one of 5 A it does not.
        const auto blown = findingsOf(*with, RuleId::pwrInline);
        QVERIFY(blown.size() == 1 && blown[0].severity == Severity::stop && near(*blown[0].measured, 3));
        Build larger = *with;
        larger.types.edit([](TypeTable &types) { types.at("fuse").electrical->continuous_A = 5; });
        QVERIFY(findingsOf(larger, RuleId::pwrInline).empty());
        // A diode that is turned round by what is offered; a capacitor that is taken out.
        Electrical diode;
        diode.forward_V = 0.4;
        WireInsert turned{"diode", 0, 0.5, true};
        const auto against = addInsert(build, "w1", inLine("diode", diode), 0);
        const auto wrong = setInsert(*against, "w1", 0, turned);
        QVERIFY(bool(wrong));
        const auto found = findingsOf(*wrong, RuleId::pwrInline);
        QCOMPARE(found.size(), std::size_t(1));
        const auto mended = applyFix(*wrong, found[0].fixes.at(0));
        QVERIFY(bool(mended) && findingsOf(*mended, RuleId::pwrInline).empty());
        Electrical capacitor;
        capacitor.capacitance_uF = 100;
        const auto blocked = addInsert(build, "w1", inLine("cap", capacitor), 0);
        const auto blocks = findingsOf(*blocked, RuleId::pwrInline);
        QVERIFY(blocks.size() == 1 && blocks[0].severity == Severity::stop);
        QVERIFY(applyFix(*blocked, blocks[0].fixes.at(0))->wires[1].inserts.empty());
    }
    void insertsKeepTheirCores() {
        Electrical fuse;
        fuse.continuous_A = 5;
        const Build build = forked();
        QVERIFY(!addInsert(build, "nobody", inLine("fuse", fuse), 0));
        QVERIFY(!addInsert(build, "w0", inLine("fuse", fuse), 2)); // two cores: 0 and 1
        QVERIFY(!removeInsert(build, "w0", 0));
        const auto first = addInsert(build, "w0", inLine("fuse", fuse), 0);
        const auto second = addInsert(*first, "w0", inLine("fuse", fuse), 1);
        QVERIFY(bool(second));
        WireInsert outside{"fuse", 0, 1.5, false};
        QVERIFY(!setInsert(*second, "w0", 0, outside));
        // Another type under the same name is refused.
        fuse.continuous_A = 6;
        QVERIFY(!addInsert(*second, "w0", inLine("fuse", fuse), 0));
        // The first core goes, with what sat in it; the other keeps its own.
        const auto less = removeCore(*second, "w0", 0);
        QVERIFY(bool(less));
        QCOMPARE(less->wires[0].inserts.size(), std::size_t(1));
        QCOMPARE(less->wires[0].inserts[0].core, 0);
        QCOMPARE(QString::fromStdString(less->wires[0].cores[0].fromPin), QString("GND"));
    }
    void jointsAreGroupedByPadWithTheirHeat() {
        Build build = forked();
        build.wires[2].from = {"board", "out1"}; // both loads on the same pads
        build.wires[0].gauge_AWG = 12;
        const auto joints = padJoints(build);
        const auto at = [&](const std::string &part, const std::string &port, const std::string &pin) {
            for (const auto &joint : joints)
                if (joint.part == part && joint.port == port && joint.pin == pin) return joint;
            return PadJoints{};
        };
        const PadJoints shared = at("board", "out1", "BAT"), thick = at("board", "battery", "BAT");
        QCOMPARE(shared.cores.size(), std::size_t(2));
        QVERIFY(near(shared.copper_mm2, 2 * awgArea_mm2(24)));
        QVERIFY(near(shared.wants_mm, 2 * 1.13 * awgDiameter_mm(24)));
        QVERIFY(shared.heat() == SolderHeat::middle && at("big", "in", "GND").heat() == SolderHeat::light);
        QVERIFY(thick.heat() == SolderHeat::heavy); // 3.3 mm2
    }
};

QTEST_APPLESS_MAIN(TestSupplies)
#include "test_supplies.moc"
