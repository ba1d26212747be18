// Every edit that there is, with random arguments: what must hold after any edit is tried with all of them.
// test_analysis reads the headers of the core and fails for an edit function that is not in this list.
#pragma once

#include "core/analysis/analysis.h"
#include "core/edits/assembly_edits.h"
#include "core/edits/balance_edits.h"
#include "core/edits/case_edits.h"
#include "core/edits/channel_edits.h"
#include "core/edits/clip.h"
#include "core/edits/feedback_edits.h"
#include "core/edits/furnish_stack.h"
#include "core/edits/group_edits.h"
#include "core/edits/hung_on.h"
#include "core/edits/insert_edits.h"
#include "core/edits/kit_edits.h"
#include "core/edits/log_edits.h"
#include "core/edits/perch_edits.h"
#include "core/edits/radio_edits.h"
#include "core/edits/shield_edits.h"
#include "core/edits/stack_change.h"
#include "core/edits/stack_edits.h"
#include "core/edits/wire_edits.h"
#include "core/layout/hand_edits.h"
#include "core/layout/handles.h"
#include "core/layout/numbering.h"
#include "core/layout/relayout.h"
#include "core/layout/screw_edits.h"
#include "core/placing/perch.h"
#include "core/sight/camera_pose.h"
#include "core/studies/savings.h"
#include "support/draw.h"

#include <functional>

