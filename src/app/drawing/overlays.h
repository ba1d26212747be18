// What can be laid over the drawings, one row each: chips, keys and legend come from the same table.
#pragma once

#include <QCoreApplication>
#include <QString>
#include <array>

namespace waxis::drawing {

struct Overlays {
    bool propellers = true;
    bool marks = true;
    bool grams = false;
    bool arrows = false;
    bool camera = false;
    bool sky = false;
    bool room = false;
    bool section = false;
    bool wires = false;
    bool chosen = true; ///< what belongs to the chosen thing: room, neighbours, what it sees
    bool operator==(const Overlays &) const = default;
};

/// How the legend shows an overlay.
enum class Swatch { dashedRing, findings, dot, arrow, cone, rose, corridor, dashDot, strands };

struct OverlayDefinition {
    bool Overlays::*shown;
    const char *title; ///< on the chip
    const char *brief; ///< in the legend
    const char *says;  ///< in the tool tip
    int key;           ///< digit that switches it
    Swatch swatch;
};

inline constexpr std::array<OverlayDefinition, 9> kOverlays{{
    {&Overlays::propellers, QT_TRANSLATE_NOOP("Overlays", "Discs"),
     QT_TRANSLATE_NOOP("Overlays", "discs with the blades' room"),
     QT_TRANSLATE_NOOP("Overlays", "propeller discs with the room that the blades need"), 1, Swatch::dashedRing},
    {&Overlays::marks, QT_TRANSLATE_NOOP("Overlays", "Findings"),
     QT_TRANSLATE_NOOP("Overlays", "touching, striking, too near"),
     QT_TRANSLATE_NOOP("Overlays", "where things touch, strike or come too near"), 2, Swatch::findings},
    {&Overlays::grams, QT_TRANSLATE_NOOP("Overlays", "Grams"), QT_TRANSLATE_NOOP("Overlays", "grams"),
     QT_TRANSLATE_NOOP("Overlays", "one dot for each mass, area in step with the grams"), 3, Swatch::dot},
    {&Overlays::arrows, QT_TRANSLATE_NOOP("Overlays", "Arrows"),
     QT_TRANSLATE_NOOP("Overlays", "arrows and angles to enter"),
     QT_TRANSLATE_NOOP("Overlays", "printed arrows and the angles to enter"), 4, Swatch::arrow},
    {&Overlays::camera, QT_TRANSLATE_NOOP("Overlays", "Camera"), QT_TRANSLATE_NOOP("Overlays", "what cameras look at"),
     QT_TRANSLATE_NOOP("Overlays", "what the cameras look at"), 5, Swatch::cone},
    {&Overlays::sky, QT_TRANSLATE_NOOP("Overlays", "Sky"), QT_TRANSLATE_NOOP("Overlays", "open sky by direction"),
     QT_TRANSLATE_NOOP("Overlays", "open sky by direction, round the GPS antenna"), 6, Swatch::rose},
    {&Overlays::room, QT_TRANSLATE_NOOP("Overlays", "Room"),
     QT_TRANSLATE_NOOP("Overlays", "plugs, hands, sliding, ground"),
     QT_TRANSLATE_NOOP("Overlays", "room for plugs and hands, sliding range, folding, ground"), 7, Swatch::corridor},
    {&Overlays::section, QT_TRANSLATE_NOOP("Overlays", "Section"),
     QT_TRANSLATE_NOOP("Overlays", "cut of the lower view"),
     QT_TRANSLATE_NOOP("Overlays", "the lower view is cut along this line; drag it"), 8, Swatch::dashDot},
    {&Overlays::wires, QT_TRANSLATE_NOOP("Overlays", "Wires"), QT_TRANSLATE_NOOP("Overlays", "routes of the wires"),
     QT_TRANSLATE_NOOP("Overlays", "where each wire runs, in the colour of its use"), 9, Swatch::strands},
}};

inline QString overlayText(const char *text) { return QCoreApplication::translate("Overlays", text); }

} // namespace waxis::drawing
