#include "core/log/try_recorder.h"

#include "core/base/units.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {
double tenth(double value) { return std::round(10 * value) / 10; }
} // namespace

void TryRecorder::add(double at_s, const ReceiverState &state) {
    watched_s_ = std::max(watched_s_, at_s);
    if (state.hasFix && !fix_s_) fix_s_ = tenth(watched_s_);
    constexpr std::size_t kMostCounted = 100;
    while (int(reached_s_.size()) < state.used && reached_s_.size() < kMostCounted)
        reached_s_.push_back(tenth(watched_s_));
    constexpr double kEvery_s = 10;
    if (watched_s_ >= nextPoint_s_) {
        TryPoint point;
        point.at_s = tenth(watched_s_);
        point.used = state.used;
        point.inView = state.inView;
        if (state.best4_dBHz) point.best4_dBHz = tenth(*state.best4_dBHz);
        constexpr double kMeansNone = 50; // 99.99 is sent where there is none
        if (state.dilution && *state.dilution < kMeansNone) point.dilution = std::round(100 * *state.dilution) / 100;
        series_.push_back(point);
        nextPoint_s_ = kEvery_s * (std::floor(watched_s_ / kEvery_s) + 1);
    }
    for (const auto &one : state.satellites) {
        if (!one.elevation_deg || !one.azimuth_deg) continue;
        Heard &heard = heard_[one.id];
        ++heard.seen;
        heard.elevation_deg += *one.elevation_deg;
        heard.north += std::cos(radiansFromDegrees(*one.azimuth_deg));
        heard.east += std::sin(radiansFromDegrees(*one.azimuth_deg));
        if (one.ratio_dBHz) heard.ratios.push_back(float(*one.ratio_dBHz));
    }
}

Try TryRecorder::result() const {
    Try one;
    one.watched_s = tenth(watched_s_);
    one.fix_s = fix_s_;
    one.reached_s = reached_s_;
    one.series = series_;
    for (const auto &[id, heard] : heard_) {
        HeardSatellite kept;
        kept.system = std::string(gnssTalker(id.system));
        kept.number = id.number;
        kept.elevation_deg = tenth(heard.elevation_deg / heard.seen);
        const double azimuth = degreesFromRadians(std::atan2(heard.east, heard.north));
        kept.azimuth_deg = std::fmod(tenth(azimuth < 0 ? azimuth + 360 : azimuth), 360);
        if (!heard.ratios.empty()) {
            std::vector<float> sorted = heard.ratios;
            const auto middle = sorted.begin() + std::ptrdiff_t(sorted.size() / 2);
            std::nth_element(sorted.begin(), middle, sorted.end());
            kept.ratio_dBHz = tenth(double(*middle));
        }
        one.heard.push_back(std::move(kept));
    }
    return one;
}

namespace {

/// Calls `round` with its number and the state at the end of each round.
template <class Round>
void eachRound(std::string_view bytes, Round round) {
    Receiver receiver;
    int number = 0;
    while (!bytes.empty()) {
        const std::size_t end = bytes.find('\n');
        const std::string_view line = bytes.substr(0, end == std::string_view::npos ? end : end + 1);
        if (receiver.feed(line) > 0) round(number++, receiver.state());
        bytes.remove_prefix(line.size());
    }
    const auto before = receiver.counts().rounds;
    receiver.finish();
    if (receiver.counts().rounds > before) round(number, receiver.state());
}

} // namespace

Try tryFromRecording(std::string_view bytes) {
    std::optional<std::pair<int, double>> first, last; // number and time of rounds that know it
    eachRound(bytes, [&](int number, const ReceiverState &state) {
        if (!state.time_s) return;
        double time_s = *state.time_s;
        constexpr double kDay_s = 86400;
        if (first && time_s < first->second) time_s += kDay_s;
        if (!first) first = {number, time_s};
        last = {number, time_s};
    });
    const double each_s =
        first && last->first > first->first ? (last->second - first->second) / (last->first - first->first) : 1;
    TryRecorder recorder;
    eachRound(bytes, [&](int number, const ReceiverState &state) { recorder.add((number + 1) * each_s, state); });
    return recorder.result();
}

} // namespace waxis
