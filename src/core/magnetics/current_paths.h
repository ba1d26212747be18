// The currents of a craft as lines in space, and the magnets in it.
#pragma once

#include "core/build/build.h"
#include "core/magnetics/field_map.h"
#include "core/magnetics/level_field.h"
#include "core/practice/practice.h"

#include <optional>

namespace waxis {

struct PowerReport;
struct Scene;
struct WireRoute;
struct WiringReport;

/// Pitch of a pair twisted by hand, in spacings of its cores (common practice, no source).
inline constexpr double kTwistPitch = 8;

/// One line with a steady current, or two side by side with the same current there and back.
struct CurrentPath {
    std::string wire;
    std::vector<Vec3> points_mm;
    double hover_A = 0, full_A = 0; ///< along the points; of a pair, in its supply core
    bool pair = false;              ///< the return runs beside it
    double spacing_mm = 0;          ///< of the pair's cores
    double pitch_mm = 0;            ///< twisted pair; 0: not twisted
    CaseMask cases = 0;             ///< load cases in which both ends are aboard
};

struct Magnet {
    std::string part;
    Vec3 position_mm = Vec3::Zero(), moment_mAm2 = Vec3::Zero();
    CaseMask cases = 0;
};

/// Everything that makes a steady field. Routed wires with a known current and direction; alternating currents (phase
/// wires) average out. Not in it: copper within boards and packs (nobody states where it runs), and the iron of motors.
struct FieldSources {
    std::vector<CurrentPath> paths;
    std::vector<Magnet> magnets;
};
FieldSources fieldSources(const Build &build, const std::vector<LoadCase> &loadCases,
                          const std::vector<WireRoute> &routes, const WiringReport &wiring, const PowerReport &power);

/// Field of one path at a point per ampere, uT. Which way the two of a pair lie is chance: flat and on edge. Twisted
/// pairs are a pair weakened by their twist, with 10 mm of open ends.
LieField pathFieldPerAmpere_uT(const CurrentPath &path, const Vec3 &point_mm);

/// All sources together in one load case: magnets apart from currents; those in their worst lie, as the compass of a
/// craft that leans up to `lean_deg` meets them.
struct FieldAt {
    Vec3 constant_uT = Vec3::Zero();
    double hover_uT = 0, full_uT = 0; ///< level
};
FieldAt fieldAt(const FieldSources &sources, const Vec3 &point_mm, std::size_t loadCase, double lean_deg);

/// What one source does to a compass.
struct FieldShare {
    std::string id; ///< of wire or part
    Vec3 constant_uT = Vec3::Zero();
    double hover_uT = 0, full_uT = 0; ///< level, in its worst lie
    double level() const { return constant_uT.head<2>().norm() + full_uT; }
};

struct CompassReport {
    std::string part;
    Vec3 position_mm = Vec3::Zero(); ///< of the sensor
    std::string loadCase;            ///< the one with the largest error at full current
    FieldAt field;
    double constant_deg = 0;            ///< worst over headings, magnets: a calibration takes it away
    double hover_deg = 0, full_deg = 0; ///< worst over headings, currents alone
    std::vector<FieldShare> by;         ///< strongest first
    struct Iron {
        std::string part;
        double distance_mm = 0;
    };
    std::vector<Iron> iron; ///< ferrous parts within twice the practice's distance, nearest first
};

/// What a sensor meets anywhere: also at a place that is only thought of.
CompassReport compassAt(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                        const Scene &scene, const FieldSources &sources, const std::string &part,
                        const Vec3 &position_mm);
std::vector<CompassReport> compassReports(const Build &build, const Practice &practice,
                                          const std::vector<LoadCase> &loadCases, const Scene &scene,
                                          const FieldSources &sources);

FieldMap fieldMap(const FieldSources &sources, std::size_t loadCase, const Vec2 &low_mm, const Vec2 &high_mm,
                  double z_mm, double step_mm, double lean_deg);

} // namespace waxis
