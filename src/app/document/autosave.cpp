#include "app/document/autosave.h"

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
#include <algorithm>

namespace waxis::app {

namespace {
/// When a process began, in the kernel's ticks since the machine did; 0 when there is no such process.
qint64 startOf(qint64 pid) {
    QFile file(QStringLiteral("/proc/%1/stat").arg(pid));
    if (pid <= 0 || !file.open(QIODevice::ReadOnly)) return 0;
    // The name in brackets may hold anything; behind it the 22nd field counts from the third.
    const QByteArray stat = file.readAll();
    const auto fields = stat.mid(stat.lastIndexOf(')') + 2).split(' ');
    constexpr int kStart = 19;
    return fields.size() > kStart ? fields[kStart].toLongLong() : 0;
}

/// Copies are called "UUID.PID.START.waxis", with "UUID.PID.START.json" beside, which says whose copy it is. A number
/// alone is not enough: after a restart another process has it.
bool isOwnerRunning(const QString &fileName) {
    const qint64 pid = fileName.section('.', 1, 1).toLongLong();
    bool stated = false;
    const qint64 start = fileName.section('.', 2, 2).toLongLong(&stated);
    const qint64 now = startOf(pid);
    return now != 0 && (!stated || now == start); // copies of earlier versions state none
}

QString sidecar(const QString &file) { return file.chopped(QString("waxis").size()) + "json"; }
} // namespace

QString Autosave::standardFolder() {
    // Empty or relative counts as unset (XDG base directory specification).
    QString state = qEnvironmentVariable("XDG_STATE_HOME");
    if (!QDir::isAbsolutePath(state)) state = QDir::homePath() + "/.local/state";
    return state + "/weightaxis/unsaved";
}

Autosave::Autosave(Document &document, QString folder, AutosavePace pace, QObject *parent)
    : QObject(parent), document_(document), folder_(std::move(folder)), pace_(pace) {
    own_ = QStringLiteral("%1/%2.%3.%4.waxis")
               .arg(folder_, QUuid::createUuid().toString(QUuid::WithoutBraces))
               .arg(QCoreApplication::applicationPid())
               .arg(startOf(QCoreApplication::applicationPid()));
    for (const auto &info : QDir(folder_).entryInfoList({"*.waxis.unfinished-*"}, QDir::Files)) // of killed writers
        io::removeUnfinished((folder_ + '/' + info.fileName().section(".unfinished-", 0, 0)).toStdString());
    timer_.setSingleShot(true);
    connect(&timer_, &QTimer::timeout, this, &Autosave::writeNow);
    auto follow = [this] {
        if (document_.isModified())
            schedule();
        else
            clear();
    };
    connect(&document_, &Document::changed, this, follow);
    connect(&document_, &Document::stateChanged, this, follow);
}

Autosave::~Autosave() = default;

void Autosave::schedule() {
    if (!waiting_.isValid()) waiting_.start();
    const auto left = std::max<qint64>(0, pace_.latest_ms - waiting_.elapsed());
    timer_.start(failing_ ? pace_.again_ms : int(std::min<qint64>(pace_.pause_ms, left)));
}

bool Autosave::writeNow() {
    timer_.stop();
    waiting_.invalidate();
    if (!document_.isModified()) return true;
    std::string problem;
    if (!QDir().mkpath(folder_)) problem = tr("the folder %1 cannot be made").arg(folder_).toStdString();
    // The build first: without its note it is still found.
    if (problem.empty())
        problem = io::replaceFile(own_.toStdString(), writeBuild(document_.keptBuild(), document_.keptKeys()), false);
    if (problem.empty()) {
        QJsonObject about{{"original", document_.path()}, {"name", document_.title()}};
        if (const auto &stamp = document_.stamp()) {
            about["hash"] = QString::number(stamp->hash);
            about["size"] = QString::number(stamp->size);
        }
        problem = io::replaceFile(sidecar(own_).toStdString(), QJsonDocument(about).toJson().toStdString(), false);
    }
    const bool failed = !problem.empty();
    if (failed) timer_.start(pace_.again_ms);
    if (failed != failing_) {
        failing_ = failed;
        failed ? emit this->failed(QString::fromStdString(problem)) : emit keepsAgain();
    }
    return !failed;
}

void Autosave::clear() {
    timer_.stop();
    waiting_.invalidate();
    QFile::remove(own_);
    QFile::remove(sidecar(own_));
}

std::vector<Recovery> Autosave::leftBehind() const {
    std::vector<Recovery> found;
    for (const auto &info : QDir(folder_).entryInfoList({"*.waxis"}, QDir::Files, QDir::Time)) {
        if (info.absoluteFilePath() == own_ || isOwnerRunning(info.fileName())) continue;
        QFile about(sidecar(info.absoluteFilePath()));
        const auto words =
            about.open(QIODevice::ReadOnly) ? QJsonDocument::fromJson(about.readAll()).object() : QJsonObject();
        found.push_back({info.absoluteFilePath(),
                         words["original"].toString(),
                         words["name"].toString(info.fileName()),
                         info.lastModified(),
                         {words["hash"].toString().toULongLong(), words["size"].toString().toULongLong()}});
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
    loaded->stamp = recovery.stamp; // saving notices when the file is another one by now
    document_.show(std::move(*loaded), recovery.original, true);
    writeNow(); // under the own name before the old copy goes
    discard(recovery);
    return true;
}

} // namespace waxis::app
