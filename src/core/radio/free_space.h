// What is lost between two antennas in free space, and what a receiver makes of what arrives.
#pragma once

namespace waxis {

/// Friis: 20 log10(4 pi d/lambda), dB. Source: Friis 1946; ITU-R P.525.
double freeSpaceLoss_dB(double f_MHz, double distance_m);
/// ITU-R P.525 with its rounded constant: 32.4 + 20 log10 f + 20 log10 d/km; reads 0.048 dB low.
double freeSpaceLossRounded_dB(double f_MHz, double distance_m);

/// Thermal noise of a receiver, dBm: -174 + 10 log10(B) + NF, at 290 K (IEEE noise temperature).
double noiseFloor_dBm(double bandwidth_Hz, double noiseFigure_dB);
/// How much a signal `above_dB` over the noise floor (negative: below) raises it: 10 log10(1 + 10^(x/10)), dB.
double noiseRise_dB(double above_dB);
/// What is left of the range, free space: 10^(-rise/20).
double rangeFactor(double loss_dB);

/// Loss of a single knife edge whose top stands `height_mm` above the line (negative: below), between points `d1_mm`
/// and `d2_mm` away: ITU-R P.526, J(v) = 6.9 + 20 log10(sqrt((v - 0.1)^2 + 1) + v - 0.1) for v > -0.78, else 0. dB.
double knifeEdgeLoss_dB(double height_mm, double d1_mm, double d2_mm, double lambda_mm);

/// Radius of the first Fresnel zone at the middle of a path, m.
double fresnelRadius_m(double f_MHz, double distance_m);

struct LinkInput {
    double power_dBm = 0, gainHere_dBi = 0, gainThere_dBi = 0;
    double f_MHz = 0, distance_m = 0;
    double cable_dB = 0, polarisation_dB = 0;
    double bandwidth_Hz = 0, noiseFigure_dB = 0;
    double needed_dB = 0; ///< signal over noise that the receiver needs
};
struct LinkSum {
    double freeSpace_dB = 0, arrives_dBm = 0, noise_dBm = 0, sensitivity_dBm = 0;
    double margin_dB = 0;
    double rangeFactor = 1; ///< at which multiple of the distance the margin is used up
};
/// Pr = Pt + Gt + Gr - FSPL - cable - polarisation; margin = Pr - (N + needed). Free space: a ceiling.
LinkSum linkSum(const LinkInput &in);

} // namespace waxis
