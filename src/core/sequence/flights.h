// Which load cases are flown while the craft grows, and which ones are made of it afterwards.
#pragma once

#include "core/build/build.h"

#include <string>
#include <vector>

namespace waxis {

struct Flights {
    /// Load cases (numbers) that fly with less than the one that is built, the least aboard first, and that one last if
    /// it flies: the bare craft before its payload. Of those that have the same aboard the first.
    std::vector<int> onTheWay;
    /// Those that fly with something else aboard: what is built is changed for them.
    std::vector<int> changed;
};
Flights flightsOf(const Build &build, const std::vector<LoadCase> &loadCases, int built);

/// What is aboard in one load case and not in another, in file order.
std::vector<std::string> onlyIn(const Build &build, const LoadCase &in, const LoadCase &notIn);

} // namespace waxis
