// LNK: what talks to what. So far the motors: numbers, direction, propeller hand and nut thread.
#include "core/build/frame_shapes.h"
#include "core/build/on_mount.h"
#include "core/layout/numbering.h"
#include "core/rules/rule.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace waxis {

namespace {

std::string spinWord(Spin spin) { return spin == Spin::clockwise ? "clockwise" : "counter-clockwise"; }

} // namespace

static void judgeNumbering(const Build &build, const Practice &, const Derived &, std::vector<Finding> &out) {
    const Frame &frame = *build.frame;
    if (frame.motorMounts.empty()) return;
    auto finding = [&](Severity severity, const char *variant, std::vector<std::string> subjects) -> Finding & {
        Finding f;
        f.rule = RuleId::lnkNumbering;
        f.severity = severity;
        f.variant = variant;
        f.subjects = std::move(subjects);
        out.push_back(std::move(f));
        return out.back();
    };
    const auto *custom = findNumbering(frame.numbering);
    if (!custom) {
        finding(Severity::unknown, "unnumbered", {});
        return;
    }
    std::set<int> seen;
    for (const auto &mount : frame.motorMounts) {
        const bool inRange = mount.number >= 1 && mount.number <= int(frame.motorMounts.size());
        if (inRange && seen.insert(mount.number).second) continue;
        Finding &f = finding(mount.number == 0 ? Severity::unknown : Severity::stop,
                             mount.number == 0 ? "missing" : "clash", {mount.id});
        f.inputs = {{"number", double(mount.number), ""}};
    }
    // One finding for the craft: whichever two are swapped, it tips over.
    const auto wanted = motorNumbers(frame.motorMounts, custom->numbering);
    Finding order;
    order.rule = RuleId::lnkNumbering;
    order.severity = Severity::stop;
    order.variant = "order";
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        const MotorMount &mount = frame.motorMounts[i];
        if (custom->numbering == Numbering::own || mount.number == 0 || mount.number == wanted[i]) continue;
        order.subjects.push_back(mount.id);
        order.inputs.push_back({"number", double(mount.number), ""});
        order.inputs.push_back({"by the custom", double(wanted[i]), ""});
    }
    if (order.subjects.empty()) return;
    order.measured = double(order.subjects.size());
    order.limit = 0;
    order.unit = "motors";
    order.margin = -double(order.subjects.size());
    out.push_back(std::move(order));
}

static FindingText wordNumbering(const Build &build, const Finding &f) {
    if (f.variant == "unnumbered")
        return {{"The motors are not numbered", {}},
                {"Choose the controller's numbering in the Frame stage, so that each motor goes to its output.", {}}};
    if (f.variant == "order") {
        std::string which;
        for (std::size_t m = 0; m < f.subjects.size(); ++m)
            which += fmt::format("{}{} is number {:g} and by the custom {:g}", m ? ", " : "",
                                 motorName(build, f.subjects[m]), f.inputs[2 * m].value, f.inputs[2 * m + 1].value);
        return {
            {"Motors numbered otherwise than {0}: {1}", {build.frame->numbering, which}},
            {"The craft would tip over at take-off: renumber, or choose the numbering that the controller uses.", {}}};
    }
    const std::string motor = motorName(build, f.subjects[0]);
    if (f.variant == "missing")
        return {{"The {0} has no number", {motor}}, {"Give it the controller's output that drives it.", {}}};
    return {{"The {0} has a number that another has, or that there is not", {motor}},
            {"Each motor needs an output of its own: number them from 1 to {0}.",
             {std::to_string(build.frame->motorMounts.size())}}};
}

