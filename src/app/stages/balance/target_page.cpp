#include "app/stages/balance/target_page.h"

#include "app/stages/balance/group_words.h"
#include "app/theme/metrics.h"
#include "app/widgets/texts.h"
#include "app/widgets/typed_number.h"
#include "core/balance/case_balance.h"
#include "core/balance/hover_share.h"
#include "core/build/chain.h"
#include "core/edits/balance_edits.h"
#include "core/rules/wording.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>
#include <cmath>

namespace waxis::balance {

namespace {
QString nameIn(const Build &build, const std::string &id) { return QString::fromStdString(displayName(build, id)); }
QString one(double value) { return QString::fromStdString(oneDecimal(value)); }
} // namespace

TargetPage::TargetPage(app::Document &document, const theme::Theme &theme, StudyRunner &runner, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme), runner_(runner) {
    target_ = new TargetView(document, theme, runner);
    target_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    slide_ = new SlidePanel(document, theme);
    slide_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Preferred);
    for (QWidget *half : {static_cast<QWidget *>(target_), static_cast<QWidget *>(slide_)}) half->setMinimumWidth(300);
    cases_ = new CaseTable(document, theme);

    auto *thrustCard = new theme::Card(theme, tr("Thrust share at hover"));
    thrusts_ = new BarList(theme, tr("Thrust of each motor at hover"));
    thrusts_->setObjectName("thrusts");
    thrustCard->body().addWidget(thrusts_);
    thrustNote_ = thrustCard->addNote();
    auto *entry = new QHBoxLayout;
    auto *entryWords = new QLabel(tr("a motor can push"));
    entryWords->setObjectName("note");
    entryWords->setFont(theme.text(theme::kSmallPixels));
    thrust_ = new QLineEdit;
    thrust_->setObjectName("motor-thrust");
    thrust_->setAccessibleName(tr("Static thrust of one motor with its propeller, gram-force"));
    thrust_->setToolTip(tr("Measured with this propeller and a full pack; for all motor types of the build. Empty: not "
                           "known. Propellers pull when they turn: clamp the stand, keep hands and faces away."));
    thrust_->setFont(theme.numbers(12));
    thrust_->setFixedWidth(86);
    entry->addWidget(entryWords);
    entry->addWidget(thrust_);
    entry->addStretch(1);
    thrustCard->body().addLayout(entry);

    auto *gramCard = new theme::Card(theme, tr("Where the grams are"));
    grams_ = new BarList(theme, tr("Grams by group"));
    grams_->setObjectName("grams");
    gramCard->body().addWidget(grams_);
    gramCard->body().addStretch(1);

    others_ = new theme::Card(theme, tr("Or"));
    otherNote_ = others_->addNote();
    for (int i = 0; i < 4; ++i) {
        auto *row = new theme::ChoiceRow(theme);
        row->setObjectName(QStringLiteral("or-%1").arg(i));
        row->setLeadWidth(64);
        connect(row, &theme::ChoiceRow::clicked, this, [this, i] {
            if (std::size_t(i) < doings_.size() && doings_[std::size_t(i)]) doings_[std::size_t(i)]();
        });
        others_->body().addWidget(row);
        rows_.push_back(row);
    }
    others_->body().addStretch(1);

    auto *side = new QVBoxLayout;
    side->setSpacing(8);
    side->addWidget(thrustCard);
    side->addWidget(gramCard, 1);
    auto *grid = new QGridLayout;
    grid->setSpacing(8);
    grid->addWidget(target_, 0, 0);
    grid->addLayout(side, 0, 1);
    grid->addWidget(slide_, 1, 0);
    grid->addWidget(others_, 1, 1);
    grid->setRowStretch(0, 1);
    grid->setColumnStretch(0, 60);
    grid->setColumnStretch(1, 40);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(10, 8, 10, 6);
    all->setSpacing(8);
    all->addLayout(grid, 1);
    all->addWidget(cases_);

    // Tab goes as one reads: the slide, the thrust, the other ways, the cases.
    setTabOrder(&slide_->line(), thrust_);
    setTabOrder(thrust_, rows_.front());
    for (std::size_t i = 1; i < rows_.size(); ++i) setTabOrder(rows_[i - 1], rows_[i]);
    setTabOrder(rows_.back(), cases_);

