#include "core/kit/holding.h"

#include "core/base/units.h"
#include "core/build/chain.h"
#include "core/catalog/fastener_types.h"
#include "core/fasteners/screw.h"
#include "core/geometry/hole_pattern.h"
#include "core/kit/strap_girth.h"
#include "core/stack/frame_screws.h"
#include "core/stack/motor_screws.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

/// Whether a placed part of this type can be what holds another by that method. A nut or spacer on a part holds another
/// thing; so does a fastener of which nobody said that it is a screw (core/stack/motor_screws takes it the same way).
bool canStandFor(const PartType &type, FasteningMethod method) {
    if (type.kind == PartKind::fastener && method == FasteningMethod::screws)
        return type.fastener && type.fastener->form == FastenerForm::screw;
    return holdsOthers(type.kind) || type.kind == PartKind::pad;
}

/// Ids of what is placed, fastened to the part or it to them, and holds it.
std::vector<std::string> drawnFor(const Build &build, const Part &part, FasteningMethod method) {
    std::vector<std::string> drawn;
    const auto &own = part.fastening.onto;
    for (const auto &other : build.parts) {
        const auto &onto = other.fastening.onto;
        const bool joined = &other != &part && (std::find(onto.begin(), onto.end(), part.id) != onto.end() ||
                                                std::find(own.begin(), own.end(), other.id) != own.end());
        const PartType *type = joined ? typeOf(build, other) : nullptr;
        if (type && canStandFor(*type, method)) drawn.push_back(other.id);
    }
    return drawn;
}

/// Thickness of what a screw goes through beneath the part: its plate or arm, mm; 0 when it sits on other parts.
double beneath_mm(const Build &build, const Part &part) {
    const Frame &frame = *build.frame;
    std::vector<std::string> carriers = part.fastening.onto;
    for (const auto &site : frame.sites)
        if (site.id == part.placement.site) carriers.push_back(site.on);
    double most = 0;
    for (const auto &id : carriers) {
        for (const auto &plate : frame.plates)
            if (plate.id == id) most = std::max(most, plate.thickness_mm);
        for (const auto &arm : frame.arms)
            if (arm.id == id) most = std::max(most, arm.thickness_mm);
    }
    return most;
}

double boardThickness_mm(const PartType &type) {
    for (const auto &solid : type.solids)
        if (solid.role == SolidRole::board) {
            if (const auto *box = std::get_if<Box>(&solid.shape)) return box->fullSize_mm.minCoeff();
            if (const auto *prism = std::get_if<Prism>(&solid.shape)) return prism->thickness_mm;
        }
    return 1.6;
}

/// Area under the part, mm2, from the box round its firm solids.
double footprint_mm2(const PartType &type) {
    Aabb bounds;
    for (const auto &solid : type.solids)
        if (solid.role != SolidRole::soft) bounds.include(boundsOf(solid.shape, solid.X_PartSolid));
    return bounds.empty() ? 0 : bounds.size_mm().x() * bounds.size_mm().y();
}

Hardware screwsOf(const ThreadSize &thread, double length_mm, int pieces, std::string basis) {
    Hardware out;
    // The same words as a placed screw of that size, so that the kit counts them together.
    const auto type = fastenerType({FastenerForm::screw, std::string(thread.name), length_mm}, "steel");
    out.item = type ? type->id : fmt::format("screw-{}-{:g}", thread.name, length_mm);
    out.name = type ? type->name : out.item;
    out.material = "steel";
    out.pieces = pieces;
    out.piece_g = capScrewVolume_mm3(thread, length_mm) * gramsPerCubicMillimetre(7.85); // steel
    out.tolerance_g = out.piece_g * 0.15;
    out.basis = std::move(basis);
    return out;
}

// Common practice, no source: weights of a piece, and of tape and hook-and-loop over the part's footprint.
Hardware foamTape() {
    return {"tape-foam", "Double-sided foam tape, strip", "plastic", 1, 0, 0, "footprint, 1 mm foam with glue"};
}
Hardware hookAndLoop() {
    return {"hook-loop", "Hook-and-loop, pair of strips", "plastic", 1, 0, 0, "footprint, 0.07 g/cm2"};
}
Hardware cableTie() { return {"tie-2.5", "Cable tie, 2.5 mm", "plastic", 2, 0.25, 0.1, "cut off flush"}; }
Hardware strap(double length_mm) {
    const double grams = 0.03 * length_mm; // 20 mm wide
    return {fmt::format("strap-{:g}", length_mm),
            fmt::format("Battery strap, {:g} mm", length_mm),
            "plastic",
            1,
            grams,
            grams / 6,
            "common size"};
}

