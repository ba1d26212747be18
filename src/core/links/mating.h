// Which plug goes into which socket, and what lies on what when it does.
#pragma once

#include "core/build/build.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct HoleUse;

/// What is on an end of a wire: put on by the builder, come with a lead or cable, or nothing that is known.
struct PlugOnWire {
    std::string family; ///< empty: not known
    int ways = 0;       ///< 0: not known
    bool turned = false;
    std::optional<Vec3> size_mm;
};
std::optional<PlugOnWire> plugOn(const Build &build, const Wire &wire, bool atFrom);

/// Body of the plug on that end, mm: as somebody states it, else as plugs of its family usually are; a ready-made
/// cable's is of its socket's family. None: crimped or soldered by the builder, or its family is not known.
std::optional<Vec3> plugBodyOn(const Build &build, const Wire &wire, bool atFrom);

/// Two pins that a plug put on turned lays on each other, by their names.
struct TurnedPins {
    std::string pin, meets;
};
/// Row by row from the other end; only where the two differ.
std::vector<TurnedPins> turnedPins(const Port &port);

/// Whether a plug passes a slot or hole with its smaller sides first: across and height within the hole's own sides, or
/// its diagonal within the largest circle. mm.
bool passes(const Vec3 &plugSize_mm, const Vec2 &holeSides_mm, double circle_mm);

} // namespace waxis
