#include "core/simulated/simulated_scale.h"

#include <cmath>
#include <fmt/format.h>

namespace waxis {

SimulatedScale::SimulatedScale(Nature nature, std::uint32_t seed) : nature_(nature), random_(seed) {
    std::uniform_real_distribution<double> rate(-nature.drift_g_min, nature.drift_g_min);
    driftRate_ = rate(random_) / 60;
}

void SimulatedScale::put(double mass_g) {
    target_g_ = mass_g;
    sincePut_s_ = 0;
    steady_ = 0;
}

std::string SimulatedScale::line(double seconds) {
    std::normal_distribution<double> normal(0, 1);
    sincePut_s_ += seconds;
    lies_g_ += (target_g_ - lies_g_) * (1 - std::exp(-seconds / nature_.settles_s));
    drift_g_ += driftRate_ * seconds;
    const double tremble = nature_.tremble_g * std::exp(-sincePut_s_ / nature_.settles_s) * normal(random_);
    const double weighs = nature_.gain * lies_g_ + drift_g_ + tremble + nature_.noise_g * normal(random_);
    shown_g_ = std::round(weighs / nature_.step_g) * nature_.step_g;
    if (shown_g_ == 0) shown_g_ = 0; // no minus before a zero
    constexpr int kSteady = 4;       // readings within a step
    steady_ = std::abs(shown_g_ - before_g_) <= nature_.step_g * 1.01 ? steady_ + 1 : 0;
    before_g_ = shown_g_;
    return fmt::format("{},GS,{}{:8.1f} g\r\n", steady_ >= kSteady ? "ST" : "US", shown_g_ < 0 ? '-' : '+',
                       std::abs(shown_g_));
}

} // namespace waxis
