// Changes of what belongs to the build as a whole: its name and notes, its load cases, which parts are optional.
#pragma once

#include "core/edits/part_edits.h"

namespace waxis {

/// Blank names are refused.
EditResult renameBuild(const Build &build, const std::string &name);
EditResult noteBuild(const Build &build, const std::string &note);
EditResult notePart(const Build &build, const std::string &part, const std::string &note);

/// Adds a load case with everything aboard that the last one has; the first one of a build is what is drawn. The new
/// id is put into `id`.
EditResult addLoadCase(const Build &build, const std::string &name, std::string *id = nullptr);
EditResult renameLoadCase(const Build &build, const std::string &loadCase, const std::string &name);
EditResult setLoadCaseKind(const Build &build, const std::string &loadCase, LoadCaseKind kind);
EditResult setLoadCaseFolded(const Build &build, const std::string &loadCase, bool folded);
/// The pack that flies in the case; it must be a battery. Empty: none is named.
EditResult setLoadCasePack(const Build &build, const std::string &loadCase, const std::string &pack);
/// Whether a computer or charger can be plugged into the part: a USB port; power banks give there.
bool takesUsb(const Build &build, const std::string &part);
/// On the bench: the part whose USB socket a computer or charger feeds; packs are unplugged then. Empty: none.
EditResult setLoadCaseUsb(const Build &build, const std::string &loadCase, const std::string &part);
/// Whether something is there to switch off: the part draws current or sends; packs are unplugged instead.
bool canBeOff(const Build &build, const std::string &part);
/// Whether the part is switched off while the case lasts. It stays aboard.
EditResult setSwitchedOff(const Build &build, const std::string &part, const std::string &loadCase, bool off);
/// Adds a case on the ground, powered, in which the part is switched off: what the first flight has aboard waits there
/// for its satellites. A build without load cases keeps what is drawn as its first one.
EditResult addQuietCase(const Build &build, const std::string &part);
/// What weighings and weight limits say of the case goes back to the first one.
EditResult removeLoadCase(const Build &build, const std::string &loadCase);

/// Whether an optional part flies in a load case. A part that was not optional becomes so and stays aboard everywhere
/// else; without load cases there is nothing to say.
EditResult setAboard(const Build &build, const std::string &part, const std::string &loadCase, bool aboard);

/// A part that becomes optional stays aboard in all load cases that there are; one that is not optional any more is
/// aboard everywhere. Without load cases one is made first, in which it is aboard.
EditResult makeOptional(const Build &build, const std::string &part, bool optional);

} // namespace waxis
