// FRM: what holds the frame itself together.
#include "core/base/by_id.h"
#include "core/build/frame_screws.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/findings/input.h"
#include "core/layout/screw_edits.h"
#include "core/rules/rule.h"
#include "core/scene/body_table.h"
#include "core/scene/scene.h"
#include "core/stack/frame_screws.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <functional>
#include <map>

namespace waxis {

namespace {

constexpr double kTouch_mm = 0.1; ///< faces as close as that lie on one another

Finding about(RuleId rule, const char *variant, Severity severity, std::vector<std::string> subjects) {
    Finding f;
    f.rule = rule;
    f.variant = variant;
    f.severity = severity;
    f.subjects = std::move(subjects);
    f.unit = "mm";
    if (severity != Severity::pass) f.margin = -1;
    return f;
}

/// The same cure for every screw of a finding.
void offerScrews(const Frame &frame, Finding &f, const std::function<void(FrameScrew &)> &change) {
    std::optional<Fix> fix;
    for (const auto &screw : frame.screws) {
        if (std::find(f.subjects.begin(), f.subjects.end(), screw.id) == f.subjects.end()) continue;
        FrameScrew to = screw;
        change(to);
        Fix one({}, FrameScrewChange{std::move(to)});
        if (fix)
            fix->then.push_back(std::move(one));
        else
            fix = std::move(one);
    }
    if (fix) f.fixes.push_back(std::move(*fix));
}

Finding verdictOn(const FrameScrew &screw, const FrameScrewReport &report) {
    const ScrewColumn &column = report.column;
    const auto named = [&](const char *variant, Severity severity, const std::string &other) {
        Finding f = about(RuleId::frmScrew, variant, severity, {screw.id});
        if (!other.empty()) f.subjects.push_back(other);
        return f;
    };
    if (!column.missed.empty()) return named("missed", Severity::stop, column.missed);
    if (column.air_mm > kTouch_mm) {
        Finding f = named("air", Severity::stop, column.afterAir);
        f.measured = column.air_mm;
        f.limit = kTouch_mm;
        f.margin = kTouch_mm - column.air_mm;
        return f;
    }
    if (!column.narrow.empty()) {
        Finding f = named(column.hole_mm > 0 ? "narrow" : "undrilled", Severity::stop, column.narrow);
        f.measured = column.hole_mm;
        f.limit = report.task.thread ? report.task.thread->nominal_mm : 0;
        return f;
    }
    if (!report.now) return named("none", Severity::stop, {});
    const auto length = [&](const char *variant, Severity severity) {
        Finding f = named(variant, severity, {});
        f.measured = report.now->length_mm;
        f.limit = report.choice.least_mm;
        f.margin =
            severity == Severity::pass ? report.now->length_mm - report.choice.least_mm : -report.now->outside_mm;
        return f;
    };
    switch (report.now->verdict) {
    case ScrewVerdict::short_: return length("short", Severity::stop);
    case ScrewVerdict::bottoms:
    case ScrewVerdict::strikes: {
        Finding f = length(report.meets.empty() ? "bottoms" : "meets", Severity::stop);
        if (!report.meets.empty()) f.subjects.push_back(report.meets);
        return f;
    }
    case ScrewVerdict::long_: return length("long", Severity::watch);
    case ScrewVerdict::good: break;
    }
    return length("length", Severity::pass);
}

/// One finding for all screws that are wrong in the same way; the other thing's name stays last.
bool sameTrouble(const Finding &a, const Finding &b, const FrameScrew &one, const FrameScrew &other) {
    return a.variant == b.variant && a.measured == b.measured && std::abs(a.margin - b.margin) < 1e-6 &&
           a.variant != "meets" && one.thread == other.thread && one.head == other.head &&
           (a.subjects.size() > 1 ? a.subjects.back() == b.subjects.back() && b.subjects.size() > 1 : true);
}

/// Nearest height of a plate over the top of a post, or under its foot; none: no plate on its axis on that side.
std::optional<std::pair<std::string, double>> plateBeyond(const Frame &frame, const Standoff &post, bool above) {
    std::optional<std::pair<std::string, double>> best;
    const double end = post.base_mm.z() + (above ? post.height_mm : 0);
    for (const auto &plate : frame.plates) {
        const auto span = uprightOf(frame, plate.id, post.base_mm.head<2>());
        if (!span) continue;
        const double gap = above ? span->low_mm - end : end - span->high_mm; // negative: the end stands in or beyond it
        const bool inside = gap < 0 && -gap < post.height_mm / 2 + plate.thickness_mm;
        if (gap < 0 && !inside) continue;
        if (!best || std::abs(gap) < std::abs(best->second)) best = {plate.id, gap};
    }
    return best;
}

void judgePosts(const Frame &frame, std::vector<Finding> &out) {
    constexpr double kMeant_mm = 20; // a plate farther off is another deck
    for (const auto &post : frame.standoffs) {
        if (post.role != StandoffRole::standoff) continue;
        for (const bool above : {true, false}) {
            const auto plate = plateBeyond(frame, post, above);
            if (!plate || std::abs(plate->second) > kMeant_mm) continue;
            const double gap = plate->second;
            const bool good = std::abs(gap) <= kTouch_mm + 1e-9;
            Finding f = about(RuleId::frmMeet,
                              good      ? "post"
                              : gap > 0 ? "misses"
                                        : "pierces",
                              good ? Severity::pass : Severity::stop, {post.id, plate->first});
            f.measured = std::abs(gap);
            f.limit = kTouch_mm;
            f.margin = kTouch_mm - std::abs(gap);
            if (!good && above && post.height_mm + gap > 1)
                f.fixes.emplace_back(post.id, PostHeight{post.height_mm + gap});
            out.push_back(std::move(f));
        }
    }
}

/// Stoppers end short of the soft plate over them, and before its bobbins tear.
void judgeStoppers(const Frame &frame, const Practice &practice, std::vector<Finding> &out) {
    for (const auto &stopper : frame.standoffs) {
        if (stopper.role != StandoffRole::stopper) continue;
        const auto plate = plateBeyond(frame, stopper, true);
        const Plate *soft = plate ? byId(frame.plates, plate->first) : nullptr;
        if (!soft || !soft->isolated) continue;
        double gives = 0; // of the bobbins that carry it
        for (const auto &bobbin : frame.standoffs)
            if (bobbin.role == StandoffRole::bobbin && contains({soft->outline_mm, {}}, bobbin.base_mm.head<2>()))
                gives = std::max(gives, bobbin.travel_mm.value_or(0));
        const bool stated = gives > 0;
        if (!stated) gives = practice[Limit::swayGap];
        const double room = plate->second;
        const bool carries = room <= kTouch_mm;
        const bool late = room > gives + 1e-9;
        Finding f = about(RuleId::frmMeet,
                          carries ? "carries"
                          : late  ? "late"
                                  : "stopper",
                          carries || late ? Severity::watch : Severity::pass, {stopper.id, plate->first});
        f.measured = room;
        f.limit = gives;
        f.margin = carries ? room - kTouch_mm : gives - room;
        if (!stated) f.practiceLimit = Limit::swayGap;
        constexpr double kShare = 2.0 / 3; // of what the bobbins give
        const double better = stopper.height_mm + room - gives * kShare;
        if ((carries || late) && better > 1) f.fixes.emplace_back(stopper.id, PostHeight{better});
        out.push_back(std::move(f));
    }
}

/// How far a point is from what could carry it in plan, 0 on it; none: there is nothing.
std::optional<double> fromCarrier_mm(const Frame &frame, const MotorMount &mount) {
    std::optional<double> best;
    const auto offer = [&](double away) { best = best ? std::min(*best, away) : away; };
    for (const auto &arm : frame.arms) {
        const Vec3 own = armAxes(arm).inverse() * mount.position_mm, size = armSize_mm(arm);
        offer(std::hypot(std::max(0.0, std::abs(own.x()) - size.x() / 2),
                         std::max(0.0, std::abs(own.y()) - size.y() / 2)));
    }
    for (const auto &plate : frame.plates) {
        if (contains({plate.outline_mm, {}}, mount.position_mm.head<2>())) return 0.0;
        for (std::size_t i = 0; i < plate.outline_mm.size(); ++i) {
            const Vec2 a = plate.outline_mm[i], b = plate.outline_mm[(i + 1) % plate.outline_mm.size()];
            const Vec2 along = b - a, p = mount.position_mm.head<2>() - a;
            const double t = std::clamp(p.dot(along) / std::max(along.squaredNorm(), 1e-12), 0.0, 1.0);
            offer((p - t * along).norm());
        }
    }
    return best;
}

void judgeMounts(const Frame &frame, std::vector<Finding> &out) {
    for (const auto &mount : frame.motorMounts) {
        const auto away = fromCarrier_mm(frame, mount);
        if (!away) continue;
        const double room = std::max(mount.pattern.size_mm / 2, 2.0); // its screws still find the arm
        const bool good = *away <= room;
        Finding f =
            about(RuleId::frmMeet, good ? "mount" : "beside", good ? Severity::pass : Severity::stop, {mount.id});
        f.measured = *away;
        f.limit = room;
        f.margin = room - *away;
        f.from_mm = mount.position_mm;
        out.push_back(std::move(f));
    }
}

std::string more(std::size_t count) { return count > 1 ? fmt::format(" and {} more", count - 1) : std::string(); }

} // namespace

static void judgeScrews(const Build &build, const Practice &practice, const Derived &, std::vector<Finding> &out) {
    const Frame &frame = *build.frame;
    const auto reports = frameScrewReports(frame, practice, bracketsOf(build));
    std::vector<std::pair<Finding, std::size_t>> found; // with the first screw's index
    for (std::size_t i = 0; i < reports.size(); ++i) {
        Finding f = verdictOn(frame.screws[i], reports[i]);
        const auto like = std::find_if(found.begin(), found.end(), [&](const auto &one) {
            return sameTrouble(one.first, f, frame.screws[one.second], frame.screws[i]);
        });
        if (like == found.end()) {
            f.inputs = {{"clamped", reports[i].task.grip_mm, "mm"},
                        {"least", reports[i].choice.least_mm, "mm"},
                        {"screws", 1, ""}};
            if (reports[i].choice.best_mm) f.inputs.push_back({"suggested", *reports[i].choice.best_mm, "mm"});
            f.from_mm = Vec3(reports[i].column.at_mm.x(), reports[i].column.at_mm.y(), reports[i].column.headFace_mm);
            found.emplace_back(std::move(f), i);
        } else {
            Finding &kept = like->first;
            const bool other = kept.subjects.size() > std::size_t(kept.inputs[2].value);
            kept.subjects.insert(kept.subjects.end() - (other ? 1 : 0), frame.screws[i].id);
            kept.inputs[2].value += 1;
        }
    }
    for (auto &[f, first] : found) {
        const auto &best = reports[first].choice.best_mm;
        const bool length =
            f.variant == "short" || f.variant == "bottoms" || f.variant == "meets" || f.variant == "long";
        if (length && best && best != frame.screws[first].length_mm)
            offerScrews(frame, f, [&](FrameScrew &screw) { screw.length_mm = *best; });
        out.push_back(std::move(f));
    }
}

static FindingText wordScrew(const Build &build, const Finding &f) {
    const auto input = [&](std::string_view name) { return maybeInput(f, name).value_or(0); };
    const std::size_t count = std::size_t(std::max(1.0, input("screws")));
    const FrameScrew *screw = nullptr;
    for (const auto &one : build.frame->screws)
        if (one.id == f.subjects[0]) screw = &one;
    const std::string thread = screw ? screw->thread : std::string("M3");
    const std::vector<std::string> words{displayName(build, f.subjects[0]) + more(count),
                                         f.subjects.size() > count ? nameWithin(build, f.subjects.back()) : "",
                                         oneDecimal(f.measured.value_or(0)),
                                         oneDecimal(std::abs(f.margin)),
                                         oneDecimal(input("clamped")),
                                         oneDecimal(input("least")),
                                         fmt::format("{} x {:g}", thread, f.measured.value_or(0)),
                                         fmt::format("{} x {:g}", thread, input("suggested")),
                                         oneDecimal(f.limit.value_or(0))};
    const Sentence cure = input("suggested") > 0 ? Sentence{"{4} mm are clamped: {7} does.", words}
                                                 : Sentence{"{4} mm are clamped: no length on sale does.", words};
    if (f.variant == "missed")
        return {{"{0} does not go through {1}", words}, {"Move it, or the piece; or take the screw out.", words}};
    if (f.variant == "air")
        return {{"{0} pulls {1} over {2} mm of air", words},
                {"A spacer, a longer post or another height must fill it, or the screw bends what it clamps.", words}};
    if (f.variant == "undrilled")
        return {{"{0}: there is no hole in {1} for it", words},
                {"Drill {8} mm with clearance, or move the screw.", words}};
    if (f.variant == "narrow")
        return {{"{0}: the hole of {2} mm in {1} does not pass it", words},
                {"It needs more than {8} mm: a larger hole, or a thinner screw.", words}};
    if (f.variant == "none") return {{"{0}: no length on sale holds", words}, cure};
    if (f.variant == "short") return {{"{0}: {6} is {3} mm too short", words}, cure};
    if (f.variant == "bottoms") return {{"{0}: {6} is {3} mm too long for its thread: it does not clamp", words}, cure};
    if (f.variant == "meets") return {{"{0}: {6} runs {3} mm into {1} in the same post", words}, cure};
    return {{"{0}: {6} stands {3} mm further out than wanted", words}, cure};
}

static void judgeMeeting(const Build &build, const Practice &practice, const Derived &, std::vector<Finding> &out) {
    judgePosts(*build.frame, out);
    judgeStoppers(*build.frame, practice, out);
    judgeMounts(*build.frame, out);
}

static FindingText wordMeeting(const Build &build, const Finding &f) {
    const std::vector<std::string> words{
        displayName(build, f.subjects[0]), f.subjects.size() > 1 ? nameWithin(build, f.subjects[1]) : "",
        oneDecimal(f.measured.value_or(0)), oneDecimal(f.limit.value_or(0)), motorName(build, f.subjects[0])};
    if (f.variant == "misses")
        return {{"{0} ends {2} mm before {1}", words},
                {"Posts of one deck are alike: take one that is longer, or shim it.", words}};
    if (f.variant == "pierces")
        return {{"{0} stands {2} mm into {1}", words}, {"Take one that is shorter, or lift the plate.", words}};
    if (f.variant == "carries")
        return {{"{0} touches {1}: it shakes past its bobbins", words},
                {"A stopper ends a little short of it.", words}};
    if (f.variant == "late")
        return {{"{0} ends {2} mm under {1}: its bobbins have torn before", words},
                {"They give {3} mm. A stopper nearer to the plate catches it first.", words}};
    return {{"The mount of the {4} lies {2} mm beside what should carry it", words},
            {"Its screws reach {3} mm: move it onto the arm in Frame, or turn the arm.", words}};
}

static void judgeLoose(const Build &build, const Practice &, const Derived &, std::vector<Finding> &out) {
    const Frame &frame = *build.frame;
    const auto missing = missingScrews(frame);
    if (missing.empty()) {
        if (!frame.screws.empty()) out.push_back(about(RuleId::frmLoose, "all", Severity::pass, {frame.screws[0].id}));
        return;
    }
    const bool none = frame.screws.empty();
    std::vector<std::string> members; // what is held by one screw less than it could be
    for (const auto &screw : missing) {
        const std::string &member = screw.into.empty() ? screw.through.front() : screw.into;
        if (std::find(members.begin(), members.end(), member) == members.end()) members.push_back(member);
    }
    if (none) members = {members.front()};
    Finding f = about(RuleId::frmLoose, none ? "none" : "some", none ? Severity::unknown : Severity::watch, members);
    f.unit = "";
    f.measured = double(missing.size());
    f.fixes.emplace_back(std::string(), MissingFrameScrews{});
    out.push_back(std::move(f));
}

static FindingText wordLoose(const Build &build, const Finding &f) {
    const std::vector<std::string> words{wholeNumber(f.measured.value_or(0)), nameWithin(build, f.subjects[0]),
                                         more(f.subjects.size())};
    if (f.variant == "none")
        return {{"The frame's own screws are not drawn: about {0}", words},
                {"Their weight, count and lengths are missing. Draw them here, or one by one in Frame.", words}};
    return {{"Screws missing at {1}{2}: {0}", words}, {"Draw them, or leave them out on purpose.", words}};
}

static void judgeHeads(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    constexpr double kPress_mm = 0.2; // foam and cells give way by that
    const auto &owners = derived.scene.owners;
    std::map<int, Finding> byPart;
    for (const auto &gap : derived.scene.world->gaps()) {
        const BodyTraits &ta = derived.scene.traits[gap.a], &tb = derived.scene.traits[gap.b];
        if (gap.depth_mm <= kPress_mm || !demandsOf(owners, ta, tb).heads) continue;
        const bool first = owners[ta.owner].kind == OwnerKind::screw;
        const int part = first ? tb.owner : ta.owner, screw = first ? ta.owner : tb.owner;
        Finding &f = byPart.try_emplace(part, about(RuleId::frmHeads, "under", Severity::watch, {owners[part].id}))
                         .first->second;
        const std::string &id = owners[screw].id;
        if (std::find(f.subjects.begin(), f.subjects.end(), id) == f.subjects.end()) f.subjects.push_back(id);
        if (f.measured && *f.measured >= gap.depth_mm) continue;
        f.measured = gap.depth_mm;
        f.limit = kPress_mm;
        f.margin = kPress_mm - gap.depth_mm;
        f.from_mm = gap.onA_mm;
    }
    for (auto &[part, f] : byPart) {
        for (std::size_t k = 1; k < f.subjects.size(); ++k) { // its own hole lies there: one screw for both
            const FrameScrew *screw = byId(build.frame->screws, f.subjects[k]);
            const auto may = screw ? mayShare(build, *screw) : std::vector<std::string>{};
            if (std::find(may.begin(), may.end(), f.subjects[0]) == may.end()) continue;
            FrameScrew shared = *screw;
            shared.through.insert(shared.through.begin(), f.subjects[0]);
            shared.length_mm.reset();
            f.fixes.emplace_back(std::string(), FrameScrewChange{shared});
        }
        offerScrews(*build.frame, f, [](FrameScrew &screw) {
            screw.head = HeadStyle::countersunk;
            screw.length_mm.reset();
        });
        out.push_back(std::move(f));
    }
}

static FindingText wordHeads(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects.back()),
                                         more(f.subjects.size() - 1), oneDecimal(f.measured.value_or(0))};
    return {
        {"{0} would sit on {1}{2}: {3} mm of head or nut under it", words},
        {"It wobbles, and a pack is dented. A pad of that thickness, countersunk screws, or another place.", words}};
}

