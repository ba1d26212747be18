// A receiver's stream: pieces, garbage, systems and signals counted right, rounds, restarts, recordings.
#include "core/log/try_recorder.h"
#include "core/nmea/receiver.h"
#include "core/simulated/simulated_receiver.h"

#include <QTest>
#include <cmath>

using namespace waxis;

namespace {

std::string whole(const std::string &body) { return "$" + body + "*" + nmeaChecksum(body) + "\r\n"; }

const std::string kFix = whole("GNRMC,091746.00,A,4721.8125,N,00832.4470,E,1.35,287.6,140426,,,A") +
                         whole("GNGGA,091746.00,4721.8125,N,00832.4470,E,1,12,0.8,431.7,M,48.2,M,,");
const std::string kNext = whole("GNRMC,091747.00,A,4721.8125,N,00832.4470,E,1.35,287.6,140426,,,A");

Receiver read(const std::string &bytes) {
    Receiver receiver;
    receiver.feed(bytes);
    receiver.finish();
    return receiver;
}

} // namespace

class TestReceiver : public QObject {
    Q_OBJECT

private slots:
    /// Numbers of satellites in their ranges, and with talkers of their own.
    void satellitesAreTheSameWhoeverCounts_data() {
        QTest::addColumn<QByteArray>("talker");
        QTest::addColumn<int>("system");
        QTest::addColumn<int>("number");
        QTest::addColumn<int>("is");
        QTest::addColumn<int>("at");
        const auto row = [](const char *talker, int system, int number, GnssSystem is, int at) {
            QTest::addRow("%s %d %d", talker, system, number)
                << QByteArray(talker) << system << number << int(is) << at;
        };
        row("GP", 0, 5, GnssSystem::gps, 5);
        row("GP", 0, 46, GnssSystem::sbas, 46);
        row("GL", 0, 65, GnssSystem::glonass, 1);
        row("GL", 0, 1, GnssSystem::glonass, 1);
        row("GN", 0, 88, GnssSystem::glonass, 24);
        row("GN", 2, 66, GnssSystem::glonass, 2);
        row("GA", 0, 301, GnssSystem::galileo, 1);
        row("GA", 0, 1, GnssSystem::galileo, 1);
        row("GN", 3, 7, GnssSystem::galileo, 7);
        row("GB", 0, 19, GnssSystem::beidou, 19);
        row("BD", 0, 201, GnssSystem::beidou, 1);
        row("GN", 4, 419, GnssSystem::beidou, 19);
        row("GQ", 0, 193, GnssSystem::qzss, 1);
        row("GN", 0, 12, GnssSystem::gps, 12);
    }
    void satellitesAreTheSameWhoeverCounts() {
        QFETCH(QByteArray, talker);
        QFETCH(int, system);
        QFETCH(int, number);
        QFETCH(int, is);
        QFETCH(int, at);
        const auto id = satelliteFor(talker.toStdString(), system, number);
        QVERIFY(id.has_value());
        QCOMPARE(int(id->system), is);
        QCOMPARE(id->number, at);
        QVERIFY(!satelliteFor(talker.toStdString(), system, 0));
        QVERIFY(!satelliteFor("GN", 0, 777));
    }
    void moreThanTwelveAreCountedByGsa() {
        const std::string gsa = whole("GNGSA,A,3,02,05,10,13,16,20,26,29,,,,,1.7,0.8,1.5,1") +
                                whole("GNGSA,A,3,65,66,72,,,,,,,,,,1.7,0.8,1.5,2") +
                                whole("GNGSA,A,3,03,05,09,,,,,,,,,,1.7,0.8,1.5,3");
        const Receiver receiver = read(kFix + gsa + kNext);
        QCOMPARE(receiver.state().used, 0); // the round after has none yet
        Receiver first;
        first.feed(kFix + gsa + kNext);
        QCOMPARE(first.state().used, 14);
        QCOMPARE(*first.state().dilution, 0.8);
        // Without GSA the GGA's own count stands, which stops at twelve.
        Receiver old;
        old.feed(kFix + kNext);
        QCOMPARE(old.state().used, 12);
    }
    void aSatelliteOfTwoSignalsIsOne() {
        const std::string views =
            whole("GPGSV,1,1,02,02,51,062,38,05,23,131,,1") + whole("GPGSV,1,1,02,02,51,062,44,05,23,131,31,6");
        Receiver receiver;
        receiver.feed(kFix + views + kNext);
        QCOMPARE(receiver.state().inView, 2);
        QCOMPARE(*receiver.state().satellites[0].ratio_dBHz, 44.0); // the better one
        QCOMPARE(receiver.state().heard, 2);
        QVERIFY(!receiver.state().best4_dBHz);
    }
    void otherSentencesAreUnderstood() {
        const std::string bytes = whole("GPGLL,4721.8125,N,00832.4470,E,091746.00,A,A") +
                                  whole("GPVTG,287.6,T,,M,1.35,N,2.5,K,A") + whole("GPZDA,091746.00,14,04,2026,00,00") +
                                  whole("GNTXT,01,01,02,PROTVER 18.00");
        const Receiver receiver = read(bytes);
        QCOMPARE(receiver.counts().sentences, std::uint64_t(4));
        QCOMPARE(receiver.counts().refused, std::uint64_t(0));
        QVERIFY(std::abs(*receiver.state().speed_ms - 1.35 * 1852 / 3600) < 1e-9);
        QVERIFY(receiver.state().day == 14 && receiver.state().year == 2026);
        QCOMPARE(receiver.words(), std::string("PROTVER 18.00"));
        QVERIFY(!gllFrom(*parseNmea("$GPGLL,4721.8,N,00832.4,E")));
        QVERIFY(!zdaFrom(*parseNmea("$GPZDA,091746,41,04,2026,00,00")));
        QVERIFY(!vtgFrom(*parseNmea("$GPVTG,a,T,,M,1.35,N,2.5,K")));
    }
    void piecesGiveTheSameAsTheWhole() {
        SimulatedReceiver source({}, {}, 9);
        std::string bytes;
        for (int i = 0; i < 60; ++i) bytes += source.round();
        const Receiver once = read(bytes);
        for (const std::size_t step : {1u, 7u, 64u, 1000u}) {
            Receiver pieces;
            for (std::size_t at = 0; at < bytes.size(); at += step)
                pieces.feed(std::string_view(bytes).substr(at, step));
            pieces.finish();
            QCOMPARE(pieces.counts().sentences, once.counts().sentences);
            QCOMPARE(pieces.counts().rounds, std::uint64_t(60));
            QCOMPARE(pieces.state().used, once.state().used);
            QVERIFY(pieces.state().place->latitude_deg == once.state().place->latitude_deg);
        }
    }
    void garbageBetweenIsSkipped() {
        Receiver receiver;
        receiver.feed(std::string("\xb5\x62\x01\x07\x00\xff", 6) + kFix + "half of $GNGSA,A,3," + kNext);
        QVERIFY(receiver.state().hasFix);
        QCOMPARE(receiver.counts().skipped, std::uint64_t(6 + std::string("half of $GNGSA,A,3,").size()));
        receiver.feed(std::string(100000, 'x')); // an endless line
        receiver.feed("\n" + kNext);
        QVERIFY(receiver.counts().sentences >= 4);
        receiver.feed("$GNRMC,091747.00,A*00\r\n");
        QCOMPARE(receiver.counts().refused, std::uint64_t(1));
        QVERIFY(receiver.lastFault().find("checksum") != std::string::npos);
    }
    void switchingOffIsNoticed() {
        Receiver receiver;
        receiver.feed(kFix + kNext + whole("GNRMC,,V,,,,,,,,,,N") + whole("GNRMC,,V,,,,,,,,,,N"));
        QCOMPARE(receiver.restarts(), 1);
        QVERIFY(!receiver.state().hasFix && !receiver.state().place);
    }
    void aRecordingIsATry() {
        for (const int rate : {1, 10}) {
            SimulatedReceiver source({}, {}, 4);
            std::string bytes;
            for (int i = 0; i < 90 * rate; ++i) bytes += source.round(1.0 / rate);
            const Try one = tryFromRecording(bytes);
            QVERIFY2(std::abs(one.watched_s - 90) < 1.5, QByteArray::number(one.watched_s));
            QVERIFY(one.fix_s && *one.fix_s > 15 && one.reached_s.size() > 11);
            QVERIFY(one.series.size() >= 9 && one.series.size() <= 11);
            for (std::size_t i = 1; i < one.reached_s.size(); ++i) QVERIFY(one.reached_s[i] >= one.reached_s[i - 1]);
            for (const auto &heard : one.heard) QVERIFY(heard.azimuth_deg >= 0 && heard.azimuth_deg < 360);
        }
        QVERIFY(tryFromRecording("nothing of the kind").watched_s == 0);
    }
};

QTEST_GUILESS_MAIN(TestReceiver)
#include "test_receiver.moc"
