// How far every place on a lattice is from the nearest solid: what wires are led round by.
#pragma once

#include "core/geometry/solid.h"

#include <cstdint>
#include <span>
#include <vector>

namespace waxis {

/// Something that wires cannot pass.
struct RouteObstacle {
    Shape shape;
    Pose X_FrameShape;
    bool operator==(const RouteObstacle &) const = default;
};

/// Distance of a point from a shape, mm; 0 inside. Exact for boxes, cylinders and spheres; prisms by their outline and
/// holes; meshes count as the box round them in their own axes.
double pointDistance(const Shape &shape, const Vec3 &p_Shape);

/// Where distances below kRoomyTenths changed, as small boxes in mm.
struct FieldChange {
    std::vector<Aabb> nearer, farther;
    bool empty() const { return nearer.empty() && farther.empty(); }
};

/// Distances from a set of obstacles at the points of a cubic lattice through the frame's origin, in tenths of a
/// millimetre up to `kFarTenths`. The lattice reaches `kMargin_mm` beyond what it was made for; beyond that nothing
/// stands.
class RouteField {
public:
    static constexpr double kPitch_mm = 2.5;
    static constexpr double kMargin_mm = 60;
    static constexpr int kFarTenths = 46;
    static constexpr int kRoomyTenths = 30; ///< no wire asks for more: beyond that a change does not matter to it

    RouteField() = default;
    /// Never more points than that (one byte each): of a larger reach the middle is taken, wires run straight beyond.
    static constexpr double kMostPoints = 64e6;

    /// `reach` is the box of everything that wires run between.
    RouteField(std::span<const RouteObstacle> obstacles, const Aabb &reach);

    /// Takes other obstacles; `touched` are the boxes (mm) of all that came, went or moved, without room round them.
    FieldChange update(std::vector<RouteObstacle> obstacles, std::span<const Aabb> touched);

    using Cell = Eigen::Vector3i;
    Cell nearestCell(const Vec3 &p_mm) const;
    Vec3 position(const Cell &cell) const { return cell.cast<double>() * kPitch_mm; }
    bool contains(const Cell &cell) const {
        return (cell.array() >= low_.array()).all() && (cell.array() < (low_ + size_).array()).all();
    }
    /// Tenths of a millimetre; far outside the lattice.
    int tenths(const Cell &cell) const { return contains(cell) ? values_[indexOf(cell)] : kFarTenths; }

    /// Between lattice points, tenths of a millimetre up to kRoomyTenths: exact along flat faces, a few tenths off
    /// round edges.
    double tenthsAt(const Vec3 &p_mm) const;

    const Cell &low() const { return low_; }
    const Cell &size() const { return size_; }

private:
    std::size_t indexOf(const Cell &cell) const {
        const Cell c = cell - low_;
        return (std::size_t(c.z()) * std::size_t(size_.y()) + std::size_t(c.y())) * std::size_t(size_.x()) +
               std::size_t(c.x());
    }
    void lower(const RouteObstacle &obstacle, const Aabb *within);

    std::vector<RouteObstacle> obstacles_;
    Cell low_ = Cell::Zero(), size_ = Cell::Zero();
    std::vector<std::uint8_t> values_;
};

} // namespace waxis
