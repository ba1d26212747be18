#include "core/coverage/coverage.h"

#include "core/base/units.h"
#include "core/radio/coupling.h"
#include "core/radio/decibel.h"
#include "core/scene/scene.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace waxis {

namespace {

/// Level that nine tenths of all directions reach.
double tenthOf(std::vector<float> levels) {
    if (levels.empty()) return 0;
    const auto at = levels.begin() + std::ptrdiff_t(levels.size() / 10);
    std::nth_element(levels.begin(), at, levels.end());
    return *at;
}

struct Sector {
    int height = 0; ///< -1 low, 0 level, 1 high
    int side = 0;   ///< eighths of a turn from the nose, left positive: 0 to 7
};
Sector sectorOf(const Vec3 &direction) {
    const double elevation = degreesFromRadians(std::asin(std::clamp(direction.z(), -1.0, 1.0)));
    const double azimuth = degreesFromRadians(std::atan2(direction.y(), direction.x()));
    return {elevation < -20 ? -1 : elevation > 20 ? 1 : 0, int(std::lround(azimuth / 45 + 8)) % 8};
}

std::string wordsOf(const Sector &sector) {
    static constexpr std::array<const char *, 8> kSides{"ahead",  "ahead, left",   "left",  "behind, left",
                                                        "behind", "behind, right", "right", "ahead, right"};
    static constexpr std::array<const char *, 3> kHeights{"low, ", "level, ", "high, "};
    return std::string(kHeights[std::size_t(sector.height + 1)]) + kSides[std::size_t(sector.side)];
}

} // namespace

const std::vector<Vec3> &coverageDirections() {
    static const std::vector<Vec3> directions = evenDirections(kCoverageRays, false);
    return directions;
}

std::string directionInWords(const Vec3 &direction) { return wordsOf(sectorOf(direction)); }

RayWorld radioWorld(const Build &build, const Scene &scene, int loadCase, double thick_mm) {
    std::vector<bool> transparent;
    for (const auto &owner : scene.owners) {
        const Part *part = owner.kind == OwnerKind::part ? findPart(build, owner.id) : nullptr;
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        transparent.push_back(type && (type->antenna || type->kind == PartKind::tube));
    }
    return RayWorld(scene.world->bodies(), [&](int body) {
        const auto owner = std::size_t(scene.traits[std::size_t(body)].owner);
        return !transparent[owner] && (scene.owners[owner].cases >> loadCase & 1) &&
               hidesSky(scene, body, build, thick_mm);
    });
}

AntennaCoverage coverageOf(const AntennaUse &use, const RayWorld &world, const Scene &scene, double lambda_mm) {
    AntennaCoverage coverage;
    coverage.part = use.part;
    const auto &directions = coverageDirections();
    const auto bodies = world.firstBodies(use.centre_mm, directions);
    std::vector<int> by(scene.owners.size(), 0);
    struct Sum {
        int all = 0, lost = 0;
        double power = 0;
    };
    std::array<Sum, 6> belts{};
    coverage.best_dBi = -300;
    for (std::size_t i = 0; i < directions.size(); ++i) {
        int owner = -1;
        if (bodies[i] >= 0) {
            const Body &body = scene.world->bodies()[std::size_t(bodies[i])];
            if (boundsOf(body.shape, body.X_FrameBody).size_mm().norm() >= lambda_mm / 2)
                owner = scene.traits[std::size_t(bodies[i])].owner;
        }
        const double level =
            patternGain_dBi(use.pattern, use.axis.dot(directions[i])) - (owner >= 0 ? kShadowLoss_dB : 0);
        coverage.level_dBi.push_back(float(level));
        coverage.owner.push_back(owner);
        coverage.best_dBi = std::max(coverage.best_dBi, level);
        const double elevation = degreesFromRadians(std::asin(std::clamp(directions[i].z(), -1.0, 1.0)));
        Sum &belt = belts[std::size_t(std::clamp(int((elevation + 90) / 30), 0, 5))];
        ++belt.all;
        belt.power += powerRatio(level);
        if (owner < 0) continue;
        ++belt.lost;
        ++by[std::size_t(owner)];
        coverage.lost += 1.0 / double(directions.size());
    }
    for (std::size_t b = 0; b < belts.size(); ++b)
        coverage.belts.push_back({-90 + 30.0 * double(b), -60 + 30.0 * double(b), double(belts[b].lost) / belts[b].all,
                                  decibels(belts[b].power / belts[b].all)});
    for (std::size_t o = 0; o < by.size(); ++o)
        if (by[o] > 0) coverage.by.push_back({scene.owners[o].id, double(by[o]) / double(directions.size())});
    std::stable_sort(coverage.by.begin(), coverage.by.end(),
                     [](const HiddenShare &a, const HiddenShare &b) { return a.share > b.share; });
    coverage.tenth_dBi = tenthOf(coverage.level_dBi);
    return coverage;
}

