#include "app/document/data_files.h"

#include "io/file_bytes.h"
#include "io/project/project_file.h"

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>
#include <algorithm>

namespace waxis::app {

QString dataFolder() {
    // Beside the program first, wherever it was moved to; the sources only for a program that was not installed.
    const QString program = QCoreApplication::applicationDirPath();
    QStringList folders{qEnvironmentVariable("WEIGHTAXIS_DATA"), QDir::cleanPath(program + "/../share/weightaxis")};
    if (program.startsWith(QStringLiteral(WEIGHTAXIS_BUILD_FOLDER)))
        folders << QStringLiteral(WEIGHTAXIS_SOURCE_DATA);
    else
        folders << QStringLiteral(WEIGHTAXIS_INSTALLED_DATA);
    for (const QString &folder : folders)
        if (!folder.isEmpty() && QDir(folder).exists("demos")) return folder;
    return {};
}

QString shortFolder(const QString &folder) {
    const QString home = QDir::homePath();
    return folder == home                  ? QStringLiteral("~")
           : folder.startsWith(home + "/") ? "~" + folder.mid(home.size())
                                           : folder;
}

QString demoTitle(const QString &path) {
    QStringList words = QFileInfo(path).completeBaseName().split('-', Qt::SkipEmptyParts);
    for (auto &word : words) word[0] = word[0].toUpper();
    return words.join(' ');
}

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

bool keepInOwnLibrary(const PartType &type, QString &problem) { return keepInOwnLibrary(std::vector{type}, problem); }

bool keepInOwnLibrary(const std::vector<PartType> &types, QString &problem) {
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
    for (const auto &type : types) library.types.insert_or_assign(type.id, type);
    if (!QDir().mkpath(ownPartsFolder())) {
        problem = QStringLiteral("cannot make the folder ") + ownPartsFolder();
        return false;
    }
    problem = QString::fromStdString(saveLibrary(path.toStdString(), library));
    return problem.isEmpty();
}

bool removeFromOwnLibrary(const std::set<std::string> &ids, QString &problem) {
    for (const auto &info : QDir(ownPartsFolder()).entryInfoList({"*.json"}, QDir::Files, QDir::Name)) {
        auto library = loadLibrary(info.absoluteFilePath().toStdString());
        if (!library) continue; // it gave no types either
        const auto gone = std::erase_if(library->types, [&](const auto &entry) { return ids.contains(entry.first); });
        if (gone == 0) continue;
        problem = QString::fromStdString(saveLibrary(info.absoluteFilePath().toStdString(), *library));
        if (!problem.isEmpty()) return false;
    }
    return true;
}

TypeTable partLibrary(QStringList &problems, std::set<std::string> *own) {
    TypeTable all;
    for (const QString &folder : {dataFolder() + "/parts", ownPartsFolder()})
        for (const auto &info : QDir(folder).entryInfoList({"*.json"}, QDir::Files, QDir::Name)) {
            auto library = loadLibrary(info.absoluteFilePath().toStdString());
            if (!library) {
                problems << info.fileName() + ": " + QString::fromStdString(library.error().text());
                continue;
            }
            for (auto &[id, type] : library->types) {
                if (own && folder == ownPartsFolder()) own->insert(id);
                all.insert_or_assign(id, std::move(type));
            }
        }
    return all;
}

} // namespace waxis::app
