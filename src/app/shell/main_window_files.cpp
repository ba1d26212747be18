// Builds in and out of the window: opened, begun, saved, recovered, dropped.
#include "app/shell/main_window.h"

#include "app/document/data_files.h"
#include "app/document/survey_runner.h"
#include "app/shell/command_palette.h"
#include "app/shell/lesson.h"
#include "app/shell/start_page.h"
#include "app/stages/frame/frame_bench.h"
#include "app/stages/kit/kit_bench.h"
#include "app/stages/kit/own_part_card.h"
#include "app/stages/place/place_bench.h"
#include "app/stages/place/place_view.h"
#include "app/widgets/file_dialogs.h"
#include "app/widgets/notice_bar.h"
#include "core/edits/case_edits.h"
#include "core/layout/layout.h"

#include <QCloseEvent>
#include <QDir>
#include <QFileInfo>
#include <QLocale>
#include <QMessageBox>
#include <QMimeData>
#include <QSettings>
#include <QStackedWidget>

namespace waxis::app {

namespace {

/// A build's name as that of a file: no separators, nothing hidden.
QString fileNameFor(QString name) {
    for (QChar &c : name)
        if (QStringLiteral("/\\:*?\"<>|").contains(c)) c = '-';
    while (name.startsWith('.')) name.remove(0, 1);
    return (name.trimmed().isEmpty() ? QStringLiteral("build") : name.trimmed()) + ".waxis";
}

/// Builds, frame drawings and kit lists can be dropped.
bool canTake(const QString &path) {
    return path.endsWith(".waxis") || path.endsWith(".dxf", Qt::CaseInsensitive) ||
           path.endsWith(".csv", Qt::CaseInsensitive);
}

} // namespace

bool MainWindow::openAny(const QString &path) {
    if (path.endsWith(".dxf", Qt::CaseInsensitive)) {
        newFromDrawing(path);
        return true;
    }
    if (path.endsWith(".csv", Qt::CaseInsensitive)) {
        newFromKitList(path);
        return true;
    }
    return openFile(path);
}

bool MainWindow::openFile(const QString &path) {
    LoadError error;
    std::vector<LoadWarning> warnings;
    if (!document_.open(path, error, warnings)) {
        notices_->say(tr("%1 was not opened. At %2: expected %3, found %4. %5")
                          .arg(QFileInfo(path).fileName(), QString::fromStdString(error.where),
                               QString::fromStdString(error.expected), QString::fromStdString(error.found),
                               QString::fromStdString(error.suggestion))
                          .trimmed(),
                      Severity::stop);
        return false;
    }
    notices_->hide();
    if (!libraryProblem_.isEmpty()) // the file that was asked for at the start hid it
        notices_->say(std::exchange(libraryProblem_, {}), Severity::watch);
    setStage(Stage::place);
    if (demoFiles().contains(document_.path())) document_.forgetPath(); // a demo is opened as a copy
    rememberRecent(document_.path());
    if (!warnings.empty())
        notices_->say(tr("%1 in the file are not known and are kept: %2")
                          .arg(warnings.size() == 1 ? tr("One key") : tr("%1 keys").arg(warnings.size()),
                               QString::fromStdString(warnings.front().where + " " + warnings.front().message)),
                      Severity::note);
    offerCorrectedTypes();
    place_->plan().setFocus();
    return true;
}

void MainWindow::openAsking(const QString &path) {
    if (mayReplaceBuild()) openFile(path);
}

bool MainWindow::mayReplaceBuild() {
    if (!document_.isModified()) return true;
    const auto answer =
        QMessageBox::question(this, tr("Weightaxis"), tr("%1 has changes that are not saved.").arg(document_.title()),
                              QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save);
    if (answer == QMessageBox::Save) save(false);
    return answer == QMessageBox::Discard || (answer == QMessageBox::Save && !document_.isModified());
}

void MainWindow::startNew(const Build &build, Stage stage) {
    LoadedBuild fresh;
    fresh.build = build;
    document_.show(std::move(fresh), {});
    notices_->hide();
    setStage(stage);
}

void MainWindow::newFromLayout() {
    if (!mayReplaceBuild()) return;
    Build build;
    build.name = tr("New build").toStdString();
    if (auto frame = generateFrame(LayoutKind::quadX, {})) build.frame = *frame;
    startNew(build, Stage::frame);
    frame_->canvas().fit();
}

void MainWindow::newFromDrawing(const QString &path) {
    if (!mayReplaceBuild()) return;
    Build build;
    build.name = path.isEmpty() ? tr("New build").toStdString() : QFileInfo(path).completeBaseName().toStdString();
    startNew(build, Stage::frame);
    if (path.isEmpty())
        frame_->browseDrawing();
    else
        frame_->readDrawing(path);
}

void MainWindow::newFromKitList(const QString &path) {
    if (!mayReplaceBuild()) return;
    Build build;
    build.name = tr("New build").toStdString();
    startNew(build, Stage::kit);
    if (path.isEmpty())
        kit_->browseList();
    else
        kit_->readList(path);
}

void MainWindow::browse() {
    const QString path = askOpenPath(this, tr("Open a build"), tr("Weightaxis builds (*.waxis)"));
    if (path.isEmpty()) return;
    openAsking(path);
}

void MainWindow::save(bool askForName, bool overwriteChanges) {
    QString path = document_.path();
    const bool shipped = !path.isEmpty() && demoFiles().contains(path);
    if (askForName || path.isEmpty() || shipped) {
        const QString name = fileNameFor(document_.title());
        const QString proposal = path.isEmpty() || shipped ? name : path;
        path = askSavePath(this, tr("Save the build"), proposal, tr("Weightaxis builds (*.waxis)"));
        if (path.isEmpty()) return;
        // A build that has no name of its own yet is called as its file.
        if (document_.title() == tr("New build"))
            document_.edit(tr("Name the build"),
                           renameBuild(document_.build(), QFileInfo(path).completeBaseName().toStdString()));
    }
    saveTo(path, overwriteChanges);
}

void MainWindow::saveTo(const QString &path, bool overwrite) {
    SaveError error;
    if (document_.save(path, error, overwrite)) {
        rememberRecent(document_.path());
        if (place_->plan().isVisible()) keepPicture(document_.path(), place_->plan().grab().toImage());
        notices_->say(tr("Saved as %1.").arg(path), Severity::note, {}, 3);
        return;
    }
    std::vector<NoticeChoice> choices;
    if (error.changedOnDisk)
        choices = {{tr("Overwrite"), [this, path] { saveTo(path, true); }},
                   {tr("Save as…"), [this] { save(true); }},
                   {tr("Open what is on disk"), [this, path] { openFile(path); }}};
    if (error.readOnly)
        choices = {{tr("Replace it all the same"), [this, path] { saveTo(path, true); }},
                   {tr("Save as…"), [this] { save(true); }}};
    notices_->say(tr("Not saved: %1.").arg(QString::fromStdString(error.reason)), Severity::stop, std::move(choices));
}

QStringList MainWindow::recentFiles() const {
    QStringList files = QSettings().value("recent").toStringList();
    files.removeIf([](const QString &path) { return !QFileInfo::exists(path); });
    return files;
}

void MainWindow::rememberRecent(const QString &path) {
    if (path.isEmpty() || demoFiles().contains(path)) return;
    QStringList files = recentFiles();
    files.removeAll(path);
    files.prepend(path);
    constexpr int kKept = 8;
    QSettings().setValue("recent", QStringList(files.mid(0, kKept)));
}

void MainWindow::forgetRecent(const QString &path) {
    QStringList files = recentFiles();
    files.removeAll(path);
    QSettings().setValue("recent", files);
    start_->show(demoFiles(), recentFiles());
}

void MainWindow::offerRecovery() {
    const auto left = autosave_.leftBehind();
    if (left.empty()) return;
    const Recovery newest = left.front();
    notices_->say(tr("Unsaved work on %1 from %2 was kept.")
                      .arg(newest.name, QLocale().toString(newest.when, QLocale::ShortFormat)),
                  Severity::watch,
                  {{tr("Recover"),
                    [this, newest] {
                        if (!mayReplaceBuild()) return offerRecovery();
                        QString reason;
                        if (!autosave_.recover(newest, reason)) {
                            notices_->say(tr("The kept copy cannot be read: %1").arg(reason), Severity::stop);
                            return;
                        }
                        setStage(Stage::place);
                        offerRecovery(); // there may be another
                    }},
                   {tr("Later"), [] {}},
                   {tr("Discard"), [this, newest] {
                        Autosave::discard(newest);
                        offerRecovery();
                    }}});
}

void MainWindow::closeEvent(QCloseEvent *event) {
    if (auto *field = focusWidget()) field->clearFocus(); // what is being typed counts
    if (!mayReplaceBuild()) {
        event->ignore();
        return;
    }
    autosave_.clear();
    QSettings().setValue("window/geometry", saveGeometry());
    event->accept();
}

void MainWindow::dragEnterEvent(QDragEnterEvent *event) {
    for (const auto &url : event->mimeData()->urls())
        if (canTake(url.toLocalFile())) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent *event) {
    for (const auto &url : event->mimeData()->urls()) {
        const QString path = url.toLocalFile();
        if (!canTake(path)) continue;
        if (path.endsWith(".waxis")) {
            openAsking(path);
        } else if (path.endsWith(".csv", Qt::CaseInsensitive)) { // into the open build
            setStage(Stage::kit);
            kit_->readList(path);
        } else if (bench_->currentWidget() == start_) { // nothing is open: a build of its own
            newFromDrawing(path);
        } else {
            setStage(Stage::frame);
            frame_->readDrawing(path);
        }
        return;
    }
}

} // namespace waxis::app
