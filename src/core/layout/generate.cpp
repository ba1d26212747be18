#include "core/layout/layout.h"

#include "core/base/text_match.h"
#include "core/base/units.h"
#include "core/build/frame_screws.h"
#include "core/build/frame_shapes.h"
#include "core/layout/drilling.h"
#include "core/layout/numbering.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <limits>

namespace waxis {

namespace {

/// One arm as the layout sees it: from the hub to a motor.
struct Spoke {
    Vec2 root_mm, motor_mm;
};

/// Values by key, complete and in range.
class Wishes {
public:
    explicit Wishes(LayoutValues values) : values_(std::move(values)) {}
    double operator[](const char *key) const {
        const auto at = values_.find(key);
        return at == values_.end() ? 0.0 : at->second;
    }
    bool yes(const char *key) const { return (*this)[key] != 0; }
    bool has(const char *key) const { return values_.contains(key); }

private:
    LayoutValues values_;
};

/// Motors round a hub at the origin; where arms meet, each begins where it is clear of its neighbours.
std::vector<Spoke> spokesOf(LayoutKind kind, const Wishes &w) {
    const double arm = w["arm_mm"];
    std::vector<Vec2> motors;
    auto ring = [&](std::initializer_list<double> bearings) {
        for (double bearing : bearings) motors.push_back(along(bearing, arm));
    };
    switch (kind) {
    case LayoutKind::quadX:
    case LayoutKind::coaxialX8: ring({45, 135, 225, 315}); break;
    case LayoutKind::quadWide:
    case LayoutKind::quadStretched: {
        const double a = w["frontAngle_deg"];
        ring({a, 180 - a, 180 + a, 360 - a});
        break;
    }
    case LayoutKind::quadHybrid: {
        const double front = w["frontAngle_deg"], rear = w["rearAngle_deg"], back = w["rearArm_mm"];
        motors = {along(front, arm), along(180 - rear, back), along(180 + rear, back), along(360 - front, arm)};
        break;
    }
    case LayoutKind::quadH: {
        const double x = w["length_mm"] / 2, y = w["spread_mm"] / 2;
        return {{{x, 0}, {x, -y}}, {{-x, 0}, {-x, -y}}, {{-x, 0}, {-x, y}}, {{x, 0}, {x, y}}};
    }
    case LayoutKind::quadPlus: ring({0, 90, 180, 270}); break;
    case LayoutKind::triY:
    case LayoutKind::coaxialY6: {
        const double a = w["frontAngle_deg"];
        motors = {along(a, arm), along(180, w["tail_mm"]), along(360 - a, arm)};
        break;
    }
    case LayoutKind::hexaX: ring({30, 90, 150, 210, 270, 330}); break;
    case LayoutKind::hexaPlus: ring({0, 60, 120, 180, 240, 300}); break;
    case LayoutKind::octoX: ring({22.5, 67.5, 112.5, 157.5, 202.5, 247.5, 292.5, 337.5}); break;
    }
    std::vector<Spoke> spokes;
    for (std::size_t i = 0; i < motors.size(); ++i) {
        double clear = 0;
        for (const auto &other : motors) {
            const double cosine = motors[i].normalized().dot(other.normalized());
            if (cosine > 1 - 1e-9) continue; // itself
            const double between = std::acos(std::clamp(cosine, -1.0, 1.0));
            clear = std::max(clear, w["armWidth_mm"] / 2 / std::tan(between / 2));
        }
        spokes.push_back({motors[i].normalized() * std::min(clear, motors[i].norm() * 0.6), motors[i]});
    }
    return spokes;
}

/// "fr", "rl", "f", "b", "l", "r"...; a second one of the same word gets a figure.
std::string placeWord(const Vec2 &p, std::map<std::string, int> &used) {
    constexpr double kMiddle_mm = 1.0;
    std::string word = p.x() > kMiddle_mm ? "f" : p.x() < -kMiddle_mm ? "r" : "";
    const char *side = p.y() > kMiddle_mm ? "l" : p.y() < -kMiddle_mm ? "r" : "";
    word = word.empty() ? (*side == 'l' ? "left" : "right") : *side ? word + side : word == "f" ? "front" : "rear";
    const int n = ++used[word];
    return n == 1 ? word : fmt::format("{}{}", word, n);
}

Ring bodyOutline(double length, double width) {
    const double cut = std::min(length, width) * 0.22, x = length / 2, y = width / 2;
    return {{x, -y + cut}, {x, y - cut},   {x - cut, y},   {-x + cut, y},
            {-x, y - cut}, {-x, -y + cut}, {-x + cut, -y}, {x - cut, -y}};
}

class FrameMaker {
public:
    FrameMaker(LayoutKind kind, const Wishes &w) : kind_(kind), w_(w) {}

