// Any bytes at all: either a clear error, or a build that can be written, read again as the same, analysed and
// reported.
#include "json_mutator.h"
#include "support/promises.h"

#include <cstdio>
#include <cstdlib>
#include <cstring>

namespace {

void demand(bool truth, const char *what) {
    if (truth) return;
    std::fprintf(stderr, "broken promise: %s\n", what);
    std::abort();
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const unsigned char *data, std::size_t size) {
    waxis::test::anyBytesKeepTheirPromises({reinterpret_cast<const char *>(data), size}, demand);
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
