// Heights that spacers, dampers and standoffs are sold in, mm (common practice, no source).
#pragma once

#include <array>

namespace waxis {

inline constexpr std::array<double, 9> kSpacerHeights_mm{2, 3, 4, 5, 6, 8, 10, 12, 15};
inline constexpr std::array<double, 5> kDamperHeights_mm{2, 3, 4, 5, 6};
inline constexpr std::array<double, 10> kStandoffHeights_mm{15, 18, 20, 22, 25, 28, 30, 35, 40, 45};

} // namespace waxis
