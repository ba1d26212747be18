// One's own parts: out of a pasted table, and corrected after builds had taken them in.
#include "core/catalog/pasted_types.h"
#include "core/catalog/quick_fields.h"
#include "core/catalog/type_changes.h"
#include "support/builds.h"

using namespace waxis;

namespace {

const TypeTable &library() {
    static const TypeTable types = [] {
        auto loaded = loadLibrary(WEIGHTAXIS_TEST_DATA "/parts/common.json");
        if (!loaded) qFatal("library not read");
        return loaded->types;
    }();
    return types;
}

double valueOf(const PartType &type, std::string_view id) {
    for (const auto &field : quickFields(type))
        if (field.id == id) return field.get(type).value_or(-1);
    return -2;
}

} // namespace

class TestOwnTypes : public QObject {
    Q_OBJECT

private slots:
    void aTableBecomesParts_data() {
        QTest::addColumn<QString>("text");
        QTest::newRow("commas") << "name,kind,grams,length\nMy receiver,receiver,2.1,18\n";
        QTest::newRow("tabs, as a spreadsheet copies")
            << "Name\tKind\tgrams\tlength\r\nMy receiver\treceiver\t2.1\t18\r\n";
        QTest::newRow("semicolons and decimal commas") << "name;kind;grams;length\nMy receiver;receiver;2,1;18,0";
        QTest::newRow("units in the heads") << "name,kind,weight (g),\"length, mm\"\nMy receiver,Receiver,2.1,18";
        QTest::newRow("units in the fields") << "name,kind,grams,length\nMy receiver,rx,2.1 g,1.8 cm";
        QTest::newRow("quotes") << "name,kind,grams,length\n\"My receiver\",receiver,\"2.1\",18";
        QTest::newRow("empty lines") << "\n\nname,kind,grams,length\n\nMy receiver,receiver,2.1,18\n\n";
    }
    void aTableBecomesParts() {
        QFETCH(QString, text);
        const PastedTable table = typesFromTable(text.toStdString(), library(), {});
        QVERIFY2(table.problem.empty(), table.problem.c_str());
        QVERIFY(table.unknownColumns.empty());
        QCOMPARE(table.rows.size(), std::size_t(1));
        const PastedRow &row = table.rows.front();
        QVERIFY2(row.problems.empty(), row.problems.empty() ? "" : row.problems.front().c_str());
        QCOMPARE(row.type.name, std::string("My receiver"));
        QCOMPARE(row.type.kind, PartKind::receiver);
        QVERIFY(std::abs(*row.type.mass_g.value - 2.1) < 1e-9);
        QVERIFY(std::abs(valueOf(row.type, "length") - 18) < 1e-6);
    }
    void aPartLikeAnotherKeepsTheRestOfIt() {
        const auto table = typesFromTable("name,like,grams\nHeavy one,motor 2207,35\n", library(), {});
        QCOMPARE(table.rows.size(), std::size_t(1));
        const auto &type = table.rows.front().type;
        QCOMPARE(type.kind, PartKind::motor);
        QVERIFY(!table.rows.front().model.empty());
        QVERIFY(type.mounting && !type.ports.empty()); // the model's
        QVERIFY(std::abs(*type.mass_g.value - 35) < 1e-9);
        QVERIFY(type.maker.empty());
    }
    void whatIsWrongIsSaidInItsRow_data() {
        QTest::addColumn<QString>("line");
        QTest::addColumn<QString>("says");
        QTest::newRow("no name") << ",receiver,2"
                                 << "no name";
        QTest::newRow("no kind") << "A,,2"
                                 << "needs a kind";
        QTest::newRow("a kind that is none") << "A,banana,2"
                                             << "no kind of part \"banana\"";
        QTest::newRow("another quantity") << "A,receiver,2 mm"
                                          << "\"2 mm\"";
        QTest::newRow("words") << "A,receiver,heavy"
                               << "\"heavy\"";
        QTest::newRow("far too much") << "A,receiver,99999999"
                                      << "is not within";
        QTest::newRow("less than nothing") << "A,receiver,-3"
                                           << "is not within";
    }
    void whatIsWrongIsSaidInItsRow() {
        QFETCH(QString, line);
        QFETCH(QString, says);
        const auto table =
            typesFromTable("name,kind,grams\n" + line.toStdString() + "\nGood,receiver,2\n", library(), {});
        QCOMPARE(table.rows.size(), std::size_t(2));
        QCOMPARE(table.rows.front().line, 2);
        QVERIFY2(!table.rows.front().problems.empty(), qPrintable(line));
        QVERIFY2(QString::fromStdString(table.rows.front().problems.front()).contains(says),
                 table.rows.front().problems.front().c_str());
        QVERIFY(table.rows.back().problems.empty()); // the others are none the worse
    }
    void aTableThatIsNoneIsRefused() {
        QVERIFY(!typesFromTable("", library(), {}).problem.empty());
        QVERIFY(!typesFromTable("name,kind", library(), {}).problem.empty());
        QVERIFY(!typesFromTable("kind,grams\nreceiver,2", library(), {}).problem.empty());
        std::string endless = "name,kind\n";
        for (int i = 0; i < 600; ++i) endless += "A,receiver\n";
        QVERIFY(!typesFromTable(endless, library(), {}).problem.empty());
        QCOMPARE(typesFromTable("name,kind,colour\nA,receiver,red", library(), {}).unknownColumns,
                 std::vector<std::string>{"colour"});
    }
    void idsAreFree() {
        const auto first = typesFromTable("name,kind\nA,receiver\nA,receiver", library(), {});
        QCOMPARE(first.rows.size(), std::size_t(2));
        QVERIFY(first.rows[0].type.id != first.rows[1].type.id);
        TypeTable taken{{first.rows[0].type.id, first.rows[0].type}};
        QVERIFY(typesFromTable("name,kind\nA,receiver", library(), taken).rows[0].type.id != first.rows[0].type.id);
    }
    void correctionsAreToldAndOnlyThoseOfOnesOwn() {
        PartType own = library().at("gps-n10c");
        own.id = "own-gps";
        PartType better = own;
        better.mass_g = measuredValue(10.4, 0.1);
        better.name = "My GPS, weighed";
        const TypeTable build{{"own-gps", own}, {"gps-n10c", library().at("gps-n10c")}};
        TypeTable shelf{{"own-gps", better}, {"gps-n10c", better}};
        const auto corrected = correctedTypes(build, shelf, {"own-gps"});
        QCOMPARE(corrected.size(), std::size_t(1));
        QCOMPARE(corrected.front().id, std::string("own-gps"));
        std::string all;
        for (const auto &word : corrected.front().differences) all += word + "; ";
        QVERIFY2(all.find("9.8 → 10.4") != std::string::npos, all.c_str());
        QVERIFY2(all.find("name") != std::string::npos, all.c_str());
        QVERIFY(correctedTypes(build, shelf, {}).empty());
        shelf.at("own-gps") = own;
        QVERIFY(correctedTypes(build, shelf, {"own-gps"}).empty());
        QVERIFY(correctedTypes(build, {}, {"own-gps"}).empty()); // gone from the shelf: nothing to follow
        PartType other = own;
        other.note = "seen";
        QCOMPARE(differencesOf(own, other), std::vector<std::string>{"details"});
    }
};

QTEST_APPLESS_MAIN(TestOwnTypes)
#include "test_own_types.moc"
