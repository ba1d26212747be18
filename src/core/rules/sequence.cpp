// SEQ-1 to SEQ-8: the order in which a craft can be put together, and what comes off again.
#include "core/base/by_id.h"
#include "core/findings/input.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/rules/sequence_cures.h"
#include "core/sequence/plan.h"
#include "core/survey/at_hand.h"

#include <algorithm>
#include <array>
#include <iterator>
#include <span>

namespace waxis {

namespace {

std::vector<const PlanRemark *> remarksOf(const Derived &derived, RemarkKind kind) {
    std::vector<const PlanRemark *> found;
    if (const AssemblyPlan *plan = planSeen(derived))
        for (const auto &remark : plan->remarks)
            if (remark.kind == kind) found.push_back(&remark);
    return found;
}

Finding findingOf(RuleId rule, const Derived &derived, const PlanRemark &remark, Severity severity) {
    Finding f;
    f.rule = rule;
    f.severity = severity;
    f.subjects = remark.subjects;
    f.loadCase = planSeen(derived)->loadCase;
    f.margin = severity == Severity::pass ? 0 : -1;
    return f;
}

/// One pass for the whole craft where a plan was made and nothing is said.
void passIfSilent(RuleId rule, const Derived &derived, std::size_t before, std::vector<Finding> &out) {
    const AssemblyPlan *plan = planSeen(derived);
    if (!plan || plan->steps.empty() || out.size() != before) return;
    Finding f;
    f.rule = rule;
    f.severity = Severity::pass;
    f.loadCase = plan->loadCase;
    out.push_back(std::move(f));
}

void offer(Finding &f, std::vector<Fix> fixes) {
    f.fixes.insert(f.fixes.end(), std::make_move_iterator(fixes.begin()), std::make_move_iterator(fixes.end()));
}

bool isNut(const Build &build, const std::string &id) {
    const Part *part = findPart(build, id);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    return type && type->fastener && type->fastener->form != FastenerForm::screw;
}

} // namespace

static void judgeStuck(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t before = out.size();
    for (const PlanRemark *remark : remarksOf(derived, RemarkKind::stuck)) {
        Finding f = findingOf(RuleId::seqStuck, derived, *remark, Severity::stop);
        f.measured = double(remark->subjects.size() - 1);
        f.limit = 0;
        f.unit = "things";
        const std::string &thing = remark->subjects.front();
        offer(f, fromTheOtherFace(build, thing));
        offer(f, onTheOtherSide(build, thing));
        offer(f, turnedOnItsPlace(build, thing));
        offer(f, shorterPosts(build, remark->subjects));
        out.push_back(std::move(f));
    }
    passIfSilent(RuleId::seqStuck, derived, before, out);
}
static FindingText wordStuck(const Build &build, const Finding &f) {
    return {
        {"{0} cannot be put in: {1} in the way",
         {displayName(build, f.subjects[0]), listNames(build, std::span(f.subjects).subspan(1))}},
        {"No straight way is free, alone or together with what it carries. Make room, divide what shuts it in, or put "
         "it in from another side.",
         {}}};
}

static void judgeDriver(const Build &build, const Practice &practice, const Derived &derived,
                        std::vector<Finding> &out) {
    const std::size_t before = out.size();
    for (const PlanRemark *remark : remarksOf(derived, RemarkKind::undriven)) {
        Finding f = findingOf(RuleId::seqDriver, derived, *remark, Severity::stop);
        f.inputs = {{"driver across", practice[Limit::driverAcross], "mm"},
                    {"driver long", practice[Limit::driverLength], "mm"}};
        f.practiceLimit = Limit::driverLength;
        offer(f, fromTheOtherFace(build, remark->subjects.front()));
        offer(f, shorterPosts(build, remark->subjects));
        out.push_back(std::move(f));
    }
    passIfSilent(RuleId::seqDriver, derived, before, out);
}
static FindingText wordDriver(const Build &build, const Finding &f) {
    if (isNut(build, f.subjects[0]))
        return {{"No spanner or socket reaches {0} when it has to go on: {1} in the way",
                 {nameWithin(build, f.subjects[0]), listNames(build, std::span(f.subjects).subspan(1))}},
                {"A spanner from one of its sides or a socket along its axis, 60 mm long, would do. Move what stands "
                 "there, or take a press nut.",
                 {}}};
    return {{"No driver reaches {0} when it has to go in: {1} in the way",
             {nameWithin(build, f.subjects[0]), listNames(build, std::span(f.subjects).subspan(1))}},
            {"A driver {0} mm across wants {1} mm behind the head. Put it in from the other face, or move what stands "
             "there.",
             {oneDecimal(inputOf(f, "driver across")), wholeNumber(inputOf(f, "driver long"))}}};
}

static void judgeCovered(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t before = out.size();
    Finding f;
    for (const PlanRemark *remark : remarksOf(derived, RemarkKind::covered)) {
        if (f.subjects.empty()) f = findingOf(RuleId::seqCovered, derived, {}, Severity::note);
        for (const auto &id : remark->subjects)
            if (std::find(f.subjects.begin(), f.subjects.end(), id) == f.subjects.end()) f.subjects.push_back(id);
    }
    // Of the first: when it is cured the next one stands here.
    if (!f.subjects.empty()) {
        offer(f, turnedOnItsPlace(build, f.subjects.front()));
        offer(f, onTheOtherSide(build, f.subjects.front()));
        out.push_back(std::move(f));
    }
    passIfSilent(RuleId::seqCovered, derived, before, out);
}
static FindingText wordCovered(const Build &build, const Finding &f) {
    std::vector<std::string> parts, wires;
    for (const auto &id : f.subjects) (findWire(build, id) ? wires : parts).push_back(id);
    return {{"Plugged in the hand, before its part goes in: {0}", {listNames(build, wires)}},
            {"On {0}, where no fingers reach it later. It is a step of its own in Build.", {listNames(build, parts)}}};
}

static void judgeHole(const Build &, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t before = out.size();
    for (const PlanRemark *remark : remarksOf(derived, RemarkKind::hole)) {
        Finding f = findingOf(RuleId::seqHole, derived, *remark, Severity::watch);
        WireChange stock;
        stock.kind = WireChange::Kind::stock;
        stock.wire = remark->subjects.front();
        f.fixes = {Fix({}, stock)};
        out.push_back(std::move(f));
    }
    passIfSilent(RuleId::seqHole, derived, before, out);
}
static FindingText wordHole(const Build &build, const Finding &f) {
    return {
        {"{0}: its plug does not pass {1}", {displayName(build, f.subjects[0]), f.subjects[1]}},
        {"The lead is fixed to its part. Leave the plug off until it is through, lead it another way, or put the part "
         "on after.",
         {}}};
}

static void judgeHeat(const Build &build, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t before = out.size();
    for (const PlanRemark *remark : remarksOf(derived, RemarkKind::heat)) {
        Finding f = findingOf(RuleId::seqHeat, derived, *remark, Severity::watch);
        f.measured = remark->value;
        f.limit = practice[Limit::solderClear];
        f.practiceLimit = Limit::solderClear;
        f.unit = "mm";
        f.margin = *f.measured - *f.limit;
        constexpr double kMore_mm = 1;
        offer(f, turnedOnItsPlace(build, f.subjects[0]));
        offer(f, movedAwayFrom(build, f.subjects[1], f.subjects[0], *f.limit - *f.measured + kMore_mm));
        out.push_back(std::move(f));
    }
    passIfSilent(RuleId::seqHeat, derived, before, out);
}
static FindingText wordHeat(const Build &build, const Finding &f) {
    return {{"{0} is soldered {1} mm from {2}, which has to be stuck down before",
             {displayName(build, f.subjects[0]), wholeNumber(*f.measured), nameWithin(build, f.subjects[1])}},
            {"{0} mm are wanted: heat loosens tape, foam and glue. Shield it with a wet rag, or stick it down again "
             "afterwards.",
             {wholeNumber(*f.limit)}}};
}

static void judgeService(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t before = out.size();
    std::optional<Finding> deepest; // the others are named with it
    for (const PlanRemark *remark : remarksOf(derived, RemarkKind::service)) {
        Finding f = findingOf(RuleId::seqService, derived, *remark, Severity::watch);
        f.measured = remark->value;
        f.limit = practice[Limit::serviceDepth];
        f.practiceLimit = Limit::serviceDepth;
        f.unit = "things";
        f.margin = *f.limit - *f.measured;
        if (!deepest || f.margin < deepest->margin) {
            if (deepest) f.inputs = deepest->inputs;
            std::swap(f, deepest ? *deepest : deepest.emplace());
        }
    }
    if (deepest) {
        deepest->inputs = {{"parts that lie deeper", double(remarksOf(derived, RemarkKind::service).size()), ""}};
        out.push_back(std::move(*deepest));
    }
    passIfSilent(RuleId::seqService, derived, before, out);
}
static FindingText wordService(const Build &build, const Finding &f) {
    const double more = inputOf(f, "parts that lie deeper") - 1;
    return {{"To change {0}, {1} have to come off first",
             {nameWithin(build, f.subjects[0]), listNames(build, std::span(f.subjects).subspan(1))}},
            {more > 0
                 ? "It is changed often; {0} is allowed. As deep lie others that are: {1}. Build says what comes off "
                   "for each."
                 : "It is changed often; {0} is allowed. Build says in which order they come off.",
             {wholeNumber(*f.limit), wholeNumber(more)}}};
}

static void judgeDryFit(const Build &, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t before = out.size();
    for (const PlanRemark *remark : remarksOf(derived, RemarkKind::dryFit))
        out.push_back(findingOf(RuleId::seqDryFit, derived, *remark, Severity::note));
    passIfSilent(RuleId::seqDryFit, derived, before, out);
}
static FindingText wordDryFit(const Build &build, const Finding &f) {
    return {{"{0} is stuck down where it cannot be tried before", {displayName(build, f.subjects[0])}},
            {"It goes in together with others or not at all: try them dry in the hand, and stick last.", {}}};
}

static void judgeByHand(const Build &, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t before = out.size();
    for (const PlanRemark *remark : remarksOf(derived, RemarkKind::byHand))
        out.push_back(findingOf(RuleId::seqByHand, derived, *remark, Severity::note));
    passIfSilent(RuleId::seqByHand, derived, before, out);
}
static FindingText wordByHand(const Build &build, const Finding &f) {
    std::string note;
    for (const auto &wish : build.ownOrder)
        if (!wish.note.empty() && wish.step.ends_with(":" + f.subjects[0])) note = wish.note;
    return {{"{0} before {1}, against a reason", {displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1])}},
            note.empty() ? Sentence{"You want it so.", {}} : Sentence{"You want it so: {0}", {note}}};
}

