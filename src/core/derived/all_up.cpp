#include "core/derived/all_up.h"

#include "core/balance/case_balance.h"
#include "core/derived/derived.h"

namespace waxis {

const CompoundMass &allUp(const Derived &derived, std::size_t loadCase) { return derived.balance->at(loadCase).mass; }

const std::optional<Vec3> &offsetOf_mm(const Derived &derived, std::size_t loadCase) {
    return derived.balance->at(loadCase).offset_mm;
}

std::size_t allUpCount(const Derived &derived) { return derived.balance->size(); }

} // namespace waxis
