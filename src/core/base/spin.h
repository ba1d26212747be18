// Which way a motor, propeller or nut turns.
#pragma once

namespace waxis {

enum class Spin { clockwise, counterClockwise }; ///< seen from above

constexpr Spin opposite(Spin spin) { return spin == Spin::clockwise ? Spin::counterClockwise : Spin::clockwise; }

} // namespace waxis
