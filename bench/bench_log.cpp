// What instruments and the log cost: an hour of a receiver, the report of planned against measured, states of a build.
#include "core/analysis/analysis.h"
#include "core/build/log.h"
#include "core/measured/log_report.h"
#include "core/nmea/receiver.h"
#include "core/simulated/simulated_receiver.h"
#include "io/project/project_file.h"
#include "io/project/states.h"

#include <benchmark/benchmark.h>

using namespace waxis;

namespace {

const char *const kDemo = WEIGHTAXIS_BENCH_DATA "/demos/stakewalker.waxis";

/// Four systems, so many rounds a second, for so long.
const std::string &recording(int rate_Hz, int seconds) {
    static std::map<std::pair<int, int>, std::string> made;
    auto &bytes = made[{rate_Hz, seconds}];
    if (bytes.empty()) {
        SimulatedReceiver receiver({}, {}, 3);
        for (int i = 0; i < rate_Hz * seconds; ++i) bytes += receiver.round(1.0 / rate_Hz);
    }
    return bytes;
}

void hourOfAReceiver(benchmark::State &state) {
    const std::string &bytes = recording(int(state.range(0)), 3600);
    constexpr std::size_t kPiece = 4096; // as a port gives them
    std::uint64_t sentences = 0;
    for (auto _ : state) {
        Receiver receiver;
        for (std::size_t at = 0; at < bytes.size(); at += kPiece)
            receiver.feed(std::string_view(bytes).substr(at, kPiece));
        sentences = receiver.counts().sentences;
        benchmark::DoNotOptimize(receiver.state().used);
    }
    state.counters["sentences"] = double(sentences);
    state.SetBytesProcessed(std::int64_t(state.iterations()) * std::int64_t(bytes.size()));
}

void logReportOfTheDemo(benchmark::State &state) {
    const Build build = loadBuild(kDemo)->build;
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    const Derived &d = analysis.derived;
    for (auto _ : state)
        benchmark::DoNotOptimize(logReport(build, analysis.practice,
                                           {d.loadCases, d.massRows, d.kit, d.balance, *d.power, *d.wiring, *d.radio}));
}

void fiftyStates(benchmark::State &state) {
    Build build = loadBuild(kDemo)->build;
    const Snapshot one = stateFrom(build, "a", "2026-05-14");
    build.log.edit([&](Log &log) {
        log.snapshots.clear();
        for (int i = 0; i < 50; ++i) {
            log.snapshots.push_back(one);
            log.snapshots.back().id = "state-" + std::to_string(i);
        }
    });
    for (auto _ : state) benchmark::DoNotOptimize(writeBuild(build).size());
}

} // namespace

BENCHMARK(hourOfAReceiver)->Arg(1)->Arg(10)->Unit(benchmark::kMillisecond);
BENCHMARK(logReportOfTheDemo)->Unit(benchmark::kMillisecond);
BENCHMARK(fiftyStates)->Unit(benchmark::kMillisecond);
