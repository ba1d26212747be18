// Quick looks: soft mounts, warmth, other propellers, what a move does to other load cases. Bands, never verdicts.
#include "core/analysis/analysis.h"
#include "core/balance/case_balance.h"
#include "core/balance/mass_rows.h"
#include "core/derived/all_up.h"
#include "core/edits/balance_edits.h"
#include "core/power/hover.h"
#include "core/remedies/slide.h"
#include "core/studies/propellers.h"
#include "core/studies/soft_shake.h"
#include "core/studies/warm_look.h"
#include "support/stacks.h"

using namespace waxis;
using namespace waxis::test;

namespace {

/// A quad of 500 g with motors, propellers of 127 mm and a plate in the middle.
Build flying() {
    Build build = bareQuad();
    build.frame.edit([](Frame &frame) {
        Plate plate;
        plate.id = "plate";
        plate.outline_mm = square(80);
        plate.z_mm = -2;
        plate.thickness_mm = 2;
        frame.plates = {plate};
    });
    addBox(build, "body", {30, 30, 10}, {0, 0, 30}, 500).fastening = {FasteningMethod::screws, {"plate"}, false, {}};
    for (const char *mount : {"m1", "m2", "m3", "m4"}) {
        const std::string motor = std::string("motor-") + mount, propeller = std::string("prop-") + mount;
        addBox(build, motor, {20, 20, 18}, {0, 0, 9}, 0.001, PartKind::motor).placement.site = mount;
        addBox(build, propeller, {127, 10, 4}, {0, 0, 20}, 0.001, PartKind::propeller).placement.site = mount;
        build.types.edit([&](TypeTable &types) { typeIn(types, propeller).propDiameter_mm = 127; });
    }
    return build;
}

} // namespace

