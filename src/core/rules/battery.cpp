// FIT-11: strap, way to slide, lead to the plug, ground clearance, standing firm.
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/derived/all_up.h"
#include "core/findings/input.h"
#include "core/remedies/free_travel.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/scene/scene.h"
#include "core/stance/stance.h"
#include "core/survey/at_hand.h"
#include "core/survey/reach.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

bool isFoot(const Build &build, const BodyOwner &owner) {
    if (owner.kind == OwnerKind::standoff)
        return std::any_of(build.frame->standoffs.begin(), build.frame->standoffs.end(),
                           [&](const Standoff &s) { return s.id == owner.id && s.role == StandoffRole::foot; });
    if (owner.kind != OwnerKind::part) return false;
    const Part *part = findPart(build, owner.id);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    return type && type->kind == PartKind::landingFoot;
}

/// What a craft should not come down on.
bool mustNotBeStoodOn(const PartType &type) {
    return type.kind == PartKind::battery || type.kind == PartKind::antenna || type.kind == PartKind::gps ||
           type.camera.has_value();
}

/// Without feet it stands on whatever hangs lowest.
void judgeWithoutFeet(const Build &build, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    if (build.frame->plates.empty() && build.frame->arms.empty()) return;
    const auto &bodies = derived.scene.world->bodies();
    double lowest = 1e300, sturdy = 1e300; // of all; of what may stand on the ground
    int owner = -1;
    Vec3 at = Vec3::Zero();
    for (std::size_t i = 0; i < bodies.size(); ++i) {
        const int o = derived.scene.traits[i].owner;
        const BodyOwner &who = derived.scene.owners[std::size_t(o)];
        const Vec3 p = bodies[i].X_FrameBody *
                       supportPoint(bodies[i].shape, bodies[i].X_FrameBody.rotation.conjugate() * -Vec3::UnitZ());
        if (p.z() >= std::max(lowest, sturdy)) continue; // says nothing new
        // Owners begin with the parts, in file order.
        const PartType *type = who.kind == OwnerKind::part ? typeOf(build, build.parts[std::size_t(o)]) : nullptr;
        const bool harmed = who.kind == OwnerKind::disc || (type && mustNotBeStoodOn(*type));
        if (!harmed && !who.flexible && who.kind != OwnerKind::screw) sturdy = std::min(sturdy, p.z());
        if (p.z() >= lowest || (who.flexible && !harmed)) continue;
        lowest = p.z();
        owner = harmed ? o : -1;
        at = p;
    }
    if (owner < 0 || sturdy > 1e299) return;
    const BodyOwner &who = derived.scene.owners[std::size_t(owner)];
    const Part *part = who.kind == OwnerKind::part ? findPart(build, who.id) : nullptr;
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    const bool pack = type && type->kind == PartKind::battery;
    Finding f;
    f.rule = RuleId::fitBattery;
    f.variant = who.kind == OwnerKind::disc ? "stands-on-blades" : "stands-on";
    f.subjects = {who.id};
    f.measured = sturdy - lowest;
    f.limit = 0.0;
    f.unit = "mm";
    f.margin = lowest - sturdy;
    f.severity = who.kind == OwnerKind::disc                    ? Severity::stop
                 : pack && practice.follows("battery", "below") ? Severity::note
                                                                : Severity::watch;
    f.from_mm = at;
    out.push_back(std::move(f));
}

