#include "core/stack/report.h"

#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/catalog/fastener_types.h"
#include "core/clearance/convex_distance.h"
#include "core/stack/reporter.h"

#include <algorithm>
#include <cmath>

namespace waxis {

void StackReporter::run() {
    gatherLevels();
    describeLayers();
    findGaps();
    chooseTheScrew();
    findBare();
    findDampersAndStuds();
    findHidden();
    findClosing();
    out_.harnesses = harnessesOf(build_, stack_);
}

const std::optional<StackSeat> &StackReporter::seatOf(const Part &part) const {
    return seats_[std::size_t(&part - build_.parts.data())];
}

std::vector<FieldPiece> StackReporter::piecesOf(const Part &part, bool board) const {
    return fieldOf(build_, part, X_BaseFrame_, practice_, seatOf(part), board);
}

void StackReporter::gatherFrame() {
    const Frame &frame = *build_.frame;
    const HolePattern *pattern = patternOf(build_, stack_);
    const double reach = pattern ? pattern->size_mm / 2 + 5 : 0;
    for (const auto &arm : frame.arms) {
        const Aabb box = boundsOf(armShape(arm), X_BaseFrame_ * armPose(arm));
        if (box.min_mm.head<2>().maxCoeff() < reach && box.max_mm.head<2>().minCoeff() > -reach)
            frame_.push_back({arm.id, -1, true, {fieldOf(arm, frame, X_BaseFrame_)}, box.min_mm.z()});
    }
    for (const auto &plate : frame.plates) {
        FieldPiece piece = fieldOf(plate, frame, X_BaseFrame_);
        const double from = piece.from_mm;
        frame_.push_back({plate.id, -1, true, {std::move(piece)}, from});
    }
}

void StackReporter::gatherLevels() {
    gatherFrame();
    for (int i = 0; i < count(); ++i) {
        const StackLayer &l = layer(i);
        if (l.role == LayerRole::frame) {
            // The carrying plate, or the adapter that the stack stands on.
            StackLevel level{carrierOf(build_, stack_), i, true, {}, span(i).from_mm};
            for (const auto &member : frame_) {
                const FieldPiece &piece = member.pieces.front();
                const bool within = piece.to_mm < 0.01 && piece.from_mm > span(i).from_mm - 0.01;
                if (within && piece.what == "plate") level.pieces.push_back(piece);
            }
            if (const Part *adapter = findPart(build_, stack_.on)) {
                level.id = adapter->id;
                level.plate = false;
                level.pieces = piecesOf(*adapter, false);
            }
            levels_.push_back(std::move(level));
            continue;
        }
        for (const auto &id : l.parts) {
            const Part *part = findPart(build_, id);
            if (!part) continue;
            auto pieces = piecesOf(*part, l.role == LayerRole::board);
            if (isHardware(l.role)) {
                for (auto &piece : pieces) {
                    hardware_.push_back(std::move(piece));
                    hardwareOf_.push_back(id);
                }
            } else
                levels_.push_back({id, i, false, std::move(pieces), span(i).from_mm});
        }
    }
    for (const auto &id : stack_.screws)
        if (const Part *part = findPart(build_, id))
            for (auto &piece : piecesOf(*part, false)) {
                hardware_.push_back(std::move(piece));
                hardwareOf_.push_back(id);
            }
    for (const auto &member : frame_)
        if (member.from_mm > 0.01 && member.pieces.front().what == "plate") plates_.push_back(member);
    std::stable_sort(plates_.begin(), plates_.end(),
                     [](const StackLevel &a, const StackLevel &b) { return a.from_mm < b.from_mm; });
}

void StackReporter::describeLayers() {
    out_.layers.resize(stack_.layers.size());
    for (int i = 0; i < count(); ++i) {
        LayerReport &report = out_.layers[std::size_t(i)];
        report.free_mm = layer(i).role == LayerRole::frame ? out_.chain.frame_mm : freeHeight_mm(build_, layer(i));
        report.tolerance_mm = layerTolerance_mm(build_, layer(i), practice_);
    }
    for (const auto &level : levels_) {
        if (level.plate || layer(level.layer).role == LayerRole::frame) continue;
        LayerReport &report = out_.layers[std::size_t(level.layer)];
        for (const auto &piece : level.pieces) {
            report.standsUp_mm = std::max(report.standsUp_mm, piece.to_mm - span(level.layer).to_mm);
            report.hangsDown_mm = std::max(report.hangsDown_mm, span(level.layer).from_mm - piece.from_mm);
        }
    }
}

double StackReporter::lying_mm(int from, int to, LayerRole role) const {
    double sum = 0;
    for (int i = std::min(from, to) + 1; i < std::max(from, to); ++i)
        if (layer(i).role == role) sum += freeHeight_mm(build_, layer(i));
    return sum;
}

bool StackReporter::stuckFlat(int from, int to) const {
    bool any = false;
    for (int i = std::min(from, to) + 1; i < std::max(from, to); ++i) {
        if (!sheetCarries(stack_, i)) return false;
        any = true;
    }
    return any;
}

StackGap StackReporter::gapOf(const StackLevel &lower, const StackLevel &upper, const FieldGap &gap) const {
    StackGap out;
    out.below = lower.id;
    out.above = upper.id;
    out.gap_mm = gap.gap_mm;
    out.lower = lower.pieces[gap.lower];
    out.upper = upper.pieces[gap.upper];
    out.where = gap.where;
    out.toPlate = lower.plate || upper.plate;
    const int to = upper.layer < 0 ? count() : upper.layer;
    out.wires_mm = lying_mm(lower.layer, to, LayerRole::wires);
    // What a board is stuck flat on gives way to what hangs into it.
    if (upper.layer < 0 || !stuckFlat(lower.layer, upper.layer))
        out.sheets_mm = lying_mm(lower.layer, to, LayerRole::sheet);
    return out;
}

void StackReporter::findGaps() {
    for (std::size_t i = 0; i < levels_.size(); ++i)
        for (std::size_t j = i + 1; j < levels_.size(); ++j) {
            // Boards that lie right on one another, or on the plate, may touch there: what stands out is the
            // matter.
            auto gap = smallestGap(levels_[i].pieces, levels_[j].pieces);
            if (!gap) continue;
            const bool neighbours = j == i + 1;
            if (!neighbours && gap->gap_mm >= practice_[Limit::stackAir]) continue;
            const bool boardsMeet = (levels_[i].pieces[gap->lower].board || levels_[i].plate) &&
                                    (levels_[j].pieces[gap->upper].board || levels_[j].plate);
            if (neighbours && boardsMeet &&
                (touches(levels_[i].layer, levels_[j].layer) || stuckFlat(levels_[i].layer, levels_[j].layer)))
                continue;
            out_.gaps.push_back(gapOf(levels_[i], levels_[j], *gap));
        }
    std::stable_partition(out_.gaps.begin(), out_.gaps.end(), [&](const StackGap &g) { return isNext(g); });
}

bool StackReporter::isNext(const StackGap &gap) const {
    for (std::size_t i = 0; i + 1 < levels_.size(); ++i)
        if (levels_[i].id == gap.below && levels_[i + 1].id == gap.above) return true;
    return false;
}

void StackReporter::findBare() {
    const Frame &frame = *build_.frame;
    // Over the carbon: each board against the plates under it, nearest bare piece.
    const auto seat = std::find_if(levels_.begin(), levels_.end(),
                                   [&](const StackLevel &l) { return layer(l.layer).role == LayerRole::frame; });
    if (seat != levels_.end() && seat->plate)
        for (auto level = levels_.begin(); level != levels_.end(); ++level) {
            if (level == seat || layer(level->layer).role != LayerRole::board) continue;
            if (std::abs(level - seat) != 1) continue; // only the board next to the plate faces it
            const bool over = level > seat;
            std::vector<FieldPiece> bare, plates;
            for (const auto &piece : level->pieces)
                if (piece.bare) bare.push_back(piece);
            for (const auto &piece : seat->pieces)
                if (piece.conductive) plates.push_back(piece);
            const auto gap = over ? smallestGap(plates, bare) : smallestGap(bare, plates);
            if (!gap) continue;
            const FieldPiece &piece = bare[over ? gap->upper : gap->lower];
            const double sheet = lying_mm(seat->layer, level->layer, LayerRole::sheet);
            Vec2 middle = Vec2::Zero();
            for (const auto &p : gap->where) middle += p / double(gap->where.size());
            out_.bare.push_back(
                {level->id, seat->id, gap->gap_mm - sheet, sheet > 0, false, piece.what,
                 out_.chain.X_FrameBase * Vec3(middle.x(), middle.y(), over ? piece.from_mm : piece.to_mm)});
        }
    // By screws, nuts and standoffs of metal.
    struct Metal {
        std::string part;
        Shape shape;
        Pose pose;
    };
    std::vector<Metal> metals;
    auto takeMetal = [&](const std::string &id) {
        const Part *part = findPart(build_, id);
        if (!part) return;
        const PartType *type = typeOf(build_, *part);
        if (!type) return;
        const Pose pose = framePoseAt(build_, *part, seatOf(*part));
        for (const auto &solid : solidsAt(*type, seatOf(*part))) {
            if (!conducts(solid.material, frame.materials)) continue;
            Shape shape = solid.shape;
            if (auto *prism = std::get_if<Prism>(&shape)) prism->polygon.holes.clear(); // a nut from outside
            if (!std::holds_alternative<Mesh>(shape)) metals.push_back({id, shape, pose * solid.X_PartSolid});
        }
    };
    for (const auto &id : stack_.screws) takeMetal(id);
    for (const auto &l : stack_.layers)
        if (isHardware(l.role))
            for (const auto &id : l.parts) takeMetal(id);
    const double wanted = practice_[Limit::hardwareBareGap];
    for (const auto &l : stack_.layers) {
        if (l.role != LayerRole::board) continue;
        const Part *part = findPart(build_, l.parts.front());
        if (!part) continue;
        const PartType *type = typeOf(build_, *part);
        if (!type) continue;
        const Pose pose = framePoseAt(build_, *part, seatOf(*part));
        std::optional<BareReport> worst;
        for (const auto &solid : type->solids) {
            if (!solid.bare || std::holds_alternative<Mesh>(solid.shape) || std::holds_alternative<Prism>(solid.shape))
                continue;
            const Pose X_FrameSolid = pose * solid.X_PartSolid;
            const Aabb box = boundsOf(solid.shape, X_FrameSolid);
            const clearance::Convex bare(solid.shape, X_FrameSolid);
            for (const auto &metal : metals) {
                if (boxGap(box, boundsOf(metal.shape, metal.pose)) > wanted + 2) continue;
                const auto gap = clearance::convexDistance(bare, clearance::Convex(metal.shape, metal.pose));
                if (!worst || gap.distance_mm < worst->air_mm)
                    worst = BareReport{part->id, metal.part, gap.distance_mm, false, true, "bare metal", gap.onA_mm};
            }
        }
        if (worst) out_.bare.push_back(*worst);
    }
}

void StackReporter::findHidden() {
    for (std::size_t i = 0; i < levels_.size(); ++i) {
        const Part *part = levels_[i].plate ? nullptr : findPart(build_, levels_[i].id);
        const PartType *type = part ? typeOf(build_, *part) : nullptr;
        if (!type || layer(levels_[i].layer).role != LayerRole::board) continue;
        const Pose X_BasePart = X_BaseFrame_ * framePoseAt(build_, *part, seatOf(*part));
        const LayerSpan &own = span(levels_[i].layer);
        const bool hangs = levels_[i].layer < frameLayer(stack_); // under the plate that carries the stack
        const std::size_t inner = hangs ? i + 1 : i - 1;
        for (const auto &port : type->ports) {
            const bool plugs = port.kind == PortKind::plug || port.kind == PortKind::socket ||
                               port.kind == PortKind::coax || port.kind == PortKind::card;
            if (!plugs) continue;
            const double z = (X_BasePart * port.position_mm).z();
            const bool towardsFrame = hangs ? z > own.to_mm - 1e-6 : z < own.from_mm + 1e-6;
            if (towardsFrame && inner < levels_.size()) out_.hidden.push_back({part->id, port.id, levels_[inner].id});
        }
    }
}

void StackReporter::findClosing() {
    std::vector<FieldPiece> all = hardware_;
    std::vector<std::string> owner = hardwareOf_;
    std::vector<int> layerOf;
    for (const auto &id : hardwareOf_) {
        layerOf.push_back(layerOfPart(id));
    }
    const int seat = frameLayer(stack_);
    for (const auto &level : levels_) {
        if (level.layer <= seat) continue;
        for (const auto &piece : level.pieces) {
            all.push_back(piece);
            owner.push_back(level.id);
            layerOf.push_back(level.layer);
        }
    }
    std::optional<FieldGap> best;
    const StackLevel *plate = nullptr;
    for (const auto &candidate : plates_)
        if (const auto gap = smallestGap(all, candidate.pieces); gap && (!best || gap->gap_mm < best->gap_mm)) {
            best = gap;
            plate = &candidate;
        }
    if (!best) return;
    out_.plateAbove = plate->id;
    out_.plateAbove_mm = plate->from_mm;
    out_.closestOwner = owner[best->lower];
    const int reached = layerOf[best->lower];
    out_.closest.below = out_.closestOwner;
    out_.closest.above = plate->id;
    out_.closest.gap_mm = best->gap_mm;
    out_.closest.lower = all[best->lower];
    out_.closest.upper = plate->pieces[best->upper];
    out_.closest.where = best->where;
    out_.closest.toPlate = true;
    out_.closest.wires_mm = reached >= 0 ? lying_mm(reached, count(), LayerRole::wires) : 0;
    chainOfTolerances(*plate, reached, all[best->lower].to_mm);
    out_.closing = closingSums(out_.contributions);
}

void StackReporter::chainOfTolerances(const StackLevel &plate, int reached, double top_mm) {
    auto &chain = out_.contributions;
    chain.push_back(
        {"room to " + displayName(build_, plate.id), -1, plate.from_mm, 1, practice_[Limit::standoffTolerance]});
    double height = 0;
    if (reached < 0) { // a screw's tip: from the heads up
        height = top_mm;
        chain.push_back(
            {"screw", -1, top_mm, -1, std::hypot(practice_[Limit::partTolerance], practice_[Limit::plateTolerance])});
    } else
        for (int i = frameLayer(stack_) + 1; i <= reached; ++i) {
            if (liesOnly(layer(i).role) && !sheetCarries(stack_, i)) continue;
            const double thick = span(i).to_mm - span(i).from_mm;
            height += thick;
            chain.push_back({layerName(i), i, thick, -1, out_.layers[std::size_t(i)].tolerance_mm});
        }
    if (std::abs(top_mm - height) > 1e-9)
        chain.push_back({"what stands on it", -1, top_mm - height, -1, practice_[Limit::partTolerance]});
}

std::string StackReporter::layerName(int i) const {
    const StackLayer &l = layer(i);
    if (l.parts.empty()) return l.role == LayerRole::gap ? "air" : "frame";
    if (isHardware(l.role)) {
        const PartType *type = layerType(build_, l);
        return type ? type->name : l.parts.front();
    }
    return displayName(build_, l.parts.front());
}

double layerTolerance_mm(const Build &, const StackLayer &layer, const Practice &practice) {
    if (liesOnly(layer.role)) return 0;
    const double squeezed = layer.role == LayerRole::damper ? 1 - layer.squeeze : 1;
    if (layer.height_mm.tolerance) return *layer.height_mm.tolerance * squeezed;
    switch (layer.role) {
    case LayerRole::frame: return practice[Limit::plateTolerance];
    case LayerRole::board:
    case LayerRole::adapter: return practice[Limit::boardTolerance];
    case LayerRole::damper: return practice[Limit::damperTolerance] * squeezed;
    case LayerRole::spacer: return practice[Limit::spacerTolerance];
    case LayerRole::nut:
    case LayerRole::gap: return practice[Limit::partTolerance];
    case LayerRole::washer:
    case LayerRole::shim: return practice[Limit::partTolerance] / 2;
    case LayerRole::wires:
    case LayerRole::sheet: return 0;
    }
    return 0;
}

std::optional<StackReport> reportOn(const Build &build, const Stack &stack, const Practice &practice) {
    const auto chain = chainOf(build, stack);
    if (!chain) return std::nullopt;
    StackReport report;
    report.stack = stack.id;
    report.chain = *chain;
    StackReporter(build, stack, practice, report).run();
    return report;
}

std::vector<StackReport> stackReports(const Build &build, const Practice &practice) {
    std::vector<StackReport> reports;
    for (const auto &stack : build.stacks)
        if (auto report = reportOn(build, stack, practice)) reports.push_back(std::move(*report));
    return reports;
}

const StackReport *reportOf(const std::vector<StackReport> &reports, const std::string &stack) {
    for (const auto &report : reports)
        if (report.stack == stack) return &report;
    return nullptr;
}

} // namespace waxis
