// One line as satellite receivers send it: NMEA 0183 (from memory of the standard).
#pragma once

#include "core/base/result.h"
#include "core/base/short_list.h"

#include <optional>
#include <string>
#include <string_view>

namespace waxis {

inline constexpr std::size_t kMostNmeaFields = 40;
/// The standard's 82 are exceeded by receivers in use.
inline constexpr std::size_t kLongestNmea = 120;

/// Views of the line that was read, which has to outlive it.
struct NmeaSentence {
    std::string_view talker; ///< "GP", "GL", "GA", "GB", "BD", "GQ", "GN"; "P": a maker's own
    std::string_view type;   ///< "GGA"; of a maker's own all that follows the P
    ShortList<std::string_view, kMostNmeaFields> fields; ///< after the type; empty ones kept
    bool isChecked = false;                              ///< it had a checksum, and that is right
};

struct NmeaError {
    std::string reason; ///< "checksum 64 expected, 65 found"
    int field = -1;     ///< of a field that cannot be read, from 0; -1: the sentence as a whole
    std::string text() const { return field < 0 ? reason : "field " + std::to_string(field + 1) + ": " + reason; }
};

/// XOR of all characters, as two upper-case hexadecimal digits.
std::string nmeaChecksum(std::string_view body);

/// A line with or without its end; a missing checksum is no error. Errors: no $, characters that are none of a
/// sentence, more than kLongestNmea characters or kMostNmeaFields fields, a checksum that is wrong or no number, no
/// type.
Result<NmeaSentence, NmeaError> parseNmea(std::string_view line);
/// The same into a sentence that is used again, for streams; after an error it holds nothing of use.
std::optional<NmeaError> readNmea(std::string_view line, NmeaSentence &sentence);

} // namespace waxis
