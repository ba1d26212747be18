// The layouts and what each of them asks for. Standards are those of a 5-inch frame, larger ones for many arms
// (common practice, no source).
#include "core/layout/layout.h"

#include <algorithm>
#include <array>

namespace waxis {

std::span<const LayoutDefinition> layouts() {
    static constexpr std::array<LayoutDefinition, 12> table{{
        {LayoutKind::quadX, "quad-x", "Quad, true X", "Four arms at right angles: the same to every side.", 4},
        {LayoutKind::quadWide, "quad-x-wide", "Quad, wide X", "Arms spread sideways: clear view ahead, quick to roll.",
         4},
        {LayoutKind::quadStretched, "quad-x-long", "Quad, stretched X",
         "Arms spread fore and aft: the rear propellers run in cleaner air.", 4},
        {LayoutKind::quadHybrid, "quad-hybrid", "Quad, hybrid X",
         "Front and rear arms of their own length and angle: room for the camera.", 4},
        {LayoutKind::quadH, "quad-h", "Quad, H", "Cross arms on a long body: room for packs and boards.", 4},
        {LayoutKind::quadPlus, "quad-plus", "Quad, plus", "One arm ahead, one aft, one to each side.", 4},
        {LayoutKind::triY, "tri-y", "Tricopter, Y", "Two arms ahead, a tail motor that a servo tilts.", 3},
        {LayoutKind::hexaX, "hexa-x", "Hexacopter, X", "Six arms with a gap ahead for the camera.", 6},
        {LayoutKind::hexaPlus, "hexa-plus", "Hexacopter, plus", "Six arms, one of them straight ahead.", 6},
        {LayoutKind::octoX, "octo-x", "Octocopter, X", "Eight arms with a gap ahead.", 8},
        {LayoutKind::coaxialY6, "coaxial-y6", "Coaxial Y6", "Three arms, a motor above and one below each.", 6},
        {LayoutKind::coaxialX8, "coaxial-x8", "Coaxial X8", "Four arms, a motor above and one below each.", 8},
    }};
    return table;
}

const LayoutDefinition *findLayout(std::string_view id) {
    const auto all = layouts();
    const auto at = std::find_if(all.begin(), all.end(), [&](const auto &layout) { return layout.id == id; });
    return at == all.end() ? nullptr : &*at;
}

std::vector<LayoutParameter> parametersOf(LayoutKind kind) {
    using enum ParameterForm;
    using enum ParameterGroup;
    const bool many = kind == LayoutKind::hexaX || kind == LayoutKind::hexaPlus || kind == LayoutKind::octoX;
    const bool three = kind == LayoutKind::triY || kind == LayoutKind::coaxialY6;
    const double arm = kind == LayoutKind::octoX      ? 245
                       : many                         ? 190
                       : three                        ? 140
                       : kind == LayoutKind::quadPlus ? 130
                       : kind == LayoutKind::quadWide ? 122
                                                      : 118;
    std::vector<LayoutParameter> list;
    if (kind == LayoutKind::quadH) {
        list.push_back({"spread_mm", "Motors apart, left to right", "mm", 185, 40, 3000, number, arms});
        list.push_back({"length_mm", "Motors apart, front to rear", "mm", 145, 40, 3000, number, arms});
    } else if (kind == LayoutKind::quadHybrid) {
        list.push_back({"arm_mm", "Front arms, centre to motor", "mm", 125, 20, 2000, number, arms});
        list.push_back({"rearArm_mm", "Rear arms, centre to motor", "mm", 115, 20, 2000, number, arms});
        list.push_back({"frontAngle_deg", "Front arms off the nose", "°", 42, 15, 80, number, arms});
        list.push_back({"rearAngle_deg", "Rear arms off the tail", "°", 48, 15, 80, number, arms});
    } else {
        list.push_back({"arm_mm", "Arms, centre to motor", "mm", arm, 20, 2000, number, arms});
        if (kind == LayoutKind::quadWide)
            list.push_back({"frontAngle_deg", "Arms off the nose", "°", 55, 45, 75, number, arms});
        if (kind == LayoutKind::quadStretched)
            list.push_back({"frontAngle_deg", "Arms off the nose", "°", 40, 20, 45, number, arms});
        if (three) {
            list.push_back({"tail_mm", "Tail arm, centre to motor", "mm", arm, 20, 2000, number, arms});
            list.push_back({"frontAngle_deg", "Front arms off the nose", "°", 60, 30, 85, number, arms});
        }
    }
    list.push_back({"armWidth_mm", "Arm width", "mm", many ? 16.0 : 13.0, 2, 100, number, arms});
    list.push_back({"armThickness_mm", "Arm thickness", "mm", 5, 0.5, 60, number, arms});
    list.push_back({"armWall_mm", "Arm wall, 0: solid", "mm", 0, 0, 10, number, arms});
    list.push_back({"armRound", "Round arms, where they have a wall", "", 0, 0, 1, yesNo, arms});
    list.push_back({"foldJoint_mm", "Folding joint from the arm's root, 0: none", "mm", 0, 0, 1000, number, arms});

    list.push_back({"prop_mm", "Propeller diameter", "mm", many ? 178.0 : 127.0, 25, 1000, number, propellers});
    list.push_back({"propPlane_mm", "Blades above the motor's foot", "mm", 20, 3, 200, number, propellers});
    list.push_back({"motorCircle_mm", "Motor hole circle", "mm", 16, 5, 100, number, propellers});
    list.push_back({"motorHole_mm", "Motor hole", "mm", 3.2, 1, 8, number, propellers});
    list.push_back({"reversedSpin", "Turn all motors the other way", "", 0, 0, 1, yesNo, propellers});

    list.push_back({"bodyLength_mm", "Body length", "mm",
                    many                                ? 130.0
                    : kind == LayoutKind::quadStretched ? 104.0
                                                        : 120.0,
                    20, 1500, number, plates});
    list.push_back({"bodyWidth_mm", "Body width", "mm", many ? 84.0 : 42.0, 12, 800, number, plates});
    list.push_back({"mainThickness_mm", "Main plate", "mm", 2, 0.3, 20, number, plates});
    list.push_back({"secondPlate", "Second plate on the arms", "", 1, 0, 1, yesNo, plates});
    list.push_back({"secondThickness_mm", "Second plate", "mm", 2, 0.3, 20, number, plates});
    list.push_back({"topPlate", "Top plate on standoffs", "", 1, 0, 1, yesNo, plates});
    list.push_back({"topThickness_mm", "Top plate", "mm", 2, 0.3, 20, number, plates});
    list.push_back({"standoffHeight_mm", "Standoffs", "mm", 25, 3, 300, number, plates});
    list.push_back({"standoffs", "Standoffs: 4, 6 or 8", "", 4, 4, 8, whole, plates});
    list.push_back({"cleanPlate", "Clean plate on bobbins", "", 0, 0, 1, yesNo, plates});
    list.push_back({"bobbinHeight_mm", "Bobbins", "mm", 8, 2, 60, number, plates});
    list.push_back({"stoppers", "Stoppers beside the bobbins", "", 1, 0, 1, yesNo, plates});

    list.push_back({"stackPattern_mm", "Stack pattern", "mm", 30.5, 10, 100, number, stack});
    list.push_back({"stackHole_mm", "Stack hole", "mm", 3.2, 1, 8, number, stack});
    list.push_back({"cameraCage", "Camera cage at the nose", "", 1, 0, 1, yesNo, extras});
    list.push_back({"screws", "Draw the frame's own screws", "", 1, 0, 1, yesNo, extras});
    // Hanging blades are no feet.
    const bool hanging = kind == LayoutKind::coaxialY6 || kind == LayoutKind::coaxialX8;
    list.push_back({"footHeight_mm", "Landing feet, 0: none", "mm", hanging ? 60.0 : 0.0, 0, 500, number, extras});
    return list;
}

} // namespace waxis
