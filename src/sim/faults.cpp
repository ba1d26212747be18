#include "sim/faults.h"

namespace waxis::sim {

std::optional<Fault> faultNamed(std::string_view name) {
    if (name == "cut") return Fault::cut;
    if (name == "checksum") return Fault::checksum;
    if (name == "garbage") return Fault::garbage;
    if (name == "silence") return Fault::silence;
    if (name == "unplug") return Fault::unplug;
    return std::nullopt;
}

void Faults::set(Fault fault, bool on) {
    if (on)
        on_.insert(fault);
    else
        on_.erase(fault);
}

std::string Faults::spoil(const std::string &lines) {
    if (on_.empty()) return lines;
    constexpr unsigned kOneIn = 4;
    std::string out;
    for (std::size_t from = 0; from < lines.size();) {
        const std::size_t end = lines.find('\n', from);
        std::string line = lines.substr(from, end == std::string::npos ? end : end + 1 - from);
        from += line.size();
        const auto strikes = [&](Fault fault) { return has(fault) && random_() % kOneIn == 0; };
        if (strikes(Fault::cut) && line.size() > 8) {
            const std::size_t at = 1 + random_() % (line.size() - 4);
            line.erase(at, 1 + random_() % (line.size() - at));
        }
        if (strikes(Fault::checksum))
            for (auto &c : line)
                if (c >= '0' && c <= '8') {
                    ++c;
                    break;
                }
        if (strikes(Fault::garbage))
            for (auto i = random_() % 40; i > 0; --i) out += char(random_() % 256);
        out += line;
    }
    return out;
}

} // namespace waxis::sim
