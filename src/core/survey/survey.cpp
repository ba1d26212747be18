#include "core/survey/survey.h"

#include "core/access/service.h"
#include "core/build/folding.h"
#include "core/clearance/clearance_world.h"
#include "core/coverage/coverage.h"
#include "core/derived/derived.h"
#include "core/radio/radio_report.h"
#include "core/remedies/free_travel.h"
#include "core/remedies/radio_help.h"
#include "core/remedies/turn_away.h"
#include "core/scene/body_table.h"
#include "core/scene/hanging.h"
#include "core/scene/scene.h"
#include "core/sequence/plan.h"
#include "core/survey/helps.h"
#include "core/survey/reach.h"
#include "core/survey/views.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <map>

namespace waxis {

namespace {

bool stopped(const std::atomic<bool> *stop) { return stop && stop->load(std::memory_order_relaxed); }

bool has(const Derived &derived, std::size_t part, int loadCase) {
    return derived.scene.owners[part].cases >> loadCase & 1;
}

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

SkySurvey lookAtSky(const Build &build, const Practice &practice, const Derived &derived, std::size_t i) {
    SkySurvey survey;
    survey.part = build.parts[i].id;
    survey.place = antennaPlace(*typeOf(build, build.parts[i]), framePose(build, build.parts[i]));
    for (int c : casesToLookAt(build, derived, i)) {
        const RayWorld world = skyWorld(build, derived.scene, c, int(i), practice[Limit::skyThick]);
        auto look = [&](double pitch) {
            return skyView(world, derived.scene, survey.place.position_mm, survey.place.axis, practice[Limit::skyMask],
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

CameraSurvey lookThroughCamera(const Build &build, const Practice &practice, const Derived &derived, std::size_t i) {
    const Part &part = build.parts[i];
    const PartType &type = *typeOf(build, part);
    const Pose pose = framePose(build, part);
    CameraSurvey survey;
    survey.part = part.id;
    const Picture picture = pictureOf(type.camera->horizontalView_deg, type.camera->verticalView_deg, 96);
    const Picture rough = pictureOf(type.camera->horizontalView_deg, type.camera->verticalView_deg, 48);
    int worstCase = -1;
    for (int c : casesToLookAt(build, derived, i)) {
        const CameraWorld world = cameraWorld(build, derived.scene, c, int(i));
        CameraView now = cameraView(world, derived.scene, picture, cameraPose(type, pose));
        if (worstCase >= 0 && now.hidden + now.propellers <= survey.now.hidden + survey.now.propellers) continue;
        worstCase = c;
        survey.now = std::move(now);
    }
    if (worstCase < 0) return survey;
    survey.loadCase = derived.loadCases[std::size_t(worstCase)].id;
    const CameraWorld world = cameraWorld(build, derived.scene, worstCase, int(i));
    constexpr double kStep_deg = 5;
    const double low = type.camera->tiltMin_deg, high = type.camera->tiltMax_deg;
    const int steps = std::max(0, int(std::ceil((high - low) / kStep_deg - 1e-9)));
    for (int k = 0; k <= steps; ++k) {
        const double tilt = k == steps ? high : low + k * kStep_deg;
        const CameraView view = cameraView(world, derived.scene, rough, cameraPose(type, tilted(type, pose, tilt)));
        survey.tilts.push_back({tilt, view.hidden, view.propellers});
    }
    findBestRun(survey, practice[Limit::cameraHidden] / 100);
    survey.overshoot_mm = lensOvershoot_mm(build, derived.scene, int(i), cameraPose(type, pose).lens_mm);
    return survey;
}

void lookAtLamps(const Build &build, const Derived &derived, std::size_t i, std::vector<LampSurvey> &out) {
    const PartType &type = *typeOf(build, build.parts[i]);
    const Pose pose = framePose(build, build.parts[i]);
    for (const auto &port : type.ports) {
        if (port.kind != PortKind::lamp) continue;
        LampSurvey worst;
        for (int c : casesToLookAt(build, derived, i)) {
            const RayWorld world(derived.scene.world->bodies(), [&](int body) {
                const BodyTraits &traits = derived.scene.traits[std::size_t(body)];
                const BodyOwner &owner = derived.scene.owners[std::size_t(traits.owner)];
                return traits.owner != int(i) && owner.kind != OwnerKind::disc && (owner.cases >> c & 1);
            });
            LampView view =
                lampView(world, derived.scene, pose * port.position_mm, pose.rotation * port.direction, int(i));
            if (!worst.loadCase.empty() && view.seen >= worst.view.seen) continue;
            worst = {build.parts[i].id, port.id, derived.loadCases[std::size_t(c)].id, std::move(view)};
        }
        if (!worst.loadCase.empty()) out.push_back(std::move(worst));
    }
}

/// Shadows between antennas and coverage, each in the first load case that has them aboard.
void lookAtRadios(const Build &build, const Practice &practice, const Derived &derived, Survey &survey,
                  const std::atomic<bool> *stop) {
    std::map<int, RayWorld> worlds;
    const auto worldOf = [&](CaseMask cases) -> const RayWorld * {
        if (cases == 0) return nullptr;
        const int first = std::countr_zero(cases);
        auto at = worlds.find(first);
        if (at == worlds.end())
            at = worlds.emplace(first, radioWorld(build, derived.scene, first, practice[Limit::skyThick])).first;
        return &at->second;
    };
    const auto &radios = derived.radio->radios;
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
                        if (LineShadow shadow = shadowOf(*world, derived.scene, from, to); shadow.height_mm > 0)
                            survey.shadows.push_back(std::move(shadow));
        }
    survey.radioHelp = helpForAll(build, practice, derived.scene, *derived.radio, survey.shadows);
    for (const auto &radio : radios) {
        if (stopped(stop)) return;
        const RayWorld *world = radio.kind == PartKind::gps ? nullptr : worldOf(radio.cases);
        if (!world || radio.antennas.empty()) continue;
        survey.coverages.push_back(coverageOf(radio, *world, derived.scene));
        survey.coverages.back().loadCase = derived.loadCases[std::size_t(std::countr_zero(radio.cases))].id;
    }
}

/// Where parts could sit that hang in the air: looking for places takes time, so only for a few.
void findPlaces(const Build &build, const Practice &practice, const Scene &scene, Survey &survey) {
    constexpr std::size_t kParts = 4, kPlaces = 3;
    const HangingReport report = whatHangs(build, practice, scene);
    for (std::size_t i = 0; i < report.parts.size() && i < kParts; ++i) {
        const Part &part = build.parts[report.parts[i].part];
        PlaceHelp help{part.id, {}};
        if (!part.pinned)
            for (auto &perch : perchesFor(build, part, *build.types))
                if (help.fixes.size() < kPlaces) help.fixes.push_back({part.id, std::move(perch), {}, {}});
        survey.placeHelp.push_back(std::move(help));
    }
}

/// What stands in a propeller's zone and can be turned out of it.
void turnOutOfZones(const Build &build, const Practice &practice, const Scene &scene, Survey &survey) {
    const auto known = [&](const std::string &part, const std::string &mount) {
        return std::any_of(survey.turnHelp.begin(), survey.turnHelp.end(),
                           [&](const TurnHelp &help) { return help.part == part && help.mount == mount; });
    };
    // Where two things meet at several bodies, the deepest speaks for both, as in the finding.
    std::vector<const BodyGap *> met;
    for (const auto &gap : scene.world->gaps())
        if (gap.distance_mm <= 0) met.push_back(&gap);
    std::stable_sort(met.begin(), met.end(),
                     [](const BodyGap *a, const BodyGap *b) { return a->depth_mm > b->depth_mm; });
    for (const BodyGap *gap : met) {
        const auto &a = scene.traits[std::size_t(gap->a)], &b = scene.traits[std::size_t(gap->b)];
        const auto zone = demandsOf(scene.owners, a, b).propeller;
        if (!zone) continue;
        const bool first = scene.owners[std::size_t(a.owner)].kind == OwnerKind::disc;
        const std::string &part = scene.owners[std::size_t(first ? b.owner : a.owner)].id;
        const std::string &mount = scene.owners[std::size_t(first ? a.owner : b.owner)].id;
        if (known(part, mount)) continue;
        survey.turnHelp.push_back(
            {part, mount, turnsAway(build, scene, first ? gap->b : gap->a, first ? gap->a : gap->b, practice[*zone])});
    }
}

/// What would help compasses, each against the currents and against each magnet that turns it.
void helpCompasses(const Build &build, const Practice &practice, const Derived &derived, Survey &survey) {
    const RadioReport &radio = *derived.radio;
    const double noted_deg = practice[Limit::headingNote];
    for (const auto &compass : radio.compasses)
        if (compass.full_deg > noted_deg)
            survey.compassHelp.push_back(
                {compass.part,
                 {},
                 helpForCurrents(build, practice, derived.loadCases, derived.scene, radio.sources, compass)});
    for (std::size_t r = 0; r < radio.rows.size(); ++r)
        for (std::size_t c = 0; radio.rows[r].kind == DisturberKind::magnet && c < radio.columns.size(); ++c)
            if (radio.columns[c].compass >= 0 && radio.cell(r, c).heading_deg > noted_deg) {
                const CompassReport &compass = radio.compasses[std::size_t(radio.columns[c].compass)];
                survey.compassHelp.push_back(
                    {compass.part, radio.rows[r].id,
                     helpForCompass(build, practice, derived.scene, radio.sources, compass, radio.rows[r].id)});
            }
}

/// Ports that something is plugged into or that are pushed: their own room counts.
bool takesPlug(const Port &port) {
    return port.fullSize_mm.x() > 0 &&
           (port.kind == PortKind::plug || port.kind == PortKind::socket || port.kind == PortKind::coax);
}

SlideSurvey lookAtSlide(const Build &build, const Derived &derived, std::size_t i) {
    const Part &part = build.parts[i];
    const FreeTravel free =
        freeTravel(build, derived.scene, i, part.slide->direction, part.slide->min_mm, part.slide->max_mm);
    return {part.id, free.least.travel_mm, free.most.travel_mm, free.least.by, free.most.by};
}

} // namespace

Survey::Survey() = default;
Survey::Survey(const Survey &) = default;
Survey::Survey(Survey &&) noexcept = default;
Survey &Survey::operator=(const Survey &) = default;
Survey &Survey::operator=(Survey &&) noexcept = default;
Survey::~Survey() = default;

AccessSurvey lookAtPort(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                        const Scene &scene, const Part &part, const Port &port, bool hand, int loadCase) {
    const Corridor corridor = corridorOf(port, framePose(build, part), hand, practice);
    AccessSurvey survey;
    survey.part = part.id;
    survey.port = port.id;
    survey.loadCase = loadCases[std::size_t(loadCase)].id;
    survey.hand = hand;
    survey.fullSize_mm = corridor.fullSize_mm;
    survey.X_FrameCorridor = corridor.body.X_FrameBody;
    constexpr double kSlack_mm = 0.3;
    const int self = int(&part - build.parts.data());
    for (int owner : blockersOf(corridor, scene, self, loadCase, kSlack_mm))
        survey.blockers.push_back(scene.owners[std::size_t(owner)].id);
    if (survey.blockers.empty()) survey.takeOff.emplace();
    return survey;
}

/// What a hand goes to on every field: keys, cards and USB, and the plugs of packs and at packs.
static bool reachedByNature(const PartType &type, const Port &port) {
    if (port.kind == PortKind::button || port.kind == PortKind::card || port.kind == PortKind::usb) return true;
    const bool plugs = port.kind == PortKind::plug || port.kind == PortKind::socket;
    return plugs && (type.kind == PartKind::battery || type.kind == PartKind::powerPlug);
}

std::vector<AccessSurvey> accessOf(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                                   const Scene &scene, const std::atomic<bool> *stop) {
    std::vector<AccessSurvey> out;
    std::map<int, ServicePlan> plans;
    for (std::size_t i = 0; i < build.parts.size() && !stopped(stop); ++i) {
        const PartType *type = typeOf(build, build.parts[i]);
        const auto loadCase = firstCaseOf(scene, loadCases, int(i));
        if (!type || !loadCase) continue;
        for (const auto &port : type->ports) {
            const bool byHand = port.mustStayReachable || reachedByNature(*type, port);
            if (!byHand && !takesPlug(port)) continue;
            AccessSurvey survey =
                lookAtPort(build, practice, loadCases, scene, build.parts[i], port, byHand, *loadCase);
            if (survey.hand && !survey.blockers.empty()) {
                std::vector<int> blockers;
                for (std::size_t o = 0; o < scene.owners.size(); ++o)
                    if (std::find(survey.blockers.begin(), survey.blockers.end(), scene.owners[o].id) !=
                        survey.blockers.end())
                        blockers.push_back(int(o));
                auto &plan = plans.try_emplace(*loadCase, build, scene, *loadCase).first->second;
                survey.takeOff.reset();
                if (const auto order = plan.toFree(blockers, int(i))) {
                    survey.takeOff.emplace();
                    for (int owner : *order) survey.takeOff->push_back(scene.owners[std::size_t(owner)].id);
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
        const BodyTable table = bodyTableOf(there, effectiveLoadCases(there), practice);
        const auto &bodies = table.bodies;
        std::vector<Aabb> bounds;
        std::vector<int> motion;
        for (std::size_t i = 0; i < bodies.size(); ++i) {
            bounds.push_back(boundsOf(bodies[i].shape, bodies[i].X_FrameBody));
            motion.push_back(motionOf(table.owners[std::size_t(table.traits[i].owner)].id));
        }
        for (std::size_t i = 0; i < bodies.size(); ++i) {
            if (motion[i] < 0) continue;
            const BodyOwner &a = table.owners[std::size_t(table.traits[i].owner)];
            if (table.traits[i].soft || a.kind == OwnerKind::disc) continue;
            for (std::size_t j = 0; j < bodies.size(); ++j) {
                if (motion[j] == motion[i] || (motion[j] >= 0 && j < i)) continue;
                const BodyOwner &b = table.owners[std::size_t(table.traits[j].owner)];
                if (table.traits[j].soft || b.kind == OwnerKind::disc || b.flexible || a.flexible ||
                    !(a.cases & b.cases) || boxGap(bounds[i], bounds[j]) > gap_mm)
                    continue;
                // An arm turns against its own root and between the plates that hold it.
                if (b.id == innerPieceId(arms[std::size_t(motion[i])].arm)) continue;
                const auto &related = a.related;
                if (std::find(related.begin(), related.end(), table.traits[j].owner) != related.end()) continue;
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

Survey surveyOf(const Build &build, const Practice &practice, const Derived &derived, const std::atomic<bool> *stop,
                SweepMemory *memory) {
    Survey survey;
    survey.build = build;
    survey.practice = practice;
    for (std::size_t i = 0; i < build.parts.size() && !stopped(stop); ++i) {
        const PartType *type = typeOf(build, build.parts[i]);
        if (!type || !firstCaseOf(derived.scene, derived.loadCases, int(i))) continue;
        if (type->kind == PartKind::gps || type->mustSeeSky)
            survey.skies.push_back(lookAtSky(build, practice, derived, i));
        if (type->camera && type->camera->horizontalView_deg > 0)
            survey.cameras.push_back(lookThroughCamera(build, practice, derived, i));
        lookAtLamps(build, derived, i, survey.lamps);
        if (build.parts[i].slide) survey.slides.push_back(lookAtSlide(build, derived, i));
    }
    if (!stopped(stop)) lookAtRadios(build, practice, derived, survey, stop);
    if (!stopped(stop)) findPlaces(build, practice, derived.scene, survey);
    if (!stopped(stop)) turnOutOfZones(build, practice, derived.scene, survey);
    if (!stopped(stop)) helpCompasses(build, practice, derived, survey);
    survey.access = accessOf(build, practice, derived.loadCases, derived.scene, stop);
    if (!stopped(stop)) survey.folding = foldContacts(build, practice, stop);
    if (!stopped(stop)) survey.travels = travelContacts(build, practice, derived.scene, stop);
    if (!stopped(stop) && derived.scene.world)
        survey.plan = std::make_shared<const AssemblyPlan>(
            planAssembly(build, practice, derived, fullestCase(build, *derived.loadCases), memory));
    return survey;
}

} // namespace waxis
