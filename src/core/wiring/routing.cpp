#include "core/wiring/routing.h"

#include "core/build/frame_shapes.h"
#include "core/build/near_frame.h"
#include "core/pins/signal.h"
#include "core/scene/scene.h"
#include "core/wiring/core_gauge.h"
#include "core/wiring/gauge.h"
#include "core/wiring/way_points.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace waxis {

namespace {

Aabb grown(Aabb box, double by_mm) {
    box.min_mm.array() -= by_mm;
    box.max_mm.array() += by_mm;
    return box;
}

enum class Standing {
    best,     ///< a search would give it again
    doubtful, ///< it can still be gone, but there may be a better way
    blocked
};

Standing standingOf(const RouteLeg &leg, const FieldChange &change) {
    RouteLeg settled = leg;
    settled.makeshift = false;
    if (!leg.found) return leg.makeshift || !change.empty() ? Standing::doubtful : Standing::best;
    if (!staysBest(settled, {change.nearer, {}})) return Standing::blocked;
    return leg.makeshift || !staysBest(settled, {{}, change.farther}) ? Standing::doubtful : Standing::best;
}

/// The room that a wire wants round it: half its thickest core and a little, for its cores lie flat where it is narrow.
double clearanceOf(const Build &build, const Wire &wire) {
    double thickest = 0.8;
    for (const auto &core : wire.cores)
        thickest = std::max(thickest, coreDiameter_mm(wire, gaugeOf(build, wire, core)));
    return std::clamp(thickest / 2 + 0.5, 1.2, 2.5);
}

void addSupports(const Build &build, const RouteField &field, double clearance_mm, WireRoute &route) {
    auto &supports = route.supports;
    supports.push_back({SupportKind::end, {}, route.points_mm.front(), 0});
    supports.push_back({SupportKind::end, {}, route.points_mm.back(), route.length_mm});
    double at = 0;
    for (std::size_t i = 0; i + 1 < route.points_mm.size(); ++i) {
        const Vec3 &a = route.points_mm[i], &b = route.points_mm[i + 1];
        const double length = (b - a).norm();
        for (const auto &tie : build.ties) {
            constexpr double kReach_mm = 4;
            const double t =
                length > 0 ? std::clamp((tie.position_mm - a).dot(b - a) / (length * length), 0.0, 1.0) : 0;
            const Vec3 p = a + t * (b - a);
            if ((p - tie.position_mm).norm() > kReach_mm) continue;
            const bool known =
                std::any_of(supports.begin(), supports.end(), [&](const auto &s) { return s.id == tie.id; });
            if (!known) supports.push_back({SupportKind::tie, tie.id, p, at + t * length});
        }
        for (const auto &pass : build.frame->passThroughs)
            for (const auto &plate : build.frame->plates) {
                if (plate.id != pass.plate) continue;
                const double middle = plate.z_mm + plate.thickness_mm / 2, da = a.z() - middle, db = b.z() - middle;
                if (da * db > 0 || da == db) continue;
                const double t = da / (da - db);
                const Vec3 p = a + t * (b - a);
                const bool known =
                    std::any_of(supports.begin(), supports.end(), [&](const auto &s) { return s.id == pass.id; });
                if (!known && contains({pass.outline_mm, {}}, p.head<2>()))
                    supports.push_back({SupportKind::passThrough, pass.id, p, at + t * length});
            }
        at += length;
    }
    std::stable_sort(supports.begin(), supports.end(), [](const auto &x, const auto &y) { return x.at_mm < y.at_mm; });
    // What nothing holds: between supports, where the wire lies on no solid either.
    constexpr double kStep_mm = 2.5, kLies_mm = 2.0;
    double start = 0;
    std::size_t next = 1, segment = 0;
    double before = 0;
    constexpr double kWorthIt_mm = 20;
    route.spans.clear();
    auto close = [&](double end) {
        if (end - start >= kWorthIt_mm) route.spans.push_back({start, end});
        if (end - start > route.widestSpan_mm) {
            route.widestSpan_mm = end - start;
            route.spanMiddle_mm = pointAlong(route.points_mm, (start + end) / 2);
        }
    };
    for (double s = 0; s <= route.length_mm; s += kStep_mm) {
        while (segment + 2 < route.points_mm.size() &&
               before + (route.points_mm[segment + 1] - route.points_mm[segment]).norm() < s) {
            before += (route.points_mm[segment + 1] - route.points_mm[segment]).norm();
            ++segment;
        }
        const Vec3 edge = route.points_mm[segment + 1] - route.points_mm[segment];
        const Vec3 p = route.points_mm[segment] + (edge.norm() > 0 ? (s - before) / edge.norm() : 0) * edge;
        const bool lies = field.tenths(field.nearestCell(p)) < int((clearance_mm + kLies_mm) * 10);
        while (next < supports.size() && supports[next].at_mm <= s) {
            close(supports[next].at_mm);
            start = supports[next++].at_mm;
        }
        if (lies) {
            close(s);
            start = s;
        }
    }
    close(route.length_mm);
}

/// An antenna's lead runs inside the tube or mount that carries it and comes out at its end: the exit lies behind that.
void leaveSleeve(const Build &build, const WireEnd &end, const std::vector<Body> &bodies,
                 const std::vector<BodyOwner> &owners, const std::vector<BodyTraits> &traits, PortExit &exit) {
    const Part *part = findPart(build, end.part);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (!type || type->kind != PartKind::antenna || part->fastening.onto.empty()) return;
    const Vec3 out = exit.exit_mm - exit.position_mm;
    if (!(out.norm() > 1e-9)) return;
    constexpr double kBehind_mm = 3, kStep_mm = 1, kFar_mm = 400, kBore_mm = 2.5; // half the bore of a wide tube
    const Vec3 way = out.normalized();
    const auto inside = [&](const Vec3 &p) {
        for (std::size_t i = 0; i < bodies.size(); ++i) {
            const BodyOwner &owner = owners[std::size_t(traits[i].owner)];
            if (!owner.carries || traits[i].soft ||
                std::find(part->fastening.onto.begin(), part->fastening.onto.end(), owner.id) ==
                    part->fastening.onto.end())
                continue;
            if (pointDistance(bodies[i].shape, bodies[i].X_FrameBody.inverse() * p) <= kBore_mm) return true;
        }
        return false;
    };
    double last = -1;
    for (double s = 0; s <= kFar_mm && s - std::max(last, 0.0) < 20; s += kStep_mm)
        if (inside(exit.position_mm + s * way)) last = s;
    if (last >= 0) exit.exit_mm = exit.position_mm + std::max(out.norm(), last + kBehind_mm) * way;
}

} // namespace

