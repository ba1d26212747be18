// How much of the sky a GNSS antenna sees past the rest of the craft.
#pragma once

#include "core/clearance/clearance_world.h"
#include "core/rays/ray_world.h"
#include "core/scene/scene.h"

namespace waxis {

/// Share of something that one thing hides.
struct HiddenShare {
    std::string id;
    double share = 0;
};

/// The sky over one place. Directions are the craft's when it hovers (body axes turned level).
struct SkyView {
    double hidden = 0;           ///< of the sky above the mask, each direction weighted by the sine of its elevation
    double hiddenPlain = 0;      ///< the same without weights
    std::vector<HiddenShare> by; ///< weighted, largest first
    double axisToZenith_deg = 0; ///< how far the antenna leans
    std::vector<int> owner;      ///< per direction of skyDirections(): who hides it; -1 open
};

/// The directions that sky views look in: an even spiral over the hemisphere, z up.
const std::vector<Vec3> &skyDirections();
inline constexpr int kSkyRays = 10000;

/// Bodies that a satellite's signal does not pass: what conducts, populated boards and shields (copper planes), and
/// anything thicker than `thick_mm` in its thinnest direction (common practice, no source).
bool hidesSky(const Scene &scene, int body, const Build &build, double thick_mm);

/// Rays' world for one load case without the bodies of `self` and propellers' discs.
RayWorld skyWorld(const Build &build, const Scene &scene, int loadCase, int self, double thick_mm);

/// `pitch_deg`: how far the nose is down in the attitude looked at. The craft turns, the sky stays.
SkyView skyView(const RayWorld &world, const Scene &scene, const Vec3 &place_mm, const Vec3 &axis, double mask_deg,
                double pitch_deg);

/// Where the antenna of a GNSS part is and where it looks, in the frame's axes: as the type says, else the middle of
/// its upper face, upwards.
struct AntennaPlace {
    Vec3 position_mm = Vec3::Zero();
    Vec3 axis = Vec3::UnitZ();
};
AntennaPlace antennaPlace(const PartType &type, const Pose &X_FramePart);

} // namespace waxis
