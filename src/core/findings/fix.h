// What would mend a finding: an edit that is offered.
#pragma once

#include "core/build/edit_result.h"
#include "core/edits/feedback_edits.h"
#include "core/edits/shield_edits.h"
#include "core/edits/stack_change.h"
#include "core/edits/wire_edits.h"
#include "core/placing/perch.h"

#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace waxis {

struct PartShift {
    Vec3 by_mm = Vec3::Zero();
};
/// A turn about an axis of the frame through the part's own origin.
struct PartTurn {
    Vec3 axis = Vec3::UnitZ();
    double angle_deg = 90;
};
struct CameraTilt {
    double to_deg = 0; ///< upwards
};
/// Onto a site, turned as it is.
struct OntoSite {
    std::string site;
    Vec3 by_mm = Vec3::Zero(); ///< how far that is
};
/// Another polarisation of a ground station's antenna.
struct GroundHand {
    Polarisation polarisation = Polarisation::linear;
};

/// The screws that the frame lacks are drawn.
struct MissingFrameScrews {};
/// A motor mount drawn for a propeller of another diameter.
struct MountPropeller {
    double diameter_mm = 0;
};
/// A post of another height.
struct PostHeight {
    double to_mm = 0;
};
/// Another length, head or end of one of the frame's own screws.
struct FrameScrewChange {
    FrameScrew to;
};

/// The part is switched off in these load cases; none named: in a new one on the ground.
struct SwitchOff {
    std::vector<std::string> cases;
};

/// One change, and what is to be done with it.
struct Fix {
    using Change = std::variant<PartShift, PartTurn, CameraTilt, OntoSite, Perch, StackChange, WireChange, RadioSetting,
                                GroundHand, MissingFrameScrews, PostHeight, MountPropeller, FrameScrewChange, SwitchOff,
                                ShieldUnder, Feedback>;
    std::string part; ///< that is moved; the stack, radio or ground station that is changed; empty: wires
    Change change;
    std::optional<double> leaves_mm; ///< what remains of the measured value where the move does not cure it all
    std::vector<Fix> then;

    /// Null when the change is of another kind.
    template <class Kind>
    const Kind *as() const {
        return std::get_if<Kind>(&change);
    }
    /// How far the part goes; nothing for what is no move.
    Vec3 shift_mm() const;

    // Copied in a hundred files; the code of it is made in one.
    Fix();
    Fix(std::string part, Change change, std::optional<double> leaves_mm = {}, std::vector<Fix> then = {});
    Fix(const Fix &);
    Fix(Fix &&) noexcept;
    Fix &operator=(const Fix &);
    Fix &operator=(Fix &&) noexcept;
    ~Fix();
};

/// What hangs on a part that is moved or turned comes along (core/edits/hung_on.h). All of it or nothing.
EditResult applyFix(const Build &build, const Fix &fix);

} // namespace waxis
