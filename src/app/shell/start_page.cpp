#include "app/shell/start_page.h"

#include "app/document/data_files.h"
#include "app/theme/look.h"
#include "app/theme/metrics.h"

#include <QApplication>
#include <QClipboard>
#include <QCryptographicHash>
#include <QDesktopServices>
#include <QDir>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QStandardPaths>
#include <QUrl>
#include <QVBoxLayout>

namespace waxis::app {

namespace {

constexpr QSize kPicture(96, 60);

QString pictureFile(const QString &file) {
    const QByteArray name =
        QCryptographicHash::hash(QFileInfo(file).absoluteFilePath().toUtf8(), QCryptographicHash::Sha1);
    return QStandardPaths::writableLocation(QStandardPaths::GenericCacheLocation) + "/weightaxis/pictures/" +
           QString::fromLatin1(name.toHex()) + ".png";
}

/// What a shipped demo is, in few words.
QString demoWords(const QString &file) {
    const QString name = QFileInfo(file).completeBaseName();
    if (name == "stakewalker") return StartPage::tr("7-inch quad, camera and GPS");
    if (name == "kilnlamp") return StartPage::tr("folding hexacopter, 17-inch");
    if (name == "sedge-tri") return StartPage::tr("tricopter with a tail servo");
    if (name == "owlbox-mini") return StartPage::tr("3-inch quad under 250 g");
    return {};
}

} // namespace

QImage keptPicture(const QString &file) { return QImage(pictureFile(file)); }

void keepPicture(const QString &file, const QImage &picture) {
    const QString place = pictureFile(file);
    if (QDir().mkpath(QFileInfo(place).absolutePath()))
        picture.scaled(2 * kPicture, Qt::KeepAspectRatioByExpanding, Qt::SmoothTransformation).save(place);
}

StartPage::StartPage(const theme::Theme &theme, QWidget *parent) : QWidget(parent), theme_(theme) {
    auto *page = new QVBoxLayout(this);
    page->setContentsMargins(40, 28, 40, 24);
    page->setSpacing(16);
    auto *title = new QLabel(tr("Decide where every part mounts, before anything is soldered."));
    title->setFont(theme_.text(20, true));
    title->setWordWrap(true);
    page->addWidget(title);
    auto *row = new QHBoxLayout;
    row->setSpacing(48);
    auto column = [&](int stretch) {
        auto *holder = new QWidget;
        holder->setMinimumWidth(300);
        holder->setMaximumWidth(520);
        auto *made = new QVBoxLayout(holder);
        made->setContentsMargins(0, 0, 0, 0);
        made->setSpacing(6);
        row->addWidget(holder, stretch, Qt::AlignTop);
        return made;
    };
    own_ = column(6);
    demos_ = column(5);
    row->addStretch(1);
    page->addLayout(row);
    page->addStretch();
}

void StartPage::clear(QVBoxLayout *column) {
    while (auto *item = column->takeAt(0)) {
        if (item->widget()) item->widget()->deleteLater();
        delete item;
    }
}

void StartPage::addTitle(QVBoxLayout *column, const QString &text) {
    auto *label = new QLabel(text);
    label->setFont(theme_.text(theme::kHeadPixels, true));
    column->addWidget(label);
}

void StartPage::addWords(QVBoxLayout *column, const QString &text) {
    auto *label = new QLabel(text);
    label->setFont(theme_.text(theme::kTextPixels));
    label->setWordWrap(true);
    column->addWidget(label);
}

QPushButton *StartPage::addButton(QVBoxLayout *column, const QString &text, const QString &beneath,
                                  const QImage &picture, const std::function<void()> &run, const QString &tip) {
    auto *entry = new QPushButton;
    entry->setProperty(theme::kLeft, true);
    entry->setText(beneath.isEmpty() ? text : text + QStringLiteral("\n") + beneath);
    entry->setAccessibleName(beneath.isEmpty() ? text : tr("%1, %2").arg(text, beneath));
    if (!picture.isNull()) {
        entry->setIcon(QIcon(QPixmap::fromImage(picture)));
        entry->setIconSize(kPicture);
    }
    entry->setMinimumHeight(picture.isNull() ? (beneath.isEmpty() ? 38 : 48) : kPicture.height() + 12);
    entry->setToolTip(tip);
    connect(entry, &QPushButton::clicked, this, run);
    column->addWidget(entry);
    return entry;
}

void StartPage::showFileMenu(const QString &path, const QPoint &globally) {
    QMenu menu(this);
    menu.addAction(tr("Open"), this, [this, path] { emit fileChosen(path); });
    menu.addAction(tr("Show its folder"), this,
                   [path] { QDesktopServices::openUrl(QUrl::fromLocalFile(QFileInfo(path).absolutePath())); });
    menu.addAction(tr("Copy its path"), this, [path] { QApplication::clipboard()->setText(path); });
    menu.addSeparator();
    menu.addAction(tr("Take it out of this list"), this, [this, path] { emit forgetWanted(path); });
    menu.exec(globally);
}

void StartPage::show(const QStringList &demos, const QStringList &recent) {
    clear(own_);
    clear(demos_);
    addTitle(own_, tr("Your work"));
    constexpr qsizetype kMost = 4;
    for (const auto &path : recent.mid(0, kMost)) {
        QPushButton *entry = addButton(
            own_, QFileInfo(path).completeBaseName(), tr("in %1").arg(shortFolder(QFileInfo(path).absolutePath())),
            keptPicture(path), [this, path] { emit fileChosen(path); }, path);
        entry->setContextMenuPolicy(Qt::CustomContextMenu);
        connect(entry, &QWidget::customContextMenuRequested, this,
                [this, path, entry](const QPoint &at) { showFileMenu(path, entry->mapToGlobal(at)); });
    }
    if (recent.isEmpty()) addWords(own_, tr("Nothing saved yet. Begin with a frame:"));
    addButton(own_, tr("New from a layout"), tr("quad, tricopter, hexacopter: parameters make the frame"), {},
              [this] { emit layoutWanted(); });
    addButton(own_, tr("New from a frame drawing (DXF)…"), tr("the plates that you cut"), {},
              [this] { emit drawingWanted(); });
    addButton(own_, tr("New from a kit list (CSV)…"), tr("what lies in the box"), {}, [this] { emit kitListWanted(); });
    addButton(own_, tr("Open a build…"), {}, {}, [this] { emit browseWanted(); });
    addTitle(demos_, tr("Look round"));
    addButton(demos_, tr("First build"), tr("a lesson: a 5-inch quad, step by step"), {},
              [this] { emit lessonWanted(); });
    for (const auto &demo : demos)
        addButton(
            demos_, tr("Demo: %1").arg(demoTitle(demo)), demoWords(demo), {}, [this, demo] { emit fileChosen(demo); },
            tr("Opens as a copy of your own"));
    if (demos.isEmpty())
        addWords(demos_, tr("The demos were not found: they belong in share/weightaxis beside the program."));
}

} // namespace waxis::app