void judgeGround(const Build &build, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    const Stance ground = stanceOf(build);
    if (ground.feet.empty()) return judgeWithoutFeet(build, practice, derived, out);
    // The lowest firm body that is no foot, per whole craft.
    const auto &bodies = derived.scene.world->bodies();
    double lowest = 1e300;
    int owner = -1;
    Vec3 at = Vec3::Zero();
    for (std::size_t i = 0; i < bodies.size(); ++i) {
        const BodyOwner &o = derived.scene.owners[std::size_t(derived.scene.traits[i].owner)];
        if (o.kind == OwnerKind::disc || o.flexible || isFoot(build, o)) continue;
        const Vec3 p = bodies[i].X_FrameBody *
                       supportPoint(bodies[i].shape, bodies[i].X_FrameBody.rotation.conjugate() * -Vec3::UnitZ());
        if (p.z() < lowest) {
            lowest = p.z();
            owner = derived.scene.traits[i].owner;
            at = p;
        }
    }
    if (owner >= 0) {
        Finding f;
        f.rule = RuleId::fitBattery;
        f.variant = "ground";
        f.subjects = {derived.scene.owners[std::size_t(owner)].id};
        f.measured = lowest - ground.z_mm;
        f.limit = practice[Limit::groundClearance];
        f.practiceLimit = Limit::groundClearance;
        f.unit = "mm";
        f.margin = *f.measured - *f.limit;
        f.severity = *f.measured < -0.05 ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        f.from_mm = at;
        f.to_mm = Vec3(at.x(), at.y(), ground.z_mm);
        f.inputs = {{"lowest point", lowest, "mm"}, {"ground", ground.z_mm, "mm"}};
        out.push_back(std::move(f));
    }
    std::optional<Finding> worst; // of all load cases
    for (std::size_t i = 0; i < allUpCount(derived); ++i) {
        const LoadCase &loadCase = derived.loadCases[i];
        if (!allUp(derived, i).cg_mm || loadCase.folded || loadCase.kind == LoadCaseKind::carried) continue;
        const Vec3 cg = *allUp(derived, i).cg_mm;
        const auto tip = tipOver(ground, cg);
        if (!tip) return;
        Finding f;
        f.rule = RuleId::fitBattery;
        f.variant = "tip";
        f.loadCase = loadCase.id;
        f.measured = tip->angle_deg;
        f.limit = practice[Limit::tipOver];
        f.practiceLimit = Limit::tipOver;
        f.unit = "deg";
        f.margin = *f.measured - *f.limit;
        f.severity = *f.measured <= 0 ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = {{"CG to the nearest line between feet", tip->inside_mm, "mm"},
                    {"CG above the ground", tip->height_mm, "mm"}};
        f.from_mm = cg;
        if (!worst || f.margin < worst->margin) worst = std::move(f);
    }
    if (worst) out.push_back(std::move(*worst));
}

/// `plugs`: indices of the parts that are battery plugs.
void judgeLead(const Build &build, const Practice &practice, const Derived &derived, std::size_t pack,
               const std::vector<std::size_t> &plugs, std::vector<Finding> &out) {
    const PartType &type = *typeOf(build, build.parts[pack]);
    const Part *plug = nullptr;
    for (const std::size_t i : plugs)
        if (derived.scene.owners[i].cases & derived.scene.owners[pack].cases) plug = &build.parts[i];
    if (!plug) return;
    const Pose pose = framePose(build, build.parts[pack]);
    const Vec3 to = framePose(build, *plug).position_mm;
    Finding f;
    f.rule = RuleId::fitBattery;
    f.variant = "lead";
    f.subjects = {build.parts[pack].id, plug->id};
    f.unit = "mm";
    f.practiceLimit = Limit::leadSlack;
    const SuppliedLead *lead = nullptr;
    for (const auto &l : type.leads)
        if (!lead || l.length_mm > lead->length_mm) lead = &l;
    if (!lead) {
        f.severity = Severity::unknown;
        out.push_back(std::move(f));
        return;
    }
    Vec3 from = pose.position_mm;
    for (const auto &port : type.ports)
        if (port.id == lead->port) from = pose * port.position_mm;
    // Straight, or round the pack's own corner: the lead cannot be shorter than the straight line.
    const double straight = (to - from).norm();
    f.measured = lead->length_mm - straight;
    f.limit = practice[Limit::leadSlack];
    f.margin = *f.measured - *f.limit;
    f.severity = *f.measured < 0 ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
    f.from_mm = from;
    f.to_mm = to;
    f.inputs = {{"lead", lead->length_mm, "mm"}, {"straight to the plug", straight, "mm"}};
    out.push_back(std::move(f));
}

