#include "io/report_json/radio_json.h"

#include "core/coverage/coverage.h"
#include "core/magnetics/current_paths.h"
#include "core/radio/decibel.h"
#include "core/radio/radio_report.h"
#include "io/names.h"
#include "io/report_json/or_null.h"

#include <nlohmann/json.hpp>

namespace waxis::io {

namespace {

std::string_view wordFor(DisturberKind kind) {
    switch (kind) {
    case DisturberKind::sender: return "sender";
    case DisturberKind::noise: return "noise";
    case DisturberKind::magnet: return "magnet";
    case DisturberKind::currents: return "currents";
    }
    return "";
}

template <class List, class Make>
OrderedJson listOf(const List &items, Make &&make) {
    auto list = OrderedJson::array();
    for (const auto &item : items) list.push_back(make(item));
    return list;
}

OrderedJson antennaJson(const AntennaUse &use) {
    OrderedJson out{{"part", use.part}, {"port", textOrNull(use.port)}, {"wire", textOrNull(use.wire)}};
    out["kind"] = nameOf(use.antenna.kind);
    out["polarisation"] = nameOf(use.antenna.polarisation);
    out["phaseCentre_mm"] = toJson(use.centre_mm);
    out["axis"] = toJson(use.axis);
    out["peakGain_dBi"] = peakGain_dBi(use.pattern);
    out["coax"] = use.coax;
    out["cable_mm"] = use.cable_mm;
    out["connectors"] = use.connectors;
    return out;
}

OrderedJson radioUseJson(const RadioUse &radio) {
    OrderedJson out{{"id", radio.id()}, {"part", radio.part}, {"band", radio.band}};
    out["channel"] = textOrNull(radio.channel);
    out["low_MHz"] = radio.low_MHz;
    out["high_MHz"] = radio.high_MHz;
    out["centre_MHz"] = radio.centre_MHz;
    out["hops"] = radio.hops;
    out["power_dBm"] = orNull(radio.power_dBm);
    out["power_mW"] = radio.power_dBm ? OrderedJson(milliwatts(*radio.power_dBm)) : OrderedJson(nullptr);
    out["listens"] = radio.listens;
    out["bandwidth_MHz"] = radio.bandwidth_MHz;
    out["noiseFigure_dB"] = radio.noiseFigure_dB;
    out["selectivity_dB"] = radio.selectivity_dB;
    out["harmonicSuppression_dB"] = radio.suppression_dB;
    out["blocking_dBm"] = radio.blocking_dBm;
    out["needed_dB"] = radio.needed_dB;
    out["assumed"] = radio.assumed;
    out["antennas"] = listOf(radio.antennas, antennaJson);
    return out;
}

OrderedJson couplingJson(const Coupling &c) {
    OrderedJson out{{"frequency_MHz", c.f_MHz}, {"wavelength_mm", c.lambda_mm}, {"distance_mm", c.distance_mm}};
    out["gainFrom_dBi"] = c.gainFrom_dBi;
    out["gainTo_dBi"] = c.gainTo_dBi;
    out["freeSpaceForm_dB"] = c.far_dB;
    out["nearFieldForm_dB"] = c.near_dB;
    out["nearFieldUsed"] = c.nearUsed;
    out["inducedEmf"] = c.exact;
    out["polarisation_dB"] = c.polarisation_dB;
    out["shadow_dB"] = c.shadow_dB;
    out["cable_dB"] = c.cable_dB;
    out["offBand_dB"] = c.offBand_dB;
    out["coupling_dB"] = c.total_dB;
    return out;
}

OrderedJson cellJson(const RadioReport &report, std::size_t r, std::size_t c) {
    const RadioCell &cell = report.cell(r, c);
    OrderedJson out{{"from", report.rows[r].id}, {"kind", wordFor(report.rows[r].kind)}, {"to", report.columns[c].id}};
    out["compass"] = report.columns[c].compass >= 0;
    out["distance_mm"] = cell.distance_mm;
    out["practice_mm"] = orNull(cell.practice_mm);
    if (report.columns[c].compass >= 0) {
        out["field_uT"] = cell.field_uT;
        out["headingError_deg"] = cell.heading_deg;
    }
    if (!cell.coupling) return out;
    out["coupling"] = couplingJson(*cell.coupling);
    out["arrives_dBm"] = cell.arrives_dBm;
    out["inBand"] = cell.inBand;
    out["rejection_dB"] = cell.rejection_dB;
    out["heard_dBm"] = cell.heard_dBm;
    out["spilled_dBm"] = cell.spilled_dBm;
    out["products_dBm"] = orNull(cell.products_dBm);
    out["sum_dBm"] = cell.sum_dBm;
    out["noiseFloor_dBm"] = cell.floor_dBm;
    out["rise_dB"] = cell.rise_dB;
    out["margin_dB"] = cell.margin_dB;
    out["blockingMargin_dB"] = cell.blockingMargin_dB;
    return out;
}

OrderedJson compassJson(const CompassReport &compass) {
    OrderedJson out{{"part", compass.part}, {"position_mm", toJson(compass.position_mm)}};
    out["loadCase"] = textOrNull(compass.loadCase);
    out["constant_uT"] = toJson(compass.field.constant_uT);
    out["hoverLevel_uT"] = compass.field.hover_uT;
    out["fullLevel_uT"] = compass.field.full_uT;
    out["constantError_deg"] = compass.constant_deg;
    out["hoverError_deg"] = compass.hover_deg;
    out["fullError_deg"] = compass.full_deg;
    out["by"] = listOf(compass.by, [](const FieldShare &s) {
        return OrderedJson{{"id", s.id},
                           {"constant_uT", toJson(s.constant_uT)},
                           {"hoverLevel_uT", s.hover_uT},
                           {"fullLevel_uT", s.full_uT}};
    });
    out["iron"] = listOf(compass.iron, [](const CompassReport::Iron &i) {
        return OrderedJson{{"part", i.part}, {"distance_mm", i.distance_mm}};
    });
    return out;
}

OrderedJson rangeJson(const RadioReport &report, const RangeReport &range) {
    OrderedJson out{{"ground", range.ground},
                    {"radio", report.radios[std::size_t(range.radio)].id()},
                    {"direction", range.down ? "down" : "up"}};
    out["distance_m"] = range.distance_m;
    out["power_dBm"] = range.power_dBm;
    out["gainAboard_dBi"] = range.gainHere_dBi;
    out["cable_dB"] = range.cable_dB;
    out["polarisation_dB"] = range.polarisation_dB;
    out["freeSpace_dB"] = range.freeSpace_dB;
    out["arrives_dBm"] = range.arrives_dBm;
    out["noiseFloor_dBm"] = range.noise_dBm;
    out["sensitivity_dBm"] = range.sensitivity_dBm;
    out["margin_dB"] = range.margin_dB;
    out["elevation_deg"] = range.elevation_deg;
    out["overheadMargin_dB"] = range.overhead_dB;
    out["ceiling_m"] = range.ceiling_m;
    out["withMargin_m"] = range.kept_m;
    out["fresnelRadius_m"] = range.fresnel_m;
    out["lineOverGround_m"] = range.clearance_m;
    out["sameHand"] = range.sameHand;
    out["assumed"] = range.assumed;
    return out;
}

} // namespace

OrderedJson radioJson(const Analysis &analysis) {
    const RadioReport &report = *analysis.derived.radio;
    const auto id = [&](int radio) { return report.radios[std::size_t(radio)].id(); };
    OrderedJson out;
    out["radios"] = listOf(report.radios, radioUseJson);
    out["cells"] = OrderedJson::array();
    for (std::size_t r = 0; r < report.rows.size(); ++r)
        for (std::size_t c = 0; c < report.columns.size(); ++c)
            if (report.cell(r, c).counts) out["cells"].push_back(cellJson(report, r, c));
    out["harmonics"] = listOf(report.harmonics, [&](const HarmonicProduct &h) {
        return OrderedJson{{"from", id(h.sender)}, {"to", id(h.listener)},   {"order", h.order},
                           {"low_MHz", h.low_MHz}, {"high_MHz", h.high_MHz}, {"arrives_dBm", h.level_dBm},
                           {"rise_dB", h.rise_dB}};
    });
    out["mixes"] = listOf(report.mixes, [&](const MixProduct &m) {
        return OrderedJson{{"first", id(m.first)},
                           {"times", m.p},
                           {"second", id(m.second)},
                           {"timesSecond", m.q},
                           {"to", id(m.listener)},
                           {"mixesIn", id(m.at)},
                           {"low_MHz", m.low_MHz},
                           {"high_MHz", m.high_MHz},
                           {"arrives_dBm", m.level_dBm},
                           {"rise_dB", m.rise_dB},
                           {"host_dBm", m.host_dBm},
                           {"guest_dBm", m.guest_dBm},
                           {"intercept_dBm", m.intercept_dBm},
                           {"filter_dB", m.filter_dB},
                           {"filtersStated", m.stated}};
    });
    out["clocks"] = listOf(report.clocks, [&](const ClockHit &c) {
        return OrderedJson{{"part", c.part},
                           {"clock", c.clock},
                           {"to", id(c.listener)},
                           {"order", c.order},
                           {"frequency_MHz", c.frequency_MHz},
                           {"distance_mm", c.distance_mm}};
    });
    out["surroundings"] = listOf(report.surroundings, [&](const AntennaSurroundings &s) {
        OrderedJson entry{{"antenna", report.radios[std::size_t(s.radio)].antennas[std::size_t(s.antenna)].part},
                          {"radio", id(s.radio)},
                          {"wavelength_mm", s.lambda_mm}};
        entry["conductor"] = textOrNull(s.conductor);
        entry["conductor_mm"] = s.conductor.empty() ? OrderedJson(nullptr) : OrderedJson(s.conductor_mm);
        entry["edge"] = textOrNull(s.edge);
        entry["edge_deg"] = orNull(s.edge_deg);
        return entry;
    });
    out["diversity"] = listOf(report.diversity, [&](const DiversityPair &d) {
        const auto &antennas = report.radios[std::size_t(d.radio)].antennas;
        return OrderedJson{{"radio", id(d.radio)},
                           {"antennas", {antennas[std::size_t(d.first)].part, antennas[std::size_t(d.second)].part}},
                           {"angle_deg", d.angle_deg}};
    });
    out["ranges"] = listOf(report.ranges, [&](const RangeReport &r) { return rangeJson(report, r); });
    out["compasses"] = listOf(report.compasses, compassJson);
    return out;
}

OrderedJson coverageJson(const RadioCoverage &coverage) {
    OrderedJson out{{"radio", coverage.radio}, {"loadCase", coverage.loadCase}};
    out["antennas"] = listOf(coverage.antennas, [](const AntennaCoverage &a) {
        OrderedJson entry{{"part", a.part}, {"lost", a.lost}, {"best_dBi", a.best_dBi}, {"tenth_dBi", a.tenth_dBi}};
        entry["by"] = listOf(a.by, [](const HiddenShare &s) { return OrderedJson{{"id", s.id}, {"share", s.share}}; });
        entry["belts"] = listOf(a.belts, [](const CoverageBelt &b) {
            return OrderedJson{{"fromElevation_deg", b.from_deg},
                               {"toElevation_deg", b.to_deg},
                               {"lost", b.lost},
                               {"mean_dBi", b.mean_dBi}};
        });
        return entry;
    });
    out["tenth_dBi"] = coverage.tenth_dBi;
    out["diversityGain_dB"] = coverage.diversity_dB;
    out["worst"] = coverage.worst;
    out["worst_dBi"] = coverage.worst_dBi;
    return out;
}

OrderedJson lineShadowJson(const LineShadow &shadow) {
    return {{"from", shadow.from},   {"to", shadow.to},       {"edgeOverLine_mm", shadow.height_mm},
            {"d1_mm", shadow.d1_mm}, {"d2_mm", shadow.d2_mm}, {"blockers", shadow.blockers}};
}

OrderedJson placeJson(const std::string &part, const PlaceReport &place) {
    OrderedJson out{{"part", part}, {"trial", textOrNull(place.trial)}, {"name", place.name}};
    out["skyHidden"] = orNull(place.skyLevel);
    out["skyHiddenCruise"] = orNull(place.skyCruise);
    out["lean_deg"] = orNull(place.lean_deg);
    out["nearestSender_mm"] = orNull(place.sender_mm);
    out["rise_dB"] = orNull(place.rise_dB);
    out["constantError_deg"] = orNull(place.constant_deg);
    out["hoverError_deg"] = orNull(place.hover_deg);
    out["fullError_deg"] = orNull(place.full_deg);
    out["nearestLoud_mm"] = orNull(place.loud_mm);
    out["nearestMagnet_mm"] = orNull(place.magnet_mm);
    out["nearestSteel_mm"] = orNull(place.steel_mm);
    out["leadSpare_mm"] = orNull(place.leadSpare_mm);
    out["wire_mm"] = place.wired ? OrderedJson(place.wire_mm) : OrderedJson(nullptr);
    out["stop"] = place.stop;
    out["watch"] = place.watch;
    out["meets"] = textOrNull(place.meets);
    return out;
}

OrderedJson turnJson(const PartTurn &turn) { return {{"axis", toJson(turn.axis)}, {"angle_deg", turn.angle_deg}}; }

OrderedJson settingJson(const RadioSetting &setting) {
    return {{"part", setting.part},
            {"band", setting.band},
            {"centre_MHz", orNull(setting.centre_MHz)},
            {"power_dBm", orNull(setting.power_dBm)}};
}

} // namespace waxis::io
