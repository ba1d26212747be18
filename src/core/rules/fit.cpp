// FIT: does everything find room.
#include "core/base/units.h"
#include "core/build/arm_of.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/layout/relayout.h"
#include "core/practice/blade_room.h"
#include "core/rules/gather.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/scene/body_table.h"
#include "core/scene/scene.h"
#include "core/survey/at_hand.h"
#include "core/survey/helps.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <iterator>
#include <map>
#include <tuple>

namespace waxis {

namespace {

std::vector<std::string> pairOf(const Derived &derived, const BodyGap &gap) {
    return {derived.scene.owners[derived.scene.traits[gap.a].owner].id,
            derived.scene.owners[derived.scene.traits[gap.b].owner].id};
}

/// Two things may meet at several bodies: keeps the worst per pair and variant. A finding is made only when it is kept.
class WorstPerPair {
public:
    explicit WorstPerPair(const Derived &derived) : derived_(derived) {}

    template <class Make>
    void offer(const BodyGap &gap, std::string_view variant, Severity severity, double margin, Make &&make) {
        const int a = derived_.scene.traits[gap.a].owner, b = derived_.scene.traits[gap.b].owner;
        const auto [at, isNew] = places_.try_emplace({a, b, variant}, kept_.size());
        if (isNew) {
            kept_.push_back(make());
            return;
        }
        Finding &kept = kept_[at->second];
        if (severity < kept.severity || (severity == kept.severity && margin < kept.margin)) kept = make();
    }
    void moveTo(std::vector<Finding> &out) { std::move(kept_.begin(), kept_.end(), std::back_inserter(out)); }

private:
    const Derived &derived_;
    std::map<std::tuple<int, int, std::string_view>, std::size_t> places_;
    std::vector<Finding> kept_;
};

Finding pairFinding(RuleId rule, const Derived &derived, const BodyGap &gap) {
    Finding finding;
    finding.rule = rule;
    finding.subjects = pairOf(derived, gap);
    finding.unit = "mm";
    finding.from_mm = gap.onA_mm;
    finding.to_mm = gap.onB_mm;
    return finding;
}

const MotorMount *discOf(const Build &build, const Derived &derived, const BodyGap &gap) {
    for (const int body : {gap.a, gap.b}) {
        const BodyOwner &owner = derived.scene.owners[derived.scene.traits[body].owner];
        if (owner.kind != OwnerKind::disc) continue;
        for (const auto &mount : build.frame->motorMounts)
            if (mount.id == owner.id) return &mount;
    }
    return nullptr;
}

BladeRoom roomOf(const Build &build, const Practice &practice, const Derived &derived, const BodyGap &gap) {
    const MotorMount *mount = discOf(build, derived, gap);
    return mount ? bladeRoomOf(*mount, bladeRoomOf(practice)) : bladeRoomOf(practice);
}

/// The arm under its own motor cannot be moved out of the way: what is wrong is how high the blades turn.
bool carriesTheDisc(const Build &build, const Derived &derived, const BodyGap &gap) {
    const MotorMount *mount = discOf(build, derived, gap);
    const Arm *arm = mount ? armOf(*build.frame, *mount) : nullptr;
    if (!arm) return false;
    const auto is = [&](int body) { return derived.scene.owners[derived.scene.traits[body].owner].id == arm->id; };
    return is(gap.a) || is(gap.b);
}

void addLowBlades(const Derived &derived, const BodyGap &gap, double limit, std::optional<Finding> &low) {
    const double distance = gap.depth_mm > 0 ? -gap.depth_mm : gap.distance_mm;
    const bool first = derived.scene.owners[derived.scene.traits[gap.a].owner].kind == OwnerKind::disc;
    const std::string disc = pairOf(derived, gap)[first ? 0 : 1];
    if (distance >= limit) {
        if (low) return;
        low = Finding{};
        low->severity = Severity::pass;
    } else if (!low || low->severity == Severity::pass) {
        low = Finding{};
        low->severity = distance <= 0 ? Severity::stop : Severity::watch;
    }
    low->rule = RuleId::fitPropZone;
    low->variant = "low";
    low->unit = "mm";
    if (distance <= 0) low->severity = Severity::stop;
    if (std::find(low->subjects.begin(), low->subjects.end(), disc) == low->subjects.end())
        low->subjects.push_back(disc);
    if (low->measured && *low->measured <= distance) return;
    low->measured = distance;
    low->limit = limit;
    low->margin = distance - limit;
    low->from_mm = first ? gap.onB_mm : gap.onA_mm;
    low->to_mm = first ? gap.onA_mm : gap.onB_mm;
}

/// The freeing move belongs to body a. It is offered for whichever of the two is a part that is free to move.
void offerFreeingMove(const Build &build, const Derived &derived, const BodyGap &gap, double extra_mm,
                      Finding &finding) {
    if (gap.depth_mm <= 0) return;
    const Vec3 direction = gap.freeingMove_mm / gap.depth_mm;
    const Vec3 move = direction * (gap.depth_mm + extra_mm);
    auto offer = [&](int body, const Vec3 &shift) {
        const BodyOwner &owner = derived.scene.owners[derived.scene.traits[body].owner];
        const Part *part = owner.kind == OwnerKind::part ? findPart(build, owner.id) : nullptr;
        const bool hardware = owner.fastener && owner.stack >= 0; // stays in its hole
        if (part && !part->pinned && !hardware) finding.fixes.push_back({owner.id, PartShift{shift}, {}, {}});
    };
    offer(gap.a, move);
    offer(gap.b, -move);
}

/// A hexagon whose corner strikes is turned by half a flat, where that frees it.
void offerHalfTurn(const Build &build, const Derived &derived, const BodyGap &gap, Finding &finding) {
    const auto &bodies = derived.scene.world->bodies();
    for (const bool first : {true, false}) {
        const int body = first ? gap.a : gap.b, other = first ? gap.b : gap.a;
        const BodyOwner &owner = derived.scene.owners[derived.scene.traits[body].owner];
        if (!owner.fastener) continue;
        const Part *part = findPart(build, owner.id);
        if (!part) continue;
        constexpr double kHalfFlat_deg = 30;
        const Pose pose = framePose(build, *part);
        const Vec3 axis = pose.rotation * Vec3::UnitZ();
        Body turned = bodies[std::size_t(body)];
        const Quat by(Eigen::AngleAxisd(radiansFromDegrees(kHalfFlat_deg), axis));
        turned.X_FrameBody.position_mm = pose.position_mm + by * (turned.X_FrameBody.position_mm - pose.position_mm);
        turned.X_FrameBody.rotation = by * turned.X_FrameBody.rotation;
        const BodyGap then = measureGap(turned, bodies[std::size_t(other)]);
        if (then.distance_mm <= 0) continue;
        finding.fixes.emplace_back(owner.id, PartTurn{axis, kHalfFlat_deg});
    }
}

/// A screw of the frame that is in the way is put in from the other face, or its head is sunk.
void offerOtherScrew(const Build &build, const Derived &derived, const BodyGap &gap, Finding &finding) {
    for (const int body : {gap.a, gap.b}) {
        const BodyOwner &owner = derived.scene.owners[derived.scene.traits[body].owner];
        if (owner.kind != OwnerKind::screw) continue;
        for (const auto &screw : build.frame->screws) {
            if (screw.id != owner.id) continue;
            if (screw.into.empty()) {
                FrameScrew turned = screw;
                turned.fromAbove = !turned.fromAbove;
                finding.fixes.emplace_back(std::string(), FrameScrewChange{turned});
            }
            if (screw.head != HeadStyle::countersunk) {
                FrameScrew sunk = screw;
                sunk.head = HeadStyle::countersunk;
                sunk.length_mm.reset();
                finding.fixes.emplace_back(std::string(), FrameScrewChange{sunk});
            }
        }
    }
}

/// What bends or is only tied on may be turned away instead, as a survey found that still holds.
void offerTurnsAway(const Derived &derived, const std::vector<std::string> &pair, Finding &finding) {
    for (const auto &help : turnHelpFound(derived))
        if ((help.part == pair[0] && help.mount == pair[1]) || (help.part == pair[1] && help.mount == pair[0]))
            finding.fixes.insert(finding.fixes.end(), help.fixes.begin(), help.fixes.end());
}

} // namespace

static void judgeOverlap(const Build &build, const Practice &practice, const Derived &derived,
                         std::vector<Finding> &out) {
    WorstPerPair worst(derived);
    const double allowed = practice[Limit::overlapDepth];
    for (const auto &gap : derived.scene.world->gaps()) {
        if (gap.depth_mm <= allowed) continue;
        const PairDemands demands =
            demandsOf(derived.scene.owners, derived.scene.traits[gap.a], derived.scene.traits[gap.b]);
        // Tabs in slots, pockets, clamps round a tube: mounts are drawn whole (common practice, no source).
        constexpr double kSeat_mm = 4;
        if (!demands.overlap || (demands.seated && gap.depth_mm <= kSeat_mm)) continue;
        worst.offer(gap, "", Severity::stop, -gap.depth_mm, [&] {
            Finding finding = pairFinding(RuleId::fitOverlap, derived, gap);
            finding.severity = Severity::stop;
            finding.measured = gap.depth_mm;
            finding.limit = 0.0;
            finding.margin = -gap.depth_mm;
            finding.practiceLimit = Limit::overlapDepth;
            finding.inputs = {{"overlap depth", gap.depth_mm, "mm"},
                              {"freeing move forward", gap.freeingMove_mm.x(), "mm"},
                              {"freeing move left", gap.freeingMove_mm.y(), "mm"},
                              {"freeing move up", gap.freeingMove_mm.z(), "mm"}};
            offerFreeingMove(build, derived, gap, 0.0, finding);
            offerHalfTurn(build, derived, gap, finding);
            offerOtherScrew(build, derived, gap, finding);
            return finding;
        });
    }
    worst.moveTo(out);
}

static void judgeGaps(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    WorstPerPair worst(derived);
    for (const auto &gap : derived.scene.world->gaps()) {
        const PairDemands demands =
            demandsOf(derived.scene.owners, derived.scene.traits[gap.a], derived.scene.traits[gap.b]);
        auto judge = [&](bool asked, Limit limit, const char *variant, bool stopWhenTouching, double stated_mm = 0) {
            const double wanted = stated_mm > 0 ? stated_mm : practice[limit];
            if (!asked || gap.distance_mm > wanted + kLookAhead_mm) return;
            const double margin = gap.distance_mm - wanted;
            const bool touching = gap.distance_mm <= practice[Limit::overlapDepth];
            const Severity severity = margin >= 0                    ? Severity::pass
                                      : touching && stopWhenTouching ? Severity::stop
                                                                     : Severity::watch;
            worst.offer(gap, variant, severity, margin, [&] {
                Finding finding = pairFinding(RuleId::fitGap, derived, gap);
                finding.variant = variant;
                finding.severity = severity;
                finding.measured = gap.distance_mm;
                finding.limit = wanted;
                if (stated_mm <= 0) finding.practiceLimit = limit;
                finding.margin = margin;
                finding.inputs = {{"gap", gap.distance_mm, "mm"}, {"wanted", wanted, "mm"}};
                return finding;
            });
        };
        judge(demands.sway, Limit::swayGap, "sway", false, demands.sway_mm);
        judge(demands.heat, Limit::heatGap, "heat", false);
        judge(demands.bare, Limit::bareGap, "bare", true);
    }
    const std::size_t first = out.size();
    worst.moveTo(out);
    constexpr double kAlike_mm = 0.1;
    gatherAlike(out, first, kAlike_mm, Share::first); // packs that take turns lie in one place
}

static void judgePropellerZone(const Build &build, const Practice &practice, const Derived &derived,
                               std::vector<Finding> &out) {
    WorstPerPair worst(derived);
    std::optional<Finding> low; // of all arms that carry their motor
    for (const auto &gap : derived.scene.world->gaps()) {
        const PairDemands demands =
            demandsOf(derived.scene.owners, derived.scene.traits[gap.a], derived.scene.traits[gap.b]);
        if (!demands.propeller) continue;
        if (carriesTheDisc(build, derived, gap)) {
            addLowBlades(derived, gap, practice[*demands.propeller], low);
            continue;
        }
        const double limit = practice[*demands.propeller];
        const BladeRoom room = roomOf(build, practice, derived, gap);
        const double distance = gap.depth_mm > 0 ? -gap.depth_mm : gap.distance_mm, margin = distance - limit;
        const Severity severity = gap.distance_mm <= 0 ? Severity::stop : margin < 0 ? Severity::watch : Severity::pass;
        worst.offer(gap, "", severity, margin, [&] {
            Finding finding = pairFinding(RuleId::fitPropZone, derived, gap);
            finding.severity = severity;
            finding.measured = distance;
            finding.limit = limit;
            finding.margin = margin;
            finding.practiceLimit = demands.propeller;
            finding.inputs = {{distance < 0 ? "depth inside the zone" : "gap to the zone", std::abs(distance), "mm"},
                              {"wanted", limit, "mm"},
                              {"zone above the blades", room.up_mm, "mm"},
                              {"zone below the blades", room.down_mm, "mm"}};
            if (severity == Severity::stop) {
                offerFreeingMove(build, derived, gap, limit, finding);
                offerTurnsAway(derived, finding.subjects, finding);
            }
            // The thing that is in the way is named first, the propeller second.
            if (derived.scene.owners[derived.scene.traits[gap.a].owner].kind == OwnerKind::disc) {
                std::swap(finding.subjects[0], finding.subjects[1]);
                std::swap(finding.from_mm, finding.to_mm);
            }
            return finding;
        });
    }
    std::vector<Finding> found, near;
    worst.moveTo(found);
    for (auto &finding : found) (finding.severity == Severity::watch ? near : out).push_back(std::move(finding));
    constexpr double kMirrored_mm = 0.01;
    gatherAlike(near, 0, kMirrored_mm); // what stands left and right alike is said once
    std::move(near.begin(), near.end(), std::back_inserter(out));
    if (low) out.push_back(std::move(*low));
}

static void judgeTipGaps(const Build &build, const Practice &practice, const Derived &, std::vector<Finding> &out) {
    const auto &mounts = build.frame->motorMounts;
    for (std::size_t i = 0; i < mounts.size(); ++i)
        for (std::size_t j = i + 1; j < mounts.size(); ++j) {
            const Vec3 a = propCentre_mm(mounts[i]), b = propCentre_mm(mounts[j]);
            const double centres = std::hypot(a.x() - b.x(), a.y() - b.y());
            const double radii = (mounts[i].propDiameter_mm + mounts[j].propDiameter_mm) / 2;
            constexpr double kCoaxial_mm = 1.0; // axes nearer than this are one axis
            const double heights = std::abs(a.z() - b.z());
            const BladeRoom usual = bladeRoomOf(practice);
            const bool below = a.z() < b.z();
            const double zone =
                bladeRoomOf(mounts[below ? i : j], usual).up_mm + bladeRoomOf(mounts[below ? j : i], usual).down_mm;
            if (centres <= kCoaxial_mm && heights >= zone) continue; // a coaxial pair, apart in height
            const double gap = centres - radii;
            if (gap <= 0 && heights > 1e-9) { // one over the other: what counts is how far apart in height
                Finding over;
                over.rule = RuleId::fitTipGap;
                over.variant = "over";
                over.subjects = {mounts[i].id, mounts[j].id};
                over.measured = heights;
                over.limit = zone;
                over.practiceLimit = Limit::propFlexDown;
                over.unit = "mm";
                over.margin = heights - zone;
                over.severity = over.margin < 0 ? Severity::stop : Severity::note;
                over.from_mm = a;
                over.to_mm = b;
                over.inputs = {
                    {"overlap in plan", -gap, "mm"}, {"apart in height", heights, "mm"}, {"wanted", zone, "mm"}};
                out.push_back(std::move(over));
                continue;
            }
            if (gap > practice[Limit::tipGap] + std::max(50.0, radii)) continue; // far apart: not a close call
            Finding finding;
            finding.rule = RuleId::fitTipGap;
            finding.subjects = {mounts[i].id, mounts[j].id};
            finding.measured = gap;
            finding.limit = practice[Limit::tipGap];
            finding.practiceLimit = Limit::tipGap;
            finding.unit = "mm";
            finding.margin = gap - practice[Limit::tipGap];
            finding.severity = gap <= 0 ? Severity::stop : finding.margin < 0 ? Severity::watch : Severity::pass;
            const Vec3 along = centres > 0 ? Vec3((b - a) / centres) : Vec3(Vec3::Zero());
            finding.from_mm = a + along * (mounts[i].propDiameter_mm / 2);
            finding.to_mm = b - along * (mounts[j].propDiameter_mm / 2);
            finding.inputs = {{"distance of the axes", centres, "mm"}, {"sum of the radii", radii, "mm"}};
            out.push_back(std::move(finding));
        }
}

static FindingText wordOverlap(const Build &build, const Finding &f) {
    FindingText text;
    text.headline = {"{0} and {1} overlap by {2} mm",
                     {displayName(build, f.subjects[0]), displayName(build, f.subjects[1]), oneDecimal(*f.measured)}};
    if (f.fixes.empty())
        text.detail = {"Both are pinned or belong to the frame; move one of them.", {}};
    else if (!f.fixes.front().as<PartShift>())
        text.detail = {"{0}: that frees it.", {wordFix(build, f.fixes.front()).text()}};
    else
        text.detail = {"Moving {0} {1} frees it.",
                       {displayName(build, f.fixes.front().part), shiftInWords(f.fixes.front().shift_mm())}};
    return text;
}

static FindingText wordGap(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]),
                                         listNames(build, std::span(f.subjects).subspan(1)), oneDecimal(*f.measured),
                                         oneDecimal(*f.limit)};
    if (f.variant == "sway")
        return {{"{0} is {2} mm from {1}, one of them soft-mounted", words},
                {"It needs {3} mm to sway without knocking.", words}};
    if (f.variant == "heat")
        return {{"{0}: {1} mm between heat and what it harms", {listNamesFirst(build, f.subjects), words[2]}},
                {"{3} mm wanted; move them apart or put an insulating layer between.", words}};
    if (f.severity == Severity::stop)
        return {{"Bare contacts: {0} touches {1}", words},
                {"One of them conducts: short circuit. Raise it by {3} mm or insulate it.", words}};
    return {{"Bare contacts: {0} is {2} mm from {1}", words},
            {"One of them conducts; {3} mm of air wanted, or an insulator.", words}};
}

