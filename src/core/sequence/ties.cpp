// Wires tied down, when nothing has to be led anew any more.
#include "core/sequence/operation_book.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <map>

namespace waxis {

namespace {

constexpr double kTieMinutes = 0.4; // common practice, no source

class Ties {
public:
    explicit Ties(OperationBook &book) : book_(book), build_(book.build) {}

    /// Motors' leads are tied when they turn the right way, payload's when it is aboard, all others before the checks.
    enum class Tied { wires, motors, payload };
    std::optional<Tied> tiedOf(const std::string &tie) const {
        std::vector<std::size_t> held;
        for (std::size_t w = 0; w < book_.derived.routes->size() && w < build_.wires.size(); ++w)
            for (const auto &support : (*book_.derived.routes)[w].supports)
                if (support.kind == SupportKind::tie && support.id == tie && isJoined(book_, build_.wires[w]))
                    held.push_back(w);
        if (held.empty()) return std::nullopt;
        const auto all = [&](auto is) { return std::all_of(held.begin(), held.end(), is); };
        if (all([&](std::size_t w) { return book_.derived.wiring->wires[w].role == WireRole::phase; }))
            return Tied::motors;
        return all([&](std::size_t w) { return isPayload(build_.wires[w]); }) ? Tied::payload : Tied::wires;
    }
    bool isPayload(const Wire &wire) const {
        return book_.comesAfterAFlight(wire.from.part) || book_.comesAfterAFlight(wire.to.part);
    }
    void make() {
        std::map<Tied, std::vector<std::string>> ties;
        for (const auto &tie : build_.ties)
            if (const auto tied = tiedOf(tie.id)) ties[*tied].push_back(tie.id);
        for (const auto &[tied, ids] : ties) {
            Operation op;
            op.id = tied == Tied::motors ? kTieMotors : tied == Tied::payload ? kTiePayload : "tie:wires";
            op.kind = OperationKind::tie;
            op.tool = Tool::ties;
            op.things = ids;
            op.minutes = kTieMinutes * double(ids.size());
            op.place = tied == Tied::motors ? "arms" : "frame";
            const std::size_t at = book_.add(std::move(op));
            if (tied == Tied::motors) continue;
            for (std::size_t i = 0; i < at; ++i)
                for (const auto &joint : book_.operations[i].joints)
                    if (const Wire *wire = joint.part.empty() ? nullptr : findWire(build_, joint.wire);
                        wire && isPayload(*wire) == (tied == Tied::payload))
                        book_.before(i, at, BeforeReason::process, joint.part, joint.part);
        }
    }

private:
    OperationBook &book_;
    const Build &build_;
};

} // namespace

void addTies(OperationBook &book) { Ties(book).make(); }

} // namespace waxis
