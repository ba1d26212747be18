#include "app/stages/balance/case_table.h"

#include "app/widgets/texts.h"
#include "core/balance/case_balance.h"
#include "core/remedies/weigh_advice.h"
#include "core/rules/wording.h"

#include <QHeaderView>
#include <cmath>

namespace waxis::balance {

CaseTable::CaseTable(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : MatTable(theme,
               {tr("load case"), tr("all-up g"), tr("fore–aft mm"), tr("left–right"), tr("height"), tr("thrust"),
                tr("inside ring"), tr("weigh next")},
               parent),
      document_(document) {
    setObjectName("case-table");
    setAccessibleName(tr("Load cases"));
    setTips({tr("A click chooses the case"), tr("Sum of everything aboard, plus or minus two standard deviations"),
             tr("Centre of gravity from the thrust centre"), tr("Centre of gravity from the thrust centre"),
             tr("Centre of gravity over the mean propeller plane"), tr("Full thrust over weight"),
             tr("Chance that the true centre of gravity lies within the tolerance ring"),
             tr("The weight whose doubt moves the balance most")});
    horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int i = 1; i < columnCount(); ++i) horizontalHeader()->setSectionResizeMode(i, QHeaderView::ResizeToContents);
    connect(this, &QTableWidget::cellClicked, this, [this](int row, int) { document_.setLoadCase(row); });
    connect(this, &QTableWidget::currentCellChanged, this, [this](int row, int, int, int) {
        if (hasFocus() && row >= 0) document_.setLoadCase(row);
    });
    connect(&document_, &app::Document::changed, this, &CaseTable::refresh);
    connect(&document_, &app::Document::loadCaseChanged, this, &CaseTable::refresh);
    connect(&theme, &theme::Theme::changed, this, &CaseTable::refresh);
    refresh();
}

void CaseTable::showEvent(QShowEvent *event) {
    MatTable::showEvent(event);
    refresh();
}

void CaseTable::refresh() {
    if (!isVisible()) return;
    // Rows that go take the current cell along: choosing a case at that moment would come back here in the middle.
    const QSignalBlocker untouched(this);
    const auto &derived = document_.analysis().derived;
    const auto &c = MatTable::theme().colors();
    setRowCount(int(derived.balance.size()));
    const theme::Refill filling(*this);
    const auto side = [](double value, const QString &high, const QString &low) {
        const QString number = QString::fromStdString(oneDecimal(std::abs(value)));
        return number == "0.0" ? number : number + QStringLiteral(" ") + (value > 0 ? high : low);
    };
    for (int row = 0; row < rowCount(); ++row) {
        const CaseBalance &b = derived.balance[std::size_t(row)];
        const bool flies = !b.loadCase.folded && b.offset_mm;
        const bool chosen = row == document_.loadCase();
        const QString none = QStringLiteral("–");
        QString weigh = none;
        if (flies) {
            const WeighAdvice advice = weighAdvice(derived.massRows, derived.balance, std::size_t(row));
            if (!advice.next.empty() && advice.next.front().share >= 0.005)
                weigh = QString::fromStdString(displayName(document_.build(), advice.next.front().id));
        }
        const QStringList texts{QString::fromStdString(b.loadCase.name),
                                tr("%1 ± %2")
                                    .arg(b.mass.mass_g, 0, 'f', b.mass.mass_g < 1000 ? 1 : 0)
                                    .arg(b.tolerance_g, 0, 'f', b.mass.mass_g < 1000 ? 1 : 0),
                                b.offset_mm ? side(b.offset_mm->x(), tr("fore"), tr("aft")) : none,
                                b.offset_mm ? side(b.offset_mm->y(), tr("left"), tr("right")) : none,
                                b.offset_mm ? side(b.offset_mm->z(), tr("up"), tr("down")) : none,
                                flies && b.thrustToWeight ? QString::number(*b.thrustToWeight, 'f', 1) : none,
                                flies && b.insideChance ? tr("%1 %").arg(100 * *b.insideChance, 0, 'f', 0) : none,
                                weigh};
        for (int col = 0; col < texts.size(); ++col) {
            QTableWidgetItem *cell = item(row, col);
            if (!cell) setItem(row, col, cell = new QTableWidgetItem);
            cell->setText(texts[col]);
            cell->setToolTip(texts[col]);
            const bool words = col == 0 || col == 7;
            cell->setFont(words ? MatTable::theme().text(12, chosen && col == 0) : MatTable::theme().numbers(12));
            cell->setTextAlignment(Qt::AlignVCenter | (words ? Qt::AlignLeft : Qt::AlignRight));
            const bool outside = flies && ((col == 2 && std::abs(b.offset_mm->x()) > derived.cgTolerance_mm) ||
                                           (col == 3 && std::abs(b.offset_mm->y()) > derived.cgTolerance_mm) ||
                                           (col == 6 && b.insideChance && *b.insideChance < 0.5));
            cell->setForeground(outside ? theme::severityOnMat(Severity::watch) : chosen ? c.chalk : c.softChalk);
        }
    }
    horizontalHeaderItem(7)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    setFixedHeight(horizontalHeader()->sizeHint().height() + 22 * std::clamp(rowCount(), 2, 6) + 4);
    if (currentRow() != document_.loadCase() && document_.loadCase() < rowCount())
        setCurrentCell(document_.loadCase(), 0);
}

} // namespace waxis::balance
