// log, log add, trial, nmea: what was measured.
#include "cli/open_build.h"
#include "cli/output.h"

#include "core/analysis/analysis.h"
#include "core/base/by_id.h"
#include "core/edits/log_edits.h"
#include "core/instructions/log_words.h"
#include "core/log/entry_text.h"
#include "core/log/fingerprint.h"
#include "core/log/try_recorder.h"
#include "io/csv/log_csv.h"
#include "io/file_bytes.h"
#include "io/json/parse.h"
#include "io/report_json/log_json.h"
#include "io/report_json/sequence_json.h"

#include <algorithm>
#include <cmath>
#include <ctime>
#include <iostream>
#include <iterator>

namespace waxis::cli {

namespace {

/// "2026-05-14T10:20:00+02:00"
std::string now() {
    const std::time_t time = std::time(nullptr);
    std::tm local{};
    localtime_r(&time, &local);
    char text[40];
    std::strftime(text, sizeof text, "%Y-%m-%dT%H:%M:%S%z", &local);
    std::string at = text;
    if (at.size() > 2) at.insert(at.size() - 2, ":");
    return at;
}

int save(const std::string &file, const Opened &opened, const Build &build, Streams io) {
    const auto saved = saveBuild(file, build, opened.kept, opened.stamp);
    if (saved) return clean;
    say(io.err, "{}: not written: {}\n", file, saved.error().reason);
    return unreadable;
}

int addOne(const LogOptions &options, const Opened &opened, Streams io) {
    std::string line;
    for (const auto &word : options.line) line += (line.empty() ? "" : " ") + word;
    const auto entry = readEntry(opened.build, line);
    if (!entry) {
        say(io.err, "log add: {}\n  {}\n  {}^\n", entry.error().message, line, std::string(entry.error().at, ' '));
        if (!entry.error().suggestion.empty()) say(io.err, "  did you mean \"{}\"?\n", entry.error().suggestion);
        return unreadable;
    }
    EditResult next = opened.build;
    Entry made = *entry;
    made.session = options.session;
    if (made.session.empty() && (!latestSession(*next) || !options.at.empty() || !options.place.empty())) {
        Session session;
        session.id = freshId(*next, "session");
        session.at = options.at.empty() ? now() : options.at;
        session.place = options.place;
        session.fingerprint = fingerprintOf(*next);
        made.session = session.id;
        next = addSession(*next, session);
    }
    made.at = options.at.empty() ? now() : options.at;
    if (next) next = addEntry(*next, made);
    if (!next) {
        say(io.err, "log add: {}\n", next.error().message);
        return unreadable;
    }
    say(io.out, "{}\n", entryLine(*next, made));
    return save(options.file, opened, *next, io);
}

/// False: something in the list could not be read; it is said, the rest is taken.
template <class List>
bool tellProblems(const std::string &file, const List &list, Streams io) {
    for (const auto &problem : list.problems) say(io.err, "{}: line {}: {}\n", file, problem.line, problem.reason);
    return list.problems.empty();
}

int takeIn(const LogOptions &options, const Opened &opened, Streams io) {
    EditResult next = opened.build;
    bool isWhole = true;
    const auto read = [&](const std::string &file, auto readList, auto take) {
        if (file.empty() || !next) return true;
        const auto bytes = waxis::io::readFile(file, waxis::io::kLargestFile);
        if (!bytes) {
            say(io.err, "{}: {}\n", file, bytes.error());
            return false;
        }
        const auto list = readList(parseCsv(*bytes), *next);
        isWhole = tellProblems(file, list, io) && isWhole;
        next = take(*next, list);
        return true;
    };
    if (!read(options.importEntries, readEntryList, takeEntryList) ||
        !read(options.importTries, readTryList, takeTryList))
        return unreadable;
    if (!next) {
        say(io.err, "log: {}\n", next.error().message);
        return unreadable;
    }
    const std::size_t entries = next->log->entries.size() - opened.build.log->entries.size();
    std::size_t tries = 0;
    for (const auto &trial : next->log->trials) {
        const Trial *before = byId(opened.build.log->trials, trial.id);
        tries += trial.tries.size() - (before ? before->tries.size() : 0);
    }
    say(io.out, "{} entries and {} tries taken in\n", entries, tries);
    const int saved = save(options.file, opened, *next, io);
    return saved != clean ? saved : isWhole ? clean : unreadable;
}

} // namespace

int log(const LogOptions &options, Streams io) {
    if (options.file.empty()) {
        say(io.err, "log: name a build\n");
        return unreadable;
    }
    const auto opened = open(options.file, {}, io);
    if (!opened) return opened.error();
    const Build &build = opened->build;
    if (options.add) return addOne(options, *opened, io);
    if (!options.importEntries.empty() || !options.importTries.empty()) return takeIn(options, *opened, io);
    if (!options.entriesCsv.empty() || !options.triesCsv.empty()) {
        Outputs outputs(io, {options.file}, options.force);
        if (!outputs.mayWrite({options.entriesCsv, options.triesCsv})) return unreadable;
        const bool written = (options.entriesCsv.empty() || outputs.put(options.entriesCsv, writeEntries(build))) &&
                             (options.triesCsv.empty() || outputs.put(options.triesCsv, writeTries(build)));
        return written ? clean : unreadable;
    }
    Analyser analyser;
    const Analysis &analysis = analyser.update(build, opened->practice);
    const LogReport &report = *analysis.derived.log;
    if (options.json) {
        io.out << waxis::io::documentText(waxis::io::logJson(build, report));
        return clean;
    }
    for (const auto &session : build.log->sessions) {
        say(io.out, "{}  {}{}\n", session.at, session.place.empty() ? "" : session.place + "  ", session.name);
        for (const auto &entry : build.log->entries)
            if (entry.session == session.id)
                say(io.out, "    {}{}{}\n", entryLine(build, entry), entry.setAside ? "  (set aside)" : "",
                    entry.cure.empty() ? "" : "  -> " + entry.cure);
    }
    if (build.log->sessions.empty()) say(io.out, "The log is empty: log add {} \"weight ID 12.4 g\"\n", options.file);
    if (!report.rows.empty()) say(io.out, "\nPlanned and measured\n");
    for (const auto &row : report.rows) {
        const std::string planned =
            row.planned ? fmt::format("{} ± {}", threeDigits(*row.planned), threeDigits(2 * row.plannedSigma))
                        : "not planned";
        say(io.out, "  {:<44} {:>16}  {:>16} {}{}\n", wordRow(build, row).text(), planned,
            fmt::format("{} ± {}", threeDigits(row.measured), threeDigits(2 * row.measuredSigma)), row.unit,
            row.agreement == Agreement::apart ? fmt::format("  APART by {:.1f} sigma", std::abs(row.sigmas)) : "");
    }
    return clean;
}

namespace {

/// Of things with an id and words: which one is meant; none named: the only one.
template <class List, class Words>
const typename List::value_type *meant(const List &list, const std::string &text, Words words) {
    if (text.empty()) return list.size() == 1 ? &list.front() : nullptr;
    for (const auto &one : list)
        if (one.id == text || words(one) == text) return &one;
    return nullptr;
}

int keepRecording(const TrialOptions &options, const Opened &opened, Streams io) {
    const Build &build = opened.build;
    const Trial *trial = meant(build.log->trials, options.trial, [](const Trial &t) { return t.question; });
    const TrialSetup *way =
        trial ? meant(trial->setups, options.way, [](const TrialSetup &s) { return s.name; }) : nullptr;
    if (!way) {
        say(io.err, "trial: {} \"{}\"\n", trial ? "the trial has no way" : "there is no trial",
            trial ? options.way : options.trial);
        return unreadable;
    }
    const auto bytes = waxis::io::readFile(options.recording, waxis::io::kLargestFile);
    if (!bytes) {
        say(io.err, "{}: {}\n", options.recording, bytes.error());
        return unreadable;
    }
    Try one = tryFromRecording(*bytes);
    if (!(one.watched_s > 0)) {
        say(io.err, "{}: there is no round of a receiver in it\n", options.recording);
        return unreadable;
    }
    one.setup = way->id;
    one.session = options.session;
    one.at = options.at.empty() ? now() : options.at;
    one.nose_deg = options.nose_deg;
    one.note = options.note;
    one.instrument = "recording";
    const auto next = addTry(build, trial->id, one);
    if (!next) {
        say(io.err, "trial: {}\n", next.error().message);
        return unreadable;
    }
    const auto value = tryValue(*trial, one);
    say(io.out, "{}: {}\n", way->name, value ? trialValue(*trial, *value) : "nothing of what the trial asks");
    return save(options.file, opened, *next, io);
}

} // namespace

int trial(const TrialOptions &options, Streams io) {
    const auto opened = open(options.file, {}, io);
    if (!opened) return opened.error();
    const Build &build = opened->build;
    if (!options.recording.empty()) return keepRecording(options, *opened, io);
    Analyser analyser;
    const Analysis &analysis = analyser.update(build, opened->practice);
    const LogReport &report = *analysis.derived.log;
    if (options.json) {
        io.out << waxis::io::documentText(waxis::io::trialsJson(build, report));
        return clean;
    }
    if (build.log->trials.empty()) say(io.out, "There is no trial in this build.\n");
    for (std::size_t i = 0; i < report.trials.size(); ++i) {
        const Trial &trial = build.log->trials[i];
        say(io.out, "{}\n{}\n", trial.question, trialMeasure(trial).text());
        for (const auto &result : report.trials[i].setups) {
            std::string values;
            for (const auto &value : result.values) values += (values.empty() ? "" : ", ") + trialValue(trial, value);
            const TrialSetup *setup = byId(trial.setups, result.setup);
            say(io.out, "  {:<28} {:>8}  {}\n", setup ? setup->name : result.setup,
                result.median ? trialValue(trial, {*result.median, true}) : "-", values);
        }
        for (const auto &pair : report.trials[i].pairs) say(io.out, "  {}\n", wordComparison(trial, pair).text());
        if (const TrialSetup *next = byId(trial.setups, nextSetup(trial)))
            say(io.out, "  Next, so that all stay alike: {}\n", next->name);
        io.out << '\n';
    }
    return clean;
}

int nmea(const NmeaOptions &options, Streams io) {
    std::string bytes;
    if (options.file == "-") {
        bytes.assign(std::istreambuf_iterator<char>(std::cin), {});
    } else {
        const auto read = waxis::io::readFile(options.file, waxis::io::kLargestFile);
        if (!read) {
            say(io.err, "{}: {}\n", options.file, read.error());
            return unreadable;
        }
        bytes = *read;
    }
    const auto summary = waxis::io::summaryOf(bytes);
    if (options.json) {
        io.out << waxis::io::documentText(waxis::io::recordingJson(summary));
        return summary.counts.sentences > 0 ? clean : unreadable;
    }
    const auto &counts = summary.counts;
    if (counts.sentences == 0) {
        say(io.err, "{}: no sentence of NMEA 0183 in {} bytes{}\n", options.file, counts.bytes,
            summary.lastFault.empty() ? "" : ": " + summary.lastFault);
        return unreadable;
    }
    say(io.out, "{} sentences in {} rounds, {} refused, {} bytes between\n", counts.sentences, counts.rounds,
        counts.refused, counts.skipped);
    if (!summary.lastFault.empty()) say(io.out, "last refused: {}\n", summary.lastFault);
    if (summary.from_s && summary.to_s)
        say(io.out, "from {:02d}:{:02d}:{:02d} to {:02d}:{:02d}:{:02d} UTC\n", int(*summary.from_s / 3600),
            int(*summary.from_s / 60) % 60, int(*summary.from_s) % 60, int(*summary.to_s / 3600),
            int(*summary.to_s / 60) % 60, int(*summary.to_s) % 60);
    if (summary.fixAfter_s)
        say(io.out, "first place after {:.0f} s\n", *summary.fixAfter_s);
    else
        say(io.out, "no place found\n");
    for (const int wanted : {4, 5, 8, 12})
        if (std::size_t(wanted) <= summary.reachedAfter_s.size())
            say(io.out, "{} satellites after {:.0f} s\n", wanted, summary.reachedAfter_s[std::size_t(wanted) - 1]);
    say(io.out, "{} in use at most; at the end {} of {} in view", summary.mostUsed, summary.last.used,
        summary.last.inView);
    if (summary.last.best4_dBHz) say(io.out, ", the four best at {:.1f} dB-Hz", *summary.last.best4_dBHz);
    io.out << '\n';
    return clean;
}

} // namespace waxis::cli
