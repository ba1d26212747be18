// Radios of whole builds: cells, mixing, links, settings, coverage. Sources stand beside each check.
#include "core/analysis/analysis.h"
#include "core/base/units.h"
#include "core/coverage/coverage.h"
#include "core/edits/part_edits.h"
#include "core/edits/radio_edits.h"
#include "core/radio/antennas.h"
#include "core/radio/bands.h"
#include "core/radio/best_pair.h"
#include "core/radio/connector.h"
#include "core/radio/decibel.h"
#include "core/radio/free_space.h"
#include "core/radio/polarisation.h"
#include "core/radio/radio_report.h"
#include "core/radio/thin_dipoles.h"
#include "core/rules/cell_verdict.h"
#include "core/rules/wording.h"
#include "core/survey/survey.h"
#include "support/radios.h"

using namespace waxis;
using namespace waxis::test;

class TestRadio : public QObject {
    Q_OBJECT

private slots:
    void tooManyRadiosAreSaidAndNotJudged_data() {
        QTest::addColumn<int>("bands");
        QTest::addColumn<bool>("said");
        QTest::newRow("as many as are judged") << int(kMostRadios) << false;
        QTest::newRow("one more") << int(kMostRadios) + 1 << true;
    }
    void tooManyRadiosAreSaidAndNotJudged() {
        QFETCH(int, bands);
        QFETCH(bool, said);
        PartType receiver;
        receiver.id = "rx";
        receiver.name = "Receiver";
        receiver.kind = PartKind::receiver;
        receiver.radio = {hears(2400, 2480)};
        Build build;
        build.types.edit([&](TypeTable &types) { types.emplace(receiver.id, receiver); });
        for (int i = 0; i < bands; ++i) {
            Part part;
            part.id = "rx-" + std::to_string(i);
            part.name = part.id;
            part.type = receiver.id;
            part.placement.pose.position_mm = Vec3(30.0 * i, 0, 0);
            build.parts.push_back(part);
        }
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        QCOMPARE(analysis.derived.radio->radios.size(), kMostRadios);
        const auto found = std::find_if(analysis.findings.begin(), analysis.findings.end(), [](const Finding &f) {
            return f.rule == RuleId::radSeparation && f.variant == "many";
        });
        QCOMPARE(found != analysis.findings.end(), said);
        if (said)
            QCOMPARE(wordFinding(build, *found).headline.text(),
                     std::string("61 radio bands are too many to judge each pair"));
    }
    // --- cells ------------------------------------------------------------------------------------------
    void aCellIsTheSumThatItShows() {
        Build build = pairBuild(60);
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        const RadioCell &cell = cellOf(analysis.derived.radio, "vtx", "rx");
        const Practice &practice = analysis.practice;
        const Coupling &k = *cell.coupling;
        QVERIFY(!k.exact); // the receiver's antenna is far out of its band at 5800 MHz
        // Free space over 60 mm at 5800 MHz is 23.28 dB (Friis); 2.15 dBi one end, nothing the other.
        QVERIFY(std::abs(k.far_dB - (2.15 - 23.28)) < 0.02);
        QVERIFY(std::abs(k.total_dB - (k.far_dB - k.polarisation_dB - practice[Limit::offBandAntenna])) < 1e-9);
        QVERIFY(std::abs(cell.arrives_dBm - (26 + k.total_dB)) < 1e-9);
        const double octaves = std::log2(5800.0 / 870);
        QVERIFY(std::abs(cell.rejection_dB - (60 + octaves * practice[Limit::rejectionSlope])) < 1e-9);
        QVERIFY(std::abs(cell.floor_dBm - noiseFloor_dBm(0.5e6, 6)) < 1e-9);
        const double sum = dBmFrom(milliwatts(cell.heard_dBm) + milliwatts(cell.spilled_dBm));
        QVERIFY(std::abs(cell.sum_dBm - sum) < 1e-9);
        QVERIFY(std::abs(cell.rise_dB - noiseRise_dB(sum - cell.floor_dBm)) < 1e-9);
        QCOMPARE(*cell.practice_mm, practice[Limit::senderReceiverGap]);
        // The margin is what is left until the rise that is watched.
        QVERIFY(std::abs(noiseRise_dB(cell.sum_dBm + cell.margin_dB - cell.floor_dBm) - practice[Limit::desenseWatch]) <
                1e-6);
        QCOMPARE(cellSeverity(cell, false, practice), Severity::watch); // nearer than builders keep
        RadioCell kept = cell;
        kept.coupling.reset(); // by the distance alone
        QCOMPARE(cellSeverity(kept, false, practice), Severity::watch);
        kept.distance_mm = *kept.practice_mm;
        QCOMPARE(cellSeverity(kept, false, practice), Severity::pass); // as far as they keep it
    }
    void fartherIsQuieter() {
        double last = 1e9;
        for (const double apart : {30.0, 60.0, 120.0, 240.0}) {
            Build build = pairBuild(apart);
            Analyser analyser;
            const double rise = cellOf(analyser.update(build).derived.radio, "vtx", "rx").rise_dB;
            QVERIFY(rise < last);
            last = rise;
        }
    }
    void oneBandIsOneFight() {
        Build build = bareQuad();
        addRadio(build, "a", {0, 0, 60}, sends(2400, 2480, 20), antennaFor(AntennaKind::dipole, 2, 2400, 2480),
                 PartKind::receiver);
        addRadio(build, "b", {80, 0, 60}, hears(2400, 2480), antennaFor(AntennaKind::dipole, 2, 2400, 2480),
                 PartKind::receiver);
        Analyser analyser;
        const RadioCell &cell = cellOf(analyser.update(build).derived.radio, "a", "b");
        QVERIFY(cell.inBand);
        QCOMPARE(cell.rejection_dB, 0.0);
        QVERIFY(cell.rise_dB > 50);
        QCOMPARE(cellSeverity(cell, false, analyser.current().practice), Severity::stop);
    }
    void twoSendersMixOntoGps() {
        // 2440 - 868 = 1572 MHz, in the band of L1 with its full width.
        Build build = bareQuad();
        addRadio(build, "tele", {0, 0, 60}, sends(2435, 2445, 20), antennaFor(AntennaKind::dipole, 2, 2400, 2480),
                 PartKind::other);
        addRadio(build, "link", {60, 0, 60}, sends(866, 869, 14), antennaFor(AntennaKind::dipole, 2, 863, 870),
                 PartKind::receiver);
        addRadio(build, "gps", {0, 60, 60}, hears(1559, 1610, 24, 2),
                 antennaFor(AntennaKind::ceramicPatch, 2, 1559, 1610), PartKind::gps);
        Analyser analyser;
        const auto &report = *analyser.update(build).derived.radio;
        QCOMPARE(report.mixes.size(), std::size_t(1));
        const MixProduct &mix = report.mixes.front();
        QCOMPARE(mix.p, 1);
        QCOMPARE(mix.q, -1);
        QCOMPARE(mix.low_MHz, 2435.0 - 869);
        QCOMPARE(mix.high_MHz, 2445.0 - 866);
        QVERIFY(cellOf(report, report.radios[std::size_t(mix.at)].id(), "gps").products_dBm.has_value());
        // Another channel ends it: 2402 - 868 = 1534.
        build.types.edit([](TypeTable &types) { typeIn(types, "tele").radio[0].low_MHz = 2400; });
        const auto moved = setChannel(build, "tele", 0, 2401);
        QVERIFY(bool(moved));
        QVERIFY(analyser.update(*moved).derived.radio->mixes.empty());
    }
    void whatIsNeededTwiceLosesTwice() {
        // 2 x 2437 - 5740 = -866 MHz: a camera's radio and a video sender onto an 868 MHz receiver. In the camera's own
        // output it counts twice, in the sender's the weak guest does.
        Build build = bareQuad();
        addRadio(build, "camera", {60, 0, 40}, sends(2427, 2447, 17), antennaFor(AntennaKind::monopole, 0, 2400, 2480),
                 PartKind::payloadCamera);
        addRadio(build, "vtx", {-60, 0, 40}, sends(5731, 5749, 26), antennaFor(AntennaKind::monopole, 0, 5600, 5950),
                 PartKind::videoTransmitter);
        addRadio(build, "rx", {0, 60, 40}, hears(863, 870, 0.5, 6), antennaFor(AntennaKind::dipole, 2, 860, 880),
                 PartKind::receiver);
        Analyser analyser;
        const auto mixAt = [&](const Build &b) {
            const auto &report = *analyser.update(b).derived.radio;
            return report.mixes.size() == 1 ? report.mixes[0] : MixProduct{};
        };
        const MixProduct loud = mixAt(build);
        QCOMPARE(loud.p * loud.q, -2);
        const auto &radios = analyser.current().derived.radio->radios;
        QCOMPARE(radios[std::size_t(loud.at)].part, std::string("camera"));
        // By hand at that output: 2 x 17 + guest - 2 x (17 + 10), less 30 dB of filter for what is far from its band.
        const double made_dBm = 2 * 17 + loud.guest_dBm - 2 * 27;
        const BestPair out =
            bestPair(radios[0], radios[2], (loud.low_MHz + loud.high_MHz) / 2, analyser.current().practice, {});
        QVERIFY(std::abs(loud.level_dBm - (made_dBm - 30 + out.coupling.total_dB)) < 1e-6);
        // 20 dB less in the camera are 40 dB less in the product that is made there.
        const MixProduct quiet = mixAt(*setPower(build, "camera", 0, -3));
        if (quiet.at == loud.at) QVERIFY(std::abs(loud.level_dBm - quiet.level_dBm - 40) < 1e-6);
        QVERIFY(quiet.level_dBm < loud.level_dBm - 15);
        // Filters as stated make it certain, and weaker by what they take off, coming in and going out.
        Build stated = build;
        stated.types.edit([](TypeTable &types) {
            for (const char *id : {"camera", "vtx"}) typeIn(types, id).radio[0].filter_dB = 40;
        });
        const MixProduct sure = mixAt(stated);
        QVERIFY(sure.stated && !loud.stated);
        QVERIFY(std::abs(loud.level_dBm - sure.level_dBm - 20) < 1e-6);
    }
    void theGroundIsBehindOnTheWayOut() {
        // A patch that looks ahead: on the way home it is heard, on the way out its back is.
        Build build = bareQuad();
        Antenna patch = antennaFor(AntennaKind::patch, 8, 5600, 5950);
        patch.axis = Vec3::UnitX();
        addRadio(build, "vtx", {0, 0, 60}, sends(5731, 5749, 26), patch, PartKind::videoTransmitter);
        GroundStation station;
        station.id = "ground";
        station.name = "Ground";
        station.part = "vtx";
        station.distance_m = 500;
        station.height_m = 2;
        station.craftHeight_m = 60;
        build.groundStations = {station};
        Analyser analyser;
        const RangeReport back = analyser.update(build).derived.radio->ranges.at(0);
        QVERIFY(std::abs(back.elevation_deg - -6.62) < 0.01); // atan(58 / 500)
        build.types.edit(
            [](TypeTable &types) { typeIn(types, "vtx").antenna = antennaFor(AntennaKind::dipole, 2, 5600, 5950); });
        const RangeReport round = analyser.update(build).derived.radio->ranges.at(0);
        QVERIFY(back.gainHere_dBi < round.gainHere_dBi - 5);
        // Over the station the dipole points its null at it: nearer, and still less than its gain would give.
        const double nearer_dB = 20 * std::log10(500.0 / 58);
        QVERIFY(round.overhead_dB < round.margin_dB + nearer_dB - 10);
    }
    void harmonicsFindTheirVictims() {
        // The third harmonic of 525.14 MHz is GPS L1.
        Build build = bareQuad();
        addRadio(build, "old", {0, 0, 60}, sends(525, 525.3, 20), antennaFor(AntennaKind::monopole, 2, 520, 530),
                 PartKind::other);
        addRadio(build, "gps", {100, 0, 60}, hears(1559, 1610, 24, 2),
                 antennaFor(AntennaKind::ceramicPatch, 2, 1559, 1610), PartKind::gps);
        Analyser analyser;
        const auto &report = *analyser.update(build).derived.radio;
        QCOMPARE(report.harmonics.size(), std::size_t(1));
        QCOMPARE(report.harmonics[0].order, 3);
        const auto &findings = analyser.current().findings;
        QVERIFY(std::any_of(findings.begin(), findings.end(),
                            [](const Finding &f) { return f.rule == RuleId::radHarmonic; }));
    }
    void radiosFindTheirAntennas() {
        const Build build = stakewalker();
        Analyser analyser;
        const auto &report = *analyser.update(build).derived.radio;
        const auto radio = [&](const std::string &id) {
            return *std::find_if(report.radios.begin(), report.radios.end(),
                                 [&](const RadioUse &r) { return r.id() == id; });
        };
        QCOMPARE(radio("rx").antennas.size(), std::size_t(2)); // by wire, on both ports
        QCOMPARE(radio("vtx").antennas.size(), std::size_t(1));
        QVERIFY(radio("vtx").antennas[0].cable_mm > 0);
        QCOMPARE(radio("gps").antennas[0].part, std::string("gps")); // on its board
        // Without its coax the transmitter would send into nothing.
        Build cut = build;
        std::erase_if(cut.wires, [](const Wire &w) { return w.id == "w-vtxant"; });
        const auto &findings = analyser.update(cut).findings;
        QVERIFY(std::any_of(findings.begin(), findings.end(), [](const Finding &f) {
            return f.rule == RuleId::radAntenna && f.severity == Severity::stop && f.subjects[0] == "vtx";
        }));
    }
    void anAntennaScrewedOnNeedsNoWire() {
        Build build = bareQuad();
        Part &radio = addBox(build, "vtx", {20, 20, 6}, {0, 0, 40}, 5, PartKind::videoTransmitter);
        radio.fastening.onto = {"whip"};
        Part &whip = addBox(build, "whip", {4, 4, 30}, {0, 15, 55}, 2, PartKind::antenna);
        whip.fastening.onto = {"vtx"};
        build.types.edit([&](TypeTable &types) {
            auto &type = typeIn(types, "vtx");
            type.radio = {sends(5800, 5800, 26)};
            type.radio[0].port = "antenna";
            Port port;
            port.id = "antenna";
            port.kind = PortKind::coax;
            port.position_mm = {0, 12, 0};
            port.direction = Vec3::UnitY();
            port.connector = "SMA";
            type.ports = {port};
            auto &antenna = typeIn(types, "whip");
            antenna.antenna = antennaFor(AntennaKind::dipole, 2, 5600, 6000);
            antenna.antenna->connector = "RP-SMA";
            Port foot;
            foot.id = "feed";
            foot.kind = PortKind::coax;
            foot.position_mm = {0, 0, -15};
            foot.direction = -Vec3::UnitZ();
            antenna.ports = {foot};
        });
        Analyser analyser;
        const auto &analysis = analyser.update(build);
        QCOMPARE(analysis.derived.radio->radios.at(0).antennas.size(), std::size_t(1));
        QVERIFY(std::any_of(analysis.findings.begin(), analysis.findings.end(), [](const Finding &f) {
            return f.rule == RuleId::radConnector && f.severity == Severity::stop;
        }));
    }
    void aConductorNearTheElementIsFound() {
        Build build = pairBuild(100);
        Part &plate = addBox(build, "plate", {40, 1, 40}, {0, 6, 60}, 5);
        (void)plate;
        build.types.edit([](TypeTable &types) { typeIn(types, "plate").solids[0].material = "aluminium"; });
        Analyser analyser;
        const auto &report = *analyser.update(build).derived.radio;
        const auto at = std::find_if(report.surroundings.begin(), report.surroundings.end(),
                                     [&](const auto &s) { return report.radios[std::size_t(s.radio)].part == "vtx"; });
        QVERIFY(at != report.surroundings.end());
        QCOMPARE(at->conductor, std::string("plate"));
        QVERIFY(std::abs(at->conductor_mm - 5.5) < 1e-6);
    }
    void twoLikeAntennasAreNoDiversity() {
        Build build = stakewalker();
        Analyser analyser;
        const auto angle = [&](const Build &b) { return analyser.update(b).derived.radio->diversity.at(0).angle_deg; };
        QVERIFY(angle(build) > 55);
        const Part &left = *findPart(build, "rxant-l");
        for (auto &part : build.parts)
            if (part.id == "rxant-r") part.placement.pose.rotation = left.placement.pose.rotation;
        QVERIFY(angle(build) < 1e-3);
        const auto &findings = analyser.current().findings;
        const auto at = std::find_if(findings.begin(), findings.end(),
                                     [](const Finding &f) { return f.rule == RuleId::radDiversity; });
        QVERIFY(at != findings.end());
        QCOMPARE(at->fixes.size(), std::size_t(1));
        const auto turned = applyFix(build, at->fixes[0]);
        QVERIFY(bool(turned));
        QVERIFY(std::abs(angle(*turned) - 90) < 0.5);
    }

