// Inside report_json: wires, power and links.
#pragma once

#include "core/analysis/analysis.h"
#include "io/json/write_model.h"

namespace waxis::io {

OrderedJson wiresJson(const Build &build, const Analysis &analysis);
OrderedJson holesJson(const Build &build, const Analysis &analysis);
OrderedJson meetingsJson(const Build &build, const Analysis &analysis);
OrderedJson powerJson(const Build &build, const Analysis &analysis);
OrderedJson linksJson(const Analysis &analysis);
OrderedJson wireChangeJson(const WireChange &change);
OrderedJson cutListJson(const Build &build, const Analysis &analysis);

} // namespace waxis::io
