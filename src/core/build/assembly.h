// How far the craft has come at the bench, and what its builder wants otherwise than the plan.
#pragma once

#include <optional>
#include <string>

namespace waxis {

/// A step that was done.
struct StepTick {
    std::string step;     ///< Step::id
    std::string at;       ///< when: "2026-11-30T19:05:00", local time
    std::string contents; ///< Step::contents then; what the plan says now may be another
    bool operator==(const StepTick &) const = default;
};

/// A step of the builder's own.
struct OwnStep {
    std::string id;
    std::string text;
    std::string after; ///< Step::id that it follows; empty: before all others
    bool operator==(const OwnStep &) const = default;
};

/// One step is wanted before another one.
struct OwnOrder {
    std::string step, before; ///< Step::id each
    std::string note;         ///< why, where a reason speaks against it; empty: none does
    bool operator==(const OwnOrder &) const = default;
};

/// What was found at a check.
struct CheckResult {
    std::string check;        ///< Check::id
    std::string found;        ///< as typed: "0.21 A"; empty: only the verdict
    std::optional<bool> good; ///< the builder's own verdict; none: by the expected value
    std::string at;           ///< as StepTick::at
    bool operator==(const CheckResult &) const = default;
};

} // namespace waxis
