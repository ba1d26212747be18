#include "core/layout/hand_edits.h"

#include "core/base/by_id.h"
#include "core/base/units.h"
#include "core/build/arm_of.h"
#include "core/build/frame_shapes.h"
#include "core/layout/relayout.h"
#include "core/layout/screw_edits.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

constexpr double kLand_mm = 1.0;      // material that must stay between a hole and the next edge
constexpr double kPostHole_mm = 3.2;  // M3
constexpr double kSameHole_mm = 0.06; // two centres that are one hole

Plate *plateIn(Frame &frame, const std::string &id) {
    const auto at = std::find_if(frame.plates.begin(), frame.plates.end(), [&](const Plate &p) { return p.id == id; });
    return at == frame.plates.end() ? nullptr : &*at;
}

double distanceToRing(const Ring &ring, const Vec2 &p) {
    double least = 1e300;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 &a = ring[i], along = ring[(i + 1) % ring.size()] - a;
        const double t = std::clamp((p - a).dot(along) / std::max(along.squaredNorm(), 1e-12), 0.0, 1.0);
        least = std::min(least, (a + t * along - p).norm());
    }
    return least;
}

std::string plateName(const Plate &plate) { return plate.name.empty() ? plate.id : plate.name; }

/// What is wrong with a round hole there; empty: nothing.
std::string faultOfHole(const Plate &plate, const Vec2 &centre, double diameter) {
    if (!contains({plate.outline_mm, plate.cutouts_mm}, centre))
        return fmt::format("There is no material of {} at that place.", plateName(plate));
    double room = distanceToRing(plate.outline_mm, centre);
    for (const auto &cutout : plate.cutouts_mm) room = std::min(room, distanceToRing(cutout, centre));
    if (const double missing = diameter / 2 + kLand_mm - room; missing > 1e-9)
        return fmt::format("A {:g} mm hole there comes {:.1f} mm too near to an edge of {}: move it inwards.", diameter,
                           missing, plateName(plate));
    for (const auto &hole : plate.holes) {
        const double apart = (hole.centre_mm - centre).norm();
        if (apart < kSameHole_mm) continue; // it is drilled already
        if (const double missing = (hole.diameter_mm + diameter) / 2 + kLand_mm - apart; missing > 1e-9)
            return fmt::format("A {:g} mm hole there comes {:.1f} mm too near to another hole of {}.", diameter,
                               missing, plateName(plate));
    }
    return {};
}

std::string drill(Plate &plate, const Vec2 &centre, double diameter) {
    if (auto fault = faultOfHole(plate, centre, diameter); !fault.empty()) return fault;
    const bool there = std::any_of(plate.holes.begin(), plate.holes.end(),
                                   [&](const RoundHole &h) { return (h.centre_mm - centre).norm() < kSameHole_mm; });
    if (!there) plate.holes.push_back({centre, diameter});
    return {};
}

void heal(Plate &plate, const Vec2 &centre) {
    std::erase_if(plate.holes, [&](const RoundHole &h) { return (h.centre_mm - centre).norm() < kSameHole_mm; });
}

Ring slotRing(const Vec2 &centre, const Vec2 &size) {
    const Vec2 h = size / 2;
    return {centre + Vec2(h.x(), -h.y()), centre + Vec2(h.x(), h.y()), centre + Vec2(-h.x(), h.y()),
            centre + Vec2(-h.x(), -h.y())};
}

