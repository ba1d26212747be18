// Every change of a build is a function Build -> Build. An edit that names something that is not there is an
// error, not a silent no-op.
#pragma once

#include "core/build/edit_result.h"

namespace waxis {

/// Puts the part at a pose given in the frame's axes and leaves its site or stack, if it had one.
EditResult movePart(const Build &build, const std::string &part, const Pose &X_FramePart);

/// Puts the part on a site (or motor mount) with a pose in the site's axes. It leaves a stack that stands elsewhere.
EditResult seatPart(const Build &build, const std::string &part, const std::string &site, const Pose &X_SitePart);

/// Puts the part at a pose given in the frame's axes where it stays on its site or in its stack. In a stack the height
/// is the layers' and does not change.
EditResult placePart(const Build &build, const std::string &part, const Pose &X_FramePart);

/// Shifts the part by a vector in body axes, mm; it leaves its site only when `keepSite` is false.
EditResult shiftPart(const Build &build, const std::string &part, const Vec3 &shift_mm, bool keepSite = true);

/// Turns the part about an axis of the frame through its own origin, degrees, right-handed.
EditResult turnPart(const Build &build, const std::string &part, const Vec3 &axis, double angle_deg);

/// Weighed mass of this very part; an unknown value goes back to the type's.
EditResult weighPart(const Build &build, const std::string &part, const Measured &mass_g);

/// Another model in the same place. The type must be in the build. Of hardware in a stack the whole layer changes.
EditResult changeType(const Build &build, const std::string &part, const std::string &type);

EditResult renamePart(const Build &build, const std::string &part, const std::string &name);
EditResult pinPart(const Build &build, const std::string &part, bool pinned);
EditResult removePart(const Build &build, const std::string &part);

/// Takes the part out of every stack's layers and screws; layers of which nothing is left go too.
void leaveStacks(Build &build, const std::string &part);

/// Adds a part of a type (which the build then embeds) at a pose in the frame's axes; the id is made from
/// `idBase`.
EditResult addPart(const Build &build, const PartType &type, const std::string &idBase, const Pose &X_FramePart);

/// Puts a part type into the build, in the place of the one called `replaces` (empty: as a new one). Parts of the
/// replaced type become parts of this one.
EditResult putType(const Build &build, const PartType &type, const std::string &replaces);

/// Accepts a finding (Finding::key); an empty reason is refused.
EditResult acceptFinding(const Build &build, const std::string &findingKey, const std::string &reason);
EditResult withdrawAcceptance(const Build &build, const std::string &findingKey);

/// A limit of the practice for this build; none goes back to the profile's. Ids are those of limitTable(). The note
/// says why and goes with it.
EditResult setLimit(const Build &build, const std::string &limit, std::optional<double> value,
                    const std::string &note = {});
/// The option of a school that this build follows; empty goes back to the profile's.
EditResult setSchool(const Build &build, const std::string &school, const std::string &option,
                     const std::string &note = {});
/// All of the practice at once, as read from a file.
EditResult setPractice(const Build &build, const PracticeSettings &settings);
EditResult chooseProfile(const Build &build, const std::string &profile);

/// The build with a camera at another tilt; refused for parts that are no cameras and outside the tilt allowed.
EditResult tiltCamera(const Build &build, const std::string &part, double tilt_deg);

} // namespace waxis
