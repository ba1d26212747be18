#include "core/rules/practice.h"

#include <algorithm>
#include <map>

namespace waxis {

namespace {
constexpr std::string_view kTrade = "common practice, no source";

// What a profile sets otherwise than the standard.
const std::map<std::string_view, std::map<Limit, double>> &profileLimits() {
    static const std::map<std::string_view, std::map<Limit, double>> table{
        {"sprint", {{Limit::cgOffset, 2.0}, {Limit::unweighedCg, 0.5}}},
        {"pocket", {{Limit::propRigidGap, 3.0}, {Limit::propFlexibleGap, 6.0}, {Limit::tipGap, 3.0}}},
        {"lift", {{Limit::propFlexUp, 25.0}, {Limit::propFlexDown, 20.0}, {Limit::tipGap, 10.0}}},
    };
    return table;
}
} // namespace

const std::array<LimitDefinition, kLimitCount> &limitTable() {
    static const std::array<LimitDefinition, kLimitCount> table{{
        {Limit::overlapDepth, "overlap-depth", "Overlap that counts as touching", "mm", 0.05, "numerical allowance"},
        {Limit::swayGap, "sway-gap", "Room for soft-mounted parts to sway", "mm", 3.0, kTrade},
        {Limit::heatGap, "heat-gap", "Hot bodies to battery or printed plastic", "mm", 5.0, kTrade},
        {Limit::bareGap, "bare-gap", "Bare solder side to conductive structure", "mm", 2.0, kTrade},
        {Limit::propRigidGap, "prop-rigid-gap", "Rigid parts to the propeller's zone", "mm", 5.0, kTrade},
        {Limit::propFlexibleGap, "prop-flexible-gap", "Flexible parts to the propeller's zone", "mm", 10.0, kTrade},
        {Limit::propFlexUp, "prop-flex-up", "Propeller zone above the blades' middle", "mm", 12.0, kTrade},
        {Limit::propFlexDown, "prop-flex-down", "Propeller zone below the blades' middle", "mm", 8.0, kTrade},
        {Limit::tipGap, "tip-gap", "Propeller tip to propeller tip", "mm", 5.0, kTrade},
        {Limit::cgOffset, "cg-offset", "Centre of gravity off the thrust centre", "mm", 5.0, kTrade},
        {Limit::unweighedCg, "unweighed-cg", "Doubt of the CG from unweighed parts, two sigma", "mm", 1.0, kTrade},
        {Limit::sizeCheckMargin, "size-check-margin", "Fit margin below which sizes are to be measured", "mm", 1.0,
         kTrade},
        {Limit::catalogueMassShare, "catalogue-mass-tolerance", "Doubt of a catalogue mass without tolerance", "%", 5.0,
         kTrade},
        {Limit::estimatedMassShare, "estimated-mass-tolerance", "Doubt of an estimated mass without tolerance", "%",
         20.0, kTrade},
        {Limit::measuredMassTolerance, "measured-mass-tolerance", "Doubt of a weighed mass without tolerance", "g", 0.2,
         "a scale that reads to 0.1 g"},
    }};
    return table;
}

const LimitDefinition &definitionOf(Limit limit) { return limitTable()[std::size_t(limit)]; }

const std::vector<Profile> &profiles() {
    static const std::vector<Profile> table{
        {"sprint", "Sprint", "racing: centre of gravity tight, nothing spare"},
        {"flow", "Flow", "freestyle: the usual limits"},
        {"range", "Range", "long range: the usual limits, GPS and antennas matter"},
        {"lift", "Lift", "camera and payload: large propellers flex more"},
        {"pocket", "Pocket", "very small and light: less room everywhere"},
    };
    return table;
}

bool isProfile(std::string_view id) {
    return std::any_of(profiles().begin(), profiles().end(), [&](const Profile &p) { return p.id == id; });
}

Practice practiceOf(const PracticeSettings &settings) {
    Practice practice;
    practice.profile = settings.profile;
    for (const auto &definition : limitTable()) {
        double &value = practice.limits[std::size_t(definition.limit)];
        value = definition.standard;
        const auto profile = profileLimits().find(settings.profile);
        if (profile != profileLimits().end() && profile->second.contains(definition.limit))
            value = profile->second.at(definition.limit);
        const auto own = settings.limits.find(std::string(definition.id));
        if (own != settings.limits.end()) value = own->second;
    }
    return practice;
}

} // namespace waxis
