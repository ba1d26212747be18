// What gets from one antenna on the craft into another, line by line.
#pragma once

#include "core/practice/practice.h"
#include "core/radio/antennas.h"

namespace waxis {

/// What stands on the line between two antennas, free of any wavelength: how far the nearest way round is.
struct LineShadow {
    std::string from, to;              ///< parts of the antennas
    double height_mm = 0;              ///< of the edge over the line; 0: the line is free
    double d1_mm = 0, d2_mm = 0;       ///< from either end to the edge
    std::vector<std::string> blockers; ///< what stands on the line
    bool operator==(const LineShadow &) const = default;
};

/// The sum that leads from the sender's connector to the listener's. Losses are positive, the coupling is negative.
struct Coupling {
    double f_MHz = 0, lambda_mm = 0, distance_mm = 0;
    double gainFrom_dBi = 0, gainTo_dBi = 0; ///< in the direction of the other
    double far_dB = 0;                       ///< gains less free-space loss: Friis
    double near_dB = 0;                      ///< the same by the near field, polarisation included where `exact`
    bool nearUsed = false;
    bool exact = false; ///< induced-EMF integral of two straight elements; else Friis with its near-field correction
    double polarisation_dB = 0, shadow_dB = 0, cable_dB = 0, offBand_dB = 0;
    double total_dB = 0;
};

/// `shadow` null: the line is free. Beyond one wavelength shadows count; two straight elements in their band are
/// computed by the induced-EMF integral at any distance, others by Friis, within one wavelength corrected by what that
/// formula overstates between parallel dipoles. An antenna far out of its band (15 %) is taken as one that hears every
/// direction alike with the practice's loss. Never above 0 dB. The same both ways.
Coupling couple(const AntennaUse &from, const AntennaUse &to, double f_MHz, const Practice &practice,
                const LineShadow *shadow = nullptr);

/// How much less than Friis two parallel dipoles exchange, dB (negative), at a distance in wavelengths.
double nearFieldCorrection_dB(double distance);

/// Whether the antenna is made for a frequency, within 15 %.
bool suits(const Antenna &antenna, double f_MHz);

/// Polarisation mismatch of two antennas that look at each other along `direction` (unit vector), dB, at most
/// `most_dB`.
double polarisationLoss_dB(const AntennaUse &a, const AntennaUse &b, const Vec3 &direction, double most_dB);

} // namespace waxis
