#include "app/stages/kit/own_parts_dialog.h"

#include "app/document/data_files.h"
#include "app/widgets/file_dialogs.h"
#include "core/catalog/kind_words.h"
#include "io/file_bytes.h"
#include "io/project/project_file.h"
#include "io/text_encoding.h"

#include <QApplication>
#include <QClipboard>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QMenu>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTabWidget>
#include <QTableWidget>
#include <QVBoxLayout>
#include <algorithm>

namespace waxis::kit {

namespace {

constexpr int kId = Qt::UserRole;

QString kindText(PartKind kind) { return QString::fromStdString(std::string(kindName(kind))); }

QTableWidget *table(const QStringList &heads, const QString &name) {
    auto *widget = new QTableWidget(0, int(heads.size()));
    widget->setAccessibleName(name);
    widget->setHorizontalHeaderLabels(heads);
    widget->verticalHeader()->hide();
    widget->verticalHeader()->setDefaultSectionSize(24);
    widget->setShowGrid(false);
    widget->setSelectionBehavior(QAbstractItemView::SelectRows);
    widget->setEditTriggers(QAbstractItemView::NoEditTriggers);
    widget->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    widget->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    return widget;
}

void put(QTableWidget &widget, int row, int column, const QString &text) {
    widget.setItem(row, column, new QTableWidgetItem(text));
}

QString grams(const PartType &type) {
    return type.mass_g.value ? QLocale().toString(*type.mass_g.value, 'g', 4) : QStringLiteral("–");
}

} // namespace

OwnPartsDialog::OwnPartsDialog(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QDialog(parent), document_(document), theme_(theme) {
    setObjectName("own-parts");
    setWindowTitle(tr("My parts"));
    resize(780, 520);
    own_ = table({tr("Part"), tr("kind"), tr("g"), tr("in this build")}, tr("My parts"));
    own_->setObjectName("own-parts-table");
    count_ = new QLabel;
    auto *like = new QPushButton(tr("Like this one…"));
    auto *give = new QPushButton(tr("Pass on…"));
    give->setObjectName("own-pass-on");
    give->setToolTip(tr("The chosen parts, or all of them, as a file for somebody else"));
    auto *take = new QPushButton(tr("Take in a file…"));
    take->setObjectName("own-take-in");
    out_ = new QPushButton(tr("Take out"));
    out_->setObjectName("own-take-out");
    out_->setToolTip(tr("The chosen parts, out of your library; builds keep those that they use"));
    back_ = new QPushButton(tr("Put back"));
    back_->setObjectName("own-put-back");
    back_->hide();
    auto *ownButtons = new QHBoxLayout;
    ownButtons->addWidget(count_, 1);
    for (auto *button : {back_, out_, like, give, take}) ownButtons->addWidget(button);
    own_->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(own_, &QWidget::customContextMenuRequested, this, &OwnPartsDialog::showMenu);
    connect(out_, &QPushButton::clicked, this, [this] { takeOut(chosen()); });
    connect(back_, &QPushButton::clicked, this, &OwnPartsDialog::putBack);
    auto *ownPage = new QWidget;
    auto *ownColumn = new QVBoxLayout(ownPage);
    ownColumn->addWidget(own_, 1);
    ownColumn->addLayout(ownButtons);

    text_ = new QPlainTextEdit;
    text_->setObjectName("own-pasted");
    text_->setAccessibleName(tr("Pasted table"));
    text_->setFont(theme_.numbers(12));
    text_->setPlaceholderText(tr("Paste a table here. Heads in the first line, a part in each line below:\n"
                                 "name, kind, like, grams, length, width, height, connectors\n"
                                 "My receiver, receiver, , 2.1, 18, 12, 4, 5V GND TX RX / coax SMA\n"
                                 "My motor, , motor 2207, 31.5"));
    rows_ = table({tr("Part"), tr("kind"), tr("like"), tr("g"), tr("what is wrong")}, tr("What comes of it"));
    rows_->setObjectName("own-pasted-rows");
    problem_ = new QLabel;
    problem_->setObjectName("own-pasted-problem");
    problem_->setWordWrap(true);
    keep_ = new QPushButton;
    keep_->setObjectName("own-keep-pasted");
    auto *read = new QPushButton(tr("From a file…"));
    read->setObjectName("own-read-table");
    read->setToolTip(tr("A table as CSV, in place of what is pasted"));
    connect(read, &QPushButton::clicked, this, [this] {
        const QString path = app::askOpenPath(this, tr("Read a table of parts"), tr("Tables (*.csv *.tsv *.txt)"));
        QString problem;
        if (!path.isEmpty() && !readTable(path, problem)) emit said(tr("Not read: %1").arg(problem), true);
    });
    auto *pasteButtons = new QHBoxLayout;
    pasteButtons->addWidget(read);
    pasteButtons->addStretch();
    pasteButtons->addWidget(keep_);
    auto *pasteColumn = new QVBoxLayout;
    pasteColumn->addWidget(text_, 2);
    pasteColumn->addWidget(rows_, 3);
    pasteColumn->addWidget(problem_);
    pasteColumn->addLayout(pasteButtons);
    auto *pastePage = new QWidget;
    pastePage->setLayout(pasteColumn);

    pages_ = new QTabWidget;
    pages_->addTab(ownPage, tr("Kept"));
    pages_->addTab(pastePage, tr("From a table"));
    auto *column = new QVBoxLayout(this);
    column->addWidget(pages_);

    connect(text_, &QPlainTextEdit::textChanged, this, &OwnPartsDialog::readPasted);
    connect(keep_, &QPushButton::clicked, this, &OwnPartsDialog::keepPasted);
    connect(like, &QPushButton::clicked, this, [this] {
        const QStringList ids = chosen();
        if (!ids.isEmpty()) emit likeWanted(ids.front());
    });
    connect(give, &QPushButton::clicked, this, [this] {
        const QString path =
            app::askSavePath(this, tr("Pass parts on"), tr("parts.json"), tr("Part libraries (*.json)"));
        if (path.isEmpty()) return;
        QString problem;
        const bool written = passOn(path, chosen(), problem);
        emit said(written ? tr("Written to %1.").arg(path) : tr("Not written: %1").arg(problem), !written);
    });
    connect(take, &QPushButton::clicked, this, [this] {
        const QString path = app::askOpenPath(this, tr("Take in parts"), tr("Part libraries (*.json)"));
        if (path.isEmpty()) return;
        QString problem;
        const int taken = takeIn(path, problem);
        emit said(taken >= 0 ? tr("%n part(s) taken among yours.", nullptr, taken)
                             : tr("Not taken in: %1").arg(problem),
                  taken < 0);
    });
    fill();
    readPasted();
}

void OwnPartsDialog::paste() {
    pages_->setCurrentIndex(1);
    const QString clipboard = QApplication::clipboard()->text();
    if (text_->toPlainText().isEmpty() && clipboard.contains('\n')) text_->setPlainText(clipboard);
    text_->setFocus();
}

bool OwnPartsDialog::readTable(const QString &path, QString &problem) {
    constexpr std::size_t kMost = 4 << 20; // some ten thousand parts
    const auto bytes = io::readFile(path.toStdString(), kMost);
    if (!bytes) {
        problem = QString::fromStdString(bytes.error());
        return false;
    }
    pages_->setCurrentIndex(1);
    text_->setPlainText(QString::fromStdString(io::asUtf8(*bytes)));
    return true;
}

void OwnPartsDialog::fill() {
    std::vector<const PartType *> types;
    for (const auto &[id, type] : document_.library())
        if (document_.isOwnType(id)) types.push_back(&type);
    own_->setRowCount(int(types.size()));
    for (int r = 0; r < own_->rowCount(); ++r) {
        const PartType &type = *types[std::size_t(r)];
        put(*own_, r, 0, QString::fromStdString(type.name));
        put(*own_, r, 1, kindText(type.kind));
        put(*own_, r, 2, grams(type));
        const auto used = std::count_if(document_.build().parts.begin(), document_.build().parts.end(),
                                        [&](const Part &part) { return part.type == type.id; });
        put(*own_, r, 3, used ? QString::number(used) : QStringLiteral("–"));
        own_->item(r, 0)->setData(kId, QString::fromStdString(type.id));
    }
    back_->setVisible(!takenOut_.empty());
    out_->setEnabled(!types.empty());
    count_->setText(types.empty() ? tr("None yet: \"Like this one\" on any part makes the first.")
                                  : tr("%n part(s) of your own", nullptr, int(types.size())));
}

QStringList OwnPartsDialog::chosen() const {
    QStringList ids;
    for (const auto &index : own_->selectionModel()->selectedRows())
        ids << own_->item(index.row(), 0)->data(kId).toString();
    return ids;
}

bool OwnPartsDialog::passOn(const QString &path, const QStringList &ids, QString &problem) const {
    PartLibrary library;
    library.name = "Parts passed on";
    for (const auto &[id, type] : document_.library())
        if (document_.isOwnType(id) && (ids.isEmpty() || ids.contains(QString::fromStdString(id))))
            library.types.emplace(id, type);
    if (library.types.empty()) {
        problem = tr("there are no parts of your own yet");
        return false;
    }
    problem = QString::fromStdString(saveLibrary(path.toStdString(), library));
    return problem.isEmpty();
}

int OwnPartsDialog::takeIn(const QString &path, QString &problem) {
    const auto library = loadLibrary(path.toStdString());
    if (!library) {
        problem = QString::fromStdString(library.error().text());
        return -1;
    }
    std::vector<PartType> types;
    for (const auto &[id, type] : library->types) types.push_back(type);
    if (!app::keepInOwnLibrary(types, problem)) return -1;
    for (const auto &type : types) document_.addOwnType(type);
    fill();
    return int(types.size());
}

void OwnPartsDialog::takeOut(const QStringList &ids) {
    std::vector<PartType> out;
    std::set<std::string> names;
    for (const auto &[id, type] : document_.library())
        if (document_.isOwnType(id) && ids.contains(QString::fromStdString(id))) {
            out.push_back(type);
            names.insert(id);
        }
    if (out.empty()) return;
    QString problem;
    if (!app::removeFromOwnLibrary(names, problem)) {
        emit said(tr("Not taken out: %1").arg(problem), true);
        return;
    }
    takenOut_ = std::move(out);
    // What it covered, a shipped type of the same id, is seen again.
    QStringList problems;
    std::set<std::string> own;
    TypeTable library = app::partLibrary(problems, &own);
    document_.setLibrary(std::move(library), std::move(own));
    fill();
}

void OwnPartsDialog::putBack() {
    QString problem;
    if (!app::keepInOwnLibrary(takenOut_, problem)) {
        emit said(tr("Not put back: %1").arg(problem), true);
        return;
    }
    for (const auto &type : takenOut_) document_.addOwnType(type);
    takenOut_.clear();
    fill();
}

void OwnPartsDialog::showMenu(const QPoint &at) {
    const QStringList ids = chosen();
    QMenu menu(this);
    QAction *like = menu.addAction(tr("Like this one…"), this, [this, ids] { emit likeWanted(ids.front()); });
    QAction *out = menu.addAction(tr("Take out"), this, [this, ids] { takeOut(ids); });
    like->setEnabled(ids.size() == 1);
    out->setEnabled(!ids.isEmpty());
    if (!takenOut_.empty()) menu.addAction(tr("Put back"), this, &OwnPartsDialog::putBack);
    menu.exec(own_->viewport()->mapToGlobal(at));
}

void OwnPartsDialog::readPasted() {
    pasted_ = typesFromTable(text_->toPlainText().toStdString(), document_.library(), *document_.build().types);
    int good = 0;
    rows_->setRowCount(int(pasted_.rows.size()));
    for (int r = 0; r < rows_->rowCount(); ++r) {
        const PastedRow &row = pasted_.rows[std::size_t(r)];
        good += row.problems.empty();
        put(*rows_, r, 0, QString::fromStdString(row.type.name));
        put(*rows_, r, 1, kindText(row.type.kind));
        put(*rows_, r, 2, QString::fromStdString(row.model));
        put(*rows_, r, 3, grams(row.type));
        QStringList problems;
        for (const auto &problem : row.problems) problems << QString::fromStdString(problem);
        put(*rows_, r, 4, problems.join(' '));
    }
    QStringList said;
    if (!pasted_.problem.empty() && !text_->toPlainText().trimmed().isEmpty())
        said << QString::fromStdString(pasted_.problem);
    if (!pasted_.unknownColumns.empty()) {
        QStringList heads;
        for (const auto &head : pasted_.unknownColumns) heads << QString::fromStdString(head);
        said << tr("Not read: %1.").arg(heads.join(QStringLiteral(", ")));
    }
    problem_->setText(said.join('\n'));
    keep_->setText(tr("Keep %n part(s)", nullptr, good));
    keep_->setEnabled(good > 0);
}

void OwnPartsDialog::keepPasted() {
    std::vector<PartType> types;
    for (const auto &row : pasted_.rows)
        if (row.problems.empty()) types.push_back(row.type);
    QString problem;
    if (!app::keepInOwnLibrary(types, problem)) {
        emit said(tr("Not kept in your parts: %1").arg(problem), true);
        return;
    }
    for (const auto &type : types) document_.addOwnType(type);
    emit said(tr("%n part(s) taken among yours.", nullptr, int(types.size())), false);
    fill();
    text_->clear();
    pages_->setCurrentIndex(0);
}

} // namespace waxis::kit
