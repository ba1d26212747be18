#include "app/stages/place/outline_panel.h"

#include "core/catalog/kind_words.h"
#include "core/edits/part_edits.h"

#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QTreeWidget>
#include <QVBoxLayout>
#include <map>

namespace waxis::place {

namespace {

enum Column { kName, kEye, kLock, kColumns };
constexpr int kId = Qt::UserRole;

} // namespace

OutlinePanel::OutlinePanel(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("outline");
    setAccessibleName(tr("All things"));
    words_ = new QLineEdit;
    words_->setObjectName("outline-words");
    words_->setPlaceholderText(tr("Find among all things"));
    words_->setAccessibleName(tr("Find among all things"));
    words_->setClearButtonEnabled(true);
    tree_ = new QTreeWidget;
    tree_->setObjectName("outline-tree");
    tree_->setAccessibleName(tr("All things of the craft"));
    tree_->setColumnCount(kColumns);
    tree_->setHeaderLabels({tr("Thing"), tr("seen"), tr("locked")});
    tree_->header()->setStretchLastSection(false);
    tree_->header()->setSectionResizeMode(kName, QHeaderView::Stretch);
    tree_->header()->setSectionResizeMode(kEye, QHeaderView::ResizeToContents);
    tree_->header()->setSectionResizeMode(kLock, QHeaderView::ResizeToContents);
    tree_->setFrameShape(QFrame::NoFrame);
    tree_->setUniformRowHeights(true);
    tree_->setContextMenuPolicy(Qt::CustomContextMenu);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(8, 8, 8, 8);
    column->setSpacing(6);
    column->addWidget(words_);
    column->addWidget(tree_, 1);
    connect(words_, &QLineEdit::textChanged, this, &OutlinePanel::filter);
    connect(tree_, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem *item) {
        if (!filling_ && item && item->data(kName, kId).isValid()) document_.select(item->data(kName, kId).toString());
    });
    connect(tree_, &QTreeWidget::itemChanged, this, &OutlinePanel::clicked);
    connect(tree_, &QTreeWidget::itemDoubleClicked, this, &OutlinePanel::zoomWanted);
    connect(tree_, &QTreeWidget::customContextMenuRequested, this, &OutlinePanel::showMenu);
    connect(&document_, &app::Document::changed, this, [this] {
        if (isVisible() && !document_.isPreviewing()) refresh();
    });
    connect(&document_, &app::Document::opened, this, [this] {
        if (!hidden_.isEmpty()) emit hiddenChanged(hidden_ = {});
    });
    connect(&document_, &app::Document::selectionChanged, this, &OutlinePanel::markChosen);
    tree_->viewport()->setBackgroundRole(QPalette::Window);
    theme_.dress(*this, theme::Ground::panel);
}

void OutlinePanel::begin() {
    words_->setFocus();
    words_->selectAll();
}

void OutlinePanel::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    refresh();
}

void OutlinePanel::refresh() {
    filling_ = true;
    QSet<QString> closed; // groups that somebody folded stay folded
    for (int g = 0; g < tree_->topLevelItemCount(); ++g)
        if (!tree_->topLevelItem(g)->isExpanded()) closed.insert(tree_->topLevelItem(g)->text(kName));
    tree_->clear();
    const Build &build = document_.build();
    std::map<QString, QTreeWidgetItem *> groups;
    const auto group = [&](const QString &name) {
        auto *&item = groups[name];
        if (!item) {
            item = new QTreeWidgetItem(tree_, {name});
            item->setFlags(Qt::ItemIsEnabled);
            QFont bold = theme_.text(12, true);
            item->setFont(kName, bold);
        }
        return item;
    };
    const auto add = [&](const QString &under, const std::string &id, const QString &name,
                         std::optional<bool> locked = {}) {
        auto *item = new QTreeWidgetItem(group(under), {name});
        const QString key = QString::fromStdString(id);
        item->setData(kName, kId, key);
        item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable);
        item->setCheckState(kEye, hidden_.contains(key) ? Qt::Unchecked : Qt::Checked);
        if (locked) item->setCheckState(kLock, *locked ? Qt::Checked : Qt::Unchecked);
        item->setToolTip(kEye, tr("Drawn on the mat"));
        item->setToolTip(kLock, tr("Pinned: neither hand nor cure moves it"));
    };
    const Frame &frame = *build.frame;
    const auto frameNamed = [&](const std::string &id) { return QString::fromStdString(displayName(build, id)); };
    for (const auto &plate : frame.plates) add(tr("Frame"), plate.id, frameNamed(plate.id));
    for (const auto &arm : frame.arms) add(tr("Frame"), arm.id, frameNamed(arm.id));
    for (const auto &post : frame.standoffs) add(tr("Frame"), post.id, frameNamed(post.id));
    for (const auto &screw : frame.screws) add(tr("Frame screws"), screw.id, frameNamed(screw.id));
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        QString kind = type ? QString::fromStdString(std::string(kindName(type->kind))) : tr("unknown");
        if (!kind.isEmpty()) kind[0] = kind[0].toUpper();
        add(kind, part.id, QString::fromStdString(part.name), part.pinned);
    }
    for (const auto &wire : build.wires) add(tr("Wires"), wire.id, QString::fromStdString(wire.name));
    for (int g = 0; g < tree_->topLevelItemCount(); ++g)
        tree_->topLevelItem(g)->setExpanded(!closed.contains(tree_->topLevelItem(g)->text(kName)));
    filling_ = false;
    filter();
    markChosen();
}

