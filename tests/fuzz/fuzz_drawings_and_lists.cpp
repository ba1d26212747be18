// Whatever bytes come in: a drawing or an error with a place, a list with problems named by line; never more than that.
#include "support/import_promises.h"

#include <cstdint>
#include <cstdio>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size) {
    const std::string_view text(reinterpret_cast<const char *>(data), size);
    waxis::test::importsKeepTheirPromises(text, [](bool kept, const char *promise) {
        if (kept) return;
        std::fprintf(stderr, "broken promise: %s\n", promise);
        std::abort();
    });
    return 0;
}
