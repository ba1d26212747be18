// Looking for part types, parts of one's own, and quantities as they are typed.
#include "core/base/quantity.h"
#include "core/catalog/connectors.h"
#include "core/catalog/find_types.h"
#include "core/catalog/fresh_types.h"
#include "core/catalog/kind_words.h"
#include "core/catalog/part_check.h"
#include "core/catalog/quick_fields.h"
#include "core/kit/kit.h"
#include "support/builds.h"
#include "support/library.h"

#include <cmath>

using namespace waxis;
using waxis::test::shippedLibrary;

namespace {

std::vector<std::string> words(const char *text) {
    std::vector<std::string> out;
    for (const auto &word : QString(text).split(' ', Qt::SkipEmptyParts)) out.push_back(word.toStdString());
    return out;
}

int kindsIn(const std::vector<const PartType *> &types, PartKind kind) {
    return int(std::count_if(types.begin(), types.end(), [&](const PartType *t) { return t->kind == kind; }));
}

int kindsInLibrary(PartKind kind) {
    return int(std::count_if(shippedLibrary().begin(), shippedLibrary().end(),
                             [&](const auto &t) { return t.second.kind == kind; }));
}

} // namespace

class TestCatalog : public QObject {
    Q_OBJECT

private slots:
    void everyPartOfAKindIsFoundByItsNames_data() {
        QTest::addColumn<QString>("typed");
        QTest::addColumn<int>("kind");
        const std::pair<const char *, PartKind> rows[] = {{"propeller", PartKind::propeller},
                                                          {"props", PartKind::propeller},
                                                          {"battery", PartKind::battery},
                                                          {"lipo", PartKind::battery},
                                                          {"Pack", PartKind::battery},
                                                          {"antenna", PartKind::antenna},
                                                          {"aerial", PartKind::antenna},
                                                          {"FC", PartKind::flightController},
                                                          {"flight controller", PartKind::flightController},
                                                          {"vtx", PartKind::videoTransmitter},
                                                          {"video transmitter", PartKind::videoTransmitter},
                                                          {"speed controller", PartKind::esc},
                                                          {"gnss", PartKind::gps},
                                                          {"beeper", PartKind::buzzer},
                                                          {"receivers", PartKind::receiver},
                                                          {"cap", PartKind::capacitor}};
        for (const auto &[typed, kind] : rows) QTest::newRow(typed) << typed << int(kind);
    }
    void everyPartOfAKindIsFoundByItsNames() {
        QFETCH(QString, typed);
        QFETCH(int, kind);
        const auto found = findTypes(shippedLibrary(), words(typed.toUtf8().constData()));
        QCOMPARE(kindsIn(found, PartKind(kind)), kindsInLibrary(PartKind(kind)));
        QVERIFY(found.front()->kind == PartKind(kind) || typed == "vtx" || typed == "speed controller");
    }
    void numbersMeanWhatTheyMeasure_data() {
        QTest::addColumn<QString>("typed");
        QTest::addColumn<QString>("finds");
        QTest::addColumn<QString>("leaves");
        QTest::newRow("pattern") << "30.5"
                                 << "fc-305"
                                 << "fc-20";
        QTest::newRow("cells") << "6S pack"
                               << "pack-6s1300"
                               << "pack-4s1300";
        QTest::newRow("board by cells") << "6s esc"
                                        << "esc4-305"
                                        << "esc-12";
        QTest::newRow("band") << "5.8 antenna"
                              << "ant-58-omni"
                              << "ant-24-omni";
        QTest::newRow("band in MHz") << "868"
                                     << "rx-868n"
                                     << "rx-2g4";
        QTest::newRow("inches") << "prop 5in"
                                << "prop-5"
                                << "prop-7";
        QTest::newRow("current") << "60A"
                                 << "plug-60a"
                                 << "plug-30a";
        QTest::newRow("capacity") << "1300mah"
                                  << "pack-4s1300"
                                  << "pack-4s1500";
        QTest::newRow("thread") << "m2 screw"
                                << "screw-m2x8"
                                << "screw-m3x8";
        QTest::newRow("decimal comma") << "25,5 fc"
                                       << "fc-255"
                                       << "fc-305";
    }
    void numbersMeanWhatTheyMeasure() {
        QFETCH(QString, typed);
        QFETCH(QString, finds);
        QFETCH(QString, leaves);
        const auto found = findTypes(shippedLibrary(), words(typed.toUtf8().constData()));
        const auto has = [&](const QString &id) {
            return std::any_of(found.begin(), found.end(), [&](auto *t) { return t->id == id.toStdString(); });
        };
        QVERIFY(has(finds));
        QVERIFY(!has(leaves));
    }
    void theOrderIsStableAndWhatNothingFitsIsEmpty() {
        QVERIFY(findTypes(shippedLibrary(), {"xyzzy"}).empty());
        QCOMPARE(findTypes(shippedLibrary(), {}).size(), shippedLibrary().size());
        const auto once = findTypes(shippedLibrary(), {"esc"}), again = findTypes(shippedLibrary(), {"esc"});
        QVERIFY(once == again);
        QCOMPARE(findTypes(shippedLibrary(), words("2207 motor")).front()->id, std::string("motor-2207"));
        for (const auto kind : {PartKind::esc, PartKind::other}) QVERIFY(!kindName(kind).empty());
    }

