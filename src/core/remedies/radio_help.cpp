#include "core/remedies/radio_help.h"

#include "core/base/units.h"
#include "core/clearance/clearance_world.h"
#include "core/edits/hung_on.h"
#include "core/edits/part_edits.h"
#include "core/magnetics/biot_savart.h"
#include "core/placing/holds.h"
#include "core/placing/perch.h"
#include "core/radio/antennas.h"
#include "core/radio/coupling.h"
#include "core/radio/radio_report.h"
#include "core/remedies/radio_quiet.h"
#include "core/remedies/radio_trial.h"
#include "core/scene/scene.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace waxis {

namespace {

constexpr std::array<double, 9> kSteps_mm{5, 10, 15, 20, 30, 40, 60, 80, 120};

std::array<Vec3, 6> directions() {
    return {Vec3::UnitX(), -Vec3::UnitX(), Vec3::UnitY(), -Vec3::UnitY(), Vec3::UnitZ(), -Vec3::UnitZ()};
}

} // namespace

bool standsFree(const Scene &scene, const std::string &part, const Vec3 &shift_mm) {
    if (!scene.world) return true;
    const auto &bodies = scene.world->bodies();
    for (std::size_t a = 0; a < bodies.size(); ++a) {
        const BodyTraits &traits = scene.traits[a];
        const BodyOwner &owner = scene.owners[std::size_t(traits.owner)];
        if (owner.id != part || owner.kind != OwnerKind::part || traits.soft) continue;
        for (std::size_t b = 0; b < bodies.size(); ++b) {
            const BodyOwner &other = scene.owners[std::size_t(scene.traits[b].owner)];
            if (scene.traits[b].owner == traits.owner || scene.traits[b].soft || other.holds ||
                !(other.cases & owner.cases) ||
                std::find(owner.related.begin(), owner.related.end(), scene.traits[b].owner) != owner.related.end())
                continue;
            if (scene.world->wouldTouch(int(a), shift_mm, int(b))) return false;
        }
    }
    return true;
}

/// A move must end where something still holds the part; what hangs in the air today may hang elsewhere.
static bool staysHeld(const Build &build, const Practice &practice, const Part &part, const Vec3 &shift_mm) {
    const double reach = practice[Limit::heldGap];
    if (!touchesItsHolder(build, part, reach)) return true;
    const auto moved = shiftPart(build, part.id, shift_mm);
    return moved && touchesItsHolder(*moved, *findPart(*moved, part.id), reach);
}

/// How far from its radio the coax of an antenna lets it go, mm; 0 where it has none.
static double coaxReach_mm(const PartType &type) {
    double reach = type.antenna ? type.antenna->pigtail_mm : 0;
    for (const auto &lead : type.leads) reach = std::max(reach, lead.length_mm);
    return reach;
}

/// Led out on its coax: other places that would hold an antenna and cure the pair, the nearest first.
static std::vector<RadioHelp> ledOut(const Build &build, const Practice &practice, const RadioReport &report,
                                     const std::vector<LineShadow> &shadows, int sender, int listener,
                                     const AntennaUse &use, const std::string &radioPart) {
    constexpr std::size_t kMost = 2;
    constexpr double kStraight = 0.7; // a coax is led, not stretched
    std::vector<RadioHelp> found;
    const Part *part = findPart(build, use.part), *radio = findPart(build, radioPart);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (!type || !radio || type->kind != PartKind::antenna || part->pinned) return found;
    const double reach_mm = kStraight * coaxReach_mm(*type);
    const Pose X_FrameOld = framePose(build, *part);
    const Vec3 from = framePose(build, *radio).position_mm;
    for (const auto &perch : perchesFor(build, *part)) {
        if (perch.kind == PerchKind::socket || (perch.X_FramePart.position_mm - from).norm() > reach_mm) continue;
        const Pose X_NewOld = perch.X_FramePart * X_FrameOld.inverse();
        RadioReport trial = pairOnly(report);
        for (auto &other : trial.radios)
            for (auto &moved : other.antennas)
                if (moved.part == use.part) {
                    moved.centre_mm = X_NewOld * moved.centre_mm;
                    moved.axis = X_NewOld.rotation * moved.axis;
                }
        const RadioCell cell = cellOf(trial, practice, shadows, sender, listener);
        if (isWell(cell, practice)) found.push_back({{use.part, perch}, cell.margin_dB, cell.distance_mm, true});
    }
    const auto away = [&](const RadioHelp &help) {
        return (help.fix.as<Perch>()->X_FramePart.position_mm - X_FrameOld.position_mm).norm();
    };
    std::stable_sort(found.begin(), found.end(),
                     [&](const RadioHelp &a, const RadioHelp &b) { return away(a) < away(b); });
    if (found.size() > kMost) found.erase(found.begin() + kMost, found.end());
    return found;
}