std::optional<PortExit> portExit(const Build &build, const WireEnd &end) {
    const Part *part = findPart(build, end.part);
    const Port *port = portOf(build, end);
    if (!part || !port) return std::nullopt;
    const Pose X_FramePart = framePose(build, *part);
    PortExit exit{X_FramePart * port->position_mm, X_FramePart.rotation * port->direction, Vec3::Zero()};
    // The stated room holds the first bend as well; the wire turns behind the plug's body.
    constexpr double kPad_mm = 3, kPlug_mm = 7;
    const bool pads = port->kind == PortKind::pads;
    const double room = port->fullSize_mm.x();
    const double body = pads ? kPad_mm : room > 0 ? std::min(room, kPlug_mm) : kPlug_mm;
    exit.exit_mm = exit.position_mm + body * exit.direction;
    return exit;
}

std::vector<RouteStop> impliedStops(const Build &build, const Wire &wire) {
    const Part *a = findPart(build, wire.from.part), *b = findPart(build, wire.to.part);
    const Arm *first = a ? armUnder(build, *a) : nullptr, *second = b ? armUnder(build, *b) : nullptr;
    std::vector<RouteStop> stops;
    if (first == second) return stops;
    for (const Arm *arm : {first, second})
        if (arm) stops.push_back({arm->id, Vec3::Zero()});
    return stops;
}

double coreDiameter_mm(const Wire &wire, int awg) {
    if (wire.lay == WireLay::coax) return 1.13;
    if (wire.lay == WireLay::flat) return 0.8;
    const WireStock *stock = findWireStock(awg);
    return stock ? stock->outer_mm : 1.8 * awgDiameter_mm(awg);
}

