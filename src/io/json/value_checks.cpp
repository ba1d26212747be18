#include "io/json/value_checks.h"

#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/fasteners/thread.h"
#include "core/radio/coax.h"
#include "io/json/reading.h"

#include <algorithm>

namespace waxis::io {

namespace {

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

void requireSoundMesh(const Reading &in, const Mesh &mesh) {
    for (std::size_t i = 0; i < mesh.triangles.size(); ++i)
        for (const int corner : mesh.triangles[i])
            if (corner >= int(mesh.points_mm.size()))
                refuse(fmt::format("{}/{}", in.at("triangles"), i), "indices of points_mm",
                       fmt::format("{} of {} points", corner, mesh.points_mm.size()));
    if (!(shapeProperties(mesh).volume_mm3 > 0))
        refuse(in.at("triangles"), "a closed mesh that encloses a volume, counter-clockwise seen from outside",
               "none, or the triangles turned inside out");
}

} // namespace

void check(const Reading &in, const HolePattern &pattern) {
    if (pattern.shape == PatternShape::rectangle) in.require("width_mm", "a rectangle without its extent across");
}

void check(const Reading &in, const Solid &solid) {
    const auto wants = [&](const char *shape, std::initializer_list<const char *> keys) {
        for (const char *key : keys) in.require(key, fmt::format("a {} without it", shape));
    };
    if (std::holds_alternative<Box>(solid.shape)) wants("box", {"size_mm"});
    if (std::holds_alternative<Cylinder>(solid.shape)) wants("cylinder", {"diameter_mm", "length_mm"});
    if (std::holds_alternative<Sphere>(solid.shape)) wants("sphere", {"diameter_mm"});
    if (const auto *prism = std::get_if<Prism>(&solid.shape)) {
        wants("prism", {"outline_mm", "thickness_mm"});
        requireSoundOutline(prism->polygon, in.at("outline_mm"));
    }
    if (const auto *mesh = std::get_if<Mesh>(&solid.shape)) {
        wants("mesh", {"points_mm", "triangles"});
        requireSoundMesh(in, *mesh);
    }
}

void check(const Reading &in, const Electrical &electrical) {
    const auto &least = electrical.supplyMin_V, &most = electrical.supplyMax_V;
    if (least && most && !(*least <= *most))
        refuse(in.at("supplyMin_V"), "no more than supplyMax_V", fmt::format("{:g}", *least));
}

void check(const Reading &in, const RadioBand &band) {
    if (!(band.low_MHz <= band.high_MHz))
        refuse(in.at("low_MHz"), "no more than high_MHz", fmt::format("{:g}", band.low_MHz));
    for (std::size_t i = 0; i < band.channels.size(); ++i)
        if (const double centre = band.channels[i].centre_MHz; centre < band.low_MHz || centre > band.high_MHz)
            refuse(fmt::format("{}/{}/centre_MHz", in.at("channels"), i),
                   fmt::format("between {:g} and {:g} MHz", band.low_MHz, band.high_MHz), fmt::format("{:g}", centre));
}

void check(const Reading &in, const Antenna &antenna) {
    if (!antenna.coax.empty() && !findCoax(antenna.coax))
        refuse(in.at("coax"), "rg178, rg316 or micro-1.13", fmt::format("\"{}\"", antenna.coax));
    for (std::size_t i = 1; i < antenna.pattern.size(); ++i)
        if (!(antenna.pattern[i].angle_deg > antenna.pattern[i - 1].angle_deg))
            refuse(fmt::format("{}/{}/angle_deg", in.at("pattern"), i), "more than the angle before",
                   fmt::format("{:g}", antenna.pattern[i].angle_deg));
}

void check(const Reading &in, const FastenerData &fastener) {
    if (!findThread(fastener.thread))
        refuse(in.at("thread"), "M1.4, M1.6, M1.7, M2, M2.5, M3, M4 or M5", fmt::format("\"{}\"", fastener.thread));
}

void check(const Reading &in, const Arm &arm) {
    if (!((arm.tip_mm - arm.root_mm).norm() >= 0.001))
        refuse(in.at("tip_mm"), "a tip away from the root", "the same point");
}

void check(const Reading &in, const Plate &plate) { requireSoundOutline(platePolygon(plate), in.at("outline_mm")); }

void check(const Reading &in, const Standoff &standoff) {
    if (!(standoff.bore_mm < standoff.diameter_mm))
        refuse(in.at("bore_mm"), "less than the diameter", fmt::format("{:g}", standoff.bore_mm));
}

void check(const Reading &in, const FrameScrew &screw) {
    if (!findThread(screw.thread))
        refuse(in.at("thread"), "M1.4, M1.6, M1.7, M2, M2.5, M3, M4 or M5", fmt::format("\"{}\"", screw.thread));
    if (screw.through.empty()) refuse(in.at("through"), "what it clamps", "nothing");
}

void check(const Reading &in, const SlideRange &slide) {
    if (!(slide.min_mm <= slide.max_mm)) refuse(in.at("min_mm"), "no more than max_mm", "more");
}

void check(const Reading &in, const StackLayer &layer) {
    const std::string parts = fmt::format("{}", layer.parts.size());
    const bool filler = layer.role == LayerRole::gap || liesOnly(layer.role);
    if (filler && !layer.height_mm.known())
        refuse(in.pointer(), "the key \"height_mm\" with a value", "a layer without parts or height");
    const bool single = layer.role == LayerRole::board || layer.role == LayerRole::adapter;
    if (single && layer.parts.size() != 1) refuse(in.at("parts"), "one part", parts);
    if (isHardware(layer.role) && layer.parts.empty()) refuse(in.at("parts"), "one part at each hole", "none");
    if ((filler || layer.role == LayerRole::frame) && !layer.parts.empty())
        refuse(in.at("parts"), "no parts in this layer", parts);
}

void check(const Reading &in, const Stack &stack) {
    const auto frames = std::count_if(stack.layers.begin(), stack.layers.end(),
                                      [](const StackLayer &l) { return l.role == LayerRole::frame; });
    if (frames != 1) refuse(in.at("layers"), "exactly one layer \"frame\"", fmt::format("{}", frames));
}

void check(const Reading &in, const RouteStop &stop) {
    if (stop.at.empty() != in.has("point_mm")) refuse(in.pointer(), "either \"at\" or \"point_mm\"", "both or neither");
}

void check(const Reading &in, const Weighing &weighing) {
    if (weighing.points_mm.size() != weighing.readings_g.size())
        refuse(in.at("readings_g"), fmt::format("a reading for each of the {} scales", weighing.points_mm.size()),
               fmt::format("{}", weighing.readings_g.size()));
}

void check(const Reading &in, const PracticeSettings &practice) { checkPractice(practice, in.pointer()); }

} // namespace waxis::io
