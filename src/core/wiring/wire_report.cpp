// cut = (route + corners) x twist + ends + re-termination + slack, rounded up.
#include "core/wiring/wire_report.h"

#include "core/balance/mass_rows.h"
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/scene/scene.h"
#include "core/wiring/bundle.h"
#include "core/wiring/core_gauge.h"
#include "core/wiring/gauge.h"
#include "core/wiring/routing.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace waxis {

namespace {

constexpr std::array<double, 10> kCables_mm{30, 50, 80, 100, 120, 150, 200, 250, 300, 500};
constexpr std::array<double, 6> kFlatCables_mm{30, 60, 80, 120, 140, 200};
constexpr std::array<double, 8> kCoax_mm{50, 70, 100, 120, 150, 200, 250, 300};

struct Corner {
    double turn_deg = 0;
    double room_mm = 0; ///< of a rounding's tangents on either side
    Vec3 at_mm = Vec3::Zero();
};

std::vector<Corner> cornersOf(const std::vector<Vec3> &points) {
    std::vector<Corner> corners;
    for (std::size_t i = 1; i + 1 < points.size(); ++i) {
        const Vec3 in = points[i] - points[i - 1], out = points[i + 1] - points[i];
        const double turn = degreesFromRadians(std::atan2(in.cross(out).norm(), in.dot(out)));
        if (turn < 0.5) continue;
        // The next corner wants its half of the edge, the end of the wire does not.
        const double before = i == 1 ? in.norm() : in.norm() / 2;
        const double after = i + 2 == points.size() ? out.norm() : out.norm() / 2;
        corners.push_back({turn, std::min(before, after), points[i]});
    }
    return corners;
}

struct Bend {
    double radius_mm = 0; ///< inside; 0: no bend worth the name
    Vec3 at_mm = Vec3::Zero();
};

/// The tightest bend that a wire would take that cuts corners as far as `wanted_mm` lets it: the circle through three
/// points that far apart along the route, scaled so that a single square corner with room for the wanted radius has it.
Bend tightestBend(const WireRoute &route, double wanted_mm, double outer_mm) {
    Bend tightest;
    const double reach = wanted_mm + outer_mm / 2;
    constexpr double kStep_mm = 2.5;
    for (double s = reach; s <= route.length_mm - reach; s += kStep_mm) {
        const Vec3 a = pointAlong(route.points_mm, s - reach), b = pointAlong(route.points_mm, s),
                   c = pointAlong(route.points_mm, s + reach);
        const double twiceArea = (b - a).cross(c - a).norm();
        if (twiceArea < 0.05 * reach * reach) continue;
        const double circle = (b - a).norm() * (c - b).norm() * (c - a).norm() / (2 * twiceArea);
        const double inside = circle * std::sqrt(2.0) - outer_mm / 2;
        if (tightest.radius_mm != 0 && inside >= tightest.radius_mm) continue;
        tightest = {std::max(0.01, inside), b};
    }
    return tightest;
}

const SuppliedLead *leadAt(const Build &build, const WireEnd &end) {
    const Part *part = findPart(build, end.part);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (!type) return nullptr;
    for (const auto &lead : type->leads)
        if (lead.port == end.port) return &lead;
    return nullptr;
}

const BodyOwner *ownerOf(const std::vector<BodyOwner> &owners, const std::string &id) {
    const auto at = std::find_if(owners.begin(), owners.end(), [&](const BodyOwner &o) { return o.id == id; });
    return at == owners.end() ? nullptr : &*at;
}

/// Whether a part is fastened to the plate that comes off when the craft is opened: the highest, when standoffs carry
/// it.
bool onTheLid(const Build &build, const std::string &id) {
    const auto &plates = build.frame->plates;
    if (plates.size() < 2) return false;
    const auto top =
        std::max_element(plates.begin(), plates.end(), [](const Plate &a, const Plate &b) { return a.z_mm < b.z_mm; });
    const Part *part = findPart(build, id);
    for (int depth = 0; part && depth < 4; ++depth) {
        const auto &onto = part->fastening.onto;
        if (std::find(onto.begin(), onto.end(), top->id) != onto.end()) return true;
        for (const auto &site : build.frame->sites)
            if (site.id == part->placement.site) return site.on == top->id;
        part = onto.empty() ? nullptr : findPart(build, onto.front());
    }
    return false;
}

double metreMass_g(const Wire &wire, int awg) {
    constexpr double kMicroCoax_g_m = 3.2, kFlatCore_g_m = 0.5; // common practice, no source
    if (wire.lay == WireLay::coax) return kMicroCoax_g_m;
    if (wire.lay == WireLay::flat) return kFlatCore_g_m;
    const WireStock *stock = findWireStock(awg);
    return stock ? stock->mass_g_m : 1.4 * awgCopper_g_m(awg);
}

Vec3 centroidOf(const std::vector<Vec3> &points) {
    Vec3 sum = Vec3::Zero();
    double length = 0;
    for (std::size_t i = 0; i + 1 < points.size(); ++i) {
        const double piece = (points[i + 1] - points[i]).norm();
        sum += piece * (points[i] + points[i + 1]) / 2;
        length += piece;
    }
    return length > 0 ? Vec3(sum / length) : points.front();
}

/// As weighed in the box, else by the catalogue; nothing where neither says.
double insertMass_g(const Build &build, const WireInsert &insert) {
    if (const KitEntry *entry = findKitEntry(build, insert.type); entry && entry->mass_g.known())
        return *entry->mass_g.value;
    const auto type = build.types->find(insert.type);
    return type == build.types->end() ? 0 : type->second.mass_g.value.value_or(0);
}

void judgeLead(const Build &build, const Practice &practice, const Wire &wire, WireReport &report) {
    const double round_mm = std::max(1.0, practice[Limit::wireRound]);
    report.cut_mm = std::ceil(report.needed_mm / round_mm - 1e-9) * round_mm;
    report.verdict = LeadVerdict::cut;
    if (wire.make == WireMake::stock) return;
    if (wire.make == WireMake::readyMade) {
        report.verdict = LeadVerdict::none;
        if (wire.readyMade_mm)
            report.supplied_mm = *wire.readyMade_mm;
        else
            for (const double length : readyMadeLengths_mm(wire.lay))
                if (!report.supplied_mm && length >= report.needed_mm) report.supplied_mm = length;
        if (!report.supplied_mm) return;
        report.spare_mm = *report.supplied_mm - report.needed_mm;
        report.verdict = report.spare_mm < 0 ? LeadVerdict::shortBy : LeadVerdict::readyMade;
        report.cut_mm = *report.supplied_mm;
        return;
    }
    for (const WireEnd *end : {&wire.from, &wire.to})
        if (const SuppliedLead *lead = leadAt(build, *end)) {
            report.supplied_mm = lead->length_mm;
            report.leadOf = end->part;
            report.leadPlug = lead->plug;
            report.spare_mm = lead->length_mm - report.needed_mm;
            // A plug on it is not cut off to shorten the lead; what is longer by less than a re-termination stays.
            const bool keep = !lead->plug.empty() || report.spare_mm <= practice[Limit::wireResolder];
            report.verdict = report.spare_mm < 0 ? LeadVerdict::shortBy
                             : keep              ? LeadVerdict::asItIs
                                                 : LeadVerdict::trim;
            report.cut_mm = report.verdict == LeadVerdict::trim ? report.cut_mm : lead->length_mm;
            return;
        }
}

bool carriesMuch(WireRole role) { return role == WireRole::power || role == WireRole::phase; }
/// Lamps, buzzers and motor signals do not mind what runs beside them.
bool hears(const Build &build, const Wire &wire, WireRole role) {
    if (role == WireRole::video || role == WireRole::coax) return true;
    return std::any_of(wire.cores.begin(), wire.cores.end(), [&](const WireCore &core) {
        const SignalKind kind = signalAt(build, wire.from, core.fromPin).kind;
        return kind == SignalKind::serialTx || kind == SignalKind::serialRx || kind == SignalKind::busData ||
               kind == SignalKind::busClock || kind == SignalKind::channel || kind == SignalKind::audioIn ||
               kind == SignalKind::audioOut || kind == SignalKind::sense;
    });
}

/// Supplies of a few hundred milliamperes disturb nobody: what counts is the pack's own copper and the motors'.
bool disturbs(const Build &build, const Wire &wire) {
    for (const auto &core : wire.cores) {
        const Signal signal = signalAt(build, wire.from, core.fromPin);
        if (signal.kind == SignalKind::phase || (signal.kind == SignalKind::supply && !signal.supply_V)) return true;
    }
    return false;
}

WireReport reportOn(const Build &build, const Practice &practice, const Wire &wire, const WireRoute &route,
                    const std::vector<BodyOwner> &owners) {
    WireReport report;
    report.wire = wire.id;
    report.role = roleOf(build, wire);
    report.disturbs = carriesMuch(report.role) && disturbs(build, wire);
    report.minds = !carriesMuch(report.role) && hears(build, wire, report.role);
    report.gauge_AWG = 40;
    std::vector<double> outers;
    for (const auto &core : wire.cores) {
        const int awg = gaugeOf(build, wire, core);
        report.gauge_AWG = std::min(report.gauge_AWG, awg);
        outers.push_back(coreDiameter_mm(wire, awg));
        report.outer_mm = std::max(report.outer_mm, outers.back());
    }
    report.bundle_mm = wire.lay == WireLay::coax ? report.outer_mm : bundleDiameter_mm(outers);
    const bool coax = wire.lay == WireLay::coax;
    const bool strict = practice.follows("bends", "aviation");
    const double times = coax ? (strict ? 6 : practice[Limit::bendCoax])
                              : (strict && outers.size() > 1 ? 10 : practice[Limit::bendWire]);
    report.bendLimit_mm = times * (strict && !coax && outers.size() > 1 ? report.bundle_mm : report.outer_mm);
    if (route.points_mm.size() < 2) return report;
    report.route_mm = route.length_mm;
    const double radius = report.bendLimit_mm + report.outer_mm / 2; // of the wire's middle
    for (const auto &corner : cornersOf(route.points_mm)) {
        const double half = std::tan(radiansFromDegrees(std::min(corner.turn_deg, 170.0)) / 2);
        const double fits = half > 0 ? corner.room_mm / half : 1e300;
        report.corners_mm += cornerChange_mm(std::min(radius, fits), corner.turn_deg);
    }
    const Bend bend = tightestBend(route, report.bendLimit_mm, report.outer_mm);
    report.tightest_mm = bend.radius_mm;
    report.tightestAt_mm = bend.at_mm;
    const bool twisted = wire.lay == WireLay::twisted || (wire.lay == WireLay::shielded && wire.cores.size() > 1);
    constexpr double kUsualPitch = 8; // outside diameters a turn; common practice, no source
    if (twisted)
        report.twist =
            twistFactor(report.outer_mm, wire.twistPitch_mm > 0 ? wire.twistPitch_mm : kUsualPitch * report.outer_mm);
    bool solders = false;
    for (const WireEnd *end : {&wire.from, &wire.to}) {
        const bool soldered = isSoldered(build, *end);
        solders |= soldered;
        report.ends_mm += practice[soldered ? Limit::endSolder : Limit::endCrimp];
    }
    const bool fixedLength = wire.make == WireMake::readyMade || coax || wire.lay == WireLay::flat;
    if (solders && !fixedLength) report.resolder_mm = practice[Limit::wireResolder];
    const BodyOwner *from = ownerOf(owners, wire.from.part), *to = ownerOf(owners, wire.to.part);
    if (from && to && from->isolated != to->isolated) {
        report.slack_mm += practice[Limit::wireSwaySlack];
        report.slackFor.push_back("sway");
    }
    if (onTheLid(build, wire.from.part) != onTheLid(build, wire.to.part)) {
        report.slack_mm += practice[Limit::wireOpenSlack];
        report.slackFor.push_back("open");
    }
    if (practice[Limit::wireOwnSlack] > 0 && !fixedLength) {
        report.slack_mm += practice[Limit::wireOwnSlack];
        report.slackFor.push_back("own");
    }
    report.needed_mm =
        (report.route_mm + report.corners_mm) * report.twist + report.ends_mm + report.resolder_mm + report.slack_mm;
    judgeLead(build, practice, wire, report);
    const bool supplied = !report.leadOf.empty();
    const double counted = supplied ? report.cut_mm - *report.supplied_mm : report.cut_mm;
    // What is cut off a supplied lead weighs what that lead does, whatever else the file says.
    Wire weighed = wire;
    if (supplied) {
        weighed.gauge_AWG.reset();
        for (auto &core : weighed.cores) core.gauge_AWG.reset();
    }
    for (const auto &core : weighed.cores)
        report.mass_g += counted * 1e-3 * metreMass_g(wire, gaugeOf(build, weighed, core));
    if (coax && !wire.cores.empty()) report.mass_g /= double(wire.cores.size()); // its cores are one cable
    constexpr double kSleeve_g_m = 2.0;
    if (wire.sleeved) report.mass_g += report.route_mm * 1e-3 * kSleeve_g_m;
    for (const auto &insert : wire.inserts) report.mass_g += insertMass_g(build, insert);
    report.centroid_mm = centroidOf(route.points_mm);
    return report;
}

/// Points along a route every few millimetres, with the way that it goes there.
struct Sample {
    Vec3 at_mm, along;
    double length_mm;
};
std::vector<Sample> samplesOf(const WireRoute &route) {
    constexpr double kStep_mm = 4, kOnACraft_mm = 6000; // what is longer leads to a mistyped place
    std::vector<Sample> samples;
    if (route.length_mm > kOnACraft_mm) return samples;
    for (std::size_t i = 0; i + 1 < route.points_mm.size(); ++i) {
        const Vec3 edge = route.points_mm[i + 1] - route.points_mm[i];
        const double length = edge.norm();
        if (length < 1e-9) continue;
        const int pieces = std::max(1, int(std::ceil(length / kStep_mm)));
        for (int k = 0; k < pieces; ++k)
            samples.push_back({route.points_mm[i] + edge * ((k + 0.5) / pieces), edge / length, length / pieces});
    }
    return samples;
}

/// Which wires run as before: their reports, and what they meet among themselves, hold. Empty: none.
std::vector<bool> keptRoutes(const std::vector<WireRoute> &routes, const WiringBefore *before) {
    std::vector<bool> kept(routes.size(), false);
    if (!before || before->routes.size() != routes.size() || before->report.wires.size() != routes.size()) return kept;
    for (std::size_t i = 0; i < routes.size(); ++i) kept[i] = routes[i] == before->routes[i];
    return kept;
}

/// Finds where wires run beside each other; samples of a route are taken when they are first asked for.
class Meetings {
public:
    Meetings(const Build &build, const Practice &practice, const std::vector<WireRoute> &routes,
             const std::vector<WireReport> &wires)
        : build_(build), routes_(routes), wires_(wires), limit_mm_(practice[Limit::parallelGap]),
          samples_(routes.size()), boxes_(routes.size()), sampled_(routes.size(), false) {
        for (std::size_t i = 0; i < routes.size(); ++i) {
            if (wires[i].disturbs) louds_.push_back(i);
            if (wires[i].minds) hearings_.push_back(i);
        }
    }

