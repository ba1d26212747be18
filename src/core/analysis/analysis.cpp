#include "core/analysis/analysis.h"

#include "core/analysis/build_changes.h"
#include "core/analysis/judging.h"
#include "core/analysis/led_wires.h"
#include "core/analysis/recipe.h"
#include "core/balance/case_balance.h"
#include "core/balance/mass_rows.h"
#include "core/balance/reconcile.h"
#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/kit/kit.h"
#include "core/links/link_report.h"
#include "core/measured/log_report.h"
#include "core/power/power_report.h"
#include "core/practice/practice.h"
#include "core/radio/radio_report.h"
#include "core/rules/rule.h"
#include "core/scene/body_table.h"
#include "core/stack/motor_screws.h"
#include "core/stack/report.h"
#include "core/survey/survey.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace waxis {

/// Of all lengths that findings measure those between two things that could meet: no levers, no reach of a magnet, no
/// way that a pack may slide.
static bool tellsAGap(const Finding &f) {
    const Stage stage = ruleOf(f.rule).stage;
    if (f.rule == RuleId::wirZone) return true;
    if (stage != Stage::frame && stage != Stage::place && stage != Stage::stack) return false;
    const bool magnetic = f.rule == RuleId::navMagnet || f.rule == RuleId::navIron;
    return !magnetic && !(f.rule == RuleId::fitBattery && f.variant == "slide");
}

const Finding *Analysis::closestCall() const {
    const Finding *closest = nullptr;
    auto look = [&](const std::vector<Finding> &list) {
        for (const auto &f : list)
            if (f.measured && f.unit == "mm" && tellsAGap(f) && !f.accepted() &&
                (!closest || f.margin < closest->margin))
                closest = &f;
    };
    look(findings);
    look(passes);
    return closest;
}

/// Numbers that go up when something that has no version of its own becomes another one.
struct Versions {
    std::uint64_t rest = 0, structure = 0, copper = 0, frame = 0, places = 0, radio = 0, weighings = 0,
                  log = 0; // of the build
    std::uint64_t world = 0, survey = 0, shadows = 0;
};

struct Analyser::State {
    std::optional<Build> build;
    ClearanceWorld *world = nullptr; ///< that of the analysis, to be moved in
    Practice practiceOfWorld;        ///< that its pairs are measured for
    RouteKeeper routes;
    bool hurry = false, settle = false; ///< wires are stretched; were, and want leading once more
    std::size_t routeBudget = RouteKeeper::kWithoutBudget;
    std::shared_ptr<const LedWires> led;  ///< by another analyser, to be taken over
    std::shared_ptr<const Survey> survey; ///< the last that was handed in
    bool otherSurvey = false;             ///< since the last update
    std::size_t wireRows = 0;             ///< mass rows of wires stand last: from here on
    std::vector<int> fasteningRow;        ///< by part: index of its fastening's mass row; -1 for none
    Analysis analysis;

    Versions versions;
    Recipe<2> linksOf, balanceOf;
    SharedValue<std::vector<WireRoute>> wiredRoutes; ///< that the wiring report was made of
    Recipe<3> copperOf, wiringOf, reconciledOf, wireRowsOf;
    Recipe<4> powerOf;
    Recipe<8> radioOf, logOf;
    Judging judging;

    void remakeWorld(const Build &next) {
        auto &scene = analysis.derived.scene;
        BodyTable table = bodyTableOf(next, analysis.derived.loadCases, analysis.practice);
        const bool alone = scene.world && !isShared();
        const bool sameBodies = alone && practiceOfWorld == analysis.practice && *scene.traits == table.traits &&
                                scene.owners.size() == table.owners.size();
        std::vector<bool> anew(table.owners.size(), false); // owners that are asked for something else
        for (std::size_t o = 0; sameBodies && o < anew.size(); ++o) anew[o] = !(scene.owners[o] == table.owners[o]);
        ++versions.world;
        practiceOfWorld = analysis.practice;
        if (!(*scene.owners == table.owners)) scene.owners = std::move(table.owners);
        if (!(*scene.traits == table.traits)) scene.traits = std::move(table.traits);
        const auto interest = [owners = scene.owners, traits = scene.traits, practice = analysis.practice](int a,
                                                                                                           int b) {
            return interestIn(demandsOf(owners, traits[std::size_t(a)], traits[std::size_t(b)]), practice);
        };
        if (sameBodies) return world->renew(std::move(table.bodies), interest, anew);
        // Shapes that did not change are taken over from the former one, unless a copy of the analysis holds it.
        auto made = alone ? std::const_pointer_cast<ClearanceWorld>(scene.world) : std::make_shared<ClearanceWorld>();
        world = made.get();
        made->reset(std::move(table.bodies), interest);
        scene.world = std::move(made);
    }

