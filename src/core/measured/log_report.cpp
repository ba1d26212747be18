#include "core/measured/log_report.h"

#include "core/balance/case_balance.h"
#include "core/balance/mass_rows.h"
#include "core/base/by_id.h"
#include "core/kit/kit.h"
#include "core/log/quantities.h"
#include "core/power/idle_current.h"
#include "core/power/power_report.h"
#include "core/radio/radio_report.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <numeric>
#include <tuple>

namespace waxis {

namespace {

/// Two-sided: so many of n on one side, or more, by the toss of a coin.
double signChance(int more, int n) {
    if (n == 0) return 1;
    double below = 0, ways = std::pow(0.5, n);
    for (int k = 0; k <= std::min(more, n - more); ++k) {
        below += ways;
        ways *= double(n - k) / double(k + 1);
    }
    return std::min(1.0, 2 * below);
}

/// "hover of 2026-05-14"
std::string reasonOf(const Log &log, const Entry &entry) {
    const Session *session = byId(log.sessions, entry.session);
    const std::string day = session ? session->at.substr(0, 10) : std::string();
    return fmt::format("{}, {}", quantityInfo(entry.quantity).title, day);
}

class Comparison {
public:
    Comparison(const Build &build, const Practice &practice, const LogInputs &in)
        : build_(build), practice_(practice), in_(in) {}

    LogReport make() {
        group();
        for (const auto &[key, entries] : groups_) compare(entries);
        leads();
        inconsistencies();
        for (const auto &trial : build_.log->trials)
            report_.trials.push_back(trialReport(trial, practice_[Limit::trialChance] / 100));
        return std::move(report_);
    }

private:
    using Key = std::tuple<Quantity, std::string, std::string>;

    std::string caseOf(const Entry &entry) const {
        std::string loadCase = entry.loadCase;
        const Session *session = byId(build_.log->sessions, entry.session);
        if (loadCase.empty() && session) loadCase = session->loadCase;
        const bool known = byId(in_.loadCases, loadCase) != nullptr;
        return known || in_.loadCases.empty() ? loadCase : in_.loadCases.front().id;
    }
    std::size_t indexOf(const std::string &loadCase) const {
        for (std::size_t i = 0; i < in_.loadCases.size(); ++i)
            if (in_.loadCases[i].id == loadCase) return i;
        return 0;
    }
    const CaseBalance *balanceOf(const std::string &loadCase) const {
        const std::size_t i = indexOf(loadCase);
        return i < in_.balance.size() ? &in_.balance[i] : nullptr;
    }
    const HoverReport *hoverOf(const std::string &loadCase) const {
        const std::size_t i = indexOf(loadCase);
        return i < in_.power.hover.size() && !in_.power.hover[i].pack.empty() ? &in_.power.hover[i] : nullptr;
    }
    const Rail *packOf(const HoverReport &hover) const {
        for (const auto &rail : in_.power.rails)
            if (rail.part == hover.pack) return &rail;
        return nullptr;
    }

    void group() {
        for (const auto &entry : build_.log->entries) {
            if (entry.setAside || entry.values.empty()) continue;
            const QuantityInfo &info = quantityInfo(entry.quantity);
            const bool ofCraft = info.subject == EntrySubject::none;
            groups_[{entry.quantity, entry.subjects.empty() ? "" : entry.subjects.front(),
                     ofCraft ? caseOf(entry) : ""}]
                .push_back(&entry);
        }
    }

    using Entries = std::vector<const Entry *>;

    /// A row of the i-th value of all of them; the doubt of the median, common doubts not averaged away.
    PlannedMeasured rowOf(const Entries &entries, std::size_t i = 0) const {
        const Entry &first = *entries.front();
        PlannedMeasured row;
        row.quantity = first.quantity;
        row.subject = first.subjects.empty() ? "" : first.subjects.front();
        if (quantityInfo(first.quantity).subject == EntrySubject::none) row.loadCase = caseOf(first);
        const auto &kind = quantityInfo(first.quantity).values[i];
        row.unit = unitOf(kind.measure);
        std::vector<double> values;
        for (const Entry *entry : entries)
            if (i < entry->values.size()) values.push_back(entry->values[i]);
        row.entries = int(values.size());
        row.measured = values.empty() ? 0 : medianOf(std::move(values));
        row.measuredSigma = doubtOf(*entries.back()) / 2;
        return row;
    }

