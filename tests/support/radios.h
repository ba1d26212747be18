// Small builds with radios for tests.
#pragma once

#include "support/builds.h"

namespace waxis::test {

inline Antenna antennaFor(AntennaKind kind, double gain_dBi, double low_MHz, double high_MHz,
                          Polarisation polarisation = Polarisation::linear) {
    Antenna antenna;
    antenna.kind = kind;
    antenna.gain_dBi = gain_dBi;
    antenna.low_MHz = low_MHz;
    antenna.high_MHz = high_MHz;
    antenna.polarisation = polarisation;
    return antenna;
}

/// A plastic cube that carries its own antenna in its middle and one band.
inline Part &addRadio(Build &build, const std::string &id, Vec3 at, RadioBand band, Antenna antenna, PartKind kind) {
    Part &part = addBox(build, id, {4, 4, 4}, at, 5, kind);
    build.types.edit([&](TypeTable &types) {
        auto &type = typeIn(types, id);
        type.radio = {band};
        type.antenna = antenna;
    });
    return part;
}

inline RadioBand sends(double low_MHz, double high_MHz, double power_dBm, double width_MHz = 1) {
    RadioBand band;
    band.low_MHz = low_MHz;
    band.high_MHz = high_MHz;
    band.power_dBm = power_dBm;
    band.bandwidth_MHz = width_MHz;
    band.harmonicSuppression_dB = 40;
    return band;
}

inline RadioBand hears(double low_MHz, double high_MHz, double width_MHz = 1, double noise_dB = 6) {
    RadioBand band;
    band.low_MHz = low_MHz;
    band.high_MHz = high_MHz;
    band.listens = true;
    band.bandwidth_MHz = width_MHz;
    band.noiseFigure_dB = noise_dB;
    band.selectivity_dB = 60;
    band.blocking_dBm = -20;
    band.needed_dB = 6;
    return band;
}

} // namespace waxis::test
