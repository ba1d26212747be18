#include "app/stages/build/settings_page.h"

#include "core/balance/case_balance.h"
#include "core/instructions/settings.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::assembly {

SettingsPage::SettingsPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    table_ = new theme::MatTable(theme, {tr("topic"), tr("what"), tr("to enter")});
    table_->setObjectName("build-settings");
    table_->setAccessibleName(tr("Settings to enter in the controller"));
    table_->setEmptyText(tr("Nothing aboard wants a setting yet."));
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    for (int i = 0; i < 3; ++i) table_->horizontalHeaderItem(i)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
    table_->horizontalHeader()->setSectionResizeMode(2, QHeaderView::ResizeToContents);
    auto *note =
        new QLabel(tr("In the order in which one needs them. Every firmware calls its menus otherwise; propellers "
                      "are off while you enter them. On bands and power local law decides."));
    note->setWordWrap(true);
    note->setFont(theme_.text(12));
    auto *copy = new QToolButton;
    copy->setText(tr("Copy"));
    copy->setObjectName("settings-copy");
    copy->setToolTip(tr("The whole list as CSV"));
    connect(copy, &QToolButton::clicked, this, [this] { QGuiApplication::clipboard()->setText(table_->asCsv()); });
    auto *head = new QHBoxLayout;
    head->addWidget(note, 1);
    head->addWidget(copy);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(10, 8, 10, 8);
    all->addLayout(head);
    all->addWidget(table_, 1);
    connect(&document_, &app::Document::changed, this, &SettingsPage::fill);
    connect(&document_, &app::Document::loadCaseChanged, this, &SettingsPage::fill);
    connect(&theme_, &theme::Theme::changed, this, &SettingsPage::fill);
}

void SettingsPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    fill();
}

void SettingsPage::fill() {
    if (!isVisible()) return;
    const auto &derived = document_.analysis().derived;
    std::vector<SettingRow> rows;
    if (std::size_t(document_.loadCase()) < derived.loadCases->size() &&
        std::size_t(document_.loadCase()) < derived.balance->size())
        rows = settingsToEnter(document_.build(), derived, document_.loadCase());
    table_->setRowCount(int(rows.size()));
    const theme::Refill filling(*table_);
    std::string topic;
    for (int row = 0; row < table_->rowCount(); ++row) {
        const SettingRow &shown = rows[std::size_t(row)];
        const std::array<std::string, 3> texts{shown.topic.text() == topic ? std::string() : shown.topic.text(),
                                               shown.what.text(), shown.value.text()};
        topic = shown.topic.text();
        for (int column = 0; column < 3; ++column) {
            QTableWidgetItem *cell = table_->item(row, column);
            if (!cell) table_->setItem(row, column, cell = new QTableWidgetItem);
            cell->setText(QString::fromStdString(texts[std::size_t(column)]));
            cell->setForeground(column == 1 ? theme_.colors().softChalk : theme_.colors().chalk);
            if (column == 2) cell->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
            if (column == 1) cell->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
        }
    }
}

} // namespace waxis::assembly
