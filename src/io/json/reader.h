// Inside the loader: a JSON object with its pointer, read key by key. The schema has passed it already.
#pragma once

#include "core/base/spin.h"
#include "core/geometry/polygon.h"
#include "io/json/read_model.h"
#include "io/names.h"

#include <cmath>
#include <fmt/format.h>

namespace waxis::io {

using nlohmann::json;

[[noreturn]] inline void refuse(std::string where, std::string expected, std::string found,
                                std::string suggestion = {}) {
    throw Unreadable{{std::move(where), std::move(expected), std::move(found), std::move(suggestion)}};
}

/// A JSON object with its pointer, read key by key.
class Reader {
public:
    Reader(const json &object, std::string pointer) : json_(object), pointer_(std::move(pointer)) {}

    bool has(const char *key) const { return json_.contains(key); }
    std::string at(const char *key) const { return pointer_ + "/" + key; }
    const std::string &pointer() const { return pointer_; }

    double number(const char *key, double standard) const { return has(key) ? json_[key].get<double>() : standard; }
    std::string text(const char *key, std::string standard = {}) const {
        return has(key) ? json_[key].get<std::string>() : standard;
    }
    bool flag(const char *key) const { return has(key) && json_[key].get<bool>(); }
    Vec3 vec3(const char *key, Vec3 standard = Vec3::Zero()) const {
        if (!has(key)) return standard;
        const auto &v = json_[key];
        return {v[0].get<double>(), v[1].get<double>(), v[2].get<double>()};
    }
    Vec2 vec2(const char *key) const {
        const auto &v = json_[key];
        return {v[0].get<double>(), v[1].get<double>()};
    }
    Vec3 direction(const char *key, const Vec3 &standard) const {
        const Vec3 d = vec3(key, standard);
        if (!(std::abs(d.norm() - 1) <= kUnit))
            refuse(at(key), "a direction of length 1", fmt::format("length {:.9g}", d.norm()));
        return d;
    }
    Pose pose() const {
        Pose pose{vec3("position_mm"), Quat::Identity()};
        if (!has("rotation")) return pose;
        const auto &q = json_["rotation"];
        pose.rotation = Quat(q[0].get<double>(), q[1].get<double>(), q[2].get<double>(), q[3].get<double>());
        if (!(std::abs(pose.rotation.norm() - 1) <= kUnit))
            refuse(at("rotation"), "a unit quaternion w, x, y, z", fmt::format("length {:.9g}", pose.rotation.norm()));
        return pose;
    }
    template <class E>
    E choice(const char *key, E standard) const {
        return has(key) ? *fromName<E>(json_[key].get<std::string>()) : standard; // the schema lists the same words
    }
    std::optional<double> maybe(const char *key) const {
        return has(key) ? std::optional(json_[key].get<double>()) : std::nullopt;
    }
    Measured measured(const char *key) const {
        if (!has(key)) return {};
        const Reader inner(json_[key], at(key));
        return {inner.maybe("value"), inner.maybe("tolerance"), inner.choice("source", Source::catalogue)};
    }
    Ring ring(const char *key) const { return ringOf(json_[key]); }
    static Ring ringOf(const json &list) {
        Ring ring;
        for (const auto &p : list) ring.emplace_back(p[0].get<double>(), p[1].get<double>());
        return ring;
    }
    std::vector<Ring> rings(const char *key) const {
        std::vector<Ring> rings;
        if (has(key))
            for (const auto &ring : json_[key]) rings.push_back(ringOf(ring));
        return rings;
    }
    std::vector<std::string> texts(const char *key) const {
        return has(key) ? json_[key].get<std::vector<std::string>>() : std::vector<std::string>{};
    }
    template <class T, class Read>
    std::vector<T> list(const char *key, Read &&read) const {
        std::vector<T> result;
        if (has(key))
            for (std::size_t i = 0; i < json_[key].size(); ++i)
                result.push_back(read(Reader(json_[key][i], fmt::format("{}/{}", at(key), i))));
        return result;
    }
    template <class V>
    std::map<std::string, V> map(const char *key) const {
        return has(key) ? json_[key].get<std::map<std::string, V>>() : std::map<std::string, V>{};
    }
    const json &raw(const char *key) const { return json_[key]; }
    Reader inner(const char *key) const { return {json_[key], at(key)}; }
    void require(const char *key, const std::string &why) const {
        if (!has(key)) refuse(pointer_, fmt::format("the key \"{}\"", key), why);
    }

private:
    static constexpr double kUnit = 1e-6;
    const json &json_;
    std::string pointer_;
};

// Shared by the readers of types and of builds.
void requireSoundOutline(const Polygon &polygon, const std::string &where);
HolePattern readPattern(const Reader &in);
std::optional<Spin> maybeSpin(const Reader &in, const char *key);
PartType readType(const Reader &in);

} // namespace waxis::io
