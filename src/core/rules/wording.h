// Sentences for findings. Patterns are plain English with {0}, {1}... so that the desktop program can translate
// them before the arguments go in.
#pragma once

#include "core/base/sentence.h"
#include "core/findings/finding.h"

#include <string>
#include <vector>

namespace waxis {

struct FindingText {
    Sentence headline; ///< what is wrong and by how much
    Sentence detail;   ///< the limit, and what would cure it
};

FindingText wordFinding(const Build &build, const Finding &finding);
Sentence wordFix(const Build &build, const Fix &fix);
/// The same beside the finding's own sentence, where the thing in the way is named already.
Sentence wordFixBriefly(const Build &build, const Finding &finding, const Fix &fix);

/// One decimal, and no "-0.0".
std::string oneDecimal(double value);
/// Without decimals.
std::string wholeNumber(double value);
/// "front right motor" for a motor mount.
std::string motorName(const Build &build, const std::string &mount);
/// A name as it stands within a sentence: "Rear left propeller disc" -> "rear left propeller disc".
std::string withinSentence(std::string name);
/// The name of a thing as it stands within a sentence: makers keep their capitals, "Front right arm" does not.
std::string nameWithin(const Build &build, const std::string &id);
/// A shift in words: "1.2 mm aft, 3.0 mm up".
std::string shiftInWords(const Vec3 &shift_mm);

} // namespace waxis
