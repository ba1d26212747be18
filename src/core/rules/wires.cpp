// WIR: how long, how thick, and what is lost on the way.
#include "core/base/units.h"
#include "core/findings/input.h"
#include "core/power/power_report.h"
#include "core/remedies/gauge_advice.h"
#include "core/rules/gather.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

Finding wireFinding(RuleId rule, const Build &build, const Derived &derived, std::size_t wire) {
    Finding f;
    f.rule = rule;
    f.subjects = {build.wires[wire].id};
    const auto &points = derived.routes[wire].points_mm;
    if (points.size() >= 2) {
        f.from_mm = points.front();
        f.to_mm = points.back();
    }
    return f;
}

/// The move of an end's part that shortens the way most: along the first or last stretch, by the axis that counts.
std::optional<Fix> shorterWay(const Build &build, const Wire &wire, const WireRoute &route, double by_mm) {
    for (const bool atFrom : {true, false}) {
        const WireEnd &end = atFrom ? wire.from : wire.to;
        const Part *part = findPart(build, end.part);
        if (!part || part->pinned || part->fastening.method == FasteningMethod::stack || !part->placement.site.empty())
            continue;
        const auto &p = route.points_mm;
        if (p.size() < 3) continue;
        // Past the plug's own body, towards where the wire goes.
        const Vec3 way = atFrom ? Vec3(p[std::min<std::size_t>(3, p.size() - 1)] - p[1])
                                : Vec3(p[p.size() - std::min<std::size_t>(4, p.size())] - p[p.size() - 2]);
        int axis = 0;
        for (int k = 1; k < 2; ++k) // along or across; boards are not lifted off what they lie on
            if (std::abs(way[k]) > std::abs(way[axis])) axis = k;
        constexpr double kAlong = 0.7, kFarthest_mm = 40; // else the move costs more than a new lead
        if (way.norm() < 1e-9 || std::abs(way[axis]) < kAlong * way.norm() || by_mm > kAlong * kFarthest_mm) continue;
        Fix fix;
        fix.part = end.part;
        Vec3 shift_mm = Vec3::Zero();
        shift_mm[axis] = std::copysign(std::ceil(by_mm / (std::abs(way[axis]) / way.norm())), way[axis]);
        fix.change = PartShift{shift_mm};
        return fix;
    }
    return std::nullopt;
}

/// A motor whose leads leave on the far side, and by how much less they need when it is turned on its mount.
struct LeadSide {
    double turn_deg = 0, saved_mm = 0;
};

/// Straight from where the leads leave a motor to where they end; a quarter turn is one where its holes allow it.
std::optional<LeadSide> nearerSide(const Build &build, const Part &motor, const WireEnd &end, const WireEnd &far) {
    const PartType *type = typeOf(build, motor);
    const Port *port = portOf(build, end), *other = portOf(build, far);
    const Part *farPart = findPart(build, far.part);
    if (!type || !port || !other || !farPart) return std::nullopt;
    const Pose pose = framePose(build, motor);
    const Vec3 goal = framePose(build, *farPart) * other->position_mm;
    constexpr double kFirstBend_mm = 4; // leads come straight out of the windings
    const Vec3 leaves = port->position_mm + kFirstBend_mm * port->direction;
    const auto away = [&](double turn_deg) {
        const Quat turn(Eigen::AngleAxisd(radiansFromDegrees(turn_deg), Vec3::UnitZ()));
        return (pose * Vec3(turn * leaves) - goal).norm();
    };
    const bool quarters = !type->mounting || type->mounting->shape != PatternShape::rectangle;
    LeadSide best;
    for (const double turn_deg : {180.0, 90.0, -90.0})
        if (const double saved = away(0) - away(turn_deg);
            (quarters || turn_deg == 180) && saved > best.saved_mm + 1e-6)
            best = {turn_deg, saved};
    return best;
}

