#include "core/survey/at_hand.h"

#include "core/coverage/coverage.h"
#include "core/derived/derived.h"
#include "core/radio/coupling.h"
#include "core/remedies/radio_help.h"
#include "core/survey/helps.h"
#include "core/survey/reach.h"
#include "core/survey/survey.h"
#include "core/survey/views.h"

namespace waxis {

namespace {

template <class Look>
std::span<const Look> seen(const Derived &derived, std::vector<Look> Survey::*looks) {
    return derived.survey ? std::span<const Look>((*derived.survey).*looks) : std::span<const Look>();
}

template <class Help>
std::span<const Help> found(const Derived &derived, std::vector<Help> Survey::*helps) {
    return derived.surveyStale ? std::span<const Help>() : seen(derived, helps);
}

} // namespace

std::span<const SkySurvey> skiesSeen(const Derived &derived) { return seen(derived, &Survey::skies); }
std::span<const CameraSurvey> camerasSeen(const Derived &derived) { return seen(derived, &Survey::cameras); }
std::span<const LampSurvey> lampsSeen(const Derived &derived) { return seen(derived, &Survey::lamps); }
std::span<const AccessSurvey> accessSeen(const Derived &derived) { return seen(derived, &Survey::access); }
std::span<const FoldContact> foldsSeen(const Derived &derived) { return seen(derived, &Survey::folding); }
std::span<const TravelContact> travelsSeen(const Derived &derived) { return seen(derived, &Survey::travels); }
std::span<const SlideSurvey> slidesSeen(const Derived &derived) { return seen(derived, &Survey::slides); }
std::span<const LineShadow> shadowsSeen(const Derived &derived) { return seen(derived, &Survey::shadows); }
std::span<const RadioCoverage> coveragesSeen(const Derived &derived) { return seen(derived, &Survey::coverages); }

std::span<const PairHelp> radioHelpFound(const Derived &derived) { return found(derived, &Survey::radioHelp); }
std::span<const CompassHelp> compassHelpFound(const Derived &derived) { return found(derived, &Survey::compassHelp); }
std::span<const PlaceHelp> placeHelpFound(const Derived &derived) { return found(derived, &Survey::placeHelp); }
std::span<const TurnHelp> turnHelpFound(const Derived &derived) { return found(derived, &Survey::turnHelp); }

const AssemblyPlan *planSeen(const Derived &derived) { return derived.survey ? derived.survey->plan.get() : nullptr; }

const SlideSurvey *freshSlide(const Derived &derived, std::string_view part) {
    for (const auto &slide : found(derived, &Survey::slides))
        if (slide.part == part) return &slide;
    return nullptr;
}

} // namespace waxis
