// NAV-1 and NAV-2: what the GPS antenna sees of the sky, and the angles to enter.
#include "core/attitude/mounting_angles.h"
#include "core/findings/input.h"
#include "core/magnetics/compass_place.h"
#include "core/rules/rule.h"
#include "core/survey/at_hand.h"
#include "core/survey/views.h"

#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

/// In fast flight the antenna leans with the craft; a wedge of half that angle shares it out between hover and cruise.
void judgeCruiseLean(const Build &build, const SkySurvey &sky, std::vector<Finding> &out) {
    constexpr double kLean_deg = 30; // common practice, no source
    const double leans = sky.cruise.axisToZenith_deg;
    if (!(leans > kLean_deg)) return;
    Finding f;
    f.rule = RuleId::navSky;
    f.variant = "cruise-lean";
    f.severity = Severity::note;
    f.subjects = {sky.part};
    f.measured = leans;
    f.limit = kLean_deg;
    f.unit = "deg";
    f.margin = kLean_deg - leans;
    f.from_mm = sky.place.position_mm;
    f.inputs = {{"antenna leans, level", sky.level.axisToZenith_deg, "deg"}, {"wedge", leans / 2, "deg"}};
    constexpr double kFlat_deg = 5; // one that leans already is turned by hand
    const Part *part = findPart(build, sky.part);
    if (part && !part->pinned && sky.level.axisToZenith_deg < kFlat_deg) // positive turns about y lower the nose
        f.fixes.push_back({sky.part, PartTurn{Vec3::UnitY(), -leans / 2}, {}, {}});
    out.push_back(std::move(f));
}

} // namespace

static void judgeSky(const Build &build, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &sky : skiesSeen(derived)) {
        if (!findPart(build, sky.part) || sky.loadCase.empty()) continue;
        const bool cruiseWorse = sky.cruise.hidden > sky.level.hidden;
        const SkyView &worse = cruiseWorse ? sky.cruise : sky.level;
        Finding f;
        f.rule = RuleId::navSky;
        f.variant = cruiseWorse ? "cruise" : "level";
        f.subjects = {sky.part};
        for (const auto &by : worse.by)
            if (f.subjects.size() < 4) f.subjects.push_back(by.id);
        f.loadCase = sky.loadCase;
        f.measured = 100 * worse.hidden;
        f.limit = practice[Limit::skyHidden];
        f.practiceLimit = Limit::skyHidden;
        f.unit = "%";
        f.margin = *f.limit - *f.measured;
        constexpr double kNoSky = 80; // too few satellites for a position to fly by (common practice, no source)
        f.severity = *f.measured > kNoSky ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        f.from_mm = sky.place.position_mm;
        f.inputs = {{"hidden, level", 100 * sky.level.hidden, "%"},
                    {"hidden, nose down", 100 * sky.cruise.hidden, "%"},
                    {"nose down", practice[Limit::cruisePitch], "deg"},
                    {"mask", practice[Limit::skyMask], "deg"},
                    {"antenna leans, level", sky.level.axisToZenith_deg, "deg"},
                    {"antenna leans, nose down", sky.cruise.axisToZenith_deg, "deg"}};
        out.push_back(std::move(f));
        constexpr double kLean_deg = 60; // a patch hears little beyond that (common practice, no source)
        const double leans = std::max(sky.level.axisToZenith_deg, sky.cruise.axisToZenith_deg);
        if (leans > kLean_deg) {
            Finding lean;
            lean.rule = RuleId::navSky;
            lean.variant = "lean";
            lean.subjects = {sky.part};
            lean.measured = leans;
            lean.limit = kLean_deg;
            lean.unit = "deg";
            lean.margin = kLean_deg - leans;
            lean.severity = leans > 90 ? Severity::stop : Severity::watch;
            lean.from_mm = sky.place.position_mm;
            out.push_back(std::move(lean));
        } else {
            judgeCruiseLean(build, sky, out);
        }
    }
}

