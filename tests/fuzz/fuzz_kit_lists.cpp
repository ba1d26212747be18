// Whatever bytes come in: a kit list with problems named by line, taken into a new build and into a full one.
#include "fuzz_target.h"
#include "support/import_promises.h"

using namespace waxis;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size) {
    static const Build full = loadBuild(WEIGHTAXIS_TEST_DATA "/demos/sedge-tri.waxis")->build;
    static const TypeTable library = loadLibrary(WEIGHTAXIS_TEST_DATA "/parts/common.json")->types;
    test::kitListKeepsItsPromises(fuzz::textOf(data, size), {}, {}, fuzz::demand);
    test::kitListKeepsItsPromises(fuzz::textOf(data, size), full, library, fuzz::demand);
    return 0;
}
