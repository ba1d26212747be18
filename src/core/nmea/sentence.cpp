#include "core/nmea/sentence.h"

#include <algorithm>
#include <cstring>
#include <fmt/format.h>

namespace waxis {

namespace {

unsigned sumOf(std::string_view body) {
    unsigned sum = 0;
    for (const unsigned char c : body) sum ^= c;
    return sum;
}

int hexDigit(char c) {
    if (c >= '0' && c <= '9') return c - '0';
    if (c >= 'A' && c <= 'F') return c - 'A' + 10;
    if (c >= 'a' && c <= 'f') return c - 'a' + 10;
    return -1;
}

NmeaError failure(std::string reason) { return {std::move(reason), -1}; }

} // namespace

std::string nmeaChecksum(std::string_view body) { return fmt::format("{:02X}", sumOf(body)); }

std::optional<NmeaError> readNmea(std::string_view line, NmeaSentence &sentence) {
    while (!line.empty() && (line.back() == '\r' || line.back() == '\n')) line.remove_suffix(1);
    if (line.empty() || line.front() != '$') return failure("a sentence begins with $");
    if (line.size() > kLongestNmea) return failure(fmt::format("more than {} characters", kLongestNmea));
    sentence.fields.clear();
    sentence.isChecked = false;
    const std::size_t star = line.find('*');
    const std::string_view body = line.substr(1, star == std::string_view::npos ? star : star - 1);
    // One walk for what is not allowed, the sum and the commas.
    unsigned sum = 0;
    bool isClean = true;
    for (const unsigned char c : body) {
        isClean &= c >= ' ' && c <= '~';
        sum ^= c;
    }
    if (!isClean) return failure("a character that no sentence has");
    if (star != std::string_view::npos) {
        const std::string_view given = line.substr(star + 1);
        const int high = given.size() == 2 ? hexDigit(given[0]) : -1, low = given.size() == 2 ? hexDigit(given[1]) : -1;
        if (high < 0 || low < 0) return failure("the checksum is not two hexadecimal digits");
        if (unsigned(high * 16 + low) != sum)
            return failure(fmt::format("checksum {:02X} expected, {} found", sum, given));
        sentence.isChecked = true;
    }
    const std::size_t address_end = std::min(body.find(','), body.size());
    const std::string_view address = body.substr(0, address_end);
    for (std::size_t from = address_end; from < body.size();) {
        const std::size_t begin = from + 1;
        const void *comma = std::memchr(body.data() + begin, ',', body.size() - begin);
        from = comma ? std::size_t(static_cast<const char *>(comma) - body.data()) : body.size();
        if (!sentence.fields.push_back(body.substr(begin, from - begin)))
            return failure(fmt::format("more than {} fields", kMostNmeaFields));
    }
    constexpr std::size_t kTalker = 2, kType = 3;
    if (address.starts_with('P') && address.size() > 1) {
        sentence.talker = "P";
        sentence.type = address.substr(1);
    } else if (address.size() == kTalker + kType) {
        sentence.talker = address.substr(0, kTalker);
        sentence.type = address.substr(kTalker);
    } else {
        return failure("talker and type are five letters");
    }
    return std::nullopt;
}

Result<NmeaSentence, NmeaError> parseNmea(std::string_view line) {
    NmeaSentence sentence;
    if (auto error = readNmea(line, sentence)) return Failure{std::move(*error)};
    return sentence;
}

} // namespace waxis
