#include "core/nmea/sentence.h"

#include <fmt/format.h>

namespace waxis {

namespace {

constexpr std::size_t kLongest = 120;

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

Failure<NmeaError> failure(std::string reason) { return Failure{NmeaError{std::move(reason), -1}}; }

} // namespace

std::string nmeaChecksum(std::string_view body) { return fmt::format("{:02X}", sumOf(body)); }

Result<NmeaSentence, NmeaError> parseNmea(std::string_view line) {
    while (!line.empty() && (line.back() == '\r' || line.back() == '\n')) line.remove_suffix(1);
    if (line.empty() || line.front() != '$') return failure("a sentence begins with $");
    if (line.size() > kLongest) return failure(fmt::format("more than {} characters", kLongest));
    for (const char c : line)
        if (c < ' ' || c > '~') return failure("a character that no sentence has");
    NmeaSentence sentence;
    std::string_view body = line.substr(1);
    if (const auto star = body.find('*'); star != std::string_view::npos) {
        const std::string_view given = body.substr(star + 1);
        body = body.substr(0, star);
        const int high = given.size() == 2 ? hexDigit(given[0]) : -1, low = given.size() == 2 ? hexDigit(given[1]) : -1;
        if (high < 0 || low < 0) return failure("the checksum is not two hexadecimal digits");
        if (unsigned(high * 16 + low) != sumOf(body))
            return failure(fmt::format("checksum {} expected, {} found", nmeaChecksum(body), given));
        sentence.isChecked = true;
    }
    for (std::size_t from = 0; from <= body.size();) {
        const std::size_t comma = std::min(body.find(',', from), body.size());
        sentence.fields.emplace_back(body.substr(from, comma - from));
        from = comma + 1;
    }
    const std::string address = sentence.fields.front();
    sentence.fields.erase(sentence.fields.begin());
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
    return sentence;
}

} // namespace waxis
