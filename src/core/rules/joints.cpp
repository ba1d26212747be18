// WIR-14, WIR-15, LNK-16: wires through bodies, what a pad takes, which plug goes where.
#include "core/base/by_id.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/edits/wire_edits.h"
#include "core/findings/input.h"
#include "core/links/mating.h"
#include "core/rules/electrical.h"
#include "core/rules/rule.h"
#include "core/scene/scene.h"
#include "core/wiring/pad_joints.h"
#include "core/wiring/route_field.h"
#include "core/wiring/routing.h"
#include "core/wiring/way_points.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <array>
#include <fmt/format.h>

namespace waxis {

namespace {

constexpr double kGraze_mm = 0.6; // what a route drawn along a body may touch of it

/// Whether a point lies in a body, deeper than what a wire laid along it would.
bool isDeepIn(const Body &body, const Vec3 &point_mm) {
    const Vec3 own = body.X_FrameBody.inverse() * point_mm;
    for (int axis = 0; axis < 3; ++axis)
        for (const double way : {-kGraze_mm, kGraze_mm})
            if (pointDistance(body.shape, own + way * Vec3::Unit(axis)) > 1e-9) return false;
    return true;
}

const BodyOwner &ownerOf(const Scene &scene, std::size_t body) {
    return scene.owners[std::size_t(scene.traits[body].owner)];
}

/// A wire may run within one.
bool isHollowArm(const Build &build, const BodyOwner &owner) {
    return std::any_of(build.frame->arms.begin(), build.frame->arms.end(),
                       [&](const Arm &arm) { return arm.id == owner.id && isHollow(arm); });
}

/// What the part at an end sits in or on may be passed close by: a camera's cable leaves through its bracket.
bool carriesEnd(const Build &build, const BodyOwner &owner, const WireEnd &end) {
    const Part *part = findPart(build, end.part);
    if (!part || !owner.carries) return false;
    const auto &onto = part->fastening.onto;
    return std::find(onto.begin(), onto.end(), owner.id) != onto.end();
}

/// Bodies that a wire has no business in: not those of its ends, nor what is soft or goes round other things, nor packs
/// that take turns in one place. What was read from a drawing is known by its box only.
bool isSolid(const Build &build, const Scene &scene, std::size_t body, const Wire &wire, bool packsTakeTurns) {
    const BodyTraits &traits = scene.traits[body];
    const BodyOwner &owner = ownerOf(scene, body);
    if ((owner.battery && packsTakeTurns) || carriesEnd(build, owner, wire.from) || carriesEnd(build, owner, wire.to))
        return false;
    return owner.kind != OwnerKind::disc && !owner.holds && !owner.sleeve && !owner.flexible && !traits.soft &&
           owner.id != wire.from.part && owner.id != wire.to.part &&
           !std::holds_alternative<Mesh>(scene.world->bodies()[body].shape);
}

/// The pinned point that draws a wire into a body, if that is what does it.
std::optional<int> stopIn(const Body &body, const Wire &wire) {
    for (std::size_t s = 0; s < wire.stops.size(); ++s)
        if (wire.stops[s].at.empty() && isDeepIn(body, wire.stops[s].point_mm)) return int(s);
    return std::nullopt;
}

} // namespace

static void judgeThroughBody(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    if (!derived.scene.world) return;
    const auto &bodies = derived.scene.world->bodies();
    const bool packsTakeTurns = std::count_if(build.parts.begin(), build.parts.end(), [&](const Part &part) {
                                    const PartType *type = typeOf(build, part);
                                    return type && type->kind == PartKind::battery && part.optional;
                                }) > 1;
    for (std::size_t w = 0; w < build.wires.size() && w < derived.routes.size(); ++w) {
        const Wire &wire = build.wires[w];
        // Where no way was found WIR-13 says so, and the line drawn goes through anything.
        if (!derived.routes[w].found || derived.routes[w].points_mm.size() < 4) continue;
        const auto &all = derived.routes[w].points_mm;
        const std::vector<Vec3> run(all.begin() + 1, all.end() - 1);
        constexpr double kStep_mm = 2;
        const auto samples = samplesAlong(run, kStep_mm);
        Aabb reach;
        for (const Vec3 &p : samples) reach.include(p);
        Finding f;
        f.rule = RuleId::wirSolid;
        f.severity = Severity::pass;
        f.subjects = {wire.id};
        for (std::size_t b = 0; b < bodies.size() && f.severity == Severity::pass; ++b) {
            const OwnerKind kind = ownerOf(derived.scene, b).kind;
            const Aabb &box = derived.scene.world->boundsOfBody(int(b));
            if (boxGap(reach, box) > 0 || !isSolid(build, derived.scene, b, wire, packsTakeTurns)) continue;
            const auto stop = stopIn(bodies[b], wire);
            // Holes of plates and the hollow of arms are not in their bodies' distance: a pinned point tells.
            if (!stop && kind != OwnerKind::part) continue;
            const auto at = std::find_if(samples.begin(), samples.end(), [&](const Vec3 &p) {
                return boxGap(Aabb{p, p}, box) <= 0 && isDeepIn(bodies[b], p);
            });
            if (!stop && at == samples.end()) continue;
            if (isHollowArm(build, ownerOf(derived.scene, b))) continue;
            f.subjects.push_back(ownerOf(derived.scene, b).id);
            f.severity = Severity::stop;
            f.margin = -1;
            f.from_mm = f.to_mm = stop ? wire.stops[std::size_t(*stop)].point_mm : *at;
            f.variant = stop ? "pinned" : "through";
            if (!stop) continue;
            WireChange drop;
            drop.kind = WireChange::Kind::dropStop;
            drop.wire = wire.id;
            drop.core = *stop;
            f.fixes.emplace_back(std::string(), drop);
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordThroughBody(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects.back())};
    if (f.variant == "pinned")
        return {{"{0}: pinned inside {1}", words},
                {"The two crush each other when it goes on: move the point, or let the wire find its own way.", {}}};
    return {{"{0}: led through {1}", words}, {"The two crush each other when it goes on: lead the wire round it.", {}}};
}

namespace {

/// How many of a joint's wires are there at once: those that lead to packs which take turns are one.
int togetherAt(const Build &build, const std::vector<LoadCase> &cases, const PadJoints &joint) {
    int most = 0;
    for (const auto &now : cases) {
        int count = 0;
        for (const auto &core : joint.cores) {
            const Wire &wire = build.wires[std::size_t(core.wire)];
            const Part *a = findPart(build, wire.from.part), *b = findPart(build, wire.to.part);
            count += a && b && isAboard(*a, now) && isAboard(*b, now);
        }
        most = std::max(most, count);
    }
    return most;
}

/// Against what the part states; else by what is usual.
Finding judgePad(const Build &build, const Derived &derived, const PadJoints &joint) {
    Finding f;
    f.rule = RuleId::wirPad;
    f.subjects = {joint.part};
    f.variant = joint.port;
    f.severity = Severity::pass;
    const int wires = joint.isSoldered() ? int(joint.cores.size()) : togetherAt(build, derived.loadCases, joint);
    f.inputs = {{"wires", double(wires), ""},
                {"soldered", joint.isSoldered() ? 1.0 : 0.0, ""},
                {"hole", joint.way == PadJoint::throughHole ? 1.0 : 0.0, ""},
                {"stated", joint.has_mm && joint.isSoldered() ? 1.0 : 0.0, ""}};
    if (joint.isSoldered() && joint.has_mm) {
        f.measured = joint.wants_mm;
        f.limit = *joint.has_mm;
        f.unit = "mm";
        f.margin = *f.limit - *f.measured;
        // A strand more or less goes in; a conductor a quarter thicker does not.
        constexpr double kForced = 1.25;
        if (f.margin < 0) f.severity = joint.wants_mm > kForced * *joint.has_mm ? Severity::stop : Severity::watch;
        return f;
    }
    // Two share a pad, and on the large ones of the pack's lead a third finds room; one goes into a contact.
    const Signal signal = signalAt(build, {joint.part, joint.port}, joint.pin);
    const bool large = carriesPower(signal.kind) && std::any_of(joint.cores.begin(), joint.cores.end(),
                                                                [](const JointCore &c) { return c.gauge_AWG <= 16; });
    f.measured = wires;
    f.limit = !joint.isSoldered() ? 1 : large ? 3 : 2;
    f.unit = "wires";
    f.margin = *f.limit - *f.measured;
    if (f.margin < 0) f.severity = Severity::watch;
    return f;
}

} // namespace

/// One finding for each port, by its worst pin.
static void judgePads(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t first = out.size();
    for (const auto &joint : padJoints(build)) {
        Finding f = judgePad(build, derived, joint);
        const auto same = std::find_if(out.begin() + std::ptrdiff_t(first), out.end(), [&](const Finding &o) {
            return o.subjects[0] == f.subjects[0] && o.variant == f.variant;
        });
        if (same == out.end())
            out.push_back(std::move(f));
        else if (f.severity < same->severity || (f.severity == same->severity && f.margin < same->margin))
            *same = std::move(f);
    }
}

static FindingText wordPads(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]),
                                         f.variant,
                                         wholeNumber(inputOf(f, "wires")),
                                         oneDecimal(*f.measured),
                                         oneDecimal(*f.limit),
                                         wholeNumber(*f.limit)};
    if (inputOf(f, "soldered") == 0)
        return {{"{0}: {2} wires in one contact at \"{1}\"", words},
                {"A crimp holds one: join them before it, in a Y, and insulate the joint.", {}}};
    if (inputOf(f, "stated") == 0)
        return {
            {"{0}: {2} wires on one pad at \"{1}\"", words},
            {"{5} can share it; with more the first comes off while the last is soldered. Join some before it, in a "
             "Y, and insulate the joint.",
             words}};
    if (inputOf(f, "hole") > 0)
        return {{"{0}: {3} mm of wire for a hole of {4} mm at \"{1}\"", words},
                {"It does not go in. Take a thinner wire, or join them before it.", {}}};
    return {
        {"{0}: {3} mm of wire for a pad of {4} mm at \"{1}\"", words},
        {"It hangs over and bridges to its neighbour. Take a thinner wire, another pad, or join them before it.", {}}};
}

