#include "app/stages/stack/column.h"

#include "app/theme/palette.h"
#include "core/build/chain.h"
#include "core/geometry/section.h"
#include "core/scene/body_table.h"
#include "core/scene/scene.h"
#include "core/stack/report.h"

#include <algorithm>
#include <cmath>

namespace waxis::stackbench {

using drawing::View;

namespace {

double reachOf(const Build &build, const Stack &stack) {
    double reach = 0;
    auto take = [&](const Part *part) {
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (!type) return;
        for (const auto &solid : type->solids) {
            const Aabb box = boundsOf(solid.shape, solid.X_PartSolid);
            reach = std::max({reach, box.max_mm.head<2>().maxCoeff(), -box.min_mm.head<2>().minCoeff()});
        }
    };
    for (const auto &layer : stack.layers)
        if (layer.role == LayerRole::board || layer.role == LayerRole::adapter)
            take(findPart(build, layer.parts.front()));
    take(findPart(build, stack.on));
    if (const HolePattern *pattern = patternOf(build, stack)) reach = std::max(reach, pattern->size_mm / 2 + 5);
    return reach + 1.5;
}

double cutPlace(const StackFocus &focus, const ColumnView &view, const HolePattern *pattern) {
    const double row = pattern ? pattern->size_mm / 2 : 0;
    switch (view.cut) {
    case CutAt::screws: return view.view == View::side ? -row : row;
    case CutAt::middle: return 0;
    case CutAt::closest:
        if (const StackReport *report = focus.report()) {
            const Ring *where = nullptr;
            if (focus.gap() >= 0) where = &report->gaps[std::size_t(focus.gap())].where;
            if (!where && !report->plateAbove.empty()) where = &report->closest.where;
            if (where && !where->empty()) {
                Vec2 middle = Vec2::Zero();
                for (const auto &p : *where) middle += p / double(where->size());
                return view.view == View::side ? middle.y() : middle.x();
            }
        }
        return 0;
    }
    return 0;
}

struct Look {
    QColor color;
    bool member = true; ///< of the stack, or of the frame
};

Look lookOf(const Build &build, const BodyOwner &owner, const BodyTraits &traits) {
    Look look;
    Family family = Family::structure;
    if (owner.kind == OwnerKind::part)
        if (const Part *part = findPart(build, owner.id)) {
            if (const PartType *type = typeOf(build, *part)) family = familyOf(type->kind);
            look.member = stackPlaceOf(build, *part).has_value();
        }
    look.color = theme::familyColor(family);
    if (owner.kind == OwnerKind::part && family == Family::structure)
        look.color = look.color.lighter(traits.soft ? 92 : 130);
    return look;
}

/// The cut faces of a body, y down; `across` maps the plane's x to the drawing's.
ColumnShape cutFace(const std::vector<Ring> &rings, double across, const QColor &color) {
    ColumnShape shape{{}, color, true};
    for (const auto &ring : rings) {
        QPolygonF polygon;
        for (const auto &p : ring) polygon << QPointF(across * p.x(), -p.y());
        shape.path.addPolygon(polygon);
        shape.path.closeSubpath();
    }
    return shape;
}

/// How far back a box reaches, seen by the viewer.
double farthest(const Aabb &box, const Vec3 &toViewer) {
    double far = 1e300;
    for (double sx : {box.min_mm.x(), box.max_mm.x()})
        for (double sy : {box.min_mm.y(), box.max_mm.y()}) far = std::min(far, toViewer.dot(Vec3(sx, sy, 0)));
    return far;
}

} // namespace

Column columnOf(const StackFocus &focus, const ColumnView &how) {
    Column column;
    column.view = how.view;
    const Stack *stack = focus.stack();
    const StackReport *report = focus.report();
    if (!stack || !report) return column;
    const app::Document &document = focus.document();
    const Build &build = document.build();
    const Pose &X_FrameBase = report->chain.X_FrameBase;
    // Drawn as it stands: up is up, also for stacks that hang.
    const bool hangs = (X_FrameBase.rotation * Vec3::UnitZ()).z() < 0;
    column.up = hangs ? -1 : 1;
    const Pose X_FrameDraw{X_FrameBase.position_mm,
                           hangs ? X_FrameBase.rotation * Quat(0, 1, 0, 0) : X_FrameBase.rotation};
    const Pose X_DrawFrame = X_FrameDraw.inverse();
    column.ahead = drawing::project(View::front, Vec3::UnitY()).x() * (hangs ? -1 : 1);
    column.halfWidth_mm = reachOf(build, *stack);
    const double reach = column.halfWidth_mm;
    double low = report->chain.bottom_mm - 5, high = std::max(report->chain.top_mm + 6, 12.0);
    if (!report->plateAbove.empty()) high = std::max(high, report->plateAbove_mm + 3.0);
    column.low_mm = low;
    column.high_mm = high;
    if (hangs) {
        std::swap(low, high);
        low = -low;
        high = -high;
    }
    const double place = cutPlace(focus, how, patternOf(build, *stack)) * (hangs && how.view == View::side ? -1 : 1);
    const bool side = how.view == View::side;
    const CutPlane plane{side ? Vec3(0, place, 0) : Vec3(place, 0, 0), side ? Vec3::UnitX() : Vec3::UnitY(),
                         Vec3::UnitZ()};
    const Vec3 toViewer = drawing::towardsViewer(how.view);
    const double planeNear = toViewer.dot(plane.origin_mm);
    const auto &analysis = document.analysis();
    const BodyTable table = bodyTableOf(build, analysis.derived.loadCases, analysis.practice);
    struct Behind {
        double near;
        ColumnShape shape;
    };
    std::vector<Behind> behind;
    std::vector<ColumnShape> cuts;
    for (std::size_t i = 0; i < table.bodies.size(); ++i) {
        const BodyTraits &traits = table.traits[i];
        const BodyOwner &owner = table.owners[std::size_t(traits.owner)];
        if (owner.kind == OwnerKind::disc || !(owner.cases >> document.loadCase() & 1)) continue;
        const Pose pose = X_DrawFrame * table.bodies[i].X_FrameBody;
        const Aabb box = boundsOf(table.bodies[i].shape, pose);
        if (box.max_mm.x() < -reach || box.min_mm.x() > reach || box.max_mm.y() < -reach || box.min_mm.y() > reach ||
            box.max_mm.z() < low || box.min_mm.z() > high - 0.5)
            continue;
        Look look = lookOf(build, owner, traits);
        if (const auto rings = sectionOf(table.bodies[i].shape, pose, plane); !rings.empty())
            cuts.push_back(cutFace(rings, side ? 1 : column.ahead * (hangs ? -1 : 1), look.color));
        if (farthest(box, toViewer) > planeNear - 1e-6) continue; // whatever reaches behind the plane is seen there
        look.color.setAlphaF(look.member ? 0.42f : 0.2f);
        ColumnShape shape{drawing::outline(how.view, table.bodies[i].shape, pose), look.color, false};
        behind.push_back({drawing::nearness(how.view, table.bodies[i].shape, pose), std::move(shape)});
    }
    std::stable_sort(behind.begin(), behind.end(), [](const Behind &a, const Behind &b) { return a.near < b.near; });
    for (auto &b : behind) column.shapes.push_back(std::move(b.shape));
    for (auto &c : cuts) column.shapes.push_back(std::move(c));
    return column;
}

} // namespace waxis::stackbench