std::span<const Rule> frameRules() {
    static const std::array<Rule, 4> rules{{
        {RuleId::frmScrew,
         "Screws of the frame",
         "A screw that is too short strips its thread, one that meets another or the bottom does not clamp, and air "
         "under a clamp bends plates.",
         kTrade,
         Stage::frame,
         {Limit::nutPitches, Limit::screwBeyond, Limit::engagementSteel, Limit::engagementAluminium,
          Limit::engagementPlastic},
         Needs(0),
         judgeScrews,
         wordScrew},
        {RuleId::frmMeet,
         "Posts, plates and mounts meet",
         "A post that is a millimetre short carries nothing, and one that is long bends its plate; a motor beside its "
         "arm has nothing to be screwed to.",
         kTrade,
         Stage::frame,
         {Limit::swayGap},
         Needs(0),
         judgeMeeting,
         wordMeeting},
        {RuleId::frmLoose,
         "The frame's screws are there",
         "Some twenty screws weigh as much as a receiver with its antennas, and the one that is missing is missed on "
         "the evening before.",
         kTrade,
         Stage::frame,
         {},
         Needs(0),
         judgeLoose,
         wordLoose},
        {RuleId::frmHeads,
         "Parts on screw heads",
         "A pack or board that rests on heads stands on three of them and rocks on the fourth.",
         kTrade,
         Stage::frame,
         {},
         needs(Need::owners, Need::gaps),
         judgeHeads,
         wordHeads},
    }};
    return rules;
}

} // namespace waxis
