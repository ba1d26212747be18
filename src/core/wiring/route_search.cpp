// A* on the lattice. The estimate of what is left is the lattice's own distance in the free: the largest of the linear
// forms that no direction exceeds. It is a little lessened, because the last edge to the end runs as it likes.
#include "core/wiring/route_search.h"

#include <Eigen/Dense>
#include <algorithm>
#include <array>
#include <cmath>
#include <memory>
#include <numeric>
#include <queue>
#include <unordered_set>

namespace waxis {

namespace {

using Cell = RouteField::Cell;
constexpr double kPitch = RouteField::kPitch_mm;

struct Step {
    Cell move;
    double length_mm = 0;
    std::vector<Cell> between; ///< points of the lattice near the step that must be free as well
};

/// All steps of up to two cells that no shorter one repeats, `scale` times as long.
std::vector<Step> makeSteps(int scale) {
    std::vector<Step> steps;
    for (int x = -2; x <= 2; ++x)
        for (int y = -2; y <= 2; ++y)
            for (int z = -2; z <= 2; ++z) {
                const int common = std::gcd(std::gcd(std::abs(x), std::abs(y)), std::abs(z));
                if (common != 1) continue;
                Step step{scale * Cell(x, y, z), scale * kPitch * std::sqrt(double(x * x + y * y + z * z)), {}};
                const Vec3 v = step.move.cast<double>();
                // Nearer than a pitch to the step is only what lies in its box, or right beside that.
                const Cell low = step.move.cwiseMin(0).array() - 1, high = step.move.cwiseMax(0).array() + 1;
                for (int i = low.x(); i <= high.x(); ++i)
                    for (int j = low.y(); j <= high.y(); ++j)
                        for (int k = low.z(); k <= high.z(); ++k) {
                            const Cell c(i, j, k);
                            if (c == Cell::Zero() || c == step.move) continue;
                            const Vec3 p = c.cast<double>();
                            const double t = p.dot(v) / v.squaredNorm();
                            constexpr double kNear = 0.75; // of the pitch: nothing thicker than that slips between
                            if (t > 0 && t < 1 && (p - t * v).norm() < kNear) step.between.push_back(c);
                        }
                steps.push_back(std::move(step));
            }
    return steps;
}

/// Level 0: from point to point; 1: between every second one; 2: between every fourth.
constexpr int kLevels = 3;
const std::vector<Step> &steps(int level) {
    static const std::array<std::vector<Step>, kLevels> all{makeSteps(1), makeSteps(2), makeSteps(4)};
    return all[std::size_t(level)];
}

/// Linear forms n with n v <= |v| for every step v and equality for three of them, for vectors sorted by size.
std::vector<Vec3> makeForms() {
    std::vector<Vec3> near, all;
    const Vec3 middle = Vec3(3, 2, 1).normalized();
    for (const auto &step : steps(0)) {
        all.push_back(step.move.cast<double>().normalized());
        if (all.back().dot(middle) > 0.6) near.push_back(all.back());
    }
    std::vector<Vec3> forms;
    for (std::size_t a = 0; a < near.size(); ++a)
        for (std::size_t b = a + 1; b < near.size(); ++b)
            for (std::size_t c = b + 1; c < near.size(); ++c) {
                Mat3 m;
                m << near[a].transpose(), near[b].transpose(), near[c].transpose();
                if (std::abs(m.determinant()) < 1e-6) continue;
                const Vec3 n = m.inverse() * Vec3::Ones();
                const bool valid =
                    std::all_of(all.begin(), all.end(), [&](const Vec3 &v) { return n.dot(v) <= 1 + 1e-9; });
                const bool isNew =
                    std::none_of(forms.begin(), forms.end(), [&](const Vec3 &f) { return (f - n).norm() < 1e-6; });
                if (valid && isNew) forms.push_back(n);
            }
    return forms;
}

double freeDistance(const Vec3 &v) {
    static const std::vector<Vec3> forms = makeForms();
    std::array<double, 3> s{std::abs(v.x()), std::abs(v.y()), std::abs(v.z())};
    if (s[0] < s[1]) std::swap(s[0], s[1]);
    if (s[1] < s[2]) std::swap(s[1], s[2]);
    if (s[0] < s[1]) std::swap(s[0], s[1]);
    double most = 0;
    for (const auto &f : forms) most = std::max(most, f.x() * s[0] + f.y() * s[1] + f.z() * s[2]);
    return most;
}

/// Whether places are free for this leg.
class Room {
public:
    Room(const RouteField &field, const Vec3 &from, const Vec3 &to, double clearance_mm)
        : field_(field), from_(from), to_(to), tenths_(int(std::lround(clearance_mm * 10))) {}

