// What would make a stack close, cheapest change first.
#pragma once

#include "core/edits/stack_change.h"
#include "core/findings/fix.h"
#include "core/practice/practice.h"

namespace waxis {

struct StackReport;

/// Screws of another length, of the thread, head and material that the stack has now. Needs a thread in the report.
StackChange screwChange(const StackReport &report, double length_mm);

/// The change as a cure of a finding.
Fix fixBy(const StackChange &change);

struct StackSuggestion {
    std::vector<StackChange> changes;
    int effort = 0;       ///< 1: bend to what lies there (cut, squeeze) ... 5: other parts of the frame
    double gained_mm = 0; ///< of the room under the plate above, or of the air that was short
    double left_mm = 0;   ///< room under the plate above after it (infinite: no plate)
    double mass_g = 0;    ///< change of the hardware's mass
    bool solves = false;  ///< no stop of the stack's own is left
};

/// Tries cut dampers, other dampers, lower and higher spacers, plain instead of locking nuts, the right screw, lower
/// plugs, longer standoffs, turned boards and ties: one change with the screw that it asks for; where none is enough,
/// up to three. Those that solve it come first, then by effort, then by what they gain, then by grams. Empty when
/// nothing is amiss.
std::vector<StackSuggestion> suggestFor(const Build &build, const Stack &stack, const Practice &practice,
                                        std::size_t most = 8);

/// The changes in one sentence, joined by "and".
std::string suggestionInWords(const Build &build, const StackSuggestion &suggestion);

/// How badly off a stack is: the sum of what is short in height, air and screw length, mm; 0 when nothing is.
double shortfall_mm(const StackReport &report, const Practice &practice);

} // namespace waxis