    Frame make() {
        const auto spokes = spokesOf(kind_, w_);
        Vec2 centre = Vec2::Zero();
        for (const auto &spoke : spokes) centre += spoke.motor_mm / double(spokes.size());
        hub_ = -centre;
        length_ = w_["bodyLength_mm"];
        if (kind_ == LayoutKind::quadH) length_ = std::max(length_, w_["length_mm"] + 1.5 * w_["armWidth_mm"]);
        width_ = w_["bodyWidth_mm"];
        armTop_ = w_["armThickness_mm"];
        deck_ = armTop_ + (w_.yes("secondPlate") ? w_["secondThickness_mm"] : 0);
        addArms(spokes);
        addPlates(spokes);
        addExtras();
        for (auto &plate : frame_.plates) shift(plate);
        if (w_.yes("screws")) frame_.screws = missingScrews(frame_);
        return std::move(frame_);
    }

private:
    bool coaxial() const { return kind_ == LayoutKind::coaxialY6 || kind_ == LayoutKind::coaxialX8; }
    Vec3 at(const Vec2 &p, double z) const { return {p.x() + hub_.x(), p.y() + hub_.y(), z}; }

    void addArms(const std::vector<Spoke> &spokes) {
        std::map<std::string, int> used;
        for (const auto &spoke : spokes) {
            const std::string word = placeWord(spoke.motor_mm + hub_, used);
            const Vec2 out = (spoke.motor_mm - spoke.root_mm).normalized();
            Arm arm;
            arm.id = "arm-" + word;
            arm.root_mm = at(spoke.root_mm, armTop_);
            arm.tip_mm = at(spoke.motor_mm + out * (w_["motorCircle_mm"] / 2 + 4), armTop_);
            arm.width_mm = w_["armWidth_mm"];
            arm.thickness_mm = w_["armThickness_mm"];
            if (w_["armWall_mm"] > 0) {
                arm.section = w_.yes("armRound") ? ArmSection::tube : ArmSection::box;
                arm.wall_mm = w_["armWall_mm"];
            }
            if (w_["foldJoint_mm"] > 0) arm.foldJoint_mm = w_["foldJoint_mm"];
            frame_.arms.push_back(arm);
            MotorMount mount;
            mount.id = "mount-" + word;
            mount.position_mm = at(spoke.motor_mm, armTop_);
            mount.propDiameter_mm = w_["prop_mm"];
            mount.propPlane_mm = w_["propPlane_mm"];
            mount.pattern = {PatternShape::circle, w_["motorCircle_mm"], 0, w_["motorHole_mm"], 4};
            frame_.motorMounts.push_back(mount);
            if (coaxial()) { // hangs below the arm, blades below it
                mount.id += "-low";
                mount.position_mm.z() = 0;
                mount.propPlane_mm = -w_["propPlane_mm"];
                frame_.motorMounts.push_back(mount);
            }
            if (w_["footHeight_mm"] > 0) {
                const double length = (spoke.motor_mm - spoke.root_mm).norm();
                // Clear of the lower propeller: its radius, half a foot, and air.
                const double clear = (length - w_["prop_mm"] / 2 - 13) / length;
                const double share = coaxial() ? std::clamp(clear, 0.1, 0.45) : 1.0;
                Standoff foot;
                foot.id = "foot-" + word;
                foot.role = StandoffRole::foot;
                foot.base_mm = at(spoke.root_mm + (spoke.motor_mm - spoke.root_mm) * share, -w_["footHeight_mm"]);
                foot.height_mm = w_["footHeight_mm"];
                foot.diameter_mm = 10;
                foot.thread = "M3";
                foot.material = "tpu";
                frame_.standoffs.push_back(foot);
            }
        }
    }

