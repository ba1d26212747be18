// How bad a cell of the radio matrix is, in one word.
#pragma once

#include "core/findings/finding.h"

namespace waxis {

struct Practice;
struct RadioCell;

/// The worst of what the rules say of it: distance, noise, blocking, products; for compasses the heading error.
Severity cellSeverity(const RadioCell &cell, bool compass, const Practice &practice);

} // namespace waxis