    // --- links ------------------------------------------------------------------------------------------
    void aLinkIsTheSumOfItsLines() {
        Build build = pairBuild(100);
        const auto added = addGroundStation(build, "vtx", 0);
        QVERIFY(bool(added));
        Analyser analyser;
        const RadioReport &report = *analyser.update(*added).derived.radio;
        QCOMPARE(report.ranges.size(), std::size_t(1)); // it only sends
        const RangeReport &range = report.ranges[0];
        const GroundStation &ground = added->groundStations[0];
        // Level it is a dipole's best; nose down, out and home, a little less.
        QVERIFY(range.gainHere_dBi < 2.15 && range.gainHere_dBi > 2.15 - 3);
        QVERIFY(std::abs(range.arrives_dBm -
                         (26 + range.gainHere_dBi + ground.gain_dBi - freeSpaceLoss_dB(5800, ground.distance_m) -
                          range.polarisation_dB - range.cable_dB)) < 0.01);
        QVERIFY(std::abs(freeSpaceLoss_dB(5800, range.ceiling_m) - freeSpaceLoss_dB(5800, range.distance_m) -
                         range.margin_dB) < 1e-6);
        QVERIFY(std::abs(20 * std::log10(range.ceiling_m / range.kept_m) -
                         analyser.current().practice[Limit::linkMargin]) < 1e-6);
        // First Fresnel zone halfway: half the root of wavelength times distance.
        QVERIFY(std::abs(range.fresnel_m - 0.5 * std::sqrt(wavelength_mm(5800) / 1e3 * 500)) < 1e-9);
        QVERIFY(std::find(range.assumed.begin(), range.assumed.end(), "noise figure") != range.assumed.end());
    }
    void settingsAreCheckedAndForgotten() {
        const Build build = pairBuild(100);
        QVERIFY(!setChannel(build, "vtx", 0, 900.0));
        QVERIFY(!setChannel(build, "vtx", 3, 5800.0));
        QVERIFY(!setChannel(build, "nobody", 0, 5800.0));
        QVERIFY(!setPower(build, "rx", 0, 10.0)); // it does not send
        const auto set = setPower(build, "vtx", 0, 14.0);
        QVERIFY(bool(set));
        QCOMPARE(set->radioSettings.size(), std::size_t(1));
        const auto back = setPower(*set, "vtx", 0, std::nullopt);
        QVERIFY(bool(back));
        QVERIFY(back->radioSettings.empty());
        const auto ground = addGroundStation(*set, "vtx", 0);
        QVERIFY(bool(ground));
        const auto trial = addTrial(*ground, "vtx", {});
        QVERIFY(bool(trial));
        const auto gone = removePart(*trial, "vtx");
        QVERIFY(bool(gone));
        QVERIFY(gone->radioSettings.empty() && gone->groundStations.empty() && gone->trials.empty());
        QVERIFY(!removeTrial(*gone, "vtx-trial"));
        QVERIFY(!editGroundStation(*gone, {}));
    }
    void settingsGoWithTheirBands() {
        const Build demo = stakewalker();
        const auto type = demo.types->at("vtx-58-1w");
        PartType mute = type;
        mute.radio.clear();
        const auto muted = putType(demo, mute, type.id);
        QVERIFY(bool(muted));
        for (const auto &setting : muted->radioSettings) QVERIFY(setting.part != "vtx");
        for (const auto &ground : muted->groundStations) QVERIFY(ground.part != "vtx");
        QVERIFY(bool(parseBuild(writeBuild(*muted)))); // and the file opens again
        PartType other = type;
        other.radio[0] = sends(2400, 2480, 20);
        const auto changed = putType(demo, other, type.id);
        QVERIFY(bool(changed));
        QVERIFY(!settingOf(*changed, "vtx", 0).centre_MHz);
        QVERIFY(settingOf(*changed, "vtx", 0).power_dBm.has_value());
    }
    void noughtsDoNoHarm() {
        Build build = pairBuild(60);
        build.types.edit([](TypeTable &types) {
            typeIn(types, "vtx").radio[0].bandwidth_MHz = 0;
            RadioBand empty;
            empty.listens = true;
            typeIn(types, "rx").radio.push_back(empty); // no frequency at all
            typeIn(types, "rx").radio[0].low_MHz = 0;
            typeIn(types, "rx").antenna->low_MHz = 0;
        });
        Analyser analyser;
        const Analysis &analysis = analyseFully(analyser, build);
        QCOMPARE(analysis.derived.radio->radios.size(), std::size_t(2));
        for (const auto &cell : analysis.derived.radio->cells) {
            if (!cell.counts) continue;
            for (const double value : {cell.arrives_dBm, cell.sum_dBm, cell.floor_dBm, cell.rise_dB, cell.margin_dB,
                                       cell.blockingMargin_dB, cell.coupling->total_dB})
                QVERIFY(std::isfinite(value));
        }
        // Two antennas in one place, and a listener that is its own neighbour.
        for (auto &part : build.parts) part.placement.pose.position_mm = {0, 0, 60};
        for (const auto &cell : analyser.update(build).derived.radio->cells)
            if (cell.counts) QVERIFY(std::isfinite(cell.coupling->total_dB) && cell.coupling->total_dB <= 0);
    }
    void takingATrialSwapsPlaces() {
        Build build = pairBuild(100);
        const auto trial = addTrial(build, "rx", {Vec3(10, 20, 90), Quat::Identity()});
        QVERIFY(bool(trial));
        const auto taken = takeTrial(*trial, trial->trials[0].id);
        QVERIFY(bool(taken));
        QVERIFY((framePose(*taken, *findPart(*taken, "rx")).position_mm - Vec3(10, 20, 90)).norm() < 1e-9);
        QVERIFY((taken->trials[0].X_FramePart.position_mm - Vec3(100, 0, 60)).norm() < 1e-9);
        const auto back = takeTrial(*taken, taken->trials[0].id);
        QVERIFY(bool(back));
        QVERIFY((framePose(*back, *findPart(*back, "rx")).position_mm - Vec3(100, 0, 60)).norm() < 1e-9);
    }