    void add(PlannedMeasured row) {
        if (!row.planned) {
            row.agreement = Agreement::planUnknown;
        } else {
            const double sigma = std::hypot(row.plannedSigma, row.measuredSigma);
            const double difference = row.measured - *row.planned;
            row.sigmas = sigma > 0 ? difference / sigma : 0;
            row.agreement =
                std::abs(difference) <= practice_[Limit::measuredApart] * sigma ? Agreement::agrees : Agreement::apart;
        }
        report_.rows.push_back(std::move(row));
    }

    void compare(const Entries &entries) {
        switch (entries.front()->quantity) {
        case Quantity::partWeight: return partWeight(entries);
        case Quantity::craftWeight: return craftWeight(entries);
        case Quantity::craftBalance: return craftBalance(entries);
        case Quantity::size: return size(entries);
        case Quantity::leadCut:
        case Quantity::leadTrimmed: return leadLength(entries);
        case Quantity::idleCurrent: return idle(entries);
        case Quantity::hoverCurrent: return hover(entries);
        case Quantity::hoverThrottle: return throttle(entries);
        case Quantity::flight: return flight(entries);
        case Quantity::sag: return sag(entries);
        case Quantity::fieldOfPlace: return field(entries);
        case Quantity::headingLifted:
        case Quantity::headingTurned: return heading(entries);
        case Quantity::leadShort:
        case Quantity::restVoltage:
        case Quantity::hoverVoltage:
        case Quantity::temperature:
        case Quantity::satellites:
        case Quantity::rangeWalk: return add(rowOf(entries));
        case Quantity::seen:
        case Quantity::fault:
        case Quantity::setting:
        case Quantity::motorReversed:
        case Quantity::takenOut:
        case Quantity::putIn:
        case Quantity::spareUsed:
        case Quantity::damage:
        case Quantity::openEnd: return;
        }
    }

    /// The mass row of a part or piece of the frame, or of the first of a kind.
    const MassRow *massOf(const std::string &subject) const {
        if (const auto *row = byId(in_.rows, subject)) return row;
        for (const auto &line : in_.kit)
            if (line.item == subject && !line.members.empty()) return byId(in_.rows, line.members.front());
        return nullptr;
    }
    bool isKind(const std::string &subject) const {
        return std::any_of(in_.kit.begin(), in_.kit.end(), [&](const KitLine &line) { return line.item == subject; });
    }

    void partWeight(const Entries &entries) {
        PlannedMeasured row = rowOf(entries);
        const MassRow *mass = massOf(row.subject);
        const bool known = mass && mass->known;
        if (known) {
            row.planned = mass->element.mass_g;
            row.plannedSigma = mass->tolerance_g / 2;
        }
        const bool isPart = findPart(build_, row.subject) != nullptr;
        constexpr double kSame_g = 0.005;
        const bool taken = known && mass->source == Source::measured && std::abs(*row.planned - row.measured) < kSame_g;
        if ((isPart || isKind(row.subject)) && !taken)
            row.feedback = {{isPart ? FeedbackKind::partWeight : FeedbackKind::kindWeight,
                             row.subject,
                             {row.measured},
                             2 * row.measuredSigma,
                             {},
                             reasonOf(*build_.log, *entries.back())}};
        add(std::move(row));
    }

    void craftWeight(const Entries &entries) {
        PlannedMeasured row = rowOf(entries);
        if (const CaseBalance *balance = balanceOf(row.loadCase); balance && balance->notWeighed.empty()) {
            row.planned = balance->mass.mass_g;
            row.plannedSigma = balance->tolerance_g / 2;
        }
        const bool taken = std::any_of(build_.weighings.begin(), build_.weighings.end(), [&](const Weighing &w) {
            const bool sameCase = (w.loadCase.empty() ? in_.loadCases.front().id : w.loadCase) == row.loadCase;
            return w.method == WeighingMethod::total && sameCase && w.total_g.value == row.measured;
        });
        if (!taken)
            row.feedback = {{FeedbackKind::craftWeight,
                             row.loadCase,
                             {row.measured},
                             2 * row.measuredSigma,
                             {},
                             reasonOf(*build_.log, *entries.back())}};
        add(std::move(row));
    }

    void craftBalance(const Entries &entries) {
        const CaseBalance *balance = balanceOf(caseOf(*entries.front()));
        for (std::size_t axis = 0; axis < 2; ++axis) {
            PlannedMeasured row = rowOf(entries, axis);
            if (row.entries == 0) continue;
            row.which = axis == 0 ? "forward" : "left";
            if (balance && balance->offset_mm) {
                const auto i = Eigen::Index(axis);
                row.planned = (*balance->offset_mm)[i];
                row.plannedSigma = std::sqrt(std::max(0.0, balance->cgCovariance_mm2(i, i)));
            }
            add(std::move(row));
        }
    }

