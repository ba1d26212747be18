#include "core/sequence/checks.h"

#include "core/balance/case_balance.h"
#include "core/links/link_report.h"
#include "core/power/power_report.h"
#include "core/sequence/flights.h"
#include "core/sky/sky_view.h"
#include "core/wiring/pad_joints.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>
#include <fmt/format.h>
#include <map>

namespace waxis {

namespace {

class List {
public:
    List(const Build &build, const Practice &practice, const Derived &derived, int loadCase)
        : build_(build), practice_(practice), derived_(derived), case_((*derived.loadCases)[std::size_t(loadCase)]),
          index_(loadCase) {}

    std::vector<Check> make() {
        bridges();
        polarity();
        shortCut();
        add("carbon", CheckKind::carbon, Gate::train);
        firstPower();
        regulators();
        add("tones", CheckKind::tones, Gate::end);
        motors();
        aboard();
        flights();
        std::stable_sort(checks_.begin(), checks_.end(),
                         [](const Check &a, const Check &b) { return a.gate < b.gate; });
        return std::move(checks_);
    }

private:
    Check &add(std::string id, CheckKind kind, Gate gate, std::vector<std::string> subjects = {}) {
        Check check;
        check.id = std::move(id);
        check.kind = kind;
        check.gate = gate;
        check.subjects = std::move(subjects);
        checks_.push_back(std::move(check));
        return checks_.back();
    }
    bool there(const std::string &id) const {
        const Part *part = findPart(build_, id);
        return part && isAboard(*part, case_);
    }
    PartKind kindOf(const std::string &id) const {
        const Part *part = findPart(build_, id);
        const PartType *type = part ? typeOf(build_, *part) : nullptr;
        return type ? type->kind : PartKind::other;
    }
    /// Rows of pads that are soldered: as many gaps as there are neighbours.
    void bridges() {
        std::map<std::pair<std::string, std::string>, int> rows;
        for (const auto &joint : padJoints(build_))
            if (joint.isSoldered() && there(joint.part)) ++rows[{joint.part, joint.port}];
        double gaps = 0;
        std::vector<std::string> parts;
        for (const auto &[end, pins] : rows) {
            if (pins < 2 || kindOf(end.first) == PartKind::motor) continue;
            gaps += pins - 1;
            if (parts.empty() || parts.back() != end.first) parts.push_back(end.first);
        }
        if (gaps <= 0) return;
        Check &check = add("bridges", CheckKind::bridges, Gate::train, parts);
        check.low = check.high = 0;
        check.numbers = {gaps};
    }
    void polarity() {
        std::vector<std::string> plugs;
        for (const auto &wire : build_.wires)
            if ((kindOf(wire.from.part) == PartKind::battery || kindOf(wire.to.part) == PartKind::battery) &&
                there(wire.from.part) && there(wire.to.part))
                plugs.push_back(wire.id);
        for (const auto &part : build_.parts)
            if (there(part.id) && kindOf(part.id) == PartKind::capacitor) plugs.push_back(part.id);
        if (!plugs.empty()) add("polarity", CheckKind::polarity, Gate::train, plugs);
    }
    void shortCut() {
        double capacitance_uF = 0;
        for (const auto &part : build_.parts)
            if (const PartType *type = typeOf(build_, part);
                type && there(part.id) && type->kind == PartKind::capacitor && type->electrical)
                capacitance_uF += type->electrical->capacitance_uF.value_or(0);
        Check &check = add("short", CheckKind::shortCut, Gate::train);
        check.numbers = {capacitance_uF * 1e-6 * kBeep_Ohm};
    }
    void firstPower() {
        const IdleCurrent idle = idleCurrent(build_, practice_, *derived_.loadCases, *derived_.balance,
                                             *derived_.wiring, derived_.power->nets, index_);
        Check &limiter = add("limiter", CheckKind::limiter, Gate::train);
        limiter.numbers = {limiter_A(idle), idle.typical_A};
        if (idle.typical_A <= 0) return;
        // Data sheets are rough, and speed controllers take some tens of milliamperes that nobody states.
        constexpr double kLeast = 0.5, kMost = 1.5, kControllers_A = 0.1;
        Check &check = add("idle", CheckKind::idle, Gate::end);
        check.low = kLeast * idle.typical_A;
        check.high = kMost * idle.typical_A + kControllers_A;
        check.unit = "A";
        check.numbers = {idle.typical_A};
        if (!idle.complete) check.high = std::max(*check.high, idle.peak_A);
    }
    void regulators() {
        for (const auto &rail : derived_.power->rails) {
            if (rail.output == "BAT" || rail.output == "USB" || !there(rail.part) || rail.loads.empty() ||
                kindOf(rail.part) == PartKind::powerBank)
                continue;
            const bool train = isMeasuredWithTheTrain(kindOf(rail.part));
            Check &check = add("regulator:" + rail.part + "." + rail.output, CheckKind::regulator,
                               train ? Gate::train : Gate::rails, {rail.part});
            constexpr double kWithin = 0.05;
            check.low = (1 - kWithin) * rail.nominal_V;
            check.high = (1 + kWithin) * rail.nominal_V;
            check.unit = "V";
            check.numbers = {rail.nominal_V};
        }
    }
    void motors() {
        std::vector<const MotorMount *> mounts;
        for (const auto &mount : build_.frame->motorMounts) mounts.push_back(&mount);
        std::stable_sort(mounts.begin(), mounts.end(),
                         [](const MotorMount *a, const MotorMount *b) { return a->number < b->number; });
        for (const MotorMount *mount : mounts) {
            Check &check = add("motor:" + mount->id, CheckKind::motor, Gate::end, {mount->id});
            check.numbers = {double(mount->number), mount->spin == Spin::clockwise ? 1.0 : 0.0};
        }
    }
    /// What is fitted only after a flight without it is tried before the first flight with it.
    Check &addOf(const Part &part, const char *prefix, CheckKind kind) {
        const auto &cases = *derived_.loadCases;
        const Flights flights = flightsOf(build_, cases, index_);
        std::string later;
        if (!flights.onTheWay.empty() && !isAboard(part, cases[std::size_t(flights.onTheWay.front())]))
            for (const int c : flights.onTheWay)
                if (later.empty() && isAboard(part, cases[std::size_t(c)])) later = cases[std::size_t(c)].id;
        Check &check = add(prefix + part.id, kind, later.empty() ? Gate::end : Gate::flight, {part.id});
        check.loadCase = later;
        return check;
    }
    /// Share of the sky above the mask that its place leaves open, level; 0 to 1.
    double openSky(const Part &part, const PartType &type) const {
        const AntennaPlace place = antennaPlace(type, framePose(build_, part));
        const int self = int(&part - build_.parts.data());
        const RayWorld world = skyWorld(build_, derived_.scene, index_, self, practice_[Limit::skyThick]);
        return 1 - skyView(world, derived_.scene, place.position_mm, place.axis, practice_[Limit::skyMask], 0).hidden;
    }
    void aboard() {
        const Part *controller = nullptr;
        for (const auto &part : build_.parts)
            if (there(part.id) && kindOf(part.id) == PartKind::flightController && !controller) controller = &part;
        for (const auto &part : build_.parts) {
            if (!there(part.id)) continue;
            const PartType *type = typeOf(build_, part);
            if (!type) continue;
            switch (type->kind) {
            case PartKind::receiver: addOf(part, "bound:", CheckKind::bound); break;
            case PartKind::gps:
                addOf(part, "satellites:", CheckKind::satellites).numbers = {openSky(part, *type)};
                break;
            case PartKind::videoTransmitter:
            case PartKind::digitalVideoUnit: addOf(part, "picture:", CheckKind::picture); break;
            default: break;
            }
            if (type->magnetics && type->magnetics->compass_mm) addOf(part, "compass:", CheckKind::compass);
        }
        if (!controller) return;
        add("settings", CheckKind::settings, Gate::end, {controller->id});
        add("level", CheckKind::level, Gate::end, {controller->id});
    }
    void flights() {
        for (const auto &balance : *derived_.balance) {
            const LoadCase &now = balance.loadCase;
            if (!now.flies() || balance.mass.mass_g <= 0) continue;
            Check &weight = add("weight:" + now.id, CheckKind::weight, Gate::flight);
            weight.loadCase = now.id;
            constexpr double kScale_g = 1;
            weight.low = balance.mass.mass_g - balance.tolerance_g - kScale_g;
            weight.high = balance.mass.mass_g + balance.tolerance_g + kScale_g;
            weight.unit = "g";
            weight.numbers = {balance.mass.mass_g};
            if (balance.offset_mm) {
                Check &cg = add("balance:" + now.id, CheckKind::balance, Gate::flight);
                cg.loadCase = now.id;
                const double aft_mm = 2 * std::sqrt(std::max(0.0, balance.cgCovariance_mm2(0, 0))) + 1;
                cg.low = balance.offset_mm->x() - aft_mm;
                cg.high = balance.offset_mm->x() + aft_mm;
                cg.unit = "mm";
                cg.numbers = {balance.offset_mm->x()};
            }
            add("hover:" + now.id, CheckKind::hover, Gate::flight).loadCase = now.id;
        }
    }

