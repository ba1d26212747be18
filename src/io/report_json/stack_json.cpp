#include "io/report_json/stack_json.h"

#include "core/build/chain.h"
#include "core/kit/bill.h"
#include "core/remedies/stack_changes.h"
#include "core/stack/motor_screws.h"
#include "core/stack/report.h"
#include "io/json/write_model.h"
#include "io/names.h"
#include "io/report_json/or_null.h"

#include <nlohmann/json.hpp>

namespace waxis::io {

namespace {

OrderedJson ringJson(const Ring &ring) {
    auto list = OrderedJson::array();
    for (const auto &p : ring) list.push_back(toJson(p));
    return list;
}

std::string_view wordFor(ScrewVerdict verdict) {
    switch (verdict) {
    case ScrewVerdict::short_: return "short";
    case ScrewVerdict::good: return "good";
    case ScrewVerdict::long_: return "long";
    case ScrewVerdict::strikes: return "strikes";
    case ScrewVerdict::bottoms: return "bottoms";
    }
    return "good";
}

std::string_view wordFor(MotorScrewVerdict verdict) {
    switch (verdict) {
    case MotorScrewVerdict::short_: return "short";
    case MotorScrewVerdict::good: return "good";
    case MotorScrewVerdict::deep: return "deep";
    case MotorScrewVerdict::unknownDepth: return "depth-unknown";
    }
    return "good";
}

std::string_view wordFor(StackChangeKind kind) {
    switch (kind) {
    case StackChangeKind::screw: return "screw";
    case StackChangeKind::spacer: return "spacer";
    case StackChangeKind::cutDamper: return "cut-damper";
    case StackChangeKind::squeeze: return "squeeze";
    case StackChangeKind::damper: return "damper";
    case StackChangeKind::sheet: return "sheet";
    case StackChangeKind::shim: return "shim";
    case StackChangeKind::nut: return "nut";
    case StackChangeKind::lowNut: return "low-nut";
    case StackChangeKind::plugs: return "plugs";
    case StackChangeKind::standoffs: return "standoffs";
    case StackChangeKind::turn: return "turn";
    case StackChangeKind::ties: return "ties";
    case StackChangeKind::cutScrew: return "cut-screw";
    case StackChangeKind::cutStud: return "cut-stud";
    case StackChangeKind::motorScrew: return "motor-screw";
    }
    return "screw";
}

OrderedJson gapJson(const StackGap &gap) {
    return {{"below", gap.below},
            {"above", gap.above},
            {"gap_mm", gap.gap_mm},
            {"wires_mm", gap.wires_mm},
            {"sheets_mm", gap.sheets_mm},
            {"air_mm", gap.air_mm()},
            {"lowerTop_mm", gap.lower.to_mm},
            {"lowerWhat", gap.lower.what},
            {"upperUnderside_mm", gap.upper.from_mm},
            {"upperWhat", gap.upper.what},
            {"where_mm", ringJson(gap.where)}};
}

OrderedJson layerJson(const Build &build, const Stack &stack, const StackReport &report, std::size_t i) {
    const StackLayer &layer = stack.layers[i];
    OrderedJson out{{"role", nameOf(layer.role)}, {"parts", layer.parts}};
    out["from_mm"] = report.chain.spans[i].from_mm;
    out["to_mm"] = report.chain.spans[i].to_mm;
    out["free_mm"] = report.layers[i].free_mm;
    out["tolerance_mm"] = report.layers[i].tolerance_mm;
    out["squeeze"] = layer.squeeze;
    out["held"] = report.layers[i].held;
    if (layer.role == LayerRole::board) {
        out["standsUp_mm"] = report.layers[i].standsUp_mm;
        out["hangsDown_mm"] = report.layers[i].hangsDown_mm;
        const Part *part = findPart(build, layer.parts.front());
        out["upsideDown"] = part && (part->placement.pose.rotation * Vec3::UnitZ()).z() < 0;
    }
    return out;
}

OrderedJson screwJson(const ScrewReport &screw) {
    OrderedJson out{{"wanted", screw.wanted}};
    if (!screw.task.thread) return out;
    out["thread"] = std::string(screw.task.thread->name);
    out["endsIn"] = screw.endMissing ? "nothing" : screw.task.nut ? "nut" : "thread";
    out["grip_mm"] = screw.task.grip_mm;
    out["gripTolerance_mm"] = screw.tolerance_mm;
    out["nut_mm"] = screw.task.nut ? OrderedJson(screw.task.nut_mm) : OrderedJson(nullptr);
    out["engagementWanted_mm"] = screw.task.nut ? OrderedJson(nullptr) : OrderedJson(screw.task.engagement_mm);
    out["room_mm"] = orNull(screw.task.room_mm);
    out["meets"] = textOrNull(screw.task.meets);
    out["least_mm"] = screw.choice.least_mm;
    out["most_mm"] = orNull(screw.choice.most_mm);
    out["length_mm"] = screw.placed ? OrderedJson(screw.placed->length_mm) : OrderedJson(nullptr);
    out["material"] = screw.placed ? OrderedJson(screw.material) : OrderedJson(nullptr);
    out["piece_g"] = screw.placed ? OrderedJson(screw.piece_g) : OrderedJson(nullptr);
    out["verdict"] = screw.now ? OrderedJson(wordFor(screw.now->verdict)) : OrderedJson(nullptr);
    out["beyond_mm"] = screw.now ? OrderedJson(screw.now->beyond_mm) : OrderedJson(nullptr);
    out["suggested_mm"] = orNull(screw.choice.best_mm);
    out["options"] = OrderedJson::array();
    for (const auto &option : screw.choice.options)
        out["options"].push_back({{"length_mm", option.length_mm},
                                  {"verdict", wordFor(option.verdict)},
                                  {"beyond_mm", option.beyond_mm},
                                  {"outside_mm", option.outside_mm}});
    return out;
}

OrderedJson closingJson(const StackReport &report) {
    OrderedJson out = gapJson(report.closest);
    out["nominal_mm"] = report.closing.nominal_mm;
    out["worst_mm"] = report.closing.worst_mm;
    out["best_mm"] = report.closing.best_mm;
    out["likely_mm"] = report.closing.likely_mm;
    out["probability"] = report.closing.probability;
    out["contributions"] = OrderedJson::array();
    for (const auto &c : report.contributions)
        out["contributions"].push_back({{"name", c.name},
                                        {"layer", c.layer < 0 ? OrderedJson(nullptr) : OrderedJson(c.layer)},
                                        {"sign", c.sign},
                                        {"height_mm", c.nominal_mm},
                                        {"tolerance_mm", c.tolerance_mm}});
    const int most = report.closing.dominant;
    out["dominant"] = most < 0 ? OrderedJson(nullptr) : OrderedJson(report.contributions[std::size_t(most)].name);
    out["dominantShareOfVariance"] = report.closing.dominantShare;
    return out;
}

} // namespace

OrderedJson changeJson(const Build &build, const StackChange &change) {
    OrderedJson out{{"change", wordFor(change.kind)}, {"stack", change.stack}};
    out["layer"] = change.layer < 0 ? OrderedJson(nullptr) : OrderedJson(change.layer);
    out["value"] = change.value;
    out["text"] = wordChange(build, change).text();
    return out;
}

OrderedJson stacksJson(const Build &build, const Analysis &analysis, bool withSuggestions) {
    auto list = OrderedJson::array();
    for (const auto &report : analysis.derived.stacks) {
        const Stack *stack = findStack(build, report.stack);
        if (!stack) continue;
        OrderedJson out{{"id", stack->id}, {"name", stack->name}, {"on", stack->on}};
        out["through"] = textOrNull(throughOf(build, *stack));
        out["hold"] = nameOf(stack->hold);
        out["headsOutside"] = stack->headsOutside;
        out["base_mm"] = toJson(report.chain.X_FrameBase.position_mm);
        out["bottom_mm"] = report.chain.bottom_mm;
        out["top_mm"] = report.chain.top_mm;
        out["layers"] = OrderedJson::array();
        for (std::size_t i = 0; i < stack->layers.size(); ++i)
            out["layers"].push_back(layerJson(build, *stack, report, i));
        out["gaps"] = OrderedJson::array();
        for (const auto &gap : report.gaps) out["gaps"].push_back(gapJson(gap));
        out["underPlate"] = report.plateAbove.empty() ? OrderedJson(nullptr) : closingJson(report);
        out["screw"] = screwJson(report.screw);
        out["bare"] = OrderedJson::array();
        for (const auto &bare : report.bare)
            out["bare"].push_back({{"board", bare.board},
                                   {"other", bare.other},
                                   {"what", bare.what},
                                   {"air_mm", bare.air_mm},
                                   {"sheet", bare.sheet},
                                   {"hardware", bare.hardware}});
        out["dampers"] = OrderedJson::array();
        for (const auto &damper : report.dampers)
            out["dampers"].push_back({{"layer", damper.layer},
                                      {"free_mm", damper.free_mm},
                                      {"clamped_mm", damper.clamped_mm},
                                      {"squeeze", damper.squeeze}});
        out["maleEnds"] = OrderedJson::array();
        for (const auto &stud : report.studs)
            out["maleEnds"].push_back({{"layer", stud.layer},
                                       {"length_mm", stud.stud_mm},
                                       {"clamped_mm", stud.clamped_mm},
                                       {"depth_mm", stud.depth_mm},
                                       {"engagement_mm", stud.engagement_mm},
                                       {"shim_mm", stud.shim_mm}});
        out["hiddenPlugs"] = OrderedJson::array();
        for (const auto &plug : report.hidden)
            out["hiddenPlugs"].push_back({{"board", plug.board}, {"port", plug.port}, {"under", plug.under}});
        out["harnesses"] = OrderedJson::array();
        for (const auto &h : report.harnesses)
            out["harnesses"].push_back({{"a", {{"board", h.boardA}, {"port", h.portA}}},
                                        {"b", {{"board", h.boardB}, {"port", h.portB}}},
                                        {"turn_deg", h.turn_deg},
                                        {"halfTwist", h.halfTwist},
                                        {"samePins", h.samePins},
                                        {"length_mm", h.length_mm},
                                        {"bestTurn_deg", h.bestTurn_deg},
                                        {"bestLength_mm", h.bestLength_mm}});
        if (withSuggestions) {
            out["suggestions"] = OrderedJson::array();
            for (const auto &s : suggestFor(build, *stack, analysis.practice)) {
                OrderedJson entry{{"text", suggestionInWords(build, s)}, {"solves", s.solves}, {"effort", s.effort}};
                entry["gained_mm"] = s.gained_mm;
                entry["left_mm"] = report.plateAbove.empty() ? OrderedJson(nullptr) : OrderedJson(s.left_mm);
                entry["mass_g"] = s.mass_g;
                entry["changes"] = OrderedJson::array();
                for (const auto &change : s.changes) entry["changes"].push_back(changeJson(build, change));
                out["suggestions"].push_back(entry);
            }
        }
        list.push_back(out);
    }
    return list;
}

OrderedJson motorScrewsJson(const Derived &derived) {
    auto list = OrderedJson::array();
    for (const auto &screws : derived.motorScrews) {
        OrderedJson out{{"motor", screws.motor}, {"through", textOrNull(screws.through)}};
        if (screws.clamped.size() > 1) out["clamped"] = screws.clamped;
        out["thread"] = std::string(screws.thread->name);
        out["pieces"] = screws.pieces;
        out["grip_mm"] = screws.gripKnown ? OrderedJson(screws.grip_mm) : OrderedJson(nullptr);
        out["depth_mm"] = orNull(screws.depth_mm);
        out["engagementWanted_mm"] = screws.least_mm;
        out["placed"] = textOrNull(screws.placed);
        out["length_mm"] = orNull(screws.placed_mm ? screws.placed_mm : screws.best_mm);
        out["engagement_mm"] = screws.now ? OrderedJson(screws.now->engagement_mm) : OrderedJson(nullptr);
        out["verdict"] = screws.now ? OrderedJson(wordFor(screws.now->verdict)) : OrderedJson(nullptr);
        out["suggested_mm"] = orNull(screws.best_mm);
        out["options"] = OrderedJson::array();
        for (const auto &option : screws.options)
            out["options"].push_back({{"length_mm", option.length_mm},
                                      {"engagement_mm", option.engagement_mm},
                                      {"verdict", wordFor(option.verdict)}});
        list.push_back(out);
    }
    return list;
}

OrderedJson hardwareJson(const Build &build, const Practice &practice) {
    const HardwareBill bill = hardwareBill(build, practice);
    OrderedJson out{{"pieces", bill.pieces}, {"total_g", bill.total_g}};
    out["byMaterial_g"] = bill.byMaterial_g;
    out["rows"] = OrderedJson::array();
    for (const auto &row : bill.rows)
        out["rows"].push_back({{"item", row.item},
                               {"name", row.name},
                               {"material", textOrNull(row.material)},
                               {"pieces", row.pieces},
                               {"piece_g", row.known ? OrderedJson(row.piece_g) : OrderedJson(nullptr)},
                               {"mass_g", row.known ? OrderedJson(row.piece_g * row.pieces) : OrderedJson(nullptr)}});
    return out;
}

} // namespace waxis::io