std::span<const Rule> sequenceRules() {
    constexpr std::string_view kApart = "assembly by disassembly, exact sweeps of convex pieces (Wilson and Latombe "
                                        "1994, from memory)";
    static const std::array<Rule, 8> rules{{
        {RuleId::seqStuck,
         "Can be put together",
         "What comes out of the finished craft last goes in first; what never comes out never went in.",
         kApart,
         Stage::build,
         {},
         needs(Need::places, Need::survey),
         judgeStuck,
         wordStuck},
        {RuleId::seqDriver,
         "Room for the driver",
         "A screw is turned in by a straight tool, at its time.",
         kTrade,
         Stage::build,
         {Limit::driverAcross, Limit::driverLength},
         needs(Need::places, Need::survey),
         judgeDriver,
         wordDriver},
        {RuleId::seqCovered,
         "Plugged before it is covered",
         "What no finger reaches in the finished craft is plugged while it lies open.",
         kTrade,
         Stage::build,
         {},
         needs(Need::places, Need::survey),
         judgeCovered,
         wordCovered},
        {RuleId::seqHole,
         "Led through in time",
         "A lead that came with its plug goes through its hole with the plug on, or not at all.",
         kTrade,
         Stage::build,
         {},
         needs(Need::survey),
         judgeHole,
         wordHole},
        {RuleId::seqHeat,
         "Heat beside what is stuck",
         "Tape, foam and glue come off where a joint is soldered beside them.",
         kTrade,
         Stage::build,
         {Limit::solderClear},
         needs(Need::places, Need::survey),
         judgeHeat,
         wordHeat},
        {RuleId::seqService,
         "Changed in the field",
         "Propellers, antennas, cameras and packs are changed often, with cold fingers.",
         kTrade,
         Stage::build,
         {Limit::serviceDepth},
         needs(Need::survey),
         judgeService,
         wordService},
        {RuleId::seqDryFit,
         "Tried before it is stuck",
         "What is stuck in the wrong place stays there; tape is good for one try.",
         kTrade,
         Stage::build,
         {},
         needs(Need::survey),
         judgeDryFit,
         wordDryFit},
        {RuleId::seqByHand,
         "Another order",
         "A builder may know better than a reason; it should be seen who decided.",
         kTrade,
         Stage::build,
         {},
         needs(Need::survey),
         judgeByHand,
         wordByHand},
    }};
    return rules;
}

} // namespace waxis