/// Where a turn of the motor saves more than a lead's usual slack.
void judgeLeadSides(const Build &build, const Derived &derived, std::vector<Finding> &out) {
    constexpr double kWorth_mm = 15, kAlike_mm = 10;
    const std::size_t first = out.size();
    for (std::size_t w = 0; w < build.wires.size() && w < derived.wiring->wires.size(); ++w) {
        const Wire &wire = build.wires[w];
        if (derived.wiring->wires[w].role != WireRole::phase) continue;
        for (const bool atFrom : {true, false}) {
            const WireEnd &end = atFrom ? wire.from : wire.to;
            const Part *part = findPart(build, end.part);
            const PartType *type = part ? typeOf(build, *part) : nullptr;
            if (!type || type->kind != PartKind::motor) continue;
            const auto side = nearerSide(build, *part, end, atFrom ? wire.to : wire.from);
            if (!side || side->saved_mm < kWorth_mm) continue;
            Finding f = wireFinding(RuleId::wirLength, build, derived, w);
            f.variant = "far side";
            f.severity = Severity::note;
            f.subjects = {part->id, wire.id};
            f.unit = "mm";
            f.measured = side->saved_mm;
            f.limit = kWorth_mm;
            f.margin = kWorth_mm - side->saved_mm;
            f.inputs = {{"turned by", side->turn_deg, "°"}, {"saved", side->saved_mm, "mm"}};
            Fix fix;
            fix.part = part->id;
            fix.change = PartTurn{framePose(build, *part).rotation * Vec3::UnitZ(), side->turn_deg};
            f.fixes.push_back(std::move(fix));
            out.push_back(std::move(f));
        }
    }
    gatherAlike(out, first, kAlike_mm);
}

} // namespace

static void judgeWireLength(const Build &build, const Practice &practice, const Derived &derived,
                            std::vector<Finding> &out) {
    for (std::size_t w = 0; w < derived.wiring->wires.size(); ++w) {
        const WireReport &report = derived.wiring->wires[w];
        if (!report.supplied_mm && report.verdict != LeadVerdict::none) continue;
        Finding f = wireFinding(RuleId::wirLength, build, derived, w);
        f.unit = "mm";
        f.inputs = {{"route", report.route_mm, "mm"},
                    {"corners", report.corners_mm, "mm"},
                    {"twist", report.twist, ""},
                    {"ends", report.ends_mm, "mm"},
                    {"re-termination", report.resolder_mm, "mm"},
                    {"slack", report.slack_mm, "mm"},
                    {"needed", report.needed_mm, "mm"}};
        if (report.verdict == LeadVerdict::none) {
            f.variant = "none";
            f.severity = Severity::stop;
            f.measured = readyMadeLengths_mm(build.wires[w].lay).back();
            f.limit = report.needed_mm;
            f.margin = *f.measured - *f.limit;
            out.push_back(std::move(f));
            continue;
        }
        f.variant = report.verdict == LeadVerdict::trim ? "trim" : "short";
        f.measured = *report.supplied_mm;
        f.limit = report.needed_mm;
        f.margin = report.spare_mm;
        // Within the re-termination it still reaches, once.
        f.severity = report.spare_mm >= 0                                                           ? Severity::pass
                     : -report.spare_mm <= std::max(report.resolder_mm, practice[Limit::wireRound]) ? Severity::watch
                                                                                                    : Severity::stop;
        if (f.severity == Severity::watch) f.practiceLimit = Limit::wireResolder;
        if (report.spare_mm < 0) {
            Fix stock;
            stock.change = WireChange{WireChange::Kind::stock, build.wires[w].id, 0, 0, false, {}, {}, Vec3::Zero()};
            if (auto nearer = shorterWay(build, build.wires[w], derived.routes[w], -report.spare_mm))
                f.fixes.push_back(*nearer);
            f.fixes.push_back(stock);
        }
        out.push_back(std::move(f));
    }
    judgeLeadSides(build, derived, out);
}

