#include "app/shell/main_window.h"

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
#include "app/stages/build/build_bench.h"
#include "app/stages/frame/frame_bench.h"
#include "app/stages/kit/kit_bench.h"
#include "app/stages/kit/own_part_card.h"
#include "app/stages/kit/own_parts_dialog.h"
#include "app/stages/log/log_bench.h"
#include "app/stages/place/library_drawer.h"
#include "app/stages/place/place_bench.h"
#include "app/stages/place/place_view.h"
#include "app/stages/radio/radio_bench.h"
#include "app/stages/stack/stack_bench.h"
#include "app/stages/wire/wire_bench.h"
#include "app/theme/metrics.h"
#include "app/widgets/calm_wheel.h"
#include "app/widgets/file_dialogs.h"
#include "app/widgets/notice_bar.h"
#include "core/edits/part_edits.h"
#include "core/layout/layout.h"
#include "core/rules/rule.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenuBar>
#include <QMessageBox>
#include <QPixmapCache>
#include <QPushButton>
#include <QScrollArea>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
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

} // namespace

MainWindow::MainWindow(theme::Theme &theme, const QString &autosaveFolder, QWidget *parent)
    : QMainWindow(parent), theme_(theme),
      autosave_(document_, autosaveFolder.isEmpty() ? Autosave::standardFolder() : autosaveFolder) {
    // Every part and plate of a crowded build, in both views. Qt's style keeps its frames and buttons there as well and
    // fills whatever is allowed in the course of a day.
    constexpr double kDrawingCache_kB = 32 * 1024;
    QPixmapCache::setCacheLimit(int(kDrawingCache_kB * devicePixelRatioF() * devicePixelRatioF()));
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
    instruments_ = new Instruments(this);
    kit_ = new kit::KitBench(document_, *instruments_, theme_);
    frame_ = new frame::FrameBench(document_, theme_);
    stack_ = new stackbench::StackBench(document_, theme_);
    wire_ = new wire::WireBench(document_, theme_);
    radio_ = new radio::RadioBench(document_, theme_);
    balance_ = new balance::BalanceBench(document_, theme_);
    build_ = new assembly::BuildBench(document_, theme_);
    log_ = new logbench::LogBench(document_, *instruments_, theme_);
    benches_ = {kit_, frame_, place_, stack_, wire_, radio_, balance_, build_, log_};
    for (Bench *bench : benches_) {
        bench_->addWidget(bench);
        connect(bench, &Bench::said, this, [this](const QString &text, bool bad) { tell(text, bad); });
    }
    connect(instruments_, &Instruments::said, this, [this](const QString &text, bool bad) { tell(text, bad); });
    connect(build_, &assembly::BuildBench::pinsWanted, this, [this](const QString &id) {
        goToStage(Stage::wire);
        wire_->showPage(wire::Page::pins);
        document_.select(id);
    });
    connect(build_, &assembly::BuildBench::weighingsWanted, this, [this](const QString &loadCase) {
        const auto &cases = *document_.analysis().derived.loadCases;
        for (std::size_t c = 0; c < cases.size(); ++c)
            if (cases[c].id == loadCase.toStdString()) document_.setLoadCase(int(c));
        goToStage(Stage::balance);
        balance_->showPage(balance::Page::weighings);
    });
    bench_->addWidget(start_);
    practiceSheet_ = new PracticeSheet(document_, theme_);
    bench_->addWidget(practiceSheet_);
    buildSheet_ = new BuildSheet(document_, theme_);
    bench_->addWidget(buildSheet_);
    new CalmWheel(this);
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
        // In the stage that the rule belongs to where that has the things, else on the mat.
        const Stage about = ruleOf(rule).stage;
        if (about != Stage::place && benches_[std::size_t(about)]->reveal(ids, rule)) return setStage(about);
        setStage(Stage::place);
        place_->reveal(ids, rule);
    });
    connect(start_, &StartPage::fileChosen, this, &MainWindow::openAsking);
    // After the click: the list is made anew.
    connect(start_, &StartPage::forgetWanted, this, &MainWindow::forgetRecent, Qt::QueuedConnection);
    connect(start_, &StartPage::browseWanted, this, &MainWindow::browse);
    connect(start_, &StartPage::layoutWanted, this, &MainWindow::newFromLayout);
    connect(start_, &StartPage::drawingWanted, this, [this] { newFromDrawing(); });
    connect(start_, &StartPage::lessonWanted, this, &MainWindow::startLesson);
    connect(start_, &StartPage::kitListWanted, this, [this] { newFromKitList(); });
    connect(&place_->library(), &place::LibraryDrawer::chosen, this,
            [this](const QString &type) { addFromLibrary(type.toStdString()); });
    connect(&place_->library(), &place::LibraryDrawer::likeWanted, this, &MainWindow::ownPartLike);
    connect(&place_->library(), &place::LibraryDrawer::ownWanted, this, [this] { ownPartLike({}); });
    connect(kit_, &kit::KitBench::likeWanted, this, &MainWindow::ownPartLike);
    connect(practiceSheet_, &PracticeSheet::said, this, &MainWindow::tell);
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

void MainWindow::zoomToChosen() { benches_[std::size_t(stage_)]->zoomToChosen(); }

void MainWindow::fitDrawing() { benches_[std::size_t(stage_)]->fit(); }

void MainWindow::tell(const QString &text, bool bad) {
    notices_->say(text, bad ? Severity::stop : Severity::note, {}, bad ? 0 : 6);
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
                               place_->reveal({id}, RuleId::fitOverlap);
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
           "1 to 9 switch overlays, L makes the lower view larger, G remembers a place for the GPS.\n"
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

} // namespace waxis::app
