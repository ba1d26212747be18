// FIT-6 and FIT-7: can a person get at it, and does what is plugged in have room.
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/survey/at_hand.h"
#include "core/survey/reach.h"

#include <algorithm>
#include <array>

namespace waxis {

namespace {

std::string portWord(const Build &build, const std::string &part, const std::string &port) {
    const Part *owner = findPart(build, part);
    const PartType *type = owner ? typeOf(build, *owner) : nullptr;
    if (type)
        for (const auto &p : type->ports)
            if (p.id == port) switch (p.kind) {
                case PortKind::usb: return "USB port";
                case PortKind::card: return "card slot";
                case PortKind::button: return "button \"" + port + "\"";
                case PortKind::coax: return "antenna connector \"" + port + "\"";
                case PortKind::pads: return "pads \"" + port + "\"";
                case PortKind::plug:
                case PortKind::socket: return "plug \"" + port + "\"";
                case PortKind::lens:
                case PortKind::lamp: break;
                }
    return "port \"" + port + "\"";
}

Finding portFinding(RuleId rule, const AccessSurvey &access) {
    Finding f;
    f.rule = rule;
    f.subjects = {access.part};
    f.variant = access.port;
    for (const auto &id : access.blockers) f.subjects.push_back(id);
    f.loadCase = access.loadCase;
    f.from_mm = access.X_FrameCorridor * Vec3(-access.fullSize_mm.x() / 2, 0, 0);
    f.to_mm = access.X_FrameCorridor * Vec3(access.fullSize_mm.x() / 2, 0, 0);
    f.inputs = {{"corridor, outwards", access.fullSize_mm.x(), "mm"},
                {"across", access.fullSize_mm.y(), "mm"},
                {"high", access.fullSize_mm.z(), "mm"}};
    return f;
}

} // namespace

static void judgeAccess(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &access : accessSeen(derived)) {
        if (!access.hand || !findPart(build, access.part)) continue;
        Finding f = portFinding(RuleId::fitAccess, access);
        f.unit = "parts";
        f.limit = 0;
        f.practiceLimit = Limit::handRoom;
        if (access.takeOff) {
            f.measured = double(access.takeOff->size());
            f.margin = -double(access.takeOff->size());
            f.severity = access.takeOff->empty() ? Severity::pass : Severity::watch;
            // The things to take off are what it is about, in their order.
            if (!access.takeOff->empty()) {
                f.subjects = {access.part};
                f.subjects.insert(f.subjects.end(), access.takeOff->begin(), access.takeOff->end());
            }
        } else {
            f.severity = Severity::stop;
            f.margin = -100;
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordAccess(const Build &build, const Finding &f) {
    const std::string port = portWord(build, f.subjects[0], f.variant);
    const std::vector<std::string> others(f.subjects.begin() + 1, f.subjects.end());
    const std::vector<std::string> words{displayName(build, f.subjects[0]), port, std::to_string(others.size()),
                                         listNames(build, others)};
    if (f.severity == Severity::stop)
        return {{"{0}: the {1} cannot be reached", words},
                {"In the way and not to be taken off: {3}. Turn or move the part, or free its side.", words}};
    if (others.size() == 1)
        return {{"{0}: {3} must come off to reach the {1}", words},
                {"Turn the port to a free side, or leave it so and keep the tool at hand.", words}};
    return {{"{0}: {2} things must come off to reach the {1}", words},
            {"In this order: {3}. Turn the port to a free side.", words}};
}

static constexpr char kNextPort = ';';

/// A part that lies with several ports against something is turned once.
static bool joinPorts(std::vector<Finding> &out, std::size_t first, const Finding &f) {
    const auto same = std::find_if(out.begin() + std::ptrdiff_t(first), out.end(), [&](const Finding &g) {
        return g.severity == f.severity && g.loadCase == f.loadCase && g.subjects[0] == f.subjects[0];
    });
    if (f.severity == Severity::pass || same == out.end()) return false;
    same->variant += kNextPort + f.variant;
    for (const auto &id : f.subjects)
        if (std::find(same->subjects.begin(), same->subjects.end(), id) == same->subjects.end())
            same->subjects.push_back(id);
    return true;
}

static void judgeMating(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t first = out.size();
    for (const auto &access : accessSeen(derived)) {
        const Part *part = findPart(build, access.part);
        if (access.hand || !part) continue;
        Finding f = portFinding(RuleId::fitMating, access);
        f.severity = access.blockers.empty() ? Severity::pass : Severity::watch;
        if (!joinPorts(out, first, f)) out.push_back(std::move(f));
    }
}

static FindingText wordMating(const Build &build, const Finding &f) {
    const std::vector<std::string> others(f.subjects.begin() + 1, f.subjects.end());
    std::vector<std::string> ports;
    for (std::size_t at = 0; at <= f.variant.size();) {
        const std::size_t end = std::min(f.variant.find(kNextPort, at), f.variant.size());
        ports.push_back("the " + portWord(build, f.subjects[0], f.variant.substr(at, end - at)));
        at = end + 1;
    }
    const std::vector<std::string> words{displayName(build, f.subjects[0]), listWords(ports), listNames(build, others)};
    if (ports.size() > 1)
        return {{"{0}: {1} have no room for their plugs and first bends", words},
                {"In the way: {2}. Turn the board, use angled plugs, or solder.", words}};
    return {{"{0}: {1} has no room for its plug and first bend", words},
            {"In the way: {2}. Turn the board, use an angled plug, or solder.", words}};
}

std::span<const Rule> accessRules() {
    static const std::array<Rule, 2> rules{{
        {RuleId::fitAccess,
         "Ports within reach",
         "A port that is walled in means taking the craft apart in the field.",
         kTrade,
         Stage::place,
         {Limit::handRoom},
         needs(Need::survey),
         judgeAccess,
         wordAccess},
        {RuleId::fitMating,
         "Room for plugs",
         "A plug has a body and its wires a first bend; both need room once it is in.",
         kTrade,
         Stage::place,
         {},
         needs(Need::survey),
         judgeMating,
         wordMating},
    }};
    return rules;
}

} // namespace waxis
