// d, A, R, m: conductor diameter, area, resistance and copper mass per metre; rho = rho20 (1 + alpha (T - 20)).
// Equations: ASTM B258 (diameters), IEC 60028 (resistivity, density, temperature coefficient).
#include "core/wiring/gauge.h"

#include "core/base/units.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace waxis {

namespace {

constexpr double kResistivity_ohm_mm2_m = 1.0 / 58.0, kPerKelvin = 0.00393, kCopper_g_cm3 = 8.89;

constexpr std::array<WireStock, 12> kStock{{{8, 6.3, 99.5, 73},
                                            {10, 5.5, 67.8, 55},
                                            {12, 4.5, 43.8, 41},
                                            {14, 3.5, 27.1, 32},
                                            {16, 3.0, 18.3, 22},
                                            {18, 2.3, 11.1, 16},
                                            {20, 1.8, 6.9, 11},
                                            {22, 1.7, 5.2, 7},
                                            {24, 1.6, 4.0, 3.5},
                                            {26, 1.5, 3.1, 2.2},
                                            {28, 1.2, 2.0, 1.4},
                                            {30, 0.8, 1.0, 0.86}}};

} // namespace

double awgDiameter_mm(int awg) { return 0.127 * std::pow(92.0, (36.0 - awg) / 39.0); }
double awgArea_mm2(int awg) { return kPi / 4 * awgDiameter_mm(awg) * awgDiameter_mm(awg); }

double awgResistance_mohm_m(int awg, double temperature_C) {
    return 1e3 * kResistivity_ohm_mm2_m / awgArea_mm2(awg) * (1 + kPerKelvin * (temperature_C - 20));
}

double awgCopper_g_m(int awg) { return awgArea_mm2(awg) * kCopper_g_cm3; }

std::span<const WireStock> wireStock() { return kStock; }

const WireStock *findWireStock(int awg) {
    const auto at = std::find_if(kStock.begin(), kStock.end(), [&](const WireStock &s) { return s.awg == awg; });
    return at == kStock.end() ? nullptr : &*at;
}

double warmingCurrent_A(int awg, double rise_K) {
    constexpr double kFilm_W_m2K = 15;
    const WireStock *stock = findWireStock(awg);
    const double outer_m = (stock ? stock->outer_mm : 1.8 * awgDiameter_mm(awg)) * 1e-3;
    const double resistance_ohm_m = awgResistance_mohm_m(awg, 20 + rise_K) * 1e-3;
    return std::sqrt(kFilm_W_m2K * kPi * outer_m * std::max(0.0, rise_K) / resistance_ohm_m);
}

std::optional<int> lightestGauge(double current_A) {
    for (auto stock = kStock.rbegin(); stock != kStock.rend(); ++stock)
        if (stock->carries_A >= current_A) return stock->awg;
    return std::nullopt;
}

LoopDrop loopDrop(int awg, double oneWay_mm, double current_A, double temperature_C) {
    LoopDrop drop;
    drop.resistance_mohm = 2 * awgResistance_mohm_m(awg, temperature_C) * oneWay_mm * 1e-3;
    drop.drop_V = drop.resistance_mohm * 1e-3 * current_A;
    drop.loss_W = drop.drop_V * current_A;
    return drop;
}

} // namespace waxis
