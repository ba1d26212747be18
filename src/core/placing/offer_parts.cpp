// Places on other parts: tubes for whips, connectors of radios, tops of masts and wedges.
#include "core/base/units.h"
#include "core/placing/offers.h"
#include "core/placing/usual_hold.h"
#include "core/radio/connector.h"

#include <algorithm>

namespace waxis {

namespace {

Vec3 offOf(const Asked &asked, const Vec3 &at) {
    return asked.everywhere ? Vec3(Vec3::Zero()) : Vec3(asked.wanted.position_mm - at);
}

bool somethingElseIsOn(const Asked &asked, const std::string &carrier, auto &&counts) {
    return std::any_of(asked.build.parts.begin(), asked.build.parts.end(), [&](const Part &other) {
        const auto &onto = other.fastening.onto;
        const PartType *type = typeOf(asked.build, other);
        return other.id != asked.part.id && type && counts(*type) &&
               std::find(onto.begin(), onto.end(), carrier) != onto.end();
    });
}

} // namespace

void offerTubes(const Asked &asked) {
    if (!isWhip(asked.type)) return;
    for (const auto &tube : asked.build.parts) {
        const PartType *type = typeOf(asked.build, tube);
        if (!type || type->kind != PartKind::tube || tube.id == asked.part.id) continue;
        const Vec3 bore = boxAt(*type, Quat::Identity()).size_mm();
        if (std::max(bore.x(), bore.y()) > 6) continue; // booms carry antennas on them, not in them
        if (somethingElseIsOn(asked, tube.id, [](const PartType &t) { return t.kind == PartKind::antenna; })) continue;
        Perch perch;
        perch.kind = PerchKind::tube;
        perch.on = tube.id;
        perch.X_FramePart = framePose(asked.build, tube);
        perch.fastening.method = FasteningMethod::ties;
        perch.fastening.onto = {tube.id};
        asked.offer(perch, offOf(asked, perch.X_FramePart.position_mm));
    }
}

void offerSockets(const Asked &asked) {
    if (!asked.type.antenna || asked.type.antenna->connector.empty()) return;
    const CoaxConnector own = coaxConnectorOf(asked.type.antenna->connector);
    if (own.family.find("SMA") == std::string::npos && own.family != "MMCX") return; // it comes with a lead of its own
    const Port *feed = nullptr;
    for (const auto &port : asked.type.ports)
        if (port.kind == PortKind::coax) feed = &port;
    if (!feed) return;
    for (const auto &radio : asked.build.parts) {
        const PartType *type = typeOf(asked.build, radio);
        if (!type || radio.id == asked.part.id || type->antenna || type->radio.empty()) continue;
        for (const auto &port : type->ports) {
            if (port.kind != PortKind::coax || mating(own, coaxConnectorOf(port.connector)) != Mating::mates) continue;
            const bool wired = std::any_of(asked.build.wires.begin(), asked.build.wires.end(), [&](const Wire &w) {
                return (w.from.part == radio.id && w.from.port == port.id) ||
                       (w.to.part == radio.id && w.to.port == port.id);
            });
            if (wired || somethingElseIsOn(asked, radio.id, [](const PartType &t) { return bool(t.antenna); }))
                continue;
            const Pose seat = framePose(asked.build, radio);
            Perch perch;
            perch.kind = PerchKind::socket;
            perch.on = radio.id;
            // The feed looks into the connector.
            perch.X_FramePart.rotation =
                canonical(Quat::FromTwoVectors(-feed->direction, seat.rotation * port.direction));
            perch.X_FramePart.position_mm = seat * port.position_mm - perch.X_FramePart.rotation * feed->position_mm;
            perch.fastening.method = FasteningMethod::screws;
            perch.fastening.onto = {radio.id};
            perch.fastening.pieces = 0; // by its own thread
            asked.offer(perch, offOf(asked, perch.X_FramePart.position_mm));
        }
    }
}

void offerCarriers(const Asked &asked) {
    const PartKind kind = asked.type.kind;
    const bool suits = kind == PartKind::gps || kind == PartKind::payloadCamera || kind == PartKind::antenna ||
                       kind == PartKind::gimbal || kind == PartKind::buzzer;
    if (!suits || isWhip(asked.type)) return;
    for (const auto &carrier : asked.build.parts) {
        const PartType *type = typeOf(asked.build, carrier);
        if (!type || carrier.id == asked.part.id || !carriesParts(*type)) continue;
        if (somethingElseIsOn(asked, carrier.id, [](const PartType &t) { return t.kind != PartKind::fastener; }))
            continue;
        const Pose seat = framePose(asked.build, carrier);
        const Aabb own = boxAt(*type, Quat::Identity());
        Perch perch;
        perch.kind = PerchKind::part;
        perch.on = carrier.id;
        perch.X_FramePart.rotation =
            canonical(seat.rotation * quaternionFrom({0, 0, rollPitchYawFrom(asked.wanted.rotation).yaw_deg}));
        const Vec3 middle = (own.min_mm + own.max_mm) / 2;
        const Vec3 top = seat * Vec3(middle.x(), middle.y(), own.max_mm.z());
        perch.X_FramePart.position_mm =
            top - seat.rotation * Vec3(0, 0, boxAt(asked.type, Quat::Identity()).min_mm.z());
        perch.fastening.method = usualHold(asked.type);
        perch.fastening.onto = {carrier.id};
        asked.offer(perch, offOf(asked, perch.X_FramePart.position_mm));
    }
}

} // namespace waxis
