#include "io/drawing/plate_writer.h"

#include "core/base/units.h"
#include "core/build/frame_shapes.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

constexpr double kCrossBeyond_mm = 2;
constexpr double kRuler_mm = 100;

/// Plain decimal numbers whatever the locale; no "-0".
std::string number(double value) {
    const double rounded = std::round(value * 1e6) / 1e6;
    return fmt::format("{}", rounded == 0 ? 0.0 : rounded);
}

class DxfText {
public:
    DxfText(const std::vector<std::string> &layers, const Vec2 &low, const Vec2 &high) {
        pair(0, "SECTION");
        pair(2, "HEADER");
        pair(9, "$ACADVER");
        pair(1, "AC1009");
        pair(9, "$INSUNITS");
        pair(70, "4");
        pair(9, "$MEASUREMENT");
        pair(70, "1");
        pair(9, "$EXTMIN");
        point(10, {low.x(), low.y()}, true);
        pair(9, "$EXTMAX");
        point(10, {high.x(), high.y()}, true);
        pair(0, "ENDSEC");
        pair(0, "SECTION");
        pair(2, "TABLES");
        pair(0, "TABLE");
        pair(2, "LTYPE");
        pair(70, "1");
        pair(0, "LTYPE");
        pair(2, "CONTINUOUS");
        pair(70, "0");
        pair(3, "Solid line");
        pair(72, "65");
        pair(73, "0");
        pair(40, "0.0");
        pair(0, "ENDTAB");
        pair(0, "TABLE");
        pair(2, "LAYER");
        pair(70, std::to_string(layers.size() + 1));
        layer("0", 7);
        for (std::size_t i = 0; i < layers.size(); ++i) layer(layers[i], int(1 + i % 6));
        pair(0, "ENDTAB");
        pair(0, "ENDSEC");
        pair(0, "SECTION");
        pair(2, "ENTITIES");
    }
    void ring(const std::string &layer, const Ring &ring) {
        entity("POLYLINE", layer);
        pair(66, "1");
        point(10, Vec2::Zero(), true);
        pair(70, "1");
        for (const auto &p : ring) {
            entity("VERTEX", layer);
            point(10, p, true);
        }
        entity("SEQEND", layer);
    }
    void circle(const std::string &layer, const Vec2 &centre, double diameter) {
        entity("CIRCLE", layer);
        point(10, centre, true);
        pair(40, number(diameter / 2));
    }
    void line(const std::string &layer, const Vec2 &a, const Vec2 &b) {
        entity("LINE", layer);
        point(10, a, true);
        point(11, b, true);
    }
    void text(const std::string &layer, const Vec2 &at, double height, const std::string &words) {
        entity("TEXT", layer);
        point(10, at, true);
        pair(40, number(height));
        pair(1, words);
    }
    std::string finish() {
        pair(0, "ENDSEC");
        pair(0, "EOF");
        return std::move(text_);
    }

private:
    void pair(int code, const std::string &value) { text_ += fmt::format("{:>3}\n{}\n", code, value); }
    void point(int code, const Vec2 &p, bool height) {
        pair(code, number(p.x()));
        pair(code + 10, number(p.y()));
        if (height) pair(code + 20, "0.0");
    }
    void layer(const std::string &name, int color) {
        pair(0, "LAYER");
        pair(2, name);
        pair(70, "0");
        pair(62, std::to_string(color));
        pair(6, "CONTINUOUS");
    }
    void entity(const char *kind, const std::string &layer) {
        pair(0, kind);
        pair(8, layer);
    }
    std::string text_;
};

struct Extent {
    Vec2 low = Vec2::Constant(1e300), high = Vec2::Constant(-1e300);
    void include(const Ring &ring) {
        for (const auto &p : ring) {
            low = low.cwiseMin(p);
            high = high.cwiseMax(p);
        }
    }
    bool empty() const { return low.x() > high.x(); }
};

