#include "core/recognise/loops.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <unordered_map>

namespace waxis {

namespace {

/// Finds ends near a point: a grid of cells as large as the tolerance.
class EndGrid {
public:
    explicit EndGrid(double cell_mm) : cell_(cell_mm) {}
    void add(const Vec2 &p, int end) { cells_[key(p, 0, 0)].push_back(end); }
    template <class Visit>
    void near(const Vec2 &p, Visit &&visit) const {
        for (int dx = -1; dx <= 1; ++dx)
            for (int dy = -1; dy <= 1; ++dy)
                if (const auto at = cells_.find(key(p, dx, dy)); at != cells_.end())
                    for (int end : at->second) visit(end);
    }

private:
    std::uint64_t key(const Vec2 &p, int dx, int dy) const {
        const auto x = std::int64_t(std::floor(p.x() / cell_)) + dx, y = std::int64_t(std::floor(p.y() / cell_)) + dy;
        return std::uint64_t(x) * 0x9E3779B97F4A7C15ULL ^ (std::uint64_t(y) + 0x7F4A7C15ULL + (std::uint64_t(x) << 6));
    }
    double cell_;
    std::unordered_map<std::uint64_t, std::vector<int>> cells_;
};

double signedArea(const Ring &ring) {
    double twice = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 &a = ring[i], &b = ring[(i + 1) % ring.size()];
        twice += a.x() * b.y() - b.x() * a.y();
    }
    return twice / 2;
}

/// Neighbouring corners that fall together, or the last on the first, are one.
Ring withoutRepeats(const Ring &ring) {
    constexpr double kSame_mm = 1e-6;
    Ring result;
    for (const auto &p : ring)
        if (result.empty() || (p - result.back()).norm() > kSame_mm) result.push_back(p);
    while (result.size() > 1 && (result.front() - result.back()).norm() <= kSame_mm) result.pop_back();
    return result;
}

std::string place(const Vec2 &p) { return fmt::format("({:.2f}, {:.2f})", p.x(), p.y()); }

class LayerJoiner {
public:
    LayerJoiner(const std::string &layer, double tolerance_mm, LoopSearch &out)
        : layer_(layer), tolerance_(tolerance_mm), out_(out), ends_(std::max(tolerance_mm, 1e-6)) {}

    void add(const DrawnPath &path) {
        Ring points = path.points_mm;
        const bool meets = points.size() > 2 && (points.front() - points.back()).norm() <= tolerance_;
        if (path.closed || path.circle || meets) {
            close(points, path.circle);
            return;
        }
        if (points.size() < 2) return;
        double length = 0;
        for (std::size_t i = 1; i < points.size(); ++i) length += (points[i] - points[i - 1]).norm();
        if (length <= tolerance_) return; // a speck: its ends are one point
        if (isRepeat(points)) {
            ++repeats_;
            return;
        }
        if (isCrowded(points.front()) || isCrowded(points.back())) return;
        const int index = int(chains_.size());
        ends_.add(points.front(), 2 * index);
        ends_.add(points.back(), 2 * index + 1);
        chains_.push_back(std::move(points));
    }

    void finish() {
        if (crowded_ > 0)
            out_.skipped.push_back({fmt::format("{} line(s) into a crowded point", crowded_), layer_,
                                    fmt::format("more than {} lines end there: a star is no outline", kMostAtOnePoint),
                                    crowdedAt_});
        used_.assign(chains_.size(), false);
        const std::vector<int> loose = looseChains();
        for (std::size_t i = 0; i < chains_.size(); ++i)
            if (!used_[i]) follow(int(i));
        for (int chain : loose) used_[std::size_t(chain)] = false;
        for (int chain : loose)
            if (!used_[std::size_t(chain)]) follow(chain);
        if (repeats_ > 0)
            out_.skipped.push_back({fmt::format("{} line(s) drawn twice", repeats_), layer_, "each counts once", {}});
        if (branches_ > 0)
            out_.skipped.push_back({fmt::format("{} branching point(s)", branches_), layer_,
                                    "more than two ends meet; the straightest way was taken", branchAt_});
    }

private:
    const Vec2 &point(int end) const {
        const Ring &chain = chains_[std::size_t(end / 2)];
        return end % 2 ? chain.back() : chain.front();
    }
    /// Direction of travel when entering the chain at that end.
    Vec2 inwards(int end) const {
        const Ring &chain = chains_[std::size_t(end / 2)];
        return (end % 2 ? chain[chain.size() - 2] - chain.back() : chain[1] - chain.front()).normalized();
    }

