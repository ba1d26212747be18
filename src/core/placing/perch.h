// Places where a part can sit, and how it is held there.
#pragma once

#include "core/build/build.h"

#include <array>
#include <optional>

namespace waxis {

enum class PerchKind {
    pattern,
    adapter,
    face,
    strap,
    mast,
    armTop,
    armUnder,
    armSide,
    armInside,
    standoff,
    bobbin,
    motorMount, ///< a motor on its mount
    shaft,      ///< a propeller or its nut on the motor that stands on the mount
    tube,       ///< an antenna in a tube
    socket,     ///< an antenna screwed onto the connector of a radio
    part,       ///< on top of another part: a mast, a pedestal, a pad
    cage,       ///< a camera between the two cheeks of a camera cage
    plate,      ///< on a plate, where no site is
    plateUnder  ///< under a plate
};

/// One place for one part: where it ends up and how it is fastened there.
struct Perch {
    PerchKind kind = PerchKind::face;
    std::string on;   ///< id of the site, arm or standoff
    std::string site; ///< not empty: it is seated there
    Pose X_FramePart;
    Fastening fastening;
    std::string adapter; ///< id of the type of the adapter plate that goes between
    double away_mm = 0;  ///< from where the part was wanted, in the directions looked at
    bool linesUp = true; ///< false: the holes of part and mount do not meet; said, and FIT-5 finds it
    /// How well the place suits the kind: 0 made for it (its holes, its mount, its strap), then 1, 2 ...
    int rank = 0;
    bool operator==(const Perch &) const = default;
};

/// The nearest place within `reach_mm` of where a part is wanted, measured along the axes that the drawing shows; sites
/// whose holes line up win over all others, then sites with an adapter out of `adapters`, then other sites, arms,
/// standoffs. Mounts, shafts and tubes attract from farther away: nothing else would do. A part keeps its turn, save
/// that it takes the lean of a leaning site, the direction of an arm, and a motor's leads come out towards the middle.
/// `level_mm`: only places where the part's origin comes to lie at about this height.
std::optional<Perch> nearestPerch(const Build &build, const Part &part, const Pose &wanted,
                                  const std::array<bool, 3> &shown, double reach_mm, const TypeTable &adapters = {},
                                  std::optional<double> level_mm = {});

/// Every free place where a part of this type could be held in this build, those made for it first: the order is by
/// rank, then as the frame lists them. On plates: one free spot for each face.
std::vector<Perch> perchesFor(const Build &build, const PartType &type, const TypeTable &adapters = {});
/// The same for a part that stands somewhere already.
std::vector<Perch> perchesFor(const Build &build, const Part &part, const TypeTable &adapters = {});

/// The places of the same kind as this one, itself included: all four mounts, all four arms. One where places of the
/// kind have nothing to do with each other.
std::vector<Perch> alikeTo(const Perch &perch, const std::vector<Perch> &all);

/// In a few words: "on", "under", "beside" ... for the drawing.
std::string_view perchWord(PerchKind kind);

} // namespace waxis
