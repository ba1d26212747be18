// The stand-ins of instruments: satellites where they can be, a receiver that a bad place slows down, a scale that
// settles. And what is made of their bytes.
#include "core/log/trial_report.h"
#include "core/log/try_recorder.h"
#include "core/simulated/constellation.h"
#include "core/simulated/simulated_receiver.h"
#include "core/simulated/simulated_scale.h"
#include "core/simulated/simulated_seat.h"
#include "core/sky/sky_lookup.h"
#include "core/studies/sky_proof.h"
#include "support/builds.h"

#include <QTest>
#include <cmath>

using namespace waxis;

namespace {

/// A try of so many seconds with that seat.
Try tryWith(const SimulatedSeat &seat, double hour, std::uint32_t seed, double seconds = 300) {
    SimulatedSky sky;
    sky.hour = hour;
    SimulatedReceiver receiver(sky, seat, seed);
    Receiver reader;
    TryRecorder recorder;
    while (receiver.sinceStart_s() < seconds)
        if (reader.feed(receiver.round()) > 0) recorder.add(receiver.sinceStart_s() - 1, reader.state());
    Try one = recorder.result();
    one.nose_deg = seat.nose_deg;
    return one;
}

/// A view that hides everything on the left, up to this elevation.
SimulatedSeat leftHidden(double upTo_deg) {
    SimulatedSeat seat;
    const auto &sky = skyDirections();
    seat.view.owner.assign(sky.size(), -1);
    const double sine = std::sin(upTo_deg * M_PI / 180);
    for (std::size_t i = 0; i < sky.size(); ++i)
        if (sky[i].y() > 0 && sky[i].z() < sine) seat.view.owner[i] = 0;
    return seat;
}

} // namespace

