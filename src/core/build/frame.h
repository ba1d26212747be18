// The frame: what everything mounts on.
// Datum: the centroid of the motor axes in plan, on the top face of the main plate.
#pragma once

#include "core/base/measured.h"
#include "core/base/spin.h"
#include "core/catalog/material.h"
#include "core/fasteners/fastener.h"
#include "core/geometry/hole_pattern.h"
#include "core/geometry/polygon.h"
#include "core/geometry/pose.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct MotorMount {
    std::string id;
    Vec3 position_mm = Vec3::Zero(); ///< centre of the face that the motor stands on
    Vec3 axis = Vec3::UnitZ();       ///< unit vector of thrust
    double propDiameter_mm = 0;
    double propPlane_mm = 0; ///< height of the propeller's middle above `position_mm` along the axis
    std::optional<double> flexUp_mm, flexDown_mm; ///< blade thickness plus flex; none: the practice's figures
    Spin spin = Spin::clockwise;
    int number = 0; ///< the controller's motor output; 0: not numbered
    HolePattern pattern;
    bool operator==(const MotorMount &) const = default;
};

/// What an arm is across.
enum class ArmSection {
    bar, ///< solid
    box, ///< hollow and rectangular
    tube ///< hollow and round (oval where width and thickness differ)
};

enum class HoleEdge { bare, grommet };

/// Which wall of a hollow arm a hole goes through; left and right for somebody who looks from its root to its tip.
enum class ArmWall { left, right, both, top, bottom };

/// A way for wires and air into a hollow arm.
struct ArmHole {
    double at_mm = 0; ///< of its middle from the root
    double diameter_mm = 0;
    ArmWall wall = ArmWall::both;
    HoleEdge edge = HoleEdge::bare;
    bool operator==(const ArmHole &) const = default;
};

/// Straight between two points on its top centre line.
struct Arm {
    std::string id;
    Vec3 root_mm = Vec3::Zero(), tip_mm = Vec3::Zero();
    double width_mm = 0, thickness_mm = 0; ///< outer
    ArmSection section = ArmSection::bar;
    double wall_mm = 0; ///< of what is hollow
    std::string material = "carbon";
    std::optional<double> foldJoint_mm; ///< distance of a folding joint from the root
    std::optional<double>
        foldAngle_deg;               ///< how far the outer part turns when folded, to the left positive; none: 90, aft
    bool foldsDown = false;          ///< the joint's axis lies across the arm: the angle counts downwards, none: 90
    std::optional<double> hinge_g;   ///< what the folding joint weighs besides the arm
    Measured mass_g;                 ///< weighed, with its joint; unknown: from size and density
    std::vector<ArmHole> holes = {}; ///< of what is hollow
    bool operator==(const Arm &) const = default;
};

struct RoundHole {
    Vec2 centre_mm = Vec2::Zero();
    double diameter_mm = 0;
    bool operator==(const RoundHole &) const = default;
};

struct Plate {
    std::string id;
    std::string name;
    Ring outline_mm;
    std::vector<RoundHole> holes;
    std::vector<Ring> cutouts_mm; ///< slots and windows
    double z_mm = 0;              ///< bottom face
    double thickness_mm = 0;
    std::string material = "carbon";
    bool isolated = false; ///< belongs to the clean frame on bobbins
    Measured mass_g;       ///< weighed; unknown: from outline, holes, thickness and density
    Measured sag_mm;       ///< isolated: how far it sinks on its bobbins under all that it carries
    bool operator==(const Plate &) const = default;
};

enum class StandoffRole {
    standoff, ///< holds plates apart
    bobbin,   ///< soft: carries the clean frame
    foot,     ///< stands on the ground
    stopper   ///< ends short of the clean frame and stops it before the bobbins tear
};

struct Standoff {
    std::string id;
    StandoffRole role = StandoffRole::standoff;
    Vec3 base_mm = Vec3::Zero(); ///< centre of the lower end
    double height_mm = 0, diameter_mm = 0, bore_mm = 0;
    std::string thread = "M3";
    std::string material = "aluminium";
    Measured mass_g;                      ///< weighed; unknown: from size and density
    std::optional<double> travel_mm = {}; ///< bobbins: how far they give in a hard stop; none: the practice's figure
    bool operator==(const Standoff &) const = default;
};

/// A screw of the frame's own: clamps arms, plates, posts and feet that lie over one another. It stands upright.
struct FrameScrew {
    std::string id;
    Vec2 at_mm = Vec2::Zero(); ///< its axis
    bool fromAbove = false;    ///< where the head is
    std::string thread = "M3";
    HeadStyle head = HeadStyle::button;
    std::optional<double> length_mm;          ///< as sold; none: the shortest on sale that holds
    std::vector<std::string> through;         ///< plates, arms, feet, plain posts, brackets; from the head onwards
    std::string into;                         ///< the post or foot whose thread it turns into; empty: a nut
    FastenerForm nut = FastenerForm::lockNut; ///< where `into` is empty: nut, lockNut, thinLockNut or pressNut
    bool operator==(const FrameScrew &) const = default;
};

enum class SiteKind { pattern, face, edge, arm, strap, mast };

/// A place where parts mount. Parts at a site have their pose in the site's axes.
struct Site {
    std::string id;
    std::string name;
    SiteKind kind = SiteKind::face;
    Pose X_FrameSite;
    std::string on; ///< id of the plate, arm or standoff that carries it
    std::optional<HolePattern> pattern;
    bool isolated = false; ///< soft: sways against the rigid frame
    bool operator==(const Site &) const = default;
};

struct PassThrough {
    std::string id;
    std::string plate;
    Ring outline_mm;
    HoleEdge edge = HoleEdge::bare;
    bool operator==(const PassThrough &) const = default;
};

struct Frame {
    std::string name;
    std::string layout;                             ///< kind of motor layout, for instance "quad-x"
    std::map<std::string, double> layoutParameters; ///< generator parameters, kept so that it stays editable
    std::string numbering; ///< "diagonal-first", "rear-right-first", "clockwise", "own"; empty: not chosen
    std::vector<MotorMount> motorMounts;
    std::vector<Arm> arms;
    std::vector<Plate> plates;
    std::vector<Standoff> standoffs;
    std::vector<FrameScrew> screws;
    std::vector<Site> sites;
    std::vector<PassThrough> passThroughs;
    std::vector<Material> materials; ///< own entries, before the common table

    // Copied in a hundred files; the code of it is made in one.
    Frame();
    Frame(const Frame &);
    Frame(Frame &&) noexcept;
    Frame &operator=(const Frame &);
    Frame &operator=(Frame &&) noexcept;
    ~Frame();
    bool operator==(const Frame &) const;
};

} // namespace waxis