    std::vector<Vec2> standoffPlaces() const {
        constexpr double kEdge_mm = 6.5;
        const double y = width_ / 2 - kEdge_mm, x = length_ / 2 - width_ * 0.22 - 1;
        std::vector<double> rows{x, -x};
        const int wanted = int(w_["standoffs"]);
        if (w_.yes("cameraCage") || wanted >= 6) rows.push_back(x - 19);
        if (wanted >= 8) rows.push_back(-x + 19);
        std::vector<Vec2> places;
        for (double row : rows)
            for (double side : {y, -y}) places.emplace_back(row, side);
        return places;
    }

    Plate plate(const char *id, const char *name, double z, double thickness, double length, double width) const {
        Plate plate;
        plate.id = id;
        plate.name = name;
        plate.outline_mm = bodyOutline(length, width);
        plate.z_mm = z;
        plate.thickness_mm = thickness;
        return plate;
    }

    void drillStack(Plate &plate) const {
        HolePattern square;
        square.size_mm = w_["stackPattern_mm"];
        for (const auto &hole : holeCentres(square)) drill(plate, hole, w_["stackHole_mm"]);
    }

    /// Two clamp screws for each arm, the outer one where their heads and those of the stack have room: along the arm
    /// as far out as the plate goes, else nearer, else the two side by side. The same places in both plates.
    void drillArms(Plate &main, Plate &second, const std::vector<Spoke> &spokes) const {
        for (const auto &spoke : spokes) {
            const Vec2 out = (spoke.motor_mm - spoke.root_mm).normalized(), aside(-out.y(), out.x());
            const double across = w_["armWidth_mm"] / 2 - 3.2; // leaves 1.6 mm of arm beside the hole
            std::vector<Vec2> places;
            for (const double step : {6.0, 18.0, 14.0, 22.0, 26.0, 30.0})
                for (const double side : {0.0, across, -across}) places.push_back(out * step + aside * side);
            int drilled = 0;
            for (const Vec2 &place : places)
                if (drilled < 2 && clearOfPosts(spoke.root_mm + place) && headFits(main, spoke.root_mm + place) &&
                    headFits(second, spoke.root_mm + place) && drill(main, spoke.root_mm + place, 3.2) &&
                    drill(second, spoke.root_mm + place, 3.2))
                    ++drilled;
        }
    }

    bool clearOfPosts(const Vec2 &centre) const {
        constexpr double kBeside_mm = 6.5; // half a post of 5 mm and half a lock nut, and some air
        const auto posts = w_.yes("topPlate") ? standoffPlaces() : std::vector<Vec2>{};
        return std::all_of(posts.begin(), posts.end(),
                           [&](const Vec2 &post) { return (post - centre).norm() >= kBeside_mm; });
    }

    void addSite(const char *id, const char *name, SiteKind kind, const std::string &on, const Vec3 &position) {
        Site site;
        site.id = id;
        site.name = name;
        site.kind = kind;
        site.on = on;
        site.X_FrameSite.position_mm = position;
        frame_.sites.push_back(site);
    }

