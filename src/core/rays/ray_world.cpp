#include "core/rays/ray_world.h"

#include "core/base/units.h"
#include "core/geometry/triangles.h"

#include <algorithm>
#include <cmath>
#include <embree3/rtcore.h>
#include <limits>

namespace waxis {

namespace {

constexpr float kNear_mm = 1e-3f;

/// One device for the program's life: making it takes 35 ms. Single-threaded: callers bring their own threads.
RTCDevice device() {
    static const std::unique_ptr<RTCDeviceTy, void (*)(RTCDevice)> held(rtcNewDevice("threads=1"), rtcReleaseDevice);
    return held.get();
}

RTCRay rayFrom(const Vec3 &origin, const Vec3 &direction, float far) {
    RTCRay ray{};
    ray.org_x = float(origin.x());
    ray.org_y = float(origin.y());
    ray.org_z = float(origin.z());
    ray.dir_x = float(direction.x());
    ray.dir_y = float(direction.y());
    ray.dir_z = float(direction.z());
    ray.tnear = kNear_mm;
    ray.tfar = far;
    ray.mask = 0xffffffffu;
    return ray;
}

/// Plates with many holes take as long to cut into triangles as all rays together, and stay the same while things move.
const Triangles &cachedTriangles(const Shape &shape) {
    constexpr int kSides = 24;
    constexpr std::size_t kMost = 64;
    thread_local std::vector<std::pair<Shape, Triangles>> plates;
    thread_local Triangles other;
    if (!std::holds_alternative<Prism>(shape)) {
        other = trianglesOf(shape, kSides);
        return other;
    }
    for (const auto &[known, triangles] : plates)
        if (known == shape) return triangles;
    if (plates.size() >= kMost) plates.clear();
    return plates.emplace_back(shape, trianglesOf(shape, kSides)).second;
}

} // namespace

struct RayWorld::Impl {
    RTCScene scene = nullptr;
    std::vector<int> bodyOf; ///< by triangle
    Impl() = default;
    Impl(const Impl &) = delete;
    Impl &operator=(const Impl &) = delete;
    ~Impl() {
        if (scene) rtcReleaseScene(scene);
    }
    RayWorld::Hit first(const Vec3 &origin, const Vec3 &direction) const {
        RTCRayHit query{};
        query.ray = rayFrom(origin, direction, std::numeric_limits<float>::infinity());
        query.hit.geomID = RTC_INVALID_GEOMETRY_ID;
        RTCIntersectContext context;
        rtcInitIntersectContext(&context);
        rtcIntersect1(scene, &context, &query);
        if (query.hit.geomID == RTC_INVALID_GEOMETRY_ID) return {};
        return {bodyOf[query.hit.primID], double(query.ray.tfar)};
    }
};

RayWorld::RayWorld(const std::vector<Body> &bodies, const std::function<bool(int)> &counts, std::span<const Body> more)
    : impl_(std::make_unique<Impl>()) {
    impl_->scene = rtcNewScene(device());
    rtcSetSceneFlags(impl_->scene, RTC_SCENE_FLAG_ROBUST); // no slipping through between two triangles
    rtcSetSceneBuildQuality(impl_->scene, RTC_BUILD_QUALITY_LOW);
    // All bodies as one mesh: a geometry for each takes three times as long to build.
    std::vector<float> points;
    std::vector<unsigned> corners;
    auto add = [&](const Body &body, int index) {
        const Triangles &t = cachedTriangles(body.shape);
        const auto base = unsigned(points.size() / 3);
        const Mat3 turn = body.X_FrameBody.rotation.toRotationMatrix();
        for (const auto &point : t.points_mm) {
            const Vec3 p = turn * point + body.X_FrameBody.position_mm;
            for (int axis = 0; axis < 3; ++axis) points.push_back(float(p[axis]));
        }
        for (const auto &corner : t.corners)
            for (int c : corner) corners.push_back(base + unsigned(c));
        impl_->bodyOf.insert(impl_->bodyOf.end(), t.corners.size(), index);
    };
    for (std::size_t i = 0; i < bodies.size(); ++i)
        if (counts(int(i))) add(bodies[i], int(i));
    for (std::size_t i = 0; i < more.size(); ++i) add(more[i], int(bodies.size() + i));
    if (!corners.empty()) {
        RTCGeometry geometry = rtcNewGeometry(device(), RTC_GEOMETRY_TYPE_TRIANGLE);
        auto *pointBuffer = static_cast<float *>(rtcSetNewGeometryBuffer(
            geometry, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3, 3 * sizeof(float), points.size() / 3));
        std::copy(points.begin(), points.end(), pointBuffer);
        auto *cornerBuffer = static_cast<unsigned *>(rtcSetNewGeometryBuffer(
            geometry, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3, 3 * sizeof(unsigned), corners.size() / 3));
        std::copy(corners.begin(), corners.end(), cornerBuffer);
        rtcSetGeometryBuildQuality(geometry, RTC_BUILD_QUALITY_LOW);
        rtcCommitGeometry(geometry);
        rtcAttachGeometry(impl_->scene, geometry);
        rtcReleaseGeometry(geometry); // the scene holds it now
    }
    rtcCommitScene(impl_->scene);
}

RayWorld::~RayWorld() = default;
RayWorld::RayWorld(RayWorld &&) noexcept = default;
RayWorld &RayWorld::operator=(RayWorld &&) noexcept = default;

RayWorld::Hit RayWorld::first(const Vec3 &origin_mm, const Vec3 &direction) const {
    return impl_->first(origin_mm, direction);
}

std::vector<int> RayWorld::firstBodies(const Vec3 &origin_mm, std::span<const Vec3> directions) const {
    std::vector<int> bodies;
    bodies.reserve(directions.size());
    for (const auto &d : directions) bodies.push_back(impl_->first(origin_mm, d).body);
    return bodies;
}

bool RayWorld::sees(const Vec3 &from_mm, const Vec3 &to_mm) const {
    const Vec3 way = to_mm - from_mm;
    const double length = way.norm();
    if (!(length > 2 * double(kNear_mm))) return true;
    RTCRay ray = rayFrom(from_mm, way / length, float(length) - kNear_mm);
    RTCIntersectContext context;
    rtcInitIntersectContext(&context);
    rtcOccluded1(impl_->scene, &context, &ray);
    return ray.tfar >= 0; // minus infinity for a hit
}

std::vector<Vec3> evenDirections(int count, bool upperHalf) {
    const double golden = kPi * (3 - std::sqrt(5.0));
    std::vector<Vec3> directions;
    directions.reserve(std::size_t(count));
    for (int i = 0; i < count; ++i) {
        const double step = (i + 0.5) / count, z = upperHalf ? 1 - step : 1 - 2 * step;
        const double radius = std::sqrt(std::max(0.0, 1 - z * z)), angle = golden * i;
        directions.emplace_back(radius * std::cos(angle), radius * std::sin(angle), z);
    }
    return directions;
}

} // namespace waxis