static FindingText wordSky(const Build &build, const Finding &f) {
    std::string who;
    for (std::size_t i = 1; i < f.subjects.size(); ++i) who += (i > 1 ? ", " : "") + nameWithin(build, f.subjects[i]);
    const std::vector<std::string> words{displayName(build, f.subjects[0]), oneDecimal(*f.measured),
                                         oneDecimal(*f.limit), who};
    if (f.variant == "lean")
        return {{"{0}: its antenna leans {1}° from the zenith", words},
                {"It hears little of the sky beyond {2}°; turn its face up.", words}};
    if (f.variant == "cruise-lean")
        return {{"{0}: in fast flight its antenna leans {1}° forward", words},
                {"Up to {2}° does little. A wedge of {4}° under its front shares it out between hover and cruise.",
                 {words[0], words[1], words[2], words[3], fmt::format("{:.0f}", inputOf(f, "wedge"))}}};
    if (f.severity == Severity::stop)
        return {{f.variant == "cruise" ? "{0}: {1} % of the sky is hidden in fast flight, too much for a position"
                                       : "{0}: {1} % of the sky is hidden, too much for a position",
                 words},
                {"{2} % allowed, mostly by {3}. Raise it on a mast, or move it out from under.", words}};
    return {
        {f.variant == "cruise" ? "{0}: {1} % of the sky is hidden in fast flight" : "{0}: {1} % of the sky is hidden",
         words},
        {"{2} % allowed, mostly by {3}. Raise it on a mast, move it aft, or tilt it.", words}};
}

namespace {

/// How the controller that is aboard stands, as its arrow says; none where there is none, or several.
std::optional<Quat> controllerTurn(const Build &build) {
    std::optional<Quat> turn;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->kind != PartKind::flightController || !type->arrow) continue;
        if (turn) return std::nullopt;
        const RollPitchYaw up = mountingAngles(*type->arrow, framePose(build, part).rotation).up;
        turn = quaternionFrom(up);
    }
    return turn;
}

bool hasCompass(const PartType &type) { return type.arrow.has_value() && compassPlace(type).has_value(); }

} // namespace

