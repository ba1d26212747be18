#include "io/json/write_model.h"

#include "io/json/writing.h"

namespace waxis::io {

OrderedJson toJson(const MotorMount &mount) {
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

OrderedJson toJson(const Arm &arm) {
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

OrderedJson toJson(const RoundHole &hole) {
    return {{"centre_mm", toJson(hole.centre_mm)}, {"diameter_mm", hole.diameter_mm}};
}

OrderedJson toJson(const Plate &plate) {
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

OrderedJson toJson(const Standoff &standoff) {
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

OrderedJson toJson(const Site &site) {
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

OrderedJson toJson(const PassThrough &pass) {
    return {
        {"id", pass.id}, {"plate", pass.plate}, {"outline_mm", ringJson(pass.outline_mm)}, {"edge", nameOf(pass.edge)}};
}

OrderedJson toJson(const Material &material) {
    OrderedJson out{{"name", material.name}, {"density_g_cm3", material.density_g_cm3}};
    putFlag(out, "conducts", material.conducts);
    putFlag(out, "printed", material.printed);
    return out;
}

OrderedJson toJson(const Allowance &allowance) {
    return {{"id", allowance.id},
            {"name", allowance.name},
            {"mass_g", toJson(allowance.mass_g)},
            {"position_mm", toJson(allowance.position_mm)}};
}

OrderedJson toJson(const LoadCase &loadCase) {
    OrderedJson out{{"id", loadCase.id}, {"name", loadCase.name}};
    if (!loadCase.aboard.empty()) out["aboard"] = loadCase.aboard;
    putText(out, "battery", loadCase.battery);
    putFlag(out, "folded", loadCase.folded);
    if (loadCase.kind != LoadCaseKind::flight) out["kind"] = nameOf(loadCase.kind);
    return out;
}

OrderedJson toJson(const Acceptance &acceptance) {
    return {{"finding", acceptance.finding}, {"reason", acceptance.reason}};
}

OrderedJson toJson(const RadioSetting &setting) {
    OrderedJson out{{"part", setting.part}, {"band", setting.band}};
    putMaybe(out, "centre_MHz", setting.centre_MHz);
    putMaybe(out, "power_dBm", setting.power_dBm);
    return out;
}

OrderedJson toJson(const GroundStation &ground) {
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

OrderedJson toJson(const TrialPlace &trial) {
    OrderedJson out{{"id", trial.id}};
    putText(out, "name", trial.name);
    out["part"] = trial.part;
    putPose(out, trial.X_FramePart);
    return out;
}

OrderedJson toJson(const KitEntry &entry) {
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

OrderedJson toJson(const StackLayer &layer) {
    OrderedJson out{{"role", nameOf(layer.role)}};
    if (!layer.parts.empty()) out["parts"] = layer.parts;
    putMeasured(out, "height_mm", layer.height_mm);
    if (layer.squeeze != 0) out["squeeze"] = tidy(layer.squeeze);
    if (layer.cutTo_mm) out["cutTo_mm"] = tidy(*layer.cutTo_mm);
    return out;
}

OrderedJson toJson(const Stack &stack) {
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

OrderedJson toJson(const WireCore &core) {
    OrderedJson out{{"from", core.fromPin}, {"to", core.toPin}};
    putMaybe(out, "gauge_AWG", core.gauge_AWG);
    putText(out, "colour", core.colour);
    return out;
}

OrderedJson toJson(const RouteStop &stop) {
    if (!stop.at.empty()) return {{"at", stop.at}};
    return {{"point_mm", toJson(stop.point_mm)}};
}

OrderedJson toJson(const Wire &wire) {
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

OrderedJson toJson(const TiePoint &tie) { return {{"id", tie.id}, {"position_mm", toJson(tie.position_mm)}}; }

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
    putText(out, "note", part.note);
    return out;
}

OrderedJson toJson(const BalanceLine &line) {
    return {{"through_mm", toJson(line.through_mm)}, {"direction_deg", line.direction_deg}};
}

OrderedJson toJson(const Weighing &weighing) {
    OrderedJson out{{"id", weighing.id}, {"name", weighing.name}};
    putText(out, "loadCase", weighing.loadCase);
    out["method"] = nameOf(weighing.method);
    putMeasured(out, "total_g", weighing.total_g);
    putList(out, "points_mm", weighing.points_mm);
    if (!weighing.readings_g.empty()) out["readings_g"] = weighing.readings_g;
    out["scaleTolerance_g"] = weighing.scaleTolerance_g;
    putList(out, "lines", weighing.lines);
    out["lineTolerance_mm"] = weighing.lineTolerance_mm;
    return out;
}

OrderedJson toJson(const WeightLimit &limit) {
    OrderedJson out{{"id", limit.id}, {"name", limit.name}, {"most_g", limit.most_g}};
    putText(out, "loadCase", limit.loadCase);
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
    putList(out, "weighings", build.weighings);
    putList(out, "weightLimits", build.weightLimits);
    putList(out, "acceptances", build.acceptances);
    auto types = OrderedJson::array();
    for (const auto &[id, type] : *build.types) types.push_back(toJson(type));
    out["types"] = types;
    return out;
}

} // namespace waxis::io
