#include "app/shell/autosave.h"

#include "io/file_bytes.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QJsonDocument>
#include <QJsonObject>
#include <QStandardPaths>
#include <QUuid>
#include <csignal>

namespace waxis::app {

namespace {
constexpr int kPause_ms = 3000; // after the last change

/// "UUID.PID.waxis" with "UUID.PID.json" beside it, which says whose copy it is.
qint64 ownerOf(const QString &fileName) { return fileName.section('.', 1, 1).toLongLong(); }

bool isRunning(qint64 pid) { return pid > 0 && ::kill(pid_t(pid), 0) == 0; }

QString sidecar(const QString &file) { return file.chopped(QString("waxis").size()) + "json"; }
} // namespace

QString Autosave::standardFolder() {
    // Empty or relative counts as unset (XDG base directory specification).
    QString state = qEnvironmentVariable("XDG_STATE_HOME");
    if (!QDir::isAbsolutePath(state)) state = QDir::homePath() + "/.local/state";
    return state + "/weightaxis/unsaved";
}

Autosave::Autosave(Document &document, QString folder, QObject *parent)
    : QObject(parent), document_(document), folder_(std::move(folder)) {
    own_ = QStringLiteral("%1/%2.%3.waxis")
               .arg(folder_, QUuid::createUuid().toString(QUuid::WithoutBraces))
               .arg(QCoreApplication::applicationPid());
    timer_.setSingleShot(true);
    timer_.setInterval(kPause_ms);
    connect(&timer_, &QTimer::timeout, this, &Autosave::writeNow);
    auto schedule = [this] {
        if (document_.isModified())
            timer_.start();
        else
            clear();
    };
    connect(&document_, &Document::changed, this, schedule);
    connect(&document_, &Document::stateChanged, this, schedule);
}

Autosave::~Autosave() = default;

void Autosave::writeNow() {
    if (!document_.isModified() || document_.isPreviewing()) return;
    if (!QDir().mkpath(folder_)) return;
    const QJsonObject about{{"original", document_.path()}, {"name", document_.title()}};
    io::replaceFile(sidecar(own_).toStdString(), QJsonDocument(about).toJson().toStdString(), false);
    io::replaceFile(own_.toStdString(), writeBuild(document_.build(), document_.keptKeys()), false);
}

void Autosave::clear() {
    timer_.stop();
    QFile::remove(own_);
    QFile::remove(sidecar(own_));
}

std::vector<Recovery> Autosave::leftBehind() const {
    std::vector<Recovery> found;
    for (const auto &info : QDir(folder_).entryInfoList({"*.waxis"}, QDir::Files, QDir::Time)) {
        if (info.absoluteFilePath() == own_ || isRunning(ownerOf(info.fileName()))) continue;
        QFile about(sidecar(info.absoluteFilePath()));
        const auto words =
            about.open(QIODevice::ReadOnly) ? QJsonDocument::fromJson(about.readAll()).object() : QJsonObject();
        found.push_back({info.absoluteFilePath(), words["original"].toString(), words["name"].toString(info.fileName()),
                         info.lastModified()});
    }
    return found;
}

void Autosave::discard(const Recovery &recovery) {
    QFile::remove(recovery.file);
    QFile::remove(sidecar(recovery.file));
}

bool Autosave::recover(const Recovery &recovery, QString &reason) {
    auto loaded = loadBuild(recovery.file.toStdString());
    if (!loaded) {
        reason = QString::fromStdString(loaded.error().text());
        return false;
    }
    document_.show(std::move(*loaded), recovery.original, true);
    writeNow(); // under the own name before the old copy goes
    discard(recovery);
    return true;
}

} // namespace waxis::app
