#include "app/stages/build/plan_source.h"

#include <algorithm>

namespace waxis::assembly {

namespace {
constexpr int kRest_ms = 150;
}

PlanSource::PlanSource(app::Document &document, QObject *parent)
    : QObject(parent), document_(document), memory_(std::make_shared<SweepMemory>()),
      working_(
          kRest_ms, [this] { return prepare(); },
          [this](AssemblyPlan plan) {
              plan_ = std::move(plan);
              stale_ = false;
              emit changed();
          }) {
    connect(&document_, &app::Document::changed, this, &PlanSource::follow);
    connect(&document_, &app::Document::loadCaseChanged, this, &PlanSource::follow);
    connect(&document_, &app::Document::opened, this, [this] {
        plan_ = {};
        case_ = -1;
        follow();
    });
}

void PlanSource::setWanted(bool wanted) {
    wanted_ = wanted;
    if (wanted) follow();
}

void PlanSource::follow() {
    if (!wanted_ || document_.isPreviewing()) return;
    Build now = document_.build();
    now.checkResults = of_.checkResults; // no step depends on what was measured
    if (case_ == document_.loadCase() && now == of_) {
        emit changed(); // a result was entered
        return;
    }
    stale_ = true;
    emit changed();
    working_.ask();
}

app::Background<AssemblyPlan>::Work PlanSource::prepare() {
    of_ = document_.build();
    case_ = document_.loadCase();
    const auto &analysis = document_.analysis();
    if (!analysis.derived.scene.world || std::size_t(case_) >= analysis.derived.loadCases->size()) {
        plan_ = {};
        stale_ = false;
        emit changed();
        return {};
    }
    return [build = of_, memory = memory_, practice = analysis.practice, derived = analysis.derived, loadCase = case_](
               const std::atomic<bool> &) { return planAssembly(build, practice, derived, loadCase, memory.get()); };
}

int PlanSource::stepOf(const std::string &id) const {
    for (std::size_t i = 0; i < plan_.steps.size(); ++i) {
        const Step &step = plan_.steps[i];
        const bool thing = std::find(step.things.begin(), step.things.end(), id) != step.things.end();
        const bool does =
            std::any_of(step.does.begin(), step.does.end(), [&](const StepTick &tick) { return tick.step == id; });
        const bool wire = std::any_of(step.joints.begin(), step.joints.end(),
                                      [&](const JointEnd &joint) { return joint.wire == id && !joint.part.empty(); });
        if (thing || does || wire) return int(i);
    }
    return -1;
}

} // namespace waxis::assembly
