// FIT-13: is everything held by something that it touches.
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/build/near_frame.h"
#include "core/derived/all_up.h"
#include "core/findings/input.h"
#include "core/kit/strap_girth.h"
#include "core/rules/rule.h"
#include "core/scene/hanging.h"
#include "core/survey/at_hand.h"
#include "core/survey/helps.h"

#include <algorithm>
#include <array>

namespace waxis {

namespace {

void offerPlaces(const Derived &derived, const Part &part, Finding &finding) {
    for (const auto &help : placeHelpFound(derived))
        if (help.part == part.id) finding.fixes = help.fixes;
}

std::string_view variantOf(HangingKind kind) {
    switch (kind) {
    case HangingKind::far: return "far";
    case HangingKind::nothing: return "nothing";
    case HangingKind::apart: return "apart";
    case HangingKind::island: return "island";
    }
    return "";
}

} // namespace

namespace {

/// Tape and hook-and-loop hold by their area. Ten times the part's own weight, as in a hard turn or landing, against
/// what a square millimetre takes before it peels (common practice, no source).
void judgeTapes(const Build &build, const Derived &derived, std::vector<Finding> &out) {
    constexpr double kTape_N_mm2 = 0.02, kHook_N_mm2 = 0.03, kJolt = 10;
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        const Part &part = build.parts[i];
        const bool tape = part.fastening.method == FasteningMethod::tape;
        if ((!tape && part.fastening.method != FasteningMethod::hookAndLoop) || derived.scene.owners[i].stack >= 0)
            continue;
        const auto grams = gramsOf(derived, part.id);
        if (!grams) continue;
        const Vec3 size = partBounds(build, part).size_mm();
        if (!(size.minCoeff() > 0)) continue;
        const double area = size.x() * size.y() * size.z() / size.minCoeff(); // its largest face
        const double wanted = newtonsFromGrams(*grams) * kJolt / (tape ? kTape_N_mm2 : kHook_N_mm2);
        Finding f;
        f.rule = RuleId::fitHeld;
        f.severity = area >= wanted ? Severity::pass : Severity::watch;
        f.variant = "tape";
        f.subjects = {part.id};
        f.unit = "mm2";
        f.measured = area;
        f.limit = wanted;
        f.margin = area - wanted;
        out.push_back(std::move(f));
    }
}

/// Straps and ties that are drawn, against what they go round.
void judgeStraps(const Build &build, std::vector<Finding> &out) {
    for (const auto &strap : build.parts) {
        const PartType *type = typeOf(build, strap);
        if (!type || type->kind != PartKind::strap) continue;
        const auto task = strapTaskOf(build, strap);
        if (!task) continue;
        Finding f;
        f.rule = RuleId::fitHeld;
        f.variant = type->strapLength_mm ? "strap" : "strap unknown";
        f.subjects = {strap.id, task->part};
        f.unit = "mm";
        f.limit = task->girth_mm + task->overlap_mm;
        f.inputs = {{"round what it holds", task->girth_mm, "mm"}, {"over itself", task->overlap_mm, "mm"}};
        f.severity = Severity::unknown;
        if (type->strapLength_mm) {
            f.measured = *type->strapLength_mm;
            f.margin = *f.measured - *f.limit;
            f.severity = *f.measured < task->girth_mm ? Severity::stop
                         : f.margin < 0               ? Severity::watch
                                                      : Severity::pass;
        }
        out.push_back(std::move(f));
    }
}

} // namespace

static void judgeHeld(const Build &build, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    const HangingReport report = whatHangs(build, practice, derived.scene);
    for (const int member : report.looseMembers) {
        Finding f;
        f.rule = RuleId::fitHeld;
        f.severity = Severity::stop;
        f.variant = "frame";
        f.subjects = {derived.scene.owners[std::size_t(member)].id};
        f.margin = -1;
        out.push_back(std::move(f));
    }
    for (const Hanging &hanging : report.parts) {
        const Part &part = build.parts[hanging.part];
        Finding f;
        f.rule = RuleId::fitHeld;
        f.severity = Severity::stop;
        f.variant = variantOf(hanging.kind);
        f.subjects = {part.id};
        f.unit = "mm";
        f.margin = -1;
        offerPlaces(derived, part, f);
        if (hanging.other >= 0) f.subjects.push_back(derived.scene.owners[std::size_t(hanging.other)].id);
        if (hanging.kind == HangingKind::far) {
            constexpr double kMetre_mm = 1000;
            f.unit = "m";
            f.measured = hanging.away_mm / kMetre_mm;
            f.limit = kFarFromFrame_mm / kMetre_mm;
            f.margin = *f.limit - *f.measured;
            f.to_mm = hanging.at_mm;
        }
        if (hanging.kind == HangingKind::apart) {
            f.measured = hanging.away_mm;
            f.limit = practice[Limit::heldGap];
            f.practiceLimit = Limit::heldGap;
            f.margin = *f.limit - *f.measured;
            f.inputs = {{"gap", *f.measured, "mm"}, {"still counts as touching", *f.limit, "mm"}};
        }
        out.push_back(std::move(f));
    }
    judgeTapes(build, derived, out);
    judgeStraps(build, out);
}

