// Measured of the whole craft against the sum of its parts: which masses that makes likely, and which entry is wrong.
#pragma once

#include "core/build/build.h"
#include "core/practice/practice.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct MassRow;

/// What one weighing says.
struct WeighingResult {
    std::string id;
    std::size_t loadCase = 0;
    std::string problem; ///< not empty: it cannot be used, and why
    std::optional<double> measured_g, predicted_g;
    std::optional<double> sigma_g;   ///< of the difference: scale and parts together
    std::optional<Vec2> measured_mm; ///< centre of gravity in plan; none for a total or a single line
    std::optional<Vec2> predicted_mm;
    /// Balanced lines: how far the predicted centre of gravity stands from each, across it, mm.
    std::vector<double> beside_mm;
};

/// A mass as it is entered and as the weighings make it likely.
struct ReconciledMass {
    std::string id; ///< of the mass row
    double entered_g = 0, sigma_g = 0;
    double likely_g = 0, likelySigma_g = 0;
    bool known = true; ///< false: nothing was entered, the weighings alone say it
};

/// An entry that would explain the difference if it alone were wrong.
struct Suspect {
    std::string id;
    double entered_g = 0, wouldBe_g = 0;
    double explains = 0; ///< share of chi squared that goes away, 0 to 1
    double sigmas = 0;   ///< how many standard deviations the needed change stands out from what the rest explains
};

struct ReconcileReport {
    std::vector<WeighingResult> weighings; ///< in file order
    int conditions = 0;                    ///< numbers that were measured
    double chiSquared = 0;
    double chance = 1;                  ///< of differences at least this large by stated doubts alone
    std::vector<ReconciledMass> masses; ///< those whose likely value moves by 0.01 g or more, most first
    std::vector<Suspect> suspects;      ///< when chance is under 1 %: most likely first, five at most
    bool decided = false;               ///< the first suspect stands out from the second by two standard deviations
    bool contradicts() const { return conditions > 0 && chance < 0.01; }
};

/// Weighted least squares over all uncertain masses: minimise sum (d_i/s_i)^2 + v^T R^-1 v with v = z - H (m + d);
/// solved as d = P H^T (H P H^T + R)^-1 (z - H m). Masses are independent a priori; a mass that nobody knows has no
/// prior (1,000 g). Suspects: the change of one mass alone that takes most off chi squared (Baarda's data snooping),
/// less for entries that would have to be wrong by a large factor (common sense, no source). Positions count as doubt
/// of the measurement.
ReconcileReport reconcile(const Build &build, const std::vector<MassRow> &rows, const std::vector<LoadCase> &loadCases,
                          const Practice &practice);

} // namespace waxis
