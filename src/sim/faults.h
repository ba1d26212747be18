// What goes wrong on a cable.
#pragma once

#include <cstdint>
#include <optional>
#include <random>
#include <set>
#include <string>
#include <string_view>

namespace waxis::sim {

enum class Fault {
    cut,      ///< lines lose a piece
    checksum, ///< digits change
    garbage,  ///< binary between lines
    silence,  ///< nothing comes
    unplug    ///< the port is gone
};
/// "cut", "checksum", ...; none: no such fault.
std::optional<Fault> faultNamed(std::string_view name);

/// Spoils about one line in four with each fault that is on; silence and unplug are the sender's.
class Faults {
public:
    explicit Faults(std::uint32_t seed) : random_(seed) {}
    void set(Fault fault, bool on);
    bool has(Fault fault) const { return on_.contains(fault); }
    void clear() { on_.clear(); }
    std::string spoil(const std::string &lines);

private:
    std::set<Fault> on_;
    std::mt19937 random_;
};

} // namespace waxis::sim
