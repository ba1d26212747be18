// Patterns: two pairs of holes with the same middle are the diagonals of a rectangle (equally long) or a crossed base;
// a square has them at right angles. Its side is the diagonal / sqrt 2.
#include "core/recognise/features.h"

#include "core/base/units.h"
#include "core/geometry/hull.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace waxis {

namespace {

constexpr double kPatternOff_mm = 0.2;
constexpr std::array kStackSides_mm{16.0, 20.0, 25.5, 30.5};
constexpr std::array kMotorCircles_mm{9.0, 12.0, 16.0, 19.0, 25.0};

/// Angle folded into (-limit, limit] by whole steps of 2 * limit.
double folded(double angle_deg, double limit_deg) {
    while (angle_deg > limit_deg + 1e-9) angle_deg -= 2 * limit_deg;
    while (angle_deg <= -limit_deg + 1e-9) angle_deg += 2 * limit_deg;
    return std::abs(angle_deg) < 1e-9 ? 0.0 : angle_deg;
}

struct Diagonal {
    int a, b;
    Vec2 middle;
    double length;
    Vec2 direction;
};

template <std::size_t N>
std::optional<double> nominal(double size, const std::array<double, N> &table) {
    for (double value : table)
        if (std::abs(size - value) <= kPatternOff_mm) return value;
    return std::nullopt;
}

bool sizesAlike(const FoundHole &a, const FoundHole &b) { return std::abs(a.diameter_mm - b.diameter_mm) <= 0.15; }

/// A candidate with all that decides between it and others.
struct Candidate {
    FoundPattern pattern;
    double off_mm = 0;
};

} // namespace

std::optional<DrawnCircle> circleOf(const ClosedLoop &loop, double tolerance_mm) {
    if (loop.circle) return loop.circle;
    if (loop.ring.size() < 8) return std::nullopt;
    const AreaProperties area = areaProperties({loop.ring, {}});
    const Vec2 centre = area.centroid_mm;
    double least = 1e300, most = 0;
    for (std::size_t i = 0; i < loop.ring.size(); ++i) {
        const Vec2 &a = loop.ring[i], &b = loop.ring[(i + 1) % loop.ring.size()];
        most = std::max(most, (a - centre).norm());
        least = std::min({least, (a - centre).norm(), ((a + b) / 2 - centre).norm()});
    }
    if (most - least > 2 * tolerance_mm) return std::nullopt;
    return DrawnCircle{centre, most + least}; // corners lie on the circle or just outside, chords just inside
}

FoundSlot slotOf(const ClosedLoop &loop) {
    FoundSlot slot;
    slot.ring = loop.ring;
    const auto area = areaProperties({loop.ring, {}});
    slot.area_mm2 = std::abs(area.area_mm2);
    const auto hull = convexHull({loop.ring.begin(), loop.ring.end()});
    double smallest = 1e300;
    for (std::size_t i = 0; i < hull.size(); ++i) {
        const Vec2 along = (hull[(i + 1) % hull.size()] - hull[i]).normalized(), across(-along.y(), along.x());
        double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
        for (const auto &p : hull) {
            x0 = std::min(x0, p.dot(along));
            x1 = std::max(x1, p.dot(along));
            y0 = std::min(y0, p.dot(across));
            y1 = std::max(y1, p.dot(across));
        }
        if ((x1 - x0) * (y1 - y0) >= smallest - 1e-9) continue;
        smallest = (x1 - x0) * (y1 - y0);
        const bool turned = y1 - y0 > x1 - x0;
        slot.length_mm = std::max(x1 - x0, y1 - y0);
        slot.width_mm = std::min(x1 - x0, y1 - y0);
        const Vec2 direction = turned ? across : along;
        slot.angle_deg = folded(degreesFromRadians(std::atan2(direction.y(), direction.x())), 90);
        slot.centre_mm = along * ((x0 + x1) / 2) + across * ((y0 + y1) / 2);
    }
    const double w = slot.width_mm, obround = w * (slot.length_mm - w) + kPi / 4 * w * w;
    slot.roundEnds = std::abs(slot.area_mm2 - obround) < 0.01 * obround;
    const bool straight = slot.roundEnds || slot.area_mm2 > 0.9 * slot.length_mm * w;
    if (straight && w >= 1.2 && w <= 4 && slot.length_mm <= 9)
        slot.use = SlotUse::tie;
    else if (straight && w >= 2 && w <= 6 && slot.length_mm >= 12 && slot.length_mm <= 45)
        slot.use = SlotUse::strap;
    else if (slot.area_mm2 > 500)
        slot.use = SlotUse::window;
    return slot;
}

