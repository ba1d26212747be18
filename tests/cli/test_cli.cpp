// The command line program as people and scripts call it.
#include "core/analysis/analysis.h"
#include "core/clearance/clearance_world.h"
#include "core/derived/all_up.h"
#include "support/builds.h"

#include <QFileInfo>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QTemporaryDir>
#include <functional>
#include <nlohmann/json.hpp>
#include <sys/stat.h>

using namespace waxis;

namespace {

struct Run {
    int exit = -1;
    QByteArray out, err;
};

Run run(const QStringList &arguments) {
    QProcess process;
    process.start(WEIGHTAXIS_CLI_PROGRAM, arguments);
    process.waitForFinished(60000);
    return {process.exitStatus() == QProcess::NormalExit ? process.exitCode() : -1, process.readAllStandardOutput(),
            process.readAllStandardError()};
}

const QString kDemo = WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis";

} // namespace

class TestCli : public QObject {
    Q_OBJECT

private slots:
    void checkTellsFindingsAndExitsWithOneOnStops() {
        const Run r = run({"check", kDemo});
        QCOMPARE(r.exit, 1);
        QVERIFY(r.out.contains("STOP     FIT-3"));
        QVERIFY(r.out.contains("11 stop, 18 watch"));
        QVERIFY(r.err.isEmpty());
    }
    void analyseTellsAllOfTheBalance() {
        const Run r = run({"analyse", WEIGHTAXIS_TEST_DATA "/demos/sedge-tri.waxis", "--json"});
        QCOMPARE(r.exit, 0);
        const auto document = QJsonDocument::fromJson(r.out).object();
        QCOMPARE(document["balance"].toObject()["ring_mm"].toDouble(), 5.0);
        const auto cases = document["balanceStudy"].toObject()["cases"].toArray();
        QCOMPARE(cases.size(), document["loadCases"].toArray().size());
        QCOMPARE(cases[0].toObject()["draws"].toObject()["count"].toInt(), 100000);
        const auto slide = cases[0].toObject()["slides"].toArray()[0].toObject();
        QCOMPARE(slide["part"].toString(), QString("pack"));
        QCOMPARE(slide["free"].toObject()["least"].toObject()["by"].toString(), QString("mast"));
        QCOMPARE(document["packs"].toArray().size(), 2);
        const auto hover = document["loadCases"].toArray()[0].toObject()["hover"].toObject();
        QCOMPARE(hover["motors"].toArray().size(), 3);
        QVERIFY(hover["yawServo"].toBool());
        QVERIFY(hover["motors"].toArray()[0].toObject()["yawBalanced_N"].isNull()); // a servo holds it
    }
    void checkExitsWithZeroWhenNothingStops() {
        QTemporaryDir folder;
        Build build = test::bareQuad();
        test::addBox(build, "a", {30, 30, 30}, {0, 0, 0}, 100);
        const auto path = folder.filePath("clean.waxis");
        QVERIFY(bool(saveBuild(path.toStdString(), build)));
        QCOMPARE(run({"check", path}).exit, 0);
        build.parts[0].placement.pose.position_mm.x() = 3;
        QVERIFY(bool(saveBuild(path.toStdString(), build)));
        QVERIFY(run({"check", path}).out.contains("0 stop, 0 watch"));
        QVERIFY(run({"check", path, "--profile", "sprint"}).out.contains("0 stop, 1 watch"));
    }
    void whatCannotBeReadExitsWithTwoAndSaysWhere_data() {
        QTest::addColumn<QStringList>("arguments");
        QTest::addColumn<QByteArray>("word");
        for (const auto &info : QDir(WEIGHTAXIS_TEST_FIXTURES "/bad").entryInfoList({"*.waxis"}, QDir::Files))
            QTest::newRow(qPrintable(info.fileName()))
                << QStringList{"check", info.absoluteFilePath()} << QByteArray("expected");
        QTest::newRow("missing file") << QStringList{"analyse", "--json", "/no/such/file"}
                                      << QByteArray("no such file");
        QTest::newRow("unknown profile") << QStringList{"check", kDemo, "--profile", "x"} << QByteArray("profile");
        QTest::newRow("a build is no practice")
            << QStringList{"check", kDemo, "--profile", kDemo} << QByteArray("weightaxis-practice");
        QTest::newRow("no command") << QStringList{} << QByteArray("subcommand");
        QTest::newRow("unknown sum") << QStringList{"calc", "thrust-splt"} << QByteArray("did you mean thrust-split");
        QTest::newRow("bad input") << QStringList{"calc", "attitude", "roll_deg"} << QByteArray("KEY=VALUE");
        QTest::newRow("bad batch") << QStringList{"calc", "--batch", kDemo} << QByteArray("expected");
        QTest::newRow("steps of no case")
            << QStringList{"steps", kDemo, "--case", "survay"} << QByteArray("did you mean \"survey\"?");
        QTest::newRow("readable analyse") << QStringList{"analyse", kDemo} << QByteArray("--json");
    }
    void whatCannotBeReadExitsWithTwoAndSaysWhere() {
        QFETCH(QStringList, arguments);
        QFETCH(QByteArray, word);
        const Run r = run(arguments);
        QCOMPARE(r.exit, 2);
        QVERIFY2(r.err.contains(word), r.err.constData());
        QVERIFY(r.out.isEmpty());
    }
    void analyseGivesTheCoresNumbersInFull() {
        const Run r = run({"analyse", kDemo, "--json"});
        QCOMPARE(r.exit, 0);
        const auto document = QJsonDocument::fromJson(r.out).object();
        Analyser analyser;
        const Analysis &analysis = analyseFully(analyser, test::stakewalker());
        const auto first = document["loadCases"].toArray()[0].toObject();
        QCOMPARE(first["mass_g"].toDouble(), allUp(analysis.derived).mass_g); // to the last digit
        QCOMPARE(first["cg_mm"].toArray()[0].toDouble(), allUp(analysis.derived).cg_mm->x());
        QCOMPARE(first["inertia_g_mm2"].toArray()[0].toArray()[1].toDouble(),
                 allUp(analysis.derived).inertia_gmm2(0, 1));
        QCOMPARE(document["findings"].toArray().size(), qsizetype(analysis.findings.size()));
        QCOMPARE(document["clearances"].toArray().size(), qsizetype(analysis.derived.scene.world->gaps().size()));
        QCOMPARE(document["parts"].toArray().size(), 77);
    }
    void stepsAreListedInTheirOrder() {
        const Run readable = run({"steps", kDemo});
        QCOMPARE(readable.exit, 0);
        QVERIFY(readable.out.contains("  1  Cut, strip and tin in the hand: "));
        QVERIFY(readable.out.contains("  Begin with main plate "));
        const Run r = run({"steps", kDemo, "--case", "short", "--json"});
        QCOMPARE(r.exit, 0);
        const auto document = QJsonDocument::fromJson(r.out).object();
        QCOMPARE(document["loadCase"].toString(), QString("short"));
        QStringList order;
        for (const auto &step : document["steps"].toArray())
            if (step.toObject()["kind"] == "fit")
                for (const auto &thing : step.toObject()["things"].toArray()) order << thing.toString();
        QVERIFY(order.indexOf("esc") < order.indexOf("fc")); // the lower board of the stack first
        QVERIFY(order.indexOf("fc") < order.indexOf("plate-top"));
        QVERIFY(order.indexOf("motor-1") < order.indexOf("prop-1"));
        QVERIFY(order.contains("pack-small") && !order.contains("pack")); // the pack of this case
        QStringList kinds;
        for (const auto &step : document["steps"].toArray()) kinds << step.toObject()["kind"].toString();
        for (const char *kind :
             {"prepare", "fit", "solder", "plug", "snap", "tie", "check", "insulate", "dry-fit", "lock", "change"})
            QVERIFY2(kinds.contains(kind), kind);
        QCOMPARE(run({"analyse", kDemo, "--json"}).out.contains("\"plan\""), true);
    }
    void checksAreListedWithWhatIsExpected() {
        const Run readable = run({"checks", kDemo});
        QCOMPARE(readable.exit, 0);
        QVERIFY(readable.out.contains("Flight controller: 5 V: 4.75 to 5.25 V"));
        const auto list = QJsonDocument::fromJson(run({"checks", kDemo, "--json"}).out).array();
        QVERIFY(list.size() > 20);
        QCOMPARE(list[0].toObject()["gate"].toString(), QString("train"));
        QCOMPARE(run({"checks", kDemo, "--case", "nobody"}).exit, 2);
    }
    void serviceSaysWhatComesOff() {
        const Run readable = run({"service", kDemo, "gps"});
        QCOMPARE(readable.exit, 0);
        QVERIFY(readable.out.contains("GPS with compass"));
        const auto way = QJsonDocument::fromJson(run({"service", kDemo, "esc", "--json"}).out).object();
        QVERIFY(way["depth"].toInt() >= 2); // the upper board and the top plate at least
        QCOMPARE(way["off"].toArray().last().toObject()["things"].toArray()[0].toString(), QString("esc"));
        const Run nobody = run({"service", kDemo, "esk"});
        QCOMPARE(nobody.exit, 2);
        QVERIFY(nobody.err.contains("did you mean \"esc\"?"));
    }
    void anOwnPracticeIsJudgedBy() {
        QTemporaryDir folder;
        QFile file(folder.filePath("mine.wpractice"));
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write(writePractice({"mine", {"range", {{"cg-offset", 50.0}}, {{"compass", "unused"}}, {}}}).c_str());
        file.close();
        const Run r = run({"analyse", kDemo, "--json", "--profile", file.fileName()});
        const auto document = QJsonDocument::fromJson(r.out).object();
        QCOMPARE(document["practice"].toObject()["limits"].toObject()["cg-offset"].toObject()["value"].toDouble(),
                 50.0);
        QCOMPARE(document["practice"].toObject()["schools"].toObject()["compass"].toString(), QString("unused"));
        for (const auto &f : document["findings"].toArray()) QVERIFY(f.toObject()["rule"].toString() != "BAL-1");
    }
    void calcAnswersInWordsAndInJson() {
        QVERIFY(run({"calc", "cg-two-supports", "span_mm=200", "F1_g=430", "F2_g=470"}).out.contains("104.444"));
        const Run r = run(
            {"calc", "cg-three-scales", "points_mm=[[60,60],[60,-60],[-80,0]]", "readings_g=[310,295,402]", "--json"});
        QCOMPARE(r.exit, 0);
        const auto outputs = QJsonDocument::fromJson(r.out).object()["outputs"].toObject();
        QVERIFY(std::abs(outputs["x_mm"].toDouble() - 4.11122145) < 1e-6);
        const Run list = run({"calc", "--list"});
        for (const char *name : {"mass-rollup", "attitude", "cg-three-scales", "cg-two-supports", "cg-height",
                                 "thrust-split", "thread", "hole-pattern", "wire-gauge", "voltage-drop", "twist-length",
                                 "bundle", "hole-fill", "bend", "hover-power", "air"})
            QVERIFY(list.out.contains(name));
        QVERIFY(QJsonDocument::fromJson(run({"calc", "--list", "--json"}).out).isArray());
    }
    void helpIsThereForEveryCommand() {
        QCOMPARE(run({"--help"}).exit, 0);
        for (const char *command : {"check", "analyse", "calc", "rules", "tidy", "import-frame", "export", "new"}) {
            const Run r = run({command, "--help"});
            QCOMPARE(r.exit, 0);
            QVERIFY(!r.out.isEmpty());
        }
        QVERIFY(run({"--version"}).out.contains("0."));
    }
    void decksAreExported() {
        const Run r = run({"export", kDemo, "--nec-deck", "-", "--from", "vtx", "--to", "gps", "--segments", "500"});
        QCOMPARE(r.exit, 0);
        QVERIFY(r.out.startsWith("CM From vtxant to gps at 5740.00 MHz"));
        QVERIFY(r.out.contains("\nEX 0 1 11 0 1.0 0.0\n"));
        const Run stranger = run({"export", kDemo, "--nec-deck", "-", "--from", "vtz", "--to", "gps"});
        QCOMPARE(stranger.exit, 2);
        QVERIFY(stranger.err.contains("there are: vtx, rx, gps, acam"));
    }
    void analyseComparesTrialPlaces() {
        const auto document = nlohmann::json::parse(run({"analyse", kDemo, "--json"}).out.toStdString());
        QCOMPARE(document["places"].size(), std::size_t(3));
        QVERIFY(document["places"][0]["trial"].is_null());
        QCOMPARE(document["places"][1]["trial"].get<std::string>(), std::string("gps-trial"));
        QVERIFY(document["places"][1]["wire_mm"].get<double>() > 100);
        QVERIFY(document["radio"]["cells"].size() > 5);
    }
    void theRuleBookInTheDocumentsIsTheProgramsOwn() {
        QFile book(WEIGHTAXIS_TEST_DATA "/../docs/rules.md");
        QVERIFY(book.open(QIODevice::ReadOnly));
        QCOMPARE(run({"rules"}).out, book.readAll());
    }
    void drawingsAreReadAndMadeIntoBuilds() {
        QTemporaryDir folder;
        const QString drawing = WEIGHTAXIS_TEST_FIXTURES "/drawings/plate-r2010-mm.dxf";
        const Run told = run({"import-frame", drawing});
        QCOMPARE(told.exit, 0);
        QVERIFY(told.out.contains("stack pattern 30.5 mm square at (60.00, 30.00)"));
        const Run json = run({"import-frame", drawing, "--json", "--out", folder.filePath("made.waxis")});
        QCOMPARE(json.exit, 0);
        const auto plate = QJsonDocument::fromJson(json.out)["plates"][0];
        QVERIFY(std::abs(plate["area_mm2"].toDouble() - 6918.9) < 1);
        QCOMPARE(plate["holes"].toArray().size(), 9);
        QCOMPARE(plate["slots"].toArray().size(), 2);
        QCOMPARE(plate["patterns"][1]["size_mm"].toDouble(), 30.5);
        QCOMPARE(run({"check", folder.filePath("made.waxis")}).exit, 0);
        // Every key is documented.
        QFile document(WEIGHTAXIS_TEST_DATA "/../docs/format/import.md");
        QVERIFY(document.open(QIODevice::ReadOnly));
        const QByteArray text = document.readAll();
        std::function<void(const QJsonValue &)> look = [&](const QJsonValue &value) {
            for (const auto &item : value.toArray()) look(item);
            const auto object = value.toObject();
            for (auto at = object.begin(); at != object.end(); ++at) {
                if (at.key() != "min" && at.key() != "max" && at.key() != "name")
                    QVERIFY2(text.contains(at.key().toUtf8()), qPrintable(at.key()));
                look(at.value());
            }
        };
        look(QJsonDocument::fromJson(json.out).object());
    }
    void drawingsWithoutUnitOrSenseExitWithTwo() {
        const QString drawing = WEIGHTAXIS_TEST_FIXTURES "/drawings/plate-r12-in.dxf";
        const Run asked = run({"import-frame", drawing});
        QCOMPARE(asked.exit, 2);
        QVERIFY(asked.err.contains("--units mm or --units in"));
        QCOMPARE(run({"import-frame", drawing, "--units", "in"}).exit, 0);
        QCOMPARE(run({"import-frame", drawing, "--units", "parsec"}).exit, 2);
        QCOMPARE(run({"import-frame", kDemo}).exit, 2);
        QCOMPARE(run({"import-frame", "/nowhere.dxf"}).exit, 2);
    }
    void platesTemplatesAndKitListsAreWritten() {
        QTemporaryDir folder;
        const auto at = [&](const char *name) { return folder.filePath(name); };
        const Run r = run({"export", kDemo, "--plates-dxf", at("p.dxf"), "--plates-svg", at("p.svg"), "--drill-dxf",
                           at("d.dxf"), "--drill-svg", at("d.svg"), "--kit-csv", at("k.csv")});
        QCOMPARE(r.exit, 0);
        for (const char *name : {"p.dxf", "p.svg", "d.dxf", "d.svg", "k.csv"})
            QVERIFY(QFileInfo(at(name)).size() > 200);
        QVERIFY(run({"import-frame", at("p.dxf")}).out.contains("7 plate(s)"));
        QVERIFY(run({"export", kDemo, "--kit-csv", "-"}).out.startsWith("item,name,kind"));
        const QByteArray masses = run({"export", kDemo, "--mass-csv", "-"}).out;
        QVERIFY(masses.startsWith("id,name,group,grams") && masses.contains("\r\nsum,All-up,"));
        QVERIFY(masses.contains("What holds"));
        QCOMPARE(run({"export", kDemo}).exit, 2); // nothing was asked for
        QCOMPARE(run({"export", kDemo, "--kit-csv", "/nowhere/k.csv"}).exit, 2);
        const Build empty = Build{};
        QVERIFY(bool(saveBuild(at("empty.waxis").toStdString(), empty)));
        QCOMPARE(run({"export", at("empty.waxis"), "--plates-dxf", at("e.dxf")}).exit, 2);
    }
    void whatCannotBeWrittenIsNoSuccess() {
        for (const QStringList &arguments : {QStringList{"rules"},
                                             {"tidy", kDemo},
                                             {"calc", "--list"},
                                             {"check", kDemo},
                                             {"analyse", kDemo, "--json"},
                                             {"new", "quad-x"},
                                             {"export", kDemo, "--kit-csv", "-"}}) {
            QProcess process;
            process.setStandardOutputFile("/dev/full");
            process.start(WEIGHTAXIS_CLI_PROGRAM, arguments);
            QVERIFY(process.waitForFinished());
            QVERIFY2(process.exitCode() == 2, qPrintable(arguments.join(' ')));
            QVERIFY(process.readAllStandardError().contains("standard output cannot be written"));
        }
    }
    void outputsReplaceNothingUnasked() {
        QTemporaryDir folder;
        const auto at = [&](const char *name) { return folder.filePath(name); };
        QFile::copy(kDemo, at("b.waxis"));
        QFile::setPermissions(at("b.waxis"), QFile::ReadOwner | QFile::WriteOwner);
        const auto bytes = [](const QString &path) {
            QFile file(path);
            return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
        };
        const QByteArray before = bytes(at("b.waxis"));
        // Never onto what is read, not even by force or by another name.
        QFile::link(at("b.waxis"), at("link.waxis"));
        for (const auto &target : {at("b.waxis"), at("link.waxis"), folder.path() + "/./b.waxis"}) {
            const Run r = run({"export", at("b.waxis"), "--plates-dxf", target, "--force"});
            QVERIFY2(r.exit == 2 && r.err.contains("it is what is read"), r.err.constData());
        }
        QCOMPARE(bytes(at("b.waxis")), before);
        // A file that is there only by force.
        QVERIFY(run({"export", at("b.waxis"), "--kit-csv", at("k.csv")}).exit == 0);
        const Run again = run({"export", at("b.waxis"), "--kit-csv", at("k.csv")});
        QVERIFY2(again.exit == 2 && again.err.contains("--force"), again.err.constData());
        QCOMPARE(run({"export", at("b.waxis"), "--kit-csv", at("k.csv"), "--force"}).exit, 0);
        QCOMPARE(run({"new", "quad-x", "--out", at("k.csv")}).exit, 2);
        QCOMPARE(run({"new", "quad-x", "--out", at("k.csv"), "--force"}).exit, 0);
        // Two outputs in one place.
        QCOMPARE(run({"export", at("b.waxis"), "--kit-csv", "-", "--cut-csv", "-"}).exit, 2);
        const Run twice =
            run({"export", at("b.waxis"), "--kit-csv", at("x.csv"), "--cut-csv", folder.path() + "/./x.csv"});
        QVERIFY(twice.exit == 2 && twice.err.contains("two outputs"));
        QVERIFY(!QFile::exists(at("x.csv")));
        // A queue is written through, and stays one.
        QCOMPARE(::mkfifo(qPrintable(at("queue")), 0600), 0);
        QProcess reader;
        reader.start("cat", {at("queue")});
        QCOMPARE(run({"export", at("b.waxis"), "--kit-csv", at("queue")}).exit, 0);
        QVERIFY(reader.waitForFinished());
        QVERIFY(reader.readAllStandardOutput().startsWith("item,name,kind"));
        QVERIFY(!QFileInfo(at("queue")).isFile());
        QCOMPARE(run({"new", "quad-x", "--out", "/dev/null"}).exit, 0);
        QVERIFY(!QFileInfo("/dev/null").isFile());
    }
    void slipsOnTheCommandLineAreNamed_data() {
        QTest::addColumn<QStringList>("arguments");
        QTest::addColumn<QByteArray>("says");
        QTest::newRow("a command that is none") << QStringList{"chekc", kDemo} << QByteArray("did you mean \"check\"");
        QTest::newRow("nothing like it") << QStringList{"frobnicate"} << QByteArray("no command \"frobnicate\"");
        QTest::newRow("a parameter twice")
            << QStringList{"new", "quad-x", "arm_mm=100", "arm_mm=110"} << QByteArray("given before");
        QTest::newRow("a number beyond all")
            << QStringList{"new", "quad-x", "arm_mm=1e400"} << QByteArray("KEY=NUMBER");
        QTest::newRow("no number") << QStringList{"new", "quad-x", "arm_mm=nan"} << QByteArray("KEY=NUMBER");
        QTest::newRow("tolerance nan") << QStringList{"import-frame", WEIGHTAXIS_TEST_DATA "/drawings/marshlight-5.dxf",
                                                      "--tolerance", "nan"}
                                       << QByteArray("number");
        QTest::newRow("propeller nan") << QStringList{"import-frame", WEIGHTAXIS_TEST_DATA "/drawings/marshlight-5.dxf",
                                                      "--prop", "nan"}
                                       << QByteArray("number");
        QTest::newRow("an empty profile") << QStringList{"check", kDemo, "--profile", ""} << QByteArray("empty");
    }
    void slipsOnTheCommandLineAreNamed() {
        QFETCH(QStringList, arguments);
        QFETCH(QByteArray, says);
        const Run r = run(arguments);
        QCOMPARE(r.exit, 2);
        QVERIFY2(r.err.contains(says), r.err.constData());
    }
    void newBuildsComeFromLayouts() {
        QTemporaryDir folder;
        const QString path = folder.filePath("new.waxis");
        QCOMPARE(run({"new", "quad-x", "arm_mm=130", "--out", path}).exit, 0);
        const auto frame = QJsonDocument::fromJson(run({"analyse", path, "--json"}).out)["frame"];
        QVERIFY(std::abs(frame["motorDiagonal_mm"].toDouble() - 260) < 1e-9);
        QCOMPARE(frame["motors"].toArray().size(), 4);
        QVERIFY(run({"new", "quad-x", "arn_mm=130"}).err.contains("arm_mm"));
        for (const QStringList &bad : {QStringList{"new", "quad-y"},
                                       {"new", "quad-x", "arm_mm"},
                                       {"new", "quad-x", "arm_mm=long"},
                                       {"new", "quad-x", "arm_mm=1"}})
            QCOMPARE(run(bad).exit, 2);
        QVERIFY(run({"new", "--list"}).out.contains("coaxial-x8"));
    }
    void theAnalysisTellsOfFrameAndKit() {
        const auto json = QJsonDocument::fromJson(run({"analyse", kDemo, "--json"}).out);
        QCOMPARE(json["kit"]["piecesMissing"].toInt(), 1);
        QCOMPARE(json["frame"]["motors"][0]["selfTighteningThread"].toString(), QString("left-hand"));
        QVERIFY(json["loadCases"][0]["weighing"]["next"].toArray().size() > 10);
        QCOMPARE(json["frame"]["plates"].toArray().size(), 3);
    }
    void tidyWritesTheStableForm() {
        QFile demo(kDemo);
        QVERIFY(demo.open(QIODevice::ReadOnly));
        QCOMPARE(run({"tidy", kDemo}).out, demo.readAll());
    }
    void theLogIsToldAndAddedTo() {
        QTemporaryDir folder;
        const QString build = folder.filePath("b.waxis"), csv = folder.filePath("e.csv");
        QFile::copy(WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis", build);
        QFile::setPermissions(build, QFile::ReadOwner | QFile::WriteOwner);
        const Run told = run({"log", build});
        QVERIFY2(told.exit == 0 && told.out.contains("Planned and measured") && told.out.contains("North dyke"),
                 told.err.constData());
        const Run added = run({"log", "add", build, "weight", "gps", "15", "g", "--place", "South bank"});
        QVERIFY2(added.exit == 0, added.err.constData());
        const Run again = run({"log", build});
        QVERIFY(again.out.contains("South bank") && again.out.contains("APART"));
        // What cannot be read is marked in its line, and nothing is written.
        const Run wrong = run({"log", "add", build, "weight", "gpx", "3", "g"});
        QVERIFY(wrong.exit == 2 && wrong.err.contains("did you mean \"gps\"") && wrong.err.contains("       ^"));
        QVERIFY(run({"log"}).exit == 2 && run({"log", "add", folder.filePath("none"), "idle", "1"}).exit == 2);
        // Lists out and in.
        QCOMPARE(run({"log", build, "--entries-csv", csv}).exit, 0);
        const Run in = run({"log", build, "--import-entries", csv});
        QVERIFY2(in.exit == 0 && in.out.contains("entries and 0 tries taken in"), in.err.constData());
        const auto json = QJsonDocument::fromJson(run({"log", build, "--json"}).out).object();
        QVERIFY(json["rows"].toArray().size() > 20 && json["entries"].toInt() > 50);
    }
    void trialsAreToldAndRecordingsKept() {
        QTemporaryDir folder;
        const QString build = folder.filePath("b.waxis"), recording = folder.filePath("t.nmea");
        QFile::copy(WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis", build);
        QFile::setPermissions(build, QFile::ReadOwner | QFile::WriteOwner);
        QCOMPARE(QProcess::execute(WEIGHTAXIS_SIM_PROGRAM, {"gnss", "--seconds", "90", "--out", recording}), 0);
        const Run kept = run({"trial", build, "--recording", recording, "--way", "Tail plate", "--nose", "90"});
        QVERIFY2(kept.exit == 0 && kept.out.startsWith("Tail plate:"), kept.err.constData());
        const Run told = run({"trial", build});
        QVERIFY(told.exit == 0 && told.out.contains("is quicker than") &&
                told.out.contains("Next, so that all stay alike"));
        QVERIFY(run({"trial", build, "--recording", recording, "--way", "Nowhere"}).exit == 2);
        QVERIFY(run({"trial", build, "--recording", build, "--way", "Tail plate"}).exit == 2);
        const Run nmea = run({"nmea", recording});
        QVERIFY2(nmea.exit == 0 && nmea.out.contains("first place after") && nmea.out.contains("0 refused"),
                 nmea.err.constData());
        QVERIFY(run({"nmea", build}).exit == 2 && run({"nmea", folder.filePath("none")}).exit == 2);
        QCOMPARE(QProcess::execute(WEIGHTAXIS_SIM_PROGRAM, {"gnss", "--build", build, "--place", "buzzer", "--seconds",
                                                            "5", "--out", recording}),
                 2);
        QCOMPARE(QProcess::execute(WEIGHTAXIS_SIM_PROGRAM, {"gnss", "--out", recording}), 2);
        QCOMPARE(QProcess::execute(WEIGHTAXIS_SIM_PROGRAM,
                                   {"scale", "--fault", "smoke", "--seconds", "1", "--out", recording}),
                 2);
    }
};

QTEST_GUILESS_MAIN(TestCli)
#include "test_cli.moc"