    bool isFree(const Cell &cell) const {
        const int have = field_.tenths(cell);
        return have >= tenths_ || isEnough(have, field_.position(cell));
    }
    bool isFreeAt(const Vec3 &p) const {
        constexpr double kHair = 0.5; // the lattice keeps whole tenths, rounded down
        const double have = field_.tenthsAt(p) + kHair;
        return have >= tenths_ || isEnough(have, p);
    }
    bool isFreeLine(const Vec3 &a, const Vec3 &b) const {
        const double length = (b - a).norm();
        const int samples = std::max(1, int(std::ceil(length / (kPitch / 2))));
        for (int i = 0; i <= samples; ++i)
            if (!isFreeAt(a + (b - a) * (double(i) / samples))) return false;
        return true;
    }

private:
    /// Within a few millimetres of an end less will do, and on the end itself nothing.
    bool isEnough(double tenths, const Vec3 &p) const {
        constexpr double kBare_mm = 3.0, kGrow = 0.5;
        const double near = std::min((p - from_).norm(), (p - to_).norm());
        return tenths >= 10 * kGrow * (near - kBare_mm);
    }

    const RouteField &field_;
    Vec3 from_, to_;
    int tenths_;
};

/// A box of lattice points. Its outermost eight layers are never walked on, so that steps need not look where it ends.
struct Domain {
    Cell low, size;
    std::size_t cells() const { return std::size_t(size.x()) * std::size_t(size.y()) * std::size_t(size.z()); }
    bool contains(const Cell &c) const {
        return (c.array() >= low.array() + 8).all() && (c.array() < (low + size).array() - 8).all();
    }
    int offset(const Cell &c) const { return (c.z() * size.y() + c.y()) * size.x() + c.x(); }
    std::uint32_t index(const Cell &cell) const { return std::uint32_t(offset(cell - low)); }
    Cell cell(std::uint32_t index) const {
        const int i = int(index), x = i % size.x(), rest = i / size.x();
        return low + Cell(x, rest % size.y(), rest / size.y());
    }
};

/// The points that a search looks at, in runs along x that are made when the first of them is asked for: a search
/// looks at few of a large domain's. Runs are reused by the next search of the thread; nodes stay where they are.
class Memory {
public:
    struct Node {
        double from_mm; ///< way so far
        float left_mm;
        std::uint32_t parent;
        bool known; ///< by this search; false: nothing else counts
        bool free, done;
        std::int8_t level; ///< the finest lattice that is used here
    };

    void begin(std::size_t cells) {
        // The index of an unusually large domain, too, goes when another search begins: 30 MB for each thread else.
        if (runs_.capacity() > kKeptRuns && cells / kRun < kKeptRuns) std::vector<Node *>().swap(runs_);
        runs_.assign(cells / kRun + 1, nullptr);
        used_ = 0;
        if (blocks_.size() > kKeptBlocks) blocks_.resize(kKeptBlocks); // of an unusually long search
    }
    Node &operator[](std::uint32_t index) {
        Node *&run = runs_[index / kRun];
        if (!run) run = freshRun();
        return run[index % kRun];
    }

private:
    static constexpr std::size_t kRun = 16, kRunsOfBlock = 1024, kKeptBlocks = 20; // a block takes 400 kB
    static constexpr std::size_t kKeptRuns = 1 << 18;                              // 2 MB

