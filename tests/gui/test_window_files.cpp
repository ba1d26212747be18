// Files in the real window: saved, changed on disk, broken, dropped, recovered, remembered.
#include "app/stages/place/place_view.h"
#include "gui/window_fixture.h"

#include "app/document/data_files.h"
#include "app/shell/command_palette.h"
#include "app/shell/stage_rail.h"
#include "app/shell/sum_sheet.h"
#include "app/widgets/file_dialogs.h"
#include "core/analysis/analysis.h"
#include "core/edits/part_edits.h"
#include "core/rules/rule.h"
#include "core/wiring/routing.h"

#include <QDir>
#include <QDropEvent>
#include <QFileDialog>
#include <QLineEdit>
#include <QMenu>
#include <QMessageBox>
#include <QMimeData>
#include <QProcess>
#include <QPushButton>
#include <QScopeGuard>
#include <QSessionManager>
#include <QStandardPaths>

using namespace waxis;
using app::FindingAction;
using test::WindowFixture;

namespace {

bool choose(WindowFixture &f, const QString &text) {
    for (auto *button : f.window->notices().findChildren<QPushButton *>())
        if (button->text() == text && button->isVisible()) {
            QTest::mouseClick(button, Qt::LeftButton);
            return true;
        }
    return false;
}

QByteArray bytesOf(const QString &path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
}

} // namespace

