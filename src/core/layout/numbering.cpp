#include "core/layout/numbering.h"

#include "core/base/units.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

constexpr double kSameAxis_mm = 1.0; ///< motor axes nearer than this are one axis
constexpr double kMiddle_mm = 1.0;   ///< as near as this to the centre line stands on it

Vec2 centroid(const std::vector<MotorMount> &mounts) {
    Vec2 sum = Vec2::Zero();
    for (const auto &m : mounts) sum += m.position_mm.head<2>();
    return mounts.empty() ? sum : Vec2(sum / double(mounts.size()));
}

/// Degrees clockwise from the nose, in [0, 360).
double bearing_deg(const Vec2 &p) {
    const double angle = degreesFromRadians(std::atan2(-p.y(), p.x()));
    const double wrapped = angle < -1e-9 ? angle + 360 : angle;
    return std::abs(wrapped) < 1e-9 || wrapped >= 360 - 1e-9 ? 0.0 : wrapped;
}

using Places = std::vector<std::vector<std::size_t>>;

/// Places in the order of the custom.
std::vector<std::size_t> placeOrder(const std::vector<Vec2> &places, Numbering numbering) {
    const std::size_t n = places.size();
    std::vector<std::size_t> round(n); // `places` run clockwise from the nose
    for (std::size_t i = 0; i < n; ++i) round[i] = i;
    auto side = [&](std::size_t i) {
        return places[i].y() > kMiddle_mm ? 1 : places[i].y() < -kMiddle_mm ? -1 : 0; // 1: left
    };
    std::vector<std::size_t> order;
    switch (numbering) {
    case Numbering::own: return round;
    case Numbering::clockwise: {
        // The left one nearest the nose starts, or the one straight ahead.
        std::size_t start = 0;
        if (n > 0 && !(side(0) == 0 && places[0].x() > 0))
            for (std::size_t i = 0; i < n; ++i)
                if (side(i) == 1 && places[i].x() > places[start].x() - (side(start) == 1 ? 0 : 1e9)) start = i;
        std::rotate(round.begin(), round.begin() + std::ptrdiff_t(start), round.end());
        return round;
    }
    case Numbering::diagonalFirst: {
        std::vector<bool> taken(n, false);
        // The first on the right, going clockwise from the nose; then counter-clockwise from there.
        std::size_t first = 0;
        while (first + 1 < n && side(first) != -1) ++first;
        for (std::size_t k = 0; k < n; ++k) {
            const std::size_t i = (first + n - k) % n;
            if (taken[i]) continue;
            taken[i] = true;
            order.push_back(i);
            if (n % 2 != 0) continue; // with an odd number nothing lies across
            const std::size_t across = (i + n / 2) % n;
            if (!taken[across]) {
                taken[across] = true;
                order.push_back(across);
            }
        }
        return order;
    }
    case Numbering::rearRightFirst: {
        std::vector<std::size_t> right, left, middleRear, middleFront;
        for (std::size_t i : round)
            (side(i) == -1 ? right : side(i) == 1 ? left : places[i].x() < 0 ? middleRear : middleFront).push_back(i);
        auto rearFirst = [&](std::size_t a, std::size_t b) { return places[a].x() < places[b].x(); };
        std::sort(right.begin(), right.end(), rearFirst);
        std::sort(left.begin(), left.end(), rearFirst);
        order = middleRear;
        auto takeEnds = [&](std::vector<std::size_t> &list) {
            if (list.empty()) return;
            order.push_back(list.front());
            list.erase(list.begin());
            if (list.empty()) return;
            order.push_back(list.back());
            list.pop_back();
        };
        bool firstRound = true;
        while (!right.empty() || !left.empty()) {
            takeEnds(right);
            takeEnds(left);
            if (firstRound) order.insert(order.end(), middleFront.begin(), middleFront.end());
            firstRound = false;
        }
        if (firstRound) order.insert(order.end(), middleFront.begin(), middleFront.end());
        return order;
    }
    }
    return order;
}

std::size_t indexOf(const Frame &frame, const std::string &mount) {
    const auto &mounts = frame.motorMounts;
    return std::size_t(std::find_if(mounts.begin(), mounts.end(), [&](const auto &m) { return m.id == mount; }) -
                       mounts.begin());
}

Failure<EditError> noSuchMount(const std::string &mount) {
    return Failure{EditError{fmt::format("There is no motor mount \"{}\" in this frame.", mount)}};
}

} // namespace

std::span<const NumberingDefinition> numberings() {
    static constexpr std::array<NumberingDefinition, 4> table{{
        {Numbering::diagonalFirst, "diagonal-first", "Diagonal first",
         "1 front right, 2 across from it, then the next pair to the left."},
        {Numbering::rearRightFirst, "rear-right-first", "Rear right first",
         "Rear right, front right, rear left, front left; what lies between comes last."},
        {Numbering::clockwise, "clockwise", "Clockwise", "From the front left on, clockwise seen from above."},
        {Numbering::own, "own", "Own numbers", "As entered for each motor."},
    }};
    return table;
}

const NumberingDefinition *findNumbering(std::string_view id) {
    const auto all = numberings();
    const auto at = std::find_if(all.begin(), all.end(), [&](const auto &n) { return n.id == id; });
    return at == all.end() ? nullptr : &*at;
}

