// The stable form of JSON texts, and what is made of words, files and the analysis.
#include "core/analysis/analysis.h"
#include "core/edits/part_edits.h"
#include "io/file_bytes.h"
#include "io/json/parse.h"
#include "io/json/schema.h"
#include "io/names.h"
#include "io/report_json/analysis_json.h"
#include "io/report_json/sum_json.h"
#include "support/builds.h"

#include <QTemporaryDir>
#include <fstream>
#include <nlohmann/json.hpp>
#include <regex>

using namespace waxis;
using io::parseJson;
using nlohmann::json;
using nlohmann::ordered_json;

namespace {

/// Every enumerator of a table comes back from its own name, and no two share one.
template <class E>
void namesRoundTrip(int last) {
    std::set<std::string_view> seen;
    for (int i = 0; i <= last; ++i) {
        const auto name = io::nameOf(E(i));
        QVERIFY(seen.insert(name).second);
        QCOMPARE(io::fromName<E>(name).value(), E(i));
    }
    QVERIFY(!io::fromName<E>("no such word"));
}

void collectKeys(const json &node, std::set<std::string> &keys) {
    if (node.is_object())
        for (const auto &[key, value] : node.items()) {
            keys.insert(key);
            collectKeys(value, keys);
        }
    if (node.is_array())
        for (const auto &value : node) collectKeys(value, keys);
}

} // namespace

