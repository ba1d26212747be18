// The layout's elements and conductive plates as a wire-grid model for a method-of-moments program: a NEC input deck,
// and what comes back.
#pragma once

#include "core/base/result.h"
#include "core/radio/antennas.h"

#include <complex>
#include <string>
#include <vector>

namespace waxis {

/// A straight wire of the model, cut into equal segments. Frame axes.
struct DeckWire {
    Vec3 a_mm = Vec3::Zero(), b_mm = Vec3::Zero();
    double radius_mm = 0;
    int segments = 1;
};

struct FieldStudyOptions {
    double f_MHz = 0;        ///< 0: the middle of the sender's channel
    int mostSegments = 2000; ///< the work grows with their cube
    bool plates = true;      ///< false: the elements alone
};

/// What goes in. Elements are half-wave dipoles at the phase centres (0.4741 wavelengths long, 0.001 thick, 21
/// segments, fed in the middle through 73 ohm at both ends); plates are square grids of wires as thick as the mesh over
/// 2 pi (equal areas), arms single wires.
struct FieldDeck {
    double f_MHz = 0, lambda_mm = 0;
    std::string from, to;           ///< parts of the antennas
    std::vector<DeckWire> elements; ///< the sender's first
    std::vector<DeckWire> body;
    double mesh_mm = 0;
    int segments = 0;
    std::vector<std::string> modelled, leftOut; ///< plates and arms by id
    std::vector<std::string> notes;             ///< what the model does not keep: stand-in elements, coarse mesh
    std::string text() const;                   ///< the deck
};

/// Rules of the method that the deck keeps: segments between 0.001 and 0.1 wavelengths long and at least twice as long
/// as their radius; nothing of the body nearer to an element than its own mesh. Errors say which of them cannot be
/// kept.
Result<FieldDeck, std::string> fieldDeck(const Build &build, const RadioUse &sender, const RadioUse &listener,
                                         const FieldStudyOptions &options = {});

/// A grid of wires over a plate, nodes on a square lattice through its middle, holes wider than the mesh left open.
std::vector<DeckWire> gridOver(const Plate &plate, double mesh_mm);

/// What a deck of given wires looks like; elements carry tags 1, 2..., the body the tag after them.
std::string deckText(const std::vector<DeckWire> &elements, const std::vector<DeckWire> &body, double f_MHz,
                     const std::vector<std::string> &comments);

struct PatternSample {
    double theta_deg = 0, phi_deg = 0; ///< from up; from the nose, left positive
    double gain_dBi = 0;
};

/// What comes back.
struct FieldResult {
    double coupling_dB = 0;             ///< between 73 ohm ends; -300 with one element
    std::complex<double> impedance_ohm; ///< of the sender's element in its surroundings
    std::vector<PatternSample> pattern; ///< directive gain of the sender's element, 15 degree steps
    double peak_dBi = 0;
};

/// Reads the program's output. Errors say what is missing.
Result<FieldResult, std::string> readFieldResult(const std::string &output);

/// Rough running time, s, of `segments` on a usual computer: in step with their cube.
double expectedSeconds(int segments);

} // namespace waxis
