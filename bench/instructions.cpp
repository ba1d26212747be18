// One update of each kind under valgrind's callgrind, which counts its instructions: bench/instructions runs it.
#include "core/analysis/analysis.h"
#include "core/edits/part_edits.h"
#include "core/edits/stack_edits.h"
#include "core/layout/relayout.h"
#include "core/survey/survey.h"
#include "io/project/project_file.h"
#include "synthetic_build.h"

#include <cstdio>
#include <cstring>
#include <functional>
#include <map>
#include <valgrind/callgrind.h>

using namespace waxis;

namespace {

Build demo() { return loadBuild(WEIGHTAXIS_BENCH_DATA "/demos/stakewalker.waxis")->build; }

void counted(const std::function<void()> &work) {
    CALLGRIND_START_INSTRUMENTATION;
    CALLGRIND_TOGGLE_COLLECT;
    work();
    CALLGRIND_TOGGLE_COLLECT;
    CALLGRIND_STOP_INSTRUMENTATION;
}

/// The third of three steps: what is made once and kept is there by then.
void step(const Build &before, const std::vector<Build> &steps, bool underTheMouse) {
    Analyser analyser;
    analyser.update(before);
    analyser.setHurry(true);
    for (std::size_t i = 0; i + 1 < steps.size(); ++i) analyser.update(steps[i]);
    if (underTheMouse) {
        counted([&] { analyser.update(steps.back()); });
        return;
    }
    analyser.update(steps.back());
    analyser.setHurry(false);
    counted([&] { analyser.update(steps.back()); });
}

void moved(const std::string &part, bool underTheMouse) {
    const Build build = demo();
    std::vector<Build> steps;
    for (const double by : {1.0, 2.0, 3.0}) steps.push_back(*shiftPart(build, part, {by, by / 2, 0}));
    step(build, steps, underTheMouse);
}

void layerDragged(bool underTheMouse) {
    const Build build = demo();
    std::vector<Build> steps;
    for (const int to : {1, 2, 1}) steps.push_back(*moveLayer(build, build.stacks[0].id, 3, to));
    step(build, steps, underTheMouse);
}

void armsPulled() {
    const Build build = demo();
    std::vector<Build> steps;
    for (const double by : {1.0, 2.0, 3.0}) steps.push_back(*extendArms(build, by));
    step(build, steps, true);
}

void nothingChanged() {
    const Build build = demo();
    Analyser analyser;
    analyser.update(build);
    counted([&] { analyser.update(build); });
}

void surveyHandedIn() {
    const Build build = demo();
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    const auto survey = std::make_shared<const Survey>(surveyOf(build, analysis.practice, analysis.derived));
    analyser.setSurvey(survey);
    counted([&] { analyser.update(build); });
}

void firstAnalysis() {
    const Build build = demo();
    counted([&] { Analyser().update(build); });
}

void oneOfAThousand() {
    const Build build = bench::syntheticBuild(1000);
    std::vector<Build> steps;
    for (const double by : {0.5, 1.0, 1.5}) steps.push_back(*shiftPart(build, build.parts[500].id, {by, 0, 0}));
    step(build, steps, true);
}

} // namespace

int main(int argc, char **argv) {
    const std::map<std::string, std::function<void()>> cases{
        {"nothing-changed", nothingChanged},
        {"gps-under-the-mouse", [] { moved("gps", true); }},
        {"pack-under-the-mouse", [] { moved("pack", true); }},
        {"controller-under-the-mouse", [] { moved("fc", true); }},
        {"layer-under-the-mouse", [] { layerDragged(true); }},
        {"arms-under-the-mouse", armsPulled},
        {"survey-handed-in", surveyHandedIn},
        {"first-analysis", firstAnalysis},
        {"gps-let-go", [] { moved("gps", false); }},
        {"controller-let-go", [] { moved("fc", false); }},
        {"layer-let-go", [] { layerDragged(false); }},
        {"one-of-a-thousand-under-the-mouse", oneOfAThousand},
    };
    if (argc == 2 && std::strcmp(argv[1], "--list") == 0) {
        for (const auto &[name, run] : cases) std::puts(name.c_str());
        return 0;
    }
    const auto at = argc == 2 ? cases.find(argv[1]) : cases.end();
    if (at == cases.end()) {
        std::fputs("one of the names that --list gives\n", stderr);
        return 2;
    }
    at->second();
}
