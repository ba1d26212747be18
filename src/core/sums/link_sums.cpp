#include "core/radio/free_space.h"
#include "core/radio/products.h"
#include "core/sums/read.h"

namespace waxis::sums {

namespace {

Sum noiseSum() {
    Sum sum;
    sum.name = "noise-floor";
    sum.title = "Noise floor of a receiver";
    sum.formula = "N = -174 + 10 log10 B + NF";
    sum.source = "thermal noise at 290 K (IEEE)";
    sum.inputs = {{"B_Hz", "bandwidth", "Hz", SumInputKind::number, {}, "500000"},
                  {"NF_dB", "noise figure", "dB", SumInputKind::number, {}, "6"}};
    sum.outputs = {{"N_dBm", "noise floor", "dBm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"B_Hz"})) return Failure{*error};
        return SumObject{{"N_dBm", noiseFloor_dBm(number(in, "B_Hz"), number(in, "NF_dB"))}};
    };
    return sum;
}

Sum desenseSum() {
    Sum sum;
    sum.name = "desense";
    sum.title = "How much a disturbance raises a noise floor";
    sum.formula = "rise = 10 log10(1 + 10^((I - N)/10)); range x 10^(-rise/20)";
    sum.source = "addition of powers; ITU-R I/N practice";
    sum.inputs = {{"I_minus_N_dB", "disturbance over the floor", "dB", SumInputKind::number, {}, "-6"}};
    sum.outputs = {{"rise_dB", "rise", "dB"}, {"range_factor", "of the range is left", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const double rise = noiseRise_dB(number(in, "I_minus_N_dB"));
        return SumObject{{"rise_dB", rise}, {"range_factor", rangeFactor(rise)}};
    };
    return sum;
}

Sum budgetSum() {
    Sum sum;
    sum.name = "link-budget";
    sum.title = "Margin of a radio link in free space";
    sum.formula = "Pr = Pt + Gt + Gr - FSPL - cable - polarisation; margin = Pr - (N + SNR)";
    sum.source = "Friis 1946; ITU-R P.525";
    sum.inputs = {{"name", "what for", "", SumInputKind::text, SumValue(""), ""},
                  {"Pt_dBm", "sent", "dBm", SumInputKind::number, {}, "14"},
                  {"Gt_dBi", "gain there", "dBi", SumInputKind::number, {}, "2"},
                  {"Gr_dBi", "gain here", "dBi", SumInputKind::number, {}, "2"},
                  {"f_MHz", "frequency", "MHz", SumInputKind::number, {}, "868"},
                  {"d_m", "distance", "m", SumInputKind::number, {}, "5000"},
                  {"Lcable_dB", "lost in cables", "dB", SumInputKind::number, SumValue(0.0), "0.5"},
                  {"Lpol_dB", "lost by polarisation", "dB", SumInputKind::number, SumValue(0.0), "1"},
                  {"B_Hz", "bandwidth", "Hz", SumInputKind::number, {}, "500000"},
                  {"NF_dB", "noise figure", "dB", SumInputKind::number, {}, "6"},
                  {"SNR_req_dB", "signal over noise that it needs", "dB", SumInputKind::number, {}, "-8"}};
    sum.outputs = {{"fspl_dB", "lost on the way", "dB"},
                   {"Pr_dBm", "arrives", "dBm"},
                   {"N_dBm", "noise floor", "dBm"},
                   {"sensitivity_dBm", "needs", "dBm"},
                   {"margin_dB", "margin; keep 10 to 20", "dB"},
                   {"range_factor", "times the distance as a ceiling", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"f_MHz", "d_m", "B_Hz"})) return Failure{*error};
        LinkInput link;
        link.power_dBm = number(in, "Pt_dBm");
        link.gainHere_dBi = number(in, "Gr_dBi");
        link.gainThere_dBi = number(in, "Gt_dBi");
        link.f_MHz = number(in, "f_MHz");
        link.distance_m = number(in, "d_m");
        link.cable_dB = number(in, "Lcable_dB");
        link.polarisation_dB = number(in, "Lpol_dB");
        link.bandwidth_Hz = number(in, "B_Hz");
        link.noiseFigure_dB = number(in, "NF_dB");
        link.needed_dB = number(in, "SNR_req_dB");
        const LinkSum out = linkSum(link);
        return SumObject{{"fspl_dB", out.freeSpace_dB}, {"Pr_dBm", out.arrives_dBm},
                         {"N_dBm", out.noise_dBm},      {"sensitivity_dBm", out.sensitivity_dBm},
                         {"margin_dB", out.margin_dB},  {"range_factor", out.rangeFactor}};
    };
    return sum;
}

Sum onboardSum() {
    Sum sum;
    sum.name = "onboard-interference";
    sum.title = "What a sender aboard does to a receiver aboard";
    sum.formula = "I = Pt - isolation - suppression; rise = 10 log10(1 + 10^((I - N)/10))";
    sum.source = "addition of powers";
    sum.inputs = {{"Pt_dBm", "sent", "dBm", SumInputKind::number, {}, "14"},
                  {"isolation_dB", "lost between the antennas", "dB", SumInputKind::number, {}, "25"},
                  {"suppression_dB", "below its power in the receiver's band", "dB", SumInputKind::number, {}, "95"},
                  {"N_dBm", "noise floor of the receiver", "dBm", SumInputKind::number, {}, "-111"}};
    sum.outputs = {{"I_dBm", "arrives", "dBm"},
                   {"rise_dB", "rise of the floor", "dB"},
                   {"range_factor", "of the range is left", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const double level = number(in, "Pt_dBm") - number(in, "isolation_dB") - number(in, "suppression_dB");
        const double rise = noiseRise_dB(level - number(in, "N_dBm"));
        return SumObject{{"I_dBm", level}, {"rise_dB", rise}, {"range_factor", rangeFactor(rise)}};
    };
    return sum;
}

Sum mixingSum() {
    Sum sum;
    sum.name = "mixing-level";
    sum.title = "A mixing product by its order";
    sum.formula = "product = p host + q guest - (p + q - 1) intercept";
    sum.source = "intercept-point arithmetic, order p + q";
    sum.inputs = {{"host_dBm", "the sender in which they mix gives", "dBm", SumInputKind::number, {}, "26"},
                  {"guest_dBm", "of the other arrives there", "dBm", SumInputKind::number, {}, "-30"},
                  {"times_host", "host counts, times", "", SumInputKind::number, {}, "2"},
                  {"times_guest", "guest counts, times", "", SumInputKind::number, {}, "1"},
                  {"intercept_dBm", "intercept of that output stage", "dBm", SumInputKind::number, {}, "36"}};
    sum.outputs = {{"product_dBm", "product at that output", "dBm"}, {"order", "order", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"times_host", "times_guest"})) return Failure{*error};
        const int p = int(std::lround(number(in, "times_host"))), q = int(std::lround(number(in, "times_guest")));
        return SumObject{{"product_dBm", mixingLevel_dBm(number(in, "host_dBm"), number(in, "guest_dBm"), p, q,
                                                         number(in, "intercept_dBm"))},
                         {"order", double(p + q)}};
    };
    return sum;
}

} // namespace

std::vector<Sum> linkSums() { return {noiseSum(), desenseSum(), budgetSum(), onboardSum(), mixingSum()}; }

} // namespace waxis::sums
