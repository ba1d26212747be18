// The balance drawn many times over, each mass and place within its doubt.
#pragma once

#include "core/balance/ring_chance.h"

#include "core/balance/mass_properties.h"

#include <atomic>
#include <cstdint>
#include <span>
#include <vector>

namespace waxis {

struct DrawSettings {
    int draws = 100'000;
    std::uint32_t seed = 2026; ///< the same seed gives the same draws on every machine
    std::size_t kept = 1500;   ///< draws that are kept for a picture
};

struct DrawnBalance {
    int draws = 0;               ///< 0: nothing to draw
    Vec3 mean_mm = Vec3::Zero(); ///< of the centre of gravity
    Mat3 covariance_mm2 = Mat3::Zero();
    double mass_g = 0, sigmaMass_g = 0;
    double inside = 0;          ///< share of draws within the ring
    std::vector<Vec2> cloud_mm; ///< the first draws, in plan
};

/// Draws each mass and the place of each from normal distributions of the stated doubts, masses of a group by one
/// common draw, all else independent; a thing drawn
/// below zero weighs nothing (rows that are negative themselves, trimmed leads, stay free). `centre_mm` and `ring_mm`:
/// the thrust centre and the tolerance about it in plan. Two threads, repeatable: blocks of draws have seeds of their
/// own. Stops early, with fewer draws, once `stop` is set. Sampling error of a standard deviation: 1 / sqrt(2 N), 0.22
/// % at 100,000.
DrawnBalance drawBalance(std::span<const UncertainMass> masses, const Vec2 &centre_mm, double ring_mm,
                         const DrawSettings &settings = {}, const std::atomic<bool> *stop = nullptr);

} // namespace waxis
