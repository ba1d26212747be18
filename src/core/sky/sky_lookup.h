// Which direction of a sky view a satellite stands in.
#pragma once

#include "core/sky/sky_view.h"

namespace waxis {

/// What a body that hides a satellite takes off its signal, dB: edges of carbon and boards bend some of it round (10 to
/// 20 in the trade, no source).
inline constexpr double kHiddenLoss_dB = 12;

/// The direction to a satellite in the hovering craft's axes: azimuth and the nose's heading from north, turning east.
Vec3 craftDirection(double elevation_deg, double azimuth_deg, double nose_deg);

/// Who hides the view's direction nearest to this one, as SkyView::owner; -1: nobody, below the horizon, or a view that
/// was never taken.
int ownerAt(const SkyView &view, const Vec3 &direction);
inline bool isHidden(const SkyView &view, const Vec3 &direction) { return ownerAt(view, direction) >= 0; }

} // namespace waxis
