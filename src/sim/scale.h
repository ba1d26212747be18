// weightaxis-sim scale
#pragma once

#include "sim/running.h"

#include <string>

namespace waxis::sim {

struct ScaleOptions {
    std::string build;
    bool walk = false; ///< puts one part after the other on by itself
    int rate_Hz = 10;
};
int runScale(const ScaleOptions &options, const RunOptions &run);

} // namespace waxis::sim
