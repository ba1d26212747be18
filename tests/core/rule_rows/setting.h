// Rows of the rules' tables: a small build, derived values made by hand, and what one rule has to say of it.
#pragma once

#include "core/practice/practice.h"
#include "core/rules/rule.h"
#include "core/scene/scene.h"
#include "support/builds.h"

#include <functional>
#include <memory>

namespace waxis {
struct CaseBalance;
struct KitLine;
struct LinkReport;
struct MassRow;
struct MotorScrews;
struct PowerReport;
struct RadioReport;
struct RadioUse;
struct Rail;
struct ReconcileReport;
struct StackReport;
struct Survey;
struct WireRoute;
struct WiringReport;
} // namespace waxis

namespace waxis::test {

/// Two boxes "a" and "b" on a bare craft, and nothing known of them yet. The reports are only declared here: a file of
/// rows includes those that it fills.
struct Setting {
private:
    struct Reports;
    std::unique_ptr<Reports> reports_;

public:
    Setting();
    ~Setting();

    Build build = bareQuad();
    Practice practice = practiceOf({});
    std::vector<BodyOwner> owners;
    double ring_mm = 2;
    std::vector<MassRow> &massRows;
    std::vector<CaseBalance> &balance;
    std::vector<KitLine> &kitLines;
    std::vector<StackReport> &stacks;
    std::vector<MotorScrews> &motorScrews;
    ReconcileReport &reconciled;
    std::vector<WireRoute> &routes;
    WiringReport &wiringReport;
    PowerReport &powerReport;
    LinkReport &linksReport;
    RadioReport &radioReport;
    Survey &survey;

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
    Wire &wire(const char *fromPort, const char *toPort);
    RadioUse &radio(const char *part, std::optional<double> power_dBm = {});
    Rail &rail(const char *source, const char *output, const char *load);
    /// A load case that flies with this weight, its centre of gravity so far from the thrust centre.
    CaseBalance &flying(double mass_g, const Vec2 &offset_mm = Vec2::Zero());
    Practice &follow(const char *school, const char *option) {
        PracticeSettings settings;
        settings.schools[school] = option;
        return practice = practiceOf(settings);
    }

    std::vector<Finding> judged(RuleId rule);
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
std::vector<Row> frameRows();
std::vector<Row> jointRows();
std::vector<Row> linkRows();
std::vector<Row> logRows();
std::vector<Row> lookRows();
std::vector<Row> motorRows();
std::vector<Row> placeRows();
std::vector<Row> powerRows();
std::vector<Row> radioRows();
std::vector<Row> runRows();
std::vector<Row> schoolRows();
std::vector<Row> sequenceRows();
std::vector<Row> stackRows();

} // namespace waxis::test
