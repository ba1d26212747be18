#include "core/build/frame_screws.h"

#include "core/base/by_id.h"
#include "core/base/units.h"
#include "core/build/build.h"
#include "core/build/frame_shapes.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace waxis {

namespace {

constexpr double kTouch_mm = 0.1;  // faces as close as that lie on one another
constexpr double kInLine_mm = 0.5; // a hole or post that far off an axis is still on it

std::optional<Upright> uprightOf(const Plate &plate, const Vec2 &at) {
    if (!contains({plate.outline_mm, {}}, at)) return std::nullopt;
    return Upright{plate.z_mm, plate.z_mm + plate.thickness_mm};
}

std::optional<Upright> uprightOf(const Arm &arm, const Vec2 &at) {
    const Vec3 size = armSize_mm(arm);
    const Vec3 own = armAxes(arm).inverse() * Vec3(at.x(), at.y(), (arm.root_mm.z() + arm.tip_mm.z()) / 2);
    if (std::abs(own.x()) > size.x() / 2 || std::abs(own.y()) > size.y() / 2) return std::nullopt;
    const double share = own.x() / size.x() + 0.5; // from root to tip, along the slope
    const double top = arm.root_mm.z() + share * (arm.tip_mm.z() - arm.root_mm.z());
    return Upright{top - arm.thickness_mm, top};
}

std::optional<Upright> uprightOf(const Standoff &post, const Vec2 &at) {
    if ((post.base_mm.head<2>() - at).norm() > std::max(kInLine_mm, post.diameter_mm / 4)) return std::nullopt;
    return Upright{post.base_mm.z(), post.base_mm.z() + post.height_mm};
}

/// Hole of a plate on the axis, mm; 0: none there.
double holeAt_mm(const Plate &plate, const Vec2 &at) {
    for (const auto &hole : plate.holes)
        if ((hole.centre_mm - at).norm() <= std::max(kInLine_mm, hole.diameter_mm / 4)) return hole.diameter_mm;
    for (const auto &cutout : plate.cutouts_mm)
        if (contains({cutout, {}}, at)) return 1e9;
    return 0;
}

/// Plates and arms that lie on one another from a height on, outwards: the screw's way through them.
std::vector<std::string> layersFrom(const Frame &frame, const Vec2 &at, double height, double up) {
    std::vector<std::string> ids;
    for (bool found = true; found;) {
        found = false;
        const auto take = [&](const auto &list) {
            for (const auto &member : list) {
                const auto span = uprightOf(member, at);
                if (found || !span || std::abs((up > 0 ? span->low_mm : span->high_mm) - height) > kTouch_mm) continue;
                ids.push_back(member.id);
                height = up > 0 ? span->high_mm : span->low_mm;
                found = true;
            }
        };
        take(frame.plates);
        take(frame.arms);
    }
    return ids;
}

std::vector<std::string> reversed(std::vector<std::string> ids) {
    std::reverse(ids.begin(), ids.end());
    return ids;
}

/// Writes down the screws that a frame lacks.
class ScrewWriter {
public:
    explicit ScrewWriter(const Frame &frame) : frame_(frame) {
        for (const auto &plate : frame.plates) taken_.insert(plate.id);
        for (const auto &arm : frame.arms) taken_.insert(arm.id);
        for (const auto &post : frame.standoffs) taken_.insert(post.id);
        for (const auto &screw : frame.screws) taken_.insert(screw.id);
    }

    std::vector<FrameScrew> write() {
        for (const auto &post : frame_.standoffs)
            if (post.role == StandoffRole::standoff || post.role == StandoffRole::stopper) addPost(post);
        for (const auto &arm : frame_.arms) addArm(arm);
        for (const auto &post : frame_.standoffs)
            if (post.role == StandoffRole::foot) addFoot(post);
        return std::move(out_);
    }

private:
    bool isThere(const Vec2 &at, bool fromAbove) const {
        const auto same = [&](const FrameScrew &screw) {
            return (screw.at_mm - at).norm() < 1 && (screw.fromAbove == fromAbove || screw.into.empty());
        };
        return std::any_of(frame_.screws.begin(), frame_.screws.end(), same) ||
               std::any_of(out_.begin(), out_.end(), same);
    }

    void add(const std::string &name, const Vec2 &at, bool fromAbove, const std::string &thread,
             std::vector<std::string> through, const std::string &into) {
        if (through.empty() || isThere(at, fromAbove)) return;
        FrameScrew screw;
        screw.id = name;
        for (int n = 2; !taken_.insert(screw.id).second; ++n) screw.id = fmt::format("{}-{}", name, n);
        screw.at_mm = at;
        screw.fromAbove = fromAbove;
        screw.thread = thread;
        screw.through = std::move(through);
        screw.into = into;
        out_.push_back(std::move(screw));
    }

