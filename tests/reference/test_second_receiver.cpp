// What others read of a receiver's bytes: python3-nmea2 1.15, sentence by sentence; and, where it is installed,
// gpsd 3.22 over a pseudo-terminal (gpsfake). Recordings by the simulated receiver, good ones and spoilt ones.
#include <QFile>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>

class TestSecondReceiver : public QObject {
    Q_OBJECT

private slots:
    void pythonReadsTheSame_data() {
        QTest::addColumn<QStringList>("arguments");
        QTest::newRow("cold start") << QStringList{"gnss", "--seconds", "120", "--seed", "3"};
        QTest::newRow("ten a second") << QStringList{"gnss", "--seconds", "40", "--rate", "10", "--seed", "4"};
        QTest::newRow("in the south west")
            << QStringList{"gnss", "--seconds", "90", "--latitude", "-41.3", "--longitude", "-72.9", "--seed", "5"};
        QTest::newRow("on a build") << QStringList{"gnss", "--seconds", "90", "--build",
                                                   WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis"};
    }
    void pythonReadsTheSame() {
        QFETCH(QStringList, arguments);
        QTemporaryDir folder;
        const QString recording = folder.filePath("a.nmea"), summary = folder.filePath("a.json");
        QCOMPARE(QProcess::execute(WEIGHTAXIS_SIM_PROGRAM, arguments + QStringList{"--out", recording}), 0);
        write(summary, cli({"nmea", recording, "--json"}));
        QProcess python;
        python.start("/usr/bin/python3", {WEIGHTAXIS_TESTS "/reference/nmea_second_opinion.py", recording, summary});
        QVERIFY(python.waitForFinished(60000));
        const QByteArray said = python.readAll() + python.readAllStandardError();
        QVERIFY2(python.exitCode() == 0, said.constData());
    }
    void gpsdReadsTheSame() {
        if (!QFile::exists("/usr/sbin/gpsd") || !QFile::exists("/usr/bin/gpsfake"))
            QSKIP("gpsd is not installed: it would open a socket on this machine");
        QTemporaryDir folder;
        const QString recording = folder.filePath("b.nmea");
        QCOMPARE(
            QProcess::execute(WEIGHTAXIS_SIM_PROGRAM, {"gnss", "--seconds", "60", "--seed", "8", "--out", recording}),
            0);
        const auto ours = QJsonDocument::fromJson(cli({"nmea", recording, "--json"})).object()["last"].toObject();
        QProcess fake;
        fake.start("gpsfake", {"-1", "-c", "0.01", "-q", "-P", "47613", recording});
        QTest::qWait(1500);
        QProcess pipe;
        pipe.start("gpspipe", {"-w", "localhost:47613"});
        fake.waitForFinished(60000);
        QTest::qWait(300);
        pipe.terminate();
        pipe.waitForFinished(5000);
        // The fullest look at the sky that it had, and its last place.
        int most = 0;
        double latitude = 0;
        for (const QByteArray &line : pipe.readAllStandardOutput().split('\n')) {
            const auto said = QJsonDocument::fromJson(line).object();
            if (said["class"] == "TPV" && said.contains("lat")) latitude = said["lat"].toDouble();
            if (said["class"] == "SKY") most = std::max(most, said["nSat"].toInt());
        }
        if (most == 0) QSKIP("gpsd said nothing here");
        QVERIFY2(std::abs(latitude - ours["place_deg"].toArray()[0].toDouble()) < 1e-4, QByteArray::number(latitude));
        // gpsd holds satellites of earlier rounds, and no more than it has room for.
        QVERIFY2(std::abs(most - ours["inView"].toInt()) <= 2, QByteArray::number(most));
    }

private:
    static QByteArray cli(const QStringList &arguments) {
        QProcess process;
        process.start(WEIGHTAXIS_CLI_PROGRAM, arguments);
        process.waitForFinished(60000);
        return process.readAllStandardOutput();
    }
    static void write(const QString &path, const QByteArray &bytes) {
        QFile file(path);
        if (!file.open(QIODevice::WriteOnly) || file.write(bytes) != bytes.size()) qFatal("not written");
    }
};

QTEST_GUILESS_MAIN(TestSecondReceiver)
#include "test_second_receiver.moc"
