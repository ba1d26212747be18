#include "sim/gnss.h"

#include "core/simulated/simulated_seat.h"
#include "io/project/project_file.h"

#include <iostream>
#include <memory>
#include <sstream>

namespace waxis::sim {

namespace {
/// The first part that can sit under the sky.
std::string firstReceiver(const Build &build) {
    for (const auto &part : build.parts)
        if (const PartType *type = typeOf(build, part); type && type->kind == PartKind::gps) return part.id;
    return {};
}
} // namespace

int runGnss(const GnssOptions &options, const RunOptions &runOptions) {
    Build build;
    SimulatedSeat seat;
    seat.nose_deg = options.nose_deg;
    const auto sit = [&](const std::string &place) {
        const auto found = simulatedSeat(build, place, options.nose_deg);
        if (!found) {
            std::cerr << "weightaxis-sim: " << options.build << ": " << found.error() << '\n';
            return false;
        }
        seat = *found;
        return true;
    };
    if (!options.build.empty()) {
        const auto loaded = loadBuild(options.build);
        if (!loaded) {
            std::cerr << "weightaxis-sim: " << options.build << ": " << loaded.error().text() << '\n';
            return 2;
        }
        build = loaded->build;
        const std::string place = options.place.empty() ? firstReceiver(build) : options.place;
        if (place.empty()) {
            std::cerr << "weightaxis-sim: " << options.build
                      << ": no part is a satellite receiver; name one with --place\n";
            return 2;
        }
        if (!sit(place)) return 2;
    } else if (!options.place.empty()) {
        std::cerr << "weightaxis-sim: --place wants --build\n";
        return 2;
    }
    SimulatedSky sky;
    sky.place = {options.latitude_deg, options.longitude_deg};
    sky.hour = options.hour;
    std::uint32_t seed = runOptions.seed;
    auto receiver = std::make_unique<SimulatedReceiver>(sky, seat, seed);
    Instrument instrument;
    instrument.name = "gnss";
    instrument.step_s = 1.0 / options.rate_Hz;
    instrument.next = [&](double step_s) { return receiver->round(step_s); };
    instrument.tell = [&](const std::string &line) {
        std::istringstream words(line);
        std::string what, id;
        words >> what >> id;
        if (what == "restart") {
            receiver->restart();
            return true;
        }
        // Another place is another start: the craft was opened in between.
        if (what == "place" && !options.build.empty() && sit(id)) {
            receiver = std::make_unique<SimulatedReceiver>(sky, seat, ++seed);
            return true;
        }
        return false;
    };
    return run(instrument, runOptions);
}

} // namespace waxis::sim