/// Cuts a window; what is wrong with it, or empty.
std::string cut(Plate &plate, const Ring &ring) {
    for (const Vec2 &corner : ring) {
        if (!contains({plate.outline_mm, {}}, corner))
            return fmt::format("The slot runs over the edge of {}: move it inwards or make it smaller.",
                               plateName(plate));
        if (const double room = distanceToRing(plate.outline_mm, corner); room < kLand_mm)
            return fmt::format("The slot leaves {:.1f} mm to the edge of {}; {:g} mm are the least.", room,
                               plateName(plate), kLand_mm);
    }
    for (const auto &hole : plate.holes) {
        const bool within = contains({ring, {}}, hole.centre_mm);
        if (within || distanceToRing(ring, hole.centre_mm) < hole.diameter_mm / 2 + kLand_mm)
            return fmt::format("The slot meets a hole of {}.", plateName(plate));
    }
    Plate next = plate;
    next.cutouts_mm.push_back(ring);
    if (const auto fault = faultOf({next.outline_mm, next.cutouts_mm}); !fault.empty())
        return fmt::format("The slot does not go into {}: {}.", plateName(plate), fault);
    plate = std::move(next);
    return {};
}

void close(Plate &plate, const Ring &ring) { std::erase(plate.cutouts_mm, ring); }

/// The nearest plate whose underside lies over a height at a point; null for none.
Plate *plateAbove(Frame &frame, double z_mm, const Vec2 &p) {
    Plate *best = nullptr;
    for (auto &plate : frame.plates)
        if (plate.z_mm > z_mm + 0.5 && contains({plate.outline_mm, {}}, p) && (!best || plate.z_mm < best->z_mm))
            best = &plate;
    return best;
}

std::string freeFrameId(const Build &build, const std::string &base) { return freshId(build, base); }

Site siteOn(const Build &build, const Plate &plate, SiteKind kind, const char *base, const std::string &name,
            const Vec2 &at) {
    Site site;
    site.id = freeFrameId(build, base);
    site.name = name;
    site.kind = kind;
    site.on = plate.id;
    site.isolated = plate.isolated;
    site.X_FrameSite.position_mm = {at.x(), at.y(), plate.z_mm + plate.thickness_mm};
    return site;
}

std::string addPost(const Build &build, Frame &frame, const FrameWish &wish, std::string &made) {
    Standoff post;
    const bool foot = wish.thing == FrameThing::foot, soft = wish.thing == FrameThing::bobbin,
               stopper = wish.thing == FrameThing::stopper;
    Plate *deck = plateIn(frame, wish.plate);
    if (!deck) return "Choose the plate that it stands on.";
    post.id = freeFrameId(build, foot ? "foot" : soft ? "bobbin" : stopper ? "stopper" : "standoff");
    post.role = foot      ? StandoffRole::foot
                : soft    ? StandoffRole::bobbin
                : stopper ? StandoffRole::stopper
                          : StandoffRole::standoff;
    const double top = deck->z_mm + deck->thickness_mm;
    Plate *roof = foot ? nullptr : plateAbove(frame, top, wish.at_mm);
    constexpr double kShort_mm = 2; // what a stopper leaves
    if (stopper && (!roof || !roof->isolated)) return "A stopper stands under a soft plate.";
    post.height_mm = wish.height_mm.value_or(foot ? 20 : roof ? roof->z_mm - top - (stopper ? kShort_mm : 0) : 25);
    if (!(post.height_mm > 0)) return "A post is higher than nothing.";
    post.base_mm = {wish.at_mm.x(), wish.at_mm.y(), foot ? deck->z_mm - post.height_mm : top};
    post.diameter_mm = foot ? 10 : soft ? 8 : 5;
    post.bore_mm = foot || soft ? 0 : 2.5;
    post.material = foot ? "tpu" : soft ? "silicone" : "aluminium";
    if (auto fault = drill(*deck, wish.at_mm, kPostHole_mm); !fault.empty()) return fault;
    // The plate above is drilled where the post reaches it.
    if (roof && std::abs(roof->z_mm - top - post.height_mm) < 0.5)
        if (auto fault = drill(*roof, wish.at_mm, kPostHole_mm); !fault.empty()) return fault;
    made = post.id;
    frame.standoffs.push_back(std::move(post));
    return {};
}

