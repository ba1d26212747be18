// PRC-1: what is built otherwise than the practice says it is done here. Schools that other rules follow are not in it.
#include "core/build/frame_shapes.h"
#include "core/rules/rule.h"
#include "core/scene/scene.h"

#include <algorithm>
#include <array>
#include <fmt/format.h>

namespace waxis {

namespace {

/// The frame's plates together.
Aabb platesBox(const Frame &frame) {
    Aabb box;
    for (const auto &plate : frame.plates) box.include(boundsOf(plateShape(plate), platePose(plate)));
    return box;
}

class SchoolCheck {
public:
    SchoolCheck(const Build &build, const Practice &practice, const Derived &derived, std::vector<Finding> &out)
        : build_(build), practice_(practice), derived_(derived), out_(out), body_(platesBox(*build.frame)) {
        for (const auto &part : build.parts) {
            const PartType *type = typeOf(build, part);
            kinds_.push_back(type ? type->kind : PartKind::other);
        }
    }

    void all() {
        battery();
        speedControllers();
        distribution();
        controller();
        cleanFrame();
        gps();
    }

private:
    bool follows(const char *school, const char *option) const { return practice_.follows(school, option); }
    /// One finding a school; its variant is "school/what was found/what is wanted".
    void say(const char *school, const char *found, std::vector<std::string> subjects) {
        Finding f;
        f.rule = RuleId::prcSchool;
        f.variant = std::string(school) + "/" + found + "/" + practice_.schools.at(school);
        f.severity = Severity::note;
        f.subjects = std::move(subjects);
        out_.push_back(std::move(f));
    }
    template <class Visit>
    void each(PartKind kind, Visit &&visit) const {
        for (std::size_t i = 0; i < kinds_.size(); ++i)
            if (kinds_[i] == kind) visit(build_.parts[i], i);
    }
    std::vector<std::string> idsOf(PartKind kind) const {
        std::vector<std::string> ids;
        each(kind, [&](const Part &part, std::size_t) { ids.push_back(part.id); });
        return ids;
    }

    void battery() {
        if (body_.empty()) return;
        std::vector<std::string> otherwise;
        const char *found = "inside";
        each(PartKind::battery, [&](const Part &part, std::size_t) {
            constexpr double kLevel_mm = 3;
            const Aabb box = partBounds(build_, part);
            const bool above = box.min_mm.z() >= body_.max_mm.z() - kLevel_mm;
            const bool below = box.max_mm.z() <= body_.min_mm.z() + kLevel_mm;
            const bool aft = (box.min_mm.x() + box.max_mm.x()) / 2 < body_.min_mm.x() + body_.size_mm().x() / 3;
            const bool good = follows("battery", "top") ? above : follows("battery", "below") ? below : aft;
            if (good) return;
            otherwise.push_back(part.id);
            found = above ? "top" : below ? "below" : "inside";
        });
        if (!otherwise.empty()) say("battery", found, otherwise);
    }

    bool inAnArm(const Part &part) const {
        const Aabb box = partBounds(build_, part);
        const Vec3 middle = (box.min_mm + box.max_mm) / 2;
        return std::any_of(build_.frame->arms.begin(), build_.frame->arms.end(), [&](const Arm &arm) {
            const Vec3 own = armAxes(arm).inverse() * middle, size = armSize_mm(arm);
            return (own.array().abs() <= size.array() / 2).all();
        });
    }

    void speedControllers() {
        const auto single = idsOf(PartKind::esc), four = idsOf(PartKind::fourInOneEsc);
        if (follows("esc", "stack")) {
            if (!single.empty()) say("esc", "single", single);
            return;
        }
        if (!four.empty()) say("esc", "four", four);
        std::vector<std::string> otherwise;
        each(PartKind::esc, [&](const Part &part, std::size_t) {
            if (inAnArm(part) != follows("esc", "arms-inside")) otherwise.push_back(part.id);
        });
        if (!otherwise.empty()) say("esc", follows("esc", "arms-inside") ? "outside" : "inside", otherwise);
    }

    void distribution() {
        const auto boards = idsOf(PartKind::distributionBoard);
        if (follows("distribution", "harness") && !boards.empty()) say("distribution", "board", boards);
        if (follows("distribution", "board") && boards.empty())
            if (const auto single = idsOf(PartKind::esc); single.size() > 1) say("distribution", "none", single);
    }

    /// Whether rubber lies anywhere between a part and the frame.
    bool soft(std::size_t part) const {
        const BodyOwner &owner = derived_.scene.owners[part];
        if (owner.isolated) return true;
        if (owner.stack < 0) return false;
        const auto &layers = build_.stacks[std::size_t(owner.stack)].layers;
        return std::any_of(layers.begin(), layers.end(),
                           [](const StackLayer &layer) { return layer.role == LayerRole::damper; });
    }