    void addPlates(const std::vector<Spoke> &spokes) {
        Plate main =
            plate("plate-main", "Main plate", -w_["mainThickness_mm"], w_["mainThickness_mm"], length_, width_);
        drillStack(main);
        Plate second = plate("plate-second", "Second plate", armTop_, w_["secondThickness_mm"], length_, width_);
        drillStack(second);
        drillArms(main, second, spokes);
        Plate &deckPlate = w_.yes("secondPlate") ? second : main;
        addPassBehindStack(deckPlate);
        const bool top = w_.yes("topPlate");
        Plate roof =
            plate("plate-top", "Top plate", deck_ + w_["standoffHeight_mm"], w_["topThickness_mm"], length_, width_);
        if (top) {
            addStandoffs(main, deckPlate, roof);
            cutStrapSlots(roof);
        }
        frame_.plates.push_back(main);
        if (w_.yes("secondPlate")) frame_.plates.push_back(second);
        if (w_.yes("cleanPlate")) {
            addCleanPlate(frame_.plates);
            addStackSite(frame_.plates.back());
        } else
            addStackSite(deckPlate);
        if (top) frame_.plates.push_back(roof);
        const Plate &highest = top ? roof : deckPlate;
        const double packZ = top ? roof.z_mm + roof.thickness_mm : deck_;
        addSite("site-pack", top ? "Top plate" : "Body", SiteKind::strap, highest.id, at({0, 0}, packZ));
        addSite("site-tail", "Tail of the body", SiteKind::face, highest.id, at({-length_ / 2 + 14, 0}, packZ));
    }

    /// Behind the stack; narrower where screws stand in the way.
    void addPassBehindStack(Plate &deckPlate) {
        const double slotX = -w_["stackPattern_mm"] / 2 - 12;
        bool passes = false;
        for (const double half : {8.0, 5.0, 3.0}) passes = passes || cut(deckPlate, slotX - 4, slotX + 4, -half, half);
        if (!passes) return;
        PassThrough pass{"pass-rear", deckPlate.id, deckPlate.cutouts_mm.back(), HoleEdge::bare};
        for (auto &p : pass.outline_mm) p += hub_;
        frame_.passThroughs.push_back(pass);
    }

    void addStandoffs(Plate &main, Plate &deckPlate, Plate &roof) {
        int n = 0;
        for (const auto &place : standoffPlaces()) {
            Standoff standoff;
            standoff.id = fmt::format("standoff-{}", ++n);
            standoff.base_mm = at(place, deck_);
            standoff.height_mm = w_["standoffHeight_mm"];
            standoff.diameter_mm = 5;
            standoff.bore_mm = 2.5;
            frame_.standoffs.push_back(standoff);
            drill(deckPlate, place, 3.2);
            if (w_.yes("secondPlate")) drill(main, place, 3.2);
            drill(roof, place, 3.2);
        }
    }

    /// A strap needs both of its slots: where a standoff is in the way, further in.
    void cutStrapSlots(Plate &roof) {
        constexpr double kStrap_mm = 22, kSlot_mm = 3; // for a 20 mm strap
        const double slotY = width_ / 2 - 8;
        for (double x : {-18.0, 18.0})
            for (double inwards : {0.0, 2.5, 5.0}) {
                const double y = slotY - inwards;
                auto slot = [&](double side) {
                    return cut(roof, x - kStrap_mm / 2, x + kStrap_mm / 2, side - kSlot_mm / 2, side + kSlot_mm / 2);
                };
                if (y < 6) break;
                if (!slot(y)) continue;
                if (slot(-y)) break;
                roof.cutouts_mm.pop_back();
            }
    }

    /// On four bobbins over the deck.
    void addCleanPlate(std::vector<Plate> &below) {
        const double z = deck_ + w_["bobbinHeight_mm"], width = std::max(width_ - 24, 10.0);
        Plate soft = plate("plate-clean", "Clean plate", z, w_["secondThickness_mm"], length_ - 10, width);
        soft.isolated = true;
        drillStack(soft);
        int n = 0;
        for (double x : {1.0, -1.0})
            for (double y : {1.0, -1.0}) {
                const Vec2 place(x * (length_ / 2 - 5 - width * 0.22 - 2), y * (width / 2 - 5));
                drill(soft, place, 3.2);
                Standoff bobbin;
                bobbin.id = fmt::format("bobbin-{}", ++n);
                bobbin.role = StandoffRole::bobbin;
                bobbin.base_mm = at(place, deck_);
                bobbin.height_mm = w_["bobbinHeight_mm"];
                bobbin.diameter_mm = 8;
                bobbin.material = "silicone";
                frame_.standoffs.push_back(bobbin);
                if (w_.yes("stoppers") && w_["bobbinHeight_mm"] > 4) addStopper(n, place, -x, below);
            }
        frame_.plates.push_back(soft);
    }

