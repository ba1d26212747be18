#include "core/analysis/analysis.h"

#include "core/analysis/body_table.h"
#include "core/rules/rule.h"
#include "core/survey/survey.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace waxis {

namespace {

/// Stops first, then by how far outside; ties by key so that the order never jumps.
bool worseThan(const Finding &a, const Finding &b) {
    if (a.accepted() != b.accepted()) return b.accepted();
    if (a.severity != b.severity) return a.severity < b.severity;
    if (a.margin != b.margin) return a.margin < b.margin;
    return a.key() < b.key();
}

} // namespace

std::vector<BodyGap> nearestThings(const Derived &derived, int owner, int loadCase, double reach_mm, std::size_t most) {
    if (!derived.world) return {};
    const auto &fastened = derived.owners[owner].related;
    const int stack = derived.owners[owner].stack; // its own column is looked at in Stack
    return derived.world->nearest(owner, reach_mm, most, [&](int body) {
        const int other = derived.traits[body].owner;
        if (stack >= 0 && derived.owners[other].stack == stack) return false;
        return derived.owners[other].kind != OwnerKind::disc && (derived.owners[other].cases >> loadCase & 1) &&
               !derived.traits[body].soft && std::find(fastened.begin(), fastened.end(), other) == fastened.end();
    });
}

const Finding *Analysis::closestCall() const {
    const Finding *closest = nullptr;
    auto look = [&](const std::vector<Finding> &list) {
        for (const auto &f : list)
            if (f.measured && f.unit == "mm" && ruleOf(f.rule).stage != Stage::kit &&
                ruleOf(f.rule).stage != Stage::radio &&
                (ruleOf(f.rule).stage != Stage::wire || f.rule == RuleId::wirZone) && !f.accepted() &&
                !(f.rule == RuleId::fitBattery && f.variant == "slide") && // a range, no gap
                (!closest || f.margin < closest->margin))
                closest = &f;
    };
    look(findings);
    look(passes);
    return closest;
}

struct Analyser::State {
    std::optional<Build> build;
    BodyTable table; ///< its bodies have moved into `world`
    std::shared_ptr<ClearanceWorld> world;
    RouteKeeper routes;
    bool hurry = false, settle = false; ///< wires are led in a hurry; were, and want leading once more
    std::size_t routeBudget = RouteKeeper::kWithoutBudget;
    std::shared_ptr<const LedWires> led; ///< by another analyser, to be taken over
    std::size_t wireRows = 0;            ///< mass rows of wires stand last: from here on
    std::vector<int> fasteningRow;       ///< by part: index of its fastening's mass row; -1 for none
    Analysis analysis;

    void remakeWorld(const Build &next) {
        table = bodyTableOf(next, analysis.derived.loadCases, analysis.practice);
        const Practice practice = analysis.practice;
        // Shapes that did not change are taken over from the former one, unless a copy of the analysis holds it.
        if (!world || isShared()) world = std::make_shared<ClearanceWorld>();
        world->reset(std::move(table.bodies), [this, practice](int a, int b) {
            return interestIn(demandsOf(table.owners, table.traits[a], table.traits[b]), practice);
        });
        analysis.derived.owners = table.owners;
        analysis.derived.traits = table.traits;
        analysis.derived.world = world;
    }

    /// Beside this state and its own analysis, whose copies stay as they were.
    bool isShared() const { return world.use_count() > 2; }

    void remakeMassRows(const Build &next) {
        auto &derived = analysis.derived;
        derived.massRows.clear();
        const StackSeats seats = stackSeats(next);
        for (std::size_t i = 0; i < next.parts.size(); ++i)
            derived.massRows.push_back(massRowOf(next, next.parts[i], analysis.practice,
                                                 casesAboard(next.parts[i], derived.loadCases), seats[i]));
        const auto structure = structureMassRows(next, analysis.practice, ~CaseMask(0));
        derived.massRows.insert(derived.massRows.end(), structure.begin(), structure.end());
        fasteningRow.assign(next.parts.size(), -1);
        for (std::size_t i = 0; i < next.parts.size(); ++i)
            if (auto row = fasteningRowOf(next, next.parts[i], analysis.practice, derived.massRows[i])) {
                fasteningRow[i] = int(derived.massRows.size());
                derived.massRows.push_back(std::move(*row));
            }
        wireRows = derived.massRows.size();
    }

