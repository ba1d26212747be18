// Quick sums: every closed calculation of the core by name, for the bench, the command line and the reference
// tests.
#pragma once

#include "core/base/result.h"
#include "core/sums/value.h"

#include <functional>
#include <optional>
#include <span>
#include <string>

namespace waxis {

/// `gauge`: AWG as a whole number, or 00, 000, 0000 as they are written.
enum class SumInputKind { number, numbers, points, bodies, text, truth, bands, gauge };

struct SumInput {
    std::string key; ///< carries the unit, as in reference tables
    std::string title;
    std::string unit;
    SumInputKind kind = SumInputKind::number;
    std::optional<SumValue> standard; ///< taken when the input is not given
    std::string example;              ///< shown in the window, and enough to try it
};

struct SumOutput {
    std::string key;
    std::string title;
    std::string unit;
};

struct SumError {
    std::string input; ///< key; empty: the sum as a whole
    std::string reason;
    std::string text() const { return input.empty() ? reason : input + ": " + reason; }
};
using SumResult = Result<SumObject, SumError>;

struct Sum {
    std::string name; ///< "thrust-split"
    std::string title;
    std::string formula;
    std::string source;
    std::vector<SumInput> inputs;
    std::vector<SumOutput> outputs;
    std::function<SumResult(const SumObject &)> compute; ///< inputs are complete and of the right kind
};

/// All sums, by topic.
std::span<const Sum> sumRegistry();
/// Null for an unknown name.
const Sum *findSum(const std::string &name);

/// Checks the inputs (unknown, missing, wrong kind, not finite), fills in the standards and computes. A result that is
/// no finite number is an error.
SumResult calculate(const Sum &sum, const SumObject &inputs);

/// Names a sum that is not there, with the nearest one that is.
SumError unknownSum(const std::string &name);

} // namespace waxis
