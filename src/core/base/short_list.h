// A list of a few things that lies where it is kept: nothing is allocated.
#pragma once

#include <array>
#include <cstddef>

namespace waxis {

template <class T, std::size_t most>
class ShortList {
public:
    /// False, and nothing happens, where it is full.
    bool push_back(const T &value) {
        if (count_ == most) return false;
        values_[count_++] = value;
        return true;
    }
    void clear() { count_ = 0; }
    std::size_t size() const { return count_; }
    bool empty() const { return count_ == 0; }
    const T &operator[](std::size_t i) const { return values_[i]; }
    const T &front() const { return values_[0]; }
    const T &back() const { return values_[count_ - 1]; }
    const T *begin() const { return values_.data(); }
    const T *end() const { return values_.data() + count_; }

private:
    std::array<T, most> values_{};
    std::size_t count_ = 0;
};

} // namespace waxis
