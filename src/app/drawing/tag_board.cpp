#include "app/drawing/tag_board.h"

#include <algorithm>

namespace waxis::drawing {

QRectF TagBoard::place(const QPointF &anchor, const QSizeF &size) {
    QRectF box(QPointF(), size);
    auto isFree = [&] {
        return std::none_of(taken_.begin(), taken_.end(), [&](const QRectF &r) { return r.intersects(box); });
    };
    constexpr double kGap = 1.08; // of the box: labels do not touch
    struct Step {
        double across, down;
    };
    static const std::vector<Step> steps = [] {
        std::vector<Step> all;
        for (int down = -6; down <= 6; ++down)
            for (int across = -2; across <= 2; ++across) all.push_back({across * 0.55, double(down)});
        std::stable_sort(all.begin(), all.end(), [](const Step &a, const Step &b) {
            auto far = [](const Step &s) { return std::abs(s.down) + 2.2 * std::abs(s.across); };
            return far(a) < far(b);
        });
        return all;
    }();
    for (const auto &step : steps) {
        box.moveCenter(anchor + QPointF(step.across * size.width(), step.down * size.height() * kGap));
        if (!isFree()) continue;
        taken_.push_back(box);
        return box;
    }
    box.moveCenter(anchor);
    taken_.push_back(box);
    return box;
}

} // namespace waxis::drawing
