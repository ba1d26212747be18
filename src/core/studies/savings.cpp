#include "core/studies/savings.h"

#include "core/balance/mass_rows.h"
#include "core/catalog/fastener_types.h"
#include "core/edits/balance_edits.h"
#include "core/edits/wire_edits.h"
#include "core/kit/holding.h"
#include "core/power/power_report.h"
#include "core/remedies/gauge_advice.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <set>

namespace waxis {

namespace {

/// The lighter material that such a thing is sold in; empty: none that holds as well.
std::string lighterMaterial(FastenerForm form, const std::string &material) {
    const bool steel = material == "steel" || material == "stainless";
    switch (form) {
    case FastenerForm::screw:
    case FastenerForm::nut:
    case FastenerForm::washer: return steel ? "titanium" : "";
    case FastenerForm::spacer:
    case FastenerForm::standoff: return steel || material == "brass" ? "aluminium" : "";
    case FastenerForm::lockNut:
    case FastenerForm::thinLockNut:
    case FastenerForm::pressNut:
    case FastenerForm::shim: return "";
    }
    return "";
}

/// The same fastener, or set of fasteners, of another material; none where a material or the mass is not known.
std::optional<PartType> inMaterial(const Build &build, const PartType &type, const std::string &material) {
    const Material *now = findMaterial(materialOf(type), build.frame->materials),
                   *then = findMaterial(material, build.frame->materials);
    if (!now || !then || !type.mass_g.known() || !(then->density_g_cm3 < now->density_g_cm3)) return std::nullopt;
    PartType made = type;
    made.id += "-" + material;
    const auto named = made.name.find(materialOf(type));
    if (named != std::string::npos)
        made.name.replace(named, materialOf(type).size(), material);
    else
        made.name += ", " + material;
    const double ratio = then->density_g_cm3 / now->density_g_cm3;
    made.mass_g.value = *type.mass_g.value * ratio;
    if (made.mass_g.tolerance) made.mass_g.tolerance = *made.mass_g.tolerance * ratio;
    for (auto &solid : made.solids)
        if (solid.material == materialOf(type)) solid.material = material;
    return made;
}

bool flies(const MassRow &row, std::size_t loadCase) { return row.cases >> loadCase & 1; }

void lighterFasteners(const Build &build, const Practice &practice, const Derived &derived, std::size_t loadCase,
                      std::vector<GramSaving> &out) {
    std::map<std::string, std::pair<int, double>> placed; // by type: pieces and grams aboard
    for (std::size_t i = 0; i < build.parts.size(); ++i)
        if (derived.massRows[i].known && flies(derived.massRows[i], loadCase)) {
            auto &[pieces, grams] = placed[build.parts[i].type];
            ++pieces;
            grams += derived.massRows[i].element.mass_g;
        }
    for (const auto &[id, have] : placed) {
        const PartType &type = build.types->at(id);
        if (!type.fastener) continue;
        const std::string lighter = lighterMaterial(type.fastener->form, materialOf(type));
        const auto made = inMaterial(build, type, lighter);
        if (made)
            out.push_back(
                {SavingKind::material, id, have.second - have.first * *made->mass_g.value, have.first, lighter, 0, 0});
    }
    // Screws that nobody placed are counted as steel.
    std::map<std::string, std::pair<int, double>> bare;
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        if (!flies(derived.massRows[i], loadCase)) continue;
        for (const auto &piece : holdingOf(build, build.parts[i], practice).pieces)
            if (piece.item.starts_with("screw-") && !findKitEntry(build, piece.item)) {
                auto &[pieces, grams] = bare[piece.item];
                pieces += piece.pieces;
                grams += piece.pieces * piece.piece_g;
            }
    }
    const Material *steel = findMaterial("steel", build.frame->materials),
                   *titanium = findMaterial("titanium", build.frame->materials);
    if (!steel || !titanium) return;
    for (const auto &[item, have] : bare)
        out.push_back({SavingKind::drawnNot, item, have.second * (1 - titanium->density_g_cm3 / steel->density_g_cm3),
                       have.first, "titanium", 0, 0});
}

void lighterWires(const Build &build, const Practice &practice, const Derived &derived, std::size_t loadCase,
                  std::vector<GramSaving> &out) {
    constexpr double kWorth_mm = 20;
    for (std::size_t w = 0; w < build.wires.size(); ++w) {
        const Wire &wire = build.wires[w];
        const WireReport &report = derived.wiring->wires[w];
        const auto end = [&](const std::string &part) {
            const Part *found = findPart(build, part);
            return found && isAboard(*found, derived.loadCases[loadCase]);
        };
        if (!end(wire.from.part) || !end(wire.to.part)) continue;
        const bool cut = report.verdict == LeadVerdict::cut; // what was supplied weighs in its part
        if (const auto lighter = lighterGauge(wire, report, derived.power->wires[w], practice); lighter && cut)
            out.push_back({SavingKind::gauge, wire.id, lighter->saves_g, 1, {}, lighter->gauge_AWG, 0});
        const WireStock *stock = findWireStock(report.gauge_AWG);
        if (report.verdict == LeadVerdict::asItIs && report.spare_mm >= kWorth_mm && stock)
            out.push_back({SavingKind::lead,
                           wire.id,
                           report.spare_mm * 1e-3 * stock->mass_g_m * double(wire.cores.size()),
                           1,
                           {},
                           0,
                           report.spare_mm});
    }
}

void fewerParts(const Build &build, const Derived &derived, std::size_t loadCase, std::vector<GramSaving> &out) {
    const LoadCase &which = derived.loadCases[loadCase];
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        const Part &part = build.parts[i];
        const PartType *type = typeOf(build, part);
        if (!part.optional || !type || type->kind == PartKind::battery || !derived.massRows[i].known ||
            std::find(which.aboard.begin(), which.aboard.end(), part.id) == which.aboard.end())
            continue;
        double grams = 0;
        for (const auto &row : derived.massRows)
            if (flies(row, loadCase) && (row.id == part.id || row.id == part.id + "/fastening"))
                grams += row.element.mass_g;
        out.push_back({SavingKind::leaveOut, part.id, grams, 1, {}, 0, 0});
    }
}

} // namespace

