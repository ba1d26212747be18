// One build: a plain value. Derived numbers never live here; analyse() gives them.
#pragma once

#include "core/base/shared_value.h"
#include "core/build/assembly.h"
#include "core/build/frame.h"
#include "core/build/radio_plan.h"
#include "core/build/stack.h"
#include "core/build/weighing.h"
#include "core/build/wiring.h"
#include "core/catalog/part_type.h"

#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace waxis {

enum class FasteningMethod { none, screws, tape, hookAndLoop, ties, strap, glue, stack, pressed, soldered };

struct Fastening {
    FasteningMethod method = FasteningMethod::none;
    std::vector<std::string> onto; ///< ids of what it is fastened to: these may touch
    bool insulated = false;        ///< an insulating layer lies between
    std::optional<int> pieces;     ///< how many screws, ties or straps; none: as many as is usual
    Measured sag_mm = {};          ///< on something soft: how far it sinks under its own weight
    bool operator==(const Fastening &) const = default;
};

/// A line along which a part may slide, relative to where it is drawn.
struct SlideRange {
    Vec3 direction = Vec3::UnitX(); ///< unit vector in body axes
    double min_mm = 0, max_mm = 0;
    bool operator==(const SlideRange &) const = default;
};

struct Placement {
    std::string site; ///< empty: pose is in the frame's axes; else in the site's or motor mount's
    Pose pose;
    double tolerance_mm = 0; ///< +- 2 sigma of the position along each axis
    bool operator==(const Placement &) const = default;
};

struct Part {
    std::string id;
    std::string type;
    std::string name;
    Placement placement;
    Fastening fastening;
    Measured mass_g;           ///< weighed; unknown: the type's
    bool optional = false;     ///< aboard only where a load case says so
    std::optional<Spin> turns; ///< propellers and nuts sold in both hands: which one is fitted
    bool pinned = false;
    std::optional<SlideRange> slide;
    std::vector<ChannelFunction> channels; ///< as PartType::functions; empty: the type's
    std::string note;                      ///< the builder's own words

    // Copied in a hundred files; the code of it is made in one.
    Part();
    Part(const Part &);
    Part(Part &&) noexcept;
    Part &operator=(const Part &);
    Part &operator=(Part &&) noexcept;
    ~Part();
    bool operator==(const Part &) const;
};

/// Another place for a part, to be compared with the one it has. Nothing stands there.
struct TrialPlace {
    std::string id;
    std::string name;
    std::string part;
    Pose X_FramePart; ///< in the frame's axes
    bool operator==(const TrialPlace &) const = default;
};

/// Weight that is no placed part: solder, ties, wires not drawn yet. Always visible as a row of its own.
struct Allowance {
    std::string id;
    std::string name;
    Measured mass_g;
    Vec3 position_mm = Vec3::Zero();
    bool operator==(const Allowance &) const = default;
};

/// What the craft does in a load case. Only what flies is judged as a flight.
enum class LoadCaseKind {
    flight,
    bench,  ///< stands on the ground, switched on: tuning, charging a camera, waiting for satellites
    carried ///< switched off: in the bag, on the wall
};

struct LoadCase {
    std::string id;
    std::string name;
    std::vector<std::string> aboard; ///< optional parts that fly in this case
    std::string battery;             ///< part id; empty: none or already in aboard
    bool folded = false;
    LoadCaseKind kind = LoadCaseKind::flight;
    std::string usb = {}; ///< bench: the part whose USB socket a computer or charger feeds; packs are unplugged then
    std::vector<std::string> off = {}; ///< parts that are aboard and switched off
    bool flies() const { return kind == LoadCaseKind::flight && !folded; }
    bool operator==(const LoadCase &) const = default;
};

/// What lies in the box of one kind of thing: counted, weighed, measured, its marks read.
struct KitEntry {
    std::string item;            ///< id of a part type, or KitLine::item of a frame member
    std::optional<int> inHand;   ///< none: not counted yet
    Measured mass_g;             ///< of one piece, weighed
    std::optional<Vec3> size_mm; ///< of one piece, measured over all
    bool checked = false;        ///< ticked off
    bool arrowConfirmed = false, pinsConfirmed = false;
    std::string note;
    bool operator==(const KitEntry &) const = default;
};

