// Inside report_json: what the Balance stage computes.
#pragma once

#include "core/studies/balance_study.h"
#include "core/studies/packs.h"
#include "core/studies/propellers.h"
#include "io/json/write_model.h"

namespace waxis::io {

/// One load case, with how sure it is and how the motors share it.
OrderedJson caseBalanceJson(const Build &build, const Derived &derived, std::size_t index);
/// Tolerance ring and what was measured of the whole craft.
OrderedJson balanceJson(const Build &build, const Analysis &analysis);
OrderedJson studyJson(const Build &build, const Derived &derived, const BalanceStudy &study);
OrderedJson packJson(const PackOption &option);
OrderedJson propellerJson(const PropellerOption &option);

} // namespace waxis::io
