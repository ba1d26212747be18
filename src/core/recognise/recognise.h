// From closed loops to plates: outlines, holes, slots, patterns, and what was left out.
#pragma once

#include "core/base/result.h"
#include "core/build/frame.h"
#include "core/recognise/features.h"

#include <map>

namespace waxis {

/// What a layer of the drawing holds.
enum class LayerUse {
    automatic,
    plates, ///< outlines with the holes inside them
    holes,  ///< holes and slots of the plates of other layers
    ignore
};

struct RecogniseOptions {
    double tolerance_mm = 0.05; ///< ends nearer than this meet
    std::map<std::string, LayerUse> layers;
};

struct FoundPlate {
    std::string layer;
    Ring outline_mm;
    double area_mm2 = 0; ///< less holes, slots and windows
    std::vector<FoundHole> holes;
    std::vector<FoundSlot> cutouts; ///< everything that is not round
    std::vector<FoundPattern> patterns;
    std::string text; ///< what is written in it or beside it
};

/// What cannot be cut as it is drawn, in a builder's words, and where.
struct DrawnFault {
    std::size_t plate = 0;
    Vec2 at_mm = Vec2::Zero();
    std::string text;
};

struct Recognition {
    std::vector<FoundPlate> plates; ///< largest first within a layer
    std::vector<DrawnFault> faults;
    std::vector<Skipped> skipped;
    std::map<std::string, LayerUse> layers; ///< as taken
};

/// Loops are nested layer by layer: what stands in nothing is an outline, what stands in it a hole, what stands in a
/// hole a plate of its own again. A layer whose loops are all small and stand inside the outlines of other layers holds
/// their holes. Coordinates stay those of the drawing, in mm.
Recognition recognise(const FlatDrawing &drawing, const RecogniseOptions &options = {});

/// Where the drawing's nose points.
enum class NoseSide { right, up, left, down };

/// What a plate becomes.
enum class PlateRole { main, second, top, clean, arm, other, ignore };

struct PlateChoice {
    PlateRole role = PlateRole::other;
    std::string name;
    double thickness_mm = 2;
    std::string material = "carbon";
    std::optional<double> z_mm;   ///< bottom face; none: from the role
    std::optional<Vec2> shift_mm; ///< in the drawing, onto the main plate; none: by common holes or middles
    double turn_deg = 0;          ///< the found plate is turned by this from how it was drawn, anticlockwise
    bool operator==(const PlateChoice &) const = default;
};

struct DrawingChoices {
    NoseSide nose = NoseSide::right;
    double standoffHeight_mm = 25;
    double armThickness_mm =
        5; ///< of separate arms between main and second plate; 0: the motors stand on the main plate
    double propDiameter_mm = 127;
    double propPlane_mm = 20;
    std::vector<PlateChoice> plates; ///< one per found plate
};

/// A first guess for a person to correct: roles by layer names and by what the plates hold; thicknesses of common
/// practice; the propeller as large as the other motors (6 mm between tips) and the plates beside it (5 mm) allow.
/// Names and thicknesses that are written in the drawing win ("Top plate 2 mm", "t=2.5").
DrawingChoices guessChoices(const Recognition &found);

/// After the layers were read otherwise: what somebody corrected before (roles, thicknesses, slots, patterns, threads,
/// propellers) is carried over to the plates that are still there.
void keepCorrections(const Recognition &before, const DrawingChoices &corrected, Recognition &now,
                     DrawingChoices &choices);

/// The frame that the choices make of the plates. Plates that lie on one another in the drawing keep their places;
/// those drawn beside one another are moved so that their stack patterns (else their middles) meet. Motor circles
/// become motor mounts, stack squares and slots mounting sites, pass-throughs pass-throughs. The datum goes to the
/// centroid of the motors, else to the main plate's stack pattern, else to its middle. Errors: no plate chosen, or an
/// outline that cannot be cut.
Result<Frame, std::string> frameFromDrawing(const Recognition &found, const DrawingChoices &choices);

} // namespace waxis
