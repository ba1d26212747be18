#include "core/nmea/fixes.h"

#include <array>
#include <charconv>
#include <cmath>
#include <cstdint>
#include <fmt/format.h>
#include <type_traits>

namespace waxis {

namespace {

constexpr double kKnot_ms = 1852.0 / 3600.0;

/// Reads fields one after the other and remembers the first that cannot be read.
class Fields {
public:
    explicit Fields(const NmeaSentence &sentence) : fields_(sentence.fields) {}

    const std::optional<NmeaError> &error() const { return error_; }
    bool has(std::size_t i) const { return i < fields_.size() && !fields_[i].empty(); }
    std::size_t count() const { return fields_.size(); }
    std::string_view text(std::size_t i) const { return i < fields_.size() ? fields_[i] : std::string_view(); }

    std::optional<double> number(std::size_t i) { return read<double>(i, "number"); }
    std::optional<int> whole(std::size_t i) { return read<int>(i, "whole number"); }
    /// hhmmss.ss
    std::optional<double> time_s(std::size_t i) {
        const auto value = number(i);
        if (!value) return std::nullopt;
        const double hours = std::floor(*value / 10000), minutes = std::floor(std::fmod(*value, 10000) / 100),
                     seconds = std::fmod(*value, 100);
        if (*value < 0 || hours > 23 || minutes > 59 || seconds >= 61) {
            fail(i, fmt::format("\"{}\" is no time", fields_[i]));
            return std::nullopt;
        }
        return hours * 3600 + minutes * 60 + seconds;
    }
    /// ddmm.mmmm and its letter, twice.
    std::optional<GeoPlace> place(std::size_t i) {
        const auto latitude = angle(i, 90, 'N', 'S'), longitude = angle(i + 2, 180, 'E', 'W');
        if (!latitude || !longitude) return std::nullopt;
        return GeoPlace{*latitude, *longitude};
    }
    void fail(std::size_t i, std::string reason) {
        if (!error_) error_ = NmeaError{std::move(reason), int(i)};
    }

private:
    /// All of the field, finite.
    template <class Value>
    std::optional<Value> read(std::size_t i, const char *what) {
        if (!has(i)) return std::nullopt;
        const std::string_view text = fields_[i];
        // Most fields are a few digits, with a point at most: exact, since both numbers of the quotient are.
        constexpr std::size_t kFew = 15;
        if (text.size() <= kFew) {
            constexpr std::array<double, kFew + 1> kTen{1,   1e1, 1e2,  1e3,  1e4,  1e5,  1e6,  1e7,
                                                        1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15};
            std::int64_t digits = 0;
            std::size_t point = text.size();
            bool isPlain = text.front() != '.' && text.back() != '.';
            for (std::size_t at = 0; at < text.size() && isPlain; ++at) {
                const char c = text[at];
                if (c == '.' && point == text.size())
                    point = at;
                else if (c >= '0' && c <= '9')
                    digits = digits * 10 + (c - '0');
                else
                    isPlain = false;
            }
            const std::size_t behind = point == text.size() ? 0 : text.size() - point - 1;
            if constexpr (std::is_same_v<Value, double>) {
                if (isPlain) return double(digits) / kTen[behind];
            } else {
                constexpr std::size_t kOfAnInt = 9;
                if (isPlain && behind == 0 && point == text.size() && text.size() <= kOfAnInt) return Value(digits);
            }
        }
        Value value{};
        const auto [end, fault] = std::from_chars(text.data(), text.data() + text.size(), value);
        if (fault == std::errc() && end == text.data() + text.size() && std::isfinite(double(value))) return value;
        fail(i, fmt::format("\"{}\" is no {}", text, what));
        return std::nullopt;
    }
    std::optional<double> angle(std::size_t i, double most_deg, char plus, char minus) {
        const auto value = number(i);
        if (!value) return std::nullopt;
        const double degrees = std::floor(*value / 100), minutes = *value - 100 * degrees;
        const std::string_view letter = text(i + 1);
        if (letter.size() != 1 || (letter[0] != plus && letter[0] != minus)) {
            fail(i + 1, fmt::format("{} or {} expected", plus, minus));
            return std::nullopt;
        }
        const double angle_deg = degrees + minutes / 60;
        if (*value < 0 || minutes >= 60 || angle_deg > most_deg) {
            fail(i, fmt::format("\"{}\" is no place on earth", fields_[i]));
            return std::nullopt;
        }
        return letter[0] == plus ? angle_deg : -angle_deg;
    }

