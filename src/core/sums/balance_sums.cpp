#include "core/balance/mass_properties.h"
#include "core/balance/statics.h"
#include "core/base/units.h"
#include "core/geometry/solid.h"
#include "core/sums/read.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis::sums {

namespace {

using BodyResult = Result<MassElement, SumError>;

BodyResult bodyFrom(const SumObject &body, std::size_t index) {
    auto refuse = [&](const std::string &what) { return Failure{SumError{fmt::format("bodies[{}]", index), what}}; };
    auto numberAt = [&](const char *key) -> std::optional<double> {
        const SumValue *value = findKey(body, key);
        const double *held = value ? std::get_if<double>(&value->held) : nullptr;
        return held && std::isfinite(*held) ? std::optional(*held) : std::nullopt;
    };
    auto vectorAt = [&](const char *key) -> std::optional<Vec3> {
        const SumValue *value = findKey(body, key);
        const auto *items = value ? std::get_if<SumList>(&value->held) : nullptr;
        if (!items || items->size() != 3) return std::nullopt;
        Vec3 v;
        for (int i = 0; i < 3; ++i) {
            const double *held = std::get_if<double>(&(*items)[std::size_t(i)].held);
            if (!held || !std::isfinite(*held)) return std::nullopt;
            v[i] = *held;
        }
        return v;
    };
    const SumValue *shapeValue = findKey(body, "shape");
    const auto *shapeName = shapeValue ? std::get_if<std::string>(&shapeValue->held) : nullptr;
    if (!shapeName) return refuse("shape is missing: \"box\", \"cylinder\" or \"sphere\" expected");
    Shape shape;
    if (*shapeName == "box") {
        const auto size = vectorAt("size_mm");
        if (!size || !(size->minCoeff() > 0))
            return refuse("a box needs size_mm: [length, width, height], all above 0");
        shape = Box{*size};
    } else if (*shapeName == "cylinder") {
        const auto radius = numberAt("radius_mm"), length = numberAt("length_mm");
        if (!radius || !length || !(*radius > 0) || !(*length > 0))
            return refuse("a cylinder needs radius_mm and length_mm, both above 0");
        shape = Cylinder{2 * *radius, *length};
    } else if (*shapeName == "sphere") {
        const auto radius = numberAt("radius_mm");
        if (!radius || !(*radius > 0)) return refuse("a sphere needs radius_mm above 0");
        shape = Sphere{2 * *radius};
    } else {
        return refuse(
            fmt::format("shape \"{}\" is not known: \"box\", \"cylinder\" or \"sphere\" expected", *shapeName));
    }
    const auto mass = numberAt("mass_g");
    if (!mass || !(*mass >= 0)) return refuse("mass_g is missing or below 0");
    const auto position = vectorAt("pos_mm");
    if (!position) return refuse("pos_mm: [x, y, z] expected");
    const auto angles = vectorAt("rpy_deg");
    if (!angles && findKey(body, "rpy_deg")) return refuse("rpy_deg: [roll, pitch, yaw] expected");
    const Vec3 rpy = angles.value_or(Vec3::Zero());
    const Mat3 turn = quaternionFrom({rpy.x(), rpy.y(), rpy.z()}).toRotationMatrix();
    const ShapeProperties unit = shapeProperties(shape);
    return MassElement{*mass, *position, turn * unit.inertia_mm5 * turn.transpose() * (*mass / unit.volume_mm3)};
}

Sum massRollup() {
    Sum sum;
    sum.name = "mass-rollup";
    sum.title = "Mass, centre of gravity and inertia of several bodies";
    sum.formula = "m = sum mi; c = sum mi ci/m; I = sum (Ri Ji Ri^T + mi(|di|^2 1 - di di^T)); Ixy = -sum m x y";
    sum.source = "rigid-body mechanics (Goldstein)";
    sum.inputs = {{"bodies",
                   "bodies",
                   "",
                   SumInputKind::bodies,
                   {},
                   R"([{"shape": "box", "size_mm": [120, 40, 4], "mass_g": 30, "pos_mm": [0, 0, 0]},)"
                   R"( {"shape": "box", "size_mm": [75, 35, 30], "mass_g": 180, "pos_mm": [10, 0, 17]}])"},
                  {"conventions", "remark, not used", "", SumInputKind::text, SumValue(""), ""}};
    sum.outputs = {{"mass_g", "mass", "g"},
                   {"cx_mm", "CG forward", "mm"},
                   {"cy_mm", "CG left", "mm"},
                   {"cz_mm", "CG up", "mm"},
                   {"Ixx", "Ixx", "g mm2"},
                   {"Iyy", "Iyy", "g mm2"},
                   {"Izz", "Izz", "g mm2"},
                   {"Ixy", "Ixy", "g mm2"},
                   {"Ixz", "Ixz", "g mm2"},
                   {"Iyz", "Iyz", "g mm2"},
                   {"principal_g_mm2", "principal moments", "g mm2"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        std::vector<MassElement> elements;
        for (const auto &item : std::get<SumList>(findKey(in, "bodies")->held)) {
            const auto element = bodyFrom(std::get<SumObject>(item.held), elements.size());
            if (!element) return Failure{element.error()};
            elements.push_back(*element);
        }
        const CompoundMass total = rollUp(elements);
        if (!total.cg_mm) return Failure{SumError{"bodies", "nothing has any mass: there is no centre of gravity"}};
        const Mat3 &i = total.inertia_gmm2;
        const Vec3 principal = principalAxes(i).moments_gmm2;
        SumObject out;
        out.emplace_back("mass_g", total.mass_g);
        out.emplace_back("cx_mm", total.cg_mm->x());
        out.emplace_back("cy_mm", total.cg_mm->y());
        out.emplace_back("cz_mm", total.cg_mm->z());
        out.emplace_back("Ixx", i(0, 0));
        out.emplace_back("Iyy", i(1, 1));
        out.emplace_back("Izz", i(2, 2));
        out.emplace_back("Ixy", i(0, 1));
        out.emplace_back("Ixz", i(0, 2));
        out.emplace_back("Iyz", i(1, 2));
        out.emplace_back("principal_g_mm2", list(std::span(principal.data(), 3)));
        return out;
    };
    return sum;
}

Sum threeScales() {
    Sum sum;
    sum.name = "cg-three-scales";
    sum.title = "Centre of gravity from three scales";
    sum.formula = "x = sum Fi xi / sum Fi, y likewise (frame level)";
    sum.source = "statics";
    sum.inputs = {
        {"points_mm", "where the scales stand", "mm", SumInputKind::points, {}, "[[60, 60], [60, -60], [-80, 0]]"},
        {"readings_g", "what they read", "g", SumInputKind::numbers, {}, "[310, 295, 402]"}};
    sum.outputs = {{"mass_g", "mass", "g"}, {"x_mm", "CG x", "mm"}, {"y_mm", "CG y", "mm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto cg = cgFromScales(points(in, "points_mm"), numbers(*findKey(in, "readings_g")));
        if (!cg) return Failure{SumError{"", cg.error().reason}};
        return SumObject{{"mass_g", cg->mass_g}, {"x_mm", cg->cg_mm.x()}, {"y_mm", cg->cg_mm.y()}};
    };
    return sum;
}

Sum twoSupports() {
    Sum sum;
    sum.name = "cg-two-supports";
    sum.title = "Centre of gravity from two supports";
    sum.formula = "x from support 1 = L F2 / (F1 + F2)";
    sum.source = "statics";
    sum.inputs = {{"span_mm", "distance of the supports", "mm", SumInputKind::number, {}, "200"},
                  {"F1_g", "reading at support 1", "g", SumInputKind::number, {}, "430"},
                  {"F2_g", "reading at support 2", "g", SumInputKind::number, {}, "470"}};
    sum.outputs = {{"x_mm", "CG from support 1", "mm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto x = cgFromTwoSupports(number(in, "span_mm"), number(in, "F1_g"), number(in, "F2_g"));
        if (!x) return Failure{SumError{"", x.error().reason}};
        return SumObject{{"x_mm", *x}};
    };
    return sum;
}

Sum heightFromTilt() {
    Sum sum;
    sum.name = "cg-height";
    sum.title = "Height of the centre of gravity from a tilted weighing";
    sum.formula =
        "z = L (F_level - F_tilted) / (W tan theta), far support raised by theta, F read at the raised support";
    sum.source = "statics";
    sum.inputs = {{"span_mm", "distance of the supports", "mm", SumInputKind::number, {}, "200"},
                  {"W_g", "all-up weight", "g", SumInputKind::number, {}, "900"},
                  {"F_level_g", "reading when level", "g", SumInputKind::number, {}, "470"},
                  {"F_tilted_g", "reading when tilted", "g", SumInputKind::number, {}, "430"},
                  {"theta_deg", "tilt", "deg", SumInputKind::number, {}, "15"}};
    sum.outputs = {{"z_mm", "CG above the line of supports", "mm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto z = cgHeightFromTilt(number(in, "span_mm"), number(in, "W_g"), number(in, "F_level_g"),
                                        number(in, "F_tilted_g"), number(in, "theta_deg"));
        if (!z) return Failure{SumError{"", z.error().reason}};
        return SumObject{{"z_mm", *z}};
    };
    return sum;
}

Sum thrustSplitSum() {
    Sum sum;
    sum.name = "thrust-split";
    sum.title = "Hover thrust of each motor";
    sum.formula = "min |T|^2 with sum Ti = m g, sum Ti (xi - xcg) = 0, sum Ti (yi - ycg) = 0; T = A^T (A A^T)^-1 w";
    sum.source = "least-norm solution (pseudo-inverse), linear algebra; yaw is ignored";
    sum.inputs = {{"motors_xy_mm",
                   "motor positions",
                   "mm",
                   SumInputKind::points,
                   {},
                   "[[78, -78], [78, 78], [-78, 78], [-78, -78]]"},
                  {"cg_xy_mm", "centre of gravity", "mm", SumInputKind::numbers, {}, "[12, -5]"},
                  {"mass_kg", "all-up mass", "kg", SumInputKind::number, {}, "0.65"},
                  {"g", "gravity", "m/s2", SumInputKind::number, SumValue(kStandardGravity_m_s2), "9.80665"}};
    sum.outputs = {{"T1", "thrust of motor 1, and so on", "N"}, {"max_over_mean", "most loaded over the mean", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto cg = numbers(*findKey(in, "cg_xy_mm"));
        if (cg.size() != 2) return Failure{SumError{"cg_xy_mm", "[x, y] expected"}};
        const auto thrusts =
            thrustSplit(points(in, "motors_xy_mm"), Vec2(cg[0], cg[1]), number(in, "mass_kg"), number(in, "g"));
        if (!thrusts) return Failure{SumError{"", thrusts.error().reason}};
        SumObject out;
        double total = 0;
        for (std::size_t i = 0; i < thrusts->size(); ++i) {
            out.emplace_back(fmt::format("T{}", i + 1), (*thrusts)[i]);
            total += (*thrusts)[i];
        }
        const double most = *std::max_element(thrusts->begin(), thrusts->end());
        out.emplace_back("max_over_mean", most * double(thrusts->size()) / total);
        return out;
    };
    return sum;
}

} // namespace

std::vector<Sum> balanceSums() {
    return {massRollup(), threeScales(), twoSupports(), heightFromTilt(), thrustSplitSum()};
}

} // namespace waxis::sums
