#include "core/radio/radio_report.h"

#include "core/base/units.h"
#include "core/clearance/clearance_world.h"
#include "core/geometry/segment.h"
#include "core/magnetics/biot_savart.h"
#include "core/power/power_report.h"
#include "core/radio/best_pair.h"
#include "core/radio/decibel.h"
#include "core/radio/free_space.h"
#include "core/radio/polarisation.h"
#include "core/scene/scene.h"
#include "core/wiring/route_field.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

constexpr double kShortWave_MHz = 3000;

double sumOf(std::initializer_list<double> levels_dBm) {
    double sum = 0;
    for (const double level : levels_dBm) sum += milliwatts(level);
    return sum > 0 ? std::max(kSilence_dBm, dBmFrom(sum)) : kSilence_dBm;
}

bool overlapping(const RadioUse &a, const RadioUse &b) { return a.low_MHz < b.high_MHz && b.low_MHz < a.high_MHz; }

bool isVideoSender(PartKind kind) { return kind == PartKind::videoTransmitter || kind == PartKind::digitalVideoUnit; }

std::optional<Limit> practiceGap(const RadioUse &sender, const RadioUse &listener) {
    if (!isVideoSender(sender.kind)) return std::nullopt;
    if (listener.kind == PartKind::receiver) return Limit::senderReceiverGap;
    if (listener.kind == PartKind::gps) return Limit::senderGnssGap;
    return std::nullopt;
}

/// Least distance of a part's solids from a point.
double nearestBody_mm(const Scene &scene, const std::string &part, const Vec3 &point_mm) {
    double best = 1e9;
    if (!scene.world) return best;
    for (std::size_t b = 0; b < scene.world->bodies().size(); ++b) {
        if (scene.owners[std::size_t(scene.traits[b].owner)].id != part) continue;
        if (boxGap(scene.world->boundsOfBody(int(b)), {point_mm, point_mm}) >= best) continue;
        const Body &body = scene.world->bodies()[b];
        best = std::min(best, pointDistance(body.shape, body.X_FrameBody.inverse() * point_mm));
    }
    return best;
}

void addNoiseRows(const Build &build, const Practice &practice, const RadioInputs &in, RadioReport &report) {
    std::vector<RadioCell> cells;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type) continue;
        const bool camera = type->kind == PartKind::flightCamera || type->kind == PartKind::payloadCamera ||
                            type->kind == PartKind::digitalVideoUnit;
        const bool esc = type->kind == PartKind::esc || type->kind == PartKind::fourInOneEsc;
        if (!camera && !esc) continue;
        const CaseMask cases = casesSwitchedOn(part, in.loadCases);
        std::vector<RadioCell> row(report.columns.size());
        bool any = false;
        for (std::size_t c = 0; c < report.columns.size(); ++c) {
            if (report.columns[c].radio < 0) continue;
            const RadioUse &listener = report.radios[std::size_t(report.columns[c].radio)];
            const bool gnss = camera && listener.kind == PartKind::gps;
            const bool control = esc && listener.kind == PartKind::receiver;
            if ((!gnss && !control) || !(listener.cases & cases) || listener.part == part.id) continue;
            for (std::size_t a = 0; a < listener.antennas.size(); ++a) {
                const double distance = nearestBody_mm(in.scene, part.id, listener.antennas[a].centre_mm);
                if (row[c].counts && distance >= row[c].distance_mm) continue;
                row[c].counts = true;
                row[c].distance_mm = distance;
                row[c].toAntenna = int(a);
                row[c].practiceLimit = gnss ? Limit::digitalGnssGap : Limit::escAntennaGap;
                row[c].practice_mm = practice[*row[c].practiceLimit];
            }
            any |= row[c].counts;
        }
        if (!any) continue;
        report.rows.push_back({DisturberKind::noise, part.id, -1});
        report.cells.insert(report.cells.end(), row.begin(), row.end());
    }
}