Vec3 pointAlong(const std::vector<Vec3> &points, double at) {
    for (std::size_t i = 0; i + 1 < points.size(); ++i) {
        const double length = (points[i + 1] - points[i]).norm();
        if (at <= length || i + 2 == points.size())
            return length > 0 ? Vec3(points[i] + std::min(1.0, at / length) * (points[i + 1] - points[i])) : points[i];
        at -= length;
    }
    return points.empty() ? Vec3(Vec3::Zero()) : points.back();
}

std::vector<Vec3> samplesAlong(const std::vector<Vec3> &points, double step) {
    std::vector<Vec3> samples;
    double next = 0, walked = 0;
    for (std::size_t i = 0; i + 1 < points.size(); ++i) {
        const Vec3 edge = points[i + 1] - points[i];
        const double length = edge.norm();
        for (; next <= walked + length && length > 0; next += step)
            samples.push_back(points[i] + edge * ((next - walked) / length));
        walked += length;
    }
    if (!points.empty()) samples.push_back(points.back());
    return samples;
}

double lengthOf(const std::vector<Vec3> &points) {
    double length = 0;
    for (std::size_t i = 0; i + 1 < points.size(); ++i) length += (points[i + 1] - points[i]).norm();
    return length;
}

void RouteKeeper::renewField(std::map<std::string, RouteObstacle> obstacles, const Aabb &reach) {
    change_ = {};
    std::vector<Aabb> touched;
    auto boxOf = [](const RouteObstacle &o) { return boundsOf(o.shape, o.X_FrameShape); };
    bool outgrown = reach_.empty() && !reach.empty();
    if (!outgrown && !reach.empty()) {
        const Aabb room = grown(reach_, RouteField::kMargin_mm / 2);
        outgrown =
            (reach.min_mm.array() < room.min_mm.array()).any() || (reach.max_mm.array() > room.max_mm.array()).any();
        // A part far away that came back: the lattice round it would be searched and kept for nothing.
        constexpr double kMuchLess = 0.4;
        outgrown |= grown(reach, RouteField::kMargin_mm).size_mm().prod() <
                    kMuchLess * grown(reach_, RouteField::kMargin_mm).size_mm().prod();
    }
    for (const auto &[key, obstacle] : obstacles) {
        const auto before = obstacles_.find(key);
        if (before == obstacles_.end())
            touched.push_back(boxOf(obstacle));
        else if (!(before->second == obstacle)) {
            touched.push_back(boxOf(before->second));
            touched.push_back(boxOf(obstacle));
        }
    }
    for (const auto &[key, obstacle] : obstacles_)
        if (!obstacles.contains(key)) touched.push_back(boxOf(obstacle));
    if (touched.empty() && !outgrown) return;
    std::vector<RouteObstacle> list;
    list.reserve(obstacles.size());
    for (const auto &[key, obstacle] : obstacles) list.push_back(obstacle);
    if (outgrown) { // the lattice itself reaches elsewhere
        field_ = RouteField(list, reach);
        reach_ = reach;
        kept_.clear();
    } else
        change_ = field_.update(std::move(list), touched);
    obstacles_ = std::move(obstacles);
}

RouteLeg RouteKeeper::lead(const Vec3 &from, const Vec3 &to, double clearance_mm, const RouteLeg *old) {
    if (stop_ && *stop_) left_ = 0;
    RouteLeg leg = findLeg(field_, from, to, clearance_mm, narrow_, std::min(kMostVisits, left_));
    leg.makeshift = leg.cutShort && left_ < kMostVisits;
    leg.putOff = leg.makeshift;
    if (left_ != kWithoutBudget) left_ -= std::min(left_, leg.visits);
    if (leg.found || !leg.makeshift || !old) return leg;
    leg.points_mm = old->points_mm;
    leg.points_mm.front() = from;
    leg.points_mm.back() = to;
    leg.length_mm = lengthOf(leg.points_mm);
    leg.found = old->found;
    return leg;
}