    /// Routes, lengths and links; what wires weigh goes behind the other mass rows.
    void leadWires(const Build &next) {
        auto &derived = analysis.derived;
        if (led && led->build == next && led->practice == analysis.practice) routes = led->keeper;
        led.reset();
        routes.setHurry(hurry);
        routes.setBudget(routeBudget);
        derived.routes = routes.update(next, analysis.practice, world->bodies(), derived.owners, derived.traits);
        derived.wiresPutOff = routes.putOff();
        derived.wiring = wiringReport(next, analysis.practice, derived.routes, derived.owners);
        derived.links = linkReport(next);
        derived.massRows.resize(wireRows);
        for (std::size_t w = 0; w < next.wires.size(); ++w)
            if (MassRow row =
                    massRowOf(next, next.wires[w], derived.wiring.wires[w], analysis.practice, derived.loadCases);
                row.known)
                derived.massRows.push_back(std::move(row));
    }

    void feed(const Build &next) {
        auto &derived = analysis.derived;
        std::vector<double> cuts;
        for (const auto &wire : derived.wiring.wires) cuts.push_back(wire.cut_mm);
        derived.power = powerReport(next, analysis.practice, derived.loadCases, derived.balance, cuts);
    }

    void judge(const Build &next) {
        std::vector<Finding> outcomes;
        for (const auto &rule : ruleBook()) rule.judge(next, analysis.practice, analysis.derived, outcomes);
        analysis.findings.clear();
        analysis.passes.clear();
        for (auto &outcome : outcomes) {
            if (outcome.severity == Severity::pass) {
                analysis.passes.push_back(std::move(outcome));
                continue;
            }
            const auto key = next.acceptances.empty() ? std::string() : outcome.key();
            for (const auto &acceptance : next.acceptances)
                if (acceptance.finding == key) outcome.acceptedReason = acceptance.reason;
            analysis.findings.push_back(std::move(outcome));
        }
        std::sort(analysis.findings.begin(), analysis.findings.end(), worseThan);
        std::sort(analysis.passes.begin(), analysis.passes.end(), worseThan);
        analysis.counts = countFindings(analysis.findings);
    }
};

namespace {

/// Whether the two builds differ in nothing that decides which bodies and mass rows there are.
bool sameStructure(const Build &a, const Build &b) {
    return a.frame == b.frame && a.types == b.types && a.loadCases == b.loadCases && a.allowances == b.allowances &&
           a.kit == b.kit && a.stacks == b.stacks && a.parts.size() == b.parts.size();
}

/// The part differs at most in where it stands or what it weighs, on the same mounting site.
bool onlyMovedOrWeighed(const Part &a, const Part &b) {
    return a.id == b.id && a.type == b.type && a.optional == b.optional && a.fastening == b.fastening &&
           a.placement.site == b.placement.site;
}

/// Other parts stand on it: where it goes, they go.
bool carriesAStack(const Build &build, const Part &part) {
    return std::any_of(build.stacks.begin(), build.stacks.end(), [&](const Stack &s) { return s.on == part.id; });
}

/// Whether a survey of one build holds for the other: nothing moved, came or went.
bool sameToTheEye(const Build &a, const Build &b) {
    return a.radioSettings == b.radioSettings && a.wires == b.wires && a.frame == b.frame && a.types == b.types &&
           a.loadCases == b.loadCases && a.stacks == b.stacks &&
           std::equal(a.parts.begin(), a.parts.end(), b.parts.begin(), b.parts.end(), [](const Part &x, const Part &y) {
               return x.id == y.id && x.type == y.type && x.placement == y.placement && x.optional == y.optional &&
                      x.fastening == y.fastening && x.slide == y.slide;
           });
}

} // namespace

Analyser::Analyser() : state_(std::make_unique<State>()) {}
Analyser::~Analyser() = default;
Analyser::Analyser(Analyser &&) noexcept = default;
Analyser &Analyser::operator=(Analyser &&) noexcept = default;

const Analysis &Analyser::current() const { return state_->analysis; }

void Analyser::setHurry(bool hurry) {
    state_->settle |= state_->hurry && !hurry;
    state_->hurry = hurry;
}

void Analyser::setRouteBudget(std::size_t visits) { state_->routeBudget = visits; }

