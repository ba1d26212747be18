#include "app/stages/place/library_drawer.h"

#include "core/kit/kit.h"

#include <QComboBox>
#include <QLineEdit>
#include <QLocale>
#include <QMimeData>
#include <QPainter>
#include <QVBoxLayout>

namespace waxis::place {

namespace {

constexpr int kTypeRole = Qt::UserRole;

QPixmap swatch(Family family) {
    QPixmap pixmap(12, 12);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme::familyColor(family));
    painter.drawRoundedRect(1, 1, 10, 10, 2, 2);
    return pixmap;
}

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

} // namespace

QMimeData *TypeList::mimeData(const QList<QListWidgetItem *> &items) const {
    if (items.isEmpty()) return nullptr;
    auto *dragged = new QMimeData;
    dragged->setData(kTypeMime, items.first()->data(kTypeRole).toString().toUtf8());
    return dragged;
}

LibraryDrawer::LibraryDrawer(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setAutoFillBackground(true);
    words_ = new QLineEdit;
    words_->setObjectName("library-words");
    words_->setPlaceholderText(tr("Find a part"));
    words_->setClearButtonEnabled(true);
    family_ = new QComboBox;
    family_->setObjectName("library-family");
    family_->setAccessibleName(tr("Family"));
    family_->addItem(tr("All families"), -1);
    for (int i = 0; i <= int(Family::load); ++i) family_->addItem(swatch(Family(i)), familyTitle(Family(i)), i);
    list_ = new TypeList;
    list_->setObjectName("library-list");
    list_->setAccessibleName(tr("Parts of the library"));
    list_->setDragEnabled(true);
    list_->setDragDropMode(QAbstractItemView::DragOnly);
    list_->setFrameShape(QFrame::NoFrame);
    list_->setUniformItemSizes(true);
    list_->setToolTip(tr("Drag a part onto the mat, or press Enter"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(8, 8, 8, 8);
    column->setSpacing(6);
    column->addWidget(words_);
    column->addWidget(family_);
    column->addWidget(list_, 1);
    connect(words_, &QLineEdit::textChanged, this, &LibraryDrawer::refresh);
    connect(words_, &QLineEdit::returnPressed, this, [this] {
        if (auto *item = list_->currentItem() ? list_->currentItem() : list_->item(0))
            emit chosen(item->data(kTypeRole).toString());
    });
    connect(family_, &QComboBox::activated, this, &LibraryDrawer::refresh);
    connect(list_, &QListWidget::itemActivated, this,
            [this](QListWidgetItem *item) { emit chosen(item->data(kTypeRole).toString()); });
    connect(&document_, &app::Document::opened, this, &LibraryDrawer::refresh);
    refresh();
}

void LibraryDrawer::refresh() {
    const auto words = words_->text().split(' ', Qt::SkipEmptyParts);
    const int family = family_->currentData().toInt();
    list_->clear();
    // The build's own types win over the library's of the same id.
    TypeTable all = document_.library();
    for (const auto &[id, type] : *document_.build().types) all.insert_or_assign(id, type);
    std::vector<const PartType *> order;
    for (const auto &[id, type] : all) order.push_back(&type);
    std::sort(order.begin(), order.end(), [](const PartType *a, const PartType *b) {
        return familyOf(a->kind) != familyOf(b->kind) ? familyOf(a->kind) < familyOf(b->kind) : a->name < b->name;
    });
    const QLocale locale;
    for (const PartType *type : order) {
        if (family >= 0 && int(familyOf(type->kind)) != family) continue;
        const QString name = QString::fromStdString(type->name);
        const QString text = name + " " + QString::fromStdString(type->maker + " " + type->id);
        if (!std::all_of(words.begin(), words.end(),
                         [&](const QString &word) { return text.contains(word, Qt::CaseInsensitive); }))
            continue;
        auto *item = new QListWidgetItem(swatch(familyOf(type->kind)), name);
        item->setData(kTypeRole, QString::fromStdString(type->id));
        const auto size = overallSize_mm(*type);
        item->setToolTip(tr("%1; %2%3")
                             .arg(name,
                                  type->mass_g.known() ? tr("%1 g").arg(locale.toString(*type->mass_g.value, 'f', 1))
                                                       : tr("not weighed"),
                                  size
                                      ? tr(", %1 × %2 × %3 mm")
                                            .arg(locale.toString(size->x(), 'f', 1), locale.toString(size->y(), 'f', 1),
                                                 locale.toString(size->z(), 'f', 1))
                                      : QString()));
        list_->addItem(item);
    }
}

} // namespace waxis::place
