// A quantity that somebody stated: how big, how sure, and from where.
#pragma once

#include <optional>

namespace waxis {

enum class Source { catalogue, measured, estimated };

/// A measured or catalogue quantity. The unit stands in the name of the field that holds it.
/// No value means *unknown*, which is never the same as zero. `tolerance` is a +- value taken as two
/// standard deviations; none given means that the practice profile's default for the source applies.
struct Measured {
    std::optional<double> value;
    std::optional<double> tolerance;
    Source source = Source::catalogue;

    bool known() const { return value.has_value(); }
    bool operator==(const Measured &) const = default;
};

inline Measured catalogueValue(double value, std::optional<double> tolerance = {}) {
    return {value, tolerance, Source::catalogue};
}
inline Measured measuredValue(double value, std::optional<double> tolerance = {}) {
    return {value, tolerance, Source::measured};
}

} // namespace waxis
