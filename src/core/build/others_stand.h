// Whether a build changed in more than one part's place.
#pragma once

#include "core/build/build.h"

#include <string>

namespace waxis {

/// Whether everything but one part stands as it did: rays' worlds that leave that part out still hold.
bool othersStand(const Build &before, const Build &after, const std::string &but);

} // namespace waxis
