// Any bytes at all: either a clear error, or a build that can be written, read again as the same, analysed and
// reported.
#include "fuzz_target.h"
#include "support/promises.h"

using namespace waxis;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size) {
    test::buildFileKeepsItsPromises(fuzz::textOf(data, size), fuzz::demand);
    return 0;
}