    std::vector<WireMeeting> all(const std::vector<bool> &kept, const WiringBefore *before) {
        std::vector<WireMeeting> meetings;
        std::size_t next = 0; // of those found before, which come in the same order
        for (const std::size_t a : louds_)
            for (const std::size_t b : hearings_) {
                if (kept[a] && kept[b]) {
                    const auto &known = before->report.meetings;
                    const auto earlier = [&](const WireMeeting &m) {
                        return std::pair(std::size_t(m.a), std::size_t(m.b)) < std::pair(a, b);
                    };
                    while (next < known.size() && earlier(known[next])) ++next;
                    if (next < known.size() && std::size_t(known[next].a) == a && std::size_t(known[next].b) == b)
                        meetings.push_back(known[next]);
                } else if (const auto meeting = between(a, b)) {
                    meetings.push_back(*meeting);
                }
            }
        return meetings;
    }

private:
    const std::vector<Sample> &samples(std::size_t wire) {
        if (!sampled_[wire]) {
            sampled_[wire] = true;
            samples_[wire] = samplesOf(routes_[wire]);
            for (const auto &sample : samples_[wire]) boxes_[wire].include(sample.at_mm);
        }
        return samples_[wire];
    }

    std::optional<WireMeeting> between(std::size_t a, std::size_t b) {
        const auto &loudly = samples(a), &heard = samples(b);
        if (loudly.empty() || heard.empty() || boxGap(boxes_[a], boxes_[b]) > limit_mm_) return std::nullopt;
        WireMeeting meeting{int(a), int(b), 0, 1e300, 0, Vec3::Zero(), false};
        for (const auto &hearing : heard) {
            const Sample *nearest = nullptr;
            double least = 1e300;
            for (const auto &loud : loudly)
                if (const double away = (loud.at_mm - hearing.at_mm).squaredNorm(); away < least) {
                    least = away;
                    nearest = &loud;
                }
            const double away = std::sqrt(least);
            if (away <= limit_mm_ && std::abs(nearest->along.dot(hearing.along)) > std::cos(radiansFromDegrees(45)))
                meeting.together_mm += hearing.length_mm;
            if (away < meeting.apart_mm) {
                meeting.apart_mm = away;
                meeting.at_mm = (nearest->at_mm + hearing.at_mm) / 2;
                meeting.angle_deg =
                    degreesFromRadians(std::acos(std::min(1.0, std::abs(nearest->along.dot(hearing.along)))));
            }
        }
        if (meeting.apart_mm > limit_mm_) return std::nullopt;
        const WireLay la = build_.wires[a].lay, lb = build_.wires[b].lay;
        meeting.eased = la == WireLay::twisted || la == WireLay::shielded || lb == WireLay::twisted ||
                        lb == WireLay::shielded || lb == WireLay::coax;
        return meeting;
    }