    const ShortList<std::string_view, kMostNmeaFields> &fields_;
    std::optional<NmeaError> error_;
};

std::optional<NmeaError> isNot(const NmeaSentence &sentence, const char *type, std::size_t least) {
    if (sentence.type != type) return NmeaError{fmt::format("{} expected, {} found", type, sentence.type), -1};
    if (sentence.fields.size() < least)
        return NmeaError{fmt::format("{} fields expected, {} found", least, sentence.fields.size()), -1};
    return std::nullopt;
}

template <class Value>
Result<Value, NmeaError> orError(Value value, const Fields &fields) {
    if (fields.error()) return Failure{*fields.error()};
    return value;
}

} // namespace

Result<GgaFix, NmeaError> ggaFrom(const NmeaSentence &sentence) {
    if (const auto error = isNot(sentence, "GGA", 14)) return Failure{*error};
    Fields fields(sentence);
    GgaFix fix;
    fix.time_s = fields.time_s(0);
    fix.place = fields.place(1);
    fix.quality = fields.whole(5).value_or(0);
    fix.satellites = fields.whole(6);
    fix.hdop = fields.number(7);
    fix.altitude_m = fields.number(8);
    fix.geoidSeparation_m = fields.number(10);
    return orError(std::move(fix), fields);
}

Result<RmcFix, NmeaError> rmcFrom(const NmeaSentence &sentence) {
    if (const auto error = isNot(sentence, "RMC", 9)) return Failure{*error};
    Fields fields(sentence);
    RmcFix fix;
    fix.time_s = fields.time_s(0);
    fix.isValid = fields.text(1) == "A";
    fix.place = fields.place(2);
    if (const auto knots = fields.number(6)) fix.speed_ms = *knots * kKnot_ms;
    fix.course_deg = fields.number(7);
    if (const auto date = fields.whole(8)) {
        const int day = *date / 10000, month = *date / 100 % 100, year = *date % 100;
        if (*date < 0 || day < 1 || day > 31 || month < 1 || month > 12) {
            fields.fail(8, fmt::format("\"{}\" is no date", fields.text(8)));
        } else {
            fix.day = day;
            fix.month = month;
            constexpr int kFirst = 80; // satellite receivers are younger
            fix.year = year + (year < kFirst ? 2000 : 1900);
        }
    }
    return orError(std::move(fix), fields);
}

Result<GsaUse, NmeaError> gsaFrom(const NmeaSentence &sentence) {
    constexpr std::size_t kFirst = 2, kSatellites = 12, kFields = 17;
    if (const auto error = isNot(sentence, "GSA", kFields)) return Failure{*error};
    Fields fields(sentence);
    GsaUse use;
    use.fix = fields.whole(1).value_or(1);
    for (std::size_t i = kFirst; i < kFirst + kSatellites; ++i)
        if (const auto number = fields.whole(i)) use.satellites.push_back(*number);
    use.pdop = fields.number(14);
    use.hdop = fields.number(15);
    use.vdop = fields.number(16);
    use.system = fields.whole(17);
    return orError(std::move(use), fields);
}

std::optional<NmeaError> readGsv(const NmeaSentence &sentence, GsvPart &part) {
    constexpr std::size_t kFirst = 3, kEach = 4;
    if (const auto error = isNot(sentence, "GSV", kFirst)) return error;
    Fields fields(sentence);
    part.satellites.clear();
    part.signal = {};
    part.parts = fields.whole(0).value_or(1);
    part.part = fields.whole(1).value_or(1);
    part.inView = fields.whole(2).value_or(0);
    std::size_t i = kFirst;
    for (; i + kEach <= fields.count(); i += kEach) {
        const auto number = fields.whole(i);
        if (!number) continue;
        part.satellites.push_back({*number, fields.number(i + 1), fields.number(i + 2), fields.number(i + 3)});
    }
    if (i + 1 == fields.count()) part.signal = fields.text(i); // a field over
    return fields.error();
}

Result<GsvPart, NmeaError> gsvFrom(const NmeaSentence &sentence) {
    GsvPart part;
    if (auto error = readGsv(sentence, part)) return Failure{std::move(*error)};
    return part;
}

Result<GllFix, NmeaError> gllFrom(const NmeaSentence &sentence) {
    if (const auto error = isNot(sentence, "GLL", 5)) return Failure{*error};
    Fields fields(sentence);
    GllFix fix;
    fix.place = fields.place(0);
    fix.time_s = fields.time_s(4);
    fix.isValid = fields.count() < 6 || fields.text(5) == "A"; // before version 2.0 nothing was said of it
    return orError(std::move(fix), fields);
}

Result<VtgTrack, NmeaError> vtgFrom(const NmeaSentence &sentence) {
    if (const auto error = isNot(sentence, "VTG", 8)) return Failure{*error};
    Fields fields(sentence);
    VtgTrack track;
    track.course_deg = fields.number(0);
    constexpr double kKmh_ms = 1 / 3.6;
    if (const auto knots = fields.number(4))
        track.speed_ms = *knots * kKnot_ms;
    else if (const auto kmh = fields.number(6))
        track.speed_ms = *kmh * kKmh_ms;
    return orError(std::move(track), fields);
}

Result<ZdaTime, NmeaError> zdaFrom(const NmeaSentence &sentence) {
    if (const auto error = isNot(sentence, "ZDA", 4)) return Failure{*error};
    Fields fields(sentence);
    ZdaTime time;
    time.time_s = fields.time_s(0);
    time.day = fields.whole(1);
    time.month = fields.whole(2);
    time.year = fields.whole(3);
    if (time.day && (*time.day < 1 || *time.day > 31)) fields.fail(1, fmt::format("\"{}\" is no day", fields.text(1)));
    if (time.month && (*time.month < 1 || *time.month > 12))
        fields.fail(2, fmt::format("\"{}\" is no month", fields.text(2)));
    return orError(std::move(time), fields);
}

Result<TxtNote, NmeaError> txtFrom(const NmeaSentence &sentence) {
    if (const auto error = isNot(sentence, "TXT", 4)) return Failure{*error};
    Fields fields(sentence);
    TxtNote note;
    note.parts = fields.whole(0).value_or(1);
    note.part = fields.whole(1).value_or(1);
    note.words = fields.text(3);
    return orError(std::move(note), fields);
}

} // namespace waxis
