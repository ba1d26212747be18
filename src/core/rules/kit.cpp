// KIT: counts and weights.
#include "core/kit/kit.h"
#include "core/balance/mass_rows.h"
#include "core/build/frame_shapes.h"
#include "core/catalog/part_bounds.h"
#include "core/clearance/clearance_world.h"
#include "core/derived/all_up.h"
#include "core/findings/input.h"
#include "core/remedies/weigh_advice.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/scene/body_table.h"
#include "core/scene/scene.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace waxis {

static void judgeMassUnknown(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &row : derived.massRows) {
        if (row.known) continue;
        Finding finding;
        finding.rule = RuleId::kitMassUnknown;
        finding.severity = Severity::unknown;
        finding.subjects = {row.id};
        finding.unit = "g";
        if (findPart(build, row.id)) finding.variant = "part";
        finding.from_mm = row.element.centroid_mm;
        out.push_back(std::move(finding));
    }
}

static FindingText wordMassUnknown(const Build &build, const Finding &f) {
    return {{"{0} has no weight yet", {displayName(build, f.subjects[0])}},
            {f.variant == "part" ? "It is missing from all-up weight and balance: weigh it and enter the grams."
                                 : "It is missing from all-up weight and balance: weigh it, or name its material.",
             {}}};
}

static void judgeCounts(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    if (build.parts.empty()) return;
    int uncounted = 0, pieces = 0;
    for (const auto &line : derived.kit) {
        if (line.needed == 0) continue;
        if (!line.inHand) {
            ++uncounted;
            pieces += line.needed;
            continue;
        }
        Finding f;
        f.rule = RuleId::kitCounts;
        f.variant = "missing";
        f.subjects = {line.item};
        f.measured = *line.inHand;
        f.limit = line.needed;
        f.unit = "pieces";
        f.margin = *line.inHand - line.needed;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        out.push_back(std::move(f));
    }
    if (uncounted == 0) return;
    Finding f;
    f.rule = RuleId::kitCounts;
    f.variant = "uncounted";
    f.severity = Severity::unknown;
    f.inputs = {{"kinds not counted", double(uncounted), ""}, {"pieces of these", double(pieces), ""}};
    out.push_back(std::move(f));
}

static FindingText wordCounts(const Build &build, const Finding &f) {
    if (f.variant == "uncounted")
        return {{inputOf(f, "kinds not counted") == 1 ? "One kind of parts is not counted yet"
                                                      : "{0} kinds of parts are not counted yet",
                 {fmt::format("{:g}", inputOf(f, "kinds not counted"))}},
                {"Count the box in the Kit stage: what is missing stops the work half way.", {}}};
    return {{"{0}: {1} in hand, {2} needed",
             {kitItemName(build, f.subjects[0]), fmt::format("{:g}", *f.measured), fmt::format("{:g}", *f.limit)}},
            {"{0} missing.", {fmt::format("{:g}", *f.limit - *f.measured)}}};
}

static void judgeUnweighed(const Build &build, const Practice &practice, const Derived &derived,
                           std::vector<Finding> &out) {
    if (build.parts.empty()) return; // a frame alone is not balanced yet
    // The load case in which it matters most speaks for all.
    Finding worst;
    for (std::size_t i = 0; i < allUpCount(derived); ++i) {
        if (!derived.loadCases[i].flies()) continue;
        const WeighAdvice advice = weighAdvice(derived.massRows, derived.balance, i);
        if (advice.next.empty()) continue;
        const double doubt = 2 * advice.sigma_mm * std::sqrt(advice.unweighedShare);
        if (worst.measured && doubt <= *worst.measured) continue;
        worst.rule = RuleId::kitUnweighed;
        worst.loadCase = derived.loadCases[i].id;
        worst.subjects = {advice.next.front().id};
        worst.measured = doubt;
        worst.limit = practice[Limit::unweighedCg];
        worst.practiceLimit = Limit::unweighedCg;
        worst.unit = "mm";
        worst.margin = *worst.limit - doubt;
        worst.severity = worst.margin < 0 ? Severity::watch : Severity::pass;
        worst.inputs = {
            {"mass not weighed", advice.unweighed_g, "g"},
            {"all-up mass", advice.total_g, "g"},
            {"share of the doubt of the first to weigh", advice.next.front().share / advice.unweighedShare * 100, "%"}};
    }
    if (worst.measured) out.push_back(std::move(worst));
}