    void controller() {
        std::vector<std::string> otherwise;
        each(PartKind::flightController, [&](const Part &part, std::size_t i) {
            if (soft(i) != follows("controller", "soft")) otherwise.push_back(part.id);
        });
        if (!otherwise.empty()) say("controller", follows("controller", "soft") ? "hard" : "soft", otherwise);
    }

    void cleanFrame() {
        const auto &plates = build_.frame->plates;
        const auto clean = std::find_if(plates.begin(), plates.end(), [](const Plate &p) { return p.isolated; });
        if (follows("clean-frame", "rigid") && clean != plates.end()) say("clean-frame", "isolated", {clean->id});
        if (follows("clean-frame", "isolated") && clean == plates.end() && plates.size() > 1)
            say("clean-frame", "rigid", {plates.front().id});
    }

    void gps() {
        if (body_.empty()) return;
        std::vector<std::string> otherwise;
        each(PartKind::gps, [&](const Part &part, std::size_t) {
            const Aabb box = partBounds(build_, part);
            const Vec3 at = (box.min_mm + box.max_mm) / 2;
            const bool tail = at.x() < body_.min_mm.x() + body_.size_mm().x() / 4;
            const bool mast = box.min_mm.z() > body_.max_mm.z() + 10 && !tail;
            const bool arm = std::any_of(build_.frame->arms.begin(), build_.frame->arms.end(), [&](const Arm &one) {
                return std::find(part.fastening.onto.begin(), part.fastening.onto.end(), one.id) !=
                       part.fastening.onto.end();
            });
            const bool good = follows("gps", "mast") ? mast : follows("gps", "tail") ? tail : arm;
            if (!good) otherwise.push_back(part.id);
        });
        if (!otherwise.empty()) say("gps", "elsewhere", otherwise);
    }

    const Build &build_;
    const Practice &practice_;
    const Derived &derived_;
    std::vector<Finding> &out_;
    Aabb body_;
    std::vector<PartKind> kinds_; ///< of each part
};

} // namespace

static void judgeSchools(const Build &build, const Practice &practice, const Derived &derived,
                         std::vector<Finding> &out) {
    SchoolCheck(build, practice, derived, out).all();
}

static FindingText wordSchools(const Build &build, const Finding &f) {
    const std::string name =
        displayName(build, f.subjects[0]) +
        (f.subjects.size() > 1 ? fmt::format(" and {} more", f.subjects.size() - 1) : std::string());
    const auto first = f.variant.find('/'), last = f.variant.rfind('/');
    const std::string school = f.variant.substr(0, first), found = f.variant.substr(first + 1, last - first - 1);
    const School *one = findSchool(school);
    const SchoolOption *option = one ? findOption(*one, f.variant.substr(last + 1)) : nullptr;
    const std::string wanted(option ? option->name : ""), why(option ? option->reason : "");
    const Sentence cure{"Your practice: {0}. {1} Change it, or the practice.", {wanted, why}};
    if (school == "battery" && found == "top") return {{"{0} lies on top", {name}}, cure};
    if (school == "battery" && found == "below") return {{"{0} hangs below", {name}}, cure};
    if (school == "battery") return {{"{0} lies within the frame", {name}}, cure};
    if (school == "esc" && found == "four") return {{"{0}: one board for all motors", {name}}, cure};
    if (school == "esc" && found == "inside") return {{"{0} lies inside its arm", {name}}, cure};
    if (school == "esc" && found == "outside") return {{"{0} lies outside its arm", {name}}, cure};
    if (school == "esc") return {{"{0}: a controller for each motor", {name}}, cure};
    if (school == "distribution" && found == "none") return {{"No distribution board feeds {0}", {name}}, cure};
    if (school == "distribution") return {{"{0} distributes the power", {name}}, cure};
    if (school == "controller" && found == "hard") return {{"{0} is mounted hard", {name}}, cure};
    if (school == "controller") return {{"{0} is mounted on rubber", {name}}, cure};
    if (school == "clean-frame" && found == "rigid")
        return {{"The frame has no part that rides apart on bobbins", {}}, cure};
    if (school == "clean-frame") return {{"{0} rides apart on bobbins", {name}}, cure};
    return {{"{0} sits elsewhere", {name}}, cure};
}

std::span<const Rule> schoolRules() {
    static const std::array<Rule, 1> rules{{
        {RuleId::prcSchool,
         "Otherwise than your practice",
         "Schools differ for good reasons; what differs from your own is either a wish or an oversight.",
         kTrade,
         Stage::place,
         {},
         needs(Need::places, Need::owners),
         judgeSchools,
         wordSchools},
    }};
    return rules;
}

} // namespace waxis
