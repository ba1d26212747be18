// weightaxis-cli: the numbers of the desktop program without a window.
#include "cli/output.h"

#include "core/base/text_match.h"
#include "core/practice/practice.h"

#include <CLI/CLI.hpp>
#include <algorithm>
#include <iostream>
#include <new>

int main(int argc, char **argv) {
    using namespace waxis::cli;
    CLI::App app("Weightaxis on the command line: what fits, what it weighs, where the balance is.");
    app.set_version_flag("--version", WEIGHTAXIS_VERSION);
    app.require_subcommand(1);
    app.footer("Exit codes: 0 clean, 1 stop findings, 2 cannot read.");

    const std::string forceHelp = "replace files that are there already";
    const CLI::Validator finite(
        [](std::string &text) { return text.find_first_of("nN") == std::string::npos ? "" : "a number is wanted"; },
        "");
    const CLI::Validator notEmpty(
        [](std::string &text) { return text.empty() ? "it is empty; leave it out for the build's own" : ""; }, "");
    const std::string profileHelp =
        "practice instead of the build's own: sprint, flow, range, lift, pocket, or a practice file";

    CheckOptions checkOptions;
    auto *checkCommand = app.add_subcommand("check", "Findings and balance in readable form");
    checkCommand->add_option("FILE", checkOptions.file, "build (.waxis)")->required();
    checkCommand->add_option("--profile", checkOptions.profile, profileHelp)->check(notEmpty);

    AnalyseOptions analyseOptions;
    auto *analyseCommand = app.add_subcommand("analyse", "Everything computed, as JSON (docs/format/analysis.md)");
    analyseCommand->add_option("FILE", analyseOptions.file, "build (.waxis)")->required();
    analyseCommand->add_flag("--json", analyseOptions.json, "write JSON");
    analyseCommand->add_option("--profile", analyseOptions.profile, profileHelp)->check(notEmpty);

    CalcOptions calcOptions;
    auto *calcCommand = app.add_subcommand("calc", "One calculation by name");
    calcCommand->add_flag("--list", calcOptions.list, "all calculations with inputs, outputs, formula and source");
    calcCommand->add_flag("--json", calcOptions.json, "write JSON");
    calcCommand->add_option("--batch", calcOptions.batchFile, "JSON list of {\"calc\", \"inputs\"}");
    calcCommand->add_option("NAME", calcOptions.name, "which calculation");
    calcCommand->add_option("INPUTS", calcOptions.inputs, "KEY=VALUE ...; values are numbers or JSON");

    ImportOptions importOptions;
    auto *importCommand =
        app.add_subcommand("import-frame", "What a frame drawing (DXF) holds, and a build made of it");
    importCommand->add_option("DRAWING", importOptions.file, "DXF drawing")->required();
    importCommand->add_option("--units", importOptions.units, "units of the drawing instead of the header's")
        ->check(CLI::IsMember(std::vector<std::string>{"mm", "in", "cm", "m", "ft", "mil", "um"}));
    importCommand->add_option("--nose", importOptions.nose, "where the nose points in the drawing")
        ->check(CLI::IsMember(std::vector<std::string>{"right", "up", "left", "down"}));
    importCommand->add_option("--tolerance", importOptions.tolerance_mm, "ends nearer than this meet, mm (0.05)")
        ->check(CLI::Range(0.0, 5.0))
        ->check(finite);
    importCommand->add_option("--prop", importOptions.prop_mm, "propeller diameter, mm")
        ->check(CLI::Range(10.0, 1000.0))
        ->check(finite);
    importCommand->add_option("--out", importOptions.out, "write a build with this frame");
    importCommand->add_flag("--force", importOptions.force, forceHelp);
    importCommand->add_flag("--json", importOptions.json, "write JSON (docs/format/import.md)");

    ExportOptions exportOptions;
    auto *exportCommand =
        app.add_subcommand("export", "Plates, drill template, kit list, cut list and field deck as files");
    exportCommand->add_option("FILE", exportOptions.file, "build (.waxis)")->required();
    exportCommand->add_option("--plates-dxf", exportOptions.platesDxf,
                              "plates as DXF at 1:1, mm; - for standard output");
    exportCommand->add_option("--plates-svg", exportOptions.platesSvg, "plates as SVG at 1:1");
    exportCommand->add_option("--drill-dxf", exportOptions.drillDxf, "drill template as DXF at 1:1");
    exportCommand->add_option("--drill-svg", exportOptions.drillSvg, "drill template as SVG at 1:1");
    exportCommand->add_option("--kit-csv", exportOptions.kitCsv, "kit list as CSV");
    exportCommand->add_option("--cut-csv", exportOptions.cutCsv, "cut list of the wires as CSV");
    exportCommand->add_option("--mass-csv", exportOptions.massCsv, "everything that weighs, with where, as CSV");
    exportCommand->add_option("--nec-deck", exportOptions.necDeck, "wire-grid model of two radios as a NEC deck");
    exportCommand->add_option("--from", exportOptions.from, "radio that sends (id of the part), for --nec-deck");
    exportCommand->add_option("--to", exportOptions.to, "radio that listens, for --nec-deck");
    exportCommand->add_option("--segments", exportOptions.segments, "most segments of the model");
    exportCommand->add_flag("--force", exportOptions.force, forceHelp);

    NewOptions newOptions;
    auto *newCommand = app.add_subcommand("new", "A build with the frame of a layout");
    newCommand->add_flag("--list", newOptions.list, "all layouts with their parameters");
    newCommand->add_option("LAYOUT", newOptions.layout, "which layout, as quad-x");
    newCommand->add_option("VALUES", newOptions.values, "KEY=NUMBER ...");
    newCommand->add_option("--out", newOptions.out, "build to write (standard output when left out)");
    newCommand->add_flag("--force", newOptions.force, forceHelp);

    auto *rulesCommand = app.add_subcommand("rules", "The rule book as Markdown");
    std::string tidyFile;
    auto *tidyCommand = app.add_subcommand("tidy", "Write a build or part library again in the stable form");
    tidyCommand->add_option("FILE", tidyFile, "build or library")->required();

    // A word that is no command is told as such, not as a command that is missing.
    if (argc > 1 && argv[1][0] != '-' && argv[1][0] != '\0') {
        std::vector<std::string> commands;
        for (const auto *command : app.get_subcommands({})) commands.push_back(command->get_name());
        if (std::find(commands.begin(), commands.end(), argv[1]) == commands.end()) {
            const std::string near = waxis::nearestWord(argv[1], commands);
            say(std::cerr, "weightaxis-cli: there is no command \"{}\"{}; --help shows them\n", argv[1],
                near.empty() ? "" : fmt::format(", did you mean \"{}\"?", near));
            return unreadable;
        }
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError &error) {
        return app.exit(error) == 0 ? int(clean) : int(unreadable);
    }
    const Streams io{std::cout, std::cerr};
    const auto run = [&]() -> int {
        if (*checkCommand) return check(checkOptions, io);
        if (*analyseCommand) return analyse(analyseOptions, io);
        if (*calcCommand) return calc(calcOptions, io);
        if (*importCommand) return importFrame(importOptions, io);
        if (*exportCommand) return exportBuild(exportOptions, io);
        if (*newCommand) return newBuild(newOptions, io);
        if (*rulesCommand) return rules(io);
        if (*tidyCommand) return tidy(tidyFile, io);
        return clean;
    };
    int exit = clean;
    try {
        exit = run();
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
