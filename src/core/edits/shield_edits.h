// A sheet of copper under a module that listens upwards: it keeps off what is sent from below.
#pragma once

#include "core/edits/part_edits.h"

namespace waxis {

/// How far the sheet reaches beyond the module on every side, mm.
struct ShieldUnder {
    double beyond_mm = 10;
    bool operator==(const ShieldUnder &) const = default;
};

inline constexpr double kShieldThickness_mm = 0.1;

/// The sheet for a module, lying in the module's axes; null for a part without firm bodies.
struct ShieldSheet {
    Vec3 centre_mm = Vec3::Zero(); ///< of its upper face, against the module's underside
    Vec2 size_mm = Vec2::Zero();   ///< along the module's x and y
};
std::optional<ShieldSheet> shieldSheet(const PartType &module, const ShieldUnder &shield);

/// Lays the sheet under the module, which goes up by its thickness, and glues it to that with an insulating layer.
/// Errors: no such part, a part without bodies.
EditResult addShield(const Build &build, const std::string &module, const ShieldUnder &shield);

} // namespace waxis
