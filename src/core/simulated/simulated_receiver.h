// A satellite receiver that nobody has: it starts cold, hears what the craft lets through, and takes longer in a bad
// place. Its bytes are those of a real one.
#pragma once

#include "core/nmea/receiver.h"
#include "core/sky/sky_view.h"

#include <cstdint>
#include <random>
#include <string>
#include <vector>

namespace waxis {

/// Where and when it stands.
struct SimulatedSky {
    GeoPlace place{53.4, 7.1};
    double altitude_m = 12;
    double hour = 14; ///< UTC, 0 to 24
    int day = 14, month = 5, year = 2026;
};

/// How it sits on the craft.
struct SimulatedSeat {
    SkyView view;              ///< of the hovering craft; empty: nothing hides anything
    double lean_deg = 0;       ///< of the antenna off the zenith
    Vec3 axis = Vec3::UnitZ(); ///< of the antenna, in the craft's axes
    double nose_deg = 0;       ///< where the nose points, from north turning east
    double noise_dB = 0;       ///< by which senders aboard raise its noise floor
};

/// Model (orders of size as receivers in use show them; common practice, no source): a patch antenna loses 3 dB at 60
/// and 8 dB at 90 degrees off its axis, 15 below; 45 dB-Hz at its best; kHiddenLoss_dB behind bodies; each satellite
/// fades slowly by 2 dB. A cold start finds a satellite after an exponential time, 6 s at 45 dB-Hz and double for each
/// 4 dB less, none below 27; then it needs 18 to 36 s of its data, begun again when it falls below 25 meanwhile; below
/// 20 it is lost. A place needs four.
class SimulatedReceiver {
public:
    SimulatedReceiver(SimulatedSky sky, SimulatedSeat seat, std::uint32_t seed);

    /// Off and on: all is forgotten but the clock of the world. Time goes on from where it is.
    void restart();
    /// One round of sentences, `seconds` after the last: RMC, GGA, GSA and GSV of each system, each with checksum and
    /// line end.
    std::string round(double seconds = 1);

    double sinceStart_s() const { return sinceStart_s_; }
    int used() const;

private:
    struct Tracked {
        bool found = false, isUsed = false;
        double findAfter_s = 0; ///< work left until it is found, at 45 dB-Hz
        double dataLeft_s = 0;  ///< of its message
        double heard_s = 0;     ///< since it was found; its time is known after a subframe of 6 s
        double fade_dB = 0, ratio_dBHz = 0;
        double elevation_deg = 0, azimuth_deg = 0;
        bool isHidden = false;
    };
    void look();
    void track(double seconds);

    SimulatedSky sky_;
    SimulatedSeat seat_;
    std::mt19937 random_;
    double time_s_ = 0, sinceStart_s_ = 0, nextLook_s_ = 0;
    bool knowsTime_ = false;
    std::vector<Tracked> tracked_; ///< by constellation()
};

} // namespace waxis
