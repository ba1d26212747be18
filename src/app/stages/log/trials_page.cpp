#include "app/stages/log/trials_page.h"

#include "app/stages/log/session_column.h"
#include "app/widgets/card.h"
#include "app/widgets/port_strip.h"
#include "app/widgets/typed_number.h"
#include "core/base/by_id.h"
#include "core/edits/log_edits.h"
#include "core/instructions/log_words.h"
#include "core/measured/log_report.h"
#include "core/simulated/simulated_seat.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QScrollArea>
#include <QSpinBox>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace waxis::logbench {

namespace {

constexpr int kRest_ms = 100;
enum WayColumn { kName, kStands, kUnder, kLead, kOthers, kSupply, kStart, kTries, kMedian, kWayColumns };
enum TryColumn { kWhen, kValue, kTryState, kNose, kNote, kTryColumns };

QString standsIn(const Build &build, const Trial &trial, const TrialSetup &setup) {
    if (!setup.stood) return TrialsPage::tr("not said");
    const Pose &pose = setup.stood->X_FramePart;
    const auto isThere = [&](const Pose &other) {
        return (other.position_mm - pose.position_mm).norm() < 0.5 &&
               other.rotation.angularDistance(pose.rotation) < 0.01;
    };
    if (const Part *part = findPart(build, trial.part); part && isThere(framePose(build, *part)))
        return TrialsPage::tr("where it is");
    for (const auto &place : build.trials)
        if (place.part == trial.part && isThere(place.X_FramePart)) return QString::fromStdString(place.name);
    return TrialsPage::tr("%1, %2, %3 mm")
        .arg(pose.position_mm.x(), 0, 'f', 0)
        .arg(pose.position_mm.y(), 0, 'f', 0)
        .arg(pose.position_mm.z(), 0, 'f', 0);
}

} // namespace

