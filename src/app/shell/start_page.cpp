#include "app/shell/start_page.h"

#include <QFileInfo>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace waxis::app {

StartPage::StartPage(const theme::Theme &theme, QWidget *parent) : QWidget(parent), theme_(theme) {
    auto *layout = new QVBoxLayout(this);
    layout->addStretch();
    auto *holder = new QWidget;
    holder->setFixedWidth(420);
    column_ = new QVBoxLayout(holder);
    column_->setSpacing(8);
    layout->addWidget(holder, 0, Qt::AlignHCenter);
    layout->addStretch();
}

void StartPage::show(const QStringList &demos, const QStringList &recent) {
    while (auto *item = column_->takeAt(0)) {
        if (item->widget()) item->widget()->deleteLater();
        delete item;
    }
    auto label = [&](const QString &text, int pixels, bool strong) {
        auto *words = new QLabel(text);
        words->setFont(theme_.text(pixels, strong));
        words->setWordWrap(true);
        column_->addWidget(words);
    };
    auto button = [&](const QString &text, auto &&run, const QString &tip = {}) {
        auto *entry = new QPushButton(text);
        entry->setStyleSheet("text-align: left; padding: 8px 12px;");
        entry->setToolTip(tip);
        column_->addWidget(entry);
        connect(entry, &QPushButton::clicked, this, run);
        return entry;
    };
    label(tr("Decide where every part mounts, before anything is soldered."), 18, true);
    label(tr("Start with a demo, then drag a part and watch weight, balance and fit."), 13, false);
    for (const auto &demo : demos) {
        const QString name = QFileInfo(demo).completeBaseName();
        button(tr("Open the demo %1").arg(name.left(1).toUpper() + name.mid(1)),
               [this, demo] { emit fileChosen(demo); });
    }
    button(tr("Open a build…"), [this] { emit browseWanted(); });
    auto *layout = button(
        tr("Start from a layout"), [] {}, tr("Comes with the Frame stage, which is not built yet"));
    auto *kit = button(
        tr("Read a kit list"), [] {}, tr("Comes with the Kit stage, which is not built yet"));
    layout->setEnabled(false);
    kit->setEnabled(false);
    if (!recent.isEmpty()) label(tr("Recent"), 13, true);
    for (const auto &path : recent)
        button(
            QFileInfo(path).fileName(), [this, path] { emit fileChosen(path); }, path);
}

} // namespace waxis::app
