// Rows for stacks, and for the screws of stacks and motors.
#include "core/rule_rows/setting.h"
#include "core/stack/motor_screws.h"
#include "core/stack/report.h"

namespace waxis::test {

namespace {

/// A stack of the board "a", a spacer and the board "b" on a plate of carbon, and nothing looked at yet.
StackReport &stack(Setting &s) {
    s.build.frame.edit([](Frame &frame) {
        Plate plate;
        plate.id = "plate";
        plate.outline_mm = {{-30, -30}, {30, -30}, {30, 30}, {-30, 30}};
        plate.thickness_mm = 2;
        frame.plates.push_back(plate);
        Site site;
        site.id = "site";
        site.on = "plate";
        frame.sites.push_back(site);
    });
    Stack made;
    made.id = "s";
    made.name = "Stack";
    made.on = "site";
    for (const auto &[role, part] : {std::pair{LayerRole::frame, ""},
                                     {LayerRole::spacer, "a"},
                                     {LayerRole::board, "a"},
                                     {LayerRole::spacer, "b"},
                                     {LayerRole::board, "b"}}) {
        StackLayer layer;
        layer.role = role;
        if (role != LayerRole::frame) layer.parts = {part};
        made.layers.push_back(layer);
    }
    s.build.stacks.push_back(made);
    StackReport report;
    report.stack = "s";
    report.layers.resize(made.layers.size());
    report.chain.spans.resize(made.layers.size());
    s.stacks.push_back(report);
    return s.stacks.back();
}

/// So much left under the plate above, which closes with that chance.
void under(Setting &s, double air_mm, double chance) {
    StackReport &report = stack(s);
    report.plateAbove = "plate";
    report.closestOwner = "b";
    report.closest.gap_mm = air_mm;
    report.closing.probability = chance;
}

void gap(Setting &s, double air_mm, double wires_mm = 0, bool toPlate = false) {
    StackReport &report = stack(s);
    StackGap found;
    found.below = "a";
    found.above = "b";
    found.gap_mm = air_mm + wires_mm;
    found.wires_mm = wires_mm;
    found.toPlate = toPlate;
    found.lower.from_mm = found.lower.to_mm = 5;
    found.upper.from_mm = found.upper.to_mm = 15;
    report.gaps = {found};
    report.chain.spans[3].from_mm = 8; // the spacer between the two
    report.layers[3].free_mm = 6;
}

/// Screws of a verdict, so far out of what is right.
void screws(Setting &s, ScrewVerdict verdict, double outside_mm) {
    ScrewReport &screw = stack(s).screw;
    screw.task.thread = findThread("M3");
    screw.task.grip_mm = 20;
    screw.task.nut_mm = 2.4;
    screw.task.meets = "b";
    screw.choice.least_mm = 23;
    screw.choice.best_mm = 25;
    screw.placed.emplace();
    screw.placed->length_mm = verdict == ScrewVerdict::short_ ? 23 - outside_mm : 24;
    screw.now = ScrewOption{screw.placed->length_mm, verdict, 1, outside_mm};
}

void noScrews(Setting &s) {
    screws(s, ScrewVerdict::good, 0);
    s.stacks[0].screw.placed.reset();
    s.stacks[0].screw.now.reset();
}

void motor(Setting &s, std::optional<MotorScrewVerdict> verdict, double in_mm, std::optional<double> depth_mm = 4.0) {
    MotorScrews screws;
    screws.motor = "a";
    screws.thread = findThread("M3");
    screws.grip_mm = 5;
    screws.least_mm = s.practice[Limit::motorEngagementM3];
    screws.reserve_mm = s.practice[Limit::motorReserve];
    screws.depth_mm = depth_mm;
    screws.best_mm = 8;
    if (verdict) screws.now = MotorScrewOption{5 + in_mm, in_mm, *verdict};
    s.motorScrews = {screws};
}

void damper(Setting &s, double squeezed_percent) {
    StackReport &report = stack(s);
    report.dampers = {{1, 6, 6 * (1 - squeezed_percent / 100), squeezed_percent / 100}};
}

void stud(Setting &s, double shim_mm, double engaged_mm) {
    StackReport &report = stack(s);
    report.studs = {{1, 6, 4, 5, engaged_mm, 3, shim_mm}};
}

void bare(Setting &s, double air_mm, bool hardware, bool sheet = false) {
    BareReport found;
    found.board = "a";
    found.other = hardware ? "b" : "plate";
    found.air_mm = air_mm;
    found.hardware = hardware;
    found.sheet = sheet;
    stack(s).bare = {found};
}

void flatCable(Setting &s, double turn_deg, bool twist) {
    Harness harness;
    harness.boardA = "a";
    harness.boardB = "b";
    harness.turn_deg = turn_deg;
    harness.halfTwist = twist;
    harness.length_mm = 60;
    harness.bestTurn_deg = turn_deg > 45 ? 90 : 0;
    harness.bestLength_mm = 30;
    stack(s).harnesses = {harness};
}

} // namespace

namespace {

/// Four screws, and so many nuts on top of everything.
void nuts(Setting &s, int count) {
    Stack &stack = s.build.stacks[0];
    stack.screws = {"a", "a", "a", "a"};
    StackLayer layer;
    layer.role = LayerRole::nut;
    layer.parts.assign(std::size_t(count), "b");
    stack.layers.push_back(layer);
    s.stacks[0].layers.emplace_back();
}

} // namespace

std::vector<Row> stackRows() {
    using enum Severity;
    using enum RuleId;
    const double air = limitOf(Limit::stackAir), low = limitOf(Limit::stackAirLow),
                 chance = limitOf(Limit::closeChance) / 100, least = limitOf(Limit::damperLeast),
                 most = limitOf(Limit::damperMost), off = limitOf(Limit::bareGap),
                 metal = limitOf(Limit::hardwareBareGap);
    constexpr double kHair = 1e-9;
    return {
        {"STK-1 room enough", stkHeight, [=](Setting &s) { under(s, air, 1); }, pass, air - low},
        {"STK-1 a little less", stkHeight, [=](Setting &s) { under(s, air - 0.01, 1); }, note, air - 0.01 - low,
         "Stack leaves 1.0 mm", "height"},
        {"STK-1 too little", stkHeight, [=](Setting &s) { under(s, low - 0.01, 1); }, watch, -0.01, "between b and",
         "height"},
        {"STK-1 does not close", stkHeight, [=](Setting &s) { under(s, -0.2, 0); }, stop, -0.2 - low,
         "Stack does not close: b is 0.2 mm too high", "height"},
        {"STK-1 closes by chance", stkHeight, [=](Setting &s) { under(s, air, chance - 0.01); }, watch, air - low,
         "in 94 % of cases", "chance"},
        {"STK-1 closes surely", stkHeight, [=](Setting &s) { under(s, air, chance + kHair); }, pass, air - low},
        {"STK-1 nothing above", stkHeight, [](Setting &s) { stack(s); }, {}},

        {"STK-2 air enough", stkGap, [=](Setting &s) { gap(s, air); }, pass, 0},
        {"STK-2 a little less", stkGap, [=](Setting &s) { gap(s, air - 0.01); }, note, -0.01, "of air between a and b",
         "air"},
        {"STK-2 too little", stkGap, [=](Setting &s) { gap(s, low - 0.01); }, watch, low - 0.01 - air,
         "of air between a and b", "air"},
        {"STK-2 they meet", stkGap, [=](Setting &s) { gap(s, -0.3); }, stop, -0.3 - air, "on a meets b by 0.3 mm",
         "air"},
        {"STK-2 wires between", stkGap, [=](Setting &s) { gap(s, -0.3, 2); }, stop, -0.3 - air,
         "wires between a and b have 0.3 mm", "wires"},
        {"STK-2 near a plate", stkGap, [=](Setting &s) { gap(s, 0, 0, true); }, pass, -air},
        {"STK-2 into a plate", stkGap, [=](Setting &s) { gap(s, -0.1, 0, true); }, stop, -0.1 - air,
         "meets b by 0.1 mm"},

        {"STK-3 right", stkScrew, [](Setting &s) { screws(s, ScrewVerdict::good, 0); }, pass, 1, {}, "length"},
        {"STK-3 short", stkScrew, [](Setting &s) { screws(s, ScrewVerdict::short_, 0.5); }, stop, -0.5,
         "M3 x 22.5 is 0.5 mm short of a full nut", "short"},
        {"STK-3 long", stkScrew, [](Setting &s) { screws(s, ScrewVerdict::long_, 1.5); }, watch, -1.5,
         "stands 1.0 mm past its nut", "long"},
        {"STK-3 into the next board", stkScrew, [](Setting &s) { screws(s, ScrewVerdict::strikes, 0.4); }, stop, -0.4,
         "stands 0.4 mm into b", "strikes"},
        {"STK-3 bottoms out", stkScrew, [](Setting &s) { screws(s, ScrewVerdict::bottoms, 0.4); }, stop, -0.4,
         "bottoms out 0.4 mm", "bottoms"},
        {"STK-3 none chosen", stkScrew, noScrews, note, 0, "no screws chosen yet", "choose"},
        {"STK-3 no nut", stkScrew,
         [](Setting &s) {
             screws(s, ScrewVerdict::good, 0);
             s.stacks[0].screw.endMissing = true;
         },
         watch, -1, "nothing at the far end", "no-nut"},
        {"STK-3 three nuts for four screws", stkScrew,
         [](Setting &s) {
             screws(s, ScrewVerdict::good, 0);
             nuts(s, 3);
         },
         stop, -1, "3 nuts for 4 screws", "few-nuts"},
        {"STK-3 a nut for each",
         stkScrew,
         [](Setting &s) {
             screws(s, ScrewVerdict::good, 0);
             nuts(s, 4);
         },
         pass,
         1,
         {},
         "length"},
        {"STK-3 beyond the nuts", stkScrew,
         [](Setting &s) {
             screws(s, ScrewVerdict::good, 0);
             s.stacks[0].layers[4].held = false;
         },
         stop, -1, "lies beyond the nuts", "loose"},
        {"STK-3 held by ties",
         stkScrew,
         [](Setting &s) {
             screws(s, ScrewVerdict::short_, 1);
             s.stacks[0].screw.wanted = false;
         },
         {}},

        {"STK-4 right", stkMotorScrew, [](Setting &s) { motor(s, MotorScrewVerdict::good, 3); }, pass, 0.5},
        {"STK-4 short", stkMotorScrew, [](Setting &s) { motor(s, MotorScrewVerdict::short_, 2.4); }, stop, -0.1,
         "is too short for a: it holds 2.4 mm only", "short"},
        {"STK-4 into the windings", stkMotorScrew, [](Setting &s) { motor(s, MotorScrewVerdict::deep, 3.6); }, stop,
         -0.1, "touches the windings of a: it goes 3.6 mm in, 3.5 mm at most", "deep"},
        {"STK-4 depth not known", stkMotorScrew, [](Setting &s) { motor(s, MotorScrewVerdict::unknownDepth, 3, {}); },
         unknown, 0.5, "How deep screws may go into a", "depth"},
        {"STK-4 no length does", stkMotorScrew, [](Setting &s) { motor(s, {}, 0, 2.9); }, stop, -0.1,
         "No screw holds a", "none"},
        {"STK-4 on a tube", stkMotorScrew,
         [](Setting &s) {
             motor(s, MotorScrewVerdict::good, 3);
             s.motorScrews[0].gripKnown = false;
         },
         unknown, 0, "What the screws of a go through", "grip"},
        {"STK-4 no motors", stkMotorScrew, [](Setting &) {}, {}},

        {"STK-5 squeezed well", stkDamper, [=](Setting &s) { damper(s, least); }, pass, 0},
        {"STK-5 hardly squeezed", stkDamper, [=](Setting &s) { damper(s, least - 1); }, watch, -1,
         "squeezed by 9 % hardly hold", "loose"},
        {"STK-5 squeezed at most", stkDamper, [=](Setting &s) { damper(s, most); }, pass, 0},
        {"STK-5 squeezed hard", stkDamper, [=](Setting &s) { damper(s, most + 1); }, watch, -1,
         "squeezed by 31 % no longer damp", "hard"},
        {"STK-5 male end bottoms", stkDamper, [](Setting &s) { stud(s, 0.3, 3); }, stop, -0.3, "bottoms out",
         "bottoms"},
        {"STK-5 male end holds little", stkDamper, [](Setting &s) { stud(s, 0, 2.9); }, watch, -0.1,
         "a male end holds 2.9 mm only", "engagement"},
        {"STK-5 male end holds", stkDamper, [](Setting &s) { stud(s, 0, 3); }, pass, 0},

        {"STK-6 off the carbon", stkInsulation, [=](Setting &s) { bare(s, off, false); }, pass, 0},
        {"STK-6 near the carbon", stkInsulation, [=](Setting &s) { bare(s, off - 0.1, false); }, watch, -0.1,
         "a has 1.9 mm of air between bare metal", "carbon"},
        {"STK-6 on the carbon", stkInsulation, [=](Setting &s) { bare(s, 0, false); }, stop, -off,
         "Bare metal under a touches", "carbon"},
        {"STK-6 a sheet between", stkInsulation, [](Setting &s) { bare(s, 0, false, true); }, pass, 0},
        {"STK-6 through the sheet", stkInsulation, [](Setting &s) { bare(s, -0.1, false, true); }, watch, -0.1,
         "bare metal", "carbon"},
        {"STK-6 by a metal screw", stkInsulation, [=](Setting &s) { bare(s, metal - 0.1, true); }, watch, -0.1,
         "b is 0.9 mm from bare metal of a", "hardware"},
        {"STK-6 far from the screw", stkInsulation, [=](Setting &s) { bare(s, metal, true); }, pass, 0, {}, "hardware"},
        {"STK-6 flat on the carbon", stkInsulation,
         [](Setting &s) {
             stack(s);
             s.build.stacks[0].layers.erase(s.build.stacks[0].layers.begin() + 1);
         },
         stop, -off, "lies on plate without an insulating spacer", "flat"},

        {"STK-7 hidden plug", stkOrder,
         [](Setting &s) {
             stack(s).hidden = {{"b", "usb", "a"}};
         },
         note, 0, "\"usb\" is under b: mate it before", "usb"},
        {"STK-7 nothing hidden", stkOrder, [](Setting &s) { stack(s); }, {}},

        {"STK-8 straight", stkHarness, [](Setting &s) { flatCable(s, 45, false); }, pass, 0},
        {"STK-8 turned", stkHarness, [](Setting &s) { flatCable(s, 46, false); }, note, -1, "open 46° apart", "turn"},
        {"STK-8 twisted", stkHarness, [](Setting &s) { flatCable(s, 0, true); }, note, 45, "needs half a twist",
         "twist"},
    };
}

} // namespace waxis::test
