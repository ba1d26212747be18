#include "core/magnetics/biot_savart.h"
#include "core/sums/read.h"

#include <cmath>

namespace waxis::sums {

namespace {

constexpr const char *kSource = "Biot and Savart; Griffiths, Introduction to Electrodynamics; Jackson";

SumInput current() { return {"I_A", "current", "A", SumInputKind::number, {}, "20"}; }

Sum wireSum() {
    Sum sum;
    sum.name = "field-wire";
    sum.title = "Field of a long straight wire";
    sum.formula = "B = mu0 I/(2 pi r)";
    sum.source = kSource;
    sum.inputs = {current(), {"r_m", "distance", "m", SumInputKind::number, {}, "0.05"}};
    sum.outputs = {{"B_uT", "field", "uT"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"r_m"})) return Failure{*error};
        return SumObject{{"B_uT", longWireField_uT(number(in, "I_A"), number(in, "r_m") * 1e3)}};
    };
    return sum;
}

Sum segmentSum() {
    Sum sum;
    sum.name = "field-segment";
    sum.title = "Field of a straight piece of wire";
    sum.formula = "B = mu0 I/(4 pi) N/(N.N) [L.(r1/|r1| - r2/|r2|)], N = L x r1";
    sum.source = kSource;
    sum.inputs = {current(),
                  {"length_m", "length; or give the ends", "m", SumInputKind::number, SumValue(0.0), "0.1"},
                  {"rho_m", "distance from its line", "m", SumInputKind::number, SumValue(0.0), "0.05"},
                  {"z_from_middle_m", "along it from its middle", "m", SumInputKind::number, SumValue(0.0), "0"},
                  {"a_m", "from, x y z", "m", SumInputKind::numbers, SumValue(SumList{}), ""},
                  {"b_m", "to, x y z", "m", SumInputKind::numbers, SumValue(SumList{}), ""},
                  {"p_m", "where, x y z", "m", SumInputKind::numbers, SumValue(SumList{}), ""}};
    sum.outputs = {{"B_uT", "field", "uT"}, {"Bx_uT", "x", "uT"}, {"By_uT", "y", "uT"}, {"Bz_uT", "z", "uT"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        Vec3 a, b, p;
        const auto given = numbers(*findKey(in, "a_m"));
        if (given.empty()) {
            if (auto error = needsPositive(in, {"length_m", "rho_m"})) return Failure{*error};
            const double half = number(in, "length_m") * 500;
            a = Vec3(0, 0, -half);
            b = Vec3(0, 0, half);
            p = Vec3(number(in, "rho_m") * 1e3, 0, number(in, "z_from_middle_m") * 1e3);
        } else {
            const std::pair<const char *, Vec3 *> ends[] = {{"a_m", &a}, {"b_m", &b}, {"p_m", &p}};
            for (const auto &[key, point] : ends) {
                const auto xyz = numbers(*findKey(in, key));
                if (xyz.size() != 3) return Failure{SumError{key, "three numbers expected: x, y, z"}};
                *point = Vec3(xyz[0], xyz[1], xyz[2]) * 1e3;
            }
        }
        const Vec3 field = segmentField_uT(a, b, p, number(in, "I_A"));
        return SumObject{{"B_uT", field.norm()}, {"Bx_uT", field.x()}, {"By_uT", field.y()}, {"Bz_uT", field.z()}};
    };
    return sum;
}

Sum pairSum() {
    Sum sum;
    sum.name = "field-pair";
    sum.title = "Field of two wires, there and back";
    sum.formula = "in plane mu0 I/(2 pi) [1/(r - s/2) - 1/(r + s/2)]; normal mu0 I s/(2 pi (r^2 + s^2/4))";
    sum.source = kSource;
    sum.inputs = {current(),
                  {"spacing_m", "between the wires' middles", "m", SumInputKind::number, {}, "0.005"},
                  {"r_m", "distance from the middle", "m", SumInputKind::number, {}, "0.05"}};
    sum.outputs = {
        {"in_plane_uT", "in their plane", "uT"}, {"normal_uT", "square to it", "uT"}, {"approx_uT", "far away", "uT"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"spacing_m", "r_m"})) return Failure{*error};
        const double s = number(in, "spacing_m") * 1e3, r = number(in, "r_m") * 1e3;
        if (r <= s / 2) return Failure{SumError{"r_m", "must lie outside the pair"}};
        const PairField field = pairField_uT(number(in, "I_A"), s, r);
        return SumObject{
            {"in_plane_uT", field.inPlane_uT}, {"normal_uT", field.normal_uT}, {"approx_uT", field.dipole_uT}};
    };
    return sum;
}

