#include "app/stages/kit/kit_bench.h"

#include "app/widgets/bench_bar.h"
#include "app/widgets/file_dialogs.h"
#include "core/catalog/fresh_types.h"
#include "core/kit/kit.h"
#include "core/remedies/weigh_advice.h"
#include "io/csv/kit_csv.h"

#include <QClipboard>
#include <QComboBox>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QStackedLayout>
#include <QTableView>
#include <QToolButton>
#include <QVBoxLayout>
#include <cmath>

namespace waxis::kit {

KitBench::KitBench(app::Document &document, app::Instruments &instruments, const theme::Theme &theme, QWidget *parent)
    : app::Bench(parent), document_(document), theme_(theme) {
    model_ = new KitModel(document, theme, this);
    table_ = new QTableView;
    table_->setObjectName("kit-table");
    table_->setAccessibleName(tr("Tray list"));
    table_->setModel(model_);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(27);
    table_->setShowGrid(false);
    table_->setAlternatingRowColors(false);
    table_->setFrameShape(QFrame::NoFrame);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::AnyKeyPressed |
                            QAbstractItemView::SelectedClicked | QAbstractItemView::EditKeyPressed);
    table_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto *header = table_->horizontalHeader();
    header->setHighlightSections(false);
    header->setMinimumSectionSize(28);
    header->setSectionResizeMode(name, QHeaderView::Stretch);
    const std::pair<Column, int> widths[] = {{checked, 30},   {needed, 54},  {inHand, 100},
                                             {catalogue, 60}, {weighed, 70}, {Column::size, 124},
                                             {arrow, 46},     {pins, 38},    {note, 60}};
    for (const auto &[column, width] : widths) table_->setColumnWidth(column, width);
    list_ = new ListPage(document, theme);
    editor_ = new PartEditor(document, theme);

    auto *own = new QWidget;
    auto *rows = new QVBoxLayout(own);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(0);
    rows->addWidget(makeHead());
    rows->addWidget(table_, 1);
    walk_ = new WeighingWalk(document, instruments, theme);
    rows->addWidget(walk_);
    auto *stack = new QWidget;
    pages_ = new QStackedLayout(stack);
    pages_->addWidget(own);
    pages_->addWidget(list_);
    pages_->addWidget(editor_);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(makeBar());
    column->addWidget(stack, 1);
    connect(list_, &ListPage::finished, this, [this](bool) { pages_->setCurrentIndex(0); });
    connect(editor_, &PartEditor::finished, this, [this](bool) { pages_->setCurrentIndex(0); });
    connect(editor_, &PartEditor::said, this, &KitBench::said);
    connect(walk_, &WeighingWalk::said, this, &KitBench::said);
    connect(walk_, &WeighingWalk::asksFor, this, [this](const QString &item) {
        if (const int row = model_->rowOf(item); row >= 0) table_->setCurrentIndex(model_->index(row, weighed));
    });
    connect(&document_, &app::Document::changed, this, [this] {
        if (!document_.isPreviewing()) refresh();
    });
    connect(&document_, &app::Document::loadCaseChanged, this, &KitBench::refresh);
    connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this](const QModelIndex &now) {
        if (!now.isValid()) return;
        const auto &members = model_->line(now.row()).members;
        document_.select(members.empty() ? QString() : QString::fromStdString(members.front()));
    });
    refresh();
}

QWidget *KitBench::makeBar() {
    auto *bar = theme::makeBenchBar(theme_, this);
    auto *row = static_cast<QHBoxLayout *>(bar->layout());
    auto button = [&](const QString &text, const QString &tip) {
        auto *tool = new QToolButton;
        tool->setText(text);
        tool->setToolTip(tip);
        tool->setFocusPolicy(Qt::TabFocus);
        row->addWidget(tool);
        return tool;
    };
    auto *fresh = button(tr("New part"), tr("Make a part type"));
    auto *change = button(tr("Change"), tr("Change the chosen part type"));
    auto *like = button(tr("Like this…"), tr("A part of your own like that of the chosen row"));
    like->setObjectName("like-row");
    connect(like, &QToolButton::clicked, this, [this] {
        const QModelIndex now = table_->currentIndex();
        if (now.isValid() && model_->line(now.row()).kind == KitKind::part)
            emit likeWanted(QString::fromStdString(model_->line(now.row()).item));
        else
            emit said(tr("Choose the row of a part that yours is like."), true);
    });
    fresh->setObjectName("new-part");
    change->setObjectName("change-part");
    connect(fresh, &QToolButton::clicked, this, [this] { newPart(); });
    connect(change, &QToolButton::clicked, this, qOverload<>(&KitBench::changePart));
    row->addStretch();
    auto *read = button(tr("Read list…"), tr("Parts from a CSV kit list"));
    auto *write = button(tr("Write list…"), tr("The whole kit as CSV"));
    auto *copy = button(tr("Copy"), tr("What the table shows, as CSV"));
    connect(read, &QToolButton::clicked, this, &KitBench::browseList);
    connect(write, &QToolButton::clicked, this, [this] {
        if (const auto saved =
                app::saveTextAsking(this, tr("Write the kit list"), document_.title() + ".csv", tr("CSV (*.csv)"),
                                    writeKitList(document_.build(), document_.analysis().practice)))
            emit said(saved->said, saved->bad);
    });
    connect(copy, &QToolButton::clicked, this, [this] {
        QGuiApplication::clipboard()->setText(model_->asCsv());
        emit said(tr("%n row(s) copied as CSV.", nullptr, model_->rowCount()), false);
    });
    return bar;
}