class TestQuickLooks : public QObject {
    Q_OBJECT

private slots:
    void propellersTurnAsThrustSays() {
        // n = sqrt(T / (C rho D^4)) with C = 0.14 and 0.08 and 0.127 m: of 125 g each 166 and 220 a second.
        const Build build = flying();
        Analyser analyser;
        const auto rotor = rotorTurns(build, analyser.update(build), 0);
        QVERIFY(rotor.has_value());
        const double thrust = *hoverThrust_N(analyser.current().derived, 0, 0), d4 = std::pow(0.127, 4);
        QVERIFY(thrust > 0.125 * 9.8 && thrust < 0.135 * 9.8); // the plate weighs a little
        const double air = standardAir(practiceOf({})[Limit::flyingHeight]).density_kg_m3;
        QVERIFY(std::abs(rotor->turns.least_Hz - std::sqrt(thrust / (0.14 * air * d4))) < 0.5);
        QVERIFY(std::abs(rotor->turns.most_Hz - std::sqrt(thrust / (0.08 * air * d4))) < 0.5);
        QCOMPARE(rotor->pass.least_Hz, 2 * rotor->turns.least_Hz); // two blades where nobody says
        QVERIFY(!rotorTurns(bareQuad(), Analyser().update(bareQuad()), 0));
    }
    void softMountsFollowTheirSag() {
        Build build = flying();
        addBox(build, "fc", {30, 30, 5}, {0, 0, 3}, 10, PartKind::flightController).fastening = {
            FasteningMethod::tape, {"plate"}, false, {}};
        addBox(build, "rx", {10, 10, 5}, {30, 0, 3}, 10, PartKind::receiver).fastening = {
            FasteningMethod::screws, {"plate"}, false, {}};
        Analyser analyser;
        const auto look = [&](const char *id) { return softShake(build, analyser.update(build), id, 0); };
        QVERIFY(!look("rx"));                             // it stands rigid
        QVERIFY(look("fc") && !(look("fc")->sag_mm > 0)); // soft, and nobody has measured it
        // A sag of 0.25 mm: 15.8 / sqrt(0.25) = 31.5 Hz; the doubt of 0.1 mm either way.
        Part &fc = build.parts[build.parts.size() - 2];
        fc.fastening.sag_mm = measuredValue(0.25);
        auto soft = look("fc");
        QVERIFY(std::abs(soft->own.least_Hz - 15.764 / std::sqrt(0.35)) < 0.1);
        QVERIFY(std::abs(soft->own.most_Hz - 15.764 / std::sqrt(0.15)) < 0.1);
        QVERIFY(soft->isolates());
        QVERIFY(soft->mostThrough < 0.3 && soft->leastThrough > 0);
        // Stiffer: 0.0055 mm sag is 212 Hz, where the propellers turn.
        fc.fastening.sag_mm = measuredValue(0.0055, 0.001);
        soft = look("fc");
        QVERIFY(!soft->isolates());
        QVERIFY(soft->mostThrough > 3); // near resonance, a tenth of critical damping: five times
        // A soft plate says it for what stands on it.
        build.frame.edit([](Frame &frame) {
            frame.plates[0].isolated = true;
            frame.plates[0].sag_mm = measuredValue(1, 0.1);
        });
        QVERIFY(look("plate") && std::abs(look("plate")->sag_mm - 1) < 1e-9);
        QCOMPARE(look("rx")->on, std::string("plate"));
    }
    void stacksOnDampersSaySo() {
        Build build = plateForStacks();
        build = *addStack(build, "site", "Stack");
        const std::string id = build.stacks[0].id;
        build = *addHardware(build, id, 1, *damperType("M3", 4));
        build = *addBoard(build, id, 2, boardType("fc"));
        const std::string board = build.stacks[0].layers[2].parts.front();
        StackBase base{"Stack", {}, false, ScrewEnd::nut, {}, 0, measuredValue(0.4, 0.1)};
        QVERIFY(!softShake(build, Analyser().update(build), board, 0)->sag_mm);
        build = *setStackBase(build, id, base);
        QCOMPARE(softShake(build, Analyser().update(build), board, 0)->sag_mm, 0.4);
        base.sag_mm = measuredValue(-1);
        QVERIFY(!setStackBase(build, id, base));
    }
    void sendersGetAsWarmAsPowerAndAreaSay() {
        // 5 W on a box of 30 x 30 x 6: sides 4 x 1.8 cm2 and the upper face 9 cm2 are 16.2 cm2 in the air.
        Build build = flying();
        addBox(build, "vtx", {30, 30, 6}, {0, 0, 40}, 15, PartKind::videoTransmitter).fastening = {
            FasteningMethod::tape, {"plate"}, false, {}};
        addBox(build, "pack", {60, 30, 20}, {0, 0, -20}, 100, PartKind::battery).fastening = {
            FasteningMethod::strap, {"plate"}, false, {}};
        build.types.edit([](TypeTable &types) {
            PartType &pack = typeIn(types, "pack"), &vtx = typeIn(types, "vtx");
            pack.electrical = Electrical{};
            pack.electrical->cells = 3;
            pack.electrical->capacity_mAh = 1000;
            Port port;
            port.id = "bat";
            port.kind = PortKind::plug;
            port.pins = {{"BAT", {}, false}, {"GND", {}, false}};
            pack.ports = {port};
            vtx.ports = {port};
            vtx.ports[0].id = "power";
            vtx.electrical = Electrical{};
            vtx.electrical->supplyMin_V = 7;
            vtx.electrical->supplyMax_V = 26;
            vtx.electrical->typical_A = catalogueValue(0.5);
        });
        Wire wire;
        wire.id = "w";
        wire.from = {"pack", "bat"};
        wire.to = {"vtx", "power"};
        wire.cores = {{"BAT", "BAT", 24, {}}, {"GND", "GND", 24, {}}};
        build.wires = {wire};
        Analyser analyser;
        const auto look = [&] { return warmLook(build, analyser.update(build), "vtx", 0); };
        const auto bare = look();
        QVERIFY(bare.has_value());
        QVERIFY(std::abs(bare->heat_W - 0.5 * 11.1) < 0.2); // three cells of 3.7 V nominal
        QVERIFY(std::abs(bare->area_cm2 - 16.2) < 1e-9);
        // P / (h A), h 8 to 15 W/(m2 K) in still air (the sum heat-rise has the reference cases).
        QVERIFY(std::abs(bare->still.most_K - bare->heat_W / (8 * 16.2e-4)) < 1e-6);
        QVERIFY(std::abs(bare->still.least_K - bare->heat_W / (15 * 16.2e-4)) < 1e-6);
        QVERIFY(std::abs(bare->uncooled_s - 15 * 0.9 * 60 / bare->heat_W) < 1e-6);
        QCOMPARE(bare->inWash, 0.0); // in the middle no disc is over it
        QVERIFY(!bare->closedIn());
        // What it radiates by its antenna is not heat.
        build.types.edit([](TypeTable &types) {
            RadioBand band;
            band.low_MHz = 5645;
            band.high_MHz = 5945;
            band.power_dBm = 30; // one watt
            typeIn(types, "vtx").radio = {band};
        });
        QVERIFY(std::abs(look()->heat_W - (bare->heat_W - 1)) < 1e-6);
        // A sink that is fastened onto it cools.
        addBox(build, "sink", {30, 30, 10}, {0, 0, 48}, 20).fastening = {FasteningMethod::tape, {"vtx"}, false, {}};
        build.types.edit([](TypeTable &types) { typeIn(types, "sink").coolingArea_cm2 = 40; });
        QVERIFY(std::abs(look()->area_cm2 - 56.2) < 1e-9);
        QCOMPARE(look()->sinks, std::vector<std::string>{"sink"});
        QVERIFY(std::abs(look()->mass_g - 35) < 1e-6);
        // Under a disc the wash reaches it, unless a plate lies over it.
        build.parts.pop_back();
        Part &vtx = *std::find_if(build.parts.begin(), build.parts.end(), [](const Part &p) { return p.id == "vtx"; });
        vtx.placement.pose.position_mm = {80, 80, -30};
        QVERIFY(look()->inWash > 0.9);
        build.frame.edit([](Frame &frame) {
            Plate lid = frame.plates[0];
            lid.id = "lid";
            for (auto &p : lid.outline_mm) p += Vec2(80, 80);
            lid.z_mm = -20;
            frame.plates.push_back(lid);
        });
        QCOMPARE(look()->inWash, 0.0);
        // A box of plates round it shuts it in.
        for (const Vec3 &side : {Vec3(20, 0, 0), Vec3(-20, 0, 0), Vec3(0, 20, 0), Vec3(0, -20, 0), Vec3(0, 0, -12)}) {
            const bool flat = side.z() != 0;
            addBox(build, "wall-" + std::to_string(build.parts.size()),
                   flat            ? Vec3(60, 60, 2)
                   : side.x() != 0 ? Vec3(2, 60, 40)
                                   : Vec3(60, 2, 40),
                   Vec3(80, 80, -30) + side, 1);
        }
        QVERIFY(look()->closedIn());
        QVERIFY(!warmLook(build, analyser.update(build), "body", 0)); // it draws nothing
    }
    void propellersAreComparedOnTheWholeCraft() {
        Build build = flying();
        TypeTable library;
        const auto add = [&](const char *id, double diameter, std::optional<double> bore, std::optional<Spin> turns) {
            PartType type;
            type.id = type.name = id;
            type.kind = PartKind::propeller;
            type.solids = {solidBox({diameter, 10, 4})};
            type.mass_g = catalogueValue(4);
            type.propDiameter_mm = diameter;
            type.bore_mm = bore;
            type.turns = turns;
            library[id] = type;
        };
        add("six", 152.4, 5.0, {});
        add("left", 152.4, 5.0, Spin::clockwise); // for one direction only
        add("wide-hub", 152.4, 8.0, {});
        add("huge", 400, 5.0, {});
        build.types.edit([](TypeTable &types) {
            for (auto &[id, type] : types)
                if (type.kind == PartKind::motor) type.shaft_mm = 5;
        });
        const auto options = comparePropellers(build, practiceOf({}), 0, library);
        const auto find = [&](const std::string &id) {
            return std::find_if(options.begin(), options.end(), [&](const auto &o) { return o.type == id; });
        };
        QVERIFY(find("six") != options.end());
        for (const char *not_ : {"left", "wide-hub", "huge"}) QVERIFY(find(not_) == options.end());
        const auto six = find("six");
        QVERIFY(!six->fitted);
        QVERIFY(std::abs(*six->tipGap_mm - (200 - 152.4)) < 1e-6);
        QVERIFY(std::abs(six->total_g - (500 + 16 + 0.004 + 22.0)) < 30); // four of 4 g and the plate
        // Turns go as 1 / D^2 at about the same thrust.
        const auto now = rotorTurns(build, Analyser().update(build), 0);
        QVERIFY(six->turns->least_Hz < now->turns.least_Hz * 0.75);
        // Fitting them keeps the hands of the motors and draws the mounts for them.
        const auto fitted = swapPropellers(build, library.at("six"));
        QVERIFY(fitted);
        for (const auto &mount : fitted->frame->motorMounts) QCOMPARE(mount.propDiameter_mm, 152.4);
        for (const auto &part : fitted->parts)
            if (part.type == "six") QVERIFY(part.turns.has_value());
        QVERIFY(!swapPropellers(build, library.at("left")));
        QVERIFY(!swapPropellers(bareQuad(), library.at("six")));
    }
    void anOrThatSpoilsAnotherCaseSaysSo() {
        // Two cases: with the camera ahead it is at home, without it 6 mm aft. Moving the pack by 30 mm mends the one
        // and spoils the other.
        Build build = flying();
        addBox(build, "pack", {60, 30, 20}, {0, 0, 40}, 100, PartKind::battery);
        addBox(build, "camera", {20, 20, 20}, {90, 0, 10}, 40).optional = true;
        build.loadCases = {{"bare", "Bare", {}, {}, false, LoadCaseKind::flight},
                           {"camera", "Camera", {"camera"}, {}, false, LoadCaseKind::flight},
                           {"shelf", "Shelf", {"camera"}, {}, false, LoadCaseKind::carried}};
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        // Bare hangs at home; the camera pulls 90 * 40 / M forward.
        const double m0 = derived.balance[0].mass.mass_g, m1 = derived.balance[1].mass.mass_g;
        const auto spoiled = spoiledByMove(derived.massRows, derived.balance, "pack", Vec2(-30, 0), 2, 1);
        QCOMPARE(spoiled.size(), std::size_t(1));
        QCOMPARE(spoiled[0].loadCase, std::size_t(0));
        QVERIFY(std::abs(spoiled[0].after_mm - 100 * 30 / m0) < 1e-6);
        QVERIFY(std::abs(spoiled[0].before_mm) < 1e-6);
        QVERIFY(std::abs(derived.balance[1].offset_mm->x() - 90 * 40 / m1) < 1e-6);
        // Within the ring nothing is spoiled, and what brings a case nearer does not spoil it.
        QVERIFY(spoiledByMove(derived.massRows, derived.balance, "pack", Vec2(-30, 0), 6, 1).empty());
        QVERIFY(spoiledByMove(derived.massRows, derived.balance, "pack", Vec2(-10, 0), 2, 0).empty());
        const auto ballast = spoiledByBallast(derived.balance, 30, Vec2(-100, 0), 2, 1);
        QCOMPARE(ballast.size(), std::size_t(1));
        QVERIFY(std::abs(ballast[0].after_mm - 30 * 100 / (m0 + 30)) < 1e-6);
    }
    void unlikePropellersTwistUnlike() {
        // Four motors that push alike, two of them with half the pitch: torque goes as the root of it, 1 against 0.707.
        Build build = flying();
        build.types.edit([](TypeTable &types) {
            for (const char *p : {"prop-m1", "prop-m4"}) typeIn(types, p).propPitch_mm = 100;
            for (const char *p : {"prop-m2", "prop-m3"}) typeIn(types, p).propPitch_mm = 50;
        });
        Analyser analyser;
        const double left = analyser.update(build).derived.balance[0].hover.yawLeft, root = std::sqrt(0.5);
        QVERIFY(std::abs(std::abs(left) - (1 - root) / (1 + root)) < 1e-3);
        // Where one does not say, only the diameter counts.
        build.types.edit([](TypeTable &types) { typeIn(types, "prop-m1").propPitch_mm.reset(); });
        QVERIFY(std::abs(analyser.update(build).derived.balance[0].hover.yawLeft) < 1e-6);
    }
};

QTEST_APPLESS_MAIN(TestQuickLooks)
#include "test_quick_looks.moc"
