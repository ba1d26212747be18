#include "io/report_json/wire_json.h"

#include "core/links/link_report.h"
#include "core/pins/signal.h"
#include "core/power/power_report.h"
#include "core/remedies/gauge_advice.h"
#include "core/wiring/cut_list.h"
#include "core/wiring/pad_joints.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"
#include "io/names.h"
#include "io/report_json/or_null.h"

#include <nlohmann/json.hpp>

namespace waxis::io {

namespace {

std::string_view wordFor(WireRole role) {
    switch (role) {
    case WireRole::power: return "power";
    case WireRole::ground: return "ground";
    case WireRole::signal: return "signal";
    case WireRole::video: return "video";
    case WireRole::coax: return "coax";
    case WireRole::phase: return "phase";
    case WireRole::servo: return "servo";
    case WireRole::balance: return "balance";
    }
    return "";
}

std::string_view wordFor(LeadVerdict verdict) {
    switch (verdict) {
    case LeadVerdict::unknown: return "unknown";
    case LeadVerdict::cut: return "cut";
    case LeadVerdict::asItIs: return "as-it-is";
    case LeadVerdict::trim: return "trim";
    case LeadVerdict::shortBy: return "short";
    case LeadVerdict::readyMade: return "ready-made";
    case LeadVerdict::none: return "none";
    }
    return "";
}

std::string_view wordFor(SupportKind kind) {
    switch (kind) {
    case SupportKind::end: return "end";
    case SupportKind::tie: return "tie";
    case SupportKind::passThrough: return "pass-through";
    }
    return "";
}

std::string_view wordFor(LinkFault fault) {
    switch (fault) {
    case LinkFault::sameWay: return "same-way";
    case LinkFault::mismatch: return "mismatch";
    case LinkFault::noPin: return "no-pin";
    case LinkFault::usedTwice: return "used-twice";
    case LinkFault::level: return "level";
    case LinkFault::inversion: return "inversion";
    case LinkFault::noGround: return "no-ground";
    case LinkFault::halfBus: return "half-bus";
    case LinkFault::noCompass: return "no-compass";
    case LinkFault::shortCircuit: return "short-circuit";
    case LinkFault::cannotAnswer: return "cannot-answer";
    case LinkFault::boot: return "boot";
    case LinkFault::balanceTap: return "balance-tap";
    case LinkFault::halfSerial: return "half-serial";
    }
    return "";
}

OrderedJson endJson(const WireEnd &end) { return {{"part", end.part}, {"port", end.port}}; }

OrderedJson namesOf(const Build &build, const std::vector<int> &wires) {
    auto list = OrderedJson::array();
    for (const int w : wires) list.push_back(build.wires[std::size_t(w)].id);
    return list;
}

} // namespace

OrderedJson wiresJson(const Build &build, const Analysis &analysis) {
    const Derived &derived = analysis.derived;
    auto list = OrderedJson::array();
    for (std::size_t w = 0; w < build.wires.size(); ++w) {
        const Wire &wire = build.wires[w];
        const WireReport &report = derived.wiring->wires[w];
        const WireRoute &route = derived.routes[w];
        const WireCurrent &current = derived.power->wires[w];
        OrderedJson entry{{"id", wire.id}, {"name", wire.name}, {"from", endJson(wire.from)}, {"to", endJson(wire.to)}};
        entry["role"] = wordFor(report.role);
        entry["lay"] = nameOf(wire.lay);
        entry["gauge_AWG"] = report.gauge_AWG;
        entry["outer_mm"] = report.outer_mm;
        entry["bundle_mm"] = report.bundle_mm;
        entry["routed"] = route.found;
        entry["route_mm"] = report.route_mm;
        entry["corners_mm"] = report.corners_mm;
        entry["twist"] = report.twist;
        entry["ends_mm"] = report.ends_mm;
        entry["resolder_mm"] = report.resolder_mm;
        entry["slack_mm"] = report.slack_mm;
        entry["slackFor"] = report.slackFor;
        entry["needed_mm"] = report.needed_mm;
        entry["cut_mm"] = report.cut_mm;
        entry["supplied_mm"] = orNull(report.supplied_mm);
        entry["suppliedWith"] = textOrNull(report.leadOf);
        entry["spare_mm"] = report.supplied_mm ? OrderedJson(report.spare_mm) : OrderedJson(nullptr);
        entry["verdict"] = wordFor(report.verdict);
        entry["mass_g"] = report.mass_g;
        entry["typical_A"] = current.known ? OrderedJson(current.typical_A) : OrderedJson(nullptr);
        entry["peak_A"] = current.known ? OrderedJson(current.peak_A) : OrderedJson(nullptr);
        entry["drop_V"] = dropOf(report, current).drop_V;
        entry["loss_W"] = dropOf(report, current).loss_W;
        const auto lighter = lighterGauge(wire, report, current, analysis.practice);
        entry["lighterGauge_AWG"] = lighter ? OrderedJson(lighter->gauge_AWG) : OrderedJson(nullptr);
        entry["lighterSaves_g"] = lighter ? OrderedJson(lighter->saves_g) : OrderedJson(nullptr);
        entry["bend_mm"] = report.tightest_mm > 0 ? OrderedJson(report.tightest_mm) : OrderedJson(nullptr);
        entry["bendLimit_mm"] = report.bendLimit_mm;
        entry["widestSpan_mm"] = route.widestSpan_mm;
        entry["points_mm"] = OrderedJson::array();
        for (const Vec3 &p : route.points_mm) entry["points_mm"].push_back(toJson(p));
        entry["supports"] = OrderedJson::array();
        for (const auto &s : route.supports)
            entry["supports"].push_back({{"kind", wordFor(s.kind)},
                                         {"id", textOrNull(s.id)},
                                         {"position_mm", toJson(s.position_mm)},
                                         {"along_mm", s.at_mm}});
        list.push_back(std::move(entry));
    }
    return list;
}

OrderedJson meetingsJson(const Build &build, const Analysis &analysis) {
    auto list = OrderedJson::array();
    for (const auto &m : analysis.derived.wiring->meetings)
        list.push_back({{"loud", build.wires[std::size_t(m.a)].id},
                        {"hears", build.wires[std::size_t(m.b)].id},
                        {"together_mm", m.together_mm},
                        {"apart_mm", m.apart_mm},
                        {"angle_deg", m.angle_deg},
                        {"eased", m.eased},
                        {"at_mm", toJson(m.at_mm)}});
    return list;
}

OrderedJson holesJson(const Build &build, const Analysis &analysis) {
    auto list = OrderedJson::array();
    for (const auto &use : analysis.derived.wiring->holes)
        list.push_back({{"passThrough", use.pass},
                        {"wires", namesOf(build, use.wires)},
                        {"area_mm2", use.area_mm2},
                        {"largestCircle_mm", use.hole_mm},
                        {"bundle_mm", use.bundle_mm},
                        {"fill", use.fill},
                        {"limit", use.limit}});
    return list;
}

OrderedJson powerJson(const Build &build, const Analysis &analysis) {
    const PowerReport &power = *analysis.derived.power;
    OrderedJson out;
    out["rails"] = OrderedJson::array();
    for (const auto &rail : power.rails) {
        OrderedJson entry{{"part", rail.part},           {"output", rail.output},
                          {"least_V", rail.least_V},     {"nominal_V", rail.nominal_V},
                          {"most_V", rail.most_V},       {"limit_A", orNull(rail.limit_A)},
                          {"typical_A", rail.typical_A}, {"peak_A", rail.peak_A},
                          {"heat_W", rail.heat_W},       {"fedFrom", textOrNull(rail.feeds)}};
        const auto caseOf = [&](int index) {
            const auto &cases = analysis.derived.loadCases;
            return index >= 0 && std::size_t(index) < cases.size() ? OrderedJson(cases[std::size_t(index)].id)
                                                                   : OrderedJson(nullptr);
        };
        entry["worstCase"] = caseOf(rail.worstCase);
        entry["worstPeakCase"] = caseOf(rail.worstPeakCase);
        entry["typicalByCase_A"] = rail.typicalByCase_A;
        entry["loads"] = OrderedJson::array();
        for (const auto &load : rail.loads)
            entry["loads"].push_back({{"part", load.part},
                                      {"supply", load.supply},
                                      {"typical_A", load.typical_A},
                                      {"peak_A", load.peak_A},
                                      {"known", load.known},
                                      {"returns", load.returns},
                                      {"least_V", orNull(load.least_V)},
                                      {"most_V", orNull(load.most_V)},
                                      {"drop_V", load.drop_V},
                                      {"peakDrop_V", load.peakDrop_V},
                                      {"wires", namesOf(build, load.wires)}});
        out["rails"].push_back(std::move(entry));
    }
    out["unfed"] = power.unfed;
    out["supplies"] = OrderedJson::array();
    for (const auto &s : power.supplies) out["supplies"].push_back({{"alive", s.alive}, {"dark", s.dark}});
    out["through"] = OrderedJson::array();
    for (const auto &p : power.passages)
        out["through"].push_back(
            {{"part", p.part}, {"typical_A", p.typical_A}, {"peak_A", p.peak_A}, {"limit_A", orNull(p.limit_A)}});
    out["motors"] = OrderedJson::array();
    for (const auto &m : power.motors)
        out["motors"].push_back({{"mount", m.mount},
                                 {"motor", m.motor},
                                 {"speedController", textOrNull(m.esc)},
                                 {"hover_A", m.hover_A},
                                 {"full_A", m.full_A}});
    out["hover"] = OrderedJson::array();
    for (std::size_t i = 0; i < power.hover.size(); ++i) {
        const HoverReport &h = power.hover[i];
        if (h.pack.empty()) continue;
        out["hover"].push_back({{"loadCase", analysis.derived.loadCases[i].id},
                                {"pack", h.pack},
                                {"power_W", h.power_W},
                                {"current_A", h.current_A},
                                {"fullThrust_A", orNull(h.full_A)},
                                {"least_min", h.least_min},
                                {"most_min", h.most_min},
                                {"alarmPerCell_V", h.alarm_V},
                                {"turnBack_mAh", h.turnBack_mAh}});
    }
    return out;
}

OrderedJson linksJson(const Analysis &analysis) {
    const LinkReport &links = *analysis.derived.links;
    OrderedJson out;
    out["faults"] = OrderedJson::array();
    for (const auto &f : links.faults)
        out["faults"].push_back({{"fault", wordFor(f.fault)},
                                 {"wires", f.wires},
                                 {"part", f.part},
                                 {"port", f.port},
                                 {"pin", textOrNull(f.pin)},
                                 {"fromPin", textOrNull(f.fromPin)},
                                 {"toPin", textOrNull(f.toPin)}});
    out["serialPorts"] = OrderedJson::array();
    for (const auto &s : links.serial)
        out["serialPorts"].push_back({{"part", s.part}, {"port", s.port}, {"usedBy", textOrNull(s.usedBy)}});
    out["freeSerialPorts"] = links.freeSerial;
    out["motorOutputs"] = OrderedJson::array();
    for (const auto &m : links.motors)
        out["motorOutputs"].push_back({{"mount", m.mount},
                                       {"number", m.number},
                                       {"output", textOrNull(m.output)},
                                       {"speedController", textOrNull(m.esc)}});
    out["channels"] = OrderedJson::array();
    for (const auto &c : links.channels) {
        OrderedJson entry{{"from", c.from}, {"to", c.to}};
        entry["sent"] = c.sent == ChannelFunction::none ? OrderedJson() : OrderedJson(nameOf(c.sent));
        entry["wanted"] = c.wanted == ChannelFunction::none ? OrderedJson() : OrderedJson(nameOf(c.wanted));
        out["channels"].push_back(std::move(entry));
    }
    out["channelsWanted"] = OrderedJson::array();
    for (const ChannelFunction function : links.wanted) out["channelsWanted"].push_back(nameOf(function));
    return out;
}

OrderedJson wireChangeJson(const WireChange &change) {
    switch (change.kind) {
    case WireChange::Kind::gauge: return {{"change", "gauge"}, {"wire", change.wire}, {"gauge_AWG", change.gauge_AWG}};
    case WireChange::Kind::stock: return {{"change", "stock"}, {"wire", change.wire}};
    case WireChange::Kind::twist: return {{"change", "twist"}, {"wire", change.wire}};
    case WireChange::Kind::grommet: return {{"change", "grommet"}, {"passThrough", change.wire}};
    case WireChange::Kind::movePin:
        return {{"change", "move-pin"},
                {"wire", change.wire},
                {"core", change.core},
                {"atFrom", change.atFrom},
                {"pin", change.pin}};
    case WireChange::Kind::supply:
        return {{"change", "supply"}, {"load", change.wire}, {"part", change.part}, {"supply", change.pin}};
    case WireChange::Kind::port:
        return {{"change", "port"}, {"wire", change.wire}, {"atFrom", change.atFrom}, {"port", change.pin}};
    case WireChange::Kind::tie: return {{"change", "tie"}, {"position_mm", toJson(change.at_mm)}};
    case WireChange::Kind::leaveOut: return {{"change", "leave-out"}, {"wire", change.wire}};
    case WireChange::Kind::joinPins:
        return {{"change", "join-pins"}, {"wire", change.wire}, {"from", change.part}, {"to", change.pin}};
    case WireChange::Kind::sleeve: return {{"change", "sleeve"}, {"wire", change.wire}};
    case WireChange::Kind::tapeEdges: return {{"change", "tape-edges"}, {"wire", change.wire}};
    case WireChange::Kind::dropInsert:
        return {{"change", "drop-insert"}, {"wire", change.wire}, {"insert", change.core}};
    case WireChange::Kind::turnInsert:
        return {{"change", "turn-insert"}, {"wire", change.wire}, {"insert", change.core}};
    case WireChange::Kind::liftCore: return {{"change", "lift-core"}, {"wire", change.wire}, {"core", change.core}};
    case WireChange::Kind::dropStop: return {{"change", "drop-stop"}, {"wire", change.wire}, {"stop", change.core}};
    }
    return nullptr;
}

OrderedJson cutListJson(const Build &build, const Analysis &analysis) {
    const CutList list = cutList(build, analysis.practice, *analysis.derived.wiring);
    OrderedJson out;
    out["pieces"] = OrderedJson::array();
    for (const auto &r : list.rows)
        out["pieces"].push_back({{"label", r.label},
                                 {"colour", r.colour},
                                 {"gauge_AWG", r.gauge_AWG > 0 ? OrderedJson(r.gauge_AWG) : OrderedJson(nullptr)},
                                 {"length_mm", r.length_mm},
                                 {"how", r.cut},
                                 {"endFrom", r.stripFrom},
                                 {"endTo", r.stripTo},
                                 {"twistGroup", textOrNull(r.twistGroup)},
                                 {"sleeve_mm", r.sleeve_mm > 0 ? OrderedJson(r.sleeve_mm) : OrderedJson(nullptr)},
                                 {"inLine", textOrNull(r.inLine)},
                                 {"from", r.from},
                                 {"to", r.to}});
    out["stock"] = OrderedJson::array();
    for (const auto &s : list.stock)
        out["stock"].push_back(
            {{"gauge_AWG", s.gauge_AWG}, {"colour", s.colour}, {"metres", s.metres}, {"pieces", s.pieces}});
    out["ties"] = list.ties;
    out["sleeves"] = OrderedJson::array();
    for (const auto &s : list.sleeves)
        out["sleeves"].push_back({{"diameter_mm", s.diameter_mm}, {"length_mm", s.length_mm}, {"pieces", s.pieces}});
    out["joints"] = OrderedJson::array();
    for (const auto &j : padJoints(build)) {
        OrderedJson entry{{"part", j.part}, {"port", j.port}, {"pin", j.pin}, {"soldered", j.isSoldered()}};
        entry["cores"] = OrderedJson::array();
        for (const auto &core : j.cores)
            entry["cores"].push_back(
                {{"wire", build.wires[std::size_t(core.wire)].id}, {"core", core.core}, {"gauge_AWG", core.gauge_AWG}});
        entry["copper_mm2"] = j.copper_mm2;
        entry["heat"] = j.isSoldered() ? OrderedJson(heatWord(j.heat())) : OrderedJson();
        entry["wants_mm"] = j.wants_mm;
        entry["has_mm"] = j.has_mm ? OrderedJson(*j.has_mm) : OrderedJson();
        out["joints"].push_back(std::move(entry));
    }
    out["grommets"] = list.grommets;
    out["splices"] = list.splices;
    return out;
}

} // namespace waxis::io
