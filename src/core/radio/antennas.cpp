#include "core/radio/antennas.h"

#include "core/pins/signal.h"
#include "core/radio/decibel.h"

#include <algorithm>

namespace waxis {

namespace {

// What a receiver or sender is taken for where its part says nothing (common practice, no source).
constexpr double kNoiseFigure_dB = 6, kSelectivity_dB = 50, kSuppression_dB = 40, kBlocking_dBm = -20, kNeeded_dB = 6;
constexpr double kGnssBlocking_dBm = -30;

AntennaUse standing(const Build &build, const Part &part, const PartType &type) {
    AntennaUse use;
    use.part = part.id;
    use.antenna = *type.antenna;
    use.pattern = patternOf(*type.antenna);
    const Pose pose = framePose(build, part);
    use.centre_mm = pose * type.antenna->phaseCentre_mm;
    use.axis = pose.rotation * type.antenna->axis;
    use.cable_mm = type.antenna->pigtail_mm;
    use.coax = type.antenna->coax.empty() ? std::string(usualCoax().id) : type.antenna->coax;
    return use;
}

/// Whether the antenna sits right on a connector of the radio: fastened to it, with its foot near the port.
bool pluggedOn(const Build &build, const Part &radio, const Port &port, const Part &antenna) {
    const auto holds = [](const Part &a, const Part &b) {
        return std::find(a.fastening.onto.begin(), a.fastening.onto.end(), b.id) != a.fastening.onto.end();
    };
    if (!holds(antenna, radio) && !holds(radio, antenna)) return false;
    constexpr double kReach_mm = 15;
    const PartType *type = typeOf(build, antenna);
    if (!type) return false;
    const Vec3 at = framePose(build, radio) * port.position_mm;
    const Pose pose = framePose(build, antenna);
    if (type->ports.empty()) return (pose.position_mm - at).norm() < kReach_mm;
    return std::any_of(type->ports.begin(), type->ports.end(), [&](const Port &p) {
        return p.kind == PortKind::coax && (pose * p.position_mm - at).norm() < kReach_mm;
    });
}

/// All antennas on coax ports of a radio: by wire, or plugged straight on.
std::vector<AntennaUse> antennasOn(const Build &build, const Part &radio, const PartType &type, const std::string &only,
                                   const std::vector<double> &cut_mm) {
    std::vector<AntennaUse> uses;
    for (const auto &port : type.ports) {
        if (port.kind != PortKind::coax || (!only.empty() && port.id != only)) continue;
        bool found = false;
        for (std::size_t w = 0; w < build.wires.size(); ++w) {
            const Wire &wire = build.wires[w];
            const bool out = wire.from.part == radio.id && wire.from.port == port.id;
            const bool in = wire.to.part == radio.id && wire.to.port == port.id;
            if (!out && !in) continue;
            const Part *other = findPart(build, out ? wire.to.part : wire.from.part);
            const PartType *otherType = other ? typeOf(build, *other) : nullptr;
            if (!otherType || !otherType->antenna) continue;
            AntennaUse use = standing(build, *other, *otherType);
            use.port = port.id;
            use.wire = wire.id;
            // The wire is the antenna's own lead, or a cable of its own: its length counts once.
            use.cable_mm = std::max(use.cable_mm, w < cut_mm.size() ? cut_mm[w] : 0);
            use.connectors = otherType->antenna->connector == "soldered" ? 0 : 1;
            uses.push_back(std::move(use));
            found = true;
        }
        for (const auto &other : build.parts) {
            const PartType *otherType = found ? nullptr : typeOf(build, other);
            if (!otherType || other.id == radio.id || otherType->kind != PartKind::antenna || !otherType->antenna ||
                !pluggedOn(build, radio, port, other))
                continue;
            AntennaUse use = standing(build, other, *otherType);
            use.port = port.id;
            use.connectors = 1;
            uses.push_back(std::move(use));
            break;
        }
    }
    return uses;
}

} // namespace

RadioSetting settingOf(const Build &build, const std::string &part, int band) {
    for (const auto &setting : build.radioSettings)
        if (setting.part == part && setting.band == band) return setting;
    return {part, band, {}, {}};
}

std::vector<RadioUse> radiosOf(const Build &build, const std::vector<LoadCase> &loadCases,
                               const std::vector<double> &cut_mm) {
    std::vector<RadioUse> radios;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type) continue;
        for (std::size_t b = 0; b < type->radio.size(); ++b) {
            const RadioBand &band = type->radio[b];
            if (!(band.high_MHz > 0)) continue; // states no frequency: nothing can be said of it
            RadioUse radio;
            radio.part = part.id;
            radio.band = int(b);
            radio.kind = type->kind;
            radio.cases = casesSwitchedOn(part, loadCases);
            const RadioSetting setting = settingOf(build, part.id, int(b));
            const bool hasWidth = band.bandwidth_MHz && *band.bandwidth_MHz > 0;
            radio.bandwidth_MHz = hasWidth ? *band.bandwidth_MHz : 1;
            std::optional<double> centre = setting.centre_MHz;
            if (!centre && !band.channels.empty()) centre = band.channels.front().centre_MHz;
            for (const auto &channel : band.channels)
                if (centre && channel.centre_MHz == *centre) radio.channel = channel.name;
            radio.hops = !centre;
            radio.low_MHz = centre ? *centre - radio.bandwidth_MHz / 2 : band.low_MHz;
            radio.high_MHz = centre ? *centre + radio.bandwidth_MHz / 2 : band.high_MHz;
            radio.low_MHz = std::max(0.001, radio.low_MHz);
            radio.high_MHz = std::max(radio.low_MHz, radio.high_MHz);
            radio.centre_MHz = (radio.low_MHz + radio.high_MHz) / 2;
            if (band.power_dBm) radio.power_dBm = setting.power_dBm.value_or(*band.power_dBm);
            radio.listens = band.listens;
            const auto take = [&](const std::optional<double> &stated, double assumed, const char *key) {
                if (!stated) radio.assumed.emplace_back(key);
                return stated.value_or(assumed);
            };
            if (!hasWidth) radio.assumed.emplace_back("bandwidth");
            if (band.listens) {
                radio.noiseFigure_dB = take(band.noiseFigure_dB, kNoiseFigure_dB, "noise figure");
                radio.selectivity_dB = take(band.selectivity_dB, kSelectivity_dB, "selectivity");
                radio.blocking_dBm =
                    take(band.blocking_dBm, type->kind == PartKind::gps ? kGnssBlocking_dBm : kBlocking_dBm,
                         "blocking level");
                radio.needed_dB = take(band.needed_dB, kNeeded_dB, "signal over noise");
            }
            radio.filter_dB = band.filter_dB;
            radio.intercept_dBm = band.intercept_dBm;
            radio.fullPower_dBm = band.power_dBm.value_or(0);
            if (band.power_dBm)
                radio.suppression_dB = take(band.harmonicSuppression_dB, kSuppression_dB, "harmonic suppression");
            if (band.port.empty() && type->antenna) {
                AntennaUse own = standing(build, part, *type);
                own.cable_mm = 0;
                radio.antennas.push_back(std::move(own));
            } else
                radio.antennas = antennasOn(build, part, *type, band.listens ? std::string() : band.port, cut_mm);
            radios.push_back(std::move(radio));
        }
    }
    return radios;
}

double feedLoss_dB(const AntennaUse &use, double f_MHz) {
    const CoaxKind *coax = findCoax(use.coax);
    return coaxLoss_dB_m(coax ? *coax : usualCoax(), f_MHz) * use.cable_mm * 1e-3 + use.connectors * kConnectorLoss_dB;
}

} // namespace waxis
