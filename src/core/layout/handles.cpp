#include "core/layout/handles.h"

#include "core/base/by_id.h"
#include "core/base/units.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

double rounded(double value, double step) { return std::round(value / step) * step; }

/// Where the arms of a generated frame meet.
Vec2 hubOf(const Frame &frame) {
    for (const auto &site : frame.sites)
        if (site.id == "site-stack") return site.X_FrameSite.position_mm.head<2>();
    return Vec2::Zero();
}

void pullMotor(LayoutKind kind, LayoutValues &values, const Vec2 &from, const Vec2 &to, double step_mm) {
    const double length = rounded(to.norm(), step_mm);
    // Angles off the nose for front motors, off the tail for rear ones.
    const double offNose = rounded(degreesFromRadians(std::atan2(std::abs(to.y()), std::abs(to.x()))), 0.5);
    const bool front = from.x() > 0;
    switch (kind) {
    case LayoutKind::quadX:
    case LayoutKind::quadPlus:
    case LayoutKind::hexaX:
    case LayoutKind::hexaPlus:
    case LayoutKind::octoX:
    case LayoutKind::coaxialX8: values["arm_mm"] = length; break;
    case LayoutKind::quadWide:
    case LayoutKind::quadStretched:
        values["arm_mm"] = length;
        values["frontAngle_deg"] = offNose;
        break;
    case LayoutKind::quadHybrid:
        values[front ? "arm_mm" : "rearArm_mm"] = length;
        values[front ? "frontAngle_deg" : "rearAngle_deg"] = offNose;
        break;
    case LayoutKind::quadH:
        values["length_mm"] = rounded(2 * std::abs(to.x()), step_mm);
        values["spread_mm"] = rounded(2 * std::abs(to.y()), step_mm);
        break;
    case LayoutKind::triY:
    case LayoutKind::coaxialY6:
        if (front) {
            values["arm_mm"] = length;
            values["frontAngle_deg"] = offNose;
        } else {
            values["tail_mm"] = length;
        }
        break;
    }
}

/// Pulling stops at what the layout allows.
void clampValues(LayoutKind kind, LayoutValues &values) {
    for (const auto &parameter : parametersOf(kind))
        if (const auto at = values.find(std::string(parameter.id)); at != values.end())
            at->second = std::clamp(at->second, parameter.minimum, parameter.maximum);
}

} // namespace

std::vector<FrameHandle> frameHandles(const Frame &frame) {
    std::vector<FrameHandle> handles;
    for (const auto &mount : frame.motorMounts) {
        const Vec2 p = mount.position_mm.head<2>();
        const bool known = std::any_of(handles.begin(), handles.end(), [&](const FrameHandle &h) {
            return h.kind == HandleKind::motor && (h.position_mm - p).norm() < 1.0;
        });
        if (known) continue;
        handles.push_back({HandleKind::motor, mount.id, p});
        const Vec2 out = p.norm() > 1 ? Vec2(p.normalized()) : Vec2(Vec2::UnitX());
        handles.push_back({HandleKind::propeller, mount.id, p + out * (mount.propDiameter_mm / 2)});
    }
    if (!isGenerated(frame)) return handles;
    for (const auto &plate : frame.plates) {
        if (plate.id != "plate-main") continue;
        double front = -1e300, left = -1e300;
        for (const auto &p : plate.outline_mm) {
            front = std::max(front, p.x());
            left = std::max(left, p.y());
        }
        const Vec2 hub = hubOf(frame);
        handles.push_back({HandleKind::bodyLength, "", {front, hub.y()}});
        handles.push_back({HandleKind::bodyWidth, "", {hub.x(), left}});
    }
    return handles;
}

EditResult setPropDiameter(const Build &build, const std::string &id, double diameter_mm) {
    if (!(diameter_mm >= 20 && diameter_mm <= 1500))
        return Failure{EditError{"A propeller measures from 20 to 1,500 mm."}};
    const MotorMount *mount = byId(build.frame->motorMounts, id);
    if (!id.empty() && !mount)
        return Failure{EditError{fmt::format("There is no motor mount \"{}\" in this frame.", id)}};
    Build next = build;
    const Vec2 at = mount ? Vec2(mount->position_mm.head<2>()) : Vec2(Vec2::Zero());
    next.frame.edit([&](Frame &frame) {
        for (auto &other : frame.motorMounts)
            if (id.empty() || (other.position_mm.head<2>() - at).norm() < 1.0) other.propDiameter_mm = diameter_mm;
    });
    return next;
}

EditResult pullHandle(const Build &build, const FrameHandle &handle, const Vec2 &to_mm, double step_mm) {
    const Frame &frame = *build.frame;
    if (!to_mm.allFinite()) return Failure{EditError{"The place is not a finite number."}};
    const MotorMount *mount = byId(frame.motorMounts, handle.mount);
    if (!mount && (handle.kind == HandleKind::motor || handle.kind == HandleKind::propeller))
        return Failure{EditError{fmt::format("There is no motor mount \"{}\" in this frame.", handle.mount)}};
    const auto *layout = isGenerated(frame) ? findLayout(frame.layout) : nullptr;
    if (!layout) {
        if (handle.kind == HandleKind::motor)
            return moveMotor(build, handle.mount, {rounded(to_mm.x(), step_mm), rounded(to_mm.y(), step_mm)});
        const double radius = mount ? (to_mm - mount->position_mm.head<2>()).norm() : 0;
        return setPropDiameter(build, handle.mount, std::clamp(rounded(2 * radius, step_mm), 20.0, 1500.0));
    }
    LayoutValues values = frame.layoutParameters;
    const Vec2 hub = hubOf(frame);
    switch (handle.kind) {
    case HandleKind::motor:
        pullMotor(layout->kind, values, mount->position_mm.head<2>() - hub, to_mm - hub, step_mm);
        break;
    case HandleKind::propeller:
        values["prop_mm"] = rounded(2 * (to_mm - mount->position_mm.head<2>()).norm(), step_mm);
        break;
    case HandleKind::bodyLength: values["bodyLength_mm"] = rounded(2 * std::abs(to_mm.x() - hub.x()), step_mm); break;
    case HandleKind::bodyWidth: values["bodyWidth_mm"] = rounded(2 * std::abs(to_mm.y() - hub.y()), step_mm); break;
    }
    clampValues(layout->kind, values);
    return relayout(build, layout->kind, values);
}

std::string handleInWords(const Frame &frame, const FrameHandle &handle) {
    const MotorMount *mount = byId(frame.motorMounts, handle.mount);
    const Vec2 hub = hubOf(frame);
    auto span = [&](int axis) {
        double low = 1e300, high = -1e300;
        for (const auto &plate : frame.plates)
            if (plate.id == "plate-main")
                for (const auto &p : plate.outline_mm) {
                    low = std::min(low, p[axis]);
                    high = std::max(high, p[axis]);
                }
        return high - low;
    };
    switch (handle.kind) {
    case HandleKind::motor:
        return mount ? fmt::format("{:.1f} mm from the centre", (mount->position_mm.head<2>() - hub).norm()) : "";
    case HandleKind::propeller:
        return mount ? fmt::format("propeller {:.1f} mm, {:.2f} in", mount->propDiameter_mm,
                                   mount->propDiameter_mm / 25.4)
                     : "";
    case HandleKind::bodyLength: return fmt::format("body {:.1f} mm long", span(0));
    case HandleKind::bodyWidth: return fmt::format("body {:.1f} mm wide", span(1));
    }
    return {};
}

} // namespace waxis