static FindingText wordHeld(const Build &build, const Finding &f) {
    const std::string name = displayName(build, f.subjects[0]);
    if (f.variant == "frame")
        return {{"{0} hangs in the air: nothing joins it to the arms", {name}},
                {"Posts, bobbins or arms must reach it; add standoffs or move it onto them in Frame.", {}}};
    std::string where;
    if (!f.fixes.empty() && f.fixes.front().as<Perch>())
        where = std::string(perchWord(f.fixes.front().as<Perch>()->kind)) + " " +
                nameWithin(build, f.fixes.front().as<Perch>()->on);
    if (f.variant == "tape") {
        const std::vector<std::string> words{name, wholeNumber(*f.measured), wholeNumber(*f.limit)};
        return {{"{0} is heavy for the tape that it has room for: {1} mm2", words},
                {"{2} mm2 would hold ten times its weight. Add a strap or ties, or screw it.", words}};
    }
    if (f.variant.starts_with("strap")) {
        const std::vector<std::string> words{name, nameWithin(build, f.subjects[1]),
                                             wholeNumber(inputOf(f, "round what it holds")), wholeNumber(*f.limit),
                                             wholeNumber(f.measured.value_or(0))};
        if (f.severity == Severity::unknown)
            return {{"How long {0} is has not been stated", words},
                    {"{3} mm are needed to go round {1} and hold: state its length in the kit.", words}};
        if (f.severity == Severity::pass) return {{"{0}: {4} mm go round {1}, {3} mm needed", words}, {"", {}}};
        if (f.severity == Severity::stop)
            return {{"{0} does not close round {1}: {4} mm long, {2} mm round", words},
                    {"Take one of {3} mm or more.", words}};
        return {{"{0} closes only just round {1}: {4} mm long, {2} mm round", words},
                {"Little lies on itself: {3} mm would hold.", words}};
    }
    if (f.variant == "far")
        return {{"{0} lies {1} m away from the frame", {name, oneDecimal(*f.measured)}},
                {"Wires are led there straight, and little else is judged. Move it back, or take it out.", {}}};
    if (f.variant == "nothing") {
        if (where.empty())
            return {{"Nothing holds {0}", {name}}, {"Say in the inspector how it is held, and by what.", {}}};
        return {{"Nothing holds {0}", {name}}, {"It could sit {0}; or say in the inspector how it is held.", {where}}};
    }
    const std::string other = nameWithin(build, f.subjects[1]);
    if (f.variant == "island")
        return {{"{0} hangs on {1}, and nothing holds that", {name, other}},
                {"One of them must be fastened to the frame.", {}}};
    const std::string away = oneDecimal(*f.measured);
    if (where.empty())
        return {{"{0} does not touch {1}, which should hold it: {2} mm apart", {name, other, away}},
                {"Move it there, or name what really holds it.", {}}};
    return {{"{0} does not touch {1}, which should hold it: {2} mm apart", {name, other, away}},
            {"It could sit {0}; or move it there, or name what really holds it.", {where}}};
}

std::span<const Rule> heldRules() {
    static const std::array<Rule, 1> rules{{
        {RuleId::fitHeld,
         "Held",
         "What nothing holds flies off at the first knock; what does not touch its holder is held by nothing.",
         kTrade,
         Stage::place,
         {Limit::heldGap},
         needs(Need::places, Need::owners, Need::gaps, Need::massRows, Need::survey),
         judgeHeld,
         wordHeld},
    }};
    return rules;
}

} // namespace waxis
