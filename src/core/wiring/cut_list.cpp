#include "core/wiring/cut_list.h"

#include "core/wiring/core_gauge.h"
#include "core/wiring/wire_report.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

std::string_view wordFor(LeadVerdict verdict) {
    switch (verdict) {
    case LeadVerdict::unknown: return "not known";
    case LeadVerdict::cut: return "cut";
    case LeadVerdict::asItIs: return "as it is";
    case LeadVerdict::trim: return "trim";
    case LeadVerdict::shortBy: return "too short";
    case LeadVerdict::readyMade: return "ready made";
    case LeadVerdict::none: return "none reaches";
    }
    return "";
}

std::string endText(const Build &build, const WireEnd &end, const std::string &pin) {
    std::string text = displayName(build, end.part) + ", " + end.port;
    return pin.empty() ? text : text + ": " + pin;
}

std::string stripText(const Build &build, const Practice &practice, const Wire &wire, const WireEnd &end) {
    if (wire.lay == WireLay::coax || wire.make == WireMake::readyMade) return "plug";
    return isSoldered(build, end) ? fmt::format("strip {:g}, tin", practice[Limit::endSolder])
                                  : fmt::format("strip {:g}, crimp", practice[Limit::endCrimp]);
}

/// "5 A fuse at 40 mm": from the first end; what goes round all cores stands with the first.
std::string inLineText(const Build &build, const Wire &wire, int core, double route_mm) {
    std::string text;
    for (const auto &insert : wire.inserts) {
        if (insert.core != core && !(insert.core < 0 && core == 0)) continue;
        const auto type = build.types->find(insert.type);
        text += fmt::format("{}{} at {:.0f} mm", text.empty() ? "" : ", ",
                            type == build.types->end() ? insert.type : type->second.name, insert.at * route_mm);
    }
    return text;
}

} // namespace

double sleeveFor_mm(double bundle_mm) {
    for (const double size : {2.0, 3.0, 4.0, 6.0, 8.0, 10.0, 13.0, 16.0, 20.0, 25.0})
        if (bundle_mm <= size) return size;
    return std::ceil(bundle_mm / 5) * 5;
}

CutList cutList(const Build &build, const Practice &practice, const WiringReport &wiring) {
    CutList list;
    for (std::size_t w = 0; w < build.wires.size() && w < wiring.wires.size(); ++w) {
        const Wire &wire = build.wires[w];
        const WireReport &report = wiring.wires[w];
        list.splices += wire.splices;
        const double sleeve_mm = wire.sleeved ? sleeveFor_mm(report.bundle_mm) : 0;
        if (wire.sleeved) {
            auto at = std::find_if(list.sleeves.begin(), list.sleeves.end(),
                                   [&](const SleeveRow &row) { return row.diameter_mm == sleeve_mm; });
            if (at == list.sleeves.end()) at = list.sleeves.insert(at, {sleeve_mm, 0, 0});
            at->length_mm += report.route_mm;
            ++at->pieces;
        }
        const bool twisted = wire.lay == WireLay::twisted && wire.cores.size() > 1;
        const std::size_t pieces =
            wire.lay == WireLay::coax ? std::min<std::size_t>(1, wire.cores.size()) : wire.cores.size();
        for (std::size_t c = 0; c < pieces; ++c) {
            const WireCore &core = wire.cores[c];
            CutRow row;
            row.label = pieces > 1 ? fmt::format("{} {}", wire.id, c + 1) : wire.id;
            row.wire = wire.id;
            row.name = wire.name;
            row.colour = wire.lay == WireLay::coax ? "coax"
                         : core.colour.empty() ? std::string(customaryColour(signalAt(build, wire.from, core.fromPin)))
                                               : core.colour;
            row.gauge_AWG = wire.lay == WireLay::coax ? 0 : gaugeOf(build, wire, core);
            row.length_mm = report.cut_mm;
            row.cut = wordFor(report.verdict);
            row.stripFrom = stripText(build, practice, wire, wire.from);
            row.stripTo = stripText(build, practice, wire, wire.to);
            if (twisted) row.twistGroup = wire.id;
            row.from = endText(build, wire.from, core.fromPin);
            row.to = endText(build, wire.to, core.toPin);
            row.sleeve_mm = sleeve_mm;
            row.inLine = inLineText(build, wire, int(c), report.route_mm);
            if (report.verdict == LeadVerdict::cut && row.gauge_AWG > 0) {
                auto at = std::find_if(list.stock.begin(), list.stock.end(), [&](const StockRow &s) {
                    return s.gauge_AWG == row.gauge_AWG && s.colour == row.colour;
                });
                if (at == list.stock.end()) at = list.stock.insert(at, {row.gauge_AWG, row.colour, 0, 0});
                at->metres += row.length_mm * 1e-3;
                ++at->pieces;
            }
            list.rows.push_back(std::move(row));
        }
    }
    std::sort(list.stock.begin(), list.stock.end(), [](const StockRow &a, const StockRow &b) {
        return std::pair(a.gauge_AWG, a.colour) < std::pair(b.gauge_AWG, b.colour);
    });
    std::sort(list.sleeves.begin(), list.sleeves.end(),
              [](const SleeveRow &a, const SleeveRow &b) { return a.diameter_mm < b.diameter_mm; });
    // Ties: every tie point, and along each arm that motor wires follow.
    constexpr double kAlongArms_mm = 40;
    list.ties = int(build.ties.size());
    for (const auto &arm : build.frame->arms) {
        const double length = (arm.tip_mm - arm.root_mm).norm();
        const bool used = std::any_of(build.wires.begin(), build.wires.end(), [&](const Wire &wire) {
            if (roleOf(build, wire) != WireRole::phase) return false;
            for (const auto &mount : build.frame->motorMounts)
                for (const WireEnd *end : {&wire.from, &wire.to}) {
                    const Part *part = findPart(build, end->part);
                    if (part && part->placement.site == mount.id &&
                        (mount.position_mm - arm.tip_mm).head<2>().norm() < 30)
                        return true;
                }
            return false;
        });
        if (used) list.ties += int(std::floor(length / kAlongArms_mm));
    }
    for (const auto &pass : build.frame->passThroughs) list.grommets += pass.edge == HoleEdge::grommet;
    for (const auto &arm : build.frame->arms)
        for (const auto &hole : arm.holes)
            list.grommets += (hole.wall == ArmWall::both ? 2 : 1) * (hole.edge == HoleEdge::grommet);
    return list;
}

} // namespace waxis
