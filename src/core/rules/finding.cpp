#include "core/rules/finding.h"

#include "core/balance/edits.h"
#include "core/build/hung_on.h"
#include "core/build/radio_edits.h"
#include "core/rules/rule.h"
#include "core/sight/camera_view.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

static std::string keyOf(const Finding &f, std::size_t subjects) {
    std::string key(ruleOf(f.rule).name);
    for (const auto *word : {&f.variant, &f.loadCase})
        if (!word->empty()) key += "/" + *word;
    for (std::size_t i = 0; i < std::min(subjects, f.subjects.size()); ++i) key += ":" + f.subjects[i];
    return key;
}

std::string Finding::key() const { return keyOf(*this, subjects.size()); }

std::string Finding::trouble() const {
    switch (rule) {
    case RuleId::navThrottle: // whichever load case is the worst
        return fmt::format("{}:{}", ruleOf(rule).name, subjects.empty() ? std::string() : subjects.front());
    case RuleId::pwrRail:
    case RuleId::navIron:
    case RuleId::navSky:
    case RuleId::radCoverage:
    case RuleId::fitAccess:
    case RuleId::fitCamera:
    case RuleId::fitLamp: return keyOf(*this, 1);
    case RuleId::balMeasured: return std::string(ruleOf(rule).name); // whom the scale contradicts is a guess
    default: return key();
    }
}

static EditResult applyOne(const Build &build, const Fix &fix) {
    if (fix.stack) return applyChange(build, *fix.stack);
    if (fix.wire) return applyWireChange(build, *fix.wire);
    if (fix.hand) {
        for (GroundStation station : build.groundStations)
            if (station.id == fix.part) {
                station.polarisation = *fix.hand;
                return editGroundStation(build, station);
            }
        return Failure{EditError{fmt::format("There is no ground station \"{}\".", fix.part)}};
    }
    const auto along = [&](const EditResult &moved) { return bringAlong(build, moved, fix.part); };
    if (fix.perch) return along(perchPart(build, fix.part, *fix.perch, *build.types));
    if (!fix.site.empty()) {
        const Part *part = findPart(build, fix.part);
        const auto X_FrameSite = sitePose(*build.frame, fix.site);
        if (!part || !X_FrameSite)
            return Failure{EditError{fmt::format("\"{}\" cannot go onto \"{}\"", fix.part, fix.site)}};
        const Quat turned = X_FrameSite->rotation.conjugate() * framePose(build, *part).rotation;
        return along(seatPart(build, fix.part, fix.site, {Vec3::Zero(), turned}));
    }
    if (fix.turn) return along(turnPart(build, fix.part, fix.turn->axis, fix.turn->angle_deg));
    if (fix.radio) {
        const EditResult set = setChannel(build, fix.radio->part, fix.radio->band, fix.radio->centre_MHz);
        return set ? setPower(*set, fix.radio->part, fix.radio->band, fix.radio->power_dBm) : set;
    }
    if (fix.tilt_deg) return tiltCamera(build, fix.part, *fix.tilt_deg);
    if (const Part *part = findPart(build, fix.part); part && part->slide && !part->pinned) {
        const double travel = fix.shift_mm.dot(part->slide->direction);
        if ((fix.shift_mm - travel * part->slide->direction).norm() < 1e-6 && travel >= part->slide->min_mm &&
            travel <= part->slide->max_mm)
            return slidePart(build, fix.part, travel);
    }
    return along(shiftPart(build, fix.part, fix.shift_mm));
}

EditResult applyFix(const Build &build, const Fix &fix) {
    EditResult next = applyOne(build, fix);
    for (const auto &more : fix.then)
        if (next) next = applyFix(*next, more);
    return next;
}

FindingCounts countFindings(const std::vector<Finding> &findings) {
    FindingCounts counts;
    for (const auto &finding : findings) {
        if (finding.accepted()) {
            ++counts.accepted;
            continue;
        }
        switch (finding.severity) {
        case Severity::stop: ++counts.stop; break;
        case Severity::watch: ++counts.watch; break;
        case Severity::note: ++counts.note; break;
        case Severity::unknown: ++counts.unknown; break;
        case Severity::pass: break;
        }
    }
    return counts;
}

} // namespace waxis
