#include "core/rays/ray_world.h"

#include "core/base/units.h"
#include "core/geometry/triangles.h"

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

} // namespace

struct RayWorld::Impl {
    RTCScene scene = nullptr;
    std::vector<int> bodyOf; ///< by geometry id
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
        return {bodyOf[query.hit.geomID], double(query.ray.tfar)};
    }
};

RayWorld::RayWorld(const std::vector<Body> &bodies, const std::function<bool(int)> &counts)
    : impl_(std::make_unique<Impl>()) {
    impl_->scene = rtcNewScene(device());
    rtcSetSceneFlags(impl_->scene, RTC_SCENE_FLAG_ROBUST); // no slipping through between two triangles
    rtcSetSceneBuildQuality(impl_->scene, RTC_BUILD_QUALITY_LOW);
    for (std::size_t i = 0; i < bodies.size(); ++i) {
        if (!counts(int(i))) continue;
        const Triangles t = trianglesOf(bodies[i].shape, 24);
        if (t.corners.empty()) continue;
        RTCGeometry geometry = rtcNewGeometry(device(), RTC_GEOMETRY_TYPE_TRIANGLE);
        auto *points = static_cast<float *>(rtcSetNewGeometryBuffer(
            geometry, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3, 3 * sizeof(float), t.points_mm.size()));
        for (std::size_t k = 0; k < t.points_mm.size(); ++k) {
            const Vec3 p = bodies[i].X_FrameBody * t.points_mm[k];
            for (int axis = 0; axis < 3; ++axis) points[3 * k + std::size_t(axis)] = float(p[axis]);
        }
        auto *corners = static_cast<unsigned *>(rtcSetNewGeometryBuffer(
            geometry, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3, 3 * sizeof(unsigned), t.corners.size()));
        for (std::size_t k = 0; k < t.corners.size(); ++k)
            for (std::size_t c = 0; c < 3; ++c) corners[3 * k + c] = unsigned(t.corners[k][c]);
        rtcSetGeometryBuildQuality(geometry, RTC_BUILD_QUALITY_LOW);
        rtcCommitGeometry(geometry);
        rtcAttachGeometryByID(impl_->scene, geometry, unsigned(impl_->bodyOf.size()));
        rtcReleaseGeometry(geometry); // the scene holds it now
        impl_->bodyOf.push_back(int(i));
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