/// A strap must go round the pack and through or round what carries it.
void judgeStrap(const Build &build, const Derived &derived, std::size_t pack, std::vector<Finding> &out) {
    const Part &part = build.parts[pack];
    if (part.fastening.method != FasteningMethod::strap) return;
    const Aabb box = [&] {
        Aabb all;
        const PartType &type = *typeOf(build, part);
        const Pose pose = framePose(build, part);
        for (const auto &solid : type.solids) all.include(boundsOf(solid.shape, pose * solid.X_PartSolid));
        return all;
    }();
    int around = 0;
    std::string miss;
    Vec3 at = framePose(build, part).position_mm;
    for (const std::size_t i : strapsRound(build, derived.scene, pack)) {
        const Vec3 p = framePose(build, build.parts[i]).position_mm;
        const bool holds = p.x() > box.min_mm.x() + kStrapHold_mm && p.x() < box.max_mm.x() - kStrapHold_mm;
        if (holds)
            ++around;
        else {
            miss = build.parts[i].id;
            at = p;
        }
    }
    Finding f;
    f.rule = RuleId::fitBattery;
    f.variant = "strap";
    f.subjects = {part.id};
    if (!miss.empty()) f.subjects.push_back(miss);
    f.measured = around;
    f.limit = 1;
    f.unit = "straps";
    f.margin = around - 1;
    f.severity = around > 0 ? (miss.empty() ? Severity::pass : Severity::watch)
                            : (miss.empty() ? Severity::pass : Severity::stop);
    if (around == 0 && miss.empty()) return; // its strap is not drawn: counted as hardware
    f.from_mm = at;
    out.push_back(std::move(f));
}

} // namespace

static void judgeBattery(const Build &build, const Practice &practice, const Derived &derived,
                         std::vector<Finding> &out) {
    judgeGround(build, practice, derived, out);
    std::vector<std::size_t> plugs;
    for (std::size_t i = 0; i < build.parts.size(); ++i)
        if (const PartType *type = typeOf(build, build.parts[i]); type && type->kind == PartKind::powerPlug)
            plugs.push_back(i);
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        const PartType *type = typeOf(build, build.parts[i]);
        if (!type || type->kind != PartKind::battery || !derived.scene.owners[i].cases) continue;
        judgeLead(build, practice, derived, i, plugs, out);
        judgeStrap(build, derived, i, out);
    }
    std::optional<Finding> tight; // of all that cannot slide as far as was asked
    for (const auto &slide : slidesSeen(derived)) {
        const Part *part = findPart(build, slide.part);
        if (!part || !part->slide) continue;
        Finding f;
        f.rule = RuleId::fitBattery;
        f.variant = "slide";
        f.subjects = {slide.part};
        for (const auto *stop : {&slide.stopAft, &slide.stopFore})
            if (!stop->empty() && std::find(f.subjects.begin(), f.subjects.end(), *stop) == f.subjects.end())
                f.subjects.push_back(*stop);
        const double wanted = std::max(part->slide->max_mm, 0.0) - std::min(part->slide->min_mm, 0.0);
        f.measured = slide.free_max_mm - slide.free_min_mm;
        f.limit = wanted;
        f.unit = "mm";
        f.margin = *f.measured - wanted;
        f.severity = slide.stopAft.empty() && slide.stopFore.empty() ? Severity::pass : Severity::note;
        f.from_mm = framePose(build, *part).position_mm;
        f.inputs = {{"free aft", -slide.free_min_mm, "mm"}, {"free forward", slide.free_max_mm, "mm"}};
        if (f.severity == Severity::pass) {
            out.push_back(std::move(f));
        } else if (!tight) {
            tight = std::move(f);
        } else {
            if (f.margin < tight->margin) std::swap(*tight, f);
            tight->subjects.push_back(f.subjects.front());
        }
    }
    if (tight) out.push_back(std::move(*tight));
}

