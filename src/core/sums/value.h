// A small tree of values for the quick sums' inputs and outputs, so that the core needs no JSON library.
#pragma once

#include <string>
#include <utility>
#include <variant>
#include <vector>

namespace waxis {

struct SumValue;
using SumList = std::vector<SumValue>;
/// Keys in the order in which they were given.
using SumObject = std::vector<std::pair<std::string, SumValue>>;

struct SumValue {
    std::variant<double, bool, std::string, SumList, SumObject> held;

    SumValue(double number = 0) : held(number) {}
    SumValue(bool truth) : held(truth) {}
    SumValue(std::string text) : held(std::move(text)) {}
    SumValue(const char *text) : held(std::string(text)) {}
    SumValue(SumList list) : held(std::move(list)) {}
    SumValue(SumObject object) : held(std::move(object)) {}
};

const SumValue *findKey(const SumObject &object, const std::string &key);

} // namespace waxis
