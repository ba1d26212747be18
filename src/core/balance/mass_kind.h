// What a row of the weights stands for, and under which bar it is counted.
#pragma once

namespace waxis {

enum class MassKind { part, plate, arm, standoff, allowance, fastening, wire };

/// One bar: a part family, or a kind of what is not placed.
enum class GramGroup {
    power,
    control,
    radio,
    sensing,
    imaging,
    load,
    mounts,   ///< parts of the family structure
    plates,   ///< plates, arms and standoffs
    hardware, ///< screws, nuts, dampers, tape, ties, straps
    wires,
    allowances
};
inline constexpr int kGramGroups = 11;

} // namespace waxis