    void quantitiesUnderstandTheirUnits_data() {
        QTest::addColumn<QString>("typed");
        QTest::addColumn<int>("measure");
        QTest::addColumn<double>("value"); // NaN: not understood
        const double none = std::nan("");
        struct Row {
            const char *typed;
            Measure measure;
            double value;
        };
        // inch and pound: international yard and pound agreement of 1959; AWG 14 is 2.08 mm2 in ASTM B258.
        const Row rows[] = {{"7", Measure::length, 7},
                            {"7 in", Measure::length, 177.8},
                            {"7in", Measure::length, 177.8},
                            {"0.5\"", Measure::length, 12.7},
                            {"1,5 cm", Measure::length, 15},
                            {"30 mil", Measure::length, 0.762},
                            {"2 m", Measure::length, 2000},
                            {"7 g", Measure::length, none},
                            {"seven", Measure::length, none},
                            {"7 8", Measure::length, none},
                            {"", Measure::length, none},
                            {"−3 mm", Measure::length, -3},
                            {"+3", Measure::length, 3},
                            {"1 lb", Measure::mass, 453.59237},
                            {"2 oz", Measure::mass, 56.69904625},
                            {"0.2 kg", Measure::mass, 200},
                            {"500 mA", Measure::current, 0.5},
                            {"5000 mV", Measure::voltage, 5},
                            {"25 mW", Measure::level, 13.979400086720377},
                            {"1 W", Measure::level, 30},
                            {"0 mW", Measure::level, none},
                            {"30 dBm", Measure::power, 1000},
                            {"5.8 GHz", Measure::frequency, 5800},
                            {"868 mhz", Measure::frequency, 868},
                            {"2.08 mm2", Measure::gauge, 14},
                            {"14 AWG", Measure::gauge, 14},
                            {"90 s", Measure::minutes, 1.5},
                            {"1.5 min", Measure::seconds, 90},
                            {"45°", Measure::angle, 45},
                            {"45 mm", Measure::angle, none},
                            {"20 %", Measure::percent, 20},
                            {"inf", Measure::length, none},
                            {"nan", Measure::mass, none}};
        for (const auto &row : rows)
            QTest::addRow("%s as %d", row.typed, int(row.measure)) << row.typed << int(row.measure) << row.value;
    }
    void quantitiesUnderstandTheirUnits() {
        QFETCH(QString, typed);
        QFETCH(int, measure);
        QFETCH(double, value);
        const auto read = readQuantity(typed.toStdString(), Measure(measure));
        QCOMPARE(read.has_value(), !std::isnan(value));
        if (read) QVERIFY(std::abs(*read - value) <= 1e-9 * std::max(1.0, std::abs(value)));
        if (!read) QVERIFY(wrongQuantity(typed.toStdString(), Measure(measure)).find("wanted") != std::string::npos);
    }

    void aPartOfOnesOwnTakesTheTypedNumbersAndKeepsTheRest() {
        const PartType &model = shippedLibrary().at("rx-868n");
        PartType own = ownTypeLike(model, "My receiver", shippedLibrary());
        QCOMPARE(own.id, std::string("own-my-receiver"));
        const auto fields = quickFields(own);
        const auto set = [&](std::string_view id, double value) {
            for (const auto &field : fields)
                if (field.id == id) {
                    field.set(own, value);
                    QVERIFY2(std::abs(*field.get(own) - value) < 1e-6, id.data());
                }
        };
        set("length", 22.5);
        set("width", 14);
        set("mass", 1.74);
        set("stands-up", 3.2);
        set("hangs-down", 0.8);
        const auto size = overallSize_mm(own);
        QVERIFY(size && std::abs(size->x() - 22.5) < 1e-6 && std::abs(size->y() - 14) < 1e-6);
        QVERIFY(std::abs(size->z() - (1.0 + 3.2 + 0.8)) < 1e-6); // its board is 1 mm thick
        QCOMPARE(own.mass_g.source, Source::measured);
        QVERIFY(own.radio == model.radio);
        QCOMPARE(own.ports.size(), model.ports.size());
        QVERIFY(std::abs(own.ports[0].position_mm.x() - 9.0 * 22.5 / 18) < 1e-6); // moved with the edge
    }
    void everyKindHasItsFieldsAndAPlainTypeOfItsOwn() {
        for (int k = 0; k <= int(PartKind::other); ++k) {
            const PartType plain = freshType(PartKind(k), "plain");
            for (const auto &fault : faultsOf(plain)) QVERIFY2(!fault.stops, fault.what.c_str());
            const auto fields = quickFields(plain);
            QVERIFY(fields.size() >= (PartKind(k) == PartKind::fastener ? 1u : 3u));
            for (const auto &field : fields) {
                PartType changed = plain;
                const auto now = field.get(changed);
                if (now && *now >= field.least) field.set(changed, *now); // what stands there is what it was
                if (now && *now >= field.least)
                    QVERIFY(std::abs(*field.get(changed) - *now) < 1e-6 * std::max(1.0, *now));
            }
        }
        for (const auto &[id, type] : shippedLibrary())
            for (const auto &field : quickFields(type))
                if (const auto now = field.get(type); now && *now > 0 && field.id != "cells") {
                    PartType larger = type;
                    field.set(larger, *now * 1.25);
                    const auto is = field.get(larger);
                    const bool inBand = field.id == "band"; // a band that holds the new middle stays
                    QVERIFY2(inBand || (is && std::abs(*is - *now * 1.25) < 1e-6 * *now),
                             (id + " " + std::string(field.id)).c_str());
                }
    }
};

QTEST_APPLESS_MAIN(TestCatalog)
#include "test_catalog.moc"
