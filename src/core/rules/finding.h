// What rules say about a build, as data. Sentences are made at the edge (see wording.h).
#pragma once

#include "core/build/edits.h"
#include "core/geometry/pose.h"
#include "core/placing/perch.h"
#include "core/rules/practice.h"
#include "core/stack/change.h"
#include "core/wiring/edits.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace waxis {

enum class Severity { stop, watch, note, unknown, pass };

/// The nine stages in the order of the bench.
enum class Stage { kit, frame, place, stack, wire, radio, balance, build, log };
inline constexpr int kStageCount = 9;

enum class RuleId {
    kitMassUnknown,
    kitCounts,
    kitUnweighed,
    kitSize,
    kitMarks,
    fitOverlap,
    fitGap,
    fitPropZone,
    fitTipGap,
    fitMounting,
    fitAccess,
    fitMating,
    fitCamera,
    fitTwoCameras,
    fitLamp,
    fitBattery,
    fitFolding,
    fitHeld,
    lnkNumbering,
    lnkSpin,
    lnkHand,
    navSky,
    navAngles,
    stkHeight,
    stkGap,
    stkScrew,
    stkMotorScrew,
    stkDamper,
    stkInsulation,
    stkOrder,
    stkHarness,
    wirLength,
    wirGauge,
    wirDrop,
    wirParallel,
    wirBend,
    wirSpan,
    wirEdge,
    wirFill,
    wirZone,
    wirEscGap,
    wirSoft,
    wirJoints,
    wirRoute,
    pwrRail,
    pwrRange,
    pwrHeat,
    pwrJoined,
    pwrCapacitor,
    pwrPack,
    pwrContacts,
    pwrTap,
    pwrEndurance,
    pwrUnfed,
    lnkCross,
    lnkGround,
    lnkOnce,
    lnkLevel,
    lnkBus,
    lnkPorts,
    lnkMotors,
    lnkChannels,
    lnkPins,
    radSeparation,
    radNoise,
    radBlocking,
    radMixing,
    radHarmonic,
    radClock,
    radConductor,
    radEdge,
    radDiversity,
    radHand,
    radCoverage,
    radConnector,
    radBand,
    radPigtail,
    radLink,
    radAntenna,
    radLaw,
    navThrottle,
    navMagnet,
    navIron,
    balOffset,
    balWeight,
    balLoad,
    balThrust,
    balSure,
    balMeasured,
    balYaw
};
inline constexpr int kRuleCount = 90;

/// A number that went into the verdict.
struct FindingInput {
    std::string_view name;
    double value = 0;
    std::string_view unit;
};

/// A turn about an axis of the frame through the part's own origin.
struct PartTurn {
    Vec3 axis = Vec3::UnitZ();
    double angle_deg = 90;
};

/// A move that cures the finding.
struct Fix {
    std::string part;
    Vec3 shift_mm = Vec3::Zero();
    std::optional<double> tilt_deg;         ///< cameras: the tilt upwards to set instead of a shift
    std::optional<double> leaves_mm;        ///< what remains of the measured value where the move does not cure it all
    std::optional<StackChange> stack = {};  ///< a change of a stack instead
    std::optional<WireChange> wire = {};    ///< a change of wires instead
    std::optional<PartTurn> turn = {};      ///< of `part`, instead of a shift
    std::optional<RadioSetting> radio = {}; ///< another channel or power instead
    std::string site = {};                  ///< not empty: `part` goes onto this site, turned as it is
    std::optional<Perch> perch = {};        ///< `part` goes there and is held there, instead of a shift
    std::optional<Polarisation> hand = {};  ///< of the ground station `part`, instead of a shift
    std::vector<Fix> then = {};             ///< what is to be done with it
};
/// What hangs on a part that is moved or turned comes along (core/build/hung_on.h).
EditResult applyFix(const Build &build, const Fix &fix);

struct Finding {
    RuleId rule = RuleId::fitOverlap;
    Severity severity = Severity::note;
    std::vector<std::string> subjects;
    std::string variant;  ///< which of a rule's cases: "sway", "heat", "fore-aft", ...
    std::string loadCase; ///< id; empty: whatever is aboard
    std::optional<double> measured, limit;
    std::string_view unit;
    double margin = 0; ///< how far on the safe side; negative: outside
    std::optional<Limit> practiceLimit;
    std::vector<FindingInput> inputs;
    std::optional<Vec3> from_mm, to_mm; ///< where to look: the nearest points or the overlap
    std::vector<Fix> fixes;
    std::string acceptedReason; ///< not empty: the builder accepts it

    bool accepted() const { return !acceptedReason.empty(); }
    /// The same finding keeps its key while numbers change.
    std::string key() const;
    /// The same trouble keeps this while its contributors change: the key with the first subject only, for rules whose
    /// other subjects merely add to it.
    std::string trouble() const;
};

struct FindingCounts {
    int stop = 0, watch = 0, note = 0, unknown = 0, accepted = 0;
    int open() const { return stop + watch + note + unknown; }
    bool operator==(const FindingCounts &) const = default;
};
/// Accepted ones are counted apart.
FindingCounts countFindings(const std::vector<Finding> &findings);

} // namespace waxis
