// Changes of what lies in the box: counted, weighed, measured, ticked off.
#pragma once

#include "core/build/edit_result.h"

namespace waxis {

/// Each makes the entry where there is none; an entry that says nothing any more is removed.
EditResult countKit(const Build &build, const std::string &item, std::optional<int> inHand);
EditResult weighKit(const Build &build, const std::string &item, const Measured &mass_g);
EditResult measureKit(const Build &build, const std::string &item, std::optional<Vec3> size_mm);
EditResult checkKit(const Build &build, const std::string &item, bool checked);
EditResult confirmArrow(const Build &build, const std::string &item, bool confirmed);
EditResult confirmPins(const Build &build, const std::string &item, bool confirmed);
EditResult noteKit(const Build &build, const std::string &item, const std::string &note);
/// Puts a type into the box (and the build) that no part uses yet.
EditResult addToKit(const Build &build, const PartType &type, int inHand);

} // namespace waxis
