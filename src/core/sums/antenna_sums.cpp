#include "core/base/units.h"
#include "core/radio/bands.h"
#include "core/radio/coax.h"
#include "core/radio/decibel.h"
#include "core/radio/free_space.h"
#include "core/radio/pattern.h"
#include "core/radio/polarisation.h"
#include "core/radio/thin_dipoles.h"
#include "core/sums/read.h"

#include <cmath>
#include <fmt/format.h>

namespace waxis::sums {

namespace {

constexpr double kDipole_dBi = 2.15; // as builders round it

Sum freeSpaceSum() {
    Sum sum;
    sum.name = "free-space-loss";
    sum.title = "Loss between two antennas in free space";
    sum.formula = "L = 20 log10(4 pi d/lambda); rounded: 32.4 + 20 log10 f/MHz + 20 log10 d/km";
    sum.source = "Friis 1946; ITU-R P.525";
    sum.inputs = {{"f_MHz", "frequency", "MHz", SumInputKind::number, {}, "5800"},
                  {"d_m", "distance", "m", SumInputKind::number, {}, "0.15"}};
    sum.outputs = {{"lambda_m", "wavelength", "m"},
                   {"d_over_lambda", "distance in wavelengths", ""},
                   {"loss_dB", "loss", "dB"},
                   {"loss_P525_dB", "loss by the rounded form", "dB"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"f_MHz", "d_m"})) return Failure{*error};
        const double f = number(in, "f_MHz"), d = number(in, "d_m"), lambda = wavelength_mm(f) * 1e-3;
        return SumObject{{"lambda_m", lambda},
                         {"d_over_lambda", d / lambda},
                         {"loss_dB", freeSpaceLoss_dB(f, d)},
                         {"loss_P525_dB", freeSpaceLossRounded_dB(f, d)}};
    };
    return sum;
}

double emf_dB(double across, double along) {
    return dipoleCoupling_dB(mutualImpedance({}, {Vec3(across, 0, along), Vec3::UnitZ(), 0.5}));
}

/// Inputs that reference tables carry along; a thin dipole does not depend on them.
std::vector<SumInput> dipoleShape() {
    return {
        {"dipole_len_lambda", "length, wavelengths (for comparison only)", "", SumInputKind::number, SumValue(0.5), ""},
        {"wire_radius_lambda", "wire radius, wavelengths (for comparison only)", "", SumInputKind::number,
         SumValue(0.001), ""}};
}

Sum parallelSum() {
    Sum sum;
    sum.name = "dipoles-parallel";
    sum.title = "Coupling of two half-wave dipoles side by side";
    sum.formula = "S21 = 2 R Zm/((2R)^2 - Zm^2), Zm by induced EMF; Friis with 2.15 dBi each; 22 + 20 log10 d/lambda";
    sum.source = "Balanis, Kraus; Friis 1946; site practice from memory";
    sum.inputs = {{"d_over_lambda", "distance, wavelengths", "", SumInputKind::number, {}, "0.5"}};
    for (auto &input : dipoleShape()) sum.inputs.push_back(std::move(input));
    sum.outputs = {{"emf_S21_matched", "coupling, induced EMF", "dB"},
                   {"friis_2p15", "coupling, Friis", "dB"},
                   {"horiz_22", "coupling, 22 + 20 log10", "dB"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"d_over_lambda"})) return Failure{*error};
        const double d = number(in, "d_over_lambda");
        return SumObject{{"emf_S21_matched", emf_dB(d, 0)},
                         {"friis_2p15", 2 * kDipole_dBi - 20 * std::log10(4 * kPi * d)},
                         {"horiz_22", -horizontalIsolation_dB(d, kDipole_dBi, kDipole_dBi)}};
    };
    return sum;
}

