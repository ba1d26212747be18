// Frames from a few numbers: motor layouts, their parameters, and the frame that follows from them.
#pragma once

#include "core/base/result.h"
#include "core/build/frame.h"

#include <map>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace waxis {

enum class LayoutKind {
    quadX,
    quadWide,
    quadStretched,
    quadHybrid,
    quadH,
    quadPlus,
    triY,
    hexaX,
    hexaPlus,
    octoX,
    coaxialY6,
    coaxialX8
};

struct LayoutDefinition {
    LayoutKind kind;
    std::string_view id; ///< as in files: "quad-x"
    std::string_view title;
    std::string_view what; ///< one sentence
    int motors;
};
std::span<const LayoutDefinition> layouts();
/// Null for a layout that no generator knows (a frame drawn by hand or read from a drawing).
const LayoutDefinition *findLayout(std::string_view id);

enum class ParameterGroup { arms, propellers, plates, stack, extras };
enum class ParameterForm { number, whole, yesNo };

struct LayoutParameter {
    std::string_view id; ///< carries the unit, as in files: "arm_mm"
    std::string_view title;
    std::string_view unit; ///< "mm", "°", ""
    double standard, minimum, maximum;
    ParameterForm form = ParameterForm::number;
    ParameterGroup group = ParameterGroup::arms;
};
/// What a layout is asked for, in the order in which a person would answer.
std::vector<LayoutParameter> parametersOf(LayoutKind kind);

using LayoutValues = std::map<std::string, double>;

struct LayoutError {
    std::string parameter; ///< empty: the layout as a whole
    std::string reason;
    std::string text() const { return parameter.empty() ? reason : parameter + ": " + reason; }
};

/// What arms of that width and thickness usually are: bars up to 10 mm, thicker ones with a wall of 1.5 mm, round where
/// they are as wide as thick ("armWall_mm", "armRound"; common practice, no source).
LayoutValues usualSection(const LayoutValues &values);

/// The frame of a layout. Values that are not given take their standard; unknown keys and values out of range are
/// refused. The datum is the centroid of the motor axes, on the top face of the main plate; arms lie on the main plate.
/// Ids depend on the position only, so that a frame made with other numbers has the same members.
Result<Frame, LayoutError> generateFrame(LayoutKind kind, const LayoutValues &values);

/// Greatest distance between two motor axes, mm: the wheelbase; 0 with fewer than two motors.
double motorDiagonal_mm(const Frame &frame);

} // namespace waxis
