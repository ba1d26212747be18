#include "core/recognise/recognise.h"

#include <algorithm>
#include <fmt/format.h>
#include <numeric>

namespace waxis {

namespace {

struct Box2 {
    Vec2 low = Vec2::Constant(1e300), high = Vec2::Constant(-1e300);
    bool holds(const Box2 &other) const {
        return (low.array() <= other.low.array() + 1e-9).all() && (high.array() >= other.high.array() - 1e-9).all();
    }
};

Box2 boxOf(const Ring &ring) {
    Box2 box;
    for (const auto &p : ring) {
        box.low = box.low.cwiseMin(p);
        box.high = box.high.cwiseMax(p);
    }
    return box;
}

struct Node {
    const ClosedLoop *loop;
    Box2 box;
    int parent = -1, depth = 0;
};

bool standsIn(const Node &inner, const Node &outer) {
    if (inner.loop->area_mm2 >= outer.loop->area_mm2 || !outer.box.holds(inner.box)) return false;
    // A corner may lie on the other's edge: the middle of an edge settles it then.
    int in = 0, out = 0;
    const Ring &ring = inner.loop->ring;
    const std::size_t step = std::max<std::size_t>(1, ring.size() / 5);
    const Polygon polygon{outer.loop->ring, {}};
    for (std::size_t i = 0; i < ring.size(); i += step) {
        const Vec2 p = (ring[i] + ring[(i + 1) % ring.size()]) / 2;
        (contains(polygon, p) ? in : out)++;
    }
    return in > out;
}

/// Parents and depths among the nodes given, largest first.
void nest(std::vector<Node> &nodes) {
    std::stable_sort(nodes.begin(), nodes.end(),
                     [](const Node &a, const Node &b) { return a.loop->area_mm2 > b.loop->area_mm2; });
    std::vector<int> open; // outlines so far, the latest (smallest) searched first
    for (std::size_t i = 0; i < nodes.size(); ++i) {
        nodes[i].parent = -1;
        nodes[i].depth = 0;
        for (auto at = open.rbegin(); at != open.rend(); ++at)
            if (standsIn(nodes[i], nodes[std::size_t(*at)])) {
                nodes[i].parent = *at;
                nodes[i].depth = nodes[std::size_t(*at)].depth + 1;
                break;
            }
        open.push_back(int(i));
    }
}

/// Holes have few loops in them; a round or long thin hole can hold nothing worth searching.
std::map<std::string, std::vector<Node>> nodesByLayer(const std::vector<ClosedLoop> &loops) {
    std::map<std::string, std::vector<Node>> byLayer;
    for (const auto &loop : loops) byLayer[loop.layer].push_back({&loop, boxOf(loop.ring), -1, 0});
    for (auto &[layer, nodes] : byLayer) nest(nodes);
    return byLayer;
}

void addHole(FoundPlate &plate, const ClosedLoop &loop) {
    if (const auto circle = circleOf(loop)) {
        FoundHole hole;
        hole.centre_mm = circle->centre_mm;
        hole.diameter_mm = circle->diameter_mm;
        hole.screw = screwForHole(hole.diameter_mm);
        plate.holes.push_back(hole);
    } else {
        plate.cutouts.push_back(slotOf(loop));
    }
}

/// Long holes that point at a motor's middle belong to its base.
void markMotorSlots(FoundPlate &plate) {
    for (auto &slot : plate.cutouts)
        for (const auto &hole : plate.holes) {
            const Vec2 d = slot.centre_mm - hole.centre_mm;
            if (hole.diameter_mm < 4 || d.norm() < 5 || d.norm() > 15 || slot.width_mm > 4 || slot.length_mm > 9)
                continue;
            const double angle = std::atan2(d.y(), d.x()) - slot.angle_deg * 3.14159265358979323846 / 180;
            if (std::abs(std::sin(angle)) < 0.09) slot.use = SlotUse::motorSlot;
        }
}

double edgeDistance(const Ring &ring, const Vec2 &p) {
    double least = 1e300;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 a = ring[i], d = ring[(i + 1) % ring.size()] - a;
        const double along = d.squaredNorm() > 0 ? std::clamp((p - a).dot(d) / d.squaredNorm(), 0.0, 1.0) : 0;
        least = std::min(least, (a + along * d - p).norm());
    }
    return least;
}

/// How far a point is inside a ring, mm; negative: outside.
double depthIn(const Ring &ring, const Vec2 &p) {
    const double off = edgeDistance(ring, p);
    return contains({ring, {}}, p) ? off : -off;
}

/// A point where the edges of two rings cross; none where they do not.
std::optional<Vec2> crossingOf(const Ring &a, const Ring &b) {
    const Box2 boxA = boxOf(a), boxB = boxOf(b);
    if ((boxA.low.array() > boxB.high.array()).any() || (boxB.low.array() > boxA.high.array()).any())
        return std::nullopt;
    const auto cross = [](const Vec2 &u, const Vec2 &v) { return u.x() * v.y() - u.y() * v.x(); };
    for (std::size_t i = 0; i < a.size(); ++i)
        for (std::size_t k = 0; k < b.size(); ++k) {
            const Vec2 p = a[i], r = a[(i + 1) % a.size()] - p, q = b[k], s = b[(k + 1) % b.size()] - q;
            const double slant = cross(r, s);
            if (std::abs(slant) < 1e-12) continue;
            const double t = cross(q - p, s) / slant, u = cross(q - p, r) / slant;
            if (t > 0 && t < 1 && u > 0 && u < 1) return Vec2(p + t * r);
        }
    return std::nullopt;
}

std::string slotWords(const FoundSlot &slot) {
    return fmt::format("{} {:.1f} x {:.1f} mm", slot.use == SlotUse::window ? "cut-out" : "slot", slot.length_mm,
                       slot.width_mm);
}

/// What a cutter could not cut or a builder would not want: openings over the edge or into one another, outlines of one
/// layer that cross.
void findFaults(Recognition &found) {
    constexpr double kHair_mm = 0.05;
    constexpr std::size_t kMost = 400; // openings of one plate that are looked at in pairs
    for (std::size_t i = 0; i < found.plates.size(); ++i) {
        const FoundPlate &plate = found.plates[i];
        const auto fault = [&](const Vec2 &at, std::string text) { found.faults.push_back({i, at, std::move(text)}); };
        for (const auto &hole : plate.holes)
            if (depthIn(plate.outline_mm, hole.centre_mm) < hole.diameter_mm / 2 - kHair_mm)
                fault(hole.centre_mm,
                      fmt::format("the {:.1f} mm hole breaks through the edge of the plate", hole.diameter_mm));
        for (const auto &slot : plate.cutouts) {
            const auto over = std::find_if(slot.ring.begin(), slot.ring.end(),
                                           [&](const Vec2 &p) { return depthIn(plate.outline_mm, p) < -kHair_mm; });
            if (over != slot.ring.end())
                fault(*over, fmt::format("the {} runs over the edge of the plate", slotWords(slot)));
        }
        if (plate.holes.size() > kMost || plate.cutouts.size() > kMost) continue;
        for (std::size_t a = 0; a < plate.holes.size(); ++a) {
            const FoundHole &hole = plate.holes[a];
            for (std::size_t b = a + 1; b < plate.holes.size(); ++b)
                if ((plate.holes[b].centre_mm - hole.centre_mm).norm() <
                    (plate.holes[b].diameter_mm + hole.diameter_mm) / 2 - kHair_mm)
                    fault(hole.centre_mm, fmt::format("the {:.1f} and {:.1f} mm holes run into one another",
                                                      hole.diameter_mm, plate.holes[b].diameter_mm));
            for (const auto &slot : plate.cutouts)
                if (depthIn(slot.ring, hole.centre_mm) > -hole.diameter_mm / 2 + kHair_mm)
                    fault(hole.centre_mm,
                          fmt::format("the {:.1f} mm hole runs into the {}", hole.diameter_mm, slotWords(slot)));
        }
        for (std::size_t a = 0; a < plate.cutouts.size(); ++a)
            for (std::size_t b = a + 1; b < plate.cutouts.size(); ++b)
                if (const auto at = crossingOf(plate.cutouts[a].ring, plate.cutouts[b].ring))
                    fault(*at, fmt::format("the {} runs into the {}", slotWords(plate.cutouts[a]),
                                           slotWords(plate.cutouts[b])));
        for (std::size_t k = 0; k < found.plates.size(); ++k) {
            const FoundPlate &other = found.plates[k];
            constexpr double kOpening = 0.03; // of the other's area: what small things of other layers are
            const bool opening = plate.holes.empty() && plate.area_mm2 < kOpening * other.area_mm2;
            if (found.plates.size() > kMost) break;
            if (k == i || (other.layer != plate.layer && !opening) || plate.area_mm2 > other.area_mm2) continue;
            if (const auto at = crossingOf(plate.outline_mm, other.outline_mm);
                at && std::any_of(plate.outline_mm.begin(), plate.outline_mm.end(),
                                  [&](const Vec2 &p) { return depthIn(other.outline_mm, p) < -kHair_mm; })) {
                const Box2 box = boxOf(plate.outline_mm);
                fault(*at, fmt::format("an outline of {:.1f} x {:.1f} mm crosses the edge of another: an "
                                       "opening that runs over the edge?",
                                       box.high.x() - box.low.x(), box.high.y() - box.low.y()));
            }
        }
    }
}

/// Writing belongs to the plate that it stands in, else to the nearest one.
void giveTexts(const FlatDrawing &drawing, Recognition &found) {
    constexpr double kBeside_mm = 25;
    for (const auto &text : drawing.texts) {
        FoundPlate *best = nullptr;
        double most = -kBeside_mm;
        for (auto &plate : found.plates) {
            const double depth = std::min(depthIn(plate.outline_mm, text.at_mm), 0.0);
            const bool smaller = best && depth == most && plate.area_mm2 < best->area_mm2;
            if (depth > most || smaller) {
                most = depth;
                best = &plate;
            }
        }
        if (best) best->text += (best->text.empty() ? "" : " ") + text.text;
    }
}

double cutArea(const FoundPlate &plate) {
    double area = std::abs(areaProperties({plate.outline_mm, {}}).area_mm2);
    constexpr double kQuarterPi = 0.785398163397448309616;
    for (const auto &hole : plate.holes) area -= kQuarterPi * hole.diameter_mm * hole.diameter_mm;
    for (const auto &slot : plate.cutouts) area -= slot.area_mm2;
    return area;
}

/// Who stands in whom is asked of each pair: of more outlines than any frame has, the largest are taken.
void keepLargest(LoopSearch &search, Recognition &found) {
    constexpr std::size_t kMostLoops = 10'000;
    if (search.loops.size() <= kMostLoops) return;
    std::stable_sort(search.loops.begin(), search.loops.end(),
                     [](const ClosedLoop &a, const ClosedLoop &b) { return a.area_mm2 > b.area_mm2; });
    found.skipped.push_back({fmt::format("{} small outlines", search.loops.size() - kMostLoops),
                             "",
                             fmt::format("the drawing has more than {}", kMostLoops),
                             {}});
    search.loops.resize(kMostLoops);
}

using Layers = std::map<std::string, std::vector<Node>>;

/// Which layers hold the holes of others: nothing nested, everything small and inside outlines elsewhere.
void findLayerUses(const FlatDrawing &drawing, const RecogniseOptions &options, Layers &byLayer, Recognition &found) {
    constexpr double kSmallShare = 0.15;
    auto wished = [&](const std::string &layer) {
        const auto at = options.layers.find(layer);
        return at == options.layers.end() ? LayerUse::automatic : at->second;
    };
    for (const auto &layer : drawing.layers) {
        LayerUse use = wished(layer);
        const auto &nodes = byLayer[layer];
        if (use == LayerUse::automatic) {
            auto insideAnother = [&](const Node &node) {
                for (const auto &other : drawing.layers) {
                    if (other == layer || wished(other) == LayerUse::ignore || wished(other) == LayerUse::holes)
                        continue;
                    for (const auto &outer : byLayer[other])
                        if (outer.depth % 2 == 0 && node.loop->area_mm2 < kSmallShare * outer.loop->area_mm2 &&
                            standsIn(node, outer))
                            return true;
                }
                return false;
            };
            const bool flat = std::all_of(nodes.begin(), nodes.end(), [](const Node &n) { return n.depth == 0; });
            use = !nodes.empty() && flat && std::all_of(nodes.begin(), nodes.end(), insideAnother) ? LayerUse::holes
                                                                                                   : LayerUse::plates;
        }
        found.layers[layer] = use;
    }
}

struct Outline {
    Node node;
    std::size_t plate;
};

/// A plate for each outline, and for each piece that lies in a hole; with the holes that are nested in it.
std::vector<Outline> findPlates(const FlatDrawing &drawing, Layers &byLayer, Recognition &found) {
    std::vector<Outline> outlines;
    for (const auto &layer : drawing.layers) {
        if (found.layers[layer] != LayerUse::plates) continue;
        const auto &nodes = byLayer[layer];
        std::vector<int> plateOf(nodes.size(), -1);
        for (std::size_t i = 0; i < nodes.size(); ++i) {
            if (nodes[i].depth % 2 == 0) {
                plateOf[i] = int(found.plates.size());
                FoundPlate plate;
                plate.layer = layer;
                plate.outline_mm = nodes[i].loop->ring;
                outlines.push_back({nodes[i], found.plates.size()});
                found.plates.push_back(std::move(plate));
            } else {
                addHole(found.plates[std::size_t(plateOf[std::size_t(nodes[i].parent)])], *nodes[i].loop);
            }
        }
    }
    return outlines;
}

/// Holes of layers of their own go to the smallest outline that they stand in.
void giveHoles(const FlatDrawing &drawing, Layers &byLayer, const std::vector<Outline> &outlines, Recognition &found) {
    for (const auto &layer : drawing.layers) {
        if (found.layers[layer] != LayerUse::holes) continue;
        int lost = 0;
        for (const auto &node : byLayer[layer]) {
            const Outline *smallest = nullptr;
            for (const auto &outline : outlines)
                if (standsIn(node, outline.node) &&
                    (!smallest || outline.node.loop->area_mm2 < smallest->node.loop->area_mm2))
                    smallest = &outline;
            if (smallest)
                addHole(found.plates[smallest->plate], *node.loop);
            else
                ++lost;
        }
        if (lost > 0) found.skipped.push_back({fmt::format("{} hole(s)", lost), layer, "they lie in no outline", {}});
    }
}

/// Patterns, slots of motors and the area of a plate that has all its holes.
void finish(FoundPlate &plate) {
    auto before = [](const auto &a, const auto &b) { // left to right, so that the order does not hang on the file
        const Vec2 d = a.centre_mm - b.centre_mm;
        return std::abs(d.x()) > 1e-3 ? d.x() < 0 : d.y() < -1e-3;
    };
    std::stable_sort(plate.holes.begin(), plate.holes.end(), before);
    std::stable_sort(plate.cutouts.begin(), plate.cutouts.end(), before);
    plate.patterns = findPatterns(plate.holes);
    markMotorSlots(plate);
    plate.area_mm2 = cutArea(plate);
}

} // namespace

Recognition recognise(const FlatDrawing &drawing, const RecogniseOptions &options) {
    Recognition found;
    LoopSearch search = closedLoops(drawing, options.tolerance_mm);
    found.skipped = drawing.skipped;
    found.skipped.insert(found.skipped.end(), search.skipped.begin(), search.skipped.end());
    keepLargest(search, found);
    Layers byLayer = nodesByLayer(search.loops);
    findLayerUses(drawing, options, byLayer, found);
    const auto outlines = findPlates(drawing, byLayer, found);
    giveHoles(drawing, byLayer, outlines, found);
    for (auto &plate : found.plates) finish(plate);
    giveTexts(drawing, found);
    findFaults(found);
    if (found.plates.empty() && found.skipped.empty())
        found.skipped.push_back({"the whole drawing", "", "it holds no closed outline", {}});
    return found;
}

} // namespace waxis
