#include "core/survey/survey.h"

#include "core/access/service.h"
#include "core/balance/free_travel.h"
#include "core/folding/folding.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <map>

namespace waxis {

namespace {

bool stopped(const std::atomic<bool> *stop) { return stop && stop->load(std::memory_order_relaxed); }

bool has(const Derived &derived, std::size_t part, int loadCase) { return derived.owners[part].cases >> loadCase & 1; }

/// Load cases in which the part flies and that differ in who else is aboard. Folded craft see and show nothing.
std::vector<int> casesToLookAt(const Build &build, const Derived &derived, std::size_t part) {
    std::vector<int> cases;
    std::vector<std::vector<bool>> seen;
    for (std::size_t c = 0; c < derived.loadCases.size() && c < kMostLoadCases; ++c) {
        if (derived.loadCases[c].folded || !has(derived, part, int(c))) continue;
        std::vector<bool> aboard;
        for (std::size_t i = 0; i < build.parts.size(); ++i) aboard.push_back(has(derived, i, int(c)));
        if (std::find(seen.begin(), seen.end(), aboard) != seen.end()) continue;
        seen.push_back(std::move(aboard));
        cases.push_back(int(c));
    }
    return cases;
}

SkySurvey lookAtSky(const Build &build, const Analysis &analysis, std::size_t i) {
    const Derived &derived = analysis.derived;
    const Practice &practice = analysis.practice;
    SkySurvey survey;
    survey.part = build.parts[i].id;
    survey.place = antennaPlace(*typeOf(build, build.parts[i]), framePose(build, build.parts[i]));
    for (int c : casesToLookAt(build, derived, i)) {
        const RayWorld world = skyWorld(build, derived, c, int(i), practice[Limit::skyThick]);
        auto look = [&](double pitch) {
            return skyView(world, derived, survey.place.position_mm, survey.place.axis, practice[Limit::skyMask],
                           pitch);
        };
        SkyView level = look(0), cruise = look(practice[Limit::cruisePitch]);
        const bool worse = std::max(level.hidden, cruise.hidden) > std::max(survey.level.hidden, survey.cruise.hidden);
        if (!survey.loadCase.empty() && !worse) continue;
        survey.loadCase = derived.loadCases[std::size_t(c)].id;
        survey.level = std::move(level);
        survey.cruise = std::move(cruise);
    }
    return survey;
}

/// The widest run of steps that satisfies; both ends, or none.
void findBestRun(CameraSurvey &survey, double most) {
    std::size_t best = 0;
    for (std::size_t i = 0; i < survey.tilts.size(); ++i) {
        std::size_t n = 0;
        while (i + n < survey.tilts.size() && survey.tilts[i + n].hidden <= most) ++n;
        if (n <= best) continue;
        best = n;
        survey.bestFrom_deg = survey.tilts[i].tilt_deg;
        survey.bestTo_deg = survey.tilts[i + n - 1].tilt_deg;
    }
}

CameraSurvey lookThroughCamera(const Build &build, const Analysis &analysis, std::size_t i) {
    const Derived &derived = analysis.derived;
    const Part &part = build.parts[i];
    const PartType &type = *typeOf(build, part);
    const Pose pose = framePose(build, part);
    CameraSurvey survey;
    survey.part = part.id;
    const Picture picture = pictureOf(type.camera->horizontalView_deg, type.camera->verticalView_deg, 96);
    const Picture rough = pictureOf(type.camera->horizontalView_deg, type.camera->verticalView_deg, 48);
    int worstCase = -1;
    for (int c : casesToLookAt(build, derived, i)) {
        const CameraWorld world = cameraWorld(build, derived, c, int(i));
        CameraView now = cameraView(world, derived, picture, cameraPose(type, pose));
        if (worstCase >= 0 && now.hidden + now.propellers <= survey.now.hidden + survey.now.propellers) continue;
        worstCase = c;
        survey.now = std::move(now);
    }
    if (worstCase < 0) return survey;
    survey.loadCase = derived.loadCases[std::size_t(worstCase)].id;
    const CameraWorld world = cameraWorld(build, derived, worstCase, int(i));
    constexpr double kStep_deg = 5;
    const double low = type.camera->tiltMin_deg, high = type.camera->tiltMax_deg;
    const int steps = std::max(0, int(std::ceil((high - low) / kStep_deg - 1e-9)));
    for (int k = 0; k <= steps; ++k) {
        const double tilt = k == steps ? high : low + k * kStep_deg;
        const CameraView view = cameraView(world, derived, rough, cameraPose(type, tilted(type, pose, tilt)));
        survey.tilts.push_back({tilt, view.hidden, view.propellers});
    }
    findBestRun(survey, analysis.practice[Limit::cameraHidden] / 100);
    survey.overshoot_mm = lensOvershoot_mm(build, derived, int(i), cameraPose(type, pose).lens_mm);
    return survey;
}

void lookAtLamps(const Build &build, const Analysis &analysis, std::size_t i, std::vector<LampSurvey> &out) {
    const Derived &derived = analysis.derived;
    const PartType &type = *typeOf(build, build.parts[i]);
    const Pose pose = framePose(build, build.parts[i]);
    for (const auto &port : type.ports) {
        if (port.kind != PortKind::lamp) continue;
        LampSurvey worst;
        for (int c : casesToLookAt(build, derived, i)) {
            const RayWorld world(derived.world->bodies(), [&](int body) {
                const BodyTraits &traits = derived.traits[std::size_t(body)];
                const BodyOwner &owner = derived.owners[std::size_t(traits.owner)];
                return traits.owner != int(i) && owner.kind != OwnerKind::disc && (owner.cases >> c & 1);
            });
            LampView view = lampView(world, derived, pose * port.position_mm, pose.rotation * port.direction, int(i));
            if (!worst.loadCase.empty() && view.seen >= worst.view.seen) continue;
            worst = {build.parts[i].id, port.id, derived.loadCases[std::size_t(c)].id, std::move(view)};
        }
        if (!worst.loadCase.empty()) out.push_back(std::move(worst));
    }
}

/// Shadows between antennas and coverage, each in the first load case that has them aboard.
void lookAtRadios(const Build &build, const Analysis &analysis, Survey &survey, const std::atomic<bool> *stop) {
    const Derived &derived = analysis.derived;
    std::map<int, RayWorld> worlds;
    const auto worldOf = [&](CaseMask cases) -> const RayWorld * {
        if (cases == 0) return nullptr;
        const int first = std::countr_zero(cases);
        auto at = worlds.find(first);
        if (at == worlds.end())
            at = worlds.emplace(first, radioWorld(build, derived, first, analysis.practice[Limit::skyThick])).first;
        return &at->second;
    };
    const auto &radios = derived.radio.radios;
    const auto known = [&](const std::string &a, const std::string &b) {
        return std::any_of(survey.shadows.begin(), survey.shadows.end(), [&](const LineShadow &s) {
            return (s.from == a && s.to == b) || (s.from == b && s.to == a);
        });
    };
    for (const auto &sender : radios)
        for (const auto &listener : radios) {
            if (stopped(stop)) return;
            if (!sender.sends() || !listener.listens || sender.part == listener.part) continue;
            const RayWorld *world = worldOf(sender.cases & listener.cases);
            if (!world) continue;
            for (const auto &from : sender.antennas)
                for (const auto &to : listener.antennas)
                    if (!known(from.part, to.part))
                        if (LineShadow shadow = shadowOf(*world, derived, from, to); shadow.height_mm > 0)
                            survey.shadows.push_back(std::move(shadow));
        }
    survey.radioHelp = helpForAll(build, analysis.practice, derived, survey.shadows);
    for (const auto &radio : radios) {
        if (stopped(stop)) return;
        const RayWorld *world = radio.kind == PartKind::gps ? nullptr : worldOf(radio.cases);
        if (!world || radio.antennas.empty()) continue;
        survey.coverages.push_back(coverageOf(radio, *world, derived));
        survey.coverages.back().loadCase = derived.loadCases[std::size_t(std::countr_zero(radio.cases))].id;
    }
}

/// Ports that something is plugged into or that are pushed: their own room counts.
bool takesPlug(const Port &port) {
    return port.fullSize_mm.x() > 0 &&
           (port.kind == PortKind::plug || port.kind == PortKind::socket || port.kind == PortKind::coax);
}

SlideSurvey lookAtSlide(const Build &build, const Analysis &analysis, std::size_t i) {
    const Part &part = build.parts[i];
    const FreeTravel free =
        freeTravel(build, analysis.derived, i, part.slide->direction, part.slide->min_mm, part.slide->max_mm);
    return {part.id, free.least.travel_mm, free.most.travel_mm, free.least.by, free.most.by};
}

} // namespace

bool othersStand(const Build &before, const Build &after, const std::string &but) {
    return before.frame == after.frame && before.types == after.types && before.loadCases == after.loadCases &&
           std::equal(before.parts.begin(), before.parts.end(), after.parts.begin(), after.parts.end(),
                      [&](const Part &a, const Part &b) {
                          return a.id == b.id && (a.id == but || (a.type == b.type && a.placement == b.placement &&
                                                                  a.optional == b.optional));
                      });
}

std::optional<int> firstCaseOf(const Derived &derived, int owner) {
    for (std::size_t c = 0; c < derived.loadCases.size() && c < kMostLoadCases; ++c)
        if (!derived.loadCases[c].folded && (derived.owners[std::size_t(owner)].cases >> c & 1)) return int(c);
    return std::nullopt;
}

AccessSurvey lookAtPort(const Build &build, const Analysis &analysis, const Part &part, const Port &port, bool hand,
                        int loadCase) {
    const Derived &derived = analysis.derived;
    const Corridor corridor = corridorOf(port, framePose(build, part), hand, analysis.practice);
    AccessSurvey survey;
    survey.part = part.id;
    survey.port = port.id;
    survey.loadCase = derived.loadCases[std::size_t(loadCase)].id;
    survey.hand = hand;
    survey.fullSize_mm = corridor.fullSize_mm;
    survey.X_FrameCorridor = corridor.body.X_FrameBody;
    constexpr double kSlack_mm = 0.3;
    const int self = int(&part - build.parts.data());
    for (int owner : blockersOf(corridor, derived, self, loadCase, kSlack_mm))
        survey.blockers.push_back(derived.owners[std::size_t(owner)].id);
    if (survey.blockers.empty()) survey.takeOff.emplace();
    return survey;
}

std::vector<AccessSurvey> accessOf(const Build &build, const Analysis &analysis, const std::atomic<bool> *stop) {
    std::vector<AccessSurvey> out;
    const Derived &derived = analysis.derived;
    std::map<int, ServicePlan> plans;
    for (std::size_t i = 0; i < build.parts.size() && !stopped(stop); ++i) {
        const PartType *type = typeOf(build, build.parts[i]);
        const auto loadCase = firstCaseOf(derived, int(i));
        if (!type || !loadCase) continue;
        for (const auto &port : type->ports) {
            if (!port.mustStayReachable && !takesPlug(port)) continue;
            AccessSurvey survey = lookAtPort(build, analysis, build.parts[i], port, port.mustStayReachable, *loadCase);
            if (survey.hand && !survey.blockers.empty()) {
                std::vector<int> blockers;
                for (std::size_t o = 0; o < derived.owners.size(); ++o)
                    if (std::find(survey.blockers.begin(), survey.blockers.end(), derived.owners[o].id) !=
                        survey.blockers.end())
                        blockers.push_back(int(o));
                auto &plan = plans.try_emplace(*loadCase, build, derived, *loadCase).first->second;
                survey.takeOff.reset();
                if (const auto order = plan.toFree(blockers, int(i))) {
                    survey.takeOff.emplace();
                    for (int owner : *order) survey.takeOff->push_back(derived.owners[std::size_t(owner)].id);
                }
            }
            out.push_back(std::move(survey));
        }
    }
    return out;
}

std::vector<FoldContact> foldContacts(const Build &build, const Practice &practice, const std::atomic<bool> *stop) {
    std::vector<FoldContact> contacts;
    const auto arms = foldingArms(build);
    if (arms.empty()) return contacts;
    const double gap_mm = practice[Limit::foldGap];
    std::map<std::pair<std::string, std::string>, std::size_t> known;
    // Which arm a thing goes with: -1 for what stays.
    std::map<std::string, int> goesWith;
    for (std::size_t a = 0; a < arms.size(); ++a) {
        goesWith[arms[a].arm] = int(a);
        for (const auto &id : arms[a].parts) goesWith[id] = int(a);
    }
    auto motionOf = [&](const std::string &id) {
        const auto at = goesWith.find(id);
        return at == goesWith.end() ? -1 : at->second;
    };
    constexpr int kSteps = 18;
    for (int step = 1; step <= kSteps && !stopped(stop); ++step) {
        const double fraction = double(step) / kSteps;
        Build there = foldedBuild(build, fraction);
        there.wires.clear(); // they bend out of the way, and leading them takes long
        Analyser analyser;
        const Derived &derived = analyser.update(there, practice).derived;
        const auto &bodies = derived.world->bodies();
        std::vector<Aabb> bounds;
        std::vector<int> motion;
        for (std::size_t i = 0; i < bodies.size(); ++i) {
            bounds.push_back(boundsOf(bodies[i].shape, bodies[i].X_FrameBody));
            motion.push_back(motionOf(derived.owners[std::size_t(derived.traits[i].owner)].id));
        }
        for (std::size_t i = 0; i < bodies.size(); ++i) {
            if (motion[i] < 0) continue;
            const BodyOwner &a = derived.owners[std::size_t(derived.traits[i].owner)];
            if (derived.traits[i].soft || a.kind == OwnerKind::disc) continue;
            for (std::size_t j = 0; j < bodies.size(); ++j) {
                if (motion[j] == motion[i] || (motion[j] >= 0 && j < i)) continue;
                const BodyOwner &b = derived.owners[std::size_t(derived.traits[j].owner)];
                if (derived.traits[j].soft || b.kind == OwnerKind::disc || b.flexible || a.flexible ||
                    !(a.cases & b.cases) || boxGap(bounds[i], bounds[j]) > gap_mm)
                    continue;
                // An arm turns against its own root and between the plates that hold it.
                if (b.id == innerPieceId(arms[std::size_t(motion[i])].arm)) continue;
                const auto &related = a.related;
                if (std::find(related.begin(), related.end(), derived.traits[j].owner) != related.end()) continue;
                if (a.kind == OwnerKind::arm && (b.kind == OwnerKind::plate || b.holds)) continue;
                const BodyGap gap = measureGap(bodies[i], bodies[j]);
                if (gap.distance_mm > gap_mm) continue;
                // One contact for two arms, or for an arm and a thing that stays: the first to meet stand for all.
                const auto key = std::make_pair(arms[std::size_t(motion[i])].arm,
                                                motion[j] >= 0 ? arms[std::size_t(motion[j])].arm : b.id);
                const auto at = known.find(key);
                if (at == known.end()) {
                    known.emplace(key, contacts.size());
                    contacts.push_back({a.id, b.id, fraction, gap.depth_mm, step == kSteps, gap.onA_mm});
                } else if (step == kSteps) {
                    contacts[at->second].folded = true;
                    contacts[at->second].depth_mm = std::max(contacts[at->second].depth_mm, gap.depth_mm);
                }
            }
        }
    }
    return contacts;
}

Survey surveyOf(const Build &build, const Analysis &analysis, const std::atomic<bool> *stop) {
    Survey survey;
    survey.build = build;
    survey.practice = analysis.practice;
    const Derived &derived = analysis.derived;
    for (std::size_t i = 0; i < build.parts.size() && !stopped(stop); ++i) {
        const PartType *type = typeOf(build, build.parts[i]);
        if (!type || !firstCaseOf(derived, int(i))) continue;
        if (type->kind == PartKind::gps || type->mustSeeSky) survey.skies.push_back(lookAtSky(build, analysis, i));
        if (type->camera && type->camera->horizontalView_deg > 0)
            survey.cameras.push_back(lookThroughCamera(build, analysis, i));
        lookAtLamps(build, analysis, i, survey.lamps);
        if (build.parts[i].slide) survey.slides.push_back(lookAtSlide(build, analysis, i));
    }
    if (!stopped(stop)) lookAtRadios(build, analysis, survey, stop);
    survey.access = accessOf(build, analysis, stop);
    if (!stopped(stop)) survey.folding = foldContacts(build, analysis.practice, stop);
    return survey;
}

const Analysis &analyseFully(Analyser &analyser, const Build &build, const std::optional<Practice> &practice) {
    const Analysis &quick = analyser.update(build, practice);
    analyser.setSurvey(std::make_shared<const Survey>(surveyOf(build, quick)));
    return analyser.update(build, practice);
}

} // namespace waxis
