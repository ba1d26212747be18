// What can be taken hold of on the frame's drawing, and what pulling it changes.
#pragma once

#include "core/layout/relayout.h"

namespace waxis {

enum class HandleKind { motor, propeller, bodyLength, bodyWidth };

struct FrameHandle {
    HandleKind kind = HandleKind::motor;
    std::string mount; ///< of motors and propellers
    Vec2 position_mm = Vec2::Zero();
};

/// Motors and propeller rims of every frame; the body's length and width where a generator made it. Coaxial partners
/// share one handle.
std::vector<FrameHandle> frameHandles(const Frame &frame);

/// The build with the handle pulled to a place. Frames from a layout change by their parameters (rounded to `step_mm`
/// and half a degree), so that all arms of a kind follow; others motor by motor.
EditResult pullHandle(const Build &build, const FrameHandle &handle, const Vec2 &to_mm, double step_mm = 0.5);

/// What the handle's number is now: "arms 118 mm", "propellers 127 mm".
std::string handleInWords(const Frame &frame, const FrameHandle &handle);

/// Propellers of one motor and its coaxial partner, or of all.
EditResult setPropDiameter(const Build &build, const std::string &mount, double diameter_mm);

} // namespace waxis
