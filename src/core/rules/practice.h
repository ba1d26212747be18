// The limits that rules read, and the ready-made profiles.
#pragma once

#include "core/build/build.h"

#include <array>
#include <string>
#include <string_view>
#include <vector>

namespace waxis {

/// Every limit that some rule reads. The order is that of limitTable().
enum class Limit {
    overlapDepth,
    swayGap,
    heatGap,
    bareGap,
    propRigidGap,
    propFlexibleGap,
    propFlexUp,
    propFlexDown,
    tipGap,
    cgOffset,
    unweighedCg,
    sizeCheckMargin,
    catalogueMassShare,
    estimatedMassShare,
    measuredMassTolerance
};
inline constexpr std::size_t kLimitCount = 15;

struct LimitDefinition {
    Limit limit;
    std::string_view id; ///< as in files and on the command line
    std::string_view title;
    std::string_view unit; ///< "mm", "g", "%"
    double standard;
    std::string_view source;
};
const std::array<LimitDefinition, kLimitCount> &limitTable();
const LimitDefinition &definitionOf(Limit limit);

struct Profile {
    std::string_view id;
    std::string_view name;
    std::string_view forWhom;
};
const std::vector<Profile> &profiles();
bool isProfile(std::string_view id);

/// Limits in force: the profile's, then what the build changed.
struct Practice {
    std::string profile;
    std::array<double, kLimitCount> limits{};
    double operator[](Limit limit) const { return limits[std::size_t(limit)]; }
    bool operator==(const Practice &) const = default;
};

/// An unknown profile name gives the standard limits; loaders and the command line refuse such names before.
Practice practiceOf(const PracticeSettings &settings);

} // namespace waxis
