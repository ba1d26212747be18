#include "core/rule_rows/setting.h"

#include "core/balance/case_balance.h"
#include "core/balance/mass_rows.h"
#include "core/balance/reconcile.h"
#include "core/derived/derived.h"
#include "core/kit/kit.h"
#include "core/links/link_report.h"
#include "core/measured/log_report.h"
#include "core/power/power_report.h"
#include "core/radio/radio_report.h"
#include "core/stack/motor_screws.h"
#include "core/stack/report.h"
#include "core/survey/survey.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

namespace waxis::test {

struct Setting::Reports {
    std::vector<MassRow> massRows;
    std::vector<CaseBalance> balance;
    std::vector<KitLine> kitLines;
    std::vector<StackReport> stacks;
    std::vector<MotorScrews> motorScrews;
    ReconcileReport reconciled;
    std::vector<WireRoute> routes;
    WiringReport wiring;
    PowerReport power;
    LinkReport links;
    RadioReport radio;
    Survey survey;
};

Setting::Setting()
    : reports_(std::make_unique<Reports>()), massRows(reports_->massRows), balance(reports_->balance),
      kitLines(reports_->kitLines), stacks(reports_->stacks), motorScrews(reports_->motorScrews),
      reconciled(reports_->reconciled), routes(reports_->routes), wiringReport(reports_->wiring),
      powerReport(reports_->power), linksReport(reports_->links), radioReport(reports_->radio),
      survey(reports_->survey) {
    addBox(build, "a", {10, 10, 5}, {0, 0, 0}, 5);
    addBox(build, "b", {10, 10, 5}, {30, 0, 0}, 5);
}

Setting::~Setting() = default;

Wire &Setting::wire(const char *fromPort, const char *toPort) {
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

RadioUse &Setting::radio(const char *part, std::optional<double> power_dBm) {
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

Rail &Setting::rail(const char *source, const char *output, const char *load) {
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

CaseBalance &Setting::flying(double mass_g, const Vec2 &offset_mm) {
    CaseBalance flown;
    flown.loadCase = effectiveLoadCases(build).front();
    flown.mass.mass_g = mass_g;
    flown.mass.cg_mm = Vec3(offset_mm.x(), offset_mm.y(), 0);
    flown.offset_mm = flown.mass.cg_mm;
    balance.push_back(flown);
    return balance.back();
}

std::vector<Finding> Setting::judged(RuleId rule) {
    Derived derived;
    derived.loadCases = effectiveLoadCases(build);
    derived.massRows = massRows;
    derived.balance = balance;
    derived.cgTolerance_mm = ring_mm;
    derived.kit = kitLines;
    derived.stacks = stacks;
    derived.motorScrews = motorScrews;
    derived.reconciled = reconciled;
    derived.scene.owners = owners;
    derived.routes = routes;
    derived.wiring = wiringReport;
    derived.power = powerReport;
    derived.links = linksReport;
    derived.radio = radioReport;
    derived.log = logReport(build, practice,
                            {*derived.loadCases, massRows, kitLines, balance, powerReport, wiringReport, radioReport});
    derived.survey = std::make_shared<const Survey>(survey);
    std::vector<Finding> all;
    ruleOf(rule).judge(build, practice, derived, all);
    return all;
}

} // namespace waxis::test
