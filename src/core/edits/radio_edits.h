// Changes of channels, ground stations and trial places.
#pragma once

#include "core/edits/part_edits.h"

namespace waxis {

/// Band of a part by its number; null where there is no such part or band.
const RadioBand *bandOf(const Build &build, const std::string &part, int band);

/// Channel of a band by its centre; none goes back to the first one or the whole band. Refused outside the band.
EditResult setChannel(const Build &build, const std::string &part, int band, std::optional<double> centre_MHz);
/// Power that is sent with; none goes back to what the part can.
EditResult setPower(const Build &build, const std::string &part, int band, std::optional<double> power_dBm);

/// A ground station for a radio aboard, with usual figures; a video link's hears with a patch.
EditResult addGroundStation(const Build &build, const std::string &part, int band);
EditResult editGroundStation(const Build &build, const GroundStation &changed);
EditResult removeGroundStation(const Build &build, const std::string &id);

/// A place to compare for a part; named by itself.
EditResult addTrial(const Build &build, const std::string &part, const Pose &X_FramePart);
EditResult moveTrial(const Build &build, const std::string &id, const Pose &X_FramePart);
EditResult removeTrial(const Build &build, const std::string &id);
/// Moves the part to the trial place; where it stood becomes the trial place.
EditResult takeTrial(const Build &build, const std::string &id);

} // namespace waxis
