#include "app/stages/stack/screw_card.h"

#include "core/edits/stack_change.h"
#include "core/edits/stack_edits.h"
#include "core/fasteners/screw.h"
#include "core/kit/kit.h"
#include "core/rules/wording.h"
#include "core/stack/motor_screws.h"
#include "core/stack/report.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>

namespace waxis::stackbench {

namespace {

QString threadName(const ThreadSize &thread) {
    return QString::fromUtf8(thread.name.data(), qsizetype(thread.name.size()));
}

Severity severityOf(ScrewVerdict verdict) {
    switch (verdict) {
    case ScrewVerdict::short_:
    case ScrewVerdict::strikes:
    case ScrewVerdict::bottoms: return Severity::stop;
    case ScrewVerdict::long_: return Severity::watch;
    case ScrewVerdict::good: return Severity::pass;
    }
    return Severity::pass;
}

} // namespace

ScrewCard::ScrewCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent)
    : theme::Card(theme, tr("Screw"), parent), focus_(focus) {
    constexpr int kRows = 5;
    for (int i = 0; i < kRows; ++i) {
        auto *row = new theme::ChoiceRow(theme);
        row->setObjectName(QStringLiteral("screw-%1").arg(i));
        body().addWidget(row);
        rows_.push_back(row);
        connect(row, &QAbstractButton::clicked, this, [this, i] {
            const StackReport *report = focus_.report();
            if (report && i < int(report->screw.choice.options.size()))
                choose(report->screw.choice.options[std::size_t(i)].length_mm);
        });
    }
    auto *line = new QHBoxLayout;
    line->setSpacing(4);
    head_ = new QComboBox;
    head_->setObjectName("screw-head");
    head_->setAccessibleName(tr("Head of the screw"));
    head_->addItem(tr("cap head"), int(HeadStyle::cap));
    head_->addItem(tr("button head"), int(HeadStyle::button));
    head_->addItem(tr("countersunk"), int(HeadStyle::countersunk));
    material_ = new QComboBox;
    material_->setObjectName("screw-material");
    material_->setAccessibleName(tr("Material of the screw"));
    for (const auto &[text, id] : {std::pair{tr("steel"), "steel"},
                                   {tr("stainless"), "stainless"},
                                   {tr("titanium"), "titanium"},
                                   {tr("aluminium"), "aluminium"},
                                   {tr("nylon"), "nylon"}})
        material_->addItem(text, QString::fromLatin1(id));
    line->addWidget(head_, 1);
    line->addWidget(material_, 1);
    body().addLayout(line);
    sums_ = addNote();
    sums_->setObjectName("note");
    auto again = [this] {
        const StackReport *report = focus_.report();
        if (!report) return;
        const auto length =
            report->screw.placed ? std::optional(report->screw.placed->length_mm) : report->screw.choice.best_mm;
        if (length) choose(*length);
    };
    connect(head_, &QComboBox::activated, this, again);
    connect(material_, &QComboBox::activated, this, again);
    connect(&focus_, &StackFocus::changed, this, &ScrewCard::refresh);
    refresh();
}

void ScrewCard::choose(double length_mm) {
    const Stack *stack = focus_.stack();
    const StackReport *report = focus_.report();
    if (!stack || !report || !report->screw.task.thread) return;
    const FastenerData screw{FastenerForm::screw, std::string(report->screw.task.thread->name), length_mm,
                             HeadStyle(head_->currentData().toInt())};
    focus_.edit(
        tr("Use %1 × %2").arg(threadName(*report->screw.task.thread)).arg(length_mm),
        chooseScrew(focus_.document().build(), stack->id, screw, material_->currentData().toString().toStdString()));
    refresh();
}

