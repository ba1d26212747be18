#include "core/analysis/build_changes.h"

#include "core/build/chain.h"
#include "core/build/log.h"

#include <algorithm>

namespace waxis {

namespace {

/// The part differs at most in where it stands or what it weighs, on the same mounting site.
bool onlyMovedOrWeighed(const Part &a, const Part &b) {
    return a.id == b.id && a.type == b.type && a.optional == b.optional && a.fastening == b.fastening &&
           a.channels == b.channels && a.placement.site == b.placement.site;
}

/// Nothing but the place differs.
bool onlyMoved(const Part &a, const Part &b) {
    return onlyMovedOrWeighed(a, b) && a.name == b.name && a.mass_g == b.mass_g && a.turns == b.turns &&
           a.pinned == b.pinned && a.slide == b.slide && a.note == b.note &&
           a.placement.tolerance_mm == b.placement.tolerance_mm;
}

/// What sits in cores is counted and weighed as parts are.
bool sameInserts(const std::vector<Wire> &a, const std::vector<Wire> &b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                      [](const Wire &x, const Wire &y) { return x.inserts == y.inserts; });
}

/// Other parts stand on it: where it goes, they go.
bool carriesAStack(const Build &build, const Part &part) {
    return std::any_of(build.stacks.begin(), build.stacks.end(), [&](const Stack &s) { return s.on == part.id; });
}

} // namespace

BuildChanges changesBetween(const Build &a, const Build &b) {
    BuildChanges changes;
    changes.copper = !(a.types == b.types) || a.parts.size() != b.parts.size();
    changes.frame = !(a.frame == b.frame);
    changes.wires = !(a.wires == b.wires && a.ties == b.ties);
    changes.radio = !(a.radioSettings == b.radioSettings && a.groundStations == b.groundStations);
    changes.weighings = !(a.weighings == b.weighings && a.weightLimits == b.weightLimits);
    changes.log = !(a.log == b.log);
    changes.structure = !(a.frame == b.frame && a.types == b.types && a.loadCases == b.loadCases &&
                          a.stacks == b.stacks && a.kit == b.kit && a.allowances == b.allowances &&
                          a.parts.size() == b.parts.size() && sameInserts(a.wires, b.wires));
    changes.rest = changes.structure || changes.wires || changes.radio || changes.weighings || changes.log ||
                   a.name != b.name || a.note != b.note || a.trials != b.trials || a.acceptances != b.acceptances ||
                   a.ownOrder != b.ownOrder || !(a.practice == b.practice);
    for (std::size_t i = 0; i < b.parts.size() && !changes.copper; ++i) {
        if (a.parts[i] == b.parts[i]) continue;
        changes.copper = !onlyMovedOrWeighed(a.parts[i], b.parts[i]);
        changes.structure |= changes.copper || carriesAStack(b, b.parts[i]);
        changes.rest |= changes.structure || !onlyMoved(a.parts[i], b.parts[i]);
        changes.changed.push_back(i);
        if (!(a.parts[i].placement == b.parts[i].placement)) changes.moved.push_back(i);
        if (const auto place = stackPlaceOf(b, b.parts[i])) changes.stacks.insert(place->stack->id);
    }
    return changes;
}

bool sameToTheEye(const Build &a, const Build &b) {
    return a.radioSettings == b.radioSettings && a.wires == b.wires && a.frame == b.frame && a.types == b.types &&
           a.loadCases == b.loadCases && a.stacks == b.stacks &&
           std::equal(a.parts.begin(), a.parts.end(), b.parts.begin(), b.parts.end(), [](const Part &x, const Part &y) {
               return x.id == y.id && x.type == y.type && x.placement == y.placement && x.optional == y.optional &&
                      x.fastening == y.fastening && x.slide == y.slide;
           });
}

} // namespace waxis
