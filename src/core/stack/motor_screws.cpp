#include "core/stack/motor_screws.h"

#include "core/build/chain.h"
#include "core/build/frame_screws.h"
#include "core/build/frame_shapes.h"
#include "core/fasteners/screw.h"

#include <algorithm>
#include <limits>

namespace waxis {

namespace {

constexpr double kSame_mm = 1e-9;
constexpr double kThickest_mm = 12; // plates and flat arms; thicker ones are clamped, not pierced (common practice)

/// What a screw through the arm clamps; of a hollow one nobody knows: a clamp, a plug or its upper wall alone.
double gripOf(const Arm &arm) { return isHollow(arm) ? std::numeric_limits<double>::infinity() : arm.thickness_mm; }

/// What lies under the motor: the arm or plate that it is fastened onto, else the arm whose tip is nearest its mount.
void findGrip(const Build &build, const Part &motor, MotorScrews &screws) {
    const Frame &frame = *build.frame;
    for (const auto &id : motor.fastening.onto) {
        if (const Part *mount = findPart(build, id)) // a motor plate between motor and arm
            if (const PartType *type = typeOf(build, *mount);
                type && type->kind == PartKind::mount && screws.through.empty()) {
                const LayerSpan span = clampedSpan(*type);
                screws.through = id;
                screws.grip_mm = span.to_mm - span.from_mm;
            }
        for (const auto &arm : frame.arms)
            if (arm.id == id && screws.through.empty()) {
                screws.through = id;
                screws.grip_mm = gripOf(arm);
            }
        for (const auto &plate : frame.plates)
            if (plate.id == id && screws.through.empty()) {
                screws.through = id;
                screws.grip_mm = plate.thickness_mm;
            }
    }
    if (!screws.through.empty()) return;
    const Vec3 at = framePose(build, motor).position_mm;
    double nearest = 25; // a motor stands on its arm's end
    for (const auto &arm : frame.arms)
        if (const double off = (arm.tip_mm - at).norm(); off < nearest) {
            nearest = off;
            screws.through = arm.id;
            screws.grip_mm = gripOf(arm);
        }
}

/// What a screw beside the motor's axis goes through, one on the other from the motor's foot outwards: arms, plates,
/// and parts that are fastened to the motor or to one of these and lie under its holes (guards, feet, pads, washers).
void findClamped(const Build &build, const Part &motor, const PartType &type, MotorScrews &screws) {
    const Pose pose = framePose(build, motor);
    const Vec3 shaft = pose.rotation * Vec3::UnitZ();
    if (std::abs(shaft.z()) < 0.9) return; // a leaning motor: what it is fastened onto
    const auto holes = holeCentres(*type.mounting);
    const Vec2 at = (pose * Vec3(holes[0].x(), holes[0].y(), 0)).head<2>();
    const double away = shaft.z() > 0 ? -1 : 1; // from the motor to the heads
    struct Layer {
        std::string id;
        double low_mm, high_mm, thick_mm;
        bool arm;
    };
    std::vector<Layer> layers;
    for (const auto &arm : build.frame->arms)
        if (const auto span = uprightOf(*build.frame, arm.id, at))
            layers.push_back({arm.id, span->low_mm, span->high_mm, gripOf(arm), true});
    for (const auto &plate : build.frame->plates)
        if (const auto span = uprightOf(*build.frame, plate.id, at))
            layers.push_back({plate.id, span->low_mm, span->high_mm, plate.thickness_mm, false});
    for (const auto &part : build.parts) {
        const PartType *own = typeOf(build, part);
        if (!own || &part == &motor || own->kind == PartKind::motor || own->kind == PartKind::propeller) continue;
        const bool washer =
            own->fastener && (own->fastener->form == FastenerForm::washer || own->fastener->form == FastenerForm::shim);
        if (own->kind == PartKind::fastener && !washer) continue;
        const auto joined = [](const Part &a, const std::string &id) {
            return std::find(a.fastening.onto.begin(), a.fastening.onto.end(), id) != a.fastening.onto.end();
        };
        const bool screwed = part.fastening.method == FasteningMethod::screws &&
                             part.placement.site == motor.placement.site && !part.placement.site.empty();
        if (!joined(part, motor.id) && !joined(motor, part.id) && !screwed) continue;
        const Aabb box = partBounds(build, part);
        const double thick = box.max_mm.z() - box.min_mm.z();
        if (thick > kThickest_mm || (!washer && ((at.array() < box.min_mm.head<2>().array()).any() ||
                                                 (at.array() > box.max_mm.head<2>().array()).any())))
            continue;
        layers.push_back({part.id, box.min_mm.z(), box.max_mm.z(), thick, false});
    }
    constexpr double kTouch_mm = 0.3;
    double reached = pose.position_mm.z(), grip = 0;
    std::vector<std::string> clamped;
    for (bool found = true; found;) {
        found = false;
        for (const auto &layer : layers) {
            const double near = away < 0 ? layer.high_mm : layer.low_mm;
            if (std::find(clamped.begin(), clamped.end(), layer.id) != clamped.end() ||
                std::abs(near - reached) > kTouch_mm)
                continue;
            clamped.push_back(layer.id);
            grip += layer.thick_mm;
            reached = away < 0 ? layer.low_mm : layer.high_mm;
            found = true;
        }
    }
    if (clamped.empty()) return;
    const bool bears = std::any_of(layers.begin(), layers.end(), [&](const Layer &layer) {
        return findPart(build, layer.id) == nullptr &&
               std::find(clamped.begin(), clamped.end(), layer.id) != clamped.end();
    });
    if (!bears && clamped.size() < 2) return; // a motor plate alone: what findGrip says of it
    screws.through = clamped.front();
    screws.clamped = std::move(clamped);
    screws.grip_mm = grip;
}

} // namespace

MotorScrewOption judgeMotorScrew(double length, double grip, double least, std::optional<double> depth,
                                 double reserve) {
    MotorScrewOption option{length, length - grip, MotorScrewVerdict::good};
    if (option.engagement_mm < least - kSame_mm)
        option.verdict = MotorScrewVerdict::short_;
    else if (!depth)
        option.verdict = MotorScrewVerdict::unknownDepth;
    else if (option.engagement_mm > *depth - reserve + kSame_mm)
        option.verdict = MotorScrewVerdict::deep;
    return option;
}

std::optional<MotorScrews> motorScrewsFor(const Build &build, const Part &motor, const Practice &practice) {
    const PartType *type = typeOf(build, motor);
    if (!type || type->kind != PartKind::motor || !type->mounting || motor.fastening.method != FasteningMethod::screws)
        return std::nullopt;
    MotorScrews screws;
    screws.motor = motor.id;
    findClamped(build, motor, *type, screws);
    if (screws.clamped.empty()) findGrip(build, motor, screws);
    // Libraries give the hole that the screw fits: 2.2 mm for M2, 3.2 mm for M3.
    for (const auto &thread : threadSizes())
        if (thread.nominal_mm <= type->mounting->holeDiameter_mm + 1e-9) screws.thread = &thread;
    if (!screws.thread) return std::nullopt;
    screws.pieces = int(holeCentres(*type->mounting).size());
    screws.depth_mm = type->threadDepth_mm.value;
    screws.least_mm = practice[screws.thread->nominal_mm >= 3 ? Limit::motorEngagementM3 : Limit::motorEngagementM2];
    screws.reserve_mm = practice[Limit::motorReserve];
    for (const auto &other : build.parts) {
        const PartType *otherType = typeOf(build, other);
        if (!otherType || !otherType->fastener || otherType->fastener->form != FastenerForm::screw) continue;
        const auto &onto = other.fastening.onto;
        if (std::find(onto.begin(), onto.end(), motor.id) == onto.end()) continue;
        screws.placed = other.id;
        screws.placed_mm = otherType->fastener->length_mm;
        if (const ThreadSize *thread = findThread(otherType->fastener->thread)) screws.thread = thread;
    }
    if (screws.grip_mm > kThickest_mm || screws.through.empty()) { // a tube: the screws go through something else
        screws.gripKnown = false;
        return screws;
    }
    std::vector<MotorScrewOption> all;
    for (const double length : kStockLengths_mm)
        all.push_back(judgeMotorScrew(length, screws.grip_mm, screws.least_mm, screws.depth_mm, screws.reserve_mm));
    // Longest that is safe; where the depth is not known, the shortest that holds.
    for (const auto &option : all) {
        if (option.verdict == MotorScrewVerdict::good) screws.best_mm = option.length_mm;
        if (option.verdict == MotorScrewVerdict::unknownDepth && !screws.best_mm) screws.best_mm = option.length_mm;
    }
    const auto first = std::find_if(all.begin(), all.end(),
                                    [](const MotorScrewOption &o) { return o.verdict != MotorScrewVerdict::short_; });
    const auto from = std::max<std::ptrdiff_t>(0, (first - all.begin()) - 2);
    const auto to = std::min<std::ptrdiff_t>(std::ptrdiff_t(all.size()), (first - all.begin()) + 3);
    screws.options.assign(all.begin() + from, all.begin() + to);
    const auto length = screws.placed_mm ? screws.placed_mm : screws.best_mm;
    if (length)
        screws.now = judgeMotorScrew(*length, screws.grip_mm, screws.least_mm, screws.depth_mm, screws.reserve_mm);
    return screws;
}

bool sameTask(const MotorScrews &a, const MotorScrews &b) {
    return a.thread == b.thread && a.clamped.size() == b.clamped.size() && a.grip_mm == b.grip_mm &&
           a.gripKnown == b.gripKnown && a.depth_mm == b.depth_mm && a.placed_mm == b.placed_mm;
}

std::vector<MotorScrews> motorScrewsOf(const Build &build, const Practice &practice) {
    std::vector<MotorScrews> all;
    for (const auto &part : build.parts)
        if (auto screws = motorScrewsFor(build, part, practice)) all.push_back(std::move(*screws));
    return all;
}

} // namespace waxis