static FindingText wordPropellerZone(const Build &build, const Finding &f) {
    // Of blades that turn too low there may be only one disc.
    const std::size_t named = std::min<std::size_t>(2, f.subjects.size());
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects[named - 1]),
                                         oneDecimal(std::abs(*f.measured)), oneDecimal(*f.limit),
                                         listNames(build, std::span(f.subjects).subspan(named))};
    if (f.variant == "low") {
        const Sentence cure{
            "Flexed blades strike it: {3} mm wanted. A taller motor, a spacer under the propeller, or a "
            "flatter arm; Frame says how high they turn. Propellers off on the bench.",
            words};
        if (f.severity == Severity::stop)
            return {{"Blades too low: {2} mm into the arm that carries their motor", words}, cure};
        return {{"Blades low: {2} mm over the arm that carries their motor", words}, cure};
    }
    if (f.severity == Severity::stop)
        return {{"{0} is {2} mm inside the {1}", words},
                {"The blades strike it: keep {3} mm outside. Propellers off on the bench.", words}};
    return {{"{0} is {2} mm from the {1}", words},
            {f.subjects.size() > 2 ? "{3} mm wanted. So near one as well: {4}." : "{3} mm wanted.", words}};
}

static FindingText wordTipGap(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1]),
                                         oneDecimal(std::abs(*f.measured)), oneDecimal(*f.limit)};
    if (f.variant == "over")
        return {{"{0} and {1} turn over one another, {2} mm apart in height", words},
                f.severity == Severity::note
                    ? Sentence{"{3} mm is the least. The lower one works in the other's wash: less thrust, more noise.",
                               words}
                    : Sentence{"Flexed blades meet: {3} mm wanted, or longer arms, or smaller propellers.", words}};
    if (f.severity == Severity::stop)
        return {{"{0} and {1} overlap by {2} mm", words},
                {"{3} mm between tips wanted: longer arms or smaller propellers.", words}};
    return {{"{0} and {1}: {2} mm between tips", words}, {"{3} mm wanted: longer arms or smaller propellers.", words}};
}

