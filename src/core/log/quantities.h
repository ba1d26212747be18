// What can be entered: names, units, how many numbers, what they are of.
#pragma once

#include "core/base/quantity.h"
#include "core/build/log.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace waxis {

/// What an entry is of.
enum class EntrySubject {
    none,     ///< the whole craft
    part,     ///< a part, plate, arm, post or kit item
    wire,     ///< a wire
    something ///< anything with an id, or nothing
};

struct ValueKind {
    std::string_view name; ///< "after", empty for the first
    Measure measure;       ///< and with it the unit that values are kept in
    double least = 0, most = 0;
};

struct QuantityInfo {
    Quantity quantity;
    std::string_view key;   ///< typed: "weight"
    std::string_view title; ///< "Part weighed"
    std::string_view example;
    EntrySubject subject;
    int least; ///< how many values there have to be
    std::span<const ValueKind> values;
    double doubt;      ///< of the first value, +- 2 sigma, where none is said: in its unit
    double doubtShare; ///< and as a share of it; the larger counts (common practice, no source)
};

std::span<const QuantityInfo> quantityBook();
const QuantityInfo &quantityInfo(Quantity quantity);

/// +- 2 sigma of an entry's first value: its own, else the quantity's usual.
double doubtOf(const Entry &entry);

/// What can be seen in the picture and in flight, from a list.
struct SeenWord {
    std::string_view id, title;
};
std::span<const SeenWord> seenWords();

/// "12.4 g", "9.7 min, 1850 mAh": the values of an entry in words.
std::string valuesInWords(const Entry &entry);

} // namespace waxis
