// What is measured and tried before and at first power, with what the model expects.
#pragma once

#include "core/derived/derived.h"
#include "core/power/idle_current.h"
#include "core/practice/practice.h"
#include "core/sequence/operation.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace waxis {

enum class CheckKind {
    bridges,    ///< between neighbouring pads
    polarity,   ///< of a plug, twice
    shortCut,   ///< across the pack's plug
    carbon,     ///< frame against pads and poles
    limiter,    ///< first power through a current limiter
    idle,       ///< current that is drawn then
    regulator,  ///< volts of an output before its loads hang on it
    tones,      ///< beeps and lamps
    motor,      ///< turns, which way, which number
    bound,      ///< receiver, and what each channel moves
    settings,   ///< the controller is told what it has to know
    level,      ///< lift the nose
    compass,    ///< lift the nose: the heading stays
    satellites, ///< GPS under open sky
    picture,    ///< video at low power
    weight,     ///< all-up, as it flies
    balance,    ///< centre of gravity
    hover       ///< a minute low over the ground
};

struct Check {
    std::string id; ///< "idle", "regulator:fc.5V", "weight:survey"
    CheckKind kind = CheckKind::bridges;
    Gate gate = Gate::train;
    std::vector<std::string> subjects;
    std::string loadCase;            ///< of those of a flight; else empty
    std::optional<double> low, high; ///< what is expected; neither: a yes or no
    std::string_view unit;           ///< "A", "V", "g", "mm"
    std::vector<double> numbers;     ///< what its sentence tells beside: see wordCheck
};

/// Whether what a part of this kind gives is measured with the power train; all other regulators have a gate of their
/// own (Gate::rails).
bool isMeasuredWithTheTrain(PartKind kind);

/// A capacitor is charged by a meter that beeps below some 50 ohm for about R C; common practice, no source.
inline constexpr double kBeep_Ohm = 50;

/// In the order in which they are done. `loadCase`: what is built and powered first; the flights of all others follow.
std::vector<Check> checksOf(const Build &build, const Practice &practice, const Derived &derived, int loadCase);

/// The smallest of usual limiters (0.5, 1, 2, 3, 5, 10 A) that lets half as much again pass as is drawn at most.
double limiter_A(const IdleCurrent &idle);

enum class CheckVerdict {
    open,  ///< nothing was found yet
    good,  ///< as expected, or said to be
    bad,   ///< not so
    unread ///< what was typed is no number
};
CheckVerdict verdictOf(const Check &check, const CheckResult *result);
const CheckResult *resultOf(const Build &build, const Check &check);

} // namespace waxis