static FindingText wordBattery(const Build &build, const Finding &f) {
    std::vector<std::string> words{f.subjects.empty() ? "" : displayName(build, f.subjects[0]),
                                   f.subjects.size() > 1 ? nameWithin(build, f.subjects[1]) : "",
                                   f.measured ? oneDecimal(std::abs(*f.measured)) : "",
                                   f.limit ? oneDecimal(*f.limit) : "", displayName(build, f.loadCase)};
    if (f.variant == "stands-on")
        return {{"Without feet the craft stands on {0}", words},
                {"It hangs {2} mm lower than anything that may take a landing: feet, skids, or another place for it.",
                 words}};
    if (f.variant == "stands-on-blades")
        return {{"Without feet the craft stands on the {0}", {nameWithin(build, f.subjects[0])}},
                {"Hanging blades turn {2} mm below everything else: feet first. Propellers off on the bench.", words}};
    if (f.variant == "ground") {
        if (f.severity == Severity::stop)
            return {{"{0} reaches {2} mm below the feet", words},
                    {"The craft stands on it: longer feet, or move it.", words}};
        return {{"{0} is {2} mm above the ground", words}, {"{3} mm wanted: longer feet, or move it up.", words}};
    }
    if (f.variant == "tip") {
        if (f.severity == Severity::stop)
            return {{"The craft falls over: its CG is outside its feet", words},
                    {"{4}: feet wider apart, or the CG back between them.", words}};
        return {{"The craft tips over on a slope of {2}°", words},
                {"{4}: {3}° wanted; feet wider apart, or shorter.", words}};
    }
    if (f.variant == "lead") {
        if (f.severity == Severity::unknown)
            return {{"Lead of {0}: length not known", words},
                    {"Measure it and enter it in the part type, to see whether it reaches {1}.", words}};
        if (f.severity == Severity::stop)
            return {{"Lead of {0} is {2} mm short of {1}", words},
                    {"Turn the pack, move it or the plug, or lengthen the craft's side.", words}};
        return {{"Lead of {0} reaches {1} with {2} mm to spare", words},
                {"{3} mm wanted, so that nothing pulls.", words}};
    }
    if (f.variant == "strap") {
        if (f.severity == Severity::stop)
            return {{"{0}: {1} does not go round it", words},
                    {"The strap stands beyond the pack's end: move one of them.", words}};
        return {{"{0}: {1} is at the pack's very end", words}, {"It slips off; move it 5 mm inwards.", words}};
    }
    words[2] = oneDecimal(maybeInput(f, "free aft").value_or(0));
    words[3] = oneDecimal(maybeInput(f, "free forward").value_or(0));
    std::vector<std::string> others;
    for (std::size_t i = 1; i < f.subjects.size(); ++i)
        if (const Part *part = findPart(build, f.subjects[i]); part && part->slide) others.push_back(part->id);
    words[4] = listNames(build, others);
    return {{"{0} can slide {2} mm aft and {3} mm forward", words},
            {others.empty() ? "Then it meets {1}." : "Then it meets {1}. Not as far as asked can slide as well: {4}.",
             words}};
}

std::span<const Rule> batteryRules() {
    static const std::array<Rule, 1> rules{{
        {RuleId::fitBattery,
         "Battery and ground",
         "The pack must stay strapped, reach its plug and slide; the craft must stand on its feet, not on the "
         "pack.",
         kTrade,
         Stage::place,
         {Limit::groundClearance, Limit::tipOver, Limit::leadSlack},
         needs(Need::places, Need::owners, Need::gaps, Need::balance, Need::survey),
         judgeBattery,
         wordBattery},
    }};
    return rules;
}

} // namespace waxis
