// weightaxis-sim: a satellite receiver and a bench scale for those who have none at hand.
#include "sim/gnss.h"
#include "sim/scale.h"

#include <CLI/CLI.hpp>
#include <iostream>

using namespace waxis::sim;

namespace {

void addRunning(CLI::App &command, RunOptions &run) {
    command.add_option("--seed", run.seed, "the same seed says the same");
    command.add_option("--speed", run.speed, "times as fast as the clock")->check(CLI::Range(0.1, 1000.0));
    command.add_option("--seconds", run.seconds, "ends after so many of its own seconds")->check(CLI::Range(0.1, 1e6));
    command.add_option("--out", run.out, "a recording instead of a port (- for standard output); wants --seconds");
    command.add_flag("--wait", run.waits, "sends nothing before the line \"go\" comes on the standard input");
    command.add_option("--fault", run.faults, "cut, checksum, garbage, silence or unplug, from the start");
}

} // namespace

int main(int argc, char **argv) {
    CLI::App app(
        "Stand-ins of instruments. Each says the path of its port as its first line and obeys lines on its standard "
        "input: go, fault NAME [SECONDS], fault none; gnss: restart, place ID; scale: put ID, put GRAMS, off.");
    app.set_version_flag("--version", WEIGHTAXIS_VERSION);
    app.require_subcommand(1);
    GnssOptions gnss;
    RunOptions run;
    auto *receiver = app.add_subcommand("gnss", "A satellite receiver that starts cold (NMEA 0183)");
    receiver->add_option("--build", gnss.build, "build (.waxis) on which it sits; left out: open sky");
    receiver->add_option("--place", gnss.place, "id of the part, or of a trial place of it");
    receiver->add_option("--hour", gnss.hour, "of the day, UTC")->check(CLI::Range(0.0, 24.0));
    receiver->add_option("--latitude", gnss.latitude_deg, "degrees north")->check(CLI::Range(-90.0, 90.0));
    receiver->add_option("--longitude", gnss.longitude_deg, "degrees east")->check(CLI::Range(-180.0, 180.0));
    receiver->add_option("--nose", gnss.nose_deg, "where the nose points, degrees from north turning east")
        ->check(CLI::Range(-360.0, 360.0));
    receiver->add_option("--rate", gnss.rate_Hz, "rounds a second")->check(CLI::Range(1, 20));
    addRunning(*receiver, run);
    ScaleOptions scaleOptions;
    auto *scale = app.add_subcommand("scale", "A bench scale that settles, drifts and trembles");
    scale->add_option("--build", scaleOptions.build, "build (.waxis) whose parts it knows");
    scale->add_flag("--walk", scaleOptions.walk, "puts one part after the other on by itself");
    scale->add_option("--rate", scaleOptions.rate_Hz, "lines a second")->check(CLI::Range(1, 50));
    addRunning(*scale, run);
    try {
        app.parse(argc, argv);
        if (!run.out.empty() && run.seconds <= 0) throw CLI::ValidationError("--out", "wants --seconds");
    } catch (const CLI::ParseError &error) {
        return app.exit(error) == 0 ? 0 : 2;
    }
    try {
        return *receiver ? runGnss(gnss, run) : runScale(scaleOptions, run);
    } catch (const std::exception &error) {
        std::cerr << "weightaxis-sim: " << error.what() << '\n';
        return 2;
    }
}