/// The shortest on sale that goes round and holds.
void strapRound(const Build &build, const Part &part, Holding &out) {
    constexpr double kUsual_mm = 200;
    const auto girth = strapGirth_mm(build, part);
    if (!girth) {
        out.pieces = {strap(kUsual_mm)};
        return;
    }
    for (const double length : kStrapLengths_mm) {
        if (length < *girth + kStrapOverlap_mm) continue;
        out.pieces = {strap(length)};
        out.pieces[0].basis = fmt::format("{:.0f} mm round, {:.0f} mm over itself", *girth, kStrapOverlap_mm);
        return;
    }
    out.unknown = fmt::format("no strap on sale goes round {:.0f} mm", *girth);
}

void motorScrews(const MotorScrews &motor, Holding &out) {
    if (!motor.gripKnown) {
        out.unknown = "what its screws go through is not known";
    } else if (!motor.best_mm) {
        out.unknown = "no length on sale holds without touching its windings";
    } else {
        out.pieces = {
            screwsOf(*motor.thread, *motor.best_mm, motor.pieces,
                     fmt::format("{:.1f} mm arm, {:.1f} mm engaged", motor.grip_mm, *motor.best_mm - motor.grip_mm))};
    }
}

/// Those that it shares with the frame (`out.drawn`) are there already.
void boardScrews(const Build &build, const Part &part, const PartType &type, Holding &out) {
    const int shared = int(out.drawn.size());
    const int own = type.mounting ? int(holeCentres(*type.mounting).size()) - shared : 0;
    if (shared > 0 && own <= 0) return;
    const ThreadSize *thread = nullptr;
    if (type.mounting)
        for (const auto &size : threadSizes())
            if (size.nominal_mm <= type.mounting->holeDiameter_mm + 1e-9) thread = &size;
    const double beneath = beneath_mm(build, part), board = boardThickness_mm(type);
    if (!type.mounting) {
        out.unknown = "it has no pattern of holes";
    } else if (!thread) {
        out.unknown = fmt::format("no screw passes its holes of {:g} mm", type.mounting->holeDiameter_mm);
    } else if (beneath <= 0) {
        out.unknown = "what its screws go through is not known";
    } else if (const auto length = stockLength_mm(beneath + board + thread->nominal_mm)) {
        out.pieces = {
            screwsOf(*thread, *length, own,
                     fmt::format("{:.1f} mm beneath, {:.1f} mm board, one diameter of thread", beneath, board))};
    } else {
        out.unknown = fmt::format("no screw on sale is as long as {:.0f} mm", beneath + board + thread->nominal_mm);
    }
}

/// Ties or a strap round a whole stack hang on its outermost board.
std::optional<FasteningMethod> roundTheStack(const Build &build, const Part &part) {
    const auto place = stackPlaceOf(build, part);
    if (!place || place->layer < 0 || place->stack->hold == StackHold::screws) return std::nullopt;
    for (std::size_t i = std::size_t(place->layer) + 1; i < place->stack->layers.size(); ++i)
        if (place->stack->layers[i].role == LayerRole::board) return std::nullopt;
    if (place->stack->layers[std::size_t(place->layer)].role != LayerRole::board) return std::nullopt;
    return place->stack->hold == StackHold::ties ? FasteningMethod::ties : FasteningMethod::strap;
}

} // namespace