namespace waxis::test {

struct AnyEdit {
    const char *name; ///< of the function
    std::function<EditResult(const Build &, Draw &)> run;
};

inline const std::vector<AnyEdit> &everyEdit() {
    using B = const Build &;
    static const std::vector<AnyEdit> list {
        // core/build
        {"movePart", [](B b, Draw &d) { return movePart(b, d.part(), d.pose()); }},
            {"seatPart", [](B b, Draw &d) { return seatPart(b, d.part(), d.id(b.frame->sites), Pose{}); }},
            {"placePart", [](B b, Draw &d) { return placePart(b, d.part(), d.pose()); }},
            {"shiftPart", [](B b, Draw &d) { return shiftPart(b, d.part(), d.shift(), d.coin()); }},
            {"turnPart",
             [](B b, Draw &d) { return turnPart(b, d.part(), d.shift() + Vec3(0, 0, 40), d.number(-180, 180)); }},
            {"weighPart", [](B b, Draw &d) { return weighPart(b, d.part(), d.grams()); }},
            {"changeType", [](B b, Draw &d) { return changeType(b, d.part(), d.type().id); }},
            {"replaceType", [](B b, Draw &d) { return replaceType(b, d.part(), d.type().id); }},
            {"renamePart",
             [](B b, Draw &d) { return renamePart(b, d.part(), "part no. " + std::to_string(d.upTo(99))); }},
            {"pinPart", [](B b, Draw &d) { return pinPart(b, d.part(), d.coin()); }},
            {"removePart", [](B b, Draw &d) { return removePart(b, d.part()); }},
            {"addPart", [](B b, Draw &d) { return addPart(b, d.type(), "added", d.pose()); }},
            {"putType",
             [](B b, Draw &d) {
                 PartType type = d.type();
                 type.mass_g = d.grams();
                 return putType(b, type, type.id);
             }},
            {"tickSteps",
             [](B b, Draw &d) {
                 return tickSteps(b, {{"fit:" + d.part(), "2026-11-30T20:00:00", std::to_string(d.upTo(9))}});
             }},
            {"untickSteps", [](B b, Draw &d) { return untickSteps(b, {d.one(b.stepsDone).step}); }},
            {"untickAll", [](B b, Draw &) { return untickAll(b); }},
            {"addOwnStep", [](B b, Draw &d) { return addOwnStep(b, d.words(), "fit:" + d.part()); }},
            {"changeOwnStep", [](B b, Draw &d) { return changeOwnStep(b, d.id(b.ownSteps), d.words()); }},
            {"removeOwnStep", [](B b, Draw &d) { return removeOwnStep(b, d.id(b.ownSteps)); }},
            {"wantOrder",
             [](B b, Draw &d) {
                 return wantOrder(b, {{"fit:" + d.part(), "fit:" + d.part(), d.coin() ? "so it is" : ""}});
             }},
            {"dropOwnOrder", [](B b, Draw &) { return dropOwnOrder(b); }},
            {"recordCheck",
             [](B b, Draw &d) {
                 return recordCheck(b, "idle", d.coin() ? "0.3" : "", d.coin() ? std::optional(d.coin()) : std::nullopt,
                                    "2026-11-30T20:00:00");
             }},
            {"acceptFinding", [](B b, Draw &d) { return acceptFinding(b, d.finding().key(), "so be it"); }},
            {"withdrawAcceptance", [](B b, Draw &d) { return withdrawAcceptance(b, d.one(b.acceptances).finding); }},
            {"setLimit",
             [](B b, Draw &d) {
                 const LimitDefinition &limit = limitTable()[d.upTo(limitTable().size())];
                 return setLimit(b, std::string(limit.id), d.coin() ? std::optional(d.number(0, 20)) : std::nullopt);
             }},
            {"setSchool",
             [](B b, Draw &d) {
                 const School &school = schools()[d.upTo(schools().size())];
                 return setSchool(b, std::string(school.id),
                                  std::string(school.options[d.upTo(school.options.size())].id));
             }},
            {"setPractice",
             [](B b, Draw &d) {
                 PracticeSettings settings;
                 settings.profile = profiles()[d.upTo(profiles().size())].id;
                 return setPractice(b, settings);
             }},
            {"chooseProfile", [](B b, Draw &d) { return chooseProfile(b, std::string(d.one(profiles()).id)); }},
            {"alignParts", [](B b, Draw &d) { return alignParts(b, d.parts(), int(d.upTo(3)), AlignTo(d.upTo(3))); }},
            {"distributeParts", [](B b, Draw &d) { return distributeParts(b, d.parts(), int(d.upTo(3))); }},
            {"mirrorParts", [](B b, Draw &d) { return mirrorParts(b, d.parts()); }},
            {"mirrorCopies", [](B b, Draw &d) { return mirrorCopies(b, {d.part()}, nullptr); }},
            {"copyToOtherArms", [](B b, Draw &d) { return copyToOtherArms(b, d.part(), nullptr); }},
            {"overturnPart", [](B b, Draw &d) { return overturnPart(b, d.part()); }},
            {"shiftParts", [](B b, Draw &d) { return shiftParts(b, d.parts(), d.shift()); }},
            {"removeParts", [](B b, Draw &d) { return removeParts(b, {d.part()}); }},
            {"fastenPart",
             [](B b, Draw &d) {
                 Fastening fastening;
                 fastening.method = FasteningMethod(d.upTo(10));
                 fastening.onto = {d.coin() ? d.plate() : d.part()};
                 if (d.coin()) fastening.pieces = int(d.upTo(5));
                 return fastenPart(b, d.part(), fastening);
             }},
            {"shiftPlate",
             [](B b, Draw &d) {
                 return shiftPlate(b, d.plate(), {0, 0, d.number(-3, 3)});
             }},
            {"bringAlong",
             [](B b, Draw &d) {
                 const std::string part = d.part();
                 return bringAlong(b, shiftPart(b, part, d.shift()), part);
             }},
        // A clip is no craft: only that making one does no harm.
        {"clipOf", [](B b, Draw &d) { return clipOf(b, {d.part()}) ? EditResult(b) : EditResult(b); }},
        {"pasteClip",
                 [](B b, Draw &d) {
                     const auto clip = clipOf(b, {d.part()});
                     return clip ? pasteClip(b, *clip, {10, 10, 0}, nullptr) : clip;
                 }},
                    {"renameBuild", [](B b, Draw &d) { return renameBuild(b, "Craft " + std::to_string(d.upTo(99))); }},
                    {"noteBuild", [](B b, Draw &d) { return noteBuild(b, d.words()); }},
                    {"notePart", [](B b, Draw &d) { return notePart(b, d.part(), d.words()); }},
                    {"addLoadCase", [](B b, Draw &d) { return addLoadCase(b, "Case " + std::to_string(d.upTo(999))); }},
                    {"renameLoadCase",
                     [](B b, Draw &d) {
                         return renameLoadCase(b, d.loadCase(), "Day " + std::to_string(d.upTo(999)));
                     }},
                    {"setLoadCaseKind",
                     [](B b, Draw &d) { return setLoadCaseKind(b, d.loadCase(), LoadCaseKind(d.upTo(3))); }},
                    {"setLoadCaseUsb",
                     [](B b, Draw &d) {
                         return setLoadCaseUsb(b, d.loadCase(), d.coin() ? d.partOf(PartKind::flightController) : "");
                     }},
                    {"setSwitchedOff",
                     [](B b, Draw &d) { return setSwitchedOff(b, d.part(), d.loadCase(), d.coin()); }},
                    {"addQuietCase", [](B b, Draw &d) { return addQuietCase(b, d.part()); }},
                    {"addShield", [](B b, Draw &d) { return addShield(b, d.part(), {double(d.upTo(20))}); }},
                    {"setChannels",
                     [](B b, Draw &d) {
                         return setChannels(b, d.part(), {ChannelFunction(d.upTo(16)), ChannelFunction(d.upTo(16))});
                     }},
                    {"addInsert",
                     [](B b, Draw &d) {
                         return addInsert(b, d.one(b.wires).id, d.type(), int(d.upTo(3)) - 1);
                     }},
                    {"setInsert",
                     [](B b, Draw &d) {
                         const Wire wire = d.one(b.wires);
                         WireInsert next = d.one(wire.inserts);
                         next.at = d.number(0, 1);
                         next.turned = d.coin();
                         return setInsert(b, wire.id, 0, next);
                     }},
                    {"removeInsert", [](B b, Draw &d) { return removeInsert(b, d.one(b.wires).id, d.upTo(2)); }},
                    {"setLoadCaseFolded", [](B b, Draw &d) { return setLoadCaseFolded(b, d.loadCase(), d.coin()); }},
                    {"setLoadCasePack",
                     [](B b, Draw &d) { return setLoadCasePack(b, d.loadCase(), d.partOf(PartKind::battery)); }},
                    {"removeLoadCase", [](B b, Draw &d) { return removeLoadCase(b, d.loadCase()); }},
                    {"setAboard", [](B b, Draw &d) { return setAboard(b, d.part(), d.loadCase(), d.coin()); }},
                    {"makeOptional", [](B b, Draw &d) { return makeOptional(b, d.part(), d.coin()); }},
                    {"setChannel",
                     [](B b, Draw &d) {
                         return setChannel(b, d.part(), 0, d.coin() ? std::optional(5800.0) : std::nullopt);
                     }},
                    {"setPower",
                     [](B b, Draw &d) {
                         return setPower(b, d.part(), 0, d.coin() ? std::optional(14.0) : std::nullopt);
                     }},
                    {"addGroundStation", [](B b, Draw &d) { return addGroundStation(b, d.part(), 0); }},
                    {"editGroundStation",
                     [](B b, Draw &d) {
                         GroundStation station = d.one(b.groundStations);
                         station.distance_m = d.number(50, 5000);
                         return editGroundStation(b, station);
                     }},
                    {"removeGroundStation",
                     [](B b, Draw &d) { return removeGroundStation(b, d.id(b.groundStations)); }},
                    {"addTrial", [](B b, Draw &d) { return addTrial(b, d.part(), d.pose()); }},
                    {"moveTrial", [](B b, Draw &d) { return moveTrial(b, d.id(b.trials), d.pose()); }},
                    {"removeTrial", [](B b, Draw &d) { return removeTrial(b, d.id(b.trials)); }},
                    {"takeTrial", [](B b, Draw &d) { return takeTrial(b, d.id(b.trials)); }},
                    // the log
                    {"addSession", [](B b, Draw &d) { return addSession(b, d.session()); }},
                    {"changeSession",
                     [](B b, Draw &d) {
                         Session session = d.one(b.log->sessions);
                         session.place = d.words();
                         return changeSession(b, session);
                     }},
                    {"removeSession", [](B b, Draw &d) { return removeSession(b, d.id(b.log->sessions)); }},
                    {"addEntry", [](B b, Draw &d) { return addEntry(b, d.entry()); }},
                    {"changeEntry",
                     [](B b, Draw &d) {
                         Entry entry = d.one(b.log->entries);
                         entry.setAside = !entry.setAside;
                         return changeEntry(b, entry);
                     }},
                    {"removeEntry", [](B b, Draw &d) { return removeEntry(b, d.id(b.log->entries)); }},
                    {"addTrialOf",
                     [](B b, Draw &d) {
                         Trial trial;
                         trial.question = "Which is better?";
                         trial.part = d.part();
                         trial.setups.resize(2);
                         trial.setups[0].name = "here";
                         trial.setups[1].name = "there";
                         trial.setups[1].stood = StoodAt{d.pose()};
                         return addTrialOf(b, trial);
                     }},
                    {"changeTrialOf",
                     [](B b, Draw &d) {
                         Trial trial = d.one(b.log->trials);
                         trial.satellites = 4 + int(d.upTo(10));
                         return changeTrialOf(b, trial);
                     }},
                    {"removeTrialOf", [](B b, Draw &d) { return removeTrialOf(b, d.id(b.log->trials)); }},
                    {"addTry",
                     [](B b, Draw &d) {
                         const Trial trial = d.one(b.log->trials);
                         Try one;
                         one.setup = d.id(trial.setups);
                         one.value = d.number(30, 400);
                         return addTry(b, trial.id, one);
                     }},
                    {"changeTry",
                     [](B b, Draw &d) {
                         const Trial trial = d.one(b.log->trials);
                         Try one = d.one(trial.tries);
                         one.setAside = !one.setAside;
                         return changeTry(b, trial.id, one);
                     }},
                    {"removeTry",
                     [](B b, Draw &d) {
                         const Trial trial = d.one(b.log->trials);
                         return removeTry(b, trial.id, d.id(trial.tries));
                     }},
                    {"addSnapshot",
                     [](B b, Draw &) { return addSnapshot(b, {"", "Before", "2026-05-13", "", "", std::string("{}")}); }},
                    {"renameSnapshot",
                     [](B b, Draw &d) { return renameSnapshot(b, d.id(b.log->snapshots), d.words()); }},
                    {"removeSnapshot", [](B b, Draw &d) { return removeSnapshot(b, d.id(b.log->snapshots)); }},
                    {"takeFeedback",
                     [](B b, Draw &d) {
                         const auto kind = FeedbackKind(d.upTo(7));
                         Feedback f{kind, d.coin() ? d.part() : d.type().id, {d.number(1, 60)}, 0.5, {}, "measured"};
                         if (kind == FeedbackKind::kindSize) f.values = {10, 12, d.number(1, 9)};
                         if (kind == FeedbackKind::craftWeight) f.subject = d.loadCase();
                         if (kind == FeedbackKind::limit) {
                             f.limit = d.coin() ? Limit::wireOwnSlack : Limit::figureOfMerit;
                             f.values = {d.number(20, 70)};
                         }
                         if (kind == FeedbackKind::place) {
                             f.values.clear();
                             f.X_FramePart = d.pose();
                         }
                         return takeFeedback(b, f);
                     }},
                    // core/kit
                    {"countKit", [](B b, Draw &d) { return countKit(b, d.type().id, int(d.upTo(9))); }},
                    {"weighKit",
                     [](B b, Draw &d) { return weighKit(b, d.coin() ? d.type().id : "screw-m3x8", d.grams()); }},
                    {"measureKit",
                     [](B b, Draw &d) { return measureKit(b, d.type().id, Vec3(d.number(1, 40), 12, 3)); }},
                    {"checkKit", [](B b, Draw &d) { return checkKit(b, d.type().id, d.coin()); }},
                    {"confirmArrow", [](B b, Draw &d) { return confirmArrow(b, d.type().id, d.coin()); }},
                    {"confirmPins", [](B b, Draw &d) { return confirmPins(b, d.type().id, d.coin()); }},
                    {"noteKit", [](B b, Draw &d) { return noteKit(b, d.type().id, d.words()); }},
                    {"addToKit", [](B b, Draw &d) { return addToKit(b, d.type(), int(d.upTo(9))); }},
                    // core/wiring
                    {"connectPorts", [](B b, Draw &d) { return connectPorts(b, d.end(), d.end()); }},
                    {"connectPins",
                     [](B b, Draw &d) {
                         const WireEnd from = d.end(), to = d.end();
                         return connectPins(b, from, d.pinOf(from), to, d.pinOf(to));
                     }},
                    {"removeWire", [](B b, Draw &d) { return removeWire(b, d.wire()); }},
                    {"removeCore", [](B b, Draw &d) { return removeCore(b, d.wire(), 0); }},
                    {"movePin",
                     [](B b, Draw &d) {
                         const Wire wire = d.one(b.wires);
                         return movePin(b, wire.id, 0, d.coin(), d.pinOf(wire.from));
                     }},
                    {"changeWire",
                     [](B b, Draw &d) {
                         Wire wire = d.one(b.wires);
                         wire.sleeved = !wire.sleeved;
                         wire.splices = int(d.upTo(3));
                         wire.lay = WireLay(d.upTo(4));
                         return changeWire(b, wire.id, wire);
                     }},
                    {"setGauge",
                     [](B b, Draw &d) {
                         return setGauge(b, d.wire(), d.coin() ? std::optional(18 + 2 * int(d.upTo(6))) : std::nullopt);
                     }},
                    {"setStops",
                     [](B b, Draw &d) {
                         return setStops(b, d.wire(),
                                         d.coin() ? std::vector<RouteStop>{{"", d.place()}} : std::vector<RouteStop>{});
                     }},
                    {"moveSupply", [](B b, Draw &d) { return moveSupply(b, d.part(), d.part(), "5V"); }},
                    {"addTie", [](B b, Draw &d) { return addTie(b, d.place()); }},
                    {"moveTie", [](B b, Draw &d) { return moveTie(b, d.id(b.ties), d.place()); }},
                    {"removeTie", [](B b, Draw &d) { return removeTie(b, d.id(b.ties)); }},
                    {"setHoleEdge",
                     [](B b, Draw &d) {
                         return setHoleEdge(b, d.id(b.frame->passThroughs),
                                            d.coin() ? HoleEdge::bare : HoleEdge::grommet);
                     }},
                    {"applyWireChange",
                     [](B b, Draw &d) {
                         WireChange change;
                         change.kind = WireChange::Kind::gauge;
                         change.wire = d.wire();
                         change.gauge_AWG = 20;
                         return applyWireChange(b, change);
                     }},
                    // core/sight, core/balance
                    {"tiltCamera",
                     [](B b, Draw &d) { return tiltCamera(b, d.partOf(PartKind::flightCamera), d.number(-10, 60)); }},
                    {"applySaving",
                     [](B b, Draw &d) {
                         Analyser analyser;
                         const Analysis &analysis = analyser.update(b);
                         const auto savings = gramSavings(b, analysis.practice, analysis.derived, 0);
                         return savings.empty() ? EditResult(b) : applySaving(b, d.one(savings), d.loadCase());
                     }},
                    {"slidePart", [](B b, Draw &d) { return slidePart(b, d.part(), d.number(-10, 10)); }},
                    {"setSlide",
                     [](B b, Draw &d) {
                         return setSlide(b, d.part(), SlideRange{Vec3::UnitX(), -d.number(0, 20), d.number(0, 20)});
                     }},
                    {"swapPack", [](B b, Draw &d) { return swapPack(b, d.partOf(PartKind::battery), d.type()); }},
                    {"leaveOut", [](B b, Draw &d) { return leaveOut(b, d.loadCase(), d.part()); }},
                    {"addBallast", [](B b, Draw &d) { return addBallast(b, d.place(), d.number(1, 30)); }},
                    {"addWeighing",
                     [](B b, Draw &d) { return addWeighing(b, WeighingMethod(d.upTo(3)), d.loadCase()); }},
                    {"editWeighing",
                     [](B b, Draw &d) {
                         Weighing weighing = d.one(b.weighings);
                         weighing.total_g = measuredValue(d.number(300, 900), 1);
                         return editWeighing(b, weighing);
                     }},
                    {"removeWeighing", [](B b, Draw &d) { return removeWeighing(b, d.id(b.weighings)); }},
                    {"addWeightLimit", [](B b, Draw &d) { return addWeightLimit(b, "Limit", d.number(100, 900)); }},
                    {"editWeightLimit",
                     [](B b, Draw &d) {
                         WeightLimit limit = d.one(b.weightLimits);
                         limit.most_g = d.number(100, 900);
                         return editWeightLimit(b, limit);
                     }},
                    {"removeWeightLimit", [](B b, Draw &d) { return removeWeightLimit(b, d.id(b.weightLimits)); }},
                    {"setMotorThrust",
                     [](B b, Draw &d) {
                         return setMotorThrust(b, d.coin() ? std::optional(d.number(300, 2000)) : std::nullopt);
                     }},
                    // core/layout
                    {"pullHandle",
                     [](B b, Draw &d) {
                         const FrameHandle handle = d.one(frameHandles(*b.frame));
                         return pullHandle(b, handle, handle.position_mm * d.number(0.95, 1.08));
                     }},
                    {"setPropDiameter", [](B b, Draw &d) { return setPropDiameter(b, d.mount(), d.number(90, 140)); }},
                    {"chooseNumbering", [](B b, Draw &d) { return chooseNumbering(b, Numbering(d.upTo(4))); }},
                    {"setMotorNumber", [](B b, Draw &d) { return setMotorNumber(b, d.mount(), 1 + int(d.upTo(4))); }},
                    {"setMotorSpin",
                     [](B b, Draw &d) {
                         return setMotorSpin(b, d.mount(), d.coin() ? Spin::clockwise : Spin::counterClockwise);
                     }},
                    {"reverseSpins", [](B b, Draw &) { return reverseSpins(b); }},
                    {"relayout", [](B b, Draw &) { return relayout(b, LayoutKind::quadX, {}); }},
                    {"setLayoutValue", [](B b, Draw &d) { return setLayoutValue(b, "arm_mm", d.number(100, 130)); }},
                    {"moveMotor",
                     [](B b, Draw &d) {
                         const MotorMount mount = d.one(b.frame->motorMounts);
                         const Vec3 to = mount.position_mm + Vec3(d.number(-4, 4), d.number(-4, 4), 0);
                         return moveMotor(b, mount.id, to.head<2>());
                     }},
                    {"extendArms", [](B b, Draw &d) { return extendArms(b, d.number(-2, 5)); }},
                    {"replaceFrame",
                     [](B b, Draw &d) {
                         Frame frame = *b.frame;
                         if (!frame.sites.empty())
                             frame.sites.erase(frame.sites.begin() + std::ptrdiff_t(d.upTo(frame.sites.size())));
                         return replaceFrame(b, frame);
                     }},
                    {"setPlate",
                     [](B b, Draw &d) {
                         Plate plate = d.one(b.frame->plates);
                         plate.thickness_mm = d.number(1, 4);
                         return setPlate(b, plate);
                     }},
                    {"removePlate", [](B b, Draw &d) { return removePlate(b, d.plate()); }},
                    {"addToFrame",
                     [](B b, Draw &d) {
                         FrameWish wish;
                         wish.thing = FrameThing(d.upTo(12));
                         wish.at_mm = {d.number(-40, 40), d.number(-20, 20)};
                         wish.plate = d.plate();
                         return addToFrame(b, wish);
                     }},
                    {"moveOnFrame",
                     [](B b, Draw &d) {
                         return moveOnFrame(b, d.coin() ? d.id(b.frame->standoffs) : d.id(b.frame->sites),
                                            {d.number(-40, 40), d.number(-20, 20)});
                     }},
                    {"removeFromFrame",
                     [](B b, Draw &d) {
                         return removeFromFrame(b, d.coin() ? d.id(b.frame->standoffs) : d.id(b.frame->sites));
                     }},
                    {"setArm",
                     [](B b, Draw &d) {
                         Arm arm = d.one(b.frame->arms);
                         arm.section = ArmSection(int(d.number(0, 2.99)));
                         arm.wall_mm = d.number(0.5, 2);
                         return setArm(b, arm);
                     }},
                    {"setStandoff",
                     [](B b, Draw &d) {
                         Standoff standoff = d.one(b.frame->standoffs);
                         standoff.height_mm = d.number(15, 40);
                         return setStandoff(b, standoff);
                     }},
                    {"addMissingScrews", [](B b, Draw &) { return addMissingScrews(b); }},
                    {"addFrameScrew",
                     [](B b, Draw &d) {
                         return addFrameScrew(b, {d.number(-40, 40), d.number(-20, 20)});
                     }},
                    {"setFrameScrew",
                     [](B b, Draw &d) {
                         FrameScrew screw = d.one(b.frame->screws);
                         screw.fromAbove = d.coin();
                         screw.head = HeadStyle(int(d.number(0, 2.99)));
                         screw.length_mm = d.coin() ? std::optional(d.number(4, 40)) : std::nullopt;
                         return setFrameScrew(b, screw);
                     }},
                    {"setPlateSag",
                     [](B b, Draw &d) {
                         return setPlateSag(b, d.id(b.frame->plates), measuredValue(d.number(0.1, 3)));
                     }},
                    {"shareFrameScrew",
                     [](B b, Draw &d) {
                         return shareFrameScrew(b, d.id(b.frame->screws), d.id(b.parts), d.coin());
                     }},
                    {"swapPropellers",
                     [](B b, Draw &d) {
                         for (const auto &[id, type] : *b.types)
                             if (type.kind == PartKind::propeller) {
                                 PartType other = type;
                                 other.id = "other-propeller";
                                 other.turns.reset();
                                 other.propDiameter_mm = d.number(80, 200);
                                 return swapPropellers(b, other);
                             }
                         return swapPropellers(b, PartType{});
                     }},
                    {"setMotorMount",
                     [](B b, Draw &d) {
                         MotorMount mount = d.one(b.frame->motorMounts);
                         mount.propDiameter_mm = d.number(50, 300);
                         return setMotorMount(b, mount);
                     }},
                    {"setSite",
                     [](B b, Draw &d) {
                         Site site = d.one(b.frame->sites);
                         site.isolated = !site.isolated;
                         return setSite(b, site);
                     }},
                    {"setPassThrough",
                     [](B b, Draw &d) {
                         PassThrough pass = d.one(b.frame->passThroughs);
                         for (auto &corner : pass.outline_mm) corner *= 0.98;
                         return setPassThrough(b, pass);
                     }},
                    {"hangMotor", [](B b, Draw &d) { return hangMotor(b, d.mount(), d.coin()); }},
                    // core/stack
                    {"applyChange",
                     [](B b, Draw &d) {
                         StackChange change;
                         change.stack = d.stack();
                         change.kind = StackChangeKind(d.upTo(16));
                         change.layer = d.layerOf(change.stack);
                         change.value = d.number(1, 12);
                         return applyChange(b, change);
                     }},
                    {"addStack", [](B b, Draw &d) { return addStack(b, d.id(b.frame->sites), "Stack"); }},
                    {"gatherStack", [](B b, Draw &d) { return gatherStack(b, d.id(b.frame->sites), "Gathered"); }},
                    {"addHangingStack", [](B b, Draw &d) { return addHangingStack(b, d.id(b.frame->sites)); }},
                    {"removeStack", [](B b, Draw &d) { return removeStack(b, d.stack()); }},
                    {"moveLayer",
                     [](B b, Draw &d) {
                         const std::string stack = d.stack();
                         return moveLayer(b, stack, d.layerOf(stack), d.layerOf(stack));
                     }},
                    {"removeLayer",
                     [](B b, Draw &d) {
                         const std::string stack = d.stack();
                         return removeLayer(b, stack, d.layerOf(stack));
                     }},
                    {"addHardware",
                     [](B b, Draw &d) {
                         const std::string stack = d.stack();
                         return addHardware(b, stack, d.layerOf(stack),
                                            made({FastenerForm::spacer, "M3", double(3 + d.upTo(8))}));
                     }},
                    {"addBoard",
                     [](B b, Draw &d) {
                         const std::string stack = d.stack();
                         return d.coin() ? addBoard(b, stack, d.layerOf(stack), d.part())
                                         : addBoard(b, stack, d.layerOf(stack), boardType("spare"));
                     }},
                    {"addFiller",
                     [](B b, Draw &d) {
                         const std::string stack = d.stack();
                         return addFiller(b, stack, d.layerOf(stack), LayerRole::wires, d.number(1, 4));
                     }},
                    {"changeHardware",
                     [](B b, Draw &d) {
                         const std::string stack = d.stack();
                         return changeHardware(b, stack, d.layerOf(stack),
                                               made({FastenerForm::spacer, "M3", double(3 + d.upTo(8))}));
                     }},
                    {"setLayer",
                     [](B b, Draw &d) {
                         const std::string stack = d.stack();
                         return setLayer(b, stack, d.layerOf(stack), measuredValue(d.number(1, 9), 0.1),
                                         d.number(0, 0.4), {});
                     }},
                    {"flipBoard",
                     [](B b, Draw &d) {
                         const std::string stack = d.stack();
                         return flipBoard(b, stack, d.layerOf(stack));
                     }},
                    {"turnBoard",
                     [](B b, Draw &d) {
                         const std::string stack = d.stack();
                         return turnBoard(b, stack, d.layerOf(stack), 90);
                     }},
                    {"chooseScrew",
                     [](B b, Draw &d) {
                         return chooseScrew(b, d.stack(), {FastenerForm::screw, "M3", d.coin() ? 20.0 : 25.0},
                                            d.coin() ? "steel" : "titanium");
                     }},
                    {"holdStack", [](B b, Draw &d) { return holdStack(b, d.stack(), StackHold(d.upTo(3))); }},
                    {"setStackBase",
                     [](B b, Draw &d) {
                         StackBase base;
                         base.name = "Base";
                         base.headsOutside = d.coin();
                         return setStackBase(b, d.stack(), base);
                     }},
                    {"furnishStack", [](B b, Draw &d) { return furnishStack(b, d.stack(), practiceOf(b.practice)); }},
                    // core/placing, core/rules
                    {"perchPart",
                     [](B b, Draw &d) {
                         const std::string id = d.part();
                         const Part *part = findPart(b, id);
                         const auto perches = part ? perchesFor(b, *part) : std::vector<Perch>{};
                         return perches.empty() ? EditResult(b) : perchPart(b, id, d.one(perches));
                     }},
                    {"addPerched",
                     [](B b, Draw &d) {
                         const PartType type = d.type();
                         const auto perches = perchesFor(b, type);
                         return perches.empty() ? EditResult(b) : addPerched(b, type, {d.one(perches)}, {});
                     }},
                    {"applyFix", [](B b, Draw &d) {
                         const Finding finding = d.finding();
                         return finding.fixes.empty() ? EditResult(b) : applyFix(b, d.one(finding.fixes));
                     }},
            };
    return list;
}

} // namespace waxis::test
