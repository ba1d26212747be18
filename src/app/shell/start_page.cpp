#include "app/shell/start_page.h"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace waxis::app {

namespace {

/// Name of a shipped demo by its file, and what it is, in few words.
std::pair<QString, QString> demoTitle(const QString &file) {
    if (file == "stakewalker") return {"Stakewalker", StartPage::tr("7-inch quad, camera and GPS")};
    if (file == "kilnlamp") return {"Kilnlamp", StartPage::tr("folding hexacopter, 17-inch")};
    if (file == "sedge-tri") return {"Sedge Tri", StartPage::tr("tricopter with a tail servo")};
    if (file == "owlbox-mini") return {"Owlbox Mini", StartPage::tr("3-inch quad under 250 g")};
    return {file, {}};
}

} // namespace

StartPage::StartPage(const theme::Theme &theme, QWidget *parent) : QWidget(parent), theme_(theme) {
    constexpr int kColumnWidth = 440;
    auto *row = new QHBoxLayout(this);
    row->addStretch();
    auto *middle = new QVBoxLayout;
    row->addLayout(middle);
    row->addStretch();
    middle->addStretch();
    auto *holder = new QWidget;
    holder->setFixedWidth(kColumnWidth);
    column_ = new QVBoxLayout(holder);
    column_->setSpacing(8);
    middle->addWidget(holder);
    middle->addStretch();
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
        words->setMinimumHeight(words->heightForWidth(column_->parentWidget()->width() - 24));
        column_->addWidget(words);
    };
    auto button = [&](const QString &text, auto &&run, const QString &tip = {}) {
        auto *entry = new QPushButton(text);
        entry->setStyleSheet("text-align: left; padding: 6px 12px;");
        entry->setMinimumHeight(40);
        entry->setToolTip(tip);
        column_->addWidget(entry);
        connect(entry, &QPushButton::clicked, this, run);
        return entry;
    };
    label(tr("Decide where every part mounts, before anything is soldered."), 18, true);
    label(tr("Start with a demo, then drag a part and watch weight, balance and fit."), 13, false);
    for (const auto &demo : demos) {
        const auto [name, what] = demoTitle(QFileInfo(demo).completeBaseName());
        button(what.isEmpty() ? tr("Open the demo %1").arg(name) : tr("Open the demo %1: %2").arg(name, what),
               [this, demo] { emit fileChosen(demo); });
    }
    button(tr("Open a build…"), [this] { emit browseWanted(); });
    button(tr("Start from a layout: quad, tricopter, hexacopter…"), [this] { emit layoutWanted(); });
    button(tr("Start from a frame drawing (DXF)…"), [this] { emit drawingWanted(); });
    button(tr("Read a kit list (CSV)…"), [this] { emit kitListWanted(); });
    if (!recent.isEmpty()) label(tr("Recent"), 13, true);
    for (const auto &path : recent)
        button(
            QFileInfo(path).fileName(), [this, path] { emit fileChosen(path); }, path);
}

} // namespace waxis::app
