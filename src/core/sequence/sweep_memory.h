// What sweeps found, for things that stay as they are from one plan to the next: after a move only what has to do with
// the moved thing is swept again.
#pragma once

#include "core/clearance/clearance_world.h"

#include <array>
#include <cstdint>
#include <mutex>
#include <string>
#include <unordered_map>
#include <vector>

namespace waxis {

/// One at a time works with it: whoever plans holds `inUse`.
class SweepMemory {
public:
    /// What moves and how, past what: states of things, or what kind of tool below zero.
    struct Question {
        int mover = 0, other = 0;
        std::array<double, 7> how{}; ///< way; of tools where they start, too, and how wide they are
        bool operator==(const Question &) const = default;
    };

    std::mutex inUse;

    /// A number for a thing as it stands, the same as before while its bodies and `extra` are.
    int stateOf(const std::string &thing, std::vector<Body> bodies, const std::string &extra);
    template <class Ask>
    bool meets(const Question &question, Ask ask) {
        const auto [at, isNew] = known_.try_emplace(question, false);
        if (isNew) {
            at->second = ask();
            ++asked_;
        }
        return at->second;
    }
    /// Sweeps that were made since it was new.
    std::size_t asked() const { return asked_; }
    /// Forgets all when it has grown beyond what a few crafts need.
    void trim();

private:
    struct Hash {
        std::size_t operator()(const Question &question) const;
    };
    struct Kept {
        std::vector<Body> bodies;
        std::string extra;
        int state = 0;
    };
    std::unordered_map<std::string, Kept> things_;
    std::unordered_map<Question, bool, Hash> known_;
    int next_ = 0;
    std::size_t asked_ = 0;
};

} // namespace waxis