static void judgeAngles(const Build &build, const Practice &practice, const Derived &, std::vector<Finding> &out) {
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type) continue;
        const bool controller = type->kind == PartKind::flightController && type->arrow;
        if (!controller && type->kind != PartKind::gps) continue;
        const Pose pose = framePose(build, part);
        const Vec3 arrow = type->arrow.value_or(Vec3::UnitX());
        const bool compass = !controller && hasCompass(*type) && !practice.follows("compass", "unused");
        const Quat lies = compass ? compassRotation(*type, pose.rotation) : pose.rotation;
        const MountingAngles angles = mountingAngles(arrow, lies);
        Finding f;
        f.rule = RuleId::navAngles;
        f.subjects = {part.id};
        f.from_mm = pose.position_mm;
        f.unit = "deg";
        f.practiceLimit = Limit::mountAngle;
        f.limit = practice[Limit::mountAngle];
        f.inputs = {{"roll", angles.up.roll_deg, "deg"},
                    {"pitch, z up", angles.up.pitch_deg, "deg"},
                    {"yaw, z up", angles.up.yaw_deg, "deg"},
                    {"pitch, z down", angles.down.pitch_deg, "deg"},
                    {"yaw, z down", angles.down.yaw_deg, "deg"},
                    {"off the nearest quarter turns", angles.offNearest_deg, "deg"}};
        if (const auto board = compass ? controllerTurn(build) : std::nullopt) {
            const RollPitchYaw own = mountingAngles(arrow, board->conjugate() * lies).down;
            f.inputs.push_back({"roll, against the controller", own.roll_deg, "deg"});
            f.inputs.push_back({"pitch, against the controller", own.pitch_deg, "deg"});
            f.inputs.push_back({"yaw, against the controller", own.yaw_deg, "deg"});
        }
        if (!controller && !compass) {
            // Only "up" matters.
            f.variant = "up";
            f.measured = angles.topTilt_deg;
            f.limit = 60;
            f.practiceLimit.reset();
            f.margin = 60 - angles.topTilt_deg;
            f.severity = angles.topTilt_deg > 90 ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
            out.push_back(std::move(f));
            continue;
        }
        f.measured = angles.offNearest_deg;
        f.margin = *f.limit - angles.offNearest_deg;
        const bool forward = quaternionFrom(angles.nearest).angularDistance(Quat::Identity()) < 1e-6;
        if (angles.offNearest_deg > *f.limit) {
            f.variant = "skew";
            f.severity = Severity::note;
        } else if (!forward) {
            f.variant = "turned";
            f.severity = controller && practice.follows("arrow", "forward") ? Severity::watch : Severity::note;
            f.margin = 0;
        } else {
            f.variant = "forward";
            f.severity = Severity::pass;
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordAngles(const Build &build, const Finding &f) {
    RollPitchYaw up, down;
    for (const auto &input : f.inputs) {
        if (input.name == "roll") up.roll_deg = down.roll_deg = input.value;
        if (input.name == "pitch, z up") up.pitch_deg = input.value;
        if (input.name == "yaw, z up") up.yaw_deg = input.value;
        if (input.name == "pitch, z down") down.pitch_deg = input.value;
        if (input.name == "yaw, z down") down.yaw_deg = input.value;
    }
    auto triple = [](const RollPitchYaw &a) {
        return fmt::format("roll {}, pitch {}, yaw {}", oneDecimal(a.roll_deg), oneDecimal(a.pitch_deg),
                           oneDecimal(a.yaw_deg));
    };
    const std::vector<std::string> words{displayName(build, f.subjects[0]), turnInWords(quaternionFrom(up)),
                                         triple(down), triple(up), f.measured ? oneDecimal(*f.measured) : ""};
    if (f.variant == "up" && f.severity == Severity::watch)
        return {{"{0} leans {4}° from up", words}, {"Its antenna must see the sky: turn its face up.", words}};
    if (f.variant == "up") return {{"{0} faces down", words}, {"Its antenna must see the sky: turn it over.", words}};
    if (f.severity == Severity::watch)
        return {{"{0} is {1}, not arrow forward", words},
                {"Turn it forward, choose the other school, or enter {2} (z down).", words}};
    std::string detail = "z down: {2}; z up: {3}. The same over the pole, z down: {5}.";
    std::vector<std::string> all = words;
    all.push_back(triple(otherTriple(down)));
    if (maybeInput(f, "yaw, against the controller")) {
        all.push_back(triple({inputOf(f, "roll, against the controller"), inputOf(f, "pitch, against the controller"),
                              inputOf(f, "yaw, against the controller")}));
        detail += " Where the firmware counts from the controller: {6}.";
    }
    return {{"{0} is {1}: angles to enter", words}, {detail, all}};
}

std::span<const Rule> navRules() {
    static const std::array<Rule, 2> rules{{
        {RuleId::navSky,
         "Sky over the GPS antenna",
         "A position needs satellites all round; high ones count most, and carbon hides them.",
         "solid angles by rays; common practice for the limit, no source",
         Stage::place,
         {Limit::skyHidden, Limit::skyMask, Limit::cruisePitch, Limit::skyThick},
         needs(Need::survey),
         judgeSky,
         wordSky},
        {RuleId::navAngles,
         "Mounting angles",
         "A board or compass that is turned and not entered so flies the craft the wrong way.",
         "Euler angles, Diebel 2006",
         Stage::place,
         {Limit::mountAngle},
         needs(Need::places),
         judgeAngles,
         wordAngles},
    }};
    return rules;
}

} // namespace waxis
