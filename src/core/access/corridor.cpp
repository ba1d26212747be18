#include "core/access/corridor.h"

#include "core/scene/scene.h"

#include <algorithm>

namespace waxis {

Vec3 plugRoom_mm(const Port &port) {
    if (port.fullSize_mm.x() > 0) return port.fullSize_mm;
    switch (port.kind) {
    case PortKind::usb: return {22, 12, 8};
    case PortKind::card: return {14, 13, 2.5};
    case PortKind::plug:
    case PortKind::socket: return {8, 6, 5};
    case PortKind::coax: return {10, 4, 4};
    case PortKind::pads:
    case PortKind::lens:
    case PortKind::button:
    case PortKind::lamp: return Vec3::Zero();
    }
    return Vec3::Zero();
}

Corridor corridorOf(const Port &port, const Pose &X_FramePart, bool withHand, const Practice &practice) {
    Corridor corridor;
    corridor.stated = port.fullSize_mm.x() > 0;
    Vec3 size = plugRoom_mm(port);
    if (withHand) {
        const double finger = practice[Limit::handRoom];
        switch (port.kind) {
        case PortKind::button: size = {2 * finger, 2.5, 2.5}; break; // a pin; bare fingers fit nowhere near
        case PortKind::card: size = size.cwiseMax(Vec3(2 * finger, finger, size.z())); break;
        case PortKind::usb: size.x() = std::max(size.x(), 2 * finger); break;
        case PortKind::plug:
        case PortKind::socket:
        case PortKind::coax: size = size.cwiseMax(Vec3(2 * finger, finger, size.z())); break;
        case PortKind::pads:
        case PortKind::lens:
        case PortKind::lamp: break;
        }
    }
    corridor.fullSize_mm = size;
    // The box's x runs out of the port; its z stays as upright in the part as it can.
    const Vec3 out = port.direction.normalized();
    Vec3 up = Vec3::UnitZ() - out.z() * out;
    if (up.squaredNorm() < 1e-9) up = Vec3::UnitX() - out.x() * out;
    up.normalize();
    Mat3 turn;
    turn << out, up.cross(out), up;
    corridor.body.owner = -1;
    corridor.body.shape = Box{size};
    corridor.body.X_FrameBody = X_FramePart * Pose{port.position_mm + out * (size.x() / 2), Quat(turn)};
    return corridor;
}

/// Mounts block ports as any body does, but not those of the very part that they carry.
static bool isHeldBy(const Scene &scene, int self, int mount) {
    const auto &onto = scene.owners[std::size_t(self)].onto;
    return std::find(onto.begin(), onto.end(), mount) != onto.end();
}

std::vector<int> blockersOf(const Corridor &corridor, const Scene &scene, int self, int loadCase, double slack_mm) {
    std::vector<int> owners;
    if (!(corridor.fullSize_mm.minCoeff() > 0)) return owners;
    Body probe = corridor.body;
    probe.shape = Box{(corridor.fullSize_mm - Vec3::Constant(2 * slack_mm)).cwiseMax(0.1)};
    const Aabb bounds = boundsOf(probe.shape, probe.X_FrameBody);
    const auto &bodies = scene.world->bodies();
    for (std::size_t i = 0; i < bodies.size(); ++i) {
        const BodyTraits &traits = scene.traits[i];
        const BodyOwner &owner = scene.owners[std::size_t(traits.owner)];
        if (traits.owner == self || traits.soft || owner.flexible || owner.holds || owner.kind == OwnerKind::disc ||
            !(owner.cases >> loadCase & 1) || (owner.carries && isHeldBy(scene, self, traits.owner)))
            continue;
        if (std::find(owners.begin(), owners.end(), traits.owner) != owners.end()) continue;
        if (boxGap(bounds, boundsOf(bodies[i].shape, bodies[i].X_FrameBody)) > 0) continue;
        if (measureGap(probe, bodies[i]).distance_mm <= 0) owners.push_back(traits.owner);
    }
    return owners;
}

} // namespace waxis
