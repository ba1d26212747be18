// Grams to lose: only what the program knows of.
#pragma once

#include "core/base/sentence.h"
#include "core/build/edit_result.h"
#include "core/derived/derived.h"
#include "core/practice/practice.h"
#include "core/studies/saving_kind.h"

namespace waxis {

struct GramSaving {
    SavingKind kind = SavingKind::material;
    std::string subject; ///< part type, kit item, wire or part
    double saves_g = 0;
    int pieces = 1;
    std::string material; ///< material: the lighter one
    int gauge_AWG = 0;
    double shorter_mm = 0;
    /// The program can do it; else it is a thing for the hands, and shows in the sum once it was weighed or measured.
    bool canApply() const { return kind != SavingKind::drawnNot && kind != SavingKind::lead; }
};

/// Screws, nuts and washers of steel in titanium, spacers and standoffs of steel or brass in aluminium; thinner
/// gauges; leads longer than needed by 20 mm or more; optional parts but for packs. Most first, from 0.05 g.
std::vector<GramSaving> gramSavings(const Build &build, const Practice &practice, const Derived &derived,
                                    std::size_t loadCase);

EditResult applySaving(const Build &build, const GramSaving &saving, const std::string &loadCase);
Sentence wordSaving(const Build &build, const GramSaving &saving);

} // namespace waxis
