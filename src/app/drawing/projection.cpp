#include "app/drawing/projection.h"

#include "core/base/units.h"
#include "core/geometry/hull.h"

#include <algorithm>
#include <cmath>

namespace waxis::drawing {

QPointF project(View view, const Vec3 &p) {
    switch (view) {
    case View::plan: return {p.x(), -p.y()};
    case View::side: return {p.x(), -p.z()};
    case View::front: return {p.y(), -p.z()};
    }
    return {};
}

Vec3 unproject(View view, const QPointF &d) {
    switch (view) {
    case View::plan: return {d.x(), -d.y(), 0};
    case View::side: return {d.x(), 0, -d.y()};
    case View::front: return {0, d.x(), -d.y()};
    }
    return Vec3::Zero();
}

Vec3 towardsViewer(View view) {
    switch (view) {
    case View::plan: return Vec3::UnitZ();
    case View::side: return -Vec3::UnitY();
    case View::front: return Vec3::UnitX();
    }
    return Vec3::UnitZ();
}

namespace {

void addCircle(std::vector<Vec3> &corners, double radius, double z) {
    constexpr int kCorners = 40;
    for (int i = 0; i < kCorners; ++i) {
        const double angle = 2 * kPi * i / kCorners;
        corners.emplace_back(radius * std::cos(angle), radius * std::sin(angle), z);
    }
}

} // namespace

QPainterPath shadowOf(View view, const std::vector<Vec3> &points) {
    std::vector<Vec2> flat;
    for (const auto &p : points) {
        const QPointF q = project(view, p);
        flat.emplace_back(q.x(), q.y());
    }
    QPolygonF polygon;
    for (const auto &p : convexHull(std::move(flat))) polygon << QPointF(p.x(), p.y());
    QPainterPath path;
    path.addPolygon(polygon);
    path.closeSubpath();
    return path;
}

QPainterPath outline(View view, const Shape &shape, const Pose &pose) {
    QPainterPath path;
    if (const auto *sphere = std::get_if<Sphere>(&shape)) {
        path.addEllipse(project(view, pose.position_mm), sphere->diameter_mm / 2, sphere->diameter_mm / 2);
        return path;
    }
    const Vec3 axis = pose.rotation * Vec3::UnitZ();
    const bool alongAxis = std::abs(axis.dot(towardsViewer(view))) > 1 - 1e-9;
    if (const auto *cylinder = std::get_if<Cylinder>(&shape); cylinder && alongAxis) {
        path.addEllipse(project(view, pose.position_mm), cylinder->diameter_mm / 2, cylinder->diameter_mm / 2);
        return path;
    }
    if (const auto *prism = std::get_if<Prism>(&shape); prism && alongAxis) {
        auto addRing = [&](const Ring &ring) {
            QPolygonF polygon;
            for (const auto &p : ring) polygon << project(view, pose * Vec3(p.x(), p.y(), 0));
            path.addPolygon(polygon);
            path.closeSubpath();
        };
        addRing(prism->polygon.outline);
        for (const auto &hole : prism->polygon.holes) addRing(hole);
        return path; // odd-even fill leaves the holes open
    }
    std::vector<Vec3> corners;
    if (const auto *box = std::get_if<Box>(&shape)) {
        const Vec3 half = box->fullSize_mm / 2;
        for (int i = 0; i < 8; ++i)
            corners.emplace_back((i & 1 ? 1 : -1) * half.x(), (i & 2 ? 1 : -1) * half.y(), (i & 4 ? 1 : -1) * half.z());
    } else if (const auto *cylinder = std::get_if<Cylinder>(&shape)) {
        addCircle(corners, cylinder->diameter_mm / 2, -cylinder->length_mm / 2);
        addCircle(corners, cylinder->diameter_mm / 2, cylinder->length_mm / 2);
    } else if (const auto *prism = std::get_if<Prism>(&shape)) {
        for (const auto &p : prism->polygon.outline) {
            corners.emplace_back(p.x(), p.y(), 0);
            corners.emplace_back(p.x(), p.y(), prism->thickness_mm);
        }
    }
    if (const auto *mesh = std::get_if<Mesh>(&shape)) {
        // The shadow of all triangles together, so that hollows and windows show.
        path.setFillRule(Qt::WindingFill);
        for (const auto &[i, j, k] : mesh->triangles) {
            QPolygonF triangle;
            for (int corner : {i, j, k}) triangle << project(view, pose * mesh->points_mm[corner]);
            const double turn = (triangle[1].x() - triangle[0].x()) * (triangle[2].y() - triangle[0].y()) -
                                (triangle[1].y() - triangle[0].y()) * (triangle[2].x() - triangle[0].x());
            if (turn < 0) continue; // faces away: its shadow lies within that of the front
            path.addPolygon(triangle);
            path.closeSubpath();
        }
        return path.simplified();
    }
    for (auto &corner : corners) corner = pose * corner;
    return shadowOf(view, corners);
}

double nearness(View view, const Shape &shape, const Pose &pose) {
    const Vec3 d = towardsViewer(view);
    return d.dot(pose * supportPoint(shape, pose.rotation.conjugate() * d));
}

} // namespace waxis::drawing
