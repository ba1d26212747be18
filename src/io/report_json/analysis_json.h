// Everything computed about a build as JSON; the keys are documented in docs/format/analysis.md and stay.
#pragma once

#include "core/analysis/analysis.h"
#include "core/radio/places.h"

#include <nlohmann/json_fwd.hpp>
#include <string>

namespace waxis::io {

nlohmann::ordered_json analysisJson(const Build &build, const Analysis &analysis);
/// The same as text. `places`: comparisons of trial places (core/radio/places), which take too long to be in every
/// analysis.
struct PartPlaces {
    std::string part;
    std::vector<PlaceReport> places;
};
std::string analysisText(const Build &build, const Analysis &analysis, const std::vector<PartPlaces> &places = {});

} // namespace waxis::io
