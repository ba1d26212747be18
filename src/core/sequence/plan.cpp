#include "core/sequence/plan.h"

#include "core/sequence/schedule.h"
#include "core/sequence/service_depth.h"

#include <algorithm>
#include <map>

namespace waxis {

namespace {

bool isScrewed(const Operation &op) { return op.tool == Tool::driver; }

/// Whether an operation goes on with the step before it.
bool goesOn(const Operation &last, const Operation &next, const std::vector<std::string> &soFar) {
    constexpr double kSame = 0.999;
    if (last.kind != next.kind || last.sort != next.sort || last.sort.empty() || last.base || next.base ||
        last.inHand != next.inHand || last.place != next.place || isScrewed(last) != isScrewed(next) ||
        last.kind == OperationKind::check || last.kind == OperationKind::own || last.kind == OperationKind::change ||
        last.loose != next.loose)
        return false;
    if (last.kind != OperationKind::fit) return true;
    if (last.from.dot(next.from) < kSame || !last.stuckBehind.empty() || !next.stuckBehind.empty()) return false;
    return std::none_of(soFar.begin(), soFar.end(), [&](const std::string &id) {
        return std::find(next.onto.begin(), next.onto.end(), id) != next.onto.end();
    });
}

void addUnique(std::vector<std::string> &list, const std::vector<std::string> &more) {
    for (const auto &id : more)
        if (std::find(list.begin(), list.end(), id) == list.end()) list.push_back(id);
}

void addPiece(Step &step, const Hardware &piece) {
    const auto at = std::find_if(step.takes.begin(), step.takes.end(),
                                 [&](const Hardware &known) { return known.item == piece.item; });
    if (at == step.takes.end())
        step.takes.push_back(piece);
    else
        at->pieces += piece.pieces;
}

void addPieces(const Build &build, const Practice &practice, const std::vector<FramePiece> &ofFrame, Step &step) {
    if (step.kind != OperationKind::fit) return;
    for (const auto &id : step.things) {
        if (const Part *part = findPart(build, id))
            for (const auto &piece : holdingOf(build, *part, practice).pieces) addPiece(step, piece);
        for (const auto &piece : ofFrame)
            if (piece.member == id) addPiece(step, piece.piece);
    }
}

} // namespace

AssemblyPlan planAssembly(const Build &build, const Practice &practice, const Derived &derived, int loadCase,
                          SweepMemory *memory) {
    AssemblyPlan plan;
    plan.loadCase = (*derived.loadCases)[std::size_t(loadCase)].id;
    if (!derived.scene.world) return plan;
    std::unique_lock<std::mutex> inUse;
    if (memory) {
        inUse = std::unique_lock(memory->inUse);
        memory->trim();
    }
    BlockingGraph graph(build, derived.scene, practice, loadCase, memory);
    if (graph.things().empty()) return plan;
    const PutTogether together = putTogether(graph);
    const OperationGraph all = operationsOf(build, practice, derived, graph, together, loadCase);
    Preferences preferences;
    preferences.armsFirst = practice.follows("build-start", "arms");
    for (const auto &tick : build.stepsDone) preferences.ticked.insert(tick.step);
    std::vector<std::size_t> stepOf(all.operations.size(), 0);
    const Operation *last = nullptr;
    int side = 1;
    bool flown = false;
    for (const std::size_t index : schedule(all, preferences)) {
        const Operation &op = all.operations[index];
        if (!last || !goesOn(*last, op, plan.steps.back().things)) {
            Step step;
            step.id = op.id;
            step.kind = op.kind;
            step.gate = op.gate;
            step.tool = op.tool;
            step.side = op.side;
            step.place = op.place;
            step.from = op.from;
            step.base = op.base;
            step.asOne = op.things.size() > 1 && op.kind == OperationKind::fit;
            step.inHand = op.inHand;
            step.loose = op.loose;
            step.loadCase = op.loadCase;
            step.hasFlown = flown;
            plan.steps.push_back(std::move(step));
        }
        last = &op;
        flown |= op.gate == Gate::flight;
        Step &step = plan.steps.back();
        stepOf[index] = plan.steps.size() - 1;
        step.does.push_back({op.id, {}, op.contents});
        step.things.insert(step.things.end(), op.things.begin(), op.things.end());
        addUnique(step.onto, op.onto);
        addUnique(step.off, op.off);
        addUnique(step.beside, op.beside);
        step.joints.insert(step.joints.end(), op.joints.begin(), op.joints.end());
        addUnique(step.stuckBehind, op.stuckBehind);
        addUnique(step.undriven, op.undriven);
        step.minutes += op.minutes;
        if (op.side != 0 && op.side != side) {
            side = op.side;
            ++plan.turns;
        }
    }
    const auto ofFrame = frameHardware(build, practice);
    const bool late = practice.follows("twisting", "after");
    for (Step &step : plan.steps) {
        step.twisting = step.kind == (late ? OperationKind::solder : OperationKind::prepare);
        addPieces(build, practice, ofFrame, step);
        plan.minutes += step.minutes;
    }
    std::map<std::pair<std::size_t, std::size_t>, StepBefore> reasons;
    for (const auto &order : all.order) {
        const std::size_t first = stepOf[order.first], second = stepOf[order.second];
        if (first == second) continue;
        const StepBefore before{first, second, order.reason, order.thing, order.other};
        const auto [at, isNew] = reasons.try_emplace({first, second}, before);
        if (!isNew && order.reason < at->second.reason) at->second = before;
    }
    for (const auto &[pair, reason] : reasons) plan.reasons.push_back(reason);
    plan.remarks = all.remarks;
    addServiceRemarks(build, practice, graph, plan.remarks);
    return plan;
}

int fullestCase(const Build &build, const std::vector<LoadCase> &loadCases) {
    int best = 0;
    auto worth = [&](int c) {
        const LoadCase &loadCase = loadCases[std::size_t(c)];
        const auto aboard = std::count_if(build.parts.begin(), build.parts.end(),
                                          [&](const Part &part) { return isAboard(part, loadCase); });
        return std::pair(loadCase.flies(), aboard);
    };
    for (int c = 1; c < int(loadCases.size()); ++c)
        if (worth(c) > worth(best)) best = c;
    return best;
}

StepState stateOf(const Build &build, const Step &step) {
    std::size_t done = 0, same = 0;
    for (const auto &does : step.does)
        for (const auto &tick : build.stepsDone)
            if (tick.step == does.step) {
                ++done;
                same += tick.contents == does.contents;
            }
    if (done == 0) return StepState::open;
    if (same < done) return StepState::again;
    return done < step.does.size() ? StepState::partly : StepState::done;
}

} // namespace waxis
