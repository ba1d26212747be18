// WIR-7, WIR-8: the edges that wires lie on, and the holes they go through.
#include "core/build/frame_shapes.h"
#include "core/edits/wire_edits.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/wiring/arm_holes.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <array>
#include <fmt/format.h>

namespace waxis {

namespace {

/// Bare holes in the walls of arms that conduct, with the wires that go through them.
void judgeArmHoles(const Build &build, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &arm : build.frame->arms) {
        if (arm.holes.empty() || !isHollow(arm)) continue;
        Finding f;
        f.rule = RuleId::wirEdge;
        f.subjects = {arm.id};
        bool any = false, bare = false;
        for (const auto &hole : arm.holes)
            for (std::size_t w = 0; w < derived.routes.size(); ++w) {
                const auto at = throughHole(derived.routes[w].points_mm, arm, hole);
                if (!at) continue;
                any = true;
                if (hole.edge != HoleEdge::bare || build.wires[w].sleeved) continue;
                bare = true;
                f.from_mm = f.to_mm = at;
                const std::string &id = build.wires[w].id;
                if (std::find(f.subjects.begin(), f.subjects.end(), id) == f.subjects.end()) f.subjects.push_back(id);
            }
        if (!any) continue;
        f.severity = bare && conducts(arm.material, build.frame->materials) ? Severity::watch : Severity::pass;
        if (f.severity == Severity::watch) {
            Fix fix;
            fix.change = WireChange{WireChange::Kind::grommet, arm.id, 0, 0, false, {}, {}, Vec3::Zero()};
            f.fixes.push_back(fix);
        }
        out.push_back(std::move(f));
    }
}

/// The edges of a plate, and its holes that are made for wires.
struct Rims {
    double low_mm = 0, high_mm = 0;
    std::vector<Polygon> rings;  ///< the outline first
    std::vector<Polygon> passes; ///< judged as holes
};

Rims rimsOf(const Frame &frame, const Plate &plate) {
    Rims rims{plate.z_mm, plate.z_mm + plate.thickness_mm, {{plate.outline_mm, {}}}, {}};
    for (const auto &ring : plate.cutouts_mm) rims.rings.push_back({ring, {}});
    for (const auto &pass : frame.passThroughs)
        if (pass.plate == plate.id) rims.passes.push_back({pass.outline_mm, {}});
    return rims;
}

/// How near a point within a plate's thickness is to its rim, from outside of it or within a cut-out; none where it is
/// in the plate, or in a hole made for wires.
std::optional<double> besideRim_mm(const Rims &rims, const Vec2 &p) {
    const auto holds = [&](const Polygon &ring) { return contains(ring, p); };
    if (std::any_of(rims.passes.begin(), rims.passes.end(), holds)) return std::nullopt;
    if (holds(rims.rings.front()) && std::none_of(rims.rings.begin() + 1, rims.rings.end(), holds)) return std::nullopt;
    double least = 1e300;
    for (const auto &[ring, none] : rims.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vec2 &a = ring[i], &b = ring[(i + 1) % ring.size()];
            const double length = (b - a).squaredNorm();
            const double t = length > 0 ? std::clamp((p - a).dot(b - a) / length, 0.0, 1.0) : 0;
            least = std::min(least, (p - (a + t * (b - a))).norm());
        }
    return least;
}

/// The same change of every wire that a finding names behind its plate.
Fix forAll(const std::vector<std::string> &subjects, WireChange::Kind kind) {
    Fix fix;
    for (std::size_t i = 1; i < subjects.size(); ++i) {
        WireChange change;
        change.kind = kind;
        change.wire = subjects[i];
        if (i == 1)
            fix.change = change;
        else
            fix.then.emplace_back(std::string(), change);
    }
    return fix;
}

/// The first place where a wire passes a plate's rim so near that it lies on it.
std::optional<Vec3> onRim(const Rims &rims, const std::vector<Vec3> &samples, double bundle_mm) {
    constexpr double kLies_mm = 2.5; // wires are drawn that much off what they lie on
    for (const Vec3 &p : samples) {
        if (p.z() < rims.low_mm || p.z() > rims.high_mm) continue;
        if (const auto near = besideRim_mm(rims, p.head<2>()); near && *near <= kLies_mm + bundle_mm / 2) return p;
    }
    return std::nullopt;
}

/// Wires that go round the rim of a plate, or through a cut-out, from one face to the other; one finding for each
/// plate.
void judgeRims(const Build &build, const Derived &derived, std::vector<Finding> &out) {
    constexpr double kStep_mm = 1;
    const Frame &frame = *build.frame;
    std::vector<std::vector<Vec3>> samples(derived.routes.size());
    for (std::size_t w = 0; w < derived.routes.size(); ++w)
        if (derived.routes[w].found && derived.routes[w].points_mm.size() >= 2)
            samples[w] = samplesAlong(derived.routes[w].points_mm, kStep_mm);
    for (const auto &plate : frame.plates) {
        if (!conducts(plate.material, frame.materials)) continue;
        const Rims rims = rimsOf(frame, plate);
        Finding f;
        f.rule = RuleId::wirEdge;
        f.variant = "rim";
        f.severity = Severity::pass;
        f.subjects = {plate.id};
        bool any = false;
        for (std::size_t w = 0; w < samples.size(); ++w) {
            const auto at = onRim(rims, samples[w], derived.wiring->wires[w].bundle_mm);
            if (!at) continue;
            any = true;
            if (build.wires[w].sleeved || build.wires[w].edgesTaped) continue;
            f.subjects.push_back(build.wires[w].id);
            if (!f.from_mm) f.from_mm = f.to_mm = at;
        }
        if (!any) continue;
        if (f.subjects.size() > 1) {
            f.severity = Severity::watch;
            for (const auto kind : {WireChange::Kind::tapeEdges, WireChange::Kind::sleeve})
                f.fixes.push_back(forAll(f.subjects, kind));
        }
        out.push_back(std::move(f));
    }
}

} // namespace

