// What must be typed into the controller, in general words, in the order in which one needs it.
#pragma once

#include "core/base/sentence.h"
#include "core/derived/derived.h"
#include "core/practice/practice.h"

#include <string>
#include <vector>

namespace waxis {

struct SettingRow {
    Sentence topic; ///< the same for rows that belong together
    Sentence what, value;
};

/// For what is aboard in a load case. Names of menus are those of no firmware: every one calls them otherwise.
std::vector<SettingRow> settingsToEnter(const Build &build, const Derived &derived, int loadCase);

} // namespace waxis