    Node *freshRun() {
        const std::size_t block = used_ / kRunsOfBlock, at = used_ % kRunsOfBlock;
        ++used_;
        if (block == blocks_.size()) blocks_.push_back(std::make_unique_for_overwrite<Node[]>(kRun * kRunsOfBlock));
        Node *run = blocks_[block].get() + at * kRun;
        for (std::size_t i = 0; i < kRun; ++i) run[i].known = false;
        return run;
    }
    std::vector<Node *> runs_;
    std::vector<std::unique_ptr<Node[]>> blocks_;
    std::size_t used_ = 0;
};

struct Open {
    double estimate_mm, from_mm;
    std::uint32_t node;
    bool operator<(const Open &other) const { // the queue's top is the largest
        if (estimate_mm != other.estimate_mm) return estimate_mm > other.estimate_mm;
        if (from_mm != other.from_mm) return from_mm < other.from_mm;
        return node > other.node;
    }
};

constexpr std::uint32_t kStart = 0xffffffff;

/// The cells round an end that it is joined to by straight lines.
std::vector<Cell> cellsRound(const RouteField &field, const Vec3 &end) {
    std::vector<Cell> cells;
    const Cell middle = field.nearestCell(end);
    for (int x = -2; x <= 2; ++x)
        for (int y = -2; y <= 2; ++y)
            for (int z = -2; z <= 2; ++z) cells.push_back(middle + Cell(x, y, z));
    return cells;
}

std::vector<Vec3> withoutStraightPoints(const std::vector<Vec3> &points) {
    std::vector<Vec3> kept;
    for (const auto &p : points) {
        if (kept.size() >= 2) {
            const Vec3 a = kept[kept.size() - 1] - kept[kept.size() - 2], b = p - kept.back();
            if (a.cross(b).norm() < 1e-9 * a.norm() * b.norm() + 1e-12 && a.dot(b) > 0) kept.pop_back();
        }
        if (kept.empty() || (p - kept.back()).norm() > 1e-9) kept.push_back(p);
    }
    return kept;
}

/// Whether an end lies in a pocket of less than kPocket lattice points that the other end is not in. A flood between
/// all 26 neighbours reaches whatever a step does, and more: what it does not reach no way leads to.
bool isShutIn(const RouteField &field, const Room &room, const Vec3 &end, const Vec3 &other) {
    constexpr std::size_t kPocket = 6000; // a tenth of a litre
    const auto key = [](const Cell &c) {
        constexpr std::int64_t kHalf = 1 << 20;
        return ((c.x() + kHalf) << 42) | ((c.y() + kHalf) << 21) | (c.z() + kHalf);
    };
    std::unordered_set<std::int64_t> seen;
    std::vector<Cell> open;
    const auto reach = [&](const Cell &cell) {
        if (room.isFree(cell) && seen.insert(key(cell)).second) open.push_back(cell);
    };
    for (const Cell &cell : cellsRound(field, end)) reach(cell);
    const Cell goal = field.nearestCell(other);
    while (!open.empty()) {
        const Cell cell = open.back();
        open.pop_back();
        if (seen.size() > kPocket || (cell - goal).cwiseAbs().maxCoeff() <= 2) return false;
        for (int x = -1; x <= 1; ++x)
            for (int y = -1; y <= 1; ++y)
                for (int z = -1; z <= 1; ++z) reach(cell + Cell(x, y, z));
    }
    return true;
}

/// A step in the numbers of one domain.
struct Hop {
    int move = 0;
    double length_mm = 0;
    std::array<int, 64> between{};
    std::size_t count = 0;
};

std::vector<Hop> hopsIn(const Domain &domain, int level) {
    std::vector<Hop> hops;
    for (const auto &step : steps(level)) {
        Hop hop{domain.offset(step.move), step.length_mm, {}, step.between.size()};
        for (std::size_t i = 0; i < hop.count; ++i) hop.between.at(i) = domain.offset(step.between[i]);
        hops.push_back(hop);
    }
    return hops;
}

/// `found` only when the search inside the domain reached the end.
RouteLeg searchIn(const RouteField &field, const Room &room, const Vec3 &from, const Vec3 &to, const Domain &domain,
                  std::span<const Vec3> narrow_mm, std::size_t mostVisits) {
    static thread_local Memory memory;
    memory.begin(domain.cells());
    RouteLeg leg;
    constexpr double kLastEdge_mm = 0.4; // freeDistance() exceeds a straight line of two cells by less than that
    constexpr double kFine_mm = 20, kMiddle_mm = 90, kNarrow_mm = 14;
    auto levelAt = [&](const Vec3 &p) -> std::int8_t {
        const double near = std::sqrt(std::min((p - from).squaredNorm(), (p - to).squaredNorm()));
        if (near < kFine_mm) return 0;
        for (const Vec3 &n : narrow_mm)
            if ((p - n).squaredNorm() < kNarrow_mm * kNarrow_mm) return 0;
        return near < kMiddle_mm ? 1 : 2;
    };
    auto nodeAt = [&](std::uint32_t index) -> Memory::Node & {
        auto &node = memory[index];
        if (!node.known) {
            const Cell cell = domain.cell(index);
            node = {1e300,
                    -1,
                    kStart,
                    true,
                    domain.contains(cell) && room.isFree(cell),
                    false,
                    levelAt(field.position(cell))};
        }
        return node;
    };
    std::priority_queue<Open> open;
    // Of two equal ways the one that goes straight on stays, then the one by the lower number: the choice does not
    // depend on what else was looked at.
    auto goesStraight = [&](std::uint32_t parent, int move) {
        const std::uint32_t before = memory[parent].parent;
        return before != kStart && int(parent) - int(before) == move;
    };
    auto isBetter = [&](std::uint32_t parent, std::uint32_t kept, std::uint32_t index) {
        if (kept == kStart || parent == kStart) return false;
        const bool a = goesStraight(parent, int(index) - int(parent)), b = goesStraight(kept, int(index) - int(kept));
        return a != b ? a : parent < kept;
    };
    auto reach = [&](std::uint32_t index, Memory::Node &node, double way, std::uint32_t parent) {
        if (node.done || way > node.from_mm + 1e-9) return;
        if (way >= node.from_mm - 1e-9) {
            if (isBetter(parent, node.parent, index)) node.parent = parent;
            return;
        }
        if (node.left_mm < 0)
            node.left_mm = float(std::max(0.0, freeDistance(to - field.position(domain.cell(index))) - kLastEdge_mm));
        node.from_mm = way;
        node.parent = parent;
        open.push({way + double(node.left_mm), way, index});
    };
    std::vector<std::pair<std::uint32_t, double>> doors;
    for (const Cell &cell : cellsRound(field, to))
        if (domain.contains(cell) && room.isFree(cell) && room.isFreeLine(field.position(cell), to))
            doors.emplace_back(domain.index(cell), (to - field.position(cell)).norm());
    if (doors.empty()) return leg;
    for (const Cell &cell : cellsRound(field, from)) {
        if (!domain.contains(cell) || !room.isFree(cell) || !room.isFreeLine(from, field.position(cell))) continue;
        const std::uint32_t index = domain.index(cell);
        reach(index, nodeAt(index), (field.position(cell) - from).norm(), kStart);
    }
    const std::array<std::vector<Hop>, kLevels> hops{hopsIn(domain, 0), hopsIn(domain, 1), hopsIn(domain, 2)};
    double best = 1e300;
    std::uint32_t last = kStart;
    for (; !open.empty() && open.top().estimate_mm < best - 1e-9; ++leg.visits) {
        if (leg.visits >= mostVisits) {
            leg.cutShort = true;
            break;
        }
        constexpr std::size_t kLong = 8000; // by then most have arrived: is there a way at all?
        if (leg.visits == kLong && last == kStart &&
            (isShutIn(field, room, to, from) || isShutIn(field, room, from, to)))
            return leg;
        const Open top = open.top();
        open.pop();
        auto &node = memory[top.node];
        if (node.done) continue;
        node.done = true;
        const Cell cell = domain.cell(top.node);
        for (const auto &[door, length] : doors)
            if (door == top.node && top.from_mm + length < best - 1e-9) {
                best = top.from_mm + length;
                last = door;
            }
        auto tryHop = [&](const Hop &hop, int level) {
            const std::uint32_t index = top.node + std::uint32_t(hop.move);
            Memory::Node &next = nodeAt(index);
            // A lattice is left and entered where both ends of the step use it.
            if (!next.free || next.done || next.level > level || top.from_mm + hop.length_mm > next.from_mm + 1e-9)
                return;
            for (std::size_t i = 0; i < hop.count; ++i)
                if (!nodeAt(top.node + std::uint32_t(hop.between[i])).free) return;
            reach(index, next, top.from_mm + hop.length_mm, top.node);
        };
        const int places = cell.x() | cell.y() | cell.z();
        for (int level = node.level; level < kLevels; ++level) {
            if (places & ((1 << level) - 1)) break; // not a point of the wider lattice
            for (const Hop &hop : hops[std::size_t(level)]) tryHop(hop, level);
        }
    }
    if (last == kStart) return leg;
    std::vector<Vec3> points{to};
    for (std::uint32_t at = last; at != kStart; at = memory[at].parent)
        points.push_back(field.position(domain.cell(at)));
    points.push_back(from);
    std::reverse(points.begin(), points.end());
    leg.points_mm = withoutStraightPoints(points);
    leg.length_mm = best;
    leg.found = true;
    return leg;
}

/// No way that leaves the domain is shorter: it has to touch one of its faces in between.
double shortestOutside(const Domain &domain, const RouteField &field, const Vec3 &from, const Vec3 &to) {
    double least = 1e300;
    const Vec3 low = field.position(domain.low + Cell::Constant(8)),
               high = field.position(domain.low + domain.size - Cell::Constant(9));
    for (int axis = 0; axis < 3; ++axis)
        for (const double face : {low[axis], high[axis]}) {
            Vec3 mirrored = to;
            mirrored[axis] = 2 * face - to[axis];
            least = std::min(least, (mirrored - from).norm());
        }
    return least;
}

double boxDistance(const Aabb &box, const Vec3 &p) {
    return (box.min_mm - p).cwiseMax(p - box.max_mm).cwiseMax(0.0).norm();
}

} // namespace

bool staysBest(const RouteLeg &leg, const FieldChange &change) {
    if (leg.makeshift) return false;
    if (!leg.found) return change.empty();
    // A step reads cells within three quarters of the pitch of it, a straight line those round it.
    constexpr double kBeside_mm = 2 * kPitch, kSample_mm = kPitch;
    Aabb bounds;
    for (const Vec3 &p : leg.points_mm) bounds.include(p);
    for (const Aabb &box : change.nearer) {
        if (boxGap(bounds, box) > kBeside_mm) continue;
        for (std::size_t i = 0; i + 1 < leg.points_mm.size(); ++i) {
            const Vec3 edge = leg.points_mm[i + 1] - leg.points_mm[i];
            const int samples = std::max(1, int(std::ceil(edge.norm() / kSample_mm)));
            for (int k = 0; k <= samples; ++k)
                if (boxDistance(box, leg.points_mm[i] + edge * (double(k) / samples)) < kBeside_mm + kSample_mm / 2)
                    return false;
        }
    }
    const Vec3 &from = leg.points_mm.front(), &to = leg.points_mm.back();
    if (leg.points_mm.size() == 2) return true; // nothing is shorter than straight
    for (const Aabb &box : change.farther)
        if (boxDistance(box, from) + boxDistance(box, to) < leg.length_mm + kBeside_mm) return false;
    return true;
}

RouteLeg findLeg(const RouteField &field, const Vec3 &from, const Vec3 &to, double clearance_mm,
                 std::span<const Vec3> narrow_mm, std::size_t mostVisits) {
    RouteLeg leg;
    const Room room(field, from, to, clearance_mm);
    if (room.isFreeLine(from, to)) {
        leg.points_mm = {from, to};
        leg.length_mm = (to - from).norm();
        leg.found = true;
        return leg;
    }
    for (const double margin_mm : {60.0, 1e9}) {
        Domain domain;
        const Cell reach = Cell::Constant(int(std::min(1e6, margin_mm / kPitch)) + 8);
        domain.low = field.nearestCell(from).cwiseMin(field.nearestCell(to)) - reach;
        Cell high = field.nearestCell(from).cwiseMax(field.nearestCell(to)) + reach;
        const bool whole = margin_mm > 1e6;
        if (whole) { // everything that stands, and room to go round it
            const Cell ends = Cell::Constant(14);
            domain.low = field.low().cwiseMin(field.nearestCell(from) - ends).cwiseMin(field.nearestCell(to) - ends);
            high = (field.low() + field.size())
                       .cwiseMax(field.nearestCell(from) + ends)
                       .cwiseMax(field.nearestCell(to) + ends);
        }
        domain.size = high - domain.low + Cell::Ones();
        constexpr std::size_t kMostCells = 12'000'000;
        if (domain.cells() > kMostCells) break;
        const RouteLeg nearby = std::move(leg);
        leg = searchIn(field, room, from, to, domain, narrow_mm, mostVisits);
        leg.visits += nearby.visits;
        leg.cutShort |= nearby.cutShort;
        if (leg.found && (whole || leg.length_mm <= shortestOutside(domain, field, from, to))) break;
    }
    if (!leg.found) {
        leg.points_mm = {from, to};
        leg.length_mm = (to - from).norm();
    }
    return leg;
}

} // namespace waxis
