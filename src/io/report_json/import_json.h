// What was recognised in a drawing, as JSON: documented in docs/format/import.md.
#pragma once

#include "core/recognise/recognise.h"
#include "io/report_json/analysis_json.h"

namespace waxis::io {

/// Coordinates are those of the drawing, in mm.
std::string recognitionText(const FlatDrawing &drawing, const Recognition &found, const DrawingChoices &choices);

std::string_view nameOf(SlotUse use);
std::string_view nameOf(PatternUse use);
std::string_view nameOf(PlateRole role);
std::string_view nameOf(LayerUse use);
std::string_view nameOf(HoleFit fit);

} // namespace waxis::io
