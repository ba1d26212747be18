// The rules of the Balance stage: where the weight is, how much of it, and who carries it.
#include "core/rules/families.h"
#include "core/rules/rule.h"

namespace waxis {

std::vector<Rule> balanceRules() {
    constexpr std::string_view kTrade = "common practice, no source";
    return {
        {RuleId::balOffset,
         "BAL-1",
         "Centre of gravity off the thrust centre",
         "Off centre, some motors work harder all the time: less headroom, less flight time, worse turns.",
         kTrade,
         Stage::balance,
         {Limit::cgOffset, Limit::cgShare},
         judgeCgOffset,
         wordCgOffset},
        {RuleId::balWeight,
         "BAL-2",
         "Weight limits",
         "A limit is a line that the builder drew; grams are lost most easily before anything is soldered. Which "
         "classes there are and what they ask is set by local law.",
         "the builder's own limits",
         Stage::balance,
         {},
         judgeWeight,
         wordWeight},
        {RuleId::balLoad,
         "BAL-3",
         "One motor carries more",
         "The motor that carries most is the first that cannot give more: in a gust the craft leans to its side.",
         "least-norm thrusts that balance force, roll and pitch (statics); the limit is common practice, no source",
         Stage::balance,
         {Limit::motorUneven},
         judgeMotorLoad,
         wordMotorLoad},
        {RuleId::balThrust,
         "BAL-4",
         "Thrust in hand",
         "What a motor can push beyond hover is all there is for climbing, turning and catching a gust.",
         "statics, stated static thrusts; the limit is common practice, no source",
         Stage::balance,
         {Limit::leastThrust},
         judgeThrustLeft,
         wordThrustLeft},
        {RuleId::balSure,
         "BAL-5",
         "How sure the balance is",
         "Catalogue weights and taped places are off by some per cent; a balance that is right on paper only may not "
         "be right on the field.",
         "first-order propagation of doubts (JCGM 100), normal; the limit is common practice, no source",
         Stage::balance,
         {Limit::balanceSure, Limit::catalogueMassShare, Limit::estimatedMassShare, Limit::measuredMassTolerance},
         judgeBalanceSure,
         wordBalanceSure},
        {RuleId::balMeasured,
         "BAL-6",
         "Measured against planned",
         "When the scale says something else than the sum of the parts, one of the entries is wrong or something is "
         "missing.",
         "weighted least squares; Baarda's data snooping for the suspicious entry",
         Stage::balance,
         {Limit::measuredMassTolerance},
         judgeMeasured,
         wordMeasured},
        {RuleId::balYaw,
         "BAL-7",
         "Propellers' torque left over",
         "What the propellers' torques do not cancel, the controller has to hold with thrust differences all the time.",
         "torque as thrust times diameter, like propellers; the limit is common practice, no source",
         Stage::balance,
         {Limit::yawTorque},
         judgeYawTorque,
         wordYawTorque},
    };
}

} // namespace waxis
