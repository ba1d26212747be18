// What all rules and screens share, computed once per build.
#pragma once

#include "core/base/shared_value.h"
#include "core/build/build.h"
#include "core/scene/scene.h"

#include <memory>
#include <vector>

namespace waxis {

struct CaseBalance;
struct KitLine;
struct LinkReport;
struct LogReport;
struct MassRow;
struct MotorScrews;
struct PowerReport;
struct RadioReport;
struct ReconcileReport;
struct StackReport;
struct Survey;
struct WireRoute;
struct WiringReport;

/// The reports are only declared here, so that a change of one concerns those alone who read it. Copies share them.
struct Derived {
    Derived(); ///< of nothing: every report is there, and empty

    SharedValue<std::vector<LoadCase>> loadCases;
    Vec3 thrustCentre_mm = Vec3::Zero();
    SharedValue<std::vector<MassRow>> massRows; ///< parts in file order, then structure and allowances
    double cgTolerance_mm = 0;                  ///< radius of the ring about the thrust centre
    SharedValue<std::vector<CaseBalance>> balance;
    SharedValue<ReconcileReport> reconciled; ///< what was measured of the whole craft against the sum of its parts
    SharedValue<std::vector<KitLine>> kit;
    SharedValue<std::vector<StackReport>> stacks;
    SharedValue<std::vector<MotorScrews>> motorScrews;
    SharedValue<std::vector<WireRoute>> routes; ///< by Build::wires
    int wiresPutOff = 0;                        ///< wires that are still to be led (Analyser::setRouteBudget)
    SharedValue<WiringReport> wiring;
    SharedValue<PowerReport> power;
    SharedValue<LinkReport> links;
    SharedValue<RadioReport> radio;
    SharedValue<LogReport> log; ///< what was measured against what is planned
    Scene scene;
    /// Views, access and folding, when somebody has looked; of an earlier state of the build when `surveyStale`.
    std::shared_ptr<const Survey> survey;
    bool surveyStale = false;
};

} // namespace waxis
