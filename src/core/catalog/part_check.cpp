#include "core/catalog/part_check.h"

#include "core/geometry/mesh_tools.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace waxis {

namespace {

bool isId(const std::string &id) {
    auto plain = [](char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9'); };
    return !id.empty() && id.size() <= 64 && plain(id[0]) &&
           std::all_of(id.begin(), id.end(), [&](char c) { return plain(c) || c == '.' || c == '_' || c == '-'; });
}

bool isLength(double mm) { return mm >= 0.001 && mm <= 1e5; }

std::string shapeFault(const Shape &shape) {
    if (const auto *box = std::get_if<Box>(&shape))
        return isLength(box->fullSize_mm.minCoeff()) && isLength(box->fullSize_mm.maxCoeff())
                   ? ""
                   : "three lengths of more than 0 mm wanted";
    if (const auto *cylinder = std::get_if<Cylinder>(&shape))
        return isLength(cylinder->diameter_mm) && isLength(cylinder->length_mm)
                   ? ""
                   : "a diameter and a length of more than 0 mm wanted";
    if (const auto *sphere = std::get_if<Sphere>(&shape))
        return isLength(sphere->diameter_mm) ? "" : "a diameter of more than 0 mm wanted";
    if (const auto *prism = std::get_if<Prism>(&shape)) {
        if (!isLength(prism->thickness_mm)) return "a thickness of more than 0 mm wanted";
        if (!(areaProperties(prism->polygon).area_mm2 > 0)) return "its outline encloses no area";
        return faultOf(prism->polygon);
    }
    const auto &mesh = std::get<Mesh>(shape);
    if (mesh.triangles.size() < 4 || !(shapeProperties(mesh).volume_mm3 > 0)) return "it encloses no volume";
    return openEdges(mesh) > 0 ? fmt::format("the mesh has {} open edges", openEdges(mesh)) : "";
}

bool isSupply(const std::string &signal) {
    if (signal == "BAT") return true;
    const auto v = signal.find('V');
    return v != std::string::npos && v > 0 &&
           std::all_of(signal.begin(), signal.begin() + std::ptrdiff_t(v), [](char c) { return c >= '0' && c <= '9'; });
}

class Checker {
public:
    Checker(const PartType &type, const std::vector<Material> &materials) : type_(type), materials_(materials) {}

    std::vector<PartFault> check() {
        basics();
        bodies();
        mounting();
        fastener();
        travels();
        ports();
        ratings();
        return std::move(faults_);
    }

private:
    void stop(std::string where, std::string what) { faults_.push_back({std::move(where), std::move(what), true}); }
    void odd(std::string where, std::string what) { faults_.push_back({std::move(where), std::move(what), false}); }

    void basics() {
        if (!isId(type_.id)) stop("id", "letters, digits, dot, dash and underline, beginning with a letter or digit");
        if (type_.name.find_first_not_of(" \t") == std::string::npos) stop("name", "a part needs a name");
        if (!type_.mass_g.known())
            odd("mass", "not known: it will be missing from the balance until it is weighed");
        else if (!(*type_.mass_g.value >= 0 && *type_.mass_g.value <= 1e6))
            stop("mass", "a mass cannot be less than nothing");
        if (type_.arrow && !(std::abs(type_.arrow->norm() - 1) <= 1e-6))
            stop("arrow", "a direction of length 1 wanted");
    }
    void bodies() {
        if (type_.solids.empty()) odd("bodies", "none: the part takes no room and is not drawn");
        double volume = 0;
        bool sound = !type_.solids.empty();
        for (std::size_t i = 0; i < type_.solids.size(); ++i) {
            const Solid &solid = type_.solids[i];
            const std::string where = fmt::format("body {}", i + 1);
            const auto fault = shapeFault(solid.shape);
            if (!fault.empty()) {
                stop(where, fault);
                sound = false;
            } else {
                volume += shapeProperties(solid.shape).volume_mm3;
            }
            if (!solid.X_PartSolid.position_mm.allFinite()) stop(where, "its place is not a number");
            if (!solid.material.empty() && !findMaterial(solid.material, materials_))
                odd(where, fmt::format("material \"{}\" is not in the table", solid.material));
        }
        // Propellers are drawn as hubs: their blades are in the disc.
        if (!sound || !type_.mass_g.known() || type_.kind == PartKind::propeller || type_.kind == PartKind::strap)
            return;
        const double density = *type_.mass_g.value / volume * 1000;
        if (density < 0.02 || density > 12)
            odd("mass", fmt::format("{:.2f} g in bodies of {:.2f} cm3 are {:.2f} g/cm3", *type_.mass_g.value,
                                    volume / 1000, density));
    }
    void patternFault(const std::optional<HolePattern> &pattern, const char *where) {
        if (!pattern) return;
        if (!isLength(pattern->size_mm) || !isLength(pattern->holeDiameter_mm)) {
            stop(where, "a size and a hole of more than 0 mm wanted");
            return;
        }
        if (pattern->shape == PatternShape::rectangle && !isLength(pattern->width_mm))
            stop(where, "a rectangle needs its other side");
        if (pattern->holes < 1 || pattern->holes > 64) stop(where, "1 to 64 holes");
    }
    void mounting() {
        patternFault(type_.mounting, "mounting");
        patternFault(type_.carries, "carries");
        if (!type_.mounting || type_.kind == PartKind::motor) return;
        Aabb board;
        for (const auto &solid : type_.solids)
            if (solid.role == SolidRole::board && shapeFault(solid.shape).empty())
                board.include(boundsOf(solid.shape, solid.X_PartSolid));
        if (board.empty()) return;
        for (const auto &c : holeCentres(*type_.mounting))
            if (c.x() < board.min_mm.x() || c.x() > board.max_mm.x() || c.y() < board.min_mm.y() ||
                c.y() > board.max_mm.y()) {
                stop("mounting", fmt::format("a hole at ({:.1f}, {:.1f}) lies outside the board", c.x(), c.y()));
                return;
            }
    }
    void fastener() {
        if (!type_.fastener) return;
        const FastenerData &f = *type_.fastener;
        if (!findThread(f.thread)) stop("hardware", "M1.6, M2, M2.5, M3 or M4 wanted as its thread");
        if (!isLength(f.length_mm)) stop("hardware", "a length of more than 0 mm wanted");
        if (!(f.stud_mm >= 0 && f.bore_mm >= 0)) stop("hardware", "a length cannot be less than nothing");
        if (f.form == FastenerForm::screw || type_.solids.empty()) return;
        // What is stacked is the first body: it should be as high as it says.
        const Aabb box = boundsOf(type_.solids.front().shape, type_.solids.front().X_PartSolid);
        if (std::abs(box.size_mm().z() - f.length_mm) > 0.05)
            odd("hardware", fmt::format("its first body is {:.2f} mm high, not {:g}", box.size_mm().z(), f.length_mm));
    }
    void travels() {
        for (const auto &travel : type_.travels) {
            const std::string where = travel.name.empty() ? "joint" : "joint " + travel.name;
            if (!(std::abs(travel.axis.norm() - 1) <= 1e-6)) stop(where, "its axis needs length 1");
            if (travel.firstSolid < 0 || std::size_t(travel.firstSolid) >= type_.solids.size())
                stop(where, "none of its bodies turns");
            if (travel.from_deg == travel.to_deg) odd(where, "it goes nowhere");
        }
    }
    void ports() {
        std::set<std::string> seen;
        for (const auto &port : type_.ports) {
            const std::string where = "port " + port.id;
            if (!isId(port.id)) stop(where, "its id is no word of letters and digits");
            if (!seen.insert(port.id).second) stop(where, "two ports have this id");
            if (!(std::abs(port.direction.norm() - 1) <= 1e-6)) stop(where, "its direction needs length 1");
            if (!(port.fullSize_mm.minCoeff() >= 0)) stop(where, "room cannot be less than nothing");
            bool supply = false, ground = false;
            std::set<std::string> names;
            for (const auto &pin : port.pins) {
                supply |= isSupply(pin.signal);
                ground |= pin.signal == "GND" || pin.signal == "BZ-"; // a buzzer's minus is switched
                if (pin.signal.empty()) stop(where, "a pin without a signal");
                if (!names.insert(pin.signal).second) odd(where, fmt::format("two pins are called {}", pin.signal));
            }
            if (supply && !ground) odd(where, "a supply and no ground");
        }
        for (const auto &lead : type_.leads) {
            if (!lead.port.empty() && !seen.contains(lead.port))
                stop("lead", fmt::format("there is no port \"{}\"", lead.port));
            if (!(lead.length_mm >= 0)) stop("lead", "a length cannot be less than nothing");
        }
    }
    void ratings() {
        if (const auto &e = type_.electrical) {
            if (e->supplyMin_V && e->supplyMax_V && !(*e->supplyMin_V <= *e->supplyMax_V))
                stop("supply", "the least is above the most");
            if (e->typical_A.known() && e->peak_A.known() && !(*e->typical_A.value <= *e->peak_A.value))
                odd("current", "typically more than at peak");
            for (const auto &output : e->outputs) {
                if (!isId(output.id)) stop("output", "its id is no word of letters and digits");
                if (output.efficiency && !(*output.efficiency > 0 && *output.efficiency <= 1))
                    stop("output " + output.id, "an efficiency between 0 and 1");
                if (e->supplyMax_V && output.voltage_V > *e->supplyMax_V)
                    odd("output " + output.id, "more volts than the supply gives");
            }
        }
        for (const auto &band : type_.radio) {
            if (!(band.low_MHz <= band.high_MHz)) stop("radio", "the band's low end is above its high end");
            if (!band.power_dBm && !band.listens) odd("radio", "a band in which it neither sends nor listens");
        }
        if (const auto &a = type_.antenna) {
            if (!(a->low_MHz <= a->high_MHz)) stop("antenna", "the band's low end is above its high end");
            if (!(std::abs(a->axis.norm() - 1) <= 1e-6)) stop("antenna", "its axis needs length 1");
        }
        if (const auto &c = type_.camera) {
            if (!(c->horizontalView_deg > 0 && c->horizontalView_deg <= 360))
                stop("camera", "a view of 0 to 360 degrees across");
            if (!(c->tiltMin_deg <= c->tiltMax_deg)) stop("camera", "the least tilt is above the most");
            if (!(std::abs(c->axis.norm() - 1) <= 1e-6)) stop("camera", "its axis needs length 1");
        }
    }

    const PartType &type_;
    const std::vector<Material> &materials_;
    std::vector<PartFault> faults_;
};

} // namespace

std::vector<PartFault> faultsOf(const PartType &type, const std::vector<Material> &materials) {
    return Checker(type, materials).check();
}

std::string idFromName(const std::string &name) {
    std::string id;
    for (char c : name) {
        if (c >= 'A' && c <= 'Z') c = char(c + 32);
        const bool plain = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
        if (plain)
            id += c;
        else if (!id.empty() && id.back() != '-')
            id += '-';
    }
    constexpr std::size_t kLongest = 56;
    if (id.size() > kLongest) id.resize(kLongest);
    while (!id.empty() && id.back() == '-') id.pop_back();
    return id.empty() ? "part" : id;
}

} // namespace waxis
