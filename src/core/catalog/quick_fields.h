// A part of one's own from a model in the library: the few numbers that matter for its kind, in the order in which they
// are taken with calipers.
#pragma once

#include "core/base/quantity.h"
#include "core/catalog/part_type.h"

#include <functional>
#include <string>
#include <vector>

namespace waxis {

struct QuickField {
    std::string_view id;    ///< "length", "pattern" ...
    std::string_view title; ///< as one says it at the bench
    Measure measure = Measure::number;
    double least = 0, most = 1e5;
    std::function<std::optional<double>(const PartType &)> get;
    std::function<void(PartType &, double)> set;
};

/// The fields for a type of this kind. Sizes change the drawn bodies in proportion, ports with them; what stands up and
/// hangs down changes the components alone. Everything else of the model stays as it is.
std::vector<QuickField> quickFields(const PartType &model);

/// A copy of the model under a name of its own: a free id made of the name, the maker left empty, nothing confirmed by
/// a catalogue: the weight counts as measured once it is typed.
PartType ownTypeLike(const PartType &model, const std::string &name, const TypeTable &taken);

} // namespace waxis