namespace {

using Middles = std::map<std::pair<long, long>, std::vector<Diagonal>>;

/// Pairs by their middle, on a grid: only near holes are compared. Empty where there are too many to mean anything.
Middles diagonalsOf(const std::vector<FoundHole> &holes) {
    constexpr double kLongest_mm = 30.5 * 1.4143 + 0.5, kShortest_mm = 9 - kPatternOff_mm;
    std::vector<std::size_t> byX(holes.size());
    for (std::size_t i = 0; i < holes.size(); ++i) byX[i] = i;
    std::sort(byX.begin(), byX.end(),
              [&](std::size_t a, std::size_t b) { return holes[a].centre_mm.x() < holes[b].centre_mm.x(); });
    constexpr double kCell_mm = 0.25;
    Middles byMiddle;
    std::size_t pairs = 0;
    constexpr std::size_t kMostPairs = 100'000; // a perforated sheet: patterns mean nothing there
    for (std::size_t i = 0; i < byX.size(); ++i)
        for (std::size_t j = i + 1; j < byX.size(); ++j) {
            const FoundHole &a = holes[byX[i]], &b = holes[byX[j]];
            if (b.centre_mm.x() - a.centre_mm.x() > kLongest_mm) break;
            const Vec2 d = b.centre_mm - a.centre_mm;
            const double length = d.norm();
            if (length > kLongest_mm || length < kShortest_mm || !sizesAlike(a, b)) continue;
            if (a.diameter_mm > 6) continue;
            if (++pairs > kMostPairs) return {};
            const Vec2 middle = (a.centre_mm + b.centre_mm) / 2;
            byMiddle[{std::lround(middle.x() / kCell_mm), std::lround(middle.y() / kCell_mm)}].push_back(
                {int(byX[i]), int(byX[j]), middle, length, d / length});
        }
    return byMiddle;
}

/// The pattern that two diagonals make, if it is one that is used.
std::optional<Candidate> patternOf(const std::vector<FoundHole> &holes, const Diagonal &p, const Diagonal &q) {
    if (p.a == q.a || p.a == q.b || p.b == q.a || p.b == q.b) return std::nullopt;
    if ((p.middle - q.middle).norm() > kPatternOff_mm || std::abs(p.direction.dot(q.direction)) > 0.02)
        return std::nullopt;
    if (!sizesAlike(holes[std::size_t(p.a)], holes[std::size_t(q.a)])) return std::nullopt;
    Candidate c;
    FoundPattern &found = c.pattern;
    found.centre_mm = (p.middle + q.middle) / 2;
    found.holes = {p.a, p.b, q.a, q.b};
    double diameter = 0;
    for (int h : found.holes) diameter += holes[std::size_t(h)].diameter_mm / 4;
    found.pattern.holeDiameter_mm = std::round(diameter * 1000) / 1000;
    const double angle = degreesFromRadians(std::atan2(p.direction.y(), p.direction.x()));
    found.angle_deg = folded(angle - 45, 45);
    const double mean = (p.length + q.length) / 2;
    if (std::abs(p.length - q.length) <= kPatternOff_mm) {
        if (const auto side = nominal(mean / std::sqrt(2.0), kStackSides_mm)) {
            found.use = PatternUse::stack;
            found.pattern.shape = PatternShape::square;
            found.pattern.size_mm = *side;
            found.measured_mm = mean / std::sqrt(2.0);
            c.off_mm = std::abs(found.measured_mm - *side);
            return c;
        } else if (const auto circle = nominal(mean, kMotorCircles_mm)) {
            found.use = PatternUse::motor;
            found.pattern.shape = PatternShape::circle;
            found.pattern.size_mm = *circle;
            found.measured_mm = mean;
            c.off_mm = std::abs(mean - *circle);
            return c;
        }
    } else if (std::abs(std::min(p.length, q.length) - 16) <= kPatternOff_mm &&
               std::abs(std::max(p.length, q.length) - 19) <= kPatternOff_mm) {
        found.use = PatternUse::motor;
        found.pattern.shape = PatternShape::circle;
        found.pattern.size_mm = 16;
        found.secondSize_mm = 19;
        found.measured_mm = std::min(p.length, q.length);
        return c;
    }
    return std::nullopt;
}

/// All patterns that any diagonals make, those to be believed first.
std::vector<Candidate> candidatesIn(const std::vector<FoundHole> &holes) {
    const Middles byMiddle = diagonalsOf(holes);
    std::vector<Candidate> candidates;
    auto consider = [&](const Diagonal &p, const Diagonal &q) {
        if (auto candidate = patternOf(holes, p, q)) candidates.push_back(std::move(*candidate));
    };
    for (const auto &[cell, list] : byMiddle)
        for (std::size_t i = 0; i < list.size(); ++i) {
            for (std::size_t j = i + 1; j < list.size(); ++j) consider(list[i], list[j]);
            for (const auto &[dx, dy] : {std::pair{1L, 0L}, {0L, 1L}, {1L, 1L}, {1L, -1L}})
                if (const auto beside = byMiddle.find({cell.first + dx, cell.second + dy}); beside != byMiddle.end())
                    for (const auto &other : beside->second) consider(list[i], other);
        }
    for (auto &candidate : candidates) {
        FoundPattern &found = candidate.pattern;
        if (found.use != PatternUse::motor) continue;
        for (const auto &hole : holes)
            if ((hole.centre_mm - found.centre_mm).norm() < 0.5 && hole.diameter_mm > found.pattern.holeDiameter_mm)
                found.shaftHole = true;
    }
    std::stable_sort(candidates.begin(), candidates.end(), [](const Candidate &a, const Candidate &b) {
        if (a.pattern.shaftHole != b.pattern.shaftHole) return a.pattern.shaftHole;
        if (a.pattern.use != b.pattern.use) return a.pattern.use < b.pattern.use;
        if (a.pattern.pattern.size_mm != b.pattern.pattern.size_mm)
            return a.pattern.pattern.size_mm > b.pattern.pattern.size_mm;
        return a.off_mm < b.off_mm;
    });
    return candidates;
}

} // namespace

std::vector<FoundPattern> findPatterns(std::vector<FoundHole> &holes) {
    std::vector<FoundPattern> patterns;
    for (auto &candidate : candidatesIn(holes)) {
        auto &found = candidate.pattern;
        // Four screws round a stack that hold the arms look like a motor's; no motor stands there.
        constexpr double kAside_mm = 15;
        if (found.use == PatternUse::motor && !found.shaftHole &&
            std::any_of(patterns.begin(), patterns.end(), [&](const FoundPattern &p) {
                return p.use == PatternUse::stack && (p.centre_mm - found.centre_mm).norm() < kAside_mm;
            }))
            continue;
        if (std::any_of(found.holes.begin(), found.holes.end(),
                        [&](int h) { return holes[std::size_t(h)].pattern >= 0; }))
            continue;
        for (int h : found.holes) holes[std::size_t(h)].pattern = int(patterns.size());
        std::sort(found.holes.begin(), found.holes.end());
        patterns.push_back(found);
    }
    return patterns;
}

} // namespace waxis
