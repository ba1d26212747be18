// What a satellite receiver says over time: bytes in, in pieces as they come; what it knows now out.
#pragma once

#include "core/nmea/fixes.h"

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace waxis {

enum class GnssSystem { gps, sbas, glonass, galileo, beidou, qzss };
inline constexpr std::size_t kGnssSystems = 6;
/// "GPS", "Galileo", ...
std::string_view gnssName(GnssSystem system);
/// Two letters as talkers have them: "GP"; SBAS goes with GPS.
std::string_view gnssTalker(GnssSystem system);

/// One satellite, whichever numbers receivers send for it: 1 and 301 are Galileo's first, 65 is GLONASS' first.
struct SatelliteId {
    GnssSystem system = GnssSystem::gps;
    int number = 0; ///< within its system, from 1
    auto operator<=>(const SatelliteId &) const = default;
};
/// By the talker, by the system that a sentence names (0: none), else by the number's range. None for numbers of no
/// system.
std::optional<SatelliteId> satelliteFor(std::string_view talker, int system, int number);

struct SatelliteSeen {
    SatelliteId id;
    std::optional<double> elevation_deg, azimuth_deg;
    std::optional<double> ratio_dBHz; ///< the best of its signals; none: in view and not heard
    bool isUsed = false;
};

/// What a receiver knows at the end of one of its rounds.
struct ReceiverState {
    std::optional<double> time_s; ///< of the day, UTC
    std::optional<int> day, month, year;
    std::optional<GeoPlace> place;
    std::optional<double> altitude_m, speed_ms, dilution; ///< horizontal
    bool hasFix = false;
    int used = 0, inView = 0, heard = 0;   ///< satellites; used: of all that GSA names, GGA's where there is no GSA
    std::optional<double> best4_dBHz;      ///< mean of the four strongest; none: fewer than four are heard
    std::vector<SatelliteSeen> satellites; ///< in the order in which they came into view
};

struct ReceiverCounts {
    std::uint64_t bytes = 0, sentences = 0, unchecked = 0, refused = 0, skipped = 0; ///< skipped: bytes between
    std::uint64_t rounds = 0;
};

/// Reads a stream. Half lines wait for their rest, garbage is skipped, wrong sentences are counted and change nothing.
class Receiver {
public:
    /// Returns the number of rounds that ended in these bytes.
    int feed(std::string_view bytes);
    /// As of the last round that ended; the one under way when nothing more comes.
    const ReceiverState &state() const { return state_; }
    /// Ends the round under way: the stream is over, or has fallen silent.
    void finish();

    const ReceiverCounts &counts() const { return counts_; }
    /// What it last said in words; empty: nothing.
    const std::string &words() const { return words_; }
    /// Why the last refused sentence was.
    const std::string &lastFault() const { return lastFault_; }
    /// How many satellites were heard without a fix after there had been one or time had been known: it was switched
    /// off and on.
    int restarts() const { return restarts_; }

private:
    struct Slot {
        SatelliteSeen seen;
        std::uint64_t viewRound = 0, usedRound = 0, ratioRound = 0;
    };
    void line(std::string_view text);
    template <class Value, class Take>
    void take(const Result<Value, NmeaError> &value, Take take);
    void mark(std::string_view type, const std::optional<double> &time_s);
    void endRound();
    Slot &slotOf(const SatelliteId &id);

    std::string partial_;
    NmeaSentence sentence_; ///< used again: a stream allocates nothing
    GsvPart view_;
    std::vector<Slot> slots_;
    std::vector<std::int16_t> index_ = std::vector<std::int16_t>(kGnssSystems * kNumbers, -1);
    std::uint64_t round_ = 1;
    std::string marker_; ///< type of the first sentence of a round
    std::optional<double> roundTime_s_;
    ReceiverState next_, state_;
    std::optional<int> ggaUsed_;
    bool hasGsa_ = false, knewTime_ = false, isInRound_ = false;
    ReceiverCounts counts_;
    std::string words_, lastFault_;
    int restarts_ = 0;

    static constexpr std::size_t kNumbers = 256;
};

} // namespace waxis
