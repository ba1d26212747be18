#include "core/magnetics/biot_savart.h"

#include "core/base/units.h"

#include <cmath>

namespace waxis {

namespace {

constexpr double kMu0 = 1.25663706212e-6; // N/A2, CODATA 2018
// mu0 A/mm in microtesla: 1e6 (tesla) times 1e3 (per metre).
constexpr double kMu0_uTmm_A = kMu0 * 1e9;

/// In(x) x^-1-free derivative: In'(x) = (I(n-1) + I(n+1))/2.
double besselSlope(int n, double x) { return (std::cyl_bessel_i(n - 1, x) + std::cyl_bessel_i(n + 1, x)) / 2; }

} // namespace

double longWireField_uT(double current_A, double distance_mm) {
    return kMu0_uTmm_A * current_A / (2 * kPi * distance_mm);
}

Vec3 segmentField_uT(const Vec3 &a_mm, const Vec3 &b_mm, const Vec3 &point_mm, double current_A) {
    const Vec3 along = b_mm - a_mm, r1 = point_mm - a_mm, r2 = point_mm - b_mm;
    const Vec3 normal = along.cross(r1);
    const double n2 = normal.squaredNorm(), d1 = r1.norm(), d2 = r2.norm();
    if (n2 < 1e-12 || d1 < 1e-9 || d2 < 1e-9) return Vec3::Zero(); // in line with the wire, or on it
    return kMu0_uTmm_A * current_A / (4 * kPi) * along.dot(r1 / d1 - r2 / d2) / n2 * normal;
}

Vec3 polylineField_uT(std::span<const Vec3> points_mm, const Vec3 &point_mm, double current_A) {
    Vec3 field = Vec3::Zero();
    for (std::size_t i = 1; i < points_mm.size(); ++i)
        field += segmentField_uT(points_mm[i - 1], points_mm[i], point_mm, current_A);
    return field;
}

RingField loopField_uT(double radius_mm, double rho_mm, double z_mm, double current_A) {
    const double r2 = radius_mm * radius_mm, z2 = z_mm * z_mm;
    if (rho_mm < 1e-9 * radius_mm) return {0, kMu0_uTmm_A * current_A * r2 / (2 * std::pow(r2 + z2, 1.5))};
    const double rho2 = rho_mm * rho_mm;
    const double alpha2 = (radius_mm + rho_mm) * (radius_mm + rho_mm) + z2;
    const double beta2 = (radius_mm - rho_mm) * (radius_mm - rho_mm) + z2;
    const double modulus = std::sqrt(4 * radius_mm * rho_mm / alpha2);
    const double k = std::comp_ellint_1(modulus), e = std::comp_ellint_2(modulus);
    const double factor = kMu0_uTmm_A * current_A / (2 * kPi * std::sqrt(alpha2));
    return {factor * z_mm / rho_mm * (-k + (r2 + rho2 + z2) / beta2 * e), factor * (k + (r2 - rho2 - z2) / beta2 * e)};
}

double rectangleField_uT(double a_mm, double b_mm, double z_mm, double current_A) {
    const double a = a_mm / 2, b = b_mm / 2, z2 = z_mm * z_mm;
    const double d = std::sqrt(a * a + b * b + z2);
    return kMu0_uTmm_A * current_A / kPi * a * b / d * (1 / (a * a + z2) + 1 / (b * b + z2));
}

PairField pairField_uT(double current_A, double spacing_mm, double r_mm) {
    const double half = spacing_mm / 2, factor = kMu0_uTmm_A * current_A / (2 * kPi);
    return {factor * (1 / (r_mm - half) - 1 / (r_mm + half)), factor * spacing_mm / (r_mm * r_mm + half * half),
            factor * spacing_mm / (r_mm * r_mm)};
}

double twistedPairField_uT(double current_A, double spacing_mm, double pitch_mm, double r_mm) {
    const double a = spacing_mm / 2, k = 2 * kPi / pitch_mm;
    if (k * r_mm > 300) return 0; // the Bessel functions leave the range of numbers
    double sum = 0;
    for (int n = 1; n < 60; n += 2) {
        if (n * k * r_mm > 600) break;
        const double term = n * besselSlope(n, n * k * a) * std::cyl_bessel_k(n, n * k * r_mm);
        sum += term;
        if (std::abs(term) < 1e-12 * std::abs(sum)) break;
    }
    const double around = 2 * kMu0_uTmm_A * current_A * k * a / (kPi * r_mm) * sum;
    return std::hypot(around, k * r_mm * around);
}

double twistRelief(double spacing_mm, double pitch_mm, double r_mm) {
    if (!(pitch_mm > 0) || r_mm <= spacing_mm) return 1;
    const double flat = pairField_uT(1, spacing_mm, r_mm).dipole_uT;
    return std::min(1.0, twistedPairField_uT(1, spacing_mm, pitch_mm, r_mm) / flat);
}

Vec3 dipoleField_uT(const Vec3 &moment_mAm2, const Vec3 &fromMagnet_mm) {
    const double r = fromMagnet_mm.norm();
    if (r < 1e-6) return Vec3::Zero();
    const Vec3 u = fromMagnet_mm / r;
    // 1 mA m2 = 1e-3 A m2 = 1e3 A mm2.
    return kMu0_uTmm_A * 1e3 / (4 * kPi * r * r * r) * (3 * moment_mAm2.dot(u) * u - moment_mAm2);
}

double headingError_deg(double earth_uT, double across_uT, double along_uT) {
    return degreesFromRadians(std::atan2(across_uT, earth_uT + along_uT));
}

double worstHeadingError_deg(double earth_uT, double disturbance_uT) {
    const double share = std::abs(disturbance_uT) / earth_uT;
    return share >= 1 ? 180 : degreesFromRadians(std::asin(share));
}

EarthField earthField(double geomagneticLatitude_deg, double equator_uT) {
    const double latitude = radiansFromDegrees(geomagneticLatitude_deg);
    return {equator_uT * std::cos(latitude), 2 * equator_uT * std::sin(latitude),
            degreesFromRadians(std::atan2(2 * std::sin(latitude), std::cos(latitude)))};
}

} // namespace waxis
