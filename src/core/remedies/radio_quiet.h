// What quiets a pair where it stands: the sender off, a shield under the module that listens.
#pragma once

#include "core/remedies/radio_help.h"

namespace waxis {

struct RadioCell;

/// A pair, and what it is judged with. `sender` and `listener` are indices in RadioReport::radios.
struct RadioPair {
    const Build &build;
    const Practice &practice;
    const RadioReport &report;
    const std::vector<LineShadow> &shadows;
    int sender = 0, listener = 0;
};

/// Proposals for a pair that is not well (`now`). Another unit of the same use may take its place: then the sender is
/// switched off wherever both are at work, else only on the ground; for satellites a case on the ground with it off is
/// offered, in which the receiver finds itself first. The control link is never switched off.
std::vector<RadioHelp> quietedPair(const RadioPair &pair, const RadioCell &now);

} // namespace waxis
