#include "core/catalog/material.h"

#include <algorithm>

namespace waxis {

const std::vector<Material> &commonMaterials() {
    // Density g/cm3, conducts, printed. Typical values from memory; laminates spread by about 3 %, printed ones
    // with fill.
    static const std::vector<Material> table{
        {"carbon", 1.55, true, false},    {"glass-laminate", 1.85, false, false},
        {"aluminium", 2.70, true, false}, {"aluminium-7075", 2.81, true, false},
        {"steel", 7.85, true, false},     {"stainless", 7.9, true, false},
        {"titanium", 4.43, true, false},  {"brass", 8.5, true, false},
        {"copper", 8.89, true, false},    {"nylon", 1.14, false, false},
        {"pom", 1.41, false, false},      {"polycarbonate", 1.20, false, false},
        {"petg", 1.27, false, true},      {"pla", 1.24, false, true},
        {"tpu", 1.21, false, true},       {"abs", 1.04, false, true},
        {"silicone", 1.2, false, false},  {"foam", 0.03, false, false},
        {"glass", 2.5, false, false},     {"ceramic", 5.8, false, false},
    };
    return table;
}

const Material *findMaterial(std::string_view name, const std::vector<Material> &own) {
    for (const auto *list : {&own, &commonMaterials()}) {
        const auto at = std::find_if(list->begin(), list->end(), [&](const Material &m) { return m.name == name; });
        if (at != list->end()) return &*at;
    }
    return nullptr;
}

bool conducts(std::string_view name, const std::vector<Material> &own) {
    const Material *found = findMaterial(name, own);
    return found && found->conducts;
}

bool isMagnetic(std::string_view name) { return name == "steel"; }

} // namespace waxis
