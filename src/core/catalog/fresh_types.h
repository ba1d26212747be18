// Part types to begin with, where the library has nothing like the part in one's hand.
#pragma once

#include "core/catalog/part_type.h"

namespace waxis {

/// A plain type of a kind: a body of the usual size, the mounting and connectors that such parts have, and what
/// belongs to the kind (a band, a lens, cells), for a builder to correct. Its weight is not known.
PartType freshType(PartKind kind, const std::string &name);

} // namespace waxis
