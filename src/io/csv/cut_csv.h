// The cut list as CSV.
#pragma once

#include "core/wiring/cut_list.h"

namespace waxis {

/// One row for each core, then rows of the same columns for stock (length in mm) by gauge and colour, ties, sleeve and
/// grommets.
std::string writeCutList(const CutList &list);

} // namespace waxis