    /// Beside the own analysis, whose copies stay as they were.
    bool isShared() const { return analysis.derived.scene.world.use_count() > 1; }

    /// What is counted, weighed and stacked, all of it anew.
    void remake(const Build &next) {
        auto &derived = analysis.derived;
        derived.loadCases = effectiveLoadCases(next);
        derived.thrustCentre_mm = thrustCentre_mm(*next.frame);
        derived.cgTolerance_mm = cgTolerance_mm(*next.frame, analysis.practice);
        remakeWorld(next);
        remakeMassRows(next);
        derived.kit = kitLines(next, analysis.practice);
        derived.stacks = stackReports(next, analysis.practice);
        derived.motorScrews = motorScrewsOf(next, analysis.practice);
    }

    /// Only what those parts change that were moved or weighed.
    void adjust(const Build &next, const BuildChanges &changes) {
        auto &derived = analysis.derived;
        if (!changes.moved.empty()) {
            if (isShared()) remakeWorld(*build);
            for (const std::size_t i : changes.moved) world->move(int(i), bodyPosesOf(next, next.parts[i]));
            ++versions.world;
        }
        bool otherPieces = false, motor = false;
        derived.massRows.edit([&](std::vector<MassRow> &rows) {
            for (const std::size_t i : changes.changed) {
                const Part &part = next.parts[i];
                rows[i] = massRowOf(next, part, analysis.practice, casesAboard(part, derived.loadCases));
                auto fastening = fasteningRowOf(next, part, analysis.practice, rows[i]);
                otherPieces |= fastening.has_value() != (fasteningRow[i] >= 0);
                if (fastening && !otherPieces) rows[std::size_t(fasteningRow[i])] = std::move(*fastening);
                const PartType *type = typeOf(next, part);
                motor |= type && type->kind == PartKind::motor;
            }
        });
        if (otherPieces) remakeMassRows(next);
        if (motor) { // its screws go through what it stands on now
            derived.motorScrews = motorScrewsOf(next, analysis.practice);
            derived.kit = kitLines(next, analysis.practice);
        }
        if (changes.stacks.empty()) return;
        derived.stacks.edit([&](std::vector<StackReport> &stacks) {
            for (auto &report : stacks)
                if (changes.stacks.contains(report.stack))
                    if (const Stack *stack = findStack(next, report.stack))
                        if (auto again = reportOn(next, *stack, analysis.practice)) report = std::move(*again);
        });
    }

    void remakeMassRows(const Build &next) {
        auto &derived = analysis.derived;
        std::vector<MassRow> rows;
        const StackSeats seats = stackSeats(next);
        for (std::size_t i = 0; i < next.parts.size(); ++i)
            rows.push_back(massRowOf(next, next.parts[i], analysis.practice,
                                     casesAboard(next.parts[i], derived.loadCases), seats[i]));
        const auto structure = structureMassRows(next, analysis.practice, ~CaseMask(0));
        rows.insert(rows.end(), structure.begin(), structure.end());
        fasteningRow.assign(next.parts.size(), -1);
        for (std::size_t i = 0; i < next.parts.size(); ++i)
            if (auto row = fasteningRowOf(next, next.parts[i], analysis.practice, rows[i])) {
                fasteningRow[i] = int(rows.size());
                rows.push_back(std::move(*row));
            }
        wireRows = rows.size();
        derived.massRows = std::move(rows);
        wireRowsOf = {};
    }

