#include "core/analysis/analysis.h"
#include "core/balance/case_balance.h"
#include "core/clearance/clearance_world.h"
#include "core/coverage/coverage.h"
#include "core/edits/part_edits.h"
#include "core/edits/stack_edits.h"
#include "core/layout/relayout.h"
#include "core/practice/practice.h"
#include "core/radio/radio_report.h"
#include "core/rays/ray_world.h"
#include "core/recognise/recognise.h"
#include "core/remedies/stack_changes.h"
#include "core/sequence/plan.h"
#include "core/sequence/sweep_memory.h"
#include "core/sight/camera_view.h"
#include "core/sky/sky_view.h"
#include "core/stack/report.h"
#include "core/studies/balance_study.h"
#include "core/studies/radio_places.h"
#include "core/survey/reach.h"
#include "core/survey/survey.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"
#include "io/drawing/dxf_reader.h"
#include "io/project/project_file.h"
#include "io/report_json/analysis_json.h"
#include "synthetic_build.h"

#include <benchmark/benchmark.h>
#include <fstream>
#include <sstream>

using namespace waxis;

namespace {

const char *const kDemo = WEIGHTAXIS_BENCH_DATA "/demos/stakewalker.waxis";

std::string demoText() {
    std::ifstream in(kDemo);
    std::ostringstream text;
    text << in.rdbuf();
    return text.str();
}

void loadDemo(benchmark::State &state) {
    const std::string text = demoText();
    for (auto _ : state) benchmark::DoNotOptimize(parseBuild(text));
}

void saveDemo(benchmark::State &state) {
    const auto loaded = loadBuild(kDemo);
    for (auto _ : state) benchmark::DoNotOptimize(writeBuild(loaded->build, loaded->kept));
}

void analyseFull(benchmark::State &state, const Build &build) {
    for (auto _ : state) {
        Analyser analyser;
        benchmark::DoNotOptimize(&analyser.update(build));
    }
}

/// One part goes to and fro, as under the mouse.
void analyseOneMove(benchmark::State &state, const Build &build, const std::string &part) {
    Analyser analyser;
    analyser.update(build);
    const Build there = *shiftPart(build, part, {1, 0.5, 0});
    bool away = false;
    for (auto _ : state) {
        away = !away;
        benchmark::DoNotOptimize(&analyser.update(away ? there : build));
    }
}

/// Every route of a build from nothing.
void lead(benchmark::State &state, const Build &build) {
    Analyser analyser;
    const Derived &derived = analyser.update(build).derived;
    const Practice practice = practiceOf(build.practice);
    for (auto _ : state) {
        RouteKeeper keeper;
        benchmark::DoNotOptimize(
            &keeper.update(build, practice, derived.scene.world->bodies(), derived.scene.owners, derived.scene.traits));
    }
    state.counters["wires"] = double(build.wires.size());
}

void leadAll(benchmark::State &state, const std::string &demo) {
    lead(state, loadBuild(WEIGHTAXIS_BENCH_DATA "/demos/" + demo + ".waxis")->build);
}

/// 300 wires between ports of Stakewalker that have nothing to do with each other, so that ways differ.
void lead300(benchmark::State &state) {
    Build build = loadBuild(kDemo)->build;
    std::vector<WireEnd> ends;
    for (const auto &part : build.parts)
        for (const auto &port : typeOf(build, part)->ports)
            if (!port.pins.empty() && port.kind != PortKind::usb) ends.push_back({part.id, port.id});
    build.wires.clear();
    for (std::size_t i = 0; build.wires.size() < 300; ++i) {
        Wire wire;
        wire.id = "w" + std::to_string(i);
        wire.from = ends[i % ends.size()];
        wire.to = ends[(i * 7 + i / ends.size() * 3 + 1) % ends.size()];
        if (wire.from.part == wire.to.part) continue;
        wire.cores.push_back({"GND", "GND", {}, {}});
        build.wires.push_back(wire);
    }
    lead(state, build);
}

/// All stacks of the demo: gaps, screws, tolerances, cables.
void demoStacks(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    const Practice practice = practiceOf(build.practice);
    for (auto _ : state) benchmark::DoNotOptimize(stackReports(build, practice));
}

/// A layer dragged up and down: everything analysed again.
void demoLayerDragged(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    const Build other = *moveLayer(build, build.stacks[0].id, 3, 1);
    Analyser analyser;
    bool away = false;
    for (auto _ : state) {
        away = !away;
        benchmark::DoNotOptimize(&analyser.update(away ? other : build));
    }
}

/// What would make the converted stack close, in the background.
void owlboxWhatIf(benchmark::State &state) {
    const Build build = loadBuild(WEIGHTAXIS_BENCH_DATA "/demos/owlbox-mini.waxis")->build;
    const Practice practice = practiceOf(build.practice);
    for (auto _ : state) benchmark::DoNotOptimize(suggestFor(build, build.stacks[0], practice));
}

/// Monte Carlo of a tolerance chain, for comparison with its closed form.
void closingDraws(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    const auto report = reportOn(build, build.stacks[0], practiceOf(build.practice));
    for (auto _ : state) benchmark::DoNotOptimize(closingByDraws(report->contributions, 100000, 1));
}

/// The balance drawn 100,000 times: every weight and place in doubt.
void balanceDraws(benchmark::State &state, const Build &build) {
    Analyser analyser;
    const Derived &derived = analyser.update(build).derived;
    const auto doubts = doubtsIn(build, derived, 0);
    const Vec2 centre = derived.thrustCentre_mm.head<2>();
    for (auto _ : state) benchmark::DoNotOptimize(drawBalance(doubts, centre, derived.cgTolerance_mm));
    state.counters["masses"] = double(doubts.size());
}
void demoDraws(benchmark::State &state) { balanceDraws(state, loadBuild(kDemo)->build); }
void thousandDraws(benchmark::State &state) { balanceDraws(state, bench::syntheticBuild(1000)); }

/// The pack's line: what stops it, and where the balance wants it.
void demoSlide(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    Analyser analyser;
    const Derived &derived = analyser.update(build).derived;
    const auto pack = std::size_t(findPart(build, "pack") - build.parts.data());
    const SlideRange range = slideOf(build.parts[pack]);
    for (auto _ : state) {
        const FreeTravel free = freeTravel(build, derived.scene, pack, range.direction, range.min_mm, range.max_mm);
        benchmark::DoNotOptimize(solveSlide(build, derived.massRows, derived.balance[0], pack, range.direction, free));
    }
}

void demoStudy(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    for (auto _ : state) benchmark::DoNotOptimize(studyBalance(build, analysis));
}

void demoFull(benchmark::State &state) { analyseFull(state, loadBuild(kDemo)->build); }
void demoMoveGps(benchmark::State &state) { analyseOneMove(state, loadBuild(kDemo)->build, "gps"); }
void demoMovePack(benchmark::State &state) { analyseOneMove(state, loadBuild(kDemo)->build, "pack"); }
void demoMoveController(benchmark::State &state) { analyseOneMove(state, loadBuild(kDemo)->build, "fc"); }

void syntheticFull(benchmark::State &state) {
    analyseFull(state, bench::syntheticBuild(int(state.range(0))));
    state.SetComplexityN(state.range(0));
}
void syntheticMove(benchmark::State &state) {
    analyseOneMove(state, bench::syntheticBuild(int(state.range(0))), "p" + std::to_string(state.range(0) / 2));
}

void demoReport(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    for (auto _ : state) benchmark::DoNotOptimize(io::analysisText(build, analysis));
}

std::string drawingText(const char *path) {
    std::ifstream in(path);
    std::ostringstream text;
    text << in.rdbuf();
    return text.str();
}

/// 5,000 entities on one sheet: read, joined, nested, recognised.
void drawingOfFiveThousand(benchmark::State &state) {
    const std::string text = drawingText(WEIGHTAXIS_BENCH_TESTS "/fixtures/drawings/many.dxf");
    for (auto _ : state) benchmark::DoNotOptimize(recognise(*readDxf(text)));
}

void drawingOfAFrame(benchmark::State &state) {
    const std::string text = drawingText(WEIGHTAXIS_BENCH_DATA "/drawings/marshlight-5.dxf");
    for (auto _ : state) {
        const auto found = recognise(*readDxf(text));
        benchmark::DoNotOptimize(frameFromDrawing(found, guessChoices(found)));
    }
}

/// One step of pulling an arm: the frame is made anew and the build judged on it.
void pullAnArm(benchmark::State &state) {
    const Build build = loadBuild(WEIGHTAXIS_BENCH_DATA "/demos/kilnlamp.waxis")->build;
    Analyser analyser;
    analyser.update(build);
    double arm = 455;
    for (auto _ : state) {
        arm = arm > 460 ? 455 : arm + 0.5;
        benchmark::DoNotOptimize(&analyser.update(*setLayoutValue(build, "arm_mm", arm)));
    }
}

/// What each live look costs while the mouse is down: the rays' world is made anew and 10,000 rays are cast.
void skyOnce(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    Analyser analyser;
    const Derived &derived = analyser.update(build).derived;
    const int gps = int(findPart(build, "gps") - build.parts.data());
    const AntennaPlace place =
        antennaPlace(*typeOf(build, build.parts[std::size_t(gps)]), framePose(build, build.parts[std::size_t(gps)]));
    for (auto _ : state) {
        const RayWorld world = skyWorld(build, derived.scene, 0, gps, 10);
        benchmark::DoNotOptimize(skyView(world, derived.scene, place.position_mm, place.axis, 10, 0));
    }
}

void lensOnce(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    Analyser analyser;
    const Derived &derived = analyser.update(build).derived;
    const Part &part = *findPart(build, "cam");
    const PartType &type = *typeOf(build, part);
    const Picture picture = pictureOf(type.camera->horizontalView_deg, type.camera->verticalView_deg, 115);
    state.counters["rays"] = double(picture.directions.size());
    for (auto _ : state) {
        const CameraWorld world = cameraWorld(build, derived.scene, 0, int(&part - build.parts.data()));
        benchmark::DoNotOptimize(cameraView(world, derived.scene, picture, cameraPose(type, framePose(build, part))));
    }
}

/// Every port's corridor, who blocks it, and what must come off first.
void accessAll(benchmark::State &state, const char *demo) {
    const Build build = loadBuild(std::string(WEIGHTAXIS_BENCH_DATA "/demos/") + demo + ".waxis")->build;
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    for (auto _ : state) {
        const Derived &derived = analysis.derived;
        benchmark::DoNotOptimize(accessOf(build, analysis.practice, derived.loadCases, derived.scene));
    }
}
void accessStakewalker(benchmark::State &state) { accessAll(state, "stakewalker"); }
void accessOwlbox(benchmark::State &state) { accessAll(state, "owlbox-mini"); }

void survey(benchmark::State &state, const char *demo) {
    const Build build = loadBuild(std::string(WEIGHTAXIS_BENCH_DATA "/demos/") + demo + ".waxis")->build;
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    for (auto _ : state) benchmark::DoNotOptimize(surveyOf(build, analysis.practice, analysis.derived));
}
void surveyStakewalker(benchmark::State &state) { survey(state, "stakewalker"); }
void surveyKilnlamp(benchmark::State &state) { survey(state, "kilnlamp"); }

/// The order of building, from nothing.
void plan(benchmark::State &state, const Build &build) {
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    for (auto _ : state) benchmark::DoNotOptimize(planAssembly(build, analysis.practice, analysis.derived, 0));
}
void planDemo(benchmark::State &state, const std::string &demo) {
    plan(state, loadBuild(WEIGHTAXIS_BENCH_DATA "/demos/" + demo + ".waxis")->build);
}
/// One part is moved by a millimetre each time: what has nothing to do with it is remembered.
void planMoved(benchmark::State &state, const std::string &demo, const std::string &part) {
    Build build = loadBuild(WEIGHTAXIS_BENCH_DATA "/demos/" + demo + ".waxis")->build;
    Analyser analyser;
    SweepMemory memory;
    {
        const Analysis &first = analyser.update(build);
        planAssembly(build, first.practice, first.derived, 0, &memory);
    }
    int moves = 0;
    for (auto _ : state) {
        state.PauseTiming();
        for (auto &moved : build.parts)
            if (moved.id == part) moved.placement.pose.position_mm.x() += ++moves % 2 ? 1 : -0.5;
        const Analysis &analysis = analyser.update(build);
        state.ResumeTiming();
        benchmark::DoNotOptimize(planAssembly(build, analysis.practice, analysis.derived, 0, &memory));
    }
}
void plan300(benchmark::State &state) { plan(state, bench::syntheticBuild(300)); }

/// Twelve radios, all of which send and listen, spread over Stakewalker: in each other's near field and beyond.
RadioReport twelveRadios(const Build &build, const Derived &derived) {
    RadioReport report;
    (void)build;
    for (int i = 0; i < 12; ++i) {
        RadioUse radio = derived.radio->radios[std::size_t(i) % derived.radio->radios.size()];
        radio.part = "radio-" + std::to_string(i);
        const double low[] = {433, 866, 2400, 5740};
        radio.low_MHz = low[i % 4];
        radio.high_MHz = radio.low_MHz + 2;
        radio.centre_MHz = radio.low_MHz + 1;
        radio.power_dBm = 14;
        radio.listens = true;
        radio.bandwidth_MHz = 1;
        radio.antennas.resize(1);
        auto &use = radio.antennas[0];
        use.part = radio.part;
        use.antenna.kind = i % 3 == 2 ? AntennaKind::circularOmni : AntennaKind::dipole;
        use.antenna.low_MHz = radio.low_MHz;
        use.antenna.high_MHz = radio.high_MHz;
        use.pattern = patternOf(use.antenna);
        use.centre_mm = {-110.0 + 20 * i, 40.0 * (i % 3 - 1), 45.0 + 9 * (i % 4)};
        use.axis = i % 2 ? Vec3::UnitZ() : Vec3::UnitY();
        report.radios.push_back(std::move(radio));
    }
    return report;
}

void matrixOfTwelve(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    const RadioReport report = twelveRadios(build, analysis.derived);
    for (auto _ : state)
        for (const auto &a : report.radios)
            for (const auto &b : report.radios) benchmark::DoNotOptimize(cellBetween(a, b, analysis.practice, {}));
}
void matrixWithProducts(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    RadioReport report = twelveRadios(build, analysis.derived);
    for (auto _ : state) judgeRadios(report, analysis.practice, {});
}
void matrixWithShadows(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    const RadioReport report = twelveRadios(build, analysis.derived);
    for (auto _ : state) {
        const RayWorld world = radioWorld(build, analysis.derived.scene, 0, analysis.practice[Limit::skyThick]);
        std::vector<LineShadow> shadows;
        for (std::size_t a = 0; a < report.radios.size(); ++a)
            for (std::size_t b = 0; b < a; ++b)
                if (auto s = shadowOf(world, analysis.derived.scene, report.radios[a].antennas[0],
                                      report.radios[b].antennas[0]);
                    s.height_mm > 0)
                    shadows.push_back(std::move(s));
        for (const auto &a : report.radios)
            for (const auto &b : report.radios) benchmark::DoNotOptimize(cellBetween(a, b, analysis.practice, shadows));
    }
}
void demoRadio(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    for (auto _ : state) {
        const Derived &derived = analysis.derived;
        benchmark::DoNotOptimize(
            radioReport(build, analysis.practice,
                        {derived.loadCases, derived.scene, derived.routes, *derived.wiring, *derived.power, {}}));
    }
}
void demoFieldMap(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    Analyser analyser;
    const auto &sources = analyser.update(build).derived.radio->sources;
    for (auto _ : state) benchmark::DoNotOptimize(fieldMap(sources, 0, {-250, -250}, {250, 250}, 50, 6, 20));
}
void demoPlaces(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    for (auto _ : state) benchmark::DoNotOptimize(comparePlaces(build, "gps", {}));
}

} // namespace

