#include "core/simulated/simulated_seat.h"

#include "core/analysis/analysis.h"
#include "core/base/by_id.h"
#include "core/base/text_match.h"
#include "core/edits/part_edits.h"
#include "core/radio/radio_report.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

bool listensToSky(const PartType &type) {
    return type.kind == PartKind::gps || std::any_of(type.radio.begin(), type.radio.end(), [](const RadioBand &band) {
               return band.low_MHz > 1100 && band.high_MHz < 1650 && band.listens;
           });
}

/// The rise of the receiver's noise floor by all senders together, dB.
double noiseRise_dB(const RadioReport &report, const std::string &part) {
    double sum = 0; // of floors
    bool any = false;
    for (std::size_t column = 0; column < report.columns.size(); ++column) {
        const Listener &listener = report.columns[column];
        if (listener.radio < 0 || report.radios[std::size_t(listener.radio)].part != part) continue;
        for (std::size_t row = 0; row < report.rows.size(); ++row) {
            const RadioCell &cell = report.cell(row, column);
            if (!cell.counts || cell.own) continue;
            any = true;
            sum += std::max(0.0, std::pow(10, cell.rise_dB / 10) - 1);
        }
    }
    return any ? 10 * std::log10(1 + sum) : 0;
}

} // namespace

Result<SimulatedSeat, std::string> simulatedSeatAt(const Build &build, const std::string &part, const Pose &X_FramePart,
                                                   double nose_deg) {
    const auto moved = movePart(build, part, X_FramePart);
    if (!moved) return Failure{moved.error().message};
    const auto own =
        std::find_if(moved->parts.begin(), moved->parts.end(), [&](const Part &p) { return p.id == part; });
    const PartType *type = typeOf(*moved, *own);
    if (!type || !listensToSky(*type))
        return Failure{fmt::format("{} has no satellite receiver", displayName(build, part))};
    Analyser analyser;
    const Analysis &analysis = analyser.update(*moved);
    int loadCase = 0;
    for (std::size_t i = 0; i < analysis.derived.loadCases.size(); ++i)
        if (isAboard(*own, analysis.derived.loadCases[i])) {
            loadCase = int(i);
            break;
        }
    const AntennaPlace place = antennaPlace(*type, framePose(*moved, *own));
    const RayWorld world = skyWorld(*moved, analysis.derived.scene, loadCase, int(own - moved->parts.begin()),
                                    analysis.practice[Limit::skyThick]);
    SimulatedSeat seat;
    seat.view =
        skyView(world, analysis.derived.scene, place.position_mm, place.axis, analysis.practice[Limit::skyMask], 0);
    seat.lean_deg = seat.view.axisToZenith_deg;
    seat.axis = place.axis;
    seat.nose_deg = nose_deg;
    seat.noise_dB = noiseRise_dB(*analysis.derived.radio, part);
    return seat;
}

Result<SimulatedSeat, std::string> simulatedSeat(const Build &build, const std::string &place, double nose_deg) {
    if (const Part *part = findPart(build, place))
        return simulatedSeatAt(build, place, framePose(build, *part), nose_deg);
    if (const TrialPlace *trial = byId(build.trials, place))
        return simulatedSeatAt(build, trial->part, trial->X_FramePart, nose_deg);
    std::vector<std::string> known;
    for (const auto &part : build.parts) known.push_back(part.id);
    for (const auto &trial : build.trials) known.push_back(trial.id);
    const std::string near = nearestWord(place, known);
    return Failure{fmt::format("there is no part and no trial place \"{}\"{}", place,
                               near.empty() ? "" : fmt::format(", did you mean \"{}\"?", near))};
}

} // namespace waxis
