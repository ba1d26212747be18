#include "core/stack/bill.h"

#include "core/catalog/fastener_types.h"
#include "core/fastening/hardware.h"

#include <algorithm>

namespace waxis {

HardwareBill hardwareBill(const Build &build) {
    std::map<std::string, BillRow> rows;
    auto add = [&](const std::string &item, const std::string &name, const std::string &material, int pieces,
                   std::optional<double> piece_g) {
        BillRow &row = rows[item];
        row.item = item;
        row.name = name;
        row.material = material;
        const KitEntry *inBox = findKitEntry(build, item);
        if (inBox && inBox->mass_g.known()) piece_g = *inBox->mass_g.value / std::max(1, pieces);
        row.known &= piece_g.has_value();
        const double before = row.piece_g * row.pieces;
        row.pieces += pieces;
        row.piece_g = row.pieces > 0 ? (before + piece_g.value_or(0) * pieces) / row.pieces : 0;
    };
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type) continue;
        const bool hardware =
            type->kind == PartKind::fastener || type->kind == PartKind::damper || type->kind == PartKind::strap;
        if (!hardware) continue;
        const int pieces = type->fastener ? type->fastener->pieces : 1;
        const Measured &mass = part.mass_g.known() ? part.mass_g : type->mass_g;
        add(type->id, type->name, materialOf(*type), pieces,
            mass.known() ? std::optional(*mass.value / pieces) : std::nullopt);
    }
    for (const auto &part : build.parts)
        for (const auto &piece : hardwareFor(build, part)) {
            const bool screw = piece.item.rfind("screw", 0) == 0;
            add(piece.item, piece.name, screw ? "steel" : "plastic", piece.pieces, piece.piece_g);
        }
    HardwareBill bill;
    for (auto &[item, row] : rows) {
        bill.byMaterial_g[row.material.empty() ? "not stated" : row.material] += row.piece_g * row.pieces;
        bill.total_g += row.piece_g * row.pieces;
        bill.pieces += row.pieces;
        bill.rows.push_back(std::move(row));
    }
    std::stable_sort(bill.rows.begin(), bill.rows.end(),
                     [](const BillRow &a, const BillRow &b) { return a.name < b.name; });
    return bill;
}

} // namespace waxis
