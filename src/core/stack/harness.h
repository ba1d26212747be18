// The flat cable between two boards of a stack.
#pragma once

#include "core/build/build.h"

namespace waxis {

struct Harness {
    std::string boardA, portA, boardB, portB;
    double turn_deg = 0;     ///< between the directions in which the two ports open, in plan, 0 to 180
    bool halfTwist = false;  ///< the pin rows run against each other: the cable needs half a twist
    bool samePins = false;   ///< both ports name their pins in the same order
    double length_mm = 0;    ///< flat cable, plug to plug: straight out, round the boards' edge, up
    double bestTurn_deg = 0; ///< quarter turns of board B to the left after which the ports open alike
    double bestLength_mm = 0;
    Vec3 a_mm = Vec3::Zero(), b_mm = Vec3::Zero(); ///< the ports, frame axes
};

/// Pairs of plugs or sockets with four or more pins of which at least four signals are the same, one on each of two
/// boards of the stack: where a flat cable joins them. Each board's nearest such pair.
std::vector<Harness> harnessesOf(const Build &build, const Stack &stack);

/// Shortest way from `a` to `b`, both on or outside the rectangle round the origin, that does not cross it; mm.
double wayRound_mm(const Vec2 &a, const Vec2 &b, const Vec2 &halfSize_mm);

} // namespace waxis
