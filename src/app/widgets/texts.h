// The core's sentences in the user's language.
#pragma once

#include "core/rules/rule.h"

#include <QCoreApplication>
#include <QFontMetrics>
#include <QString>

namespace waxis::app {

inline QString say(const Sentence &sentence) {
    const auto pattern = QCoreApplication::translate("Findings", sentence.pattern.c_str());
    return QString::fromStdString(fillPattern(pattern.toStdString(), sentence.arguments));
}

inline QString fromView(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }

/// Room of a field in the inspector's form.
inline constexpr int kFieldWidth_px = 200;

/// The text with line breaks where it would run wider. QFormLayout of Qt 6.4 writes past its rows when some are hidden
/// while a label in it wraps by itself, so labels there are broken by hand.
inline QString brokenAt(const QString &text, const QFontMetrics &metrics, int width_px) {
    QString out, line;
    for (const auto &word : text.split(QLatin1Char(' '))) {
        const QString longer = line.isEmpty() ? word : line + QLatin1Char(' ') + word;
        if (!line.isEmpty() && metrics.horizontalAdvance(longer) > width_px) {
            out += line + QLatin1Char('\n');
            line = word;
        } else
            line = longer;
    }
    return out + line;
}

} // namespace waxis::app
