#include "core/kit/bill.h"

#include "core/catalog/fastener_types.h"
#include "core/kit/holding.h"

#include <algorithm>

namespace waxis {

HardwareBill hardwareBill(const Build &build, const Practice &practice) {
    std::map<std::string, BillRow> rows;
    auto add = [&](const std::string &item, const std::string &name, const std::string &material, int pieces,
                   std::optional<double> piece_g) {
        BillRow &row = rows[item];
        row.item = item;
        row.name = name;
        row.material = material;
        row.known &= piece_g.has_value();
        const double before = row.piece_g * row.pieces;
        row.pieces += pieces;
        row.piece_g = row.pieces > 0 ? (before + piece_g.value_or(0) * pieces) / row.pieces : 0;
    };
    /// As weighed in the box, else as given.
    auto weighed = [&](const std::string &item, const Measured &otherwise) {
        const KitEntry *inBox = findKitEntry(build, item);
        return inBox && inBox->mass_g.known() ? inBox->mass_g : otherwise;
    };
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type) continue;
        const bool hardware =
            type->kind == PartKind::fastener || type->kind == PartKind::damper || type->kind == PartKind::strap;
        if (!hardware) continue;
        const int pieces = type->fastener ? std::max(1, type->fastener->pieces) : 1; // the kit weighs a set as one
        const Measured &mass = part.mass_g.known() ? part.mass_g : weighed(type->id, type->mass_g);
        add(type->id, type->name, materialOf(*type), pieces,
            mass.known() ? std::optional(*mass.value / pieces) : std::nullopt);
    }
    for (const auto &part : build.parts)
        for (const auto &piece : holdingOf(build, part, practice).pieces)
            add(piece.item, piece.name, piece.material, piece.pieces,
                weighed(piece.item, catalogueValue(piece.piece_g)).value);
    for (const auto &[member, row, piece, at_mm] : frameHardware(build, practice))
        add(piece.item, piece.name, piece.material, piece.pieces,
            weighed(piece.item, catalogueValue(piece.piece_g)).value);
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