/// Which profile and what this build changes in it.
struct PracticeSettings {
    std::string profile = "flow";
    std::map<std::string, double> limits;
    std::map<std::string, std::string> schools;
    std::map<std::string, std::string> notes; ///< why a limit or school was chosen, by its id
    bool operator==(const PracticeSettings &) const = default;
};

/// A finding that the builder accepts, with the reason. `finding` is Finding::key.
struct Acceptance {
    std::string finding;
    std::string reason;
    bool operator==(const Acceptance &) const = default;
};

struct Log;

struct Build {
    std::string name;
    std::string note;
    SharedValue<Frame> frame;
    SharedValue<TypeTable> types;
    std::vector<Part> parts;
    std::vector<Stack> stacks;
    std::vector<Wire> wires;
    std::vector<TiePoint> ties;
    std::vector<RadioSetting> radioSettings;
    std::vector<GroundStation> groundStations;
    std::vector<TrialPlace> trials;
    std::vector<KitEntry> kit;
    std::vector<Allowance> allowances;
    std::vector<LoadCase> loadCases;
    std::vector<Weighing> weighings;
    std::vector<WeightLimit> weightLimits;
    PracticeSettings practice;
    std::vector<Acceptance> acceptances;
    std::vector<StepTick> stepsDone;
    std::vector<OwnStep> ownSteps;
    std::vector<OwnOrder> ownOrder;
    std::vector<CheckResult> checkResults;
    SharedValue<Log> log; ///< core/build/log.h

    // Copied in a hundred files; the code of it is made in one.
    Build();
    Build(const Build &);
    Build(Build &&) noexcept;
    Build &operator=(const Build &);
    Build &operator=(Build &&) noexcept;
    ~Build();
    bool operator==(const Build &) const;
};

const Part *findPart(const Build &build, const std::string &id);
const Wire *findWire(const Build &build, const std::string &id);
const KitEntry *findKitEntry(const Build &build, const std::string &item);
/// Null when the part's type is not in the build (loaders refuse such files).
const PartType *typeOf(const Build &build, const Part &part);

/// Pose of a site or motor mount in the frame's axes; nullopt for an unknown id. A motor mount's z is its axis.
std::optional<Pose> sitePose(const Frame &frame, const std::string &id);

/// Pose of a part in the frame's axes. What lies in a stack stands where the layers under it put it.
Pose framePose(const Build &build, const Part &part);

/// The axes that Placement::pose is given in: those of the stack's base, of the site or mount, or the frame's.
Pose placementAxes(const Build &build, const Part &part);

bool isAboard(const Part &part, const LoadCase &loadCase);
/// Aboard and at work: it draws current and sends.
bool isSwitchedOn(const Part &part, const LoadCase &loadCase);

/// The build's load cases, or one case with everything that is not optional when it names none.
std::vector<LoadCase> effectiveLoadCases(const Build &build);

/// One bit per load case, in order.
using CaseMask = std::uint64_t;
inline constexpr std::size_t kMostLoadCases = 64;
CaseMask casesAboard(const Part &part, const std::vector<LoadCase> &loadCases);
CaseMask casesSwitchedOn(const Part &part, const std::vector<LoadCase> &loadCases);

/// Ids of everything in the build, in file order: motor mounts, arms, plates, standoffs, screws, sites, pass-throughs,
/// parts, stacks, wires, ties, ground stations, trial places, allowances, load cases, weighings, weight limits and own
/// steps, sessions, entries, trials, their set-ups and tries, and named states share one name space.
std::vector<std::string> allIds(const Build &build);

/// `base`, or base-2, base-3, ... when taken.
std::string freshId(const Build &build, const std::string &base);

/// A person's word for an id: a part's name, a plate's name, else the id itself.
std::string displayName(const Build &build, const std::string &id);

} // namespace waxis
