#include "core/edits/kit_edits.h"

#include "core/edits/part_edits.h"
#include "core/kit/kit.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

namespace {

template <class Change>
EditResult changeEntry(const Build &build, const std::string &item, Change &&change) {
    Build next = build;
    auto at = std::find_if(next.kit.begin(), next.kit.end(), [&](const KitEntry &e) { return e.item == item; });
    if (at == next.kit.end()) {
        if (kitItemName(build, item).empty())
            return Failure{EditError{fmt::format("There is no \"{}\" in this kit.", item)}};
        KitEntry entry;
        entry.item = item;
        next.kit.push_back(entry);
        at = next.kit.end() - 1;
    }
    change(*at);
    KitEntry bare;
    bare.item = item;
    if (*at == bare) next.kit.erase(at);
    return next;
}

} // namespace

EditResult countKit(const Build &build, const std::string &item, std::optional<int> inHand) {
    if (inHand && (*inHand < 0 || *inHand > 1'000'000)) return Failure{EditError{"Count from 0 to a million pieces."}};
    return changeEntry(build, item, [&](KitEntry &entry) { entry.inHand = inHand; });
}

EditResult weighKit(const Build &build, const std::string &item, const Measured &mass_g) {
    if (mass_g.known() && !(*mass_g.value >= 0 && *mass_g.value <= 1e6))
        return Failure{EditError{"A mass cannot be less than nothing."}};
    return changeEntry(build, item, [&](KitEntry &entry) { entry.mass_g = mass_g; });
}

EditResult measureKit(const Build &build, const std::string &item, std::optional<Vec3> size_mm) {
    if (size_mm && !(size_mm->minCoeff() > 0 && size_mm->maxCoeff() < 1e5))
        return Failure{EditError{"A size needs three lengths of more than 0 mm."}};
    return changeEntry(build, item, [&](KitEntry &entry) { entry.size_mm = size_mm; });
}

EditResult checkKit(const Build &build, const std::string &item, bool checked) {
    return changeEntry(build, item, [&](KitEntry &entry) { entry.checked = checked; });
}

EditResult confirmArrow(const Build &build, const std::string &item, bool confirmed) {
    return changeEntry(build, item, [&](KitEntry &entry) { entry.arrowConfirmed = confirmed; });
}

EditResult confirmPins(const Build &build, const std::string &item, bool confirmed) {
    return changeEntry(build, item, [&](KitEntry &entry) { entry.pinsConfirmed = confirmed; });
}

EditResult noteKit(const Build &build, const std::string &item, const std::string &note) {
    return changeEntry(build, item, [&](KitEntry &entry) { entry.note = note; });
}

EditResult addToKit(const Build &build, const PartType &type, int inHand) {
    Build next = build;
    const auto present = next.types->find(type.id);
    if (present == next.types->end())
        next.types.edit([&](TypeTable &table) { table.emplace(type.id, type); });
    else if (!(present->second == type))
        return Failure{EditError{fmt::format("The build already has another part type called \"{}\".", type.id)}};
    const auto at =
        std::find_if(next.kit.begin(), next.kit.end(), [&](const KitEntry &e) { return e.item == type.id; });
    if (at == next.kit.end()) {
        KitEntry entry;
        entry.item = type.id;
        entry.inHand = inHand;
        next.kit.push_back(entry);
    } else {
        at->inHand = inHand;
    }
    return next;
}

} // namespace waxis
