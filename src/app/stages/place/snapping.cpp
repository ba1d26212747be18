#include "app/stages/place/snapping.h"

#include "core/build/frame_shapes.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "core/edits/perch_edits.h"
#include "core/placing/usual_hold.h"
#include "core/rules/wording.h"

#include <QCoreApplication>
#include <algorithm>
#include <cmath>
#include <limits>

namespace waxis::place {

using drawing::View;

namespace {

QString say(const char *text) { return QCoreApplication::translate("Snapping", text); }

/// Bounds of the part's firm solids at a pose.
Aabb boundsAt(const PartType &type, const Pose &pose) {
    Aabb bounds;
    for (const auto &solid : type.solids)
        if (solid.role != SolidRole::soft) bounds.include(boundsOf(solid.shape, pose * solid.X_PartSolid));
    if (bounds.empty()) bounds.include(pose.position_mm);
    return bounds;
}

/// The nearest of several wishes along one axis.
class AxisWish {
public:
    explicit AxisWish(double reach_mm) : best_(reach_mm) {}
    void offer(double shift, double line, const QString &text, const std::string &plate = {}) {
        if (std::abs(shift) > best_) return;
        best_ = std::abs(shift);
        shift_ = shift;
        line_ = line;
        text_ = text;
        plate_ = plate;
    }
    bool any() const { return !text_.isEmpty(); }
    double shift() const { return shift_; }
    double line() const { return line_; }
    const QString &text() const { return text_; }
    const std::string &plate() const { return plate_; } ///< whose face it is

private:
    double best_, shift_ = 0, line_ = 0;
    QString text_;
    std::string plate_;
};

bool shows(View view, int axis) {
    switch (view) {
    case View::plan: return axis != 2;
    case View::side: return axis != 1;
    case View::front: return axis != 0;
    }
    return false;
}

QLineF guideThrough(View view, int axis, double at) {
    constexpr double kReach_mm = 2000;
    Vec3 a = Vec3::Constant(-kReach_mm), b = Vec3::Constant(kReach_mm);
    a[axis] = b[axis] = at;
    return {drawing::project(view, a), drawing::project(view, b)};
}

} // namespace

Snap snap(const Build &build, const Part &part, const Pose &wanted, View view, double reach_mm,
          const TypeTable &adapters, bool linesOnly, bool level) {
    Snap result{wanted, {}, {}, {}, {}};
    const PartType *type = typeOf(build, part);
    if (!type) return result;
    const Frame &frame = *build.frame;
    const std::array<bool, 3> shown{shows(view, 0), shows(view, 1), shows(view, 2)};
    if (!linesOnly)
        if (auto perch = nearestPerch(build, part, wanted, shown, reach_mm, adapters,
                                      level ? std::optional(wanted.position_mm.z()) : std::nullopt)) {
            const auto &onto = part.fastening.onto;
            const bool held = std::find(onto.begin(), onto.end(), perch->on) != onto.end() ||
                              (!perch->site.empty() && part.placement.site == perch->site);
            if (held && perch->adapter.empty()) perch->fastening = part.fastening; // as it was chosen before
            result.X_FramePart = perch->X_FramePart;
            result.text = say("%1 %2").arg(QCoreApplication::translate("Perch", perchWord(perch->kind).data()),
                                           QString::fromStdString(nameWithin(build, perch->on)));
            if (!perch->linesUp) result.text += say(" (the holes do not meet)");
            for (int axis = 0; axis < 3; ++axis)
                if (shows(view, axis))
                    result.guides.push_back(guideThrough(view, axis, perch->X_FramePart.position_mm[axis]));
            result.perch = std::move(perch);
            return result;
        }

    const Aabb bounds = boundsAt(*type, wanted);
    for (int axis = 0; axis < 3; ++axis) {
        if (!shows(view, axis)) continue;
        AxisWish wish(reach_mm);
        if (axis == 1) wish.offer(-wanted.position_mm.y(), 0, say("centre line"));
        for (const auto &plate : frame.plates) {
            const Aabb edge = boundsOf(plateShape(plate), platePose(plate));
            const QString name = QString::fromStdString(plate.name.empty() ? plate.id : plate.name);
            const bool overPlate = bounds.max_mm.x() > edge.min_mm.x() && bounds.min_mm.x() < edge.max_mm.x() &&
                                   bounds.max_mm.y() > edge.min_mm.y() && bounds.min_mm.y() < edge.max_mm.y();
            if (axis == 2) { // stands on it, or hangs below it
                if (!overPlate) continue;
                wish.offer(edge.max_mm.z() - bounds.min_mm.z(), edge.max_mm.z(), say("on %1").arg(name), plate.id);
                wish.offer(edge.min_mm.z() - bounds.max_mm.z(), edge.min_mm.z(), say("under %1").arg(name), plate.id);
            } else {
                wish.offer(edge.max_mm[axis] - bounds.max_mm[axis], edge.max_mm[axis], say("edge of %1").arg(name));
                wish.offer(edge.min_mm[axis] - bounds.min_mm[axis], edge.min_mm[axis], say("edge of %1").arg(name));
            }
        }
        if (!wish.any()) continue;
        if (axis == 2) result.plate = wish.plate();
        result.X_FramePart.position_mm[axis] += wish.shift();
        result.guides.push_back(guideThrough(view, axis, wish.line()));
        result.text += (result.text.isEmpty() ? "" : ", ") + wish.text();
    }
    return result;
}

EditResult settle(const Build &build, const std::string &id, const Snap &snap, const TypeTable &adapters) {
    if (snap.perch) return perchPart(build, id, *snap.perch, adapters);
    auto moved = movePart(build, id, snap.X_FramePart);
    const Part *part = findPart(build, id);
    if (!moved || snap.plate.empty() || !part) return moved;
    const auto &onto = part->fastening.onto;
    if (std::find(onto.begin(), onto.end(), snap.plate) != onto.end()) return moved;
    Fastening fastening = part->fastening;
    fastening.onto = {snap.plate};
    const PartType *type = typeOf(build, *part);
    if (fastening.method == FasteningMethod::none && type) fastening.method = usualHold(*type);
    return fastenPart(*moved, id, fastening);
}

} // namespace waxis::place
