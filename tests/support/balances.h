// A small craft to balance, for tests.
#pragma once

#include "core/analysis/analysis.h"
#include "core/rules/rule.h"
#include "support/builds.h"

namespace waxis::test {

/// A quad with motors, a pack on a line and a camera in front, free of anything else.
inline Build balancedQuad(double camera_g = 40) {
    Build build = bareQuad();
    for (int i = 0; i < 4; ++i) {
        Part &motor = addBox(build, "motor-" + std::to_string(i + 1), {28, 28, 15}, {0, 0, 8}, 30, PartKind::motor);
        motor.placement.site = "m" + std::to_string(i + 1);
    }
    build.types.edit([](TypeTable &types) {
        for (auto &[id, type] : types) type.maxThrust_gf = catalogueValue(800);
    });
    Part &pack = addBox(build, "pack", {70, 35, 30}, {-5, 0, 30}, 200, PartKind::battery);
    pack.slide = SlideRange{Vec3::UnitX(), -40, 40};
    Part &camera = addBox(build, "camera", {20, 20, 20}, {70, 0, 20}, camera_g, PartKind::flightCamera);
    camera.optional = true;
    build.loadCases = {{"with", "With camera", {"camera"}, "pack", false}, {"without", "Without", {}, "pack", false}};
    return build;
}

inline std::size_t indexOf(const Build &build, const std::string &part) {
    return std::size_t(findPart(build, part) - build.parts.data());
}

inline const Finding *find(const Analysis &analysis, RuleId rule, const std::string &variant = {}) {
    for (const auto *list : {&analysis.findings, &analysis.passes})
        for (const auto &f : *list)
            if (f.rule == rule && (variant.empty() || f.variant == variant)) return &f;
    return nullptr;
}

} // namespace waxis::test
