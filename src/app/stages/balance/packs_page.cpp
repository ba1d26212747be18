#include "app/stages/balance/packs_page.h"

#include "app/theme/metrics.h"
#include "app/widgets/card.h"
#include "app/widgets/mat_table.h"
#include "core/edits/balance_edits.h"
#include "core/rules/wording.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QTableWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::balance {

PacksPage::PacksPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme), working_(
                                                               200, [this] { return prepare(); },
                                                               [this](std::vector<PackOption> options) {
                                                                   options_ = std::move(options);
                                                                   fill();
                                                               }) {
    auto *card = new theme::Card(theme, tr("Other packs in its place"));
    title_ = card->addNote();
    table_ = new theme::MatTable(theme, {tr("pack"), tr("g"), tr("mAh"), tr("all-up g"), tr("off mm"), tr("slide mm"),
                                         tr("then mm"), tr("thrust"), tr("hover min"), tr("findings")});
    table_->setObjectName("packs");
    table_->setAccessibleName(tr("Packs compared"));
    const QStringList tips{tr("With as many cells, of the build and the library"),
                           tr("Of the pack"),
                           tr("Capacity"),
                           tr("Of the craft with it, in this load case"),
                           tr("Centre of gravity from the thrust centre in plan, the pack where it is"),
                           tr("How far it would have to slide from there; minus is aft"),
                           tr("What is left after that"),
                           tr("Full thrust over weight"),
                           tr("Hover down to the practice's reserve"),
                           tr("Stops and watches of the whole craft with it, views and access not looked at")};
    for (int i = 0; i < tips.size(); ++i) table_->horizontalHeaderItem(i)->setToolTip(tips[i]);
    table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int i = 1; i < table_->columnCount(); ++i)
        table_->horizontalHeader()->setSectionResizeMode(i, QHeaderView::ResizeToContents);
    card->body().addWidget(table_, 1);
    note_ = new QLabel;
    note_->setObjectName("note");
    note_->setFont(theme.text(theme::kSmallPixels));
    note_->setWordWrap(true);
    fit_ = new QToolButton;
    fit_->setObjectName("pack-fit");
    fit_->setText(tr("Fit this one"));
    auto *foot = new QHBoxLayout;
    foot->addWidget(note_, 1);
    foot->addWidget(fit_);
    card->body().addLayout(foot);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(10, 8, 10, 8);
    all->addWidget(card);

    connect(&document_, &app::Document::changed, this, [this] {
        if (!document_.isPreviewing()) ask();
    });
    connect(&document_, &app::Document::loadCaseChanged, this, &PacksPage::ask);
    connect(&document_, &app::Document::opened, this, [this] {
        options_.clear();
        ask();
    });
    connect(table_, &QTableWidget::itemSelectionChanged, this, [this] {
        const int row = table_->currentRow();
        fit_->setEnabled(row >= 0 && std::size_t(row) < options_.size() && !options_[std::size_t(row)].fitted);
    });
    connect(fit_, &QToolButton::clicked, this, [this] {
        const int row = table_->currentRow();
        if (row < 0 || std::size_t(row) >= options_.size()) return;
        const std::string &id = options_[std::size_t(row)].type;
        const auto own = document_.build().types->find(id);
        const auto shipped = document_.library().find(id);
        if (own == document_.build().types->end() && shipped == document_.library().end()) return;
        const PartType &type = own != document_.build().types->end() ? own->second : shipped->second;
        document_.edit(tr("Fit %1").arg(QString::fromStdString(type.name)), swapPack(document_.build(), pack(), type));
    });
    auto dress = [this] { fill(); };
    connect(&theme_, &theme::Theme::changed, this, dress);
    dress();
}

std::string PacksPage::pack() const {
    const LoadCase *loadCase = document_.activeCase();
    return loadCase ? loadCase->battery : std::string();
}

void PacksPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    ask();
}

void PacksPage::ask() {
    if (!isVisible()) return;
    working_.ask();
}

app::Background<std::vector<PackOption>>::Work PacksPage::prepare() {
    if (pack().empty()) options_.clear();
    if (pack().empty() || (asked_ == document_.build() && askedCase_ == document_.loadCase() && !options_.empty())) {
        fill();
        return {};
    }
    asked_ = document_.build();
    askedCase_ = document_.loadCase();
    note_->setText(tr("Trying each pack..."));
    return [build = asked_, practice = document_.analysis().practice, part = pack(), loadCase = std::size_t(askedCase_),
            library = document_.library()](const std::atomic<bool> &stop) {
        return comparePacks(build, practice, part, loadCase, library, &stop);
    };
}

void PacksPage::fill() {
    const auto &c = theme_.colors();
    const Part *part = findPart(document_.build(), pack());
    title_->setText(part ? tr("Each is tried where %1 sits, and the whole craft is worked out with it.")
                               .arg(QString::fromStdString(part->name))
                         : tr("This load case has no pack of its own. Choose another case above."));
    table_->setRowCount(part ? int(options_.size()) : 0);
    const theme::Refill filling(*table_);
    const auto number = [](std::optional<double> value, int digits) {
        return value ? QString::number(*value, 'f', digits) : QStringLiteral("–");
    };
    const double ring = document_.analysis().derived.cgTolerance_mm;
    for (int row = 0; row < table_->rowCount(); ++row) {
        const PackOption &o = options_[std::size_t(row)];
        const QStringList texts{
            (o.fitted ? QStringLiteral("• ") : QString()) + QString::fromStdString(o.name),
            number(o.mass_g, 0),
            number(o.capacity_mAh, 0),
            number(o.total_g, 0),
            number(o.offset_mm.norm(), 1),
            o.slide ? QString::fromStdString(oneDecimal(o.slide->travel_mm)) : QStringLiteral("–"),
            o.slide ? number(o.slide->after_mm.norm(), 1) : QStringLiteral("–"),
            number(o.thrustToWeight, 1),
            o.least_min ? tr("%1–%2").arg(*o.least_min, 0, 'f', 0).arg(*o.most_min, 0, 'f', 0) : QStringLiteral("–"),
            o.meets.empty()
                ? tr("%1 stop, %2 watch").arg(o.stop).arg(o.watch)
                : tr("stands in %1")
                      .arg(QString::fromStdString(withinSentence(displayName(document_.build(), o.meets))))};
        for (int col = 0; col < texts.size(); ++col) {
            QTableWidgetItem *cell = table_->item(row, col);
            if (!cell) table_->setItem(row, col, cell = new QTableWidgetItem);
            cell->setText(texts[col]);
            cell->setToolTip(texts[col]);
            const bool words = col == 0 || col == 9;
            cell->setFont(words ? theme_.text(12, o.fitted) : theme_.numbers(12));
            cell->setTextAlignment(Qt::AlignVCenter | (words ? Qt::AlignLeft : Qt::AlignRight));
            const bool bad = (col == 3 && o.overLimit) || (col == 6 && o.slide && o.slide->after_mm.norm() > ring) ||
                             (col == 4 && o.offset_mm.norm() > ring) || (col == 9 && !o.meets.empty());
            cell->setForeground(bad ? theme::severityOnMat(Severity::watch) : c.chalk);
        }
    }
    fit_->setEnabled(false);
    note_->setText(
        working_.isRunning() ? tr("Trying each pack...")
        : options_.empty()
            ? tr("No pack with as many cells is known.")
            : tr("• is fitted. Lithium packs burn when crushed, shorted or overcharged: choose one that lies "
                 "well inside its straps, clear of sharp carbon."));
}

} // namespace waxis::balance