static void judgeHoleEdge(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    judgeArmHoles(build, derived, out);
    judgeRims(build, derived, out);
    for (const auto &use : derived.wiring->holes) {
        if (use.wires.empty()) continue;
        const auto &frame = *build.frame;
        const auto pass = std::find_if(frame.passThroughs.begin(), frame.passThroughs.end(),
                                       [&](const PassThrough &p) { return p.id == use.pass; });
        const auto plate =
            std::find_if(frame.plates.begin(), frame.plates.end(), [&](const Plate &p) { return p.id == pass->plate; });
        if (plate == frame.plates.end()) continue;
        Finding f;
        f.rule = RuleId::wirEdge;
        f.subjects = {use.pass};
        for (const int w : use.wires)
            if (!build.wires[std::size_t(w)].sleeved) f.subjects.push_back(build.wires[std::size_t(w)].id);
        const bool sharp = conducts(plate->material, frame.materials);
        f.severity = pass->edge == HoleEdge::bare && sharp && f.subjects.size() > 1 ? Severity::watch : Severity::pass;
        Vec2 middle = areaProperties({pass->outline_mm, {}}).centroid_mm;
        f.from_mm = f.to_mm = Vec3(middle.x(), middle.y(), plate->z_mm + plate->thickness_mm);
        if (f.severity == Severity::watch) {
            Fix fix;
            fix.change = WireChange{WireChange::Kind::grommet, use.pass, 0, 0, false, {}, {}, Vec3::Zero()};
            f.fixes.push_back(fix);
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordHoleEdge(const Build &build, const Finding &f) {
    if (f.variant == "rim")
        return {
            {"Round the bare edge of {0}: {1}",
             {nameWithin(build, f.subjects[0]), listNames(build, std::span(f.subjects).subspan(1))}},
            {"Vibration saws through the jacket, and carbon conducts: a slow short. Tape the edge, sleeve the wires, "
             "or tie them back.",
             {}}};
    return {
        {"Bare {0} edge under {1}",
         {[&] {
              for (const auto &pass : build.frame->passThroughs)
                  if (pass.id == f.subjects[0])
                      for (const auto &plate : build.frame->plates)
                          if (plate.id == pass.plate) return plate.material;
              for (const auto &arm : build.frame->arms)
                  if (arm.id == f.subjects[0]) return arm.material;
              return std::string("plate");
          }(),
          f.subjects.size() == 2 ? nameWithin(build, f.subjects[1]) : fmt::format("{} wires", f.subjects.size() - 1)}},
        {"No grommet in {0}: vibration cuts through the jacket. Put in a grommet, or sleeve the wires.",
         {f.subjects[0]}}};
}

static void judgeHoleFill(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &use : derived.wiring->holes) {
        if (use.wires.empty()) continue;
        Finding f;
        f.rule = RuleId::wirFill;
        f.subjects = {use.pass};
        for (const int w : use.wires) f.subjects.push_back(build.wires[std::size_t(w)].id);
        f.unit = "%";
        f.measured = use.fill * 100;
        f.limit = use.limit * 100;
        f.margin = *f.limit - *f.measured;
        f.severity = use.fill > 1 ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = {
            {"area", use.area_mm2, "mm2"}, {"largest circle", use.hole_mm, "mm"}, {"bundle", use.bundle_mm, "mm"}};
        for (const auto &pass : build.frame->passThroughs)
            if (pass.id == use.pass) {
                const Vec2 middle = areaProperties({pass.outline_mm, {}}).centroid_mm;
                f.from_mm = f.to_mm = Vec3(middle.x(), middle.y(), 0);
            }
        out.push_back(std::move(f));
    }
}

static FindingText wordHoleFill(const Build &, const Finding &f) {
    return {
        {"{0} is {1} % full of wires; {2} % goes through without force",
         {f.subjects[0], wholeNumber(*f.measured), wholeNumber(*f.limit)}},
        {"Lead some of the {0} wires another way, or make the hole larger.", {std::to_string(f.subjects.size() - 1)}}};
}

std::span<const Rule> wireEdgesRules() {
    static const std::array<Rule, 2> rules{{
        {RuleId::wirEdge,
         "Bare edges",
         "A carbon edge is a saw: in vibration it cuts through any jacket.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::wiring, Need::routes),
         judgeHoleEdge,
         wordHoleEdge},
        {RuleId::wirFill,
         "Hole too full",
         "A hole that is stuffed cannot be passed by the next plug and chafes what is in it.",
         "fill of NFPA 70 chapter 9 table 1, from memory",
         Stage::wire,
         {},
         needs(Need::wiring),
         judgeHoleFill,
         wordHoleFill},
    }};
    return rules;
}

} // namespace waxis
