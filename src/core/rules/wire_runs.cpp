// WIR: what wires run beside, over, through and under.
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/findings/input.h"
#include "core/power/power_report.h"
#include "core/practice/blade_room.h"
#include "core/rules/gather.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/scene/scene.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <utility>

namespace waxis {

/// How many times the practice's length the listener bears beside that current: the practice's figure is for some 10 A
/// beside a picture or an antenna's lead (common practice, no source); what it induces goes with the current, and a
/// serial line or bus stands several times as much as a picture.
static double bears(const Build &build, const Derived &derived, const WireMeeting &meeting) {
    constexpr double kUsual_A = 10, kLeast = 0.5, kMost = 4, kDigital = 2;
    const auto &currents = derived.power->wires;
    const auto a = std::size_t(meeting.a), b = std::size_t(meeting.b);
    double times = 1;
    if (a < currents.size() && currents[a].known && currents[a].typical_A > 0)
        times = std::clamp(kUsual_A / currents[a].typical_A, kLeast, kMost);
    const bool digital = std::any_of(build.wires[b].cores.begin(), build.wires[b].cores.end(), [&](const WireCore &c) {
        const SignalKind kind = signalAt(build, build.wires[b].from, c.fromPin).kind;
        return kind == SignalKind::serialTx || kind == SignalKind::serialRx || kind == SignalKind::busData ||
               kind == SignalKind::busClock || kind == SignalKind::channel;
    });
    const bool picture =
        derived.wiring->wires[b].role == WireRole::video || derived.wiring->wires[b].role == WireRole::coax;
    return digital && !picture ? times * kDigital : times;
}

static void judgeParallelRun(const Build &build, const Practice &practice, const Derived &derived,
                             std::vector<Finding> &out) {
    for (const auto &meeting : derived.wiring->meetings) {
        if (meeting.together_mm <= 0) continue; // they cross: that is how it should be
        Finding f;
        f.rule = RuleId::wirParallel;
        f.subjects = {build.wires[std::size_t(meeting.b)].id, build.wires[std::size_t(meeting.a)].id};
        f.unit = "mm";
        f.measured = meeting.together_mm;
        f.limit = practice[Limit::parallelLength] * bears(build, derived, meeting);
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

namespace {

/// Where ties would be put: as few as it takes, evenly within each span that is too long.
void tiesInSpans(const WireRoute &route, double limit_mm, std::vector<double> &ties) {
    for (const auto &span : route.spans) {
        const int pieces = int(std::ceil((span.to_mm - span.from_mm) / limit_mm - 1e-9));
        for (int k = 1; k < pieces; ++k) ties.push_back(span.from_mm + (span.to_mm - span.from_mm) * k / pieces);
    }
}

/// A plug that its own wire pulls off: small ones, and those of coax.
bool wantsRelief(const Build &build, const WireEnd &end) {
    const Part *part = findPart(build, end.part);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    const Port *port = portOf(build, end);
    // An antenna's own end is no plug.
    if (!type || !port || type->kind == PartKind::antenna || port->kind == PortKind::pads) return false;
    return type->fragile || port->kind == PortKind::coax;
}

/// How far along the wire, from that end, something holds it first.
double firstHeld_mm(const WireRoute &route, bool atFrom) {
    double first = route.length_mm;
    for (const auto &support : route.supports)
        if (support.kind != SupportKind::end)
            first = std::min(first, atFrom ? support.at_mm : route.length_mm - support.at_mm);
    return first;
}

/// All ties of a wire as one fix.
Fix tieAt(const WireRoute &route, std::vector<double> ties) {
    std::sort(ties.begin(), ties.end());
    Fix fix;
    for (std::size_t t = 0; t < ties.size(); ++t) {
        WireChange tie;
        tie.kind = WireChange::Kind::tie;
        tie.at_mm = pointAlong(route.points_mm, ties[t]);
        if (t == 0)
            fix.change = tie;
        else
            fix.then.emplace_back(std::string(), tie);
    }
    return fix;
}

} // namespace

static void judgeWireSpan(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    const double longest_mm = practice[Limit::wireSpan], relief_mm = practice[Limit::strainRelief];
    for (std::size_t w = 0; w < derived.routes.size(); ++w) {
        const WireRoute &route = derived.routes[w];
        if (route.points_mm.size() < 2) continue;
        std::vector<double> ties;
        std::vector<std::string> unrelieved;
        double latest_mm = 0;
        for (const bool atFrom : {true, false}) {
            const WireEnd &end = atFrom ? build.wires[w].from : build.wires[w].to;
            if (!wantsRelief(build, end)) continue;
            const double first_mm = firstHeld_mm(route, atFrom);
            latest_mm = std::max(latest_mm, first_mm);
            if (first_mm <= relief_mm) continue;
            unrelieved.push_back(end.part);
            const double at = std::min(route.length_mm, relief_mm * 0.8);
            ties.push_back(atFrom ? at : route.length_mm - at);
        }
        Finding f;
        f.rule = RuleId::wirSpan;
        f.subjects = {build.wires[w].id};
        f.subjects.insert(f.subjects.end(), unrelieved.begin(), unrelieved.end());
        f.unit = "mm";
        const bool free = route.widestSpan_mm > longest_mm;
        f.inputs = {
            {"widest", route.widestSpan_mm, "mm"}, {"first held", latest_mm, "mm"}, {"relief", relief_mm, "mm"}};
        if (free || unrelieved.empty()) {
            f.variant = "span";
            f.measured = route.widestSpan_mm;
            f.limit = longest_mm;
            f.practiceLimit = Limit::wireSpan;
            f.from_mm = f.to_mm = route.spanMiddle_mm;
        } else {
            f.variant = "relief";
            f.measured = latest_mm;
            f.limit = relief_mm;
            f.practiceLimit = Limit::strainRelief;
            f.from_mm = f.to_mm = pointAlong(route.points_mm, ties.front());
        }
        f.margin = *f.limit - *f.measured;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        tiesInSpans(route, longest_mm, ties);
        if (f.severity == Severity::watch && !ties.empty()) f.fixes.push_back(tieAt(route, ties));
        out.push_back(std::move(f));
    }
}

static FindingText wordWireSpan(const Build &build, const Finding &f) {
    std::string plugs;
    for (std::size_t i = 1; i < f.subjects.size(); ++i)
        plugs += (i > 1 ? " and " : "") + nameWithin(build, f.subjects[i]);
    const std::vector<std::string> words{
        displayName(build, f.subjects[0]),     wholeNumber(*f.measured),          plugs,
        wholeNumber(inputOf(f, "first held")), wholeNumber(inputOf(f, "relief")), wholeNumber(*f.limit)};
    if (f.variant == "relief")
        return {{"{0}: first held {1} mm from the plug at {2}", words},
                {"A small plug comes off when its wire pulls: tie it within {4} mm.", words}};
    if (!plugs.empty())
        return {{"{0}: {1} mm hang free, first held {3} mm from the plug at {2}", words},
                {"A loose wire finds the propellers and pulls a small plug off: tie it down at least every {5} mm, and "
                 "within {4} mm of the plug.",
                 words}};
    return {{"{0}: {1} mm hang free", words},
            {"A loose wire finds the propellers: tie it down at least every {5} mm.", words}};
}

static void judgeWireZone(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    const BladeRoom room = bladeRoomOf(practice);
    const std::size_t first = out.size();
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
    constexpr double kSameRun_mm = 1; // leads of packs that take turns
    gatherAlike(out, first, kSameRun_mm, Share::second);
}

static FindingText wordWireZone(const Build &build, const Finding &f) {
    std::vector<std::string> wires{f.subjects[0]};
    wires.insert(wires.end(), f.subjects.begin() + 2, f.subjects.end());
    const std::string wire = listNamesFirst(build, wires), disc = nameWithin(build, f.subjects[1]);
    if (f.severity == Severity::stop)
        return {
            {"{0}: through the zone of the {1}", {wire, disc}},
            {"The propeller cuts it: lead it under the arm or along its side, and tie it. Propellers off on the bench.",
             {}}};
    return {{"{0}: {1} mm from the {2}", {wire, oneDecimal(*f.measured), disc}},
            {"{0} mm at least, and tied so that it cannot swing up.", {oneDecimal(*f.limit)}}};
}

namespace {

/// Leads in which the noise of others is heard: of pictures, antennas, receivers and satellites.
bool isSensitive(const Build &build, const Wire &wire, WireRole role) {
    if (wire.lay == WireLay::shielded || role == WireRole::power) return false;
    if (role == WireRole::video || role == WireRole::coax) return true;
    for (const WireEnd *end : {&wire.from, &wire.to}) {
        const Part *part = findPart(build, end->part);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (type && (type->kind == PartKind::receiver || type->kind == PartKind::gps)) return true;
    }
    return false;
}

/// How far builders keep such leads from a part; none from what is quiet.
std::optional<Limit> quietFrom(const PartType &type) {
    switch (type.kind) {
    case PartKind::esc:
    case PartKind::fourInOneEsc: return Limit::escLeadGap;
    case PartKind::digitalVideoUnit:
    case PartKind::videoTransmitter:
    case PartKind::payloadCamera:
    case PartKind::regulator: return Limit::noisyLeadGap;
    default: return std::nullopt;
    }
}

struct Nearest {
    double least_mm = 1e300;
    Vec3 at_mm = Vec3::Zero();
};

Nearest nearestTo(const PartType &type, const Pose &pose, const std::vector<Vec3> &samples, const Aabb &run,
                  double within_mm) {
    Nearest nearest;
    for (const auto &solid : type.solids) {
        const Pose X_FrameSolid = pose * solid.X_PartSolid;
        if (boxGap(run, boundsOf(solid.shape, X_FrameSolid)) > within_mm) continue;
        const Pose inverse = X_FrameSolid.inverse();
        for (const Vec3 &p : samples)
            if (const double away = pointDistance(solid.shape, inverse * p); away < nearest.least_mm)
                nearest = {away, p};
    }
    return nearest;
}

} // namespace

/// One finding for each loud part: the quiet lead that is nearest to it, and the others that are too near.
static void judgeNoisyNeighbours(const Build &build, const Practice &practice, const Derived &derived,
                                 std::vector<Finding> &out) {
    struct QuietLead {
        const Wire *wire;
        std::vector<Vec3> samples;
        Aabb run;
    };
    std::vector<QuietLead> leads;
    for (std::size_t w = 0; w < derived.routes.size(); ++w) {
        const auto &points = derived.routes[w].points_mm;
        if (points.size() < 2 || !isSensitive(build, build.wires[w], derived.wiring->wires[w].role)) continue;
        QuietLead lead{&build.wires[w], samplesAlong(points, 5), {}};
        for (const Vec3 &p : lead.samples) lead.run.include(p);
        leads.push_back(std::move(lead));
    }
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        const auto limit = type ? quietFrom(*type) : std::nullopt;
        if (!limit) continue;
        constexpr double kBeyond_mm = 5;     // passes that are worth telling as close calls
        constexpr double kLattice_mm = 0.05; // routes lie on a lattice: what is nearer by less is not nearer
        Finding f;
        f.rule = RuleId::wirEscGap;
        f.limit = practice[*limit];
        f.practiceLimit = limit;
        f.unit = "mm";
        f.variant = *limit == Limit::escLeadGap ? "esc" : "unit";
        f.margin = 1e300;
        f.subjects = {part.id, std::string()};
        const Pose pose = framePose(build, part);
        for (const auto &[wire, samples, run] : leads) {
            if (part.id == wire->from.part || part.id == wire->to.part) continue;
            const Nearest nearest = nearestTo(*type, pose, samples, run, *f.limit + kBeyond_mm);
            const double margin = nearest.least_mm - *f.limit;
            if (margin > kBeyond_mm) continue;
            const bool worst = margin < f.margin;
            std::string other = worst ? std::exchange(f.subjects[1], wire->id) : wire->id;
            const double otherMargin = worst ? f.margin : margin;
            if (!other.empty() && otherMargin < -kLattice_mm) f.subjects.push_back(std::move(other));
            if (!worst) continue;
            f.margin = margin;
            f.measured = nearest.least_mm;
            f.from_mm = f.to_mm = nearest.at_mm;
        }
        if (f.subjects[1].empty()) continue;
        f.severity = f.margin < -kLattice_mm ? Severity::note : Severity::pass;
        if (f.severity == Severity::pass) f.margin = std::max(f.margin, 0.0);
        out.push_back(std::move(f));
    }
}

static FindingText wordNoisyNeighbours(const Build &build, const Finding &f) {
    const std::string others = listNames(build, std::span(f.subjects).subspan(2));
    const std::vector<std::string> words{displayName(build, f.subjects[1]), oneDecimal(*f.measured),
                                         nameWithin(build, f.subjects[0]), oneDecimal(*f.limit),
                                         others.empty() ? std::string() : " Too near as well: " + others + "."};
    return {
        {"{0}: {1} mm from {2}", words},
        {f.variant == "esc"
             ? "Speed controllers switch hard: keep leads of pictures, receivers and GPS {3} mm away, or shield "
               "them.{4}"
             : "Senders, cameras and regulators are loud: keep leads of pictures, receivers and GPS {3} mm away, or "
               "shield them.{4}",
         words}};
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
    static const std::array<Rule, 6> rules{{
        {RuleId::wirParallel,
         "Power beside signal",
         "Side by side, power and phase wires talk into signal, video and antenna leads; crossed square they do not.",
         kTrade,
         Stage::wire,
         {Limit::parallelGap, Limit::parallelLength},
         needs(Need::wiring, Need::power),
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
         "Leads beside what is loud",
         "Speed controllers switch tens of amperes in a fraction of a microsecond; units, senders and regulators are "
         "heard in the leads of quiet things.",
         kTrade,
         Stage::wire,
         {Limit::escLeadGap, Limit::noisyLeadGap},
         needs(Need::places, Need::routes, Need::wiring),
         judgeNoisyNeighbours,
         wordNoisyNeighbours},
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