QWidget *KitBench::makeHead() {
    auto *head = new QWidget;
    auto *column = new QVBoxLayout(head);
    column->setContentsMargins(16, 10, 16, 8);
    column->setSpacing(3);
    auto *row = new QHBoxLayout;
    pieces_ = new QLabel;
    pieces_->setFont(theme_.text(15, true));
    masses_ = new QLabel;
    masses_->setMinimumWidth(80);
    masses_->setWordWrap(true);
    next_ = new QLabel;
    next_->setWordWrap(true);
    next_->setObjectName("weigh-next");
    auto *show = new QComboBox;
    show->setObjectName("kit-show");
    show->setAccessibleName(tr("Rows to show"));
    const std::tuple<Show, QString, QString> filters[] = {
        {Show::all, tr("Everything"), tr("Everything that is needed or in the box")},
        {Show::missing, tr("Missing"), tr("Fewer in hand than needed")},
        {Show::spare, tr("Spare"), tr("More in hand than needed")},
        {Show::uncounted, tr("To count"), tr("Not counted yet")},
        {Show::unweighed, tr("To weigh"), tr("Weight from the catalogue")},
        {Show::marks, tr("To read"), tr("Arrow or pin order not confirmed")}};
    for (const auto &[what, text, tip] : filters) {
        show->addItem(text, int(what));
        show->setItemData(show->count() - 1, tip, Qt::ToolTipRole);
    }
    connect(show, &QComboBox::activated, this, [this, show] { model_->setShow(Show(show->currentData().toInt())); });
    auto *find = new QLineEdit;
    find->setObjectName("kit-find");
    find->setPlaceholderText(tr("Find a part"));
    find->setClearButtonEnabled(true);
    find->setFixedWidth(150);
    connect(find, &QLineEdit::textChanged, model_, &KitModel::setWords);
    row->addWidget(pieces_);
    row->addSpacing(16);
    row->addWidget(masses_, 1);
    row->addWidget(show);
    row->addWidget(find);
    column->addLayout(row);
    column->addWidget(next_);
    return head;
}

void KitBench::refresh() {
    const auto &derived = document_.analysis().derived;
    const KitTotals totals = kitTotals(derived.kit);
    const QLocale locale;
    pieces_->setText(tr("%1 of %2 pieces in hand").arg(totals.piecesInHand).arg(totals.piecesNeeded));
    QStringList words;
    if (totals.piecesMissing > 0) words << tr("%1 missing").arg(totals.piecesMissing);
    if (totals.piecesSpare > 0) words << tr("%1 spare").arg(totals.piecesSpare);
    words << tr("%1 of %2 g weighed")
                 .arg(locale.toString(totals.weighed_g, 'f', 0),
                      locale.toString(totals.weighed_g + totals.unweighed_g, 'f', 0));
    words << tr("%1 of %2 kinds ticked").arg(totals.kindsChecked).arg(totals.kinds);
    masses_->setText(words.join(", "));
    const WeighAdvice advice = weighAdvice(derived.massRows, derived.balance, std::size_t(document_.loadCase()));
    QStringList next;
    for (const auto &entry : advice.next) {
        if (next.size() >= 3) break;
        next << tr("%1 (%2 %)")
                    .arg(QString::fromStdString(displayName(document_.build(), entry.id)))
                    .arg(entry.share / advice.unweighedShare * 100, 0, 'f', 0);
    }
    next_->setText(next.isEmpty()
                       ? tr("Nothing to weigh for the balance.")
                       : tr("%1 g not weighed leave the centre of gravity in doubt by ±%2 mm. Weigh next: %3 of that.")
                             .arg(locale.toString(advice.unweighed_g, 'f', 0),
                                  locale.toString(2 * advice.sigma_mm * std::sqrt(advice.unweighedShare), 'f', 2),
                                  next.join(", ")));
}

void KitBench::resizeEvent(QResizeEvent *event) {
    QWidget::resizeEvent(event);
    constexpr int kRoomForNotes = 800;
    table_->setColumnHidden(note, width() < kRoomForNotes);
}

QString KitBench::summary() const { return pieces_->text() + ", " + masses_->text() + ". " + next_->text(); }

void KitBench::browseList() {
    const QString path = app::askOpenPath(this, tr("Read a kit list"), tr("Lists (*.csv *.tsv *.txt)"));
    if (!path.isEmpty()) readList(path);
}

void KitBench::readList(const QString &path) {
    list_->open(path);
    pages_->setCurrentIndex(1);
}

void KitBench::newPart(PartKind kind) {
    std::string name = tr("New part").toStdString();
    PartType type = freshType(kind, name);
    for (int n = 2; document_.build().types->contains(type.id); ++n)
        type = freshType(kind, name + " " + std::to_string(n));
    editor_->open(type, {});
    pages_->setCurrentIndex(2);
}

void KitBench::changePart() {
    const QModelIndex now = table_->currentIndex();
    if (!now.isValid() || model_->line(now.row()).kind != KitKind::part) {
        emit said(tr("Choose a part in the list first; pieces of the frame are changed in the Frame stage."), false);
        return;
    }
    changePart(model_->line(now.row()).item);
}

void KitBench::changePart(const std::string &id) {
    const auto type = document_.build().types->find(id);
    if (type == document_.build().types->end()) return;
    editor_->open(type->second, id);
    pages_->setCurrentIndex(2);
}

bool KitBench::isEditingPart() const { return pages_->currentIndex() == 2; }

bool KitBench::isReadingList() const { return pages_->currentIndex() == 1; }

} // namespace waxis::kit
