#include "core/base/units.h"
#include "core/sky/solid_angle.h"
#include "core/sums/read.h"

#include <cmath>
#include <fmt/format.h>

namespace waxis::sums {

namespace {

constexpr const char *kSource = "solid angle of a rectangle seen from a point, geometry";

SumInput length(const char *key, const char *title, const char *example) {
    return {key, title, "mm", SumInputKind::number, {}, example};
}
SumInput range(const char *key, const char *title, const char *example) {
    return {key, title, "mm", SumInputKind::numbers, {}, example};
}

/// A pair of numbers, the smaller first.
Result<std::array<double, 2>, SumError> pairOf(const SumObject &in, const std::string &key) {
    const auto values = numbers(*findKey(in, key));
    if (values.size() != 2 || !(values[0] < values[1]))
        return Failure{SumError{key, "two numbers, the smaller one first"}};
    return std::array<double, 2>{values[0], values[1]};
}

SumObject solidAngle(double omega_sr) { return {{"omega_sr", omega_sr}, {"fraction", omega_sr / (2 * kPi)}}; }

const std::vector<SumOutput> kSolidAngle{{"omega_sr", "solid angle", "sr"},
                                         {"fraction", "share of the upper hemisphere", ""}};
const std::vector<SumOutput> kFraction{{"fraction", "share of the sky", ""}};

Sum rectangle() {
    Sum sum;
    sum.name = "sky-rectangle";
    sum.title = "Sky hidden by a level plate centred above the antenna";
    sum.formula = "Omega = 4 atan(al be / sqrt(1 + al2 + be2)), al = a/2h, be = b/2h; fraction = Omega / 2 pi";
    sum.source = kSource;
    sum.inputs = {length("a_mm", "one side", "60"), length("b_mm", "other side", "60"),
                  length("h_mm", "height above the antenna", "30")};
    sum.outputs = kSolidAngle;
    sum.compute = [](const SumObject &in) -> SumResult {
        const double a = number(in, "a_mm"), b = number(in, "b_mm"), h = number(in, "h_mm");
        for (const char *key : {"a_mm", "b_mm", "h_mm"})
            if (!(number(in, key) > 0)) return Failure{SumError{key, "more than 0 mm"}};
        return solidAngle(rectangleSolidAngle_sr(-a / 2, a / 2, -b / 2, b / 2, h));
    };
    return sum;
}

Sum rectangleOff() {
    Sum sum;
    sum.name = "sky-rectangle-off";
    sum.title = "Sky hidden by a level plate anywhere above the antenna";
    sum.formula = "Omega = sum over the corners (+ - - +) of atan(x y / (h sqrt(x2 + y2 + h2)))";
    sum.source = kSource;
    sum.inputs = {range("x_mm", "from, to, forward of the antenna", "[10, 90]"),
                  range("y_mm", "from, to, left of the antenna", "[-30, 50]"),
                  length("h_mm", "height above the antenna", "40")};
    sum.outputs = kSolidAngle;
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto x = pairOf(in, "x_mm"), y = pairOf(in, "y_mm");
        if (!x) return Failure{x.error()};
        if (!y) return Failure{y.error()};
        const double h = number(in, "h_mm");
        if (!(h > 0)) return Failure{SumError{"h_mm", "more than 0 mm"}};
        return solidAngle(rectangleSolidAngle_sr((*x)[0], (*x)[1], (*y)[0], (*y)[1], h));
    };
    return sum;
}

Sum wall() {
    Sum sum;
    sum.name = "sky-wall";
    sum.title = "Sky hidden by an upright plate beside the antenna";
    sum.formula = "the corner formula with h = s, clipped at the horizon; with a mask only the sky above it, "
                  "integrated over azimuth, against 2 pi (1 - sin mask)";
    sum.source = kSource;
    sum.inputs = {length("s_mm", "distance of the plate", "30"),
                  range("y_mm", "from, to, along the plate", "[-40, 40]"),
                  range("z_mm", "from, to, above the antenna", "[-20, 60]"),
                  {"mask_deg", "elevation mask", "deg", SumInputKind::number, SumValue(0.0), "10"}};
    sum.outputs = kFraction;
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto y = pairOf(in, "y_mm"), z = pairOf(in, "z_mm");
        if (!y) return Failure{y.error()};
        if (!z) return Failure{z.error()};
        const double s = number(in, "s_mm"), mask = number(in, "mask_deg");
        if (!(s > 0)) return Failure{SumError{"s_mm", "more than 0 mm"}};
        if (!(mask >= 0 && mask < 90)) return Failure{SumError{"mask_deg", "from 0 to less than 90 degrees"}};
        return SumObject{{"fraction", mask > 0 ? wallFractionAbove(s, (*y)[0], (*y)[1], (*z)[0], (*z)[1], mask)
                                               : wallFraction(s, (*y)[0], (*y)[1], (*z)[0], (*z)[1])}};
    };
    return sum;
}

Sum disc() {
    Sum sum;
    sum.name = "sky-disc";
    sum.title = "Sky hidden by a disc above the antenna";
    sum.formula = "fraction = 1 - h / sqrt(h2 + R2)";
    sum.source = kSource;
    sum.inputs = {length("R_mm", "radius of the disc", "64"), length("h_mm", "height above the antenna", "30")};
    sum.outputs = kFraction;
    sum.compute = [](const SumObject &in) -> SumResult {
        for (const char *key : {"R_mm", "h_mm"})
            if (!(number(in, key) >= 0)) return Failure{SumError{key, "not less than 0 mm"}};
        return SumObject{{"fraction", discFraction(number(in, "R_mm"), number(in, "h_mm"))}};
    };
    return sum;
}

Sum mask() {
    Sum sum;
    sum.name = "sky-mask";
    sum.title = "Share of the sky above an elevation";
    sum.formula = "fraction = 1 - sin e";
    sum.source = kSource;
    sum.inputs = {{"e_deg", "elevation", "deg", SumInputKind::number, {}, "10"}};
    sum.outputs = kFraction;
    sum.compute = [](const SumObject &in) -> SumResult {
        const double e = number(in, "e_deg");
        if (!(e >= 0 && e <= 90)) return Failure{SumError{"e_deg", "from 0 to 90 degrees"}};
        return SumObject{{"fraction", skyAbove(e)}};
    };
    return sum;
}

} // namespace

std::vector<Sum> skySums() { return {rectangle(), rectangleOff(), wall(), disc(), mask()}; }

} // namespace waxis::sums
