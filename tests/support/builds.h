// Small builds for tests.
#pragma once

#include "core/build/build.h"
#include "io/project/project_file.h"

#include <QtTest>
#include <random>
#include <set>

namespace waxis::test {

inline Build stakewalker() {
    auto loaded = loadBuild(WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis");
    if (!loaded) qFatal("demo not read: %s", loaded.error().text().c_str());
    return loaded->build;
}

inline Solid solidBox(Vec3 size, Vec3 at = Vec3::Zero()) {
    return {Box{size}, {at, Quat::Identity()}, SolidRole::body, {}, false};
}

/// Four motors on a square, nothing else.
inline Build bareQuad(double half_mm = 100, double prop_mm = 127) {
    Build build;
    build.name = "Bare quad";
    Frame frame;
    int n = 0;
    for (double x : {half_mm, -half_mm})
        for (double y : {half_mm, -half_mm}) {
            MotorMount mount;
            mount.id = "m" + std::to_string(++n);
            mount.position_mm = {x, y, 0};
            mount.propDiameter_mm = prop_mm;
            mount.propPlane_mm = 20;
            mount.number = n;
            mount.spin = x * y > 0 ? Spin::clockwise : Spin::counterClockwise;
            frame.motorMounts.push_back(mount);
        }
    frame.numbering = "own";
    build.frame = frame;
    return build;
}

inline Part &addBox(Build &build, const std::string &id, Vec3 size, Vec3 at, double mass_g,
                    PartKind kind = PartKind::other) {
    PartType type;
    type.id = id + "-type";
    type.name = id;
    type.kind = kind;
    type.solids = {solidBox(size)};
    type.mass_g = catalogueValue(mass_g);
    build.types.edit([&](TypeTable &table) { table[type.id] = type; });
    Part part;
    part.id = id;
    part.type = type.id;
    part.name = id;
    part.placement.pose.position_mm = at;
    build.parts.push_back(part);
    return build.parts.back();
}

inline PartType &typeIn(TypeTable &table, const std::string &part) { return table.at(part + "-type"); }

} // namespace waxis::test
