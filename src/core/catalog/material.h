// What things are made of.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace waxis {

struct Material {
    std::string name;
    double density_g_cm3 = 0;
    bool conducts = false;
    bool printed = false; ///< softens with heat: printed plastic
    bool operator==(const Material &) const = default;
};

/// Typical densities (from memory, see docs/rules.md); a build may carry its own entries of the same name.
const std::vector<Material> &commonMaterials();

/// The build's own entry before the common one; null when neither knows the name.
const Material *findMaterial(std::string_view name, const std::vector<Material> &own);

/// Whether a magnet holds to it: steel, not stainless (which may, a little), brass, titanium, aluminium.
bool isMagnetic(std::string_view name);

/// Whether the material conducts; one that is not in the tables does not.
bool conducts(std::string_view name, const std::vector<Material> &own);

} // namespace waxis
