// m masses, P their prior covariance, H conditions x masses, z measured, R its covariance, S = H P H^T + R.
// Sources: linear least squares with prior (Gauss-Markov); Baarda, data snooping: w^2 = (h S^-1 r)^2 / (h S^-1 h).
#include "core/balance/reconcile.h"

#include "core/balance/case_masses.h"
#include "core/balance/mass_rows.h"
#include "core/balance/statics.h"

#include <Eigen/Dense>
#include <algorithm>
#include <boost/math/distributions/chi_squared.hpp>
#include <cmath>
#include <numeric>
#include <tuple>

namespace waxis {

namespace {

constexpr double kNoPrior_g = 1000;

/// What is known of a mass that nobody entered: its bodies are neither foam nor lead. 1.5 g/cm3, give or take as much
/// (one standard deviation, common practice, no source); without bodies anything up to a kilogram.
std::pair<double, double> priorOfUnknown(const Build &build, const MassRow &row) {
    const Part *part = findPart(build, row.id);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    double volume_mm3 = 0;
    if (type)
        for (const auto &solid : type->solids) volume_mm3 += shapeProperties(solid.shape).volume_mm3;
    constexpr double kUsual_g_mm3 = 1.5e-3;
    if (!(volume_mm3 > 0)) return {0.0, kNoPrior_g};
    return {kUsual_g_mm3 * volume_mm3, kUsual_g_mm3 * volume_mm3};
}
constexpr double kLeastDoubt = 0.005; // g and mm: nothing is read more surely than that

/// Conditions on the masses: rows of H with z and R. A weighing's conditions may be correlated.
struct Conditions {
    std::vector<Eigen::VectorXd> h;
    std::vector<double> z;
    struct Block {
        std::size_t first;
        Eigen::MatrixXd covariance;
    };
    std::vector<Block> blocks;

    void add(std::vector<Eigen::VectorXd> rows, const std::vector<double> &values, const Eigen::MatrixXd &covariance) {
        blocks.push_back({h.size(), covariance});
        for (auto &row : rows) h.push_back(std::move(row));
        z.insert(z.end(), values.begin(), values.end());
    }
};

/// Sum over what is aboard of each row's mass times f(place), as coefficients of the rows' masses.
struct Aboard {
    std::vector<std::size_t> rows;
    std::vector<double> share; ///< of the row's mass
    std::vector<Vec2> at_mm;
    double positionVariance_g2mm2 = 0; ///< sum (m sigma)^2

