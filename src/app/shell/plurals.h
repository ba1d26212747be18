// Singular and plural of the program's own English.
#pragma once

namespace waxis::app {

/// Loads data/translations/weightaxis_en.ts for the whole program, so that "%n part(s)" reads as 1 part or 2 parts.
/// Once is enough; calling it again does nothing.
void loadPlurals();

} // namespace waxis::app