static FindingText wordWireLength(const Build &build, const Finding &f) {
    const std::string name = displayName(build, f.subjects[0]);
    if (f.variant == "far side") {
        std::vector<std::string> motors{f.subjects[0]};
        motors.insert(motors.end(), f.subjects.begin() + 2, f.subjects.end());
        return {{"{0}: leads leave on the far side", {listNamesFirst(build, motors)}},
                {"Turned by {0}° on the mount they need about {1} mm less.",
                 {wholeNumber(std::abs(inputOf(f, "turned by"))), wholeNumber(*f.measured)}}};
    }
    if (f.variant == "none")
        return {{"No ready-made cable is long enough for {0}: {1} mm needed, {2} mm is the longest",
                 {withinSentence(name), wholeNumber(*f.limit), wholeNumber(*f.measured)}},
                {"Cut it from stock, or move one of its ends nearer.", {}}};
    if (f.severity == Severity::watch)
        return {{"{0}: just too short, {1} mm supplied and {2} mm wanted",
                 {name, wholeNumber(*f.measured), wholeNumber(*f.limit)}},
                {"It cannot be soldered a second time: {0} mm longer would do, or move an end nearer.",
                 {wholeNumber(-f.margin)}}};
    return {{"{0}: {1} mm short, {2} mm needed and {3} supplied",
             {name, wholeNumber(-f.margin), wholeNumber(*f.limit), wholeNumber(*f.measured)}},
            {"Splice it, take a longer lead, or move an end nearer by that much.", {}}};
}

static void judgeWireGauge(const Build &build, const Practice &practice, const Derived &derived,
                           std::vector<Finding> &out) {
    const std::size_t first = out.size();
    for (std::size_t w = 0; w < derived.power->wires.size(); ++w) {
        const WireCurrent &current = derived.power->wires[w];
        const WireReport &report = derived.wiring->wires[w];
        const WireStock *stock = findWireStock(report.gauge_AWG);
        if (!current.known || !(current.typical_A > 0) || !stock || build.wires[w].lay == WireLay::flat) continue;
        Finding f = wireFinding(RuleId::wirGauge, build, derived, w);
        f.unit = "A";
        f.measured = current.typical_A;
        f.limit = stock->carries_A * practice[Limit::wireShare] / 100;
        f.practiceLimit = Limit::wireShare;
        f.margin = *f.limit - *f.measured;
        f.inputs = {{"typical", current.typical_A, "A"},
                    {"peak", current.peak_A, "A"},
                    {"gauge", double(report.gauge_AWG), "AWG"},
                    {"carries for long", stock->carries_A, "A"},
                    {"warms by 60 K", warmingCurrent_A(report.gauge_AWG, 60), "A"}};
        f.severity = current.typical_A > stock->carries_A ? Severity::stop
                     : f.margin < 0                       ? Severity::watch
                                                          : Severity::pass;
        const auto fit = lightestGauge(current.typical_A / (practice[Limit::wireShare] / 100));
        auto offer = [&](int awg) {
            Fix fix;
            fix.change = WireChange{WireChange::Kind::gauge, build.wires[w].id, awg, 0, false, {}, {}, Vec3::Zero()};
            f.fixes.push_back(fix);
        };
        if (f.severity != Severity::pass && fit) offer(*fit);
        // Peaks last seconds: silicone bears two to three times the continuous current then (common practice, no
        // source).
        if (f.severity == Severity::pass && current.peak_A > kBurst * stock->carries_A) {
            f.variant = "burst";
            f.severity = Severity::watch;
            f.measured = current.peak_A;
            f.limit = kBurst * stock->carries_A;
            f.practiceLimit.reset();
            f.margin = *f.limit - *f.measured;
            if (const auto thicker = lightestGauge(current.peak_A / kBurst)) offer(*thicker);
        }
        out.push_back(std::move(f));
    }
    gatherAlike(out, first, kAlike_A);
}

