#include "core/build/on_mount.h"

#include "core/base/by_id.h"

namespace waxis {

const MotorMount *mountOf(const Build &build, const std::string &id) { return byId(build.frame->motorMounts, id); }

const PartType *typeOn(const Build &build, const std::string &mount, PartKind kind, const LoadCase *loadCase) {
    for (const auto &part : build.parts) {
        if (part.placement.site != mount || (loadCase && !isAboard(part, *loadCase))) continue;
        if (const PartType *type = typeOf(build, part); type && type->kind == kind) return type;
    }
    return nullptr;
}

HubFit hubFit(double bore_mm, double shaft_mm) {
    constexpr double kRound_mm = 1e-9;
    const double room = bore_mm - shaft_mm;
    return room < -kRound_mm ? HubFit::narrow : room > kHubPlay_mm + kRound_mm ? HubFit::wide : HubFit::fits;
}

} // namespace waxis
