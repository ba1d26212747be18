// Saving keeps what was there: the former file, links, rights, full disks, clocks.
#include "core/edits/case_edits.h"
#include "io/file_bytes.h"
#include "io/json/parse.h"
#include "io/project/migrate.h"
#include "support/builds.h"
#include "support/bytes.h"
#include "support/every_field.h"
#include "support/faults.h"

#include <QTemporaryDir>
#include <chrono>
#include <filesystem>
#include <fstream>

using namespace waxis;
using io::parseJson;
using nlohmann::json;
using test::bytesOf;
using test::everyField;
using test::stakewalker;
namespace fs = std::filesystem;

class TestSaving : public QObject {
    Q_OBJECT
    QTemporaryDir folder_;
    fs::path path(const char *name) const { return fs::path(folder_.path().toStdString()) / name; }

private slots:
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
};

QTEST_APPLESS_MAIN(TestSaving)
#include "test_saving.moc"
