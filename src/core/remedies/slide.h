// How far to slide what, so that the centre of gravity comes under the thrust centre.
#pragma once

#include "core/build/build.h"
#include "core/remedies/free_travel.h"

namespace waxis {

struct MassRow;
struct CaseBalance;

/// A mass that moves along a line in one load case: the offset runs along `offset + travel * share * direction`.
struct SlideCase {
    Vec2 offset_mm = Vec2::Zero(); ///< thrust centre to CG as it is, in plan
    double share = 0;              ///< moved mass over all-up mass
};

/// Travel that brings the offset nearest to nothing: -offset . d / (share d . d), d the direction in plan. None when
/// the line is upright or nothing moves.
std::optional<double> wantedTravel_mm(const SlideCase &slide, const Vec2 &direction);

/// Travel within [least, most] that makes the largest of the offsets of several cases as small as it can be: a convex
/// search (golden section), to 1e-6 mm.
double compromiseTravel_mm(const std::vector<SlideCase> &cases, const Vec2 &direction, double least_mm, double most_mm);

/// Where one part should go along its line.
struct SlideSolution {
    std::string part;
    Vec3 direction = Vec3::UnitX();
    bool stated = false;  ///< the build says that it may move so; else it was only asked
    double mass_g = 0;    ///< that moves: the part and what fastens it
    FreeTravel free;      ///< within its range
    double wanted_mm = 0; ///< to the best place on an endless line
    double travel_mm = 0; ///< the same, stopped where it is stopped
    Vec2 before_mm = Vec2::Zero(), after_mm = Vec2::Zero(); ///< offsets in plan
    double perTen_mm = 0;                                   ///< how far 10 mm of it move the centre of gravity
    bool clipped() const { return std::abs(wanted_mm - travel_mm) > 1e-9; }
    const TravelEnd &end() const { return wanted_mm < 0 ? free.least : free.most; }
};

/// In one load case. None for a part that is not aboard, without mass, or for an upright line.
std::optional<SlideSolution> solveSlide(const Build &build, const std::vector<MassRow> &rows,
                                        const CaseBalance &balance, std::size_t part, const Vec3 &direction,
                                        const FreeTravel &free);

/// One place for a part in all flying cases that have it aboard.
struct Compromise {
    std::string part;
    double travel_mm = 0;
    struct Case {
        std::size_t loadCase = 0;
        Vec2 before_mm = Vec2::Zero(), after_mm = Vec2::Zero();
    };
    std::vector<Case> cases; ///< fewer than two: there is nothing to compromise
};
Compromise compromiseFor(const Build &build, const std::vector<MassRow> &rows, const std::vector<CaseBalance> &balances,
                         std::size_t part, const Vec3 &direction, const FreeTravel &free);

/// Mass that goes along when a part is moved: it and what fastens it. 0 when not known.
double movedMass_g(const std::vector<MassRow> &rows, const std::string &part);

/// A flying load case that a move takes out of its ring, or farther out: offsets in plan.
struct Spoiled {
    std::size_t loadCase = 0;
    double before_mm = 0, after_mm = 0;
};
/// Of all flying cases but `except`: what a part's move in plan does to those that have it aboard.
std::vector<Spoiled> spoiledByMove(const std::vector<MassRow> &rows, const std::vector<CaseBalance> &balances,
                                   const std::string &part, const Vec2 &shift_mm, double ring_mm, std::size_t except);
/// The same for a weight stuck on at a spot, from the thrust centre.
std::vector<Spoiled> spoiledByBallast(const std::vector<CaseBalance> &balances, double mass_g, const Vec2 &spot_mm,
                                      double ring_mm, std::size_t except);

/// How a part may slide: stated, or fore and aft by 60 mm either way.
SlideRange slideOf(const Part &part);

} // namespace waxis