    void size(const Entries &entries) {
        constexpr double kPlanSigma_mm = 0.15; // of a data sheet's outline (common practice, no source)
        constexpr std::array<std::string_view, 3> kNames{"length", "width", "height"};
        const std::string subject = entries.front()->subjects.empty() ? "" : entries.front()->subjects.front();
        const Part *part = findPart(build_, subject);
        const std::string item = part ? part->type : subject;
        const KitLine *line = nullptr;
        for (const auto &one : in_.kit)
            if (one.item == item) line = &one;
        std::vector<double> all;
        std::vector<PlannedMeasured> made;
        for (std::size_t axis = 0; axis < kNames.size(); ++axis) {
            PlannedMeasured row = rowOf(entries, axis);
            if (row.entries == 0) continue;
            row.which = kNames[axis];
            const auto planned =
                line ? (line->measuredSize_mm ? line->measuredSize_mm : line->catalogueSize_mm) : std::optional<Vec3>();
            if (planned) {
                row.planned = (*planned)[Eigen::Index(axis)];
                row.plannedSigma = kPlanSigma_mm;
            }
            all.push_back(row.measured);
            made.push_back(std::move(row));
        }
        const bool taken = line && line->measuredSize_mm && all.size() == 3 &&
                           (*line->measuredSize_mm - Vec3(all[0], all[1], all[2])).norm() < 0.005;
        if (line && all.size() == 3 && !taken)
            made.front().feedback = {
                {FeedbackKind::kindSize, item, all, {}, {}, reasonOf(*build_.log, *entries.back())}};
        for (auto &row : made) add(std::move(row));
    }

    const WireReport *wireOf(const std::string &id) const {
        for (const auto &wire : in_.wiring.wires)
            if (wire.wire == id && wire.verdict != LeadVerdict::unknown) return &wire;
        return nullptr;
    }

    void leadLength(const Entries &entries) {
        PlannedMeasured row = rowOf(entries);
        const WireReport *wire = wireOf(row.subject);
        if (row.quantity == Quantity::leadTrimmed) {
            if (wire && wire->supplied_mm) row.planned = std::max(0.0, *wire->supplied_mm - wire->cut_mm);
        } else if (wire) {
            row.planned = wire->cut_mm;
        }
        row.plannedSigma = std::max(practice_[Limit::wireRound] / 2, row.planned ? 0.02 * *row.planned : 0);
        if (row.planned) {
            const bool cut = row.quantity == Quantity::leadCut;
            report_.leads.wires.push_back(row.subject);
            report_.leads.longer_mm.push_back(cut ? row.measured - *row.planned : *row.planned - row.measured);
        }
        add(std::move(row));
    }

    void leads() {
        LeadHabit &habit = report_.leads;
        if (habit.longer_mm.empty()) return;
        for (const double longer : habit.longer_mm) {
            habit.longer += longer > 0.5;
            habit.shorter += longer < -0.5;
        }
        const MedianInterval interval = medianInterval(habit.longer_mm, 0.95);
        habit.median_mm = interval.median;
        habit.low_mm = interval.low;
        habit.high_mm = interval.high;
        habit.coverage = interval.coverage;
        habit.chance = signChance(habit.longer, habit.longer + habit.shorter);
        // Fewer, or a smaller habit than a ruler shows, is none.
        constexpr int kFewest = 5;
        constexpr double kLeast_mm = 3, kMost_mm = 500;
        const double slack = std::round(practice_[Limit::wireOwnSlack] + habit.median_mm);
        if (int(habit.longer_mm.size()) >= kFewest && habit.chance <= practice_[Limit::trialChance] / 100 &&
            std::abs(habit.median_mm) >= kLeast_mm && slack >= 0 && slack <= kMost_mm)
            report_.slack =
                Feedback{FeedbackKind::limit,
                         "",
                         {slack},
                         {},
                         Limit::wireOwnSlack,
                         fmt::format("{} of {} leads were cut longer", habit.longer, habit.longer_mm.size())};
    }

    IdleCurrent idleOf(const std::string &loadCase) const {
        if (in_.loadCases.empty()) return {};
        return idleCurrent(build_, practice_, in_.loadCases, in_.balance, in_.wiring, in_.power.nets,
                           int(indexOf(loadCase)));
    }