void ScrewCard::refresh() {
    const Stack *stack = focus_.stack();
    const StackReport *report = focus_.report();
    setVisible(report != nullptr);
    if (!stack || !report) return;
    const ScrewReport &screw = report->screw;
    const bool any = screw.wanted && screw.task.thread;
    head_->setVisible(any);
    material_->setVisible(any);
    if (!any) {
        for (auto *row : rows_) row->hide();
        sums_->setText(stack->hold == StackHold::ties
                           ? tr("Held by ties: two of 2.5 mm, 0.5 g. Screws, nuts and washers are gone.")
                       : stack->hold == StackHold::strap ? tr("Held by a strap.")
                                                         : tr("Nothing to clamp yet: add layers."));
        return;
    }
    {
        const QSignalBlocker quiet(head_), quieter(material_);
        if (screw.placed) {
            head_->setCurrentIndex(head_->findData(int(screw.placed->head)));
            material_->setCurrentIndex(std::max(0, material_->findData(QString::fromStdString(screw.material))));
        }
    }
    const QString thread = threadName(*screw.task.thread);
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        if (i >= screw.choice.options.size()) {
            rows_[i]->hide();
            continue;
        }
        const ScrewOption &option = screw.choice.options[i];
        theme::ChoiceRow::Look look;
        look.lead = QStringLiteral("%1 × %2").arg(thread).arg(option.length_mm);
        const double beyond = option.beyond_mm;
        switch (option.verdict) {
        case ScrewVerdict::short_:
            look.text = screw.task.nut ? (beyond <= -screw.task.nut_mm
                                              ? tr("does not reach the nut")
                                              : tr("%1 short of a full nut").arg(number(option.outside_mm)))
                                       : tr("%1 short in the thread").arg(number(option.outside_mm));
            break;
        case ScrewVerdict::good:
            look.text =
                screw.task.nut ? tr("%1 past the nut").arg(number(beyond)) : tr("%1 in the thread").arg(number(beyond));
            break;
        case ScrewVerdict::long_: look.text = tr("%1 past: too long").arg(number(beyond)); break;
        case ScrewVerdict::strikes:
            look.text = tr("%1 past: meets %2")
                            .arg(number(beyond), QString::fromStdString(withinSentence(
                                                     displayName(focus_.document().build(), screw.task.meets))));
            break;
        case ScrewVerdict::bottoms: look.text = tr("bottoms out by %1").arg(number(option.outside_mm)); break;
        }
        const Severity severity = severityOf(option.verdict);
        if (severity != Severity::pass) look.mark = severity;
        look.chosen = screw.placed && screw.placed->length_mm == option.length_mm;
        if (!look.chosen && screw.choice.best_mm && *screw.choice.best_mm == option.length_mm) look.act = tr("use");
        rows_[i]->show(look);
    }
    QString sums = screw.task.nut ? tr("grip %1 + nut %2 + %3 out = %4 mm at least")
                                        .arg(number(screw.task.grip_mm), number(screw.task.nut_mm),
                                             number(screw.choice.least_mm - screw.task.grip_mm - screw.task.nut_mm),
                                             number(screw.choice.least_mm))
                                  : tr("grip %1 + thread %2 = %3 mm at least")
                                        .arg(number(screw.task.grip_mm), number(screw.task.engagement_mm),
                                             number(screw.choice.least_mm));
    if (screw.endMissing) sums = tr("Nothing at the far end to turn into yet. ") + sums;
    sums += tr("; grip ± %1").arg(number(screw.tolerance_mm, 2));
    if (screw.placed) {
        int inHand = -1;
        if (!stack->screws.empty())
            if (const Part *part = findPart(focus_.document().build(), stack->screws.front()))
                if (const KitEntry *entry = findKitEntry(focus_.document().build(), part->type); entry && entry->inHand)
                    inHand = *entry->inHand;
        sums += '\n' + tr("%1 g each").arg(number(screw.piece_g, 2)) +
                (inHand >= 0 ? tr(", %1 in the kit").arg(inHand) : tr(", not counted in the kit"));
    }
    sums += '\n' + tr("Into metal with thread lock, tightened crosswise in small steps; nylon gently.");
    sums_->setText(sums);
}

MotorScrewCard::MotorScrewCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent)
    : theme::Card(theme, tr("Motor screws"), parent), focus_(focus), theme_(theme) {
    note_ = addNote();
    connect(&focus_, &StackFocus::changed, this, &MotorScrewCard::refresh);
    refresh();
}

