// The frame in numbers: motors with their room, plates with what they weigh.
#pragma once

#include "core/build/frame.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct MotorReport {
    std::string mount;
    int number = 0;
    Spin spin = Spin::clockwise;
    double propDiameter_mm = 0;
    /// Nearest other propeller in plan, tip to tip; coaxial partners do not count.
    std::optional<double> tipGap_mm;
    std::string tipNeighbour;
    Vec3 tipFrom_mm = Vec3::Zero(), tipTo_mm = Vec3::Zero();
    /// Nearest plate or standoff in plan, from the propeller's circle; negative: under or over it.
    std::optional<double> frameGap_mm;
    std::string framePiece;
    Vec3 frameFrom_mm = Vec3::Zero(), frameTo_mm = Vec3::Zero();
};

struct PlateReport {
    std::string plate;
    double area_mm2 = 0; ///< less holes and cut-outs
    Vec3 centroid_mm = Vec3::Zero();
    std::optional<double> mass_g; ///< from area, thickness and density; none without a known material
    int holes = 0;
};

struct FrameReport {
    std::vector<MotorReport> motors;
    std::vector<PlateReport> plates;
    double diagonal_mm = 0; ///< greatest distance of two motor axes
    int yawSurplus = 0;     ///< clockwise less counter-clockwise motors
};
FrameReport frameReport(const Frame &frame);

} // namespace waxis