static FindingText wordUnweighed(const Build &build, const Finding &f) {
    return {{"Unweighed parts leave the centre of gravity in doubt by {0} mm", {oneDecimal(*f.measured)}},
            {"{1} of {2} g come from the catalogue; {0} alone makes {3} % of the doubt: weigh it next.",
             {displayName(build, f.subjects[0]), fmt::format("{:.0f}", inputOf(f, "mass not weighed")),
              fmt::format("{:.0f}", inputOf(f, "all-up mass")),
              fmt::format("{:.0f}", inputOf(f, "share of the doubt of the first to weigh"))}}};
}

static void judgeSizes(const Build &build, const Practice &practice, const Derived &derived,
                       std::vector<Finding> &out) {
    if (!derived.scene.world) return;
    const double limit = practice[Limit::sizeCheckMargin];
    std::map<std::string, Finding> byType;
    auto offer = [&](int body, double margin, const BodyGap &gap, const std::string &other) {
        const BodyOwner &owner = derived.scene.owners[derived.scene.traits[body].owner];
        const Part *part = owner.kind == OwnerKind::part ? findPart(build, owner.id) : nullptr;
        if (!part) return;
        const KitEntry *entry = findKitEntry(build, part->type);
        if (entry && entry->size_mm) return;
        auto [at, isNew] = byType.try_emplace(part->type);
        Finding &f = at->second;
        if (!isNew && f.margin + limit <= margin) return;
        f = Finding{};
        f.rule = RuleId::kitSize;
        f.severity = Severity::note;
        f.subjects = {part->id, other};
        f.measured = margin;
        f.limit = limit;
        f.practiceLimit = Limit::sizeCheckMargin;
        f.unit = "mm";
        f.margin = margin - limit;
        f.from_mm = gap.onA_mm;
        f.to_mm = gap.onB_mm;
    };
    for (const auto &gap : derived.scene.world->gaps()) {
        const PairDemands demands =
            demandsOf(derived.scene.owners, derived.scene.traits[gap.a], derived.scene.traits[gap.b]);
        double margin = 1e300;
        auto need = [&](bool asked, Limit wanted) {
            if (asked) margin = std::min(margin, gap.distance_mm - practice[wanted]);
        };
        need(demands.sway, Limit::swayGap);
        need(demands.heat, Limit::heatGap);
        need(demands.bare, Limit::bareGap);
        if (demands.propeller) need(true, *demands.propeller);
        // What fails anyway has its own finding; this is about what just passes.
        if (!(margin >= 0 && margin < limit)) continue;
        offer(gap.a, margin, gap, derived.scene.owners[derived.scene.traits[gap.b].owner].id);
        offer(gap.b, margin, gap, derived.scene.owners[derived.scene.traits[gap.a].owner].id);
    }
    if (byType.empty()) return;
    auto tightest = byType.begin();
    for (auto at = byType.begin(); at != byType.end(); ++at)
        if (at->second.margin < tightest->second.margin) tightest = at;
    Finding f = std::move(tightest->second);
    for (const auto &[type, finding] : byType)
        if (type != tightest->first) f.subjects.push_back(finding.subjects[0]);
    out.push_back(std::move(f));
}

