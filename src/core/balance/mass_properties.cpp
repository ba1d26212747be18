#include "core/balance/mass_properties.h"

#include <Eigen/Eigenvalues>
#include <vector>

namespace waxis {

CompoundMass rollUp(std::span<const MassElement> elements) {
    CompoundMass total;
    Vec3 moment = Vec3::Zero();
    for (const auto &e : elements) {
        total.mass_g += e.mass_g;
        moment += e.mass_g * e.centroid_mm;
    }
    if (!(total.mass_g > 0)) return total;
    const Vec3 cg = moment / total.mass_g;
    total.cg_mm = cg;
    for (const auto &e : elements) {
        const Vec3 d = e.centroid_mm - cg;
        total.inertia_gmm2 += e.inertia_gmm2 + e.mass_g * (d.squaredNorm() * Mat3::Identity() - d * d.transpose());
    }
    return total;
}

PrincipalAxes principalAxes(const Mat3 &inertia_gmm2) {
    const Eigen::SelfAdjointEigenSolver<Mat3> solver(inertia_gmm2);
    PrincipalAxes result{solver.eigenvalues(), solver.eigenvectors()};
    for (int i = 0; i < 3; ++i) { // the sign of an axis is free: let its largest component be positive
        int largest = 0;
        result.axes.col(i).cwiseAbs().maxCoeff(&largest);
        if (result.axes(largest, i) < 0) result.axes.col(i) *= -1;
    }
    if (result.axes.determinant() < 0) result.axes.col(2) *= -1;
    return result;
}

CgUncertainty propagate(std::span<const UncertainMass> masses) {
    CgUncertainty result;
    double total = 0, variance = 0;
    Vec3 moment = Vec3::Zero();
    std::vector<double> together; // sums of what is wrong together, by group
    for (const auto &m : masses) {
        total += m.mass_g;
        moment += m.mass_g * m.centroid_mm;
        if (m.group < 0)
            variance += m.sigmaMass_g * m.sigmaMass_g;
        else {
            if (std::size_t(m.group) >= together.size()) together.resize(std::size_t(m.group) + 1, 0.0);
            together[std::size_t(m.group)] += m.sigmaMass_g;
        }
    }
    for (const double sigma : together) variance += sigma * sigma;
    result.sigmaMass_g = std::sqrt(variance);
    if (!(total > 0)) return result;
    const Vec3 cg = moment / total;
    std::vector<Vec3> shifts(together.size(), Vec3::Zero());
    for (const auto &m : masses) {
        const Vec3 byMass = (m.centroid_mm - cg) / total * m.sigmaMass_g;
        const double byPosition = m.mass_g / total * m.sigmaPosition_mm;
        result.covariance_mm2 += byPosition * byPosition * Mat3::Identity();
        if (m.group < 0)
            result.covariance_mm2 += byMass * byMass.transpose();
        else
            shifts[std::size_t(m.group)] += byMass;
    }
    for (const Vec3 &shift : shifts) result.covariance_mm2 += shift * shift.transpose();
    return result;
}

} // namespace waxis
