// A value that is cheap to copy because equal copies share their storage.
#pragma once

#include <atomic>
#include <cstddef>
#include <cstdint>
#include <memory>
#include <utility>

namespace waxis {

/// Behaves as a plain T: copyable, comparable, no aliasing seen from outside. Copies share one object until one of
/// them is edited, so that an undo list of builds does not repeat the parts nobody changed. T may be a type that is
/// only declared wherever the value is merely handed on.
template <class T>
class SharedValue {
public:
    SharedValue() : held_(std::make_shared<T>()), version_(nextVersion()) {}
    SharedValue(T value) : held_(std::make_shared<T>(std::move(value))), version_(nextVersion()) {}

    const T &operator*() const { return *held_; }
    const T *operator->() const { return held_.get(); }
    operator const T &() const { return *held_; }

    /// Changes this copy alone.
    template <class Edit>
    void edit(Edit &&change) {
        if (held_.use_count() > 1)
            held_ = std::make_shared<T>(std::as_const(*held_));
        else // what another thread read in a copy that it has just given back is read before this writes
            std::atomic_thread_fence(std::memory_order_acquire);
        version_ = nextVersion();
        std::forward<Edit>(change)(*held_);
    }

    bool sharesWith(const SharedValue &other) const { return held_ == other.held_; }
    bool operator==(const SharedValue &other) const { return held_ == other.held_ || *held_ == *other.held_; }
    /// Another number with every new value and every edit, never the same twice; copies keep it.
    std::uint64_t version() const { return version_; }

    // Of lists.
    auto begin() const { return std::as_const(*held_).begin(); }
    auto end() const { return std::as_const(*held_).end(); }
    std::size_t size() const { return held_->size(); }
    bool empty() const { return held_->empty(); }
    const auto &operator[](std::size_t index) const { return std::as_const(*held_)[index]; }
    const auto &front() const { return std::as_const(*held_).front(); }
    const auto &back() const { return std::as_const(*held_).back(); }

private:
    static std::uint64_t nextVersion() {
        static std::atomic<std::uint64_t> last = 0;
        return ++last;
    }

    std::shared_ptr<T> held_;
    std::uint64_t version_;
};

} // namespace waxis
