// FIT-8 to FIT-10: what cameras see of the craft, two cameras, and from where the status lamp is seen.
#include "core/base/units.h"
#include "core/findings/input.h"
#include "core/rules/rule.h"
#include "core/survey/at_hand.h"
#include "core/survey/views.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

/// The azimuth in words: "aft", "ahead on the left".
std::string sideInWords(double azimuth_deg) {
    constexpr std::array<const char *, 8> kWords{"ahead",  "ahead on the left",   "on the left",  "behind on the left",
                                                 "behind", "behind on the right", "on the right", "ahead on the right"};
    const int sector = int(std::lround(azimuth_deg / 45.0));
    return kWords[std::size_t(((sector % 8) + 8) % 8)];
}

const CameraSurvey *surveyOfCamera(const Derived &derived, const std::string &part) {
    for (const auto &camera : camerasSeen(derived))
        if (camera.part == part) return &camera;
    return nullptr;
}

} // namespace

static void judgeCamera(const Build &build, const Practice &practice, const Derived &derived,
                        std::vector<Finding> &out) {
    for (const auto &camera : camerasSeen(derived)) {
        const Part *part = findPart(build, camera.part);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (!type || !type->camera || camera.loadCase.empty()) continue;
        auto judge = [&](const char *variant, double share, Limit limit) {
            Finding f;
            f.rule = RuleId::fitCamera;
            f.variant = variant;
            f.subjects = {camera.part};
            for (const auto &by : camera.now.by) {
                const bool disc = std::any_of(build.frame->motorMounts.begin(), build.frame->motorMounts.end(),
                                              [&](const MotorMount &m) { return m.id == by.id; });
                if (disc == (limit == Limit::cameraPropellers) && f.subjects.size() < 4) f.subjects.push_back(by.id);
            }
            f.loadCase = camera.loadCase;
            f.measured = 100 * share;
            f.limit = practice[limit];
            f.practiceLimit = limit;
            f.unit = "%";
            f.margin = *f.limit - *f.measured;
            f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
            f.inputs = {{"tilt upwards", camera.now.tilt_deg, "deg"},
                        {"hidden by the craft", 100 * camera.now.hidden, "%"},
                        {"propellers", 100 * camera.now.propellers, "%"}};
            return f;
        };
        Finding view = judge("view", camera.now.hidden, Limit::cameraHidden);
        constexpr double kHalf = 50; // nobody flies by less (common practice, no source)
        if (type->kind == PartKind::flightCamera && *view.measured > kHalf) view.severity = Severity::stop;
        view.from_mm = cameraPose(*type, framePose(build, *part)).lens_mm;
        if (camera.bestFrom_deg) {
            view.inputs.push_back({"free from tilt", *camera.bestFrom_deg, "deg"});
            view.inputs.push_back({"free to tilt", *camera.bestTo_deg, "deg"});
            if (view.severity != Severity::pass && !part->pinned) {
                Fix fix;
                fix.part = camera.part;
                fix.change = CameraTilt{std::clamp(camera.now.tilt_deg, *camera.bestFrom_deg, *camera.bestTo_deg)};
                view.fixes.push_back(fix);
            }
        }
        out.push_back(std::move(view));
        out.push_back(judge("propellers", camera.now.propellers, Limit::cameraPropellers));
        if (camera.overshoot_mm && type->kind == PartKind::flightCamera) {
            Finding f;
            f.rule = RuleId::fitCamera;
            f.variant = "protection";
            f.subjects = {camera.part};
            f.measured = *camera.overshoot_mm;
            f.limit = practice[Limit::lensOvershoot];
            f.practiceLimit = Limit::lensOvershoot;
            f.unit = "mm";
            f.margin = *f.limit - *f.measured;
            f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
            f.from_mm = view.from_mm;
            if (f.severity == Severity::watch && !part->pinned) {
                Fix fix;
                fix.part = camera.part;
                fix.change = PartShift{Vec3(-std::ceil((*f.measured - *f.limit) * 10) / 10, 0, 0)};
                f.fixes.push_back(fix);
            }
            out.push_back(std::move(f));
        }
    }
}

