#include "core/edits/channel_edits.h"

#include <fmt/format.h>

namespace waxis {

EditResult setChannels(const Build &build, const std::string &part, const std::vector<ChannelFunction> &functions) {
    constexpr std::size_t kMost = 64; // as in files
    if (functions.size() > kMost) return Failure{EditError{fmt::format("No more than {} channels.", kMost)}};
    Build next = build;
    for (auto &p : next.parts)
        if (p.id == part) {
            p.channels = functions;
            return next;
        }
    return Failure{EditError{fmt::format("There is no part \"{}\" in this build.", part)}};
}

bool hasChannels(const PartType &type) {
    switch (type.kind) {
    case PartKind::receiver:
    case PartKind::flightController:
    case PartKind::gimbal:
    case PartKind::servo:
    case PartKind::lamp:
    case PartKind::payloadCamera:
    case PartKind::recorder: return true;
    default: return !type.functions.empty();
    }
}

} // namespace waxis
