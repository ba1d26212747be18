#include "app/shell/save_text.h"

#include "io/file_bytes.h"

#include <QCoreApplication>
#include <QFileDialog>
#include <QFileInfo>
#include <QRegularExpression>

namespace waxis::app {

QString askSavePath(QWidget *parent, const QString &title, const QString &proposal, const QString &kind) {
    QFileDialog dialog(parent, title, {}, kind);
    dialog.setAcceptMode(QFileDialog::AcceptSave);
    dialog.setDefaultSuffix(kind.section("*.", 1, 1).section(QRegularExpression("[ )]"), 0, 0));
    if (!proposal.isEmpty()) {
        const QFileInfo info(proposal);
        if (info.isAbsolute()) dialog.setDirectory(info.absolutePath());
        dialog.selectFile(info.fileName());
    }
    return dialog.exec() == QDialog::Accepted ? dialog.selectedFiles().value(0) : QString();
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
