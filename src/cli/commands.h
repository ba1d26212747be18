// What weightaxis-cli does, apart from reading its arguments.
#pragma once

#include <iosfwd>
#include <optional>
#include <string>
#include <vector>

namespace waxis::cli {

/// Exit codes of all commands.
enum Exit : int { clean = 0, stopFindings = 1, unreadable = 2 };

struct Streams {
    std::ostream &out; ///< whether it took everything is asked once, at the end
    std::ostream &err;
};

struct CheckOptions {
    std::string file;
    std::string profile; ///< empty: the build's own
};
int check(const CheckOptions &options, Streams io);

struct AnalyseOptions {
    std::string file;
    std::string profile;
    bool json = false;
};
int analyse(const AnalyseOptions &options, Streams io);

struct StepsOptions {
    std::string file;
    std::string loadCase; ///< id; empty: the one with most aboard that flies
    bool json = false;
};
/// In which order the craft goes together.
int steps(const StepsOptions &options, Streams io);

struct ChecksOptions {
    std::string file;
    std::string loadCase; ///< as StepsOptions
    bool json = false;
};
/// What is measured before and at first power, with what is expected.
int checks(const ChecksOptions &options, Streams io);

struct ServiceOptions {
    std::string file;
    std::string part;
    std::string loadCase;
    bool json = false;
};
/// What comes off before a part does.
int service(const ServiceOptions &options, Streams io);

struct LogOptions {
    std::string file;
    bool json = false;
    std::string entriesCsv, triesCsv;       ///< files to write; "-" is the standard output
    std::string importEntries, importTries; ///< files to read into the build
    bool force = false;
    bool add = false;               ///< `log add`
    std::vector<std::string> line;  ///< of the entry, as typed
    std::string at, place, session; ///< of a new session; the id of one that is there
};
/// What was measured against what was planned; entries in and out.
int log(const LogOptions &options, Streams io);

struct TrialOptions {
    std::string file;
    bool json = false;
    std::string recording;  ///< of a receiver, to be kept as a try
    std::string trial, way; ///< id or question, id or name
    std::string at, session, note;
    std::optional<double> nose_deg;
};
/// What the trials of a build tell.
int trial(const TrialOptions &options, Streams io);

struct NmeaOptions {
    std::string file; ///< "-" is the standard input
    bool json = false;
};
/// What a recorded stream of a satellite receiver holds.
int nmea(const NmeaOptions &options, Streams io);

struct CalcOptions {
    bool list = false;
    bool json = false;
    std::string batchFile;
    std::string name;
    std::vector<std::string> inputs; ///< KEY=VALUE
};
int calc(const CalcOptions &options, Streams io);

struct ImportOptions {
    std::string file;
    std::string units; ///< "mm", "in", ...; empty: the header's
    std::string nose = "right";
    double tolerance_mm = 0.05;
    double prop_mm = 0; ///< 0: as large as the motors allow
    std::string out;    ///< build to write; empty: none
    bool json = false;
    bool force = false; ///< replace files that are there
};
int importFrame(const ImportOptions &options, Streams io);

struct ExportOptions {
    std::string file;
    std::string platesDxf, platesSvg, drillDxf, drillSvg, kitCsv, cutCsv, massCsv,
        necDeck;          ///< files to write; "-" is the standard output
    std::string from, to; ///< radios of the deck
    int segments = 2000;
    bool force = false;
};
int exportBuild(const ExportOptions &options, Streams io);

struct NewOptions {
    std::string layout;
    std::vector<std::string> values; ///< KEY=NUMBER
    std::string out;
    bool list = false;
    bool force = false;
};
/// A build with the frame of a layout.
int newBuild(const NewOptions &options, Streams io);

/// The rule book as Markdown (docs/rules.md).
int rules(Streams io);

/// Reads a build or library and writes it again in the stable form.
int tidy(const std::string &file, Streams io);

} // namespace waxis::cli
