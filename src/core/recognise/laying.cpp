#include "core/recognise/laying.h"

#include "core/geometry/polygon.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

const FoundPattern *stackOf(const FoundPlate &plate) {
    const FoundPattern *best = nullptr;
    for (const auto &p : plate.patterns)
        if (p.use == PatternUse::stack && (!best || p.pattern.size_mm > best->pattern.size_mm)) best = &p;
    return best;
}

bool overlap(const Ring &a, const Ring &b) {
    auto box = [](const Ring &ring) {
        Vec2 low = Vec2::Constant(1e300), high = Vec2::Constant(-1e300);
        for (const auto &p : ring) {
            low = low.cwiseMin(p);
            high = high.cwiseMax(p);
        }
        return std::pair(low, high);
    };
    const auto [la, ha] = box(a);
    const auto [lb, hb] = box(b);
    return (la.array() < hb.array()).all() && (lb.array() < ha.array()).all();
}

/// Boards and motors have their own holes; posts stand in the others.
bool mayBearPost(const FoundPlate &plate, const FoundHole &hole) {
    if (hole.pattern < 0 || std::size_t(hole.pattern) >= plate.patterns.size()) return true;
    const PatternUse use = plate.patterns[std::size_t(hole.pattern)].use;
    return use != PatternUse::motor && use != PatternUse::stack;
}

/// The shift that lays the most screw holes of a plate on those of another: where the same posts go through both.
struct HoleShift {
    Vec2 shift_mm = Vec2::Zero();
    int common = 0;
};

/// None with fewer than three in common; of equal ones the nearest to `near_mm`.
std::optional<HoleShift> shiftByHoles(const FoundPlate &plate, const FoundPlate &base, const Vec2 &near_mm) {
    constexpr double kSame_mm = 0.25, kSize_mm = 0.3;
    constexpr std::size_t kMost = 150; // beyond, it is a sieve and not a plate
    constexpr int kLeast = 3;
    if (plate.holes.size() > kMost || base.holes.size() > kMost) return std::nullopt;
    const auto alike = [&](const FoundHole &a, const FoundHole &b) { // a of the plate, b of the base
        return std::abs(a.diameter_mm - b.diameter_mm) < kSize_mm && mayBearPost(plate, a) && mayBearPost(base, b);
    };
    std::optional<HoleShift> best;
    for (const auto &own : plate.holes)
        for (const auto &other : base.holes) {
            if (!alike(own, other)) continue;
            const Vec2 shift = other.centre_mm - own.centre_mm;
            const auto meets = [&](const FoundHole &hole) {
                return std::any_of(base.holes.begin(), base.holes.end(), [&](const FoundHole &b) {
                    return alike(hole, b) && (hole.centre_mm + shift - b.centre_mm).norm() < kSame_mm;
                });
            };
            const int common = int(std::count_if(plate.holes.begin(), plate.holes.end(), meets));
            const int most = best ? best->common : kLeast - 1;
            const bool nearer = best && common == most && (shift - near_mm).norm() < (best->shift_mm - near_mm).norm();
            if (common > most || nearer) best = HoleShift{shift, common};
        }
    return best;
}

/// Plates that may be laid: drawn beside the main one, and by nobody's hand.
bool liesBeside(const Recognition &found, const DrawingChoices &choices, std::size_t plate, std::size_t base) {
    return plate != base && isChosen(choices, plate) && choices.plates[plate].role != PlateRole::arm &&
           !choices.plates[plate].shift_mm && !overlap(found.plates[plate].outline_mm, found.plates[base].outline_mm);
}

/// An angle in (-span / 2, span / 2], the same but for whole spans.
double folded(double angle_deg, double span_deg) {
    return angle_deg - span_deg * std::ceil(angle_deg / span_deg - 0.5);
}

} // namespace

bool isChosen(const DrawingChoices &choices, std::size_t i) {
    return i < choices.plates.size() && choices.plates[i].role != PlateRole::ignore;
}

std::size_t basePlate(const Recognition &found, const DrawingChoices &choices) {
    std::size_t base = found.plates.size();
    for (std::size_t i = found.plates.size(); i-- > 0;)
        if (isChosen(choices, i) && (base == found.plates.size() || choices.plates[i].role == PlateRole::main))
            base = i;
    if (base == found.plates.size() || choices.plates[base].role == PlateRole::main) return base;
    for (std::size_t i = 0; i < found.plates.size(); ++i)
        if (isChosen(choices, i) && found.plates[i].area_mm2 > found.plates[base].area_mm2) base = i;
    return base;
}

Vec2 anchorOf(const FoundPlate &plate) {
    if (const auto *stack = stackOf(plate)) return stack->centre_mm;
    Vec2 sum = Vec2::Zero();
    int n = 0;
    for (const auto &p : plate.patterns)
        if (p.use == PatternUse::motor) {
            sum += p.centre_mm;
            ++n;
        }
    return n >= 3 ? Vec2(sum / n) : areaProperties({plate.outline_mm, {}}).centroid_mm;
}

