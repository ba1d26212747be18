// Builds of any size at the density of a real craft: a shelf of decks full of small parts, some hot, some with bare
// contacts.
#pragma once

#include "core/build/build.h"

#include <cmath>
#include <string>

namespace waxis::bench {

inline Build syntheticBuild(int parts) {
    Build build;
    build.name = "Synthetic";
    Frame frame;
    const int side = std::max(1, int(std::cbrt(double(parts)) + 0.5));
    constexpr double kPitch_mm = 18;
    const double reach = side * kPitch_mm / 2 + 20;
    for (double x : {1.0, -1.0})
        for (double y : {1.0, -1.0}) {
            MotorMount mount;
            mount.id = "m" + std::to_string(frame.motorMounts.size() + 1);
            mount.position_mm = {x * (reach + 80), y * (reach + 80), 0};
            mount.propDiameter_mm = 150;
            mount.propPlane_mm = 25;
            frame.motorMounts.push_back(mount);
        }
    for (int level = 0; level <= side; level += 3) {
        Plate plate;
        plate.id = "deck-" + std::to_string(level);
        plate.outline_mm = {{-reach, -reach}, {reach, -reach}, {reach, reach}, {-reach, reach}};
        for (double x : {-0.8, 0.8})
            for (double y : {-0.8, 0.8}) plate.holes.push_back({{x * reach, y * reach}, 3.2});
        plate.z_mm = level * kPitch_mm - 2;
        plate.thickness_mm = 2;
        frame.plates.push_back(plate);
    }
    build.frame = frame;
    TypeTable types;
    for (int i = 0; i < 20; ++i) {
        PartType type;
        type.id = "type-" + std::to_string(i);
        type.name = type.id;
        type.kind = i == 0 ? PartKind::battery : PartKind::other;
        type.hot = i % 5 == 1;
        type.mass_g = catalogueValue(2 + i);
        const Vec3 size(10 + i % 4, 9 + i % 5, 8 + i % 3);
        Solid board{Box{{size.x(), size.y(), 1.6}}, {{0, 0, 1}, Quat::Identity()}, SolidRole::board, "fr4", i % 3 == 0};
        Solid body = i % 2
                         ? Solid{Box{size}, {{0, 0, 2 + size.z() / 2}, Quat::Identity()}, SolidRole::body, "abs", false}
                         : Solid{Cylinder{size.x(), size.z()},
                                 {{0, 0, 2 + size.z() / 2}, Quat::Identity()},
                                 SolidRole::component,
                                 "aluminium",
                                 false};
        type.solids = {board, body};
        types[type.id] = type;
    }
    build.types = types;
    for (int i = 0; i < parts; ++i) {
        Part part;
        part.id = "p" + std::to_string(i);
        part.name = part.id;
        part.type = "type-" + std::to_string(i * 7 % 20);
        const int x = i % side, y = i / side % side, z = i / side / side;
        part.placement.pose.position_mm = {(x - side / 2.0) * kPitch_mm, (y - side / 2.0) * kPitch_mm,
                                           z * kPitch_mm + 1};
        build.parts.push_back(part);
    }
    build.loadCases = {{"one", "One", {}, "", false}, {"two", "Two", {}, "", false}};
    return build;
}

} // namespace waxis::bench
