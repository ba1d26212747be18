#include "core/remedies/radio_quiet.h"

#include "core/edits/case_edits.h"
#include "core/edits/shield_edits.h"
#include "core/radio/antennas.h"
#include "core/remedies/radio_trial.h"

#include <algorithm>
#include <array>

namespace waxis {

namespace {

bool sendsPictures(PartKind kind) { return kind == PartKind::videoTransmitter || kind == PartKind::digitalVideoUnit; }

/// Whether something else sends pictures while the sender is off.
bool hasStandIn(const RadioPair &pair, CaseMask cases) {
    const RadioUse &own = pair.report.radios[std::size_t(pair.sender)];
    if (!sendsPictures(own.kind)) return false;
    CaseMask covered = 0;
    for (const auto &other : pair.report.radios)
        if (other.part != own.part && other.sends() && sendsPictures(other.kind)) covered |= other.cases;
    return (cases & ~covered) == 0;
}

std::optional<RadioHelp> switchedOff(const RadioPair &pair, const RadioCell &now) {
    const RadioUse &sender = pair.report.radios[std::size_t(pair.sender)],
                   &listener = pair.report.radios[std::size_t(pair.listener)];
    if (sender.kind == PartKind::receiver || !canBeOff(pair.build, sender.part)) return std::nullopt;
    const CaseMask both = sender.cases & listener.cases;
    const auto &cases = pair.build.loadCases; // a build that names none flies as drawn
    CaseMask ground = 0, alone = listener.cases & ~sender.cases;
    SwitchOff off;
    for (std::size_t c = 0; c < cases.size() && c < kMostLoadCases; ++c)
        if (both >> c & 1) {
            off.cases.push_back(cases[c].id);
            if (cases[c].kind == LoadCaseKind::bench) ground |= CaseMask(1) << c;
        }
    if (!off.cases.empty() && (both == ground || hasStandIn(pair, both & ~ground)))
        return RadioHelp{{sender.part, std::move(off)}, now.margin_dB, now.distance_mm, true, true};
    if (listener.kind == PartKind::gps && !alone)
        return RadioHelp{{sender.part, SwitchOff{}}, now.margin_dB, now.distance_mm, false, false};
    return std::nullopt;
}

/// How far the way round a sheet is from where the line between two antennas goes through it, mm; 0: beside it.
double shadowHeight_mm(const ShieldSheet &sheet, const Vec3 &at_mm) {
    const Vec2 off = (at_mm.head<2>() - sheet.centre_mm.head<2>()).cwiseAbs();
    return std::max(0.0, (sheet.size_mm / 2 - off).minCoeff());
}

/// The listener on its own module, a sheet under it: the least one that cures, else the largest if it is felt.
std::optional<RadioHelp> shielded(const RadioPair &pair, const RadioCell &now) {
    constexpr std::array<double, 3> kBeyond_mm{5, 10, 20};
    constexpr double kFelt_dB = 1;
    const RadioUse &sender = pair.report.radios[std::size_t(pair.sender)],
                   &listener = pair.report.radios[std::size_t(pair.listener)];
    const Part *module = findPart(pair.build, listener.part);
    const PartType *type = module ? typeOf(pair.build, *module) : nullptr;
    if (!type || module->pinned || listener.kind != PartKind::gps) return std::nullopt;
    const Pose X_ModuleFrame = framePose(pair.build, *module).inverse();
    std::optional<RadioHelp> best;
    for (const double beyond_mm : kBeyond_mm) {
        const auto sheet = shieldSheet(*type, {beyond_mm});
        if (!sheet) return std::nullopt;
        auto shadows = pair.shadows;
        bool hides = false;
        for (const auto &from : sender.antennas)
            for (const auto &to : listener.antennas) {
                const Vec3 a = X_ModuleFrame * from.centre_mm, b = X_ModuleFrame * to.centre_mm;
                const double z = sheet->centre_mm.z();
                if (to.part != listener.part || !(a.z() < z && b.z() > z)) continue;
                const double share = (z - a.z()) / (b.z() - a.z()), length = (b - a).norm();
                const double height = shadowHeight_mm(*sheet, a + share * (b - a));
                if (height <= 0) continue;
                hides = true;
                std::erase_if(shadows, [&](const LineShadow &s) {
                    return s.height_mm < height &&
                           ((s.from == from.part && s.to == to.part) || (s.from == to.part && s.to == from.part));
                });
                shadows.push_back({from.part, to.part, height, share * length, (1 - share) * length, {}});
            }
        if (!hides) continue;
        const RadioCell cell = cellOf(pairOnly(pair.report), pair.practice, shadows, pair.sender, pair.listener);
        if (cell.margin_dB < now.margin_dB + kFelt_dB || (best && cell.margin_dB <= best->margin_dB)) continue;
        best = RadioHelp{{listener.part, ShieldUnder{beyond_mm}},
                         cell.margin_dB,
                         cell.distance_mm,
                         isWell(cell, pair.practice),
                         false};
        if (best->cures) break;
    }
    return best;
}

} // namespace

std::vector<RadioHelp> quietedPair(const RadioPair &pair, const RadioCell &now) {
    std::vector<RadioHelp> found;
    for (auto help : {shielded(pair, now), switchedOff(pair, now)})
        if (help) found.push_back(std::move(*help));
    return found;
}

} // namespace waxis