    // --- coverage and shadows ---------------------------------------------------------------------------
    void aWallHidesHalfTheWorld() {
        Build build = pairBuild(300);
        // A wall 2 mm behind the sender's antenna that is as good as endless.
        addBox(build, "wall", {1, 4000, 4000}, {-3, 0, 60}, 5);
        build.types.edit([](TypeTable &types) { typeIn(types, "wall").solids[0].material = "aluminium"; });
        Analyser analyser;
        const Analysis &analysis = analyseFully(analyser, build);
        const auto &coverage = analysis.derived.survey->coverages.at(0);
        QVERIFY2(std::abs(coverage.antennas.at(0).lost - 0.5) < 0.02,
                 qPrintable(QString::number(coverage.antennas[0].lost)));
        QVERIFY(QString::fromStdString(coverage.worst).contains("behind"));
        QCOMPARE(coverage.antennas[0].by.at(0).id, std::string("wall"));
        double belts = 0;
        for (const auto &belt : coverage.antennas[0].belts) belts += belt.lost;
        QVERIFY(belts > 2.5);
    }
    void theWayRoundAPlateIsItsHalfWidth() {
        Build build = bareQuad();
        addRadio(build, "tx", {0, 0, 160}, sends(5800, 5800, 26), antennaFor(AntennaKind::dipole, 2.15, 5600, 6000),
                 PartKind::videoTransmitter);
        addRadio(build, "rx", {0, 0, 0}, hears(5700, 5900), antennaFor(AntennaKind::dipole, 2.15, 5600, 6000),
                 PartKind::receiver);
        addBox(build, "plate", {60, 100, 2}, {0, 0, 80}, 5);
        build.types.edit([](TypeTable &types) { typeIn(types, "plate").solids[0].material = "aluminium"; });
        Analyser analyser;
        const Analysis &analysis = analyseFully(analyser, build);
        const auto &shadows = analysis.derived.survey->shadows;
        QCOMPARE(shadows.size(), std::size_t(1));
        QVERIFY2(std::abs(shadows[0].height_mm - 30) < 2.5,
                 qPrintable(QString::number(shadows[0].height_mm))); // half the shorter side
        QVERIFY(std::abs(shadows[0].d1_mm - 80) < 2);
        QCOMPARE(shadows[0].blockers, std::vector<std::string>{"plate"});
        const RadioCell &cell = cellOf(analysis.derived.radio, "tx", "rx");
        QVERIFY(std::abs(cell.coupling->shadow_dB - knifeEdgeLoss_dB(shadows[0].height_mm, shadows[0].d1_mm,
                                                                     shadows[0].d2_mm, wavelength_mm(5800))) < 1e-9);
        QVERIFY(cell.coupling->shadow_dB > 10);
    }
    void directionsHaveWords() {
        QCOMPARE(directionInWords(Vec3(-1, 1, -1).normalized()), std::string("low, behind, left"));
        QCOMPARE(directionInWords(Vec3::UnitX()), std::string("level, ahead"));
        QCOMPARE(directionInWords(Vec3(0.1, -1, 0.8).normalized()), std::string("high, right"));
    }
};

QTEST_APPLESS_MAIN(TestRadio)
#include "test_radio.moc"
