// Any bytes at all: either a clear error, or a build that can be written, read again as the same, analysed and
// reported.
#include "core/analysis/analysis.h"
#include "io/project/project_file.h"
#include "io/report_json/analysis_json.h"
#include "io/report_json/sum_json.h"
#include "json_mutator.h"

#include <cstdio>
#include <cstdlib>
#include <cstring>

namespace {

void demand(bool truth, const char *what) {
    if (truth) return;
    std::fprintf(stderr, "broken promise: %s\n", what);
    std::abort();
}

void useBuild(const waxis::LoadedBuild &loaded) {
    const std::string text = waxis::writeBuild(loaded.build, loaded.kept);
    const auto again = waxis::parseBuild(text);
    demand(bool(again), "what was written can be read");
    demand(again->build == loaded.build, "it is the same build");
    demand(waxis::writeBuild(again->build, again->kept) == text, "writing is stable");
    waxis::Analyser analyser;
    const auto &analysis = analyser.update(loaded.build);
    demand(!waxis::io::analysisText(loaded.build, analysis).empty(), "it can be reported");
    for (const auto &finding : analysis.findings)
        if (!finding.fixes.empty()) demand(bool(applyFix(loaded.build, finding.fixes.front())), "fixes can be applied");
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const unsigned char *data, std::size_t size) {
    const std::string_view text(reinterpret_cast<const char *>(data), size);
    const auto build = waxis::parseBuild(text);
    if (build)
        useBuild(*build);
    else
        demand(!build.error().where.empty() && !build.error().expected.empty() && !build.error().found.empty(),
               "errors say where, what was expected and what was found");
    if (const auto library = waxis::parseLibrary(text))
        demand(bool(waxis::parseLibrary(waxis::writeLibrary(*library))), "a library comes back");
    (void)waxis::io::runSumBatch(text);
    return 0;
}

extern "C" std::size_t LLVMFuzzerMutate(unsigned char *data, std::size_t size, std::size_t most);

extern "C" std::size_t LLVMFuzzerCustomMutator(unsigned char *data, std::size_t size, std::size_t most, unsigned seed) {
    std::mt19937 random(seed);
    if (random() % 4 != 0) {
        auto document = nlohmann::json::parse(data, data + size, nullptr, false);
        if (!document.is_discarded()) {
            for (unsigned n = 1 + random() % 3; n > 0; --n) waxis::fuzz::mutate(document, random);
            const std::string text = document.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace);
            if (text.size() <= most) {
                std::memcpy(data, text.data(), text.size());
                return text.size();
            }
        }
    }
    return LLVMFuzzerMutate(data, size, most);
}