std::string escaped(const std::string &text) {
    std::string out;
    for (char c : text) switch (c) {
        case '&': out += "&amp;"; break;
        case '<': out += "&lt;"; break;
        case '>': out += "&gt;"; break;
        case '"': out += "&quot;"; break;
        default: out += c;
        }
    return out;
}

} // namespace

std::vector<Plate> cutPlates(const Frame &frame) {
    std::vector<Plate> plates = frame.plates;
    for (const auto &arm : frame.arms) {
        Plate plate;
        plate.id = arm.id;
        plate.name = arm.id;
        plate.thickness_mm = arm.thickness_mm;
        plate.material = arm.material;
        plate.z_mm = std::min(arm.root_mm.z(), arm.tip_mm.z()) - arm.thickness_mm;
        const Vec2 root = arm.root_mm.head<2>(), out = (arm.tip_mm - arm.root_mm).head<2>();
        const double length = (arm.tip_mm - arm.root_mm).norm(); // a rising arm is cut at its own length
        const Vec2 along = out.norm() > 1e-9 ? Vec2(out.normalized()) : Vec2(Vec2::UnitX());
        const Vec2 left(-along.y(), along.x());
        const double half = arm.width_mm / 2;
        auto at = [&](double x, double y) { return Vec2(root + along * x + left * y); };
        plate.outline_mm = {at(0, -half), at(length, -half), at(length, half), at(0, half)};
        for (const auto &mount : frame.motorMounts) {
            const Vec2 d = mount.position_mm.head<2>() - root;
            const double x = d.dot(along);
            const HolePattern &pattern = mount.pattern;
            if (!(pattern.size_mm > 0) || !(x > 0 && x < length) || !plate.holes.empty() ||
                std::abs(d.dot(left)) > half)
                continue;
            // A pad wide enough for the motor's holes, with the arm's sides running into it.
            constexpr double kLand_mm = 2;
            const double pad = (pattern.size_mm + pattern.holeDiameter_mm) / 2 + kLand_mm, corner = 0.45 * pad;
            const double neck = x - pad - std::max(pad - corner - half, 0.0);
            if (pad > half && neck > 0)
                plate.outline_mm = {at(0, -half),         at(neck, -half),      at(x - corner, -pad),
                                    at(x + corner, -pad), at(x + pad, -corner), at(x + pad, corner),
                                    at(x + corner, pad),  at(x - corner, pad),  at(neck, half),
                                    at(0, half)};
            for (const auto &c : holeCentres(pattern))
                plate.holes.push_back({at(x + c.x(), c.y()), pattern.holeDiameter_mm});
            constexpr double kShaft_mm = 6;
            if (pattern.size_mm > kShaft_mm + pattern.holeDiameter_mm + kLand_mm)
                plate.holes.push_back({at(x, 0), kShaft_mm});
        }
        plates.push_back(std::move(plate));
    }
    return plates;
}

std::string platesAsDxf(const Frame &frame, PlateSheet sheet) {
    const auto plates = cutPlates(frame);
    std::vector<std::string> layers;
    Extent extent;
    for (const auto &plate : plates) {
        layers.push_back(plate.id);
        extent.include(plate.outline_mm);
    }
    const bool drill = sheet == PlateSheet::drillTemplate;
    if (drill) layers.emplace_back("marks");
    if (extent.empty()) extent.low = extent.high = Vec2::Zero();
    DxfText dxf(layers, extent.low, extent.high);
    for (const auto &plate : plates) {
        dxf.ring(plate.id, plate.outline_mm);
        for (const auto &ring : plate.cutouts_mm) dxf.ring(plate.id, ring);
        for (const auto &hole : plate.holes) {
            dxf.circle(plate.id, hole.centre_mm, hole.diameter_mm);
            if (!drill) continue;
            const double reach = hole.diameter_mm / 2 + kCrossBeyond_mm;
            dxf.line("marks", hole.centre_mm - Vec2(reach, 0), hole.centre_mm + Vec2(reach, 0));
            dxf.line("marks", hole.centre_mm - Vec2(0, reach), hole.centre_mm + Vec2(0, reach));
            dxf.text("marks", hole.centre_mm + Vec2(reach, 0.4), 1.6, number(hole.diameter_mm));
        }
    }
    if (drill) {
        const Vec2 at(extent.low.x(), extent.low.y() - 12);
        dxf.line("marks", at, at + Vec2(kRuler_mm, 0));
        for (int i = 0; i <= 10; ++i) dxf.line("marks", at + Vec2(10 * i, 0), at + Vec2(10 * i, i % 5 == 0 ? 4 : 2));
        dxf.text("marks", at + Vec2(kRuler_mm + 2, 0), 3, "100 mm");
    }
    return dxf.finish();
}

