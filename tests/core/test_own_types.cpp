// One's own parts: out of a pasted table, and corrected after builds had taken them in.
#include "core/catalog/connectors.h"
#include "core/catalog/fresh_types.h"
#include "core/catalog/part_check.h"
#include "core/catalog/pasted_types.h"
#include "core/catalog/quick_fields.h"
#include "core/catalog/type_changes.h"
#include "core/pins/signal.h"
#include "support/builds.h"
#include "support/library.h"

using namespace waxis;
using waxis::test::shippedLibrary;

namespace {

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
        const PastedTable table = typesFromTable(text.toStdString(), shippedLibrary(), {});
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
        const auto table = typesFromTable("name,like,grams\nHeavy one,motor 2207,35\n", shippedLibrary(), {});
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
            typesFromTable("name,kind,grams\n" + line.toStdString() + "\nGood,receiver,2\n", shippedLibrary(), {});
        QCOMPARE(table.rows.size(), std::size_t(2));
        QCOMPARE(table.rows.front().line, 2);
        QVERIFY2(!table.rows.front().problems.empty(), qPrintable(line));
        QVERIFY2(QString::fromStdString(table.rows.front().problems.front()).contains(says),
                 table.rows.front().problems.front().c_str());
        QVERIFY(table.rows.back().problems.empty()); // the others are none the worse
    }
    void aTableThatIsNoneIsRefused() {
        QVERIFY(!typesFromTable("", shippedLibrary(), {}).problem.empty());
        QVERIFY(!typesFromTable("name,kind", shippedLibrary(), {}).problem.empty());
        QVERIFY(!typesFromTable("kind,grams\nreceiver,2", shippedLibrary(), {}).problem.empty());
        std::string endless = "name,kind\n";
        for (int i = 0; i < 600; ++i) endless += "A,receiver\n";
        QVERIFY(!typesFromTable(endless, shippedLibrary(), {}).problem.empty());
        QCOMPARE(typesFromTable("name,kind,colour\nA,receiver,red", shippedLibrary(), {}).unknownColumns,
                 std::vector<std::string>{"colour"});
    }
    void connectorsComeOutOfATable_data() {
        QTest::addColumn<QString>("cell");
        QTest::addColumn<QStringList>("pins"); // of the ports that come of it, "coax SMA" for a coaxial one
        QTest::addColumn<QString>("wrong");    // a word of what is said instead
        const auto row = [](const char *name, const char *cell, const QStringList &pins, const char *wrong = "") {
            QTest::newRow(name) << cell << pins << wrong;
        };
        row("a list of pins", "5V GND TX RX", {"5V GND TX RX"});
        row("small letters", "5v gnd tx rx", {"5V GND TX RX"});
        row("pins of one's own", "3V3 GND A4", {"3V3 GND A4"});
        row("two", "5V GND TX RX / coax SMA", {"5V GND TX RX", "coax SMA"});
        row("another sign between", "battery|phases", {"BAT GND", "A B C"});
        row("by their titles", "GPS with compass", {"5V GND TX RX SDA SCL"});
        row("twice the same", "serial/serial", {"5V GND TX RX", "5V GND TX RX"});
        row("coax alone", "coax", {"coax micro-coax snap plug"});
        row("nothing between", " / ", {});
        row("an unknown word", "banana", {}, "banana");
        row("signs that no pin has", "5V (GND)", {}, "(GND)");
        row("far too long", "5V GNDGNDGNDGNDGND", {}, "GNDGND");
        row("one good, one bad", "serial / what", {}, "what");
    }
    void connectorsComeOutOfATable() {
        QFETCH(QString, cell);
        QFETCH(QStringList, pins);
        QFETCH(QString, wrong);
        const PartType model = shippedLibrary().at("rx-868n");
        PartType type = model;
        const std::string said = setConnectors(type, cell.toStdString());
        QVERIFY2(QString::fromStdString(said).contains(wrong), said.c_str());
        QCOMPARE(said.empty(), wrong.isEmpty());
        if (!wrong.isEmpty()) QVERIFY(type == model); // nothing of it was taken
        if (!wrong.isEmpty()) return;
        QStringList now;
        for (const auto &port : type.ports)
            if (port.kind != PortKind::button)
                now << (port.kind == PortKind::coax ? "coax " : "") + QString::fromStdString(pinsText(port));
        QCOMPARE(now, pins);
        QVERIFY(std::any_of(type.ports.begin(), type.ports.end(),
                            [](const Port &p) { return p.kind == PortKind::button; })); // the bind button stays
        // What pointed at an antenna port points at one that there is, or at none.
        const std::string &port = type.radio.front().port;
        QVERIFY(port.empty() || findPort(type, port));
        for (const auto &fault : faultsOf(type)) QVERIFY2(!fault.stops, fault.what.c_str());
        // In the table it is the same, told in its row where it is wrong.
        const auto table =
            typesFromTable("name;like;connectors\nA;868n;\"" + cell.toStdString() + "\"\n", shippedLibrary(), {});
        QVERIFY(table.rows.front().problems.empty() && table.unknownColumns.empty());
        if (!pins.isEmpty()) QCOMPARE(table.rows.front().type.ports.size(), type.ports.size());
    }
    void readyMadePinsMeanSomething() {
        for (const auto &set : pinSets()) {
            const Port port = connectorFor(set, {});
            QCOMPARE(pinsText(port), std::string(set.pins));
            for (const auto &pin : port.pins)
                QVERIFY2(signalOf(pin.signal).kind != SignalKind::other, pin.signal.c_str());
            QVERIFY(findPinSet(set.id) == &set); // no two of one name
        }
        QVERIFY(!findPinSet("banana"));
        for (int k = 0; k <= int(PartKind::other); ++k)
            for (const auto *set : usualPinSets(PartKind(k))) QVERIFY(set);
    }
    void aConnectorSitsOnItsSideAndKeepsApart() {
        PartType type = freshType(PartKind::gps, "plain");
        type.ports.clear();
        const Vec3 half(10, 10, 0.6); // its board
        for (int side = 0; side < kSides; ++side)
            for (int n = 0; n < 3; ++n) type.ports.push_back(connectorFor(*findPinSet("serial"), type, Side(side)));
        for (std::size_t i = 0; i < type.ports.size(); ++i) {
            const Port &port = type.ports[i];
            QCOMPARE(int(sideOf(port)), int(i / 3));
            const Vec3 from = port.position_mm - Vec3(0, 0, 0.6);
            QVERIFY(std::abs(std::abs(from.dot(port.direction)) - half.cwiseProduct(port.direction).norm()) < 1e-9);
            for (std::size_t k = 0; k < i; ++k) {
                QVERIFY(port.id != type.ports[k].id);
                QVERIFY((port.position_mm - type.ports[k].position_mm).norm() > 1);
            }
        }
        Port nowhere;
        putOnSide(nowhere, Side::fore, PartType{}); // no body: in the middle
        QCOMPARE(nowhere.position_mm, Vec3(Vec3::Zero()));
    }
    void idsAreFree() {
        const auto first = typesFromTable("name,kind\nA,receiver\nA,receiver", shippedLibrary(), {});
        QCOMPARE(first.rows.size(), std::size_t(2));
        QVERIFY(first.rows[0].type.id != first.rows[1].type.id);
        TypeTable taken{{first.rows[0].type.id, first.rows[0].type}};
        QVERIFY(typesFromTable("name,kind\nA,receiver", shippedLibrary(), taken).rows[0].type.id !=
                first.rows[0].type.id);
    }
    void correctionsAreToldAndOnlyThoseOfOnesOwn() {
        PartType own = shippedLibrary().at("gps-n10c");
        own.id = "own-gps";
        PartType better = own;
        better.mass_g = measuredValue(10.4, 0.1);
        better.name = "My GPS, weighed";
        const TypeTable build{{"own-gps", own}, {"gps-n10c", shippedLibrary().at("gps-n10c")}};
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