Places motorPlaces(const std::vector<MotorMount> &mounts) {
    const Vec2 centre = centroid(mounts);
    std::vector<std::size_t> order(mounts.size());
    for (std::size_t i = 0; i < mounts.size(); ++i) order[i] = i;
    auto at = [&](std::size_t i) { return Vec2(mounts[i].position_mm.head<2>() - centre); };
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return bearing_deg(at(a)) < bearing_deg(at(b)) - 1e-9; });
    Places places;
    for (std::size_t i : order) {
        const auto same = std::find_if(places.begin(), places.end(), [&](const auto &place) {
            return (at(place.front()) - at(i)).norm() <= kSameAxis_mm;
        });
        if (same == places.end())
            places.push_back({i});
        else
            same->push_back(i);
    }
    auto height = [&](std::size_t i) {
        return mounts[i].position_mm.z() + mounts[i].axis.z() * mounts[i].propPlane_mm;
    };
    for (auto &place : places)
        std::stable_sort(place.begin(), place.end(),
                         [&](std::size_t a, std::size_t b) { return height(a) > height(b); });
    return places;
}

std::vector<int> motorNumbers(const std::vector<MotorMount> &mounts, Numbering numbering) {
    std::vector<int> numbers(mounts.size(), 0);
    if (numbering == Numbering::own) {
        for (std::size_t i = 0; i < mounts.size(); ++i) numbers[i] = mounts[i].number;
        return numbers;
    }
    const Vec2 centre = centroid(mounts);
    const Places places = motorPlaces(mounts);
    std::vector<Vec2> points;
    for (const auto &place : places) points.push_back(mounts[place.front()].position_mm.head<2>() - centre);
    const auto order = placeOrder(points, numbering);
    int next = 1;
    for (std::size_t storey = 0; next <= int(mounts.size()); ++storey)
        for (std::size_t place : order)
            if (storey < places[place].size()) numbers[places[place][storey]] = next++;
    return numbers;
}

std::vector<Spin> alternatingSpins(const std::vector<MotorMount> &mounts, Spin frontRight) {
    std::vector<Spin> spins(mounts.size(), frontRight);
    const Places places = motorPlaces(mounts);
    const Vec2 centre = centroid(mounts);
    std::size_t first = 0; // the first to the right of the nose
    for (std::size_t i = 0; i < places.size(); ++i)
        if (mounts[places[i].front()].position_mm.y() - centre.y() < -kMiddle_mm) {
            first = i;
            break;
        }
    for (std::size_t k = 0; k < places.size(); ++k) {
        const auto &place = places[(first + k) % places.size()];
        // Of three the tail motor is the odd one; left and right turn against each other.
        Spin spin = k % 2 == 0 ? frontRight : opposite(frontRight);
        if (places.size() == 3) spin = k == 0 ? frontRight : opposite(frontRight);
        for (std::size_t storey = 0; storey < place.size(); ++storey)
            spins[place[storey]] = storey % 2 == 0 ? spin : opposite(spin);
    }
    return spins;
}

int yawSurplus(const std::vector<MotorMount> &mounts) {
    int surplus = 0;
    for (const auto &mount : mounts) surplus += mount.spin == Spin::clockwise ? 1 : -1;
    return surplus;
}

std::vector<std::pair<std::size_t, std::size_t>> likeTurningNeighbours(const std::vector<MotorMount> &mounts) {
    std::vector<std::pair<std::size_t, std::size_t>> pairs;
    const Places places = motorPlaces(mounts);
    for (const auto &place : places)
        for (std::size_t k = 1; k < place.size(); ++k)
            if (mounts[place[k]].spin == mounts[place[k - 1]].spin) pairs.emplace_back(place[k - 1], place[k]);
    if (places.size() < 4) return pairs;
    for (std::size_t i = 0; i < places.size(); ++i) {
        const std::size_t a = places[i].front(), b = places[(i + 1) % places.size()].front();
        if (mounts[a].spin == mounts[b].spin) pairs.emplace_back(a, b);
    }
    return pairs;
}

EditResult chooseNumbering(const Build &build, Numbering numbering) {
    Build next = build;
    next.frame.edit([&](Frame &frame) {
        const auto numbers = motorNumbers(frame.motorMounts, numbering);
        for (std::size_t i = 0; i < numbers.size(); ++i) frame.motorMounts[i].number = numbers[i];
        for (const auto &definition : numberings())
            if (definition.numbering == numbering) frame.numbering = definition.id;
    });
    return next;
}

EditResult setMotorNumber(const Build &build, const std::string &mount, int number) {
    const std::size_t index = indexOf(*build.frame, mount), count = build.frame->motorMounts.size();
    if (index == count) return noSuchMount(mount);
    if (number < 1 || number > int(count))
        return Failure{EditError{fmt::format("Motors are numbered from 1 to {}.", count)}};
    Build next = build;
    next.frame.edit([&](Frame &frame) {
        for (auto &other : frame.motorMounts)
            if (other.number == number) other.number = frame.motorMounts[index].number;
        frame.motorMounts[index].number = number;
        frame.numbering = "own";
    });
    return next;
}

EditResult setMotorSpin(const Build &build, const std::string &mount, Spin spin) {
    const std::size_t index = indexOf(*build.frame, mount);
    if (index == build.frame->motorMounts.size()) return noSuchMount(mount);
    Build next = build;
    next.frame.edit([&](Frame &frame) { frame.motorMounts[index].spin = spin; });
    return next;
}

EditResult reverseSpins(const Build &build) {
    Build next = build;
    next.frame.edit([](Frame &frame) {
        for (auto &mount : frame.motorMounts) mount.spin = opposite(mount.spin);
    });
    return next;
}

} // namespace waxis
