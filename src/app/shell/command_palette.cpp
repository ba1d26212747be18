#include "app/shell/command_palette.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

namespace waxis::app {

int matchScore(const QString &text, const QString &query) {
    int score = 1;
    const QString hay = text.toCaseFolded();
    for (const auto &word : query.toCaseFolded().split(' ', Qt::SkipEmptyParts)) {
        const auto at = hay.indexOf(word);
        if (at < 0) return 0;
        score += at == 0 ? 8 : !hay[at - 1].isLetterOrNumber() ? 4 : 1;
    }
    return score;
}

CommandPalette::CommandPalette(const theme::Theme &theme, QWidget *parent)
    : QDialog(parent, Qt::Popup), theme_(theme), query_(new QLineEdit), list_(new QListWidget) {
    setAccessibleName(tr("Go to or do"));
    query_->setPlaceholderText(tr("Go to or do…"));
    query_->setObjectName("palette-query");
    query_->setFont(theme_.text(15));
    list_->setFrameShape(QFrame::NoFrame);
    list_->setObjectName("palette-list");
    list_->setFocusPolicy(Qt::NoFocus);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(8, 8, 8, 8);
    layout->addWidget(query_);
    layout->addWidget(list_);
    resize(520, 380);
    query_->installEventFilter(this);
    connect(query_, &QLineEdit::textChanged, this, &CommandPalette::filter);
    connect(query_, &QLineEdit::returnPressed, this, &CommandPalette::runCurrent);
    connect(list_, &QListWidget::itemClicked, this, &CommandPalette::runCurrent);
}

void CommandPalette::open(std::vector<PaletteEntry> entries) {
    entries_ = std::move(entries);
    query_->clear();
    filter();
    const QRect window = parentWidget()->geometry();
    move(parentWidget()->mapToGlobal(QPoint((window.width() - width()) / 2, 60)));
    show();
    query_->setFocus();
}

void CommandPalette::filter() {
    std::vector<std::pair<int, int>> hits;
    for (std::size_t i = 0; i < entries_.size(); ++i)
        if (const int score = matchScore(entries_[i].text + " " + entries_[i].hint, query_->text()))
            hits.emplace_back(-score, int(i));
    std::stable_sort(hits.begin(), hits.end(), [](const auto &a, const auto &b) { return a.first < b.first; });
    list_->clear();
    for (const auto &[score, index] : hits) {
        const auto &entry = entries_[std::size_t(index)];
        auto *item = new QListWidgetItem(
            entry.hint.isEmpty() ? entry.text : QStringLiteral("%1   ·   %2").arg(entry.text, entry.hint));
        item->setData(Qt::UserRole, index);
        list_->addItem(item);
    }
    list_->setCurrentRow(0);
}

void CommandPalette::runCurrent() {
    const auto *item = list_->currentItem();
    if (!item) return;
    const auto run = entries_[std::size_t(item->data(Qt::UserRole).toInt())].run;
    accept();
    run();
}

bool CommandPalette::eventFilter(QObject *watched, QEvent *event) {
    if (event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent *>(event)->key();
        const int step = key == Qt::Key_Down ? 1 : key == Qt::Key_Up ? -1 : 0;
        if (step != 0 && list_->count() > 0) {
            list_->setCurrentRow(std::clamp(list_->currentRow() + step, 0, list_->count() - 1));
            return true;
        }
    }
    return QDialog::eventFilter(watched, event);
}

} // namespace waxis::app
