// Prisms have an exact short cut: in the prism's own axes a body that lies wholly above or below the slab is no nearer
// than the slab, and exactly that near when its lowest point stands over material. Everything else is asked of convex
// pieces; a mesh is asked triangle by triangle, and whether it holds the other body whole.
#include "core/clearance/narrow.h"

#include <algorithm>
#include <cmath>

namespace waxis::clearance {

namespace {

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

/// A point of the body.
Vec3 somewhereOn(const Body &body) { return body.X_FrameBody * supportPoint(body.shape, Vec3::UnitZ()); }

Pieces::Sides sidesOf(const std::array<Vec2, 3> &corners) {
    Pieces::Sides sides;
    for (std::size_t i = 0; i < 3; ++i) {
        const Vec2 along = (corners[(i + 1) % 3] - corners[i]).normalized();
        sides.normal[i] = {along.y(), -along.x()}; // triangles run counter-clockwise
        sides.offset[i] = sides.normal[i].dot(corners[i]);
    }
    return sides;
}

/// A lower bound for the distance of a piece to whatever a box holds: the boxes' gap, or what lies beyond one side.
double leastGap(const Pieces &pieces, std::size_t i, const Aabb &box) {
    double least = boxGap(pieces.bounds[i], box);
    if (pieces.sides.empty()) return least;
    const Pieces::Sides &sides = pieces.sides[i];
    for (std::size_t k = 0; k < 3; ++k) {
        const Vec2 &n = sides.normal[k];
        const double nearest = n.x() * (n.x() > 0 ? box.min_mm.x() : box.max_mm.x()) +
                               n.y() * (n.y() > 0 ? box.min_mm.y() : box.max_mm.y());
        least = std::max(least, nearest - sides.offset[k]);
    }
    return least;
}

/// Nearest of a prism's pieces to a convex shape; pieces that cannot be nearer than the best so far are passed over.
void takeNearest(const Pieces &pieces, const Pose &X_FramePrism, const Convex &other, const Aabb &otherInPrism,
                 ConvexGap &best) {
    std::vector<std::pair<double, std::size_t>> order;
    for (std::size_t i = 0; i < pieces.wedges.size(); ++i)
        if (const double atLeast = leastGap(pieces, i, otherInPrism); atLeast < best.distance_mm)
            order.emplace_back(atLeast, i);
    std::sort(order.begin(), order.end());
    for (const auto &[atLeast, i] : order) {
        if (atLeast >= best.distance_mm) break;
        const ConvexGap gap = convexDistance(Convex(pieces.wedges[i], X_FramePrism), other, best.distance_mm);
        if (gap.distance_mm < best.distance_mm) best = gap;
    }
}

/// Whether a point of `inner` lies inside the mesh `outer`: a ray leaves a closed mesh through an odd number of
/// triangles. False for anything but meshes.
bool liesInside(const Body &inner, const Body &outer) {
    const auto *mesh = std::get_if<Mesh>(&outer.shape);
    if (!mesh) return false;
    const Vec3 p = outer.X_FrameBody.inverse() * somewhereOn(inner);
    const Vec3 ray = Vec3(0.532, 0.271, 0.802).normalized(); // along no face of anything that is drawn
    int crossings = 0;
    for (const auto &[i, j, k] : mesh->triangles) { // Moeller and Trumbore 1997
        const Vec3 &a = mesh->points_mm[i];
        const Vec3 e1 = mesh->points_mm[j] - a, e2 = mesh->points_mm[k] - a, h = ray.cross(e2);
        const double determinant = e1.dot(h);
        if (std::abs(determinant) < 1e-15) continue;
        const Vec3 s = p - a, q = s.cross(e1);
        const double u = s.dot(h) / determinant, v = ray.dot(q) / determinant;
        if (u >= 0 && v >= 0 && u + v <= 1 && e2.dot(q) / determinant > 0) ++crossings;
    }
    return crossings % 2 == 1;
}

ConvexGap flipped(const ConvexGap &gap) { return {gap.distance_mm, gap.onB_mm, gap.onA_mm}; }

} // namespace

SharedPieces piecesOf(const Shape &shape) {
    auto pieces = std::make_shared<Pieces>();
    if (const auto *mesh = std::get_if<Mesh>(&shape))
        for (const auto &[a, b, c] : mesh->triangles) {
            const Mesh triangle{{mesh->points_mm[a], mesh->points_mm[b], mesh->points_mm[c]}, {{0, 1, 2}}, {}};
            Aabb bounds;
            for (const auto &corner : triangle.points_mm) bounds.include(corner);
            pieces->wedges.emplace_back(triangle);
            pieces->bounds.push_back(bounds);
        }
    const auto *prism = std::get_if<Prism>(&shape);
    if (!prism) return pieces;
    const Triangulation flat = triangulate(prism->polygon);
    for (const auto &[a, b, c] : flat.triangles) {
        pieces->wedges.push_back(Prism{{{flat.points[a], flat.points[b], flat.points[c]}, {}}, prism->thickness_mm});
        Aabb bounds;
        for (int corner : {a, b, c}) {
            bounds.include(Vec3(flat.points[corner].x(), flat.points[corner].y(), 0));
            bounds.include(Vec3(flat.points[corner].x(), flat.points[corner].y(), prism->thickness_mm));
        }
        pieces->bounds.push_back(bounds);
        pieces->sides.push_back(sidesOf({flat.points[a], flat.points[b], flat.points[c]}));
    }
    return pieces;
}

BodyGap distanceBetween(const Body &a, const Pieces &piecesA, const Body &b, const Pieces &piecesB, double within_mm) {
    BodyGap gap;
    const auto *prismA = std::get_if<Prism>(&a.shape);
    const auto *prismB = std::get_if<Prism>(&b.shape);
    if (prismA && slabGap(*prismA, a, b, gap)) return gap;
    if (prismB && slabGap(*prismB, b, a, gap)) {
        std::swap(gap.onA_mm, gap.onB_mm);
        return gap;
    }
    constexpr double kInfinite = std::numeric_limits<double>::infinity();
    ConvexGap best;
    best.distance_mm = within_mm < kInfinite ? std::nextafter(within_mm, kInfinite) : kInfinite;
    const double nothingFound = best.distance_mm;
    const bool piecewiseA = !piecesA.wedges.empty(), piecewiseB = !piecesB.wedges.empty();
    if (piecewiseA && piecewiseB) {
        const Pose X_BA = b.X_FrameBody.inverse() * a.X_FrameBody;
        const Aabb boundsOfB = boundsOf(b.shape, X_BA.inverse());
        for (std::size_t i = 0; i < piecesA.wedges.size(); ++i) {
            if (boxGap(piecesA.bounds[i], boundsOfB) >= best.distance_mm) continue;
            const Shape &wedge = piecesA.wedges[i];
            ConvexGap piece = flipped(best);
            takeNearest(piecesB, b.X_FrameBody, Convex(wedge, a.X_FrameBody), boundsOf(wedge, X_BA), piece);
            best = flipped(piece);
        }
    } else if (piecewiseA) {
        takeNearest(piecesA, a.X_FrameBody, Convex(b.shape, b.X_FrameBody),
                    boundsOf(b.shape, a.X_FrameBody.inverse() * b.X_FrameBody), best);
    } else if (piecewiseB) {
        ConvexGap other = best;
        takeNearest(piecesB, b.X_FrameBody, Convex(a.shape, a.X_FrameBody),
                    boundsOf(a.shape, b.X_FrameBody.inverse() * a.X_FrameBody), other);
        best = flipped(other);
    } else {
        best = convexDistance(Convex(a.shape, a.X_FrameBody), Convex(b.shape, b.X_FrameBody), within_mm);
    }
    gap.distance_mm = best.distance_mm == nothingFound ? kInfinite : best.distance_mm;
    gap.onA_mm = best.onA_mm;
    gap.onB_mm = best.onB_mm;
    // A mesh is its skin: what lies wholly inside does not touch it.
    const bool aInside = gap.distance_mm > 0 && liesInside(a, b), bInside = gap.distance_mm > 0 && liesInside(b, a);
    if (aInside || bInside) {
        gap.distance_mm = 0;
        gap.onA_mm = gap.onB_mm = somewhereOn(aInside ? a : b);
    }
    return gap;
}

bool overlaps(const Body &a, const Pieces &piecesA, const Body &b, const Pieces &piecesB) {
    return !(distanceBetween(a, piecesA, b, piecesB, 0.0).distance_mm > 0);
}

} // namespace waxis::clearance