class TestWindowFiles : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }
    void savingWritesTheFileAndReopeningShowsTheSame() {
        WindowFixture f;
        f.dragBy("gps", {12, 5});
        f.drop();
        QVERIFY(f.window->isWindowModified());
        const Build edited = f.document().build();
        const QByteArray before = bytesOf(f.file());
        QTest::keyClick(f.window.get(), Qt::Key_S, Qt::ControlModifier);
        QVERIFY(!f.window->isWindowModified());
        QVERIFY(bytesOf(f.file()) != before);
        QCOMPARE(bytesOf(f.file() + "~"), before);
        QVERIFY(loadBuild(f.file().toStdString())->build == edited);
        const QString axis = f.axisText();
        QVERIFY(f.window->openFile(f.file()));
        QCOMPARE(f.axisText(), axis);
        f.document().select("gps");
        QTest::keyClick(&f.plan(), Qt::Key_Right);
        QTest::keyClick(f.window.get(), Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(!f.window->isWindowModified()); // undone to what is on disk
    }
    void aFileThatChangedOnDiskIsNotOverwrittenUnasked() {
        WindowFixture f;
        f.document().select("gps");
        QTest::keyClick(&f.plan(), Qt::Key_Right);
        QFile file(f.file());
        QVERIFY(file.open(QIODevice::Append));
        file.write("\n");
        file.close();
        const QByteArray theirs = bytesOf(f.file());
        QTest::keyClick(f.window.get(), Qt::Key_S, Qt::ControlModifier);
        QCOMPARE(bytesOf(f.file()), theirs);
        QVERIFY(f.window->notices().text().contains("changed on disk"));
        QVERIFY(choose(f, "Overwrite"));
        QVERIFY(bytesOf(f.file()) != theirs);
        QVERIFY(!f.document().isModified());
    }
    void aBrokenFileLeavesTheOpenBuildAlone() {
        WindowFixture f;
        const QString axis = f.axisText();
        for (const auto &info : QDir(WEIGHTAXIS_TEST_FIXTURES "/bad").entryInfoList({"*.waxis"}, QDir::Files)) {
            QVERIFY(!f.window->openFile(info.absoluteFilePath()));
            QVERIFY(f.window->notices().text().contains("expected"));
            QCOMPARE(f.axisText(), axis);
            QCOMPARE(f.document().path(), f.file());
        }
    }
    void filesCanBeDroppedOnTheWindow() {
        WindowFixture f;
        const QString other = f.folder.filePath("other.waxis");
        Build build = test::bareQuad();
        QVERIFY(bool(saveBuild(other.toStdString(), build)));
        QMimeData mime;
        mime.setUrls({QUrl::fromLocalFile(other)});
        QDragEnterEvent enter(QPoint(300, 300), Qt::CopyAction, &mime, Qt::LeftButton, {});
        QApplication::sendEvent(f.window.get(), &enter);
        QVERIFY(enter.isAccepted());
        QDropEvent drop(QPointF(300, 300), Qt::CopyAction, &mime, Qt::LeftButton, {});
        QApplication::sendEvent(f.window.get(), &drop);
        QCOMPARE(f.document().title(), QString("Bare quad"));
        QVERIFY(f.axisText().contains("nothing weighed"));
    }
    void openingAnotherBuildAsksAboutChanges() {
        WindowFixture f;
        f.document().edit("move", shiftPart(f.document().build(), "gps", {1, 0, 0}));
        const Build changed = f.document().build();
        int asked = 0;
        auto answer = [&](QMessageBox::StandardButton button) {
            QTimer::singleShot(100, f.window.get(), [&asked, button] {
                if (auto *box = qobject_cast<QMessageBox *>(QApplication::activeModalWidget())) {
                    ++asked;
                    box->button(button)->click();
                }
            });
        };
        QMimeData data;
        data.setUrls({QUrl::fromLocalFile(WEIGHTAXIS_TEST_DATA "/demos/kilnlamp.waxis")});
        auto drop = [&] {
            QDragEnterEvent enter(QPoint(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
            QApplication::sendEvent(f.window.get(), &enter);
            QDropEvent event(QPointF(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
            QApplication::sendEvent(f.window.get(), &event);
        };
        answer(QMessageBox::Cancel);
        drop();
        QCOMPARE(asked, 1);
        QVERIFY(f.document().build() == changed); // nothing lost
        answer(QMessageBox::Discard);
        drop();
        QCOMPARE(asked, 2);
        QCOMPARE(f.document().title(), QString("Kilnlamp"));
    }
    void workIsRecoveredAfterACrash() {
        QTemporaryDir unsaved;
        Build edited;
        QString original;
        {
            WindowFixture f;
            f.document().select("gps");
            QTest::keyClick(&f.plan(), Qt::Key_Right);
            f.window->autosave().writeNow();
            edited = f.document().build();
            original = f.document().path();
            // A process that no longer runs left these behind: the number in their names is no process.
            for (const auto &info : QDir(f.folder.filePath("unsaved")).entryInfoList(QDir::Files)) {
                auto parts = info.fileName().split('.');
                parts[1] = "999999999";
                QVERIFY(QFile::copy(info.absoluteFilePath(), unsaved.filePath(parts.join('.'))));
            }
        }
        QCOMPARE(QDir(unsaved.path()).entryList(QDir::Files).size(), 2);
        theme::Theme theme(theme::Mode::light);
        app::MainWindow window(theme, unsaved.path());
        window.show();
        window.offerRecovery();
        QVERIFY(window.notices().text().contains("Stakewalker"));
        for (auto *button : window.notices().findChildren<QPushButton *>())
            if (button->text() == "Recover") QTest::mouseClick(button, Qt::LeftButton);
        QVERIFY(window.document().build() == edited);
        QCOMPARE(window.document().path(), original);
        QVERIFY(window.document().isModified());
        QCOMPARE(QDir(unsaved.path()).entryList({"*.waxis"}, QDir::Files).size(), 1); // its own copy now
        window.document().history().setClean();
    }
    void unknownKeysSurviveTheWindow() {
        WindowFixture f;
        QByteArray text = bytesOf(f.file());
        text.insert(text.indexOf('{') + 1, "\"heather\": [1, 2],");
        QFile file(f.file());
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write(text);
        file.close();
        QVERIFY(f.window->openFile(f.file()));
        QVERIFY(f.window->notices().text().contains("/heather"));
        f.document().select("gps");
        QTest::keyClick(&f.plan(), Qt::Key_Right);
        f.window->autosave().writeNow();
        for (const auto &info : QDir(f.folder.filePath("unsaved")).entryInfoList({"*.waxis"}, QDir::Files))
            QVERIFY2(bytesOf(info.absoluteFilePath()).contains("heather"), "recovery must not lose them either");
        QTest::keyClick(f.window.get(), Qt::Key_S, Qt::ControlModifier);
        QVERIFY(bytesOf(f.file()).contains("heather"));
    }
    void fileDialogsKeepAFolderForEachKindAndAskBeforeTheyReplace() {
        WindowFixture f;
        QDir(f.folder.path()).mkdir("builds");
        const QString folder = f.folder.filePath("builds");
        QString shown, asked;
        const auto type = [&](const QString &path) { // in the dialog that opens next
            QTimer::singleShot(300, [&, path] {
                auto *dialog = qobject_cast<QFileDialog *>(QApplication::activeModalWidget());
                if (!dialog) return;
                shown = dialog->directory().absolutePath();
                if (path.isEmpty()) return dialog->reject();
                auto *name = dialog->findChild<QLineEdit *>("fileNameEdit");
                name->setText(path);
                QTimer::singleShot(300, [&] { // replacing is asked for, with the ending that was not typed
                    auto *box = qobject_cast<QMessageBox *>(QApplication::activeModalWidget());
                    if (!box) return;
                    asked = box->text();
                    box->button(QMessageBox::No)->click();
                    if (auto *again = qobject_cast<QFileDialog *>(QApplication::activeModalWidget())) again->reject();
                });
                QTest::keyClick(name, Qt::Key_Return);
            });
        };
        const QString builds = "Weightaxis builds (*.waxis)", drawings = "Drawings (*.dxf)";
        type(folder + "/mine");
        QCOMPARE(app::askSavePath(f.window.get(), "Save", "x", builds), folder + "/mine.waxis");
        type({});
        app::askOpenPath(f.window.get(), "Open", builds);
        QCOMPARE(shown, folder);
        type({});
        app::askOpenPath(f.window.get(), "Open", drawings); // another kind, another folder
        QVERIFY(shown != folder);
        type(WEIGHTAXIS_TEST_DATA "/drawings/marshlight-5.dxf"); // the program's own is never remembered
        QVERIFY(!app::askOpenPath(f.window.get(), "Open", drawings).isEmpty());
        type({});
        app::askOpenPath(f.window.get(), "Open", drawings);
        QVERIFY2(!shown.startsWith(app::dataFolder()), qPrintable(shown));
        QFile there(folder + "/other.waxis");
        QVERIFY(there.open(QIODevice::WriteOnly));
        there.close();
        type(folder + "/other");
        QCOMPARE(app::askSavePath(f.window.get(), "Save", "x", builds), QString());
        QVERIFY2(asked.contains("other.waxis"), qPrintable(asked));
    }
    void aFrameAloneCanBeSaved() {
        WindowFixture f;
        f.document().history().setClean();
        QTest::keyClick(f.window.get(), Qt::Key_N, Qt::ControlModifier);
        QVERIFY(f.document().build().parts.empty());
        QVERIFY(f.window->actions().action("save")->isEnabled() && f.window->actions().action("save-as")->isEnabled());
    }
    void afterSomethingFailedInsideTheWorkIsKeptAndSaid() {
        WindowFixture f;
        QVERIFY(f.document().edit("n", shiftPart(f.document().build(), "gps", {1, 0, 0})));
        f.document().preview(shiftPart(f.document().build(), "gps", {30, 0, 0}));
        f.window->survive("there is not enough memory");
        QVERIFY(!f.document().isPreviewing());
        QVERIFY2(f.window->notices().text().contains("not enough memory"), qPrintable(f.window->notices().text()));
        const auto copies = QDir(f.folder.filePath("unsaved")).entryInfoList({"*.waxis"}, QDir::Files);
        QCOMPARE(copies.size(), 1);
        QVERIFY(loadBuild(copies[0].absoluteFilePath().toStdString())->build == f.document().build());
    }
    void whenTheSessionEndsTheWorkIsKept() {
        WindowFixture f;
        QVERIFY(f.document().edit("n", shiftPart(f.document().build(), "gps", {1, 0, 0})));
        // The manager itself is not asked for anything, and there is none here.
        alignas(QSessionManager) std::array<std::byte, sizeof(QSessionManager)> nobody{};
        emit qApp->commitDataRequest(*reinterpret_cast<QSessionManager *>(nobody.data()));
        const auto copies = QDir(f.folder.filePath("unsaved")).entryInfoList({"*.waxis"}, QDir::Files);
        QCOMPARE(copies.size(), 1);
        QVERIFY(loadBuild(copies[0].absoluteFilePath().toStdString())->build == f.document().build());
    }
    void severalKeptCopiesAreOfferedAndAskBeforeTheyReplace() {
        WindowFixture f;
        QDir().mkpath(f.folder.filePath("unsaved"));
        for (const char *name : {"a.999999999.1.waxis", "b.999999999.1.waxis"})
            QFile::copy(f.file(), f.folder.filePath(QString("unsaved/") + name));
        QVERIFY(f.document().edit("n", shiftPart(f.document().build(), "gps", {1, 0, 0})));
        const Build before = f.document().build();
        f.window->offerRecovery();
        const auto press = [&](const QString &text) {
            QTest::qWait(30); // the buttons of the notice before are gone
            for (auto *button : f.window->notices().findChildren<QPushButton *>())
                if (button->text() == text && button->isVisible()) return QTest::mouseClick(button, Qt::LeftButton);
            QFAIL(qPrintable("no " + text));
        };
        const auto answer = [](QMessageBox::StandardButton which) {
            QTimer::singleShot(200, [which] {
                if (auto *box = qobject_cast<QMessageBox *>(QApplication::activeModalWidget()))
                    box->button(which)->click();
            });
        };
        answer(QMessageBox::Cancel);
        press("Recover");
        QVERIFY(f.document().build() == before); // asked first, and left as it was
        QVERIFY(f.window->notices().text().contains("was kept"));
        answer(QMessageBox::Discard);
        press("Recover");
        QVERIFY(!(f.document().build() == before));
        QVERIFY(f.document().isModified());
        QVERIFY2(f.window->notices().text().contains("was kept"), qPrintable(f.window->notices().text())); // the other
        press("Discard");
        QCOMPARE(f.window->autosave().leftBehind().size(), std::size_t(0));
    }
    void aPartLibraryThatCannotBeReadIsSaidBesideAFile() {
        QStandardPaths::setTestModeEnabled(true);
        const QString shelf =
            QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/weightaxis/parts";
        QDir().mkpath(shelf);
        QFile bad(shelf + "/broken.json");
        QVERIFY(bad.open(QIODevice::WriteOnly));
        bad.write("{");
        bad.close();
        const auto clean = qScopeGuard([&] { QFile::remove(shelf + "/broken.json"); });
        WindowFixture f; // opens a file at once
        QVERIFY2(f.window->notices().text().contains("broken.json"), qPrintable(f.window->notices().text()));
    }
    void aFileOfTheStartPageHasAMenuAndLeavesTheList() {
        WindowFixture f;
        f.window->showStart();
        const auto entry = [&]() -> QPushButton * {
            for (auto *button : f.window->findChildren<QPushButton *>())
                if (button->isVisible() && button->toolTip() == f.file()) return button;
            return nullptr;
        };
        QVERIFY(entry());
        const QStringList texts = waxis::test::readMenu(
            [&] {
                emit entry()->customContextMenuRequested({5, 5});
            },
            "Take it out");
        QVERIFY2(texts.contains("Open") && texts.contains("Copy its path"), qPrintable(texts.join(", ")));
        QTest::qWait(20);
        QVERIFY(!entry());
        QVERIFY(QFile::exists(f.file())); // the file itself stays
        QVERIFY(!QSettings().value("recent").toStringList().contains(f.file()));
    }
};

QTEST_MAIN(TestWindowFiles)
#include "test_window_files.moc"