    void leadWires(const Build &next, const BuildChanges &changes) {
        auto &derived = analysis.derived;
        const bool taken = led && led->build == next && led->practice == analysis.practice;
        if (taken) routes = led->keeper;
        led.reset();
        const bool asked = std::exchange(settle, false);
        if (!asked && !taken && !changes.structure && !changes.wires && changes.moved.empty()) return;
        if (hurry && !taken && !changes.wires && routes.canStretch(next)) {
            std::set<std::string> moved;
            for (const std::size_t i : changes.moved) moved.insert(next.parts[i].id);
            keep(derived.routes, routes.stretch(next, changes.structure ? nullptr : &moved));
            return;
        }
        routes.setBudget(routeBudget);
        keep(derived.routes,
             routes.update(next, analysis.practice, world->bodies(), derived.scene.owners, derived.scene.traits));
        derived.wiresPutOff = routes.putOff();
    }

    /// A result that came out as before keeps its version.
    template <class T>
    static void keep(SharedValue<T> &result, const T &made) {
        if (!(*result == made)) result = made;
    }

    /// What wires weigh goes behind the other mass rows.
    void weighWires(const Build &next) {
        auto &derived = analysis.derived;
        derived.massRows.edit([&](std::vector<MassRow> &rows) {
            rows.resize(wireRows);
            for (std::size_t w = 0; w < next.wires.size(); ++w)
                if (MassRow row =
                        massRowOf(next, next.wires[w], derived.wiring->wires[w], analysis.practice, derived.loadCases);
                    row.known)
                    rows.push_back(std::move(row));
        });
    }

    std::vector<CaseBalance> balances(const Build &next) const {
        const auto &derived = analysis.derived;
        std::vector<CaseBalance> balance;
        for (std::size_t i = 0; i < derived.loadCases.size() && i < kMostLoadCases; ++i)
            balance.push_back(caseBalance(next, derived.massRows, derived.loadCases, i, derived.thrustCentre_mm,
                                          derived.cgTolerance_mm));
        return balance;
    }

    /// `nets`: where the copper is as before; else null.
    PowerReport power(const Build &next, const PowerNets *nets) const {
        const auto &derived = analysis.derived;
        std::vector<double> cuts;
        for (const auto &wire : derived.wiring->wires) cuts.push_back(wire.cut_mm);
        return powerReport(next, analysis.practice, derived.loadCases, derived.balance, cuts, nets);
    }

    RadioReport radio(const Build &next) const {
        static const std::vector<LineShadow> kNone;
        const auto &derived = analysis.derived;
        return radioReport(next, analysis.practice,
                           {derived.loadCases, derived.scene, derived.routes, *derived.wiring, *derived.power,
                            derived.survey ? derived.survey->shadows : kNone});
    }

    /// Every report that is made of others, in the order in which they are.
    void makeReports(const Build &next) {
        auto &d = analysis.derived;
        const Versions &v = versions;
        const bool otherCopper = copperOf.changed({v.copper, v.frame, d.scene.owners.version()});
        if (wiringOf.changed({v.copper, v.structure, d.routes.version()})) {
            const WiringBefore before{*d.wiring, *wiredRoutes};
            d.wiring = wiringReport(next, analysis.practice, d.routes, d.scene.owners, otherCopper ? nullptr : &before);
            wiredRoutes = d.routes;
        }
        if (linksOf.changed({v.copper, v.frame})) d.links = linkReport(next);
        if (wireRowsOf.changed({v.structure, v.copper, d.wiring.version()})) weighWires(next);
        if (balanceOf.changed({v.structure, d.massRows.version()})) d.balance = balances(next);
        if (powerOf.changed({v.structure, v.copper, d.balance.version(), d.wiring.version()}))
            d.power = power(next, otherCopper ? nullptr : &d.power->nets);
        if (reconciledOf.changed({v.structure, v.weighings, d.massRows.version()}))
            d.reconciled = reconcile(next, d.massRows, d.loadCases, analysis.practice);
        if (radioOf.changed({v.structure + v.radio, v.copper, v.places, v.world, v.shadows, d.routes.version(),
                             d.wiring.version(), d.power.version()}))
            d.radio = radio(next);
        if (logOf.changed({v.log, v.structure + v.weighings, v.copper, d.massRows.version(), d.balance.version(),
                           d.power.version(), d.wiring.version(), d.radio.version()}))
            d.log = logReport(next, analysis.practice,
                              {d.loadCases, d.massRows, d.kit, d.balance, *d.power, *d.wiring, *d.radio});
    }

