// The section of a stack's report on its screws, and on dampers and male ends.
#include "core/stack/reporter.h"

#include "core/build/chain.h"
#include "core/catalog/fastener_types.h"

#include <algorithm>
#include <cmath>

namespace waxis {

const ThreadSize *StackReporter::threadThatPasses() const {
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

std::string StackReporter::materialOfFrame() const {
    const std::string id = throughOf(build_, stack_);
    for (const auto &plate : build_.frame->plates)
        if (plate.id == id) return plate.material;
    for (const auto &arm : build_.frame->arms)
        if (arm.id == id) return arm.material;
    return "carbon";
}

void StackReporter::chooseTheScrew() {
    ScrewReport &screw = out_.screw;
    screw.wanted = stack_.hold == StackHold::screws && count() > 1;
    if (const Part *part = stack_.screws.empty() ? nullptr : findPart(build_, stack_.screws.front()))
        if (const PartType *type = typeOf(build_, *part)) {
            screw.placed = type->fastener;
            if (screw.placed) screw.placed->length_mm = std::max(0.0, screw.placed->length_mm - stack_.cut_mm);
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

double cutStudTo_mm(const StudReport &stud) {
    const double left = std::floor((stud.stud_mm - stud.shim_mm) * 2 + 1e-9) / 2;
    return left - stud.clamped_mm >= stud.least_mm - 1e-9 && left < stud.stud_mm ? left : 0;
}

bool StackReporter::isThreaded(int i) const {
    const PartType *type = layer(i).role == LayerRole::spacer ? layerType(build_, layer(i)) : nullptr;
    return type && type->fastener && type->fastener->form == FastenerForm::standoff;
}

void StackReporter::markHeld(int end) {
    if (end < 0) return;
    for (int i = 0; i < count(); ++i) {
        const bool beyond = stack_.headsOutside ? i < end : i > end;
        out_.layers[std::size_t(i)].held = !beyond || liesOnly(layer(i).role);
    }
}

void StackReporter::findRoom(int end) {
    const HolePattern *pattern = patternOf(build_, stack_);
    if (!pattern) return;
    ScrewTask &task = out_.screw.task;
    const bool up = !stack_.headsOutside;
    const double from = end < 0 ? (up ? out_.chain.top_mm : out_.chain.bottom_mm) + (up ? 1 : -1) * task.nut_mm
                        : up    ? span(end).to_mm
                                : span(end).from_mm;
    auto look = [&](const StackLevel &level) {
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

void StackReporter::findDampersAndStuds() {
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
            stud.depth_mm = tapped                                                     ? *stack_.threadDepth_mm.value
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

} // namespace waxis