static FindingText wordWireGauge(const Build &build, const Finding &f) {
    const std::string name = listNamesFirst(build, f.subjects, 2);
    const std::string gauge = wholeNumber(inputOf(f, "gauge"));
    if (f.variant == "burst")
        return {{"{0}: {1} A at full thrust in AWG {2}, which bears {3} A for seconds",
                 {name, wholeNumber(*f.measured), gauge, wholeNumber(*f.limit)}},
                {"Take a thicker wire, or keep full thrust short.", {}}};
    return {{"{0}: {1} A in AWG {2}, which is good for {3} A",
             {name, oneDecimal(*f.measured), gauge, oneDecimal(inputOf(f, "carries for long"))}},
            {"Take a thicker wire.", {}}};
}

static void judgeWireDrop(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &rail : derived.power->rails) {
        // The load that loses most speaks for its rail.
        const RailLoad *worst = nullptr;
        for (const auto &load : rail.loads)
            if (!worst || load.peakDrop_V > worst->peakDrop_V) worst = &load;
        if (!worst || worst->wires.empty() || !(rail.nominal_V > 0) || !(worst->peakDrop_V > 0)) continue;
        Finding f;
        f.rule = RuleId::wirDrop;
        f.subjects = {worst->part, rail.part};
        f.variant = rail.output;
        f.unit = "%";
        f.measured = worst->peakDrop_V / rail.nominal_V * 100;
        f.limit = practice[Limit::dropShare];
        f.practiceLimit = Limit::dropShare;
        f.margin = *f.limit - *f.measured;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = {{"lost at peak", worst->peakDrop_V * 1e3, "mV"},
                    {"lost in hover", worst->drop_V * 1e3, "mV"},
                    {"rail", rail.nominal_V, "V"},
                    {"wires on the way", double(worst->wires.size()), ""}};
        out.push_back(std::move(f));
    }
}

static FindingText wordWireDrop(const Build &build, const Finding &f) {
    return {{"{0} loses {1} % on the way from {2}: {3} mV",
             {displayName(build, f.subjects[0]), oneDecimal(*f.measured), nameWithin(build, f.subjects[1]),
              wholeNumber(inputOf(f, "lost at peak"))}},
            {"Thicker or shorter wires; {0} % is what the practice allows.", {oneDecimal(*f.limit)}}};
}

static void judgeCriticalJoints(const Build &build, const Practice &practice, const Derived &derived,
                                std::vector<Finding> &out) {
    // Everything between pack and motors: each plug in it, and each splice. Who plugs on purpose counts splices alone.
    const bool counted = practice.follows("plugs", "solder");
    std::vector<std::string> joints;
    int splices = 0, plugs = 0;
    for (const auto &passage : derived.power->passages) {
        const Part *part = findPart(build, passage.part);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (!counted || !type || type->kind != PartKind::powerPlug) continue;
        const bool motors =
            std::any_of(derived.power->motors.begin(), derived.power->motors.end(),
                        [&](const MotorCurrent &m) { return m.hover_A > 0 && m.hover_A <= passage.typical_A; });
        if (!motors) continue;
        ++plugs;
        joints.push_back(passage.part);
    }
    for (std::size_t w = 0; w < build.wires.size(); ++w) {
        const Wire &wire = build.wires[w];
        const WireRole role = derived.wiring->wires[w].role;
        const bool critical =
            role == WireRole::phase ||
            (role == WireRole::power && derived.power->wires[w].known && !derived.power->motors.empty() &&
             derived.power->wires[w].typical_A >= derived.power->motors[0].hover_A &&
             derived.power->motors[0].hover_A > 0);
        if (!critical) continue;
        if (wire.splices > 0) {
            splices += wire.splices;
            joints.push_back(wire.id);
        }
        for (const WireEnd *end : {&wire.from, &wire.to}) {
            const Part *part = findPart(build, end->part);
            const PartType *type = part ? typeOf(build, *part) : nullptr;
            const Port *port = portOf(build, *end);
            if (!type || !port || type->kind == PartKind::powerPlug || type->kind == PartKind::battery) continue;
            if (counted && (port->kind == PortKind::plug || port->kind == PortKind::socket)) {
                ++plugs;
                joints.push_back(wire.id);
            }
        }
    }
    if (joints.empty()) return;
    Finding f;
    f.rule = RuleId::wirJoints;
    f.subjects = joints;
    f.measured = plugs + splices;
    f.limit = practice[Limit::criticalJoints];
    f.practiceLimit = Limit::criticalJoints;
    f.margin = *f.limit - *f.measured;
    f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
    f.inputs = {{"plugs", double(plugs), ""}, {"splices", double(splices), ""}};
    out.push_back(std::move(f));
}

