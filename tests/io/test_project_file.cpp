// Files keep what they are given: every field, unknown keys, the former version on disk.
#include "io/json/parse.h"
#include "io/json/schema.h"
#include "io/names.h"
#include "io/project/migrate.h"
#include "support/builds.h"
#include "support/bytes.h"
#include "support/every_field.h"
#include "support/faults.h"
#include "support/fields_seen.h"

#include <QTemporaryDir>
#include <filesystem>
#include <fstream>

using namespace waxis;
using io::parseJson;
using nlohmann::json;
using test::bytesOf;
using test::everyField;
using test::everyFieldOfTheFirstVersion;
using test::stakewalker;
namespace fs = std::filesystem;

class TestProjectFile : public QObject {
    Q_OBJECT
    QTemporaryDir folder_;
    fs::path path(const char *name) const { return fs::path(folder_.path().toStdString()) / name; }

private slots:
    void everyFieldComesBack() {
        const Build build = everyField();
        const auto text = writeBuild(build);
        const auto loaded = parseBuild(text);
        QVERIFY2(bool(loaded), loaded ? "" : loaded.error().text().c_str());
        QVERIFY(loaded->build == build);
        QVERIFY(loaded->warnings.empty());
        QCOMPARE(writeBuild(loaded->build, loaded->kept), text);
    }
    /// A new field has to be set in everyField(), so that the other tests here see it.
    void everyFieldSaysSomething() {
        test::FieldsSeen seen;
        const Build build = everyField();
        io::describe(seen, build);
        QStringList never;
        for (const auto &field : seen.neverStated()) never << QString::fromStdString(field);
        QVERIFY2(never.isEmpty(), qPrintable(never.join(", ")));
    }
    void everyFieldIsInTheSchema() {
        // A field that the writer knows and the published schema does not would come back as an unknown key.
        const auto document = parseJson(writeBuild(everyField()));
        QVERIFY(unknownKeys(*document, io::SchemaKind::build).empty());
        QVERIFY(!validate(*document, io::SchemaKind::build));
    }
    void practicesComeBackAndSlipsAreNamed() {
        const NamedPractice mine{"mine", {"lift", {{"tip-gap", 7.5}}, {{"battery", "aft"}}, {{"tip-gap", "wobbly"}}}};
        const auto text = writePractice(mine);
        const auto read = parsePractice(text);
        QVERIFY2(bool(read), read ? "" : read.error().text().c_str());
        QVERIFY(*read == mine);
        QCOMPARE(writePractice(*read), text);
        auto refused = [&](const char *from, const char *to) {
            auto broken = text;
            broken.replace(broken.find(from), std::string(from).size(), to);
            const auto result = parsePractice(broken);
            return result ? std::string() : result.error().where;
        };
        QCOMPARE(refused("\"tip-gap\": 7.5", "\"tip-gab\": 7.5"), std::string("/practice/limits/tip-gab"));
        QCOMPARE(refused("\"aft\"", "\"left\""), std::string("/practice/schools/battery"));
        QCOMPARE(refused("\"lift\"", "\"lifted\""), std::string("/practice/profile"));
        QCOMPARE(refused("7.5", "\"much\""), std::string("/practice/limits/tip-gap"));
    }
    void theFixtureOfVersionOneStillReadsTheSame() {
        // Written by version 0.1; stays as it is for ever.
        const fs::path fixture = WEIGHTAXIS_TEST_FIXTURES "/builds/v1-every-field.waxis";
        if (qEnvironmentVariableIsSet("WEIGHTAXIS_WRITE_FIXTURES"))
            std::ofstream(fixture) << writeBuild(everyFieldOfTheFirstVersion());
        const auto loaded = loadBuild(fixture);
        QVERIFY2(bool(loaded), loaded ? "" : loaded.error().text().c_str());
        QVERIFY(loaded->build == everyFieldOfTheFirstVersion());
    }
    void shippedFilesAreInStableForm() {
        for (const auto &entry : fs::directory_iterator(WEIGHTAXIS_TEST_DATA "/demos")) {
            const auto loaded = loadBuild(entry.path());
            QVERIFY2(bool(loaded), loaded ? "" : loaded.error().text().c_str());
            QVERIFY2(loaded->warnings.empty(), entry.path().c_str());
            QVERIFY2(writeBuild(loaded->build, loaded->kept) == bytesOf(entry.path()), entry.path().c_str());
        }
        for (const auto &entry : fs::directory_iterator(WEIGHTAXIS_TEST_DATA "/parts")) {
            const auto library = loadLibrary(entry.path());
            QVERIFY2(bool(library), library ? "" : library.error().text().c_str());
            QVERIFY2(writeLibrary(*library) == bytesOf(entry.path()), entry.path().c_str());
        }
    }
    void theLibraryIsPlausible() {
        const auto library = loadLibrary(WEIGHTAXIS_TEST_DATA "/parts/common.json");
        QVERIFY(library->types.size() >= 60);
        for (const auto &[id, type] : library->types) {
            QVERIFY2(!type.solids.empty() && !type.maker.empty(), id.c_str());
            // What is printed at home weighs what the printer made of it.
            QVERIFY2(type.mass_g.known() || type.kind == PartKind::mount, id.c_str());
            // Propellers are drawn as hubs and sets of screws as heads: the rest is in their disc, or in the plates.
            if (!type.mass_g.known() || type.kind == PartKind::propeller || type.kind == PartKind::fastener) continue;
            double volume_mm3 = 0;
            for (const auto &solid : type.solids) volume_mm3 += shapeProperties(solid.shape).volume_mm3;
            const double density = *type.mass_g.value / volume_mm3 * 1000;
            // From foam to a lump of copper (8.96 g/cm3) with its solder.
            QVERIFY2(density > 0.02 && density < 10, qPrintable(QString("%1: %2 g/cm3").arg(id.c_str()).arg(density)));
        }
    }
    void theDemosTypesAreThoseOfTheLibrary() {
        const auto library = loadLibrary(WEIGHTAXIS_TEST_DATA "/parts/common.json");
        const Build demo = test::stakewalker();
        for (const auto &[id, type] : *demo.types) {
            const auto at = library->types.find(id);
            QVERIFY2(at != library->types.end() && at->second == type, id.c_str());
        }
    }
    void unknownKeysAreKeptWhereTheyStood() {
        auto document = *parseJson(writeBuild(everyField()));
        document["colour"] = "heather";
        document["parts"][0]["bought"] = {{"when", "spring"}};
        document["frame"]["plates"][0]["supplier"] = "somewhere";
        document["types"][0]["solids"][1]["finish"] = 7;
        const auto loaded = parseBuild(document.dump());
        QVERIFY(bool(loaded));
        QCOMPARE(loaded->warnings.size(), std::size_t(4));
        const auto again = *parseJson(writeBuild(loaded->build, loaded->kept));
        QVERIFY(again == document);
        // They stay with their part when another one goes in before it.
        Build edited = loaded->build;
        edited.parts.insert(edited.parts.begin(), edited.parts[0]);
        edited.parts[0].id = "part-0";
        const auto shifted = *parseJson(writeBuild(edited, loaded->kept));
        QVERIFY(!shifted["parts"][0].contains("bought"));
        QVERIFY(shifted["parts"][1].contains("bought"));
    }
    void aMisspeltOptionalKeyIsPointedOut() {
        auto document = *parseJson(writeBuild(everyField()));
        document["parts"][0]["pined"] = true;
        const auto loaded = parseBuild(document.dump());
        QCOMPARE(loaded->warnings.size(), std::size_t(1));
        QCOMPARE(loaded->warnings[0].where, std::string("/parts/0/pined"));
        QVERIFY(loaded->warnings[0].message.find("\"pinned\"") != std::string::npos);
    }
    void migrationsRunStepByStep() {
        // Version 1 is the only one so far; the frame is tried with made-up steps.
        const io::MigrationStep steps[] = {[](json &d) { d["title"] = d["name"]; },
                                           [](json &d) { d["title"] = d["title"].get<std::string>() + "!"; }};
        const json one{{"format", "x"}, {"version", 1}, {"name", "n"}},
            two{{"format", "x"}, {"version", 2}, {"title", "t"}};
        const auto fromOne = io::migrate(one, "x", steps), fromTwo = io::migrate(two, "x", steps);
        QCOMPARE((*fromOne)["title"].get<std::string>(), std::string("n!"));
        QCOMPARE((*fromOne)["version"].get<int>(), 3);
        QCOMPARE((*fromTwo)["title"].get<std::string>(), std::string("t!"));
        const auto newer = io::migrate({{"format", "x"}, {"version", 4}}, "x", steps);
        QVERIFY(!newer);
        QCOMPARE(newer.error().where, std::string("/version"));
        QCOMPARE(int(io::buildMigrations().size()) + 1, kBuildFileVersion);
    }
    void wordsInTheSchemaAreThoseOfTheTables() {
        const json &definitions = io::schemaOf(io::SchemaKind::build)["definitions"];
        for (const auto &word : definitions["partType"]["properties"]["kind"]["enum"])
            QVERIFY(io::fromName<PartKind>(word.get<std::string>()).has_value());
        for (int i = 0; i <= int(PartKind::other); ++i) {
            const auto &words = definitions["partType"]["properties"]["kind"]["enum"];
            QVERIFY(std::find(words.begin(), words.end(), std::string(io::nameOf(PartKind(i)))) != words.end());
        }
        for (const auto &word : definitions["solid"]["properties"]["role"]["enum"])
            QVERIFY(io::fromName<SolidRole>(word.get<std::string>()).has_value());
        for (const auto &word : definitions["port"]["properties"]["kind"]["enum"])
            QVERIFY(io::fromName<PortKind>(word.get<std::string>()).has_value());
    }
};

QTEST_APPLESS_MAIN(TestProjectFile)
#include "test_project_file.moc"
