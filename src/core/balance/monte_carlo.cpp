#include "core/balance/monte_carlo.h"

#include <algorithm>
#include <array>
#include <boost/random/mersenne_twister.hpp>
#include <boost/random/normal_distribution.hpp>
#include <cmath>
#include <future>

namespace waxis {

namespace {

/// What is certain is summed once; only what has a doubt is drawn.
struct Prepared {
    double sureMass_g = 0;
    Vec3 sureMoment = Vec3::Zero();
    std::vector<UncertainMass> weighed; ///< mass in doubt, place sure
    std::vector<UncertainMass> placed;  ///< place in doubt, mass perhaps too
    int groups = 0;                     ///< of what is wrong together
};

Prepared prepare(std::span<const UncertainMass> masses) {
    Prepared out;
    for (const auto &m : masses) {
        out.groups = std::max(out.groups, m.group + 1);
        if (m.sigmaPosition_mm > 0)
            out.placed.push_back(m);
        else if (m.sigmaMass_g > 0)
            out.weighed.push_back(m);
        else {
            out.sureMass_g += m.mass_g;
            out.sureMoment += m.mass_g * m.centroid_mm;
        }
    }
    return out;
}

struct Block {
    int draws = 0, inside = 0;
    double mass = 0, mass2 = 0;
    Vec3 sum = Vec3::Zero();
    Mat3 products = Mat3::Zero();
    std::vector<Vec2> cloud;
};

constexpr int kBlock = 5000;

/// No thing weighs less than nothing; what was trimmed off others counts below zero and stays free.
double bounded(const UncertainMass &m, double grams) { return m.mass_g < 0 ? grams : std::max(0.0, grams); }

Block drawBlock(const Prepared &in, const Vec3 &about, const Vec2 &centre, double ring, int draws, std::uint32_t seed,
                std::size_t kept) {
    boost::random::mt19937 random(seed);
    boost::random::normal_distribution<float> normal; // half the time of double, and 24 bits are plenty
    Block block;
    std::vector<double> common(std::size_t(in.groups));
    for (int i = 0; i < draws; ++i) {
        double mass = in.sureMass_g;
        Vec3 moment = in.sureMoment;
        for (double &factor : common) factor = normal(random);
        const auto wrong = [&](const UncertainMass &m) {
            return m.group < 0 ? double(normal(random)) : common[std::size_t(m.group)];
        };
        for (const auto &m : in.weighed) {
            const double grams = bounded(m, m.mass_g + m.sigmaMass_g * wrong(m));
            mass += grams;
            moment += grams * m.centroid_mm;
        }
        for (const auto &m : in.placed) {
            const double grams = m.sigmaMass_g > 0 ? bounded(m, m.mass_g + m.sigmaMass_g * wrong(m)) : m.mass_g;
            const double x = normal(random), y = normal(random), z = normal(random);
            mass += grams;
            moment += grams * (m.centroid_mm + m.sigmaPosition_mm * Vec3(x, y, z));
        }
        if (!(mass > 0)) continue;
        const Vec3 cg = moment / mass, off = cg - about;
        ++block.draws;
        block.inside += (cg.head<2>() - centre).squaredNorm() <= ring * ring;
        block.mass += mass;
        block.mass2 += mass * mass;
        block.sum += off;
        block.products += off * off.transpose();
        if (block.cloud.size() < kept) block.cloud.emplace_back(cg.head<2>());
    }
    return block;
}

} // namespace

DrawnBalance drawBalance(std::span<const UncertainMass> masses, const Vec2 &centre, double ring,
                         const DrawSettings &settings, const std::atomic<bool> *stop) {
    DrawnBalance result;
    const Prepared in = prepare(masses);
    double mass = 0;
    Vec3 moment = Vec3::Zero();
    for (const auto &m : masses) {
        mass += m.mass_g;
        moment += m.mass_g * m.centroid_mm;
    }
    if (!(mass > 0) || settings.draws <= 0) return result;
    const Vec3 about = moment / mass; // sums are taken about the nominal place: no digits are lost
    const int blocks = (settings.draws + kBlock - 1) / kBlock;
    std::vector<Block> drawn(static_cast<std::size_t>(blocks));
    auto run = [&](int first) {
        for (int b = first; b < blocks; b += 2) {
            if (stop && *stop) return;
            const int draws = std::min(kBlock, settings.draws - b * kBlock);
            drawn[std::size_t(b)] =
                drawBlock(in, about, centre, ring, draws, settings.seed + std::uint32_t(b), b == 0 ? settings.kept : 0);
        }
    };
    auto other = std::async(std::launch::async, run, 1);
    run(0);
    other.get();
    Block all;
    for (auto &block : drawn) { // in order: the same sum every time
        all.draws += block.draws;
        all.inside += block.inside;
        all.mass += block.mass;
        all.mass2 += block.mass2;
        all.sum += block.sum;
        all.products += block.products;
        if (!block.cloud.empty()) all.cloud = std::move(block.cloud);
    }
    if (all.draws == 0) return result;
    const double n = all.draws;
    const Vec3 mean = all.sum / n;
    result.draws = all.draws;
    result.mean_mm = about + mean;
    result.covariance_mm2 = all.products / n - mean * mean.transpose();
    result.mass_g = all.mass / n;
    result.sigmaMass_g = std::sqrt(std::max(0.0, all.mass2 / n - result.mass_g * result.mass_g));
    result.inside = all.inside / n;
    result.cloud_mm = std::move(all.cloud);
    return result;
}

} // namespace waxis
