#include "core/edits/insert_edits.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

constexpr std::size_t kMostInserts = 50; // as in files

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

template <class Change>
EditResult withWire(const Build &build, const std::string &id, const Change &change) {
    Build next = build;
    const auto at = std::find_if(next.wires.begin(), next.wires.end(), [&](const Wire &w) { return w.id == id; });
    if (at == next.wires.end()) return refuse(fmt::format("There is no wire \"{}\" in this build.", id));
    if (std::string why = change(next, *at); !why.empty()) return refuse(std::move(why));
    return next;
}

std::string faultOf(const Wire &wire, const WireInsert &insert) {
    if (insert.core < -1 || insert.core >= int(wire.cores.size())) return "The wire has no such core.";
    if (!(insert.at >= 0 && insert.at <= 1)) return "A place from 0 to 1 of the way expected.";
    return {};
}

} // namespace

bool goesIntoWires(const PartType &type) {
    return type.kind == PartKind::inlinePart || (type.kind == PartKind::capacitor && type.ports.empty());
}

EditResult addInsert(const Build &build, const std::string &wire, const PartType &type, int core) {
    return withWire(build, wire, [&](Build &next, Wire &w) -> std::string {
        if (w.inserts.size() >= kMostInserts) return fmt::format("No more than {} in one wire.", kMostInserts);
        WireInsert insert;
        insert.type = type.id;
        insert.core = core;
        if (auto fault = faultOf(w, insert); !fault.empty()) return fault;
        const auto there = next.types->find(type.id);
        if (there != next.types->end() && !(there->second == type))
            return fmt::format("The build has another part type called \"{}\".", type.id);
        if (there == next.types->end()) next.types.edit([&](TypeTable &types) { types.emplace(type.id, type); });
        w.inserts.push_back(std::move(insert));
        return {};
    });
}

EditResult setInsert(const Build &build, const std::string &wire, std::size_t index, const WireInsert &insert) {
    return withWire(build, wire, [&](Build &next, Wire &w) -> std::string {
        if (index >= w.inserts.size()) return "There is no such thing in the wire.";
        if (!next.types->contains(insert.type)) return fmt::format("The build has no part type \"{}\".", insert.type);
        if (auto fault = faultOf(w, insert); !fault.empty()) return fault;
        w.inserts[index] = insert;
        return {};
    });
}

EditResult removeInsert(const Build &build, const std::string &wire, std::size_t index) {
    return withWire(build, wire, [&](Build &, Wire &w) -> std::string {
        if (index >= w.inserts.size()) return "There is no such thing in the wire.";
        w.inserts.erase(w.inserts.begin() + std::ptrdiff_t(index));
        return {};
    });
}

} // namespace waxis