static void judgeSpins(const Build &build, const Practice &, const Derived &, std::vector<Finding> &out) {
    const auto &mounts = build.frame->motorMounts;
    if (mounts.size() < 2) return;
    Finding balance;
    balance.rule = RuleId::lnkSpin;
    balance.variant = "yaw";
    const int surplus = yawSurplus(mounts), odd = int(mounts.size() % 2);
    balance.measured = std::abs(surplus);
    balance.limit = odd;
    balance.unit = "motors";
    balance.margin = odd - std::abs(surplus);
    balance.severity = balance.margin < 0 ? Severity::stop : Severity::pass;
    balance.inputs = {{"clockwise less counter-clockwise", double(surplus), "motors"}};
    out.push_back(balance);
    for (const auto &[a, b] : likeTurningNeighbours(mounts)) {
        Finding f;
        f.rule = RuleId::lnkSpin;
        f.variant = "neighbours";
        f.severity = Severity::watch;
        f.subjects = {mounts[a].id, mounts[b].id};
        out.push_back(std::move(f));
    }
    if (!odd) return;
    const bool servo = std::any_of(build.parts.begin(), build.parts.end(), [&](const Part &part) {
        const PartType *type = typeOf(build, part);
        return type && type->kind == PartKind::servo;
    });
    if (servo) return;
    Finding f;
    f.rule = RuleId::lnkSpin;
    f.variant = "servo";
    f.severity = Severity::watch;
    f.inputs = {{"motors", double(mounts.size()), ""}};
    out.push_back(std::move(f));
}

static FindingText wordSpins(const Build &build, const Finding &f) {
    if (f.variant == "yaw")
        return {{"The motors' yaw torques do not balance: {0} more turn one way",
                 {fmt::format("{:g}", f.measured.value_or(0))}},
                {"As many must turn clockwise as counter-clockwise, or the craft spins; swap two of a motor's three "
                 "wires to "
                 "reverse it.",
                 {}}};
    if (f.variant == "servo")
        return {{"An odd number of motors and no tail servo", {}},
                {"One motor's torque is left over: a servo has to tilt the tail motor against it.", {}}};
    return {
        {"The {0} and the {1} turn the same way", {motorName(build, f.subjects[0]), motorName(build, f.subjects[1])}},
        {"Neighbours turn against each other, so that roll and pitch do not turn the craft.", {}}};
}

namespace {

/// Propellers that are larger or smaller than the circle that everything was reckoned with: one finding for all mounts
/// with the same two figures.
void judgeSizes(const Build &build, std::vector<Finding> &out) {
    constexpr double kSame = 0.02; // makers round inches
    const std::size_t first = out.size();
    for (const auto &part : build.parts) {
        const MotorMount *mount = mountOf(build, part.placement.site);
        const PartType *type = typeOf(build, part);
        if (!mount || !type || type->kind != PartKind::propeller || !type->propDiameter_mm) continue;
        const double own = *type->propDiameter_mm, drawn = mount->propDiameter_mm;
        const bool same = std::abs(own - drawn) <= kSame * drawn;
        const Severity severity = same ? Severity::pass : own > drawn ? Severity::stop : Severity::watch;
        const auto like = std::find_if(out.begin() + std::ptrdiff_t(first), out.end(),
                                       [&](const Finding &f) { return f.measured == own && f.limit == drawn; });
        Fix fix(mount->id, MountPropeller{own});
        if (like != out.end()) {
            like->subjects.push_back(mount->id);
            if (!like->fixes.empty()) like->fixes[0].then.push_back(std::move(fix));
            continue;
        }
        Finding f;
        f.rule = RuleId::lnkHand;
        f.variant = "size";
        f.severity = severity;
        f.subjects = {part.id, mount->id};
        f.measured = own;
        f.limit = drawn;
        f.unit = "mm";
        f.margin = kSame * drawn - std::abs(own - drawn);
        if (!same) f.fixes.push_back(std::move(fix));
        out.push_back(std::move(f));
    }
}

/// The hub's hole against the shaft, both where they are stated.
void judgeBores(const Build &build, std::vector<Finding> &out) {
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->kind != PartKind::propeller || !type->bore_mm) continue;
        const PartType *motor = typeOn(build, part.placement.site, PartKind::motor);
        if (!motor || !motor->shaft_mm) continue;
        const double room = *type->bore_mm - *motor->shaft_mm;
        const HubFit fit = hubFit(*type->bore_mm, *motor->shaft_mm);
        Finding f;
        f.rule = RuleId::lnkHand;
        f.variant = fit == HubFit::narrow ? "narrow" : fit == HubFit::wide ? "wide" : "bore";
        f.severity = fit == HubFit::narrow ? Severity::stop : fit == HubFit::wide ? Severity::watch : Severity::pass;
        f.subjects = {part.id, part.placement.site};
        f.measured = *type->bore_mm;
        f.limit = *motor->shaft_mm;
        f.unit = "mm";
        f.margin = room < 0 ? room : kHubPlay_mm - room;
        out.push_back(std::move(f));
    }
}

