// What the pilot moves on which channel.
#pragma once

#include "core/build/edit_result.h"

namespace waxis {

/// In the order of the channels; empty: as the type says.
EditResult setChannels(const Build &build, const std::string &part, const std::vector<ChannelFunction> &functions);

/// Whether such a part sends, expects or wants functions: receivers, controllers, and what a pilot may switch or turn.
bool hasChannels(const PartType &type);

} // namespace waxis
