// Everything computed about a build as JSON; the keys are documented in docs/format/analysis.md and stay.
#pragma once

#include "core/analysis/analysis.h"
#include "core/studies/balance_study.h"
#include "core/studies/packs.h"
#include "core/studies/propellers.h"
#include "core/studies/radio_places.h"

#include <nlohmann/json_fwd.hpp>
#include <string>

namespace waxis::io {

nlohmann::ordered_json analysisJson(const Build &build, const Analysis &analysis);

/// What takes too long to be in every analysis.
struct PartPlaces {
    std::string part;
    std::vector<PlaceReport> places; ///< trial places compared (core/radio/places)
};
struct PartPacks {
    std::string part, loadCase;
    std::vector<PackOption> options; ///< other packs in its place (core/balance/packs)
};
struct SlowParts {
    std::vector<PartPlaces> places;
    std::optional<BalanceStudy> balance;
    std::vector<PartPacks> packs;
    std::vector<PropellerOption> propellers; ///< of the build's own types, in its first load case that flies
};
/// The same as text.
std::string analysisText(const Build &build, const Analysis &analysis, const SlowParts &slow = {});

} // namespace waxis::io