Sum collinearSum() {
    Sum sum;
    sum.name = "dipoles-collinear";
    sum.title = "Coupling of two half-wave dipoles in line";
    sum.formula = "S21 by induced EMF between centres; 28 + 40 log10 of centre distance and of tip gap";
    sum.source = "Balanis, Kraus; site practice from memory";
    sum.inputs = {
        {"d_over_lambda", "centre distance, wavelengths; 0: as below", "", SumInputKind::number, SumValue(0.0), "1"},
        {"centre_d_lambda", "centre distance, wavelengths", "", SumInputKind::number, SumValue(0.0), ""},
        {"gap_over_lambda", "gap between the tips, wavelengths", "", SumInputKind::number, SumValue(0.0), ""},
        {"tip_gap_lambda", "the same", "", SumInputKind::number, SumValue(0.0), ""}};
    for (auto &input : dipoleShape()) sum.inputs.push_back(std::move(input));
    sum.outputs = {{"emf_S21_matched", "coupling, induced EMF", "dB"},
                   {"vert_28_centres", "28 + 40 log10, centres", "dB"},
                   {"vert_28_tips", "28 + 40 log10, tips", "dB"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        double gap = std::max(number(in, "gap_over_lambda"), number(in, "tip_gap_lambda"));
        double d = std::max(number(in, "d_over_lambda"), number(in, "centre_d_lambda"));
        const double length = number(in, "dipole_len_lambda");
        if (!(length > 0)) return Failure{SumError{"dipole_len_lambda", "must be more than zero"}};
        if (d <= 0 && gap > 0) d = gap + length;
        if (gap <= 0) gap = d - length;
        if (!(d > 0.5))
            return Failure{SumError{"d_over_lambda", "half-wave dipoles in line need more than 0.5 between centres"}};
        return SumObject{{"emf_S21_matched", emf_dB(0, d)},
                         {"vert_28_centres", -verticalIsolation_dB(d)},
                         {"vert_28_tips", gap > 0 ? SumValue(-verticalIsolation_dB(gap)) : SumValue("tips meet")}};
    };
    return sum;
}

Sum echelonSum() {
    Sum sum;
    sum.name = "dipoles-echelon";
    sum.title = "Coupling of two parallel half-wave dipoles, one higher";
    sum.formula = "S21 by the induced-EMF integral; Friis with both patterns; Ih + (Iv - Ih) alpha/90";
    sum.source = "Balanis, Kraus; Friis 1946; slant rule from memory";
    sum.inputs = {{"R_over_lambda", "centre distance, wavelengths", "", SumInputKind::number, {}, "1"},
                  {"alpha_deg", "line of centres above side by side", "deg", SumInputKind::number, {}, "45"}};
    sum.outputs = {{"emf_S21_matched", "coupling, induced EMF", "dB"},
                   {"friis_with_pattern", "coupling, Friis with patterns", "dB"},
                   {"slant_formula", "coupling, slant rule", "dB"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"R_over_lambda"})) return Failure{*error};
        const double r = number(in, "R_over_lambda"), alpha = number(in, "alpha_deg");
        if (alpha < 0 || alpha > 90) return Failure{SumError{"alpha_deg", "0 to 90 expected"}};
        const double a = radiansFromDegrees(alpha), across = r * std::cos(a), along = r * std::sin(a);
        if (across < 0.001 && along <= 0.5)
            return Failure{SumError{"R_over_lambda", "the dipoles would stand in each other"}};
        const AntennaPattern dipole;
        const double gain = decibels(std::max(1e-12, directivity(dipole, std::sin(a))));
        const double horizontal = horizontalIsolation_dB(r, kDipole_dBi, kDipole_dBi);
        return SumObject{{"emf_S21_matched", emf_dB(across, along)},
                         {"friis_with_pattern", 2 * gain - 20 * std::log10(4 * kPi * r)},
                         {"slant_formula", -(horizontal + (verticalIsolation_dB(r) - horizontal) * alpha / 90)}};
    };
    return sum;
}

