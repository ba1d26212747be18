// Part types of standard hardware, made from the tables when a builder asks for a size.
#pragma once

#include "core/base/result.h"
#include "core/catalog/part_type.h"

namespace waxis {

struct TypeError {
    std::string message;
};

/// The part type of a fastener in a material ("steel", "titanium", "aluminium", "nylon", "stainless"): solids, mass
/// with a tenth of doubt, name and an id that says it all ("screw-m3x25", "screw-m3x25-button-titanium",
/// "nut-m3-lock"). Along z from the face that the next layer lies on; screws point up from the face under their head.
/// Errors: an unknown thread or material, a head or nut that is not made in that size, a length of nothing.
Result<PartType, TypeError> fastenerType(const FastenerData &fastener, const std::string &material);

/// A soft damper: free height, outer diameter twice the thread's nominal. Silicone.
Result<PartType, TypeError> damperType(const std::string &thread, double height_mm);

/// Thickness and name of the material that a type's first solid is of; empty when it states none.
std::string materialOf(const PartType &type);

} // namespace waxis
