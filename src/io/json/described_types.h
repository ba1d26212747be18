// Part types and what they are made of, as files hold them.
#pragma once

#include "core/catalog/part_type.h"
#include "io/json/described.h"

namespace waxis::io {

template <class V, Is<Measured> T>
void describe(V &v, T &measured) {
    v.sparse("value", measured.value);
    v.sparse("tolerance", measured.tolerance);
    v.must("source", measured.source);
}

template <class V, Is<HolePattern> T>
void describe(V &v, T &pattern) {
    v.must("shape", pattern.shape);
    v.must("size_mm", pattern.size_mm);
    v.sparse("width_mm", pattern.width_mm);
    v.must("holeDiameter_mm", pattern.holeDiameter_mm);
    v.sparse("holes", pattern.holes, 4);
}

template <class V, Is<Box> T>
void describe(V &v, T &box) {
    v.must("size_mm", box.fullSize_mm);
}

template <class V, Is<Cylinder> T>
void describe(V &v, T &cylinder) {
    v.must("diameter_mm", cylinder.diameter_mm);
    v.must("length_mm", cylinder.length_mm);
}

template <class V, Is<Sphere> T>
void describe(V &v, T &sphere) {
    v.must("diameter_mm", sphere.diameter_mm);
}

template <class V, Is<Prism> T>
void describe(V &v, T &prism) {
    v.must("outline_mm", prism.polygon.outline);
    v.sparse("holes_mm", prism.polygon.holes);
    v.must("thickness_mm", prism.thickness_mm);
}

template <class V, Is<Mesh> T>
void describe(V &v, T &mesh) {
    v.must("points_mm", mesh.points_mm);
    v.must("triangles", mesh.triangles);
    if constexpr (V::reads)
        if (v.has("volume_mm3")) mesh.exact.emplace();
    if (!mesh.exact) return;
    v.must("volume_mm3", mesh.exact->volume_mm3);
    v.must("centroid_mm", mesh.exact->centroid_mm);
    v.must("inertia_mm5", mesh.exact->inertia_mm5);
}

/// By the place in Shape.
inline constexpr std::array<const char *, 5> kShapeWords{"box", "cylinder", "sphere", "prism", "mesh"};

inline Shape shapeNamed(const std::string &word) {
    if (word == "box") return Box();
    if (word == "cylinder") return Cylinder();
    if (word == "sphere") return Sphere();
    if (word == "mesh") return Mesh();
    return Prism();
}

template <class V, Is<Solid> T>
void describe(V &v, T &solid) {
    std::string word = kShapeWords[solid.shape.index()];
    v.must("shape", word);
    if constexpr (V::reads) solid.shape = shapeNamed(word);
    std::visit([&](auto &shape) { describe(v, shape); }, solid.shape);
    v.pose(solid.X_PartSolid);
    v.sparse("role", solid.role);
    v.sparse("material", solid.material);
    v.sparse("bare", solid.bare);
}

template <class V, Is<Pin> T>
void describe(V &v, T &pin) {
    v.must("signal", pin.signal);
    v.sparse("level_V", pin.level_V);
    v.sparse("inverted", pin.inverted);
    v.sparse("kind", pin.kind);
    v.sparse("function", pin.function);
}

template <class V, Is<Port> T>
void describe(V &v, T &port) {
    v.must("id", port.id);
    v.must("kind", port.kind);
    v.must("position_mm", port.position_mm);
    v.unit("direction", port.direction);
    v.sparse("room_mm", port.fullSize_mm, Vec3(Vec3::Zero()));
    v.sparse("pins", port.pins);
    v.sparse("mustStayReachable", port.mustStayReachable);
    v.sparse("joint", port.joint);
    v.sparse("connector", port.connector);
    v.sparse("contacts", port.contacts);
    v.sparse("keyed", port.keyed);
    v.sparse("locks", port.locks);
    v.sparse("rows", port.rows, 1);
    v.sparse("pitch_mm", port.pitch_mm);
    v.sparse("padSize_mm", port.padSize_mm);
}

template <class V, Is<PowerOutput> T>
void describe(V &v, T &output) {
    v.must("id", output.id);
    v.must("voltage_V", output.voltage_V);
    v.must("limit_A", output.limit_A);
    v.sparse("efficiency", output.efficiency);
}

template <class V, Is<Electrical> T>
void describe(V &v, T &electrical) {
    v.sparse("supplyMin_V", electrical.supplyMin_V);
    v.sparse("supplyMax_V", electrical.supplyMax_V);
    v.sparse("typical_A", electrical.typical_A);
    v.sparse("peak_A", electrical.peak_A);
    v.sparse("draw", electrical.draw);
    v.sparse("drawnAt_V", electrical.drawnAt_V);
    v.sparse("outputs", electrical.outputs);
    v.sparse("continuous_A", electrical.continuous_A);
    v.sparse("cells", electrical.cells);
    v.sparse("capacity_mAh", electrical.capacity_mAh);
    v.sparse("cellFull_V", electrical.cellFull_V);
    v.sparse("capacitance_uF", electrical.capacitance_uF);
    v.sparse("rated_V", electrical.rated_V);
    v.sparse("resistance_Ohm", electrical.resistance_Ohm);
    v.sparse("rated_W", electrical.rated_W);
    v.sparse("forward_V", electrical.forward_V);
}

template <class V, Is<RadioChannel> T>
void describe(V &v, T &channel) {
    v.sparse("name", channel.name);
    v.must("centre_MHz", channel.centre_MHz);
}

template <class V, Is<RadioBand> T>
void describe(V &v, T &band) {
    v.must("low_MHz", band.low_MHz);
    v.must("high_MHz", band.high_MHz);
    v.sparse("power_dBm", band.power_dBm);
    v.sparse("listens", band.listens);
    v.sparse("bandwidth_MHz", band.bandwidth_MHz);
    v.sparse("noiseFigure_dB", band.noiseFigure_dB);
    v.sparse("selectivity_dB", band.selectivity_dB);
    v.sparse("harmonicSuppression_dB", band.harmonicSuppression_dB);
    v.sparse("filter_dB", band.filter_dB);
    v.sparse("intercept_dBm", band.intercept_dBm);
    v.sparse("blocking_dBm", band.blocking_dBm);
    v.sparse("needed_dB", band.needed_dB);
    v.sparse("channels", band.channels);
    v.sparse("port", band.port);
}

template <class V, Is<PatternPoint> T>
void describe(V &v, T &point) {
    v.must("angle_deg", point.angle_deg);
    v.must("gain_dBi", point.gain_dBi);
}

template <class V, Is<Antenna> T>
void describe(V &v, T &antenna) {
    v.must("kind", antenna.kind);
    v.must("low_MHz", antenna.low_MHz);
    v.must("high_MHz", antenna.high_MHz);
    v.must("gain_dBi", antenna.gain_dBi);
    v.must("polarisation", antenna.polarisation);
    v.must("phaseCentre_mm", antenna.phaseCentre_mm);
    v.unit("axis", antenna.axis);
    v.sparse("pigtail_mm", antenna.pigtail_mm);
    v.sparse("connector", antenna.connector);
    v.sparse("coax", antenna.coax);
    v.sparse("axialRatio_dB", antenna.axialRatio_dB);
    v.sparse("pattern", antenna.pattern);
}

template <class V, Is<Camera> T>
void describe(V &v, T &camera) {
    v.must("lens_mm", camera.lens_mm);
    v.unit("axis", camera.axis);
    v.must("horizontalView_deg", camera.horizontalView_deg);
    v.must("verticalView_deg", camera.verticalView_deg);
    v.must("tiltMin_deg", camera.tiltMin_deg);
    v.must("tiltMax_deg", camera.tiltMax_deg);
}

template <class V, Is<Clock> T>
void describe(V &v, T &clock) {
    v.sparse("name", clock.name);
    v.must("frequency_MHz", clock.frequency_MHz);
}

template <class V, Is<Magnetics> T>
void describe(V &v, T &magnetics) {
    v.sparse("dipole_mAm2", magnetics.dipole_mAm2, Vec3(Vec3::Zero()));
    v.sparse("ferrous", magnetics.ferrous);
    v.sparse("compass_mm", magnetics.compass_mm);
    v.sparse("compassTurn_deg", magnetics.compassTurn_deg);
    v.sparse("compassOnItsBack", magnetics.compassOnItsBack);
}

template <class V, Is<SuppliedLead> T>
void describe(V &v, T &lead) {
    v.must("port", lead.port);
    v.must("length_mm", lead.length_mm);
    v.sparse("gauge_AWG", lead.gauge_AWG);
    v.sparse("plug", lead.plug);
    v.sparse("pins", lead.pins);
    v.sparse("colours", lead.colours);
    v.sparse("plugSize_mm", lead.plugSize_mm);
}

template <class V, Is<FastenerData> T>
void describe(V &v, T &fastener) {
    v.must("form", fastener.form);
    v.must("thread", fastener.thread);
    v.must("length_mm", fastener.length_mm);
    v.sparse("head", fastener.head);
    v.sparse("stud_mm", fastener.stud_mm);
    v.sparse("bore_mm", fastener.bore_mm);
    v.sparse("pieces", fastener.pieces, 1);
}

template <class V, Is<Travel> T>
void describe(V &v, T &travel) {
    v.sparse("name", travel.name);
    v.must("pivot_mm", travel.pivot_mm);
    v.unit("axis", travel.axis);
    v.must("from_deg", travel.from_deg);
    v.must("to_deg", travel.to_deg);
    v.sparse("firstSolid", travel.firstSolid);
}

template <class V, Is<PartType> T>
void describe(V &v, T &type) {
    v.must("id", type.id);
    v.must("name", type.name);
    v.sparse("maker", type.maker);
    v.must("kind", type.kind);
    v.sparse("note", type.note);
    v.sparse("mass_g", type.mass_g);
    v.sparse("centreOfMass_mm", type.centreOfMass_mm);
    v.sparse("mounting", type.mounting);
    v.sparseUnit("arrow", type.arrow);
    v.sparse("hot", type.hot);
    v.sparse("flexible", type.flexible);
    v.sparse("maxThrust_gf", type.maxThrust_gf);
    v.sparse("turns", type.turns);
    v.sparse("propDiameter_mm", type.propDiameter_mm);
    v.sparse("propPitch_mm", type.propPitch_mm);
    v.sparse("propBlades", type.propBlades);
    v.sparse("bore_mm", type.bore_mm);
    v.sparse("shaft_mm", type.shaft_mm);
    v.sparse("shaftThread", type.shaftThread);
    v.sparse("threadDepth_mm", type.threadDepth_mm);
    v.sparse("fastener", type.fastener);
    v.sparse("carries", type.carries);
    v.sparse("electrical", type.electrical);
    v.sparse("radio", type.radio);
    v.sparse("clocks", type.clocks);
    v.sparse("antenna", type.antenna);
    v.sparse("camera", type.camera);
    v.sparse("magnetics", type.magnetics);
    v.sparse("leads", type.leads);
    v.sparse("travels", type.travels);
    v.sparse("functions", type.functions);
    v.sparse("strapLength_mm", type.strapLength_mm);
    v.sparse("coolingArea_cm2", type.coolingArea_cm2);
    v.sparse("mustSeeSky", type.mustSeeSky);
    v.sparse("fragile", type.fragile);
    v.must("solids", type.solids);
    v.sparse("ports", type.ports);
}

} // namespace waxis::io
