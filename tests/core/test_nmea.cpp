// Sentences of satellite receivers: good ones, old and new versions, and all that goes wrong on a cable.
#include "core/nmea/fixes.h"

#include <QTest>
#include <cmath>
#include <deque>
#include <random>

using namespace waxis;

namespace {

std::string whole(const std::string &body) { return "$" + body + "*" + nmeaChecksum(body); }

NmeaSentence read(const std::string &body) {
    static std::deque<std::string> lines; // sentences are views of them
    const auto sentence = parseNmea(lines.emplace_back(whole(body)));
    if (!sentence) qFatal("%s", sentence.error().text().c_str());
    return *sentence;
}

bool isNear(double a, double b) { return std::abs(a - b) < 1e-9; }

} // namespace

class TestNmea : public QObject {
    Q_OBJECT

private slots:
    void whatIsNoSentenceSaysWhy_data() {
        QTest::addColumn<QByteArray>("line");
        QTest::addColumn<QString>("reason");
        const std::string gga = "GPGGA,,,,,,0,,,,,,,,";
        QTest::newRow("nothing") << QByteArray() << "a sentence begins with $";
        QTest::newRow("the end of one") << QByteArray("7,M,48.2,M,,*64\r\n") << "a sentence begins with $";
        QTest::newRow("cut off") << QByteArray("$GP") << "talker and type are five letters";
        QTest::newRow("binary between") << QByteArray("$GPGGA,\x01\xb5,,*00") << "a character that no sentence has";
        QTest::newRow("one bit wrong") << QByteArray::fromStdString("$" + gga + "*00") << "expected, 00 found";
        QTest::newRow("half a checksum") << QByteArray::fromStdString("$" + gga + "*6")
                                         << "the checksum is not two hexadecimal digits";
        QTest::newRow("no hexadecimal") << QByteArray::fromStdString("$" + gga + "*G1")
                                        << "the checksum is not two hexadecimal digits";
        QTest::newRow("endless") << QByteArray("$GPGGA,") + QByteArray(200, '1') << "more than 120 characters";
    }
    void whatIsNoSentenceSaysWhy() {
        QFETCH(QByteArray, line);
        QFETCH(QString, reason);
        const auto sentence = parseNmea(line.toStdString());
        QVERIFY(!sentence);
        QVERIFY2(QString::fromStdString(sentence.error().text()).contains(reason), sentence.error().text().c_str());
    }
    void aMissingChecksumIsNoError() {
        const auto bare = parseNmea("$GPGGA,,,,,,0,,,,,,,,\r\n");
        QVERIFY(bare && !bare->isChecked);
        QCOMPARE(bare->fields.size(), std::size_t(14));
        QVERIFY(parseNmea(whole("GPGGA,,,,,,0,,,,,,,,"))->isChecked);
        const auto lower = parseNmea("$GNGSA,A,3,02,05,10,13,16,20,26,29,,,,,1.7,0.8,1.5*28");
        QVERIFY(lower && lower->isChecked && lower->talker == "GN" && lower->type == "GSA");
        const std::string maker = whole("PXYZ,1,2");
        const auto own = parseNmea(maker);
        QVERIFY(own && own->talker == "P" && own->type == "XYZ");
    }
    void placesAreDegreesAndMinutes() {
        const auto fix = ggaFrom(read("GPGGA,091746.20,4721.8125,S,00832.4470,W,1,11,0.8,431.7,M,48.2,M,,"));
        QVERIFY(bool(fix));
        QVERIFY(isNear(fix->place->latitude_deg, -(47 + 21.8125 / 60)));
        QVERIFY(isNear(fix->place->longitude_deg, -(8 + 32.4470 / 60)));
        QVERIFY(isNear(*fix->time_s, 9 * 3600 + 17 * 60 + 46.2));
        QCOMPARE(*fix->satellites, 11);
        // A receiver without a fix leaves all of it out.
        const auto none = ggaFrom(read("GPGGA,,,,,,0,00,99.99,,,,,,"));
        QVERIFY(none && !none->place && !none->time_s && none->quality == 0 && *none->satellites == 0);
    }
    void fieldsThatCannotBeReadAreNamed_data() {
        QTest::addColumn<QString>("body");
        QTest::addColumn<QString>("reason");
        QTest::newRow("letters") << "GPGGA,091746,47a1,N,00832,E,1,11,0.8,431.7,M,48.2,M,,"
                                 << "field 2: \"47a1\" is no number";
        QTest::newRow("60 minutes") << "GPGGA,,4760.0,N,00832,E,1,,,,,,,,"
                                    << "field 2: \"4760.0\" is no place on earth";
        QTest::newRow("beyond the pole") << "GPGGA,,9100,N,00832,E,1,,,,,,,,"
                                         << "is no place on earth";
        QTest::newRow("no hemisphere") << "GPGGA,,4721,X,00832,E,1,,,,,,,,"
                                       << "field 3: N or S expected";
        QTest::newRow("25 o'clock") << "GPGGA,250000,,,,,0,,,,,,,,"
                                    << "field 1: \"250000\" is no time";
        QTest::newRow("too few") << "GPGGA,1,2,3"
                                 << "14 fields expected, 3 found";
        QTest::newRow("another type") << "GPXXX,,,,,,,,,,,,,,"
                                      << "GGA expected, XXX found";
        QTest::newRow("no end of it") << "GPGGA,1e999,,,,,0,,,,,,,,"
                                      << "field 1";
    }
    void fieldsThatCannotBeReadAreNamed() {
        QFETCH(QString, body);
        QFETCH(QString, reason);
        const auto fix = ggaFrom(read(body.toStdString()));
        QVERIFY(!fix);
        QVERIFY2(QString::fromStdString(fix.error().text()).contains(reason), fix.error().text().c_str());
    }
    void datesHaveTheirCentury() {
        const auto fix = rmcFrom(read("GPRMC,091746.20,A,4721.8125,N,00832.4470,E,1.35,287.6,140426,,,A"));
        QVERIFY(fix && fix->isValid);
        QCOMPARE(*fix->day * 10000 + *fix->month * 100 + *fix->year % 100, 140426);
        QCOMPARE(*fix->year, 2026);
        QVERIFY(isNear(*fix->speed_ms, 1.35 * 1852 / 3600));
        QCOMPARE(*rmcFrom(read("GPRMC,,V,,,,,,,060180,,"))->year, 1980);
        QVERIFY(!rmcFrom(read("GPRMC,,V,,,,,,,321326,,")));
    }
    void newVersionsSayWhichSystem() {
        const auto old = gsaFrom(read("GNGSA,A,3,02,05,10,13,16,20,26,29,,,,,1.7,0.8,1.5"));
        QVERIFY(old && !old->system && old->fix == 3);
        QCOMPARE(old->satellites.size(), std::size_t(8));
        const auto now = gsaFrom(read("GNGSA,A,3,65,66,,,,,,,,,,,1.7,0.8,1.5,2"));
        QVERIFY(now && now->system == 2);
        QVERIFY(now->satellites.size() == 2 && now->satellites[0] == 65 && now->satellites[1] == 66);
    }
    void satellitesInViewMayBeSilent() {
        const auto part = gsvFrom(read("GPGSV,3,1,11,02,51,062,44,05,23,131,,10,08,317,29,13,,,47"));
        QVERIFY(bool(part));
        QCOMPARE(part->satellites.size(), std::size_t(4));
        QVERIFY(!part->satellites[1].ratio_dBHz && !part->satellites[3].elevation_deg);
        QVERIFY(part->signal.empty() && part->inView == 11 && part->parts == 3);
        // From version 4.10 a field more says which signal; the last sentence has fewer satellites.
        const auto last = gsvFrom(read("GAGSV,2,2,05,36,12,300,21,7"));
        QVERIFY(last && last->satellites.size() == 1);
        QVERIFY(last->signal == "7");
        QCOMPARE(gsvFrom(read("GQGSV,1,1,00"))->satellites.size(), std::size_t(0));
    }
    void noiseIsNeverRead() {
        std::mt19937 random(5);
        const std::string good = whole("GPGGA,091746.20,4721.8125,N,00832.4470,E,1,11,0.8,431.7,M,48.2,M,,");
        int read = 0;
        for (int round = 0; round < 20000; ++round) {
            std::string line = good;
            const int changes = 1 + int(random() % 3);
            for (int i = 0; i < changes; ++i) line[random() % line.size()] = char(random() % 256);
            const auto sentence = parseNmea(line);
            if (!sentence) continue;
            ++read; // a change that keeps the sum, or drops the star
            (void)ggaFrom(*sentence);
            (void)rmcFrom(*sentence);
            (void)gsaFrom(*sentence);
            (void)gsvFrom(*sentence);
        }
        QVERIFY2(read < 20000 / 50, qPrintable(QString::number(read)));
    }
};

QTEST_APPLESS_MAIN(TestNmea)
#include "test_nmea.moc"
