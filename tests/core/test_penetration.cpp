// Depth of overlaps against exact references that share nothing with the program's own search: for polytopes every
// normal that can be the answer is tried (faces of either and cross products of their edges: the separating axis
// theorem, Gottschalk 1996), for balls the middle is projected on the polytope (Dykstra's alternating projections,
// Boyle and Dykstra 1986).
#include "core/clearance/clearance_world.h"
#include "core/geometry/polygon.h"

#include <QTest>
#include <algorithm>
#include <cmath>
#include <random>

using namespace waxis;

namespace {

struct HalfSpace {
    Vec3 normal; ///< outwards, unit
    double offset = 0;
};

/// A convex body by its corners, the directions of its edges and its faces; a ball is one corner with a rind.
struct Polytope {
    std::vector<Vec3> corners, edges;
    std::vector<HalfSpace> faces;
    double rind_mm = 0;
};

/// Cylinders become prisms of 64 sides: off by 0.12 % of the radius at most.
Ring outlineOf(const Cylinder &cylinder) {
    constexpr int kSides = 64;
    Ring ring;
    for (int i = 0; i < kSides; ++i) {
        const double angle = 2 * M_PI * i / kSides;
        ring.emplace_back(cylinder.diameter_mm / 2 * std::cos(angle), cylinder.diameter_mm / 2 * std::sin(angle));
    }
    return ring;
}

Polytope upright(const Ring &ring, double low, double high, const Pose &pose) {
    Polytope out;
    for (const auto &p : ring)
        for (const double z : {low, high}) out.corners.push_back(pose * Vec3(p.x(), p.y(), z));
    const Vec3 up = pose.rotation * Vec3::UnitZ();
    out.edges = {up};
    out.faces = {{up, up.dot(pose * Vec3(0, 0, high))}, {-up, -up.dot(pose * Vec3(0, 0, low))}};
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 along = ring[(i + 1) % ring.size()] - ring[i];
        out.edges.push_back(pose.rotation * Vec3(along.x(), along.y(), 0));
        const Vec3 normal = pose.rotation * Vec3(along.y(), -along.x(), 0).normalized();
        out.faces.push_back({normal, normal.dot(pose * Vec3(ring[i].x(), ring[i].y(), low))});
    }
    return out;
}

Polytope polytopeOf(const Body &body) {
    const Pose &pose = body.X_FrameBody;
    if (const auto *box = std::get_if<Box>(&body.shape)) {
        const double x = box->fullSize_mm.x() / 2, y = box->fullSize_mm.y() / 2, z = box->fullSize_mm.z() / 2;
        return upright({{-x, -y}, {x, -y}, {x, y}, {-x, y}}, -z, z, pose);
    }
    if (const auto *cylinder = std::get_if<Cylinder>(&body.shape))
        return upright(outlineOf(*cylinder), -cylinder->length_mm / 2, cylinder->length_mm / 2, pose);
    if (const auto *prism = std::get_if<Prism>(&body.shape))
        return upright(prism->polygon.outline, 0, prism->thickness_mm, pose);
    Polytope ball;
    ball.corners = {pose.position_mm};
    ball.rind_mm = std::get<Sphere>(body.shape).diameter_mm / 2;
    return ball;
}

double reach(const Polytope &p, const Vec3 &d) {
    double most = -1e300;
    for (const auto &corner : p.corners) most = std::max(most, corner.dot(d));
    return most;
}

double sweptDepth(const Polytope &a, const Polytope &b) {
    double least = 1e300;
    const auto tryNormal = [&](const Vec3 &n) {
        if (!(n.norm() > 1e-9)) return;
        const Vec3 d = n.normalized();
        least = std::min({least, reach(a, d) + reach(b, -d), reach(a, -d) + reach(b, d)});
    };
    for (const auto *p : {&a, &b})
        for (const auto &face : p->faces) tryNormal(face.normal);
    for (const auto &e : a.edges)
        for (const auto &f : b.edges) tryNormal(e.cross(f));
    return std::max(least, 0.0);
}

double depthOfBall(const Vec3 &middle, double radius, const Polytope &other) {
    double inside = 1e300; // how far in the middle lies
    for (const auto &face : other.faces) inside = std::min(inside, face.offset - face.normal.dot(middle));
    if (inside >= 0) return inside + radius;
    Vec3 x = middle;
    std::vector<Vec3> carried(other.faces.size(), Vec3::Zero());
    for (int round = 0; round < 3000; ++round)
        for (std::size_t i = 0; i < other.faces.size(); ++i) {
            const Vec3 y = x + carried[i];
            const double over = other.faces[i].normal.dot(y) - other.faces[i].offset;
            x = over > 0 ? Vec3(y - over * other.faces[i].normal) : y;
            carried[i] = y - x;
        }
    return std::max(0.0, radius - (x - middle).norm());
}

double exactDepth(const Body &a, const Body &b) {
    const Polytope p = polytopeOf(a), q = polytopeOf(b);
    if (p.rind_mm > 0 && q.rind_mm > 0)
        return std::max(0.0, p.rind_mm + q.rind_mm - (p.corners[0] - q.corners[0]).norm());
    if (p.rind_mm > 0) return depthOfBall(p.corners[0], p.rind_mm, q);
    if (q.rind_mm > 0) return depthOfBall(q.corners[0], q.rind_mm, p);
    return sweptDepth(p, q);
}

