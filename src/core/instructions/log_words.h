// The log in words: what a trial tells, what was measured against what was planned.
#pragma once

#include "core/base/sentence.h"
#include "core/build/build.h"
#include "core/build/log.h"
#include "core/measured/log_report.h"

#include <string>
#include <string_view>

namespace waxis {

/// "Seconds to 8 satellites", "Carrier to noise", the trial's own words.
Sentence trialMeasure(const Trial &trial);
std::string_view trialQuantityTitle(TrialQuantity quantity);

/// "Mast is quicker than tail by 140 s (40 to 230), 5 against 5 tries; chance alone would do that once in 126."
/// "No difference can be told yet between ...: about 6 more tries each would tell 60 s."
Sentence wordComparison(const Trial &trial, const TrialComparison &pair);

/// A value of the trial with its unit: "2:10" for seconds from a minute on, "38.5 dB-Hz"; "not within 6:00".
std::string trialValue(const Trial &trial, const TryValue &value);

/// "GPS with compass, weight", "Craft, survey: hover current".
Sentence wordRow(const Build &build, const PlannedMeasured &row);

/// Three digits that matter.
std::string threeDigits(double value);

} // namespace waxis
