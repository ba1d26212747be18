#include "core/edits/shield_edits.h"

#include "core/catalog/material.h"
#include "core/catalog/part_bounds.h"
#include "core/edits/hung_on.h"

#include <cmath>
#include <fmt/format.h>

namespace waxis {

std::optional<ShieldSheet> shieldSheet(const PartType &module, const ShieldUnder &shield) {
    const Aabb box = firmBounds(module);
    if (box.empty()) return std::nullopt;
    const Vec3 middle = (box.min_mm + box.max_mm) / 2, size = box.size_mm();
    return ShieldSheet{{middle.x(), middle.y(), box.min_mm.z()},
                       {size.x() + 2 * shield.beyond_mm, size.y() + 2 * shield.beyond_mm}};
}

/// Copper foil of these sides as a part type.
static PartType sheetType(const Vec2 &size_mm, const std::vector<Material> &own) {
    PartType type;
    type.id = fmt::format("shield-{:.0f}x{:.0f}", size_mm.x(), size_mm.y());
    type.name = fmt::format("Copper shield, {:.0f} x {:.0f} mm", size_mm.x(), size_mm.y());
    type.kind = PartKind::other;
    Solid sheet;
    const Vec3 size(std::round(size_mm.x()), std::round(size_mm.y()), kShieldThickness_mm);
    sheet.shape = Box{size};
    sheet.X_PartSolid.position_mm = {0, 0, -kShieldThickness_mm / 2};
    sheet.role = SolidRole::shield;
    sheet.material = "copper";
    type.solids.push_back(sheet);
    if (const Material *copper = findMaterial("copper", own))
        type.mass_g = {size.prod() * copper->density_g_cm3 / 1000, {}, Source::estimated};
    return type;
}

EditResult addShield(const Build &build, const std::string &id, const ShieldUnder &shield) {
    const Part *module = findPart(build, id);
    const PartType *type = module ? typeOf(build, *module) : nullptr;
    const auto sheet = type ? shieldSheet(*type, shield) : std::nullopt;
    if (!sheet) return Failure{EditError{fmt::format("There is nothing to lay a shield under: \"{}\".", id)}};
    const Pose X_FrameModule = framePose(build, *module);
    const Vec3 up = X_FrameModule.rotation * Vec3(0, 0, kShieldThickness_mm);
    const auto raised = bringAlong(build, shiftPart(build, id, up), id);
    if (!raised) return raised;
    const Pose X_FrameSheet{X_FrameModule * sheet->centre_mm + up, X_FrameModule.rotation};
    auto added = addPart(*raised, sheetType(sheet->size_mm, build.frame->materials), "shield", X_FrameSheet);
    if (!added) return added;
    Part &plate = added->parts.back();
    plate.fastening = {FasteningMethod::glue, module->fastening.onto, true, {}, {}};
    plate.fastening.onto.push_back(id);
    plate.optional = module->optional;
    for (auto &part : added->parts)
        if (part.id == id) part.fastening.onto.push_back(plate.id);
    for (auto &loadCase : added->loadCases)
        if (module->optional && isAboard(*module, loadCase)) loadCase.aboard.push_back(plate.id);
    return added;
}

} // namespace waxis
