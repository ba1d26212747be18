// weightaxis-solids: reads one STEP or STL file and tells what is in it. A program of its own, for Open CASCADE does
// not survive every damaged file: what it dies of, or never ends with, then harms nobody.
#include "core/geometry/mesh_tools.h"
#include "io/process/child.h"
#include "io/solids/solid_stream.h"
#include "solids_reader/read_solids.h"

#include <Standard_Failure.hxx>
#include <cstdio>
#include <fcntl.h>
#include <fmt/format.h>
#include <unistd.h>

namespace {

using namespace waxis;

constexpr std::size_t kMemory = 2048u << 20; // bytes
constexpr unsigned kProcessor_s = 60;

Failure<LoadError> refuse(std::string expected, std::string found, std::string suggestion = {}) {
    return Failure{LoadError{"", std::move(expected), std::move(found), std::move(suggestion)}};
}

/// Welded, facing outwards and thin enough for distances, which ask the triangles one by one.
Result<ImportedBody, LoadError> prepared(const RawBody &body, bool stl) {
    constexpr std::size_t kWanted = 600, kMost = 4000;
    ImportedBody result;
    result.name = body.name;
    result.trianglesRead = body.mesh.triangles.size();
    Mesh mesh = welded(body.mesh);
    if (const std::size_t open = openEdges(mesh); open > 0 && stl)
        return refuse("a closed mesh", fmt::format("{} open edges of {} triangles", open, mesh.triangles.size()),
                      "mend it in the program that made it (close holes, join shells), or export STEP");
    if (mesh.triangles.size() < 4) return refuse("bodies with a volume", fmt::format("\"{}\" without one", body.name));
    mesh = facingOutwards(mesh);
    if (!mesh.exact) mesh.exact = shapeProperties(mesh);
    if (!(mesh.exact->volume_mm3 > 0))
        return refuse("bodies with a volume", fmt::format("\"{}\" without one", body.name));
    result.mesh = thinned(mesh, kWanted);
    if (openEdges(result.mesh) > 0 || result.mesh.triangles.size() < 4) {
        if (mesh.triangles.size() > kMost)
            return refuse(fmt::format("a body of at most {} triangles", kMost),
                          fmt::format("\"{}\" with {}, which cannot be thinned", body.name, mesh.triangles.size()),
                          "join its shells into one body, or export a simpler one");
        result.mesh = mesh;
    }
    return result;
}

Result<ImportedSolids, LoadError> read(bool stl, const char *path) {
    std::vector<RawBody> raw;
    ImportedSolids solids;
    std::string problem;
    bool good = false;
    try {
        good = stl ? readStl(path, raw, problem) : readStep(path, raw, solids.faults, problem);
    } catch (const Standard_Failure &failure) {
        problem = failure.GetMessageString();
    } catch (const std::bad_alloc &) {
        problem = "one that takes more than 2 GB of memory";
    } catch (const std::exception &failure) {
        problem = failure.what();
    }
    if (problem.empty()) problem = "something else";
    if (!good) return refuse(stl ? "an STL mesh" : "a STEP file with solids", problem);
    for (const auto &body : raw) {
        auto ready = prepared(body, stl);
        if (!ready && (stl || raw.size() == 1)) return Failure{ready.error()};
        if (!ready)
            solids.faults.push_back(fmt::format("\"{}\" is left out: {}", body.name, ready.error().found));
        else
            solids.bodies.push_back(std::move(*ready));
    }
    if (solids.bodies.empty()) return refuse("at least one solid", "none");
    return solids;
}

} // namespace

int main(int argc, char **argv) {
    if (argc != 3 || (std::string_view(argv[1]) != "step" && std::string_view(argv[1]) != "stl")) {
        std::fputs("weightaxis-solids step|stl FILE: writes the bodies of a file to standard output, for Weightaxis\n",
                   stderr);
        return 2;
    }
    io::limitMyself(kMemory, kProcessor_s);
    // Open CASCADE prints its own messages to standard output: they go nowhere.
    const int answer = ::dup(1), nowhere = ::open("/dev/null", O_WRONLY);
    ::dup2(nowhere, 1);
    ::dup2(nowhere, 2);
    const std::string bytes = io::encodeSolids(read(std::string_view(argv[1]) == "stl", argv[2]));
    std::size_t written = 0;
    while (written < bytes.size()) {
        const auto more = ::write(answer, bytes.data() + written, bytes.size() - written);
        if (more <= 0) return 1;
        written += std::size_t(more);
    }
    ::_exit(0); // nothing that Open CASCADE does when it is taken down can spoil the answer
}
