// What antennas, cameras and lamps see, one look each.
#pragma once

#include "core/sight/camera_view.h"
#include "core/sight/lamp_view.h"
#include "core/sky/sky_view.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct SkySurvey {
    std::string part;
    std::string loadCase; ///< the one in which most is hidden
    AntennaPlace place;
    SkyView level, cruise;
};

struct TiltStep {
    double tilt_deg = 0, hidden = 0, propellers = 0;
};

struct CameraSurvey {
    std::string part;
    std::string loadCase; ///< the one in which most is hidden as it stands
    CameraView now;
    std::vector<TiltStep> tilts;        ///< over the tilt allowed, ascending
    std::optional<double> overshoot_mm; ///< lensOvershoot_mm
    /// The widest run of tilts in which no more than the practice's share is hidden; none: nowhere.
    std::optional<double> bestFrom_deg, bestTo_deg;
};

struct LampSurvey {
    std::string part, port; ///< port empty: the part is a lamp itself
    std::string loadCase;
    LampView view;
};

} // namespace waxis