/// Magnets one by one, currents together, against compasses.
void addMagneticRows(const Practice &practice, RadioReport &report) {
    const double earth_uT = practice[Limit::earthField];
    for (const auto &magnet : report.sources.magnets) {
        std::vector<RadioCell> row(report.columns.size());
        bool any = false;
        for (std::size_t c = 0; c < report.columns.size(); ++c) {
            if (report.columns[c].compass < 0) continue;
            const CompassReport &compass = report.compasses[std::size_t(report.columns[c].compass)];
            for (const auto &share : compass.by)
                if (share.id == magnet.part) {
                    row[c].counts = any = true;
                    row[c].distance_mm = (magnet.position_mm - compass.position_mm).norm();
                    row[c].field_uT = share.constant_uT.head<2>().norm();
                    row[c].heading_deg = std::min(180.0, worstHeadingError_deg(earth_uT, row[c].field_uT));
                }
        }
        if (!any) continue;
        report.rows.push_back({DisturberKind::magnet, magnet.part, -1});
        report.cells.insert(report.cells.end(), row.begin(), row.end());
    }
    if (report.compasses.empty() || report.sources.paths.empty()) return;
    report.rows.push_back({DisturberKind::currents, "currents", -1});
    for (const auto &column : report.columns) {
        RadioCell cell;
        if (column.compass >= 0) {
            const CompassReport &compass = report.compasses[std::size_t(column.compass)];
            cell.counts = true;
            cell.field_uT = compass.field.full_uT;
            cell.heading_deg = compass.full_deg;
            cell.distance_mm = 1e9;
            for (const auto &path : report.sources.paths)
                cell.distance_mm = std::min(cell.distance_mm, polylineDistance(compass.position_mm, path.points_mm));
        }
        report.cells.push_back(cell);
    }
}

void findClocks(const Build &build, const RadioInputs &in, RadioReport &report) {
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->clocks.empty()) continue;
        for (const auto &clock : type->clocks)
            for (std::size_t l = 0; l < report.radios.size(); ++l) {
                const RadioUse &listener = report.radios[l];
                if (!listener.listens || listener.part == part.id || listener.antennas.empty()) continue;
                const int order = int(std::ceil(listener.low_MHz / clock.frequency_MHz));
                if (order < 1 || order * clock.frequency_MHz > listener.high_MHz) continue;
                ClockHit hit{part.id, clock.name, int(l), order, order * clock.frequency_MHz, 1e9};
                for (const auto &use : listener.antennas)
                    hit.distance_mm = std::min(hit.distance_mm, nearestBody_mm(in.scene, part.id, use.centre_mm));
                report.clocks.push_back(hit);
            }
    }
}

/// Corners of the plates' and arms' outlines as edges in space; carbon only.
struct Edge {
    std::string owner;
    Vec3 a_mm, b_mm;
};
std::vector<Edge> carbonEdges(const Build &build) {
    std::vector<Edge> edges;
    for (const auto &plate : build.frame->plates) {
        if (plate.material.find("carbon") == std::string::npos) continue;
        const auto &ring = plate.outline_mm;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vec2 a = ring[i], b = ring[(i + 1) % ring.size()];
            if ((b - a).norm() < 10) continue; // rounded corners have no direction
            const double z = plate.z_mm + plate.thickness_mm / 2;
            edges.push_back({plate.id, Vec3(a.x(), a.y(), z), Vec3(b.x(), b.y(), z)});
        }
    }
    for (const auto &arm : build.frame->arms)
        if (arm.material.find("carbon") != std::string::npos) edges.push_back({arm.id, arm.root_mm, arm.tip_mm});
    return edges;
}

/// Of straight elements, in wavelengths: whips and loaded elements are shorter than dipoles.
double halfLength(AntennaKind kind) {
    return kind == AntennaKind::monopole ? 0.125 : kind == AntennaKind::loadedDipole ? 0.1 : 0.25;
}

