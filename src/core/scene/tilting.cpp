#include "core/scene/tilting.h"

#include "core/base/by_id.h"
#include "core/build/arm_of.h"

#include <algorithm>

namespace waxis {

const Part *tiltingServo(const Build &build, const MotorMount &mount) {
    const Arm *arm = armOf(*build.frame, mount);
    if (!arm) return nullptr;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->kind != PartKind::servo) continue;
        const auto &onto = part.fastening.onto;
        const Site *site = byId(build.frame->sites, part.placement.site);
        if (std::find(onto.begin(), onto.end(), arm->id) != onto.end() || (site && site->on == arm->id)) return &part;
    }
    return nullptr;
}

} // namespace waxis
