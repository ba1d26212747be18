// The mass table as CSV.
#pragma once

#include "core/derived/derived.h"

namespace waxis {

/// One row for everything that weighs, in the order of the analysis, with grams, doubt, source, place from the frame
/// datum, moments about the thrust centre, and a column for each load case (grams aboard, empty where it stays at
/// home); then a row of sums. Unknown masses have no number.
std::string writeMassTable(const Build &build, const Derived &derived);

} // namespace waxis