void lookAround(const Build &build, const Scene &scene, RadioReport &report) {
    if (!scene.world) return;
    const auto edges = carbonEdges(build);
    for (std::size_t r = 0; r < report.radios.size(); ++r)
        for (std::size_t k = 0; k < report.radios[r].antennas.size(); ++k) {
            const AntennaUse &use = report.radios[r].antennas[k];
            if (use.antenna.kind == AntennaKind::patch || use.antenna.kind == AntennaKind::ceramicPatch) continue;
            AntennaSurroundings around;
            around.radio = int(r);
            around.antenna = int(k);
            around.lambda_mm = wavelength_mm((use.antenna.low_MHz + use.antenna.high_MHz) / 2);
            std::vector<Vec3> samples{use.centre_mm};
            if (isStraightElement(use.antenna.kind))
                for (const double s : {-1.0, -0.5, 0.5, 1.0})
                    samples.push_back(use.centre_mm + s * halfLength(use.antenna.kind) * around.lambda_mm * use.axis);
            around.conductor_mm = around.lambda_mm;
            Aabb reached; // by the element
            for (const auto &sample : samples) reached.include(sample);
            for (std::size_t b = 0; b < scene.world->bodies().size(); ++b) {
                const BodyTraits &traits = scene.traits[b];
                const BodyOwner &owner = scene.owners[std::size_t(traits.owner)];
                if (!traits.conductive || owner.kind == OwnerKind::disc || owner.id == use.part ||
                    owner.id == report.radios[r].part)
                    continue;
                if (boxGap(scene.world->boundsOfBody(int(b)), reached) >= around.conductor_mm) continue;
                const Part *part = owner.kind == OwnerKind::part ? &build.parts[std::size_t(traits.owner)] : nullptr;
                const PartType *type = part ? typeOf(build, *part) : nullptr;
                if (type && (type->antenna || type->kind == PartKind::tube)) continue;
                const Body &body = scene.world->bodies()[b];
                const Aabb &box = scene.world->boundsOfBody(int(b));
                for (const auto &sample : samples) {
                    if (boxGap(box, {sample, sample}) >= around.conductor_mm) continue;
                    const double distance = pointDistance(body.shape, body.X_FrameBody.inverse() * sample);
                    if (distance >= around.conductor_mm) continue;
                    around.conductor_mm = distance;
                    around.conductor = owner.id;
                    around.nearestOnElement_mm = sample;
                }
            }
            if (isStraightElement(use.antenna.kind)) {
                double nearest = around.lambda_mm / 4;
                for (const auto &edge : edges) {
                    const double distance = segmentDistance(use.centre_mm, edge.a_mm, edge.b_mm);
                    if (distance >= nearest) continue;
                    nearest = distance;
                    around.edge = edge.owner;
                    const Vec3 along = (edge.b_mm - edge.a_mm).normalized();
                    around.edge_deg = degreesFromRadians(std::acos(std::min(1.0, std::abs(along.dot(use.axis)))));
                }
            }
            report.surroundings.push_back(around);
        }
    for (std::size_t r = 0; r < report.radios.size(); ++r) {
        const auto &uses = report.radios[r].antennas;
        if (!report.radios[r].listens) continue;
        for (std::size_t a = 0; a < uses.size(); ++a)
            for (std::size_t b = a + 1; b < uses.size(); ++b)
                if (isStraightElement(uses[a].antenna.kind) && isStraightElement(uses[b].antenna.kind))
                    report.diversity.push_back(
                        {int(r), int(a), int(b),
                         degreesFromRadians(std::acos(std::min(1.0, std::abs(uses[a].axis.dot(uses[b].axis)))))});
    }
}

struct GroundGain {
    double gain_dBi = 300;
    const AntennaUse *antenna = nullptr; ///< the one that is heard where it is worst
};

double gainTowards_dBi(const AntennaUse &use, const Vec3 &way) {
    return patternGain_dBi(use.pattern, use.axis.dot(way));
}

/// What is left towards a station on the way out and on the way home, level and nose down as in fast flight: the worst
/// of the four, with the best antenna for each.
GroundGain gainToGround(const RadioUse &radio, double elevation_rad, double cruisePitch_deg) {
    GroundGain worst;
    for (const bool out : {true, false})
        for (const double pitch_deg : {0.0, cruisePitch_deg}) {
            const Vec3 level(std::cos(elevation_rad) * (out ? -1 : 1), 0, std::sin(elevation_rad));
            // The craft's nose goes down about y; the station stays where it is.
            const Vec3 way = Eigen::AngleAxisd(-radiansFromDegrees(pitch_deg), Vec3::UnitY()) * level;
            const AntennaUse *best = nullptr;
            double gain_dBi = -300;
            for (const auto &use : radio.antennas)
                if (const double g = gainTowards_dBi(use, way); g > gain_dBi) {
                    gain_dBi = g;
                    best = &use;
                }
            if (best && gain_dBi < worst.gain_dBi) worst = {gain_dBi, best};
        }
    return worst;
}

/// Straight down: what a station hears that the craft stands above.
double gainBelow_dBi(const RadioUse &radio) {
    double gain_dBi = -300;
    for (const auto &use : radio.antennas) gain_dBi = std::max(gain_dBi, gainTowards_dBi(use, -Vec3::UnitZ()));
    return gain_dBi;
}

