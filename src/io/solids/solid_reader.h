// Bodies of parts from STEP and STL files, read by a program of its own.
#pragma once

#include "core/base/result.h"
#include "core/geometry/solid.h"
#include "io/load_error.h"

#include <filesystem>
#include <functional>
#include <string>
#include <vector>

namespace waxis {

struct ImportedBody {
    std::string name;
    Mesh mesh;                     ///< thinned for distances; `exact` holds the body's own volume, centroid and inertia
    std::size_t trianglesRead = 0; ///< before thinning
};

struct ImportedSolids {
    std::vector<ImportedBody> bodies;
    std::vector<std::string> faults; ///< what of the file is missing or damaged, a sentence each; empty: all of it came
};

/// The bodies of a file in mm: solids of a STEP file with their names, the one body of an STL file (which has no unit:
/// its numbers are taken as mm). `weightaxis-solids` beside the program reads them with Open CASCADE: a damaged file
/// ends that process and not this one, after 60 s or 2 GB at the latest. It waits; call it from a worker thread.
/// `goesOn` is asked ten times a second, false gives up. Errors: no such file, not of that kind, no solid in it, a mesh
/// that is not closed, the reader failed, took too long, was given up.
Result<ImportedSolids, LoadError> readSolids(const std::filesystem::path &path,
                                             const std::function<bool()> &goesOn = {});

} // namespace waxis
