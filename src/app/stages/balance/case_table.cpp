#include "app/stages/balance/case_table.h"

#include "app/shell/texts.h"
#include "core/kit/weigh_advice.h"
#include "core/rules/wording.h"

#include <QHeaderView>
#include <cmath>

namespace waxis::balance {

void prepareMatTable(QTableWidget &table, const QStringList &heads) {
    table.setColumnCount(int(heads.size()));
    table.setHorizontalHeaderLabels(heads);
    table.verticalHeader()->hide();
    table.verticalHeader()->setDefaultSectionSize(22);
    table.setShowGrid(false);
    table.setEditTriggers(QAbstractItemView::NoEditTriggers);
    table.setSelectionBehavior(QAbstractItemView::SelectRows);
    table.setSelectionMode(QAbstractItemView::SingleSelection);
    table.setFrameShape(QFrame::NoFrame);
    table.setWordWrap(false);
    table.horizontalHeader()->setDefaultAlignment(Qt::AlignRight | Qt::AlignVCenter);
    table.horizontalHeaderItem(0)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table.horizontalHeader()->setHighlightSections(false);
    table.horizontalHeader()->setMinimumSectionSize(30);
}

void dressMatTable(QTableWidget &table, const theme::Theme &theme) {
    const auto &c = theme.colors();
    table.setFont(theme.text(12));
    table.setStyleSheet(
        QStringLiteral(
            "QTableWidget { background: %1; color: %2; selection-background-color: %4; selection-color: %2; }"
            "QTableWidget::item { padding: 0 6px; border-bottom: 1px solid %5; }"
            "QHeaderView { background: %1; } QHeaderView::section { background: %1; color: %3; border: none; "
            "padding: 2px 6px; border-bottom: 1px solid %5; }")
            .arg(c.matBar.name(), c.chalk.name(), c.softChalk.name(), c.matGridStrong.name(), c.matGrid.name()));
}

CaseTable::CaseTable(app::Document &document, const theme::Theme &theme, const StudyRunner &runner, QWidget *parent)
    : QTableWidget(parent), document_(document), theme_(theme), runner_(runner) {
    setObjectName("case-table");
    setAccessibleName(tr("Load cases"));
    prepareMatTable(*this, {tr("load case"), tr("all-up g"), tr("fore–aft mm"), tr("left–right"), tr("height"),
                            tr("thrust"), tr("inside ring"), tr("weigh next")});
    const QStringList tips{tr("A click chooses the case"),
                           tr("Sum of everything aboard, plus or minus two standard deviations"),
                           tr("Centre of gravity from the thrust centre"),
                           tr("Centre of gravity from the thrust centre"),
                           tr("Centre of gravity over the mean propeller plane"),
                           tr("Full thrust over weight"),
                           tr("Chance that the true centre of gravity lies within the tolerance ring"),
                           tr("The weight whose doubt moves the balance most")};
    for (int i = 0; i < tips.size(); ++i) horizontalHeaderItem(i)->setToolTip(tips[i]);
    horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int i = 1; i < columnCount(); ++i) horizontalHeader()->setSectionResizeMode(i, QHeaderView::ResizeToContents);
    connect(this, &QTableWidget::cellClicked, this, [this](int row, int) { document_.setLoadCase(row); });
    connect(this, &QTableWidget::currentCellChanged, this, [this](int row, int, int, int) {
        if (hasFocus() && row >= 0) document_.setLoadCase(row);
    });
    connect(&document_, &app::Document::changed, this, &CaseTable::refresh);
    connect(&document_, &app::Document::loadCaseChanged, this, &CaseTable::refresh);
    auto dress = [this] {
        dressMatTable(*this, theme_);
        refresh();
    };
    connect(&theme_, &theme::Theme::changed, this, dress);
    dress();
}

void CaseTable::refresh() {
    const auto &derived = document_.analysis().derived;
    const auto &c = theme_.colors();
    setRowCount(int(derived.balance.size()));
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
            const WeighAdvice advice = weighAdvice(derived, std::size_t(row));
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
            cell->setFont(words ? theme_.text(12, chosen && col == 0) : theme_.numbers(12));
            cell->setTextAlignment(Qt::AlignVCenter | (words ? Qt::AlignLeft : Qt::AlignRight));
            const bool outside = flies && ((col == 2 && std::abs(b.offset_mm->x()) > derived.cgTolerance_mm) ||
                                           (col == 3 && std::abs(b.offset_mm->y()) > derived.cgTolerance_mm) ||
                                           (col == 6 && b.insideChance && *b.insideChance < 0.5));
            cell->setForeground(outside ? theme::severityOnMat(Severity::watch) : chosen ? c.chalk : c.softChalk);
        }
    }
    horizontalHeaderItem(7)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    setFixedHeight(horizontalHeader()->sizeHint().height() + 22 * std::clamp(rowCount(), 2, 6) + 4);
    if (currentRow() != document_.loadCase() && document_.loadCase() < rowCount()) {
        const QSignalBlocker quiet(this);
        setCurrentCell(document_.loadCase(), 0);
    }
}

} // namespace waxis::balance
