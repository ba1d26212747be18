// Walks through everything that a file would hold of a value, and notes which fields were ever more than standard.
#pragma once

#include "io/json/described_build.h"

#include <boost/core/demangle.hpp>
#include <set>
#include <string>
#include <typeinfo>
#include <utility>

namespace waxis::test {

/// A visitor of descriptions (io/json/described.h). Fields go by their struct and key, wherever it is: "Arm width_mm".
class FieldsSeen {
public:
    static constexpr bool reads = false;

    template <class T>
    void must(const char *key, const T &value) {
        look(key, value, isNothing(value));
    }
    template <class T, class Standard = T>
    void sparse(const char *key, const T &value, const Standard &standard = {}) {
        look(key, value, value == standard);
    }
    template <class T>
    void when(bool condition, const char *key, const T &value) {
        look(key, value, !condition || isNothing(value));
    }
    void unit(const char *key, const Vec3 &value) { note(key, value == Vec3(Vec3::UnitX())); }
    void sparseUnit(const char *key, const Vec3 &value, const Vec3 &standard) { note(key, value == standard); }
    void sparseUnit(const char *key, const std::optional<Vec3> &value) { note(key, !value); }
    void pose(const Pose &pose) {
        note("position_mm", pose.position_mm.isZero(0));
        note("rotation", pose.rotation.coeffs() == Quat::Identity().coeffs());
    }

    /// Fields that are there and never say anything.
    std::set<std::string> neverStated() const {
        std::set<std::string> never;
        for (const auto &field : standard_)
            if (!stated_.contains(field)) never.insert(field);
        return never;
    }

private:
    template <class T>
    static bool isNothing(const SharedValue<T> &) {
        return false;
    }
    template <class T>
    static bool isNothing(const T &value) {
        if constexpr (io::isDescribed<T>)
            return false;
        else if constexpr (std::is_arithmetic_v<T> || std::is_enum_v<T>)
            return value == T();
        else if constexpr (requires { value.isZero(0); })
            return value.isZero(0);
        else if constexpr (requires { value.empty(); })
            return value.empty();
        else
            return false;
    }
    void note(const std::string &key, bool standard) { (standard ? standard_ : stated_).insert(struct_ + " " + key); }
    template <class T>
    void look(const char *key, const T &value, bool standard) {
        note(key, standard);
        walk(value);
    }
    template <class T>
    void walk(const T &value) {
        if constexpr (io::isDescribed<T>) {
            const std::string outside = std::exchange(struct_, boost::core::demangle(typeid(T).name()));
            io::describe(*this, value);
            struct_ = outside;
        }
    }
    template <class T>
    void walk(const SharedValue<T> &value) {
        walk(*value);
    }
    template <class T>
    void walk(const std::optional<T> &value) {
        if (value) walk(*value);
    }
    template <class T>
    void walk(const std::vector<T> &list) {
        for (const auto &item : list) walk(item);
    }
    void walk(const TypeTable &types) {
        for (const auto &[id, type] : types) walk(type);
    }

    std::string struct_ = "Build";
    std::set<std::string> standard_, stated_;
};

} // namespace waxis::test
