// The document behind the window: history, previews, files and recovery copies, without any widget.
#include "app/shell/autosave.h"
#include "app/shell/document.h"
#include "support/builds.h"

#include <QSignalSpy>
#include <QTemporaryDir>

using namespace waxis;
using app::Document;

namespace {

const QString kDemo = WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis";

void openDemo(Document &document) {
    LoadError error;
    std::vector<LoadWarning> warnings;
    QVERIFY(document.open(kDemo, error, warnings));
}

double massNow(const Document &document) { return document.balance()->mass.mass_g; }

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
        QVERIFY(std::abs(massNow(document) - 938.4) < 0.05);
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
