// The part library that is shipped, read once.
#pragma once

#include "io/project/project_file.h"

namespace waxis::test {

inline const TypeTable &shippedLibrary() {
    static const TypeTable types = [] {
        auto loaded = loadLibrary(WEIGHTAXIS_TEST_DATA "/parts/common.json");
        if (!loaded) qFatal("library not read");
        return std::move(loaded->types);
    }();
    return types;
}

} // namespace waxis::test