BENCHMARK(demoDraws)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(thousandDraws)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(demoSlide)->Unit(benchmark::kMillisecond);
BENCHMARK(demoStudy)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(matrixOfTwelve)->Unit(benchmark::kMillisecond);
BENCHMARK(matrixWithProducts)->Unit(benchmark::kMillisecond);
BENCHMARK(matrixWithShadows)->Unit(benchmark::kMillisecond);
BENCHMARK(demoRadio)->Unit(benchmark::kMillisecond);
BENCHMARK(demoFieldMap)->Unit(benchmark::kMillisecond);
BENCHMARK(demoPlaces)->Unit(benchmark::kMillisecond);
BENCHMARK(skyOnce)->Unit(benchmark::kMillisecond);
BENCHMARK(lensOnce)->Unit(benchmark::kMillisecond);
BENCHMARK(accessStakewalker)->Unit(benchmark::kMillisecond);
BENCHMARK(accessOwlbox)->Unit(benchmark::kMillisecond);
BENCHMARK(surveyStakewalker)->Unit(benchmark::kMillisecond);
BENCHMARK(surveyKilnlamp)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(planDemo, stakewalker, std::string("stakewalker"))->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(planDemo, owlbox, std::string("owlbox-mini"))->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(planDemo, sedge, std::string("sedge-tri"))->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(planDemo, kilnlamp, std::string("kilnlamp"))->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(planMoved, stakewalkerGps, std::string("stakewalker"), std::string("gps"))
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(planMoved, stakewalkerController, std::string("stakewalker"), std::string("fc"))
    ->Unit(benchmark::kMillisecond);
