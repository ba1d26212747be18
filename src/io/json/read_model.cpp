#include "io/json/read_model.h"

#include "core/build/frame_shapes.h"
#include "core/radio/coax.h"
#include "core/stack/chain.h"
#include "io/names.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis::io {

using nlohmann::json;

namespace {

[[noreturn]] void refuse(std::string where, std::string expected, std::string found, std::string suggestion = {}) {
    throw Unreadable{{std::move(where), std::move(expected), std::move(found), std::move(suggestion)}};
}

/// A JSON object with its pointer, read key by key.
class Reader {
public:
    Reader(const json &object, std::string pointer) : json_(object), pointer_(std::move(pointer)) {}

    bool has(const char *key) const { return json_.contains(key); }
    std::string at(const char *key) const { return pointer_ + "/" + key; }
    const std::string &pointer() const { return pointer_; }

    double number(const char *key, double standard) const { return has(key) ? json_[key].get<double>() : standard; }
    std::string text(const char *key, std::string standard = {}) const {
        return has(key) ? json_[key].get<std::string>() : standard;
    }
    bool flag(const char *key) const { return has(key) && json_[key].get<bool>(); }
    Vec3 vec3(const char *key, Vec3 standard = Vec3::Zero()) const {
        if (!has(key)) return standard;
        const auto &v = json_[key];
        return {v[0].get<double>(), v[1].get<double>(), v[2].get<double>()};
    }
    Vec2 vec2(const char *key) const {
        const auto &v = json_[key];
        return {v[0].get<double>(), v[1].get<double>()};
    }
    Vec3 direction(const char *key, const Vec3 &standard) const {
        const Vec3 d = vec3(key, standard);
        if (!(std::abs(d.norm() - 1) <= kUnit))
            refuse(at(key), "a direction of length 1", fmt::format("length {:.9g}", d.norm()));
        return d;
    }
    Pose pose() const {
        Pose pose{vec3("position_mm"), Quat::Identity()};
        if (!has("rotation")) return pose;
        const auto &q = json_["rotation"];
        pose.rotation = Quat(q[0].get<double>(), q[1].get<double>(), q[2].get<double>(), q[3].get<double>());
        if (!(std::abs(pose.rotation.norm() - 1) <= kUnit))
            refuse(at("rotation"), "a unit quaternion w, x, y, z", fmt::format("length {:.9g}", pose.rotation.norm()));
        return pose;
    }
    template <class E>
    E choice(const char *key, E standard) const {
        return has(key) ? *fromName<E>(json_[key].get<std::string>()) : standard; // the schema lists the same words
    }
    std::optional<double> maybe(const char *key) const {
        return has(key) ? std::optional(json_[key].get<double>()) : std::nullopt;
    }
    Measured measured(const char *key) const {
        if (!has(key)) return {};
        const Reader inner(json_[key], at(key));
        return {inner.maybe("value"), inner.maybe("tolerance"), inner.choice("source", Source::catalogue)};
    }
    Ring ring(const char *key) const { return ringOf(json_[key]); }
    static Ring ringOf(const json &list) {
        Ring ring;
        for (const auto &p : list) ring.emplace_back(p[0].get<double>(), p[1].get<double>());
        return ring;
    }
    std::vector<Ring> rings(const char *key) const {
        std::vector<Ring> rings;
        if (has(key))
            for (const auto &ring : json_[key]) rings.push_back(ringOf(ring));
        return rings;
    }
    std::vector<std::string> texts(const char *key) const {
        return has(key) ? json_[key].get<std::vector<std::string>>() : std::vector<std::string>{};
    }
    template <class T, class Read>
    std::vector<T> list(const char *key, Read &&read) const {
        std::vector<T> result;
        if (has(key))
            for (std::size_t i = 0; i < json_[key].size(); ++i)
                result.push_back(read(Reader(json_[key][i], fmt::format("{}/{}", at(key), i))));
        return result;
    }
    template <class V>
    std::map<std::string, V> map(const char *key) const {
        return has(key) ? json_[key].get<std::map<std::string, V>>() : std::map<std::string, V>{};
    }
    const json &raw(const char *key) const { return json_[key]; }
    Reader inner(const char *key) const { return {json_[key], at(key)}; }
    void require(const char *key, const std::string &why) const {
        if (!has(key)) refuse(pointer_, fmt::format("the key \"{}\"", key), why);
    }

private:
    static constexpr double kUnit = 1e-6;
    const json &json_;
    std::string pointer_;
};

void requireSoundOutline(const Polygon &polygon, const std::string &where) {
    constexpr std::size_t kMostCorners = 3000; // cutting a polygon into triangles takes time in step with their square
    std::size_t corners = polygon.outline.size();
    for (const auto &hole : polygon.holes) corners += hole.size();
    if (corners > kMostCorners)
        refuse(where, fmt::format("an outline with at most {} corners, holes included", kMostCorners),
               fmt::format("{} corners", corners));
    if (!(areaProperties(polygon).area_mm2 > 0))
        refuse(where, "an outline that encloses an area", "none, or holes larger than it");
    if (const auto fault = faultOf(polygon); !fault.empty())
        refuse(where, "an outline and holes that do not cross themselves or each other", fault);
}

HolePattern readPattern(const Reader &in) {
    HolePattern pattern;
    pattern.shape = in.choice("shape", PatternShape::square);
    pattern.size_mm = in.number("size_mm", 0);
    pattern.width_mm = in.number("width_mm", 0);
    pattern.holeDiameter_mm = in.number("holeDiameter_mm", 0);
    pattern.holes = int(in.number("holes", 4));
    if (pattern.shape == PatternShape::rectangle) in.require("width_mm", "a rectangle without its extent across");
    return pattern;
}

Mesh readMesh(const Reader &in) {
    Mesh mesh;
    for (const auto &p : in.raw("points_mm"))
        mesh.points_mm.emplace_back(p[0].get<double>(), p[1].get<double>(), p[2].get<double>());
    std::size_t index = 0;
    for (const auto &t : in.raw("triangles")) {
        const std::array<int, 3> corners{t[0].get<int>(), t[1].get<int>(), t[2].get<int>()};
        for (int corner : corners)
            if (corner >= int(mesh.points_mm.size()))
                refuse(fmt::format("{}/{}", in.at("triangles"), index), "indices of points_mm",
                       fmt::format("{} of {} points", corner, mesh.points_mm.size()));
        mesh.triangles.push_back(corners);
        ++index;
    }
    if (in.has("volume_mm3")) {
        ShapeProperties exact;
        exact.volume_mm3 = in.number("volume_mm3", 0);
        exact.centroid_mm = in.vec3("centroid_mm");
        if (in.has("inertia_mm5"))
            for (int i = 0; i < 3; ++i)
                for (int j = 0; j < 3; ++j)
                    exact.inertia_mm5(i, j) = in.raw("inertia_mm5")[std::size_t(i)][std::size_t(j)].get<double>();
        mesh.exact = exact;
    }
    if (!(shapeProperties(mesh).volume_mm3 > 0))
        refuse(in.at("triangles"), "a closed mesh that encloses a volume, counter-clockwise seen from outside",
               "none, or the triangles turned inside out");
    return mesh;
}

Solid readSolid(const Reader &in) {
    Solid solid;
    const auto shape = in.text("shape");
    const auto why = fmt::format("a {} without it", shape);
    if (shape == "box") {
        in.require("size_mm", why);
        solid.shape = Box{in.vec3("size_mm")};
    } else if (shape == "cylinder") {
        in.require("diameter_mm", why);
        in.require("length_mm", why);
        solid.shape = Cylinder{in.number("diameter_mm", 0), in.number("length_mm", 0)};
    } else if (shape == "sphere") {
        in.require("diameter_mm", why);
        solid.shape = Sphere{in.number("diameter_mm", 0)};
    } else if (shape == "mesh") {
        in.require("points_mm", why);
        in.require("triangles", why);
        solid.shape = readMesh(in);
    } else {
        in.require("outline_mm", why);
        in.require("thickness_mm", why);
        const Prism prism{{in.ring("outline_mm"), in.rings("holes_mm")}, in.number("thickness_mm", 0)};
        requireSoundOutline(prism.polygon, in.at("outline_mm"));
        solid.shape = prism;
    }
    solid.X_PartSolid = in.pose();
    solid.role = in.choice("role", SolidRole::body);
    solid.material = in.text("material");
    solid.bare = in.flag("bare");
    return solid;
}

Port readPort(const Reader &in) {
    Port port;
    port.id = in.text("id");
    port.kind = in.choice("kind", PortKind::pads);
    port.position_mm = in.vec3("position_mm");
    port.direction = in.direction("direction", Vec3::UnitX());
    port.fullSize_mm = in.vec3("room_mm");
    port.pins = in.list<Pin>("pins", [](const Reader &pin) {
        return Pin{pin.text("signal"), pin.maybe("level_V"), pin.flag("inverted")};
    });
    port.mustStayReachable = in.flag("mustStayReachable");
    port.connector = in.text("connector");
    return port;
}

std::optional<Spin> maybeSpin(const Reader &in, const char *key) {
    return in.has(key) ? std::optional(in.choice(key, Spin::clockwise)) : std::nullopt;
}

Electrical readElectrical(const Reader &in) {
    Electrical e;
    e.supplyMin_V = in.maybe("supplyMin_V");
    e.supplyMax_V = in.maybe("supplyMax_V");
    if (e.supplyMin_V && e.supplyMax_V && !(*e.supplyMin_V <= *e.supplyMax_V))
        refuse(in.at("supplyMin_V"), "no more than supplyMax_V", fmt::format("{:g}", *e.supplyMin_V));
    e.typical_A = in.measured("typical_A");
    e.peak_A = in.measured("peak_A");
    e.outputs = in.list<PowerOutput>("outputs", [](const Reader &o) {
        return PowerOutput{o.text("id"), o.number("voltage_V", 0), o.number("limit_A", 0), o.maybe("efficiency")};
    });
    e.continuous_A = in.maybe("continuous_A");
    if (in.has("cells")) e.cells = int(in.number("cells", 0));
    e.capacity_mAh = in.maybe("capacity_mAh");
    e.cellFull_V = in.maybe("cellFull_V");
    e.capacitance_uF = in.maybe("capacitance_uF");
    e.rated_V = in.maybe("rated_V");
    return e;
}

RadioBand readBand(const Reader &in) {
    RadioBand band;
    band.low_MHz = in.number("low_MHz", 0);
    band.high_MHz = in.number("high_MHz", 0);
    if (!(band.low_MHz <= band.high_MHz))
        refuse(in.at("low_MHz"), "no more than high_MHz", fmt::format("{:g}", band.low_MHz));
    band.power_dBm = in.maybe("power_dBm");
    band.listens = in.flag("listens");
    band.bandwidth_MHz = in.maybe("bandwidth_MHz");
    band.noiseFigure_dB = in.maybe("noiseFigure_dB");
    band.selectivity_dB = in.maybe("selectivity_dB");
    band.harmonicSuppression_dB = in.maybe("harmonicSuppression_dB");
    band.blocking_dBm = in.maybe("blocking_dBm");
    band.needed_dB = in.maybe("needed_dB");
    band.channels = in.list<RadioChannel>("channels", [&](const Reader &c) {
        RadioChannel channel{c.text("name"), c.number("centre_MHz", 0)};
        if (channel.centre_MHz < band.low_MHz || channel.centre_MHz > band.high_MHz)
            refuse(c.at("centre_MHz"), fmt::format("between {:g} and {:g} MHz", band.low_MHz, band.high_MHz),
                   fmt::format("{:g}", channel.centre_MHz));
        return channel;
    });
    band.port = in.text("port");
    return band;
}

Antenna readAntenna(const Reader &in) {
    Antenna antenna;
    antenna.kind = in.choice("kind", AntennaKind::dipole);
    antenna.low_MHz = in.number("low_MHz", 0);
    antenna.high_MHz = in.number("high_MHz", 0);
    antenna.gain_dBi = in.number("gain_dBi", 0);
    antenna.polarisation = in.choice("polarisation", Polarisation::linear);
    antenna.phaseCentre_mm = in.vec3("phaseCentre_mm");
    antenna.axis = in.direction("axis", Vec3::UnitZ());
    antenna.pigtail_mm = in.number("pigtail_mm", 0);
    antenna.connector = in.text("connector");
    antenna.coax = in.text("coax");
    if (!antenna.coax.empty() && !findCoax(antenna.coax))
        refuse(in.at("coax"), "rg178, rg316 or micro-1.13", fmt::format("\"{}\"", antenna.coax));
    antenna.axialRatio_dB = in.maybe("axialRatio_dB");
    antenna.pattern = in.list<PatternPoint>("pattern", [](const Reader &p) {
        return PatternPoint{p.number("angle_deg", 0), p.number("gain_dBi", 0)};
    });
    for (std::size_t i = 1; i < antenna.pattern.size(); ++i)
        if (!(antenna.pattern[i].angle_deg > antenna.pattern[i - 1].angle_deg))
            refuse(fmt::format("{}/{}/angle_deg", in.at("pattern"), i), "more than the angle before",
                   fmt::format("{:g}", antenna.pattern[i].angle_deg));
    return antenna;
}

Camera readCamera(const Reader &in) {
    return {in.vec3("lens_mm"),
            in.direction("axis", Vec3::UnitX()),
            in.number("horizontalView_deg", 0),
            in.number("verticalView_deg", 0),
            in.number("tiltMin_deg", 0),
            in.number("tiltMax_deg", 0)};
}

FastenerData readFastener(const Reader &in) {
    FastenerData fastener;
    fastener.form = in.choice("form", FastenerForm::screw);
    fastener.thread = in.text("thread");
    if (!findThread(fastener.thread))
        refuse(in.at("thread"), "M1.6, M2, M2.5, M3 or M4", fmt::format("\"{}\"", fastener.thread));
    fastener.length_mm = in.number("length_mm", 0);
    fastener.head = in.choice("head", HeadStyle::cap);
    fastener.stud_mm = in.number("stud_mm", 0);
    fastener.bore_mm = in.number("bore_mm", 0);
    fastener.pieces = int(in.number("pieces", 1));
    return fastener;
}

PartType readType(const Reader &in) {
    PartType type;
    type.id = in.text("id");
    type.name = in.text("name");
    type.maker = in.text("maker");
    type.kind = in.choice("kind", PartKind::other);
    type.note = in.text("note");
    type.mass_g = in.measured("mass_g");
    if (in.has("centreOfMass_mm")) type.centreOfMass_mm = in.vec3("centreOfMass_mm");
    if (in.has("mounting")) type.mounting = readPattern(in.inner("mounting"));
    if (in.has("arrow")) type.arrow = in.direction("arrow", Vec3::UnitX());
    type.hot = in.flag("hot");
    type.flexible = in.flag("flexible");
    type.maxThrust_gf = in.measured("maxThrust_gf");
    type.turns = maybeSpin(in, "turns");
    type.threadDepth_mm = in.measured("threadDepth_mm");
    if (in.has("fastener")) type.fastener = readFastener(in.inner("fastener"));
    if (in.has("carries")) type.carries = readPattern(in.inner("carries"));
    if (in.has("electrical")) type.electrical = readElectrical(in.inner("electrical"));
    type.radio = in.list<RadioBand>("radio", readBand);
    type.clocks = in.list<Clock>("clocks", [](const Reader &c) {
        return Clock{c.text("name"), c.number("frequency_MHz", 0)};
    });
    if (in.has("antenna")) type.antenna = readAntenna(in.inner("antenna"));
    if (in.has("camera")) type.camera = readCamera(in.inner("camera"));
    if (in.has("magnetics")) {
        const Reader m = in.inner("magnetics");
        type.magnetics = Magnetics{m.vec3("dipole_mAm2"), m.flag("ferrous")};
        if (m.has("compass_mm")) type.magnetics->compass_mm = m.vec3("compass_mm");
    }
    type.leads = in.list<SuppliedLead>("leads", [](const Reader &l) {
        return SuppliedLead{l.text("port"), l.number("length_mm", 0), int(l.number("gauge_AWG", 0)), l.text("plug")};
    });
    type.mustSeeSky = in.flag("mustSeeSky");
    type.fragile = in.flag("fragile");
    type.solids = in.list<Solid>("solids", readSolid);
    type.ports = in.list<Port>("ports", readPort);
    return type;
}

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

PartType readPartType(const json &object, const std::string &pointer) { return readType(Reader(object, pointer)); }

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
        return LoadCase{l.text("id"), l.text("name"), l.texts("aboard"), l.text("battery"), l.flag("folded")};
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
