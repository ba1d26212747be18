#include "core/stack/height_field.h"

#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/geometry/hull.h"
#include "core/geometry/triangles.h"

#include <algorithm>

namespace waxis {

namespace {

bool standsUpright(const Pose &pose) { return std::abs((pose.rotation * Vec3::UnitZ()).z()) > 1 - 1e-9; }

Ring mapped(const Ring &ring, const Pose &X_BaseShape) {
    Ring out;
    for (const auto &p : ring) out.push_back((X_BaseShape * Vec3(p.x(), p.y(), 0)).head<2>());
    return out;
}

Polygon footprintOf(const Shape &shape, const Pose &X_BaseShape) {
    if (const auto *prism = std::get_if<Prism>(&shape); prism && standsUpright(X_BaseShape)) {
        Polygon polygon{mapped(prism->polygon.outline, X_BaseShape), {}};
        for (const auto &hole : prism->polygon.holes) polygon.holes.push_back(mapped(hole, X_BaseShape));
        return polygon;
    }
    if (const auto *cylinder = std::get_if<Cylinder>(&shape); cylinder && standsUpright(X_BaseShape))
        return {circleRing(X_BaseShape.position_mm.head<2>(), cylinder->diameter_mm, 32), {}};
    std::vector<Vec2> points;
    for (const auto &p : trianglesOf(shape).points_mm) points.push_back((X_BaseShape * p).head<2>());
    return {convexHull(std::move(points)), {}};
}

std::string_view wordFor(SolidRole role) {
    switch (role) {
    case SolidRole::body: return "body";
    case SolidRole::board: return "board";
    case SolidRole::component: return "component";
    case SolidRole::connector: return "plug";
    case SolidRole::shield: return "shield can";
    case SolidRole::lens: return "lens";
    case SolidRole::soft: return "damper";
    }
    return "body";
}

FieldPiece memberPiece(const Shape &shape, const Pose &X_BaseShape, const char *what, const std::string &material,
                       const Frame &frame) {
    const Aabb bounds = boundsOf(shape, X_BaseShape);
    return {footprintOf(shape, X_BaseShape),
            bounds.min_mm.z(),
            bounds.max_mm.z(),
            what,
            false,
            conducts(material, frame.materials),
            false};
}

/// Cut wire ends under the soldered pads: a strip 3 mm deep inside the board's edge.
FieldPiece wireEnds(const Port &port, const LayerSpan &board, const Pose &X_BasePart, double stand_mm) {
    constexpr double kDeep_mm = 3.0, kPerPin_mm = 2.5;
    const double across = std::max(kPerPin_mm * double(std::max<std::size_t>(port.pins.size(), 1)), 1.0);
    const Vec3 out = port.direction, middle = port.position_mm - out * (kDeep_mm / 2);
    const Vec3 aside = Vec3::UnitZ().cross(out).normalized();
    std::vector<Vec2> corners;
    for (double u : {-0.5, 0.5})
        for (double v : {-0.5, 0.5})
            corners.push_back((X_BasePart * Vec3(middle + out * kDeep_mm * u + aside * across * v)).head<2>());
    const bool soldered = port.position_mm.z() > (board.from_mm + board.to_mm) / 2; // from above: they stand out below
    const double near = soldered ? board.from_mm : board.to_mm, far = soldered ? near - stand_mm : near + stand_mm;
    const double a = (X_BasePart * Vec3(0, 0, near)).z(), b = (X_BasePart * Vec3(0, 0, far)).z();
    return {{convexHull(std::move(corners)), {}},
            std::min(a, b),
            std::max(a, b),
            (port.joint == PadJoint::unstated ? "wire ends (assumed) of " : "wire ends of ") + port.id,
            true,
            true,
            false};
}

struct Extent {
    Vec2 low, high;
};

/// Boards and most of what stands on them are rectangles square to the base: no need for general polygons.
bool isSquareTo(const Polygon &polygon, const Extent &e) {
    if (polygon.outline.size() != 4 || !polygon.holes.empty()) return false;
    constexpr double kSame_mm = 1e-9;
    return std::all_of(polygon.outline.begin(), polygon.outline.end(), [&](const Vec2 &p) {
        return (std::abs(p.x() - e.low.x()) < kSame_mm || std::abs(p.x() - e.high.x()) < kSame_mm) &&
               (std::abs(p.y() - e.low.y()) < kSame_mm || std::abs(p.y() - e.high.y()) < kSame_mm);
    });
}

Ring commonRectangle(const Extent &a, const Extent &b) {
    const Vec2 low = a.low.cwiseMax(b.low), high = a.high.cwiseMin(b.high), size = high - low;
    constexpr double kNothing_mm2 = 1e-4;
    if (size.minCoeff() <= 0 || size.x() * size.y() <= kNothing_mm2) return {};
    return {low, Vec2(high.x(), low.y()), high, Vec2(low.x(), high.y())};
}

Extent extentOf(const Ring &ring) {
    Extent e{ring.front(), ring.front()};
    for (const auto &p : ring) {
        e.low = e.low.cwiseMin(p);
        e.high = e.high.cwiseMax(p);
    }
    return e;
}

} // namespace

std::vector<FieldPiece> fieldOf(const Build &build, const Part &part, const Pose &X_BaseFrame,
                                const Practice &practice) {
    const auto place = stackPlaceOf(build, part);
    const bool board =
        place && place->layer >= 0 && place->stack->layers[std::size_t(place->layer)].role == LayerRole::board;
    return fieldOf(build, part, X_BaseFrame, practice, stackSeatOf(build, part), board);
}

std::vector<FieldPiece> fieldOf(const Build &build, const Part &part, const Pose &X_BaseFrame, const Practice &practice,
                                const std::optional<StackSeat> &seat, bool board) {
    std::vector<FieldPiece> pieces;
    const PartType *type = typeOf(build, part);
    if (!type) return pieces;
    const Pose X_BasePart = X_BaseFrame * framePoseAt(build, part, seat);
    for (const auto &solid : solidsAt(*type, seat)) {
        if (solid.role == SolidRole::soft) continue;
        const Pose X_BaseSolid = X_BasePart * solid.X_PartSolid;
        const Aabb bounds = boundsOf(solid.shape, X_BaseSolid);
        pieces.push_back({footprintOf(solid.shape, X_BaseSolid), bounds.min_mm.z(), bounds.max_mm.z(),
                          std::string(wordFor(solid.role)), solid.bare,
                          conducts(solid.material, build.frame->materials), solid.role == SolidRole::board});
    }
    const double stand = practice[Limit::wireEnds];
    if (stand > 0 && board)
        for (const auto &port : type->ports)
            if (port.kind == PortKind::pads && std::abs(port.direction.z()) < 0.5)
                pieces.push_back(wireEnds(port, clampedSpan(*type), X_BasePart, stand));
    return pieces;
}

FieldPiece fieldOf(const Plate &plate, const Frame &frame, const Pose &X_BaseFrame) {
    return memberPiece(plateShape(plate), X_BaseFrame * platePose(plate), "plate", plate.material, frame);
}

FieldPiece fieldOf(const Arm &arm, const Frame &frame, const Pose &X_BaseFrame) {
    return memberPiece(armShape(arm), X_BaseFrame * armPose(arm), "arm", arm.material, frame);
}

std::optional<FieldGap> smallestGap(std::span<const FieldPiece> lower, std::span<const FieldPiece> upper) {
    std::vector<Extent> below, above;
    for (const auto &piece : lower) below.push_back(extentOf(piece.footprint.outline));
    for (const auto &piece : upper) above.push_back(extentOf(piece.footprint.outline));
    // The pairs that could lie over one another, closest first: the first that does is the answer.
    struct Pair {
        double gap_mm;
        std::size_t lower, upper;
    };
    std::vector<Pair> pairs;
    for (std::size_t i = 0; i < lower.size(); ++i)
        for (std::size_t j = 0; j < upper.size(); ++j)
            if ((below[i].high - above[j].low).minCoeff() > 0 && (above[j].high - below[i].low).minCoeff() > 0)
                pairs.push_back({upper[j].from_mm - lower[i].to_mm, i, j});
    std::stable_sort(pairs.begin(), pairs.end(), [](const Pair &a, const Pair &b) { return a.gap_mm < b.gap_mm; });
    for (const auto &pair : pairs) {
        const Polygon &a = lower[pair.lower].footprint, &b = upper[pair.upper].footprint;
        const Extent &ea = below[pair.lower], &eb = above[pair.upper];
        Ring where = isSquareTo(a, ea) && isSquareTo(b, eb) ? commonRectangle(ea, eb) : overlapOf(a, b);
        if (!where.empty()) return FieldGap{pair.gap_mm, pair.lower, pair.upper, std::move(where)};
    }
    return std::nullopt;
}

} // namespace waxis
