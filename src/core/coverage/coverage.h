// Where the craft's own body leaves an antenna deaf, and what a second antenna makes good.
#pragma once

#include "core/rays/ray_world.h"
#include "core/sky/sky_view.h"

namespace waxis {

struct AntennaUse;
struct LineShadow;
struct RadioUse;
struct Scene;

/// Directions that coverage looks in: an even spiral over the whole sphere.
const std::vector<Vec3> &coverageDirections();
inline constexpr int kCoverageRays = 3000;

/// What a direction loses behind the craft (common practice, no source; bodies smaller than half a wavelength count
/// as open, since waves bend round them).
inline constexpr double kShadowLoss_dB = 15;

/// A ring of directions between two elevations.
struct CoverageBelt {
    double from_deg = 0, to_deg = 0;
    double lost = 0;     ///< share that the craft hides
    double mean_dBi = 0; ///< of the gain with shadow, averaged in power
};

struct AntennaCoverage {
    std::string part;             ///< of the antenna
    std::vector<float> level_dBi; ///< per coverageDirections(): pattern less shadow
    std::vector<int> owner;       ///< who hides it; -1: open
    double lost = 0;              ///< share of all directions
    std::vector<HiddenShare> by;  ///< largest first
    std::vector<CoverageBelt> belts;
    double best_dBi = 0, tenth_dBi = 0; ///< nine tenths of all directions have at least the second
};

struct RadioCoverage {
    std::string radio; ///< RadioUse::id()
    std::string loadCase;
    std::vector<AntennaCoverage> antennas;
    double tenth_dBi = 0;    ///< the better antenna in each direction
    double diversity_dB = 0; ///< how much better that is than the best single one's
    std::string worst;       ///< the weakest sector in words: "low, behind, left"
    Vec3 worstDirection = Vec3::UnitX();
    double worst_dBi = 0;
};

/// Bodies that radio waves do not pass, in one load case; antennas and their tubes left out. `conducts` as for skies.
RayWorld radioWorld(const Build &build, const Scene &scene, int loadCase, double thick_mm);

AntennaCoverage coverageOf(const AntennaUse &use, const RayWorld &world, const Scene &scene, double lambda_mm);
RadioCoverage coverageOf(const RadioUse &radio, const RayWorld &world, const Scene &scene);

/// A direction in words: "low, behind, left".
std::string directionInWords(const Vec3 &direction);

/// What stands on the line between two places and how far the nearest way round it is (to 1 mm, up to 200 mm).
LineShadow shadowOf(const RayWorld &world, const Scene &scene, const AntennaUse &from, const AntennaUse &to);

} // namespace waxis
