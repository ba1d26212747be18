#include "core/kit/kit.h"

#include "core/build/frame_shapes.h"
#include "core/catalog/part_bounds.h"
#include "core/kit/holding.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace waxis {

namespace {

std::string idNumber(double value) { return fmt::format("{:.4g}", value); }

void takeEntry(const Build &build, KitLine &line) {
    const KitEntry *entry = findKitEntry(build, line.item);
    if (!entry) return;
    line.inHand = entry->inHand;
    line.checked = entry->checked;
    line.weighedMass_g = entry->mass_g;
    line.measuredSize_mm = entry->size_mm;
    line.arrowConfirmed = entry->arrowConfirmed;
    line.pinsConfirmed = entry->pinsConfirmed;
    line.note = entry->note;
}

bool hasNamedPins(const PartType &type) {
    constexpr std::size_t kWorthChecking = 3;
    return std::any_of(type.ports.begin(), type.ports.end(), [](const Port &port) {
        return (port.kind == PortKind::plug || port.kind == PortKind::socket) && port.pins.size() >= kWorthChecking;
    });
}

double structureMass_g(const Shape &shape, const std::string &material, const Frame &frame) {
    const Material *found = findMaterial(material, frame.materials);
    return found ? shapeProperties(shape).volume_mm3 * found->density_g_cm3 * 1e-3 : -1;
}

double armMass_g(const Arm &arm, const Frame &frame) {
    const double bare = structureMass_g(armShape(arm), arm.material, frame);
    if (bare < 0) return bare;
    return bare * (1 - armHoles_mm3(arm) / shapeProperties(armShape(arm)).volume_mm3) + jointMass_g(arm);
}

std::string nameOf(const Plate &plate) { return plate.name.empty() ? plate.id : plate.name; }

std::string nameOf(const Arm &arm) {
    const double length = armSize_mm(arm).x();
    if (!isHollow(arm))
        return fmt::format("Arm {:g} x {:g} mm, {:.0f} mm long", arm.width_mm, arm.thickness_mm, length);
    const char *word = arm.section == ArmSection::tube ? "Arm tube" : "Box arm";
    return fmt::format("{} {:g} x {:g} x {:g} mm, {:.0f} mm long", word, arm.width_mm, arm.thickness_mm, arm.wall_mm,
                       length);
}

std::string nameOf(const Standoff &standoff) {
    const char *word = standoff.role == StandoffRole::bobbin    ? "Bobbin"
                       : standoff.role == StandoffRole::stopper ? "Stopper"
                       : standoff.role == StandoffRole::foot    ? "Landing foot"
                                                                : "Standoff";
    return fmt::format("{} {}, {:g} mm", word, standoff.thread, standoff.height_mm);
}

} // namespace

std::string kitItemOf(const Standoff &standoff) {
    const char *word = standoff.role == StandoffRole::bobbin    ? "bobbin"
                       : standoff.role == StandoffRole::stopper ? "stopper"
                       : standoff.role == StandoffRole::foot    ? "foot"
                                                                : "standoff";
    std::string thread;
    for (char c : standoff.thread)
        if (std::isalnum(static_cast<unsigned char>(c)) || c == '.') thread += c;
    return fmt::format("{}-{}-{}-{}", word, thread, idNumber(standoff.height_mm), idNumber(standoff.diameter_mm));
}

std::string kitItemOf(const Arm &arm) {
    const std::string wall = isHollow(arm) ? fmt::format("x{}", idNumber(arm.wall_mm)) : std::string();
    const char *word = isHollow(arm) && arm.section == ArmSection::tube ? "tube" : "arm";
    return fmt::format("{}-{}x{}{}-{}", word, idNumber(arm.width_mm), idNumber(arm.thickness_mm), wall,
                       idNumber(armSize_mm(arm).x()));
}

std::optional<Vec3> overallSize_mm(const PartType &type) {
    const Aabb bounds = firmBounds(type);
    return bounds.empty() ? std::nullopt : std::optional(bounds.size_mm());
}

std::string kitItemName(const Build &build, const std::string &item) {
    const Frame &frame = *build.frame;
    if (const auto type = build.types->find(item); type != build.types->end())
        return type->second.name.empty() ? item : type->second.name;
    for (const auto &plate : frame.plates)
        if (plate.id == item) return nameOf(plate);
    for (const auto &arm : frame.arms)
        if (kitItemOf(arm) == item) return nameOf(arm);
    for (const auto &standoff : frame.standoffs)
        if (kitItemOf(standoff) == item) return nameOf(standoff);
    return hardwareName(item);
}

