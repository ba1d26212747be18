// Files keep what they are given: every field, unknown keys, the former version on disk.
#include "core/edits/case_edits.h"
#include "io/file_bytes.h"
#include "io/json/parse.h"
#include "io/json/schema.h"
#include "io/json/write_model.h"
#include "io/names.h"
#include "io/project/migrate.h"
#include "support/builds.h"
#include "support/faults.h"

#include <QTemporaryDir>
#include <chrono>
#include <filesystem>
#include <fstream>

using namespace waxis;
using io::parseJson;
using nlohmann::json;
using test::stakewalker;
namespace fs = std::filesystem;

namespace {

/// A build in which no field of version 0.1 has its standard value.
Build everyFieldOfTheFirstVersion() {
    Build build;
    build.name = "Every field";
    build.note = "größer als \"null\"\n";
    build.practice = {"sprint", {{"cg-offset", 1.5}}, {{"battery", "below"}}, {}};
    Frame frame;
    frame.name = "Frame";
    frame.layout = "quad-x";
    frame.layoutParameters = {{"arm_mm", 120.5}};
    MotorMount mount;
    mount.id = "m1";
    mount.position_mm = {100, 90, 1};
    mount.axis = Vec3(0, 0.6, 0.8);
    mount.propDiameter_mm = 127;
    mount.propPlane_mm = 21;
    mount.flexUp_mm = 11;
    mount.flexDown_mm = 7;
    mount.spin = Spin::counterClockwise;
    mount.pattern = {PatternShape::circle, 16, 0, 3.2, 3};
    frame.motorMounts = {mount};
    frame.arms = {{"arm-1", {1, 2, 3}, {100, 90, 1}, 14, 5, "glass", 40.0, {}, false, measuredValue(17, 0.1)}};
    Plate plate;
    plate.id = "main";
    plate.name = "Main plate";
    plate.outline_mm = {{-50, -20}, {50, -20}, {50, 20}, {-50, 20}};
    plate.holes = {{{30, 10}, 3.2}};
    plate.cutouts_mm = {{{-10, -5}, {0, -5}, {0, 5}}};
    plate.z_mm = -2;
    plate.thickness_mm = 2;
    plate.material = "mine";
    plate.isolated = true;
    plate.mass_g = {12.5, 0.5, Source::estimated};
    frame.plates = {plate};
    frame.standoffs = {{"so-1", StandoffRole::standoff, {20, 10, 0}, 25, 5, 3, "M2.5", "steel", catalogueValue(1.5)}};
    Site site;
    site.id = "deck";
    site.name = "Deck";
    site.kind = SiteKind::mast;
    site.X_FrameSite = {{1, 2, 3}, quaternionFrom({10, 20, 30})};
    site.on = "main";
    site.pattern = HolePattern{PatternShape::rectangle, 16, 19, 3.2, 4};
    site.isolated = true;
    frame.sites = {site};
    frame.passThroughs = {{"pass-1", "main", {{0, 0}, {4, 0}, {4, 4}}, HoleEdge::grommet}};
    frame.materials = {{"mine", 1.7, true, true}};
    build.frame = frame;

    PartType type;
    type.id = "type-1";
    type.name = "Type";
    type.maker = "Osier";
    type.kind = PartKind::gps;
    type.note = "remark";
    Solid box = test::solidBox({10, 20, 5}, {1, 2, 3});
    box.role = SolidRole::shield;
    box.material = "fr4";
    box.bare = true;
    box.X_PartSolid.rotation = quaternionFrom({0, 45, 0});
    Solid tube = box, ball = box, prism = box;
    tube.shape = Cylinder{4, 9};
    ball.shape = Sphere{6};
    prism.shape = Prism{{{{0, 0}, {9, 0}, {9, 9}, {0, 9}}, {{{2, 2}, {4, 2}, {4, 4}}}}, 1.6};
    type.solids = {box, tube, ball, prism};
    type.mass_g = catalogueValue(9.8, 0.2);
    type.centreOfMass_mm = Vec3(0.5, 0, 1);
    type.mounting = HolePattern{PatternShape::square, 20, 0, 2.2, 4};
    type.arrow = Vec3(0, 1, 0);
    type.ports = {
        {"uart", PortKind::socket, {5, 0, 1}, {0, 0, 1}, {6, 4, 3}, {{"5V", {}, false}, {"GND", {}, false}}, true}};
    type.hot = type.flexible = true;
    type.maxThrust_gf = catalogueValue(900);
    build.types = TypeTable{{type.id, type}};

    Part part;
    part.id = "part-1";
    part.type = type.id;
    part.name = "Part";
    part.placement = {"deck", {{1, 2, 3}, quaternionFrom({0, 0, 180})}, 0.4};
    part.fastening = {FasteningMethod::hookAndLoop, {"main"}, true, {}};
    part.mass_g = measuredValue(9.9, 0.1);
    part.optional = part.pinned = true;
    part.slide = SlideRange{{0, 1, 0}, -3, 4};
    build.parts = {part};
    build.allowances = {{"solder", "Solder", {4, 1, Source::estimated}, {0, 0, 5}}};
    build.loadCases = {{"all", "All", {"part-1"}, "part-1", true}};
    build.acceptances = {{"FIT-1:part-1:main", "foam"}};
    return build;
}

/// A build in which no field has its standard value.
Build everyField() {
    Build build = everyFieldOfTheFirstVersion();
    build.frame.edit([](Frame &frame) {
        frame.numbering = "own";
        frame.motorMounts[0].number = 3;
        frame.standoffs[0].role = StandoffRole::bobbin;
        frame.arms[0].foldAngle_deg = 75;
        frame.arms[0].foldsDown = true;
    });
    build.practice.notes = {{"cg-offset", "a slow craft"}};
    build.parts[0].fastening.pieces = 3;
    build.parts[0].note = "from the spare box";
    build.loadCases[0].kind = LoadCaseKind::bench;
    build.types.edit([](TypeTable &types) {
        PartType &type = types.begin()->second;
        type.turns = Spin::clockwise;
        type.propDiameter_mm = 127;
        type.carries = HolePattern{PatternShape::square, 25.5, 0, 2.2, 4};
        Electrical electrical;
        electrical.supplyMin_V = 4.5;
        electrical.supplyMax_V = 26;
        electrical.typical_A = catalogueValue(0.4, 0.1);
        electrical.peak_A = {0.9, std::nullopt, Source::estimated};
        electrical.outputs = {{"5v", 5, 2, 0.88}, {"3v3", 3.3, 0.3, std::nullopt}};
        electrical.continuous_A = 45;
        electrical.cells = 6;
        electrical.capacity_mAh = 1300;
        electrical.cellFull_V = 4.35;
        electrical.capacitance_uF = 470;
        electrical.rated_V = 35;
        type.electrical = electrical;
        type.radio = {{5645, 5945, 26, true, 20, 6, 30, 45, -18, 12, {{"3", 5740}, {"", 5780}}, "ant"},
                      {1575.42, 1575.42, {}, true, {}, {}, {}, {}, {}, {}, {}, ""}};
        type.clocks = {{"pixel clock", 27}};
        type.antenna = Antenna{AntennaKind::patch,
                               5600,
                               5950,
                               8,
                               Polarisation::leftCircular,
                               {1, 2, 3},
                               {0, 0.6, 0.8},
                               60,
                               "RP-SMA",
                               "rg316",
                               2.5,
                               {{0, 8}, {90, -3.5}}};
        type.camera = Camera{{1, 2, 3}, {0.8, 0, 0.6}, 120, 90, -5, 45};
        type.magnetics = Magnetics{{10, -20, 30}, true, Vec3(1, 2, 3)};
        type.leads = {{"uart", 150, 28, "1 mm plug"}};
        type.threadDepth_mm = catalogueValue(4.5, 0.2);
        type.fastener = FastenerData{FastenerForm::standoff, "M2.5", 8.5, HeadStyle::countersunk, 6, 3.5, 4};
        type.mustSeeSky = type.fragile = true;
        type.ports[0].pins.push_back({"TX", 3.3, true});
        type.ports[0].connector = "RP-SMA female";
        Solid skin = type.solids[0];
        skin.shape = Mesh{{{0, 0, 0}, {10, 0, 0}, {0, 10, 0}, {0, 0, 10}},
                          {{0, 2, 1}, {0, 1, 3}, {0, 3, 2}, {1, 2, 3}},
                          ShapeProperties{170, {2.4, 2.5, 2.6}, Mat3::Identity() * 900}};
        type.solids.push_back(skin);
    });
    build.parts[0].turns = Spin::counterClockwise;
    for (const char *id : {"board-1", "piece-1", "screw-1"}) {
        Part member = build.parts[0];
        member.id = id;
        member.placement.site = "deck";
        member.fastening = {FasteningMethod::stack, {}, false, {}};
        build.parts.push_back(member);
    }
    Wire wire;
    wire.id = "wire-1";
    wire.name = "Loom";
    wire.from = {"part-1", "uart"};
    wire.to = {"screw-1", "uart"};
    wire.cores = {{"5V", "5V", 26, "orange"}, {"TX", "TX", {}, {}}};
    wire.lay = WireLay::shielded;
    wire.gauge_AWG = 28;
    wire.twistPitch_mm = 14;
    wire.make = WireMake::readyMade;
    wire.readyMade_mm = 120;
    wire.stops = {{"tie-1", Vec3::Zero()}, {std::string(), Vec3(1, 2, 3)}};
    wire.bundle = "loom";
    wire.splices = 2;
    wire.sleeved = true;
    build.wires = {wire};
    build.ties = {{"tie-1", Vec3(4, 5, 6)}};
    build.radioSettings = {{"part-1", 1, 1575.42, std::nullopt}, {"part-1", 0, 5740, 14}};
    build.groundStations = {
        {"ground-1", "Handset", "part-1", 0, 7.5, Polarisation::rightCircular, 1200, 2.5, 60, 20, 5, 9}};
    build.trials = {{"trial-1", "Mast", "part-1", {Vec3(7, 8, 9), Quat(0.6, 0, 0, 0.8)}}};
    build.weighings = {{"scale-1",
                        "On the scale",
                        build.loadCases.empty() ? std::string() : build.loadCases[0].id,
                        WeighingMethod::total,
                        measuredValue(812.5, 0.5),
                        {},
                        {},
                        0.75,
                        {},
                        1.5},
                       {"scales-1",
                        "Three scales",
                        {},
                        WeighingMethod::scales,
                        {},
                        {{60, 60}, {60, -60}, {-80, 0}},
                        {310, 295, 402},
                        1,
                        {},
                        2},
                       {"rod-1", "Rod", {}, WeighingMethod::lines, {}, {}, {}, 1, {{{3, 4}, 90}, {{1, 2}, -5}}, 1}};
    build.weightLimits = {{"limit-1", "Class", 249.5, {}}};
    Stack stack;
    stack.id = "stack-1";
    stack.name = "Controller";
    stack.on = "deck";
    stack.through = "main";
    stack.hold = StackHold::ties;
    stack.screws = {"screw-1"};
    stack.headsOutside = true;
    stack.end = ScrewEnd::frame;
    stack.threadDepth_mm = measuredValue(3.5, 0.1);
    stack.layers = {{LayerRole::frame, {}, {}, 0, {}},
                    {LayerRole::damper, {"piece-1"}, measuredValue(3.9, 0.2), 0.15, 2.5},
                    {LayerRole::board, {"board-1"}, {}, 0, {}},
                    {LayerRole::wires, {}, {2.0, std::nullopt, Source::estimated}, 0, {}}};
    build.stacks = {stack};
    KitEntry entry;
    entry.item = "type-1";
    entry.inHand = 2;
    entry.mass_g = measuredValue(9.7, 0.1);
    entry.size_mm = Vec3(10.1, 20.2, 5.3);
    entry.checked = entry.arrowConfirmed = entry.pinsConfirmed = true;
    entry.note = "the blue one";
    build.kit = {entry};
    return build;
}

std::string bytesOf(const fs::path &path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

} // namespace

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
    void savingKeepsTheFormerFileAndLeavesNothingElse() {
        const auto file = path("a.waxis");
        Build build = everyField();
        QVERIFY(bool(saveBuild(file, build)));
        const auto first = bytesOf(file);
        build.name = "Second";
        QVERIFY(bool(saveBuild(file, build)));
        QCOMPARE(bytesOf(path("a.waxis~")), first);
        QVERIFY(loadBuild(file)->build == build);
        QCOMPARE(std::distance(fs::directory_iterator(file.parent_path()), {}), std::ptrdiff_t(2));
    }
    void whatCouldNotBeOpenedAgainIsNotWritten_data() {
        QTest::addColumn<int>("what");
        QTest::addColumn<QString>("says");
        QTest::newRow("150 m away") << 0 << "Survey pack, position: a number from -100000 up to 100000 is wanted";
        QTest::newRow("a name of 1,100 letters") << 1 << "name";
        QTest::newRow("99 t") << 2 << "mass";
        QTest::newRow("onto something that is not there") << 3 << "nowhere";
        QTest::newRow("an id twice") << 4 << "again";
    }
    void whatCouldNotBeOpenedAgainIsNotWritten() {
        QFETCH(int, what);
        QFETCH(QString, says);
        QTemporaryDir folder;
        const fs::path path = folder.filePath("b.waxis").toStdString();
        const Build good = stakewalker();
        QVERIFY(saveBuild(path, good) && saveBuild(path, *renameBuild(good, "second")));
        const auto bytes = io::readFile(path, 1 << 24), backup = io::readFile(path.string() + "~", 1 << 24);
        QVERIFY(bytes && backup);
        Build bad = good;
        Part &pack = *std::find_if(bad.parts.begin(), bad.parts.end(), [](Part &p) { return p.name == "Survey pack"; });
        if (what == 0) pack.placement.pose.position_mm.x() = 150000;
        if (what == 1) pack.name = std::string(1100, 'x');
        if (what == 2) pack.mass_g = measuredValue(99999999);
        if (what == 3) pack.fastening.onto = {"nowhere"};
        if (what == 4) bad.parts.push_back(pack);
        const auto saved = saveBuild(path, bad);
        QVERIFY(!saved);
        QVERIFY2(QString::fromStdString(saved.error().reason).contains(says), saved.error().reason.c_str());
        QVERIFY(!saved.error().changedOnDisk && !saved.error().readOnly);
        QCOMPARE(*io::readFile(path, 1 << 24), *bytes);
        QCOMPARE(*io::readFile(path.string() + "~", 1 << 24), *backup);
        QVERIFY(whyNotKept(bad) && !whyNotKept(good));
        // Libraries and practices likewise.
        PartLibrary library;
        library.name = std::string(1100, 'x');
        QVERIFY(!saveLibrary(folder.filePath("l.json").toStdString(), library).empty());
        QVERIFY(!savePractice(folder.filePath("p.wpractice").toStdString(), {"", {"nobody's", {}, {}, {}}}).empty());
        QVERIFY(!fs::exists(folder.filePath("l.json").toStdString()) &&
                !fs::exists(folder.filePath("p.wpractice").toStdString()));
    }
    void readOnlyFilesAreAskedFor() {
        QTemporaryDir folder;
        const fs::path path = folder.filePath("b.waxis").toStdString();
        QVERIFY(saveBuild(path, stakewalker()));
        fs::permissions(path, fs::perms::owner_read);
        const auto refused = saveBuild(path, stakewalker());
        QVERIFY(!refused && refused.error().readOnly);
        QVERIFY(saveBuild(path, stakewalker(), {}, {}, true));
        QCOMPARE(fs::status(path).permissions(), fs::perms::owner_read); // as it was
    }
    void whatKilledWritersLeftIsTakenAway() {
        using namespace std::chrono_literals;
        QTemporaryDir folder;
        const fs::path path = folder.filePath("b.waxis").toStdString();
        const auto put = [&](const std::string &name, std::chrono::seconds age) {
            const fs::path file = folder.filePath(QString::fromStdString(name)).toStdString();
            std::ofstream(file) << "half";
            fs::last_write_time(file, fs::file_time_type::clock::now() - age);
            return file;
        };
        const auto dead = put("b.waxis.unfinished-aB3xY9", 2min), busy = put("b.waxis.unfinished-aB3xY8", 1s),
                   other = put("c.waxis.unfinished-aB3xY9", 2min), own = put("b.waxis.unfinished-notes", 2min);
        QVERIFY(saveBuild(path, stakewalker()));
        QVERIFY(!fs::exists(dead));
        QVERIFY(fs::exists(busy) && fs::exists(other) && fs::exists(own));
    }
    void savingNoticesThatTheFileChangedOnDisk() {
        const auto file = path("b.waxis");
        const Build build = everyField();
        const auto stamp = saveBuild(file, build);
        QVERIFY(bool(saveBuild(file, build, {}, *stamp)));
        std::ofstream(file, std::ios::app) << " ";
        const auto refused = saveBuild(file, build, {}, *stamp);
        QVERIFY(!refused && refused.error().changedOnDisk);
        QVERIFY(bytesOf(file).back() == ' '); // untouched
    }
    void savingFollowsLinksAndKeepsPermissions() {
        const auto file = path("real.waxis"), link = path("link.waxis");
        QVERIFY(bool(saveBuild(file, everyField())));
        fs::permissions(file, fs::perms(0640));
        fs::create_symlink(file, link);
        Build build = everyField();
        build.name = "Through the link";
        QVERIFY(bool(saveBuild(link, build)));
        QVERIFY(fs::is_symlink(link));
        QCOMPARE(loadBuild(file)->build.name, build.name);
        QCOMPARE(unsigned(fs::status(file).permissions()), 0640u);
    }
    void aFolderThatCannotBeWrittenIsSaidAndNothingIsLost() {
        const auto refused = saveBuild(path("no/such/folder/a.waxis"), everyField());
        QVERIFY(!refused);
        QVERIFY(!refused.error().reason.empty());
        fs::create_directory(path("folder.waxis"));
        QVERIFY(!saveBuild(path("folder.waxis"), everyField()));
    }
    void aFullDiskIsSaidAndTheFormerFileStays_data() {
        QTest::addColumn<int>("bytes");
        QTest::newRow("not a byte") << 0;
        QTest::newRow("half of it") << 2000;
    }
    void aFullDiskIsSaidAndTheFormerFileStays() {
        QFETCH(int, bytes);
        QTemporaryDir folder;
        const fs::path file = folder.filePath("b.waxis").toStdString(), copy = file.string() + "~";
        const Build good = stakewalker();
        QVERIFY(saveBuild(file, good) && saveBuild(file, *renameBuild(good, "second")));
        const auto whole = bytesOf(file), backup = bytesOf(copy);
        QVERIFY(whole.size() > std::size_t(bytes) && backup.size() > std::size_t(bytes));
        {
            const test::FullDisk full{rlim_t(bytes)};
            const auto saved = saveBuild(file, *renameBuild(good, "third"));
            QVERIFY(!saved && !saved.error().reason.empty());
            constexpr int kPractice = 500; // bytes that one takes at most
            const auto fault = savePractice(folder.filePath("p.wpractice").toStdString(), {"mine", {}});
            QCOMPARE(fault.empty(), bytes > kPractice);
        }
        QCOMPARE(bytesOf(file), whole);
        QCOMPARE(bytesOf(copy), backup);
        QVERIFY(std::distance(fs::directory_iterator(file.parent_path()), {}) <= 3); // nothing half written stays
        QVERIFY(saveBuild(file, *renameBuild(good, "third")));
    }
    void rightsThatWereTakenAwayAreSaid() {
        QTemporaryDir folder;
        const fs::path inside = folder.filePath("shop").toStdString(), file = inside / "b.waxis";
        fs::permissions(folder.path().toStdString(), fs::perms(0755));
        fs::create_directory(inside);
        QVERIFY(bool(saveBuild(file, stakewalker())));
        const auto whole = bytesOf(file);
        fs::permissions(inside, fs::perms(0555));
        {
            const test::NobodyInParticular nobody;
            const auto saved = saveBuild(file, *renameBuild(stakewalker(), "second"));
            QVERIFY(!saved && !saved.error().reason.empty());
            QCOMPARE(bytesOf(file), whole); // and can still be read
        }
        fs::permissions(inside, fs::perms(0755));
        QCOMPARE(std::distance(fs::directory_iterator(inside), {}), std::ptrdiff_t(1));
    }
    void aClockThatWasSetBackLosesNothing() {
        // What was written "in the future" is nobody's litter, and saving goes on.
        using namespace std::chrono_literals;
        QTemporaryDir folder;
        const fs::path file = folder.filePath("b.waxis").toStdString();
        const fs::path other = folder.filePath("b.waxis.unfinished-aB3xY9").toStdString();
        const auto stamp = saveBuild(file, stakewalker());
        QVERIFY(bool(stamp));
        std::ofstream(other) << "half";
        for (const auto &ahead : {file, other}) fs::last_write_time(ahead, fs::file_time_type::clock::now() + 8760h);
        QVERIFY(bool(saveBuild(file, *renameBuild(stakewalker(), "second"), {}, *stamp))); // by its bytes, not its time
        QVERIFY(fs::exists(other));
        QCOMPARE(loadBuild(file)->build.name, std::string("second"));
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
