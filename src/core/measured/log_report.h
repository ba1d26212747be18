// What was measured against what is planned: differences in units of their doubt, what is systematic, what trials say.
#pragma once

#include "core/edits/feedback_edits.h"
#include "core/log/trial_report.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct CaseBalance;
struct KitLine;
struct MassRow;
struct PowerReport;
struct RadioReport;
struct WiringReport;

enum class Agreement {
    agrees,
    apart,      ///< farther than the practice lets pass
    planUnknown ///< nothing is planned to compare with
};

/// One thing that both are known of.
struct PlannedMeasured {
    Quantity quantity = Quantity::partWeight;
    std::string subject;    ///< id; empty: the craft
    std::string loadCase;   ///< id, where it matters
    std::string_view which; ///< of several numbers: "forward", "length", ...
    std::string_view unit;
    std::optional<double> planned;
    double plannedSigma = 0; ///< one standard deviation
    double measured = 0, measuredSigma = 0;
    int entries = 0;   ///< how many were measured; `measured` is their median
    double sigmas = 0; ///< (measured - planned) in standard deviations of both; 0 where there is no plan
    Agreement agreement = Agreement::agrees;
    std::vector<Feedback> feedback; ///< what taking it over would do; empty: there is nothing to take
};

/// Leads cut, against the lengths that were planned.
struct LeadHabit {
    std::vector<std::string> wires;
    std::vector<double> longer_mm; ///< by wire: cut less planned
    int longer = 0, shorter = 0;
    double median_mm = 0, low_mm = 0, high_mm = 0; ///< 95 % where so many reach it
    double coverage = 0;
    double chance = 1; ///< two-sided sign test: so lopsided by chance alone
};

/// One thing measured twice, farther apart than both doubts allow.
struct Inconsistency {
    std::string first, second; ///< entry ids
    double sigmas = 0;
};

struct LogReport {
    std::vector<PlannedMeasured> rows;
    LeadHabit leads;
    std::vector<Inconsistency> inconsistent;
    std::vector<TrialReport> trials; ///< by Log::trials
    std::optional<Feedback> slack;   ///< own slack, where leads are cut longer by habit
    bool hasFlown = false;           ///< some flight, hover or throttle was entered
};

/// Entries that are set aside are not looked at; of things measured several times the median counts. Hover and idle
/// are compared in the load case of the entry or its session. Sigma of the plan: mass rows' tolerances, a third of a
/// hover's power for minutes and currents (figure of merit 0.5 to 0.7, common practice). The throttle of a hover lies
/// between thrust as its first and as its second power (common practice).
struct LogInputs {
    const std::vector<LoadCase> &loadCases;
    const std::vector<MassRow> &rows;
    const std::vector<KitLine> &kit;
    const std::vector<CaseBalance> &balance;
    const PowerReport &power;
    const WiringReport &wiring;
    const RadioReport &radio;
};
LogReport logReport(const Build &build, const Practice &practice, const LogInputs &in);

} // namespace waxis
