// Getting triangle meshes of unknown origin into shape.
#pragma once

#include "core/geometry/solid.h"

namespace waxis {

/// Corners nearer than `tolerance_mm` become one; triangles that lose an edge go.
Mesh welded(const Mesh &mesh, double tolerance_mm = 1e-4);

/// Edges that do not have a partner running the other way: 0 for a closed mesh whose triangles all face outwards.
std::size_t openEdges(const Mesh &mesh);

/// The mesh turned inside out when it encloses a negative volume.
Mesh facingOutwards(const Mesh &mesh);

/// At most `most` triangles: corners are drawn together on the coarsest grid that is needed (vertex clustering,
/// Rossignac and Borrel 1993). A closed mesh stays closed. `exact` keeps (or gets) the properties of the mesh before.
Mesh thinned(const Mesh &mesh, std::size_t most);

} // namespace waxis
