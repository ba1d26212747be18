#include "app/shell/build_sheet.h"

#include "app/theme/look.h"
#include "app/theme/metrics.h"
#include "core/edits/case_edits.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include <algorithm>

namespace waxis::app {

namespace {

enum Column { kName, kKind, kPack, kUsb, kOff, kFolded, kColumns };

QString kindWord(LoadCaseKind kind) {
    switch (kind) {
    case LoadCaseKind::flight: return BuildSheet::tr("flight");
    case LoadCaseKind::bench: return BuildSheet::tr("on the ground, powered");
    case LoadCaseKind::carried: return BuildSheet::tr("carried, switched off");
    }
    return {};
}

QLabel *heading(const QString &text, const theme::Theme &theme) {
    auto *label = new QLabel(text);
    label->setFont(theme.text(theme::kHeadPixels, true));
    return label;
}

QTableWidget *table(const char *name, const QString &accessible) {
    auto *made = new QTableWidget;
    made->setObjectName(name);
    made->setAccessibleName(accessible);
    made->verticalHeader()->hide();
    made->setSelectionBehavior(QAbstractItemView::SelectRows);
    made->setSelectionMode(QAbstractItemView::SingleSelection);
    made->verticalHeader()->setDefaultSectionSize(28);
    return made;
}

} // namespace

BuildSheet::BuildSheet(Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("build-sheet");
    setAutoFillBackground(true);
    name_ = new QLineEdit;
    name_->setObjectName("build-name");
    name_->setAccessibleName(tr("Name of the build"));
    note_ = new QPlainTextEdit;
    note_->setObjectName("build-note");
    note_->setAccessibleName(tr("Notes on the build"));
    note_->setPlaceholderText(tr("Notes: whose craft, what for, what is left to do"));
    note_->setMaximumHeight(96);
    note_->setTabChangesFocus(true);
    cases_ = table("load-cases", tr("Load cases"));
    cases_->setColumnCount(kColumns);
    cases_->setHorizontalHeaderLabels(
        {tr("Load case"), tr("what it does"), tr("pack"), tr("USB cable"), tr("switched off"), tr("arms folded")});
    cases_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    for (const Column whole : {kName, kFolded})
        cases_->horizontalHeader()->setSectionResizeMode(whole, QHeaderView::ResizeToContents);
    aboard_ = table("aboard", tr("What is aboard in each load case"));
    aboard_->horizontalHeader()->setTextElideMode(Qt::ElideRight);
    auto *add = new QPushButton(tr("Add a load case"));
    add->setObjectName("add-case");
    remove_ = new QPushButton(tr("Remove"));
    remove_->setObjectName("remove-case");
    show_ = new QPushButton(tr("Show it"));
    show_->setObjectName("show-case");
    more_ = new QComboBox;
    more_->setObjectName("make-optional");
    more_->setAccessibleName(tr("Make a part optional"));
    auto *back = new QPushButton(tr("Back to the bench"));
    back->setObjectName("build-sheet-back");

    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(24, 16, 24, 16);
    column->setSpacing(8);
    auto *top = new QHBoxLayout;
    top->addWidget(heading(tr("The build"), theme_));
    top->addStretch();
    top->addWidget(back);
    column->addLayout(top);
    column->addWidget(name_);
    column->addWidget(note_);
    column->addSpacing(8);
    column->addWidget(heading(tr("Load cases"), theme_));
    column->addWidget(cases_, 2);
    auto *buttons = new QHBoxLayout;
    buttons->addWidget(add);
    buttons->addWidget(remove_);
    buttons->addWidget(show_);
    buttons->addStretch();
    column->addLayout(buttons);
    column->addSpacing(8);
    auto *row = new QHBoxLayout;
    row->addWidget(heading(tr("Optional parts: where they are aboard"), theme_));
    row->addStretch();
    row->addWidget(more_);
    column->addLayout(row);
    column->addWidget(aboard_, 3);

    connect(back, &QPushButton::clicked, this, &BuildSheet::finished);
    connect(name_, &QLineEdit::editingFinished, this, [this] {
        if (!name_->isModified()) return;
        name_->setModified(false);
        if (!document_.edit(tr("Rename the build"),
                            renameBuild(document_.build(), name_->text().trimmed().toStdString())))
            refresh();
    });
    connect(note_, &QPlainTextEdit::textChanged, this, [this] {
        if (!filling_)
            document_.edit(tr("Note on the build"), noteBuild(document_.build(), note_->toPlainText().toStdString()),
                           "build-note");
    });
    connect(cases_, &QTableWidget::cellChanged, this, [this](int r, int c) {
        if (filling_ || c != kName) return;
        const QString name = cases_->item(r, c)->text().trimmed();
        const std::string id = cases_->item(r, c)->data(Qt::UserRole).toString().toStdString();
        const auto renamed = renameLoadCase(document_.build(), id, name.toStdString());
        // After the editor has closed: the table is filled anew.
        QMetaObject::invokeMethod(
            this,
            [this, renamed] {
                document_.edit(tr("Rename a load case"), renamed);
                refresh();
            },
            Qt::QueuedConnection);
    });
    connect(cases_, &QTableWidget::itemSelectionChanged, this, [this] {
        remove_->setEnabled(!chosenCase().isEmpty());
        show_->setEnabled(!chosenCase().isEmpty());
    });
    connect(add, &QPushButton::clicked, this, [this] {
        std::string id;
        const int n = int(document_.build().loadCases.size()) + 1;
        if (document_.edit(tr("Add a load case"),
                           addLoadCase(document_.build(), tr("Load case %1").arg(n).toStdString(), &id)))
            cases_->setCurrentCell(cases_->rowCount() - 1, kName);
    });
    connect(remove_, &QPushButton::clicked, this, [this] {
        document_.edit(tr("Remove a load case"), removeLoadCase(document_.build(), chosenCase().toStdString()));
    });
    connect(show_, &QPushButton::clicked, this, [this] {
        document_.setLoadCase(cases_->currentRow());
        emit finished();
    });
    connect(aboard_, &QTableWidget::itemChanged, this, [this](QTableWidgetItem *item) {
        if (filling_ || item->column() == 0) return;
        const std::string part = aboard_->item(item->row(), 0)->data(Qt::UserRole).toString().toStdString();
        const auto &cases = document_.build().loadCases;
        const auto at = std::size_t(item->column() - 1);
        if (at >= cases.size()) return;
        document_.edit(item->checkState() == Qt::Checked
                           ? tr("Take %1 aboard").arg(aboard_->item(item->row(), 0)->text())
                           : tr("Leave %1 behind").arg(aboard_->item(item->row(), 0)->text()),
                       setAboard(document_.build(), part, cases[at].id, item->checkState() == Qt::Checked));
    });
    connect(more_, &QComboBox::activated, this, [this](int index) {
        const QString id = more_->itemData(index).toString();
        if (id.isEmpty()) return;
        document_.edit(tr("Make %1 optional").arg(more_->itemText(index)),
                       makeOptional(document_.build(), id.toStdString(), true));
    });
    connect(&document_, &Document::changed, this, [this] {
        if (isVisible() && !document_.isPreviewing()) refresh();
    });
    connect(&theme_, &theme::Theme::changed, this, [this] { refresh(); });
}

void BuildSheet::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    refresh();
}