    const Build &build_;
    const std::vector<WireRoute> &routes_;
    const std::vector<WireReport> &wires_;
    double limit_mm_;
    std::vector<std::vector<Sample>> samples_;
    std::vector<Aabb> boxes_;
    std::vector<bool> sampled_;
    std::vector<std::size_t> louds_, hearings_;
};

/// Diameter of the largest circle in a ring, by a search that halves its step.
double roomIn(const Ring &ring) {
    Vec2 at = areaProperties({ring, {}}).centroid_mm;
    auto away = [&](const Vec2 &p) {
        const double d = pointDistance(Prism{{ring, {}}, 1}, Vec3(p.x(), p.y(), 0.5));
        if (d > 0) return -d;
        double least = 1e300;
        for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
            const Vec2 edge = ring[i] - ring[j];
            const double t = std::clamp((p - ring[j]).dot(edge) / std::max(1e-12, edge.squaredNorm()), 0.0, 1.0);
            least = std::min(least, (p - ring[j] - t * edge).norm());
        }
        return least;
    };
    double best = away(at);
    for (double step = 4; step > 0.01; step /= 2)
        for (bool moved = true; moved;) {
            moved = false;
            for (const Vec2 &d : {Vec2(step, 0), Vec2(-step, 0), Vec2(0, step), Vec2(0, -step)})
                if (const double next = away(at + d); next > best + 1e-9) {
                    best = next;
                    at += d;
                    moved = true;
                }
        }
    return 2 * std::max(0.0, best);
}

