#include "app/stages/kit/list_page.h"

#include "io/file_bytes.h"

#include <QComboBox>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QTableWidget>
#include <QVBoxLayout>
#include <map>

namespace waxis::kit {

ListPage::ListPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    title_ = new QLabel;
    title_->setFont(theme.text(15, true));
    summary_ = new QLabel;
    summary_->setWordWrap(true);
    summary_->setObjectName("list-summary");
    preview_ = new QTableWidget;
    preview_->setObjectName("list-preview");
    preview_->setAccessibleName(tr("Rows of the list"));
    preview_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    preview_->setSelectionMode(QAbstractItemView::NoSelection);
    preview_->verticalHeader()->setDefaultSectionSize(26);
    problems_ = new QLabel;
    problems_->setWordWrap(true);
    problems_->setObjectName("list-problems");
    problems_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    auto *cancel = new QPushButton(tr("Leave it"));
    take_ = new QPushButton(tr("Take these rows"));
    take_->setObjectName("take");
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(16, 12, 16, 12);
    column->setSpacing(8);
    column->addWidget(title_);
    column->addWidget(summary_);
    column->addWidget(preview_, 1);
    column->addWidget(problems_);
    auto *buttons = new QHBoxLayout;
    buttons->addWidget(cancel);
    buttons->addStretch();
    buttons->addWidget(take_);
    column->addLayout(buttons);
    connect(cancel, &QPushButton::clicked, this, [this] { emit finished(false); });
    connect(take_, &QPushButton::clicked, this, &ListPage::take);
}

void ListPage::open(const QString &path) {
    name_ = QFileInfo(path).fileName();
    title_->setText(name_);
    table_ = {};
    columns_.clear();
    constexpr std::size_t kLargest = 8u << 20;
    const auto bytes = io::readFile(path.toStdString(), kLargest);
    if (bytes) {
        table_ = parseCsv(*bytes);
        columns_ = guessKitColumns(table_.header);
    } else {
        table_.problems.push_back({0, bytes.error()});
    }
    preview_->clear();
    const int shown = int(std::min<std::size_t>(table_.rows.size(), 200));
    const int outcome = int(table_.header.size()); // the column after those of the file, shown first
    preview_->setColumnCount(outcome + 1);
    preview_->setRowCount(shown + 1); // the first row holds what the columns mean
    QStringList headers, numbers{tr("is")};
    for (const auto &field : table_.header) headers << QString::fromStdString(field);
    for (int r = 0; r < shown; ++r) numbers << tr("line %1").arg(table_.lines[std::size_t(r)]);
    headers << tr("becomes");
    preview_->setHorizontalHeaderLabels(headers);
    auto *head = preview_->horizontalHeader();
    head->moveSection(head->visualIndex(outcome), 0);
    preview_->setVerticalHeaderLabels(numbers);
    for (int r = 0; r <= shown; ++r) {
        auto *cell = new QTableWidgetItem;
        cell->setFlags(Qt::ItemIsEnabled);
        preview_->setItem(r, outcome, cell);
    }
    preview_->setColumnWidth(outcome, 190);
    for (int c = 0; c < outcome; ++c) {
        auto *meaning = new QComboBox;
        meaning->setObjectName(QStringLiteral("column-%1").arg(c));
        meaning->setAccessibleName(tr("Meaning of column %1").arg(headers[c]));
        for (const auto &text : kitColumns()) meaning->addItem(tr(text.title.data()), int(text.column));
        meaning->setCurrentIndex(meaning->findData(int(columns_[std::size_t(c)])));
        connect(meaning, &QComboBox::activated, this, [this, c, meaning] {
            columns_[std::size_t(c)] = KitColumn(meaning->currentData().toInt());
            mapAgain();
        });
        preview_->setCellWidget(0, c, meaning);
        for (int r = 0; r < shown; ++r)
            preview_->setItem(
                r + 1, c, new QTableWidgetItem(QString::fromStdString(table_.rows[std::size_t(r)][std::size_t(c)])));
        preview_->setColumnWidth(c, 136);
    }
    mapAgain();
}

void ListPage::mapAgain() {
    list_ = readKitList(table_, columns_, document_.build(), document_.analysis().practice, document_.library());
    refresh();
}

void ListPage::refresh() {
    int inBuild = 0, inLibrary = 0, fresh = 0;
    for (const auto &row : list_.rows) {
        inBuild += row.match == KitMatch::inBuild;
        inLibrary += row.match == KitMatch::inLibrary;
        fresh += row.match == KitMatch::isNew;
    }
    summary_->setText(tr("%1 kinds of parts: %2 in the build already, %3 from the library, %4 new. "
                         "Say above each column what it means; columns that mean nothing here are left out.")
                          .arg(list_.rows.size())
                          .arg(inBuild)
                          .arg(inLibrary)
                          .arg(fresh));
    showOutcomes();
    QStringList lines;
    constexpr std::size_t kShown = 6;
    for (std::size_t i = 0; i < list_.problems.size() && i < kShown; ++i)
        lines << (list_.problems[i].line == 0 ? QString::fromStdString(list_.problems[i].reason)
                                              : tr("line %1: %2")
                                                    .arg(list_.problems[i].line)
                                                    .arg(QString::fromStdString(list_.problems[i].reason)));
    if (list_.problems.size() > kShown) lines << tr("and %1 more").arg(list_.problems.size() - kShown);
    problems_->setText(lines.isEmpty() ? QString() : tr("Left out, the other rows are kept:\n") + lines.join('\n'));
    problems_->setVisible(!lines.isEmpty());
    take_->setEnabled(!list_.rows.empty());
}

void ListPage::showOutcomes() {
    std::map<std::size_t, QString> becomes;
    for (const auto &row : list_.rows) {
        const QString id = QString::fromStdString(row.item);
        becomes[row.line] = row.match == KitMatch::inBuild     ? tr("%1, in the build").arg(id)
                            : row.match == KitMatch::inLibrary ? tr("%1, from the library").arg(id)
                                                               : tr("%1, new").arg(id);
    }
    for (const auto &problem : list_.problems) becomes[problem.line] = tr("left out");
    for (int r = 1; r < preview_->rowCount(); ++r) {
        const auto at = becomes.find(table_.lines[std::size_t(r - 1)]);
        preview_->item(r, preview_->columnCount() - 1)
            ->setText(at == becomes.end() ? tr("counted with one above") : at->second);
    }
}

void ListPage::take() {
    if (document_.edit(tr("Kit list %1").arg(name_), takeKitList(document_.build(), list_, document_.library())))
        emit finished(true);
}

} // namespace waxis::kit
