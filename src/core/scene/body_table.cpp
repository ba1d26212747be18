#include "core/scene/body_table.h"

#include "core/base/by_id.h"
#include "core/base/units.h"
#include "core/build/arm_of.h"
#include "core/build/chain.h"
#include "core/build/frame_screws.h"
#include "core/build/frame_shapes.h"
#include "core/practice/blade_room.h"
#include "core/scene/scene.h"
#include "core/scene/tilting.h"

#include <algorithm>
#include <unordered_map>

namespace waxis {

namespace {

bool isFrameMember(const BodyOwner &owner) { return owner.kind != OwnerKind::part && owner.kind != OwnerKind::disc; }

bool related(const std::vector<BodyOwner> &owners, int a, int b) {
    return std::find(owners[a].related.begin(), owners[a].related.end(), b) != owners[a].related.end();
}

BodyOwner partOwner(const Build &build, const Part &part, const std::vector<LoadCase> &loadCases) {
    BodyOwner owner;
    owner.id = part.id;
    owner.cases = casesAboard(part, loadCases);
    owner.insulated = part.fastening.insulated;
    const auto &sites = build.frame->sites;
    // A stack on an adapter sways with the stack that the adapter lies in.
    std::string seat = part.placement.site;
    auto place = stackPlaceOf(build, part);
    if (place) owner.stack = int(place->stack - build.stacks.data());
    for (int depth = 0; place && seat.empty() && depth < 8; ++depth) {
        const Part *carrier = findPart(build, place->stack->on);
        if (!carrier) break;
        seat = carrier->placement.site;
        place = stackPlaceOf(build, *carrier);
    }
    const auto site = std::find_if(sites.begin(), sites.end(), [&](const Site &s) { return s.id == seat; });
    owner.isolated = site != sites.end() && site->isolated;
    if (const PartType *type = typeOf(build, part)) {
        owner.holds = type->kind == PartKind::fastener || type->kind == PartKind::strap;
        owner.fastener = type->kind == PartKind::fastener;
        owner.sleeve = type->kind == PartKind::tube;
        owner.carries = holdsOthers(type->kind) && !owner.holds;
        // A controller on foam swings as one on dampers does.
        owner.isolated |= type->kind == PartKind::flightController && part.fastening.method == FasteningMethod::tape;
        owner.flexible = type->flexible;
        owner.hot = type->hot;
        owner.battery = type->kind == PartKind::battery;
    }
    return owner;
}

void relateOwners(const Build &build, std::vector<BodyOwner> &owners) {
    std::unordered_map<std::string, int> byId;
    for (std::size_t i = 0; i < owners.size(); ++i) byId.emplace(owners[i].id, int(i));
    auto join = [&](int a, const std::string &id) {
        const auto b = byId.find(id);
        if (b == byId.end() || b->second == a || related(owners, a, b->second)) return;
        owners[a].related.push_back(b->second);
        owners[b->second].related.push_back(a);
    };
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        const Part &part = build.parts[i];
        for (const auto &id : part.fastening.onto) {
            join(int(i), id);
            if (const auto at = byId.find(id); at != byId.end()) owners[i].onto.push_back(at->second);
        }
        if (part.placement.site.empty()) continue;
        // A motor mount: motor, propeller and what is screwed on with them belong to its disc; a guard or lamp does
        // not.
        const PartType *type = typeOf(build, part);
        const auto seat = byId.find(part.placement.site);
        const bool disc = seat != byId.end() && owners[std::size_t(seat->second)].kind == OwnerKind::disc;
        if (!disc || !type || type->kind == PartKind::motor || type->kind == PartKind::propeller ||
            type->kind == PartKind::fastener)
            join(int(i), part.placement.site);
        for (const auto &site : build.frame->sites)
            if (site.id == part.placement.site) join(int(i), site.on);
    }
}

/// What stands on soft-mounted things, however it is fastened there, sways with them.
void passIsolationOn(const Build &build, std::vector<BodyOwner> &owners) {
    const auto soft = [&](int o) {
        if (owners[std::size_t(o)].isolated) return true;
        const PartType *type =
            owners[std::size_t(o)].kind == OwnerKind::part ? typeOf(build, build.parts[std::size_t(o)]) : nullptr;
        return type && type->kind == PartKind::damper;
    };
    for (bool changed = true; changed;) {
        changed = false;
        for (std::size_t i = 0; i < build.parts.size(); ++i) {
            BodyOwner &owner = owners[i];
            if (owner.isolated || owner.onto.empty() || owner.stack >= 0 || owner.holds) continue;
            // Held by something that stands still as well, it stands still.
            if (!std::all_of(owner.onto.begin(), owner.onto.end(), soft)) continue;
            owner.isolated = changed = true;
            for (const int below : owner.onto)
                owner.sway_mm = std::max(owner.sway_mm, owners[std::size_t(below)].sway_mm);
        }
    }
}

/// How far the bobbins under a soft plate give in a hard stop, as they state it, less where stoppers end it; 0: not
/// stated.
double swayOf(const Frame &frame, const Plate &plate) {
    constexpr double kTouch_mm = 0.1;
    const auto under = [&](const Standoff &post) {
        const double top = post.base_mm.z() + post.height_mm;
        const bool below = top <= plate.z_mm + kTouch_mm;
        return contains({plate.outline_mm, {}}, post.base_mm.head<2>()) ? (below ? plate.z_mm - top : -1.0) : -1.0;
    };
    double gives = 0;
    for (const auto &bobbin : frame.standoffs)
        if (bobbin.role == StandoffRole::bobbin && bobbin.travel_mm && std::abs(under(bobbin)) <= kTouch_mm)
            gives = std::max(gives, *bobbin.travel_mm);
    for (const auto &stopper : frame.standoffs)
        if (const double room = under(stopper); stopper.role == StandoffRole::stopper && room > 0 && gives > 0)
            gives = std::min(gives, room);
    return gives;
}

/// Parts on a soft plate's places swing as far as the plate does.
void swayOfSeats(const Build &build, std::vector<BodyOwner> &owners) {
    for (BodyOwner &owner : owners) {
        const Part *part = owner.kind == OwnerKind::part && owner.isolated ? findPart(build, owner.id) : nullptr;
        const Site *site = part ? byId(build.frame->sites, part->placement.site) : nullptr;
        const Plate *plate = site ? byId(build.frame->plates, site->on) : nullptr;
        if (plate && plate->isolated) owner.sway_mm = swayOf(*build.frame, *plate);
    }
}

/// Head and nut touch what the screw holds; what sits on that may stand on them, which FRM-4 says. Stacks and hardware
/// that stand in them are judged like anything else.
void relateScrews(const Build &build, std::vector<BodyOwner> &owners) {
    std::unordered_map<std::string, int> byId;
    for (std::size_t i = 0; i < owners.size(); ++i) byId.emplace(owners[i].id, int(i));
    const auto join = [&](int a, int b) {
        if (a == b || related(owners, a, b)) return;
        owners[std::size_t(a)].related.push_back(b);
        owners[std::size_t(b)].related.push_back(a);
    };
    for (const auto &screw : build.frame->screws) {
        const auto own = byId.find(screw.id);
        if (own == byId.end()) continue;
        std::vector<std::string> held = screw.through;
        if (!screw.into.empty()) held.push_back(screw.into);
        for (const auto &id : held) {
            const auto member = byId.find(id);
            if (member == byId.end()) continue;
            for (const int neighbour : std::vector<int>(owners[std::size_t(member->second)].related)) {
                const BodyOwner &other = owners[std::size_t(neighbour)];
                if (other.kind == OwnerKind::part && other.stack < 0 && !other.holds) join(own->second, neighbour);
            }
            join(own->second, member->second);
        }
    }
}

/// What lies on one another in a stack may touch; its screws go through all of it.
void relateStacks(const Build &build, std::vector<BodyOwner> &owners) {
    std::unordered_map<std::string, int> byId;
    for (std::size_t i = 0; i < owners.size(); ++i) byId.emplace(owners[i].id, int(i));
    auto join = [&](const std::string &one, const std::string &other) {
        const auto a = byId.find(one), b = byId.find(other);
        if (a == byId.end() || b == byId.end() || a == b || related(owners, a->second, b->second)) return;
        owners[std::size_t(a->second)].related.push_back(b->second);
        owners[std::size_t(b->second)].related.push_back(a->second);
    };
    for (const auto &stack : build.stacks) {
        const auto chain = chainOf(build, stack);
        if (!chain) continue;
        // The plates and arms that the frame layer is made of.
        std::vector<std::string> members;
        const double face = chain->X_FrameBase.position_mm.z();
        const double far = (chain->X_FrameBase * Vec3(0, 0, -chain->frame_mm)).z();
        const double low = std::min(face, far) - 0.01, high = std::max(face, far) + 0.01;
        if (!findPart(build, stack.on)) {
            for (const auto &plate : build.frame->plates)
                if (plate.z_mm >= low && plate.z_mm + plate.thickness_mm <= high) members.push_back(plate.id);
            for (const auto &arm : build.frame->arms)
                if (arm.root_mm.z() - arm.thickness_mm >= low && arm.root_mm.z() <= high) members.push_back(arm.id);
        } else
            members.push_back(stack.on);
        const std::vector<std::string> *previous = &members;
        std::vector<std::vector<std::string>> rows;
        const int seat = frameLayer(stack);
        bool sheet = false;
        auto chainUp = [&](int i, const std::vector<std::string> *&before) {
            const StackLayer &layer = stack.layers[std::size_t(i)];
            if (layer.role == LayerRole::sheet) sheet = true;
            if (layer.parts.empty()) return;
            for (const auto &a : layer.parts)
                for (const auto &b : *before) join(a, b);
            if (layer.role == LayerRole::board && sheet) {
                const auto at = byId.find(layer.parts.front());
                if (at != byId.end()) owners[std::size_t(at->second)].insulated = true;
            }
            if (layer.role == LayerRole::board) { // it faces the plate or board before, over what lies between
                for (const auto &b : rows.empty() ? members : rows.back()) join(layer.parts.front(), b);
                rows.push_back(layer.parts);
                sheet = false;
            }
            before = &layer.parts;
        };
        for (int i = seat + 1; i < int(stack.layers.size()); ++i) chainUp(i, previous);
        previous = &members;
        rows.clear();
        sheet = false;
        for (int i = seat - 1; i >= 0; --i) chainUp(i, previous);
        for (const auto &screw : stack.screws) {
            for (const auto &member : members) join(screw, member);
            for (const auto &layer : stack.layers)
                for (const auto &id : layer.parts) join(screw, id);
        }
    }
}

/// The farthest gap that can be asked of a body. A pair is found when either box, inflated, meets the other, so
/// the one with the special trait carries the whole reach.
double reachOf(const BodyOwner &owner, const BodyTraits &traits, const Practice &practice) {
    double reach = std::max(0.1, practice[Limit::heldGap] + 0.01);
    auto need = [&](Limit limit) { reach = std::max(reach, practice[limit] + kLookAhead_mm); };
    if (owner.kind == OwnerKind::disc) {
        need(Limit::propRigidGap);
        need(Limit::propFlexibleGap);
    }
    if (owner.isolated) need(Limit::swayGap);
    if (owner.isolated) reach = std::max(reach, owner.sway_mm + kLookAhead_mm);
    if (owner.hot) need(Limit::heatGap);
    if (traits.bare) need(Limit::bareGap);
    return reach;
}

} // namespace

