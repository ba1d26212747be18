#include "app/stages/place/snapping.h"

#include "core/build/frame_shapes.h"

#include <QCoreApplication>
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
    void offer(double shift, double line, const QString &text) {
        if (std::abs(shift) > best_) return;
        best_ = std::abs(shift);
        shift_ = shift;
        line_ = line;
        text_ = text;
    }
    bool any() const { return !text_.isEmpty(); }
    double shift() const { return shift_; }
    double line() const { return line_; }
    const QString &text() const { return text_; }

private:
    double best_, shift_ = 0, line_ = 0;
    QString text_;
};

bool shows(View view, int axis) {
    switch (view) {
    case View::plan: return axis != 2;
    case View::side: return axis != 1;
    case View::front: return axis != 0;
    }
    return false;
}

/// A site attracts when hole patterns line up, or when it is a face or strap without a pattern.
bool wants(const Site &site, const PartType &type) {
    if (site.pattern) return type.mounting && linesUp(*site.pattern, *type.mounting);
    return site.kind == SiteKind::face || site.kind == SiteKind::mast;
}

QLineF guideThrough(View view, int axis, double at) {
    constexpr double kReach_mm = 2000;
    Vec3 a = Vec3::Constant(-kReach_mm), b = Vec3::Constant(kReach_mm);
    a[axis] = b[axis] = at;
    return {drawing::project(view, a), drawing::project(view, b)};
}

} // namespace

Snap snap(const Build &build, const Part &part, const Pose &wanted, View view, double reach_mm) {
    Snap result{wanted, {}, {}, {}};
    const PartType *type = typeOf(build, part);
    if (!type) return result;
    const Frame &frame = *build.frame;

    if (view == View::plan) { // a site takes the part whole, height included; the part keeps its height over the site
        double nearest = reach_mm;
        const Site *chosen = nullptr;
        for (const auto &site : frame.sites) {
            if (!wants(site, *type)) continue;
            const Vec3 d = site.X_FrameSite.position_mm - wanted.position_mm;
            const double away = std::hypot(d.x(), d.y());
            if (away <= nearest) {
                nearest = away;
                chosen = &site;
            }
        }
        if (chosen) {
            const Vec3 centre = chosen->X_FrameSite.position_mm;
            const double height = part.placement.site == chosen->id ? wanted.position_mm.z() : centre.z();
            result.X_FramePart.position_mm = {centre.x(), centre.y(), height};
            result.site = chosen->id;
            result.text = say("on %1").arg(QString::fromStdString(displayName(build, chosen->id)));
            result.guides = {guideThrough(view, 0, centre.x()), guideThrough(view, 1, centre.y())};
            return result;
        }
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
                wish.offer(edge.max_mm.z() - bounds.min_mm.z(), edge.max_mm.z(), say("on %1").arg(name));
                wish.offer(edge.min_mm.z() - bounds.max_mm.z(), edge.min_mm.z(), say("under %1").arg(name));
            } else {
                wish.offer(edge.max_mm[axis] - bounds.max_mm[axis], edge.max_mm[axis], say("edge of %1").arg(name));
                wish.offer(edge.min_mm[axis] - bounds.min_mm[axis], edge.min_mm[axis], say("edge of %1").arg(name));
            }
        }
        if (!wish.any()) continue;
        result.X_FramePart.position_mm[axis] += wish.shift();
        result.guides.push_back(guideThrough(view, axis, wish.line()));
        result.text += (result.text.isEmpty() ? "" : ", ") + wish.text();
    }
    return result;
}

} // namespace waxis::place
