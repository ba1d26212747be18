// Small crafts whose order of building is known.
#pragma once

#include "core/analysis/analysis.h"
#include "core/sequence/plan.h"
#include "support/builds.h"
#include "support/wires.h"

namespace waxis::test {

inline Solid wall(Vec3 size_mm, Vec3 at_mm) {
    Solid solid = solidBox(size_mm);
    solid.X_PartSolid.position_mm = at_mm;
    return solid;
}

/// A part of several boxes.
inline Part &addShape(Build &build, const std::string &id, std::vector<Solid> solids, Vec3 at_mm,
                      std::vector<std::string> onto = {}) {
    Part &part = addBox(build, id, {1, 1, 1}, at_mm, 5);
    build.types.edit([&](TypeTable &types) { typeIn(types, id).solids = std::move(solids); });
    part.fastening.onto = std::move(onto);
    return part;
}

/// A screw of M2 with its head up, through what lies under it.
inline void addScrew(Build &build, const std::string &id, Vec3 at_mm, std::vector<std::string> through) {
    addShape(build, id, {wall({2, 2, 8}, {0, 0, -4}), wall({3.8, 3.8, 2}, {0, 0, 1})}, at_mm, std::move(through));
    build.types.edit([&](TypeTable &types) {
        typeIn(types, id).kind = PartKind::fastener;
        typeIn(types, id).fastener = FastenerData{FastenerForm::screw, "M2", 8, HeadStyle::cap};
    });
}

/// A build with its plan.
struct Planned {
    Build build;
    AssemblyPlan plan;
    Planned(Build of) : build(std::move(of)) { // NOLINT
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        plan =
            planAssembly(build, analysis.practice, analysis.derived, fullestCase(build, *analysis.derived.loadCases));
    }
    /// Step that does this; -1: none.
    int at(const std::string &operation) const {
        for (std::size_t i = 0; i < plan.steps.size(); ++i)
            for (const auto &does : plan.steps[i].does)
                if (does.step == operation) return int(i);
        return -1;
    }
    const Step &step(const std::string &operation) const { return plan.steps[std::size_t(at(operation))]; }
    std::vector<PlanRemark> remarks(RemarkKind kind) const {
        std::vector<PlanRemark> found;
        for (const auto &remark : plan.remarks)
            if (remark.kind == kind) found.push_back(remark);
        return found;
    }
};

/// A plate 80 mm square and 4 mm thick, its upper face at 4 mm.
inline Build onABase() {
    Build build = bareQuad(500);
    addShape(build, "base", {wall({80, 80, 4}, {0, 0, 2})}, {0, 0, 0});
    return build;
}

/// A board 20 mm square and 2 mm thick that lies on something.
inline void addBoardOn(Build &build, const std::string &id, Vec3 at_mm, const std::string &on, std::vector<Port> ports,
                       FasteningMethod method = FasteningMethod::none) {
    addShape(build, id, {wall({20, 20, 2}, {0, 0, 1})}, at_mm, {on}).fastening.method = method;
    build.types.edit([&](TypeTable &types) { typeIn(types, id).ports = std::move(ports); });
}

/// Whether all of these operations are there, one after the other.
inline bool isInThisOrder(const Planned &planned, const std::vector<std::string> &wanted) {
    int last = -1;
    for (const auto &operation : wanted) {
        const int at = planned.at(operation);
        if (at <= last) {
            qInfo("%s is step %d, what it should follow %d", operation.c_str(), at, last);
            for (const auto &step : planned.plan.steps) qInfo("  %s", step.does.front().step.c_str());
            return false;
        }
        last = at;
    }
    return true;
}

} // namespace waxis::test
