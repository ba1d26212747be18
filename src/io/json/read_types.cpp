// Part types from JSON: solids, ports, what they draw, send, hear and see.
#include "io/json/reader.h"

#include "core/radio/coax.h"

#include <algorithm>

namespace waxis::io {

void requireSoundOutline(const Polygon &polygon, const std::string &where) {
    constexpr std::size_t kMostCorners = 12000; // cutting a polygon into triangles takes time in step with their square
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

namespace {

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
} // namespace

std::optional<Spin> maybeSpin(const Reader &in, const char *key) {
    return in.has(key) ? std::optional(in.choice(key, Spin::clockwise)) : std::nullopt;
}

namespace {

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
} // namespace

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
    type.propDiameter_mm = in.maybe("propDiameter_mm");
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

PartType readPartType(const json &object, const std::string &pointer) { return readType(Reader(object, pointer)); }

} // namespace waxis::io
