// A try of a receiver as it runs: from its states over time to what is kept of it.
#pragma once

#include "core/build/log.h"
#include "core/nmea/receiver.h"

#include <map>

namespace waxis {

/// Times are seconds since power, as somebody's clock says; states come once a round. Kept: when each number of
/// satellites was first in use, the first place, one point every ten seconds, each satellite's median ratio and its
/// mean place in the sky.
class TryRecorder {
public:
    /// A state at `at_s` since power; times never go back.
    void add(double at_s, const ReceiverState &state);
    /// As if it ended at the last state.
    Try result() const;

    double watched_s() const { return watched_s_; }
    int mostUsed() const { return int(reached_s_.size()); }
    bool hasFix() const { return fix_s_.has_value(); }

private:
    struct Heard {
        double elevation_deg = 0, north = 0, east = 0; ///< sums; azimuth as a direction, so that 359 and 1 are near
        int seen = 0;
        std::vector<float> ratios;
    };
    double watched_s_ = 0, nextPoint_s_ = 0;
    std::optional<double> fix_s_;
    std::vector<double> reached_s_;
    std::vector<TryPoint> series_;
    std::map<SatelliteId, Heard> heard_;
};

/// The try that a recording holds, from its first byte to its last. Rounds before time is known are taken to be as long
/// as those afterwards (a second where it never is). watched_s 0: there is no round in it.
Try tryFromRecording(std::string_view bytes);

} // namespace waxis