/// "M5", "5", "m5 left" say the same size; others are compared as they are written.
std::string threadSize(std::string_view text) {
    std::string digits;
    for (const char c : text) {
        if ((c >= '0' && c <= '9') || c == '.')
            digits += c;
        else if (!digits.empty())
            break;
    }
    return digits.empty() ? std::string(text) : digits;
}

/// The nut's thread against that of the motor's shaft, both where they are stated.
void judgeNuts(const Build &build, std::vector<Finding> &out) {
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!mountOf(build, part.placement.site) || !type || type->kind != PartKind::fastener || !type->fastener)
            continue;
        const FastenerForm form = type->fastener->form;
        if (form != FastenerForm::nut && form != FastenerForm::lockNut && form != FastenerForm::thinLockNut) continue;
        const PartType *motor = typeOn(build, part.placement.site, PartKind::motor);
        if (!motor || motor->shaftThread.empty()) continue;
        Finding f;
        f.rule = RuleId::lnkHand;
        f.subjects = {part.id, part.placement.site};
        const bool same = threadSize(type->fastener->thread) == threadSize(motor->shaftThread);
        f.variant = "thread";
        f.severity = same ? Severity::pass : Severity::stop;
        if (!same) f.margin = -1;
        out.push_back(std::move(f));
    }
}

} // namespace

static void judgeHands(const Build &build, const Practice &, const Derived &, std::vector<Finding> &out) {
    judgeSizes(build, out);
    judgeBores(build, out);
    judgeNuts(build, out);
    std::vector<std::string> unstated;
    for (const auto &part : build.parts) {
        const MotorMount *mount = mountOf(build, part.placement.site);
        const PartType *type = typeOf(build, part);
        if (!mount || !type) continue;
        const bool propeller = type->kind == PartKind::propeller;
        const auto turns = part.turns ? part.turns : type->turns;
        if (!turns) {
            if (propeller) unstated.push_back(part.id);
            continue;
        }
        if (!propeller && type->kind != PartKind::fastener) continue;
        Finding f;
        f.rule = RuleId::lnkHand;
        f.variant = propeller ? "propeller" : "nut";
        f.subjects = {part.id, mount->id};
        f.severity = *turns == (propeller ? mount->spin : spinAtShaft(*mount)) ? Severity::pass : Severity::stop;
        out.push_back(std::move(f));
    }
    if (unstated.empty()) return;
    Finding f;
    f.rule = RuleId::lnkHand;
    f.severity = Severity::unknown;
    f.variant = "unstated";
    f.subjects = unstated;
    out.push_back(std::move(f));
}

