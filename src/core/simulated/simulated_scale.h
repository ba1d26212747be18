// A bench scale that nobody has: it settles, drifts and trembles, and says so line by line.
#pragma once

#include <cstdint>
#include <random>
#include <string>

namespace waxis {

/// Settles within a second or so (a first-order lag with a tremble that dies away), drifts slowly, reads in steps.
/// Lines as of scales in use (common form, no source): "ST,GS,+   12.4 g" when stable, "US,GS,..." when not.
class SimulatedScale {
public:
    struct Nature {
        double step_g = 0.1;       ///< it reads in
        double settles_s = 0.4;    ///< time constant
        double tremble_g = 3;      ///< right after something was put on
        double noise_g = 0.03;     ///< always
        double drift_g_min = 0.02; ///< most, either way
        double gain = 1.0004;      ///< calibration
    };
    SimulatedScale(Nature nature, std::uint32_t seed);
    /// Something of that mass lies on it from now on; 0: nothing.
    void put(double mass_g);
    /// The line `seconds` after the last, with its end.
    std::string line(double seconds);
    double shown_g() const { return shown_g_; }

private:
    Nature nature_;
    std::mt19937 random_;
    double target_g_ = 0, lies_g_ = 0, drift_g_ = 0, driftRate_ = 0, sincePut_s_ = 10, shown_g_ = 0, before_g_ = 0;
    int steady_ = 0;
};

} // namespace waxis
