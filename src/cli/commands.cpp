#include "cli/open_build.h"
#include "cli/output.h"

#include "core/analysis/analysis.h"
#include "core/balance/case_balance.h"
#include "core/base/text_match.h"
#include "core/instructions/check_words.h"
#include "core/instructions/step_words.h"
#include "core/practice/practice.h"
#include "core/rules/rule.h"
#include "core/sequence/checks.h"
#include "core/sequence/plan.h"
#include "core/sequence/service_depth.h"
#include "core/studies/radio_places.h"
#include "io/file_bytes.h"
#include "io/json/parse.h"
#include "io/project/project_file.h"
#include "io/report_json/analysis_json.h"
#include "io/report_json/sequence_json.h"
#include "io/report_json/sum_json.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <ostream>

namespace waxis::cli {

namespace {

constexpr std::array<const char *, 5> kSeverity{"STOP", "WATCH", "NOTE", "UNKNOWN", "PASS"};

void printBalance(const Build &build, const CaseBalance &balance, std::ostream &out) {
    say(out, "  {:<28} {:>7.1f} ± {:.1f} g", balance.loadCase.name, balance.mass.mass_g, balance.tolerance_g);
    if (balance.offset_mm) {
        const Vec3 &d = *balance.offset_mm;
        say(out, "   {:.1f} mm {}, {:.1f} mm {}, {:.1f} mm {} the propellers", std::abs(d.x()),
            d.x() >= 0 ? "forward" : "aft", std::abs(d.y()), d.y() >= 0 ? "left" : "right", std::abs(d.z()),
            d.z() >= 0 ? "above" : "below");
    }
    if (balance.thrustToWeight) say(out, "   thrust to weight {:.1f}", *balance.thrustToWeight);
    if (!balance.notWeighed.empty()) {
        std::string names;
        for (const auto &id : balance.notWeighed) names += (names.empty() ? "" : ", ") + displayName(build, id);
        say(out, "   (not weighed: {})", names);
    }
    out << '\n';
}

} // namespace

int check(const CheckOptions &options, Streams io) {
    const auto opened = open(options.file, options.profile, io);
    if (!opened) return opened.error();
    Analyser analyser;
    const Analysis &analysis = analyseFully(analyser, opened->build, opened->practice);
    say(io.out, "{}, practice {}\n", opened->build.name, analysis.practice.profile);
    for (const auto &balance : analysis.derived.balance) printBalance(opened->build, balance, io.out);
    io.out << '\n';
    for (const auto &finding : analysis.findings) {
        const FindingText text = wordFinding(opened->build, finding);
        say(io.out, "{:<8} {:<6} {}\n                {}\n",
            finding.accepted() ? "accepted" : kSeverity[std::size_t(finding.severity)], ruleName(finding.rule),
            text.headline.text(), text.detail.text());
        if (finding.accepted()) say(io.out, "                because: {}\n", finding.acceptedReason);
    }
    const auto &n = analysis.counts;
    say(io.out, "\n{} stop, {} watch, {} note, {} unknown, {} accepted\n", n.stop, n.watch, n.note, n.unknown,
        n.accepted);
    return n.stop > 0 ? stopFindings : clean;
}

int analyse(const AnalyseOptions &options, Streams io) {
    if (!options.json) {
        say(io.err, "analyse writes JSON only: add --json (check gives the readable form)\n");
        return unreadable;
    }
    const auto opened = open(options.file, options.profile, io);
    if (!opened) return opened.error();
    Analyser analyser;
    const Analysis &analysis = analyseFully(analyser, opened->build, opened->practice);
    waxis::io::SlowParts slow;
    for (const auto &trial : opened->build.trials) {
        const bool known =
            std::any_of(slow.places.begin(), slow.places.end(), [&](const auto &p) { return p.part == trial.part; });
        if (!known) slow.places.push_back({trial.part, comparePlaces(opened->build, trial.part, {}, opened->practice)});
    }
    slow.balance = studyBalance(opened->build, analysis);
    for (std::size_t i = 0; i < analysis.derived.loadCases.size();
         ++i) { // each pack in the first case that it flies in
        const LoadCase &loadCase = analysis.derived.loadCases[i];
        const bool known = std::any_of(slow.packs.begin(), slow.packs.end(),
                                       [&](const auto &p) { return p.part == loadCase.battery; });
        if (!loadCase.battery.empty() && !known)
            slow.packs.push_back({loadCase.battery, loadCase.id,
                                  comparePacks(opened->build, analysis.practice, loadCase.battery, i, {})});
    }
    for (std::size_t i = 0; i < analysis.derived.loadCases.size() && slow.propellers.empty(); ++i)
        if (analysis.derived.loadCases[i].flies())
            slow.propellers = comparePropellers(opened->build, analysis.practice, i, {});
    io.out << waxis::io::analysisText(opened->build, analysis, slow);
    return clean;
}

namespace {

/// Number of a load case by its id; of none the one that is built.
std::optional<int> caseOf(const std::string &file, const std::string &id, const Build &build,
                          const std::vector<LoadCase> &cases, Streams io) {
    if (id.empty()) return waxis::fullestCase(build, cases);
    std::vector<std::string> ids;
    for (const auto &loadCase : cases) ids.push_back(loadCase.id);
    if (const auto at = std::find(ids.begin(), ids.end(), id); at != ids.end()) return int(at - ids.begin());
    const std::string near = waxis::nearestWord(id, ids);
    say(io.err, "{}: there is no load case \"{}\"{}\n", file, id,
        near.empty() ? "" : fmt::format(", did you mean \"{}\"?", near));
    return std::nullopt;
}

} // namespace

int steps(const StepsOptions &options, Streams io) {
    const auto opened = open(options.file, {}, io);
    if (!opened) return opened.error();
    const Build &build = opened->build;
    Analyser analyser;
    const Analysis &analysis = analyser.update(build, opened->practice);
    const Derived &derived = analysis.derived;
    const auto at = caseOf(options.file, options.loadCase, build, *derived.loadCases, io);
    if (!at) return unreadable;
    const AssemblyPlan plan = planAssembly(build, analysis.practice, derived, *at);
    const bool stuck = std::any_of(plan.steps.begin(), plan.steps.end(), [](const waxis::Step &step) {
        return !step.stuckBehind.empty() || !step.undriven.empty();
    });
    const Exit exit = stuck ? stopFindings : clean;
    if (options.json) {
        io.out << waxis::io::documentText(waxis::io::planJson(build, derived, plan));
        return exit;
    }
    say(io.out, "{}, {}: {} steps, some {:.0f} minutes, turned over {} times\n", build.name,
        displayName(build, plan.loadCase), plan.steps.size(), plan.minutes, plan.turns);
    std::string group;
    for (std::size_t i = 0; i < plan.steps.size(); ++i) {
        const waxis::Step &step = plan.steps[i];
        const std::string here =
            fmt::format("{}{}{}", placeWord(build, step), step.side == 0 ? "" : ", ", waxis::sideWord(step.side));
        if (here != group) say(io.out, "\n{}\n", here);
        group = here;
        say(io.out, "{:>3}  {} ({}, {:.0f} min)\n", i + 1, wordStep(build, step).text(), waxis::toolWord(step.tool),
            std::max(1.0, step.minutes));
        for (const auto &line : wordTakes(build, derived, step)) say(io.out, "       {}\n", line.text());
        for (const auto &why : wordWhyHere(build, plan, i)) say(io.out, "     {}\n", why.text());
    }
    return exit;
}

int checks(const ChecksOptions &options, Streams io) {
    const auto opened = open(options.file, {}, io);
    if (!opened) return opened.error();
    const Build &build = opened->build;
    Analyser analyser;
    const Analysis &analysis = analyser.update(build, opened->practice);
    const auto at = caseOf(options.file, options.loadCase, build, *analysis.derived.loadCases, io);
    if (!at) return unreadable;
    const auto all = waxis::checksOf(build, analysis.practice, analysis.derived, *at);
    const bool bad = std::any_of(all.begin(), all.end(), [&](const waxis::Check &check) {
        return verdictOf(check, resultOf(build, check)) == waxis::CheckVerdict::bad;
    });
    if (options.json) {
        io.out << waxis::io::documentText(waxis::io::checksJson(build, all));
        return bad ? stopFindings : clean;
    }
    for (const auto &check : all) {
        const waxis::CheckText text = wordCheck(build, check);
        const waxis::CheckResult *result = resultOf(build, check);
        say(io.out, "{}: {}\n    {}\n", text.title.text(), text.expected.text(), text.how.text());
        if (result)
            say(io.out, "    found: {}{}\n", result->found,
                verdictOf(check, result) == waxis::CheckVerdict::bad ? "  NOT AS EXPECTED" : "");
    }
    return bad ? stopFindings : clean;
}

int service(const ServiceOptions &options, Streams io) {
    const auto opened = open(options.file, {}, io);
    if (!opened) return opened.error();
    const Build &build = opened->build;
    if (!findPart(build, options.part)) {
        std::vector<std::string> ids;
        for (const auto &part : build.parts) ids.push_back(part.id);
        const std::string near = waxis::nearestWord(options.part, ids);
        say(io.err, "{}: there is no part \"{}\"{}\n", options.file, options.part,
            near.empty() ? "" : fmt::format(", did you mean \"{}\"?", near));
        return unreadable;
    }
    Analyser analyser;
    const Analysis &analysis = analyser.update(build, opened->practice);
    const auto at = caseOf(options.file, options.loadCase, build, *analysis.derived.loadCases, io);
    if (!at) return unreadable;
    const auto way = serviceOf(build, analysis.practice, analysis.derived, *at, options.part);
    if (!way) {
        say(io.err, "{}: {} cannot be taken off, or is not aboard in that load case\n", options.file, options.part);
        return stopFindings;
    }
    if (options.json) {
        io.out << waxis::io::documentText(waxis::io::serviceJson(*way));
        return clean;
    }
    for (std::size_t i = 0; i < way->off.size(); ++i) {
        for (const auto &joint : way->off[i].undo)
            say(io.out, "     undo {} at {}\n", displayName(build, joint.wire), displayName(build, joint.part));
        std::string along;
        for (std::size_t k = 1; k < way->off[i].things.size(); ++k)
            along += (k == 1 ? ", with " : ", ") + displayName(build, way->off[i].things[k]);
        say(io.out, "{:>3}  {}{}\n", i + 1, displayName(build, way->off[i].things.front()), along);
    }
    return clean;
}

namespace {

int listSums(bool json, Streams io) {
    if (json) {
        io.out << waxis::io::sumListJson();
        return clean;
    }
    for (const auto &sum : sumRegistry()) {
        say(io.out, "{:<18} {}\n", sum.name, sum.title);
        for (const auto &input : sum.inputs)
            say(io.out, "    {:<16} {}{}\n", input.key, input.title, input.standard ? " (may be left out)" : "");
        say(io.out, "    ->");
        for (const auto &output : sum.outputs) say(io.out, " {}", output.key);
        say(io.out, "\n    {}\n    source: {}\n", sum.formula, sum.source);
    }
    return clean;
}

int runBatch(const std::string &file, Streams io) {
    const auto bytes = waxis::io::readFile(file, waxis::io::kLargestFile);
    if (!bytes) {
        say(io.err, "{}: {}\n", file, bytes.error());
        return unreadable;
    }
    const auto results = waxis::io::runSumBatch(*bytes);
    if (!results) {
        say(io.err, "{}: {}\n", file, results.error().text());
        return unreadable;
    }
    io.out << *results;
    return clean;
}

} // namespace

int calc(const CalcOptions &options, Streams io) {
    if (options.list) return listSums(options.json, io);
    if (!options.batchFile.empty()) return runBatch(options.batchFile, io);
    auto refuse = [&](const std::string &why) {
        say(io.err, "calc: {}\n", why);
        return int(unreadable);
    };
    if (options.name.empty()) return refuse("name a calculation; calc --list shows them all");
    const Sum *sum = findSum(options.name);
    if (!sum) return refuse(unknownSum(options.name).text());
    SumObject inputs;
    for (const auto &word : options.inputs) {
        const auto equals = word.find('=');
        if (equals == std::string::npos || equals == 0) return refuse(fmt::format("\"{}\": KEY=VALUE expected", word));
        inputs.emplace_back(word.substr(0, equals), waxis::io::sumValueFromText(word.substr(equals + 1)));
    }
    const auto outputs = calculate(*sum, inputs);
    if (!outputs) return refuse(outputs.error().text());
    if (options.json) {
        nlohmann::ordered_json document;
        document["calc"] = sum->name;
        document["inputs"] = waxis::io::sumValueJson(inputs);
        document["outputs"] = waxis::io::sumValueJson(*outputs);
        io.out << waxis::io::prettyJson(document);
        return clean;
    }
    for (const auto &[key, value] : *outputs) say(io.out, "{:<22} {}\n", key, waxis::io::sumValueText(value));
    return clean;
}

int rules(Streams io) {
    say(io.out, "# Rule book\n\nMade by `weightaxis-cli rules`; do not edit.\n\n");
    for (const auto &rule : ruleBook()) {
        say(io.out, "## {} {}\n\n{}\n\nSource: {}.\n", ruleName(rule.id), rule.title, rule.why, rule.source);
        if (!rule.limits.empty()) say(io.out, "\nLimits read:\n\n");
        for (const Limit limit : rule.limits)
            say(io.out, "- `{}` {}\n", definitionOf(limit).id, definitionOf(limit).title);
        io.out << '\n';
    }
    say(io.out, "# Limits\n\n| limit | what | unit |");
    for (const auto &profile : profiles()) say(io.out, " {} |", profile.name);
    say(io.out, " source |\n|---|---|---|");
    for (std::size_t i = 0; i < profiles().size(); ++i) say(io.out, "---|");
    say(io.out, "---|\n");
    for (const auto &definition : limitTable()) {
        say(io.out, "| `{}` | {} | {} |", definition.id, definition.title, definition.unit);
        for (const auto &profile : profiles()) say(io.out, " {:g} |", practiceOfProfile(profile.id)[definition.limit]);
        say(io.out, " {} |\n", definition.source);
    }
    say(io.out, "\n# Schools\n\nWhere builders disagree; a profile's choice can be changed in every build.\n");
    for (const auto &school : schools()) {
        say(io.out, "\n## `{}` {}\n\n", school.id, school.title);
        for (const auto &option : school.options) {
            std::string by;
            for (const auto &profile : profiles())
                if (practiceOfProfile(profile.id).follows(school.id, option.id))
                    by += (by.empty() ? "" : ", ") + std::string(profile.name);
            say(io.out, "- `{}` {}. {}{}\n", option.id, option.name, option.reason,
                by.empty() ? "" : fmt::format(" ({})", by));
        }
    }
    return clean;
}

int tidy(const std::string &file, Streams io) {
    const auto build = loadBuild(file);
    if (build) {
        io.out << writeBuild(build->build, build->kept);
        return clean;
    }
    const auto library = loadLibrary(file);
    if (library) {
        io.out << writeLibrary(*library);
        return clean;
    }
    const bool isLibrary = build.error().where == "/format";
    say(io.err, "{}: {}\n", file, isLibrary ? library.error().text() : build.error().text());
    return unreadable;
}

} // namespace waxis::cli
