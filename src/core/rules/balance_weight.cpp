// BAL-2 to BAL-4, BAL-6, BAL-7: how much it weighs, who carries it, and what the scale says.
#include "core/balance/case_balance.h"
#include "core/balance/reconcile.h"
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/rules/rule.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

bool flies(const CaseBalance &balance) { return balance.loadCase.flies() && balance.mass.mass_g > 0; }

} // namespace

static void judgeWeight(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &limit : build.weightLimits)
        for (const auto &balance : derived.balance) {
            if (!flies(balance) || (!limit.loadCase.empty() && limit.loadCase != balance.loadCase.id)) continue;
            Finding f;
            f.rule = RuleId::balWeight;
            f.subjects = {limit.id};
            f.loadCase = balance.loadCase.id;
            f.measured = balance.mass.mass_g;
            f.limit = limit.most_g;
            f.unit = "g";
            f.margin = limit.most_g - balance.mass.mass_g;
            f.inputs = {{"all-up weight", balance.mass.mass_g, "g"},
                        {"doubt (2 sigma)", balance.tolerance_g, "g"},
                        {"things without a weight", double(balance.notWeighed.size()), ""}};
            f.severity = f.margin < 0                     ? Severity::watch
                         : !balance.notWeighed.empty()    ? Severity::unknown
                         : f.margin < balance.tolerance_g ? Severity::note
                                                          : Severity::pass;
            if (f.severity == Severity::note) f.variant = "doubt";
            out.push_back(std::move(f));
        }
}

static FindingText wordWeight(const Build &build, const Finding &f) {
    double doubt = 0;
    for (const auto &input : f.inputs)
        if (input.name == "doubt (2 sigma)") doubt = input.value;
    const std::vector<std::string> words{displayName(build, f.loadCase), displayName(build, f.subjects.front()),
                                         oneDecimal(*f.measured),        fmt::format("{:g}", *f.limit),
                                         oneDecimal(std::abs(f.margin)), oneDecimal(doubt)};
    if (f.severity == Severity::unknown)
        return {{"{1}: not known whether {0} stays under {3} g", words},
                {"Something aboard has no weight yet: weigh it.", words}};
    if (f.severity == Severity::watch)
        return {{"{0} is {4} g over {3} g", words},
                {"{1}: grams to lose are listed in Balance. Local law decides what a class asks.", words}};
    return {{"{0} is {4} g under {3} g, give or take {5}", words},
            {"{1}: weigh the craft before you rely on it.", words}};
}

static void judgeMotorLoad(const Build &build, const Practice &practice, const Derived &derived,
                           std::vector<Finding> &out) {
    std::optional<Finding> worst;
    for (const auto &balance : derived.balance) {
        if (!flies(balance) || balance.hover.mostLoaded < 0) continue;
        const auto &hover = balance.hover;
        Finding f;
        f.rule = RuleId::balLoad;
        f.loadCase = balance.loadCase.id;
        f.subjects = {build.frame->motorMounts[std::size_t(hover.mostLoaded)].id};
        const double least = *std::min_element(hover.thrusts_N.begin(), hover.thrusts_N.end());
        f.measured = 100 * (hover.mostOverMean - 1);
        f.limit = practice[Limit::motorUneven];
        f.practiceLimit = Limit::motorUneven;
        f.unit = "%";
        f.margin = *f.limit - *f.measured;
        f.severity = least < 0 ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        if (least < 0) f.variant = "pulls";
        f.inputs = {{"thrust of that motor at hover", hover.thrusts_N[std::size_t(hover.mostLoaded)], "N"},
                    {"mean of all", newtonsFromGrams(balance.mass.mass_g) / double(hover.thrusts_N.size()), "N"},
                    {"least loaded", least, "N"}};
        f.from_mm = build.frame->motorMounts[std::size_t(hover.mostLoaded)].position_mm;
        if (!worst || f.margin < worst->margin) worst = std::move(f);
    }
    if (worst) out.push_back(std::move(*worst));
}

