#include "core/placing/usual_hold.h"

#include <algorithm>

namespace waxis {

namespace {

Aabb ownBounds(const PartType &type) {
    Aabb box;
    for (const auto &solid : type.solids)
        if (solid.role != SolidRole::soft) box.include(boundsOf(solid.shape, solid.X_PartSolid));
    return box;
}

} // namespace

FasteningMethod usualHold(const PartType &type) {
    switch (type.kind) {
    case PartKind::battery:
    case PartKind::strap: return FasteningMethod::strap;
    case PartKind::propeller: return FasteningMethod::pressed;
    case PartKind::capacitor:
    case PartKind::powerPlug:
    case PartKind::antenna:
    case PartKind::tube:
    case PartKind::inlinePart:
    case PartKind::esc: return FasteningMethod::ties;
    case PartKind::flightController:
    case PartKind::fourInOneEsc:
    case PartKind::distributionBoard:
    case PartKind::videoTransmitter:
    case PartKind::digitalVideoUnit: return type.mounting ? FasteningMethod::screws : FasteningMethod::tape;
    case PartKind::motor:
    case PartKind::flightCamera:
    case PartKind::gimbal:
    case PartKind::servo:
    case PartKind::mount:
    case PartKind::fastener:
    case PartKind::guard:
    case PartKind::landingFoot: return FasteningMethod::screws;
    case PartKind::regulator:
    case PartKind::receiver:
    case PartKind::gps:
    case PartKind::buzzer:
    case PartKind::lamp:
    case PartKind::payloadCamera:
    case PartKind::damper:
    case PartKind::pad:
    case PartKind::currentSensor:
    case PartKind::powerSwitch:
    case PartKind::powerBank:
    case PartKind::overlayBoard:
    case PartKind::recorder:
    case PartKind::packAlarm:
    case PartKind::microphone:
    case PartKind::fan:
    case PartKind::heatSink:
    case PartKind::other: return FasteningMethod::tape;
    }
    return FasteningMethod::tape;
}

bool isPropellerNut(const PartType &type) {
    if (type.kind != PartKind::fastener) return false;
    if (type.fastener) return false; // those of the tables hold boards and plates
    std::string name = type.name;
    std::transform(name.begin(), name.end(), name.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return name.find("nut") != std::string::npos;
}

bool carriesParts(const PartType &type) { return type.kind == PartKind::mount && !type.carries; }

bool isWhip(const PartType &type) {
    if (type.kind != PartKind::antenna) return false;
    const Aabb box = ownBounds(type);
    if (box.empty()) return false;
    const Vec3 size = box.size_mm();
    return size.z() > 5 * std::max(size.x(), size.y());
}

} // namespace waxis
