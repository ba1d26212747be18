// Which motor is number one, and which way each turns.
#pragma once

#include "core/edits/part_edits.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace waxis {

/// Controllers number their motor outputs by different customs (common practice, no source). A drawing that came with
/// a frame may show another than the controller's: check.
enum class Numbering { diagonalFirst, rearRightFirst, clockwise, own };

struct NumberingDefinition {
    Numbering numbering;
    std::string_view id; ///< as in files
    std::string_view title;
    std::string_view what;
};
std::span<const NumberingDefinition> numberings();
const NumberingDefinition *findNumbering(std::string_view id);

/// The number of each mount, from 1, in the frame's order.
/// - diagonalFirst: front right, the one across from it, then the next pair to the left, and so on round;
/// - rearRightFirst: a rear middle motor first, then rear right, front right, rear left, front left, a front middle
/// one,
///   then what lies between on the right and on the left;
/// - clockwise: from the front left (or straight ahead) on, seen from above;
/// - own: as the mounts say.
/// Of coaxial pairs the upper motors come first, all of them.
std::vector<int> motorNumbers(const std::vector<MotorMount> &mounts, Numbering numbering);

/// Indices of the mounts round the craft, clockwise from the nose, seen from above; coaxial pairs as one place each.
std::vector<std::vector<std::size_t>> motorPlaces(const std::vector<MotorMount> &mounts);

/// Neighbours alternate, coaxial pairs turn against each other; the motor next to the nose on the right turns as told.
std::vector<Spin> alternatingSpins(const std::vector<MotorMount> &mounts, Spin frontRight);

/// Clockwise less counter-clockwise motors: 0 balances the yaw torque of equal propellers.
int yawSurplus(const std::vector<MotorMount> &mounts);

/// Pairs of neighbours, or of one coaxial pair, that turn the same way; three motors have an odd one and give none.
std::vector<std::pair<std::size_t, std::size_t>> likeTurningNeighbours(const std::vector<MotorMount> &mounts);

/// The thread that tightens itself: a nut on a clockwise motor needs a left-hand thread.
constexpr std::string_view selfTighteningThread(Spin spin) {
    return spin == Spin::clockwise ? "left-hand" : "right-hand";
}

EditResult chooseNumbering(const Build &build, Numbering numbering);
/// Gives the mount a number; whoever had it gets the other one. The numbering becomes the build's own.
EditResult setMotorNumber(const Build &build, const std::string &mount, int number);
EditResult setMotorSpin(const Build &build, const std::string &mount, Spin spin);
/// Turns all motors the other way.
EditResult reverseSpins(const Build &build);

} // namespace waxis
