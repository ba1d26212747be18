#include "core/studies/arm_shake.h"

#include "core/build/arm_of.h"
#include "core/build/frame_shapes.h"
#include "core/derived/all_up.h"
#include "core/layout/relayout.h"
#include "core/vibration/vibration.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace waxis {

namespace {

struct Stiffness {
    std::string_view material;
    double least_GPa, most_GPa;
};
constexpr std::array<Stiffness, 4> kStiffness{
    {{"carbon", 40, 70}, {"glass-laminate", 15, 25}, {"aluminium", 65, 75}, {"petg", 1.5, 2.5}}};

/// How far out the last plate that touches the arm holds it, mm from the root.
double heldTo_mm(const Frame &frame, const Arm &arm, double reach_mm) {
    constexpr double kTouching_mm = 0.5, kStep_mm = 1;
    const Vec3 out = (arm.tip_mm - arm.root_mm).normalized();
    double held = 0;
    for (const auto &plate : frame.plates) {
        const double over = plate.z_mm - arm.root_mm.z();
        const double under = arm.root_mm.z() - arm.thickness_mm - plate.z_mm - plate.thickness_mm;
        if (std::abs(over) > kTouching_mm && std::abs(under) > kTouching_mm) continue;
        const Polygon polygon{plate.outline_mm, {}};
        for (double s = held; s <= reach_mm; s += kStep_mm)
            if (contains(polygon, (arm.root_mm + s * out).head<2>())) held = s;
    }
    return held;
}

} // namespace

bool ArmShake::meetsTurns() const { return rotor && (rotor->turns.meets(up) || rotor->turns.meets(inPlane)); }
bool ArmShake::meetsBlades() const { return rotor && (rotor->pass.meets(up) || rotor->pass.meets(inPlane)); }

std::optional<ArmShake> armShake(const Build &build, const Analysis &analysis, const std::string &id,
                                 std::size_t loadCase) {
    const Frame &frame = *build.frame;
    const auto arm = std::find_if(frame.arms.begin(), frame.arms.end(), [&](const Arm &a) { return a.id == id; });
    if (arm == frame.arms.end()) return {};
    const auto stiff = std::find_if(kStiffness.begin(), kStiffness.end(),
                                    [&](const Stiffness &s) { return s.material == arm->material; });
    const Material *material = findMaterial(arm->material, frame.materials);
    const auto mount = std::find_if(frame.motorMounts.begin(), frame.motorMounts.end(), [&](const MotorMount &m) {
        const Arm *own = armOf(frame, m);
        return own && own->id == id;
    });
    if (stiff == kStiffness.end() || !material || mount == frame.motorMounts.end()) return {};
    ArmShake shake;
    bool motor = false;
    for (const auto &part : build.parts) {
        if (part.placement.site != mount->id) continue;
        shake.tip_g += gramsOf(analysis.derived, part.id).value_or(0);
        const PartType *type = typeOf(build, part);
        motor = motor || (type && type->kind == PartKind::motor);
    }
    const Vec3 out = (arm->tip_mm - arm->root_mm).normalized();
    const double reach = (mount->position_mm - arm->root_mm).dot(out);
    shake.free_mm = reach - heldTo_mm(frame, *arm, reach);
    if (!motor || !(shake.tip_g > 0) || !(shake.free_mm > 0)) return {};
    const ArmAcross across{arm->width_mm, arm->thickness_mm, isHollow(*arm) ? arm->wall_mm : 0.0,
                           arm->section == ArmSection::tube};
    const auto bending = [&](double E_GPa) {
        return armBending(across, shake.free_mm, E_GPa, material->density_g_cm3, shake.tip_g);
    };
    const ArmBending soft = bending(stiff->least_GPa), hard = bending(stiff->most_GPa);
    shake.up = {soft.up_Hz, hard.up_Hz};
    shake.inPlane = {soft.inPlane_Hz, hard.inPlane_Hz};
    shake.rotor = rotorTurns(build, analysis, std::size_t(mount - frame.motorMounts.begin()), loadCase);
    return shake;
}

} // namespace waxis