Sum twistSum() {
    Sum sum;
    sum.name = "field-twisted-pair";
    sum.title = "Field of a long twisted pair";
    sum.formula = "B_phi = (2 mu0 I k a/(pi r)) sum over odd n of n In'(n k a) Kn(n k r); B_z = -k r B_phi";
    sum.source = "Biot and Savart; Bessel series as in Moser and Spencer 1968, from memory";
    sum.inputs = {current(),
                  {"spacing_m", "between the wires' middles", "m", SumInputKind::number, {}, "0.005"},
                  {"pitch_m", "length of one turn", "m", SumInputKind::number, {}, "0.04"},
                  {"r_m", "distance from the middle", "m", SumInputKind::number, {}, "0.05"}};
    sum.outputs = {{"B_uT", "field, opposite a wire", "uT"},
                   {"parallel_pair_uT", "untwisted", "uT"},
                   {"reduction_dB", "weaker by", "dB"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"spacing_m", "pitch_m", "r_m"})) return Failure{*error};
        const double s = number(in, "spacing_m") * 1e3, r = number(in, "r_m") * 1e3, p = number(in, "pitch_m") * 1e3;
        if (r <= s / 2) return Failure{SumError{"r_m", "must lie outside the pair"}};
        const double twisted = twistedPairField_uT(number(in, "I_A"), s, p, r);
        const double flat = pairField_uT(number(in, "I_A"), s, r).dipole_uT;
        if (!(std::abs(twisted) > 1e-30))
            return Failure{SumError{"pitch_m", "so short against the distance that nothing is left to say"}};
        return SumObject{
            {"B_uT", twisted}, {"parallel_pair_uT", flat}, {"reduction_dB", 20 * std::log10(std::abs(flat / twisted))}};
    };
    return sum;
}

Sum loopSum() {
    Sum sum;
    sum.name = "field-loop";
    sum.title = "Field of a circular loop";
    sum.formula = "axis: mu0 I R^2/(2 (R^2 + z^2)^1.5); beside it by complete elliptic integrals";
    sum.source = kSource;
    sum.inputs = {current(),
                  {"R_m", "radius", "m", SumInputKind::number, {}, "0.02"},
                  {"rho_m", "distance from the axis", "m", SumInputKind::number, SumValue(0.0), "0.06"},
                  {"z_m", "over its plane", "m", SumInputKind::number, {}, "0.03"}};
    sum.outputs = {{"B_uT", "field", "uT"}, {"Brho_uT", "away from the axis", "uT"}, {"Bz_uT", "along it", "uT"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"R_m"})) return Failure{*error};
        const double radius = number(in, "R_m") * 1e3, rho = number(in, "rho_m") * 1e3, z = number(in, "z_m") * 1e3;
        if (rho < 0) return Failure{SumError{"rho_m", "must not be negative"}};
        if (std::hypot(rho - radius, z) < 1e-9) return Failure{SumError{"rho_m", "lies on the wire itself"}};
        const RingField field = loopField_uT(radius, rho, z, number(in, "I_A"));
        return SumObject{{"B_uT", std::hypot(field.radial_uT, field.axial_uT)},
                         {"Brho_uT", field.radial_uT},
                         {"Bz_uT", field.axial_uT}};
    };
    return sum;
}

Sum rectangleSum() {
    Sum sum;
    sum.name = "field-rectangle";
    sum.title = "Field of a rectangular loop on its axis";
    sum.formula = "B = (mu0 I/pi)(A B/D)[1/(A^2 + z^2) + 1/(B^2 + z^2)], A, B half sides, D = sqrt(A^2 + B^2 + z^2)";
    sum.source = kSource;
    sum.inputs = {current(),
                  {"a_m", "one side", "m", SumInputKind::number, {}, "0.03"},
                  {"b_m", "other side", "m", SumInputKind::number, {}, "0.06"},
                  {"z_m", "over its plane", "m", SumInputKind::number, {}, "0.08"}};
    sum.outputs = {{"B_uT", "field", "uT"}, {"dipole_approx_uT", "as a small magnet (overstates near by)", "uT"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"a_m", "b_m"})) return Failure{*error};
        const double a = number(in, "a_m") * 1e3, b = number(in, "b_m") * 1e3, z = number(in, "z_m") * 1e3;
        SumObject out{{"B_uT", rectangleField_uT(a, b, z, number(in, "I_A"))}};
        const double moment_mAm2 = number(in, "I_A") * a * b * 1e-3;
        out.emplace_back("dipole_approx_uT", z != 0
                                                 ? SumValue(dipoleField_uT(Vec3(0, 0, moment_mAm2), Vec3(0, 0, z)).z())
                                                 : SumValue("none in its plane"));
        return out;
    };
    return sum;
}

