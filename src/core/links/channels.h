// What the pilot moves, channel by channel.
#pragma once

#include "core/links/link_report.h"

#include <array>
#include <string_view>

namespace waxis {

/// Roll, pitch, throttle, yaw and the mode: what every craft wants.
inline constexpr std::array<ChannelFunction, 5> kFlightFunctions{ChannelFunction::roll, ChannelFunction::pitch,
                                                                 ChannelFunction::throttle, ChannelFunction::yaw,
                                                                 ChannelFunction::mode};

/// In the order of the channels: what the part says, else its type.
const std::vector<ChannelFunction> &functionsOf(const Part &part, const PartType &type);

std::vector<ChannelLink> channelLinks(const Build &build);
std::vector<ChannelFunction> wantedFunctions(const Build &build);

/// "roll", "gimbal tilt", "switch 1".
std::string_view functionWord(ChannelFunction function);

} // namespace waxis
