// Steps as sentences for the bench.
#pragma once

#include "core/base/sentence.h"
#include "core/build/build.h"
#include "core/sequence/plan.h"

#include <string_view>
#include <vector>

namespace waxis {

/// "Four-in-one ESC onto damper 1 and 3 more, from above".
Sentence wordStep(const Build &build, const Step &step);
/// What it takes beside, one line each: "16 x M3 screw, 8 mm", "Main power lead: cut to 115 mm", "Receiver wires: 5V,
/// GND, TX, RX". `derived` of the same build.
std::vector<Sentence> wordTakes(const Build &build, const Derived &derived, const Step &step);
/// The usual caution where it can hurt; empty pattern: none.
Sentence wordCaution(const Build &build, const Step &step);
/// "before flight controller, which would stand in its way"; one sentence for each kind of reason.
std::vector<Sentence> wordWhyHere(const Build &build, const AssemblyPlan &plan, std::size_t step);
/// Why a step cannot stand before another one; empty pattern: nothing speaks against it.
Sentence wordWhyNotBefore(const Build &build, const AssemblyPlan &plan, std::size_t step, std::size_t before);

std::string_view toolWord(Tool tool);
/// "craft upright", "craft upside down"; empty: either.
std::string_view sideWord(int side);
/// "at the arms", "main stack", "top plate", "on the bench".
std::string placeWord(const Build &build, const Step &step);

} // namespace waxis
