// Inside rules: the functions that the rule book's table points at.
#pragma once

#include "core/rules/rule.h"

namespace waxis {

void judgeMassUnknown(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordMassUnknown(const Build &, const Finding &);

void judgeCounts(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordCounts(const Build &, const Finding &);
void judgeUnweighed(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordUnweighed(const Build &, const Finding &);
void judgeSizes(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordSizes(const Build &, const Finding &);
void judgeMarks(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordMarks(const Build &, const Finding &);

void judgeOverlap(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordOverlap(const Build &, const Finding &);
void judgeGaps(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordGap(const Build &, const Finding &);
void judgePropellerZone(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordPropellerZone(const Build &, const Finding &);
void judgeTipGaps(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordTipGap(const Build &, const Finding &);

void judgeMounting(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordMounting(const Build &, const Finding &);

void judgeNumbering(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordNumbering(const Build &, const Finding &);
void judgeSpins(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordSpins(const Build &, const Finding &);
void judgeHands(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordHands(const Build &, const Finding &);

void judgeCgOffset(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordCgOffset(const Build &, const Finding &);

} // namespace waxis
