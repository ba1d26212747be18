// What is offered for a pair of radios that is not well, and places compared. Sources stand beside each check.
#include "core/analysis/analysis.h"
#include "core/edits/case_edits.h"
#include "core/edits/shield_edits.h"
#include "core/radio/free_space.h"
#include "core/radio/radio_report.h"
#include "core/remedies/radio_help.h"
#include "core/rules/wording.h"
#include "core/studies/radio_places.h"
#include "core/survey/survey.h"
#include "support/radios.h"

using namespace waxis;
using namespace waxis::test;

namespace {

/// A satellite receiver with its patch on top, and a picture sender so far below and beside it.
Build overSender(double below_mm, double beside_mm, double power_dBm = 46) {
    Build build = bareQuad();
    addRadio(build, "gps", {0, 0, 120}, hears(1565, 1586, 20, 2), antennaFor(AntennaKind::patch, 3, 1560, 1610),
             PartKind::gps);
    build.types.edit([](TypeTable &types) {
        PartType &type = typeIn(types, "gps");
        type.solids = {solidBox({20, 20, 6})};
        type.antenna->phaseCentre_mm = {0, 0, 4};
    });
    addRadio(build, "vtx", {beside_mm, 0, 120 - below_mm}, sends(5800, 5800, power_dBm, 20),
             antennaFor(AntennaKind::dipole, 2.15, 5600, 6000), PartKind::videoTransmitter);
    return build;
}

template <class Change>
std::vector<RadioHelp> offered(const Analysis &analysis, const std::string &from, const std::string &to) {
    std::vector<RadioHelp> found;
    for (const auto &pair : analysis.derived.survey->radioHelp)
        if (pair.sender == from && pair.listener == to)
            for (const auto &help : pair.helps)
                if (help.fix.template as<Change>()) found.push_back(help);
    return found;
}

} // namespace

