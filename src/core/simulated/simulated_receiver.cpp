#include "core/simulated/simulated_receiver.h"

#include "core/base/units.h"
#include "core/simulated/constellation.h"
#include "core/sky/sky_lookup.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

constexpr double kBest_dBHz = 45, kFinds_dBHz = 27, kReads_dBHz = 25, kLoses_dBHz = 20, kWhole_dB = 99;
constexpr double kFind_s = 6, kDoubles_dB = 4, kLeastData_s = 18, kMostData_s = 36;
constexpr double kFade_dB = 2, kFade_s = 20, kJitter_dB = 0.7;
constexpr double kLowest_deg = 2;

/// Loss of a patch antenna off its axis, dB; between the angles along straight lines.
double patchLoss_dB(double off_deg) {
    constexpr std::array<std::array<double, 2>, 5> kCurve{{{0, 0}, {60, 3}, {90, 8}, {120, 15}, {180, 20}}};
    for (std::size_t i = 1; i < kCurve.size(); ++i)
        if (off_deg <= kCurve[i][0]) {
            const double share = (off_deg - kCurve[i - 1][0]) / (kCurve[i][0] - kCurve[i - 1][0]);
            return kCurve[i - 1][1] + share * (kCurve[i][1] - kCurve[i - 1][1]);
        }
    return kCurve.back()[1];
}

std::string sentence(const std::string &body) { return "$" + body + "*" + nmeaChecksum(body) + "\r\n"; }

std::string angleText(double degrees, int width, char plus, char minus) {
    const double size = std::abs(degrees);
    double whole = std::floor(size), minutes = (size - whole) * 60;
    if (minutes >= 59.99995) {
        minutes = 0;
        ++whole;
    }
    return fmt::format("{:0{}d}{:07.4f},{}", int(whole), width, minutes, degrees < 0 ? minus : plus);
}

} // namespace

SimulatedReceiver::SimulatedReceiver(SimulatedSky sky, SimulatedSeat seat, std::uint32_t seed)
    : sky_(sky), seat_(std::move(seat)), random_(seed), time_s_(sky.hour * 3600) {
    restart();
}

void SimulatedReceiver::restart() {
    std::exponential_distribution<double> wait(1 / kFind_s);
    std::uniform_real_distribution<double> data(kLeastData_s, kMostData_s);
    std::normal_distribution<double> fade(0, kFade_dB);
    tracked_.assign(constellation().size(), {});
    for (auto &one : tracked_) {
        one.findAfter_s = wait(random_);
        one.dataLeft_s = data(random_);
        one.fade_dB = fade(random_);
    }
    sinceStart_s_ = 0;
    knowsTime_ = false;
    nextLook_s_ = time_s_;
    look();
}

/// Where the satellites are now; they hardly move within some seconds.
void SimulatedReceiver::look() {
    constexpr double kEvery_s = 10;
    if (time_s_ < nextLook_s_) return;
    nextLook_s_ = time_s_ + kEvery_s;
    const auto &all = constellation();
    for (std::size_t i = 0; i < all.size(); ++i) {
        const SkyPosition at = skyPositionOf(all[i], sky_.place, time_s_);
        tracked_[i].elevation_deg = at.elevation_deg;
        tracked_[i].azimuth_deg = at.azimuth_deg;
        tracked_[i].isHidden = at.elevation_deg > kLowest_deg &&
                               isHidden(seat_.view, craftDirection(at.elevation_deg, at.azimuth_deg, seat_.nose_deg));
    }
}

void SimulatedReceiver::track(double seconds) {
    std::normal_distribution<double> normal(0, 1);
    std::uniform_real_distribution<double> data(kLeastData_s, kMostData_s);
    // A fade that forgets itself after kFade_s, whatever the step.
    const double keeps = std::exp(-seconds / kFade_s), news = std::sqrt(1 - keeps * keeps) * kFade_dB;
    for (auto &one : tracked_) {
        one.fade_dB = keeps * one.fade_dB + news * normal(random_);
        if (one.elevation_deg < kLowest_deg) {
            one.found = one.isUsed = false;
            continue;
        }
        const Vec3 way = craftDirection(one.elevation_deg, one.azimuth_deg, seat_.nose_deg);
        const double off_deg = degreesFromRadians(std::acos(std::clamp(way.dot(seat_.axis.normalized()), -1.0, 1.0)));
        const double steady = kBest_dBHz - patchLoss_dB(off_deg) - (one.isHidden ? kHiddenLoss_dB : 0) - seat_.noise_dB;
        one.ratio_dBHz = std::clamp(steady + one.fade_dB + kJitter_dB * normal(random_), 0.0, kWhole_dB);
        if (!one.found) {
            if (one.ratio_dBHz >= kFinds_dBHz)
                one.findAfter_s -= seconds * std::exp2((one.ratio_dBHz - kBest_dBHz) / kDoubles_dB);
            one.found = one.findAfter_s <= 0;
            continue;
        }
        one.heard_s += seconds;
        if (one.ratio_dBHz < kLoses_dBHz) {
            one.heard_s = 0;
            one.found = false;
            one.findAfter_s = kFind_s / 2; // where it is is known by now
        } else if (one.dataLeft_s > 0) {
            if (one.ratio_dBHz < kReads_dBHz)
                one.dataLeft_s = data(random_);
            else
                one.dataLeft_s -= seconds;
        }
        one.isUsed = one.found && one.dataLeft_s <= 0 && one.ratio_dBHz >= kReads_dBHz - 2;
    }
}

