// WIR: what wires run beside, over, through and under.
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/findings/input.h"
#include "core/practice/blade_room.h"
#include "core/rules/rule.h"
#include "core/scene/scene.h"
#include "core/wiring/arm_holes.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

static void judgeParallelRun(const Build &build, const Practice &practice, const Derived &derived,
                             std::vector<Finding> &out) {
    for (const auto &meeting : derived.wiring->meetings) {
        if (meeting.together_mm <= 0) continue; // they cross: that is how it should be
        Finding f;
        f.rule = RuleId::wirParallel;
        f.subjects = {build.wires[std::size_t(meeting.b)].id, build.wires[std::size_t(meeting.a)].id};
        f.unit = "mm";
        f.measured = meeting.together_mm;
        f.limit = practice[Limit::parallelLength];
        f.practiceLimit = Limit::parallelLength;
        f.margin = *f.limit - *f.measured;
        f.severity = f.margin >= 0 ? Severity::pass : meeting.eased ? Severity::pass : Severity::watch;
        f.inputs = {{"side by side", meeting.together_mm, "mm"},
                    {"least distance", meeting.apart_mm, "mm"},
                    {"angle where nearest", meeting.angle_deg, "deg"}};
        f.from_mm = f.to_mm = meeting.at_mm;
        if (f.severity == Severity::pass && meeting.eased) f.margin = std::max(f.margin, 0.0);
        if (f.severity == Severity::watch && build.wires[std::size_t(meeting.b)].cores.size() > 1) {
            Fix fix;
            fix.change = WireChange{WireChange::Kind::twist, f.subjects[0], 0, 0, false, {}, {}, Vec3::Zero()};
            f.fixes.push_back(fix);
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordParallelRun(const Build &build, const Finding &f) {
    return {{"{0}: {1} mm beside {2}",
             {displayName(build, f.subjects[0]), wholeNumber(*f.measured), nameWithin(build, f.subjects[1])}},
            {"{0} mm apart at the nearest; {1} mm is what the practice allows. Lead it elsewhere, cross it square, or "
             "twist it.",
             {oneDecimal(inputOf(f, "least distance")), wholeNumber(*f.limit)}}};
}

static void judgeWireBend(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (std::size_t w = 0; w < derived.wiring->wires.size(); ++w) {
        const WireReport &report = derived.wiring->wires[w];
        if (report.tightest_mm <= 0) continue;
        Finding f;
        f.rule = RuleId::wirBend;
        f.subjects = {build.wires[w].id};
        f.unit = "mm";
        f.measured = report.tightest_mm;
        f.limit = report.bendLimit_mm;
        f.practiceLimit = build.wires[w].lay == WireLay::coax ? Limit::bendCoax : Limit::bendWire;
        f.margin = report.tightest_mm - report.bendLimit_mm;
        // Soft wire may be laid tighter than a rule of thumb; coax and thick wire may not.
        const bool stiff = build.wires[w].lay == WireLay::coax || report.gauge_AWG <= 16;
        constexpr double kDoubt = 0.85; // the estimate is no better than that
        f.severity = report.tightest_mm >= kDoubt * report.bendLimit_mm ? Severity::pass
                     : stiff                                            ? Severity::watch
                                                                        : Severity::note;
        f.inputs = {{"outside diameter", report.outer_mm, "mm"}, {"radius with room for it", report.tightest_mm, "mm"}};
        f.from_mm = f.to_mm = report.tightestAt_mm;
        // Thin soft wire: only what is truly folded is worth a word.
        if (f.severity == Severity::note && report.tightest_mm >= report.outer_mm) f.severity = Severity::pass;
        if (f.severity == Severity::pass && f.margin < 0) f.margin = 0;
        out.push_back(std::move(f));
    }
}

static FindingText wordWireBend(const Build &build, const Finding &f) {
    return {{"{0}: a bend of {1} mm where {2} mm are wanted",
             {displayName(build, f.subjects[0]), oneDecimal(*f.measured), oneDecimal(*f.limit)}},
            {"Lead it in a wider curve: pin a point, or turn the port.", {}}};
}

static void judgeWireSpan(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    for (std::size_t w = 0; w < derived.routes.size(); ++w) {
        const WireRoute &route = derived.routes[w];
        if (route.points_mm.size() < 2) continue;
        Finding f;
        f.rule = RuleId::wirSpan;
        f.subjects = {build.wires[w].id};
        f.variant = "span";
        f.unit = "mm";
        f.measured = route.widestSpan_mm;
        f.limit = practice[Limit::wireSpan];
        f.practiceLimit = Limit::wireSpan;
        f.margin = *f.limit - *f.measured;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        f.from_mm = f.to_mm = route.spanMiddle_mm;
        if (f.severity == Severity::watch) {
            Fix fix;
            fix.change = WireChange{WireChange::Kind::tie, {}, 0, 0, false, {}, {}, route.spanMiddle_mm};
            f.fixes.push_back(fix);
        }
        out.push_back(f);
        // A fragile plug wants its wire held soon behind it.
        for (const bool atFrom : {true, false}) {
            const WireEnd &end = atFrom ? build.wires[w].from : build.wires[w].to;
            const Part *part = findPart(build, end.part);
            const PartType *type = part ? typeOf(build, *part) : nullptr;
            const Port *port = portOf(build, end);
            // An antenna's own end is no plug.
            if (!type || !port || type->kind == PartKind::antenna || port->kind == PortKind::pads) continue;
            if (!type->fragile && port->kind != PortKind::coax) continue;
            double first = route.length_mm;
            for (const auto &support : route.supports) {
                if (support.kind == SupportKind::end) continue;
                first = std::min(first, atFrom ? support.at_mm : route.length_mm - support.at_mm);
            }
            Finding relief;
            relief.rule = RuleId::wirSpan;
            relief.subjects = {build.wires[w].id, part->id};
            relief.variant = "relief";
            relief.unit = "mm";
            relief.measured = first;
            relief.limit = practice[Limit::strainRelief];
            relief.practiceLimit = Limit::strainRelief;
            relief.margin = *relief.limit - first;
            relief.severity = relief.margin < 0 ? Severity::watch : Severity::pass;
            const double at = std::min(route.length_mm, practice[Limit::strainRelief] * 0.8);
            relief.from_mm = relief.to_mm = pointAlong(route.points_mm, atFrom ? at : route.length_mm - at);
            if (relief.severity == Severity::watch) {
                Fix fix;
                fix.change = WireChange{WireChange::Kind::tie, {}, 0, 0, false, {}, {}, *relief.from_mm};
                relief.fixes.push_back(fix);
            }
            out.push_back(std::move(relief));
        }
    }
}

static FindingText wordWireSpan(const Build &build, const Finding &f) {
    if (f.variant == "relief")
        return {{"{0}: first held {1} mm from the plug at {2}",
                 {displayName(build, f.subjects[0]), wholeNumber(*f.measured), nameWithin(build, f.subjects[1])}},
                {"A small plug comes off when its wire pulls: tie it within {0} mm.", {wholeNumber(*f.limit)}}};
    return {{"{0}: {1} mm hang free", {displayName(build, f.subjects[0]), wholeNumber(*f.measured)}},
            {"A loose wire finds the propellers: tie it down at least every {0} mm.", {wholeNumber(*f.limit)}}};
}

namespace {

/// Bare holes in the walls of arms that conduct, with the wires that go through them.
void judgeArmHoles(const Build &build, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &arm : build.frame->arms) {
        if (arm.holes.empty() || !isHollow(arm)) continue;
        Finding f;
        f.rule = RuleId::wirEdge;
        f.subjects = {arm.id};
        bool any = false, bare = false;
        for (const auto &hole : arm.holes)
            for (std::size_t w = 0; w < derived.routes.size(); ++w) {
                const auto at = throughHole(derived.routes[w].points_mm, arm, hole);
                if (!at) continue;
                any = true;
                if (hole.edge != HoleEdge::bare || build.wires[w].sleeved) continue;
                bare = true;
                f.from_mm = f.to_mm = at;
                const std::string &id = build.wires[w].id;
                if (std::find(f.subjects.begin(), f.subjects.end(), id) == f.subjects.end()) f.subjects.push_back(id);
            }
        if (!any) continue;
        f.severity = bare && conducts(arm.material, build.frame->materials) ? Severity::watch : Severity::pass;
        if (f.severity == Severity::watch) {
            Fix fix;
            fix.change = WireChange{WireChange::Kind::grommet, arm.id, 0, 0, false, {}, {}, Vec3::Zero()};
            f.fixes.push_back(fix);
        }
        out.push_back(std::move(f));
    }
}

} // namespace

static void judgeHoleEdge(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    judgeArmHoles(build, derived, out);
    for (const auto &use : derived.wiring->holes) {
        if (use.wires.empty()) continue;
        const auto &frame = *build.frame;
        const auto pass = std::find_if(frame.passThroughs.begin(), frame.passThroughs.end(),
                                       [&](const PassThrough &p) { return p.id == use.pass; });
        const auto plate =
            std::find_if(frame.plates.begin(), frame.plates.end(), [&](const Plate &p) { return p.id == pass->plate; });
        if (plate == frame.plates.end()) continue;
        Finding f;
        f.rule = RuleId::wirEdge;
        f.subjects = {use.pass};
        for (const int w : use.wires)
            if (!build.wires[std::size_t(w)].sleeved) f.subjects.push_back(build.wires[std::size_t(w)].id);
        const bool sharp = conducts(plate->material, frame.materials);
        f.severity = pass->edge == HoleEdge::bare && sharp && f.subjects.size() > 1 ? Severity::watch : Severity::pass;
        Vec2 middle = areaProperties({pass->outline_mm, {}}).centroid_mm;
        f.from_mm = f.to_mm = Vec3(middle.x(), middle.y(), plate->z_mm + plate->thickness_mm);
        if (f.severity == Severity::watch) {
            Fix fix;
            fix.change = WireChange{WireChange::Kind::grommet, use.pass, 0, 0, false, {}, {}, Vec3::Zero()};
            f.fixes.push_back(fix);
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordHoleEdge(const Build &build, const Finding &f) {
    return {
        {"Bare {0} edge under {1}",
         {[&] {
              for (const auto &pass : build.frame->passThroughs)
                  if (pass.id == f.subjects[0])
                      for (const auto &plate : build.frame->plates)
                          if (plate.id == pass.plate) return plate.material;
              for (const auto &arm : build.frame->arms)
                  if (arm.id == f.subjects[0]) return arm.material;
              return std::string("plate");
          }(),
          f.subjects.size() == 2 ? nameWithin(build, f.subjects[1]) : fmt::format("{} wires", f.subjects.size() - 1)}},
        {"No grommet in {0}: vibration cuts through the jacket. Put in a grommet, or sleeve the wires.",
         {f.subjects[0]}}};
}

static void judgeHoleFill(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &use : derived.wiring->holes) {
        if (use.wires.empty()) continue;
        Finding f;
        f.rule = RuleId::wirFill;
        f.subjects = {use.pass};
        for (const int w : use.wires) f.subjects.push_back(build.wires[std::size_t(w)].id);
        f.unit = "%";
        f.measured = use.fill * 100;
        f.limit = use.limit * 100;
        f.margin = *f.limit - *f.measured;
        f.severity = use.fill > 1 ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = {
            {"area", use.area_mm2, "mm2"}, {"largest circle", use.hole_mm, "mm"}, {"bundle", use.bundle_mm, "mm"}};
        for (const auto &pass : build.frame->passThroughs)
            if (pass.id == use.pass) {
                const Vec2 middle = areaProperties({pass.outline_mm, {}}).centroid_mm;
                f.from_mm = f.to_mm = Vec3(middle.x(), middle.y(), 0);
            }
        out.push_back(std::move(f));
    }
}

static FindingText wordHoleFill(const Build &, const Finding &f) {
    return {
        {"{0} is {1} % full of wires; {2} % goes through without force",
         {f.subjects[0], wholeNumber(*f.measured), wholeNumber(*f.limit)}},
        {"Lead some of the {0} wires another way, or make the hole larger.", {std::to_string(f.subjects.size() - 1)}}};
}

static void judgeWireZone(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    const BladeRoom room = bladeRoomOf(practice);
    for (std::size_t w = 0; w < derived.routes.size(); ++w) {
        const auto &points = derived.routes[w].points_mm;
        if (points.size() < 2) continue;
        Finding nearest;
        double least = 1e300;
        const auto samples = samplesAlong(points, 5);
        Aabb run;
        for (const Vec3 &p : samples) run.include(p);
        for (const auto &mount : build.frame->motorMounts) {
            if (mount.propDiameter_mm <= 0) continue;
            const Shape disc = discShape(mount, room);
            const Pose pose = discPose(mount, room);
            if (boxGap(run, boundsOf(disc, pose)) > practice[Limit::propFlexibleGap] + 5) continue;
            const Pose inverse = pose.inverse();
            for (const Vec3 &p : samples) {
                const double away = pointDistance(disc, inverse * p) - derived.wiring->wires[w].bundle_mm / 2;
                if (away >= least) continue;
                least = away;
                nearest.subjects = {build.wires[w].id, mount.id};
                nearest.from_mm = nearest.to_mm = p;
            }
        }
        if (nearest.subjects.empty() || least > practice[Limit::propFlexibleGap] + 5) continue;
        nearest.rule = RuleId::wirZone;
        nearest.unit = "mm";
        nearest.measured = std::max(0.0, least);
        // A wire that is held cannot swing up: along an arm half the room of a loose one is enough.
        constexpr double kOnArm_mm = 8;
        // Phase wires have to leave under their own propeller.
        const bool along =
            derived.wiring->wires[w].role == WireRole::phase ||
            std::any_of(build.frame->arms.begin(), build.frame->arms.end(), [&](const Arm &arm) {
                return pointDistance(armShape(arm), armPose(arm).inverse() * *nearest.from_mm) <= kOnArm_mm;
            });
        nearest.limit = practice[Limit::propFlexibleGap] / (along ? 2 : 1);
        nearest.practiceLimit = Limit::propFlexibleGap;
        nearest.margin = *nearest.measured - *nearest.limit;
        nearest.severity = least <= 0 ? Severity::stop : nearest.margin < 0 ? Severity::watch : Severity::pass;
        out.push_back(std::move(nearest));
    }
}

static FindingText wordWireZone(const Build &build, const Finding &f) {
    const std::string wire = displayName(build, f.subjects[0]), disc = nameWithin(build, f.subjects[1]);
    if (f.severity == Severity::stop)
        return {
            {"{0}: through the zone of the {1}", {wire, disc}},
            {"The propeller cuts it: lead it under the arm or along its side, and tie it. Propellers off on the bench.",
             {}}};
    return {{"{0}: {1} mm from the {2}", {wire, oneDecimal(*f.measured), disc}},
            {"{0} mm at least, and tied so that it cannot swing up.", {oneDecimal(*f.limit)}}};
}

static void judgeEscLead(const Build &build, const Practice &practice, const Derived &derived,
                         std::vector<Finding> &out) {
    for (std::size_t w = 0; w < derived.routes.size(); ++w) {
        const auto &points = derived.routes[w].points_mm;
        const Wire &wire = build.wires[w];
        if (points.size() < 2) continue;
        const WireRole role = derived.wiring->wires[w].role;
        bool sensitive = role == WireRole::video || role == WireRole::coax;
        for (const WireEnd *end : {&wire.from, &wire.to}) {
            const Part *part = findPart(build, end->part);
            const PartType *type = part ? typeOf(build, *part) : nullptr;
            sensitive |= type && type->kind == PartKind::receiver && role != WireRole::power;
        }
        if (!sensitive || wire.lay == WireLay::shielded) continue;
        const auto samples = samplesAlong(points, 5);
        Aabb run;
        for (const Vec3 &p : samples) run.include(p);
        for (const auto &part : build.parts) {
            const PartType *type = typeOf(build, part);
            if (!type || (type->kind != PartKind::esc && type->kind != PartKind::fourInOneEsc)) continue;
            if (part.id == wire.from.part || part.id == wire.to.part) continue;
            const Pose X_FramePart = framePose(build, part);
            double least = 1e300;
            Vec3 at = Vec3::Zero();
            for (const auto &solid : type->solids) {
                const Pose X_FrameSolid = X_FramePart * solid.X_PartSolid;
                if (boxGap(run, boundsOf(solid.shape, X_FrameSolid)) > practice[Limit::escLeadGap] + 5) continue;
                const Pose inverse = X_FrameSolid.inverse();
                for (const Vec3 &p : samples)
                    if (const double away = pointDistance(solid.shape, inverse * p); away < least) {
                        least = away;
                        at = p;
                    }
            }
            if (least > practice[Limit::escLeadGap] + 5) continue;
            Finding f;
            f.rule = RuleId::wirEscGap;
            f.subjects = {wire.id, part.id};
            f.unit = "mm";
            f.measured = least;
            f.limit = practice[Limit::escLeadGap];
            f.practiceLimit = Limit::escLeadGap;
            f.margin = *f.measured - *f.limit;
            f.severity = f.margin < 0 ? Severity::note : Severity::pass;
            f.from_mm = f.to_mm = at;
            out.push_back(std::move(f));
        }
    }
}

static FindingText wordEscLead(const Build &build, const Finding &f) {
    return {{"{0}: {1} mm from {2}",
             {displayName(build, f.subjects[0]), oneDecimal(*f.measured), nameWithin(build, f.subjects[1])}},
            {"Speed controllers switch hard: keep video and receiver leads {0} mm away, or shield them.",
             {oneDecimal(*f.limit)}}};
}

static void judgeStiffWires(const Build &build, const Practice &practice, const Derived &derived,
                            std::vector<Finding> &out) {
    constexpr int kStiff_AWG = 22;
    for (const auto &owner : derived.scene.owners) {
        if (owner.kind != OwnerKind::part || !owner.isolated) continue;
        const Part *part = findPart(build, owner.id);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (!type || type->kind != PartKind::flightController) continue;
        Finding f;
        f.rule = RuleId::wirSoft;
        f.subjects = {owner.id};
        int count = 0;
        for (std::size_t w = 0; w < build.wires.size(); ++w) {
            const Wire &wire = build.wires[w];
            if (wire.from.part != owner.id && wire.to.part != owner.id) continue;
            // A bundle of many thin wires is as stiff as a thick one.
            const bool stiff = derived.wiring->wires[w].gauge_AWG <= kStiff_AWG || wire.lay == WireLay::shielded ||
                               (wire.cores.size() >= 6 && wire.lay != WireLay::flat);
            if (!stiff) continue;
            ++count;
            f.subjects.push_back(wire.id);
        }
        f.measured = count;
        f.limit = practice[Limit::stiffWires];
        f.practiceLimit = Limit::stiffWires;
        f.unit = "wires";
        f.margin = *f.limit - count;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        out.push_back(std::move(f));
    }
}

static FindingText wordStiffWires(const Build &build, const Finding &f) {
    return {
        {"{0} stiff wires pull at {1}, which is soft-mounted",
         {wholeNumber(*f.measured), nameWithin(build, f.subjects[0])}},
        {"They carry vibration past the dampers: use thinner wire, bundle lightly, and leave them loose there.", {}}};
}

std::span<const Rule> wireRunsRules() {
    static const std::array<Rule, 8> rules{{
        {RuleId::wirParallel,
         "Power beside signal",
         "Side by side, power and phase wires talk into signal, video and antenna leads; crossed square they do not.",
         kTrade,
         Stage::wire,
         {Limit::parallelGap, Limit::parallelLength},
         needs(Need::wiring),
         judgeParallelRun,
         wordParallelRun},
        {RuleId::wirBend,
         "Bend too tight",
         "Coax bent too tight changes its impedance, wire breaks at the joint.",
         "common practice, no source; as a choice FAA AC 43.13-1B chapter 11, from memory",
         Stage::wire,
         {Limit::bendWire, Limit::bendCoax},
         needs(Need::wiring),
         judgeWireBend,
         wordWireBend},
        {RuleId::wirSpan,
         "Wire that nothing holds",
         "Loose wires reach the propellers, and a plug that has to hold its own wire comes off.",
         kTrade,
         Stage::wire,
         {Limit::wireSpan, Limit::strainRelief},
         needs(Need::routes),
         judgeWireSpan,
         wordWireSpan},
        {RuleId::wirEdge,
         "Bare edges",
         "A carbon edge is a saw: in vibration it cuts through any jacket.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::wiring, Need::routes),
         judgeHoleEdge,
         wordHoleEdge},
        {RuleId::wirFill,
         "Hole too full",
         "A hole that is stuffed cannot be passed by the next plug and chafes what is in it.",
         "fill of NFPA 70 chapter 9 table 1, from memory",
         Stage::wire,
         {},
         needs(Need::wiring),
         judgeHoleFill,
         wordHoleFill},
        {RuleId::wirZone,
         "Wires and propellers",
         "A propeller that catches a wire takes it along.",
         kTrade,
         Stage::wire,
         {Limit::propFlexibleGap, Limit::propFlexUp, Limit::propFlexDown, Limit::propFlexFor},
         needs(Need::routes, Need::wiring),
         judgeWireZone,
         wordWireZone},
        {RuleId::wirEscGap,
         "Leads beside speed controllers",
         "Speed controllers switch tens of amperes in a fraction of a microsecond.",
         kTrade,
         Stage::wire,
         {Limit::escLeadGap},
         needs(Need::places, Need::routes, Need::wiring),
         judgeEscLead,
         wordEscLead},
        {RuleId::wirSoft,
         "Stiff wires on a soft-mounted board",
         "Dampers are of no use when wires carry the vibration past them.",
         kTrade,
         Stage::wire,
         {Limit::stiffWires},
         needs(Need::owners, Need::wiring),
         judgeStiffWires,
         wordStiffWires},
    }};
    return rules;
}

} // namespace waxis
