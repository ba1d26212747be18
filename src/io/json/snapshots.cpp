#include "io/json/snapshots.h"

#include "core/build/log.h"
#include "io/json/parse.h"
#include "io/json/reading.h"

#include <set>

namespace waxis::io {

using nlohmann::json;

namespace {

constexpr const char *kOrder = "[]"; // no id begins so
constexpr std::size_t kLargest = 64u << 20;

bool hasIds(const json &list) {
    std::set<std::string> ids;
    for (const auto &entry : list)
        if (!entry.is_object() || !entry.contains("id") || !entry["id"].is_string() ||
            !ids.insert(entry["id"].get<std::string>()).second)
            return false;
    return !list.empty();
}

/// As it comes back from a file, so that a state is the same text however it came here.
json asRead(const OrderedJson &document) { return json::parse(prettyJson(document)); }

json withoutLog(const Build &build) {
    Build plain = build;
    plain.log = SharedValue<Log>();
    return asRead(toJson(plain));
}

} // namespace

json keyedById(const json &value) {
    if (value.is_array() && hasIds(value)) {
        json out = json::object();
        json order = json::array();
        for (const auto &entry : value) {
            json inner = keyedById(entry);
            inner.erase("id");
            order.push_back(entry["id"]);
            out[entry["id"].get<std::string>()] = std::move(inner);
        }
        out[kOrder] = std::move(order);
        return out;
    }
    if (!value.is_structured()) return value;
    json out = value;
    for (auto &inner : out) inner = keyedById(inner);
    return out;
}

json listed(const json &value) {
    if (!value.is_structured()) return value;
    if (value.is_object() && value.contains(kOrder) && value[kOrder].is_array()) {
        json out = json::array();
        for (const auto &id : value[kOrder]) {
            if (!id.is_string()) continue;
            const auto found = value.find(id.get<std::string>());
            if (found == value.end() || !found->is_object()) continue;
            json entry = listed(*found);
            if (!entry.is_object()) continue;
            entry["id"] = id;
            out.push_back(std::move(entry));
        }
        return out;
    }
    json out = value;
    for (auto &inner : out) inner = listed(inner);
    return out;
}

json mergePatch(const json &from, const json &to) {
    if (!from.is_object() || !to.is_object()) return to;
    json patch = json::object();
    for (const auto &[key, value] : from.items())
        if (!to.contains(key)) patch[key] = nullptr;
    for (const auto &[key, value] : to.items()) {
        const auto before = from.find(key);
        if (before == from.end())
            patch[key] = value;
        else if (*before != value)
            patch[key] = mergePatch(*before, value);
    }
    return patch;
}

std::string snapshotDocument(const Build &build) { return listed(keyedById(withoutLog(build))).dump(); }

void readSnapshots(const json &document, Build &build) {
    const std::size_t count = build.log->snapshots.size();
    if (count == 0) return;
    const json &states = document.at("log").at("states");
    json state = keyedById(withoutLog(build));
    std::size_t size = 0;
    build.log.edit([&](Log &log) {
        for (std::size_t i = count; i-- > 0;) {
            const std::string where = fmt::format("/log/states/{}", i);
            if (!states[i].contains("patch"))
                refuse(where, "the key \"patch\"", "a state without what was otherwise in it");
            state.merge_patch(states[i]["patch"]);
            std::string text = listed(state).dump();
            size += text.size();
            if (size > kLargest) refuse(where, "states of at most 64 MB together", "more");
            log.snapshots[i].document = std::move(text);
        }
    });
}

void writeSnapshots(OrderedJson &document, const Build &build) {
    const auto &states = build.log->snapshots;
    if (states.empty()) return;
    json after = keyedById(withoutLog(build));
    for (std::size_t i = states.size(); i-- > 0;) {
        json state = keyedById(json::parse(*states[i].document, nullptr, false));
        if (state.is_discarded()) state = after; // nothing that this program made; the state is lost, the file is not
        document["log"]["states"][i]["patch"] = OrderedJson(mergePatch(after, state));
        after = std::move(state);
    }
}

} // namespace waxis::io