class TestRadioHelp : public QObject {
    Q_OBJECT

private slots:
    void whatHelpsReallyHelps() {
        int cured = 0;
        for (const char *demo : {"stakewalker", "owlbox-mini", "kilnlamp", "sedge-tri"}) {
            const auto loaded = loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + demo + ".waxis");
            const Build &build = loaded->build;
            Analyser analyser;
            const Analysis &analysis = analyseFully(analyser, build);
            for (const auto &pair : analysis.derived.survey->radioHelp)
                for (const auto &help : pair.helps) {
                    if (!help.cures || cured >= 6) continue;
                    const auto changed = applyFix(build, help.fix);
                    QVERIFY(bool(changed));
                    Analyser again;
                    const RadioCell &cell = cellOf(again.update(*changed).derived.radio, pair.sender, pair.listener);
                    // Its coax is led anew, so the figures differ a little.
                    QVERIFY2(cell.margin_dB > -1.5, pair.sender.c_str());
                    ++cured;
                }
        }
        QVERIFY(cured > 0);
    }
    void helpDoesNotPutThingsIntoOthers() {
        Build build = bareQuad();
        addBox(build, "a", {10, 10, 10}, {0, 0, 50}, 5);
        addBox(build, "b", {10, 10, 10}, {20, 0, 50}, 5);
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        QVERIFY(!standsFree(derived.scene, "a", {15, 0, 0}));
        QVERIFY(standsFree(derived.scene, "a", {-15, 0, 0}));
        QVERIFY(standsFree(derived.scene, "a", {45, 0, 0}));
    }
    void placesAreComparedAllAtOnce() {
        Build build = stakewalker();
        std::erase_if(build.trials, [](const TrialPlace &t) { return t.id != "gps-trial"; });
        const auto reports = comparePlaces(build, "gps", {});
        QCOMPARE(reports.size(), std::size_t(2));
        QVERIFY(reports[0].trial.empty());
        for (const auto &report : reports) {
            QVERIFY(report.skyLevel && report.sender_mm && report.rise_dB && report.full_deg && report.wired);
            QVERIFY(report.wire_mm > 0);
        }
        // The tall mast: farther from everything, longer wire.
        QVERIFY(*reports[1].constant_deg < *reports[0].constant_deg);
        QVERIFY(*reports[1].skyLevel <= *reports[0].skyLevel + 0.01);
        QVERIFY(reports[1].wire_mm > reports[0].wire_mm);
        QVERIFY(comparePlaces(build, "nobody", {}).empty());
    }

    // --- a shield under the module ----------------------------------------------------------------------
    void aSheetKeepsOffWhatComesFromBelow() {
        const Build build = overSender(100, 5);
        Analyser analyser;
        const Analysis &analysis = analyseFully(analyser, build);
        const auto shields = offered<ShieldUnder>(analysis, "vtx", "gps");
        const double before_dB = cellOf(analysis.derived.radio, "vtx", "gps").margin_dB;
        QCOMPARE(shields.size(), std::size_t(1));
        QVERIFY(shields[0].margin_dB > before_dB + 1);
        const auto laid = applyFix(build, shields[0].fix);
        QVERIFY(bool(laid));
        Analyser again;
        const Analysis &after = analyseFully(again, *laid);
        const RadioCell &cell = cellOf(after.derived.radio, "vtx", "gps");
        // Told beforehand from the sheet's nearest edge, found afterwards round the real one (ITU-R P.526).
        QVERIFY2(std::abs(cell.margin_dB - shields[0].margin_dB) < 1.5,
                 qPrintable(QString("%1, told %2").arg(cell.margin_dB).arg(shields[0].margin_dB)));
        QVERIFY(cell.coupling->shadow_dB > 6); // a line that only touches an edge loses 6 dB
    }
    void aSheetLiesUnderItsModuleAndTouchesNothingElse() {
        const Build build = overSender(100, 5);
        const auto laid = addShield(build, "gps", {10});
        QVERIFY(bool(laid));
        const Part &plate = laid->parts.back();
        const Vec3 gps = framePose(*laid, *findPart(*laid, "gps")).position_mm;
        QVERIFY(std::abs(gps.z() - 120 - kShieldThickness_mm) < 1e-9); // the module goes up by the sheet
        QVERIFY((framePose(*laid, plate).position_mm - Vec3(0, 0, 117 + kShieldThickness_mm)).norm() < 1e-9);
        // 40 x 40 x 0.1 mm of copper at 8.89 g/cm3 (CRC Handbook has 8.96 for pure copper).
        QVERIFY(std::abs(*typeOf(*laid, plate)->mass_g.value - 1.42) < 0.01);
        Analyser analyser;
        for (const auto &f : analyseFully(analyser, *laid).findings)
            QVERIFY2(f.rule != RuleId::fitOverlap ||
                         std::find(f.subjects.begin(), f.subjects.end(), plate.id) == f.subjects.end(),
                     f.key().c_str());
        QVERIFY(!addShield(build, "nobody", {10}));
        const auto twice = addShield(*laid, "vtx", {10});
        QVERIFY(bool(twice)); // another size is another type
        QVERIFY(twice->parts.back().id != plate.id);
    }
    void aSheetHelpsNotAgainstWhatIsLevelOrAbove() {
        for (const double below_mm : {0.0, -60.0}) {
            const Build build = overSender(below_mm, 100, 56);
            Analyser analyser;
            const Analysis &analysis = analyseFully(analyser, build);
            const double margin_dB = cellOf(analysis.derived.radio, "vtx", "gps").margin_dB;
            QVERIFY2(margin_dB < 0, qPrintable(QString::number(margin_dB))); // it is too loud
            QVERIFY(offered<ShieldUnder>(analysis, "vtx", "gps").empty());
        }
    }

    // --- the other unit off -----------------------------------------------------------------------------
    void oneOfTwoPictureSendersIsSwitchedOff() {
        Build build = pairBuild(60);
        build.loadCases = {{"fly", "Fly", {}, {}}};
        addRadio(build, "spare", {-100, 0, 60}, sends(5700, 5700, 14, 20),
                 antennaFor(AntennaKind::dipole, 2.15, 5600, 6000), PartKind::videoTransmitter);
        Analyser analyser;
        const auto offs = offered<SwitchOff>(analyseFully(analyser, build), "vtx", "rx");
        QCOMPARE(offs.size(), std::size_t(1));
        QVERIFY(offs[0].cures && offs[0].silent);
        QCOMPARE(wordFix(build, offs[0].fix).text(), std::string("Switch vtx off in Fly"));
        const auto off = applyFix(build, offs[0].fix);
        QVERIFY(bool(off));
        Analyser again;
        QVERIFY(!cellOf(analyseFully(again, *off).derived.radio, "vtx", "rx").counts);
    }
    void theOnlyPictureSenderIsOffOnTheGroundOnly() {
        Build build = pairBuild(60);
        build.loadCases = {{"fly", "Fly", {}, {}}};
        Analyser analyser;
        QVERIFY(offered<SwitchOff>(analyseFully(analyser, build), "vtx", "rx").empty()); // somebody flies by it
        build.loadCases[0].kind = LoadCaseKind::bench;
        QCOMPARE(offered<SwitchOff>(analyseFully(analyser, build), "vtx", "rx").size(), std::size_t(1));
    }
    void satellitesAreSearchedWithTheSenderOff() {
        const Build build = overSender(60, 5);
        Analyser analyser;
        const auto offs = offered<SwitchOff>(analyseFully(analyser, build), "vtx", "gps");
        QCOMPARE(offs.size(), std::size_t(1));
        QVERIFY(!offs[0].cures); // in flight nothing has changed
        const auto quiet = applyFix(build, offs[0].fix);
        QVERIFY(bool(quiet));
        QCOMPARE(quiet->loadCases.size(), std::size_t(2)); // what is drawn stays the first
        QVERIFY(quiet->loadCases[0].flies() && quiet->loadCases[1].kind == LoadCaseKind::bench);
        QVERIFY(isSwitchedOn(*findPart(*quiet, "vtx"), quiet->loadCases[0]));
        QVERIFY(!isSwitchedOn(*findPart(*quiet, "vtx"), quiet->loadCases[1]));
        Analyser again;
        QVERIFY(offered<SwitchOff>(analyseFully(again, *quiet), "vtx", "gps").empty()); // it is there now
    }
    void theControlLinkStaysOn() {
        Build build = overSender(60, 5);
        build.types.edit([](TypeTable &types) { typeIn(types, "vtx").kind = PartKind::receiver; });
        Analyser analyser;
        const Analysis &analysis = analyseFully(analyser, build);
        QVERIFY(!offered<RadioSetting>(analysis, "vtx", "gps").empty());
        QVERIFY(offered<SwitchOff>(analysis, "vtx", "gps").empty());
    }
    void switchedOffIsCheckedAndForgotten() {
        Build build = pairBuild(60);
        addBox(build, "brick", {5, 5, 5}, {0, 50, 0}, 3);
        build.loadCases = {{"fly", "Fly", {}, {}}};
        QVERIFY(!setSwitchedOff(build, "nobody", "fly", true));
        QVERIFY(!setSwitchedOff(build, "vtx", "no case", true));
        QVERIFY(!setSwitchedOff(build, "brick", "fly", true)); // nothing to switch off
        const auto off = setSwitchedOff(build, "vtx", "fly", true);
        QVERIFY(bool(off));
        QVERIFY(isAboard(*findPart(*off, "vtx"), off->loadCases[0])); // it still weighs
        const auto on = setSwitchedOff(*off, "vtx", "fly", false);
        QVERIFY(bool(on) && on->loadCases[0].off.empty());
        QVERIFY(removePart(*off, "vtx")->loadCases[0].off.empty());
        Build carried = build;
        carried.loadCases[0].kind = LoadCaseKind::carried;
        QVERIFY(!isSwitchedOn(*findPart(carried, "vtx"), carried.loadCases[0]));
    }
};

QTEST_APPLESS_MAIN(TestRadioHelp)
#include "test_radio_help.moc"
