// A value that is cheap to copy because equal copies share their storage.
#pragma once

#include <memory>
#include <utility>

namespace waxis {

/// Behaves as a plain T: copyable, comparable, no aliasing seen from outside. Copies share one immutable object
/// until one of them is edited, so that an undo list of builds does not repeat the parts nobody changed.
template <class T>
class SharedValue {
public:
    SharedValue() : held_(std::make_shared<const T>()) {}
    SharedValue(T value) : held_(std::make_shared<const T>(std::move(value))) {}

    const T &operator*() const { return *held_; }
    const T *operator->() const { return held_.get(); }

    template <class Edit>
    void edit(Edit &&change) {
        T copy = *held_;
        std::forward<Edit>(change)(copy);
        held_ = std::make_shared<const T>(std::move(copy));
    }

    bool sharesWith(const SharedValue &other) const { return held_ == other.held_; }
    bool operator==(const SharedValue &other) const { return held_ == other.held_ || *held_ == *other.held_; }

private:
    std::shared_ptr<const T> held_;
};

} // namespace waxis