std::vector<RadioHelp> helpFor(const Build &build, const Practice &practice, const Scene &scene,
                               const RadioReport &report, const std::vector<LineShadow> &shadows, int sender,
                               int listener) {
    std::vector<RadioHelp> found;
    const RadioCell now = cellOf(pairOnly(report), practice, shadows, sender, listener);
    if (!now.counts || isWell(now, practice)) return found;
    const auto take = [&](Fix fix, const RadioCell &cell) {
        found.push_back({std::move(fix), cell.margin_dB, cell.distance_mm, isWell(cell, practice)});
    };
    // Farther: either antenna along six directions, the least step that cures.
    for (const bool moveSender : {true, false}) {
        const int radio = moveSender ? sender : listener;
        const auto &uses = report.radios[std::size_t(radio)].antennas;
        const std::string part =
            uses[std::size_t(std::min(moveSender ? now.fromAntenna : now.toAntenna, int(uses.size()) - 1))].part;
        const Part *found_ = findPart(build, part);
        if (!found_ || found_->pinned || found_->fastening.method == FasteningMethod::stack) continue;
        for (const auto &direction : directions())
            for (const double step : kSteps_mm) {
                RadioReport trial = pairOnly(report);
                for (auto &other : trial.radios)
                    for (auto &use : other.antennas)
                        if (use.part == part) use.centre_mm += step * direction;
                const RadioCell cell = cellOf(trial, practice, shadows, sender, listener);
                if (!isWell(cell, practice)) continue;
                if (!standsFree(scene, part, step * direction)) continue;
                if (!staysHeld(build, practice, *found_, step * direction)) continue;
                Fix fix;
                fix.part = part;
                fix.change = PartShift{step * direction};
                take(std::move(fix), cell);
                break;
            }
        // Another site: its own origin, turned as it is.
        for (const auto &site : build.frame->sites) {
            if (site.id == found_->placement.site || site.kind == SiteKind::strap || site.kind == SiteKind::pattern)
                continue;
            const Vec3 shift = site.X_FrameSite.position_mm - framePose(build, *found_).position_mm;
            RadioReport trial = pairOnly(report);
            for (auto &other : trial.radios)
                for (auto &use : other.antennas)
                    if (use.part == part) use.centre_mm += shift;
            const RadioCell cell = cellOf(trial, practice, shadows, sender, listener);
            if (!isWell(cell, practice) || !standsFree(scene, part, shift)) continue;
            Fix fix;
            fix.part = part;
            fix.change = OntoSite{site.id, shift};
            take(std::move(fix), cell);
        }
        // Turned a quarter about the axes square to the element.
        if (!isStraightElement(report.radios[std::size_t(radio)].antennas.front().antenna.kind)) continue;
        for (const Vec3 &axis : {Vec3(Vec3::UnitX()), Vec3(Vec3::UnitY()), Vec3(Vec3::UnitZ())}) {
            RadioReport trial = pairOnly(report);
            const Pose pose = framePose(build, *found_);
            const Quat turn(Eigen::AngleAxisd(kPi / 2, axis));
            for (auto &other : trial.radios)
                for (auto &use : other.antennas)
                    if (use.part == part) {
                        use.centre_mm = pose.position_mm + turn * (use.centre_mm - pose.position_mm);
                        use.axis = turn * use.axis;
                    }
            const RadioCell cell = cellOf(trial, practice, shadows, sender, listener);
            if (cell.margin_dB <= now.margin_dB + 1) continue;
            Fix fix;
            fix.part = part;
            fix.change = PartTurn{axis, 90};
            take(std::move(fix), cell);
        }
    }
    // Other channels of the sender, and of the others whose products land there; less power.
    const PartType *type = typeOf(build, *findPart(build, report.radios[std::size_t(sender)].part));
    const RadioUse &use = report.radios[std::size_t(sender)];
    std::vector<std::pair<RadioCell, Fix>> channels;
    if (type)
        for (const auto &channel : type->radio[std::size_t(use.band)].channels) {
            if (!use.hops && std::abs(channel.centre_MHz - use.centre_MHz) < 0.01) continue;
            RadioReport trial = pairOnly(report);
            RadioUse &changed = trial.radios[std::size_t(sender)];
            changed.centre_MHz = channel.centre_MHz;
            changed.low_MHz = channel.centre_MHz - changed.bandwidth_MHz / 2;
            changed.high_MHz = channel.centre_MHz + changed.bandwidth_MHz / 2;
            const RadioCell cell = cellOf(trial, practice, shadows, sender, listener);
            if (cell.margin_dB <= now.margin_dB + 1) continue;
            Fix fix;
            fix.part = use.part;
            fix.change =
                RadioSetting{use.part, use.band, channel.centre_MHz, settingOf(build, use.part, use.band).power_dBm};
            channels.emplace_back(cell, std::move(fix));
        }
    // The two best are enough: others do much the same.
    std::stable_sort(channels.begin(), channels.end(),
                     [](const auto &a, const auto &b) { return a.first.margin_dB > b.first.margin_dB; });
    for (std::size_t i = 0; i < channels.size() && i < 2; ++i) take(std::move(channels[i].second), channels[i].first);
    for (const double less : {3.0, 6.0, 10.0, 15.0}) {
        RadioReport trial = pairOnly(report);
        trial.radios[std::size_t(sender)].power_dBm = *use.power_dBm - less;
        const RadioCell cell = cellOf(trial, practice, shadows, sender, listener);
        if (cell.margin_dB < 0 || cell.blockingMargin_dB < practice[Limit::blockingReserve]) continue;
        Fix fix;
        fix.part = use.part;
        fix.change =
            RadioSetting{use.part, use.band, settingOf(build, use.part, use.band).centre_MHz, *use.power_dBm - less};
        take(std::move(fix), cell);
        break;
    }
    std::stable_sort(found.begin(), found.end(), [](const RadioHelp &a, const RadioHelp &b) {
        if (a.cures != b.cures) return a.cures;
        return a.fix.shift_mm().norm() < b.fix.shift_mm().norm();
    });
    // The larger changes last.
    for (const auto &[radio, antenna] : {std::pair{sender, now.fromAntenna}, std::pair{listener, now.toAntenna}}) {
        const RadioUse &own = report.radios[std::size_t(radio)];
        if (antenna < 0 || std::size_t(antenna) >= own.antennas.size()) continue;
        auto out =
            ledOut(build, practice, report, shadows, sender, listener, own.antennas[std::size_t(antenna)], own.part);
        const auto cures = std::find_if(found.begin(), found.end(), [](const RadioHelp &h) { return !h.cures; });
        found.insert(cures, std::make_move_iterator(out.begin()), std::make_move_iterator(out.end()));
    }
    for (auto &quiet : quietedPair({build, practice, report, shadows, sender, listener}, now)) {
        const auto at = quiet.cures
                            ? std::find_if(found.begin(), found.end(), [](const RadioHelp &h) { return !h.cures; })
                            : found.end();
        found.insert(at, std::move(quiet));
    }
    return found;
}

