// STEP and STL through Open CASCADE.
#pragma once

#include "core/geometry/solid.h"

#include <string>
#include <vector>

namespace waxis {

/// A body as Open CASCADE gives it, before it is welded and thinned.
struct RawBody {
    std::string name;
    Mesh mesh;
};

/// False with a word of what was found instead of solids. `faults`: what of the file did not come, a sentence each.
bool readStep(const char *path, std::vector<RawBody> &bodies, std::vector<std::string> &faults, std::string &problem);
bool readStl(const char *path, std::vector<RawBody> &bodies, std::string &problem);

} // namespace waxis
