// Copper wire by AWG: diameter, resistance, mass, and what the trade lets it carry.
#pragma once

#include <optional>
#include <span>

namespace waxis {

/// Diameter of the solid conductor, mm: 0.127 x 92^((36-n)/39). Source: ASTM B258. Any whole gauge from 0000 (-3)
/// to 40.
double awgDiameter_mm(int awg);
double awgArea_mm2(int awg);

/// Resistance per metre, milliohm, of that area in annealed copper: 1/58 ohm mm2/m at 20 degrees, 0.393 % a degree
/// (IEC 60028). Stranded wire is 2 to 5 % higher.
double awgResistance_mohm_m(int awg, double temperature_C = 20);
/// Copper per metre, g: 8.89 g/cm3 (IEC 60028).
double awgCopper_g_m(int awg);

/// A flexible silicone wire as it is sold.
struct WireStock {
    int awg = 0;
    double outer_mm = 0;  ///< over the jacket; common practice, no source, +-10 %
    double mass_g_m = 0;  ///< with jacket; common practice, no source, +-20 %
    double carries_A = 0; ///< "chassis wiring" of the Handbook of Electronic Tables and Formulas, from memory
};
/// Even gauges from 8 to 30, thick ones first.
std::span<const WireStock> wireStock();
/// Null for a gauge that is not in stock.
const WireStock *findWireStock(int awg);

/// Current that warms the wire by `rise_K` in still air, A: heat through the jacket at 15 W/m2K (an estimate, +-30 %).
double warmingCurrent_A(int awg, double rise_K);

/// The lightest stock gauge that carries the current; none: more than the thickest does.
std::optional<int> lightestGauge(double current_A);

/// A pair of wires there and back.
struct LoopDrop {
    double resistance_mohm = 0, drop_V = 0, loss_W = 0;
};
/// `oneWay_mm` is the length of one of the two.
LoopDrop loopDrop(int awg, double oneWay_mm, double current_A, double temperature_C = 20);

} // namespace waxis
