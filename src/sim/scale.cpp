#include "sim/scale.h"

#include "core/analysis/analysis.h"
#include "core/balance/mass_rows.h"
#include "core/base/by_id.h"
#include "core/kit/kit.h"
#include "core/practice/practice.h"
#include "core/simulated/simulated_scale.h"
#include "io/project/project_file.h"

#include <iostream>
#include <map>
#include <random>
#include <sstream>

namespace waxis::sim {

namespace {

/// What each kit item really weighs: as it is planned, off by a draw from its doubt.
std::map<std::string, double> trueMasses(const Build &build, std::uint32_t seed) {
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    std::mt19937 random(seed);
    std::normal_distribution<double> normal(0, 1);
    std::map<std::string, double> masses;
    for (const auto &line : *analysis.derived.kit) {
        const MassRow *row = line.members.empty() ? nullptr : byId(*analysis.derived.massRows, line.members.front());
        if (!row || !row->known) continue;
        const double mass_g = std::max(0.0, row->element.mass_g + normal(random) * row->tolerance_g / 2);
        masses[line.item] = mass_g;
        for (const auto &member : line.members) masses[member] = mass_g;
    }
    return masses;
}

} // namespace

int runScale(const ScaleOptions &options, const RunOptions &runOptions) {
    std::map<std::string, double> masses;
    std::vector<std::string> order;
    if (!options.build.empty()) {
        const auto loaded = loadBuild(options.build);
        if (!loaded) {
            std::cerr << "weightaxis-sim: " << options.build << ": " << loaded.error().text() << '\n';
            return 2;
        }
        masses = trueMasses(loaded->build, runOptions.seed);
        for (const auto &line : kitLines(loaded->build, practiceOf(loaded->build.practice))) order.push_back(line.item);
    } else if (options.walk) {
        std::cerr << "weightaxis-sim: --walk wants --build\n";
        return 2;
    }
    SimulatedScale scale({}, runOptions.seed);
    double at_s = 0, nextChange_s = 1;
    std::size_t next = 0;
    bool lies = false;
    Instrument instrument;
    instrument.name = "scale";
    instrument.step_s = 1.0 / options.rate_Hz;
    instrument.next = [&](double step_s) {
        at_s += step_s;
        if (options.walk && at_s >= nextChange_s) {
            constexpr double kOn_s = 5, kOff_s = 3;
            while (!lies && next < order.size() && !masses.contains(order[next])) ++next;
            if (!lies && next < order.size())
                scale.put(masses[order[next++]]);
            else
                scale.put(0);
            lies = !lies;
            nextChange_s = at_s + (lies ? kOn_s : kOff_s);
        }
        return scale.line(step_s);
    };
    instrument.tell = [&](const std::string &line) {
        std::istringstream words(line);
        std::string what, id;
        words >> what >> id;
        if (what == "off") {
            scale.put(0);
            return true;
        }
        if (what != "put") return false;
        if (const auto known = masses.find(id); known != masses.end()) {
            scale.put(known->second);
            return true;
        }
        try {
            scale.put(std::stod(id));
            return true;
        } catch (const std::exception &) {
            return false;
        }
    };
    return run(instrument, runOptions);
}

} // namespace waxis::sim