static FindingText wordCriticalJoints(const Build &build, const Finding &f) {
    std::string names;
    for (std::size_t i = 0; i < f.subjects.size() && i < 4; ++i)
        names += (i ? ", " : "") + (i ? nameWithin(build, f.subjects[i]) : displayName(build, f.subjects[i]));
    if (f.subjects.size() > 4) names += fmt::format(" and {} more", f.subjects.size() - 4);
    return {{"Joints between pack and motors: plugs {0}, splices {1}",
             {wholeNumber(inputOf(f, "plugs")), wholeNumber(inputOf(f, "splices"))}},
            {"{0}: each is a possible failure. Solder it, or lock and tie it.", {names}}};
}

static void judgeWireRoute(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (std::size_t w = 0; w < build.wires.size(); ++w) {
        const WireRoute &route = derived.routes[w];
        if (route.found || route.makeshift) continue; // that is still being looked for
        Finding f = wireFinding(RuleId::wirRoute, build, derived, w);
        f.variant = route.points_mm.empty() ? "ends" : "blocked";
        f.severity = Severity::unknown;
        out.push_back(std::move(f));
    }
}

static FindingText wordWireRoute(const Build &build, const Finding &f) {
    const std::string name = displayName(build, f.subjects[0]);
    if (f.variant == "ends")
        return {{"{0} ends at a port that its part does not have", {name}},
                {"Its length is not known: choose a port that is there.", {}}};
    return {
        {"No way was found for {0}", {withinSentence(name)}},
        {"It is drawn straight through what stands in its way and its length is a guess: pin points by hand, open a "
         "pass-through, or make room at its ends.",
         {}}};
}

std::span<const Rule> wiresRules() {
    static const std::array<Rule, 5> rules{{
        {RuleId::wirLength,
         "Lead too short",
         "A lead that is short comes out when everything else is in place; the route is known before.",
         "route along its supports, corners rounded; common practice for allowances, no source",
         Stage::wire,
         {Limit::wireRound, Limit::endSolder, Limit::endCrimp, Limit::wireResolder, Limit::wireSwaySlack,
          Limit::wireOpenSlack},
         needs(Need::places, Need::routes, Need::wiring),
         judgeWireLength,
         wordWireLength},
        {RuleId::wirGauge,
         "Wire too thin",
         "A wire that is too thin gets hot, softens its solder and loses voltage.",
         "\"chassis wiring\" of the Handbook of Electronic Tables and Formulas, from memory",
         Stage::wire,
         {Limit::wireShare, Limit::figureOfMerit, Limit::driveEfficiency, Limit::flyingHeight},
         needs(Need::routes, Need::wiring, Need::power),
         judgeWireGauge,
         wordWireGauge},
        {RuleId::wirDrop,
         "Voltage lost on the way",
         "What is lost in wires is missing at the load just when it needs most.",
         "ASTM B258, IEC 60028",
         Stage::wire,
         {Limit::dropShare},
         needs(Need::power),
         judgeWireDrop,
         wordWireDrop},
        {RuleId::wirJoints,
         "Joints between pack and motors",
         "Every plug and splice in this path is one more thing that can end the flight.",
         kTrade,
         Stage::wire,
         {Limit::criticalJoints},
         needs(Need::wiring, Need::power),
         judgeCriticalJoints,
         wordCriticalJoints},
        {RuleId::wirRoute,
         "No way for a wire",
         "A wire that has no way round what stands there cannot be measured.",
         "shortest way on a fixed lattice",
         Stage::wire,
         {},
         needs(Need::routes),
         judgeWireRoute,
         wordWireRoute},
    }};
    return rules;
}

} // namespace waxis