void findRanges(const Build &build, const Practice &practice, RadioReport &report) {
    for (const auto &ground : build.groundStations)
        for (std::size_t r = 0; r < report.radios.size(); ++r) {
            const RadioUse &radio = report.radios[r];
            if (radio.part != ground.part || radio.band != ground.band || radio.antennas.empty()) continue;
            const double elevation_rad =
                std::atan2(ground.height_m - ground.craftHeight_m, std::max(1.0, ground.distance_m));
            const GroundGain seen = gainToGround(radio, elevation_rad, practice[Limit::cruisePitch]);
            const double gain_dBi = seen.gain_dBi;
            const AntennaUse *best = seen.antenna;
            if (!best) continue;
            for (const bool down : {true, false}) {
                if (down ? !radio.sends() : !radio.listens) continue;
                RangeReport range;
                range.ground = ground.id;
                range.radio = int(r);
                range.down = down;
                range.distance_m = ground.distance_m;
                range.gainHere_dBi = gain_dBi;
                range.elevation_deg = degreesFromRadians(elevation_rad);
                range.cable_dB = feedLoss_dB(*best, radio.centre_MHz);
                const Polarisation here = best->antenna.polarisation, there = ground.polarisation;
                const bool bothRound = here != Polarisation::linear && there != Polarisation::linear;
                range.sameHand = !bothRound || here == there;
                if (bothRound)
                    range.polarisation_dB = here == there ? 0 : practice[Limit::crossPolar];
                else if (here != Polarisation::linear || there != Polarisation::linear)
                    range.polarisation_dB = decibels(2);
                const auto or_ = [&](const std::optional<double> &stated, double assumed, const char *key) {
                    if (!stated) range.assumed.emplace_back(key);
                    return stated.value_or(assumed);
                };
                LinkInput in;
                in.f_MHz = radio.centre_MHz;
                in.distance_m = ground.distance_m;
                in.gainHere_dBi = gain_dBi;
                in.gainThere_dBi = ground.gain_dBi;
                in.cable_dB = range.cable_dB;
                in.polarisation_dB = range.polarisation_dB;
                in.bandwidth_Hz = radio.bandwidth_MHz * 1e6;
                if (down) {
                    in.power_dBm = *radio.power_dBm;
                    in.noiseFigure_dB = or_(ground.noiseFigure_dB, 6, "noise figure");
                    in.needed_dB = or_(ground.needed_dB, radio.listens ? radio.needed_dB : 12, "signal over noise");
                } else {
                    in.power_dBm = or_(ground.power_dBm, radio.power_dBm.value_or(20), "power");
                    in.noiseFigure_dB = radio.noiseFigure_dB;
                    in.needed_dB = radio.needed_dB;
                }
                const LinkSum sum = linkSum(in);
                range.power_dBm = in.power_dBm;
                range.freeSpace_dB = sum.freeSpace_dB;
                range.arrives_dBm = sum.arrives_dBm;
                range.noise_dBm = sum.noise_dBm;
                range.sensitivity_dBm = sum.sensitivity_dBm;
                range.margin_dB = sum.margin_dB;
                LinkInput above = in;
                above.distance_m = std::max(1.0, ground.craftHeight_m - ground.height_m);
                above.gainHere_dBi = gainBelow_dBi(radio);
                range.overhead_dB = linkSum(above).margin_dB;
                range.ceiling_m = ground.distance_m * sum.rangeFactor;
                range.kept_m = range.ceiling_m * rangeFactor(practice[Limit::linkMargin]);
                range.fresnel_m = fresnelRadius_m(radio.centre_MHz, ground.distance_m);
                range.clearance_m = (ground.height_m + ground.craftHeight_m) / 2;
                report.ranges.push_back(std::move(range));
            }
        }
}

} // namespace

double allowedLevel_dBm(double floor_dBm, double rise_dB) { return floor_dBm + decibels(powerRatio(rise_dB) - 1); }

double farRejection_dB(const RadioUse &sender, const RadioUse &listener, const Practice &practice) {
    double octaves = 0;
    if (sender.low_MHz > listener.high_MHz)
        octaves = std::log2(sender.low_MHz / listener.high_MHz);
    else if (sender.high_MHz < listener.low_MHz && sender.high_MHz > 0)
        octaves = std::log2(listener.low_MHz / sender.high_MHz);
    return octaves * practice[Limit::rejectionSlope];
}