void Analyser::setRouteStop(const std::atomic<bool> *stop) { state_->routes.setStop(stop); }

std::shared_ptr<const LedWires> Analyser::ledWires() const {
    if (!state_->build) return nullptr;
    auto led = std::make_shared<LedWires>(LedWires{*state_->build, state_->analysis.practice, state_->routes});
    led->keeper.setStop(nullptr);
    return led;
}

void Analyser::setLedWires(std::shared_ptr<const LedWires> led) {
    state_->led = std::move(led);
    state_->settle = true;
}

void Analyser::setSurvey(std::shared_ptr<const Survey> survey) { state_->analysis.derived.survey = std::move(survey); }

const Analysis &Analyser::update(const Build &build, const std::optional<Practice> &given) {
    State &state = *state_;
    auto &derived = state.analysis.derived;
    const Practice practice = given.value_or(practiceOf(build.practice));

    bool incremental = state.build && practice == state.analysis.practice && sameStructure(*state.build, build);
    std::vector<std::size_t> changed;
    std::set<std::string> stacked; // in which something moved or was weighed
    for (std::size_t i = 0; incremental && i < build.parts.size(); ++i) {
        if (state.build->parts[i] == build.parts[i]) continue;
        changed.push_back(i);
        incremental =
            onlyMovedOrWeighed(state.build->parts[i], build.parts[i]) && !carriesAStack(build, build.parts[i]);
        if (const auto place = stackPlaceOf(build, build.parts[i])) stacked.insert(place->stack->id);
    }
    state.analysis.practice = practice;
    if (incremental) {
        if (state.isShared()) state.remakeWorld(*state.build);
        bool otherPieces = false, motorMoved = false;
        for (std::size_t i : changed) {
            const Part &part = build.parts[i];
            if (!(state.build->parts[i].placement == part.placement))
                state.world->move(int(i), bodyPosesOf(build, part));
            derived.massRows[i] = massRowOf(build, part, practice, casesAboard(part, derived.loadCases));
            auto fastening = fasteningRowOf(build, part, practice, derived.massRows[i]);
            otherPieces |= fastening.has_value() != (state.fasteningRow[i] >= 0);
            if (fastening && !otherPieces) derived.massRows[std::size_t(state.fasteningRow[i])] = std::move(*fastening);
            const PartType *type = typeOf(build, part);
            motorMoved |= type && type->kind == PartKind::motor;
        }
        if (otherPieces) state.remakeMassRows(build);
        if (motorMoved) { // its screws go through what it stands on now
            derived.motorScrews = motorScrewsOf(build, practice);
            derived.kit = kitLines(build, practice);
        }
    } else {
        derived.loadCases = effectiveLoadCases(build);
        derived.thrustCentre_mm = thrustCentre_mm(*build.frame);
        derived.cgTolerance_mm = cgTolerance_mm(*build.frame, practice);
        state.remakeWorld(build);
        state.remakeMassRows(build);
        derived.kit = kitLines(build, practice);
    }
    if (!incremental) derived.stacks = stackReports(build, practice);
    for (auto &report : derived.stacks)
        if (incremental && stacked.contains(report.stack))
            if (const Stack *stack = findStack(build, report.stack))
                if (auto again = reportOn(build, *stack, practice)) report = std::move(*again);
    if (!incremental) derived.motorScrews = motorScrewsOf(build, practice);
    const bool wired = state.settle || !incremental || !changed.empty() || state.build->wires != build.wires ||
                       state.build->ties != build.ties;
    if (wired) state.leadWires(build);
    state.settle = false;
    if (wired) {
        derived.balance.clear();
        for (std::size_t i = 0; i < derived.loadCases.size() && i < kMostLoadCases; ++i)
            derived.balance.push_back(caseBalance(build, derived.massRows, derived.loadCases, i,
                                                  derived.thrustCentre_mm, derived.cgTolerance_mm));
        state.feed(build);
    }
    derived.reconciled = reconcile(build, derived.massRows, derived.loadCases, practice);
    derived.surveyStale =
        derived.survey && !(derived.survey->practice == practice && sameToTheEye(derived.survey->build, build));
    derived.radio = radioReport(build, practice, derived);
    state.judge(build);
    state.build = build;
    return state.analysis;
}

} // namespace waxis
