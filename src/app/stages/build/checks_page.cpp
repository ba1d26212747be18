#include "app/stages/build/checks_page.h"

#include "core/edits/assembly_edits.h"
#include "core/instructions/check_words.h"
#include "core/instructions/step_words.h"

#include <QDateTime>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::assembly {

namespace {

QString words(const Sentence &sentence) { return QString::fromStdString(sentence.text()); }

QString gateWord(Gate gate) {
    switch (gate) {
    case Gate::train: return ChecksPage::tr("power train, first power");
    case Gate::rails: return ChecksPage::tr("regulators alone, before their loads");
    case Gate::end: return ChecksPage::tr("all aboard, no propellers");
    case Gate::flight: return ChecksPage::tr("before it flies");
    case Gate::none: return {};
    }
    return {};
}

QString verdictWord(CheckVerdict verdict) {
    switch (verdict) {
    case CheckVerdict::open: return {};
    case CheckVerdict::good: return ChecksPage::tr("as expected");
    case CheckVerdict::bad: return ChecksPage::tr("not as expected");
    case CheckVerdict::unread: return ChecksPage::tr("no number");
    }
    return {};
}

enum Column { kCheck, kExpected, kFound, kVerdict, kWhen, kColumns };

/// What is looked at for a check, as a button; empty: nothing more than what it says.
QString helpWith(CheckKind kind) {
    switch (kind) {
    case CheckKind::polarity: return ChecksPage::tr("Pins…");
    case CheckKind::settings: return ChecksPage::tr("Settings…");
    case CheckKind::weight:
    case CheckKind::balance: return ChecksPage::tr("Weighings…");
    default: return {};
    }
}

} // namespace

ChecksPage::ChecksPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    table_ = new theme::MatTable(theme, {tr("check"), tr("expected"), tr("found"), tr("verdict"), tr("when")});
    table_->setObjectName("build-checks");
    table_->setAccessibleName(tr("Checks with what is expected and what was found"));
    table_->setEmptyText(tr("Nothing is to be checked yet."));
    table_->setTips({tr("In the order in which they are done"), tr("By the model of this build"),
                     tr("Type the number, or yes or no; empty it to take it back"), tr("By what is expected"),
                     tr("When it was entered")});
    table_->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed |
                            QAbstractItemView::AnyKeyPressed);
    table_->horizontalHeader()->setSectionResizeMode(kCheck, QHeaderView::Stretch);
    constexpr std::array<int, kColumns> kWidths{0, 130, 100, 120, 100};
    for (int i = 1; i < kColumns; ++i) table_->horizontalHeader()->resizeSection(i, kWidths[std::size_t(i)]);
    for (int i = 0; i < kColumns; ++i)
        table_->horizontalHeaderItem(i)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    auto label = [&](const char *name, bool strong) {
        auto *made = new QLabel;
        made->setObjectName(name);
        made->setWordWrap(true);
        made->setFont(theme_.text(12, strong));
        return made;
    };
    summary_ = label("checks-summary", false);
    how_ = label("check-how", false);
    caution_ = label("check-caution", true);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(10, 8, 10, 8);
    all->addWidget(summary_);
    all->addWidget(table_, 1);
    look_ = new QToolButton;
    look_->setObjectName("check-look");
    auto *line = new QHBoxLayout;
    line->addWidget(how_, 1);
    line->addWidget(look_, 0, Qt::AlignTop);
    all->addLayout(line);
    all->addWidget(caution_);
    connect(look_, &QToolButton::clicked, this, &ChecksPage::look);
    connect(table_, &QTableWidget::currentCellChanged, this, [this] { tell(); });
    connect(table_, &QTableWidget::cellChanged, this, [this](int row, int column) {
        if (column == kFound) entered(row);
    });
    connect(&document_, &app::Document::changed, this, &ChecksPage::fill);
    connect(&document_, &app::Document::loadCaseChanged, this, &ChecksPage::fill);
    connect(&theme_, &theme::Theme::changed, this, &ChecksPage::fill);
}

void ChecksPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    fill();
}

