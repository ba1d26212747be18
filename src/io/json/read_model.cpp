#include "io/json/read_model.h"

#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "io/json/reader.h"

#include <algorithm>

namespace waxis::io {

namespace {

Frame readFrame(const Reader &in) {
    Frame frame;
    frame.name = in.text("name");
    frame.layout = in.text("layout");
    frame.layoutParameters = in.map<double>("layoutParameters");
    frame.numbering = in.text("numbering");
    frame.motorMounts = in.list<MotorMount>("motorMounts", [](const Reader &m) {
        MotorMount mount;
        mount.id = m.text("id");
        mount.position_mm = m.vec3("position_mm");
        mount.axis = m.direction("axis", Vec3::UnitZ());
        mount.propDiameter_mm = m.number("propDiameter_mm", 0);
        mount.propPlane_mm = m.number("propPlane_mm", 0);
        mount.flexUp_mm = m.maybe("flexUp_mm");
        mount.flexDown_mm = m.maybe("flexDown_mm");
        mount.spin = m.choice("spin", Spin::clockwise);
        mount.number = int(m.number("number", 0));
        if (m.has("pattern")) mount.pattern = readPattern(m.inner("pattern"));
        return mount;
    });
    frame.arms = in.list<Arm>("arms", [](const Reader &a) {
        Arm arm;
        arm.id = a.text("id");
        arm.root_mm = a.vec3("root_mm");
        arm.tip_mm = a.vec3("tip_mm");
        arm.width_mm = a.number("width_mm", 0);
        arm.thickness_mm = a.number("thickness_mm", 0);
        arm.material = a.text("material", arm.material);
        arm.foldJoint_mm = a.maybe("foldJoint_mm");
        arm.foldAngle_deg = a.maybe("foldAngle_deg");
        arm.foldsDown = a.flag("foldsDown");
        arm.mass_g = a.measured("mass_g");
        if (!((arm.tip_mm - arm.root_mm).norm() >= 0.001))
            refuse(a.at("tip_mm"), "a tip away from the root", "the same point");
        return arm;
    });
    frame.plates = in.list<Plate>("plates", [](const Reader &p) {
        Plate plate;
        plate.id = p.text("id");
        plate.name = p.text("name");
        plate.outline_mm = p.ring("outline_mm");
        plate.holes = p.list<RoundHole>("holes", [](const Reader &h) {
            return RoundHole{h.vec2("centre_mm"), h.number("diameter_mm", 0)};
        });
        plate.cutouts_mm = p.rings("cutouts_mm");
        plate.z_mm = p.number("z_mm", 0);
        plate.thickness_mm = p.number("thickness_mm", 0);
        plate.material = p.text("material", plate.material);
        plate.isolated = p.flag("isolated");
        plate.mass_g = p.measured("mass_g");
        requireSoundOutline(platePolygon(plate), p.at("outline_mm"));
        return plate;
    });
    frame.standoffs = in.list<Standoff>("standoffs", [](const Reader &s) {
        Standoff standoff;
        standoff.id = s.text("id");
        standoff.role = s.choice("role", StandoffRole::standoff);
        standoff.base_mm = s.vec3("base_mm");
        standoff.height_mm = s.number("height_mm", 0);
        standoff.diameter_mm = s.number("diameter_mm", 0);
        standoff.bore_mm = s.number("bore_mm", 0);
        standoff.thread = s.text("thread", standoff.thread);
        standoff.material = s.text("material", standoff.material);
        standoff.mass_g = s.measured("mass_g");
        if (!(standoff.bore_mm < standoff.diameter_mm))
            refuse(s.at("bore_mm"), "less than the diameter", fmt::format("{:g}", standoff.bore_mm));
        return standoff;
    });
    frame.sites = in.list<Site>("sites", [](const Reader &s) {
        Site site;
        site.id = s.text("id");
        site.name = s.text("name");
        site.kind = s.choice("kind", SiteKind::face);
        site.on = s.text("on");
        site.X_FrameSite = s.pose();
        if (s.has("pattern")) site.pattern = readPattern(s.inner("pattern"));
        site.isolated = s.flag("isolated");
        return site;
    });
    frame.passThroughs = in.list<PassThrough>("passThroughs", [](const Reader &p) {
        return PassThrough{p.text("id"), p.text("plate"), p.ring("outline_mm"), p.choice("edge", HoleEdge::bare)};
    });
    frame.materials = in.list<Material>("materials", [](const Reader &m) {
        return Material{m.text("name"), m.number("density_g_cm3", 0), m.flag("conducts"), m.flag("printed")};
    });
    return frame;
}

Part readPart(const Reader &in) {
    Part part;
    part.id = in.text("id");
    part.type = in.text("type");
    part.name = in.text("name");
    part.placement.site = in.text("site");
    part.placement.pose = in.pose();
    part.placement.tolerance_mm = in.number("positionTolerance_mm", 0);
    if (in.has("fastening")) {
        const Reader f = in.inner("fastening");
        part.fastening = {f.choice("method", FasteningMethod::none), f.texts("onto"), f.flag("insulated"), {}};
        if (f.has("pieces")) part.fastening.pieces = int(f.number("pieces", 0));
    }
    part.mass_g = in.measured("mass_g");
    part.optional = in.flag("optional");
    part.turns = maybeSpin(in, "turns");
    part.pinned = in.flag("pinned");
    if (in.has("slide")) {
        const Reader s = in.inner("slide");
        part.slide = SlideRange{s.direction("direction", Vec3::UnitX()), s.number("min_mm", 0), s.number("max_mm", 0)};
        if (!(part.slide->min_mm <= part.slide->max_mm)) refuse(s.at("min_mm"), "no more than max_mm", "more");
    }
    part.note = in.text("note");
    return part;
}

Stack readStack(const Reader &in) {
    Stack stack;
    stack.id = in.text("id");
    stack.name = in.text("name");
    stack.on = in.text("on");
    stack.through = in.text("through");
    stack.hold = in.choice("hold", StackHold::screws);
    stack.screws = in.texts("screws");
    stack.headsOutside = in.flag("headsOutside");
    stack.end = in.choice("end", ScrewEnd::nut);
    stack.threadDepth_mm = in.measured("threadDepth_mm");
    stack.layers = in.list<StackLayer>("layers", [](const Reader &l) {
        StackLayer layer;
        layer.role = l.choice("role", LayerRole::board);
        layer.parts = l.texts("parts");
        layer.height_mm = l.measured("height_mm");
        layer.squeeze = l.number("squeeze", 0);
        layer.cutTo_mm = l.maybe("cutTo_mm");
        const bool filler = layer.role == LayerRole::gap || liesOnly(layer.role);
        if (filler && !layer.height_mm.known())
            refuse(l.pointer(), "the key \"height_mm\" with a value", "a layer without parts or height");
        const bool single = layer.role == LayerRole::board || layer.role == LayerRole::adapter;
        if (single && layer.parts.size() != 1) refuse(l.at("parts"), "one part", fmt::format("{}", layer.parts.size()));
        if (isHardware(layer.role) && layer.parts.empty()) refuse(l.at("parts"), "one part at each hole", "none");
        if ((filler || layer.role == LayerRole::frame) && !layer.parts.empty())
            refuse(l.at("parts"), "no parts in this layer", fmt::format("{}", layer.parts.size()));
        return layer;
    });
    const auto frames = std::count_if(stack.layers.begin(), stack.layers.end(),
                                      [](const StackLayer &l) { return l.role == LayerRole::frame; });
    if (frames != 1) refuse(in.at("layers"), "exactly one layer \"frame\"", fmt::format("{}", frames));
    return stack;
}

Wire readWire(const Reader &in) {
    Wire wire;
    wire.id = in.text("id");
    wire.name = in.text("name");
    const auto end = [&](const char *key) {
        const Reader e = in.inner(key);
        return WireEnd{e.text("part"), e.text("port")};
    };
    const auto gauge = [](const Reader &r) {
        return r.has("gauge_AWG") ? std::optional(int(r.number("gauge_AWG", 0))) : std::nullopt;
    };
    wire.from = end("from");
    wire.to = end("to");
    wire.cores = in.list<WireCore>("cores", [&](const Reader &c) {
        return WireCore{c.text("from"), c.text("to"), gauge(c), c.text("colour")};
    });
    wire.lay = in.choice("lay", WireLay::loose);
    wire.gauge_AWG = gauge(in);
    wire.twistPitch_mm = in.number("twistPitch_mm", 0);
    wire.make = in.choice("make", WireMake::asSupplied);
    wire.readyMade_mm = in.maybe("readyMade_mm");
    wire.stops = in.list<RouteStop>("stops", [](const Reader &s) {
        RouteStop stop{s.text("at"), Vec3::Zero()};
        if (s.has("point_mm")) stop.point_mm = s.vec3("point_mm");
        if (stop.at.empty() != s.has("point_mm"))
            refuse(s.pointer(), "either \"at\" or \"point_mm\"", "both or neither");
        return stop;
    });
    wire.bundle = in.text("bundle");
    wire.splices = int(in.number("splices", 0));
    wire.sleeved = in.flag("sleeved");
    return wire;
}

Weighing readWeighing(const Reader &in) {
    Weighing weighing;
    weighing.id = in.text("id");
    weighing.name = in.text("name");
    weighing.loadCase = in.text("loadCase");
    weighing.method = in.choice("method", WeighingMethod::total);
    weighing.total_g = in.measured("total_g");
    if (in.has("points_mm"))
        for (const auto &p : in.raw("points_mm"))
            weighing.points_mm.emplace_back(p[0].get<double>(), p[1].get<double>());
    if (in.has("readings_g")) weighing.readings_g = in.raw("readings_g").get<std::vector<double>>();
    if (weighing.points_mm.size() != weighing.readings_g.size())
        refuse(in.at("readings_g"), fmt::format("a reading for each of the {} scales", weighing.points_mm.size()),
               fmt::format("{}", weighing.readings_g.size()));
    weighing.scaleTolerance_g = in.number("scaleTolerance_g", weighing.scaleTolerance_g);
    weighing.lines = in.list<BalanceLine>("lines", [](const Reader &l) {
        return BalanceLine{l.vec2("through_mm"), l.number("direction_deg", 90)};
    });
    weighing.lineTolerance_mm = in.number("lineTolerance_mm", weighing.lineTolerance_mm);
    return weighing;
}

GroundStation readGroundStation(const Reader &in) {
    GroundStation ground;
    ground.id = in.text("id");
    ground.name = in.text("name");
    ground.part = in.text("part");
    ground.band = int(in.number("band", 0));
    ground.gain_dBi = in.number("gain_dBi", ground.gain_dBi);
    ground.polarisation = in.choice("polarisation", Polarisation::linear);
    ground.distance_m = in.number("distance_m", ground.distance_m);
    ground.height_m = in.number("height_m", ground.height_m);
    ground.craftHeight_m = in.number("craftHeight_m", ground.craftHeight_m);
    ground.power_dBm = in.maybe("power_dBm");
    ground.noiseFigure_dB = in.maybe("noiseFigure_dB");
    ground.needed_dB = in.maybe("needed_dB");
    return ground;
}

} // namespace

PracticeSettings readPractice(const json &object, const std::string &pointer) {
    const Reader in(object, pointer);
    PracticeSettings practice{in.text("profile"), in.map<double>("limits"), in.map<std::string>("schools"),
                              in.map<std::string>("notes")};
    checkPractice(practice, pointer);
    return practice;
}

Build readBuild(const json &document) {
    const Reader in(document, "");
    Build build;
    build.name = in.text("name");
    build.note = in.text("note");
    if (in.has("practice")) build.practice = readPractice(document["practice"], "/practice");
    build.loadCases = in.list<LoadCase>("loadCases", [](const Reader &l) {
        return LoadCase{l.text("id"),      l.text("name"),   l.texts("aboard"),
                        l.text("battery"), l.flag("folded"), l.choice("kind", LoadCaseKind::flight)};
    });
    build.frame = readFrame(in.inner("frame"));
    build.parts = in.list<Part>("parts", readPart);
    build.stacks = in.list<Stack>("stacks", readStack);
    build.wires = in.list<Wire>("wires", readWire);
    build.ties = in.list<TiePoint>("ties", [](const Reader &t) {
        return TiePoint{t.text("id"), t.vec3("position_mm")};
    });
    build.radioSettings = in.list<RadioSetting>("radioSettings", [](const Reader &s) {
        return RadioSetting{s.text("part"), int(s.number("band", 0)), s.maybe("centre_MHz"), s.maybe("power_dBm")};
    });
    build.groundStations = in.list<GroundStation>("groundStations", readGroundStation);
    build.trials = in.list<TrialPlace>("trials", [](const Reader &t) {
        return TrialPlace{t.text("id"), t.text("name"), t.text("part"), t.pose()};
    });
    build.kit = in.list<KitEntry>("kit", [](const Reader &k) {
        KitEntry entry;
        entry.item = k.text("item");
        if (k.has("inHand")) entry.inHand = int(k.number("inHand", 0));
        entry.mass_g = k.measured("mass_g");
        if (k.has("size_mm")) entry.size_mm = k.vec3("size_mm");
        entry.checked = k.flag("checked");
        entry.arrowConfirmed = k.flag("arrowConfirmed");
        entry.pinsConfirmed = k.flag("pinsConfirmed");
        entry.note = k.text("note");
        return entry;
    });
    build.allowances = in.list<Allowance>("allowances", [](const Reader &a) {
        return Allowance{a.text("id"), a.text("name"), a.measured("mass_g"), a.vec3("position_mm")};
    });
    build.weighings = in.list<Weighing>("weighings", readWeighing);
    build.weightLimits = in.list<WeightLimit>("weightLimits", [](const Reader &l) {
        return WeightLimit{l.text("id"), l.text("name"), l.number("most_g", 0), l.text("loadCase")};
    });
    build.acceptances = in.list<Acceptance>("acceptances", [](const Reader &a) {
        return Acceptance{a.text("finding"), a.text("reason")};
    });
    TypeTable types;
    std::size_t index = 0;
    for (auto &type : in.list<PartType>("types", readType)) {
        const std::string id = type.id;
        if (!types.emplace(id, std::move(type)).second)
            refuse(fmt::format("/types/{}/id", index), "an id of its own", fmt::format("\"{}\" again", id));
        ++index;
    }
    build.types = std::move(types);
    checkReferences(build);
    return build;
}

} // namespace waxis::io