std::vector<PairHelp> helpForAll(const Build &build, const Practice &practice, const Scene &scene,
                                 const RadioReport &report, const std::vector<LineShadow> &shadows) {
    std::vector<PairHelp> all;
    const auto &radios = report.radios;
    constexpr std::size_t kMost = 16; // moves are tried for each pair, and each trial judges all pairs
    if (radios.size() > kMost) return all;
    for (std::size_t s = 0; s < radios.size(); ++s)
        for (std::size_t l = 0; l < radios.size(); ++l) {
            if (!radios[s].sends() || !radios[l].listens || radios[s].part == radios[l].part) continue;
            auto helps = helpFor(build, practice, scene, report, shadows, int(s), int(l));
            if (!helps.empty()) all.push_back({radios[s].id(), radios[l].id(), std::move(helps)});
        }
    return all;
}

std::vector<Fix> helpForCompass(const Build &build, const Practice &practice, const Scene &scene,
                                const FieldSources &sources, const CompassReport &compass, const std::string &magnet) {
    std::vector<Fix> fixes;
    const double earth_uT = practice[Limit::earthField], wanted = practice[Limit::headingNote];
    const Magnet *source = nullptr;
    for (const auto &m : sources.magnets)
        if (m.part == magnet) source = &m;
    if (!source) return fixes;
    const Part *part = findPart(build, magnet);
    if (!part || part->pinned || part->fastening.method == FasteningMethod::stack) return fixes;
    constexpr std::array<double, 9> kFarSteps_mm{10, 20, 30, 40, 60, 80, 120, 160, 220};
    for (const auto &direction : directions()) {
        if (std::abs(direction.z()) > 0.5) continue; // it stays on its face
        for (const double step : kFarSteps_mm) {
            const Vec3 field =
                dipoleField_uT(source->moment_mAm2, compass.position_mm - source->position_mm - step * direction);
            if (worstHeadingError_deg(earth_uT, field.head<2>().norm()) > wanted) continue;
            if (!standsFree(scene, magnet, step * direction)) continue;
            if (!staysHeld(build, practice, *part, step * direction)) continue;
            Fix fix;
            fix.part = magnet;
            fix.change = PartShift{step * direction};
            fixes.push_back(std::move(fix));
            break;
        }
    }
    std::stable_sort(fixes.begin(), fixes.end(),
                     [](const Fix &a, const Fix &b) { return a.shift_mm().norm() < b.shift_mm().norm(); });
    return fixes;
}