static FindingText wordHands(const Build &build, const Finding &f) {
    if (f.variant == "unstated")
        return {{"{0} propellers do not say which way they turn", {std::to_string(f.subjects.size())}},
                {"Read the marks and enter the hand: one that is on the wrong way pushes down. Propellers off on the "
                 "bench.",
                 {}}};
    if (f.variant == "size" || f.variant == "narrow" || f.variant == "wide") {
        const std::vector<std::string> words{displayName(build, f.subjects[0]), fmt::format("{:g}", *f.measured),
                                             fmt::format("{:g}", *f.limit), motorName(build, f.subjects[1])};
        if (f.variant == "narrow")
            return {{"{0} has a hole of {1} mm: the shaft of {2} mm does not go in", words},
                    {"Ream it only where its maker allows; else another one, or another motor.", words}};
        if (f.variant == "wide")
            return {{"{0} has a hole of {1} mm on a shaft of {2} mm", words},
                    {"It turns off its centre and shakes: fit the ring that came with it.", words}};
        return {{"{0} measures {1} mm; the mount is drawn for {2} mm", words},
                {"Zones, tip gaps and hover were worked out for {2} mm. Draw the mounts for what is on them.", words}};
    }
    if (f.variant == "thread") {
        const Part *nut = findPart(build, f.subjects[0]);
        const PartType *type = nut ? typeOf(build, *nut) : nullptr,
                       *motor = typeOn(build, f.subjects[1], PartKind::motor);
        const std::vector<std::string> words{
            displayName(build, f.subjects[0]), type && type->fastener ? type->fastener->thread : std::string(),
            motor ? motor->shaftThread : std::string(), motorName(build, f.subjects[1])};
        return {{"{0} has {1} thread, the shaft of the {3} {2}", words},
                {"It does not go on, or strips at the first throttle: take a nut of {2}.", words}};
    }
    const MotorMount *mount = mountOf(build, f.subjects[1]);
    const std::string spin = mount ? spinWord(mount->spin) : std::string();
    if (f.variant == "nut") {
        const std::string seen = mount ? spinWord(spinAtShaft(*mount)) : std::string();
        return {{"{0} loosens itself on a {1} motor", {displayName(build, f.subjects[0]), seen}},
                {"A motor that turns {0}, seen from the end of its shaft, needs a nut with {1} thread.",
                 {seen, mount ? std::string(selfTighteningThread(spinAtShaft(*mount))) : std::string()}}};
    }
    return {{"{0} is made for the other direction: its motor turns {1}", {displayName(build, f.subjects[0]), spin}},
            {"It would push down. Fit one of the other hand, or reverse the motor. Propellers off on the bench.", {}}};
}

/// Only once one of them stands somewhere: a frame on which nobody has begun lacks nothing yet.
static void judgeMissing(const Build &build, const Practice &, const Derived &, std::vector<Finding> &out) {
    for (const auto kind : {PartKind::motor, PartKind::propeller}) {
        std::set<std::string> there;
        for (const auto &part : build.parts)
            if (const PartType *type = typeOf(build, part);
                type && type->kind == kind && mountOf(build, part.placement.site))
                there.insert(part.placement.site);
        if (there.empty()) continue;
        for (const auto &mount : build.frame->motorMounts) {
            if (there.contains(mount.id)) continue;
            Finding f;
            f.rule = RuleId::lnkMissing;
            f.variant = kind == PartKind::motor ? "motor" : "propeller";
            f.severity = Severity::stop;
            f.subjects = {mount.id};
            f.from_mm = mount.position_mm;
            out.push_back(std::move(f));
        }
    }
}

static FindingText wordMissing(const Build &build, const Finding &f) {
    const std::string motor = motorName(build, f.subjects[0]);
    if (f.variant == "propeller")
        return {
            {"The {0} has no propeller", {motor}},
            {"Weight, balance and hover are without it: put one on its mount. On the bench it is fitted last.", {}}};
    return {{"The {0} is missing", {motor}},
            {"The others cannot carry the craft without it: put one on its mount.", {}}};
}

std::span<const Rule> linksRules() {
    static const std::array<Rule, 4> rules{{
        {RuleId::lnkNumbering,
         "Motor numbers",
         "The controller drives outputs, not places: a motor on the wrong output throws the craft over.",
         kTrade,
         Stage::frame,
         {},
         {},
         judgeNumbering,
         wordNumbering},
        {RuleId::lnkSpin,
         "Motors alternate",
         "Each propeller twists the craft against its own turn; half of them must turn the other way.",
         "balance of moments about the yaw axis, equal propellers",
         Stage::frame,
         {},
         {},
         judgeSpins,
         wordSpins},
        {RuleId::lnkHand,
         "Propeller hand and nut thread",
         "A propeller of the wrong hand pushes down; a nut of the wrong thread unscrews itself in flight.",
         kTrade,
         Stage::frame,
         {},
         needs(Need::places),
         judgeHands,
         wordHands},
        {RuleId::lnkMissing,
         "A motor and a propeller on every mount",
         "A craft that lacks one of them tips over at take-off, and everything worked out for it is wrong.",
         kTrade,
         Stage::frame,
         {},
         needs(Need::places),
         judgeMissing,
         wordMissing},
    }};
    return rules;
}

} // namespace waxis
