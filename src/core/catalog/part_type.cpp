#include "core/catalog/part_type.h"

namespace waxis {

PartType::PartType() = default;
PartType::PartType(const PartType &) = default;
PartType::PartType(PartType &&) noexcept = default;
PartType &PartType::operator=(const PartType &) = default;
PartType &PartType::operator=(PartType &&) noexcept = default;
PartType::~PartType() = default;
bool PartType::operator==(const PartType &) const = default;

Family familyOf(PartKind kind) {
    switch (kind) {
    case PartKind::fourInOneEsc:
    case PartKind::esc:
    case PartKind::motor:
    case PartKind::propeller:
    case PartKind::regulator:
    case PartKind::distributionBoard:
    case PartKind::capacitor:
    case PartKind::powerPlug:
    case PartKind::inlinePart:
    case PartKind::currentSensor:
    case PartKind::powerSwitch:
    case PartKind::powerBank: return Family::power;
    case PartKind::flightController:
    case PartKind::buzzer:
    case PartKind::lamp:
    case PartKind::packAlarm:
    case PartKind::servo: return Family::control;
    case PartKind::receiver:
    case PartKind::videoTransmitter:
    case PartKind::digitalVideoUnit:
    case PartKind::antenna: return Family::radio;
    case PartKind::gps: return Family::sensing;
    case PartKind::flightCamera:
    case PartKind::payloadCamera:
    case PartKind::overlayBoard:
    case PartKind::recorder:
    case PartKind::microphone:
    case PartKind::gimbal: return Family::imaging;
    case PartKind::mount:
    case PartKind::damper:
    case PartKind::pad:
    case PartKind::fastener:
    case PartKind::strap:
    case PartKind::tube:
    case PartKind::landingFoot:
    case PartKind::fan:
    case PartKind::heatSink:
    case PartKind::guard:
    case PartKind::other: return Family::structure;
    case PartKind::battery: return Family::load;
    }
    return Family::structure;
}

bool holdsOthers(PartKind kind) {
    return kind == PartKind::fastener || kind == PartKind::strap || kind == PartKind::tube || kind == PartKind::mount ||
           kind == PartKind::damper;
}

} // namespace waxis
