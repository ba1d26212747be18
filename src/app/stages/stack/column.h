// The cut-away column as shapes: what a saw would show, and what stands behind the cut. From the same solids as
// everything else.
#pragma once

#include "app/drawing/projection.h"
#include "app/stages/stack/stack_focus.h"

#include <QColor>

namespace waxis::stackbench {

enum class CutAt { screws, middle, closest };

/// Across the column in the drawing: along the base's x (seen from the right) or its y (seen from ahead).
struct ColumnView {
    drawing::View view = drawing::View::side;
    CutAt cut = CutAt::screws;
};

struct ColumnShape {
    QPainterPath path; ///< drawing coordinates, mm, y downwards
    QColor fill;
    bool cut = false;
    bool operator==(const ColumnShape &) const = default;
};

struct Column {
    std::vector<ColumnShape> shapes; ///< in the order of painting
    double halfWidth_mm = 20;        ///< of the boards, with some air
    double low_mm = 0, high_mm = 0;  ///< what there is to see, over the base
    double up = 1;                   ///< -1: the stack hangs, outwards is down
    /// Place of a point in base axes across the drawing, mm.
    double across(const Vec2 &base) const { return view == drawing::View::side ? base.x() : ahead * base.y(); }
    drawing::View view = drawing::View::side;
    double ahead = 1;
};

/// Empty without a stack.
Column columnOf(const StackFocus &focus, const ColumnView &view);

} // namespace waxis::stackbench
