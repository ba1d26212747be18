// How a receiver would do in a place of this build: its sky, its lean, the noise of the senders aboard.
#pragma once

#include "core/simulated/simulated_receiver.h"

#include "core/base/result.h"
#include "core/build/build.h"

#include <string>

namespace waxis {

/// `place`: id of a part with a satellite receiver, or of one of its trial places. The load case is the first in which
/// it is aboard. Analyses the build. Errors: no such place, no receiver in it, in words.
Result<SimulatedSeat, std::string> simulatedSeat(const Build &build, const std::string &place, double nose_deg);

/// The same for a pose of that part.
Result<SimulatedSeat, std::string> simulatedSeatAt(const Build &build, const std::string &part, const Pose &X_FramePart,
                                                   double nose_deg);

} // namespace waxis