TrialsPage::TrialsPage(app::Document &document, app::Instruments &instruments, const theme::Theme &theme,
                       QWidget *parent)
    : QWidget(parent), document_(document), instruments_(instruments), theme_(theme),
      sky_work_(
          kRest_ms,
          [this]() -> app::Background<Proof>::Work {
              const Trial *now = trial();
              const TrialSetup *setup = now ? byId(now->setups, setup_) : nullptr;
              const Part *part = now ? findPart(document_.build(), now->part) : nullptr;
              if (!setup || !part) return {};
              std::vector<Try> tries;
              for (const auto &one : now->tries)
                  if (one.setup == setup_ && !one.setAside && !one.heard.empty()) tries.push_back(one);
              const Pose pose = setup->stood ? setup->stood->X_FramePart : framePose(document_.build(), *part);
              const double mask = document_.analysis().practice[Limit::skyMask];
              return [build = document_.build(), id = part->id, pose, tries, mask,
                      chosen = setup_](const std::atomic<bool> &) {
                  Proof proof;
                  proof.setup = chosen;
                  const auto seat = simulatedSeatAt(build, id, pose, 0);
                  if (!seat) return proof;
                  std::vector<const Try *> list;
                  for (const auto &one : tries) list.push_back(&one);
                  proof.view = seat->view;
                  proof.proof = skyProof(seat->view, {}, list, mask);
                  return proof;
              };
          },
          [this](const Proof &proof) { tellProof(proof); }) {
    runner_ = new TryRunner(document, instruments, this);
    verdict_ = new QLabel;
    verdict_->setObjectName("trial-verdict");
    verdict_->setWordWrap(true);
    verdict_->setFont(theme_.text(13));
    verdict_->setForegroundRole(QPalette::BrightText);
    dots_ = new TrialDots(theme_);
    ways_ = new theme::MatTable(theme_, {tr("way"), tr("stands"), tr("under it"), tr("lead"), tr("other units"),
                                         tr("supply"), tr("start"), tr("tries"), tr("median")});
    ways_->setObjectName("trial-ways");
    ways_->setAccessibleName(tr("Ways that the trial compares"));
    ways_->setEmptyText(tr("No ways yet: add where it stands now, and each place it is to be tried at."));
    tries_ = new theme::MatTable(theme_, {tr("when"), tr("value"), tr("state"), tr("nose"), tr("note")});
    tries_->setObjectName("trial-tries");
    tries_->setAccessibleName(tr("Tries of the chosen way"));
    tries_->setEmptyText(tr("No tries of this way yet."));
    for (theme::MatTable *table : {ways_, tries_}) {
        table->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed);
        for (int i = 0; i < table->columnCount(); ++i)
            table->horizontalHeaderItem(i)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    }
    ways_->horizontalHeader()->setSectionResizeMode(kName, QHeaderView::Stretch);
    constexpr std::array<int, kWayColumns> kWidths{0, 92, 62, 78, 80, 60, 52, 38, 54};
    for (int i = 1; i < kWayColumns; ++i) ways_->horizontalHeader()->resizeSection(i, kWidths[std::size_t(i)]);
    tries_->horizontalHeader()->setSectionResizeMode(kNote, QHeaderView::Stretch);
    tables_ = new QStackedWidget;
    tables_->addWidget(ways_);
    tables_->addWidget(tries_);
    constexpr int kTable_px = 98;
    tables_->setFixedHeight(kTable_px);

    auto *tools = new QHBoxLayout;
    const auto tool = [&](const char *name, const QString &text, const QString &tip, auto act) {
        auto *made = new QToolButton;
        made->setObjectName(name);
        made->setText(text);
        made->setToolTip(tip);
        connect(made, &QToolButton::clicked, this, act);
        tools->addWidget(made);
        return made;
    };
    add_ = tool("way-add", tr("Add way"), tr("Another way to compare"), [] {});
    add_->setPopupMode(QToolButton::InstantPopup);
    addMenu_ = new QMenu(this);
    add_->setMenu(addMenu_);
    connect(addMenu_, &QMenu::aboutToShow, this, &TrialsPage::fillAddMenu);
    removeWay_ = tool("way-remove", tr("Remove way"), tr("With all its tries"), [this] {
        const Trial *now = trial();
        if (!now) return;
        Trial next = *now;
        std::erase_if(next.setups, [&](const TrialSetup &setup) { return setup.id == setup_; });
        change(tr("Remove way"), next);
    });
    toTries_ = tool("way-tries", tr("Its tries"), tr("The tries of the chosen way"), [this] {
        tables_->setCurrentIndex(toTries_->isChecked() ? 1 : 0);
        fill();
    });
    toTries_->setCheckable(true);
    aside_ = tool("try-aside", tr("Set aside"), tr("Kept, and not counted; again to count it"), [this] {
        const Trial *now = trial();
        const int row = tries_->currentRow();
        if (!now || row < 0 || row >= int(tryIds_.size())) return;
        if (const Try *one = byId(now->tries, tryIds_[std::size_t(row)])) {
            Try next = *one;
            next.setAside = !next.setAside;
            document_.edit(tr("Set aside"), changeTry(document_.build(), now->id, next));
        }
    });
    removeTry_ = tool("try-remove", tr("Remove try"), tr("Takes the try out of the log"), [this] {
        const Trial *now = trial();
        const int row = tries_->currentRow();
        if (now && row >= 0 && row < int(tryIds_.size()))
            document_.edit(tr("Remove try"), removeTry(document_.build(), now->id, tryIds_[std::size_t(row)]));
    });
    tools->addStretch(1);

    auto *skyCard = new theme::Card(theme_, tr("Sky predicted, and heard"));
    sky_ = new HeardSky(theme_);
    proofText_ = skyCard->addNote();
    proofText_->setObjectName("sky-proof");
    auto *skyLine = new QHBoxLayout;
    skyLine->addWidget(sky_, 1);
    skyLine->addWidget(proofText_, 1);
    skyCard->body().addLayout(skyLine, 1);
    card_ = new TryCard(document_, instruments_, *runner_, theme_);
    auto *bottom = new QHBoxLayout;
    bottom->addWidget(skyCard, 1);
    bottom->addWidget(card_, 1);

    // A low window scrolls rather than cut what was tried.
    auto *scroll = new QScrollArea;
    scroll->setObjectName("trial-scroll");
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFocusPolicy(Qt::NoFocus);
    auto *outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 0, 0, 0);
    outer->addWidget(scroll);
    auto *content = new QWidget;
    scroll->setWidget(content);
    constexpr int kBottom_px = 180;
    skyCard->setMinimumHeight(kBottom_px);
    auto *all = new QVBoxLayout(content);
    all->setContentsMargins(0, 0, 0, 0);
    all->addWidget(makeHead());
    all->addWidget(verdict_);
    all->addWidget(dots_);
    all->addWidget(tables_);
    all->addLayout(tools);
    all->addLayout(bottom, 1);

    connect(dots_, &TrialDots::chose, this, [this](const QString &setup) { chooseSetup(setup.toStdString()); });
    connect(ways_, &QTableWidget::currentCellChanged, this, [this](int row) {
        const Trial *now = trial();
        if (now && row >= 0 && row < int(now->setups.size())) chooseSetup(now->setups[std::size_t(row)].id);
    });
    connect(ways_, &QTableWidget::cellChanged, this, &TrialsPage::editedWay);
    connect(tries_, &QTableWidget::cellChanged, this, &TrialsPage::editedTry);
    connect(card_, &TryCard::said, this, &TrialsPage::said);
    connect(runner_, &TryRunner::kept, this, [this] {
        // The next of a fair plan.
        if (const Trial *now = trial()) chooseSetup(nextSetup(*now));
    });
    connect(&document_, &app::Document::changed, this, &TrialsPage::fill);
    connect(&document_, &app::Document::opened, this, [this] {
        setup_.clear();
        fill();
    });
}