QString BuildSheet::chosenCase() const {
    const auto *item = cases_->currentRow() >= 0 ? cases_->item(cases_->currentRow(), kName) : nullptr;
    return item ? item->data(Qt::UserRole).toString() : QString();
}

void BuildSheet::refresh() {
    filling_ = true;
    if (!name_->hasFocus() || !name_->isModified()) name_->setText(document_.title());
    const QString note = QString::fromStdString(document_.build().note);
    if (note_->toPlainText() != note) note_->setPlainText(note);
    filling_ = false;
    refreshCases();
    refreshAboard();
}

/// What a computer's cable is plugged into, where the case stands on the bench.
QComboBox *BuildSheet::usbBox(const LoadCase &loadCase, const QString &name) {
    const Build &build = document_.build();
    auto *usb = new QComboBox;
    usb->setAccessibleName(tr("USB cable in %1").arg(name));
    usb->setToolTip(tr("A computer or charger on this part's USB socket; the pack is unplugged then."));
    usb->addItem(tr("none"), QString());
    for (const auto &part : build.parts)
        if (takesUsb(build, part.id)) usb->addItem(QString::fromStdString(part.name), QString::fromStdString(part.id));
    usb->setCurrentIndex(std::max(0, usb->findData(QString::fromStdString(loadCase.usb))));
    usb->setEnabled(loadCase.kind == LoadCaseKind::bench || !loadCase.usb.empty());
    connect(usb, &QComboBox::activated, this, [this, usb, id = loadCase.id](int index) {
        document_.edit(tr("USB cable of a load case"),
                       setLoadCaseUsb(document_.build(), id, usb->itemData(index).toString().toStdString()));
    });
    return usb;
}

/// Which parts are switched off while the case lasts.
QPushButton *BuildSheet::offButton(const LoadCase &loadCase, const QString &name) {
    const Build &build = document_.build();
    auto *off = new QPushButton;
    off->setObjectName("off-" + QString::fromStdString(loadCase.id));
    off->setAccessibleName(tr("Switched off in %1").arg(name));
    off->setToolTip(tr("Parts that stay aboard and are switched off: they weigh, draw nothing and send nothing."));
    off->setProperty(theme::kLeft, true);
    auto *menu = new QMenu(off);
    for (const auto &part : build.parts) {
        if (!isAboard(part, loadCase) || !canBeOff(build, part.id)) continue;
        auto *action = menu->addAction(QString::fromStdString(part.name));
        action->setCheckable(true);
        action->setChecked(std::find(loadCase.off.begin(), loadCase.off.end(), part.id) != loadCase.off.end());
        connect(action, &QAction::triggered, this, [this, part = part.id, id = loadCase.id, action](bool isOff) {
            const QString what = isOff ? tr("Switch %1 off") : tr("Switch %1 on");
            document_.edit(what.arg(action->text()), setSwitchedOff(document_.build(), part, id, isOff));
        });
    }
    off->setMenu(menu);
    off->setEnabled(loadCase.kind != LoadCaseKind::carried && !menu->isEmpty());
    const auto &ids = loadCase.off;
    off->setText(loadCase.kind == LoadCaseKind::carried ? tr("all")
                 : ids.empty()                          ? tr("none")
                 : ids.size() == 1                      ? QString::fromStdString(displayName(build, ids.front()))
                                                        : tr("%1 parts").arg(ids.size()));
    return off;
}

