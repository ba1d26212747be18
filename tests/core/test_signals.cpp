// Pins by what they are for: what is right passes, what is wrong is caught, and what is offered makes it right.
#include "core/analysis/analysis.h"
#include "core/catalog/plug_body.h"
#include "core/edits/channel_edits.h"
#include "core/links/channels.h"
#include "core/links/joint.h"
#include "core/links/link_report.h"
#include "core/links/mating.h"
#include "core/pins/signal.h"
#include "core/wiring/cut_list.h"
#include "core/wiring/wire_report.h"
#include "support/findings.h"
#include "support/wires.h"

#include <QtTest>

using namespace waxis;
using namespace waxis::test;

namespace {

Build videoBuild(std::vector<std::pair<std::string, std::string>> camera,
                 std::vector<std::pair<std::string, std::string>> sender) {
    Build build = bareQuad();
    addBoard(build, "fc", {0, 0, 0},
             {portAt("video", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND", "CAM", "VTX"}),
              portAt("uart1", {5, 0, 0}, Vec3::UnitX(), {"5V", "GND", "TX", "RX"})},
             PartKind::flightController);
    addBoard(build, "cam", {-60, 0, 0}, {portAt("out", {5, 0, 0}, Vec3::UnitX(), {"5V", "GND", "VIDEO"})},
             PartKind::flightCamera);
    addBoard(build, "vtx", {60, 0, 0}, {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND", "VIDEO", "TX"})},
             PartKind::videoTransmitter);
    build.wires = {wireBetween("wc", {"cam", "out"}, {"fc", "video"}, std::move(camera)),
                   wireBetween("wv", {"fc", "video"}, {"vtx", "in"}, std::move(sender))};
    return build;
}

Build pulseReceiver(std::vector<std::pair<std::string, std::string>> pins) {
    Build build = bareQuad();
    addBoard(build, "rx", {-60, 0, 0},
             {portAt("out", {5, 0, 0}, Vec3::UnitX(), {"5V", "GND", "CH1", "CH2", "CH3", "CH4"})}, PartKind::receiver);
    addBoard(build, "fc", {0, 0, 0},
             {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND", "CH1", "CH2", "CH3", "CH4"})},
             PartKind::flightController);
    build.wires = {wireBetween("w", {"rx", "out"}, {"fc", "in"}, std::move(pins))};
    return build;
}

const std::vector<ChannelFunction> kAetr{ChannelFunction::roll, ChannelFunction::pitch, ChannelFunction::throttle,
                                         ChannelFunction::yaw};
const std::vector<std::pair<std::string, std::string>> kStraight{{"5V", "5V"},   {"GND", "GND"}, {"CH1", "CH1"},
                                                                 {"CH2", "CH2"}, {"CH3", "CH3"}, {"CH4", "CH4"}};

} // namespace

class TestSignals : public QObject {
    Q_OBJECT

private slots:
    void picturesGoOneWay() {
        QVERIFY(findingsOf(videoBuild({{"GND", "GND"}, {"VIDEO", "CAM"}}, {{"GND", "GND"}, {"VTX", "VIDEO"}}),
                           RuleId::lnkCross)
                    .empty());
        // The camera on the output, the sender on the input: both found, both cured by what is offered.
        Build wrong = videoBuild({{"GND", "GND"}, {"VIDEO", "VTX"}}, {{"GND", "GND"}, {"CAM", "VIDEO"}});
        QCOMPARE(findingsOf(wrong, RuleId::lnkCross).size(), std::size_t(2));
        for (const auto &found : findingsOf(wrong, RuleId::lnkCross)) {
            QCOMPARE(found.severity, Severity::stop);
            QCOMPARE(found.fixes.size(), std::size_t(1)); // the two change places
            const auto mended = applyFix(wrong, found.fixes[0]);
            QVERIFY(bool(mended));
            QVERIFY(findingsOf(*mended, RuleId::lnkCross).empty());
        }
    }
    void aControlWireGoesToATransmitPad() {
        Build build = videoBuild({{"GND", "GND"}, {"VIDEO", "CAM"}}, {{"GND", "GND"}, {"VTX", "VIDEO"}});
        build.wires.push_back(wireBetween("control", {"vtx", "in"}, {"fc", "uart1"}, {{"TX", "TX"}}));
        QVERIFY(findingsOf(build, RuleId::lnkCross).empty());
        QVERIFY(findingsOf(build, RuleId::lnkHalf).empty());
        // On a pin that only listens nothing can be set; what is offered leads it to the transmit pad.
        build.wires.back().cores[0].toPin = "RX";
        const auto found = findingsOf(build, RuleId::lnkCross);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].severity, Severity::watch);
        const auto mended = applyFix(build, found[0].fixes.at(0));
        QVERIFY(bool(mended));
        QCOMPARE(QString::fromStdString(mended->wires.back().cores[0].toPin), QString("TX"));
        QVERIFY(findingsOf(*mended, RuleId::lnkCross).empty());
        // Newly joined it goes there by itself.
        build.wires.pop_back();
        const auto cores = proposeCores(build, {"vtx", "in"}, {"fc", "uart1"});
        QVERIFY(std::any_of(cores.begin(), cores.end(),
                            [](const WireCore &c) { return c.fromPin == "TX" && c.toPin == "TX"; }));
    }
    void aSenseLeadBelongsOnThePack() {
        Build build = bareQuad();
        addBoard(build, "pack", {0, 0, 40},
                 {portAt("lead", {5, 0, 0}, Vec3::UnitX(), {"BAT", "GND"}),
                  portAt("balance", {0, 5, 0}, Vec3::UnitY(), {"C0", "C1", "C2", "C3", "C4"})},
                 PartKind::battery, pack(4, 1500, 60));
        addBoard(build, "fc", {60, 0, 0}, {portAt("sense", {-5, 0, 0}, -Vec3::UnitX(), {"VBAT", "GND", "BOOT"})},
                 PartKind::flightController, takes(4, 6, 0.1, 0.2));
        build.types.edit([](TypeTable &types) {
            typeIn(types, "fc").ports[0].pins[0].kind = SignalKind::sense;
            typeIn(types, "fc").ports[0].pins[2].kind = SignalKind::boot;
        });
        build.wires = {wireBetween("w", {"pack", "lead"}, {"fc", "sense"}, {{"BAT", "VBAT"}, {"GND", "GND"}})};
        QVERIFY(findingsOf(build, RuleId::lnkCross).empty());
        // It measures and feeds nothing: the controller is still without a supply, and no 5 V part burns on 16.8 V.
        QVERIFY(findingsOf(build, RuleId::pwrRange).empty());
        build.wires[0].from.port = "balance";
        build.wires[0].cores = {{"C4", "VBAT", {}, {}}};
        QVERIFY(findingsOf(build, RuleId::lnkCross).empty());
        QVERIFY(findingsOf(build, RuleId::pwrBalanceTap).empty()); // sensing drains nothing
        build.wires[0].cores = {{"C4", "BOOT", {}, {}}};
        QVERIFY(!findingsOf(build, RuleId::lnkCross).empty());
    }
    void olderFilesAreReadByNames() {
        PartType camera, sender, unit;
        camera.kind = PartKind::flightCamera;
        sender.kind = PartKind::videoTransmitter;
        unit.kind = PartKind::digitalVideoUnit;
        const Port one = portAt("p", Vec3::Zero(), Vec3::UnitX(), {"5V", "GND", "VIDEO", "TX"}),
                   two = portAt("p", Vec3::Zero(), Vec3::UnitX(), {"9V", "GND", "TX", "RX"});
        QVERIFY(signalAt(camera, one, "VIDEO").kind == SignalKind::videoOut);
        QVERIFY(signalAt(sender, one, "VIDEO").kind == SignalKind::videoIn);
        QVERIFY(signalAt(sender, one, "TX").kind == SignalKind::oneWire);
        QVERIFY(signalAt(unit, two, "TX").kind == SignalKind::serialTx);
        QVERIFY(signalAt(sender, two, "TX").kind == SignalKind::serialTx); // with both it is a serial port
        QVERIFY(signalAt(unit, two, "nothing").kind == SignalKind::other);
        Port stated = one;
        stated.pins[3].kind = SignalKind::supplyIn;
        QVERIFY(signalAt(sender, stated, "TX").kind == SignalKind::supply);
        QVERIFY(signalAt(sender, stated, "TX").way == SupplyWay::in);
    }
    void everyPairOfKindsIsDecidedBothWays() {
        // jointOf is symmetrical, and no signal may lie on a supply.
        for (int a = 0; a <= int(SignalKind::other); ++a)
            for (int b = 0; b <= int(SignalKind::other); ++b) {
                Signal x, y;
                x.kind = SignalKind(a);
                y.kind = SignalKind(b);
                QVERIFY(jointOf(x, y) == jointOf(y, x));
                const bool harmless = x.kind == SignalKind::sense || y.kind == SignalKind::sense ||
                                      x.kind == SignalKind::buzzer || y.kind == SignalKind::buzzer;
                if (x.kind == SignalKind::supply && y.kind != SignalKind::supply && !harmless)
                    QVERIFY(jointOf(x, y) != Joint::right);
            }
    }
    void halfALinkIsFoundAndCompleted() {
        Build build = bareQuad();
        addBoard(build, "fc", {0, 0, 0}, {portAt("uart", {5, 0, 0}, Vec3::UnitX(), {"5V", "GND", "TX", "RX"})},
                 PartKind::flightController);
        addBoard(build, "gps", {60, 0, 0}, {portAt("serial", {-5, 0, 0}, -Vec3::UnitX(), {"5V", "GND", "TX", "RX"})},
                 PartKind::gps);
        build.wires = {wireBetween("w", {"gps", "serial"}, {"fc", "uart"}, {{"GND", "GND"}, {"RX", "TX"}})};
        const auto silent = findingsOf(build, RuleId::lnkHalf);
        QCOMPARE(silent.size(), std::size_t(1));
        QCOMPARE(silent[0].severity, Severity::stop);
        const auto whole = applyFix(build, silent[0].fixes.at(0));
        QVERIFY(bool(whole));
        QVERIFY(findingsOf(*whole, RuleId::lnkHalf).empty() && findingsOf(*whole, RuleId::lnkCross).empty());
        build.wires[0].cores = {{"GND", "GND", {}, {}}, {"TX", "RX", {}, {}}};
        QCOMPARE(findingsOf(build, RuleId::lnkHalf)[0].severity, Severity::watch);
        // In two wires it is whole as well.
        build.wires.push_back(wireBetween("w2", {"fc", "uart"}, {"gps", "serial"}, {{"TX", "RX"}}));
        QVERIFY(findingsOf(build, RuleId::lnkHalf).empty());
    }
    void channelsAreComparedByWhatTheyDo() {
        Build build = pulseReceiver(kStraight);
        QCOMPARE(findingsOf(build, RuleId::lnkFunctions)[0].severity, Severity::unknown);
        build = *setChannels(*setChannels(build, "rx", kAetr), "fc", kAetr);
        QVERIFY(findingsOf(build, RuleId::lnkFunctions).empty());
        // Two wires change places.
        Build crossed = build;
        std::swap(crossed.wires[0].cores[2].toPin, crossed.wires[0].cores[3].toPin);
        const auto found = findingsOf(crossed, RuleId::lnkFunctions);
        QVERIFY(found.size() == 1 && found[0].severity == Severity::stop);
        QCOMPARE(*found[0].measured, 2.0);
        // The same, meant so: the controller expects pitch first.
        crossed = *setChannels(
            crossed, "fc",
            {ChannelFunction::pitch, ChannelFunction::roll, ChannelFunction::throttle, ChannelFunction::yaw});
        QVERIFY(findingsOf(crossed, RuleId::lnkFunctions).empty());
        // Labels at the inputs say it pin by pin.
        Build labelled = *setChannels(build, "fc", {});
        labelled.types.edit(
            [](TypeTable &types) { typeIn(types, "fc").ports[0].pins[2].function = ChannelFunction::throttle; });
        QCOMPARE(findingsOf(labelled, RuleId::lnkFunctions)[0].severity, Severity::stop);
        // Through one serial wire the orders are compared as they are.
        Build serial = pulseReceiver({});
        serial.types.edit([](TypeTable &types) {
            for (const char *id : {"rx", "fc"})
                typeIn(types, id).ports = {portAt("uart", {5, 0, 0}, Vec3::UnitX(), {"5V", "GND", "TX", "RX"})};
        });
        serial.wires = {wireBetween("w", {"rx", "uart"}, {"fc", "uart"},
                                    {{"5V", "5V"}, {"GND", "GND"}, {"TX", "RX"}, {"RX", "TX"}})};
        serial = *setChannels(*setChannels(serial, "rx", kAetr), "fc",
                              {ChannelFunction::throttle, ChannelFunction::roll, ChannelFunction::pitch});
        QCOMPARE(findingsOf(serial, RuleId::lnkFunctions)[0].severity, Severity::stop);
        QVERIFY(!setChannels(serial, "nobody", kAetr));
    }
    void whatIsAboardWantsItsChannels() {
        Build build = pulseReceiver(kStraight);
        QCOMPARE(wantedFunctions(build).size(), kFlightFunctions.size());
        addBoard(build, "gimbal", {0, 60, 0}, {}, PartKind::gimbal);
        build.types.edit([](TypeTable &types) { typeIn(types, "gimbal").travels.resize(2); });
        QCOMPARE(wantedFunctions(build).size(), kFlightFunctions.size() + 2);
        addBoard(build, "lamp", {0, 90, 0}, {}, PartKind::lamp);
        QCOMPARE(wantedFunctions(build).size(), kFlightFunctions.size() + 2); // it is not switched
        build = *setChannels(build, "lamp", {ChannelFunction::lamps});
        QCOMPARE(wantedFunctions(build).size(), kFlightFunctions.size() + 3);
        const auto found = findingsOf(build, RuleId::lnkChannels);
        QVERIFY(found.size() == 1 && *found[0].measured == 4 && *found[0].limit == 8);
    }
    void plugsAreAsLargeAsTheirFamily() {
        // Makers' drawings, from memory: housings of 1.0 mm pitch are 3 mm wider than their outermost contacts lie
        // apart, those of balance plugs 4.9 mm; battery plugs as the library's own parts.
        QVERIFY(plugBody_mm("1.0 mm lock plug", 4)->y() == 6);
        QVERIFY(plugBody_mm("1.25 mm lock plug", 4)->y() > plugBody_mm("1.25 mm plug", 4)->y());
        QVERIFY(std::abs(plugBody_mm("2.54 mm balance plug, 5 ways", 5)->y() - (4 * 2.54 + 4.9)) < 1e-9);
        QVERIFY(*plugBody_mm("60 A polarised battery plug", 0) == Vec3(16, 16, 8));
        QVERIFY(!plugBody_mm("1.0 mm lock plug", 0) && !plugBody_mm("", 4) && !plugBody_mm("banana", 4));
        Build build;
        addBoard(build, "pack", {0, 0, 0}, {portAt("lead", {0, 0, 0}, Vec3::UnitX(), {"BAT", "GND"})});
        addBoard(build, "plug", {60, 0, 0}, {portAt("pack", {60, 0, 0}, Vec3::UnitX(), {"BAT", "GND"})});
        build.types.edit([](TypeTable &types) {
            typeIn(types, "pack").leads = {{"lead", 100, 14, "30 A polarised battery plug", {"BAT", "GND"}}};
        });
        build.wires = {wireBetween("w", {"pack", "lead"}, {"plug", "pack"}, {{"BAT", "BAT"}, {"GND", "GND"}})};
        QVERIFY(*plugBodyOn(build, build.wires[0], false) == Vec3(13, 11, 6)); // of its family
        build.types.edit([](TypeTable &types) { typeIn(types, "pack").leads[0].plugSize_mm = Vec3(12, 10, 5); });
        QVERIFY(*plugBodyOn(build, build.wires[0], false) == Vec3(12, 10, 5)); // as it is stated
        QVERIFY(!plugBodyOn(build, build.wires[0], true));
    }
    void plugsPassHolesBySmallestSideFirst() {
        QVERIFY(passes({14, 8, 3}, {8.1, 3.1}, 3.1));  // through a slot
        QVERIFY(!passes({14, 8, 3}, {7.9, 3.1}, 3.1)); // too wide
        QVERIFY(passes({14, 8, 3}, {8.6, 8.6}, 8.6));  // through a round hole by its diagonal of 8.54
        QVERIFY(!passes({14, 8, 3}, {8.5, 2.9}, 8.5));
        const Port row = portAt("p", Vec3::Zero(), Vec3::UnitX(), {"GND", "5V", "SIG"});
        const auto turned = turnedPins(row);
        QCOMPARE(turned.size(), std::size_t(2)); // the middle one stays
        QCOMPARE(QString::fromStdString(turned[0].pin + turned[0].meets), QString("GNDSIG"));
        Port rows = portAt("p", Vec3::Zero(), Vec3::UnitX(), {"A", "B", "B", "A"});
        rows.rows = 2;
        QVERIFY(turnedPins(rows).empty());
    }
    void sleevesHaveASize() {
        QCOMPARE(sleeveFor_mm(2.0), 2.0);
        QCOMPARE(sleeveFor_mm(2.01), 3.0);
        QCOMPARE(sleeveFor_mm(26), 30.0);
        Build build = pulseReceiver(kStraight);
        build.wires[0].sleeved = true;
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        const CutList list = cutList(build, practiceOf({}), *derived.wiring);
        QCOMPARE(list.sleeves.size(), std::size_t(1));
        QCOMPARE(list.sleeves[0].diameter_mm, sleeveFor_mm(derived.wiring->wires[0].bundle_mm));
        QVERIFY(std::abs(list.sleeves[0].length_mm - derived.wiring->wires[0].route_mm) < 1e-9);
    }
};

QTEST_APPLESS_MAIN(TestSignals)
#include "test_signals.moc"