    /// The last layer before the post has a hole there, or no plate is among them.
    bool drilled(const std::vector<std::string> &layers, const Vec2 &at) const {
        return std::any_of(layers.begin(), layers.end(), [&](const std::string &id) {
            const Plate *plate = byId(frame_.plates, id);
            return plate && holeAt_mm(*plate, at) > 0;
        });
    }

    void addPost(const Standoff &post) {
        const Vec2 at = post.base_mm.head<2>();
        const double low = post.base_mm.z(), high = low + post.height_mm;
        auto below = reversed(layersFrom(frame_, at, low, -1)), above = layersFrom(frame_, at, high, 1);
        if (post.role == StandoffRole::stopper) above.clear(); // nothing is screwed to its top
        if (isPlain(post)) {
            if (!drilled(below, at) || !drilled(above, at)) return;
            below.push_back(post.id);
            below.insert(below.end(), above.begin(), above.end());
            return add("screw-" + post.id, at, false, post.thread, below, {});
        }
        if (drilled(below, at)) add("screw-" + post.id + "-low", at, false, post.thread, below, post.id);
        if (drilled(above, at)) add("screw-" + post.id + "-high", at, true, post.thread, reversed(above), post.id);
    }

    void addFoot(const Standoff &foot) {
        const Vec2 at = foot.base_mm.head<2>();
        for (const auto &mount : frame_.motorMounts) // held by the motor's own screws
            if ((mount.position_mm.head<2>() - at).norm() < mount.pattern.size_mm / 2 + 3) return;
        const auto above = layersFrom(frame_, at, foot.base_mm.z() + foot.height_mm, 1);
        add("screw-" + foot.id, at, true, foot.thread, reversed(above), foot.id);
    }

    bool ofAPlace(const Vec2 &at) const {
        for (const auto &site : frame_.sites)
            if (site.pattern)
                for (const auto &hole : holeCentres(*site.pattern))
                    if (((site.X_FrameSite * Vec3(hole.x(), hole.y(), 0)).head<2>() - at).norm() < 1) return true;
        return false;
    }

    void addArm(const Arm &arm) {
        int n = 0;
        for (const auto &plate : frame_.plates) {
            for (const auto &hole : plate.holes) {
                const auto thread = screwForHole(hole.diameter_mm, 0.3);
                const auto inArm = uprightOf(arm, hole.centre_mm), inPlate = uprightOf(plate, hole.centre_mm);
                if (!thread || !inArm || !inPlate || ofAPlace(hole.centre_mm)) continue;
                const bool under = std::abs(inPlate->high_mm - inArm->low_mm) <= kTouch_mm;
                if (!under && std::abs(inPlate->low_mm - inArm->high_mm) > kTouch_mm) continue;
                auto layers = reversed(layersFrom(frame_, hole.centre_mm, inArm->low_mm, -1));
                const auto above = layersFrom(frame_, hole.centre_mm, inArm->low_mm, 1);
                layers.insert(layers.end(), above.begin(), above.end());
                // Heads where the boards are: they are lower than nuts.
                add(fmt::format("screw-{}-{}", arm.id, ++n), hole.centre_mm, true, std::string(thread->thread->name),
                    reversed(std::move(layers)), {});
            }
        }
    }

    const Frame &frame_;
    std::set<std::string> taken_;
    std::vector<FrameScrew> out_;
};

} // namespace

std::optional<Upright> uprightOf(const Frame &frame, const std::string &member, const Vec2 &at_mm) {
    if (const Plate *plate = byId(frame.plates, member)) return uprightOf(*plate, at_mm);
    if (const Arm *arm = byId(frame.arms, member)) return uprightOf(*arm, at_mm);
    if (const Standoff *post = byId(frame.standoffs, member)) return uprightOf(*post, at_mm);
    return std::nullopt;
}

bool isPlain(const Standoff &post) {
    const ThreadSize *thread = findThread(post.thread);
    return thread && post.bore_mm >= thread->fineHole_mm - kTouch_mm;
}

namespace {

double bracketThickness_mm(const PartType &type) {
    for (const auto &solid : type.solids)
        if (solid.role == SolidRole::board)
            return boundsOf(solid.shape, {Vec3::Zero(), solid.X_PartSolid.rotation}).size_mm().z();
    std::optional<double> round, thinnest;
    for (const auto &solid : type.solids) {
        if (solid.role == SolidRole::soft) continue;
        const Aabb box = boundsOf(solid.shape, solid.X_PartSolid);
        const double thick = box.size_mm().minCoeff();
        if (!thinnest || thick < *thinnest) thinnest = thick;
        if (!type.mounting) continue;
        for (const auto &hole : holeCentres(*type.mounting))
            if (hole.x() >= box.min_mm.x() && hole.x() <= box.max_mm.x() && hole.y() >= box.min_mm.y() &&
                hole.y() <= box.max_mm.y() && (!round || box.size_mm().z() < *round))
                round = box.size_mm().z();
    }
    return round ? *round : thinnest.value_or(0);
}

} // namespace

