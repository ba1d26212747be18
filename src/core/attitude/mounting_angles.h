// The numbers that a controller wants to be told about how a board or module is mounted.
#pragma once

#include "core/catalog/part_type.h"

#include <array>
#include <string>

namespace waxis {

struct MountingAngles {
    RollPitchYaw up;   ///< x forward, y left, z up: positive pitch is nose down, positive yaw turns left
    RollPitchYaw down; ///< x forward, y right, z down, as most controllers count: pitch and yaw change sign
    bool gimbalLocked = false;
    RollPitchYaw nearest;      ///< the nearest combination of quarter turns, z up
    double offNearest_deg = 0; ///< angle of the turn that is left
    double topTilt_deg = 0;    ///< angle between the module's top and up
    double headingOff_deg =
        0;               ///< of the arrow in plan from the nose, left positive; 0 where it points straight up or down
    std::string inWords; ///< of the nearest quarter turns: "turned left 90°, upside down"
};

/// `arrow` is the printed arrow in the part's axes (level in the part); the angles are those of arrow and top.
/// Degenerate: an arrow along z counts as +x.
MountingAngles mountingAngles(const Vec3 &arrow, const Quat &R_FramePart);

/// How the magnetic sensor of a part lies in the frame: the part's turn, and the chip's own within the module.
Quat compassRotation(const PartType &type, const Quat &R_FramePart);

/// The other three numbers for the same turn: over the pole instead of round. Some firmwares take only one of the two.
RollPitchYaw otherTriple(const RollPitchYaw &angles);

/// Same turn for a forward-right-down frame: roll same, pitch and yaw change sign.
RollPitchYaw forwardRightDown(const RollPitchYaw &up);

/// The 24 ways to stand square to the frame, shortest description first.
const std::array<RollPitchYaw, 24> &quarterTurns();

} // namespace waxis
