// Compound bodies: mass, centre of gravity and inertia.
#pragma once

#include "core/geometry/pose.h"

#include <array>
#include <optional>
#include <span>

namespace waxis {

/// One piece of mass in the frame's axes.
struct MassElement {
    double mass_g = 0;
    Vec3 centroid_mm = Vec3::Zero();
    Mat3 inertia_gmm2 = Mat3::Zero(); ///< about its own centroid, frame's axes
};

struct CompoundMass {
    double mass_g = 0;
    std::optional<Vec3> cg_mm; ///< none while there is no mass at all
    Mat3 inertia_gmm2 =
        Mat3::Zero(); ///< about the centre of gravity; off-diagonals are tensor elements (Ixy = -sum m x y)
};

/// m = sum mi; c = sum mi ci / m; I = sum (Ji + mi (|di|^2 1 - di di^T)), di = ci - c (Goldstein).
CompoundMass rollUp(std::span<const MassElement> elements);

struct PrincipalAxes {
    Vec3 moments_gmm2 = Vec3::Zero(); ///< ascending
    Mat3 axes = Mat3::Identity();     ///< columns are unit vectors in the frame's axes, right-handed
};
PrincipalAxes principalAxes(const Mat3 &inertia_gmm2);

/// A mass element with its doubt, one standard deviation each.
struct UncertainMass {
    double mass_g = 0, sigmaMass_g = 0;
    Vec3 centroid_mm = Vec3::Zero();
    double sigmaPosition_mm = 0; ///< along each axis
    int group = -1;              ///< those of one group are wrong together, each by its own sigma; -1: on its own
};

struct CgUncertainty {
    double sigmaMass_g = 0;
    Mat3 covariance_mm2 = Mat3::Zero();
};

/// First-order propagation: dc/dmi = (ci - c)/m, dc/dci = mi/m; masses of one group are wrong by one common factor,
/// all else is independent. Needs some mass.
CgUncertainty propagate(std::span<const UncertainMass> masses);

} // namespace waxis