std::vector<HoleUse> holesOf(const Build &build, const std::vector<WireRoute> &routes, const WiringBefore *before) {
    std::vector<HoleUse> holes;
    const bool known = before && before->report.holes.size() == build.frame->passThroughs.size();
    for (const auto &pass : build.frame->passThroughs) {
        HoleUse use;
        use.pass = pass.id;
        std::vector<double> outers;
        double squares = 0;
        for (std::size_t w = 0; w < routes.size(); ++w) {
            const bool through =
                std::any_of(routes[w].supports.begin(), routes[w].supports.end(), [&](const RouteSupport &s) {
                    return s.kind == SupportKind::passThrough && s.id == pass.id;
                });
            if (!through) continue;
            use.wires.push_back(int(w));
            const Wire &wire = build.wires[w];
            const std::size_t pieces = wire.lay == WireLay::coax ? 1 : wire.cores.size();
            for (std::size_t c = 0; c < pieces; ++c) {
                outers.push_back(coreDiameter_mm(wire, gaugeOf(build, wire, wire.cores[c])));
                squares += outers.back() * outers.back();
            }
        }
        use.hole_mm = known ? before->report.holes[holes.size()].hole_mm : roomIn(pass.outline_mm);
        use.area_mm2 =
            known ? before->report.holes[holes.size()].area_mm2 : areaProperties({pass.outline_mm, {}}).area_mm2;
        use.limit = fillLimit(outers.size());
        if (use.area_mm2 > 0) use.fill = kPi / 4 * squares / use.area_mm2; // a slot has more room than its round part
        use.bundle_mm = bundleDiameter_mm(outers);
        holes.push_back(std::move(use));
    }
    return holes;
}

} // namespace

