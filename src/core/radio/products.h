// Harmonics and mixing products that land on somebody's band.
#pragma once

#include <vector>

namespace waxis {

struct LineShadow;
struct Practice;
struct RadioUse;

/// A multiple of a sender inside a listener's band.
struct HarmonicProduct {
    int sender = 0, listener = 0; ///< indices in RadioReport::radios
    int order = 2;
    double low_MHz = 0, high_MHz = 0; ///< overlap
    double level_dBm = 0, rise_dB = 0;
};

/// p f1 + q f2 of two senders inside a listener's band.
struct MixProduct {
    int first = 0, second = 0, listener = 0; ///< indices in RadioReport::radios
    int p = 1, q = 1;
    double low_MHz = 0, high_MHz = 0; ///< overlap
    int at = 0;                       ///< sender in whose output stage they mix
    double level_dBm = 0, rise_dB = 0;
    double host_dBm = 0, guest_dBm = 0;      ///< at that output stage
    double intercept_dBm = 0, filter_dB = 0; ///< of that sender: in force
    bool stated = false;                     ///< both senders state what their filters take off: the level is no guess
};

/// A product of p times the host and q times the guest, all dBm at one point: p host + q guest - (p + q - 1) intercept.
/// What arrives weakly and is needed twice counts twice. `timesHost`, `timesGuest`: without their signs.
inline double mixingLevel_dBm(double host_dBm, double guest_dBm, int timesHost, int timesGuest, double intercept_dBm) {
    return timesHost * host_dBm + timesGuest * guest_dBm - (timesHost + timesGuest - 1) * intercept_dBm;
}

/// What the senders' harmonics put on the listeners; both are indices of `radios`.
std::vector<HarmonicProduct> findHarmonics(const std::vector<RadioUse> &radios, const std::vector<int> &senders,
                                           const std::vector<int> &listeners, const Practice &practice,
                                           const std::vector<LineShadow> &shadows);
/// The same for sums and differences of two senders, made in the output stage of one of them: in the worse one.
std::vector<MixProduct> findMixes(const std::vector<RadioUse> &radios, const std::vector<int> &senders,
                                  const std::vector<int> &listeners, const Practice &practice,
                                  const std::vector<LineShadow> &shadows);

} // namespace waxis
