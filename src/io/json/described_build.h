// A build and everything in it but its part types, as files hold them.
#pragma once

#include "core/build/build.h"
#include "io/json/described_log.h"
#include "io/json/described_types.h"

namespace waxis::io {

// -- the frame --

template <class V, Is<MotorMount> T>
void describe(V &v, T &mount) {
    v.must("id", mount.id);
    v.must("position_mm", mount.position_mm);
    v.sparseUnit("axis", mount.axis, Vec3::UnitZ());
    v.must("propDiameter_mm", mount.propDiameter_mm);
    v.must("propPlane_mm", mount.propPlane_mm);
    v.sparse("flexUp_mm", mount.flexUp_mm);
    v.sparse("flexDown_mm", mount.flexDown_mm);
    v.must("spin", mount.spin);
    v.sparse("number", mount.number);
    v.when(mount.pattern.size_mm > 0, "pattern", mount.pattern);
}

template <class V, Is<ArmHole> T>
void describe(V &v, T &hole) {
    v.must("at_mm", hole.at_mm);
    v.must("diameter_mm", hole.diameter_mm);
    v.sparse("wall", hole.wall, ArmWall::both);
    v.sparse("edge", hole.edge);
}

template <class V, Is<Arm> T>
void describe(V &v, T &arm) {
    v.must("id", arm.id);
    v.must("root_mm", arm.root_mm);
    v.must("tip_mm", arm.tip_mm);
    v.must("width_mm", arm.width_mm);
    v.must("thickness_mm", arm.thickness_mm);
    v.sparse("section", arm.section);
    v.sparse("wall_mm", arm.wall_mm);
    v.sparse("holes", arm.holes);
    v.must("material", arm.material);
    v.sparse("foldJoint_mm", arm.foldJoint_mm);
    v.sparse("foldAngle_deg", arm.foldAngle_deg);
    v.sparse("foldsDown", arm.foldsDown);
    v.sparse("hinge_g", arm.hinge_g);
    v.sparse("mass_g", arm.mass_g);
}

template <class V, Is<RoundHole> T>
void describe(V &v, T &hole) {
    v.must("centre_mm", hole.centre_mm);
    v.must("diameter_mm", hole.diameter_mm);
}

template <class V, Is<Plate> T>
void describe(V &v, T &plate) {
    v.must("id", plate.id);
    v.sparse("name", plate.name);
    v.must("z_mm", plate.z_mm);
    v.must("thickness_mm", plate.thickness_mm);
    v.must("material", plate.material);
    v.sparse("isolated", plate.isolated);
    v.sparse("sag_mm", plate.sag_mm);
    v.sparse("mass_g", plate.mass_g);
    v.must("outline_mm", plate.outline_mm);
    v.sparse("holes", plate.holes);
    v.sparse("cutouts_mm", plate.cutouts_mm);
}

template <class V, Is<Standoff> T>
void describe(V &v, T &standoff) {
    v.must("id", standoff.id);
    v.sparse("role", standoff.role);
    v.must("base_mm", standoff.base_mm);
    v.must("height_mm", standoff.height_mm);
    v.must("diameter_mm", standoff.diameter_mm);
    v.must("bore_mm", standoff.bore_mm);
    v.must("thread", standoff.thread);
    v.must("material", standoff.material);
    v.sparse("travel_mm", standoff.travel_mm);
    v.sparse("mass_g", standoff.mass_g);
}

template <class V, Is<FrameScrew> T>
void describe(V &v, T &screw) {
    v.must("id", screw.id);
    v.must("at_mm", screw.at_mm);
    v.sparse("fromAbove", screw.fromAbove);
    v.must("thread", screw.thread);
    v.sparse("head", screw.head, HeadStyle::button);
    v.sparse("length_mm", screw.length_mm);
    v.must("through", screw.through);
    v.sparse("into", screw.into);
    v.sparse("nut", screw.nut, FastenerForm::lockNut);
}

template <class V, Is<Site> T>
void describe(V &v, T &site) {
    v.must("id", site.id);
    v.sparse("name", site.name);
    v.must("kind", site.kind);
    v.sparse("on", site.on);
    v.pose(site.X_FrameSite);
    v.sparse("pattern", site.pattern);
    v.sparse("isolated", site.isolated);
}

template <class V, Is<PassThrough> T>
void describe(V &v, T &pass) {
    v.must("id", pass.id);
    v.must("plate", pass.plate);
    v.must("outline_mm", pass.outline_mm);
    v.must("edge", pass.edge);
}

template <class V, Is<Material> T>
void describe(V &v, T &material) {
    v.must("name", material.name);
    v.must("density_g_cm3", material.density_g_cm3);
    v.sparse("conducts", material.conducts);
    v.sparse("printed", material.printed);
}

template <class V, Is<Frame> T>
void describe(V &v, T &frame) {
    v.sparse("name", frame.name);
    v.sparse("layout", frame.layout);
    v.sparse("layoutParameters", frame.layoutParameters);
    v.sparse("numbering", frame.numbering);
    v.sparse("motorMounts", frame.motorMounts);
    v.sparse("arms", frame.arms);
    v.sparse("plates", frame.plates);
    v.sparse("standoffs", frame.standoffs);
    v.sparse("screws", frame.screws);
    v.sparse("sites", frame.sites);
    v.sparse("passThroughs", frame.passThroughs);
    v.sparse("materials", frame.materials);
}

// -- parts and stacks --

template <class V, Is<Fastening> T>
void describe(V &v, T &fastening) {
    v.must("method", fastening.method);
    v.sparse("onto", fastening.onto);
    v.sparse("insulated", fastening.insulated);
    v.sparse("pieces", fastening.pieces);
    v.sparse("sag_mm", fastening.sag_mm);
}

template <class V, Is<SlideRange> T>
void describe(V &v, T &slide) {
    v.unit("direction", slide.direction);
    v.must("min_mm", slide.min_mm);
    v.must("max_mm", slide.max_mm);
}

template <class V, Is<Part> T>
void describe(V &v, T &part) {
    v.must("id", part.id);
    v.must("type", part.type);
    v.sparse("name", part.name);
    v.sparse("site", part.placement.site);
    v.pose(part.placement.pose);
    v.sparse("positionTolerance_mm", part.placement.tolerance_mm);
    v.sparse("fastening", part.fastening);
    v.sparse("mass_g", part.mass_g);
    v.sparse("optional", part.optional);
    v.sparse("turns", part.turns);
    v.sparse("pinned", part.pinned);
    v.sparse("slide", part.slide);
    v.sparse("channels", part.channels);
    v.sparse("note", part.note);
}

template <class V, Is<StackLayer> T>
void describe(V &v, T &layer) {
    v.must("role", layer.role);
    v.sparse("parts", layer.parts);
    v.sparse("height_mm", layer.height_mm);
    v.sparse("squeeze", layer.squeeze);
    v.sparse("cutTo_mm", layer.cutTo_mm);
}

template <class V, Is<Stack> T>
void describe(V &v, T &stack) {
    v.must("id", stack.id);
    v.sparse("name", stack.name);
    v.must("on", stack.on);
    v.sparse("through", stack.through);
    v.sparse("hold", stack.hold);
    v.sparse("screws", stack.screws);
    v.sparse("headsOutside", stack.headsOutside);
    v.sparse("end", stack.end);
    v.sparse("threadDepth_mm", stack.threadDepth_mm);
    v.sparse("cut_mm", stack.cut_mm);
    v.sparse("sag_mm", stack.sag_mm);
    v.must("layers", stack.layers);
}

// -- wires --

template <class V, Is<WireEnd> T>
void describe(V &v, T &end) {
    v.must("part", end.part);
    v.must("port", end.port);
}

template <class V, Is<WireCore> T>
void describe(V &v, T &core) {
    v.must("from", core.fromPin);
    v.must("to", core.toPin);
    v.sparse("gauge_AWG", core.gauge_AWG);
    v.sparse("colour", core.colour);
}

template <class V, Is<RouteStop> T>
void describe(V &v, T &stop) {
    v.sparse("at", stop.at);
    v.when(stop.at.empty(), "point_mm", stop.point_mm);
}

template <class V, Is<WireInsert> T>
void describe(V &v, T &insert) {
    v.must("type", insert.type);
    v.sparse("core", insert.core);
    v.sparse("at", insert.at, 0.5);
    v.sparse("turned", insert.turned);
}

template <class V, Is<WirePlug> T>
void describe(V &v, T &plug) {
    v.sparse("family", plug.family);
    v.sparse("ways", plug.ways);
    v.sparse("turned", plug.turned);
    v.sparse("size_mm", plug.size_mm);
}

template <class V, Is<Wire> T>
void describe(V &v, T &wire) {
    v.must("id", wire.id);
    v.sparse("name", wire.name);
    v.must("from", wire.from);
    v.must("to", wire.to);
    v.must("cores", wire.cores);
    v.sparse("lay", wire.lay);
    v.sparse("gauge_AWG", wire.gauge_AWG);
    v.sparse("twistPitch_mm", wire.twistPitch_mm);
    v.sparse("make", wire.make);
    v.sparse("readyMade_mm", wire.readyMade_mm);
    v.sparse("stops", wire.stops);
    v.sparse("bundle", wire.bundle);
    v.sparse("splices", wire.splices);
    v.sparse("sleeved", wire.sleeved);
    v.sparse("edgesTaped", wire.edgesTaped);
    v.sparse("inserts", wire.inserts);
    v.sparse("fromPlug", wire.fromPlug);
    v.sparse("toPlug", wire.toPlug);
}

template <class V, Is<TiePoint> T>
void describe(V &v, T &tie) {
    v.must("id", tie.id);
    v.must("position_mm", tie.position_mm);
}

// -- radios, places to compare --

template <class V, Is<RadioSetting> T>
void describe(V &v, T &setting) {
    v.must("part", setting.part);
    v.must("band", setting.band);
    v.sparse("centre_MHz", setting.centre_MHz);
    v.sparse("power_dBm", setting.power_dBm);
}

template <class V, Is<GroundStation> T>
void describe(V &v, T &ground) {
    v.must("id", ground.id);
    v.sparse("name", ground.name);
    v.must("part", ground.part);
    v.must("band", ground.band);
    v.must("gain_dBi", ground.gain_dBi);
    v.must("polarisation", ground.polarisation);
    v.must("distance_m", ground.distance_m);
    v.must("height_m", ground.height_m);
    v.must("craftHeight_m", ground.craftHeight_m);
    v.sparse("power_dBm", ground.power_dBm);
    v.sparse("noiseFigure_dB", ground.noiseFigure_dB);
    v.sparse("needed_dB", ground.needed_dB);
}

template <class V, Is<TrialPlace> T>
void describe(V &v, T &trial) {
    v.must("id", trial.id);
    v.sparse("name", trial.name);
    v.must("part", trial.part);
    v.pose(trial.X_FramePart);
}

// -- what was counted, weighed and decided --

template <class V, Is<KitEntry> T>
void describe(V &v, T &entry) {
    v.must("item", entry.item);
    v.sparse("inHand", entry.inHand);
    v.sparse("mass_g", entry.mass_g);
    v.sparse("size_mm", entry.size_mm);
    v.sparse("checked", entry.checked);
    v.sparse("arrowConfirmed", entry.arrowConfirmed);
    v.sparse("pinsConfirmed", entry.pinsConfirmed);
    v.sparse("note", entry.note);
}

template <class V, Is<Allowance> T>
void describe(V &v, T &allowance) {
    v.must("id", allowance.id);
    v.must("name", allowance.name);
    v.must("mass_g", allowance.mass_g);
    v.must("position_mm", allowance.position_mm);
}

template <class V, Is<BalanceLine> T>
void describe(V &v, T &line) {
    v.must("through_mm", line.through_mm);
    v.must("direction_deg", line.direction_deg);
}

template <class V, Is<Weighing> T>
void describe(V &v, T &weighing) {
    v.must("id", weighing.id);
    v.must("name", weighing.name);
    v.sparse("loadCase", weighing.loadCase);
    v.must("method", weighing.method);
    v.sparse("total_g", weighing.total_g);
    v.sparse("points_mm", weighing.points_mm);
    v.sparse("readings_g", weighing.readings_g);
    v.must("scaleTolerance_g", weighing.scaleTolerance_g);
    v.sparse("lines", weighing.lines);
    v.must("lineTolerance_mm", weighing.lineTolerance_mm);
}

template <class V, Is<WeightLimit> T>
void describe(V &v, T &limit) {
    v.must("id", limit.id);
    v.must("name", limit.name);
    v.must("most_g", limit.most_g);
    v.sparse("loadCase", limit.loadCase);
}

template <class V, Is<LoadCase> T>
void describe(V &v, T &loadCase) {
    v.must("id", loadCase.id);
    v.must("name", loadCase.name);
    v.sparse("aboard", loadCase.aboard);
    v.sparse("battery", loadCase.battery);
    v.sparse("folded", loadCase.folded);
    v.sparse("kind", loadCase.kind);
    v.sparse("usb", loadCase.usb);
    v.sparse("switchedOff", loadCase.off);
}

template <class V, Is<PracticeSettings> T>
void describe(V &v, T &practice) {
    v.must("profile", practice.profile);
    v.sparse("limits", practice.limits);
    v.sparse("schools", practice.schools);
    v.sparse("notes", practice.notes);
}

template <class V, Is<StepTick> T>
void describe(V &v, T &tick) {
    v.must("step", tick.step);
    v.must("at", tick.at);
    v.sparse("contents", tick.contents);
}

template <class V, Is<OwnStep> T>
void describe(V &v, T &step) {
    v.must("id", step.id);
    v.must("text", step.text);
    v.sparse("after", step.after);
}

template <class V, Is<OwnOrder> T>
void describe(V &v, T &order) {
    v.must("step", order.step);
    v.must("before", order.before);
    v.sparse("note", order.note);
}

template <class V, Is<CheckResult> T>
void describe(V &v, T &result) {
    v.must("check", result.check);
    v.sparse("found", result.found);
    v.sparse("good", result.good);
    v.must("at", result.at);
}

template <class V, Is<Acceptance> T>
void describe(V &v, T &acceptance) {
    v.must("finding", acceptance.finding);
    v.must("reason", acceptance.reason);
}

template <class V, Is<Build> T>
void describe(V &v, T &build) {
    v.must("name", build.name);
    v.sparse("note", build.note);
    v.must("practice", build.practice);
    v.sparse("loadCases", build.loadCases);
    v.must("frame", build.frame);
    v.must("parts", build.parts);
    v.sparse("stacks", build.stacks);
    v.sparse("wires", build.wires);
    v.sparse("ties", build.ties);
    v.sparse("radioSettings", build.radioSettings);
    v.sparse("groundStations", build.groundStations);
    v.sparse("trials", build.trials);
    v.sparse("kit", build.kit);
    v.sparse("allowances", build.allowances);
    v.sparse("weighings", build.weighings);
    v.sparse("weightLimits", build.weightLimits);
    v.sparse("acceptances", build.acceptances);
    v.sparse("stepsDone", build.stepsDone);
    v.sparse("ownSteps", build.ownSteps);
    v.sparse("ownOrder", build.ownOrder);
    v.sparse("checkResults", build.checkResults);
    v.sparse("log", build.log);
    v.must("types", build.types);
}

} // namespace waxis::io
