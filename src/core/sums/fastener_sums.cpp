#include "core/fasteners/thread.h"
#include "core/geometry/hole_pattern.h"
#include "core/sums/read.h"

#include <cmath>
#include <fmt/format.h>

namespace waxis::sums {

namespace {

Sum threadSum() {
    Sum sum;
    sum.name = "thread";
    sum.title = "Screw, nut, washer and clearance hole of a thread size";
    sum.formula = "table; stress area = pi/4 (d - 0.9382 P)^2";
    sum.source = "ISO 262, 4762, 4032, 7089, 273, 898-1, from memory and not checked against the standards";
    sum.inputs = {{"size", "thread size: M1.6, M2, M2.5, M3 or M4", "", SumInputKind::text, {}, "M3"}};
    sum.outputs = {{"pitch_mm", "pitch, ISO 262 coarse", "mm"},
                   {"iso4762_dk_mm", "cap screw head diameter", "mm"},
                   {"iso4762_k_mm", "cap screw head height", "mm"},
                   {"hex_key_mm", "hexagon key", "mm"},
                   {"iso4032_m_mm", "nut height", "mm"},
                   {"iso4032_s_mm", "nut across flats", "mm"},
                   {"iso7089_h_mm", "washer thickness", "mm"},
                   {"iso7089_d2_mm", "washer outer diameter", "mm"},
                   {"iso273_fine_mm", "clearance hole, fine", "mm"},
                   {"iso273_medium_mm", "clearance hole, medium", "mm"},
                   {"iso273_coarse_mm", "clearance hole, coarse", "mm"},
                   {"stress_area_mm2", "stress area", "mm2"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto &size = std::get<std::string>(findKey(in, "size")->held);
        const ThreadSize *thread = findThread(size);
        if (!thread) return Failure{SumError{"size", fmt::format("\"{}\" is not one of M1.6, M2, M2.5, M3, M4", size)}};
        return SumObject{{"pitch_mm", thread->pitch_mm},
                         {"iso4762_dk_mm", thread->capHead_mm},
                         {"iso4762_k_mm", thread->nominal_mm},
                         {"hex_key_mm", thread->capKey_mm},
                         {"iso4032_m_mm", thread->nutHeight_mm},
                         {"iso4032_s_mm", thread->nutFlats_mm},
                         {"iso7089_h_mm", thread->washerHeight_mm},
                         {"iso7089_d2_mm", thread->washerOuter_mm},
                         {"iso273_fine_mm", thread->fineHole_mm},
                         {"iso273_medium_mm", thread->mediumHole_mm},
                         {"iso273_coarse_mm", thread->coarseHole_mm},
                         {"stress_area_mm2", stressArea_mm2(*thread)}};
    };
    return sum;
}

Sum patternSum() {
    Sum sum;
    sum.name = "hole-pattern";
    sum.title = "Square hole pattern: diagonal, hole radius, turned by 45°";
    sum.formula = "diagonal = s sqrt 2; holes at (+-s/2, +-s/2); turned by 45 deg they lie at s / sqrt 2 on the axes";
    sum.source = "geometry; stack squares are named by their side, motor circles by their diameter (common practice)";
    sum.inputs = {{"side_mm", "side of the square", "mm", SumInputKind::number, {}, "30.5"},
                  {"hole_mm", "hole diameter", "mm", SumInputKind::number, SumValue(0.0), "3.2"}};
    sum.outputs = {{"diagonal_mm", "diagonal, also the diameter of the circle through the holes", "mm"},
                   {"radius_mm", "centre to hole", "mm"},
                   {"rotated45_x_mm", "hole on the axis when turned by 45 deg", "mm"},
                   {"holes_mm", "hole centres", "mm"},
                   {"needed_board_mm", "side that the holes with 1 mm of edge need", "mm"},
                   {"screw", "screw that goes through (ISO 273)", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        HolePattern pattern;
        pattern.size_mm = number(in, "side_mm");
        pattern.holeDiameter_mm = number(in, "hole_mm");
        if (!(pattern.size_mm > 0)) return Failure{SumError{"side_mm", "a square needs a side of more than 0 mm"}};
        if (!(pattern.holeDiameter_mm >= 0)) return Failure{SumError{"hole_mm", "a hole cannot be less than nothing"}};
        constexpr double kEdge_mm = 1.0;
        SumList centres;
        for (const auto &c : holeCentres(pattern)) centres.emplace_back(SumList{c.x(), c.y()});
        const auto screw = screwForHole(pattern.holeDiameter_mm);
        SumObject out;
        out.emplace_back("diagonal_mm", pattern.size_mm * std::sqrt(2.0));
        out.emplace_back("radius_mm", pattern.size_mm / std::sqrt(2.0));
        out.emplace_back("rotated45_x_mm", pattern.size_mm / std::sqrt(2.0));
        out.emplace_back("holes_mm", centres);
        out.emplace_back("needed_board_mm", pattern.size_mm + pattern.holeDiameter_mm + 2 * kEdge_mm);
        out.emplace_back("screw", screw ? std::string(screw->thread->name) : std::string("none of M1.6 to M4"));
        return out;
    };
    return sum;
}

} // namespace

std::vector<Sum> fastenerSums() { return {threadSum(), patternSum()}; }

} // namespace waxis::sums