const std::vector<WireRoute> &RouteKeeper::update(const Build &build, const Practice &practice,
                                                  const std::vector<Body> &bodies, const std::vector<BodyOwner> &owners,
                                                  const std::vector<BodyTraits> &traits) {
    led_ = putOff_ = 0;
    left_ = budget_;
    routes_.clear();
    if (build.wires.empty()) {
        kept_.clear();
        return routes_;
    }
    const auto packs = std::count_if(build.parts.begin(), build.parts.end(), [&](const Part &part) {
        const PartType *type = typeOf(build, part);
        return type && type->kind == PartKind::battery && part.optional;
    });
    std::map<std::string, RouteObstacle> obstacles;
    Aabb reach;
    for (std::size_t i = 0; i < bodies.size(); ++i) {
        const BodyOwner &owner = owners[std::size_t(traits[i].owner)];
        if (traits[i].soft || owner.kind == OwnerKind::plate) continue;
        const Part *part = owner.kind == OwnerKind::part ? findPart(build, owner.id) : nullptr;
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (type && type->kind == PartKind::strap) continue;                // they give way
        if (type && type->kind == PartKind::battery && packs > 1) continue; // they take turns in one place
        if (owner.kind != OwnerKind::disc) reach.include(boundsOf(bodies[i].shape, bodies[i].X_FrameBody));
        obstacles.emplace(owner.id + "#" + std::to_string(traits[i].solid) +
                              (owner.kind == OwnerKind::disc ? "#disc" : ""),
                          RouteObstacle{bodies[i].shape, bodies[i].X_FrameBody});
    }
    for (const auto &plate : build.frame->plates) {
        Polygon polygon = platePolygon(plate);
        for (const auto &pass : build.frame->passThroughs)
            if (pass.plate == plate.id) polygon.holes.push_back(pass.outline_mm);
        const RouteObstacle obstacle{Prism{polygon, plate.thickness_mm}, platePose(plate)};
        reach.include(boundsOf(obstacle.shape, obstacle.X_FrameShape));
        obstacles.emplace(plate.id, obstacle);
    }
    // What lies far from the frame is led to by straight lines: the lattice stays round the craft.
    const Aabb craft = grown(frameBounds(*build.frame), kFarFromFrame_mm);
    reach.min_mm = reach.min_mm.cwiseMax(craft.min_mm);
    reach.max_mm = reach.max_mm.cwiseMin(craft.max_mm);
    if ((reach.min_mm.array() > reach.max_mm.array()).any()) reach = {};
    renewField(std::move(obstacles), reach);

    std::vector<Vec3> narrow; // pass-throughs are looked at closely
    for (const auto &pass : build.frame->passThroughs)
        for (const auto &plate : build.frame->plates)
            if (plate.id == pass.plate) narrow.push_back(middleOf(pass, plate));
    if (narrow_ != narrow) kept_.clear();
    narrow_ = narrow;
    const WayPoints planner(build, practice, field_);
    std::map<std::string, Kept> kept;
    std::map<std::string, std::size_t> leaders; // of bundles, by the first wire that runs
    for (const auto &wire : build.wires) {
        WireRoute route;
        auto from = portExit(build, wire.from), to = portExit(build, wire.to);
        if (!from || !to) {
            routes_.push_back(std::move(route));
            continue;
        }
        Kept now;
        now.plan.clearance_mm = clearanceOf(build, wire);
        for (const bool first : {true, false}) {
            PortExit &end = first ? *from : *to;
            leaveSleeve(build, first ? wire.from : wire.to, bodies, owners, traits, end);
            // Something stands right before the port: the wire turns sooner.
            for (int k = 0; k < 3 && field_.tenthsAt(end.exit_mm) < 5; ++k)
                end.exit_mm = end.position_mm + 0.6 * (end.exit_mm - end.position_mm);
        }
        now.plan.points_mm = planner.pointsOf(wire, *from, *to, now.plan.clearance_mm);
        const auto leader = wire.bundle.empty() ? leaders.end() : leaders.find(wire.bundle);
        if (leader != leaders.end() && wire.stops.empty()) {
            // Where the leader bends, the others bend with it, but not right at their own ends.
            constexpr double kEnds_mm = 15;
            auto bends = routes_[leader->second].points_mm;
            const bool turned = (bends.front() - from->exit_mm).norm() > (bends.back() - from->exit_mm).norm();
            if (turned) std::reverse(bends.begin(), bends.end());
            std::vector<Vec3> points{from->position_mm, from->exit_mm};
            for (std::size_t i = 1; i + 1 < bends.size(); ++i)
                if ((bends[i] - from->exit_mm).norm() > kEnds_mm && (bends[i] - to->exit_mm).norm() > kEnds_mm)
                    points.push_back(bends[i]);
            points.push_back(to->exit_mm);
            points.push_back(to->position_mm);
            now.plan.points_mm = std::move(points);
        }
        const auto before = kept_.find(wire.id);
        // Each leg between two places is kept while it stays the best.
        const bool samePlan = before != kept_.end() && before->second.plan == now.plan;
        const auto &p = now.plan.points_mm;
        bool again = false;
        for (std::size_t i = 1; i + 2 < p.size(); ++i) { // from the first exit to the last
            const RouteLeg *old = samePlan ? &before->second.legs[i - 1] : nullptr;
            // A leg between the same two places is the same in another plan of like width.
            if (!old && before != kept_.end() && before->second.plan.clearance_mm == now.plan.clearance_mm)
                for (const auto &leg : before->second.legs)
                    if (leg.points_mm.front() == p[i] && leg.points_mm.back() == p[i + 1]) old = &leg;
            const Standing standing = old ? standingOf(*old, change_) : Standing::blocked;
            const bool waits = budget_ != kWithoutBudget && old && old->putOff;
            if (standing == Standing::best || (waits && old && standing == Standing::doubtful)) {
                now.legs.push_back(*old);
                now.legs.back().makeshift = standing != Standing::best;
                now.legs.back().putOff &= now.legs.back().makeshift;
            } else {
                now.legs.push_back(lead(p[i], p[i + 1], now.plan.clearance_mm,
                                        before == kept_.end() || i - 1 >= before->second.legs.size()
                                            ? nullptr
                                            : &before->second.legs[i - 1]));
                again = true;
            }
        }
        led_ += again;
        route.found = true;
        route.points_mm.push_back(from->position_mm);
        for (const auto &leg : now.legs) {
            route.found &= leg.found;
            route.makeshift |= leg.makeshift;
            for (const Vec3 &point : leg.points_mm)
                if ((point - route.points_mm.back()).norm() > 1e-9) route.points_mm.push_back(point);
        }
        if ((to->position_mm - route.points_mm.back()).norm() > 1e-9) route.points_mm.push_back(to->position_mm);
        route.length_mm = lengthOf(route.points_mm);
        if (route.points_mm.size() >= 2) addSupports(build, field_, now.plan.clearance_mm, route);
        if (!wire.bundle.empty()) leaders.emplace(wire.bundle, routes_.size());
        putOff_ += std::any_of(now.legs.begin(), now.legs.end(), [](const RouteLeg &leg) { return leg.putOff; });
        kept.emplace(wire.id, std::move(now));
        routes_.push_back(std::move(route));
    }
    kept_ = std::move(kept);
    return routes_;
}