static FindingText wordSizes(const Build &build, const Finding &f) {
    return {{"{0} has {1} mm to spare beside {2}: measure it",
             {displayName(build, f.subjects[0]), oneDecimal(*f.measured), nameWithin(build, f.subjects[1])}},
            {f.subjects.size() > 2
                 ? "Its size is the catalogue's; below {0} mm the real one decides. Enter it in the Kit "
                   "stage, and so of {1}."
                 : "Its size is the catalogue's; below {0} mm the real one decides. Enter it in the Kit "
                   "stage.",
             {oneDecimal(*f.limit), listNames(build, std::span(f.subjects).subspan(2))}}};
}

static void judgeMarks(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    // Only once somebody has begun to look through the box: an untouched kit has a finding of its own (KIT-2).
    if (build.kit.empty()) return;
    std::vector<std::string> items;
    for (const auto &line : derived.kit) {
        const bool unread = (line.hasArrow && !line.arrowConfirmed) || (line.hasPins && !line.pinsConfirmed);
        const bool there = !line.inHand || *line.inHand > 0; // what is still to come cannot be read
        if (line.needed > 0 && there && unread) items.push_back(line.item);
    }
    if (items.empty()) return;
    Finding f;
    f.rule = RuleId::kitMarks;
    f.severity = Severity::note;
    f.subjects = items;
    f.inputs = {{"kinds with arrow or pin order to read", double(items.size()), ""}};
    out.push_back(std::move(f));
}

static FindingText wordMarks(const Build &build, const Finding &f) {
    std::vector<std::string> names;
    for (const auto &item : f.subjects) names.push_back(kitItemName(build, item));
    return {{names.size() == 1 ? "Arrow or pin order not read on one kind" : "Arrow or pin order not read on {0} kinds",
             {std::to_string(names.size())}},
            {"{0}: compare what is printed on the part with the drawing, and confirm it in the Kit stage.",
             {listWords(names, 3)}}};
}

namespace {

constexpr double kHeaviest_g_cm3 = 12, kLightest_g_cm3 = 0.02; // lead and foam; common practice, no source

/// Weight by the box that the part's firm bodies fill, g/cm3; none: it has no body.
std::optional<double> boxDensity_g_cm3(const PartType &type, double mass_g) {
    const Aabb box = firmBounds(type);
    if (box.empty() || !(box.size_mm().prod() > 0)) return {};
    return mass_g / (box.size_mm().prod() * 1e-3);
}

/// The one part, plate or arm of a load case that weighs most.
const MassRow *heaviestOf(const Derived &derived) {
    const MassRow *heaviest = nullptr;
    for (const auto &row : derived.massRows)
        if (row.known && (!heaviest || row.element.mass_g > heaviest->element.mass_g)) heaviest = &row;
    return heaviest;
}

} // namespace

static void judgePlausible(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (std::size_t i = 0; i < build.parts.size() && i < derived.massRows.size(); ++i) {
        const MassRow &row = derived.massRows[i];
        const PartType *type = typeOf(build, build.parts[i]);
        const auto density = type && row.known && row.kind == MassKind::part
                                 ? boxDensity_g_cm3(*type, row.element.mass_g)
                                 : std::nullopt;
        if (!density || (*density <= kHeaviest_g_cm3 && *density >= kLightest_g_cm3)) continue;
        Finding f;
        f.rule = RuleId::kitPlausible;
        f.variant = *density > kHeaviest_g_cm3 ? "heavy" : "light";
        f.severity = Severity::watch;
        f.subjects = {build.parts[i].id};
        f.measured = *density;
        f.limit = *density > kHeaviest_g_cm3 ? kHeaviest_g_cm3 : kLightest_g_cm3;
        f.unit = "g/cm3";
        f.margin = -std::abs(*f.limit - *density);
        f.from_mm = row.element.centroid_mm;
        f.inputs = {{"weight", row.element.mass_g, "g"}};
        out.push_back(std::move(f));
    }
    // A frame on which little stands yet says nothing.
    const bool flies = std::any_of(build.parts.begin(), build.parts.end(), [&](const Part &part) {
        const PartType *type = typeOf(build, part);
        return type && type->kind == PartKind::battery;
    });
    const MassRow *heaviest = flies ? heaviestOf(derived) : nullptr;
    if (!heaviest || heaviest->kind != MassKind::arm || heaviest->source != Source::catalogue) return;
    const auto &arms = build.frame->arms;
    const auto arm = std::find_if(arms.begin(), arms.end(), [&](const Arm &a) { return a.id == heaviest->id; });
    if (arm == arms.end()) return;
    Finding f;
    f.rule = RuleId::kitPlausible;
    f.variant = isHollow(*arm) ? "hollow-arm" : "solid-arm";
    f.severity = Severity::note;
    f.subjects = {heaviest->id};
    f.measured = heaviest->element.mass_g;
    f.unit = "g";
    f.from_mm = heaviest->element.centroid_mm;
    out.push_back(std::move(f));
}

