// Drawings of plates, line by line.
#pragma once

#include "core/recognise/recognise.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <string>

namespace waxis::test {

inline void addLayer(FlatDrawing &drawing, const std::string &layer) {
    if (std::find(drawing.layers.begin(), drawing.layers.end(), layer) == drawing.layers.end())
        drawing.layers.push_back(layer);
}

inline void addRing(FlatDrawing &drawing, const Ring &ring, const std::string &layer = "main") {
    addLayer(drawing, layer);
    drawing.paths.push_back({layer, "polyline", ring, true, {}});
}

inline void addLine(FlatDrawing &drawing, const Vec2 &a, const Vec2 &b, const std::string &layer = "main") {
    addLayer(drawing, layer);
    drawing.paths.push_back({layer, "line", {a, b}, false, {}});
}

inline void addCircle(FlatDrawing &drawing, const Vec2 &centre, double diameter, const std::string &layer = "main") {
    addLayer(drawing, layer);
    drawing.paths.push_back({layer, "circle", circleRing(centre, diameter, 48), true, DrawnCircle{centre, diameter}});
}

inline Ring rectangle(double x0, double y0, double x1, double y1) { return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}}; }

/// A slot with round ends; `angle` in radians.
inline Ring obround(const Vec2 &centre, double length, double width, double angle) {
    Ring ring;
    const Vec2 d(std::cos(angle), std::sin(angle));
    for (int end : {1, -1})
        for (int i = 0; i <= 16; ++i) {
            const double turn = angle - end * M_PI / 2 + M_PI * i / 16;
            ring.push_back(centre + d * (end * (length - width) / 2) +
                           Vec2(std::cos(turn), std::sin(turn)) * (width / 2));
        }
    return ring;
}

/// A plate of 200 by 120 mm with more in it.
inline FlatDrawing plateWith(const std::function<void(FlatDrawing &)> &more) {
    FlatDrawing drawing;
    addRing(drawing, rectangle(0, 0, 200, 120));
    more(drawing);
    return drawing;
}

/// Four holes on a circle.
inline void addPattern(FlatDrawing &drawing, const Vec2 &centre, double radius, double hole, double angle_deg,
                       const std::string &layer = "main") {
    for (int k = 0; k < 4; ++k) {
        const double a = (angle_deg + 90 * k) * M_PI / 180;
        addCircle(drawing, centre + Vec2(std::cos(a), std::sin(a)) * radius, hole, layer);
    }
}

} // namespace waxis::test
