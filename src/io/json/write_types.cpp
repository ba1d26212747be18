// Part types as JSON.
#include "io/json/writing.h"

namespace waxis::io {

OrderedJson toJson(const Solid &solid) {
    OrderedJson out;
    if (const auto *box = std::get_if<Box>(&solid.shape)) {
        out["shape"] = "box";
        out["size_mm"] = toJson(box->fullSize_mm);
    } else if (const auto *cylinder = std::get_if<Cylinder>(&solid.shape)) {
        out["shape"] = "cylinder";
        out["diameter_mm"] = cylinder->diameter_mm;
        out["length_mm"] = cylinder->length_mm;
    } else if (const auto *sphere = std::get_if<Sphere>(&solid.shape)) {
        out["shape"] = "sphere";
        out["diameter_mm"] = sphere->diameter_mm;
    } else if (const auto *mesh = std::get_if<Mesh>(&solid.shape)) {
        out["shape"] = "mesh";
        auto points = OrderedJson::array();
        for (const auto &p : mesh->points_mm) points.push_back(toJson(p));
        out["points_mm"] = points;
        out["triangles"] = mesh->triangles;
        if (mesh->exact) {
            out["volume_mm3"] = mesh->exact->volume_mm3;
            out["centroid_mm"] = toJson(mesh->exact->centroid_mm);
            auto rows = OrderedJson::array();
            for (int i = 0; i < 3; ++i) rows.push_back(toJson(Vec3(mesh->exact->inertia_mm5.row(i).transpose())));
            out["inertia_mm5"] = rows;
        }
    } else {
        const auto &prism = std::get<Prism>(solid.shape);
        out["shape"] = "prism";
        out["outline_mm"] = ringJson(prism.polygon.outline);
        if (!prism.polygon.holes.empty()) {
            auto holes = OrderedJson::array();
            for (const auto &hole : prism.polygon.holes) holes.push_back(ringJson(hole));
            out["holes_mm"] = holes;
        }
        out["thickness_mm"] = prism.thickness_mm;
    }
    putPose(out, solid.X_PartSolid);
    if (solid.role != SolidRole::body) out["role"] = nameOf(solid.role);
    putText(out, "material", solid.material);
    putFlag(out, "bare", solid.bare);
    return out;
}

OrderedJson toJson(const Pin &pin) {
    OrderedJson out{{"signal", pin.signal}};
    putMaybe(out, "level_V", pin.level_V);
    putFlag(out, "inverted", pin.inverted);
    return out;
}

OrderedJson toJson(const Port &port) {
    OrderedJson out;
    out["id"] = port.id;
    out["kind"] = nameOf(port.kind);
    out["position_mm"] = toJson(port.position_mm);
    out["direction"] = toJson(port.direction);
    if (!port.fullSize_mm.isZero()) out["room_mm"] = toJson(port.fullSize_mm);
    putList(out, "pins", port.pins);
    putFlag(out, "mustStayReachable", port.mustStayReachable);
    putText(out, "connector", port.connector);
    return out;
}

OrderedJson toJson(const Vec2 &v) { return {tidy(v.x()), tidy(v.y())}; }
OrderedJson toJson(const Vec3 &v) { return {tidy(v.x()), tidy(v.y()), tidy(v.z())}; }

OrderedJson toJson(const Measured &measured) {
    auto out = OrderedJson::object();
    if (measured.value) out["value"] = tidy(*measured.value);
    if (measured.tolerance) out["tolerance"] = tidy(*measured.tolerance);
    out["source"] = nameOf(measured.source);
    return out;
}

OrderedJson toJson(const HolePattern &pattern) {
    OrderedJson out;
    out["shape"] = nameOf(pattern.shape);
    out["size_mm"] = pattern.size_mm;
    if (pattern.width_mm != 0) out["width_mm"] = pattern.width_mm;
    out["holeDiameter_mm"] = pattern.holeDiameter_mm;
    if (pattern.holes != 4) out["holes"] = pattern.holes;
    return out;
}

OrderedJson toJson(const PowerOutput &output) {
    OrderedJson out{{"id", output.id}, {"voltage_V", output.voltage_V}, {"limit_A", output.limit_A}};
    putMaybe(out, "efficiency", output.efficiency);
    return out;
}

OrderedJson toJson(const Electrical &e) {
    auto out = OrderedJson::object();
    putMaybe(out, "supplyMin_V", e.supplyMin_V);
    putMaybe(out, "supplyMax_V", e.supplyMax_V);
    putMeasured(out, "typical_A", e.typical_A);
    putMeasured(out, "peak_A", e.peak_A);
    putList(out, "outputs", e.outputs);
    putMaybe(out, "continuous_A", e.continuous_A);
    putMaybe(out, "cells", e.cells);
    putMaybe(out, "capacity_mAh", e.capacity_mAh);
    putMaybe(out, "cellFull_V", e.cellFull_V);
    putMaybe(out, "capacitance_uF", e.capacitance_uF);
    putMaybe(out, "rated_V", e.rated_V);
    return out;
}

OrderedJson toJson(const RadioBand &band) {
    OrderedJson out{{"low_MHz", band.low_MHz}, {"high_MHz", band.high_MHz}};
    putMaybe(out, "power_dBm", band.power_dBm);
    putFlag(out, "listens", band.listens);
    putMaybe(out, "bandwidth_MHz", band.bandwidth_MHz);
    putMaybe(out, "noiseFigure_dB", band.noiseFigure_dB);
    putMaybe(out, "selectivity_dB", band.selectivity_dB);
    putMaybe(out, "harmonicSuppression_dB", band.harmonicSuppression_dB);
    putMaybe(out, "blocking_dBm", band.blocking_dBm);
    putMaybe(out, "needed_dB", band.needed_dB);
    putList(out, "channels", band.channels);
    putText(out, "port", band.port);
    return out;
}

OrderedJson toJson(const Antenna &antenna) {
    OrderedJson out{{"kind", nameOf(antenna.kind)},
                    {"low_MHz", antenna.low_MHz},
                    {"high_MHz", antenna.high_MHz},
                    {"gain_dBi", antenna.gain_dBi},
                    {"polarisation", nameOf(antenna.polarisation)}};
    out["phaseCentre_mm"] = toJson(antenna.phaseCentre_mm);
    out["axis"] = toJson(antenna.axis);
    if (antenna.pigtail_mm != 0) out["pigtail_mm"] = antenna.pigtail_mm;
    putText(out, "connector", antenna.connector);
    putText(out, "coax", antenna.coax);
    putMaybe(out, "axialRatio_dB", antenna.axialRatio_dB);
    putList(out, "pattern", antenna.pattern);
    return out;
}

OrderedJson toJson(const RadioChannel &channel) {
    OrderedJson out = OrderedJson::object();
    putText(out, "name", channel.name);
    out["centre_MHz"] = channel.centre_MHz;
    return out;
}

OrderedJson toJson(const PatternPoint &point) { return {{"angle_deg", point.angle_deg}, {"gain_dBi", point.gain_dBi}}; }

OrderedJson toJson(const Clock &clock) {
    OrderedJson out = OrderedJson::object();
    putText(out, "name", clock.name);
    out["frequency_MHz"] = clock.frequency_MHz;
    return out;
}

OrderedJson toJson(const Camera &camera) {
    OrderedJson out{{"lens_mm", toJson(camera.lens_mm)}, {"axis", toJson(camera.axis)}};
    out["horizontalView_deg"] = camera.horizontalView_deg;
    out["verticalView_deg"] = camera.verticalView_deg;
    out["tiltMin_deg"] = camera.tiltMin_deg;
    out["tiltMax_deg"] = camera.tiltMax_deg;
    return out;
}

OrderedJson toJson(const SuppliedLead &lead) {
    OrderedJson out{{"port", lead.port}, {"length_mm", lead.length_mm}};
    if (lead.gauge_AWG != 0) out["gauge_AWG"] = lead.gauge_AWG;
    putText(out, "plug", lead.plug);
    return out;
}

OrderedJson toJson(const FastenerData &fastener) {
    OrderedJson out{{"form", nameOf(fastener.form)}, {"thread", fastener.thread}};
    out["length_mm"] = fastener.length_mm;
    if (fastener.head != HeadStyle::cap) out["head"] = nameOf(fastener.head);
    if (fastener.stud_mm != 0) out["stud_mm"] = fastener.stud_mm;
    if (fastener.bore_mm != 0) out["bore_mm"] = fastener.bore_mm;
    if (fastener.pieces != 1) out["pieces"] = fastener.pieces;
    return out;
}

OrderedJson toJson(const PartType &type) {
    OrderedJson out;
    out["id"] = type.id;
    out["name"] = type.name;
    putText(out, "maker", type.maker);
    out["kind"] = nameOf(type.kind);
    putText(out, "note", type.note);
    putMeasured(out, "mass_g", type.mass_g);
    if (type.centreOfMass_mm) out["centreOfMass_mm"] = toJson(*type.centreOfMass_mm);
    if (type.mounting) out["mounting"] = toJson(*type.mounting);
    if (type.arrow) out["arrow"] = toJson(*type.arrow);
    putFlag(out, "hot", type.hot);
    putFlag(out, "flexible", type.flexible);
    putMeasured(out, "maxThrust_gf", type.maxThrust_gf);
    putSpin(out, "turns", type.turns);
    if (type.propDiameter_mm) out["propDiameter_mm"] = *type.propDiameter_mm;
    putMeasured(out, "threadDepth_mm", type.threadDepth_mm);
    if (type.fastener) out["fastener"] = toJson(*type.fastener);
    if (type.carries) out["carries"] = toJson(*type.carries);
    if (type.electrical) out["electrical"] = toJson(*type.electrical);
    putList(out, "radio", type.radio);
    putList(out, "clocks", type.clocks);
    if (type.antenna) out["antenna"] = toJson(*type.antenna);
    if (type.camera) out["camera"] = toJson(*type.camera);
    if (type.magnetics) {
        OrderedJson magnetics = OrderedJson::object();
        if (!type.magnetics->dipole_mAm2.isZero(0)) magnetics["dipole_mAm2"] = toJson(type.magnetics->dipole_mAm2);
        putFlag(magnetics, "ferrous", type.magnetics->ferrous);
        if (type.magnetics->compass_mm) magnetics["compass_mm"] = toJson(*type.magnetics->compass_mm);
        out["magnetics"] = magnetics;
    }
    putList(out, "leads", type.leads);
    putFlag(out, "mustSeeSky", type.mustSeeSky);
    putFlag(out, "fragile", type.fragile);
    out["solids"] = listJson(type.solids);
    putList(out, "ports", type.ports);
    return out;
}

} // namespace waxis::io