    const Build &build_;
    const Practice &practice_;
    const Derived &derived_;
    const LoadCase &case_;
    int index_;
    std::vector<Check> checks_;
};

} // namespace

bool isMeasuredWithTheTrain(PartKind kind) {
    return kind == PartKind::esc || kind == PartKind::fourInOneEsc || kind == PartKind::distributionBoard ||
           kind == PartKind::regulator || kind == PartKind::battery || kind == PartKind::powerBank;
}

std::vector<Check> checksOf(const Build &build, const Practice &practice, const Derived &derived, int loadCase) {
    return List(build, practice, derived, loadCase).make();
}

double limiter_A(const IdleCurrent &idle) {
    constexpr std::array<double, 6> kUsual{0.5, 1, 2, 3, 5, 10};
    constexpr double kMore = 1.5;
    for (const double limit : kUsual)
        if (limit >= kMore * idle.typical_A) return limit;
    return kUsual.back();
}

const CheckResult *resultOf(const Build &build, const Check &check) {
    for (const auto &result : build.checkResults)
        if (result.check == check.id) return &result;
    return nullptr;
}

CheckVerdict verdictOf(const Check &check, const CheckResult *result) {
    if (!result) return CheckVerdict::open;
    if (result->good) return *result->good ? CheckVerdict::good : CheckVerdict::bad;
    if (!check.low && !check.high) return CheckVerdict::open;
    if (result->found.empty()) return CheckVerdict::open;
    std::string text = result->found;
    std::replace(text.begin(), text.end(), ',', '.');
    char *end = nullptr;
    const double found = std::strtod(text.c_str(), &end);
    if (end == text.c_str() || !std::isfinite(found)) return CheckVerdict::unread;
    return (check.low && found < *check.low) || (check.high && found > *check.high) ? CheckVerdict::bad
                                                                                    : CheckVerdict::good;
}

} // namespace waxis