std::string platesAsSvg(const Frame &frame, PlateSheet sheet) {
    constexpr double kMargin_mm = 10, kGap_mm = 12;
    const bool drill = sheet == PlateSheet::drillTemplate;
    std::string body;
    double y = kMargin_mm, widest = drill ? kRuler_mm : 0;
    for (const auto &plate : cutPlates(frame)) {
        Extent extent;
        extent.include(plate.outline_mm);
        const Vec2 size = extent.high - extent.low;
        auto at = [&](const Vec2 &p) { return Vec2(p.x() - extent.low.x() + kMargin_mm, extent.high.y() - p.y() + y); };
        auto path = [&](const Ring &ring) {
            std::string d;
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const Vec2 q = at(ring[i]);
                d += fmt::format("{}{} {}", i == 0 ? "M" : " L", number(q.x()), number(q.y()));
            }
            return d + " Z";
        };
        std::string d = path(plate.outline_mm);
        for (const auto &ring : plate.cutouts_mm) d += " " + path(ring);
        body += fmt::format("  <g id=\"{}\">\n    <title>{}, {:g} mm {}</title>\n    <path d=\"{}\"/>\n",
                            escaped(plate.id), escaped(plate.name), plate.thickness_mm, escaped(plate.material), d);
        for (const auto &hole : plate.holes) {
            const Vec2 c = at(hole.centre_mm);
            body += fmt::format("    <circle cx=\"{}\" cy=\"{}\" r=\"{}\"/>\n", number(c.x()), number(c.y()),
                                number(hole.diameter_mm / 2));
            if (!drill) continue;
            const double reach = hole.diameter_mm / 2 + kCrossBeyond_mm;
            body +=
                fmt::format("    <path class=\"mark\" d=\"M{} {} h{} M{} {} v{}\"/>\n", number(c.x() - reach),
                            number(c.y()), number(2 * reach), number(c.x()), number(c.y() - reach), number(2 * reach));
            body += fmt::format("    <text x=\"{}\" y=\"{}\">{}</text>\n", number(c.x() + reach), number(c.y() - 0.4),
                                number(hole.diameter_mm));
        }
        body += "  </g>\n";
        y += size.y() + kGap_mm;
        widest = std::max(widest, size.x());
    }
    if (drill) {
        body += fmt::format("  <g id=\"ruler\">\n    <title>100 mm: measure it on the print before drilling</title>\n");
        body +=
            fmt::format("    <path class=\"mark\" d=\"M{} {} h{}", number(kMargin_mm), number(y), number(kRuler_mm));
        for (int i = 0; i <= 10; ++i)
            body += fmt::format(" M{} {} v{}", number(kMargin_mm + 10 * i), number(y), i % 5 == 0 ? "-4" : "-2");
        body +=
            fmt::format("\"/>\n    <text x=\"{}\" y=\"{}\">100 mm</text>\n  </g>\n", number(kMargin_mm), number(y + 4));
        y += 8;
    }
    const double width = widest + 2 * kMargin_mm, height = y;
    return fmt::format(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}mm\" height=\"{1}mm\" viewBox=\"0 0 {0} {1}\">\n"
        "  <style>path, circle {{ fill: none; stroke: #000; stroke-width: 0.1 }} .mark {{ stroke-width: 0.05 }} "
        "text {{ font: 2px sans-serif }}</style>\n{2}</svg>\n",
        number(width), number(height), body);
}

} // namespace waxis