std::vector<WireRoute> RouteKeeper::stretch(const Build &build, const std::set<std::string> *moved) const {
    std::vector<WireRoute> routes = routes_;
    for (std::size_t w = 0; w < routes.size(); ++w) {
        const Wire &wire = build.wires[w];
        if (moved && !moved->contains(wire.from.part) && !moved->contains(wire.to.part)) continue;
        const auto from = portExit(build, wire.from), to = portExit(build, wire.to);
        auto &points = routes[w].points_mm;
        if (!from || !to || points.size() < 2) continue;
        constexpr double kSame_mm = 1e-9;
        const bool fromStays = (points.front() - from->position_mm).norm() < kSame_mm;
        const bool toStays = (points.back() - to->position_mm).norm() < kSame_mm;
        if (fromStays && toStays) continue;
        if (points.size() < 4) points = {points.front(), points.front(), points.back(), points.back()};
        if (!fromStays) {
            points[0] = from->position_mm;
            points[1] = from->exit_mm;
        }
        if (!toStays) {
            points[points.size() - 2] = to->exit_mm;
            points.back() = to->position_mm;
        }
        routes[w].makeshift = true;
        routes[w].length_mm = lengthOf(points);
        routes[w].supports.clear();
        routes[w].widestSpan_mm = 0;
        addSupports(build, field_, clearanceOf(build, wire), routes[w]);
    }
    return routes;
}

} // namespace waxis
