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

void judgeAccess(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordAccess(const Build &, const Finding &);
void judgeMating(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordMating(const Build &, const Finding &);
void judgeCamera(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordCamera(const Build &, const Finding &);
void judgeTwoCameras(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordTwoCameras(const Build &, const Finding &);
void judgeLamp(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordLamp(const Build &, const Finding &);
void judgeBattery(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordBattery(const Build &, const Finding &);
void judgeFolding(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordFolding(const Build &, const Finding &);
void judgeSky(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordSky(const Build &, const Finding &);
void judgeAngles(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordAngles(const Build &, const Finding &);

void judgeStackHeight(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordStackHeight(const Build &, const Finding &);
void judgeStackGaps(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordStackGap(const Build &, const Finding &);
void judgeStackScrews(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordStackScrew(const Build &, const Finding &);
void judgeMotorScrews(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordMotorScrew(const Build &, const Finding &);
void judgeDampers(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordDampers(const Build &, const Finding &);
void judgeInsulation(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordInsulation(const Build &, const Finding &);
void judgeHiddenPlugs(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordHiddenPlugs(const Build &, const Finding &);
void judgeHarness(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordHarness(const Build &, const Finding &);

void judgeCgOffset(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordCgOffset(const Build &, const Finding &);

} // namespace waxis
