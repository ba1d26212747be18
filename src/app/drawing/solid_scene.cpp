#include "app/drawing/solid_scene.h"

#include "app/drawing/wires.h"
#include "core/base/units.h"
#include "core/clearance/clearance_world.h"
#include "core/geometry/triangles.h"
#include "core/rays/ray_world.h"
#include "core/scene/body_table.h"
#include "core/scene/scene.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace waxis::drawing {

Vec3 Orbit::eye_mm() const {
    const double a = radiansFromDegrees(azimuth_deg), e = radiansFromDegrees(elevation_deg);
    return target_mm + distance_mm * Vec3(std::cos(e) * std::cos(a), std::cos(e) * std::sin(a), std::sin(e));
}

Vec3 Orbit::right() const {
    const double a = radiansFromDegrees(azimuth_deg);
    return {-std::sin(a), std::cos(a), 0};
}

Vec3 Orbit::up() const { return right().cross(ahead()); }

Vec3 Orbit::rayThrough(double right_half, double up_half) const {
    const double half = std::tan(radiansFromDegrees(kView_deg) / 2);
    return (ahead() + half * (right_half * right() + up_half * up())).normalized();
}

namespace {

struct Look {
    QColor color;
    bool clear = false; ///< lets light through
    bool shown = true;
};

/// What was there before, so that what is new stands out.
QColor paled(const QColor &color, const theme::Theme &theme) {
    const QColor ground = theme.colors().matGridStrong;
    constexpr float kOwn = 0.22f;
    QColor pale = QColor::fromRgbF(kOwn * color.redF() + (1 - kOwn) * ground.redF(),
                                   kOwn * color.greenF() + (1 - kOwn) * ground.greenF(),
                                   kOwn * color.blueF() + (1 - kOwn) * ground.blueF());
    pale.setAlphaF(color.alphaF());
    return pale;
}

Look lookOf(const app::Document &document, const Build &build, const BodyTable &table, std::size_t body,
            const SolidLooks &looks, const theme::Theme &theme) {
    const BodyTraits &traits = table.traits[body];
    const BodyOwner &owner = table.owners[std::size_t(traits.owner)];
    Look look;
    if (!(owner.cases >> document.loadCase() & 1)) look.shown = false;
    if (owner.kind == OwnerKind::disc) {
        look = {theme.colors().softChalk, true, look.shown && looks.discs && document.foldedShare() == 0};
        look.color.setAlphaF(0.16f);
        return look;
    }
    look.color = theme::familyColor(Family::structure);
    if (owner.kind == OwnerKind::part) {
        const Part *part = findPart(build, owner.id);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (type) {
            look.color = theme::familyColor(familyOf(type->kind));
            const Solid &solid = type->solids[std::size_t(traits.solid)];
            switch (solid.role) {
            case SolidRole::body:
            case SolidRole::board: break;
            case SolidRole::component: look.color = look.color.darker(115); break;
            case SolidRole::connector: look.color = look.color.darker(140); break;
            case SolidRole::shield: look.color = look.color.lighter(112); break;
            case SolidRole::lens: look.color = theme::lensColor(); break;
            case SolidRole::soft:
                look.color.setAlphaF(0.4f);
                look.clear = true;
                break;
            }
        }
    } else if (owner.kind == OwnerKind::screw) {
        look.color = look.color.lighter(130);
    } else if (owner.kind != OwnerKind::standoff) {
        look.color = look.color.darker(owner.kind == OwnerKind::arm ? 140 : 122);
        if (looks.ghostPlates) {
            look.color.setAlphaF(0.22f);
            look.clear = true;
        }
    }
    if (looks.hidden.contains(owner.id)) look.shown = false;
    if (!looks.fresh.empty()) {
        if (!looks.fresh.contains(owner.id)) look.color = paled(look.color, theme);
        return look;
    }
    const QString id = QString::fromStdString(owner.id);
    if (document.selection().contains(id)) look.color = theme.colors().chalk;
    if (document.highlighted().contains(id)) look.color = theme.colors().thrustAxis;
    return look;
}

void addBody(const Body &body, const QColor &color, const QColor &ink, std::vector<SolidCorner> &out,
             std::vector<SolidCorner> &edges, Aabb &bounds) {
    constexpr int kSides = 40;
    const Triangles triangles = trianglesOf(body.shape, kSides);
    // Faces and walls list their corners apart: edges meet by place.
    std::map<std::array<double, 3>, int> known;
    std::vector<int> same;
    for (const auto &p : triangles.points_mm)
        same.push_back(known.emplace(std::array{p.x(), p.y(), p.z()}, int(same.size())).first->second);
    std::map<std::pair<int, int>, Vec3> open; // edges met once, with the normal of that side
    const float r = float(color.redF()), g = float(color.greenF()), b = float(color.blueF()), a = float(color.alphaF());
    for (const auto &corner : triangles.corners) {
        Vec3 p[3];
        for (int i = 0; i < 3; ++i) p[i] = body.X_FrameBody * triangles.points_mm[std::size_t(corner[std::size_t(i)])];
        const Vec3 n = (p[1] - p[0]).cross(p[2] - p[0]).normalized(); // flat shading: edges of boards stay crisp
        for (const auto &q : p) {
            bounds.include(q);
            out.push_back(
                {float(q.x()), float(q.y()), float(q.z()), float(n.x()), float(n.y()), float(n.z()), r, g, b, a});
        }
        // A line where two faces meet at an angle.
        for (std::size_t i = 0; i < 3; ++i) {
            const int from = same[std::size_t(corner[i])], to = same[std::size_t(corner[(i + 1) % 3])];
            const auto [at, first] = open.emplace(std::minmax(from, to), n);
            constexpr double kFlat = 0.85; // cosine: flats of round things are no edges
            if (first || at->second.dot(n) > kFlat) continue;
            for (const auto &q : {p[i], p[(i + 1) % 3]})
                edges.push_back({float(q.x()), float(q.y()), float(q.z()), 0, 0, 0, float(ink.redF()),
                                 float(ink.greenF()), float(ink.blueF()), float(ink.alphaF())});
        }
    }
}

/// A wire as a four-sided tube along its route.
void addTube(const std::vector<Vec3> &points, double diameter_mm, const QColor &color, std::vector<SolidCorner> &out,
             Aabb &bounds) {
    const float r = float(color.redF()), g = float(color.greenF()), b = float(color.blueF());
    auto put = [&](const Vec3 &p, const Vec3 &n) {
        bounds.include(p);
        out.push_back({float(p.x()), float(p.y()), float(p.z()), float(n.x()), float(n.y()), float(n.z()), r, g, b, 1});
    };
    for (std::size_t i = 0; i + 1 < points.size(); ++i) {
        const Vec3 along = (points[i + 1] - points[i]).normalized();
        const Vec3 side = along.unitOrthogonal(), up = along.cross(side);
        const std::array<Vec3, 4> round{side, up, -side, -up};
        for (std::size_t k = 0; k < 4; ++k) {
            const Vec3 a = round[k] * diameter_mm / 2, c = round[(k + 1) % 4] * diameter_mm / 2,
                       n = (a + c).normalized();
            put(points[i] + a, n);
            put(points[i + 1] + a, n);
            put(points[i + 1] + c, n);
            put(points[i] + a, n);
            put(points[i + 1] + c, n);
            put(points[i] + c, n);
        }
    }
}

/// From outside to the bounds of what comes in: a shaft and a four-sided head.
void addArrow(const Aabb &to, const WayIn &way, const QColor &color, std::vector<SolidCorner> &out, Aabb &bounds) {
    constexpr double kLong_mm = 26, kHead_mm = 7, kOff_mm = 3, kShaft_mm = 2, kWide_mm = 3.2;
    const Vec3 tip = (to.min_mm + to.max_mm) / 2 + way.from * (way.from.cwiseAbs().dot(to.size_mm()) / 2 + kOff_mm);
    const Vec3 neck = tip + way.from * kHead_mm;
    addTube({neck, tip + way.from * kLong_mm}, kShaft_mm, color, out, bounds);
    const Vec3 side = way.from.unitOrthogonal(), up = way.from.cross(side);
    const std::array<Vec3, 4> round{side, up, -side, -up};
    for (std::size_t k = 0; k < 4; ++k) {
        const Vec3 a = neck + round[k] * kWide_mm, b = neck + round[(k + 1) % 4] * kWide_mm;
        const Vec3 n = (a - tip).cross(b - tip).normalized();
        for (const Vec3 &p : {tip, a, b, neck, b, a})
            out.push_back({float(p.x()), float(p.y()), float(p.z()), float(n.x()), float(n.y()), float(n.z()),
                           float(color.redF()), float(color.greenF()), float(color.blueF()), 1});
    }
}

} // namespace

