#include "core/radio/pattern.h"

#include "core/base/units.h"
#include "core/radio/decibel.h"

namespace waxis {

namespace {

constexpr double kHalfWave = 1.640922; // directivity of the half-wave dipole (Balanis)
constexpr double kBehind = 0.02;       // share that patches and helices spill everywhere (common practice, no source)

double halfWaveShape(double c) {
    const double s2 = 1 - c * c;
    if (s2 < 1e-12) return 0;
    const double top = std::cos(kPi / 2 * c);
    return top * top / s2;
}

double tableGain_dBi(const std::vector<PatternPoint> &table, double cosToAxis) {
    if (table.empty()) return 0;
    const double angle = degreesFromRadians(std::acos(std::clamp(cosToAxis, -1.0, 1.0)));
    if (angle <= table.front().angle_deg) return table.front().gain_dBi;
    for (std::size_t i = 1; i < table.size(); ++i)
        if (angle <= table[i].angle_deg) {
            const auto &a = table[i - 1], &b = table[i];
            return a.gain_dBi + (b.gain_dBi - a.gain_dBi) * (angle - a.angle_deg) / (b.angle_deg - a.angle_deg);
        }
    return table.back().gain_dBi;
}

/// With its own greatest directivity where that is below the stated gain, else with the loss that explains it.
AntennaPattern lossy(GainShape shape, double parameter, double greatest, double stated) {
    return {shape, parameter, std::min(1.0, stated / greatest), {}};
}

} // namespace

bool isStraightElement(AntennaKind kind) {
    return kind == AntennaKind::dipole || kind == AntennaKind::monopole || kind == AntennaKind::teeElement ||
           kind == AntennaKind::loadedDipole;
}

AntennaPattern patternOf(const Antenna &antenna) {
    const double stated = powerRatio(antenna.gain_dBi);
    if (!antenna.pattern.empty()) return {GainShape::table, 0, 1, antenna.pattern};
    switch (antenna.kind) {
    case AntennaKind::dipole:
    case AntennaKind::teeElement: return lossy(GainShape::halfWave, 0, kHalfWave, stated);
    case AntennaKind::loadedDipole: return lossy(GainShape::shortLoop, 0, 1.5, stated);
    case AntennaKind::monopole: {
        // Over a small board it is nearly a dipole; over a plane everything goes to one side.
        const double weight = std::clamp(stated / kHalfWave, 1.0, 2.0);
        return weight > 1 ? AntennaPattern{GainShape::halves, weight / 2, 1, {}}
                          : lossy(GainShape::halfWave, 0, kHalfWave, stated);
    }
    case AntennaKind::circularOmni: {
        const double greatest = std::clamp(stated, 1.0, 1.5); // a = 3 (1 - 1/D)
        return lossy(GainShape::roundOmni, 3 * (1 - 1 / greatest), greatest, stated);
    }
    case AntennaKind::helical:
    case AntennaKind::patch:
    case AntennaKind::ceramicPatch: {
        const double greatest = std::max(stated, 1.0);
        return lossy(GainShape::forward, std::max(0.0, (greatest - kBehind) / (1 - kBehind) - 1), greatest, stated);
    }
    }
    return {};
}

double directivity(const AntennaPattern &pattern, double cosToAxis) {
    const double c = std::clamp(cosToAxis, -1.0, 1.0);
    switch (pattern.shape) {
    case GainShape::halfWave: return kHalfWave * halfWaveShape(c);
    case GainShape::shortLoop: return 1.5 * (1 - c * c);
    case GainShape::halves:
        return 2 * (c >= 0 ? pattern.parameter : 1 - pattern.parameter) * kHalfWave * halfWaveShape(c);
    case GainShape::roundOmni: {
        const double a = pattern.parameter;
        return (a * (1 - c * c) + 1 - a) / (1 - a / 3);
    }
    case GainShape::forward: {
        const double m = pattern.parameter;
        return (1 - kBehind) * (m + 1) * std::pow((1 + c) / 2, m) + kBehind;
    }
    case GainShape::table: return powerRatio(tableGain_dBi(pattern.table, c));
    }
    return 1;
}

double peakGain_dBi(const AntennaPattern &pattern) {
    double peak = 0;
    switch (pattern.shape) {
    case GainShape::forward: peak = directivity(pattern, 1); break;
    case GainShape::halves: peak = 2 * pattern.parameter * kHalfWave; break;
    case GainShape::table:
        for (const auto &point : pattern.table) peak = std::max(peak, powerRatio(point.gain_dBi));
        break;
    default: peak = directivity(pattern, 0);
    }
    return decibels(std::max(peak * pattern.efficiency, 1e-12));
}

double patternGain_dBi(const AntennaPattern &pattern, double cosToAxis) {
    const double gain = decibels(std::max(directivity(pattern, cosToAxis) * pattern.efficiency, 1e-12));
    return std::max(gain, peakGain_dBi(pattern) - kPatternFloor_dB);
}

} // namespace waxis