static FindingText wordCamera(const Build &build, const Finding &f) {
    std::string who;
    for (std::size_t i = 1; i < f.subjects.size(); ++i) who += (i > 1 ? ", " : "") + nameWithin(build, f.subjects[i]);
    std::string cure = "no tilt within its range is free";
    if (const auto from = maybeInput(f, "free from tilt"))
        cure = fmt::format("free from {:g}° to {:g}° tilt", *from, inputOf(f, "free to tilt"));
    const std::vector<std::string> words{displayName(build, f.subjects[0]), oneDecimal(*f.measured),
                                         oneDecimal(*f.limit), who, cure};
    if (f.variant == "protection")
        return {{"{0}: the lens stands {1} mm in front of its protection", words},
                {"A drop on the nose lands on it; set it back, or bring the brackets forward.", words}};
    if (f.variant == "propellers")
        return {{"{0} sees propellers in {1} % of its picture", words},
                {"{2} % allowed: {3}. Tilt it, or move it forward.", words}};
    return {{"{0} sees the craft in {1} % of its picture", words}, {"{2} % allowed: {3}; {4}.", words}};
}

static void judgeTwoCameras(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    std::vector<std::size_t> cameras;
    for (std::size_t i = 0; i < build.parts.size(); ++i)
        if (const PartType *type = typeOf(build, build.parts[i]); type && type->camera) cameras.push_back(i);
    for (std::size_t first = 0; first < cameras.size(); ++first)
        for (std::size_t second = first + 1; second < cameras.size(); ++second) {
            const std::size_t i = cameras[first], j = cameras[second];
            const PartType *a = typeOf(build, build.parts[i]), *b = typeOf(build, build.parts[j]);
            if (!(derived.scene.owners[i].cases & derived.scene.owners[j].cases)) continue;
            const CameraPose poseA = cameraPose(*a, framePose(build, build.parts[i])),
                             poseB = cameraPose(*b, framePose(build, build.parts[j]));
            // Distance of the lens axes as the far scene sees it: square to their mean direction.
            Vec3 ahead = poseA.R_FrameCamera.col(0) + poseB.R_FrameCamera.col(0);
            if (ahead.squaredNorm() < 1e-6) continue; // they look opposite ways: nothing in common
            ahead.normalize();
            const Vec3 between = poseB.lens_mm - poseA.lens_mm;
            const double apart = (between - between.dot(ahead) * ahead).norm();
            Finding f;
            f.rule = RuleId::fitTwoCameras;
            f.subjects = {build.parts[i].id, build.parts[j].id};
            f.measured = apart;
            f.unit = "mm";
            f.from_mm = poseA.lens_mm;
            f.to_mm = poseB.lens_mm;
            f.inputs = {{"distance of the lens axes", apart, "mm"},
                        {"parallax at 2 m", degreesFromRadians(std::atan2(apart, 2000.0)), "deg"},
                        {"parallax at 10 m", degreesFromRadians(std::atan2(apart, 10000.0)), "deg"}};
            double seen = 0;
            for (int pass = 0; pass < 2; ++pass)
                if (const auto *survey = surveyOfCamera(derived, f.subjects[std::size_t(pass)]))
                    for (const auto &by : survey->now.by)
                        if (by.id == f.subjects[std::size_t(1 - pass)]) {
                            seen = std::max(seen, by.share);
                            f.inputs.push_back(
                                {pass ? "first in the second's picture" : "second in the first's picture",
                                 100 * by.share, "%"});
                        }
            f.margin = -seen * 100;
            f.severity = seen > 0 ? Severity::watch : Severity::note;
            if (seen > 0) f.variant = "seen";
            out.push_back(std::move(f));
        }
}

static FindingText wordTwoCameras(const Build &build, const Finding &f) {
    double near = 0, far = 0, seen = 0;
    for (const auto &input : f.inputs) {
        if (input.name == "parallax at 2 m") near = input.value;
        if (input.name == "parallax at 10 m") far = input.value;
        if (input.unit == "%") seen = std::max(seen, input.value);
    }
    const std::vector<std::string> words{displayName(build, f.subjects[0]),
                                         displayName(build, f.subjects[1]),
                                         oneDecimal(*f.measured),
                                         oneDecimal(near),
                                         oneDecimal(far),
                                         oneDecimal(seen)};
    if (f.variant == "seen")
        return {{"{0} and {1}: one stands in {5} % of the other's picture", words},
                {"Raise one, set it back, or tilt it. Their axes are {2} mm apart.", words}};
    return {{"{0} and {1} look {2} mm apart", words},
            {"What one frames the other sees {3}° off at 2 m and {4}° at 10 m.", words}};
}

