#include "core/instructions/check_words.h"

#include "core/rules/electrical.h"
#include "core/rules/name_list.h"
#include "core/rules/wording.h"

#include <fmt/format.h>

namespace waxis {

namespace {

std::string number(double value, std::string_view unit) {
    const int digits = unit == "g" ? 0 : unit == "A" || unit == "V" ? 2 : 1;
    return fmt::format("{:.{}f}", value, digits);
}

} // namespace

CheckText wordCheck(const Build &build, const Check &check) {
    std::vector<std::string> words;
    for (const double value : check.numbers) words.push_back(brief(value));
    words.resize(4);
    const std::string what = check.subjects.empty() ? std::string() : displayName(build, check.subjects.front());
    const std::string all = listNames(build, check.subjects), flight = displayName(build, check.loadCase);
    const Sentence band =
        check.low && check.high
            ? Sentence{"{0} to {1} {2}",
                       {number(*check.low, check.unit), number(*check.high, check.unit), std::string(check.unit)}}
            : Sentence{"yes", {}};
    switch (check.kind) {
    case CheckKind::bridges:
        return {{"No bridges", {}},
                {"Look along every row of pads with a lens: {0} gaps, on {1}. Motor phases beep through the motor: by "
                 "eye only.",
                 {words[0], all}},
                {"0 bridges", {}}};
    case CheckKind::polarity:
        return {{"Polarity, twice", {}},
                {"Plus on plus and the stripe of capacitors on minus, with the picture of that very plug: {0}.", {all}},
                {"yes", {}}};
    case CheckKind::shortCut:
        return {{"No short across the pack's plug", {}},
                check.numbers.front() > 0
                    ? Sentence{"Meter on continuity, craft side. The capacitor charges: a chirp of some {0} s, then "
                               "silence.",
                               {fmt::format("{:.2f}", check.numbers.front())}}
                    : Sentence{"Meter on continuity, craft side: silence.", {}},
                {"yes", {}}};
    case CheckKind::carbon:
        return {{"Carbon against pads and poles", {}},
                {"Meter from bare carbon to each bare pad and to both poles: no continuity anywhere.", {}},
                {"yes", {}}};
    case CheckKind::limiter:
        return {
            {"First power through a limiter of {0} A", words},
            {"Propellers off. The power train alone draws next to nothing, all that is aboard {1} A while it waits: "
             "it holds. When it trips, unplug and look for the short.",
             {words[0], fmt::format("{:.2f}", check.numbers.size() > 1 ? check.numbers[1] : 0)}},
            {"yes", {}}};
    case CheckKind::idle:
        return {{"Current while it waits", {}},
                {"All that is aboard takes {0} A by what the parts state, motors not turning.",
                 {fmt::format("{:.2f}", check.numbers.front())}},
                band};
    case CheckKind::regulator:
        return {{"{0}: {1} V", {what, words[0]}}, {"Measured at its pads before its loads hang on it.", {}}, band};
    case CheckKind::tones:
        return {
            {"Beeps and lamps", {}}, {"Note what the speed controllers play and which lamps burn.", {}}, {"yes", {}}};
    case CheckKind::motor:
        return {{"Motor {0}, {1}", {words[0], motorName(build, check.subjects.front())}},
                {check.numbers.size() > 1 && check.numbers[1] > 0
                     ? "Output {0} turns this one, clockwise seen from above. Propellers off."
                     : "Output {0} turns this one, counter-clockwise seen from above. Propellers off.",
                 words},
                {"yes", {}}};
    case CheckKind::bound:
        return {
            {"{0} hears its transmitter", {what}},
            {"Each stick and switch moves what it should and nothing else; lost link: the outputs do what you chose.",
             {}},
            {"yes", {}}};
    case CheckKind::settings:
        return {{"{0} is told what it has to know", {what}},
                {"Every line of the page Settings is entered, and read back after it was saved.", {}},
                {"yes", {}}};
    case CheckKind::level:
        return {{"{0} knows where up is", {what}},
                {"Lift the nose: the shown nose lifts. Lean to the right: it leans to the right.", {}},
                {"yes", {}}};
    case CheckKind::compass:
        return {{"Heading of {0}", {nameWithin(build, check.subjects.front())}},
                {"Lift the nose: the heading stays. Turn to the right: it grows.", {}},
                {"yes", {}}};
    case CheckKind::satellites:
        return {
            {"{0} finds itself", {what}},
            {"Outdoors, sender and camera on: it finds satellites, and keeps them. Its place leaves {0} % of the sky "
             "open.",
             {wholeNumber(100 * check.numbers.front())}},
            {"yes", {}}};
    case CheckKind::picture:
        return {{"Picture from {0}", {nameWithin(build, check.subjects.front())}},
                {"Antenna on first. Lowest power, a few metres away.", {}},
                {"yes", {}}};
    case CheckKind::weight:
        return {{"{0}: all-up weight", {flight}}, {"On a scale, as it flies: {0} g are planned.", words}, band};
    case CheckKind::balance:
        return {
            {"{0}: centre of gravity", {flight}}, {"On a rod under the thrust centre: mm forward of it.", {}}, band};
    case CheckKind::hover:
        return {{"{0}: a minute low over the ground", {flight}},
                {"Then land and feel motors, controllers and plugs: warm, not hot.", {}},
                {"yes", {}}};
    }
    return {};
}

} // namespace waxis
