#include "app/document/clipboard.h"

#include "core/edits/clip.h"
#include "io/project/project_file.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QMimeData>

namespace waxis::app {

namespace {
const QString kMime = QStringLiteral("application/vnd.weightaxis+json");
}

QString copyParts(const Build &build, const std::vector<std::string> &parts) {
    const auto clip = clipOf(build, parts);
    if (!clip) return QString::fromStdString(clip.error().message);
    auto *data = new QMimeData;
    const std::string text = writeBuild(*clip);
    data->setData(kMime, QByteArray(text.data(), qsizetype(text.size())));
    QStringList names;
    for (const auto &part : clip->parts) names << QString::fromStdString(part.name);
    data->setText(names.join('\n'));
    QGuiApplication::clipboard()->setMimeData(data);
    return {};
}

bool arePartsOnClipboard() {
    const QMimeData *data = QGuiApplication::clipboard()->mimeData();
    return data && data->hasFormat(kMime);
}

std::optional<Build> partsOnClipboard(QString &problem) {
    const QMimeData *data = QGuiApplication::clipboard()->mimeData();
    if (!data || !data->hasFormat(kMime)) return std::nullopt;
    auto loaded = parseBuild(data->data(kMime).toStdString());
    if (!loaded) {
        problem = QString::fromStdString(loaded.error().text());
        return std::nullopt;
    }
    return std::move(loaded->build);
}

} // namespace waxis::app
