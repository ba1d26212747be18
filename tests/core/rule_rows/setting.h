// Rows of the rules' tables: a small build, derived values made by hand, and what one rule has to say of it.
#pragma once

#include "core/balance/case_balance.h"
#include "core/balance/reconcile.h"
#include "core/kit/kit.h"
#include "core/links/link_report.h"
#include "core/power/power_report.h"
#include "core/practice/practice.h"
#include "core/radio/radio_report.h"
#include "core/rules/rule.h"
#include "core/scene/scene.h"
#include "core/survey/survey.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"
#include "support/builds.h"

#include <functional>

namespace waxis::test {

/// Two boxes "a" and "b" on a bare craft, and nothing known of them yet.
struct Setting {
    Build build = bareQuad();
    Practice practice = practiceOf({});
    std::vector<BodyOwner> owners;
    std::vector<MassRow> massRows;
    std::vector<CaseBalance> balance;
    double ring_mm = 2;
    std::vector<KitLine> kitLines;
    ReconcileReport reconciled;
    std::vector<WireRoute> routes;
    WiringReport wiringReport;
    PowerReport powerReport;
    LinkReport linksReport;
    RadioReport radioReport;
    Survey survey;

    Setting() {
        addBox(build, "a", {10, 10, 5}, {0, 0, 0}, 5);
        addBox(build, "b", {10, 10, 5}, {30, 0, 0}, 5);
    }
    void kind(const char *part, PartKind kind) {
        type(part, [&](PartType &type) { type.kind = kind; });
    }
    template <class Change>
    void type(const char *part, Change &&change) {
        build.types.edit([&](TypeTable &types) { change(types.at(std::string(part) + "-type")); });
    }
    void port(const char *part, const char *id, PortKind kind, std::vector<std::string> pins) {
        type(part, [&](PartType &type) {
            Port port;
            port.id = id;
            port.kind = kind;
            for (auto &pin : pins) port.pins.push_back({std::move(pin), {}, false});
            type.ports.push_back(port);
        });
    }
    Wire &wire(const char *fromPort, const char *toPort) {
        Wire wire;
        wire.id = "w" + std::to_string(build.wires.size() + 1);
        wire.name = "Wire " + std::to_string(build.wires.size() + 1);
        wire.from = {"a", fromPort};
        wire.to = {"b", toPort};
        build.wires.push_back(wire);
        wiringReport.wires.emplace_back();
        routes.emplace_back();
        return build.wires.back();
    }
    RadioUse &radio(const char *part, std::optional<double> power_dBm = {}) {
        RadioUse use;
        use.part = part;
        use.power_dBm = power_dBm;
        use.listens = !power_dBm;
        use.low_MHz = 2400;
        use.high_MHz = 2480;
        use.centre_MHz = 2440;
        AntennaUse antenna;
        antenna.part = part;
        antenna.antenna.low_MHz = 2400;
        antenna.antenna.high_MHz = 2480;
        use.antennas.push_back(antenna);
        radioReport.radios.push_back(use);
        return radioReport.radios.back();
    }
    Rail &rail(const char *source, const char *output, const char *load) {
        Rail rail;
        rail.part = source;
        rail.output = output;
        rail.nominal_V = 5;
        RailLoad taken;
        taken.part = load;
        taken.known = true;
        rail.loads.push_back(taken);
        powerReport.rails.push_back(rail);
        return powerReport.rails.back();
    }
    /// A load case that flies with this weight, its centre of gravity so far from the thrust centre.
    CaseBalance &flying(double mass_g, const Vec2 &offset_mm = Vec2::Zero()) {
        CaseBalance flown;
        flown.loadCase = effectiveLoadCases(build).front();
        flown.mass.mass_g = mass_g;
        flown.mass.cg_mm = Vec3(offset_mm.x(), offset_mm.y(), 0);
        flown.offset_mm = flown.mass.cg_mm;
        balance.push_back(flown);
        return balance.back();
    }
    Practice &follow(const char *school, const char *option) {
        PracticeSettings settings;
        settings.schools[school] = option;
        return practice = practiceOf(settings);
    }

    std::vector<Finding> judged(RuleId rule) {
        Derived derived;
        derived.loadCases = effectiveLoadCases(build);
        derived.massRows = massRows;
        derived.balance = balance;
        derived.cgTolerance_mm = ring_mm;
        derived.kit = kitLines;
        derived.reconciled = reconciled;
        derived.scene.owners = owners;
        derived.routes = routes;
        derived.wiring = wiringReport;
        derived.power = powerReport;
        derived.links = linksReport;
        derived.radio = radioReport;
        derived.survey = std::make_shared<const Survey>(survey);
        std::vector<Finding> all;
        ruleOf(rule).judge(build, practice, derived, all);
        return all;
    }
};

/// What a rule says of a scene. No severity: it says nothing.
struct Row {
    const char *name;
    RuleId rule;
    std::function<void(Setting &)> make;
    std::optional<Severity> severity;
    double margin = 0;         ///< within 1e-6
    std::string headline = {}; ///< part of it; passes have none
    std::string variant = {};
};

inline double limitOf(Limit limit) { return practiceOf({})[limit]; }

// One table per file.
std::vector<Row> balanceRows();
std::vector<Row> compassRows();
std::vector<Row> linkRows();
std::vector<Row> lookRows();
std::vector<Row> placeRows();
std::vector<Row> powerRows();
std::vector<Row> radioRows();

} // namespace waxis::test
