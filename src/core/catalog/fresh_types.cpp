#include "core/catalog/fresh_types.h"

#include "core/catalog/connectors.h"
#include "core/catalog/part_check.h"

#include <fmt/format.h>

namespace waxis {

namespace {

// Sizes, bands and volts here are common practice, no source: something to type over.

void addBody(PartType &type, const Shape &shape, double height_mm, SolidRole role, const char *material) {
    Solid &solid = type.solids.emplace_back();
    solid.shape = shape;
    solid.X_PartSolid.position_mm.z() = height_mm / 2;
    solid.role = role;
    solid.material = material;
}

void addBox(PartType &type, const Vec3 &size, SolidRole role = SolidRole::body, const char *material = "") {
    addBody(type, Box{size}, size.z(), role, material);
}

void addBodies(PartType &type) {
    switch (type.kind) {
    case PartKind::flightController:
    case PartKind::fourInOneEsc:
    case PartKind::distributionBoard:
    case PartKind::videoTransmitter:
    case PartKind::digitalVideoUnit:
        addBox(type, {36, 36, 1.6}, SolidRole::board, "glass-laminate");
        type.mounting = HolePattern{PatternShape::square, 30.5, 0, 3.2, 4};
        break;
    case PartKind::motor:
        addBody(type, Cylinder{28, 18}, 18, SolidRole::body, "steel");
        type.mounting = HolePattern{PatternShape::circle, 16, 0, 3.2, 4};
        break;
    case PartKind::battery: addBox(type, {75, 35, 30}); break;
    case PartKind::gps:
    case PartKind::receiver: addBox(type, {20, 20, 1.2}, SolidRole::board, "glass-laminate"); break;
    case PartKind::antenna: addBody(type, Cylinder{2, 31}, 31, SolidRole::body, ""); break;
    case PartKind::flightCamera: addBox(type, {20, 19, 19}); break;
    case PartKind::payloadCamera: addBox(type, {30, 60, 45}); break;
    case PartKind::servo: addBox(type, {23, 12, 24}); break;
    default: addBox(type, {20, 15, 8}); break;
    }
}

void addConnectors(PartType &type) {
    const auto add = [&](std::initializer_list<const char *> ids) {
        for (const char *id : ids) type.ports.push_back(connectorFor(*findPinSet(id), type));
    };
    switch (type.kind) {
    case PartKind::flightController:
        add({"esc", "serial-pads", "serial-pads", "video", "bus", "lamps", "beeper", "usb"});
        break;
    case PartKind::fourInOneEsc:
        add({"battery"});
        type.ports.push_back(connectorFor(*findPinSet("esc"), type, Side::fore));
        for (const Side side : {Side::left, Side::right, Side::left, Side::right})
            type.ports.push_back(connectorFor(*findPinSet("phases"), type, side));
        break;
    case PartKind::esc: add({"battery", "signal", "phases"}); break;
    case PartKind::videoTransmitter: add({"vtx", "antenna-rp-sma"}); break;
    case PartKind::digitalVideoUnit: add({"unit", "link", "antenna-snap", "antenna-snap"}); break;
    case PartKind::antenna:
        type.ports.push_back(connectorFor(*findPinSet("antenna-snap"), type, Side::under));
        type.ports.back().id = "feed";
        break;
    case PartKind::receiver: add({"serial-pads", "antenna-snap", "bind"}); break;
    case PartKind::flightCamera: add({"camera", "lens"}); break;
    case PartKind::payloadCamera: add({"lens"}); break;
    case PartKind::gimbal: add({"supply-12v", "servo"}); break;
    default:
        if (const auto usual = usualPinSets(type.kind); !usual.empty()) add({usual.front()->id.data()});
        if (type.kind == PartKind::battery) add({"balance"});
        if (type.kind == PartKind::regulator || type.kind == PartKind::distributionBoard) add({"out-5v"});
        if (type.kind == PartKind::powerPlug)
            type.ports.push_back(connectorFor(*findPinSet("battery"), type, Side::fore));
    }
}

std::string firstCoax(const PartType &type) {
    for (const auto &port : type.ports)
        if (port.kind == PortKind::coax) return port.id;
    return {};
}

void addRatings(PartType &type) {
    RadioBand band;
    band.port = firstCoax(type);
    switch (type.kind) {
    case PartKind::battery:
        type.electrical.emplace();
        type.electrical->cells = 4;
        type.electrical->cellFull_V = 4.2;
        break;
    case PartKind::regulator:
        type.electrical.emplace();
        type.electrical->outputs = {{"5v", 5, 1, 0.88}};
        break;
    case PartKind::flightController:
        type.electrical.emplace();
        type.electrical->outputs = {{"5v", 5, 2, 0.88}};
        type.arrow = Vec3::UnitX();
        break;
    case PartKind::receiver:
        band.low_MHz = 2400;
        band.high_MHz = 2480;
        band.listens = true;
        type.radio = {band};
        break;
    case PartKind::videoTransmitter: type.hot = true; [[fallthrough]];
    case PartKind::digitalVideoUnit:
        band.low_MHz = 5725;
        band.high_MHz = 5850;
        band.power_dBm = 14; // 25 mW
        for (int channel = 0; channel < 5; ++channel)
            band.channels.push_back({fmt::format("{}", channel + 1), 5745.0 + 20 * channel});
        type.radio = {band};
        break;
    case PartKind::antenna: {
        Antenna antenna;
        antenna.kind = AntennaKind::monopole;
        antenna.low_MHz = 2400;
        antenna.high_MHz = 2480;
        antenna.gain_dBi = 2;
        antenna.phaseCentre_mm = Vec3(0, 0, 15.5);
        antenna.connector = "micro-coax snap plug";
        type.antenna = antenna;
        type.flexible = true;
        break;
    }
    case PartKind::gps:
        band.low_MHz = 1559;
        band.high_MHz = 1610;
        band.listens = true;
        type.radio = {band};
        type.antenna.emplace();
        type.antenna->kind = AntennaKind::ceramicPatch;
        type.antenna->low_MHz = band.low_MHz;
        type.antenna->high_MHz = band.high_MHz;
        type.antenna->gain_dBi = 2;
        type.antenna->polarisation = Polarisation::rightCircular;
        type.antenna->phaseCentre_mm = Vec3(0, 0, 1.2);
        type.mustSeeSky = true;
        type.arrow = Vec3::UnitX();
        break;
    case PartKind::flightCamera:
    case PartKind::payloadCamera: {
        Camera camera;
        camera.horizontalView_deg = 120;
        camera.verticalView_deg = 90;
        camera.tiltMax_deg = 50;
        for (const auto &port : type.ports)
            if (port.kind == PortKind::lens) camera.lens_mm = port.position_mm;
        type.camera = camera;
        break;
    }
    default: break;
    }
}

} // namespace

PartType freshType(PartKind kind, const std::string &name) {
    PartType type;
    type.kind = kind;
    type.name = name;
    type.id = idFromName(name);
    addBodies(type);
    addConnectors(type);
    addRatings(type);
    return type;
}

} // namespace waxis
