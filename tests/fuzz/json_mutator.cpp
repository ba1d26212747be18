// Changes JSON in its structure, three times of four; else bytes as the fuzzer does. Linked into the targets that read
// JSON.
#include <cstdint>
#include <cstring>
#include <nlohmann/json.hpp>
#include <random>
#include <string>
#include <vector>

using nlohmann::json;

namespace {

json strangeValue(std::mt19937 &random) {
    static const std::vector<json> values{nullptr,
                                          true,
                                          0,
                                          -1,
                                          1,
                                          2,
                                          64,
                                          1e-9,
                                          1e9,
                                          -1e300,
                                          5e-324,
                                          18446744073709551615ull,
                                          "",
                                          "main",
                                          "box",
                                          "prism",
                                          "m1",
                                          "t",
                                          "a",
                                          "fc",
                                          json::array(),
                                          json::object(),
                                          {1, 0, 0, 0},
                                          {0, 0, 1},
                                          {0, 0, 0},
                                          {1, 2},
                                          {{0, 0}, {10, 0}, {10, 10}},
                                          {{"value", 3}}};
    return values[random() % values.size()];
}

void collect(json &node, std::vector<json *> &all) {
    all.push_back(&node);
    if (node.is_structured())
        for (auto &child : node) collect(child, all);
}

void mutate(json &document, std::mt19937 &random) {
    std::vector<json *> all;
    collect(document, all);
    json &node = *all[random() % all.size()];
    switch (random() % 6) {
    case 0: node = strangeValue(random); return;
    case 1: // another value of the document
        node = json(*all[random() % all.size()]);
        return;
    case 2:
        if (node.is_number()) node = node.get<double>() * (double(random() % 2001) / 100 - 10);
        return;
    case 3:
        if (node.is_structured() && !node.empty()) {
            auto at = node.begin();
            std::advance(at, long(random() % node.size()));
            node.erase(at);
        }
        return;
    case 4:
        if (node.is_array() && !node.empty()) node.push_back(json(node[random() % node.size()]));
        return;
    default:
        if (node.is_object()) node["extra"] = strangeValue(random);
        return;
    }
}

} // namespace

extern "C" std::size_t LLVMFuzzerMutate(std::uint8_t *data, std::size_t size, std::size_t most);

extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t *data, std::size_t size, std::size_t most, unsigned seed) {
    std::mt19937 random(seed);
    if (random() % 4 != 0) {
        auto document = json::parse(data, data + size, nullptr, false);
        if (!document.is_discarded()) {
            for (unsigned n = 1 + random() % 3; n > 0; --n) mutate(document, random);
            const std::string text = document.dump(-1, ' ', false, json::error_handler_t::replace);
            if (text.size() <= most) {
                std::memcpy(data, text.data(), text.size());
                return text.size();
            }
        }
    }
    return LLVMFuzzerMutate(data, size, most);
}