    connect(&document_, &app::Document::changed, this, &TargetPage::refresh);
    connect(&document_, &app::Document::loadCaseChanged, this, &TargetPage::refresh);
    connect(&document_, &app::Document::selectionChanged, this, [this] {
        const Part *part = document_.selectedPart();
        if (part && isVisible() && (part->slide || slideable(*part))) slide_->lookAt(part->id);
    });
    connect(&runner_, &StudyRunner::ready, this, &TargetPage::refreshOthers);
    connect(slide_, &SlidePanel::proposed, this, [this] {
        const auto &s = slide_->solution();
        target_->propose(s && std::abs(s->travel_mm) > 0.05 ? std::optional(s->after_mm) : std::nullopt,
                         s ? tr("after the slide %1").arg(one(s->after_mm.norm())) : QString());
    });
    connect(thrusts_, &BarList::chosen, this, [this](const QString &id) { document_.select(id); });
    connect(thrust_, &QLineEdit::editingFinished, this, &TargetPage::applyThrust);
    connect(&theme_, &theme::Theme::changed, this, &TargetPage::refresh);
    refresh();
}

bool TargetPage::slideable(const Part &part) const {
    const PartType *type = typeOf(document_.build(), part);
    return type && type->kind != PartKind::fastener && type->kind != PartKind::motor &&
           type->kind != PartKind::propeller && type->kind != PartKind::damper &&
           !stackPlaceOf(document_.build(), part);
}

void TargetPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    refresh();
}

void TargetPage::refresh() {
    if (!isVisible()) return; // nobody looks: a drag in another stage does not pay for it
    refreshThrusts();
    refreshGrams();
    refreshOthers();
}

void TargetPage::refreshThrusts() {
    const Build &build = document_.build();
    const CaseBalance *balance = document_.balance();
    std::vector<Bar> bars;
    if (balance && !balance->hover.thrusts_N.empty() && !balance->loadCase.folded) {
        const HoverShare &hover = balance->hover;
        double all = 0;
        for (double t : hover.thrusts_N) all += t;
        const double mean = all / double(hover.thrusts_N.size());
        for (std::size_t i = 0; i < hover.thrusts_N.size(); ++i) {
            const MotorMount &mount = build.frame->motorMounts[i];
            const double t = hover.thrusts_N[i];
            Bar bar;
            bar.name = QString::fromStdString(motorName(build, mount.id));
            bar.name.remove(tr(" motor"));
            bar.length = t;
            bar.limit = hover.most_N[i];
            bar.figures = tr("%1 %").arg(100 * t / all, 0, 'f', 1);
            if (hover.most_N[i]) bar.figures += tr(" · load %1 %").arg(100 * t / *hover.most_N[i], 0, 'f', 0);
            bar.color = int(i) == hover.mostLoaded ? c().plumb : theme::familyColor(Family::power);
            bar.tip = hover.most_N[i] ? tr("%1 N of the %2 N that it can push; %3 N left")
                                            .arg(t, 0, 'f', 2)
                                            .arg(*hover.most_N[i], 0, 'f', 1)
                                            .arg(*hover.most_N[i] - t, 0, 'f', 1)
                                      : tr("%1 N at hover").arg(t, 0, 'f', 2);
            bars.push_back(std::move(bar));
        }
        thrusts_->show(std::move(bars), mean);
        const double more = 100 * (hover.mostOverMean - 1);
        QString note = more < 0.5 ? tr("All carry alike.")
                                  : tr("The %1 carries %2 % more than the mean.")
                                        .arg(QString::fromStdString(motorName(
                                            build, build.frame->motorMounts[std::size_t(hover.mostLoaded)].id)))
                                        .arg(more, 0, 'f', 0);
        if (hover.lean_deg > 0.5)
            note += QStringLiteral(" ") + tr("Leaning motors push %1 N to the side: it hangs leaning by %2°.")
                                              .arg(hover.aside_N.norm(), 0, 'f', 1)
                                              .arg(hover.lean_deg, 0, 'f', 1);
        if (hover.tightest >= 0)
            note += QStringLiteral(" ") + tr("It can push %1 times that.").arg(1 / hover.tightestShare, 0, 'f', 1);
        if (hover.yawServo)
            note += QStringLiteral(" ") + tr("A servo holds the nose.");
        else if (std::abs(hover.yawLeft) > 0.005) {
            note += QStringLiteral(" ") + tr("%1 % of the torque turns the nose to the %2")
                                              .arg(100 * std::abs(hover.yawLeft), 0, 'f', 0)
                                              .arg(hover.yawLeft > 0 ? tr("left") : tr("right"));
            if (!hover.yawBalanced_N.empty()) {
                const double most = *std::max_element(hover.yawBalanced_N.begin(), hover.yawBalanced_N.end());
                note += tr("; held straight, one carries %1 % more").arg(100 * (most / mean - 1), 0, 'f', 0);
            }
            note += QStringLiteral(".");
        }
        thrustNote_->setText(note);
    } else {
        thrusts_->show({});
        thrustNote_->setText(balance && balance->loadCase.folded
                                 ? tr("Folded for carrying: it does not fly like that.")
                                 : tr("No hover to share yet: motors and weights first."));
    }
    std::optional<double> entered;
    bool same = true, any = false;
    for (const auto &part : build.parts)
        if (const PartType *type = typeOf(build, part); type && type->kind == PartKind::motor) {
            if (any && type->maxThrust_gf.value != entered) same = false;
            entered = type->maxThrust_gf.value;
            any = true;
        }
    app::putText(thrust_, any && same && entered ? tr("%1 gf").arg(*entered, 0, 'f', 0) : QString());
    thrust_->setPlaceholderText(any && !same ? tr("several") : tr("not known"));
    thrust_->setEnabled(any);
}

