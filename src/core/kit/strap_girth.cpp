#include "core/kit/strap_girth.h"

#include "core/base/by_id.h"

#include <algorithm>
#include <set>

namespace waxis {

namespace {

std::optional<Vec3> sortedSize(const PartType &type, bool softToo) {
    Aabb bounds;
    for (const auto &solid : type.solids)
        if (softToo || solid.role != SolidRole::soft) bounds.include(boundsOf(solid.shape, solid.X_PartSolid));
    if (bounds.empty()) return std::nullopt;
    Vec3 size = bounds.size_mm();
    std::sort(size.data(), size.data() + 3);
    return size;
}

} // namespace

std::optional<double> strapGirth_mm(const Build &build, const Part &part) {
    const PartType *type = typeOf(build, part);
    const auto size = type ? sortedSize(*type, false) : std::nullopt;
    if (!size) return std::nullopt;
    const Frame &frame = *build.frame;
    std::set<std::string> under(part.fastening.onto.begin(), part.fastening.onto.end());
    if (const Site *site = byId(frame.sites, part.placement.site)) under.insert(site->on);
    double beneath = 0;
    for (const auto &id : under) {
        if (const Plate *plate = byId(frame.plates, id)) beneath += plate->thickness_mm;
        if (const Arm *arm = byId(frame.arms, id)) beneath += arm->thickness_mm;
        const Part *other = findPart(build, id);
        const PartType *pad = other ? typeOf(build, *other) : nullptr;
        if (pad && pad->kind == PartKind::pad)
            if (const auto thick = sortedSize(*pad, true)) beneath += thick->x();
    }
    return 2 * (size->x() + size->y() + beneath);
}

std::optional<StrapTask> strapTaskOf(const Build &build, const Part &strap) {
    std::optional<StrapTask> task;
    const auto &onto = strap.fastening.onto;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        const auto &theirs = part.fastening.onto;
        const bool held = std::find(onto.begin(), onto.end(), part.id) != onto.end() ||
                          std::find(theirs.begin(), theirs.end(), strap.id) != theirs.end();
        if (!held || &part == &strap || !type || type->kind == PartKind::pad || type->kind == PartKind::strap ||
            type->kind == PartKind::tube)
            continue;
        const auto girth = strapGirth_mm(build, part);
        if (girth && (!task || *girth > task->girth_mm)) task = StrapTask{part.id, *girth, 0};
    }
    if (!task) return task;
    const auto size = sortedSize(*typeOf(build, strap), true);
    constexpr double kTieWide_mm = 8; // narrower than any battery strap
    const bool tie = size && size->y() < kTieWide_mm;
    task->overlap_mm = tie ? kTieOverlap_mm : kStrapOverlap_mm;
    return task;
}

} // namespace waxis
