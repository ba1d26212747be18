#include "core/catalog/plug_body.h"

#include <array>

namespace waxis {

namespace {

/// The body is so much wider than its outermost contacts lie apart.
struct Housing {
    std::string_view family; ///< how the name begins
    double pitch_mm, wider_mm, height_mm, length_mm;
};
// The first that fits counts.
constexpr std::array<Housing, 7> kHousings{{{"camera cable plug", 0.5, 3.0, 1.5, 4},
                                            {"1.0 mm", 1.0, 3.0, 3.0, 5},
                                            {"1.25 mm lock", 1.25, 4.5, 4.1, 7},
                                            {"1.25 mm", 1.25, 3.2, 3.4, 6},
                                            {"2.0 mm", 2.0, 3.9, 4.5, 8},
                                            {"2.54 mm balance", 2.54, 4.9, 5.8, 10},
                                            {"servo plug", 2.54, 2.9, 3.0, 14}}};

struct Whole {
    std::string_view family;
    double length_mm, across_mm, height_mm;
};
constexpr std::array<Whole, 8> kWholes{{{"15 A polarised battery plug", 15, 8, 5},
                                        {"30 A polarised battery plug", 13, 11, 6},
                                        {"60 A polarised battery plug", 16, 16, 8},
                                        {"90 A polarised battery plug", 21, 21, 10},
                                        {"120 A polarised battery plug", 28, 24, 12},
                                        {"micro-coax snap plug", 4, 3.1, 2.5},
                                        {"SMA", 15, 9.2, 8},
                                        {"RP-SMA", 15, 9.2, 8}}};

} // namespace

std::optional<Vec3> plugBody_mm(std::string_view family, int ways) {
    for (const auto &whole : kWholes)
        if (family == whole.family) return Vec3(whole.length_mm, whole.across_mm, whole.height_mm);
    if (ways <= 0) return std::nullopt;
    for (const auto &housing : kHousings)
        if (family.substr(0, housing.family.size()) == housing.family)
            return Vec3(housing.length_mm, (ways - 1) * housing.pitch_mm + housing.wider_mm, housing.height_mm);
    return std::nullopt;
}

} // namespace waxis
