// Where each wire runs: from port to port, along arms, by the places it is led to, round everything that stands.
#pragma once

#include "core/build/build.h"
#include "core/clearance/clearance_world.h"
#include "core/practice/practice.h"
#include "core/wiring/route_search.h"

#include <atomic>
#include <map>
#include <set>
#include <string>
#include <vector>

namespace waxis {

struct BodyOwner;
struct BodyTraits;

enum class SupportKind { end, tie, passThrough };

/// A place where something holds the wire.
struct RouteSupport {
    SupportKind kind = SupportKind::end;
    std::string id; ///< of tie or pass-through
    Vec3 position_mm = Vec3::Zero();
    double at_mm = 0; ///< along the route
    bool operator==(const RouteSupport &) const = default;
};

/// A piece of a route that nothing holds and that lies on nothing.
struct FreeSpan {
    double from_mm = 0, to_mm = 0; ///< along the route
    bool operator==(const FreeSpan &) const = default;
};

struct WireRoute {
    std::vector<Vec3> points_mm; ///< pad or plug to pad or plug, in the frame's axes; empty when an end is not there
    double length_mm = 0;
    bool found = false;                 ///< false: some leg is a straight line through what stands in the way
    bool makeshift = false;             ///< some leg is still to be searched: in a hurry, or beyond the budget
    std::vector<RouteSupport> supports; ///< in order along the route
    std::vector<FreeSpan> spans;        ///< those of 20 mm and more, in order
    double widestSpan_mm = 0;           ///< the longest piece that nothing holds and that lies on nothing
    Vec3 spanMiddle_mm = Vec3::Zero();
    bool operator==(const WireRoute &) const = default;
};

/// How far along and where a wire leaves a port: past the plug's body, or off the pad. Frame axes.
struct PortExit {
    Vec3 position_mm, direction, exit_mm;
};
std::optional<PortExit> portExit(const Build &build, const WireEnd &end);

/// The stops that a wire without any is led by: the arms that its ends sit on, `from`'s first.
std::vector<RouteStop> impliedStops(const Build &build, const Wire &wire);

/// Outside diameter of one core, mm, from the stock table; 1.13 for coax.
double coreDiameter_mm(const Wire &wire, int awg);

/// The point of a polyline `at_mm` along it.
Vec3 pointAlong(const std::vector<Vec3> &points_mm, double at_mm);
/// Points every `step_mm` along a polyline, its end included.
std::vector<Vec3> samplesAlong(const std::vector<Vec3> &points_mm, double step_mm);
double lengthOf(const std::vector<Vec3> &points_mm);

/// Keeps the routes of a changing build. Only wires whose ends, stops or surroundings changed are led again; the result
/// always equals that of a fresh keeper.
class RouteKeeper {
public:
    /// Routes in the order of `build.wires`. `owners` and `traits` belong to `bodies`.
    const std::vector<WireRoute> &update(const Build &build, const Practice &practice, const std::vector<Body> &bodies,
                                         const std::vector<BodyOwner> &owners, const std::vector<BodyTraits> &traits);
    /// While the mouse is down: the ways of the last update drawn out to where their ends are now, without a search.
    /// `moved`: parts whose wires may end elsewhere; null: any. Nothing that was led is forgotten. Empty-handed where
    /// canStretch() says no: other wires, or nothing led yet.
    std::vector<WireRoute> stretch(const Build &build, const std::set<std::string> *moved) const;
    bool canStretch(const Build &build) const { return routes_.size() == build.wires.size(); }
    /// Lattice points that one update may look at. Beyond, wires are stretched or drawn straight and stay so until an
    /// update without a budget leads them (`putOff()`), or their surroundings change.
    void setBudget(std::size_t visits) { budget_ = visits; }
    static constexpr std::size_t kWithoutBudget = ~std::size_t(0);
    /// Whoever asked for the routes can call them off: what is not led yet is put off then.
    void setStop(const std::atomic<bool> *stop) { stop_ = stop; }
    /// Wires of the last update that wait for one without a budget.
    int putOff() const { return putOff_; }
    /// Wires that the last update led anew.
    int led() const { return led_; }

private:
    struct Plan { ///< everything that decides a route beside what stands there
        std::vector<Vec3> points_mm;
        double clearance_mm = 0;
        bool operator==(const Plan &) const = default;
    };
    struct Kept {
        Plan plan;
        std::vector<RouteLeg> legs;
    };
    RouteLeg lead(const Vec3 &from_mm, const Vec3 &to_mm, double clearance_mm, const RouteLeg *old);
    void renewField(std::map<std::string, RouteObstacle> obstacles, const Aabb &reach);

    std::map<std::string, RouteObstacle> obstacles_;
    RouteField field_;
    Aabb reach_;
    std::vector<Vec3> narrow_;
    FieldChange change_; ///< of the field since the last update
    std::map<std::string, Kept> kept_;
    std::vector<WireRoute> routes_;
    int led_ = 0, putOff_ = 0;
    const std::atomic<bool> *stop_ = nullptr;
    std::size_t budget_ = kWithoutBudget, left_ = kWithoutBudget; ///< of an update; of the one that runs
};

} // namespace waxis
