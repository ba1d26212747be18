// An entry as it is typed: one line, the quantity chosen by its first letters.
//
//   weight gps 12.4 g            flight 9:40 1850 mAh calm, a little jello
//   w gps 12.4 ± 0.1             seen jello 2 above half throttle
#pragma once

#include "core/base/result.h"
#include "core/build/build.h"
#include "core/build/log.h"
#include "core/log/quantities.h"

#include <string>
#include <string_view>
#include <vector>

namespace waxis {

struct EntryTextError {
    std::size_t at = 0;     ///< byte of the line at which it cannot be read on
    std::string message;    ///< "\"gpx\" is no part of this build"
    std::string suggestion; ///< what was probably meant; empty: nothing near
};

/// Quantity by its key or the first letters of one (the first in the book where several begin so); then what it is of,
/// by id or name or the first letters of only one name; values with units, ± a doubt behind the first; the rest is
/// text. `wanted`: a quantity that is chosen already, and the line begins with what it is of. Only quantity, subjects,
/// values, tolerance, word and text are filled in. Errors: what cannot be read, and where.
Result<Entry, EntryTextError> readEntry(const Build &build, std::string_view line, const Quantity *wanted = nullptr);

/// As it could be typed again: "weight gps 12.4 g ± 0.1".
std::string entryLine(const Build &build, const Entry &entry);

/// What the last word of the line could become: keys at its beginning, ids and names behind; 12 at most.
std::vector<std::string> entryCompletions(const Build &build, std::string_view line);

/// Empty: an entry as its quantity wants it. Else what is wrong, in a sentence: values that are missing or too many,
/// out of their range, no subject where there has to be one.
std::string faultOf(const Entry &entry);

} // namespace waxis
