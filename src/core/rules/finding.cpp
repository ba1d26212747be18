#include "core/rules/finding.h"

#include "core/balance/edits.h"
#include "core/build/radio_edits.h"
#include "core/rules/rule.h"
#include "core/sight/camera_view.h"

#include <fmt/format.h>

namespace waxis {

std::string Finding::key() const {
    std::string key(ruleOf(rule).name);
    for (const auto *word : {&variant, &loadCase})
        if (!word->empty()) key += "/" + *word;
    for (const auto &subject : subjects) key += ":" + subject;
    return key;
}

EditResult applyFix(const Build &build, const Fix &fix) {
    if (fix.stack) return applyChange(build, *fix.stack);
    if (fix.wire) return applyWireChange(build, *fix.wire);
    if (fix.perch) return perchPart(build, fix.part, *fix.perch, *build.types);
    if (!fix.site.empty()) {
        const Part *part = findPart(build, fix.part);
        const auto X_FrameSite = sitePose(*build.frame, fix.site);
        if (!part || !X_FrameSite)
            return Failure{EditError{fmt::format("\"{}\" cannot go onto \"{}\"", fix.part, fix.site)}};
        const Quat turned = X_FrameSite->rotation.conjugate() * framePose(build, *part).rotation;
        return seatPart(build, fix.part, fix.site, {Vec3::Zero(), turned});
    }
    if (fix.turn) return turnPart(build, fix.part, fix.turn->axis, fix.turn->angle_deg);
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
    return shiftPart(build, fix.part, fix.shift_mm);
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
