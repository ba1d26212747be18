// A free spot on each plate, for parts that need neither holes nor a mount.
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/placing/faces.h"
#include "core/placing/offers.h"
#include "core/placing/usual_hold.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

Aabb shifted(Aabb box, const Vec3 &by) {
    box.min_mm += by;
    box.max_mm += by;
    return box;
}

/// What stands in the way of a new part: boxes round parts, posts and arms, zones of propellers.
class Obstacles {
public:
    explicit Obstacles(const Asked &asked) {
        for (const auto &part : asked.build.parts)
            if (part.id != asked.part.id) boxes_.push_back(partBounds(asked.build, part));
        for (const auto &post : asked.build.frame->standoffs)
            boxes_.push_back(boundsOf(standoffShape(post), standoffPose(post)));
        for (const auto &plate : asked.build.frame->plates)
            boxes_.push_back(boundsOf(plateShape(plate), platePose(plate)));
        for (const auto &arm : asked.build.frame->arms) addArm(arm);
        // The cage keeps its room for the camera.
        for (const auto &site : asked.build.frame->sites)
            if (isCameraCage(*asked.build.frame, site) && asked.type.kind != PartKind::flightCamera) {
                constexpr double kAlong_mm = 15, kAside_mm = 13, kHigh_mm = 10;
                const Vec3 half(kAlong_mm, kAside_mm, kHigh_mm);
                boxes_.push_back({site.X_FrameSite.position_mm - half, site.X_FrameSite.position_mm + half});
            }
        mounts_ = asked.build.frame->motorMounts;
    }
    bool hit(const Aabb &box) const {
        if (std::any_of(boxes_.begin(), boxes_.end(), [&](const Aabb &b) { return boxesMeet(box, b); })) return true;
        // The usual room of blades with a hand's breadth of doubt: the rules judge it exactly afterwards.
        constexpr double kUp_mm = 22, kDown_mm = 18, kAside_mm = 10;
        return std::any_of(mounts_.begin(), mounts_.end(), [&](const MotorMount &mount) {
            const Vec3 hub = propCentre_mm(mount);
            if (box.min_mm.z() > hub.z() + kUp_mm || box.max_mm.z() < hub.z() - kDown_mm) return false;
            const Vec2 near = hub.head<2>().cwiseMax(box.min_mm.head<2>()).cwiseMin(box.max_mm.head<2>());
            return (near - hub.head<2>()).norm() < mount.propDiameter_mm / 2 + kAside_mm;
        });
    }

private:
    /// An arm that runs across is a row of short boxes: one round it all would cover half the craft.
    void addArm(const Arm &arm) {
        const Vec3 along = arm.tip_mm - arm.root_mm;
        const int pieces = std::max(1, int(std::ceil(along.norm() / std::max(arm.width_mm, 2.0))));
        for (int i = 0; i < pieces; ++i) {
            Aabb box;
            const Vec3 half(arm.width_mm / 2, arm.width_mm / 2, 0);
            for (const double t : {double(i) / pieces, double(i + 1) / pieces}) {
                const Vec3 p = arm.root_mm + t * along;
                box.include(p - half * 0.7);
                box.include(p + half * 0.7);
                box.include(p - half * 0.7 - Vec3(0, 0, arm.thickness_mm));
            }
            boxes_.push_back(box);
        }
    }

    std::vector<Aabb> boxes_;
    std::vector<MotorMount> mounts_;
};

/// Cans and plugs lie down; everything else keeps its turn.
Quat lyingDown(const PartType &type, const Quat &turn) {
    const Vec3 size = boxAt(type, Quat::Identity()).size_mm();
    if (type.kind == PartKind::capacitor && size.z() > std::max(size.x(), size.y()))
        return Quat(Eigen::AngleAxisd(kPi / 2, Vec3::UnitY())); // along the craft
    return turn;
}

/// Plugs and cans belong to the tail, where the pack's lead comes out; cameras and lamps to the nose.
double wish(PartKind kind, const Vec2 &p, const Aabb &edge) {
    switch (kind) {
    case PartKind::powerPlug:
    case PartKind::capacitor:
    case PartKind::gps:
    case PartKind::receiver: return p.x() - edge.min_mm.x() + 0.5 * std::abs(p.y());
    case PartKind::payloadCamera:
    case PartKind::flightCamera:
    case PartKind::gimbal: return edge.max_mm.x() - p.x() + 2 * std::abs(p.y());
    default: return p.norm();
    }
}

/// A whip or its tube stands off the corner of the highest plate, aft, up and outwards, a right angle from its twin.
void offerWhipCorners(const Asked &asked) {
    const Plate *top = nullptr;
    for (const auto &plate : asked.build.frame->plates)
        if (!top || plate.z_mm > top->z_mm) top = &plate;
    if (!top) return;
    const Aabb edge = boundsOf(plateShape(*top), platePose(*top));
    for (const double side : {1.0, -1.0}) {
        const Vec3 way = Vec3(-0.47, side * 0.62, 0.63).normalized();
        Vec3 root((edge.min_mm.x() + 8), side * std::max(0.0, edge.max_mm.y() - 10), edge.max_mm.z());
        while (root.x() < 0 && !contains({top->outline_mm, top->cutouts_mm}, root.head<2>())) root.x() += 2;
        Perch perch;
        perch.kind = PerchKind::plate;
        perch.on = top->id;
        perch.X_FramePart.rotation = canonical(Quat::FromTwoVectors(Vec3::UnitZ(), way));
        root.z() -= boxAt(asked.type, perch.X_FramePart.rotation).min_mm.z(); // its rim rests on the plate
        perch.X_FramePart.position_mm = root;
        const bool taken = std::any_of(asked.build.parts.begin(), asked.build.parts.end(), [&](const Part &other) {
            return other.id != asked.part.id && (framePose(asked.build, other).position_mm - root).norm() < 6;
        });
        if (taken) continue;
        perch.fastening.method = FasteningMethod::ties;
        perch.fastening.onto = {top->id};
        asked.offer(perch, Vec3::Zero());
    }
}

} // namespace