/// What is to be said of motors' screws, after how many they are.
static void tell(const MotorScrews &screws, const QString &count, theme::ChoiceRow::Look &look) {
    if (!screws.gripKnown) {
        look.text = count + MotorScrewCard::tr("on tubes; what is clamped is not known");
        look.mark = Severity::unknown;
    } else if (!screws.now) {
        look.text = count + MotorScrewCard::tr("no length is right through %1 mm").arg(number(screws.grip_mm));
        look.mark = Severity::stop;
    } else {
        const QString in = number(screws.now->engagement_mm);
        switch (screws.now->verdict) {
        case MotorScrewVerdict::short_:
            look.text = count + MotorScrewCard::tr("hold %1 mm only").arg(in);
            look.mark = Severity::stop;
            break;
        case MotorScrewVerdict::deep:
            look.text = count + MotorScrewCard::tr("%1 mm in: touch the windings").arg(in);
            look.mark = Severity::stop;
            break;
        case MotorScrewVerdict::unknownDepth:
            look.text = count + MotorScrewCard::tr("%1 mm in; depth not known").arg(in);
            look.mark = Severity::unknown;
            break;
        case MotorScrewVerdict::good:
            look.text =
                count +
                (screws.depth_mm
                     ? MotorScrewCard::tr("%1 mm in, %2 allowed").arg(in, number(*screws.depth_mm - screws.reserve_mm))
                     : MotorScrewCard::tr("%1 mm in").arg(in));
            break;
        }
    }
}

void MotorScrewCard::refresh() {
    const auto &all = focus_.document().analysis().derived.motorScrews;
    setVisible(!all.empty());
    // One line for motors with the same screws through the same arm.
    std::vector<std::pair<const MotorScrews *, int>> groups;
    for (const auto &screws : all) {
        const auto same =
            std::find_if(groups.begin(), groups.end(), [&](const auto &g) { return sameTask(*g.first, screws); });
        if (same == groups.end())
            groups.emplace_back(&screws, 1);
        else
            ++same->second;
    }
    while (rows_.size() < groups.size()) addRow();
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        if (i >= groups.size()) {
            rows_[i]->hide();
            continue;
        }
        const MotorScrews &screws = *groups[i].first;
        const auto length = screws.placed_mm ? screws.placed_mm : screws.best_mm;
        theme::ChoiceRow::Look look;
        look.lead = length ? QStringLiteral("%1 × %2").arg(threadName(*screws.thread)).arg(*length)
                           : threadName(*screws.thread);
        tell(screws, tr("%n motors: ", nullptr, groups[i].second), look);
        const bool wrong = screws.now && (screws.now->verdict == MotorScrewVerdict::short_ ||
                                          screws.now->verdict == MotorScrewVerdict::deep);
        const bool better = wrong && screws.gripKnown && screws.best_mm && !screws.placed.empty();
        if (better) look.act = tr("use %1").arg(*screws.best_mm);
        rows_[i]->setProperty("motor", QString::fromStdString(screws.motor));
        rows_[i]->setProperty("thread", threadName(*screws.thread));
        rows_[i]->setProperty("best", better ? *screws.best_mm : 0.0);
        rows_[i]->show(look);
    }
    note_->setText(tr("Engaged 2.5 mm in M3, 2.0 mm in M2 at least, and short of the windings. Check with the motor "
                      "turned by hand before power."));
}

void MotorScrewCard::addRow() {
    auto *row = new theme::ChoiceRow(theme_);
    row->setObjectName("motor-screw");
    const std::size_t index = rows_.size();
    connect(row, &QAbstractButton::clicked, this, [this, index] {
        const QString motor = rows_[index]->property("motor").toString();
        const double best = rows_[index]->property("best").toDouble();
        if (best <= 0) return;
        StackChange change{motor.toStdString(), StackChangeKind::motorScrew, -1, best};
        change.thread = rows_[index]->property("thread").toString().toStdString();
        focus_.document().edit(tr("Other motor screws"), applyChange(focus_.document().build(), change));
    });
    body().insertWidget(body().count() - 1, row);
    rows_.push_back(row);
}

} // namespace waxis::stackbench
