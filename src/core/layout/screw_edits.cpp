#include "core/layout/screw_edits.h"

#include "core/build/build.h"
#include "core/build/frame_screws.h"
#include "core/build/frame_shapes.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

/// What lies over one another at a place, lowest first; a post that has a thread ends the column.
void layDown(const Frame &frame, FrameScrew &screw) {
    struct Layer {
        std::string id;
        double low_mm;
        bool threaded;
    };
    std::vector<Layer> layers;
    const auto take = [&](const auto &list) {
        for (const auto &member : list)
            if (const auto span = uprightOf(frame, member.id, screw.at_mm))
                layers.push_back({member.id, span->low_mm, false});
    };
    take(frame.plates);
    take(frame.arms);
    for (const auto &post : frame.standoffs)
        if (const auto span = uprightOf(frame, post.id, screw.at_mm); span && post.role != StandoffRole::bobbin)
            layers.push_back({post.id, span->low_mm, !isPlain(post)});
    std::stable_sort(layers.begin(), layers.end(), [](const Layer &a, const Layer &b) { return a.low_mm < b.low_mm; });
    if (screw.fromAbove) std::reverse(layers.begin(), layers.end());
    screw.through.clear();
    screw.into.clear();
    for (const auto &layer : layers) {
        if (layer.threaded && screw.through.empty()) continue; // a foot under the first plate
        if (layer.threaded) {
            screw.into = layer.id;
            break;
        }
        screw.through.push_back(layer.id);
    }
}

FrameScrew *find(Frame &frame, const std::string &id) {
    const auto at =
        std::find_if(frame.screws.begin(), frame.screws.end(), [&](const FrameScrew &s) { return s.id == id; });
    return at == frame.screws.end() ? nullptr : &*at;
}

} // namespace

EditResult addMissingScrews(const Build &build) {
    Build next = build;
    auto missing = missingScrews(*build.frame);
    if (missing.empty()) return refuse("The frame lacks no screws that its holes tell of.");
    next.frame.edit([&](Frame &frame) {
        for (auto &screw : missing) {
            screw.id = freshId(next, screw.id); // a part may be called like that
            frame.screws.push_back(std::move(screw));
        }
    });
    return next;
}

EditResult addFrameScrew(const Build &build, const Vec2 &at_mm, std::string *id) {
    if (!at_mm.allFinite()) return refuse("The place is not a finite number.");
    FrameScrew screw;
    screw.id = freshId(build, "screw-1");
    screw.at_mm = at_mm;
    layDown(*build.frame, screw);
    if (screw.through.empty()) return refuse("There is no plate or arm for a screw to hold there.");
    for (const auto &plate : build.frame->plates)
        for (const auto &hole : plate.holes)
            if ((hole.centre_mm - at_mm).norm() < hole.diameter_mm / 2)
                if (const auto fits = screwForHole(hole.diameter_mm, 0.3)) screw.thread = fits->thread->name;
    Build next = build;
    next.frame.edit([&](Frame &frame) { frame.screws.push_back(screw); });
    if (id) *id = screw.id;
    return next;
}

EditResult setFrameScrew(const Build &build, const FrameScrew &wished) {
    Frame frame = *build.frame;
    FrameScrew *now = find(frame, wished.id);
    if (!now) return refuse(fmt::format("There is no screw \"{}\" in this frame.", wished.id));
    const ThreadSize *thread = findThread(wished.thread);
    if (!thread) return refuse(fmt::format("There is no thread \"{}\" in the tables (M1.4 to M5).", wished.thread));
    if (!headOf(*thread, wished.head))
        return refuse(fmt::format("{} {} screws are not made.", wished.thread, headWord(wished.head)));
    if (wished.length_mm && !(*wished.length_mm >= 1 && *wished.length_mm <= 200))
        return refuse("A screw is 1 to 200 mm long.");
    if (!wished.at_mm.allFinite()) return refuse("The place is not a finite number.");
    FrameScrew next = wished;
    if (next.at_mm != now->at_mm || next.fromAbove != now->fromAbove) {
        const auto named = next.through;
        layDown(frame, next);
        // A bracket stays on the screw that is turned round, not on one that goes elsewhere.
        if (next.at_mm == now->at_mm)
            for (const auto &id : named)
                if (findPart(build, id)) next.through.insert(next.through.begin(), id);
    }
    if (next.through.empty()) return refuse("There is no plate or arm for a screw to hold there.");
    *now = next;
    Build changed = build;
    changed.frame = frame;
    return changed;
}

EditResult shareFrameScrew(const Build &build, const std::string &screw, const std::string &part, bool shares) {
    Frame frame = *build.frame;
    FrameScrew *now = find(frame, screw);
    if (!now) return refuse(fmt::format("There is no screw \"{}\" in this frame.", screw));
    if (!findPart(build, part)) return refuse(fmt::format("There is no part \"{}\" in this build.", part));
    std::erase(now->through, part);
    if (shares) now->through.insert(now->through.begin(), part);
    Build next = build;
    next.frame = frame;
    return next;
}

std::vector<std::string> mayShare(const Build &build, const FrameScrew &screw) {
    std::vector<std::string> ids;
    constexpr double kInLine_mm = 0.6; // a hole that far off still takes the screw
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || part.fastening.method != FasteningMethod::screws) continue;
        const bool named = std::find(screw.through.begin(), screw.through.end(), part.id) != screw.through.end();
        bool inLine = false;
        if (type->mounting) {
            const Pose pose = framePose(build, part);
            for (const auto &hole : holeCentres(*type->mounting))
                inLine |= ((pose * Vec3(hole.x(), hole.y(), 0)).head<2>() - screw.at_mm).norm() <= kInLine_mm;
        } else { // no pattern: what is screwed to a member of the screw and stands over it
            const Aabb box = partBounds(build, part);
            const auto &onto = part.fastening.onto;
            const bool on = std::any_of(onto.begin(), onto.end(), [&](const auto &id) {
                return std::find(screw.through.begin(), screw.through.end(), id) != screw.through.end();
            });
            inLine = on && screw.at_mm.x() >= box.min_mm.x() && screw.at_mm.x() <= box.max_mm.x() &&
                     screw.at_mm.y() >= box.min_mm.y() && screw.at_mm.y() <= box.max_mm.y();
        }
        if (named || inLine) ids.push_back(part.id);
    }
    return ids;
}

std::vector<std::string> likeScrews(const Frame &frame, const FrameScrew &screw) {
    std::vector<std::string> ids;
    for (const auto &one : frame.screws)
        if (one.thread == screw.thread && one.head == screw.head && one.nut == screw.nut &&
            one.fromAbove == screw.fromAbove && one.length_mm == screw.length_mm &&
            one.into.empty() == screw.into.empty() && one.through.size() == screw.through.size())
            ids.push_back(one.id);
    return ids;
}

} // namespace waxis
