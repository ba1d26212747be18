// weightaxis-cli: the numbers of the desktop program without a window.
#include "cli/output.h"

#include "core/base/text_match.h"
#include "core/practice/practice.h"

#include <CLI/CLI.hpp>
#include <algorithm>
#include <functional>
#include <iostream>
#include <new>
#include <utility>
#include <vector>

using namespace waxis::cli;

namespace {

const std::string forceHelp = "replace files that are there already";
const CLI::Validator
    finite([](std::string &text) { return text.find_first_of("nN") == std::string::npos ? "" : "a number is wanted"; },
           "");
const CLI::Validator
    notEmpty([](std::string &text) { return text.empty() ? "it is empty; leave it out for the build's own" : ""; }, "");
const std::string profileHelp =
    "practice instead of the build's own: sprint, flow, range, lift, pocket, or a practice file";

const std::string caseHelp = "id of a load case (left out: the one with most aboard that flies)";

CLI::App *addCheck(CLI::App &app, CheckOptions &options) {
    auto *command = app.add_subcommand("check", "Findings and balance in readable form");
    command->add_option("FILE", options.file, "build (.waxis)")->required();
    command->add_option("--profile", options.profile, profileHelp)->check(notEmpty);
    return command;
}

CLI::App *addAnalyse(CLI::App &app, AnalyseOptions &options) {
    auto *command = app.add_subcommand("analyse", "Everything computed, as JSON (docs/format/analysis.md)");
    command->add_option("FILE", options.file, "build (.waxis)")->required();
    command->add_flag("--json", options.json, "write JSON");
    command->add_option("--profile", options.profile, profileHelp)->check(notEmpty);
    return command;
}

CLI::App *addSteps(CLI::App &app, StepsOptions &options) {
    auto *command = app.add_subcommand("steps", "In which order the craft goes together");
    command->add_option("FILE", options.file, "build (.waxis)")->required();
    command->add_option("--case", options.loadCase, caseHelp);
    command->add_flag("--json", options.json, "write JSON (docs/format/analysis.md)");
    return command;
}

CLI::App *addChecks(CLI::App &app, ChecksOptions &options) {
    auto *command = app.add_subcommand("checks", "What is measured before and at first power, and what is expected");
    command->add_option("FILE", options.file, "build (.waxis)")->required();
    command->add_option("--case", options.loadCase, caseHelp);
    command->add_flag("--json", options.json, "write JSON (docs/format/analysis.md)");
    return command;
}

CLI::App *addService(CLI::App &app, ServiceOptions &options) {
    auto *command = app.add_subcommand("service", "What comes off before a part does, in order");
    command->add_option("FILE", options.file, "build (.waxis)")->required();
    command->add_option("PART", options.part, "id of a part")->required();
    command->add_option("--case", options.loadCase, caseHelp);
    command->add_flag("--json", options.json, "write JSON (docs/format/analysis.md)");
    return command;
}

CLI::App *addLog(CLI::App &app, LogOptions &options) {
    auto *command = app.add_subcommand("log", "What was measured against what was planned; entries in and out");
    command->add_option("FILE", options.file, "build (.waxis)");
    command->add_flag("--json", options.json, "write JSON (docs/format/analysis.md)");
    command->add_option("--entries-csv", options.entriesCsv, "entries as CSV; - for standard output");
    command->add_option("--tries-csv", options.triesCsv, "tries of all trials as CSV");
    command->add_option("--import-entries", options.importEntries, "CSV of entries to take into the build");
    command->add_option("--import-tries", options.importTries, "CSV of tries to take into the build");
    command->add_flag("--force", options.force, forceHelp);
    auto *add = command->add_subcommand("add", "Write one entry into the build: log add BUILD weight gps 12.4 g");
    add->add_option("FILE", options.file, "build (.waxis)")->required();
    add->add_option("ENTRY", options.line, "as it is typed in Log")->required();
    add->add_option("--at", options.at, "day and time of a new session, as 2026-05-14T10:20:00+02:00");
    add->add_option("--place", options.place, "place of a new session");
    add->add_option("--session", options.session, "id of a session that is there");
    add->callback([&options] { options.add = true; });
    return command;
}

CLI::App *addTrial(CLI::App &app, TrialOptions &options) {
    auto *command = app.add_subcommand("trial", "What the trials of a build tell, and what not yet");
    command->add_option("FILE", options.file, "build (.waxis)")->required();
    command->add_flag("--json", options.json, "write JSON (docs/format/analysis.md)");
    command->add_option("--recording", options.recording, "recording (NMEA 0183) from power on, to be kept as a try");
    command->add_option("--trial", options.trial, "id or question of the trial (left out: the only one)");
    command->add_option("--way", options.way, "id or name of the way that was tried");
    command->add_option("--nose", options.nose_deg, "where the nose pointed, degrees from north turning east")
        ->check(CLI::Range(-360.0, 360.0));
    command->add_option("--at", options.at, "day and time of the try");
    command->add_option("--session", options.session, "id of its session");
    command->add_option("--note", options.note, "words to it");
    return command;
}

CLI::App *addNmea(CLI::App &app, NmeaOptions &options) {
    auto *command = app.add_subcommand("nmea", "What a recorded stream of a satellite receiver holds");
    command->add_option("FILE", options.file, "recording (NMEA 0183); - for standard input")->required();
    command->add_flag("--json", options.json, "write JSON (docs/format/analysis.md)");
    return command;
}

CLI::App *addCalc(CLI::App &app, CalcOptions &options) {
    auto *command = app.add_subcommand("calc", "One calculation by name");
    command->add_flag("--list", options.list, "all calculations with inputs, outputs, formula and source");
    command->add_flag("--json", options.json, "write JSON");
    command->add_option("--batch", options.batchFile, "JSON list of {\"calc\", \"inputs\"}");
    command->add_option("NAME", options.name, "which calculation");
    command->add_option("INPUTS", options.inputs, "KEY=VALUE ...; values are numbers or JSON");
    return command;
}

CLI::App *addImportFrame(CLI::App &app, ImportOptions &options) {
    auto *command = app.add_subcommand("import-frame", "What a frame drawing (DXF) holds, and a build made of it");
    command->add_option("DRAWING", options.file, "DXF drawing")->required();
    command->add_option("--units", options.units, "units of the drawing instead of the header's")
        ->check(CLI::IsMember(std::vector<std::string>{"mm", "in", "cm", "m", "ft", "mil", "um"}));
    command->add_option("--nose", options.nose, "where the nose points in the drawing")
        ->check(CLI::IsMember(std::vector<std::string>{"right", "up", "left", "down"}));
    command->add_option("--tolerance", options.tolerance_mm, "ends nearer than this meet, mm (0.05)")
        ->check(CLI::Range(0.0, 5.0))
        ->check(finite);
    command->add_option("--prop", options.prop_mm, "propeller diameter, mm")
        ->check(CLI::Range(10.0, 1000.0))
        ->check(finite);
    command->add_option("--out", options.out, "write a build with this frame");
    command->add_flag("--force", options.force, forceHelp);
    command->add_flag("--json", options.json, "write JSON (docs/format/import.md)");
    return command;
}

CLI::App *addExport(CLI::App &app, ExportOptions &options) {
    auto *command = app.add_subcommand("export", "Plates, drill template, kit list, cut list and field deck as files");
    command->add_option("FILE", options.file, "build (.waxis)")->required();
    command->add_option("--plates-dxf", options.platesDxf, "plates as DXF at 1:1, mm; - for standard output");
    command->add_option("--plates-svg", options.platesSvg, "plates as SVG at 1:1");
    command->add_option("--drill-dxf", options.drillDxf, "drill template as DXF at 1:1");
    command->add_option("--drill-svg", options.drillSvg, "drill template as SVG at 1:1");
    command->add_option("--kit-csv", options.kitCsv, "kit list as CSV");
    command->add_option("--cut-csv", options.cutCsv, "cut list of the wires as CSV");
    command->add_option("--mass-csv", options.massCsv, "everything that weighs, with where, as CSV");
    command->add_option("--nec-deck", options.necDeck, "wire-grid model of two radios as a NEC deck");
    command->add_option("--from", options.from, "radio that sends (id of the part), for --nec-deck");
    command->add_option("--to", options.to, "radio that listens, for --nec-deck");
    command->add_option("--segments", options.segments, "most segments of the model");
    command->add_flag("--force", options.force, forceHelp);
    return command;
}

CLI::App *addNew(CLI::App &app, NewOptions &options) {
    auto *command = app.add_subcommand("new", "A build with the frame of a layout");
    command->add_flag("--list", options.list, "all layouts with their parameters");
    command->add_option("LAYOUT", options.layout, "which layout, as quad-x");
    command->add_option("VALUES", options.values, "KEY=NUMBER ...");
    command->add_option("--out", options.out, "build to write (standard output when left out)");
    command->add_flag("--force", options.force, forceHelp);
    return command;
}

/// A word that is no command is told as such, not as a command that is missing. False: it was.
bool isCommand(const CLI::App &app, const std::string &word) {
    std::vector<std::string> commands;
    for (const auto *command : app.get_subcommands({})) commands.push_back(command->get_name());
    if (std::find(commands.begin(), commands.end(), word) != commands.end()) return true;
    const std::string near = waxis::nearestWord(word, commands);
    say(std::cerr, "weightaxis-cli: there is no command \"{}\"{}; --help shows them\n", word,
        near.empty() ? "" : fmt::format(", did you mean \"{}\"?", near));
    return false;
}

} // namespace

