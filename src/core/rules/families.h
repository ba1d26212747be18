// Inside rules: the functions that the rule book's table points at.
#pragma once

#include "core/rules/rule.h"

namespace waxis {

/// Rules of the Wire stage, in the order of RuleId.
std::vector<Rule> wireRules();
/// Rules of the Radio stage, in the order of RuleId.
std::vector<Rule> radioRules();
/// Rules of the Balance stage, in the order of RuleId.
std::vector<Rule> balanceRules();

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
void judgeHeld(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordHeld(const Build &, const Finding &);
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

void judgeWireLength(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordWireLength(const Build &, const Finding &);
void judgeWireGauge(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordWireGauge(const Build &, const Finding &);
void judgeWireDrop(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordWireDrop(const Build &, const Finding &);
void judgeParallelRun(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordParallelRun(const Build &, const Finding &);
void judgeWireBend(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordWireBend(const Build &, const Finding &);
void judgeWireSpan(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordWireSpan(const Build &, const Finding &);
void judgeHoleEdge(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordHoleEdge(const Build &, const Finding &);
void judgeHoleFill(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordHoleFill(const Build &, const Finding &);
void judgeWireZone(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordWireZone(const Build &, const Finding &);
void judgeEscLead(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordEscLead(const Build &, const Finding &);
void judgeStiffWires(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordStiffWires(const Build &, const Finding &);
void judgeCriticalJoints(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordCriticalJoints(const Build &, const Finding &);
void judgeWireRoute(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordWireRoute(const Build &, const Finding &);
void judgeRailLoad(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordRailLoad(const Build &, const Finding &);
void judgeSupplyRange(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordSupplyRange(const Build &, const Finding &);
void judgeRegulatorHeat(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordRegulatorHeat(const Build &, const Finding &);
void judgeJoinedSupplies(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordJoinedSupplies(const Build &, const Finding &);
void judgeCapacitor(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordCapacitor(const Build &, const Finding &);
void judgePackCurrent(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordPackCurrent(const Build &, const Finding &);
void judgeLiveContacts(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordLiveContacts(const Build &, const Finding &);
void judgeVideoTap(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordVideoTap(const Build &, const Finding &);
void judgeEndurance(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordEndurance(const Build &, const Finding &);
void judgeUnfed(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordUnfed(const Build &, const Finding &);
void judgeCrossing(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordCrossing(const Build &, const Finding &);
void judgeCommonGround(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordCommonGround(const Build &, const Finding &);
void judgePinUse(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordPinUse(const Build &, const Finding &);
void judgeLevel(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordLevel(const Build &, const Finding &);
void judgeBus(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordBus(const Build &, const Finding &);
void judgeSerialPorts(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordSerialPorts(const Build &, const Finding &);
void judgeMotorOutputs(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordMotorOutputs(const Build &, const Finding &);
void judgeChannels(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordChannels(const Build &, const Finding &);
void judgePinOrder(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordPinOrder(const Build &, const Finding &);

void judgeSeparation(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordSeparation(const Build &, const Finding &);
void judgeNoiseRise(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordNoiseRise(const Build &, const Finding &);
void judgeBlocking(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordBlocking(const Build &, const Finding &);
void judgeMixing(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordMixing(const Build &, const Finding &);
void judgeHarmonics(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordHarmonics(const Build &, const Finding &);
void judgeClocks(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordClocks(const Build &, const Finding &);
void judgeNearConductor(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordNearConductor(const Build &, const Finding &);
void judgeNearEdge(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordNearEdge(const Build &, const Finding &);
void judgeDiversity(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordDiversity(const Build &, const Finding &);
void judgeLinkHand(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordLinkHand(const Build &, const Finding &);
void judgeCoverage(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordCoverage(const Build &, const Finding &);
void judgeConnector(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordConnector(const Build &, const Finding &);
void judgeAntennaBand(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordAntennaBand(const Build &, const Finding &);
void judgePigtail(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordPigtail(const Build &, const Finding &);
void judgeRangeMargin(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordRangeMargin(const Build &, const Finding &);
void judgeNoAntenna(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordNoAntenna(const Build &, const Finding &);
void judgeLocalLaw(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordLocalLaw(const Build &, const Finding &);
void judgeThrottle(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordThrottle(const Build &, const Finding &);
void judgeMagnets(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordMagnets(const Build &, const Finding &);
void judgeIron(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordIron(const Build &, const Finding &);

void judgeCgOffset(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordCgOffset(const Build &, const Finding &);
void judgeWeight(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordWeight(const Build &, const Finding &);
void judgeMotorLoad(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordMotorLoad(const Build &, const Finding &);
void judgeThrustLeft(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordThrustLeft(const Build &, const Finding &);
void judgeBalanceSure(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordBalanceSure(const Build &, const Finding &);
void judgeMeasured(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordMeasured(const Build &, const Finding &);
void judgeYawTorque(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
FindingText wordYawTorque(const Build &, const Finding &);

} // namespace waxis