namespace {

Finding matingFinding(const Wire &wire, const WireEnd &end, const char *variant) {
    Finding f;
    f.rule = RuleId::lnkMates;
    f.subjects = {wire.id, end.part};
    f.variant = fmt::format("{}-{}", variant, end.port);
    f.severity = Severity::pass;
    return f;
}

/// Two halves that meet without a wire's plug between: a pack's lead and the craft's plug.
void judgeHalves(const Build &build, const Wire &wire, std::vector<Finding> &out) {
    const Port *from = portOf(build, wire.from), *to = portOf(build, wire.to);
    const auto isPlug = [](const Port &p) { return p.kind == PortKind::plug; };
    if (!from || !to || !isPlug(*from) || !isPlug(*to) || wire.lay == WireLay::coax) return;
    // A cable with plugs of its own on both ends stands between them.
    const bool plugFrom = plugOn(build, wire, true).has_value(), plugTo = plugOn(build, wire, false).has_value();
    if (plugFrom && plugTo) return;
    if (!plugFrom && !plugTo && !from->connector.empty() && !to->connector.empty()) {
        Finding f = matingFinding(wire, wire.to, "family");
        if (from->connector != to->connector) {
            f.severity = Severity::stop;
            f.margin = -1;
        }
        out.push_back(std::move(f));
    }
    if (from->contacts != Contacts::unstated && to->contacts != Contacts::unstated) {
        Finding f = matingFinding(wire, wire.to, "gender");
        if (from->contacts == to->contacts) {
            f.severity = Severity::stop;
            f.margin = -1;
        }
        out.push_back(std::move(f));
    }
}

void judgeTurned(const Wire &wire, const WireEnd &end, const Port &port, std::vector<Finding> &out) {
    Finding f = matingFinding(wire, end, port.keyed ? "keyed" : "turned");
    f.severity = Severity::stop;
    f.margin = -1;
    if (!port.keyed) {
        const auto pins = turnedPins(port);
        const bool harmless = pins.empty();
        const bool burns = std::any_of(pins.begin(), pins.end(), [](const TurnedPins &t) {
            return carriesPower(signalOf(t.pin).kind) || carriesPower(signalOf(t.meets).kind);
        });
        if (harmless) f.severity = Severity::pass, f.margin = 0;
        f.inputs = {{"supply moves", burns ? 1.0 : 0.0, ""}};
    }
    out.push_back(std::move(f));
}

void judgePlug(const Build &build, const Wire &wire, bool atFrom, std::vector<Finding> &out) {
    const WireEnd &end = atFrom ? wire.from : wire.to;
    const Port *port = portOf(build, end);
    const auto plug = plugOn(build, wire, atFrom);
    if (!port || !plug || port->kind == PortKind::pads || port->kind == PortKind::coax) return;
    if (!plug->family.empty() && !port->connector.empty()) {
        Finding f = matingFinding(wire, end, "family");
        if (plug->family != port->connector) {
            f.severity = Severity::stop;
            f.margin = -1;
        }
        out.push_back(std::move(f));
    }
    if (plug->ways > 0) {
        Finding f = matingFinding(wire, end, "ways");
        f.measured = plug->ways;
        f.limit = double(port->pins.size());
        f.unit = "ways";
        if (plug->ways != int(port->pins.size())) {
            f.severity = Severity::stop;
            f.margin = -1;
        }
        out.push_back(std::move(f));
    }
    if (plug->turned) judgeTurned(wire, end, *port, out);
}

/// A wire with plugs on both ends has to be threaded with one of them on.
void judgeThreading(const Build &build, const Derived &derived, std::size_t w, std::vector<Finding> &out) {
    const Wire &wire = build.wires[w];
    const Port *from = portOf(build, wire.from), *to = portOf(build, wire.to);
    // An end that is soldered is threaded before.
    if (!from || !to || from->kind == PortKind::pads || to->kind == PortKind::pads) return;
    const auto a = plugBodyOn(build, wire, true), b = plugBodyOn(build, wire, false);
    if (!a || !b) return;
    for (const auto &use : derived.wiring->holes) {
        if (std::find(use.wires.begin(), use.wires.end(), int(w)) == use.wires.end()) continue;
        const PassThrough *pass = byId(build.frame->passThroughs, use.pass);
        if (!pass) continue;
        const Vec2 sides = sidesOf_mm(*pass);
        Finding f = matingFinding(wire, wire.from, "hole");
        f.subjects.push_back(use.pass);
        const bool through = passes(*a, sides, use.hole_mm) || passes(*b, sides, use.hole_mm);
        f.severity = through ? Severity::pass : Severity::watch;
        f.margin = through ? 0 : -1;
        out.push_back(std::move(f));
    }
}

} // namespace