void ChecksPage::fill() {
    if (!isVisible()) return;
    const Build &build = document_.build();
    const auto &analysis = document_.analysis();
    checks_.clear();
    if (std::size_t(document_.loadCase()) < analysis.derived.loadCases->size() && !build.parts.empty())
        checks_ = checksOf(build, analysis.practice, analysis.derived, document_.loadCase());
    const int current = table_->currentRow();
    int good = 0, bad = 0;
    {
        table_->setRowCount(int(checks_.size()));
        const theme::Refill filling(*table_);
        for (int row = 0; row < table_->rowCount(); ++row) {
            const Check &check = checks_[std::size_t(row)];
            const CheckText text = wordCheck(build, check);
            const CheckResult *result = resultOf(build, check);
            const CheckVerdict verdict = verdictOf(check, result);
            good += verdict == CheckVerdict::good;
            bad += verdict == CheckVerdict::bad;
            QString found;
            if (result && !result->found.empty())
                found = QString::fromStdString(result->found);
            else if (result && result->good)
                found = *result->good ? tr("yes") : tr("no");
            const std::array<QString, kColumns> shown{
                words(text.title), words(text.expected), found, verdictWord(verdict),
                result ? QDateTime::fromString(QString::fromStdString(result->at), Qt::ISODate)
                             .toString(QStringLiteral("d MMM hh:mm"))
                       : QString()};
            for (int column = 0; column < kColumns; ++column) {
                QTableWidgetItem *cell = table_->item(row, column);
                if (!cell) table_->setItem(row, column, cell = new QTableWidgetItem);
                cell->setText(shown[std::size_t(column)]);
                cell->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable |
                               (column == kFound ? Qt::ItemIsEditable : Qt::NoItemFlags));
                cell->setToolTip(column == kCheck ? words(text.how) : gateWord(check.gate));
                const bool off = verdict == CheckVerdict::bad || verdict == CheckVerdict::unread;
                cell->setForeground(off                   ? theme::severityOnMat(Severity::stop)
                                    : column == kExpected ? theme_.colors().softChalk
                                                          : theme_.colors().chalk);
            }
        }
    }
    if (current >= 0 && current < table_->rowCount()) table_->setCurrentCell(current, kFound);
    summary_->setText(bad > 0 ? tr("%1 of %2 checks as expected, %3 not").arg(good).arg(checks_.size()).arg(bad)
                              : tr("%1 of %2 checks as expected").arg(good).arg(checks_.size()));
    tell();
}

void ChecksPage::tell() {
    const int row = table_->currentRow();
    const bool there = row >= 0 && row < int(checks_.size());
    how_->setVisible(there);
    look_->hide();
    caution_->setVisible(there);
    if (!there) return;
    const Check &check = checks_[std::size_t(row)];
    how_->setText(tr("%1: %2").arg(gateWord(check.gate), words(wordCheck(document_.build(), check).how)));
    const QString help = helpWith(check.kind);
    look_->setText(help);
    look_->setVisible(!help.isEmpty());
    Step step;
    step.kind = OperationKind::check;
    step.gate = check.gate;
    caution_->setText(words(wordCaution(document_.build(), step)));
}

void ChecksPage::look() {
    const int row = table_->currentRow();
    if (row < 0 || row >= int(checks_.size())) return;
    const Check &check = checks_[std::size_t(row)];
    if (check.kind == CheckKind::settings) emit settingsWanted();
    if (check.kind == CheckKind::weight || check.kind == CheckKind::balance)
        emit weighingsWanted(QString::fromStdString(check.loadCase));
    if (check.kind != CheckKind::polarity) return;
    for (const auto &id : check.subjects) // capacitors among them have no pins to show
        if (findWire(document_.build(), id)) return emit pinsWanted(QString::fromStdString(id));
}

void ChecksPage::entered(int row) {
    if (row < 0 || row >= int(checks_.size())) return;
    const Check &check = checks_[std::size_t(row)];
    const QString typed = table_->item(row, kFound)->text().trimmed();
    const bool isNumber = check.low || check.high;
    std::optional<bool> good;
    std::string found = typed.toStdString();
    const QString yes = tr("yes"), no = tr("no");
    if (!typed.isEmpty() && !isNumber) {
        if (yes.startsWith(typed, Qt::CaseInsensitive)) good = true;
        if (no.startsWith(typed, Qt::CaseInsensitive)) good = false;
        if (good) found.clear();
    }
    const std::string at = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    if (!document_.edit(tr("Enter a check"), recordCheck(document_.build(), check.id, found, good, at))) fill();
}

void ChecksPage::showGate(Gate gate) {
    fill();
    int row = -1;
    for (int r = 0; r < int(checks_.size()); ++r) {
        const Check &check = checks_[std::size_t(r)];
        if (check.gate != gate) continue;
        if (row < 0) row = r;
        if (verdictOf(check, resultOf(document_.build(), check)) == CheckVerdict::open) {
            row = r;
            break;
        }
    }
    if (row >= 0) table_->setCurrentCell(row, kFound);
    table_->setFocus();
}

} // namespace waxis::assembly
