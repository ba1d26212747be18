#include "app/stages/stack/whatif_card.h"

#include "core/build/chain.h"
#include "core/edits/stack_change.h"
#include "core/kit/bill.h"
#include "core/stack/report.h"
#include "io/csv/csv.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>
#include <cmath>

namespace waxis::stackbench {

WhatIfCard::WhatIfCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent)
    : theme::Card(theme, tr("What if"), parent), focus_(focus), theme_(theme),
      working_(
          180, [this] { return prepare(); },
          [this](std::vector<StackSuggestion> suggestions) { take(std::move(suggestions)); }) {
    constexpr std::size_t kRows = 6;
    for (std::size_t i = 0; i < kRows; ++i) {
        auto *row = new theme::ChoiceRow(theme);
        row->setObjectName(QStringLiteral("what-if-%1").arg(i));
        row->setLeadWidth(46);
        body().addWidget(row);
        rows_.push_back(row);
        connect(row, &QAbstractButton::clicked, this, [this, i] { apply(i); });
    }
    note_ = addNote();
    connect(&focus_, &StackFocus::changed, this, &WhatIfCard::wait);
    wait();
}

void WhatIfCard::wait() {
    const StackReport *report = focus_.report();
    const bool amiss = report && shortfall_mm(*report, focus_.document().analysis().practice) > 1e-6;
    if (!amiss) {
        setVisible(false);
        working_.cancel();
        return;
    }
    working_.ask();
}

app::Background<std::vector<StackSuggestion>>::Work WhatIfCard::prepare() {
    const Stack *stack = focus_.stack();
    if (!stack || focus_.document().isPreviewing()) return {};
    asked_ = focus_.document().build();
    askedStack_ = stack->id;
    return [build = asked_, id = stack->id, most = rows_.size(),
            practice = focus_.document().analysis().practice](const std::atomic<bool> &) {
        const Stack *asked = findStack(build, id);
        return asked ? suggestFor(build, *asked, practice, most) : std::vector<StackSuggestion>{};
    };
}

void WhatIfCard::take(std::vector<StackSuggestion> suggestions) {
    const Build &build = focus_.document().build();
    const StackReport *report = focus_.report();
    if (!(asked_ == build) || !report || report->stack != askedStack_) { // of something that is not there any more
        wait();
        return;
    }
    suggestions_ = std::move(suggestions);
    setVisible(!suggestions_.empty());
    bool anySolves = false;
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        if (i >= suggestions_.size()) {
            rows_[i]->hide();
            continue;
        }
        const StackSuggestion &s = suggestions_[i];
        anySolves |= s.solves;
        theme::ChoiceRow::Look look;
        const QString grams = number(std::abs(s.mass_g));
        look.lead = (grams == number(0) ? QString()
                     : s.mass_g > 0     ? QStringLiteral("+")
                                        : QStringLiteral("−")) +
                    grams + "g";
        look.text = QString::fromStdString(suggestionInWords(build, s));
        if (std::isfinite(s.left_mm))
            look.text += s.left_mm < 0 ? tr(": still %1 mm too high").arg(number(-s.left_mm))
                                       : tr(": %1 mm left").arg(number(s.left_mm));
        look.act = tr("try");
        if (!s.solves) look.mark = Severity::watch;
        rows_[i]->show(look);
    }
    note_->setText(anySolves ? tr("Cheapest first; Ctrl+Z takes it back. A diamond: better, not enough.")
                             : tr("None of these is enough alone."));
}

void WhatIfCard::apply(std::size_t index) {
    if (index >= suggestions_.size() || !(asked_ == focus_.document().build())) return;
    Build next = focus_.document().build();
    const QString words = QString::fromStdString(suggestionInWords(next, suggestions_[index]));
    for (const auto &change : suggestions_[index].changes) {
        auto result = applyChange(next, change);
        if (!result) {
            focus_.document().edit(words, result); // says why
            return;
        }
        next = std::move(*result);
    }
    focus_.edit(words, EditResult(next));
}

HardwareCard::HardwareCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent)
    : theme::Card(theme, tr("Hardware of the whole build"), parent), focus_(focus) {
    rows_ = new QLabel;
    rows_->setFont(theme.text(11));
    rows_->setWordWrap(true);
    rows_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    body().addWidget(rows_);
    sums_ = addNote();
    auto *line = new QHBoxLayout;
    auto *copy = new QToolButton;
    copy->setText(tr("Copy as CSV"));
    copy->setObjectName("copy-hardware");
    line->addWidget(copy);
    line->addStretch(1);
    body().addLayout(line);
    connect(copy, &QToolButton::clicked, this, [this] {
        std::vector<CsvRow> table;
        for (const auto &row : hardwareBill(focus_.document().build(), focus_.document().analysis().practice).rows)
            table.push_back({row.item, row.name, row.material, std::to_string(row.pieces),
                             row.known ? number(row.piece_g, 3).toStdString() : "",
                             row.known ? number(row.piece_g * row.pieces, 3).toStdString() : ""});
        QApplication::clipboard()->setText(
            QString::fromStdString(writeCsv({"item", "name", "material", "pieces", "piece_g", "mass_g"}, table)));
    });
    connect(&focus_, &StackFocus::changed, this, &HardwareCard::refresh);
    refresh();
}

void HardwareCard::refresh() {
    if (focus_.document().isPreviewing()) return;
    const HardwareBill bill = hardwareBill(focus_.document().build(), focus_.document().analysis().practice);
    setVisible(!bill.rows.empty());
    QString rows = QStringLiteral("<table cellspacing='0' cellpadding='1' width='100%'>");
    for (const auto &row : bill.rows)
        rows += QStringLiteral("<tr><td align='right'>%1&nbsp;</td><td>%2</td><td align='right'>%3</td></tr>")
                    .arg(row.pieces)
                    .arg(QString::fromStdString(row.name).toHtmlEscaped(),
                         row.known ? number(row.piece_g * row.pieces) : QStringLiteral("?"));
    rows_->setText(rows + "</table>");
    QStringList sums;
    for (const auto &[material, grams] : bill.byMaterial_g)
        sums << tr("%1 %2 g").arg(QString::fromStdString(material), number(grams));
    sums_->setText(tr("%n pieces, %1 g: ", nullptr, bill.pieces).arg(number(bill.total_g)) + sums.join(", "));
}

} // namespace waxis::stackbench
