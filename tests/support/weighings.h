// A weighing in one line.
#pragma once

#include "core/build/weighing.h"

#include <utility>

namespace waxis::test {

inline Weighing weighed(std::string id, std::string name, std::string loadCase, WeighingMethod method, Measured total_g,
                        std::vector<Vec2> points_mm, std::vector<double> readings_g, double scaleTolerance_g,
                        std::vector<BalanceLine> lines, double lineTolerance_mm) {
    Weighing weighing;
    weighing.id = std::move(id);
    weighing.name = std::move(name);
    weighing.loadCase = std::move(loadCase);
    weighing.method = method;
    weighing.total_g = total_g;
    weighing.points_mm = std::move(points_mm);
    weighing.readings_g = std::move(readings_g);
    weighing.scaleTolerance_g = scaleTolerance_g;
    weighing.lines = std::move(lines);
    weighing.lineTolerance_mm = lineTolerance_mm;
    return weighing;
}

} // namespace waxis::test
