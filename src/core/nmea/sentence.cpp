#include "core/nmea/sentence.h"

#include <algorithm>
#include <array>
#include <bit>
#include <cstdint>
#include <cstring>
#include <fmt/format.h>

namespace waxis {

namespace {

unsigned sumOf(std::string_view body) {
    unsigned sum = 0;
    for (const unsigned char c : body) sum ^= c;
    return sum;
}

/// What one walk over a sentence finds. Eight bytes at a time: streams of ten rounds a second come in.
struct Walk {
    unsigned sum = 0;    ///< XOR of all bytes
    bool isClean = true; ///< printable ASCII throughout
    std::array<std::uint8_t, kLongestNmea> commas;
    std::size_t commaCount = 0;
};

void walk(std::string_view body, Walk &found) {
    constexpr std::uint64_t kHigh = 0x8080808080808080u, kBlank = 0x2020202020202020u, kOne = 0x0101010101010101u,
                            kComma = 0x2c2c2c2c2c2c2c2cu;
    std::uint64_t all = 0, bad = 0;
    std::size_t i = 0;
    for (; i + 8 <= body.size(); i += 8) {
        std::uint64_t word;
        std::memcpy(&word, body.data() + i, 8);
        all ^= word;
        // The high bit where a byte is over 126 or under 32 (a borrow runs on from a byte that is bad itself).
        bad |= (word | (word - kBlank) | (word + kOne)) & kHigh;
        const std::uint64_t off = word ^ kComma;
        for (std::uint64_t hits = ~(((off & ~kHigh) + ~kHigh) | off | ~kHigh); hits != 0; hits &= hits - 1)
            found.commas[found.commaCount++] = std::uint8_t(i + std::size_t(std::countr_zero(hits)) / 8);
    }
    for (int fold = 32; fold >= 8; fold /= 2) all ^= all >> fold;
    found.sum = unsigned(all & 0xff);
    found.isClean = bad == 0;
    for (; i < body.size(); ++i) {
        const auto c = static_cast<unsigned char>(body[i]);
        found.isClean &= c >= ' ' && c <= '~';
        found.sum ^= c;
        if (c == ',') found.commas[found.commaCount++] = std::uint8_t(i);
    }
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
    Walk found;
    walk(body, found);
    if (!found.isClean) return failure("a character that no sentence has");
    const unsigned sum = found.sum;
    if (star != std::string_view::npos) {
        const std::string_view given = line.substr(star + 1);
        const int high = given.size() == 2 ? hexDigit(given[0]) : -1, low = given.size() == 2 ? hexDigit(given[1]) : -1;
        if (high < 0 || low < 0) return failure("the checksum is not two hexadecimal digits");
        if (unsigned(high * 16 + low) != sum)
            return failure(fmt::format("checksum {:02X} expected, {} found", sum, given));
        sentence.isChecked = true;
    }
    if (found.commaCount > kMostNmeaFields) return failure(fmt::format("more than {} fields", kMostNmeaFields));
    const std::string_view address = body.substr(0, found.commaCount > 0 ? found.commas[0] : body.size());
    for (std::size_t i = 0; i < found.commaCount; ++i) {
        const std::size_t begin = found.commas[i] + std::size_t(1);
        const std::size_t end = i + 1 < found.commaCount ? found.commas[i + 1] : body.size();
        sentence.fields.push_back({body.data() + begin, end - begin});
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
