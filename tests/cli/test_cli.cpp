// The command line program as people and scripts call it.
#include "core/analysis/analysis.h"
#include "support/builds.h"

#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QTemporaryDir>

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
        QVERIFY(r.out.contains("3 stop, 6 watch"));
        QVERIFY(r.err.isEmpty());
    }
    void checkExitsWithZeroWhenNothingStops() {
        QTemporaryDir folder;
        Build build = test::bareQuad();
        test::addBox(build, "a", {10, 10, 10}, {0, 0, 0}, 100);
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
        QTest::newRow("no command") << QStringList{} << QByteArray("subcommand");
        QTest::newRow("unknown sum") << QStringList{"calc", "thrust-splt"} << QByteArray("did you mean thrust-split");
        QTest::newRow("bad input") << QStringList{"calc", "attitude", "roll_deg"} << QByteArray("KEY=VALUE");
        QTest::newRow("bad batch") << QStringList{"calc", "--batch", kDemo} << QByteArray("expected");
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
        const Analysis &analysis = analyser.update(test::stakewalker());
        const auto first = document["loadCases"].toArray()[0].toObject();
        QCOMPARE(first["mass_g"].toDouble(), analysis.derived.balance[0].mass.mass_g); // to the last digit
        QCOMPARE(first["cg_mm"].toArray()[0].toDouble(), analysis.derived.balance[0].mass.cg_mm->x());
        QCOMPARE(first["inertia_g_mm2"].toArray()[0].toArray()[1].toDouble(),
                 analysis.derived.balance[0].mass.inertia_gmm2(0, 1));
        QCOMPARE(document["findings"].toArray().size(), qsizetype(analysis.findings.size()));
        QCOMPARE(document["clearances"].toArray().size(), qsizetype(analysis.derived.world->gaps().size()));
        QCOMPARE(document["parts"].toArray().size(), 71);
    }
    void calcAnswersInWordsAndInJson() {
        QVERIFY(run({"calc", "cg-two-supports", "span_mm=200", "F1_g=430", "F2_g=470"}).out.contains("104.444"));
        const Run r = run(
            {"calc", "cg-three-scales", "points_mm=[[60,60],[60,-60],[-80,0]]", "readings_g=[310,295,402]", "--json"});
        QCOMPARE(r.exit, 0);
        const auto outputs = QJsonDocument::fromJson(r.out).object()["outputs"].toObject();
        QVERIFY(std::abs(outputs["x_mm"].toDouble() - 4.11122145) < 1e-6);
        const Run list = run({"calc", "--list"});
        for (const char *name :
             {"mass-rollup", "attitude", "cg-three-scales", "cg-two-supports", "cg-height", "thrust-split"})
            QVERIFY(list.out.contains(name));
        QVERIFY(QJsonDocument::fromJson(run({"calc", "--list", "--json"}).out).isArray());
    }
    void helpIsThereForEveryCommand() {
        QCOMPARE(run({"--help"}).exit, 0);
        for (const char *command : {"check", "analyse", "calc", "rules", "tidy"}) {
            const Run r = run({command, "--help"});
            QCOMPARE(r.exit, 0);
            QVERIFY(!r.out.isEmpty());
        }
        QVERIFY(run({"--version"}).out.contains("0."));
    }
    void theRuleBookInTheDocumentsIsTheProgramsOwn() {
        QFile book(WEIGHTAXIS_TEST_DATA "/../docs/rules.md");
        QVERIFY(book.open(QIODevice::ReadOnly));
        QCOMPARE(run({"rules"}).out, book.readAll());
    }
    void tidyWritesTheStableForm() {
        QFile demo(kDemo);
        QVERIFY(demo.open(QIODevice::ReadOnly));
        QCOMPARE(run({"tidy", kDemo}).out, demo.readAll());
    }
};

QTEST_GUILESS_MAIN(TestCli)
#include "test_cli.moc"
