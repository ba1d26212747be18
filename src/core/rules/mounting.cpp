// FIT-5: do the holes line up, does a screw go through, has its head room.
#include "core/build/frame_shapes.h"
#include "core/fasteners/thread.h"
#include "core/rules/rule.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

std::string patternWords(const HolePattern &p) {
    switch (p.shape) {
    case PatternShape::square: return fmt::format("{:g} mm square", p.size_mm);
    case PatternShape::rectangle: return fmt::format("{:g} x {:g} mm", p.size_mm, p.width_mm);
    case PatternShape::circle: return fmt::format("{:g} mm circle", p.size_mm);
    }
    return {};
}

/// The thickest screw that passes both holes.
const ThreadSize *screwThrough(double holeA_mm, double holeB_mm) {
    const ThreadSize *best = nullptr;
    for (const auto &thread : threadSizes())
        if (thread.nominal_mm <= std::min(holeA_mm, holeB_mm) + 1e-9) best = &thread;
    return best;
}

const HolePattern *patternOfSeat(const Frame &frame, const std::string &seat) {
    for (const auto &site : frame.sites)
        if (site.id == seat) return site.pattern ? &*site.pattern : nullptr;
    for (const auto &mount : frame.motorMounts)
        if (mount.id == seat) return mount.pattern.size_mm > 0 ? &mount.pattern : nullptr;
    return nullptr;
}

/// Least distance from the pattern's holes to the edge of the plate that carries the site; none without such a plate.
std::optional<double> landAt(const Build &build, const std::string &seat, const HolePattern &pattern) {
    const Frame &frame = *build.frame;
    for (const auto &site : frame.sites)
        if (site.id == seat)
            for (const auto &plate : frame.plates) {
                if (plate.id != site.on) continue;
                double least = 1e300;
                for (const auto &c : holeCentres(pattern)) {
                    const Vec2 p = (site.X_FrameSite * Vec3(c.x(), c.y(), 0)).head<2>();
                    for (std::size_t i = 0; i < plate.outline_mm.size(); ++i) {
                        const Vec2 &a = plate.outline_mm[i],
                                   d = plate.outline_mm[(i + 1) % plate.outline_mm.size()] - a;
                        const double t = std::clamp((p - a).dot(d) / std::max(d.squaredNorm(), 1e-12), 0.0, 1.0);
                        least = std::min(least, (a + d * t - p).norm());
                    }
                }
                return least;
            }
    return std::nullopt;
}

bool anAdapterCarries(const Build &build, const Part &part, const HolePattern &seat, const HolePattern &own) {
    return std::any_of(part.fastening.onto.begin(), part.fastening.onto.end(), [&](const std::string &id) {
        const Part *other = findPart(build, id);
        const PartType *type = other ? typeOf(build, *other) : nullptr;
        return type && type->mounting && type->carries && linesUp(*type->mounting, seat) &&
               linesUp(*type->carries, own);
    });
}

} // namespace

