// What a file holds.
#pragma once

#include <filesystem>
#include <fstream>
#include <iterator>
#include <string>

namespace waxis::test {

/// Empty when it cannot be read.
inline std::string bytesOf(const std::filesystem::path &path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

} // namespace waxis::test