std::string addSiteThing(const Build &build, Frame &frame, const FrameWish &wish, std::string &made) {
    Plate *plate = plateIn(frame, wish.plate);
    if (!plate) return "Choose the plate that carries it.";
    if (!contains({plate->outline_mm, plate->cutouts_mm}, wish.at_mm))
        return fmt::format("There is no material of {} at that place.", plateName(*plate));
    Site site;
    switch (wish.thing) {
    case FrameThing::pattern:
        if (!(wish.pattern.size_mm > 0) || !(wish.pattern.holeDiameter_mm > 0))
            return "A hole pattern has a size and holes.";
        site = siteOn(build, *plate, SiteKind::pattern, "site-pattern",
                      fmt::format("{:g} mm pattern", wish.pattern.size_mm), wish.at_mm);
        site.pattern = wish.pattern;
        for (const auto &hole : holeCentres(wish.pattern))
            if (auto fault = drill(*plate, wish.at_mm + hole, wish.pattern.holeDiameter_mm); !fault.empty())
                return fault;
        break;
    case FrameThing::strapPlace: {
        site = siteOn(build, *plate, SiteKind::strap, "site-strap", "Strap place", wish.at_mm);
        const Aabb box = boundsOf(plateShape(*plate), platePose(*plate));
        constexpr double kStrap_mm = 22, kSlot_mm = 3, kInwards_mm = 4;
        const double half = std::min(box.max_mm.y() - wish.at_mm.y(), wish.at_mm.y() - box.min_mm.y()) - kInwards_mm;
        for (const double side : {1.0, -1.0})
            if (auto fault = cut(*plate, slotRing(wish.at_mm + Vec2(0, side * half), {kStrap_mm, kSlot_mm}));
                !fault.empty())
                return fault;
        break;
    }
    case FrameThing::mast: site = siteOn(build, *plate, SiteKind::mast, "site-mast", "Mast", wish.at_mm); break;
    case FrameThing::cameraCage: {
        site = siteOn(build, *plate, SiteKind::face, "site-camera", "Camera cage", wish.at_mm);
        const double top = plate->z_mm + plate->thickness_mm;
        const Plate *roof = plateAbove(frame, top, wish.at_mm);
        site.X_FrameSite.position_mm.z() = top + (roof ? (roof->z_mm - top) / 2 : 12);
        break;
    }
    default: site = siteOn(build, *plate, SiteKind::face, "site-place", "Place", wish.at_mm); break;
    }
    made = site.id;
    frame.sites.push_back(std::move(site));
    return {};
}

std::string addOpening(const Build &build, Frame &frame, const FrameWish &wish, std::string &made) {
    Plate *plate = plateIn(frame, wish.plate);
    if (!plate) return "Choose the plate that it goes through.";
    if (!(wish.size_mm.minCoeff() > 0)) return "A slot has a length and a width.";
    const Ring ring = slotRing(wish.at_mm, wish.size_mm);
    if (auto fault = cut(*plate, ring); !fault.empty()) return fault;
    made = plate->id;
    if (wish.thing == FrameThing::slot) return {};
    PassThrough pass{freeFrameId(build, "pass"), plate->id, ring, wish.edge};
    made = pass.id;
    frame.passThroughs.push_back(std::move(pass));
    return {};
}

std::string addPlateThing(const Build &build, Frame &frame, const FrameWish &wish, std::string &made) {
    const Plate *model = plateIn(frame, wish.plate);
    Plate plate;
    if (model)
        plate = *model;
    else
        plate.outline_mm = slotRing(Vec2::Zero(), {100, 40});
    plate.id = freeFrameId(build, "plate");
    plate.name = "New plate";
    plate.holes.clear();
    plate.cutouts_mm.clear();
    plate.mass_g = {};
    if (!(plate.thickness_mm > 0)) plate.thickness_mm = 2;
    const double top = model ? model->z_mm + model->thickness_mm : 0;
    plate.z_mm = top + wish.height_mm.value_or(25);
    made = plate.id;
    frame.plates.push_back(std::move(plate));
    return {};
}