static void judgeMounting(const Build &build, const Practice &, const Derived &, std::vector<Finding> &out) {
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        const HolePattern *seat = patternOfSeat(*build.frame, part.placement.site);
        if (!type || !type->mounting || !seat || part.fastening.method == FasteningMethod::tape ||
            part.fastening.method == FasteningMethod::hookAndLoop || part.fastening.method == FasteningMethod::glue)
            continue;
        const HolePattern &own = *type->mounting;
        Finding f;
        f.rule = RuleId::fitMounting;
        f.subjects = {part.id, part.placement.site};
        f.unit = "mm";
        if (!linesUp(*seat, own)) {
            if (anAdapterCarries(build, part, *seat, own)) continue;
            f.severity = Severity::stop;
            f.variant = "pattern";
            f.measured = own.size_mm;
            f.limit = seat->size_mm;
            f.margin = -std::max(std::abs(own.size_mm - seat->size_mm), 0.1);
            f.inputs = {{"pattern of the part", own.size_mm, "mm"}, {"pattern of the site", seat->size_mm, "mm"}};
            out.push_back(std::move(f));
            continue;
        }
        const ThreadSize *screw = screwThrough(seat->holeDiameter_mm, own.holeDiameter_mm);
        if (!screw) {
            f.severity = Severity::stop;
            f.variant = "hole";
            f.measured = std::min(seat->holeDiameter_mm, own.holeDiameter_mm);
            f.limit = threadSizes().front().nominal_mm;
            f.margin = *f.measured - *f.limit;
            out.push_back(std::move(f));
            continue;
        }
        // A head that is hardly larger than the hole it sits on pulls through; soft grommets fill holes in boards.
        const double wider = seat->holeDiameter_mm;
        const double head = screw->capHead_mm - wider;
        f.variant = "head";
        f.measured = head;
        f.limit = 0.8;
        f.margin = head - 0.8;
        f.inputs = {{"hole of the site", seat->holeDiameter_mm, "mm"},
                    {"hole of the part", own.holeDiameter_mm, "mm"},
                    {"head of the screw", screw->capHead_mm, "mm"}};
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        if (f.severity == Severity::pass)
            if (const auto land = landAt(build, part.placement.site, *seat)) {
                f.variant = "edge";
                f.measured = *land;
                f.limit = screw->capHead_mm / 2;
                f.margin = *f.measured - *f.limit;
                f.inputs = {{"hole centre to plate edge", *land, "mm"},
                            {"half a screw head", screw->capHead_mm / 2, "mm"}};
                f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
            }
        out.push_back(std::move(f));
    }
}

static FindingText wordMounting(const Build &build, const Finding &f) {
    const Part *part = findPart(build, f.subjects[0]);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    const HolePattern *seat = patternOfSeat(*build.frame, f.subjects[1]);
    const std::string name = displayName(build, f.subjects[0]), site = nameWithin(build, f.subjects[1]);
    if (!type || !type->mounting || !seat) return {{"{0} does not fit its site", {name}}, {"", {}}};
    if (f.variant == "pattern") {
        std::string adapter;
        for (const auto &[id, candidate] : *build.types)
            if (candidate.mounting && candidate.carries && linesUp(*candidate.mounting, *seat) &&
                linesUp(*candidate.carries, *type->mounting))
                adapter = candidate.name;
        FindingText text;
        text.headline = {"{0} has a {1}, {2} has a {3}",
                         {name, patternWords(*type->mounting), site, patternWords(*seat)}};
        if (!adapter.empty())
            text.detail = {"{0} would carry it.", {adapter}};
        else
            text.detail = {"An adapter plate from {0} to {1} would carry it, or another site.",
                           {patternWords(*seat), patternWords(*type->mounting)}};
        return text;
    }
    if (f.variant == "hole")
        return {{"No screw goes through {0} and {1}", {name, site}},
                {"The smaller hole is {0} mm; M1.6 needs {1} mm.", {oneDecimal(*f.measured), oneDecimal(*f.limit)}}};
    if (f.variant == "edge")
        return {{"The screw heads of {0} stand over the plate's edge", {name}},
                {"{0} mm from hole to edge, {1} mm wanted for half a head.",
                 {oneDecimal(*f.measured), oneDecimal(*f.limit)}}};
    return {{"The screws of {0} pull through {1}", {name, site}},
            {"Their head is only {0} mm wider than the hole; put washers under them, or use the larger screw.",
             {oneDecimal(*f.measured)}}};
}

std::span<const Rule> mountingRules() {
    static const std::array<Rule, 1> rules{{
        {RuleId::fitMounting,
         "Mounting holes",
         "Holes that do not line up are found when the screws are in hand; a head smaller than its hole pulls "
         "through.",
         "ISO 273 clearance holes, ISO 4762 heads, from memory",
         Stage::place,
         {},
         needs(Need::places),
         judgeMounting,
         wordMounting},
    }};
    return rules;
}

} // namespace waxis
