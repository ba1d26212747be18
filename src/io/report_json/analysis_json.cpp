#include "io/report_json/analysis_json.h"

#include "core/attitude/mounting_angles.h"
#include "core/balance/mass_rows.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/kit/holding.h"
#include "core/kit/kit.h"
#include "core/layout/frame_report.h"
#include "core/layout/numbering.h"
#include "core/radio/coupling.h"
#include "core/remedies/radio_help.h"
#include "core/rules/rule.h"
#include "core/scene/scene.h"
#include "core/sequence/plan.h"
#include "core/survey/reach.h"
#include "core/survey/survey.h"
#include "core/survey/views.h"
#include "io/json/write_model.h"
#include "io/names.h"
#include "io/report_json/balance_json.h"
#include "io/report_json/log_json.h"
#include "io/report_json/or_null.h"
#include "io/report_json/radio_json.h"
#include "io/report_json/sequence_json.h"
#include "io/report_json/stack_json.h"
#include "io/report_json/wire_json.h"

#include <nlohmann/json.hpp>

namespace waxis::io {

namespace {

template <class T>
OrderedJson orNull(const std::optional<T> &value) {
    if constexpr (std::is_same_v<T, Vec3>)
        return value ? toJson(*value) : OrderedJson(nullptr);
    else
        return value ? OrderedJson(*value) : OrderedJson(nullptr);
}

OrderedJson measuredJson(const Measured &measured) {
    return measured.known() ? toJson(measured) : OrderedJson(nullptr);
}

OrderedJson kitJson(const Derived &derived) {
    OrderedJson out;
    const KitTotals totals = kitTotals(derived.kit);
    out["kinds"] = totals.kinds;
    out["kindsCounted"] = totals.kindsCounted;
    out["kindsChecked"] = totals.kindsChecked;
    out["piecesNeeded"] = totals.piecesNeeded;
    out["piecesInHand"] = totals.piecesInHand;
    out["piecesMissing"] = totals.piecesMissing;
    out["piecesSpare"] = totals.piecesSpare;
    out["weighed_g"] = totals.weighed_g;
    out["unweighed_g"] = totals.unweighed_g;
    out["kindsWithoutMass"] = totals.massUnknown;
    out["lines"] = OrderedJson::array();
    for (const auto &line : derived.kit) {
        OrderedJson entry{{"item", line.item}, {"name", line.name}, {"needed", line.needed}};
        entry["inHand"] = line.inHand ? OrderedJson(*line.inHand) : OrderedJson(nullptr);
        entry["missing"] = line.missing();
        entry["spare"] = line.spare();
        entry["checked"] = line.checked;
        entry["catalogueMass_g"] = measuredJson(line.catalogueMass_g);
        entry["weighedMass_g"] = measuredJson(line.weighedMass_g);
        entry["size_mm"] = orNull(line.measuredSize_mm ? line.measuredSize_mm : line.catalogueSize_mm);
        entry["sizeMeasured"] = line.measuredSize_mm.has_value();
        entry["arrowConfirmed"] = line.hasArrow ? OrderedJson(line.arrowConfirmed) : OrderedJson(nullptr);
        entry["pinsConfirmed"] = line.hasPins ? OrderedJson(line.pinsConfirmed) : OrderedJson(nullptr);
        entry["members"] = line.members;
        out["lines"].push_back(entry);
    }
    return out;
}

OrderedJson frameJson(const Frame &frame) {
    const FrameReport report = frameReport(frame);
    OrderedJson out{{"layout", frame.layout}, {"numbering", frame.numbering}};
    out["motorDiagonal_mm"] = report.diagonal_mm;
    out["yawSurplus"] = report.yawSurplus;
    out["motors"] = OrderedJson::array();
    for (std::size_t i = 0; i < report.motors.size(); ++i) {
        const MotorReport &motor = report.motors[i];
        OrderedJson entry{{"id", motor.mount}, {"number", motor.number}, {"spin", nameOf(motor.spin)}};
        entry["position_mm"] = toJson(frame.motorMounts[i].position_mm);
        entry["propellerHand"] = nameOf(motor.spin);
        entry["selfTighteningThread"] = selfTighteningThread(spinAtShaft(frame.motorMounts[i]));
        entry["propDiameter_mm"] = motor.propDiameter_mm;
        entry["tipGap_mm"] = orNull(motor.tipGap_mm);
        entry["tipNeighbour"] = motor.tipGap_mm ? OrderedJson(motor.tipNeighbour) : OrderedJson(nullptr);
        entry["frameGap_mm"] = orNull(motor.frameGap_mm);
        entry["framePiece"] = motor.frameGap_mm ? OrderedJson(motor.framePiece) : OrderedJson(nullptr);
        out["motors"].push_back(entry);
    }
    out["plates"] = OrderedJson::array();
    for (const auto &plate : report.plates) {
        OrderedJson entry{
            {"id", plate.plate}, {"area_mm2", plate.area_mm2}, {"centroid_mm", toJson(plate.centroid_mm)}};
        entry["mass_g"] = orNull(plate.mass_g);
        entry["holes"] = plate.holes;
        out["plates"].push_back(entry);
    }
    return out;
}

OrderedJson rowJson(const MassRow &row, const std::vector<LoadCase> &loadCases) {
    OrderedJson out;
    out["id"] = row.id;
    out["kind"] = nameOf(row.kind);
    out["family"] = nameOf(row.family);
    out["known"] = row.known;
    out["mass_g"] = row.known ? OrderedJson(row.element.mass_g) : OrderedJson(nullptr);
    out["tolerance_g"] = row.known ? OrderedJson(row.tolerance_g) : OrderedJson(nullptr);
    out["source"] = nameOf(row.source);
    out["centroid_mm"] = toJson(row.element.centroid_mm);
    out["inertia_g_mm2"] = matrixJson(row.element.inertia_gmm2);
    auto cases = OrderedJson::array();
    for (std::size_t i = 0; i < loadCases.size(); ++i)
        if (row.cases >> i & 1) cases.push_back(loadCases[i].id);
    out["loadCases"] = cases;
    return out;
}

OrderedJson fixJson(const Build &build, const Fix &fix) {
    const auto orNothing = [](const auto *change, auto &&json) {
        return change ? OrderedJson(json(*change)) : OrderedJson(nullptr);
    };
    OrderedJson out{{"part", fix.part}, {"shift_mm", toJson(fix.shift_mm())}};
    out["tilt_deg"] = orNothing(fix.as<CameraTilt>(), [](const CameraTilt &tilt) { return tilt.to_deg; });
    out["stackChange"] =
        orNothing(fix.as<StackChange>(), [&](const auto &change) { return changeJson(build, change); });
    out["wireChange"] = orNothing(fix.as<WireChange>(), wireChangeJson);
    out["turn"] = orNothing(fix.as<PartTurn>(), turnJson);
    out["radioSetting"] = orNothing(fix.as<RadioSetting>(), settingJson);
    out["site"] = orNothing(fix.as<OntoSite>(), [](const OntoSite &seat) { return seat.site; });
    out["groundHand"] =
        orNothing(fix.as<GroundHand>(), [](const GroundHand &hand) { return nameOf(hand.polarisation); });
    if (const auto *quiet = fix.as<SwitchOff>()) out["switchOff"] = quiet->cases;
    if (const auto *shield = fix.as<ShieldUnder>()) out["shieldBeyond_mm"] = shield->beyond_mm;
    if (const auto *feedback = fix.as<Feedback>()) out["fromLog"] = feedback->values;
    if (const auto *propeller = fix.as<MountPropeller>()) out["mountPropeller_mm"] = propeller->diameter_mm;
    if (const auto *height = fix.as<PostHeight>()) out["postHeight_mm"] = height->to_mm;
    if (fix.as<MissingFrameScrews>()) out["frameScrews"] = "missing";
    if (const auto *change = fix.as<FrameScrewChange>()) {
        out["frameScrew"] = {{"id", change->to.id}, {"head", nameOf(change->to.head)}};
        if (change->to.length_mm) out["frameScrew"]["length_mm"] = *change->to.length_mm;
    }
    out["text"] = wordFix(build, fix).text();
    if (fix.then.empty()) return out;
    out["then"] = OrderedJson::array();
    for (const auto &more : fix.then) out["then"].push_back(fixJson(build, more));
    return out;
}

OrderedJson findingJson(const Build &build, const Finding &finding) {
    OrderedJson out;
    const FindingText text = wordFinding(build, finding);
    out["key"] = finding.key();
    out["rule"] = ruleName(finding.rule);
    out["stage"] = nameOf(ruleOf(finding.rule).stage);
    out["severity"] = nameOf(finding.severity);
    out["subjects"] = finding.subjects;
    if (!finding.variant.empty()) out["variant"] = finding.variant;
    if (!finding.loadCase.empty()) out["loadCase"] = finding.loadCase;
    out["measured"] = orNull(finding.measured);
    out["limit"] = orNull(finding.limit);
    out["unit"] = finding.unit;
    out["margin"] = finding.measured ? OrderedJson(finding.margin) : OrderedJson(nullptr);
    if (finding.practiceLimit) out["practiceLimit"] = definitionOf(*finding.practiceLimit).id;
    auto inputs = OrderedJson::array();
    for (const auto &input : finding.inputs)
        inputs.push_back({{"name", input.name}, {"value", input.value}, {"unit", input.unit}});
    out["inputs"] = inputs;
    if (finding.from_mm) out["from_mm"] = toJson(*finding.from_mm);
    if (finding.to_mm) out["to_mm"] = toJson(*finding.to_mm);
    auto fixes = OrderedJson::array();
    for (const auto &fix : finding.fixes) fixes.push_back(fixJson(build, fix));
    out["fixes"] = fixes;
    out["headline"] = text.headline.text();
    out["detail"] = text.detail.text();
    if (finding.accepted()) out["accepted"] = finding.acceptedReason;
    return out;
}

OrderedJson gapJson(const Derived &derived, const BodyGap &gap) {
    auto place = [&](int body) {
        const BodyTraits &traits = derived.scene.traits[body];
        return OrderedJson{{"id", derived.scene.owners[traits.owner].id}, {"solid", traits.solid}};
    };
    OrderedJson out{{"a", place(gap.a)}, {"b", place(gap.b)}, {"distance_mm", gap.distance_mm}};
    out["overlapDepth_mm"] = gap.depth_mm;
    out["freeingMoveOfA_mm"] = toJson(gap.freeingMove_mm);
    out["onA_mm"] = toJson(gap.onA_mm);
    out["onB_mm"] = toJson(gap.onB_mm);
    return out;
}

OrderedJson sharesJson(const std::vector<HiddenShare> &shares) {
    auto list = OrderedJson::array();
    for (const auto &s : shares) list.push_back({{"id", s.id}, {"share", s.share}});
    return list;
}

OrderedJson skyJson(const SkyView &view) {
    return {{"hidden", view.hidden},
            {"hiddenUnweighted", view.hiddenPlain},
            {"axisToZenith_deg", view.axisToZenith_deg},
            {"by", sharesJson(view.by)}};
}

OrderedJson surveyJson(const Survey &survey) {
    OrderedJson out;
    auto list = [&](const char *key, const auto &items, auto &&make) {
        out[key] = OrderedJson::array();
        for (const auto &item : items) out[key].push_back(make(item));
    };
    list("skies", survey.skies, [](const SkySurvey &s) {
        return OrderedJson{{"part", s.part},
                           {"loadCase", s.loadCase},
                           {"antenna_mm", toJson(s.place.position_mm)},
                           {"level", skyJson(s.level)},
                           {"cruise", skyJson(s.cruise)}};
    });
    list("cameras", survey.cameras, [](const CameraSurvey &c) {
        OrderedJson entry{{"part", c.part}, {"loadCase", c.loadCase}, {"tilt_deg", c.now.tilt_deg}};
        entry["hidden"] = c.now.hidden;
        entry["propellers"] = c.now.propellers;
        entry["by"] = sharesJson(c.now.by);
        entry["lensOvershoot_mm"] = orNull(c.overshoot_mm);
        entry["bestTiltFrom_deg"] = orNull(c.bestFrom_deg);
        entry["bestTiltTo_deg"] = orNull(c.bestTo_deg);
        entry["tilts"] = OrderedJson::array();
        for (const auto &t : c.tilts)
            entry["tilts"].push_back({{"tilt_deg", t.tilt_deg}, {"hidden", t.hidden}, {"propellers", t.propellers}});
        return entry;
    });
    list("lamps", survey.lamps, [](const LampSurvey &l) {
        return OrderedJson{{"part", l.part},
                           {"port", l.port},
                           {"loadCase", l.loadCase},
                           {"seen", l.view.seen},
                           {"darkSector_deg", l.view.darkSector_deg},
                           {"darkMiddleLeftOfNose_deg", l.view.darkest_deg},
                           {"by", sharesJson(l.view.by)}};
    });
    list("access", survey.access, [](const AccessSurvey &a) {
        OrderedJson entry{{"part", a.part}, {"port", a.port}, {"loadCase", a.loadCase}, {"hand", a.hand}};
        entry["corridor_mm"] = toJson(a.fullSize_mm);
        entry["blockers"] = a.blockers;
        if (a.hand) {
            entry["serviceDepth"] = a.takeOff ? OrderedJson(a.takeOff->size()) : OrderedJson(nullptr);
            entry["takeOff"] = a.takeOff ? OrderedJson(*a.takeOff) : OrderedJson(nullptr);
        }
        return entry;
    });
    list("folding", survey.folding, [](const FoldContact &f) {
        return OrderedJson{{"a", f.a},
                           {"b", f.b},
                           {"fraction", f.fraction},
                           {"depth_mm", f.depth_mm},
                           {"whenFolded", f.folded},
                           {"at_mm", toJson(f.at_mm)}};
    });
    list("travels", survey.travels, [](const TravelContact &t) {
        return OrderedJson{{"part", t.part},     {"mover", t.mover},         {"met", t.met},
                           {"joint", t.joint},   {"angle_deg", t.angle_deg}, {"depth_mm", t.depth_mm},
                           {"gap_mm", t.gap_mm}, {"zone", t.zone},           {"at_mm", toJson(t.at_mm)}};
    });
    list("lineShadows", survey.shadows, lineShadowJson);
    list("coverages", survey.coverages, coverageJson);
    list("radioHelp", survey.radioHelp, [](const PairHelp &pair) {
        OrderedJson entry{{"from", pair.sender}, {"to", pair.listener}, {"proposals", OrderedJson::array()}};
        for (const auto &help : pair.helps) {
            OrderedJson one{
                {"part", help.fix.part},
                {"shift_mm", toJson(help.fix.shift_mm())},
                {"turn", help.fix.as<PartTurn>() ? turnJson(*help.fix.as<PartTurn>()) : OrderedJson(nullptr)},
                {"radioSetting",
                 help.fix.as<RadioSetting>() ? settingJson(*help.fix.as<RadioSetting>()) : OrderedJson(nullptr)},
                {"site", help.fix.as<OntoSite>() ? OrderedJson(help.fix.as<OntoSite>()->site) : OrderedJson(nullptr)},
                {"margin_dB", help.margin_dB},
                {"distance_mm", help.distance_mm},
                {"cures", help.cures}};
            if (help.silent) one["silent"] = true;
            if (const auto *quiet = help.fix.as<SwitchOff>()) one["switchOff"] = quiet->cases;
            if (const auto *shield = help.fix.as<ShieldUnder>()) one["shieldBeyond_mm"] = shield->beyond_mm;
            entry["proposals"].push_back(std::move(one));
        }
        return entry;
    });
    list("slides", survey.slides, [](const SlideSurvey &s) {
        OrderedJson entry{{"part", s.part}, {"free_min_mm", s.free_min_mm}, {"free_max_mm", s.free_max_mm}};
        entry["stopAtMin"] = s.stopAft.empty() ? OrderedJson(nullptr) : OrderedJson(s.stopAft);
        entry["stopAtMax"] = s.stopFore.empty() ? OrderedJson(nullptr) : OrderedJson(s.stopFore);
        return entry;
    });
    return out;
}

OrderedJson rpyJson(const RollPitchYaw &a) { return {a.roll_deg, a.pitch_deg, a.yaw_deg}; }

/// Of parts with a printed arrow.
OrderedJson anglesJson(const PartType &type, const Pose &pose) {
    const MountingAngles angles = mountingAngles(*type.arrow, pose.rotation);
    return {{"rollPitchYawZUp_deg", rpyJson(angles.up)},
            {"rollPitchYawZDown_deg", rpyJson(angles.down)},
            {"nearestQuarterTurnsZUp_deg", rpyJson(angles.nearest)},
            {"offNearest_deg", angles.offNearest_deg},
            {"topTilt_deg", angles.topTilt_deg},
            {"headingOff_deg", angles.headingOff_deg},
            {"inWords", angles.inWords}};
}

OrderedJson partJson(const Build &build, const Practice &practice, const Part &part) {
    const Pose pose = framePose(build, part);
    const RollPitchYaw angles = rollPitchYawFrom(pose.rotation);
    OrderedJson out{{"id", part.id}, {"name", part.name}, {"type", part.type}};
    out["position_mm"] = toJson(pose.position_mm);
    out["rotation"] = {pose.rotation.w(), pose.rotation.x(), pose.rotation.y(), pose.rotation.z()};
    out["rollPitchYaw_deg"] = {angles.roll_deg, angles.pitch_deg, angles.yaw_deg};
    out["turn"] = turnInWords(pose.rotation);
    const PartType *type = typeOf(build, part);
    if (type && type->arrow) out["mountingAngles"] = anglesJson(*type, pose);
    out["fastening"] = {{"method", nameOf(part.fastening.method)}, {"onto", part.fastening.onto}};
    auto hardware = OrderedJson::array();
    const Holding holding = holdingOf(build, part, practice);
    for (const auto &h : holding.pieces)
        hardware.push_back({{"item", h.item}, {"pieces", h.pieces}, {"piece_g", h.piece_g}, {"basis", h.basis}});
    out["fastening"]["hardware"] = hardware;
    out["fastening"]["drawn"] = holding.drawn;
    out["fastening"]["unknown"] = textOrNull(holding.unknown);
    return out;
}

} // namespace

OrderedJson analysisJson(const Build &build, const Analysis &analysis) {
    const Derived &derived = analysis.derived;
    OrderedJson out;
    out["format"] = "weightaxis-analysis";
    out["version"] = 1;
    out["build"] = build.name;
    OrderedJson limits = OrderedJson::object();
    for (const auto &definition : limitTable())
        limits[std::string(definition.id)] = {{"value", analysis.practice[definition.limit]},
                                              {"unit", definition.unit}};
    out["practice"] = {
        {"profile", analysis.practice.profile}, {"limits", limits}, {"schools", analysis.practice.schools}};
    out["thrustCentre_mm"] = toJson(derived.thrustCentre_mm);
    auto list = [](const auto &items, auto &&make) {
        auto result = OrderedJson::array();
        for (const auto &item : items) result.push_back(make(item));
        return result;
    };
    out["loadCases"] = OrderedJson::array();
    for (std::size_t i = 0; i < derived.loadCases.size(); ++i)
        out["loadCases"].push_back(caseBalanceJson(build, derived, i));
    out["balance"] = balanceJson(build, analysis);
    out["frame"] = frameJson(*build.frame);
    out["kit"] = kitJson(derived);
    out["stacks"] = stacksJson(build, analysis);
    out["motorScrews"] = motorScrewsJson(derived);
    out["hardware"] = hardwareJson(build, analysis.practice);
    out["wires"] = wiresJson(build, analysis);
    out["wireMeetings"] = meetingsJson(build, analysis);
    out["passThroughs"] = holesJson(build, analysis);
    out["power"] = powerJson(build, analysis);
    out["links"] = linksJson(analysis);
    out["radio"] = radioJson(analysis);
    out["cutList"] = cutListJson(build, analysis);
    out["massRows"] = list(derived.massRows, [&](const MassRow &r) { return rowJson(r, derived.loadCases); });
    out["parts"] = list(build.parts, [&](const Part &p) { return partJson(build, analysis.practice, p); });
    out["clearances"] = derived.scene.world
                            ? list(derived.scene.world->gaps(), [&](const BodyGap &g) { return gapJson(derived, g); })
                            : OrderedJson::array();
    if (derived.survey) {
        out["survey"] = surveyJson(*derived.survey);
        out["survey"]["stale"] = derived.surveyStale;
        if (derived.survey->plan) out["plan"] = planJson(build, derived, *derived.survey->plan);
    }
    out["log"] = logJson(build, *derived.log);
    const FindingCounts &n = analysis.counts;
    out["counts"] = {
        {"stop", n.stop}, {"watch", n.watch}, {"note", n.note}, {"unknown", n.unknown}, {"accepted", n.accepted}};
    out["findings"] = list(analysis.findings, [&](const Finding &f) { return findingJson(build, f); });
    out["passes"] = list(analysis.passes, [&](const Finding &f) { return findingJson(build, f); });
    return out;
}

std::string analysisText(const Build &build, const Analysis &analysis, const SlowParts &slow) {
    OrderedJson out = analysisJson(build, analysis);
    auto list = OrderedJson::array();
    for (const auto &part : slow.places)
        for (const auto &place : part.places) list.push_back(placeJson(part.part, place));
    out["places"] = list;
    if (slow.balance) out["balanceStudy"] = studyJson(build, analysis.derived, *slow.balance);
    if (!slow.packs.empty()) {
        out["packs"] = OrderedJson::array();
        for (const auto &pack : slow.packs) {
            OrderedJson entry{{"part", pack.part}, {"loadCase", pack.loadCase}, {"options", OrderedJson::array()}};
            for (const auto &option : pack.options) entry["options"].push_back(packJson(option));
            out["packs"].push_back(entry);
        }
    }
    if (!slow.propellers.empty()) {
        out["propellers"] = OrderedJson::array();
        for (const auto &option : slow.propellers) out["propellers"].push_back(propellerJson(option));
    }
    return out.dump(1, ' ', false, OrderedJson::error_handler_t::replace) + "\n";
}

} // namespace waxis::io
