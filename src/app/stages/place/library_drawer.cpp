#include "app/stages/place/library_drawer.h"

#include "app/stages/place/seat_marks.h"
#include "app/stages/place/type_columns.h"
#include "app/theme/metrics.h"
#include "core/catalog/find_types.h"
#include "core/catalog/kind_words.h"
#include "core/placing/fit_here.h"
#include "core/placing/usual_hold.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QLocale>
#include <QMenu>
#include <QMimeData>
#include <QPainter>
#include <QPushButton>
#include <QStyledItemDelegate>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

namespace waxis::place {

namespace {

constexpr int kTypeRole = Qt::UserRole;

QString familyTitle(Family family) {
    switch (family) {
    case Family::power: return LibraryDrawer::tr("Power");
    case Family::control: return LibraryDrawer::tr("Control");
    case Family::radio: return LibraryDrawer::tr("Radio");
    case Family::sensing: return LibraryDrawer::tr("Sensing");
    case Family::imaging: return LibraryDrawer::tr("Imaging");
    case Family::structure: return LibraryDrawer::tr("Structure");
    case Family::load: return LibraryDrawer::tr("Packs");
    }
    return {};
}

QToolButton *chip(const QString &text, const QString &tip, const char *name) {
    auto *button = new QToolButton;
    button->setText(text);
    button->setToolTip(tip);
    button->setCheckable(true);
    button->setObjectName(name);
    button->setAccessibleName(text);
    button->setFocusPolicy(Qt::TabFocus);
    return button;
}

constexpr int kReasonRole = Qt::UserRole + 1;

/// Rows of what does not fit: the name, and why, over all columns.
class ReasonDelegate : public QStyledItemDelegate {
public:
    ReasonDelegate(const theme::Theme &theme, QObject *parent) : QStyledItemDelegate(parent), theme_(theme) {}
    void paint(QPainter *painter, const QStyleOptionViewItem &option, const QModelIndex &index) const override {
        const QString reason = index.data(kReasonRole).toString();
        if (reason.isEmpty()) return QStyledItemDelegate::paint(painter, option, index);
        QStyleOptionViewItem plain = option;
        initStyleOption(&plain, index);
        const bool chosen = option.state & QStyle::State_Selected;
        const QFontMetrics small(theme_.text(theme::kSmallPixels));
        const int wide = std::min(small.horizontalAdvance(reason) + 6, option.rect.width() / 2);
        plain.rect.setWidth(option.rect.width() - wide);
        plain.state &= ~QStyle::State_Selected;
        if (chosen) painter->fillRect(option.rect, option.palette.highlight());
        if (chosen) plain.palette.setColor(QPalette::Text, option.palette.highlightedText().color());
        plain.widget->style()->drawControl(QStyle::CE_ItemViewItem, &plain, painter, plain.widget);
        painter->save();
        painter->setFont(theme_.text(theme::kSmallPixels));
        painter->setPen(chosen ? option.palette.highlightedText().color() : theme_.colors().watch);
        const QRect place(option.rect.right() - wide, option.rect.top(), wide - 2, option.rect.height());
        painter->drawText(place, Qt::AlignRight | Qt::AlignVCenter, small.elidedText(reason, Qt::ElideRight, wide - 4));
        painter->restore();
    }

private:
    const theme::Theme &theme_;
};

QTreeWidgetItem *heading(const QString &text, const theme::Theme &theme) {
    auto *item = new QTreeWidgetItem({text});
    item->setFlags(Qt::ItemIsEnabled);
    item->setFont(0, theme.text(theme::kSmallPixels, true));
    item->setForeground(0, theme.colors().muted);
    return item;
}

} // namespace

QStringList TypeList::types() const {
    QStringList ids;
    for (int i = 0; i < topLevelItemCount(); ++i)
        if (const QString id = topLevelItem(i)->data(0, kTypeRole).toString(); !id.isEmpty()) ids << id;
    return ids;
}

bool TypeList::choose(const QString &type) {
    for (int i = 0; i < topLevelItemCount(); ++i)
        if (topLevelItem(i)->data(0, kTypeRole).toString() == type) {
            setCurrentItem(topLevelItem(i));
            return true;
        }
    return false;
}

QMimeData *TypeList::mimeData(const QList<QTreeWidgetItem *> &items) const {
    if (items.isEmpty() || items.first()->data(0, kTypeRole).toString().isEmpty()) return nullptr;
    auto *dragged = new QMimeData;
    dragged->setData(kTypeMime, items.first()->data(0, kTypeRole).toString().toUtf8());
    return dragged;
}

LibraryDrawer::LibraryDrawer(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setAutoFillBackground(true);
    words_ = new QLineEdit;
    words_->setObjectName("library-words");
    words_->setAccessibleName(tr("Find a part"));
    words_->setPlaceholderText(tr("Find a part: prop 5, 30.5, 6S, 868…"));
    words_->setClearButtonEnabled(true);
    words_->installEventFilter(this);
    count_ = new QLabel;
    count_->setObjectName("library-count");
    count_->setFont(theme_.text(theme::kSmallPixels));
    family_ = new QComboBox;
    family_->setObjectName("library-family");
    family_->setAccessibleName(tr("Family"));
    family_->addItem(tr("All families"), -1);
    for (int i = 0; i <= int(Family::load); ++i)
        family_->addItem(theme::swatch(theme::familyColor(Family(i))), familyTitle(Family(i)), i);
    fits_ = chip(tr("fits here"), tr("Only what fits this build"), "library-fits");
    mine_ = chip(tr("mine"), tr("Only parts of your own"), "library-mine");
    only_ = chip(QString(), tr("Only parts of this kind; press to see all again"), "library-kind");
    only_->setCheckable(false);
    only_->hide();
    list_ = new TypeList;
    list_->setObjectName("library-list");
    list_->setAccessibleName(tr("Parts of the library"));
    list_->setDragEnabled(true);
    list_->setDragDropMode(QAbstractItemView::DragOnly);
    list_->setFrameShape(QFrame::NoFrame);
    list_->setRootIsDecorated(false);
    list_->setUniformRowHeights(true);
    list_->setIndentation(0);
    list_->setTextElideMode(Qt::ElideRight);
    list_->setToolTip(tr("Drag a part onto the mat, or press Enter to seat it"));
    list_->setItemDelegate(new ReasonDelegate(theme_, list_));
    list_->installEventFilter(this);
    placesTitle_ = new QLabel;
    placesTitle_->setFont(theme_.text(theme::kSmallPixels, true));
    places_ = new QListWidget;
    places_->setObjectName("library-places");
    places_->setAccessibleName(tr("Where it could sit, best first"));
    places_->setFrameShape(QFrame::NoFrame);
    places_->setMaximumHeight(116);
    places_->installEventFilter(this);
    seat_ = new QPushButton;
    seat_->setObjectName("library-seat");
    seat_->setMinimumHeight(32);
    all_ = new QPushButton;
    all_->setObjectName("library-all");
    all_->hide();
    like_ = new QPushButton(tr("Like this one, but…"));
    like_->setObjectName("library-like");
    like_->setToolTip(tr("A part of your own: a few numbers, the rest as here"));
    own_ = new QPushButton(tr("Own part…"));
    own_->setObjectName("library-own");

    auto *head = new QHBoxLayout;
    head->setSpacing(6);
    head->addWidget(words_, 1);
    auto *chips = new QHBoxLayout;
    chips->setSpacing(4);
    chips->addWidget(fits_);
    chips->addWidget(mine_);
    chips->addWidget(only_);
    chips->addStretch();
    chips->addWidget(count_);
    auto *buttons = new QHBoxLayout;
    buttons->setSpacing(6);
    buttons->addWidget(like_);
    buttons->addWidget(own_);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(8, 8, 8, 8);
    column->setSpacing(6);
    column->addLayout(head);
    column->addWidget(family_);
    column->addLayout(chips);
    column->addWidget(list_, 1);
    column->addWidget(placesTitle_);
    column->addWidget(places_);
    column->addWidget(seat_);
    column->addWidget(all_);
    column->addLayout(buttons);

    connect(words_, &QLineEdit::textChanged, this, [this] { refresh(true); }); // other words, another part
    connect(words_, &QLineEdit::returnPressed, this, &LibraryDrawer::act);
    connect(family_, &QComboBox::activated, this, [this] { refresh(); });
    connect(fits_, &QToolButton::toggled, this, [this] { refresh(); });
    connect(mine_, &QToolButton::toggled, this, [this] { refresh(); });
    connect(only_, &QToolButton::clicked, this, [this] { replace({}); });
    connect(list_, &QTreeWidget::currentItemChanged, this, &LibraryDrawer::fillPlaces);
    connect(list_, &QTreeWidget::itemDoubleClicked, this, &LibraryDrawer::act);
    list_->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(list_, &QWidget::customContextMenuRequested, this, &LibraryDrawer::showMenu);
    connect(places_, &QListWidget::currentRowChanged, this, [this](int row) {
        if (row >= 0 && row < int(offered_.size()))
            seat_->setText(tr("Seat it %1     Enter").arg(placesWords(document_.build(), offered_[std::size_t(row)])));
        emit looked();
    });
    connect(places_, &QListWidget::itemDoubleClicked, this, &LibraryDrawer::act);
    connect(seat_, &QPushButton::clicked, this, &LibraryDrawer::act);
    connect(all_, &QPushButton::clicked, this, [this] {
        if (!replaces_.isEmpty() && !chosenType().isEmpty()) emit replaceWanted(replaces_, chosenType(), true);
    });
    connect(like_, &QPushButton::clicked, this, [this] { emit likeWanted(chosenType()); });
    connect(own_, &QPushButton::clicked, this, &LibraryDrawer::ownWanted);
    connect(&document_, &app::Document::opened, this, [this] { replace({}); });
    connect(&document_, &app::Document::changed, this, [this] {
        if (document_.isPreviewing() || !isVisible()) return;
        refresh(); // what fits, and where, follows the build
    });
    refresh();
}

const PartType *LibraryDrawer::typeNamed(const QString &id) const {
    const auto own = document_.build().types->find(id.toStdString());
    if (own != document_.build().types->end()) return &own->second;
    const auto shipped = document_.library().find(id.toStdString());
    return shipped == document_.library().end() ? nullptr : &shipped->second;
}

void LibraryDrawer::replace(const QString &part) {
    replaces_ = part;
    const Part *now = findPart(document_.build(), part.toStdString());
    const PartType *type = now ? typeOf(document_.build(), *now) : nullptr;
    if (!type) replaces_.clear();
    only_->setVisible(type != nullptr);
    if (type) {
        const auto name = kindName(type->kind);
        only_->setText(tr("%1 ✕").arg(QString::fromUtf8(name.data(), qsizetype(name.size()))));
        only_->setProperty("kind", int(type->kind));
        words_->clear();
        family_->setCurrentIndex(0);
    }
    refresh();
    if (!type) return;
    // What stands there now, unless it is wrong there: then the first that fits.
    const bool wrong = misfit(document_.build(), *type, document_.library(), part.toStdString()).has_value();
    const QString first =
        list_->topLevelItemCount() ? list_->topLevelItem(0)->data(0, kTypeRole).toString() : QString();
    list_->choose(wrong && !first.isEmpty() ? first : QString::fromStdString(type->id));
}

void LibraryDrawer::refresh(bool best) {
    const QString kept = best ? QString() : chosenType();
    // The build's own types win over the library's of the same id.
    TypeTable all = document_.library();
    for (const auto &[id, type] : *document_.build().types) all.insert_or_assign(id, type);
    const auto rows = rowsOf(all);
    std::optional<PartKind> kind = rows.empty() ? std::nullopt : std::optional(rows.front().type->kind);
    for (const auto &row : rows)
        if (row.type->kind != kind) kind.reset();
    const auto columns = typeColumns(kind);
    const QSignalBlocker quiet(list_);
    list_->clear();
    list_->setColumnCount(int(columns.size()) + 1);
    QStringList titles{tr("name")};
    for (const auto &column : columns) titles << column.title;
    list_->setHeaderLabels(titles);
    bool said = false;
    int fitting = 0;
    for (const auto &row : rows) {
        if (row.why && !said) {
            auto *title = heading(tr("does not fit here"), theme_);
            list_->addTopLevelItem(title);
            title->setFirstColumnSpanned(true); // only once it is in the list
        }
        said = said || row.why;
        fitting += !row.why;
        addRow(row, columns);
    }
    sizeColumns();
    const QString kinds = tr("%n kind(s)", nullptr, int(rows.size()));
    count_->setText(rows.size() == std::size_t(fitting) ? kinds : tr("%1, %2 fit").arg(kinds).arg(fitting));
    if (!list_->choose(kept) && !rows.empty()) list_->choose(QString::fromStdString(rows.front().type->id));
    fillPlaces();
}

std::vector<LibraryDrawer::Row> LibraryDrawer::rowsOf(const TypeTable &all) const {
    const int family = family_->currentData().toInt();
    std::vector<std::string> words;
    for (const auto &word : words_->text().split(' ', Qt::SkipEmptyParts)) words.push_back(word.toStdString());
    const std::optional<PartKind> wantedKind =
        replaces_.isEmpty() ? std::nullopt : std::optional(PartKind(only_->property("kind").toInt()));
    std::vector<Row> rows;
    for (const PartType *type : findTypes(all, words)) {
        if (family >= 0 && int(familyOf(type->kind)) != family) continue;
        if (wantedKind && type->kind != *wantedKind) continue;
        const bool own = document_.isOwnType(type->id);
        if (mine_->isChecked() && !own) continue;
        auto why = misfit(document_.build(), *type, document_.library(), replaces_.toStdString());
        if (why && fits_->isChecked()) continue;
        rows.push_back({type, std::move(why), own});
    }
    // What fits first, one's own before the shipped ones; within that the order of the search.
    std::stable_sort(rows.begin(), rows.end(),
                     [](const Row &a, const Row &b) { return bool(a.why) != bool(b.why) ? !a.why : a.own && !b.own; });
    return rows;
}

void LibraryDrawer::addRow(const Row &row, const std::vector<TypeColumn> &columns) {
    const auto &[type, why, own] = row;
    auto *item = new QTreeWidgetItem;
    const QString name = QString::fromStdString(type->name);
    // The maker stands in the tip: what tells parts apart needs the room.
    const QString maker = QString::fromStdString(type->maker) + ' ';
    const QString brief = maker.size() > 1 && name.startsWith(maker) ? name.mid(maker.size()) : name;
    item->setText(0, own ? tr("Own: %1").arg(name) : brief);
    item->setIcon(0, theme::swatch(theme::familyColor(familyOf(type->kind))));
    item->setData(0, kTypeRole, QString::fromStdString(type->id));
    item->setToolTip(0, name + QStringLiteral("\n") + typeInLine(*type));
    if (why) {
        const QString reason = QString::fromStdString(why->text());
        item->setForeground(0, theme_.colors().muted);
        item->setData(0, kReasonRole, reason);
        item->setToolTip(0, item->toolTip(0) + QStringLiteral("\n") + reason);
        list_->addTopLevelItem(item);
        item->setFirstColumnSpanned(true);
        return;
    }
    for (std::size_t i = 0; i < columns.size(); ++i) {
        item->setText(int(i) + 1, columns[i].text(*type));
        item->setTextAlignment(int(i) + 1, Qt::AlignRight | Qt::AlignVCenter);
        item->setFont(int(i) + 1, theme_.numbers(theme::kSmallPixels));
    }
    list_->addTopLevelItem(item);
}

void LibraryDrawer::sizeColumns() {
    list_->header()->setStretchLastSection(false);
    list_->header()->setMinimumSectionSize(24);
    list_->header()->setResizeContentsPrecision(0); // by what is seen: measuring hundreds of types takes long
    for (int i = 0; i < list_->columnCount(); ++i)
        list_->header()->setSectionResizeMode(i, i == 0 ? QHeaderView::Stretch : QHeaderView::ResizeToContents);
}

QString LibraryDrawer::chosenType() const {
    return list_->currentItem() ? list_->currentItem()->data(0, kTypeRole).toString() : QString();
}

std::vector<Perch> LibraryDrawer::chosenPlaces() const {
    const int row = places_->currentRow();
    return row >= 0 && row < int(offered_.size()) ? offered_[std::size_t(row)] : std::vector<Perch>{};
}

void LibraryDrawer::fillPlaces() {
    const PartType *type = typeNamed(chosenType());
    const bool searching = isVisible() && (!words_->text().isEmpty() || !replaces_.isEmpty() || list_->hasFocus());
    const QSignalBlocker quiet(places_);
    places_->clear();
    offered_.clear();
    like_->setEnabled(type != nullptr);
    seat_->setEnabled(type != nullptr);
    all_->hide();
    if (!replaces_.isEmpty()) {
        placesTitle_->hide();
        places_->hide();
        const std::string name = displayName(document_.build(), replaces_.toStdString());
        seat_->setText(tr("Use it instead     Enter"));
        seat_->setToolTip(tr("Instead of %1").arg(QString::fromStdString(name)));
        const Part *old = findPart(document_.build(), replaces_.toStdString());
        int alike = 0;
        for (const auto &part : document_.build().parts) alike += old && part.type == old->type;
        all_->setVisible(alike > 1);
        all_->setText(tr("Instead of all %1 of its type").arg(alike));
        emit looked();
        return;
    }
    if (type && searching) {
        const auto all = perchesFor(document_.build(), *type, document_.library());
        constexpr std::size_t kMost = 12;
        std::vector<PerchKind> together;
        for (const auto &perch : all) {
            if (offered_.size() >= kMost) break;
            const auto alike = alikeTo(perch, all);
            if (alike.size() > 1 && std::find(together.begin(), together.end(), perch.kind) == together.end()) {
                together.push_back(perch.kind);
                offered_.push_back(alike);
            }
            offered_.push_back({perch});
        }
        for (const auto &places : offered_) places_->addItem(placesWords(document_.build(), places));
    }
    placesTitle_->setVisible(!offered_.empty());
    places_->setVisible(!offered_.empty());
    placesTitle_->setText(tr("it could sit"));
    if (!offered_.empty()) {
        places_->setCurrentRow(0);
        seat_->setText(tr("Seat it %1     Enter").arg(placesWords(document_.build(), offered_.front())));
    } else {
        const bool onMotor = type && (type->kind == PartKind::propeller || isPropellerNut(*type));
        const bool onMount = type && type->kind == PartKind::motor;
        seat_->setEnabled(type && !(searching && (onMotor || onMount)));
        seat_->setText(!type                  ? tr("Nothing chosen")
                       : searching && onMotor ? tr("No free motor to put it on")
                       : searching && onMount ? tr("No free motor mount")
                                              : tr("Lay it on the mat     Enter"));
    }
    emit looked();
}

void LibraryDrawer::showMenu(const QPoint &at) {
    if (auto *item = list_->itemAt(at); item && !item->data(0, kTypeRole).toString().isEmpty())
        list_->setCurrentItem(item);
    const QString type = chosenType();
    if (type.isEmpty()) return;
    list_->setFocus(); // so that its places are worked out
    fillPlaces();
    QMenu menu(this);
    if (!replaces_.isEmpty()) {
        menu.addAction(tr("Use it instead\tEnter"), this, &LibraryDrawer::act);
        if (!all_->isHidden()) menu.addAction(all_->text(), all_, &QPushButton::click);
    }
    for (const auto &places : offered_)
        menu.addAction(tr("Seat it %1").arg(placesWords(document_.build(), places)), this,
                       [this, type, places] { emit seatWanted(type, places); });
    if (replaces_.isEmpty() && offered_.empty() && seat_->isEnabled())
        menu.addAction(tr("Lay it on the mat"), this, [this, type] { emit chosen(type); });
    const Part *selected = document_.selectedPart();
    if (selected && replaces_.isEmpty()) {
        const QString id = QString::fromStdString(selected->id);
        menu.addAction(tr("In the place of %1").arg(QString::fromStdString(selected->name)), this,
                       [this, type, id] { emit replaceWanted(id, type, false); });
    }
    menu.addSeparator();
    menu.addAction(like_->text(), like_, &QPushButton::click);
    menu.addAction(own_->text(), own_, &QPushButton::click);
    menu.exec(list_->viewport()->mapToGlobal(at));
}

void LibraryDrawer::act() {
    const QString type = chosenType();
    if (type.isEmpty() || !seat_->isEnabled()) return;
    if (!replaces_.isEmpty()) {
        emit replaceWanted(replaces_, type, false);
        return;
    }
    if (offered_.empty()) fillPlaces();
    const auto places = chosenPlaces();
    if (places.empty())
        emit chosen(type);
    else
        emit seatWanted(type, places);
}

bool LibraryDrawer::eventFilter(QObject *watched, QEvent *event) {
    if (event->type() != QEvent::KeyPress) return QWidget::eventFilter(watched, event);
    const auto *key = static_cast<QKeyEvent *>(event);
    const bool enter = key->key() == Qt::Key_Return || key->key() == Qt::Key_Enter;
    if (watched == words_ && (key->key() == Qt::Key_Down || key->key() == Qt::Key_Up)) { // the list, without leaving
        QCoreApplication::sendEvent(list_, event);
        return true;
    }
    if (watched == words_ && key->key() == Qt::Key_Right && words_->cursorPosition() == words_->text().size() &&
        places_->isVisible()) {
        places_->setFocus();
        return true;
    }
    if ((watched == list_ || watched == places_) && enter) {
        act();
        return true;
    }
    if (watched == places_ && (key->key() == Qt::Key_Left || key->key() == Qt::Key_Escape)) {
        words_->setFocus();
        return true;
    }
    return QWidget::eventFilter(watched, event);
}

} // namespace waxis::place