RadioCell cellBetween(const RadioUse &sender, const RadioUse &listener, const Practice &practice,
                      const std::vector<LineShadow> &shadows) {
    RadioCell cell;
    cell.own = sender.part == listener.part;
    if (cell.own || !sender.sends() || !listener.listens || !(sender.cases & listener.cases)) return cell;
    const BestPair pair = bestPair(sender, listener, sender.centre_MHz, practice, shadows);
    if (!pair.found) return cell;
    cell.counts = true;
    cell.coupling = pair.coupling;
    cell.fromAntenna = pair.from;
    cell.toAntenna = pair.to;
    cell.distance_mm = pair.coupling.distance_mm;
    for (const auto &from : sender.antennas)
        for (const auto &to : listener.antennas)
            cell.distance_mm = std::min(cell.distance_mm, (from.centre_mm - to.centre_mm).norm());
    cell.practiceLimit = practiceGap(sender, listener);
    if (cell.practiceLimit) {
        const double longer = sender.centre_MHz < kShortWave_MHz ? practice[Limit::longWaveGap] / 100 : 1;
        cell.practice_mm = practice[*cell.practiceLimit] * longer;
    }
    cell.floor_dBm = floorOf(listener);
    cell.arrives_dBm = *sender.power_dBm + pair.coupling.total_dB;
    cell.inBand = overlapping(sender, listener);
    const double far_dB = farRejection_dB(sender, listener, practice);
    cell.rejection_dB = cell.inBand ? 0 : listener.selectivity_dB + far_dB;
    cell.heard_dBm = cell.arrives_dBm - cell.rejection_dB;
    cell.spilled_dBm = kSilence_dBm;
    if (!cell.inBand)
        cell.spilled_dBm = *sender.power_dBm - practice[Limit::sentNoise] + decibels(listener.bandwidth_MHz) +
                           couple(sender.antennas[std::size_t(pair.from)], listener.antennas[std::size_t(pair.to)],
                                  listener.centre_MHz, practice,
                                  shadowBetween(shadows, sender.antennas[std::size_t(pair.from)].part,
                                                listener.antennas[std::size_t(pair.to)].part))
                               .total_dB;
    cell.sum_dBm = sumOf({cell.heard_dBm, cell.spilled_dBm});
    cell.rise_dB = noiseRise_dB(cell.sum_dBm - cell.floor_dBm);
    cell.margin_dB = allowedLevel_dBm(cell.floor_dBm, practice[Limit::desenseWatch]) - cell.sum_dBm;
    cell.blockingMargin_dB = listener.blocking_dBm + far_dB - cell.arrives_dBm;
    return cell;
}

void judgeRadios(RadioReport &report, const Practice &practice, const std::vector<LineShadow> &shadows) {
    report.rows.clear();
    report.columns.clear();
    report.cells.clear();
    std::vector<int> senders, listeners;
    for (std::size_t r = 0; r < report.radios.size(); ++r) {
        const RadioUse &radio = report.radios[r];
        if (radio.sends()) {
            senders.push_back(int(r));
            report.rows.push_back({DisturberKind::sender, radio.id(), int(r)});
        }
        if (radio.listens) {
            listeners.push_back(int(r));
            report.columns.push_back({radio.id(), int(r), -1});
        }
    }
    for (std::size_t c = 0; c < report.compasses.size(); ++c)
        report.columns.push_back({report.compasses[c].part + "/compass", -1, int(c)});
    report.harmonics = findHarmonics(report.radios, senders, listeners, practice, shadows);
    report.mixes = findMixes(report.radios, senders, listeners, practice, shadows);
    for (const int s : senders)
        for (const auto &column : report.columns) {
            if (column.radio < 0) {
                report.cells.emplace_back();
                continue;
            }
            RadioCell cell =
                cellBetween(report.radios[std::size_t(s)], report.radios[std::size_t(column.radio)], practice, shadows);
            double products_mW = 0;
            for (const auto &h : report.harmonics)
                if (h.sender == s && h.listener == column.radio) products_mW += milliwatts(h.level_dBm);
            for (const auto &m : report.mixes)
                if (m.at == s && m.listener == column.radio) products_mW += milliwatts(m.level_dBm);
            if (cell.counts && products_mW > 0) {
                cell.products_dBm = dBmFrom(products_mW);
                cell.sum_dBm = sumOf({cell.sum_dBm, *cell.products_dBm});
                cell.rise_dB = noiseRise_dB(cell.sum_dBm - cell.floor_dBm);
                cell.margin_dB = allowedLevel_dBm(cell.floor_dBm, practice[Limit::desenseWatch]) - cell.sum_dBm;
            }
            report.cells.push_back(std::move(cell));
        }
}

RadioReport radioReport(const Build &build, const Practice &practice, const RadioInputs &in) {
    RadioReport report;
    std::vector<double> cuts;
    for (const auto &wire : in.wiring.wires) cuts.push_back(wire.cut_mm);
    report.radios = radiosOf(build, in.loadCases, cuts);
    if (report.radios.size() > kMostRadios) {
        report.radiosLeftOut = report.radios.size() - kMostRadios;
        report.radios.resize(kMostRadios);
    }
    report.sources = fieldSources(build, in.loadCases, in.routes, in.wiring, in.power);
    report.compasses = compassReports(build, practice, in.loadCases, in.scene, report.sources);
    judgeRadios(report, practice, in.shadows);
    addNoiseRows(build, practice, in, report);
    addMagneticRows(practice, report);
    findClocks(build, in, report);
    lookAround(build, in.scene, report);
    findRanges(build, practice, report);
    return report;
}

} // namespace waxis