RadioCoverage coverageOf(const RadioUse &radio, const RayWorld &world, const Scene &scene) {
    RadioCoverage coverage;
    coverage.radio = radio.id();
    for (const auto &use : radio.antennas)
        coverage.antennas.push_back(coverageOf(use, world, scene, wavelength_mm(radio.centre_MHz)));
    if (coverage.antennas.empty()) return coverage;
    std::vector<float> best = coverage.antennas[0].level_dBi;
    double single = coverage.antennas[0].tenth_dBi;
    for (const auto &antenna : coverage.antennas) {
        for (std::size_t i = 0; i < best.size(); ++i) best[i] = std::max(best[i], antenna.level_dBi[i]);
        single = std::max(single, antenna.tenth_dBi);
    }
    coverage.tenth_dBi = tenthOf(best);
    coverage.diversity_dB = coverage.tenth_dBi - single;
    struct Sum {
        double power = 0;
        int count = 0;
        Vec3 middle = Vec3::Zero();
    };
    std::array<Sum, 24> sectors{};
    const auto &directions = coverageDirections();
    for (std::size_t i = 0; i < best.size(); ++i) {
        const Sector at = sectorOf(directions[i]);
        Sum &sum = sectors[std::size_t((at.height + 1) * 8 + at.side)];
        sum.power += powerRatio(best[i]);
        sum.middle += directions[i];
        ++sum.count;
    }
    coverage.worst_dBi = 300;
    for (const auto &sum : sectors) {
        if (sum.count == 0) continue;
        const double level = decibels(sum.power / sum.count);
        if (level >= coverage.worst_dBi) continue;
        coverage.worst_dBi = level;
        coverage.worstDirection = sum.middle.normalized();
    }
    coverage.worst = directionInWords(coverage.worstDirection);
    return coverage;
}

LineShadow shadowOf(const RayWorld &world, const Scene &scene, const AntennaUse &from, const AntennaUse &to) {
    LineShadow shadow;
    shadow.from = from.part;
    shadow.to = to.part;
    const Vec3 way = to.centre_mm - from.centre_mm;
    const double length = way.norm();
    if (length < 1 || world.sees(from.centre_mm, to.centre_mm)) return shadow;
    const Vec3 along = way / length;
    // What stands there, going on behind each hit.
    Vec3 at = from.centre_mm;
    double first = -1, last = 0;
    for (int hop = 0; hop < 40; ++hop) {
        const auto hit = world.first(at, along);
        const double reached = hit.body < 0 ? length : (at - from.centre_mm).norm() + hit.distance_mm;
        if (reached >= length) break;
        if (first < 0) first = reached;
        last = reached;
        const auto &owner = scene.owners[std::size_t(scene.traits[std::size_t(hit.body)].owner)].id;
        if (std::find(shadow.blockers.begin(), shadow.blockers.end(), owner) == shadow.blockers.end())
            shadow.blockers.push_back(owner);
        at = from.centre_mm + along * (reached + 0.01);
    }
    if (first < 0) return shadow;
    const double middle = std::clamp((first + last) / 2, 0.05 * length, 0.95 * length);
    const Vec3 centre = from.centre_mm + along * middle;
    const Vec3 u = along.unitOrthogonal(), v = along.cross(u);
    constexpr double kMost_mm = 200;
    double best = kMost_mm;
    for (int i = 0; i < 16; ++i) {
        const double angle = 2 * kPi * i / 16;
        const Vec3 aside = std::cos(angle) * u + std::sin(angle) * v;
        // Outwards in growing steps until both halves are free, then back to 1 mm.
        double low = 0, high = 2;
        const auto freeAt = [&](double h) {
            const Vec3 edge = centre + h * aside;
            return world.sees(from.centre_mm, edge) && world.sees(edge, to.centre_mm);
        };
        while (high < best && !freeAt(high)) {
            low = high;
            high *= 1.5;
        }
        if (high >= best) { // only a way nearer than the best so far is of interest
            high = best - 1;
            if (high <= low || !freeAt(high)) continue;
        }
        while (high - low > 1) {
            const double h = (low + high) / 2;
            (freeAt(h) ? high : low) = h;
        }
        best = std::min(best, high);
    }
    shadow.height_mm = best;
    shadow.d1_mm = middle;
    shadow.d2_mm = length - middle;
    return shadow;
}

} // namespace waxis
