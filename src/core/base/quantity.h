// Quantities as people type them: a number, and a unit behind it where they like.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace waxis {

/// What a field holds; its own unit counts where none is typed.
enum class Measure {
    number,    ///< no unit at all
    length,    ///< mm; also cm, m, in, ", ', ft, mil, um
    mass,      ///< g; also mg, kg, oz, lb
    angle,     ///< degrees; also rad
    current,   ///< A; also mA
    voltage,   ///< V; also mV
    level,     ///< dBm; also mW, W
    power,     ///< mW; also W, dBm
    frequency, ///< MHz; also Hz, kHz, GHz
    distance,  ///< m; also mm, cm, km, ft
    gauge,     ///< AWG; also mm2
    minutes,   ///< min; also s, h, and 9:40
    seconds,   ///< s; also ms, min, h, and 2:10
    percent,   ///< %
    thrust,    ///< grams-force; also N, kgf
    capacity,  ///< mAh; also Ah
    decibel,   ///< dB
    field,     ///< microtesla; also nT, mT, G
    heat       ///< °C; also F
};

/// The unit that counts where none is typed: "mm", "g", "°", "%", "" ...
std::string_view unitOf(Measure measure);

/// The value in the measure's own unit. Decimal point or comma, a sign (ASCII or typographic), spaces anywhere but
/// within the number. None for no number, more than one, an unknown unit or one of another kind ("7 g" as a length),
/// and for what is not finite or has no meaning (0 mW in dBm).
std::optional<double> readQuantity(std::string_view text, Measure measure);

/// What was wrong, in one sentence: "\"7 g\" is no length: millimetres are wanted, or cm, m, in, mil."
std::string wrongQuantity(std::string_view text, Measure measure);

} // namespace waxis
