// FCL is used in millimetres, unsigned, with libccd: its signed distance aborts on touching shapes, and the
// independent solver gives wrong signs now and then. Prisms have an exact short cut: in the prism's own axes a
// body that lies wholly above or below the slab is no nearer than the slab, and exactly that near when its lowest
// point stands over material.
#include "core/clearance/narrow.h"

#include <algorithm>
#include <fcl/geometry/bvh/BVH_model.h>
#include <fcl/geometry/shape/box.h>
#include <fcl/geometry/shape/cylinder.h>
#include <fcl/geometry/shape/sphere.h>

namespace waxis::clearance {

namespace {

FclGeometry meshOf(const Prism &prism) {
    using Mesh = fcl::BVHModel<fcl::OBBRSSd>;
    auto mesh = std::make_shared<Mesh>();
    Triangulation flat = triangulate(prism.polygon);
    if (flat.triangles.empty()) // an outline that crosses itself; loaders refuse it. Its first corners stand in for it.
        flat = {{prism.polygon.outline.begin(), prism.polygon.outline.end()}, {{0, 1, 2}}};
    const int count = int(flat.points.size());
    std::vector<Vec3> points;
    for (double z : {0.0, prism.thickness_mm})
        for (const auto &p : flat.points) points.emplace_back(p.x(), p.y(), z);
    std::vector<fcl::Triangle> triangles;
    for (const auto &[a, b, c] : flat.triangles) {
        triangles.emplace_back(a, c, b);
        triangles.emplace_back(a + count, b + count, c + count);
    }
    int first = 0;
    auto wall = [&](const Ring &ring) {
        const int n = int(ring.size());
        for (int i = 0; i < n; ++i) {
            const int p = first + i, q = first + (i + 1) % n;
            triangles.emplace_back(p, q, q + count);
            triangles.emplace_back(p, q + count, p + count);
        }
        first += n;
    };
    wall(prism.polygon.outline);
    for (const auto &hole : prism.polygon.holes)
        if (hole.size() >= 3) wall(hole);
    mesh->beginModel();
    mesh->addSubModel(points, triangles);
    mesh->endModel();
    return mesh;
}

/// True when the gap could be read off the slab; `gap` is then filled.
bool slabGap(const Prism &prism, const Body &slab, const Body &other, BodyGap &gap) {
    const Pose toSlab = slab.X_FrameBody.inverse();
    const Pose X_SlabOther = toSlab * other.X_FrameBody;
    const Quat back = X_SlabOther.rotation.conjugate();
    const Vec3 lowest = X_SlabOther * supportPoint(other.shape, back * -Vec3::UnitZ());
    const Vec3 highest = X_SlabOther * supportPoint(other.shape, back * Vec3::UnitZ());
    const bool above = lowest.z() >= prism.thickness_mm, below = highest.z() <= 0;
    if (!above && !below) return false;
    const double face = above ? prism.thickness_mm : 0.0;
    gap.distance_mm = above ? lowest.z() - prism.thickness_mm : -highest.z();

    // Points of the face that looks at the slab; any of them over material settles it.
    constexpr double kFlat = 1e-9; // mm: corners of one face differ by rounding only
    std::vector<Vec3> candidates{above ? lowest : highest};
    const double level = candidates.front().z();
    auto addIfLevel = [&](const Vec3 &p_Other) {
        const Vec3 p = X_SlabOther * p_Other;
        if (std::abs(p.z() - level) <= kFlat) candidates.push_back(p);
    };
    if (const auto *box = std::get_if<Box>(&other.shape)) {
        Vec3 faceCentre = Vec3::Zero();
        const Vec3 half = box->fullSize_mm / 2;
        for (int i = 0; i < 8; ++i)
            addIfLevel({(i & 1 ? 1 : -1) * half.x(), (i & 2 ? 1 : -1) * half.y(), (i & 4 ? 1 : -1) * half.z()});
        for (std::size_t i = 1; i < candidates.size(); ++i) faceCentre += candidates[i];
        if (candidates.size() > 1) candidates.push_back(faceCentre / double(candidates.size() - 1));
    } else if (const auto *cylinder = std::get_if<Cylinder>(&other.shape)) {
        for (double end : {-0.5, 0.5}) {
            addIfLevel({0, 0, end * cylinder->length_mm});
            for (const auto &p : circleRing(Vec2::Zero(), cylinder->diameter_mm, 8))
                addIfLevel({p.x(), p.y(), end * cylinder->length_mm});
        }
    } else if (const auto *plate = std::get_if<Prism>(&other.shape)) {
        for (double z : {0.0, plate->thickness_mm})
            for (const auto &p : plate->polygon.outline) addIfLevel({p.x(), p.y(), z});
    }
    for (const auto &p : candidates)
        if (contains(prism.polygon, {p.x(), p.y()})) {
            gap.onA_mm = slab.X_FrameBody * Vec3(p.x(), p.y(), face);
            gap.onB_mm = slab.X_FrameBody * p;
            return true;
        }
    if (const auto *plate = std::get_if<Prism>(&other.shape)) { // the other plate may be the larger one
        const Pose X_OtherSlab = X_SlabOther.inverse();
        for (const auto &corner : prism.polygon.outline) {
            const Vec3 p = X_OtherSlab * Vec3(corner.x(), corner.y(), face);
            const double off = std::min(std::abs(p.z()), std::abs(p.z() - plate->thickness_mm));
            if (std::abs(off - gap.distance_mm) <= kFlat && contains(plate->polygon, {p.x(), p.y()})) {
                gap.onA_mm = slab.X_FrameBody * Vec3(corner.x(), corner.y(), face);
                gap.onB_mm =
                    gap.onA_mm + slab.X_FrameBody.rotation * Vec3(0, 0, above ? gap.distance_mm : -gap.distance_mm);
                return true;
            }
        }
    }
    return false;
}

/// A mesh is a skin: a body that lies wholly in the material touches no triangle.
bool insidePrism(const Prism &prism, const Body &slab, const Body &other) {
    const Vec3 p = slab.X_FrameBody.inverse() * other.X_FrameBody.position_mm;
    return p.z() > 0 && p.z() < prism.thickness_mm && contains(prism.polygon, {p.x(), p.y()});
}

/// Middle of what the two bounding boxes share: where to look at an overlap.
Vec3 commonPoint(const Body &a, const Body &b) {
    const Aabb boxA = boundsOf(a.shape, a.X_FrameBody), boxB = boundsOf(b.shape, b.X_FrameBody);
    return (boxA.min_mm.cwiseMax(boxB.min_mm) + boxA.max_mm.cwiseMin(boxB.max_mm)) / 2;
}

} // namespace

FclGeometry fclGeometry(const Shape &shape) {
    if (const auto *box = std::get_if<Box>(&shape)) return std::make_shared<fcl::Boxd>(box->fullSize_mm);
    if (const auto *cylinder = std::get_if<Cylinder>(&shape))
        return std::make_shared<fcl::Cylinderd>(cylinder->diameter_mm / 2, cylinder->length_mm);
    if (const auto *sphere = std::get_if<Sphere>(&shape))
        return std::make_shared<fcl::Sphered>(sphere->diameter_mm / 2);
    return meshOf(std::get<Prism>(shape));
}

fcl::Transform3d fclTransform(const Pose &pose) {
    fcl::Transform3d transform = fcl::Transform3d::Identity();
    transform.linear() = pose.rotation.toRotationMatrix();
    transform.translation() = pose.position_mm;
    return transform;
}

BodyGap distanceBetween(const Body &a, const FclGeometry &geometryA, const Body &b, const FclGeometry &geometryB) {
    BodyGap gap;
    const auto *prismA = std::get_if<Prism>(&a.shape);
    const auto *prismB = std::get_if<Prism>(&b.shape);
    if (prismA && slabGap(*prismA, a, b, gap)) return gap;
    if (prismB && slabGap(*prismB, b, a, gap)) {
        std::swap(gap.onA_mm, gap.onB_mm);
        return gap;
    }
    gap.distance_mm = 0;
    if ((prismA && insidePrism(*prismA, a, b)) || (prismB && insidePrism(*prismB, b, a))) {
        gap.onA_mm = gap.onB_mm = commonPoint(a, b);
        return gap;
    }
    fcl::DistanceRequestd request(/*nearest points*/ true, /*signed*/ false, 0.0, 0.0, 1e-9, fcl::GST_LIBCCD);
    fcl::DistanceResultd result;
    const double d = fcl::distance(geometryA.get(), fclTransform(a.X_FrameBody), geometryB.get(),
                                   fclTransform(b.X_FrameBody), request, result);
    if (d > 0) {
        gap.distance_mm = d;
        gap.onA_mm = result.nearest_points[0];
        gap.onB_mm = result.nearest_points[1];
    } else {
        gap.onA_mm = gap.onB_mm = commonPoint(a, b);
    }
    return gap;
}

bool overlaps(const Body &a, const FclGeometry &geometryA, const Body &b, const FclGeometry &geometryB) {
    return distanceBetween(a, geometryA, b, geometryB).distance_mm <= 0;
}

} // namespace waxis::clearance