Sum impedanceSum() {
    Sum sum;
    sum.name = "mutual-impedance";
    sum.title = "Mutual impedance of two thin dipoles";
    sum.formula = "Zm by the induced-EMF integral";
    sum.source = "Balanis, Kraus";
    sum.inputs = {{"arrangement", "\"side by side\" or \"collinear\"", "", SumInputKind::text, {}, "side by side"},
                  {"d_over_lambda", "centre distance, wavelengths", "", SumInputKind::number, {}, "0.5"},
                  {"l_over_lambda", "length, wavelengths", "", SumInputKind::number, SumValue(0.5), "0.5"}};
    sum.outputs = {{"R21", "resistance", "ohm"}, {"X21", "reactance", "ohm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto &word = std::get<std::string>(findKey(in, "arrangement")->held);
        const bool side = word.rfind("side", 0) == 0, line = word.rfind("collinear", 0) == 0;
        if (!side && !line) return Failure{SumError{"arrangement", "\"side by side\" or \"collinear\" expected"}};
        if (auto error = needsPositive(in, {"d_over_lambda", "l_over_lambda"})) return Failure{*error};
        const double d = number(in, "d_over_lambda"), l = number(in, "l_over_lambda");
        if (l >= 1) return Failure{SumError{"l_over_lambda", "less than 1 expected"}};
        if (line && d <= l) return Failure{SumError{"d_over_lambda", "in line it must be more than the length"}};
        const ThinDipole one{Vec3::Zero(), Vec3::UnitZ(), l};
        const ThinDipole other{side ? Vec3(d, 0, 0) : Vec3(0, 0, d), Vec3::UnitZ(), l};
        const auto z = mutualImpedance(one, other);
        return SumObject{{"R21", z.real()}, {"X21", z.imag()}};
    };
    return sum;
}

Sum linearSum() {
    Sum sum;
    sum.name = "polarisation-linear";
    sum.title = "What two linear antennas lose when one is tilted";
    sum.formula = "loss = -20 log10 |cos(angle)|; on a craft no more than 20 to 30 dB";
    sum.source = "Balanis; Kraus";
    sum.inputs = {{"theta_deg", "angle between them", "deg", SumInputKind::number, {}, "45"}};
    sum.outputs = {{"loss_dB", "loss, at most 100", "dB"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        return SumObject{{"loss_dB", linearMismatch_dB(number(in, "theta_deg"))}};
    };
    return sum;
}

Sum ellipticalSum() {
    Sum sum;
    sum.name = "polarisation-elliptical";
    sum.title = "What two antennas lose by different polarisation";
    sum.formula = "p = 1/2 + [4 s r1 r2 + (1 - r1^2)(1 - r2^2) cos 2 tilt]/[2 (1 + r1^2)(1 + r2^2)], r = 10^(AR/20)";
    sum.source = "standard antenna texts (Stutzman and Thiele, Kraus)";
    sum.inputs = {{"AR1_dB", "axial ratio of one: 0 circle, 60 line", "dB", SumInputKind::number, {}, "1"},
                  {"AR2_dB", "axial ratio of the other", "dB", SumInputKind::number, {}, "3"},
                  {"tilt_difference_deg", "between their long axes", "deg", SumInputKind::number, SumValue(0.0), "0"},
                  {"same_hand", "both right or both left", "", SumInputKind::truth, SumValue(true), "true"}};
    sum.outputs = {{"loss_dB", "loss, at most 100", "dB"}, {"xpd1_dB", "the first tells hands apart by", "dB"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const double a = number(in, "AR1_dB"), b = number(in, "AR2_dB");
        for (const char *key : {"AR1_dB", "AR2_dB"})
            if (number(in, key) < 0 || number(in, key) > kLinearAxialRatio_dB)
                return Failure{SumError{key, "0 (circle) to 60 (line) expected"}};
        return SumObject{{"loss_dB", ellipticalMismatch_dB(a, b, number(in, "tilt_difference_deg"),
                                                           std::get<bool>(findKey(in, "same_hand")->held))},
                         {"xpd1_dB", crossPolarDiscrimination_dB(a)}};
    };
    return sum;
}

Sum coaxSum() {
    Sum sum;
    sum.name = "coax-loss";
    sum.title = "Loss of thin coax";
    sum.formula =
        "typical: catalogue values, log-log between 433 and 5800 MHz; bound: smooth solid silver, skin effect";
    sum.source = "typical values from memory, 20 %; bound: skin-effect coax formula (Pozar)";
    sum.inputs = {
        {"cable", "\"RG-178\", \"RG-316\" or \"1.13 mm micro-coax\"", "", SumInputKind::text, {}, "RG-178"},
        {"f_MHz", "frequency", "MHz", SumInputKind::number, {}, "5800"},
        {"inner_mm", "inner conductor; 0: the cable's", "mm", SumInputKind::number, SumValue(0.0), ""},
        {"dielectric_mm", "over the dielectric; 0: the cable's", "mm", SumInputKind::number, SumValue(0.0), ""},
        {"eps_r", "permittivity; 0: the cable's", "", SumInputKind::number, SumValue(0.0), ""},
        {"tan_delta", "loss tangent; below 0: the cable's", "", SumInputKind::number, SumValue(-1.0), ""},
        {"length_m", "length", "m", SumInputKind::number, SumValue(1.0), "0.1"}};
    sum.outputs = {{"typical_dB_per_m", "typical", "dB/m"},
                   {"smooth_bound_dB_per_m", "no cable of this size does better", "dB/m"},
                   {"loss_dB", "of the length, typical", "dB"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const CoaxKind *coax = findCoax(std::get<std::string>(findKey(in, "cable")->held));
        if (!coax) return Failure{SumError{"cable", "RG-178, RG-316 or 1.13 mm micro-coax expected"}};
        if (auto error = needsPositive(in, {"f_MHz", "length_m"})) return Failure{*error};
        const auto or_ = [&](const char *key, double own) { return number(in, key) > 0 ? number(in, key) : own; };
        const double inner = or_("inner_mm", coax->inner_mm), dielectric = or_("dielectric_mm", coax->dielectric_mm);
        if (dielectric <= inner) return Failure{SumError{"dielectric_mm", "must be more than inner_mm"}};
        const double tangent = number(in, "tan_delta") >= 0 ? number(in, "tan_delta") : coax->lossTangent;
        const double loss = coaxLoss_dB_m(*coax, number(in, "f_MHz"));
        return SumObject{{"typical_dB_per_m", loss},
                         {"smooth_bound_dB_per_m", coaxBound_dB_m(number(in, "f_MHz"), inner, dielectric,
                                                                  or_("eps_r", coax->permittivity), tangent)},
                         {"loss_dB", loss * number(in, "length_m")}};
    };
    return sum;
}

std::vector<Band> bands(const SumObject &in, const char *key) {
    std::vector<Band> result;
    for (const auto &item : std::get<SumList>(findKey(in, key)->held)) {
        const auto &band = std::get<SumList>(item.held);
        result.push_back(
            {std::get<std::string>(band[0].held), std::get<double>(band[1].held), std::get<double>(band[2].held)});
    }
    return result;
}

SumValue pair(double low, double high) { return SumList{low, high}; }

SumValue mixes(const std::vector<Band> &sources, const std::vector<Band> &victims, const std::vector<MixHit> &hits) {
    SumList list;
    for (const auto &hit : hits)
        list.emplace_back(SumObject{{"product", mixName(sources, hit)},
                                    {"span_MHz", pair(hit.spanLow_MHz, hit.spanHigh_MHz)},
                                    {"victim", victims[std::size_t(hit.victim)].name},
                                    {"overlap_MHz", pair(hit.low_MHz, hit.high_MHz)}});
    return list;
}

Sum bandSum() {
    Sum sum;
    sum.name = "band-hits";
    sum.title = "Harmonics and mixing products of bands in other bands";
    sum.formula = "n [a, b]; 2 [a, b] +- [c, d]; [a, b] +- [c, d]; overlap with the victim";
    sum.source = "interval arithmetic";
    SumList satellites;
    for (const auto &band : satelliteBands())
        satellites.emplace_back(SumList{std::string(band.name), band.low_MHz(), band.high_MHz()});
    sum.inputs = {{"source_bands_MHz",
                   "senders: name, from, to",
                   "MHz",
                   SumInputKind::bands,
                   {},
                   R"([["868", 863, 870], ["2.4G", 2400, 2483.5]])"},
                  {"victim_bands_MHz", "listeners; none: the satellite bands", "MHz", SumInputKind::bands,
                   SumValue(satellites), ""},
                  {"max_harmonic", "harmonics up to", "", SumInputKind::number, SumValue(7.0), "7"}};
    sum.outputs = {{"harmonics", "multiples", ""},
                   {"third_order", "2 f1 +- f2", ""},
                   {"second_order", "f1 + f2 and |f1 - f2|", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto sources = bands(in, "source_bands_MHz"), victims = bands(in, "victim_bands_MHz");
        for (const auto &[key, list] :
             {std::pair("source_bands_MHz", &sources), std::pair("victim_bands_MHz", &victims)}) {
            if (list->size() > 200) return Failure{SumError{key, "at most 200 bands"}};
            for (const auto &band : *list)
                if (!(band.low_MHz >= 0 && band.low_MHz <= band.high_MHz))
                    return Failure{SumError{key, fmt::format("\"{}\": from must be no more than to", band.name)}};
        }
        const double most = number(in, "max_harmonic");
        if (!(most >= 1 && most <= 100)) return Failure{SumError{"max_harmonic", "1 to 100 expected"}};
        SumList harmonics;
        for (const auto &hit : harmonicHits(sources, victims, int(most)))
            harmonics.emplace_back(SumObject{{"source", sources[std::size_t(hit.source)].name},
                                             {"n", double(hit.order)},
                                             {"victim", victims[std::size_t(hit.victim)].name},
                                             {"overlap_MHz", pair(hit.low_MHz, hit.high_MHz)},
                                             {"source_MHz", pair(hit.sourceLow_MHz, hit.sourceHigh_MHz)}});
        return SumObject{{"harmonics", harmonics},
                         {"third_order", mixes(sources, victims, thirdOrderHits(sources, victims))},
                         {"second_order", mixes(sources, victims, secondOrderHits(sources, victims))}};
    };
    return sum;
}

} // namespace

std::vector<Sum> antennaSums() {
    return {freeSpaceSum(), parallelSum(),   collinearSum(), echelonSum(), impedanceSum(),
            linearSum(),    ellipticalSum(), coaxSum(),      bandSum()};
}

} // namespace waxis::sums
