#include "core/sight/camera_view.h"

#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/scene/scene.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

Picture pictureOf(double horizontalView_deg, double verticalView_deg, int columns) {
    Picture picture;
    picture.columns = columns;
    picture.rows = std::max(1, int(std::lround(columns * verticalView_deg / std::max(horizontalView_deg, 1.0))));
    const double across = radiansFromDegrees(horizontalView_deg) / 2, high = radiansFromDegrees(verticalView_deg) / 2;
    for (int row = 0; row < picture.rows; ++row)
        for (int column = 0; column < picture.columns; ++column) {
            const double left = (1 - 2 * (column + 0.5) / picture.columns) * across;
            const double up = (1 - 2 * (row + 0.5) / picture.rows) * high;
            const double off = std::hypot(left, up), scale = off > 1e-12 ? std::sin(off) / off : 1.0;
            picture.directions.emplace_back(std::cos(off), scale * left, scale * up);
        }
    return picture;
}

CameraWorld cameraWorld(const Build &build, const Scene &scene, int loadCase, int self) {
    const auto &bodies = scene.world->bodies();
    std::vector<Body> discs;
    std::vector<int> ownerOf;
    ownerOf.reserve(bodies.size());
    for (const auto &traits : scene.traits) ownerOf.push_back(traits.owner);
    for (const auto &mount : build.frame->motorMounts) {
        if (!(mount.propDiameter_mm > 0)) continue;
        Body disc;
        constexpr double kBlade_mm = 1.0;
        disc.shape = Cylinder{mount.propDiameter_mm, kBlade_mm};
        disc.X_FrameBody = {propCentre_mm(mount), Quat::FromTwoVectors(Vec3::UnitZ(), mount.axis)};
        const auto owner = std::find_if(scene.owners.begin(), scene.owners.end(), [&](const BodyOwner &o) {
            return o.kind == OwnerKind::disc && o.id == mount.id;
        });
        if (owner == scene.owners.end()) continue;
        discs.push_back(disc);
        ownerOf.push_back(int(owner - scene.owners.begin()));
    }
    auto counts = [&](int body) {
        const BodyOwner &owner = scene.owners[std::size_t(ownerOf[std::size_t(body)])];
        return owner.kind != OwnerKind::disc && ownerOf[std::size_t(body)] != self && (owner.cases >> loadCase & 1);
    };
    return {RayWorld(bodies, counts, discs), std::move(ownerOf)};
}

CameraView cameraView(const CameraWorld &world, const Scene &scene, const Picture &picture, const CameraPose &pose) {
    CameraView view;
    view.tilt_deg = degreesFromRadians(std::asin(std::clamp(pose.R_FrameCamera(2, 0), -1.0, 1.0)));
    view.owner.reserve(picture.directions.size());
    std::vector<int> pixels(scene.owners.size(), 0);
    for (const auto &d : picture.directions) {
        const int body = world.rays.first(pose.lens_mm, pose.R_FrameCamera * d).body;
        const int owner = body < 0 ? -1 : world.ownerOf[std::size_t(body)];
        view.owner.push_back(owner);
        if (owner >= 0) ++pixels[std::size_t(owner)];
    }
    const double all = double(std::max<std::size_t>(1, picture.directions.size()));
    for (std::size_t o = 0; o < pixels.size(); ++o) {
        if (!pixels[o]) continue;
        const double share = pixels[o] / all;
        view.by.push_back({scene.owners[o].id, share});
        (scene.owners[o].kind == OwnerKind::disc ? view.propellers : view.hidden) += share;
    }
    std::stable_sort(view.by.begin(), view.by.end(), [](const auto &a, const auto &b) { return a.share > b.share; });
    return view;
}

std::optional<double> lensOvershoot_mm(const Build &build, const Scene &scene, int self, const Vec3 &lens_mm) {
    std::vector<int> shields;
    const auto &bodies = scene.world->bodies();
    for (std::size_t i = 0; i < bodies.size(); ++i) {
        const int owner = scene.traits[i].owner;
        const BodyOwner &o = scene.owners[std::size_t(owner)];
        bool protects = o.kind == OwnerKind::plate || o.kind == OwnerKind::arm || o.kind == OwnerKind::standoff;
        if (o.kind == OwnerKind::part && owner != self) {
            const Part *part = findPart(build, o.id);
            const PartType *type = part ? typeOf(build, *part) : nullptr;
            protects = type && type->kind == PartKind::mount && !part->optional;
        }
        if (protects) shields.push_back(int(i));
    }
    if (shields.empty()) return std::nullopt;
    double worst = -1e300;
    for (int step = -6; step <= 6; ++step) {
        const double angle = radiansFromDegrees(10.0 * step);
        const Vec3 d(std::cos(angle), 0, std::sin(angle));
        double reach = -1e300;
        for (int i : shields) {
            const Body &body = bodies[std::size_t(i)];
            reach = std::max(
                reach, d.dot(body.X_FrameBody * supportPoint(body.shape, body.X_FrameBody.rotation.conjugate() * d)));
        }
        worst = std::max(worst, d.dot(lens_mm) - reach);
    }
    return worst;
}

} // namespace waxis
