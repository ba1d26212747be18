// A drawing as it came in: paths by layer, in mm, already flattened; nothing is interpreted yet.
#pragma once

#include "core/geometry/polygon.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

/// Curves become chords that stay this close to them.
inline constexpr double kFlattening_mm = 0.02;

struct DrawnCircle {
    Vec2 centre_mm = Vec2::Zero();
    double diameter_mm = 0;
};

struct DrawnPath {
    std::string layer;
    std::string source; ///< what it was in the file, for messages: "line", "arc", "polyline 12"
    Ring points_mm;
    bool closed = false;
    std::optional<DrawnCircle> circle; ///< drawn as a full circle
};

/// Writing: it is not cut, but often says what a plate is and how thick.
struct DrawnText {
    Vec2 at_mm = Vec2::Zero(); ///< where it begins
    std::string text, layer;
};

/// What was left out, and why.
struct Skipped {
    std::string what; ///< "3 texts", "open outline"
    std::string layer;
    std::string reason;
    std::optional<Vec2> at_mm;
    bool operator==(const Skipped &) const = default;
};

struct FlatDrawing {
    std::vector<DrawnPath> paths;
    std::vector<std::string> layers; ///< those with paths, in the order in which they appear
    std::vector<Skipped> skipped;
    std::vector<DrawnText> texts;
    std::string units; ///< "mm", "in", ...: what the coordinates were before they became mm
};

} // namespace waxis
