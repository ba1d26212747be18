// Handwork beside fitting and joining: tried dry, cut to length, measured, looped, tightened at the end.
#include "core/balance/case_balance.h"
#include "core/build/chain.h"
#include "core/catalog/fastener_types.h"
#include "core/sequence/operation_book.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <set>

namespace waxis {

namespace {

// Common practice, no source.
constexpr double kDryMinutes = 0.5, kTrimMinutes = 0.3, kMeasureMinutes = 2, kSheetMinutes = 0.5, kLoopMinutes = 0.5,
                 kTightenMinutes = 0.2, kBalanceMinutes = 3, kStrapAcross_mm = 20, kStrapRoom_mm = 4;

class Handwork {
public:
    explicit Handwork(OperationBook &book) : book_(book), build_(book.build) {}

    void make() {
        for (const auto &part : build_.parts) {
            if (!book_.fitOf(part.id)) continue;
            tryDry(part);
            loop(part);
        }
        for (const auto &stack : build_.stacks) {
            cutScrews(stack);
            for (std::size_t i = 0; i < stack.layers.size(); ++i) layer(stack, i);
        }
        tighten();
        balanceBeforeSticking();
    }

private:
    std::size_t add(std::string id, OperationKind kind, Tool tool, double minutes, std::string place,
                    std::vector<std::string> things, std::vector<std::string> onto = {}) {
        Operation op;
        op.id = std::move(id);
        op.kind = kind;
        op.tool = tool;
        op.minutes = minutes;
        op.place = std::move(place);
        op.things = std::move(things);
        op.onto = std::move(onto);
        op.sort = std::to_string(int(kind)) + op.place;
        return book_.add(std::move(op));
    }
    const std::string &placeOf(std::size_t fit) const { return book_.operations[fit].place; }
    /// Tape and glue are good for one try: where it goes is found before, with what it is joined to still loose.
    void tryDry(const Part &part) {
        const bool stuck =
            part.fastening.method == FasteningMethod::tape || part.fastening.method == FasteningMethod::glue;
        const PartType *type = typeOf(build_, part);
        if (!stuck || !type || type->kind == PartKind::pad || type->kind == PartKind::battery ||
            holdsOthers(type->kind))
            return;
        const std::size_t fit = *book_.fitOf(part.id);
        if (book_.operations[fit].things.size() > 1) return; // the assembly is tried as one, or not at all: SEQ-7
        const std::size_t at = add("dry:" + part.id, OperationKind::dryFit, Tool::hand, kDryMinutes, placeOf(fit),
                                   {part.id}, book_.operations[fit].onto);
        book_.operations[at].from = book_.operations[fit].from;
        book_.operations[at].beside = standsBeside(part.id, fit);
        for (const auto &below : book_.operations[fit].onto)
            if (const auto carrier = book_.fitOf(below))
                book_.before(*carrier, at, BeforeReason::rests, below, part.id);
        for (std::size_t i = 0; i < at; ++i) {
            const Operation &op = book_.operations[i];
            if (op.inHand && !op.joints.empty() && op.joints.front().part == part.id)
                book_.before(at, i, BeforeReason::process, part.id, part.id);
        }
        book_.before(at, fit, BeforeReason::process, part.id, part.id);
    }
    /// Brackets, units and plates whose place hangs on where it is stuck: within 2 mm of it, and in after it.
    std::vector<std::string> standsBeside(const std::string &part, std::size_t fit) const {
        constexpr double kClose_mm = 2; // common practice, no source
        const auto &things = book_.graph.things();
        const Aabb &own = book_.graph.boundsOfThing(book_.graph.find(part));
        std::vector<std::string> beside;
        for (std::size_t t = 0; t < things.size(); ++t) {
            const std::size_t other = book_.opOf[t];
            if (things[t].id == part || things[t].fastener || things[t].atTheEnd || other == fit ||
                boxGap(own, book_.graph.boundsOfThing(int(t))) > kClose_mm || book_.keeper.isBefore(other, fit))
                continue;
            beside.push_back(things[t].id);
        }
        return beside;
    }
    /// A strap that is not drawn goes round the plate before anything stands under its way.
    void loop(const Part &part) {
        if (part.fastening.method != FasteningMethod::strap || book_.isKind(part.id, PartKind::strap)) return;
        const std::size_t fit = *book_.fitOf(part.id);
        const bool drawn = std::any_of(build_.parts.begin(), build_.parts.end(), [&](const Part &other) {
            const auto &onto = other.fastening.onto;
            return book_.isKind(other.id, PartKind::strap) &&
                   std::find(onto.begin(), onto.end(), part.id) != onto.end();
        });
        if (drawn || book_.operations[fit].onto.empty()) return;
        const std::string carrier = book_.operations[fit].onto.front();
        const int under = book_.graph.find(carrier), own = book_.graph.find(part.id);
        const std::size_t at =
            add("loop:" + part.id, OperationKind::loop, Tool::hand, kLoopMinutes, placeOf(fit), {part.id}, {carrier});
        if (const auto carries = book_.fitOf(carrier))
            book_.before(*carries, at, BeforeReason::rests, carrier, part.id);
        book_.before(at, fit, BeforeReason::process, part.id, part.id);
        if (under < 0) return;
        // Where it passes: on the far face of what carries, across below the part.
        const Aabb &plate = book_.graph.boundsOfThing(under), &held = book_.graph.boundsOfThing(own);
        const Vec3 middle = (held.min_mm + held.max_mm) / 2;
        const bool above = middle.z() > (plate.min_mm.z() + plate.max_mm.z()) / 2;
        Body room;
        room.shape = Box{Vec3(kStrapAcross_mm, std::max(1.0, held.size_mm().y()), kStrapRoom_mm)};
        constexpr double kOff_mm = 0.3;
        room.X_FrameBody.position_mm = {middle.x(), middle.y(),
                                        above ? plate.min_mm.z() - kOff_mm - kStrapRoom_mm / 2
                                              : plate.max_mm.z() + kOff_mm + kStrapRoom_mm / 2};
        book_.beforeWhatCovers(at, part.id, book_.graph.within(room, under));
    }
    std::vector<std::size_t> fitsOf(const std::vector<std::string> &parts) const {
        std::vector<std::size_t> fits;
        for (const auto &part : parts)
            if (const auto fit = book_.fitOf(part)) fits.push_back(*fit);
        return fits;
    }
    void after(const std::vector<std::string> &parts, std::size_t op, const std::string &what) {
        for (const auto &part : parts)
            if (const auto fit = book_.fitOf(part)) book_.before(*fit, op, BeforeReason::process, part, what);
    }
    void ahead(std::size_t op, const std::vector<std::string> &parts) {
        for (const auto &part : parts)
            if (const auto fit = book_.fitOf(part)) book_.before(op, *fit, BeforeReason::process, part, part);
    }
    bool isNylon(const std::string &part) const {
        const PartType *type = book_.typeOfPart(part);
        return type && materialOf(*type).find("nylon") != std::string::npos;
    }
    /// Metal is cut in the hand, over a nut that clears the thread again; nylon when it is in, flush.
    void cutScrews(const Stack &stack) {
        if (stack.cut_mm <= 0 || fitsOf(stack.screws).empty()) return;
        const bool nylon = isNylon(stack.screws.front());
        const std::size_t at = add("trim:" + stack.id, OperationKind::trim, Tool::cutters,
                                   kTrimMinutes * double(stack.screws.size()), nylon ? stack.id : "hand", stack.screws);
        book_.operations[at].inHand = !nylon;
        if (!nylon) return ahead(at, stack.screws);
        after(stack.screws, at, stack.id);
        for (const auto &layer : stack.layers) after(layer.parts, at, stack.id);
    }
    /// The parts of the nearest layers with any, towards the frame and away from it.
    static const std::vector<std::string> *next(const Stack &stack, std::size_t from, int step) {
        for (int i = int(from) + step; i >= 0 && i < int(stack.layers.size()); i += step)
            if (!stack.layers[std::size_t(i)].parts.empty()) return &stack.layers[std::size_t(i)].parts;
        return nullptr;
    }
    void layer(const Stack &stack, std::size_t i) {
        const StackLayer &layer = stack.layers[i];
        const int outwards = int(i) > frameLayer(stack) ? 1 : -1;
        const auto *inner = next(stack, i, -outwards), *outer = next(stack, i, outwards);
        const std::string id = fmt::format("{}.{}", stack.id, i);
        if (layer.role == LayerRole::damper && layer.cutTo_mm && !fitsOf(layer.parts).empty()) {
            const std::size_t at = add("trim:" + id, OperationKind::trim, Tool::cutters,
                                       kTrimMinutes * double(layer.parts.size()), "hand", layer.parts);
            book_.operations[at].inHand = true;
            ahead(at, layer.parts);
        }
        if (layer.role == LayerRole::shim && !fitsOf(layer.parts).empty() && inner) {
            const std::size_t at = add("measure:" + id, OperationKind::measure, Tool::meter, kMeasureMinutes, stack.id,
                                       layer.parts, *inner);
            after(*inner, at, layer.parts.front());
            ahead(at, layer.parts);
        }
        if (layer.role == LayerRole::sheet && inner && outer && !fitsOf(*inner).empty() && !fitsOf(*outer).empty()) {
            const std::size_t at =
                add("insulate:" + id, OperationKind::insulate, Tool::hand, kSheetMinutes, stack.id, {}, *inner);
            after(*inner, at, inner->front());
            // What is soldered on it is soldered before.
            for (std::size_t k = 0; k < at; ++k)
                if (const Operation &op = book_.operations[k];
                    op.kind == OperationKind::solder && !op.inHand &&
                    std::find(inner->begin(), inner->end(), op.joints.front().part) != inner->end())
                    book_.before(k, at, BeforeReason::process, op.joints.front().part, inner->front());
            ahead(at, *outer);
        }
    }
    /// The plate that a post's upper or lower screw goes through with it.
    static std::string postOf(const Frame &frame, const FrameScrew &screw) {
        auto isPost = [&](const std::string &id) {
            return std::any_of(frame.standoffs.begin(), frame.standoffs.end(),
                               [&](const Standoff &post) { return post.id == id; });
        };
        if (isPost(screw.into)) return screw.into;
        for (const auto &id : screw.through)
            if (isPost(id)) return id;
        return {};
    }
    /// Screws into posts stay loose until the plate over these has all of its own; then all of them, crosswise, as far
    /// as a driver still gets there.
    void tighten() {
        const Frame &frame = *build_.frame;
        std::map<std::string, std::string> group; ///< by post: the first plate that a screw from above holds on it
        for (const auto &screw : frame.screws)
            if (const std::string post = postOf(frame, screw);
                !post.empty() && screw.fromAbove && !screw.through.empty())
                group.try_emplace(post, screw.through.front());
        std::map<std::pair<std::string, bool>, std::vector<const FrameScrew *>> screws; ///< by plate, from above
        std::map<std::string, std::set<std::size_t>> fits;                              ///< by plate
        for (const auto &screw : frame.screws) {
            const auto at = group.find(postOf(frame, screw));
            const auto fit = book_.fitOf(screw.id);
            if (at == group.end() || !fit) continue;
            screws[{at->second, screw.fromAbove}].push_back(&screw);
            fits[at->second].insert(*fit);
        }
        std::set<std::string> plates;
        for (const auto &[key, members] : screws) plates.insert(key.first);
        for (const auto &plate : plates) {
            const Reached above = reachedOf(screws[{plate, true}], fits[plate]),
                          below = reachedOf(screws[{plate, false}], fits[plate]);
            // Where one side is out of reach by then nothing is gained by leaving the other loose.
            if (above.screws.size() < 2 || below.screws.size() < 2) continue;
            lock(plate, above, fits[plate], true);
            lock(plate, below, fits[plate], false);
        }
    }
    struct Reached {
        std::vector<std::string> screws;
        std::vector<int> covers; ///< things that must come later
    };
    /// Those that a driver still gets to when all of them are in.
    Reached reachedOf(const std::vector<const FrameScrew *> &members, const std::set<std::size_t> &fits) {
        const std::vector<bool> everything(book_.graph.things().size(), true);
        Reached reached;
        for (const FrameScrew *screw : members) {
            const auto *way = book_.graph.fewestBeforeTools(book_.graph.find(screw->id), everything);
            const std::vector<int> in = way ? *way : std::vector<int>();
            const bool late = std::any_of(in.begin(), in.end(), [&](int blocker) {
                const std::size_t covered = book_.opOf[std::size_t(blocker)];
                return std::any_of(fits.begin(), fits.end(), [&](std::size_t fit) {
                    return covered == fit || book_.keeper.isBefore(covered, fit);
                });
            });
            if (late) continue; // tightened at once
            reached.screws.push_back(screw->id);
            reached.covers.insert(reached.covers.end(), in.begin(), in.end());
        }
        return reached;
    }
    void lock(const std::string &plate, const Reached &reached, const std::set<std::size_t> &fits, bool fromAbove) {
        const std::size_t at =
            add(fmt::format("lock:{}{}", plate, fromAbove ? "" : ".below"), OperationKind::lock, Tool::driver,
                kTightenMinutes * double(reached.screws.size()), plate, reached.screws, {plate});
        book_.operations[at].side = fromAbove ? 1 : -1;
        book_.operations[at].from = Vec3(0, 0, fromAbove ? 1 : -1);
        for (const std::size_t fit : fits)
            book_.before(fit, at, BeforeReason::process, book_.operations[fit].things.front(), plate);
        for (const auto &screw : reached.screws) book_.operations[*book_.fitOf(screw)].loose = true;
        book_.beforeWhatCovers(at, reached.screws.front(), reached.covers);
        if (fromAbove) return;
        // The craft lies on its top for it: packs go on later.
        for (const auto &part : build_.parts)
            if (const auto fit = book_.fitOf(part.id); fit && book_.isKind(part.id, PartKind::battery))
                book_.before(at, *fit, BeforeReason::process, plate, part.id);
    }
    /// A controller that is stuck down stays where it is: the balance is found before, with all else laid in place.
    void balanceBeforeSticking() {
        for (const auto &part : build_.parts) {
            const auto fit = book_.fitOf(part.id);
            if (!fit || !isStuckDown(part.fastening.method) || !book_.isKind(part.id, PartKind::flightController))
                continue;
            Operation op;
            op.id = "balance:" + part.id;
            op.kind = OperationKind::balance;
            op.minutes = kBalanceMinutes;
            op.place = "bench";
            op.things = {part.id};
            op.loadCase = (*book_.derived.loadCases)[std::size_t(book_.loadCase)].id;
            const std::size_t at = book_.add(std::move(op));
            book_.before(at, *fit, BeforeReason::process, part.id, part.id);
            for (std::size_t i = 0; i < book_.operations.size(); ++i) {
                const Operation &other = book_.operations[i];
                const bool heavy = other.kind == OperationKind::fit && i != *fit && !other.atTheEnd &&
                                   std::none_of(other.things.begin(), other.things.end(), [&](const std::string &id) {
                                       const Part *carried = findPart(build_, id);
                                       return carried && isStuckDown(carried->fastening.method);
                                   });
                if (heavy) book_.before(i, at, BeforeReason::process, other.things.front(), part.id);
            }
            return;
        }
    }

    OperationBook &book_;
    const Build &build_;
};

} // namespace

void addHandwork(OperationBook &book) { Handwork(book).make(); }

} // namespace waxis
