// Checks between the steps: the power train alone, each regulator before its loads, all without propellers, each
// flight.
#include "core/power/power_report.h"
#include "core/sequence/checks.h"
#include "core/sequence/operation_book.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <iterator>
#include <map>
#include <set>

namespace waxis {

namespace {

constexpr double kCheckMinutes = 8, kRailMinutes = 2, kChangeMinutes = 2; // common practice, no source

/// Whether an operation is only there for what does not fly in a load case.
bool isOnlyWithout(const OperationBook &book, const Operation &op, const LoadCase &flown) {
    // All leads are cut, and all rims pressed in, in one go.
    if (op.kind == OperationKind::prepare || op.kind == OperationKind::slip || op.kind == OperationKind::splice)
        return false;
    auto without = [&](const std::string &id) {
        const Part *part = findPart(book.build, id);
        return part && !isAboard(*part, flown);
    };
    if (op.kind == OperationKind::fit) return std::any_of(op.things.begin(), op.things.end(), without);
    // The wires lie ready in the craft: only what is joined at the part itself waits for it.
    return !op.joints.empty() && std::all_of(op.joints.begin(), op.joints.end(), [&](const JointEnd &joint) {
        if (!joint.part.empty()) return without(joint.part);
        const Wire *wire = findWire(book.build, joint.wire);
        return wire && without(wire->from.part) && without(wire->to.part);
    });
}

/// The last flight that is made without what an operation is about; none: it is aboard from the first.
std::optional<std::size_t> flightWithout(const OperationBook &book, const std::vector<std::size_t> &flown,
                                         std::size_t op) {
    const auto &cases = *book.derived.loadCases;
    std::optional<std::size_t> last;
    for (std::size_t f = 0; f + 1 < flown.size() && f < book.flights.onTheWay.size(); ++f)
        if (isOnlyWithout(book, book.operations[op], cases[std::size_t(book.flights.onTheWay[f])])) last = flown[f];
    return last;
}

class Gates {
public:
    explicit Gates(OperationBook &book)
        : book_(book), build_(book.build), loadCases_(*book.derived.loadCases), count_(book.operations.size()) {}