Sum dipoleSum() {
    Sum sum;
    sum.name = "field-dipole";
    sum.title = "Field of a small magnet";
    sum.formula = "axis mu0 m/(2 pi r^3); equator half of that; m = Br V/mu0";
    sum.source = "Griffiths; moments of parts are assumptions: small buzzers 0.01 to 0.05 A m2";
    sum.inputs = {{"what", "what it is", "", SumInputKind::text, SumValue(""), ""},
                  {"m_Am2", "moment", "A m2", SumInputKind::number, {}, "0.02"},
                  {"r_m", "distance", "m", SumInputKind::number, {}, "0.05"}};
    sum.outputs = {{"axis_uT", "on its axis", "uT"}, {"equator_uT", "beside it", "uT"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"r_m"})) return Failure{*error};
        const Vec3 moment(0, 0, number(in, "m_Am2") * 1e3);
        const double r = number(in, "r_m") * 1e3;
        return SumObject{{"axis_uT", dipoleField_uT(moment, Vec3(0, 0, r)).norm()},
                         {"equator_uT", dipoleField_uT(moment, Vec3(r, 0, 0)).norm()}};
    };
    return sum;
}

Sum headingSum() {
    Sum sum;
    sum.name = "heading-error";
    sum.title = "How far a disturbance turns a compass";
    sum.formula = "atan2(Bperp, Bh + Bpar); worst over all headings asin(|Bd|/Bh)";
    sum.source = "vector addition";
    sum.inputs = {{"Bh_uT", "earth's field, level", "uT", SumInputKind::number, SumValue(20.0), "20"},
                  {"Bperp_uT", "disturbance across the heading", "uT", SumInputKind::number, {}, "2"},
                  {"Bpar_uT", "disturbance along it", "uT", SumInputKind::number, SumValue(0.0), "0"}};
    sum.outputs = {{"error_deg", "error for this heading", "deg"},
                   {"worst_deg", "worst heading; 180 where the compass may point anywhere", "deg"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"Bh_uT"})) return Failure{*error};
        const double earth = number(in, "Bh_uT"), across = number(in, "Bperp_uT"), along = number(in, "Bpar_uT");
        return SumObject{{"error_deg", headingError_deg(earth, across, along)},
                         {"worst_deg", worstHeadingError_deg(earth, std::hypot(across, along))}};
    };
    return sum;
}

Sum earthSum() {
    Sum sum;
    sum.name = "earth-field";
    sum.title = "Earth's magnetic field by latitude";
    sum.formula = "Bh = B0 cos(lm), Bv = 2 B0 sin(lm), tan I = 2 tan(lm)";
    sum.source = "centred axial dipole; B0 29.6 uT from memory; real fields differ by up to a third";
    sum.inputs = {{"geomagnetic_lat_deg", "geomagnetic latitude", "deg", SumInputKind::number, {}, "50"},
                  {"B0_uT", "at the equator", "uT", SumInputKind::number, SumValue(29.6), "29.6"}};
    sum.outputs = {{"Bh_uT", "level part", "uT"}, {"Bv_uT", "downward part", "uT"}, {"incl_deg", "inclination", "deg"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"B0_uT"})) return Failure{*error};
        if (std::abs(number(in, "geomagnetic_lat_deg")) > 90)
            return Failure{SumError{"geomagnetic_lat_deg", "-90 to 90 expected"}};
        const EarthField field = earthField(number(in, "geomagnetic_lat_deg"), number(in, "B0_uT"));
        return SumObject{
            {"Bh_uT", field.horizontal_uT}, {"Bv_uT", field.vertical_uT}, {"incl_deg", field.inclination_deg}};
    };
    return sum;
}

} // namespace

std::vector<Sum> magneticSums() {
    return {wireSum(),      segmentSum(), pairSum(),    twistSum(), loopSum(),
            rectangleSum(), dipoleSum(),  headingSum(), earthSum()};
}

} // namespace waxis::sums
