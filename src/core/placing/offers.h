// Inside placing: the places that each family of sites offers.
#pragma once

#include "core/placing/perch.h"

#include <functional>

namespace waxis {

/// What is looked for: where a part might go, and who is told.
struct Asked {
    const Build &build;
    const Part &part;
    const PartType &type;
    Pose wanted; ///< where it would stand without snapping
    /// Which axes the drawing shows: places that lie apart only along the others are near.
    std::array<bool, 3> shown{true, true, true};
    /// Everywhere: `wanted` says only how it is turned.
    bool everywhere = false;
    std::function<void(Perch perch, const Vec3 &off_mm)> offer;
};

/// The part's box about its own origin as it is turned; its origin alone without firm solids.
Aabb boxAt(const PartType &type, const Quat &turn);

/// Whether two boxes stand in one another; touching is not meeting.
bool boxesMeet(const Aabb &a, const Aabb &b);

/// A site between the decks, where a camera hangs in cheeks: it lies on no face of what carries it.
bool isCameraCage(const Frame &frame, const Site &site);

void offerMounts(const Asked &asked); ///< motors
void offerShafts(const Asked &asked); ///< propellers, their nuts
void offerSites(const Asked &asked, const TypeTable &adapters);
void offerArms(const Asked &asked);
void offerStandoffs(const Asked &asked);
void offerTubes(const Asked &asked);    ///< whips
void offerSockets(const Asked &asked);  ///< antennas with a threaded connector
void offerCarriers(const Asked &asked); ///< tops of masts, wedges, pedestals
void offerPlates(const Asked &asked);   ///< a free spot on each face

} // namespace waxis
