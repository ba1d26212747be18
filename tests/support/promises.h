// What the loaders promise of any bytes at all; held by the fuzzer and by the tests that go through its corpus.
#pragma once

#include "core/analysis/analysis.h"
#include "io/project/project_file.h"
#include "io/report_json/analysis_json.h"
#include "io/report_json/sum_json.h"

#include <functional>
#include <string_view>

namespace waxis::test {

/// Called with each promise and whether it was kept.
using Demand = std::function<void(bool, const char *)>;

/// What loads can be written, read again as the same, analysed, reported and mended.
inline void buildKeepsItsPromises(const LoadedBuild &loaded, const Demand &demand) {
    const std::string text = writeBuild(loaded.build, loaded.kept);
    const auto again = parseBuild(text);
    demand(bool(again), "what was written can be read");
    if (!again) return;
    demand(again->build == loaded.build, "it is the same build");
    demand(writeBuild(again->build, again->kept) == text, "writing is stable");
    Analyser analyser;
    const auto &analysis = analyser.update(loaded.build);
    demand(!io::analysisText(loaded.build, analysis).empty(), "it can be reported");
    for (const auto &finding : analysis.findings)
        if (!finding.fixes.empty()) demand(bool(applyFix(loaded.build, finding.fixes.front())), "fixes can be applied");
}

inline void anyBytesKeepTheirPromises(std::string_view text, const Demand &demand) {
    const auto build = parseBuild(text);
    if (build)
        buildKeepsItsPromises(*build, demand);
    else
        demand(!build.error().where.empty() && !build.error().expected.empty() && !build.error().found.empty(),
               "errors say where, what was expected and what was found");
    if (const auto library = parseLibrary(text))
        demand(bool(parseLibrary(writeLibrary(*library))), "a library comes back");
    if (const auto answers = io::runSumBatch(text)) demand(!answers->empty(), "a batch has an answer");
}

} // namespace waxis::test