std::vector<KitLine> kitLines(const Build &build, const Practice &practice) {
    std::vector<KitLine> lines;
    std::map<std::string, std::size_t> byItem;
    auto lineOf = [&](const std::string &item) -> KitLine & {
        const auto [at, isNew] = byItem.try_emplace(item, lines.size());
        if (isNew) {
            lines.emplace_back();
            lines.back().item = item;
        }
        return lines[at->second];
    };
    for (const auto &[id, type] : *build.types) {
        KitLine &line = lineOf(id);
        line.name = type.name;
        line.family = familyOf(type.kind);
        line.catalogueMass_g = type.mass_g;
        line.catalogueSize_mm = overallSize_mm(type);
        line.hasArrow = type.arrow.has_value();
        line.hasPins = hasNamedPins(type);
    }
    for (const auto &part : build.parts)
        if (typeOf(build, part)) {
            KitLine &line = lineOf(part.type);
            ++line.needed;
            line.members.push_back(part.id);
        }
    for (const auto &wire : build.wires)
        for (const auto &insert : wire.inserts)
            if (build.types->contains(insert.type)) {
                KitLine &line = lineOf(insert.type);
                ++line.needed;
                line.members.push_back(wire.id);
            }
    std::erase_if(lines, [&](const KitLine &line) { return line.needed == 0 && !findKitEntry(build, line.item); });
    std::stable_sort(lines.begin(), lines.end(), [](const KitLine &a, const KitLine &b) {
        return a.family != b.family ? a.family < b.family : a.name < b.name;
    });
    byItem.clear();
    for (std::size_t i = 0; i < lines.size(); ++i) byItem[lines[i].item] = i;
    const Frame &frame = *build.frame;
    auto frameLine = [&](const std::string &item, KitKind kind, const std::string &id, auto &&name, double mass_g,
                         const Vec3 &size) {
        KitLine &line = lineOf(item);
        ++line.needed;
        line.members.push_back(id);
        line.kind = kind;
        line.name = name();
        line.catalogueSize_mm = size;
        if (mass_g >= 0) line.catalogueMass_g = catalogueValue(mass_g);
    };
    for (const auto &plate : frame.plates)
        frameLine(
            plate.id, KitKind::plate, plate.id, [&] { return nameOf(plate); },
            structureMass_g(plateShape(plate), plate.material, frame), boundsOf(plateShape(plate), Pose{}).size_mm());
    for (const auto &arm : frame.arms)
        frameLine(
            kitItemOf(arm), KitKind::arm, arm.id, [&] { return nameOf(arm); }, armMass_g(arm, frame), armSize_mm(arm));
    for (const auto &standoff : frame.standoffs)
        frameLine(
            kitItemOf(standoff), KitKind::standoff, standoff.id, [&] { return nameOf(standoff); },
            [&] {
                const double whole = structureMass_g(standoffShape(standoff), standoff.material, frame);
                const double bore = standoff.bore_mm / standoff.diameter_mm;
                return whole < 0 ? whole : whole * (1 - bore * bore);
            }(),
            Vec3(standoff.diameter_mm, standoff.diameter_mm, standoff.height_mm));
    const auto hardwareLine = [&](const std::string &member, const Hardware &piece) {
        KitLine &line = lineOf(piece.item);
        line.needed += piece.pieces;
        if (line.members.empty() || line.members.back() != member) line.members.push_back(member);
        if (!line.name.empty() && line.kind == KitKind::part) return; // placed pieces of the same size
        line.kind = KitKind::hardware;
        line.name = piece.name;
        // Strips are cut to the part: what one weighs differs, so the mean stands for all.
        const double before = line.catalogueMass_g.value.value_or(0) * (line.needed - piece.pieces);
        line.catalogueMass_g = {(before + piece.piece_g * piece.pieces) / line.needed, piece.tolerance_g,
                                Source::estimated};
    };
    for (const auto &piece : frameHardware(build, practice)) hardwareLine(piece.member, piece.piece);
    for (const auto &part : build.parts)
        for (const auto &piece : holdingOf(build, part, practice).pieces) hardwareLine(part.id, piece);
    for (auto &line : lines) takeEntry(build, line);
    return lines;
}

KitTotals kitTotals(const std::vector<KitLine> &lines) {
    KitTotals totals;
    for (const auto &line : lines) {
        ++totals.kinds;
        totals.kindsCounted += line.inHand.has_value();
        totals.kindsChecked += line.checked;
        totals.piecesNeeded += line.needed;
        totals.piecesInHand += line.inHand ? std::min(*line.inHand, line.needed) : 0;
        totals.piecesMissing += line.missing();
        totals.piecesSpare += line.spare();
        if (line.weighedMass_g.known())
            totals.weighed_g += *line.weighedMass_g.value * line.needed;
        else if (line.catalogueMass_g.known())
            totals.unweighed_g += *line.catalogueMass_g.value * line.needed;
        else if (line.needed > 0)
            ++totals.massUnknown;
    }
    return totals;
}

} // namespace waxis