Holding holdingOf(const Build &build, const Part &part, const Practice &practice) {
    Holding out;
    const PartType *type = typeOf(build, part);
    if (!type) return out;
    const auto round = roundTheStack(build, part);
    out.method = round.value_or(part.fastening.method);
    if (part.fastening.pieces == std::optional(0) || holdsOthers(type->kind)) return out;
    if (!round) out.drawn = drawnFor(build, part, out.method);
    if (!out.drawn.empty()) return out;
    switch (out.method) {
    case FasteningMethod::screws:
        for (const auto &screw : build.frame->screws) // the frame's own hold it there
            if (std::find(screw.through.begin(), screw.through.end(), part.id) != screw.through.end())
                out.drawn.push_back(screw.id);
        if (const auto motor = motorScrewsFor(build, part, practice))
            motorScrews(*motor, out);
        else
            boardScrews(build, part, *type, out);
        break;
    case FasteningMethod::tape:
        out.pieces = {foamTape()};
        out.pieces[0].piece_g = footprint_mm2(*type) * 0.9 * gramsPerCubicMillimetre(0.65);
        break;
    case FasteningMethod::hookAndLoop:
        out.pieces = {hookAndLoop()};
        out.pieces[0].piece_g = footprint_mm2(*type) / 100 * 0.07;
        break;
    case FasteningMethod::ties: out.pieces = {cableTie()}; break;
    case FasteningMethod::strap: strapRound(build, part, out); break;
    case FasteningMethod::none:
    case FasteningMethod::stack:
    case FasteningMethod::pressed:
    case FasteningMethod::soldered:
    case FasteningMethod::glue: break;
    }
    for (auto &piece : out.pieces) {
        piece.pieces = part.fastening.pieces.value_or(piece.pieces);
        if (piece.tolerance_g <= 0) piece.tolerance_g = piece.piece_g * 0.3; // cut by eye
    }
    return out;
}

std::vector<FramePiece> frameHardware(const Build &build, const Practice &practice) {
    const Frame &frame = *build.frame;
    std::vector<FramePiece> all;
    std::vector<std::pair<FastenerData, Hardware>> made; // a frame has a handful of sizes
    const auto put = [&](const std::string &member, const std::string &row, const FastenerData &data, const Vec3 &at,
                         std::string basis) {
        auto known = std::find_if(made.begin(), made.end(), [&](const auto &one) { return one.first == data; });
        if (known == made.end()) {
            const auto type = fastenerType(data, "steel");
            if (!type) return;
            Hardware piece;
            piece.item = type->id;
            piece.name = type->name;
            piece.material = materialOf(*type);
            piece.pieces = 1;
            piece.piece_g = type->mass_g.value.value_or(0);
            piece.tolerance_g = type->mass_g.tolerance.value_or(piece.piece_g * 0.1);
            known = made.insert(made.end(), {data, std::move(piece)});
        }
        all.push_back({member, row, known->second, at});
        all.back().piece.basis = std::move(basis);
    };
    const auto reports = frameScrewReports(frame, practice, bracketsOf(build));
    for (std::size_t i = 0; i < frame.screws.size(); ++i) {
        const ScrewColumn &column = reports[i].column;
        const Vec3 head(column.at_mm.x(), column.at_mm.y(), column.headFace_mm), end = column.end_mm();
        for (const auto &data : piecesOf(frame.screws[i], reports[i]))
            put(frame.screws[i].id, frame.screws[i].id, data,
                data.form == FastenerForm::screw ? Vec3((head + end) / 2) : end,
                fmt::format("{:.1f} mm clamped", column.grip_mm));
    }
    for (const auto &bobbin : frame.standoffs) {
        if (bobbin.role != StandoffRole::bobbin) continue;
        for (const double end : {0.0, bobbin.height_mm})
            put(bobbin.id, bobbin.id + "/fastening", {FastenerForm::lockNut, bobbin.thread, 0},
                bobbin.base_mm + Vec3(0, 0, end), "on its stud");
    }
    return all;
}

std::string hardwareName(std::string_view item) {
    for (const auto &simple : {foamTape(), hookAndLoop(), cableTie()})
        if (item == simple.item) return simple.name;
    for (const double length : kStrapLengths_mm)
        if (const Hardware round = strap(length); item == round.item) return round.name;
    for (const auto &thread : threadSizes())
        for (const auto form :
             {FastenerForm::nut, FastenerForm::lockNut, FastenerForm::thinLockNut, FastenerForm::pressNut})
            if (const auto nut = fastenerType({form, std::string(thread.name), 0}, "steel"); nut && nut->id == item)
                return nut->name;
    if (!item.starts_with("screw-")) return {};
    for (const auto &thread : threadSizes())
        for (const auto head : {HeadStyle::button, HeadStyle::countersunk})
            for (const double length : kStockLengths_mm)
                if (const auto screw =
                        fastenerType({FastenerForm::screw, std::string(thread.name), length, head}, "steel");
                    screw && screw->id == item)
                    return screw->name;
    for (const auto &thread : threadSizes())
        for (const double length : kStockLengths_mm)
            if (const Hardware screw = screwsOf(thread, length, 1, {}); item == screw.item) return screw.name;
    return {};
}

} // namespace waxis
