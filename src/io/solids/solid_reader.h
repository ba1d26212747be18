// Bodies of parts from STEP and STL files.
#pragma once

#include "core/base/result.h"
#include "core/geometry/solid.h"
#include "io/load_error.h"

#include <filesystem>
#include <string>
#include <vector>

namespace waxis {

struct ImportedBody {
    std::string name;
    Mesh mesh;                     ///< thinned for distances; `exact` holds the body's own volume, centroid and inertia
    std::size_t trianglesRead = 0; ///< before thinning
};

/// The bodies of a file in mm: solids of a STEP file with their names, the one body of an STL file (which has no unit:
/// its numbers are taken as mm). Open CASCADE reads them, from a module that is loaded the first time; call it from a
/// worker thread for large files. Errors: no such file, not of that kind, no solid in it, a mesh that is not closed.
Result<std::vector<ImportedBody>, LoadError> readSolids(const std::filesystem::path &path);

/// What the module gives: see src/solids_occt.
struct RawBody {
    std::string name;
    Mesh mesh;
};
using ReadRawBodies = bool (*)(const char *path, bool step, std::vector<RawBody> &bodies, std::string &problem);

} // namespace waxis
