// From the body axes (x forward, y left, z up; mm) to the flat drawings.
#pragma once

#include "core/geometry/solid.h"

#include <QPainterPath>
#include <QPointF>
#include <vector>

namespace waxis::drawing {

/// Plan: from above, nose to the right. Side: from the right-hand side, nose to the right. Front: looking at the
/// nose.
enum class View { plan, side, front };

/// Scene coordinates are millimetres with y downwards.
QPointF project(View view, const Vec3 &p);

/// The body-axes vector of a scene displacement; nothing along the view direction.
Vec3 unproject(View view, const QPointF &d);

/// Towards the person who looks at the drawing.
Vec3 towardsViewer(View view);

/// Outline of a posed shape as it is seen; prisms seen along their axis keep their holes.
QPainterPath outline(View view, const Shape &shape, const Pose &X_FrameShape);

/// Outline of the convex hull of points as it is seen.
QPainterPath shadowOf(View view, const std::vector<Vec3> &points);

/// How near to the viewer the shape reaches: what is drawn later lies on top.
double nearness(View view, const Shape &shape, const Pose &X_FrameShape);

/// Where drawings may be at all, in scene coordinates: beyond any window.
inline QRectF wholeScene() {
    constexpr double kReach_mm = 2000;
    return {-kReach_mm, -kReach_mm, 2 * kReach_mm, 2 * kReach_mm};
}

} // namespace waxis::drawing