static void judgeMating(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (std::size_t w = 0; w < build.wires.size(); ++w) {
        judgeHalves(build, build.wires[w], out);
        for (const bool atFrom : {true, false}) judgePlug(build, build.wires[w], atFrom, out);
        judgeThreading(build, derived, w, out);
    }
}

static FindingText wordMating(const Build &build, const Finding &f) {
    const Wire *wire = findWire(build, f.subjects[0]);
    const std::string what = f.variant.substr(0, f.variant.find('-'));
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1]),
                                         f.variant.substr(f.variant.find('-') + 1), f.subjects.back()};
    if (what == "family") {
        std::string comes, goes;
        if (wire) {
            const bool atFrom = wire->from.part == f.subjects[1];
            const WireEnd &end = atFrom ? wire->from : wire->to, &other = atFrom ? wire->to : wire->from;
            const Port *port = portOf(build, end), *far = portOf(build, other);
            const auto plug = plugOn(build, *wire, atFrom);
            goes = port ? port->connector : std::string();
            comes = plug ? plug->family : far ? far->connector : std::string();
        }
        return {{"{0}: the {1} does not go into the {2} of {3}", {words[0], comes, goes, words[1]}},
                {"Crimp or solder the other family onto it, or choose a part with the same.", {}}};
    }
    if (what == "gender")
        return {
            {"{0}: both halves have the same contacts", words},
            {"Of two halves one has pins and one has sockets; the sockets belong on the side that stays live.", {}}};
    if (what == "ways")
        return {{"{0}: a plug of {2} ways for {3} pins of {1}",
                 {words[0], words[1], wholeNumber(*f.measured), wholeNumber(*f.limit)}},
                {"It does not go in, or goes in one pin aside: take a housing of as many ways.", {}}};
    if (what == "keyed")
        return {{"{0}: the plug at {1} cannot be put on turned", words},
                {"It is keyed: who forces it breaks the pins. Move the contacts in the housing instead.", {}}};
    if (what == "turned") {
        std::string pins;
        const Port *port = wire ? portOf(build, wire->from.part == f.subjects[1] ? wire->from : wire->to) : nullptr;
        if (port)
            for (const auto &t : turnedPins(*port))
                pins += fmt::format("{}{} on {}", pins.empty() ? "" : ", ", t.pin, t.meets);
        return {{"{0}: the plug at {1} is on the other way round", words},
                {inputOf(f, "supply moves") > 0 ? "So {0}: the supply lies on another pin. Turn it, and mark one side."
                                                : "So {0}. Turn it, and mark one side.",
                 {pins}}};
    }
    return {{"{0}: its plugs do not pass {3}", words},
            {"Thread the bare wires and crimp afterwards, or make the hole larger.", {}}};
}

std::span<const Rule> jointsRules() {
    static const std::array<Rule, 3> rules{{
        {RuleId::wirSolid,
         "Wire through a body",
         "What is drawn through a board or a shroud's wall is crushed when it goes on.",
         "distance of the routed wire to every solid but its ends' own",
         Stage::wire,
         {},
         needs(Need::routes, Need::gaps, Need::owners),
         judgeThroughBody,
         wordThroughBody},
        {RuleId::wirPad,
         "What a pad takes",
         "A pad, hole or contact is made for so much copper: more bridges, or comes off again.",
         "diameters by ASTM B258, stranded 13 % more; how many share one: common practice, no source",
         Stage::wire,
         {},
         {},
         judgePads,
         wordPads},
        {RuleId::lnkMates,
         "Plugs and sockets",
         "Only the same family with as many ways goes together, and only one way round is right.",
         "as the parts state it",
         Stage::wire,
         {},
         needs(Need::wiring),
         judgeMating,
         wordMating},
    }};
    return rules;
}

} // namespace waxis