    void idle(const Entries &entries) {
        PlannedMeasured row = rowOf(entries);
        const IdleCurrent idle = idleOf(row.loadCase);
        if (idle.typical_A > 0) {
            row.planned = idle.typical_A;
            row.plannedSigma = 0.25 * idle.typical_A; // data sheets are rough (common practice, no source)
        }
        add(std::move(row));
    }

    void hover(const Entries &entries) {
        report_.hasFlown = true;
        PlannedMeasured row = rowOf(entries);
        const HoverReport *hover = hoverOf(row.loadCase);
        const Rail *pack = hover ? packOf(*hover) : nullptr;
        if (pack && pack->nominal_V > 0) {
            // Of currents the power counts: in hover the pack stands at some voltage, the plan at the nominal one.
            const auto under = voltageIn(*entries.back());
            const double volts = under.value_or(pack->nominal_V);
            row.planned = hover->power_W / volts;
            constexpr double kMeritShare = 1.0 / 6 / 2; // 0.5 to 0.7 about 0.6, two sigma
            row.plannedSigma = *row.planned * std::hypot(kMeritShare, under ? 0.0 : 0.03);
            row.feedback = efficiencies(row, *hover, volts, *entries.back());
        }
        add(std::move(row));
    }
    /// Measured in the same session and load case.
    std::optional<double> voltageIn(const Entry &hover) const {
        std::vector<double> volts;
        for (const auto &entry : build_.log->entries)
            if (!entry.setAside && entry.quantity == Quantity::hoverVoltage && entry.session == hover.session &&
                caseOf(entry) == caseOf(hover) && !entry.values.empty() && entry.values[0] > 0)
                volts.push_back(entry.values[0]);
        return volts.empty() ? std::nullopt : std::optional(medianOf(std::move(volts)));
    }
    /// Figure of merit so that the model's hover takes what was measured; what it cannot take goes to the drive.
    std::vector<Feedback> efficiencies(const PlannedMeasured &row, const HoverReport &hover, double volts,
                                       const Entry &entry) const {
        const double waits_W = idleOf(row.loadCase).typical_A * volts;
        const double planned_W = hover.power_W - waits_W, measured_W = row.measured * volts - waits_W;
        if (!(planned_W > 0 && measured_W > 0)) return {};
        constexpr double kLeastMerit = 40, kMostMerit = 80, kLeastDrive = 50, kMostDrive = 95;
        const double merit = practice_[Limit::figureOfMerit], drive = practice_[Limit::driveEfficiency];
        const double wanted = merit * planned_W / measured_W;
        const double taken = std::clamp(wanted, kLeastMerit, kMostMerit);
        const auto tenth = [](double value) { return std::round(10 * value) / 10; };
        std::vector<Feedback> feedback;
        const std::string reason = reasonOf(*build_.log, entry);
        if (std::abs(taken - merit) >= 0.1)
            feedback.push_back({FeedbackKind::limit, "", {tenth(taken)}, {}, Limit::figureOfMerit, reason});
        const double rest = std::clamp(drive * wanted / taken, kLeastDrive, kMostDrive);
        if (std::abs(rest - drive) >= 0.1)
            feedback.push_back({FeedbackKind::limit, "", {tenth(rest)}, {}, Limit::driveEfficiency, reason});
        return feedback;
    }

    void throttle(const Entries &entries) {
        report_.hasFlown = true;
        PlannedMeasured row = rowOf(entries);
        const CaseBalance *balance = balanceOf(row.loadCase);
        if (balance && balance->thrustToWeight && *balance->thrustToWeight > 1) {
            const double linear = 100 / *balance->thrustToWeight, square = 100 / std::sqrt(*balance->thrustToWeight);
            row.planned = (linear + square) / 2;
            row.plannedSigma = (square - linear) / 4;
        }
        add(std::move(row));
    }

    void flight(const Entries &entries) {
        report_.hasFlown = true;
        const std::string loadCase = caseOf(*entries.front());
        const HoverReport *hover = hoverOf(loadCase);
        const Part *pack = hover ? findPart(build_, hover->pack) : nullptr;
        const PartType *type = pack ? typeOf(build_, *pack) : nullptr;
        const double capacity = type && type->electrical ? type->electrical->capacity_mAh.value_or(0) : 0;
        std::vector<double> minutes;
        for (const Entry *entry : entries) {
            if (!entry->packFull) continue; // a flight with a pack half full calibrates nothing
            const double putBack = entry->values.size() > 1 ? entry->values[1] : 0;
            if (capacity > 0 && putBack > 0) {
                const double usable = capacity * (1 - practice_[Limit::packReserve] / 100);
                minutes.push_back(entry->values[0] * usable / putBack);
            }
        }
        PlannedMeasured row = rowOf(entries);
        row.which = minutes.empty() ? "" : "to the reserve";
        if (!minutes.empty()) {
            row.entries = int(minutes.size());
            row.measured = medianOf(std::move(minutes));
            row.measuredSigma = 0.05 * row.measured; // chargers count to a few per cent (common practice, no source)
            if (hover && hover->most_min > 0) {
                row.planned = (hover->least_min + hover->most_min) / 2;
                row.plannedSigma = (hover->most_min - hover->least_min) / 4;
            }
        }
        add(std::move(row));
    }

