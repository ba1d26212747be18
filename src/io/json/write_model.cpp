#include "io/json/write_model.h"

#include "io/names.h"

namespace waxis::io {

// Pieces that no other file needs; static rather than unnamed, so that they overload with the public ones.
static OrderedJson toJson(const Solid &);
static OrderedJson toJson(const Pin &);
static OrderedJson toJson(const Port &);
static OrderedJson toJson(const MotorMount &);
static OrderedJson toJson(const Arm &);
static OrderedJson toJson(const RoundHole &);
static OrderedJson toJson(const Plate &);
static OrderedJson toJson(const Standoff &);
static OrderedJson toJson(const Site &);
static OrderedJson toJson(const PassThrough &);
static OrderedJson toJson(const Material &);
static OrderedJson toJson(const Allowance &);
static OrderedJson toJson(const LoadCase &);
static OrderedJson toJson(const Acceptance &);
static OrderedJson toJson(const KitEntry &);
static OrderedJson toJson(const PowerOutput &);
static OrderedJson toJson(const Electrical &);
static OrderedJson toJson(const RadioBand &);
static OrderedJson toJson(const Antenna &);
static OrderedJson toJson(const Camera &);
static OrderedJson toJson(const SuppliedLead &);
static OrderedJson toJson(const FastenerData &);
static OrderedJson toJson(const StackLayer &);
static OrderedJson toJson(const Stack &);
static OrderedJson toJson(const Wire &);
static OrderedJson toJson(const WireCore &);
static OrderedJson toJson(const RouteStop &);
static OrderedJson toJson(const TiePoint &);
static OrderedJson toJson(const RadioChannel &);
static OrderedJson toJson(const PatternPoint &);
static OrderedJson toJson(const Clock &);
static OrderedJson toJson(const RadioSetting &);
static OrderedJson toJson(const GroundStation &);
static OrderedJson toJson(const TrialPlace &);

namespace {

/// No "-0.0" in files.
double tidy(double value) { return value == 0 ? 0.0 : value; }

OrderedJson rotationJson(const Quat &q) { return {tidy(q.w()), tidy(q.x()), tidy(q.y()), tidy(q.z())}; }

OrderedJson ringJson(const Ring &ring) {
    auto list = OrderedJson::array();
    for (const auto &p : ring) list.push_back(toJson(p));
    return list;
}

template <class List>
OrderedJson listJson(const List &list) {
    auto result = OrderedJson::array();
    for (const auto &item : list) result.push_back(toJson(item));
    return result;
}

void putPose(OrderedJson &out, const Pose &pose) {
    out["position_mm"] = toJson(pose.position_mm);
    if (!(pose.rotation.coeffs() == Quat::Identity().coeffs())) out["rotation"] = rotationJson(pose.rotation);
}

void putMeasured(OrderedJson &out, const char *key, const Measured &measured) {
    if (!(measured == Measured{})) out[key] = toJson(measured);
}

void putText(OrderedJson &out, const char *key, const std::string &text) {
    if (!text.empty()) out[key] = text;
}

void putFlag(OrderedJson &out, const char *key, bool flag) {
    if (flag) out[key] = true;
}

template <class Number>
void putMaybe(OrderedJson &out, const char *key, const std::optional<Number> &value) {
    if (value) out[key] = *value;
}

void putSpin(OrderedJson &out, const char *key, const std::optional<Spin> &spin) {
    if (spin) out[key] = nameOf(*spin);
}

template <class List>
void putList(OrderedJson &out, const char *key, const List &list) {
    if (!list.empty()) out[key] = listJson(list);
}

template <class Map>
OrderedJson mapJson(const Map &map) {
    auto out = OrderedJson::object();
    for (const auto &[key, value] : map) out[key] = value;
    return out;
}

} // namespace

static OrderedJson toJson(const Solid &solid) {
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

static OrderedJson toJson(const Pin &pin) {
    OrderedJson out{{"signal", pin.signal}};
    putMaybe(out, "level_V", pin.level_V);
    putFlag(out, "inverted", pin.inverted);
    return out;
}

static OrderedJson toJson(const Port &port) {
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

static OrderedJson toJson(const MotorMount &mount) {
    OrderedJson out;
    out["id"] = mount.id;
    out["position_mm"] = toJson(mount.position_mm);
    if (mount.axis != Vec3::UnitZ()) out["axis"] = toJson(mount.axis);
    out["propDiameter_mm"] = mount.propDiameter_mm;
    out["propPlane_mm"] = mount.propPlane_mm;
    if (mount.flexUp_mm) out["flexUp_mm"] = *mount.flexUp_mm;
    if (mount.flexDown_mm) out["flexDown_mm"] = *mount.flexDown_mm;
    out["spin"] = nameOf(mount.spin);
    if (mount.number != 0) out["number"] = mount.number;
    if (mount.pattern.size_mm > 0) out["pattern"] = toJson(mount.pattern);
    return out;
}

static OrderedJson toJson(const Arm &arm) {
    OrderedJson out;
    out["id"] = arm.id;
    out["root_mm"] = toJson(arm.root_mm);
    out["tip_mm"] = toJson(arm.tip_mm);
    out["width_mm"] = arm.width_mm;
    out["thickness_mm"] = arm.thickness_mm;
    out["material"] = arm.material;
    if (arm.foldJoint_mm) out["foldJoint_mm"] = *arm.foldJoint_mm;
    if (arm.foldAngle_deg) out["foldAngle_deg"] = *arm.foldAngle_deg;
    putFlag(out, "foldsDown", arm.foldsDown);
    putMeasured(out, "mass_g", arm.mass_g);
    return out;
}

static OrderedJson toJson(const RoundHole &hole) {
    return {{"centre_mm", toJson(hole.centre_mm)}, {"diameter_mm", hole.diameter_mm}};
}

static OrderedJson toJson(const Plate &plate) {
    OrderedJson out;
    out["id"] = plate.id;
    putText(out, "name", plate.name);
    out["z_mm"] = plate.z_mm;
    out["thickness_mm"] = plate.thickness_mm;
    out["material"] = plate.material;
    putFlag(out, "isolated", plate.isolated);
    putMeasured(out, "mass_g", plate.mass_g);
    out["outline_mm"] = ringJson(plate.outline_mm);
    putList(out, "holes", plate.holes);
    if (!plate.cutouts_mm.empty()) {
        auto cutouts = OrderedJson::array();
        for (const auto &ring : plate.cutouts_mm) cutouts.push_back(ringJson(ring));
        out["cutouts_mm"] = cutouts;
    }
    return out;
}

static OrderedJson toJson(const Standoff &standoff) {
    OrderedJson out;
    out["id"] = standoff.id;
    if (standoff.role != StandoffRole::standoff) out["role"] = nameOf(standoff.role);
    out["base_mm"] = toJson(standoff.base_mm);
    out["height_mm"] = standoff.height_mm;
    out["diameter_mm"] = standoff.diameter_mm;
    out["bore_mm"] = standoff.bore_mm;
    out["thread"] = standoff.thread;
    out["material"] = standoff.material;
    putMeasured(out, "mass_g", standoff.mass_g);
    return out;
}

static OrderedJson toJson(const Site &site) {
    OrderedJson out;
    out["id"] = site.id;
    putText(out, "name", site.name);
    out["kind"] = nameOf(site.kind);
    putText(out, "on", site.on);
    putPose(out, site.X_FrameSite);
    if (site.pattern) out["pattern"] = toJson(*site.pattern);
    putFlag(out, "isolated", site.isolated);
    return out;
}

static OrderedJson toJson(const PassThrough &pass) {
    return {
        {"id", pass.id}, {"plate", pass.plate}, {"outline_mm", ringJson(pass.outline_mm)}, {"edge", nameOf(pass.edge)}};
}

static OrderedJson toJson(const Material &material) {
    OrderedJson out{{"name", material.name}, {"density_g_cm3", material.density_g_cm3}};
    putFlag(out, "conducts", material.conducts);
    putFlag(out, "printed", material.printed);
    return out;
}

static OrderedJson toJson(const Allowance &allowance) {
    return {{"id", allowance.id},
            {"name", allowance.name},
            {"mass_g", toJson(allowance.mass_g)},
            {"position_mm", toJson(allowance.position_mm)}};
}

static OrderedJson toJson(const LoadCase &loadCase) {
    OrderedJson out{{"id", loadCase.id}, {"name", loadCase.name}};
    if (!loadCase.aboard.empty()) out["aboard"] = loadCase.aboard;
    putText(out, "battery", loadCase.battery);
    putFlag(out, "folded", loadCase.folded);
    return out;
}

static OrderedJson toJson(const Acceptance &acceptance) {
    return {{"finding", acceptance.finding}, {"reason", acceptance.reason}};
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

static OrderedJson toJson(const PowerOutput &output) {
    OrderedJson out{{"id", output.id}, {"voltage_V", output.voltage_V}, {"limit_A", output.limit_A}};
    putMaybe(out, "efficiency", output.efficiency);
    return out;
}

static OrderedJson toJson(const Electrical &e) {
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

static OrderedJson toJson(const RadioBand &band) {
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

static OrderedJson toJson(const Antenna &antenna) {
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

static OrderedJson toJson(const RadioChannel &channel) {
    OrderedJson out = OrderedJson::object();
    putText(out, "name", channel.name);
    out["centre_MHz"] = channel.centre_MHz;
    return out;
}

static OrderedJson toJson(const PatternPoint &point) {
    return {{"angle_deg", point.angle_deg}, {"gain_dBi", point.gain_dBi}};
}

static OrderedJson toJson(const Clock &clock) {
    OrderedJson out = OrderedJson::object();
    putText(out, "name", clock.name);
    out["frequency_MHz"] = clock.frequency_MHz;
    return out;
}

static OrderedJson toJson(const RadioSetting &setting) {
    OrderedJson out{{"part", setting.part}, {"band", setting.band}};
    putMaybe(out, "centre_MHz", setting.centre_MHz);
    putMaybe(out, "power_dBm", setting.power_dBm);
    return out;
}

static OrderedJson toJson(const GroundStation &ground) {
    OrderedJson out{{"id", ground.id}};
    putText(out, "name", ground.name);
    out["part"] = ground.part;
    out["band"] = ground.band;
    out["gain_dBi"] = ground.gain_dBi;
    out["polarisation"] = nameOf(ground.polarisation);
    out["distance_m"] = ground.distance_m;
    out["height_m"] = ground.height_m;
    out["craftHeight_m"] = ground.craftHeight_m;
    putMaybe(out, "power_dBm", ground.power_dBm);
    putMaybe(out, "noiseFigure_dB", ground.noiseFigure_dB);
    putMaybe(out, "needed_dB", ground.needed_dB);
    return out;
}

static OrderedJson toJson(const TrialPlace &trial) {
    OrderedJson out{{"id", trial.id}};
    putText(out, "name", trial.name);
    out["part"] = trial.part;
    putPose(out, trial.X_FramePart);
    return out;
}

static OrderedJson toJson(const Camera &camera) {
    OrderedJson out{{"lens_mm", toJson(camera.lens_mm)}, {"axis", toJson(camera.axis)}};
    out["horizontalView_deg"] = camera.horizontalView_deg;
    out["verticalView_deg"] = camera.verticalView_deg;
    out["tiltMin_deg"] = camera.tiltMin_deg;
    out["tiltMax_deg"] = camera.tiltMax_deg;
    return out;
}

static OrderedJson toJson(const SuppliedLead &lead) {
    OrderedJson out{{"port", lead.port}, {"length_mm", lead.length_mm}};
    if (lead.gauge_AWG != 0) out["gauge_AWG"] = lead.gauge_AWG;
    putText(out, "plug", lead.plug);
    return out;
}

static OrderedJson toJson(const KitEntry &entry) {
    OrderedJson out{{"item", entry.item}};
    putMaybe(out, "inHand", entry.inHand);
    putMeasured(out, "mass_g", entry.mass_g);
    if (entry.size_mm) out["size_mm"] = toJson(*entry.size_mm);
    putFlag(out, "checked", entry.checked);
    putFlag(out, "arrowConfirmed", entry.arrowConfirmed);
    putFlag(out, "pinsConfirmed", entry.pinsConfirmed);
    putText(out, "note", entry.note);
    return out;
}

static OrderedJson toJson(const FastenerData &fastener) {
    OrderedJson out{{"form", nameOf(fastener.form)}, {"thread", fastener.thread}};
    out["length_mm"] = fastener.length_mm;
    if (fastener.head != HeadStyle::cap) out["head"] = nameOf(fastener.head);
    if (fastener.stud_mm != 0) out["stud_mm"] = fastener.stud_mm;
    if (fastener.bore_mm != 0) out["bore_mm"] = fastener.bore_mm;
    if (fastener.pieces != 1) out["pieces"] = fastener.pieces;
    return out;
}

static OrderedJson toJson(const StackLayer &layer) {
    OrderedJson out{{"role", nameOf(layer.role)}};
    if (!layer.parts.empty()) out["parts"] = layer.parts;
    putMeasured(out, "height_mm", layer.height_mm);
    if (layer.squeeze != 0) out["squeeze"] = tidy(layer.squeeze);
    if (layer.cutTo_mm) out["cutTo_mm"] = tidy(*layer.cutTo_mm);
    return out;
}

static OrderedJson toJson(const Stack &stack) {
    OrderedJson out{{"id", stack.id}};
    putText(out, "name", stack.name);
    out["on"] = stack.on;
    putText(out, "through", stack.through);
    if (stack.hold != StackHold::screws) out["hold"] = nameOf(stack.hold);
    if (!stack.screws.empty()) out["screws"] = stack.screws;
    putFlag(out, "headsOutside", stack.headsOutside);
    if (stack.end != ScrewEnd::nut) out["end"] = nameOf(stack.end);
    putMeasured(out, "threadDepth_mm", stack.threadDepth_mm);
    out["layers"] = listJson(stack.layers);
    return out;
}

static OrderedJson toJson(const WireCore &core) {
    OrderedJson out{{"from", core.fromPin}, {"to", core.toPin}};
    putMaybe(out, "gauge_AWG", core.gauge_AWG);
    putText(out, "colour", core.colour);
    return out;
}

static OrderedJson toJson(const RouteStop &stop) {
    if (!stop.at.empty()) return {{"at", stop.at}};
    return {{"point_mm", toJson(stop.point_mm)}};
}

static OrderedJson toJson(const Wire &wire) {
    const auto end = [](const WireEnd &e) { return OrderedJson{{"part", e.part}, {"port", e.port}}; };
    OrderedJson out{{"id", wire.id}};
    putText(out, "name", wire.name);
    out["from"] = end(wire.from);
    out["to"] = end(wire.to);
    out["cores"] = listJson(wire.cores);
    if (wire.lay != WireLay::loose) out["lay"] = nameOf(wire.lay);
    putMaybe(out, "gauge_AWG", wire.gauge_AWG);
    if (wire.twistPitch_mm != 0) out["twistPitch_mm"] = tidy(wire.twistPitch_mm);
    if (wire.make != WireMake::asSupplied) out["make"] = nameOf(wire.make);
    if (wire.readyMade_mm) out["readyMade_mm"] = tidy(*wire.readyMade_mm);
    putList(out, "stops", wire.stops);
    putText(out, "bundle", wire.bundle);
    if (wire.splices != 0) out["splices"] = wire.splices;
    putFlag(out, "sleeved", wire.sleeved);
    return out;
}

static OrderedJson toJson(const TiePoint &tie) { return {{"id", tie.id}, {"position_mm", toJson(tie.position_mm)}}; }

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

OrderedJson toJson(const Frame &frame) {
    auto out = OrderedJson::object();
    putText(out, "name", frame.name);
    putText(out, "layout", frame.layout);
    if (!frame.layoutParameters.empty()) out["layoutParameters"] = mapJson(frame.layoutParameters);
    putText(out, "numbering", frame.numbering);
    putList(out, "motorMounts", frame.motorMounts);
    putList(out, "arms", frame.arms);
    putList(out, "plates", frame.plates);
    putList(out, "standoffs", frame.standoffs);
    putList(out, "sites", frame.sites);
    putList(out, "passThroughs", frame.passThroughs);
    putList(out, "materials", frame.materials);
    return out;
}

OrderedJson toJson(const Part &part) {
    OrderedJson out;
    out["id"] = part.id;
    out["type"] = part.type;
    putText(out, "name", part.name);
    putText(out, "site", part.placement.site);
    putPose(out, part.placement.pose);
    if (part.placement.tolerance_mm != 0) out["positionTolerance_mm"] = part.placement.tolerance_mm;
    if (!(part.fastening == Fastening{})) {
        auto fastening = OrderedJson::object();
        fastening["method"] = nameOf(part.fastening.method);
        if (!part.fastening.onto.empty()) fastening["onto"] = part.fastening.onto;
        putFlag(fastening, "insulated", part.fastening.insulated);
        if (part.fastening.pieces) fastening["pieces"] = *part.fastening.pieces;
        out["fastening"] = fastening;
    }
    putMeasured(out, "mass_g", part.mass_g);
    putFlag(out, "optional", part.optional);
    putSpin(out, "turns", part.turns);
    putFlag(out, "pinned", part.pinned);
    if (part.slide)
        out["slide"] = {{"direction", toJson(part.slide->direction)},
                        {"min_mm", part.slide->min_mm},
                        {"max_mm", part.slide->max_mm}};
    return out;
}

OrderedJson toJson(const PracticeSettings &settings) {
    OrderedJson practice{{"profile", settings.profile}};
    if (!settings.limits.empty()) practice["limits"] = mapJson(settings.limits);
    if (!settings.schools.empty()) practice["schools"] = mapJson(settings.schools);
    if (!settings.notes.empty()) practice["notes"] = mapJson(settings.notes);
    return practice;
}

OrderedJson toJson(const Build &build) {
    OrderedJson out;
    out["format"] = "weightaxis-build";
    out["version"] = 1;
    out["name"] = build.name;
    putText(out, "note", build.note);
    out["practice"] = toJson(build.practice);
    putList(out, "loadCases", build.loadCases);
    out["frame"] = toJson(*build.frame);
    out["parts"] = listJson(build.parts);
    putList(out, "stacks", build.stacks);
    putList(out, "wires", build.wires);
    putList(out, "ties", build.ties);
    putList(out, "radioSettings", build.radioSettings);
    putList(out, "groundStations", build.groundStations);
    putList(out, "trials", build.trials);
    putList(out, "kit", build.kit);
    putList(out, "allowances", build.allowances);
    putList(out, "acceptances", build.acceptances);
    auto types = OrderedJson::array();
    for (const auto &[id, type] : *build.types) types.push_back(toJson(type));
    out["types"] = types;
    return out;
}

} // namespace waxis::io
