#include "app/shell/data_files.h"

#include "io/file_bytes.h"
#include "io/project/project_file.h"

#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>
#include <algorithm>

namespace waxis::app {

QString dataFolder() {
    for (const QString &folder : {qEnvironmentVariable("WEIGHTAXIS_DATA"), QStringLiteral(WEIGHTAXIS_INSTALLED_DATA),
                                  QStringLiteral(WEIGHTAXIS_SOURCE_DATA)})
        if (!folder.isEmpty() && QDir(folder).exists("demos")) return folder;
    return {};
}

QString drawingsFolder() { return dataFolder() + "/drawings"; }

QStringList demoFiles() {
    QStringList files;
    for (const auto &info : QDir(dataFolder() + "/demos").entryInfoList({"*.waxis"}, QDir::Files, QDir::Name))
        files << info.absoluteFilePath();
    // The main one first.
    std::stable_partition(files.begin(), files.end(),
                          [](const QString &f) { return f.endsWith("/stakewalker.waxis"); });
    return files;
}

namespace {
QString ownPartsFolder() {
    return QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/weightaxis/parts";
}
} // namespace

bool keepInOwnLibrary(const PartType &type, QString &problem) {
    const QString path = ownPartsFolder() + "/own.json";
    PartLibrary library;
    library.name = "Own parts";
    if (QFileInfo::exists(path)) {
        auto loaded = loadLibrary(path.toStdString());
        if (!loaded) {
            problem = QString::fromStdString(loaded.error().text()); // nothing of it is overwritten
            return false;
        }
        library = std::move(*loaded);
    }
    library.types.insert_or_assign(type.id, type);
    if (!QDir().mkpath(ownPartsFolder())) {
        problem = QStringLiteral("cannot make the folder ") + ownPartsFolder();
        return false;
    }
    problem = QString::fromStdString(io::replaceFile(path.toStdString(), writeLibrary(library)));
    return problem.isEmpty();
}

TypeTable partLibrary(QStringList &problems) {
    TypeTable all;
    for (const QString &folder : {dataFolder() + "/parts", ownPartsFolder()})
        for (const auto &info : QDir(folder).entryInfoList({"*.json"}, QDir::Files, QDir::Name)) {
            auto library = loadLibrary(info.absoluteFilePath().toStdString());
            if (!library) {
                problems << info.fileName() + ": " + QString::fromStdString(library.error().text());
                continue;
            }
            for (auto &[id, type] : library->types) all.insert_or_assign(id, std::move(type));
        }
    return all;
}

} // namespace waxis::app
