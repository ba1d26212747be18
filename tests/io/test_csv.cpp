// Comma-separated values: the rules of RFC 4180 (sections 2.1 to 2.7), forgiveness for what people send, kit lists.
#include "core/analysis/analysis.h"
#include "core/derived/all_up.h"
#include "core/practice/practice.h"
#include "io/csv/kit_csv.h"
#include "support/builds.h"

using namespace waxis;

namespace {

TypeTable library() {
    auto loaded = loadLibrary(WEIGHTAXIS_TEST_DATA "/parts/common.json");
    if (!loaded) qFatal("library not read");
    return loaded->types;
}

KitList listOf(const std::string &text, const Build &build = {}) {
    const CsvTable table = parseCsv(text);
    return readKitList(table, guessKitColumns(table.header), build, practiceOf({}), library());
}

} // namespace

class TestCsv : public QObject {
    Q_OBJECT

private slots:
    void theRulesOfTheStandardHold() {
        auto table = parseCsv("aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n"); // 2.1
        QCOMPARE(table.header, (CsvRow{"aaa", "bbb", "ccc"}));
        QCOMPARE(table.rows, (std::vector<CsvRow>{{"zzz", "yyy", "xxx"}}));
        QCOMPARE(parseCsv("aaa,bbb,ccc\r\nzzz,yyy,xxx").rows.size(),
                 std::size_t(1));                                                 // 2.2: the last end may be missing
        QCOMPARE(parseCsv("a,b\r\n c , d \r\n").rows[0], (CsvRow{" c ", " d "})); // 2.4: spaces belong to the field
        table = parseCsv("\"aaa\",\"b \r\nbb\",\"ccc\"\r\nzzz,yyy,xxx");          // 2.5, 2.6
        QCOMPARE(table.header[1], std::string("b \r\nbb"));
        QCOMPARE(table.lines[0], std::size_t(3));
        QCOMPARE(parseCsv("\"aaa\",\"b\"\"bb\",\"ccc\"").header[1], std::string("b\"bb")); // 2.7
    }
    void whatPeopleSendIsReadToo() {
        QCOMPARE(parseCsv("\xEF\xBB\xBFname;count\nx;1\n").header[0], std::string("name"));
        QCOMPARE(parseCsv("name;count\nx;1,5\n").rows[0][1], std::string("1,5"));
        QCOMPARE(parseCsv("name\tcount\nx\t1\n").separator, '\t');
        QCOMPARE(parseCsv("a,b\rc,d\r").rows.size(), std::size_t(1)); // old line ends
        QCOMPARE(parseCsv("a,b,c\nx\n").rows[0], (CsvRow{"x", "", ""}));
        QCOMPARE(parseCsv("a,b\n\n,\nx,y\n").rows.size(), std::size_t(1)); // empty records
        QCOMPARE(parseCsv("a,b\nx,y,\n").rows.size(), std::size_t(1));     // one separator too many
        QCOMPARE(parseCsv("name\nM\xFCller\n").rows[0][0], std::string("M\xC3\xBCller"));
        QVERIFY(parseCsv("").rows.empty());
        QCOMPARE(parseCsv("a,\n").header, (CsvRow{"a", ""}));
    }
    void badRecordsAreNamedByTheirLineAndTheOthersKept() {
        const auto table = parseCsv("a,b\n1,2\n1,2,3\n\"x\"y,2\n3,4\n\"never closed\n");
        QCOMPARE(table.rows.size(), std::size_t(2));
        QCOMPARE(table.problems.size(), std::size_t(3));
        QCOMPARE(table.problems[0].line, std::size_t(3));
        QCOMPARE(table.problems[1].line, std::size_t(4));
        QCOMPARE(table.problems[2].line, std::size_t(6));
    }
    void whatIsWrittenIsReadAgain() {
        std::mt19937 random(4180);
        const std::string alphabet = "ab ,;\"\n\r\t'=0\xC3\xA9";
        for (int round = 0; round < 300; ++round) {
            auto field = [&] {
                std::string text;
                for (int n = int(random() % 6); n > 0; --n) text += alphabet[random() % (alphabet.size() - 2)];
                return text;
            };
            const CsvRow header{"first", "second", "third"};
            std::vector<CsvRow> rows;
            for (int r = 0; r < 4; ++r) rows.push_back({"x" + field(), field(), field()});
            const auto table = parseCsv(writeCsv(header, rows));
            QVERIFY(table.problems.empty());
            QCOMPARE(table.rows, rows);
        }
        QCOMPARE(writeCsv({"a"}, {{"x,y"}}), std::string("a\r\n\"x,y\"\r\n"));
    }
    void numbersAreReadAsPeopleWriteThem_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<double>("value");
        QTest::addColumn<bool>("good");
        QTest::newRow("point") << "12.5" << 12.5 << true;
        QTest::newRow("comma") << "12,5" << 12.5 << true;
        QTest::newRow("thousands, comma decimal") << "1.234,5" << 1234.5 << true;
        QTest::newRow("thousands, point decimal") << "1,234.5" << 1234.5 << true;
        QTest::newRow("millions") << "1,234,567" << 1234567.0 << true;
        QTest::newRow("one comma is decimal") << "1,234" << 1.234 << true;
        QTest::newRow("unit") << "12,5 g" << 12.5 << true;
        QTest::newRow("sign") << " -0.5" << -0.5 << true;
        QTest::newRow("apostrophe") << "1'234" << 1234.0 << true;
        QTest::newRow("word") << "two" << 0.0 << false;
        QTest::newRow("empty") << "" << 0.0 << false;
        QTest::newRow("two numbers") << "12 13" << 0.0 << false;
        QTest::newRow("only marks") << ".," << 0.0 << false;
    }
    void numbersAreReadAsPeopleWriteThem() {
        QFETCH(QString, text);
        QFETCH(double, value);
        QFETCH(bool, good);
        double read = -1;
        QCOMPARE(readNumber(text.toStdString(), read), good);
        if (good) QCOMPARE(read, value);
    }
    void columnsAreGuessedFromTheirWords() {
        using C = KitColumn;
        QCOMPARE(guessKitColumns({"Qty", "Part", "Weight (g)", "Shop"}),
                 (std::vector<C>{C::count, C::name, C::mass, C::ignore}));
        QCOMPARE(guessKitColumns({"Bezeichnung", "Anzahl", "Gewicht (g)", "Bemerkung"}),
                 (std::vector<C>{C::name, C::count, C::mass, C::note}));
        QCOMPARE(guessKitColumns({"name", "name"}), (std::vector<C>{C::name, C::ignore})); // one column per meaning
    }
    void rowsFindTheirTypes() {
        Build build = test::stakewalker();
        const auto list = listOf("item,name,qty,mass g,size\n"
                                 "motor-2807,,4,47.7,\n"
                                 ",Heronby 2306 motor,4,,\n"
                                 ",Mystery box,2,\"5,5\",10 x 20 x 5\n"
                                 "plate-main,,1,15.2,\n",
                                 build);
        QCOMPARE(list.rows.size(), std::size_t(4));
        QCOMPARE(list.rows[0].match, KitMatch::inBuild);
        QCOMPARE(list.rows[1].match, KitMatch::inLibrary);
        QCOMPARE(list.rows[1].item, std::string("motor-2306"));
        QCOMPARE(list.rows[2].match, KitMatch::isNew);
        QCOMPARE(list.rows[2].item, std::string("mystery-box"));
        QCOMPARE(*list.rows[2].mass_g.value, 5.5);
        QCOMPARE(list.rows[3].match, KitMatch::inBuild);
        const auto taken = takeKitList(build, list, library());
        QVERIFY(bool(taken));
        QCOMPARE(*findKitEntry(*taken, "motor-2807")->inHand, 4);
        QCOMPARE(taken->types->at("mystery-box").solids.size(), std::size_t(1));
        QVERIFY(parseBuild(writeBuild(*taken))); // ids and references are sound
        Analyser analyser;
        QCOMPARE(gramsOf(analyser.update(*taken).derived, "plate-main").value(), 15.2);
    }
    void badFieldsCostTheirRowOnly() {
        const auto list = listOf(
            "name,qty,grams\nGood,1,2\nBad count,one,2\nBad mass,1,heavy\nNegative,-1,2\nHalf,1.5,2\n,3,4\nFine,2,\n");
        QCOMPARE(list.rows.size(), std::size_t(2));
        QCOMPARE(list.problems.size(), std::size_t(5));
        for (std::size_t i = 0; i < 5; ++i) QCOMPARE(list.problems[i].line, i + 3);
        QVERIFY(list.problems[0].reason.find("\"one\"") != std::string::npos);
    }
    void repeatedItemsAddUp() {
        const auto list = listOf("item,qty,mass\nmotor-2306,2,32\nmotor-2306,3,33\n");
        QCOMPARE(list.rows.size(), std::size_t(1));
        QCOMPARE(*list.rows[0].count, 5);
        QCOMPARE(*list.rows[0].mass_g.value, 33.0);
    }
    void namesThatMakeNoIdGetOneAndClashesAreAvoided() {
        const auto list = listOf("name,qty\n!!!,1\n\xE5\xAD\x97,1\nMotor 2306 Heronby!,1\n");
        std::set<std::string> items;
        for (const auto &row : list.rows) items.insert(row.item);
        QVERIFY(items.contains("part"));
        const auto taken = takeKitList({}, list, library());
        QVERIFY(bool(taken));
        QVERIFY(parseBuild(writeBuild(*taken)));
    }
    void differentNamesNeverBecomeOnePart_data() {
        QTest::addColumn<QString>("first");
        QTest::addColumn<QString>("second");
        QTest::addColumn<int>("rows");
        QTest::newRow("signs") << "Prop CW+"
                               << "Prop CW-" << 2;
        QTest::newRow("a sign and none") << "Prop CW"
                                         << "Prop CW-" << 2;
        QTest::newRow("no Latin letters")
            << QString::fromUtf8("\xE9\xA3\x9E\xE6\x8E\xA7") << QString::fromUtf8("\xE7\x94\xB5\xE6\xB1\xA0") << 2;
        QTest::newRow("Cyrillic") << QString::fromUtf8("\xD0\xBC\xD0\xBE\xD1\x82")
                                  << QString::fromUtf8("\xD0\xBF\xD1\x80\xD0\xBE\xD0\xBF") << 2;
        QTest::newRow("the same") << "Prop CW+"
                                  << "Prop CW+" << 1;
    }
    void differentNamesNeverBecomeOnePart() {
        QFETCH(QString, first);
        QFETCH(QString, second);
        QFETCH(int, rows);
        const auto list = listOf(QString("name,qty,mass\n%1,2,3\n%2,5,7\n").arg(first, second).toUtf8().constData());
        QCOMPARE(int(list.rows.size()), rows);
        if (rows == 1) return;
        QVERIFY(list.rows[0].item != list.rows[1].item);
        QCOMPARE(*list.rows[0].count, 2);
        QCOMPARE(*list.rows[1].count, 5);
        QCOMPARE(*list.rows[1].mass_g.value, 7.0);
        const auto taken = takeKitList({}, list, library());
        QVERIFY(taken && taken->types->size() == 2);
    }
    void theKitListComesBack() {
        const Build build = test::stakewalker();
        const std::string text = writeKitList(build, practiceOf(build.practice));
        const auto table = parseCsv(text);
        QVERIFY(table.problems.empty());
        Build blank = build;
        blank.kit.clear();
        const auto list = readKitList(table, guessKitColumns(table.header), blank, practiceOf({}), library());
        QVERIFY(list.problems.empty());
        const auto taken = takeKitList(blank, list, library());
        QVERIFY(bool(taken));
        for (const auto &entry : build.kit) {
            const KitEntry *again = findKitEntry(*taken, entry.item);
            QVERIFY2(again, entry.item.c_str());
            QCOMPARE(again->inHand, entry.inHand);
            QVERIFY(again->mass_g == entry.mass_g);
            QCOMPARE(again->note, entry.note);
        }
        QVERIFY(text.find("\r\n") != std::string::npos);
    }
};

QTEST_APPLESS_MAIN(TestCsv)
#include "test_csv.moc"
