// The looks of the survey that an analysis has at hand, kind by kind: empty while nobody has looked. Who reads one kind
// is not concerned with the others.
#pragma once

#include <span>
#include <string_view>

namespace waxis {

struct AccessSurvey;
struct AssemblyPlan;
struct CameraSurvey;
struct CompassHelp;
struct Derived;
struct FoldContact;
struct LampSurvey;
struct LineShadow;
struct PairHelp;
struct PlaceHelp;
struct RadioCoverage;
struct SkySurvey;
struct SlideSurvey;
struct TravelContact;
struct TurnHelp;

/// What was seen; of an earlier state of the build while a new survey is under way (Derived::surveyStale).
std::span<const SkySurvey> skiesSeen(const Derived &derived);
std::span<const CameraSurvey> camerasSeen(const Derived &derived);
std::span<const LampSurvey> lampsSeen(const Derived &derived);
std::span<const AccessSurvey> accessSeen(const Derived &derived);
std::span<const FoldContact> foldsSeen(const Derived &derived);
std::span<const TravelContact> travelsSeen(const Derived &derived);
std::span<const SlideSurvey> slidesSeen(const Derived &derived);
std::span<const LineShadow> shadowsSeen(const Derived &derived);
std::span<const RadioCoverage> coveragesSeen(const Derived &derived);
/// The order of building; null: nobody has looked.
const AssemblyPlan *planSeen(const Derived &derived);

/// What would help, only while it was found for the very build at hand: a cure for an earlier one may be wrong.
std::span<const PairHelp> radioHelpFound(const Derived &derived);
std::span<const CompassHelp> compassHelpFound(const Derived &derived);
std::span<const PlaceHelp> placeHelpFound(const Derived &derived);
std::span<const TurnHelp> turnHelpFound(const Derived &derived);

/// Where a slide is free as far as the survey at hand holds; null: it was not seen, or for an earlier state.
const SlideSurvey *freshSlide(const Derived &derived, std::string_view part);

} // namespace waxis
