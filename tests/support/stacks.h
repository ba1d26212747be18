// A plate with a hole pattern, a plate above, and boards to stack on it.
#pragma once

#include "core/catalog/fastener_types.h"
#include "core/edits/stack_edits.h"
#include "support/builds.h"

namespace waxis::test {

inline Ring square(double side_mm) {
    const double h = side_mm / 2;
    return {{h, h}, {-h, h}, {-h, -h}, {h, -h}};
}

/// Carbon plate from z = -2 to 0 with a 30.5 mm pattern on top, a second one `room_mm` above it (0: none).
inline Build plateForStacks(double room_mm = 25) {
    Build build = bareQuad();
    build.frame.edit([&](Frame &frame) {
        Plate plate;
        plate.id = "low";
        plate.name = "Low plate";
        plate.outline_mm = square(60);
        plate.z_mm = -2;
        plate.thickness_mm = 2;
        frame.plates.push_back(plate);
        if (room_mm > 0) {
            plate.id = "high";
            plate.name = "High plate";
            plate.z_mm = room_mm;
            frame.plates.push_back(plate);
            Standoff standoff;
            standoff.id = "so";
            standoff.base_mm = {25, 25, 0};
            standoff.height_mm = room_mm;
            standoff.diameter_mm = 5;
            standoff.bore_mm = 2.5;
            frame.standoffs.push_back(standoff);
        }
        Site site;
        site.id = "site";
        site.name = "Pattern";
        site.kind = SiteKind::pattern;
        site.on = "low";
        site.pattern = HolePattern{PatternShape::square, 30.5, 0, 3.2, 4};
        frame.sites.push_back(site);
    });
    return build;
}

inline Solid pieceOf(SolidRole role, Vec3 size, Vec3 middle, const std::string &material = "glass-laminate",
                     bool bare = false) {
    return {Box{size}, {middle, Quat::Identity()}, role, material, bare};
}

/// A board of 36 x 36 mm, `thick_mm` thick from z = 0 up; what stands on it or hangs from it is given.
inline PartType boardType(const std::string &id, double thick_mm = 1.6, std::vector<Solid> more = {}) {
    PartType type;
    type.id = id;
    type.name = "Board " + id;
    type.kind = PartKind::flightController;
    type.mass_g = catalogueValue(8);
    type.mounting = HolePattern{PatternShape::square, 30.5, 0, 3.2, 4};
    type.solids = {pieceOf(SolidRole::board, {36, 36, thick_mm}, {0, 0, thick_mm / 2})};
    type.solids.insert(type.solids.end(), more.begin(), more.end());
    return type;
}

/// A plate with holes of 30.5 mm that carries a 20 mm pattern of M2.
inline PartType adapterType() {
    PartType plate = boardType("adapter", 1.5);
    plate.kind = PartKind::mount;
    plate.solids[0].role = SolidRole::body;
    plate.carries = HolePattern{PatternShape::square, 20, 0, 2.2, 4};
    return plate;
}

inline PartType made(const FastenerData &data, const std::string &material = "nylon") {
    const auto type = fastenerType(data, material);
    if (!type) qFatal("%s", type.error().message.c_str());
    return *type;
}

/// Motors with 16 mm circles, M3, tapped 4 mm deep, on an arm each.
inline Build withMotor(double arm_mm, double screw_mm, std::optional<double> depth_mm = 4.0) {
    Build build = bareQuad();
    build.frame.edit([&](Frame &frame) {
        Arm arm;
        arm.id = "arm";
        arm.tip_mm = {100, 100, 0};
        arm.width_mm = 12;
        arm.thickness_mm = arm_mm;
        frame.arms.push_back(arm);
    });
    PartType motor;
    motor.id = "motor";
    motor.name = "Motor";
    motor.kind = PartKind::motor;
    motor.mass_g = catalogueValue(30);
    motor.mounting = HolePattern{PatternShape::circle, 16, 0, 3.2, 4};
    if (depth_mm) motor.threadDepth_mm = catalogueValue(*depth_mm);
    motor.solids = {{Cylinder{27, 18}, {Vec3(0, 0, 9), Quat::Identity()}, SolidRole::body, "aluminium", false}};
    build = *addPart(build, motor, "motor", Pose{Vec3(100, 100, 0), Quat::Identity()});
    build.parts.back().fastening = {FasteningMethod::screws, {"arm"}, false, {}};
    if (screw_mm > 0) {
        PartType set = made({FastenerForm::screw, "M3", screw_mm}, "steel");
        set.fastener->pieces = 4;
        build = *addPart(build, set, "set", Pose{Vec3(100, 100, -arm_mm), Quat::Identity()});
        build.parts.back().fastening = {FasteningMethod::screws, {"motor", "arm"}, false, {}};
    }
    return build;
}

/// Makes a stack by laying one thing on another.
class Layers {
public:
    explicit Layers(Build build) : build_(std::move(build)) { take(addStack(build_, "site", "Stack", &id_)); }
    Layers &board(const PartType &type) { return take(addBoard(build_, id_, size(), type)); }
    Layers &damper(double height, double squeeze) {
        take(addHardware(build_, id_, size(), *damperType("M3", height)));
        return take(setLayer(build_, id_, size() - 1, {}, squeeze, {}));
    }
    Layers &spacer(double height) { return hardware({FastenerForm::spacer, "M3", height}); }
    Layers &nut() { return hardware({FastenerForm::nut, "M3"}, "steel"); }
    Layers &hardware(const FastenerData &data, const std::string &material = "nylon") {
        return take(addHardware(build_, id_, size(), made(data, material)));
    }
    Layers &filler(LayerRole role, double height) { return take(addFiller(build_, id_, size(), role, height)); }
    Layers &screw(double length, HeadStyle head = HeadStyle::cap) {
        return take(chooseScrew(build_, id_, {FastenerForm::screw, "M3", length, head}, "steel"));
    }
    Layers &base(const StackBase &base) { return take(setStackBase(build_, id_, base)); }
    const Build &build() const { return build_; }
    const std::string &id() const { return id_; }
    const Stack &stack() const { return *findStack(build_, id_); }
    int size() const { return int(stack().layers.size()); }

private:
    Layers &take(const EditResult &result) {
        if (!result) qFatal("%s", result.error().message.c_str());
        build_ = *result;
        return *this;
    }
    Build build_;
    std::string id_;
};

} // namespace waxis::test