void offerPlates(const Asked &asked) {
    switch (asked.type.kind) {
    case PartKind::motor:
    case PartKind::propeller:
    case PartKind::fastener:
    case PartKind::damper:
    case PartKind::strap: return; // they hold on to something else
    default: break;
    }
    if (isWhip(asked.type) || asked.type.kind == PartKind::tube) {
        offerWhipCorners(asked);
        return;
    }
    const Obstacles obstacles(asked);
    // Decks with a roof first for what is to be protected, the open sky first for what looks at it.
    std::vector<const Plate *> order;
    for (const auto &plate : asked.build.frame->plates) order.push_back(&plate);
    const bool open = asked.type.kind == PartKind::gps || asked.type.kind == PartKind::payloadCamera ||
                      asked.type.kind == PartKind::antenna || asked.type.kind == PartKind::battery;
    const auto room = [&](const Plate *plate) {
        double least = 1e3;
        for (const auto &other : asked.build.frame->plates)
            if (other.z_mm > plate->z_mm) least = std::min(least, other.z_mm - plate->z_mm - plate->thickness_mm);
        return least;
    };
    constexpr double kDeck_mm = 10; // lower slits between plates hold the arms
    std::stable_sort(order.begin(), order.end(), [&](const Plate *a, const Plate *b) {
        const auto rank = [&](const Plate *p) { return room(p) < kDeck_mm ? 2 : (room(p) >= 1e3) == open ? 0 : 1; };
        return rank(a) < rank(b);
    });
    for (const Plate *deck : order) {
        const Plate &plate = *deck;
        const Aabb edge = boundsOf(plateShape(plate), platePose(plate));
        const Polygon firm{plate.outline_mm, plate.cutouts_mm};
        // A few millimetres on the plates of crafts; a plate as large as a field is looked over coarsely.
        constexpr double kFine_mm = 3, kMostSteps = 250;
        const double step_mm = std::max(kFine_mm, edge.size_mm().head<2>().maxCoeff() / kMostSteps);
        for (const bool under : {false, true}) {
            std::optional<Pose> best;
            double least = 1e300;
            // Lengthways first; across where that is nearer to where it belongs, by more than a hair.
            for (const double yaw_deg : {0.0, 90.0}) {
                const Quat turn = canonical(Quat(Eigen::AngleAxisd(radiansFromDegrees(yaw_deg), Vec3::UnitZ())) *
                                            lyingDown(asked.type, asked.wanted.rotation));
                const Aabb own = boxAt(asked.type, turn);
                const Pose level = onFace(asked.type, {Vec3::Zero(), turn},
                                          {plate.id, under, under ? edge.min_mm.z() : edge.max_mm.z(), {}});
                if (yaw_deg > 0 && std::abs(own.size_mm().x() - own.size_mm().y()) < 1) continue;
                for (double x = edge.min_mm.x(); x <= edge.max_mm.x(); x += step_mm)
                    for (double y = edge.min_mm.y(); y <= edge.max_mm.y(); y += step_mm) {
                        const double cost = wish(asked.type.kind, {x, y}, edge);
                        if (cost >= least - (yaw_deg > 0 ? 6 : 0)) continue;
                        const Vec3 at(x, y, level.position_mm.z());
                        const Aabb box = shifted(own, at);
                        const Vec2 a = box.min_mm.head<2>(), b = box.max_mm.head<2>();
                        const Vec2 middle = (a + b) / 2;
                        // A plug may look out over the edge by a third; what is taped or tied lies on the plate.
                        const double over = asked.type.kind == PartKind::powerPlug ? 0.33 : 0.0;
                        const Vec2 reach = (b - a) * (0.5 - over);
                        bool lies = contains(firm, middle);
                        for (const double sx : {-1.0, 1.0})
                            for (const double sy : {-1.0, 1.0})
                                lies = lies && contains(firm, middle + Vec2(sx * reach.x(), sy * reach.y()));
                        if (!lies || obstacles.hit(box)) continue;
                        least = cost;
                        best = Pose{at, turn};
                    }
            }
            if (!best) continue;
            Perch perch;
            perch.kind = under ? PerchKind::plateUnder : PerchKind::plate;
            perch.on = plate.id;
            perch.X_FramePart = *best;
            // A plate without its holes holds a board by tape.
            perch.fastening.method = asked.type.mounting ? FasteningMethod::tape : usualHold(asked.type);
            perch.fastening.onto = {plate.id};
            perch.fastening.insulated = perch.fastening.method == FasteningMethod::tape;
            asked.offer(perch, Vec3::Zero());
        }
    }
}

} // namespace waxis
