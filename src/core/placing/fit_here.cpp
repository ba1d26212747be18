#include "core/placing/fit_here.h"

#include "core/radio/connector.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

std::string number(double value) { return fmt::format("{:.4g}", value); }

std::optional<Sentence> motorMisfit(const Build &build, const PartType &type, const std::string &seat) {
    if (!type.mounting) return std::nullopt;
    std::optional<double> other;
    for (const auto &mount : build.frame->motorMounts) {
        if (!seat.empty() && mount.id != seat) continue;
        if (mount.pattern.size_mm <= 0 || linesUp(mount.pattern, *type.mounting)) return std::nullopt;
        other = mount.pattern.size_mm;
    }
    if (!other) return std::nullopt;
    return Sentence{"{0} mm circle, the mounts have {1}", {number(type.mounting->size_mm), number(*other)}};
}

std::optional<Sentence> boardMisfit(const Build &build, const PartType &type, const TypeTable &adapters,
                                    const std::string &seat) {
    if (!type.mounting) return std::nullopt;
    bool any = false;
    for (const auto &site : build.frame->sites) {
        if (!site.pattern || (!seat.empty() && site.id != seat)) continue;
        any = true;
        if (linesUp(*site.pattern, *type.mounting)) return std::nullopt;
        for (const auto &[id, adapter] : adapters)
            if (adapter.mounting && adapter.carries && linesUp(*adapter.mounting, *site.pattern) &&
                linesUp(*adapter.carries, *type.mounting))
                return std::nullopt;
    }
    if (!any) return std::nullopt;
    return Sentence{"no {0} mm pattern here", {number(type.mounting->size_mm)}};
}

std::optional<Sentence> propellerMisfit(const Build &build, const PartType &type) {
    if (!type.propDiameter_mm) return std::nullopt;
    const auto &mounts = build.frame->motorMounts;
    double least = 1e300;
    for (std::size_t i = 0; i < mounts.size(); ++i)
        for (std::size_t j = i + 1; j < mounts.size(); ++j) {
            const double apart = (mounts[i].position_mm - mounts[j].position_mm).head<2>().norm();
            constexpr double kCoaxial_mm = 1.0;
            if (apart > kCoaxial_mm) least = std::min(least, apart);
        }
    const double overlap = *type.propDiameter_mm - least;
    if (overlap <= 0) return std::nullopt;
    return Sentence{"{0} inch: tips overlap {1} mm",
                    {fmt::format("{:.1f}", *type.propDiameter_mm / 25.4), fmt::format("{:.0f}", std::ceil(overlap))}};
}

/// An antenna that would take another's place: its plug must go onto the radio that the other is on, in its band.
std::optional<Sentence> antennaMisfit(const Build &build, const PartType &type, const std::string &instead) {
    if (!type.antenna) return std::nullopt;
    for (const auto &wire : build.wires) {
        const bool out = wire.to.part == instead, in = wire.from.part == instead;
        if (!out && !in) continue;
        const WireEnd &end = out ? wire.from : wire.to;
        const Part *radio = findPart(build, end.part);
        const PartType *board = radio ? typeOf(build, *radio) : nullptr;
        if (!board) continue;
        for (const auto &port : board->ports)
            if (port.id == end.port && port.kind == PortKind::coax && !port.connector.empty() &&
                !type.antenna->connector.empty() &&
                mating(coaxConnectorOf(type.antenna->connector), coaxConnectorOf(port.connector)) != Mating::mates)
                return Sentence{"{0}, {1} has {2}", {type.antenna->connector, radio->name, port.connector}};
        const bool band = std::any_of(board->radio.begin(), board->radio.end(), [&](const RadioBand &b) {
            return b.low_MHz < type.antenna->high_MHz && b.high_MHz > type.antenna->low_MHz;
        });
        if (!board->radio.empty() && !band) return Sentence{"another band than {0}", {radio->name}};
    }
    return std::nullopt;
}

double full_V(const Electrical &pack) { return *pack.cells * pack.cellFull_V.value_or(4.2); }

/// Parts that stand the whole pack, by their kind; others live on rails.
bool livesOnPack(PartKind kind) {
    switch (kind) {
    case PartKind::esc:
    case PartKind::fourInOneEsc:
    case PartKind::distributionBoard:
    case PartKind::regulator:
    case PartKind::flightController: return true;
    default: return false;
    }
}

std::optional<Sentence> voltageMisfit(const Build &build, const PartType &type, const std::string &instead) {
    if (!type.electrical) return std::nullopt;
    for (const auto &part : build.parts) {
        const PartType *other = typeOf(build, part);
        if (!other || !other->electrical || part.id == instead) continue;
        const bool isPack = type.kind == PartKind::battery && type.electrical->cells;
        if (isPack && livesOnPack(other->kind) && other->electrical->supplyMax_V &&
            full_V(*type.electrical) > *other->electrical->supplyMax_V)
            return Sentence{"{0} V full, {1} takes {2} V",
                            {number(full_V(*type.electrical)), part.name, number(*other->electrical->supplyMax_V)}};
        if (other->kind == PartKind::battery && other->electrical->cells && livesOnPack(type.kind) &&
            type.electrical->supplyMax_V && full_V(*other->electrical) > *type.electrical->supplyMax_V)
            return Sentence{"takes {0} V, {1} gives {2} V",
                            {number(*type.electrical->supplyMax_V), part.name, number(full_V(*other->electrical))}};
    }
    return std::nullopt;
}

} // namespace

std::optional<Sentence> misfit(const Build &build, const PartType &type, const TypeTable &adapters,
                               const std::string &instead) {
    const Part *replaced = instead.empty() ? nullptr : findPart(build, instead);
    const std::string seat = replaced ? replaced->placement.site : std::string();
    std::optional<Sentence> reason;
    if (type.antenna && replaced)
        reason = antennaMisfit(build, type, instead);
    else if (type.kind == PartKind::motor)
        reason = motorMisfit(build, type, seat);
    else if (type.kind == PartKind::propeller)
        reason = propellerMisfit(build, type);
    else if (type.kind != PartKind::fastener)
        reason = boardMisfit(build, type, adapters, seat);
    return reason ? reason : voltageMisfit(build, type, instead);
}

} // namespace waxis
