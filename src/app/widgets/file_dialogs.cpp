#include "app/widgets/file_dialogs.h"

#include "app/document/data_files.h"
#include "io/file_bytes.h"

#include <QCoreApplication>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QRegularExpression>
#include <QSettings>
#include <QStandardPaths>

namespace waxis::app {

namespace {

/// "waxis" of "Weightaxis builds (*.waxis)".
QString endingOf(const QString &kind) { return kind.section("*.", 1, 1).section(QRegularExpression("[ )]"), 0, 0); }

QString folderKey(const QString &kind) { return "folder/" + endingOf(kind); }

QString folderFor(const QString &kind) {
    const QString kept = QSettings().value(folderKey(kind)).toString();
    if (!kept.isEmpty() && QFileInfo(kept).isDir()) return kept;
    const QString documents = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
    return QFileInfo(documents).isDir() ? documents : QDir::homePath();
}

void keepFolder(const QString &kind, const QString &path) {
    const QString folder = QFileInfo(path).absolutePath();
    if (dataFolder().isEmpty() || !folder.startsWith(dataFolder())) QSettings().setValue(folderKey(kind), folder);
}

} // namespace

QString askOpenPath(QWidget *parent, const QString &title, const QString &kind) {
    const QString path = QFileDialog::getOpenFileName(parent, title, folderFor(kind), kind);
    if (!path.isEmpty()) keepFolder(kind, path);
    return path;
}

QString askSavePath(QWidget *parent, const QString &title, const QString &proposal, const QString &kind) {
    const QFileInfo info(proposal);
    QFileDialog dialog(parent, title, info.isAbsolute() ? info.absolutePath() : folderFor(kind), kind);
    dialog.setAcceptMode(QFileDialog::AcceptSave);
    dialog.setDefaultSuffix(endingOf(kind));
    if (!proposal.isEmpty()) dialog.selectFile(info.fileName());
    if (dialog.exec() != QDialog::Accepted) return {};
    const QString path = dialog.selectedFiles().value(0);
    if (!path.isEmpty()) keepFolder(kind, path);
    return path;
}

std::optional<SaveOutcome> saveTextAsking(QWidget *parent, const QString &title, const QString &proposal,
                                          const QString &kind, const std::string &text) {
    const QString path = askSavePath(parent, title, proposal, kind);
    if (path.isEmpty()) return std::nullopt;
    const std::string problem = io::replaceFile(path.toStdString(), text, false);
    const auto say = [](const char *words) { return QCoreApplication::translate("Saving", words); };
    return SaveOutcome{path,
                       problem.empty() ? say("Written to %1.").arg(path)
                                       : say("%1 was not written: %2.").arg(path, QString::fromStdString(problem)),
                       !problem.empty()};
}

} // namespace waxis::app
