#include "app/drawing/tag_board.h"

#include <algorithm>
#include <cmath>

namespace waxis::drawing {

std::pair<TagBoard::Square, TagBoard::Square> TagBoard::squaresOf(const QRectF &box) const {
    constexpr double kFar = 1e6; // squares: nothing that is drawn is farther out
    const auto square = [&](double at) { return int(std::floor(std::clamp(at / cell_, -kFar, kFar))); };
    return {{square(box.left()), square(box.top())}, {square(box.right()), square(box.bottom())}};
}

bool TagBoard::isFree(const QRectF &box) const {
    const auto [first, last] = squaresOf(box);
    for (int x = first.first; x <= last.first; ++x)
        for (auto at = bySquare_.lower_bound({x, first.second});
             at != bySquare_.end() && at->first <= Square{x, last.second}; ++at)
            if (std::any_of(at->second.begin(), at->second.end(),
                            [&](int i) { return taken_[std::size_t(i)].intersects(box); }))
                return false;
    return true;
}

void TagBoard::keepClear(const QRectF &rect) {
    // What is far larger than a label, as words drawn at a tiny scale, is entered on its edge of the board only.
    constexpr int kMost = 200;
    auto [first, last] = squaresOf(rect);
    last = {std::min(last.first, first.first + kMost), std::min(last.second, first.second + kMost)};
    for (int x = first.first; x <= last.first; ++x)
        for (int y = first.second; y <= last.second; ++y) bySquare_[{x, y}].push_back(int(taken_.size()));
    taken_.push_back(rect);
}

QRectF TagBoard::place(const QPointF &anchor, const QSizeF &size) {
    QRectF box(QPointF(), size);
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
        if (!isFree(box)) continue;
        keepClear(box);
        return box;
    }
    box.moveCenter(anchor);
    keepClear(box);
    return box;
}

} // namespace waxis::drawing
