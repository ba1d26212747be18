#include "io/solids/solid_reader.h"

#include "core/geometry/mesh_tools.h"

#include <algorithm>
#include <dlfcn.h>
#include <fmt/format.h>
#include <mutex>

namespace waxis {

namespace {

Failure<LoadError> refuse(const std::filesystem::path &path, std::string expected, std::string found,
                          std::string suggestion = {}) {
    return Failure{LoadError{path.filename().string(), std::move(expected), std::move(found), std::move(suggestion)}};
}

/// Loads Open CASCADE's module once; null and the reason when it is not there.
ReadRawBodies reader(std::string &problem) {
    static std::once_flag once;
    static ReadRawBodies function = nullptr;
    static std::string reason;
    std::call_once(once, [] {
        // Relative to the program, wherever it was moved to; the build folder only for a program that lies in it.
        std::error_code ignored;
        const auto program = std::filesystem::read_symlink("/proc/self/exe", ignored).parent_path();
        std::vector<std::filesystem::path> places{program / "../lib/weightaxis/weightaxis_solids.so"};
        if (program.string().starts_with(WEIGHTAXIS_BUILD_FOLDER))
            places.insert(places.begin(), WEIGHTAXIS_SOLIDS_BUILT);
        else
            places.emplace_back(WEIGHTAXIS_SOLIDS_INSTALLED);
        for (const auto &place : places)
            if (void *module = dlopen(place.c_str(), RTLD_NOW | RTLD_LOCAL)) {
                function = reinterpret_cast<ReadRawBodies>(dlsym(module, "waxis_read_raw_bodies"));
                if (function) return;
            } else if (const char *text = dlerror()) {
                reason = text;
            }
    });
    problem = reason;
    return function;
}

std::string lowerExtension(const std::filesystem::path &path) {
    std::string extension = path.extension().string();
    std::transform(extension.begin(), extension.end(), extension.begin(),
                   [](unsigned char c) { return char(std::tolower(c)); });
    return extension;
}

} // namespace

Result<std::vector<ImportedBody>, LoadError> readSolids(const std::filesystem::path &path) {
    const std::string extension = lowerExtension(path);
    const bool step = extension == ".step" || extension == ".stp", stl = extension == ".stl";
    if (!step && !stl) return refuse(path, "a .step, .stp or .stl file", fmt::format("\"{}\"", extension));
    std::error_code error;
    if (!std::filesystem::is_regular_file(path, error)) return refuse(path, "a file", "no such file");
    constexpr std::uintmax_t kLargest = 200u << 20;
    if (std::filesystem::file_size(path, error) > kLargest)
        return refuse(path, "a file of at most 200 MB", "a larger one");
    std::string problem;
    const ReadRawBodies read = reader(problem);
    if (!read) return refuse(path, "the module that reads solids (Open CASCADE)", problem.empty() ? "none" : problem);
    std::vector<RawBody> raw;
    if (!read(path.c_str(), step, raw, problem))
        return refuse(path, step ? "a STEP file with solids" : "an STL mesh", problem);

    constexpr std::size_t kMostTriangles = 600; // a distance asks them one by one
    std::vector<ImportedBody> bodies;
    for (auto &body : raw) {
        ImportedBody result;
        result.name = body.name;
        result.trianglesRead = body.mesh.triangles.size();
        Mesh mesh = welded(body.mesh);
        if (const std::size_t open = openEdges(mesh); open > 0 && stl)
            return refuse(path, "a closed mesh",
                          fmt::format("{} open edges of {} triangles", open, mesh.triangles.size()),
                          "mend it in the program that made it (close holes, join shells), or export STEP");
        if (mesh.triangles.size() < 4)
            return refuse(path, "bodies with a volume", fmt::format("\"{}\" without one", body.name));
        mesh = facingOutwards(mesh);
        if (!mesh.exact) mesh.exact = shapeProperties(mesh);
        if (!(mesh.exact->volume_mm3 > 0))
            return refuse(path, "bodies with a volume", fmt::format("\"{}\" without one", body.name));
        result.mesh = thinned(mesh, kMostTriangles);
        if (openEdges(result.mesh) > 0 || result.mesh.triangles.size() < 4) result.mesh = mesh;
        bodies.push_back(std::move(result));
    }
    if (bodies.empty()) return refuse(path, "at least one solid", "none");
    return bodies;
}

} // namespace waxis
