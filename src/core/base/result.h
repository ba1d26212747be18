// A value or the reason why there is none.
#pragma once

#include <utility>
#include <variant>

namespace waxis {

template <class E>
struct Failure {
    E error;
};
template <class E>
Failure(E) -> Failure<E>;

/// Either a value of T or an error of E. Reading the side that is not there is a programming error.
template <class T, class E>
class Result {
public:
    Result(T value) : held_(std::in_place_index<0>, std::move(value)) {}
    Result(Failure<E> failure) : held_(std::in_place_index<1>, std::move(failure.error)) {}

    explicit operator bool() const { return held_.index() == 0; }
    T &operator*() { return std::get<0>(held_); }
    const T &operator*() const { return std::get<0>(held_); }
    T *operator->() { return &std::get<0>(held_); }
    const T *operator->() const { return &std::get<0>(held_); }
    const E &error() const { return std::get<1>(held_); }

private:
    std::variant<T, E> held_;
};

} // namespace waxis
