// Inside rules: the functions that the rule book's table points at.
#pragma once

#include "core/rules/rule.h"

namespace waxis {

void judgeMassUnknown(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordMassUnknown(const Build &, const Finding &);

void judgeOverlap(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordOverlap(const Build &, const Finding &);
void judgeGaps(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordGap(const Build &, const Finding &);
void judgePropellerZone(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordPropellerZone(const Build &, const Finding &);
void judgeTipGaps(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordTipGap(const Build &, const Finding &);

void judgeCgOffset(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordCgOffset(const Build &, const Finding &);

} // namespace waxis
