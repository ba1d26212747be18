#include "core/field_study/deck.h"

#include "core/base/units.h"
#include "core/derived/derived.h"
#include "core/geometry/polygon.h"
#include "core/geometry/segment.h"
#include "core/radio/decibel.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <sstream>

namespace waxis {

namespace {

constexpr double kElementLength = 0.4741, kElementRadius = 0.001; // wavelengths: resonant, thin
constexpr int kElementSegments = 21;
constexpr double kEnd_ohm = 73;
constexpr double kFinest = 0.001, kCoarsest = 0.1; // segment length in wavelengths that the method allows
constexpr double kWanted = 1.0 / 14;               // mesh in wavelengths
constexpr double kPatternStep_deg = 15;

int elementCount(const std::vector<DeckWire> &wires) {
    int sum = 0;
    for (const auto &wire : wires) sum += wire.segments;
    return sum;
}

/// Least distance of two wires, by points along one of them.
double apart(const DeckWire &a, const DeckWire &b) {
    double best = 1e9;
    for (int i = 0; i <= 20; ++i)
        best = std::min(best, segmentDistance(a.a_mm + i / 20.0 * (a.b_mm - a.a_mm), b.a_mm, b.b_mm));
    return best;
}

DeckWire elementOf(const AntennaUse &use, double lambda_mm) {
    const Vec3 half = use.axis * (kElementLength / 2 * lambda_mm);
    return {use.centre_mm - half, use.centre_mm + half, kElementRadius * lambda_mm, kElementSegments};
}

} // namespace

std::vector<DeckWire> gridOver(const Plate &plate, double mesh_mm) {
    Vec2 low(1e9, 1e9), high(-1e9, -1e9);
    for (const auto &p : plate.outline_mm) {
        low = low.cwiseMin(p);
        high = high.cwiseMax(p);
    }
    // Whole meshes from edge to edge, so that the grid is as large as the plate.
    const int columns = std::max(1, int(std::lround((high.x() - low.x()) / mesh_mm))),
              rows = std::max(1, int(std::lround((high.y() - low.y()) / mesh_mm)));
    const double dx = (high.x() - low.x()) / columns, dy = (high.y() - low.y()) / rows;
    const Vec2 middle = (low + high) / 2;
    const double z = plate.z_mm + plate.thickness_mm / 2;
    const auto at = [&](int c, int r) { return Vec2(low.x() + c * dx, low.y() + r * dy); };
    const Polygon material{plate.outline_mm, plate.cutouts_mm};
    // A hair inwards: nodes on the outline itself belong to the plate.
    const auto covered = [&](const Vec2 &p) {
        const Vec2 q = middle + (p - middle) * (1 - 1e-6);
        if (!contains(material, q)) return false;
        return std::none_of(plate.holes.begin(), plate.holes.end(), [&](const RoundHole &hole) {
            return hole.diameter_mm > mesh_mm && (hole.centre_mm - q).norm() < hole.diameter_mm / 2;
        });
    };
    std::vector<DeckWire> wires;
    const double radius = mesh_mm / (2 * kPi);
    const auto add = [&](const Vec2 &a, const Vec2 &b) {
        if (covered(a) && covered(b) && covered((a + b) / 2))
            wires.push_back({Vec3(a.x(), a.y(), z), Vec3(b.x(), b.y(), z), radius, 1});
    };
    for (int r = 0; r <= rows; ++r)
        for (int c = 0; c <= columns; ++c) {
            if (c < columns) add(at(c, r), at(c + 1, r));
            if (r < rows) add(at(c, r), at(c, r + 1));
        }
    return wires;
}

std::string deckText(const std::vector<DeckWire> &elements, const std::vector<DeckWire> &body, double f_MHz,
                     const std::vector<std::string> &comments) {
    std::string out;
    for (const auto &line : comments) out += "CM " + line + "\n";
    out += "CE\n";
    int tag = 0;
    const auto card = [&](const DeckWire &wire, int number) {
        const auto m = [](double mm) { return fmt::format("{:.6f}", mm * 1e-3); };
        out += fmt::format("GW {} {} {} {} {} {} {} {} {:.7f}\n", number, wire.segments, m(wire.a_mm.x()),
                           m(wire.a_mm.y()), m(wire.a_mm.z()), m(wire.b_mm.x()), m(wire.b_mm.y()), m(wire.b_mm.z()),
                           wire.radius_mm * 1e-3);
    };
    for (const auto &wire : elements) card(wire, ++tag);
    ++tag;
    for (const auto &wire : body) card(wire, tag);
    out += "GE 0\n";
    out += fmt::format("FR 0 1 0 0 {:.4f} 0\n", f_MHz);
    for (std::size_t e = 0; e < elements.size(); ++e) {
        const int feed = elements[e].segments / 2 + 1;
        out += fmt::format("LD 4 {} {} {} {} 0\n", e + 1, feed, feed, kEnd_ohm);
    }
    out += fmt::format("EX 0 1 {} 0 1.0 0.0\n", elements.empty() ? 1 : elements[0].segments / 2 + 1);
    // Directive gain: what is lost in the ends' resistors is not the pattern's.
    out += fmt::format("RP 0 {} {} 0010 0 0 {} {}\n", int(180 / kPatternStep_deg) + 1, int(360 / kPatternStep_deg),
                       kPatternStep_deg, kPatternStep_deg);
    out += "EN\n";
    return out;
}

std::string FieldDeck::text() const {
    std::vector<std::string> comments{fmt::format("From {} to {} at {:.2f} MHz", from, to, f_MHz),
                                      fmt::format("{} segments, mesh {:.2f} mm, 73 ohm ends", segments, mesh_mm)};
    for (const auto &note : notes) comments.push_back(note);
    return deckText(elements, body, f_MHz, comments);
}

Result<FieldDeck, std::string> fieldDeck(const Build &build, const RadioUse &sender, const RadioUse &listener,
                                         const FieldStudyOptions &options) {
    if (sender.antennas.empty() || listener.antennas.empty()) return Failure{std::string("both ends need an antenna")};
    FieldDeck deck;
    deck.f_MHz = options.f_MHz > 0 ? options.f_MHz : sender.centre_MHz;
    if (!(deck.f_MHz > 0)) return Failure{std::string("the sender has no frequency")};
    deck.lambda_mm = wavelength_mm(deck.f_MHz);
    // The nearest two antennas.
    const AntennaUse *from = &sender.antennas.front(), *to = &listener.antennas.front();
    for (const auto &a : sender.antennas)
        for (const auto &b : listener.antennas)
            if ((a.centre_mm - b.centre_mm).norm() < (from->centre_mm - to->centre_mm).norm()) {
                from = &a;
                to = &b;
            }
    deck.from = from->part;
    deck.to = to->part;
    if (deck.from == deck.to) return Failure{std::string("sender and listener share one antenna")};
    for (const AntennaUse *use : {from, to}) {
        deck.elements.push_back(elementOf(*use, deck.lambda_mm));
        if (!isStraightElement(use->antenna.kind))
            deck.notes.push_back(
                fmt::format("{} is stood in for by a straight element along its axis", displayName(build, use->part)));
        if (deck.f_MHz < use->antenna.low_MHz * 0.85 || deck.f_MHz > use->antenna.high_MHz * 1.15)
            deck.notes.push_back(fmt::format("{} is out of its band: the element is tuned to the sender all the same",
                                             displayName(build, use->part)));
    }
    if (apart(deck.elements[0], deck.elements[1]) < 4 * deck.elements[0].radius_mm)
        return Failure{std::string("the two elements touch")};
    if (options.plates) {
        // Nearest plates first, as many as there is room for.
        struct Piece {
            const Plate *plate = nullptr;
            const Arm *arm = nullptr;
            double distance_mm = 0;
        };
        std::vector<Piece> pieces;
        const Vec3 middle = (from->centre_mm + to->centre_mm) / 2;
        for (const auto &plate : build.frame->plates) {
            if (!conducts(plate.material, build.frame->materials)) continue;
            double nearest = 1e9;
            for (const auto &p : plate.outline_mm)
                nearest = std::min(nearest, (Vec3(p.x(), p.y(), plate.z_mm) - middle).norm());
            pieces.push_back({&plate, nullptr, nearest});
        }
        for (const auto &arm : build.frame->arms)
            if (conducts(arm.material, build.frame->materials))
                pieces.push_back(
                    {nullptr, &arm, std::min((arm.root_mm - middle).norm(), (arm.tip_mm - middle).norm())});
        std::stable_sort(pieces.begin(), pieces.end(),
                         [](const Piece &a, const Piece &b) { return a.distance_mm < b.distance_mm; });
        deck.mesh_mm = kWanted * deck.lambda_mm;
        const auto wiresOf = [&](const Piece &piece, double mesh_mm) {
            if (piece.plate) return gridOver(*piece.plate, mesh_mm);
            const Vec3 drop(0, 0, -piece.arm->thickness_mm / 2);
            const double length = (piece.arm->tip_mm - piece.arm->root_mm).norm();
            // A flat bar is as good a conductor as a round one of a quarter of its width.
            const int segments = std::max(1, int(std::ceil(length / mesh_mm)));
            const double radius = std::min(piece.arm->width_mm / 4, length / segments / 2.5);
            return std::vector<DeckWire>{{piece.arm->root_mm + drop, piece.arm->tip_mm + drop, radius, segments}};
        };
        const auto countAt = [&](double mesh_mm) {
            int sum = 2 * kElementSegments;
            for (const auto &piece : pieces) sum += elementCount(wiresOf(piece, mesh_mm));
            return sum;
        };
        // A coarser mesh, as far as the method allows, before anything is left out.
        while (countAt(deck.mesh_mm) > options.mostSegments && deck.mesh_mm * 1.05 <= kCoarsest * deck.lambda_mm)
            deck.mesh_mm *= 1.05;
        if (deck.mesh_mm > kWanted * deck.lambda_mm * 1.01)
            deck.notes.push_back(fmt::format("mesh of {:.3f} wavelengths: coarse, good to some decibels",
                                             deck.mesh_mm / deck.lambda_mm));
        int segments = 2 * kElementSegments;
        for (const auto &piece : pieces) {
            const std::string id = piece.plate ? piece.plate->id : piece.arm->id;
            const auto wires = wiresOf(piece, deck.mesh_mm);
            double nearest = 1e9;
            for (const auto &element : deck.elements)
                for (const auto &wire : wires) nearest = std::min(nearest, apart(element, wire));
            const double radius = wires.empty() ? 0 : wires.front().radius_mm;
            if (nearest < 2 * radius || segments + elementCount(wires) > options.mostSegments || wires.empty()) {
                deck.leftOut.push_back(id);
                if (nearest < 2 * radius)
                    deck.notes.push_back(fmt::format(
                        "{} is left out: an element passes {:.1f} mm from it, nearer than its mesh can tell",
                        displayName(build, id), nearest));
                continue;
            }
            segments += elementCount(wires);
            deck.body.insert(deck.body.end(), wires.begin(), wires.end());
            deck.modelled.push_back(id);
        }
        if (!deck.leftOut.empty() && deck.modelled.empty())
            deck.notes.push_back("nothing of the frame is in the model");
    }
    deck.segments = elementCount(deck.elements) + elementCount(deck.body);
    for (const auto *wires : {&deck.elements, &deck.body})
        for (const auto &wire : *wires) {
            const double length = (wire.b_mm - wire.a_mm).norm() / wire.segments;
            if (length < kFinest * deck.lambda_mm || length > 1.2 * kCoarsest * deck.lambda_mm)
                return Failure{fmt::format("a segment of {:.3f} wavelengths: the method allows 0.001 to 0.1",
                                           length / deck.lambda_mm)};
            if (length < 2 * wire.radius_mm)
                return Failure{fmt::format("a segment of {:.2f} mm is shorter than twice its radius", length)};
        }
    return deck;
}

Result<FieldResult, std::string> readFieldResult(const std::string &output) {
    FieldResult result;
    result.coupling_dB = -300;
    std::istringstream in(output);
    std::string line;
    enum class Table { none, input, currents, pattern } table = Table::none;
    std::complex<double> sourceCurrent;
    std::vector<std::pair<int, std::complex<double>>> currents; // by tag
    bool input = false;
    while (std::getline(in, line)) {
        const auto has = [&](const char *text) { return line.find(text) != std::string::npos; };
        if (has("ANTENNA INPUT PARAMETERS")) table = Table::input;
        if (has("CURRENTS AND LOCATION")) table = Table::currents;
        if (has("RADIATION PATTERNS")) table = Table::pattern;
        if (has("POWER BUDGET")) table = Table::none;
        if (has("ERROR")) return Failure{"the program says: " + line};
        std::istringstream words(line);
        std::vector<double> n;
        for (double value; words >> value;) n.push_back(value);
        if (table == Table::input && n.size() >= 8 && !input) {
            sourceCurrent = {n[4], n[5]};
            result.impedance_ohm = std::complex<double>(n[6], n[7]) - kEnd_ohm;
            input = true;
        } else if (table == Table::currents && n.size() >= 9) {
            currents.emplace_back(int(n[1]), std::complex<double>(n[6], n[7]));
        } else if (table == Table::pattern && n.size() >= 5) {
            result.pattern.push_back({n[0], n[1], n[4]});
        }
    }
    if (!input) return Failure{std::string("no input parameters in the output: the program did not finish")};
    if (currents.empty()) return Failure{std::string("no currents in the output")};
    std::vector<std::complex<double>> listener;
    for (const auto &[tag, current] : currents)
        if (tag == 2) listener.push_back(current);
    // 1 V behind 73 ohm against what the listener's 73 ohm take: |S21| = 2 R |I2| / V.
    if (listener.size() == std::size_t(kElementSegments))
        result.coupling_dB = 20 * std::log10(std::max(1e-15, 2 * kEnd_ohm * std::abs(listener[kElementSegments / 2])));
    result.peak_dBi = -300;
    for (const auto &sample : result.pattern) result.peak_dBi = std::max(result.peak_dBi, sample.gain_dBi);
    return result;
}

double expectedSeconds(int segments) { return 0.2 + 4e-9 * std::pow(double(segments), 3); }

} // namespace waxis
