// What the makers of operations share: the craft, the operations so far, and which comes before which.
#pragma once

#include "core/sequence/flights.h"
#include "core/sequence/operations.h"
#include "core/sequence/order_keeper.h"

#include <optional>
#include <string_view>

namespace waxis {

class OperationBook {
public:
    OperationBook(const Build &build, const Practice &practice, const Derived &derived, BlockingGraph &graph,
                  const PutTogether &together, int loadCase);

    const Build &build;
    const Practice &practice;
    const Derived &derived;
    BlockingGraph &graph;
    const PutTogether &together;
    int loadCase;
    Flights flights;
    std::vector<Operation> operations;
    std::vector<PlanRemark> remarks;
    OrderKeeper keeper;
    std::vector<std::size_t> opOf; ///< by thing: what puts it in; filled by addFits

    std::size_t add(Operation op);
    /// False, and nothing happens, where the second has to come before the first.
    bool before(std::size_t first, std::size_t second, BeforeReason reason, const std::string &thing,
                const std::string &other);
    void remark(RemarkKind kind, std::vector<std::string> subjects, double value = 0, std::string note = {});
    std::optional<std::size_t> find(const std::string &operation) const;
    /// What puts a thing in, by its id.
    std::optional<std::size_t> fitOf(const std::string &thing) const;
    const std::string &idOf(int thing) const { return graph.things()[std::size_t(thing)].id; }
    /// Null: no such part, or of a type that is not there.
    const PartType *typeOfPart(const std::string &part) const;
    bool isKind(const std::string &part, PartKind kind) const;
    /// Whether a flight is made before the part is aboard.
    bool comesAfterAFlight(const std::string &part) const;
    /// The thing before what stands where a tool goes, as far as that may come later.
    void beforeWhatCovers(std::size_t operation, const std::string &thing, const std::vector<int> &blockers);
    /// What an operation is about, for people.
    std::string subjectOf(std::size_t operation) const;
};

/// Ids of the operations that tie down motors' leads, and what is aboard only after a flight.
inline constexpr const char *kTieMotors = "tie:motors", *kTiePayload = "tie:payload";

bool isStuckDown(FasteningMethod method);
/// Both ends are aboard, and none is a pack: that is plugged in when the craft is checked and when it flies.
bool isJoined(const OperationBook &book, const Wire &wire);
/// Whether a wire (its index) belongs to the power train: packs' plug, distribution, speed controllers, motors,
/// capacitors.
bool isOfTrain(const OperationBook &book, std::size_t wire);
/// 1: from above, the craft stands upright; -1: from below; 0: either.
int sideFor(const Vec3 &from);

// Each maker adds its own, in this order.

/// Things, in an order that holds.
void addFits(OperationBook &book);
/// What is soldered, plugged and insulated.
void addJoints(OperationBook &book);
/// Leads cut, spliced, sleeved and led through their holes.
void addLeads(OperationBook &book);
/// Joints before what their heat would harm, where that can wait.
void addHeat(OperationBook &book);
/// Where nothing speaks against it a part sits before its wire is led away from it.
void addLeadsAfterTheirParts(OperationBook &book);
/// Flights with less aboard are made on the way only where what they fly without can go in after all that they fly
/// with; else it is taken off for them afterwards.
void settleFlights(OperationBook &book);
void addTies(OperationBook &book);
/// Handwork beside: tried dry, trimmed, measured, looped, tightened.
void addHandwork(OperationBook &book);
/// Checks, flights and changes of load case.
void addGates(OperationBook &book);
/// What was built otherwise, steps and orders of the builder's own.
void addWishes(OperationBook &book);

} // namespace waxis