static FindingText wordPlausible(const Build &build, const Finding &f) {
    const std::string name = displayName(build, f.subjects[0]);
    if (f.variant == "solid-arm")
        return {{"{0} is the heaviest thing aboard: {1} g, worked out as a solid bar", {name, oneDecimal(*f.measured)}},
                {"Is it a tube or a box? Give it its wall, or weigh it.", {}}};
    if (f.variant == "hollow-arm")
        return {{"{0} is the heaviest thing aboard: {1} g, worked out from its size", {name, oneDecimal(*f.measured)}},
                {"Everything rests on that figure: weigh it.", {}}};
    const bool heavy = f.variant == "heavy";
    return {
        {"{0} weighs {1} g: {2} g/cm³", {name, oneDecimal(inputOf(f, "weight")), fmt::format("{:.3g}", *f.measured)}},
        {heavy ? "That is heavier than lead, by the box that it fills. Grams for kilograms, or a digit too many?"
               : "That is lighter than foam, by the box that it fills. Kilograms for grams, or a digit missing?",
         {}}};
}

std::span<const Rule> kitRules() {
    static const std::array<Rule, 6> rules{{
        {RuleId::kitMassUnknown,
         "Mass not known",
         "A part without a weight is missing from the balance; nought grams would be a lie.",
         kTrade,
         Stage::kit,
         {},
         needs(Need::massRows),
         judgeMassUnknown,
         wordMassUnknown},
        {RuleId::kitCounts,
         "Parts missing or not counted",
         "A part that turns out to be missing stops the work half way; count before the first screw.",
         kTrade,
         Stage::kit,
         {},
         needs(Need::kit),
         judgeCounts,
         wordCounts},
        {RuleId::kitUnweighed,
         "Weights from the catalogue",
         "Catalogue weights are off by a few per cent; the heavy things far from the middle decide the balance.",
         "first-order propagation of independent errors",
         Stage::kit,
         {Limit::unweighedCg, Limit::catalogueMassShare, Limit::estimatedMassShare},
         needs(Need::massRows, Need::balance),
         judgeUnweighed,
         wordUnweighed},
        {RuleId::kitSize,
         "Size not confirmed where it is tight",
         "Parts of one model differ by some tenths of a millimetre; where little room is left, measure the real "
         "one.",
         kTrade,
         Stage::kit,
         {Limit::sizeCheckMargin},
         needs(Need::owners, Need::gaps),
         judgeSizes,
         wordSizes},
        {RuleId::kitMarks,
         "Printed marks not read",
         "The same model ships with different pin orders and arrows; what is printed on the part in hand counts.",
         kTrade,
         Stage::kit,
         {},
         needs(Need::kit),
         judgeMarks,
         wordMarks},
        {RuleId::kitPlausible,
         "Weights that are hard to believe",
         "One slip of a digit moves the balance by centimetres, and an arm taken for solid weighs five times its own.",
         kTrade,
         Stage::kit,
         {},
         needs(Need::massRows),
         judgePlausible,
         wordPlausible},
    }};
    return rules;
}

} // namespace waxis
