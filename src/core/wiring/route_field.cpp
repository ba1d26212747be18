#include "core/wiring/route_field.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace waxis {

namespace {

double ringDistance(const Ring &ring, const Vec2 &p) {
    double least = 1e300;
    for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        const Vec2 edge = ring[i] - ring[j], to = p - ring[j];
        const double length2 = edge.squaredNorm();
        const double t = length2 > 0 ? std::clamp(to.dot(edge) / length2, 0.0, 1.0) : 0.0;
        least = std::min(least, (to - t * edge).squaredNorm());
    }
    return std::sqrt(least);
}

double boxDistance(const Vec3 &half, const Vec3 &p) { return (p.cwiseAbs() - half).cwiseMax(0.0).norm(); }

double prismDistance(const Prism &prism, const Vec3 &p) {
    const double above = std::max({0.0, -p.z(), p.z() - prism.thickness_mm});
    const Vec2 q = p.head<2>();
    if (contains(prism.polygon, q)) return above;
    double aside = ringDistance(prism.polygon.outline, q);
    for (const auto &hole : prism.polygon.holes) aside = std::min(aside, ringDistance(hole, q));
    return std::hypot(aside, above);
}

Aabb grown(Aabb box, double by_mm) {
    box.min_mm.array() -= by_mm;
    box.max_mm.array() += by_mm;
    return box;
}

/// The box cut down about its middle, its longest sides first, until its lattice is of a bounded size.
Aabb bounded(const Aabb &box) {
    const Vec3 middle = (box.min_mm + box.max_mm) / 2;
    Vec3 size = box.size_mm();
    const auto points = [&] { return ((size / RouteField::kPitch_mm).array() + 2).prod(); };
    while (points() > RouteField::kMostPoints) {
        int longest = 0;
        size.maxCoeff(&longest);
        size[longest] *= 0.9;
    }
    return {middle - size / 2, middle + size / 2};
}

constexpr double kFar_mm = RouteField::kFarTenths / 10.0;

} // namespace

double pointDistance(const Shape &shape, const Vec3 &p) {
    struct Visit {
        const Vec3 &p;
        double operator()(const Box &box) const { return boxDistance(box.fullSize_mm / 2, p); }
        double operator()(const Cylinder &c) const {
            const double aside = std::max(0.0, p.head<2>().norm() - c.diameter_mm / 2);
            const double above = std::max(0.0, std::abs(p.z()) - c.length_mm / 2);
            return std::hypot(aside, above);
        }
        double operator()(const Sphere &s) const { return std::max(0.0, p.norm() - s.diameter_mm / 2); }
        double operator()(const Prism &prism) const { return prismDistance(prism, p); }
        double operator()(const Mesh &mesh) const {
            Aabb box;
            for (const auto &point : mesh.points_mm) box.include(point);
            return boxDistance(box.size_mm() / 2, p - (box.min_mm + box.max_mm) / 2);
        }
    };
    return std::visit(Visit{p}, shape);
}

RouteField::RouteField(std::span<const RouteObstacle> obstacles, const Aabb &reach)
    : obstacles_(obstacles.begin(), obstacles.end()) {
    const Aabb box = bounded(grown(reach.empty() ? Aabb{Vec3::Zero(), Vec3::Zero()} : reach, kMargin_mm));
    low_ = nearestCell(box.min_mm);
    size_ = nearestCell(box.max_mm) - low_ + Cell::Ones();
    values_.assign(std::size_t(size_.x()) * std::size_t(size_.y()) * std::size_t(size_.z()), kFarTenths);
    for (const auto &obstacle : obstacles_) lower(obstacle, nullptr);
}

RouteField::Cell RouteField::nearestCell(const Vec3 &p) const {
    return (p / kPitch_mm).array().round().matrix().cast<int>();
}

double RouteField::tenthsAt(const Vec3 &p) const {
    const Vec3 q = p / kPitch_mm, base = q.array().floor(), f = q - base;
    const Cell c = base.cast<int>();
    double sum = 0;
    for (int x = 0; x < 2; ++x)
        for (int y = 0; y < 2; ++y)
            for (int z = 0; z < 2; ++z) {
                const double share = (x ? f.x() : 1 - f.x()) * (y ? f.y() : 1 - f.y()) * (z ? f.z() : 1 - f.z());
                if (share > 0) sum += share * std::min(tenths(c + Cell(x, y, z)), kRoomyTenths);
            }
    return sum;
}