static FindingText wordMotorLoad(const Build &build, const Finding &f) {
    const std::vector<std::string> words{motorName(build, f.subjects.front()), wholeNumber(*f.measured),
                                         wholeNumber(*f.limit), displayName(build, f.loadCase)};
    if (f.variant == "pulls")
        return {{"No hover: a propeller would have to pull down", words},
                {"{3}: the centre of gravity lies too far from the motors.", words}};
    return {{"The {0} carries {1} % more than the mean", words},
            {"{3}: {2} % allowed; it is evened out by bringing the centre of gravity home.", words}};
}

static void judgeThrustLeft(const Build &build, const Practice &practice, const Derived &derived,
                            std::vector<Finding> &out) {
    std::optional<Finding> worst;
    for (const auto &balance : derived.balance) {
        const auto &hover = balance.hover;
        if (!flies(balance) || hover.thrusts_N.empty() || balance.loadCase.battery.empty()) continue;
        Finding f;
        f.rule = RuleId::balThrust;
        f.loadCase = balance.loadCase.id;
        f.limit = practice[Limit::leastThrust];
        f.practiceLimit = Limit::leastThrust;
        f.unit = "times";
        if (hover.tightest < 0 || !(hover.tightestShare > 0)) {
            f.severity = Severity::unknown;
            f.variant = "not-stated";
            f.loadCase.clear();
            out.push_back(std::move(f));
            return;
        }
        const auto tightest = std::size_t(hover.tightest);
        constexpr double kClimbs = 1.2; // less than this does not leave the ground with any control
        f.subjects = {build.frame->motorMounts[tightest].id};
        f.measured = 1 / hover.tightestShare;
        f.margin = *f.measured - *f.limit;
        f.severity = *f.measured < kClimbs ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = {{"hover thrust of that motor", hover.thrusts_N[tightest], "N"},
                    {"what it can push", *hover.most_N[tightest], "N"},
                    {"thrust to weight of the craft", balance.thrustToWeight.value_or(0), ""}};
        f.from_mm = build.frame->motorMounts[tightest].position_mm;
        if (!worst || f.margin < worst->margin) worst = std::move(f);
    }
    if (worst) out.push_back(std::move(*worst));
}

static FindingText wordThrustLeft(const Build &build, const Finding &f) {
    if (f.severity == Severity::unknown)
        return {{"Thrust in hand not judged: some motor states no thrust", {}},
                {"Enter what a motor pushes with its propeller, in Balance.", {}}};
    const std::vector<std::string> words{motorName(build, f.subjects.front()), oneDecimal(*f.measured),
                                         oneDecimal(*f.limit), displayName(build, f.loadCase)};
    if (f.severity == Severity::stop)
        return {{"The {0} can push only {1} times its share of the weight", words},
                {"{3}: that does not climb with any control. Less weight, or larger motors.", words}};
    return {{"The {0} can push {1} times what it carries at hover", words},
            {"{3}: {2} times wanted; less weight, balance, or larger motors and propellers.", words}};
}

static void judgeMeasured(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    (void)build;
    const ReconcileReport &report = *derived.reconciled;
    for (const auto &weighing : report.weighings)
        if (!weighing.problem.empty()) {
            Finding f;
            f.rule = RuleId::balMeasured;
            f.severity = Severity::unknown;
            f.variant = "unusable";
            f.subjects = {weighing.id};
            out.push_back(std::move(f));
        }
    if (report.conditions == 0) return;
    Finding f;
    f.rule = RuleId::balMeasured;
    f.measured = 100 * report.chance;
    f.limit = 1;
    f.unit = "%";
    f.margin = *f.measured - *f.limit;
    f.severity = report.contradicts() ? Severity::watch : Severity::pass;
    f.inputs = {{"numbers measured", double(report.conditions), ""}, {"chi squared", report.chiSquared, ""}};
    if (!report.suspects.empty()) {
        const Suspect &first = report.suspects.front();
        f.subjects = {first.id};
        f.variant = report.decided ? "suspect" : "suspects";
        f.inputs.push_back({"entered", first.entered_g, "g"});
        f.inputs.push_back({"would be", first.wouldBe_g, "g"});
        if (!report.decided)
            for (std::size_t i = 1; i < std::min<std::size_t>(3, report.suspects.size()); ++i)
                f.subjects.push_back(report.suspects[i].id);
    }
    out.push_back(std::move(f));
}

