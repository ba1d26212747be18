// Functions of channels as a person types them: "roll, pitch, throttle, yaw".
#pragma once

#include "core/catalog/signal_kind.h"

#include <QString>
#include <optional>
#include <vector>

namespace waxis::app {

/// In any order, with commas or blanks between; none where a word is no function.
std::optional<std::vector<ChannelFunction>> readFunctions(const QString &text);
QString functionsText(const std::vector<ChannelFunction> &list);
/// All words that can be typed, for tips.
QString functionWords();

} // namespace waxis::app
