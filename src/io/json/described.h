// How a struct is described once, for reading, writing and whatever else walks through its fields.
//
// `describe(visitor, value)` names each field with its key, in the order of files. The visitor has
//   must(key, field)              a field that files always hold
//   sparse(key, field, standard)  one that is left out where it is standard: what nothing was said of, unless given
//   when(condition, key, field)   one that is written on a condition
//   unit, sparseUnit              vectors of length 1
//   pose(field)                   position_mm and rotation
//   reads                         whether it fills the fields or looks at them
// Tables of structs by their ids are lists in files, in the order of the ids.
#pragma once

#include "core/base/shared_value.h"
#include "core/geometry/pose.h"

#include <array>
#include <concepts>
#include <map>
#include <optional>
#include <string>
#include <type_traits>
#include <vector>

namespace waxis::io {

/// T, constant or not.
template <class A, class T>
concept Is = std::same_as<std::remove_const_t<A>, T>;

/// Structs are; numbers, words, vectors and lists of them stand for themselves.
template <class T>
inline constexpr bool isDescribed = std::is_class_v<T>;
template <>
inline constexpr bool isDescribed<std::string> = false;
template <>
inline constexpr bool isDescribed<Vec2> = false;
template <>
inline constexpr bool isDescribed<Vec3> = false;
template <>
inline constexpr bool isDescribed<Mat3> = false;
template <>
inline constexpr bool isDescribed<std::array<int, 3>> = false;
template <class T>
inline constexpr bool isDescribed<std::optional<T>> = false;
template <class T>
inline constexpr bool isDescribed<std::vector<T>> = false;
template <class V>
inline constexpr bool isDescribed<std::map<std::string, V>> = false;
template <class T>
inline constexpr bool isDescribed<SharedValue<T>> = false;

} // namespace waxis::io
