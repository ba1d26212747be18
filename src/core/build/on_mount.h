// What stands on a motor mount, and whether a hub goes on a shaft.
#pragma once

#include "core/build/build.h"

namespace waxis {

/// Null when there is no mount of that id.
const MotorMount *mountOf(const Build &build, const std::string &id);

/// The type of the first part of a kind on a mount; with a load case only what is aboard in it. Null for none.
const PartType *typeOn(const Build &build, const std::string &mount, PartKind kind, const LoadCase *loadCase = nullptr);

enum class HubFit { narrow, fits, wide };
/// How much wider than the shaft a hub's hole may be, mm (common practice, no source).
constexpr double kHubPlay_mm = 0.2;
HubFit hubFit(double bore_mm, double shaft_mm);

} // namespace waxis
