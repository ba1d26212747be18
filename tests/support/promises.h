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

inline void buildFileKeepsItsPromises(std::string_view text, const Demand &demand) {
    const auto build = parseBuild(text);
    if (build)
        buildKeepsItsPromises(*build, demand);
    else
        demand(!build.error().where.empty() && !build.error().expected.empty() && !build.error().found.empty(),
               "errors say where, what was expected and what was found");
    if (const auto answers = io::runSumBatch(text)) demand(!answers->empty(), "a batch has an answer");
}

/// What loads comes back the same, and whatever a library offers can be put on an empty mat, saved and judged.
inline void libraryOrPracticeKeepsItsPromises(std::string_view text, const Demand &demand) {
    if (const auto library = parseLibrary(text)) {
        const auto again = parseLibrary(writeLibrary(*library));
        demand(again && *again == *library, "a library comes back");
        LoadedBuild loaded;
        loaded.build.name = "from a library";
        for (const auto &[id, type] : library->types) {
            const auto with = addPart(loaded.build, type, id, Pose{});
            demand(bool(with), "a part can be put in place");
            if (with) loaded.build = *with;
        }
        buildKeepsItsPromises(loaded, demand);
    }
    if (const auto practice = parsePractice(text)) {
        const auto again = parsePractice(writePractice(*practice));
        demand(again && *again == *practice, "a practice comes back");
        Build build;
        build.name = "with a practice";
        demand(bool(setPractice(build, practice->settings)), "a practice can be taken");
    }
}

inline void anyBytesKeepTheirPromises(std::string_view text, const Demand &demand) {
    buildFileKeepsItsPromises(text, demand);
    libraryOrPracticeKeepsItsPromises(text, demand);
}

} // namespace waxis::test
