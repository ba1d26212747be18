// Whatever text comes in as a list of entries, of tries, or as a line that is typed: problems are named, what is read
// can be taken and is written again the same.
#include "core/log/entry_text.h"
#include "fuzz_target.h"
#include "io/csv/log_csv.h"
#include "io/project/project_file.h"

using namespace waxis;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size) {
    static const Build full = loadBuild(WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis")->build;
    const std::string text(fuzz::textOf(data, size));
    const EntryList entries = readEntryList(parseCsv(text), full);
    const auto taken = takeEntryList(full, entries);
    fuzz::demand(bool(taken), "what was read can be taken");
    fuzz::demand(taken->log->entries.size() == full.log->entries.size() + entries.entries.size(), "all of it");
    if (!entries.entries.empty()) {
        const std::string written = writeEntries(*taken);
        const EntryList again = readEntryList(parseCsv(written), full);
        fuzz::demand(again.problems.empty(), "what was written can be read");
    }
    const TryList tries = readTryList(parseCsv(text), full);
    (void)takeTryList(full, tries);
    const auto entry = readEntry(full, std::string_view(text).substr(0, 400));
    if (entry) fuzz::demand(faultOf(*entry).empty(), "an entry as its quantity wants it");
    if (!entry) fuzz::demand(!entry.error().message.empty(), "a reason");
    (void)entryCompletions(full, std::string_view(text).substr(0, 100));
    return 0;
}