QWidget *TrialsPage::makeHead() {
    auto *card = new theme::Card(theme_, {});
    trials_ = new QComboBox;
    trials_->setObjectName("trials");
    trials_->setAccessibleName(tr("Trial"));
    trials_->setEditable(true); // its question is typed over
    trials_->setInsertPolicy(QComboBox::NoInsert);
    trials_->setCompleter(nullptr);
    question_ = trials_->lineEdit();
    question_->setObjectName("trial-question");
    question_->setAccessibleName(tr("Question of the trial"));
    question_->setPlaceholderText(tr("Where does the GPS module find itself soonest?"));
    auto *fresh = new QToolButton;
    fresh->setObjectName("trial-new");
    fresh->setText(tr("New trial"));
    auto *remove = new QToolButton;
    remove->setObjectName("trial-remove");
    remove->setText(tr("Remove"));
    auto *first = new QHBoxLayout;
    first->addWidget(trials_, 1);
    first->addWidget(fresh);
    first->addWidget(remove);
    part_ = new QComboBox;
    part_->setObjectName("trial-part");
    part_->setAccessibleName(tr("Part whose place is asked about"));
    quantity_ = new QComboBox;
    quantity_->setObjectName("trial-quantity");
    quantity_->setAccessibleName(tr("What is measured"));
    for (int i = 0; i <= int(TrialQuantity::other); ++i) {
        const auto title = trialQuantityTitle(TrialQuantity(i));
        quantity_->addItem(QString::fromUtf8(title.data(), qsizetype(title.size())), i);
    }
    satellites_ = new QSpinBox;
    satellites_->setObjectName("trial-satellites");
    satellites_->setAccessibleName(tr("Satellites that are waited for"));
    satellites_->setRange(1, 60);
    satellites_->setSuffix(tr(" satellites"));
    longest_ = new QSpinBox;
    longest_->setObjectName("trial-longest");
    longest_->setAccessibleName(tr("How long a try lasts at most"));
    longest_->setRange(1, 1440);
    longest_->setSuffix(tr(" min at most"));
    auto *second = new QHBoxLayout;
    second->addWidget(part_, 2);
    second->addWidget(quantity_, 2);
    second->addWidget(satellites_);
    second->addWidget(longest_);
    card->body().addLayout(first);
    card->body().addLayout(second);
    connect(fresh, &QToolButton::clicked, this, &TrialsPage::begin);
    connect(remove, &QToolButton::clicked, this, [this] {
        if (const Trial *now = trial()) document_.edit(tr("Remove trial"), removeTrialOf(document_.build(), now->id));
    });
    connect(trials_, &QComboBox::activated, this, [this] {
        setup_.clear();
        fill();
    });
    connect(question_, &QLineEdit::editingFinished, this, &TrialsPage::saveHead);
    connect(part_, &QComboBox::activated, this, &TrialsPage::saveHead);
    connect(quantity_, &QComboBox::activated, this, &TrialsPage::saveHead);
    connect(satellites_, &QSpinBox::editingFinished, this, &TrialsPage::saveHead);
    connect(longest_, &QSpinBox::editingFinished, this, &TrialsPage::saveHead);
    return card;
}

void TrialsPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    fill();
}

const Trial *TrialsPage::trial() const {
    return byId(document_.build().log->trials, trials_->currentData().toString().toStdString());
}

void TrialsPage::setSession(const std::string &id) {
    session_ = id;
    if (const Trial *now = trial()) card_->setNext(now->id, setup_, session_);
}

void TrialsPage::choose(const std::string &id) {
    fill();
    const int at = trials_->findData(QString::fromStdString(id));
    if (at < 0) return;
    trials_->setCurrentIndex(at);
    setup_.clear();
    fill();
}

void TrialsPage::chooseSetup(const std::string &setup) {
    if (setup == setup_) return;
    setup_ = setup;
    fill();
}

void TrialsPage::change(const QString &name, const Trial &next) {
    document_.edit(name, changeTrialOf(document_.build(), next));
}

void TrialsPage::begin() {
    const Build &build = document_.build();
    Trial next;
    next.id = freshId(build, "trial");
    const QString part = app::receiverPart(document_);
    next.part = part.toStdString();
    if (part.isEmpty()) {
        next.question = tr("Which is better?").toStdString();
        next.quantity = TrialQuantity::other;
    } else {
        next.question = tr("Where does %1 find itself soonest?")
                            .arg(QString::fromStdString(displayName(build, next.part)))
                            .toStdString();
        TrialSetup here;
        here.name = tr("Where it is").toStdString();
        here.stood = StoodAt{framePose(build, *findPart(build, next.part))};
        next.setups.push_back(here);
        for (const auto &place : build.trials)
            if (place.part == next.part) {
                TrialSetup there;
                there.name = place.name;
                there.stood = StoodAt{place.X_FramePart};
                next.setups.push_back(there);
            }
    }
    const std::string id = next.id;
    if (document_.edit(tr("New trial"), addTrialOf(build, next))) choose(id);
    question_->setFocus();
    question_->selectAll();
}

void TrialsPage::saveHead() {
    const Trial *now = trial();
    if (!now) return;
    Trial next = *now;
    if (question_->isModified() && !question_->text().trimmed().isEmpty())
        next.question = question_->text().trimmed().toStdString();
    next.part = part_->currentData().toString().toStdString();
    next.quantity = TrialQuantity(quantity_->currentData().toInt());
    next.satellites = satellites_->value();
    next.longest_s = 60.0 * longest_->value();
    question_->setModified(false);
    if (!(next == *now)) change(tr("Change trial"), next);
}

