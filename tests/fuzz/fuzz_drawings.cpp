// Whatever bytes come in: a drawing or an error with a place, never more than that; found plates make a frame.
#include "fuzz_target.h"
#include "support/import_promises.h"

using namespace waxis;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size) {
    test::drawingKeepsItsPromises(fuzz::textOf(data, size), fuzz::demand);
    return 0;
}
