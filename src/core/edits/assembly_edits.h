// Changes of what is done at the bench: steps ticked, steps of one's own, another order, what checks found.
#pragma once

#include "core/build/edit_result.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

/// Ticks operations of the plan, or again with their contents and time of now.
EditResult tickSteps(const Build &build, const std::vector<StepTick> &ticks);
EditResult untickSteps(const Build &build, const std::vector<std::string> &steps);
EditResult untickAll(const Build &build);

EditResult addOwnStep(const Build &build, const std::string &text, const std::string &after);
EditResult changeOwnStep(const Build &build, const std::string &id, const std::string &text);
EditResult removeOwnStep(const Build &build, const std::string &id);

/// Wants steps before others; an order the other way round of the same two goes.
EditResult wantOrder(const Build &build, const std::vector<OwnOrder> &wishes);
EditResult dropOwnOrder(const Build &build);

/// Nothing found and no verdict: takes the result away.
EditResult recordCheck(const Build &build, const std::string &check, const std::string &found, std::optional<bool> good,
                       const std::string &at);

} // namespace waxis
