#include "app/shell/main_window.h"

#include "app/document/clipboard.h"
#include "app/document/data_files.h"
#include "app/document/survey_runner.h"
#include "app/shell/axis_bar.h"
#include "app/shell/build_sheet.h"
#include "app/shell/command_palette.h"
#include "app/shell/findings_panel.h"
#include "app/shell/inspector_panel.h"
#include "app/shell/lesson.h"
#include "app/shell/practice_sheet.h"
#include "app/shell/stage_rail.h"
#include "app/shell/start_page.h"
#include "app/shell/sum_sheet.h"
#include "app/stages/balance/balance_bench.h"
#include "app/stages/frame/frame_bench.h"
#include "app/stages/kit/kit_bench.h"
#include "app/stages/kit/own_part_card.h"
#include "app/stages/kit/own_parts_dialog.h"
#include "app/stages/pending/pending_bench.h"
#include "app/stages/place/place_bench.h"
#include "app/stages/radio/radio_bench.h"
#include "app/stages/stack/stack_bench.h"
#include "app/stages/wire/wire_bench.h"
#include "app/theme/metrics.h"
#include "app/widgets/file_dialogs.h"
#include "app/widgets/notice_bar.h"
#include "core/catalog/type_changes.h"
#include "core/edits/case_edits.h"
#include "core/edits/clip.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "core/edits/perch_edits.h"
#include "core/layout/layout.h"
#include "core/rules/rule.h"

#include <QApplication>
#include <QCloseEvent>
#include <QComboBox>
#include <QDir>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QLocale>
#include <QMenu>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPixmapCache>
#include <QPushButton>
#include <QScrollArea>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QStandardPaths>
#include <QTimer>
#include <QUndoView>
#include <QVBoxLayout>

