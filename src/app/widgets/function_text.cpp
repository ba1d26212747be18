#include "app/widgets/function_text.h"

#include "io/names.h"

#include <QRegularExpression>
#include <QStringList>

namespace waxis::app {

static QString wordFor(ChannelFunction function) {
    const auto word = io::nameOf(function);
    return QString::fromUtf8(word.data(), qsizetype(word.size()));
}

std::optional<std::vector<ChannelFunction>> readFunctions(const QString &text) {
    static const QRegularExpression gaps("[,;\\s]+");
    std::vector<ChannelFunction> list;
    for (const QString &word : text.split(gaps, Qt::SkipEmptyParts)) {
        const auto function = io::fromName<ChannelFunction>(word.toLower().toStdString());
        if (!function || list.size() >= 64) return std::nullopt;
        list.push_back(*function);
    }
    return list;
}

QString functionsText(const std::vector<ChannelFunction> &list) {
    QStringList words;
    for (const ChannelFunction function : list) words << wordFor(function);
    return words.join(QStringLiteral(", "));
}

QString functionWords() {
    QStringList words;
    for (int f = 0; f <= int(ChannelFunction::gear); ++f) words << wordFor(ChannelFunction(f));
    return words.join(QStringLiteral(", "));
}

} // namespace waxis::app