std::vector<GramSaving> gramSavings(const Build &build, const Practice &practice, const Derived &derived,
                                    std::size_t loadCase) {
    std::vector<GramSaving> savings;
    lighterFasteners(build, practice, derived, loadCase, savings);
    lighterWires(build, practice, derived, loadCase, savings);
    fewerParts(build, derived, loadCase, savings);
    std::erase_if(savings, [](const GramSaving &s) { return !(s.saves_g >= 0.05); });
    std::stable_sort(savings.begin(), savings.end(),
                     [](const GramSaving &a, const GramSaving &b) { return a.saves_g > b.saves_g; });
    return savings;
}

EditResult applySaving(const Build &build, const GramSaving &saving, const std::string &loadCase) {
    switch (saving.kind) {
    case SavingKind::gauge: return setGauge(build, saving.subject, saving.gauge_AWG);
    case SavingKind::leaveOut: return leaveOut(build, loadCase, saving.subject);
    case SavingKind::material: break;
    case SavingKind::drawnNot:
    case SavingKind::lead: return Failure{EditError{"That is work for the hands: weigh or measure it afterwards."}};
    }
    const auto type = build.types->find(saving.subject);
    if (type == build.types->end() || !type->second.fastener)
        return Failure{EditError{fmt::format("The build has no fastener \"{}\".", saving.subject)}};
    const auto made = inMaterial(build, type->second, saving.material);
    if (!made) return Failure{EditError{fmt::format("{} cannot be had in {}.", type->second.name, saving.material)}};
    Build next = build;
    if (!next.types->contains(made->id)) next.types.edit([&](TypeTable &types) { types[made->id] = *made; });
    for (auto &part : next.parts)
        if (part.type == saving.subject) {
            part.type = made->id;
            part.mass_g = {};
        }
    return next;
}

Sentence wordSaving(const Build &build, const GramSaving &saving) {
    const std::string pieces = fmt::format("{}", saving.pieces);
    switch (saving.kind) {
    case SavingKind::material: {
        const auto type = build.types->find(saving.subject);
        return {"{0} × {1} in {2}",
                {pieces, type == build.types->end() ? saving.subject : type->second.name, saving.material}};
    }
    case SavingKind::drawnNot: {
        return {"{0} × {1} in {2}: weigh them in Kit", {pieces, hardwareName(saving.subject), saving.material}};
    }
    case SavingKind::gauge:
        return {"{0}: AWG {1}", {displayName(build, saving.subject), fmt::format("{}", saving.gauge_AWG)}};
    case SavingKind::lead:
        return {"{0}: {1} mm shorter, its plug put on again",
                {displayName(build, saving.subject), fmt::format("{:.0f}", saving.shorter_mm)}};
    case SavingKind::leaveOut: return {"{0} left at home", {displayName(build, saving.subject)}};
    }
    return {};
}

} // namespace waxis