std::vector<Vec2> plateShifts(const Recognition &found, const DrawingChoices &choices) {
    const std::size_t base = basePlate(found, choices);
    std::vector<Vec2> shift(found.plates.size(), Vec2::Zero());
    for (std::size_t i = 0; i < found.plates.size() && base < found.plates.size(); ++i)
        if (i != base && i < choices.plates.size() && choices.plates[i].shift_mm)
            shift[i] = *choices.plates[i].shift_mm;
        else if (liesBeside(found, choices, i, base)) {
            shift[i] = anchorOf(found.plates[base]) - anchorOf(found.plates[i]);
            if (const auto byHoles = shiftByHoles(found.plates[i], found.plates[base], shift[i]))
                shift[i] = byHoles->shift_mm;
        }
    return shift;
}

Vec2 snapShift(const Recognition &found, const DrawingChoices &choices, std::size_t plate, const Vec2 &wanted_mm,
               double reach_mm) {
    const std::size_t base = basePlate(found, choices);
    if (plate >= found.plates.size() || base >= found.plates.size() || plate == base) return wanted_mm;
    constexpr double kSize_mm = 0.3;
    Vec2 best = wanted_mm;
    double nearest = reach_mm;
    for (const auto &own : found.plates[plate].holes)
        for (const auto &other : found.plates[base].holes) {
            if (std::abs(own.diameter_mm - other.diameter_mm) > kSize_mm) continue;
            const Vec2 shift = other.centre_mm - own.centre_mm;
            const double away = (shift - wanted_mm).norm();
            if (away >= nearest) continue;
            nearest = away;
            best = shift;
        }
    return best;
}

FoundPlate turnedPlate(FoundPlate plate, double angle_deg) {
    // Quarter turns exactly, so that four of them bring back what was drawn.
    const double quarters = angle_deg / 90;
    const bool square = std::abs(quarters - std::round(quarters)) < 1e-9;
    const double angle = angle_deg * M_PI / 180;
    const double c = square ? std::round(std::cos(angle)) : std::cos(angle);
    const double s = square ? std::round(std::sin(angle)) : std::sin(angle);
    const Vec2 middle = areaProperties({plate.outline_mm, {}}).centroid_mm;
    const auto turn = [&](Vec2 &p) {
        const Vec2 d = p - middle;
        p = middle + Vec2(c * d.x() - s * d.y(), s * d.x() + c * d.y());
    };
    for (auto &p : plate.outline_mm) turn(p);
    for (auto &hole : plate.holes) turn(hole.centre_mm);
    for (auto &slot : plate.cutouts) {
        for (auto &p : slot.ring) turn(p);
        turn(slot.centre_mm);
        slot.angle_deg = folded(slot.angle_deg + angle_deg, 180);
    }
    for (auto &pattern : plate.patterns) {
        turn(pattern.centre_mm);
        pattern.angle_deg = folded(pattern.angle_deg + angle_deg, 90);
    }
    return plate;
}

void turnPlate(Recognition &found, DrawingChoices &choices, std::size_t plate, double to_deg) {
    if (plate >= found.plates.size() || plate >= choices.plates.size()) return;
    const double by_deg = to_deg - choices.plates[plate].turn_deg;
    if (by_deg == 0) return;
    const Vec2 middle = areaProperties({found.plates[plate].outline_mm, {}}).centroid_mm;
    const Eigen::Rotation2Dd turn(by_deg * M_PI / 180);
    found.plates[plate] = turnedPlate(std::move(found.plates[plate]), by_deg);
    for (auto &fault : found.faults)
        if (fault.plate == plate) fault.at_mm = middle + turn * (fault.at_mm - middle);
    choices.plates[plate].turn_deg = folded(to_deg, 360);
}

void turnByHoles(Recognition &found, DrawingChoices &choices) {
    const std::size_t base = basePlate(found, choices);
    if (base >= found.plates.size()) return;
    for (std::size_t i = 0; i < found.plates.size(); ++i) {
        if (!liesBeside(found, choices, i, base)) continue;
        const Vec2 near = anchorOf(found.plates[base]) - anchorOf(found.plates[i]);
        int most = 0;
        double best_deg = 0;
        for (const double turn_deg : {0.0, 90.0, 180.0, -90.0}) {
            const auto laid = shiftByHoles(turnedPlate(found.plates[i], turn_deg), found.plates[base], near);
            if (!laid || laid->common <= most) continue;
            most = laid->common;
            best_deg = turn_deg;
        }
        if (best_deg != 0) turnPlate(found, choices, i, best_deg);
    }
}

} // namespace waxis
