#include "core/placing/faces.h"

#include "core/placing/offers.h"

#include <algorithm>
#include <cmath>

namespace waxis {

std::vector<Face> facesAt(const Frame &frame, const Vec2 &point_mm) {
    std::vector<const Plate *> over;
    for (const auto &plate : frame.plates)
        if (contains({plate.outline_mm, plate.cutouts_mm}, point_mm)) over.push_back(&plate);
    std::stable_sort(over.begin(), over.end(), [](const Plate *a, const Plate *b) { return a->z_mm < b->z_mm; });
    std::vector<Face> faces;
    for (std::size_t i = 0; i < over.size(); ++i) {
        const double bottom = over[i]->z_mm, top = bottom + over[i]->thickness_mm;
        std::optional<double> below, above;
        if (i > 0) below = bottom - (over[i - 1]->z_mm + over[i - 1]->thickness_mm);
        if (i + 1 < over.size()) above = over[i + 1]->z_mm - top;
        faces.push_back({over[i]->id, true, bottom, below});
        faces.push_back({over[i]->id, false, top, above});
    }
    // Plates that lie on one another leave nothing between them.
    constexpr double kLeast_mm = 0.5;
    std::erase_if(faces, [](const Face &face) { return face.room_mm && *face.room_mm < kLeast_mm; });
    return faces;
}

Pose onFace(const PartType &type, const Pose &wanted, const Face &face) {
    const Aabb box = boxAt(type, wanted.rotation);
    Pose there = wanted;
    there.position_mm.z() = face.z_mm - (face.under ? box.max_mm.z() : box.min_mm.z());
    return there;
}

int rungOf(const std::vector<Face> &faces, const PartType &type, const Pose &pose) {
    int best = -1;
    double nearest = 1e300;
    for (std::size_t i = 0; i < faces.size(); ++i) {
        const double off = std::abs(onFace(type, pose, faces[i]).position_mm.z() - pose.position_mm.z());
        if (off >= nearest) continue;
        nearest = off;
        best = int(i);
    }
    return best;
}

} // namespace waxis
