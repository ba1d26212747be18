#include "core/findings/fix.h"

#include "core/edits/balance_edits.h"
#include "core/edits/case_edits.h"
#include "core/edits/hung_on.h"
#include "core/edits/part_edits.h"
#include "core/edits/perch_edits.h"
#include "core/edits/radio_edits.h"
#include "core/edits/stack_change.h"
#include "core/edits/wire_edits.h"
#include "core/layout/hand_edits.h"
#include "core/layout/screw_edits.h"

#include <fmt/format.h>

namespace waxis {

Fix::Fix() = default;
Fix::Fix(std::string part_, Change change_, std::optional<double> leaves, std::vector<Fix> then_)
    : part(std::move(part_)), change(std::move(change_)), leaves_mm(leaves), then(std::move(then_)) {}
Fix::Fix(const Fix &) = default;
Fix::Fix(Fix &&) noexcept = default;
Fix &Fix::operator=(const Fix &) = default;
Fix &Fix::operator=(Fix &&) noexcept = default;
Fix::~Fix() = default;

namespace {

/// Each kind of change of `part`.
struct Apply {
    const Build &build;
    const std::string &part;

    EditResult along(const EditResult &moved) const { return bringAlong(build, moved, part); }

    EditResult operator()(const PartShift &shift) const {
        if (const Part *own = findPart(build, part); own && own->slide && !own->pinned) {
            const double travel = shift.by_mm.dot(own->slide->direction);
            if ((shift.by_mm - travel * own->slide->direction).norm() < 1e-6 && travel >= own->slide->min_mm &&
                travel <= own->slide->max_mm)
                return slidePart(build, part, travel);
        }
        return along(shiftPart(build, part, shift.by_mm));
    }
    EditResult operator()(const PartTurn &turn) const {
        return along(turnPart(build, part, turn.axis, turn.angle_deg));
    }
    EditResult operator()(const CameraTilt &tilt) const { return tiltCamera(build, part, tilt.to_deg); }
    EditResult operator()(const OntoSite &seat) const {
        const Part *own = findPart(build, part);
        const auto X_FrameSite = sitePose(*build.frame, seat.site);
        if (!own || !X_FrameSite)
            return Failure{EditError{fmt::format("\"{}\" cannot go onto \"{}\"", part, seat.site)}};
        const Quat turned = X_FrameSite->rotation.conjugate() * framePose(build, *own).rotation;
        return along(seatPart(build, part, seat.site, {Vec3::Zero(), turned}));
    }
    EditResult operator()(const Perch &perch) const { return along(perchPart(build, part, perch, *build.types)); }
    EditResult operator()(const StackChange &change) const { return applyChange(build, change); }
    EditResult operator()(const WireChange &change) const { return applyWireChange(build, change); }
    EditResult operator()(const RadioSetting &radio) const {
        const EditResult set = setChannel(build, radio.part, radio.band, radio.centre_MHz);
        return set ? setPower(*set, radio.part, radio.band, radio.power_dBm) : set;
    }
    EditResult operator()(const MissingFrameScrews &) const { return addMissingScrews(build); }
    EditResult operator()(const MountPropeller &propeller) const {
        for (MotorMount mount : build.frame->motorMounts)
            if (mount.id == part) {
                mount.propDiameter_mm = propeller.diameter_mm;
                return setMotorMount(build, mount);
            }
        return Failure{EditError{fmt::format("There is no motor mount \"{}\".", part)}};
    }
    EditResult operator()(const PostHeight &height) const {
        for (Standoff post : build.frame->standoffs)
            if (post.id == part) {
                post.height_mm = height.to_mm;
                return setStandoff(build, post);
            }
        return Failure{EditError{fmt::format("There is no post \"{}\" in this frame.", part)}};
    }
    EditResult operator()(const SwitchOff &quiet) const {
        if (quiet.cases.empty()) return addQuietCase(build, part);
        EditResult next = build;
        for (const auto &loadCase : quiet.cases)
            if (next) next = setSwitchedOff(*next, part, loadCase, true);
        return next;
    }
    EditResult operator()(const Feedback &feedback) const {
        const auto taken = takeFeedback(build, feedback);
        return feedback.kind == FeedbackKind::place ? along(taken) : taken;
    }
    EditResult operator()(const ShieldUnder &shield) const { return addShield(build, part, shield); }
    EditResult operator()(const FrameScrewChange &change) const { return setFrameScrew(build, change.to); }
    EditResult operator()(const GroundHand &hand) const {
        for (GroundStation station : build.groundStations)
            if (station.id == part) {
                station.polarisation = hand.polarisation;
                return editGroundStation(build, station);
            }
        return Failure{EditError{fmt::format("There is no ground station \"{}\".", part)}};
    }
};

} // namespace

Vec3 Fix::shift_mm() const {
    if (const auto *shift = as<PartShift>()) return shift->by_mm;
    if (const auto *seat = as<OntoSite>()) return seat->by_mm;
    return Vec3::Zero();
}

EditResult applyFix(const Build &build, const Fix &fix) {
    EditResult next = std::visit(Apply{build, fix.part}, fix.change);
    for (const auto &more : fix.then)
        if (next) next = applyFix(*next, more);
    return next;
}

} // namespace waxis
