#include "core/catalog/type_changes.h"

#include "core/catalog/quick_fields.h"

#include <cmath>
#include <fmt/format.h>

namespace waxis {

std::vector<std::string> differencesOf(const PartType &before, const PartType &after) {
    std::vector<std::string> words;
    if (before == after) return words;
    if (before.name != after.name) words.push_back(fmt::format("name {} → {}", before.name, after.name));
    if (before.kind != after.kind) words.push_back("kind");
    const auto number = [](const std::optional<double> &value) {
        return value ? fmt::format("{:.4g}", *value) : std::string("unknown");
    };
    for (const auto &field : quickFields(after)) {
        const auto was = field.get(before), is = field.get(after);
        const bool same = was.has_value() == is.has_value() && (!was || std::abs(*was - *is) < 1e-6);
        if (!same) words.push_back(fmt::format("{} {} → {}", field.title, number(was), number(is)));
    }
    const bool told = !words.empty();
    if (before.ports != after.ports && before.ports.size() != after.ports.size()) words.push_back("connectors");
    if (before.solids != after.solids && !told) words.push_back("bodies");
    if (words.empty()) words.push_back("details");
    return words;
}

std::vector<CorrectedType> correctedTypes(const TypeTable &build, const TypeTable &library,
                                          const std::set<std::string> &own) {
    std::vector<CorrectedType> corrected;
    for (const auto &[id, type] : build) {
        const auto now = library.find(id);
        if (!own.contains(id) || now == library.end() || now->second == type) continue;
        corrected.push_back({id, differencesOf(type, now->second)});
    }
    return corrected;
}

} // namespace waxis