/// What currents alone may do before a builder stops: full throttle lasts seconds, hovering stays.
static bool standsCurrents(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                           const FieldSources &sources, const std::string &part, const Vec3 &position_mm) {
    const Part *own = findPart(build, part);
    const CaseMask aboard = own ? casesAboard(*own, loadCases) : ~CaseMask(0);
    for (std::size_t c = 0; c < loadCases.size() && c < kMostLoadCases; ++c) {
        if (!(aboard >> c & 1) || !loadCases[c].flies()) continue;
        const FieldAt field = fieldAt(sources, position_mm, c, practice[Limit::cruisePitch]);
        const auto error = [&](double level_uT) {
            return worstHeadingError_deg(practice[Limit::earthField], level_uT);
        };
        if (error(field.full_uT) > practice[Limit::headingStop] &&
            error(field.hover_uT) > practice[Limit::headingWatch])
            return false;
    }
    return true;
}

std::vector<Fix> helpForCurrents(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                                 const Scene &scene, const FieldSources &sources, const CompassReport &compass) {
    constexpr double kWeak_A = 1; // what carries less at full throttle is not felt beside the leads
    constexpr std::size_t kMostTwists = 4;
    constexpr std::array<double, 8> kMoves_mm{10, 15, 20, 30, 40, 60, 80, 120};
    FieldSources flat;
    for (const auto &path : sources.paths)
        if (std::abs(path.full_A) > kWeak_A) flat.paths.push_back(path);
    // Every lead that by itself turns the needle in any load case, the strongest first.
    FieldSources twisted = flat;
    std::vector<Fix> twists;
    const double felt_uT = practice[Limit::earthField] * std::sin(radiansFromDegrees(practice[Limit::headingNote]));
    const auto level = [&](const CurrentPath &path) {
        LevelField alone;
        alone.add(pathFieldPerAmpere_uT(path, compass.position_mm), path.full_A);
        return alone.worst_uT(practice[Limit::cruisePitch]);
    };
    std::stable_sort(twisted.paths.begin(), twisted.paths.end(),
                     [&](const CurrentPath &a, const CurrentPath &b) { return level(a) > level(b); });
    for (auto &path : twisted.paths) {
        if (twists.size() == kMostTwists || level(path) < felt_uT) break;
        if (!path.pair || path.pitch_mm > 0) continue;
        path.pitch_mm = kTwistPitch * path.spacing_mm;
        Fix twist;
        twist.change = WireChange{WireChange::Kind::twist, path.wire, 0, 0, false, {}, {}, Vec3::Zero()};
        twists.push_back(std::move(twist));
    }
    std::vector<Fix> fixes;
    const auto with = [&](std::vector<Fix> chain) {
        Fix fix = std::move(chain.front());
        fix.then.assign(std::make_move_iterator(chain.begin() + 1), std::make_move_iterator(chain.end()));
        fixes.push_back(std::move(fix));
    };
    const auto stands = [&](const FieldSources &flow, const Vec3 &shift_mm) {
        return standsCurrents(build, practice, loadCases, flow, compass.part, compass.position_mm + shift_mm);
    };
    if (!twists.empty()) with(twists); // enough or not: nobody leads power past a compass untwisted
    const std::string moved = carrierOf(build, compass.part);
    const Part *part = findPart(build, moved);
    if (!part || part->pinned || part->fastening.method == FasteningMethod::stack) return fixes;
    auto along = hungOn(build, moved);
    along.push_back(moved);
    for (const bool twisting : {false, true}) {
        if (twisting && (twists.empty() || fixes.size() > 1)) break;
        std::vector<Fix> moves;
        for (const auto &direction : directions()) {
            if (std::abs(direction.z()) > 0.5) continue; // it stays on its face
            for (const double step : kMoves_mm) {
                const Vec3 shift = step * direction;
                if (!stands(twisting ? twisted : flat, shift) || !staysHeld(build, practice, *part, shift) ||
                    !std::all_of(along.begin(), along.end(),
                                 [&](const std::string &id) { return standsFree(scene, id, shift); }))
                    continue;
                Fix fix;
                fix.part = moved;
                fix.change = PartShift{shift};
                moves.push_back(std::move(fix));
                break;
            }
        }
        std::stable_sort(moves.begin(), moves.end(),
                         [](const Fix &a, const Fix &b) { return a.shift_mm().norm() < b.shift_mm().norm(); });
        for (auto &move : moves) {
            std::vector<Fix> chain;
            if (twisting) chain = twists;
            chain.push_back(std::move(move));
            with(std::move(chain));
        }
    }
    return fixes;
}

} // namespace waxis