class TestSimulated : public QObject {
    Q_OBJECT

private slots:
    void satellitesAreWhereTheyCanBe() {
        // From the pole a satellite whose orbit leans by 55 degrees stays below the elevation that its own geometry
        // gives: the angle at the earth's centre is 35 degrees at least.
        const double r = 26560.0, e = 6371.0, c = 35 * M_PI / 180;
        const double highest = std::atan2(std::cos(c) - e / r, std::sin(c)) * 180 / M_PI;
        double seen = -90;
        for (const auto &satellite : constellation())
            if (satellite.id.system == GnssSystem::gps)
                for (int t = 0; t < 86400; t += 300)
                    seen = std::max(seen, skyPositionOf(satellite, {90, 0}, t).elevation_deg);
        QVERIFY2(std::abs(seen - highest) < 0.5, QByteArray::number(seen) + " " + QByteArray::number(highest));
    }
    void orbitsTakeTheirTime() {
        // Kepler's third law: 11 h 58 min for 26,560 km. After two turns and one of the earth it stands there again.
        const auto &satellite = constellation().front();
        const SkyPosition first = skyPositionOf(satellite, {47, 8}, 0),
                          again = skyPositionOf(satellite, {47, 8}, 86164);
        QVERIFY(std::abs(first.elevation_deg - again.elevation_deg) < 0.5);
    }
    void somewhereBetweenTwentyAndFiftyAreInView() {
        for (int hour = 0; hour < 24; hour += 3) {
            int above = 0;
            for (const auto &satellite : constellation())
                above += skyPositionOf(satellite, {53.4, 7.1}, hour * 3600).elevation_deg > 5;
            QVERIFY2(above >= 20 && above <= 50, QByteArray::number(above));
        }
    }
    void anOpenSkyIsFoundInUnderTwoMinutes() {
        const Try one = tryWith({}, 14, 3);
        QVERIFY(one.fix_s && *one.fix_s > 18 && *one.fix_s < 90);
        QVERIFY(one.reached_s.size() >= 12 && one.reached_s[7] < 120);
        QVERIFY(one.series.size() > 25 && one.series.back().used >= 12);
        QVERIFY(one.heard.size() >= 20);
    }
    void theSameSeedSaysTheSame() {
        const Try a = tryWith({}, 14, 3), b = tryWith({}, 14, 3), c = tryWith({}, 14, 4);
        QVERIFY(a == b);
        QVERIFY(!(a == c));
    }
    void restartingForgets() {
        SimulatedReceiver receiver({}, {}, 5);
        Receiver reader;
        for (int i = 0; i < 120; ++i) reader.feed(receiver.round());
        QVERIFY(reader.state().hasFix && reader.restarts() == 0);
        receiver.restart();
        for (int i = 0; i < 5; ++i) reader.feed(receiver.round());
        QCOMPARE(reader.restarts(), 1);
        QVERIFY(!reader.state().hasFix && reader.state().used == 0);
    }
    void noiseSlowsItDown() {
        SimulatedSeat noisy;
        noisy.noise_dB = 8;
        double quiet_s = 0, noisy_s = 0;
        for (std::uint32_t seed = 1; seed <= 5; ++seed) {
            Trial trial;
            trial.quantity = TrialQuantity::secondsToSatellites;
            quiet_s += tryValue(trial, tryWith({}, 14, seed))->value;
            noisy_s += tryValue(trial, tryWith(noisy, 14, seed))->value;
        }
        QVERIFY2(noisy_s > 1.3 * quiet_s, QByteArray::number(noisy_s) + " " + QByteArray::number(quiet_s));
    }
    void aBadPlaceLosesATrialAndAGoodOneDoesNot() {
        // Five tries each; of places alike the verdict names none more often than one time in twenty.
        const SimulatedSeat bad = [] {
            SimulatedSeat seat = leftHidden(80);
            seat.noise_dB = 5;
            return seat;
        }();
        int told = 0, wrong = 0;
        constexpr int kTrials = 12;
        for (int t = 0; t < kTrials; ++t) {
            Trial trial;
            trial.quantity = TrialQuantity::secondsToSatellites;
            trial.satellites = 12;
            trial.setups.resize(3);
            for (const char *id : {"bad", "good", "alike"})
                trial.setups[std::size_t(id == std::string("good") ? 1 : id == std::string("alike") ? 2 : 0)].id = id;
            for (int i = 0; i < 5; ++i)
                for (const auto &setup : trial.setups) {
                    const auto seed = std::uint32_t(1000 * t + 10 * i +
                                                    (setup.id == "bad"    ? 1
                                                     : setup.id == "good" ? 2
                                                                          : 3));
                    Try one = tryWith(setup.id == "bad" ? bad : SimulatedSeat{}, 8 + t % 8, seed, 240);
                    one.setup = setup.id;
                    trial.tries.push_back(std::move(one));
                }
            for (const auto &pair : trialReport(trial, 0.05).pairs) {
                if (pair.telling != Telling::told) continue;
                if (pair.other == "bad") ++told;
                if (pair.better == "bad" || pair.other != "bad") ++wrong;
            }
        }
        qInfo("bad place told %d of %d, wrong %d of %d", told, 2 * kTrials, wrong, kTrials);
        QVERIFY(told >= 20);
        QVERIFY(wrong <= 2);
    }
    void hiddenSectorsLoseThePredictedDecibels() {
        SimulatedSeat seat = leftHidden(75);
        seat.nose_deg = 40;
        std::vector<Try> tries;
        for (std::uint32_t seed = 1; seed <= 3; ++seed) tries.push_back(tryWith(seat, 9 + 3 * seed, seed));
        std::vector<const Try *> list;
        for (const auto &one : tries) list.push_back(&one);
        const SkyProof proof = skyProof(seat.view, {"pack"}, list, 10);
        QVERIFY(proof.open >= 15 && proof.hidden >= 10 && proof.loss_dB);
        QVERIFY2(proof.loss_dB->low < kHiddenLoss_dB + 1 && proof.loss_dB->high > kHiddenLoss_dB - 1,
                 QByteArray::number(proof.loss_dB->shift));
        QVERIFY(std::abs(proof.loss_dB->shift - kHiddenLoss_dB) < 2.5 && proof.chance < 0.001);
        QVERIFY(std::any_of(proof.satellites.begin(), proof.satellites.end(),
                            [](const ProvedSatellite &one) { return one.behind == "pack"; }));
        // With the nose elsewhere than it was said nothing of the kind is found.
        for (auto &one : tries) one.nose_deg = 220;
        QVERIFY(skyProof(seat.view, {"pack"}, list, 10).loss_dB->shift < -5);
        // An open sky proves nothing, and says so.
        QVERIFY(!skyProof({}, {}, list, 10).loss_dB);
    }
    void placesOfABuildDiffer() {
        const Build build = test::stakewalker();
        const auto there = simulatedSeat(build, "gps", 0);
        QVERIFY2(there, there ? "" : there.error().c_str());
        QVERIFY(there->view.owner.size() == skyDirections().size());
        const Part &gps = *findPart(build, "gps");
        Pose under = framePose(build, gps);
        under.position_mm = Vec3(0, 0, -20);
        const auto hidden = simulatedSeatAt(build, "gps", under, 0);
        QVERIFY(hidden && hidden->view.hidden > there->view.hidden + 0.2);
        QVERIFY(!simulatedSeat(build, "fc-usb-cable", 0));
        QVERIFY(!simulatedSeat(build, "buzzer", 0));
        const auto near = simulatedSeat(build, "gsp", 0);
        QVERIFY(!near && near.error().find("\"gps\"") != std::string::npos);
    }
    void aScaleSettlesAndSaysSo() {
        SimulatedScale scale({}, 3);
        scale.put(212.4);
        double after_s = 0;
        std::string line;
        do {
            line = scale.line(0.1);
            after_s += 0.1;
        } while (!line.starts_with("ST") && after_s < 20);
        QVERIFY2(after_s > 0.5 && after_s < 6, QByteArray::number(after_s));
        QVERIFY2(std::abs(scale.shown_g() - 212.4) < 1, line.c_str());
        scale.put(0);
        QVERIFY(scale.line(0.1).starts_with("US"));
        for (int i = 0; i < 100; ++i) line = scale.line(0.1);
        QVERIFY(std::abs(scale.shown_g()) < 0.3);
    }
};

QTEST_GUILESS_MAIN(TestSimulated)
#include "test_simulated.moc"
