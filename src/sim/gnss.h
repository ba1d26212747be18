// weightaxis-sim gnss
#pragma once

#include "sim/running.h"

#include <string>

namespace waxis::sim {

struct GnssOptions {
    std::string build, place; ///< place empty: the first part with a satellite receiver
    double hour = 14, latitude_deg = 53.4, longitude_deg = 7.1, nose_deg = 0;
    int rate_Hz = 1;
};
int runGnss(const GnssOptions &options, const RunOptions &run);

} // namespace waxis::sim
