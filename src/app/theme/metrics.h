// Sizes in device-independent pixels on a 4 px grid.
#pragma once

namespace waxis::theme {

inline constexpr int kUnit = 4;
inline constexpr int kRailWidth = 76;
inline constexpr int kLedgerWidth = 344;
inline constexpr int kAxisBarHeight = 72;
inline constexpr int kChipBarHeight = 32;
inline constexpr int kCorner = 3;
inline constexpr int kTextPixels = 13;
inline constexpr int kSmallPixels = 11;
inline constexpr int kHeadPixels = 15;
inline constexpr int kBigNumberPixels = 20;

} // namespace waxis::theme
