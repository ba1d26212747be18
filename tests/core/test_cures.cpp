// Cures: what goes along with a part that is moved, what rules offer, and that what is offered really mends.
#include "core/analysis/analysis.h"
#include "core/catalog/part_bounds.h"
#include "core/edits/hung_on.h"
#include "core/edits/part_edits.h"
#include "core/rules/rule.h"
#include "core/rules/wording.h"
#include "core/studies/cures.h"
#include "support/builds.h"
#include "support/library.h"

using namespace waxis;
using waxis::test::stakewalker;

namespace {

std::optional<Finding> findingOf(const Build &build, const std::string &keyBegins) {
    Analyser analyser;
    for (const auto &finding : analyseFully(analyser, build).findings) // dear cures come with the survey
        if (finding.key().rfind(keyBegins, 0) == 0) return finding;
    return std::nullopt;
}

Pose poseOf(const Build &build, const char *part) { return framePose(build, *findPart(build, part)); }

} // namespace

class TestCures : public QObject {
    Q_OBJECT

private slots:
    void whatHangsOnAPartIsKnown_data() {
        QTest::addColumn<QString>("part");
        QTest::addColumn<QStringList>("along");
        QTest::newRow("a GPS on its mast") << "gpsmast" << QStringList{"gps"};
        QTest::newRow("an antenna in its tube") << "tube-l" << QStringList{"rxant-l"};
        QTest::newRow("the tube round its antenna") << "rxant-l" << QStringList{"tube-l"};
        QTest::newRow("what the tail mount alone holds") << "tailmount" << QStringList{"vtxant"};
        QTest::newRow("pinned things stay") << "motor-1" << QStringList{};
        QTest::newRow("a pack lies on its pad, which the plate holds too") << "pad" << QStringList{};
        QTest::newRow("nothing") << "gps" << QStringList{};
    }
    void whatHangsOnAPartIsKnown() {
        QFETCH(QString, part);
        QFETCH(QStringList, along);
        QStringList found;
        for (const auto &id : hungOn(stakewalker(), part.toStdString())) found << QString::fromStdString(id);
        QCOMPARE(found, along);
    }
    void aMastIsMovedForTheGpsOnIt() {
        const Build build = stakewalker();
        QCOMPARE(carrierOf(build, "gps"), std::string("gpsmast"));
        QCOMPARE(carrierOf(build, "vtxant"), std::string("tailmount"));
        QCOMPARE(carrierOf(build, "buzzer"), std::string("buzzer")); // it lies on a plate
    }
    void whatHangsOnAPartComesAlongAsIfGlued() {
        const Build build = stakewalker();
        const Pose before = poseOf(build, "tube-l").inverse() * poseOf(build, "rxant-l");
        const auto moved = bringAlong(build, shiftPart(build, "tube-l", {3, -4, 5}), "tube-l");
        QVERIFY(moved);
        QVERIFY((poseOf(*moved, "rxant-l").position_mm - poseOf(build, "rxant-l").position_mm - Vec3(3, -4, 5)).norm() <
                1e-9);
        const auto turned = bringAlong(build, turnPart(build, "tube-l", Vec3::UnitX(), 37), "tube-l");
        QVERIFY(turned);
        const Pose after = poseOf(*turned, "tube-l").inverse() * poseOf(*turned, "rxant-l");
        QVERIFY((after.position_mm - before.position_mm).norm() < 1e-9);
        QVERIFY(after.rotation.angularDistance(before.rotation) < 1e-9);
        QVERIFY(!bringAlong(build, shiftPart(build, "nobody", {1, 0, 0}), "nobody")); // the error stays one
    }
    void whatStandsOnAPartGoesUpWithIt() {
        // A pedestal of 3 mm becomes a mast: the GPS lies on its top as it lay on the pedestal's.
        Build build = stakewalker();
        const auto mast = test::shippedLibrary().at("mast-gps-60");
        build.types.edit([&](TypeTable &types) { types[mast.id] = mast; });
        const PartType &pedestal = *typeOf(build, *findPart(build, "gpsmast"));
        const double lift_mm = firmBounds(mast).max_mm.z() - firmBounds(pedestal).max_mm.z();
        QVERIFY(lift_mm > 50);
        const auto next = replaceType(build, "gpsmast", mast.id);
        QVERIFY(next);
        QVERIFY((poseOf(*next, "gps").position_mm - poseOf(build, "gps").position_mm - Vec3(0, 0, lift_mm)).norm() <
                1e-9);
        QVERIFY((poseOf(*next, "gpsmast").position_mm - poseOf(build, "gpsmast").position_mm).norm() < 1e-9);
        // What hangs at its side does not; nor is there anything to lift on a part that carries nothing.
        const auto tail = replaceType(build, "tailmount", mast.id);
        QVERIFY(tail && (poseOf(*tail, "vtxant").position_mm - poseOf(build, "vtxant").position_mm).norm() < 1e-9);
        QVERIFY(!replaceType(build, "gpsmast", "nothing"));
    }
    void aMotorTakesItsPropellerToAnotherMount() {
        Build build = stakewalker();
        for (auto &part : build.parts)
            if (part.id == "motor-1" || part.id == "prop-1" || part.id == "propnut-1") part.pinned = false;
        const Pose before = poseOf(build, "motor-1").inverse() * poseOf(build, "prop-1");
        const auto moved = bringAlong(build, seatPart(build, "motor-1", "m2", Pose{}), "motor-1");
        QVERIFY(moved);
        QCOMPARE(findPart(*moved, "prop-1")->placement.site, std::string("m2"));
        const Pose after = poseOf(*moved, "motor-1").inverse() * poseOf(*moved, "prop-1");
        QVERIFY((after.position_mm - before.position_mm).norm() < 1e-9);
    }
    void theSameTroubleKeepsItsNameWhileItsContributorsChange() {
        const Build build = stakewalker();
        const auto rail = findingOf(build, "PWR-1/5v/");
        QVERIFY(rail);
        QCOMPARE(rail->trouble(), std::string("PWR-1/5v:fc"));
        QVERIFY(rail->key() != rail->trouble());
        QCOMPARE(findingOf(build, "NAV-3")->trouble(), std::string("NAV-3:gps"));
        const auto blades = findingOf(build, "FIT-3:tube-l");
        QCOMPARE(blades->trouble(), blades->key()); // a pair is a pair
    }
    void everyStopOfTheDemoHasACure_data() {
        QTest::addColumn<QString>("key");
        QTest::addColumn<QString>("words"); // of the first one
        const std::pair<const char *, const char *> rows[] = {
            {"NAV-4:buzzer", "Move Buzzer"},
            {"NAV-3", "Twist Small pack's lead"},
            {"PWR-1/5v/", "Leave Camera charging cable out"},
            {"WIR-1/short:w-pack:", ""},
            {"WIR-1/short:w-pack-small", "Cut Small pack's lead new from stock"},
            {"WIR-1/short:w-compass", "Cut Compass wires new from stock"},
            {"RAD-15/down:vtx", "Give video ground station a right-hand antenna"},
            {"FIT-3:tube-l", "Turn Left antenna tube by"},
            {"FIT-3:rxant-l", "Turn Left receiver antenna by"},
            {"STK-3/short:stack-main", "Use M3 x 25"},
            {"FIT-1:cam:plate-top", "Move Flight camera 0.2 mm down"}};
        for (const auto &[key, words] : rows)
            if (*words) QTest::newRow(key) << QString(key) << QString(words);
    }
    void everyStopOfTheDemoHasACure() {
        QFETCH(QString, key);
        QFETCH(QString, words);
        const Build build = stakewalker();
        const auto finding = findingOf(build, key.toStdString());
        QVERIFY(finding);
        QCOMPARE(finding->severity, Severity::stop);
        CureTester tester(build);
        const auto cures = tester.curesOf(*finding);
        QVERIFY2(!cures.empty(), qPrintable(key));
        QVERIFY2(QString::fromStdString(cures.front().words.text()).startsWith(words),
                 cures.front().words.text().c_str());
        // It is gone or milder, or the numbers are nearer to the limit; and no stop is new.
        Analyser analyser;
        const auto before = analyser.update(build).findings;
        const auto after = analyser.update(cures.front().after).findings;
        for (const auto &now : after) {
            if (now.severity != Severity::stop || now.accepted()) continue;
            QVERIFY2(std::any_of(before.begin(), before.end(),
                                 [&](const Finding &was) {
                                     return was.severity == Severity::stop && was.trouble() == now.trouble();
                                 }),
                     now.key().c_str());
            if (now.trouble() == finding->trouble()) QVERIFY(now.margin > finding->margin);
        }
    }
    void aChannelThatMixesAgainIsNotOffered() {
        // With an output stage and a filter that are worse than those of the demo, and stated.
        Build build = stakewalker();
        build.types.edit([](TypeTable &types) {
            for (const char *id : {"acam-134", "vtx-58-1w"})
                for (auto &band : types.at(id).radio) {
                    band.intercept_dBm = 20;
                    band.filter_dB = 0;
                }
        });
        const auto mixing = findingOf(build, "RAD-4/2acam-vtx");
        QVERIFY(mixing && !mixing->fixes.empty());
        QVERIFY(mixing->severity <= Severity::watch);
        for (const auto &fix : mixing->fixes) {
            if (!fix.as<RadioSetting>()) continue;
            const auto next = applyFix(build, fix);
            QVERIFY(next);
            QVERIFY2(!findingOf(*next, "RAD-4/2acam-vtx"), wordFix(build, fix).text().c_str());
        }
    }
    void fixesThatBelongTogetherAreDoneAndSaidTogether() {
        const Build build = stakewalker();
        Fix fix;
        fix.part = "buzzer";
        fix.change = PartShift{{10, 0, 0}};
        Fix second;
        second.change = WireChange{WireChange::Kind::twist, "w-main", 0, 0, false, {}, {}, Vec3::Zero()};
        fix.then = {second};
        QCOMPARE(wordFix(build, fix).text(), std::string("Move Buzzer 10.0 mm forward and twist Main power lead"));
        const auto done = applyFix(build, fix);
        QVERIFY(done);
        QCOMPARE(findWire(*done, "w-main")->lay, WireLay::twisted);
        QVERIFY(std::abs(poseOf(*done, "buzzer").position_mm.x() - poseOf(build, "buzzer").position_mm.x() - 10) <
                1e-9);
        std::get<WireChange>(fix.then.front().change).wire = "nobody";
        QVERIFY(!applyFix(build, fix)); // all of it or nothing
    }
    void aGroundStationTakesTheOtherHand() {
        Fix fix;
        fix.part = "ground-video";
        fix.change = GroundHand{Polarisation::rightCircular};
        const auto done = applyFix(stakewalker(), fix);
        QVERIFY(done);
        QVERIFY(!findingOf(*done, "RAD-10:vtxant:ground-video") ||
                findingOf(*done, "RAD-10:vtxant:ground-video")->severity == Severity::pass);
        fix.part = "nowhere";
        QVERIFY(!applyFix(stakewalker(), fix));
    }
    void anOverwhelmedCompassStillKnowsBetterFromWorse() {
        // 180 degrees are any angle: the margin goes on with the field, so that a step towards the cure is seen.
        Build build = stakewalker();
        const auto before = findingOf(build, "NAV-3");
        for (auto &wire : build.wires)
            if (wire.id == "w-pack-small") wire.lay = WireLay::twisted;
        const auto after = findingOf(build, "NAV-3");
        QCOMPARE(*before->measured, 180.0);
        QCOMPARE(*after->measured, 180.0);
        QVERIFY(after->margin > before->margin);
    }
};

QTEST_APPLESS_MAIN(TestCures)
#include "test_cures.moc"
