// d direction in plan (unit in space), o offset, s share: o + t s d is least at t = -o.d / (s d.d). Statics.
#include "core/remedies/slide.h"
#include "core/balance/case_balance.h"
#include "core/balance/mass_rows.h"

#include <algorithm>
#include <cmath>

namespace waxis {

std::optional<double> wantedTravel_mm(const SlideCase &slide, const Vec2 &direction) {
    const double plan = direction.squaredNorm();
    if (!(slide.share > 0) || !(plan > 1e-6)) return std::nullopt;
    return -slide.offset_mm.dot(direction) / (slide.share * plan);
}

double compromiseTravel_mm(const std::vector<SlideCase> &cases, const Vec2 &direction, double least, double most) {
    auto worst = [&](double t) {
        double norm = 0;
        for (const auto &c : cases) norm = std::max(norm, (c.offset_mm + t * c.share * direction).norm());
        return norm;
    };
    const double golden = (std::sqrt(5.0) - 1) / 2;
    double a = least, b = most;
    double x = b - golden * (b - a), y = a + golden * (b - a);
    double fx = worst(x), fy = worst(y);
    while (b - a > 1e-7) {
        if (fx <= fy) {
            b = y;
            y = x;
            fy = fx;
            x = b - golden * (b - a);
            fx = worst(x);
        } else {
            a = x;
            x = y;
            fx = fy;
            y = a + golden * (b - a);
            fy = worst(y);
        }
    }
    return (a + b) / 2;
}

double movedMass_g(const std::vector<MassRow> &rows, const std::string &part) {
    double mass = 0;
    const std::string fastening = part + "/fastening";
    for (const auto &row : rows)
        if (row.id == part || row.id == fastening) mass += row.element.mass_g;
    return mass;
}

SlideRange slideOf(const Part &part) {
    constexpr double kAsked_mm = 60;
    return part.slide.value_or(SlideRange{Vec3::UnitX(), -kAsked_mm, kAsked_mm});
}

std::optional<SlideSolution> solveSlide(const Build &build, const std::vector<MassRow> &rows,
                                        const CaseBalance &balance, std::size_t part, const Vec3 &direction,
                                        const FreeTravel &free) {
    if (!balance.offset_mm || !isAboard(build.parts[part], balance.loadCase)) return std::nullopt;
    SlideSolution solution;
    solution.part = build.parts[part].id;
    solution.direction = direction;
    solution.stated = build.parts[part].slide.has_value();
    solution.mass_g = movedMass_g(rows, solution.part);
    solution.free = free;
    const SlideCase slide{balance.offset_mm->head<2>(), solution.mass_g / balance.mass.mass_g};
    const Vec2 plan = direction.head<2>();
    const auto wanted = wantedTravel_mm(slide, plan);
    if (!wanted) return std::nullopt;
    solution.wanted_mm = *wanted;
    solution.travel_mm = std::clamp(*wanted, free.least.travel_mm, free.most.travel_mm);
    solution.before_mm = slide.offset_mm;
    solution.after_mm = slide.offset_mm + solution.travel_mm * slide.share * plan;
    solution.perTen_mm = 10 * slide.share * plan.norm();
    return solution;
}

Compromise compromiseFor(const Build &build, const std::vector<MassRow> &rows, const std::vector<CaseBalance> &balances,
                         std::size_t part, const Vec3 &direction, const FreeTravel &free) {
    Compromise out;
    out.part = build.parts[part].id;
    const double mass = movedMass_g(rows, out.part);
    std::vector<SlideCase> slides;
    for (std::size_t i = 0; i < balances.size(); ++i) {
        const CaseBalance &balance = balances[i];
        if (!balance.offset_mm || !balance.loadCase.flies() || !isAboard(build.parts[part], balance.loadCase)) continue;
        slides.push_back({balance.offset_mm->head<2>(), mass / balance.mass.mass_g});
        out.cases.push_back({i, slides.back().offset_mm, slides.back().offset_mm});
    }
    if (slides.empty() || !(mass > 0)) return out;
    const Vec2 plan = direction.head<2>();
    out.travel_mm = compromiseTravel_mm(slides, plan, free.least.travel_mm, free.most.travel_mm);
    for (std::size_t i = 0; i < slides.size(); ++i)
        out.cases[i].after_mm = slides[i].offset_mm + out.travel_mm * slides[i].share * plan;
    return out;
}

namespace {

template <class After>
std::vector<Spoiled> spoiled(const std::vector<CaseBalance> &balances, double ring_mm, std::size_t except,
                             After &&after) {
    constexpr double kSeen_mm = 0.05;
    std::vector<Spoiled> out;
    for (std::size_t i = 0; i < balances.size(); ++i) {
        const CaseBalance &balance = balances[i];
        if (i == except || !balance.loadCase.flies() || !balance.offset_mm || !(balance.mass.mass_g > 0)) continue;
        const Spoiled one{i, balance.offset_mm->head<2>().norm(), after(i, balance).norm()};
        if (one.after_mm > ring_mm && one.after_mm > one.before_mm + kSeen_mm) out.push_back(one);
    }
    return out;
}

} // namespace

std::vector<Spoiled> spoiledByMove(const std::vector<MassRow> &rows, const std::vector<CaseBalance> &balances,
                                   const std::string &part, const Vec2 &shift_mm, double ring_mm, std::size_t except) {
    return spoiled(balances, ring_mm, except, [&](std::size_t i, const CaseBalance &balance) -> Vec2 {
        double moved = 0;
        for (const auto &row : rows)
            if ((row.id == part || row.id == part + "/fastening") && row.known && (row.cases >> i & 1))
                moved += row.element.mass_g;
        return balance.offset_mm->head<2>() + moved / balance.mass.mass_g * shift_mm;
    });
}

std::vector<Spoiled> spoiledByBallast(const std::vector<CaseBalance> &balances, double mass_g, const Vec2 &spot_mm,
                                      double ring_mm, std::size_t except) {
    return spoiled(balances, ring_mm, except, [&](std::size_t, const CaseBalance &balance) -> Vec2 {
        const double mass = balance.mass.mass_g;
        return (mass * balance.offset_mm->head<2>() + mass_g * spot_mm) / (mass + mass_g);
    });
}

} // namespace waxis