static FindingText wordMeasured(const Build &build, const Finding &f) {
    if (f.variant == "unusable")
        return {{"{0}: cannot be used", {displayName(build, f.subjects.front())}},
                {"A reading is missing or does not stand; complete it in Balance.", {}}};
    double entered = 0, wouldBe = 0, numbers = 0;
    for (const auto &input : f.inputs) {
        if (input.name == "numbers measured") numbers = input.value;
        if (input.name == "entered") entered = input.value;
        if (input.name == "would be") wouldBe = input.value;
    }
    std::string names;
    for (std::size_t i = 0; i < f.subjects.size(); ++i)
        names += (i == 0 ? "" : i + 1 == f.subjects.size() ? " or " : ", ") + displayName(build, f.subjects[i]);
    const std::vector<std::string> words{names, oneDecimal(entered), oneDecimal(wouldBe)};
    if (f.subjects.empty())
        return {{"The craft as weighed is not the sum of its parts", words},
                {"No single entry explains it: something may be missing from the build.", words}};
    if (f.variant == "suspect")
        return {{"The scale contradicts {0}", words},
                {"Entered {1} g; {2} g would explain what was measured. Weigh it.", words}};
    return {{"The craft as weighed is not the sum of its parts", words},
            numbers > 1 ? Sentence{"{0} could explain it alone: weigh them.", words}
                        : Sentence{"{0} could explain it alone; balance the craft as well, to tell which.", words}};
}

static void judgeYawTorque(const Build &build, const Practice &practice, const Derived &derived,
                           std::vector<Finding> &out) {
    std::optional<Finding> worst;
    for (const auto &balance : derived.balance) {
        const auto &hover = balance.hover;
        // Where no thrusts hold the nose (an odd motor, all one way) LNK-2 has said so.
        if (!flies(balance) || hover.yawBalanced_N.empty()) continue;
        Finding f;
        f.rule = RuleId::balYaw;
        f.loadCase = balance.loadCase.id;
        f.measured = 100 * std::abs(hover.yawLeft);
        f.limit = practice[Limit::yawTorque];
        f.practiceLimit = Limit::yawTorque;
        f.unit = "%";
        f.margin = *f.limit - *f.measured;
        f.variant = hover.yawLeft > 0 ? "left" : "right";
        f.severity = f.margin >= 0 || hover.yawServo ? Severity::pass : Severity::note;
        f.inputs = {{"motors", double(build.frame->motorMounts.size()), ""}};
        if (!worst || f.margin < worst->margin) worst = std::move(f);
    }
    if (worst) out.push_back(std::move(*worst));
}

static FindingText wordYawTorque(const Build &build, const Finding &f) {
    const std::vector<std::string> words{wholeNumber(*f.measured), f.variant, displayName(build, f.loadCase),
                                         wholeNumber(*f.limit)};
    return {{"{0} % of the propellers' torque turns the nose to the {1}", words},
            {"{2}: {3} % allowed; the controller holds it with thrust. Check turns in Frame, or bring the weight home.",
             words}};
}