void BuildSheet::refreshCases() {
    filling_ = true;
    const int kept = cases_->currentRow();
    const auto &build = document_.build();
    cases_->setRowCount(int(build.loadCases.size()));
    for (int r = 0; r < cases_->rowCount(); ++r) {
        const LoadCase &loadCase = build.loadCases[std::size_t(r)];
        auto *name = new QTableWidgetItem(QString::fromStdString(loadCase.name));
        name->setData(Qt::UserRole, QString::fromStdString(loadCase.id));
        cases_->setItem(r, kName, name);
        auto *kind = new QComboBox;
        kind->setAccessibleName(tr("What %1 does").arg(name->text()));
        for (const auto k : {LoadCaseKind::flight, LoadCaseKind::bench, LoadCaseKind::carried})
            kind->addItem(kindWord(k));
        kind->setCurrentIndex(int(loadCase.kind));
        connect(kind, &QComboBox::activated, this, [this, id = loadCase.id](int index) {
            document_.edit(tr("Kind of a load case"), setLoadCaseKind(document_.build(), id, LoadCaseKind(index)));
        });
        cases_->setCellWidget(r, kKind, kind);
        auto *pack = new QComboBox;
        pack->setAccessibleName(tr("Pack of %1").arg(name->text()));
        pack->addItem(tr("none"), QString());
        for (const auto &part : build.parts)
            if (const PartType *type = typeOf(build, part); type && type->kind == PartKind::battery)
                pack->addItem(QString::fromStdString(part.name), QString::fromStdString(part.id));
        pack->setCurrentIndex(std::max(0, pack->findData(QString::fromStdString(loadCase.battery))));
        connect(pack, &QComboBox::activated, this, [this, pack, id = loadCase.id](int index) {
            document_.edit(tr("Pack of a load case"),
                           setLoadCasePack(document_.build(), id, pack->itemData(index).toString().toStdString()));
        });
        cases_->setCellWidget(r, kPack, pack);
        cases_->setCellWidget(r, kUsb, usbBox(loadCase, name->text()));
        cases_->setCellWidget(r, kOff, offButton(loadCase, name->text()));
        auto *folded = new QCheckBox;
        folded->setAccessibleName(tr("Arms folded in %1").arg(name->text()));
        folded->setChecked(loadCase.folded);
        connect(folded, &QCheckBox::clicked, this, [this, id = loadCase.id](bool on) {
            document_.edit(tr("Fold the arms in a load case"), setLoadCaseFolded(document_.build(), id, on));
        });
        cases_->setCellWidget(r, kFolded, folded);
    }
    if (kept >= 0 && kept < cases_->rowCount()) cases_->setCurrentCell(kept, kName);
    remove_->setEnabled(!chosenCase().isEmpty());
    show_->setEnabled(!chosenCase().isEmpty());
    filling_ = false;
}

void BuildSheet::refreshAboard() {
    filling_ = true;
    const auto &build = document_.build();
    more_->clear();
    more_->addItem(tr("Make a part optional…"));
    std::vector<const Part *> optional;
    for (const auto &part : build.parts)
        if (part.optional)
            optional.push_back(&part);
        else
            more_->addItem(QString::fromStdString(part.name), QString::fromStdString(part.id));
    aboard_->clear();
    aboard_->setColumnCount(int(build.loadCases.size()) + 1);
    QStringList titles{tr("Part")};
    for (const auto &loadCase : build.loadCases) titles << QString::fromStdString(loadCase.name);
    aboard_->setHorizontalHeaderLabels(titles);
    aboard_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    aboard_->setRowCount(int(optional.size()));
    for (int r = 0; r < aboard_->rowCount(); ++r) {
        const Part &part = *optional[std::size_t(r)];
        auto *name = new QTableWidgetItem(QString::fromStdString(part.name));
        name->setData(Qt::UserRole, QString::fromStdString(part.id));
        name->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
        aboard_->setItem(r, 0, name);
        for (std::size_t c = 0; c < build.loadCases.size(); ++c) {
            auto *cell = new QTableWidgetItem;
            cell->setFlags(Qt::ItemIsEnabled | Qt::ItemIsUserCheckable | Qt::ItemIsSelectable);
            cell->setCheckState(isAboard(part, build.loadCases[c]) ? Qt::Checked : Qt::Unchecked);
            aboard_->setItem(r, int(c) + 1, cell);
        }
    }
    filling_ = false;
}

} // namespace waxis::app
