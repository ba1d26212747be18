// What a builder chose for the radios: channels and powers, who listens on the ground, where a part might go instead.
#pragma once

#include "core/catalog/ratings.h"

#include <optional>
#include <string>

namespace waxis {

/// What one band of a radio aboard is set to.
struct RadioSetting {
    std::string part;
    int band = 0;                     ///< index in PartType::radio
    std::optional<double> centre_MHz; ///< none: the first channel, else the whole band
    std::optional<double> power_dBm;  ///< none: as much as the part can
    bool operator==(const RadioSetting &) const = default;
};

/// The other end of a link, on the ground. What is not stated is assumed to be like the radio aboard.
struct GroundStation {
    std::string id;
    std::string name;
    std::string part;       ///< radio aboard that it talks with
    int band = 0;           ///< index in its PartType::radio
    double gain_dBi = 2.15; ///< towards the craft
    Polarisation polarisation = Polarisation::linear;
    double distance_m = 500;   ///< farthest that is wanted
    double height_m = 1.5;     ///< of its antenna
    double craftHeight_m = 40; ///< of the craft, there
    std::optional<double> power_dBm, noiseFigure_dB, needed_dB;
    bool operator==(const GroundStation &) const = default;
};

} // namespace waxis
