// Writes described values (described_types.h, described_build.h) as JSON, their keys in the order of the description.
#pragma once

#include "io/json/described.h"
#include "io/json/write_model.h"
#include "io/names.h"

#include <array>
#include <map>
#include <optional>
#include <string>
#include <type_traits>
#include <vector>

namespace waxis::io {

/// No "-0.0" in files.
inline double tidy(double value) { return value == 0 ? 0.0 : value; }

class Writing {
public:
    static constexpr bool reads = false;
    OrderedJson out = OrderedJson::object();

    template <class T>
    void must(const char *key, const T &value) {
        out[key] = json(value);
    }
    template <class T, class Standard = T>
    void sparse(const char *key, const T &value, const Standard &standard = {}) {
        if (!(value == standard)) must(key, value);
    }
    template <class T>
    void when(bool condition, const char *key, const T &value) {
        if (condition) must(key, value);
    }
    void unit(const char *key, const Vec3 &value) { must(key, value); }
    void sparseUnit(const char *key, const Vec3 &value, const Vec3 &standard) { sparse(key, value, standard); }
    void sparseUnit(const char *key, const std::optional<Vec3> &value) { sparse(key, value); }
    void pose(const Pose &value) {
        must("position_mm", value.position_mm);
        const Quat &q = value.rotation;
        if (!(q.coeffs() == Quat::Identity().coeffs()))
            out["rotation"] = {tidy(q.w()), tidy(q.x()), tidy(q.y()), tidy(q.z())};
    }

    static OrderedJson json(bool value) { return value; }
    static OrderedJson json(int value) { return value; }
    static OrderedJson json(double value) { return tidy(value); }
    static OrderedJson json(const std::string &value) { return value; }
    static OrderedJson json(const Vec2 &v) { return {tidy(v.x()), tidy(v.y())}; }
    static OrderedJson json(const Vec3 &v) { return {tidy(v.x()), tidy(v.y()), tidy(v.z())}; }
    static OrderedJson json(const Mat3 &m) {
        auto rows = OrderedJson::array();
        for (int i = 0; i < 3; ++i) rows.push_back(json(Vec3(m.row(i).transpose())));
        return rows;
    }
    static OrderedJson json(const std::array<int, 3> &value) { return value; }
    template <class T>
    requires isDescribed<T>
    static OrderedJson json(const std::map<std::string, T> &types) {
        auto list = OrderedJson::array();
        for (const auto &[id, type] : types) list.push_back(json(type));
        return list;
    }
    template <class T>
    static OrderedJson json(const SharedValue<T> &value) {
        return json(*value);
    }
    template <class V>
    requires(!isDescribed<V>) static OrderedJson json(const std::map<std::string, V> &value) {
        auto object = OrderedJson::object();
        for (const auto &[key, item] : value) object[key] = json(item);
        return object;
    }
    template <class T>
    static OrderedJson json(const std::optional<T> &value) {
        return json(*value);
    }
    template <class T>
    static OrderedJson json(const std::vector<T> &value) {
        auto list = OrderedJson::array();
        for (const auto &item : value) list.push_back(json(item));
        return list;
    }
    template <class E>
    requires std::is_enum_v<E>
    static OrderedJson json(E value) { return nameOf(value); }
    template <class T>
    requires isDescribed<T>
    static OrderedJson json(const T &value) {
        Writing inner;
        describe(inner, value);
        return std::move(inner.out);
    }
};

} // namespace waxis::io