/// Holes of a thing in the plates: to be healed at one place and drilled at another.
struct Drilled {
    std::string plate;
    std::vector<RoundHole> holes;
};

std::vector<Drilled> holesOf(const Frame &frame, const Standoff &post) {
    std::vector<Drilled> all;
    const double low = post.base_mm.z(), high = low + post.height_mm;
    for (const auto &plate : frame.plates) {
        const double bottom = plate.z_mm, top = bottom + plate.thickness_mm;
        const bool meets = std::abs(top - low) < 0.5 || std::abs(bottom - high) < 0.5 || (bottom > low && top < high);
        if (!meets) continue;
        for (const auto &hole : plate.holes)
            if ((hole.centre_mm - post.base_mm.head<2>()).norm() < kSameHole_mm) all.push_back({plate.id, {hole}});
    }
    return all;
}

std::vector<Drilled> holesOf(const Frame &frame, const Site &site) {
    Drilled drilled{site.on, {}};
    if (!site.pattern) return {};
    for (const auto &plate : frame.plates)
        if (plate.id == site.on)
            for (const auto &c : holeCentres(*site.pattern)) {
                const Vec2 at = (site.X_FrameSite * Vec3(c.x(), c.y(), 0)).head<2>();
                for (const auto &hole : plate.holes)
                    if ((hole.centre_mm - at).norm() < kSameHole_mm) drilled.holes.push_back(hole);
            }
    return {drilled};
}

void healAll(Frame &frame, const std::vector<Drilled> &all) {
    for (const auto &drilled : all)
        if (Plate *plate = plateIn(frame, drilled.plate))
            for (const auto &hole : drilled.holes) heal(*plate, hole.centre_mm);
}

std::string drillAll(Frame &frame, const std::vector<Drilled> &all, const Vec2 &shift) {
    for (const auto &drilled : all)
        if (Plate *plate = plateIn(frame, drilled.plate))
            for (const auto &hole : drilled.holes)
                if (auto fault = drill(*plate, hole.centre_mm + shift, hole.diameter_mm); !fault.empty()) return fault;
    return {};
}

EditResult onFrameOf(const Build &build, Frame frame, const std::string &fault) {
    if (!fault.empty()) return refuse(fault);
    return replaceFrame(build, frame);
}

template <class Thing>
EditResult setThing(const Build &build, std::vector<Thing> Frame::*list, const Thing &changed) {
    Frame frame = *build.frame;
    auto *thing = byId(frame.*list, changed.id);
    if (!thing) return refuse(fmt::format("There is nothing called \"{}\" in this frame.", changed.id));
    *thing = changed;
    return replaceFrame(build, frame);
}

} // namespace

EditResult addToFrame(const Build &build, const FrameWish &wish, std::string *id) {
    if (!wish.at_mm.allFinite()) return refuse("The place is not a finite number.");
    Frame frame = *build.frame;
    std::string made, fault;
    switch (wish.thing) {
    case FrameThing::screw: return addFrameScrew(build, wish.at_mm, id);
    case FrameThing::post:
    case FrameThing::bobbin:
    case FrameThing::stopper:
    case FrameThing::foot: fault = addPost(build, frame, wish, made); break;
    case FrameThing::slot:
    case FrameThing::passThrough: fault = addOpening(build, frame, wish, made); break;
    case FrameThing::plate: fault = addPlateThing(build, frame, wish, made); break;
    case FrameThing::pattern:
    case FrameThing::strapPlace:
    case FrameThing::facePlace:
    case FrameThing::mast:
    case FrameThing::cameraCage: fault = addSiteThing(build, frame, wish, made); break;
    }
    auto next = onFrameOf(build, std::move(frame), fault);
    if (next && id) *id = made;
    return next;
}

