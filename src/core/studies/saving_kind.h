// Where grams can be saved.
#pragma once

namespace waxis {

enum class SavingKind {
    material, ///< placed fasteners of one type in a lighter material
    drawnNot, ///< screws that hold parts and are not placed: counted as steel
    gauge,    ///< a thinner wire that still carries its current
    lead,     ///< a supplied or ready-made lead that is longer than it need be
    leaveOut  ///< an optional part of this load case
};

} // namespace waxis
