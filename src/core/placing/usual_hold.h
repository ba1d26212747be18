// How builders usually hold a kind of part where nothing else is said, and on what it may sit.
#pragma once

#include "core/build/build.h"

namespace waxis {

/// Screws for what has holes and for brackets, a strap for packs, foam tape for flat things, ties for round ones
/// (common practice, no source).
FasteningMethod usualHold(const PartType &type);

/// A nut that holds a propeller on a motor's shaft. Threads beyond M4 are in no table, so such nuts say it by name.
bool isPropellerNut(const PartType &type);

/// Bracket, mast, wedge or pedestal: other parts sit on top of it.
bool carriesParts(const PartType &type);

/// An antenna whose element is a straight wire: it goes into a tube.
bool isWhip(const PartType &type);

} // namespace waxis