void OutlinePanel::filter() {
    const QStringList words = words_->text().simplified().split(' ', Qt::SkipEmptyParts);
    for (int g = 0; g < tree_->topLevelItemCount(); ++g) {
        auto *group = tree_->topLevelItem(g);
        bool any = false;
        for (int i = 0; i < group->childCount(); ++i) {
            const QString text = group->child(i)->text(kName) + ' ' + group->text(kName);
            const bool meant = std::all_of(words.begin(), words.end(), [&](const QString &word) {
                return text.contains(word, Qt::CaseInsensitive);
            });
            group->child(i)->setHidden(!meant);
            any |= meant;
        }
        group->setHidden(!any);
    }
}

void OutlinePanel::clicked(QTreeWidgetItem *item, int column) {
    if (filling_ || !item->data(kName, kId).isValid()) return;
    const QString id = item->data(kName, kId).toString();
    if (column == kEye) setThingsHidden({id}, item->checkState(kEye) == Qt::Unchecked);
    if (column == kLock) lock(id, item->checkState(kLock) == Qt::Checked);
}

void OutlinePanel::setThingsHidden(const QStringList &ids, bool hidden) {
    for (const auto &id : ids) hidden ? void(hidden_.insert(id)) : void(hidden_.remove(id));
    emit hiddenChanged(hidden_);
}

void OutlinePanel::lock(const QString &id, bool locked) {
    const Part *part = findPart(document_.build(), id.toStdString());
    if (!part || part->pinned == locked) return;
    const QString name = locked ? tr("Pin %1") : tr("Unpin %1");
    const auto done = pinPart(document_.build(), part->id, locked);
    // After the click is over: the list is filled anew by the change.
    QMetaObject::invokeMethod(
        this, [this, text = name.arg(QString::fromStdString(part->name)), done] { document_.edit(text, done); },
        Qt::QueuedConnection);
}

void OutlinePanel::showMenu(const QPoint &at) {
    QTreeWidgetItem *item = tree_->itemAt(at);
    QMenu menu(this);
    const auto refill = [this] { QMetaObject::invokeMethod(this, &OutlinePanel::refresh, Qt::QueuedConnection); };
    if (item) {
        QStringList ids;
        if (item->data(kName, kId).isValid()) ids << item->data(kName, kId).toString();
        for (int i = 0; i < item->childCount(); ++i) ids << item->child(i)->data(kName, kId).toString();
        const bool hidden =
            std::all_of(ids.begin(), ids.end(), [&](const QString &id) { return hidden_.contains(id); });
        menu.addAction(hidden ? tr("Show") : tr("Hide"), this, [this, ids, hidden, refill] {
            setThingsHidden(ids, !hidden);
            refill();
        });
        if (ids.size() == 1) menu.addAction(tr("Zoom to it\tZ"), this, &OutlinePanel::zoomWanted);
    }
    menu.addAction(tr("Show everything"), this, [this, refill] {
        hidden_.clear();
        emit hiddenChanged(hidden_);
        refill();
    });
    menu.exec(tree_->viewport()->mapToGlobal(at));
}

void OutlinePanel::markChosen() {
    if (!isVisible()) return;
    filling_ = true;
    for (QTreeWidgetItemIterator it(tree_); *it; ++it)
        if ((*it)->data(kName, kId).isValid() && (*it)->data(kName, kId).toString() == document_.selected())
            tree_->setCurrentItem(*it);
    filling_ = false;
}

} // namespace waxis::place
