#include "core/radio/thin_dipoles.h"

#include "core/base/units.h"
#include "core/radio/decibel.h"

#include <array>

namespace waxis {

namespace {

using Complex = std::complex<double>;
constexpr double kWaveNumber = 2 * kPi; // lengths are in wavelengths
constexpr double kThinnest = 1e-3;      // wire radius that keeps touching elements apart

struct Nodes {
    std::array<double, 24> at{}, weight{};
};

/// Gauss and Legendre's points on -1..1: roots of the polynomial by Newton's method.
Nodes gaussNodes() {
    Nodes nodes;
    const int n = int(nodes.at.size());
    for (int i = 0; i < n; ++i) {
        double x = std::cos(kPi * (i + 0.75) / (n + 0.5)), slope = 0;
        for (int step = 0; step < 50; ++step) {
            double before = 1, value = x;
            for (int k = 2; k <= n; ++k) {
                const double next = ((2 * k - 1) * x * value - (k - 1) * before) / k;
                before = value;
                value = next;
            }
            slope = n * (x * value - before) / (x * x - 1);
            const double by = value / slope;
            x -= by;
            if (std::abs(by) < 1e-15) break;
        }
        nodes.at[std::size_t(i)] = x;
        nodes.weight[std::size_t(i)] = 2 / ((1 - x * x) * slope * slope);
    }
    return nodes;
}

/// Spherical wave of one source point.
Complex wave(double r) { return std::polar(1 / r, -kWaveNumber * r); }

/// Component along `along` of the field of a dipole that carries one ampere at its current's crest, times a wavelength.
Complex fieldAlong(const ThinDipole &dipole, const Vec3 &point, const Vec3 &along) {
    const double half = dipole.length / 2;
    const Vec3 away = point - dipole.centre;
    const double z = away.dot(dipole.axis);
    const Vec3 across = away - z * dipole.axis;
    const double offAxis = across.norm(), rho = std::max(offAxis, kThinnest);
    const Complex end1 = wave(std::hypot(rho, z - half)), end2 = wave(std::hypot(rho, z + half));
    const Complex middle = 2 * std::cos(kWaveNumber * half) * wave(std::hypot(rho, z));
    const Complex j(0, 1);
    const double eta4pi = kWaveImpedance_ohm / (4 * kPi);
    Complex field = -j * eta4pi * (end1 + end2 - middle) * dipole.axis.dot(along);
    if (offAxis > 1e-9)
        field +=
            j * eta4pi / rho * ((z - half) * end1 + (z + half) * end2 - z * middle) * (across.dot(along) / offAxis);
    return field;
}

} // namespace

Complex mutualImpedance(const ThinDipole &one, const ThinDipole &other) {
    static const Nodes nodes = gaussNodes();
    const double half = other.length / 2;
    Complex sum = 0;
    for (const double side : {-1.0, 1.0}) // the current has a kink at the feed
        for (std::size_t i = 0; i < nodes.at.size(); ++i) {
            const double s = side * half * (1 + nodes.at[i]) / 2;
            sum += nodes.weight[i] * half / 2 * std::sin(kWaveNumber * (half - std::abs(s))) *
                   fieldAlong(one, other.centre + s * other.axis, other.axis);
        }
    return -sum / (std::sin(kWaveNumber * half) * std::sin(kWaveNumber * one.length / 2));
}

double dipoleCoupling_dB(Complex mutual_ohm) {
    const double r = kHalfWaveResistance_ohm;
    const double transfer = std::abs(2 * r * mutual_ohm / (4 * r * r - mutual_ohm * mutual_ohm));
    return std::min(0.0, 20 * std::log10(std::max(transfer, 1e-15)));
}

double horizontalIsolation_dB(double distance, double gain1_dBi, double gain2_dBi) {
    return 22 + 20 * std::log10(distance) - gain1_dBi - gain2_dBi;
}

double verticalIsolation_dB(double distance) { return 28 + 40 * std::log10(distance); }

} // namespace waxis