EditResult moveOnFrame(const Build &build, const std::string &id, const Vec2 &to_mm) {
    if (!to_mm.allFinite()) return refuse("The place is not a finite number.");
    Frame frame = *build.frame;
    std::string fault;
    if (const auto *screw = byId(frame.screws, id)) {
        FrameScrew moved = *screw;
        moved.at_mm = to_mm;
        return setFrameScrew(build, moved);
    }
    if (auto *post = byId(frame.standoffs, id)) {
        for (auto &screw : frame.screws) // what turns into it comes along
            if (screw.into == id || std::find(screw.through.begin(), screw.through.end(), id) != screw.through.end())
                screw.at_mm = to_mm;
        const auto holes = holesOf(frame, *post);
        const Vec2 shift = to_mm - post->base_mm.head<2>();
        healAll(frame, holes);
        fault = drillAll(frame, holes, shift);
        post->base_mm.head<2>() = to_mm;
    } else if (auto *site = byId(frame.sites, id)) {
        const auto holes = holesOf(frame, *site);
        const Vec2 shift = to_mm - site->X_FrameSite.position_mm.head<2>();
        healAll(frame, holes);
        fault = drillAll(frame, holes, shift);
        site->X_FrameSite.position_mm.head<2>() = to_mm;
    } else if (auto *pass = byId(frame.passThroughs, id)) {
        Vec2 middle = Vec2::Zero();
        for (const auto &p : pass->outline_mm) middle += p / double(pass->outline_mm.size());
        Ring moved = pass->outline_mm;
        for (auto &p : moved) p += to_mm - middle;
        if (Plate *plate = plateIn(frame, pass->plate)) {
            close(*plate, pass->outline_mm);
            fault = cut(*plate, moved);
        }
        pass->outline_mm = std::move(moved);
    } else {
        return refuse(fmt::format("There is no post, place or opening called \"{}\" in this frame.", id));
    }
    return onFrameOf(build, std::move(frame), fault);
}

EditResult removeFromFrame(const Build &build, const std::string &id) {
    Frame frame = *build.frame;
    if (const auto *post = byId(frame.standoffs, id)) {
        healAll(frame, holesOf(frame, *post));
        std::erase_if(frame.standoffs, [&](const Standoff &s) { return s.id == id; });
    } else if (std::erase_if(frame.screws, [&](const FrameScrew &s) { return s.id == id; })) {
    } else if (const auto *site = byId(frame.sites, id)) {
        healAll(frame, holesOf(frame, *site));
        std::erase_if(frame.sites, [&](const Site &s) { return s.id == id; });
    } else if (const auto *pass = byId(frame.passThroughs, id)) {
        if (Plate *plate = plateIn(frame, pass->plate)) close(*plate, pass->outline_mm);
        std::erase_if(frame.passThroughs, [&](const PassThrough &p) { return p.id == id; });
    } else {
        return refuse(fmt::format("There is no post, place or opening called \"{}\" in this frame.", id));
    }
    return replaceFrame(build, frame);
}

EditResult setArm(const Build &build, const Arm &wished) {
    if (!(wished.width_mm > 0) || !(wished.thickness_mm > 0)) return refuse("An arm has a width and a thickness.");
    const double half = std::min(wished.width_mm, wished.thickness_mm) / 2, length = armSize_mm(wished).x();
    if (wished.section != ArmSection::bar && !(wished.wall_mm > 0 && wished.wall_mm < half))
        return refuse(
            fmt::format("The wall of a hollow arm is more than 0 and less than {:g} mm, half of the arm.", half));
    if (wished.foldJoint_mm && !(*wished.foldJoint_mm > 0 && *wished.foldJoint_mm < length))
        return refuse(fmt::format("The joint lies between the arm's root and its tip, {:.1f} mm from it.", length));
    for (const auto &hole : wished.holes) {
        const double inner =
            (hole.wall == ArmWall::top || hole.wall == ArmWall::bottom ? wished.width_mm : wished.thickness_mm) -
            2 * wished.wall_mm;
        if (wished.section == ArmSection::bar) return refuse("Only hollow arms have holes in their walls.");
        if (!(hole.diameter_mm > 0 && hole.diameter_mm < inner))
            return refuse(fmt::format("A hole in the wall is more than 0 and less than {:g} mm wide.", inner));
        if (!(hole.at_mm - hole.diameter_mm / 2 > 0 && hole.at_mm + hole.diameter_mm / 2 < length))
            return refuse(fmt::format("A hole at {:g} mm does not lie on an arm {:.0f} mm long.", hole.at_mm, length));
    }
    if (wished.hinge_g && *wished.hinge_g < 0) return refuse("A joint weighs no less than nothing.");
    Arm arm = wished;
    if (arm.section == ArmSection::bar) arm.wall_mm = 0;
    std::stable_sort(arm.holes.begin(), arm.holes.end(),
                     [](const ArmHole &a, const ArmHole &b) { return a.at_mm < b.at_mm; });
    return setThing(build, &Frame::arms, arm);
}

