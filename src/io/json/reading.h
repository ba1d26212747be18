// Reads described values (described_types.h, described_build.h) from JSON that the schema has already passed.
#pragma once

#include "core/geometry/pose.h"
#include "io/json/described.h"
#include "io/json/read_model.h"
#include "io/names.h"

#include <array>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <type_traits>
#include <vector>

namespace waxis::io {

[[noreturn]] inline void refuse(std::string where, std::string expected, std::string found,
                                std::string suggestion = {}) {
    throw Unreadable{{std::move(where), std::move(expected), std::move(found), std::move(suggestion)}};
}

class Reading;
/// What the schema cannot say of a value is checked once it is read; most have nothing of the kind (value_checks.h).
template <class T>
void check(const Reading &, const T &) {}

/// A JSON object with its pointer. A key that is missing leaves its field as it is.
class Reading {
public:
    static constexpr bool reads = true;
    Reading(const nlohmann::json &object, std::string pointer) : json_(object), pointer_(std::move(pointer)) {}

    bool has(const char *key) const { return json_.contains(key); }
    std::string at(const char *key) const { return pointer_ + "/" + key; }
    const std::string &pointer() const { return pointer_; }
    void require(const char *key, const std::string &why) const {
        if (!has(key)) refuse(pointer_, fmt::format("the key \"{}\"", key), why);
    }

    /// A field that files always hold.
    template <class T>
    void must(const char *key, T &value) const {
        if (const auto found = json_.find(key); found != json_.end()) read(*found, key, value);
    }
    /// A field that is left out where it has its standard value.
    template <class T, class Standard = T>
    void sparse(const char *key, T &value, const Standard & = {}) const {
        must(key, value);
    }
    /// A field that is written on a condition.
    template <class T>
    void when(bool, const char *key, T &value) const {
        must(key, value);
    }
    /// A vector of length 1.
    void unit(const char *key, Vec3 &value) const {
        must(key, value);
        if (!(std::abs(value.norm() - 1) <= kUnit))
            refuse(at(key), "a direction of length 1", fmt::format("length {:.9g}", value.norm()));
    }
    void sparseUnit(const char *key, Vec3 &value, const Vec3 &) const { unit(key, value); }
    void sparseUnit(const char *key, std::optional<Vec3> &value) const {
        if (has(key)) unit(key, value.emplace(Vec3::Zero()));
    }
    void pose(Pose &value) const {
        must("position_mm", value.position_mm);
        if (!has("rotation")) return;
        const auto &q = json_["rotation"];
        value.rotation = Quat(q[0].get<double>(), q[1].get<double>(), q[2].get<double>(), q[3].get<double>());
        if (!(std::abs(value.rotation.norm() - 1) <= kUnit))
            refuse(at("rotation"), "a unit quaternion w, x, y, z", fmt::format("length {:.9g}", value.rotation.norm()));
    }

private:
    static constexpr double kUnit = 1e-6;

    static void read(const nlohmann::json &from, const char *, bool &value) { value = from.get<bool>(); }
    static void read(const nlohmann::json &from, const char *, double &value) { value = from.get<double>(); }
    static void read(const nlohmann::json &from, const char *, int &value) { value = int(from.get<double>()); }
    static void read(const nlohmann::json &from, const char *, std::string &value) {
        value = from.get_ref<const std::string &>();
    }
    static void read(const nlohmann::json &from, const char *, Vec2 &value) {
        value = {from[0].get<double>(), from[1].get<double>()};
    }
    static void read(const nlohmann::json &from, const char *, Vec3 &value) {
        value = {from[0].get<double>(), from[1].get<double>(), from[2].get<double>()};
    }
    static void read(const nlohmann::json &from, const char *, Mat3 &value) {
        for (int i = 0; i < 3; ++i)
            for (int j = 0; j < 3; ++j) value(i, j) = from[std::size_t(i)][std::size_t(j)].get<double>();
    }
    static void read(const nlohmann::json &from, const char *, std::array<int, 3> &value) {
        value = {from[0].get<int>(), from[1].get<int>(), from[2].get<int>()};
    }
    template <class V>
    requires(!isDescribed<V>) static void read(const nlohmann::json &from, const char *,
                                               std::map<std::string, V> &value) {
        value = from.get<std::map<std::string, V>>();
    }
    template <class T>
    requires isDescribed<T>
    void read(const nlohmann::json &from, const char *key, std::map<std::string, T> &value) const {
        std::vector<T> types;
        read(from, key, types);
        value.clear();
        for (std::size_t i = 0; i < types.size(); ++i)
            if (const std::string id = types[i].id; !value.emplace(id, std::move(types[i])).second)
                refuse(fmt::format("{}/{}/id", at(key), i), "an id of its own", fmt::format("\"{}\" again", id));
    }
    template <class T>
    void read(const nlohmann::json &from, const char *key, SharedValue<T> &value) const {
        T fresh;
        read(from, key, fresh);
        value = std::move(fresh);
    }
    template <class T>
    void read(const nlohmann::json &from, const char *key, std::optional<T> &value) const {
        read(from, key, value.emplace());
    }
    template <class T>
    void read(const nlohmann::json &from, const char *key, std::vector<T> &value) const {
        value.clear();
        value.reserve(from.size());
        for (std::size_t i = 0; i < from.size(); ++i)
            if constexpr (isDescribed<T>)
                readDescribed(from[i], fmt::format("{}/{}", at(key), i), value.emplace_back());
            else
                read(from[i], key, value.emplace_back());
    }
    template <class E>
    requires std::is_enum_v<E>
    static void read(const nlohmann::json &from, const char *, E &value) {
        value = *fromName<E>(from.get_ref<const std::string &>()); // the schema lists the same words
    }
    template <class T>
    requires isDescribed<T>
    void read(const nlohmann::json &from, const char *key, T &value) const { readDescribed(from, at(key), value); }
    template <class T>
    static void readDescribed(const nlohmann::json &from, std::string pointer, T &value) {
        Reading inner(from, std::move(pointer));
        describe(inner, value);
        check(inner, value);
    }

    const nlohmann::json &json_;
    std::string pointer_;
};

} // namespace waxis::io
