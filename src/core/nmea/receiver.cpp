// Number ranges of satellites in sentences: 1-32 GPS, 33-64 SBAS, 65-96 GLONASS, 193-202 QZSS, 301-336 Galileo, 401-463
// BeiDou (receivers' usage, from memory); with their own talker systems count from 1.
#include "core/nmea/receiver.h"

#include <algorithm>
#include <array>
#include <cstring>

namespace waxis {

std::string_view gnssName(GnssSystem system) {
    switch (system) {
    case GnssSystem::gps: return "GPS";
    case GnssSystem::sbas: return "SBAS";
    case GnssSystem::glonass: return "GLONASS";
    case GnssSystem::galileo: return "Galileo";
    case GnssSystem::beidou: return "BeiDou";
    case GnssSystem::qzss: return "QZSS";
    }
    return "";
}

std::string_view gnssTalker(GnssSystem system) {
    switch (system) {
    case GnssSystem::gps:
    case GnssSystem::sbas: return "GP";
    case GnssSystem::glonass: return "GL";
    case GnssSystem::galileo: return "GA";
    case GnssSystem::beidou: return "GB";
    case GnssSystem::qzss: return "GQ";
    }
    return "";
}

std::optional<SatelliteId> satelliteFor(std::string_view talker, int system, int number) {
    struct Range {
        int first, last;
        GnssSystem system;
    };
    constexpr std::array<Range, 7> kRanges{{{1, 32, GnssSystem::gps},
                                            {33, 64, GnssSystem::sbas},
                                            {65, 96, GnssSystem::glonass},
                                            {120, 158, GnssSystem::sbas},
                                            {193, 202, GnssSystem::qzss},
                                            {301, 336, GnssSystem::galileo},
                                            {401, 463, GnssSystem::beidou}}};
    const auto within = [&](GnssSystem of) {
        int least = 0; // the smallest offset of the system whose range has the number
        for (const auto &range : kRanges)
            if (range.system == of && number >= range.first && number <= range.last) least = range.first - 1;
        const bool plain = of == GnssSystem::gps || of == GnssSystem::sbas;
        return SatelliteId{of, plain ? number : number - least};
    };
    const auto ofOwn = [&](GnssSystem own) -> std::optional<SatelliteId> {
        if (number < 1) return std::nullopt;
        constexpr int kPlain = 32; // every system counts its own so far
        if (number <= kPlain) return SatelliteId{own, number};
        // A GPS talker also speaks for SBAS and QZSS.
        if (own == GnssSystem::gps)
            for (const auto &range : kRanges)
                if (number >= range.first && number <= range.last && range.system != GnssSystem::gps)
                    return within(range.system);
        constexpr int kBeiDouOld = 200; // some count BeiDou from 201
        SatelliteId id = within(own);
        if (own == GnssSystem::beidou && id.number > kBeiDouOld) id.number -= kBeiDouOld;
        if (id.number > 255) return std::nullopt;
        return id;
    };
    switch (system) {
    case 1: return ofOwn(GnssSystem::gps);
    case 2: return ofOwn(GnssSystem::glonass);
    case 3: return ofOwn(GnssSystem::galileo);
    case 4: return ofOwn(GnssSystem::beidou);
    case 5: return ofOwn(GnssSystem::qzss);
    default: break;
    }
    if (talker == "GP") return ofOwn(GnssSystem::gps);
    if (talker == "GL") return ofOwn(GnssSystem::glonass);
    if (talker == "GA") return ofOwn(GnssSystem::galileo);
    if (talker == "GB" || talker == "BD") return ofOwn(GnssSystem::beidou);
    if (talker == "GQ") return ofOwn(GnssSystem::qzss);
    for (const auto &range : kRanges)
        if (number >= range.first && number <= range.last) return within(range.system);
    return std::nullopt;
}

int Receiver::feed(std::string_view bytes) {
    counts_.bytes += bytes.size();
    const std::uint64_t before = counts_.rounds;
    if (!partial_.empty()) { // the rest of a line
        const std::size_t end = bytes.find('\n');
        if (end == std::string_view::npos) {
            partial_.append(bytes);
            if (partial_.size() > 2 * kLongestNmea) { // no line is so long: garbage
                counts_.skipped += partial_.size();
                partial_.clear();
            }
            return 0;
        }
        partial_.append(bytes.substr(0, end));
        bytes.remove_prefix(end + 1);
        const std::string whole = std::move(partial_);
        partial_.clear();
        line(whole);
    }
    while (!bytes.empty()) {
        const void *newline = std::memchr(bytes.data(), '\n', bytes.size());
        if (!newline) {
            partial_.assign(bytes.size() > 2 * kLongestNmea ? bytes.substr(bytes.size() - kLongestNmea) : bytes);
            break;
        }
        const auto length = std::size_t(static_cast<const char *>(newline) - bytes.data());
        line(bytes.substr(0, length));
        bytes.remove_prefix(length + 1);
    }
    return int(counts_.rounds - before);
}

template <class Value, class Take>
void Receiver::take(const Result<Value, NmeaError> &value, Take takeIt) {
    if (value) {
        takeIt(*value);
        return;
    }
    ++counts_.refused;
    lastFault_ = value.error().text();
}

void Receiver::line(std::string_view text) {
    // What stands before the last $ of a line is garbage, or a sentence that lost its end.
    const void *last = ::memrchr(text.data(), '$', text.size());
    const std::size_t dollar = last ? std::size_t(static_cast<const char *>(last) - text.data()) : 0;
    if (!last) {
        counts_.skipped += text.size();
        return;
    }
    counts_.skipped += dollar;
    if (const auto error = readNmea(text.substr(dollar), sentence_)) {
        ++counts_.refused;
        lastFault_ = error->text();
        return;
    }
    ++counts_.sentences;
    counts_.unchecked += !sentence_.isChecked;
    const std::string_view type = sentence_.type, talker = sentence_.talker;
    if (type == "GSV") {
        isInRound_ = true;
        if (const auto error = readGsv(sentence_, view_)) {
            ++counts_.refused;
            lastFault_ = error->text();
        } else {
            for (const auto &one : view_.satellites) {
                const auto id = satelliteFor(talker, 0, one.number);
                if (!id) continue;
                Slot &slot = slotOf(*id);
                slot.viewRound = round_;
                if (one.elevation_deg) slot.seen.elevation_deg = one.elevation_deg;
                if (one.azimuth_deg) slot.seen.azimuth_deg = one.azimuth_deg;
                // Once per signal: the best counts.
                if (slot.ratioRound != round_ || !slot.seen.ratio_dBHz ||
                    (one.ratio_dBHz && *one.ratio_dBHz > *slot.seen.ratio_dBHz))
                    slot.seen.ratio_dBHz = one.ratio_dBHz;
                slot.ratioRound = round_;
            }
        }
    } else if (type == "GSA") {
        isInRound_ = true;
        take(gsaFrom(sentence_), [&](const GsaUse &use) {
            hasGsa_ = true;
            for (const int number : use.satellites)
                if (const auto id = satelliteFor(talker, use.system.value_or(0), number))
                    slotOf(*id).usedRound = round_;
            if (use.hdop) next_.dilution = use.hdop;
        });
    } else if (type == "GGA") {
        take(ggaFrom(sentence_), [&](const GgaFix &fix) {
            mark(type, fix.time_s);
            next_.hasFix = fix.quality > 0 && fix.place.has_value();
            next_.place = next_.hasFix ? fix.place : std::nullopt;
            next_.altitude_m = fix.altitude_m;
            ggaUsed_ = fix.satellites;
            if (!hasGsa_ || !next_.dilution) next_.dilution = fix.hdop;
        });
    } else if (type == "RMC") {
        take(rmcFrom(sentence_), [&](const RmcFix &fix) {
            mark(type, fix.time_s);
            if (fix.day) {
                next_.day = fix.day;
                next_.month = fix.month;
                next_.year = fix.year;
            }
            next_.hasFix = fix.isValid && fix.place.has_value();
            if (next_.hasFix) next_.place = fix.place;
            next_.speed_ms = fix.speed_ms;
        });
    } else if (type == "GLL") {
        take(gllFrom(sentence_), [&](const GllFix &fix) {
            mark(type, fix.time_s);
            if (fix.isValid && fix.place) next_.place = fix.place;
        });
    } else if (type == "VTG") {
        take(vtgFrom(sentence_), [&](const VtgTrack &track) {
            if (track.speed_ms) next_.speed_ms = track.speed_ms;
        });
    } else if (type == "ZDA") {
        take(zdaFrom(sentence_), [&](const ZdaTime &time) {
            mark(type, time.time_s);
            if (time.day) {
                next_.day = time.day;
                next_.month = time.month;
                next_.year = time.year;
            }
        });
    } else if (type == "TXT") {
        take(txtFrom(sentence_), [&](const TxtNote &note) { words_ = std::string(note.words); });
    }
}

void Receiver::mark(std::string_view type, const std::optional<double> &time_s) {
    if (marker_.empty()) marker_ = type;
    // A round ends with another time; while none is known, with the type that rounds begin with.
    const bool otherTime = time_s && roundTime_s_ && *time_s != *roundTime_s_;
    const bool again = type == marker_ && !(time_s && roundTime_s_ && *time_s == *roundTime_s_);
    if (isInRound_ && (otherTime || again)) endRound();
    isInRound_ = true;
    if (type == marker_ || time_s) roundTime_s_ = time_s;
    next_.time_s = time_s;
}

Receiver::Slot &Receiver::slotOf(const SatelliteId &id) {
    std::int16_t &at = index_[std::size_t(id.system) * kNumbers + std::size_t(id.number) % kNumbers];
    if (at < 0) {
        at = std::int16_t(slots_.size());
        slots_.push_back({});
        slots_.back().seen.id = id;
    }
    return slots_[std::size_t(at)];
}

void Receiver::endRound() {
    constexpr std::uint64_t kViewRounds = 50; // receivers send the view less often than the place
    std::array<double, 4> best{};
    int heard = 0;
    next_.satellites.clear();
    next_.used = 0;
    for (auto &slot : slots_) {
        slot.seen.isUsed = slot.usedRound == round_;
        next_.used += slot.seen.isUsed;
        if (slot.viewRound == 0 || round_ - slot.viewRound > kViewRounds) {
            if (!slot.seen.isUsed) continue;
        }
        if (slot.seen.ratio_dBHz) {
            ++heard;
            double ratio = *slot.seen.ratio_dBHz;
            for (auto &one : best)
                if (ratio > one) std::swap(ratio, one);
        }
        next_.satellites.push_back(slot.seen);
    }
    if (!hasGsa_) next_.used = ggaUsed_.value_or(0);
    if (!next_.hasFix && !ggaUsed_) next_.place.reset();
    next_.inView = int(next_.satellites.size());
    next_.heard = heard;
    next_.best4_dBHz = heard >= 4 ? std::optional((best[0] + best[1] + best[2] + best[3]) / 4) : std::nullopt;
    // Time is not forgotten but by switching off.
    if (knewTime_ && !next_.time_s && !next_.hasFix) {
        ++restarts_;
        slots_.clear();
        std::fill(index_.begin(), index_.end(), std::int16_t(-1));
    }
    knewTime_ = next_.time_s.has_value();
    std::swap(state_, next_);
    // What is known of the day stays; the list keeps its room.
    std::vector<SatelliteSeen> room = std::move(next_.satellites);
    next_ = ReceiverState{};
    next_.satellites = std::move(room);
    next_.day = state_.day;
    next_.month = state_.month;
    next_.year = state_.year;
    ggaUsed_.reset();
    ++counts_.rounds;
    ++round_;
    isInRound_ = false;
}

void Receiver::finish() {
    if (!partial_.empty()) {
        const std::string rest = std::move(partial_);
        partial_.clear();
        line(rest);
    }
    if (isInRound_) endRound();
}

} // namespace waxis