/// Controllers and GPS modules feel turns as moves by their lever.
static void judgeLever(const Build &build, const Practice &practice, const Derived &derived,
                       std::vector<Finding> &out) {
    const CaseBalance *flown = nullptr; // the first that flies
    for (const auto &balance : derived.balance)
        if (!flown && flies(balance) && balance.mass.cg_mm) flown = &balance;
    if (!flown) return;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || (type->kind != PartKind::flightController && type->kind != PartKind::gps)) continue;
        if (!isAboard(part, flown->loadCase)) continue;
        const Aabb box = partBounds(build, part);
        const Vec3 lever = (box.min_mm + box.max_mm) / 2 - *flown->mass.cg_mm;
        Finding f;
        f.rule = RuleId::balLever;
        f.variant = type->kind == PartKind::gps ? "gps" : "controller";
        f.subjects = {part.id};
        f.loadCase = flown->loadCase.id;
        f.measured = lever.norm();
        f.limit = practice[Limit::lever];
        f.practiceLimit = Limit::lever;
        f.unit = "mm";
        f.margin = *f.limit - *f.measured;
        f.severity = f.margin < 0 ? Severity::note : Severity::pass;
        f.inputs = {{"forward", lever.x(), "mm"}, {"left", lever.y(), "mm"}, {"up", lever.z(), "mm"}};
        f.from_mm = *flown->mass.cg_mm;
        f.to_mm = *flown->mass.cg_mm + lever;
        out.push_back(std::move(f));
    }
}

static FindingText wordLever(const Build &build, const Finding &f) {
    const auto input = [&](std::size_t i) { return i < f.inputs.size() ? f.inputs[i].value : 0.0; };
    const std::vector<std::string> words{displayName(build, f.subjects[0]),
                                         oneDecimal(*f.measured),
                                         oneDecimal(*f.limit),
                                         wholeNumber(input(0)),
                                         wholeNumber(-input(1)),
                                         wholeNumber(-input(2))};
    return {{"{0} sits {1} mm from the centre of gravity", words},
            {"Where the firmware asks for offsets: forward {3}, right {4}, down {5} mm.", words}};
}

std::span<const Rule> balanceWeightRules() {
    static const std::array<Rule, 6> rules{{
        {RuleId::balWeight,
         "Weight limits",
         "A limit is a line that the builder drew; grams are lost most easily before anything is soldered. Which "
         "classes there are and what they ask is set by local law.",
         "the builder's own limits",
         Stage::balance,
         {},
         needs(Need::balance),
         judgeWeight,
         wordWeight},
        {RuleId::balLoad,
         "One motor carries more",
         "The motor that carries most is the first that cannot give more: in a gust the craft leans to its side.",
         "least-norm thrusts that balance force, roll and pitch (statics); the limit is common practice, no source",
         Stage::balance,
         {Limit::motorUneven},
         needs(Need::balance),
         judgeMotorLoad,
         wordMotorLoad},
        {RuleId::balThrust,
         "Thrust in hand",
         "What a motor can push beyond hover is all there is for climbing, turning and catching a gust.",
         "statics, stated static thrusts; the limit is common practice, no source",
         Stage::balance,
         {Limit::leastThrust},
         needs(Need::balance),
         judgeThrustLeft,
         wordThrustLeft},
        {RuleId::balMeasured,
         "Measured against planned",
         "When the scale says something else than the sum of the parts, one of the entries is wrong or something is "
         "missing.",
         "weighted least squares; Baarda's data snooping for the suspicious entry",
         Stage::balance,
         {Limit::measuredMassTolerance},
         needs(Need::reconciled),
         judgeMeasured,
         wordMeasured},
        {RuleId::balYaw,
         "Propellers' torque left over",
         "What the propellers' torques do not cancel, the controller has to hold with thrust differences all the time.",
         "torque as thrust times diameter, like propellers; the limit is common practice, no source",
         Stage::balance,
         {Limit::yawTorque},
         needs(Need::balance),
         judgeYawTorque,
         wordYawTorque},
        {RuleId::balLever,
         "Controller and GPS off the centre of gravity",
         "A sensor beside the centre feels every turn as a move; firmware takes that out when it knows the lever.",
         kTrade,
         Stage::balance,
         {Limit::lever},
         needs(Need::places, Need::balance),
         judgeLever,
         wordLever},
    }};
    return rules;
}

} // namespace waxis
