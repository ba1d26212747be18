#include "core/radio/free_space.h"

#include "core/base/units.h"
#include "core/radio/decibel.h"

namespace waxis {

double freeSpaceLoss_dB(double f_MHz, double distance_m) {
    return 20 * std::log10(4 * kPi * distance_m * 1e3 / wavelength_mm(f_MHz));
}

double freeSpaceLossRounded_dB(double f_MHz, double distance_m) {
    return 32.4 + 20 * std::log10(f_MHz) + 20 * std::log10(distance_m * 1e-3);
}

double noiseFloor_dBm(double bandwidth_Hz, double noiseFigure_dB) {
    return -174 + decibels(bandwidth_Hz) + noiseFigure_dB;
}

double noiseRise_dB(double above_dB) { return 10 * std::log1p(powerRatio(above_dB)) / std::log(10.0); }

double rangeFactor(double loss_dB) { return std::pow(10.0, -loss_dB / 20); }

double knifeEdgeLoss_dB(double height_mm, double d1_mm, double d2_mm, double lambda_mm) {
    if (d1_mm <= 0 || d2_mm <= 0) return 0;
    const double v = height_mm * std::sqrt(2 / lambda_mm * (1 / d1_mm + 1 / d2_mm));
    if (v <= -0.78) return 0;
    return std::max(0.0, 6.9 + 20 * std::log10(std::sqrt((v - 0.1) * (v - 0.1) + 1) + v - 0.1));
}

double fresnelRadius_m(double f_MHz, double distance_m) {
    return 0.5 * std::sqrt(wavelength_mm(f_MHz) * 1e-3 * distance_m);
}

LinkSum linkSum(const LinkInput &in) {
    LinkSum sum;
    sum.freeSpace_dB = freeSpaceLoss_dB(in.f_MHz, in.distance_m);
    sum.arrives_dBm =
        in.power_dBm + in.gainHere_dBi + in.gainThere_dBi - sum.freeSpace_dB - in.cable_dB - in.polarisation_dB;
    sum.noise_dBm = noiseFloor_dBm(in.bandwidth_Hz, in.noiseFigure_dB);
    sum.sensitivity_dBm = sum.noise_dBm + in.needed_dB;
    sum.margin_dB = sum.arrives_dBm - sum.sensitivity_dBm;
    sum.rangeFactor = std::pow(10.0, sum.margin_dB / 20);
    return sum;
}

} // namespace waxis
