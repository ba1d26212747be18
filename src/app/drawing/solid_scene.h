// The craft as triangles for the three-dimensional view, and which way it is looked at. No OpenGL in here.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <optional>
#include <set>
#include <string>
#include <vector>

namespace waxis::drawing {

/// How the eye stands: it looks at `target` from that far, turned by `azimuth` about the upright and up by `elevation`.
struct Orbit {
    Vec3 target_mm = Vec3::Zero();
    double distance_mm = 400, azimuth_deg = -52, elevation_deg = 36;
    static constexpr double kView_deg = 32; ///< the picture's height as an angle

    Vec3 eye_mm() const;
    Vec3 right() const;
    Vec3 up() const;
    Vec3 ahead() const { return (target_mm - eye_mm()).normalized(); }
    /// The direction of the ray through a point of the picture, from its middle: right and up in half heights.
    Vec3 rayThrough(double right_half, double up_half) const;
};

/// What is cut away: everything to one side of a plane square to one axis.
struct CutAway {
    int axis = 1;     ///< 0 x, 1 y, 2 z
    double at_mm = 0; ///< what lies beyond, on the positive side for z and y, is taken away
    bool operator==(const CutAway &) const = default;
};

struct SolidCorner {
    float x, y, z, nx, ny, nz, r, g, b, a;
};

/// Corners of triangles, three by three: the firm ones first, then what lets light through; then the ends of edges, two
/// by two.
struct SolidScene {
    std::vector<SolidCorner> corners;
    int firm = 0, clear = 0, edges = 0; ///< how many of each
    Aabb bounds;
    Aabb fresh; ///< of what is
};

/// Where something comes in: an arrow that ends at its bounds.
struct WayIn {
    Vec3 from = Vec3::UnitZ(); ///< unit vector
    bool operator==(const WayIn &) const = default;
};

struct SolidLooks {
    bool ghostPlates = false; ///< plates and arms let light through
    bool discs = true;
    std::set<std::string> hidden = {}; ///< things and wires that are not drawn
    std::set<std::string> fresh = {};  ///< things and wires in their full colours, all others pale; empty: all are
    std::optional<WayIn> way = {};     ///< of what is fresh
    bool operator==(const SolidLooks &) const = default;
};

SolidScene solidSceneOf(const app::Document &document, const SolidLooks &looks, const theme::Theme &theme);

/// The thing that a ray from the eye meets first, past what is cut away: its id; empty: none. Ghosted frame members and
/// discs do not stop the ray.
std::string pickedAlong(const app::Document &document, const SolidLooks &looks, const std::optional<CutAway> &cut,
                        const Vec3 &eye_mm, const Vec3 &direction);

} // namespace waxis::drawing
