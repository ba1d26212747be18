#include "app/stages/wire/cut_page.h"

#include "app/widgets/file_dialogs.h"
#include "app/widgets/mat_table.h"
#include "core/wiring/wire_report.h"
#include "io/csv/cut_csv.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QTableWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::wire {

CutPage::CutPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("cut-page");
    table_ = new theme::MatTable(theme, {tr("label"), tr("colour"), tr("AWG"), tr("length"), tr("how"), tr("from"),
                                         tr("its end"), tr("to"), tr("its end"), tr("besides")});
    table_->setObjectName("cut-table");
    table_->setAccessibleName(tr("Cut list"));
    table_->setEmptyText(tr("No wires yet: join two ports on the Routes page."));
    table_->horizontalHeaderItem(3)->setToolTip(tr("mm, as cut"));
    auto *header = table_->horizontalHeader();
    header->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    const std::array<int, 10> widths{94, 52, 42, 50, 80, 0, 92, 0, 92, 110};
    for (int c = 0; c < 10; ++c) {
        header->setSectionResizeMode(c, widths[std::size_t(c)] == 0 ? QHeaderView::Stretch : QHeaderView::Interactive);
        if (widths[std::size_t(c)] > 0) header->resizeSection(c, widths[std::size_t(c)]);
    }
    stock_ = new QLabel;
    stock_->setObjectName("stock");
    stock_->setWordWrap(true);
    auto *save = new QToolButton;
    save->setText(tr("Save as CSV…"));
    save->setObjectName("save-cut-list");
    auto *copy = new QToolButton;
    copy->setText(tr("Copy"));
    copy->setToolTip(tr("The whole list as CSV"));
    auto *foot = new QHBoxLayout;
    foot->addWidget(stock_, 1);
    foot->addWidget(copy);
    foot->addWidget(save);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(12, 8, 12, 10);
    column->addWidget(table_, 1);
    column->addLayout(foot);
    connect(save, &QToolButton::clicked, this, &CutPage::save);
    connect(copy, &QToolButton::clicked, this, [this] {
        QGuiApplication::clipboard()->setText(asCsv());
        emit said(tr("Cut list copied as CSV."), false);
    });
    connect(table_, &QTableWidget::cellClicked, this, [this](int row, int) {
        if (const auto *label = table_->item(row, 0)) document_.select(label->data(Qt::UserRole).toString());
    });
    connect(&document_, &app::Document::changed, this, &CutPage::refresh);
    theme_.dress(*this, theme::Ground::matBar);
}

/// What else belongs to a piece: its twist, its sleeve, what sits in it.
static QString besides(const CutRow &row) {
    QStringList more;
    if (!row.inLine.empty()) more << QString::fromStdString(row.inLine);
    if (row.sleeve_mm > 0) more << CutPage::tr("sleeve %1 mm").arg(row.sleeve_mm);
    if (!row.twistGroup.empty()) more << CutPage::tr("twisted");
    return more.join(QStringLiteral(", "));
}

QString CutPage::asCsv() const {
    const Analysis &analysis = document_.analysis();
    return QString::fromStdString(
        writeCutList(cutList(document_.build(), analysis.practice, *analysis.derived.wiring)));
}

void CutPage::refresh() {
    if (!isVisible()) return;
    const Analysis &analysis = document_.analysis();
    const CutList list = cutList(document_.build(), analysis.practice, *analysis.derived.wiring);
    table_->setRowCount(int(list.rows.size()));
    for (int row = 0; row < table_->rowCount(); ++row) {
        const CutRow &r = list.rows[std::size_t(row)];
        const QStringList texts{QString::fromStdString(r.label),
                                QString::fromStdString(r.colour),
                                r.gauge_AWG > 0 ? QString::number(r.gauge_AWG) : tr("–"),
                                QString::number(r.length_mm, 'f', 0),
                                QString::fromStdString(r.cut),
                                QString::fromStdString(r.from),
                                QString::fromStdString(r.stripFrom),
                                QString::fromStdString(r.to),
                                QString::fromStdString(r.stripTo),
                                besides(r)};
        for (int c = 0; c < int(texts.size()); ++c) {
            QTableWidgetItem *item = table_->item(row, c);
            if (!item) table_->setItem(row, c, item = new QTableWidgetItem);
            item->setText(texts[c]);
            item->setToolTip(texts[c]);
            if (c == 0) item->setData(Qt::UserRole, QString::fromStdString(r.wire));
            if (c == 2 || c == 3) item->setFont(theme_.numbers(12));
        }
    }
    QStringList stock;
    for (const auto &s : list.stock)
        stock << tr("AWG %1 %2 %3 m").arg(s.gauge_AWG).arg(QString::fromStdString(s.colour)).arg(s.metres, 0, 'f', 2);
    QStringList more;
    more << tr("%n tie(s)", nullptr, list.ties);
    for (const auto &s : list.sleeves)
        more << tr("%1 mm of sleeve of %2 mm").arg(s.length_mm, 0, 'f', 0).arg(s.diameter_mm);
    if (list.grommets > 0) more << tr("%n grommet(s)", nullptr, list.grommets);
    if (list.splices > 0) more << tr("%n splice(s)", nullptr, list.splices);
    stock_->setText(list.rows.empty() ? QString()
                                      : tr("Stock: %1.  %2.  Solder with air moving past you; fumes and hot tips hurt.")
                                            .arg(stock.join(" · "), more.join(", ")));
}

void CutPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    refresh();
}

void CutPage::save() {
    if (const auto saved = app::saveTextAsking(this, tr("Save the cut list"), document_.title() + "-cut-list.csv",
                                               tr("CSV (*.csv)"), asCsv().toStdString()))
        emit said(saved->said, saved->bad);
}

} // namespace waxis::wire