SolidScene solidSceneOf(const app::Document &document, const SolidLooks &looks, const theme::Theme &theme) {
    const Build &build = document.drawnBuild();
    const auto &analysis = document.analysis();
    const BodyTable table = bodyTableOf(build, analysis.derived.loadCases, analysis.practice);
    SolidScene scene;
    std::vector<SolidCorner> clear, edges, none;
    QColor ink = theme::palette(theme::Mode::light).ink;
    constexpr float kFaint = 0.55f;
    ink.setAlphaF(kFaint);
    for (std::size_t i = 0; i < table.bodies.size(); ++i) {
        const Look look = lookOf(document, build, table, i, looks, theme);
        if (!look.shown) continue;
        Aabb ignored;
        const bool disc = table.owners[std::size_t(table.traits[i].owner)].kind == OwnerKind::disc;
        none.clear();
        addBody(table.bodies[i], look.color, ink, look.clear ? clear : scene.corners, disc ? none : edges,
                disc && !looks.discs ? ignored : scene.bounds);
        if (looks.fresh.contains(table.owners[std::size_t(table.traits[i].owner)].id))
            scene.fresh.include(boundsOf(table.bodies[i].shape, table.bodies[i].X_FrameBody));
    }
    for (std::size_t w = 0; w < build.wires.size() && w < analysis.derived.routes.size() && document.foldedShare() == 0;
         ++w) {
        if (looks.hidden.contains(build.wires[w].id)) continue;
        const QString id = QString::fromStdString(build.wires[w].id);
        const bool lit = document.selection().contains(id) || document.highlighted().contains(id);
        const WireReport &report = analysis.derived.wiring->wires[w];
        const bool old = !looks.fresh.empty() && !looks.fresh.contains(build.wires[w].id);
        const QColor color = wireColor(report.role);
        addTube(analysis.derived.routes[w].points_mm, std::clamp(report.bundle_mm, 1.0, 5.0),
                old                          ? paled(color, theme)
                : lit && looks.fresh.empty() ? theme.colors().chalk
                                             : color,
                scene.corners, scene.bounds);
        if (looks.fresh.contains(build.wires[w].id))
            for (const Vec3 &p : analysis.derived.routes[w].points_mm) scene.fresh.include(p);
    }
    if (looks.way && !scene.fresh.empty())
        addArrow(scene.fresh, *looks.way, theme.colors().plumb, scene.corners, scene.bounds);
    scene.firm = int(scene.corners.size());
    scene.clear = int(clear.size());
    scene.edges = int(edges.size());
    scene.corners.insert(scene.corners.end(), clear.begin(), clear.end());
    scene.corners.insert(scene.corners.end(), edges.begin(), edges.end());
    return scene;
}