BENCHMARK(plan300)->Unit(benchmark::kMillisecond);
BENCHMARK(drawingOfFiveThousand)->Unit(benchmark::kMillisecond);
BENCHMARK(drawingOfAFrame)->Unit(benchmark::kMillisecond);
BENCHMARK(pullAnArm)->Unit(benchmark::kMillisecond);
BENCHMARK(loadDemo)->Unit(benchmark::kMillisecond);
BENCHMARK(saveDemo)->Unit(benchmark::kMillisecond);
BENCHMARK(demoFull)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(leadAll, stakewalker, std::string("stakewalker"))->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(leadAll, kilnlamp, std::string("kilnlamp"))->Unit(benchmark::kMillisecond);
BENCHMARK(lead300)->Unit(benchmark::kMillisecond);
BENCHMARK(demoStacks)->Unit(benchmark::kMillisecond);
BENCHMARK(demoLayerDragged)->Unit(benchmark::kMillisecond);
BENCHMARK(owlboxWhatIf)->Unit(benchmark::kMillisecond);
BENCHMARK(closingDraws)->Unit(benchmark::kMillisecond);
BENCHMARK(demoMoveGps)->Unit(benchmark::kMillisecond);
BENCHMARK(demoMovePack)->Unit(benchmark::kMillisecond);
BENCHMARK(demoMoveController)->Unit(benchmark::kMillisecond);
BENCHMARK(syntheticFull)->RangeMultiplier(2)->Range(125, 1000)->Unit(benchmark::kMillisecond)->Complexity();
BENCHMARK(syntheticMove)->Arg(125)->Arg(1000)->Unit(benchmark::kMillisecond);
BENCHMARK(demoReport)->Unit(benchmark::kMillisecond);
