#include "core/studies/radio_places.h"

#include "core/analysis/analysis.h"
#include "core/clearance/clearance_world.h"
#include "core/edits/radio_edits.h"
#include "core/radio/radio_report.h"
#include "core/scene/scene.h"
#include "core/survey/at_hand.h"
#include "core/survey/views.h"
#include "core/wiring/wire_report.h"

#include <algorithm>

namespace waxis {

namespace {

/// What is heard in a receiver beside it.
bool isLoud(const Build &build, const Part &part) {
    const PartType *type = typeOf(build, part);
    switch (type ? type->kind : PartKind::other) {
    case PartKind::videoTransmitter:
    case PartKind::digitalVideoUnit:
    case PartKind::flightCamera:
    case PartKind::payloadCamera:
    case PartKind::regulator:
    case PartKind::esc:
    case PartKind::fourInOneEsc: return true;
    default: return false;
    }
}

PlaceReport reportOn(const Build &build, const std::string &part, const std::optional<Practice> &practice) {
    PlaceReport report;
    Analyser analyser;
    const Analysis &analysis = analyseFully(analyser, build, practice);
    const Derived &derived = analysis.derived;
    for (const auto &sky : skiesSeen(derived))
        if (sky.part == part) {
            report.skyLevel = sky.level.hidden;
            report.skyCruise = sky.cruise.hidden;
            report.lean_deg = sky.level.axisToZenith_deg;
        }
    const RadioReport &radio = *derived.radio;
    for (std::size_t r = 0; r < radio.rows.size(); ++r)
        for (std::size_t c = 0; c < radio.columns.size(); ++c) {
            const RadioCell &cell = radio.cell(r, c);
            if (!cell.coupling || radio.columns[c].radio < 0 ||
                radio.radios[std::size_t(radio.columns[c].radio)].part != part)
                continue;
            report.sender_mm = std::min(report.sender_mm.value_or(1e9), cell.distance_mm);
            report.rise_dB = std::max(report.rise_dB.value_or(0), cell.rise_dB);
        }
    for (const auto &compass : radio.compasses)
        if (compass.part == part) {
            report.constant_deg = compass.constant_deg;
            report.hover_deg = compass.hover_deg;
            report.full_deg = compass.full_deg;
        }
    const auto nearer = [](std::optional<double> &kept, double other) {
        if (!kept || other < *kept) kept = other;
    };
    for (const auto &compass : radio.compasses) {
        if (compass.part != part) continue;
        for (const auto &magnet : radio.sources.magnets)
            if (magnet.part != part) nearer(report.magnet_mm, (magnet.position_mm - compass.position_mm).norm());
        for (const auto &iron : compass.iron) nearer(report.steel_mm, iron.distance_mm);
    }
    for (const auto &other : build.parts)
        if (other.id != part && isLoud(build, other))
            if (const auto gap = gapBetween(derived.scene, part, other.id)) nearer(report.loud_mm, gap->distance_mm);
    for (std::size_t w = 0; w < build.wires.size() && w < derived.wiring->wires.size(); ++w)
        if (build.wires[w].from.part == part || build.wires[w].to.part == part) {
            const WireReport &wire = derived.wiring->wires[w];
            if (wire.supplied_mm) nearer(report.leadSpare_mm, wire.spare_mm);
            report.wire_mm += wire.needed_mm;
            report.wired = true;
        }
    for (const auto &finding : analysis.findings) {
        if (finding.accepted() ||
            std::find(finding.subjects.begin(), finding.subjects.end(), part) == finding.subjects.end())
            continue;
        report.stop += finding.severity == Severity::stop;
        report.watch += finding.severity == Severity::watch;
        if (finding.rule == RuleId::fitOverlap && report.meets.empty())
            for (const auto &subject : finding.subjects)
                if (subject != part) report.meets = subject;
    }
    return report;
}

} // namespace

std::vector<PlaceReport> comparePlaces(const Build &build, const std::string &part, const std::function<bool()> &stop,
                                       const std::optional<Practice> &practice) {
    std::vector<PlaceReport> reports;
    if (!findPart(build, part)) return reports;
    PlaceReport now = reportOn(build, part, practice);
    now.name = displayName(build, part);
    reports.push_back(std::move(now));
    for (const auto &trial : build.trials) {
        if (trial.part != part || (stop && stop())) continue;
        const EditResult moved = takeTrial(build, trial.id);
        if (!moved) continue;
        PlaceReport report = reportOn(*moved, part, practice);
        report.trial = trial.id;
        report.name = trial.name;
        reports.push_back(std::move(report));
    }
    return reports;
}

} // namespace waxis