std::vector<Pose> bodyPosesOf(const Build &build, const Part &part) {
    std::vector<Pose> poses;
    const PartType *type = typeOf(build, part);
    if (!type) return poses;
    const auto seat = stackSeatOf(build, part);
    const Pose X_FramePart = framePoseAt(build, part, seat);
    for (const auto &solid : solidsAt(*type, seat)) poses.push_back(X_FramePart * solid.X_PartSolid);
    return poses;
}

BodyTable bodyTableOf(const Build &build, const std::vector<LoadCase> &loadCases, const Practice &practice) {
    BodyTable table;
    const Frame &frame = *build.frame;
    const CaseMask all = ~CaseMask(0);
    auto addBody = [&](const Shape &shape, const Pose &pose, BodyTraits traits) {
        traits.owner = int(table.owners.size()) - 1;
        table.traits.push_back(traits);
        table.bodies.push_back({traits.owner, shape, pose, reachOf(table.owners.back(), traits, practice)});
    };
    auto printed = [&](const std::string &material) {
        const Material *found = findMaterial(material, frame.materials);
        return found && found->printed;
    };
    const StackSeats seats = stackSeats(build);
    for (std::size_t p = 0; p < build.parts.size(); ++p) {
        const Part &part = build.parts[p];
        table.owners.push_back(partOwner(build, part, loadCases));
        const PartType *type = typeOf(build, part);
        if (!type) continue;
        const Pose X_FramePart = framePoseAt(build, part, seats[p]);
        const bool drawnOut = seats[p] && seats[p]->stretch != 1;
        const std::vector<Solid> own = drawnOut ? solidsAt(*type, seats[p]) : std::vector<Solid>{};
        const std::vector<Solid> &solids = drawnOut ? own : type->solids;
        for (std::size_t i = 0; i < solids.size(); ++i) {
            const Solid &solid = solids[i];
            BodyTraits traits;
            traits.solid = int(i);
            traits.soft = solid.role == SolidRole::soft;
            traits.bare = solid.bare;
            traits.component = solid.role == SolidRole::component || solid.role == SolidRole::connector ||
                               solid.role == SolidRole::shield;
            traits.conductive = conducts(solid.material, frame.materials);
            traits.printed = printed(solid.material);
            addBody(solid.shape, X_FramePart * solid.X_PartSolid, traits);
        }
    }
    auto addMember = [&](OwnerKind kind, const std::string &id, const Shape &shape, const Pose &pose,
                         const std::string &material, bool isolated) {
        BodyOwner owner;
        owner.kind = kind;
        owner.id = id;
        owner.cases = all;
        owner.isolated = isolated;
        table.owners.push_back(std::move(owner));
        BodyTraits traits;
        traits.conductive = conducts(material, frame.materials);
        traits.printed = printed(material);
        addBody(shape, pose, traits);
    };
    for (const auto &plate : frame.plates) {
        addMember(OwnerKind::plate, plate.id, plateShape(plate), platePose(plate), plate.material, plate.isolated);
        if (plate.isolated) table.owners.back().sway_mm = swayOf(frame, plate);
    }
    for (const auto &arm : frame.arms) {
        addMember(OwnerKind::arm, arm.id, armShape(arm), armPose(arm), arm.material, false);
        const auto walls = armWalls(arm);
        if (walls.empty()) continue;
        BodyTraits traits = table.traits.back();
        table.traits.pop_back();
        table.bodies.pop_back();
        for (const auto &[shape, pose] : walls) {
            addBody(shape, pose, traits);
            ++traits.solid;
        }
    }
    for (const auto &standoff : frame.standoffs) {
        addMember(OwnerKind::standoff, standoff.id, standoffShape(standoff), standoffPose(standoff), standoff.material,
                  false);
        table.traits.back().soft = standoff.role == StandoffRole::bobbin;
        table.traits.back().stopper = standoff.role == StandoffRole::stopper;
    }
    const Brackets brackets = bracketsOf(build);
    for (const auto &screw : frame.screws) {
        BodyOwner owner;
        owner.kind = OwnerKind::screw;
        owner.id = screw.id;
        owner.cases = all;
        owner.holds = true;
        table.owners.push_back(std::move(owner));
        BodyTraits traits;
        traits.conductive = true; // steel
        for (const auto &[shape, pose] : bodiesOf(frame, screw, brackets)) addBody(shape, pose, traits);
    }
    const BladeRoom room = bladeRoomOf(practice);
    for (const auto &mount : frame.motorMounts) {
        addMember(OwnerKind::disc, mount.id, discShape(mount, room), discPose(mount, room), {}, false);
        if (!tiltingServo(build, mount)) continue;
        const Arm *arm = armOf(frame, mount);
        // A servo sweeps it about its arm: the zone is that of the whole travel.
        const Vec3 along = (arm->tip_mm - arm->root_mm).normalized();
        for (const double share : {-1.0, -0.5, 0.5, 1.0}) {
            const Quat by(Eigen::AngleAxisd(radiansFromDegrees(share * kServoTravel_deg), along));
            MotorMount tilted = mount;
            tilted.axis = by * mount.axis;
            addBody(discShape(tilted, room), discPose(tilted, room), {});
        }
    }
    relateOwners(build, table.owners);
    swayOfSeats(build, table.owners);
    passIsolationOn(build, table.owners);
    relateStacks(build, table.owners);
    relateScrews(build, table.owners);
    return table;
}