void TrialsPage::fillAddMenu() {
    addMenu_->clear();
    const Trial *now = trial();
    if (!now) {
        addMenu_->addAction(tr("Make a trial first"))->setEnabled(false);
        return;
    }
    const Build &build = document_.build();
    if (const Part *part = findPart(build, now->part))
        addMenu_->addAction(tr("Where %1 stands now").arg(QString::fromStdString(displayName(build, now->part))), this,
                            [this, pose = framePose(build, *part)] { addWay(tr("Where it is"), pose); });
    for (const auto &place : build.trials)
        if (place.part == now->part)
            addMenu_->addAction(QString::fromStdString(place.name), this,
                                [this, place] { addWay(QString::fromStdString(place.name), place.X_FramePart); });
    addMenu_->addAction(tr("Another way"), this, [this] { addWay(tr("Another way"), std::nullopt); });
}

void TrialsPage::addWay(const QString &name, const std::optional<Pose> &pose) {
    const Trial *now = trial();
    if (!now) return;
    Trial next = *now;
    TrialSetup setup;
    QString own = name;
    const auto isTaken = [&] {
        return std::any_of(next.setups.begin(), next.setups.end(),
                           [&](const TrialSetup &other) { return other.name == own.toStdString(); });
    };
    for (int n = 2; isTaken(); ++n) own = tr("%1, %2").arg(name).arg(n);
    setup.name = own.toStdString();
    if (pose) setup.stood = StoodAt{*pose};
    next.setups.push_back(setup);
    change(tr("Add way"), next);
}

void TrialsPage::editedWay(int row, int column) {
    const Trial *now = trial();
    if (!now || row < 0 || row >= int(now->setups.size())) return;
    Trial next = *now;
    TrialSetup &setup = next.setups[std::size_t(row)];
    const std::string typed = ways_->item(row, column)->text().trimmed().toStdString();
    switch (column) {
    case kName: setup.name = typed; break;
    case kUnder: setup.under = typed; break;
    case kLead: {
        setup.lead = typed;
        setup.lead_mm = app::typedNumber(QString::fromStdString(typed).section(',', 0, 0), Measure::length);
        break;
    }
    case kOthers: setup.others = typed; break;
    case kSupply: setup.supply = typed; break;
    case kStart: setup.start = typed; break;
    default: return;
    }
    if (next == *now || !document_.edit(tr("Change way"), changeTrialOf(document_.build(), next))) fill();
}

void TrialsPage::editedTry(int row, int column) {
    const Trial *now = trial();
    if (!now || row < 0 || row >= int(tryIds_.size())) return;
    const Try *one = byId(now->tries, tryIds_[std::size_t(row)]);
    if (!one) return;
    Try next = *one;
    const QString typed = tries_->item(row, column)->text().trimmed();
    if (column == kNote) next.note = typed.toStdString();
    if (column == kNose) {
        next.nose_deg = app::typedNumber(typed, Measure::angle);
        if (!typed.isEmpty() && !next.nose_deg) emit said(app::notUnderstood(typed, Measure::angle), true);
    }
    if (column == kValue && one->watched_s <= 0) {
        const auto value = app::typedNumber(typed, unitOf(*now) == "s" ? Measure::seconds : Measure::number);
        if (value)
            next.value = value;
        else
            emit said(app::notUnderstood(typed, Measure::number), true);
    }
    if (next == *one || !document_.edit(tr("Change try"), changeTry(document_.build(), now->id, next))) fill();
}

