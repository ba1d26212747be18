// Hash: FNV-1a, 64 bits (Fowler, Noll, Vo; constants from memory).
#include "core/log/fingerprint.h"

#include <cmath>
#include <cstdint>
#include <fmt/format.h>

namespace waxis {

namespace {

class Print {
public:
    void add(std::string_view text) {
        for (const unsigned char c : text) step(c);
        step(0); // "a" "bc" is not "ab" "c"
    }
    void add(double value) {
        constexpr double kStep = 0.01;
        auto whole = std::uint64_t(std::int64_t(std::llround(value / kStep)));
        for (int i = 0; i < 8; ++i, whole >>= 8) step(whole & 0xff);
    }
    void add(bool value) { step(value ? 2 : 1); }
    void add(int value) { add(double(value)); }
    void add(const Vec2 &v) { addAll(v.x(), v.y()); }
    void add(const Vec3 &v) { addAll(v.x(), v.y(), v.z()); }
    void add(const Pose &pose) {
        add(pose.position_mm);
        // A rotation and its negative are one; 0.0001 of a quaternion is a hundredth of a degree.
        const Quat &q = pose.rotation;
        const double lead = q.w() != 0 ? q.w() : q.x() != 0 ? q.x() : q.y() != 0 ? q.y() : q.z();
        const double sign = lead < 0 ? -100 : 100;
        addAll(sign * q.w(), sign * q.x(), sign * q.y(), sign * q.z());
    }
    void add(const std::vector<std::string> &list) {
        add(int(list.size()));
        for (const auto &one : list) add(std::string_view(one));
    }
    template <class... Each>
    void addAll(const Each &...each) {
        (add(each), ...);
    }
    std::string text() const { return fmt::format("{:016x}", state_); }

private:
    void step(std::uint64_t byte) { state_ = (state_ ^ byte) * 1099511628211ull; }
    std::uint64_t state_ = 14695981039346656037ull;
};

void addFrame(Print &print, const Frame &frame) {
    for (const auto &mount : frame.motorMounts)
        print.addAll(std::string_view(mount.id), mount.position_mm, mount.axis, mount.propDiameter_mm,
                     mount.propPlane_mm, int(mount.spin));
    for (const auto &arm : frame.arms)
        print.addAll(std::string_view(arm.id), arm.root_mm, arm.tip_mm, arm.width_mm, arm.thickness_mm,
                     std::string_view(arm.material));
    for (const auto &plate : frame.plates) {
        print.addAll(std::string_view(plate.id), plate.z_mm, plate.thickness_mm, std::string_view(plate.material),
                     int(plate.outline_mm.size()));
        for (const auto &corner : plate.outline_mm) print.add(corner);
        for (const auto &hole : plate.holes) print.addAll(hole.centre_mm, hole.diameter_mm);
    }
    for (const auto &post : frame.standoffs) print.addAll(std::string_view(post.id), post.base_mm, post.height_mm);
    for (const auto &site : frame.sites) print.addAll(std::string_view(site.id), site.X_FrameSite);
}

} // namespace

std::string fingerprintOf(const Build &build) {
    Print print;
    addFrame(print, *build.frame);
    for (const auto &part : build.parts) {
        print.addAll(std::string_view(part.id), std::string_view(part.type), std::string_view(part.placement.site),
                     part.placement.pose, int(part.fastening.method), part.fastening.onto, part.fastening.insulated);
        print.add(part.turns ? int(*part.turns) : -1);
    }
    for (const auto &stack : build.stacks) {
        print.addAll(std::string_view(stack.id), std::string_view(stack.on), int(stack.layers.size()));
        for (const auto &layer : stack.layers)
            print.addAll(int(layer.role), layer.parts, layer.height_mm.value.value_or(-1), layer.squeeze);
    }
    for (const auto &wire : build.wires) {
        print.addAll(std::string_view(wire.id), std::string_view(wire.from.part), std::string_view(wire.from.port),
                     std::string_view(wire.to.part), std::string_view(wire.to.port), int(wire.lay), int(wire.make),
                     wire.gauge_AWG.value_or(0), std::string_view(wire.bundle));
        for (const auto &core : wire.cores) print.addAll(std::string_view(core.fromPin), std::string_view(core.toPin));
        for (const auto &stop : wire.stops) print.addAll(std::string_view(stop.at), stop.point_mm);
    }
    for (const auto &tie : build.ties) print.addAll(std::string_view(tie.id), tie.position_mm);
    for (const auto &setting : build.radioSettings)
        print.addAll(std::string_view(setting.part), setting.band, setting.centre_MHz.value_or(-1),
                     setting.power_dBm.value_or(-1000));
    return print.text();
}

} // namespace waxis
