#include "core/build/chain.h"

#include "core/build/frame_shapes.h"

#include <algorithm>
#include <cmath>
#include <unordered_map>

namespace waxis {

namespace {

constexpr int kMostStacked = 8; // a stack on an adapter on a stack ...: deeper is a ring

Pose poseAt(const Build &build, const Part &part, int depth);
std::optional<StackChain> chainAt(const Build &build, const Stack &stack, int depth);

const Site *siteOf(const Frame &frame, const std::string &id) {
    const auto at = std::find_if(frame.sites.begin(), frame.sites.end(), [&](const Site &s) { return s.id == id; });
    return at == frame.sites.end() ? nullptr : &*at;
}

LayerSpan boundsAlongZ(const PartType &type, auto &&takes) {
    Aabb bounds;
    for (const auto &solid : type.solids)
        if (takes(solid)) bounds.include(boundsOf(solid.shape, solid.X_PartSolid));
    return bounds.empty() ? LayerSpan{0, 0} : LayerSpan{bounds.min_mm.z(), bounds.max_mm.z()};
}

bool coversAHole(const Solid &solid, const HolePattern &pattern) {
    const Aabb bounds = boundsOf(solid.shape, solid.X_PartSolid);
    const auto holes = holeCentres(pattern);
    return std::any_of(holes.begin(), holes.end(), [&](const Vec2 &h) {
        return h.x() >= bounds.min_mm.x() && h.x() <= bounds.max_mm.x() && h.y() >= bounds.min_mm.y() &&
               h.y() <= bounds.max_mm.y();
    });
}

/// Distance from the base face down to the far face of a frame member, mm.
double reachDown_mm(const Frame &frame, const Pose &X_FrameBase, const std::string &member) {
    const Vec3 down = X_FrameBase.rotation * -Vec3::UnitZ();
    auto reach = [&](double low_mm, double high_mm) {
        const double face = down.z() < 0 ? low_mm : high_mm;
        return std::abs(down.z()) < 0.5 ? high_mm - low_mm : (face - X_FrameBase.position_mm.z()) / down.z();
    };
    for (const auto &plate : frame.plates)
        if (plate.id == member) return std::max(0.0, reach(plate.z_mm, plate.z_mm + plate.thickness_mm));
    for (const auto &arm : frame.arms)
        if (arm.id == member) return std::max(0.0, reach(arm.root_mm.z() - arm.thickness_mm, arm.root_mm.z()));
    return 0;
}

struct Base {
    Pose X_FrameBase;
    double thickness_mm = 0; ///< of the frame layer
};

std::optional<Base> baseAt(const Build &build, const Stack &stack, int depth) {
    if (const Site *site = siteOf(*build.frame, stack.on))
        return Base{site->X_FrameSite, reachDown_mm(*build.frame, site->X_FrameSite, throughOf(build, stack))};
    const Part *carrier = findPart(build, stack.on);
    const PartType *type = carrier ? typeOf(build, *carrier) : nullptr;
    if (!type || !type->carries || depth >= kMostStacked) return std::nullopt;
    // Outwards is where the carrier's own stack grows; one that stands alone carries on its upper face.
    Vec3 outwards = Vec3::UnitZ();
    if (const auto place = stackPlaceOf(build, *carrier)) {
        const auto below = chainAt(build, *place->stack, depth + 1);
        if (!below) return std::nullopt;
        outwards = below->X_FrameBase.rotation * Vec3::UnitZ();
    }
    const Pose X_FrameCarrier = poseAt(build, *carrier, depth + 1);
    const LayerSpan plate = clampedSpan(*type);
    const bool upright = (X_FrameCarrier.rotation * Vec3::UnitZ()).dot(outwards) >= 0;
    const Pose X_CarrierBase{Vec3(0, 0, upright ? plate.to_mm : plate.from_mm),
                             upright ? Quat::Identity() : Quat(0, 1, 0, 0)};
    return Base{X_FrameCarrier * X_CarrierBase, plate.to_mm - plate.from_mm};
}

double heightInColumn_mm(const Build &build, const Stack &stack, int layer) {
    const StackLayer &own = stack.layers[std::size_t(layer)];
    return sheetCarries(stack, layer) ? freeHeight_mm(build, own) : layerHeight_mm(build, own);
}

std::optional<StackChain> chainAt(const Build &build, const Stack &stack, int depth) {
    const auto base = baseAt(build, stack, depth);
    const int seat = frameLayer(stack);
    if (!base || seat < 0) return std::nullopt;
    StackChain chain;
    chain.X_FrameBase = base->X_FrameBase;
    chain.frame_mm = base->thickness_mm;
    chain.spans.resize(stack.layers.size());
    double z = 0;
    for (std::size_t i = std::size_t(seat) + 1; i < stack.layers.size(); ++i) {
        const double next = z + heightInColumn_mm(build, stack, int(i));
        chain.spans[i] = {z, next};
        z = next;
    }
    chain.top_mm = z;
    z = -base->thickness_mm;
    chain.spans[std::size_t(seat)] = {z, 0};
    for (int i = seat - 1; i >= 0; --i) {
        const double next = z - heightInColumn_mm(build, stack, i);
        chain.spans[std::size_t(i)] = {next, z};
        z = next;
    }
    chain.bottom_mm = z;
    return chain;
}

StackSeat seatIn(const Build &build, const StackChain &chain, const StackPlace &place, const Part &part,
                 const PartType &type) {
    Pose X_BasePart = part.placement.pose;
    StackSeat seat;
    if (place.layer < 0) {
        const bool outside = place.stack->headsOutside;
        X_BasePart.position_mm.z() = outside ? chain.top_mm : chain.bottom_mm;
        X_BasePart.rotation = outside ? Quat(0, 1, 0, 0) : Quat::Identity();
        if (place.stack->cut_mm > 0 && type.fastener && type.fastener->length_mm > 0 && !type.solids.empty()) {
            seat.stretch = std::max(0.05, 1 - place.stack->cut_mm / type.fastener->length_mm);
            double all = 0; // the head stays whole
            for (const auto &solid : type.solids) all += shapeProperties(solid.shape).volume_mm3;
            const double shank = shapeProperties(type.solids.front().shape).volume_mm3;
            if (all > 0) seat.kept = 1 - (1 - seat.stretch) * shank / all;
        }
    } else {
        const StackLayer &layer = place.stack->layers[std::size_t(place.layer)];
        const LayerSpan &span = chain.spans[std::size_t(place.layer)];
        const LayerSpan own = clampedSpan(type);
        const double natural = own.to_mm - own.from_mm;
        if (isHardware(layer.role) && natural > 0) seat.stretch = (span.to_mm - span.from_mm) / natural;
        if (layer.cutTo_mm) {
            StackLayer whole = layer;
            whole.cutTo_mm.reset();
            if (const double free = freeHeight_mm(build, whole); free > 0)
                seat.kept = freeHeight_mm(build, layer) / free;
        }
        const bool upright = (X_BasePart.rotation * Vec3::UnitZ()).z() >= 0;
        X_BasePart.position_mm.z() =
            upright ? span.from_mm - own.from_mm * seat.stretch : span.from_mm + own.to_mm * seat.stretch;
    }
    seat.X_FramePart = chain.X_FrameBase * X_BasePart;
    return seat;
}

std::optional<StackSeat> seatAt(const Build &build, const Part &part, int depth) {
    const auto place = stackPlaceOf(build, part);
    const PartType *type = place ? typeOf(build, part) : nullptr;
    if (!type) return std::nullopt;
    const auto chain = chainAt(build, *place->stack, depth);
    if (!chain) return std::nullopt;
    return seatIn(build, *chain, *place, part, *type);
}

Pose poseAt(const Build &build, const Part &part, int depth) {
    return framePoseAt(build, part, seatAt(build, part, depth));
}

} // namespace

bool liesOnly(LayerRole role) { return role == LayerRole::wires || role == LayerRole::sheet; }

bool isHardware(LayerRole role) {
    return role == LayerRole::damper || role == LayerRole::spacer || role == LayerRole::nut ||
           role == LayerRole::washer || role == LayerRole::shim;
}

bool sheetCarries(const Stack &stack, int layer) {
    if (stack.layers[std::size_t(layer)].role != LayerRole::sheet) return false;
    const auto solid = [&](int i) { // a neighbour that something is stuck to
        const LayerRole role = stack.layers[std::size_t(i)].role;
        return role == LayerRole::board || role == LayerRole::adapter || role == LayerRole::frame;
    };
    bool below = false, above = false;
    for (int i = layer - 1; i >= 0 && !below; --i) {
        if (!solid(i) && stack.layers[std::size_t(i)].role != LayerRole::sheet) return false;
        below = solid(i);
    }
    for (int i = layer + 1; i < int(stack.layers.size()) && !above; ++i) {
        if (!solid(i) && stack.layers[std::size_t(i)].role != LayerRole::sheet) return false;
        above = solid(i);
    }
    return below && above;
}

const Stack *findStack(const Build &build, const std::string &id) {
    const auto at = std::find_if(build.stacks.begin(), build.stacks.end(), [&](const Stack &s) { return s.id == id; });
    return at == build.stacks.end() ? nullptr : &*at;
}

int frameLayer(const Stack &stack) {
    const auto at = std::find_if(stack.layers.begin(), stack.layers.end(),
                                 [](const StackLayer &l) { return l.role == LayerRole::frame; });
    return at == stack.layers.end() ? -1 : int(at - stack.layers.begin());
}

const HolePattern *patternOf(const Build &build, const Stack &stack) {
    if (const Site *site = siteOf(*build.frame, stack.on)) return site->pattern ? &*site->pattern : nullptr;
    const Part *carrier = findPart(build, stack.on);
    const PartType *type = carrier ? typeOf(build, *carrier) : nullptr;
    return type && type->carries ? &*type->carries : nullptr;
}

std::string carrierOf(const Build &build, const Stack &stack) {
    const Site *site = siteOf(*build.frame, stack.on);
    return site ? site->on : std::string();
}

std::string throughOf(const Build &build, const Stack &stack) {
    return stack.through.empty() ? carrierOf(build, stack) : stack.through;
}

LayerSpan clampedSpan(const PartType &type) {
    if (type.kind == PartKind::fastener || type.kind == PartKind::damper)
        return boundsAlongZ(type, [&](const Solid &solid) { return &solid == &type.solids.front(); });
    const LayerSpan board = boundsAlongZ(type, [](const Solid &solid) { return solid.role == SolidRole::board; });
    if (board.to_mm > board.from_mm) return board;
    if (type.mounting && !type.carries) {
        const LayerSpan held = boundsAlongZ(type, [&](const Solid &solid) {
            return solid.role != SolidRole::soft && coversAHole(solid, *type.mounting);
        });
        if (held.to_mm > held.from_mm) return held;
    }
    return boundsAlongZ(type, [](const Solid &solid) { return solid.role != SolidRole::soft; });
}

const PartType *layerType(const Build &build, const StackLayer &layer) {
    const Part *part = layer.parts.empty() ? nullptr : findPart(build, layer.parts.front());
    return part ? typeOf(build, *part) : nullptr;
}

double freeHeight_mm(const Build &build, const StackLayer &layer) {
    if (layer.role == LayerRole::frame) return 0;
    double height = layer.height_mm.value.value_or(0);
    if (!layer.height_mm.known())
        if (const PartType *type = layerType(build, layer)) {
            const LayerSpan span = clampedSpan(*type);
            height = span.to_mm - span.from_mm;
        }
    return layer.cutTo_mm ? std::min(*layer.cutTo_mm, height) : height;
}

double layerHeight_mm(const Build &build, const StackLayer &layer) {
    if (liesOnly(layer.role)) return 0;
    const double height = freeHeight_mm(build, layer);
    return layer.role == LayerRole::damper ? height * (1 - layer.squeeze) : height;
}

std::optional<StackChain> chainOf(const Build &build, const Stack &stack) { return chainAt(build, stack, 0); }

std::optional<StackPlace> stackPlaceOf(const Build &build, const Part &part) {
    if (part.fastening.method != FasteningMethod::stack) return std::nullopt; // most parts: nothing to look for
    for (const auto &stack : build.stacks) {
        for (std::size_t i = 0; i < stack.screws.size(); ++i)
            if (stack.screws[i] == part.id) return StackPlace{&stack, -1, int(i)};
        for (std::size_t l = 0; l < stack.layers.size(); ++l)
            for (std::size_t i = 0; i < stack.layers[l].parts.size(); ++i)
                if (stack.layers[l].parts[i] == part.id) return StackPlace{&stack, int(l), int(i)};
    }
    return std::nullopt;
}

std::optional<StackSeat> stackSeatOf(const Build &build, const Part &part) { return seatAt(build, part, 0); }

Pose framePose(const Build &build, const Part &part) { return poseAt(build, part, 0); }

Pose placementAxes(const Build &build, const Part &part) {
    if (const auto place = stackPlaceOf(build, part))
        if (const auto chain = chainOf(build, *place->stack)) return chain->X_FrameBase;
    return sitePose(*build.frame, part.placement.site).value_or(Pose{});
}

StackSeats stackSeats(const Build &build) {
    StackSeats seats(build.parts.size());
    if (build.stacks.empty()) return seats;
    std::unordered_map<std::string, std::size_t> byId;
    for (std::size_t i = 0; i < build.parts.size(); ++i) byId.emplace(build.parts[i].id, i);
    for (const auto &stack : build.stacks) {
        const auto chain = chainOf(build, stack);
        if (!chain) continue;
        auto seat = [&](const std::string &id, int layer, std::size_t index) {
            const auto at = byId.find(id);
            if (at == byId.end()) return;
            const Part &part = build.parts[at->second];
            const PartType *type = typeOf(build, part);
            if (type && part.fastening.method == FasteningMethod::stack)
                seats[at->second] = seatIn(build, *chain, {&stack, layer, int(index)}, part, *type);
        };
        for (std::size_t i = 0; i < stack.screws.size(); ++i) seat(stack.screws[i], -1, i);
        for (std::size_t l = 0; l < stack.layers.size(); ++l)
            for (std::size_t i = 0; i < stack.layers[l].parts.size(); ++i) seat(stack.layers[l].parts[i], int(l), i);
    }
    return seats;
}

Pose framePoseAt(const Build &build, const Part &part, const std::optional<StackSeat> &seat) {
    if (seat) return seat->X_FramePart;
    if (part.placement.site.empty()) return part.placement.pose;
    const auto site = sitePose(*build.frame, part.placement.site);
    return site ? *site * part.placement.pose : part.placement.pose;
}

std::vector<Solid> placedSolids(const Build &build, const Part &part) {
    const PartType *type = typeOf(build, part);
    return type ? solidsAt(*type, stackSeatOf(build, part)) : std::vector<Solid>{};
}

std::vector<Solid> solidsAt(const PartType &type, const std::optional<StackSeat> &seat) {
    std::vector<Solid> solids = type.solids;
    if (!seat || seat->stretch == 1 || solids.empty()) return solids;
    // Only the piece that is clamped gives way; a male end keeps its length.
    Solid &held = solids.front();
    if (!held.X_PartSolid.rotation.isApprox(Quat::Identity())) return solids;
    held.X_PartSolid.position_mm.z() *= seat->stretch;
    if (auto *box = std::get_if<Box>(&held.shape)) box->fullSize_mm.z() *= seat->stretch;
    if (auto *cylinder = std::get_if<Cylinder>(&held.shape)) cylinder->length_mm *= seat->stretch;
    if (auto *prism = std::get_if<Prism>(&held.shape)) prism->thickness_mm *= seat->stretch;
    if (auto *mesh = std::get_if<Mesh>(&held.shape)) {
        for (auto &p : mesh->points_mm) p.z() *= seat->stretch;
        mesh->exact.reset();
    }
    return solids;
}

const PartType &placedType(const Build &build, const Part &part, const PartType &type, PartType &own) {
    const auto seat = stackSeatOf(build, part);
    if (!seat || seat->stretch == 1) return type;
    own = type;
    own.solids = solidsAt(type, seat);
    return own;
}

} // namespace waxis