    void lookForSurvey(const Build &next, const BuildChanges &changes) {
        auto &derived = analysis.derived;
        const bool other = std::exchange(otherSurvey, false) && derived.survey != survey;
        if (!other && !changes.any()) return;
        if (other) {
            const auto before = std::exchange(derived.survey, survey);
            versions.shadows +=
                !(before ? survey && before->shadows == survey->shadows : !survey || survey->shadows.empty());
        }
        const bool stale = derived.survey && !(derived.survey->practice == analysis.practice &&
                                               sameToTheEye(derived.survey->build, next));
        versions.survey += other || stale != derived.surveyStale;
        derived.surveyStale = stale;
    }

    void judge(const Build &next) {
        if (judging.update(next, analysis.practice, analysis.derived, judgedBy(), analysis.findings, analysis.passes))
            analysis.counts = countFindings(analysis.findings);
    }

    JudgedBy judgedBy() const {
        const auto &d = analysis.derived;
        JudgedBy by;
        by.rest = versions.rest;
        const auto set = [&](Need need, std::uint64_t version) { by.needs[std::size_t(need)] = version; };
        set(Need::places, versions.places);
        set(Need::owners, d.scene.owners.version());
        set(Need::gaps, versions.world);
        set(Need::massRows, d.massRows.version());
        set(Need::balance, d.balance.version());
        set(Need::reconciled, d.reconciled.version());
        set(Need::kit, d.kit.version());
        set(Need::stacks, d.stacks.version());
        set(Need::motorScrews, d.motorScrews.version());
        set(Need::routes, d.routes.version());
        set(Need::wiring, d.wiring.version());
        set(Need::power, d.power.version());
        set(Need::links, d.links.version());
        set(Need::radio, d.radio.version());
        set(Need::log, d.log.version());
        set(Need::survey, versions.survey);
        return by;
    }
};

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

void Analyser::setSurvey(std::shared_ptr<const Survey> survey) {
    state_->otherSurvey = true;
    state_->survey = std::move(survey);
}

const Analysis &Analyser::update(const Build &build, const std::optional<Practice> &given) {
    State &state = *state_;
    Practice practice = given.value_or(practiceOf(build.practice));
    const bool known = state.build && practice == state.analysis.practice;
    const BuildChanges changes = known ? changesBetween(*state.build, build) : BuildChanges{};
    if (!changes.any() && !state.settle && !state.otherSurvey && !state.led) return state.analysis;
    state.analysis.practice = std::move(practice);
    Versions &versions = state.versions;
    versions.rest += changes.rest;
    versions.structure += changes.structure;
    versions.places += changes.structure || !changes.moved.empty();
    versions.copper += changes.copper || changes.wires;
    versions.frame += changes.frame;
    versions.radio += changes.radio;
    versions.weighings += changes.weighings;
    versions.log += changes.log;
    if (changes.structure)
        state.remake(build);
    else if (!changes.changed.empty())
        state.adjust(build, changes);
    state.leadWires(build, changes);
    state.lookForSurvey(build, changes);
    state.makeReports(build);
    state.judge(build);
    if (changes.any()) state.build = build;
    return state.analysis;
}

const Analysis &analyseFully(Analyser &analyser, const Build &build, const std::optional<Practice> &practice) {
    const Analysis &quick = analyser.update(build, practice);
    analyser.setSurvey(std::make_shared<const Survey>(surveyOf(build, quick.practice, quick.derived)));
    return analyser.update(build, practice);
}

} // namespace waxis