/// Whether a point lies in a body, or no farther than `by_mm` out of it.
bool holds(const Body &body, const Vec3 &point, double by_mm) {
    const Polytope p = polytopeOf(body);
    if (p.rind_mm > 0) return (point - p.corners[0]).norm() <= p.rind_mm + by_mm;
    return std::all_of(p.faces.begin(), p.faces.end(),
                       [&](const HalfSpace &face) { return face.normal.dot(point) <= face.offset + by_mm; });
}

class Draw {
public:
    explicit Draw(unsigned seed) : random_(seed) {}
    double number(double low, double high) { return std::uniform_real_distribution(low, high)(random_); }
    int kind() { return std::uniform_int_distribution(0, 4)(random_); }
    Shape shape(int kind) {
        switch (kind) {
        case 0: return Box{{number(1, 40), number(1, 40), number(1, 40)}};
        case 1: return Cylinder{number(1, 40), number(1, 40)};
        case 2: return Sphere{number(1, 40)};
        case 3: { // a thin plate with convex corners
            Ring ring;
            for (double angle = 0.2; angle < 6.2; angle += number(0.5, 1.4))
                ring.emplace_back(20 * std::cos(angle), 20 * std::sin(angle));
            return Prism{{ring, {}}, number(1, 4)};
        }
        default: return Prism{{{{0, 0}, {number(5, 40), 0}, {number(0, 10), number(5, 40)}}, {}}, number(1, 40)};
        }
    }
    Pose pose() {
        // Every other one turned by quarters, as on a real craft: faces that are parallel.
        const Quat turn = number(0, 1) < 0.5
                              ? Quat(Eigen::AngleAxisd(M_PI / 2 * std::floor(number(0, 4)), Vec3::UnitZ()))
                              : Quat(number(-1, 1), number(-1, 1), number(-1, 1), number(-1, 1)).normalized();
        return {Vec3(number(-12, 12), number(-12, 12), number(-12, 12)), turn};
    }

private:
    std::mt19937 random_;
};

} // namespace

class TestPenetration : public QObject {
    Q_OBJECT

private slots:
    void depthsAreNeitherTooLongNorTooShort() {
        Draw draw(19);
        int compared = 0, parted = 0;
        double tooLong = 0, tooShort = 0;
        while (compared < 2000) {
            Body a, b;
            a.shape = draw.shape(draw.kind());
            b.shape = draw.shape(draw.kind());
            a.X_FrameBody = draw.pose();
            b.X_FrameBody = draw.pose();
            const double exact = exactDepth(a, b);
            const BodyGap gap = measureGap(a, b);
            if (exact < 0.03) continue; // sides of the reference's cylinders
            ++compared;
            tooLong = std::max(tooLong, gap.depth_mm - exact);
            tooShort = std::max(tooShort, exact - gap.depth_mm);
            QVERIFY2(gap.depth_mm - exact < 0.05, qPrintable(QString("%1 for %2 between %3 and %4, pair %5")
                                                                 .arg(gap.depth_mm)
                                                                 .arg(exact)
                                                                 .arg(a.shape.index())
                                                                 .arg(b.shape.index())
                                                                 .arg(compared)));
            // Never too short: moved as said, they are apart.
            Body moved = a;
            moved.X_FrameBody.position_mm += gap.freeingMove_mm * (1 + 1e-9) + 1e-6 * gap.freeingMove_mm.normalized();
            parted += measureGap(moved, b).distance_mm > 0;
            QVERIFY2(holds(a, gap.onA_mm, 0.05) && holds(b, gap.onA_mm, 0.05), "a point of the overlap lies in both");
        }
        QCOMPARE(parted, compared);
        qInfo("too long by %.5f mm at most, too short by %.5f mm (the reference's cylinders have corners)", tooLong,
              tooShort);
    }
    void aBallAtABarsEdgeIsAsDeepHoweverTheBarIsTurned() {
        // The ball's middle lies 9 mm off the edge, outwards under 45 degrees: 1 mm of it stands in the bar.
        for (const double turn_deg : {0.0, 17.0, 45.0, 90.0}) {
            const Quat turn(Eigen::AngleAxisd(turn_deg * M_PI / 180, Vec3::UnitX()));
            const Vec3 edge = turn * Vec3(0, 5, 5), out = turn * Vec3(0, 1, 1).normalized();
            Body ball{0, Sphere{20}, {edge + 9 * out, Quat::Identity()}},
                bar{1, Box{{200, 10, 10}}, {Vec3::Zero(), turn}};
            QVERIFY(std::abs(measureGap(ball, bar).depth_mm - 1) < 1e-6);
            QVERIFY(std::abs(measureGap(bar, ball).depth_mm - 1) < 1e-6);
        }
    }
    void ballsAboutOneMiddle() {
        const Body a{0, Sphere{20}, {}}, b{1, Sphere{10}, {}};
        QVERIFY(std::abs(measureGap(a, b).depth_mm - 15) < 1e-9);
    }
};

QTEST_APPLESS_MAIN(TestPenetration)
#include "test_penetration.moc"