class TestJsonText : public QObject {
    Q_OBJECT

private slots:
    void shortThingsStandOnOneLineLongOnesBelowEachOther() {
        const ordered_json value{{"name", "x"},
                                 {"at", {1, 2.5, -3}},
                                 {"list", {{{"a", 1}}, {{"b", {1, 2}}}}},
                                 {"none", ordered_json::array()}};
        QCOMPARE(io::prettyJson(value),
                 std::string("{\n \"name\": \"x\",\n \"at\": [1, 2.5, -3],\n \"list\": [\n  {\"a\": 1},\n  "
                             "{\"b\": [1, 2]}\n ],\n \"none\": []\n}\n"));
    }
    void numbersKeepEveryDigitAndNoMore() {
        for (double value : {0.1, 1.0 / 3, 123456789.125, 5e-324, 1e300, -0.3}) {
            const auto text = io::prettyJson(ordered_json(value));
            QCOMPARE(json::parse(text).get<double>(), value);
            QVERIFY(text.size() < 26);
        }
        QCOMPARE(io::prettyJson(ordered_json(0.1)), std::string("0.1\n"));
    }
    void prettyTextReadsBackAsTheSame() {
        const auto document = *parseJson(writeBuild(test::stakewalker()));
        QVERIFY(*parseJson(io::prettyJson(ordered_json(document))) == document);
    }
    void orderFollowsTheModelAndStrangersComeLast() {
        const ordered_json model{{"b", 1}, {"a", {{"y", 1}, {"x", 2}}}};
        const json value{{"a", {{"x", 5}, {"y", 6}, {"new", 7}}}, {"b", 8}, {"extra", 9}};
        QCOMPARE(io::orderedLike(model, value).dump(), std::string(R"({"b":8,"a":{"y":6,"x":5,"new":7},"extra":9})"));
    }
    void errorsCountLinesAndColumnsFromOne() {
        const auto where = [](const char *text) { return parseJson(text).error().where; };
        QCOMPARE(where("{]"), std::string("line 1, column 2"));
        QCOMPARE(where("{\n  \"a\": tru\n}"), std::string("line 2, column 11"));
        QCOMPARE(where("[1,\n\n2 3]"), std::string("line 3, column 3"));
    }
    void valuesAreDescribedAsAPersonSeesThem() {
        QCOMPARE(io::describeValue(nullptr), std::string("nothing (null)"));
        QCOMPARE(io::describeValue("abc"), std::string("the text \"abc\""));
        QCOMPARE(io::describeValue(12.5), std::string("the number 12.5"));
        QCOMPARE(io::describeValue(json::array({1, 2})), std::string("a list of 2"));
        QVERIFY(io::describeValue(std::string(500, 'x')).size() < 70);
    }
    void wordsOfAllTablesComeBack() {
        namesRoundTrip<Source>(int(Source::estimated));
        namesRoundTrip<SolidRole>(int(SolidRole::soft));
        namesRoundTrip<PatternShape>(int(PatternShape::rectangle));
        namesRoundTrip<PartKind>(int(PartKind::other));
        namesRoundTrip<PortKind>(int(PortKind::lamp));
        namesRoundTrip<Spin>(int(Spin::counterClockwise));
        namesRoundTrip<SiteKind>(int(SiteKind::mast));
        namesRoundTrip<HoleEdge>(int(HoleEdge::grommet));
        namesRoundTrip<FasteningMethod>(int(FasteningMethod::soldered));
        namesRoundTrip<Stage>(kStageCount - 1);
    }
    void filesAreReplacedInOneStep() {
        QTemporaryDir folder;
        const std::filesystem::path path = folder.filePath("a.txt").toStdString();
        QCOMPARE(io::replaceFile(path, "one"), std::string());
        QCOMPARE(io::replaceFile(path, "two"), std::string());
        QCOMPARE(*io::readFile(path, 100), std::string("two"));
        QCOMPARE(*io::readFile(path.string() + "~", 100), std::string("one"));
        QVERIFY(!io::readFile(path, 2)); // over the limit
        QCOMPARE(io::replaceFile(folder.filePath("b.txt").toStdString(), "x", false), std::string());
        QVERIFY(!QFile::exists(folder.filePath("b.txt~")));
        QVERIFY(!io::replaceFile(folder.filePath("no/such/c.txt").toStdString(), "x").empty());
    }
    void stampsTellFilesApart() {
        QVERIFY(io::stampOf("abc") == io::stampOf("abc"));
        QVERIFY(!(io::stampOf("abc") == io::stampOf("abd")));
        QVERIFY(!(io::stampOf("abc") == io::stampOf("abc ")));
        // FNV-1a of the empty string is its offset basis, and 64-bit "a" is tabulated (Fowler, Noll, Vo).
        QCOMPARE(io::stampOf("").hash, 14695981039346656037ull);
        QCOMPARE(io::stampOf("a").hash, 0xaf63dc4c8601ec8cull);
    }
    void everyKeyOfTheAnalysisIsDocumented() {
        std::ifstream in(WEIGHTAXIS_TEST_DATA "/../docs/format/analysis.md");
        const std::string page{std::istreambuf_iterator<char>(in), {}};
        const Build build = *acceptFinding(test::stakewalker(), "FIT-1:cam:plate-top", "foam");
        Analyser analyser;
        const Analysis &analysis = analyseFully(analyser, build);
        io::SlowParts slow;
        DrawSettings few;
        few.draws = 500;
        slow.balance = studyBalance(build, analysis, few);
        slow.packs.push_back({"pack", "survey", comparePacks(build, analysis.practice, "pack", 0, {})});
        QVERIFY(!slow.packs[0].options.empty() && !slow.balance->compromises.empty());
        json document = json::parse(io::analysisText(build, analysis, slow));
        document["practice"]["limits"] = {
            {"cg-offset", document["practice"]["limits"]["cg-offset"]}}; // names of limits are data
        document["practice"].erase("schools");                           // so are those of schools
        document["hardware"]["byMaterial_g"] = json::object();           // so are materials
        std::set<std::string> keys{"schools"};
        collectKeys(document, keys);
        keys.erase("cg-offset");
        QVERIFY(keys.size() > 50);
        for (const auto &key : keys)
            QVERIFY2(page.find("`" + key + "`") != std::string::npos ||
                         page.find("\"" + key + "\"") != std::string::npos,
                     key.c_str());
    }
    void theAnalysisHoldsNoBrokenNumbers() {
        Build build = test::stakewalker();
        for (auto &part : build.parts) part.mass_g = {};
        build.kit.clear();
        build.types.edit([](TypeTable &types) {
            for (auto &[id, type] : types) type.mass_g = {};
        });
        Analyser analyser;
        const std::string text = io::analysisText(build, analyser.update(build));
        QVERIFY(!std::regex_search(text, std::regex("\\b(nan|inf)\\b")));
        DrawSettings few;
        few.draws = 500;
        io::SlowParts slow;
        slow.balance = studyBalance(build, analyser.current(), few);
        slow.packs.push_back({"pack", "survey", comparePacks(build, analyser.current().practice, "pack", 0, {})});
        QVERIFY(!std::regex_search(io::analysisText(build, analyser.current(), slow), std::regex("\\b(nan|inf)\\b")));
        const auto first = json::parse(text)["loadCases"][0];
        QCOMPARE(first["unknownMasses"].get<int>(), 76); // every part aboard but the small pack
        QVERIFY(first["thrustToWeight"].is_number());    // plates, arms and standoffs still weigh something
        QVERIFY(!first["cg_mm"].is_null());
    }
    void typedValuesBecomeWhatTheyLookLike() {
        QVERIFY(std::holds_alternative<double>(io::sumValueFromText("12.5").held));
        QVERIFY(std::holds_alternative<SumList>(io::sumValueFromText("[1, [2, 3]]").held));
        QVERIFY(std::holds_alternative<bool>(io::sumValueFromText("true").held));
        QVERIFY(std::holds_alternative<std::string>(io::sumValueFromText("12,5 mm").held));
        QCOMPARE(io::sumValueText(SumList{1.0, 2.5, SumList{-0.0}}), std::string("[1, 2.5, [0]]"));
    }
};

QTEST_APPLESS_MAIN(TestJsonText)
#include "test_json_text.moc"