static void judgeLamp(const Build &build, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &lamp : lampsSeen(derived)) {
        if (!findPart(build, lamp.part)) continue;
        Finding f;
        f.rule = RuleId::fitLamp;
        f.subjects = {lamp.part};
        f.variant = lamp.port;
        for (const auto &by : lamp.view.by)
            if (by.id != lamp.part && f.subjects.size() < 4) f.subjects.push_back(by.id);
        f.loadCase = lamp.loadCase;
        f.measured = 100 * lamp.view.seen;
        f.limit = practice[Limit::lampSeen];
        f.practiceLimit = Limit::lampSeen;
        f.unit = "%";
        f.margin = *f.measured - *f.limit;
        constexpr double kDark_deg = 60; // from farther round nobody walks (common practice, no source)
        if (f.margin >= 0 && lamp.view.darkSector_deg > kDark_deg) {
            f.measured = lamp.view.darkSector_deg;
            f.limit = kDark_deg;
            f.practiceLimit.reset();
            f.unit = "deg";
            f.margin = kDark_deg - lamp.view.darkSector_deg;
        }
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = {{"seen from", 100 * lamp.view.seen, "%"},
                    {"widest dark sector", lamp.view.darkSector_deg, "deg"},
                    {"its middle, left of the nose", lamp.view.darkest_deg, "deg"}};
        if (const Part *part = findPart(build, lamp.part)) f.from_mm = framePose(build, *part).position_mm;
        out.push_back(std::move(f));
    }
}

static FindingText wordLamp(const Build &build, const Finding &f) {
    double dark = 0, middle = 0;
    std::string who;
    for (std::size_t i = 1; i < f.subjects.size(); ++i) who += (i > 1 ? ", " : "") + nameWithin(build, f.subjects[i]);
    for (const auto &input : f.inputs) {
        if (input.name == "widest dark sector") dark = input.value;
        if (input.name == "its middle, left of the nose") middle = input.value;
    }
    const std::vector<std::string> words{
        displayName(build, f.subjects[0]),   oneDecimal(*f.measured),     oneDecimal(*f.limit),
        dark > 0 ? sideInWords(middle) : "", fmt::format("{:.0f}", dark), who.empty() ? "its own board" : who};
    if (f.unit == "deg")
        return {{"Status lamp of {0} is dark {3} over {4}°", words},
                {"Not more than {2}° are usual; hidden by {5}. Lead the light out, or turn the board.", words}};
    Sentence detail{"{2} % wanted; hidden by {5}. Lead the light out, or turn the board.", words};
    if (dark > 0)
        detail.pattern = "{2} % wanted; dark {3} over {4}°, hidden by {5}. Lead the light out, or turn the board.";
    return {{"Status lamp of {0} is seen from {1} % of the directions round it", words}, detail};
}

std::span<const Rule> sightRules() {
    static const std::array<Rule, 3> rules{{
        {RuleId::fitCamera,
         "What the camera sees of the craft",
         "Whatever stands in the picture is in every picture; a lens in front of everything breaks first.",
         "geometry: rays through an equidistant lens",
         Stage::place,
         {Limit::cameraHidden, Limit::cameraPropellers, Limit::lensOvershoot},
         needs(Need::places, Need::survey),
         judgeCamera,
         wordCamera},
        {RuleId::fitTwoCameras,
         "Two cameras",
         "Far apart they frame different things; one in the other's picture spoils it.",
         "geometry",
         Stage::place,
         {},
         needs(Need::places, Need::owners, Need::survey),
         judgeTwoCameras,
         wordTwoCameras},
        {RuleId::fitLamp,
         "Status lamp in sight",
         "It tells what the controller thinks, to whoever can see it.",
         kTrade,
         Stage::place,
         {Limit::lampSeen},
         needs(Need::places, Need::survey),
         judgeLamp,
         wordLamp},
    }};
    return rules;
}

} // namespace waxis
