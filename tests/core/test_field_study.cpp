// The wire-grid model and what the method-of-moments program makes of it, against published and tabulated cases.
#include "core/analysis/analysis.h"
#include "core/field_study/deck.h"
#include "core/radio/coupling.h"
#include "core/radio/decibel.h"
#include "core/radio/radio_report.h"
#include "support/radios.h"

#include <QProcess>
#include <QStandardPaths>
#include <QTemporaryDir>

using namespace waxis;
using namespace waxis::test;

namespace {

bool installed() { return !QStandardPaths::findExecutable("nec2c").isEmpty(); }

Result<FieldResult, std::string> solve(const std::string &deck) {
    QTemporaryDir folder;
    QFile file(folder.filePath("in.nec"));
    if (!file.open(QIODevice::WriteOnly)) return Failure{std::string("cannot write the deck")};
    file.write(deck.data(), qint64(deck.size()));
    file.close();
    QProcess program;
    program.start("nec2c", {"-i", file.fileName(), "-o", folder.filePath("out.txt")});
    if (!program.waitForFinished(240000)) return Failure{std::string("it did not finish")};
    QFile out(folder.filePath("out.txt"));
    if (!out.open(QIODevice::ReadOnly)) return Failure{std::string("no output")};
    return readFieldResult(out.readAll().toStdString());
}

DeckWire dipole(const Vec3 &at, const Vec3 &axis, double length_mm, double radius_mm) {
    return {at - axis * length_mm / 2, at + axis * length_mm / 2, radius_mm, 21};
}

Plate plate150x40() {
    Plate plate;
    plate.id = "plate";
    plate.outline_mm = {{75, 20}, {-75, 20}, {-75, -20}, {75, -20}};
    plate.z_mm = -0.001;
    plate.thickness_mm = 0.002;
    return plate;
}

double gainTowards(const FieldResult &result, double theta, double phi) {
    for (const auto &sample : result.pattern)
        if (std::abs(sample.theta_deg - theta) < 0.1 && std::abs(sample.phi_deg - phi) < 0.1) return sample.gain_dBi;
    return -999;
}

} // namespace