int main(int argc, char **argv) {
    CLI::App app("Weightaxis on the command line: what fits, what it weighs, where the balance is.");
    app.set_version_flag("--version", WEIGHTAXIS_VERSION);
    app.require_subcommand(1);
    app.footer("Exit codes: 0 clean, 1 stop findings, 2 cannot read.");

    const Streams io{std::cout, std::cerr};
    std::vector<std::pair<CLI::App *, std::function<int()>>> commands; // in the order of the help
    CheckOptions checkOptions;
    commands.emplace_back(addCheck(app, checkOptions), [&] { return check(checkOptions, io); });
    AnalyseOptions analyseOptions;
    commands.emplace_back(addAnalyse(app, analyseOptions), [&] { return analyse(analyseOptions, io); });
    StepsOptions stepsOptions;
    commands.emplace_back(addSteps(app, stepsOptions), [&] { return steps(stepsOptions, io); });
    ChecksOptions checksOptions;
    commands.emplace_back(addChecks(app, checksOptions), [&] { return checks(checksOptions, io); });
    ServiceOptions serviceOptions;
    commands.emplace_back(addService(app, serviceOptions), [&] { return service(serviceOptions, io); });
    LogOptions logOptions;
    commands.emplace_back(addLog(app, logOptions), [&] { return log(logOptions, io); });
    TrialOptions trialOptions;
    commands.emplace_back(addTrial(app, trialOptions), [&] { return trial(trialOptions, io); });
    NmeaOptions nmeaOptions;
    commands.emplace_back(addNmea(app, nmeaOptions), [&] { return nmea(nmeaOptions, io); });
    CalcOptions calcOptions;
    commands.emplace_back(addCalc(app, calcOptions), [&] { return calc(calcOptions, io); });
    ImportOptions importOptions;
    commands.emplace_back(addImportFrame(app, importOptions), [&] { return importFrame(importOptions, io); });
    ExportOptions exportOptions;
    commands.emplace_back(addExport(app, exportOptions), [&] { return exportBuild(exportOptions, io); });
    NewOptions newOptions;
    commands.emplace_back(addNew(app, newOptions), [&] { return newBuild(newOptions, io); });
    commands.emplace_back(app.add_subcommand("rules", "The rule book as Markdown"), [&] { return rules(io); });
    std::string tidyFile;
    auto *tidyCommand = app.add_subcommand("tidy", "Write a build or part library again in the stable form");
    tidyCommand->add_option("FILE", tidyFile, "build or library")->required();
    commands.emplace_back(tidyCommand, [&] { return tidy(tidyFile, io); });

    if (argc > 1 && argv[1][0] != '-' && argv[1][0] != '\0' && !isCommand(app, argv[1])) return unreadable;
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError &error) {
        return app.exit(error) == 0 ? int(clean) : int(unreadable);
    }
    int exit = clean;
    try {
        for (const auto &[command, run] : commands)
            if (*command) exit = run();
    } catch (const std::bad_alloc &) {
        std::cerr << "weightaxis-cli: there is not enough memory for this\n";
        return unreadable;
    } catch (const std::exception &error) {
        say(std::cerr, "weightaxis-cli: {}\n", error.what());
        return unreadable;
    }
    std::cout.flush();
    if (!std::cout) {
        std::cerr << "weightaxis-cli: standard output cannot be written\n";
        return unreadable;
    }
    return exit;
}