void TargetPage::refreshGrams() {
    const auto &derived = document_.analysis().derived;
    const auto index = std::size_t(document_.loadCase());
    std::vector<Bar> bars;
    if (index < derived.balance.size()) {
        const Breakdown breakdown =
            breakdownOf(document_.build(), derived.massRows, index, derived.balance[index], derived.thrustCentre_mm);
        constexpr std::size_t kMostBars = 7;
        std::vector<GroupMass> groups;
        for (const auto &group : breakdown.groups)
            if (std::abs(group.mass_g) > 0.05) groups.push_back(group);
        GroupMass rest;
        QStringList restWords;
        for (std::size_t i = 0; i < groups.size(); ++i) {
            const GroupMass &group = groups[i];
            const QString grams = QString::number(group.mass_g, 'f', group.mass_g < 100 ? 1 : 0);
            if (groups.size() > kMostBars && i + 1 >= kMostBars) { // the light ones together
                rest.mass_g += group.mass_g;
                restWords << tr("%1 %2 g").arg(groupWord(group.group), grams);
                continue;
            }
            bars.push_back({groupWord(group.group),
                            grams,
                            group.mass_g,
                            {},
                            groupColor(group.group, theme_),
                            {},
                            tr("%1 ± %2 g in %3 things%4")
                                .arg(group.mass_g, 0, 'f', 1)
                                .arg(group.tolerance_g, 0, 'f', 1)
                                .arg(group.rows)
                                .arg(group.unknown ? tr("; %n without a weight", nullptr, group.unknown) : QString())});
        }
        if (!restWords.isEmpty())
            bars.push_back({tr("the rest"),
                            QString::number(rest.mass_g, 'f', rest.mass_g < 100 ? 1 : 0),
                            rest.mass_g,
                            {},
                            c().softChalk,
                            {},
                            restWords.join(QStringLiteral(", "))});
    }
    grams_->show(std::move(bars));
}

QString TargetPage::consequenceWords(const CaseStudy &study) const {
    if (study.slides.empty() || study.slides.front().part != slide_->part()) return {};
    const auto &comes = study.afterSlide.comes, &goes = study.afterSlide.goes;
    QString text;
    if (!comes.empty()) {
        text = tr("Then: %1").arg(app::say(wordFinding(document_.build(), comes.front()).headline));
        if (comes.size() > 1) text += tr(" and %n more", nullptr, int(comes.size()) - 1);
        text += QStringLiteral(". ");
    }
    if (!goes.empty()) text += tr("Mends %n other finding(s).", nullptr, int(goes.size()));
    return text;
}

QString TargetPage::spoiledWords(const std::vector<Spoiled> &spoiled) const {
    if (spoiled.empty()) return {};
    const auto worst = std::max_element(spoiled.begin(), spoiled.end(),
                                        [](const Spoiled &a, const Spoiled &b) { return a.after_mm < b.after_mm; });
    const auto &loadCase = document_.analysis().derived.loadCases[worst->loadCase];
    QString text = tr("; spoils %1 (%2 to %3 mm)")
                       .arg(QString::fromStdString(loadCase.name.empty() ? loadCase.id : loadCase.name),
                            one(worst->before_mm), one(worst->after_mm));
    if (spoiled.size() > 1) text += tr(" and %n more", nullptr, int(spoiled.size()) - 1);
    return text;
}

