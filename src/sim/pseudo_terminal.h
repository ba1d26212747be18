// A serial port that this program holds the other end of.
#pragma once

#include <string>
#include <string_view>

namespace waxis::sim {

/// A raw pseudo-terminal with a name that stays: a link in a folder of its own, so that unplugging and plugging in
/// again are seen under the same path. Bytes that nobody reads are dropped, as on a cable.
class PseudoTerminal {
public:
    /// Throws std::runtime_error where the system gives none. `name`: the last part of the path.
    explicit PseudoTerminal(const std::string &name);
    ~PseudoTerminal();
    PseudoTerminal(const PseudoTerminal &) = delete;
    PseudoTerminal &operator=(const PseudoTerminal &) = delete;

    const std::string &path() const { return link_; }
    bool isPlugged() const { return master_ >= 0; }
    void unplug();
    void plug();
    void write(std::string_view bytes);

private:
    std::string folder_, link_;
    int master_ = -1, slave_ = -1;
};

} // namespace waxis::sim