std::span<const double> readyMadeLengths_mm(WireLay lay) {
    switch (lay) {
    case WireLay::coax: return kCoax_mm;
    case WireLay::flat: return kFlatCables_mm;
    case WireLay::loose:
    case WireLay::twisted:
    case WireLay::shielded: return kCables_mm;
    }
    return kCables_mm;
}

bool isSoldered(const Build &build, const WireEnd &end) {
    const Port *port = portOf(build, end);
    return !port || port->kind == PortKind::pads;
}

WiringReport wiringReport(const Build &build, const Practice &practice, const std::vector<WireRoute> &routes,
                          const std::vector<BodyOwner> &owners, const WiringBefore *before) {
    WiringReport report;
    const std::vector<bool> kept = keptRoutes(routes, before);
    for (std::size_t i = 0; i < build.wires.size(); ++i)
        report.wires.push_back(kept[i] ? before->report.wires[i]
                                       : reportOn(build, practice, build.wires[i], routes[i], owners));
    report.meetings = Meetings(build, practice, routes, report.wires).all(kept, before);
    report.holes = holesOf(build, routes, before);
    return report;
}

MassRow massRowOf(const Build &build, const Wire &wire, const WireReport &report, const Practice &practice,
                  const std::vector<LoadCase> &loadCases) {
    MassRow row;
    row.id = wire.id;
    row.kind = MassKind::wire;
    row.family = Family::power;
    row.known = report.verdict != LeadVerdict::unknown;
    row.source = Source::estimated;
    const Part *from = findPart(build, wire.from.part), *to = findPart(build, wire.to.part);
    if (from && to) row.cases = casesAboard(*from, loadCases) & casesAboard(*to, loadCases);
    row.element.mass_g = report.mass_g;
    row.element.centroid_mm = report.centroid_mm;
    row.tolerance_g = std::abs(report.mass_g) * practice[Limit::estimatedMassShare] / 100;
    return row;
}

} // namespace waxis
