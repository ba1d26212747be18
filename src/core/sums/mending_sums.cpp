// Quick sums that bring a balance home: two balance lines, a slide, ballast, chances, thrusts with yaw.
#include "core/balance/ballast.h"
#include "core/balance/ring_chance.h"
#include "core/balance/statics.h"
#include "core/base/units.h"
#include "core/remedies/slide.h"
#include "core/sums/read.h"

#include <cmath>
#include <fmt/format.h>

namespace waxis::sums {

namespace {

Result<Vec2, SumError> pair(const SumObject &in, const char *key) {
    const auto list = numbers(*findKey(in, key));
    if (list.size() != 2) return Failure{SumError{key, "[x, y] expected"}};
    return Vec2(list[0], list[1]);
}

Sum twoLines() {
    Sum sum;
    sum.name = "cg-two-lines";
    sum.title = "Centre of gravity from two balance lines";
    sum.formula = "the crossing of two lines, each through a point, turned from forward towards the left";
    sum.source = "plane geometry";
    sum.inputs = {{"through1_mm", "a point on the first rod", "mm", SumInputKind::numbers, {}, "[8, 40]"},
                  {"turn1_deg", "the first rod is turned by", "deg", SumInputKind::number, SumValue(90.0), "90"},
                  {"through2_mm", "a point on the second rod", "mm", SumInputKind::numbers, {}, "[-30, -2]"},
                  {"turn2_deg", "the second rod is turned by", "deg", SumInputKind::number, SumValue(0.0), "0"}};
    sum.outputs = {{"x_mm", "CG forward", "mm"}, {"y_mm", "CG left", "mm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto first = pair(in, "through1_mm"), second = pair(in, "through2_mm");
        if (!first) return Failure{first.error()};
        if (!second) return Failure{second.error()};
        const auto cg = cgFromLines({*first, number(in, "turn1_deg")}, {*second, number(in, "turn2_deg")});
        if (!cg) return Failure{SumError{"", cg.error().reason}};
        return SumObject{{"x_mm", cg->x()}, {"y_mm", cg->y()}};
    };
    return sum;
}

Sum slideToBalance() {
    Sum sum;
    sum.name = "slide-to-balance";
    sum.title = "How far to slide a part";
    sum.formula = "travel = -offset M / m";
    sum.source = "statics";
    sum.inputs = {{"offset_mm", "CG off the thrust centre along the line", "mm", SumInputKind::number, {}, "6.7"},
                  {"all_up_g", "all-up weight", "g", SumInputKind::number, {}, "1073"},
                  {"part_g", "weight of what slides", "g", SumInputKind::number, {}, "352"}};
    sum.outputs = {{"travel_mm", "slide it by", "mm"}, {"per_10mm_mm", "10 mm of it move the CG by", "mm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"all_up_g", "part_g"})) return Failure{*error};
        const double share = number(in, "part_g") / number(in, "all_up_g");
        if (share > 1) return Failure{SumError{"part_g", "more than the whole craft"}};
        return SumObject{{"travel_mm", *wantedTravel_mm({Vec2(number(in, "offset_mm"), 0), share}, Vec2::UnitX())},
                         {"per_10mm_mm", 10 * share}};
    };
    return sum;
}

Sum ballastSum() {
    Sum sum;
    sum.name = "ballast";
    sum.title = "Least ballast at a place";
    sum.formula = "|M o + b r| = w (M + b)";
    sum.source = "statics";
    sum.inputs = {
        {"all_up_g", "all-up weight", "g", SumInputKind::number, {}, "1073"},
        {"offset_mm", "CG from the thrust centre [forward, left]", "mm", SumInputKind::numbers, {}, "[6.7, 0]"},
        {"place_mm", "where the ballast hangs, from there", "mm", SumInputKind::numbers, {}, "[-98, 0]"},
        {"within_mm", "how near is near enough", "mm", SumInputKind::number, SumValue(0.0), "5"}};
    sum.outputs = {{"ballast_g", "ballast", "g"}, {"x_mm", "CG then, forward", "mm"}, {"y_mm", "CG then, left", "mm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"all_up_g"})) return Failure{*error};
        const auto offset = pair(in, "offset_mm"), place = pair(in, "place_mm");
        if (!offset) return Failure{offset.error()};
        if (!place) return Failure{place.error()};
        if (!(number(in, "within_mm") >= 0)) return Failure{SumError{"within_mm", "must not be negative"}};
        const double mass = number(in, "all_up_g");
        const auto grams = ballastAt_g(mass, *offset, *place, number(in, "within_mm"));
        if (!grams) return Failure{SumError{"place_mm", "no weight there brings it that near"}};
        const Vec2 after = (mass * *offset + *grams * *place) / (mass + *grams);
        return SumObject{{"ballast_g", *grams}, {"x_mm", after.x()}, {"y_mm", after.y()}};
    };
    return sum;
}

Sum chanceSum() {
    Sum sum;
    sum.name = "balance-chance";
    sum.title = "Chance that a doubtful balance is within its ring";
    sum.formula = "a normal doubt over a disc; independent fore-aft and left-right";
    sum.source = "the Rayleigh and Rice distributions where the doubt is round";
    sum.inputs = {{"offset_mm", "CG from the thrust centre [forward, left]", "mm", SumInputKind::numbers, {}, "[4, 1]"},
                  {"sigma_x_mm", "standard deviation fore-aft", "mm", SumInputKind::number, {}, "1.7"},
                  {"sigma_y_mm", "standard deviation left-right", "mm", SumInputKind::number, {}, "0.8"},
                  {"ring_mm", "radius of the ring", "mm", SumInputKind::number, SumValue(5.0), "5"}};
    sum.outputs = {{"chance", "inside", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto offset = pair(in, "offset_mm");
        if (!offset) return Failure{offset.error()};
        if (auto error = needsPositive(in, {"ring_mm"})) return Failure{*error};
        for (const char *key : {"sigma_x_mm", "sigma_y_mm"})
            if (!(number(in, key) >= 0)) return Failure{SumError{key, "must not be negative"}};
        Mat2 covariance = Mat2::Zero();
        covariance(0, 0) = std::pow(number(in, "sigma_x_mm"), 2);
        covariance(1, 1) = std::pow(number(in, "sigma_y_mm"), 2);
        return SumObject{{"chance", chanceInRing(*offset, covariance, number(in, "ring_mm"))}};
    };
    return sum;
}

Sum splitWithYaw() {
    Sum sum;
    sum.name = "thrust-split-yaw";
    sum.title = "Hover thrust of each motor, torques balanced too";
    sum.formula = "as thrust-split, and sum ki Ti = 0 with the torque of each motor per thrust";
    sum.source = "least-norm solution (pseudo-inverse), linear algebra";
    sum.inputs = {{"motors_xy_mm",
                   "motor positions",
                   "mm",
                   SumInputKind::points,
                   {},
                   "[[78, -78], [78, 78], [-78, 78], [-78, -78]]"},
                  {"torques", "torque per thrust, signed, any unit", "", SumInputKind::numbers, {}, "[1, -1, 1, -1]"},
                  {"cg_xy_mm", "centre of gravity", "mm", SumInputKind::numbers, {}, "[12, -5]"},
                  {"mass_kg", "all-up mass", "kg", SumInputKind::number, {}, "0.65"},
                  {"g", "gravity", "m/s2", SumInputKind::number, SumValue(kStandardGravity_m_s2), "9.80665"}};
    sum.outputs = {{"T1", "thrust of motor 1, and so on", "N"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto cg = pair(in, "cg_xy_mm");
        if (!cg) return Failure{cg.error()};
        const auto thrusts = yawBalancedSplit(points(in, "motors_xy_mm"), *cg, number(in, "mass_kg"), number(in, "g"),
                                              numbers(*findKey(in, "torques")));
        if (!thrusts) return Failure{SumError{"", thrusts.error().reason}};
        SumObject out;
        for (std::size_t i = 0; i < thrusts->size(); ++i) out.emplace_back(fmt::format("T{}", i + 1), (*thrusts)[i]);
        return out;
    };
    return sum;
}

} // namespace

std::vector<Sum> mendingSums() { return {twoLines(), slideToBalance(), ballastSum(), chanceSum(), splitWithYaw()}; }

} // namespace waxis::sums