std::span<const Rule> fitRules() {
    static const std::array<Rule, 4> rules{{
        {RuleId::fitOverlap,
         "Overlap",
         "Two solid things cannot stand in the same place; the shortest move that frees them is worked out.",
         "separating axis theorem for boxes; geometry",
         Stage::place,
         {Limit::overlapDepth},
         needs(Need::owners, Need::gaps),
         judgeOverlap,
         wordOverlap},
        {RuleId::fitGap,
         "Gaps for sway, heat and bare contacts",
         "Soft-mounted parts swing, hot ones soften print and harm packs, and carbon and metal short what is "
         "bare.",
         kTrade,
         Stage::place,
         {Limit::swayGap, Limit::heatGap, Limit::bareGap},
         needs(Need::owners, Need::gaps),
         judgeGaps,
         wordGap},
        {RuleId::fitPropZone,
         "Propeller zone",
         "Blades flex and loose ends sway: what stands in the disc is struck.",
         kTrade,
         Stage::place,
         {Limit::propRigidGap, Limit::propFlexibleGap, Limit::propFlexUp, Limit::propFlexDown, Limit::propFlexFor},
         needs(Need::owners, Need::gaps, Need::survey),
         judgePropellerZone,
         wordPropellerZone},
        {RuleId::fitTipGap,
         "Propeller tip to propeller tip",
         "Arms bend and blades stretch; tips that nearly meet on the bench meet in the air.",
         kTrade,
         Stage::frame,
         {Limit::tipGap, Limit::propFlexUp, Limit::propFlexDown, Limit::propFlexFor},
         {},
         judgeTipGaps,
         wordTipGap},
    }};
    return rules;
}

} // namespace waxis
