#include "io/report_json/import_json.h"

#include "io/json/write_model.h"
#include "io/names.h"

#include <nlohmann/json.hpp>

namespace waxis::io {

std::string_view nameOf(SlotUse use) {
    switch (use) {
    case SlotUse::passThrough: return "pass-through";
    case SlotUse::tie: return "tie";
    case SlotUse::strap: return "strap";
    case SlotUse::motorSlot: return "motor-slot";
    case SlotUse::window: return "window";
    }
    return "";
}

std::string_view nameOf(PatternUse use) {
    switch (use) {
    case PatternUse::stack: return "stack";
    case PatternUse::motor: return "motor";
    case PatternUse::other: return "other";
    }
    return "";
}

std::string_view nameOf(PlateRole role) {
    switch (role) {
    case PlateRole::main: return "main";
    case PlateRole::second: return "second";
    case PlateRole::top: return "top";
    case PlateRole::clean: return "clean";
    case PlateRole::arm: return "arm";
    case PlateRole::other: return "other";
    case PlateRole::ignore: return "ignore";
    }
    return "";
}

std::string_view nameOf(LayerUse use) {
    switch (use) {
    case LayerUse::automatic: return "automatic";
    case LayerUse::plates: return "plates";
    case LayerUse::holes: return "holes";
    case LayerUse::ignore: return "ignore";
    }
    return "";
}

std::string_view nameOf(HoleFit fit) {
    switch (fit) {
    case HoleFit::tight: return "tight";
    case HoleFit::fine: return "fine";
    case HoleFit::medium: return "medium";
    case HoleFit::coarse: return "coarse";
    }
    return "";
}

namespace {

OrderedJson ring(const Ring &points) {
    auto list = OrderedJson::array();
    for (const auto &p : points) list.push_back({p.x(), p.y()});
    return list;
}

OrderedJson point(const Vec2 &p) { return {p.x(), p.y()}; }

OrderedJson plateJson(const FoundPlate &plate, const PlateChoice &choice) {
    OrderedJson out{{"layer", plate.layer}, {"proposedRole", nameOf(choice.role)}};
    out["proposedThickness_mm"] = choice.thickness_mm;
    const AreaProperties whole = areaProperties({plate.outline_mm, {}});
    out["area_mm2"] = plate.area_mm2;
    out["outlineArea_mm2"] = std::abs(whole.area_mm2);
    out["outlineCentroid_mm"] = point(whole.centroid_mm);
    Vec2 low = Vec2::Constant(1e300), high = Vec2::Constant(-1e300);
    for (const auto &p : plate.outline_mm) {
        low = low.cwiseMin(p);
        high = high.cwiseMax(p);
    }
    out["bounds_mm"] = {{"min", point(low)}, {"max", point(high)}};
    out["outline_mm"] = ring(plate.outline_mm);
    out["holes"] = OrderedJson::array();
    for (const auto &hole : plate.holes) {
        OrderedJson entry{{"centre_mm", point(hole.centre_mm)}, {"diameter_mm", hole.diameter_mm}};
        entry["screw"] = hole.screw ? OrderedJson(hole.screw->thread->name) : OrderedJson(nullptr);
        entry["fit"] = hole.screw ? OrderedJson(nameOf(hole.screw->fit)) : OrderedJson(nullptr);
        entry["pattern"] = hole.pattern >= 0 ? OrderedJson(hole.pattern) : OrderedJson(nullptr);
        out["holes"].push_back(entry);
    }
    out["slots"] = OrderedJson::array();
    for (const auto &slot : plate.cutouts) {
        OrderedJson entry{{"use", nameOf(slot.use)}, {"centre_mm", point(slot.centre_mm)}};
        entry["length_mm"] = slot.length_mm;
        entry["width_mm"] = slot.width_mm;
        entry["angle_deg"] = slot.angle_deg;
        entry["area_mm2"] = slot.area_mm2;
        entry["roundEnds"] = slot.roundEnds;
        out["slots"].push_back(entry);
    }
    out["patterns"] = OrderedJson::array();
    for (const auto &p : plate.patterns) {
        OrderedJson entry{{"use", nameOf(p.use)}, {"shape", nameOf(p.pattern.shape)}};
        entry["size_mm"] = p.pattern.size_mm;
        if (p.secondSize_mm > 0) entry["secondSize_mm"] = p.secondSize_mm;
        entry["measured_mm"] = p.measured_mm;
        entry["holeDiameter_mm"] = p.pattern.holeDiameter_mm;
        entry["centre_mm"] = point(p.centre_mm);
        entry["angle_deg"] = p.angle_deg;
        entry["holes"] = p.holes;
        entry["shaftHole"] = p.shaftHole;
        out["patterns"].push_back(entry);
    }
    return out;
}

} // namespace

std::string recognitionText(const FlatDrawing &drawing, const Recognition &found, const DrawingChoices &choices) {
    OrderedJson out{{"format", "weightaxis-import"}, {"version", 1}, {"units", drawing.units}};
    out["layers"] = OrderedJson::array();
    for (const auto &layer : drawing.layers)
        out["layers"].push_back({{"name", layer}, {"use", nameOf(found.layers.at(layer))}});
    out["plates"] = OrderedJson::array();
    for (std::size_t i = 0; i < found.plates.size(); ++i)
        out["plates"].push_back(
            plateJson(found.plates[i], i < choices.plates.size() ? choices.plates[i] : PlateChoice{}));
    out["skipped"] = OrderedJson::array();
    for (const auto &skipped : found.skipped) {
        OrderedJson entry{{"what", skipped.what}, {"layer", skipped.layer}, {"reason", skipped.reason}};
        if (skipped.at_mm) entry["at_mm"] = point(*skipped.at_mm);
        out["skipped"].push_back(entry);
    }
    return out.dump(1, ' ', false, OrderedJson::error_handler_t::replace) + "\n";
}

} // namespace waxis::io
