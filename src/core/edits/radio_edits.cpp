#include "core/edits/radio_edits.h"

#include "core/base/by_id.h"
#include "core/edits/part_edits.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

const RadioBand *bandOf(const Build &build, const std::string &part, int band) {
    const Part *found = findPart(build, part);
    const PartType *type = found ? typeOf(build, *found) : nullptr;
    return type && band >= 0 && band < int(type->radio.size()) ? &type->radio[std::size_t(band)] : nullptr;
}

namespace {

Failure<EditError> noBand(const std::string &part, int band) {
    return Failure{EditError{fmt::format("\"{}\" has no radio band number {}", part, band)}};
}

/// The setting of a band in a copy; one that says nothing is taken out again by tidy().
RadioSetting &settingIn(Build &build, const std::string &part, int band) {
    for (auto &setting : build.radioSettings)
        if (setting.part == part && setting.band == band) return setting;
    return build.radioSettings.emplace_back(RadioSetting{part, band, {}, {}});
}

void tidy(Build &build) {
    std::erase_if(build.radioSettings, [](const RadioSetting &s) { return !s.centre_MHz && !s.power_dBm; });
}

} // namespace

EditResult setChannel(const Build &build, const std::string &part, int band, std::optional<double> centre_MHz) {
    const RadioBand *found = bandOf(build, part, band);
    if (!found) return noBand(part, band);
    if (centre_MHz && !(*centre_MHz >= found->low_MHz && *centre_MHz <= found->high_MHz))
        return Failure{EditError{fmt::format("{:g} MHz lies outside the band of {:g} to {:g} MHz", *centre_MHz,
                                             found->low_MHz, found->high_MHz)}};
    Build next = build;
    settingIn(next, part, band).centre_MHz = centre_MHz;
    tidy(next);
    return next;
}

EditResult setPower(const Build &build, const std::string &part, int band, std::optional<double> power_dBm) {
    const RadioBand *found = bandOf(build, part, band);
    if (!found) return noBand(part, band);
    if (power_dBm && !found->power_dBm) return Failure{EditError{fmt::format("\"{}\" does not send there", part)}};
    Build next = build;
    settingIn(next, part, band).power_dBm = power_dBm;
    tidy(next);
    return next;
}

EditResult addGroundStation(const Build &build, const std::string &part, int band) {
    const RadioBand *found = bandOf(build, part, band);
    if (!found) return noBand(part, band);
    Build next = build;
    GroundStation ground;
    ground.part = part;
    ground.band = band;
    ground.name = "Ground for " + displayName(build, part);
    ground.id = freshId(build, "ground-" + part);
    if (found->power_dBm && !found->listens) { // one way: video, which people hear with a patch
        ground.gain_dBi = 8;
        ground.polarisation = Polarisation::rightCircular;
    }
    next.groundStations.push_back(std::move(ground));
    return next;
}

EditResult editGroundStation(const Build &build, const GroundStation &changed) {
    Build next = build;
    GroundStation *ground = byId(next.groundStations, changed.id);
    if (!ground) return Failure{EditError{fmt::format("there is no ground station \"{}\"", changed.id)}};
    if (!(changed.distance_m > 0)) return Failure{EditError{"the distance must be more than zero"}};
    if (!(changed.height_m >= 0) || !(changed.craftHeight_m >= 0))
        return Failure{EditError{"heights must not be negative"}};
    *ground = changed;
    return next;
}

EditResult removeGroundStation(const Build &build, const std::string &id) {
    Build next = build;
    if (std::erase_if(next.groundStations, [&](const GroundStation &g) { return g.id == id; }) == 0)
        return Failure{EditError{fmt::format("there is no ground station \"{}\"", id)}};
    return next;
}

EditResult addTrial(const Build &build, const std::string &part, const Pose &X_FramePart) {
    if (!findPart(build, part)) return Failure{EditError{fmt::format("there is no part \"{}\"", part)}};
    Build next = build;
    const auto before =
        std::count_if(build.trials.begin(), build.trials.end(), [&](const TrialPlace &t) { return t.part == part; });
    next.trials.push_back(
        {freshId(build, part + "-trial"), fmt::format("Place {}", char('B' + before % 25)), part, X_FramePart});
    return next;
}

EditResult moveTrial(const Build &build, const std::string &id, const Pose &X_FramePart) {
    Build next = build;
    TrialPlace *trial = byId(next.trials, id);
    if (!trial) return Failure{EditError{fmt::format("there is no trial place \"{}\"", id)}};
    trial->X_FramePart = X_FramePart;
    return next;
}

EditResult removeTrial(const Build &build, const std::string &id) {
    Build next = build;
    if (std::erase_if(next.trials, [&](const TrialPlace &t) { return t.id == id; }) == 0)
        return Failure{EditError{fmt::format("there is no trial place \"{}\"", id)}};
    return next;
}

EditResult takeTrial(const Build &build, const std::string &id) {
    const TrialPlace *trial = byId(build.trials, id);
    if (!trial) return Failure{EditError{fmt::format("there is no trial place \"{}\"", id)}};
    const Part *part = findPart(build, trial->part);
    if (!part) return Failure{EditError{fmt::format("there is no part \"{}\"", trial->part)}};
    const Pose before = framePose(build, *part);
    EditResult moved = movePart(build, trial->part, trial->X_FramePart);
    if (!moved) return moved;
    return moveTrial(*moved, id, before);
}

} // namespace waxis