    void sag(const Entries &entries) {
        PlannedMeasured row = rowOf(entries);
        Measured planned;
        if (const Part *part = findPart(build_, row.subject)) planned = part->fastening.sag_mm;
        if (const auto *stack = byId(build_.stacks, row.subject)) planned = stack->sag_mm;
        if (const auto *plate = byId(build_.frame->plates, row.subject)) planned = plate->sag_mm;
        row.planned = planned.value;
        if (planned.known()) row.plannedSigma = planned.tolerance.value_or(0.3 * *planned.value) / 2;
        const bool there = findPart(build_, row.subject) || byId(build_.stacks, row.subject) ||
                           byId(build_.frame->plates, row.subject);
        if (there && !(planned.source == Source::measured && planned.value == row.measured))
            row.feedback = {{FeedbackKind::sag,
                             row.subject,
                             {row.measured},
                             2 * row.measuredSigma,
                             {},
                             reasonOf(*build_.log, *entries.back())}};
        add(std::move(row));
    }

    void field(const Entries &entries) {
        PlannedMeasured row = rowOf(entries);
        row.planned = practice_[Limit::earthField];
        row.plannedSigma = 0.1 * *row.planned;
        if (std::abs(*row.planned - row.measured) >= 0.05)
            row.feedback = {{FeedbackKind::limit,
                             "",
                             {row.measured},
                             {},
                             Limit::earthField,
                             reasonOf(*build_.log, *entries.back())}};
        add(std::move(row));
    }

    /// Lifted: the walk itself. Turned: the part that goes round with the craft (B and C of the deviation's
    /// A + B sin + C cos; the mean A is declination and mounting), as its largest.
    void heading(const Entries &entries) {
        PlannedMeasured row = rowOf(entries);
        if (row.quantity == Quantity::headingTurned) {
            std::vector<double> round;
            for (const Entry *entry : entries)
                if (entry->values.size() == 4)
                    round.push_back(std::hypot((entry->values[1] - entry->values[3]) / 2,
                                               (entry->values[0] - entry->values[2]) / 2));
            if (round.empty()) return;
            row.which = "goes round";
            row.measured = medianOf(std::move(round));
            if (!in_.radio.compasses.empty()) {
                row.planned = in_.radio.compasses.front().constant_deg;
                row.plannedSigma = std::max(2.0, 0.3 * *row.planned); // iron of motors is not in it
            }
        } else {
            row.measured = std::abs(row.measured);
        }
        add(std::move(row));
    }

    void inconsistencies() {
        for (const auto &[key, entries] : groups_) {
            const Quantity quantity = std::get<0>(key);
            const bool same = quantity == Quantity::partWeight || quantity == Quantity::size ||
                              quantity == Quantity::craftWeight || quantity == Quantity::sag;
            if (!same) continue;
            for (std::size_t i = 0; i < entries.size(); ++i)
                for (std::size_t k = i + 1; k < entries.size(); ++k) {
                    if (quantity == Quantity::craftWeight && stateOf(*entries[i]) != stateOf(*entries[k])) continue;
                    const double sigma = std::hypot(doubtOf(*entries[i]), doubtOf(*entries[k])) / 2;
                    const double apart = std::abs(entries[i]->values[0] - entries[k]->values[0]);
                    if (sigma > 0 && apart > practice_[Limit::measuredApart] * sigma)
                        report_.inconsistent.push_back({entries[i]->id, entries[k]->id, apart / sigma});
                }
        }
    }
    std::string stateOf(const Entry &entry) const {
        const Session *session = byId(build_.log->sessions, entry.session);
        return session ? session->fingerprint : std::string();
    }

    const Build &build_;
    const Practice &practice_;
    const LogInputs &in_;
    LogReport report_;
    std::map<Key, Entries> groups_;
};

} // namespace

LogReport logReport(const Build &build, const Practice &practice, const LogInputs &in) {
    return Comparison(build, practice, in).make();
}

} // namespace waxis