PairDemands demandsOf(const std::vector<BodyOwner> &owners, const BodyTraits &ta, const BodyTraits &tb) {
    PairDemands demands;
    const BodyOwner &a = owners[ta.owner], &b = owners[tb.owner];
    if (!(a.cases & b.cases)) return demands; // never aboard together
    const bool discA = a.kind == OwnerKind::disc, discB = b.kind == OwnerKind::disc;
    if (discA && discB) return demands;
    if (isFrameMember(a) && isFrameMember(b)) {
        const bool soft = ta.soft || tb.soft;
        const bool screwed = a.kind == OwnerKind::screw || b.kind == OwnerKind::screw;
        demands.held = !screwed;
        // Arms may run into one another at the hub; what a screw holds is its own hole's matter (FRM-1).
        const auto post = [](const BodyOwner &one, const BodyOwner &other) { // where posts and plates meet: FRM-2
            return one.kind == OwnerKind::standoff && other.kind == OwnerKind::plate;
        };
        demands.overlap = !soft && !post(a, b) && !post(b, a) && !related(owners, ta.owner, tb.owner) &&
                          !(a.kind == OwnerKind::arm && b.kind == OwnerKind::arm);
        // A stopper is there to be met.
        const bool stopper = (ta.stopper || tb.stopper);
        demands.sway = !soft && !stopper && a.isolated != b.isolated && !related(owners, ta.owner, tb.owner);
        demands.sway_mm = std::max(a.sway_mm, b.sway_mm);
        return demands;
    }
    const bool fastened = related(owners, ta.owner, tb.owner);
    if (discA || discB) {
        const BodyOwner &thing = discA ? b : a;
        const BodyTraits &body = discA ? tb : ta;
        if (!fastened) demands.propeller = thing.flexible || body.soft ? Limit::propFlexibleGap : Limit::propRigidGap;
        return demands;
    }
    // What bends stands in tubes and in the holes of mounts, and tubes are clamped through mounts.
    const auto takes = [](const BodyOwner &holder, const BodyOwner &held) {
        return (holder.carries && held.flexible) || (holder.carries && !holder.sleeve && held.sleeve);
    };
    const bool sheathed = takes(a, b) || takes(b, a);
    const bool passesThrough = fastened && (a.holds || b.holds || sheathed);
    const bool anySoft = ta.soft || tb.soft;
    demands.held = fastened;
    // Hardware goes through boards, not through what stands on them round the hole.
    const bool strikes = (a.fastener && tb.component) || (b.fastener && ta.component);
    demands.overlap = (!passesThrough || strikes) && !anySoft;
    demands.seated = fastened && (a.carries || b.carries);
    demands.heads = fastened && (a.kind == OwnerKind::screw || b.kind == OwnerKind::screw) && !anySoft;
    demands.sway = a.isolated != b.isolated && !fastened && !anySoft;
    demands.sway_mm = std::max(a.sway_mm, b.sway_mm);
    const bool insulated = fastened && (a.insulated || b.insulated);
    auto warms = [](const BodyOwner &hot, const BodyTraits &hotBody, const BodyOwner &other, const BodyTraits &body) {
        return hot.hot && !hotBody.soft && (other.battery || body.printed);
    };
    demands.heat = !insulated && (warms(a, ta, b, tb) || warms(b, tb, a, ta));
    // Within a stack bare metal is judged by its own rule, wire ends included.
    demands.bare = !insulated && !passesThrough && !(fastened && (a.stack >= 0 || b.stack >= 0)) &&
                   ((ta.bare && tb.conductive) || (tb.bare && ta.conductive));
    return demands;
}

PairInterest interestIn(const PairDemands &demands, const Practice &practice) {
    PairInterest interest;
    if (!demands.any()) return interest;
    interest.look = true;
    constexpr double kHair_mm = 1e-6;
    interest.overlap = demands.overlap || demands.propeller || demands.heads;
    auto need = [&](Limit limit) {
        interest.within_mm = std::max(interest.within_mm, practice[limit] + kLookAhead_mm);
    };
    if (demands.held) interest.within_mm = std::max(interest.within_mm, practice[Limit::heldGap] + kHair_mm);
    if (demands.sway && demands.sway_mm <= 0) need(Limit::swayGap);
    if (demands.sway) interest.within_mm = std::max(interest.within_mm, demands.sway_mm + kLookAhead_mm);
    if (demands.heat) need(Limit::heatGap);
    if (demands.bare) need(Limit::bareGap);
    if (demands.propeller) need(*demands.propeller);
    return interest;
}

} // namespace waxis
