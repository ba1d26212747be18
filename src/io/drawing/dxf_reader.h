// DXF drawings in: lines, arcs, circles, polylines with bulges, ellipses, splines and blocks, flattened to mm.
#pragma once

#include "core/base/result.h"
#include "core/recognise/flat_drawing.h"
#include "io/load_error.h"

#include <filesystem>
#include <stop_token>
#include <string_view>

namespace waxis {

/// A unit of length as drawings name it.
struct DrawingUnit {
    std::string_view name; ///< "mm", "in", "cm", "m", "ft", "mil", "um"
    double mm;             ///< of one unit
};
/// Null for a name that is not known.
const DrawingUnit *findDrawingUnit(std::string_view name);

struct DrawingError {
    LoadError error;
    bool unitsMissing = false; ///< the header names no unit: ask, and read again with one
    Vec2 size = Vec2::Zero();  ///< with missing units: extent of the drawing in its own units
};

/// `unit` wins over the header; null takes the header's. Whatever the bytes are, the outcome is a drawing or an error;
/// what cannot be used is listed in `skipped`. Versions R12 to R2018, ASCII. Once `stop` is asked for it ends soon, as
/// an error.
Result<FlatDrawing, DrawingError> readDxf(std::string_view bytes, const DrawingUnit *unit = nullptr,
                                          const std::stop_token &stop = {});

/// Reads a file of up to 64 MB.
Result<FlatDrawing, DrawingError> loadDxf(const std::filesystem::path &path, const DrawingUnit *unit = nullptr,
                                          const std::stop_token &stop = {});

} // namespace waxis