void TargetPage::refreshOthers() {
    if (!isVisible()) return;
    const CaseStudy *study = runner_.caseStudy(document_.loadCase());
    const Build &build = document_.build();
    doings_.clear();
    std::size_t used = 0;
    const auto row = [&](const QString &lead, const QString &text, const QString &act, std::function<void()> doing) {
        if (used >= rows_.size()) return;
        rows_[used]->show({lead, text, act, {}, false});
        doings_.push_back(std::move(doing));
        ++used;
    };
    const CaseBalance *balance = document_.balance();
    const bool home = balance && balance->offset_mm &&
                      balance->offset_mm->head<2>().norm() <= document_.analysis().derived.cgTolerance_mm;
    if (study && balance && balance->offset_mm && !document_.isPreviewing() && !runner_.isStale()) {
        const double now = balance->offset_mm->head<2>().norm();
        int moves = 0;
        const auto &derived = document_.analysis().derived;
        const auto here = std::size_t(document_.loadCase());
        const auto spoils = [&](const SlideSolution &s) {
            return spoiledWords(spoiledByMove(derived.massRows, derived.balance, s.part,
                                              s.travel_mm * s.direction.head<2>(), derived.cgTolerance_mm, here));
        };
        for (const auto &s : study->slides)
            if (s.part != slide_->part() && now - s.after_mm.norm() > 0.2 && moves < 2) {
                ++moves;
                row(tr("→ %1").arg(one(s.after_mm.norm())),
                    tr("slide %1 by %2 mm").arg(nameIn(build, s.part), one(s.travel_mm)) + spoils(s), tr("look"),
                    [this, id = s.part] { slide_->lookAt(id); });
            }
        for (const auto &s : study->others)
            if (now - s.after_mm.norm() > 0.2 && moves < 2) {
                ++moves;
                row(tr("→ %1").arg(one(s.after_mm.norm())),
                    tr("move %1 %2 mm %3")
                            .arg(nameIn(build, s.part), one(std::abs(s.travel_mm)),
                                 s.travel_mm > 0 ? tr("fore") : tr("aft")) +
                        spoils(s),
                    tr("look"), [this, id = s.part] { slide_->lookAt(id); });
            }
        const auto ballast = [&](const std::optional<Ballast> &b, const QString &what) {
            constexpr double kSilly = 0.1; // of the whole craft: then something has to move
            if (!b || !(b->mass_g > 0.05) || b->mass_g > kSilly * balance->mass.mass_g) return;
            const Vec3 axis = document_.analysis().derived.thrustCentre_mm;
            const auto place = [&] {
                QStringList words;
                if (std::abs(b->spot.at_mm.x()) >= 1)
                    words << tr("%1 mm %2")
                                 .arg(std::abs(b->spot.at_mm.x()), 0, 'f', 0)
                                 .arg(b->spot.at_mm.x() > 0 ? tr("fore") : tr("aft"));
                if (std::abs(b->spot.at_mm.y()) >= 1)
                    words << tr("%1 mm %2")
                                 .arg(std::abs(b->spot.at_mm.y()), 0, 'f', 0)
                                 .arg(b->spot.at_mm.y() > 0 ? tr("left") : tr("right"));
                return words.join(QStringLiteral(", "));
            };
            row(tr("%1 g").arg(b->mass_g, 0, 'f', b->mass_g < 100 ? 1 : 0),
                tr("ballast %1 on %2, %3").arg(place(), nameIn(build, b->spot.on), what) +
                    spoiledWords(
                        spoiledByBallast(derived.balance, b->mass_g, b->spot.at_mm, derived.cgTolerance_mm, here)),
                tr("add"), [this, b = *b, axis] {
                    double height = 0; // stuck onto what carries it
                    for (const auto &plate : document_.build().frame->plates)
                        if (plate.id == b.spot.on) height = plate.z_mm + plate.thickness_mm;
                    for (const auto &arm : document_.build().frame->arms)
                        if (arm.id == b.spot.on) height = arm.root_mm.z();
                    document_.edit(tr("Add ballast"),
                                   addBallast(document_.build(),
                                              Vec3(b.spot.at_mm.x() + axis.x(), b.spot.at_mm.y() + axis.y(), height),
                                              std::ceil(b.mass_g * 10) / 10));
                });
        };
        if (!home) ballast(study->toRing, tr("into the ring"));
        constexpr double kWorth_mm = 1; // nearer than this nobody hangs weights on a craft
        if (now > kWorth_mm) ballast(study->toCentre, tr("to the centre"));
        if (!balance->loadCase.battery.empty())
            row(tr("packs"), tr("try other packs in its place"), tr("open"), [this] { emit packsWanted(); });
    }
    for (std::size_t i = used; i < rows_.size(); ++i) rows_[i]->hide();
    slide_->setConsequence(study && !runner_.isStale() ? consequenceWords(*study) : QString());
    otherNote_->setVisible(used == 0);
    otherNote_->setText(!balance || !balance->offset_mm ? tr("Nothing to mend yet.")
                        : balance->loadCase.folded      ? tr("Folded: it is carried, not flown.")
                        : runner_.isStale() || !study   ? tr("Looking for other ways...")
                                                        : tr("Nothing else would help."));
}

void TargetPage::applyThrust() {
    if (!thrust_->isModified()) return;
    thrust_->setModified(false);
    const QString typed = thrust_->text().trimmed();
    const auto value = app::typedNumber(typed, Measure::thrust);
    if (!typed.isEmpty() && !(value && *value > 0))
        emit document_.refused(tr("\"%1\" is no thrust: gram-force, more than zero, is wanted.").arg(typed));
    else
        document_.edit(tr("Thrust of the motors"),
                       setMotorThrust(document_.build(), typed.isEmpty() ? std::nullopt : value));
    refreshThrusts();
}

} // namespace waxis::balance