EditResult setStandoff(const Build &build, const Standoff &standoff) {
    if (!(standoff.height_mm > 0) || !(standoff.diameter_mm > 0)) return refuse("A post has a height and a diameter.");
    if (!(standoff.bore_mm >= 0 && standoff.bore_mm < standoff.diameter_mm))
        return refuse("The bore is narrower than the post.");
    if (standoff.travel_mm && !(*standoff.travel_mm > 0 && *standoff.travel_mm < standoff.height_mm))
        return refuse("A bobbin gives by more than nothing and less than its height.");
    return setThing(build, &Frame::standoffs, standoff);
}

EditResult setPlateSag(const Build &build, const std::string &id, const Measured &sag_mm) {
    const Plate *plate = byId(build.frame->plates, id);
    if (!plate) return refuse(fmt::format("There is no plate \"{}\" in this frame.", id));
    if (!plate->isolated) return refuse(fmt::format("{} stands rigid: it does not sink.", displayName(build, id)));
    if (sag_mm.known() && !(*sag_mm.value > 0 && *sag_mm.value <= 50))
        return refuse("A soft plate sinks by more than 0 and at most 50 mm.");
    Plate next = *plate;
    next.sag_mm = sag_mm;
    return setThing(build, &Frame::plates, next);
}

EditResult setMotorMount(const Build &build, const MotorMount &mount) {
    if (!(mount.propDiameter_mm > 0 && mount.propDiameter_mm <= 3000))
        return refuse("A propeller is more than 0 and at most 3000 mm across.");
    if (mount.flexUp_mm.value_or(0) < 0 || mount.flexDown_mm.value_or(0) < 0)
        return refuse("Blades bend by nothing or more.");
    return setThing(build, &Frame::motorMounts, mount);
}

EditResult setSite(const Build &build, const Site &site) { return setThing(build, &Frame::sites, site); }

EditResult setPassThrough(const Build &build, const PassThrough &pass) {
    return setThing(build, &Frame::passThroughs, pass);
}

EditResult hangMotor(const Build &build, const std::string &id, bool hanging) {
    Frame frame = *build.frame;
    auto *mount = byId(frame.motorMounts, id);
    if (!mount) return refuse(fmt::format("There is no motor mount \"{}\".", id));
    if (hangs(*mount) == hanging) return build;
    const Arm *arm = armOf(frame, *mount);
    const double thick = arm ? arm->thickness_mm : 0;
    mount->position_mm.z() += hanging ? -thick : thick;
    mount->propPlane_mm = -mount->propPlane_mm;
    Build next = build;
    // What sits there is turned over about the mount's face; its place is in the mount's axes.
    const Quat over(Eigen::AngleAxisd(kPi, Vec3::UnitX()));
    for (auto &part : next.parts)
        if (part.placement.site == id) {
            part.placement.pose.position_mm = over * part.placement.pose.position_mm;
            part.placement.pose.rotation = canonical(over * part.placement.pose.rotation);
        }
    next.frame = frame;
    return next;
}

} // namespace waxis