    /// Following lines through a point is work by the square of how many end there; no outline has such points.
    static constexpr int kMostAtOnePoint = 64;
    int endsNear(const Vec2 &p) const {
        int count = 0;
        ends_.near(p, [&](int end) { count += (point(end) - p).norm() <= tolerance_; });
        return count;
    }
    bool isCrowded(const Vec2 &p) {
        if (endsNear(p) < kMostAtOnePoint) return false;
        if (crowded_++ == 0) crowdedAt_ = p;
        return true;
    }

    bool isRepeat(const Ring &points) {
        bool repeat = false;
        ends_.near(points.front(), [&](int end) {
            const Ring &other = chains_[std::size_t(end / 2)];
            if (other.size() != points.size()) return;
            constexpr double kSame_mm = 1e-4;
            bool same = true, mirrored = true;
            for (std::size_t i = 0; i < points.size() && (same || mirrored); ++i) {
                same &= (points[i] - other[i]).norm() <= kSame_mm;
                mirrored &= (points[i] - other[other.size() - 1 - i]).norm() <= kSame_mm;
            }
            repeat |= same || mirrored;
        });
        return repeat;
    }

    /// The unused end that goes on straightest from `p` in direction `d`; -1 for none.
    int nextEnd(const Vec2 &p, const Vec2 &d) {
        int best = -1, count = 0;
        double straightest = -2;
        ends_.near(p, [&](int end) {
            if (used_[std::size_t(end / 2)] || (point(end) - p).norm() > tolerance_) return;
            ++count;
            const double cosine = inwards(end).dot(d);
            // Ties go to the end that was drawn first, so that the result does not hang on chance.
            if (cosine > straightest + 1e-9 || (cosine > straightest - 1e-9 && end < best)) {
                straightest = std::max(straightest, cosine);
                best = end;
            }
        });
        if (count > 1) {
            if (branches_++ == 0) branchAt_ = p;
        }
        return best;
    }

    /// Chains that end in nothing, and those that end in nothing once these are gone: whiskers at a loop's corner, and
    /// everything that never closes. They are marked as used, so that loops are followed without them.
    std::vector<int> looseChains() {
        auto meets = [&](int end) {
            bool any = false;
            ends_.near(point(end), [&](int other) {
                any |=
                    other != end && !used_[std::size_t(other / 2)] && (point(other) - point(end)).norm() <= tolerance_;
            });
            return any;
        };
        std::vector<int> loose, open;
        for (int end = 0; end < int(2 * chains_.size()); ++end) open.push_back(end);
        while (!open.empty()) {
            const int end = open.back(), chain = end / 2;
            open.pop_back();
            if (used_[std::size_t(chain)] || meets(end)) continue;
            used_[std::size_t(chain)] = true;
            loose.push_back(chain);
            ends_.near(point(end ^ 1), [&](int other) { open.push_back(other); }); // they may be loose now
        }
        std::sort(loose.begin(), loose.end());
        return loose;
    }

