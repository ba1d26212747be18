#include "core/practice/practice.h"

#include <algorithm>
#include <map>

namespace waxis {

namespace {
constexpr std::string_view kTrade = "common practice, no source";

// What a profile sets otherwise than the standard.
const std::map<std::string_view, std::map<Limit, double>> &profileLimits() {
    static const std::map<std::string_view, std::map<Limit, double>> table{
        {"sprint",
         {{Limit::unweighedCg, 0.5},
          {Limit::leastThrust, 5.0},
          {Limit::cruisePitch, 45.0},
          {Limit::cameraPropellers, 15.0}}},
        {"flow", {{Limit::leastThrust, 3.5}, {Limit::cruisePitch, 30.0}, {Limit::cameraPropellers, 15.0}}},
        {"pocket",
         {{Limit::propRigidGap, 3.0},
          {Limit::propFlexibleGap, 6.0},
          {Limit::tipGap, 3.0},
          {Limit::handRoom, 12.0},
          {Limit::groundClearance, 2.0},
          {Limit::leastThrust, 3.0},
          {Limit::figureOfMerit, 50.0}}},
        {"range", {{Limit::skyHidden, 15.0}}},
        {"lift",
         {{Limit::propFlexUp, 25.0},
          {Limit::propFlexDown, 20.0},
          {Limit::propFlexFor, 381.0},
          {Limit::tipGap, 10.0},
          {Limit::cruisePitch, 15.0},
          {Limit::cameraPropellers, 2.0},
          {Limit::groundClearance, 15.0},
          {Limit::tipOver, 30.0},
          {Limit::figureOfMerit, 70.0},
          {Limit::driveEfficiency, 80.0},
          {Limit::wireSpan, 100.0}}},
    };
    return table;
}

// Which option of a school a profile follows, where it is not the first one.
const std::map<std::string_view, std::map<std::string_view, std::string_view>> &profileSchools() {
    static const std::map<std::string_view, std::map<std::string_view, std::string_view>> table{
        {"sprint",
         {{"balance", "tight"},
          {"compass", "unused"},
          {"controller", "hard"},
          {"plugs", "solder"},
          {"motor-wires", "flat"}}},
        {"flow", {{"compass", "unused"}}},
        {"range", {{"gps", "tail"}, {"video-power", "rail"}}},
        {"lift",
         {{"battery", "below"},
          {"balance", "by-size"},
          {"esc", "arms-top"},
          {"distribution", "board"},
          {"clean-frame", "isolated"},
          {"gps", "mast"},
          {"video-power", "own-pack"},
          {"motor-wires", "side"},
          {"plugs", "plugs"}}},
        {"pocket", {{"compass", "unused"}, {"battery", "below"}, {"plugs", "solder"}}},
    };
    return table;
}

// A school that brings a limit of its own.
struct SchoolLimit {
    std::string_view school, option;
    Limit limit;
    double value;
};
constexpr std::array<SchoolLimit, 2> kSchoolLimits{
    {{"balance", "tight", Limit::cgOffset, 2.0}, {"balance", "relaxed", Limit::cgOffset, 5.0}}};
} // namespace

const std::array<LimitDefinition, kLimitCount> &limitTable() {
    static const std::array<LimitDefinition, kLimitCount> table{{
        {Limit::overlapDepth, "overlap-depth", "Overlap that counts as touching", "mm", 0.05, "numerical allowance"},
        {Limit::swayGap, "sway-gap", "Room for soft-mounted parts to sway", "mm", 3.0, kTrade},
        {Limit::heatGap, "heat-gap", "Hot bodies to battery or printed plastic", "mm", 5.0, kTrade},
        {Limit::bareGap, "bare-gap", "Bare solder side to conductive structure", "mm", 2.0, kTrade},
        {Limit::propRigidGap, "prop-rigid-gap", "Rigid parts to the propeller's zone", "mm", 5.0, kTrade},
        {Limit::propFlexibleGap, "prop-flexible-gap", "Flexible parts to the propeller's zone", "mm", 10.0, kTrade},
        {Limit::propFlexUp, "prop-flex-up", "Propeller zone above the blades' middle", "mm", 12.0, kTrade},
        {Limit::propFlexDown, "prop-flex-down", "Propeller zone below the blades' middle", "mm", 8.0, kTrade},
        {Limit::propFlexFor, "prop-flex-for", "Propeller that this zone is given for, tip to tip", "mm", 127.0, kTrade},
        {Limit::tipGap, "tip-gap", "Propeller tip to propeller tip", "mm", 5.0, kTrade},
        {Limit::cgOffset, "cg-offset", "Centre of gravity off the thrust centre", "mm", 5.0, kTrade},
        {Limit::unweighedCg, "unweighed-cg", "Doubt of the CG from unweighed parts, two sigma", "mm", 1.0, kTrade},
        {Limit::sizeCheckMargin, "size-check-margin", "Fit margin below which sizes are to be measured", "mm", 1.0,
         kTrade},
        {Limit::handRoom, "hand-room", "Room for a finger at buttons, cards and plugs", "mm", 16.0, kTrade},
        {Limit::cameraHidden, "camera-hidden", "Share of the picture that the craft may hide", "%", 3.0, kTrade},
        {Limit::cameraPropellers, "camera-propellers", "Share of the picture in which propellers may turn", "%", 8.0,
         kTrade},
        {Limit::lensOvershoot, "lens-overshoot", "Lens in front of its protection", "mm", 0.0, kTrade},
        {Limit::lampSeen, "lamp-seen", "Share of directions from which the status lamp is to be seen", "%", 30.0,
         kTrade},
        {Limit::groundClearance, "ground-clearance", "Lowest part above the ground", "mm", 3.0, kTrade},
        {Limit::tipOver, "tip-over", "Slope on which the craft still stands", "deg", 20.0, kTrade},
        {Limit::leadSlack, "lead-slack", "Battery lead beyond the straight way to the plug", "mm", 10.0, kTrade},
        {Limit::foldGap, "fold-gap", "Room round folding arms on their way", "mm", 0.5, kTrade},
        {Limit::heldGap, "held-gap", "Gap that still counts as touching what holds a part", "mm", 1.0, kTrade},
        {Limit::skyHidden, "sky-hidden", "Share of the sky hidden from the GPS antenna", "%", 20.0, kTrade},
        {Limit::skyMask, "sky-mask", "Elevation below which satellites are not used", "deg", 10.0, kTrade},
        {Limit::cruisePitch, "cruise-pitch", "Nose down in fast flight", "deg", 20.0, kTrade},
        {Limit::skyThick, "sky-thick", "Plastic thicker than this hides the sky", "mm", 10.0, kTrade},
        {Limit::mountAngle, "mount-angle", "Turn off square that need not be entered", "deg", 2.0, kTrade},
        {Limit::stackAir, "stack-air", "Air between boards of a stack", "mm", 1.0, kTrade},
        {Limit::stackAirLow, "stack-air-low", "Air between boards below which it is too little", "mm", 0.5, kTrade},
        {Limit::hardwareBareGap, "hardware-bare-gap", "Screws and nuts of metal to bare pads", "mm", 1.0, kTrade},
        {Limit::wireEnds, "wire-ends", "Cut wire ends under soldered pads", "mm", 2.0, kTrade},
        {Limit::nutPitches, "nut-pitches", "Thread out of the nut", "pitches", 1.0, kTrade},
        {Limit::screwBeyond, "screw-beyond", "Screw past its nut or thread", "mm", 3.0, kTrade},
        {Limit::engagementSteel, "engagement-steel", "Thread engaged in steel", "diameters", 1.0, kTrade},
        {Limit::engagementAluminium, "engagement-aluminium", "Thread engaged in aluminium", "diameters", 1.5, kTrade},
        {Limit::engagementPlastic, "engagement-plastic", "Thread engaged in plastic", "diameters", 2.0, kTrade},
        {Limit::motorEngagementM3, "motor-engagement-m3", "Motor screw engaged, M3", "mm", 2.5, kTrade},
        {Limit::motorEngagementM2, "motor-engagement-m2", "Motor screw engaged, M2", "mm", 2.0, kTrade},
        {Limit::motorReserve, "motor-reserve", "Motor screw short of the windings", "mm", 0.5, kTrade},
        {Limit::damperLeast, "damper-least", "Dampers squeezed at least", "%", 10.0, kTrade},
        {Limit::damperMost, "damper-most", "Dampers squeezed at most", "%", 30.0, kTrade},
        {Limit::plateTolerance, "plate-tolerance", "Thickness of plates, two sigma", "mm", 0.1, kTrade},
        {Limit::boardTolerance, "board-tolerance", "Thickness of boards, two sigma", "mm", 0.16,
         "a tenth of 1.6 mm, the usual trade tolerance of printed boards (from memory)"},
        {Limit::damperTolerance, "damper-tolerance", "Free height of dampers, two sigma", "mm", 0.3, kTrade},
        {Limit::spacerTolerance, "spacer-tolerance", "Height of spacers, two sigma", "mm", 0.1, kTrade},
        {Limit::standoffTolerance, "standoff-tolerance", "Height of frame standoffs, two sigma", "mm", 0.1, kTrade},
        {Limit::partTolerance, "part-tolerance", "Height of components, nuts, screws, two sigma", "mm", 0.1, kTrade},
        {Limit::closeChance, "close-chance", "Probability that a stack closes", "%", 95.0, kTrade},
        {Limit::wireRound, "wire-round", "Step to which cut lengths are rounded up", "mm", 5.0, kTrade},
        {Limit::endSolder, "end-solder", "End preparation for a solder pad", "mm", 3.0, kTrade},
        {Limit::endCrimp, "end-crimp", "End preparation for a crimp", "mm", 2.0, kTrade},
        {Limit::wireResolder, "wire-resolder", "Left for soldering once more", "mm", 10.0, kTrade},
        {Limit::wireSwaySlack, "wire-sway-slack", "Slack from rigid to soft-mounted", "mm", 8.0, kTrade},
        {Limit::wireOpenSlack, "wire-open-slack", "Slack to a plate that opens", "mm", 30.0, kTrade},
        {Limit::wireOwnSlack, "wire-own-slack", "Slack that you cut beyond all this", "mm", 0.0, kTrade},
        {Limit::parallelGap, "parallel-gap", "Power beside signal counts as parallel within", "mm", 10.0, kTrade},
        {Limit::parallelLength, "parallel-length", "Power and signal side by side", "mm", 50.0, kTrade},
        {Limit::escLeadGap, "esc-lead-gap", "Video and receiver leads to speed controllers", "mm", 5.0, kTrade},
        {Limit::noisyLeadGap, "noisy-lead-gap", "Leads of GPS, receiver and video to units, senders and regulators",
         "mm", 10.0, kTrade},
        {Limit::wireSpan, "wire-span", "Wire that nothing holds", "mm", 60.0, kTrade},
        {Limit::strainRelief, "strain-relief", "First hold of a fragile plug's wire", "mm", 30.0, kTrade},
        {Limit::bendWire, "bend-wire", "Inside bend radius of wire", "diameters", 3.0, kTrade},
        {Limit::bendCoax, "bend-coax", "Inside bend radius of coax", "diameters", 5.0, kTrade},
        {Limit::stiffWires, "stiff-wires", "Stiff wires on a soft-mounted board", "pieces", 4.0, kTrade},
        {Limit::wireShare, "wire-share", "Share of a wire's current at which it is watched", "%", 80.0, kTrade},
        {Limit::dropShare, "drop-share", "Voltage lost on the way to a load", "%", 3.0, kTrade},
        {Limit::railWatch, "rail-watch", "Load of a rail that is watched", "%", 80.0, kTrade},
        {Limit::railStop, "rail-stop", "Load of a rail that stops", "%", 100.0, kTrade},
        {Limit::regulatorHeat, "regulator-heat", "Heat of a linear regulator without a sink", "W", 1.0, kTrade},
        {Limit::capacitorNear, "capacitor-near", "Capacitor's leads to the pads", "mm", 30.0, kTrade},
        {Limit::capacitorRating, "capacitor-rating", "Rated voltage of a capacitor over the full pack", "times", 1.25,
         kTrade},
        {Limit::packReserve, "pack-reserve", "Share of the pack that is kept", "%", 20.0, kTrade},
        {Limit::figureOfMerit, "figure-of-merit", "Figure of merit of the propellers", "%", 60.0, kTrade},
        {Limit::driveEfficiency, "drive-efficiency", "Motor and speed controller together", "%", 75.0, kTrade},
        {Limit::flyingHeight, "flying-height", "Height above the sea of the flying place", "m", 200.0, kTrade},
        {Limit::criticalJoints, "critical-joints", "Plugs and splices between pack and motors", "pieces", 2.0, kTrade},
        {Limit::senderReceiverGap, "sender-receiver-gap", "Video transmitter's antenna to control receiver's", "mm",
         80.0, kTrade},
        {Limit::senderGnssGap, "sender-gnss-gap", "Video transmitter's antenna to the GPS antenna", "mm", 100.0,
         kTrade},
        {Limit::digitalGnssGap, "digital-gnss-gap", "Camera or digital video unit to the GPS antenna", "mm", 60.0,
         kTrade},
        {Limit::escAntennaGap, "esc-antenna-gap", "Speed controller to a receiver's antenna", "mm", 30.0, kTrade},
        {Limit::longWaveGap, "long-wave-gap", "Distances for senders below 3 GHz, as a share of those above", "%",
         150.0, kTrade},
        {Limit::desenseWatch, "desense-watch", "Rise of a receiver's noise floor that is watched", "dB", 1.0, kTrade},
        {Limit::desenseStop, "desense-stop", "Rise of a receiver's noise floor that stops", "dB", 10.0, kTrade},
        {Limit::blockingReserve, "blocking-reserve", "Reserve below a receiver's blocking level", "dB", 6.0, kTrade},
        {Limit::rejectionSlope, "rejection-slope", "Receivers reject more, for each octave out of their band", "dB",
         20.0, kTrade},
        {Limit::sentNoise, "sent-noise",
         "What a sender spills far from its channel, below its power, in each megahertz", "dB", 120.0, kTrade},
        {Limit::mixIntercept, "mix-intercept",
         "Third-order intercept of a sender over its full power, where none is stated", "dB", 10.0, kTrade},
        {Limit::mixFilter, "mix-filter", "What a front end takes off far from its band, where none is stated", "dB",
         30.0, kTrade},
        {Limit::offBandAntenna, "off-band-antenna", "Loss of an antenna far out of its band", "dB", 6.0, kTrade},
        {Limit::crossPolar, "cross-polar", "Most that crossed polarisation keeps apart", "dB", 25.0, kTrade},
        {Limit::antennaConductor, "antenna-conductor", "Antenna to the next conductor, share of a wavelength", "%",
         25.0, kTrade},
        {Limit::antennaClear, "antenna-clear", "Antenna to the next conductor, as builders keep it", "mm", 25.0,
         kTrade},
        {Limit::edgeAngle, "edge-angle", "Antenna element to a near carbon edge", "deg", 20.0, kTrade},
        {Limit::diversityLeast, "diversity-least", "Angle between two receiver antennas", "deg", 60.0, kTrade},
        {Limit::coverageLost, "coverage-lost", "Directions that an antenna loses behind the craft", "%", 25.0, kTrade},
        {Limit::linkMargin, "link-margin", "Margin of a link in free space", "dB", 15.0, kTrade},
        {Limit::headingNote, "heading-note", "Heading error that is noted", "deg", 2.0, kTrade},
        {Limit::headingWatch, "heading-watch", "Heading error that is watched", "deg", 5.0, kTrade},
        {Limit::headingStop, "heading-stop", "Heading error that stops", "deg", 20.0, kTrade},
        {Limit::earthField, "earth-field", "Earth's horizontal field at the flying place", "uT", 20.0,
         "from memory: 28 to 41 in the tropics, 18 to 27 at middle latitudes, 8 to 16 beyond 60 degrees"},
        {Limit::ferrousGap, "ferrous-gap", "Steel to the compass", "mm", 40.0, kTrade},
        {Limit::cgShare, "cg-share", "Centre of gravity off, of the motor diagonal (by size)", "%", 1.0, kTrade},
        {Limit::motorUneven, "motor-uneven", "Most loaded motor over the mean at hover", "%", 10.0, kTrade},
        {Limit::leastThrust, "least-thrust", "Full thrust over hover thrust, tightest motor", "times", 2.0, kTrade},
        {Limit::balanceSure, "balance-sure", "Chance that the balance is within its ring", "%", 90.0, kTrade},
        {Limit::yawTorque, "yaw-torque", "Torque of the propellers left over at hover", "%", 5.0, kTrade},
        {Limit::lever, "sensor-lever", "Controller or GPS off the centre of gravity", "mm", 25.0, kTrade},
        {Limit::driverAcross, "driver-across", "Thickness of the driver for screws", "mm", 6.0, kTrade},
        {Limit::driverLength, "driver-length", "Room behind a screw's head for its driver", "mm", 80.0, kTrade},
        {Limit::solderClear, "solder-clear", "Tape, foam and glue are kept from a joint until it is soldered", "mm",
         30.0, kTrade},
        {Limit::serviceDepth, "service-depth", "Things that come off first to change what is often changed", "", 1.0,
         kTrade},
        {Limit::catalogueMassShare, "catalogue-mass-tolerance", "Doubt of a catalogue mass without tolerance", "%", 5.0,
         kTrade},
        {Limit::estimatedMassShare, "estimated-mass-tolerance", "Doubt of an estimated mass without tolerance", "%",
         20.0, kTrade},
        {Limit::measuredMassTolerance, "measured-mass-tolerance", "Doubt of a weighed mass without tolerance", "g", 0.2,
         "a scale that reads to 0.1 g"},
        {Limit::measuredApart, "measured-apart", "Measured off the plan, in standard deviations of both", "times", 3.0,
         kTrade},
        {Limit::trialChance, "trial-chance", "Chance below which the difference of a trial counts", "%", 5.0,
         "the usual level of tests"},
    }};
    return table;
}

const LimitDefinition &definitionOf(Limit limit) { return limitTable()[std::size_t(limit)]; }

const std::vector<Profile> &profiles() {
    static const std::vector<Profile> table{
        {"sprint", "Sprint", "racing: centre of gravity tight, nothing spare"},
        {"flow", "Flow", "freestyle: the usual limits"},
        {"range", "Range", "long range: the usual limits, GPS and antennas matter"},
        {"lift", "Lift", "camera and payload: large propellers flex more"},
        {"pocket", "Pocket", "very small and light: less room everywhere"},
    };
    return table;
}

bool isProfile(std::string_view id) {
    return std::any_of(profiles().begin(), profiles().end(), [&](const Profile &p) { return p.id == id; });
}

const std::vector<School> &schools() {
    static const std::vector<School> table{
        {"battery",
         "Battery",
         {{"top", "on top", "Quick to change, and the craft lands on its feet, not on the pack."},
          {"below", "below", "Frees the top for antennas and camera; the frame takes the knocks from above."},
          {"aft", "aft", "Balances a heavy camera in front and keeps the stack short."}}},
        {"esc",
         "Speed controllers",
         {{"stack", "four-in-one in the stack", "One board, short signal wires, little weight out on the arms."},
          {"arms-top", "single, on the arms", "The wash cools them, and one that burns is changed alone."},
          {"arms-inside", "single, inside the arms", "Protected from stones and propellers; they run hotter."}}},
        {"distribution",
         "Power distribution",
         {{"harness", "soldered harness", "Fewest joints and least height."},
          {"board", "distribution board", "Tidy, with pads for each load and often a regulator."}}},
        {"controller",
         "Controller mounting",
         {{"soft", "soft", "Rubber keeps motor vibration out of the gyro."},
          {"hard", "hard", "No sway, no resonance of its own; the filters do the rest."}}},
        {"clean-frame",
         "Clean frame",
         {{"rigid", "one rigid frame", "Stiff, light, simple."},
          {"isolated", "clean frame on bobbins", "Camera and controller ride apart from motors and battery."}}},
        {"compass",
         "Compass",
         {{"used", "used", "Holds a heading without moving and finds home more surely."},
          {"unused", "not used", "Nothing to disturb it; heading comes from the track over ground."}}},
        {"gps",
         "GPS place",
         {{"mast", "near the centre on a mast", "Above everything, turns about itself when the craft turns."},
          {"tail", "at the tail", "Away from camera and video unit, tilted for fast flight."},
          {"arm", "out on an arm", "Far from the electronics; near a motor."}}},
        {"video-power",
         "Video power",
         {{"plug", "from the battery plug", "Tapped where motor noise is least."},
          {"rail", "from a filtered rail", "A regulator keeps spikes out of the picture."},
          {"own-pack", "from its own battery", "Nothing in common with the motors at all."}}},
        {"regulators",
         "Regulators",
         {{"one", "one on a rail", "Each knows only itself: the stronger feeds the weaker one backwards."},
          {"several", "several of one voltage on a rail",
           "If one fails in flight, another still feeds the controller."}}},
        {"plugs",
         "Joints",
         {{"solder", "solder", "A joint that cannot come off in flight."},
          {"plugs", "plugs", "A motor or board changed in minutes; each plug locked and tied."}}},
        {"motor-wires",
         "Motor wires",
         {{"flat", "flat on the arm", "Least drag and out of the propeller's way, under tape."},
          {"side", "along the arm's side", "Better protected, under ties."}}},
        {"arrow",
         "Controller arrow",
         {{"forward", "forward", "Nothing to enter, nothing to forget after a reset."},
          {"ports", "turned for its ports", "The plugs point where there is room; the angle is entered."}}},
        {"balance",
         "Centre of gravity",
         {{"relaxed", "within a few millimetres", "Good enough for most; the controller trims the rest."},
          {"tight", "tight", "Racers feel every millimetre in a turn."},
          {"by-size", "by the size of the craft", "A share of the motor diagonal: what matters is the lever."}}},
        {"bends",
         "Bends of wires",
         {{"trade", "as the trade bends them", "Three diameters for wire, five for coax: tight, and it holds."},
          {"aviation", "as aircraft are wired",
           "Ten diameters for bundles, six for coax (FAA AC 43.13-1B chapter 11, from memory)."}}},
        {"build-start",
         "Where building begins",
         {{"arms", "motors first, then inwards", "The stack is soldered once, with all leads at hand."},
          {"stack", "the stack first", "Boards are tried and powered before anything is bolted round them."}}},
        {"board-soldering",
         "Soldering boards of a stack",
         {{"in", "in the craft", "Leads get their true length and lie where they belong."},
          {"outside", "outside it", "Both faces are reached and nothing near gets hot; leads keep some to spare."}}},
        {"twisting",
         "Twisting leads",
         {{"before", "before they are joined", "With both ends free a drill does it in a moment."},
          {"after", "when one end is joined",
           "The pads decide which core lies where; nothing untwists at the joint."}}},
    };
    return table;
}

const School *findSchool(std::string_view id) {
    const auto at = std::find_if(schools().begin(), schools().end(), [&](const School &s) { return s.id == id; });
    return at == schools().end() ? nullptr : &*at;
}

const SchoolOption *findOption(const School &school, std::string_view id) {
    const auto at =
        std::find_if(school.options.begin(), school.options.end(), [&](const SchoolOption &o) { return o.id == id; });
    return at == school.options.end() ? nullptr : &*at;
}

bool Practice::follows(std::string_view school, std::string_view option) const {
    const auto at = schools.find(school);
    return at != schools.end() && at->second == option;
}

Practice practiceOfProfile(std::string_view profile) {
    PracticeSettings settings;
    settings.profile = profile;
    return practiceOf(settings);
}

Practice practiceOf(const PracticeSettings &settings) {
    Practice practice;
    practice.profile = settings.profile;
    const auto ownSchools = profileSchools().find(settings.profile);
    for (const auto &school : schools()) {
        auto &chosen = practice.schools[std::string(school.id)];
        chosen = school.options.front().id;
        if (ownSchools != profileSchools().end() && ownSchools->second.contains(school.id))
            chosen = ownSchools->second.at(school.id);
        const auto own = settings.schools.find(std::string(school.id));
        if (own != settings.schools.end() && findOption(school, own->second)) chosen = own->second;
    }
    const auto profile = profileLimits().find(settings.profile);
    for (const auto &definition : limitTable()) {
        double &value = practice.limits[std::size_t(definition.limit)];
        value = definition.standard;
        for (const auto &brought : kSchoolLimits)
            if (brought.limit == definition.limit && practice.follows(brought.school, brought.option))
                value = brought.value;
        if (profile != profileLimits().end() && profile->second.contains(definition.limit))
            value = profile->second.at(definition.limit);
        const auto own = settings.limits.find(std::string(definition.id));
        if (own != settings.limits.end()) value = own->second;
    }
    return practice;
}

} // namespace waxis