class TestFieldStudy : public QObject {
    Q_OBJECT

private slots:
    void twoDipolesCoupleAsTheTableSays() {
        if (!installed()) QSKIP("nec2c is not installed");
        // NEC2 table of resonant dipoles between 73 ohm: S21 at 0.25, 0.5, 1 wavelengths side by side, 1 in line.
        const double f = 1000, lambda = wavelength_mm(f);
        const std::tuple<Vec3, double> cases[] = {
            {Vec3(0.25, 0, 0), -9.05}, {Vec3(0.5, 0, 0), -13.39}, {Vec3(1, 0, 0), -18.26}, {Vec3(0, 0, 1), -30.66}};
        for (const auto &[apart, expected] : cases) {
            const double length = 0.4741079 * lambda, radius = 0.001 * lambda;
            const auto deck = deckText({dipole(Vec3::Zero(), Vec3::UnitZ(), length, radius),
                                        dipole(apart * lambda, Vec3::UnitZ(), length, radius)},
                                       {}, f, {"two dipoles"});
            const auto result = solve(deck);
            QVERIFY2(bool(result), result ? "" : result.error().c_str());
            QVERIFY2(std::abs(result->coupling_dB - expected) < 0.3, qPrintable(QString::number(result->coupling_dB)));
        }
    }
    void aFreeDipoleHasItsOwnGainAndImpedance() {
        if (!installed()) QSKIP("nec2c is not installed");
        const double f = 2400;
        const auto result = solve(deckText({dipole(Vec3::Zero(), Vec3::UnitZ(), 59.27, 0.125)}, {}, f, {"one dipole"}));
        QVERIFY(bool(result));
        QVERIFY(std::abs(result->peak_dBi - 2.13) < 0.1); // 2.13 dBi, 71.8 ohm in the table
        QVERIFY(std::abs(result->impedance_ohm.real() - 71.8) < 3);
        QCOMPARE(result->coupling_dB, -300.0);
        QCOMPARE(result->pattern.size(), std::size_t(13 * 24));
    }
    void aPlateReflectsAsTheTableSays() {
        if (!installed()) QSKIP("nec2c is not installed");
        // Plate 150 x 40 mm, 2400 MHz, dipole 15 mm above along the long side: 7.56 dBi away from it, 17.5 dB front to
        // back; across: 1.09 and 2.38 dBi. The table's mesh is 2.5 mm; 5 mm keeps it within a decibel or so.
        const auto body = gridOver(plate150x40(), 5);
        QCOMPARE(body.size(), std::size_t(31 * 8 + 30 * 9));
        for (const bool along : {true, false}) {
            const auto result = solve(deckText(
                {dipole({0, 0, 15}, along ? Vec3::UnitX() : Vec3::UnitY(), 59.27, 0.125)}, body, 2400, {"plate"}));
            QVERIFY2(bool(result), result ? "" : result.error().c_str());
            const double away = gainTowards(*result, 0, 0), through = gainTowards(*result, 180, 0);
            QVERIFY2(std::abs(away - (along ? 7.56 : 1.09)) < 1, qPrintable(QString::number(away)));
            QVERIFY2(std::abs(away - through - (along ? 17.49 : -1.29)) < 1.7,
                     qPrintable(QString::number(away - through)));
        }
    }
    void aPlateBetweenShieldsOnlyAlongItsLength() {
        if (!installed()) QSKIP("nec2c is not installed");
        // The same plate between two dipoles, 15 mm above and 30 mm below: it adds 18.1 dB along, 2.8 dB across.
        const auto body = gridOver(plate150x40(), 5);
        for (const bool along : {true, false}) {
            const Vec3 axis = along ? Vec3::UnitX() : Vec3::UnitY();
            const auto elements = {dipole({0, 0, 15}, axis, 59.27, 0.125), dipole({0, 0, -30}, axis, 59.27, 0.125)};
            const auto bare = solve(deckText(elements, {}, 2400, {"bare"})),
                       hidden = solve(deckText(elements, body, 2400, {"plate"}));
            QVERIFY(bare && hidden);
            QVERIFY(std::abs(bare->coupling_dB - -11.6) < 0.4);
            const double adds = bare->coupling_dB - hidden->coupling_dB;
            QVERIFY2(std::abs(adds - (along ? 18.1 : 2.8)) < 2, qPrintable(QString::number(adds)));
        }
    }
    void decksKeepTheRulesOfTheMethod() {
        const Build build = stakewalker();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        const auto radio = [&](const char *id) {
            return *std::find_if(derived.radio->radios.begin(), derived.radio->radios.end(),
                                 [&](const RadioUse &r) { return r.id() == id; });
        };
        for (const double f : {868.0, 2440.0, 5740.0}) {
            FieldStudyOptions options;
            options.f_MHz = f;
            const auto deck = fieldDeck(build, radio("vtx"), radio("gps"), options);
            QVERIFY2(bool(deck), deck ? "" : deck.error().c_str());
            QVERIFY(deck->segments <= options.mostSegments);
            int counted = 0;
            for (const auto *wires : {&deck->elements, &deck->body})
                for (const auto &wire : *wires) {
                    counted += wire.segments;
                    const double length = (wire.b_mm - wire.a_mm).norm() / wire.segments;
                    QVERIFY(length >= 0.001 * deck->lambda_mm);
                    QVERIFY(length <= 0.12 * deck->lambda_mm);
                    QVERIFY(length >= 2 * wire.radius_mm);
                }
            QCOMPARE(counted, deck->segments);
            QVERIFY(!deck->modelled.empty() || !deck->leftOut.empty());
            const std::string text = deck->text();
            QVERIFY(text.find("CM From vtxant to gps") == 0);
            QVERIFY(text.find("\nEN\n") != std::string::npos);
            // Every line of a comment is one.
            QVERIFY(text.find("\nGE 0\n") != std::string::npos);
            QVERIFY(!deck->notes.empty()); // a circular antenna and a patch are stood in for
        }
        FieldStudyOptions few;
        few.mostSegments = 60;
        const auto small = fieldDeck(build, radio("vtx"), radio("gps"), few);
        QVERIFY(bool(small));
        QVERIFY(small->segments <= 60);
        QVERIFY(!small->leftOut.empty());
        RadioUse mute = radio("vtx");
        mute.antennas.clear();
        QVERIFY(!fieldDeck(build, mute, radio("gps")));
        QVERIFY(!fieldDeck(build, radio("gps"), radio("gps")));
    }
    void anElementStudyAgreesWithTheQuickModel() {
        if (!installed()) QSKIP("nec2c is not installed");
        // Two upright dipoles of one band, nothing else: the quick model is the induced-EMF method.
        Build build = bareQuad();
        addRadio(build, "a", {0, 0, 60}, sends(2440, 2440, 20), antennaFor(AntennaKind::dipole, 2.15, 2400, 2480),
                 PartKind::other);
        addRadio(build, "b", {45, 0, 60}, hears(2440, 2440), antennaFor(AntennaKind::dipole, 2.15, 2400, 2480),
                 PartKind::receiver);
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        const auto &radios = analysis.derived.radio->radios;
        const auto deck = fieldDeck(build, radios.at(0), radios.at(1));
        QVERIFY(bool(deck));
        const auto result = solve(deck->text());
        QVERIFY(bool(result));
        const double quick = couple(radios[0].antennas[0], radios[1].antennas[0], 2440, analysis.practice).total_dB;
        QVERIFY2(std::abs(result->coupling_dB - quick) < 0.4,
                 qPrintable(QString("%1 %2").arg(result->coupling_dB).arg(quick)));
    }
    void badOutputsAreNamed() {
        QVERIFY(!readFieldResult(""));
        QVERIFY(!readFieldResult("nothing of use\n"));
        const auto wrong = readFieldResult("  *** ERROR: SEGMENT DATA CARD ***\n");
        QVERIFY(!wrong);
        QVERIFY(wrong.error().find("SEGMENT") != std::string::npos);
    }
};

QTEST_APPLESS_MAIN(TestFieldStudy)
#include "test_field_study.moc"