    /// Whether a screw's head has room at a place: beside all arms, and clear of other screws' heads.
    bool hasRoomForAHead(const std::vector<Plate> &plates, const Vec2 &place) const {
        constexpr double kHead_mm = 3.6;
        const Vec2 there = place + hub_;
        for (const auto &arm : frame_.arms) {
            const Vec3 own = armAxes(arm).inverse() * Vec3(there.x(), there.y(), arm.root_mm.z());
            if (std::abs(own.x()) > armSize_mm(arm).x() / 2 + kHead_mm) continue;
            const double aside = std::abs(own.y());
            if (aside < arm.width_mm / 2 + kHead_mm) return false; // a hole in an arm would want a clamp screw
        }
        return std::all_of(plates.begin(), plates.end(), [&](const Plate &plate) { return headFits(plate, place); });
    }

    /// Beside its bobbin, towards the middle, where the plates under it can be drilled; two millimetres short of the
    /// clean plate. None where nothing of that is free.
    void addStopper(int n, const Vec2 &bobbin, double inwards, std::vector<Plate> &below) {
        constexpr double kShort_mm = 2;
        std::vector<Vec2> places;
        for (double away = 9; away <= 36; away += 3)
            for (const double aside : {0.0, 4.0, -4.0, 8.0, -8.0})
                places.push_back(bobbin + Vec2(inwards * away, aside));
        for (const Vec2 &place : places) {
            std::vector<Plate> drilled = below;
            if (!clearOfPosts(place) || !hasRoomForAHead(below, place) ||
                !std::all_of(drilled.begin(), drilled.end(), [&](Plate &plate) { return drill(plate, place, 3.2); }))
                continue;
            below = std::move(drilled);
            Standoff stopper;
            stopper.id = fmt::format("stopper-{}", n);
            stopper.role = StandoffRole::stopper;
            stopper.base_mm = at(place, deck_);
            stopper.height_mm = w_["bobbinHeight_mm"] - kShort_mm;
            stopper.diameter_mm = 5;
            stopper.bore_mm = 2.5;
            frame_.standoffs.push_back(stopper);
            return;
        }
    }

    void addStackSite(const Plate &on) {
        Site stack;
        stack.id = "site-stack";
        stack.name = "Main stack";
        stack.kind = SiteKind::pattern;
        stack.on = on.id;
        stack.X_FrameSite.position_mm = at({0, 0}, on.isolated ? on.z_mm + on.thickness_mm : deck_);
        stack.pattern = HolePattern{PatternShape::square, w_["stackPattern_mm"], 0, w_["stackHole_mm"], 4};
        stack.isolated = on.isolated;
        frame_.sites.push_back(stack);
    }

    void addExtras() {
        const std::string deckId = w_.yes("secondPlate") ? "plate-second" : "plate-main";
        if (w_.yes("cameraCage"))
            addSite("site-camera", "Camera cage", SiteKind::face, deckId,
                    at({length_ / 2 - width_ * 0.22 - 8, 0},
                       deck_ + (w_.yes("topPlate") ? w_["standoffHeight_mm"] / 2 : 12)));
        if (kind_ == LayoutKind::triY) {
            // The servo sits on the tail arm, just inside the hinge.
            for (const auto &arm : frame_.arms)
                if (arm.id == "arm-rear") {
                    const Vec3 inwards = (arm.root_mm - arm.tip_mm).normalized();
                    constexpr double kHinge_mm = 34;
                    Site site;
                    site.id = "site-servo";
                    site.name = "Tail servo";
                    site.kind = SiteKind::arm;
                    site.on = arm.id;
                    site.X_FrameSite.position_mm = arm.tip_mm + inwards * kHinge_mm;
                    frame_.sites.push_back(site);
                }
        }
    }

    void shift(Plate &plate) const {
        for (auto &p : plate.outline_mm) p += hub_;
        for (auto &hole : plate.holes) hole.centre_mm += hub_;
        for (auto &ring : plate.cutouts_mm)
            for (auto &p : ring) p += hub_;
    }

