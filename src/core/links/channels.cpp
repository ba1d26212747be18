#include "core/links/channels.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

namespace {

ChannelFunction atPlace(const std::vector<ChannelFunction> &list, int number) {
    return number >= 1 && std::size_t(number) <= list.size() ? list[std::size_t(number - 1)] : ChannelFunction::none;
}

/// What a pin takes: as it is labelled, else by its number in the part's order, else the only thing that the part
/// wants.
ChannelFunction wantedAt(const Part &part, const PartType &type, const WireEnd &end, const std::string &pin) {
    const Port *port = findPort(type, end.port);
    const int index = port ? pinIndex(*port, pin) : -1;
    if (index >= 0 && port->pins[std::size_t(index)].function != ChannelFunction::none)
        return port->pins[std::size_t(index)].function;
    const auto &order = functionsOf(part, type);
    const int number = signalOf(pin).number;
    if (number > 0) return atPlace(order, number);
    return order.size() == 1 ? order.front() : ChannelFunction::none;
}

void followCores(const Build &build, const Wire &wire, std::vector<ChannelLink> &links) {
    for (const auto &core : wire.cores)
        for (const bool forward : {true, false}) {
            const WireEnd &near = forward ? wire.from : wire.to, &far = forward ? wire.to : wire.from;
            const std::string &pin = forward ? core.fromPin : core.toPin, &other = forward ? core.toPin : core.fromPin;
            const Part *receiver = findPart(build, near.part), *taker = findPart(build, far.part);
            const PartType *type = receiver ? typeOf(build, *receiver) : nullptr,
                           *takes = taker ? typeOf(build, *taker) : nullptr;
            if (!type || !takes || type->kind != PartKind::receiver) continue;
            const Signal signal = signalAt(build, near, pin);
            if (signal.kind != SignalKind::channel) continue;
            links.push_back({near.part + "/" + pin, far.part + "/" + other, near.part, far.part,
                             atPlace(functionsOf(*receiver, *type), signal.number),
                             wantedAt(*taker, *takes, far, other)});
        }
}

bool carriesSerial(const Build &build, const Wire &wire) {
    return std::any_of(wire.cores.begin(), wire.cores.end(), [&](const WireCore &core) {
        const SignalKind kind = signalAt(build, wire.from, core.fromPin).kind;
        return kind == SignalKind::serialTx || kind == SignalKind::serialRx;
    });
}

/// All channels go through one wire, in order.
void followSerial(const Build &build, const Wire &wire, std::vector<ChannelLink> &links) {
    if (!carriesSerial(build, wire)) return;
    for (const auto &[near, far] : {std::pair{&wire.from, &wire.to}, std::pair{&wire.to, &wire.from}}) {
        const Part *receiver = findPart(build, near->part), *taker = findPart(build, far->part);
        const PartType *type = receiver ? typeOf(build, *receiver) : nullptr,
                       *takes = taker ? typeOf(build, *taker) : nullptr;
        if (!type || !takes || type->kind != PartKind::receiver || takes->kind != PartKind::flightController) continue;
        const auto &sent = functionsOf(*receiver, *type), &wanted = functionsOf(*taker, *takes);
        for (std::size_t c = 0; c < std::min(sent.size(), wanted.size()); ++c)
            links.push_back({fmt::format("{}/{}", near->part, c + 1), fmt::format("{}/{}", far->part, c + 1),
                             near->part, far->part, sent[c], wanted[c]});
    }
}

/// Of a part that does not say: an axis for each joint of a gimbal that is led to the receiver or controller by pulses.
std::vector<ChannelFunction> usualOf(const PartType &type) {
    if (type.kind != PartKind::gimbal) return {};
    std::vector<ChannelFunction> axes{ChannelFunction::gimbalTilt};
    if (type.travels.size() > 1) axes.push_back(ChannelFunction::gimbalPan);
    if (type.travels.size() > 2) axes.push_back(ChannelFunction::gimbalRoll);
    return axes;
}

} // namespace

const std::vector<ChannelFunction> &functionsOf(const Part &part, const PartType &type) {
    return part.channels.empty() ? type.functions : part.channels;
}

std::vector<ChannelLink> channelLinks(const Build &build) {
    std::vector<ChannelLink> links;
    for (const auto &wire : build.wires) {
        followCores(build, wire, links);
        followSerial(build, wire, links);
    }
    return links;
}

std::vector<ChannelFunction> wantedFunctions(const Build &build) {
    std::vector<ChannelFunction> wanted(kFlightFunctions.begin(), kFlightFunctions.end());
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->kind == PartKind::receiver || type->kind == PartKind::flightController) continue;
        const auto &own = functionsOf(part, *type);
        for (const ChannelFunction function : own.empty() ? usualOf(*type) : own)
            if (function != ChannelFunction::none && std::find(wanted.begin(), wanted.end(), function) == wanted.end())
                wanted.push_back(function);
    }
    return wanted;
}

std::string_view functionWord(ChannelFunction function) {
    switch (function) {
    case ChannelFunction::none: return "nothing stated";
    case ChannelFunction::roll: return "roll";
    case ChannelFunction::pitch: return "pitch";
    case ChannelFunction::throttle: return "throttle";
    case ChannelFunction::yaw: return "yaw";
    case ChannelFunction::mode: return "mode";
    case ChannelFunction::arm: return "arm";
    case ChannelFunction::switchOne: return "switch 1";
    case ChannelFunction::switchTwo: return "switch 2";
    case ChannelFunction::switchThree: return "switch 3";
    case ChannelFunction::gimbalTilt: return "gimbal tilt";
    case ChannelFunction::gimbalPan: return "gimbal pan";
    case ChannelFunction::gimbalRoll: return "gimbal roll";
    case ChannelFunction::lamps: return "lamps";
    case ChannelFunction::cameraSwitch: return "camera switch";
    case ChannelFunction::gear: return "gear";
    }
    return {};
}

} // namespace waxis
