#include "core/build/arm_of.h"

namespace waxis {

const Arm *armOf(const Frame &frame, const MotorMount &mount) {
    constexpr double kReach_mm = 40;
    const Arm *nearest = nullptr;
    double best = kReach_mm;
    for (const auto &arm : frame.arms)
        if (const double away = (arm.tip_mm - mount.position_mm).head<2>().norm(); away < best) {
            best = away;
            nearest = &arm;
        }
    return nearest;
}

} // namespace waxis
