// The limits that rules read, and the ready-made profiles.
#pragma once

#include "core/build/build.h"

#include <array>
#include <map>
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
    propFlexFor,
    tipGap,
    cgOffset,
    unweighedCg,
    sizeCheckMargin,
    handRoom,
    cameraHidden,
    cameraPropellers,
    lensOvershoot,
    lampSeen,
    groundClearance,
    tipOver,
    leadSlack,
    foldGap,
    heldGap,
    skyHidden,
    skyMask,
    cruisePitch,
    skyThick,
    mountAngle,
    stackAir,
    stackAirLow,
    hardwareBareGap,
    wireEnds,
    nutPitches,
    screwBeyond,
    engagementSteel,
    engagementAluminium,
    engagementPlastic,
    motorEngagementM3,
    motorEngagementM2,
    motorReserve,
    damperLeast,
    damperMost,
    plateTolerance,
    boardTolerance,
    damperTolerance,
    spacerTolerance,
    standoffTolerance,
    partTolerance,
    closeChance,
    wireRound,
    endSolder,
    endCrimp,
    wireResolder,
    wireSwaySlack,
    wireOpenSlack,
    wireOwnSlack,
    parallelGap,
    parallelLength,
    escLeadGap,
    noisyLeadGap,
    wireSpan,
    strainRelief,
    bendWire,
    bendCoax,
    stiffWires,
    wireShare,
    dropShare,
    railWatch,
    railStop,
    regulatorHeat,
    capacitorNear,
    capacitorRating,
    packReserve,
    figureOfMerit,
    driveEfficiency,
    flyingHeight,
    criticalJoints,
    senderReceiverGap,
    senderGnssGap,
    digitalGnssGap,
    escAntennaGap,
    longWaveGap,
    desenseWatch,
    desenseStop,
    blockingReserve,
    rejectionSlope,
    sentNoise,
    mixIntercept,
    mixFilter,
    offBandAntenna,
    crossPolar,
    antennaConductor,
    antennaClear,
    edgeAngle,
    diversityLeast,
    coverageLost,
    linkMargin,
    headingNote,
    headingWatch,
    headingStop,
    earthField,
    ferrousGap,
    cgShare,
    motorUneven,
    leastThrust,
    balanceSure,
    yawTorque,
    lever,
    driverAcross,
    driverLength,
    solderClear,
    serviceDepth,
    catalogueMassShare,
    estimatedMassShare,
    measuredMassTolerance,
    measuredApart,
    trialChance
};
inline constexpr std::size_t kLimitCount = std::size_t(Limit::trialChance) + 1;

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

/// A matter on which builders disagree, and what can be chosen.
struct SchoolOption {
    std::string_view id, name, reason;
};
struct School {
    std::string_view id, title;
    std::vector<SchoolOption> options;
};
const std::vector<School> &schools();
/// Null for an unknown school or option.
const School *findSchool(std::string_view id);
const SchoolOption *findOption(const School &school, std::string_view id);

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
    std::map<std::string, std::string, std::less<>> schools; ///< every school with the option in force
    /// Whether the build follows an option of a school.
    bool follows(std::string_view school, std::string_view option) const;
    double operator[](Limit limit) const { return limits[std::size_t(limit)]; }
    bool operator==(const Practice &) const = default;
};

/// What the profile says by itself, without the build's changes.
Practice practiceOfProfile(std::string_view profile);

/// Limits in force. A school chosen otherwise than the profile's may bring its own limit; a limit set by hand wins.
/// An unknown profile name gives the standard limits; loaders and the command line refuse such names before.
Practice practiceOf(const PracticeSettings &settings);

} // namespace waxis
