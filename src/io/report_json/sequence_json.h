// Inside report_json: the order in which a craft goes together, what is checked, what comes off.
#pragma once

#include "core/sequence/checks.h"
#include "core/sequence/plan.h"
#include "core/sequence/service_depth.h"
#include "io/json/write_model.h"

#include <string>
#include <vector>

namespace waxis::io {

/// As docs/format/analysis.md says; `steps`, `checks` and `service` of the command line write them.
OrderedJson planJson(const Build &build, const Derived &derived, const AssemblyPlan &plan);
OrderedJson checksJson(const Build &build, const std::vector<Check> &checks);
OrderedJson serviceJson(const ServiceWay &way);
std::string documentText(const OrderedJson &json);

} // namespace waxis::io