void TrialsPage::fill() {
    if (!isVisible()) return;
    const Build &build = document_.build();
    const auto &trials = build.log->trials;
    {
        const QSignalBlocker quiet(trials_);
        const QString before = trials_->currentData().toString();
        trials_->clear();
        for (const auto &one : trials)
            trials_->addItem(QString::fromStdString(one.question), QString::fromStdString(one.id));
        trials_->setCurrentIndex(trials.empty() ? -1 : std::max(0, trials_->findData(before)));
    }
    const Trial *now = trial();
    for (QWidget *widget :
         {static_cast<QWidget *>(question_), static_cast<QWidget *>(part_), static_cast<QWidget *>(quantity_),
          static_cast<QWidget *>(satellites_), static_cast<QWidget *>(longest_), static_cast<QWidget *>(add_)})
        widget->setEnabled(now != nullptr);
    if (!now) {
        question_->clear();
        verdict_->setText(
            tr("A trial answers a question by trying: which place, which fastening, which lead. Make one, try "
               "each way at least four times, turn by turn, and read here what can be told."));
        dots_->clear();
        ways_->setRowCount(0);
        tries_->setRowCount(0);
        sky_->clear();
        proofText_->clear();
        card_->setNext({}, {}, session_);
        return;
    }
    if (!byId(now->setups, setup_)) setup_ = nextSetup(*now);
    const QSignalBlocker quietPart(part_), quietQuantity(quantity_), quietSatellites(satellites_),
        quietLongest(longest_);
    if (!question_->hasFocus() || !question_->isModified()) question_->setText(QString::fromStdString(now->question));
    part_->clear();
    part_->addItem(tr("no part's place"), QString());
    for (const auto &part : build.parts)
        part_->addItem(QString::fromStdString(displayName(build, part.id)), QString::fromStdString(part.id));
    part_->setCurrentIndex(std::max(0, part_->findData(QString::fromStdString(now->part))));
    quantity_->setCurrentIndex(int(now->quantity));
    satellites_->setVisible(now->quantity == TrialQuantity::secondsToSatellites);
    satellites_->setValue(now->satellites);
    longest_->setValue(std::max(1, int(std::lround(now->longest_s / 60))));
    // Told first, then what is not told yet; of one way against all others.
    const LogReport &log = *document_.analysis().derived.log;
    const TrialReport *report = nullptr;
    for (const auto &one : log.trials)
        if (one.trial == now->id) report = &one;
    const TrialReport own =
        report ? *report : trialReport(*now, document_.analysis().practice[Limit::trialChance] / 100);
    QStringList told, open;
    for (const auto &pair : own.pairs)
        (pair.telling == Telling::told ? told : open) << QString::fromStdString(wordComparison(*now, pair).text());
    constexpr int kSentences = 2;
    const QStringList said = (told + open).mid(0, kSentences);
    verdict_->setText(said.isEmpty()
                          ? tr("%1. No tries to compare yet.").arg(QString::fromStdString(trialMeasure(*now).text()))
                          : said.join(QStringLiteral(" ")));
    verdict_->setToolTip((told + open).join(QStringLiteral("\n")));
    dots_->show(*now, own, setup_);
    fillWays(*now);
    fillTries(*now);
    const bool showsTries = tables_->currentIndex() == 1;
    aside_->setVisible(showsTries);
    removeTry_->setVisible(showsTries);
    add_->setVisible(!showsTries);
    removeWay_->setVisible(!showsTries);
    removeWay_->setEnabled(byId(now->setups, setup_) != nullptr);
    card_->setNext(now->id, setup_, session_);
    sky_work_.ask();
}

void TrialsPage::fillWays(const Trial &now) {
    const Build &build = document_.build();
    const TrialReport own = trialReport(now, document_.analysis().practice[Limit::trialChance] / 100);
    ways_->setRowCount(int(now.setups.size()));
    const QSignalBlocker quietRows(ways_);
    const theme::Refill filling(*ways_);
    for (int row = 0; row < ways_->rowCount(); ++row) {
        const TrialSetup &setup = now.setups[std::size_t(row)];
        const SetupResult &result = own.setups[std::size_t(row)];
        const std::array<QString, kWayColumns> shown{
            QString::fromStdString(setup.name),
            standsIn(build, now, setup),
            QString::fromStdString(setup.under),
            QString::fromStdString(setup.lead),
            QString::fromStdString(setup.others),
            QString::fromStdString(setup.supply),
            QString::fromStdString(setup.start),
            QString::number(result.values.size()),
            result.median ? QString::fromStdString(trialValue(now, {*result.median, true})) : QStringLiteral("–")};
        for (int column = 0; column < kWayColumns; ++column) {
            QTableWidgetItem *cell = ways_->item(row, column);
            if (!cell) ways_->setItem(row, column, cell = new QTableWidgetItem);
            cell->setText(shown[std::size_t(column)]);
            cell->setToolTip(cell->text());
            cell->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
            const bool editable = column != kStands && column != kTries && column != kMedian;
            cell->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable |
                           (editable ? Qt::ItemIsEditable : Qt::NoItemFlags));
            cell->setForeground(theme_.colors().chalk);
        }
        if (setup.id == setup_) ways_->setCurrentCell(row, std::max(0, ways_->currentColumn()));
    }
}

