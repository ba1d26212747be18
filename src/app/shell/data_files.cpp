#include "app/shell/data_files.h"

#include "io/project/project_file.h"

#include <QDir>
#include <QStandardPaths>

namespace waxis::app {

QString dataFolder() {
    for (const QString &folder : {qEnvironmentVariable("WEIGHTAXIS_DATA"), QStringLiteral(WEIGHTAXIS_INSTALLED_DATA),
                                  QStringLiteral(WEIGHTAXIS_SOURCE_DATA)})
        if (!folder.isEmpty() && QDir(folder).exists("demos")) return folder;
    return {};
}

QStringList demoFiles() {
    QStringList files;
    for (const auto &info : QDir(dataFolder() + "/demos").entryInfoList({"*.waxis"}, QDir::Files, QDir::Name))
        files << info.absoluteFilePath();
    return files;
}

TypeTable partLibrary(QStringList &problems) {
    TypeTable all;
    const QString own = QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/weightaxis/parts";
    for (const QString &folder : {dataFolder() + "/parts", own})
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
