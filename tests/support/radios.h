// Small builds with radios for tests.
#pragma once

#include "core/radio/radio_report.h"
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

inline const RadioCell &cellOf(const RadioReport &report, const std::string &from, const std::string &to) {
    for (std::size_t r = 0; r < report.rows.size(); ++r)
        for (std::size_t c = 0; c < report.columns.size(); ++c)
            if (report.rows[r].id == from && report.columns[c].id == to) return report.cell(r, c);
    qFatal("no cell %s to %s", from.c_str(), to.c_str());
}

/// A video sender over a control receiver, both with upright dipoles.
inline Build pairBuild(double apart_mm) {
    Build build = bareQuad();
    addRadio(build, "vtx", {0, 0, 60}, sends(5800, 5800, 26, 20), antennaFor(AntennaKind::dipole, 2.15, 5600, 6000),
             PartKind::videoTransmitter);
    addRadio(build, "rx", {apart_mm, 0, 60}, hears(863, 870, 0.5), antennaFor(AntennaKind::dipole, 2.15, 863, 870),
             PartKind::receiver);
    return build;
}

} // namespace waxis::test
