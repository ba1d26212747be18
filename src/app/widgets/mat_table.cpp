#include "app/widgets/mat_table.h"

#include "app/theme/look.h"
#include "io/csv/csv.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QHeaderView>
#include <QKeyEvent>
#include <QPainter>

namespace waxis::theme {

MatTable::MatTable(const Theme &theme, const QStringList &heads, QWidget *parent)
    : QTableWidget(parent), theme_(theme) {
    constexpr int kRow_px = 22;
    setColumnCount(int(heads.size()));
    setHorizontalHeaderLabels(heads);
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(kRow_px);
    setShowGrid(false);
    setEditTriggers(QAbstractItemView::NoEditTriggers);
    setSelectionBehavior(QAbstractItemView::SelectRows);
    setSelectionMode(QAbstractItemView::SingleSelection);
    setFrameShape(QFrame::NoFrame);
    setWordWrap(false);
    setTabKeyNavigation(false); // Tab goes on to what stands after the table
    horizontalHeader()->setDefaultAlignment(Qt::AlignRight | Qt::AlignVCenter);
    if (!heads.isEmpty()) horizontalHeaderItem(0)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    horizontalHeader()->setHighlightSections(false);
    horizontalHeader()->setMinimumSectionSize(30);
    setFont(theme.text(12));
    setProperty(kRuled, true);
    viewport()->setBackgroundRole(QPalette::Window);
    theme.dress(*this, Ground::card);
}

void MatTable::setEmptyText(const QString &text) {
    empty_ = text;
    viewport()->update();
}

void MatTable::setTips(const QStringList &tips) {
    for (int i = 0; i < tips.size() && i < columnCount(); ++i) horizontalHeaderItem(i)->setToolTip(tips[i]);
}

QString MatTable::asCsv() const {
    const auto text = [](const QTableWidgetItem *item) {
        return item ? item->text().replace(QChar('\n'), QChar(' ')).toStdString() : std::string();
    };
    CsvRow head;
    for (int c = 0; c < columnCount(); ++c) head.push_back(text(horizontalHeaderItem(c)));
    std::vector<CsvRow> rows;
    for (int r = 0; r < rowCount(); ++r) {
        CsvRow &row = rows.emplace_back();
        for (int c = 0; c < columnCount(); ++c) row.push_back(text(item(r, c)));
    }
    return QString::fromStdString(writeCsv(head, rows));
}

void MatTable::keyPressEvent(QKeyEvent *event) {
    if (event->matches(QKeySequence::Copy) && state() != EditingState) {
        QGuiApplication::clipboard()->setText(asCsv());
        return;
    }
    QTableWidget::keyPressEvent(event);
}

void MatTable::paintEvent(QPaintEvent *event) {
    QTableWidget::paintEvent(event);
    if (rowCount() > 0 || empty_.isEmpty()) return;
    QPainter painter(viewport());
    painter.setPen(theme_.colors().softChalk);
    painter.setFont(theme_.text(12));
    painter.drawText(viewport()->rect().adjusted(8, 6, -8, -6), Qt::AlignTop | Qt::AlignLeft | Qt::TextWordWrap,
                     empty_);
}

Refill::~Refill() {
    quiet_.unblock();
    auto *model = table_.model();
    if (model->rowCount() > 0)
        emit model->dataChanged(model->index(0, 0), model->index(model->rowCount() - 1, model->columnCount() - 1));
}

} // namespace waxis::theme
