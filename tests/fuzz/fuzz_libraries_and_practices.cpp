// Any bytes at all: a clear error, or a library whose parts can be placed, or a practice that can be taken.
#include "fuzz_target.h"
#include "support/promises.h"

using namespace waxis;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size) {
    test::libraryOrPracticeKeepsItsPromises(fuzz::textOf(data, size), fuzz::demand);
    return 0;
}