    template <class F>
    Eigen::VectorXd coefficients(std::size_t count, F &&f) const {
        Eigen::VectorXd h = Eigen::VectorXd::Zero(Eigen::Index(count));
        for (std::size_t i = 0; i < rows.size(); ++i) h(Eigen::Index(rows[i])) += share[i] * f(at_mm[i]);
        return h;
    }
};

Aboard aboardOf(const Build &build, const std::vector<MassRow> &rows, std::size_t caseIndex, bool folded) {
    Aboard aboard;
    const CaseMasses in = massesIn(build, rows, caseIndex, folded);
    for (const auto &m : in.masses) {
        const double whole = rows[m.row].element.mass_g;
        if (!(whole != 0)) continue;
        aboard.rows.push_back(m.row);
        aboard.share.push_back(m.element.mass_g / whole);
        aboard.at_mm.emplace_back(m.element.centroid_mm.head<2>());
        aboard.positionVariance_g2mm2 += std::pow(m.element.mass_g * m.sigmaPosition_mm, 2);
    }
    for (std::size_t r : in.unknown) {
        aboard.rows.push_back(r);
        aboard.share.push_back(1);
        aboard.at_mm.emplace_back(rows[r].element.centroid_mm.head<2>());
    }
    return aboard;
}

struct Prior {
    Eigen::VectorXd mass, sigma;
};

} // namespace

ReconcileReport reconcile(const Build &build, const std::vector<MassRow> &rows, const std::vector<LoadCase> &loadCases,
                          const Practice &practice) {
    ReconcileReport report;
    if (build.weighings.empty()) return report;
    const std::size_t n = rows.size();
    Prior prior{Eigen::VectorXd::Zero(Eigen::Index(n)), Eigen::VectorXd::Zero(Eigen::Index(n))};
    for (std::size_t i = 0; i < n; ++i) {
        const auto at = Eigen::Index(i);
        if (rows[i].known) {
            prior.mass(at) = rows[i].element.mass_g;
            prior.sigma(at) = rows[i].tolerance_g / 2;
        } else
            std::tie(prior.mass(at), prior.sigma(at)) = priorOfUnknown(build, rows[i]);
    }
    Conditions conditions;
    const auto one = [](const Vec2 &) { return 1.0; };
    const auto forward = [](const Vec2 &p) { return p.x(); };
    const auto left = [](const Vec2 &p) { return p.y(); };
    for (const auto &weighing : build.weighings) {
        WeighingResult result;
        result.id = weighing.id;
        const auto at = std::find_if(loadCases.begin(), loadCases.end(),
                                     [&](const LoadCase &c) { return c.id == weighing.loadCase; });
        if (at == loadCases.end() && !weighing.loadCase.empty()) result.problem = "its load case is not there";
        if (at != loadCases.end()) result.loadCase = std::size_t(at - loadCases.begin());
        if (result.loadCase >= loadCases.size()) continue;
        const Aboard aboard = aboardOf(build, rows, result.loadCase, loadCases[result.loadCase].folded);
        const Eigen::VectorXd sum = aboard.coefficients(n, one);
        const double total = sum.dot(prior.mass); // unknown masses at their likeliest
        result.predicted_g = total;
        if (total > 0)
            result.predicted_mm = Vec2(aboard.coefficients(n, forward).dot(prior.mass) / total,
                                       aboard.coefficients(n, left).dot(prior.mass) / total);
        const double partsVariance = (sum.array() * prior.sigma.array()).square().sum();
        if (!result.problem.empty()) {
        } else if (weighing.method == WeighingMethod::total) {
            if (!weighing.total_g.known() || !(*weighing.total_g.value > 0))
                result.problem = "enter what the scale read";
            else {
                const double sigma = std::max(
                    weighing.total_g.tolerance.value_or(practice[Limit::measuredMassTolerance]) / 2, kLeastDoubt);
                result.measured_g = weighing.total_g.value;
                result.sigma_g = std::sqrt(sigma * sigma + partsVariance);
                conditions.add({sum}, {*weighing.total_g.value}, Eigen::MatrixXd::Constant(1, 1, sigma * sigma));
            }
        } else if (weighing.method == WeighingMethod::scales) {
            const auto cg = cgFromScales(weighing.points_mm, weighing.readings_g);
            if (!cg)
                result.problem = cg.error().reason;
            else {
                result.measured_g = cg->mass_g;
                result.measured_mm = cg->cg_mm;
                const double s = std::max(weighing.scaleTolerance_g / 2, kLeastDoubt),
                             place = std::max(weighing.lineTolerance_mm / 2, kLeastDoubt);
                Eigen::Matrix3d covariance = Eigen::Matrix3d::Zero();
                double x = 0, y = 0;
                for (std::size_t i = 0; i < weighing.points_mm.size(); ++i) {
                    const Vec2 &p = weighing.points_mm[i];
                    const Eigen::Vector3d row(1, p.x(), p.y());
                    covariance += s * s * row * row.transpose();
                    const double moved = weighing.readings_g[i] * place; // each scale stands where it stands
                    covariance(1, 1) += moved * moved;
                    covariance(2, 2) += moved * moved;
                    x += weighing.readings_g[i] * p.x();
                    y += weighing.readings_g[i] * p.y();
                }
                result.sigma_g = std::sqrt(covariance(0, 0) + partsVariance);
                covariance(1, 1) += aboard.positionVariance_g2mm2;
                covariance(2, 2) += aboard.positionVariance_g2mm2;
                conditions.add({sum, aboard.coefficients(n, forward), aboard.coefficients(n, left)}, {cg->mass_g, x, y},
                               covariance);
            }
        } else {
            if (weighing.lines.empty() || weighing.lines.size() > 2)
                result.problem = "one or two balance lines are wanted";
            else if (weighing.lines.size() == 2) {
                const auto cg = cgFromLines(weighing.lines[0], weighing.lines[1]);
                if (cg)
                    result.measured_mm = *cg;
                else
                    result.problem = cg.error().reason;
            }
            for (const auto &line : weighing.lines) {
                if (!result.problem.empty()) break;
                const Vec2 across = acrossLine(line);
                const double q = across.dot(line.through_mm),
                             sigma = std::max(weighing.lineTolerance_mm / 2, kLeastDoubt);
                if (result.predicted_mm) result.beside_mm.push_back(across.dot(*result.predicted_mm) - q);
                conditions.add(
                    {aboard.coefficients(n, [&](const Vec2 &p) { return across.dot(p) - q; })}, {0.0},
                    Eigen::MatrixXd::Constant(1, 1, std::pow(total * sigma, 2) + aboard.positionVariance_g2mm2));
            }
        }
        report.weighings.push_back(std::move(result));
    }
    const auto k = Eigen::Index(conditions.h.size());
    report.conditions = int(k);
    if (k == 0) return report;
    Eigen::MatrixXd h(k, Eigen::Index(n));
    Eigen::VectorXd r(k);
    for (Eigen::Index i = 0; i < k; ++i) {
        h.row(i) = conditions.h[std::size_t(i)].transpose();
        r(i) = conditions.z[std::size_t(i)] - h.row(i).dot(prior.mass);
    }
    const Eigen::MatrixXd ph = prior.sigma.array().square().matrix().asDiagonal() * h.transpose();
    Eigen::MatrixXd s = h * ph;
    for (const auto &block : conditions.blocks)
        s.block(Eigen::Index(block.first), Eigen::Index(block.first), block.covariance.rows(),
                block.covariance.cols()) += block.covariance;
    // Conditions have units of g and g mm: scaled to a unit diagonal before they are inverted.
    const Eigen::VectorXd scale = s.diagonal().array().max(1e-12).sqrt().inverse();
    const Eigen::MatrixXd unit = scale.asDiagonal() * s * scale.asDiagonal();
    const Eigen::MatrixXd inverse =
        scale.asDiagonal() * unit.completeOrthogonalDecomposition().pseudoInverse() * scale.asDiagonal();
    const Eigen::VectorXd w = inverse * r;
    report.chiSquared = r.dot(w);
    if (!std::isfinite(report.chiSquared)) report.chiSquared = 0; // nothing but sure numbers: nothing to weigh up
    report.chance = boost::math::cdf(
        boost::math::complement(boost::math::chi_squared(double(k)), std::max(report.chiSquared, 0.0)));
    const Eigen::VectorXd likely = ph * w;
    for (std::size_t i = 0; i < n; ++i) {
        const auto at = Eigen::Index(i);
        if (std::abs(likely(at)) < 0.01 && rows[i].known) continue;
        if (h.col(at).isZero(0)) continue; // never on any scale
        const double kept =
            1 -
            (prior.sigma(at) > 0 ? ph.row(at).dot(inverse * ph.row(at).transpose()) / std::pow(prior.sigma(at), 2) : 0);
        report.masses.push_back({rows[i].id, rows[i].known ? prior.mass(at) : 0, prior.sigma(at),
                                 prior.mass(at) + likely(at), prior.sigma(at) * std::sqrt(std::max(kept, 0.0)),
                                 rows[i].known});
    }
    std::stable_sort(report.masses.begin(), report.masses.end(), [](const ReconciledMass &a, const ReconciledMass &b) {
        return std::abs(a.likely_g - a.entered_g) > std::abs(b.likely_g - b.entered_g);
    });
    if (!report.contradicts()) return report;
    for (std::size_t i = 0; i < n; ++i) {
        const Eigen::VectorXd column = h.col(Eigen::Index(i));
        const double power = column.dot(inverse * column);
        if (!(power > 1e-15) || !rows[i].known || rows[i].kind == MassKind::wire) continue; // wires: from their length
        const double change = column.dot(w) / power, tells = column.dot(w) * column.dot(w) / power;
        const double wouldBe = prior.mass(Eigen::Index(i)) + change;
        if (wouldBe < 0) continue;
        report.suspects.push_back(
            {rows[i].id, prior.mass(Eigen::Index(i)), wouldBe, tells / report.chiSquared, std::sqrt(tells)});
    }
    // Several things in one place explain the same: then the entry that has to be least wrong comes first. A slip is
    // taken as normal in the logarithm of the weight.
    const auto cost = [&](const Suspect &suspect) {
        constexpr double kSlip = 0.4, kLeast_g = 0.1;
        const double slip = std::log((suspect.wouldBe_g + kLeast_g) / (suspect.entered_g + kLeast_g)) / kSlip;
        return (1 - suspect.explains) * report.chiSquared + slip * slip;
    };
    std::stable_sort(report.suspects.begin(), report.suspects.end(),
                     [&](const Suspect &a, const Suspect &b) { return cost(a) < cost(b); });
    if (report.suspects.size() > 5) report.suspects.resize(5);
    constexpr double kTwoSigmasApart = 4;
    report.decided =
        report.suspects.size() == 1 ||
        (report.suspects.size() > 1 && cost(report.suspects[1]) - cost(report.suspects[0]) > kTwoSigmasApart);
    return report;
}

} // namespace waxis
