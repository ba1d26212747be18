// Random arguments for edits, from what a build holds.
#pragma once

#include "core/analysis/analysis.h"
#include "core/build/log.h"
#include "core/log/quantities.h"
#include "support/stacks.h"

#include <random>

namespace waxis::test {

/// Draws arguments from what a build holds; empty or standard values where it holds none of the kind.
class Draw {
public:
    Draw(const Build &build, std::mt19937 &random) : b(build), random_(random) {}

    std::size_t upTo(std::size_t most) { return most == 0 ? 0 : std::size_t(random_() % most); }
    bool coin() { return random_() % 2; }
    double number(double low, double high) { return std::uniform_real_distribution<double>(low, high)(random_); }
    template <class List>
    auto one(const List &list) -> std::remove_cv_t<typename List::value_type> {
        return list.empty() ? std::remove_cv_t<typename List::value_type>{} : list[upTo(list.size())];
    }
    template <class List>
    std::string id(const List &list) {
        return list.empty() ? std::string() : list[upTo(list.size())].id;
    }
    std::string part() { return id(b.parts); }
    std::string partOf(PartKind kind) {
        std::vector<Part> all;
        for (const auto &part : b.parts)
            if (const PartType *type = typeOf(b, part); type && type->kind == kind) all.push_back(part);
        return id(all);
    }
    std::vector<std::string> parts() { return {part(), part(), part()}; }
    std::string wire() { return id(b.wires); }
    std::string stack() { return id(b.stacks); }
    std::string loadCase() { return id(b.loadCases); }
    std::string plate() { return id(b.frame->plates); }
    std::string mount() { return id(b.frame->motorMounts); }
    int layerOf(const std::string &stack) {
        const Stack *found = findStack(b, stack);
        return found ? int(upTo(found->layers.size())) : 0;
    }
    PartType type() {
        if (b.types->empty()) return made({FastenerForm::spacer, "M3", 5});
        auto at = b.types->begin();
        std::advance(at, upTo(b.types->size()));
        return at->second;
    }
    Vec3 shift() { return {number(-20, 20), number(-20, 20), number(-10, 10)}; }
    Vec3 place() { return {number(-90, 90), number(-50, 50), number(0, 60)}; }
    Pose pose() { return {place(), Quat::Identity()}; }
    Measured grams() { return coin() ? measuredValue(number(0, 100), number(0, 3)) : Measured{}; }
    std::string words() { return "größe \"" + std::to_string(random_() % 1000) + "\"\n"; }
    WireEnd end() {
        for (int tries = 0; tries < 40; ++tries) {
            const std::string id = part();
            const Part *found = findPart(b, id);
            const PartType *type = found ? typeOf(b, *found) : nullptr;
            if (type && !type->ports.empty()) return {id, one(type->ports).id};
        }
        return {};
    }
    std::string pinOf(const WireEnd &end) {
        const Part *found = findPart(b, end.part);
        const PartType *type = found ? typeOf(b, *found) : nullptr;
        if (type)
            for (const auto &port : type->ports)
                if (port.id == end.port && !port.pins.empty()) return one(port.pins).signal;
        return {};
    }
    Session session() {
        Session made;
        made.at = "2026-05-" + std::to_string(10 + upTo(20)) + "T10:00:00+02:00";
        made.loadCase = loadCase();
        return made;
    }
    Entry entry() {
        Entry made;
        made.quantity = one(quantityBook()).quantity;
        const QuantityInfo &info = quantityInfo(made.quantity);
        if (info.subject == EntrySubject::wire) made.subjects = {wire()};
        if (info.subject == EntrySubject::part) made.subjects = {coin() ? part() : type().id};
        for (const auto &value : info.values) made.values.push_back(number(value.least, value.most));
        made.text = words();
        made.blocks = coin();
        return made;
    }
    /// The findings now: for what is offered with them.
    Finding finding() {
        Analyser analyser;
        return one(analyser.update(b).findings);
    }

    const Build &b;

private:
    std::mt19937 &random_;
};

} // namespace waxis::test
