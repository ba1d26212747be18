// Files that are broken in every way we could think of: each is refused with its place, what was expected and what was
// found.
#include "io/file_bytes.h"
#include "io/json/parse.h"
#include "support/builds.h"

#include <QTemporaryDir>
#include <fstream>
#include <nlohmann/json.hpp>

using namespace waxis;
using nlohmann::json;

namespace {

json demo() {
    static const json document = *io::parseJson(writeBuild(test::stakewalker()));
    return document;
}

} // namespace

class TestBadInput : public QObject {
    Q_OBJECT

private slots:
    void faultsNameTheirPlace_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<QString>("where");
        QTest::addColumn<QString>("words"); ///< that must appear in the message, separated by |
        auto changed = [](auto &&change) {
            json document = demo();
            change(document);
            return QString::fromStdString(document.dump());
        };
        QTest::newRow("empty") << ""
                               << "file"
                               << "an empty file";
        QTest::newRow("spaces") << "  \n\t"
                                << "file"
                                << "an empty file";
        QTest::newRow("binary") << QString(QChar(0)) + "PNG"
                                << "file"
                                << "binary data";
        QTest::newRow("truncated") << QString::fromStdString(demo().dump(1)).left(5000) << "line"
                                   << "valid JSON";
        QTest::newRow("not JSON") << "hello"
                                  << "line 1, column 1"
                                  << "valid JSON";
        QTest::newRow("trailing comma") << "{\n \"format\": 1,\n}"
                                        << "line 3, column 1"
                                        << "valid JSON";
        QTest::newRow("NaN") << "{\"name\": NaN}"
                             << "line 1, column 10"
                             << "valid JSON";
        QTest::newRow("huge number") << "{\"version\": 1e999}"
                                     << ""
                                     << "valid JSON|overflow";
        QTest::newRow("deep") << QString(100000, '[') << "file"
                              << "levels of nesting";
        QTest::newRow("key twice") << "{\"a\": 1, \"a\": 2}"
                                   << "file"
                                   << "each key once|\"a\" twice";
        QTest::newRow("a list") << "[1, 2]"
                                << "/"
                                << "an object|a list of 2";
        QTest::newRow("another format") << "{\"format\": \"elsewhere\"}"
                                        << "/format"
                                        << "weightaxis-build|elsewhere";
        QTest::newRow("no format") << "{}"
                                   << "/format"
                                   << "no such key";
        QTest::newRow("newer version") << changed([](json &d) { d["version"] = 2; }) << "/version"
                                       << "at most 1|the number 2|newer Weightaxis";
        QTest::newRow("version as text") << changed([](json &d) { d["version"] = "1"; }) << "/version"
                                         << "a whole number|the text \"1\"";
        QTest::newRow("version below one") << changed([](json &d) { d["version"] = -3; }) << "/version"
                                           << "at least 1";
        QTest::newRow("enormous version")
            << changed([](json &d) { d["version"] = 18446744073709551615ull; }) << "/version"
            << "a whole number";
        QTest::newRow("whole number beyond 63 bits")
            << changed([](json &d) { d["frame"]["plates"][0]["outline_mm"][1][0] = 18446744073709551615ull; })
            << "/frame/plates/0/outline_mm/1/0"
            << "up to 100000";
        QTest::newRow("missing key") << changed([](json &d) { d.erase("types"); }) << "/"
                                     << "the key \"types\"";
        QTest::newRow("misspelt key") << changed([](json &d) {
            d["tpyes"] = d["types"];
            d.erase("types");
        }) << "/"
                                      << "the key \"types\"|did you mean \"types\" by \"tpyes\"";
        QTest::newRow("number as text") << changed([](json &d) { d["parts"][3]["position_mm"][1] = "12"; })
                                        << "/parts/3/position_mm/1"
                                        << "a number|the text \"12\"";
        QTest::newRow("too few numbers") << changed([](json &d) {
            d["parts"][3]["position_mm"] = {1, 2};
        }) << "/parts/3/position_mm"
                                         << "at least 3|a list of 2";
        QTest::newRow("null") << changed([](json &d) { d["parts"][0]["name"] = nullptr; }) << "/parts/0/name"
                              << "text|nothing";
        QTest::newRow("negative mass") << changed([](json &d) {
            d["parts"][5]["mass_g"] = {{"value", -4}};
        }) << "/parts/5/mass_g/value"
                                       << "from 0|the number -4";
        QTest::newRow("too far away") << changed([](json &d) { d["parts"][5]["position_mm"][0] = 1e9; })
                                      << "/parts/5/position_mm/0"
                                      << "up to 100000";
        QTest::newRow("unknown word") << changed([](json &d) { d["types"][2]["kind"] = "batery"; }) << "/types/2/kind"
                                      << "one of|batery|did you mean \"battery\"";
        QTest::newRow("bad id") << changed([](json &d) { d["parts"][0]["id"] = "two words"; }) << "/parts/0/id"
                                << "letters, digits";
        QTest::newRow("id twice") << changed([](json &d) { d["parts"][4]["id"] = d["parts"][3]["id"]; })
                                  << "/parts/4/id"
                                  << "an id of its own";
        QTest::newRow("id of a plate again")
            << changed([](json &d) { d["parts"][4]["id"] = d["frame"]["plates"][0]["id"]; }) << "/parts/4/id"
            << "an id of its own";
        QTest::newRow("type twice") << changed([](json &d) { d["types"][1]["id"] = d["types"][0]["id"]; })
                                    << "/types/1/id"
                                    << "an id of its own";
        QTest::newRow("unknown type") << changed([](json &d) { d["parts"][0]["type"] = "motor-2808"; })
                                      << "/parts/0/type"
                                      << "did you mean \"motor-2807\"";
        QTest::newRow("unknown site") << changed([](json &d) { d["parts"][0]["site"] = "m9"; }) << "/parts/0/site"
                                      << "site or motor mount";
        QTest::newRow("unknown partner") << changed([](json &d) {
            d["parts"][0]["fastening"] = {{"onto", {"gone"}}};
        }) << "/parts/0/fastening/onto/0"
                                         << "which is not in the build";
        QTest::newRow("unknown part aboard")
            << changed([](json &d) { d["loadCases"][0]["aboard"][0] = "acma"; }) << "/loadCases/0/aboard/0"
            << "did you mean \"acam\"";
        QTest::newRow("unknown limit") << changed([](json &d) {
            d["practice"]["limits"] = {{"cg-ofset", 3}};
        }) << "/practice/limits/cg-ofset"
                                       << "did you mean \"cg-offset\"";
        QTest::newRow("stack on nothing")
            << changed([](json &d) { d["stacks"][0]["on"] = "site-top"; }) << "/stacks/0/on"
            << "hole pattern";
        QTest::newRow("stack without frame")
            << changed([](json &d) { d["stacks"][0]["layers"].erase(0); }) << "/stacks/0/layers"
            << "exactly one layer \"frame\"";
        QTest::newRow("part in two layers")
            << changed([](json &d) { d["stacks"][0]["layers"][2]["parts"][0] = "fc"; }) << "/stacks/0/layers/4/parts/0"
            << "each part in one layer";
        QTest::newRow("layer of nothing") << changed([](json &d) {
            d["stacks"][0]["layers"].push_back({{"role", "gap"}});
        }) << "/stacks/0/layers/6"
                                          << "height_mm";
        QTest::newRow("board of two") << changed([](json &d) {
            d["stacks"][0]["layers"][2]["parts"] = {"esc", "fc"};
        }) << "/stacks/0/layers/2/parts"
                                      << "one part|2";
        QTest::newRow("squeezed flat") << changed([](json &d) { d["stacks"][0]["layers"][1]["squeeze"] = 1.5; })
                                       << "/stacks/0/layers/1/squeeze"
                                       << "up to 0.9";
        QTest::newRow("stacked, not fastened so") << changed([](json &d) {
            for (auto &part : d["parts"])
                if (part["id"] == "esc") part["fastening"]["method"] = "tape";
        }) << "/stacks/0/layers/2/parts/0"
                                                  << "fastened by \"stack\"";
        QTest::newRow("stack through nothing")
            << changed([](json &d) { d["stacks"][0]["through"] = "plate-man"; }) << "/stacks/0/through"
            << "did you mean \"plate-main\"";
        QTest::newRow("no such thread") << changed([](json &d) {
            for (auto &type : d["types"])
                if (type["id"] == "screw-m3x22") type["fastener"]["thread"] = "M7";
        }) << "/types/27/fastener/thread"
                                        << "M1.6|\"M7\"";
        QTest::newRow("setting of a stranger")
            << changed([](json &d) { d["radioSettings"][0]["part"] = "vtz"; }) << "/radioSettings/0/part"
            << "did you mean \"vtx\"";
        QTest::newRow("no such band") << changed([](json &d) { d["radioSettings"][0]["band"] = 4; })
                                      << "/radioSettings/0/band"
                                      << "one of the part's";
        QTest::newRow("two settings of one band")
            << changed([](json &d) { d["radioSettings"].push_back(d["radioSettings"][0]); }) << "/radioSettings/2"
            << "one setting for each band";
        QTest::newRow("ground for nothing")
            << changed([](json &d) { d["groundStations"][0]["part"] = "fc"; }) << "/groundStations/0/band"
            << "0 radio bands";
        QTest::newRow("ground at no distance")
            << changed([](json &d) { d["groundStations"][0]["distance_m"] = 0; }) << "/groundStations/0/distance_m"
            << "0.1";
        QTest::newRow("trial of nothing")
            << changed([](json &d) { d["trials"][0]["part"] = "gsp"; }) << "/trials/0/part"
            << "did you mean \"gps\"";
        QTest::newRow("trial with a part's id")
            << changed([](json &d) { d["trials"][0]["id"] = "gps"; }) << "/trials/0/id"
            << "\"gps\" again";
        QTest::newRow("a scale without a reading") << changed([](json &d) {
            d["weighings"].push_back({{"id", "s"},
                                      {"name", "scales"},
                                      {"method", "scales"},
                                      {"points_mm", {{60, 60}, {60, -60}, {-80, 0}}},
                                      {"readings_g", {310, 295}}});
        }) << "/weighings/2/readings_g"
                                                   << "a reading for each of the 3 scales";
        QTest::newRow("weighed in no case")
            << changed([](json &d) { d["weighings"][0]["loadCase"] = "survoy"; }) << "/weighings/0/loadCase"
            << "did you mean \"survey\"";
        QTest::newRow("weighed by guess")
            << changed([](json &d) { d["weighings"][0]["method"] = "guess"; }) << "/weighings/0/method"
            << "total";
        QTest::newRow("a limit of nothing") << changed([](json &d) {
            d["weightLimits"] = {{{"id", "l"}, {"name", "l"}, {"most_g", 0}}};
        }) << "/weightLimits/0/most_g"
                                            << "0.001";
        QTest::newRow("channel outside") << changed([](json &d) {
            for (std::size_t i = 0; i < d["types"].size(); ++i)
                if (d["types"][i]["id"] == "vtx-58-1w") d["types"][i]["radio"][0]["channels"][1]["centre_MHz"] = 2400;
        }) << "/types/"
                                         << "channels/1/centre_MHz|between 5645 and 5945 MHz";
        QTest::newRow("garden hose") << changed([](json &d) {
            for (std::size_t i = 0; i < d["types"].size(); ++i)
                if (d["types"][i]["id"] == "ant-58-omni") d["types"][i]["antenna"]["coax"] = "hose";
        }) << "/types/"
                                     << "antenna/coax|rg178";
        QTest::newRow("pattern backwards") << changed([](json &d) {
            for (std::size_t i = 0; i < d["types"].size(); ++i)
                if (d["types"][i]["id"] == "ant-58-omni")
                    d["types"][i]["antenna"]["pattern"] = {{{"angle_deg", 90}, {"gain_dBi", 1}},
                                                           {{"angle_deg", 30}, {"gain_dBi", 2}}};
        }) << "/types/"
                                           << "antenna/pattern/1/angle_deg|more than the angle before";
        QTest::newRow("unknown profile") << changed([](json &d) { d["practice"]["profile"] = "sprnt"; })
                                         << "/practice/profile"
                                         << "did you mean \"sprint\"";
        QTest::newRow("no unit quaternion") << changed([](json &d) {
            d["parts"][0]["rotation"] = {1, 1, 0, 0};
        }) << "/parts/0/rotation"
                                            << "unit quaternion|length 1.414";
        QTest::newRow("direction of no length") << changed([](json &d) {
            d["frame"]["motorMounts"][0]["axis"] = {0, 0, 0};
        }) << "/frame/motorMounts/0/axis"
                                                << "length 1";
        QTest::newRow("outline without area") << changed([](json &d) {
            d["frame"]["plates"][0]["outline_mm"] = {{0, 0}, {10, 0}, {20, 0}};
        }) << "/frame/plates/0/outline_mm"
                                              << "encloses an area";
        QTest::newRow("bow tie") << changed([](json &d) {
            d["frame"]["plates"][0]["holes"] = json::array();
            d["frame"]["plates"][0].erase("cutouts_mm");
            d["frame"]["plates"][0]["outline_mm"] = {{0, 0}, {50, 50}, {50, 0}, {0, 40}};
        }) << "/frame/plates/0/outline_mm"
                                 << "cross";
        QTest::newRow("box without size") << changed([](json &d) {
            d["types"][0]["solids"][0] = {{"shape", "box"}};
        }) << "/types/0/solids/0"
                                          << "the key \"size_mm\"";
        QTest::newRow("box of no width") << changed([](json &d) {
            d["types"][0]["solids"][0] = {{"shape", "box"}, {"size_mm", {10, 0, 5}}};
        }) << "/types/0/solids/0/size_mm/1"
                                         << "from 0.001";
        QTest::newRow("arm of no length")
            << changed([](json &d) { d["frame"]["arms"][0]["tip_mm"] = d["frame"]["arms"][0]["root_mm"]; })
            << "/frame/arms/0/tip_mm"
            << "away from the root";
        QTest::newRow("standoff all bore")
            << changed([](json &d) { d["frame"]["standoffs"][0]["bore_mm"] = 99; }) << "/frame/standoffs/0/bore_mm"
            << "less than the diameter";
        QTest::newRow("slide ends crossed") << changed([](json &d) {
            d["parts"][0]["slide"] = {{"direction", {1, 0, 0}}, {"min_mm", 5}, {"max_mm", -5}};
        }) << "/parts/0/slide/min_mm"
                                            << "no more than max_mm";
    }
    void faultsNameTheirPlace() {
        QFETCH(QString, text);
        QFETCH(QString, where);
        QFETCH(QString, words);
        const auto loaded = parseBuild(text.toStdString());
        QVERIFY(!loaded);
        const auto message = QString::fromStdString(loaded.error().text());
        QVERIFY2(QString::fromStdString(loaded.error().where).startsWith(where), qPrintable(message));
        for (const auto &word : words.split('|')) QVERIFY2(message.contains(word), qPrintable(message));
    }
    void invalidUtf8IsRefused() { QVERIFY(!parseBuild("{\"name\": \"\xff\xfe\"}")); }
    void everyTruncationIsRefusedWithoutACrash() {
        const std::string text = demo().dump();
        for (std::size_t cut = 0; cut < text.size() - 1; cut += 613) QVERIFY(!parseBuild(text.substr(0, cut)));
    }
    void wrongTypesAnywhereAreRefusedWithAPointerToThem() {
        // Each value of the demo in turn becomes something of another kind. What is read past must be an unknown key:
        // there is none.
        const json document = demo(), flat = document.flatten();
        int tried = 0;
        for (const auto &[pointer, value] : flat.items()) {
            if (++tried % 41) continue; // every value would take minutes
            json broken = document;
            broken[json::json_pointer(pointer)] = value.is_object() ? json(3) : json{{"a", 1}};
            const auto loaded = parseBuild(broken.dump());
            QVERIFY2(!loaded, pointer.c_str());
            QVERIFY2(loaded.error().where == pointer || pointer == "/format" || pointer == "/version",
                     (pointer + " reported at " + loaded.error().text()).c_str());
        }
        QVERIFY(tried > 1000);
    }
    void filesThatAreNoFilesAreRefused() {
        QTemporaryDir folder;
        const std::string path = folder.path().toStdString();
        QVERIFY(!loadBuild(path + "/missing.waxis"));
        QVERIFY(!loadBuild(path));
        QVERIFY(!loadBuild("/dev/null"));
        const std::string large = path + "/large.waxis";
        std::ofstream(large) << "{";
        std::filesystem::resize_file(large, io::kLargestFile + 1); // sparse
        const auto loaded = loadBuild(large);
        QVERIFY(!loaded);
        QVERIFY(loaded.error().text().find("64 MB") != std::string::npos);
    }
    void badLibrariesAreRefused() {
        QVERIFY(!parseLibrary("{}"));
        QVERIFY(!parseLibrary(writeBuild(test::stakewalker())));
        auto library = json::parse(writeLibrary(*loadLibrary(WEIGHTAXIS_TEST_DATA "/parts/common.json")));
        library["types"][1]["id"] = library["types"][0]["id"];
        const auto loaded = parseLibrary(library.dump());
        QVERIFY(!loaded);
        QCOMPARE(loaded.error().where, std::string("/types/1/id"));
    }
};

QTEST_APPLESS_MAIN(TestBadInput)
#include "test_bad_input.moc"
