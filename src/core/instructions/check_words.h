// Checks as sentences: what is done, and what should be found.
#pragma once

#include "core/base/sentence.h"
#include "core/build/build.h"
#include "core/sequence/checks.h"

namespace waxis {

struct CheckText {
    Sentence title, how, expected;
};
CheckText wordCheck(const Build &build, const Check &check);

} // namespace waxis
