#include "core/sight/lamp_view.h"

#include "core/base/units.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace waxis {

LampView lampView(const RayWorld &world, const Scene &scene, const Vec3 &position_mm, const Vec3 &outward, int self) {
    static const std::vector<Vec3> all = evenDirections(3000, false);
    constexpr double kBelt = 0.70710678118654752; // sine of 45 degrees
    constexpr int kSectors = 36;
    LampView view;
    int looked = 0, seen = 0;
    std::vector<int> hiddenBy(scene.owners.size(), 0);
    std::array<int, kSectors> seenIn{};
    const Vec3 origin = position_mm + 0.2 * outward; // off the board
    for (const auto &d : all) {
        if (std::abs(d.z()) > kBelt) continue;
        ++looked;
        if (d.dot(outward) < 0) {
            ++hiddenBy[std::size_t(self)];
            continue;
        }
        const int body = world.first(origin, d).body;
        if (body >= 0) {
            ++hiddenBy[std::size_t(scene.traits[std::size_t(body)].owner)];
            continue;
        }
        ++seen;
        const double azimuth = degreesFromRadians(std::atan2(d.y(), d.x())) + 180;
        ++seenIn[std::size_t(std::clamp(int(azimuth / 10), 0, kSectors - 1))];
    }
    view.seen = double(seen) / looked;
    for (std::size_t o = 0; o < hiddenBy.size(); ++o)
        if (hiddenBy[o]) view.by.push_back({scene.owners[o].id, double(hiddenBy[o]) / looked});
    std::stable_sort(view.by.begin(), view.by.end(), [](const auto &a, const auto &b) { return a.share > b.share; });
    // The widest run of sectors from which nothing is seen, round the circle.
    int best = 0, bestStart = 0;
    for (int start = 0; start < kSectors; ++start) {
        int run = 0;
        while (run < kSectors && seenIn[std::size_t((start + run) % kSectors)] == 0) ++run;
        if (run > best) {
            best = run;
            bestStart = start;
        }
    }
    view.darkSector_deg = 10.0 * best;
    view.darkest_deg = std::remainder(10.0 * (bestStart + best / 2.0) - 180, 360);
    return view;
}

} // namespace waxis
