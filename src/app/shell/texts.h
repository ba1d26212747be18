// The core's sentences in the user's language.
#pragma once

#include "core/rules/rule.h"

#include <QCoreApplication>
#include <QString>

namespace waxis::app {

inline QString say(const Sentence &sentence) {
    const auto pattern = QCoreApplication::translate("Findings", sentence.pattern.c_str());
    return QString::fromStdString(fillPattern(pattern.toStdString(), sentence.arguments));
}

inline QString fromView(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }

} // namespace waxis::app
