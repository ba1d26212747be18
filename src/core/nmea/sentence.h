// One line as satellite receivers send it: NMEA 0183 (from memory of the standard).
#pragma once

#include "core/base/result.h"

#include <string>
#include <string_view>
#include <vector>

namespace waxis {

struct NmeaSentence {
    std::string talker;              ///< "GP", "GL", "GA", "GB", "BD", "GQ", "GN"; "P": a maker's own
    std::string type;                ///< "GGA"; of a maker's own all that follows the P
    std::vector<std::string> fields; ///< after the type; empty ones kept
    bool isChecked = false;          ///< it had a checksum, and that is right
};

struct NmeaError {
    std::string reason; ///< "checksum 64 expected, 65 found"
    int field = -1;     ///< of a field that cannot be read, from 0; -1: the sentence as a whole
    std::string text() const { return field < 0 ? reason : "field " + std::to_string(field + 1) + ": " + reason; }
};

/// XOR of all characters, as two upper-case hexadecimal digits.
std::string nmeaChecksum(std::string_view body);

/// A line with or without its end; a missing checksum is no error. Errors: no $, characters that are none of a
/// sentence, more than 120 characters (the standard's 82 are exceeded by receivers in use), a checksum that is wrong or
/// no number, no type.
Result<NmeaSentence, NmeaError> parseNmea(std::string_view line);

} // namespace waxis
