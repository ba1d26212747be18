#include "core/stack/report.h"

#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/catalog/fastener_types.h"
#include "core/clearance/convex_distance.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

/// One thing in the column, by height: a board, the frame, a plate above.
struct Level {
    std::string id;
    int layer = -1;
    bool plate = false;
    std::vector<FieldPiece> pieces;
    double from_mm = 0; ///< of the board or plate itself, to put them in order
};

class Reporter {
public:
    Reporter(const Build &build, const Stack &stack, const Practice &practice, StackReport &out)
        : build_(build), stack_(stack), practice_(practice), out_(out), X_BaseFrame_(out.chain.X_FrameBase.inverse()),
          seats_(stackSeats(build)) {}

    void run() {
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

private:
    const Build &build_;
    const Stack &stack_;
    const Practice &practice_;
    StackReport &out_;
    Pose X_BaseFrame_;
    StackSeats seats_;
    std::vector<Level> levels_;        ///< boards and the frame, inwards to outwards
    std::vector<Level> plates_;        ///< plates beyond the frame layer, nearest first
    std::vector<Level> frame_;         ///< all plates and arms
    std::vector<FieldPiece> hardware_; ///< everything at the holes
    std::vector<std::string> hardwareOf_;

    const StackLayer &layer(int i) const { return stack_.layers[std::size_t(i)]; }
    const LayerSpan &span(int i) const { return out_.chain.spans[std::size_t(i)]; }
    int count() const { return int(stack_.layers.size()); }

    const std::optional<StackSeat> &seatOf(const Part &part) const {
        return seats_[std::size_t(&part - build_.parts.data())];
    }
    std::vector<FieldPiece> piecesOf(const Part &part, bool board) const {
        return fieldOf(build_, part, X_BaseFrame_, practice_, seatOf(part), board);
    }

    /// Plates and arms of the frame; arms only where they reach under the holes.
    void gatherFrame() {
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

    void gatherLevels() {
        gatherFrame();
        for (int i = 0; i < count(); ++i) {
            const StackLayer &l = layer(i);
            if (l.role == LayerRole::frame) {
                // The carrying plate, or the adapter that the stack stands on.
                Level level{carrierOf(build_, stack_), i, true, {}, span(i).from_mm};
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
                         [](const Level &a, const Level &b) { return a.from_mm < b.from_mm; });
    }

    void describeLayers() {
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

    /// Height of what only lies between two layers, by role.
    double lying_mm(int from, int to, LayerRole role) const {
        double sum = 0;
        for (int i = std::min(from, to) + 1; i < std::max(from, to); ++i)
            if (layer(i).role == role) sum += freeHeight_mm(build_, layer(i));
        return sum;
    }

    StackGap gapOf(const Level &lower, const Level &upper, const FieldGap &gap) const {
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
        out.sheets_mm = lying_mm(lower.layer, to, LayerRole::sheet);
        return out;
    }

    void findGaps() {
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
                if (neighbours && boardsMeet && touches(levels_[i].layer, levels_[j].layer)) continue;
                out_.gaps.push_back(gapOf(levels_[i], levels_[j], *gap));
            }
        std::stable_partition(out_.gaps.begin(), out_.gaps.end(), [&](const StackGap &g) { return isNext(g); });
    }

    bool isNext(const StackGap &gap) const {
        for (std::size_t i = 0; i + 1 < levels_.size(); ++i)
            if (levels_[i].id == gap.below && levels_[i + 1].id == gap.above) return true;
        return false;
    }

    /// No layer of any height between the two.
    bool touches(int a, int b) const { return std::abs(span(b).from_mm - span(a).to_mm) < 1e-6; }

    // -- screws --

    const ThreadSize *threadThatPasses() const {
        const HolePattern *pattern = patternOf(build_, stack_);
        double hole = pattern ? pattern->holeDiameter_mm : 0;
        for (const auto &l : stack_.layers)
            if (l.role == LayerRole::board || l.role == LayerRole::adapter)
                if (const PartType *type = layerType(build_, l); type && type->mounting)
                    hole = std::min(hole, type->mounting->holeDiameter_mm);
        const ThreadSize *best = nullptr;
        for (const auto &thread : threadSizes())
            if (thread.nominal_mm <= hole + 1e-9) best = &thread;
        return best;
    }

    std::string materialOfFrame() const {
        const std::string id = throughOf(build_, stack_);
        for (const auto &plate : build_.frame->plates)
            if (plate.id == id) return plate.material;
        for (const auto &arm : build_.frame->arms)
            if (arm.id == id) return arm.material;
        return "carbon";
    }

    void chooseTheScrew() {
        ScrewReport &screw = out_.screw;
        screw.wanted = stack_.hold == StackHold::screws && count() > 1;
        if (const Part *part = stack_.screws.empty() ? nullptr : findPart(build_, stack_.screws.front()))
            if (const PartType *type = typeOf(build_, *part)) {
                screw.placed = type->fastener;
                if (const auto stuff = materialOf(*type); !stuff.empty()) screw.material = stuff;
                screw.piece_g = part->mass_g.known() ? *part->mass_g.value : type->mass_g.value.value_or(0);
            }
        ScrewTask &task = screw.task;
        task.thread = screw.placed ? findThread(screw.placed->thread) : threadThatPasses();
        if (!screw.wanted || !task.thread) return;
        const StackChain &chain = out_.chain;
        const bool outside = stack_.headsOutside;
        int end = -1;
        const int seat = frameLayer(stack_);
        for (int i = 0; i < count(); ++i) {
            const bool farSide = outside ? i < seat : i > seat;
            const bool wanted = stack_.end == ScrewEnd::nut      ? layer(i).role == LayerRole::nut
                                : stack_.end == ScrewEnd::spacer ? isThreaded(i)
                                                                 : false;
            if (wanted && farSide && (end < 0 || !outside)) end = i;
        }
        if (stack_.end == ScrewEnd::frame) {
            end = seat;
            task.nut = false;
            task.grip_mm = chain.top_mm;
            task.depth_mm = stack_.threadDepth_mm.value.value_or(chain.frame_mm);
            task.blind = stack_.threadDepth_mm.known();
            task.engagement_mm = engagement_mm(*task.thread, materialOfFrame(), practice_);
        } else if (end >= 0) {
            task.nut = stack_.end == ScrewEnd::nut;
            task.grip_mm = outside ? chain.top_mm - span(end).to_mm : span(end).from_mm - chain.bottom_mm;
            const double height = span(end).to_mm - span(end).from_mm;
            task.nut_mm = height;
            if (!task.nut) {
                const PartType *type = layerType(build_, layer(end));
                const double bore = type && type->fastener ? type->fastener->bore_mm : 0;
                task.depth_mm = stack_.threadDepth_mm.value.value_or(bore > 0 ? bore : height);
                task.blind = stack_.threadDepth_mm.known() || bore > 0;
                task.engagement_mm = engagement_mm(*task.thread, type ? materialOf(*type) : "nylon", practice_);
            }
        } else {
            // Nothing to turn into yet: as for a plain nut on top of everything.
            screw.endMissing = true;
            task.nut_mm = task.thread->nutHeight_mm;
            task.grip_mm = chain.top_mm - chain.bottom_mm;
        }
        markHeld(end);
        findRoom(end);
        double squares = 0;
        for (int i = 0; i < count(); ++i)
            if (out_.layers[std::size_t(i)].held && !liesOnly(layer(i).role))
                squares += std::pow(out_.layers[std::size_t(i)].tolerance_mm, 2);
        screw.tolerance_mm = std::sqrt(squares);
        screw.choice = chooseLength(task, practice_);
        if (screw.placed) {
            screw.now = judgeScrew(task, screw.placed->length_mm, practice_);
        }
    }

    bool isThreaded(int i) const {
        const PartType *type = layer(i).role == LayerRole::spacer ? layerType(build_, layer(i)) : nullptr;
        return type && type->fastener && type->fastener->form == FastenerForm::standoff;
    }

    void markHeld(int end) {
        if (end < 0) return;
        for (int i = 0; i < count(); ++i) {
            const bool beyond = stack_.headsOutside ? i < end : i > end;
            out_.layers[std::size_t(i)].held = !beyond || liesOnly(layer(i).role);
        }
    }

    /// What stands over the holes beyond the end of the thread.
    void findRoom(int end) {
        const HolePattern *pattern = patternOf(build_, stack_);
        if (!pattern) return;
        ScrewTask &task = out_.screw.task;
        const bool up = !stack_.headsOutside;
        const double from = end < 0 ? (up ? out_.chain.top_mm : out_.chain.bottom_mm) + (up ? 1 : -1) * task.nut_mm
                            : up    ? span(end).to_mm
                                    : span(end).from_mm;
        auto look = [&](const Level &level) {
            for (const auto &piece : level.pieces)
                for (const auto &hole : holeCentres(*pattern)) {
                    if (!contains(piece.footprint, hole)) continue;
                    const double room = up ? piece.from_mm - from : from - piece.to_mm;
                    if (room < -1e-6 || (task.room_mm && room >= *task.room_mm)) continue;
                    task.room_mm = std::max(room, 0.0);
                    task.meets = level.id;
                }
        };
        for (const auto &level : levels_)
            if (up ? level.layer > end : level.layer < end && level.layer >= 0) look(level);
        for (const auto &member : frame_) look(member); // what is clamped lies on the other side of `from`
    }

    // -- insulation --

    void findBare() {
        const Frame &frame = *build_.frame;
        // Over the carbon: each board against the plates under it, nearest bare piece.
        const auto seat = std::find_if(levels_.begin(), levels_.end(),
                                       [&](const Level &l) { return layer(l.layer).role == LayerRole::frame; });
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
                if (!solid.bare || std::holds_alternative<Mesh>(solid.shape) ||
                    std::holds_alternative<Prism>(solid.shape))
                    continue;
                const Pose X_FrameSolid = pose * solid.X_PartSolid;
                const Aabb box = boundsOf(solid.shape, X_FrameSolid);
                const clearance::Convex bare(solid.shape, X_FrameSolid);
                for (const auto &metal : metals) {
                    if (boxGap(box, boundsOf(metal.shape, metal.pose)) > wanted + 2) continue;
                    const auto gap = clearance::convexDistance(bare, clearance::Convex(metal.shape, metal.pose));
                    if (!worst || gap.distance_mm < worst->air_mm)
                        worst =
                            BareReport{part->id, metal.part, gap.distance_mm, false, true, "bare metal", gap.onA_mm};
                }
            }
            if (worst) out_.bare.push_back(*worst);
        }
    }

    // -- dampers and male ends --

    void findDampersAndStuds() {
        for (int i = 0; i < count(); ++i) {
            const StackLayer &l = layer(i);
            if (l.role == LayerRole::damper)
                out_.dampers.push_back({i, freeHeight_mm(build_, l), layerHeight_mm(build_, l), l.squeeze});
            const PartType *type = l.role == LayerRole::spacer ? layerType(build_, l) : nullptr;
            if (!type || !type->fastener || type->fastener->stud_mm <= 0) continue;
            StudReport stud{i, type->fastener->stud_mm};
            const ThreadSize *thread = findThread(type->fastener->thread);
            // Inwards through what it clamps to the next thread.
            for (int k = i - 1; k >= 0; --k) {
                const StackLayer &below = layer(k);
                const PartType *other = layerType(build_, below);
                const bool threaded = isThreaded(k) || below.role == LayerRole::nut;
                const bool tapped = below.role == LayerRole::frame && stack_.threadDepth_mm.known();
                if (!threaded && !tapped) {
                    stud.clamped_mm += span(k).to_mm - span(k).from_mm;
                    continue;
                }
                const double height = span(k).to_mm - span(k).from_mm;
                stud.depth_mm = tapped ? *stack_.threadDepth_mm.value
                                : other && other->fastener && other->fastener->bore_mm > 0 ? other->fastener->bore_mm
                                                                                           : height;
                const double in = stud.stud_mm - stud.clamped_mm;
                const bool open = below.role == LayerRole::nut; // a nut has no bottom
                stud.shim_mm = open ? 0 : std::max(0.0, in - stud.depth_mm);
                stud.engagement_mm = std::clamp(in, 0.0, stud.depth_mm);
                if (thread)
                    stud.least_mm = engagement_mm(*thread,
                                                  tapped  ? materialOfFrame()
                                                  : other ? materialOf(*other)
                                                          : std::string("nylon"),
                                                  practice_);
                out_.studs.push_back(stud);
                break;
            }
        }
    }

    void findHidden() {
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
                if (towardsFrame && inner < levels_.size())
                    out_.hidden.push_back({part->id, port.id, levels_[inner].id});
            }
        }
    }

    // -- does it close --

    int layerOfPart(const std::string &id) const { // -1: a screw
        for (int i = 0; i < count(); ++i)
            if (std::find(layer(i).parts.begin(), layer(i).parts.end(), id) != layer(i).parts.end()) return i;
        return -1;
    }

    void findClosing() {
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
        const Level *plate = nullptr;
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

    void chainOfTolerances(const Level &plate, int reached, double top_mm) {
        auto &chain = out_.contributions;
        chain.push_back(
            {"room to " + displayName(build_, plate.id), -1, plate.from_mm, 1, practice_[Limit::standoffTolerance]});
        double height = 0;
        if (reached < 0) { // a screw's tip: from the heads up
            height = top_mm;
            chain.push_back({"screw", -1, top_mm, -1,
                             std::hypot(practice_[Limit::partTolerance], practice_[Limit::plateTolerance])});
        } else
            for (int i = frameLayer(stack_) + 1; i <= reached; ++i) {
                if (liesOnly(layer(i).role)) continue;
                const double thick = span(i).to_mm - span(i).from_mm;
                height += thick;
                chain.push_back({layerName(i), i, thick, -1, out_.layers[std::size_t(i)].tolerance_mm});
            }
        if (std::abs(top_mm - height) > 1e-9)
            chain.push_back({"what stands on it", -1, top_mm - height, -1, practice_[Limit::partTolerance]});
    }

    std::string layerName(int i) const {
        const StackLayer &l = layer(i);
        if (l.parts.empty()) return l.role == LayerRole::gap ? "air" : "frame";
        if (isHardware(l.role)) {
            const PartType *type = layerType(build_, l);
            return type ? type->name : l.parts.front();
        }
        return displayName(build_, l.parts.front());
    }
};

} // namespace

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
    Reporter(build, stack, practice, report).run();
    return report;
}

std::vector<StackReport> stackReports(const Build &build, const Practice &practice) {
    std::vector<StackReport> reports;
    for (const auto &stack : build.stacks)
        if (auto report = reportOn(build, stack, practice)) reports.push_back(std::move(*report));
    return reports;
}

} // namespace waxis