    LayoutKind kind_;
    const Wishes &w_;
    Frame frame_;
    Vec2 hub_ = Vec2::Zero(); ///< where the arms meet, seen from the centroid of the motors
    double length_ = 0, width_ = 0, armTop_ = 0, deck_ = 0;
};

} // namespace

LayoutValues usualSection(const LayoutValues &values) {
    constexpr double kThickestBar_mm = 10, kWall_mm = 1.5; // common practice, no source
    const auto width = values.find("armWidth_mm"), thickness = values.find("armThickness_mm");
    if (width == values.end() || thickness == values.end()) return {};
    return {{"armWall_mm", thickness->second > kThickestBar_mm ? kWall_mm : 0.0},
            {"armRound", width->second == thickness->second ? 1.0 : 0.0}};
}

Result<Frame, LayoutError> generateFrame(LayoutKind kind, const LayoutValues &values) {
    const auto parameters = parametersOf(kind);
    LayoutValues complete;
    for (const auto &parameter : parameters) complete[std::string(parameter.id)] = parameter.standard;
    for (const auto &[key, value] : values) {
        const auto known =
            std::find_if(parameters.begin(), parameters.end(), [&key = key](const auto &p) { return p.id == key; });
        if (known == parameters.end()) {
            std::vector<std::string> ids;
            for (const auto &p : parameters) ids.emplace_back(p.id);
            const auto near = nearestWord(key, ids);
            return Failure{LayoutError{key, near.empty() ? "this layout asks for nothing of that name"
                                                         : fmt::format("did you mean {}?", near)}};
        }
        if (!(value >= known->minimum && value <= known->maximum))
            return Failure{LayoutError{key, fmt::format("{:g} to {:g} {} expected, found {:g}", known->minimum,
                                                        known->maximum, known->unit, value)}};
        if (known->form != ParameterForm::number && value != std::floor(value))
            return Failure{LayoutError{key, fmt::format("a whole number expected, found {:g}", value)}};
        complete[key] = value;
    }
    for (const auto &[key, usual] : usualSection(complete))
        if (!values.contains(key)) complete[key] = usual;
    if (2 * complete["armWall_mm"] >= std::min(complete["armWidth_mm"], complete["armThickness_mm"]))
        return Failure{LayoutError{"armWall_mm", "two walls are thicker than the arm; 0 for a solid one"}};
    Frame frame = FrameMaker(kind, Wishes(complete)).make();
    for (const auto &layout : layouts())
        if (layout.kind == kind) {
            frame.layout = layout.id;
            frame.name = fmt::format("{}, {:g} mm propellers", layout.title, complete["prop_mm"]);
        }
    for (const auto &arm : frame.arms)
        if (arm.foldJoint_mm && *arm.foldJoint_mm >= (arm.tip_mm - arm.root_mm).norm())
            return Failure{LayoutError{"foldJoint_mm", "the joint lies beyond the arm's tip"}};
    frame.layoutParameters = complete;
    const bool reversed = complete["reversedSpin"] != 0;
    const auto spins = alternatingSpins(frame.motorMounts, reversed ? Spin::clockwise : Spin::counterClockwise);
    const auto numbers = motorNumbers(frame.motorMounts, Numbering::rearRightFirst);
    for (std::size_t i = 0; i < spins.size(); ++i) {
        frame.motorMounts[i].spin = spins[i];
        frame.motorMounts[i].number = numbers[i];
    }
    frame.numbering = "rear-right-first";
    for (const auto &plate : frame.plates) {
        Polygon polygon{plate.outline_mm, plate.cutouts_mm};
        for (const auto &hole : plate.holes) polygon.holes.push_back(circleRing(hole.centre_mm, hole.diameter_mm));
        if (const auto fault = faultOf(polygon); !fault.empty())
            return Failure{LayoutError{"", fmt::format("{}: {}; make the body larger", plate.name, fault)}};
    }
    return frame;
}

} // namespace waxis
