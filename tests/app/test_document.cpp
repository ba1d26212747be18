// The document behind the window: history, previews, files and recovery copies, without any widget.
#include "app/document/autosave.h"
#include "app/document/document.h"
#include "core/edits/case_edits.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "support/any_edit.h"
#include "support/faults.h"

#include <QElapsedTimer>
#include <QLocale>
#include <QRegularExpression>
#include <QScopeGuard>
#include <QSignalSpy>
#include <QTemporaryDir>
#include <clocale>
#include <locale>
#include <random>

using namespace waxis;
using namespace waxis::test;
using app::Document;

namespace {

const QString kDemo = WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis";

void openDemo(Document &document) {
    LoadError error;
    std::vector<LoadWarning> warnings;
    QVERIFY(document.open(kDemo, error, warnings));
}

double massNow(const Document &document) { return document.mass()->mass_g; }

} // namespace

class TestDocument : public QObject {
    Q_OBJECT

private slots:
    void editsCanBeUndoneWithoutEndAndHaveNames() {
        Document document;
        openDemo(document);
        std::vector<Build> states{document.build()};
        for (int i = 0; i < 200; ++i) {
            QVERIFY(document.edit(QString("Step %1").arg(i), shiftPart(document.build(), "gps", {0.5, 0, 0})));
            states.push_back(document.build());
        }
        QCOMPARE(document.history().count(), 200);
        QCOMPARE(document.history().undoText(), QString("Step 199"));
        for (int i = 199; i >= 0; --i) {
            document.history().undo();
            QVERIFY(document.build() == states[std::size_t(i)]);
        }
        QVERIFY(!document.isModified());
        document.history().setIndex(77);
        QVERIFY(document.build() == states[77]);
    }
    void nobodyIsToldOfAnythingByADocumentThatGoes() {
        // Its history is emptied as it goes: who then asked for what is chosen read memory that was given back.
        auto document = std::make_unique<Document>();
        openDemo(*document);
        document->select("gps");
        QVERIFY(document->edit("Step", shiftPart(document->build(), "gps", {0.5, 0, 0})));
        int told = 0;
        QObject::connect(&document->history(), &QUndoStack::indexChanged, [&] { ++told; });
        QObject::connect(&document->history(), &QUndoStack::cleanChanged, [&] { ++told; });
        QObject::connect(document.get(), &Document::stateChanged, [&] { ++told; });
        document.reset();
        QCOMPARE(told, 0);
    }
    void editsOfAllKindsAreTakenBackToTheByte() {
        // Seeded, so that a failure can be seen again.
        Document document;
        openDemo(document);
        std::mt19937 random(2026);
        const std::string start = writeBuild(document.build(), document.keptKeys());
        std::set<std::string> done;
        int edits = 0;
        for (int tries = 0; tries < 4000 && edits < 500; ++tries) {
            const Build build = document.build();
            if (build.parts.size() < 40) { // before nothing is left to edit
                document.history().undo();
                document.history().undo();
                continue;
            }
            const AnyEdit &any = everyEdit()[random() % everyEdit().size()];
            test::Draw draw(build, random);
            const EditResult edit = any.run(build, draw);
            const int before = document.history().index();
            if (edit && document.edit(any.name, edit) && document.history().index() > before) {
                ++edits;
                done.insert(any.name);
            }
        }
        QVERIFY2(edits == 500 && done.size() > 90,
                 qPrintable(QString("%1 edits of %2 kinds").arg(edits).arg(done.size())));
        const std::string end = writeBuild(document.build(), document.keptKeys());
        const int last = document.history().index();
        QVERIFY(parseBuild(end));
        document.history().setIndex(0);
        QCOMPARE(writeBuild(document.build(), document.keptKeys()), start);
        document.history().setIndex(last);
        QCOMPARE(writeBuild(document.build(), document.keptKeys()), end);
    }
    void decimalCommasOfTheSurroundingsChangeNoByte() {
        Document document;
        openDemo(document);
        const std::string bytes = writeBuild(document.build(), document.keptKeys());
        struct Commas : std::numpunct<char> {
            char do_decimal_point() const override { return ','; }
            char do_thousands_sep() const override { return '.'; }
            std::string do_grouping() const override { return "\3"; }
        };
        const std::locale before = std::locale::global(std::locale(std::locale::classic(), new Commas));
        QLocale::setDefault(QLocale(QLocale::German));
        std::setlocale(LC_ALL, "de_DE.UTF-8"); // where it is installed
        const auto back = qScopeGuard([&] {
            std::locale::global(before);
            QLocale::setDefault(QLocale::c());
        });
        QCOMPARE(writeBuild(document.build(), document.keptKeys()), bytes);
        const auto read = parseBuild(bytes);
        QVERIFY(read && read->build == document.build());
    }
    void theAnalysisFollowsEveryStateOfTheHistory() {
        Document document;
        openDemo(document);
        const double before = massNow(document);
        document.edit("weigh", weighPart(document.build(), "gps", measuredValue(100)));
        const double after = massNow(document);
        QVERIFY(std::abs(after - before - (100 - 9.9)) < 1e-9);
        document.history().undo();
        QCOMPARE(massNow(document), before);
    }
    void aRefusedEditChangesNothingAndIsReported() {
        Document document;
        openDemo(document);
        QSignalSpy refused(&document, &Document::refused), changed(&document, &Document::changed);
        QVERIFY(!document.edit("nothing", movePart(document.build(), "ghost", {})));
        QCOMPARE(refused.count(), 1);
        QCOMPARE(changed.count(), 0);
        QCOMPARE(document.history().count(), 0);
    }
    void anEditWithoutEffectLeavesNoStep() {
        Document document;
        openDemo(document);
        QVERIFY(document.edit("nothing", shiftPart(document.build(), "cam", {0, 0, 0})));
        QCOMPARE(document.history().count(), 0);
        QVERIFY(!document.isModified());
    }
    void previewsAreShownButNotKept() {
        Document document;
        openDemo(document);
        const Build before = document.build();
        document.preview(shiftPart(before, "gps", {30, 0, 0}));
        QVERIFY(document.isPreviewing());
        QVERIFY(!(document.build() == before));
        QVERIFY(!document.isModified());
        document.cancelPreview();
        QVERIFY(document.build() == before);
        document.preview(shiftPart(before, "gps", {30, 0, 0}));
        document.commitPreview("Move");
        QCOMPARE(document.history().count(), 1);
        QVERIFY(!document.isPreviewing());
    }
    void savingWhileDraggingWritesWhatIsKept() {
        QTemporaryDir folder;
        Document document;
        openDemo(document);
        const Build kept = document.build();
        document.preview(shiftPart(kept, "gps", {30, 0, 0}));
        SaveError error;
        QVERIFY(document.save(folder.filePath("a.waxis"), error));
        QVERIFY(loadBuild(folder.filePath("a.waxis").toStdString())->build == kept);
    }
    void quickNudgesMergeIntoOneStepAndOthersDoNot() {
        Document document;
        openDemo(document);
        document.edit("n", shiftPart(document.build(), "gps", {1, 0, 0}), "nudge/gps");
        document.edit("n", shiftPart(document.build(), "gps", {1, 0, 0}), "nudge/gps");
        QCOMPARE(document.history().count(), 1);
        document.edit("n", shiftPart(document.build(), "cam", {1, 0, 0}), "nudge/cam");
        QCOMPARE(document.history().count(), 2);
        document.edit("n", shiftPart(document.build(), "cam", {1, 0, 0}));
        QCOMPARE(document.history().count(), 3);
    }
    void aFailedOpenLeavesTheBuildItsPathAndItsHistory() {
        Document document;
        openDemo(document);
        document.edit("n", shiftPart(document.build(), "gps", {1, 0, 0}));
        const Build build = document.build();
        LoadError error;
        std::vector<LoadWarning> warnings;
        QVERIFY(!document.open(WEIGHTAXIS_TEST_FIXTURES "/bad/wrong-type.waxis", error, warnings));
        QCOMPARE(error.where, std::string("/parts"));
        QVERIFY(document.build() == build);
        QCOMPARE(document.history().count(), 1);
        QCOMPARE(document.path(), QFileInfo(kDemo).absoluteFilePath());
    }
    void theSelectionGoesWithThePart() {
        Document document;
        openDemo(document);
        document.select("buzzer");
        document.edit("remove", removePart(document.build(), "buzzer"));
        QVERIFY(document.selected().isEmpty());
        document.history().undo();
        QVERIFY(document.selectedPart() == nullptr);
    }
    void loadCasesAreChosenWithinTheirNumber() {
        Document document;
        openDemo(document);
        QSignalSpy changed(&document, &Document::loadCaseChanged);
        document.setLoadCase(1);
        QVERIFY(std::abs(massNow(document) - 950.1) < 0.06);
        document.setLoadCase(99);
        document.setLoadCase(-1);
        QCOMPARE(document.loadCase(), 1);
        QCOMPARE(changed.count(), 1);
    }
    void recoveryCopiesComeAndGoWithTheChanges() {
        QTemporaryDir folder;
        Document document;
        app::Autosave autosave(document, folder.path());
        openDemo(document);
        auto copies = [&] { return QDir(folder.path()).entryList({"*.waxis"}, QDir::Files).size(); };
        autosave.writeNow();
        QCOMPARE(copies(), 0); // nothing to lose yet
        document.edit("n", shiftPart(document.build(), "gps", {1, 0, 0}));
        autosave.writeNow();
        QCOMPARE(copies(), 1);
        QVERIFY(autosave.leftBehind().empty()); // its own is no leftover
        document.history().undo();
        QCOMPARE(copies(), 0); // back to what is on disk
    }
    void copiesOfRunningProgramsAreLeftAlone() {
        QTemporaryDir folder;
        auto put = [&](qint64 pid) { QFile::copy(kDemo, folder.filePath(QString("x%1.%1.waxis").arg(pid))); };
        put(QCoreApplication::applicationPid()); // another window of ours
        put(999999999);
        Document document;
        app::Autosave autosave(document, folder.path());
        const auto left = autosave.leftBehind();
        QCOMPARE(left.size(), std::size_t(1));
        QVERIFY(left[0].file.contains("999999999"));
        app::Autosave::discard(left[0]);
        QVERIFY(autosave.leftBehind().empty());
    }
    void aNumberThatAnotherProcessHasNowHidesNothing() {
        QTemporaryDir folder;
        const auto pid = QCoreApplication::applicationPid();
        QFile::copy(kDemo, folder.filePath(QString("x.%1.1.waxis").arg(pid))); // began with the machine: not this one
        Document document;
        app::Autosave autosave(document, folder.path());
        QCOMPARE(autosave.leftBehind().size(), std::size_t(1));
        // A second window of this very process is left alone.
        Document other;
        app::Autosave second(other, folder.path());
        openDemo(other);
        other.edit("n", shiftPart(other.build(), "gps", {1, 0, 0}));
        QVERIFY(second.writeNow());
        QCOMPARE(autosave.leftBehind().size(), std::size_t(1));
    }
    void steadyWorkIsKeptAtTheLatestAfterAWhile() {
        QTemporaryDir folder;
        Document document;
        app::Autosave autosave(document, folder.path(), {200, 600, 1000});
        openDemo(document);
        QElapsedTimer clock;
        clock.start();
        qint64 kept_ms = -1;
        while (clock.elapsed() < 2500 && kept_ms < 0) { // never as long a pause as it waits for
            document.edit("n", shiftPart(document.build(), "gps", {0.1, 0, 0}));
            QTest::qWait(40);
            if (!QDir(folder.path()).entryList({"*.waxis"}, QDir::Files).isEmpty()) kept_ms = clock.elapsed();
        }
        QVERIFY2(kept_ms > 0 && kept_ms < 1500, qPrintable(QString::number(kept_ms)));
    }
    void whatIsBeingDraggedIsNotInTheCopy() {
        QTemporaryDir folder;
        Document document;
        app::Autosave autosave(document, folder.path());
        openDemo(document);
        document.edit("n", shiftPart(document.build(), "gps", {1, 0, 0}));
        const Build kept = document.build();
        document.preview(shiftPart(document.build(), "gps", {50, 0, 0}));
        QVERIFY(autosave.writeNow()); // while the mouse is down
        const auto files = QDir(folder.path()).entryInfoList({"*.waxis"}, QDir::Files);
        QCOMPARE(files.size(), 1);
        QVERIFY(loadBuild(files[0].absoluteFilePath().toStdString())->build == kept);
    }
    void workThatCannotBeKeptIsSaidOnceAndAgainWhenItCan() {
        QTemporaryDir folder;
        QFile inTheWay(folder.filePath("unsaved"));
        QVERIFY(inTheWay.open(QIODevice::WriteOnly)); // a file where the folder should be
        Document document;
        app::Autosave autosave(document, folder.filePath("unsaved"));
        QSignalSpy failed(&autosave, &app::Autosave::failed), again(&autosave, &app::Autosave::keepsAgain);
        openDemo(document);
        document.edit("n", shiftPart(document.build(), "gps", {1, 0, 0}));
        QVERIFY(!autosave.writeNow() && !autosave.writeNow());
        QCOMPARE(failed.count(), 1);
        QVERIFY(failed[0][0].toString().contains("unsaved"));
        inTheWay.remove();
        QVERIFY(autosave.writeNow());
        QCOMPARE(again.count(), 1);
    }
    void aFullDiskUnderTheCopyIsSaidAndTheFormerCopyStays() {
        QTemporaryDir folder;
        Document document;
        app::Autosave autosave(document, folder.path());
        QSignalSpy failed(&autosave, &app::Autosave::failed);
        openDemo(document);
        document.edit("n", shiftPart(document.build(), "gps", {1, 0, 0}));
        const Build kept = document.build();
        QVERIFY(autosave.writeNow());
        document.edit("m", shiftPart(document.build(), "cam", {1, 0, 0}));
        {
            const test::FullDisk full{1000};
            QVERIFY(!autosave.writeNow());
        }
        QCOMPARE(failed.count(), 1);
        const auto files = QDir(folder.path()).entryInfoList({"*.waxis"}, QDir::Files);
        QCOMPARE(files.size(), 1);
        QVERIFY(loadBuild(files[0].absoluteFilePath().toStdString())->build == kept);
        QVERIFY(autosave.writeNow()); // there is room again
        QVERIFY(loadBuild(files[0].absoluteFilePath().toStdString())->build == document.build());
    }
    void copiesFromAClockThatWasAheadAreOffered() {
        QTemporaryDir folder;
        const QStringList names{"x.999999999.1.waxis", "y.999999998.1.waxis"};
        for (const auto &name : names) {
            QFile::copy(kDemo, folder.filePath(name));
            QFile::setPermissions(folder.filePath(name), QFile::ReadOwner | QFile::WriteOwner);
        }
        QFile ahead(folder.filePath(names[1]));
        QVERIFY(ahead.open(QIODevice::ReadWrite));
        QVERIFY(ahead.setFileTime(QDateTime::currentDateTime().addYears(1), QFileDevice::FileModificationTime));
        ahead.close();
        Document document;
        app::Autosave autosave(document, folder.path());
        const auto left = autosave.leftBehind();
        QCOMPARE(left.size(), std::size_t(2));
        QString reason;
        for (const auto &copy : left) QVERIFY2(autosave.recover(copy, reason), qPrintable(reason));
    }
    void afterRecoveryAFileThatChangedMeanwhileIsNotOverwritten() {
        QTemporaryDir folder;
        const QString file = folder.filePath("craft.waxis");
        QFile::copy(kDemo, file);
        QFile::setPermissions(file, QFile::ReadOwner | QFile::WriteOwner);
        app::Recovery left;
        {
            Document document;
            app::Autosave autosave(document, folder.filePath("unsaved"));
            LoadError error;
            std::vector<LoadWarning> warnings;
            QVERIFY(document.open(file, error, warnings));
            document.edit("n", shiftPart(document.build(), "gps", {1, 0, 0}));
            QVERIFY(autosave.writeNow());
        }
        // As if that window had been killed: its copy carries the number of a process that is gone.
        QDir unsaved(folder.filePath("unsaved"));
        for (const auto &name : unsaved.entryList(QDir::Files))
            unsaved.rename(name, QString(name).replace(QRegularExpression("\\.\\d+\\.\\d+\\."), ".999999999.1."));
        Document document;
        app::Autosave autosave(document, folder.filePath("unsaved"));
        QString reason;
        QCOMPARE(autosave.leftBehind().size(), std::size_t(1));
        QVERIFY(autosave.recover(autosave.leftBehind()[0], reason));
        SaveError error;
        // Untouched, the file is saved over without a question; changed, it is asked for.
        QVERIFY(document.save(file, error));
        document.edit("n", shiftPart(document.build(), "gps", {1, 0, 0}));
        QFile other(file);
        QVERIFY(other.open(QIODevice::Append));
        other.write(" ");
        other.close();
        QVERIFY(!document.save(file, error));
        QVERIFY(error.changedOnDisk);
    }
    void anEditThatCouldNotBeOpenedAgainIsRefused_data() {
        QTest::addColumn<int>("what");
        QTest::addColumn<QString>("says");
        QTest::newRow("150 m away") << 0 << "Buzzer, position";
        QTest::newRow("just within") << 1 << "";
        QTest::newRow("a name of 1,100 letters") << 2 << "name";
        QTest::newRow("99 t") << 3 << "Buzzer";
        QTest::newRow("300 cut-outs") << 4 << "";
        QTest::newRow("too many cut-outs") << 5 << "cutouts";
    }
    void anEditThatCouldNotBeOpenedAgainIsRefused() {
        QFETCH(int, what);
        QFETCH(QString, says);
        Document document;
        openDemo(document);
        Build next = document.build();
        Part &buzzer = *std::find_if(next.parts.begin(), next.parts.end(), [](Part &p) { return p.id == "buzzer"; });
        const auto holes = [&](int count) {
            next.frame.edit([&](Frame &frame) {
                Plate &plate = frame.plates.front();
                plate.outline_mm = {{0, 0}, {1000, 0}, {1000, 1000}, {0, 1000}};
                plate.cutouts_mm.clear();
                plate.holes.clear();
                for (int i = 0; i < count; ++i) {
                    const Vec2 at(5 + i % 60 * 10, 5 + i / 60 * 10);
                    plate.cutouts_mm.push_back({at, at + Vec2(4, 0), at + Vec2(4, 4), at + Vec2(0, 4)});
                }
            });
        };
        if (what == 0) buzzer.placement.pose.position_mm.x() = 150000;
        if (what == 1) buzzer.placement.pose.position_mm.x() = 100000;
        if (what == 2) buzzer.name = std::string(1100, 'x');
        if (what == 3) buzzer.mass_g = measuredValue(99999999);
        if (what == 4) holes(300);
        if (what == 5) holes(2500);
        QSignalSpy refused(&document, &Document::refused);
        QCOMPARE(document.edit("n", EditResult(next)), says.isEmpty());
        QCOMPARE(refused.count(), says.isEmpty() ? 0 : 1);
        if (!says.isEmpty()) QVERIFY2(refused[0][0].toString().contains(says), qPrintable(refused[0][0].toString()));
        // What was taken can be saved and opened.
        QTemporaryDir folder;
        SaveError error;
        QVERIFY(document.save(folder.filePath("x.waxis"), error));
        QVERIFY(loadBuild(folder.filePath("x.waxis").toStdString()));
    }
    void aBrokenCopyIsSaidAndKept() {
        QTemporaryDir folder;
        QFile::copy(WEIGHTAXIS_TEST_FIXTURES "/bad/truncated.waxis", folder.filePath("x.999999999.waxis"));
        Document document;
        app::Autosave autosave(document, folder.path());
        QString reason;
        QVERIFY(!autosave.recover(autosave.leftBehind().at(0), reason));
        QVERIFY(reason.contains("expected"));
        QCOMPARE(autosave.leftBehind().size(), std::size_t(1));
    }
};

QTEST_GUILESS_MAIN(TestDocument)
#include "test_document.moc"