Brackets bracketsOf(const Build &build) {
    Brackets brackets;
    for (const auto &screw : build.frame->screws)
        for (const auto &id : screw.through)
            if (const Part *part = findPart(build, id))
                if (const PartType *type = typeOf(build, *part)) brackets[id] = bracketThickness_mm(*type);
    return brackets;
}

ScrewColumn columnOf(const Frame &frame, const FrameScrew &screw, const Brackets &brackets) {
    ScrewColumn column;
    column.at_mm = screw.at_mm;
    column.up = screw.fromAbove ? -1 : 1;
    const ThreadSize *thread = findThread(screw.thread);
    struct Layer {
        std::string id;
        double near_mm, far_mm; ///< along the screw
    };
    std::vector<Layer> layers;
    const auto put = [&](const std::string &id) -> bool {
        const auto span = uprightOf(frame, id, screw.at_mm);
        if (!span) {
            if (column.missed.empty()) column.missed = id;
            return false;
        }
        const double a = column.up * span->low_mm, b = column.up * span->high_mm;
        layers.push_back({id, std::min(a, b), std::max(a, b)});
        return true;
    };
    double underHead = 0, underNut = 0;
    for (const auto &id : screw.through) {
        const auto bracket = brackets.find(id);
        if (bracket == brackets.end())
            put(id);
        else
            (layers.empty() ? underHead : underNut) += bracket->second;
    }
    std::stable_sort(layers.begin(), layers.end(),
                     [](const Layer &a, const Layer &b) { return a.near_mm < b.near_mm; });
    const std::size_t clamped = layers.size();
    if (!screw.into.empty() && put(screw.into)) column.thread_mm = layers.back().far_mm - layers.back().near_mm;
    if (clamped == 0) return column;
    column.headFace_mm = column.up * layers.front().near_mm;
    double reached = layers.front().far_mm;
    for (std::size_t i = 0; i < layers.size(); ++i) {
        if (const double air = layers[i].near_mm - reached; i > 0 && air > column.air_mm) {
            column.air_mm = air;
            column.afterAir = layers[i].id;
        }
        if (i < clamped) reached = std::max(reached, layers[i].far_mm);
    }
    column.headFace_mm -= column.up * underHead;
    column.grip_mm = reached - layers.front().near_mm + underHead + underNut;
    for (const auto &id : screw.through)
        if (const Plate *plate = byId(frame.plates, id); plate && thread && column.narrow.empty()) {
            const double hole = holeAt_mm(*plate, screw.at_mm);
            if (hole >= thread->nominal_mm - 1e-9) continue;
            column.narrow = id;
            column.hole_mm = hole;
        }
    return column;
}

std::vector<std::pair<Shape, Pose>> bodiesOf(const Frame &frame, const FrameScrew &screw, const Brackets &brackets) {
    const ThreadSize *thread = findThread(screw.thread);
    if (!thread) return {};
    const ScrewColumn column = columnOf(frame, screw, brackets);
    if (!(column.grip_mm > 0)) return {};
    std::vector<std::pair<Shape, Pose>> bodies;
    const auto put = [&](double diameter, double height, double face, double way) {
        bodies.emplace_back(Cylinder{diameter, height},
                            Pose{{screw.at_mm.x(), screw.at_mm.y(), face + way * height / 2}, Quat::Identity()});
    };
    if (screw.head != HeadStyle::countersunk) { // that one lies in the plate
        const HeadSize head = headOf(*thread, screw.head).value_or(HeadSize{thread->capHead_mm, thread->nominal_mm});
        put(head.diameter_mm, head.height_mm, column.headFace_mm, -column.up);
    }
    if (screw.into.empty() && screw.nut != FastenerForm::pressNut)
        put(thread->nutFlats_mm * 2 / std::sqrt(3.0), nutHeight_mm(*thread, screw.nut).value_or(thread->nutHeight_mm),
            column.end_mm().z(), column.up);
    return bodies;
}

void tidyScrews(Build &build) {
    if (build.frame->screws.empty()) return;
    Frame frame = *build.frame;
    std::set<std::string> members, parts;
    for (const auto &part : build.parts) parts.insert(part.id);
    for (const auto &plate : frame.plates) members.insert(plate.id);
    for (const auto &arm : frame.arms) members.insert(arm.id);
    for (const auto &post : frame.standoffs) members.insert(post.id);
    std::erase_if(frame.screws, [&](FrameScrew &screw) {
        std::erase_if(screw.through,
                      [&](const std::string &id) { return !members.contains(id) && !parts.contains(id); });
        const bool holds = std::any_of(screw.through.begin(), screw.through.end(),
                                       [&](const std::string &id) { return members.contains(id); });
        return !holds || (!screw.into.empty() && !members.contains(screw.into));
    });
    if (!(frame == *build.frame)) build.frame = std::move(frame);
}

std::vector<FrameScrew> missingScrews(const Frame &frame) { return ScrewWriter(frame).write(); }

} // namespace waxis
