// What a result was made of, so that it is made again only when one of those is another one.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>

namespace waxis {

/// Versions of the inputs (SharedValue::version and the like) that a result was last made of.
template <std::size_t N>
class Recipe {
public:
    /// Whether it has to be made anew; remembers the inputs. The first time always.
    bool changed(const std::array<std::uint64_t, N> &inputs) {
        if (known_ && inputs == inputs_) return false;
        inputs_ = inputs;
        known_ = true;
        return true;
    }

private:
    std::array<std::uint64_t, N> inputs_{};
    bool known_ = false;
};

} // namespace waxis