std::string pickedAlong(const app::Document &document, const SolidLooks &looks, const std::optional<CutAway> &cut,
                        const Vec3 &eye_mm, const Vec3 &direction) {
    const auto &analysis = document.analysis();
    const BodyTable table = bodyTableOf(document.drawnBuild(), analysis.derived.loadCases, analysis.practice);
    const RayWorld world(table.bodies, [&](int body) {
        const BodyOwner &owner = table.owners[std::size_t(table.traits[std::size_t(body)].owner)];
        const bool ghost = looks.ghostPlates && (owner.kind == OwnerKind::plate || owner.kind == OwnerKind::arm);
        return owner.kind != OwnerKind::disc && !ghost && !looks.hidden.contains(owner.id) &&
               (owner.cases >> document.loadCase() & 1);
    });
    Vec3 from = eye_mm;
    if (cut && from[cut->axis] > cut->at_mm) { // start where the ray comes out of what is cut away
        if (direction[cut->axis] >= 0) return {};
        from += direction * ((from[cut->axis] - cut->at_mm) / -direction[cut->axis]);
    }
    const auto hit = world.first(from, direction);
    if (hit.body < 0) return {};
    if (cut && (from + hit.distance_mm * direction)[cut->axis] > cut->at_mm) return {};
    return table.owners[std::size_t(table.traits[std::size_t(hit.body)].owner)].id;
}

} // namespace waxis::drawing
