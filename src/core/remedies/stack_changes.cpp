#include "core/remedies/stack_changes.h"

#include "core/build/chain.h"
#include "core/edits/stack_change.h"
#include "core/kit/bill.h"
#include "core/stack/report.h"
#include "core/stack/stock.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <limits>
#include <memory>

namespace waxis {

namespace {

struct Candidate {
    StackChange change;
    int effort = 1;
};

std::vector<Candidate> candidatesFor(const Build &build, const Stack &stack, const StackReport &report,
                                     const Practice &practice) {
    std::vector<Candidate> list;
    auto offer = [&](StackChangeKind kind, int layer, double value, int effort) {
        StackChange change{stack.id, kind, layer, value};
        if (report.screw.task.thread) change.thread = report.screw.task.thread->name;
        list.push_back({change, effort});
    };
    for (int i = 0; i < int(stack.layers.size()); ++i) {
        const StackLayer &layer = stack.layers[std::size_t(i)];
        const double height = freeHeight_mm(build, layer);
        const PartType *type = layerType(build, layer);
        if (layer.role == LayerRole::damper) {
            if (height > 2.05) offer(StackChangeKind::cutDamper, i, 2, 1);
            const double most = practice[Limit::damperMost] / 100;
            if (layer.squeeze < most - 0.001) offer(StackChangeKind::squeeze, i, most, 1);
            for (double h : kDamperHeights_mm)
                if (std::abs(h - height) > 0.05 && std::abs(h - height) < 2.05) offer(StackChangeKind::damper, i, h, 2);
        }
        if (layer.role == LayerRole::spacer && type && type->fastener && type->fastener->stud_mm <= 0)
            for (double h : kSpacerHeights_mm)
                if (std::abs(h - height) > 0.05 && std::abs(h - height) < 4.05) offer(StackChangeKind::spacer, i, h, 2);
        if (layer.role == LayerRole::nut && type && type->fastener &&
            (type->fastener->form == FastenerForm::lockNut || type->fastener->form == FastenerForm::thinLockNut))
            offer(StackChangeKind::lowNut, i, 0, 2);
        if (layer.role == LayerRole::board && report.layers[std::size_t(i)].standsUp_mm > 2)
            offer(StackChangeKind::plugs, i, 1, 3);
    }
    for (const auto &harness : report.harnesses)
        if (harness.turn_deg > 45 && harness.bestTurn_deg != 0)
            for (int i = 0; i < int(stack.layers.size()); ++i)
                if (stack.layers[std::size_t(i)].role == LayerRole::board &&
                    stack.layers[std::size_t(i)].parts.front() == harness.boardB)
                    offer(StackChangeKind::turn, i, harness.bestTurn_deg, 1);
    for (const auto &bare : report.bare)
        if (!bare.hardware && !bare.sheet) offer(StackChangeKind::sheet, frameLayer(stack) + 1, 0.2, 1);
    if (report.screw.endMissing && report.screw.wanted) offer(StackChangeKind::nut, -1, 0, 1);
    for (const auto &stud : report.studs)
        if (stud.shim_mm > 0) {
            offer(StackChangeKind::shim, stud.layer, std::ceil(stud.shim_mm * 10 - 1e-9) / 10, 1);
            if (const double left = cutStudTo_mm(stud); left > 0) offer(StackChangeKind::cutStud, stud.layer, left, 1);
        }
    if (report.screw.choice.best_mm && report.screw.wanted)
        list.push_back({screwChange(report, *report.screw.choice.best_mm), 1});
    if (!report.plateAbove.empty())
        for (double h : kStandoffHeights_mm)
            if (h > report.plateAbove_mm + 0.05 && h < report.plateAbove_mm + 10.5)
                offer(StackChangeKind::standoffs, -1, h, 5);
    if (report.screw.wanted) offer(StackChangeKind::ties, -1, 0, 4);
    return list;
}

bool screwFails(const StackReport &report) {
    const auto &screw = report.screw;
    if (!screw.wanted) return false;
    if (screw.endMissing || !screw.now) return true;
    return screw.now->verdict != ScrewVerdict::good && screw.now->verdict != ScrewVerdict::long_;
}

bool hasStop(const StackReport &report) {
    if (screwFails(report)) return true;
    if (!report.plateAbove.empty() && report.closing.nominal_mm < 0) return true;
    for (const auto &gap : report.gaps)
        if (gap.air_mm() < 0) return true;
    for (const auto &bare : report.bare)
        if (!bare.sheet && bare.air_mm <= 0) return true;
    for (const auto &stud : report.studs)
        if (stud.shim_mm > 1e-9) return true;
    return false;
}

} // namespace

StackChange screwChange(const StackReport &report, double length_mm) {
    StackChange change{report.stack, StackChangeKind::screw, -1, length_mm};
    change.thread = report.screw.task.thread->name;
    change.material = report.screw.material;
    if (report.screw.placed) change.head = report.screw.placed->head;
    return change;
}

double shortfall_mm(const StackReport &report, const Practice &practice) {
    double sum = 0;
    const double air = practice[Limit::stackAirLow];
    if (!report.plateAbove.empty()) sum += std::max(0.0, air - report.closest.air_mm());
    for (const auto &gap : report.gaps) {
        const bool toFrame = gap.toPlate; // bare metal over the plate is judged apart
        if (!toFrame) sum += std::max(0.0, air - gap.air_mm());
        if (toFrame) sum += std::max(0.0, -gap.air_mm());
    }
    for (const auto &bare : report.bare)
        if (!bare.sheet)
            sum += std::max(0.0, practice[bare.hardware ? Limit::hardwareBareGap : Limit::bareGap] - bare.air_mm) / 4;
    for (const auto &stud : report.studs) sum += stud.shim_mm;
    if (screwFails(report)) sum += report.screw.endMissing || !report.screw.now ? 1 : report.screw.now->outside_mm;
    return sum;
}

std::string suggestionInWords(const Build &build, const StackSuggestion &suggestion) {
    std::string words;
    for (const auto &change : suggestion.changes) {
        std::string next = wordChange(build, change).text();
        if (!words.empty() && !next.empty()) next[0] = char(std::tolower(static_cast<unsigned char>(next[0])));
        const bool last = &change == &suggestion.changes.back();
        words += words.empty() ? next : (last ? " and " : ", ") + next;
    }
    return words;
}

namespace {

/// A build on the way, with what was changed so far.
struct Attempt {
    Build build;
    StackReport report;
    StackSuggestion suggestion;
    double left_mm = 0; ///< shortfall
};

/// One more change, and the screw that it asks for.
std::unique_ptr<Attempt> withChange(const Attempt &from, const std::string &stackId, const Candidate &candidate,
                                    const Practice &practice) {
    auto next = applyChange(from.build, candidate.change);
    if (!next) return nullptr;
    auto made = std::make_unique<Attempt>();
    Attempt &attempt = *made;
    attempt.build = std::move(*next);
    attempt.suggestion = from.suggestion;
    attempt.suggestion.changes.push_back(candidate.change);
    attempt.suggestion.effort += candidate.effort;
    auto look = [&]() -> bool {
        const Stack *stack = findStack(attempt.build, stackId);
        auto report = stack ? reportOn(attempt.build, *stack, practice) : std::nullopt;
        if (!report) return false;
        attempt.report = std::move(*report);
        attempt.left_mm = shortfall_mm(attempt.report, practice);
        return true;
    };
    if (!look()) return nullptr;
    if (candidate.change.kind == StackChangeKind::screw || !screwFails(attempt.report)) return made;
    const auto &screw = attempt.report.screw;
    if (!screw.choice.best_mm || !screw.task.thread || screw.endMissing) return made;
    const StackChange change = screwChange(attempt.report, *screw.choice.best_mm);
    auto both = applyChange(attempt.build, change);
    if (!both) return made;
    attempt.build = std::move(*both);
    std::erase_if(attempt.suggestion.changes, [](const StackChange &c) { return c.kind == StackChangeKind::screw; });
    attempt.suggestion.changes.push_back(change);
    attempt.suggestion.effort += 1;
    if (!look()) return nullptr;
    return made;
}

bool sameChanges(const StackSuggestion &a, const StackSuggestion &b) {
    return a.changes.size() == b.changes.size() &&
           std::is_permutation(a.changes.begin(), a.changes.end(), b.changes.begin());
}

} // namespace

std::vector<StackSuggestion> suggestFor(const Build &build, const Stack &stack, const Practice &practice,
                                        std::size_t most) {
    std::vector<StackSuggestion> list;
    auto before = reportOn(build, stack, practice);
    if (!before) return list;
    Attempt start{build, std::move(*before), {}, 0};
    start.left_mm = shortfall_mm(start.report, practice);
    if (start.left_mm < 1e-6) return list;
    const double grams = hardwareBill(build, practice).total_g;
    auto keep = [&](const Attempt &attempt) {
        StackSuggestion suggestion = attempt.suggestion;
        std::stable_partition(suggestion.changes.begin(), suggestion.changes.end(),
                              [](const StackChange &c) { return c.kind != StackChangeKind::screw; });
        suggestion.gained_mm = start.left_mm - attempt.left_mm;
        suggestion.left_mm = attempt.report.plateAbove.empty() ? std::numeric_limits<double>::infinity()
                                                               : attempt.report.closing.nominal_mm;
        suggestion.mass_g = hardwareBill(attempt.build, practice).total_g - grams;
        suggestion.solves = !hasStop(attempt.report);
        if (std::none_of(list.begin(), list.end(),
                         [&](const StackSuggestion &other) { return sameChanges(other, suggestion); }))
            list.push_back(std::move(suggestion));
    };
    // One change; where none is enough, two, then three, going on from the few that got furthest for least.
    constexpr std::size_t kKept = 14;
    constexpr int kMostChanges = 3;
    std::vector<Attempt> front{std::move(start)};
    const double short_mm = front.front().left_mm;
    for (int round = 0; round < kMostChanges && !front.empty(); ++round) {
        std::vector<Attempt> next;
        bool solved = false;
        for (const auto &from : front)
            for (const auto &candidate :
                 candidatesFor(from.build, *findStack(from.build, stack.id), from.report, practice)) {
                // A second change of the same thing replaces the first; what helps nobody to close is tried once.
                const StackChange &change = candidate.change;
                const bool again =
                    std::any_of(from.suggestion.changes.begin(), from.suggestion.changes.end(),
                                [&](const StackChange &c) { return c.kind == change.kind && c.layer == change.layer; });
                const bool minor = change.kind == StackChangeKind::sheet || change.kind == StackChangeKind::ties ||
                                   change.kind == StackChangeKind::screw;
                if (again || (round > 0 && minor)) continue;
                auto attempt = withChange(from, stack.id, candidate, practice);
                if (!attempt || attempt->left_mm > from.left_mm - 0.01) continue;
                if (!hasStop(attempt->report)) {
                    solved = true;
                    keep(*attempt);
                } else {
                    if (round == 0) keep(*attempt);
                    next.push_back(std::move(*attempt));
                }
            }
        if (solved && round > 0) break;
        std::stable_sort(next.begin(), next.end(), [&](const Attempt &a, const Attempt &b) {
            auto worth = [&](const Attempt &t) { return (short_mm - t.left_mm) / (1 + t.suggestion.effort); };
            return worth(a) > worth(b);
        });
        // The best of each kind of change goes on, so that cheap cuts do not crowd out what would be enough.
        std::vector<Attempt> kept;
        constexpr std::ptrdiff_t kAlike = 2;
        for (auto &attempt : next) {
            const auto last = [](const Attempt &t) {
                for (auto change = t.suggestion.changes.rbegin(); change != t.suggestion.changes.rend(); ++change)
                    if (change->kind != StackChangeKind::screw) return std::pair(change->kind, change->layer);
                return std::pair(StackChangeKind::screw, -1);
            };
            const auto alike = std::count_if(kept.begin(), kept.end(),
                                             [&](const Attempt &other) { return last(other) == last(attempt); });
            if (kept.size() < kKept && alike < kAlike) kept.push_back(std::move(attempt));
        }
        next = std::move(kept);
        if (solved) break;
        front = std::move(next);
    }
    std::stable_sort(list.begin(), list.end(), [](const StackSuggestion &a, const StackSuggestion &b) {
        if (a.solves != b.solves) return a.solves;
        if (a.effort != b.effort) return a.effort < b.effort;
        if (std::abs(a.gained_mm - b.gained_mm) > 0.01) return a.gained_mm > b.gained_mm;
        return a.mass_g < b.mass_g;
    });
    // What does no more than a shorter list that is enough is left out.
    std::vector<StackSuggestion> lean;
    for (auto &suggestion : list) {
        // Dearer ones must also do more than the cheapest that is enough.
        if (!lean.empty() && lean.front().solves && suggestion.effort > lean.front().effort + 1 &&
            suggestion.gained_mm < lean.front().gained_mm + 0.3)
            continue;
        const bool padded = std::any_of(lean.begin(), lean.end(), [&](const StackSuggestion &other) {
            return other.solves && other.gained_mm > suggestion.gained_mm - 0.01 &&
                   std::all_of(other.changes.begin(), other.changes.end(), [&](const StackChange &change) {
                       return std::find(suggestion.changes.begin(), suggestion.changes.end(), change) !=
                              suggestion.changes.end();
                   });
        });
        if (!padded && lean.size() < most) lean.push_back(std::move(suggestion));
    }
    return lean;
}

Fix fixBy(const StackChange &change) {
    Fix fix;
    fix.part = change.stack;
    fix.change = change;
    return fix;
}

} // namespace waxis
