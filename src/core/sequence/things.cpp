#include "core/sequence/things.h"

#include "core/build/chain.h"
#include "core/build/frame_screws.h"
#include "core/catalog/part_bounds.h"

#include <algorithm>
#include <map>

namespace waxis {

namespace {

void addWay(std::vector<Vec3> &ways, const Vec3 &direction) {
    constexpr double kSame = 0.999; // cosine
    if (direction.squaredNorm() < 0.25) return;
    const Vec3 unit = direction.normalized();
    if (std::none_of(ways.begin(), ways.end(), [&](const Vec3 &way) { return way.dot(unit) > kSame; }))
        ways.push_back(unit);
}

/// Up first, then down, then the sides: how a hand reaches into a craft.
void addFrameWays(std::vector<Vec3> &ways) {
    for (const Vec3 &axis :
         {Vec3(0, 0, 1), Vec3(0, 0, -1), Vec3(1, 0, 0), Vec3(-1, 0, 0), Vec3(0, 1, 0), Vec3(0, -1, 0)})
        addWay(ways, axis);
}

/// Along the normal of what it sits on, the axes of the frame, and out where its ports open.
std::vector<Vec3> waysOf(const Build &build, const Part &part) {
    std::vector<Vec3> ways;
    const PartType *type = typeOf(build, part);
    const Pose X_FramePart = framePose(build, part);
    addWay(ways, placementAxes(build, part).rotation * Vec3::UnitZ());
    addFrameWays(ways);
    addWay(ways, X_FramePart.rotation * Vec3::UnitZ());
    if (type)
        for (const auto &port : type->ports) addWay(ways, X_FramePart.rotation * port.direction);
    return ways;
}

/// Which end of a screw the head is at, by its bodies: +1 or -1 along its own z; 0: no body stands out sideways, or it
/// is no screw (a nut's flange is no head).
int headEnd(const PartType &type) {
    if (!type.fastener || type.fastener->form != FastenerForm::screw) return 0;
    constexpr double kOut_mm = 0.2;
    const auto across = [](const Solid &solid) {
        const Vec3 size = boundsOf(solid.shape, solid.X_PartSolid).size_mm();
        return std::min(size.x(), size.y());
    };
    const Aabb all = firmBounds(type);
    const Solid *head = nullptr;
    double thinnest = 1e300;
    for (const auto &solid : type.solids) {
        if (!head || across(solid) > across(*head)) head = &solid;
        thinnest = std::min(thinnest, across(solid));
    }
    if (!head || across(*head) < thinnest + kOut_mm) return 0;
    const Aabb box = boundsOf(head->shape, head->X_PartSolid);
    return box.min_mm.z() + box.max_mm.z() > all.min_mm.z() + all.max_mm.z() ? 1 : -1;
}

bool isScrew(const Build &build, const std::string &id) {
    const Part *part = findPart(build, id);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    return type && type->fastener && type->fastener->form == FastenerForm::screw;
}

bool isNut(const Build &build, const std::string &id) {
    const Part *part = findPart(build, id);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (!type || !type->fastener) return false;
    const FastenerForm form = type->fastener->form;
    return form == FastenerForm::nut || form == FastenerForm::lockNut || form == FastenerForm::thinLockNut;
}

/// A screw goes back the way it came, its head first; what has no head may go either way.
std::vector<Vec3> waysOfFastener(const Build &build, const Part &part) {
    std::vector<Vec3> ways;
    const PartType *type = typeOf(build, part);
    const Vec3 axis = framePose(build, part).rotation * Vec3::UnitZ();
    const int head = type ? headEnd(*type) : 0;
    if (head >= 0) addWay(ways, axis);
    if (head <= 0) addWay(ways, -axis);
    return ways;
}

class ThingTable {
public:
    ThingTable(const Build &build, const Scene &scene, int loadCase) : build_(build) {
        for (std::size_t o = 0; o < scene.owners.size(); ++o) {
            const BodyOwner &owner = scene.owners[o];
            if (owner.kind == OwnerKind::disc || !(owner.cases >> loadCase & 1)) continue;
            Thing thing;
            thing.owner = int(o);
            thing.id = owner.id;
            thing.fastener = owner.fastener || owner.kind == OwnerKind::screw;
            thing.turned = owner.kind == OwnerKind::screw || isScrew(build, owner.id);
            thing.held = isNut(build, owner.id);
            byId_.emplace(owner.id, int(things_.size()));
            things_.push_back(std::move(thing));
        }
        for (Thing &thing : things_) {
            if (const Part *part = findPart(build, thing.id))
                partRests(thing, *part);
            else
                addFrameWays(thing.ways);
        }
        for (const auto &screw : build.frame->screws) screwRests(screw);
        for (const auto &stack : build.stacks) stackRests(stack);
        for (Thing &thing : things_) thing.atTheEnd = isPropeller(thing);
        for (Thing &thing : things_)
            thing.atTheEnd |= std::any_of(thing.restsOn.begin(), thing.restsOn.end(),
                                          [&](int below) { return isPropeller(things_[std::size_t(below)]); });
    }
    std::vector<Thing> take() { return std::move(things_); }

private:
    Thing *find(const std::string &id) {
        const auto at = byId_.find(id);
        return at == byId_.end() ? nullptr : &things_[std::size_t(at->second)];
    }
    /// False: one of them is not there, or the other rests on the first already.
    bool rests(const std::string &id, const std::string &below) {
        Thing *thing = find(id);
        const auto at = byId_.find(below);
        if (!thing || at == byId_.end() || id == below || reaches(at->second, id)) return false;
        if (std::find(thing->restsOn.begin(), thing->restsOn.end(), at->second) == thing->restsOn.end())
            thing->restsOn.push_back(at->second);
        return true;
    }
    /// Of plates; what is none is far up.
    double heightOf(const std::string &id) const {
        for (const auto &plate : build_.frame->plates)
            if (plate.id == id) return plate.z_mm;
        return 1e300;
    }
    /// Whether a thing rests on the other already, over whatever lies between: the two may not rest on each other.
    bool reaches(int from, const std::string &id) const {
        std::vector<int> open{from};
        for (std::size_t k = 0; k < open.size(); ++k) {
            if (things_[std::size_t(open[k])].id == id) return true;
            for (const int below : things_[std::size_t(open[k])].restsOn)
                if (std::find(open.begin(), open.end(), below) == open.end()) open.push_back(below);
        }
        return false;
    }
    bool isPropeller(const Thing &thing) const {
        const Part *part = findPart(build_, thing.id);
        const PartType *type = part ? typeOf(build_, *part) : nullptr;
        return type && type->kind == PartKind::propeller;
    }
    void partRests(Thing &thing, const Part &part) {
        thing.ways = thing.fastener ? waysOfFastener(build_, part) : waysOf(build_, part);
        const auto place = stackPlaceOf(build_, part);
        if (place) return; // its stack says
        const auto &onto = part.fastening.onto;
        if (thing.fastener) {
            for (const auto &id : onto) rests(thing.id, id);
            return;
        }
        // What it is fastened onto first carries it; where that rests on it itself (camera and cheeks), the lowest of
        // the frame that it touches, else the next one that may.
        if (!onto.empty() && !rests(thing.id, onto.front())) {
            std::vector<std::string> others(onto.begin() + 1, onto.end());
            std::stable_sort(others.begin(), others.end(),
                             [&](const std::string &a, const std::string &b) { return heightOf(a) < heightOf(b); });
            for (const auto &id : others)
                if (rests(thing.id, id)) break;
        }
        for (const auto &site : build_.frame->sites)
            if (site.id == part.placement.site) rests(thing.id, site.on);
    }
    /// Above the base plate each member of the frame stands on the next one down, below it it hangs from the next one
    /// up; the screw comes after all of them.
    void screwRests(const FrameScrew &screw) {
        Thing *own = find(screw.id);
        if (!own) return;
        own->ways = {Vec3(0, 0, screw.fromAbove ? 1 : -1)};
        std::vector<std::string> held = screw.through;
        if (!screw.into.empty()) held.push_back(screw.into);
        const Plate *base = basePlate(*build_.frame);
        std::vector<std::pair<double, std::string>> heights;
        for (const auto &id : held) {
            if (const auto at = uprightOf(*build_.frame, id, screw.at_mm))
                heights.emplace_back((at->low_mm + at->high_mm) / 2 - (base ? base->z_mm + base->thickness_mm / 2 : 0),
                                     id);
            rests(screw.id, id);
        }
        std::sort(heights.begin(), heights.end());
        for (std::size_t i = 1; i < heights.size(); ++i) {
            const bool above = heights[i].first > 1e-6;
            rests(heights[above ? i : i - 1].second, heights[above ? i - 1 : i].second);
        }
    }
    /// From the frame outwards each layer lies on the one before. Screws whose heads are under the frame go in first
    /// and what they hold is put over them; with their heads outside they come last.
    void stackRests(const Stack &stack) {
        std::string carrier = stack.on;
        for (const auto &site : build_.frame->sites)
            if (site.id == stack.on) carrier = site.on;
        const int seat = frameLayer(stack);
        std::vector<std::string> all{carrier};
        for (const int step : {1, -1}) {
            std::vector<std::string> before{carrier};
            if (step > 0 && !stack.headsOutside) before.insert(before.end(), stack.screws.begin(), stack.screws.end());
            for (int i = seat + step; i >= 0 && i < int(stack.layers.size()); i += step) {
                const auto &parts = stack.layers[std::size_t(i)].parts;
                for (const auto &part : parts)
                    for (const auto &below : before) rests(part, below);
                all.insert(all.end(), parts.begin(), parts.end());
                if (!parts.empty()) before = parts;
            }
        }
        for (const auto &screw : stack.screws)
            for (const auto &held : stack.headsOutside ? all : std::vector<std::string>{carrier}) rests(screw, held);
    }

    const Build &build_;
    std::vector<Thing> things_;
    std::map<std::string, int> byId_;
};

} // namespace

const Plate *basePlate(const Frame &frame) {
    const Plate *lowest = nullptr;
    for (const auto &plate : frame.plates)
        if (!plate.isolated && (!lowest || plate.z_mm < lowest->z_mm)) lowest = &plate;
    return lowest;
}

std::vector<Thing> thingsOf(const Build &build, const Scene &scene, int loadCase) {
    return ThingTable(build, scene, loadCase).take();
}

} // namespace waxis