    void follow(int first) {
        used_[std::size_t(first)] = true;
        Ring path = chains_[std::size_t(first)];
        std::vector<std::size_t> joints{0}; // where chains meet in the path
        // Where the path comes back to an earlier joint, what lies between is a loop of its own.
        auto splitOff = [&] {
            if (endsNear(path.back()) < 3) return; // passed once: nothing came by here before
            for (std::size_t k = 1; k < joints.size(); ++k) {
                const std::size_t from = joints[k];
                if (from + 2 >= path.size() || (path[from] - path.back()).norm() > tolerance_) continue;
                close(Ring(path.begin() + std::ptrdiff_t(from), path.end()), {});
                path.resize(from + 1);
                joints.resize(k + 1);
                return;
            }
        };
        auto closedNow = [&] { return path.size() > 2 && (path.front() - path.back()).norm() <= tolerance_; };
        auto extend = [&] {
            while (!closedNow()) {
                const Vec2 d = (path.back() - path[path.size() - 2]).normalized();
                const int end = nextEnd(path.back(), d);
                if (end < 0) return;
                used_[std::size_t(end / 2)] = true;
                Ring chain = chains_[std::size_t(end / 2)];
                if (end % 2) std::reverse(chain.begin(), chain.end());
                path.back() = (path.back() + chain.front()) / 2; // ends that nearly meet, meet half way
                joints.push_back(path.size() - 1);
                path.insert(path.end(), chain.begin() + 1, chain.end());
                splitOff();
            }
        };
        extend();
        if (!closedNow()) { // and from the other end
            std::reverse(path.begin(), path.end());
            joints = {0};
            extend();
        }
        if (closedNow()) {
            close(path, {});
            return;
        }
        const double gap = (path.front() - path.back()).norm();
        out_.skipped.push_back({fmt::format("open outline of {} points", path.size()), layer_,
                                fmt::format("its ends at {} and {} are {:.2f} mm apart; only closed outlines are cut",
                                            place(path.front()), place(path.back()), gap),
                                path.front()});
    }

    void close(const Ring &points, const std::optional<DrawnCircle> &circle) {
        ClosedLoop loop{layer_, withoutRepeats(points), circle, 0};
        const double area = signedArea(loop.ring);
        constexpr double kLeast_mm2 = 0.05;
        if (loop.ring.size() < 3 || std::abs(area) < kLeast_mm2) {
            out_.skipped.push_back({"closed outline without area", layer_,
                                    fmt::format("{:.3f} mm2 is less than a drill makes", std::abs(area)),
                                    points.empty() ? std::optional<Vec2>() : std::optional(points.front())});
            return;
        }
        if (area < 0) std::reverse(loop.ring.begin(), loop.ring.end());
        loop.area_mm2 = std::abs(area);
        Vec2 middle = Vec2::Zero();
        for (const auto &p : loop.ring) middle += p / double(loop.ring.size());
        auto &beside = byMiddle_[{std::lround(middle.x() * 20), std::lround(middle.y() * 20)}];
        for (std::size_t index : beside) {
            const auto &other = out_.loops[index];
            if (std::abs(other.area_mm2 - loop.area_mm2) < 1e-4 * loop.area_mm2 &&
                other.ring.size() == loop.ring.size() && sameRing(other.ring, loop.ring)) {
                ++repeats_;
                return;
            }
        }
        beside.push_back(out_.loops.size());
        out_.loops.push_back(std::move(loop));
    }

    static bool sameRing(const Ring &a, const Ring &b) {
        constexpr double kSame_mm = 1e-4;
        for (std::size_t shift = 0; shift < b.size(); ++shift)
            if ((a.front() - b[shift]).norm() <= kSame_mm) {
                bool same = true;
                for (std::size_t i = 0; i < a.size() && same; ++i)
                    same = (a[i] - b[(i + shift) % b.size()]).norm() <= kSame_mm;
                if (same) return true;
            }
        return false;
    }

    const std::string &layer_;
    double tolerance_;
    LoopSearch &out_;
    std::vector<Ring> chains_;
    std::vector<bool> used_;
    EndGrid ends_;
    std::map<std::pair<long, long>, std::vector<std::size_t>> byMiddle_; ///< loops by where they lie
    int repeats_ = 0, branches_ = 0, crowded_ = 0;
    std::optional<Vec2> branchAt_, crowdedAt_;
};

} // namespace

LoopSearch closedLoops(const FlatDrawing &drawing, double tolerance_mm) {
    LoopSearch out;
    std::unordered_map<std::string, std::vector<const DrawnPath *>> byLayer;
    for (const auto &path : drawing.paths) byLayer[path.layer].push_back(&path);
    for (const auto &layer : drawing.layers) {
        LayerJoiner joiner(layer, tolerance_mm, out);
        for (const auto *path : byLayer[layer]) joiner.add(*path);
        joiner.finish();
    }
    return out;
}

} // namespace waxis
