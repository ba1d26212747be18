// What all rules and screens share, computed once per build.
#pragma once

#include "core/balance/case_balance.h"
#include "core/balance/reconcile.h"
#include "core/clearance/clearance_world.h"
#include "core/kit/kit.h"
#include "core/links/link_report.h"
#include "core/power/power_report.h"
#include "core/radio/radio_report.h"
#include "core/rules/practice.h"
#include "core/stack/motor_screws.h"
#include "core/stack/report.h"
#include "core/wiring/wire_report.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace waxis {

enum class OwnerKind { part, plate, arm, standoff, disc };

/// A thing that has bodies in the clearance world.
struct BodyOwner {
    OwnerKind kind = OwnerKind::part;
    std::string id;
    CaseMask cases = 0;
    std::vector<int> related; ///< owners that it is fastened to, or that are fastened to it: may touch
    bool holds = false;       ///< fasteners and straps go through or round what they hold
    bool isolated = false;    ///< soft-mounted
    bool flexible = false;
    bool hot = false;
    bool insulated = false; ///< declared insulator between it and what it stands on
    bool battery = false;
    int stack = -1; ///< index of the stack that it stands in; -1: none
};

/// What a body is made of, beside its owner's traits.
struct BodyTraits {
    int owner = 0;
    int solid = 0; ///< index in the part type; 0 for frame members
    bool soft = false, bare = false, conductive = false, printed = false;
};

struct Survey;

struct Derived {
    std::vector<LoadCase> loadCases;
    Vec3 thrustCentre_mm = Vec3::Zero();
    std::vector<MassRow> massRows; ///< parts in file order, then structure and allowances
    double cgTolerance_mm = 0;     ///< radius of the ring about the thrust centre
    std::vector<CaseBalance> balance;
    ReconcileReport reconciled; ///< what was measured of the whole craft against the sum of its parts
    std::vector<KitLine> kit;
    std::vector<StackReport> stacks;
    std::vector<MotorScrews> motorScrews;
    std::vector<WireRoute> routes; ///< by Build::wires
    int wiresPutOff = 0;           ///< wires that are still to be led (Analyser::setRouteBudget)
    WiringReport wiring;
    PowerReport power;
    LinkReport links;
    RadioReport radio;
    std::vector<BodyOwner> owners;
    std::vector<BodyTraits> traits;              ///< one per body of the world
    std::shared_ptr<const ClearanceWorld> world; ///< a copy keeps its own: one that is shared is not moved in any more
    /// Views, access and folding, when somebody has looked; of an earlier state of the build when `surveyStale`.
    std::shared_ptr<const Survey> survey;
    bool surveyStale = false;
};

/// The things nearest to a part that are aboard in a load case, nearest first, one gap per thing. What it is
/// fastened to, soft matter and propeller discs do not count.
std::vector<BodyGap> nearestThings(const Derived &derived, int owner, int loadCase, double reach_mm, std::size_t most);

} // namespace waxis