void TrialsPage::fillTries(const Trial &now) {
    tryIds_.clear();
    std::vector<const Try *> list;
    for (const auto &one : now.tries)
        if (one.setup == setup_) {
            list.push_back(&one);
            tryIds_.push_back(one.id);
        }
    const int current = tries_->currentRow();
    tries_->setRowCount(int(list.size()));
    const QSignalBlocker quietRows(tries_);
    const theme::Refill filling(*tries_);
    for (int row = 0; row < tries_->rowCount(); ++row) {
        const Try &one = *list[std::size_t(row)];
        const auto value = tryValue(now, one);
        const std::array<QString, kTryColumns> shown{
            one.at.empty() ? QString() : dayOf(one.at) + QString::fromStdString(one.at).mid(10, 6).replace('T', ' '),
            value ? QString::fromStdString(trialValue(now, *value)) : QStringLiteral("–"),
            one.setAside ? tr("set aside") : QString::fromStdString(one.instrument),
            one.nose_deg ? tr("%1°").arg(*one.nose_deg) : QString(), QString::fromStdString(one.note)};
        for (int column = 0; column < kTryColumns; ++column) {
            QTableWidgetItem *cell = tries_->item(row, column);
            if (!cell) tries_->setItem(row, column, cell = new QTableWidgetItem);
            cell->setText(shown[std::size_t(column)]);
            cell->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
            const bool editable = column == kNose || column == kNote || (column == kValue && one.watched_s <= 0);
            cell->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable |
                           (editable ? Qt::ItemIsEditable : Qt::NoItemFlags));
            cell->setForeground(one.setAside ? theme_.colors().softChalk : theme_.colors().chalk);
        }
    }
    if (current >= 0 && current < tries_->rowCount()) tries_->setCurrentCell(current, kWhen);
}

void TrialsPage::tellProof(const Proof &proof) {
    if (proof.setup != setup_) return;
    sky_->show(proof.view, proof.proof);
    const SkyProof &told = proof.proof;
    QStringList lines;
    lines << tr("hidden by the model: %1 %").arg(100 * proof.view.hidden, 0, 'f', 0);
    if (told.satellites.empty()) {
        lines << tr("Nothing heard with this way yet: the dots of its satellites come with its tries.");
    } else {
        lines << tr("open: %1, median %2 dB-Hz").arg(told.open).arg(told.openMedian_dBHz, 0, 'f', 0);
        lines << tr("behind the craft: %1, median %2 dB-Hz").arg(told.hidden).arg(told.hiddenMedian_dBHz, 0, 'f', 0);
        if (told.loss_dB)
            lines << tr("at like elevation %1 dB less (%2 to %3), predicted %4")
                         .arg(told.loss_dB->shift, 0, 'f', 0)
                         .arg(told.loss_dB->low, 0, 'f', 0)
                         .arg(told.loss_dB->high, 0, 'f', 0)
                         .arg(told.predicted_dB, 0, 'f', 0);
        else
            lines << tr("Three of each kind are the least to tell what hiding costs.");
    }
    proofText_->setText(lines.join(QStringLiteral("\n")));
}

} // namespace waxis::logbench