    void make() {
        const std::size_t train = gate(Gate::train, "check:train");
        const auto rails = railGates();
        const std::size_t end = gate(Gate::end, "check:end");
        for (const std::size_t measured : rails) {
            book_.before(train, measured, BeforeReason::process, "check:train", "check:rails");
            book_.before(measured, end, BeforeReason::process, "check:rails", "check:end");
        }
        addFlights();
        // First of all, so that what has to be there before the checks is not put off until after a flight.
        book_.before(train, end, BeforeReason::process, "check:train", "check:end");
        book_.before(end, flown_.front(), BeforeReason::process, "check:end", "check:flight");
        orderTrain(train);
        antennasFirst();
        const std::size_t first = flown_.front(), last = flown_.back();
        std::vector<std::optional<std::size_t>> later(count_);
        for (std::size_t i = 0; i < count_; ++i) {
            const Operation &op = book_.operations[i];
            later[i] = op.id == kTiePayload ? std::optional(first) : flightWithout(book_, flown_, i);
            const std::string what = book_.subjectOf(i);
            if (op.id == kTieMotors || op.atTheEnd) { // motors turn the right way, no propeller is on
                book_.before(end, i, BeforeReason::process, "check:end", what);
                book_.before(i, first, BeforeReason::process, what, "check:flight");
            } else if (!later[i]) {
                book_.before(i, end, BeforeReason::process, what, "check:end");
            }
        }
        for (std::size_t i = 0; i < count_; ++i) {
            const std::string what = book_.subjectOf(i);
            if (!later[i]) continue;
            book_.before(*later[i], i, BeforeReason::process, "check:flight", what);
            book_.before(i, last, BeforeReason::process, what, "check:flight");
        }
    }

private:
    std::size_t gate(Gate kind, std::string id, const std::string &loadCase = {}) {
        Operation op;
        op.id = std::move(id);
        op.kind = OperationKind::check;
        op.gate = kind;
        op.tool = Tool::meter;
        op.minutes = kind == Gate::rails ? kRailMinutes : kCheckMinutes;
        op.place = "bench";
        op.loadCase = loadCase;
        return book_.add(std::move(op));
    }
    static bool isMade(const Operation &op) {
        return op.kind == OperationKind::solder || op.kind == OperationKind::plug || op.kind == OperationKind::snap;
    }
    /// Regulators that are no part of the power train are powered alone, each part of them, and measured before their
    /// loads hang on them.
    std::vector<std::size_t> railGates() {
        std::map<std::string, std::set<std::string>> loads, feeds; ///< wires, by the part that gives
        const auto &rails = book_.derived.power->rails;
        auto idOfWire = [&](int w) { return build_.wires[std::size_t(w)].id; };
        for (const auto &rail : rails) {
            if (rail.output == "BAT" || rail.output == "USB" || book_.graph.find(rail.part) < 0) continue;
            const PartType *type = book_.typeOfPart(rail.part);
            if (!type || isMeasuredWithTheTrain(type->kind)) continue;
            for (const auto &load : rail.loads)
                for (const int w : load.wires) loads[rail.part].insert(idOfWire(w));
            for (const auto &source : rails)
                for (const auto &load : source.loads)
                    if (load.part == rail.part)
                        for (const int w : load.wires) feeds[rail.part].insert(idOfWire(w));
        }
        auto about = [](const Operation &op, const std::set<std::string> &wires) {
            return isMade(op) && std::any_of(op.joints.begin(), op.joints.end(),
                                             [&](const JointEnd &joint) { return wires.contains(joint.wire); });
        };
        std::vector<std::size_t> gates;
        for (const auto &[part, wires] : loads) {
            const std::size_t measured = gate(Gate::rails, "check:rails." + part);
            book_.operations[measured].onto = {part};
            gates.push_back(measured);
            const auto &in = feeds[part];
            for (std::size_t i = 0; i < count_; ++i)
                if (about(book_.operations[i], in))
                    book_.before(i, measured, BeforeReason::process, book_.subjectOf(i), part);
            for (std::size_t i = 0; i < count_; ++i)
                if (about(book_.operations[i], wires) && !about(book_.operations[i], in))
                    book_.before(measured, i, BeforeReason::process, part, book_.subjectOf(i));
        }
        return gates;
    }
    /// One flight for each load case on the way; the others after a change. A build that does not fly is weighed.
    void addFlights() {
        std::optional<std::size_t> previous;
        auto follows = [&](std::size_t op) {
            if (previous) book_.before(*previous, op, BeforeReason::process, "check:flight", "check:flight");
            previous = op;
        };
        for (const int c : book_.flights.onTheWay) {
            const std::string &id = loadCases_[std::size_t(c)].id;
            flown_.push_back(gate(Gate::flight, c == book_.loadCase ? "check:flight" : "check:flight." + id, id));
            follows(flown_.back());
        }
        if (flown_.empty() || book_.flights.onTheWay.back() != book_.loadCase) {
            flown_.push_back(gate(Gate::flight, "check:flight"));
            follows(flown_.back());
        }
        int from = book_.loadCase;
        for (const int c : book_.flights.changed) {
            const LoadCase &next = loadCases_[std::size_t(c)], &now = loadCases_[std::size_t(from)];
            Operation change;
            change.id = "change:" + next.id;
            change.kind = OperationKind::change;
            change.minutes = kChangeMinutes;
            change.place = "bench";
            change.loadCase = next.id;
            change.things = onlyIn(build_, next, now);
            change.off = onlyIn(build_, now, next);
            follows(book_.add(std::move(change)));
            follows(gate(Gate::flight, "check:flight." + next.id, next.id));
            from = c;
        }
    }
    /// A sender has its antennas, from end to end, before it can be powered.
    void antennasFirst() {
        auto sends = [&](const std::string &part) {
            return book_.isKind(part, PartKind::videoTransmitter) || book_.isKind(part, PartKind::digitalVideoUnit) ||
                   book_.isKind(part, PartKind::receiver);
        };
        auto joins = [&](const Operation &op, const std::string &wire) {
            return isMade(op) && std::any_of(op.joints.begin(), op.joints.end(),
                                             [&](const JointEnd &joint) { return joint.wire == wire; });
        };
        std::map<std::string, std::vector<std::string>> coax, power; ///< wires, by sender
        for (std::size_t w = 0; w < build_.wires.size(); ++w) {
            const Wire &wire = build_.wires[w];
            const WireRole role = book_.derived.wiring->wires[w].role;
            for (const auto *end : {&wire.from, &wire.to})
                if (sends(end->part)) {
                    if (role == WireRole::coax) coax[end->part].push_back(wire.id);
                    if (role == WireRole::power) power[end->part].push_back(wire.id);
                }
        }
        for (const auto &[part, leads] : coax)
            for (const auto &lead : leads)
                for (std::size_t on = 0; on < count_; ++on) {
                    if (!joins(book_.operations[on], lead)) continue;
                    for (const auto &feed : power[part])
                        for (std::size_t fed = 0; fed < count_; ++fed)
                            if (joins(book_.operations[fed], feed) && book_.operations[fed].joints.front().part == part)
                                book_.before(on, fed, BeforeReason::process, book_.subjectOf(on), part);
                    if (const auto alone = book_.find("check:rails." + part))
                        book_.before(on, *alone, BeforeReason::process, book_.subjectOf(on), part);
                }
    }
    /// The power train before its check, what else is joined after it.
    void orderTrain(std::size_t train) {
        auto ofTrain = [&](const Operation &op) {
            return std::any_of(op.joints.begin(), op.joints.end(), [&](const JointEnd &joint) {
                const Wire *wire = findWire(build_, joint.wire);
                return wire && isOfTrain(book_, std::size_t(wire - build_.wires.data()));
            });
        };
        for (const bool first : {true, false})
            for (std::size_t i = 0; i < count_; ++i) {
                const Operation &op = book_.operations[i];
                if (!(isMade(op) || (first && op.kind == OperationKind::insulate && !op.joints.empty())) ||
                    ofTrain(op) != first)
                    continue;
                if (first)
                    book_.before(i, train, BeforeReason::process, book_.subjectOf(i), "check:train");
                else
                    book_.before(train, i, BeforeReason::process, "check:train", book_.subjectOf(i));
            }
    }

    OperationBook &book_;
    const Build &build_;
    const std::vector<LoadCase> &loadCases_;
    std::size_t count_; ///< operations that are no checks
    std::vector<std::size_t> flown_;
};

} // namespace

void settleFlights(OperationBook &book) {
    auto &way = book.flights.onTheWay;
    const auto &cases = *book.derived.loadCases;
    auto isOnTheWay = [&](int c) {
        if (c == book.loadCase) return true;
        std::vector<bool> payload;
        for (const auto &op : book.operations) payload.push_back(isOnlyWithout(book, op, cases[std::size_t(c)]));
        for (std::size_t i = 0; i < payload.size(); ++i) {
            if (!payload[i]) continue;
            const auto after = book.keeper.allAfter(i);
            for (std::size_t k = 0; k < payload.size(); ++k)
                if (after[k] && !payload[k]) return false;
        }
        return true;
    };
    const auto after = std::stable_partition(way.begin(), way.end(), isOnTheWay);
    // What takes least off first.
    book.flights.changed.insert(book.flights.changed.begin(), std::make_reverse_iterator(way.end()),
                                std::make_reverse_iterator(after));
    way.erase(after, way.end());
}

void addGates(OperationBook &book) { Gates(book).make(); }

} // namespace waxis