void RouteField::lower(const RouteObstacle &obstacle, const Aabb *within) {
    Aabb box = grown(boundsOf(obstacle.shape, obstacle.X_FrameShape), kFar_mm);
    if (within) {
        box.min_mm = box.min_mm.cwiseMax(within->min_mm);
        box.max_mm = box.max_mm.cwiseMin(within->max_mm);
    }
    const Cell first = (box.min_mm / kPitch_mm).array().ceil().matrix().cast<int>().cwiseMax(low_);
    const Cell last =
        (box.max_mm / kPitch_mm).array().floor().matrix().cast<int>().cwiseMin(low_ + size_ - Cell::Ones());
    const Mat3 turn = obstacle.X_FrameShape.rotation.toRotationMatrix().transpose();
    const Vec3 origin = obstacle.X_FrameShape.position_mm;
    const auto *prism = std::get_if<Prism>(&obstacle.shape);
    const bool upright = prism && turn.row(2).isApprox(Vec3::UnitZ().transpose(), 1e-9);
    for (int y = first.y(); y <= last.y(); ++y)
        for (int x = first.x(); x <= last.x(); ++x) {
            // A level plate asks its outline once for the whole column.
            double aside = 0;
            if (upright) {
                const Vec2 q = (turn * (position({x, y, 0}) - origin)).head<2>();
                aside = prismDistance(*prism, Vec3(q.x(), q.y(), prism->thickness_mm / 2));
                if (aside >= kFar_mm) continue;
            }
            for (int z = first.z(); z <= last.z(); ++z) {
                const Vec3 p = turn * (position({x, y, z}) - origin);
                const double above = upright ? std::max({0.0, -p.z(), p.z() - prism->thickness_mm}) : 0.0;
                const double away = upright ? std::hypot(aside, above) : pointDistance(obstacle.shape, p);
                std::uint8_t &value = values_[indexOf({x, y, z})];
                value = std::min(value, std::uint8_t(std::min(double(kFarTenths), std::floor(away * 10))));
            }
        }
}

FieldChange RouteField::update(std::vector<RouteObstacle> obstacles, std::span<const Aabb> touched) {
    obstacles_ = std::move(obstacles);
    // Small blocks of cells, by whether something came nearer or went away.
    constexpr int kBlock = 4;
    std::array<std::map<std::array<int, 3>, Aabb>, 2> changed;
    constexpr std::size_t kMostPatches = 40; // beyond that working everything is as quick
    std::vector<Aabb> boxes(touched.begin(), touched.end());
    if (boxes.size() > kMostPatches) {
        Aabb all;
        all.include(position(low_));
        all.include(position(low_ + size_));
        boxes = {all};
    }
    std::vector<std::uint8_t> before;
    for (const Aabb &touchedBox : boxes) {
        const Aabb box = grown(touchedBox, kFar_mm);
        const Cell first = (box.min_mm / kPitch_mm).array().ceil().matrix().cast<int>().cwiseMax(low_);
        const Cell last =
            (box.max_mm / kPitch_mm).array().floor().matrix().cast<int>().cwiseMin(low_ + size_ - Cell::Ones());
        if ((first.array() > last.array()).any()) continue;
        auto eachRow = [&](auto &&visit) { // along x, as they lie in memory
            for (int z = first.z(); z <= last.z(); ++z)
                for (int y = first.y(); y <= last.y(); ++y) visit(Cell(first.x(), y, z), indexOf({first.x(), y, z}));
        };
        const int row = last.x() - first.x() + 1;
        before.clear();
        eachRow([&](const Cell &, std::size_t at) {
            before.insert(before.end(), values_.begin() + std::ptrdiff_t(at),
                          values_.begin() + std::ptrdiff_t(at) + row);
            std::fill_n(values_.begin() + std::ptrdiff_t(at), row, std::uint8_t(kFarTenths));
        });
        for (const auto &obstacle : obstacles_)
            if (boxGap(grown(boundsOf(obstacle.shape, obstacle.X_FrameShape), kFar_mm), box) <= 0)
                lower(obstacle, &box);
        std::size_t old = 0;
        eachRow([&](const Cell &cell, std::size_t at) {
            for (int x = 0; x < row; ++x, ++old) {
                const int now = std::min<int>(values_[at + std::size_t(x)], kRoomyTenths),
                          was = std::min<int>(before[old], kRoomyTenths);
                if (now == was) continue;
                const Cell c = cell + Cell(x, 0, 0), block = (c - low_) / kBlock;
                changed[now < was ? 0 : 1][{block.x(), block.y(), block.z()}].include(position(c));
            }
        });
    }
    FieldChange change;
    for (const auto &[block, box] : changed[0]) change.nearer.push_back(box);
    for (const auto &[block, box] : changed[1]) change.farther.push_back(box);
    return change;
}

} // namespace waxis
