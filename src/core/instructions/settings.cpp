#include "core/instructions/settings.h"

#include "core/attitude/mounting_angles.h"
#include "core/balance/case_balance.h"
#include "core/build/frame_shapes.h"
#include "core/links/link_report.h"
#include "core/power/power_report.h"
#include "core/radio/decibel.h"
#include "core/radio/radio_report.h"
#include "core/rules/electrical.h"
#include "core/rules/radio_pairs.h"
#include "core/rules/wording.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

namespace {

class Rows {
public:
    Rows(const Build &build, const Derived &derived, int loadCase)
        : build_(build), derived_(derived), case_((*derived.loadCases)[std::size_t(loadCase)]), index_(loadCase) {}

    std::vector<SettingRow> make() {
        for (const auto &part : build_.parts)
            if (there(part.id) && kindOf(part) == PartKind::flightController) board(part);
        serial();
        receivers();
        for (const auto &part : build_.parts) compass(part);
        motors();
        alarms();
        senders();
        offsets();
        return std::move(rows_);
    }

private:
    void say(const char *topic, Sentence what, Sentence value) {
        rows_.push_back({{topic, {}}, std::move(what), std::move(value)});
    }
    bool there(const std::string &id) const {
        const Part *part = findPart(build_, id);
        return part && isAboard(*part, case_);
    }
    PartKind kindOf(const Part &part) const {
        const PartType *type = typeOf(build_, part);
        return type ? type->kind : PartKind::other;
    }
    /// Both conventions, since firmwares differ.
    void angles(const char *topic, const std::string &name, const RollPitchYaw &up) {
        const RollPitchYaw down = forwardRightDown(up);
        auto text = [](const RollPitchYaw &a) {
            return fmt::format("{:.0f}, {:.0f}, {:.0f}", a.roll_deg + 0.0, a.pitch_deg + 0.0, a.yaw_deg + 0.0);
        };
        say(topic, {"{0}: roll, pitch, yaw with z down", {name}}, {"{0}", {text(down)}});
        say(topic, {"{0}: roll, pitch, yaw with z up", {name}}, {"{0}", {text(up)}});
    }
    void board(const Part &part) {
        const PartType *type = typeOf(build_, part);
        if (type && type->arrow)
            angles("Board", displayName(build_, part.id),
                   mountingAngles(*type->arrow, framePose(build_, part).rotation).up);
    }
    void serial() {
        for (const auto &port : derived_.links->serial)
            if (!port.usedBy.empty() && there(port.part) && there(port.usedBy))
                say("Serial ports", {"{0}", {port.port}},
                    {"{0}: protocol and speed as it states them", {displayName(build_, port.usedBy)}});
    }
    void receivers() {
        for (const auto &part : build_.parts) {
            if (!there(part.id) || kindOf(part) != PartKind::receiver) continue;
            bool channels = false;
            for (const auto &wire : build_.wires)
                if (wire.from.part == part.id || wire.to.part == part.id)
                    for (const auto &core : wire.cores) {
                        const bool from = wire.from.part == part.id;
                        channels |=
                            signalAt(build_, from ? wire.from : wire.to, from ? core.fromPin : core.toPin).kind ==
                            SignalKind::channel;
                    }
            say("Receiver", {"{0}: kind of protocol", {displayName(build_, part.id)}},
                channels ? Sentence{"a pulse for each channel", {}}
                         : Sentence{"serial; the family and the direction of its signal as it states them", {}});
            say("Receiver", {"{0}: when the link is lost", {displayName(build_, part.id)}},
                {"motors stop, or as you choose: try it on the bench", {}});
        }
    }
    void compass(const Part &part) {
        const PartType *type = typeOf(build_, part);
        if (!type || !there(part.id) || !type->magnetics || !type->magnetics->compass_mm) return;
        angles("Compass", displayName(build_, part.id),
               mountingAngles(type->arrow.value_or(Vec3::UnitX()),
                              compassRotation(*type, framePose(build_, part).rotation))
                   .up);
    }
    void motors() {
        std::vector<MotorLink> links = derived_.links->motors;
        std::stable_sort(links.begin(), links.end(),
                         [](const MotorLink &a, const MotorLink &b) { return a.number < b.number; });
        for (const auto &link : links)
            for (const auto &mount : build_.frame->motorMounts)
                if (mount.id == link.mount)
                    say("Motors", {"motor {0}, {1}", {std::to_string(link.number), motorName(build_, link.mount)}},
                        {mount.spin == Spin::clockwise ? "output {0}, clockwise" : "output {0}, counter-clockwise",
                         {link.output.empty() ? "?" : link.output}});
    }
    void alarms() {
        if (std::size_t(index_) >= derived_.power->hover.size()) return;
        const HoverReport &hover = derived_.power->hover[std::size_t(index_)];
        if (hover.pack.empty() || hover.alarm_V <= 0) return;
        const std::string pack = nameWithin(build_, hover.pack);
        say("Alarms", {"volts of a cell under load, {0}", {pack}}, {"{0} V", {fmt::format("{:.2f}", hover.alarm_V)}});
        say("Alarms", {"used, time to turn back, {0}", {pack}}, {"{0} mAh", {wholeNumber(hover.turnBack_mAh)}});
        for (const auto &part : build_.parts)
            if (there(part.id) && kindOf(part) == PartKind::gps) {
                say("Alarms", {"satellites before take-off", {}}, {"8 or more", {}}); // common practice, no source
                break;
            }
    }
    void senders() {
        for (const auto &radio : derived_.radio->radios) {
            if (!radio.sends() || !there(radio.part)) continue;
            const std::string name = displayName(build_, radio.part);
            say("Radio", {"{0}: channel", {name}},
                radio.hops ? Sentence{"hops over {0} to {1} MHz", {megahertz(radio.low_MHz), megahertz(radio.high_MHz)}}
                           : Sentence{"{0} MHz", {megahertz(radio.centre_MHz)}});
            say("Radio", {"{0}: power", {name}},
                {"{0} mW; local law decides on band and power", {brief(milliwatts(*radio.power_dBm))}});
        }
    }
    void offsets() {
        const CaseBalance &balance = (*derived_.balance)[std::size_t(index_)];
        if (!balance.mass.cg_mm) return;
        for (const auto &part : build_.parts) {
            const PartKind kind = kindOf(part);
            if (!there(part.id) || (kind != PartKind::gps && kind != PartKind::flightController)) continue;
            const Aabb box = partBounds(build_, part);
            const Vec3 lever = (box.min_mm + box.max_mm) / 2 - *balance.mass.cg_mm;
            say("Offsets from the centre of gravity", {"{0}: forward, right, down", {displayName(build_, part.id)}},
                {"{0}, {1}, {2} mm", {wholeNumber(lever.x()), wholeNumber(-lever.y()), wholeNumber(-lever.z())}});
        }
    }

    const Build &build_;
    const Derived &derived_;
    const LoadCase &case_;
    int index_;
    std::vector<SettingRow> rows_;
};

} // namespace

std::vector<SettingRow> settingsToEnter(const Build &build, const Derived &derived, int loadCase) {
    return Rows(build, derived, loadCase).make();
}

} // namespace waxis