int SimulatedReceiver::used() const {
    return int(std::count_if(tracked_.begin(), tracked_.end(), [](const Tracked &one) { return one.isUsed; }));
}

std::string SimulatedReceiver::round(double seconds) {
    time_s_ += seconds;
    sinceStart_s_ += seconds;
    look();
    track(seconds);
    const int usedNow = used();
    constexpr int kForAPlace = 4, kMostInGga = 12, kInGsa = 12, kInGsv = 4;
    const bool isFixed = usedNow >= kForAPlace;
    // Time comes with the first message that was read; a cold receiver knows none.
    constexpr double kSubframe_s = 6;
    knowsTime_ = knowsTime_ || std::any_of(tracked_.begin(), tracked_.end(),
                                           [](const Tracked &one) { return one.found && one.heard_s >= kSubframe_s; });
    const double clock = std::fmod(time_s_, 86400);
    const std::string time = knowsTime_ ? fmt::format("{:02d}{:02d}{:05.2f}", int(clock / 3600),
                                                      int(std::fmod(clock, 3600) / 60), std::fmod(clock, 60))
                                        : std::string();
    std::normal_distribution<double> wander(0, 1e-5);
    const double latitude = sky_.place.latitude_deg + wander(random_),
                 longitude = sky_.place.longitude_deg + wander(random_);
    const std::string place =
        isFixed ? angleText(latitude, 2, 'N', 'S') + "," + angleText(longitude, 3, 'E', 'W') : ",,,";
    const double dilution = isFixed ? 0.5 + 6.0 / std::max(1, usedNow - 2) : 99.99;
    std::string out;
    out += sentence(fmt::format("GNRMC,{},{},{},{},,{:02d}{:02d}{:02d},,,{}", time, isFixed ? 'A' : 'V', place,
                                isFixed ? "0.02" : "", sky_.day, sky_.month, sky_.year % 100, isFixed ? 'A' : 'N'));
    out += sentence(fmt::format("GNGGA,{},{},{},{:02d},{:.2f},{},M,{},M,,", time, place, isFixed ? 1 : 0,
                                std::min(usedNow, kMostInGga), dilution,
                                isFixed ? fmt::format("{:.1f}", sky_.altitude_m) : "", isFixed ? "44.5" : ""));
    constexpr std::array kSystems{GnssSystem::gps, GnssSystem::glonass, GnssSystem::galileo, GnssSystem::beidou};
    const auto &all = constellation();
    const auto numberOf = [](const SatelliteId &id) {
        return id.system == GnssSystem::glonass ? id.number + 64 : id.number;
    };
    for (std::size_t s = 0; s < kSystems.size(); ++s) {
        std::string list;
        int count = 0;
        for (std::size_t i = 0; i < all.size() && count < kInGsa; ++i)
            if (all[i].id.system == kSystems[s] && tracked_[i].isUsed) {
                list += fmt::format("{:02d},", numberOf(all[i].id));
                ++count;
            }
        for (; count < kInGsa; ++count) list += ',';
        out += sentence(fmt::format("GNGSA,A,{},{}{:.2f},{:.2f},{:.2f},{}", isFixed ? 3 : 1, list, dilution * 1.6,
                                    dilution, dilution * 1.25, s + 1));
    }
    for (const GnssSystem system : kSystems) {
        std::vector<std::size_t> view;
        for (std::size_t i = 0; i < all.size(); ++i) {
            // Until the almanac is there only what was found is told.
            const bool known = tracked_[i].found || isFixed;
            if (all[i].id.system == system && known && tracked_[i].elevation_deg >= kLowest_deg) view.push_back(i);
        }
        const int parts = std::max(1, int(view.size() + kInGsv - 1) / kInGsv);
        for (int part = 0; part < parts; ++part) {
            std::string body = fmt::format("{}GSV,{},{},{:02d}", gnssTalker(system), parts, part + 1, view.size());
            for (int k = 0; k < kInGsv && std::size_t(part * kInGsv + k) < view.size(); ++k) {
                const std::size_t i = view[std::size_t(part * kInGsv + k)];
                const Tracked &one = tracked_[i];
                body +=
                    fmt::format(",{:02d},{:02.0f},{:03.0f},{}", numberOf(all[i].id), one.elevation_deg,
                                std::floor(one.azimuth_deg), one.found ? fmt::format("{:02.0f}", one.ratio_dBHz) : "");
            }
            out += sentence(body + ",1");
        }
    }
    return out;
}

} // namespace waxis
