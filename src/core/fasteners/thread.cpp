#include "core/fasteners/thread.h"

#include "core/base/units.h"
#include "core/fasteners/all_threads.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace waxis {

namespace {

/// The usual sizes first, in their order; then those that are met now and then: in digital units (M1.4, M1.7), on
/// shafts.
constexpr std::size_t kUsual = 5;
constexpr std::array<ThreadSize, 8> kTable{{
    // name, d, P, dk, key, nut m, nut s, washer h, washer d2, fine, medium, coarse
    {"M1.6", 1.6, 0.35, 3.0, 1.5, 1.3, 3.2, 0.3, 4.0, 1.7, 1.8, 2.0},
    {"M2", 2.0, 0.4, 3.8, 1.5, 1.6, 4.0, 0.3, 5.0, 2.2, 2.4, 2.6},
    {"M2.5", 2.5, 0.45, 4.5, 2.0, 2.0, 5.0, 0.5, 6.0, 2.7, 2.9, 3.1},
    {"M3", 3.0, 0.5, 5.5, 2.5, 2.4, 5.5, 0.5, 7.0, 3.2, 3.4, 3.6},
    {"M4", 4.0, 0.7, 7.0, 3.0, 3.2, 7.0, 0.8, 9.0, 4.3, 4.5, 4.8},
    {"M1.4", 1.4, 0.3, 2.6, 1.3, 1.2, 3.0, 0.3, 3.0, 1.5, 1.6, 1.8},
    {"M1.7", 1.7, 0.35, 3.2, 1.5, 1.4, 3.5, 0.3, 4.0, 1.8, 2.0, 2.1},
    {"M5", 5.0, 0.8, 8.5, 4.0, 4.7, 8.0, 1.0, 10.0, 5.3, 5.5, 5.8},
}};

} // namespace

std::span<const ThreadSize> threadSizes() { return {kTable.data(), kUsual}; }
std::span<const ThreadSize> allThreads() { return kTable; }

const ThreadSize *findThread(std::string_view name) {
    const auto at = std::find_if(kTable.begin(), kTable.end(), [&](const ThreadSize &t) { return t.name == name; });
    return at == kTable.end() ? nullptr : &*at;
}

double stressArea_mm2(const ThreadSize &thread) {
    const double d = thread.nominal_mm - 0.9382 * thread.pitch_mm;
    return kPi / 4 * d * d;
}

std::optional<ScrewHole> screwForHole(double diameter_mm, double tolerance_mm) {
    std::optional<ScrewHole> best;
    auto offer = [&](const ThreadSize &thread, HoleFit fit, double tableDiameter_mm) {
        const double off = diameter_mm - tableDiameter_mm;
        if (!(std::abs(off) <= tolerance_mm + 1e-9)) return;
        if (!best || std::abs(off) < std::abs(best->off_mm) - 1e-9) best = ScrewHole{&thread, fit, off};
    };
    for (const auto &thread : threadSizes()) {
        offer(thread, HoleFit::fine, thread.fineHole_mm);
        offer(thread, HoleFit::medium, thread.mediumHole_mm);
        offer(thread, HoleFit::coarse, thread.coarseHole_mm);
    }
    for (const auto &thread : threadSizes()) offer(thread, HoleFit::tight, thread.nominal_mm);
    return best;
}

} // namespace waxis