namespace waxis::app {

namespace {

/// A thin line between panels.
QWidget *rule(Qt::Orientation along) {
    auto *line = new QWidget;
    line->setFixedSize(along == Qt::Vertical ? QSize(1, QWIDGETSIZE_MAX) : QSize(QWIDGETSIZE_MAX, 1));
    line->setBackgroundRole(QPalette::Mid);
    line->setAutoFillBackground(true);
    return line;
}

/// A build's name as that of a file: no separators, nothing hidden.
QString fileNameFor(QString name) {
    for (QChar &c : name)
        if (QStringLiteral("/\\:*?\"<>|").contains(c)) c = '-';
    while (name.startsWith('.')) name.remove(0, 1);
    return (name.trimmed().isEmpty() ? QStringLiteral("build") : name.trimmed()) + ".waxis";
}

} // namespace

MainWindow::MainWindow(theme::Theme &theme, const QString &autosaveFolder, QWidget *parent)
    : QMainWindow(parent), theme_(theme),
      autosave_(document_, autosaveFolder.isEmpty() ? Autosave::standardFolder() : autosaveFolder) {
    constexpr int kDrawingCache_kB = 96 * 1024; // every part and plate of a crowded build, in both views
    QPixmapCache::setCacheLimit(kDrawingCache_kB);
    setAcceptDrops(true);
    setMinimumSize(960, 600); // a 1920x1200 screen at 200 %
    setWindowIcon(QIcon(theme_.icon("weightaxis", {}, 64, 1)));
    QStringList problems;
    std::set<std::string> ownTypes;
    TypeTable library = partLibrary(problems, &ownTypes);
    document_.setLibrary(std::move(library), std::move(ownTypes));

    surveyor_ = new SurveyRunner(document_, this);
    rail_ = new StageRail(document_, theme_);
    bench_ = new QStackedWidget;
    bench_->setMinimumSize(420, 320); // the benches scroll: none of them may make the window larger
    start_ = new StartPage(theme_);
    place_ = new place::PlaceBench(document_, theme_);
    kit_ = new kit::KitBench(document_, theme_);
    frame_ = new frame::FrameBench(document_, theme_);
    stack_ = new stackbench::StackBench(document_, theme_);
    wire_ = new wire::WireBench(document_, theme_);
    radio_ = new radio::RadioBench(document_, theme_);
    balance_ = new balance::BalanceBench(document_, theme_);
    const std::map<Stage, QWidget *> built{{Stage::kit, kit_},        {Stage::frame, frame_}, {Stage::place, place_},
                                           {Stage::stack, stack_},    {Stage::wire, wire_},   {Stage::radio, radio_},
                                           {Stage::balance, balance_}};
    for (int i = 0; i < kStageCount; ++i) {
        const auto own = built.find(Stage(i));
        bench_->addWidget(own == built.end() ? new PendingBench(Stage(i), theme_) : own->second);
    }
    bench_->addWidget(start_);
    practiceSheet_ = new PracticeSheet(document_, theme_);
    bench_->addWidget(practiceSheet_);
    buildSheet_ = new BuildSheet(document_, theme_);
    bench_->addWidget(buildSheet_);
    notices_ = new NoticeBar(theme_, bench_);
    inspector_ = new InspectorPanel(document_, theme_);
    findings_ = new FindingsPanel(document_, theme_);
    axisBar_ = new AxisBar(document_, theme_);
    palette_ = new CommandPalette(theme_, this);

    auto *middle = new QVBoxLayout;
    middle->setContentsMargins(0, 0, 0, 0);
    middle->setSpacing(0);
    lesson_ = new LessonStrip(document_, theme_);
    middle->addWidget(lesson_);
    middle->addWidget(bench_, 1);
    ledger_ = new QWidget;
    ledger_->setFixedWidth(theme::kLedgerWidth);
    auto *ledger = new QVBoxLayout(ledger_);
    ledger->setContentsMargins(0, 0, 0, 0);
    ledger->setSpacing(0);
    ledgerSplit_ = new QSplitter(Qt::Vertical);
    ledgerSplit_->setObjectName("ledger-split");
    ledgerSplit_->setHandleWidth(5);
    ledgerSplit_->setChildrenCollapsible(false);
    inspectorScroll_ = new QScrollArea;
    inspectorScroll_->setWidgetResizable(true);
    inspectorScroll_->setFocusPolicy(Qt::NoFocus); // its fields take the keyboard
    inspectorScroll_->setFrameShape(QFrame::NoFrame);
    inspectorScroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    inspector_->setMaximumWidth(theme::kLedgerWidth); // what is wider is cut within its row, not the panel
    inspectorScroll_->setWidget(inspector_);
    ledgerSplit_->addWidget(inspectorScroll_);
    ledgerSplit_->addWidget(findings_);
    ledgerSplit_->setStretchFactor(0, 0);
    ledgerSplit_->setStretchFactor(1, 1);
    ledger->addWidget(ledgerSplit_, 1);
    // The inspector takes what it needs up to three fifths, until somebody moves the border.
    const auto share = [this] {
        if (ledgerMoved_ || ledgerSplit_->height() < 10) return;
        const int whole = ledgerSplit_->height();
        const int wanted = std::min(inspector_->sizeHint().height() + 4, whole * 3 / 5);
        ledgerSplit_->setSizes({wanted, whole - wanted});
    };
    connect(ledgerSplit_, &QSplitter::splitterMoved, this, [this] { ledgerMoved_ = true; });
    connect(&document_, &Document::selectionChanged, this, [this, share] { QTimer::singleShot(0, this, share); });
    connect(&document_, &Document::opened, this, [this, share] { QTimer::singleShot(0, this, share); });
    auto *row = new QHBoxLayout;
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(rail_);
    row->addLayout(middle, 1);
    row->addWidget(rule(Qt::Vertical));
    row->addWidget(ledger_);
    auto *central = new QWidget;
    auto *all = new QVBoxLayout(central);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    all->addLayout(row, 1);
    all->addWidget(axisBar_);
    setCentralWidget(central);

    table_ = new ActionTable(actionSpecs(), this);
    makeMenus();
    connect(rail_, &StageRail::stageChosen, this, &MainWindow::goToStage);
    connect(axisBar_, &AxisBar::clicked, this, [this] { setStage(Stage::balance); });
    connect(findings_, &FindingsPanel::revealWanted, this, [this](const QStringList &ids, RuleId rule) {
        const Stage about = ruleOf(rule).stage;
        if (about == Stage::stack && stack_->reveal(ids)) {
            setStage(Stage::stack);
            return;
        }
        if (about == Stage::wire && wire_->reveal(ids)) {
            setStage(Stage::wire);
            return;
        }
        if (about == Stage::radio && radio_->reveal(ids)) {
            setStage(Stage::radio);
            return;
        }
        if (about == Stage::balance) {
            balance_->reveal(ids, rule);
            setStage(Stage::balance);
            return;
        }
        setStage(Stage::place);
        place_->reveal(ids);
    });
    connect(start_, &StartPage::fileChosen, this, &MainWindow::openAsking);
    // After the click: the list is made anew.
    connect(start_, &StartPage::forgetWanted, this, &MainWindow::forgetRecent, Qt::QueuedConnection);
    connect(start_, &StartPage::browseWanted, this, &MainWindow::browse);
    connect(start_, &StartPage::layoutWanted, this, &MainWindow::newFromLayout);
    connect(start_, &StartPage::drawingWanted, this, [this] { newFromDrawing(); });
    connect(start_, &StartPage::lessonWanted, this, &MainWindow::startLesson);
    connect(start_, &StartPage::kitListWanted, this, [this] { newFromKitList(); });
    auto say = [this](const QString &text, bool bad) {
        notices_->say(text, bad ? Severity::stop : Severity::note, {}, bad ? 0 : 6);
    };
    connect(&place_->library(), &place::LibraryDrawer::chosen, this,
            [this](const QString &type) { addFromLibrary(type.toStdString()); });
    connect(&place_->library(), &place::LibraryDrawer::likeWanted, this, &MainWindow::ownPartLike);
    connect(&place_->library(), &place::LibraryDrawer::ownWanted, this, [this] { ownPartLike({}); });
    connect(kit_, &kit::KitBench::said, this, say);
    connect(kit_, &kit::KitBench::likeWanted, this, &MainWindow::ownPartLike);
    connect(frame_, &frame::FrameBench::said, this, say);
    connect(wire_, &wire::WireBench::said, this, say);
    connect(balance_, &balance::BalanceBench::said, this, say);
    connect(practiceSheet_, &PracticeSheet::said, this, say);
    connect(practiceSheet_, &PracticeSheet::finished, this, [this] { setStage(stage_); });
    connect(buildSheet_, &BuildSheet::finished, this, [this] { setStage(stage_); });
    for (place::PlaceView *view : {&place_->plan(), &place_->elevation()}) {
        connect(view, &place::PlaceView::contextWanted, this, &MainWindow::showPartMenu);
        connect(view, &place::PlaceView::partSeated, this, &MainWindow::offerAllAlike);
    }
    connect(&document_, &Document::refused, this,
            [this](const QString &reason) { notices_->say(reason, Severity::note, {}, 6); });
    connect(&document_, &Document::stateChanged, this, &MainWindow::refreshTitle);
    connect(&document_, &Document::opened, this, &MainWindow::refreshLoadCases);
    connect(&document_, &Document::changed, this, [this] {
        if (!document_.isPreviewing()) refreshLoadCases();
    });
    connect(&document_, &Document::loadCaseChanged, this,
            [this] { loadCases_->setCurrentIndex(document_.loadCase()); });
    connect(&document_, &Document::changed, this, [this] {
        if (document_.isPreviewing()) return;
        refreshTitle();
        refreshProfile();
        table_->refresh();
    });
    connect(&document_, &Document::selectionChanged, table_, &ActionTable::refresh);
    connect(&document_.history(), &QUndoStack::indexChanged, table_, &ActionTable::refresh);
    const auto nameUndo = [this] {
        const QString undo = document_.history().undoText(), redo = document_.history().redoText();
        table_->action("undo")->setText(undo.isEmpty() ? tr("Undo") : tr("Undo: %1").arg(undo));
        table_->action("redo")->setText(redo.isEmpty() ? tr("Redo") : tr("Redo: %1").arg(redo));
    };
    connect(&document_.history(), &QUndoStack::indexChanged, this, nameUndo);
    connect(&document_.history(), &QUndoStack::undoTextChanged, this, nameUndo);
    for (QWidget *beside : {ledger_, static_cast<QWidget *>(rail_)}) theme_.dress(*beside, theme::Ground::panel);

    QSettings settings;
    if (!restoreGeometry(settings.value("window/geometry").toByteArray())) resize(1280, 800);
    start_->show(demoFiles(), recentFiles());
    bench_->setCurrentWidget(start_);
    rail_->setStage(Stage::place);
    findings_->setStage(Stage::place);
    refreshTitle();
    refreshLoadCases();
    refreshProfile();
    if (dataFolder().isEmpty())
        notices_->say(
            tr("The program's demos, parts and drawings were not found. They belong in share/weightaxis beside "
               "it, or where WEIGHTAXIS_DATA says."),
            Severity::watch);
    if (!problems.isEmpty()) {
        libraryProblem_ = tr("Part library not read: %1").arg(problems.join("; "));
        notices_->say(libraryProblem_, Severity::watch);
    }
    connect(&autosave_, &Autosave::failed, this, [this](const QString &reason) {
        notices_->say(tr("Unsaved work is not kept: %1. Save the build.").arg(reason), Severity::watch,
                      {{tr("Save"), [this] { save(false); }}});
    });
    connect(&autosave_, &Autosave::keepsAgain, this,
            [this] { notices_->say(tr("Unsaved work is kept again."), Severity::note, {}, 4); });
    connect(
        qApp, &QGuiApplication::commitDataRequest, this, [this] { autosave_.writeNow(); }, Qt::DirectConnection);
}

void MainWindow::survive(const QString &what) {
    const bool kept = autosave_.writeNow();
    document_.cancelPreview();
    notices_->say(kept ? tr("Something failed inside the program: %1. Your work is kept; save it, then take the last "
                            "step back if the trouble stays.")
                             .arg(what)
                       : tr("Something failed inside the program: %1. Save your work now.").arg(what),
                  Severity::stop,
                  {{tr("Save"), [this] { save(false); }}, {tr("Undo"), [this] { document_.history().undo(); }}});
}

MainWindow::~MainWindow() {
    delete takeCentralWidget(); // a cell that is being filled in gives its text to the document as it goes
}

void MainWindow::showPracticeSheet() { bench_->setCurrentWidget(practiceSheet_); }

void MainWindow::showBuildSheet() { bench_->setCurrentWidget(buildSheet_); }

void MainWindow::copyChosen(bool cut) {
    const auto parts = document_.selectedParts();
    if (const QString problem = copyParts(document_.build(), parts); !problem.isEmpty()) {
        emit document_.refused(problem);
        return;
    }
    if (cut) place_->plan().removeChosen();
    table_->refresh();
}

void MainWindow::paste() {
    QString problem;
    const auto clip = partsOnClipboard(problem);
    if (!clip) {
        emit document_.refused(problem.isEmpty() ? tr("There are no parts on the clipboard.")
                                                 : tr("What lies on the clipboard cannot be read: %1").arg(problem));
        return;
    }
    pasteParts(*clip, tr("Paste %n part(s)", nullptr, int(clip->parts.size())));
}

void MainWindow::duplicateChosen() {
    const auto clip = clipOf(document_.build(), document_.selectedParts());
    if (!clip) {
        emit document_.refused(QString::fromStdString(clip.error().message));
        return;
    }
    pasteParts(*clip, tr("Duplicate %n part(s)", nullptr, int(clip->parts.size())));
}

void MainWindow::pasteParts(const Build &clip, const QString &name) {
    // Beside where it stood, so that both are seen; a step farther for each time.
    constexpr double kStep_mm = 10;
    Vec3 shift = Vec3::Zero();
    const auto taken = [&] {
        return std::any_of(document_.build().parts.begin(), document_.build().parts.end(), [&](const Part &part) {
            return (framePose(document_.build(), part).position_mm -
                    (framePose(clip, clip.parts.front()).position_mm + shift))
                       .norm() < 1;
        });
    };
    for (int i = 0; i < 50 && taken(); ++i) shift += Vec3(-kStep_mm, -kStep_mm, 0);
    std::vector<std::string> added;
    if (!document_.edit(name, pasteClip(document_.build(), clip, shift, &added))) return;
    QStringList ids;
    for (const auto &id : added) ids << QString::fromStdString(id);
    document_.selectAll(ids);
    if (stage_ != Stage::place) setStage(Stage::place);
}

void MainWindow::resizeEvent(QResizeEvent *event) {
    QMainWindow::resizeEvent(event);
    constexpr int kTitle_px = 1060; // below, the menus need the room, and the frame of the window says the name
    if (title_->isHidden() == (width() < kTitle_px)) return;
    title_->setVisible(width() >= kTitle_px);
    layOutCorner();
}

/// A menu bar does not follow its corner by itself.
void MainWindow::layOutCorner() {
    menuBar()->cornerWidget()->adjustSize();
    menuBar()->setCornerWidget(menuBar()->cornerWidget());
}

void MainWindow::contextMenuEvent(QContextMenuEvent *event) {
    // What no panel has a menu of its own for: the menu of what is chosen there.
    const bool onBench =
        bench_->currentWidget() != start_ && bench_->rect().contains(bench_->mapFromGlobal(event->globalPos()));
    if (onBench) showPartMenu(event->globalPos());
    event->accept();
}

void MainWindow::showPartMenu(const QPoint &at) {
    QMenu menu(this);
    const auto take = [&](std::initializer_list<const char *> ids) {
        for (const char *id : ids) {
            if (!*id)
                menu.addSeparator();
            else
                menu.addAction(table_->action(id));
        }
    };
    table_->refresh();
    if (document_.selectedPart())
        take({"cut",         "copy",      "paste", "duplicate", "",       "turn-left",   "turn-right", "upside-down",
              "pin",         "replace",   "",      "copy-arms", "mirror", "mirror-copy", "",           "optional",
              "change-type", "like-this", "",      "remove"});
    else if (findWire(document_.build(), document_.selected().toStdString()))
        take({"remove", "", "fit", "zoom", "", "why"});
    else
        take({"paste", "choose-all", "", "library", "outline", "fit", "", "build-sheet"});
    menu.exec(at);
}

void MainWindow::zoomToChosen() {
    switch (stage_) {
    case Stage::stack: stack_->canvas().zoomToChosen(); break;
    case Stage::frame: frame_->canvas().zoomToChosen(); break;
    case Stage::wire: wire_->map().zoomToChosen(); break;
    case Stage::radio: radio_->zoomToChosen(); break;
    case Stage::balance: balance_->zoomToChosen(); break;
    default: place_->zoomToChosen();
    }
}

void MainWindow::fitDrawing() {
    switch (stage_) {
    case Stage::stack: stack_->canvas().fit(); break;
    case Stage::frame: frame_->canvas().fit(); break;
    case Stage::wire: wire_->map().fit(); break;
    case Stage::radio: radio_->fit(); break;
    case Stage::balance: balance_->fit(); break;
    default: place_->fit();
    }
}

void MainWindow::offerAllAlike(const QString &part) {
    const Part *seated = findPart(document_.build(), part.toStdString());
    std::vector<std::string> more;
    if (!seated || !copyToOtherArms(document_.build(), seated->id, &more) || more.empty()) return;
    notices_->say(tr("%1 sits %2.")
                      .arg(QString::fromStdString(seated->name),
                           tr("on %1").arg(QString::fromStdString(displayName(
                               document_.build(), seated->placement.site.empty() ? seated->fastening.onto.front()
                                                                                 : seated->placement.site)))),
                  Severity::note,
                  {{tr("The other %1 at once").arg(more.size()),
                    [this, part] {
                        std::vector<std::string> added;
                        document_.edit(tr("Copy to the other arms"),
                                       copyToOtherArms(document_.build(), part.toStdString(), &added));
                    }}},
                  12);
}

void MainWindow::ownPartLike(const QString &type) {
    auto *card = new kit::OwnPartCard(document_, theme_, this);
    card->setAttribute(Qt::WA_DeleteOnClose);
    const std::string id = type.toStdString();
    const auto own = document_.build().types->find(id);
    const auto shipped = document_.library().find(id);
    if (own != document_.build().types->end())
        card->like(own->second);
    else if (shipped != document_.library().end())
        card->like(shipped->second);
    else
        card->fresh(PartKind::receiver);
    connect(card, &kit::OwnPartCard::said, this, [this](const QString &text, bool bad) {
        notices_->say(text, bad ? Severity::stop : Severity::note, {}, bad ? 0 : 6);
    });
    connect(card, &kit::OwnPartCard::kept, this, [this](const QString &made) {
        setStage(Stage::place);
        place_->showLibrary(true);
        place_->library().words().setText(QString::fromStdString(document_.library().at(made.toStdString()).name));
        place_->library().list().choose(made);
    });
    card->open();
}

void MainWindow::showOwnParts(bool pasting) {
    auto *dialog = new kit::OwnPartsDialog(document_, theme_, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    connect(dialog, &kit::OwnPartsDialog::said, this, [this](const QString &text, bool bad) {
        notices_->say(text, bad ? Severity::stop : Severity::note, {}, bad ? 0 : 6);
    });
    connect(dialog, &kit::OwnPartsDialog::likeWanted, this, [this, dialog](const QString &type) {
        dialog->accept();
        ownPartLike(type);
    });
    connect(dialog, &QDialog::finished, this, &MainWindow::offerCorrectedTypes);
    dialog->open();
    if (pasting) dialog->paste();
}

void MainWindow::offerCorrectedTypes() {
    std::set<std::string> own;
    for (const auto &[id, type] : *document_.build().types)
        if (document_.isOwnType(id)) own.insert(id);
    const auto corrected = correctedTypes(*document_.build().types, document_.library(), own);
    if (corrected.empty()) return;
    QStringList shown;
    constexpr std::size_t kShown = 3;
    for (std::size_t i = 0; i < std::min(kShown, corrected.size()); ++i) {
        QStringList words;
        for (const auto &difference : corrected[i].differences) words << QString::fromStdString(difference);
        shown << tr("%1 (%2)").arg(QString::fromStdString(document_.library().at(corrected[i].id).name),
                                   words.mid(0, 3).join(QStringLiteral(", ")));
    }
    if (corrected.size() > kShown) shown << tr("%1 more").arg(corrected.size() - kShown);
    notices_->say(tr("Parts of your own were corrected since: %1.").arg(shown.join(QStringLiteral("; "))),
                  Severity::note, {{tr("Follow"), [this, corrected] {
                                        EditResult next = document_.build();
                                        for (const auto &type : corrected)
                                            if (next) next = putType(*next, document_.library().at(type.id), type.id);
                                        document_.edit(tr("Follow corrected parts"), next);
                                    }}});
}

QWidget *MainWindow::makeTopRow() {
    auto *row = new QWidget;
    auto *layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 3, 12, 3);
    layout->setSpacing(8);
    title_ = new QLabel;
    title_->setTextFormat(Qt::RichText);
    layout->addWidget(title_);
    layout->addSpacing(12);
    loadCases_ = new QComboBox;
    loadCases_->setObjectName("load-case");
    loadCases_->setAccessibleName(tr("Load case"));
    loadCases_->setToolTip(tr("Load case: what is aboard"));
    loadCases_->setMinimumWidth(176);
    loadCases_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    loadCases_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    layout->addWidget(loadCases_);
    connect(loadCases_, &QComboBox::activated, this, [this](int index) {
        if (index == loadCases_->count() - 1) {
            loadCases_->setCurrentIndex(document_.loadCase());
            showBuildSheet();
        } else {
            document_.setLoadCase(index);
        }
    });
    profiles_ = new QComboBox;
    profiles_->setObjectName("practice");
    profiles_->setAccessibleName(tr("Practice profile"));
    for (const auto &profile : profiles()) {
        profiles_->addItem(
            tr("%1 practice").arg(QString::fromUtf8(profile.name.data(), qsizetype(profile.name.size()))),
            QString::fromUtf8(profile.id.data(), qsizetype(profile.id.size())));
        profiles_->setItemData(profiles_->count() - 1,
                               QString::fromUtf8(profile.forWhom.data(), qsizetype(profile.forWhom.size())),
                               Qt::ToolTipRole);
    }
    profiles_->insertSeparator(profiles_->count());
    profiles_->addItem(tr("Limits and schools…"), QStringLiteral("sheet"));
    layout->addWidget(profiles_);
    connect(profiles_, &QComboBox::activated, this, &MainWindow::pickProfile);
    auto *go = new QPushButton(tr("Go to or do…   Ctrl K"));
    go->setMinimumWidth(170);
    go->setFocusPolicy(Qt::TabFocus);
    layout->addWidget(go);
    connect(go, &QPushButton::clicked, this, &MainWindow::openPalette);
    return row;
}

void MainWindow::pickProfile(int index) {
    const QString id = profiles_->itemData(index).toString();
    if (id == "sheet") {
        refreshProfile();
        showPracticeSheet();
        return;
    }
    document_.edit(tr("Practice %1").arg(id), chooseProfile(document_.build(), id.toStdString()));
}

void MainWindow::refreshTitle() {
    const bool edited = document_.isModified();
    // The row keeps room for "edited": the menu bar does not make its corner wider later.
    const QFontMetrics strong(theme_.text(theme::kTextPixels, true));
    constexpr int kWidest_px = 108; // longer names are cut: the menus need the room at 1100 pixels
    const QString name = strong.elidedText(document_.title(), Qt::ElideRight, kWidest_px);
    title_->setToolTip(name == document_.title() ? QString() : document_.title());
    const int wide = strong.horizontalAdvance(name + QStringLiteral("  ") + tr("edited")) + 8;
    if (title_->minimumWidth() != wide) {
        title_->setMinimumWidth(wide);
        layOutCorner();
    }
    title_->setText(QStringLiteral("<b>%1</b>%2")
                        .arg(name.toHtmlEscaped(), edited ? QStringLiteral(" <span style='color:%1'>%2</span>")
                                                                .arg(theme_.colors().muted.name(), tr("edited"))
                                                          : QString()));
    setWindowTitle(tr("%1[*] – Weightaxis").arg(document_.title()));
    setWindowModified(edited);
}

void MainWindow::refreshLoadCases() {
    QStringList names;
    for (const auto &loadCase : document_.analysis().derived.loadCases) names << QString::fromStdString(loadCase.name);
    QStringList shown;
    for (int i = 0; i < loadCases_->count() - 2; ++i) shown << loadCases_->itemText(i);
    if (names != shown) {
        loadCases_->clear();
        loadCases_->addItems(names);
        loadCases_->insertSeparator(loadCases_->count());
        loadCases_->addItem(tr("Load cases…"));
    }
    loadCases_->setCurrentIndex(document_.loadCase());
}

void MainWindow::refreshProfile() {
    profiles_->setCurrentIndex(profiles_->findData(QString::fromStdString(document_.build().practice.profile)));
}

bool MainWindow::openAny(const QString &path) {
    if (path.endsWith(".dxf", Qt::CaseInsensitive)) {
        newFromDrawing(path);
        return true;
    }
    if (path.endsWith(".csv", Qt::CaseInsensitive)) {
        newFromKitList(path);
        return true;
    }
    return openFile(path);
}

bool MainWindow::openFile(const QString &path) {
    LoadError error;
    std::vector<LoadWarning> warnings;
    if (!document_.open(path, error, warnings)) {
        notices_->say(tr("%1 was not opened. At %2: expected %3, found %4. %5")
                          .arg(QFileInfo(path).fileName(), QString::fromStdString(error.where),
                               QString::fromStdString(error.expected), QString::fromStdString(error.found),
                               QString::fromStdString(error.suggestion))
                          .trimmed(),
                      Severity::stop);
        return false;
    }
    notices_->hide();
    if (!libraryProblem_.isEmpty()) // the file that was asked for at the start hid it
        notices_->say(std::exchange(libraryProblem_, {}), Severity::watch);
    setStage(Stage::place);
    if (demoFiles().contains(document_.path())) document_.forgetPath(); // a demo is opened as a copy
    rememberRecent(document_.path());
    if (!warnings.empty())
        notices_->say(tr("%1 in the file are not known and are kept: %2")
                          .arg(warnings.size() == 1 ? tr("One key") : tr("%1 keys").arg(warnings.size()),
                               QString::fromStdString(warnings.front().where + " " + warnings.front().message)),
                      Severity::note);
    offerCorrectedTypes();
    place_->plan().setFocus();
    return true;
}

void MainWindow::openAsking(const QString &path) {
    if (mayReplaceBuild()) openFile(path);
}

bool MainWindow::mayReplaceBuild() {
    if (!document_.isModified()) return true;
    const auto answer =
        QMessageBox::question(this, tr("Weightaxis"), tr("%1 has changes that are not saved.").arg(document_.title()),
                              QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save);
    if (answer == QMessageBox::Save) save(false);
    return answer == QMessageBox::Discard || (answer == QMessageBox::Save && !document_.isModified());
}

void MainWindow::startNew(const Build &build, Stage stage) {
    LoadedBuild fresh;
    fresh.build = build;
    document_.show(std::move(fresh), {});
    notices_->hide();
    setStage(stage);
}

void MainWindow::newFromLayout() {
    if (!mayReplaceBuild()) return;
    Build build;
    build.name = tr("New build").toStdString();
    if (auto frame = generateFrame(LayoutKind::quadX, {})) build.frame = *frame;
    startNew(build, Stage::frame);
    frame_->canvas().fit();
}

void MainWindow::newFromDrawing(const QString &path) {
    if (!mayReplaceBuild()) return;
    Build build;
    build.name = path.isEmpty() ? tr("New build").toStdString() : QFileInfo(path).completeBaseName().toStdString();
    startNew(build, Stage::frame);
    if (path.isEmpty())
        frame_->browseDrawing();
    else
        frame_->readDrawing(path);
}

void MainWindow::newFromKitList(const QString &path) {
    if (!mayReplaceBuild()) return;
    Build build;
    build.name = tr("New build").toStdString();
    startNew(build, Stage::kit);
    if (path.isEmpty())
        kit_->browseList();
    else
        kit_->readList(path);
}

void MainWindow::startLesson() {
    if (!mayReplaceBuild()) return;
    document_.history().setClean();
    newFromLayout();
    lesson_->begin(tr("First build"), firstBuildSteps());
}

void MainWindow::showStart() {
    start_->show(demoFiles(), recentFiles());
    bench_->setCurrentWidget(start_);
}

void MainWindow::setStage(Stage stage) {
    stage_ = stage;
    bench_->setCurrentIndex(int(stage));
    rail_->setStage(stage);
    findings_->setStage(stage);
    inspector_->setStage(stage);
    lesson_->setStage(stage);
    table_->refresh(); // what can be done is another there
}

void MainWindow::goToStage(Stage stage) {
    setStage(stage);
    findings_->setStage(stage, true);
    // With the drawer open the next part can be typed at once; a frame without parts wants them.
    const Build &build = document_.build();
    const bool bare = build.parts.empty() && !build.frame->motorMounts.empty();
    if (stage == Stage::place && (bare || place_->library().isVisible())) place_->showLibrary(true);
}

void MainWindow::browse() {
    const QString path = askOpenPath(this, tr("Open a build"), tr("Weightaxis builds (*.waxis)"));
    if (path.isEmpty()) return;
    openAsking(path);
}

void MainWindow::save(bool askForName, bool overwriteChanges) {
    QString path = document_.path();
    const bool shipped = !path.isEmpty() && demoFiles().contains(path);
    if (askForName || path.isEmpty() || shipped) {
        const QString name = fileNameFor(document_.title());
        const QString proposal = path.isEmpty() || shipped ? name : path;
        path = askSavePath(this, tr("Save the build"), proposal, tr("Weightaxis builds (*.waxis)"));
        if (path.isEmpty()) return;
        // A build that has no name of its own yet is called as its file.
        if (document_.title() == tr("New build"))
            document_.edit(tr("Name the build"),
                           renameBuild(document_.build(), QFileInfo(path).completeBaseName().toStdString()));
    }
    saveTo(path, overwriteChanges);
}

void MainWindow::saveTo(const QString &path, bool overwrite) {
    SaveError error;
    if (document_.save(path, error, overwrite)) {
        rememberRecent(document_.path());
        if (place_->plan().isVisible()) keepPicture(document_.path(), place_->plan().grab().toImage());
        notices_->say(tr("Saved as %1.").arg(path), Severity::note, {}, 3);
        return;
    }
    std::vector<NoticeChoice> choices;
    if (error.changedOnDisk)
        choices = {{tr("Overwrite"), [this, path] { saveTo(path, true); }},
                   {tr("Save as…"), [this] { save(true); }},
                   {tr("Open what is on disk"), [this, path] { openFile(path); }}};
    if (error.readOnly)
        choices = {{tr("Replace it all the same"), [this, path] { saveTo(path, true); }},
                   {tr("Save as…"), [this] { save(true); }}};
    notices_->say(tr("Not saved: %1.").arg(QString::fromStdString(error.reason)), Severity::stop, std::move(choices));
}

void MainWindow::addFromLibrary(const std::string &typeId) {
    const auto own = document_.build().types->find(typeId);
    const bool embedded = own != document_.build().types->end();
    const auto shipped = document_.library().find(typeId);
    if (!embedded && shipped == document_.library().end()) return;
    const PartType type = embedded ? own->second : shipped->second;
    setStage(Stage::place);
    const QPointF middle = place_->plan().centre();
    // Where it belongs, if anywhere; else in sight, held by nothing.
    const auto places = perchesFor(document_.build(), type, document_.library());
    std::vector<std::string> added;
    const auto put = places.empty()
                         ? addPart(document_.build(), type, typeId, Pose{Vec3(middle.x(), -middle.y(), 0)})
                         : addPerched(document_.build(), type, {places.front()}, document_.library(), &added);
    const std::string id = added.empty() ? freshId(document_.build(), typeId) : added.front();
    if (document_.edit(tr("Add %1").arg(QString::fromStdString(type.name)), put)) {
        document_.select(QString::fromStdString(id));
        if (!added.empty()) offerAllAlike(QString::fromStdString(id));
    }
}

void MainWindow::openPalette() {
    std::vector<PaletteEntry> entries;
    for (const auto &spec : table_->specs()) {
        auto *action = table_->action(spec.id);
        if (action->isEnabled() && spec.id != "palette")
            entries.push_back({spec.text.section('\t', 0, 0),
                               spec.id.startsWith("sum-")     ? tr("calculation")
                               : spec.id.startsWith("stage-") ? tr("stage")
                               : spec.id.startsWith("page-")  ? tr("page")
                                                              : spec.key.toString(QKeySequence::NativeText),
                               spec.run});
    }
    for (const auto &part : document_.build().parts)
        entries.push_back({QString::fromStdString(part.name.empty() ? part.id : part.name), tr("part"),
                           [this, id = QString::fromStdString(part.id)] {
                               setStage(Stage::place);
                               document_.select(id);
                               place_->reveal({id});
                               document_.highlight({});
                           }});
    for (const auto &[id, type] : document_.library())
        entries.push_back({tr("Add %1").arg(QString::fromStdString(type.name)), tr("library"),
                           [this, typeId = id] { addFromLibrary(typeId); }});
    palette_->open(std::move(entries));
}

void MainWindow::showSum(const QString &name) {
    if (const Sum *sum = findSum(name.toStdString())) (new SumSheet(*sum, theme_, this))->show();
}

void MainWindow::showHistory() {
    auto *view = new QUndoView(&document_.history());
    view->setParent(this, Qt::Tool);
    view->setAttribute(Qt::WA_DeleteOnClose);
    view->setWindowTitle(tr("History of %1").arg(document_.title()));
    view->setEmptyLabel(tr("as opened"));
    view->resize(320, 420);
    view->show();
}

void MainWindow::showHelp() {
    auto *sheet = new QMessageBox(
        QMessageBox::NoIcon, tr("Keys and hands"),
        tr("Drag a part; hold Ctrl to keep it from snapping, Esc to put it back.\n"
           "A second click chooses what lies beneath; Shift-click adds, Shift-drag on the mat\n"
           "takes all within a frame. A chosen plate is dragged with what it carries.\n"
           "Arrow keys nudge by 1 mm, with Shift 0.1 mm, with Ctrl 5 mm.\n"
           "Q and E turn by a quarter, V turns upside down, Space pins, Ctrl+M mirrors.\n"
           "1 to 9 switch overlays, L makes the lower view larger, G drops a ghost of the GPS.\n"
           "In Balance: drag a part on its line, or nudge it with the arrow keys; Enter slides it to balance.\n"
           "In Stack: drag a layer, Up and Down choose, with Ctrl they move it; V turns a board over, Q and E\n"
           "by a quarter, Del takes it out.\n"
           "Hold M over two things to measure between them.\n"
           "Wheel zooms at the pointer, 0 fits, Z goes to what is chosen, dragging the mat moves it.\n"
           "Tab goes from thing to thing in a drawing; Ctrl+Shift+L lists them all, to find, hide and lock.\n"
           "In Frame: drag numbers, rims, squares, posts and places; Del takes a post or place out.\n"
           "F1 to F9 change the stage, F10 goes to the next finding, Ctrl+K finds anything.\n"
           "Ctrl+C in a table copies all of it as CSV.\n"
           "In the findings: Enter why, S show, F fix, A accept."),
        QMessageBox::Close, this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    sheet->open();
}

QStringList MainWindow::recentFiles() const {
    QStringList files = QSettings().value("recent").toStringList();
    files.removeIf([](const QString &path) { return !QFileInfo::exists(path); });
    return files;
}

void MainWindow::rememberRecent(const QString &path) {
    if (path.isEmpty() || demoFiles().contains(path)) return;
    QStringList files = recentFiles();
    files.removeAll(path);
    files.prepend(path);
    constexpr int kKept = 8;
    QSettings().setValue("recent", QStringList(files.mid(0, kKept)));
}

void MainWindow::forgetRecent(const QString &path) {
    QStringList files = recentFiles();
    files.removeAll(path);
    QSettings().setValue("recent", files);
    start_->show(demoFiles(), recentFiles());
}

void MainWindow::offerRecovery() {
    const auto left = autosave_.leftBehind();
    if (left.empty()) return;
    const Recovery newest = left.front();
    notices_->say(tr("Unsaved work on %1 from %2 was kept.")
                      .arg(newest.name, QLocale().toString(newest.when, QLocale::ShortFormat)),
                  Severity::watch,
                  {{tr("Recover"),
                    [this, newest] {
                        if (!mayReplaceBuild()) return offerRecovery();
                        QString reason;
                        if (!autosave_.recover(newest, reason)) {
                            notices_->say(tr("The kept copy cannot be read: %1").arg(reason), Severity::stop);
                            return;
                        }
                        setStage(Stage::place);
                        offerRecovery(); // there may be another
                    }},
                   {tr("Later"), [] {}},
                   {tr("Discard"), [this, newest] {
                        Autosave::discard(newest);
                        offerRecovery();
                    }}});
}

void MainWindow::closeEvent(QCloseEvent *event) {
    if (auto *field = focusWidget()) field->clearFocus(); // what is being typed counts
    if (!mayReplaceBuild()) {
        event->ignore();
        return;
    }
    autosave_.clear();
    QSettings().setValue("window/geometry", saveGeometry());
    event->accept();
}

namespace {

/// Builds, frame drawings and kit lists can be dropped.
bool canTake(const QString &path) {
    return path.endsWith(".waxis") || path.endsWith(".dxf", Qt::CaseInsensitive) ||
           path.endsWith(".csv", Qt::CaseInsensitive);
}

} // namespace

void MainWindow::dragEnterEvent(QDragEnterEvent *event) {
    for (const auto &url : event->mimeData()->urls())
        if (canTake(url.toLocalFile())) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent *event) {
    for (const auto &url : event->mimeData()->urls()) {
        const QString path = url.toLocalFile();
        if (!canTake(path)) continue;
        if (path.endsWith(".waxis")) {
            openAsking(path);
        } else if (path.endsWith(".csv", Qt::CaseInsensitive)) { // into the open build
            setStage(Stage::kit);
            kit_->readList(path);
        } else if (bench_->currentWidget() == start_) { // nothing is open: a build of its own
            newFromDrawing(path);
        } else {
            setStage(Stage::frame);
            frame_->readDrawing(path);
        }
        return;
    }
}

} // namespace waxis::app
